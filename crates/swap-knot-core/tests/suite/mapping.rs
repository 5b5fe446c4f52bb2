//! Controllers without a known mapping: taught part by part, kept as a file, and pads from then on.

use crate::common::what;
use std::collections::BTreeMap;

use proptest::prelude::*;
use swap_knot::input::{
    Direction, HidAxis, HidButton, HidInput, Lesson, Mapper, Mapping, MappingLearner, Mappings,
    PadSource, Sign, Taught, UsbId,
};
use swap_knot::{DeviceId, Event, EventKind, Input, PadButton, Stick, Time};

const DEVICE: DeviceId = DeviceId(7);
const KIND: Option<UsbId> = Some(UsbId {
    vendor: 0x1209,
    product: 0x5a03,
});

fn button(number: u8) -> PadSource {
    PadSource::Button(HidButton::new(number).unwrap())
}

/// A controller as somebody built it: what moves when a part of it is worked.
#[derive(Clone, Debug, Default)]
struct Made {
    wires: BTreeMap<Input, PadSource>,
    /// The button at the end of a trigger.
    clicks: BTreeMap<Input, PadSource>,
}

/// Which groups of parts are on what.
fn made() -> impl Strategy<Value = Made> {
    let axes = Just(HidAxis::ALL.to_vec()).prop_shuffle();
    let buttons = Just((1..=60u8).collect::<Vec<u8>>()).prop_shuffle();
    let choices = (
        0..3u8,
        [0..2u8, 0..2u8],
        [0..5u8, 0..5u8],
        any::<[bool; 8]>(),
    );
    (axes, buttons, choices, any::<u32>()).prop_map(
        |(axes, buttons, (cross, sticks, triggers, signs), there)| {
            let mut made = Made::default();
            let (mut axes, mut buttons) = (axes.into_iter(), buttons.into_iter());
            let mut next = || button(buttons.next().unwrap());
            let sign = |n: usize| {
                if signs[n] {
                    Sign::Positive
                } else {
                    Sign::Negative
                }
            };
            let other = |s: Sign| {
                if s == Sign::Positive {
                    Sign::Negative
                } else {
                    Sign::Positive
                }
            };
            let mut pair = |made: &mut Made, by: [Input; 2], sign: Sign| {
                let axis = axes.next().unwrap();
                made.wires.insert(by[0], PadSource::Half(axis, sign));
                made.wires.insert(by[1], PadSource::Half(axis, other(sign)));
            };
            let crossed = [
                PadButton::Up,
                PadButton::Down,
                PadButton::Left,
                PadButton::Right,
            ]
            .map(Input::from);
            match cross {
                0 => (crossed.iter().zip(Direction::ALL)).for_each(|(part, way)| {
                    made.wires.insert(*part, PadSource::Hat(way));
                }),
                1 => crossed
                    .iter()
                    .for_each(|part| _ = made.wires.insert(*part, next())),
                _ => {
                    pair(&mut made, [crossed[0], crossed[1]], sign(0));
                    pair(&mut made, [crossed[2], crossed[3]], sign(1));
                }
            }
            for (n, stick) in Stick::ALL.into_iter().enumerate() {
                let ways = Direction::ALL.map(|way| Input::PadStickHalf(stick, way));
                match sticks[n] {
                    0 => {
                        pair(&mut made, [ways[0], ways[1]], sign(2 + n));
                        pair(&mut made, [ways[2], ways[3]], sign(4 + n));
                    }
                    _ => ways
                        .iter()
                        .for_each(|part| _ = made.wires.insert(*part, next())),
                }
            }
            let pulls = [PadButton::TriggerLeft, PadButton::TriggerRight].map(Input::from);
            if triggers == [4, 4] {
                // Both on one axis, as on some old pads.
                pair(&mut made, pulls, sign(6));
            } else {
                for (part, kind) in pulls.into_iter().zip(triggers) {
                    let source = match kind {
                        0 => next(),
                        1 => PadSource::Half(axes.next().unwrap(), sign(7)),
                        2 | 4 => PadSource::Whole(axes.next().unwrap(), Sign::Positive),
                        _ => PadSource::Whole(axes.next().unwrap(), Sign::Negative),
                    };
                    made.wires.insert(part, source);
                    if kind == 2 || kind == 3 {
                        made.clicks.insert(part, next());
                    }
                }
            }
            for (n, part) in PadButton::ALL.iter().enumerate() {
                let part = Input::from(*part);
                let is_there = n < 4 || there >> n & 1 == 1;
                if is_there && !made.wires.contains_key(&part) {
                    made.wires.insert(part, next());
                }
            }
            made
        },
    )
}

