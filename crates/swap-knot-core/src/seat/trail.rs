//! The trail that the judge leaves where somebody asked for it: steps kept, put together and read.

use std::collections::VecDeque;

use super::state::State;
use super::{Outcome, Seat, Told};
use crate::input::{Control, DeviceId, Input, Time};
use crate::law::Bound;
use crate::rig::{NotLive, Rig, Wire, Wiring, blocked};
use crate::sheet::{ActionId, Row, SituationId};

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
pub(super) enum Of {
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
    pub(super) blocked: Vec<Option<NotLive>>,
    /// Where text is typed now.
    pub(super) typing: Option<SituationId>,
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

    pub(super) fn tell_of(&mut self, control: Control, of: Of, row: Option<Row>, outcome: Outcome) {
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
