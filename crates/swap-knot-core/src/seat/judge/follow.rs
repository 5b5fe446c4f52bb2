//! Values follow what is held: keys, sticks, triggers and axes that work a line, plane, space or pull.
//!
//! Answers whether a wire that follows has its value now, by what is held now and never by the order in which
//! that came: its input is away from rest, the rest of its chord is held, no longer chord has it, and it is
//! not silent. What begins by pressing is in `press`.

use super::ready::{Lack, Longest};
use crate::book::is_beyond;
use crate::input::Control;
use crate::rig::{Part, Wire, Wiring};
use crate::seat::state::{Phase, State};
use crate::seat::work::toggles;
use crate::seat::{Cause, Outcome};
use crate::sheet::DeadZoneForm;

impl State {
    /// Has what follows some controls follow them, which one event moved together.
    pub(in crate::seat) fn follow(
        &mut self,
        wiring: &Wiring,
        controls: impl Iterator<Item = Control>,
    ) {
        let mut ending = std::mem::take(&mut self.ending);
        for control in controls {
            let wires = wiring.completed_by(control);
            if !wires.is_empty() {
                if self.trail.is_kept() {
                    self.tell_rest(wiring, control);
                }
                // Otherwise all of them come at once.
                if !self.stirred {
                    self.settle_wires(wiring, control, wires, &mut ending);
                }
            }
        }
        self.end_following(wiring, ending);
    }

    /// The same for all that follow how far something is in, where what else is held or live changed.
    pub(in crate::seat) fn settle_values(&mut self, wiring: &Wiring) {
        self.stirred = false;
        let mut ending = std::mem::take(&mut self.ending);
        for wires in wiring.levels.chunk_by(|a, b| {
            let control = |i: &u16| wiring.wires[usize::from(*i)].control;
            control(a) == control(b)
        }) {
            let control = wiring.wires[usize::from(wires[0])].control;
            self.settle_wires(wiring, control, wires, &mut ending);
        }
        self.end_following(wiring, ending);
    }

    fn settle_wires(
        &mut self,
        wiring: &Wiring,
        control: Control,
        wires: &[u16],
        ending: &mut Vec<(u16, Cause)>,
    ) {
        let level = self.held.level(control);
        let mut longest = None;
        for &index in wires {
            let wire = &wiring.wires[usize::from(index)];
            if !wire.analog {
                continue;
            }
            let is_in = is_away(wiring, wire, level);
            let state = &mut self.wires[usize::from(index)];
            let leaving = is_in && !state.away;
            state.away = is_in;
            state.waits &= is_in;
            let (is_on, waits) = (state.phase == Phase::On, state.waits);
            let lack = match is_in {
                false => None,
                true if waits => Some(Lack::Rest),
                true => self.lack_to_follow(wiring, index, wire, || {
                    *longest.get_or_insert_with(|| self.longest_held(wiring, control))
                }),
            };
            let works = is_in && lack.is_none();
            if is_on {
                self.mark_dirty(wire.action);
            }
            match (is_on, works) {
                (true, false) => ending.push((index, self.cause_of_end(is_in))),
                // What begins does so before anything ends, so that an action goes on while a stick swings
                // from one of its arms to another.
                (false, true) => self.begin_to_follow(wiring, index),
                (false, false) if leaving => {
                    lack.iter()
                        .for_each(|lack| self.tell_lack(wiring, index, wire, *lack));
                }
                _ => {}
            }
        }
    }

    /// Why something ends that follows: a greater reason is behind it all, or its input rests, or what
    /// is left of its chord is not enough.
    fn cause_of_end(&self, is_in: bool) -> Cause {
        match self.cause {
            Cause::LetGo if is_in => Cause::ChordBroken,
            outer => outer,
        }
    }

