//! What there was to say of a rig when it was worked out, and why something cannot be worked now.

use super::{NotLive, RigNote};
use crate::input::Chord;
use crate::layout::Unworkable;
use crate::sheet::Row;
use crate::words::{Tell, Telling};

impl Tell for RigNote {
    fn tell(&self, to: &Telling<'_>) -> String {
        let title = to.row(self.cell().row);
        match self {
            RigNote::CannotBeWorked { why, .. } => match why {
                Unworkable::NoSuchLetter(letter) => {
                    let letter = letter.char().to_uppercase().to_string();
                    let letter = to.words().untranslated(&letter);
                    to.say("note-no-letter", &[("title", &title), ("letter", &letter)])
                }
                Unworkable::OneKey(held, input) => match Chord::new([*held], *input) {
                    Ok(chord) => to.about("note-one-key", &[("title", &title)], &chord),
                    // Two names of one key: either says it.
                    Err(_) => to.about_input("note-one-key", &[("title", &title)], *input),
                },
            },
            RigNote::StandsIn { .. } => to.say("note-stands-in", &[("title", &title)]),
            RigNote::TooMany { .. } => to.say("note-too-many", &[("title", &title)]),
        }
    }
}

impl NotLive {
    /// Why a row cannot be worked now, see [`Seat::why_not_live`](crate::Seat::why_not_live).
    pub fn tell_of(self, row: Option<Row>, to: &Telling<'_>) -> String {
        let values = match self {
            NotLive::Elsewhere => {
                let own = row.map(|row| &to.sheet().declared(row.action).situations);
                let places = own.into_iter().flatten().map(|s| to.situation(*s));
                Some(("places", to.list(places).unwrap_or_default()))
            }
            NotLive::Covered(by) | NotLive::Typing(by) => Some(("place", to.situation(by))),
            NotLive::SwitchedOff | NotLive::Unbound | NotLive::NoSuchRow => None,
        };
        let values: Vec<(&str, &str)> = values.iter().map(|(n, v)| (*n, &**v)).collect();
        to.say(&format!("outcome-{}", self.id()), &values)
    }
}
