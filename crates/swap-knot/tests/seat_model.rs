//! The seat against a naive model written straight from the rules of chords, on random events with
//! some lost and some doubled.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod common;

use std::collections::BTreeSet;

use common::{Hand, small};
use proptest::prelude::*;
use swap_knot::{Chord, Edge, EventKind, Input, Place, Sheet};

const KEYS: [Place; 6] = [
    Place::KeyA,
    Place::KeyB,
    Place::KeyC,
    Place::ShiftLeft,
    Place::ShiftRight,
    Place::ControlLeft,
];

/// A sheet of presses on random chords over a few keys, one action a chord.
fn chords() -> impl Strategy<Value = Vec<Chord>> {
    let held = [
        "",
        "Shift+",
        "ShiftLeft+",
        "ControlLeft+",
        "KeyA+",
        "Ctrl+Shift+",
    ];
    let last = ["KeyA", "KeyB", "KeyC", "ShiftLeft", "Shift"];
    let one = (
        proptest::sample::select(held.to_vec()),
        proptest::sample::select(last.to_vec()),
    )
        .prop_filter_map("a chord", |(h, l)| format!("{h}{l}").parse().ok());
    proptest::collection::btree_set(one, 1..8).prop_map(|set| set.into_iter().collect())
}

fn sheet(chords: &[Chord]) -> Sheet {
    let line = |(i, c): (usize, &Chord)| format!("[actions.a-{i}]\nbind = \"{c}\"\n");
    small(&chords.iter().enumerate().map(line).collect::<String>())
}

/// The rules, one by one.
struct Model {
    chords: Vec<Chord>,
    down: BTreeSet<Place>,
    on: Vec<BTreeSet<Place>>,
}

impl Model {
    fn places(input: Input) -> Vec<Place> {
        match input {
            Input::Key(place) => vec![place],
            Input::Modifier(m) => m.places(swap_knot::Platform::current()).to_vec(),
            _ => unreachable!("only keys here"),
        }
    }

    fn holds(&self, chord: &Chord) -> bool {
        let down = |h: &Input| Self::places(*h).iter().any(|p| self.down.contains(p));
        chord.held().iter().all(down)
    }

    fn key(&mut self, place: Place, down: bool) {
        // A press counts only if the key was up, a release only if it was down.
        if down == self.down.contains(&place) {
            return;
        }
        if down {
            // Held inputs must be down before the completing one; the longest chord wins.
            let satisfied: Vec<usize> = (0..self.chords.len())
                .filter(|&i| Self::places(self.chords[i].input()).contains(&place))
                .filter(|&i| self.holds(&self.chords[i]))
                .collect();
            let longest = satisfied.iter().map(|&i| self.chords[i].held().len()).max();
            self.down.insert(place);
            for i in satisfied {
                if Some(self.chords[i].held().len()) == longest {
                    self.on[i].insert(place);
                }
            }
        } else {
            // Letting go of any part ends the action.
            self.down.remove(&place);
            for i in 0..self.chords.len() {
                self.on[i].remove(&place);
                if !self.holds(&self.chords[i]) {
                    self.on[i].clear();
                }
            }
        }
    }
}

fn events() -> impl Strategy<Value = Vec<(usize, bool)>> {
    proptest::collection::vec((0..KEYS.len(), any::<bool>()), 0..60)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(600))]

    #[test]
    fn the_seat_does_what_the_rules_say(chords in chords(), events in events()) {
        let sheet = sheet(&chords);
        let mut hand = Hand::new(&sheet);
        let mut model = Model {
            on: vec![BTreeSet::new(); chords.len()],
            chords,
            down: BTreeSet::new(),
        };
        for (key, down) in events {
            hand.key(KEYS[key], down);
            model.key(KEYS[key], down);
            for (i, on) in model.on.iter().enumerate() {
                let name = format!("a-{i}");
                prop_assert_eq!(hand.is_down(&name), !on.is_empty(), "{} on {}", name, model.chords[i]);
            }
        }
        for key in KEYS {
            hand.key(key, false);
        }
        hand.tick();
        for (id, _) in sheet.actions() {
            prop_assert!(!hand.seat.is_down(id), "everything is up");
        }
    }

    #[test]
    fn every_began_has_exactly_one_end(
        chords in chords(),
        manners in proptest::collection::vec(0..5_usize, 8),
        events in proptest::collection::vec((0..KEYS.len() + 3, any::<bool>(), 0..700_u64), 0..60),
    ) {
        let words = ["press", "release", "hold", "tap", "double-tap"];
        let line = |(i, c): (usize, &Chord)| {
            format!("[actions.a-{i}]\nmanner = \"{}\"\nbind = \"{c}\"\n", words[manners[i]])
        };
        let sheet = small(&chords.iter().enumerate().map(line).collect::<String>());
        let mut hand = Hand::new(&sheet);
        let mut on = vec![false; chords.len()];
        let follow = |hand: &Hand, on: &mut Vec<bool>| {
            for h in hand.seat.happened() {
                let began = h.edge == Edge::Began;
                assert_ne!(on[h.action.index()], began, "{h:?} twice");
                on[h.action.index()] = began;
            }
        };
        for (what, down, wait) in events {
            match KEYS.get(what) {
                Some(&place) => hand.key(place, down),
                None if what == KEYS.len() => hand.feed(0, EventKind::FocusLost),
                None if down => hand.feed(0, EventKind::Unplugged),
                None => {
                    let rig = common::us(&sheet);
                    hand.seat.set_rig(rig);
                    &mut hand
                }
            };
            hand.wait(wait);
            follow(&hand, &mut on);
        }
        hand.feed(0, EventKind::FocusLost).tick();
        follow(&hand, &mut on);
        prop_assert!(on.iter().all(|on| !on), "everything is let go");
    }
}
