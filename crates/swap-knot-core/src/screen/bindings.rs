//! The page of bindings: what works what.

use super::{
    ColumnView, ControlsScreen, Details, Item, Role, RowView, ScreenView, Section, Spot, Tool,
};
use crate::draft::{Draft, MenuCell, MenuRow};
use crate::input::{Chord, DeviceKind, system_use};
use crate::law::Origin;
use crate::sheet::{Cell, Column, ColumnKind, Row};

/// What is searched for.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Filter {
    /// A part of a title, or of the name of an input.
    pub(super) text: String,
    /// The input that the player wants to know about.
    pub(super) on: Option<Chord>,
    /// Whether conflicts and what is unbound come first.
    pub(super) open_first: bool,
}

/// The rows of the draft, made anew when it changes.
#[derive(Debug)]
pub(super) struct Rows {
    of: Option<u64>,
    /// The devices that come first.
    first: ColumnKind,
    rows: Vec<MenuRow>,
    /// The devices, and how many columns of each are shown at most.
    kinds: Vec<(ColumnKind, u16)>,
}

impl Rows {
    pub(super) fn new(draft: &Draft, hand: DeviceKind) -> Rows {
        let mut rows = Rows {
            of: None,
            first: ColumnKind::of(hand),
            rows: Vec::new(),
            kinds: Vec::new(),
        };
        rows.refresh(draft);
        rows
    }

    /// Has them made anew.
    pub(super) fn forget(&mut self) {
        self.of = None;
    }

    /// Brings them up to date; whether anything changed.
    pub(super) fn refresh(&mut self, draft: &Draft) -> bool {
        if self.of == Some(draft.revision()) {
            return false;
        }
        self.of = Some(draft.revision());
        let mut kinds: Vec<ColumnKind> = draft.columns().iter().map(|c| c.kind()).collect();
        kinds.dedup();
        // The device in hand stands first, for as long as the screen is open: nothing that a player looks at
        // moves.
        kinds.sort_by_key(|kind| *kind != self.first);
        let most = |kind| {
            let of_kind = draft.bindings().iter().map(|b| b.cell.column);
            let last = of_kind
                .filter(|c| c.kind() == kind)
                .map(Column::number)
                .max();
            (last.unwrap_or(0) + 1).min(Column::LAST)
        };
        let columns = kinds.iter().flat_map(|&kind| {
            let numbers = 1..=most(kind);
            numbers.map(move |n| Column::new(kind, n))
        });
        self.rows = draft.rows(&columns.collect::<Vec<_>>());
        for row in &mut self.rows {
            shorten(&mut row.cells);
        }
        self.kinds = kinds
            .into_iter()
            .map(|kind| (kind, self.span(kind)))
            .collect();
        true
    }

    fn span(&self, kind: ColumnKind) -> u16 {
        let count = |row: &MenuRow| {
            let of_kind = row.cells.iter().map(|c| c.cell.column);
            of_kind.filter(|c| c.kind() == kind).count() as u16
        };
        self.rows.iter().map(count).max().unwrap_or(0).max(1)
    }

    /// Where a column stands, from the left.
    fn place(&self, column: Column) -> u16 {
        let before = self
            .kinds
            .iter()
            .take_while(|(kind, _)| *kind != column.kind());
        before.map(|(_, span)| span).sum::<u16>() + u16::from(column.number()) - 1
    }
}

/// Leaves of each kind of device the cells up to one free cell beyond the last that is bound, and
/// none that could never hold anything.
fn shorten(cells: &mut Vec<MenuCell>) {
    let bound = |kind, cells: &[MenuCell]| {
        let bound = cells
            .iter()
            .filter(|c| c.chord.is_some() || c.not_in_force.is_some());
        let numbers = bound.map(|c| c.cell.column).filter(|c| c.kind() == kind);
        numbers.map(Column::number).max().unwrap_or(0)
    };
    let all = cells.clone();
    cells.retain(|c| {
        let (kind, number) = (c.cell.column.kind(), c.cell.column.number());
        let last = bound(kind, &all);
        // What cannot be bound is shown once, so that it can say why.
        number <= last || (number == last + 1 && (c.can_bind || number == 1))
    });
}

