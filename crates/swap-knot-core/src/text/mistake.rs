//! What is wrong in a file, and where.

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
