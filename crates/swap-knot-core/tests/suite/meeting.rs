//! Play and check agree, over every stack that a sheet allows: whatever two actions one gesture
//! begins, the check has told of; and whatever it tells of, some gesture does.

use crate::common::what;
use std::collections::BTreeSet;

use proptest::prelude::*;
use swap_knot::input::{Direction, Platform};
use swap_knot::layout::Resolver;
use swap_knot::play::{Bound, Edge, Outcome};
use swap_knot::remap::{Conflict, ConflictClass, Party, conflicts};
use swap_knot::sheet::{ActionId, Manner, SituationId};
use swap_knot::{
    DeviceId, Event, EventKind, Input, Layout, Place, Profile, Rig, Seat, Sheet, Stick, Time,
};

/// What is bound; a `~` before it: pressed together, in any order.
const PRESS: [&str; 28] = [
    "KeyA",
    "KeyQ",
    "letter:a",
    "letter:q",
    "Shift+letter:a",
    "ShiftLeft",
    "Shift+KeyA",
    "ShiftLeft+KeyA",
    "ShiftRight+KeyA",
    "Ctrl+KeyA",
    "Main+KeyA",
    "Ctrl+Shift+KeyA",
    "ShiftLeft+ShiftRight+KeyA",
    "KeyQ+KeyA",
    "letter:a+KeyQ",
    "pad:south",
    "pad:shoulder-left",
    "pad:shoulder-left+pad:south",
    "pad:trigger-left",
    "pad:shoulder-left+pad:trigger-left",
    "pad:trigger-left+pad:south",
    "pad:stick-left.up",
    "pad:shoulder-left+pad:stick-left.up",
    "pad:stick-left.up+pad:south",
    "KeyQ+Shift+KeyA",
    "ShiftLeft+KeyQ",
    "~KeyQ+KeyA",
    "~Shift+KeyQ+KeyA",
];
const MANNERS: [&str; 6] = [
    "press",
    "release",
    "hold",
    "tap",
    "double-tap",
    "triple-tap",
];
const SITUATIONS: [&str; 5] = ["deck", "helm", "chart", "hail", "pause"];
const STACKS: &str = r#"
[situations.deck]
[situations.helm]
with = "deck"
[situations.chart]
over = ["deck", "helm"]
cover = "used"
[situations.hail]
over = "deck"
with = "helm"
cover = "none"
typing = true
[situations.pause]
over = "chart"
"#;

#[derive(Clone, Debug)]
struct Drawn {
    shape: u8,
    bindings: Vec<(usize, usize, bool)>,
    situations: Vec<usize>,
    while_paused: bool,
    while_typing: bool,
}

fn drawn() -> impl Strategy<Value = Vec<Drawn>> {
    let one = (
        prop_oneof![4 => Just(0_u8), 1 => Just(1), 1 => Just(2)],
        proptest::collection::vec(
            (0..PRESS.len(), 0..5_usize, prop::bool::weighted(0.2)),
            1..3,
        ),
        proptest::sample::subsequence(vec![0, 1, 2, 3, 4], 0..=2),
        any::<bool>(),
        any::<bool>(),
    );
    let one = one.prop_map(
        |(shape, bindings, situations, while_paused, while_typing)| Drawn {
            shape,
            bindings,
            situations,
            while_paused,
            while_typing,
        },
    );
    proptest::collection::vec(one, 2..5)
}

fn declare(drawn: &[Drawn]) -> Option<(Sheet, String)> {
    let mut text = format!("game = \"model\"\n{STACKS}");
    for (n, action) in drawn.iter().enumerate() {
        let names = action
            .situations
            .iter()
            .map(|s| format!("\"{}\"", SITUATIONS[*s]));
        let names: Vec<String> = names.collect();
        text += &format!(
            "[actions.a-{n}]\nwhile-paused = {}\nwhile-typing = {}\n",
            action.while_paused, action.while_typing
        );
        if !names.is_empty() {
            text += &format!("situation = [{}]\n", names.join(", "));
        }
        let each = action.bindings.iter();
        text += &match action.shape {
            0 => {
                let all = each.map(|&(c, m, strict)| {
                    let (on, manner) = (PRESS[c], MANNERS[m]);
                    let together = on.starts_with('~');
                    format!(
                        "{{ on = \"{}\", manner = \"{manner}\", strict = {strict}, together = {together} }}",
                        on.trim_start_matches('~')
                    )
                });
                format!("bind = [{}]\n", all.collect::<Vec<_>>().join(", "))
            }
            1 => "shape = \"plane\"\nbind = \"pad:stick-left\"\n".to_owned(),
            _ => "shape = \"pull\"\nbind = \"pad:trigger-left\"\n".to_owned(),
        };
    }
    Some((Sheet::from_toml(&text).ok()?, text))
}

