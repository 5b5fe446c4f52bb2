//! Makes pads of controllers whose mapping was taught.

use super::{Mapping, Mappings, PadSource, Taught};
use crate::input::{
    DeviceId, DeviceKind, Direction, Event, EventKind, HidAxis, HidInput, Input, PadButton, Stick,
    UsbId, amount,
};

/// How far something on an axis is in to be down where it is on or off, and how far it comes back
/// before it is up.
const DOWN: f32 = 0.5;
const UP: f32 = 0.35;

/// Turns the events of controllers whose mapping was taught into those of pads, and passes all others
/// on as they are.
///
/// [`Controls`](crate::Controls) has one; a game that feeds a seat itself puts it before the seat. It
/// knows a controller's kind by [`EventKind::Plugged`], and nothing of one that never said so.
///
/// ```
/// use swap_knot::input::{HidButton, Mapper, Mappings};
/// use swap_knot::{DeviceId, Event, EventKind, Time};
///
/// let mappings = Mappings::from_toml("format = 1\n[controllers.\"1209:5a03\"]\n\
///     \"pad:south\" = \"hid:button-2\"", "mappings")?;
/// let mut mapper = Mapper::new(mappings);
/// let event = |what| Event { at: Time::ZERO, device: DeviceId(3), what };
/// mapper.event(&event(EventKind::Plugged { usb: "1209:5a03".parse().ok() }), |_| {});
/// let button = HidButton::new(2).expect("from 1 on");
/// let mut heard = Vec::new();
/// mapper.event(&event(EventKind::HidButton { button, down: true }), |e| heard.push(e.what));
/// assert!(matches!(heard[..], [EventKind::PadButton { value: 1.0, .. }]));
/// # Ok::<(), swap_knot::input::MappingsError>(())
/// ```
#[derive(Clone, Debug, Default)]
pub struct Mapper {
    mappings: Mappings,
    devices: Vec<Device>,
    changes: u32,
}

/// A controller that is no pad by itself, as far as it was heard of.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Controller {
    /// Which device it is.
    pub device: DeviceId,
    /// Its kind: by its USB numbers, where it says them.
    pub kind: Option<UsbId>,
}

#[derive(Clone, Debug)]
struct Device {
    id: DeviceId,
    kind: Option<UsbId>,
    /// Whether it was heard of as a controller without a mapping, or as a pad.
    is_other: bool,
    is_pad: bool,
    /// Where its axes are, as far as they were heard of.
    axes: [Option<f32>; HidAxis::ALL.len()],
    /// Which parts of the pad are down, for those that are on or off.
    down: [bool; PadButton::ALL.len()],
    /// How far each direction of each stick is in.
    halves: [[f32; 4]; 2],
}

impl Device {
    fn new(id: DeviceId, kind: Option<UsbId>) -> Device {
        Device {
            id,
            kind,
            is_other: false,
            is_pad: false,
            axes: [None; HidAxis::ALL.len()],
            down: [false; PadButton::ALL.len()],
            halves: [[0.0; 4]; 2],
        }
    }

    fn note(&mut self, what: EventKind) {
        match what {
            EventKind::HidButton { .. } | EventKind::HidHat { .. } => self.is_other = true,
            EventKind::HidAxis { axis, value } => {
                self.is_other = true;
                self.axes[axis as usize] = Some(amount(value));
            }
            EventKind::PadButton { .. } | EventKind::PadStick { .. } => self.is_pad = true,
            _ => {}
        }
    }

    /// It holds nothing, whatever it held.
    fn rest(&mut self) {
        self.down = [false; PadButton::ALL.len()];
        self.halves = [[0.0; 4]; 2];
    }

