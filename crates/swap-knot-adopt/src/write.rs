//! Files written whole or not at all.

use std::fs;
use std::io::{self, Write as _};
use std::path::{Path, PathBuf};

use crate::Adopted;

/// Why an adopted sheet was not written.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum WriteError {
    /// The file says something else than the text that was adopted into.
    #[error("{0} was changed meanwhile; adopt again, so that nothing of that is lost")]
    ChangedMeanwhile(PathBuf),
    /// The disk.
    #[error("cannot write {0}: {1}")]
    Io(PathBuf, io::Error),
}

impl Adopted {
    /// Writes the sheet with its new defaults over the file that it was read from.
    ///
    /// # Errors
    /// When the file says something else by now, or it cannot be written; it stays as it was then.
    pub fn write(&self, file: &Path) -> Result<(), WriteError> {
        let wrong = |e| WriteError::Io(file.to_owned(), e);
        if fs::read_to_string(file).map_err(wrong)? != self.before {
            return Err(WriteError::ChangedMeanwhile(file.to_owned()));
        }
        replace(file, &self.text).map_err(wrong)
    }
}

/// Replaces a file, or makes it: all of it or nothing, also where the power goes. A link stays one, what it
/// leads to is replaced; and who may read the file stays as it was.
///
/// # Errors
/// Those of the disk.
pub fn replace(file: &Path, text: &str) -> io::Result<()> {
    // A new file is where it was asked for.
    let target = match file.try_exists()? {
        true => fs::canonicalize(file)?,
        false => file.to_owned(),
    };
    let folder = target.parent().filter(|p| !p.as_os_str().is_empty());
    let folder = folder.unwrap_or(Path::new("."));
    let permissions = match fs::metadata(&target) {
        Ok(of_old) => Some(of_old.permissions()),
        Err(e) if e.kind() == io::ErrorKind::NotFound => None,
        Err(e) => return Err(e),
    };
    let name = target.file_name().unwrap_or_default().to_string_lossy();
    let unfinished = format!(".{name}{UNFINISHED}");
    clear_away(folder, &unfinished);
    let mut builder = tempfile::Builder::new();
    builder.prefix(&unfinished).suffix("");
    // Who may read a new one is as the system has it for new files.
    #[cfg(unix)]
    builder.permissions(std::os::unix::fs::PermissionsExt::from_mode(0o666));
    let mut new = loop {
        let new = builder.tempfile_in(folder)?;
        // From here on nobody takes it for one that was left; until here somebody may have. Where files
        // cannot be locked, nobody takes any for that.
        let _ = new.as_file().lock();
        if new.path().try_exists()? {
            break new;
        }
    };
    new.write_all(text.as_bytes())?;
    // Who may read an old one stays as it was.
    if let Some(permissions) = permissions {
        new.as_file().set_permissions(permissions)?;
    }
    new.as_file().sync_all()?;
    new.persist(&target).map_err(|e| e.error)?;
    fs::File::open(folder)?.sync_all()
}

/// What a file that is being written is called, after the name of what it becomes.
const UNFINISHED: &str = ".unfinished-";

/// Removes what was left by writers that were killed: those that are still at work hold a lock. Where that
/// cannot be done it can be left for the next time.
fn clear_away(folder: &Path, unfinished: &str) {
    let entries = fs::read_dir(folder).into_iter().flatten().flatten();
    let left = entries.filter(|e| e.file_name().to_string_lossy().starts_with(unfinished));
    for path in left.map(|e| e.path()) {
        if fs::File::open(&path).is_ok_and(|file| file.try_lock().is_ok()) {
            let _ = fs::remove_file(&path);
        }
    }
}
