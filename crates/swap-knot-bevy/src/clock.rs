//! The time that events and ticks carry.

use std::time::Instant;

use bevy_ecs::prelude::Resource;
use swap_knot::Time;

/// The time that events and ticks carry: since the plugin was added, or what the game sets.
#[derive(Clone, Debug, Resource)]
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
