//! What the game declares: actions, situations, defaults, presets; read from TOML and checked.

mod action;
mod cell;
mod essential;
mod ids;
mod manners;
mod meet;
mod mistake;
mod print;
mod read;
mod refs;
mod rust;
pub(crate) mod settings;
mod shape;
mod situation;
mod switch;
mod typed;
mod works;

use std::collections::{BTreeMap, BTreeSet, HashMap};
use std::ops::Range;
use std::sync::Arc;

pub use crate::text::Mistake;
pub use action::{Action, Opposite};
pub use cell::{Binding, Cell, Column, ColumnError, ColumnKind, How, Row, TitledRow};
pub(crate) use essential::lacking;
pub(crate) use ids::Stamp;
pub use ids::{ActionId, GroupId, SituationId};
pub use manners::Manner;
pub(crate) use manners::{Begins, Gesture};
pub use mistake::SheetError;
pub(crate) use read::{UNBOUND, setting, titled};
pub use refs::{ActionRef, RowRef, SituationRef};
pub use settings::{
    ActsOn, BadSetting, DeadZone, DeadZoneForm, Easing, Feel, Parameter, ParameterPart,
    ParameterValue, Parameters, Scope, Settings,
};
pub(crate) use settings::{LOOSE, Slider};
pub use shape::{Arm, Shape};
pub use situation::{Cover, Situation};
pub use typed::{Actions, Situations, TypedError};
pub use works::Misfit;
pub(crate) use works::{Works, can_work, fits_cell, works};

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
/// assert_eq!(sheet.action(horn).expect("it is of this sheet").title, "Horn");
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Clone, Debug)]
pub struct Sheet(Arc<Data>);

#[derive(Clone, Debug)]
struct Data {
    /// The files it was read from, so that mods can be laid over them.
    files: Vec<File>,
    /// That of the names of actions and situations.
    stamp: Stamp,
    /// Where the actions of the type are that it was checked against.
    typed: Vec<u16>,
    game: String,
    title: String,
    version: u32,
    groups: Vec<Group>,
    situations: Vec<Situation>,
    actions: Vec<Action>,
    by_name: HashMap<String, ActionId>,
    /// All defaults, ordered by cell; `ranges[action]` are those of an action.
    defaults: Vec<Binding>,
    ranges: Vec<Range<usize>>,
    reserved: Vec<Input>,
    presets: Vec<Preset>,
    /// What it sets for all actions, which every action's own lies over.
    settings: Settings,
    renamed: Vec<(String, String)>,
    removed: Vec<String>,
    known: Vec<String>,
}

/// A file that a sheet is read from.
#[derive(Clone, Debug)]
struct File {
    name: Option<String>,
    text: String,
    /// A mod's file, named after the mod: it may add names of its own, and nothing else.
    is_mod: bool,
}

impl File {
    fn own(name: Option<&str>, text: &str) -> File {
        let (name, text) = (name.map(str::to_owned), text.to_owned());
        File {
            name,
            text,
            is_mod: false,
        }
    }
}

/// A heading of the menu under which actions stand.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Group {
    /// Its name in files.
    pub name: String,
    /// What the player reads.
    pub title: String,
}

/// A named set of bindings and settings that ships with the game.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Preset {
    /// Its name in files.
    pub name: String,
    /// What the player reads.
    pub title: String,
    /// What each cell holds instead of its default; `None` is unbound.
    pub cells: Vec<(Cell, Option<Chord>)>,
    /// What it sets beside the bindings.
    pub settings: BTreeMap<Scope, Parameters>,
}

impl Sheet {
    /// The largest sheet that is read, in bytes (4 MiB).
    pub const MAX_BYTES: usize = 4 << 20;
    /// The most actions a sheet can have.
    pub const MAX_ACTIONS: usize = 8192;
    /// The most presets a sheet can have: each of them is played and judged as a whole.
    pub const MAX_PRESETS: usize = 256;

    /// Reads a sheet.
    ///
    /// # Errors
    /// Every mistake in the text at once, each with its line and column and what to write instead.
    pub fn from_toml(text: &str) -> Result<Sheet, SheetError> {
        read::read(vec![File::own(None, text)])
    }

