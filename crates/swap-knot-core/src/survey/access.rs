//! What a game asks of hands, and what eases it.

use std::fmt::Write as _;

use super::reach::reaches_key;
use crate::input::{DeviceKind, Input, PadButton, Stick};
use crate::law::Bound;
use crate::layout::{Hand, Resolver};
use crate::sheet::{Begins, ColumnKind, Parameter, Row, Sheet};

/// Something that not every hand can do, wanted by every binding that a row has on some devices.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Demand {
    /// The row.
    pub row: Row,
    /// The devices.
    pub kind: ColumnKind,
    /// What is wanted.
    pub wants: Wants,
    /// The bindings that want it, as text.
    pub chords: Vec<String>,
    /// What a player can have eased about it; nothing where the sheet says `ease = false`.
    pub eased_by: Option<Parameter>,
}

/// What a binding wants of a hand.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub enum Wants {
    /// Two or more inputs held at once, by one hand.
    Together,
    /// The same, and no one hand reaches all of them.
    BothHands,
    /// Two or more inputs pressed at the same moment.
    AtOnce {
        /// Within so many seconds.
        seconds: f32,
    },
    /// An input held.
    Hold {
        /// For so many seconds.
        seconds: f32,
    },
    /// Two presses in quick succession.
    QuickRepeat {
        /// Within so many seconds.
        seconds: f32,
    },
}

/// The hold from which on it is told of, in seconds: shorter ones are hardly more than a press.
const LONG: f32 = 0.3;

/// What the bindings of a game ask of hands, row by row. A row that has a binding on the same devices
/// that does without is not told of.
///
/// ```
/// use swap_knot::check::demands;
/// use swap_knot::sheet::Parameter;
/// use swap_knot::{Layout, Profile, Rig, Sheet};
///
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.stow]\nbind = \"Ctrl+KeyK\"")?;
/// let rig = Rig::new(&sheet, &Profile::default(), Layout::us());
/// let found = demands(&sheet, rig.bindings(), rig.resolver());
/// assert_eq!(found[0].eased_by, Some(Parameter::Latch));
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
pub fn demands(sheet: &Sheet, bindings: &[Bound], on: &Resolver) -> Vec<Demand> {
    let mut found = Vec::new();
    for of_row in bindings.chunk_by(|a, b| a.cell.row == b.cell.row) {
        let row = of_row[0].cell.row;
        for kind in ColumnKind::ALL {
            let bound: Vec<&Bound> = (of_row.iter())
                .filter(|b| b.cell.column.kind() == kind)
                .collect();
            let all: Vec<Vec<Wants>> = bound.iter().map(|b| wants(b, on)).collect();
            let Some(first) = all.first() else { continue };
            for wants in first {
                // One that does without is a way to play it.
                let same = |others: &Vec<Wants>| others.iter().any(|w| w.is_like(*wants));
                if all.iter().all(same) {
                    let can = sheet.declared(row.action).ease;
                    found.push(Demand {
                        row,
                        kind,
                        wants: *wants,
                        chords: bound.iter().map(|b| b.chord.to_string()).collect(),
                        eased_by: can.then(|| wants.eased_by()),
                    });
                }
            }
        }
    }
    found
}

fn wants(bound: &Bound, on: &Resolver) -> Vec<Wants> {
    let mut all = Vec::new();
    let easing = bound.easing;
    if bound.together {
        let seconds = easing.together_within;
        all.push(Wants::AtOnce { seconds });
    } else if !bound.chord.is_plain() {
        let one = Hand::ALL.iter().any(|hand| {
            let mut inputs = bound.chord.inputs();
            inputs.all(|input| reaches(*hand, input, on))
        });
        all.push(if one {
            Wants::Together
        } else {
            Wants::BothHands
        });
    }
    let gesture = bound.manner.gesture();
    if gesture.begins == Begins::Held && easing.hold_after >= LONG {
        let seconds = easing.hold_after;
        all.push(Wants::Hold { seconds });
    }
    if gesture.taps > 0 {
        let seconds = easing.double_tap_within;
        all.push(Wants::QuickRepeat { seconds });
    }
    all
}

/// Whether a hand reaches an input where it lies: a pad is held by both, and a mouse by the right or
/// the left alone.
fn reaches(hand: Hand, input: Input, on: &Resolver) -> bool {
    match input {
        Input::PadButton(button) => side(button).is_none_or(|side| side == hand),
        Input::PadStick(stick) | Input::PadStickHalf(stick, _) => {
            (stick == Stick::LEFT) == (hand == Hand::Left)
        }
        Input::MouseButton(_) | Input::MouseMove | Input::Wheel(_) => {
            // Keys are then for the other one.
            hand == Hand::Right
        }
        // Whichever hand holds it.
        Input::PadGyro => true,
        other if other.device_kind() == DeviceKind::Keyboard => reaches_key(hand, other, on),
        // Touch and other controllers lie where the player has them.
        _ => true,
    }
}

/// The side of a pad that a button is on; none for what either thumb reaches.
fn side(button: PadButton) -> Option<Hand> {
    use PadButton::{
        CenterLeft, CenterRight, Down, East, Left, North, Right, ShoulderLeft, ShoulderRight,
        South, StickLeftClick, StickRightClick, TriggerLeft, TriggerRight, Up, West,
    };
    match button {
        Up | Down | Left | Right | ShoulderLeft | TriggerLeft | StickLeftClick | CenterLeft => {
            Some(Hand::Left)
        }
        North | East | South | West | ShoulderRight | TriggerRight | StickRightClick
        | CenterRight => Some(Hand::Right),
        _ => None,
    }
}

impl Wants {
    /// Whether another one is of its kind, whatever the times.
    fn is_like(self, other: Wants) -> bool {
        std::mem::discriminant(&self) == std::mem::discriminant(&other)
    }

    fn eased_by(self) -> Parameter {
        match self {
            Wants::Together | Wants::BothHands => Parameter::Latch,
            Wants::AtOnce { .. } => Parameter::TogetherWithin,
            Wants::Hold { .. } | Wants::QuickRepeat { .. } => Parameter::Press,
        }
    }
}

impl Demand {
    /// The demand in words, for the developer.
    pub fn describe(&self, sheet: &Sheet) -> String {
        let title = sheet.row_title(self.row);
        let mut out = format!("\"{title}\" on {} wants ", self.kind);
        let _ = match self.wants {
            Wants::Together => write!(out, "two inputs held at once"),
            Wants::BothHands => write!(out, "both hands at once"),
            Wants::AtOnce { seconds } => {
                write!(out, "two inputs pressed within {seconds} s of each other")
            }
            Wants::Hold { seconds } => write!(out, "a hold of {seconds} s"),
            Wants::QuickRepeat { seconds } => write!(out, "two presses within {seconds} s"),
        };
        let chords: Vec<String> = self.chords.iter().map(|c| format!("`{c}`")).collect();
        let _ = write!(out, " ({})", chords.join(", "));
        out
    }

    /// What a player can have eased about it, in words, for the developer.
    pub const fn remedy(&self) -> &'static str {
        match self.eased_by {
            Some(Parameter::Latch) => "a player can have what is held latched by a tap (`latch`)",
            Some(Parameter::Press) => "a player can have it worked by a press (`press`)",
            Some(Parameter::TogetherWithin) => "a player can have more time (`together-within`)",
            Some(_) => "a player can have it eased",
            None => "nothing eases it, since the sheet says `ease = false`",
        }
    }
}