    /// What an event of a controller is on the pad that it was taught to be; nothing that the mapping
    /// knows nothing of.
    fn translate(
        &mut self,
        mapping: &Mapping,
        what: EventKind,
        mut tell: impl FnMut(EventKind),
    ) -> bool {
        let Some(moved) = Moved::of(what) else {
            return false;
        };
        let mut is_known = mapping.silent().any(|input| moved.is(input));
        let mut sticks = [false; 2];
        for (part, source) in mapping.parts() {
            let Some((value, is_analog)) = moved.on(source) else {
                continue;
            };
            is_known = true;
            match part {
                Input::PadButton(button) if button.is_trigger() => {
                    tell(EventKind::PadButton { button, value });
                }
                Input::PadButton(button) => {
                    let was = &mut self.down[button as usize];
                    let edge = if *was && is_analog { UP } else { DOWN };
                    let is = value >= edge;
                    if std::mem::replace(was, is) != is {
                        let value = if is { 1.0 } else { 0.0 };
                        tell(EventKind::PadButton { button, value });
                    }
                }
                Input::PadStickHalf(stick, way) => {
                    let at = usize::from(stick == Stick::RIGHT);
                    self.halves[at][way as usize] = value;
                    sticks[at] = true;
                }
                _ => {}
            }
        }
        for (stick, _) in Stick::ALL
            .into_iter()
            .zip(sticks)
            .filter(|(_, moved)| *moved)
        {
            let halves = &self.halves[usize::from(stick == Stick::RIGHT)];
            let way = |to: Direction, from: Direction| halves[to as usize] - halves[from as usize];
            let x = way(Direction::Right, Direction::Left);
            let y = way(Direction::Up, Direction::Down);
            tell(EventKind::PadStick { stick, x, y });
        }
        is_known
    }
}

/// What moved on a controller.
#[derive(Clone, Copy)]
enum Moved {
    /// A button or a direction of the hat, and whether it is down.
    Button(PadSource, bool),
    Axis(HidAxis, f32),
}

impl Moved {
    fn of(what: EventKind) -> Option<Moved> {
        Some(match what {
            EventKind::HidButton { button, down } => Moved::Button(PadSource::Button(button), down),
            EventKind::HidHat { direction, down } => Moved::Button(PadSource::Hat(direction), down),
            EventKind::HidAxis { axis, value } => Moved::Axis(axis, amount(value)),
            _ => return None,
        })
    }

    /// Whether it is this input, or something of its axis.
    fn is(self, input: HidInput) -> bool {
        match (self, input) {
            (Moved::Axis(axis, _), HidInput::Axis(other) | HidInput::Half(other, _)) => {
                axis == other
            }
            (Moved::Button(source, _), input) => source.input() == input,
            (Moved::Axis(..), _) => false,
        }
    }

    /// How far a source is in by it, if it is about that, and whether that is on the way to somewhere.
    fn on(self, source: PadSource) -> Option<(f32, bool)> {
        match self {
            Moved::Button(moved, down) => {
                let value = if down { 1.0 } else { 0.0 };
                (moved == source).then_some((value, false))
            }
            Moved::Axis(axis, at) => {
                (source.axis() == Some(axis)).then(|| (source.pulled(at), true))
            }
        }
    }
}

impl Mapper {
    /// One that goes by these mappings.
    pub fn new(mappings: Mappings) -> Mapper {
        Mapper {
            mappings,
            ..Mapper::default()
        }
    }

    /// What it goes by.
    pub const fn mappings(&self) -> &Mappings {
        &self.mappings
    }

    /// Goes by others from here on. Answers the controllers that are something else now: what they hold
    /// is to be broken off, as by [`EventKind::Unplugged`], since nobody tells of it any more.
    #[must_use = "what these hold stays down otherwise"]
    pub fn set_mappings(&mut self, mappings: Mappings) -> Vec<DeviceId> {
        self.changes = self.changes.wrapping_add(1);
        let before = std::mem::replace(&mut self.mappings, mappings);
        let now = &self.mappings;
        let is_other = |d: &&mut Device| before.of(d.kind) != now.of(d.kind);
        let all = self.devices.iter_mut().filter(is_other);
        all.map(|device| {
            device.rest();
            device.id
        })
        .collect()
    }

