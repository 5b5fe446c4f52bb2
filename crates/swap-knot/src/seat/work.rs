//! Buttons: wires engaged and let go, by the design's rules of chords and manners.

use super::Edge;
use super::state::{Phase, State};
use crate::input::{DeviceId, Modifier, Place, Time};
use crate::rig::{Control, Part, Wire, Wiring};
use crate::sheet::{Arm, Manner};

impl State {
    /// A button went down or up on a device. Doubled and missing events are told by the device's
    /// bit: a press counts only if it was up, and a release only if it was down.
    #[inline(always)]
    pub(super) fn button(
        &mut self,
        wiring: &Wiring,
        control: Control,
        down: bool,
        device: DeviceId,
    ) {
        let bit = 1_u16 << self.devices.slot(device);
        let held_by = &mut self.down[control.index()];
        let before = *held_by;
        let after = if down { before | bit } else { before & !bit };
        *held_by = after;
        if (before == 0) == (after == 0) {
            return;
        }
        let route = &wiring.routes[control.index()];
        if let Some((wire, action)) = route.lone_press {
            self.lone_press(usize::from(wire), action, down);
        } else if down {
            self.press(wiring, control);
        } else {
            self.release(wiring, control);
        }
    }

    /// The wheel turned by one notch: down and up at once.
    #[inline(never)]
    pub(super) fn notch(&mut self, wiring: &Wiring, control: Control) {
        self.press(wiring, control);
        for &wire in wiring.completed_by(control) {
            if self.wires[usize::from(wire)].phase != Phase::Idle {
                self.step(wiring, wire);
            }
        }
        self.release(wiring, control);
    }

    /// The short way of a control that works one plain press and nothing else.
    ///
    /// Down and up share every step, so that there is nothing for the processor to guess wrong.
    #[inline(always)]
    fn lone_press(&mut self, index: usize, action: u16, down: bool) {
        let wire = &mut self.wires[index];
        let counts = if down {
            self.live[index]
        } else {
            wire.phase == Phase::On
        };
        if !counts {
            return;
        }
        wire.phase = if down { Phase::On } else { Phase::Idle };
        let frame = self.frame.wrapping_add(1);
        let state = &mut self.actions[usize::from(action)];
        let before = state.on;
        state.on = if down { before + 1 } else { before - 1 };
        if before == u16::from(!down) {
            state.since = if down { self.now } else { state.since };
            state.began = if down { frame } else { state.began };
            state.ended = if down { state.ended } else { frame };
            self.note(action, None, if down { Edge::Began } else { Edge::Ended });
        }
    }

    /// Chord rule: of the chords that are satisfied, only the longest are begun.
    #[inline(never)]
    pub(super) fn press(&mut self, wiring: &Wiring, control: Control) {
        let mut longest = 0;
        for &index in wiring.completed_by(control) {
            let wire = &wiring.wires[usize::from(index)];
            if wire.held_len < longest {
                break;
            }
            if self.is_ready(wiring, index, wire) {
                longest = wire.held_len;
                if !wire.analog {
                    self.engage(wiring, index, wire);
                }
            }
        }
    }

    /// Whether a wire could begin if its control were pressed now.
    #[inline]
    pub(super) fn is_ready(&self, wiring: &Wiring, index: u16, wire: &Wire) -> bool {
        self.live[usize::from(index)]
            && (wire.held_len == 0 || self.holds(wiring, wire))
            && (!wire.strict || self.no_other_modifier(wiring, wire))
    }

    fn is_down(&self, control: Control) -> bool {
        self.down[control.index()] != 0
    }

    /// Whether everything that a chord wants held is down.
    fn holds(&self, wiring: &Wiring, wire: &Wire) -> bool {
        let mut held = wiring.held_of(wire).iter();
        held.all(|&[a, b]| self.is_down(a) || self.is_down(b))
    }

    fn no_other_modifier(&self, wiring: &Wiring, wire: &Wire) -> bool {
        const MODIFIERS: [Place; 8] = [
            Place::ControlLeft,
            Place::ControlRight,
            Place::ShiftLeft,
            Place::ShiftRight,
            Place::AltLeft,
            Place::AltRight,
            Place::MetaLeft,
            Place::MetaRight,
        ];
        debug_assert!(MODIFIERS.iter().all(|&p| Modifier::of_place(p).is_some()));
        MODIFIERS.map(Control::key).into_iter().all(|modifier| {
            !self.is_down(modifier)
                || wire.control == modifier
                || wiring
                    .held_of(wire)
                    .iter()
                    .any(|pair| pair.contains(&modifier))
        })
    }

