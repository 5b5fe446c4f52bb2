//! The page of profiles: whose controls these are.

use super::answer::Picking;
use super::typing::{For, Typing};
use super::{
    Busy, ControlsScreen, Details, Item, ProfileCommand, Role, RowView, ScreenView, ScreenWish,
    Section, Spot,
};
use crate::draft::Draft;
use crate::locker::{Errand, ErrandDone, ErrandOutcome, Roster, Slug};
use crate::profile::Profile;
use crate::sheet::Sheet;

/// How many titles a line about a profile names, and how many differences are told of it.
const MOST_TITLES: usize = 4;
const MOST_LINES: usize = 10;

/// The player's profiles, as far as is known.
#[derive(Debug, Default)]
pub(super) struct Profiles {
    /// The one that is played; none where nothing is kept.
    playing: Option<Slug>,
    /// None until they have been asked for.
    roster: Option<Roster>,
    /// How many errands are under way.
    under_way: usize,
}

impl ControlsScreen {
    /// Tells which profile of a locker is edited, for the page of profiles.
    pub fn set_playing(&mut self, name: Option<Slug>) {
        self.profiles.playing = name;
        self.stale = true;
    }

    /// Takes in what came of an [`Errand`] that was wished for.
    pub fn errand_done(&mut self, done: ErrandDone, playing: Option<Slug>) {
        self.profiles.playing = playing;
        self.profiles.under_way = self.profiles.under_way.saturating_sub(1);
        if done.roster.is_some() {
            let on = self.profile_in_focus();
            self.profiles.roster = done.roster;
            // Others may have come before the one that the player is on.
            if let Some((name, command)) = on
                && let Some(n) = self.all().iter().position(|(other, _)| *other == name)
            {
                self.focus_on(Spot::Profile(n as u16, command));
            }
        }
        self.stale = true;
        match done.outcome {
            Ok(ErrandOutcome::Text(text)) => self.begin(Busy::Typing(Typing::shown(text))),
            Ok(ErrandOutcome::Done(notes)) => {
                let lines = self.draft.telling().lines(&notes);
                if !lines.is_empty() {
                    self.message = Some(lines.join("\n"));
                }
            }
            _ => {}
        }
    }

    /// Edits another profile from here on, or the same as it was changed elsewhere.
    pub fn set_draft(&mut self, draft: Draft) {
        let before = std::mem::replace(&mut self.draft, draft);
        self.carry_over(before.sheet());
        self.rows.forget();
        self.trial.set_rig(self.draft.rig());
        self.trial_of = self.draft.revision();
        self.stroke = None;
        let is_of_it = !matches!(
            self.busy,
            Busy::Nothing | Busy::Typing(_) | Busy::Teaching(_) | Busy::Vouching(_)
        );
        if is_of_it {
            // What was asked was about the other one.
            self.calm();
        }
        self.stale = true;
    }

    /// Where the player is, in the names of another sheet; what that does not have is left.
    fn carry_over(&mut self, from: &Sheet) {
        let to = self.draft.sheet();
        if to.stamp() == from.stamp() {
            return;
        }
        let spot = |spot: Spot| match spot {
            Spot::Cell(cell) => {
                let row = to.find_row(&from.row_name(cell.row))?;
                Some(Spot::Cell(row.cell(cell.column)))
            }
            other => Some(other),
        };
        let page = Spot::Page(self.page);
        let (focus, before) = (spot(self.focus), spot(self.before));
        let last = self.last.and_then(spot);
        self.about = self.about.and_then(|id| to.find(&from.declared(id).name));
        let name = |id| &from.declared_situation(id).name;
        self.tries = self.tries.and_then(|id| to.find_situation(name(id)));
        self.last = last;
        self.before = before.unwrap_or(page);
        self.focus_on(focus.unwrap_or(page));
    }

    fn profile_in_focus(&self) -> Option<(Slug, ProfileCommand)> {
        match self.focus {
            Spot::Profile(n, command) => {
                let (name, _) = self.all().get(usize::from(n))?.clone();
                Some((name, command))
            }
            _ => None,
        }
    }

    /// A line about a profile: what it changes; that it cannot be read where that is so. Nothing before the
    /// profiles are known.
    fn line_about(&self, name: &Slug) -> Option<String> {
        let Some(change) = self.change_from(Profile::default(), name) else {
            let is_known = self.profiles.roster.is_some();
            return is_known.then(|| self.text("import-no-profile"));
        };
        let (words, telling) = (self.draft.words(), change.telling());
        let titles = telling.at_most(MOST_TITLES + 1, change.changed_titles());
        Some(match telling.list(titles) {
            Some(titles) => words.say("profile-line", &[("titles", &titles)]),
            None => words.say("profile-same", &[]),
        })
    }

