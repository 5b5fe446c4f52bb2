//! A keyboard map: the player's board and legends, with what each key does.

pub(crate) mod pad;
mod panels;

use std::collections::BTreeMap;

use swap_knot::layout::Keycap;
use swap_knot::play::{Bound, Origin};
use swap_knot::sheet::{ColumnKind, GroupId, SituationId};
use swap_knot::{Cell, Draft, Input, Place};

use crate::drawing::Drawing;
use crate::pen::{Anchor, Look, Pen, Type};
use crate::text::{self, Room};
use crate::theme::Theme;

/// How wide the picture is.
const WIDTH: f32 = 1600.0;
const MARGIN: f32 = 32.0;
/// The largest key.
const LARGEST: f32 = 84.0;
/// Keys are drawn higher than they are wide, so that titles fit.
const STRETCH: f32 = 1.25;
/// The gap between keys.
const GAP: f32 = 5.0;
/// The largest and the least size of what is written on keys.
const LABEL: f32 = 10.3;
const LEAST_LABEL: f32 = 7.8;

/// A keyboard map, to be drawn as SVG or PNG.
///
/// Bound keys are coloured and numbered by group and carry the actions' titles; keys of chords say
/// what has to be held. A dot marks what the player changed, an exclamation mark a conflict. Blocks
/// of keys that nothing is bound on are left out; mouse, pad and other devices stand below.
#[derive(Clone, Debug)]
pub struct KeyboardMap<'a> {
    draft: &'a Draft,
    theme: Theme,
    situation: Option<SituationId>,
}

/// What is written on a key for one binding.
struct Label {
    title: String,
    group: usize,
    changed: bool,
    conflict: bool,
}

impl<'a> KeyboardMap<'a> {
    /// The map of a draft: of a sheet with what a player changed, on a layout, in a language.
    pub fn new(draft: &'a Draft, theme: &Theme) -> KeyboardMap<'a> {
        KeyboardMap {
            draft,
            theme: theme.clone(),
            situation: None,
        }
    }

    /// Shows only what is live in a situation.
    #[must_use]
    pub fn in_situation(mut self, situation: SituationId) -> Self {
        self.situation = Some(situation);
        self
    }

    /// The map as an SVG document.
    pub fn to_svg(&self) -> String {
        self.draw().to_svg()
    }

    /// The map as a drawing.
    pub fn draw(&self) -> Drawing {
        let mut pen = Pen::new(WIDTH, 0.0);
        let mut page = Pen::new(WIDTH, 0.0);
        let bottom = self.keyboard(&mut page, MARGIN + 58.0);
        let bottom = panels::draw(self, &mut page, bottom + 26.0);
        let height = (self.legend(&mut page, bottom + 8.0) + MARGIN).ceil();
        pen.grow(height);
        pen.rect(0.0, 0.0, WIDTH, height, 0.0, Look::filled(self.theme.paper));
        self.heading(&mut pen);
        page.grow(height);
        let page = page.finish();
        pen.put(&page, 0.0, 0.0, height);
        pen.finish()
    }

    fn type_(&self, size: f32, bold: bool) -> Type<'_> {
        Type {
            size,
            bold,
            color: self.theme.ink,
            anchor: Anchor::Start,
        }
    }

    fn heading(&self, pen: &mut Pen) {
        let (sheet, layout) = (self.draft.sheet(), self.draft.layout());
        let words = self.draft.words();
        let game = words.game_title(sheet);
        let title = match self.situation {
            Some(place) => format!("{game} · {}", words.situation_title(sheet, place)),
            None => game,
        };
        let (title, size) = text::fit(&title, 30.0, 18.0, WIDTH - 460.0, true);
        pen.text(MARGIN, MARGIN + 26.0, &title, self.type_(size, true));
        let about = crate::layout_title(layout, words);
        let about = format!("{about} · {}", layout.board().word());
        let quiet = Type {
            color: self.theme.quiet,
            anchor: Anchor::End,
            ..self.type_(16.0, false)
        };
        let (about, size) = text::fit(&about, 16.0, 11.0, 420.0, false);
        let quiet = Type { size, ..quiet };
        pen.text(WIDTH - MARGIN, MARGIN + 24.0, &about, quiet);
    }

    /// The bindings that are shown.
    fn bindings(&self) -> impl Iterator<Item = &Bound> {
        let sheet = self.draft.sheet();
        self.draft.bindings().iter().filter(move |b| {
            let live = sheet.action(b.cell.row.action).map(|a| &a.situations[..]);
            let live = live.unwrap_or_default();
            self.situation
                .is_none_or(|s| live.is_empty() || live.contains(&s))
        })
    }

