//! Several settings, and what they are for.

use std::collections::BTreeMap;
use std::ops::RangeInclusive;

use super::{DeadZone, Parameter, ParameterValue};
use crate::input::{DeviceKind, TouchName};

/// What a setting acts on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum ActsOn {
    /// How inputs of a device kind feel.
    Inputs(DeviceKind),
    /// How actions are worked.
    Actions,
    /// Where a touch zone lies.
    Zone(TouchName),
}

impl ActsOn {
    /// All that a sheet has settings for.
    pub(crate) fn in_sheets() -> impl Iterator<Item = ActsOn> {
        let inputs = DeviceKind::ALL.map(ActsOn::Inputs).into_iter();
        inputs.chain([ActsOn::Actions])
    }
}

/// What a setting is for: all that it can act on, or one action of it.
///
/// Where one is asked for, an action's name stands for how that is worked, a [`DeviceKind`] for how its
/// inputs feel, both together for how they feel for that action, and a [`TouchName`] for where that zone
/// lies.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Scope {
    /// The action by name; none for all of them.
    pub action: Option<String>,
    /// What it acts on.
    pub on: ActsOn,
}

impl Scope {
    /// What is set for one action by name, or for all.
    pub fn new(on: ActsOn, action: Option<&str>) -> Scope {
        Scope {
            action: action.map(str::to_owned),
            on,
        }
    }

    /// How inputs of a device kind feel, for one action by name or for all.
    pub fn inputs(kind: DeviceKind, action: Option<&str>) -> Scope {
        Scope::new(ActsOn::Inputs(kind), action)
    }

    /// How one action by name is worked, or all are.
    pub fn actions(action: Option<&str>) -> Scope {
        Scope::new(ActsOn::Actions, action)
    }

    /// Where a touch zone lies.
    pub const fn zone(name: TouchName) -> Scope {
        Scope {
            action: None,
            on: ActsOn::Zone(name),
        }
    }

    /// How all actions are worked.
    pub const ALL_ACTIONS: Scope = Scope {
        action: None,
        on: ActsOn::Actions,
    };

    /// Where one of its settings stands in a profile or preset, outermost key first.
    pub(crate) fn path(&self, parameter: Parameter) -> Vec<String> {
        let word = parameter.word();
        let (action, on) = (self.action.as_deref(), self.on);
        let path: &[&str] = match (&on, action) {
            (ActsOn::Inputs(kind), None) => &["feel", kind.word(), word],
            (ActsOn::Inputs(kind), Some(action)) => &["action-feel", action, kind.word(), word],
            (ActsOn::Actions, None) => &["ease", word],
            // Older than the others.
            (ActsOn::Actions, Some(action)) if parameter == Parameter::Toggle => {
                &["toggle", action]
            }
            (ActsOn::Actions, Some(action)) => &["action-ease", action, word],
            (ActsOn::Zone(name), _) => &["touch", name.as_str(), word],
        };
        path.iter().map(|key| (*key).to_owned()).collect()
    }

    /// What stands at a place of a profile or preset.
    pub(crate) fn at(path: &[&str]) -> Option<(Scope, Parameter)> {
        let kind = DeviceKind::from_word;
        let (scope, word) = match *path {
            ["feel", of, word] => (Scope::inputs(kind(of)?, None), word),
            ["action-feel", action, of, word] => (Scope::inputs(kind(of)?, Some(action)), word),
            ["ease", word] => (Scope::actions(None), word),
            ["toggle", action] => {
                return Some((Scope::actions(Some(action)), Parameter::Toggle));
            }
            ["action-ease", _, "toggle"] => return None,
            ["action-ease", action, word] => (Scope::actions(Some(action)), word),
            ["touch", name, word] => (Scope::zone(name.parse().ok()?), word),
            _ => return None,
        };
        let parameter = Parameter::from_word(word)?;
        parameter.fits(scope.on).then_some((scope, parameter))
    }
}

impl From<&str> for Scope {
    /// How one action is worked, by name.
    fn from(action: &str) -> Scope {
        Scope::actions(Some(action))
    }
}

impl From<DeviceKind> for Scope {
    /// How inputs of a device kind feel, for all actions.
    fn from(kind: DeviceKind) -> Scope {
        Scope::inputs(kind, None)
    }
}

impl From<(&str, DeviceKind)> for Scope {
    /// How inputs of a device kind feel, for one action by name.
    fn from((action, kind): (&str, DeviceKind)) -> Scope {
        Scope::inputs(kind, Some(action))
    }
}

impl From<TouchName> for Scope {
    /// Where a touch zone lies.
    fn from(name: TouchName) -> Scope {
        Scope::zone(name)
    }
}

impl From<&Scope> for Scope {
    fn from(scope: &Scope) -> Scope {
        scope.clone()
    }
}

