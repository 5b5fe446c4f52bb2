//! What the marks lack for a game, and what is in them twice.

use std::collections::BTreeMap;
use std::fmt;

use super::{Family, Marks};
use crate::input::{Input, PadButton, Stick, UsbFilter};
use crate::sheet::Sheet;

/// Something about the marks that a player would stumble over.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct MarksFinding {
    /// The family.
    pub family: String,
    /// The line and the column in the file, from 1: of the mark, or of the family where it has none.
    pub at: (usize, usize),
    /// What.
    pub kind: MarksFindingKind,
}

/// What is wrong with a family's marks.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum MarksFindingKind {
    /// The game binds buttons of which neither the family nor what it is like says anything: they are
    /// told by place. The cross and the sticks have a place and seldom a mark; they are not missed.
    Lacking(Vec<Input>),
    /// Two inputs have the same mark, so that a prompt could mean either.
    Doubled {
        /// What is printed.
        mark: String,
        /// On which input first.
        first: Input,
        /// And on which again.
        again: Input,
    },
    /// Two families are known by the same numbers; the first one has the pad.
    Claimed {
        /// The numbers.
        usb: UsbFilter,
        /// The family that has it.
        by: String,
    },
    /// The mark is a sign that has no name, so that a screen reader cannot say it.
    Unsaid {
        /// On which input.
        input: Input,
        /// What is printed.
        mark: String,
    },
    /// The family is known by no numbers, so that only the player can choose it.
    NoNumbers,
}

impl MarksFinding {
    /// Whether a player would stumble over it. A family without numbers may be there for others to be
    /// like.
    pub fn is_problem(&self) -> bool {
        !matches!(self.kind, MarksFindingKind::NoNumbers)
    }
}

impl fmt::Display for MarksFinding {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}: {}", self.family, self.kind)
    }
}

impl fmt::Display for MarksFindingKind {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            MarksFindingKind::Lacking(inputs) => {
                let inputs: Vec<String> = inputs.iter().map(Input::to_string).collect();
                write!(
                    f,
                    "no mark for {}, which the game binds; they are told by place",
                    inputs.join(", ")
                )
            }
            MarksFindingKind::Doubled { mark, first, again } => write!(
                f,
                "`{mark}` is on {first} and on {again}; a prompt could mean either"
            ),
            MarksFindingKind::Claimed { usb, by } => {
                write!(f, "{usb} belongs to {by} already, which has these pads")
            }
            MarksFindingKind::Unsaid { input, mark } => write!(
                f,
                "`{mark}` on {input} is a sign without a name; give it one, as a voice cannot say it"
            ),
            MarksFindingKind::NoNumbers => f.write_str(
                "no USB numbers; its pads are not known unless the player chooses the family",
            ),
        }
    }
}

impl Marks {
    /// What the marks lack for a game, and what is in them twice, in the order of the file. Pictures
    /// are looked at by the crate that draws.
    pub fn check(&self, sheet: &Sheet) -> Vec<MarksFinding> {
        let mut wanted = sheet.inputs();
        wanted.retain(is_missed);
        let mut found = Vec::new();
        let mut claimed: BTreeMap<UsbFilter, &str> = BTreeMap::new();
        for family in self.families() {
            let mut add = |at, kind| {
                found.push(MarksFinding {
                    family: family.name.clone(),
                    at,
                    kind,
                });
            };
            if family.usb.is_empty() {
                add(family.at, MarksFindingKind::NoNumbers);
            }
            for usb in &family.usb {
                match claimed.get(usb) {
                    Some(by) => {
                        let (usb, by) = (*usb, (*by).to_owned());
                        add(family.at, MarksFindingKind::Claimed { usb, by });
                    }
                    None => drop(claimed.insert(*usb, &family.name)),
                }
            }
            let lacks = |name: &str| -> Vec<Input> {
                let says = |input: &Input| self.line(name).any(|f| f.marks.contains_key(input));
                wanted.iter().filter(|i| !says(i)).copied().collect()
            };
            let lacking = lacks(&family.name);
            // What another one lacks is told there.
            let is_told = family
                .like
                .as_deref()
                .is_some_and(|like| lacks(like) == lacking);
            if !lacking.is_empty() && !is_told {
                add(family.at, MarksFindingKind::Lacking(lacking));
            }
            self.check_marks(family, &mut add);
        }
        found
    }

    fn check_marks(&self, family: &Family, add: &mut impl FnMut((usize, usize), MarksFindingKind)) {
        let mut first: BTreeMap<&str, (Input, bool)> = BTreeMap::new();
        let said = self.said(&family.name, "");
        for (input, mark, _) in said {
            let Some(mark) = mark else { continue };
            let own = family.marks.get(&input);
            let at = own.map_or(family.at, |m| m.at);
            // A stick that is pressed in is still that stick.
            let key = pressed_stick(input).unwrap_or(input);
            let is_own = own.is_some_and(|m| m.mark.is_some());
            let before = first.insert(mark, (key, is_own));
            if let Some((first, first_is_own)) = before
                && first != key
                // What is doubled in another one is told there.
                && (is_own || first_is_own)
            {
                let mark = mark.to_owned();
                let again = input;
                add(at, MarksFindingKind::Doubled { mark, first, again });
            }
            let is_named =
                own.is_some_and(|m| m.name.everywhere.is_some() || !m.name.by_language.is_empty());
            let has_letters = mark.chars().any(char::is_alphanumeric);
            if is_own && !has_letters && !is_named {
                let mark = mark.to_owned();
                add(at, MarksFindingKind::Unsaid { input, mark });
            }
        }
    }
}

/// The stick that a click is of.
const fn pressed_stick(input: Input) -> Option<Input> {
    match input {
        Input::PadButton(PadButton::StickLeftClick) => Some(Input::PadStick(Stick::LEFT)),
        Input::PadButton(PadButton::StickRightClick) => Some(Input::PadStick(Stick::RIGHT)),
        _ => None,
    }
}

/// Whether an input is a button that has a mark on most pads.
fn is_missed(input: &Input) -> bool {
    use PadButton::{Down, Left, Right, StickLeftClick, StickRightClick, Up};
    let told_by_place = [Up, Down, Left, Right, StickLeftClick, StickRightClick];
    matches!(input, Input::PadButton(button) if !told_by_place.contains(button))
}
