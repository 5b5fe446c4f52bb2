//! Editing a profile: propose, settle, undo, apply; and the rows of a menu.

mod carry;
mod edit;
mod essential;
mod listener;
mod menu;
mod merged;
mod question;

pub use carry::CarriedOver;
pub use listener::{Heard, Listener, ListenerOptions, RefusedInput};
pub use menu::{Menu, MenuCell, MenuChanges, MenuRow};
pub use merged::Merged;
pub use question::{Bind, Effect, Question, Settle, Way};

use crate::conflict::{Conflict, conflicts};
use crate::input::Chord;
use crate::layout::{Layout, Resolver};
use crate::profile::Profile;
use crate::prompt::Words;
use crate::rig::{Bound, Rig, effective_bindings, suits};
use crate::sheet::{ActionId, Cell, ColumnKind, GroupId, Row, Shape, Sheet};

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
/// let mut draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
/// let cast_off = sheet.defaults()[0].cell;
///
/// let Bind::Asks(question) = draft.bind(cast_off, Place::KeyE.into())? else {
///     panic!("KeyE is taken");
/// };
/// assert_eq!(question.describe(&sheet), "`cast-off` and `coil-rope` are both on KeyE");
/// draft.answer(question, Settle::Swap)?;
///
/// let applied = draft.apply()?;
/// let coil_rope = sheet.defaults()[1].cell;
/// assert_eq!(applied.binding_in(coil_rope).unwrap().chord, Place::Space.into());
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug)]
pub struct Draft {
    sheet: Sheet,
    on: Resolver,
    words: Words,
    applied: Profile,
    profile: Profile,
    undo: Vec<Profile>,
    redo: Vec<Profile>,
    bindings: Vec<Bound>,
}

/// Why an edit was refused; nothing has changed.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum Refusal {
    /// The sheet reserves the input.
    #[error("`{0}` is reserved by the game and cannot be bound")]
    Reserved(crate::Input),
    /// The game has no such action or arm.
    #[error("this game has no such action or arm")]
    NoSuchRow,
    /// The game has switched the action off.
    #[error("\"{0}\" is switched off in this game")]
    Off(String),
    /// The chord cannot work the cell.
    #[error("{0}")]
    DoesNotFit(String),
    /// The sheet says that the player may not change the action.
    #[error("\"{0}\" cannot be changed")]
    Fixed(String),
    /// An essential action would be left without a binding.
    #[error("\"{row}\" must keep a {kind} binding; bind it to something else first")]
    Essential {
        /// What the player reads for the action or arm.
        row: String,
        /// The devices on which it would have none.
        kind: ColumnKind,
    },
    /// That way out of the conflict is not offered.
    #[error("{0}")]
    NotOffered(String),
}

