//! Events of [gilrs] gamepads, translated for Swap Knot: a translation and nothing more.
//!
//! On Linux gilrs finds pads through libudev; its development files have to be there to build
//! (`libudev-dev` on Debian). Pads that come and go keep their numbers.
//!
//! ```no_run
//! use gilrs::Gilrs;
//! use swap_knot::{Seat, Time};
//! use swap_knot_gilrs::Adapter;
//!
//! # fn frame(gilrs: &mut Gilrs, adapter: &mut Adapter, seat: &mut Seat, now: Time) {
//! while let Some(event) = gilrs.next_event() {
//!     let usb = swap_knot_gilrs::usb(gilrs, event.id);
//!     adapter.event(&event, usb, now, |e| seat.feed(&e));
//! }
//! # }
//! ```

use gilrs::ev::{Code, EventType};
use gilrs::{Axis, Button, GamepadId, Gilrs};
use swap_knot::input::{HidAxis, HidButton, UsbId};
use swap_knot::{DeviceId, Event, EventKind, PadButton, Stick, Time};

/// The number of the first pad, above those of a window's keyboards and mice.
const FIRST: u16 = 64;

/// Translates gilrs's events; keeps where the sticks are, since it tells of one axis at a time.
#[derive(Clone, Debug, Default)]
pub struct Adapter {
    pads: Vec<(GamepadId, [[f32; 2]; 2])>,
}

impl Adapter {
    /// An adapter that has seen no pad yet.
    pub fn new() -> Adapter {
        Adapter::default()
    }

    /// Translates an event and hands what it means to `feed`.
    ///
    /// - Buttons and triggers come with how far they are in, sticks with both axes.
    /// - A pad that is plugged in says by which numbers, those of [`usb`].
    /// - A pad that is unplugged lets go of everything it held; one that comes back rests.
    /// - Buttons and axes without a place in the W3C standard mapping are `hid:` inputs: `C`, `Z`,
    ///   `LeftZ` and `RightZ`, and `Unknown` ones by the number that the system gives them.
    /// - Left out: the axes `DPadX` and `DPadY`, since gilrs makes buttons of the cross by itself;
    ///   events that a filter dropped; auto-repeat; and what is about rumbling.
    pub fn event(
        &mut self,
        event: &gilrs::Event,
        usb: Option<UsbId>,
        at: Time,
        mut feed: impl FnMut(Event),
    ) {
        let device = self.device(event.id);
        if let Some(what) = self.translate(event, usb) {
            feed(Event { at, device, what });
        }
    }

    fn translate(&mut self, event: &gilrs::Event, usb: Option<UsbId>) -> Option<EventKind> {
        match event.event {
            EventType::ButtonPressed(button, code) => pressed(button, code, true),
            EventType::ButtonReleased(button, code) => pressed(button, code, false),
            EventType::ButtonChanged(button, value, _) => {
                let button = pad_button(button).filter(|b| b.is_trigger())?;
                Some(EventKind::PadButton { button, value })
            }
            EventType::AxisChanged(axis, value, code) => {
                let Some((stick, number)) = stick_axis(axis) else {
                    let axis = hid_axis(axis, code.into_u32())?;
                    return Some(EventKind::HidAxis { axis, value });
                };
                let at = self.position(event.id);
                let both = &mut self.pads[at].1[usize::from(stick == Stick::RIGHT)];
                both[number] = value;
                let [x, y] = *both;
                Some(EventKind::PadStick { stick, x, y })
            }
            EventType::Connected | EventType::Disconnected => {
                // Whatever its sticks did before, it begins at rest.
                let at = self.position(event.id);
                self.pads[at].1 = [[0.0; 2]; 2];
                Some(match event.event {
                    EventType::Connected => EventKind::Plugged { usb },
                    _ => EventKind::Unplugged,
                })
            }
            // A filter took the event out: nothing happened.
            EventType::Dropped => None,
            _ => None,
        }
    }

    /// The number of a pad; given out in the order in which pads are first heard of.
    pub fn device(&mut self, id: GamepadId) -> DeviceId {
        let at = u16::try_from(self.position(id)).unwrap_or(u16::MAX);
        DeviceId(FIRST.saturating_add(at))
    }

    fn position(&mut self, id: GamepadId) -> usize {
        let found = self.pads.iter().position(|(known, _)| *known == id);
        found.unwrap_or_else(|| {
            self.pads.push((id, [[0.0; 2]; 2]));
            self.pads.len() - 1
        })
    }
}

/// The USB numbers of a pad, by which the game's marks know its family.
pub fn usb(gilrs: &Gilrs, id: GamepadId) -> Option<UsbId> {
    let pad = gilrs.connected_gamepad(id)?;
    UsbId::known(pad.vendor_id()?, pad.product_id()?)
}

/// Triggers are told by how far they are in, everything else by down and up.
fn pressed(button: Button, code: Code, down: bool) -> Option<EventKind> {
    match pad_button(button) {
        Some(button) if button.is_trigger() => None,
        Some(button) => {
            let value = if down { 1.0 } else { 0.0 };
            Some(EventKind::PadButton { button, value })
        }
        None => {
            let button = HidButton::of_code(code.into_u32());
            Some(EventKind::HidButton { button, down })
        }
    }
}

/// The HID axis of an axis that is of no stick, out of its name or the system's code for it.
fn hid_axis(axis: Axis, code: u32) -> Option<HidAxis> {
    match axis {
        Axis::LeftZ => Some(HidAxis::Z),
        Axis::RightZ => Some(HidAxis::Rz),
        Axis::Unknown => HidAxis::of_code(code),
        _ => None,
    }
}

/// The button of a pad by place.
pub fn pad_button(button: Button) -> Option<PadButton> {
    Some(match button {
        Button::South => PadButton::South,
        Button::East => PadButton::East,
        Button::North => PadButton::North,
        Button::West => PadButton::West,
        Button::LeftTrigger => PadButton::ShoulderLeft,
        Button::LeftTrigger2 => PadButton::TriggerLeft,
        Button::RightTrigger => PadButton::ShoulderRight,
        Button::RightTrigger2 => PadButton::TriggerRight,
        Button::Select => PadButton::CenterLeft,
        Button::Start => PadButton::CenterRight,
        Button::Mode => PadButton::Center,
        Button::LeftThumb => PadButton::StickLeftClick,
        Button::RightThumb => PadButton::StickRightClick,
        Button::DPadUp => PadButton::Up,
        Button::DPadDown => PadButton::Down,
        Button::DPadLeft => PadButton::Left,
        Button::DPadRight => PadButton::Right,
        Button::C | Button::Z | Button::Unknown => return None,
    })
}

fn stick_axis(axis: Axis) -> Option<(Stick, usize)> {
    Some(match axis {
        Axis::LeftStickX => (Stick::LEFT, 0),
        Axis::LeftStickY => (Stick::LEFT, 1),
        Axis::RightStickX => (Stick::RIGHT, 0),
        Axis::RightStickY => (Stick::RIGHT, 1),
        _ => return None,
    })
}
