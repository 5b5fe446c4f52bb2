//! Modifier keys: either side, one side, the platform's main one.

use super::Place;
use crate::text::spelled;

spelled! {
    /// A modifier key on either side of the board.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    pub enum Modifier {
        /// Either Control key.
        Ctrl = "Ctrl",
        /// Either Shift key.
        Shift = "Shift",
        /// Either Alt key (Option on a Mac).
        Alt = "Alt",
        /// Either Meta key (Windows, Command).
        Meta = "Meta",
        /// The platform's main modifier: Command on a Mac, Control elsewhere.
        Main = "Main",
    }
}

spelled! {
    /// The platform, as far as it decides which modifier is the main one and what keys are called.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
    #[non_exhaustive]
    pub enum Platform {
        /// macOS: the main modifier is Command.
        Mac = "mac",
        /// Windows: the main modifier is Control.
        Windows = "windows",
        /// Everything else: the main modifier is Control.
        Other = "other",
    }
}

impl Platform {
    /// The platform this program was built for.
    pub const fn current() -> Platform {
        if cfg!(target_vendor = "apple") {
            Platform::Mac
        } else if cfg!(windows) {
            Platform::Windows
        } else {
            Platform::Other
        }
    }
}

impl Modifier {
    /// The two places it stands for on that platform, left and right.
    pub const fn places(self, platform: Platform) -> [Place; 2] {
        match (self, platform) {
            (Modifier::Ctrl, _) | (Modifier::Main, Platform::Windows | Platform::Other) => {
                [Place::ControlLeft, Place::ControlRight]
            }
            (Modifier::Shift, _) => [Place::ShiftLeft, Place::ShiftRight],
            (Modifier::Alt, _) => [Place::AltLeft, Place::AltRight],
            (Modifier::Meta, _) | (Modifier::Main, Platform::Mac) => {
                [Place::MetaLeft, Place::MetaRight]
            }
        }
    }

    /// The modifier that a place belongs to, never [`Modifier::Main`].
    pub const fn of_place(place: Place) -> Option<Modifier> {
        Some(match place {
            Place::ControlLeft | Place::ControlRight => Modifier::Ctrl,
            Place::ShiftLeft | Place::ShiftRight => Modifier::Shift,
            Place::AltLeft | Place::AltRight => Modifier::Alt,
            Place::MetaLeft | Place::MetaRight => Modifier::Meta,
            _ => return None,
        })
    }
}