    /// Takes an event in, and hands on what it is.
    #[inline]
    pub fn event(&mut self, event: &Event, mut feed: impl FnMut(&Event)) {
        if !self.translate(event, &mut feed) {
            feed(event);
        }
    }

    /// Takes note of an event without translating it: for a controller that is being taught.
    pub fn overhear(&mut self, event: &Event) {
        match event.what {
            // Some say more than once that they are there, whatever is down on them.
            EventKind::Plugged { usb } if self.kind_of(event.device) == Some(usb) => {}
            EventKind::Plugged { usb } => {
                self.devices.retain(|d| d.id != event.device);
                self.devices.push(Device::new(event.device, usb));
                self.changes = self.changes.wrapping_add(1);
            }
            EventKind::Unplugged => {
                let is_gone = |d: &Device| [d.id, DeviceId::ALL].contains(&event.device);
                self.devices.retain(|d| !is_gone(d));
                self.changes = self.changes.wrapping_add(1);
            }
            what => {
                let mut devices = self.devices.iter_mut();
                if let Some(device) = devices.find(|d| d.id == event.device) {
                    let before = (device.is_other, device.is_pad);
                    device.note(what);
                    let is_new = before != (device.is_other, device.is_pad);
                    self.changes = self.changes.wrapping_add(u32::from(is_new));
                }
            }
        }
    }

    /// Goes on with a device that another one has followed so far.
    pub(crate) fn take_over(&mut self, from: &Mapper, device: DeviceId) {
        self.devices.retain(|d| d.id != device);
        let found = from.devices.iter().find(|d| d.id == device);
        self.devices.extend(found.cloned());
        self.changes = self.changes.wrapping_add(1);
    }

    /// The controllers that were worked and are no pads by themselves, in the order in which they came:
    /// those that were taught to be one among them.
    pub fn controllers(&self) -> impl Iterator<Item = Controller> {
        let all = self.devices.iter().filter(|d| d.is_other && !d.is_pad);
        all.map(|d| Controller {
            device: d.id,
            kind: d.kind,
        })
    }

    /// The kind of a device that is plugged in and said so.
    pub fn kind_of(&self, device: DeviceId) -> Option<Option<UsbId>> {
        let found = self.devices.iter().find(|d| d.id == device);
        found.map(|d| d.kind)
    }

    /// How often something has changed of what controllers there are and what they are.
    pub(crate) const fn changes(&self) -> u32 {
        self.changes
    }

    /// Whether a device was heard of as a pad by itself.
    pub(crate) fn is_pad(&self, device: DeviceId) -> bool {
        let found = self.devices.iter().find(|d| d.id == device);
        found.is_some_and(|d| d.is_pad)
    }

    /// Where an axis of a device was when it was last heard of.
    pub(super) fn axis(&self, device: DeviceId, axis: HidAxis) -> Option<f32> {
        let found = self.devices.iter().find(|d| d.id == device)?;
        found.axes[axis as usize]
    }

    /// Whether the event is of a controller that was taught to be a pad, and is told as that.
    fn translate(&mut self, event: &Event, feed: &mut impl FnMut(&Event)) -> bool {
        use DeviceKind::{Keyboard, Mouse, Touch};
        if let Some(Keyboard | Mouse | Touch) = event.what.device_kind() {
            return false;
        }
        self.overhear(event);
        if self.mappings.is_empty() {
            return false;
        }
        let Some(device) = self.devices.iter_mut().find(|d| d.id == event.device) else {
            return false;
        };
        let Some(Taught::Pad(mapping)) = self.mappings.of(device.kind) else {
            return false;
        };
        device.translate(mapping, event.what, |what| feed(&Event { what, ..*event }))
    }
}
