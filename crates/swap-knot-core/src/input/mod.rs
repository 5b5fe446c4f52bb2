//! What can be pressed, pulled or moved, and how it is written as text.
//!
//! Every [`Input`] and [`Chord`] has exactly one text (its `Display`), and that text reads back
//! (`FromStr`) as the same value.

mod chord;
mod control;
mod direction;
mod event;
mod habit;
mod hid;
mod letter;
mod modifier;
mod mouse;
mod mouse_finger;
mod pad;
mod pad_shape;
mod place;
mod placement;
mod relation;
mod simulated;
mod still_down;
mod system;
mod text;
mod touch;
mod usb;
mod zones;

pub use chord::{Chord, ChordError, MAX_HELD};
pub(crate) use control::{Control, MODIFIER_PLACES, writes_text};
pub use direction::{Direction, Side, Sign};
pub use event::{DeviceId, Event, EventKind, Time};
pub(crate) use event::{amount, distance};
pub use hid::{HidAxis, HidButton, HidInput};
pub use letter::Letter;
pub use modifier::{Modifier, Platform};
pub use mouse::{ButtonCounting, FurtherButton, MouseButton};
pub use mouse_finger::MouseFinger;
pub use pad::{PadButton, Stick};
pub use pad_shape::PadPart;
pub use place::Place;
pub use placement::Placement;
pub use relation::Relation;
pub(crate) use relation::{ChordInHand, Crossing, InHand, Meeting, clash};
pub use simulated::Simulated;
pub use still_down::StillDown;
pub use system::SystemUse;
pub(crate) use system::system_use;
pub use text::InputError;
pub use touch::{TouchName, TouchNameError};
pub use usb::{UsbFilter, UsbId, UsbIdError};
pub use zones::{TouchZone, TouchZones};

use crate::text::spelled;

// What is held, what systems do with keys, and a controller without a known mapping are a matter of what
// comes in, for whoever reads this chapter.
pub use crate::book::Held;
pub use crate::layout::quirks::KeyQuirks;
pub use crate::mapping::{
    Controller, KindNameError, Lesson, Mapper, Mapping, MappingError, MappingLearner, Mappings,
    MappingsError, PadSource, Taught,
};

/// One thing on a device that can be pressed, pulled or moved.
///
/// Its text form is the one used in sheets, profiles and on the command line:
///
/// ```
/// use swap_knot::{Input, Place};
///
/// let input: Input = "KeyW".parse()?;
/// assert_eq!(input, Input::Key(Place::KeyW));
/// assert_eq!("pad:stick-left.up".parse::<Input>()?.to_string(), "pad:stick-left.up");
/// # Ok::<(), swap_knot::input::InputError>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[non_exhaustive]
pub enum Input {
    /// A modifier key on either side of the board (`Shift`, `Main`).
    Modifier(Modifier),
    /// A key by place, its W3C UI Events `code` value (`KeyW`).
    Key(Place),
    /// A key by letter: the key that types this character, wherever it is (`letter:i`).
    ///
    /// Always in lower case; reading makes it so.
    Letter(Letter),
    /// A mouse button (`mouse:left`).
    MouseButton(MouseButton),
    /// The motion of the mouse, a plane (`mouse:move`).
    MouseMove,
    /// One notch of the wheel in one direction (`wheel:up`).
    Wheel(Direction),
    /// A pad button or trigger, by place (`pad:south`).
    PadButton(PadButton),
    /// A whole stick of a pad, a plane (`pad:stick-left`).
    PadStick(Stick),
    /// One direction of a stick, a pull (`pad:stick-left.up`).
    PadStickHalf(Stick, Direction),
    /// How a pad is turned in the hands, by its gyroscope: three axes (`pad:gyro`).
    PadGyro,
    /// Anything on another controller, by USB HID usage (`hid:button-7`, `hid:rz+`).
    Hid(HidInput),
    /// A touch zone or on-screen stick that the game lays out (`touch:horn`).
    Touch(TouchName),
}

/// What an input delivers when it is worked.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum InputShape {
    /// Down or up: keys and buttons.
    Button,
    /// One pulse a notch: the wheel.
    Pulse,
    /// 0 to 1: triggers and half axes.
    Pull,
    /// −1 to 1: a whole axis.
    Line,
    /// Two axes: sticks and mouse motion.
    Plane,
    /// Three axes: a pad that is turned.
    Space,
    /// A touch input: whatever the game feeds it, a button or a plane.
    Touch,
}

spelled! {
    /// The kind of device that an input belongs to and that a player may be using, in the order of the
    /// menu's columns.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[non_exhaustive]
    pub enum DeviceKind {
        /// A keyboard.
        Keyboard = "keyboard",
        /// A mouse or whatever acts as one.
        Mouse = "mouse",
        /// A gamepad with the W3C standard mapping.
        Gamepad = "gamepad",
        /// A touch screen.
        Touch = "touch",
        /// Any other controller: wheels, throttles, pedals.
        Other = "other",
    }
}

