//! Why something that a player sets does not stand.

use super::{Tell, Telling};
use crate::input::Chord;
use crate::law::{NotInForce, Unlawful};
use crate::layout::Unworkable;
use crate::profile::{Setting, SettingValue};
use crate::rig::RigNote;

impl Tell for Unlawful {
    fn tell(&self, to: &Telling<'_>) -> String {
        let of_row = |id: &str, row| to.say(id, &[("title", &to.titled(row))]);
        match self {
            Unlawful::NoSuchRow => to.say("refused-no-such-action", &[]),
            Unlawful::NoSuchPreset(name) => {
                let preset = to.words().title_of_name("preset", name);
                to.say("refused-no-such-preset", &[("preset", &preset)])
            }
            Unlawful::Off(row) => of_row("refused-off", row),
            Unlawful::Fixed(row) => of_row("refused-fixed", row),
            Unlawful::Reserved(input) => to.about_input("refused-reserved", &[], *input),
            Unlawful::Misfit(misfit) => misfit.tell(to),
            Unlawful::Essential { row, kind } => {
                let (title, column) = (to.titled(row), to.tell(kind));
                to.say(
                    "refused-essential",
                    &[("title", &title), ("column", &column)],
                )
            }
            Unlawful::NotEased(row) => of_row("refused-not-eased", row),
            Unlawful::NotUnderstood(_) => to.say("refused-not-understood", &[]),
        }
    }
}

impl Tell for NotInForce {
    fn tell(&self, to: &Telling<'_>) -> String {
        let value = match (&self.setting, &self.value) {
            // Names in files are no titles.
            (Setting::Preset, SettingValue::Text(name)) => to.preset(name),
            (_, value) => value.tell(to),
        };
        let (setting, why) = (self.setting.tell(to), self.why.tell(to));
        let values = [("setting", &*setting), ("value", &value), ("why", &why)];
        to.say("not-in-force", &values)
    }
}

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
