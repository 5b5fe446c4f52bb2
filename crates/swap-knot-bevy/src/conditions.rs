//! Run conditions: systems that run when a player does something.

use bevy_ecs::prelude::Query;
use swap_knot::Seat;
use swap_knot::sheet::RowRef;

use crate::{PlayerControls, PlayerSeat};

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
) -> impl FnMut(Query<'_, '_, &PlayerSeat>, Query<'_, '_, &PlayerControls>) -> bool + Clone {
    let row = row.into();
    any(move |seat| seat.went_down(row))
}

/// A system runs in the updates in which an action, or an arm of it, of any player is on.
pub fn action_is_down(
    row: impl Into<RowRef>,
) -> impl FnMut(Query<'_, '_, &PlayerSeat>, Query<'_, '_, &PlayerControls>) -> bool + Clone {
    let row = row.into();
    any(move |seat| seat.is_down(row))
}

/// A system runs in the updates in which an action, or an arm of it, of any player went off.
pub fn action_went_up(
    row: impl Into<RowRef>,
) -> impl FnMut(Query<'_, '_, &PlayerSeat>, Query<'_, '_, &PlayerControls>) -> bool + Clone {
    let row = row.into();
    any(move |seat| seat.went_up(row))
}

/// Whether it is so of any player's seat.
fn any(
    is_so: impl Fn(&Seat) -> bool + Clone,
) -> impl FnMut(Query<'_, '_, &PlayerSeat>, Query<'_, '_, &PlayerControls>) -> bool + Clone {
    move |seats, players| {
        let seats = seats.iter().any(|seat| is_so(seat));
        seats || players.iter().any(|player| is_so(player.seat()))
    }
}
