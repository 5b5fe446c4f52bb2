//! Keys by place: the W3C UI Events `code` values.

use std::fmt;
use std::str::FromStr;

use super::InputError;

macro_rules! places {
    ($($name:ident)*) => {
        /// A key by where it is on the board, whatever it types; named by the
        /// [W3C UI Events `code` values][codes].
        ///
        /// Places that the standard adds later come after those there are.
        ///
        /// ```
        /// use swap_knot::Place;
        ///
        /// assert_eq!(Place::KeyW.to_string(), "KeyW");
        /// assert_eq!("IntlBackslash".parse::<Place>()?, Place::IntlBackslash);
        /// # Ok::<(), swap_knot::input::InputError>(())
        /// ```
        ///
        /// [codes]: https://www.w3.org/TR/uievents-code/
        #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
        #[non_exhaustive]
        #[repr(u8)]
        pub enum Place {
            $(#[doc = concat!("The key `", stringify!($name), "`.")] $name,)*
        }

        impl Place {
            /// Every place.
            pub const ALL: &[Place] = &[$(Place::$name),*];

            /// The name of the place, as the standard writes it.
            pub const fn name(self) -> &'static str {
                match self { $(Place::$name => stringify!($name),)* }
            }

            pub(super) fn named(name: &str) -> Option<Place> {
                match name {
                    $(stringify!($name) => Some(Place::$name),)*
                    _ => None,
                }
            }
        }
    };
}

#[rustfmt::skip]
places! {
    Backquote Backslash BracketLeft BracketRight Comma Digit0 Digit1 Digit2 Digit3 Digit4 Digit5
    Digit6 Digit7 Digit8 Digit9 Equal IntlBackslash IntlRo IntlYen KeyA KeyB KeyC KeyD KeyE KeyF
    KeyG KeyH KeyI KeyJ KeyK KeyL KeyM KeyN KeyO KeyP KeyQ KeyR KeyS KeyT KeyU KeyV KeyW KeyX KeyY
    KeyZ Minus Period Quote Semicolon Slash AltLeft AltRight Backspace CapsLock ContextMenu
    ControlLeft ControlRight Enter MetaLeft MetaRight ShiftLeft ShiftRight Space Tab Convert
    KanaMode Lang1 Lang2 Lang3 Lang4 Lang5 NonConvert Delete End Help Home Insert PageDown PageUp
    ArrowDown ArrowLeft ArrowRight ArrowUp NumLock Numpad0 Numpad1 Numpad2 Numpad3 Numpad4 Numpad5
    Numpad6 Numpad7 Numpad8 Numpad9 NumpadAdd NumpadBackspace NumpadClear NumpadClearEntry
    NumpadComma NumpadDecimal NumpadDivide NumpadEnter NumpadEqual NumpadHash NumpadMemoryAdd
    NumpadMemoryClear NumpadMemoryRecall NumpadMemoryStore NumpadMemorySubtract NumpadMultiply
    NumpadParenLeft NumpadParenRight NumpadStar NumpadSubtract Escape Fn FnLock PrintScreen
    ScrollLock Pause BrowserBack BrowserFavorites BrowserForward BrowserHome BrowserRefresh
    BrowserSearch BrowserStop Eject LaunchApp1 LaunchApp2 LaunchMail MediaPlayPause MediaSelect
    MediaStop MediaTrackNext MediaTrackPrevious Power Sleep AudioVolumeDown AudioVolumeMute
    AudioVolumeUp WakeUp Abort Resume Suspend Again Copy Cut Find Open Paste Props Select Undo
    Hiragana Katakana F1 F2 F3 F4 F5 F6 F7 F8 F9 F10 F11 F12 F13 F14 F15 F16 F17 F18 F19 F20 F21
    F22 F23 F24 F25 F26 F27 F28 F29 F30 F31 F32 F33 F34 F35 BrightnessDown BrightnessUp
    DisplayToggleIntExt KeyboardLayoutSelect LaunchAssistant LaunchControlPanel LaunchScreenSaver
    MailForward MailReply MailSend MediaFastForward MediaPause MediaPlay MediaRecord MediaRewind
    MicrophoneMuteToggle PrivacyScreenToggle KeyboardBacklightToggle SelectTask ShowAllWindows
    ZoomToggle
}

impl Place {
    /// The places whose keys write a character, row by row as on the board.
    ///
    /// The layout tables list their keys in this order. No single board has them all:
    /// `IntlBackslash` is on ISO and ABNT2 boards, `IntlRo` on JIS and ABNT2 ones, `IntlYen` on JIS
    /// ones only.
    #[rustfmt::skip]
    pub const WRITING: [Place; 51] = {
        use Place::*;
        [
            Backquote, Digit1, Digit2, Digit3, Digit4, Digit5, Digit6, Digit7, Digit8, Digit9,
            Digit0, Minus, Equal, IntlYen, KeyQ, KeyW, KeyE, KeyR, KeyT, KeyY, KeyU, KeyI, KeyO,
            KeyP, BracketLeft, BracketRight, Backslash, KeyA, KeyS, KeyD, KeyF, KeyG, KeyH, KeyJ,
            KeyK, KeyL, Semicolon, Quote, IntlBackslash, KeyZ, KeyX, KeyC, KeyV, KeyB, KeyN, KeyM,
            Comma, Period, Slash, IntlRo, Space,
        ]
    };

    /// Whether the key at that place writes a character, so that the layout decides what is on it.
    ///
    /// ```
    /// use swap_knot::Place;
    /// assert!(Place::Quote.is_writing());
    /// assert!(!Place::Enter.is_writing());
    /// ```
    pub const fn is_writing(self) -> bool {
        self.writing_index().is_some()
    }

    /// The position in [`Place::WRITING`].
    pub(crate) const fn writing_index(self) -> Option<usize> {
        let index = WRITING_INDEX[self as usize];
        if index == NOT_WRITING {
            None
        } else {
            Some(index as usize)
        }
    }
}

impl fmt::Display for Place {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.pad(self.name())
    }
}

impl FromStr for Place {
    type Err = InputError;

    /// # Errors
    /// A word that is no place: where and what may have been meant.
    fn from_str(text: &str) -> Result<Place, InputError> {
        match text.parse()? {
            super::Input::Key(place) => Ok(place),
            _ => Err(InputError::no_place(text)),
        }
    }
}

const NOT_WRITING: u8 = u8::MAX;

const WRITING_INDEX: [u8; Place::ALL.len()] = {
    let mut table = [NOT_WRITING; Place::ALL.len()];
    let mut i = 0;
    while i < Place::WRITING.len() {
        table[Place::WRITING[i] as usize] = i as u8;
        i += 1;
    }
    table
};
