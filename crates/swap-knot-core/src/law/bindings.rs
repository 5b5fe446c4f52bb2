//! Which chord stands in which cell, and where it comes from.

use std::collections::BTreeMap;

use crate::input::Chord;
use crate::profile::Profile;
use crate::sheet::{Cell, Manner, Sheet};

/// Where a binding comes from.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Origin {
    /// The sheet's default.
    Default,
    /// The preset that the player chose.
    Preset,
    /// The player.
    Profile,
}

/// A binding as it is in force.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Bound {
    /// Where it stands.
    pub cell: Cell,
    /// What works the action.
    pub chord: Chord,
    /// How it must be worked.
    pub manner: Manner,
    /// Whether no other modifier may be held.
    pub strict: bool,
    /// Where it comes from.
    pub origin: Origin,
}

/// The bindings in force, ordered by cell; actions that are off have none.
///
/// The profile wins over the preset, the preset over the sheet, cell by cell.
pub(super) fn bindings(sheet: &Sheet, lawful: &Profile) -> Vec<Bound> {
    let mut changed: BTreeMap<Cell, (Option<Chord>, Origin)> = BTreeMap::new();
    if let Some(preset) = lawful.preset().and_then(|name| sheet.preset(name)) {
        let cells = preset.cells.iter().cloned();
        changed.extend(cells.map(|(cell, chord)| (cell, (chord, Origin::Preset))));
    }
    for (cell, chord) in lawful.changes(sheet) {
        changed.insert(cell, (chord.cloned(), Origin::Profile));
    }
    let mut out = Vec::with_capacity(sheet.defaults().len() + changed.len());
    for default in sheet.defaults() {
        if !changed.contains_key(&default.cell) {
            out.push(Bound {
                cell: default.cell,
                chord: default.chord.clone(),
                manner: default.manner,
                strict: default.strict,
                origin: Origin::Default,
            });
        }
    }
    for (cell, (chord, origin)) in changed {
        let Some(chord) = chord else { continue };
        let (manner, strict) = sheet.manner_of(cell);
        out.push(Bound {
            cell,
            chord,
            manner,
            strict,
            origin,
        });
    }
    out.retain(|b| !sheet.declared(b.cell.row.action).off);
    out.sort_by_key(|b| b.cell);
    out
}
