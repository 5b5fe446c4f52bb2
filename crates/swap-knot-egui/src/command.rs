//! Working the menu without a mouse.

use swap_knot::{Direction, Event, EventKind, PadButton, Place};

/// What a player tells the menu without a mouse.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum MenuCommand {
    /// To what is above, below, left or right.
    Go(Direction),
    /// Change the cell, push the button.
    Choose,
    /// Out of a question, or of the menu.
    Back,
    /// Take the binding of the cell away.
    Unbind,
    /// Go back to the default of the row.
    Reset,
}

impl MenuCommand {
    /// The keys and buttons that work the menu whatever is bound, so that nobody can lock
    /// themselves out: arrows, Enter, Escape, Delete and Backspace; on a pad the cross, and the
    /// diamond's bottom (choose), right (back), left (unbind) and top (reset).
    pub fn of(event: &Event) -> Option<MenuCommand> {
        use MenuCommand::{Back, Choose, Go, Reset, Unbind};
        match event.what {
            EventKind::Key {
                place, down: true, ..
            } => Some(match place {
                Place::ArrowUp => Go(Direction::Up),
                Place::ArrowDown => Go(Direction::Down),
                Place::ArrowLeft => Go(Direction::Left),
                Place::ArrowRight => Go(Direction::Right),
                Place::Enter | Place::NumpadEnter => Choose,
                Place::Escape => Back,
                Place::Delete => Unbind,
                Place::Backspace => Reset,
                _ => return None,
            }),
            EventKind::PadButton { button, value } if value >= 0.5 => Some(match button {
                PadButton::Up => Go(Direction::Up),
                PadButton::Down => Go(Direction::Down),
                PadButton::Left => Go(Direction::Left),
                PadButton::Right => Go(Direction::Right),
                PadButton::South => Choose,
                PadButton::East => Back,
                PadButton::West => Unbind,
                PadButton::North => Reset,
                _ => return None,
            }),
            _ => None,
        }
    }
}
