//! Small numbers for Bevy's devices.

use bevy_ecs::prelude::{Entity, Resource};
use swap_knot::{DeviceId, TouchZones};

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
    pads: Vec<Pad>,
    pub(crate) wheel: [f32; 2],
}

#[derive(Debug)]
struct Pad {
    entity: Entity,
    usb: Option<(u16, u16)>,
    /// Left and right stick: Bevy tells of one axis at a time.
    sticks: [[f32; 2]; 2],
}

impl SwapKnotDevices {
    /// The number of a pad; given out in the order in which pads are first heard of.
    pub fn pad(&mut self, entity: Entity) -> DeviceId {
        let at = self.position(entity);
        DeviceId(FIRST_PAD.saturating_add(u16::try_from(at).unwrap_or(u16::MAX)))
    }

    /// The USB vendor and product numbers of a pad, for its family of glyphs.
    pub fn usb(&self, entity: Entity) -> Option<(u16, u16)> {
        self.pads.iter().find(|p| p.entity == entity)?.usb
    }

    pub(crate) fn connected(&mut self, entity: Entity, usb: Option<(u16, u16)>) {
        let at = self.position(entity);
        self.pads[at].usb = usb;
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
                sticks: [[0.0; 2]; 2],
            });
            self.pads.len() - 1
        })
    }
}
