//! A profile carried over from an older sheet: nothing of the player's is lost, and what was
//! changed is reported.

use super::essential;
use crate::conflict::{Conflict, conflicts};
use crate::input::{Chord, Platform};
use crate::layout::Layout;
use crate::profile::Profile;
use crate::rig::{Bound, Origin, effective_bindings};
use crate::sheet::{Cell, Sheet};

/// What carrying a profile over to a sheet did.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct CarriedOver {
    /// Actions that have another name now: what they were called, and what they are.
    pub moved: Vec<(String, String)>,
    /// Rows that this sheet does not have. They are kept for a version that has them.
    pub set_aside: Vec<String>,
    /// Defaults that gave way because the player had chosen their input for something else: the
    /// cell, its default, and the cell of the player's choice.
    pub gave_way: Vec<(Cell, Chord, Cell)>,
    /// Conflicts between defaults and the player's choices that could not be mended by giving way,
    /// since an essential action would have lost its last binding.
    pub open: Vec<Conflict>,
}

impl CarriedOver {
    /// Whether there is nothing to tell.
    pub fn is_empty(&self) -> bool {
        *self == CarriedOver::default()
    }

    /// What happened, a line each.
    pub fn describe(&self, sheet: &Sheet) -> Vec<String> {
        let name = |cell: &Cell| sheet.row_name(cell.row);
        let moved = (self.moved.iter()).map(|(old, new)| format!("`{old}` is called `{new}` now"));
        let aside = self.set_aside.iter().map(|row| {
            let why = match sheet.is_removed(row.split('.').next().unwrap_or(row)) {
                true => "gone from the game",
                false => "unknown to this version",
            };
            format!("`{row}` is {why}; its bindings are kept aside")
        });
        let gave_way = self.gave_way.iter().map(|(cell, chord, by)| {
            let (cell, by) = (name(cell), name(by));
            format!("`{cell}` gives up its default {chord}, which `{by}` has")
        });
        let open = self
            .open
            .iter()
            .map(|c| format!("conflict: {}", c.describe(sheet)));
        moved.chain(aside).chain(gave_way).chain(open).collect()
    }
}

impl Sheet {
    /// Carries a profile over from the sheet it was saved under: renamed actions are followed, rows
    /// that are unknown are kept aside, and a default that lands on an input the player chose for
    /// something else gives way.
    ///
    /// A profile of this very version comes back as it is.
    #[must_use]
    pub fn carry_over(&self, profile: &Profile, layout: &Layout) -> (Profile, CarriedOver) {
        let mut out = profile.clone();
        let mut report = CarriedOver::default();
        for row in profile.row_names() {
            let (action, arm) = row
                .split_once('.')
                .map_or((row, None), |(a, arm)| (a, Some(arm)));
            if self.find_row(row).is_some() {
                continue;
            }
            let renamed = self.renamed(action).map(|new| match arm {
                Some(arm) => format!("{new}.{arm}"),
                None => new.to_owned(),
            });
            match renamed.filter(|new| self.find_row(new).is_some()) {
                Some(new) if out.rename_row(row, &new) => report.moved.push((row.to_owned(), new)),
                _ => report.set_aside.push(row.to_owned()),
            }
        }
        if profile.sheet_version().is_some_and(|v| v != self.version()) {
            self.give_way(&mut out, layout, &mut report);
        }
        (out, report)
    }

    /// Unbinds defaults that the player's choices are in the way of.
    fn give_way(&self, profile: &mut Profile, layout: &Layout, report: &mut CarriedOver) {
        let (bindings, _) = effective_bindings(self, profile);
        let platform = Platform::current();
        let all = conflicts(self, &bindings, std::slice::from_ref(layout), platform);
        let origin = |cell: Cell| {
            let of = |b: &&Bound| b.cell == cell;
            bindings.iter().find(of).map(|b| b.origin)
        };
        for conflict in all.into_iter().filter(|c| c.class.is_conflict()) {
            let pair = [&conflict.first, &conflict.second];
            let own = pair
                .iter()
                .position(|p| origin(p.cell) == Some(Origin::Profile));
            let default = pair
                .iter()
                .position(|p| origin(p.cell) != Some(Origin::Profile));
            let (Some(own), Some(default)) = (own, default) else {
                continue;
            };
            let (own, default) = (pair[own], pair[default]);
            let mut without = profile.clone();
            without.set(self, default.cell, None);
            let (after, _) = effective_bindings(self, &without);
            if essential::first_unbound(self, &after).is_some() {
                report.open.push(conflict);
            } else {
                let gave_way = (default.cell, default.chord.clone(), own.cell);
                report.gave_way.push(gave_way);
                *profile = without;
            }
        }
    }
}
