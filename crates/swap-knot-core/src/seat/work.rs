//! A wire works its action and stops: its port and the action go on and off, or over where they toggle.

use super::state::State;
use super::{Cause, Edge};
use crate::rig::{ActionWiring, Part, Wire, Wiring};
use crate::sheet::Arm;

impl State {
    /// A wire begins to work its action by its input, which is told.
    #[inline]
    pub(super) fn work(&mut self, wiring: &Wiring, index: u16) {
        if self.trail.is_kept() {
            self.work_told(wiring, index);
        } else {
            self.turn_on(wiring, index);
        }
    }

    /// A wire begins to work its action.
    #[inline]
    pub(super) fn turn_on(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        match wire.part {
            Part::Switch if wiring.actions[usize::from(wire.action)].easing.toggle => {
                let state = &mut self.actions[usize::from(wire.action)];
                state.latched = !state.latched;
                match state.latched {
                    true => self.action_on(wire.action),
                    false => self.action_off(wire.action),
                }
            }
            Part::Switch => self.action_on(wire.action),
            Part::Whole => {
                self.action_on(wire.action);
                self.mark_dirty(wire.action);
            }
            Part::Port(port) if toggles(wiring, wire) => self.flip(wiring, index, port),
            Part::Port(port) => {
                self.ramp_to(wiring, index, true);
                self.hold_port(wiring, wire.action, port);
            }
        }
    }

    /// A wire stops working its action.
    #[inline]
    pub(super) fn turn_off(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        match wire.part {
            Part::Switch if wiring.actions[usize::from(wire.action)].easing.toggle => {}
            Part::Switch => self.action_off(wire.action),
            Part::Whole => {
                self.action_off(wire.action);
                self.mark_dirty(wire.action);
            }
            Part::Port(_) if toggles(wiring, wire) => {}
            Part::Port(port) => {
                self.ramp_to(wiring, index, false);
                self.free_port(wiring, wire.action, port);
            }
        }
    }

    /// One more holds a port on.
    #[inline]
    pub(super) fn hold_port(&mut self, wiring: &Wiring, action: u16, port: u16) {
        let state = &mut self.ports[usize::from(port)];
        state.count += 1;
        if state.count == 1 {
            self.port_on(wiring, action, port);
        }
        self.mark_dirty(action);
    }

    /// One less does.
    #[inline]
    pub(super) fn free_port(&mut self, wiring: &Wiring, action: u16, port: u16) {
        let state = &mut self.ports[usize::from(port)];
        state.count -= 1;
        if state.count == 0 {
            self.port_off(wiring, action, port);
        }
        self.mark_dirty(action);
    }

    /// A press of an arm or pull that toggles: on with it, and off with its opposite; or off.
    fn flip(&mut self, wiring: &Wiring, index: u16, port: u16) {
        let wire = &wiring.wires[usize::from(index)];
        if self.ports[usize::from(port)].latched {
            self.unlatch_port(wiring, port);
            return;
        }
        let (feel, now) = (wiring.feel(wire), self.now);
        let state = &mut self.ports[usize::from(port)];
        state.latched = true;
        state.scale = feel.sensitivity;
        state.ramp.head_for(1.0, feel.ramp_up, now);
        self.keep_ramping(index, feel.ramp_up);
        self.hold_port(wiring, wire.action, port);
        let action = &wiring.actions[usize::from(wire.action)];
        if action.shape.has_arms() {
            // Negative and positive arms lie in pairs.
            self.unlatch_port(wiring, action.port + ((port - action.port) ^ 1));
        }
    }

