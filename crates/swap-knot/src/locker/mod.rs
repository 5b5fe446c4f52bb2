//! The files of a game's profiles, kept so that nothing is lost.
//!
//! Saving keeps the last good file beside the new one and replaces whole files only; at no moment
//! is there no readable profile. A damaged file is set aside under another name, never overwritten.

mod manage;
mod report;
mod slug;
mod store;

use std::io;
use std::path::PathBuf;
use std::sync::Arc;

pub use manage::ImportError;
pub use report::{LoadNote, Loaded, LockerError};
pub use slug::{Slug, SlugError};
pub use store::{Folder, Memory, Store};

use crate::profile::Profile;
use crate::sheet::Sheet;

/// The ending of a profile's file.
const ENDING: &str = "toml";
/// The ending of the last good copy.
const LAST_GOOD: &str = "last-good";
/// How many damaged files of one profile are kept.
const MAX_SET_ASIDE: u32 = 99;

/// The profiles of a game, in a folder or in any other [`Store`].
///
/// # Example: kept for the next run
/// ```
/// use swap_knot::{Locker, Profile, Sheet, Slug};
///
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"KeyH\"")?;
/// let folder = tempfile::tempdir()?;
/// let locker = Locker::open(folder.path())?;
/// let name: Slug = "ada".parse()?;
/// locker.save(&name, &Profile::new("Ada"), &sheet)?;
/// assert_eq!(locker.load(&name).profile.title(), "Ada");
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug)]
pub struct Locker {
    store: Arc<dyn Store>,
}

impl Locker {
    /// The most profiles that one locker keeps.
    pub const MAX_PROFILES: usize = 100;

    /// Opens a folder of profiles, making it if it is not there.
    ///
    /// # Errors
    /// When the folder cannot be made.
    pub fn open(folder: impl Into<PathBuf>) -> Result<Locker, LockerError> {
        let folder = folder.into();
        match Folder::open(&folder) {
            Ok(store) => Ok(Locker::in_store(store)),
            Err(e) => Err(LockerError::new("make the folder", folder, e)),
        }
    }

    /// The profiles in a store of the game's own.
    pub fn in_store(store: impl Store + 'static) -> Locker {
        Locker {
            store: Arc::new(store),
        }
    }

    /// The names of the profiles that are there, in order.
    ///
    /// # Errors
    /// When the files cannot be listed.
    pub fn names(&self) -> Result<Vec<Slug>, LockerError> {
        self.names_ending(ENDING)
    }

    /// The names of the files with an ending.
    fn names_ending(&self, ending: &str) -> Result<Vec<Slug>, LockerError> {
        let files = self
            .store
            .list()
            .map_err(|e| self.error("list the files of", "", e))?;
        let name = |file: &String| file.strip_suffix(ending)?.strip_suffix('.')?.parse().ok();
        let mut names: Vec<Slug> = files.iter().filter_map(name).collect();
        names.sort_unstable();
        Ok(names)
    }

    /// Loads a profile. There is always one to play with: the saved one, else the last good copy,
    /// else one without changes; what went wrong is reported.
    pub fn load(&self, name: &Slug) -> Loaded {
        let mut notes = Vec::new();
        let file = file(name, ENDING);
        match self.read_profile(&file) {
            Ok(Some(profile)) => return Loaded { profile, notes },
            Ok(None) => {}
            Err(Unreadable::Sound(why)) => notes.push(LoadNote::CannotRead {
                path: self.store.name_of(&file),
                why,
            }),
            Err(Unreadable::Damaged(why)) => {
                let aside = self.set_aside(name);
                notes.push(LoadNote::Damaged {
                    path: self.store.name_of(&file),
                    why,
                    aside,
                });
            }
        }
        let copy = self::file(name, LAST_GOOD);
        match self.read_profile(&copy) {
            Ok(Some(profile)) => {
                notes.push(LoadNote::LastGood {
                    path: self.store.name_of(&copy),
                });
                Loaded { profile, notes }
            }
            _ => Loaded {
                profile: Profile::new(name.as_str()),
                notes,
            },
        }
    }