/// Every order of every set of situations that the sheet lets be live together.
fn stacks(sheet: &Sheet) -> Vec<Vec<SituationId>> {
    let all: Vec<SituationId> = sheet.situations().map(|(id, _)| id).collect();
    let mut out: Vec<Vec<SituationId>> = vec![Vec::new()];
    let mut at = 0;
    while at < out.len() {
        for &next in &all {
            let mut longer = out[at].clone();
            if longer.contains(&next) {
                continue;
            }
            longer.push(next);
            out.push(longer);
        }
        at += 1;
    }
    out.retain(|stack| sheet.unforeseen(stack).is_none());
    out
}

/// A player with one keyboard and one pad.
#[derive(Clone)]
struct Hands {
    seat: Seat,
    now: u64,
    stick: [f32; 2],
    began: Vec<ActionId>,
}

impl Hands {
    fn work(&mut self, leaf: Input, down: bool) {
        self.now += 10;
        let (device, what) = match leaf {
            Input::Key(place) => (0, what::key(place, down)),
            Input::PadButton(button) => {
                let value = if down { 1.0 } else { 0.0 };
                (1, EventKind::PadButton { button, value })
            }
            Input::PadStickHalf(stick, direction) => {
                let to = if down { 1.0 } else { 0.0 };
                match direction {
                    Direction::Up => self.stick[1] = to,
                    Direction::Down => self.stick[1] = -to,
                    Direction::Left => self.stick[0] = -to,
                    Direction::Right => self.stick[0] = to,
                }
                let [x, y] = self.stick;
                (1, EventKind::PadStick { stick, x, y })
            }
            other => panic!("{other} is no leaf"),
        };
        self.seat.feed(&Event {
            at: Time::from_millis(self.now),
            device: DeviceId(device),
            what,
        });
        self.wait(0);
    }

    fn wait(&mut self, millis: u64) {
        self.now += millis;
        self.seat.tick(Time::from_millis(self.now));
        let began = self.seat.happened().iter();
        let began = began.filter(|h| h.edge == Edge::Began && h.arm.is_none());
        self.began.extend(began.map(|h| h.action));
    }

    /// What happened until now does not count.
    fn forget(&mut self) {
        self.began.clear();
        self.seat.keep_outcomes(0);
        self.seat.keep_outcomes(256);
    }

    /// Whether an action was worked by an input, by what was told of it.
    fn was_worked_by(&self, action: ActionId, last: Input) -> bool {
        let on = self.seat.rig().resolver();
        self.seat.outcomes().any(|told| {
            let worked = told.outcome == Outcome::Worked;
            worked
                && told.row.is_some_and(|r| r.action == action)
                && leaves(on, told.input).contains(&last)
        })
    }

    /// Works an input in a manner.
    fn gesture(&mut self, leaf: Input, manner: Manner) {
        match manner {
            Manner::Press => self.work(leaf, true),
            Manner::Hold => {
                self.work(leaf, true);
                self.wait(700);
            }
            Manner::Tap | Manner::Release => {
                self.work(leaf, true);
                self.work(leaf, false);
            }
            Manner::DoubleTap | Manner::TripleTap => {
                let taps = if manner == Manner::DoubleTap { 1 } else { 2 };
                for _ in 0..taps {
                    self.work(leaf, true);
                    self.work(leaf, false);
                }
                self.work(leaf, true);
            }
        }
    }
}

fn leaves(on: &Resolver, input: Input) -> Vec<Input> {
    match input {
        Input::PadStick(s) => Direction::ALL.map(|d| Input::PadStickHalf(s, d)).to_vec(),
        Input::PadButton(_) | Input::PadStickHalf(..) => vec![input],
        key => on.places_of(key).into_iter().map(Input::Key).collect(),
    }
}

/// Whatever one press can be, from its going down on.
fn gestures() -> [Vec<(bool, u64)>; 6] {
    [
        vec![(true, 50), (false, 0)],
        vec![(true, 700), (false, 0)],
        vec![(true, 50), (false, 20), (true, 50), (false, 0)],
        vec![(true, 50), (false, 20), (true, 700), (false, 0)],
        [
            [(true, 50), (false, 20)].repeat(2),
            vec![(true, 50), (false, 0)],
        ]
        .concat(),
        [
            [(true, 50), (false, 20)].repeat(2),
            vec![(true, 700), (false, 0)],
        ]
        .concat(),
    ]
}

