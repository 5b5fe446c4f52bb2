//! What a rig has to say of its bindings.

use crate::layout::Unworkable;
use crate::sheet::{Cell, Sheet};

/// A binding that could not be played as it is written.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum RigNote {
    /// The binding cannot be worked on the layout.
    CannotBeWorked {
        /// The cell.
        cell: Cell,
        /// Why.
        why: Unworkable,
    },
    /// No key of the layout types the letter of an essential action: the key where the letter
    /// usually is stands in.
    StandsIn {
        /// The cell.
        cell: Cell,
    },
    /// There are more bindings than a rig can hold; this one and those after it are left out.
    TooMany {
        /// The cell.
        cell: Cell,
    },
}

impl RigNote {
    /// The cell that it is about.
    pub const fn cell(&self) -> Cell {
        match self {
            RigNote::CannotBeWorked { cell, .. }
            | RigNote::StandsIn { cell }
            | RigNote::TooMany { cell } => *cell,
        }
    }

    /// The note in words, for logs.
    pub fn describe(&self, sheet: &Sheet) -> String {
        let row = sheet.row_name(self.cell().row);
        let column = self.cell().column;
        match self {
            RigNote::CannotBeWorked { why, .. } => {
                format!("`{row}` {column} cannot be worked: {why}")
            }
            RigNote::StandsIn { .. } => format!(
                "`{row}` {column} is a letter that no key types; the key where it usually is stands in"
            ),
            RigNote::TooMany { .. } => format!("`{row}` {column} is one binding too many"),
        }
    }
}