    /// A button came up: what it completed ends by itself, what it was held for is broken off.
    #[inline(never)]
    pub(super) fn release(&mut self, wiring: &Wiring, control: Control) {
        let route = wiring.routes[control.index()];
        let start = route.start as usize;
        let middle = start + usize::from(route.completes);
        for &index in &wiring.touched[start..middle] {
            if !wiring.wires[usize::from(index)].analog {
                self.let_go(wiring, index);
            }
        }
        for &index in &wiring.touched[middle..middle + usize::from(route.held_in)] {
            let wire = &wiring.wires[usize::from(index)];
            if self.wires[usize::from(index)].phase != Phase::Idle && !self.holds(wiring, wire) {
                self.break_off(wiring, index);
            }
        }
    }

    #[inline]
    fn engage(&mut self, wiring: &Wiring, index: u16, wire: &Wire) {
        let now = self.now;
        if wire.held_len > 0 {
            self.use_up_held(wiring, wire);
        }
        let state = &mut self.wires[usize::from(index)];
        let (phase, since) = (state.phase, state.since);
        state.since = now;
        match wire.manner {
            Manner::Press => {
                state.phase = Phase::On;
                self.turn_on(wiring, index);
            }
            Manner::Release | Manner::Tap => state.phase = Phase::Pending,
            Manner::Hold => {
                state.phase = Phase::Pending;
                let after = wiring.actions[usize::from(wire.action)].timing.hold_after;
                let due = now.plus_secs(after);
                self.timers.push((due, index));
                self.next_timer = self.next_timer.min(due);
            }
            Manner::DoubleTap => {
                let timing = &wiring.actions[usize::from(wire.action)].timing;
                let in_time = now <= since.plus_secs(timing.double_tap_within);
                if phase == Phase::Tapped && in_time {
                    state.phase = Phase::On;
                    self.turn_on(wiring, index);
                } else {
                    state.phase = Phase::Pending;
                }
            }
        }
    }

    /// A chord uses its held parts up: a tap or hold that one of them might still have become is
    /// off.
    fn use_up_held(&mut self, wiring: &Wiring, wire: &Wire) {
        for pair in wiring.held_of(wire) {
            for &control in pair {
                for &other in wiring.completed_by(control) {
                    let phase = self.wires[usize::from(other)].phase;
                    if matches!(phase, Phase::Pending | Phase::Tapped) {
                        self.break_off(wiring, other);
                    }
                }
            }
        }
    }

    /// The completing input of a wire came up while the rest was held.
    #[inline]
    fn let_go(&mut self, wiring: &Wiring, index: u16) {
        let state = &mut self.wires[usize::from(index)];
        match state.phase {
            Phase::Idle | Phase::Tapped => {}
            Phase::On => {
                state.phase = Phase::Idle;
                self.turn_off(wiring, index);
            }
            Phase::Pending => {
                state.phase = Phase::Idle;
                let since = state.since;
                let wire = &wiring.wires[usize::from(index)];
                let timing = &wiring.actions[usize::from(wire.action)].timing;
                match wire.manner {
                    Manner::Release => self.pulse(wiring, index),
                    Manner::Tap if self.now <= since.plus_secs(timing.tap_within) => {
                        self.pulse(wiring, index);
                    }
                    Manner::DoubleTap => self.wires[usize::from(index)].phase = Phase::Tapped,
                    Manner::Hold => self.forget_timer(index),
                    Manner::Press | Manner::Tap => {}
                }
            }
        }
    }

    /// A wire ends before its time: a held part was let go, the focus went, the rig changed.
    pub(super) fn break_off(&mut self, wiring: &Wiring, index: u16) {
        let state = &mut self.wires[usize::from(index)];
        let phase = std::mem::take(&mut state.phase);
        state.level = [0.0; 2];
        match phase {
            Phase::Idle | Phase::Tapped => {}
            Phase::On => self.turn_off(wiring, index),
            Phase::Pending => self.forget_timer(index),
        }
    }

    fn pulse(&mut self, wiring: &Wiring, index: u16) {
        self.turn_on(wiring, index);
        self.turn_off(wiring, index);
    }

    fn forget_timer(&mut self, index: u16) {
        self.timers.retain(|&(_, wire)| wire != index);
        self.set_next_timer();
    }

    fn set_next_timer(&mut self) {
        let due = self.timers.iter().map(|&(due, _)| due);
        self.next_timer = due.min().unwrap_or(Time::NEVER);
    }

