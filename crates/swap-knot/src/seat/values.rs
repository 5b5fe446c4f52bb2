//! The values of actions, from their ports and whole inputs.

use super::state::{Phase, State};
use crate::rig::{ActionWiring, Wiring};
use crate::sheet::{Opposite, Shape};

impl State {
    /// Sends a port towards what its wires say.
    pub(super) fn set_ramp(&mut self, wiring: &Wiring, action: u16, port: u16, feel: u16) {
        let (start, end) = wiring.port_analog[usize::from(port)];
        let analog = wiring.analog_wires[start as usize..end as usize].iter();
        let mut target = 0.0_f32;
        let mut analog_on = 0;
        for &index in analog {
            let wire = &self.wires[usize::from(index)];
            if wire.phase == Phase::On {
                analog_on += 1;
                target = target.max(wire.level[0]);
            }
        }
        let state = &mut self.ports[usize::from(port)];
        // Wires that are on or off hold the port at full; those that follow only as far as they go.
        let pressed = state.on && state.count > analog_on;
        let feel = &wiring.feels[usize::from(feel)];
        let pace = if analog_on > 0 {
            0.0
        } else if pressed {
            feel.ramp_up
        } else {
            feel.ramp_down
        };
        let full = if pressed {
            feel.sensitivity.min(1.0)
        } else {
            0.0
        };
        state.ramp.head_for(target.max(full), pace, self.now);
        if pace > 0.0 && !self.ramping.contains(&port) {
            self.ramping.push(port);
        }
        self.mark_dirty(action);
    }

    /// Has every port that is on its way worked out, and forgets those that have arrived.
    pub(super) fn advance_ramps(&mut self, wiring: &Wiring) {
        let mut ramping = std::mem::take(&mut self.ramping);
        ramping.retain(|&port| {
            self.mark_dirty(wiring.port_action[usize::from(port)]);
            !self.ports[usize::from(port)].ramp.done(self.now)
        });
        self.ramping = ramping;
    }

    /// Works out the value of an action.
    pub(super) fn work_out(&mut self, wiring: &Wiring, index: u16) {
        let action = &wiring.actions[usize::from(index)];
        let value = match action.shape {
            // Told by whether it is on, see `Seat::space`.
            Shape::Press => [0.0; 3],
            Shape::Pull => [self.port_level(action.port), 0.0, 0.0],
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
        // Keys and sticks together: whichever goes further has it.
        let (start, end) = action.whole;
        for &index in &wiring.whole_wires[start as usize..end as usize] {
            let wire = &self.wires[usize::from(index)];
            let [x, y] = wire.level;
            let reach = x.hypot(y);
            if wire.phase == Phase::On && reach > length {
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
        let (down, up) = (minus.ramp.at(self.now), plus.ramp.at(self.now));
        if !(minus.on && plus.on) {
            return up - down;
        }
        let plus_is_newer = plus.since > minus.since;
        match action.opposite {
            Opposite::Neither => up - down,
            Opposite::Latest if plus_is_newer => up,
            Opposite::Latest => -down,
            Opposite::First if plus_is_newer => -down,
            Opposite::First => up,
        }
    }

    fn port_level(&self, port: u16) -> f32 {
        self.ports
            .get(usize::from(port))
            .map_or(0.0, |p| p.ramp.at(self.now))
    }
}
