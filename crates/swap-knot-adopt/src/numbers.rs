//! Feel, toggles and times.

use swap_knot::keep::{Setting, SettingValue};
use swap_knot::sheet::{
    ActionId, DeadZone, DeadZoneForm, Ease, EaseValue, Easing, Knob, KnobValue, Manner,
};
use swap_knot::{DeviceKind, Profile, Sheet};
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
    let done = match (setting, value) {
        (Setting::Feel { action, kind, knob }, SettingValue::Knob(value)) => {
            let action = action.as_deref();
            feel(top, of, action, (*kind, *knob), *value)
        }
        (Setting::Toggle { action }, SettingValue::Flag(on)) => {
            of_action(top, action).map(|t| set(t, "toggle", (*on).into()))
        }
        (Setting::Ease { action, ease }, SettingValue::Seconds(seconds)) if is_time(*ease) => {
            time(top, of, action.as_deref(), *ease, *seconds)
        }
        (Setting::Unread { .. }, _) => return Err(WhyLeft::NotUnderstood),
        _ => return Err(WhyLeft::Own),
    };
    done.ok_or(WhyLeft::NotUnderstood)
}

/// One number of a feel, of an action or of all. A player's word for all goes before what the game says of
/// one action, so that it is written there as well.
fn feel(
    top: &mut dyn TableLike,
    (sheet, profile): (&Sheet, &Profile),
    action: Option<&str>,
    (kind, knob): (DeviceKind, Knob),
    value: KnobValue,
) -> Option<()> {
    let write = |of: &mut dyn TableLike| {
        let of_kind = table(table(of, "feel", false)?, kind.word(), true)?;
        turn(of_kind, knob.word(), value);
        Some(())
    };
    let Some(action) = action else {
        for (_, action) in sheet.actions() {
            let says = action.feel[kind as usize].knob(knob) != sheet.feel(kind).knob(knob);
            let is_own = profile.feel(Some(&action.name), kind).knob(knob).is_some();
            if says && !is_own {
                write(of_action(top, &action.name)?)?;
            }
        }
        return write(top);
    };
    write(of_action(top, action)?)
}

/// One time, of an action or of all. What an action says itself is said anew; what must not be eased keeps
/// the time that it had.
fn time(
    top: &mut dyn TableLike,
    (sheet, profile): (&Sheet, &Profile),
    action: Option<&str>,
    ease: Ease,
    seconds: f32,
) -> Option<()> {
    let word = ease.word();
    let Some(action) = action else {
        for (_, action) in sheet.actions().filter(|(id, _)| bears(sheet, *id, ease)) {
            let is_own = profile.easing(Some(&action.name)).get(ease).is_some();
            let of = of_action(top, &action.name)?;
            let kept = match (action.ease, of.contains_key(word)) {
                (true, true) if !is_own => Some(EaseValue::Seconds(seconds)),
                (false, false) => Easing::of(action.timing).get(ease),
                _ => None,
            };
            if let Some(EaseValue::Seconds(kept)) = kept {
                set(of, word, number(kept));
            }
        }
        set(top, word, number(seconds));
        return Some(());
    };
    set(of_action(top, action)?, word, number(seconds));
    Some(())
}

/// Whether a time means something for an action, by how it is worked.
pub(crate) fn bears(sheet: &Sheet, action: ActionId, ease: Ease) -> bool {
    sheet.defaults_of(action).iter().any(|b| match ease {
        Ease::HoldAfter => b.manner == Manner::Hold,
        Ease::TapWithin => matches!(b.manner, Manner::Tap | Manner::DoubleTap),
        Ease::DoubleTapWithin => b.manner == Manner::DoubleTap,
        Ease::TogetherWithin => b.together,
        _ => true,
    })
}

/// The times that a sheet says as well.
fn is_time(ease: Ease) -> bool {
    matches!(
        ease,
        Ease::HoldAfter | Ease::TapWithin | Ease::DoubleTapWithin | Ease::TogetherWithin
    )
}

/// The table of an action.
pub(crate) fn of_action<'t>(
    top: &'t mut dyn TableLike,
    action: &str,
) -> Option<&'t mut dyn TableLike> {
    table(table(top, "actions", false)?, action, true)
}

/// Turns a knob, written as the sheet had it.
fn turn(of_kind: &mut dyn TableLike, knob: &str, value: KnobValue) {
    let value = match value {
        KnobValue::Number(value) => number(value),
        KnobValue::DeadZone(zone) => {
            let is_plain = zone.outer == 1.0 && zone.form == DeadZoneForm::Round;
            let was_table = of_kind.get(knob).is_some_and(|old| old.is_table_like());
            match (is_plain, was_table) {
                (true, false) => number(zone.inner),
                (_, true) => return dead_zone(of_kind, knob, zone),
                (false, false) => {
                    of_kind.insert(knob, toml_edit::value(InlineTable::new()));
                    return dead_zone(of_kind, knob, zone);
                }
            }
        }
        KnobValue::Axes(axes) => {
            let names = ["x", "y", "z"].into_iter().zip(axes);
            let names = names.filter(|(_, is)| *is).map(|(name, _)| name);
            Value::Array(names.collect::<Array>())
        }
    };
    set(of_kind, knob, value);
}

/// A dead zone as a table: what it says already is changed, and what it needs is added.
fn dead_zone(of_kind: &mut dyn TableLike, knob: &str, zone: DeadZone) {
    let Some(zone_table) = of_kind.get_mut(knob).and_then(|z| z.as_table_like_mut()) else {
        return;
    };
    let form = match zone.form {
        DeadZoneForm::Round => "round",
        DeadZoneForm::Axis => "axis",
    };
    let says = |t: &dyn TableLike, key| t.contains_key(key);
    set(zone_table, "inner", number(zone.inner));
    if says(zone_table, "outer") || zone.outer != 1.0 {
        set(zone_table, "outer", number(zone.outer));
    }
    if says(zone_table, "form") || zone.form != DeadZoneForm::Round {
        set(zone_table, "form", form.into());
    }
}

/// A number as it is written: as short as it can be and still be the same.
fn number(value: f32) -> Value {
    let short: f64 = value.to_string().parse().unwrap_or(f64::from(value));
    short.into()
}
