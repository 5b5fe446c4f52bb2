//! The files of a game's profiles, kept so that nothing is lost.
//!
//! Saving writes a new file, syncs it, keeps the last good one beside it, renames the new one over
//! the old one and syncs the folder; at no moment is there no readable profile. A damaged file is
//! set aside under another name, never overwritten.

mod report;
mod slug;

use std::fs::{self, File, OpenOptions};
use std::io::{self, Read as _, Write as _};
use std::path::{Path, PathBuf};

pub use report::{LoadNote, Loaded, LockerError};
pub use slug::{Slug, SlugError};

use crate::profile::Profile;
use crate::sheet::Sheet;

/// The ending of a profile's file.
const ENDING: &str = "toml";
/// The ending of the last good copy.
const LAST_GOOD: &str = "last-good";
/// The ending of a file that is being written.
const NEW: &str = "new";
/// How many damaged files of one profile are kept.
const MAX_SET_ASIDE: u32 = 99;

/// The folder of a game's profiles.
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
    folder: PathBuf,
}

impl Locker {
    /// The most profiles that one folder keeps.
    pub const MAX_PROFILES: usize = 100;

    /// Opens a folder of profiles, making it if it is not there.
    ///
    /// # Errors
    /// When the folder cannot be made.
    pub fn open(folder: impl Into<PathBuf>) -> Result<Locker, LockerError> {
        let folder = folder.into();
        fs::create_dir_all(&folder).map_err(|e| LockerError::new("make the folder", &folder, e))?;
        Ok(Locker { folder })
    }

    /// The folder.
    pub fn folder(&self) -> &Path {
        &self.folder
    }

    /// The names of the profiles that are there, in order.
    ///
    /// # Errors
    /// When the folder cannot be read.
    pub fn names(&self) -> Result<Vec<Slug>, LockerError> {
        let wrong = |e| LockerError::new("read the folder", &self.folder, e);
        let mut names = Vec::new();
        for entry in fs::read_dir(&self.folder).map_err(wrong)? {
            let file = entry.map_err(wrong)?.file_name();
            let name = Path::new(&file).file_stem().and_then(|s| s.to_str());
            let ending = Path::new(&file).extension().and_then(|s| s.to_str());
            if ending == Some(ENDING)
                && let Some(Ok(name)) = name.map(str::parse::<Slug>)
            {
                names.push(name);
            }
        }
        names.sort_unstable();
        names.truncate(Self::MAX_PROFILES);
        Ok(names)
    }

