//! Takes what a profile changes into a sheet, as its new defaults: what was tuned in play becomes what
//! every player has. Comments, order and blank lines of the sheet are kept.
//!
//! ```
//! use swap_knot::{Layout, Profile};
//! use swap_knot_adopt::adopt;
//!
//! let sheet = "game = \"slack-water\"\n[actions.horn] # loud\nbind = [\"KeyH\", \"pad:north\"]\n";
//! let profile = Profile::from_toml("format = 1\n[bind.horn]\nkeyboard-1 = \"KeyG\"")?;
//! let adopted = adopt(sheet, &profile, &Layout::us())?;
//! assert_eq!(adopted.text(), sheet.replace("KeyH", "KeyG"));
//! print!("{}", adopted.difference("controls.toml"));
//! # Ok::<(), Box<dyn std::error::Error>>(())
//! ```

mod bindings;
mod faithful;
mod numbers;
mod verify;
mod write;

pub use write::{WriteError, replace};

use std::fmt;

use similar::TextDiff;
use swap_knot::keep::{Setting, SettingValue};
use swap_knot::layout::Resolver;
use swap_knot::play::NotInForce;
use swap_knot::remap::CarriedOver;
use swap_knot::sheet::SheetError;
use swap_knot::{Profile, Rig, Sheet};
use toml_edit::{DocumentMut, InlineTable, Item, Table, TableLike, Value};

/// What came of adopting a profile: nothing is written yet.
#[derive(Clone, Debug)]
pub struct Adopted {
    before: String,
    text: String,
    taken: Vec<Setting>,
    left: Vec<Left>,
}

/// A setting of the profile that was not adopted.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Left {
    /// Which.
    pub setting: Setting,
    /// Why not.
    pub why: WhyLeft,
}

/// Why a setting was not adopted.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum WhyLeft {
    /// A sheet has no default for it.
    #[error("a sheet has no default for it; it is each player's own")]
    Own,
    /// It is not in force for this sheet.
    #[error("{0}")]
    NotInForce(Box<NotInForce>),
    /// The preset that the profile goes by has a word of its own there.
    #[error("the preset `{0}` of the profile has its own there; change that by hand")]
    InPreset(String),
    /// This version does not understand it.
    #[error("this version does not understand it")]
    NotUnderstood,
}

/// Why nothing can be adopted.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum AdoptError {
    /// The text is no sheet.
    #[error(transparent)]
    Sheet(#[from] SheetError),
    /// What would be written does not mean what the profile says.
    #[error(
        "nothing is adopted: written into this sheet, {what} of {of} would not be as the profile has it; \
         write that into the sheet by hand, and reset it in the profile"
    )]
    NotTheSame {
        /// The action, or all of them.
        of: String,
        /// Of it the bindings, the feel, a parameter by its word.
        what: String,
    },
}

