//! Where a player put a touch zone.

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

impl Default for Placement {
    fn default() -> Self {
        Placement {
            shift: [0.0; 2],
            size: 1.0,
        }
    }
}

impl Placement {
    /// The furthest it can be moved, in widths or heights of the screen.
    pub(crate) const FURTHEST: f32 = 1.0;
    pub(crate) const SMALLEST: f32 = 0.5;
    pub(crate) const LARGEST: f32 = 3.0;

    /// Moved by so many widths and heights of the screen to the right and down (−1 to 1), and so many
    /// times as large (0.5 to 3).
    pub fn new(shift: [f32; 2], size: f32) -> Placement {
        let within = |n: f32, least, most, own| match n.is_nan() {
            true => own,
            false => n.clamp(least, most),
        };
        Placement {
            shift: shift.map(|n| within(n, -Self::FURTHEST, Self::FURTHEST, 0.0)),
            size: within(size, Self::SMALLEST, Self::LARGEST, 1.0),
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
}