    /// Begins every hold that is due, in the order in which they are.
    #[cold]
    pub(super) fn run_timers(&mut self, wiring: &Wiring, until: Time) {
        while self.next_timer <= until {
            let Some(at) = self
                .timers
                .iter()
                .position(|&(due, _)| due == self.next_timer)
            else {
                break;
            };
            let (due, index) = self.timers.remove(at);
            self.now = due;
            self.wires[usize::from(index)].phase = Phase::On;
            self.turn_on(wiring, index);
            self.set_next_timer();
        }
        self.now = until;
    }

    /// A wire begins to work its action.
    #[inline]
    pub(super) fn turn_on(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        match wire.part {
            Part::Switch if wiring.actions[usize::from(wire.action)].toggle => {
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
            Part::Port(port) => {
                let state = &mut self.ports[usize::from(port)];
                state.count += 1;
                if state.count == 1 {
                    self.port_on(wiring, wire.action, port);
                }
                self.set_ramp(wiring, wire.action, port, wire.feel);
            }
        }
    }

    /// A wire stops working its action.
    #[inline]
    pub(super) fn turn_off(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        match wire.part {
            Part::Switch if wiring.actions[usize::from(wire.action)].toggle => {}
            Part::Switch => self.action_off(wire.action),
            Part::Whole => {
                self.action_off(wire.action);
                self.mark_dirty(wire.action);
            }
            Part::Port(port) => {
                let state = &mut self.ports[usize::from(port)];
                state.count -= 1;
                if state.count == 0 {
                    self.port_off(wiring, wire.action, port);
                }
                self.set_ramp(wiring, wire.action, port, wire.feel);
            }
        }
    }

    #[inline]
    fn port_on(&mut self, wiring: &Wiring, action: u16, port: u16) {
        let frame = self.frame.wrapping_add(1);
        let state = &mut self.ports[usize::from(port)];
        state.on = true;
        state.since = self.now;
        state.began = frame;
        if let Some(arm) = arm_of(wiring, action, port) {
            self.note(action, Some(arm), Edge::Began);
        }
        self.action_on(action);
    }

    #[inline]
    pub(super) fn port_off(&mut self, wiring: &Wiring, action: u16, port: u16) {
        let frame = self.frame.wrapping_add(1);
        let state = &mut self.ports[usize::from(port)];
        state.on = false;
        state.ended = frame;
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
            self.note(action, None, Edge::Began);
        }
    }

    #[inline]
    pub(super) fn action_off(&mut self, action: u16) {
        let frame = self.frame.wrapping_add(1);
        let state = &mut self.actions[usize::from(action)];
        state.on -= 1;
        if state.on == 0 {
            state.ended = frame;
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

    /// Everything is let go, whatever holds it: the focus went.
    ///
    /// A press that toggles stays as it is: nobody holds it down.
    #[inline(never)]
    pub(super) fn let_go_of_all(&mut self, wiring: &Wiring) {
        self.break_all_off(wiring);
        self.down.fill(0);
        self.devices.rest_all();
        for wire in &mut self.wires {
            wire.moved = false;
        }
    }

    /// Ends every action once; what is held stays held, but spent.
    pub(super) fn end_all(&mut self, wiring: &Wiring) {
        self.break_all_off(wiring);
        for action in 0..self.actions.len() as u16 {
            self.unlatch(action);
        }
    }

    fn break_all_off(&mut self, wiring: &Wiring) {
        for index in 0..self.wires.len() as u16 {
            self.break_off(wiring, index);
        }
    }

    /// Ends a press that toggles, if it is latched on.
    pub(super) fn unlatch(&mut self, action: u16) {
        if std::mem::take(&mut self.actions[usize::from(action)].latched) {
            self.action_off(action);
        }
    }

    /// A device is gone: everything that it alone held is let go.
    #[inline(never)]
    pub(super) fn unplug(&mut self, wiring: &Wiring, device: DeviceId) {
        let slot = self.devices.slot(device);
        let bit = 1_u16 << slot;
        for control in 0..self.down.len() {
            if self.down[control] & bit != 0 {
                self.down[control] &= !bit;
                if self.down[control] == 0 {
                    self.broken(wiring, Control(control as u16));
                }
            }
        }
        for control in self.devices.rest(slot) {
            self.rested(wiring, Control(control as u16));
        }
        self.devices.free(slot);
    }

    /// What a vanished button completed or was held for ends, without a tap or release of it.
    fn broken(&mut self, wiring: &Wiring, control: Control) {
        for &index in wiring.completed_by(control) {
            if !wiring.wires[usize::from(index)].analog {
                self.break_off(wiring, index);
            }
        }
        self.release(wiring, control);
    }
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
