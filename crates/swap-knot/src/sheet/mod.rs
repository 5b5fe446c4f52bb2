//! What the game declares: actions, situations, defaults, presets; read from TOML and checked.

mod action;
mod cell;
mod feel;
mod ids;
mod mistake;
mod read;
mod shape;
mod situation;
mod switch;
mod typed;

use std::collections::HashMap;
use std::ops::Range;
use std::sync::Arc;

pub use action::{Action, Opposite, Timing};
pub use cell::{Binding, Cell, Column, ColumnError, ColumnKind, Row};
pub use feel::{DeadZone, DeadZoneForm, Feel, FeelPatch};
pub use ids::{ActionId, GroupId, SituationId};
pub use mistake::{Mistake, SheetError};
pub(crate) use read::{UNBOUND, fits};
pub use shape::{Arm, Manner, Shape};
pub use situation::{Cover, Situation};
pub use typed::{Actions, Situations, TypedError};

use crate::input::{Chord, Input};

/// What a game declares about its controls, read from its sheet.
///
/// Cheap to clone.
///
/// # Example: reading a sheet
/// ```
/// use swap_knot::Sheet;
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.horn]
///     bind = ["KeyH", "pad:north"]
/// "#)?;
/// let horn = sheet.find("horn").expect("declared above");
/// assert_eq!(sheet.action(horn).title, "Horn");
/// # Ok::<(), swap_knot::SheetError>(())
/// ```
#[derive(Clone, Debug)]
pub struct Sheet(Arc<Data>);

#[derive(Clone, Debug)]
struct Data {
    game: String,
    title: String,
    version: u32,
    groups: Vec<Group>,
    situations: Vec<Situation>,
    /// `meets[a * n + b]`: whether actions of situations `a` and `b` can be live on one input.
    meets: Vec<bool>,
    actions: Vec<Action>,
    /// The order of the file, which menus keep.
    menu_order: Vec<ActionId>,
    /// The situation that stands first in the file.
    first_situation: Option<SituationId>,
    by_name: HashMap<String, ActionId>,
    /// All defaults, ordered by cell; `ranges[action]` are those of an action.
    defaults: Vec<Binding>,
    ranges: Vec<Range<usize>>,
    reserved: Vec<Input>,
    presets: Vec<Preset>,
    renamed: Vec<(String, String)>,
    removed: Vec<String>,
}

/// A heading of the menu under which actions stand.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Group {
    /// Its name in files.
    pub name: String,
    /// What the player reads.
    pub title: String,
}

/// A named set of bindings that ships with the game.
#[derive(Clone, Debug, PartialEq)]
pub struct Preset {
    /// Its name in files.
    pub name: String,
    /// What the player reads.
    pub title: String,
    /// What each cell holds instead of its default; `None` is unbound.
    pub cells: Vec<(Cell, Option<Chord>)>,
}

impl Sheet {
    /// The largest sheet that is read, in bytes (4 MiB).
    pub const MAX_BYTES: usize = 4 << 20;
    /// The most actions a sheet can have.
    pub const MAX_ACTIONS: usize = 8192;

    /// Reads a sheet.
    ///
    /// # Errors
    /// Every mistake in the text at once, each with its line and column and what to write instead.
    pub fn from_toml(text: &str) -> Result<Sheet, SheetError> {
        read::read(&[(None, text)])
    }

    /// Reads a sheet whose mistakes are to be reported under a file name.
    ///
    /// # Errors
    /// As [`Sheet::from_toml`].
    pub fn from_toml_named(text: &str, file: &str) -> Result<Sheet, SheetError> {
        read::read(&[(Some(file), text)])
    }

