//! What comes in from devices.

use std::fmt;
use std::time::Duration;

use super::{Direction, HidAxis, MouseButton, PadButton, Place, Stick, TouchName};

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

    /// The moment some seconds later; negative and unreal numbers count as none.
    pub fn plus_secs(self, seconds: f32) -> Time {
        // `as` saturates and turns NaN into 0.
        Time(self.0.saturating_add((f64::from(seconds) * 1e6) as u64))
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
        /// [`LayoutLearner`]: crate::LayoutLearner
        text: Option<char>,
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
    /// A button of another controller changed.
    HidButton {
        /// Its number on the HID button page, from 1.
        number: u8,
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
    /// The device was unplugged: everything it held is let go.
    Unplugged,
    /// The game lost the focus: everything is let go, whatever the device.
    FocusLost,
}
