//! Directions of sticks, wheels and axes.

use crate::text::spelled;

spelled! {
    /// A direction of a stick, a wheel or a hat.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    pub enum Direction {
        /// Away from the player.
        Up = "up",
        /// Towards the player.
        Down = "down",
        /// To the left.
        Left = "left",
        /// To the right.
        Right = "right",
    }
}

impl Direction {
    /// How far a stick at `[x, y]` (right and up positive) leans this way, 0 to 1.
    pub const fn part_of(self, [x, y]: [f32; 2]) -> f32 {
        let v = match self {
            Direction::Up => y,
            Direction::Down => -y,
            Direction::Left => -x,
            Direction::Right => x,
        };
        if v > 0.0 { v } else { 0.0 }
    }
}

/// The left or the right one of a pair.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Side {
    /// The left one.
    Left,
    /// The right one.
    Right,
}

/// One half of an axis.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Sign {
    /// Above rest: `+`.
    Positive,
    /// Below rest: `-`.
    Negative,
}
