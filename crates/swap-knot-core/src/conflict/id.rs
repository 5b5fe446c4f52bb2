//! What a conflict is called, so that a sheet can say that it is known.

use super::{Conflict, ConflictClass};
use crate::sheet::Sheet;

impl Conflict {
    /// What it is called in `known` of a sheet where it is a notice, such as `longer-chord:stow+horn`.
    pub fn id(&self, sheet: &Sheet) -> String {
        let word = match self.class {
            ConflictClass::Same => "same-input",
            ConflictClass::Side => "side",
            ConflictClass::PartOfWhole => "part-of-whole",
            ConflictClass::ByLetter => "by-letter",
            ConflictClass::Manner => "manner",
            ConflictClass::Seats => "seats",
            ConflictClass::LongerHidesShorter => "longer-chord",
            ConflictClass::Member => "held-part",
            ConflictClass::Crossing => "crossing",
        };
        let name = |row| sheet.row_name(row);
        let (first, second) = (name(self.first.cell.row), name(self.second.cell.row));
        format!("{word}:{first}+{second}")
    }
}
