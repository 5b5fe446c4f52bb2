//! The trail that the judge leaves where somebody asked for it: what became of an input for each
//! binding that it might have worked.

use std::collections::VecDeque;

use super::Seat;
use super::state::State;
use crate::input::{Control, Input, Time};
use crate::law::Bound;
use crate::rig::{Wire, Wiring};

/// What became of an input for one binding, or for all where nothing is bound to it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Outcome {
    /// It worked the action.
    Worked,
    /// It may still: a hold, tap or release is not decided yet.
    Waiting,
    /// Nothing is bound to it.
    NotBound,
    /// The action is not live: its situation is not, or something covers it or text is typed.
    NotLive,
    /// What the chord wants held was not, or not before.
    NotHeld,
    /// A longer chord has it.
    LongerChord,
    /// The binding is strict, and a modifier was held that is not part of it.
    Strict,
    /// The parts of the chord did not come together in time.
    NotTogether,
    /// A trigger or half axis was not in far enough for it.
    NotFarEnough,
    /// It was let go too soon for a hold.
    TooShort,
    /// It was held too long for a tap, or the second press of a double tap came too late.
    TooLong,
    /// The input is spent: it counts for nothing until it has been at rest.
    Spent,
    /// It came again within the time in which quick repeats are ignored.
    TooSoon,
}

/// An [`Outcome`] with what it is about.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Told<'a> {
    /// When.
    pub at: Time,
    /// What was worked.
    pub input: Input,
    /// The binding; none where nothing is bound to the input.
    pub binding: Option<&'a Bound>,
    /// What became of it.
    pub outcome: Outcome,
}

/// One step of the trail, in the numbers of the rig in play.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Step {
    at: Time,
    control: Control,
    wire: Option<u16>,
    outcome: Outcome,
}

/// The newest steps; empty, and without room, while nobody asked.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Trail {
    steps: VecDeque<Step>,
    kept: usize,
}

impl Trail {
    fn push(&mut self, step: Step) {
        if self.steps.len() >= self.kept {
            self.steps.pop_front();
        }
        self.steps.push_back(step);
    }

    /// Another rig has other numbers.
    pub(super) fn clear(&mut self) {
        self.steps.clear();
    }
}

impl State {
    /// Leaves a step, where somebody asked for the trail.
    #[inline(always)]
    pub(super) fn tell(&mut self, control: Control, wire: Option<u16>, outcome: Outcome) {
        if self.trail.kept != 0 {
            self.tell_slow(control, wire, outcome);
        }
    }

    #[cold]
    fn tell_slow(&mut self, control: Control, wire: Option<u16>, outcome: Outcome) {
        let at = self.now;
        self.trail.push(Step {
            at,
            control,
            wire,
            outcome,
        });
    }

    /// Tells why a wire did not begin when its control went down, or left its rest.
    #[inline(always)]
    pub(super) fn tell_why_not(&mut self, wiring: &Wiring, index: u16, wire: &Wire) {
        if self.trail.kept != 0 {
            let why = self.why_not(wiring, index, wire);
            self.tell_slow(wire.control, Some(index), why);
        }
    }

    #[cold]
    fn why_not(&self, wiring: &Wiring, index: u16, wire: &Wire) -> Outcome {
        if !self.live[usize::from(index)] {
            Outcome::NotLive
        } else if !self.holds(wiring, wire) {
            Outcome::NotHeld
        } else if wire.strict && !self.no_other_modifier(wiring, wire) {
            Outcome::Strict
        } else if wire.together && !self.came_together(wiring, wire) {
            Outcome::NotTogether
        } else {
            Outcome::LongerChord
        }
    }
}

impl Seat {
    /// Keeps what became of the newest inputs from now on, as many outcomes as said, or none any
    /// more: the answer to "why did nothing happen?". It costs nothing while nobody asks.
    ///
    /// ```
    /// use swap_knot::{DeviceId, Layout, Outcome, Place, Profile, Rig, Seat, Sheet, Simulated, Time};
    ///
    /// let sheet = Sheet::from_toml(r#"
    ///     game = "slack-water"
    ///     [situations.deck]
    ///     [situations.helm]
    ///     [actions.horn]
    ///     situation = "helm"
    ///     bind = "KeyH"
    /// "#)?;
    /// let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), &Layout::us()));
    /// seat.keep_outcomes(64);
    /// seat.feed(&Simulated::new(DeviceId(0)).key(Place::KeyH));
    /// seat.tick(Time::from_millis(16));
    /// let told = seat.outcomes().last().expect("a key was pressed");
    /// assert_eq!(told.outcome, Outcome::NotLive);
    /// # Ok::<(), swap_knot::SheetError>(())
    /// ```
    pub fn keep_outcomes(&mut self, newest: usize) {
        let trail = &mut self.state.trail;
        trail.kept = newest;
        let old = trail.steps.len().saturating_sub(newest);
        trail.steps.drain(..old);
        trail.steps.shrink_to(newest);
        trail
            .steps
            .reserve(newest.saturating_sub(trail.steps.len()));
    }

    /// The newest outcomes, oldest first; see [`Seat::keep_outcomes`]. A change of rig forgets them.
    pub fn outcomes(&self) -> impl DoubleEndedIterator<Item = Told<'_>> {
        let (rig, names) = (&self.rig, self.state.held.touch_names());
        self.state.trail.steps.iter().filter_map(move |step| {
            let input = match step.control.touch_position() {
                Some(at) => Input::Touch(*names.get(at)?),
                None => step.control.input()?,
            };
            let of = |wire: u16| rig.bindings().get(rig.wiring().of[usize::from(wire)]);
            Some(Told {
                at: step.at,
                input,
                binding: step.wire.and_then(of),
                outcome: step.outcome,
            })
        })
    }
}
