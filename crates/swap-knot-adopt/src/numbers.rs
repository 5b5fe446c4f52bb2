//! Numbers, switches and times.

use swap_knot::keep::{Setting, SettingValue};
use swap_knot::sheet::{
    Action, ActionId, ActsOn, DeadZone, DeadZoneForm, Parameter, ParameterValue, Scope, Shape,
};
use swap_knot::{Profile, Sheet};
use toml_edit::{Array, DocumentMut, InlineTable, TableLike, Value};

use crate::{WhyLeft, set, table};

/// Writes a setting beside the bindings.
pub(crate) fn adopt(
    document: &mut DocumentMut,
    of: (&Sheet, &Profile),
    setting: &Setting,
    value: &SettingValue,
) -> Result<(), WhyLeft> {
    let top: &mut dyn TableLike = document.as_table_mut();
    match (setting, value) {
        (Setting::Parameter { scope, parameter }, SettingValue::Parameter(value))
            if !matches!(scope.on, ActsOn::Zone(_)) =>
        {
            let done = parameter_of(top, of, scope, *parameter, *value);
            done.ok_or(WhyLeft::NotUnderstood)
        }
        (Setting::Unread { .. }, _) => Err(WhyLeft::NotUnderstood),
        _ => Err(WhyLeft::Own),
    }
}

/// One parameter, of an action or of all. A player's word for all goes before what the game says of one
/// action, so that it is written there as well; what must not be eased keeps what it had.
fn parameter_of(
    top: &mut dyn TableLike,
    (sheet, profile): (&Sheet, &Profile),
    scope: &Scope,
    parameter: Parameter,
    value: ParameterValue,
) -> Option<()> {
    let on = scope.on;
    let write = |of: &mut dyn TableLike, value| {
        match on {
            ActsOn::Inputs(kind) => turn(
                table(table(of, "feel", false)?, kind.word(), true)?,
                parameter.word(),
                value,
            ),
            _ => turn(of, parameter.word(), value),
        }
        Some(())
    };
    if let Some(action) = &scope.action {
        return write(of_action(top, action)?, value);
    }
    let of_all = sheet.settings().of(on).get(parameter);
    for (id, action) in sheet.actions() {
        let said = action.settings.of(on).get(parameter);
        let own = Scope::new(on, Some(&action.name));
        let is_players = profile.parameters(&own).get(parameter).is_some();
        let kept = if is_kept(action, on) {
            let kept = said.unwrap_or_else(|| parameter.usual(on));
            Some(kept).filter(|_| said == of_all && bears(sheet, id, parameter))
        } else {
            let says = said != of_all && !is_of_values(action, parameter);
            Some(value).filter(|_| says && !is_players)
        };
        if let Some(kept) = kept {
            write(of_action(top, &action.name)?, kept)?;
        }
    }
    write(top, value)
}

/// Whether an action stays as the game has it, whatever a player sets for all.
fn is_kept(action: &Action, on: ActsOn) -> bool {
    on == ActsOn::Actions && !action.ease
}

/// Whether what is set for all says nothing of an action, since it is about what has a value.
fn is_of_values(action: &Action, parameter: Parameter) -> bool {
    parameter == Parameter::Toggle && action.shape == Shape::Press
}

/// Whether a parameter means something for an action as the sheet binds it.
pub(crate) fn bears(sheet: &Sheet, action: ActionId, parameter: Parameter) -> bool {
    let mut own = sheet.defaults_of(action).iter();
    own.any(|b| sheet.bears(parameter, b.cell, &b.chord))
}

/// The table of an action.
pub(crate) fn of_action<'t>(
    top: &'t mut dyn TableLike,
    action: &str,
) -> Option<&'t mut dyn TableLike> {
    table(table(top, "actions", false)?, action, true)
}

/// Sets a parameter, written as the sheet had it.
fn turn(of: &mut dyn TableLike, word: &str, value: ParameterValue) {
    let value = match value {
        ParameterValue::Number(value) | ParameterValue::Seconds(value) => number(value),
        ParameterValue::Flag(is_on) => is_on.into(),
        ParameterValue::DeadZone(zone) => {
            let is_plain = zone.outer == 1.0 && zone.form == DeadZoneForm::Round;
            let was_table = of.get(word).is_some_and(|old| old.is_table_like());
            match (is_plain, was_table) {
                (true, false) => number(zone.inner),
                (_, true) => return dead_zone(of, word, zone),
                (false, false) => {
                    of.insert(word, toml_edit::value(InlineTable::new()));
                    return dead_zone(of, word, zone);
                }
            }
        }
        ParameterValue::Axes(axes) => {
            let names = ["x", "y", "z"].into_iter().zip(axes);
            let names = names.filter(|(_, is)| *is).map(|(name, _)| name);
            Value::Array(names.collect::<Array>())
        }
        // A value that this version does not know is of a parameter that it does not know either.
        _ => return,
    };
    set(of, word, value);
}

/// A dead zone as a table: what it says already is changed, and what it needs is added.
fn dead_zone(of: &mut dyn TableLike, word: &str, zone: DeadZone) {
    let Some(zone_table) = of.get_mut(word).and_then(|z| z.as_table_like_mut()) else {
        return;
    };
    let says = |t: &dyn TableLike, key| t.contains_key(key);
    set(zone_table, "inner", number(zone.inner));
    if says(zone_table, "outer") || zone.outer != 1.0 {
        set(zone_table, "outer", number(zone.outer));
    }
    if says(zone_table, "form") || zone.form != DeadZoneForm::Round {
        set(zone_table, "form", zone.form.word().into());
    }
}

/// A number as it is written: as short as it can be and still be the same.
fn number(value: f32) -> Value {
    let short: f64 = value.to_string().parse().unwrap_or(f64::from(value));
    short.into()
}
