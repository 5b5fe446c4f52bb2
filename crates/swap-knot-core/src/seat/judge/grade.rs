//! What wants its trigger or half axis further in than others do.

use crate::book::let_go_at;
use crate::input::Control;
use crate::rig::Wiring;
use crate::seat::state::State;

impl State {
    /// What wants a control further in than others do begins and ends by itself.
    #[inline]
    pub(in crate::seat) fn grade(&mut self, wiring: &Wiring, control: Control) {
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
                match self.lack_beside(wiring, index, wire, longest) {
                    None => self.engage(wiring, index, wire),
                    Some(lack) => self.tell_lack(wiring, index, wire, lack),
                }
            }
        }
    }

    /// Works out anew which grades are reached, without beginning anything.
    pub(in crate::seat) fn note_grades(&mut self, wiring: &Wiring) {
        for (index, wire) in wiring.wires.iter().enumerate() {
            if wire.grade > 0.0 {
                let far = self.held.fresh_level(wire.control)[0];
                self.wires[index].away = self.held.is_down(wire.control) && far >= wire.grade;
            }
        }
    }
}
