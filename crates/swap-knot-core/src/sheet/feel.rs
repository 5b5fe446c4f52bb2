//! Feel: dead zone, sensitivity, invert, curve, ramp.

use std::fmt;
use std::ops::RangeInclusive;

use crate::input::DeviceKind;
use crate::text::spelled;

/// How far an analog input of a device without a dead zone of its own may be off and still rest.
pub(crate) const LOOSE: f32 = 0.15;

/// How a dead zone is laid around the rest of a stick.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum DeadZoneForm {
    /// By distance from the middle, so that directions stay true.
    Round,
    /// Each axis by itself, so that straight lines are easy to keep.
    Axis,
}

/// The part of a stick's or trigger's way that counts as rest, and where full begins.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct DeadZone {
    /// Up to here it rests, 0 to 0.95 of the way.
    pub inner: f32,
    /// From here on it is full, above `inner` to 1.
    pub outer: f32,
    /// How it is laid.
    pub form: DeadZoneForm,
}

/// How an input is turned into an action's value.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Feel {
    /// What counts as rest and as full.
    pub dead_zone: DeadZone,
    /// The value is multiplied by this, 0.01 to 100. A deflection stays within full by it, unless
    /// the action is a rate ([`Action::rate`](crate::sheet::Action::rate)).
    pub sensitivity: f32,
    /// Which axes are turned round: first, second, third.
    pub invert: [bool; 3],
    /// The power that the value is raised to, 0.1 to 10: 1 is a straight line, above 1 is finer
    /// around rest. A mouse has no full: for its motion the speed is bent, with
    /// [`Feel::EVEN_SPEED`] as what stays as it is, and by a tenth to tenfold at most.
    pub curve: f32,
    /// How far in a trigger or a half of a stick or axis has to be to work a press, 0.05 to 1 of the
    /// way; it is let go at four fifths of that.
    pub threshold: f32,
    /// How many counts of a mouse one degree is worth by which a pad is turned in the hands, 0 to 200;
    /// sensitivity does not matter for it. With so many as a degree of turning takes of a mouse
    /// ([`TurnUnits`](crate::play::TurnUnits)), the view turns as the pad does.
    pub gyro: f32,
    /// Seconds that a key takes from rest to full, 0 to 10.
    pub ramp_up: f32,
    /// Seconds that a key takes from full to rest, 0 to 10.
    pub ramp_down: f32,
}

impl Default for Feel {
    /// A straight line without dead zone or ramp.
    fn default() -> Self {
        Feel {
            dead_zone: DeadZone {
                inner: 0.0,
                outer: 1.0,
                form: DeadZoneForm::Round,
            },
            sensitivity: 1.0,
            invert: [false; 3],
            curve: 1.0,
            threshold: 0.5,
            gyro: 16.0,
            ramp_up: 0.0,
            ramp_down: 0.0,
        }
    }
}

/// A change of feel: only what is set replaces what was there.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct FeelPatch {
    /// Replaces [`Feel::dead_zone`].
    pub dead_zone: Option<DeadZone>,
    /// Replaces [`Feel::sensitivity`].
    pub sensitivity: Option<f32>,
    /// Replaces [`Feel::invert`].
    pub invert: Option<[bool; 3]>,
    /// Replaces [`Feel::curve`].
    pub curve: Option<f32>,
    /// Replaces [`Feel::threshold`].
    pub threshold: Option<f32>,
    /// Replaces [`Feel::gyro`].
    pub gyro: Option<f32>,
    /// Replaces [`Feel::ramp_up`].
    pub ramp_up: Option<f32>,
    /// Replaces [`Feel::ramp_down`].
    pub ramp_down: Option<f32>,
}