/// The actions that begin by working one input while others are held; one set a gesture.
fn begins(base: &Hands, held: &[Input], last: Input) -> Vec<BTreeSet<ActionId>> {
    // What the first of two presses began, it began alone.
    begin_by(base, held, last, true)
}

/// The actions that give way, each to one of a longer chord, while inputs are worked like that.
fn gives_way(base: &Hands, held: &[Input], last: Input) -> BTreeSet<(ActionId, ActionId)> {
    let mut hands = base.clone();
    held.iter().for_each(|&leaf| hands.work(leaf, true));
    hands.work(last, true);
    let told = hands.seat.outcomes();
    let pairs = told.filter_map(|told| match (told.row, told.outcome) {
        (Some(row), Outcome::LongerChord(other)) => Some((row.action, other.action)),
        _ => None,
    });
    pairs.collect()
}

fn begin_by(base: &Hands, held: &[Input], last: Input, alone: bool) -> Vec<BTreeSet<ActionId>> {
    let is_old = |leaf: &Input, how: u8| match how {
        0 => true,
        1 => leaf.is_modifier(),
        _ => false,
    };
    // What comes together is held only just before; nothing else asks since when.
    let rig = base.seat.rig();
    let is_there = |part: Input| {
        let leaves = leaves(rig.resolver(), part);
        leaves.contains(&last) || leaves.iter().any(|l| held.contains(l))
    };
    let mut all = rig.bindings().iter();
    let together = all.any(|b| b.together && b.chord.inputs().all(is_there));
    let all = (0..if together { 3_u8 } else { 1 }).flat_map(|how| {
        let (old, fresh): (Vec<Input>, Vec<Input>) = held.iter().partition(|l| is_old(l, how));
        let mut ready = base.clone();
        old.iter().for_each(|&leaf| ready.work(leaf, true));
        // What comes of holding them has come.
        ready.wait(700);
        let each = gestures().into_iter().map(|gesture| {
            let mut hands = ready.clone();
            hands.forget();
            for (down, wait) in gesture {
                // What goes down last comes up first.
                let beside = |hands: &mut Hands| {
                    fresh.iter().for_each(|&leaf| hands.work(leaf, down));
                };
                if down {
                    beside(&mut hands);
                }
                if down && alone {
                    hands.forget();
                }
                hands.work(last, down);
                if !down {
                    let by_last = hands.began.len();
                    beside(&mut hands);
                    hands.began.truncate(by_last);
                }
                hands.wait(wait);
            }
            // What comes of the fresh ones alone is none of this press.
            let all = std::mem::take(&mut hands.began).into_iter();
            all.filter(|a| fresh.is_empty() || hands.was_worked_by(*a, last))
                .collect()
        });
        each.collect::<Vec<_>>()
    });
    all.collect()
}

/// Every way to take one leaf of each part.
fn choices(parts: &[Vec<Input>]) -> Vec<Vec<Input>> {
    let Some((first, rest)) = parts.split_first() else {
        return vec![Vec::new()];
    };
    let mut out = Vec::new();
    for tail in choices(rest) {
        for leaf in first {
            let mut all = vec![*leaf];
            all.extend(&tail);
            out.push(all);
        }
    }
    out
}

/// What is held and what comes last: of each part the leaves that would do.
type Order = (Vec<Vec<Input>>, Vec<Input>);

struct Bench {
    on: Resolver,
    bases: Vec<Hands>,
    rig: Rig,
}

impl Bench {
    fn new(sheet: &Sheet, profile: &Profile, on: &Resolver) -> Bench {
        let rig = Rig::new(sheet, profile, on);
        let bases = stacks(sheet).into_iter().map(|stack| {
            let mut seat = Seat::new(rig.clone());
            seat.set_situations(&stack);
            seat.keep_outcomes(256);
            Hands {
                seat,
                now: 1000,
                stick: [0.0; 2],
                began: Vec::new(),
            }
        });
        Bench {
            on: on.clone(),
            bases: bases.collect(),
            rig,
        }
    }

    /// What a chord wants held and what completes it then, in each order that works it.
    fn orders(&self, of: &Party) -> Vec<Order> {
        let bound = self.rig.bindings().iter().find(|b| b.cell == of.cell);
        self.orders_of(bound.expect("it is bound"))
    }

