//! Learns the mapping of a controller from its player, who works one part after another.

use std::time::Duration;

use super::{Mapper, Mapping, PadSource, is_part, parts};
use crate::input::{
    DeviceId, Direction, Event, EventKind, HidAxis, HidInput, Input, PadButton, Sign, Time, UsbId,
    amount,
};

/// How far an axis is moved to answer: less may be wobble, or another axis of the same stick.
const MOVED: f32 = 0.6;
/// How near it comes back to where it rests.
const NEAR: f32 = 0.25;
/// How little it moves while it stays where it is.
const STILL: f32 = 0.15;
/// How long it has stayed at rest to have come back.
const STAYED: Duration = Duration::from_millis(120);
/// The same where nobody knows where it rests: what passes the middle on its way back has not.
const STAYED_ANYWHERE: Duration = Duration::from_millis(700);
/// How long a part is waited for.
const TIME: Duration = Duration::from_secs(20);

/// Asks for one part of a pad after another, and finds out what works it on a controller without a
/// known mapping.
///
/// A part is answered by working it and letting go: an axis that rests in its middle, a trigger that
/// rests at one end, and a hat are told apart by where they come back to. What nobody answers in twenty
/// seconds is skipped, so that the controller alone is enough.
///
/// [`ControlsScreen::teach`](crate::screen::ControlsScreen::teach) shows one; by itself it needs events
/// and time.
///
/// ```
/// use swap_knot::input::{HidButton, Lesson, Mapper, MappingLearner, PadSource};
/// use swap_knot::{DeviceId, Event, EventKind, PadButton, Time};
///
/// let mut learner = MappingLearner::new(DeviceId(3), &Mapper::default());
/// assert_eq!(learner.asked(), Some(PadButton::South.into()));
/// let button = HidButton::new(2).expect("from 1 on");
/// let mut event = |ms, down| {
///     let (at, what) = (Time::from_millis(ms), EventKind::HidButton { button, down });
///     learner.event(&Event { at, device: DeviceId(3), what })
/// };
/// assert_eq!(event(10, true), Lesson::Waits);
/// assert_eq!(event(90, false), Lesson::Learned);
/// assert_eq!(learner.asked(), Some(PadButton::East.into()));
/// assert_eq!(learner.mapping().source(PadButton::South.into()), Some(PadSource::Button(button)));
/// ```
#[derive(Clone, Debug)]
pub struct MappingLearner {
    device: DeviceId,
    kind: Option<UsbId>,
    /// What is asked for, in order, and how far that is.
    asks: Vec<Input>,
    at: usize,
    /// What was learned, step by step.
    steps: Vec<Step>,
    axes: [Axis; HidAxis::ALL.len()],
    /// What was pressed since this part was asked for, in order, and whether it is down.
    pressed: Vec<(PadSource, bool)>,
    asked_at: Option<Time>,
    now: Time,
}

/// What one answer came to.
#[derive(Clone, Debug)]
struct Step {
    /// Which of the parts was asked for.
    at: usize,
    /// What is worked by what; nothing where it was skipped.
    learned: Vec<(Input, PadSource)>,
    /// What moved along.
    along: Vec<HidInput>,
}

/// What has become of what is asked for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum Lesson {
    /// It is waited for.
    Waits,
    /// It was answered, and the next one is asked for.
    Learned,
    /// It was answered by what works another part: it is waited for on.
    IsAlready(Input),
    /// Nobody answered, and the next one is asked for.
    Skipped,
    /// Everything was asked for.
    Done,
}

/// An axis, as far as it was heard of.
#[derive(Clone, Copy, Debug, Default)]
struct Axis {
    at: Option<f32>,
    /// When it was first heard of, until it is heard of again.
    first: Option<Time>,
    /// Where it rests, once that is known.
    rest: Option<f32>,
    /// Whether it was away from there when this part was asked for, and has not come back since.
    is_held: bool,
    /// How far it went since this part was asked for.
    low: f32,
    high: f32,
    /// Where it stays, and since when.
    anchor: f32,
    since: Time,
}

impl Axis {
    /// Goes by where it is from here on.
    fn ask(&mut self) {
        let at = self.at.unwrap_or_default();
        (self.low, self.high) = (at, at);
        self.is_held = self.rest.is_some_and(|rest| (at - rest).abs() > NEAR);
    }

    fn move_to(&mut self, to: f32, at: Time) {
        match self.at {
            None => {
                (self.low, self.high, self.anchor, self.since) = (to, to, to, at);
                self.first = Some(at);
            }
            // Who says two things at one moment, as SDL does, says first where it was before.
            Some(was) if self.first.take() == Some(at) => self.rest = self.rest.or(Some(was)),
            Some(_) => {}
        }
        self.at = Some(to);
        (self.low, self.high) = (self.low.min(to), self.high.max(to));
        if self.is_held {
            // What is let go here was worked for another part.
            self.ask();
        }
        if (to - self.anchor).abs() > STILL {
            (self.anchor, self.since) = (to, at);
        }
    }

