//! A conflict, told to a player.

use super::{Conflict, ConflictClass};
use crate::words::{Tell, Telling};

impl Tell for Conflict {
    /// With titles, legends and situations; without layouts, since it is told to somebody who has
    /// one.
    fn tell(&self, to: &Telling<'_>) -> String {
        let (mut first, mut second) = (&self.first, &self.second);
        if self.class == ConflictClass::LongerHidesShorter
            && first.chord.held().len() < second.chord.held().len()
        {
            (first, second) = (second, first);
        }
        let id = match self.class {
            ConflictClass::Same => "conflict-same",
            ConflictClass::Side | ConflictClass::PartOfWhole => "conflict-apart",
            ConflictClass::ByLetter => "conflict-letter",
            ConflictClass::Manner => "conflict-manner",
            ConflictClass::Seats => "conflict-seats",
            ConflictClass::LongerHidesShorter => "notice-longer",
            ConflictClass::Member | ConflictClass::Crossing => "notice-both",
        };
        let titles = [first, second].map(|party| to.row(party.cell.row));
        let other = to.chord(&second.chord);
        let values = [
            ("first", &*titles[0]),
            ("second", &titles[1]),
            ("other", &other),
        ];
        let text = to.about(id, &values, &first.chord);
        let Some((one, other)) = self.situations else {
            return text;
        };
        let mut places = vec![to.situation(one)];
        if other != one {
            places.push(to.situation(other));
        }
        let place = places.join(" / ");
        to.say("conflict-in", &[("conflict", &text), ("situation", &place)])
    }
}
