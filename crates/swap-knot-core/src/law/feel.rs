//! How an input feels, of all that has a say in it.

use crate::input::DeviceKind;
use crate::profile::Profile;
use crate::sheet::{Action, Feel, Sheet};

/// The feel of an action on a device kind, or of what works no action: the player's comes over the
/// game's, and an action's own over that of all.
pub(crate) fn feel_in_force(
    sheet: &Sheet,
    lawful: &Profile,
    action: Option<&Action>,
    kind: DeviceKind,
) -> Feel {
    let games = action.map_or(sheet.feel(kind), |a| a.feel[kind as usize]);
    let own = action.map(|a| lawful.feel(Some(&a.name), kind));
    Feel::usual(kind)
        .with(&games)
        .with(&lawful.feel(None, kind))
        .with(&own.unwrap_or_default())
}