    fn span(&self) -> f32 {
        self.high - self.low
    }

    /// Whether it was worked and has come back.
    fn has_come_back(&self, now: Time) -> bool {
        let Some(at) = self.at else { return false };
        let stayed = now.since(self.since);
        match self.rest {
            Some(rest) => (at - rest).abs() <= NEAR && stayed >= STAYED,
            None => stayed >= STAYED_ANYWHERE,
        }
    }

    /// What of it was worked, now that it has come back.
    fn worked(&self, axis: HidAxis) -> Option<PadSource> {
        let rest = self.rest.or(self.at)?;
        let up = self.high - rest > rest - self.low;
        let sign = if up { Sign::Positive } else { Sign::Negative };
        let far = (self.high - rest).max(rest - self.low);
        let is_at_an_end = rest.abs() > 0.7;
        (far >= MOVED).then_some(match is_at_an_end {
            true => PadSource::Whole(axis, sign),
            false => PadSource::Half(axis, sign),
        })
    }
}

impl MappingLearner {
    /// Learns the mapping of a device of its kind, which a mapper has heard of.
    pub fn new(device: DeviceId, mapper: &Mapper) -> MappingLearner {
        let mut learner = MappingLearner {
            device,
            kind: mapper.kind_of(device).flatten(),
            asks: parts().collect(),
            at: 0,
            steps: Vec::new(),
            axes: [Axis::default(); HidAxis::ALL.len()],
            pressed: Vec::new(),
            asked_at: None,
            now: Time::ZERO,
        };
        for (axis, known) in HidAxis::ALL.iter().zip(&mut learner.axes) {
            if let Some(at) = mapper.axis(device, *axis) {
                known.move_to(at, Time::ZERO);
                known.rest = Some(at);
            }
        }
        learner
    }

    /// Whose mapping it is.
    pub const fn device(&self) -> DeviceId {
        self.device
    }

    /// Of which kind that is: by its USB numbers, where it says them.
    pub const fn kind(&self) -> Option<UsbId> {
        self.kind
    }

    /// What is asked for: a button, a trigger, or a direction of a stick. None when all is.
    pub fn asked(&self) -> Option<Input> {
        self.asks.get(self.at).copied()
    }

    /// How many parts have been asked for, and of how many.
    pub fn progress(&self) -> (usize, usize) {
        (self.at, self.asks.len())
    }

    /// The time until what is asked for is skipped; none before time was told.
    pub fn time_left(&self) -> Option<Duration> {
        let since = self.now.since(self.asked_at?);
        self.asked()
            .map(|_| TIME.checked_sub(since).unwrap_or_default())
    }

    /// What was learned so far.
    pub fn mapping(&self) -> Mapping {
        let mut mapping = Mapping::new();
        for (part, source) in self.steps.iter().flat_map(|s| &s.learned) {
            // What is learned has been looked at for that.
            let _ = mapping.set(*part, *source);
        }
        let is_worked = |input: &HidInput| {
            let mut sources = mapping.parts().map(|(_, source)| source);
            let axis = match input {
                HidInput::Axis(axis) => Some(*axis),
                _ => None,
            };
            sources.any(|s| s.input() == *input || (axis.is_some() && s.axis() == axis))
        };
        let along = self.steps.iter().flat_map(|s| &s.along);
        let silent: Vec<HidInput> = along.copied().filter(|i| !is_worked(i)).collect();
        silent.into_iter().for_each(|i| mapping.silence(i));
        mapping
    }

    /// Hears an event; those of other devices say nothing here.
    pub fn event(&mut self, event: &Event) -> Lesson {
        self.now = self.now.max(event.at);
        if event.device == self.device && self.asked().is_some() {
            self.asked_at.get_or_insert(event.at);
            self.hear(event);
        }
        self.judge()
    }

    /// Lets time go by.
    pub fn tick(&mut self, now: Time) -> Lesson {
        self.now = self.now.max(now);
        self.asked_at.get_or_insert(self.now);
        match self.judge() {
            Lesson::Waits if self.time_left() == Some(Duration::ZERO) => self.skip(),
            lesson => lesson,
        }
    }

    /// Goes on without what is asked for: the controller has none.
    pub fn skip(&mut self) -> Lesson {
        if self.asked().is_some() {
            self.learn(Vec::new(), Vec::new());
        }
        self.done_or(Lesson::Skipped)
    }

    /// Goes back to what was asked for before, and forgets what was answered; whether there was
    /// anything.
    pub fn back(&mut self) -> bool {
        let Some(step) = self.steps.pop() else {
            return false;
        };
        self.at = step.at;
        self.ask();
        true
    }

