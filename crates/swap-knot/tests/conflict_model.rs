//! The conflict check against a naive model, written straight from the rules: every pair, on every
//! layout, one after the other.

#![allow(missing_docs, clippy::unwrap_used, clippy::panic)]

mod common;

use std::collections::BTreeMap;

use common::sheet;
use proptest::prelude::*;
use swap_knot::{
    Bound, Cell, Chord, ConflictClass, Input, Layout, Manner, Modifier, Place, Platform, Profile,
    Rig, Sheet, conflicts, conflicts_of,
};

const CHORDS: [&str; 18] = [
    "KeyE",
    "KeyA",
    "KeyQ",
    "Semicolon",
    "letter:a",
    "letter:q",
    "letter:m",
    "letter:e",
    "Shift+KeyE",
    "ShiftLeft+KeyE",
    "ShiftRight+KeyE",
    "Ctrl+KeyE",
    "Ctrl+Shift+KeyE",
    "Ctrl+letter:q",
    "ShiftLeft",
    "pad:south",
    "pad:shoulder-left+pad:south",
    "pad:shoulder-left",
];
const MANNERS: [&str; 3] = ["press", "hold", "tap"];

/// An action: its situations, and for each binding a chord and a manner.
type Drawn = (Vec<usize>, Vec<(usize, usize)>);

fn actions() -> impl Strategy<Value = Vec<Drawn>> {
    let situations = proptest::sample::subsequence(vec![0_usize, 1, 2], 0..=2);
    let bindings = proptest::collection::vec((0..CHORDS.len(), 0..MANNERS.len()), 1..4);
    proptest::collection::vec((situations, bindings), 2..7)
}

/// The deck and the helm may be live together; the pause covers both.
fn declare(actions: &[Drawn]) -> Option<Sheet> {
    let mut text = String::from(
        "game = \"model\"\n[situations.s-0]\n[situations.s-1]\nwith = \"s-0\"\n[situations.s-2]\nover = [\"s-0\", \"s-1\"]\n",
    );
    for (n, (situations, bindings)) in actions.iter().enumerate() {
        let names: Vec<String> = situations.iter().map(|s| format!("\"s-{s}\"")).collect();
        let bindings: Vec<String> = bindings
            .iter()
            .map(|(c, m)| {
                format!(
                    "{{ on = \"{}\", manner = \"{}\" }}",
                    CHORDS[*c], MANNERS[*m]
                )
            })
            .collect();
        text += &format!("[actions.a-{n}]\nbind = [{}]\n", bindings.join(", "));
        if !names.is_empty() {
            text += &format!("situation = [{}]\n", names.join(", "));
        }
    }
    // The same binding twice in one action is refused; such a draw is passed over.
    Sheet::from_toml(&text).ok()
}

/// Rule: two actions can meet only if both can be live at once and neither covers the other.
fn meet(one: &[usize], other: &[usize]) -> bool {
    let together = |a: usize, b: usize| a == b || (a < 2 && b < 2);
    one.is_empty() || other.is_empty() || one.iter().any(|a| other.iter().any(|b| together(*a, *b)))
}

/// The keys that an input may be worked with, letters turned into places.
fn keys(input: Input, layout: &Layout) -> Option<Vec<Input>> {
    Some(match input {
        Input::Letter(letter) => vec![Input::Key(layout.place_of(letter)?)],
        Input::Modifier(Modifier::Shift) => [Place::ShiftLeft, Place::ShiftRight]
            .map(Input::Key)
            .to_vec(),
        Input::Modifier(Modifier::Ctrl) => [Place::ControlLeft, Place::ControlRight]
            .map(Input::Key)
            .to_vec(),
        other => vec![other],
    })
}

/// How two bindings meet on a layout.
fn judge(a: &Bound, b: &Bound, layout: &Layout) -> Option<ConflictClass> {
    let set = |input| keys(input, layout);
    let held = |c: &Chord| c.held().iter().map(|&i| set(i)).collect::<Option<Vec<_>>>();
    let (x, y) = (set(a.chord.input())?, set(b.chord.input())?);
    let (held_a, held_b) = (held(&a.chord)?, held(&b.chord)?);
    let touch = |p: &Vec<Input>, q: &Vec<Input>| p.iter().any(|k| q.contains(k));
    if !touch(&x, &y) {
        let member = |plain: &Vec<Input>, alone: bool, of: &Vec<Vec<Input>>| {
            alone && of.iter().any(|h| touch(h, plain))
        };
        let is = member(&x, held_a.is_empty(), &held_b) || member(&y, held_b.is_empty(), &held_a);
        return is.then_some(ConflictClass::Member);
    }
    let (short, long) = match held_a.len() <= held_b.len() {
        true => (&held_a, &held_b),
        false => (&held_b, &held_a),
    };
    if !short.iter().all(|h| long.iter().any(|o| touch(h, o))) {
        return None;
    }
    if short.len() < long.len() {
        return Some(ConflictClass::LongerHidesShorter);
    }
    if matches!(
        (a.manner, b.manner),
        (Manner::Tap, Manner::Hold) | (Manner::Hold, Manner::Tap)
    ) {
        return None;
    }
    let equal = x == y && short.iter().all(|h| long.contains(h));
    let letter = |c: &Chord| c.inputs().any(|i| matches!(i, Input::Letter(_)));
    Some(match equal {
        false => ConflictClass::Side,
        true if a.chord != b.chord && (letter(&a.chord) || letter(&b.chord)) => {
            ConflictClass::ByLetter
        }
        true if a.manner != b.manner => ConflictClass::Manner,
        true => ConflictClass::Same,
    })
}

