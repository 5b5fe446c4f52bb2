//! What is bound and does not count: of actions that are switched off, and what the law does not let
//! stand. It is played nowhere; it is for telling why nothing happened.

use crate::input::{Chord, Input};
use crate::law::Upheld;
use crate::layout::Resolver;
use crate::profile::{Setting, SettingValue};
use crate::sheet::{Row, Sheet};

/// A binding that does not count.
#[derive(Clone, Debug)]
pub(crate) struct Silent {
    /// What completes its chord, in hand.
    pub(crate) inputs: Vec<Input>,
    /// What it would work.
    pub(crate) row: Row,
    /// Whether the action is switched off; else the binding is not in force.
    pub(crate) is_off: bool,
}

/// All of a sheet and a profile.
pub(super) fn silent(sheet: &Sheet, upheld: &Upheld, on: &Resolver) -> Vec<Silent> {
    let is_off = |row: Row| sheet.declared(row.action).off;
    let off = sheet.defaults().iter().map(|b| (b.cell.row, &b.chord));
    let off = off.filter(|(row, _)| is_off(*row));
    let unlawful = upheld.not_in_force.iter().filter_map(|n| {
        let (Setting::Bind { row, .. }, SettingValue::Chord(Some(chord))) = (&n.setting, &n.value)
        else {
            return None;
        };
        Some((sheet.find_row(row)?, chord))
    });
    let in_hand = |(row, chord): (Row, &Chord)| {
        let inputs = on.chord(chord).ok()?.input.leaves().to_vec();
        let is_off = is_off(row);
        Some(Silent {
            inputs,
            row,
            is_off,
        })
    };
    off.chain(unlawful).filter_map(in_hand).collect()
}
