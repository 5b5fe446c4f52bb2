//! The rows of a menu, for any interface.

use super::Draft;
use crate::input::Chord;
use crate::rig::Origin;
use crate::sheet::{Cell, Column, ColumnKind, GroupId, Row, Shape};

/// A row of the menu: an action, or one arm of it.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct MenuRow {
    /// Which; stable as long as the sheet is.
    pub row: Row,
    /// The heading it stands under.
    pub group: GroupId,
    /// What the player reads.
    pub title: String,
    /// Whether it must keep a binding.
    pub essential: bool,
    /// Whether the player may not change it.
    pub fixed: bool,
    /// One cell a column, in the order in which they were asked for.
    pub cells: Vec<MenuCell>,
}

/// A cell of the menu.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct MenuCell {
    /// Which.
    pub cell: Cell,
    /// What works it; nothing when unbound.
    pub chord: Option<Chord>,
    /// Where that comes from.
    pub origin: Origin,
    /// Whether applying would change it.
    pub changed: bool,
    /// Whether an open conflict touches it.
    pub conflict: bool,
    /// Whether some input of the column's devices can work the row.
    pub can_bind: bool,
}

impl Draft {
    /// The columns that hold something, and always the first of keyboard and gamepad.
    pub fn columns(&self) -> Vec<Column> {
        let first = [ColumnKind::Keyboard, ColumnKind::Gamepad].map(|k| Column::new(k, 1));
        let defaults = self.sheet.defaults().iter().map(|b| b.cell.column);
        let bound = self.bindings.iter().map(|b| b.cell.column);
        let mut columns: Vec<Column> = first.into_iter().chain(defaults).chain(bound).collect();
        columns.sort_unstable();
        columns.dedup();
        columns
    }

    /// A row for every action and arm that is not off and can be worked in one of the columns, grouped under their headings in the order
    /// of the sheet.
    pub fn rows(&self, columns: &[Column]) -> Vec<MenuRow> {
        let open: Vec<Cell> = self
            .conflicts()
            .iter()
            .filter(|c| c.class.is_conflict())
            .flat_map(|c| [c.first.cell, c.second.cell])
            .collect();
        let changed: Vec<Cell> = self.changes().iter().map(|c| c.cell).collect();
        let mut rows = Vec::new();
        for (id, action) in self.sheet.menu().filter(|(_, a)| !a.off) {
            for row in self.sheet.rows_of(id) {
                let fits = |c: &Column| can_bind(action.shape, row, c.kind);
                if !columns.iter().any(fits) {
                    continue;
                }
                let cells = columns.iter().map(|&column| {
                    let cell = row.cell(column);
                    let bound = self.bindings.binary_search_by_key(&cell, |b| b.cell);
                    let bound = bound.ok().map(|at| &self.bindings[at]);
                    MenuCell {
                        cell,
                        chord: bound.map(|b| b.chord.clone()),
                        origin: bound.map_or_else(|| self.origin_of(cell), |b| b.origin),
                        changed: changed.contains(&cell),
                        conflict: open.contains(&cell),
                        can_bind: !action.fixed && can_bind(action.shape, row, column.kind),
                    }
                });
                rows.push(MenuRow {
                    row,
                    group: action.group,
                    title: self.sheet.row_title(row).to_owned(),
                    essential: action.essential,
                    fixed: action.fixed,
                    cells: cells.collect(),
                });
            }
        }
        rows.sort_by_key(|r| r.group);
        rows
    }

    /// Where it comes from that a cell is empty.
    fn origin_of(&self, cell: Cell) -> Origin {
        let preset = || self.profile.preset().and_then(|n| self.sheet.preset(n));
        if self.profile.get(&self.sheet, cell).is_some() {
            Origin::Profile
        } else if preset().is_some_and(|p| p.cells.iter().any(|(c, _)| *c == cell)) {
            Origin::Preset
        } else {
            Origin::Default
        }
    }
}

/// Whether some input of a column's devices can work a row.
fn can_bind(shape: Shape, row: Row, kind: ColumnKind) -> bool {
    if row.arm.is_some() || !shape.has_arms() {
        return true;
    }
    match shape {
        // Mouse motion, sticks and on-screen sticks have two axes.
        Shape::Plane => kind != ColumnKind::Other,
        // Only other controllers tell of whole single axes; an on-screen stick has one to spare.
        Shape::Line => matches!(kind, ColumnKind::Other | ColumnKind::Touch),
        _ => false,
    }
}