/// Takes the bindings, feel, toggles and times of a profile into the text of a sheet, as far as they are in
/// force on a layout; to the letter of the text nothing else changes. What comes out was read again, and
/// plays without the profile as the sheet did with it.
///
/// # Errors
/// When the text is no sheet, or it could not be changed so that it plays like that.
pub fn adopt(
    text: &str,
    profile: &Profile,
    on: impl Into<Resolver>,
) -> Result<Adopted, AdoptError> {
    let on = on.into();
    let sheet = Sheet::from_toml(text)?;
    // One of an older version of the game speaks of what its actions are called now.
    let profile = &CarriedOver::new(&sheet, profile, on.clone()).profile;
    let mut document: DocumentMut = match text.parse() {
        Ok(document) => document,
        // Both read the same TOML.
        Err(_) => {
            return Err(AdoptError::NotTheSame {
                of: "the game".to_owned(),
                what: "all".to_owned(),
            });
        }
    };
    let read = document.to_string();
    let rig = Rig::new(&sheet, profile, on.clone());
    let (mut taken, mut left) = (Vec::new(), Vec::new());
    let mut cells = Vec::new();
    for (setting, value) in profile.settings() {
        let unlawful = rig.not_in_force().iter().find(|n| n.setting == *setting);
        let why = match (unlawful, setting) {
            (Some(n), _) => Some(WhyLeft::NotInForce(Box::new(n.clone()))),
            (None, Setting::Title) => continue,
            (None, Setting::Bind { row, column }) => {
                let cell = sheet.find_row(row).map(|row| row.cell(*column));
                match (cell, value) {
                    (Some(cell), SettingValue::Chord(chord)) => {
                        match in_preset(&sheet, profile, cell) {
                            Some(preset) => Some(WhyLeft::InPreset(preset)),
                            None => {
                                cells.push((cell, chord.clone()));
                                None
                            }
                        }
                    }
                    // It gave way to another choice of the player's: that it is empty is meant.
                    (Some(cell), SettingValue::GaveWay(_)) => {
                        cells.push((cell, None));
                        None
                    }
                    _ => Some(WhyLeft::NotUnderstood),
                }
            }
            (None, setting) => {
                numbers::adopt(&mut document, (&sheet, profile), setting, value).err()
            }
        };
        match why {
            Some(why) => left.push(Left {
                setting: setting.clone(),
                why,
            }),
            None => taken.push(setting.clone()),
        }
    }
    bindings::adopt(&mut document, &sheet, &cells);
    let after = faithful::only_changes(text, &read, &document.to_string());
    verify::same(&sheet, profile, &left, &after, &on)?;
    Ok(Adopted {
        before: text.to_owned(),
        text: after,
        taken,
        left,
    })
}

/// The preset of a profile, where it says something of a cell itself.
fn in_preset(sheet: &Sheet, profile: &Profile, cell: swap_knot::Cell) -> Option<String> {
    let name = profile.preset()?;
    let preset = sheet.preset(name)?;
    preset
        .cells
        .iter()
        .any(|(own, _)| *own == cell)
        .then(|| name.to_owned())
}

impl Adopted {
    /// The sheet with its new defaults.
    pub fn text(&self) -> &str {
        &self.text
    }

    /// Whether the text changed at all.
    pub fn is_changed(&self) -> bool {
        self.text != self.before
    }

    /// What was adopted.
    pub fn taken(&self) -> &[Setting] {
        &self.taken
    }

    /// What was not, and why.
    pub fn left(&self) -> &[Left] {
        &self.left
    }

    /// The lines that change, with two around them, as `diff -u` shows them; empty where none does.
    pub fn difference(&self, name: &str) -> String {
        let diff = TextDiff::from_lines(&*self.before, &*self.text);
        diff.unified_diff()
            .context_radius(2)
            .header(name, name)
            .to_string()
    }
}

impl fmt::Display for Left {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}: {}", self.setting.path().join("."), self.why)
    }
}

/// A table of the document, made where there is none; nothing where something else stands there.
fn table<'t>(
    parent: &'t mut dyn TableLike,
    key: &str,
    inline: bool,
) -> Option<&'t mut dyn TableLike> {
    if !parent.contains_key(key) {
        let new = match inline {
            true => Item::Value(Value::InlineTable(InlineTable::new())),
            false => {
                let mut table = Table::new();
                // Written in one line with what is in it: `feel.gamepad = …`.
                table.set_dotted(true);
                Item::Table(table)
            }
        };
        parent.insert(key, new);
    }
    parent.get_mut(key)?.as_table_like_mut()
}

/// Sets a value, with the comment and the spaces that stand around the old one.
fn set(table: &mut dyn TableLike, key: &str, value: Value) {
    let mut value = value;
    match table.get_mut(key) {
        Some(Item::Value(old)) => {
            *value.decor_mut() = old.decor().clone();
            *old = value;
        }
        _ => {
            table.insert(key, Item::Value(value));
        }
    }
}