/// Somebody who works it, and who hears what comes of it.
struct Hand<'a> {
    made: &'a Made,
    now: u64,
    axes: BTreeMap<HidAxis, f32>,
}

impl Hand<'_> {
    fn new(made: &Made) -> Hand<'_> {
        let mut axes: BTreeMap<HidAxis, f32> = BTreeMap::new();
        for source in made.wires.values() {
            let (axis, rest) = match *source {
                PadSource::Whole(axis, Sign::Positive) => (axis, -1.0),
                PadSource::Whole(axis, Sign::Negative) => (axis, 1.0),
                PadSource::Half(axis, _) => (axis, 0.02),
                _ => continue,
            };
            axes.insert(axis, rest);
        }
        Hand {
            made,
            now: 1000,
            axes,
        }
    }

    fn event(&mut self, what: EventKind) -> Event {
        Event {
            at: Time::from_millis(self.now),
            device: DEVICE,
            what,
        }
    }

    /// What a part says at so much of its way.
    fn at(&mut self, part: Input, level: f32) -> Vec<Event> {
        let mut out = Vec::new();
        match self.made.wires[&part] {
            PadSource::Button(button) => {
                let down = level > 0.0;
                out.push(self.event(EventKind::HidButton { button, down }));
            }
            PadSource::Hat(direction) => {
                let down = level > 0.0;
                out.push(self.event(EventKind::HidHat { direction, down }));
            }
            PadSource::Half(axis, sign) => {
                let value = if sign == Sign::Positive {
                    level
                } else {
                    -level
                };
                out.push(self.event(EventKind::HidAxis { axis, value }));
            }
            PadSource::Whole(axis, sign) => {
                let value = level * 2.0 - 1.0;
                let value = if sign == Sign::Positive {
                    value
                } else {
                    -value
                };
                out.push(self.event(EventKind::HidAxis { axis, value }));
            }
            _ => unreachable!(),
        }
        if let Some(PadSource::Button(button)) = self.made.clicks.get(&part).copied() {
            // It clicks near the end.
            let down = level > 0.9;
            out.push(self.event(EventKind::HidButton { button, down }));
        }
        out
    }

    /// Works a part as hands do: there in some steps, held for a while, and back; `sideways` along the
    /// other axis of a stick. Hands all of it to `hear` with the time.
    fn work(
        &mut self,
        part: Input,
        held: u64,
        sideways: f32,
        full: f32,
        mut hear: impl FnMut(Option<&Event>, Time),
    ) {
        let across = match part {
            Input::PadStickHalf(stick, Direction::Up | Direction::Down) => {
                Some(Input::PadStickHalf(stick, Direction::Right))
            }
            Input::PadStickHalf(stick, _) => Some(Input::PadStickHalf(stick, Direction::Up)),
            _ => None,
        };
        let across = across.filter(|p| matches!(self.made.wires.get(p), Some(PadSource::Half(..))));
        let is_analog = matches!(
            self.made.wires[&part],
            PadSource::Half(..) | PadSource::Whole(..)
        );
        let steps: Vec<f32> = match is_analog {
            true => (1..=8).map(|n| n as f32 / 8.0).collect(),
            false => vec![1.0],
        };
        let back: Vec<f32> = match is_analog {
            true => (0..8).rev().map(|n| n as f32 / 8.0).collect(),
            false => vec![0.0],
        };
        for (n, way) in [steps, back].into_iter().enumerate() {
            for level in way {
                for event in self.at(part, level * full) {
                    hear(Some(&event), event.at);
                }
                if let Some(across) = across {
                    for event in self.at(across, level * sideways) {
                        hear(Some(&event), event.at);
                    }
                }
                self.now += 9;
            }
            let until = self.now + if n == 0 { held } else { 0 };
            while self.now < until {
                hear(None, Time::from_millis(self.now));
                self.now += 16;
            }
        }
    }
}

