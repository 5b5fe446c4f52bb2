//! Where a locker's files are: a folder, memory, or a game's own save system.

use std::any::Any;
use std::collections::BTreeMap;
use std::fmt;
use std::fs::{self, File, OpenOptions, TryLockError};
use std::io::{self, Read as _, Write as _};
use std::path::{Path, PathBuf};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::Duration;

/// Where the files of a [`Locker`](crate::Locker) are kept.
///
/// Implement it to keep profiles in a game's own save system or in a cloud. File names are slugs
/// with an ending; there is never a path in them.
///
/// What an [`io::Error::other`] says is shown to the player as it stands, so it is in their language:
/// "You are not signed in". Any other error is told in words of the library's.
pub trait Store: fmt::Debug + Send + Sync {
    /// The names of all files.
    ///
    /// # Errors
    /// When they cannot be listed.
    fn list(&self) -> io::Result<Vec<String>>;

    /// The bytes of a file.
    ///
    /// # Errors
    /// [`io::ErrorKind::NotFound`] when it is not there, [`io::ErrorKind::InvalidData`] when it is
    /// larger than `limit` or no file at all; others as they come.
    fn read(&self, file: &str, limit: usize) -> io::Result<Vec<u8>>;

    /// Puts bytes into a file, all or nothing: whatever happens on the way, the file has its old
    /// or its new bytes, and the new ones last once this returns.
    ///
    /// # Errors
    /// When it could not be done; the file is as it was.
    fn replace(&self, file: &str, bytes: &[u8]) -> io::Result<()>;

    /// Gives a file another name, over a file that has it already.
    ///
    /// # Errors
    /// When it could not be done.
    fn rename(&self, from: &str, to: &str) -> io::Result<()>;

    /// Removes a file.
    ///
    /// # Errors
    /// When it could not be done.
    fn remove(&self, file: &str) -> io::Result<()>;

    /// Keeps other writers out until what it answers is dropped.
    ///
    /// # Errors
    /// [`io::ErrorKind::WouldBlock`] when another one holds it; others as they come.
    fn lock(&self) -> io::Result<StoreLock>;

    /// What to call a file when speaking to the player.
    fn name_of(&self, file: &str) -> PathBuf {
        PathBuf::from(file)
    }
}

/// Keeps other writers out of a [`Store`] until it is dropped.
///
/// # Example: a store that one game alone writes into
/// ```
/// use swap_knot::keep::StoreLock;
///
/// let nobody_else_writes = StoreLock::new(());
/// # drop(nobody_else_writes);
/// ```
#[must_use = "others may write as soon as it is dropped"]
pub struct StoreLock {
    /// Whatever lets the others in when it is dropped.
    _held: Box<dyn Any + Send + Sync>,
}

impl StoreLock {
    /// Holds on to something that lets the other writers in when it is dropped: a locked file, a guard of
    /// the game's own; `()` where there are none.
    pub fn new(held: impl Send + Sync + 'static) -> StoreLock {
        StoreLock {
            _held: Box::new(held),
        }
    }
}

impl fmt::Debug for StoreLock {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.debug_struct("StoreLock").finish_non_exhaustive()
    }
}

/// The ending of a file that is being written.
const NEW: &str = "new";
/// The file that is locked while something is written.
const LOCK: &str = "lock";
/// How often a lock that another program holds is tried, and how long after each other: a second in
/// all, which no saving takes.
const TRIES: u32 = 1000;
const BETWEEN_TRIES: Duration = Duration::from_millis(1);

/// A folder of files.
#[derive(Clone, Debug)]
pub struct Folder(PathBuf);

impl Folder {
    /// A folder, made if it is not there.
    ///
    /// # Errors
    /// When it cannot be made.
    pub fn open(path: impl Into<PathBuf>) -> io::Result<Folder> {
        let path = path.into();
        fs::create_dir_all(&path)?;
        Ok(Folder(path))
    }

    /// Where it is.
    pub fn path(&self) -> &Path {
        &self.0
    }

    /// Makes a rename last through a power cut, where the platform lets a folder be synced.
    fn sync(&self) -> io::Result<()> {
        if cfg!(unix) {
            File::open(&self.0)?.sync_all()?;
        }
        Ok(())
    }
}

impl Store for Folder {
    fn list(&self) -> io::Result<Vec<String>> {
        let mut names = Vec::new();
        for entry in fs::read_dir(&self.0)? {
            names.extend(entry?.file_name().into_string());
        }
        Ok(names)
    }

    fn read(&self, file: &str, limit: usize) -> io::Result<Vec<u8>> {
        let path = self.0.join(file);
        let damaged = |why: String| io::Error::new(io::ErrorKind::InvalidData, why);
        if !fs::metadata(&path)?.is_file() {
            return Err(damaged("not a file".to_owned()));
        }
        let mut bytes = Vec::new();
        File::open(path)?
            .take(limit as u64 + 1)
            .read_to_end(&mut bytes)?;
        if bytes.len() > limit {
            return Err(damaged(format!(
                "larger than {limit} bytes, which no profile is"
            )));
        }
        Ok(bytes)
    }

