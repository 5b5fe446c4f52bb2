//! What can be worked on a device, as small numbers.

use super::{
    DeviceKind, Direction, HidAxis, HidButton, HidInput, Input, MouseButton, PadButton, Place,
    Sign, Stick,
};

/// One thing in hand: a number that indexes the flat tables of rig and seat.
///
/// Keys come first, in the order of `Place`; touch inputs come last, as a rig names them. A whole
/// stick or axis has a number of its own beside those of its halves.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub(crate) struct Control(pub(crate) u16);

const MOUSE: u16 = 256;
const WHEEL: u16 = MOUSE + MouseButton::LAST as u16 + 1;
const MOUSE_MOVE: u16 = WHEEL + 4;
const PAD_GYRO: u16 = MOUSE_MOVE + 1;
const PAD_BUTTON: u16 = PAD_GYRO + 1;
const PAD_BUTTONS: u16 = PadButton::ALL.len() as u16;
const STICK: u16 = PAD_BUTTON + PAD_BUTTONS;
const STICK_HALF: u16 = STICK + 2;
const HID_BUTTON: u16 = STICK_HALF + 8;
const HID_HAT: u16 = HID_BUTTON + HidButton::LAST as u16 + 1;
const HID_AXIS: u16 = HID_HAT + 4;
const HID_AXES: u16 = HidAxis::ALL.len() as u16;
const HID_HALF: u16 = HID_AXIS + HID_AXES;
const TOUCH: u16 = HID_HALF + 2 * HID_AXES;

/// The eight modifier keys.
pub(crate) const MODIFIER_PLACES: [Place; 8] = [
    Place::ControlLeft,
    Place::ControlRight,
    Place::ShiftLeft,
    Place::ShiftRight,
    Place::AltLeft,
    Place::AltRight,
    Place::MetaLeft,
    Place::MetaRight,
];

impl Control {
    /// No control: what is worked by the game itself.
    pub(crate) const NONE: Control = Control(u16::MAX);

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
    pub(crate) const PAD_GYRO: Control = Control(PAD_GYRO);

    /// Whether it says how far something moves, which is no place where it is.
    pub(crate) const fn is_motion(self) -> bool {
        matches!(self.0, MOUSE_MOVE | PAD_GYRO)
    }

    pub(crate) const fn pad(button: PadButton) -> Control {
        Control(PAD_BUTTON + button as u16)
    }

    pub(crate) const fn stick(stick: Stick) -> Control {
        Control(STICK + stick.0 as u16)
    }

    pub(crate) const fn stick_half(stick: Stick, direction: Direction) -> Control {
        Control(STICK_HALF + stick.0 as u16 * 4 + direction as u16)
    }

