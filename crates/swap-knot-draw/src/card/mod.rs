//! A control card: one page with all actions by group, for a manual or a wall.

mod html;

use swap_knot::play::Origin;
use swap_knot::remap::{MenuCell, MenuRow};
use swap_knot::sheet::{ColumnKind, GroupId};
use swap_knot::{Chord, Draft};

use crate::drawing::Drawing;
use crate::glyph::Glyphs;
use crate::map::{KeyboardMap, pad};
use crate::pen::{Anchor, Look, Pen, Type};
use crate::text::{self, Block, Room};
use crate::theme::Theme;

const WIDTH: f32 = 1280.0;
const MARGIN: f32 = 36.0;
const GAP: f32 = 40.0;
const COLUMN: f32 = (WIDTH - 2.0 * MARGIN - GAP) / 2.0;
const ROW: f32 = 34.0;
const HEADING: f32 = 46.0;
const GLYPH: f32 = 26.0;
/// How wide the titles are beside three kinds of devices; more where there are fewer.
const TITLES: f32 = 208.0;
const MORE: f32 = 52.0;
/// The size of titles that all stand on one line, and the largest and least where some take two: all
/// rows have the same.
const ONE_LINE: f32 = 15.0;
const TWO_LINES: f32 = 13.0;
const LEAST: f32 = 10.0;

/// A control card, to be drawn as SVG, PNG or HTML.
#[derive(Clone, Debug)]
pub struct Card<'a> {
    draft: &'a Draft,
    theme: Theme,
    rows: Vec<MenuRow>,
    /// Kinds of devices that something is bound on.
    kinds: Vec<ColumnKind>,
}

/// A line of the card.
enum Item<'a> {
    Heading(GroupId),
    Row(&'a MenuRow),
}

impl Item<'_> {
    const fn height(&self) -> f32 {
        match self {
            Item::Heading(_) => HEADING,
            Item::Row(_) => ROW,
        }
    }
}

