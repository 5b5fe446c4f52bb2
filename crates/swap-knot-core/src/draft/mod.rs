//! Editing a profile: propose, settle, undo, apply; and the rows of a menu.

mod cancel;
mod carry;
mod edit;
mod history;
mod known;
mod listener;
mod menu;
mod merged;
mod question;
mod settings;
mod summary;
mod tell;

pub(crate) use cancel::{Cancelling, cancels, cancels_by};
pub use carry::{CarriedOver, GaveWay, SetAside};
pub use listener::{Heard, Listener, ListenerOptions, RefusedInput};
pub use menu::{CannotBind, MenuCell, MenuRow};
pub use merged::Merged;
pub use question::{Bind, Effect, Question, Settle, Way};
pub use settings::SettingRow;

use self::history::History;
use self::known::Known;
use crate::input::Chord;
use crate::law::{Bound, NotInForce, Unlawful, Upheld, allows, uphold};
use crate::layout::{Layout, Resolver};
use crate::profile::{Profile, Setting, SettingValue, bind};
use crate::rig::Rig;
use crate::sheet::{
    ActionId, ActsOn, BadSetting, Cell, Column, ColumnKind, GroupId, Row, Shape, Sheet, TitledRow,
};
use crate::words::Words;

/// A profile being edited, with undo, not yet applied.
///
/// # Example: a taken key
/// ```
/// use swap_knot::{Bind, Draft, Layout, Place, Profile, Settle, Sheet};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.cast-off]
///     bind = "Space"
///     [actions.coil-rope]
///     bind = "KeyE"
/// "#)?;
/// let mut draft = Draft::new(&sheet, Profile::new("Ada"), Layout::us());
/// let cast_off = sheet.defaults()[0].cell;
///
/// let Bind::Asks(question) = draft.bind(cast_off, Place::KeyE.into())? else {
///     panic!("KeyE is taken");
/// };
/// assert_eq!(question.describe(&sheet), "`cast-off` and `coil-rope` are both on KeyE");
/// draft.answer(question, Settle::Swap)?;
///
/// let applied = draft.apply();
/// let coil_rope = sheet.defaults()[1].cell;
/// assert_eq!(applied.binding_in(coil_rope).unwrap().chord, Place::Space.into());
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug)]
pub struct Draft {
    sheet: Sheet,
    on: Resolver,
    /// The layout where the profile chooses none, and what it chooses.
    found: Layout,
    chosen: Option<String>,
    words: Words,
    /// What the profile says of things that the sheet does not have: never edited, always kept.
    rest: Profile,
    rest_not_in_force: Vec<NotInForce>,
    /// What it said of the rest when it was applied last, and says now.
    applied: Profile,
    profile: Profile,
    /// What it said when it was handed over last: whoever applies it, this is what the change is
    /// against.
    handed_over: Profile,
    history: History,
    /// What of the profile as it is now is in force.
    upheld: Upheld,
    known: Known,
    /// Counts everything that an answer worked out before may not know of.
    revision: u64,
}

/// Why an edit was refused; nothing has changed.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum Refusal {
    /// The law of the sheet does not let it stand.
    #[error(transparent)]
    Unlawful(#[from] Unlawful),
    /// A setting does not take such a value.
    #[error(transparent)]
    BadSetting(#[from] BadSetting),
    /// The row has no binding that the other one could get for its own.
    #[error("{0} has nothing to give in exchange")]
    NothingToGive(TitledRow),
    /// The sheet does not say that the two are content to share.
    #[error("the game does not let {0} and {1} share an input")]
    MayNotShare(TitledRow, TitledRow),
    /// Every column for these devices is taken.
    #[error("{row} has {} {kind} bindings already", Column::LAST)]
    Full {
        /// The row.
        row: TitledRow,
        /// The devices.
        kind: ColumnKind,
    },
}

/// What becomes of what the player has of their own when a preset is chosen over it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PlayersOwn {
    /// They stay, over those of the preset.
    Keep,
    /// They give way to those of the preset.
    Replace,
}

/// What a reset goes back to the defaults with.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum Reset {
    /// One binding.
    Cell(Cell),
    /// One action with all its arms.
    Action(ActionId),
    /// Every action under a heading.
    Group(GroupId),
    /// Every binding on some devices.
    Devices(ColumnKind),
    /// Everything, the preset included.
    All,
}

