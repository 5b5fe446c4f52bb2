//! The rows of a menu, for any interface.

use super::Draft;
use crate::input::Chord;
use crate::law::{Bound, NotInForce, Origin};
use crate::sheet::{
    Action, Cell, Column, ColumnKind, GroupId, Manner, Row, Shape, Works, can_work, works,
};

/// A row of the menu: an action, or one arm of it.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct MenuRow {
    /// Which; stable as long as the sheet is.
    pub row: Row,
    /// The heading it stands under.
    pub group: GroupId,
    /// What the player reads.
    pub title: String,
    /// A line about what its action is for, where the game has one.
    pub about: Option<String>,
    /// Whether it must keep a binding.
    pub essential: bool,
    /// Whether the player may not change it.
    pub fixed: bool,
    /// One cell a column, in the order in which they were asked for.
    pub cells: Vec<MenuCell>,
}

/// A cell of the menu.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct MenuCell {
    /// Which.
    pub cell: Cell,
    /// What works it, each of its inputs a glyph reference; nothing when unbound.
    pub chord: Option<Chord>,
    /// Where that comes from.
    pub origin: Origin,
    /// Whether applying would change it.
    pub changed: bool,
    /// Whether an open conflict touches it.
    pub conflict: bool,
    /// What the player reads, on their layout; nothing when unbound.
    pub name: Option<String>,
    /// How it is worked.
    pub manner: Manner,
    /// Whether the inputs of its chord are pressed together.
    pub together: bool,
    /// How it is worked, in a word or two for the player: "hold". Nothing where it is just pressed.
    pub how: Option<String>,
    /// Whether some input of the column's devices can work the row, and the player may change it.
    pub can_bind: bool,
    /// Why it cannot be changed, if it cannot.
    pub why_not: Option<CannotBind>,
    /// What the player's profile has there that is not in force, and why.
    pub not_in_force: Option<NotInForce>,
}

/// Why a cell of the menu cannot be changed.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum CannotBind {
    /// The sheet says that the player may not change the action.
    #[error("the game keeps it as it is")]
    Fixed,
    /// No input of these devices works the row as a whole.
    #[error("no {0} input works all directions at once")]
    NoInput(ColumnKind),
}

impl Draft {
    /// The columns that hold something, and always the first of keyboard and gamepad.
    pub fn columns(&self) -> Vec<Column> {
        let first = [ColumnKind::Keyboard, ColumnKind::Gamepad].map(|k| Column::new(k, 1));
        let defaults = self.sheet.defaults().iter().map(|b| b.cell.column);
        let bound = self.bindings().iter().map(|b| b.cell.column);
        let mut columns: Vec<Column> = first.into_iter().chain(defaults).chain(bound).collect();
        columns.sort_unstable();
        columns.dedup();
        columns
    }

    /// A row for every action and arm that is not off and can be worked in one of the columns,
    /// grouped under their headings in the order of the sheet.
    pub fn rows(&self, columns: &[Column]) -> Vec<MenuRow> {
        let open: Vec<Cell> = self
            .conflicts()
            .iter()
            .filter(|c| c.class.is_conflict())
            .flat_map(|c| [c.first.cell, c.second.cell])
            .collect();
        let changed: Vec<Cell> = self.changes().iter().map(|c| c.cell).collect();
        let mut rows = Vec::new();
        for (id, action) in self.sheet.actions().filter(|(_, a)| !a.off) {
            for row in self.sheet.rows_of(id) {
                if !self.is_shown(row, action.shape, columns) {
                    continue;
                }
                let cells = columns.iter().map(|&column| {
                    let cell = row.cell(column);
                    let bound = self.bindings().binary_search_by_key(&cell, |b| b.cell);
                    let bound = bound.ok().map(|at| &self.bindings()[at]);
                    MenuCell {
                        cell,
                        chord: bound.map(|b| b.chord.clone()),
                        origin: bound.map_or_else(|| self.origin_of(cell), |b| b.origin),
                        changed: changed.contains(&cell),
                        conflict: open.contains(&cell),
                        name: bound.map(|b| self.chord_name(&b.chord)),
                        manner: bound.map_or(Manner::Press, |b| b.manner),
                        together: bound.is_some_and(|b| b.together),
                        how: bound.and_then(|b| self.how(b)),
                        can_bind: !action.fixed && can_work(column.kind(), row.arm, action.shape),
                        why_not: why_not(action, row, column.kind()),
                        not_in_force: self.not_in_force_in(cell).cloned(),
                    }
                });
                rows.push(MenuRow {
                    row,
                    group: action.group,
                    title: self.row_title(row),
                    about: self.words().about_action(&self.sheet, id),
                    essential: action.essential,
                    fixed: action.fixed,
                    cells: cells.collect(),
                });
            }
        }
        rows.sort_by_key(|r| r.group);
        rows
    }

    /// How a binding is worked, where that is more than a press.
    fn how(&self, bound: &Bound) -> Option<String> {
        let Row { action, arm, .. } = bound.cell.row;
        let shape = self.sheet.declared(action).shape;
        let toggles = || {
            let is_switch = works(bound.chord.input().shape(), arm, shape) == Some(Works::Switch);
            is_switch && self.easing(Some(action)).toggle
        };
        let word = match bound.manner {
            Manner::Press if bound.together => "together",
            Manner::Press if toggles() => "toggle",
            Manner::Press => return None,
            manner => manner.word(),
        };
        Some(self.words().say(&format!("manner-{word}"), &[]))
    }

    /// Whether a row is worth showing: not a whole line beside its arms, unless the columns have
    /// single axes or the sheet or the player bound it as a whole.
    fn is_shown(&self, row: Row, shape: Shape, columns: &[Column]) -> bool {
        let whole_line = row.arm.is_none() && shape == Shape::Line;
        let held = || {
            let cells = self.sheet.defaults().iter().map(|b| b.cell);
            cells
                .chain(self.bindings().iter().map(|b| b.cell))
                .any(|c| c.row == row)
        };
        let mut kinds = columns.iter().map(|c| c.kind());
        if whole_line {
            return kinds.any(|k| k == ColumnKind::Other) || held();
        }
        kinds.any(|k| can_work(k, row.arm, shape))
    }

    /// Where it comes from that a cell is empty.
    fn origin_of(&self, cell: Cell) -> Origin {
        let preset = || self.profile.preset().and_then(|n| self.sheet.preset(n));
        if self.upheld.lawful.get(&self.sheet, cell).is_some() {
            Origin::Profile
        } else if preset().is_some_and(|p| p.cells.iter().any(|(c, _)| *c == cell)) {
            Origin::Preset
        } else {
            Origin::Default
        }
    }
}

/// Why a cell cannot be changed.
fn why_not(action: &Action, row: Row, kind: ColumnKind) -> Option<CannotBind> {
    if action.fixed {
        return Some(CannotBind::Fixed);
    }
    let fits = can_work(kind, row.arm, action.shape);
    (!fits).then_some(CannotBind::NoInput(kind))
}
