//! What is on mouse, pad and other devices, below the keyboard.

use swap_knot::play::Bound;
use swap_knot::{Chord, DeviceKind};

use super::{KeyboardMap, MARGIN, WIDTH, is_key, pad};
use crate::glyph::Glyphs;
use crate::pen::{Look, Pen, Type};
use crate::text;

const GAP: f32 = 24.0;
const LINE: f32 = 40.0;
const GLYPH: f32 = 30.0;
/// The least room for a title.
const LEAST: f32 = 90.0;
/// Columns of chords and what they do.
const COLUMNS: usize = 4;

/// Draws a panel a device; answers where they end.
pub(super) fn draw(map: &KeyboardMap<'_>, pen: &mut Pen, top: f32) -> f32 {
    let mut y = top;
    for kind in [
        DeviceKind::Mouse,
        DeviceKind::Gamepad,
        DeviceKind::Touch,
        DeviceKind::Other,
    ] {
        let mut chords = by_chord(map, kind);
        if kind == DeviceKind::Gamepad
            && let Some(figure) = pad::figure(map, WIDTH - 2.0 * MARGIN)
        {
            heading(map, pen, y, kind);
            pen.put(&figure, MARGIN, y + 30.0, figure.height());
            y += 30.0 + figure.height() + 22.0;
            chords.retain(|(chord, _)| !pad::is_in_figure(chord.input()));
        }
        if !chords.is_empty() {
            y = panel(map, pen, y, kind, &chords) + 14.0;
        }
    }
    y
}

/// The chords of a device, each with what it does.
fn by_chord<'a>(map: &'a KeyboardMap<'_>, kind: DeviceKind) -> Vec<(&'a Chord, Vec<&'a Bound>)> {
    let mut out: Vec<(&Chord, Vec<&Bound>)> = Vec::new();
    let bound = map.bindings().filter(|b| !is_key(b));
    for bound in bound.filter(|b| b.chord.device_kind() == kind) {
        match out.iter_mut().find(|(chord, _)| **chord == bound.chord) {
            Some((_, list)) => list.push(bound),
            None => out.push((&bound.chord, vec![bound])),
        }
    }
    out.sort_by_key(|(chord, _)| (*chord).clone());
    out
}

fn panel(
    map: &KeyboardMap<'_>,
    pen: &mut Pen,
    top: f32,
    kind: DeviceKind,
    chords: &[(&Chord, Vec<&Bound>)],
) -> f32 {
    let (draft, theme) = (map.draft, &map.theme);
    let glyphs = Glyphs::new(theme);
    heading(map, pen, top, kind);
    let width = (WIDTH - 2.0 * MARGIN - GAP * (COLUMNS - 1) as f32) / COLUMNS as f32;
    let conflicts = map.conflicts();
    let lines = chords.len().div_ceil(COLUMNS);
    for (n, (chord, bound)) in chords.iter().enumerate() {
        let x = MARGIN + (n / lines) as f32 * (width + GAP);
        let y = top + 26.0 + (n % lines) as f32 * LINE;
        let glyph = glyphs.chord(chord, draft.layout(), draft.words());
        let drawn = glyph.width() * GLYPH / glyph.height();
        pen.put(&glyph, x, y, GLYPH);
        let labels: Vec<_> = bound.iter().map(|b| map.label(b, &conflicts)).collect();
        let mut x = x + drawn.max(GLYPH) + 10.0;
        let end = MARGIN + (n / lines) as f32 * (width + GAP) + width;
        // What does not fit any more is counted.
        let shown = labels.len().min(((end - x) / LEAST) as usize).max(1);
        for (i, label) in labels.iter().take(shown).enumerate() {
            let badge = 20.0;
            let left = shown - i;
            let room = ((end - x) / left as f32 - badge - 8.0).max(20.0);
            map.badge(pen, x + 8.0, y + GLYPH / 2.0, 8.0, label.group);
            let mark = if label.changed { "● " } else { "" };
            // The keys that a chord holds are in its picture already.
            let title = draft.row_title(bound[i].cell.row);
            let more = match labels.len() - shown {
                more if more > 0 && left == 1 => format!("+{more} "),
                _ => String::new(),
            };
            let title = format!("{more}{title}");
            let (title, size) = text::fit(&format!("{mark}{title}"), 13.5, 9.5, room, false);
            let color = if label.conflict {
                theme.alarm
            } else {
                theme.ink
            };
            let style = Type {
                color,
                ..map.type_(size, label.conflict)
            };
            pen.text(x + badge, y + GLYPH / 2.0 + 4.8, &title, style);
            x += badge + text::width(&title, size, label.conflict) + 10.0;
        }
    }
    let bottom = top + 26.0 + lines as f32 * LINE;
    let rule = Look::filled(theme.edge);
    pen.rect(MARGIN, bottom - 2.0, WIDTH - 2.0 * MARGIN, 0.8, 0.0, rule);
    bottom
}

fn heading(map: &KeyboardMap<'_>, pen: &mut Pen, top: f32, kind: DeviceKind) {
    let heading = capital(&map.draft.words().device_name(kind));
    pen.text(MARGIN, top + 14.0, &heading, map.type_(17.0, true));
}

fn capital(text: &str) -> String {
    let mut chars = text.chars();
    let first = chars.next().map(|c| c.to_uppercase().to_string());
    first.unwrap_or_default() + chars.as_str()
}
