//! What value an action carries, its arms, and how its input must be worked.

use std::fmt;

/// What value an action carries.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Shape {
    /// On or off.
    Press,
    /// 0 to 1.
    Pull,
    /// −1 to 1.
    Line,
    /// Two axes, at most 1 long.
    Plane,
    /// Three axes, at most 1 long.
    Space,
}

impl Shape {
    /// Every shape.
    pub const ALL: [Shape; 5] = [
        Shape::Press,
        Shape::Pull,
        Shape::Line,
        Shape::Plane,
        Shape::Space,
    ];

    /// The word for it in a sheet.
    pub const fn word(self) -> &'static str {
        match self {
            Shape::Press => "press",
            Shape::Pull => "pull",
            Shape::Line => "line",
            Shape::Plane => "plane",
            Shape::Space => "space",
        }
    }

    /// Whether the action has arms: named directions that are bound on their own.
    pub const fn has_arms(self) -> bool {
        matches!(self, Shape::Line | Shape::Plane | Shape::Space)
    }

    /// Whether one input can work the whole action: anything but a space.
    pub const fn whole_input(self) -> bool {
        !matches!(self, Shape::Space)
    }
}

impl fmt::Display for Shape {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.word())
    }
}

/// One direction of a line, plane or space.
///
/// A line has one opposite pair (left and right, down and up, or back and forward), a plane has
/// left, right, down and up, a space has all six. Right, up and forward are positive.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[repr(u8)]
pub enum Arm {
    /// Negative on the first axis.
    Left,
    /// Positive on the first axis.
    Right,
    /// Negative on the second axis.
    Down,
    /// Positive on the second axis.
    Up,
    /// Negative on the third axis.
    Back,
    /// Positive on the third axis.
    Forward,
}

impl Arm {
    /// Every arm, in the order of the axes, negative first.
    pub const ALL: [Arm; 6] = [
        Arm::Left,
        Arm::Right,
        Arm::Down,
        Arm::Up,
        Arm::Back,
        Arm::Forward,
    ];

    /// The word for it in a sheet.
    pub const fn word(self) -> &'static str {
        match self {
            Arm::Left => "left",
            Arm::Right => "right",
            Arm::Down => "down",
            Arm::Up => "up",
            Arm::Back => "back",
            Arm::Forward => "forward",
        }
    }

    /// The arm of that word.
    pub fn from_word(word: &str) -> Option<Arm> {
        Arm::ALL.into_iter().find(|a| a.word() == word)
    }

    /// The arm on the other side of its axis.
    pub const fn opposite(self) -> Arm {
        Arm::ALL[self as usize ^ 1]
    }

    /// Its axis: 0, 1 or 2.
    pub const fn axis(self) -> usize {
        self as usize / 2
    }

    /// Whether it is the positive side of its axis.
    pub const fn is_positive(self) -> bool {
        self as usize % 2 == 1
    }
}

impl fmt::Display for Arm {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.word())
    }
}

/// How an input must be worked for its action to happen.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Manner {
    /// On while it is down.
    #[default]
    Press,
    /// Once, when it is let go.
    Release,
    /// On after it has been down for a while.
    Hold,
    /// Once, when it is let go soon after it went down.
    Tap,
    /// On at the second press soon after the first, while it stays down.
    DoubleTap,
}

impl Manner {
    /// Every manner.
    pub const ALL: [Manner; 5] = [
        Manner::Press,
        Manner::Release,
        Manner::Hold,
        Manner::Tap,
        Manner::DoubleTap,
    ];

    /// The word for it in a sheet.
    pub const fn word(self) -> &'static str {
        match self {
            Manner::Press => "press",
            Manner::Release => "release",
            Manner::Hold => "hold",
            Manner::Tap => "tap",
            Manner::DoubleTap => "double-tap",
        }
    }

    /// Whether two actions can be on one input in these manners without getting in each other's
    /// way: only a tap and a hold can.
    pub const fn gets_along_with(self, other: Manner) -> bool {
        matches!(
            (self, other),
            (Manner::Tap, Manner::Hold) | (Manner::Hold, Manner::Tap)
        )
    }
}

impl fmt::Display for Manner {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.word())
    }
}
