//! What loading and saving have to say.

use std::fmt;
use std::io;
use std::path::{Path, PathBuf};

use super::Slug;
use crate::mapping::MappingsError;
use crate::profile::{Overruled, Profile, ProfileError};

/// A profile to play with, and what went wrong on the way to it.
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct Loaded {
    /// The profile; without changes when none could be read.
    pub profile: Profile,
    /// What the player should be told; empty when all is well.
    pub notes: Vec<LoadNote>,
}

impl Loaded {
    /// Whether there is a file of that profile that could not be read, and no good copy of it: what
    /// is played with is not what the player has.
    pub fn is_missing(&self) -> bool {
        let unreadable = |n: &LoadNote| matches!(n, LoadNote::CannotRead { .. });
        let good = |n: &LoadNote| matches!(n, LoadNote::LastGood { .. });
        self.notes.iter().any(unreadable) && !self.notes.iter().any(good)
    }
}

/// A profile that was saved, and what of it another writer had a say in.
#[derive(Clone, Debug)]
#[non_exhaustive]
#[must_use = "what changed underneath wants to be told"]
pub struct Saved {
    /// What is kept now: the profile that was given, merged with what had changed underneath.
    pub profile: Profile,
    /// Whether the file was changed elsewhere since it was read.
    pub changed_elsewhere: bool,
    /// What both changed: the side that is saved now wins.
    pub overruled: Vec<Overruled>,
    /// What the player should be told: the damaged file that was set aside, where it is now.
    pub notes: Vec<LoadNote>,
}

/// A profile as text, to give to a friend.
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct Exported {
    /// The text of its file.
    pub text: String,
    /// What the player should be told; empty when all is well.
    pub notes: Vec<LoadNote>,
}

/// Something that went wrong while reading. Loading leaves the files as they are.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum LoadNote {
    /// The file could not be read, and is kept.
    CannotRead {
        /// Where it is: where it was, or aside where a save came over it.
        path: PathBuf,
        /// Why.
        why: Unreadable,
    },
    /// What was taught of controllers could not be read, and is kept.
    Mappings {
        /// Where it is: where it was, or aside where a save came over it.
        path: PathBuf,
        /// Why.
        why: Unreadable,
    },
    /// The last good copy is used.
    LastGood {
        /// The copy.
        path: PathBuf,
    },
}

/// Why a file gave no profile.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum Unreadable {
    /// Its text is no profile.
    #[error("it is damaged: {0}")]
    NoProfile(ProfileError),
    /// Its text is no file of mappings.
    #[error("it is damaged: {0}")]
    NoMappings(MappingsError),
    /// It is no text.
    #[error("it is damaged: byte {at} is no UTF-8")]
    NoText {
        /// The first byte that is not.
        at: usize,
    },
    /// It is too large, or no file at all.
    #[error("it is damaged: {0}")]
    NoFile(String),
    /// A newer version of the game wrote it.
    #[error("{0}")]
    Newer(ProfileError),
    /// The same of what was taught of controllers.
    #[error("{0}")]
    NewerMappings(MappingsError),
    /// It cannot be read just now.
    #[error("{said}")]
    Disk {
        /// What kind of failure it was.
        kind: io::ErrorKind,
        /// What the system says.
        said: String,
    },
}

impl Unreadable {
    /// Whether the file itself is broken, rather than newer or out of reach.
    pub const fn is_damaged(&self) -> bool {
        match self {
            Unreadable::NoProfile(_)
            | Unreadable::NoMappings(_)
            | Unreadable::NoText { .. }
            | Unreadable::NoFile(_) => true,
            Unreadable::Newer(_) | Unreadable::NewerMappings(_) | Unreadable::Disk { .. } => false,
        }
    }
}

impl fmt::Display for LoadNote {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            LoadNote::CannotRead { path, why } | LoadNote::Mappings { path, why } => {
                write!(f, "{} cannot be used: {why}", path.display())
            }
            LoadNote::LastGood { path } => {
                write!(f, "the last good copy is used, {}", path.display())
            }
        }
    }
}

/// Why the locker could not do something: what, with which file, and the reason.
pub struct LockerError {
    kind: LockerErrorKind,
    doing: &'static str,
    path: PathBuf,
}

/// The reason of a [`LockerError`].
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum LockerErrorKind {
    /// There is no profile of that name.
    #[error("there is no such profile; {}", in_words(there))]
    NoSuchProfile {
        /// Those that there are.
        there: Vec<Slug>,
    },
    /// There is a profile of that name already.
    #[error("there is a profile of that name already; choose another name")]
    NameTaken,
    /// There are as many profiles as there can be.
    #[error(
        "there are {} profiles, the most there can be; delete one first",
        super::Locker::MAX_PROFILES
    )]
    Full,
    /// There are as many damaged files of that profile as are kept.
    #[error(
        "{} damaged files of it are kept already; remove some of them",
        super::MAX_SET_ASIDE
    )]
    TooManyDamaged,
    /// A newer version of the game keeps its profiles there in another way.
    #[error("a newer version of the game keeps its profiles there; update the game")]
    Newer,
    /// The user has no home folder.
    #[error("this user has no home folder; open a locker in a folder of the game's choice")]
    NoHome,
    /// Another program is working in the same place.
    #[error("another program is saving there; try again")]
    InUse,
    /// The file cannot be used, and is left as it is.
    #[error("{0}")]
    CannotRead(Unreadable),
    /// The same of what was taught of controllers.
    #[error("{0}")]
    CannotReadMappings(Unreadable),
    /// Written down it would be larger than such a file can be.
    #[error("it would have {bytes} bytes, and it can have at most {most}")]
    TooLarge {
        /// How large.
        bytes: usize,
        /// How large it can be.
        most: usize,
    },
    /// The store could not do it.
    #[error("{0}")]
    Disk(io::Error),
}

fn in_words(there: &[Slug]) -> String {
    match there {
        [] => "there is none yet".to_owned(),
        names => {
            let names: Vec<&str> = names.iter().map(Slug::as_str).collect();
            format!("there are {}", names.join(", "))
        }
    }
}

impl LockerError {
    pub(super) fn new(doing: &'static str, path: PathBuf, kind: LockerErrorKind) -> Self {
        LockerError { kind, doing, path }
    }

    /// The reason.
    pub fn kind(&self) -> &LockerErrorKind {
        &self.kind
    }

    /// Whether a newer version of the game wrote the file.
    pub fn is_newer(&self) -> bool {
        matches!(
            self.kind,
            LockerErrorKind::Newer
                | LockerErrorKind::CannotRead(Unreadable::Newer(_))
                | LockerErrorKind::CannotReadMappings(Unreadable::NewerMappings(_))
        )
    }

    /// The file or folder it is about.
    pub fn path(&self) -> &Path {
        &self.path
    }
}

impl fmt::Display for LockerError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let LockerError { kind, doing, path } = self;
        write!(f, "cannot {doing} {}: {kind}", path.display())
    }
}

crate::text::debug_as_text!(LockerError);

/// What is behind it is in its text, and in [`LockerError::kind`]; it has no source that would tell it a
/// second time.
impl std::error::Error for LockerError {}

/// Why a profile could not be taken in.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum ImportError {
    /// The text is no profile.
    #[error("it is no profile that this game can read: {0}")]
    Profile(ProfileError),
    /// It could not be kept.
    #[error(transparent)]
    Locker(#[from] LockerError),
}

impl From<ProfileError> for ImportError {
    fn from(e: ProfileError) -> ImportError {
        ImportError::Profile(e)
    }
}
