//! One player's controls in one piece: what every game would otherwise put together by hand.

mod bug_report;
mod devices;
mod errand;
mod hidden;
mod mapping;
mod players;
mod report;
mod saving;
mod screen;
mod touch;

use std::cell::RefCell;
use std::collections::HashMap;

pub use hidden::HiddenDefault;
pub use players::Players;
pub use report::Report;
pub use saving::{Saving, SavingDone};

use self::devices::Devices;
use self::mapping::Controllers;
use self::saving::Keeping;
use crate::conflict::{Conflict, is_same, unsettled};
use crate::draft::{CarriedOver, Draft};
use crate::input::{DeviceId, Event, Time};
use crate::layout::quirks::KeyQuirks;
use crate::layout::{Layout, LayoutLearner, Resolver};
use crate::locker::{Locker, Slug};
use crate::profile::{Newer, Profile};
use crate::prompt::{Prompt, PromptError, Rendered};
use crate::rig::{Rig, RigNote};
use crate::screen::ControlsScreen;
use crate::seat::Seat;
use crate::sheet::Sheet;
use crate::words::{Tell, Telling, Words};

/// How many different prompts are kept ready. A game that asks for more, since it writes numbers
/// into them, has them read again.
const MAX_PROMPTS: usize = 256;

/// One local player: what they play with, where that is kept, and every word they read of it.
///
/// Events and time go in; answers, prompts and reports come out. The layout is learned from what is
/// typed until one is chosen. Nothing here touches a file but opening and [`Controls::save`], or the
/// [`Saving`] that a game may run on a thread of its own.
///
/// The parts are public for games that want them singly: [`Seat`], [`Draft`], [`Locker`],
/// [`LayoutLearner`], [`Prompt`].
///
/// # Example: a player who is remembered
/// ```
/// use swap_knot::{Controls, Layout, Locker, Place, Sheet, Slug};
///
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"KeyH\"")?;
/// # let folder = tempfile::tempdir()?;
/// # let folder = folder.path();
/// let (locker, ada) = (Locker::open(folder)?, Slug::from_title("Ada"));
/// let mut controls = Controls::open(&sheet, locker.clone(), &ada, Layout::us());
/// assert_eq!(controls.prompt("{do:horn}")?.to_string(), "Press H");
///
/// let mut draft = controls.draft();
/// draft.bind(sheet.defaults()[0].cell, Place::KeyG.into())?;
/// controls.apply(&mut draft);
/// assert_eq!(controls.prompt("{do:horn}")?.to_string(), "Press G");
/// controls.save(); // or where it may take its time: `saving`
///
/// let mut again = Controls::open(&sheet, locker, &ada, Layout::us());
/// assert_eq!(again.prompt("{do:horn}")?.to_string(), "Press G");
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Debug)]
pub struct Controls {
    sheet: Sheet,
    profile: Profile,
    seat: Seat,
    learner: LayoutLearner,
    /// Whether the layout was chosen, so that typing does not change it.
    is_chosen: bool,
    words: Words,
    prompts: HashMap<String, Prompt>,
    /// The same of texts of the game's own, by id.
    prompts_by_id: HashMap<String, Prompt>,
    reports: Vec<Report>,
    /// What of the sheet the profile hides, for whoever edits it.
    hidden: Vec<HiddenDefault>,
    /// Whether the profile is not played with for now.
    by_defaults: bool,
    /// None for a player of whom nothing is kept.
    keeping: Option<Keeping>,
    devices: Devices,
    controllers: Controllers,
    /// What was chosen on the screen of who plays with what.
    handovers: Vec<(DeviceId, Vec<usize>)>,
    quirks: KeyQuirks,
    /// While it is open.
    screen: Option<Box<ControlsScreen>>,
}

