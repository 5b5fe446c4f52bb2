//! The inputs that cancel: a tap of one cancels, held it is an input as any other.

use std::time::Duration;

use crate::input::{Control, DeviceKind, HidButton, HidInput, Input, PadButton, Place, Time};

/// What cancels, unless a game says otherwise: one input for each kind of device that has no pointer.
pub(crate) fn cancels() -> Vec<Input> {
    let key = Input::Key(Place::Escape);
    let pad = Input::PadButton(PadButton::CenterRight);
    let other = HidButton::new(2).map(|button| Input::Hid(HidInput::Button(button)));
    [key, pad].into_iter().chain(other).collect()
}

/// What cancels with a device of that kind in hand: its own, or a key.
pub(crate) fn cancels_by(hand: DeviceKind) -> Input {
    let mut all = cancels().into_iter();
    let own = all.find(|i| i.device_kind() == hand);
    own.unwrap_or(Input::Key(Place::Escape))
}

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

    /// When it is meant itself, if it is still down then.
    pub(crate) fn meant_at(self) -> Time {
        self.since.plus(HELD_FOR)
    }

    pub(crate) fn input(self) -> Input {
        self.input
    }

    /// Whether it is this one that came up.
    pub(crate) fn is(self, control: Control) -> bool {
        self.control == control
    }
}