    /// Writes a new file, syncs it, renames it over the old one and syncs the folder.
    fn replace(&self, file: &str, bytes: &[u8]) -> io::Result<()> {
        let new = self.0.join(format!("{file}.{NEW}"));
        let write = || -> io::Result<()> {
            // What lies there is left from a save that was cut off; a link is not followed.
            match fs::remove_file(&new) {
                Err(e) if e.kind() != io::ErrorKind::NotFound => return Err(e),
                _ => {}
            }
            let mut out = OpenOptions::new().write(true).create_new(true).open(&new)?;
            out.write_all(bytes)?;
            out.sync_all()?;
            fs::rename(&new, self.0.join(file))
        };
        if let Err(e) = write() {
            // Best effort: the error that matters is the one above.
            let _ = fs::remove_file(&new);
            return Err(e);
        }
        self.sync()
    }

    fn rename(&self, from: &str, to: &str) -> io::Result<()> {
        fs::rename(self.0.join(from), self.0.join(to))?;
        self.sync()
    }

    fn remove(&self, file: &str) -> io::Result<()> {
        fs::remove_file(self.0.join(file))
    }

    /// A lock of the system's, which is let go when the process dies; waits for it a second at most.
    fn lock(&self) -> io::Result<StoreLock> {
        let path = self.0.join(LOCK);
        // Opening a pipe would wait for whoever reads it.
        if fs::metadata(&path).is_ok_and(|m| !m.is_file()) {
            let why = "what is called `lock` there is no file; remove it";
            return Err(io::Error::new(io::ErrorKind::InvalidInput, why));
        }
        let mut options = OpenOptions::new();
        let file = options
            .create(true)
            .truncate(false)
            .write(true)
            .open(path)?;
        for _ in 0..TRIES {
            match file.try_lock() {
                Ok(()) => return Ok(StoreLock::new(file)),
                Err(TryLockError::WouldBlock) => std::thread::sleep(BETWEEN_TRIES),
                Err(TryLockError::Error(e)) => return Err(e),
            }
        }
        Err(io::ErrorKind::WouldBlock.into())
    }

    fn name_of(&self, file: &str) -> PathBuf {
        self.0.join(file)
    }
}

/// Files in memory, for tests and for games that save everything at once.
///
/// A clone is the same files.
#[derive(Clone, Debug, Default)]
pub struct Memory(Arc<Shared>);

#[derive(Debug, Default)]
struct Shared {
    files: Mutex<BTreeMap<String, Vec<u8>>>,
    is_locked: AtomicBool,
}

/// Lets the next writer in when it is dropped.
struct MemoryLock(Arc<Shared>);

impl Drop for MemoryLock {
    fn drop(&mut self) {
        self.0.is_locked.store(false, Ordering::Release);
    }
}

impl Memory {
    /// No file yet.
    pub fn new() -> Memory {
        Memory::default()
    }

    fn files(&self) -> MutexGuard<'_, BTreeMap<String, Vec<u8>>> {
        // A panic elsewhere leaves the map whole: every change to it is one call.
        let files = self.0.files.lock();
        files.unwrap_or_else(PoisonError::into_inner)
    }
}

fn missing() -> io::Error {
    io::Error::from(io::ErrorKind::NotFound)
}

impl Store for Memory {
    fn list(&self) -> io::Result<Vec<String>> {
        Ok(self.files().keys().cloned().collect())
    }

    fn read(&self, file: &str, limit: usize) -> io::Result<Vec<u8>> {
        let bytes = self.files().get(file).cloned().ok_or_else(missing)?;
        if bytes.len() > limit {
            let why = format!("larger than {limit} bytes, which no profile is");
            return Err(io::Error::new(io::ErrorKind::InvalidData, why));
        }
        Ok(bytes)
    }

    fn replace(&self, file: &str, bytes: &[u8]) -> io::Result<()> {
        self.files().insert(file.to_owned(), bytes.to_vec());
        Ok(())
    }

    fn rename(&self, from: &str, to: &str) -> io::Result<()> {
        let mut files = self.files();
        let bytes = files.remove(from).ok_or_else(missing)?;
        files.insert(to.to_owned(), bytes);
        Ok(())
    }

    fn remove(&self, file: &str) -> io::Result<()> {
        self.files().remove(file).map(drop).ok_or_else(missing)
    }

    fn lock(&self) -> io::Result<StoreLock> {
        match self.0.is_locked.swap(true, Ordering::Acquire) {
            true => Err(io::ErrorKind::WouldBlock.into()),
            false => Ok(StoreLock::new(MemoryLock(self.0.clone()))),
        }
    }
}
