//! Devices that are not there, for tests: a game can test its controls without hardware.

use super::{
    DeviceId, Direction, Event, EventKind, MouseButton, PadButton, Place, Stick, Time, TouchName,
};

/// A device that a test works: it makes the events that a real one would, one after the other.
///
/// Every call answers the event to feed; time goes on by [`Simulated::wait`]. To play what a real
/// device did, record a [`Trace`](crate::Trace) and replay it.
///
/// # Example: a second keyboard and a pad without hardware
/// ```
/// use std::time::Duration;
/// use swap_knot::input::Simulated;
/// use swap_knot::{DeviceId, Layout, PadButton, Place, Profile, Rig, Seat, Sheet, Stick};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.horn]
///     bind = ["KeyH", "pad:north"]
///     [actions.walk]
///     shape = "plane"
///     bind = "pad:stick-left"
///     up = { bind = "KeyW" }
/// "#)?;
/// let (horn, walk) = (sheet.find("horn").unwrap(), sheet.find("walk").unwrap());
/// let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
///
/// let mut pad = Simulated::new(DeviceId(1));
/// seat.feed(&pad.press(PadButton::North));
/// seat.feed(&pad.tilt(Stick::LEFT, [0.0, 1.0]));
/// pad.wait(Duration::from_millis(16));
/// seat.tick(pad.now());
/// assert!(seat.went_down(horn));
/// assert_eq!(seat.plane(walk), [0.0, 1.0]);
///
/// let mut second_keyboard = Simulated::new(DeviceId(2));
/// seat.feed(&second_keyboard.key(Place::KeyH));
/// seat.feed(&pad.release(PadButton::North));
/// assert!(seat.is_down(horn), "the other device still holds it");
/// seat.feed(&pad.unplug());
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Clone, Debug)]
pub struct Simulated {
    device: DeviceId,
    now: Time,
}

impl Simulated {
    /// A device with nothing pressed, at time zero.
    pub const fn new(device: DeviceId) -> Simulated {
        Simulated {
            device,
            now: Time::ZERO,
        }
    }

    /// The time of its next event, for a tick.
    pub const fn now(&self) -> Time {
        self.now
    }

    /// Lets time go by.
    pub fn wait(&mut self, time: std::time::Duration) {
        self.now = self.now.plus(time);
    }

    /// Any event, at its time and of its device.
    pub const fn event(&self, what: EventKind) -> Event {
        Event {
            at: self.now,
            device: self.device,
            what,
        }
    }

    /// A key goes down.
    pub const fn key(&self, place: Place) -> Event {
        self.event(EventKind::Key {
            place,
            down: true,
            text: None,
        })
    }

    /// A key goes down and types a character.
    pub const fn key_typing(&self, place: Place, character: char) -> Event {
        self.event(EventKind::Key {
            place,
            down: true,
            text: Some(character),
        })
    }

    /// A key comes up.
    pub const fn key_up(&self, place: Place) -> Event {
        self.event(EventKind::Key {
            place,
            down: false,
            text: None,
        })
    }

    /// A mouse button goes down, or comes up.
    pub const fn mouse(&self, button: MouseButton, down: bool) -> Event {
        self.event(EventKind::MouseButton { button, down })
    }

    /// The wheel turns by one notch.
    pub const fn wheel(&self, direction: Direction) -> Event {
        self.event(EventKind::Wheel { direction })
    }

    /// A pad button goes down, or a trigger all the way in.
    pub const fn press(&self, button: PadButton) -> Event {
        self.pull(button, 1.0)
    }

    /// A pad button or trigger is let go.
    pub const fn release(&self, button: PadButton) -> Event {
        self.pull(button, 0.0)
    }

    /// A trigger is pulled so far, 0 to 1.
    pub const fn pull(&self, button: PadButton, value: f32) -> Event {
        self.event(EventKind::PadButton { button, value })
    }

    /// A stick is tilted, right and up positive, −1 to 1.
    pub const fn tilt(&self, stick: Stick, [x, y]: [f32; 2]) -> Event {
        self.event(EventKind::PadStick { stick, x, y })
    }

    /// The pad is turned in the hands by so many degrees: to the right, up, and over to the right.
    pub const fn turn(&self, [yaw, pitch, roll]: [f32; 3]) -> Event {
        self.event(EventKind::PadGyro { yaw, pitch, roll })
    }

    /// A touch zone is touched, or let go.
    pub const fn touch(&self, name: TouchName, down: bool) -> Event {
        self.event(EventKind::Touch { name, down })
    }

    /// An on-screen stick is moved, right and up positive, −1 to 1.
    pub const fn slide(&self, name: TouchName, [x, y]: [f32; 2]) -> Event {
        self.event(EventKind::TouchStick { name, x, y })
    }

    /// A movement of the mouse, in its counts, right and up positive.
    pub const fn move_by(&self, x: f32, y: f32) -> Event {
        self.event(EventKind::MouseMove { x, y })
    }

    /// The game does not hear the device any more.
    pub const fn lose_focus(&self) -> Event {
        self.event(EventKind::FocusLost)
    }

    /// The device is unplugged.
    pub const fn unplug(&self) -> Event {
        self.event(EventKind::Unplugged)
    }
}
