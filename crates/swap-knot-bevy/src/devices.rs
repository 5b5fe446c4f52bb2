//! Small numbers for Bevy's devices.

use bevy_ecs::prelude::{Entity, Resource};
use swap_knot::DeviceId;
use swap_knot::input::{MouseFinger, StillDown, TouchZones, UsbId};

/// The keyboard; Bevy does not tell several apart.
pub const KEYBOARD: DeviceId = DeviceId(0);
/// The mouse; Bevy does not tell several apart.
pub const MOUSE: DeviceId = DeviceId(1);
/// The touch screen.
pub const TOUCH: DeviceId = DeviceId(2);
/// The first pad.
const FIRST_PAD: u16 = 3;

/// Which number a pad has, of which family it is, and where the touch zones are.
#[derive(Debug, Default, Resource)]
pub struct SwapKnotDevices {
    /// The zones and on-screen sticks of the game, in logical pixels; none to begin with.
    pub zones: TouchZones,
    /// The mouse as a finger, for trying the zones at a desk: off to begin with. There is no left mouse
    /// button then, and the mouse does not move.
    pub mouse_finger: MouseFinger,
    /// The window that the zones lie on; fingers on others work none. Without one, any window.
    pub zones_on: Option<Entity>,
    pads: Vec<Pad>,
    pub(crate) down: StillDown,
}

#[derive(Debug)]
struct Pad {
    entity: Entity,
    usb: Option<UsbId>,
    is_there: bool,
    /// Left and right stick: Bevy tells of one axis at a time.
    sticks: [[f32; 2]; 2],
}

impl SwapKnotDevices {
    /// The number of a pad; given out in the order in which pads are first heard of.
    pub fn pad(&mut self, entity: Entity) -> DeviceId {
        pad_number(self.position(entity))
    }

    /// The USB numbers of a pad, by which the game's marks know its family.
    pub fn usb(&self, entity: Entity) -> Option<UsbId> {
        self.pads.iter().find(|p| p.entity == entity)?.usb
    }

    /// Whether the zones lie on a window.
    pub(crate) fn lies_on(&self, window: Entity) -> bool {
        self.zones_on.is_none_or(|on| on == window)
    }

    /// The pads that were heard of, whether they are plugged in, and their numbers.
    pub(crate) fn pads(&self) -> Vec<(DeviceId, bool, Option<UsbId>)> {
        let pads = self.pads.iter().enumerate();
        let all = pads.map(|(n, pad)| (pad_number(n), pad.is_there, pad.usb));
        all.collect()
    }

    /// A pad is plugged in; answers whether that was not known, or not by which numbers.
    pub(crate) fn came(&mut self, entity: Entity, usb: Option<UsbId>) -> bool {
        let at = self.position(entity);
        let pad = &mut self.pads[at];
        let was = (pad.is_there, pad.usb);
        (pad.is_there, pad.usb) = (true, usb.or(pad.usb));
        was != (pad.is_there, pad.usb)
    }

    pub(crate) fn went(&mut self, entity: Entity) {
        let at = self.position(entity);
        self.pads[at].is_there = false;
    }

    /// A pad came or went: whatever its sticks did before, it begins at rest.
    pub(crate) fn rests(&mut self, entity: Entity) {
        let at = self.position(entity);
        self.pads[at].sticks = [[0.0; 2]; 2];
    }

    /// Moves one axis of a stick; answers both.
    pub(crate) fn tilt(&mut self, entity: Entity, stick: usize, axis: usize, to: f32) -> [f32; 2] {
        let at = self.position(entity);
        let stick = &mut self.pads[at].sticks[stick];
        stick[axis] = to;
        *stick
    }

    fn position(&mut self, entity: Entity) -> usize {
        let found = self.pads.iter().position(|p| p.entity == entity);
        found.unwrap_or_else(|| {
            self.pads.push(Pad {
                entity,
                usb: None,
                is_there: false,
                sticks: [[0.0; 2]; 2],
            });
            self.pads.len() - 1
        })
    }
}

fn pad_number(at: usize) -> DeviceId {
    DeviceId(FIRST_PAD.saturating_add(u16::try_from(at).unwrap_or(u16::MAX)))
}
