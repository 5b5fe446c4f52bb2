//! The text of a profile.

use std::collections::BTreeMap;
use std::fmt;

use toml::{Table, Value};

use super::{Profile, Setting, feel};
use crate::input::Chord;
use crate::sheet::{Column, Sheet, UNBOUND};
use crate::text_place::line_and_column;

/// The version of the file format that is written, and the newest that is read.
const FORMAT: i64 = 1;

/// A text that is no profile.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct ProfileError {
    line: Option<usize>,
    column: usize,
    message: String,
    newer: bool,
}

impl ProfileError {
    /// Whether it was written by a newer version, so that the file itself is fine.
    pub fn is_newer(&self) -> bool {
        self.newer
    }

    fn new(message: impl Into<String>) -> Self {
        ProfileError {
            line: None,
            column: 1,
            message: message.into(),
            newer: false,
        }
    }
}

impl fmt::Display for ProfileError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        if let Some(line) = self.line {
            write!(f, "line {line}, column {}: ", self.column)?;
        }
        f.write_str(&self.message)
    }
}

impl std::error::Error for ProfileError {}

impl Profile {
    /// The largest profile that is read, in bytes (1 MiB).
    pub const MAX_BYTES: usize = 1 << 20;

    /// Reads a profile. What this version does not understand is kept, not refused.
    ///
    /// # Errors
    /// When the text is no TOML, is larger than [`Profile::MAX_BYTES`], or was written in a newer
    /// format than this version knows.
    pub fn from_toml(text: &str) -> Result<Profile, ProfileError> {
        if text.len() > Self::MAX_BYTES {
            return Err(ProfileError::new(format!(
                "a profile has at most {} bytes, and this has {}",
                Self::MAX_BYTES,
                text.len()
            )));
        }
        let mut table: Table = text.parse().map_err(|e| broken(text, &e))?;
        match take_integer(&mut table, "format") {
            Some(FORMAT) => {}
            Some(other) if other > FORMAT => {
                return Err(ProfileError {
                    newer: true,
                    ..ProfileError::new(format!(
                        "written by a newer version of the game (format {other}, this one reads {FORMAT}); update the game to use it"
                    ))
                });
            }
            _ => {
                return Err(ProfileError::new(format!(
                    "not a profile: it has no line `format = {FORMAT}`"
                )));
            }
        }
        let mut profile = Profile {
            title: take_string(&mut table, "title").unwrap_or_default(),
            preset: take_string(&mut table, "preset"),
            layout: take_string(&mut table, "layout"),
            game: take_string(&mut table, "game"),
            sheet_version: take_integer(&mut table, "sheet").and_then(|n| n.try_into().ok()),
            ..Profile::default()
        };
        if let Some(bind) = table.remove("bind") {
            match bind {
                Value::Table(rows) => profile.kept_rows = profile.read_rows(rows),
                other => {
                    table.insert("bind".to_owned(), other);
                }
            }
        }
        profile.read_feel(&mut table);
        profile.kept = table;
        Ok(profile)
    }

    /// Takes feel and toggles out of the table; what is not understood stays in it.
    fn read_feel(&mut self, table: &mut Table) {
        if let Some(Value::Table(own)) = table.get_mut("feel") {
            self.feel = feel::take(own);
        }
        if let Some(Value::Table(actions)) = table.get_mut("action-feel") {
            for (name, value) in actions.iter_mut() {
                if let Value::Table(own) = value {
                    let taken = feel::take(own);
                    if taken.iter().any(|f| !f.is_empty()) {
                        self.action_feel.insert(name.clone(), taken);
                    }
                }
            }
            actions.retain(|_, value| value.as_table().is_none_or(|t| !t.is_empty()));
        }
        if let Some(Value::Table(toggles)) = table.get_mut("toggle") {
            let known = toggles
                .iter()
                .filter_map(|(name, v)| Some((name.clone(), v.as_bool()?)));
            self.toggle = known.collect();
            toggles.retain(|_, value| value.as_bool().is_none());
        }
        for key in ["feel", "action-feel", "toggle"] {
            if table
                .get(key)
                .and_then(Value::as_table)
                .is_some_and(Table::is_empty)
            {
                table.remove(key);
            }
        }
    }

