//! Where a stick or trigger may go without anything but its level changing: most of its movements.

use super::Held;
use super::device::{Device, level_of};
use crate::input::Control;

/// How many controls of a device have one: two triggers and two sticks.
pub(super) const GLIDES: usize = 4;

/// Bounds that a movement stays within if nothing goes down, comes up, leaves its rest or comes to
/// it. An empty one is left by every movement.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Glide {
    /// Each axis lies above and below these.
    pub(crate) above: [f32; 2],
    pub(crate) below: [f32; 2],
    /// The square of the distance from the middle is more than this, and at most that.
    pub(crate) beyond: f32,
    pub(crate) within: f32,
}

impl Glide {
    /// No movement stays within.
    pub(crate) const NONE: Glide = Glide {
        above: [f32::INFINITY; 2],
        below: [f32::NEG_INFINITY; 2],
        beyond: f32::INFINITY,
        within: f32::NEG_INFINITY,
    };

    /// Every movement does.
    pub(crate) const ANY: Glide = Glide {
        above: [f32::NEG_INFINITY; 2],
        below: [f32::INFINITY; 2],
        beyond: f32::NEG_INFINITY,
        within: f32::INFINITY,
    };

    #[inline]
    fn has(&self, [x, y]: [f32; 2]) -> bool {
        let square = x * x + y * y;
        // Without a branch for each.
        (self.above[0] < x)
            & (x < self.below[0])
            & (self.above[1] < y)
            & (y < self.below[1])
            & (self.beyond < square)
            & (square <= self.within)
    }
}

impl Held {
    /// Moves a stick or trigger of a device, if nothing else changes by that.
    #[inline]
    pub(crate) fn glide(&mut self, slot: usize, control: Control, to: [f32; 2]) -> bool {
        let Some((at, _)) = level_of(control) else {
            return false;
        };
        let device = &mut self.devices[slot];
        match (device.glides.get(at), device.levels.get_mut(at)) {
            (Some(glide), Some(level)) if glide.has(to) => {
                *level = to;
                true
            }
            _ => false,
        }
    }

    /// A stick or trigger changed on a device: no device glides along any more with what was found
    /// before, and this one does within these bounds, where no other moves the same control.
    pub(crate) fn set_glide(&mut self, slot: usize, control: Control, glide: Glide) {
        let Some((at, _)) = level_of(control) else {
            return;
        };
        let rests = |device: &Device| device.levels.get(at).is_none_or(|l| *l == [0.0; 2]);
        let mut others = self.devices.iter().enumerate().filter(|(n, _)| *n != slot);
        let alone = others.all(|(_, device)| rests(device));
        for device in &mut self.devices {
            if let Some(of_device) = device.glides.get_mut(at) {
                *of_device = Glide::NONE;
            }
        }
        if alone && let Some(own) = self.devices[slot].glides.get_mut(at) {
            *own = glide;
        }
    }

    /// Nothing that was found of any device holds any more.
    pub(crate) fn end_glides(&mut self) {
        for device in &mut self.devices {
            device.glides = [Glide::NONE; GLIDES];
        }
    }
}
