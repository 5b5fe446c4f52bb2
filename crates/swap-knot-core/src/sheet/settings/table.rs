//! The table of settings.

use std::ops::RangeInclusive;

use super::{ActsOn, DeadZone, Easing, Feel, ParameterValue, Parameters, Slider};
use crate::input::{DeviceKind, Placement};
use crate::text::spelled;

/// How far an analog input of a device without a dead zone of its own may be off and still rest.
pub(crate) const LOOSE: f32 = 0.15;

spelled! {
    /// One number, switch or time that a game gives and a player may change.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[non_exhaustive]
    pub enum Parameter {
        /// [`Feel::sensitivity`].
        Sensitivity = "sensitivity",
        /// [`Feel::sensitivity_y`].
        SensitivityY = "sensitivity-y",
        /// [`Feel::dead_zone`].
        DeadZone = "dead-zone",
        /// [`Feel::curve`].
        Curve = "curve",
        /// [`Feel::threshold`].
        Threshold = "threshold",
        /// [`Feel::gyro`].
        Gyro = "gyro",
        /// [`Feel::invert`].
        Invert = "invert",
        /// [`Feel::ramp_up`].
        RampUp = "ramp-up",
        /// [`Feel::ramp_down`].
        RampDown = "ramp-down",
        /// [`Easing::toggle`].
        Toggle = "toggle",
        /// [`Easing::latch`].
        Latch = "latch",
        /// [`Easing::press`].
        Press = "press",
        /// [`Easing::ignore_within`].
        IgnoreWithin = "ignore-within",
        /// [`Easing::hold_after`].
        HoldAfter = "hold-after",
        /// [`Easing::tap_within`].
        TapWithin = "tap-within",
        /// [`Easing::double_tap_within`].
        DoubleTapWithin = "double-tap-within",
        /// [`Easing::together_within`].
        TogetherWithin = "together-within",
        /// How far a touch zone is moved to the right, in widths of the screen.
        ShiftX = "x",
        /// How far a touch zone is moved down, in heights of the screen.
        ShiftY = "y",
        /// How many times as large a touch zone is.
        Size = "size",
    }
}

/// What the table says of one.
struct Entry {
    on: On,
    form: Form,
    least: f32,
    most: f32,
    slider: Option<Slider>,
}

/// What it acts on, which is a [`ActsOn`] without the names.
#[derive(Clone, Copy)]
enum On {
    Inputs,
    Actions,
    Zones,
}

/// What a value looks like.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Form {
    /// On or off.
    Flag,
    /// A plain number.
    Number,
    /// A time.
    Seconds,
    /// Which axes.
    Axes,
    /// An inner and an outer edge.
    DeadZone,
}

const fn entry(on: On, form: Form, least: f32, most: f32) -> Entry {
    Entry {
        on,
        form,
        least,
        most,
        slider: None,
    }
}

impl Entry {
    const fn slides(mut self, least: f32, most: f32, step: f32) -> Entry {
        self.slider = Some(Slider {
            least,
            most,
            step,
            by_share: false,
        });
        self
    }

    const fn slides_by_share(self, least: f32, most: f32, step: f32) -> Entry {
        let mut out = self.slides(least, most, step);
        if let Some(slider) = &mut out.slider {
            slider.by_share = true;
        }
        out
    }
}