    pub(crate) const fn hid_button(button: HidButton) -> Control {
        Control(HID_BUTTON + button.number() as u16)
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

    /// The touch input at a position of a list of names.
    pub(crate) const fn touch(position: usize) -> Control {
        Control(TOUCH + position as u16)
    }

    /// The position in a list of names, for a touch input.
    pub(crate) const fn touch_position(self) -> Option<usize> {
        if self.0 < TOUCH || self.0 == Self::NONE.0 {
            return None;
        }
        Some((self.0 - TOUCH) as usize)
    }

    pub(crate) const fn index(self) -> usize {
        self.0 as usize
    }

    /// The whole that it is a half of, or the first of the halves of a whole, and how many they
    /// are: what is worked by one movement of the same stick or axis.
    pub(crate) const fn relatives(self) -> (Control, u16) {
        let n = self.0;
        if n >= STICK && n < STICK_HALF {
            return (Control(STICK_HALF + (n - STICK) * 4), 4);
        }
        if n >= STICK_HALF && n < HID_BUTTON {
            return (Control(STICK + (n - STICK_HALF) / 4), 1);
        }
        if n >= HID_AXIS && n < HID_HALF {
            return (Control(HID_HALF + (n - HID_AXIS) * 2), 2);
        }
        if n >= HID_HALF && n < TOUCH {
            return (Control(HID_AXIS + (n - HID_HALF) / 2), 1);
        }
        (self, 0)
    }

    /// Whether it is a trigger or a half of a stick or axis, which has a way to go.
    pub(crate) fn is_pull(self) -> bool {
        let n = self.0;
        (STICK_HALF..HID_BUTTON).contains(&n)
            || (HID_HALF..TOUCH).contains(&n)
            || [PadButton::TriggerLeft, PadButton::TriggerRight]
                .map(Control::pad)
                .contains(&self)
    }

    /// The kind of device it is on.
    pub(crate) const fn device_kind(self) -> DeviceKind {
        match self.0 {
            0..MOUSE => DeviceKind::Keyboard,
            MOUSE..PAD_GYRO => DeviceKind::Mouse,
            PAD_GYRO..HID_BUTTON => DeviceKind::Gamepad,
            HID_BUTTON..TOUCH => DeviceKind::Other,
            TOUCH.. => DeviceKind::Touch,
        }
    }

    /// The control of an input that has exactly one, whatever the layout and the sheet.
    pub(crate) fn of_fixed(input: Input) -> Option<Control> {
        Some(match input {
            Input::Key(place) => Control::key(place),
            Input::MouseButton(button) => Control::mouse(button),
            Input::MouseMove => Control::MOUSE_MOVE,
            Input::PadGyro => Control::PAD_GYRO,
            Input::Wheel(direction) => Control::wheel(direction),
            Input::PadButton(button) => Control::pad(button),
            Input::PadStick(stick) => Control::stick(stick),
            Input::PadStickHalf(stick, direction) => Control::stick_half(stick, direction),
            Input::Hid(HidInput::Button(button)) => Control::hid_button(button),
            Input::Hid(HidInput::Hat(direction)) => Control::hid_hat(direction),
            Input::Hid(HidInput::Axis(axis)) => Control::hid_axis(axis),
            Input::Hid(HidInput::Half(axis, sign)) => Control::hid_half(axis, sign),
            Input::Modifier(_) | Input::Letter(_) | Input::Touch(_) => return None,
        })
    }

    /// The input that it is; none for a touch input, whose name a rig knows.
    pub(crate) fn input(self) -> Option<Input> {
        Control::all_fixed()
            .find(|(c, _)| *c == self)
            .map(|(_, input)| input)
    }

    /// The input of each control besides touch inputs.
    pub(crate) fn all_fixed() -> impl Iterator<Item = (Control, Input)> {
        let numbered = (6..=MouseButton::LAST)
            .filter_map(MouseButton::from_number)
            .map(Input::MouseButton)
            .chain(HidButton::all().map(|b| Input::Hid(HidInput::Button(b))));
        (Input::all_named().chain(numbered))
            .filter_map(|input| Some((Control::of_fixed(input)?, input)))
    }
}

/// Whether the key at a place puts something into a text field or takes it out, so that it belongs
/// to the field while the player types.
pub(crate) fn writes_text(place: Place) -> bool {
    use Place::{
        Numpad0, Numpad1, Numpad2, Numpad3, Numpad4, Numpad5, Numpad6, Numpad7, Numpad8, Numpad9,
    };
    Place::WRITING.contains(&place)
        || matches!(place, Place::Backspace | Place::Delete)
        || [
            Numpad0, Numpad1, Numpad2, Numpad3, Numpad4, Numpad5, Numpad6, Numpad7, Numpad8,
            Numpad9,
        ]
        .contains(&place)
        || matches!(
            place,
            Place::NumpadAdd
                | Place::NumpadSubtract
                | Place::NumpadMultiply
                | Place::NumpadDivide
                | Place::NumpadDecimal
                | Place::NumpadComma
                | Place::NumpadEqual
        )
}
