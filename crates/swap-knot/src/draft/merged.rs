//! Two machines' profiles brought together for a sheet: what they make of each other is reported.

use super::essential;
use crate::conflict::{Conflict, conflicts};
use crate::input::Platform;
use crate::layout::Layout;
use crate::profile::{Newer, Overruled, Profile};
use crate::rig::effective_bindings;
use crate::sheet::{Cell, Row, Sheet};

/// A merged profile, and what a player has to know of it.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Merged {
    /// Both sides' changes.
    pub profile: Profile,
    /// What both changed, where one was overruled.
    pub overruled: Vec<Overruled>,
    /// Conflicts that neither side had; settle them in a [`Draft`](crate::Draft).
    pub conflicts: Vec<Conflict>,
    /// Essential actions and arms that the two sides together would have left unbound, and that
    /// went back to their defaults.
    pub restored: Vec<Row>,
}

impl Sheet {
    /// Merges the profile of this machine with one from elsewhere against what both started from,
    /// see [`Profile::merged`], and reports what the outcome means for this game: conflicts that
    /// neither side had, and essential actions that went back to their defaults.
    #[must_use]
    pub fn merge(
        &self,
        base: &Profile,
        ours: &Profile,
        theirs: &Profile,
        newer: Newer,
        layout: &Layout,
    ) -> Merged {
        let (mut profile, overruled) = ours.merged(base, theirs, newer);
        let restored = self.restore_essential(&mut profile);
        let found = |profile: &Profile| {
            let (bindings, _) = effective_bindings(self, profile);
            let layouts = std::slice::from_ref(layout);
            let mut all = conflicts(self, &bindings, layouts, Platform::current());
            all.retain(|c| c.class.is_conflict());
            all
        };
        let key = |c: &Conflict| -> [(Cell, String); 2] {
            [&c.first, &c.second].map(|p| (p.cell, p.chord.to_string()))
        };
        let known: Vec<_> = [ours, theirs].into_iter().flat_map(found).collect();
        let known: Vec<_> = known.iter().map(key).collect();
        let mut conflicts = found(&profile);
        conflicts.retain(|c| !known.contains(&key(c)));
        Merged {
            profile,
            overruled,
            conflicts,
            restored,
        }
    }

    /// Gives essential rows their defaults back where nothing else is left of them.
    fn restore_essential(&self, profile: &mut Profile) -> Vec<Row> {
        let mut restored = Vec::new();
        loop {
            let (bindings, _) = effective_bindings(self, profile);
            let Some((row, kind)) = essential::first_unbound(self, &bindings) else {
                return restored;
            };
            let cells: Vec<Cell> = profile
                .changes(self)
                .into_iter()
                .map(|(cell, _)| cell)
                .filter(|c| c.row.action == row.action && c.column.kind == kind)
                .collect();
            if cells.is_empty() {
                // A preset unbinds it: there is nothing of the player's to take back.
                return restored;
            }
            for cell in cells {
                profile.clear(self, cell);
            }
            restored.push(row);
        }
    }
}
