//! The text of a profile.

use std::collections::BTreeMap;
use std::fmt;

use toml::{Table, Value};

use super::setting::{Setting, SettingValue, Unread};
use super::{Profile, feel};
use crate::sheet::{KnobValue, UNBOUND};
use crate::text::line_and_column;

/// The version of the file format that is written, and the newest that is read.
const FORMAT: i64 = 1;
/// The key beside which a binding says what it gave way with.
const GAVE_WAY: &str = "gave-way";

/// A text that is no profile.
#[derive(Clone, PartialEq, Eq)]
pub struct ProfileError {
    /// Line and column, where the text is no TOML.
    at: Option<(usize, usize)>,
    kind: Kind,
}

#[derive(Clone, Debug, PartialEq, Eq)]
enum Kind {
    TooLarge { bytes: usize },
    NoToml(String),
    NoProfile,
    Newer { format: i64 },
}

impl ProfileError {
    /// Whether it was written by a newer version, so that the file itself is fine.
    pub fn is_newer(&self) -> bool {
        matches!(self.kind, Kind::Newer { .. })
    }

    /// Whether it is larger than [`Profile::MAX_BYTES`].
    pub fn is_too_large(&self) -> bool {
        matches!(self.kind, Kind::TooLarge { .. })
    }

    /// The line and column of what is wrong, from 1, where the text is no TOML.
    pub fn line_and_column(&self) -> Option<(usize, usize)> {
        self.at
    }
}

impl From<Kind> for ProfileError {
    fn from(kind: Kind) -> Self {
        ProfileError { at: None, kind }
    }
}

impl fmt::Display for ProfileError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        if let Some((line, column)) = self.at {
            write!(f, "line {line}, column {column}: ")?;
        }
        match &self.kind {
            Kind::TooLarge { bytes } => {
                let most = Profile::MAX_BYTES;
                write!(
                    f,
                    "a profile has at most {most} bytes, and this has {bytes}"
                )
            }
            Kind::NoToml(why) => f.write_str(why),
            Kind::NoProfile => write!(f, "not a profile: it has no line `format = {FORMAT}`"),
            Kind::Newer { format } => write!(
                f,
                "written by a newer version of the game (format {format}, this one reads {FORMAT}); update the game to use it"
            ),
        }
    }
}

crate::text::debug_as_text!(ProfileError);

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
            return Err(Kind::TooLarge { bytes: text.len() }.into());
        }
        let mut table: Table = text.parse().map_err(|e| broken(text, &e))?;
        match table.remove("format").and_then(|f| f.as_integer()) {
            Some(FORMAT) => {}
            Some(format) if format > FORMAT => return Err(Kind::Newer { format }.into()),
            _ => return Err(Kind::NoProfile.into()),
        }
        let mut profile = Profile::default();
        if let Some(Value::String(_)) = table.get("game") {
            profile.game = table.remove("game").and_then(|g| match g {
                Value::String(game) => Some(game),
                _ => None,
            });
        }
        let version = table.get("sheet").and_then(Value::as_integer);
        if let Some(version) = version.and_then(|v| v.try_into().ok()) {
            profile.sheet_version = Some(version);
            table.remove("sheet");
        }
        flatten(&mut Vec::new(), table, &mut profile.settings);
        Ok(profile)
    }

    /// The profile as text, to be read by [`Profile::from_toml`].
    pub fn to_toml(&self) -> String {
        let mut table = Table::new();
        table.insert("format".to_owned(), Value::Integer(FORMAT));
        if let Some(game) = &self.game {
            table.insert("game".to_owned(), Value::String(game.clone()));
        }
        // What is not understood comes first, so that nothing of it stands in the player's way.
        let unread = |s: &Setting| matches!(s, Setting::Unread { .. });
        let (strange, known) = (
            self.settings.iter().filter(|(s, _)| unread(s)),
            self.settings.iter().filter(|(s, _)| !unread(s)),
        );
        for (setting, value) in strange.chain(known) {
            insert(&mut table, &setting.path(), write(value));
        }
        if let Some(version) = self.sheet_version {
            table.insert("sheet".to_owned(), Value::Integer(version.into()));
        }
        format!("# What this player changed; everything else follows the game's defaults.\n{table}")
    }
}

