//! Physical controls as small numbers.

use crate::input::{
    Direction, HidAxis, HidInput, Input, MouseButton, PadButton, Place, Sign, Stick,
};

/// A physical control: a number that indexes the flat tables of rig and seat.
///
/// Keys come first, in the order of `Place`; touch inputs come last, as the sheet names them.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub(crate) struct Control(pub(crate) u16);

const MOUSE: u16 = 256;
const WHEEL: u16 = MOUSE + MouseButton::LAST as u16 + 1;
const MOUSE_MOVE: u16 = WHEEL + 4;
const PAD_BUTTON: u16 = MOUSE_MOVE + 1;
const PAD_BUTTONS: u16 = PadButton::ALL.len() as u16;
const STICK: u16 = PAD_BUTTON + PAD_BUTTONS;
const STICK_HALF: u16 = STICK + 2;
const HID_BUTTON: u16 = STICK_HALF + 8;
const HID_HAT: u16 = HID_BUTTON + HidInput::LAST_BUTTON as u16 + 1;
const HID_AXIS: u16 = HID_HAT + 4;
const HID_AXES: u16 = HidAxis::ALL.len() as u16;
const HID_HALF: u16 = HID_AXIS + HID_AXES;
const TOUCH: u16 = HID_HALF + 2 * HID_AXES;

impl Control {
    /// How many controls there are besides touch inputs.
    pub(crate) const FIXED: usize = TOUCH as usize;

    pub(crate) const fn key(place: Place) -> Control {
        Control(place as u16)
    }

    pub(crate) const fn mouse(button: MouseButton) -> Control {
        Control(MOUSE + button.number() as u16)
    }

    pub(crate) const fn wheel(direction: Direction) -> Control {
        Control(WHEEL + direction as u16)
    }

    pub(crate) const MOUSE_MOVE: Control = Control(MOUSE_MOVE);

    pub(crate) const fn pad(button: PadButton) -> Control {
        Control(PAD_BUTTON + button as u16)
    }

    pub(crate) const fn stick(stick: Stick) -> Control {
        Control(STICK + stick.0 as u16)
    }

    pub(crate) const fn stick_half(stick: Stick, direction: Direction) -> Control {
        Control(STICK_HALF + stick.0 as u16 * 4 + direction as u16)
    }

    pub(crate) const fn hid_button(number: u8) -> Control {
        Control(HID_BUTTON + number as u16)
    }

    pub(crate) const fn hid_hat(direction: Direction) -> Control {
        Control(HID_HAT + direction as u16)
    }

    pub(crate) const fn hid_axis(axis: HidAxis) -> Control {
        Control(HID_AXIS + axis as u16)
    }

    pub(crate) const fn hid_half(axis: HidAxis, sign: Sign) -> Control {
        Control(HID_HALF + axis as u16 * 2 + sign as u16)
    }

    /// The touch input at a position of the wiring's list of names.
    pub(crate) const fn touch(position: usize) -> Control {
        Control(TOUCH + position as u16)
    }

    pub(crate) const fn index(self) -> usize {
        self.0 as usize
    }

    /// Whether it is a key that writes a character, and so belongs to a text field while typing.
    pub(crate) fn writes(self) -> bool {
        use crate::input::WRITING_PLACES;
        WRITING_PLACES.iter().any(|&p| Control::key(p) == self)
            || self == Control::key(Place::Backspace)
            || self == Control::key(Place::Delete)
    }

    /// The control of an input that has exactly one, whatever the layout and the sheet.
    pub(crate) fn of_fixed(input: Input) -> Option<Control> {
        Some(match input {
            Input::Key(place) => Control::key(place),
            Input::MouseButton(button) => Control::mouse(button),
            Input::MouseMove => Control::MOUSE_MOVE,
            Input::Wheel(direction) => Control::wheel(direction),
            Input::PadButton(button) => Control::pad(button),
            Input::PadStick(stick) => Control::stick(stick),
            Input::PadStickHalf(stick, direction) => Control::stick_half(stick, direction),
            Input::Hid(HidInput::Button(number)) => Control::hid_button(number),
            Input::Hid(HidInput::Hat(direction)) => Control::hid_hat(direction),
            Input::Hid(HidInput::Axis(axis)) => Control::hid_axis(axis),
            Input::Hid(HidInput::Half(axis, sign)) => Control::hid_half(axis, sign),
            Input::Modifier(_) | Input::Letter(_) | Input::Touch(_) => return None,
        })
    }
}
