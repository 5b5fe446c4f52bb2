//! What comes in from devices.

use std::fmt;
use std::time::Duration;

use super::{
    Control, DeviceKind, Direction, HidAxis, HidButton, MouseButton, PadButton, Place, Stick,
    TouchName, UsbId,
};

/// A moment, in microseconds since whatever the game counts from.
///
/// Time is handed in with every event and tick, never read, so that a trace replays exactly.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Time(u64);

impl Time {
    /// The moment that is counted from.
    pub const ZERO: Time = Time(0);
    pub(crate) const NEVER: Time = Time(u64::MAX);

    /// A moment in microseconds.
    pub const fn from_micros(micros: u64) -> Time {
        Time(micros)
    }

    /// A moment in milliseconds.
    pub const fn from_millis(millis: u64) -> Time {
        Time(millis.saturating_mul(1000))
    }

    /// Microseconds since the start.
    pub const fn as_micros(self) -> u64 {
        self.0
    }

    /// The time since an earlier moment; nothing if that is later.
    pub const fn since(self, earlier: Time) -> Duration {
        Duration::from_micros(self.0.saturating_sub(earlier.0))
    }

    /// The moment some seconds later, to the nearest microsecond; negative and unreal numbers count
    /// as none.
    pub fn plus_secs(self, seconds: f32) -> Time {
        // `as` saturates and turns NaN into 0.
        Time(
            self.0
                .saturating_add((f64::from(seconds) * 1e6).round() as u64),
        )
    }

    /// The moment that much later.
    pub fn plus(self, duration: Duration) -> Time {
        Time(self.0.saturating_add(Time::from(duration).0))
    }

    /// The moment that much earlier, at least the one that is counted from.
    pub(crate) const fn minus(self, micros: u64) -> Time {
        Time(self.0.saturating_sub(micros))
    }
}

impl From<Duration> for Time {
    /// The moment that long after the start.
    fn from(since_start: Duration) -> Time {
        Time(u64::try_from(since_start.as_micros()).unwrap_or(u64::MAX))
    }
}

impl fmt::Display for Time {
    /// Seconds with milliseconds: `12.345`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}.{:03}", self.0 / 1_000_000, self.0 / 1000 % 1000)
    }
}

/// Tells one device from another; the game or its adapter gives the numbers out.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct DeviceId(pub u16);

impl DeviceId {
    /// No device, but all of them: for a lost focus that is about everything that a game reads.
    pub const ALL: DeviceId = DeviceId(u16::MAX);
}

/// Something that happened on a device.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Event {
    /// When.
    pub at: Time,
    /// On which device.
    pub device: DeviceId,
    /// What.
    pub what: EventKind,
}

/// What happened on a device.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub enum EventKind {
    /// A key went down or up; auto-repeat may come as further downs, which change nothing.
    Key {
        /// Where the key is.
        place: Place,
        /// Down or up.
        down: bool,
        /// What it typed, where the system says so. Teaches a [`LayoutLearner`].
        ///
        /// [`LayoutLearner`]: crate::layout::LayoutLearner
        text: Option<char>,
    },
    /// A key is down that was not seen going down, as when the focus comes back: it counts once it
    /// has been up.
    KeyHeld {
        /// Where the key is.
        place: Place,
    },
    /// What a key that was pressed types by itself, without modifiers and without composing, where
    /// the system says so. Nothing is played by it; it teaches a [`LayoutLearner`] best of all.
    ///
    /// [`LayoutLearner`]: crate::layout::LayoutLearner
    KeyTypes {
        /// Where the key is.
        place: Place,
        /// What it types by itself.
        plain: char,
    },
    /// A mouse button went down or up.
    MouseButton {
        /// Which.
        button: MouseButton,
        /// Down or up.
        down: bool,
    },
    /// The mouse moved, in counts or pixels; right and up are positive.
    MouseMove {
        /// To the right.
        x: f32,
        /// Up.
        y: f32,
    },
    /// The wheel turned by one notch.
    Wheel {
        /// Which way.
        direction: Direction,
    },
    /// The wheel turned by some notches or parts of one, as smooth wheels and pads do; right and up
    /// are positive. Whole notches are worked out from here on, for each device by itself.
    Scroll {
        /// To the right.
        x: f32,
        /// Up.
        y: f32,
    },
    /// A pad button or trigger changed.
    PadButton {
        /// Which.
        button: PadButton,
        /// How far it is in: 0 or 1 for buttons, 0 to 1 for triggers.
        value: f32,
    },
    /// A stick moved; right and up are positive, −1 to 1.
    PadStick {
        /// Which.
        stick: Stick,
        /// To the right.
        x: f32,
        /// Up.
        y: f32,
    },
    /// A pad was turned in the hands since its last reading, in degrees. Nobody holds a pad quite
    /// still: it never tells by itself that the pad is in use.
    PadGyro {
        /// To the right.
        yaw: f32,
        /// Up.
        pitch: f32,
        /// Over to the right.
        roll: f32,
    },
    /// A button of another controller changed.
    HidButton {
        /// Which.
        button: HidButton,
        /// Down or up.
        down: bool,
    },
    /// The hat switch of another controller changed in one direction.
    HidHat {
        /// Which direction.
        direction: Direction,
        /// Down or up.
        down: bool,
    },
    /// An axis of another controller moved, −1 to 1.
    HidAxis {
        /// Which.
        axis: HidAxis,
        /// Where it is now.
        value: f32,
    },
    /// A touch zone was touched or let go.
    Touch {
        /// Which.
        name: TouchName,
        /// Down or up.
        down: bool,
    },
    /// An on-screen stick moved; right and up are positive, −1 to 1.
    TouchStick {
        /// Which.
        name: TouchName,
        /// To the right.
        x: f32,
        /// Up.
        y: f32,
    },
    /// The device was plugged in, or was there when the game began to listen. Nothing is played by it;
    /// it tells whose marks are printed on a pad.
    Plugged {
        /// Who made it, where the system says so.
        usb: Option<UsbId>,
    },
    /// The device was unplugged: whatever it held is broken off.
    Unplugged,
    /// The game does not hear the device any more, since another window has it or the player is
    /// away: what is held on it is broken off, and begins nothing until it has been at rest; values
    /// go on with the next event of the device. What the system tells nothing of any more is told as let
    /// go behind it. With [`DeviceId::ALL`] it is about every device.
    FocusLost,
}

