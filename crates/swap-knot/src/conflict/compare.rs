//! Two bindings compared, once letters are turned into places.

use super::ConflictClass;
use crate::input::{Chord, Direction, HidInput, Input, Platform, Sign};
use crate::layout::Layout;
use crate::rig::Bound;

/// Inputs as sets of keys in hand: one key, or the two sides of a modifier.
pub(super) type Keys = [Input; 2];

/// A binding with its letters turned into places.
#[derive(Clone, Debug)]
pub(super) struct Resolved<'a> {
    pub(super) bound: &'a Bound,
    pub(super) input: Keys,
    pub(super) held: Vec<Keys>,
}

/// The keys that an input stands for; none for a letter that the layout lacks.
fn keys(input: Input, layout: &Layout, platform: Platform) -> Option<Keys> {
    Some(match input {
        Input::Modifier(m) => m.places(platform).map(Input::Key),
        Input::Letter(letter) => [Input::Key(layout.place_of(letter)?); 2],
        other => [other; 2],
    })
}

impl<'a> Resolved<'a> {
    pub(super) fn new(bound: &'a Bound, layout: &Layout, platform: Platform) -> Option<Self> {
        let chord = &bound.chord;
        let held = chord.held().iter().map(|&h| keys(h, layout, platform));
        Some(Resolved {
            bound,
            input: keys(chord.input(), layout, platform)?,
            held: held.collect::<Option<_>>()?,
        })
    }
}

/// Whether a chord's keys depend on the layout.
pub(super) fn has_letter(chord: &Chord) -> bool {
    chord.inputs().any(|i| matches!(i, Input::Letter(_)))
}

/// The whole that an input is a part of, so that both are looked for under one name.
pub(super) fn whole(input: Input) -> Input {
    match input {
        Input::PadStickHalf(stick, _) => Input::PadStick(stick),
        Input::Hid(HidInput::Half(axis, _)) => Input::Hid(HidInput::Axis(axis)),
        other => other,
    }
}

/// The parts of an input that are inputs themselves.
fn parts(input: Input) -> Vec<Input> {
    match input {
        Input::PadStick(stick) => Direction::ALL
            .map(|d| Input::PadStickHalf(stick, d))
            .to_vec(),
        Input::Hid(HidInput::Axis(axis)) => [Sign::Positive, Sign::Negative]
            .map(|s| Input::Hid(HidInput::Half(axis, s)))
            .to_vec(),
        _ => Vec::new(),
    }
}

/// How two sets of keys meet.
#[derive(Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
enum Meet {
    Equal,
    Side,
    Part,
}

fn meet(a: &Keys, b: &Keys) -> Option<Meet> {
    if a == b {
        return Some(Meet::Equal);
    }
    if a.iter().any(|k| b.contains(k)) {
        return Some(Meet::Side);
    }
    let is_part = |whole: &Keys, part: &Keys| parts(whole[0]).contains(&part[0]);
    (is_part(a, b) || is_part(b, a)).then_some(Meet::Part)
}

/// Whether everything one holds is held by the other, and how closely; the shorter one first.
fn within(shorter: &[Keys], longer: &[Keys]) -> Option<Meet> {
    let mut worst = Meet::Equal;
    for held in shorter {
        worst = worst.max(longer.iter().filter_map(|o| meet(held, o)).min()?);
    }
    Some(worst)
}

/// How two bindings meet, if they do; whether both can be live is the caller's to know.
pub(super) fn compare(a: &Resolved<'_>, b: &Resolved<'_>) -> Option<ConflictClass> {
    let (short, long) = if a.held.len() <= b.held.len() {
        (a, b)
    } else {
        (b, a)
    };
    let Some(completing) = meet(&a.input, &b.input) else {
        let is_held = |x: &Resolved<'_>, y: &Resolved<'_>| {
            x.held.is_empty() && y.held.iter().any(|h| meet(h, &x.input).is_some())
        };
        return (is_held(a, b) || is_held(b, a)).then_some(ConflictClass::Member);
    };
    let held = within(&short.held, &long.held)?;
    if short.held.len() < long.held.len() {
        return Some(ConflictClass::LongerHidesShorter);
    }
    let (x, y) = (a.bound, b.bound);
    if x.manner.gets_along_with(y.manner) {
        return None;
    }
    let by_letter = || has_letter(&x.chord) || has_letter(&y.chord);
    Some(match completing.max(held) {
        Meet::Equal if x.chord != y.chord && by_letter() => ConflictClass::ByLetter,
        Meet::Equal if x.manner != y.manner => ConflictClass::Manner,
        Meet::Equal => ConflictClass::Same,
        Meet::Side => ConflictClass::Side,
        Meet::Part => ConflictClass::PartOfWhole,
    })
}

/// Whether two bindings are completed by the same key while the same is held, whatever else.
pub(super) fn meet_at_all(a: &Resolved<'_>, b: &Resolved<'_>) -> bool {
    let same_length = a.held.len() == b.held.len();
    same_length && meet(&a.input, &b.input).is_some() && within(&a.held, &b.held).is_some()
}
