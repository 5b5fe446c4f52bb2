//! What a pack lacks for a game, and what it has too much of.

use std::collections::BTreeSet;
use std::path::Path;

use swap_knot::{Input, Sheet};

use super::{Pack, PackNote, Picture};

/// What a pack lacks for a game, and what it has too much of.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct PackReport {
    /// Inputs of the sheet without a picture, for which the built-in drawing does.
    pub missing: Vec<Input>,
    /// Pictures that the manifest does not name.
    pub unused: Vec<String>,
    /// What cannot be used: damaged, too large, out of the pack.
    pub notes: Vec<PackNote>,
    /// How many of the sheet's inputs have a picture.
    pub drawn: usize,
}

impl Pack {
    /// Looks for a picture of every input that a sheet binds, by default or in a preset.
    pub fn check(&self, sheet: &Sheet) -> PackReport {
        let has = |i: &Input| {
            let in_family = self.families.iter().any(|f| f.files.contains_key(i));
            in_family || self.files.contains_key(i)
        };
        let (drawn, missing): (Vec<Input>, Vec<Input>) = sheet.inputs().into_iter().partition(has);
        PackReport {
            missing,
            unused: self.unused(),
            notes: self.notes.clone(),
            drawn: drawn.len(),
        }
    }

    fn unused(&self) -> Vec<String> {
        let families = self.families.iter().map(|f| &f.files);
        let all = std::iter::once(&self.files).chain(families);
        let paths = all
            .flat_map(|files| files.values())
            .map(|p: &Picture| p.path.as_path());
        // A file that cannot be used is told as such already.
        let noted = self.notes.iter().map(|n| Path::new(n.file.as_str()));
        let known: BTreeSet<&Path> = paths.chain(noted).collect();
        let found = self.found.iter().filter(|p| !known.contains(p.as_path()));
        found.map(|p| p.display().to_string()).collect()
    }
}
