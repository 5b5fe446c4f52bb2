//! Most movements of a stick or trigger change nothing but its level: bounds are found for those, so
//! that they cost a few comparisons.

use super::judge::is_away;
use super::shaping;
use super::state::{Phase, State};
use crate::book::{GLIDES, Glide, let_go_at};
use crate::input::Control;
use crate::rig::{Alone, Wiring};
use crate::sheet::DeadZoneForm;

impl State {
    /// What glided has to be worked out anew, and nothing else.
    #[inline]
    pub(super) fn settle_glides(&mut self, wiring: &Wiring) {
        for at in 0..GLIDES {
            if !self.held.settle_glide(at) {
                continue;
            }
            let to = self.held.glided_to(at);
            for moves in &wiring.moves[at] {
                match (to, &moves.alone) {
                    _ if self.actions[usize::from(moves.action)].dirty => {}
                    (Some(to), Some(alone)) => self.glide_to(wiring, moves.action, alone, to),
                    _ => self.mark_dirty(moves.action),
                }
            }
        }
    }

    /// Works out an action of which nothing changed but where the one thing is that it follows.
    #[inline(always)]
    fn glide_to(&mut self, wiring: &Wiring, action: u16, alone: &Alone, to: [f32; 2]) {
        if self.wires[usize::from(alone.wire)].phase != Phase::On {
            return;
        }
        let feel = &wiring.feels[usize::from(alone.feel)];
        let state = &mut self.actions[usize::from(action)];
        match alone.port {
            Some(port) => {
                let far = state.base.with_pull(shaping::amount(feel, to[0]), false);
                state.value[0] = far;
                self.ports[usize::from(port)].value = far;
            }
            None => state.value = state.base.or_further(shaping::plane(feel, to), false).value,
        }
    }

    /// Finds the bounds for a stick (with its halves) or a trigger, after a movement that changed
    /// more than its level.
    pub(super) fn find_glide(
        &mut self,
        wiring: &Wiring,
        slot: usize,
        whole: Control,
        halves: &[Control],
    ) {
        let spent = |c: &Control| self.held.is_spent_on(slot, *c);
        let mut glide = Glide::ANY;
        if self.trail.is_kept() || spent(&whole) || halves.iter().any(spent) {
            glide = Glide::NONE;
        }
        for (n, half) in halves.iter().enumerate() {
            // Up and down lie on the second axis, left and right on the first; see `Direction`.
            let axis = usize::from(n < 2);
            let positive = n == 0 || n == 3;
            let (low, high) = self.bounds(wiring, slot, *half);
            if positive {
                glide.above[axis] = glide.above[axis].max(low);
                glide.below[axis] = glide.below[axis].min(high);
            } else {
                glide.above[axis] = glide.above[axis].max(-high);
                glide.below[axis] = glide.below[axis].min(-low);
            }
        }
        if halves.is_empty() {
            let (low, high) = self.bounds(wiring, slot, whole);
            // It goes one way only.
            let low = low.max((0.0_f32).next_down());
            glide.above[0] = glide.above[0].max(low);
            glide.below[0] = glide.below[0].min(high);
        } else {
            self.bound_distance(wiring, whole, &mut glide);
        }
        self.held.set_glide(slot, whole, glide);
    }

    /// How far from the middle a stick stays, for what it works as a whole.
    fn bound_distance(&self, wiring: &Wiring, whole: Control, glide: &mut Glide) {
        for &index in wiring.completed_by(whole) {
            let zone = &wiring.feel(&wiring.wires[usize::from(index)]).dead_zone;
            let square = zone.inner * zone.inner;
            let wire = &wiring.wires[usize::from(index)];
            match (zone.form, is_away(wiring, wire, self.held.level(whole))) {
                // By axes it has corners.
                (DeadZoneForm::Axis, _) => *glide = Glide::NONE,
                (DeadZoneForm::Round, true) => glide.beyond = glide.beyond.max(square),
                (DeadZoneForm::Round, false) => glide.within = glide.within.min(square),
            }
        }
    }

    /// Between which amounts a trigger or half stays as it is: down or up, at rest or not, in far
    /// enough or not, for all that it works.
    fn bounds(&self, wiring: &Wiring, slot: usize, control: Control) -> (f32, f32) {
        let (mut low, mut high) = self.held.stays_down_or_up(slot, control);
        for &index in wiring.completed_by(control) {
            let (wire, state) = (
                &wiring.wires[usize::from(index)],
                &self.wires[usize::from(index)],
            );
            let inner = wiring.feel(wire).dead_zone.inner;
            let is_away = || is_away(wiring, wire, self.held.level(control));
            match (wire.analog, state.away) {
                (true, _) if is_away() => low = low.max(inner),
                (true, _) => high = high.min(inner),
                (false, _) if wire.grade == 0.0 => {}
                (false, true) => low = low.max(let_go_at(wire.grade)),
                (false, false) => high = high.min(wire.grade),
            }
        }
        (low, high)
    }
}
