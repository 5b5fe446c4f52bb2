//! Why something that a player sets does not stand.

use super::{NotInForce, Unlawful};
use crate::profile::{Setting, SettingValue};
use crate::words::{Tell, Telling};

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
            Unlawful::Twice { row, chord } => {
                to.about("menu-taken", &[("title", &to.titled(row))], chord)
            }
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