spelled! {
    /// One number of a feel.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    pub enum Knob {
        /// [`Feel::dead_zone`].
        DeadZone = "dead-zone",
        /// [`Feel::sensitivity`].
        Sensitivity = "sensitivity",
        /// [`Feel::invert`].
        Invert = "invert",
        /// [`Feel::curve`].
        Curve = "curve",
        /// [`Feel::threshold`].
        Threshold = "threshold",
        /// [`Feel::gyro`].
        Gyro = "gyro",
        /// [`Feel::ramp_up`].
        RampUp = "ramp-up",
        /// [`Feel::ramp_down`].
        RampDown = "ramp-down",
    }
}

impl Knob {
    /// The range of a number on its own: 0 to 0.95 for the inner edge of a dead zone; none for
    /// what is turned round.
    pub const fn range(self) -> Option<RangeInclusive<f32>> {
        match self {
            Knob::DeadZone => Some(0.0..=0.95),
            Knob::Sensitivity => Some(0.01..=100.0),
            Knob::Invert => None,
            Knob::Curve => Some(0.1..=10.0),
            Knob::Threshold => Some(0.05..=1.0),
            Knob::Gyro => Some(0.0..=200.0),
            Knob::RampUp | Knob::RampDown => Some(0.0..=10.0),
        }
    }
}

/// What a [`Knob`] is turned to.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum KnobValue {
    /// A plain number.
    Number(f32),
    /// A dead zone.
    DeadZone(DeadZone),
    /// Which axes are turned round.
    Axes([bool; 3]),
}

impl fmt::Display for KnobValue {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            KnobValue::Number(number) => write!(f, "{number}"),
            KnobValue::DeadZone(zone) => write!(f, "{} to {}", zone.inner, zone.outer),
            KnobValue::Axes(axes) => {
                let named = ["x", "y", "z"].into_iter().zip(axes);
                let on: Vec<&str> = named.filter(|(_, on)| **on).map(|(a, _)| a).collect();
                f.write_str(if on.is_empty() { "none" } else { "" })?;
                f.write_str(&on.join(" "))
            }
        }
    }
}

/// A number of a feel that is out of its range, or is no number.
#[derive(Clone, Copy, Debug, PartialEq, thiserror::Error)]
#[non_exhaustive]
#[error("{} goes from {least} to {most}, and {value} is not in there", knob.word())]
pub struct OutOfRange {
    /// Which number.
    pub knob: Knob,
    /// What it was to be.
    pub value: f32,
    /// The least it can be.
    pub least: f32,
    /// The most it can be.
    pub most: f32,
}

impl FeelPatch {
    /// What it turns a knob to.
    pub fn knob(&self, knob: Knob) -> Option<KnobValue> {
        match knob {
            Knob::DeadZone => self.dead_zone.map(KnobValue::DeadZone),
            Knob::Sensitivity => self.sensitivity.map(KnobValue::Number),
            Knob::Invert => self.invert.map(KnobValue::Axes),
            Knob::Curve => self.curve.map(KnobValue::Number),
            Knob::Threshold => self.threshold.map(KnobValue::Number),
            Knob::Gyro => self.gyro.map(KnobValue::Number),
            Knob::RampUp => self.ramp_up.map(KnobValue::Number),
            Knob::RampDown => self.ramp_down.map(KnobValue::Number),
        }
    }

    /// Turns a knob, or leaves it alone; a value of another kind than the knob's leaves it alone.
    pub fn turn(&mut self, knob: Knob, value: Option<KnobValue>) {
        let number = match value {
            Some(KnobValue::Number(number)) => Some(number),
            _ => None,
        };
        match (knob, value) {
            (Knob::DeadZone, Some(KnobValue::DeadZone(zone))) => self.dead_zone = Some(zone),
            (Knob::DeadZone, _) => self.dead_zone = None,
            (Knob::Invert, Some(KnobValue::Axes(axes))) => self.invert = Some(axes),
            (Knob::Invert, _) => self.invert = None,
            (Knob::Sensitivity, _) => self.sensitivity = number,
            (Knob::Curve, _) => self.curve = number,
            (Knob::Threshold, _) => self.threshold = number,
            (Knob::Gyro, _) => self.gyro = number,
            (Knob::RampUp, _) => self.ramp_up = number,
            (Knob::RampDown, _) => self.ramp_down = number,
        }
    }

