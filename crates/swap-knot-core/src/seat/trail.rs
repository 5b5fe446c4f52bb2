//! The trail that the judge leaves where somebody asked for it: what became of an input for each
//! binding that it might have worked.

use std::collections::VecDeque;

use super::state::{Phase, State};
use super::work::toggles;
use super::{Cause, Edge, Outcome, Seat, Told};
use crate::input::{Control, DeviceId, Input, Time, writes_text};
use crate::law::Bound;
use crate::rig::{NotLive, Part, Rig, Silent, Wire, Wiring, blocked};
use crate::sheet::{ActionId, Begins, Row, SituationId};

/// How far back a movement is looked for that goes on.
const GOES_ON: usize = 16;

/// One step of the trail.
#[derive(Clone, Debug, PartialEq)]
struct Step {
    at: Time,
    last: Time,
    times: u32,
    device: DeviceId,
    input: Input,
    row: Option<Row>,
    of: Of,
    outcome: Outcome,
}

/// The binding that a step is about.
#[derive(Clone, Debug, PartialEq)]
enum Of {
    None,
    /// By the wire, in the rig in play.
    Wire(u16),
    /// As it was, of a rig before.
    Before(Box<Bound>),
}

/// The newest steps; empty, and without room, while nobody asked.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Trail {
    steps: VecDeque<Step>,
    kept: usize,
    /// Why each wire is not live; the judge itself has only whether.
    blocked: Vec<Option<NotLive>>,
    /// Where text is typed now.
    typing: Option<SituationId>,
}

impl Trail {
    /// Whether somebody asked.
    #[inline(always)]
    pub(super) const fn is_kept(&self) -> bool {
        self.kept != 0
    }

    fn push(&mut self, step: Step) {
        if self.steps.len() >= self.kept {
            self.steps.pop_front();
        }
        self.steps.push_back(step);
    }

    /// A movement that goes on is one step, however many events tell it.
    fn push_movement(&mut self, step: Step) {
        let is_movement =
            |s: &&mut Step| s.last != s.at || s.times > 1 || is_movement(s.input, s.outcome);
        let newest = self.steps.iter_mut().rev().take(GOES_ON);
        let same = |s: &Step| {
            (s.input, s.device, s.row, &s.of, s.outcome)
                == (step.input, step.device, step.row, &step.of, step.outcome)
        };
        if let Some(before) = newest.take_while(is_movement).find(|s| same(s)) {
            before.last = step.at;
            before.times = before.times.saturating_add(1);
            return;
        }
        self.push(step);
    }

    /// Another rig has other wires; another sheet has other ids as well, and what was told of them is over.
    pub(super) fn rewire(&mut self, old: &Rig, new: &Rig) {
        self.blocked.clear();
        if old.sheet().stamp() != new.sheet().stamp() {
            self.steps.clear();
        }
        for step in &mut self.steps {
            if let Of::Wire(wire) = step.of {
                let bound = binding(old, wire).cloned();
                step.of = bound.map_or(Of::None, |b| Of::Before(Box::new(b)));
            }
        }
    }
}

/// The most outcomes that are kept.
const MOST_KEPT: usize = 1 << 16;

/// Whether it is told again and again while something moves.
fn is_movement(input: Input, outcome: Outcome) -> bool {
    matches!(input, Input::MouseMove | Input::PadGyro)
        || matches!(outcome, Outcome::AtRest | Outcome::NotFarEnough)
}

fn binding(rig: &Rig, wire: u16) -> Option<&Bound> {
    rig.bindings().get(*rig.wiring().of.get(usize::from(wire))?)
}

impl State {
    /// Leaves a step, where somebody asked for the trail.
    #[inline(always)]
    pub(super) fn tell(
        &mut self,
        wiring: &Wiring,
        control: Control,
        wire: Option<u16>,
        outcome: Outcome,
    ) {
        if self.trail.is_kept() {
            self.tell_slow(wiring, control, wire, outcome);
        }
    }

