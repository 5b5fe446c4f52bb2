//! The values of actions, from their ports and whole inputs.

use super::state::{Phase, State};
use crate::rig::{ActionWiring, Wiring};
use crate::sheet::{Opposite, Shape};

impl State {
    /// Sends what a key has brought its port to towards full, or back to rest.
    ///
    /// Each key is on its own way, so that a port's value does not depend on the order in which
    /// several are let go.
    pub(super) fn ramp_to(&mut self, wiring: &Wiring, index: u16, full: bool) {
        let wire = &wiring.wires[usize::from(index)];
        if wire.analog {
            return;
        }
        let feel = wiring.feel(wire);
        let (target, pace) = match full {
            true => (feel.sensitivity.min(1.0), feel.ramp_up),
            false => (0.0, feel.ramp_down),
        };
        let ramp = &mut self.wires[usize::from(index)].ramp;
        ramp.head_for(target, pace, self.now);
        if pace > 0.0 && !self.ramping.contains(&index) {
            self.ramping.push(index);
        }
    }

    /// Has every port that is on its way worked out, and forgets those that have arrived.
    pub(super) fn advance_ramps(&mut self, wiring: &Wiring) {
        let mut ramping = std::mem::take(&mut self.ramping);
        ramping.retain(|&index| {
            self.mark_dirty(wiring.wires[usize::from(index)].action);
            !self.wires[usize::from(index)].ramp.done(self.now)
        });
        self.ramping = ramping;
    }

    /// Works out the value of an action.
    pub(super) fn work_out(&mut self, wiring: &Wiring, index: u16) {
        let action = &wiring.actions[usize::from(index)];
        for port in action.port..action.port + u16::from(action.ports) {
            self.ports[usize::from(port)].value = self.port_level(wiring, port);
        }
        let value = match action.shape {
            // Told by whether it is on, see `Seat::space`.
            Shape::Press => [0.0; 3],
            Shape::Pull => [self.port_value(action.port), 0.0, 0.0],
            Shape::Line | Shape::Plane | Shape::Space => self.directed(wiring, action),
        };
        let state = &mut self.actions[usize::from(index)];
        state.value = value;
        state.dirty = false;
    }

    fn directed(&self, wiring: &Wiring, action: &ActionWiring) -> [f32; 3] {
        let mut value = [0.0; 3];
        for axis in 0..action.ports / 2 {
            value[usize::from(axis)] = self.pair(action, action.port + u16::from(axis) * 2);
        }
        let squared: f32 = value.iter().map(|v| v * v).sum();
        let mut length = squared.sqrt();
        if length > 1.0 {
            value = value.map(|v| v / length);
            length = 1.0;
        }
        // Keys and sticks together: whichever goes further has it, and of equals the keys; rounding
        // does not count.
        let (start, end) = action.whole;
        for &index in &wiring.whole_wires[start as usize..end as usize] {
            let wire = &self.wires[usize::from(index)];
            let [x, y] = wire.level;
            let reach = x.hypot(y);
            if wire.phase == Phase::On && reach > length + 1e-5 {
                value = [x, y, 0.0];
                length = reach;
            }
        }
        value
    }

    /// Two opposite ports, the negative one first.
    fn pair(&self, action: &ActionWiring, negative: u16) -> f32 {
        let (minus, plus) = (
            &self.ports[usize::from(negative)],
            &self.ports[usize::from(negative + 1)],
        );
        let (down, up) = (minus.value, plus.value);
        if !(minus.is_on() && plus.is_on()) {
            return up - down;
        }
        let plus_is_newer = plus.order > minus.order;
        match action.opposite {
            Opposite::Neither => up - down,
            Opposite::Latest if plus_is_newer => up,
            Opposite::Latest => -down,
            Opposite::First if plus_is_newer => -down,
            Opposite::First => up,
        }
    }

    fn port_value(&self, port: u16) -> f32 {
        self.ports.get(usize::from(port)).map_or(0.0, |p| p.value)
    }

    /// How far a port is in: as far as that of its wires that goes furthest.
    fn port_level(&self, wiring: &Wiring, port: u16) -> f32 {
        let (start, end) = wiring.port_range[usize::from(port)];
        let wires = wiring.port_wires[start as usize..end as usize].iter();
        let level = |&index: &u16| {
            let state = &self.wires[usize::from(index)];
            match wiring.wires[usize::from(index)].analog {
                true if state.phase == Phase::On => state.level[0],
                true => 0.0,
                false => state.ramp.at(self.now),
            }
        };
        wires.map(level).fold(0.0, f32::max)
    }
}
