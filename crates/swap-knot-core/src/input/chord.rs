//! Chords: inputs held, plus the one that completes it.

use super::relation::clash;
use super::{DeviceKind, Input, InputShape, Place};

/// The most inputs that a chord can ask to be held.
pub const MAX_HELD: usize = 3;

/// Inputs held, plus the one that completes it; a plain input is a chord with nothing held.
///
/// The held inputs are kept in a fixed order (modifiers first), so that `Shift+Ctrl+KeyK` and
/// `Ctrl+Shift+KeyK` are the same chord.
///
/// ```
/// use swap_knot::Chord;
///
/// let chord: Chord = "Shift+Ctrl+KeyK".parse()?;
/// assert_eq!(chord.to_string(), "Ctrl+Shift+KeyK");
/// assert_eq!(chord.held().len(), 2);
/// # Ok::<(), swap_knot::input::InputError>(())
/// ```
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Chord {
    held: Vec<Input>,
    input: Input,
}

/// Why some inputs cannot form a chord.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum ChordError {
    /// A stick, an axis, mouse motion or the wheel cannot be held.
    #[error("`{0}` cannot be held as part of a chord; hold a key, a button or one direction of it")]
    NotHoldable(Input),
    /// The same thing in hand twice: equal inputs, a modifier and a side of it, a stick and a
    /// direction of it.
    #[error("`{0}` is in the chord twice")]
    Twice(Input),
    /// More than [`MAX_HELD`] held inputs.
    #[error(
        "a chord has at most {MAX_HELD} inputs that are held and one that completes it; this one has more"
    )]
    TooLong,
}

impl Chord {
    /// A chord of inputs held and the one that completes it.
    ///
    /// # Errors
    /// When an input cannot be held, is there twice, or when more than [`MAX_HELD`] are held.
    pub fn new(held: impl IntoIterator<Item = Input>, input: Input) -> Result<Chord, ChordError> {
        let mut held: Vec<Input> = held.into_iter().collect();
        if held.len() > MAX_HELD {
            return Err(ChordError::TooLong);
        }
        held.sort_unstable();
        for (i, &part) in held.iter().enumerate() {
            if !can_be_held(part) {
                return Err(ChordError::NotHoldable(part));
            }
            if held[i + 1..]
                .iter()
                .chain([&input])
                .any(|&o| clash(part, o))
            {
                return Err(ChordError::Twice(part));
            }
        }
        Ok(Chord { held, input })
    }

    /// The inputs that have to be down before the last one, in their fixed order.
    pub fn held(&self) -> &[Input] {
        &self.held
    }

    /// The input that completes it; for a plain input, the input itself.
    pub fn input(&self) -> Input {
        self.input
    }

    /// Whether all of it can be held, so that its parts can be pressed in any order.
    pub(crate) fn can_be_together(&self) -> bool {
        !self.held.is_empty() && can_be_held(self.input)
    }

    /// Whether nothing has to be held.
    pub fn is_plain(&self) -> bool {
        self.held.is_empty()
    }

    /// Held inputs first, the completing one last.
    pub fn inputs(&self) -> impl Iterator<Item = Input> + '_ {
        self.held.iter().copied().chain([self.input])
    }

    /// The kind of device of the completing input.
    pub fn device_kind(&self) -> DeviceKind {
        self.input.device_kind()
    }
}

impl From<Input> for Chord {
    fn from(input: Input) -> Self {
        Chord {
            held: Vec::new(),
            input,
        }
    }
}

impl From<Place> for Chord {
    fn from(place: Place) -> Self {
        Input::Key(place).into()
    }
}

fn can_be_held(input: Input) -> bool {
    match input.shape() {
        InputShape::Button | InputShape::Pull | InputShape::Touch => true,
        InputShape::Pulse | InputShape::Line | InputShape::Plane | InputShape::Space => false,
    }
}
