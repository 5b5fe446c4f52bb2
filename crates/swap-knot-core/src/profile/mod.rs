//! What the player changed, and nothing else.

mod file;
mod merge;
mod setting;
mod tell;

use std::borrow::Cow;
use std::collections::BTreeMap;

pub use file::ProfileError;
pub use merge::{Newer, Overruled};
pub use setting::{Setting, SettingValue, Unread};

use self::setting::Paths;

use crate::input::Chord;
use crate::sheet::{BadSetting, Cell, Parameter, Parameters, Scope, Sheet};
use crate::text::shown;

/// What one player changed: only differences from the sheet.
///
/// Rows are kept by name, so that a profile outlives the version of the game that wrote it: names
/// that the sheet does not know are kept and written back. Whatever a profile says, it plays by the
/// law of the sheet: see [`Rig::not_in_force`](crate::Rig::not_in_force).
///
/// ```
/// use swap_knot::{Place, Profile, Sheet};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.horn]
///     bind = "KeyH"
/// "#)?;
/// let mut profile = Profile::new("Ada");
/// let cell = sheet.defaults()[0].cell;
/// profile.set(&sheet, cell, Some(Place::KeyG.into()));
/// assert!(profile.to_toml().contains("keyboard-1 = \"KeyG\""));
///
/// profile.set(&sheet, cell, Some(Place::KeyH.into())); // the default again
/// assert!(profile.is_unchanged());
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Profile {
    game: Option<String>,
    sheet_version: Option<u32>,
    /// What the defaults of that sheet were, by [`Sheet::print_of_defaults`].
    defaults: Option<u64>,
    settings: BTreeMap<Setting, SettingValue>,
}

impl Profile {
    /// A profile in which nothing is changed.
    pub fn new(title: impl Into<String>) -> Profile {
        let mut profile = Profile::default();
        profile.set_title(title);
        profile
    }

    /// What the player called it.
    pub fn title(&self) -> &str {
        self.text(&Setting::Title).unwrap_or_default()
    }

