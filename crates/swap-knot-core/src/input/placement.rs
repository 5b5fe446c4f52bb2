//! Where a player put a touch zone.

use crate::text::spelled;
use std::ops::RangeInclusive;

/// Where a player put a touch zone or on-screen stick, beside where the game has it; by default there.
///
/// Numbers beyond their ranges, and what is no number, count as the nearest that is within.
///
/// ```
/// use swap_knot::input::Placement;
///
/// let placement = Placement::new([0.25, -7.0], f32::NAN);
/// assert_eq!(placement.shift(), [0.25, -1.0]);
/// assert_eq!(placement.size(), 1.0);
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Placement {
    shift: [f32; 2],
    size: f32,
}

spelled! {
    /// One number of a [`Placement`].
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[non_exhaustive]
    pub enum ZoneKnob {
        /// How far it is moved to the right, in widths of the screen.
        X = "x",
        /// How far it is moved down, in heights of the screen.
        Y = "y",
        /// How many times as large it is.
        Size = "size",
    }
}

impl ZoneKnob {
    /// How far it goes.
    pub const fn range(self) -> RangeInclusive<f32> {
        match self {
            ZoneKnob::X | ZoneKnob::Y => -1.0..=1.0,
            ZoneKnob::Size => 0.5..=3.0,
        }
    }

    /// What it is where the game has the zone.
    pub const fn own(self) -> f32 {
        match self {
            ZoneKnob::X | ZoneKnob::Y => 0.0,
            ZoneKnob::Size => 1.0,
        }
    }

    fn within(self, value: f32) -> f32 {
        let range = self.range();
        match value.is_nan() {
            true => self.own(),
            false => value.clamp(*range.start(), *range.end()),
        }
    }
}

impl Default for Placement {
    fn default() -> Self {
        Placement {
            shift: [0.0; 2],
            size: 1.0,
        }
    }
}

impl Placement {
    /// Moved by so many widths and heights of the screen to the right and down (−1 to 1), and so many
    /// times as large (0.5 to 3).
    pub fn new([x, y]: [f32; 2], size: f32) -> Placement {
        Placement {
            shift: [ZoneKnob::X.within(x), ZoneKnob::Y.within(y)],
            size: ZoneKnob::Size.within(size),
        }
    }

    /// By how many widths and heights of the screen it is moved to the right and down.
    pub const fn shift(self) -> [f32; 2] {
        self.shift
    }

    /// How many times as large it is.
    pub const fn size(self) -> f32 {
        self.size
    }

    /// One number of it.
    pub const fn get(self, knob: ZoneKnob) -> f32 {
        match knob {
            ZoneKnob::X => self.shift[0],
            ZoneKnob::Y => self.shift[1],
            ZoneKnob::Size => self.size,
        }
    }

    /// The same with another number.
    #[must_use]
    pub fn with(self, knob: ZoneKnob, value: f32) -> Placement {
        let [x, y] = self.shift;
        match knob {
            ZoneKnob::X => Placement::new([value, y], self.size),
            ZoneKnob::Y => Placement::new([x, value], self.size),
            ZoneKnob::Size => Placement::new(self.shift, value),
        }
    }
}