/// Has everything taught by somebody who knows what they do.
fn taught(made: &Made, tells_first: bool, helds: &[u64], sideways: f32) -> Mapping {
    let mut hand = Hand::new(made);
    let mut mapper = Mapper::default();
    mapper.overhear(&hand.event(EventKind::Plugged { usb: KIND }));
    for (axis, value) in hand.axes.clone() {
        if tells_first {
            mapper.overhear(&hand.event(EventKind::HidAxis { axis, value }));
        }
    }
    let mut learner = MappingLearner::new(DEVICE, &mapper);
    let mut turn = 0;
    while let Some(asked) = learner.asked() {
        turn += 1;
        assert!(turn < 100, "it asks on and on, now for {asked}");
        if !made.wires.contains_key(&asked) {
            learner.skip();
            continue;
        }
        let held = helds[turn % helds.len()];
        let mut lessons = Vec::new();
        hand.work(asked, held, sideways, 1.0, |event, now| {
            lessons.push(match event {
                Some(event) => learner.event(event),
                None => learner.tick(now),
            });
        });
        for _ in 0..70 {
            hand.now += 16;
            lessons.push(learner.tick(Time::from_millis(hand.now)));
            if learner.asked() != Some(asked) {
                break;
            }
        }
        let told = lessons
            .into_iter()
            .filter(|l| *l != Lesson::Waits)
            .collect::<Vec<_>>();
        let done = [Lesson::Learned, Lesson::Done];
        assert!(
            told.first().is_some_and(|l| done.contains(l)),
            "{asked}: {told:?}"
        );
    }
    learner.mapping()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(if cfg!(debug_assertions) { 120 } else { 600 })))]

    /// Whatever a controller is wired like, who works what is asked for gets the pad that they have.
    #[test]
    fn what_is_worked_is_what_is_learned(
        made in made(),
        tells_first in any::<bool>(),
        helds in prop::collection::vec(20..400u64, 1..6),
        sideways in 0.0..0.5f32,
        plays in prop::collection::vec((0..64usize, 0.0..=1.0f32), 1..40),
    ) {
        let mapping = taught(&made, tells_first, &helds, sideways);
        let wires: BTreeMap<Input, PadSource> = mapping.parts().collect();
        prop_assert_eq!(&wires, &made.wires);
        for click in made.clicks.values() {
            prop_assert!(mapping.silent().any(|s| s == click.input()));
        }
        // It is kept, and read again.
        let mut mappings = Mappings::new();
        mappings.set(KIND, Some(Taught::Pad(mapping)));
        let again = Mappings::from_toml(&mappings.to_toml(), "mappings").unwrap();
        prop_assert_eq!(&again, &mappings);

        // From here on it is a pad: a naive one, that knows how far each part is in.
        let mut mapper = Mapper::new(again);
        let mut hand = Hand::new(&made);
        mapper.event(&hand.event(EventKind::Plugged { usb: KIND }), |_| {});
        let parts: Vec<Input> = made.wires.keys().copied().collect();
        let mut buttons: BTreeMap<PadButton, f32> = BTreeMap::new();
        let mut sticks: BTreeMap<Stick, [f32; 2]> = BTreeMap::new();
        for (n, level) in plays {
            let part = parts[n % parts.len()];
            let is_analog = matches!(made.wires[&part], PadSource::Half(..) | PadSource::Whole(..));
            let level = if is_analog { level } else { level.ceil() };
            // What shares its axis with this one gives way to it.
            for event in hand.at(part, level) {
                mapper.event(&event, |e| match e.what {
                    EventKind::PadButton { button, value } => drop(buttons.insert(button, value)),
                    EventKind::PadStick { stick, x, y } => drop(sticks.insert(stick, [x, y])),
                    ref other => panic!("{other:?} came through"),
                });
            }
            match part {
                Input::PadButton(button) => {
                    let value = buttons.get(&button).copied().unwrap_or_default();
                    match is_analog && !button.is_trigger() {
                        // Down beyond the half, up again somewhat below it.
                        true if level >= 0.5 => prop_assert_eq!(value, 1.0),
                        true if level < 0.35 => prop_assert_eq!(value, 0.0),
                        true => {}
                        false => prop_assert!((value - level).abs() < 1e-6, "{button:?} {value} {level}"),
                    }
                }
                Input::PadStickHalf(stick, way) => {
                    let at = sticks.get(&stick).copied().unwrap_or_default();
                    let towards = match way {
                        Direction::Up => at[1],
                        Direction::Down => -at[1],
                        Direction::Left => -at[0],
                        Direction::Right => at[0],
                    };
                    if is_analog {
                        prop_assert!((towards - level).abs() < 1e-6, "{part} {at:?} {level}");
                    }
                }
                _ => unreachable!(),
            }
        }
    }
}

