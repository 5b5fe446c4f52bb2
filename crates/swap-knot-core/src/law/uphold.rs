//! A profile judged: what stands, what does not, and what is played with instead.

use super::bindings::{Bound, Origin, bindings};
use super::essential::{lacking, stand_in};
use super::{NotInForce, Unlawful};
use crate::layout::Resolver;
use crate::profile::{Profile, Setting, SettingValue, bind};
use crate::sheet::{ActsOn, Cell, Row, Sheet, fits_cell};

/// What of a profile is in force.
#[derive(Clone, Debug, Default)]
pub(crate) struct Upheld {
    /// The profile without what does not stand.
    pub(crate) lawful: Profile,
    /// What does not stand.
    pub(crate) not_in_force: Vec<NotInForce>,
    /// The bindings in force, ordered by cell.
    pub(crate) bindings: Vec<Bound>,
    /// Cells of essential rows whose letter no key types: the key where it usually is stands in.
    pub(crate) stand_ins: Vec<Cell>,
}

/// Judges a profile for a sheet, on the layout in use.
pub(crate) fn uphold(sheet: &Sheet, profile: &Profile, on: &Resolver) -> Upheld {
    let mut lawful = profile.clone();
    let mut not_in_force = Vec::new();
    for (setting, value) in profile.settings() {
        if let Err(why) = allows(sheet, setting, value, on) {
            lawful.put(setting.clone(), None);
            not_in_force.push(NotInForce {
                setting: setting.clone(),
                value: value.clone(),
                why,
            });
        }
    }
    let mut in_force = bindings(sheet, &lawful);
    // What a row has twice gives way; what stands there instead may be there twice again.
    loop {
        let given_up = twice(sheet, &in_force);
        let known = not_in_force.len();
        for bound in given_up {
            let setting = bind(sheet, bound.cell);
            let Some(value) = lawful.setting(&setting).cloned() else {
                continue;
            };
            lawful.put(setting.clone(), None);
            let (row, chord) = (sheet.titled(bound.cell.row), bound.chord);
            not_in_force.push(NotInForce {
                setting,
                value,
                why: Unlawful::Twice { row, chord },
            });
        }
        if not_in_force.len() == known {
            break;
        }
        in_force = bindings(sheet, &lawful);
    }
    // What leaves an essential row without a binding gives way, one cell after the other.
    for (row, kind) in lacking(sheet, &lawful, &in_force, on) {
        let cells = lawful.changes(sheet).into_iter().map(|(cell, _)| cell);
        let under = |c: &Cell| lawful.under(sheet, *c);
        let mut own: Vec<Cell> = cells
            .filter(|c| c.row == row && c.column.kind() == kind && under(c).is_some())
            .collect();
        // Rather one that a key types than one for which another key has to stand in.
        own.sort_by_key(|c| under(c).is_none_or(|chord| on.chord(chord).is_err()));
        let Some(&cell) = own.first() else { continue };
        let setting = bind(sheet, cell);
        if let Some(value) = lawful.setting(&setting).cloned() {
            lawful.put(setting.clone(), None);
            let row = sheet.titled(row);
            not_in_force.push(NotInForce {
                setting,
                value,
                why: Unlawful::Essential { row, kind },
            });
        }
        in_force = bindings(sheet, &lawful);
    }
    let mut stand_ins = Vec::new();
    for (row, kind) in lacking(sheet, &lawful, &in_force, on) {
        stand_ins.extend(stand_in(&mut in_force, row, kind));
    }
    Upheld {
        lawful,
        not_in_force,
        bindings: in_force,
        stand_ins,
    }
}

/// The choices of the player's by which a row has one chord twice, worked the same way, as no sheet may say
/// it either: of two choices the later one.
fn twice(sheet: &Sheet, in_force: &[Bound]) -> Vec<Bound> {
    let mut out = Vec::new();
    for row in in_force.chunk_by(|a, b| a.cell.row == b.cell.row) {
        for (n, bound) in row.iter().enumerate() {
            let own = (bound.cell, &bound.chord);
            let is_same = |o: &&Bound| sheet.holds_twice((o.cell, &o.chord), own);
            let Some(earlier) = row[..n].iter().find(is_same) else {
                continue;
            };
            let mut both = [bound, earlier].into_iter();
            out.extend(both.find(|b| b.origin == Origin::Profile).cloned());
        }
    }
    out
}

/// Whether one setting may stand, whatever else is set.
///
/// # Errors
/// Why it may not.
pub(crate) fn allows(
    sheet: &Sheet,
    setting: &Setting,
    value: &SettingValue,
    on: &Resolver,
) -> Result<(), Unlawful> {
    match (setting, value) {
        (_, SettingValue::Unread(value)) => Err(Unlawful::NotUnderstood(value.to_string())),
        (Setting::Preset, SettingValue::Text(name)) => match sheet.preset(name) {
            Some(_) => Ok(()),
            None => Err(Unlawful::NoSuchPreset(name.clone())),
        },
        (Setting::Bind { row, column }, value) => {
            let row = sheet.find_row(row).ok_or(Unlawful::NoSuchRow)?;
            changeable(sheet, row)?;
            let SettingValue::Chord(Some(chord)) = value else {
                return Ok(());
            };
            if let Some((input, _)) = on.find_related(chord, sheet.reserved()) {
                return Err(Unlawful::Reserved(input));
            }
            let shape = sheet.declared(row.action).shape;
            Ok(fits_cell(chord, row.cell(*column), shape)?)
        }
        (Setting::Parameter { scope, .. }, _) => {
            let Some(action) = &scope.action else {
                return Ok(());
            };
            let row = sheet.find(action).map(Row::of).ok_or(Unlawful::NoSuchRow)?;
            changeable(sheet, row)?;
            match scope.on {
                ActsOn::Inputs(_) | ActsOn::Zone(_) => Ok(()),
                ActsOn::Actions if sheet.declared(row.action).ease => Ok(()),
                ActsOn::Actions => Err(Unlawful::NotEased(sheet.titled(row))),
            }
        }
        // A layout or family that this version does not have is found again, and any title will do.
        (Setting::Title | Setting::Layout | Setting::Family, _) => Ok(()),
        // No reader and no setter makes a preset that is no text.
        (Setting::Preset | Setting::Unread { .. }, value) => {
            Err(Unlawful::NotUnderstood(value.to_string()))
        }
    }
}

/// The row is there, live, and the player's to change.
fn changeable(sheet: &Sheet, row: Row) -> Result<(), Unlawful> {
    let action = sheet.declared(row.action);
    match (sheet.has_row(row), action.off, action.fixed) {
        (false, _, _) => Err(Unlawful::NoSuchRow),
        (_, true, _) => Err(Unlawful::Off(sheet.titled(row))),
        (_, _, true) => Err(Unlawful::Fixed(sheet.titled(row))),
        _ => Ok(()),
    }
}