    /// Reads several sheets as one: a base of common menus, say, and the game's own. Each is a file
    /// name and a text.
    ///
    /// What stands alone (`game`, `title`, `version`, feel) is as the last file says that says it;
    /// `reserved` and `removed` add up; situations, groups, actions, presets and renamed actions
    /// come together, the earlier files' first.
    ///
    /// # Errors
    /// As [`Sheet::from_toml`]; besides, a name that two files declare, with both places.
    ///
    /// ```
    /// use swap_knot::Sheet;
    ///
    /// let base = "[actions.confirm]\nbind = \"Enter\"";
    /// let own = "game = \"slack-water\"\n[actions.horn]\nbind = \"KeyH\"";
    /// let sheet = Sheet::join(&[("menus.toml", base), ("slack-water.toml", own)])?;
    /// assert_eq!(sheet.actions().len(), 2);
    /// # Ok::<(), swap_knot::SheetError>(())
    /// ```
    pub fn join(files: &[(&str, &str)]) -> Result<Sheet, SheetError> {
        let files: Vec<_> = files
            .iter()
            .map(|&(name, text)| (Some(name), text))
            .collect();
        read::read(&files)
    }

    /// The game's short name, under which profiles are kept.
    pub fn game(&self) -> &str {
        &self.0.game
    }

    /// What the player reads as the game's name.
    pub fn title(&self) -> &str {
        &self.0.title
    }

    /// The version of the controls, raised whenever actions are renamed or removed.
    pub fn version(&self) -> u32 {
        self.0.version
    }

    /// The action of that name.
    pub fn find(&self, name: &str) -> Option<ActionId> {
        self.0.by_name.get(name).copied()
    }

    /// What is declared of an action.
    ///
    /// # Panics
    /// When the id is of another sheet with more actions.
    pub fn action(&self, id: impl Into<ActionId>) -> &Action {
        &self.0.actions[id.into().index()]
    }

    /// Every action, in the order of the file, for menus and tables.
    pub fn menu(&self) -> impl Iterator<Item = (ActionId, &Action)> {
        self.0.menu_order.iter().map(|&id| (id, self.action(id)))
    }

    /// The situation that stands first in the file, in which a seat begins.
    pub fn first_situation(&self) -> Option<SituationId> {
        self.0.first_situation
    }

    /// Every action, in the order of the ids: that of the file, or of the type it was checked
    /// against.
    pub fn actions(&self) -> impl ExactSizeIterator<Item = (ActionId, &Action)> {
        let all = self.0.actions.iter().enumerate();
        all.map(|(i, action)| (ActionId::new(i as u16), action))
    }

    /// The situation of that name.
    pub fn find_situation(&self, name: &str) -> Option<SituationId> {
        let at = self.0.situations.iter().position(|s| s.name == name)?;
        Some(SituationId::new(at as u16))
    }

    /// What is declared of a situation.
    ///
    /// # Panics
    /// When the id is of another sheet with more situations.
    pub fn situation(&self, id: SituationId) -> &Situation {
        &self.0.situations[id.index()]
    }

    /// Every situation, in the order of the ids: that of the file, or of the type it was checked
    /// against.
    pub fn situations(&self) -> impl ExactSizeIterator<Item = (SituationId, &Situation)> {
        let all = self.0.situations.iter().enumerate();
        all.map(|(i, situation)| (SituationId::new(i as u16), situation))
    }

    /// The menu's headings, in the order of the file.
    pub fn groups(&self) -> &[Group] {
        &self.0.groups
    }

    /// The heading of an action.
    pub fn group(&self, id: GroupId) -> &Group {
        &self.0.groups[id.index()]
    }

    /// Every default binding, ordered by cell.
    pub fn defaults(&self) -> &[Binding] {
        &self.0.defaults
    }

    /// The default bindings of an action, ordered by cell.
    pub fn defaults_of(&self, id: ActionId) -> &[Binding] {
        &self.0.defaults[self.0.ranges[id.index()].clone()]
    }

    /// The default binding of a cell.
    pub fn default_of(&self, cell: Cell) -> Option<&Binding> {
        (self.defaults_of(cell.row.action).iter()).find(|b| b.cell == cell)
    }

