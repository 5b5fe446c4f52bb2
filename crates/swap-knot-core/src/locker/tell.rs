//! What loading and saving have to say to a player: never with a path.

use std::io;

use super::{
    ErrandDone, ErrandError, ErrandOutcome, ImportError, LoadNote, Loaded, Locker, LockerError,
    LockerErrorKind, Saved, Unreadable,
};
use crate::words::{Tell, Telling};

impl Tell for Unreadable {
    fn tell(&self, to: &Telling<'_>) -> String {
        to.say(&format!("load-{}", state_of(self)), &[])
    }
}

/// What is wrong with a file: the end of the id of its text.
const fn state_of(why: &Unreadable) -> &'static str {
    match why {
        Unreadable::Newer(_) | Unreadable::NewerMappings(_) => "newer",
        Unreadable::Disk { .. } => "unreachable",
        Unreadable::NoProfile(_)
        | Unreadable::NoMappings(_)
        | Unreadable::NoText { .. }
        | Unreadable::NoFile(_) => "damaged",
    }
}

fn tell_mappings(why: &Unreadable, to: &Telling<'_>) -> String {
    to.say(&format!("mappings-{}", state_of(why)), &[])
}

impl Tell for LoadNote {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self {
            LoadNote::CannotRead { why, .. } => why.tell(to),
            LoadNote::Mappings { why, .. } => tell_mappings(why, to),
            LoadNote::LastGood { .. } => to.say("load-last-good", &[]),
        }
    }
}

impl Tell for Loaded {
    fn tell(&self, to: &Telling<'_>) -> String {
        to.lines(&self.notes).join("\n")
    }
}

impl Tell for Saved {
    fn tell(&self, to: &Telling<'_>) -> String {
        let mut lines = to.lines(&self.notes);
        if self.changed_elsewhere {
            lines.push(to.say("saved-with-other-changes", &[]));
        }
        lines.extend(to.lines(&self.overruled));
        lines.join("\n")
    }
}

impl Tell for LockerError {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self.kind() {
            LockerErrorKind::NoSuchProfile { .. } => to.say("locker-no-such-profile", &[]),
            LockerErrorKind::NameTaken => to.say("locker-name-taken", &[]),
            LockerErrorKind::Full => {
                let count = Locker::MAX_PROFILES.to_string();
                to.say("locker-full", &[("count", &count)])
            }
            LockerErrorKind::TooManyDamaged => to.say("locker-too-many-damaged", &[]),
            LockerErrorKind::Newer => to.say("locker-newer", &[]),
            LockerErrorKind::InUse => to.say("locker-in-use", &[]),
            LockerErrorKind::CannotRead(why) => why.tell(to),
            LockerErrorKind::CannotReadMappings(why) => tell_mappings(why, to),
            LockerErrorKind::TooLarge { .. } => to.say("locker-too-large", &[]),
            LockerErrorKind::Disk(error) if is_said_by_store(error) => {
                let why = to.words().typed(&error.to_string());
                to.say("locker-store", &[("why", &why)])
            }
            LockerErrorKind::NoHome | LockerErrorKind::Disk(_) => to.say("locker-disk", &[]),
        }
    }
}

/// Whether a store of the game's own says why in its own words, see [`Store`](super::Store); what the
/// system says is in English.
fn is_said_by_store(error: &io::Error) -> bool {
    error.kind() == io::ErrorKind::Other && error.get_ref().is_some()
}

impl Tell for ImportError {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self {
            ImportError::Profile(why) if why.is_newer() => to.say("import-newer", &[]),
            ImportError::Profile(_) => to.say("import-no-profile", &[]),
            ImportError::Locker(error) => error.tell(to),
        }
    }
}

impl Tell for ErrandDone {
    /// Why it could not be done, or what there is to know of how it was; empty where it is just done.
    /// What was read of a profile that is played now is a report of its own.
    fn tell(&self, to: &Telling<'_>) -> String {
        match &self.outcome {
            Err(why) => why.tell(to),
            Ok(ErrandOutcome::Done(notes)) => to.lines(notes).join("\n"),
            Ok(ErrandOutcome::Play(..) | ErrandOutcome::Text(_)) => String::new(),
        }
    }
}

impl Tell for ErrandError {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self {
            ErrandError::Locker(error) => error.tell(to),
            ErrandError::Import(error) => error.tell(to),
            ErrandError::NotSaved => to.say("locker-disk", &[]),
        }
    }
}