/// Some settings of the same scope: only those that are set say anything.
///
/// ```
/// use swap_knot::sheet::{Parameter, Parameters};
///
/// let eased = Parameters::new()
///     .with(Parameter::Latch, true)
///     .with(Parameter::HoldAfter, 1.2);
/// assert!(eased.check().is_ok());
/// let wrong = Parameters::new().with(Parameter::HoldAfter, 90.0);
/// assert_eq!(
///     wrong.check().unwrap_err().to_string(),
///     "hold-after goes from 0.02 to 10 seconds, and 90 is not in there",
/// );
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Parameters(BTreeMap<Parameter, ParameterValue>);

impl Parameters {
    /// None.
    pub const fn new() -> Parameters {
        Parameters(BTreeMap::new())
    }

    /// These and one more.
    #[must_use]
    pub fn with(mut self, parameter: Parameter, value: impl Into<ParameterValue>) -> Parameters {
        self.set(parameter, Some(value.into()));
        self
    }

    /// What it sets one to.
    pub fn get(&self, parameter: Parameter) -> Option<ParameterValue> {
        self.0.get(&parameter).copied()
    }

    /// Sets one, or leaves it alone.
    pub fn set(&mut self, parameter: Parameter, value: Option<ParameterValue>) {
        match value {
            Some(value) => self.0.insert(parameter, value.of(parameter)),
            None => self.0.remove(&parameter),
        };
    }

    /// Those that are set, in order.
    pub fn iter(&self) -> impl Iterator<Item = (Parameter, ParameterValue)> + '_ {
        self.0.iter().map(|(parameter, value)| (*parameter, *value))
    }

    /// Whether none is set.
    pub fn is_empty(&self) -> bool {
        self.0.is_empty()
    }

    /// These with others laid over them.
    #[must_use]
    pub fn overlaid_by(mut self, over: &Parameters) -> Parameters {
        self.0.extend(over.iter());
        self
    }

    /// Whether every value is what its parameter takes.
    ///
    /// # Errors
    /// The first that is not.
    pub fn check(&self) -> Result<(), BadSetting> {
        self.iter().try_for_each(|(p, value)| p.check(value))
    }
}

/// A setting whose value is not one that it takes.
#[derive(Clone, Copy, Debug, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum BadSetting {
    /// A number is out of its range, or is none.
    #[error(
        "{parameter} goes from {least} to {most}{}, and {value} is not in there",
        if parameter.is_time() { " seconds" } else { "" }
    )]
    OutOfRange {
        /// Which setting.
        parameter: Parameter,
        /// What it was to be.
        value: f32,
        /// The least it can be.
        least: f32,
        /// The most it can be.
        most: f32,
    },
    /// The value is of another form, such as a number for a switch.
    #[error("{parameter} cannot be {value}; it wants another kind of value")]
    OtherForm {
        /// Which setting.
        parameter: Parameter,
        /// What it was to be.
        value: ParameterValue,
    },
    /// It is not a setting of what it was set for, such as a dead zone of a touch zone.
    #[error("{parameter} is nothing that can be set there")]
    Misplaced {
        /// Which setting.
        parameter: Parameter,
    },
}

impl Parameter {
    /// Whether it takes a value.
    ///
    /// # Errors
    /// Why not.
    pub fn check(self, value: ParameterValue) -> Result<(), BadSetting> {
        let parameter = self;
        if value.form() != self.form() {
            return Err(BadSetting::OtherForm { parameter, value });
        }
        let within = |value: f32, range: RangeInclusive<f32>| match range.contains(&value) {
            true => Ok(()),
            false => Err(BadSetting::OutOfRange {
                parameter,
                value,
                least: *range.start(),
                most: *range.end(),
            }),
        };
        match (value, self.range()) {
            (ParameterValue::Number(n) | ParameterValue::Seconds(n), Some(range)) => {
                within(n, range)
            }
            (ParameterValue::DeadZone(zone), Some(range)) => {
                within(zone.inner, range)?;
                // The outer edge lies outside the inner one.
                let least = zone.inner.next_up().max(*DeadZone::OUTER.start());
                within(zone.outer, least..=*DeadZone::OUTER.end())
            }
            _ => Ok(()),
        }
    }
}

/// What a sheet sets: for all actions, or for one of them over that.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Settings {
    inputs: [Parameters; DeviceKind::ALL.len()],
    actions: Parameters,
}

impl Settings {
    /// What it sets of what acts on such.
    pub fn of(&self, on: ActsOn) -> &Parameters {
        static NOTHING: Parameters = Parameters::new();
        match on {
            ActsOn::Inputs(kind) => &self.inputs[kind as usize],
            ActsOn::Actions => &self.actions,
            ActsOn::Zone(_) => &NOTHING,
        }
    }

    /// Sets what acts on such; a sheet says nothing of where a touch zone lies.
    pub(crate) fn set(&mut self, on: ActsOn, to: Parameters) {
        match on {
            ActsOn::Inputs(kind) => self.inputs[kind as usize] = to,
            ActsOn::Actions => self.actions = to,
            ActsOn::Zone(_) => {}
        }
    }

    /// These with others laid over them.
    pub(crate) fn overlaid_by(mut self, over: &Settings) -> Settings {
        for on in ActsOn::in_sheets() {
            let all = self.of(on).clone();
            self.set(on, all.overlaid_by(over.of(on)));
        }
        self
    }
}