impl Controls {
    /// A player of whom nothing is kept: a guest, a kiosk, a test.
    pub fn new(sheet: &Sheet, profile: Profile, on: impl Into<Resolver>) -> Controls {
        let mut on = on.into();
        let chosen = chosen_in(&profile);
        if let Some(layout) = &chosen {
            on = on.on(layout);
        }
        let carried = CarriedOver::new(sheet, &profile, on.clone());
        let profile = carried.profile.clone();
        let rig = Rig::new(sheet, &profile, on);
        let mut reports = Vec::new();
        if !carried.is_empty() {
            reports.push(Report::CarriedOver(Box::new(carried)));
        }
        reports.extend(rig.notes().iter().cloned().map(Report::Note));
        Controls {
            sheet: sheet.clone(),
            profile,
            learner: LayoutLearner::new(rig.layout().clone()),
            seat: Seat::new(rig),
            is_chosen: chosen.is_some(),
            words: Words::english(),
            prompts: HashMap::new(),
            prompts_by_id: HashMap::new(),
            reports,
            hidden: Vec::new(),
            by_defaults: false,
            keeping: None,
            devices: Devices::default(),
            controllers: Controllers::default(),
            handovers: Vec::new(),
            quirks: KeyQuirks::default(),
            screen: None,
        }
    }

    /// A player whose profile of that name is kept in a locker. There is always something to play
    /// with; what went wrong is in the reports.
    ///
    /// The layout is what the system says it is, as far as a game can know; a layout that the player
    /// chose is in their profile, and wins.
    pub fn open(sheet: &Sheet, locker: Locker, name: &Slug, on: impl Into<Resolver>) -> Controls {
        let loaded = locker.load(name);
        let mut controls = Controls::new(sheet, loaded.profile.clone(), on);
        let mut notes = loaded.notes;
        match locker.mappings() {
            Ok(mappings) => controls.set_mappings(&mappings),
            Err(note) => notes.push(note),
        }
        let notes = notes.into_iter().map(Report::Load);
        controls.reports.splice(..0, notes);
        controls.keeping = Some(Keeping::new(locker, name.clone(), loaded.profile));
        controls
    }

    /// Takes an event in: it is played at the next [`Controls::tick`] or [`Controls::advance`], and
    /// what a key types teaches the layout. While the controls screen is open, it is the screen's.
    pub fn feed(&mut self, event: &Event) {
        self.offer(event, |_, _| false);
    }

    /// Takes an event in that a menu has: it teaches the layout and is not played, see
    /// [`Seat::overhear`].
    pub fn overhear(&mut self, event: &Event) {
        self.offer(event, |_, _| true);
    }

    /// Offers an event to a menu, and plays it where the menu does not take it. The menu is asked
    /// when the layout is learned already, so that it judges by the layout of that very press; and of a
    /// controller whose mapping was taught it hears what that is on a pad.
    pub fn offer(&mut self, event: &Event, mut takes: impl FnMut(&Event, &Layout) -> bool) {
        let mut quirks = std::mem::take(&mut self.quirks);
        let rig = self.seat.rig().clone();
        // The menu is asked of a key that has to wait when it comes, of everything else when it is heard.
        let takes = RefCell::new(&mut takes);
        quirks.offer(
            event,
            rig.resolver(),
            |event| takes.borrow_mut()(event, rig.layout()),
            |heard, waited| match waited {
                Some(taken) => self.hear(heard, &mut |_, _| taken),
                None => self.hear(heard, &mut *takes.borrow_mut()),
            },
        );
        self.quirks = quirks;
    }

    /// Time goes by, or a seat is asked: what waited to be told from what a system does was meant.
    fn settle_keys(&mut self) {
        let mut quirks = std::mem::take(&mut self.quirks);
        quirks.settle(|event, taken| self.hear(event, &mut |_, _| taken));
        self.quirks = quirks;
    }

