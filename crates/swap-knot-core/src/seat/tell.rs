//! What became of an input.

use super::{Outcome, Told};
use crate::input::{Chord, Input};
use crate::sheet::Row;
use crate::words::{Tell, Telling};

impl Tell for Told<'_> {
    /// A line such as “E: Coil rope – not held long enough”.
    fn tell(&self, to: &Telling<'_>) -> String {
        let chord = match self.binding {
            Some(bound) => to.chord(&bound.chord),
            None => to.chord(&Chord::from(self.input)),
        };
        let what = self.outcome.tell_of(self.row, to);
        to.say("setting-of", &[("title", &chord), ("setting", &what)])
    }
}

impl Outcome {
    /// What became of something that works a row: its title alone where it worked, else with the reason.
    pub fn tell_of(self, row: Option<Row>, to: &Telling<'_>) -> String {
        let why = self.why(row, to);
        let Some(row) = row else { return why };
        let title = to.row(row);
        match self {
            Outcome::Worked => title,
            _ => to.say("outcome-of", &[("title", &title), ("why", &why)]),
        }
    }

    /// The reason alone.
    fn why(self, row: Option<Row>, to: &Telling<'_>) -> String {
        let part = |input: Input| vec![("part", to.chord(&Chord::from(input)))];
        let values = match self {
            Outcome::NotLive(why) => return why.tell_of(row, to),
            Outcome::NotHeld(input)
            | Outcome::PartSpent(input)
            | Outcome::WrongOrder(input)
            | Outcome::Strict(input) => part(input),
            Outcome::LongerChord(row) | Outcome::OtherManner(row) => vec![("other", to.row(row))],
            _ => Vec::new(),
        };
        let values: Vec<(&str, &str)> = values.iter().map(|(n, v)| (*n, &**v)).collect();
        to.say(&format!("outcome-{}", self.id()), &values)
    }
}