/// A cell that the draft changes.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Change {
    /// Which.
    pub cell: Cell,
    /// What it had.
    pub before: Option<Chord>,
    /// What it will have.
    pub after: Option<Chord>,
}

impl Draft {
    /// Starts editing a profile; conflicts are judged on that layout, and on this platform unless a
    /// [`Resolver`] says otherwise.
    pub fn new(sheet: &Sheet, profile: Profile, on: impl Into<Resolver>) -> Draft {
        let on = on.into();
        let (known, rest) = profile.partition(|setting| match setting {
            Setting::Unread { .. } => false,
            Setting::Bind { row, .. } => sheet.find_row(row).is_some(),
            other => other.action().is_none_or(|name| sheet.find(name).is_some()),
        });
        Draft {
            rest_not_in_force: uphold(sheet, &rest, &on).not_in_force,
            upheld: uphold(sheet, &known, &on),
            sheet: sheet.clone(),
            found: on.layout().clone(),
            chosen: known.layout().map(str::to_owned),
            on,
            words: Words::english(),
            rest,
            applied: known.clone(),
            handed_over: known.clone(),
            profile: known,
            history: History::default(),
            known: Known::default(),
            revision: 0,
        }
    }

    /// What would be to do to make one profile another: the one is what was applied, and the other what
    /// was edited since.
    ///
    /// ```
    /// use swap_knot::{Draft, Layout, Place, Profile, Sheet};
    ///
    /// let sheet = Sheet::from_toml("game = \"x\"\n[actions.horn]\nbind = \"KeyH\"")?;
    /// let (one, mut other) = (Profile::default(), Profile::default());
    /// let horn = sheet.find("horn").expect("it is declared");
    /// other.set(&sheet, sheet.defaults_of(horn)[0].cell, Some(Place::KeyG.into()));
    /// let change = Draft::between(&sheet, one, other, Layout::us());
    /// assert_eq!(change.summary(), ["Horn: G (was H)"]);
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn between(sheet: &Sheet, one: Profile, other: Profile, on: impl Into<Resolver>) -> Draft {
        let on = on.into();
        let mut draft = Draft::new(sheet, one, on.clone());
        draft.take_over(Draft::new(sheet, other, on).profile);
        draft
    }

    /// The same on another version of the sheet: what was applied and what was edited since, carried over
    /// by their names. What can be undone begins anew.
    pub(crate) fn on_sheet(&self, sheet: &Sheet) -> Draft {
        let carry = |profile: Profile| CarriedOver::new(sheet, &profile, self.on.clone()).profile;
        let mut draft = Draft::new(sheet, carry(self.applied_profile()), self.on.clone());
        draft.found = self.found.clone();
        draft.words = self.words.clone();
        let edited = Draft::new(sheet, carry(self.profile()), self.on.clone());
        if edited.profile != draft.profile {
            draft.take_over(edited.profile);
        }
        draft
    }

    /// The sheet that the profile is for.
    pub fn sheet(&self) -> &Sheet {
        &self.sheet
    }

    /// The profile as it would be applied, with everything that it kept.
    pub fn profile(&self) -> Profile {
        self.rest.clone().with(&self.profile)
    }

    /// The profile as it was applied last.
    pub fn applied_profile(&self) -> Profile {
        self.rest.clone().with(&self.applied)
    }

    /// What of the profile is not in force, and why; it is kept all the same.
    pub fn not_in_force(&self) -> impl Iterator<Item = &NotInForce> {
        self.upheld
            .not_in_force
            .iter()
            .chain(&self.rest_not_in_force)
    }

    /// What the profile has in a cell that is not in force, and why.
    pub fn not_in_force_in(&self, cell: Cell) -> Option<&NotInForce> {
        let setting = bind(&self.sheet, cell);
        let mut all = self.upheld.not_in_force.iter();
        all.find(|n| n.setting == setting)
    }

    /// The layout that conflicts are judged on.
    pub fn layout(&self) -> &Layout {
        self.on.layout()
    }

    /// What inputs are on that layout and the player's platform.
    pub fn resolver(&self) -> &Resolver {
        &self.on
    }

