//! Several profiles: the active one, copies, new names, deleting, sharing with a friend.

use std::io;

use super::{
    ENDING, Exported, ImportError, LAST_GOOD, LoadNote, Locker, LockerError, LockerErrorKind, Slug,
    Unreadable, file,
};
use crate::profile::Profile;

/// The ending of a deleted profile, before its number; kept aside until it is swept.
const DELETED: &str = "deleted-";
/// The same of its last good copy.
const DELETED_GOOD: &str = "deleted-good-";
/// The file that names the active profile.
const ACTIVE: &str = "active";
/// The longest that such a file is.
const ACTIVE_BYTES: usize = 256;

impl Locker {
    /// The profile to start with: the one made active last, if it is still there.
    ///
    /// # Errors
    /// When that cannot be read just now.
    pub fn active(&self) -> Result<Option<Slug>, LockerError> {
        let bytes = match self.store.read(ACTIVE, ACTIVE_BYTES) {
            Ok(bytes) => bytes,
            // No file, or one that no game wrote, names nobody.
            Err(e) if e.kind() == io::ErrorKind::NotFound => return Ok(None),
            Err(e) if e.kind() == io::ErrorKind::InvalidData => return Ok(None),
            Err(e) => return Err(self.disk("read", ACTIVE, e)),
        };
        let name = std::str::from_utf8(&bytes).ok();
        let name = name.and_then(|n| n.trim().parse::<Slug>().ok());
        let names = self.names()?;
        Ok(name.filter(|n| names.contains(n)))
    }

    /// Makes a profile the one to start with.
    ///
    /// # Errors
    /// When there is no such profile, or it cannot be written down.
    pub fn set_active(&self, name: &Slug) -> Result<(), LockerError> {
        let _lock = self.lock()?;
        self.must_be_there("start with", name)?;
        self.write_active(name)
    }

    fn write_active(&self, name: &Slug) -> Result<(), LockerError> {
        self.replace(ACTIVE, format!("{name}\n").as_bytes())
    }

    /// Copies a profile under another name and title; answers what the player should be told.
    ///
    /// # Errors
    /// When the one is not there or cannot be read, the other is there already, or a file cannot be
    /// written.
    pub fn copy(&self, from: &Slug, to: &Slug, title: &str) -> Result<Vec<LoadNote>, LockerError> {
        let _lock = self.lock()?;
        let (mut profile, notes) = self.must_be_readable("copy", from)?;
        self.must_be_free("copy to", to)?;
        profile.set_title(title);
        self.write("copy to", to, &profile)?;
        Ok(notes)
    }

    /// Gives a profile another name and title; its good copy goes with it. Answers what the player
    /// should be told.
    ///
    /// # Errors
    /// As [`Locker::copy`]; whatever could not be done, the profile is there under one of its names.
    pub fn rename(
        &self,
        from: &Slug,
        to: &Slug,
        title: &str,
    ) -> Result<Vec<LoadNote>, LockerError> {
        let _lock = self.lock()?;
        let (mut profile, notes) = self.must_be_readable("rename", from)?;
        if from != to {
            self.must_be_free("rename to", to)?;
        }
        let was_active = self.active()?.as_ref() == Some(from);
        profile.set_title(title);
        self.write("rename", from, &profile)?;
        if from == to {
            return Ok(notes);
        }
        // The file first: what is left under the old name if this is cut off is only its copy.
        self.move_file("rename", &file(from, ENDING), &file(to, ENDING))?;
        self.move_if_there("rename", &file(from, LAST_GOOD), &file(to, LAST_GOOD))?;
        if was_active {
            self.write_active(to)?;
        }
        Ok(notes)
    }

    /// Deletes a profile with its good copy; it can be brought back until [`Locker::sweep`] is
    /// called, also when another one of that name is deleted after it.
    ///
    /// # Errors
    /// When it is not there, or a file cannot be renamed.
    pub fn delete(&self, name: &Slug) -> Result<(), LockerError> {
        let _lock = self.lock()?;
        self.must_be_there("delete", name)?;
        let used = self.deletions(name)?;
        // Behind the last one; who put the last of all numbers there gets one that is free.
        let next = used.last().copied().unwrap_or(0).checked_add(1);
        let free = || (1..=u32::MAX).rev().find(|n| !used.contains(n));
        let number = next.or_else(free).unwrap_or(1);
        let aside = |ending: &str| file(name, &format!("{ending}{number}"));
        // The copy first: as long as the file is there, the profile is.
        let files = self.files()?;
        for (ending, to) in [(LAST_GOOD, DELETED_GOOD), (ENDING, DELETED)] {
            let from = file(name, ending);
            if files.contains(&from) {
                self.move_file("delete", &from, &aside(to))?;
            }
        }
        Ok(())
    }

    /// Brings the profile back that was deleted last under that name.
    ///
    /// # Errors
    /// When it was swept already, or there is another one of that name now.
    pub fn undelete(&self, name: &Slug) -> Result<(), LockerError> {
        let _lock = self.lock()?;
        self.must_be_free("bring back", name)?;
        let Some(number) = self.deletions(name)?.last().copied() else {
            let there = self.deleted()?;
            let why = LockerErrorKind::NoSuchProfile { there };
            return Err(self.error("bring back", &file(name, ENDING), why));
        };
        let aside = |ending: &str| file(name, &format!("{ending}{number}"));
        self.move_if_there("bring back", &aside(DELETED), &file(name, ENDING))?;
        self.move_if_there("bring back", &aside(DELETED_GOOD), &file(name, LAST_GOOD))
    }

