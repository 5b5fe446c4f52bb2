//! The values of actions, from their ports and whole inputs.

use super::shaping::{self, Ramp};
use super::state::{Phase, State};
use crate::input::{Control, Time};
use crate::rig::{ActionWiring, Part, Wire, Wiring};
use crate::sheet::{Opposite, Shape};

/// The most ports that an action has: the arms of a space.
pub(super) const PORTS: usize = 6;

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
            true => (1.0, feel.ramp_up),
            false => (0.0, feel.ramp_down),
        };
        let ramp = &mut self.wires[usize::from(index)].ramp;
        ramp.head_for(target, pace, self.now);
        self.keep_ramping(index, pace);
    }

    /// A wire, or the port that it toggles, is on its way.
    pub(super) fn keep_ramping(&mut self, index: u16, pace: f32) {
        if pace > 0.0 && !self.ramping.contains(&index) {
            self.ramping.push(index);
        }
    }

    /// Has every port that is on its way worked out, and forgets those that have arrived.
    pub(super) fn advance_ramps(&mut self, wiring: &Wiring) {
        let mut ramping = std::mem::take(&mut self.ramping);
        ramping.retain(|&index| {
            let wire = &wiring.wires[usize::from(index)];
            self.mark_dirty(wire.action);
            let port = match wire.part {
                Part::Port(port) => self.ports[usize::from(port)].ramp,
                Part::Switch | Part::Whole => Ramp::default(),
            };
            !(self.wires[usize::from(index)].ramp.done(self.now) && port.done(self.now))
        });
        self.ramping = ramping;
    }

    /// Works out the value of an action.
    pub(super) fn work_out(&mut self, wiring: &Wiring, index: u16) {
        let action = &wiring.actions[usize::from(index)];
        let levels = self.levels(wiring, action, self.now);
        let full = if action.rate.is_some() { f32::MAX } else { 1.0 };
        let first = usize::from(action.port);
        for (port, level) in
            (self.ports[first..first + usize::from(action.ports)].iter_mut()).zip(levels)
        {
            port.value = level.min(full);
        }
        let value = self.value_of(wiring, action, &levels, action.rate.is_some());
        let state = &mut self.actions[usize::from(index)];
        state.value = value;
        state.dirty = false;
    }

    /// How far each port of an action is in at a moment, after feel and beyond full.
    #[inline]
    pub(super) fn levels(&self, wiring: &Wiring, action: &ActionWiring, at: Time) -> [f32; PORTS] {
        let mut levels = [0.0; PORTS];
        // Where nothing holds a port and nothing is on its way, all of them are at rest: as it is
        // while a stick has the action.
        if self.ramping.is_empty() && at >= self.now {
            let first = usize::from(action.port);
            let ports = &self.ports[first..first + usize::from(action.ports)];
            if ports.iter().all(|port| port.count == 0) {
                return levels;
            }
        }
        for (offset, level) in levels
            .iter_mut()
            .enumerate()
            .take(usize::from(action.ports))
        {
            *level = self.port_level(wiring, usize::from(action.port) + offset, at);
        }
        levels
    }

    /// The value of an action whose ports are so far in: within full, or beyond it.
    pub(super) fn value_of(
        &self,
        wiring: &Wiring,
        action: &ActionWiring,
        levels: &[f32; PORTS],
        beyond: bool,
    ) -> [f32; 3] {
        match action.shape {
            // Told by whether it is on, see `Seat::space`.
            Shape::Press => [0.0; 3],
            Shape::Pull if beyond => [levels[0], 0.0, 0.0],
            Shape::Pull => [levels[0].min(1.0), 0.0, 0.0],
            Shape::Line | Shape::Plane | Shape::Space => {
                self.directed(wiring, action, levels, beyond)
            }
        }
    }

    fn directed(
        &self,
        wiring: &Wiring,
        action: &ActionWiring,
        levels: &[f32; PORTS],
        beyond: bool,
    ) -> [f32; 3] {
        let (mut value, mut length) = match *levels == [0.0; PORTS] {
            true => ([0.0; 3], 0.0),
            false => self.by_arms(action, levels, beyond),
        };
        // Keys and sticks together: whichever goes further has it, and of equals the keys; rounding
        // does not count.
        let (start, end) = action.whole;
        for &index in &wiring.whole_wires[start as usize..end as usize] {
            if self.wires[usize::from(index)].phase != Phase::On {
                continue;
            }
            let ([x, y], reach) = self.whole_level(wiring, &wiring.wires[usize::from(index)]);
            let kept = if beyond { reach } else { reach.min(1.0) };
            if kept > length + 1e-5 {
                let scale = kept / reach;
                value = [x * scale, y * scale, 0.0];
                length = kept;
            }
        }
        value
    }

    /// What the arms of an action make, and how long that is.
    fn by_arms(
        &self,
        action: &ActionWiring,
        levels: &[f32; PORTS],
        beyond: bool,
    ) -> ([f32; 3], f32) {
        let mut value = [0.0_f32; 3];
        let axes = usize::from(action.ports) / 2;
        for (axis, value) in value.iter_mut().enumerate().take(axes) {
            *value = self.pair(action, axis, levels, beyond);
        }
        // Two arms at once are no faster than one.
        let most = match beyond {
            true => value.iter().fold(1.0_f32, |most, v| most.max(v.abs())),
            false => 1.0,
        };
        let squared: f32 = value.iter().map(|v| v * v).sum();
        let length = squared.sqrt();
        match length > most {
            true => (value.map(|v| v / length * most), most),
            false => (value, length),
        }
    }

    /// Two opposite ports, the negative one first.
    fn pair(&self, action: &ActionWiring, axis: usize, levels: &[f32; PORTS], beyond: bool) -> f32 {
        let first = usize::from(action.port) + axis * 2;
        let (minus, plus) = (&self.ports[first], &self.ports[first + 1]);
        let within = |level: f32| if beyond { level } else { level.min(1.0) };
        let (down, up) = (within(levels[axis * 2]), within(levels[axis * 2 + 1]));
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

    /// How far a port is in: as far as that of its wires that goes furthest.
    fn port_level(&self, wiring: &Wiring, port: usize, at: Time) -> f32 {
        if self.ports[port].count == 0 && self.ramping.is_empty() && at >= self.now {
            return 0.0;
        }
        let (start, end) = wiring.port_range[port];
        let wires = wiring.port_wires[start as usize..end as usize].iter();
        let level = |&index: &u16| {
            let (state, wire) = (
                &self.wires[usize::from(index)],
                &wiring.wires[usize::from(index)],
            );
            match wire.analog {
                true if state.phase == Phase::On => self.level_of(wiring, index)[0],
                true => 0.0,
                false => state.ramp.at(at) * wiring.feel(wire).sensitivity,
            }
        };
        let port = &self.ports[port];
        wires
            .map(level)
            .fold(port.ramp.at(at) * port.scale, f32::max)
    }

    /// How far in a wire's control is, after feel and beyond full.
    pub(super) fn level_of(&self, wiring: &Wiring, index: u16) -> [f32; 2] {
        let wire = &wiring.wires[usize::from(index)];
        if wire.control == Control::NONE {
            return [self.wires[usize::from(index)].driven, 0.0];
        }
        match wire.part {
            Part::Port(_) | Part::Switch => {
                let raw = self.held.level(wire.control);
                [shaping::amount(wiring.feel(wire), raw[0]), 0.0]
            }
            Part::Whole => self.whole_level(wiring, wire).0,
        }
    }

    /// The same for a whole line or plane, with how long it is.
    fn whole_level(&self, wiring: &Wiring, wire: &Wire) -> ([f32; 2], f32) {
        shaping::plane(wiring.feel(wire), self.held.level(wire.control))
    }
}
