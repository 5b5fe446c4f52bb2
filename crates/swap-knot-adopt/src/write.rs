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
    let mut new = tempfile::Builder::new();
    // Who may read it stays as it was, or as the system has it for new files.
    let permissions = match fs::metadata(&target) {
        Ok(of_old) => Ok(of_old.permissions()),
        Err(e) if e.kind() == io::ErrorKind::NotFound => usual_permissions(folder),
        Err(e) => return Err(e),
    };
    if let Ok(permissions) = permissions {
        new.permissions(permissions);
    }
    let mut new = new.tempfile_in(folder)?;
    new.write_all(text.as_bytes())?;
    new.as_file().sync_all()?;
    new.persist(&target).map_err(|e| e.error)?;
    fs::File::open(folder)?.sync_all()
}

/// The permissions that a new file gets there.
fn usual_permissions(folder: &Path) -> io::Result<fs::Permissions> {
    let probe = folder.join(format!(".swap-knot-{}", std::process::id()));
    let made = fs::File::create_new(&probe)?.metadata();
    fs::remove_file(&probe)?;
    made.map(|m| m.permissions())
}