    /// Whether some binding of an action wants just what is held, and the input.
    fn is_no_more(&self, action: ActionId, held: &[Input], last: Input) -> bool {
        let all = self.rig.bindings_of_action(action).iter();
        let mut orders = all.flat_map(|b| self.orders_of(b));
        orders.any(|(parts, lasts)| {
            let is_part = |leaf: &Input| parts.iter().any(|p| p.contains(leaf));
            lasts.contains(&last) && parts.len() == held.len() && held.iter().all(is_part)
        })
    }

    fn orders_of(&self, of: &Bound) -> Vec<Order> {
        let all: Vec<Vec<Input>> = of.chord.inputs().map(|i| leaves(&self.on, i)).collect();
        let last = all.len() - 1;
        let first = if of.together { 0 } else { last };
        let order = |n: usize| {
            let mut all = all.clone();
            let input = all.remove(n);
            (all, input)
        };
        (first..=last).map(order).collect()
    }

    /// Every order of one beside every order of the other in which one input completes both.
    fn both(&self, a: &Party, b: &Party) -> Vec<(Order, Order, Vec<Input>)> {
        let mut out = Vec::new();
        for x in self.orders(a) {
            for y in self.orders(b) {
                let lasts: Vec<Input> = x.1.iter().filter(|l| y.1.contains(l)).copied().collect();
                out.push((x.clone(), y, lasts));
            }
        }
        out
    }

    /// Every leaf that something is bound to.
    fn in_use(&self) -> Vec<Input> {
        let inputs = self.rig.bindings().iter().flat_map(|b| b.chord.inputs());
        let all: BTreeSet<Input> = inputs.flat_map(|i| leaves(&self.on, i)).collect();
        // One direction stands for the others where only the whole stick is bound.
        let up = Input::PadStickHalf(Stick::LEFT, Direction::Up);
        let keep = |l: &Input| !matches!(l, Input::PadStickHalf(..)) || *l == up;
        all.into_iter().filter(keep).collect()
    }

    /// Whether some gesture does what is told of a pair.
    fn is_done(&self, told: &Conflict) -> bool {
        let (a, b) = (&told.first, &told.second);
        match told.class {
            ConflictClass::LongerHidesShorter => self.is_hidden(a, b) || self.is_hidden(b, a),
            ConflictClass::Member => self.is_member(a, b) || self.is_member(b, a),
            _ => self.is_common(a, b),
        }
    }

    fn is_common(&self, a: &Party, b: &Party) -> bool {
        let wanted = [a, b].map(|p| p.cell.row.action);
        self.both(a, b).into_iter().any(|(x, y, lasts)| {
            let parts = [x.0, y.0].concat();
            // A strict chord that would hide both gives way to a modifier that neither minds.
            let more = choices(&parts).into_iter().map(|mut held| {
                held.push(Input::Key(Place::AltLeft));
                held
            });
            choices(&parts).into_iter().chain(more).any(|mut held| {
                held.sort();
                held.dedup();
                lasts.iter().any(|&last| {
                    self.bases.iter().any(|base| {
                        // A double tap is two presses, and what the first begins comes with it.
                        let all = begin_by(base, &held, last, false);
                        all.iter().any(|b| wanted.iter().all(|w| b.contains(w)))
                    })
                })
            })
        })
    }

    /// Whether working the longer one keeps the shorter one from happening where it would.
    fn is_hidden(&self, short: &Party, long: &Party) -> bool {
        let [s, l] = [short, long].map(|p| p.cell.row.action);
        self.both(short, long).into_iter().any(|(x, y, lasts)| {
            let short_held = choices(&x.0);
            choices(&y.0).into_iter().any(|held| {
                lasts.iter().any(|&last| {
                    self.bases.iter().any(|base| {
                        let with = begins(base, &held, last);
                        let only = |set: &BTreeSet<ActionId>| set.contains(&l) && !set.contains(&s);
                        let alone = |held: &Vec<Input>| {
                            begins(base, held, last).iter().any(|set| set.contains(&s))
                        };
                        with.iter().any(only)
                            && short_held
                                .iter()
                                .filter(|h| h.iter().all(|leaf| held.contains(leaf)))
                                .any(alone)
                    })
                })
            })
        })
    }

