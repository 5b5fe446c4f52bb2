//! What loading and saving have to say.

use std::fmt;
use std::io;
use std::path::{Path, PathBuf};

use crate::profile::Profile;

/// A profile to play with, and what went wrong on the way to it.
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct Loaded {
    /// The profile; without changes when none could be read.
    pub profile: Profile,
    /// What the player should be told; empty when all is well.
    pub notes: Vec<LoadNote>,
}

/// Something that went wrong while loading.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum LoadNote {
    /// The file is damaged and was set aside.
    Damaged {
        /// The file.
        path: PathBuf,
        /// What is wrong with it.
        why: String,
        /// Where it is now, if it could be moved.
        aside: Option<PathBuf>,
    },
    /// The file could not be read, and was left alone.
    CannotRead {
        /// The file.
        path: PathBuf,
        /// Why.
        why: String,
    },
    /// The last good copy is used.
    LastGood {
        /// The copy.
        path: PathBuf,
    },
}

impl fmt::Display for LoadNote {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            LoadNote::Damaged { path, why, aside } => {
                write!(f, "{} is damaged ({why})", path.display())?;
                match aside {
                    Some(aside) => write!(f, "; it was set aside as {}", aside.display()),
                    None => f.write_str("; it could not be set aside and was left alone"),
                }
            }
            LoadNote::CannotRead { path, why } => {
                write!(f, "{} cannot be read ({why})", path.display())
            }
            LoadNote::LastGood { path } => {
                write!(f, "the last good copy is used, {}", path.display())
            }
        }
    }
}

/// Why the locker could not do something: what, with which file, and the system's reason.
#[derive(Debug)]
pub struct LockerError {
    doing: &'static str,
    path: PathBuf,
    source: io::Error,
}

impl LockerError {
    pub(super) fn new(doing: &'static str, path: PathBuf, source: io::Error) -> Self {
        LockerError {
            doing,
            path,
            source,
        }
    }

    pub(super) fn full(folder: PathBuf) -> Self {
        let why = format!(
            "the folder holds {} profiles, the most there can be; delete one first",
            super::Locker::MAX_PROFILES
        );
        Self::new("add a profile to", folder, io::Error::other(why))
    }

    /// The file or folder it is about.
    pub fn path(&self) -> &Path {
        &self.path
    }
}

impl fmt::Display for LockerError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(
            f,
            "cannot {} {}: {}",
            self.doing,
            self.path.display(),
            self.source
        )
    }
}

impl std::error::Error for LockerError {
    fn source(&self) -> Option<&(dyn std::error::Error + 'static)> {
        Some(&self.source)
    }
}
