//! Pads and other controllers: opened when they come, known again when they come back.

use std::time::Duration;

use sdl3::event::Event as Theirs;
use sdl3::gamepad::{Axis, Button, Gamepad};
use sdl3::joystick::{HatState, Joystick};
use sdl3::sensor::SensorType;
use sdl3::sys::joystick::SDL_JoystickID;
use sdl3::{GamepadSubsystem, JoystickSubsystem};
use swap_knot::input::{Direction, HidAxis, HidButton, UsbId};
use swap_knot::{DeviceId, EventKind, PadButton, Stick};

/// The number of the first pad, above those of a window's keyboards and mice.
const FIRST: u16 = 64;
/// Nobody turned a pad for longer than this between two readings, in seconds: it slept.
const LONGEST_READING: f32 = 0.1;

/// Why a pad does not rumble.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum RumbleError {
    /// No pad of that number is plugged in.
    #[error("there is no pad with the number {0}; ask the seat which device is in use")]
    NoPad(u16),
    /// It has no motors, or SDL cannot work them.
    #[error("this pad does not rumble: {0}")]
    Refused(String),
}

/// A pad or other controller that is there and plays nothing, because SDL could not open it.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("a controller{} cannot be opened: {why}; close what else uses it and plug it in again",
    .usb.map(|usb| format!(" ({usb})")).unwrap_or_default())]
#[non_exhaustive]
pub struct CannotOpen {
    /// Who made it, where the system says so.
    pub usb: Option<UsbId>,
    /// What SDL says of it.
    pub why: String,
}

/// Everything but keyboard, mouse and touch.
#[derive(Default)]
pub(crate) struct Pads {
    systems: Option<(GamepadSubsystem, JoystickSubsystem)>,
    /// In the order in which they were first heard of; their places are their numbers.
    known: Vec<Known>,
    pub(crate) refused: Vec<CannotOpen>,
}

/// A pad or other controller that was heard of.
struct Known {
    /// What it is known by when it comes back.
    identity: String,
    /// What SDL calls it as long as it is plugged in.
    which: Option<u32>,
    open: Open,
    sticks: [[f32; 2]; 2],
    hat: [bool; 4],
    /// When its gyroscope was read last, in nanoseconds.
    read: Option<u64>,
}

enum Open {
    Nothing,
    Gamepad(Gamepad),
    /// Held open, so that its events come.
    Joystick {
        _open: Joystick,
    },
}

impl Pads {
    pub(crate) fn new(gamepads: &GamepadSubsystem, joysticks: &JoystickSubsystem) -> Pads {
        Pads {
            systems: Some((gamepads.clone(), joysticks.clone())),
            ..Pads::default()
        }
    }

