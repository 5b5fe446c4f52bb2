//! What gets in each other's way.

mod compare;
mod find;
mod id;
mod seats;
mod tell;

use std::fmt::Write as _;

pub use find::{conflicts, conflicts_of};
pub(crate) use find::{is_same, unsettled};
pub use seats::seat_conflicts;

use crate::input::Chord;
use crate::sheet::{Cell, Manner, Sheet, SituationId};

/// How two bindings meet.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[non_exhaustive]
pub enum ConflictClass {
    /// Both are on the same chord.
    Same,
    /// One is on either side of a modifier, the other on one side of it.
    Side,
    /// One is on a stick or axis, the other on a direction of it.
    PartOfWhole,
    /// The letter of one is at the place of the other, on some layouts.
    ByLetter,
    /// Both are on the same chord in manners that do not get along.
    Manner,
    /// Two players at one keyboard are both on it.
    Seats,
    /// The longer chord keeps the shorter one from being worked.
    LongerHidesShorter,
    /// One is worked by an input that the other wants held.
    Member,
    /// With what both want held, one input works both.
    Crossing,
}

impl ConflictClass {
    /// Whether it has to be settled; otherwise it is a notice, which play gets along with.
    pub const fn is_conflict(self) -> bool {
        !matches!(
            self,
            ConflictClass::LongerHidesShorter | ConflictClass::Member | ConflictClass::Crossing
        )
    }
}

/// One of the two bindings that meet.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
#[non_exhaustive]
pub struct Party {
    /// Where it stands.
    pub cell: Cell,
    /// What works it.
    pub chord: Chord,
    /// How it must be worked.
    pub manner: Manner,
}

/// Two bindings in each other's way.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Conflict {
    /// How they meet.
    pub class: ConflictClass,
    /// The one that stands first in the sheet, or the candidate that was asked about.
    pub first: Party,
    /// The other one.
    pub second: Party,
    /// The situations of the first and the second in which both are live; none where one of them
    /// is live always.
    pub situations: Option<(SituationId, SituationId)>,
    /// The layouts it exists on, by name; empty when it does not depend on the layout.
    pub layouts: Vec<String>,
}

impl Conflict {
    /// The conflict in words, with titles, chords, situation and layouts.
    pub fn describe(&self, sheet: &Sheet) -> String {
        let mut text = self.describe_pair(sheet);
        if !self.layouts.is_empty() {
            // Writing to a String cannot fail.
            let _ = write!(text, " (on layout {})", self.layouts.join(", "));
        }
        text
    }

    /// The conflict in words, without the layouts.
    pub fn describe_pair(&self, sheet: &Sheet) -> String {
        let name = |party: &Party| format!("`{}`", sheet.row_name(party.cell.row));
        let (a, b) = (name(&self.first), name(&self.second));
        let (x, y) = (&self.first.chord, &self.second.chord);
        let mut text = match self.class {
            ConflictClass::Same => format!("{a} and {b} are both on {x}"),
            ConflictClass::Side => format!("{a} is on {x} and {b} on {y}, a side of the other"),
            ConflictClass::PartOfWhole => {
                format!("{a} is on {x} and {b} on {y}, one a part of the other")
            }
            ConflictClass::ByLetter => format!("{a} is on {x} and {b} on {y}, the same key"),
            ConflictClass::Manner => format!(
                "{a} and {b} are both on {x}, one as a {} and one as a {}",
                self.first.manner, self.second.manner
            ),
            ConflictClass::Seats => {
                format!("{a} of one player is on {x} and {b} of the other on {y}, on one keyboard")
            }
            ConflictClass::LongerHidesShorter => {
                let (longer, shorter) = match x.held().len() > y.held().len() {
                    true => (&a, &b),
                    false => (&b, &a),
                };
                format!("{x} and {y}: while the longer is held, {longer} happens and not {shorter}")
            }
            ConflictClass::Member => format!("{a} is on {x} and {b} on {y}, so both can happen"),
            ConflictClass::Crossing => {
                format!("{a} is on {x} and {b} on {y}: with both held, both happen")
            }
        };
        let name = |s: SituationId| &sheet.declared_situation(s).name;
        // Writing to a String cannot fail.
        let _ = match self.situations {
            Some((s, o)) if s == o => write!(text, ", in `{}`", name(s)),
            Some((s, o)) => write!(text, ", in `{}` and `{}`", name(s), name(o)),
            None => Ok(()),
        };
        text
    }
}
