//! What applying would change, in words.

use std::collections::BTreeSet;

use super::Draft;
use crate::law::{Upheld, force};
use crate::layout::Layout;
use crate::profile::{Profile, Setting, SettingValue};
use crate::words::Telling;

impl Draft {
    /// What applying would change, in words, a line each; for asking before the menu is left.
    pub fn summary(&self) -> Vec<String> {
        let to = self.telling();
        let mut lines = to.lines(&self.changes());
        let before = self.applied_upheld();
        for (setting, ..) in self.changed_settings() {
            // What nobody understands comes to nothing that could be told.
            if matches!(setting, Setting::Unread { .. }) {
                continue;
            }
            let value = |upheld| self.value(&to, upheld, &setting);
            let (after, before) = (value(&self.upheld), value(before));
            let title = to.tell(&setting);
            let values = [("title", &*title), ("after", &after), ("before", &before)];
            lines.push(to.say("change", &values));
        }
        lines
    }

    /// What applying would change, by title alone: each action or arm once, then the other settings.
    pub fn changed_titles(&self) -> Vec<String> {
        let to = self.telling();
        let rows = self.changes();
        let rows = rows.iter().map(|change| to.row(change.cell.row));
        let settings = self.changed_settings();
        let told = settings
            .iter()
            .filter(|(s, ..)| !matches!(s, Setting::Unread { .. }));
        let mut titles: Vec<String> = Vec::new();
        for title in rows.chain(told.map(|(setting, ..)| to.tell(setting))) {
            if !titles.contains(&title) {
                titles.push(title);
            }
        }
        titles
    }

    /// The settings beside the bindings, which are told cell by cell, that applying would change: each with what it was set to and what
    /// it is set to, none where that is left to the game.
    pub fn changed_settings(&self) -> Vec<(Setting, Option<SettingValue>, Option<SettingValue>)> {
        let all = self.applied.settings().chain(self.profile.settings());
        let all: BTreeSet<&Setting> = all.map(|(setting, _)| setting).collect();
        let told = |s: &&Setting| !matches!(s, Setting::Bind { .. }) && self.changes_setting(s);
        all.into_iter()
            .filter(told)
            .map(|setting| {
                let of = |profile: &Profile| profile.setting(setting).cloned();
                (setting.clone(), of(&self.applied), of(&self.profile))
            })
            .collect()
    }

    /// What a setting comes to, whoever has set it.
    pub(super) fn value(&self, to: &Telling<'_>, upheld: &Upheld, setting: &Setting) -> String {
        let profile = &upheld.lawful;
        match setting {
            Setting::Preset => match profile.preset() {
                Some(name) => to.preset(name),
                None => to.say("preset-none", &[]),
            },
            Setting::Layout => match profile.layout().and_then(Layout::shipped) {
                Some(layout) => to.words().untranslated(layout.own_name()),
                None => to.say("layout-found", &[]),
            },
            Setting::Family => match profile.family() {
                Some(name) => to.words().family_title(name).to_owned(),
                None => to.say("family-found", &[]),
            },
            Setting::Parameter { scope, parameter } => {
                to.tell(&force::value(&self.sheet, profile, scope, *parameter))
            }
            other => match profile.setting(other) {
                Some(value) => to.tell(value),
                None => to.say("value-game", &[]),
            },
        }
    }
}