    /// Whether every number is one, and in its range.
    ///
    /// # Errors
    /// The first that is not.
    pub fn check(&self) -> Result<(), OutOfRange> {
        for knob in Knob::ALL {
            let Some(value) = self.knob(knob) else {
                continue;
            };
            let within = |value: f32, range: RangeInclusive<f32>| match range.contains(&value) {
                true => Ok(()),
                false => Err(OutOfRange {
                    knob,
                    value,
                    least: *range.start(),
                    most: *range.end(),
                }),
            };
            match (value, knob.range()) {
                (KnobValue::Number(number), Some(range)) => within(number, range)?,
                (KnobValue::DeadZone(zone), Some(range)) => {
                    within(zone.inner, range)?;
                    // The outer edge lies outside the inner one.
                    let least = zone.inner.next_up().max(0.05);
                    within(zone.outer, least..=1.0)?;
                }
                _ => {}
            }
        }
        Ok(())
    }

    /// Whether it changes nothing.
    pub fn is_empty(&self) -> bool {
        *self == FeelPatch::default()
    }

    /// This change with another one laid over it.
    #[must_use]
    pub fn with(self, over: &FeelPatch) -> FeelPatch {
        FeelPatch {
            dead_zone: over.dead_zone.or(self.dead_zone),
            sensitivity: over.sensitivity.or(self.sensitivity),
            invert: over.invert.or(self.invert),
            curve: over.curve.or(self.curve),
            threshold: over.threshold.or(self.threshold),
            gyro: over.gyro.or(self.gyro),
            ramp_up: over.ramp_up.or(self.ramp_up),
            ramp_down: over.ramp_down.or(self.ramp_down),
        }
    }
}

impl Feel {
    /// The speed of a mouse, in counts a second, that no [`Feel::curve`] changes.
    pub const EVEN_SPEED: f32 = 1000.0;

    /// The feel on a device kind where neither the game nor the player says anything.
    pub(crate) fn usual(kind: DeviceKind) -> Feel {
        let mut usual = Feel::default();
        if kind == DeviceKind::Gamepad {
            // Sticks that rest exactly in the middle are rare; a sheet may say 0.
            usual.dead_zone.inner = LOOSE;
        }
        usual
    }

    /// What a knob is at.
    pub const fn knob(&self, knob: Knob) -> KnobValue {
        match knob {
            Knob::DeadZone => KnobValue::DeadZone(self.dead_zone),
            Knob::Sensitivity => KnobValue::Number(self.sensitivity),
            Knob::Invert => KnobValue::Axes(self.invert),
            Knob::Curve => KnobValue::Number(self.curve),
            Knob::Threshold => KnobValue::Number(self.threshold),
            Knob::Gyro => KnobValue::Number(self.gyro),
            Knob::RampUp => KnobValue::Number(self.ramp_up),
            Knob::RampDown => KnobValue::Number(self.ramp_down),
        }
    }

    /// This feel with a change laid over it.
    #[must_use]
    pub fn with(self, patch: &FeelPatch) -> Feel {
        Feel {
            dead_zone: patch.dead_zone.unwrap_or(self.dead_zone),
            sensitivity: patch.sensitivity.unwrap_or(self.sensitivity),
            invert: patch.invert.unwrap_or(self.invert),
            curve: patch.curve.unwrap_or(self.curve),
            threshold: patch.threshold.unwrap_or(self.threshold),
            gyro: patch.gyro.unwrap_or(self.gyro),
            ramp_up: patch.ramp_up.unwrap_or(self.ramp_up),
            ramp_down: patch.ramp_down.unwrap_or(self.ramp_down),
        }
    }
}