impl ControlsScreen {
    pub(super) fn view_bindings(&self, view: &mut ScreenView) {
        view.tools = vec![
            self.search_field(),
            self.tool(Tool::More, "menu-more", true),
        ];
        if self.filter != Filter::default() {
            view.tools
                .push(self.tool(Tool::ShowAll, "menu-show-all", true));
        }
        view.tools.extend(self.tools_at_end());
        let title = |kind: &ColumnKind| self.draft.tell(kind);
        view.columns = (self.rows.kinds.iter())
            .map(|(kind, span)| ColumnView {
                title: title(kind),
                span: *span,
            })
            .collect();
        let rows = self.rows.rows.iter().filter(|r| self.is_found(r));
        view.sections = match self.filter.open_first {
            true => self.open_first(rows),
            false => self.by_group(rows),
        };
        let shown = |s: &Section| s.rows.iter().any(|r| r.essential);
        if let Some(section) = view.sections.iter_mut().find(|s| shown(s)) {
            section.text = Some(self.text("menu-essential"));
        }
        if let Some(on) = &self.filter.on {
            let text = self.draft.telling().about("menu-on", &[], on);
            view.sections.insert(
                0,
                Section {
                    title: text,
                    ..Section::default()
                },
            );
        }
        if view.sections.iter().all(|s| s.rows.is_empty()) {
            let text = Some(self.text("menu-nothing-here"));
            view.sections.push(Section {
                text,
                ..Section::default()
            });
        }
    }

    /// What is rarely wanted, for a list of its own: the first page is calm.
    pub(super) fn view_more(&self) -> Vec<Item> {
        let order = match self.filter.open_first {
            true => "menu-in-order",
            false => "menu-open-first",
        };
        let can_reset = self.draft.can_reset();
        vec![
            self.tool(Tool::Find, "menu-find", true),
            self.tool(Tool::OpenFirst, order, true),
            self.tool(Tool::Presets, "menu-presets", true),
            self.tool(Tool::Reset, "reset-more", can_reset),
        ]
    }

    fn search_field(&self) -> Item {
        let mut field = self.tool(Tool::Search, "menu-search", true);
        if !self.filter.text.is_empty() {
            field.label = self.filter.text.clone();
        }
        field.role = Role::Field;
        field
    }

    fn is_found(&self, row: &MenuRow) -> bool {
        let text = self.filter.text.to_lowercase();
        let has = |t: &str| t.to_lowercase().contains(&text);
        let by_name = || row.cells.iter().filter_map(|c| c.name.as_deref()).any(has);
        let found = has(&row.title) || has(&self.draft.group_title(row.group)) || by_name();
        let on = |chord| self.draft.cells_on(chord).iter().any(|c| c.row == row.row);
        found && self.filter.on.as_ref().is_none_or(on)
    }