    fn hear(&mut self, event: &Event, takes: &mut impl FnMut(&Event, &Layout) -> bool) {
        // What was chosen by pointing counts for whatever comes after it; but the first that comes after
        // the screen was left is still the screen's.
        let was_open = self.screen.is_some();
        self.carry_out();
        let is_left = was_open && self.screen.is_none();
        self.learn(event);
        self.hear_of_device(event);
        if self.is_taught_by(event) || self.offers_teaching(event) {
            return;
        }
        let mut mapper = std::mem::take(&mut self.controllers.mapper);
        mapper.event(event, |event| {
            let taken = is_left || takes(event, self.resolver().layout());
            self.take_in(event, taken);
        });
        self.controllers.mapper = mapper;
        self.follow_controllers();
        self.carry_out();
    }

    /// An event that a menu has, the controls screen, or the game.
    fn take_in(&mut self, event: &Event, taken: bool) {
        match (&mut self.screen, taken) {
            (Some(screen), false) => {
                screen.set_layout(self.seat.rig().layout());
                screen.event(event);
                self.seat.overhear(event);
            }
            (_, true) => self.seat.overhear(event),
            (None, false) => self.seat.feed(event),
        }
    }

    fn learn(&mut self, event: &Event) {
        if !self.is_chosen
            && let Some(layout) = self.learner.hear(event)
        {
            self.rewire(self.resolver().on(&layout));
        }
    }

    /// Closes a frame of the picture; see [`Seat::tick`].
    pub fn tick(&mut self, now: Time) {
        self.settle_keys();
        self.set_now(now);
        self.seat.tick(now);
        self.report_lost();
        self.follow_marks();
        if let Some(screen) = &mut self.screen {
            screen.tick(now);
            self.carry_out();
        }
        if let Some(keeping) = &mut self.keeping {
            keeping.tick(now);
        }
    }

    /// Lets time go by up to a moment; see [`Seat::advance`].
    pub fn advance(&mut self, to: Time) {
        self.settle_keys();
        self.seat.advance(to);
        self.follow_marks();
    }

    /// Where the actions are asked for.
    pub fn seat(&self) -> &Seat {
        &self.seat
    }

    /// The same to enter situations, spend presses or drive actions. Its rig is changed by the
    /// controls alone.
    pub fn seat_mut(&mut self) -> &mut Seat {
        &mut self.seat
    }

    /// What the player has changed, as it is played with.
    pub fn profile(&self) -> &Profile {
        &self.profile
    }

    /// The layout and platform that is played on.
    pub fn resolver(&self) -> &Resolver {
        self.seat.rig().resolver()
    }

    /// The language, and the game's titles in it.
    pub fn words(&self) -> &Words {
        &self.words
    }

    /// Changes the language of every prompt and report from here on.
    pub fn set_words(&mut self, words: &Words) {
        // These have other texts now.
        self.prompts_by_id.clear();
        match self.devices.has_marks() {
            true => self.wear(words.without_marks().clone()),
            false => self.change_words(words.clone()),
        }
    }

    fn change_words(&mut self, words: Words) {
        let prompts = self.prompts.values_mut();
        for prompt in prompts.chain(self.prompts_by_id.values_mut()) {
            prompt.set_words(&words);
        }
        if let Some(screen) = &mut self.screen {
            screen.set_words(&words);
        }
        self.words = words;
    }

    /// A line of text with bound inputs in it, see [`Prompt`]: always for the device in use, the
    /// layout, the bindings and the language of now. A text that was asked for before costs finding
    /// it again, and allocates nothing while it is current.
    ///
    /// # Errors
    /// When the text is no prompt, or names an action that the sheet does not have.
    pub fn prompt(&mut self, text: &str) -> Result<&Rendered, PromptError> {
        let prompts = &mut self.prompts;
        let make = || Prompt::new(text, &self.sheet);
        ready(prompts, text, make, &self.words).map(|p| render(p, &self.seat))
    }

