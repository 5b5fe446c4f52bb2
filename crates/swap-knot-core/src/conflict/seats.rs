//! Two players at one keyboard.

use super::compare::{Resolved, meeting};
use super::{Conflict, ConflictClass, Party};
use crate::input::DeviceKind;
use crate::rig::Rig;
use crate::sheet::ColumnKind;

/// Every conflict between two players who share a keyboard: where what one works, or may hold for
/// it, works something of the other's too, whatever either is doing in the game.
///
/// Titles and names are those of the first player's sheet; both play the same game.
pub fn seat_conflicts(one: &Rig, other: &Rig) -> Vec<Conflict> {
    fn keyboard(rig: &Rig) -> impl Iterator<Item = Resolved<'_>> {
        let keys = rig.bindings().iter().filter(|b| {
            b.cell.column.kind() == ColumnKind::Keyboard
                && b.chord.device_kind() == DeviceKind::Keyboard
        });
        keys.filter_map(|b| Resolved::new(rig.sheet(), b, rig.resolver()))
    }
    let party = |of: &Resolved<'_>| Party {
        cell: of.bound.cell,
        chord: of.bound.chord.clone(),
        manner: of.bound.manner,
    };
    let others: Vec<_> = keyboard(other).collect();
    let mut out = Vec::new();
    for mine in keyboard(one) {
        for theirs in &others {
            if meeting(&mine, theirs).is_some() {
                out.push(Conflict {
                    class: ConflictClass::Seats,
                    first: party(&mine),
                    second: party(theirs),
                    situations: None,
                    layouts: Vec::new(),
                });
            }
        }
    }
    out
}
