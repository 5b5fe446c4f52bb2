//! Waits for the player's next input while remapping.

use std::time::Duration;

use super::cancel::{Cancelling, cancels};
use crate::book::{Change, Held, notched};
use crate::input::{
    Chord, Control, DeviceId, Event, EventKind, Input, MAX_HELD, Modifier, PadButton, Time,
};
use crate::layout::{Layout, Resolver};
use crate::sheet::ColumnKind;

/// How far an analog input has to go to be meant.
const MEANT: f32 = 0.6;
/// Below this it is at rest.
const REST: f32 = 0.25;
/// How far the mouse has to move to be meant, where motion is asked for.
const MOVE_FAR: f32 = 60.0;
/// How far a pad is turned in all that it is meant, in degrees: a hand that presses turns it a little.
const TURNED_FAR: f32 = 90.0;

/// What a [`Listener`] takes and when it gives up.
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct ListenerOptions {
    /// Only inputs for these columns are taken, each chord for one of them; none takes any.
    pub columns: Vec<ColumnKind>,
    /// Whether mouse motion and whole sticks are meant rather than single directions.
    pub planes: bool,
    /// Inputs that end the listening without a result when they are tapped. Held for a second, such
    /// an input is taken as any other.
    pub cancel: Vec<Input>,
    /// Inputs that are refused with a reason.
    pub reserved: Vec<Input>,
    /// When to give up; `None` waits for ever.
    pub timeout: Option<Duration>,
    /// Which keys the inputs that cancel or are reserved are.
    pub on: Resolver,
}

impl Default for ListenerOptions {
    /// Any column, no planes, Escape, a pad's right centre button and the second button of other
    /// controllers cancel, nothing reserved, ten seconds.
    fn default() -> Self {
        ListenerOptions {
            columns: Vec::new(),
            planes: false,
            cancel: cancels(),
            reserved: Vec::new(),
            timeout: Some(Duration::from_secs(10)),
            on: Layout::us().into(),
        }
    }
}

/// Waits for the player's next input: a key, button, notch, stick direction or chord.
///
/// It takes nothing but what cancels until everything that was down when it started is up again, so
/// the click that started it is not taken. Modifiers, and on a pad shoulders, triggers and paddles, are taken when
/// they are let go, since a chord may still come of them; an input that cancels when it has been held
/// for a second; everything else at once.
#[derive(Clone, Debug)]
pub struct Listener {
    options: ListenerOptions,
    started: Option<Time>,
    /// What was down when it started is spent there.
    book: Held,
    /// It is deaf until everything that was down when it started has been at rest.
    armed: bool,
    /// Down since it started, in order.
    held: Vec<(Control, Input)>,
    moved: f32,
    /// How far the pad was turned.
    turned: f32,
    /// An input that cancels is down, and nobody knows yet whether it is tapped or held.
    cancelling: Option<Cancelling>,
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
#[non_exhaustive]
pub enum Heard {
    /// Nothing yet.
    Nothing,
    /// What is held so far changed; show it.
    Holding,
    /// This is what the player pressed.
    Chord(Chord),
    /// This was pressed but cannot be taken; it goes on listening.
    Refused(RefusedInput),
    /// A cancel input was tapped.
    Cancelled,
    /// Nothing came in time.
    TimedOut,
}

impl Listener {
    /// Starts listening. `held` is what is held now, see [`Seat::held`](crate::Seat::held).
    pub fn new(options: ListenerOptions, held: &Held) -> Listener {
        let mut book = held.clone().with_thresholds(MEANT, REST);
        book.spend(DeviceId::ALL);
        Listener {
            options,
            started: None,
            book,
            armed: false,
            held: Vec::new(),
            moved: 0.0,
            turned: 0.0,
            cancelling: None,
        }
    }

    /// What is held so far, in the order in which it went down.
    pub fn held(&self) -> impl ExactSizeIterator<Item = Input> + '_ {
        self.held.iter().map(|(_, input)| *input)
    }

