//! Inputs of other controllers, by usage of the USB HID Usage Tables.

use super::{Direction, InputShape, Sign};

macro_rules! hid_axes {
    ($($(#[$doc:meta])* $name:ident = ($page:literal, $usage:literal, $word:literal)),* $(,)?) => {
        /// An axis by its HID usage.
        #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
        #[non_exhaustive]
        pub enum HidAxis { $($(#[$doc])* $name),* }

        impl HidAxis {
            /// Every axis that has a name here.
            pub const ALL: &'static [HidAxis] = &[$(HidAxis::$name),*];

            /// The word for it in files and options, without the `hid:` in front.
            pub const fn word(self) -> &'static str {
                match self { $(HidAxis::$name => $word),* }
            }

            /// Its usage page and usage, from the [HID Usage Tables][hut].
            ///
            /// [hut]: https://www.usb.org/document-library/hid-usage-tables-15
            pub const fn usage(self) -> (u16, u16) {
                match self { $(HidAxis::$name => ($page, $usage)),* }
            }
        }
    };
}

hid_axes! {
    /// Generic Desktop X.
    X = (0x01, 0x30, "x"),
    /// Generic Desktop Y.
    Y = (0x01, 0x31, "y"),
    /// Generic Desktop Z.
    Z = (0x01, 0x32, "z"),
    /// Generic Desktop rotation about X.
    Rx = (0x01, 0x33, "rx"),
    /// Generic Desktop rotation about Y.
    Ry = (0x01, 0x34, "ry"),
    /// Generic Desktop rotation about Z.
    Rz = (0x01, 0x35, "rz"),
    /// A slider.
    Slider = (0x01, 0x36, "slider"),
    /// A dial.
    Dial = (0x01, 0x37, "dial"),
    /// A rudder.
    Rudder = (0x02, 0xBA, "rudder"),
    /// A throttle.
    Throttle = (0x02, 0xBB, "throttle"),
    /// An accelerator pedal.
    Accelerator = (0x02, 0xC4, "accelerator"),
    /// A brake pedal.
    Brake = (0x02, 0xC5, "brake"),
    /// A clutch pedal.
    Clutch = (0x02, 0xC6, "clutch"),
    /// A steering wheel.
    Steering = (0x02, 0xC8, "steering"),
}

/// One input of a controller described by HID usages.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[non_exhaustive]
pub enum HidInput {
    /// A button by its number on the button page, from 1 (`hid:button-7`).
    Button(HidButton),
    /// A direction of the hat switch (`hid:hat-up`).
    Hat(Direction),
    /// A whole axis, −1 to 1 (`hid:rz`).
    Axis(HidAxis),
    /// One half of an axis, 0 to 1 (`hid:rz+`).
    Half(HidAxis, Sign),
}

impl HidInput {
    /// What it delivers.
    pub const fn shape(self) -> InputShape {
        match self {
            HidInput::Button(_) | HidInput::Hat(_) => InputShape::Button,
            HidInput::Axis(_) => InputShape::Line,
            HidInput::Half(..) => InputShape::Pull,
        }
    }
}

/// A button by its number on the HID button page, from 1 to [`HidButton::LAST`].
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct HidButton(u8);

impl HidButton {
    /// The highest number.
    pub const LAST: u8 = 128;

    /// The button of that number, from 1 to [`HidButton::LAST`].
    pub const fn new(number: u8) -> Option<HidButton> {
        match number {
            1..=HidButton::LAST => Some(HidButton(number)),
            _ => None,
        }
    }

    /// Every button.
    pub fn all() -> impl Iterator<Item = HidButton> {
        (1..=HidButton::LAST).map(HidButton)
    }

    /// Its number.
    pub const fn number(self) -> u8 {
        self.0
    }

    /// The button that a pad library means by the system's own code for it, where it has no name for
    /// it. On Linux that is the kernel's code (`input-event-codes.h`), counted from `BTN_JOYSTICK`,
    /// `BTN_GAMEPAD` and `BTN_TRIGGER_HAPPY`; elsewhere a plain number. Every code gives a button, so
    /// that each can be bound.
    pub const fn of_code(code: u32) -> HidButton {
        let number = match code & 0xffff {
            n @ 0x120..=0x12f => n - 0x120,
            n @ 0x130..=0x13f => n - 0x130,
            n @ 0x2c0..=0x2ff => n - 0x2c0 + 16,
            n => n,
        };
        HidButton((number % HidButton::LAST as u32) as u8 + 1)
    }
}

impl HidAxis {
    /// The axis that a pad library means by the system's own code for it, where it has no name for
    /// it: on Linux the kernel's `ABS_` codes.
    pub const fn of_code(code: u32) -> Option<HidAxis> {
        Some(match code & 0xffff {
            0x00 => HidAxis::X,
            0x01 => HidAxis::Y,
            0x02 => HidAxis::Z,
            0x03 => HidAxis::Rx,
            0x04 => HidAxis::Ry,
            0x05 => HidAxis::Rz,
            0x06 => HidAxis::Throttle,
            0x07 => HidAxis::Rudder,
            0x08 => HidAxis::Steering,
            0x09 => HidAxis::Accelerator,
            0x0a => HidAxis::Brake,
            _ => return None,
        })
    }
}