    /// How the chord in a cell has to be worked, and whether it is strict.
    ///
    /// That belongs to the cell, not to the chord: a hold stays a hold on another key.
    pub fn manner_of(&self, cell: Cell) -> (Manner, bool) {
        match self.default_of(cell) {
            Some(default) => (default.manner, default.strict),
            None => (self.action(cell.row.action).manner, false),
        }
    }

    /// Inputs that may never be bound by a player.
    pub fn reserved(&self) -> &[Input] {
        &self.0.reserved
    }

    /// The presets that ship with the game.
    pub fn presets(&self) -> &[Preset] {
        &self.0.presets
    }

    /// The preset of that name.
    pub fn preset(&self, name: &str) -> Option<&Preset> {
        self.0.presets.iter().find(|p| p.name == name)
    }

    /// The name that an action has now, if the sheet says it was renamed.
    pub fn renamed(&self, old: &str) -> Option<&str> {
        let found = self.0.renamed.iter().find(|(from, _)| from == old);
        found.map(|(_, to)| to.as_str())
    }

    /// Whether the sheet says that an action of that name is gone for good.
    pub fn is_removed(&self, name: &str) -> bool {
        self.0.removed.iter().any(|n| n == name)
    }

    /// The rows of an action: the action itself where one input can work it, then its arms in the
    /// order in which the sheet declares them.
    pub fn rows_of(&self, id: ActionId) -> impl Iterator<Item = Row> + '_ {
        let shape = self.action(id).shape;
        let arms = &self.action(id).menu_arms;
        let own = (shape.whole_input() || arms.is_empty()).then_some(Row::of(id));
        own.into_iter()
            .chain(arms.iter().map(move |&arm| Row::arm(id, arm)))
    }

    /// The row that a text such as `horn` or `walk.up` names.
    pub fn find_row(&self, text: &str) -> Option<Row> {
        let (name, arm) = match text.split_once('.') {
            Some((name, arm)) => (name, Some(Arm::from_word(arm)?)),
            None => (text, None),
        };
        let action = self.find(name)?;
        match arm {
            Some(arm) if !self.action(action).arms().contains(&arm) => None,
            arm => Some(Row { action, arm }),
        }
    }

    /// The text of a row: `horn` or `walk.up`.
    pub fn row_name(&self, row: Row) -> String {
        let name = &self.action(row.action).name;
        match row.arm {
            Some(arm) => format!("{name}.{arm}"),
            None => name.clone(),
        }
    }

    /// What the player reads for a row.
    pub fn row_title(&self, row: Row) -> &str {
        let action = self.action(row.action);
        row.arm.map_or(&action.title, |arm| action.arm_title(arm))
    }

    /// Whether two actions can be live together and get the same input.
    pub fn can_meet(&self, a: ActionId, b: ActionId) -> bool {
        let (a, b) = (self.action(a), self.action(b));
        if a.off || b.off {
            return false;
        }
        if a.situations.is_empty() || b.situations.is_empty() {
            return true;
        }
        self.meeting(a, b).is_some()
    }

    /// Whether actions of two situations can be live on one input.
    pub fn situations_meet(&self, a: SituationId, b: SituationId) -> bool {
        self.0.meets[a.index() * self.0.situations.len() + b.index()]
    }

    /// Two situations, one of each action, in which both can be live on one input.
    pub fn meeting(&self, a: &Action, b: &Action) -> Option<(SituationId, SituationId)> {
        let pairs = a
            .situations
            .iter()
            .flat_map(|&x| b.situations.iter().map(move |&y| (x, y)));
        pairs.into_iter().find(|&(x, y)| {
            self.situations_meet(x, y)
                || (a.while_paused && self.situation(y).over.contains(&x))
                || (b.while_paused && self.situation(x).over.contains(&y))
        })
    }

    /// Whether two actions say that they are content to share an input.
    pub fn may_share(&self, a: ActionId, b: ActionId) -> bool {
        self.action(a).share.contains(&b) || self.action(b).share.contains(&a)
    }
}