    /// Whether it takes inputs by now: everything that was down when it started is up again.
    pub fn is_armed(&self) -> bool {
        self.armed || !self.book.waits_for_rest()
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
        let ends = self.ends_at();
        // Of two that came to pass since it was asked last, the earlier one.
        let meant = self.cancelling.filter(|c| {
            let at = c.meant_at();
            self.armed && at <= now && ends.is_none_or(|ends| at < ends)
        });
        if let Some(cancelling) = meant {
            self.cancelling = None;
            return self.complete(cancelling.input());
        }
        match ends.is_some_and(|ends| ends <= now) {
            true => Heard::TimedOut,
            false => Heard::Nothing,
        }
    }

    /// When it gives up, once it knows when it started.
    fn ends_at(&self) -> Option<Time> {
        Some(self.started?.plus(self.options.timeout?))
    }

    /// Takes an event in.
    pub fn hear(&mut self, event: &Event) -> Heard {
        let by_time = self.tick(event.at);
        if by_time != Heard::Nothing {
            self.book.follow(event, |_, _| {});
            return by_time;
        }
        self.armed |= !self.book.waits_for_rest();
        let what = event.what.in_range();
        match what {
            EventKind::Wheel { direction } if self.armed => {
                return self.complete(Input::Wheel(direction));
            }
            EventKind::Scroll { x, y } => {
                let slot = self.book.slot(event.device);
                let notch = notched(self.book.turn(slot, [x, y])).next();
                if let Some(direction) = notch.filter(|_| self.armed) {
                    return self.complete(Input::Wheel(direction));
                }
            }
            EventKind::MouseMove { x, y } if self.options.planes && self.armed => {
                self.moved += x.abs() + y.abs();
                return match self.moved > MOVE_FAR {
                    true => self.complete(Input::MouseMove),
                    false => Heard::Nothing,
                };
            }
            EventKind::PadGyro { yaw, pitch, roll } if self.options.planes && self.armed => {
                self.turned += yaw.abs() + pitch.abs() + roll.abs();
                return match self.turned > TURNED_FAR {
                    true => self.complete(Input::PadGyro),
                    false => Heard::Nothing,
                };
            }
            _ => {}
        }
        let mut changes: Vec<(Control, Change)> = Vec::new();
        self.book.follow(event, |control, change| {
            if change != Change::Nothing {
                changes.push((control, change));
            }
        });
        // What a lost device held is not held any more, and nothing was meant by it.
        if matches!(what, EventKind::FocusLost | EventKind::Unplugged) {
            let before = self.held.len();
            self.cancelling = None;
            let book = &self.book;
            self.held.retain(|(control, _)| book.is_down(*control));
            return match self.held.len() == before {
                true => Heard::Nothing,
                false => Heard::Holding,
            };
        }
        if !self.armed {
            // What lies on a trigger must not keep the player from getting out.
            changes.retain(|(control, _)| control.input().is_some_and(|i| self.cancels(i)));
        }
        if let Some((control, _)) = self.strongest(&changes) {
            return self.pressed(control, self.input_of(control, &what), event.at);
        }
        // One that was spent by what was refused meanwhile comes to rest.
        let is_up = |c: Cancelling| {
            let mut all = changes.iter();
            all.any(|(control, change)| {
                matches!(change, Change::Up { last: true } | Change::Rested) && c.is(*control)
            })
        };
        if self.cancelling.take_if(|c| is_up(*c)).is_some() {
            return Heard::Cancelled;
        }
        let up = changes.iter().find(|(control, change)| {
            matches!(change, Change::Up { last: true }) && self.position(*control).is_some()
        });
        match up {
            Some((control, _)) => self.let_go(*control),
            None => Heard::Nothing,
        }
    }

    /// Of what went down by one event, that which is furthest in: of the directions of a stick.
    fn strongest(&self, changes: &[(Control, Change)]) -> Option<(Control, Change)> {
        let down = changes
            .iter()
            .filter(|(_, change)| matches!(change, Change::Down { first: true }));
        let far = |control: Control| {
            let [x, y] = self.book.level(control);
            x.hypot(y)
        };
        down.copied().max_by(|a, b| far(a.0).total_cmp(&far(b.0)))
    }

