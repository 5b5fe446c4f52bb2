//! What goes wrong, with the place in the file shown.

use std::error::Error;
use std::fs;

use swap_knot::sheet::SheetError;

use crate::table::{BAD, QUIET, styled};

/// Prints why a command could not do its work.
pub(crate) fn print(error: &(dyn Error + 'static)) {
    let word = styled(BAD, "error:");
    let Some(sheet) = error.downcast_ref::<SheetError>() else {
        anstream::eprintln!("{word} {error}");
        return;
    };
    for mistake in sheet.mistakes() {
        anstream::eprintln!("{word} {mistake}");
        if let Some(file) = &mistake.file {
            show(file, mistake.line, mistake.column);
        }
    }
}

/// The line of a file with the spot marked, as far as there is one.
fn show(file: &str, line: usize, column: usize) {
    // A line that is longer than this is no line that anybody wrote.
    const MOST: usize = 160;
    let Ok(text) = fs::read_to_string(file) else {
        return;
    };
    let Some(shown) = text.lines().nth(line.saturating_sub(1)) else {
        return;
    };
    let shown: String = shown.replace('\t', " ").chars().take(MOST).collect();
    let before: String = shown.chars().take(column.saturating_sub(1)).collect();
    let margin = " ".repeat(line.to_string().len());
    let pad = " ".repeat(unicode_width::UnicodeWidthStr::width(before.as_str()));
    let bar = styled(QUIET, "|");
    anstream::eprintln!("{} {bar} {shown}", styled(QUIET, &line.to_string()));
    anstream::eprintln!("{margin} {bar} {pad}{}", styled(BAD, "^"));
}