    /// The cells that an open conflict touches.
    fn conflicts(&self) -> Vec<Cell> {
        let conflicts = self.draft.conflicts();
        let open = conflicts.iter().filter(|c| c.class.is_conflict());
        open.flat_map(|c| [c.first.cell, c.second.cell]).collect()
    }

    fn label(&self, bound: &Bound, conflicts: &[Cell]) -> Label {
        let words = self.draft.words();
        let held: Vec<String> = (bound.chord.held().iter())
            .map(|i| format!("{}+ ", words.short_name(*i, self.draft.layout())))
            .collect();
        Label {
            title: format!("{}{}", held.concat(), self.draft.row_title(bound.cell.row)),
            group: group_index(self.draft, bound),
            changed: bound.origin == Origin::Profile,
            conflict: conflicts.contains(&bound.cell),
        }
    }

    /// What is on each key; either side of a modifier is on both.
    fn labels(&self) -> BTreeMap<Place, Vec<Label>> {
        let conflicts = self.conflicts();
        let mut labels: BTreeMap<Place, Vec<Label>> = BTreeMap::new();
        for bound in self.bindings() {
            for place in self.draft.resolver().places_of(bound.chord.input()) {
                let label = self.label(bound, &conflicts);
                labels.entry(place).or_default().push(label);
            }
        }
        labels
    }

    /// Draws the keys; answers where they end.
    fn keyboard(&self, pen: &mut Pen, top: f32) -> f32 {
        let labels = self.labels();
        let board = self.draft.layout().board();
        let is_bound = |k: &&Keycap| labels.contains_key(&k.place);
        let right = board.keys().iter().filter(is_bound).map(|k| k.x + k.width);
        let right = right.fold(15.0, f32::max);
        // Blocks begin at these places; one without a binding is left out.
        let end = match right {
            r if r > 19.0 => 23.0,
            r if r > 15.1 => 18.5,
            _ => 15.0,
        };
        let unit = ((WIDTH - 2.0 * MARGIN) / end).min(LARGEST);
        let functions = board.keys().iter().any(|k| k.y < 1.0 && is_bound(&k));
        let first = if functions { 0.0 } else { 1.5 };
        let left = (WIDTH - end * unit) / 2.0;
        let shown = board.keys().iter().filter(|k| k.x < end && k.y >= first);
        for key in shown {
            let at = [left + key.x * unit, top + (key.y - first) * unit * STRETCH];
            let none = Vec::new();
            let labels = labels.get(&key.place).unwrap_or(&none);
            self.key(pen, key, at, unit, labels);
        }
        top + (6.5 - first) * unit * STRETCH
    }

    fn key(&self, pen: &mut Pen, key: &Keycap, [x, y]: [f32; 2], unit: f32, labels: &[Label]) {
        let theme = &self.theme;
        let w = key.width * unit - GAP;
        let h = key.height * unit * STRETCH - GAP;
        let conflict = labels.iter().any(|l| l.conflict);
        let (fill, edge, width) = match labels.first() {
            _ if conflict => (theme.cap, theme.alarm, 4.0),
            Some(label) => {
                let tint = theme.group(label.group);
                (tint.fill, tint.edge, 2.0)
            }
            None => (theme.paper, theme.edge, 1.0),
        };
        pen.rect(x, y, w, h, 8.0, Look::edged(fill, edge, width));
        self.print(pen, key, [x, y], w, labels);
        const LINE: f32 = 11.6;
        let mut room = ((h - 30.0) / LINE) as usize;
        let shown = labels.len().min(room.max(1));
        let mut line = y + 36.0;
        for (n, label) in labels.iter().take(shown).enumerate() {
            let badge = (labels.len() > 1).then_some(label.group);
            let indent = if badge.is_some() { 15.0 } else { 0.0 };
            let more = match labels.len() - shown {
                more if more > 0 && n + 1 == shown => format!("+{more} "),
                _ => String::new(),
            };
            let mark = if label.changed { "● " } else { "" };
            let title = format!("{mark}{more}{}", label.title);
            if let Some(group) = badge {
                self.badge(pen, x + 11.0, line - 3.6, 5.6, group);
            }
            // Each of those that follow keeps a line.
            let most = room.saturating_sub(shown - n - 1).max(1);
            let space = Room {
                width: w - 9.0 - indent,
                lines: most,
                bold: false,
                language: text::language(self.draft.words()),
            };
            let block = text::block(&title, LABEL, LEAST_LABEL, space);
            for text in &block.lines {
                pen.text(x + 6.0 + indent, line, text, self.type_(block.size, false));
                line += LINE;
                room = room.saturating_sub(1);
            }
        }
    }

