//! Sticks, triggers and axes: what follows how far they are in, and what wants them far in.

use super::state::{Phase, State};
use crate::book::{is_beyond, let_go_at};
use crate::input::Control;
use crate::rig::{Wire, Wiring};
use crate::sheet::DeadZoneForm;

impl State {
    /// The wires that follow how far some controls are in, which one event moved together.
    ///
    /// A wire begins when its control leaves rest while its chord is satisfied and none longer is;
    /// it ends when the control is back at rest. What begins does so before anything ends, so that
    /// an action goes on while a stick swings from one of its arms to another.
    pub(super) fn follow(&mut self, wiring: &Wiring, controls: impl Iterator<Item = Control>) {
        let mut ending = std::mem::take(&mut self.ending);
        for control in controls {
            let wires = wiring.completed_by(control);
            if wires.is_empty() {
                continue;
            }
            if self.trail.is_kept() {
                self.tell_rest(wiring, control);
            }
            let raw = self.held.level(control);
            let mut longest = None;
            for &index in wires {
                let wire = &wiring.wires[usize::from(index)];
                if !wire.analog {
                    continue;
                }
                let away = is_away(wiring, wire, raw);
                let state = &mut self.wires[usize::from(index)];
                let leaving = away && !state.away;
                state.away = away;
                if state.phase == Phase::On {
                    self.mark_dirty(wire.action);
                    if !away {
                        ending.push(index);
                    }
                } else if leaving {
                    let longest = *longest.get_or_insert_with(|| self.longest(wiring, control));
                    if wire.held_len >= longest && self.is_ready(wiring, index, wire) {
                        self.begin_to_follow(wiring, index);
                    } else {
                        self.tell_why_not(wiring, index, wire);
                    }
                }
            }
        }
        for index in ending.drain(..) {
            self.wires[usize::from(index)].phase = Phase::Idle;
            self.turn_off(wiring, index);
        }
        self.ending = ending;
        if !self.taken.is_empty() {
            self.forget_taken();
        }
    }

    /// A wire follows its control from here on.
    pub(super) fn begin_to_follow(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        if wire.held_len > 0 {
            self.use_up_held(wiring, wire);
        }
        let state = &mut self.wires[usize::from(index)];
        state.phase = Phase::On;
        state.since = self.now;
        self.work(wiring, index);
        self.mark_dirty(wire.action);
    }

    /// Whether a wire's control is away from its rest, and far enough in where that has a grade.
    pub(super) fn is_in(&self, wiring: &Wiring, index: u16) -> bool {
        let wire = &wiring.wires[usize::from(index)];
        if wire.control == Control::NONE {
            return self.wires[usize::from(index)].driven > 0.0;
        }
        let raw = self.held.level(wire.control);
        match wire.analog {
            true => is_away(wiring, wire, raw),
            false => self.held.is_down(wire.control) && raw[0].abs() >= wire.grade,
        }
    }

    /// What wants a control further in than others do begins and ends by itself.
    #[inline]
    pub(super) fn grade(&mut self, wiring: &Wiring, control: Control) {
        if wiring.routes.get(control.index()).is_some_and(|r| r.graded) {
            self.judge_grades(wiring, control);
        }
    }

    #[inline(never)]
    fn judge_grades(&mut self, wiring: &Wiring, control: Control) {
        let raw = self.held.level(control)[0];
        let down = self.held.is_down(control);
        let mut longest = None;
        for &index in wiring.completed_by(control) {
            let wire = &wiring.wires[usize::from(index)];
            if wire.grade == 0.0 {
                continue;
            }
            let was_in = self.wires[usize::from(index)].away;
            let edge = if was_in {
                let_go_at(wire.grade)
            } else {
                wire.grade
            };
            let is_in = down && if was_in { raw > edge } else { raw >= edge };
            self.wires[usize::from(index)].away = is_in;
            if was_in && !is_in {
                self.let_go(wiring, index);
            } else if is_in && !was_in {
                let longest = *longest.get_or_insert_with(|| self.longest(wiring, control));
                if wire.held_len >= longest && self.is_ready(wiring, index, wire) {
                    self.engage(wiring, index, wire);
                } else {
                    self.tell_why_not(wiring, index, wire);
                }
            }
        }
    }

    /// How many inputs the longest chord holds that a movement of a control could complete now.
    pub(super) fn longest(&self, wiring: &Wiring, control: Control) -> u8 {
        let own = self.longest_ready(wiring, control);
        own.max(self.longest_relative(wiring, control))
    }

    /// The same for what moves with it: the halves of a stick that it leans to, or the whole.
    #[inline]
    pub(super) fn longest_relative(&self, wiring: &Wiring, control: Control) -> u8 {
        let (first, count) = control.relatives();
        if count == 0 {
            return 0;
        }
        let relatives = (first.0..first.0 + count).map(Control);
        relatives
            .filter(|&c| self.held.is_worked(c))
            .map(|c| self.longest_ready(wiring, c))
            .max()
            .unwrap_or(0)
    }

    fn longest_ready(&self, wiring: &Wiring, control: Control) -> u8 {
        let mut wires = wiring.completed_by(control).iter();
        let first = wires.find(|&&i| self.is_ready(wiring, i, &wiring.wires[usize::from(i)]));
        first.map_or(0, |&i| wiring.wires[usize::from(i)].held_len)
    }

    /// Works out anew which wires are away from rest, without beginning anything.
    pub(super) fn note_away(&mut self, wiring: &Wiring) {
        self.held.end_glides();
        for (index, wire) in wiring.wires.iter().enumerate() {
            if wire.analog || wire.grade > 0.0 {
                self.wires[index].away = self.is_in(wiring, index as u16);
            }
        }
    }
}

/// Whether a wire's control that is so far in is away from the rest that the wire's feel gives it.
#[inline]
pub(super) fn is_away(wiring: &Wiring, wire: &Wire, at: [f32; 2]) -> bool {
    let zone = &wiring.feel(wire).dead_zone;
    is_beyond(at, zone.inner, zone.form == DeadZoneForm::Axis)
}