    /// The same of a text of the game's own, by the id that it has in the game's Fluent file: see
    /// [`Words::with_texts`] and [`Words::text`]. It follows the language by itself.
    ///
    /// # Errors
    /// As [`Controls::prompt`]; besides, when the words have no such text.
    pub fn prompt_of(&mut self, id: &str) -> Result<&Rendered, PromptError> {
        let prompts = &mut self.prompts_by_id;
        let make = || match self.words.text(id, &[]) {
            Some(text) => Prompt::new(&text, &self.sheet),
            None => Err(PromptError::no_text(id, self.words.language())),
        };
        ready(prompts, id, make, &self.words).map(|p| render(p, &self.seat))
    }

    /// Starts editing, in the player's language and on their layout. Hand it back to
    /// [`Controls::apply`]; drop it to change nothing.
    pub fn draft(&self) -> Draft {
        let on = self.resolver().clone();
        let mut draft = Draft::new(&self.sheet, self.profile.clone(), on);
        draft.set_words(&self.words);
        draft
    }

    /// Applies what was edited, or takes over what a menu has applied already: it is played from here
    /// on, and wants saving. The draft can be edited on. What changed beneath it meanwhile stays, where
    /// the player did not change the same.
    pub fn apply(&mut self, draft: &mut Draft) {
        draft.set_layout(self.resolver().layout());
        draft.apply();
        let (base, edited) = draft.hand_over();
        let before = self.profile.clone();
        let (profile, overruled) = edited.merged(&base, &before, Newer::Ours);
        self.reports
            .extend(overruled.into_iter().map(Report::Overruled));
        // What the draft itself does has been asked about there.
        match before.has_same_settings(&base) {
            true => self.play(profile),
            false => self.play_and_report(profile),
        }
    }

    /// Chooses a layout for the player, which typing does not change any more; none has it learned
    /// again. A layout that ships is remembered in the profile, by its name.
    pub fn choose_layout(&mut self, layout: Option<&Layout>) {
        let shipped = layout.filter(|l| Layout::shipped(l.name()).as_ref() == Some(*l));
        self.profile.set_layout(shipped.map(Layout::name));
        self.is_chosen = layout.is_some();
        // What was typed before is forgotten: it may have been on another keyboard.
        self.learner = LayoutLearner::new(self.resolver().layout().clone());
        if let Some(layout) = layout {
            self.rewire(self.resolver().on(layout));
        }
    }

    /// What the system says the layout is now, for when it says another one. It is followed where the
    /// player has chosen none.
    pub fn follow_layout(&mut self, layout: &Layout) {
        if !self.is_chosen {
            self.rewire(self.resolver().on(layout));
        }
    }

    /// Plays on by another version of the sheet, as when its file was read again while the game runs: what
    /// is on, situations and settings are carried over by their names, and what is told of that is in the
    /// reports: in a debug build also which new defaults the profile hides. An open controls screen goes on,
    /// with what is not applied yet.
    pub fn follow_sheet(&mut self, sheet: &Sheet) {
        let on = self.resolver().clone();
        let carried = CarriedOver::new(sheet, &self.profile, on.clone());
        let before = self.seat.rig().clone();
        let edited = std::mem::replace(&mut self.sheet, sheet.clone());
        self.profile = carried.profile.clone();
        self.prompts.clear();
        self.prompts_by_id.clear();
        if !carried.is_empty() {
            self.reports.push(Report::CarriedOver(Box::new(carried)));
        }
        self.set_rig(on);
        self.report_news(&before);
        self.tell_hidden(&edited);
        if let Some(screen) = &mut self.screen {
            screen.set_draft(screen.draft().on_sheet(sheet));
        }
    }

    /// What there is to tell since this was asked last, in order: to show, by
    /// [`Controls::tell`], or to log.
    pub fn take_reports(&mut self) -> Vec<Report> {
        std::mem::take(&mut self.reports)
    }

