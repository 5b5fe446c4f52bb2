//! What an adapter has to let up itself, since nobody else tells of it.

use super::{DeviceId, EventKind};

/// Keys and mouse buttons that are down, for an adapter whose windows tell of no release while they
/// are out of the focus.
///
/// # Example: the focus is lost with a key down
/// ```
/// use swap_knot::input::StillDown;
/// use swap_knot::{DeviceId, EventKind, Place};
///
/// let (keyboard, mut down) = (DeviceId(0), StillDown::new());
/// let key = |down| EventKind::Key { place: Place::KeyW, down, text: None };
/// down.note(keyboard, key(true));
/// assert_eq!(down.take(), [(keyboard, key(false))]);
/// assert!(down.take().is_empty());
/// ```
#[derive(Clone, Debug, Default)]
pub struct StillDown {
    /// As they come up.
    ups: Vec<(DeviceId, EventKind)>,
}

impl StillDown {
    /// Nothing is down yet.
    pub const fn new() -> StillDown {
        StillDown { ups: Vec::new() }
    }

    /// Keeps whether a key or mouse button is down; other events say nothing here.
    pub fn note(&mut self, device: DeviceId, what: EventKind) {
        let (up, is_down) = match what {
            EventKind::Key { place, down, .. } => {
                let (up, text) = (false, None);
                let up = EventKind::Key {
                    place,
                    down: up,
                    text,
                };
                (up, down)
            }
            EventKind::MouseButton { button, down } => {
                let up = false;
                (EventKind::MouseButton { button, down: up }, down)
            }
            _ => return,
        };
        self.ups.retain(|known| *known != (device, up));
        if is_down {
            self.ups.push((device, up));
        }
    }

    /// Everything that is down comes up: what to feed, in the order in which it went down.
    #[must_use = "what is down stays down in a seat that is not told"]
    pub fn take(&mut self) -> Vec<(DeviceId, EventKind)> {
        std::mem::take(&mut self.ups)
    }

    /// A device is gone, and what was down on it with it.
    pub fn unplug(&mut self, device: DeviceId) {
        self.ups.retain(|(of, _)| *of != device);
    }
}
