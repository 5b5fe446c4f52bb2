//! Saving as a step of its own, that a game may run where it likes.

use std::collections::VecDeque;
use std::sync::{Arc, Weak};
use std::time::Duration;

use super::{Controls, Report};
use crate::input::Time;
use crate::locker::{Errand, ErrandDone, ErrandError, Locker, LockerError, Saved, Slug};
use crate::profile::{Newer, Profile};
use crate::sheet::Sheet;

/// How long after a failure saving is tried again, unless the player applies something before.
const AGAIN_AFTER: Duration = Duration::from_secs(5);

/// Where a player's profile is kept, and what is there as far as is known.
#[derive(Debug)]
pub(super) struct Keeping {
    locker: Locker,
    name: Slug,
    /// What the file has.
    kept: Profile,
    /// Lives as long as the saving that is under way.
    under_way: Weak<()>,
    now: Time,
    failed: Option<Failed>,
    /// What the player wants done with their profiles, and nobody has begun.
    pub(super) errands: VecDeque<Errand>,
}

/// A saving that did not come to anything.
#[derive(Debug)]
struct Failed {
    again_at: Time,
    /// What was to be saved.
    profile: Profile,
}

/// A step with files that is to be run, on any thread, and for as long as the store takes: a save, or
/// something that the player wants done with their profiles.
///
/// Run it, and give what comes of it to [`Controls::saved`]. Dropped unrun, nothing was saved, and
/// [`Controls::saving`] offers it again.
#[derive(Debug)]
#[must_use = "nothing is saved before it is run"]
pub struct Saving {
    locker: Locker,
    name: Slug,
    kept: Profile,
    profile: Profile,
    /// Whether the profile has to be saved.
    saves: bool,
    errand: Option<Errand>,
    sheet: Sheet,
    under_way: Arc<()>,
}

/// What came of a [`Saving`].
#[derive(Debug)]
#[must_use = "what came of it belongs to `Controls::saved`"]
pub struct SavingDone {
    profile: Profile,
    saved: Option<Result<Saved, LockerError>>,
    errand: Option<ErrandDone>,
    /// Whose it is; until this is handed over, no other save is begun.
    under_way: Arc<()>,
}

impl Keeping {
    pub(super) fn new(locker: Locker, name: Slug, kept: Profile) -> Keeping {
        Keeping {
            locker,
            name,
            kept,
            under_way: Weak::new(),
            now: Time::ZERO,
            failed: None,
            errands: VecDeque::new(),
        }
    }

    pub(super) const fn name(&self) -> &Slug {
        &self.name
    }

    /// Keeps another profile from here on, as it is in the locker.
    pub(super) fn change_to(&mut self, name: Slug, kept: Profile) {
        (self.name, self.kept, self.failed) = (name, kept, None);
    }

    pub(super) fn tick(&mut self, now: Time) {
        self.now = now;
    }

    /// Whether a profile is not what is kept.
    fn wants(&self, profile: &Profile) -> bool {
        !profile.has_same_settings(&self.kept)
    }

    /// Whether saving that just failed had better wait.
    fn waits(&self, profile: &Profile) -> bool {
        let failed = self.failed.as_ref();
        failed.is_some_and(|f| self.now < f.again_at && f.profile.has_same_settings(profile))
    }
}

impl Saving {
    /// Saves, with what another program wrote meanwhile merged in, and does what the player wants
    /// with their profiles.
    pub fn run(self) -> SavingDone {
        let Saving {
            locker,
            name,
            profile,
            sheet,
            ..
        } = self;
        let mut saves = self.saves;
        let leaves = self.errand.as_ref().is_some_and(Errand::leaves);
        // Who was never changed has no file, and is to be found again all the same.
        saves |= leaves && locker.names().is_ok_and(|names| !names.contains(&name));
        let saved = saves.then(|| locker.save_over(&name, &self.kept, &profile, &sheet));
        let errand = self.errand.map(|errand| match &saved {
            Some(Err(_)) if leaves => ErrandDone::refused(errand, ErrandError::NotSaved),
            _ => errand.run(&locker, &sheet),
        });
        SavingDone {
            profile,
            saved,
            errand,
            under_way: self.under_way,
        }
    }
}

impl SavingDone {
    /// What was kept and what had to be told, or why it was not; none where nothing was to be saved.
    pub fn outcome(&self) -> Option<Result<&Saved, &LockerError>> {
        self.saved.as_ref().map(Result::as_ref)
    }
}

impl Controls {
    /// The locker and the name under which the profile is kept, if it is.
    pub fn kept_in(&self) -> Option<(&Locker, &Slug)> {
        self.keeping.as_ref().map(|k| (&k.locker, &k.name))
    }

