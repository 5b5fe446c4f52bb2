//! Every mistake of a sheet.

use std::fmt;

use crate::text::{Mistake, debug_as_text, write_lines};

/// A sheet that cannot be used: every mistake in it, in the order of the file.
#[derive(Clone, PartialEq, Eq)]
pub struct SheetError {
    pub(super) mistakes: Vec<Mistake>,
}

impl SheetError {
    /// Every mistake, in the order of the file.
    pub fn mistakes(&self) -> &[Mistake] {
        &self.mistakes
    }
}

impl fmt::Display for SheetError {
    /// One line a mistake: `file:line:column: message`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write_lines(f, &self.mistakes)
    }
}

debug_as_text!(SheetError);

impl std::error::Error for SheetError {}