    /// Saves a profile, stamped with the game and version of its sheet.
    ///
    /// # Errors
    /// When a file cannot be written; what was saved before is still there then. Another program
    /// that is saving into the same folder is waited for.
    pub fn save(&self, name: &Slug, profile: &Profile, sheet: &Sheet) -> Result<(), LockerError> {
        let mut stamped = profile.clone();
        stamped.stamp(sheet);
        let _lock = self.lock()?;
        self.write(name, &stamped)
    }

    /// Writes a profile over the one there, whose good copy is kept. The caller holds the lock.
    fn write(&self, name: &Slug, profile: &Profile) -> Result<(), LockerError> {
        let file = file(name, ENDING);
        match self.read_profile(&file) {
            // The copy first: from here on there is a good file whatever happens to the other.
            Ok(Some(_)) => {
                let copy = self::file(name, LAST_GOOD);
                let bytes = self.store.read(&file, Profile::MAX_BYTES);
                let bytes = bytes.map_err(|e| self.error("read", &file, e))?;
                self.replace(&copy, &bytes)?;
            }
            Ok(None) => {
                if self.names()?.len() >= Self::MAX_PROFILES {
                    return Err(LockerError::full(self.store.name_of("")));
                }
            }
            Err(Unreadable::Damaged(_)) => drop(self.set_aside(name)),
            Err(Unreadable::Sound(why)) => {
                return Err(self.error("replace", &file, io::Error::other(why)));
            }
        }
        self.replace(&file, profile.to_toml().as_bytes())
    }

    /// Renames a damaged file so that it is kept; answers its new name, if that could be done.
    fn set_aside(&self, name: &Slug) -> Option<PathBuf> {
        let taken = self.store.list().ok()?;
        let free = (1..=MAX_SET_ASIDE)
            .map(|n| file(name, &format!("damaged-{n}")))
            .find(|f| !taken.contains(f))?;
        self.store.rename(&file(name, ENDING), &free).ok()?;
        Some(self.store.name_of(&free))
    }

    /// The profile in a file; `None` when there is no file.
    fn read_profile(&self, file: &str) -> Result<Option<Profile>, Unreadable> {
        let bytes = match self.store.read(file, Profile::MAX_BYTES) {
            Ok(bytes) => bytes,
            Err(e) if e.kind() == io::ErrorKind::NotFound => return Ok(None),
            Err(e) if e.kind() == io::ErrorKind::InvalidData => {
                return Err(Unreadable::Damaged(e.to_string()));
            }
            Err(e) => return Err(Unreadable::Sound(e.to_string())),
        };
        let text = String::from_utf8(bytes).map_err(|e| {
            let at = e.utf8_error().valid_up_to();
            Unreadable::Damaged(format!("not text: byte {at} is no UTF-8"))
        })?;
        match Profile::from_toml(&text) {
            Ok(profile) => Ok(Some(profile)),
            Err(e) if e.is_newer() => Err(Unreadable::Sound(e.to_string())),
            Err(e) => Err(Unreadable::Damaged(e.to_string())),
        }
    }

    fn lock(&self) -> Result<Box<dyn std::any::Any>, LockerError> {
        self.store.lock().map_err(|e| self.error("lock", "", e))
    }

    fn replace(&self, file: &str, bytes: &[u8]) -> Result<(), LockerError> {
        let done = self.store.replace(file, bytes);
        done.map_err(|e| self.error("write", file, e))
    }

    fn error(&self, doing: &'static str, file: &str, source: io::Error) -> LockerError {
        LockerError::new(doing, self.store.name_of(file), source)
    }
}

/// Why a file gave no profile.
enum Unreadable {
    /// The file itself may be fine: it cannot be read just now, or is of a newer version.
    Sound(String),
    /// The file is no profile.
    Damaged(String),
}

fn file(name: &Slug, ending: &str) -> String {
    format!("{name}.{ending}")
}