    /// Puts a report, a refusal or whatever else into the player's language.
    pub fn tell(&self, what: &(impl Tell + ?Sized)) -> String {
        self.telling().tell(what)
    }

    /// What [`Controls::tell`] tells with.
    pub fn telling(&self) -> Telling<'_> {
        Telling::new(&self.words, &self.sheet, self.resolver())
    }

    /// Plays a profile from here on, on the layout that it chooses if it chooses another one.
    fn play(&mut self, profile: Profile) {
        let mut on = self.resolver().clone();
        if profile.layout() != self.profile.layout() {
            let chosen = chosen_in(&profile);
            self.is_chosen = chosen.is_some();
            if let Some(layout) = chosen {
                on = on.on(&layout);
            }
        }
        self.profile = profile;
        self.by_defaults = false;
        self.hidden.clear();
        self.set_rig(on);
        self.follow_marks();
    }

    /// The same for what the player did not do here: what it brings about is told.
    fn play_and_report(&mut self, profile: Profile) {
        if profile.has_same_settings(&self.profile) {
            // Only the stamp of the game's version: the same rig plays on.
            self.profile = profile;
            return;
        }
        let before = self.seat.rig().clone();
        self.play(profile);
        self.report_news(&before);
    }

    /// Plays on another layout, and tells what that brings about.
    fn rewire(&mut self, on: Resolver) {
        if on.layout() == self.resolver().layout() {
            return;
        }
        let before = self.seat.rig().clone();
        self.set_rig(on);
        self.report_news(&before);
    }

    fn set_rig(&mut self, on: Resolver) {
        if self.learner.layout() != on.layout() {
            self.learner = LayoutLearner::new(on.layout().clone());
        }
        self.seat.set_rig(self.wired(on));
    }

    fn report_news(&mut self, before: &Rig) {
        let now = self.seat.rig();
        if now == before {
            return;
        }
        let new = now.not_in_force().iter();
        let new = new.filter(|n| !before.not_in_force().contains(n));
        self.reports.extend(new.cloned().map(Report::NotInForce));
        // Of another sheet they are the same by their names.
        let (then, sheet) = (before.sheet(), now.sheet());
        let known = conflicts_in(before);
        let is_new = |c: &Conflict| !known.iter().any(|k| is_same((then, k), (sheet, c)));
        let met = conflicts_in(now).into_iter().filter(is_new);
        self.reports
            .extend(met.map(|c| Report::Conflict(Box::new(c))));
        let known: Vec<String> = before.notes().iter().map(|n| n.describe(then)).collect();
        let is_new = |n: &&RigNote| !known.contains(&n.describe(sheet));
        let notes = now.notes().iter().filter(is_new);
        self.reports.extend(notes.cloned().map(Report::Note));
    }
}

/// A prompt that was asked for before, or a new one. It is taken out and put back, so that nothing is
/// copied where it is known.
fn ready<'a>(
    prompts: &'a mut HashMap<String, Prompt>,
    key: &str,
    make: impl FnOnce() -> Result<Prompt, PromptError>,
    words: &Words,
) -> Result<&'a mut Prompt, PromptError> {
    let (key, prompt) = match prompts.remove_entry(key) {
        Some(known) => known,
        None => {
            let prompt = make()?.with_words(words);
            if prompts.len() >= MAX_PROMPTS {
                prompts.clear();
            }
            (key.to_owned(), prompt)
        }
    };
    Ok(prompts.entry(key).or_insert(prompt))
}

fn render<'a>(prompt: &'a mut Prompt, seat: &Seat) -> &'a Rendered {
    prompt.render(seat.rig(), seat.device_kind())
}

/// The layout that a profile chooses, if this version has it.
fn chosen_in(profile: &Profile) -> Option<Layout> {
    profile.layout().and_then(Layout::shipped)
}

fn conflicts_in(rig: &Rig) -> Vec<Conflict> {
    unsettled(rig.sheet(), rig.bindings(), rig.resolver())
}
