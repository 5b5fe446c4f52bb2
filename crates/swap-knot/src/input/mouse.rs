//! Mouse buttons.

/// A mouse button.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum MouseButton {
    /// The main button.
    Left,
    /// The second button.
    Right,
    /// The wheel pressed down.
    Middle,
    /// The side button that goes back.
    Back,
    /// The side button that goes forward.
    Forward,
    /// A further button, counted from 6.
    Further(u8),
}

impl MouseButton {
    /// The highest button number.
    pub const LAST: u8 = 32;

    /// The buttons that have a name.
    pub const NAMED: [MouseButton; 5] = [
        MouseButton::Left,
        MouseButton::Right,
        MouseButton::Middle,
        MouseButton::Back,
        MouseButton::Forward,
    ];

    /// Its number: 1 left, 2 right, 3 middle, 4 back, 5 forward, then 6 to 32.
    pub const fn number(self) -> u8 {
        match self {
            MouseButton::Left => 1,
            MouseButton::Right => 2,
            MouseButton::Middle => 3,
            MouseButton::Back => 4,
            MouseButton::Forward => 5,
            MouseButton::Further(n) => n,
        }
    }

    /// The button of that number, from 1 to [`MouseButton::LAST`].
    pub const fn from_number(number: u8) -> Option<MouseButton> {
        Some(match number {
            1 => MouseButton::Left,
            2 => MouseButton::Right,
            3 => MouseButton::Middle,
            4 => MouseButton::Back,
            5 => MouseButton::Forward,
            6..=MouseButton::LAST => MouseButton::Further(number),
            _ => return None,
        })
    }

    pub(super) const fn word(self) -> Option<&'static str> {
        Some(match self {
            MouseButton::Left => "left",
            MouseButton::Right => "right",
            MouseButton::Middle => "middle",
            MouseButton::Back => "back",
            MouseButton::Forward => "forward",
            MouseButton::Further(_) => return None,
        })
    }
}