/// What a reset goes back to the defaults with.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
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
        let mut draft = Draft {
            sheet: sheet.clone(),
            on: on.into(),
            words: Words::english(),
            applied: profile.clone(),
            profile,
            undo: Vec::new(),
            redo: Vec::new(),
            bindings: Vec::new(),
        };
        draft.refresh();
        draft
    }

    /// The sheet that the profile is for.
    pub fn sheet(&self) -> &Sheet {
        &self.sheet
    }

    /// The profile as it would be applied.
    pub fn profile(&self) -> &Profile {
        &self.profile
    }

    /// The profile as it was applied last.
    pub fn applied_profile(&self) -> &Profile {
        &self.applied
    }

    /// The layout that conflicts are judged on.
    pub fn layout(&self) -> &Layout {
        self.on.layout()
    }

    /// What inputs are on that layout and the player's platform.
    pub fn resolver(&self) -> &Resolver {
        &self.on
    }

    /// Judges conflicts on another layout from here on.
    pub fn set_layout(&mut self, layout: &Layout) {
        self.on = self.on.on(layout);
    }

    /// The words in which names and changes are told.
    pub fn words(&self) -> &Words {
        &self.words
    }

    /// Tells names and changes in another language from here on.
    pub fn set_words(&mut self, words: &Words) {
        self.words = words.clone();
    }

    /// What a chord is called, in the player's language and on their layout.
    pub fn chord_name(&self, chord: &Chord) -> String {
        self.words.chord_name(chord, self.layout())
    }

    /// The bindings as they would be in force.
    pub fn bindings(&self) -> &[Bound] {
        &self.bindings
    }

    /// What stands in a cell.
    pub fn chord_in(&self, cell: Cell) -> Option<&Chord> {
        self.bindings
            .iter()
            .find(|b| b.cell == cell)
            .map(|b| &b.chord)
    }

    /// The conflicts and notices among the bindings as they would be in force.
    pub fn conflicts(&self) -> Vec<Conflict> {
        let layouts = std::slice::from_ref(self.on.layout());
        conflicts(&self.sheet, &self.bindings, layouts, self.on.platform())
    }

    /// What a listener takes for a cell: inputs for its column, none that is reserved, and whole
    /// sticks and mouse motion where the row is moved on two axes.
    pub fn listens_for(&self, cell: Cell) -> ListenerOptions {
        let shape = self.sheet.declared(cell.row.action).shape;
        let mut options = ListenerOptions::default()
            .for_columns(cell.column.kind)
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
        self.check(cell, &chord)?;
        let work = self.profile.clone();
        self.ask_or_do(Question::start(cell, chord, work))
    }

    /// Takes the chord out of a cell.
    ///
    /// # Errors
    /// When the action cannot be changed, or is essential and this is its last binding.
    pub fn unbind(&mut self, cell: Cell) -> Result<(), Refusal> {
        self.check_row(cell.row)?;
        let mut work = self.profile.clone();
        work.set(&self.sheet, cell, None);
        self.check_essential(&work)?;
        self.commit(work);
        Ok(())
    }

    /// Goes back to what the preset and the sheet say.
    ///
    /// Never refused: conflicts that it brings back are listed by [`Draft::conflicts`].
    pub fn reset(&mut self, what: Reset) {
        let mut work = self.profile.clone();
        if what == Reset::All {
            work.set_preset(None);
        }
        let cells: Vec<Cell> = work
            .changes(&self.sheet)
            .into_iter()
            .map(|(c, _)| c)
            .collect();
        for cell in cells {
            let meant = match what {
                Reset::Cell(one) => cell == one,
                Reset::Action(action) => cell.row.action == action,
                Reset::Group(group) => self.sheet.declared(cell.row.action).group == group,
                Reset::Devices(kind) => cell.column.kind == kind,
                Reset::All => true,
            };
            if meant {
                work.clear(&self.sheet, cell);
            }
        }
        self.commit(work);
    }

    /// Chooses a preset, or none; the player's own changes stay.
    pub fn choose_preset(&mut self, name: Option<&str>) {
        let mut work = self.profile.clone();
        work.set_preset(name);
        self.commit(work);
    }

    /// Takes the last edit back; `false` when there is none.
    pub fn undo(&mut self) -> bool {
        let Some(before) = self.undo.pop() else {
            return false;
        };
        self.redo.push(std::mem::replace(&mut self.profile, before));
        self.refresh();
        true
    }

    /// Makes the edit again that was taken back last; `false` when there is none.
    pub fn redo(&mut self) -> bool {
        let Some(after) = self.redo.pop() else {
            return false;
        };
        self.undo.push(std::mem::replace(&mut self.profile, after));
        self.refresh();
        true
    }

    /// Whether there is an edit to take back.
    pub fn can_undo(&self) -> bool {
        !self.undo.is_empty()
    }

    /// Whether there is an edit to make again.
    pub fn can_redo(&self) -> bool {
        !self.redo.is_empty()
    }

    /// Whether there is something to apply or discard.
    pub fn is_changed(&self) -> bool {
        self.profile != self.applied
    }

    /// What applying would change, cell by cell.
    pub fn changes(&self) -> Vec<Change> {
        let (before, _) = effective_bindings(&self.sheet, &self.applied);
        differences(&before, &self.bindings)
    }

    /// Applies the edits: from here on they count as what was there, and the new rig goes into the
    /// seat.
    ///
    /// # Errors
    /// When an essential action would be left without a binding.
    pub fn apply(&mut self) -> Result<Rig, Refusal> {
        self.check_essential(&self.profile)?;
        self.applied = self.profile.clone();
        self.undo.clear();
        self.redo.clear();
        Ok(self.rig())
    }

    /// Drops every edit since the last apply.
    pub fn discard(&mut self) {
        if self.is_changed() {
            let applied = self.applied.clone();
            self.commit(applied);
        }
    }

    /// The rig that the draft would make, for trying it out.
    pub fn rig(&self) -> Rig {
        Rig::new(&self.sheet, &self.profile, &self.on)
    }

    fn check(&self, cell: Cell, chord: &Chord) -> Result<(), Refusal> {
        self.check_row(cell.row)?;
        if let Some((input, _)) = self.on.find_related(chord, self.sheet.reserved()) {
            return Err(Refusal::Reserved(input));
        }
        suits(&self.sheet, cell, chord).map_err(Refusal::DoesNotFit)
    }

    /// The row is there, live, and the player's to change.
    fn check_row(&self, row: Row) -> Result<(), Refusal> {
        if !self.sheet.has_row(row) {
            return Err(Refusal::NoSuchRow);
        }
        if self.sheet.declared(row.action).off {
            return Err(Refusal::Off(self.sheet.row_title(row).to_owned()));
        }
        self.check_fixed(row)
    }

    fn check_fixed(&self, row: Row) -> Result<(), Refusal> {
        match self.sheet.declared(row.action).fixed {
            true => Err(Refusal::Fixed(self.sheet.row_title(row).to_owned())),
            false => Ok(()),
        }
    }

    fn check_essential(&self, profile: &Profile) -> Result<(), Refusal> {
        let (bindings, _) = effective_bindings(&self.sheet, profile);
        match essential::first_unbound(&self.sheet, &bindings) {
            Some((row, kind)) => Err(Refusal::Essential {
                row: self.sheet.row_title(row).to_owned(),
                kind,
            }),
            None => Ok(()),
        }
    }

    /// Makes an edit that can be undone.
    fn commit(&mut self, work: Profile) {
        if work != self.profile {
            self.undo.push(std::mem::replace(&mut self.profile, work));
            self.redo.clear();
            self.refresh();
        }
    }

    fn refresh(&mut self) {
        (self.bindings, _) = effective_bindings(&self.sheet, &self.profile);
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