    /// The profiles that were deleted and can be brought back.
    ///
    /// # Errors
    /// When the files cannot be listed.
    pub fn deleted(&self) -> Result<Vec<Slug>, LockerError> {
        let files = self.files()?;
        let mut names: Vec<Slug> = (files.iter())
            .filter_map(|f| Some(deletion(f)?.0))
            .collect();
        names.sort_unstable();
        names.dedup();
        Ok(names)
    }

    /// What a deleted profile is called that would be brought back; its name where it cannot be read.
    pub(super) fn deleted_title(&self, name: &Slug) -> String {
        let number = self
            .deletions(name)
            .ok()
            .and_then(|all| all.last().copied());
        let read = |ending: &str| {
            let file = file(name, &format!("{ending}{}", number?));
            let bytes = self.store.read(&file, Profile::MAX_BYTES).ok()?;
            let profile = Profile::from_toml(&String::from_utf8(bytes).ok()?).ok()?;
            Some(profile.title().to_owned()).filter(|title| !title.is_empty())
        };
        let title = read(DELETED).or_else(|| read(DELETED_GOOD));
        title.unwrap_or_else(|| name.title().to_owned())
    }

    /// The numbers under which a name was deleted, in order.
    fn deletions(&self, name: &Slug) -> Result<Vec<u32>, LockerError> {
        let files = self.files()?;
        let all = files.iter().filter_map(|f| deletion(f));
        let mut numbers: Vec<u32> = all.filter(|(n, _)| n == name).map(|(_, n)| n).collect();
        numbers.sort_unstable();
        Ok(numbers)
    }

    /// Removes deleted profiles for good. A game calls it once at its start.
    ///
    /// # Errors
    /// When a file cannot be removed.
    pub fn sweep(&self) -> Result<(), LockerError> {
        let _lock = self.lock()?;
        for file in self.files()?.iter().filter(|f| deletion(f).is_some()) {
            match self.store.remove(file) {
                Err(e) if e.kind() != io::ErrorKind::NotFound => {
                    return Err(self.disk("remove", file, e));
                }
                _ => {}
            }
        }
        Ok(())
    }

    /// A profile as text, to give to a friend.
    ///
    /// # Errors
    /// When it is not there, or cannot be read.
    pub fn export(&self, name: &Slug) -> Result<Exported, LockerError> {
        let (profile, notes) = self.must_be_readable("export", name)?;
        let text = profile.to_toml();
        Ok(Exported { text, notes })
    }

    /// Takes in a profile from a friend, under a name that is free.
    ///
    /// # Errors
    /// When the text is no profile, there is no room for it, or a file cannot be written.
    pub fn import(&self, text: &str) -> Result<Slug, ImportError> {
        let profile = Profile::from_toml(text)?;
        let _lock = self.lock()?;
        let name = self.free_name(profile.title())?;
        self.write("import", &name, &profile)?;
        Ok(name)
    }

    fn must_be_there(&self, doing: &'static str, name: &Slug) -> Result<(), LockerError> {
        let there = self.names()?;
        match there.contains(name) {
            true => Ok(()),
            false => {
                let why = LockerErrorKind::NoSuchProfile { there };
                Err(self.error(doing, &file(name, ENDING), why))
            }
        }
    }

    pub(super) fn must_be_readable(
        &self,
        doing: &'static str,
        name: &Slug,
    ) -> Result<(Profile, Vec<LoadNote>), LockerError> {
        // The good copy speaks for a damaged file, not for one that is newer or out of reach.
        match self.read_best(name, Unreadable::is_damaged) {
            Ok(Some(found)) => Ok(found),
            Ok(None) => {
                let there = self.names()?;
                let why = LockerErrorKind::NoSuchProfile { there };
                Err(self.error(doing, &file(name, ENDING), why))
            }
            Err(why) => {
                let why = LockerErrorKind::CannotRead(why);
                Err(self.error(doing, &file(name, ENDING), why))
            }
        }
    }

    fn must_be_free(&self, doing: &'static str, name: &Slug) -> Result<(), LockerError> {
        match self.names()?.contains(name) {
            false => Ok(()),
            true => Err(self.error(doing, &file(name, ENDING), LockerErrorKind::NameTaken)),
        }
    }

    fn move_file(&self, doing: &'static str, from: &str, to: &str) -> Result<(), LockerError> {
        let done = self.store.rename(from, to);
        done.map_err(|e| self.disk(doing, from, e))
    }

    /// Moves a file that need not be there.
    fn move_if_there(&self, doing: &'static str, from: &str, to: &str) -> Result<(), LockerError> {
        match self.store.rename(from, to) {
            Err(e) if e.kind() != io::ErrorKind::NotFound => Err(self.disk(doing, from, e)),
            _ => Ok(()),
        }
    }
}

/// The name and number of a deleted profile's file, or of that of its good copy.
fn deletion(file: &str) -> Option<(Slug, u32)> {
    let (name, ending) = file.split_once('.')?;
    let number = (ending.strip_prefix(DELETED_GOOD)).or_else(|| ending.strip_prefix(DELETED))?;
    Some((name.parse().ok()?, number.parse().ok()?))
}
