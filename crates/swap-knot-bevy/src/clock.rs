//! The time that events and ticks carry.

use std::time::Instant;

#[cfg(feature = "reflect")]
use bevy_ecs::prelude::ReflectResource;
use bevy_ecs::prelude::Resource;
use swap_knot::Time;

/// The time that events and ticks carry: since the plugin was added, or what the game sets.
#[derive(Clone, Debug, Resource)]
#[cfg_attr(
    feature = "reflect",
    derive(bevy_reflect::Reflect),
    reflect(opaque, Resource, Clone, Debug)
)]
pub struct SwapKnotClock {
    started: Instant,
    set: Option<Time>,
}

impl Default for SwapKnotClock {
    fn default() -> Self {
        SwapKnotClock {
            started: Instant::now(),
            set: None,
        }
    }
}

impl SwapKnotClock {
    /// The time now.
    pub fn now(&self) -> Time {
        self.set
            .unwrap_or_else(|| Time::from(self.started.elapsed()))
    }

    /// Sets the time by hand, for tests, replays and games with a time of their own; `None` goes
    /// back to the real one. It must not run backwards.
    pub fn set(&mut self, now: Option<Time>) {
        self.set = now;
    }
}

/// Has the clock follow Bevy's virtual time (feature `time`): it stands still while that is paused
/// and runs as fast as that does, so that holds and ramps do the same.
///
/// Not for a game whose menus listen for keys in a pause: their timeouts stand still as well.
#[cfg(feature = "time")]
#[derive(Clone, Copy, Debug, Default)]
pub struct FollowVirtualTime;

#[cfg(feature = "time")]
impl bevy_app::Plugin for FollowVirtualTime {
    fn build(&self, app: &mut bevy_app::App) {
        use bevy_ecs::prelude::IntoScheduleConfigs as _;
        let before = crate::SwapKnotSystems::Hear;
        app.init_resource::<SwapKnotClock>()
            .add_systems(bevy_app::PreUpdate, follow.before(before));
    }
}

#[cfg(feature = "time")]
fn follow(
    time: bevy_ecs::prelude::Res<'_, bevy_time::Time<bevy_time::Virtual>>,
    mut clock: bevy_ecs::prelude::ResMut<'_, SwapKnotClock>,
) {
    clock.set(Some(Time::from(time.elapsed())));
}
