//! Which kind of device the player is using, judged by deliberate inputs only.

use crate::input::{DeviceKind, Time};

/// How far the mouse has to move within [`MOVE_TIME`] seconds to count as meant, in counts.
const MOVE_FAR: f32 = 30.0;
const MOVE_TIME: f32 = 0.4;

#[derive(Clone, Debug)]
pub(super) struct KindInUse {
    current: DeviceKind,
    forced: Option<DeviceKind>,
    /// What the game was told last.
    told: DeviceKind,
    /// Since when the mouse has been moving, and how far it got.
    moving: (Time, f32),
}

impl Default for KindInUse {
    fn default() -> Self {
        KindInUse {
            current: DeviceKind::Keyboard,
            forced: None,
            told: DeviceKind::Keyboard,
            moving: (Time::ZERO, 0.0),
        }
    }
}

impl KindInUse {
    pub(super) fn current(&self) -> DeviceKind {
        self.forced.unwrap_or(self.current)
    }

    pub(super) fn force(&mut self, kind: Option<DeviceKind>) {
        self.forced = kind;
    }

    /// Whether it is another one than at the last call; asked once a tick.
    pub(super) fn take_changed(&mut self) -> bool {
        let current = self.current();
        std::mem::replace(&mut self.told, current) != current
    }

    /// Something was worked on purpose, if `really`. Without a branch: this is on the path of every
    /// event.
    #[inline]
    pub(super) fn meant(&mut self, kind: DeviceKind, really: bool) {
        self.current = if really { kind } else { self.current };
    }

    pub(super) fn mouse_move(&mut self, at: Time, x: f32, y: f32) {
        if self.current == DeviceKind::Mouse {
            return;
        }
        let (since, far) = self.moving;
        self.moving = if at > since.plus_secs(MOVE_TIME) {
            (at, 0.0)
        } else {
            (since, far + x.abs() + y.abs())
        };
        // Keyboard and mouse are used together, and prompts speak of both: only from another
        // device does moving the mouse lead back.
        let far = self.moving.1 > MOVE_FAR;
        self.meant(
            DeviceKind::Mouse,
            far && self.current != DeviceKind::Keyboard,
        );
    }

    /// The clock went back by so many microseconds.
    pub(super) fn turn_back(&mut self, micros: u64) {
        self.moving.0 = self.moving.0.minus(micros);
    }
}