    pub(crate) fn event(&mut self, event: &Theirs, mut tell: impl FnMut(DeviceId, EventKind)) {
        match *event {
            Theirs::ControllerDeviceAdded { which, .. } => {
                self.plugged(which, true, tell);
            }
            Theirs::JoyDeviceAdded { which, .. } if !self.is_pad(which) => {
                self.plugged(which, false, tell);
            }
            Theirs::ControllerDeviceRemoved { which, .. }
            | Theirs::JoyDeviceRemoved { which, .. } => {
                if let Some(at) = self.at(which) {
                    let pad = &mut self.known[at];
                    (pad.which, pad.open) = (None, Open::Nothing);
                    tell(number(at), EventKind::Unplugged);
                }
            }
            Theirs::ControllerButtonDown { which, button, .. } => {
                self.button(which, button, true, tell);
            }
            Theirs::ControllerButtonUp { which, button, .. } => {
                self.button(which, button, false, tell);
            }
            Theirs::ControllerAxisMotion {
                which, axis, value, ..
            } => {
                let at = self.place(which);
                let what = self.known[at].axis(axis, value);
                tell(number(at), what);
            }
            Theirs::ControllerSensorUpdated {
                timestamp,
                which,
                sensor: SensorType::Gyroscope,
                data,
            } => {
                let at = self.place(which);
                if let Some(what) = self.known[at].turned(timestamp, data) {
                    tell(number(at), what);
                }
            }
            Theirs::JoyButtonDown {
                which, button_idx, ..
            } => self.numbered(which, button_idx, true, tell),
            Theirs::JoyButtonUp {
                which, button_idx, ..
            } => self.numbered(which, button_idx, false, tell),
            Theirs::JoyAxisMotion {
                which,
                axis_idx,
                value,
                ..
            } if !self.is_pad(which) => {
                if let Some(&axis) = HidAxis::ALL.get(usize::from(axis_idx)) {
                    let at = self.place(which);
                    let value = level(value);
                    tell(number(at), EventKind::HidAxis { axis, value });
                }
            }
            Theirs::JoyHatMotion { which, state, .. } if !self.is_pad(which) => {
                let at = self.place(which);
                let now = ways(state);
                let before = std::mem::replace(&mut self.known[at].hat, now);
                for (n, direction) in Direction::ALL.into_iter().enumerate() {
                    if before[n] != now[n] {
                        let down = now[n];
                        tell(number(at), EventKind::HidHat { direction, down });
                    }
                }
            }
            _ => {}
        }
    }

    pub(crate) fn rumble(
        &mut self,
        device: DeviceId,
        motors: [f32; 2],
        time: Duration,
    ) -> Result<(), RumbleError> {
        let at = device.0.checked_sub(FIRST).map(usize::from);
        let pad = at.and_then(|at| self.known.get_mut(at));
        let Some(Open::Gamepad(pad)) = pad.map(|p| &mut p.open) else {
            return Err(RumbleError::NoPad(device.0));
        };
        let [heavy, light] = motors.map(|m| (m.clamp(0.0, 1.0) * f32::from(u16::MAX)) as u16);
        let millis = u32::try_from(time.as_millis()).unwrap_or(u32::MAX);
        let done = pad.set_rumble(heavy, light, millis);
        done.map_err(|e| RumbleError::Refused(e.to_string()))
    }

    /// Whether SDL tells of it as a gamepad, so that what it tells of it as a joystick is the same.
    fn is_pad(&self, which: u32) -> bool {
        let systems = self.systems.as_ref();
        systems.is_some_and(|(gamepads, _)| gamepads.is_gamepad(SDL_JoystickID(which)))
    }

    /// Tells of what was plugged in; of what cannot be opened nothing is heard, and its place is free.
    fn plugged(&mut self, which: u32, is_pad: bool, mut tell: impl FnMut(DeviceId, EventKind)) {
        let before = self.refused.len();
        let (device, usb) = self.came(which, is_pad);
        match self.refused.len() == before {
            true => {
                tell(device, EventKind::Plugged { usb });
                if is_pad {
                    // So that it is known as a pad whatever is pressed first, if only a button beyond
                    // the standard mapping.
                    let (stick, x, y) = (Stick::LEFT, 0.0, 0.0);
                    tell(device, EventKind::PadStick { stick, x, y });
                }
            }
            false => self.known[usize::from(device.0 - FIRST)].which = None,
        }
    }

