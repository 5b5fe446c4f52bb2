//! The numbers of a feel as they stand in a profile's file.

use toml::{Table, Value};

use crate::sheet::{DeadZone, DeadZoneForm, FeelPatch, Knob, KnobValue};

const ROUND: &str = "round";
const BY_AXIS: &str = "axis";
const AXES: [&str; 3] = ["x", "y", "z"];

/// What a knob is turned to; none where the value is not understood, or out of range.
pub(super) fn read(knob: Knob, value: &Value) -> Option<KnobValue> {
    let read = match knob {
        Knob::DeadZone => KnobValue::DeadZone(dead_zone(value.as_table()?)?),
        Knob::Invert => KnobValue::Axes(axes(value.as_array()?)?),
        _ => KnobValue::Number(number(value)?),
    };
    let mut patch = FeelPatch::default();
    patch.turn(knob, Some(read));
    patch.check().ok().map(|()| read)
}

pub(super) fn write(value: KnobValue) -> Value {
    match value {
        KnobValue::Number(number) => float(number),
        KnobValue::DeadZone(zone) => {
            let form = match zone.form {
                DeadZoneForm::Round => ROUND,
                DeadZoneForm::Axis => BY_AXIS,
            };
            let mut table = Table::new();
            table.insert("inner".to_owned(), float(zone.inner));
            table.insert("outer".to_owned(), float(zone.outer));
            table.insert("form".to_owned(), Value::String(form.to_owned()));
            Value::Table(table)
        }
        KnobValue::Axes(axes) => {
            let named = AXES.into_iter().zip(axes).filter(|(_, on)| *on);
            Value::Array(named.map(|(a, _)| Value::String(a.to_owned())).collect())
        }
    }
}

fn number(value: &Value) -> Option<f32> {
    match value {
        Value::Float(f) => Some(*f as f32),
        Value::Integer(i) => Some(*i as f32),
        _ => None,
    }
}

/// All that stands there has to be understood, so that nothing is lost when it is written back.
fn dead_zone(table: &Table) -> Option<DeadZone> {
    let form = match table.get("form")?.as_str()? {
        ROUND => DeadZoneForm::Round,
        BY_AXIS => DeadZoneForm::Axis,
        _ => return None,
    };
    let zone = DeadZone {
        inner: number(table.get("inner")?)?,
        outer: number(table.get("outer")?)?,
        form,
    };
    (table.len() == 3).then_some(zone)
}

fn axes(array: &[Value]) -> Option<[bool; 3]> {
    let mut out = [false; 3];
    for value in array {
        let axis = AXES.iter().position(|a| Some(*a) == value.as_str())?;
        out[axis] = true;
    }
    Some(out)
}

/// The number as a player would write it: 0.15, not 0.15000000596046448.
pub(super) fn float(number: f32) -> Value {
    let text = number.to_string();
    Value::Float(text.parse().unwrap_or_else(|_| f64::from(number)))
}
