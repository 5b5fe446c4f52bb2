//! Names of profiles that are safe as file names everywhere.

use std::fmt;
use std::str::FromStr;

/// The name of a profile: 1 to 40 lower-case ASCII letters, digits and hyphens, beginning with a
/// letter or digit. There is no path in it, and it means the same on every file system.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Slug(String);

/// A text that is no [`Slug`].
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error(
    "a profile is named with 1 to {} lower-case letters, digits and hyphens, beginning with a letter or digit",
    Slug::MAX
)]
#[non_exhaustive]
pub struct SlugError;

/// Names that some systems keep for devices, whatever the ending.
const DEVICES: [&str; 4] = ["con", "prn", "aux", "nul"];

impl Slug {
    /// The most characters.
    pub const MAX: usize = 40;

    /// The name as text.
    pub fn as_str(&self) -> &str {
        &self.0
    }

    /// A slug as close as possible to what a player typed: `Ada & Björn` becomes `ada-bj-rn`.
    pub fn from_title(title: &str) -> Slug {
        let mut out = String::new();
        for c in title.chars().flat_map(char::to_lowercase) {
            let fits = c.is_ascii_lowercase() || c.is_ascii_digit();
            if fits {
                out.push(c);
            } else if !out.is_empty() && !out.ends_with('-') {
                out.push('-');
            }
            if out.len() == Self::MAX {
                break;
            }
        }
        let trimmed = out.trim_end_matches('-');
        trimmed
            .parse()
            .unwrap_or_else(|_| Slug("player".to_owned()))
    }

    /// This slug with a number behind it, from 2 on; cut so that it fits.
    pub(super) fn numbered(&self, number: u32) -> Slug {
        if number < 2 {
            return self.clone();
        }
        let end = format!("-{number}");
        let room = Self::MAX - end.len();
        let start = self.0.get(..room).unwrap_or(&self.0);
        Slug(format!("{}{end}", start.trim_end_matches('-')))
    }
}

impl FromStr for Slug {
    type Err = SlugError;

    fn from_str(text: &str) -> Result<Self, Self::Err> {
        let fits = |b: u8| b.is_ascii_lowercase() || b.is_ascii_digit() || b == b'-';
        let numbered_device = (text
            .strip_prefix("com")
            .or_else(|| text.strip_prefix("lpt")))
        .is_some_and(|n| n.len() == 1 && n.bytes().all(|b| b.is_ascii_digit()));
        let bad = text.is_empty()
            || text.len() > Self::MAX
            || text.starts_with('-')
            || !text.bytes().all(fits)
            || DEVICES.contains(&text)
            || numbered_device;
        if bad {
            Err(SlugError)
        } else {
            Ok(Slug(text.to_owned()))
        }
    }
}

impl fmt::Display for Slug {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.0)
    }
}
