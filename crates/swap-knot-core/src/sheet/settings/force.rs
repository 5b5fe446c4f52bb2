//! Settings as they are in force.

use super::table::Slot;
use super::{DeadZone, Parameter, ParameterPart, ParameterValue, Parameters};
use crate::input::Placement;
use crate::sheet::Manner;

/// How an input is turned into an action's value.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Feel {
    /// What counts as rest and as full.
    pub dead_zone: DeadZone,
    /// The value is multiplied by this, 0.01 to 100. A deflection stays within full by it, unless
    /// the action is a rate ([`Action::rate`](crate::sheet::Action::rate)).
    pub sensitivity: f32,
    /// How many times as sensitive the second axis of a plane or space is, up and down, as the first,
    /// 0.1 to 10.
    pub sensitivity_y: f32,
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
            dead_zone: DeadZone::NONE,
            sensitivity: 1.0,
            sensitivity_y: 1.0,
            invert: [false; 3],
            curve: 1.0,
            threshold: 0.5,
            gyro: 16.0,
            ramp_up: 0.0,
            ramp_down: 0.0,
        }
    }
}

impl Feel {
    /// What the value of one axis of an action is multiplied by: 0 is the first.
    #[inline]
    pub(crate) fn along(&self, axis: usize) -> f32 {
        match axis {
            1 => self.sensitivity * self.sensitivity_y,
            _ => self.sensitivity,
        }
    }

    /// The speed of a mouse, in counts a second, that no [`Feel::curve`] changes.
    pub const EVEN_SPEED: f32 = 1000.0;

    /// What a setting of it is; none for one of another kind.
    pub fn get(mut self, parameter: Parameter) -> Option<ParameterValue> {
        self.slot(parameter).map(|slot| slot.get())
    }

    /// This feel with settings laid over it.
    #[must_use]
    pub fn with(mut self, over: &Parameters) -> Feel {
        for (parameter, value) in over.iter() {
            if let Some(slot) = self.slot(parameter) {
                slot.put(value);
            }
        }
        self
    }
}

/// How an action is worked, and how much it asks of the hands: its times, and what is eased.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Easing {
    /// One press switches on what would have to be held, and the next one off. For all actions at
    /// once it is about what has a value, such as walking, and not about presses. Of an action with
    /// arms each does so by itself, and ends its opposite; what follows how far it is in, such as a
    /// stick, is not about it.
    pub toggle: bool,
    /// A tap latches a held part of a chord, so that it need not be held.
    pub latch: bool,
    /// What wants to be held or tapped twice is worked by a press.
    pub press: bool,
    /// A press that follows the last one of the same binding within so many seconds is ignored, 0 to 2.
    pub ignore_within: f32,
    /// Down for so many seconds is a hold, 0.02 to 10.
    pub hold_after: f32,
    /// Up again within so many seconds is a tap, 0.02 to 10.
    pub tap_within: f32,
    /// A second press within so many seconds of the first is a double tap, 0.02 to 10.
    pub double_tap_within: f32,
    /// The parts of a chord that are pressed together come within so many seconds of each other, 0.02 to
    /// 10.
    pub together_within: f32,
}

impl Default for Easing {
    /// Nothing eased.
    fn default() -> Self {
        Easing {
            toggle: false,
            latch: false,
            press: false,
            ignore_within: 0.0,
            hold_after: 0.5,
            tap_within: 0.25,
            double_tap_within: 0.35,
            together_within: 0.08,
        }
    }
}

impl Easing {
    /// What a setting of it is; none for one of another kind.
    pub fn get(mut self, parameter: Parameter) -> Option<ParameterValue> {
        self.slot(parameter).map(|slot| slot.get())
    }

    /// This with settings laid over it.
    #[must_use]
    pub fn with(mut self, over: &Parameters) -> Easing {
        for (parameter, value) in over.iter() {
            if let Some(slot) = self.slot(parameter) {
                slot.put(value);
            }
        }
        self
    }

    /// How a binding is worked that the sheet wants worked so.
    pub(crate) fn manner(&self, declared: Manner) -> Manner {
        match self.press && declared.gesture().is_eased_to_press() {
            true => Manner::Press,
            false => declared,
        }
    }
}

impl Parameters {
    /// Where these put a touch zone.
    pub fn placement(&self) -> Placement {
        let number = |parameter| {
            self.get(parameter)
                .map(|value| value.number(ParameterPart::Whole))
        };
        let shift = [Parameter::ShiftX, Parameter::ShiftY];
        Placement::new(
            shift.map(|p| number(p).unwrap_or(0.0)),
            number(Parameter::Size).unwrap_or(1.0),
        )
    }

    /// Those that put a touch zone there.
    pub fn of_placement(placement: Placement) -> Parameters {
        let [x, y] = placement.shift();
        Parameters::new()
            .with(Parameter::ShiftX, x)
            .with(Parameter::ShiftY, y)
            .with(Parameter::Size, placement.size())
    }
}

impl Slot<'_> {
    fn get(self) -> ParameterValue {
        match self {
            Slot::Flag(on) => ParameterValue::Flag(*on),
            Slot::Number(number) => ParameterValue::Number(*number),
            Slot::Seconds(seconds) => ParameterValue::Seconds(*seconds),
            Slot::Axes(axes) => ParameterValue::Axes(*axes),
            Slot::DeadZone(zone) => ParameterValue::DeadZone(*zone),
        }
    }

    /// A value of another form leaves it as it is: nothing that was checked has one.
    fn put(self, value: ParameterValue) {
        match (self, value) {
            (Slot::Flag(on), ParameterValue::Flag(to)) => *on = to,
            (Slot::Number(number), ParameterValue::Number(to)) => *number = to,
            (Slot::Seconds(seconds), ParameterValue::Seconds(to)) => *seconds = to,
            (Slot::Axes(axes), ParameterValue::Axes(to)) => *axes = to,
            (Slot::DeadZone(zone), ParameterValue::DeadZone(to)) => *zone = to,
            _ => {}
        }
    }
}