    /// What is bound by a control: a direction of a stick, or the stick where planes are meant.
    fn input_of(&self, control: Control, what: &EventKind) -> Input {
        match *what {
            EventKind::PadStick { stick, .. } if self.options.planes => Input::PadStick(stick),
            EventKind::Touch { name, .. } | EventKind::TouchStick { name, .. } => {
                Input::Touch(name)
            }
            _ => control.input().unwrap_or(Input::MouseMove),
        }
    }

    fn position(&self, control: Control) -> Option<usize> {
        self.held.iter().position(|(c, _)| *c == control)
    }

    fn cancels(&self, input: Input) -> bool {
        let on = &self.options.on;
        let mut all = self.options.cancel.iter();
        all.any(|i| on.relation(input, *i).is_some())
    }

    fn pressed(&mut self, control: Control, input: Input, at: Time) -> Heard {
        if self.cancels(input) {
            self.cancelling = Some(Cancelling::new(control, input, at));
            return Heard::Nothing;
        }
        // With a plane in mind, what is held may be completed by a movement.
        let may_move =
            self.options.planes && matches!(input, Input::MouseButton(_) | Input::PadButton(_));
        if (can_wait(input) || may_move) && self.held.len() < MAX_HELD {
            self.held.push((control, input));
            return Heard::Holding;
        }
        self.complete(input)
    }

    /// A part that was held came up before anything completed the chord: it is what was meant,
    /// with whatever else is held.
    fn let_go(&mut self, control: Control) -> Heard {
        let Some(at) = self.position(control) else {
            return Heard::Nothing;
        };
        let (_, input) = self.held.remove(at);
        self.complete(input)
    }

    fn complete(&mut self, input: Input) -> Heard {
        let held = std::mem::take(&mut self.held);
        // Whatever is still down belongs to this chord, and begins no other one.
        self.book.spend(DeviceId::ALL);
        // Chords are told by either side of a modifier; a modifier alone by its own side.
        let either = held.into_iter().map(|(_, i)| match i {
            Input::Key(place) => Modifier::of_place(place).map_or(i, Input::Modifier),
            other => other,
        });
        let mut either: Vec<Input> = either.collect();
        either.sort_unstable();
        either.dedup();
        // Both sides of a modifier, or a part that cannot be held: the last input alone.
        let chord = Chord::new(either, input).unwrap_or_else(|_| input.into());
        let reserved = self.options.on.find_related(&chord, &self.options.reserved);
        if let Some((part, _)) = reserved {
            return Heard::Refused(RefusedInput::Reserved(part));
        }
        let other = |kind| {
            let mut all = chord.inputs();
            all.find(|i| ColumnKind::of(i.device_kind()) != kind)
        };
        let mut columns = self.options.columns.iter();
        if let Some(&kind) = columns.clone().next()
            && let Some(part) = other(kind)
            && columns.all(|kind| other(*kind).is_some())
        {
            return Heard::Refused(RefusedInput::OtherColumn(part, kind));
        }
        self.cancelling = None;
        Heard::Chord(chord)
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

impl ListenerOptions {
    /// Takes inputs for these columns, and others only as far as they are asked for too.
    #[must_use]
    pub fn for_columns(mut self, kind: ColumnKind) -> Self {
        self.columns.push(kind);
        self
    }

    /// Refuses these inputs.
    #[must_use]
    pub fn with_reserved(mut self, reserved: &[Input]) -> Self {
        self.reserved = reserved.to_vec();
        self
    }

    /// Judges what cancels and what is reserved on this layout and platform.
    #[must_use]
    pub fn with_keys(mut self, on: impl Into<Resolver>) -> Self {
        self.on = on.into();
        self
    }

    /// Gives up after that long.
    #[must_use]
    pub fn with_timeout(mut self, timeout: Option<Duration>) -> Self {
        self.timeout = timeout;
        self
    }
}