    #[cold]
    fn tell_slow(
        &mut self,
        wiring: &Wiring,
        control: Control,
        wire: Option<u16>,
        outcome: Outcome,
    ) {
        let row = wire.map(|wire| wiring.rows[usize::from(wire)]);
        self.tell_of(control, wire.map_or(Of::None, Of::Wire), row, outcome);
    }

    fn tell_of(&mut self, control: Control, of: Of, row: Option<Row>, outcome: Outcome) {
        // What the game drives has no input.
        let Some(input) = self.input_of(control) else {
            return;
        };
        let (at, device) = (self.now, self.feeding);
        let step = Step {
            at,
            last: at,
            times: 1,
            device,
            input,
            row,
            of,
            outcome,
        };
        match is_movement(input, outcome) {
            true => self.trail.push_movement(step),
            false => self.trail.push(step),
        }
    }

    /// What a control is called.
    pub(super) fn input_of(&self, control: Control) -> Option<Input> {
        match control.touch_position() {
            Some(at) => Some(Input::Touch(*self.held.touch_names().get(at)?)),
            None => control.input(),
        }
    }

    /// Nothing that counts is bound to a control: what would be, or that there is nothing.
    #[cold]
    pub(super) fn tell_silent(&mut self, wiring: &Wiring, control: Control) {
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
    pub(super) fn work_told(&mut self, wiring: &Wiring, index: u16) {
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
        self.tell_slow(wiring, wire.control, Some(index), outcome);
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
        self.tell_slow(
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
            self.tell_slow(wiring, control, Some(index), Outcome::BrokenOff(cause));
        }
    }

    /// Tells why a wire did not begin when its control went down, or left its rest.
    #[inline(always)]
    pub(super) fn tell_why_not(&mut self, wiring: &Wiring, index: u16, wire: &Wire) {
        if self.trail.is_kept() {
            let why = self.why_not(wiring, index, wire);
            self.tell_slow(wiring, wire.control, Some(index), why);
        }
    }

    #[cold]
    fn why_not(&self, wiring: &Wiring, index: u16, wire: &Wire) -> Outcome {
        if !self.live[usize::from(index)] {
            let why = self
                .trail
                .blocked
                .get(usize::from(index))
                .copied()
                .flatten();
            return Outcome::NotLive(why.unwrap_or(NotLive::Elsewhere));
        }
        let part = self.not_held(wiring, wire);
        if let Some(why) = part.and_then(|part| self.why_not_held(part)) {
            return why;
        }
        let other = self.other_modifier(wiring, wire).filter(|_| wire.strict);
        if let Some(modifier) = other.and_then(Control::input) {
            return Outcome::Strict(modifier);
        }
        if wire.together && !self.came_together(wiring, wire) {
            return Outcome::NotTogether;
        }
        match self.longer(wiring, wire) {
            Some(by) => Outcome::LongerChord(wiring.rows[usize::from(by)]),
            None => Outcome::AlreadyOn,
        }
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

    /// The longer chord that has what completes a wire.
    fn longer(&self, wiring: &Wiring, wire: &Wire) -> Option<u16> {
        let (first, count) = wire.control.relatives();
        let relatives = (first.0..first.0 + count).map(Control);
        let all = relatives.chain([wire.control]);
        let mut wires = all.flat_map(|c| wiring.completed_by(c)).copied();
        wires.find(|&other| {
            let longer = &wiring.wires[usize::from(other)];
            longer.held_len > wire.held_len && self.is_ready(wiring, other, longer)
        })
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
                self.tell_slow(
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
            let is_away = super::follow::is_away(wiring, wire, raw);
            let is_ready = is_off && self.is_ready(wiring, index, wire);
            let outcome = match (wire.analog, is_away) {
                _ if !is_ready => continue,
                (_, false) => Outcome::AtRest,
                (false, true) if !self.held.is_down(control) => Outcome::NotFarEnough,
                _ => continue,
            };
            self.tell_slow(wiring, control, Some(index), outcome);
        }
    }

    /// A mouse or a pad moved: of the chords that are satisfied the longest have it.
    #[cold]
    pub(super) fn tell_motion(&mut self, wiring: &Wiring, control: Control) {
        let mut longest = 0;
        let wires = wiring.completed_by(control);
        if wires.is_empty() {
            self.tell_silent(wiring, control);
        }
        for &index in wires {
            let wire = &wiring.wires[usize::from(index)];
            let has_it = wire.held_len >= longest && self.is_ready(wiring, index, wire);
            if !has_it {
                self.tell_why_not(wiring, index, wire);
                continue;
            }
            longest = wire.held_len;
            let is_kept_back = self.wires[usize::from(index)].kept_back != [0.0; 2];
            let outcome = match is_kept_back {
                true => Outcome::Waiting { until: None },
                false => Outcome::Worked,
            };
            self.tell_slow(wiring, control, Some(index), outcome);
        }
    }

    /// Works out why wires are not live, beside whether they are.
    pub(super) fn tell_live(&mut self, rig: &Rig) {
        if !self.trail.is_kept() {
            return;
        }
        let (sheet, wiring) = (rig.sheet(), rig.wiring());
        let typing = |s: &&SituationId| sheet.declared_situation(**s).typing;
        let typing = self.stack.iter().rev().find(typing).copied();
        let why = |(index, wire): (usize, &Wire)| {
            let action = ActionId::new(wire.action, self.stamp);
            let silenced = |s| wiring.silenced(index as u16, s);
            let why = blocked(sheet, &self.stack, action, silenced)?;
            // What is typed is nobody's business, wherever else it might work something.
            let by = typing.filter(|by| silenced(*by).typed);
            Some(by.map_or(why, NotLive::Typing))
        };
        let all = wiring.wires.iter().enumerate().map(why).collect();
        self.trail.blocked = all;
        self.trail.typing = typing;
    }
}

impl Seat {
    /// Keeps what became of the newest inputs from now on, as many outcomes as said and at most 65,536,
    /// or none any more: the answer to "why did nothing happen?". It costs nothing while nobody asks.
    ///
    /// ```
    /// use swap_knot::input::Simulated;
    /// use swap_knot::play::{NotLive, Outcome};
    /// use swap_knot::{DeviceId, Layout, Place, Profile, Rig, Seat, Sheet, Time};
    ///
    /// let sheet = Sheet::from_toml(r#"
    ///     game = "slack-water"
    ///     [situations.deck]
    ///     [situations.helm]
    ///     [actions.horn]
    ///     situation = "helm"
    ///     bind = "KeyH"
    /// "#)?;
    /// let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
    /// seat.keep_outcomes(64);
    /// seat.feed(&Simulated::new(DeviceId(0)).key(Place::KeyH));
    /// seat.tick(Time::from_millis(16));
    /// let told = seat.outcomes().last().expect("a key was pressed");
    /// assert_eq!(told.outcome, Outcome::NotLive(NotLive::Elsewhere));
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn keep_outcomes(&mut self, newest: usize) {
        let newest = newest.min(MOST_KEPT);
        let trail = &mut self.state.trail;
        trail.kept = newest;
        let old = trail.steps.len().saturating_sub(newest);
        trail.steps.drain(..old);
        trail.steps.shrink_to(newest);
        trail
            .steps
            .reserve(newest.saturating_sub(trail.steps.len()));
        self.state.tell_live(&self.rig);
        self.state.note_quick_mouse(self.rig.wiring());
        // What moves within its rest is told of, too.
        self.state.held.end_glides();
    }

    /// Whether outcomes are kept, see [`Seat::keep_outcomes`].
    pub fn keeps_outcomes(&self) -> bool {
        self.state.trail.is_kept()
    }

    /// The newest outcomes, oldest first; see [`Seat::keep_outcomes`]. A change of the sheet forgets them;
    /// one of rig does not.
    pub fn outcomes(&self) -> impl DoubleEndedIterator<Item = Told<'_>> {
        let rig = &self.rig;
        self.state.trail.steps.iter().map(move |step| Told {
            at: step.at,
            last: step.last,
            times: step.times,
            device: step.device,
            input: step.input,
            row: step.row,
            binding: match &step.of {
                Of::None => None,
                Of::Wire(wire) => binding(rig, *wire),
                Of::Before(bound) => Some(bound),
            },
            outcome: step.outcome,
        })
    }
}