    /// Whether what is played is not kept yet. Ask before the game is left.
    pub fn wants_saving(&self) -> bool {
        let keeping = self.keeping.as_ref();
        keeping.is_some_and(|k| k.wants(&self.profile))
    }

    /// A save to be run, where something is not kept yet and no other save is under way; for five
    /// seconds after a failure there is none, unless the player changes something. Costs a comparison:
    /// ask it every frame.
    ///
    /// ```
    /// use swap_knot::keep::Memory;
    /// use swap_knot::{Controls, Layout, Locker, Place, Sheet, Slug};
    ///
    /// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"KeyH\"")?;
    /// let locker = Locker::in_store(Memory::new());
    /// let mut controls = Controls::open(&sheet, locker, &Slug::from_title("Ada"), Layout::us());
    /// let mut draft = controls.draft();
    /// draft.bind(sheet.defaults()[0].cell, Place::KeyG.into())?;
    /// controls.apply(&mut draft);
    ///
    /// let saving = controls.saving().expect("something was changed");
    /// let thread = std::thread::spawn(move || saving.run());
    /// // The game goes on, frame by frame, and later:
    /// controls.saved(thread.join().expect("saving does not panic"));
    /// assert!(!controls.wants_saving());
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn saving(&mut self) -> Option<Saving> {
        let keeping = self.keeping.as_mut()?;
        let is_busy = keeping.under_way.strong_count() > 0;
        let errand = keeping.errands.front().cloned();
        // What was lately not to be saved is tried again before another profile is played.
        let leaves = errand.as_ref().is_some_and(Errand::leaves);
        let saves = keeping.wants(&self.profile) && (leaves || !keeping.waits(&self.profile));
        if is_busy || (!saves && errand.is_none()) {
            return None;
        }
        let under_way = Arc::new(());
        keeping.under_way = Arc::downgrade(&under_way);
        Some(Saving {
            locker: keeping.locker.clone(),
            name: keeping.name.clone(),
            kept: keeping.kept.clone(),
            profile: self.profile.clone(),
            saves,
            errand,
            sheet: self.sheet.clone(),
            under_way,
        })
    }

    /// Takes in what came of a save: what was changed elsewhere is played from here on, under what
    /// the player changed since, and told; a failure is told once and tried again later. Where the
    /// player switched to another profile, that is played from here on.
    ///
    /// What came of another player's save is not taken for this one's: it stays to be saved.
    pub fn saved(&mut self, done: SavingDone) {
        let SavingDone {
            profile,
            saved,
            errand,
            under_way,
        } = done;
        let own = |k: &&mut Keeping| k.under_way.as_ptr() == Arc::as_ptr(&under_way);
        let Some(keeping) = self.keeping.as_mut().filter(own) else {
            return;
        };
        match saved {
            Some(Ok(saved)) => {
                keeping.kept = saved.profile.clone();
                keeping.failed = None;
                // What was applied while it was being saved is the player's last word.
                let (ours, theirs) = (&self.profile, &saved.profile);
                let (merged, overruled) = ours.merged(&profile, theirs, Newer::Ours);
                let is_told = saved.changed_elsewhere || !saved.notes.is_empty();
                let told = match is_told {
                    true => self.tell(&saved),
                    false => self.words.say("menu-saved", &[]),
                };
                self.tell_on_screen(told);
                self.reports
                    .extend(is_told.then(|| Report::Saved(Box::new(saved))));
                self.reports
                    .extend(overruled.into_iter().map(Report::Overruled));
                self.play_and_report(merged);
            }
            Some(Err(why)) => {
                let again_at = keeping.now.plus(AGAIN_AFTER);
                let is_new = keeping.failed.is_none();
                keeping.failed = Some(Failed { again_at, profile });
                let told = self.tell(&why);
                self.tell_on_screen(told);
                self.reports
                    .extend(is_new.then_some(Report::CannotSave(why)));
            }
            None => {}
        }
        if let Some(done) = errand {
            self.errand_done(done);
        }
        self.renew_screen();
    }

    /// Saves here and now, whatever is not kept yet: the step that touches files, for games that do
    /// not mind waiting for it, and for leaving the game. What came of it is in the reports.
    ///
    /// Answers whether all is kept now; it is not while a [`Saving`] is still under way elsewhere,
    /// which is to be waited for.
    pub fn save(&mut self) -> bool {
        if let Some(keeping) = &mut self.keeping {
            // Somebody asks for it: they are answered, also a second time.
            keeping.failed = None;
        }
        while let Some(saving) = self.saving() {
            let done = saving.run();
            self.saved(done);
        }
        !self.wants_saving()
    }
}