impl Parameter {
    #[rustfmt::skip]
    const fn entry(self) -> Entry {
        use Form::{Axes, DeadZone, Flag, Number, Seconds};
        use On::{Actions, Inputs, Zones};
        const FURTHEST: f32 = Placement::FURTHEST;
        const SMALLEST: f32 = Placement::SMALLEST;
        const LARGEST: f32 = Placement::LARGEST;
        match self {
            Parameter::DeadZone     => entry(Inputs, DeadZone, 0.0, 0.95).slides(0.0, 0.9, 0.01),
            Parameter::Sensitivity  => entry(Inputs, Number, 0.01, 100.0).slides_by_share(0.1, 10.0, 0.1),
            Parameter::SensitivityY => entry(Inputs, Number, 0.1, 10.0).slides_by_share(0.1, 10.0, 0.1),
            Parameter::Invert       => entry(Inputs, Axes, 0.0, 1.0),
            Parameter::Curve        => entry(Inputs, Number, 0.1, 10.0).slides(0.2, 5.0, 0.1),
            Parameter::Threshold    => entry(Inputs, Number, 0.05, 1.0).slides(0.05, 1.0, 0.05),
            Parameter::Gyro         => entry(Inputs, Number, 0.0, 200.0).slides(0.0, 80.0, 1.0),
            Parameter::RampUp
            | Parameter::RampDown   => entry(Inputs, Seconds, 0.0, 10.0).slides(0.0, 3.0, 0.05),
            Parameter::Toggle
            | Parameter::Latch
            | Parameter::Press      => entry(Actions, Flag, 0.0, 1.0),
            Parameter::IgnoreWithin => entry(Actions, Seconds, 0.0, 2.0).slides(0.0, 1.0, 0.05),
            Parameter::HoldAfter
            | Parameter::TapWithin
            | Parameter::DoubleTapWithin
            | Parameter::TogetherWithin => entry(Actions, Seconds, 0.02, 10.0).slides(0.05, 2.0, 0.05),
            Parameter::ShiftX
            | Parameter::ShiftY     => entry(Zones, Number, -FURTHEST, FURTHEST).slides(-FURTHEST, FURTHEST, 0.02),
            Parameter::Size         => entry(Zones, Number, SMALLEST, LARGEST).slides_by_share(SMALLEST, LARGEST, 0.02),
        }
    }

    pub(crate) const fn form(self) -> Form {
        self.entry().form
    }

    /// From the least to the most it can be, of a time in seconds; for a dead zone that of its inner
    /// edge; none for what is on or off.
    pub const fn range(self) -> Option<RangeInclusive<f32>> {
        let Entry {
            form, least, most, ..
        } = self.entry();
        match form {
            Form::Flag | Form::Axes => None,
            Form::Number | Form::Seconds | Form::DeadZone => Some(least..=most),
        }
    }

    /// Whether it is a time, in seconds.
    pub const fn is_time(self) -> bool {
        matches!(self.form(), Form::Seconds)
    }

    /// Whether it is one of those that act on such.
    pub const fn fits(self, on: ActsOn) -> bool {
        matches!(
            (self.entry().on, on),
            (On::Inputs, ActsOn::Inputs(_))
                | (On::Actions, ActsOn::Actions)
                | (On::Zones, ActsOn::Zone(_))
        )
    }

    /// Those that act on such, in order.
    pub fn of(on: ActsOn) -> impl Iterator<Item = Parameter> + Clone {
        Parameter::ALL.into_iter().filter(move |p| p.fits(on))
    }

    /// What it is where neither the game nor the player says anything.
    pub fn usual(self, on: ActsOn) -> ParameterValue {
        let value = match on {
            ActsOn::Inputs(kind) => Feel::usual(kind).get(self),
            ActsOn::Actions => Easing::default().get(self),
            ActsOn::Zone(_) => Parameters::of_placement(Placement::default()).get(self),
        };
        value.unwrap_or(ParameterValue::Number(0.0))
    }