    /// Ends an arm or pull that toggles, if it is latched on.
    pub(super) fn unlatch_port(&mut self, wiring: &Wiring, port: u16) {
        if !std::mem::take(&mut self.ports[usize::from(port)].latched) {
            return;
        }
        let (start, end) = wiring.port_range[usize::from(port)];
        let all = &wiring.port_wires[start as usize..end as usize];
        let (mut down, now) = (0.0, self.now);
        if let Some(&index) = all
            .iter()
            .find(|&&i| toggles(wiring, &wiring.wires[usize::from(i)]))
        {
            down = wiring.feel(&wiring.wires[usize::from(index)]).ramp_down;
            self.keep_ramping(index, down);
        }
        self.ports[usize::from(port)].ramp.head_for(0.0, down, now);
        self.free_port(wiring, wiring.port_action[usize::from(port)], port);
    }

    #[inline]
    fn port_on(&mut self, wiring: &Wiring, action: u16, port: u16) {
        let frame = self.frame.wrapping_add(1);
        self.order = self.order.wrapping_add(1);
        let state = &mut self.ports[usize::from(port)];
        state.order = self.order;
        state.since = self.now;
        state.began = frame;
        state.counted.begun = state.counted.begun.wrapping_add(1);
        if let Some(arm) = arm_of(wiring, action, port) {
            self.note(action, Some(arm), Edge::Began);
        }
        self.action_on(action);
    }

    #[inline]
    pub(super) fn port_off(&mut self, wiring: &Wiring, action: u16, port: u16) {
        let frame = self.frame.wrapping_add(1);
        let state = &mut self.ports[usize::from(port)];
        state.ended = frame;
        state.until = self.now;
        state.cause = self.cause;
        state.counted.end(self.cause);
        if self.cause == Cause::LetGo {
            state.let_go = frame;
        }
        if let Some(arm) = arm_of(wiring, action, port) {
            self.note(action, Some(arm), Edge::Ended);
        }
        self.action_off(action);
    }

    #[inline]
    pub(super) fn action_on(&mut self, action: u16) {
        let frame = self.frame.wrapping_add(1);
        let now = self.now;
        let state = &mut self.actions[usize::from(action)];
        state.on += 1;
        if state.on == 1 {
            state.since = now;
            state.began = frame;
            state.counted.begun = state.counted.begun.wrapping_add(1);
            self.note(action, None, Edge::Began);
        }
    }

    #[inline]
    pub(super) fn action_off(&mut self, action: u16) {
        let frame = self.frame.wrapping_add(1);
        let (now, cause) = (self.now, self.cause);
        let state = &mut self.actions[usize::from(action)];
        state.on -= 1;
        if state.on == 0 {
            state.ended = frame;
            state.until = now;
            state.cause = cause;
            state.counted.end(cause);
            if cause == Cause::LetGo {
                state.let_go = frame;
            }
            self.note(action, None, Edge::Ended);
        }
    }

    #[inline]
    pub(super) fn mark_dirty(&mut self, action: u16) {
        let state = &mut self.actions[usize::from(action)];
        if !state.dirty {
            state.dirty = true;
            self.dirty.push(action);
        }
    }

    /// Ends what toggles of an action, if it is latched on.
    pub(super) fn unlatch(&mut self, wiring: &Wiring, action: u16) {
        if std::mem::take(&mut self.actions[usize::from(action)].latched) {
            self.action_off(action);
        }
        let ActionWiring { port, ports, .. } = wiring.actions[usize::from(action)];
        for port in port..port + u16::from(ports) {
            self.unlatch_port(wiring, port);
        }
    }
}

/// Whether a wire flips its arm or pull rather than holding it: keys and buttons do where the action
/// toggles, and what follows how far it is in does not.
pub(super) fn toggles(wiring: &Wiring, wire: &Wire) -> bool {
    !wire.analog && wiring.actions[usize::from(wire.action)].easing.toggle
}

/// The arm that a port is, for actions that have arms.
#[inline]
pub(super) fn arm_of(wiring: &Wiring, action: u16, port: u16) -> Option<Arm> {
    let action = &wiring.actions[usize::from(action)];
    if !action.shape.has_arms() {
        return None;
    }
    Some(Arm::ALL[usize::from(port - action.port) + usize::from(action.first_arm)])
}
