//! How an action is eased, of all that has a say in it.

use crate::profile::Profile;
use crate::sheet::{Action, Easing, Manner, Shape, Timing};

/// What is in force of easing for one action.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Eased {
    pub(crate) toggle: bool,
    pub(crate) latch: bool,
    pub(crate) press: bool,
    pub(crate) ignore_within: f32,
    pub(crate) timing: Timing,
}

impl Eased {
    /// How a binding is worked that the sheet wants worked so.
    pub(crate) fn manner(&self, declared: Manner) -> Manner {
        match declared {
            Manner::Hold | Manner::DoubleTap if self.press => Manner::Press,
            other => other,
        }
    }
}

impl From<Eased> for Easing {
    fn from(eased: Eased) -> Easing {
        Easing {
            toggle: Some(eased.toggle),
            latch: Some(eased.latch),
            press: Some(eased.press),
            ignore_within: Some(eased.ignore_within),
            ..Easing::of(eased.timing)
        }
    }
}

/// What is in force: the player's for the action comes over theirs for all, and that over the
/// game's; nothing but the game's where the sheet forbids it.
pub(crate) fn eased(lawful: &Profile, action: &Action) -> Eased {
    let easing = match action.ease {
        true => {
            let mut all = lawful.easing(None);
            // For all at once it is about what has a value: a jump that toggles helps nobody.
            if action.shape == Shape::Press {
                all.toggle = None;
            }
            all.with(&lawful.easing(Some(&action.name)))
        }
        false => Easing::default(),
    };
    let timing = action.timing;
    Eased {
        toggle: easing.toggle.unwrap_or(action.toggle),
        latch: easing.latch.unwrap_or(false),
        press: easing.press.unwrap_or(false),
        ignore_within: easing.ignore_within.unwrap_or(0.0),
        timing: Timing {
            hold_after: easing.hold_after.unwrap_or(timing.hold_after),
            tap_within: easing.tap_within.unwrap_or(timing.tap_within),
            double_tap_within: easing.double_tap_within.unwrap_or(timing.double_tap_within),
            together_within: easing.together_within.unwrap_or(timing.together_within),
        },
    }
}
