//! Settings of a profile, and what became of them where two were merged.

use super::{Overruled, Setting, SettingValue};
use crate::input::Input;
use crate::sheet::{ActsOn, ParameterPart, ParameterValue};
use crate::words::{Tell, Telling};

impl Tell for Setting {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self {
            Setting::Title => to.say("setting-title", &[]),
            Setting::Preset => to.say("preset", &[]),
            Setting::Layout => to.say("setting-layout", &[]),
            Setting::Family => to.say("setting-family", &[]),
            Setting::Parameter { scope, parameter } => {
                let what = to.parameter(*parameter, ParameterPart::Whole);
                match (scope.on, scope.action.as_deref()) {
                    (ActsOn::Inputs(kind), action) => {
                        let device = to.words().device_name(kind);
                        let values = [("setting", &*what), ("device", &device)];
                        to.setting_of(action, &to.say("setting-feel", &values))
                    }
                    (ActsOn::Actions, action) => to.setting_of(action, &what),
                    (ActsOn::Zone(name), _) => {
                        let title = to.chord(&Input::Touch(name).into());
                        to.say("setting-of", &[("title", &title), ("setting", &what)])
                    }
                }
            }
            Setting::Bind { row, column } => {
                let (title, column) = (to.row_named(row), to.words().column_title(*column));
                to.say("setting-cell", &[("title", &title), ("column", &column)])
            }
            // A value that is damaged stands where a setting is known by its name.
            Setting::Unread { path } => {
                let words: Vec<&str> = path.iter().map(String::as_str).collect();
                let known = Setting::at(&words);
                known.map_or_else(|| to.say("setting-unread", &[]), |s| s.tell(to))
            }
        }
    }
}

impl Tell for SettingValue {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self {
            SettingValue::Text(text) => to.words().typed(text),
            SettingValue::Chord(Some(chord)) => to.chord(chord),
            SettingValue::Chord(None) | SettingValue::GaveWay(_) => to.say("nothing", &[]),
            SettingValue::Parameter(value) => value.tell(to),
            SettingValue::Unread(value) => to.words().typed(&value.to_string()),
        }
    }
}

impl Tell for ParameterValue {
    fn tell(&self, to: &Telling<'_>) -> String {
        let number = |n: f32| to.words().number(n);
        match self {
            ParameterValue::Flag(on) => to.say(if *on { "value-on" } else { "value-off" }, &[]),
            ParameterValue::Number(value) => to.say("value-number", &[("number", &number(*value))]),
            ParameterValue::Seconds(seconds) => {
                to.say("value-seconds", &[("seconds", &number(*seconds))])
            }
            ParameterValue::DeadZone(zone) => {
                let (inner, outer) = (number(zone.inner), number(zone.outer));
                to.say("value-range", &[("least", &inner), ("most", &outer)])
            }
            ParameterValue::Axes(axes) => {
                let ways = ["way-x", "way-y", "way-z"].into_iter().zip(axes);
                let on = ways.filter(|(_, on)| **on).map(|(way, _)| to.say(way, &[]));
                match to.list(on) {
                    None => to.say("value-off", &[]),
                    Some(axes) => to.say("value-axes", &[("axes", &axes)]),
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
