//! What is wrong in a sheet, and where.

use std::fmt;

/// One thing that is wrong in a sheet.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
#[non_exhaustive]
pub struct Mistake {
    /// The file, where it has a name.
    pub file: Option<String>,
    /// The line, from 1.
    pub line: usize,
    /// The column in characters, from 1.
    pub column: usize,
    /// What is wrong and what to write instead.
    pub message: String,
}

impl fmt::Display for Mistake {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let file = self.file.as_deref().unwrap_or("sheet");
        write!(f, "{file}:{}:{}: {}", self.line, self.column, self.message)
    }
}

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
        crate::failure::write_lines(f, &self.mistakes)
    }
}

crate::failure::debug_as_text!(SheetError);

impl std::error::Error for SheetError {}
