//! What a player wants done with their profiles, as a step that may take its time.

use std::collections::BTreeMap;

use super::{ImportError, LoadNote, Loaded, Locker, LockerError, Slug};
use crate::input::UsbId;
use crate::mapping::Mappings;
use crate::profile::Profile;
use crate::sheet::Sheet;

/// Something to be done with the profiles in a locker, apart from playing.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum Errand {
    /// Says which profiles there are.
    List,
    /// Plays with one of them from here on.
    Switch(Slug),
    /// Makes one without changes, and plays with it.
    Make {
        /// What the player calls it.
        title: String,
    },
    /// Makes one like another.
    Copy {
        /// The other.
        from: Slug,
        /// What the player calls the new one.
        title: String,
    },
    /// Gives one another title.
    Rename {
        /// Which.
        name: Slug,
        /// What the player calls it.
        title: String,
    },
    /// Takes one away; it can be brought back.
    Delete(Slug),
    /// Brings one back.
    Undelete(Slug),
    /// Shows one as text.
    Export(Slug),
    /// Takes one in that came as text.
    Import(String),
    /// Keeps what was taught of kinds of controllers, beside the profiles.
    Teach(Mappings),
    /// Keeps no longer what was taught of one.
    Forget(Option<UsbId>),
}

/// The profiles in a locker.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct Roster {
    /// Those that are there: the name, and what the player calls it.
    pub there: Vec<(Slug, String)>,
    /// What those of them hold that can be read.
    pub profiles: BTreeMap<Slug, Profile>,
    /// The same of those that were deleted and can be brought back.
    pub deleted: Vec<(Slug, String)>,
}

/// What came of an [`Errand`].
#[derive(Debug)]
#[non_exhaustive]
pub struct ErrandDone {
    /// Which.
    pub errand: Errand,
    /// What it brought, or why it could not be done.
    pub outcome: Result<ErrandOutcome, ErrandError>,
    /// The profiles as they are afterwards, where they can be listed.
    pub roster: Option<Roster>,
}

/// What an [`Errand`] brought.
#[derive(Debug)]
#[non_exhaustive]
pub enum ErrandOutcome {
    /// It is done.
    Done(Vec<LoadNote>),
    /// This profile is to be played from here on.
    Play(Slug, Box<Loaded>),
    /// The text of a profile.
    Text(String),
}

/// Why an [`Errand`] could not be done.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum ErrandError {
    /// The locker.
    #[error(transparent)]
    Locker(#[from] LockerError),
    /// The text.
    #[error(transparent)]
    Import(#[from] ImportError),
    /// What is played could not be saved first, and would be lost.
    #[error("the profile in play could not be saved, so another one is not played")]
    NotSaved,
}

impl Errand {
    /// Whether another profile is played after it: what is played has to be kept first.
    pub(crate) const fn leaves(&self) -> bool {
        matches!(self, Errand::Switch(_) | Errand::Make { .. })
    }

    /// Does it.
    pub(crate) fn run(self, locker: &Locker, sheet: &Sheet) -> ErrandDone {
        let outcome = self.outcome(locker, sheet);
        ErrandDone {
            outcome,
            errand: self,
            roster: locker.roster().ok(),
        }
    }

    fn outcome(&self, locker: &Locker, sheet: &Sheet) -> Result<ErrandOutcome, ErrandError> {
        // One that cannot be read is none without changes: the player stays with the one in play.
        let play = |name: &Slug| -> Result<ErrandOutcome, ErrandError> {
            let (profile, notes) = locker.must_be_readable("play", name)?;
            locker.set_active(name)?;
            let loaded = Box::new(Loaded { profile, notes });
            Ok(ErrandOutcome::Play(name.clone(), loaded))
        };
        match self {
            Errand::List => {
                locker.names()?;
                Ok(ErrandOutcome::Done(Vec::new()))
            }
            Errand::Switch(name) => play(name),
            Errand::Make { title } => {
                let name = locker.free_name(title)?;
                locker.save(&name, &Profile::new(title.as_str()), sheet)?;
                play(&name)
            }
            Errand::Copy { from, title } => {
                let to = locker.free_name(title)?;
                Ok(ErrandOutcome::Done(locker.copy(from, &to, title)?))
            }
            Errand::Rename { name, title } => {
                Ok(ErrandOutcome::Done(locker.rename(name, name, title)?))
            }
            Errand::Delete(name) => {
                locker.delete(name)?;
                Ok(ErrandOutcome::Done(Vec::new()))
            }
            Errand::Undelete(name) => {
                locker.undelete(name)?;
                Ok(ErrandOutcome::Done(Vec::new()))
            }
            Errand::Export(name) => Ok(ErrandOutcome::Text(locker.export(name)?.text)),
            Errand::Import(text) => {
                locker.import(text)?;
                Ok(ErrandOutcome::Done(Vec::new()))
            }
            Errand::Teach(taught) => Ok(ErrandOutcome::Done(locker.teach(taught)?)),
            Errand::Forget(kind) => Ok(ErrandOutcome::Done(locker.forget(*kind)?)),
        }
    }
}

impl ErrandDone {
    pub(crate) const fn refused(errand: Errand, why: ErrandError) -> ErrandDone {
        ErrandDone {
            errand,
            outcome: Err(why),
            roster: None,
        }
    }
}

impl Locker {
    /// The profiles with their titles. Of one that cannot be read, its name stands in.
    ///
    /// # Errors
    /// When the files cannot be listed.
    pub fn roster(&self) -> Result<Roster, LockerError> {
        let mut profiles = BTreeMap::new();
        let titled = |name: Slug| {
            // One that cannot be read holds nothing that is known, rather than nothing.
            let title = match self.must_be_readable("list", &name) {
                Ok((profile, _)) => {
                    let title = profile.title().to_owned();
                    profiles.insert(name.clone(), profile);
                    title
                }
                Err(_) => name.title().to_owned(),
            };
            (name, title)
        };
        Ok(Roster {
            there: self.names()?.into_iter().map(titled).collect(),
            profiles,
            deleted: (self.deleted()?.into_iter())
                .map(|name| (name.clone(), self.deleted_title(&name)))
                .collect(),
        })
    }

    /// A name for a new profile of that title that no profile has, and none that can be brought back.
    pub(crate) fn free_name(&self, title: &str) -> Result<Slug, LockerError> {
        let mut taken = self.names()?;
        taken.extend(self.deleted()?);
        let wanted = Slug::from_title(title);
        let mut numbered = (1..=u32::MAX).map(|n| wanted.numbered(n));
        Ok(numbered
            .find(|name| !taken.contains(name))
            .unwrap_or(wanted))
    }
}
