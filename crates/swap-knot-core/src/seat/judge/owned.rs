//! Presses that belong to the chord that they worked, until they are up: for values, too.

use crate::input::{Control, MAX_HELD};
use crate::rig::{Wire, Wiring};
use crate::seat::state::State;

/// A press that belongs to the chord that it worked, until it is up.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(in crate::seat) struct Owned {
    pub(in crate::seat) control: Control,
    /// What that chord holds, in its order; beyond that there is no control.
    pub(in crate::seat) parts: [[Control; 2]; MAX_HELD],
}

impl State {
    /// Whether the press of a wire's control, or of what moves with it, belongs to another chord.
    pub(super) fn is_anothers(&self, wiring: &Wiring, wire: &Wire) -> bool {
        let (first, count) = wire.control.relatives();
        let own = parts_of(wiring.held_of(wire));
        let about = |owned: &&Owned| {
            let same = owned.control == wire.control
                || (first.0..first.0 + count).contains(&owned.control.0);
            same && self.held.is_down_anywhere(owned.control)
        };
        let mut owned = self.owned.iter().filter(about).peekable();
        owned.peek().is_some() && owned.all(|owned| owned.parts != own)
    }

    /// A chord was worked by a press, which belongs to it from here on.
    pub(super) fn own(&mut self, wiring: &Wiring, wire: &Wire) {
        let owned = Owned {
            control: wire.control,
            parts: parts_of(wiring.held_of(wire)),
        };
        if !self.owned.contains(&owned) {
            self.owned.push(owned);
        }
    }

    /// Forgets what was said of controls that are at rest, or up.
    #[cold]
    pub(in crate::seat) fn forget_rested(&mut self) {
        let held = &self.held;
        self.taken.retain(|(control, _)| held.is_spent(*control));
        self.owned
            .retain(|owned| held.is_down_anywhere(owned.control));
    }
}

/// What a chord holds, for as many as a chord may hold.
fn parts_of(held: &[[Control; 2]]) -> [[Control; 2]; MAX_HELD] {
    std::array::from_fn(|n| held.get(n).copied().unwrap_or([Control::NONE; 2]))
}