/// Takes a table apart into settings; `path` is where it stands.
fn flatten(path: &mut Vec<String>, table: Table, out: &mut BTreeMap<Setting, SettingValue>) {
    for (key, value) in table {
        path.push(key);
        let words: Vec<&str> = path.iter().map(String::as_str).collect();
        match (read(&words, &value), value) {
            (Some((setting, value)), _) => {
                out.insert(setting, value);
            }
            (None, Value::Table(inner)) if !inner.is_empty() => flatten(path, inner, out),
            (None, value) => {
                let setting = Setting::Unread { path: path.clone() };
                out.insert(setting, SettingValue::Unread(Unread(value)));
            }
        }
        path.pop();
    }
}

/// The setting at a place of the file and its value; none where this version does not understand
/// all of it.
fn read(path: &[&str], value: &Value) -> Option<(Setting, SettingValue)> {
    let setting = Setting::at(path)?;
    let value = match &setting {
        // An empty title is none.
        Setting::Title if value.as_str() == Some("") => return None,
        Setting::Title | Setting::Preset | Setting::Layout | Setting::Family => {
            SettingValue::Text(value.as_str()?.to_owned())
        }
        Setting::Toggle { .. } => SettingValue::Flag(value.as_bool()?),
        Setting::Ease { ease, .. } => match ease.range() {
            None => SettingValue::Flag(value.as_bool()?),
            Some(range) => {
                let seconds = value.as_float().or(value.as_integer().map(|n| n as f64))? as f32;
                SettingValue::Seconds(Some(seconds).filter(|s| range.contains(s))?)
            }
        },
        Setting::Bind { .. } => read_binding(value)?,
        Setting::Feel { knob, .. } => SettingValue::Knob(feel::read(*knob, value)?),
        Setting::Zone { knob, .. } => {
            let number = value.as_float().or(value.as_integer().map(|n| n as f64))? as f32;
            let number = Some(number).filter(|n| knob.range().contains(n))?;
            SettingValue::Knob(KnobValue::Number(number))
        }
        Setting::Unread { .. } => return None,
    };
    Some((setting, value))
}

fn read_binding(value: &Value) -> Option<SettingValue> {
    match value {
        Value::String(text) if text == UNBOUND => Some(SettingValue::Chord(None)),
        Value::String(text) => Some(SettingValue::Chord(Some(text.parse().ok()?))),
        Value::Table(table) if table.len() == 1 => {
            let chord = table.get(GAVE_WAY)?.as_str()?.parse().ok()?;
            Some(SettingValue::GaveWay(chord))
        }
        _ => None,
    }
}

fn write(value: &SettingValue) -> Value {
    match value {
        SettingValue::Text(text) => Value::String(text.clone()),
        SettingValue::Chord(Some(chord)) => Value::String(chord.to_string()),
        SettingValue::Chord(None) => Value::String(UNBOUND.to_owned()),
        SettingValue::GaveWay(chord) => {
            let mut table = Table::new();
            table.insert(GAVE_WAY.to_owned(), Value::String(chord.to_string()));
            Value::Table(table)
        }
        SettingValue::Knob(value) => feel::write(*value),
        SettingValue::Flag(flag) => Value::Boolean(*flag),
        SettingValue::Seconds(seconds) => feel::float(*seconds),
        SettingValue::Unread(Unread(value)) => value.clone(),
    }
}

/// Puts a value into nested tables. What stands in the way of a table gives way to it.
fn insert(table: &mut Table, path: &[String], value: Value) {
    let Some((key, rest)) = path.split_first() else {
        return;
    };
    if rest.is_empty() {
        table.insert(key.clone(), value);
        return;
    }
    let inner = table
        .entry(key.clone())
        .or_insert_with(|| Value::Table(Table::new()));
    if !inner.is_table() {
        *inner = Value::Table(Table::new());
    }
    if let Value::Table(inner) = inner {
        insert(inner, rest, value);
    }
}

fn broken(text: &str, error: &toml::de::Error) -> ProfileError {
    let at = error.span().map_or(0, |s| s.start).min(text.len());
    ProfileError {
        at: Some(line_and_column(text, at)),
        kind: Kind::NoToml(error.message().to_owned()),
    }
}
