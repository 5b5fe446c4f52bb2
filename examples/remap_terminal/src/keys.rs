//! What a terminal tells of keys, as far as that goes: it names characters, not places, and tells
//! nothing of keys that come up or of modifiers alone. So a place is guessed by the layout, and
//! every key comes up at once.

use ratatui::crossterm::event::{KeyCode, KeyEvent, KeyModifiers};
use swap_knot::{DeviceId, Event, EventKind, Layout, Place, Time};

/// The events that a terminal's key stands for: modifiers down, the key down and up, modifiers up.
pub(crate) fn events(key: KeyEvent, layout: &Layout, at: Time) -> Vec<Event> {
    let text = match key.code {
        KeyCode::Char(c) => Some(c),
        _ => None,
    };
    let Some(place) = place(key, layout) else {
        return Vec::new();
    };
    let held = [
        (KeyModifiers::CONTROL, Place::ControlLeft),
        (KeyModifiers::ALT, Place::AltLeft),
        (KeyModifiers::SHIFT, Place::ShiftLeft),
    ];
    let held = held
        .into_iter()
        .filter(|(bit, _)| key.modifiers.contains(*bit));
    let held: Vec<Place> = held.map(|(_, place)| place).collect();
    // What is typed with Ctrl or Alt is no text.
    let text = text.filter(|_| held.iter().all(|p| *p == Place::ShiftLeft));
    let event = |place, down, text| Event {
        at,
        device: DeviceId(0),
        what: EventKind::Key { place, down, text },
    };
    let mut events: Vec<Event> = held.iter().map(|p| event(*p, true, None)).collect();
    events.push(event(place, true, text));
    events.push(event(place, false, None));
    events.extend(held.iter().map(|p| event(*p, false, None)));
    events
}

fn place(key: KeyEvent, layout: &Layout) -> Option<Place> {
    Some(match key.code {
        KeyCode::Char(' ') => Place::Space,
        KeyCode::Char(c) => layout.place_of(c.to_lowercase().next()?)?,
        KeyCode::F(n @ 1..=12) => format!("F{n}").parse().ok()?,
        KeyCode::Enter => Place::Enter,
        KeyCode::Esc => Place::Escape,
        KeyCode::Tab | KeyCode::BackTab => Place::Tab,
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
    })
}