    /// Judges the profile and its conflicts on another layout from here on: one that was found, so
    /// that a layout that the profile chooses goes before it.
    pub fn set_layout(&mut self, layout: &Layout) {
        self.found = layout.clone();
        let chosen = self.profile.layout().and_then(Layout::shipped);
        let layout = chosen.as_ref().unwrap_or(layout);
        if self.on.layout() != layout {
            self.on = self.on.on(layout);
            self.judge();
        }
    }

    /// The words in which names and changes are told.
    pub fn words(&self) -> &Words {
        &self.words
    }

    /// Tells names and changes in another language from here on.
    pub fn set_words(&mut self, words: &Words) {
        self.words = words.clone();
    }

    /// What the player reads for an action or an arm of it.
    pub fn row_title(&self, row: Row) -> String {
        self.words.row_title(&self.sheet, row)
    }

    /// What the player reads for a heading of the menu.
    pub fn group_title(&self, group: GroupId) -> String {
        self.words.group_title(&self.sheet, group)
    }

    /// What a chord is called, in the player's language and on their layout.
    pub fn chord_name(&self, chord: &Chord) -> String {
        self.telling().chord(chord)
    }

    /// The bindings as they would be in force.
    pub fn bindings(&self) -> &[Bound] {
        &self.upheld.bindings
    }

    /// What stands in a cell.
    pub fn chord_in(&self, cell: Cell) -> Option<&Chord> {
        let all = self.bindings();
        let at = all.binary_search_by_key(&cell, |b| b.cell).ok()?;
        Some(&all[at].chord)
    }

    /// What a listener takes for a cell: inputs for its column, none that is reserved, and whole
    /// sticks and mouse motion where the row is moved on two axes.
    pub fn listens_for(&self, cell: Cell) -> ListenerOptions {
        let shape = self.sheet.declared(cell.row.action).shape;
        let mut options = ListenerOptions::default()
            .for_columns(cell.column.kind())
            .with_reserved(self.sheet.reserved())
            .with_keys(&self.on);
        options.planes = cell.row.arm.is_none() && shape == Shape::Plane;
        options
    }

    /// Puts a chord into a cell, or asks how to settle the conflict that it would make.
    ///
    /// # Errors
    /// When the chord cannot work the cell, is reserved, or the action cannot be changed.
    pub fn bind(&mut self, cell: Cell, chord: Chord) -> Result<Bind, Refusal> {
        self.check(cell, Some(&chord))?;
        let work = self.profile.clone();
        self.ask_or_do(Question::start(cell, chord, work, self.revision))
    }

    /// Takes the chord out of a cell.
    ///
    /// # Errors
    /// When the action cannot be changed, or is essential and this is its last binding.
    pub fn unbind(&mut self, cell: Cell) -> Result<(), Refusal> {
        self.check(cell, None)?;
        let mut work = self.profile.clone();
        work.set(&self.sheet, cell, None);
        if work == self.profile
            && let Some(already) = self.not_in_force_in(cell)
        {
            return Err(already.why.clone().into());
        }
        self.commit(work)
    }

    /// Goes back to what the preset and the sheet say: bindings, feel and toggles.
    ///
    /// Conflicts that it brings back are listed by [`Draft::conflicts`].
    ///
    /// # Errors
    /// When an essential action would be left without a binding: where a single cell goes back that
    /// the player has bound to make up for another one.
    pub fn reset(&mut self, what: Reset) -> Result<(), Refusal> {
        let mut work = self.profile.clone();
        let own = |action: &str, meant: &dyn Fn(ActionId) -> bool| {
            self.sheet.find(action).is_some_and(meant)
        };
        let group = |id: ActionId, group| self.sheet.declared(id).group == group;
        for (setting, _) in self.profile.settings() {
            let meant = match (what, setting) {
                (
                    _,
                    Setting::Title | Setting::Layout | Setting::Family | Setting::Unread { .. },
                ) => false,
                (Reset::All, _) => true,
                (_, Setting::Preset) => false,
                (Reset::Cell(cell), setting) => *setting == bind(&self.sheet, cell),
                (Reset::Devices(kind), Setting::Bind { column, .. }) => column.kind() == kind,
                (Reset::Devices(of), Setting::Parameter { scope, .. }) => match scope.on {
                    ActsOn::Inputs(kind) => ColumnKind::of(kind) == of,
                    ActsOn::Zone(_) => of == ColumnKind::Touch,
                    ActsOn::Actions => false,
                },
                (Reset::Action(id), setting) => setting
                    .action()
                    .is_some_and(|name| own(name, &|other| other == id)),
                (Reset::Group(of), setting) => setting
                    .action()
                    .is_some_and(|name| own(name, &|id| group(id, of))),
            };
            if meant {
                work.put(setting.clone(), None);
            }
        }
        self.commit(work)
    }