impl<'a> Card<'a> {
    /// The card of a draft: of a sheet with what a player changed, on a layout, in a language.
    pub fn new(draft: &'a Draft, theme: &Theme) -> Card<'a> {
        let columns = draft.columns();
        let mut rows = draft.rows(&columns);
        rows.retain(|r| r.cells.iter().any(|c| c.chord.is_some()));
        let bound = |kind: &ColumnKind| {
            let mut cells = rows.iter().flat_map(|r| &r.cells);
            cells.any(|c| c.cell.column.kind() == *kind && c.chord.is_some())
        };
        let kinds = ColumnKind::ALL.into_iter().filter(bound).collect();
        Card {
            draft,
            theme: theme.clone(),
            rows,
            kinds,
        }
    }

    /// The card as an SVG document.
    pub fn to_svg(&self) -> String {
        self.draw().to_svg()
    }

    /// The card as a page of HTML that needs nothing else, to read or to print.
    pub fn to_html(&self) -> String {
        html::page(self)
    }

    /// The card as a drawing.
    pub fn draw(&self) -> Drawing {
        let mut page = Pen::new(WIDTH, 0.0);
        let top = MARGIN + 76.0;
        let mut bottom = top;
        // With the mark that a changed one has.
        let titles: Vec<String> = self.rows.iter().map(|r| format!("● {}", r.title)).collect();
        let titles: Vec<&str> = titles.iter().map(String::as_str).collect();
        let room = self.title_room(true);
        let on_one_line = |t: &&str| text::width(t, ONE_LINE, true) <= room.width;
        let size = match titles.iter().all(on_one_line) {
            true => ONE_LINE,
            false => text::common_size(titles, TWO_LINES, LEAST, room),
        };
        for (n, items) in self.columns().iter().enumerate() {
            let x = MARGIN + n as f32 * (COLUMN + GAP);
            if !items.is_empty() {
                self.kinds_heading(&mut page, x, top - 16.0);
            }
            let mut y = top;
            for item in items {
                match item {
                    Item::Heading(group) => self.group_heading(&mut page, x, y, *group),
                    Item::Row(row) => self.row(&mut page, [x, y], row, size),
                }
                y += item.height();
            }
            bottom = bottom.max(y);
        }
        let changed = self.rows.iter().any(|r| r.cells.iter().any(is_changed));
        if changed {
            let quiet = self.type_(14.0, false, self.theme.quiet);
            let sign = format!("● {}", self.draft.words().say("drawn-changed", &[]));
            page.text(MARGIN, bottom + 24.0, &sign, quiet);
            bottom += 30.0;
        }
        let map = KeyboardMap::new(self.draft, &self.theme);
        if let Some(figure) = pad::figure(&map, WIDTH - 2.0 * MARGIN) {
            page.put(&figure, MARGIN, bottom + 30.0, figure.height());
            bottom += 30.0 + figure.height();
        }
        let height = (bottom + MARGIN).ceil();
        let mut pen = Pen::new(WIDTH, height);
        pen.rect(0.0, 0.0, WIDTH, height, 0.0, Look::filled(self.theme.paper));
        let title = self.draft.words().game_title(self.draft.sheet());
        let (title, size) = text::fit(&title, 32.0, 18.0, WIDTH - 480.0, true);
        pen.text(
            MARGIN,
            MARGIN + 28.0,
            &title,
            self.type_(size, true, self.theme.ink),
        );
        let layout = self.draft.layout();
        let about = Type {
            anchor: Anchor::End,
            ..self.type_(15.0, false, self.theme.quiet)
        };
        let layout = crate::layout_title(layout, self.draft.words());
        pen.text(WIDTH - MARGIN, MARGIN + 26.0, layout, about);
        page.grow(height);
        pen.put(&page.finish(), 0.0, 0.0, height);
        pen.finish()
    }

    fn type_<'t>(&self, size: f32, bold: bool, color: &'t str) -> Type<'t> {
        Type {
            size,
            bold,
            color,
            anchor: Anchor::Start,
        }
    }

    /// The lines in two columns of about the same height; a group that goes on in the second one
    /// has its heading there again.
    fn columns(&self) -> [Vec<Item<'_>>; 2] {
        let groups: Vec<GroupId> = self.rows.iter().map(|r| r.group).collect();
        let mut changes = groups.clone();
        changes.dedup();
        let whole = self.rows.len() as f32 * ROW + changes.len() as f32 * HEADING;
        let mut columns = [Vec::new(), Vec::new()];
        let (mut y, mut group, mut at) = (0.0, None, 0);
        for (row, own) in self.rows.iter().zip(groups) {
            // A heading is not left alone at the foot of the first column.
            let starts = group != Some(own);
            let next = if starts { HEADING + ROW } else { ROW };
            if at == 0 && y + next / 2.0 > whole / 2.0 {
                (at, group) = (1, None);
            }
            if group != Some(own) {
                columns[at].push(Item::Heading(own));
                y += HEADING;
                group = Some(own);
            }
            columns[at].push(Item::Row(row));
            y += ROW;
        }
        columns
    }

    /// Where the glyphs of a kind of devices begin, and how much room they have.
    fn zone(&self, n: usize) -> (f32, f32) {
        let count = self.kinds.len().max(1) as f32;
        // Keyboard and mouse have more to show.
        let weight = |i: usize| if i == 0 { 1.35 } else { 1.0 };
        let titles = self.titles();
        let room = COLUMN - titles;
        let sum = count + 0.35;
        let before: f32 = (0..n).map(weight).sum();
        (titles + room * before / sum, room * weight(n) / sum - 10.0)
    }

    fn titles(&self) -> f32 {
        TITLES + MORE * 3_usize.saturating_sub(self.kinds.len()) as f32
    }

    /// The room for a title; changed ones are set in bold.
    fn title_room(&self, bold: bool) -> Room {
        Room {
            width: self.titles() - 16.0,
            lines: 2,
            bold,
            language: text::language(self.draft.words()),
        }
    }

    fn kinds_heading(&self, pen: &mut Pen, x: f32, y: f32) {
        for (n, kind) in self.kinds.iter().enumerate() {
            let (at, room) = self.zone(n);
            let name = self.draft.words().column_name(*kind);
            let (name, size) = text::fit(&name, 13.5, 9.0, room, false);
            pen.text(x + at, y, &name, self.type_(size, false, self.theme.quiet));
        }
    }

    fn group_heading(&self, pen: &mut Pen, x: f32, y: f32, group: GroupId) {
        let tint = self.theme.group(group.index());
        pen.rect(x, y + 10.0, COLUMN, 28.0, 6.0, Look::filled(tint.fill));
        pen.rect(x, y + 10.0, 6.0, 28.0, 3.0, Look::filled(tint.edge));
        let title = self.draft.group_title(group);
        let (title, size) = text::fit(&title, 17.0, 11.0, COLUMN - 30.0, true);
        pen.text(
            x + 16.0,
            y + 30.0,
            &title,
            self.type_(size, true, self.theme.ink),
        );
    }

    fn row(&self, pen: &mut Pen, [x, y]: [f32; 2], row: &MenuRow, size: f32) {
        let theme = &self.theme;
        let changed = row.cells.iter().any(is_changed);
        let title = match changed {
            true => format!("● {}", row.title),
            false => row.title.clone(),
        };
        let room = self.title_room(changed);
        let Block { lines, size } = text::block(&title, size, LEAST, room);
        let first = y + ROW / 2.0 + 5.0 - (lines.len() - 1) as f32 * 7.0;
        for (n, line) in lines.iter().enumerate() {
            let style = self.type_(size, changed, theme.ink);
            pen.text(x + 4.0, first + n as f32 * 14.0, line, style);
        }
        for (n, kind) in self.kinds.iter().enumerate() {
            let (at, room) = self.zone(n);
            self.glyphs(pen, [x + at, y], room, &chords(row, *kind));
        }
        let rule = Look::filled(theme.cap);
        pen.rect(x, y + ROW - 1.0, COLUMN, 1.0, 0.0, rule);
    }

    /// The glyphs of one row on one kind of devices, smaller where there are many.
    fn glyphs(&self, pen: &mut Pen, [x, y]: [f32; 2], room: f32, chords: &[Worked<'_>]) {
        const BETWEEN: f32 = 10.0;
        const HOW: f32 = 12.0;
        let glyphs = Glyphs::new(&self.theme);
        let (layout, words) = (self.draft.layout(), self.draft.words());
        let drawn: Vec<(Drawing, &str, f32)> = chords
            .iter()
            .map(|(chord, how)| {
                let how = how.unwrap_or_default();
                let wide = text::width(how, HOW, false) + if how.is_empty() { 0.0 } else { 4.0 };
                (glyphs.chord(chord, layout, words), how, wide)
            })
            .collect();
        let at_full = |d: &Drawing| d.width() * GLYPH / d.height();
        let gaps = BETWEEN * drawn.len().saturating_sub(1) as f32;
        let wanted: f32 = drawn
            .iter()
            .map(|(d, _, how)| at_full(d) + how)
            .sum::<f32>()
            + gaps;
        let scale = (room / wanted).min(1.0);
        let height = GLYPH * scale;
        let mut x = x;
        for (drawing, how, wide) in &drawn {
            pen.put(drawing, x, y + (ROW - height) / 2.0, height);
            x += at_full(drawing) * scale;
            let style = self.type_(HOW * scale, false, self.theme.quiet);
            pen.text(x + 4.0 * scale, y + ROW / 2.0 + 4.0 * scale, how, style);
            x += (wide + BETWEEN) * scale;
        }
    }
}

/// What is bound, and how it is worked where that is more than a press.
type Worked<'a> = (&'a Chord, Option<&'a str>);

/// What is bound in a row on one kind of devices.
fn chords(row: &MenuRow, kind: ColumnKind) -> Vec<Worked<'_>> {
    let cells = row.cells.iter().filter(|c| c.cell.column.kind() == kind);
    cells
        .filter_map(|c| Some((c.chord.as_ref()?, c.how.as_deref())))
        .collect()
}

fn is_changed(cell: &MenuCell) -> bool {
    cell.origin == Origin::Profile
}
