//! A key by what it types.

use std::fmt;

/// A letter, digit or sign that a key types by itself: lower case, and none that shows nothing.
///
/// ```
/// use swap_knot::input::Letter;
///
/// assert_eq!(Letter::new('I').map(Letter::char), Some('i'));
/// assert_eq!(Letter::new(' '), None);
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Letter(char);

impl Letter {
    /// The letter, in lower case; none for white space, for what controls a terminal, and for what
    /// is more than one character in lower case.
    pub fn new(letter: char) -> Option<Letter> {
        let mut lower = letter.to_lowercase();
        let letter = lower.next()?;
        let plain = !letter.is_control() && !letter.is_whitespace();
        (plain && lower.next().is_none()).then_some(Letter(letter))
    }

    /// As a character.
    pub const fn char(self) -> char {
        self.0
    }
}

impl From<Letter> for char {
    fn from(letter: Letter) -> char {
        letter.0
    }
}

impl fmt::Display for Letter {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        self.0.fmt(f)
    }
}
