//! What was taught of controllers: one file beside the profiles, for all of them.

use super::{LoadNote, Locker, LockerError, LockerErrorKind, Unreadable};
use crate::input::UsbId;
use crate::mapping::Mappings;

/// The file; no profile is called so, since those have an ending.
const FILE: &str = "mappings";

impl Locker {
    /// What was taught of controllers; nothing where there is no file.
    ///
    /// # Errors
    /// When there is one that cannot be read. It is left as it is.
    pub fn mappings(&self) -> Result<Mappings, LoadNote> {
        self.read_mappings().map_err(|why| {
            let path = self.store.name_of(FILE);
            LoadNote::Mappings { path, why }
        })
    }

    /// Keeps what was taught of kinds of controllers, over what is there of the same kinds; of others
    /// what is there stays. Answers what the player should be told: a damaged file was set aside.
    ///
    /// # Errors
    /// When the file cannot be written, or what is there is newer or cannot be read just now; what was
    /// kept before is still there then.
    pub fn teach(&self, taught: &Mappings) -> Result<Vec<LoadNote>, LockerError> {
        self.change_mappings(|all| {
            for (kind, taught) in taught.kinds() {
                all.set(kind, Some(taught.clone()));
            }
        })
    }

    /// Keeps no longer what was taught of a kind of controller. Answers as [`Locker::teach`] does.
    ///
    /// # Errors
    /// As [`Locker::teach`].
    pub fn forget(&self, kind: Option<UsbId>) -> Result<Vec<LoadNote>, LockerError> {
        self.change_mappings(|all| all.set(kind, None))
    }

    fn change_mappings(
        &self,
        change: impl FnOnce(&mut Mappings),
    ) -> Result<Vec<LoadNote>, LockerError> {
        let _lock = self.lock()?;
        let mut notes = Vec::new();
        let before = match self.read_mappings() {
            Ok(before) => before,
            Err(why) if why.is_damaged() => {
                let path = self.store.name_of(&self.set_aside(FILE, FILE)?);
                notes.push(LoadNote::Mappings { path, why });
                Mappings::new()
            }
            Err(why) => {
                let kind = LockerErrorKind::CannotReadMappings(why);
                return Err(self.error("change", FILE, kind));
            }
        };
        let mut now = before.clone();
        change(&mut now);
        if now != before || !notes.is_empty() {
            let text = now.to_toml();
            let (bytes, most) = (text.len(), Mappings::MAX_BYTES);
            if bytes > most {
                let kind = LockerErrorKind::TooLarge { bytes, most };
                return Err(self.error("change", FILE, kind));
            }
            self.replace(FILE, text.as_bytes())?;
        }
        Ok(notes)
    }

    fn read_mappings(&self) -> Result<Mappings, Unreadable> {
        let Some(text) = self.read_text(FILE, Mappings::MAX_BYTES)? else {
            return Ok(Mappings::new());
        };
        Mappings::from_toml(&text, FILE).map_err(|e| match e.is_newer() {
            true => Unreadable::NewerMappings(e),
            false => Unreadable::NoMappings(e),
        })
    }
}
