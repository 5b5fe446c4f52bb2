//! Where a binding stands: action, arm and column.

use std::fmt;
use std::str::FromStr;

use super::{ActionId, Arm, Manner};
use crate::input::{Chord, DeviceKind};
use crate::text::spelled;

/// A row of the menu: an action, or one arm of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Row {
    /// The action.
    pub action: ActionId,
    /// The arm, if it is a row of its own.
    pub arm: Option<Arm>,
}

impl Row {
    /// The row of a whole action.
    pub const fn of(action: ActionId) -> Row {
        Row { action, arm: None }
    }

    /// The row of one arm.
    pub const fn arm(action: ActionId, arm: Arm) -> Row {
        Row {
            action,
            arm: Some(arm),
        }
    }

    /// The cell of this row in a column.
    pub const fn cell(self, column: Column) -> Cell {
        Cell { row: self, column }
    }
}

impl From<ActionId> for Row {
    fn from(action: ActionId) -> Self {
        Row::of(action)
    }
}

impl From<(ActionId, Arm)> for Row {
    fn from((action, arm): (ActionId, Arm)) -> Self {
        Row::arm(action, arm)
    }
}

/// A row with what the player reads for it, so that it can be told of apart from its sheet.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct TitledRow {
    /// The row.
    pub row: Row,
    /// Its title in the sheet.
    pub title: String,
}

impl fmt::Display for TitledRow {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "\"{}\"", self.title)
    }
}

spelled! {
    /// The devices that share the columns of a menu.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    pub enum ColumnKind {
        /// Keyboard and mouse.
        Keyboard = "keyboard",
        /// Gamepad.
        Gamepad = "gamepad",
        /// Touch.
        Touch = "touch",
        /// Other controllers.
        Other = "other",
    }
}

impl ColumnKind {
    /// The columns in which inputs of a device stand.
    pub const fn of(device: DeviceKind) -> ColumnKind {
        match device {
            DeviceKind::Keyboard | DeviceKind::Mouse => ColumnKind::Keyboard,
            DeviceKind::Gamepad => ColumnKind::Gamepad,
            DeviceKind::Touch => ColumnKind::Touch,
            DeviceKind::Other => ColumnKind::Other,
        }
    }
}

/// A column of the menu: `keyboard-1`, `gamepad-2`.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Column {
    kind: ColumnKind,
    number: u8,
}

impl Column {
    /// The highest column number.
    pub const LAST: u8 = 9;

    /// A column by kind and number; numbers outside 1 to [`Column::LAST`] are brought inside.
    pub const fn new(kind: ColumnKind, number: u8) -> Column {
        let number = match number {
            0 => 1,
            n if n > Self::LAST => Self::LAST,
            n => n,
        };
        Column { kind, number }
    }

    /// The devices it is for.
    pub const fn kind(self) -> ColumnKind {
        self.kind
    }

    /// First, second, further: counted from 1 to [`Column::LAST`].
    pub const fn number(self) -> u8 {
        self.number
    }
}

impl fmt::Display for Column {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}-{}", self.kind, self.number)
    }
}

/// A text that is no [`Column`].
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
#[error(
    "a column is keyboard, gamepad, touch or other, and a number from 1 to {}, as in `keyboard-1`",
    Column::LAST
)]
#[non_exhaustive]
pub struct ColumnError;

impl FromStr for Column {
    type Err = ColumnError;

    fn from_str(text: &str) -> Result<Self, Self::Err> {
        let (kind, number) = text.rsplit_once('-').ok_or(ColumnError)?;
        let kind = ColumnKind::from_word(kind);
        match (kind, number.as_bytes()) {
            (Some(kind), [digit @ b'1'..=b'9']) => Ok(Column::new(kind, digit - b'0')),
            _ => Err(ColumnError),
        }
    }
}

/// Where a binding stands: a row and a column.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Cell {
    /// The action or arm.
    pub row: Row,
    /// The column.
    pub column: Column,
}

/// One action tied to one chord.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[non_exhaustive]
pub struct Binding {
    /// Where it stands.
    pub cell: Cell,
    /// What works the action.
    pub chord: Chord,
    /// How it must be worked.
    pub manner: Manner,
    /// Whether no other modifier may be held.
    pub strict: bool,
    /// Whether its parts are pressed together: in any order, within
    /// [`Easing::together_within`](crate::sheet::Easing::together_within) of each other.
    pub together: bool,
}

/// How the chord in a cell has to be worked.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct How {
    /// Pressed, held, tapped.
    pub manner: Manner,
    /// Whether no other modifier may be held.
    pub strict: bool,
    /// Whether the parts are pressed together, in any order.
    pub together: bool,
}

impl Binding {
    pub(crate) fn how(&self) -> How {
        How {
            manner: self.manner,
            strict: self.strict,
            together: self.together,
        }
    }
}