    fn done_or(&self, lesson: Lesson) -> Lesson {
        match self.asked() {
            Some(_) => lesson,
            None => Lesson::Done,
        }
    }

    fn hear(&mut self, event: &Event) {
        let (source, down) = match event.what {
            EventKind::HidAxis { axis, value } => {
                self.axes[axis as usize].move_to(amount(value), event.at);
                return;
            }
            EventKind::HidButton { button, down } => (PadSource::Button(button), down),
            EventKind::HidHat { direction, down } => (PadSource::Hat(direction), down),
            _ => return,
        };
        let known = self.pressed.iter_mut().find(|(s, _)| *s == source);
        match (known, down) {
            (Some((_, is_down)), down) => *is_down = down,
            (None, true) => self.pressed.push((source, true)),
            // It was pressed before this part was asked for.
            (None, false) => {}
        }
    }

    /// Whether what is asked for has been answered: something was worked, and all of it let go.
    fn judge(&mut self) -> Lesson {
        let Some(asked) = self.asked() else {
            return Lesson::Done;
        };
        let moved = |axis: &&HidAxis| self.axes[**axis as usize].span() >= MOVED;
        let moved: Vec<HidAxis> = HidAxis::ALL.iter().filter(moved).copied().collect();
        let has_come_back = |axis: &HidAxis| self.axes[*axis as usize].has_come_back(self.now);
        let is_held = self.pressed.iter().any(|(_, down)| *down);
        if is_held || !moved.iter().all(has_come_back) {
            return Lesson::Waits;
        }
        let span = |axis: &HidAxis| self.axes[*axis as usize].span();
        let by_span = |a: &HidAxis, b: &HidAxis| span(a).total_cmp(&span(b));
        let axis = moved.iter().copied().max_by(by_span);
        let axis = axis.and_then(|axis| self.axes[axis as usize].worked(axis));
        let button = self.pressed.first().map(|(source, _)| *source);
        // A trigger with a button at its end is a trigger; a button that moves an axis is a button.
        let answer = match is_pulled(asked) {
            true => axis.or(button),
            false => button.or(axis),
        };
        let Some(source) = answer else {
            return Lesson::Waits;
        };
        for axis in &mut self.axes {
            axis.rest = axis.rest.or(axis.at);
        }
        let learned = self.mapping();
        if let Some(part) = learned.worked_by(source, None) {
            self.ask();
            return Lesson::IsAlready(part);
        }
        let along = self.pressed.iter().map(|(source, _)| source.input());
        let along = along.chain(moved.into_iter().map(HidInput::Axis));
        let along: Vec<HidInput> = along.filter(|i| *i != source.input()).collect();
        let mut answers = vec![(asked, source)];
        // The other way of the same axis needs no asking.
        if let (Some(other), PadSource::Half(axis, sign)) = (opposite(asked), source) {
            let sign = match sign {
                Sign::Positive => Sign::Negative,
                Sign::Negative => Sign::Positive,
            };
            let back = PadSource::Half(axis, sign);
            let is_free = learned.source(other).is_none();
            if is_free && learned.worked_by(back, None).is_none() {
                answers.push((other, back));
            }
        }
        self.learn(answers, along);
        self.done_or(Lesson::Learned)
    }

    fn learn(&mut self, learned: Vec<(Input, PadSource)>, along: Vec<HidInput>) {
        let at = self.at;
        self.steps.push(Step { at, learned, along });
        let is_known = |part: &Input| {
            let mut all = self.steps.iter().flat_map(|s| &s.learned);
            all.any(|(known, _)| known == part)
        };
        let rest = self.asks.iter().skip(at + 1);
        self.at = at + 1 + rest.take_while(|part| is_known(part)).count();
        self.ask();
    }

    /// Begins to wait for a part.
    fn ask(&mut self) {
        self.pressed.clear();
        self.axes.iter_mut().for_each(Axis::ask);
        self.asked_at = None;
    }
}

/// Whether it has a way to go.
fn is_pulled(part: Input) -> bool {
    match part {
        Input::PadButton(button) => button.is_trigger(),
        part => is_part(part),
    }
}

/// The other way of a stick or of the cross.
fn opposite(part: Input) -> Option<Input> {
    use PadButton as B;
    Some(match part {
        Input::PadStickHalf(stick, way) => Input::PadStickHalf(
            stick,
            match way {
                Direction::Up => Direction::Down,
                Direction::Down => Direction::Up,
                Direction::Left => Direction::Right,
                Direction::Right => Direction::Left,
            },
        ),
        Input::PadButton(B::Up) => B::Down.into(),
        Input::PadButton(B::Down) => B::Up.into(),
        Input::PadButton(B::Left) => B::Right.into(),
        Input::PadButton(B::Right) => B::Left.into(),
        _ => return None,
    })
}
