//! The player's feel in a profile's file, over that of the game.

use toml::{Table, Value};

use crate::input::DeviceKind;
use crate::sheet::{DeadZone, DeadZoneForm, FeelPatch};

/// A change of feel for each device kind.
pub(super) type FeelByKind = [FeelPatch; DeviceKind::ALL.len()];

/// Takes what is understood out of a `feel` table; what is not stays in it, to be written back.
pub(super) fn take(table: &mut Table) -> FeelByKind {
    let mut out = FeelByKind::default();
    for kind in DeviceKind::ALL {
        if let Some(Value::Table(own)) = table.get_mut(kind.word()) {
            out[kind as usize] = take_patch(own);
            if own.is_empty() {
                table.remove(kind.word());
            }
        }
    }
    out
}

fn take_patch(table: &mut Table) -> FeelPatch {
    FeelPatch {
        dead_zone: take_with(table, "dead-zone", dead_zone),
        sensitivity: take_with(table, "sensitivity", |v| number(v, 0.01, 100.0)),
        invert: take_with(table, "invert", invert),
        curve: take_with(table, "curve", |v| number(v, 0.1, 10.0)),
        ramp_up: take_with(table, "ramp-up", |v| number(v, 0.0, 10.0)),
        ramp_down: take_with(table, "ramp-down", |v| number(v, 0.0, 10.0)),
    }
}

fn take_with<T>(table: &mut Table, key: &str, read: impl Fn(&Value) -> Option<T>) -> Option<T> {
    let found = read(table.get(key)?)?;
    table.remove(key);
    Some(found)
}

fn number(value: &Value, least: f32, most: f32) -> Option<f32> {
    let number = match value {
        Value::Float(f) => *f as f32,
        Value::Integer(i) => *i as f32,
        _ => return None,
    };
    (least..=most).contains(&number).then_some(number)
}

fn dead_zone(value: &Value) -> Option<DeadZone> {
    let Value::Table(table) = value else {
        return None;
    };
    let inner = number(table.get("inner")?, 0.0, 0.95)?;
    let outer = number(table.get("outer")?, 0.05, 1.0)?;
    let form = match table.get("form")?.as_str()? {
        "round" => DeadZoneForm::Round,
        "axis" => DeadZoneForm::Axis,
        _ => return None,
    };
    (inner < outer).then_some(DeadZone { inner, outer, form })
}

fn invert(value: &Value) -> Option<[bool; 3]> {
    let axes = value.as_array()?;
    let has = |axis: &str| axes.iter().any(|a| a.as_str() == Some(axis));
    Some([has("x"), has("y"), has("z")])
}

/// Writes a change of feel over what was kept of it.
pub(super) fn write(feel: &FeelByKind, kept: &Table) -> Table {
    let mut out = kept.clone();
    for (kind, patch) in DeviceKind::ALL.into_iter().zip(feel) {
        if patch.is_empty() {
            continue;
        }
        let own = out
            .entry(kind.word())
            .or_insert_with(|| Value::Table(Table::new()));
        if let Value::Table(own) = own {
            write_patch(patch, own);
        }
    }
    out
}

fn write_patch(patch: &FeelPatch, table: &mut Table) {
    let numbers = [
        ("sensitivity", patch.sensitivity),
        ("curve", patch.curve),
        ("ramp-up", patch.ramp_up),
        ("ramp-down", patch.ramp_down),
    ];
    for (key, number) in numbers {
        if let Some(number) = number {
            table.insert(key.to_owned(), float(number));
        }
    }
    if let Some(zone) = patch.dead_zone {
        let form = match zone.form {
            DeadZoneForm::Round => "round",
            DeadZoneForm::Axis => "axis",
        };
        let mut zone_table = Table::new();
        zone_table.insert("inner".to_owned(), float(zone.inner));
        zone_table.insert("outer".to_owned(), float(zone.outer));
        zone_table.insert("form".to_owned(), Value::String(form.to_owned()));
        table.insert("dead-zone".to_owned(), Value::Table(zone_table));
    }
    if let Some(invert) = patch.invert {
        let axes = ["x", "y", "z"]
            .into_iter()
            .zip(invert)
            .filter(|(_, on)| *on);
        let axes = axes
            .map(|(axis, _)| Value::String(axis.to_owned()))
            .collect();
        table.insert("invert".to_owned(), Value::Array(axes));
    }
}

/// The number as a player would write it: 0.15, not 0.15000000596046448.
fn float(number: f32) -> Value {
    Value::Float(
        number
            .to_string()
            .parse()
            .unwrap_or_else(|_| f64::from(number)),
    )
}