    /// Whether one is on when the other, of which it is a part, happens.
    fn is_member(&self, part: &Party, of: &Party) -> bool {
        let [p, o] = [part, of].map(|p| p.cell.row.action);
        let (parts, wholes) = (self.orders(part), self.orders(of));
        parts.iter().any(|(own, lasts)| {
            choices(own).into_iter().any(|held| {
                lasts.iter().any(|&last| {
                    wholes.iter().any(|(others, ends)| {
                        choices(others).into_iter().any(|all| {
                            ends.iter().any(|&end| {
                                self.bases.iter().any(|base| {
                                    let mut hands = base.clone();
                                    held.iter().for_each(|&l| hands.work(l, true));
                                    hands.gesture(last, part.manner);
                                    let more =
                                        all.iter().filter(|l| **l != last && !held.contains(l));
                                    more.for_each(|&l| hands.work(l, true));
                                    if !hands.seat.is_down(p) {
                                        return false;
                                    }
                                    hands.began.clear();
                                    hands.gesture(end, of.manner);
                                    hands.began.contains(&o) && hands.seat.is_down(p)
                                })
                            })
                        })
                    })
                })
            })
        })
    }
}

fn agree(drawn: &[Drawn], layout: &str) -> Result<(), TestCaseError> {
    let Some((sheet, text)) = declare(drawn) else {
        return Ok(());
    };
    let layout = Layout::shipped(layout).unwrap();
    let on = Resolver::new(&layout, Platform::Other);
    let bench = Bench::new(&sheet, &Profile::default(), &on);
    let bindings: &[Bound] = bench.rig.bindings();
    let told = conflicts(
        &sheet,
        bindings,
        std::slice::from_ref(&layout),
        Platform::Other,
    );
    let pairs: BTreeSet<(ActionId, ActionId)> = told
        .iter()
        .map(|c| (c.first.cell.row.action, c.second.cell.row.action))
        .flat_map(|(a, b)| [(a, b), (b, a)])
        .collect();
    // Whatever begins together is told.
    let leaves = bench.in_use();
    for bits in 0..1_u32 << leaves.len().min(7) {
        let held: Vec<Input> = (0..leaves.len().min(7))
            .filter(|n| bits >> n & 1 != 0)
            .map(|n| leaves[n])
            .collect();
        if held.len() > 4 {
            continue;
        }
        for &last in leaves.iter().filter(|l| !held.contains(l)) {
            for base in &bench.bases {
                for (short, long) in gives_way(base, &held, last) {
                    // With more held than the longer one wants, no two chords need have to do with
                    // each other.
                    let is_told = || pairs.contains(&(short, long));
                    prop_assert!(
                        short == long || !bench.is_no_more(long, &held, last) || is_told(),
                        "{} gives way to {} by {last} with {held:?}, untold\n{text}",
                        sheet.row_name(short.into()),
                        sheet.row_name(long.into())
                    );
                }
                for set in begins(base, &held, last) {
                    for (&a, &b) in set.iter().flat_map(|a| set.iter().map(move |b| (a, b))) {
                        let names = || {
                            let stack: Vec<_> = (base.seat.situations().iter())
                                .map(|s| sheet.situation(*s).unwrap().name.clone())
                                .collect();
                            format!(
                                "{} and {} begin by {last} with {held:?} in {stack:?}, untold\n{text}",
                                sheet.row_name(a.into()),
                                sheet.row_name(b.into())
                            )
                        };
                        prop_assert!(a == b || pairs.contains(&(a, b)), "{}", names());
                    }
                }
            }
        }
    }
    // Whatever is told, some gesture does.
    for conflict in &told {
        let why = conflict.describe(&sheet);
        // By these two bindings, and not by others that the two actions have.
        let mut profile = Profile::default();
        let pair = [&conflict.first, &conflict.second].map(|p| p.cell);
        for bound in bindings.iter().filter(|b| !pair.contains(&b.cell)) {
            if pair.iter().any(|c| c.row.action == bound.cell.row.action) {
                profile.set(&sheet, bound.cell, None);
            }
        }
        let bench = Bench::new(&sheet, &profile, &on);
        prop_assert!(
            bench.is_done(conflict),
            "{:?}: {why}\n{text}",
            conflict.class
        );
    }
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig {
        cases: std::env::var("SWAP_KNOT_SHEETS").ok().and_then(|n| n.parse().ok()).unwrap_or_else(|| crate::common::worlds(140)),
        failure_persistence: None,
        ..ProptestConfig::default()
    })]

    #[test]
    fn what_begins_together_is_told_and_what_is_told_some_gesture_does(
        drawn in drawn(),
        layout in proptest::sample::select(vec!["us", "fr"]),
    ) {
        agree(&drawn, layout)?;
    }
}
