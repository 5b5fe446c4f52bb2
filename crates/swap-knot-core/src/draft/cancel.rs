//! The inputs that cancel: a tap of one cancels, held it is an input as any other.

use std::time::Duration;

use crate::input::{Control, Input, Time};

/// How long an input that cancels is held to be meant itself.
pub(crate) const HELD_FOR: Duration = Duration::from_secs(1);

/// An input that cancels, while it is down.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Cancelling {
    control: Control,
    input: Input,
    since: Time,
}

impl Cancelling {
    pub(crate) const fn new(control: Control, input: Input, since: Time) -> Cancelling {
        Cancelling {
            control,
            input,
            since,
        }
    }

    /// What is meant by holding it so long.
    pub(crate) fn meant(self, now: Time) -> Option<Input> {
        (now.since(self.since) >= HELD_FOR).then_some(self.input)
    }

    /// Whether it is this one that came up.
    pub(crate) fn is(self, control: Control) -> bool {
        self.control == control
    }
}