    /// What would be to do to make something of the player's profile of that name; nothing where it is not
    /// known.
    fn change_from(&self, one: Profile, name: &Slug) -> Option<Draft> {
        let draft = &self.draft;
        let roster = self.profiles.roster.as_ref();
        let other = match self.profiles.playing.as_ref() == Some(name) {
            true => draft.applied_profile(),
            false => roster?.profiles.get(name)?.clone(),
        };
        // What it is called is told already.
        let mut one = one;
        one.set_title(other.title());
        let mut change = Draft::between(draft.sheet(), one, other, draft.resolver().clone());
        change.set_words(draft.words());
        Some(change)
    }

    /// What is to be known of a profile: how it differs from the one in use.
    pub(super) fn details_of_profile(&self, n: u16) -> Details {
        let all = self.all();
        let Some((name, title)) = all.get(usize::from(n)) else {
            return Details::default();
        };
        let is_own = self.profiles.playing.as_ref() == Some(name);
        let one = match is_own {
            true => Profile::default(),
            false => self.draft.applied_profile(),
        };
        let text = match self.change_from(one, name).map(|change| change.summary()) {
            Some(lines) if lines.is_empty() && is_own => vec![self.text("profile-same")],
            Some(lines) if lines.is_empty() => vec![self.text("compare-same")],
            Some(lines) => self.draft.telling().at_most(MOST_LINES + 1, lines),
            None => self.line_about(name).into_iter().collect(),
        };
        Details {
            device: self.text(if is_own {
                "profile-in-use"
            } else {
                "page-profiles"
            }),
            title: title.clone(),
            text,
            ..Details::default()
        }
    }

    /// Tells the player something.
    pub fn tell(&mut self, told: String) {
        self.message = Some(told);
        self.stale = true;
    }

    /// Asks for the profiles, when their page is first shown.
    pub(super) fn ask_for_profiles(&mut self) {
        if self.profiles.roster.is_none() && self.profiles.playing.is_some() {
            self.send(Errand::List);
        }
    }

    /// Has something done, where anything is kept of this player.
    pub(super) fn send_if_kept(&mut self, errand: Errand) {
        if self.profiles.playing.is_some() {
            self.send(errand);
        }
    }

    fn send(&mut self, errand: Errand) {
        self.profiles.under_way += 1;
        self.wishes.push(ScreenWish::Send(errand));
        self.stale = true;
    }

    pub(super) fn view_profiles(&self, view: &mut ScreenView) {
        let mut own = Vec::new();
        if self.profiles.playing.is_some() {
            let button = |spot, id: &str| self.item(spot, self.text(id), Role::Button);
            own.push(button(Spot::NewProfile, "profile-new"));
            own.push(button(Spot::Import, "profile-import"));
        }
        view.tools = self.common_tools(own);
        if self.profiles.playing.is_none() {
            let text = Some(self.text("profile-none"));
            view.sections.push(Section {
                text,
                ..Section::default()
            });
            return;
        }
        let waits = self.profiles.under_way > 0;
        let rows = self.all().into_iter().enumerate();
        view.sections.push(Section {
            text: waits.then(|| self.text("profile-busy")),
            rows: rows
                .map(|(n, (name, title))| self.view_profile(n, &name, title))
                .collect(),
            ..Section::default()
        });
        let deleted = self.deleted();
        if !deleted.is_empty() {
            let first = self.all().len();
            let row = |(n, (_, title)): (usize, &(Slug, String))| RowView {
                title: self.draft.words().typed(title),
                items: vec![self.deed(first + n, ProfileCommand::Undelete, title)],
                ..RowView::default()
            };
            view.sections.push(Section {
                title: self.text("section-deleted"),
                rows: deleted.iter().enumerate().map(row).collect(),
                ..Section::default()
            });
        }
    }

    /// Those that are there, and the one that is played, which may not have been kept yet.
    fn all(&self) -> Vec<(Slug, String)> {
        let roster = self.profiles.roster.as_ref();
        let mut all = roster.map(|r| r.there.clone()).unwrap_or_default();
        if let Some(playing) = &self.profiles.playing
            && !all.iter().any(|(name, _)| name == playing)
        {
            all.push((playing.clone(), self.draft.profile().title().to_owned()));
            all.sort();
        }
        all
    }

