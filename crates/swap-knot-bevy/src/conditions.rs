//! Run conditions: systems that run when a player does something.

use bevy_ecs::prelude::Query;
use swap_knot::RowRef;

use crate::PlayerSeat;

/// A system runs in the updates in which an action, or an arm of it, of any player went on.
///
/// ```
/// use bevy_app::{App, Update};
/// use bevy_ecs::prelude::*;
/// use swap_knot::Actions;
/// use swap_knot_bevy::{SwapKnotPlugin, action_went_down};
///
/// #[derive(Clone, Copy, Actions)]
/// enum Do { Horn }
///
/// fn sound_it() {}
///
/// App::new()
///     .add_plugins(SwapKnotPlugin)
///     .add_systems(Update, sound_it.run_if(action_went_down(Do::Horn)));
/// ```
pub fn action_went_down(
    row: impl Into<RowRef>,
) -> impl FnMut(Query<'_, '_, &PlayerSeat>) -> bool + Clone {
    let row = row.into();
    move |seats| seats.iter().any(|seat| seat.went_down(row))
}

/// A system runs in the updates in which an action, or an arm of it, of any player is on.
pub fn action_is_down(
    row: impl Into<RowRef>,
) -> impl FnMut(Query<'_, '_, &PlayerSeat>) -> bool + Clone {
    let row = row.into();
    move |seats| seats.iter().any(|seat| seat.is_down(row))
}

/// A system runs in the updates in which an action, or an arm of it, of any player went off.
pub fn action_went_up(
    row: impl Into<RowRef>,
) -> impl FnMut(Query<'_, '_, &PlayerSeat>) -> bool + Clone {
    let row = row.into();
    move |seats| seats.iter().any(|seat| seat.went_up(row))
}
