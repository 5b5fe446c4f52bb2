//! What wants its trigger or half axis further in than others do, and the longest chord that a press could
//! complete.

use super::state::State;
use crate::book::let_go_at;
use crate::input::Control;
use crate::rig::Wiring;

impl State {
    /// What wants a control further in than others do begins and ends by itself.
    #[inline]
    pub(super) fn grade(&mut self, wiring: &Wiring, control: Control) {
        if wiring.routes.get(control.index()).is_some_and(|r| r.graded) {
            self.judge_grades(wiring, control);
        }
    }

    #[inline(never)]
    fn judge_grades(&mut self, wiring: &Wiring, control: Control) {
        let raw = self.held.fresh_level(control)[0];
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
        self.longest_of(wiring, control, |index| self.is_ready_at(wiring, index))
    }

    /// The same for what moves with it: the halves of a stick that it leans to, or the whole.
    #[inline]
    pub(super) fn longest_relative(&self, wiring: &Wiring, control: Control) -> u8 {
        self.longest_beside(wiring, control, &|index| self.is_ready_at(wiring, index))
    }

    fn is_ready_at(&self, wiring: &Wiring, index: u16) -> bool {
        self.is_ready(wiring, index, &wiring.wires[usize::from(index)])
    }

    /// How many inputs the longest chord holds that a control, or what moves with it, completes and that
    /// counts.
    pub(super) fn longest_of(
        &self,
        wiring: &Wiring,
        control: Control,
        counts: impl Fn(u16) -> bool,
    ) -> u8 {
        let own = longest_in(wiring, control, &counts);
        own.max(self.longest_beside(wiring, control, &counts))
    }

    #[inline]
    fn longest_beside(
        &self,
        wiring: &Wiring,
        control: Control,
        counts: &impl Fn(u16) -> bool,
    ) -> u8 {
        let (first, count) = control.relatives();
        let relatives = (first.0..first.0 + count).map(Control);
        let moved = relatives.filter(|&c| self.held.is_worked(c));
        moved
            .map(|c| longest_in(wiring, c, counts))
            .max()
            .unwrap_or(0)
    }

    /// Works out anew which grades are reached, without beginning anything.
    pub(super) fn note_grades(&mut self, wiring: &Wiring) {
        self.held.end_glides();
        for (index, wire) in wiring.wires.iter().enumerate() {
            if wire.grade > 0.0 {
                let far = self.held.fresh_level(wire.control)[0];
                self.wires[index].away = self.held.is_down(wire.control) && far >= wire.grade;
            }
        }
    }
}

/// The chords that a control completes are in the order of their length.
fn longest_in(wiring: &Wiring, control: Control, counts: impl Fn(u16) -> bool) -> u8 {
    let mut wires = wiring.completed_by(control).iter();
    let first = wires.find(|&&index| counts(index));
    first.map_or(0, |&index| wiring.wires[usize::from(index)].held_len)
}