    /// Something was plugged in: it is opened, and known again where it was here before.
    fn came(&mut self, which: u32, is_pad: bool) -> (DeviceId, Option<UsbId>) {
        let id = SDL_JoystickID(which);
        let (mut open, mut usb, mut identity) = (Open::Nothing, None, which.to_string());
        let mut refused = None;
        if let Some((gamepads, joysticks)) = &self.systems {
            let numbers = (gamepads.vendor_for_id(id), gamepads.product_for_id(id));
            let numbers = numbers.0.zip(numbers.1);
            usb = numbers.and_then(|(vendor, product)| UsbId::known(vendor, product));
            // Of two alike it is the serial number that tells them apart, where they have one.
            identity = gamepads.guid_for_id(id).string();
            match is_pad {
                true => match gamepads.open(id) {
                    Ok(pad) => {
                        identity.extend(pad.serial_number());
                        // A pad without a gyroscope says no, and that is all.
                        let _ = pad.sensor_set_enabled(SensorType::Gyroscope, true);
                        open = Open::Gamepad(pad);
                    }
                    Err(e) => refused = Some(e.to_string()),
                },
                false => match joysticks.open(id) {
                    Ok(joystick) => open = Open::Joystick { _open: joystick },
                    Err(e) => refused = Some(e.to_string()),
                },
            }
        }
        self.refused
            .extend(refused.map(|why| CannotOpen { usb, why }));
        let is_same = |k: &Known| {
            let free = k.which.is_none() || k.which == Some(which);
            free && k.identity == identity
        };
        let again = self.known.iter().position(is_same);
        let now = Known {
            identity,
            which: Some(which),
            open,
            sticks: [[0.0; 2]; 2],
            hat: [false; 4],
            read: None,
        };
        let at = match again {
            Some(at) => {
                self.known[at] = now;
                at
            }
            None => {
                self.known.push(now);
                self.known.len() - 1
            }
        };
        (number(at), usb)
    }

    fn at(&self, which: u32) -> Option<usize> {
        self.known.iter().position(|k| k.which == Some(which))
    }

    /// Where a controller is kept; one that never said that it came did so before anybody listened.
    fn place(&mut self, which: u32) -> usize {
        match self.at(which) {
            Some(at) => at,
            None => {
                let is_pad = self.is_pad(which) || self.systems.is_none();
                let (device, _) = self.came(which, is_pad);
                usize::from(device.0 - FIRST)
            }
        }
    }

    fn button(
        &mut self,
        which: u32,
        button: Button,
        down: bool,
        mut tell: impl FnMut(DeviceId, EventKind),
    ) {
        let device = number(self.place(which));
        let value = if down { 1.0 } else { 0.0 };
        let what = match pad_button(button) {
            Some(button) => EventKind::PadButton { button, value },
            // What the standard mapping has no place for, by SDL's own number.
            None => match HidButton::new(button as u8 + 1) {
                Some(button) => EventKind::HidButton { button, down },
                None => return,
            },
        };
        tell(device, what);
    }

    fn numbered(
        &mut self,
        which: u32,
        index: u8,
        down: bool,
        mut tell: impl FnMut(DeviceId, EventKind),
    ) {
        let button = HidButton::new(index.saturating_add(1));
        if let Some(button) = button.filter(|_| !self.is_pad(which)) {
            let at = self.place(which);
            tell(number(at), EventKind::HidButton { button, down });
        }
    }
}

/// SDL says that a pad rests before it says that it is gone, all at one moment: leaves that out.
pub(crate) fn drop_recentring(events: &mut Vec<Theirs>) {
    let mut gone: Vec<(u32, u64)> = Vec::new();
    let mut kept = vec![true; events.len()];
    for (n, event) in events.iter().enumerate().rev() {
        match *event {
            Theirs::ControllerDeviceRemoved { timestamp, which }
            | Theirs::JoyDeviceRemoved { timestamp, which } => gone.push((which, timestamp)),
            Theirs::ControllerButtonUp {
                timestamp, which, ..
            }
            | Theirs::ControllerAxisMotion {
                timestamp, which, ..
            }
            | Theirs::JoyButtonUp {
                timestamp, which, ..
            }
            | Theirs::JoyAxisMotion {
                timestamp, which, ..
            }
            | Theirs::JoyHatMotion {
                timestamp, which, ..
            } => {
                let then =
                    |(w, then): &(u32, u64)| *w == which && then.abs_diff(timestamp) < AT_ONCE;
                kept[n] = !gone.iter().any(then);
            }
            _ => {}
        }
    }
    let mut kept = kept.into_iter();
    events.retain(|_| kept.next().unwrap_or(true));
}

