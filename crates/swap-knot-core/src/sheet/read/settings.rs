//! Settings, as sheets, presets and profiles say them.

use std::collections::BTreeMap;

use toml::Spanned;
use toml::de::DeValue;

use crate::input::{DeviceKind, TouchName};
use crate::sheet::settings::{AXES, Form};
use crate::sheet::{
    ActsOn, DeadZone, DeadZoneForm, Parameter, ParameterValue, Parameters, Scope, Settings, Sheet,
};
use crate::text::{Fields, Report, boolean, number, number_in, texts, unknown, wrong_type};

/// What a parameter is set to under a key; none where that is a mistake.
pub(crate) fn value(
    parameter: Parameter,
    key: &str,
    value: &Spanned<DeValue<'_>>,
    report: &mut Report<'_>,
) -> Option<ParameterValue> {
    let range = parameter.range().unwrap_or(0.0..=1.0);
    match parameter.form() {
        Form::Flag => boolean(key, value, report).map(ParameterValue::Flag),
        Form::Number => number_in(key, value, range, report).map(ParameterValue::Number),
        Form::Seconds => number_in(key, value, range, report).map(ParameterValue::Seconds),
        Form::Axes => axes(key, value, report).map(ParameterValue::Axes),
        Form::DeadZone => dead_zone(key, value, report).map(ParameterValue::DeadZone),
    }
}

/// `dead-zone = 0.15`, or a table with `inner`, `outer` and `form`.
fn dead_zone(key: &str, value: &Spanned<DeValue<'_>>, report: &mut Report<'_>) -> Option<DeadZone> {
    let range = Parameter::DeadZone.range()?;
    let mut zone = DeadZone::NONE;
    if value.get_ref().as_table().is_none() {
        if number(value).is_none() {
            let (least, most) = (range.start(), range.end());
            let wanted = format!("a number from {least} to {most}, or a table");
            wrong_type(&format!("`{key}`"), &wanted, value, report);
            return None;
        }
        zone.inner = number_in(key, value, range, report)?;
        return Some(zone);
    }
    let mut table = Fields::of(value, "`dead-zone`", report)?;
    zone.inner = table.number("inner", range, report).unwrap_or(zone.inner);
    let outer = table.number("outer", DeadZone::OUTER, report);
    zone.outer = outer.unwrap_or(zone.outer);
    let form = table.word("form", &DeadZoneForm::ALL, DeadZoneForm::word, report);
    zone.form = form.unwrap_or(zone.form);
    if zone.inner >= zone.outer {
        report.add(
            table.at,
            "in a dead zone `inner` is less than `outer`, as in `{ inner = 0.15, outer = 0.95 }`",
        );
    }
    table.finish("`dead-zone`", report);
    Some(zone)
}

/// `invert = true` for every axis, or a list of `x`, `y` and `z`.
fn axes(key: &str, value: &Spanned<DeValue<'_>>, report: &mut Report<'_>) -> Option<[bool; 3]> {
    if let Some(all) = value.get_ref().as_bool() {
        return Some([all; 3]);
    }
    let mut out = [false; 3];
    for (axis, at) in texts(key, value, report) {
        match AXES.iter().position(|a| *a == axis) {
            Some(i) => out[i] = true,
            None => report.add(at, unknown(&format!("`{key}`"), axis, &AXES)),
        }
    }
    Some(out)
}

/// Those that act on such, each under its word.
fn acting_on(on: ActsOn, fields: &mut Fields<'_, '_>, report: &mut Report<'_>) -> Parameters {
    let mut out = Parameters::new();
    for parameter in Parameter::of(on) {
        let word = parameter.word();
        let found = fields.value(word);
        out.set(
            parameter,
            found.and_then(|found| value(parameter, word, found, report)),
        );
    }
    out
}

/// A table of feel: for each device kind, how its inputs feel.
fn by_kind(
    value: &Spanned<DeValue<'_>>,
    what: &str,
    report: &mut Report<'_>,
) -> Vec<(DeviceKind, Parameters)> {
    let mut out = Vec::new();
    let Some(mut table) = Fields::of(value, what, report) else {
        return out;
    };
    for kind in DeviceKind::ALL {
        let value = table.value(kind.word());
        let fields = value.and_then(|value| Fields::of(value, "a feel", report));
        if let Some(mut fields) = fields {
            out.push((kind, acting_on(ActsOn::Inputs(kind), &mut fields, report)));
            fields.finish("a feel", report);
        }
    }
    table.finish(what, report);
    out
}

