//! What cannot stand in a cell, and numbers out of range.

use super::{Tell, Telling};
use crate::sheet::{ColumnKind, EaseOutOfRange, Misfit, OutOfRange};

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

impl Tell for OutOfRange {
    fn tell(&self, to: &Telling<'_>) -> String {
        let setting = to.say(&format!("knob-{}", self.knob.word()), &[]);
        out_of_range(
            to,
            &setting,
            [self.least, self.most].map(|n| to.words().number(n)),
        )
    }
}

impl Tell for EaseOutOfRange {
    fn tell(&self, to: &Telling<'_>) -> String {
        let setting = to.say(&format!("ease-{}", self.ease.word()), &[]);
        let seconds = |n: f32| to.say("value-seconds", &[("seconds", &to.words().number(n))]);
        out_of_range(to, &setting, [self.least, self.most].map(seconds))
    }
}

fn out_of_range(to: &Telling<'_>, setting: &str, [least, most]: [String; 2]) -> String {
    let values = [("setting", setting), ("least", &least), ("most", &most)];
    to.say("refused-out-of-range", &values)
}

/// The name of some devices' columns.
impl Tell for ColumnKind {
    fn tell(&self, to: &Telling<'_>) -> String {
        to.words().column_name(*self)
    }
}
