//! What a terminal tells of keys, as far as that goes: it names characters, not places, and tells
//! nothing of keys that come up or of modifiers alone. So a place is guessed by the layout.

use ratatui::crossterm::event::{KeyCode, KeyEvent, KeyModifiers};
use swap_knot::{Chord, Input, Layout, Modifier, Place};

/// The chord that a terminal's key stands for, if it stands for one.
pub(crate) fn chord(key: KeyEvent, layout: &Layout) -> Option<Chord> {
    let place = match key.code {
        KeyCode::Char(' ') => Place::Space,
        KeyCode::Char(c) => layout.place_of(c.to_lowercase().next()?)?,
        KeyCode::F(n @ 1..=12) => format!("F{n}").parse().ok()?,
        KeyCode::Enter => Place::Enter,
        KeyCode::Tab => Place::Tab,
        KeyCode::Backspace => Place::Backspace,
        KeyCode::Delete => Place::Delete,
        KeyCode::Insert => Place::Insert,
        KeyCode::Home => Place::Home,
        KeyCode::End => Place::End,
        KeyCode::PageUp => Place::PageUp,
        KeyCode::PageDown => Place::PageDown,
        KeyCode::Up => Place::ArrowUp,
        KeyCode::Down => Place::ArrowDown,
        KeyCode::Left => Place::ArrowLeft,
        KeyCode::Right => Place::ArrowRight,
        _ => return None,
    };
    let held = [
        (KeyModifiers::CONTROL, Modifier::Ctrl),
        (KeyModifiers::ALT, Modifier::Alt),
    ];
    let held = held
        .into_iter()
        .filter(|(bit, _)| key.modifiers.contains(*bit));
    Chord::new(held.map(|(_, m)| Input::Modifier(m)), Input::Key(place)).ok()
}
