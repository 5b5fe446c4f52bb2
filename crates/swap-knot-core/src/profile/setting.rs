//! What a profile can set, one thing at a time: the unit in which it is merged, carried over,
//! judged by the law, undone and written.

use std::collections::BTreeSet;
use std::fmt;

use crate::input::Chord;
use crate::sheet::{ActsOn, Column, Parameter, ParameterValue, Scope};
use crate::text::shown;

/// One thing that a player can set.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[non_exhaustive]
pub enum Setting {
    /// What the player called the profile.
    Title,
    /// The preset that the player chose.
    Preset,
    /// The layout that the player chose.
    Layout,
    /// The family whose marks the player chose for their pads.
    Family,
    /// A number, switch or time, for one action, a device kind or a touch zone.
    Parameter {
        /// What for.
        scope: Scope,
        /// Which.
        parameter: Parameter,
    },
    /// What stands in a cell.
    Bind {
        /// The action, or one arm of it, by name: `walk.up`.
        row: String,
        /// The column.
        column: Column,
    },
    /// Something that this version does not understand, by where it stands in the file.
    Unread {
        /// Its keys, outermost first.
        path: Vec<String>,
    },
}

/// What a [`Setting`] is set to.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum SettingValue {
    /// A title, or the name of a preset, layout or family of pads.
    Text(String),
    /// A chord, or none for unbound.
    Chord(Option<Chord>),
    /// Unbound for as long as the game's own binding there is this one: it came with a new version
    /// and gave way to a choice of the player's.
    GaveWay(Chord),
    /// A number, switch or time.
    Parameter(ParameterValue),
    /// What this version does not understand, to be written back.
    Unread(Unread),
}

/// A value of a file that this version does not understand, kept to be written back.
#[derive(Clone, Debug)]
pub struct Unread(pub(super) toml::Value);

impl PartialEq for Unread {
    /// By its text, in which even what is no number is the same as itself.
    fn eq(&self, other: &Self) -> bool {
        self.0 == other.0 || self.0.to_string() == other.0.to_string()
    }
}

impl Setting {
    /// Where it stands in a profile's file, outermost key first.
    pub fn path(&self) -> Vec<String> {
        let words = |words: &[&str]| words.iter().map(|w| (*w).to_owned()).collect();
        match self {
            Setting::Title => words(&["title"]),
            Setting::Preset => words(&["preset"]),
            Setting::Layout => words(&["layout"]),
            Setting::Family => words(&["family"]),
            Setting::Parameter { scope, parameter } => scope.path(*parameter),
            Setting::Bind { row, column } => words(&["bind", row, &column.to_string()]),
            Setting::Unread { path } => path.clone(),
        }
    }

    /// The setting that stands at a place of a profile's file, outermost key first, if this version
    /// knows one there; the way back from [`Setting::path`].
    pub fn at(path: &[&str]) -> Option<Setting> {
        match *path {
            ["title"] => Some(Setting::Title),
            ["preset"] => Some(Setting::Preset),
            ["layout"] => Some(Setting::Layout),
            ["family"] => Some(Setting::Family),
            ["bind", row, column] => Some(Setting::Bind {
                row: row.to_owned(),
                column: column.parse().ok()?,
            }),
            _ => Scope::at(path).map(|(scope, parameter)| Setting::Parameter { scope, parameter }),
        }
    }

    /// The action that it is about, by name.
    pub fn action(&self) -> Option<&str> {
        match self {
            Setting::Parameter { scope, .. } => scope.action.as_deref(),
            Setting::Bind { row, .. } => row.split('.').next(),
            Setting::Title
            | Setting::Preset
            | Setting::Layout
            | Setting::Family
            | Setting::Unread { .. } => None,
        }
    }

    /// The same of an action of another name.
    pub(super) fn of_action(&self, name: &str) -> Setting {
        let mut out = self.clone();
        match &mut out {
            Setting::Parameter { scope, .. } => scope.action = Some(name.to_owned()),
            Setting::Bind { row, .. } => {
                let arm = row.split_once('.').map(|(_, arm)| format!(".{arm}"));
                *row = format!("{name}{}", arm.unwrap_or_default());
            }
            Setting::Title
            | Setting::Preset
            | Setting::Layout
            | Setting::Family
            | Setting::Unread { .. } => {}
        }
        out
    }
}

/// Which places of a file are taken.
#[derive(Debug, Default)]
pub(super) struct Paths(BTreeSet<Vec<String>>);

impl Paths {
    pub(super) fn of(profile: &super::Profile) -> Paths {
        Paths(profile.settings.keys().map(Setting::path).collect())
    }

    pub(super) fn take(&mut self, path: Vec<String>) {
        self.0.insert(path);
    }

    /// Whether something stands at a place, around it or inside it.
    pub(super) fn block(&self, path: &[String]) -> bool {
        let around = (1..path.len()).any(|len| self.0.contains(&path[..len]));
        let next = self.0.range(path.to_vec()..).next();
        around || next.is_some_and(|other| other.starts_with(path))
    }
}

impl fmt::Display for Setting {
    /// As a player's log tells of it: `walk.up keyboard-1`, `sensitivity of fine on gamepad`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Setting::Title => f.write_str("title"),
            Setting::Preset => f.write_str("preset"),
            Setting::Layout => f.write_str("layout"),
            Setting::Family => f.write_str("family"),
            Setting::Parameter { scope, parameter } => {
                f.write_str(parameter.word())?;
                match (&scope.action, scope.on) {
                    (Some(action), _) => write!(f, " of {}", shown(action))?,
                    (None, ActsOn::Actions) => f.write_str(" of all")?,
                    (None, ActsOn::Zone(name)) => write!(f, " of touch:{name}")?,
                    (None, ActsOn::Inputs(_)) => {}
                }
                match scope.on {
                    ActsOn::Inputs(kind) => write!(f, " on {kind}"),
                    _ => Ok(()),
                }
            }
            Setting::Bind { row, column } => write!(f, "{} {column}", shown(row)),
            Setting::Unread { path } => f.write_str(&shown(&path.join("."))),
        }
    }
}

impl fmt::Display for SettingValue {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            SettingValue::Text(text) => f.write_str(&shown(text)),
            SettingValue::Chord(Some(chord)) => write!(f, "{chord}"),
            SettingValue::Chord(None) | SettingValue::GaveWay(_) => f.write_str("unbound"),
            SettingValue::Parameter(value) => write!(f, "{value}"),
            SettingValue::Unread(value) => write!(f, "{value}"),
        }
    }
}

impl fmt::Display for Unread {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        // A hostile value may be long; a log wants to know which it is.
        f.write_str(&shown(&self.0.to_string()))
    }
}
