//! The pad with what each of its parts does, on a map and on a card.

use swap_knot::input::PadPart;
use swap_knot::play::Bound;
use swap_knot::{DeviceKind, Input};

use super::{KeyboardMap, Label};
use crate::drawing::Drawing;
use crate::glyph::Glyphs;
use crate::pen::{Anchor, Look, Pen, Type};
use crate::text;

/// How large the pad is drawn.
const UNIT: f32 = 2.8;
/// The room between the pad and what is told of it.
const GAP: f32 = 34.0;
/// How high one line of it is, and its glyphs.
const LINE: f32 = 38.0;
const GLYPH: f32 = 28.0;
/// How large a title is, and how much smaller it may be made.
const SIZE: f32 = 13.5;
const LITTLE: f32 = 0.78;
const BADGE: f32 = 20.0;

/// A part with what it does.
struct Callout<'a> {
    part: PadPart,
    bound: Vec<&'a Bound>,
}

/// The pad in the middle and its callouts on both sides, so wide; nothing where nothing is bound on it.
pub(crate) fn figure(map: &KeyboardMap<'_>, width: f32) -> Option<Drawing> {
    let callouts = callouts(map);
    if callouts.is_empty() {
        return None;
    }
    let [wide, high] = PadPart::SIZE.map(|v| v * UNIT);
    let middle = |part: &PadPart| {
        let [x, y, w, h] = part.rect;
        [x + w / 2.0, y + h / 2.0]
    };
    let (mut left, mut right): (Vec<&Callout<'_>>, Vec<&Callout<'_>>) = callouts
        .iter()
        .partition(|c| middle(&c.part)[0] < wide / UNIT / 2.0);
    for side in [&mut left, &mut right] {
        side.sort_by(|a, b| middle(&a.part)[1].total_cmp(&middle(&b.part)[1]));
    }
    let lines = left.len().max(right.len()) as f32;
    let height = high.max(lines * LINE);
    let corner = [(width - wide) / 2.0, (height - high) / 2.0];
    let mut pen = Pen::new(width, height);
    body(&mut pen, corner, map);
    let room = corner[0] - GAP;
    let conflicts = map.conflicts();
    for (n_side, side) in [left, right].iter().enumerate() {
        let step = height / side.len().max(1) as f32;
        for (n, callout) in side.iter().enumerate() {
            let y = step * (n as f32 + 0.5);
            let [x, from] = middle(&callout.part);
            let from = [corner[0] + x * UNIT, corner[1] + from * UNIT];
            let edge = match n_side {
                0 => room,
                _ => width - room,
            };
            lead(&mut pen, from, [edge, y], map);
            let labels = callout.bound.iter().map(|b| map.label(b, &conflicts));
            let labels: Vec<Label> = labels.collect();
            tell(
                &mut pen,
                map,
                callout,
                &labels,
                [edge, y],
                n_side == 0,
                room,
            );
        }
    }
    for part in PadPart::all() {
        let does = callouts.iter().find(|c| c.part.input == part.input);
        draw_part(&mut pen, corner, &part, does, map);
    }
    Some(pen.finish())
}

/// The parts that something is bound to; a direction of a stick is of that stick.
fn callouts<'a>(map: &'a KeyboardMap<'_>) -> Vec<Callout<'a>> {
    let own = |part: &PadPart| -> Vec<&'a Bound> {
        let all = map.bindings();
        all.filter(|b| b.chord.input().whole() == part.input)
            .collect()
    };
    let all = PadPart::all().map(|part| Callout {
        bound: own(&part),
        part,
    });
    all.filter(|c| !c.bound.is_empty()).collect()
}

/// Whether an input of a pad has a part in the figure: turning it has none, nor has a button without
/// a place.
pub(crate) fn is_in_figure(input: Input) -> bool {
    let whole = input.whole();
    input.device_kind() == DeviceKind::Gamepad && PadPart::all().any(|p| p.input == whole)
}

fn body(pen: &mut Pen, [left, top]: [f32; 2], map: &KeyboardMap<'_>) {
    let theme = &map.theme;
    // The edge of the whole first, so that what lies over each other has one edge around it.
    for (grow, fill) in [(2.0, theme.edge), (0.0, theme.paper)] {
        for [x, y, w, h, round] in PadPart::BODY {
            pen.rect(
                left + x * UNIT - grow,
                top + y * UNIT - grow,
                w * UNIT + 2.0 * grow,
                h * UNIT + 2.0 * grow,
                round * UNIT + grow,
                Look::filled(fill),
            );
        }
    }
}

