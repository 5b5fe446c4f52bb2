//! Easing: what makes a game easier to play with the hands one has.

use std::ops::RangeInclusive;

use super::Timing;
use crate::text::spelled;

spelled! {
    /// One thing that a player can have eased.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[non_exhaustive]
    pub enum Ease {
        /// One press switches on what would have to be held, and the next one off. For all actions at
        /// once it is about what has a value, such as walking, and not about presses.
        Toggle = "toggle",
        /// A tap latches a held part of a chord, so that it need not be held.
        Latch = "latch",
        /// What wants to be held or tapped twice is worked by a press.
        Press = "press",
        /// A press that follows the last one of the same binding too soon is ignored.
        IgnoreWithin = "ignore-within",
        /// [`Timing::hold_after`](crate::sheet::Timing::hold_after).
        HoldAfter = "hold-after",
        /// [`Timing::tap_within`](crate::sheet::Timing::tap_within).
        TapWithin = "tap-within",
        /// [`Timing::double_tap_within`](crate::sheet::Timing::double_tap_within).
        DoubleTapWithin = "double-tap-within",
        /// [`Timing::together_within`](crate::sheet::Timing::together_within).
        TogetherWithin = "together-within",
    }
}

impl Ease {
    /// The range of a time, in seconds; none for what is on or off.
    pub const fn range(self) -> Option<RangeInclusive<f32>> {
        match self {
            Ease::Toggle | Ease::Latch | Ease::Press => None,
            Ease::IgnoreWithin => Some(0.0..=2.0),
            _ => Some(0.02..=10.0),
        }
    }
}

/// What a player has eased, for one action or for all: only what is set says anything.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct Easing {
    /// [`Ease::Toggle`].
    pub toggle: Option<bool>,
    /// [`Ease::Latch`].
    pub latch: Option<bool>,
    /// [`Ease::Press`].
    pub press: Option<bool>,
    /// [`Ease::IgnoreWithin`], 0 to 2 seconds.
    pub ignore_within: Option<f32>,
    /// [`Ease::HoldAfter`], 0.02 to 10 seconds.
    pub hold_after: Option<f32>,
    /// [`Ease::TapWithin`], 0.02 to 10 seconds.
    pub tap_within: Option<f32>,
    /// [`Ease::DoubleTapWithin`], 0.02 to 10 seconds.
    pub double_tap_within: Option<f32>,
    /// [`Ease::TogetherWithin`], 0.02 to 10 seconds.
    pub together_within: Option<f32>,
}

/// What an [`Ease`] is set to.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum EaseValue {
    /// On or off.
    Flag(bool),
    /// A time.
    Seconds(f32),
}

/// A time of an easing that is out of its range, or no number.
#[derive(Clone, Copy, Debug, PartialEq, thiserror::Error)]
#[non_exhaustive]
#[error("{} goes from {least} to {most} seconds, and {value} is not in there", ease.word())]
pub struct EaseOutOfRange {
    /// Which time.
    pub ease: Ease,
    /// What it was to be.
    pub value: f32,
    /// The least it can be.
    pub least: f32,
    /// The most it can be.
    pub most: f32,
}

impl Easing {
    /// Nothing eased, at these times.
    pub const fn of(timing: Timing) -> Easing {
        Easing {
            toggle: Some(false),
            latch: Some(false),
            press: Some(false),
            ignore_within: Some(0.0),
            hold_after: Some(timing.hold_after),
            tap_within: Some(timing.tap_within),
            double_tap_within: Some(timing.double_tap_within),
            together_within: Some(timing.together_within),
        }
    }

    /// What it sets something to.
    pub fn get(&self, ease: Ease) -> Option<EaseValue> {
        match ease {
            Ease::Toggle => self.toggle.map(EaseValue::Flag),
            Ease::Latch => self.latch.map(EaseValue::Flag),
            Ease::Press => self.press.map(EaseValue::Flag),
            Ease::IgnoreWithin => self.ignore_within.map(EaseValue::Seconds),
            Ease::HoldAfter => self.hold_after.map(EaseValue::Seconds),
            Ease::TapWithin => self.tap_within.map(EaseValue::Seconds),
            Ease::DoubleTapWithin => self.double_tap_within.map(EaseValue::Seconds),
            Ease::TogetherWithin => self.together_within.map(EaseValue::Seconds),
        }
    }

    /// Sets something, or leaves it to the game; a value of another kind leaves it to the game.
    pub fn set(&mut self, ease: Ease, value: Option<EaseValue>) {
        let flag = match value {
            Some(EaseValue::Flag(flag)) => Some(flag),
            _ => None,
        };
        let seconds = match value {
            Some(EaseValue::Seconds(seconds)) => Some(seconds),
            _ => None,
        };
        match ease {
            Ease::Toggle => self.toggle = flag,
            Ease::Latch => self.latch = flag,
            Ease::Press => self.press = flag,
            Ease::IgnoreWithin => self.ignore_within = seconds,
            Ease::HoldAfter => self.hold_after = seconds,
            Ease::TapWithin => self.tap_within = seconds,
            Ease::DoubleTapWithin => self.double_tap_within = seconds,
            Ease::TogetherWithin => self.together_within = seconds,
        }
    }

    /// Whether every time is one, and in its range.
    ///
    /// # Errors
    /// The first that is not.
    pub fn check(&self) -> Result<(), EaseOutOfRange> {
        for ease in Ease::ALL {
            let (Some(EaseValue::Seconds(value)), Some(range)) = (self.get(ease), ease.range())
            else {
                continue;
            };
            if !range.contains(&value) {
                return Err(EaseOutOfRange {
                    ease,
                    value,
                    least: *range.start(),
                    most: *range.end(),
                });
            }
        }
        Ok(())
    }

    /// This with another one laid over it.
    #[must_use]
    pub fn with(mut self, over: &Easing) -> Easing {
        for ease in Ease::ALL {
            if let value @ Some(_) = over.get(ease) {
                self.set(ease, value);
            }
        }
        self
    }
}
