//! Which actions a game asks for, so that one that it forgot is told.

#[cfg(debug_assertions)]
use std::sync::atomic::{AtomicBool, Ordering};

use super::Seat;
use crate::sheet::ActionId;

/// Kept in builds with debug assertions only; in others it is nothing and costs nothing.
#[derive(Debug, Default)]
pub(super) struct Asked {
    #[cfg(debug_assertions)]
    actions: Vec<AtomicBool>,
}

impl Asked {
    #[cfg_attr(
        not(debug_assertions),
        expect(unused_variables, reason = "nothing is kept")
    )]
    pub(super) fn new(actions: usize) -> Asked {
        Asked {
            #[cfg(debug_assertions)]
            actions: (0..actions).map(|_| AtomicBool::new(false)).collect(),
        }
    }

    #[inline(always)]
    #[cfg_attr(
        not(debug_assertions),
        expect(unused_variables, reason = "nothing is kept")
    )]
    pub(super) fn mark(&self, action: usize) {
        #[cfg(debug_assertions)]
        if let Some(asked) = self.actions.get(action) {
            asked.store(true, Ordering::Relaxed);
        }
    }

    #[cfg_attr(
        not(debug_assertions),
        expect(unused_variables, reason = "nothing is kept")
    )]
    fn was(&self, action: usize) -> bool {
        #[cfg(debug_assertions)]
        return self
            .actions
            .get(action)
            .is_some_and(|a| a.load(Ordering::Relaxed));
        #[cfg(not(debug_assertions))]
        true
    }
}

impl Clone for Asked {
    fn clone(&self) -> Asked {
        Asked {
            #[cfg(debug_assertions)]
            actions: (self.actions.iter())
                .map(|a| AtomicBool::new(a.load(Ordering::Relaxed)))
                .collect(),
        }
    }
}

impl Seat {
    /// The actions that nobody asked this seat for, in builds with debug assertions: an action that
    /// is in the menu and does nothing. Print it when a round of play is over.
    ///
    /// Asking is any call that names the action or one of its arms, and reading that it happened
    /// ([`Seat::happened`]). Actions that are off are left out; with a rig of another sheet it begins
    /// anew. In other builds it is empty.
    ///
    /// ```
    /// use swap_knot::{Layout, Profile, Rig, Seat, Sheet};
    ///
    /// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\n[actions.bell]")?;
    /// let seat = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
    /// let horn = sheet.find("horn").expect("declared above");
    /// let _ = seat.went_down(horn);
    /// assert_eq!(seat.never_asked(), [sheet.find("bell").expect("declared above")]);
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn never_asked(&self) -> Vec<ActionId> {
        let actions = self.rig.sheet().actions().enumerate();
        let forgotten = actions.filter(|(n, (_, action))| !action.off && !self.asked.was(*n));
        forgotten.map(|(_, (id, _))| id).collect()
    }
}
