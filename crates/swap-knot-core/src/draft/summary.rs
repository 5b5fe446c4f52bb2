//! What applying would change, in words.

use std::collections::BTreeSet;

use super::Draft;
use crate::law::{Upheld, eased, feel_in_force, uphold};
use crate::layout::Layout;
use crate::profile::{Setting, SettingValue};
use crate::sheet::{Ease, EaseValue, Easing, KnobValue, Timing};
use crate::words::Telling;

impl Draft {
    /// What applying would change, in words, a line each; for asking before the menu is left.
    pub fn summary(&self) -> Vec<String> {
        let to = self.telling();
        let mut lines = to.lines(&self.changes());
        let before = uphold(&self.sheet, &self.applied, &self.on);
        let all = self.applied.settings().chain(self.profile.settings());
        let all: BTreeSet<&Setting> = all.map(|(setting, _)| setting).collect();
        for setting in all.into_iter().filter(|s| self.changes_setting(s)) {
            // Bindings are told cell by cell, as they are in force.
            if matches!(setting, Setting::Bind { .. } | Setting::Unread { .. }) {
                continue;
            }
            let value = |upheld| self.value(&to, upheld, setting);
            let (after, before) = (value(&self.upheld), value(&before));
            let title = to.tell(setting);
            let values = [("title", &*title), ("after", &after), ("before", &before)];
            lines.push(to.say("change", &values));
        }
        lines
    }

    /// What a setting comes to, whoever has set it.
    pub(super) fn value(&self, to: &Telling<'_>, upheld: &Upheld, setting: &Setting) -> String {
        let profile = &upheld.lawful;
        let named = |name: &String| self.sheet.find(name).map(|id| self.sheet.declared(id));
        match setting {
            Setting::Preset => match profile.preset() {
                Some(name) => to.preset(name),
                None => to.say("preset-none", &[]),
            },
            Setting::Layout => match profile.layout().and_then(Layout::shipped) {
                Some(layout) => to.words().untranslated(layout.title()),
                None => to.say("layout-found", &[]),
            },
            Setting::Family => match profile.family() {
                Some(name) => to.words().family_title(name).to_owned(),
                None => to.say("family-found", &[]),
            },
            Setting::Feel { action, kind, knob } => {
                let action = action.as_ref().and_then(named);
                let feel = feel_in_force(&self.sheet, profile, action, *kind);
                to.tell(&feel.knob(*knob))
            }
            Setting::Zone { name, knob } => {
                let number = profile.placement(*name).get(*knob);
                to.tell(&KnobValue::Number(number))
            }
            Setting::Toggle { action } => self.eases(to, upheld, Some(action), Ease::Toggle),
            Setting::Ease { action, ease } => self.eases(to, upheld, action.as_ref(), *ease),
            other => match profile.setting(other) {
                Some(value) => to.tell(value),
                None => to.say("value-game", &[]),
            },
        }
    }

    fn eases(&self, to: &Telling<'_>, upheld: &Upheld, of: Option<&String>, ease: Ease) -> String {
        let action = of.and_then(|name| self.sheet.find(name));
        let easing = match action {
            Some(id) => Easing::from(eased(&upheld.lawful, self.sheet.declared(id))),
            None => Easing::of(Timing::default()).with(&upheld.lawful.easing(None)),
        };
        match easing.get(ease) {
            Some(EaseValue::Flag(on)) => to.tell(&SettingValue::Flag(on)),
            Some(EaseValue::Seconds(seconds)) => to.tell(&SettingValue::Seconds(seconds)),
            None => to.say("value-game", &[]),
        }
    }
}
