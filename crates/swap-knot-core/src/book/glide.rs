//! Where a stick or trigger may go without anything but its level changing: most of its movements.

use super::Held;
use super::device::{Device, level_of};
use crate::input::{Control, DeviceId, Stick};

/// The controls that glide by their numbers: two triggers, then two sticks.
pub(crate) const GLIDES: usize = TRIGGERS + 2;
const TRIGGERS: usize = 2;

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
}

/// The device that has a stick or trigger to itself, how it may move it, and where it is.
#[derive(Clone, Copy, Debug)]
pub(super) struct Gliding {
    /// None while no device has it so, or nothing is known of that.
    device: Option<DeviceId>,
    slot: usize,
    /// The least and the most that each axis may be, within full: what is no number is outside.
    low: [f32; 2],
    high: [f32; 2],
    beyond: f32,
    within: f32,
    at: [f32; 2],
    /// Whether it moved since it was last settled.
    moved: bool,
}

impl Gliding {
    pub(super) const NONE: Gliding = Gliding {
        device: None,
        slot: 0,
        low: [f32::INFINITY; 2],
        high: [f32::NEG_INFINITY; 2],
        beyond: f32::INFINITY,
        within: f32::NEG_INFINITY,
        at: [0.0; 2],
        moved: false,
    };
}

impl Held {
    /// Moves a stick of a device, if it has it to itself and nothing else changes by that. Where it is
    /// may be no number.
    #[inline(always)]
    pub(crate) fn glide_stick(&mut self, device: DeviceId, stick: Stick, [x, y]: [f32; 2]) -> bool {
        let own = &mut self.glides[TRIGGERS + stick.0 as usize];
        let square = x * x + y * y;
        // Without a branch for each.
        let stays = (own.low[0] <= x)
            & (x <= own.high[0])
            & (own.low[1] <= y)
            & (y <= own.high[1])
            & (own.beyond < square)
            & (square <= own.within);
        if own.device != Some(device) || !stays {
            return false;
        }
        own.at = [x, y];
        own.moved = true;
        true
    }

    /// The same for a trigger, the left one first.
    #[inline(always)]
    pub(crate) fn glide_trigger(&mut self, device: DeviceId, at: usize, x: f32) -> bool {
        let own = &mut self.glides[at % TRIGGERS];
        let stays = (own.low[0] <= x) & (x <= own.high[0]);
        if own.device != Some(device) || !stays {
            return false;
        }
        own.at[0] = x;
        own.moved = true;
        true
    }

    /// Answers whether something glided since the last call, and has the book of its device say where
    /// it is.
    #[inline]
    pub(crate) fn settle_glide(&mut self, at: usize) -> bool {
        let moved = self.glides[at].moved;
        if moved {
            self.note_level(at);
            self.glides[at].moved = false;
        }
        moved
    }

    #[inline]
    fn note_level(&mut self, at: usize) {
        let own = &self.glides[at];
        if own.device.is_some()
            && let Some(device) = self.devices.get_mut(own.slot)
            && let Some(level) = device.levels.get_mut(at)
        {
            *level = own.at;
        }
    }

    /// A stick or trigger changed on a device: no device glides along any more with what was found
    /// before, and this one does within these bounds, where no other moves the same control.
    pub(crate) fn set_glide(&mut self, slot: usize, control: Control, glide: Glide) {
        let Some((at, _)) = level_of(control).filter(|(at, _)| *at < GLIDES) else {
            return;
        };
        let rests = |device: &Device| device.levels.get(at).is_none_or(|l| *l == [0.0; 2]);
        let mut others = self.devices.iter().enumerate().filter(|(n, _)| *n != slot);
        let alone = others.all(|(_, device)| rests(device));
        let device = &self.devices[slot];
        let moved = self.glides[at].moved;
        self.glides[at] = match device.levels.get(at) {
            Some(&level) if alone && glide != Glide::NONE => Gliding {
                device: device.id,
                slot,
                low: glide.above.map(|v| v.next_up().max(-1.0)),
                high: glide.below.map(|v| v.next_down().min(1.0)),
                beyond: glide.beyond,
                within: glide.within,
                at: level,
                moved,
            },
            _ => Gliding {
                moved,
                ..Gliding::NONE
            },
        };
    }

    /// Nothing that was found of any device holds any more; where they are is in their books.
    pub(crate) fn end_glides(&mut self) {
        (0..GLIDES).for_each(|at| self.end_glide(at));
    }

    /// Nothing that was found of a level holds any more: it moves otherwise.
    pub(super) fn end_glide(&mut self, at: usize) {
        if at < GLIDES {
            self.note_level(at);
            self.glides[at] = Gliding {
                moved: self.glides[at].moved,
                ..Gliding::NONE
            };
        }
    }

    /// Where a whole stick or trigger is, if one device has it to itself.
    #[inline(always)]
    pub(crate) fn glided_to(&self, at: usize) -> Option<[f32; 2]> {
        let own = self.glides.get(at)?;
        own.device.map(|_| own.at)
    }
}

/// The control that glides as that number.
pub(crate) fn gliding(at: usize) -> Control {
    use crate::input::PadButton::{TriggerLeft, TriggerRight};
    match at {
        0 => Control::pad(TriggerLeft),
        1 => Control::pad(TriggerRight),
        2 => Control::stick(Stick::LEFT),
        _ => Control::stick(Stick::RIGHT),
    }
}
