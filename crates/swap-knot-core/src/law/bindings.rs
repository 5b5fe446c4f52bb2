//! Which chord stands in which cell, and where it comes from.

use std::collections::BTreeMap;

use super::force;
use crate::input::{Chord, ChordInHand};
use crate::layout::{Resolver, Unworkable};
use crate::profile::Profile;
use crate::sheet::{Cell, Easing, How, Manner, Sheet};

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
#[derive(Clone, Debug, PartialEq)]
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
    /// Whether its parts are pressed together, in any order.
    pub together: bool,
    /// How its action is worked, with its times.
    pub easing: Easing,
    /// Where it comes from.
    pub origin: Origin,
}

impl Bound {
    /// A chord in a cell, worked as the cell wants it.
    pub(crate) fn new(
        sheet: &Sheet,
        easing: &Easing,
        cell: Cell,
        chord: Chord,
        origin: Origin,
    ) -> Bound {
        let How {
            manner,
            strict,
            together,
        } = sheet.how_of(cell);
        Bound {
            cell,
            together: together && chord.can_be_together(),
            chord,
            manner: easing.manner(manner),
            strict,
            easing: *easing,
            origin,
        }
    }

    /// What it is in hand.
    ///
    /// # Errors
    /// When the layout has no key for a part, or one key for two.
    pub(crate) fn in_hand(&self, on: &Resolver) -> Result<ChordInHand, Unworkable> {
        Ok(on.chord(&self.chord)?.in_any_order(self.together))
    }
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
    // Each action is eased once, however many bindings it has.
    let of = |action| force::easing(sheet, lawful, Some(action));
    let eased: Vec<Easing> = sheet.actions().map(|(_, a)| of(a)).collect();
    let bound = |cell: Cell, chord, origin| {
        let of_action = &eased[cell.row.action.index()];
        Bound::new(sheet, of_action, cell, chord, origin)
    };
    let mut out = Vec::with_capacity(sheet.defaults().len() + changed.len());
    for default in sheet.defaults() {
        if !changed.contains_key(&default.cell) {
            let chord = default.chord.clone();
            out.push(bound(default.cell, chord, Origin::Default));
        }
    }
    for (cell, (chord, origin)) in changed {
        let Some(chord) = chord else { continue };
        out.push(bound(cell, chord, origin));
    }
    out.retain(|b| !sheet.declared(b.cell.row.action).off);
    out.sort_by_key(|b| b.cell);
    drop_doubled_defaults(sheet, &mut out);
    out
}

/// A row is worked by a chord once: where a preset gives it one that the sheet has in another cell, that of the
/// preset is meant.
fn drop_doubled_defaults(sheet: &Sheet, bound: &mut Vec<Bound>) {
    let mut doubled: Vec<Cell> = Vec::new();
    for row in bound.chunk_by(|a, b| a.cell.row == b.cell.row) {
        for given in row.iter().filter(|b| b.origin == Origin::Preset) {
            let same = row.iter().filter(|b| b.origin == Origin::Default);
            let given = (given.cell, &given.chord);
            let same = same.filter(|b| sheet.holds_twice((b.cell, &b.chord), given));
            doubled.extend(same.map(|b| b.cell));
        }
    }
    bound.retain(|b| !doubled.contains(&b.cell));
}
