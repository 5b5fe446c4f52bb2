//! What cannot stand in a cell, and settings that take no such value.

use super::{Tell, Telling};
use crate::sheet::{BadSetting, ColumnKind, Misfit, ParameterPart};

impl Tell for Misfit {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self {
            Misfit::OtherColumn { chord, column } => {
                let column = to.words().column_name(column.kind());
                to.about("refused-other-column", &[("column", &column)], chord)
            }
            Misfit::MixedColumns { part, .. } => {
                to.about_input("refused-mixed-columns", &[], *part)
            }
            Misfit::TwoAxes { input } => to.about_input("refused-two-axes", &[], *input),
            Misfit::Turned { input } => to.about_input("refused-turned", &[], *input),
            Misfit::WholeAxis { input } => to.about_input("refused-whole-axis", &[], *input),
            Misfit::Notches { input } => to.about_input("refused-notches", &[], *input),
            Misfit::OneInput { input, .. } => to.about_input("refused-one-input", &[], *input),
        }
    }
}

impl Tell for BadSetting {
    fn tell(&self, to: &Telling<'_>) -> String {
        match *self {
            BadSetting::OutOfRange {
                parameter,
                least,
                most,
                ..
            } => {
                let number = |n: f32| match parameter.is_time() {
                    true => to.say("value-seconds", &[("seconds", &to.words().number(n))]),
                    false => to.words().number(n),
                };
                let (least, most) = (number(least), number(most));
                let setting = to.parameter(parameter, ParameterPart::Whole);
                let values = [("setting", &*setting), ("least", &least), ("most", &most)];
                to.say("refused-out-of-range", &values)
            }
            BadSetting::OtherForm { .. } | BadSetting::Misplaced { .. } => {
                to.say("refused-not-understood", &[])
            }
        }
    }
}

/// The name of some devices' columns.
impl Tell for ColumnKind {
    fn tell(&self, to: &Telling<'_>) -> String {
        to.words().column_name(*self)
    }
}
