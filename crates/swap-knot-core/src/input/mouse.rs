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
    /// A further button, from [`MouseButton::from_number`].
    Further(FurtherButton),
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
            MouseButton::Further(n) => n.0,
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
            6..=MouseButton::LAST => MouseButton::Further(FurtherButton(number)),
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

/// A mouse button beyond those with names, numbered from 6 to [`MouseButton::LAST`].
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct FurtherButton(u8);

impl FurtherButton {
    /// Its number.
    pub const fn number(self) -> u8 {
        self.0
    }
}

/// How a system counts the buttons of a mouse beyond the first five, which have names.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum ButtonCounting {
    /// X11: four to seven are the wheel, eight and nine lead back and forward, ten is the sixth.
    X11,
    /// Wayland: by the numbers of the Linux kernel (`input-event-codes.h`), from `BTN_LEFT` (0x110).
    Kernel,
    /// Windows: the two that lead back and forward are one and two, three is the sixth.
    Windows,
    /// macOS and the web: from nought on, five is the sixth.
    FromZero,
}

/// `BTN_LEFT` in the Linux kernel's `input-event-codes.h`.
const FIRST_OF_KERNEL: u16 = 0x110;

impl ButtonCounting {
    /// How the system that this program was built for counts, where it gave that number; on Linux
    /// the number tells X11 and Wayland apart.
    pub const fn here(number: u16) -> ButtonCounting {
        if cfg!(windows) {
            ButtonCounting::Windows
        } else if cfg!(any(target_vendor = "apple", target_family = "wasm")) {
            ButtonCounting::FromZero
        } else if number >= FIRST_OF_KERNEL {
            ButtonCounting::Kernel
        } else {
            ButtonCounting::X11
        }
    }
}

impl MouseButton {
    /// The button that a system means by a number beyond those that have names there.
    pub fn counted(counting: ButtonCounting, number: u16) -> Option<MouseButton> {
        let number = match counting {
            ButtonCounting::X11 => number.checked_sub(4)?,
            ButtonCounting::Kernel => number.checked_sub(FIRST_OF_KERNEL - 1)?,
            ButtonCounting::Windows => number.checked_add(3)?,
            ButtonCounting::FromZero => number.checked_add(1)?,
        };
        let number = u8::try_from(number).ok().filter(|n| *n >= 6)?;
        MouseButton::from_number(number)
    }
}
