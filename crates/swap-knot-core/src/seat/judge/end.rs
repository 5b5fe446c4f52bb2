//! What ends: let go, broken off, come to nothing, or decided because its time is over.

use super::follow::follows;
use crate::input::{Control, Time};
use crate::rig::Wiring;
use crate::seat::shaping::Ramp;
use crate::seat::state::{GaveUp, Phase, State};
use crate::seat::{Cause, Outcome};
use crate::sheet::Begins;

impl State {
    /// A button came up: what it completed ends by itself, what it was held for is broken off.
    #[inline(never)]
    pub(in crate::seat) fn release(&mut self, wiring: &Wiring, control: Control) {
        let is_followed = self.held.is_followed(control);
        for &index in wiring.completed_by(control) {
            let wire = &wiring.wires[usize::from(index)];
            if !(wire.analog || is_followed && follows(wiring, wire)) {
                self.let_go(wiring, index);
            }
        }
        if wiring.latches {
            self.latch_part(wiring, control);
        }
        self.break_chords(wiring, control);
        self.note_stirred(wiring, control);
        if !self.taken.is_empty() || !self.owned.is_empty() {
            self.forget_rested();
        }
    }

    /// Chords that a control is held in end where nothing else holds them.
    pub(in crate::seat) fn break_chords(&mut self, wiring: &Wiring, control: Control) {
        for &index in wiring.held_in(control) {
            let wire = &wiring.wires[usize::from(index)];
            let working = matches!(
                self.wires[usize::from(index)].phase,
                Phase::On | Phase::Pending
            );
            if !working || self.holds(wiring, wire) {
                continue;
            }
            if wire.together && self.cause == Cause::LetGo {
                // None of its parts is more the last one than another.
                self.let_go(wiring, index);
            } else {
                self.broken_by(wiring, index, Cause::ChordBroken);
            }
        }
    }

    /// The completing input of a wire came up while the rest was held.
    #[inline]
    pub(in crate::seat) fn let_go(&mut self, wiring: &Wiring, index: u16) {
        let now = self.now;
        let state = &mut self.wires[usize::from(index)];
        if matches!(state.phase, Phase::On | Phase::Pending) {
            state.let_go_at = Some(now);
        }
        match state.phase {
            Phase::Idle | Phase::Tapped => {}
            Phase::On => {
                state.phase = Phase::Idle;
                self.turn_off(wiring, index);
            }
            Phase::Pending => {
                let (since, taps) = (state.since, state.taps);
                (state.phase, state.taps) = (Phase::Idle, 0);
                let wire = &wiring.wires[usize::from(index)];
                let action = wire.action;
                let easing = &wiring.actions[usize::from(action)].easing;
                let gesture = wire.manner.gesture();
                let was_tap = || now <= since.plus_secs(easing.tap_within);
                let is_last = taps >= gesture.taps;
                match gesture.begins {
                    Begins::Up if is_last => self.pulse(wiring, index),
                    Begins::UpSoon if is_last && was_tap() => self.pulse(wiring, index),
                    _ if !is_last && was_tap() => {
                        let state = &mut self.wires[usize::from(index)];
                        (state.phase, state.taps) = (Phase::Tapped, taps + 1);
                        if self.trail.is_kept() {
                            self.tell_waiting(wiring, index);
                        }
                    }
                    begins => {
                        let is_short = is_last && begins == Begins::Held;
                        let (outcome, why) = match is_short {
                            true => (Outcome::TooShort, GaveUp::TooShort),
                            false => (Outcome::TooLong, GaveUp::TooLong),
                        };
                        if is_short {
                            self.forget_timer(index);
                        }
                        self.tell(wiring, wire.control, Some(index), outcome);
                        self.give_up(action, why);
                    }
                }
            }
        }
        self.end_latches(wiring, &wiring.wires[usize::from(index)]);
    }

    /// The same for a reason of its own, unless a greater one is behind it all.
    pub(super) fn broken_by(&mut self, wiring: &Wiring, index: u16, cause: Cause) {
        let outer = self.cause;
        if outer == Cause::LetGo {
            self.cause = cause;
        }
        self.break_off(wiring, index);
        self.cause = outer;
    }

    /// An attempt that was not decided yet comes to nothing.
    pub(super) fn give_up(&mut self, action: u16, why: GaveUp) {
        let frame = self.frame.wrapping_add(1);
        let state = &mut self.actions[usize::from(action)];
        state.gave_up = frame;
        state.why_gave_up = why;
        state.counted.gave_up = state.counted.gave_up.wrapping_add(1);
    }

    /// A wire ends before its time: a held part was let go, the focus went, the rig changed.
    pub(in crate::seat) fn break_off(&mut self, wiring: &Wiring, index: u16) {
        let why = GaveUp::BrokenOff(self.cause);
        let state = &mut self.wires[usize::from(index)];
        let phase = std::mem::take(&mut state.phase);
        state.taps = 0;
        match phase {
            Phase::Idle => {}
            Phase::On => self.turn_off(wiring, index),
            Phase::Tapped => {
                self.tell_broken(wiring, index);
                self.give_up(wiring.wires[usize::from(index)].action, why);
            }
            Phase::Pending => {
                self.forget_timer(index);
                self.tell_broken(wiring, index);
                self.give_up(wiring.wires[usize::from(index)].action, why);
            }
        }
        if phase != Phase::Idle {
            self.end_latches(wiring, &wiring.wires[usize::from(index)]);
        }
        // What is broken off has no way down.
        self.wires[usize::from(index)].ramp = Ramp::default();
    }

    fn pulse(&mut self, wiring: &Wiring, index: u16) {
        self.work(wiring, index);
        self.turn_off(wiring, index);
    }

    fn forget_timer(&mut self, index: u16) {
        self.timers.retain(|&(_, wire)| wire != index);
        self.set_next_timer();
    }

    pub(in crate::seat) fn set_next_timer(&mut self) {
        let due = self.timers.iter().map(|&(due, _)| due);
        self.next_timer = due.min().unwrap_or(Time::NEVER);
    }

    /// Begins every hold that is due, in the order in which they are.
    #[cold]
    pub(in crate::seat) fn run_timers(&mut self, wiring: &Wiring, until: Time) {
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
            self.work(wiring, index);
            self.set_next_timer();
        }
        self.now = until;
    }
}
