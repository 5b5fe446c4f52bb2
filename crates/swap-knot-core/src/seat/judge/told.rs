//! What became of an input, told by the judge while it judges, where somebody asked for it.

use super::follow::is_away;
use super::ready::Lack;
use crate::input::{Control, Input, writes_text};
use crate::rig::{NotLive, Part, Silent, Wire, Wiring};
use crate::seat::state::{Phase, State};
use crate::seat::trail::Of;
use crate::seat::work::toggles;
use crate::seat::{Cause, Edge, Outcome};
use crate::sheet::Begins;

impl State {
    /// Nothing that counts is bound to a control: what would be, or that there is nothing.
    #[cold]
    pub(in crate::seat) fn tell_silent(&mut self, wiring: &Wiring, control: Control) {
        // A stick that is bound as a whole is no half that is bound to nothing.
        let (first, count) = control.relatives();
        let relatives = (first.0..first.0 + count).map(Control);
        let mut all = relatives.chain([control]);
        let mut is_none =
            wiring.held_in(control).is_empty() && all.all(|c| wiring.completed_by(c).is_empty());
        let input = self.input_of(control);
        let of_it = |s: &&Silent| input.is_some_and(|input| s.inputs.contains(&input));
        for silent in wiring.silent.iter().filter(of_it) {
            is_none = false;
            let outcome = match silent.is_off {
                true => Outcome::SwitchedOff,
                false => Outcome::NotInForce,
            };
            self.tell_of(control, Of::None, Some(silent.row), outcome);
        }
        if is_none {
            // What is typed is nobody's business.
            let writes = matches!(input, Some(Input::Key(place)) if writes_text(place));
            let outcome = match self.trail.typing.filter(|_| writes) {
                Some(by) => Outcome::NotLive(NotLive::Typing(by)),
                None => Outcome::NotBound,
            };
            self.tell_of(control, Of::None, None, outcome);
        }
    }

    /// A wire begins to work its action, and what comes of that is told.
    #[cold]
    pub(in crate::seat) fn work_told(&mut self, wiring: &Wiring, index: u16) {
        let before = self.log.end();
        self.turn_on(wiring, index);
        self.tell_worked(wiring, index, before);
    }

    /// A wire began to work its action; `before` is how many edges there were until then.
    fn tell_worked(&mut self, wiring: &Wiring, index: u16, before: u64) {
        let wire = &wiring.wires[usize::from(index)];
        let began = self.log.since(before).any(|h| h.edge == Edge::Began);
        let toggles = match wire.part {
            Part::Switch => wiring.actions[usize::from(wire.action)].easing.toggle,
            _ => toggles(wiring, wire),
        };
        let is_latched = match wire.part {
            Part::Port(port) => self.ports[usize::from(port)].latched,
            _ => self.actions[usize::from(wire.action)].latched,
        };
        let outcome = match began {
            true => Outcome::Worked,
            false if toggles && !is_latched => Outcome::ToggledOff,
            false => Outcome::AlreadyOn,
        };
        self.tell(wiring, wire.control, Some(index), outcome);
    }

    /// What is not decided yet, and until when.
    #[cold]
    pub(super) fn tell_waiting(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        let timing = &wiring.actions[usize::from(wire.action)].easing;
        let state = &self.wires[usize::from(index)];
        let gesture = wire.manner.gesture();
        let is_last = state.taps >= gesture.taps;
        let within = match (gesture.begins, state.phase) {
            (_, Phase::Tapped) => Some(timing.double_tap_within),
            (Begins::Held, _) if is_last => Some(timing.hold_after),
            (Begins::Up, _) if is_last => None,
            _ => Some(timing.tap_within),
        };
        let until = within.map(|within| state.since.plus_secs(within));
        self.tell(
            wiring,
            wire.control,
            Some(index),
            Outcome::Waiting { until },
        );
    }

    /// What was not decided yet came to nothing.
    #[inline(always)]
    pub(super) fn tell_broken(&mut self, wiring: &Wiring, index: u16) {
        if self.trail.is_kept() {
            let cause = self.cause;
            let control = wiring.wires[usize::from(index)].control;
            self.tell(wiring, control, Some(index), Outcome::BrokenOff(cause));
        }
    }

    /// Tells what a wire lacked to work when its control went down, or left its rest.
    #[inline(always)]
    pub(super) fn tell_lack(&mut self, wiring: &Wiring, index: u16, wire: &Wire, lack: Lack) {
        if self.trail.is_kept()
            && let Some(outcome) = self.lacking(wiring, index, lack)
        {
            self.tell(wiring, wire.control, Some(index), outcome);
        }
    }

    #[cold]
    fn lacking(&self, wiring: &Wiring, index: u16, lack: Lack) -> Option<Outcome> {
        let blocked = || self.trail.blocked.get(usize::from(index)).copied();
        Some(match lack {
            Lack::Live => Outcome::NotLive(blocked().flatten().unwrap_or(NotLive::Elsewhere)),
            Lack::Part(part) => return self.why_not_held(part),
            Lack::Strict(modifier) => return modifier.input().map(Outcome::Strict),
            Lack::Together => Outcome::NotTogether,
            Lack::Longer(by) => Outcome::LongerChord(wiring.rows[usize::from(by)]),
            Lack::Rest => Outcome::Spent,
        })
    }

    /// What a part of a chord lacks that is not held.
    fn why_not_held(&self, [a, b]: [Control; 2]) -> Option<Outcome> {
        let unheard = |c: &Control| self.held.is_down_anywhere(*c) && !self.held.is_held(*c);
        let spent = [a, b].into_iter().find(unheard);
        match spent {
            Some(spent) => self.input_of(spent).map(Outcome::PartSpent),
            None => self.input_of(a).map(Outcome::NotHeld),
        }
    }

    /// A part of chords went down whose completing input is down already: it came too late.
    #[cold]
    pub(super) fn tell_wrong_order(&mut self, wiring: &Wiring, part: Control) {
        for &index in wiring.held_in(part) {
            let wire = &wiring.wires[usize::from(index)];
            let is_all_held = self.live[usize::from(index)]
                && self.held.is_down(wire.control)
                && !self.fresh.has(wire.control)
                && !wire.together
                && self.wires[usize::from(index)].phase == Phase::Idle
                && self.holds(wiring, wire);
            if let Some(input) = self.input_of(part).filter(|_| is_all_held) {
                self.tell(
                    wiring,
                    wire.control,
                    Some(index),
                    Outcome::WrongOrder(input),
                );
            }
        }
    }

    /// A stick or trigger moved, and its wires that are live stayed at rest or too far out.
    #[cold]
    pub(super) fn tell_rest(&mut self, wiring: &Wiring, control: Control) {
        let raw = self.held.level(control);
        if raw == [0.0; 2] || self.cause != Cause::LetGo {
            return;
        }
        for &index in wiring.completed_by(control) {
            let wire = &wiring.wires[usize::from(index)];
            let is_off =
                self.live[usize::from(index)] && self.wires[usize::from(index)].phase != Phase::On;
            let is_away = is_away(wiring, wire, raw);
            let is_ready = is_off && self.is_ready(wiring, index, wire);
            let outcome = match (wire.analog, is_away) {
                _ if !is_ready => continue,
                (_, false) => Outcome::AtRest,
                (false, true) if !self.held.is_down(control) => Outcome::NotFarEnough,
                _ => continue,
            };
            self.tell(wiring, control, Some(index), outcome);
        }
    }
}
