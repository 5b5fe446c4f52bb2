//! For the developer of a running game: their player's profile hides what they just edited.

use std::fmt;

use super::{Controls, Report};
use crate::law::force::value;
use crate::profile::{Profile, Setting, SettingValue};
use crate::rig::Rig;
use crate::sheet::Sheet;
use crate::words::{Tell, Telling};

/// A default that the sheet just changed and that does not show, since the profile in play has its own
/// there.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct HiddenDefault {
    /// Which setting.
    pub setting: Setting,
    /// What the sheet has there now.
    pub default: SettingValue,
    /// What the profile has, which is played with.
    pub yours: SettingValue,
}

impl fmt::Display for HiddenDefault {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let HiddenDefault {
            setting,
            default,
            yours,
        } = self;
        write!(
            f,
            "{setting} is {default} in the sheet now, and {yours} in the profile, which is played with"
        )
    }
}

impl Tell for HiddenDefault {
    fn tell(&self, to: &Telling<'_>) -> String {
        let setting = self.setting.tell(to);
        let (default, yours) = (self.default.tell(to), self.yours.tell(to));
        let values = [
            ("setting", &*setting),
            ("value", &default),
            ("kept", &yours),
        ];
        to.say("hidden-default", &values)
    }
}

impl Controls {
    /// The defaults that the sheet changed last by [`Controls::follow_sheet`] and that the profile hides;
    /// in a release build there are none. Each was told once, by [`Report::HiddenDefault`].
    pub fn hidden_defaults(&self) -> &[HiddenDefault] {
        &self.hidden
    }

    /// Plays as the game is without the player's profile, or with it again, for a developer who looks for
    /// what comes of which. The profile is kept and saved as before; what is applied or chosen from
    /// another one is played with at once.
    pub fn play_by_defaults(&mut self, on: bool) {
        if self.by_defaults != on {
            self.by_defaults = on;
            self.set_rig(self.resolver().clone());
        }
    }

    /// Whether it is played without the player's profile.
    pub fn plays_by_defaults(&self) -> bool {
        self.by_defaults
    }

    /// What is played with.
    pub(super) fn wired(&self, on: crate::layout::Resolver) -> Rig {
        let none = Profile::default();
        let profile = if self.by_defaults {
            &none
        } else {
            &self.profile
        };
        Rig::new(&self.sheet, profile, on)
    }

    /// Whoever edits a sheet while the game runs is told what of it does not show.
    pub(super) fn tell_hidden(&mut self, before: &Sheet) {
        if !cfg!(debug_assertions) {
            return;
        }
        self.hidden = hidden(before, &self.sheet, &self.profile);
        let new = self.hidden.iter().cloned().map(Box::new);
        self.reports.extend(new.map(Report::HiddenDefault));
    }
}

/// What a profile hides of what is another default in the one sheet than in the other.
fn hidden(before: &Sheet, now: &Sheet, profile: &Profile) -> Vec<HiddenDefault> {
    let mut bare = Profile::default();
    bare.set_preset(profile.preset());
    let mut out = Vec::new();
    for (setting, yours) in profile.settings() {
        let under = |sheet: &Sheet| match setting {
            Setting::Bind { row, column } => {
                let cell = sheet.find_row(row)?.cell(*column);
                Some(SettingValue::Chord(profile.under(sheet, cell).cloned()))
            }
            Setting::Parameter { scope, parameter } => {
                let value = value(sheet, &bare, scope, *parameter);
                Some(SettingValue::Parameter(value))
            }
            _ => None,
        };
        // What is new or gone is no change of a default.
        let (Some(was), Some(default)) = (under(before), under(now)) else {
            continue;
        };
        let is_own = !matches!(yours, SettingValue::GaveWay(_));
        if is_own && was != default && *yours != default {
            out.push(HiddenDefault {
                setting: setting.clone(),
                default,
                yours: yours.clone(),
            });
        }
    }
    out
}