/// What SDL says within so many nanoseconds it says at one moment.
const AT_ONCE: u64 = 1_000_000;

impl Known {
    fn axis(&mut self, axis: Axis, value: i16) -> EventKind {
        let (stick, number) = match axis {
            Axis::LeftX => (Stick::LEFT, 0),
            Axis::LeftY => (Stick::LEFT, 1),
            Axis::RightX => (Stick::RIGHT, 0),
            Axis::RightY => (Stick::RIGHT, 1),
            Axis::TriggerLeft | Axis::TriggerRight => {
                let button = match axis {
                    Axis::TriggerLeft => PadButton::TriggerLeft,
                    _ => PadButton::TriggerRight,
                };
                let value = level(value).max(0.0);
                return EventKind::PadButton { button, value };
            }
        };
        let both = &mut self.sticks[usize::from(stick == Stick::RIGHT)];
        // SDL's sticks count downwards.
        both[number] = if number == 1 {
            -level(value)
        } else {
            level(value)
        };
        let [x, y] = *both;
        EventKind::PadStick { stick, x, y }
    }

    /// By how much the pad was turned since its last reading, out of the rates in radians a second
    /// around the axes to the right, up and towards the player, counter-clockwise.
    fn turned(&mut self, nanos: u64, rates: [f32; 3]) -> Option<EventKind> {
        let before = self.read.replace(nanos)?;
        let seconds = nanos.saturating_sub(before) as f32 / 1e9;
        let seconds = seconds.min(LONGEST_READING);
        let [pitch, yaw, roll] = rates.map(|r| r.to_degrees() * seconds);
        let (yaw, roll) = (-yaw, -roll);
        Some(EventKind::PadGyro { yaw, pitch, roll })
    }
}

fn number(at: usize) -> DeviceId {
    DeviceId(FIRST.saturating_add(u16::try_from(at).unwrap_or(u16::MAX)))
}

/// −1 to 1 out of SDL's numbers, of which there is one more below than above.
fn level(value: i16) -> f32 {
    (f32::from(value) / f32::from(i16::MAX)).max(-1.0)
}

/// Up, down, left, right, in the order of [`Direction::ALL`].
fn ways(state: HatState) -> [bool; 4] {
    let bits = state as u8;
    Direction::ALL.map(|direction| {
        let bit = match direction {
            Direction::Up => HatState::Up,
            Direction::Down => HatState::Down,
            Direction::Left => HatState::Left,
            Direction::Right => HatState::Right,
        };
        bits & bit as u8 != 0
    })
}

/// The button of a pad by place; nothing for those that the standard mapping has none for.
pub fn pad_button(button: Button) -> Option<PadButton> {
    Some(match button {
        Button::South => PadButton::South,
        Button::East => PadButton::East,
        Button::West => PadButton::West,
        Button::North => PadButton::North,
        Button::Back => PadButton::CenterLeft,
        Button::Start => PadButton::CenterRight,
        Button::Guide => PadButton::Center,
        Button::LeftStick => PadButton::StickLeftClick,
        Button::RightStick => PadButton::StickRightClick,
        Button::LeftShoulder => PadButton::ShoulderLeft,
        Button::RightShoulder => PadButton::ShoulderRight,
        Button::DPadUp => PadButton::Up,
        Button::DPadDown => PadButton::Down,
        Button::DPadLeft => PadButton::Left,
        Button::DPadRight => PadButton::Right,
        Button::RightPaddle1 => PadButton::Paddle1,
        Button::RightPaddle2 => PadButton::Paddle2,
        Button::LeftPaddle1 => PadButton::Paddle3,
        Button::LeftPaddle2 => PadButton::Paddle4,
        Button::Misc1
        | Button::Misc2
        | Button::Misc3
        | Button::Misc4
        | Button::Misc5
        | Button::Misc6
        | Button::Touchpad => return None,
    })
}