    /// Whether there is something of the player's that [`Reset::All`] would take back.
    pub fn can_reset(&self) -> bool {
        !self.profile.is_unchanged()
    }

    /// Whether the player has something of their own that a preset, or having none, would be chosen
    /// over: that asks. It is any binding, and what the preset sets beside them.
    pub fn has_own_over_preset(&self, name: Option<&str>) -> bool {
        let mut settings = self.profile.settings();
        settings.any(|(s, _)| self.is_over_preset(s, name))
    }

    /// Whether a setting of the player's has something of a preset under it.
    fn is_over_preset(&self, setting: &Setting, name: Option<&str>) -> bool {
        let preset = name.and_then(|name| self.sheet.preset(name));
        match setting {
            Setting::Bind { .. } => true,
            Setting::Parameter { scope, parameter } => preset.is_some_and(|preset| {
                let mut sets = preset.settings.iter();
                sets.any(|(of, set)| of.on == scope.on && set.get(*parameter).is_some())
            }),
            _ => false,
        }
    }

    /// Whether the player has something of their own in a cell, if only that it is empty.
    pub fn has_own(&self, cell: Cell) -> bool {
        self.profile.setting(&bind(&self.sheet, cell)).is_some()
    }

    /// Chooses a preset, or none.
    ///
    /// # Errors
    /// When the game has no such preset, or an essential action would be left without a binding.
    pub fn choose_preset(&mut self, name: Option<&str>, mine: PlayersOwn) -> Result<(), Refusal> {
        let mut work = self.profile.clone();
        work.set_preset(name);
        if mine == PlayersOwn::Replace {
            (work, _) = work.partition(|s| !self.is_over_preset(s, name));
        }
        self.commit(work)
    }

    /// Chooses a layout that ships, by its name, or has it found and learned again. The draft judges
    /// by it at once: what meets or is not in force on it is listed as ever. Undo brings the old one
    /// back.
    pub fn choose_layout(&mut self, name: Option<&str>) {
        let mut work = self.profile.clone();
        work.set_layout(name);
        if work != self.profile {
            self.take_over(work);
        }
    }

    /// Chooses the family whose marks the player's pads have, by its name, or leaves it to what the
    /// pad in hand says it is.
    pub fn choose_family(&mut self, name: Option<&str>) {
        let mut work = self.profile.clone();
        work.set_family(name);
        if work != self.profile {
            self.take_over(work);
        }
    }

    /// The family that is chosen, by name.
    pub fn family(&self) -> Option<&str> {
        self.profile.family()
    }

    /// Puts chords into several cells at once, or takes them out: one step for undo. Conflicts that it
    /// makes are not asked about but listed by [`Draft::conflicts`].
    ///
    /// # Errors
    /// When one of them cannot stand there; nothing has changed then.
    pub fn rebind(&mut self, cells: &[(Cell, Option<Chord>)]) -> Result<(), Refusal> {
        let mut work = self.profile.clone();
        for (cell, chord) in cells {
            self.check(*cell, chord.as_ref())?;
            work.set(&self.sheet, *cell, chord.clone());
        }
        self.commit(work)
    }

    /// Whether there is something to apply or discard.
    pub fn is_changed(&self) -> bool {
        self.profile != self.applied
    }

    /// What applying would change, cell by cell.
    pub fn changes(&self) -> Vec<Change> {
        differences(self.applied_bindings(), self.bindings())
    }

    /// Applies the edits: from here on they count as what was there, and the new rig goes into the
    /// seat.
    pub fn apply(&mut self) -> Rig {
        self.applied = self.profile.clone();
        self.known = Known::default();
        self.history = History::default();
        self.rig()
    }

