//! Keys by place: the W3C UI Events `code` values.

use super::Place;

/// Every place a key can be in, as named by the [W3C UI Events `code` values][codes].
///
/// [codes]: https://www.w3.org/TR/uievents-code/
#[rustfmt::skip]
pub const PLACES: &[Place] = &[
    Place::Backquote, Place::Backslash, Place::BracketLeft, Place::BracketRight, Place::Comma,
    Place::Digit0, Place::Digit1, Place::Digit2, Place::Digit3, Place::Digit4, Place::Digit5,
    Place::Digit6, Place::Digit7, Place::Digit8, Place::Digit9, Place::Equal, Place::IntlBackslash,
    Place::IntlRo, Place::IntlYen, Place::KeyA, Place::KeyB, Place::KeyC, Place::KeyD, Place::KeyE,
    Place::KeyF, Place::KeyG, Place::KeyH, Place::KeyI, Place::KeyJ, Place::KeyK, Place::KeyL,
    Place::KeyM, Place::KeyN, Place::KeyO, Place::KeyP, Place::KeyQ, Place::KeyR, Place::KeyS,
    Place::KeyT, Place::KeyU, Place::KeyV, Place::KeyW, Place::KeyX, Place::KeyY, Place::KeyZ,
    Place::Minus, Place::Period, Place::Quote, Place::Semicolon, Place::Slash, Place::AltLeft,
    Place::AltRight, Place::Backspace, Place::CapsLock, Place::ContextMenu, Place::ControlLeft,
    Place::ControlRight, Place::Enter, Place::MetaLeft, Place::MetaRight, Place::ShiftLeft,
    Place::ShiftRight, Place::Space, Place::Tab, Place::Convert, Place::KanaMode, Place::Lang1,
    Place::Lang2, Place::Lang3, Place::Lang4, Place::Lang5, Place::NonConvert, Place::Delete,
    Place::End, Place::Help, Place::Home, Place::Insert, Place::PageDown, Place::PageUp,
    Place::ArrowDown, Place::ArrowLeft, Place::ArrowRight, Place::ArrowUp, Place::NumLock,
    Place::Numpad0, Place::Numpad1, Place::Numpad2, Place::Numpad3, Place::Numpad4, Place::Numpad5,
    Place::Numpad6, Place::Numpad7, Place::Numpad8, Place::Numpad9, Place::NumpadAdd,
    Place::NumpadBackspace, Place::NumpadClear, Place::NumpadClearEntry, Place::NumpadComma,
    Place::NumpadDecimal, Place::NumpadDivide, Place::NumpadEnter, Place::NumpadEqual,
    Place::NumpadHash, Place::NumpadMemoryAdd, Place::NumpadMemoryClear, Place::NumpadMemoryRecall,
    Place::NumpadMemoryStore, Place::NumpadMemorySubtract, Place::NumpadMultiply,
    Place::NumpadParenLeft, Place::NumpadParenRight, Place::NumpadStar, Place::NumpadSubtract,
    Place::Escape, Place::Fn, Place::FnLock, Place::PrintScreen, Place::ScrollLock, Place::Pause,
    Place::BrowserBack, Place::BrowserFavorites, Place::BrowserForward, Place::BrowserHome,
    Place::BrowserRefresh, Place::BrowserSearch, Place::BrowserStop, Place::Eject,
    Place::LaunchApp1, Place::LaunchApp2, Place::LaunchMail, Place::MediaPlayPause,
    Place::MediaSelect, Place::MediaStop, Place::MediaTrackNext, Place::MediaTrackPrevious,
    Place::Power, Place::Sleep, Place::AudioVolumeDown, Place::AudioVolumeMute,
    Place::AudioVolumeUp, Place::WakeUp, Place::Abort, Place::Resume, Place::Suspend, Place::Again,
    Place::Copy, Place::Cut, Place::Find, Place::Open, Place::Paste, Place::Props, Place::Select,
    Place::Undo, Place::Hiragana, Place::Katakana, Place::F1, Place::F2, Place::F3, Place::F4,
    Place::F5, Place::F6, Place::F7, Place::F8, Place::F9, Place::F10, Place::F11, Place::F12,
    Place::F13, Place::F14, Place::F15, Place::F16, Place::F17, Place::F18, Place::F19, Place::F20,
    Place::F21, Place::F22, Place::F23, Place::F24, Place::F25, Place::F26, Place::F27, Place::F28,
    Place::F29, Place::F30, Place::F31, Place::F32, Place::F33, Place::F34, Place::F35,
    Place::BrightnessDown, Place::BrightnessUp, Place::DisplayToggleIntExt,
    Place::KeyboardLayoutSelect, Place::LaunchAssistant, Place::LaunchControlPanel,
    Place::LaunchScreenSaver, Place::MailForward, Place::MailReply, Place::MailSend,
    Place::MediaFastForward, Place::MediaPause, Place::MediaPlay, Place::MediaRecord,
    Place::MediaRewind, Place::MicrophoneMuteToggle, Place::PrivacyScreenToggle,
    Place::KeyboardBacklightToggle, Place::SelectTask, Place::ShowAllWindows, Place::ZoomToggle,
];

/// The places whose keys write a character, row by row as on the board.
///
/// The layout tables list their keys in this order. No single board has them all: `IntlBackslash`
/// is on ISO and ABNT2 boards, `IntlRo` on JIS and ABNT2 ones, `IntlYen` on JIS ones only.
#[rustfmt::skip]
pub const WRITING_PLACES: [Place; 51] = [
    Place::Backquote, Place::Digit1, Place::Digit2, Place::Digit3, Place::Digit4, Place::Digit5,
    Place::Digit6, Place::Digit7, Place::Digit8, Place::Digit9, Place::Digit0, Place::Minus,
    Place::Equal, Place::IntlYen, Place::KeyQ, Place::KeyW, Place::KeyE, Place::KeyR, Place::KeyT,
    Place::KeyY, Place::KeyU, Place::KeyI, Place::KeyO, Place::KeyP, Place::BracketLeft,
    Place::BracketRight, Place::Backslash, Place::KeyA, Place::KeyS, Place::KeyD, Place::KeyF,
    Place::KeyG, Place::KeyH, Place::KeyJ, Place::KeyK, Place::KeyL, Place::Semicolon, Place::Quote,
    Place::IntlBackslash, Place::KeyZ, Place::KeyX, Place::KeyC, Place::KeyV, Place::KeyB,
    Place::KeyN, Place::KeyM, Place::Comma, Place::Period, Place::Slash, Place::IntlRo,
    Place::Space,
];

/// Whether the key at that place writes a character, so that the layout decides what is on it.
///
/// ```
/// use swap_knot::{Place, is_writing_place};
/// assert!(is_writing_place(Place::Quote));
/// assert!(!is_writing_place(Place::Enter));
/// ```
pub const fn is_writing_place(place: Place) -> bool {
    writing_index(place).is_some()
}

/// The position in [`WRITING_PLACES`].
pub(crate) const fn writing_index(place: Place) -> Option<usize> {
    let index = WRITING_INDEX[place as usize];
    if index == NOT_WRITING {
        None
    } else {
        Some(index as usize)
    }
}

const NOT_WRITING: u8 = u8::MAX;

const WRITING_INDEX: [u8; 256] = {
    let mut table = [NOT_WRITING; 256];
    let mut i = 0;
    while i < WRITING_PLACES.len() {
        table[WRITING_PLACES[i] as usize] = i as u8;
        i += 1;
    }
    table
};
