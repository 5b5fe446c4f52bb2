//! Several profiles: the active one, copies, new names, deleting, sharing with a friend.

use std::io;

use super::{ENDING, LAST_GOOD, Locker, LockerError, Slug, file};
use crate::profile::{Profile, ProfileError};

/// The ending of a deleted profile, kept aside until it is swept.
const DELETED: &str = "deleted";
/// The file that names the active profile.
const ACTIVE: &str = "active";

impl Locker {
    /// The profile to start with: the one made active last, if it is still there.
    pub fn active(&self) -> Option<Slug> {
        let bytes = self.store.read(ACTIVE, Slug::MAX + 2).ok()?;
        let name: Slug = std::str::from_utf8(&bytes).ok()?.trim().parse().ok()?;
        self.names().ok()?.contains(&name).then_some(name)
    }

    /// Makes a profile the one to start with.
    ///
    /// # Errors
    /// When there is no such profile, or it cannot be written down.
    pub fn set_active(&self, name: &Slug) -> Result<(), LockerError> {
        let _lock = self.lock()?;
        self.must_be_there(name)?;
        self.replace(ACTIVE, format!("{name}\n").as_bytes())
    }

    /// Copies a profile under another name and title.
    ///
    /// # Errors
    /// When the one is not there, the other is there already, or a file cannot be written.
    pub fn copy(&self, from: &Slug, to: &Slug, title: &str) -> Result<(), LockerError> {
        let _lock = self.lock()?;
        self.must_be_there(from)?;
        self.must_be_free(to)?;
        let mut profile = self.load(from).profile;
        profile.set_title(title);
        self.write(to, &profile)
    }

    /// Gives a profile another name and title.
    ///
    /// # Errors
    /// As [`Locker::copy`].
    pub fn rename(&self, from: &Slug, to: &Slug, title: &str) -> Result<(), LockerError> {
        let was_active = self.active().as_ref() == Some(from);
        self.copy(from, to, title)?;
        {
            let _lock = self.lock()?;
            for ending in [ENDING, LAST_GOOD] {
                self.remove(&file(from, ending))?;
            }
        }
        match was_active {
            true => self.set_active(to),
            false => Ok(()),
        }
    }

    /// Deletes a profile; it can be brought back until [`Locker::sweep`] is called.
    ///
    /// # Errors
    /// When it is not there, or a file cannot be renamed.
    pub fn delete(&self, name: &Slug) -> Result<(), LockerError> {
        let _lock = self.lock()?;
        self.must_be_there(name)?;
        let (file, aside) = (file(name, ENDING), file(name, DELETED));
        let done = self.store.rename(&file, &aside);
        done.map_err(|e| self.error("set aside", &file, e))?;
        self.remove(&self::file(name, LAST_GOOD))
    }

    /// Brings a deleted profile back.
    ///
    /// # Errors
    /// When it was swept already, or there is another one of that name now.
    pub fn undelete(&self, name: &Slug) -> Result<(), LockerError> {
        let _lock = self.lock()?;
        self.must_be_free(name)?;
        let aside = file(name, DELETED);
        let done = self.store.rename(&aside, &file(name, ENDING));
        done.map_err(|e| self.error("bring back", &aside, e))
    }

    /// The profiles that were deleted and can be brought back.
    ///
    /// # Errors
    /// When the files cannot be listed.
    pub fn deleted(&self) -> Result<Vec<Slug>, LockerError> {
        self.names_ending(DELETED)
    }

    /// Removes deleted profiles for good. A game calls it once at its start.
    ///
    /// # Errors
    /// When a file cannot be removed.
    pub fn sweep(&self) -> Result<(), LockerError> {
        let _lock = self.lock()?;
        for name in self.deleted()? {
            self.remove(&file(&name, DELETED))?;
        }
        Ok(())
    }

    /// A profile as text, to give to a friend.
    ///
    /// # Errors
    /// When it is not there.
    pub fn export(&self, name: &Slug) -> Result<String, LockerError> {
        self.must_be_there(name)?;
        Ok(self.load(name).profile.to_toml())
    }

    /// Takes in a profile from a friend, under a name that is free.
    ///
    /// # Errors
    /// When the text is no profile, or a file cannot be written.
    pub fn import(&self, text: &str) -> Result<Slug, ImportError> {
        let profile = Profile::from_toml(text)?;
        let _lock = self.lock()?;
        let wanted = Slug::from_title(profile.title());
        let taken = self.names()?;
        let name = (1..=Self::MAX_PROFILES as u32 + 1)
            .map(|n| wanted.numbered(n))
            .find(|name| !taken.contains(name))
            .unwrap_or(wanted);
        self.write(&name, &profile)?;
        Ok(name)
    }

    fn must_be_there(&self, name: &Slug) -> Result<(), LockerError> {
        match self.names()?.contains(name) {
            true => Ok(()),
            false => {
                let names: Vec<String> = self.names()?.iter().map(Slug::to_string).collect();
                let there = match names.is_empty() {
                    true => "there is none yet".to_owned(),
                    false => format!("there are {}", names.join(", ")),
                };
                let why = format!("there is no such profile; {there}");
                Err(self.error("find", &file(name, ENDING), io::Error::other(why)))
            }
        }
    }

    fn must_be_free(&self, name: &Slug) -> Result<(), LockerError> {
        match self.names()?.contains(name) {
            false => Ok(()),
            true => {
                let why = io::Error::other("there is a profile of that name already");
                Err(self.error("use", &file(name, ENDING), why))
            }
        }
    }

    /// Removes a file that need not be there.
    fn remove(&self, file: &str) -> Result<(), LockerError> {
        match self.store.remove(file) {
            Err(e) if e.kind() != io::ErrorKind::NotFound => Err(self.error("remove", file, e)),
            _ => Ok(()),
        }
    }
}

/// Why a profile could not be taken in.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum ImportError {
    /// The text is no profile.
    #[error("it is no profile that this game can read: {0}")]
    Profile(#[from] ProfileError),
    /// It could not be kept.
    #[error(transparent)]
    Locker(#[from] LockerError),
}