    /// The same, fit to stand in a list: on one line, without what would turn round or work what it
    /// stands in, and no longer than 80 characters. It may come from a friend.
    pub fn shown_title(&self) -> Cow<'_, str> {
        shown(self.title())
    }

    /// Gives it another title.
    pub fn set_title(&mut self, title: impl Into<String>) {
        let title = Some(title.into()).filter(|t| !t.is_empty());
        self.put(Setting::Title, title.map(SettingValue::Text));
    }

    /// The preset that the player chose, by name.
    pub fn preset(&self) -> Option<&str> {
        self.text(&Setting::Preset)
    }

    /// Chooses a preset, or none.
    pub fn set_preset(&mut self, name: Option<&str>) {
        let name = name.map(|n| SettingValue::Text(n.to_owned()));
        self.put(Setting::Preset, name);
    }

    /// The layout that the player chose, by name.
    pub fn layout(&self) -> Option<&str> {
        self.text(&Setting::Layout)
    }

    /// Chooses a layout, or leaves it to be found.
    pub fn set_layout(&mut self, name: Option<&str>) {
        let name = name.map(|n| SettingValue::Text(n.to_owned()));
        self.put(Setting::Layout, name);
    }

    /// The family whose marks the player chose for their pads, by name.
    pub fn family(&self) -> Option<&str> {
        self.text(&Setting::Family)
    }

    /// Chooses a family, or leaves it to what the pad in hand says it is.
    pub fn set_family(&mut self, name: Option<&str>) {
        let name = name.map(|n| SettingValue::Text(n.to_owned()));
        self.put(Setting::Family, name);
    }

    /// The newest version of the sheet that it was saved under.
    pub fn sheet_version(&self) -> Option<u32> {
        self.sheet_version
    }

    /// The game it was saved for.
    pub fn game(&self) -> Option<&str> {
        self.game.as_deref()
    }

    /// Whether it changes no binding, no preset, and no number, switch or time of any sheet.
    pub fn is_unchanged(&self) -> bool {
        let told = |s: &Setting| {
            matches!(
                s,
                Setting::Title | Setting::Layout | Setting::Family | Setting::Unread { .. }
            )
        };
        self.settings.keys().all(told)
    }

    /// Everything that it sets, in an order that stays.
    pub fn settings(&self) -> impl Iterator<Item = (&Setting, &SettingValue)> {
        self.settings.iter()
    }

    /// What a setting is set to; none where it is left to the game.
    pub fn setting(&self, setting: &Setting) -> Option<&SettingValue> {
        self.settings.get(setting)
    }

    /// What the player set of the settings of a scope.
    pub fn parameters(&self, scope: impl Into<Scope>) -> Parameters {
        let scope = &scope.into();
        let mut out = Parameters::new();
        let mut all = Parameter::of(scope.on);
        let Some(first) = all.next() else {
            return out;
        };
        let own = self.settings.range(parameter_of(scope, first)..);
        for (setting, value) in own {
            match (setting, value) {
                (Setting::Parameter { scope: of, .. }, _) if of != scope => break,
                (Setting::Parameter { parameter, .. }, SettingValue::Parameter(value)) => {
                    out.set(*parameter, Some(*value));
                }
                _ => break,
            }
        }
        out
    }

    /// Sets the settings of a scope; what is not set goes back to the game's.
    ///
    /// # Errors
    /// When one has a value that it does not take, or is nothing that can be set there; nothing has
    /// changed then.
    pub fn set_parameters(
        &mut self,
        scope: impl Into<Scope>,
        to: &Parameters,
    ) -> Result<(), BadSetting> {
        let scope = &scope.into();
        to.check()?;
        if let Some((parameter, _)) = to.iter().find(|(p, _)| !p.fits(scope.on)) {
            return Err(BadSetting::Misplaced { parameter });
        }
        for parameter in Parameter::of(scope.on) {
            let value = to.get(parameter).map(SettingValue::Parameter);
            self.put(parameter_of(scope, parameter), value);
        }
        Ok(())
    }

    /// What it puts into a cell: `None` if it leaves the cell alone, `Some(None)` for unbound.
    pub fn get(&self, sheet: &Sheet, cell: Cell) -> Option<Option<&Chord>> {
        match self.settings.get(&bind(sheet, cell))? {
            SettingValue::Chord(chord) => Some(chord.as_ref()),
            SettingValue::GaveWay(to) => (self.under(sheet, cell) == Some(to)).then_some(None),
            _ => None,
        }
    }

    /// Puts a chord into a cell, or unbinds it. What the preset or the sheet says there anyway is
    /// not kept; a row of another sheet means nothing.
    pub fn set(&mut self, sheet: &Sheet, cell: Cell, chord: Option<Chord>) {
        if !sheet.has_row(cell.row) {
            return;
        }
        let same = chord.as_ref() == self.under(sheet, cell);
        let value = (!same).then_some(SettingValue::Chord(chord));
        self.put(bind(sheet, cell), value);
    }

    /// Leaves a cell to the preset and the sheet again.
    pub fn clear(&mut self, sheet: &Sheet, cell: Cell) {
        self.put(bind(sheet, cell), None);
    }

    /// Unbinds a cell for as long as the sheet has the binding there that it has now.
    pub(crate) fn give_way(&mut self, sheet: &Sheet, cell: Cell) {
        if let Some(chord) = self.under(sheet, cell).cloned() {
            self.put(bind(sheet, cell), Some(SettingValue::GaveWay(chord)));
        }
    }

    /// What stands in a cell without the player's changes.
    pub fn under<'s>(&self, sheet: &'s Sheet, cell: Cell) -> Option<&'s Chord> {
        let preset = self.preset().and_then(|name| sheet.preset(name));
        let held = preset.and_then(|p| p.cells.iter().find(|(c, _)| *c == cell));
        match held {
            Some((_, chord)) => chord.as_ref(),
            None => sheet.default_of(cell).map(|b| &b.chord),
        }
    }

    /// The cells that it changes and the sheet has, with what it puts there, ordered by row.
    pub fn changes(&self, sheet: &Sheet) -> Vec<(Cell, Option<&Chord>)> {
        let mut out = Vec::new();
        for (setting, value) in &self.settings {
            let Setting::Bind { row, column } = setting else {
                continue;
            };
            let Some(cell) = sheet.find_row(row).map(|r| r.cell(*column)) else {
                continue;
            };
            match value {
                SettingValue::Chord(chord) => out.push((cell, chord.as_ref())),
                SettingValue::GaveWay(to) if self.under(sheet, cell) == Some(to) => {
                    out.push((cell, None));
                }
                _ => {}
            }
        }
        out.sort_by_key(|(cell, _)| *cell);
        out
    }

    /// The names of the rows that it changes, those that no sheet knows included.
    pub fn row_names(&self) -> impl Iterator<Item = &str> {
        let mut last = None;
        self.settings
            .keys()
            .filter_map(move |setting| match setting {
                Setting::Bind { row, .. } if last != Some(row) => {
                    last = Some(row);
                    Some(row.as_str())
                }
                _ => None,
            })
    }

    /// Notes the game and the version of its sheet, before it is saved; a [`Locker`] does it by
    /// itself. The version never goes down, so that a newer game knows its own again.
    ///
    /// [`Locker`]: crate::Locker
    pub fn stamp(&mut self, sheet: &Sheet) {
        self.move_to(sheet);
        // What a newer game noted stays as it is.
        if self.sheet_version <= Some(sheet.version()) {
            self.sheet_version = Some(sheet.version());
            self.defaults = Some(sheet.print_of_defaults());
        }
        for key in ["game", "sheet", "defaults"] {
            self.make_room(&[key.to_owned()]);
        }
    }

    /// Whether the defaults of a sheet may be others than those it was saved under, so that one of them may
    /// lie on a choice of the player's that was made without it. What was never saved knows of no others,
    /// and what a newer game saved is that game's to look at.
    pub(crate) fn may_meet_new_defaults(&self, sheet: &Sheet) -> bool {
        self.sheet_version.is_some_and(|v| v <= sheet.version())
            && self.defaults != Some(sheet.print_of_defaults())
    }

    /// It is a profile of the sheet's game from here on.
    pub(crate) fn move_to(&mut self, sheet: &Sheet) {
        self.game = Some(sheet.game().to_owned());
    }

    /// Whether the same is set in both, whichever version of the game wrote them.
    pub(crate) fn has_same_settings(&self, other: &Profile) -> bool {
        self.settings == other.settings
    }

    /// Leaves a setting to the game again.
    pub fn forget(&mut self, setting: &Setting) {
        self.put(setting.clone(), None);
    }

    /// Sets something, or leaves it to the game.
    pub(crate) fn put(&mut self, setting: Setting, value: Option<SettingValue>) {
        match value {
            Some(value) => {
                if !matches!(setting, Setting::Unread { .. }) {
                    self.make_room(&setting.path());
                }
                self.settings.insert(setting, value);
            }
            None => {
                self.settings.remove(&setting);
            }
        }
    }

    /// Removes what stands in the place of a setting and is not understood: the player replaces it.
    fn make_room(&mut self, path: &[String]) {
        for len in 1..path.len() {
            let path = path[..len].to_vec();
            self.settings.remove(&Setting::Unread { path });
        }
        let from = Setting::Unread {
            path: path.to_vec(),
        };
        let inside = |s: &Setting| matches!(s, Setting::Unread { path: p } if p.starts_with(path));
        let found = self.settings.range(from..);
        let inside: Vec<Setting> = (found.map(|(s, _)| s).take_while(|s| inside(s)))
            .cloned()
            .collect();
        for setting in inside {
            self.settings.remove(&setting);
        }
    }

    /// Parts what `mine` says is of interest from the rest.
    pub(crate) fn partition(&self, mine: impl Fn(&Setting) -> bool) -> (Profile, Profile) {
        let empty = || Profile {
            settings: BTreeMap::new(),
            game: self.game.clone(),
            sheet_version: self.sheet_version,
            defaults: self.defaults,
        };
        let (mut own, mut rest) = (empty(), empty());
        for (setting, value) in &self.settings {
            let side = if mine(setting) { &mut own } else { &mut rest };
            side.settings.insert(setting.clone(), value.clone());
        }
        (own, rest)
    }

    /// Lays another one's settings over these.
    pub(crate) fn with(mut self, over: &Profile) -> Profile {
        for (setting, value) in &over.settings {
            self.put(setting.clone(), Some(value.clone()));
        }
        self
    }

    /// Gives what is set of an action to another name, as far as that has nothing of its own there;
    /// `false` where nothing was moved.
    pub(crate) fn rename(&mut self, old: &str, new: &str) -> bool {
        let all = self.settings.keys();
        let from: Vec<Setting> = all.filter(|s| s.action() == Some(old)).cloned().collect();
        let taken = Paths::of(self);
        let mut moved = false;
        for setting in from {
            let to = setting.of_action(new);
            if taken.block(&to.path()) {
                continue;
            }
            if let Some(value) = self.settings.remove(&setting) {
                self.settings.insert(to, value);
                moved = true;
            }
        }
        moved
    }

    fn text(&self, setting: &Setting) -> Option<&str> {
        match self.settings.get(setting)? {
            SettingValue::Text(text) => Some(text),
            _ => None,
        }
    }
}

/// The setting of a cell.
pub(crate) fn bind(sheet: &Sheet, cell: Cell) -> Setting {
    Setting::Bind {
        row: sheet.row_name(cell.row),
        column: cell.column,
    }
}

/// The setting of a parameter.
pub(crate) fn parameter_of(scope: &Scope, parameter: Parameter) -> Setting {
    Setting::Parameter {
        scope: scope.clone(),
        parameter,
    }
}
