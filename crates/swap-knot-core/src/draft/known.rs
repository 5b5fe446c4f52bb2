//! What is worked out of a draft when it is asked for, and then known until the draft changes.
//!
//! A menu asks for conflicts and changes whenever it is drawn, sixty times a second.

use std::sync::OnceLock;

use super::Draft;
use crate::conflict::{Conflict, conflicts};
use crate::law::{Bound, Upheld, uphold};

/// Empty whenever something it depends on has changed.
#[derive(Clone, Debug, Default)]
pub(super) struct Known {
    conflicts: OnceLock<Vec<Conflict>>,
    applied: OnceLock<Upheld>,
}

impl Draft {
    /// The conflicts and notices among the bindings as they would be in force.
    pub fn conflicts(&self) -> &[Conflict] {
        self.known.conflicts.get_or_init(|| {
            let layouts = std::slice::from_ref(self.on.layout());
            conflicts(&self.sheet, self.bindings(), layouts, self.on.platform())
        })
    }

    /// What was in force when it was applied last, on the layout of now.
    pub(super) fn applied_upheld(&self) -> &Upheld {
        let known = &self.known.applied;
        known.get_or_init(|| uphold(&self.sheet, &self.applied, &self.on))
    }

    /// The bindings that were in force when it was applied last.
    pub(crate) fn applied_bindings(&self) -> &[Bound] {
        &self.applied_upheld().bindings
    }
}
