//! Bevy's messages, translated; a translation and nothing more.

use bevy_ecs::prelude::Entity;
use bevy_input::ButtonState;
use bevy_input::gamepad::{GamepadAxis, GamepadButton, GamepadConnection, RawGamepadEvent};
use bevy_input::keyboard::{Key, KeyboardInput};
use bevy_input::mouse::{MouseButtonInput, MouseMotion, MouseScrollUnit, MouseWheel};
use bevy_input::touch::{TouchInput, TouchPhase};
use swap_knot::input::{ButtonCounting, HidAxis, HidButton, UsbId};
use swap_knot::{Event, EventKind, MouseButton, PadButton, Stick, Time};

use crate::devices::{KEYBOARD, MOUSE, SwapKnotDevices, TOUCH};
use crate::keys::place;

/// How many pixels of smooth scrolling make one notch of the wheel.
const PIXELS_A_NOTCH: f32 = 40.0;

/// The numbers of a pad, where Bevy knows them.
pub(crate) fn usb_id(vendor: Option<u16>, product: Option<u16>) -> Option<UsbId> {
    UsbId::known(vendor?, product?)
}

/// Translates messages at a time.
pub(crate) struct Translator<'a> {
    pub(crate) devices: &'a mut SwapKnotDevices,
    pub(crate) at: Time,
    pub(crate) out: Vec<Event>,
}

impl Translator<'_> {
    fn add(&mut self, device: swap_knot::DeviceId, what: EventKind) {
        let at = self.at;
        self.devices.down.note(device, what);
        self.out.push(Event { at, device, what });
    }

    /// The windows lost the focus, or nobody listened for a while: what is down may come up without
    /// anybody telling. Pads are read without the focus, too.
    pub(crate) fn focus_lost(&mut self) {
        for device in [KEYBOARD, MOUSE, TOUCH] {
            self.add(device, EventKind::FocusLost);
        }
        for (device, what) in self.devices.down.take() {
            self.add(device, what);
        }
        for what in self.devices.zones.lift() {
            self.add(TOUCH, what);
        }
    }

    /// Nobody listened for a while. What pads did meanwhile is not known: they begin at rest.
    pub(crate) fn gap(&mut self) {
        self.focus_lost();
        for (pad, is_there, usb) in self.devices.pads() {
            self.add(pad, EventKind::Unplugged);
            if is_there {
                self.add(pad, EventKind::Plugged { usb });
            }
        }
    }

    /// A pad is plugged in, and says by which numbers. Bevy tells so more than once.
    pub(crate) fn came(&mut self, pad: Entity, usb: Option<UsbId>) {
        if self.devices.came(pad, usb) {
            let device = self.devices.pad(pad);
            self.add(device, EventKind::Plugged { usb });
        }
    }

    pub(crate) fn key(&mut self, key: &KeyboardInput) {
        let down = key.state == ButtonState::Pressed;
        if let Some(place) = place(key.key_code).filter(|_| !key.repeat) {
            let text = typed(&key.logical_key).filter(|_| down);
            self.add(KEYBOARD, EventKind::Key { place, down, text });
        }
    }

    pub(crate) fn mouse_button(&mut self, input: &MouseButtonInput) {
        let down = input.state == ButtonState::Pressed;
        if let Some(button) = mouse_button(input.button) {
            let devices = &mut *self.devices;
            let lies_here = devices.lies_on(input.window);
            let press = || devices.mouse_finger.press(button, down, &mut devices.zones);
            if let Some(touched) = lies_here.then(press).flatten() {
                touched.for_each(|what| self.add(TOUCH, what));
                return;
            }
            self.add(MOUSE, EventKind::MouseButton { button, down });
        }
    }

    /// The pointer is somewhere on a window.
    pub(crate) fn pointed(&mut self, window: Entity, at: [f32; 2]) {
        if self.devices.lies_on(window) {
            let devices = &mut *self.devices;
            let moved = devices.mouse_finger.point(at, &mut devices.zones);
            moved.into_iter().for_each(|what| self.add(TOUCH, what));
        }
    }

    /// A window has another size.
    pub(crate) fn resized(&mut self, window: Entity, size: [f32; 2]) {
        if self.devices.lies_on(window) {
            self.devices.zones.set_screen(size);
        }
    }

    pub(crate) fn mouse_motion(&mut self, motion: &MouseMotion) {
        if self.devices.mouse_finger.is_on() {
            return;
        }
        // Screens count downwards, Swap Knot upwards.
        let (x, y) = (motion.delta.x, -motion.delta.y);
        self.add(MOUSE, EventKind::MouseMove { x, y });
    }

    pub(crate) fn wheel(&mut self, wheel: &MouseWheel) {
        let scale = match wheel.unit {
            MouseScrollUnit::Line => 1.0,
            MouseScrollUnit::Pixel => 1.0 / PIXELS_A_NOTCH,
        };
        let (x, y) = (wheel.x * scale, wheel.y * scale);
        self.add(MOUSE, EventKind::Scroll { x, y });
    }

    pub(crate) fn touch(&mut self, touch: &TouchInput) {
        if !self.devices.lies_on(touch.window) {
            return;
        }
        let at = [touch.position.x, touch.position.y];
        let zones = &mut self.devices.zones;
        let (first, second) = match touch.phase {
            TouchPhase::Started => {
                let mut both = zones.down(touch.id, at);
                (both.next(), both.next())
            }
            TouchPhase::Moved => (zones.moved(touch.id, at), None),
            TouchPhase::Ended | TouchPhase::Canceled => (zones.up(touch.id), None),
        };
        for what in [first, second].into_iter().flatten() {
            self.add(TOUCH, what);
        }
    }

    pub(crate) fn pad(&mut self, event: &RawGamepadEvent) {
        match event {
            RawGamepadEvent::Connection(connection) => match &connection.connection {
                GamepadConnection::Connected {
                    vendor_id,
                    product_id,
                    ..
                } => {
                    self.devices.rests(connection.gamepad);
                    self.came(connection.gamepad, usb_id(*vendor_id, *product_id));
                }
                GamepadConnection::Disconnected => {
                    self.devices.rests(connection.gamepad);
                    self.devices.went(connection.gamepad);
                    let device = self.devices.pad(connection.gamepad);
                    self.add(device, EventKind::Unplugged);
                }
            },
            RawGamepadEvent::Button(button) => {
                let device = self.devices.pad(button.gamepad);
                let value = button.value;
                let what = match (pad_button(button.button), hid_button(button.button)) {
                    (Some(button), _) => EventKind::PadButton { button, value },
                    (None, Some(button)) => {
                        let down = value >= 0.5;
                        EventKind::HidButton { button, down }
                    }
                    (None, None) => return,
                };
                self.add(device, what);
            }
            RawGamepadEvent::Axis(axis) => {
                let device = self.devices.pad(axis.gamepad);
                let Some((stick, number)) = stick_axis(axis.axis) else {
                    if let Some(hid) = hid_axis(axis.axis) {
                        let (axis, value) = (hid, axis.value);
                        self.add(device, EventKind::HidAxis { axis, value });
                    }
                    return;
                };
                let side = usize::from(stick == Stick::RIGHT);
                let [x, y] = self.devices.tilt(axis.gamepad, side, number, axis.value);
                self.add(device, EventKind::PadStick { stick, x, y });
            }
        }
    }
}