impl EventKind {
    /// The same with its numbers in range: what is not a number counts as rest, what is too far as
    /// full.
    #[inline]
    pub fn in_range(self) -> EventKind {
        let real = amount;
        match self {
            EventKind::MouseMove { x, y } => EventKind::MouseMove {
                x: along(x),
                y: along(y),
            },
            EventKind::PadGyro { yaw, pitch, roll } => EventKind::PadGyro {
                yaw: along(yaw),
                pitch: along(pitch),
                roll: along(roll),
            },
            EventKind::Scroll { x, y } => {
                let turn = |v: f32| {
                    let v = if v.is_nan() { 0.0 } else { v };
                    v.clamp(-MAX_NOTCHES, MAX_NOTCHES)
                };
                let (x, y) = (turn(x), turn(y));
                EventKind::Scroll { x, y }
            }
            EventKind::PadButton { button, value } => EventKind::PadButton {
                button,
                value: real(value).max(0.0),
            },
            EventKind::PadStick { stick, x, y } => EventKind::PadStick {
                stick,
                x: real(x),
                y: real(y),
            },
            EventKind::HidAxis { axis, value } => EventKind::HidAxis {
                axis,
                value: real(value),
            },
            EventKind::TouchStick { name, x, y } => EventKind::TouchStick {
                name,
                x: real(x),
                y: real(y),
            },
            other => other,
        }
    }

    /// The kind of device that it came from; none where the event does not tell.
    pub const fn device_kind(self) -> Option<DeviceKind> {
        Some(match self {
            EventKind::Key { .. } | EventKind::KeyHeld { .. } | EventKind::KeyTypes { .. } => {
                DeviceKind::Keyboard
            }
            EventKind::MouseButton { .. }
            | EventKind::MouseMove { .. }
            | EventKind::Wheel { .. }
            | EventKind::Scroll { .. } => DeviceKind::Mouse,
            EventKind::PadButton { .. }
            | EventKind::PadStick { .. }
            | EventKind::PadGyro { .. } => DeviceKind::Gamepad,
            EventKind::HidButton { .. } | EventKind::HidHat { .. } | EventKind::HidAxis { .. } => {
                DeviceKind::Other
            }
            EventKind::Touch { .. } | EventKind::TouchStick { .. } => DeviceKind::Touch,
            EventKind::Plugged { .. } | EventKind::Unplugged | EventKind::FocusLost => return None,
        })
    }

    /// The control that it presses or lets go, if it is about one that is only down or up.
    #[inline]
    pub(crate) fn as_button(self) -> Option<(Control, bool)> {
        Some(match self {
            EventKind::Key { place, down, .. } => (Control::key(place), down),
            EventKind::MouseButton { button, down } => (Control::mouse(button), down),
            EventKind::HidButton { button, down } => (Control::hid_button(button), down),
            EventKind::HidHat { direction, down } => (Control::hid_hat(direction), down),
            _ => return None,
        })
    }
}

/// How far something is in, within full; what is no number is at rest.
#[inline]
pub(crate) fn amount(v: f32) -> f32 {
    if v.is_nan() { 0.0 } else { v.clamp(-1.0, 1.0) }
}

/// How far something moved, as far as it can be, and how far that is along all axes together; what is
/// no number did not.
#[inline]
pub(crate) fn distance<const N: usize>(by: [f32; N]) -> ([f32; N], f32) {
    let far = |by: [f32; N]| by.iter().map(|v| v.abs()).sum::<f32>();
    // Nearly all of them are as they come.
    let all = far(by);
    if all <= MAX_MOTION {
        return (by, all);
    }
    let by = by.map(along);
    (by, far(by))
}

fn along(v: f32) -> f32 {
    match v.is_nan() {
        true => 0.0,
        false => v.clamp(-MAX_MOTION, MAX_MOTION),
    }
}

/// The farthest that a mouse moves at once; more is no mouse, and sums stay numbers.
const MAX_MOTION: f32 = 1e6;
/// The most notches that a wheel turns at once.
const MAX_NOTCHES: f32 = 50.0;
