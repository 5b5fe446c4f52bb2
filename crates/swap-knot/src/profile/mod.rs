//! What the player changed, and nothing else.

mod feel;
mod file;
mod merge;

use std::collections::BTreeMap;

pub use file::ProfileError;
pub use merge::{Newer, Overruled};

use self::feel::FeelByKind;
use crate::input::{Chord, DeviceKind};
use crate::sheet::{Cell, Column, FeelPatch, Row, Sheet};

/// What one player changed: only differences from the sheet.
///
/// Rows are kept by name, so that a profile outlives the version of the game that wrote it: names
/// that the sheet does not know are kept and written back.
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
/// # Ok::<(), swap_knot::SheetError>(())
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Profile {
    title: String,
    preset: Option<String>,
    layout: Option<String>,
    game: Option<String>,
    sheet_version: Option<u32>,
    cells: BTreeMap<String, BTreeMap<Column, Setting>>,
    /// The player's feel, over that of the game.
    feel: FeelByKind,
    /// The same for single actions, by name.
    action_feel: BTreeMap<String, FeelByKind>,
    /// Presses that the player wants to toggle, or not to, by name.
    toggle: BTreeMap<String, bool>,
    /// What this version does not understand, to be written back.
    kept: toml::Table,
    /// The same for rows.
    kept_rows: toml::Table,
}

/// What a profile says of one cell.
#[derive(Clone, Debug, PartialEq)]
enum Setting {
    /// Bound to a chord, or unbound.
    Chord(Option<Chord>),
    /// Something this version cannot read, to be written back.
    Kept(toml::Value),
}

impl Profile {
    /// A profile in which nothing is changed.
    pub fn new(title: impl Into<String>) -> Profile {
        Profile {
            title: title.into(),
            ..Profile::default()
        }
    }

    /// What the player called it.
    pub fn title(&self) -> &str {
        &self.title
    }

    /// Gives it another title.
    pub fn set_title(&mut self, title: impl Into<String>) {
        self.title = title.into();
    }

    /// The preset that the player chose, by name.
    pub fn preset(&self) -> Option<&str> {
        self.preset.as_deref()
    }

    /// Chooses a preset, or none.
    pub fn set_preset(&mut self, name: Option<&str>) {
        self.preset = name.map(str::to_owned);
    }

    /// The layout that the player chose, by name.
    pub fn layout(&self) -> Option<&str> {
        self.layout.as_deref()
    }

    /// Chooses a layout, or leaves it to be found.
    pub fn set_layout(&mut self, name: Option<&str>) {
        self.layout = name.map(str::to_owned);
    }

    /// The version of the sheet that it was last saved under.
    pub fn sheet_version(&self) -> Option<u32> {
        self.sheet_version
    }

    /// The game it was saved for.
    pub fn game(&self) -> Option<&str> {
        self.game.as_deref()
    }

    /// Whether it changes no binding, preset, feel or toggle of any sheet.
    pub fn is_unchanged(&self) -> bool {
        self.cells.is_empty()
            && self.preset.is_none()
            && self.toggle.is_empty()
            && self.feel.iter().all(FeelPatch::is_empty)
            && self.action_feel.is_empty()
    }

    /// The player's feel on a device kind, for one action or for all of them.
    pub fn feel(&self, action: Option<&str>, kind: DeviceKind) -> FeelPatch {
        match action {
            None => self.feel[kind as usize],
            Some(name) => self
                .action_feel
                .get(name)
                .map_or_else(FeelPatch::default, |f| f[kind as usize]),
        }
    }

    /// Changes the player's feel on a device kind, for one action or for all of them; an empty
    /// change goes back to the game's.
    pub fn set_feel(&mut self, action: Option<&str>, kind: DeviceKind, feel: FeelPatch) {
        let Some(name) = action else {
            self.feel[kind as usize] = feel;
            return;
        };
        let own = self.action_feel.entry(name.to_owned()).or_default();
        own[kind as usize] = feel;
        if own.iter().all(FeelPatch::is_empty) {
            self.action_feel.remove(name);
        }
    }

    /// Whether the player wants a press to toggle; `None` leaves it to the game.
    pub fn toggle(&self, action: &str) -> Option<bool> {
        self.toggle.get(action).copied()
    }

    /// Says whether a press toggles, or leaves it to the game.
    pub fn set_toggle(&mut self, action: &str, toggle: Option<bool>) {
        match toggle {
            Some(toggle) => self.toggle.insert(action.to_owned(), toggle),
            None => self.toggle.remove(action),
        };
    }

    /// What it puts into a cell: `None` if it leaves the cell alone, `Some(None)` for unbound.
    pub fn get(&self, sheet: &Sheet, cell: Cell) -> Option<Option<&Chord>> {
        match self
            .cells
            .get(&sheet.row_name(cell.row))?
            .get(&cell.column)?
        {
            Setting::Chord(chord) => Some(chord.as_ref()),
            Setting::Kept(_) => None,
        }
    }

    /// Puts a chord into a cell, or unbinds it. What the preset or the sheet says there anyway is
    /// not kept; a row of another sheet means nothing.
    pub fn set(&mut self, sheet: &Sheet, cell: Cell, chord: Option<Chord>) {
        if !sheet.has_row(cell.row) {
            return;
        }
        if chord.as_ref() == self.under(sheet, cell) {
            self.clear(sheet, cell);
            return;
        }
        let columns = self.cells.entry(sheet.row_name(cell.row)).or_default();
        columns.insert(cell.column, Setting::Chord(chord));
    }

    /// Leaves a cell to the preset and the sheet again.
    pub fn clear(&mut self, sheet: &Sheet, cell: Cell) {
        let name = sheet.row_name(cell.row);
        if let Some(columns) = self.cells.get_mut(&name) {
            columns.remove(&cell.column);
            if columns.is_empty() {
                self.cells.remove(&name);
            }
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
        for (name, columns) in &self.cells {
            let Some(row) = sheet.find_row(name) else {
                continue;
            };
            for (&column, setting) in columns {
                if let Setting::Chord(chord) = setting {
                    out.push((row.cell(column), chord.as_ref()));
                }
            }
        }
        out.sort_by_key(|(cell, _)| *cell);
        out
    }

    /// The names of the rows that it changes, those that no sheet knows included.
    pub fn row_names(&self) -> impl Iterator<Item = &str> {
        self.cells.keys().map(String::as_str)
    }

    /// Moves what it says of a row to another name; `false` when that name has something already.
    pub(crate) fn rename_row(&mut self, old: &str, new: &str) -> bool {
        if self.cells.contains_key(new) {
            return false;
        }
        if let Some(columns) = self.cells.remove(old) {
            self.cells.insert(new.to_owned(), columns);
        }
        let (old, new) = (old.split('.').next(), new.split('.').next());
        if let (Some(old), Some(new)) = (old, new) {
            if let Some(toggle) = self.toggle.remove(old) {
                self.toggle.entry(new.to_owned()).or_insert(toggle);
            }
            if let Some(feel) = self.action_feel.remove(old) {
                self.action_feel.entry(new.to_owned()).or_insert(feel);
            }
        }
        true
    }

    /// Whether it changes anything in a row.
    pub fn changes_row(&self, sheet: &Sheet, row: Row) -> bool {
        self.cells.contains_key(&sheet.row_name(row))
    }
}
