//! What begins by pressing, by the design's rules of chords and manners.

use super::follow::follows;
use crate::input::{Control, Time};
use crate::rig::{Wire, Wiring};
use crate::seat::state::{GaveUp, Phase, State};
use crate::seat::{Cause, Outcome};
use crate::sheet::Begins;

impl State {
    /// Chord rule: of the chords that are satisfied, only the longest are begun.
    #[inline(never)]
    pub(in crate::seat) fn press(&mut self, wiring: &Wiring, control: Control) {
        self.note_press(wiring, control);
        self.note_stirred(wiring, control);
        if self.trail.is_kept() {
            self.tell_silent(wiring, control);
            self.tell_wrong_order(wiring, control);
        }
        // It is a press of its own, whatever another device's belongs to.
        self.owned.retain(|owned| owned.control != control);
        let mut longest = self.longest_relative(wiring, control);
        let last_tap = self.last_tap_of(wiring, control);
        for &index in wiring.completed_by(control) {
            let wire = &wiring.wires[usize::from(index)];
            let lack = match self.lack_beside(wiring, index, wire, longest) {
                None => {
                    longest = longest.or(index, wire);
                    match wire {
                        // What follows is settled; what begins further in hides shorter ones from here on.
                        _ if wire.analog => {}
                        _ if wire.grade > 0.0 => {
                            self.tell(wiring, control, Some(index), Outcome::NotFarEnough);
                        }
                        _ => self.press_wire(wiring, index, last_tap),
                    }
                    continue;
                }
                Some(lack) => lack,
            };
            if !wire.analog {
                self.tell_lack(wiring, index, wire, lack);
            }
            if self.wires[usize::from(index)].phase == Phase::Tapped {
                // This press was not the second half of its double tap.
                self.wires[usize::from(index)].phase = Phase::Idle;
                self.give_up(wire.action, GaveUp::BrokenOff(Cause::ChordBroken));
            }
        }
        if !self.owned.is_empty() {
            for &index in wiring.completed_by(control) {
                self.drop_if_unheld(wiring, index);
            }
        }
    }

    /// A press works a wire, unless that is on already by what was down before, or a double tap has the
    /// press for itself.
    fn press_wire(&mut self, wiring: &Wiring, index: u16, last_tap: Option<u16>) {
        let wire = &wiring.wires[usize::from(index)];
        let others = |by: &u16| {
            let by_as_long = wiring.wires[usize::from(*by)].held_len == wire.held_len;
            *by != index && by_as_long && !self.goes_on_beside(wiring, index)
        };
        let by = last_tap.filter(others);
        if self.wires[usize::from(index)].phase == Phase::On {
            self.tell(wiring, wire.control, Some(index), Outcome::AlreadyOn);
        } else if let Some(by) = by {
            let row = wiring.rows[usize::from(by)];
            self.tell(wiring, wire.control, Some(index), Outcome::OtherManner(row));
        } else {
            self.engage(wiring, index, wire);
        }
    }

    /// Whether a wire takes part in a press that is the last tap of another one: as a value, or as one
    /// more tap of its own, which may be its last one too.
    fn goes_on_beside(&self, wiring: &Wiring, index: u16) -> bool {
        let (wire, state) = (
            &wiring.wires[usize::from(index)],
            &self.wires[usize::from(index)],
        );
        let taps_on = state.phase == Phase::Tapped && state.taps < wire.manner.gesture().taps;
        taps_on || self.is_last_tap(wiring, index) || follows(wiring, wire)
    }

    /// The wire whose last tap a press of a control is: it is nothing else besides.
    fn last_tap_of(&self, wiring: &Wiring, control: Control) -> Option<u16> {
        let mut all = wiring.completed_by(control).iter().copied();
        all.find(|&index| {
            let wire = &wiring.wires[usize::from(index)];
            self.is_last_tap(wiring, index) && self.is_ready(wiring, index, wire)
        })
    }

