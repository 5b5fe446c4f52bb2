//! The text of a profile.

use std::collections::BTreeMap;
use std::fmt;

use serde_core::Deserialize as _;
use serde_core::de::IntoDeserializer as _;
use toml::de::{DeTable, DeValue};
use toml::{Spanned, Table, Value};

use super::Profile;
use super::setting::{Setting, SettingValue, Unread};
use crate::sheet::UNBOUND;
use crate::text::{Report, line_and_column};

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
        let table = DeTable::parse(text).map_err(|e| broken(text, &e))?;
        let mut table = table.into_inner();
        match table.remove("format").and_then(|f| whole(&f)) {
            Some(FORMAT) => {}
            Some(format) if format > FORMAT => return Err(Kind::Newer { format }.into()),
            _ => return Err(Kind::NoProfile.into()),
        }
        let mut profile = Profile::default();
        let game = table.get("game").and_then(|g| g.get_ref().as_str());
        profile.game = game.map(str::to_owned);
        if profile.game.is_some() {
            table.remove("game");
        }
        let version = table.get("sheet").and_then(whole);
        if let Some(version) = version.and_then(|v| v.try_into().ok()) {
            profile.sheet_version = Some(version);
            table.remove("sheet");
        }
        let print = table.get("defaults").and_then(|d| d.get_ref().as_str());
        profile.defaults = print.and_then(|p| u64::from_str_radix(p, 16).ok());
        if profile.defaults.is_some() {
            table.remove("defaults");
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
        if let Some(print) = self.defaults {
            let print = Value::String(format!("{print:016x}"));
            table.insert("defaults".to_owned(), print);
        }
        format!("# What this player changed; everything else follows the game's defaults.\n{table}")
    }
}

fn whole(value: &Spanned<DeValue<'_>>) -> Option<i64> {
    let number = value.get_ref().as_integer()?;
    i64::from_str_radix(number.as_str(), number.radix()).ok()
}

/// Takes a table apart into settings; `path` is where it stands.
fn flatten(path: &mut Vec<String>, table: DeTable<'_>, out: &mut BTreeMap<Setting, SettingValue>) {
    for (key, value) in table {
        path.push(key.into_inner().into_owned());
        let words: Vec<&str> = path.iter().map(String::as_str).collect();
        if let Some((setting, value)) = read(&words, &value) {
            out.insert(setting, value);
        } else if value
            .get_ref()
            .as_table()
            .is_some_and(|inner| !inner.is_empty())
        {
            if let DeValue::Table(inner) = value.into_inner() {
                flatten(path, inner, out);
            }
        } else if let Ok(value) = Value::deserialize(value.into_deserializer()) {
            let setting = Setting::Unread { path: path.clone() };
            out.insert(setting, SettingValue::Unread(Unread(value)));
        }
        path.pop();
    }
}

/// The setting at a place of the file and its value; none where this version does not understand
/// all of it.
fn read(path: &[&str], value: &Spanned<DeValue<'_>>) -> Option<(Setting, SettingValue)> {
    let setting = Setting::at(path)?;
    let text = value.get_ref().as_str();
    let value = match &setting {
        // An empty title is none.
        Setting::Title if text == Some("") => return None,
        Setting::Title | Setting::Preset | Setting::Layout | Setting::Family => {
            SettingValue::Text(text?.to_owned())
        }
        Setting::Bind { .. } => read_binding(value.get_ref())?,
        Setting::Parameter { parameter, .. } => {
            let mut report = Report::new();
            let read = crate::sheet::setting(*parameter, parameter.word(), value, &mut report);
            // All that stands there has to be understood, so that nothing is lost when it is written back.
            let read = read.filter(|_| report.finish().is_empty());
            SettingValue::Parameter(read?)
        }
        Setting::Unread { .. } => return None,
    };
    Some((setting, value))
}

fn read_binding(value: &DeValue<'_>) -> Option<SettingValue> {
    match (value.as_str(), value.as_table()) {
        (Some(UNBOUND), _) => Some(SettingValue::Chord(None)),
        (Some(text), _) => Some(SettingValue::Chord(Some(text.parse().ok()?))),
        (_, Some(table)) if table.len() == 1 => {
            let chord = table.get(GAVE_WAY)?.get_ref().as_str()?.parse().ok()?;
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
        SettingValue::Parameter(value) => value.write(),
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
