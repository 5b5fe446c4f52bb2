//! Names of profiles that are safe as file names everywhere.

use std::cmp::Ordering;
use std::fmt;
use std::hash::{Hash, Hasher};
use std::str::FromStr;

use unicode_normalization::UnicodeNormalization as _;

use crate::text::Fnv;

/// The name of a profile: 1 to 40 lower-case ASCII letters, digits and hyphens, beginning with a
/// letter or digit. There is no path in it, and it means the same on every file system.
///
/// One that is made of a title remembers that, so that a new profile of it is called as it was typed.
#[derive(Clone, Debug)]
pub struct Slug {
    name: String,
    /// What it was made of, if it was.
    title: Option<String>,
}

impl PartialEq for Slug {
    /// By the name, whatever it was made of.
    fn eq(&self, other: &Slug) -> bool {
        self.name == other.name
    }
}

impl Eq for Slug {}

impl PartialOrd for Slug {
    fn partial_cmp(&self, other: &Slug) -> Option<Ordering> {
        Some(self.cmp(other))
    }
}

impl Ord for Slug {
    fn cmp(&self, other: &Slug) -> Ordering {
        self.name.cmp(&other.name)
    }
}

impl Hash for Slug {
    fn hash<H: Hasher>(&self, state: &mut H) {
        self.name.hash(state);
    }
}

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
        &self.name
    }

    /// What a new profile of this name is called: the title that it was made of, as it was typed.
    pub fn title(&self) -> &str {
        self.title.as_deref().unwrap_or(&self.name)
    }

    /// The name for a profile that a player calls so. Two titles have one name only if they differ in
    /// capitals alone.
    ///
    /// Words of plain letters and digits are the name themselves, joined by hyphens; whatever else there
    /// is in a title brings in a number made of all of it, behind as much as can be kept.
    ///
    /// ```
    /// use swap_knot::Slug;
    ///
    /// let ada = Slug::from_title("Ada of the Barge");
    /// assert_eq!((ada.as_str(), ada.title()), ("ada-of-the-barge", "Ada of the Barge"));
    /// assert_eq!(ada, Slug::from_title("ADA of the barge"));
    /// assert_ne!(Slug::from_title("灯台"), Slug::from_title("霧笛"));
    /// assert!(Slug::from_title("Ada & Björn").as_str().starts_with("ada-bj-rn--"));
    /// ```
    pub fn from_title(title: &str) -> Slug {
        // Composed or not, an accent is the same one.
        let folded: String = title.nfc().flat_map(char::to_lowercase).collect();
        let is_plain = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit();
        let is_word = |word: &str| !word.is_empty() && word.chars().all(is_plain);
        let plain: Option<Slug> = (folded.split(' ').all(is_word))
            .then(|| folded.replace(' ', "-"))
            .and_then(|name| name.parse().ok());
        let name = plain.map_or_else(
            || {
                let words = folded.split(|c| !is_plain(c)).filter(|w| !w.is_empty());
                let kept = words.collect::<Vec<_>>().join("-");
                let mut hash = Fnv::new();
                hash.add(folded.bytes());
                let number = format!("{:016x}", hash.number());
                let room = Self::MAX - number.len() - 2;
                let kept = kept.get(..room).unwrap_or(&kept).trim_end_matches('-');
                match kept.is_empty() {
                    true => number,
                    false => format!("{kept}--{number}"),
                }
            },
            |plain| plain.name,
        );
        Slug {
            name,
            title: Some(title.to_owned()),
        }
    }

    /// This slug with a number behind it, from 2 on; cut so that it fits. No title has such a name.
    pub(super) fn numbered(&self, number: u32) -> Slug {
        if number < 2 {
            return self.clone();
        }
        let end = format!("--{number}");
        let room = Self::MAX - end.len();
        let start = self.name.get(..room).unwrap_or(&self.name);
        Slug {
            name: format!("{}{end}", start.trim_end_matches('-')),
            title: self.title.clone(),
        }
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
            Ok(Slug {
                name: text.to_owned(),
                title: None,
            })
        }
    }
}

impl fmt::Display for Slug {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.name)
    }
}
