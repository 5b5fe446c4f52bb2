//! What a player wants done with their profiles.

use super::{Controls, Report};
use crate::draft::CarriedOver;
use crate::layout::Resolver;
use crate::locker::{Errand, ErrandDone, ErrandOutcome, Loaded, Locker, Slug};
use crate::profile::Profile;
use crate::sheet::Sheet;

impl Controls {
    /// A player who goes on with the profile that was played last, or with a first one of that name.
    /// As [`Controls::open`] otherwise.
    pub fn open_last(
        sheet: &Sheet,
        locker: Locker,
        first: &Slug,
        on: impl Into<Resolver>,
    ) -> Controls {
        // Where that cannot be read, nothing else can, and that is told.
        let name = locker.active().ok().flatten();
        let name = name.unwrap_or_else(|| first.clone());
        Controls::open(sheet, locker, &name, on)
    }

    /// Has something done with the player's profiles: by the next [`Saving`](super::Saving) that is
    /// run. What is not kept yet is saved first. What comes of it is told on the controls screen, or
    /// by [`Report::Errand`] where none is open. Answers whether anything is kept of this player.
    pub fn send(&mut self, errand: Errand) -> bool {
        // The title of what is played is in hand.
        if let Errand::Rename { name, title } = &errand
            && self.kept_in().is_some_and(|(_, playing)| playing == name)
        {
            self.profile.set_title(title);
            return self.send(Errand::List);
        }
        match &mut self.keeping {
            Some(keeping) => {
                keeping.errands.push_back(errand);
                true
            }
            None => false,
        }
    }

    pub(super) fn errand_done(&mut self, mut done: ErrandDone) {
        let wants_saving = self.wants_saving();
        let Some(keeping) = &mut self.keeping else {
            return;
        };
        if done.errand.leaves() && done.outcome.is_ok() && wants_saving {
            // Something was applied while it was under way: that is kept before anything else is
            // played, and only then the player goes on to where they wanted.
            if let Ok(ErrandOutcome::Play(name, _)) = done.outcome {
                keeping.errands[0] = Errand::Switch(name);
            }
            return;
        }
        keeping.errands.pop_front();
        // What is played has the last word on what it is called.
        if let (Some(roster), Some((_, playing))) = (&mut done.roster, self.kept_in()) {
            let own = roster.there.iter_mut().find(|(name, _)| name == playing);
            if let Some((_, title)) = own {
                *title = self.profile.title().to_owned();
            }
        }
        if let Ok(ErrandOutcome::Play(name, loaded)) = &done.outcome {
            self.change_to(name.clone(), loaded);
        }
        if let Err(why) = &done.outcome {
            let told = self.tell(why);
            self.tell_on_screen(told);
        }
        match &mut self.screen {
            Some(screen) => {
                let playing = self.keeping.as_ref().map(|k| k.name().clone());
                screen.errand_done(done, playing);
            }
            None => self.reports.push(Report::Errand(Box::new(done))),
        }
    }

    pub(super) fn tell_on_screen(&mut self, told: String) {
        if let Some(screen) = &mut self.screen {
            screen.tell(told);
        }
    }

    /// Plays another profile of the locker from here on.
    fn change_to(&mut self, name: Slug, loaded: &Loaded) {
        if !loaded.notes.is_empty() {
            let told = self.tell(loaded);
            self.tell_on_screen(told);
        }
        let notes = loaded.notes.iter().cloned().map(Report::Load);
        self.reports.extend(notes);
        let carried = CarriedOver::new(&self.sheet, &loaded.profile, self.resolver().clone());
        let profile: Profile = carried.profile.clone();
        if !carried.is_empty() {
            self.reports.push(Report::CarriedOver(Box::new(carried)));
        }
        if let Some(keeping) = &mut self.keeping {
            keeping.change_to(name, loaded.profile.clone());
        }
        self.play(profile);
        let draft = self.draft();
        if let Some(screen) = &mut self.screen {
            screen.set_draft(draft);
        }
    }

    /// The screen edits what is played now, unless the player has begun to change something: that is
    /// merged when it is applied.
    pub(super) fn renew_screen(&mut self) {
        let is_behind = self.screen.as_ref().is_some_and(|screen| {
            let draft = screen.draft();
            !draft.is_changed() && !draft.applied_profile().has_same_settings(&self.profile)
        });
        if is_behind {
            let draft = self.draft();
            if let Some(screen) = &mut self.screen {
                screen.set_draft(draft);
            }
        }
    }
}