impl Input {
    /// The kind of device it is on.
    pub const fn device_kind(self) -> DeviceKind {
        match self {
            Input::Modifier(_) | Input::Key(_) | Input::Letter(_) => DeviceKind::Keyboard,
            Input::MouseButton(_) | Input::MouseMove | Input::Wheel(_) => DeviceKind::Mouse,
            Input::PadButton(_) | Input::PadStick(_) | Input::PadStickHalf(..) | Input::PadGyro => {
                DeviceKind::Gamepad
            }
            Input::Hid(_) => DeviceKind::Other,
            Input::Touch(_) => DeviceKind::Touch,
        }
    }

    /// The stick or the axis that a direction is of; anything else is whole itself.
    ///
    /// ```
    /// use swap_knot::Input;
    ///
    /// let up: Input = "pad:stick-left.up".parse()?;
    /// assert_eq!(up.whole().to_string(), "pad:stick-left");
    /// # Ok::<(), swap_knot::input::InputError>(())
    /// ```
    #[must_use]
    pub const fn whole(self) -> Input {
        match self {
            Input::PadStickHalf(stick, _) => Input::PadStick(stick),
            Input::Hid(HidInput::Half(axis, _)) => Input::Hid(HidInput::Axis(axis)),
            other => other,
        }
    }

    /// What it delivers.
    pub const fn shape(self) -> InputShape {
        match self {
            Input::Modifier(_) | Input::Key(_) | Input::Letter(_) | Input::MouseButton(_) => {
                InputShape::Button
            }
            Input::PadButton(b) if b.is_trigger() => InputShape::Pull,
            Input::PadButton(_) => InputShape::Button,
            Input::Wheel(_) => InputShape::Pulse,
            Input::PadStickHalf(..) => InputShape::Pull,
            Input::MouseMove | Input::PadStick(_) => InputShape::Plane,
            Input::PadGyro => InputShape::Space,
            Input::Hid(h) => h.shape(),
            Input::Touch(_) => InputShape::Touch,
        }
    }

    /// Every input that has a word of its own: all but letters, touch inputs and numbered buttons.
    pub fn all_named() -> impl Iterator<Item = Input> {
        let sticks = Stick::ALL.into_iter().flat_map(|stick| {
            let halves = Direction::ALL.map(|d| Input::PadStickHalf(stick, d));
            std::iter::once(Input::PadStick(stick)).chain(halves)
        });
        let axes = HidAxis::ALL.iter().flat_map(|&axis| {
            [
                HidInput::Axis(axis),
                HidInput::Half(axis, Sign::Positive),
                HidInput::Half(axis, Sign::Negative),
            ]
        });
        let hats = Direction::ALL.map(HidInput::Hat);
        (Modifier::ALL.into_iter().map(Input::Modifier))
            .chain(Place::ALL.iter().copied().map(Input::Key))
            .chain(MouseButton::NAMED.map(Input::MouseButton))
            .chain([Input::MouseMove])
            .chain(Direction::ALL.map(Input::Wheel))
            .chain(PadButton::ALL.iter().copied().map(Input::PadButton))
            .chain(sticks)
            .chain([Input::PadGyro])
            .chain(hats.into_iter().chain(axes).map(Input::Hid))
    }

    /// What somebody may mean who writes a name from habit: none, one, or a few to choose from.
    ///
    /// It reads no name of ours, but what people write before they know ours; every "did you mean"
    /// asks here. What a maker prints on a pad is met with the pad's inputs by place.
    ///
    /// ```
    /// use swap_knot::Input;
    ///
    /// let names = |word| Input::from_habit(word).iter().map(Input::to_string).collect::<Vec<_>>();
    /// assert_eq!(names("Return"), ["Enter"]);
    /// assert_eq!(names("x"), ["KeyX", "letter:x"]);
    /// ```
    pub fn from_habit(word: &str) -> Vec<Input> {
        let meant = habit::meant(word);
        match meant.is_empty() {
            true => habit::by_place(word),
            false => meant,
        }
    }

    /// Whether it is a modifier key: either side, or one side by place.
    pub const fn is_modifier(self) -> bool {
        match self {
            Input::Modifier(_) => true,
            Input::Key(place) => Modifier::of_place(place).is_some(),
            _ => false,
        }
    }
}

impl From<Place> for Input {
    fn from(place: Place) -> Input {
        Input::Key(place)
    }
}

impl From<MouseButton> for Input {
    fn from(button: MouseButton) -> Input {
        Input::MouseButton(button)
    }
}

impl From<PadButton> for Input {
    fn from(button: PadButton) -> Input {
        Input::PadButton(button)
    }
}