    /// Whether a press now is the last tap that a wire waits for.
    fn is_last_tap(&self, wiring: &Wiring, index: u16) -> bool {
        let (wire, state) = (
            &wiring.wires[usize::from(index)],
            &self.wires[usize::from(index)],
        );
        state.phase == Phase::Tapped && state.taps >= wire.manner.gesture().taps && {
            let easing = &wiring.actions[usize::from(wire.action)].easing;
            self.now <= state.since.plus_secs(easing.double_tap_within)
        }
    }

    /// A control was pressed: for chords whose parts are pressed together or latched by a tap.
    #[inline]
    pub(in crate::seat) fn note_press(&mut self, wiring: &Wiring, control: Control) {
        // Touch inputs that the rig does not know are in no chord.
        if let Some(at) = self.pressed_at.get_mut(control.index()) {
            *at = self.now;
        }
        if wiring.latches {
            self.note_part(wiring, control);
        }
    }

    /// Something went down or up that chords hold, or that a strict binding does not want held.
    #[inline]
    pub(super) fn note_stirred(&mut self, wiring: &Wiring, control: Control) {
        self.stirred |= wiring.routes.get(control.index()).is_some_and(|r| r.stirs);
    }

    #[inline]
    pub(in crate::seat) fn engage(&mut self, wiring: &Wiring, index: u16, wire: &Wire) {
        if !wire.plain {
            let easing = &wiring.actions[usize::from(wire.action)].easing;
            let over = |at: Time| at.plus_secs(easing.ignore_within);
            let let_go_at = self.wires[usize::from(index)].let_go_at;
            if let_go_at.is_some_and(|at| self.now < over(at)) {
                self.tell(wiring, wire.control, Some(index), Outcome::TooSoon);
                return;
            }
        }
        self.begin(wiring, index, wire);
    }

    /// A wire begins, whenever it ended last.
    pub(super) fn begin(&mut self, wiring: &Wiring, index: u16, wire: &Wire) {
        let now = self.now;
        if wire.held_len > 0 {
            self.use_up_held(wiring, wire);
            self.own(wiring, wire);
        }
        if wire.plain {
            let state = &mut self.wires[usize::from(index)];
            (state.phase, state.since) = (Phase::On, now);
            return self.work(wiring, index);
        }
        let easing = &wiring.actions[usize::from(wire.action)].easing;
        let gesture = wire.manner.gesture();
        let state = &mut self.wires[usize::from(index)];
        let was_tapped = state.phase == Phase::Tapped;
        let is_late = was_tapped && now > state.since.plus_secs(easing.double_tap_within);
        if !was_tapped || is_late {
            state.taps = 0;
        }
        state.since = now;
        let is_last = state.taps >= gesture.taps;
        if is_last && gesture.begins == Begins::Down {
            (state.phase, state.taps) = (Phase::On, 0);
            self.work(wiring, index);
        } else {
            state.phase = Phase::Pending;
            if is_last && gesture.begins == Begins::Held {
                let due = now.plus_secs(easing.hold_after);
                self.timers.push((due, index));
                self.next_timer = self.next_timer.min(due);
            }
        }
        if is_late {
            self.tell(wiring, wire.control, Some(index), Outcome::SecondTooLate);
            self.give_up(wire.action, GaveUp::TooLate);
        }
        if self.trail.is_kept() && self.wires[usize::from(index)].phase == Phase::Pending {
            self.tell_waiting(wiring, index);
        }
    }

    /// A chord uses its held parts up: a tap or hold that one of them might still have become is
    /// off.
    pub(super) fn use_up_held(&mut self, wiring: &Wiring, wire: &Wire) {
        self.pin_latches(wiring, wire);
        for pair in wiring.held_of(wire) {
            for &control in pair {
                for &other in wiring.completed_by(control) {
                    let phase = self.wires[usize::from(other)].phase;
                    if matches!(phase, Phase::Pending | Phase::Tapped) {
                        self.broken_by(wiring, other, Cause::ChordBroken);
                    }
                }
            }
        }
    }
}
