//! Where a stick or trigger may go without anything but its level changing: most of its movements.

use super::Held;
use super::device::level_of;
use crate::input::{Control, DeviceId, Direction, Stick};

/// The controls that glide by their numbers: two triggers, then two sticks.
pub(crate) const GLIDES: usize = TRIGGERS + 2;
const TRIGGERS: usize = 2;

/// Along its axes and by the square of its distance from the middle.
const WAYS: usize = 3;

/// Where anything changes on the way of a stick or trigger: between two of these points nothing does but
/// where it is, whatever was so before.
#[derive(Clone, Debug, Default)]
pub(crate) struct Edges {
    /// Those that matter to what moves on to less, and to more.
    below: [Vec<f32>; WAYS],
    above: [Vec<f32>; WAYS],
}

impl Edges {
    /// Adds something that counts from so far in one way on, and no more from so far out.
    pub(crate) fn add(&mut self, way: Direction, (goes_in, goes_out): (f32, f32)) {
        let axis = usize::from(matches!(way, Direction::Up | Direction::Down));
        let (below, above) = match way {
            Direction::Up | Direction::Right => (goes_out, goes_in),
            Direction::Down | Direction::Left => (-goes_in, -goes_out),
        };
        self.below[axis].push(below);
        self.above[axis].push(above);
    }

    /// The same for a distance from the middle, or for that along either axis.
    pub(crate) fn add_round(&mut self, far: f32, by_axis: bool) {
        if by_axis {
            Direction::ALL
                .iter()
                .for_each(|way| self.add(*way, (far, far)));
        } else {
            self.below[2].push(far * far);
            self.above[2].push(far * far);
        }
    }

    /// The least and the most on every way before an edge is reached; nothing is between where it is on one.
    fn around(&self, [x, y]: [f32; 2], least: f32) -> [[f32; WAYS]; 2] {
        let mut low = [least, -1.0, 0.0];
        let mut high = [1.0, 1.0, f32::INFINITY];
        for (way, at) in [x, y, x * x + y * y].into_iter().enumerate() {
            let below = self.below[way].iter().filter(|edge| **edge <= at);
            low[way] = below.fold(low[way], |low, edge| low.max(edge.next_up()));
            let above = self.above[way].iter().filter(|edge| **edge >= at);
            high[way] = above.fold(high[way], |high, edge| high.min(edge.next_down()));
        }
        [low, high]
    }
}

/// The device that has a stick or trigger to itself, and how it may move it.
#[derive(Clone, Copy, Debug)]
pub(super) struct Gliding {
    /// None while no device has it so, or nothing is known of that.
    device: Option<DeviceId>,
    slot: usize,
    /// What is no number is outside.
    low: [f32; WAYS],
    high: [f32; WAYS],
    /// Whether it moved since it was last settled.
    moved: bool,
}

impl Gliding {
    pub(super) const NONE: Gliding = Gliding {
        device: None,
        slot: 0,
        low: [f32::INFINITY; WAYS],
        high: [f32::NEG_INFINITY; WAYS],
        moved: false,
    };
}

impl Held {
    /// Moves a stick of a device, if it has it to itself and nothing else changes by that. Where it is
    /// may be no number.
    #[inline(always)]
    pub(crate) fn glide_stick(&mut self, device: DeviceId, stick: Stick, [x, y]: [f32; 2]) -> bool {
        let own = &self.glides[TRIGGERS + stick.0 as usize];
        let square = x * x + y * y;
        // Without a branch for each.
        let stays = (own.low[0] <= x)
            & (x <= own.high[0])
            & (own.low[1] <= y)
            & (y <= own.high[1])
            & (own.low[2] <= square)
            & (square <= own.high[2]);
        stays && self.glide(device, TRIGGERS + stick.0 as usize, [x, y])
    }

    /// The same for a trigger, the left one first.
    #[inline(always)]
    pub(crate) fn glide_trigger(&mut self, device: DeviceId, at: usize, x: f32) -> bool {
        let own = &self.glides[at % TRIGGERS];
        let stays = (own.low[0] <= x) & (x <= own.high[0]);
        stays && self.glide(device, at % TRIGGERS, [x, 0.0])
    }

    #[inline(always)]
    fn glide(&mut self, device: DeviceId, at: usize, to: [f32; 2]) -> bool {
        let own = &mut self.glides[at];
        if own.device == Some(device)
            && let Some(device) = self.devices.get_mut(own.slot)
            && let Some(level) = device.levels.get_mut(at)
        {
            *level = to;
            own.moved = true;
            return true;
        }
        false
    }

    /// Answers whether something glided since the last call.
    #[inline]
    pub(crate) fn settle_glide(&mut self, at: usize) -> bool {
        std::mem::take(&mut self.glides[at].moved)
    }

    /// A stick or trigger was judged: from here on its device glides between these edges, where no other
    /// moves it as well and nothing of it is spent.
    pub(crate) fn find_glide(&mut self, slot: usize, control: Control, edges: &[Edges; GLIDES]) {
        let Some((at, _)) = level_of(control).filter(|(at, _)| *at < GLIDES) else {
            return;
        };
        let mut others = self.devices.iter().enumerate().filter(|(n, _)| *n != slot);
        let alone = others.all(|(_, d)| d.levels.get(at).is_none_or(|l| *l == [0.0; 2]));
        let device = &self.devices[slot];
        let (first, count) = control.relatives();
        let mut parts = (first.0..first.0 + count).map(Control).chain([control]);
        if let Some(&level) = device.levels.get(at)
            && alone
            && !parts.any(|c| device.is_spent(c))
        {
            // A trigger goes one way only.
            let least = if at < TRIGGERS { 0.0 } else { -1.0 };
            let [low, high] = edges[at].around(level, least);
            self.glides[at] = Gliding {
                device: device.id,
                slot,
                low,
                high,
                moved: self.glides[at].moved,
            };
        }
    }

    /// Nothing that was found of any device holds any more.
    pub(crate) fn end_glides(&mut self) {
        (0..GLIDES).for_each(|at| self.end_glide(at));
    }

    /// Nothing that was found of a level holds any more: it moves otherwise.
    pub(super) fn end_glide(&mut self, at: usize) {
        if let Some(own) = self.glides.get_mut(at) {
            let moved = own.moved;
            *own = Gliding {
                moved,
                ..Gliding::NONE
            };
        }
    }

    /// Where a whole stick or trigger is, if one device has it to itself.
    #[inline(always)]
    pub(crate) fn glided_to(&self, at: usize) -> Option<[f32; 2]> {
        let own = self.glides.get(at)?;
        own.device?;
        self.devices.get(own.slot)?.levels.get(at).copied()
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