    /// What of it is shown and set by itself, in order.
    pub const fn parts(self) -> &'static [ParameterPart] {
        match self.form() {
            Form::Flag | Form::Number | Form::Seconds => &[ParameterPart::Whole],
            Form::DeadZone => &[ParameterPart::Whole, ParameterPart::Full],
            Form::Axes => &[ParameterPart::X, ParameterPart::Y, ParameterPart::Z],
        }
    }

    /// How far a part of it slides; none for what is on or off.
    pub(crate) const fn slider(self, part: ParameterPart) -> Option<Slider> {
        match part {
            ParameterPart::Whole => self.entry().slider,
            ParameterPart::Full => Some(Slider {
                least: 0.1,
                most: 1.0,
                step: 0.01,
                by_share: false,
            }),
            ParameterPart::X | ParameterPart::Y | ParameterPart::Z => None,
        }
    }

    /// The word for a part of it in names that stay: `dead-zone`, `full`, `invert-x`.
    pub(crate) fn part_word(self, part: ParameterPart) -> String {
        match part {
            ParameterPart::Whole => self.word().to_owned(),
            ParameterPart::Full => part.word().to_owned(),
            ParameterPart::X | ParameterPart::Y | ParameterPart::Z => {
                format!("{}-{}", self.word(), part.word())
            }
        }
    }

    /// The message that says what a part of it is called.
    pub(crate) fn message(self, part: ParameterPart) -> String {
        let kind = match self.entry().on {
            On::Inputs => "knob",
            On::Actions => "ease",
            On::Zones => "zone",
        };
        format!("{kind}-{}", self.part_word(part))
    }
}

spelled! {
    /// What of a [`Parameter`] is set by itself, by one slider or switch.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[non_exhaustive]
    pub enum ParameterPart {
        /// All of it; of a dead zone the edge of rest.
        Whole = "whole",
        /// Of a dead zone the edge from which on it is full.
        Full = "full",
        /// The first axis: left and right.
        X = "x",
        /// The second axis: up and down.
        Y = "y",
        /// The third axis: back and forward, or the two ways over which a pad is turned.
        Z = "z",
    }
}

/// A place in a feel or an easing that a parameter stands for.
pub(super) enum Slot<'f> {
    Flag(&'f mut bool),
    Number(&'f mut f32),
    Seconds(&'f mut f32),
    Axes(&'f mut [bool; 3]),
    DeadZone(&'f mut DeadZone),
}

impl Feel {
    pub(super) fn slot(&mut self, parameter: Parameter) -> Option<Slot<'_>> {
        Some(match parameter {
            Parameter::DeadZone => Slot::DeadZone(&mut self.dead_zone),
            Parameter::Sensitivity => Slot::Number(&mut self.sensitivity),
            Parameter::SensitivityY => Slot::Number(&mut self.sensitivity_y),
            Parameter::Invert => Slot::Axes(&mut self.invert),
            Parameter::Curve => Slot::Number(&mut self.curve),
            Parameter::Threshold => Slot::Number(&mut self.threshold),
            Parameter::Gyro => Slot::Number(&mut self.gyro),
            Parameter::RampUp => Slot::Seconds(&mut self.ramp_up),
            Parameter::RampDown => Slot::Seconds(&mut self.ramp_down),
            _ => return None,
        })
    }

    /// The feel on a device kind where neither the game nor the player says anything.
    pub(crate) fn usual(kind: DeviceKind) -> Feel {
        let mut usual = Feel::default();
        if kind == DeviceKind::Gamepad {
            // Sticks that rest exactly in the middle are rare; a sheet may say 0.
            usual.dead_zone.inner = LOOSE;
        }
        usual
    }
}

impl Easing {
    pub(super) fn slot(&mut self, parameter: Parameter) -> Option<Slot<'_>> {
        Some(match parameter {
            Parameter::Toggle => Slot::Flag(&mut self.toggle),
            Parameter::Latch => Slot::Flag(&mut self.latch),
            Parameter::Press => Slot::Flag(&mut self.press),
            Parameter::IgnoreWithin => Slot::Seconds(&mut self.ignore_within),
            Parameter::HoldAfter => Slot::Seconds(&mut self.hold_after),
            Parameter::TapWithin => Slot::Seconds(&mut self.tap_within),
            Parameter::DoubleTapWithin => Slot::Seconds(&mut self.double_tap_within),
            Parameter::TogetherWithin => Slot::Seconds(&mut self.together_within),
            _ => return None,
        })
    }
}
