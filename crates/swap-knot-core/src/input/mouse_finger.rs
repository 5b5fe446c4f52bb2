//! The mouse as a finger.

use super::{Event, EventKind, MouseButton, TouchZones};

/// Who a finger is that is the mouse in truth; no system gives that number.
const MOUSE: u64 = u64::MAX;

/// The mouse as a finger, for trying on-screen buttons and sticks at a desk: off until a game switches
/// it on.
///
/// An adapter asks it before it tells of the mouse. What is a finger is no mouse at the same time: while
/// it is on, the left button touches and does nothing else, and the mouse does not move. Its other buttons
/// and its wheel stay.
#[derive(Clone, Copy, Debug, Default)]
pub struct MouseFinger {
    on: bool,
    at: [f32; 2],
    down: bool,
}

impl MouseFinger {
    /// Switches it on or off; a finger that is down comes up.
    #[must_use = "what lay under the finger stays down otherwise"]
    pub fn switch(&mut self, on: bool, zones: &mut TouchZones) -> Option<EventKind> {
        self.on = on;
        self.down = false;
        zones.up(MOUSE)
    }

    /// Whether it is on.
    pub const fn is_on(&self) -> bool {
        self.on
    }

    /// The pointer is at a point now, in the units of the layout; what that means as a finger.
    pub fn point(&mut self, at: [f32; 2], zones: &mut TouchZones) -> Option<EventKind> {
        self.at = at;
        self.down.then(|| zones.moved(MOUSE, at)).flatten()
    }

    /// A button went down or up; what that means as a finger, or none where it is a mouse's.
    pub fn press(
        &mut self,
        button: MouseButton,
        down: bool,
        zones: &mut TouchZones,
    ) -> Option<impl Iterator<Item = EventKind> + use<>> {
        if !self.on || button != MouseButton::Left {
            return None;
        }
        self.down = down;
        let (came, went) = match down {
            true => (Some(zones.down(MOUSE, self.at)), None),
            false => (None, zones.up(MOUSE)),
        };
        Some(came.into_iter().flatten().chain(went))
    }

    /// Whether an event of a mouse is of this finger, and none of a mouse: for a game that hears of its
    /// pointer in one way and of its mouse in another.
    pub const fn takes(&self, event: &Event) -> bool {
        let of_finger = matches!(
            event.what,
            EventKind::MouseMove { .. }
                | EventKind::MouseButton {
                    button: MouseButton::Left,
                    ..
                }
        );
        self.on && of_finger
    }
}
