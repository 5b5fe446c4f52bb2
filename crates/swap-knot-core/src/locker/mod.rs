//! The files of a game's profiles, kept so that nothing is lost.
//!
//! Saving keeps the last good file beside the new one and replaces whole files only; at no moment
//! is there no readable profile. What cannot be read is left where it is, and never taken for empty:
//! only saving over it sets a damaged file aside, under another name. An operation that writes holds
//! the lock from its first reading to its last writing.

mod controllers;
mod errand;
mod manage;
mod report;
mod slug;
mod store;
mod tell;

use std::io;
use std::path::PathBuf;
use std::sync::Arc;

pub use errand::{Errand, ErrandDone, ErrandError, ErrandOutcome, Roster};
pub use report::{
    Exported, ImportError, LoadNote, Loaded, LockerError, LockerErrorKind, Saved, Unreadable,
};
pub use slug::{Slug, SlugError};
pub use store::{Folder, Memory, Store, StoreLock};

use crate::profile::{Newer, Profile};
use crate::sheet::Sheet;

/// The ending of a profile's file.
const ENDING: &str = "toml";
/// The ending of the last good copy.
const LAST_GOOD: &str = "last-good";
/// The file that says in which version a locker is kept; without it, in version 1.
const FORMAT_FILE: &str = "format";
/// The longest that such a file is.
const MAX_FORMAT_FILE: usize = 64;
/// The newest version that is written into.
const FORMAT: u32 = 1;
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
            Err(e) => Err(LockerError::new(
                "make the folder",
                folder,
                LockerErrorKind::Disk(e),
            )),
        }
    }

    /// Opens the folder in which this platform keeps what a user sets in a game, making it if it is
    /// not there; [`Locker::place`] tells it.
    ///
    /// # Errors
    /// When the user has no home folder, or the folder cannot be made.
    #[cfg(feature = "user-folder")]
    pub fn of_user(sheet: &Sheet) -> Result<Locker, LockerError> {
        let Some(dirs) = directories::ProjectDirs::from("", "", sheet.game()) else {
            let place = PathBuf::from(sheet.game());
            let kind = LockerErrorKind::NoHome;
            return Err(LockerError::new("find the folder of", place, kind));
        };
        Locker::open(dirs.config_dir().join("profiles"))
    }

    /// Where it is, to tell a player who wants to see or copy their files.
    pub fn place(&self) -> PathBuf {
        self.store.name_of("")
    }

    /// The profiles in a store of the game's own.
    pub fn in_store(store: impl Store + 'static) -> Locker {
        Locker {
            store: Arc::new(store),
        }
    }

    /// The names of the profiles that are there, in order: also of those of which only a good copy
    /// is left, or that cannot be read. Listing changes nothing.
    ///
    /// # Errors
    /// When the files cannot be listed.
    pub fn names(&self) -> Result<Vec<Slug>, LockerError> {
        let mut names = Vec::new();
        for file in self.files()? {
            let name = (file.strip_suffix(ENDING)).or_else(|| file.strip_suffix(LAST_GOOD));
            names.extend(name.and_then(|n| n.strip_suffix('.')?.parse::<Slug>().ok()));
        }
        names.sort_unstable();
        names.dedup();
        Ok(names)
    }

    fn files(&self) -> Result<Vec<String>, LockerError> {
        let listed = self.store.list();
        listed.map_err(|e| self.disk("list the files of", "", e))
    }

    /// Loads a profile. There is always one to play with: the saved one, else the last good copy,
    /// else one without changes; what went wrong is reported, and no file is changed.
    pub fn load(&self, name: &Slug) -> Loaded {
        match self.read_best(name, |_| true) {
            Ok(Some((profile, notes))) => Loaded { profile, notes },
            Ok(None) => Loaded {
                profile: Profile::new(name.title()),
                notes: Vec::new(),
            },
            Err(why) => Loaded {
                profile: Profile::new(name.title()),
                notes: vec![self.cannot_read(name, why)],
            },
        }
    }

    /// Saves a profile over whatever is there, stamped with the game and version of its sheet.
    ///
    /// Where another program may write as well (a synced folder, a second copy of the game),
    /// [`Locker::save_over`] brings the two together.
    ///
    /// # Errors
    /// When a file cannot be written, or what is there is newer or cannot be read just now; what was
    /// saved before is still there then.
    pub fn save(&self, name: &Slug, profile: &Profile, sheet: &Sheet) -> Result<(), LockerError> {
        let _lock = self.lock()?;
        self.write("save", name, &stamped(profile, sheet))?;
        Ok(())
    }

    /// Saves a profile that was read as `base`. Where the file was changed elsewhere since then, the
    /// two are merged setting by setting; where both changed the same, this one wins, and that is
    /// told. A damaged file cannot be merged: it is set aside, and that is told as well.
    ///
    /// A locker is cheap to clone and can be sent to another thread: whatever the store takes its
    /// time for, no tick of a seat waits for it.
    ///
    /// # Errors
    /// As [`Locker::save`].
    pub fn save_over(
        &self,
        name: &Slug,
        base: &Profile,
        profile: &Profile,
        sheet: &Sheet,
    ) -> Result<Saved, LockerError> {
        let _lock = self.lock()?;
        let there = self.read_profile(&file(name, ENDING)).ok().flatten();
        let ours = stamped(profile, sheet);
        // The stamp is no change of anybody's.
        let (same, theirs) = match &there {
            Some((theirs, _)) => (stamped(theirs, sheet) == stamped(base, sheet), theirs),
            None => (true, base),
        };
        let (merged, overruled) = match same {
            true => (ours, Vec::new()),
            false => ours.merged(base, theirs, Newer::Ours),
        };
        let set_aside = self.write("save", name, &merged)?;
        Ok(Saved {
            profile: merged,
            changed_elsewhere: !same,
            overruled,
            notes: set_aside.into_iter().collect(),
        })
    }

    /// Writes a profile over the one there, whose good copy is kept; answers which damaged file was
    /// set aside for it. The caller holds the lock.
    fn write(
        &self,
        doing: &'static str,
        name: &Slug,
        profile: &Profile,
    ) -> Result<Option<LoadNote>, LockerError> {
        let file = file(name, ENDING);
        let text = profile.to_toml();
        let bytes = text.len();
        if bytes > Profile::MAX_BYTES {
            // It could not be read again.
            let most = Profile::MAX_BYTES;
            return Err(self.error(doing, &file, LockerErrorKind::TooLarge { bytes, most }));
        }
        let mut set_aside = None;
        match self.read_profile(&file) {
            // The copy first: from here on there is a good file whatever happens to the other.
            Ok(Some((_, bytes))) => self.replace(&self::file(name, LAST_GOOD), &bytes)?,
            Ok(None) => {
                let names = self.names()?;
                if names.len() >= Self::MAX_PROFILES && !names.contains(name) {
                    return Err(self.error(doing, "", LockerErrorKind::Full));
                }
            }
            Err(why) if why.is_damaged() => {
                let path = self.store.name_of(&self.set_aside(name.as_str(), &file)?);
                set_aside = Some(LoadNote::CannotRead { path, why });
            }
            Err(why) => return Err(self.error(doing, &file, LockerErrorKind::CannotRead(why))),
        }
        self.replace(&file, text.as_bytes())?;
        Ok(set_aside)
    }

    /// Renames a damaged file so that it is kept; answers its new name. The caller holds the lock.
    fn set_aside(&self, name: &str, damaged: &str) -> Result<String, LockerError> {
        let taken = self.files()?;
        let free = (1..=MAX_SET_ASIDE)
            .map(|n| format!("{name}.damaged-{n}"))
            .find(|f| !taken.contains(f));
        let Some(free) = free else {
            return Err(self.error("set aside", damaged, LockerErrorKind::TooManyDamaged));
        };
        let done = self.store.rename(damaged, &free);
        done.map_err(|e| self.disk("set aside", damaged, e))?;
        Ok(free)
    }

    /// The best there is of a profile: its file, else the last good copy with a note why, where that
    /// may stand in; none where there is neither.
    fn read_best(
        &self,
        name: &Slug,
        may_stand_in: impl Fn(&Unreadable) -> bool,
    ) -> Result<Option<(Profile, Vec<LoadNote>)>, Unreadable> {
        let why = match self.read_profile(&file(name, ENDING)) {
            Ok(Some((profile, _))) => return Ok(Some((profile, Vec::new()))),
            Ok(None) => None,
            Err(why) if !may_stand_in(&why) => return Err(why),
            Err(why) => Some(why),
        };
        let copy = file(name, LAST_GOOD);
        match (self.read_profile(&copy), why) {
            (Ok(Some((profile, _))), why) => {
                let mut notes = Vec::new();
                notes.extend(why.map(|why| self.cannot_read(name, why)));
                let path = self.store.name_of(&copy);
                notes.push(LoadNote::LastGood { path });
                Ok(Some((profile, notes)))
            }
            (_, Some(why)) | (Err(why), None) => Err(why),
            (Ok(None), None) => Ok(None),
        }
    }

    fn cannot_read(&self, name: &Slug, why: Unreadable) -> LoadNote {
        let path = self.store.name_of(&file(name, ENDING));
        LoadNote::CannotRead { path, why }
    }

    /// The profile in a file, and its bytes; `None` when there is no file.
    fn read_profile(&self, file: &str) -> Result<Option<(Profile, Vec<u8>)>, Unreadable> {
        let Some(text) = self.read_text(file, Profile::MAX_BYTES)? else {
            return Ok(None);
        };
        match Profile::from_toml(&text) {
            Ok(profile) => Ok(Some((profile, text.into_bytes()))),
            Err(e) if e.is_newer() => Err(Unreadable::Newer(e)),
            Err(e) => Err(Unreadable::NoProfile(e)),
        }
    }

    /// The text of a file; `None` when there is none.
    fn read_text(&self, file: &str, most: usize) -> Result<Option<String>, Unreadable> {
        let bytes = match self.store.read(file, most) {
            Ok(bytes) => bytes,
            Err(e) if e.kind() == io::ErrorKind::NotFound => return Ok(None),
            Err(e) if e.kind() == io::ErrorKind::InvalidData => {
                return Err(Unreadable::NoFile(e.to_string()));
            }
            Err(e) => {
                let (kind, said) = (e.kind(), e.to_string());
                return Err(Unreadable::Disk { kind, said });
            }
        };
        let text = String::from_utf8(bytes).map_err(|e| {
            let at = e.utf8_error().valid_up_to();
            Unreadable::NoText { at }
        })?;
        Ok(Some(text))
    }

    /// Keeps other writers out, of a locker that this version may write into.
    fn lock(&self) -> Result<StoreLock, LockerError> {
        let lock = self.store.lock().map_err(|e| match e.kind() {
            io::ErrorKind::WouldBlock => self.error("lock", "", LockerErrorKind::InUse),
            _ => self.disk("lock", "", e),
        })?;
        match self.store.read(FORMAT_FILE, MAX_FORMAT_FILE) {
            Err(e) if e.kind() == io::ErrorKind::NotFound => Ok(lock),
            Err(e) => Err(self.disk("read", FORMAT_FILE, e)),
            Ok(bytes) => {
                let text = String::from_utf8_lossy(&bytes);
                match text.trim().parse::<u32>() {
                    Ok(format) if format <= FORMAT => Ok(lock),
                    _ => Err(self.error("write into", "", LockerErrorKind::Newer)),
                }
            }
        }
    }

    fn replace(&self, file: &str, bytes: &[u8]) -> Result<(), LockerError> {
        let done = self.store.replace(file, bytes);
        done.map_err(|e| self.disk("write", file, e))
    }

    fn disk(&self, doing: &'static str, file: &str, e: io::Error) -> LockerError {
        self.error(doing, file, LockerErrorKind::Disk(e))
    }

    fn error(&self, doing: &'static str, file: &str, kind: LockerErrorKind) -> LockerError {
        LockerError::new(doing, self.store.name_of(file), kind)
    }
}

fn stamped(profile: &Profile, sheet: &Sheet) -> Profile {
    let mut stamped = profile.clone();
    stamped.stamp(sheet);
    stamped
}

fn file(name: &Slug, ending: &str) -> String {
    format!("{name}.{ending}")
}