    fn deleted(&self) -> &[(Slug, String)] {
        self.profiles.roster.as_ref().map_or(&[], |r| &r.deleted)
    }

    fn view_profile(&self, n: usize, name: &Slug, title: String) -> RowView {
        let plays = self.profiles.playing.as_ref() == Some(name);
        let mut deeds = vec![
            ProfileCommand::Copy,
            ProfileCommand::Rename,
            ProfileCommand::Export,
        ];
        if !plays {
            deeds.insert(0, ProfileCommand::Switch);
            deeds.push(ProfileCommand::Delete);
        }
        // What is not kept yet has nothing that could be copied.
        let known = self.profiles.roster.as_ref();
        let is_kept = known.is_some_and(|r| r.there.iter().any(|(other, _)| other == name));
        let item = |deed| {
            let item = self.deed(n, deed, &title);
            item.enabled(is_kept || deed == ProfileCommand::Rename)
        };
        RowView {
            items: deeds.into_iter().map(item).collect(),
            text: self.line_about(name),
            mark: plays.then(|| self.text("profile-in-use")),
            title,
            ..RowView::default()
        }
    }

    fn deed(&self, n: usize, deed: ProfileCommand, title: &str) -> Item {
        let label = self.text(&format!("deed-{}", deed.word()));
        let mut item = self.item(Spot::Profile(n as u16, deed), label, Role::Button);
        let values = [("title", title), ("setting", &item.label)];
        item.spoken = self.draft.words().say("setting-of", &values);
        item
    }

    pub(super) fn new_profile(&mut self) {
        if self.may_leave_profile() {
            let taken: Vec<String> = self.all().into_iter().map(|(_, title)| title).collect();
            let title = free_title(&self.text("profile-new"), &taken);
            self.begin(Busy::Typing(Typing::new(For::NewProfile, title)));
        }
    }

    pub(super) fn import(&mut self) {
        self.begin(Busy::Typing(Typing::new(For::Import, String::new())));
    }

    /// Does something with a profile, by its place in the list.
    pub(super) fn work_profile(&mut self, n: usize, deed: ProfileCommand) {
        let all = self.all();
        if deed == ProfileCommand::Undelete {
            let name = n
                .checked_sub(all.len())
                .and_then(|n| self.deleted().get(n))
                .cloned();
            return name
                .into_iter()
                .for_each(|(name, _)| self.send(Errand::Undelete(name)));
        }
        let Some((name, title)) = all.get(n).cloned() else {
            return;
        };
        match deed {
            ProfileCommand::Switch if self.may_leave_profile() => self.send(Errand::Switch(name)),
            ProfileCommand::Switch | ProfileCommand::Undelete => {}
            ProfileCommand::Copy => {
                let taken: Vec<String> = all.into_iter().map(|(_, title)| title).collect();
                let title = free_title(&title, &taken);
                self.begin(Busy::Typing(Typing::new(For::Copy(name), title)));
            }
            ProfileCommand::Rename => {
                self.begin(Busy::Typing(Typing::new(For::Rename(name), title)))
            }
            ProfileCommand::Delete => self.ask(Picking::Delete(name, title)),
            ProfileCommand::Export => self.send(Errand::Export(name)),
        }
    }

    pub(super) fn delete_profile(&mut self, name: Slug) {
        self.send(Errand::Delete(name));
    }

    /// What is not applied would be lost with another profile.
    fn may_leave_profile(&mut self) -> bool {
        let may = !self.draft.is_changed();
        if !may {
            self.message = Some(self.text("profile-first-apply"));
        }
        may
    }

    /// A name, or a text, has been typed.
    pub(super) fn profile_typed(&mut self, what: For, text: &str) {
        let title = text.trim().to_owned();
        if title.is_empty() {
            return;
        }
        match what {
            For::NewProfile => self.send(Errand::Make { title }),
            For::Copy(from) => self.send(Errand::Copy { from, title }),
            For::Rename(name) => self.send(Errand::Rename { name, title }),
            For::Import => self.send(Errand::Import(text.to_owned())),
            For::Controllers => self.take_controllers(text),
            For::Search | For::Shown | For::ShownController => {}
        }
    }
}

/// A title that no profile has: with a number behind it, if need be.
fn free_title(wanted: &str, taken: &[String]) -> String {
    let numbered = (2..).map(|n: u32| format!("{wanted} {n}"));
    let mut all = std::iter::once(wanted.to_owned()).chain(numbered);
    let free = all.find(|title| !taken.contains(title));
    free.unwrap_or_else(|| wanted.to_owned())
}