/// The one character that a key types.
fn typed(key: &Key) -> Option<char> {
    let Key::Character(text) = key else {
        return None;
    };
    let mut chars = text.chars();
    let first = chars.next().filter(|c| !c.is_control())?;
    chars.next().is_none().then_some(first)
}

/// The button of a mouse; numbers that Bevy passes on are those of the system, see
/// [`ButtonCounting`].
pub fn mouse_button(button: bevy_input::mouse::MouseButton) -> Option<MouseButton> {
    use bevy_input::mouse::MouseButton as Theirs;
    Some(match button {
        Theirs::Left => MouseButton::Left,
        Theirs::Right => MouseButton::Right,
        Theirs::Middle => MouseButton::Middle,
        Theirs::Back => MouseButton::Back,
        Theirs::Forward => MouseButton::Forward,
        Theirs::Other(number) => MouseButton::counted(ButtonCounting::here(number), number)?,
    })
}

/// The button of a pad by place.
///
/// None for what has no place in the W3C standard mapping, `C`, `Z` and `Other`, which come as `hid:`
/// inputs.
pub fn pad_button(button: GamepadButton) -> Option<PadButton> {
    Some(match button {
        GamepadButton::South => PadButton::South,
        GamepadButton::East => PadButton::East,
        GamepadButton::North => PadButton::North,
        GamepadButton::West => PadButton::West,
        GamepadButton::LeftTrigger => PadButton::ShoulderLeft,
        GamepadButton::LeftTrigger2 => PadButton::TriggerLeft,
        GamepadButton::RightTrigger => PadButton::ShoulderRight,
        GamepadButton::RightTrigger2 => PadButton::TriggerRight,
        GamepadButton::Select => PadButton::CenterLeft,
        GamepadButton::Start => PadButton::CenterRight,
        GamepadButton::Mode => PadButton::Center,
        GamepadButton::LeftThumb => PadButton::StickLeftClick,
        GamepadButton::RightThumb => PadButton::StickRightClick,
        GamepadButton::DPadUp => PadButton::Up,
        GamepadButton::DPadDown => PadButton::Down,
        GamepadButton::DPadLeft => PadButton::Left,
        GamepadButton::DPadRight => PadButton::Right,
        GamepadButton::C | GamepadButton::Z | GamepadButton::Other(_) => return None,
    })
}

/// The button on the HID button page that has no place in the W3C standard mapping: `C` and `Z`
/// count as the third and sixth, as in the Linux kernel's list, others by the system's code.
fn hid_button(button: GamepadButton) -> Option<HidButton> {
    match button {
        GamepadButton::C => HidButton::new(3),
        GamepadButton::Z => HidButton::new(6),
        GamepadButton::Other(code) => Some(HidButton::of_code(code)),
        _ => None,
    }
}

/// The HID axis of an axis that is of no stick.
fn hid_axis(axis: GamepadAxis) -> Option<HidAxis> {
    match axis {
        GamepadAxis::LeftZ => Some(HidAxis::Z),
        GamepadAxis::RightZ => Some(HidAxis::Rz),
        GamepadAxis::Other(code) => HidAxis::of_code(code),
        _ => None,
    }
}

/// The stick and axis; `LeftZ`, `RightZ` and `Other` are of no stick.
fn stick_axis(axis: GamepadAxis) -> Option<(Stick, usize)> {
    Some(match axis {
        GamepadAxis::LeftStickX => (Stick::LEFT, 0),
        GamepadAxis::LeftStickY => (Stick::LEFT, 1),
        GamepadAxis::RightStickX => (Stick::RIGHT, 0),
        GamepadAxis::RightStickY => (Stick::RIGHT, 1),
        GamepadAxis::LeftZ | GamepadAxis::RightZ | GamepadAxis::Other(_) => return None,
    })
}