    /// Writes feel and toggles over what was kept of them.
    fn write_feel(&self, table: &mut Table) {
        let kept = |table: &Table, key: &str| match table.get(key) {
            Some(Value::Table(kept)) => kept.clone(),
            _ => Table::new(),
        };
        let own = feel::write(&self.feel, &kept(table, "feel"));
        let mut actions = kept(table, "action-feel");
        for (name, own) in &self.action_feel {
            let written = feel::write(own, &kept(&actions, name));
            actions.insert(name.clone(), Value::Table(written));
        }
        let mut toggles = kept(table, "toggle");
        toggles.extend(
            self.toggle
                .iter()
                .map(|(n, on)| (n.clone(), Value::Boolean(*on))),
        );
        for (key, written) in [("feel", own), ("action-feel", actions), ("toggle", toggles)] {
            if !written.is_empty() {
                table.insert(key.to_owned(), Value::Table(written));
            }
        }
    }

    /// Reads the rows; answers those that this version cannot make sense of.
    fn read_rows(&mut self, rows: Table) -> Table {
        let mut strange = Table::new();
        for (row, columns) in rows {
            let Value::Table(columns) = columns else {
                strange.insert(row, columns);
                continue;
            };
            let (mut read, mut rest) = (BTreeMap::new(), Table::new());
            for (column, value) in columns {
                match column.parse::<Column>() {
                    Ok(column) => {
                        read.insert(column, setting(value));
                    }
                    Err(_) => {
                        rest.insert(column, value);
                    }
                }
            }
            if !read.is_empty() {
                self.cells.insert(row.clone(), read);
            }
            if !rest.is_empty() {
                strange.insert(row, Value::Table(rest));
            }
        }
        strange
    }

    /// The profile as text, to be read by [`Profile::from_toml`].
    pub fn to_toml(&self) -> String {
        let mut table = Table::new();
        table.insert("format".to_owned(), Value::Integer(FORMAT));
        let mut text = |key: &str, value: Option<&str>| {
            if let Some(value) = value {
                table.insert(key.to_owned(), Value::String(value.to_owned()));
            }
        };
        text("game", self.game.as_deref());
        text("title", Some(&self.title));
        text("preset", self.preset.as_deref());
        text("layout", self.layout.as_deref());
        if let Some(version) = self.sheet_version {
            table.insert("sheet".to_owned(), Value::Integer(version.into()));
        }
        for (key, value) in &self.kept {
            table.insert(key.clone(), value.clone());
        }
        self.write_feel(&mut table);
        let mut rows = self.kept_rows.clone();
        for (row, columns) in &self.cells {
            let row = rows
                .entry(row.clone())
                .or_insert_with(|| Value::Table(Table::new()));
            if let Value::Table(row) = row {
                row.extend(columns.iter().map(|(c, s)| (c.to_string(), s.to_value())));
            }
        }
        if !rows.is_empty() {
            table.insert("bind".to_owned(), Value::Table(rows));
        }
        format!("# What this player changed; everything else follows the game's defaults.\n{table}")
    }

    /// Notes the game and the version of its sheet, before it is saved; a [`Locker`] does it by
    /// itself.
    ///
    /// [`Locker`]: crate::Locker
    pub fn stamp(&mut self, sheet: &Sheet) {
        self.game = Some(sheet.game().to_owned());
        self.sheet_version = Some(sheet.version());
    }
}

impl Setting {
    pub(super) fn to_value(&self) -> Value {
        match self {
            Setting::Chord(Some(chord)) => Value::String(chord.to_string()),
            Setting::Chord(None) => Value::String(UNBOUND.to_owned()),
            Setting::Kept(value) => value.clone(),
        }
    }
}

fn setting(value: Value) -> Setting {
    match value.as_str() {
        Some(UNBOUND) => Setting::Chord(None),
        Some(text) => match text.parse::<Chord>() {
            Ok(chord) => Setting::Chord(Some(chord)),
            Err(_) => Setting::Kept(value),
        },
        None => Setting::Kept(value),
    }
}

fn take_string(table: &mut Table, key: &str) -> Option<String> {
    match table.get(key) {
        Some(Value::String(_)) => match table.remove(key) {
            Some(Value::String(text)) => Some(text),
            _ => None,
        },
        _ => None,
    }
}

fn take_integer(table: &mut Table, key: &str) -> Option<i64> {
    let found = table.get(key)?.as_integer()?;
    table.remove(key);
    Some(found)
}

fn broken(text: &str, error: &toml::de::Error) -> ProfileError {
    let at = error.span().map_or(0, |s| s.start).min(text.len());
    let (line, column) = line_and_column(text, at);
    ProfileError {
        line: Some(line),
        column,
        message: error.message().to_owned(),
        newer: false,
    }
}