    /// Hands over what is applied, to whoever plays and keeps it: what it was against, and what it
    /// is.
    pub(crate) fn hand_over(&mut self) -> (Profile, Profile) {
        let base = std::mem::replace(&mut self.handed_over, self.applied.clone());
        (self.rest.clone().with(&base), self.applied_profile())
    }

    /// Leaves some settings to the game again, whichever they are: one step to be undone.
    ///
    /// # Errors
    /// When what the game has there cannot stand beside the rest.
    pub fn forget<'s>(
        &mut self,
        settings: impl IntoIterator<Item = &'s Setting>,
    ) -> Result<(), Refusal> {
        let mut work = self.profile.clone();
        settings.into_iter().for_each(|s| work.forget(s));
        self.commit(work)
    }

    /// Drops every edit since the last apply; that can be undone.
    pub fn discard(&mut self) {
        if self.is_changed() {
            let applied = self.applied.clone();
            self.take_over(applied);
        }
    }

    /// Counts what changes: while it stays, everything that was worked out of the draft holds.
    pub(crate) const fn revision(&self) -> u64 {
        self.revision
    }

    /// Whether applying would change a setting.
    pub(crate) fn changes_setting(&self, setting: &Setting) -> bool {
        self.applied.setting(setting) != self.profile.setting(setting)
    }

    /// The rig that the draft would make, for trying it out.
    pub fn rig(&self) -> Rig {
        let own = &self.upheld;
        let mut upheld = own.clone();
        upheld
            .not_in_force
            .extend_from_slice(&self.rest_not_in_force);
        Rig::of(&self.sheet, &self.profile, &upheld, self.on.clone())
    }

    /// Whether a chord, or nothing, may stand in a cell.
    fn check(&self, cell: Cell, chord: Option<&Chord>) -> Result<(), Refusal> {
        if !self.sheet.has_row(cell.row) {
            return Err(Unlawful::NoSuchRow.into());
        }
        let (setting, value) = (bind(&self.sheet, cell), SettingValue::Chord(chord.cloned()));
        Ok(allows(&self.sheet, &setting, &value, &self.on)?)
    }

    /// What the law has against an edit that it has not against the profile as it is.
    fn objection(&self, upheld: &Upheld) -> Option<Unlawful> {
        let known = &self.upheld.not_in_force;
        let mut new = upheld.not_in_force.iter().filter(|n| !known.contains(n));
        new.next().map(|n| n.why.clone())
    }

    /// Makes an edit that can be undone, if the law lets it stand.
    fn commit(&mut self, work: Profile) -> Result<(), Refusal> {
        if work != self.profile {
            let upheld = uphold(&self.sheet, &work, &self.on);
            if let Some(why) = self.objection(&upheld) {
                return Err(why.into());
            }
            self.take_over(work);
        }
        Ok(())
    }

    fn take_over(&mut self, work: Profile) {
        self.history.note(&self.profile, &work);
        self.profile = work;
        self.judge();
    }

    fn judge(&mut self) {
        if self.profile.layout() != self.chosen.as_deref() {
            self.chosen = self.profile.layout().map(str::to_owned);
            let chosen = self.chosen.as_deref().and_then(Layout::shipped);
            self.on = self.on.on(chosen.as_ref().unwrap_or(&self.found));
        }
        self.upheld = uphold(&self.sheet, &self.profile, &self.on);
        self.known = Known::default();
        self.revision += 1;
    }
}

/// The cells in which two sets of bindings differ; both are ordered by cell.
fn differences(before: &[Bound], after: &[Bound]) -> Vec<Change> {
    let mut cells: Vec<Cell> = before.iter().chain(after).map(|b| b.cell).collect();
    cells.sort_unstable();
    cells.dedup();
    let chord = |in_: &[Bound], cell| {
        let at = in_.binary_search_by_key(&cell, |b: &Bound| b.cell).ok()?;
        Some(in_[at].chord.clone())
    };
    cells
        .into_iter()
        .map(|cell| Change {
            cell,
            before: chord(before, cell),
            after: chord(after, cell),
        })
        .filter(|c| c.before != c.after)
        .collect()
}
