//! What became of an input.

use super::{Tell, Telling};
use crate::input::{Chord, Input};
use crate::rig::NotLive;
use crate::seat::{Outcome, Told};
use crate::sheet::Row;

impl Tell for Told<'_> {
    /// A line such as “E: Coil rope – not held long enough”.
    fn tell(&self, to: &Telling<'_>) -> String {
        let chord = match self.binding {
            Some(bound) => to.chord(&bound.chord),
            None => to.chord(&Chord::from(self.input)),
        };
        let what = to.outcome(self.outcome, self.row);
        to.say("setting-of", &[("title", &chord), ("setting", &what)])
    }
}

impl Telling<'_> {
    /// What became of something that works a row: its title alone where it worked, else with the reason.
    pub fn outcome(&self, outcome: Outcome, row: Option<Row>) -> String {
        let why = self.why(outcome, row);
        let Some(row) = row else { return why };
        let title = self.row(row);
        match outcome {
            Outcome::Worked => title,
            _ => self.say("outcome-of", &[("title", &title), ("why", &why)]),
        }
    }

    /// Why a row cannot be worked now, see [`Seat::why_not_live`](crate::Seat::why_not_live).
    pub fn not_live(&self, why: NotLive, row: Option<Row>) -> String {
        let values = match why {
            NotLive::Elsewhere => {
                let own = row.map(|row| &self.sheet().declared(row.action).situations);
                let places = own.into_iter().flatten().map(|s| self.situation(*s));
                Some(("places", self.list(places).unwrap_or_default()))
            }
            NotLive::Covered(by) | NotLive::Typing(by) => Some(("place", self.situation(by))),
            NotLive::SwitchedOff | NotLive::Unbound | NotLive::NoSuchRow => None,
        };
        let values: Vec<(&str, &str)> = values.iter().map(|(n, v)| (*n, &**v)).collect();
        self.say(&format!("outcome-{}", why.id()), &values)
    }

    /// The reason alone.
    fn why(&self, outcome: Outcome, row: Option<Row>) -> String {
        let part = |input: Input| vec![("part", self.chord(&Chord::from(input)))];
        let values = match outcome {
            Outcome::NotLive(why) => return self.not_live(why, row),
            Outcome::NotHeld(input)
            | Outcome::PartSpent(input)
            | Outcome::WrongOrder(input)
            | Outcome::Strict(input) => part(input),
            Outcome::LongerChord(row) => vec![("other", self.row(row))],
            _ => Vec::new(),
        };
        let values: Vec<(&str, &str)> = values.iter().map(|(n, v)| (*n, &**v)).collect();
        self.say(&format!("outcome-{}", outcome.id()), &values)
    }
}