/// A learner that is asked, and somebody who works whatever they like.
struct Lessons {
    learner: MappingLearner,
    now: u64,
}

impl Lessons {
    /// On a controller whose axes were told of before, or not.
    fn new(axes: &[(HidAxis, f32)]) -> Lessons {
        let mut mapper = Mapper::default();
        let event = |what| Event {
            at: Time::ZERO,
            device: DEVICE,
            what,
        };
        mapper.overhear(&event(EventKind::Plugged { usb: KIND }));
        for (axis, value) in axes.iter().copied() {
            mapper.overhear(&event(EventKind::HidAxis { axis, value }));
        }
        Lessons {
            learner: MappingLearner::new(DEVICE, &mapper),
            now: 100,
        }
    }

    fn feed(&mut self, what: EventKind) -> Lesson {
        self.now += 5;
        self.learner.event(&Event {
            at: Time::from_millis(self.now),
            device: DEVICE,
            what,
        })
    }

    fn axis(&mut self, axis: HidAxis, value: f32) -> Lesson {
        self.feed(EventKind::HidAxis { axis, value })
    }

    fn button(&mut self, number: u8, down: bool) -> Lesson {
        let button = HidButton::new(number).unwrap();
        self.feed(EventKind::HidButton { button, down })
    }

    fn wait(&mut self, ms: u64) -> Lesson {
        let until = self.now + ms;
        while self.now < until {
            self.now += 10;
            let lesson = self.learner.tick(Time::from_millis(self.now));
            if lesson != Lesson::Waits {
                return lesson;
            }
        }
        Lesson::Waits
    }

    /// Goes on until a part is asked for.
    fn to(&mut self, part: &str) {
        let part: Input = part.parse().unwrap();
        while self.learner.asked() != Some(part) {
            assert_ne!(self.learner.skip(), Lesson::Done);
        }
    }

    fn source(&self, part: &str) -> Option<PadSource> {
        self.learner.mapping().source(part.parse().unwrap())
    }
}

#[test]
fn what_is_held_for_one_part_is_no_answer_for_the_next() {
    let mut lessons = Lessons::new(&[(HidAxis::Y, 0.0)]);
    lessons.to("pad:stick-left.up");
    lessons.axis(HidAxis::Y, -1.0);
    // It is skipped with the stick still held: letting go answers nothing.
    lessons.learner.skip();
    assert_eq!(
        lessons.learner.asked().unwrap().to_string(),
        "pad:stick-left.down"
    );
    lessons.axis(HidAxis::Y, -0.5);
    lessons.axis(HidAxis::Y, 0.0);
    assert_eq!(lessons.wait(1000), Lesson::Waits);
    lessons.axis(HidAxis::Y, 1.0);
    lessons.axis(HidAxis::Y, 0.0);
    assert_eq!(lessons.wait(1000), Lesson::Learned);
    assert_eq!(
        lessons.source("pad:stick-left.down"),
        Some(PadSource::Half(HidAxis::Y, Sign::Positive))
    );
    // The other way of it was skipped, and comes with this one.
    assert_eq!(
        lessons.source("pad:stick-left.up"),
        Some(PadSource::Half(HidAxis::Y, Sign::Negative))
    );
}

