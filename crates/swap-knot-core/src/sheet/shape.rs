//! What value an action carries, and its arms.

use crate::text::spelled;

spelled! {
    /// What value an action carries.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
    pub enum Shape {
        /// On or off.
        Press = "press",
        /// 0 to 1.
        Pull = "pull",
        /// −1 to 1.
        Line = "line",
        /// Two axes, at most 1 long.
        Plane = "plane",
        /// Three axes, at most 1 long.
        Space = "space",
    }
}

impl Shape {
    /// Whether the action has arms: named directions that are bound on their own.
    pub const fn has_arms(self) -> bool {
        matches!(self, Shape::Line | Shape::Plane | Shape::Space)
    }

    /// Whether one input can work the whole action: anything but a space.
    pub const fn whole_input(self) -> bool {
        !matches!(self, Shape::Space)
    }
}

spelled! {
    /// One direction of a line, plane or space.
    ///
    /// A line has one opposite pair (left and right, down and up, or back and forward), a plane has
    /// left, right, down and up, a space has all six. Right, up and forward are positive.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[repr(u8)]
    pub enum Arm {
        /// Negative on the first axis.
        Left = "left",
        /// Positive on the first axis.
        Right = "right",
        /// Negative on the second axis.
        Down = "down",
        /// Positive on the second axis.
        Up = "up",
        /// Negative on the third axis.
        Back = "back",
        /// Positive on the third axis.
        Forward = "forward",
    }
}

impl Arm {
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
