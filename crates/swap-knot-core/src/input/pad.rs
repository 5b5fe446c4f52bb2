//! Pad buttons by place, after the W3C Gamepad specification's standard mapping.

use super::Side;

macro_rules! pad_buttons {
    ($($(#[$doc:meta])* $name:ident = $word:literal),* $(,)?) => {
        /// A button or trigger of a pad, by place.
        ///
        /// The first seventeen are in the order of the [W3C standard mapping][map]
        /// (`buttons[0]` is [`PadButton::South`]); paddles follow.
        ///
        /// [map]: https://www.w3.org/TR/gamepad/#remapping
        #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
        #[repr(u8)]
        #[non_exhaustive]
        pub enum PadButton { $($(#[$doc])* $name),* }

        impl PadButton {
            /// Every pad button, in the order of the standard mapping.
            pub const ALL: &'static [PadButton] = &[$(PadButton::$name),*];

            /// The word for it in files and options, without the `pad:` in front.
            pub const fn word(self) -> &'static str {
                match self { $(PadButton::$name => $word),* }
            }
        }
    };
}

pad_buttons! {
    /// The bottom one of the four on the right.
    South = "south",
    /// The right one of the four on the right.
    East = "east",
    /// The left one of the four on the right.
    West = "west",
    /// The top one of the four on the right.
    North = "north",
    /// The upper left button on the front edge.
    ShoulderLeft = "shoulder-left",
    /// The upper right button on the front edge.
    ShoulderRight = "shoulder-right",
    /// The lower left one on the front edge, a pull.
    TriggerLeft = "trigger-left",
    /// The lower right one on the front edge, a pull.
    TriggerRight = "trigger-right",
    /// The left one in the middle.
    CenterLeft = "center-left",
    /// The right one in the middle.
    CenterRight = "center-right",
    /// The left stick pressed in.
    StickLeftClick = "stick-left-click",
    /// The right stick pressed in.
    StickRightClick = "stick-right-click",
    /// Up on the cross.
    Up = "up",
    /// Down on the cross.
    Down = "down",
    /// Left on the cross.
    Left = "left",
    /// Right on the cross.
    Right = "right",
    /// The middle one in the middle, often kept by the system.
    Center = "center",
    /// The first paddle at the back.
    Paddle1 = "paddle-1",
    /// The second paddle at the back.
    Paddle2 = "paddle-2",
    /// The third paddle at the back.
    Paddle3 = "paddle-3",
    /// The fourth paddle at the back.
    Paddle4 = "paddle-4",
}

impl PadButton {
    /// Whether it delivers a pull (0 to 1) rather than on and off.
    pub const fn is_trigger(self) -> bool {
        matches!(self, PadButton::TriggerLeft | PadButton::TriggerRight)
    }
}

/// A stick of a pad.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Stick(pub Side);

impl Stick {
    /// The left stick.
    pub const LEFT: Stick = Stick(Side::Left);
    /// The right stick.
    pub const RIGHT: Stick = Stick(Side::Right);
    /// Both sticks.
    pub const ALL: [Stick; 2] = [Stick::LEFT, Stick::RIGHT];

    /// The word for it in files and options, without the `pad:` in front.
    pub const fn word(self) -> &'static str {
        match self.0 {
            Side::Left => "stick-left",
            Side::Right => "stick-right",
        }
    }
}
