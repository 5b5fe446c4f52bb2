//! The conflict check against a naive model, written straight from the rules: every pair, on every
//! layout, one after the other.

use std::collections::BTreeMap;

use crate::common::sheet;
use proptest::prelude::*;
use swap_knot::input::{Modifier, Platform};
use swap_knot::layout::Resolver;
use swap_knot::play::Bound;
use swap_knot::remap::{ConflictClass, conflicts, conflicts_of};
use swap_knot::sheet::Manner;
use swap_knot::{Cell, Chord, Input, Layout, Place, Profile, Rig, Sheet};

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
    let manners = (a.manner, b.manner);
    // Whether one of them, tried in every order, is a part of another: no part used twice.
    let met = within(&held_a, &held_b).or_else(|| within(&held_b, &held_a));
    if !touch(&x, &y) {
        let member = |held: &[Keys], last: &Keys, of: &[Keys], manner: Manner| {
            let mut all = held.to_vec();
            all.push(last.clone());
            // What happens only when it is let go is used up by the chord.
            within(&all, of).is_some() && !matches!(manner, Manner::Tap | Manner::Release)
        };
        let is = member(&held_a, &x, &held_b, a.manner) || member(&held_b, &y, &held_a, b.manner);
        return is.then_some(ConflictClass::Member);
    }
    let along = matches!(
        manners,
        (Manner::Tap, Manner::Hold) | (Manner::Hold, Manner::Tap)
    );
    let Some(same) = met else {
        let crossing = held_a.len() == held_b.len() && !along;
        return crossing.then_some(ConflictClass::Crossing);
    };
    if held_a.len() != held_b.len() {
        return Some(ConflictClass::LongerHidesShorter);
    }
    if along {
        return None;
    }
    let letter = |c: &Chord| c.inputs().any(|i| matches!(i, Input::Letter(_)));
    Some(match same && x == y {
        false => ConflictClass::Side,
        true if a.chord != b.chord && (letter(&a.chord) || letter(&b.chord)) => {
            ConflictClass::ByLetter
        }
        true if a.manner != b.manner => ConflictClass::Manner,
        true => ConflictClass::Same,
    })
}

type Keys = Vec<Input>;

fn touch(p: &Keys, q: &Keys) -> bool {
    p.iter().any(|k| q.contains(k))
}

/// Whether each part is another one of those, and if so whether all can be the very same.
fn within(parts: &[Keys], of: &[Keys]) -> Option<bool> {
    let Some((first, rest)) = parts.split_first() else {
        return Some(true);
    };
    let ways = (0..of.len())
        .filter(|&i| touch(first, &of[i]))
        .filter_map(|i| {
            let mut left = of.to_vec();
            let here = left.remove(i);
            Some(within(rest, &left)? && here == *first)
        });
    ways.max()
}

/// Every stack of the three situations, lowest first; the pause lies on top.
fn stacks() -> Vec<Vec<usize>> {
    (0..8)
        .map(|bits| (0..3).filter(|s| bits >> s & 1 != 0).collect())
        .collect()
}

fn is_live(situations: &[usize], stack: &[usize]) -> bool {
    let covered = stack.contains(&2);
    situations.is_empty()
        || situations
            .iter()
            .any(|s| stack.contains(s) && (*s == 2 || !covered))
}

/// Whether on every stack with both live a longer chord is live that their parts together satisfy.
fn is_hidden(drawn: &[Drawn], bindings: &[Bound], a: &Bound, b: &Bound, layout: &Layout) -> bool {
    let set = |input| keys(input, layout);
    let held = |c: &Chord| c.held().iter().filter_map(|&i| set(i)).collect::<Vec<_>>();
    let (Some(x), Some(y)) = (set(a.chord.input()), set(b.chord.input())) else {
        return false;
    };
    let mut parts = held(&a.chord);
    parts.extend(held(&b.chord));
    let inside = |p: &Keys, of: &Keys| p.iter().all(|k| of.contains(k));
    let hides = |c: &&Bound| {
        let own = held(&c.chord);
        let Some(last) = set(c.chord.input()) else {
            return false;
        };
        own.len() > held(&a.chord).len()
            && own.len() == c.chord.held().len()
            && own.iter().all(|of| parts.iter().any(|p| inside(p, of)))
            && (inside(&x, &last) || inside(&y, &last))
    };
    let situations = |of: &Bound| &drawn[of.cell.row.action.index()].0;
    let live = |of: &Bound, stack: &[usize]| is_live(situations(of), stack);
    bindings.iter().filter(hides).any(|c| {
        stacks()
            .iter()
            .filter(|s| live(a, s) && live(b, s))
            .all(|s| live(c, s))
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
                .filter(|(l, class)| {
                    *class != ConflictClass::Crossing || !is_hidden(drawn, bindings, a, b, l)
                })
                .collect();
            let Some(class) = found.iter().map(|(_, class)| class).min() else {
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
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(300)))]

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
        let one = conflicts_of(&sheet, candidate, rig.bindings(), &Resolver::new(&fr, Platform::Other));
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