    fn end_following(&mut self, wiring: &Wiring, mut ending: Vec<(u16, Cause)>) {
        for (index, cause) in ending.drain(..) {
            let outer = std::mem::replace(&mut self.cause, cause);
            self.wires[usize::from(index)].phase = Phase::Idle;
            self.turn_off(wiring, index);
            self.end_latches(wiring, &wiring.wires[usize::from(index)]);
            self.cause = outer;
        }
        self.ending = ending;
        if !self.taken.is_empty() || !self.owned.is_empty() {
            self.forget_rested();
        }
    }

    fn begin_to_follow(&mut self, wiring: &Wiring, index: u16) {
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

    /// The longest chord that has a control, or what moves with it, for itself.
    fn longest_held(&self, wiring: &Wiring, control: Control) -> Longest {
        let route = wiring.routes.get(control.index());
        match route.is_some_and(|r| r.chorded) {
            true => self.longest_of(wiring, control, |index| self.has_its_control(wiring, index)),
            false => Longest::NONE,
        }
    }

    /// Whether a chord keeps its control from shorter ones: it follows it too, is on by it, or may still
    /// begin by it.
    fn has_its_control(&self, wiring: &Wiring, index: u16) -> bool {
        let (wire, state) = (
            &wiring.wires[usize::from(index)],
            &self.wires[usize::from(index)],
        );
        self.is_ready(wiring, index, wire)
            && (wire.analog
                || matches!(state.phase, Phase::On | Phase::Pending)
                || !wire.together
                    && !self.held.is_spent(wire.control)
                    && match wire.grade {
                        0.0 => !self.held.is_down_anywhere(wire.control),
                        _ => !state.away,
                    })
    }

    /// Situations, the rig or the devices changed: what is held already is taken up by what has a value
    /// now, and by presses that resume.
    ///
    /// `woken` are the wires that became live; of none given nothing but what is held changed.
    #[cold]
    pub(in crate::seat) fn take_up(&mut self, wiring: &Wiring, woken: Option<&[u16]>) {
        self.note_waits(wiring, woken);
        match woken {
            Some(woken) => {
                for &index in woken {
                    self.take_up_wire(wiring, index, true);
                }
                for at in 0..self.owned.len() {
                    let control = self.owned[at].control;
                    let (first, count) = control.relatives();
                    let all = (first.0..first.0 + count).map(Control).chain([control]);
                    for &index in all.flat_map(|c| wiring.completed_by(c)) {
                        self.drop_if_unheld(wiring, index);
                    }
                }
            }
            None => {
                for index in 0..wiring.wires.len() as u16 {
                    self.take_up_wire(wiring, index, false);
                }
                self.drop_unheld(wiring);
            }
        }
        self.settle_values(wiring);
    }

    fn take_up_wire(&mut self, wiring: &Wiring, index: u16, is_woken: bool) {
        let wire = &wiring.wires[usize::from(index)];
        let resumes = wiring.actions[usize::from(wire.action)].resumes;
        if !resumes || !self.may_be_taken_up(index) {
            return;
        }
        if wire.control == Control::NONE {
            return self.take_up_driven(wiring, index);
        }
        if wire.analog || !wire.manner.gesture().is_press() {
            return;
        }
        let goes_on = match follows(wiring, wire) {
            true => self.is_in(wiring, index),
            false => is_woken && self.may_resume(wiring, index),
        };
        if goes_on
            && self.came_in_order(wiring, wire)
            && self
                .lack_to_follow(wiring, index, wire, || {
                    self.longest_held(wiring, wire.control)
                })
                .is_none()
        {
            self.begin(wiring, index, wire);
        }
    }

    fn may_be_taken_up(&self, wire: u16) -> bool {
        let wire = usize::from(wire);
        self.live[wire] && self.wires[wire].phase == Phase::Idle
    }

    /// What does not resume waits until what works it has been at rest.
    pub(in crate::seat) fn note_waits(&mut self, wiring: &Wiring, woken: Option<&[u16]>) {
        for &index in woken.unwrap_or(&wiring.levels) {
            let (wire, at) = (&wiring.wires[usize::from(index)], usize::from(index));
            let resumes = wiring.actions[usize::from(wire.action)].resumes;
            let is_level = wire.analog && wire.control != Control::NONE;
            if resumes || !is_level || !self.may_be_taken_up(index) {
                continue;
            }
            // What was held for it already when a device came has nothing to do with that.
            let is_news = woken.is_some() || !self.wires[at].away;
            let waits = self.is_in(wiring, index) && (is_news || self.wires[at].waits);
            if waits && !self.wires[at].waits {
                self.tell(wiring, wire.control, Some(index), Outcome::Spent);
            }
            self.wires[at].waits = waits;
        }
    }

    /// Whether a press that resumes may go on by what is down: unless that worked something else, or
    /// is spent.
    fn may_resume(&mut self, wiring: &Wiring, index: u16) -> bool {
        let wire = &wiring.wires[usize::from(index)];
        let (first, count) = wire.control.relatives();
        let mut own = false;
        for &(taken, by) in &self.taken {
            if taken == wire.control || (first.0..first.0 + count).contains(&taken.0) {
                if by != wire.action {
                    return false;
                }
                own = true;
            }
        }
        if own {
            self.held.unspend(wire.control);
            self.taken.retain(|(taken, _)| *taken != wire.control);
        }
        self.held.is_down(wire.control) && self.held.fresh_level(wire.control)[0] >= wire.grade
    }

    /// Whether the parts of a chord went down before what completes it.
    fn came_in_order(&self, wiring: &Wiring, wire: &Wire) -> bool {
        let when = |c: Control| self.pressed_at.get(c.index()).copied().unwrap_or_default();
        let completed = when(wire.control);
        let in_order = |part: &[Control; 2]| {
            part.iter().any(|&c| {
                let was_down = self.held.is_held(c) && when(c) <= completed;
                was_down || self.is_latched(wiring, wire, c)
            })
        };
        wiring.held_of(wire).iter().all(in_order)
    }

    /// Keys and buttons that are followed and have no value any more end, and so does what a longer
    /// chord has taken up.
    pub(in crate::seat) fn drop_unheld(&mut self, wiring: &Wiring) {
        for index in 0..wiring.wires.len() as u16 {
            self.drop_if_unheld(wiring, index);
        }
    }

    pub(super) fn drop_if_unheld(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        let is_on = self.wires[usize::from(index)].phase == Phase::On;
        if !is_on || wire.control == Control::NONE || wire.analog || !follows(wiring, wire) {
            return;
        }
        if !self.held.is_followed(wire.control) || self.is_anothers(wiring, wire) {
            self.break_off(wiring, index);
        }
    }

    /// Whether a wire's control is away from its rest, and far enough in where that has a grade.
    pub(in crate::seat) fn is_in(&self, wiring: &Wiring, index: u16) -> bool {
        let wire = &wiring.wires[usize::from(index)];
        if wire.control == Control::NONE {
            return self.wires[usize::from(index)].driven > 0.0;
        }
        let raw = self.held.level(wire.control);
        match wire.analog {
            true => is_away(wiring, wire, raw),
            false => self.held.is_followed(wire.control) && raw[0].abs() >= wire.grade,
        }
    }
}

/// Whether a wire has the value of what is held, rather than beginning by a press: a key or button for an
/// arm or pull that it does not toggle, and whatever says how far it is in.
pub(in crate::seat) fn follows(wiring: &Wiring, wire: &Wire) -> bool {
    wire.analog
        || wire.part != Part::Switch
            && wire.manner.gesture().is_press()
            && !wire.together
            && !toggles(wiring, wire)
}

/// Whether a wire's control that is so far in is away from the rest that the wire's feel gives it.
#[inline]
pub(in crate::seat) fn is_away(wiring: &Wiring, wire: &Wire, at: [f32; 2]) -> bool {
    let zone = &wiring.feel(wire).dead_zone;
    is_beyond(at, zone.inner, zone.form == DeadZoneForm::Axis)
}
