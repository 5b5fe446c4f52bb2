//! Waits for the player's next input while remapping.

use std::time::Duration;

use crate::input::{
    Chord, Direction, Event, EventKind, HidInput, Input, MAX_HELD, Modifier, PadButton, Sign, Time,
};
use crate::sheet::ColumnKind;

/// How far an analog input has to go to be meant.
const MEANT: f32 = 0.6;
/// Below this it is at rest.
const REST: f32 = 0.25;
/// How far the mouse has to move to be meant, where motion is asked for.
const MOVE_FAR: f32 = 60.0;

/// What a [`Listener`] takes and when it gives up.
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct ListenerOptions {
    /// Only inputs for these columns are taken; `None` takes any.
    pub columns: Option<ColumnKind>,
    /// Whether mouse motion and whole sticks are meant rather than single directions.
    pub planes: bool,
    /// Inputs that end the listening without a result.
    pub cancel: Vec<Input>,
    /// Inputs that are refused with a reason.
    pub reserved: Vec<Input>,
    /// When to give up; `None` waits for ever.
    pub timeout: Option<Duration>,
}

impl Default for ListenerOptions {
    /// Any column, no planes, Escape cancels, nothing reserved, ten seconds.
    fn default() -> Self {
        ListenerOptions {
            columns: None,
            planes: false,
            cancel: vec![Input::Key(crate::input::Place::Escape)],
            reserved: Vec::new(),
            timeout: Some(Duration::from_secs(10)),
        }
    }
}

/// Waits for the player's next input: a key, button, notch, stick direction or chord.
///
/// It takes nothing until everything that was down when it started is up again, so the click that
/// started it is not taken. Modifiers, and on a pad shoulders, triggers and paddles, are taken when
/// they are let go, since a chord may still come of them; everything else at once.
#[derive(Clone, Debug)]
pub struct Listener {
    options: ListenerOptions,
    started: Option<Time>,
    /// Down since before it started; it is deaf until they are up.
    before: Vec<Input>,
    /// Down since it started, in order.
    held: Vec<Input>,
    /// Analog inputs that did not come back to rest yet.
    away: Vec<Input>,
    moved: f32,
}

/// An input that was worked but cannot be taken.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum RefusedInput {
    /// The game keeps it for itself.
    #[error("`{0}` is reserved by the game")]
    Reserved(Input),
    /// It is not of the devices that are asked for.
    #[error("`{0}` is not for this column, which takes {1} inputs")]
    OtherColumn(Input, ColumnKind),
}

/// What a [`Listener`] makes of an event.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Heard {
    /// Nothing yet.
    Nothing,
    /// What is held so far changed; show it.
    Holding,
    /// This is what the player pressed.
    Chord(Chord),
    /// This was pressed but cannot be taken; it goes on listening.
    Refused(RefusedInput),
    /// A cancel input was pressed.
    Cancelled,
    /// Nothing came in time.
    TimedOut,
}

impl Listener {
    /// Starts listening. `down` are the inputs that are down now, see
    /// [`Seat::inputs_down`](crate::Seat::inputs_down).
    pub fn new(options: ListenerOptions, down: impl IntoIterator<Item = Input>) -> Listener {
        let before: Vec<Input> = down.into_iter().collect();
        let away = before.iter().copied().filter(|&i| is_analog(i)).collect();
        Listener {
            options,
            started: None,
            before,
            held: Vec::new(),
            away,
            moved: 0.0,
        }
    }

    /// What is held so far, in the order in which it went down.
    pub fn held(&self) -> &[Input] {
        &self.held
    }

    /// The time left; `None` without a timeout.
    pub fn time_left(&self, now: Time) -> Option<Duration> {
        let timeout = self.options.timeout?;
        let gone = self.started.map_or(Duration::ZERO, |s| now.since(s));
        Some(timeout.saturating_sub(gone))
    }

    /// Lets time go by; the first call starts the clock.
    pub fn tick(&mut self, now: Time) -> Heard {
        self.started.get_or_insert(now);
        match self.time_left(now) {
            Some(Duration::ZERO) => Heard::TimedOut,
            _ => Heard::Nothing,
        }
    }

    /// Takes an event in.
    pub fn hear(&mut self, event: &Event) -> Heard {
        if self.tick(event.at) == Heard::TimedOut {
            return Heard::TimedOut;
        }
        match event.what {
            EventKind::Key { place, down, .. } => self.button(Input::Key(place), down),
            EventKind::MouseButton { button, down } => {
                self.button(Input::MouseButton(button), down)
            }
            EventKind::Wheel { direction } if self.before.is_empty() => {
                self.complete(Input::Wheel(direction))
            }
            EventKind::MouseMove { x, y } if self.options.planes && self.before.is_empty() => {
                self.moved += x.abs() + y.abs();
                match self.moved > MOVE_FAR {
                    true => self.complete(Input::MouseMove),
                    false => Heard::Nothing,
                }
            }
            EventKind::PadButton { button, value } if button.is_trigger() => {
                self.analog(Input::PadButton(button), value)
            }
            EventKind::PadButton { button, value } => {
                self.button(Input::PadButton(button), value >= 0.5)
            }
            EventKind::PadStick { stick, x, y } if self.options.planes => {
                self.analog(Input::PadStick(stick), x.hypot(y))
            }
            EventKind::PadStick { stick, x, y } => {
                let half = |d: Direction| (Input::PadStickHalf(stick, d), d.part_of([x, y]));
                self.strongest(Direction::ALL.map(half))
            }
            EventKind::HidButton { number, down } => {
                self.button(Input::Hid(HidInput::Button(number)), down)
            }
            EventKind::HidHat { direction, down } => {
                self.button(Input::Hid(HidInput::Hat(direction)), down)
            }
            EventKind::HidAxis { axis, value } => self.strongest([
                (
                    Input::Hid(HidInput::Half(axis, Sign::Positive)),
                    value.max(0.0),
                ),
                (
                    Input::Hid(HidInput::Half(axis, Sign::Negative)),
                    (-value).max(0.0),
                ),
            ]),
            EventKind::Touch { name, down } => self.button(Input::Touch(name), down),
            EventKind::FocusLost | EventKind::Unplugged => {
                self.before.clear();
                self.held.clear();
                self.away.clear();
                Heard::Nothing
            }
            EventKind::Wheel { .. }
            | EventKind::MouseMove { .. }
            | EventKind::TouchStick { .. } => Heard::Nothing,
        }
    }