/// A line from a part to what is told of it.
fn lead(pen: &mut Pen, [x, y]: [f32; 2], [to_x, to_y]: [f32; 2], map: &KeyboardMap<'_>) {
    let away = if to_x < x { -1.0 } else { 1.0 };
    let bend = to_x - away * GAP * 0.6;
    let d = format!(
        "M{x:.1} {y:.1}L{bend:.1} {to_y:.1}H{:.1}",
        to_x - away * 6.0
    );
    pen.path(&d, Look::edged("none", map.theme.quiet, 1.2));
}

fn draw_part(
    pen: &mut Pen,
    [left, top]: [f32; 2],
    part: &PadPart,
    does: Option<&Callout<'_>>,
    map: &KeyboardMap<'_>,
) {
    let theme = &map.theme;
    let [x, y, w, h] = part.rect.map(|v| v * UNIT);
    let (x, y) = (left + x, top + y);
    let look = match does {
        Some(callout) => {
            let tint = theme.group(super::group_index(map.draft, callout.bound[0]));
            Look::edged(tint.fill, tint.edge, 2.4)
        }
        None => Look::edged(theme.cap, theme.edge, 1.6),
    };
    pen.rect(x, y, w, h, part.round * UNIT, look);
    let Some(mark) = map.draft.words().mark(part.input) else {
        return;
    };
    let most = (h * 0.62).min(17.0);
    let (mark, size) = text::fit(mark, most, 6.0, w - 4.0, true);
    let style = Type {
        size,
        bold: true,
        color: theme.ink,
        anchor: Anchor::Middle,
    };
    pen.text(x + w / 2.0, y + h / 2.0 + size * 0.36, &mark, style);
}

/// What a part does: its glyph beside the line, then titles with the numbers of their groups.
fn tell(
    pen: &mut Pen,
    map: &KeyboardMap<'_>,
    callout: &Callout<'_>,
    labels: &[Label],
    [edge, y]: [f32; 2],
    is_left: bool,
    room: f32,
) {
    let (draft, theme) = (map.draft, &map.theme);
    let glyph = Glyphs::new(theme).input(callout.part.input, draft.layout(), draft.words());
    let drawn = glyph.width() * GLYPH / glyph.height();
    let space = room - drawn - 10.0;
    let named = |label: &Label| {
        let mark = if label.changed { "● " } else { "" };
        format!("{mark}{}", label.title)
    };
    let natural = |l: &Label| BADGE + text::width(&named(l), SIZE, l.conflict) + 10.0;
    // All that fit, a little smaller if need be; the others are counted.
    let fits = |n: &usize| labels[..*n].iter().map(natural).sum::<f32>() * LITTLE <= space;
    let shown = (1..=labels.len()).rev().find(fits).unwrap_or(1);
    let all: f32 = labels[..shown].iter().map(natural).sum();
    let share = (space / all).min(1.0);
    let texts: Vec<(String, f32, &Label)> = labels[..shown]
        .iter()
        .enumerate()
        .map(|(n, label)| {
            let more = match labels.len() - shown {
                more if more > 0 && n + 1 == shown => format!(" +{more}"),
                _ => String::new(),
            };
            let title = format!("{}{more}", named(label));
            let own = space - BADGE - 10.0;
            let (title, size) = text::fit(&title, SIZE * share, 9.0, own, label.conflict);
            (title, size, label)
        })
        .collect();
    let width = |(title, size, label): &(String, f32, &Label)| {
        BADGE + text::width(title, *size, label.conflict) + 10.0
    };
    let all: f32 = texts.iter().map(width).sum();
    let (glyph_x, mut x) = match is_left {
        true => (edge - drawn, edge - drawn - 10.0 - all),
        false => (edge, edge + drawn + 10.0),
    };
    pen.put(&glyph, glyph_x, y - GLYPH / 2.0, GLYPH);
    for told in &texts {
        let (title, size, label) = told;
        map.badge(pen, x + 8.0, y, 8.0, label.group);
        let color = if label.conflict {
            theme.alarm
        } else {
            theme.ink
        };
        let style = Type {
            color,
            ..map.type_(*size, label.conflict)
        };
        pen.text(x + BADGE, y + 4.8, title, style);
        x += width(told);
    }
}
