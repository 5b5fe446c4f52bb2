//! What must hold of a profile for a sheet, wherever it came from: a draft, a file, an import, a
//! merge, another version, a preset or a reset.
//!
//! What does not stand gives way to what the preset or the sheet has in its place, in play only: the
//! profile keeps it, and it is told with the reason. Whoever edits asks the same law beforehand.

mod bindings;
mod essential;
pub(crate) mod force;
mod tell;
mod uphold;

use std::fmt;

pub use bindings::{Bound, Origin};
pub(crate) use uphold::{Upheld, allows, uphold};

use crate::input::{Chord, Input};
use crate::profile::{Setting, SettingValue};
use crate::sheet::{ColumnKind, Misfit, TitledRow};
use crate::text::shown;

/// Why something that a player sets does not stand.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum Unlawful {
    /// The game has no such action or arm.
    #[error("this game has no such action or arm")]
    NoSuchRow,
    /// The game has no such preset.
    #[error("this game has no preset `{}`", shown(.0))]
    NoSuchPreset(String),
    /// The game has switched the action off.
    #[error("{0} is switched off in this game")]
    Off(TitledRow),
    /// The sheet says that the player may not change the action.
    #[error("{0} cannot be changed")]
    Fixed(TitledRow),
    /// The sheet reserves the input.
    #[error("`{0}` is reserved by the game and cannot be bound")]
    Reserved(Input),
    /// The chord cannot work the cell.
    #[error(transparent)]
    Misfit(#[from] Misfit),
    /// An essential row would be left without a binding that can be pressed.
    #[error("{row} must keep a {kind} binding; bind it to something else first")]
    Essential {
        /// The action or arm.
        row: TitledRow,
        /// The devices on which it would have none.
        kind: ColumnKind,
    },
    /// The sheet does not let the action be eased.
    #[error("the game does not let {0} be eased")]
    NotEased(TitledRow),
    /// The row has the same chord in another cell, worked the same way.
    #[error("{row} has `{chord}` already")]
    Twice {
        /// The action or arm.
        row: TitledRow,
        /// What it has.
        chord: Chord,
    },
    /// This version does not understand the value.
    #[error("this version does not understand it")]
    NotUnderstood(String),
}

/// A setting of a profile that is not in force, and why.
///
/// It is kept in the profile; what the preset or the sheet has there is played with.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct NotInForce {
    /// Which setting.
    pub setting: Setting,
    /// What it is set to.
    pub value: SettingValue,
    /// Why it does not stand.
    pub why: Unlawful,
}

impl fmt::Display for NotInForce {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let NotInForce {
            setting,
            value,
            why,
        } = self;
        write!(f, "{setting} = {value} is not in force: {why}")
    }
}
