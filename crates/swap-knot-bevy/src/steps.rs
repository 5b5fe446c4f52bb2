//! Seats read by Bevy's fixed step as well as by the picture.

use bevy_app::{App, FixedFirst, Plugin, RunFixedMainLoop, RunFixedMainLoopSystems};
use bevy_ecs::change_detection::DetectChangesMut as _;
use bevy_ecs::prelude::{IntoScheduleConfigs as _, Query, Res};
use swap_knot::Time;

use crate::plugin::{Stepped, close};
use crate::watch::watch;
use crate::{FollowVirtualTime, PlayerControls, PlayerSeat};

/// Has Bevy's fixed steps read every player at a pace of their own (feature `time`): in `FixedUpdate`
/// [`PlayerSeat::step`] has each press in exactly one step, however many steps or none a frame has,
/// and values as of the step's end; in `Update` the seat itself answers for the frame as ever.
///
/// It brings [`FollowVirtualTime`] along. The frame is closed after the fixed steps and before
/// `Update`: messages of what happened are written then.
///
/// ```
/// use bevy_app::{App, FixedUpdate};
/// use bevy_ecs::prelude::*;
/// use swap_knot::Actions;
/// use swap_knot_bevy::{FixedSteps, PlayerSeat, SwapKnotPlugin};
///
/// #[derive(Clone, Copy, Actions)]
/// enum Do { Horn }
///
/// fn sound(seats: Query<&PlayerSeat>) {
///     for seat in &seats {
///         if seat.step().went_down(Do::Horn) { /* a blast */ }
///     }
/// }
///
/// App::new()
///     .add_plugins((bevy_time::TimePlugin, SwapKnotPlugin, FixedSteps))
///     .add_systems(FixedUpdate, sound);
/// ```
#[derive(Clone, Copy, Debug, Default)]
pub struct FixedSteps;

impl Plugin for FixedSteps {
    fn build(&self, app: &mut App) {
        if !app.is_plugin_added::<FollowVirtualTime>() {
            app.add_plugins(FollowVirtualTime);
        }
        app.insert_resource(Stepped(true))
            .add_systems(FixedFirst, step)
            .add_systems(
                RunFixedMainLoop,
                (close, watch)
                    .chain()
                    .in_set(RunFixedMainLoopSystems::AfterFixedMainLoop),
            );
    }
}

/// A step is played up to its end, and read.
fn step(
    mut seats: Query<'_, '_, &mut PlayerSeat>,
    mut players: Query<'_, '_, &mut PlayerControls>,
    time: Res<'_, bevy_time::Time<bevy_time::Fixed>>,
) {
    for mut seat in &mut seats {
        let own = seat.bypass_change_detection();
        own.advance(Time::from(time.elapsed()));
        own.read_step();
    }
    for mut player in &mut players {
        let own = player.bypass_change_detection();
        own.advance(Time::from(time.elapsed()));
        own.read_step();
    }
}
