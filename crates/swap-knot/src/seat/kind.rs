//! Which kind of device the player is using, judged by deliberate inputs only.

use crate::input::{DeviceKind, Time};

/// How far a stick or trigger has to go to count as meant; drift and a bumped pad stay below.
const MEANT: f32 = 0.5;
/// How far the mouse has to move within [`MOVE_TIME`] seconds to count as meant, in counts.
const MOVE_FAR: f32 = 30.0;
const MOVE_TIME: f32 = 0.4;

#[derive(Clone, Debug)]
pub(super) struct KindInUse {
    current: DeviceKind,
    forced: Option<DeviceKind>,
    changed: bool,
    /// Since when the mouse has been moving, and how far it got.
    moving: (Time, f32),
}

impl Default for KindInUse {
    fn default() -> Self {
        KindInUse {
            current: DeviceKind::Keyboard,
            forced: None,
            changed: false,
            moving: (Time::ZERO, 0.0),
        }
    }
}

impl KindInUse {
    pub(super) fn current(&self) -> DeviceKind {
        self.forced.unwrap_or(self.current)
    }

    pub(super) fn force(&mut self, kind: Option<DeviceKind>) {
        let before = self.current();
        self.forced = kind;
        self.changed |= self.current() != before;
    }

    pub(super) fn take_changed(&mut self) -> bool {
        std::mem::take(&mut self.changed)
    }

    #[inline]
    fn meant(&mut self, kind: DeviceKind) {
        if self.current != kind {
            self.current = kind;
            self.changed |= self.forced.is_none();
        }
    }

    #[inline]
    pub(super) fn key(&mut self, down: bool) {
        // What is mostly so is asked first.
        if self.current != DeviceKind::Keyboard && down {
            self.meant(DeviceKind::Keyboard);
        }
    }

    pub(super) fn mouse_button(&mut self, down: bool) {
        if self.current != DeviceKind::Mouse && down {
            self.meant(DeviceKind::Mouse);
        }
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
        if self.moving.1 > MOVE_FAR && self.current != DeviceKind::Keyboard {
            self.meant(DeviceKind::Mouse);
        }
    }

    pub(super) fn pad(&mut self, value: f32) {
        if value >= MEANT {
            self.meant(DeviceKind::Gamepad);
        }
    }

    pub(super) fn other(&mut self, down: bool, value: f32) {
        if down && value.abs() >= MEANT {
            self.meant(DeviceKind::Other);
        }
    }

    pub(super) fn touch(&mut self) {
        self.meant(DeviceKind::Touch);
    }
}
