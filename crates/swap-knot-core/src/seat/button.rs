//! A button of a device goes down or up: by the book, then by the rules of chords, or the short way.

use super::follow::follows;
use super::state::{Phase, State};
use super::{Cause, Edge, Outcome};
use crate::book::Change;
use crate::input::{Control, DeviceId, DeviceKind};
use crate::rig::{Lone, LoneHow, Wiring};

impl State {
    /// A button went down or up on a device. Doubled and missing events are told by the book: a
    /// press counts only if it was up, and a release only if it was down.
    #[inline(never)]
    pub(super) fn button(
        &mut self,
        wiring: &Wiring,
        control: Control,
        down: bool,
        device: DeviceId,
        kind: DeviceKind,
    ) {
        self.button_of(wiring, control, down, (device, kind));
    }

    /// The same as a part of what calls it: of a key, which is most of them.
    #[inline(always)]
    pub(super) fn button_of(
        &mut self,
        wiring: &Wiring,
        control: Control,
        down: bool,
        (device, kind): (DeviceId, DeviceKind),
    ) {
        let slot = self.held.slot(device);
        let change = self.held.button(slot, control, down);
        self.meant(device, kind, matches!(change, Change::Down { .. }));
        let (Change::Down { first: true } | Change::Up { last: true }) = change else {
            if down && self.trail.is_kept() && self.held.is_spent_on(slot, control) {
                self.tell(wiring, control, None, Outcome::Spent);
            }
            return self.edge(wiring, control, change);
        };
        // Touch inputs that the rig does not know have no route.
        let Some(route) = wiring.routes.get(control.index()) else {
            if down && self.trail.is_kept() {
                self.tell_silent(wiring, control);
            }
            return;
        };
        match &route.lone {
            // Where outcomes are told, each press is judged.
            Some(lone) if !self.trail.is_kept() => self.lone(wiring, control, lone, down),
            _ if down => self.press(wiring, control),
            _ => self.release(wiring, control),
        }
    }

    /// The short way of a control that works one thing, whatever else is held: what it leaves behind is
    /// the same as by the long one, so that another rig can go on with it.
    #[inline(always)]
    fn lone(&mut self, wiring: &Wiring, control: Control, lone: &Lone, down: bool) {
        if down {
            self.note_press(wiring, control);
        }
        self.work_lone(wiring, control, lone, down);
        if !down && !self.taken.is_empty() {
            self.forget_rested();
        }
    }

    #[inline(always)]
    fn work_lone(&mut self, wiring: &Wiring, control: Control, lone: &Lone, down: bool) {
        let index = usize::from(lone.wire);
        let live = self.live[index];
        let port = match lone.how {
            LoneHow::Press => return self.lone_press(lone, live, down),
            LoneHow::Port(port) => port,
            LoneHow::Manner if !down => {
                let wire = &wiring.wires[index];
                if !(self.held.is_followed(control) && follows(wiring, wire)) {
                    self.let_go(wiring, lone.wire);
                }
                return;
            }
            LoneHow::Manner if live && self.wires[index].phase != Phase::On => {
                return self.engage(wiring, lone.wire, &wiring.wires[index]);
            }
            LoneHow::Manner => return,
        };
        let wire = &mut self.wires[index];
        if down && live && wire.phase != Phase::On {
            wire.phase = Phase::On;
            wire.since = self.now;
            wire.ramp.head_for(1.0, 0.0, self.now);
            self.hold_port(wiring, lone.action, port);
        } else if !down && wire.phase == Phase::On && !self.held.is_followed(control) {
            wire.phase = Phase::Idle;
            wire.let_go_at = Some(self.now);
            wire.ramp.head_for(0.0, 0.0, self.now);
            self.free_port(wiring, lone.action, port);
        }
    }

    /// Down and up share every step, so that there is nothing for the processor to guess wrong.
    #[inline(always)]
    fn lone_press(&mut self, lone: &Lone, live: bool, down: bool) {
        let wire = &mut self.wires[usize::from(lone.wire)];
        let is_on = wire.phase == Phase::On;
        let counts = if down { live & !is_on } else { is_on };
        if !counts {
            return;
        }
        wire.phase = if down { Phase::On } else { Phase::Idle };
        wire.since = if down { self.now } else { wire.since };
        wire.let_go_at = if down { wire.let_go_at } else { Some(self.now) };
        let action = lone.action;
        let frame = self.frame.wrapping_add(1);
        let state = &mut self.actions[usize::from(action)];
        let before = state.on;
        state.on = if down { before + 1 } else { before - 1 };
        if before == u16::from(!down) {
            state.since = if down { self.now } else { state.since };
            state.began = if down { frame } else { state.began };
            state.ended = if down { state.ended } else { frame };
            state.until = if down { state.until } else { self.now };
            state.cause = if down { state.cause } else { self.cause };
            state.counted.begun = state.counted.begun.wrapping_add(u32::from(down));
            let is_let_go = !down & (self.cause == Cause::LetGo);
            state.let_go = if is_let_go { frame } else { state.let_go };
            state.counted.ended = state.counted.ended.wrapping_add(u32::from(!down));
            state.counted.let_go = state.counted.let_go.wrapping_add(u32::from(is_let_go));
            self.note(action, None, if down { Edge::Began } else { Edge::Ended });
        }
    }
}