    fn by_group<'a>(&self, rows: impl Iterator<Item = &'a MenuRow>) -> Vec<Section> {
        let mut sections: Vec<Section> = Vec::new();
        let mut group = None;
        for row in rows {
            if group.replace(row.group) != Some(row.group) {
                let title = self.draft.group_title(row.group);
                sections.push(Section {
                    title,
                    ..Section::default()
                });
            }
            if let Some(section) = sections.last_mut() {
                self.push_row(section, row);
            }
        }
        sections
    }

    /// Conflicts first, then what the device in hand does not work at all, then the rest.
    fn open_first<'a>(&self, rows: impl Iterator<Item = &'a MenuRow>) -> Vec<Section> {
        let (telling, hand) = (self.draft.telling(), ColumnKind::of(self.hand()));
        let column = telling.tell(&hand);
        let titles = [
            telling.say("section-conflicts", &[]),
            telling.say("section-unreachable", &[("column", &column)]),
            telling.say("section-rest", &[]),
        ];
        let mut sections = titles.map(|title| Section {
            title,
            ..Section::default()
        });
        for row in rows {
            let wrong = |c: &MenuCell| c.conflict || c.not_in_force.is_some();
            let at = match row.cells.iter().any(wrong) {
                true => 0,
                false if !self.is_worked_with(row, hand) => 1,
                false => 2,
            };
            self.push_row(&mut sections[at], row);
        }
        sections
            .into_iter()
            .filter(|s| !s.rows.is_empty())
            .collect()
    }

    /// Whether anything of such devices works a row: an input of its own, the whole of its action, or its
    /// directions. What they never could work is not missed.
    fn is_worked_with(&self, row: &MenuRow, kind: ColumnKind) -> bool {
        let mut own = row.cells.iter().filter(|c| c.cell.column.kind() == kind);
        let first = own.clone().next();
        own.any(|c| c.chord.is_some())
            || first.is_none_or(|c| !c.can_bind || self.instead(c).is_some())
    }

    /// Shows a row below those before it: as a direction of its action only where the whole, or a direction
    /// below that, is the row before, so that nothing that is found or sorted loses its name.
    fn push_row(&self, section: &mut Section, row: &MenuRow) {
        let is_below = section.rows.last().is_some_and(|last| {
            let of = last.items.first().map(|item| item.spot);
            matches!(of, Some(Spot::Cell(cell)) if cell.row.action == row.row.action
                && (last.arm.is_some() || cell.row.arm.is_none()))
        });
        let arm = row.row.arm.filter(|_| is_below);
        // What is a word of its own behind the title of the whole: "Walk" and "Walk to the bow".
        let whole = self.draft.row_title(Row::of(row.row.action));
        let short = row.title.strip_prefix(&whole);
        let short = short.and_then(|rest| rest.strip_prefix(' '));
        let short = short.map(str::trim_start).filter(|rest| !rest.is_empty());
        section.rows.push(RowView {
            title: row.title.clone(),
            short: short
                .filter(|_| arm.is_some())
                .unwrap_or(&row.title)
                .to_owned(),
            arm,
            essential: row.essential,
            items: row.cells.iter().map(|c| self.view_cell(row, c)).collect(),
            ..RowView::default()
        });
    }

    fn view_cell(&self, row: &MenuRow, cell: &MenuCell) -> Item {
        let listens = matches!(&self.busy, super::Busy::Listening(c, _) if *c == cell.cell);
        let label = match (&cell.name, listens) {
            (_, true) => self.text("menu-press"),
            (Some(name), _) => name.clone(),
            // The free cell beyond the last one that is bound.
            (None, _) if cell.cell.column.number() > 1 && cell.can_bind => "+".to_owned(),
            (None, _) => "—".to_owned(),
        };
        let whole = self.instead(cell).filter(|_| !listens);
        let is_by_whole = whole.is_some();
        let label = whole.unwrap_or(label);
        let role = Role::Binding {
            chord: cell.chord.clone(),
            listening: listens,
        };
        let mut item = self.item(Spot::Cell(cell.cell), label, role);
        item.by_whole = is_by_whole;
        if let (Some(chord), false) = (&cell.chord, listens) {
            item.short = self.draft.telling().short(chord);
            item.manner = cell.how.clone();
        }
        item.place = self.rows.place(cell.cell.column);
        item.enabled = cell.can_bind;
        item.changed = cell.changed;
        item.conflict = cell.conflict || cell.not_in_force.is_some();
        item.text
            .extend(cell.why_not.iter().map(|why| self.draft.tell(why)));
        item.text
            .extend(cell.not_in_force.iter().map(|n| self.draft.tell(n)));
        item.text.extend(self.kept_by_system(cell.chord.as_ref()));
        item.spoken = self.spoken(row, cell, &item);
        item
    }

    /// What works a row on devices on which it has no binding of its own: the stick that works all directions,
    /// or the four keys of the directions.
    fn instead(&self, cell: &MenuCell) -> Option<String> {
        let at = cell.cell;
        let is_free = cell.chord.is_none() && cell.not_in_force.is_none();
        if !is_free || at.column.number() > 1 {
            return None;
        }
        let first = |row: Row| {
            let cells = (1..=Column::LAST).map(|n| row.cell(Column::new(at.column.kind(), n)));
            cells.clone().find_map(|cell| self.draft.chord_in(cell))
        };
        let telling = self.draft.telling();
        match at.row.arm {
            Some(_) => {
                let chord = first(Row::of(at.row.action))?;
                Some(telling.about("row-by-whole", &[], chord))
            }
            None => {
                let arms = self.draft.sheet().rows_of(at.row.action);
                let arms = arms.filter(|row| row.arm.is_some());
                let names = telling.list(arms.filter_map(first).map(|c| telling.short(c)))?;
                Some(telling.say("row-by-whole", &[("at", &names), ("with", &names)]))
            }
        }
    }

    /// What is to be known of a binding.
    pub(super) fn details_of(&self, cell: Cell) -> Details {
        let rows = &self.rows.rows;
        let found = rows.iter().find(|r| r.row == cell.row);
        let Some((row, own)) =
            found.and_then(|r| Some((r, r.cells.iter().find(|c| c.cell == cell)?)))
        else {
            return Details::default();
        };
        let telling = self.draft.telling();
        let about = row.about.iter().chain(&own.how);
        let mut text: Vec<String> = about.cloned().collect();
        if let Some(chord) = &own.chord {
            text.push(match own.origin {
                Origin::Default => self.text("details-default"),
                Origin::Preset => {
                    let profile = self.draft.profile();
                    let preset = telling.preset(profile.preset().unwrap_or_default());
                    let words = self.draft.words();
                    words.say("details-preset", &[("preset", &preset)])
                }
                Origin::Profile => self.text("details-yours"),
            });
            let others = self.draft.cells_on(chord);
            let mut titles: Vec<String> = others
                .iter()
                .filter(|other| other.row.action != cell.row.action)
                .map(|other| telling.row(other.row))
                .collect();
            titles.dedup();
            if let Some(titles) = telling.list(titles) {
                let words = self.draft.words();
                text.push(words.say("details-also", &[("titles", &titles)]));
            }
        }
        if row.essential {
            text.push(self.text("details-essential"));
        }
        text.extend(own.why_not.iter().map(|why| self.draft.tell(why)));
        text.extend(own.not_in_force.iter().map(|n| self.draft.tell(n)));
        text.extend(self.kept_by_system(own.chord.as_ref()));
        Details {
            device: self.draft.tell(&cell.column.kind()),
            title: row.title.clone(),
            name: own
                .name
                .clone()
                .or_else(|| self.instead(own))
                .unwrap_or_default(),
            chord: own.chord.clone(),
            text,
            curve: None,
        }
    }

    /// That the player's system may keep what is bound for itself, if it may.
    pub(super) fn kept_by_system(&self, chord: Option<&Chord>) -> Option<String> {
        let chord = chord?;
        let platform = self.draft.resolver().platform();
        let known = system_use(chord).filter(|known| known.is_on(platform));
        known.map(|_| self.draft.telling().about("system-takes", &[], chord))
    }

    /// What a screen reader says for a cell: title, column and what it holds, with what is to be
    /// known of it besides.
    fn spoken(&self, row: &MenuRow, cell: &MenuCell, item: &Item) -> String {
        let words = self.draft.words();
        let listening = matches!(item.role, Role::Binding { listening, .. } if listening);
        let column = words.column_title(cell.cell.column);
        let name = match &cell.chord {
            Some(chord) => self.draft.telling().spoken(chord),
            None if item.by_whole => item.label.clone(),
            None => words.say("nothing", &[]),
        };
        let name = match &item.manner {
            Some(manner) => words.say("manner-of", &[("name", &name), ("manner", manner)]),
            None => name,
        };
        let values = [("title", &*row.title), ("column", &column), ("name", &name)];
        let told = words.say("menu-cell", &values);
        let states = [
            (listening, "cell-listening"),
            (cell.changed, "cell-changed"),
            (cell.conflict, "cell-conflict"),
            (cell.not_in_force.is_some(), "cell-not-in-force"),
            (!cell.can_bind, "cell-fixed"),
        ];
        let states = states.iter().filter(|(is_so, _)| *is_so);
        states.fold(told, |told, (_, id)| {
            let state = words.say(id, &[]);
            words.say("list", &[("first", &told), ("last", &state)])
        })
    }
}
