//! Settings of a profile, and what became of them where two were merged.

use super::{Overruled, Setting, SettingValue};
use crate::input::Input;
use crate::sheet::KnobValue;
use crate::words::{Tell, Telling};

impl Tell for Setting {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self {
            Setting::Title => to.say("setting-title", &[]),
            Setting::Preset => to.say("preset", &[]),
            Setting::Layout => to.say("setting-layout", &[]),
            Setting::Family => to.say("setting-family", &[]),
            Setting::Feel { action, kind, knob } => {
                let knob = to.say(&format!("knob-{}", knob.word()), &[]);
                let device = to.words().device_name(*kind);
                let values = [("setting", &*knob), ("device", &device)];
                to.setting_of(action.as_deref(), &to.say("setting-feel", &values))
            }
            Setting::Toggle { action } => to.setting_of(Some(action), &to.say("ease-toggle", &[])),
            Setting::Ease { action, ease } => {
                let ease = to.say(&format!("ease-{}", ease.word()), &[]);
                to.setting_of(action.as_deref(), &ease)
            }
            Setting::Bind { row, column } => {
                let (title, column) = (to.row_named(row), to.words().column_title(*column));
                to.say("setting-cell", &[("title", &title), ("column", &column)])
            }
            Setting::Zone { name, knob } => {
                let title = to.chord(&Input::Touch(*name).into());
                let setting = to.say(&format!("zone-{}", knob.word()), &[]);
                to.say("setting-of", &[("title", &title), ("setting", &setting)])
            }
            Setting::Unread { .. } => to.say("setting-unread", &[]),
        }
    }
}

impl Tell for SettingValue {
    fn tell(&self, to: &Telling<'_>) -> String {
        let flag = |on: bool| to.say(if on { "value-on" } else { "value-off" }, &[]);
        match self {
            SettingValue::Text(text) => to.words().untranslated(text),
            SettingValue::Chord(Some(chord)) => to.chord(chord),
            SettingValue::Chord(None) | SettingValue::GaveWay(_) => to.say("nothing", &[]),
            SettingValue::Knob(value) => value.tell(to),
            SettingValue::Flag(on) => flag(*on),
            SettingValue::Seconds(seconds) => {
                let seconds = to.words().number(*seconds);
                to.say("value-seconds", &[("seconds", &seconds)])
            }
            SettingValue::Unread(_) => to.say("value-other", &[]),
        }
    }
}

impl Tell for KnobValue {
    fn tell(&self, to: &Telling<'_>) -> String {
        let number = |n: f32| to.words().number(n);
        match self {
            KnobValue::Number(value) => to.say("value-number", &[("number", &number(*value))]),
            KnobValue::DeadZone(zone) => {
                let (inner, outer) = (number(zone.inner), number(zone.outer));
                to.say("value-range", &[("least", &inner), ("most", &outer)])
            }
            KnobValue::Axes(axes) => {
                let names = ["X", "Y", "Z"].into_iter().zip(axes);
                let on: Vec<&str> = names.filter(|(_, on)| **on).map(|(name, _)| name).collect();
                match on.is_empty() {
                    true => to.say("value-off", &[]),
                    false => to.say("value-axes", &[("axes", &on.join(" "))]),
                }
            }
        }
    }
}

impl Tell for Overruled {
    fn tell(&self, to: &Telling<'_>) -> String {
        let value = |value: &Option<SettingValue>| match (value, &self.setting) {
            (Some(SettingValue::Text(name)), Setting::Preset) => to.preset(name),
            (Some(value), _) => value.tell(to),
            (None, _) => to.say("value-game", &[]),
        };
        let (kept, dropped) = (value(&self.kept), value(&self.dropped));
        let setting = self.setting.tell(to);
        let values = [
            ("setting", &*setting),
            ("kept", &kept),
            ("dropped", &dropped),
        ];
        to.say("overruled", &values)
    }
}
