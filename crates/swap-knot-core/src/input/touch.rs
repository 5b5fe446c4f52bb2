//! Names of touch zones and on-screen sticks.

use std::fmt;
use std::str::FromStr;

/// The name a game gave to a touch zone or on-screen stick.
///
/// 1 to 22 characters: lower-case ASCII letters, digits and hyphens. Held inline, so that inputs
/// stay `Copy`.
#[derive(Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct TouchName {
    bytes: [u8; TouchName::MAX],
    len: u8,
}

/// A text that is no [`TouchName`].
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error(
    "a touch name has 1 to {} lower-case letters, digits or hyphens",
    TouchName::MAX
)]
#[non_exhaustive]
pub struct TouchNameError;

impl TouchName {
    /// The most characters a name can have.
    pub const MAX: usize = 22;

    /// The name as text.
    pub fn as_str(&self) -> &str {
        // Only ASCII gets in, so this never falls back.
        std::str::from_utf8(&self.bytes[..usize::from(self.len)]).unwrap_or_default()
    }
}

impl FromStr for TouchName {
    type Err = TouchNameError;

    fn from_str(text: &str) -> Result<Self, Self::Err> {
        let fits = |b: u8| b.is_ascii_lowercase() || b.is_ascii_digit() || b == b'-';
        if text.is_empty() || text.len() > Self::MAX || !text.bytes().all(fits) {
            return Err(TouchNameError);
        }
        let mut bytes = [0; Self::MAX];
        bytes[..text.len()].copy_from_slice(text.as_bytes());
        Ok(TouchName {
            bytes,
            len: text.len() as u8,
        })
    }
}

impl fmt::Display for TouchName {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.as_str())
    }
}

impl fmt::Debug for TouchName {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "TouchName({self})")
    }
}
