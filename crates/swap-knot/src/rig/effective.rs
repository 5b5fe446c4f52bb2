//! Which chord stands in which cell, and where it comes from.

use std::collections::BTreeMap;

use super::cover::Placed;
use crate::input::{Chord, ChordInHand};
use crate::layout::Unworkable;
use crate::profile::Profile;
use crate::sheet::{Cell, ColumnKind, Manner, Sheet, fits};

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

/// Something that could not be used as it was written.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum RigNote {
    /// The profile names a preset that the sheet does not have; the defaults are used.
    NoSuchPreset(String),
    /// The profile puts into a cell what cannot work it; what was under it is used.
    DoesNotFit {
        /// The cell.
        cell: Cell,
        /// What the profile has there.
        chord: Chord,
        /// Why it cannot work the cell.
        why: String,
    },
    /// The binding cannot be worked on the layout.
    CannotBeWorked {
        /// The cell.
        cell: Cell,
        /// Why.
        why: Unworkable,
    },
    /// There are more bindings than a rig can hold; this one and those after it are left out.
    TooMany {
        /// The cell.
        cell: Cell,
    },
}

/// The bindings in force, ordered by cell; actions that are off have none.
///
/// The profile wins over the preset, the preset over the sheet, cell by cell.
pub(crate) fn bindings(sheet: &Sheet, profile: &Profile) -> (Vec<Bound>, Vec<RigNote>) {
    let mut notes = Vec::new();
    let mut changed: BTreeMap<Cell, (Option<Chord>, Origin)> = BTreeMap::new();
    if let Some(name) = profile.preset() {
        match sheet.preset(name) {
            Some(preset) => {
                let cells = preset.cells.iter().cloned();
                changed.extend(cells.map(|(cell, chord)| (cell, (chord, Origin::Preset))));
            }
            None => notes.push(RigNote::NoSuchPreset(name.to_owned())),
        }
    }
    for (cell, chord) in profile.changes(sheet) {
        match chord.map_or(Ok(()), |c| suits(sheet, cell, c)) {
            Ok(()) => {
                changed.insert(cell, (chord.cloned(), Origin::Profile));
            }
            Err(why) => notes.extend(chord.map(|chord| RigNote::DoesNotFit {
                cell,
                chord: chord.clone(),
                why,
            })),
        }
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
    (out, notes)
}

impl Bound {
    /// What the rules of covering see of it.
    pub(crate) fn placed<'a>(&self, chord: &'a ChordInHand) -> Placed<'a> {
        Placed {
            action: self.cell.row.action,
            chord,
            strict: self.strict,
        }
    }
}

/// Whether a chord can stand in a cell; if not, why.
pub(crate) fn suits(sheet: &Sheet, cell: Cell, chord: &Chord) -> Result<(), String> {
    let kind = ColumnKind::of(chord.device_kind());
    if kind != cell.column.kind {
        let column = cell.column;
        return Err(format!(
            "`{chord}` is a {kind} input and cannot stand in column {column}"
        ));
    }
    fits(chord, cell.row, sheet.declared(cell.row.action).shape)
}