/// What a sheet sets for all actions, or for one of them: what acts on actions beside the other keys, and
/// the `feel` table.
pub(super) fn of_sheet(fields: &mut Fields<'_, '_>, report: &mut Report<'_>) -> Settings {
    let mut out = Settings::default();
    let actions = acting_on(ActsOn::Actions, fields, report);
    out.set(ActsOn::Actions, actions);
    if let Some(feel) = fields.value("feel") {
        for (kind, parameters) in by_kind(feel, "`feel`", report) {
            out.set(ActsOn::Inputs(kind), parameters);
        }
    }
    out
}

/// What a preset sets, under the keys of a profile.
pub(super) fn of_preset(
    fields: &mut Fields<'_, '_>,
    sheet: &Sheet,
    report: &mut Report<'_>,
) -> BTreeMap<Scope, Parameters> {
    let mut out = BTreeMap::new();
    if let Some(feel) = fields.value("feel") {
        for (kind, parameters) in by_kind(feel, "`feel`", report) {
            out.insert(Scope::inputs(kind, None), parameters);
        }
    }
    for (action, value) in named("action-feel", false, fields, sheet, report) {
        for (kind, parameters) in by_kind(value, "`action-feel`", report) {
            out.insert(Scope::inputs(kind, Some(action)), parameters);
        }
    }
    let all = fields.value("ease");
    if let Some(mut table) = all.and_then(|value| Fields::of(value, "`ease`", report)) {
        let parameters = acting_on(ActsOn::Actions, &mut table, report);
        out.insert(Scope::actions(None), parameters);
        table.finish("`ease`", report);
    }
    for (action, value) in named("action-ease", true, fields, sheet, report) {
        if let Some(mut table) = Fields::of(value, "`action-ease`", report) {
            if table.has(Parameter::Toggle.word()) {
                let message = format!("whether one action toggles is said by `toggle.{action}`");
                report.add(table.at, message);
            }
            let parameters = acting_on(ActsOn::Actions, &mut table, report);
            out.insert(Scope::actions(Some(action)), parameters);
            table.finish("`action-ease`", report);
        }
    }
    for (action, found) in named("toggle", true, fields, sheet, report) {
        let on = value(Parameter::Toggle, action, found, report);
        let of_action: &mut Parameters = out.entry(Scope::actions(Some(action))).or_default();
        of_action.set(Parameter::Toggle, on);
    }
    let zones = fields.value("touch");
    let zones = zones.and_then(|value| Fields::of(value, "`touch`", report));
    for (name, span, value) in zones.iter().flat_map(Fields::entries) {
        let zone: TouchName = match name.parse() {
            Ok(zone) => zone,
            Err(why) => {
                report.add(span.start, why);
                continue;
            }
        };
        if let Some(mut table) = Fields::of(value, "a touch zone", report) {
            let on = ActsOn::Zone(zone);
            out.insert(Scope::zone(zone), acting_on(on, &mut table, report));
            table.finish("a touch zone", report);
        }
    }
    out.retain(|_, parameters| !parameters.is_empty());
    out
}

/// The entries of a table whose keys are actions of the sheet, such as a preset may set something for.
fn named<'t, 's>(
    key: &'static str,
    eases: bool,
    fields: &mut Fields<'t, 's>,
    sheet: &Sheet,
    report: &mut Report<'_>,
) -> Vec<(&'t str, &'t Spanned<DeValue<'s>>)> {
    let mut out = Vec::new();
    let table = fields.value(key);
    let Some(table) = table.and_then(|t| Fields::of(t, &format!("`{key}`"), report)) else {
        return out;
    };
    for (name, span, value) in table.entries() {
        match sheet.find(name).map(|id| sheet.declared(id)) {
            None => {
                let all: Vec<&str> = sheet.actions().map(|(_, a)| a.name.as_str()).collect();
                let known = || all.iter().copied();
                report.add_no_such(span.start, "action", name, known);
            }
            Some(action) if eases && !action.ease => report.add(
                span.start,
                format!("`{name}` says `ease = false`, so that a player cannot choose this either"),
            ),
            Some(_) => out.push((name, value)),
        }
    }
    out
}
