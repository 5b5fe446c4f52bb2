//! The manners: how an input must be worked for its action to happen.
//!
//! What a manner wants is said here and nowhere else: play, the check, what is asked of hands and what eases
//! it go by the gesture, and know none by name. A further one is a row here, its verbs in
//! `prompt/phrase.rs`, and its words.

use super::{Easing, Parameter};
use crate::text::spelled;

spelled! {
    /// How an input must be worked for its action to happen.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
    pub enum Manner {
        /// On while it is down.
        #[default]
        Press = "press",
        /// Once, when it is let go.
        Release = "release",
        /// On after it has been down for a while.
        Hold = "hold",
        /// Once, when it is let go soon after it went down.
        Tap = "tap",
        /// On at the second press soon after a tap, while it stays down.
        DoubleTap = "double-tap",
        /// On at the third press soon after two taps, while it stays down.
        TripleTap = "triple-tap",
    }
}

/// What the hand does: some taps, each soon after the one before, and a press of which something begins.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Gesture {
    /// The taps before the press that counts.
    pub(crate) taps: u8,
    /// When that begins something.
    pub(crate) begins: Begins,
}

/// When a press begins something.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Begins {
    /// When it goes down, for as long as it is down.
    Down,
    /// Once it has been down for [`Easing::hold_after`], for as long as it is down.
    Held,
    /// When it comes up, for a moment.
    Up,
    /// When it comes up within [`Easing::tap_within`], for a moment.
    UpSoon,
}

impl Manner {
    pub(crate) const fn gesture(self) -> Gesture {
        let (taps, begins) = match self {
            Manner::Press => (0, Begins::Down),
            Manner::Release => (0, Begins::Up),
            Manner::Hold => (0, Begins::Held),
            Manner::Tap => (0, Begins::UpSoon),
            Manner::DoubleTap => (1, Begins::Down),
            Manner::TripleTap => (2, Begins::Down),
        };
        Gesture { taps, begins }
    }
}

impl Gesture {
    /// The most taps that any manner wants before the press that counts.
    pub(crate) const MOST_TAPS: u8 = {
        let (mut most, mut n) = (0, 0);
        while n < Manner::ALL.len() {
            let taps = Manner::ALL[n].gesture().taps;
            if taps > most {
                most = taps;
            }
            n += 1;
        }
        most
    };

    /// Whether it is a press and no more, which is on while its input is down.
    pub(crate) const fn is_press(self) -> bool {
        matches!((self.taps, self.begins), (0, Begins::Down))
    }

    /// Whether one press by itself works it, and goes on working it while it is down.
    pub(crate) const fn is_one_that_lasts(self) -> bool {
        self.taps == 0 && matches!(self.begins, Begins::Down | Begins::Held)
    }

    /// Whether it wants more of a hand than a press, so that a player may have it worked by one.
    pub(crate) const fn is_eased_to_press(self) -> bool {
        self.taps > 0 || matches!(self.begins, Begins::Held)
    }

    /// Whether it comes of letting go, so that a chord that uses the input up leaves nothing of it.
    pub(crate) const fn is_at_release(self) -> bool {
        matches!(self.begins, Begins::Up | Begins::UpSoon)
    }

    /// Whether it taps: a press that is too long is nothing.
    pub(crate) const fn taps(self) -> bool {
        self.taps > 0 || matches!(self.begins, Begins::UpSoon)
    }

    /// Whether a time has a say in it.
    pub(crate) fn goes_by(self, time: Parameter) -> bool {
        match time {
            Parameter::HoldAfter => self.begins == Begins::Held,
            Parameter::TapWithin => self.taps(),
            Parameter::DoubleTapWithin => self.taps > 0,
            _ => false,
        }
    }

    /// Whether two on one input never both come of one gesture: a tap is over before a hold begins, as long
    /// as the times say so, and the last press of several is nothing else.
    pub(crate) fn gets_along((a, a_times): (Self, &Easing), (b, b_times): (Self, &Easing)) -> bool {
        let over_first = |tap: &Easing, hold: &Easing| tap.tap_within < hold.hold_after;
        match (a.begins == Begins::Held, b.begins == Begins::Held) {
            (false, true) if a.taps() => over_first(a_times, b_times),
            (true, false) if b.taps() => over_first(b_times, a_times),
            _ => false,
        }
    }
}