#[test]
fn a_trigger_held_half_way_is_no_stick() {
    let mut lessons = Lessons::new(&[(HidAxis::Z, -1.0)]);
    lessons.to("pad:trigger-left");
    for level in [-0.6, -0.2, 0.0] {
        lessons.axis(HidAxis::Z, level);
    }
    assert_eq!(lessons.wait(3000), Lesson::Waits, "it is held, not let go");
    lessons.axis(HidAxis::Z, -1.0);
    assert_eq!(lessons.wait(300), Lesson::Learned);
    assert_eq!(
        lessons.source("pad:trigger-left"),
        Some(PadSource::Whole(HidAxis::Z, Sign::Positive))
    );
}

#[test]
fn what_wobbles_and_whatever_else_is_worked_answers_nothing() {
    let mut lessons = Lessons::new(&[]);
    for n in 0..200 {
        assert_eq!(
            lessons.axis(HidAxis::X, (n as f32).sin() * 0.25),
            Lesson::Waits
        );
    }
    let other = DeviceId(9);
    let first = HidButton::new(1).unwrap();
    for down in [true, false] {
        let what = what::hid(first, down);
        let event = Event {
            at: Time::from_millis(lessons.now),
            device: other,
            what,
        };
        assert_eq!(lessons.learner.event(&event), Lesson::Waits);
    }
    // What was down before comes up.
    assert_eq!(lessons.button(4, false), Lesson::Waits);
    // Numbers that are none move nothing.
    lessons.axis(HidAxis::Y, f32::NAN);
    lessons.axis(HidAxis::Y, f32::INFINITY);
    lessons.axis(HidAxis::Y, 0.0);
    assert_eq!(lessons.button(1, true), Lesson::Waits);
    assert_eq!(lessons.wait(2000), Lesson::Waits, "it is held");
    // An axis went along, and says nothing from then on.
    assert_eq!(lessons.button(1, false), Lesson::Learned);
    let silent: Vec<HidInput> = lessons.learner.mapping().silent().collect();
    assert_eq!(silent, [HidInput::Axis(HidAxis::Y)]);
    assert_eq!(lessons.source("pad:south"), Some(button(1)));
}

#[test]
fn nobody_answers_and_it_goes_on() {
    let mut lessons = Lessons::new(&[]);
    let (_, count) = lessons.learner.progress();
    for n in 0..count {
        assert_eq!(lessons.learner.progress().0, n);
        assert_eq!(lessons.wait(19_900), Lesson::Waits);
        let last = n + 1 == count;
        let lesson = if last { Lesson::Done } else { Lesson::Skipped };
        assert_eq!(lessons.wait(200), lesson);
    }
    assert!(lessons.learner.mapping().is_empty());
    assert_eq!(
        (lessons.learner.asked(), lessons.learner.time_left()),
        (None, None)
    );
    // Done is done, and one can still go back.
    assert_eq!(lessons.button(1, true), Lesson::Done);
    assert!(lessons.learner.back());
    assert!(lessons.learner.asked().is_some());
}

#[test]
fn every_mistake_in_a_file_is_told_with_its_place() {
    let text = r#"
[controllers."1209:5a03"]
"pad:south" = "hid:button-2"
"pad:east" = "hid:button-2"
"pad:sout" = "hid:button-3"
"pad:stick-left" = "hid:x"
"pad:west" = "KeyW"
"pad:north" = 4
"pad:trigger-left" = { input = "hid:z", rests = 2 }
"pad:trigger-right" = { input = "hid:button-9" }
"pad:up" = { rest = 1 }
silent = ["hid:axis-9"]
[controllers.flightstick]
[controllers."1209:5a04"]
gamepad = false
"pad:south" = "hid:button-1"
[controlers]
"#;
    let error = Mappings::from_toml(text, "mappings").unwrap_err();
    assert!(!error.is_newer());
    insta::assert_snapshot!(error.to_string());
    for text in [
        "format = 2",
        "format = 1\n[controllers]\nunknown = 3",
        "\u{0}",
        "format = 1.5",
    ] {
        let error = Mappings::from_toml(text, "mappings").unwrap_err();
        assert_eq!(error.is_newer(), text == "format = 2", "{error}");
    }
}
