//! A game's marks, checked against its sheet: what they lack, and what is in them twice.

use std::error::Error;
use std::io::Write;
use std::path::Path;

use swap_knot::Sheet;
use swap_knot::prompt::Marks;
use swap_knot_draw::Pack;

use crate::files;
use crate::table::{BAD, QUIET, count, styled};
use crate::words::folder_of;

/// What was found in a file of marks.
pub(crate) struct Checked {
    pub(crate) families: Vec<String>,
    /// Each with its place and its text.
    pub(crate) problems: Vec<(String, String)>,
    pub(crate) notices: Vec<(String, String)>,
}

/// Checks a file of marks and the pictures that it names.
pub(crate) fn check(path: &Path, sheet: &Sheet) -> Result<Checked, Box<dyn Error>> {
    let (file, text) = (
        path.display().to_string(),
        files::read(path, Marks::MAX_BYTES)?,
    );
    let mut found = Checked {
        families: Vec::new(),
        problems: Vec::new(),
        notices: Vec::new(),
    };
    let place = |line: usize, column: usize| format!("{file}:{line}:{column}");
    let marks = match Marks::from_toml(&text, &file) {
        Ok(marks) => marks,
        Err(error) => {
            let all = error.mistakes().iter();
            let told = all.map(|m| (place(m.line, m.column), m.message.clone()));
            found.problems.extend(told);
            return Ok(found);
        }
    };
    found.families = marks.families().map(|f| f.name().to_owned()).collect();
    for finding in marks.check(sheet) {
        let (line, column) = finding.at;
        let told = (place(line, column), finding.to_string());
        match finding.is_problem() {
            true => found.problems.push(told),
            false => found.notices.push(told),
        }
    }
    let pictures = Pack::of_marks(&marks, folder_of(path));
    let told = pictures.notes().iter();
    let told = told.map(|note| (file.clone(), format!("the picture {note}")));
    found.problems.extend(told);
    Ok(found)
}

pub(crate) fn print(out: &mut impl Write, found: &Checked) -> std::io::Result<()> {
    let fine = match found.problems.len() {
        0 => "nothing is amiss".to_owned(),
        n => count(
            n,
            if found.families.is_empty() {
                "mistake"
            } else {
                "problem"
            },
        ),
    };
    let families = match found.families.len() {
        // They cannot be read.
        0 => "marks".to_owned(),
        1 => "1 family of pads".to_owned(),
        n => format!("{n} families of pads"),
    };
    writeln!(out, "{families}: {fine}")?;
    for (place, text) in &found.problems {
        writeln!(out, "\n{} {place}: {text}", styled(BAD, "marks:"))?;
    }
    for (place, text) in &found.notices {
        writeln!(out, "\n{} {place}: {text}", styled(QUIET, "marks:"))?;
    }
    Ok(())
}
