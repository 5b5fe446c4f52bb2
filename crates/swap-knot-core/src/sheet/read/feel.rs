//! Feel and times, in a sheet and in a profile.

use crate::input::DeviceKind;
use crate::sheet::{DeadZone, DeadZoneForm, FeelPatch, Timing};
use crate::text::{Fields, Report, number, unknown, wrong_type};

pub(super) type FeelByKind = [FeelPatch; DeviceKind::ALL.len()];

/// The `feel` table: one change of feel for each device kind.
pub(super) fn by_kind(fields: &mut Fields<'_, '_>, report: &mut Report<'_>) -> FeelByKind {
    let mut out = FeelByKind::default();
    let Some(value) = fields.value("feel") else {
        return out;
    };
    let Some(mut table) = Fields::of(value, "`feel`", report) else {
        return out;
    };
    for kind in DeviceKind::ALL {
        let Some(value) = table.value(kind.word()) else {
            continue;
        };
        if let Some(mut fields) = Fields::of(value, "a feel", report) {
            out[kind as usize] = patch(&mut fields, report);
            fields.finish("a feel", report);
        }
    }
    table.finish("`feel`", report);
    out
}

fn patch(fields: &mut Fields<'_, '_>, report: &mut Report<'_>) -> FeelPatch {
    FeelPatch {
        dead_zone: dead_zone(fields, report),
        sensitivity: fields.number("sensitivity", 0.01..=100.0, report),
        invert: invert(fields, report),
        curve: fields.number("curve", 0.1..=10.0, report),
        threshold: fields.number("threshold", 0.05..=1.0, report),
        gyro: fields.number("gyro", 0.0..=200.0, report),
        ramp_up: fields.number("ramp-up", 0.0..=10.0, report),
        ramp_down: fields.number("ramp-down", 0.0..=10.0, report),
    }
}

/// `dead-zone = 0.15`, or a table with `inner`, `outer` and `form`.
fn dead_zone(fields: &mut Fields<'_, '_>, report: &mut Report<'_>) -> Option<DeadZone> {
    const INNER: std::ops::RangeInclusive<f32> = 0.0..=0.95;
    let value = fields.value("dead-zone")?;
    let mut zone = DeadZone {
        inner: 0.0,
        outer: 1.0,
        form: DeadZoneForm::Round,
    };
    if value.get_ref().as_table().is_none() {
        if number(value).is_none() {
            let wanted = "a number from 0 to 0.95, or a table";
            wrong_type("`dead-zone`", wanted, value, report);
            return None;
        }
        zone.inner = fields.number("dead-zone", INNER, report)?;
        return Some(zone);
    }
    let mut table = Fields::of(value, "`dead-zone`", report)?;
    zone.inner = table.number("inner", INNER, report).unwrap_or(zone.inner);
    zone.outer = table
        .number("outer", 0.05..=1.0, report)
        .unwrap_or(zone.outer);
    let forms = [DeadZoneForm::Round, DeadZoneForm::Axis];
    let word = |f| match f {
        DeadZoneForm::Round => "round",
        DeadZoneForm::Axis => "axis",
    };
    zone.form = table
        .word("form", &forms, word, report)
        .unwrap_or(zone.form);
    if zone.inner >= zone.outer {
        report.add(
            table.at,
            "a dead zone's `inner` edge lies inside its `outer` edge",
        );
    }
    table.finish("`dead-zone`", report);
    Some(zone)
}

/// `invert = true` for every axis, or a list of `x`, `y` and `z`.
fn invert(fields: &mut Fields<'_, '_>, report: &mut Report<'_>) -> Option<[bool; 3]> {
    const AXES: [&str; 3] = ["x", "y", "z"];
    let value = fields.value("invert")?;
    if let Some(all) = value.get_ref().as_bool() {
        return Some([all; 3]);
    }
    let mut out = [false; 3];
    for (axis, at) in fields.texts("invert", report) {
        match AXES.iter().position(|a| *a == axis) {
            Some(i) => out[i] = true,
            None => report.add(at, unknown("`invert`", axis, &AXES)),
        }
    }
    Some(out)
}

/// The times beside an action or at the top of the sheet, over those given.
pub(super) fn timing(fields: &mut Fields<'_, '_>, over: Timing, report: &mut Report<'_>) -> Timing {
    const RANGE: std::ops::RangeInclusive<f32> = 0.02..=10.0;
    let mut get = |key, old| fields.number(key, RANGE, report).unwrap_or(old);
    Timing {
        hold_after: get("hold-after", over.hold_after),
        tap_within: get("tap-within", over.tap_within),
        double_tap_within: get("double-tap-within", over.double_tap_within),
        together_within: get("together-within", over.together_within),
    }
}
