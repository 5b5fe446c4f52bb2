//! What an input is called, in English, on the player's layout.

use std::borrow::Cow;

use crate::input::{
    Chord, HidInput, Input, Modifier, MouseButton, PadButton, Place, Side, Sign, Stick,
    is_writing_place,
};
use crate::layout::{Layout, Level};

/// What a chord is called: its parts joined by `+`, as in "Ctrl+K".
pub fn chord_name(chord: &Chord, layout: &Layout) -> String {
    let parts: Vec<Cow<'_, str>> = chord.inputs().map(|i| input_name(i, layout)).collect();
    parts.join("+")
}

/// What an input is called: the legend on the player's keyboard, or its name.
pub fn input_name(input: Input, layout: &Layout) -> Cow<'static, str> {
    match input {
        Input::Modifier(Modifier::Main) => "Main modifier".into(),
        Input::Modifier(m) => m.word().into(),
        Input::Key(place) => key_name(place, layout),
        Input::Letter(letter) => letter_name(letter, layout).into(),
        Input::MouseButton(button) => mouse_name(button),
        Input::MouseMove => "mouse".into(),
        Input::Wheel(direction) => format!("wheel {}", direction.word()).into(),
        Input::PadButton(button) => pad_name(button).into(),
        Input::PadStick(stick) => stick_name(stick).into(),
        Input::PadStickHalf(stick, direction) => {
            format!("{} {}", stick_name(stick), direction.word()).into()
        }
        Input::Hid(hid) => hid_name(hid),
        Input::Touch(name) => name.as_str().replace('-', " ").into(),
    }
}

/// Whether no key of the layout is what the input asks for.
pub(super) fn is_missing(input: Input, layout: &Layout) -> bool {
    matches!(input, Input::Letter(letter) if layout.place_of(letter).is_none())
}

/// The letter as it is printed: the legend of the key that types it on its own, else its capital.
fn letter_name(letter: char, layout: &Layout) -> String {
    let place = layout.place_of(letter);
    let typed = place.and_then(|p| layout.typed(p, Level::Plain));
    let legend = place.and_then(|p| layout.legend(p));
    match (legend, typed) {
        (Some(legend), Some(typed)) if typed.character == letter => legend,
        _ => letter.to_uppercase().to_string(),
    }
}

fn key_name(place: Place, layout: &Layout) -> Cow<'static, str> {
    if is_writing_place(place)
        && let Some(legend) = layout.legend(place)
    {
        return match layout.second_legend(place) {
            // Both are printed on the key, and players know it by either.
            Some(second) => format!("{legend}/{second}").into(),
            None => legend.into(),
        };
    }
    let name = match place {
        Place::AltLeft => "Left Alt",
        Place::AltRight => "Right Alt",
        Place::ControlLeft => "Left Ctrl",
        Place::ControlRight => "Right Ctrl",
        Place::MetaLeft => "Left Meta",
        Place::MetaRight => "Right Meta",
        Place::ShiftLeft => "Left Shift",
        Place::ShiftRight => "Right Shift",
        Place::ArrowDown => "Down arrow",
        Place::ArrowLeft => "Left arrow",
        Place::ArrowRight => "Right arrow",
        Place::ArrowUp => "Up arrow",
        Place::CapsLock => "Caps Lock",
        Place::ContextMenu => "Menu",
        Place::NumLock => "Num Lock",
        Place::NumpadAdd => "Numpad +",
        Place::NumpadComma => "Numpad ,",
        Place::NumpadDecimal => "Numpad .",
        Place::NumpadDivide => "Numpad /",
        Place::NumpadEqual => "Numpad =",
        Place::NumpadHash => "Numpad #",
        Place::NumpadMultiply => "Numpad *",
        Place::NumpadStar => "Numpad star",
        Place::NumpadSubtract => "Numpad -",
        Place::PageDown => "Page Down",
        Place::PageUp => "Page Up",
        Place::PrintScreen => "Print Screen",
        Place::ScrollLock => "Scroll Lock",
        Place::KanaMode => "Kana",
        other => return spaced(&other.to_string()).into(),
    };
    name.into()
}

/// `MediaTrackNext` becomes `Media Track Next`, `Numpad4` becomes `Numpad 4`; `F12` stays.
fn spaced(code: &str) -> String {
    let mut out = String::with_capacity(code.len() + 4);
    let mut before = ' ';
    for c in code.chars() {
        let word = c.is_ascii_uppercase() && before.is_ascii_lowercase();
        let number = c.is_ascii_digit() && before.is_ascii_lowercase();
        if word || number {
            out.push(' ');
        }
        out.push(c);
        before = c;
    }
    out
}

fn mouse_name(button: MouseButton) -> Cow<'static, str> {
    match button {
        MouseButton::Left => "left mouse button".into(),
        MouseButton::Right => "right mouse button".into(),
        MouseButton::Middle => "middle mouse button".into(),
        MouseButton::Back => "back mouse button".into(),
        MouseButton::Forward => "forward mouse button".into(),
        MouseButton::Further(number) => format!("mouse button {number}").into(),
    }
}

/// Pads are named by place, so that the name is right on every family.
fn pad_name(button: PadButton) -> &'static str {
    match button {
        PadButton::South => "bottom button",
        PadButton::East => "right button",
        PadButton::West => "left button",
        PadButton::North => "top button",
        PadButton::ShoulderLeft => "left shoulder",
        PadButton::ShoulderRight => "right shoulder",
        PadButton::TriggerLeft => "left trigger",
        PadButton::TriggerRight => "right trigger",
        PadButton::CenterLeft => "left center button",
        PadButton::CenterRight => "right center button",
        PadButton::StickLeftClick => "left stick click",
        PadButton::StickRightClick => "right stick click",
        PadButton::Up => "cross up",
        PadButton::Down => "cross down",
        PadButton::Left => "cross left",
        PadButton::Right => "cross right",
        PadButton::Center => "center button",
        PadButton::Paddle1 => "paddle 1",
        PadButton::Paddle2 => "paddle 2",
        PadButton::Paddle3 => "paddle 3",
        PadButton::Paddle4 => "paddle 4",
    }
}

fn stick_name(stick: Stick) -> &'static str {
    match stick.0 {
        Side::Left => "left stick",
        Side::Right => "right stick",
    }
}

fn hid_name(hid: HidInput) -> Cow<'static, str> {
    match hid {
        HidInput::Button(number) => format!("button {number}").into(),
        HidInput::Hat(direction) => format!("hat {}", direction.word()).into(),
        HidInput::Axis(axis) => format!("{} axis", axis.word()).into(),
        HidInput::Half(axis, Sign::Positive) => format!("{} axis +", axis.word()).into(),
        HidInput::Half(axis, Sign::Negative) => format!("{} axis -", axis.word()).into(),
    }
}
