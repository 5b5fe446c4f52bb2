//! What need not be judged: movements of which only the sum counts, or where they end.
//!
//! It writes only what the judge writes too (a level, a sum, the mark that an action has to be worked out
//! anew), and is off while somebody asked for outcomes. Between which edges a level moves on by itself is in
//! `book/glide`.

use super::state::{Phase, State};
use super::{Seat, shaping};
use crate::book::GLIDES;
use crate::input::{Control, Event, EventKind, PadButton, distance};
use crate::rig::{Alone, Wiring};

impl Seat {
    /// How many events were not judged since the seat was made; counted in debug builds, for tests that
    /// want to know that they tried it.
    #[doc(hidden)]
    pub fn short_ways(&self) -> u64 {
        self.state.short_ways
    }
}

impl State {
    /// Notes whether adding up is all that a movement of the mouse does.
    pub(in crate::seat) fn note_quick_mouse(&mut self, wiring: &Wiring) {
        let alone = wiring.lone_motion;
        let live = alone.is_some_and(|(wire, _)| self.live[usize::from(wire)]);
        self.quick_mouse = live && self.listed.is_none() && !self.trail.is_kept();
    }

    /// Takes in what most events do: a movement of which only the sum counts, or where it ends, so that
    /// it makes no difference when what is due in time begins. Answers whether it was one.
    #[inline(always)]
    pub(super) fn feed_quick(&mut self, event: &Event) -> bool {
        let was_quick = self.is_quick(event);
        if cfg!(debug_assertions) {
            self.short_ways += u64::from(was_quick);
        }
        was_quick
    }

    #[inline(always)]
    fn is_quick(&mut self, event: &Event) -> bool {
        match event.what {
            EventKind::MouseMove { x, y } if self.quick_mouse => {
                let (by, far) = distance([x, y]);
                let at = event.at.max(self.now);
                self.kind.mouse_move(event.device, at, far);
                self.add_up_mouse(by);
                true
            }
            EventKind::PadStick { stick, x, y } => {
                self.held.glide_stick(event.device, stick, [x, y])
            }
            EventKind::PadButton {
                button: PadButton::TriggerLeft,
                value,
            } => self.held.glide_trigger(event.device, 0, value),
            EventKind::PadButton {
                button: PadButton::TriggerRight,
                value,
            } => self.held.glide_trigger(event.device, 1, value),
            _ => false,
        }
    }

    /// What was judged may move on by itself, unless each movement is told of.
    pub(super) fn find_glide(&mut self, wiring: &Wiring, slot: usize, control: Control) {
        if !self.trail.is_kept() {
            self.held.find_glide(slot, control, &wiring.edges);
        }
    }

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
}
