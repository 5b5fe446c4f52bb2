//! The values of actions, from their ports and whole inputs.

use super::shaping::{self, Ramp};
use super::state::{Base, Phase, State};
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
    #[inline]
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
    #[inline]
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
        let beyond = action.rate.is_some();
        let levels = self.levels(wiring, action, self.now);
        let base = self.base(action, &levels, beyond);
        let value = self.value_of(wiring, action, base, beyond);
        let ports = &mut self.ports[action.all_ports()];
        if action.pulled_by.is_some() {
            ports.iter_mut().for_each(|port| port.value = value[0]);
        } else {
            for (port, level) in ports.iter_mut().zip(levels) {
                port.value = within(level, beyond);
            }
        }
        let state = &mut self.actions[usize::from(index)];
        state.base = base;
        state.value = value;
        state.dirty = false;
    }

    /// Notes what the keys make of every action, for a state that comes from elsewhere.
    pub(super) fn note_bases(&mut self, wiring: &Wiring) {
        for (index, action) in wiring.actions.iter().enumerate() {
            let levels = self.levels(wiring, action, self.now);
            self.actions[index].base = self.base(action, &levels, action.rate.is_some());
        }
    }

    /// How far each port of an action is in at a moment, after feel and beyond full, but for a trigger
    /// that is all that it follows.
    #[inline(always)]
    pub(super) fn levels(&self, wiring: &Wiring, action: &ActionWiring, at: Time) -> [f32; PORTS] {
        let mut levels = [0.0; PORTS];
        for (port, level) in action.all_ports().zip(&mut levels) {
            *level = self.port_level(wiring, action, port, at);
        }
        levels
    }

    /// What the ports of an action make of it that are so far in: within full, or beyond it.
    #[inline]
    pub(super) fn base(&self, action: &ActionWiring, levels: &[f32; PORTS], beyond: bool) -> Base {
        match action.shape {
            // Told by whether it is on, see `Seat::space`.
            Shape::Press => Base::default(),
            Shape::Pull => {
                let length = within(levels[0], beyond);
                let value = [length, 0.0, 0.0];
                Base { value, length }
            }
            Shape::Line | Shape::Plane | Shape::Space => self.by_arms(action, levels, beyond),
        }
    }

    /// The value of an action of whose ports that is made.
    #[inline]
    pub(super) fn value_of(
        &self,
        wiring: &Wiring,
        action: &ActionWiring,
        base: Base,
        beyond: bool,
    ) -> [f32; 3] {
        match (action.shape, action.pulled_by) {
            (Shape::Press, _) | (Shape::Pull, None) => base.value,
            (Shape::Pull, Some(wire)) => {
                let far = self.follows(wiring, wire);
                [base.with_pull(far, beyond), 0.0, 0.0]
            }
            (Shape::Line | Shape::Plane | Shape::Space, _) => {
                self.with_whole(wiring, action, base, beyond)
            }
        }
    }

    /// Keys and sticks together: whichever goes further has it, and of equals the keys; rounding does
    /// not count.
    #[inline]
    fn with_whole(
        &self,
        wiring: &Wiring,
        action: &ActionWiring,
        mut base: Base,
        beyond: bool,
    ) -> [f32; 3] {
        let (start, end) = action.whole;
        for &index in &wiring.whole_wires[start as usize..end as usize] {
            if self.is_on(index) {
                let level = self.whole_level(wiring, &wiring.wires[usize::from(index)]);
                base = base.or_further(level, beyond);
            }
        }
        base.value
    }

    /// What the arms of an action make, and how long that is.
    fn by_arms(&self, action: &ActionWiring, levels: &[f32; PORTS], beyond: bool) -> Base {
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
            true => Base {
                value: value.map(|v| v / length * most),
                length: most,
            },
            false => Base { value, length },
        }
    }

    /// Two opposite ports, the negative one first.
    fn pair(&self, action: &ActionWiring, axis: usize, levels: &[f32; PORTS], beyond: bool) -> f32 {
        let first = usize::from(action.port) + axis * 2;
        let (minus, plus) = (&self.ports[first], &self.ports[first + 1]);
        let [down, up] = [levels[axis * 2], levels[axis * 2 + 1]].map(|l| within(l, beyond));
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

    /// How far a port is in: as far as that of its wires that goes furthest, but for a trigger that is
    /// all that its action follows.
    #[inline(always)]
    fn port_level(&self, wiring: &Wiring, action: &ActionWiring, port: usize, at: Time) -> f32 {
        let state = &self.ports[port];
        if self.ramping.is_empty() && at >= self.now {
            let pulled = action.pulled_by.is_some_and(|wire| self.is_on(wire));
            let is_held = state.count > u16::from(pulled);
            // Nothing has to be looked through where any of its keys takes it as far.
            if let Some(level) = wiring.port_keys[port]
                && self.drives == 0
                && !state.latched
            {
                // Without a branch: which keys are held is anybody's guess.
                return level * f32::from(u8::from(is_held));
            }
            if !is_held {
                return 0.0;
            }
        }
        self.furthest_of_port(wiring, action, port, at)
    }

    fn is_on(&self, wire: u16) -> bool {
        self.wires[usize::from(wire)].phase == Phase::On
    }

    /// Of all that work a port, the one that goes furthest, looked through.
    #[inline(never)]
    fn furthest_of_port(
        &self,
        wiring: &Wiring,
        action: &ActionWiring,
        port: usize,
        at: Time,
    ) -> f32 {
        let (start, end) = wiring.port_range[port];
        let wires = wiring.port_wires[start as usize..end as usize].iter();
        let level = |&index: &u16| {
            let (state, wire) = (
                &self.wires[usize::from(index)],
                &wiring.wires[usize::from(index)],
            );
            if wire.analog {
                return match Some(index) == action.pulled_by {
                    true => 0.0,
                    false => self.follows(wiring, index),
                };
            }
            match state.ramp.at(at) {
                0.0 => 0.0,
                far => far * wiring.feel(wire).sensitivity,
            }
        };
        let port = &self.ports[port];
        wires
            .map(level)
            .fold(port.ramp.at(at) * port.scale, f32::max)
    }

    /// How far in the control of a wire is that follows it, if it does.
    fn follows(&self, wiring: &Wiring, index: u16) -> f32 {
        match self.is_on(index) {
            true => self.level_of(wiring, index)[0],
            false => 0.0,
        }
    }

    /// How far in a wire's control is, after feel and beyond full.
    #[inline]
    pub(super) fn level_of(&self, wiring: &Wiring, index: u16) -> [f32; 2] {
        let wire = &wiring.wires[usize::from(index)];
        if wire.control == Control::NONE {
            return [self.wires[usize::from(index)].driven, 0.0];
        }
        match wire.part {
            Part::Port(_) | Part::Switch => {
                let [far, _] = self.held.level(wire.control);
                [shaping::amount(wiring.feel(wire), far), 0.0]
            }
            Part::Whole => self.whole_level(wiring, wire).0,
        }
    }

    /// The same for a whole line or plane, with how long it is.
    #[inline]
    fn whole_level(&self, wiring: &Wiring, wire: &Wire) -> ([f32; 2], f32) {
        shaping::plane(wiring.feel(wire), self.held.level(wire.control))
    }
}

/// An amount within full, or beyond it; it is a number.
#[inline]
fn within(far: f32, beyond: bool) -> f32 {
    if beyond || far < 1.0 { far } else { 1.0 }
}