type Told = BTreeMap<(Cell, Cell), (ConflictClass, Vec<String>)>;

fn naive(drawn: &[Drawn], bindings: &[Bound], layouts: &[Layout]) -> Told {
    let mut told = Told::new();
    for (i, a) in bindings.iter().enumerate() {
        for b in &bindings[i + 1..] {
            let (one, other) = (a.cell.row.action.index(), b.cell.row.action.index());
            if one == other || !meet(&drawn[one].0, &drawn[other].0) {
                continue;
            }
            let found: Vec<(&Layout, ConflictClass)> = layouts
                .iter()
                .filter_map(|l| Some((l, judge(a, b, l)?)))
                .collect();
            let Some((_, class)) = found.first() else {
                continue;
            };
            let letter = |c: &Chord| c.inputs().any(|i| matches!(i, Input::Letter(_)));
            let by_layout = a.chord != b.chord && (letter(&a.chord) || letter(&b.chord));
            let some = found.len() < layouts.len() || layouts.len() == 1;
            let names = match by_layout && some {
                true => found.iter().map(|(l, _)| l.name().to_owned()).collect(),
                false => Vec::new(),
            };
            told.insert((a.cell, b.cell), (*class, names));
        }
    }
    told
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]

    #[test]
    fn the_check_finds_what_the_rules_say(drawn in actions(), several in any::<bool>()) {
        let Some(sheet) = declare(&drawn) else { return Ok(()) };
        let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
        let names: &[&str] = if several { &["us", "fr", "de", "us-dvorak", "ru"] } else { &["fr"] };
        let layouts: Vec<Layout> = names.iter().map(|n| Layout::shipped(n).unwrap()).collect();
        let found = conflicts(&sheet, rig.bindings(), &layouts, Platform::Other);
        let told: Told = found
            .into_iter()
            .map(|c| ((c.first.cell, c.second.cell), (c.class, c.layouts)))
            .collect();
        prop_assert_eq!(told, naive(&drawn, rig.bindings(), &layouts));
    }

    #[test]
    fn one_candidate_finds_what_the_whole_check_finds(drawn in actions(), pick in any::<prop::sample::Index>()) {
        let Some(sheet) = declare(&drawn) else { return Ok(()) };
        let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
        let fr = Layout::shipped("fr").unwrap();
        let candidate = &rig.bindings()[pick.index(rig.bindings().len())];
        let one = conflicts_of(&sheet, candidate, rig.bindings(), &fr, Platform::Other);
        let all = conflicts(&sheet, rig.bindings(), std::slice::from_ref(&fr), Platform::Other);
        let other = |first: Cell, second: Cell| if first == candidate.cell { second } else { first };
        let mut mine: Vec<_> = one.iter().map(|c| (c.second.cell, c.class)).collect();
        let mut whole: Vec<_> = all
            .iter()
            .filter(|c| [c.first.cell, c.second.cell].contains(&candidate.cell))
            .map(|c| (other(c.first.cell, c.second.cell), c.class))
            .collect();
        mine.sort();
        whole.sort();
        prop_assert_eq!(mine, whole);
    }
}

#[test]
fn the_model_knows_the_examples_of_the_design() {
    let sheet = sheet(
        "game = \"x\"\n[actions.a]\nbind = \"letter:a\"\n[actions.b]\nbind = \"KeyQ\"\n[actions.c]\nbind = \"Ctrl+KeyQ\"",
    );
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
    let [a, b, c] = rig.bindings() else {
        panic!("three")
    };
    let (us, fr) = (Layout::us(), Layout::shipped("fr").unwrap());
    assert_eq!(judge(a, b, &us), None);
    assert_eq!(judge(a, b, &fr), Some(ConflictClass::ByLetter));
    assert_eq!(judge(b, c, &us), Some(ConflictClass::LongerHidesShorter));
}
