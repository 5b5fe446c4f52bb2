//! Two players at one keyboard.

use super::compare::{Resolved, meet_at_all};
use super::{Conflict, ConflictClass, Party};
use crate::rig::{Bound, Rig};
use crate::sheet::ColumnKind;

/// Every conflict between two players who share a keyboard: a key that both have something on,
/// whatever either is doing in the game.
///
/// Titles and names are those of the first player's sheet; both play the same game.
pub fn seat_conflicts(one: &Rig, other: &Rig) -> Vec<Conflict> {
    fn keyboard(rig: &Rig) -> impl Iterator<Item = (&Bound, Resolved<'_>)> {
        let keys = rig.bindings().iter().filter(|b| {
            b.cell.column.kind == ColumnKind::Keyboard
                && b.chord.device_kind() == crate::DeviceKind::Keyboard
        });
        keys.filter_map(|b| Some((b, Resolved::new(b, rig.layout(), rig.platform())?)))
    }
    let party = |b: &Bound| Party {
        cell: b.cell,
        chord: b.chord.clone(),
        manner: b.manner,
    };
    let others: Vec<_> = keyboard(other).collect();
    let mut out = Vec::new();
    for (a, mine) in keyboard(one) {
        for (b, theirs) in &others {
            if meet_at_all(&mine, theirs) {
                out.push(Conflict {
                    class: ConflictClass::Seats,
                    first: party(a),
                    second: party(b),
                    situations: None,
                    layouts: Vec::new(),
                });
            }
        }
    }
    out
}
