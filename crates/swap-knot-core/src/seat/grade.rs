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
