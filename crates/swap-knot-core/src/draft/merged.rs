//! Two machines' profiles brought together for a sheet: what they make of each other is reported.

use crate::conflict::{Conflict, is_same, unsettled};
use crate::law::{NotInForce, uphold};
use crate::layout::Resolver;
use crate::profile::{Newer, Overruled, Profile};
use crate::sheet::Sheet;

/// A profile of this machine merged with one from elsewhere, and what a player has to know of it.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Merged {
    /// Both sides' changes.
    pub profile: Profile,
    /// What both changed, where one was overruled.
    pub overruled: Vec<Overruled>,
    /// Conflicts that neither side had; settle them in a [`Draft`](crate::Draft).
    pub conflicts: Vec<Conflict>,
    /// What is not in force though it was on its own side: the two together would have left an
    /// essential action without a binding.
    pub not_in_force: Vec<NotInForce>,
}

impl Merged {
    /// Merges two profiles against what both started from, see [`Profile::merged`], and works out
    /// what the outcome means for this game.
    pub fn new(
        sheet: &Sheet,
        base: &Profile,
        (ours, theirs): (&Profile, &Profile),
        newer: Newer,
        on: impl Into<Resolver>,
    ) -> Merged {
        let on = on.into();
        let (profile, overruled) = ours.merged(base, theirs, newer);
        let judged = |profile: &Profile| {
            let upheld = uphold(sheet, profile, &on);
            let open = unsettled(sheet, &upheld.bindings, &on);
            (open, upheld.not_in_force)
        };
        let before = [ours, theirs].map(judged);
        let (mut conflicts, mut not_in_force) = judged(&profile);
        conflicts.retain(|c| {
            let mut known = before.iter().flat_map(|(all, _)| all);
            !known.any(|k| is_same((sheet, k), (sheet, c)))
        });
        not_in_force.retain(|n| before.iter().all(|(_, all)| !all.contains(n)));
        Merged {
            profile,
            overruled,
            conflicts,
            not_in_force,
        }
    }
}