    /// What is printed on the key, and the number of its group or the sign of a conflict.
    fn print(&self, pen: &mut Pen, key: &Keycap, [x, y]: [f32; 2], w: f32, labels: &[Label]) {
        let theme = &self.theme;
        let (words, layout) = (self.draft.words(), self.draft.layout());
        let input = Input::Key(key.place);
        let mut name = words.board_name(input, layout);
        if let Some(second) = layout.second_legend(key.place) {
            name = format!("{name} {second}");
        }
        if key.place == Place::Space && labels.is_empty() {
            name.clear();
        }
        let large = text::letters(&name) <= 3;
        let size = if large { 19.0 } else { 13.0 };
        let conflict = labels.iter().any(|l| l.conflict);
        let corner = if labels.len() == 1 || conflict {
            32.0
        } else {
            12.0
        };
        let room = w - corner;
        let (name, size) = text::fit(&name, size, 8.5, room, large);
        let color = if labels.is_empty() {
            theme.quiet
        } else {
            theme.ink
        };
        let style = Type {
            color,
            ..self.type_(size, large)
        };
        pen.text(x + 7.0, y + 21.0, &name, style);
        if conflict {
            let alarm = Type {
                color: theme.alarm,
                anchor: Anchor::End,
                ..self.type_(20.0, true)
            };
            pen.text(x + w - 8.0, y + 22.0, "!", alarm);
        } else if let [label] = labels {
            self.badge(pen, x + w - 15.0, y + 15.0, 8.5, label.group);
        }
    }

    fn badge(&self, pen: &mut Pen, x: f32, y: f32, r: f32, group: usize) {
        let tint = self.theme.group(group);
        pen.circle(x, y, r, Look::filled(tint.edge));
        let style = Type {
            size: r * 1.45,
            bold: true,
            color: self.theme.on_badge,
            anchor: Anchor::Middle,
        };
        pen.text(x, y + r * 0.53, &(group + 1).to_string(), style);
    }

    /// What the numbers and signs mean; answers where it ends.
    fn legend(&self, pen: &mut Pen, top: f32) -> f32 {
        let sheet = self.draft.sheet();
        let actions = self
            .bindings()
            .filter_map(|b| sheet.action(b.cell.row.action));
        let mut used: Vec<GroupId> = actions.map(|a| a.group).collect();
        used.sort_unstable();
        used.dedup();
        let (mut x, mut y) = (MARGIN, top + 16.0);
        let mut item = |pen: &mut Pen, width: f32| {
            if x + width > WIDTH - MARGIN {
                (x, y) = (MARGIN, y + 28.0);
            }
            let at = (x, y);
            x += width + 30.0;
            pen.grow(y + 8.0);
            at
        };
        for group in used {
            let title = self.draft.group_title(group);
            let (x, y) = item(pen, 26.0 + text::width(&title, 15.0, false));
            self.badge(pen, x + 10.0, y - 5.0, 10.0, group.index());
            pen.text(x + 26.0, y, &title, self.type_(15.0, false));
        }
        let quiet = Type {
            color: self.theme.quiet,
            ..self.type_(15.0, false)
        };
        let changed = self.bindings().any(|b| b.origin == Origin::Profile);
        let words = self.draft.words();
        let signs = [
            (changed, format!("● {}", words.say("drawn-changed", &[]))),
            (
                !self.conflicts().is_empty(),
                format!("! {}", words.say("drawn-conflict", &[])),
            ),
        ];
        for (_, sign) in signs.iter().filter(|(shown, _)| *shown) {
            let (x, y) = item(pen, text::width(sign, 15.0, false));
            pen.text(x, y, sign, quiet);
        }
        y + 6.0
    }
}

/// The position of a binding's group among the menu's headings.
fn group_index(draft: &Draft, bound: &Bound) -> usize {
    let action = draft.sheet().action(bound.cell.row.action);
    action.map_or(0, |a| a.group.index())
}

/// Whether a binding is on a key.
fn is_key(bound: &Bound) -> bool {
    bound.cell.column.kind() == ColumnKind::Keyboard
        && bound.chord.device_kind() == swap_knot::DeviceKind::Keyboard
}
