//! What a setting is set to.

use std::fmt;

use super::{Form, Parameter, ParameterPart};
use crate::text::spelled;

pub(crate) const AXES: [&str; 3] = ["x", "y", "z"];

spelled! {
    /// How a dead zone is laid around the rest of a stick.
    #[derive(Clone, Copy, Debug, PartialEq, Eq)]
    pub enum DeadZoneForm {
        /// By distance from the middle, so that directions stay true.
        Round = "round",
        /// Each axis by itself, so that straight lines are easy to keep.
        Axis = "axis",
    }
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

impl DeadZone {
    /// None at all: it rests at rest alone.
    pub const NONE: DeadZone = DeadZone {
        inner: 0.0,
        outer: 1.0,
        form: DeadZoneForm::Round,
    };
    /// The range of the outer edge, which lies beyond the inner one besides.
    pub(crate) const OUTER: std::ops::RangeInclusive<f32> = 0.05..=1.0;
}

/// What a [`Parameter`] is set to.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub enum ParameterValue {
    /// A plain number.
    Number(f32),
    /// A time.
    Seconds(f32),
    /// On or off.
    Flag(bool),
    /// Which axes: first, second, third.
    Axes([bool; 3]),
    /// A dead zone.
    DeadZone(DeadZone),
}

impl From<bool> for ParameterValue {
    fn from(on: bool) -> Self {
        ParameterValue::Flag(on)
    }
}

impl From<f32> for ParameterValue {
    /// A number, or so many seconds where the parameter is a time.
    fn from(number: f32) -> Self {
        ParameterValue::Number(number)
    }
}

impl From<[bool; 3]> for ParameterValue {
    fn from(axes: [bool; 3]) -> Self {
        ParameterValue::Axes(axes)
    }
}

impl From<DeadZone> for ParameterValue {
    fn from(zone: DeadZone) -> Self {
        ParameterValue::DeadZone(zone)
    }
}

impl ParameterValue {
    pub(super) const fn form(self) -> Form {
        match self {
            ParameterValue::Number(_) => Form::Number,
            ParameterValue::Seconds(_) => Form::Seconds,
            ParameterValue::Flag(_) => Form::Flag,
            ParameterValue::Axes(_) => Form::Axes,
            ParameterValue::DeadZone(_) => Form::DeadZone,
        }
    }

    /// The same as the value of a parameter: a number for a time is so many seconds.
    pub(super) fn of(self, parameter: Parameter) -> ParameterValue {
        match (self, parameter.form()) {
            (ParameterValue::Number(n), Form::Seconds) => ParameterValue::Seconds(n),
            (ParameterValue::Seconds(n), Form::Number) => ParameterValue::Number(n),
            (other, _) => other,
        }
    }

    /// A part of it as a number; 1 and 0 for on and off.
    pub fn number(self, part: ParameterPart) -> f32 {
        match (self, part) {
            (ParameterValue::Number(n) | ParameterValue::Seconds(n), _) => n,
            (ParameterValue::Flag(on), _) => f32::from(on),
            (ParameterValue::DeadZone(zone), ParameterPart::Full) => zone.outer,
            (ParameterValue::DeadZone(zone), _) => zone.inner,
            (ParameterValue::Axes([_, y, _]), ParameterPart::Y) => f32::from(y),
            (ParameterValue::Axes([_, _, z]), ParameterPart::Z) => f32::from(z),
            (ParameterValue::Axes([x, _, _]), _) => f32::from(x),
        }
    }

    /// The same with a part at another number; from one half up is on.
    #[must_use]
    pub fn with(self, part: ParameterPart, to: f32) -> ParameterValue {
        let on = to > 0.5;
        match (self, part) {
            (ParameterValue::Number(_), _) => ParameterValue::Number(to),
            (ParameterValue::Seconds(_), _) => ParameterValue::Seconds(to),
            (ParameterValue::Flag(_), _) => ParameterValue::Flag(on),
            (ParameterValue::DeadZone(zone), ParameterPart::Full) => {
                ParameterValue::DeadZone(DeadZone { outer: to, ..zone })
            }
            (ParameterValue::DeadZone(zone), _) => {
                ParameterValue::DeadZone(DeadZone { inner: to, ..zone })
            }
            (ParameterValue::Axes([x, _, z]), ParameterPart::Y) => ParameterValue::Axes([x, on, z]),
            (ParameterValue::Axes([x, y, _]), ParameterPart::Z) => ParameterValue::Axes([x, y, on]),
            (ParameterValue::Axes([_, y, z]), _) => ParameterValue::Axes([on, y, z]),
        }
    }

    /// As it stands in a profile's file.
    pub(crate) fn write(self) -> toml::Value {
        match self {
            ParameterValue::Number(number) | ParameterValue::Seconds(number) => {
                toml::Value::Float(float(number))
            }
            ParameterValue::Flag(on) => on.into(),
            ParameterValue::Axes(axes) => named(axes).collect::<Vec<_>>().into(),
            ParameterValue::DeadZone(DeadZone { inner, outer, form }) => {
                let entries: [(&str, toml::Value); 3] = [
                    ("inner", float(inner).into()),
                    ("outer", float(outer).into()),
                    ("form", form.word().into()),
                ];
                let entries = entries.map(|(key, value)| (key.to_owned(), value));
                toml::Value::Table(entries.into_iter().collect())
            }
        }
    }
}

impl fmt::Display for ParameterValue {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            ParameterValue::Number(number) => write!(f, "{number}"),
            ParameterValue::Seconds(seconds) => write!(f, "{seconds} s"),
            ParameterValue::Flag(on) => write!(f, "{on}"),
            ParameterValue::DeadZone(zone) => write!(f, "{} to {}", zone.inner, zone.outer),
            ParameterValue::Axes([false, false, false]) => f.write_str("none"),
            ParameterValue::Axes(axes) => f.write_str(&named(*axes).collect::<Vec<_>>().join(" ")),
        }
    }
}

/// The axes that are on.
fn named(axes: [bool; 3]) -> impl Iterator<Item = &'static str> {
    let named = AXES.into_iter().zip(axes);
    named.filter(|(_, on)| *on).map(|(axis, _)| axis)
}

/// The number as a player would write it: 0.15, not 0.15000000596046448.
fn float(number: f32) -> f64 {
    let text = number.to_string();
    text.parse().unwrap_or_else(|_| f64::from(number))
}