    /// Of the directions of one stick or axis, the one that is furthest in; the others only come
    /// to rest.
    fn strongest<const N: usize>(&mut self, parts: [(Input, f32); N]) -> Heard {
        let mut heard = Heard::Nothing;
        let strongest = parts.iter().copied().max_by(|a, b| a.1.total_cmp(&b.1));
        for (input, value) in parts {
            let counts = strongest.is_some_and(|(s, _)| s == input);
            let now = self.analog(input, if counts { value } else { value.min(REST) });
            if now != Heard::Nothing {
                heard = now;
            }
        }
        heard
    }

    /// An analog input: down past a threshold, but only if it rested first.
    fn analog(&mut self, input: Input, value: f32) -> Heard {
        if value < REST {
            self.away.retain(|i| *i != input);
            self.before.retain(|i| *i != input);
            if self.held.contains(&input) {
                return self.button(input, false);
            }
            return Heard::Nothing;
        }
        if value >= MEANT && !self.away.contains(&input) {
            self.away.push(input);
            return self.button(input, true);
        }
        Heard::Nothing
    }

    fn button(&mut self, input: Input, down: bool) -> Heard {
        if !down {
            self.before.retain(|i| *i != input);
            let was_held = self.held.contains(&input);
            return match was_held {
                true => self.let_go(input),
                false => Heard::Nothing,
            };
        }
        if !self.before.is_empty() || self.held.contains(&input) {
            return Heard::Nothing;
        }
        if self.options.cancel.contains(&input) {
            return Heard::Cancelled;
        }
        if can_wait(input) && self.held.len() < MAX_HELD {
            self.held.push(input);
            return Heard::Holding;
        }
        self.complete(input)
    }

    /// A part that was held came up before anything completed the chord: it is what was meant,
    /// with whatever else is held.
    fn let_go(&mut self, input: Input) -> Heard {
        self.held.retain(|i| *i != input);
        self.complete(input)
    }

    fn complete(&mut self, input: Input) -> Heard {
        let is_reserved = |i: &&Input| self.options.reserved.contains(i);
        let reserved = self.held.iter().chain([&input]).find(is_reserved).copied();
        if let Some(part) = reserved {
            self.held.clear();
            return Heard::Refused(RefusedInput::Reserved(part));
        }
        if let Some(kind) = self.options.columns
            && ColumnKind::of(input.device_kind()) != kind
        {
            self.held.clear();
            return Heard::Refused(RefusedInput::OtherColumn(input, kind));
        }
        let held = std::mem::take(&mut self.held);
        // Chords are told by either side of a modifier; a modifier alone by its own side.
        let either = held.into_iter().map(|i| match i {
            Input::Key(place) => Modifier::of_place(place).map_or(i, Input::Modifier),
            other => other,
        });
        let mut either: Vec<Input> = either.collect();
        either.sort_unstable();
        either.dedup();
        match Chord::new(either, input) {
            Ok(chord) => Heard::Chord(chord),
            // Both sides of a modifier, or a part that cannot be held: the last input alone.
            Err(_) => Heard::Chord(input.into()),
        }
    }
}

/// Whether a chord may still come of it, so that it is taken only when it is let go.
fn can_wait(input: Input) -> bool {
    match input {
        Input::PadButton(button) => matches!(
            button,
            PadButton::ShoulderLeft
                | PadButton::ShoulderRight
                | PadButton::TriggerLeft
                | PadButton::TriggerRight
                | PadButton::Paddle1
                | PadButton::Paddle2
                | PadButton::Paddle3
                | PadButton::Paddle4
        ),
        other => other.is_modifier(),
    }
}

fn is_analog(input: Input) -> bool {
    match input {
        Input::PadButton(button) => button.is_trigger(),
        Input::Hid(HidInput::Half(..)) => true,
        other => matches!(other, Input::PadStickHalf(..) | Input::PadStick(_)),
    }
}

impl ListenerOptions {
    /// Takes inputs for these columns only.
    #[must_use]
    pub fn for_columns(mut self, kind: ColumnKind) -> Self {
        self.columns = Some(kind);
        self
    }

    /// Refuses these inputs.
    #[must_use]
    pub fn with_reserved(mut self, reserved: &[Input]) -> Self {
        self.reserved = reserved.to_vec();
        self
    }

    /// Gives up after that long.
    #[must_use]
    pub fn with_timeout(mut self, timeout: Option<Duration>) -> Self {
        self.timeout = timeout;
        self
    }
}