    /// Loads a profile. There is always one to play with: the saved one, else the last good copy,
    /// else one without changes; what went wrong is reported.
    pub fn load(&self, name: &Slug) -> Loaded {
        let mut notes = Vec::new();
        let path = self.path(name, ENDING);
        match read_profile(&path) {
            Ok(Some(profile)) => return Loaded { profile, notes },
            Ok(None) => {}
            Err(Unreadable::Io(e)) => {
                notes.push(LoadNote::CannotRead {
                    path: path.clone(),
                    why: e.to_string(),
                });
            }
            Err(Unreadable::Newer(why)) => {
                notes.push(LoadNote::CannotRead {
                    path: path.clone(),
                    why,
                });
            }
            Err(Unreadable::Damaged(why)) => {
                let aside = self.set_aside(name, &path);
                notes.push(LoadNote::Damaged {
                    path: path.clone(),
                    why,
                    aside,
                });
            }
        }
        let last_good = self.path(name, LAST_GOOD);
        match read_profile(&last_good) {
            Ok(Some(profile)) => {
                notes.push(LoadNote::LastGood { path: last_good });
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
        let _lock = self.lock()?;
        let path = self.path(name, ENDING);
        if !path.exists() && self.names()?.len() >= Self::MAX_PROFILES {
            return Err(LockerError::full(&self.folder));
        }
        let mut stamped = profile.clone();
        stamped.stamp(sheet);
        // The copy first: from here on there is a good file whatever happens to the other.
        if let Ok(Some(_)) = read_profile(&path) {
            let bytes = read_bounded(&path).map_err(|e| LockerError::new("read", &path, e))?;
            self.replace(&self.path(name, LAST_GOOD), &bytes)?;
        } else if path.exists() {
            self.set_aside(name, &path);
        }
        self.replace(&path, stamped.to_toml().as_bytes())
    }

    /// Writes a new file and renames it over the old one, syncing file and folder.
    fn replace(&self, path: &Path, bytes: &[u8]) -> Result<(), LockerError> {
        let mut name = path.as_os_str().to_owned();
        name.push(".");
        name.push(NEW);
        let new = PathBuf::from(name);
        let write = || -> io::Result<()> {
            // What lies there is left from a save that was cut off; a link is not followed.
            match fs::remove_file(&new) {
                Err(e) if e.kind() != io::ErrorKind::NotFound => return Err(e),
                _ => {}
            }
            let mut file = OpenOptions::new().write(true).create_new(true).open(&new)?;
            file.write_all(bytes)?;
            file.sync_all()
        };
        if let Err(e) = write() {
            // Best effort: the error that matters is the one above.
            let _ = fs::remove_file(&new);
            return Err(LockerError::new("write", &new, e));
        }
        fs::rename(&new, path).map_err(|e| LockerError::new("rename into place", path, e))?;
        sync_folder(&self.folder).map_err(|e| LockerError::new("sync the folder", &self.folder, e))
    }

    /// Renames a damaged file so that it is kept; answers its new name, if that could be done.
    fn set_aside(&self, name: &Slug, path: &Path) -> Option<PathBuf> {
        let free = (1..=MAX_SET_ASIDE)
            .map(|n| self.path(name, &format!("damaged-{n}")))
            .find(|p| fs::symlink_metadata(p).is_err())?;
        fs::rename(path, &free).ok()?;
        Some(free)
    }

    /// Keeps two writers apart; let go when the file is closed, also when the process dies.
    fn lock(&self) -> Result<File, LockerError> {
        let path = self.folder.join("lock");
        let wrong = |e| LockerError::new("lock", &path, e);
        let file = OpenOptions::new()
            .create(true)
            .truncate(false)
            .write(true)
            .open(&path)
            .map_err(wrong)?;
        // Saving takes moments, so another writer is waited for.
        file.lock().map_err(wrong)?;
        Ok(file)
    }

    fn path(&self, name: &Slug, ending: &str) -> PathBuf {
        self.folder.join(format!("{name}.{ending}"))
    }
}

enum Unreadable {
    Io(io::Error),
    Newer(String),
    Damaged(String),
}

/// The profile in a file; `None` when there is no file.
fn read_profile(path: &Path) -> Result<Option<Profile>, Unreadable> {
    let bytes = match read_bounded(path) {
        Ok(bytes) => bytes,
        Err(e) if e.kind() == io::ErrorKind::NotFound => return Ok(None),
        Err(e) if e.kind() == io::ErrorKind::InvalidData => {
            return Err(Unreadable::Damaged(e.to_string()));
        }
        Err(e) => return Err(Unreadable::Io(e)),
    };
    let text = match String::from_utf8(bytes) {
        Ok(text) => text,
        Err(e) => {
            let at = e.utf8_error().valid_up_to();
            return Err(Unreadable::Damaged(format!(
                "not text: byte {at} is no UTF-8"
            )));
        }
    };
    match Profile::from_toml(&text) {
        Ok(profile) => Ok(Some(profile)),
        Err(e) if e.is_newer() => Err(Unreadable::Newer(e.to_string())),
        Err(e) => Err(Unreadable::Damaged(e.to_string())),
    }
}

/// The bytes of a plain file of at most [`Profile::MAX_BYTES`].
fn read_bounded(path: &Path) -> io::Result<Vec<u8>> {
    let damaged = |why: String| io::Error::new(io::ErrorKind::InvalidData, why);
    if !fs::metadata(path)?.is_file() {
        return Err(damaged("not a file".to_owned()));
    }
    let mut bytes = Vec::new();
    let limit = Profile::MAX_BYTES as u64;
    File::open(path)?.take(limit + 1).read_to_end(&mut bytes)?;
    if bytes.len() as u64 > limit {
        return Err(damaged(format!(
            "larger than {limit} bytes, which no profile is"
        )));
    }
    Ok(bytes)
}

/// Makes a rename last through a power cut, where the platform lets a folder be synced.
fn sync_folder(folder: &Path) -> io::Result<()> {
    if cfg!(unix) {
        File::open(folder)?.sync_all()?;
    }
    Ok(())
}
