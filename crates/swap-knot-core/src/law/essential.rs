//! The player cannot lock themselves out.

use super::bindings::Bound;
use crate::input::{Chord, Input};
use crate::layout::{Layout, Resolver};
use crate::profile::Profile;
use crate::sheet::{self, Cell, ColumnKind, Row, Sheet};

/// The rows of essential actions that have no binding which can be worked on the layout.
pub(super) fn lacking(
    sheet: &Sheet,
    profile: &Profile,
    bindings: &[Bound],
    on: &Resolver,
) -> Vec<(Row, ColumnKind)> {
    let preset = profile.preset().and_then(|name| sheet.preset(name));
    let workable = bindings.iter().filter(|b| on.chord(&b.chord).is_ok());
    let cells: Vec<Cell> = workable.map(|b| b.cell).collect();
    sheet::lacking(sheet, preset, &cells)
}

/// Puts the key where a letter usually is in the place of the letter, in the bindings of a row on
/// some devices; answers in which cells.
pub(super) fn stand_in(bindings: &mut [Bound], row: Row, kind: ColumnKind) -> Vec<Cell> {
    let usual = Layout::us();
    let key = |input: Input| match input {
        Input::Letter(letter) => usual.place_of(letter).map_or(input, Input::Key),
        other => other,
    };
    let mut out = Vec::new();
    let own = bindings
        .iter_mut()
        .filter(|b| b.cell.row == row && b.cell.column.kind() == kind);
    for bound in own {
        let held = bound.chord.held().iter().map(|i| key(*i));
        let chord = Chord::new(held, key(bound.chord.input()));
        if let Some(chord) = chord.ok().filter(|c| *c != bound.chord) {
            bound.chord = chord;
            out.push(bound.cell);
        }
    }
    out
}