    /// Reads a sheet whose mistakes are to be reported under a file name.
    ///
    /// # Errors
    /// As [`Sheet::from_toml`].
    pub fn from_toml_named(text: &str, file: &str) -> Result<Sheet, SheetError> {
        read::read(vec![File::own(Some(file), text)])
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
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn join(files: &[(&str, &str)]) -> Result<Sheet, SheetError> {
        let own = files
            .iter()
            .map(|&(name, text)| File::own(Some(name), text));
        read::read(own.collect())
    }

    /// The sheet with what mods add to it. Each mod is a name and the text of a sheet.
    ///
    /// A mod declares situations, groups, actions and presets, all named after itself: the mod `fog`
    /// the action `fog-whistle`. It reaches those of the game by name, and cannot loosen the game's
    /// rules: it reserves and renames nothing, has no fixed actions, and shares inputs with no action
    /// of the game. The game's typed actions stay what they are; the mod's are reached by name.
    ///
    /// # Errors
    /// As [`Sheet::join`], and what a mod may not say, with its place; the mod's name stands for the
    /// file.
    ///
    /// ```
    /// use swap_knot::Sheet;
    ///
    /// let game = Sheet::from_toml("game = \"slack-water\"\nreserved = \"F12\"\n[actions.horn]\nbind = \"KeyH\"")?;
    /// let sheet = game.with_mods(&[("fog", "[actions.fog-whistle]\nbind = \"KeyJ\"")])?;
    /// assert!(sheet.find("fog-whistle").is_some());
    ///
    /// let greedy = game.with_mods(&[("fog", "[actions.fog-whistle]\nbind = \"F12\"\nfixed = true")]);
    /// assert_eq!(
    ///     greedy.unwrap_err().to_string(),
    ///     "fog:3:1: a mod has no fixed actions; take `fixed` out",
    /// );
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn with_mods(&self, mods: &[(&str, &str)]) -> Result<Sheet, SheetError> {
        let mods = mods.iter().map(|&(name, text)| File {
            is_mod: true,
            ..File::own(Some(name), text)
        });
        let files = self.0.files.iter().cloned().chain(mods);
        let mut sheet = read::read(files.collect())?;
        // What a mod adds comes after the game's own, so that the type fits as before, and what was
        // switched off or on stays so.
        if let Some(data) = Arc::get_mut(&mut sheet.0) {
            data.typed.clone_from(&self.0.typed);
            for (action, before) in data.actions.iter_mut().zip(&self.0.actions) {
                action.off = before.off;
            }
        }
        Ok(sheet)
    }

    /// The game's short name, under which profiles are kept.
    pub fn game(&self) -> &str {
        &self.0.game
    }

    /// What the player reads as the game's name.
    pub fn title(&self) -> &str {
        &self.0.title
    }

    /// What of the notices of a check is known, by their names: see [`Forgotten::ids`](crate::check::Forgotten::ids),
    /// [`Finding::id`](crate::check::Finding::id) and [`Conflict::id`](crate::remap::Conflict::id).
    pub fn known(&self) -> &[String] {
        &self.0.known
    }

    /// The version of the controls, raised whenever actions are renamed or removed.
    pub fn version(&self) -> u32 {
        self.0.version
    }

    /// The action of that name.
    pub fn find(&self, name: &str) -> Option<ActionId> {
        self.0.by_name.get(name).copied()
    }

    /// What is declared of an action; none where the sheet does not have it.
    pub fn action(&self, action: impl Into<ActionRef>) -> Option<&Action> {
        self.index_of(action.into()).map(|i| &self.0.actions[i])
    }

    /// What is declared of an action; of another sheet's, that it is off.
    pub(crate) fn declared(&self, id: ActionId) -> &Action {
        match id.of(self.0.stamp) {
            Some(index) => &self.0.actions[index],
            None => Action::unknown(),
        }
    }

    /// The id of the action at a position.
    pub(crate) fn action_id(&self, index: usize) -> ActionId {
        ActionId::new(index as u16, self.0.stamp)
    }

    /// Tells ids of this sheet from those of others.
    pub(crate) fn stamp(&self) -> Stamp {
        self.0.stamp
    }

    /// The situation that stands first, in which a seat begins.
    pub fn first_situation(&self) -> Option<SituationId> {
        self.situations().next().map(|(id, _)| id)
    }

    /// Every action, in the order of the file.
    pub fn actions(&self) -> impl ExactSizeIterator<Item = (ActionId, &Action)> {
        let all = self.0.actions.iter().enumerate();
        all.map(|(i, action)| (self.action_id(i), action))
    }

    /// The situation of that name.
    pub fn find_situation(&self, name: &str) -> Option<SituationId> {
        let at = self.0.situations.iter().position(|s| s.name == name)?;
        Some(SituationId::new(at as u16, self.0.stamp))
    }

    /// What is declared of a situation; none where the sheet does not have it.
    pub fn situation(&self, situation: impl Into<SituationRef>) -> Option<&Situation> {
        let id = self.situation_id_of(situation)?;
        self.0.situations.get(id.index())
    }

    /// What is declared of a situation; of another sheet's, that it lies over nothing.
    pub(crate) fn declared_situation(&self, id: SituationId) -> &Situation {
        let found = id.of(self.0.stamp).and_then(|i| self.0.situations.get(i));
        found.unwrap_or_else(|| Situation::unknown())
    }

    /// Every situation, in the order of the file.
    pub fn situations(&self) -> impl ExactSizeIterator<Item = (SituationId, &Situation)> {
        let all = self.0.situations.iter().enumerate();
        all.map(|(i, situation)| (SituationId::new(i as u16, self.0.stamp), situation))
    }

    /// The menu's headings, in the order of the file.
    pub fn groups(&self) -> &[Group] {
        &self.0.groups
    }

    /// The heading of an action; none where the sheet does not have it.
    pub fn group(&self, id: GroupId) -> Option<&Group> {
        self.0.groups.get(id.of(self.0.stamp)?)
    }

    /// What the player reads for a heading.
    pub fn group_title(&self, id: GroupId) -> &str {
        self.group(id).map_or("?", |g| g.title.as_str())
    }

    /// Every default binding, ordered by cell.
    pub fn defaults(&self) -> &[Binding] {
        &self.0.defaults
    }

    /// Every input that actions which are on are bound to, by default or in a preset.
    pub fn inputs(&self) -> BTreeSet<Input> {
        let is_on = |row: Row| !self.declared(row.action).off;
        let defaults = self.defaults().iter().map(|b| (b.cell, &b.chord));
        let presets = self.presets().iter().flat_map(|p| &p.cells);
        let presets = presets.filter_map(|(cell, chord)| Some((*cell, chord.as_ref()?)));
        let all = defaults.chain(presets).filter(|(cell, _)| is_on(cell.row));
        all.flat_map(|(_, chord)| chord.inputs()).collect()
    }

    /// The default bindings of an action, ordered by cell; none of what the sheet does not have.
    pub fn defaults_of(&self, action: impl Into<ActionRef>) -> &[Binding] {
        let range = self
            .index_of(action.into())
            .map(|i| self.0.ranges[i].clone());
        range.map_or(&[], |range| &self.0.defaults[range])
    }

    /// The default binding of a cell.
    pub fn default_of(&self, cell: Cell) -> Option<&Binding> {
        (self.defaults_of(cell.row.action).iter()).find(|b| b.cell == cell)
    }

    /// How the chord in a cell has to be worked.
    ///
    /// That belongs to the cell, not to the chord: a hold stays a hold on another key.
    pub fn how_of(&self, cell: Cell) -> How {
        match self.default_of(cell) {
            Some(default) => default.how(),
            None => How {
                manner: self.declared(cell.row.action).manner,
                ..How::default()
            },
        }
    }

    /// Whether two cells of a row hold the same: one chord, worked the same way, which no row has twice.
    pub(crate) fn holds_twice(&self, (a, x): (Cell, &Chord), (b, y): (Cell, &Chord)) -> bool {
        let is_row = a.row == b.row && a != b;
        is_row && x == y && self.how_of(a).manner == self.how_of(b).manner
    }

    /// Inputs that may never be bound by a player.
    pub fn reserved(&self) -> &[Input] {
        &self.0.reserved
    }

    /// What it sets for all actions.
    pub fn settings(&self) -> &Settings {
        &self.0.settings
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
        let (shape, arms) = (self.declared(id).shape, &self.declared(id).menu_arms);
        let own = (self.has_row(Row::of(id)) && (shape.whole_input() || arms.is_empty()))
            .then_some(Row::of(id));
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
            Some(arm) if !self.declared(action).arms().contains(&arm) => None,
            arm => Some(Row { action, arm }),
        }
    }

    /// The text of a row: `horn` or `walk.up`.
    pub fn row_name(&self, row: Row) -> String {
        let name = &self.declared(row.action).name;
        match row.arm {
            Some(arm) => format!("{name}.{arm}"),
            None => name.clone(),
        }
    }

    /// What the player reads for a row.
    pub fn row_title(&self, row: Row) -> &str {
        let action = self.declared(row.action);
        row.arm.map_or(&action.title, |arm| action.arm_title(arm))
    }

    /// A row with its title.
    pub fn titled(&self, row: Row) -> TitledRow {
        TitledRow {
            row,
            title: self.row_title(row).to_owned(),
        }
    }

    /// Whether two actions say that they are content to share an input.
    pub fn may_share(&self, a: impl Into<ActionRef>, b: impl Into<ActionRef>) -> bool {
        let (Some(a), Some(b)) = (self.id_of(a), self.id_of(b)) else {
            return false;
        };
        self.declared(a).share.contains(&b) || self.declared(b).share.contains(&a)
    }
}
