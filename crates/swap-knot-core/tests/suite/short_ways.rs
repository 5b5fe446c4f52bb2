//! A seat takes short ways for what most events do: a key that repeats, a stick that moves on, a mouse
//! of which only the sum counts. Where outcomes are kept it takes none of them, since each input has to
//! be judged to be told of. Both ways have to come to the same, whatever happens.

use crate::common::{small, what};
use proptest::prelude::*;
use swap_knot::input::Direction;
use swap_knot::play::{Happened, SavedSeat, TurnUnits};
use swap_knot::sheet::Arm;
use swap_knot::{
    DeviceId, Event, EventKind, Layout, PadButton, Place, Profile, Rig, Seat, Sheet, Stick, Time,
};

/// Inputs that work one thing and inputs that work many, with every kind of feel.
const SHEET: &str = r#"
    [situations.deck]
    [situations.chart]
    over = "deck"
    cover = "all"
    [actions.walk]
    situation = "deck"
    shape = "plane"
    bind = "pad:stick-left"
    up = { bind = ["KeyW", "ArrowUp"] }
    down = { bind = "KeyS" }
    left = { bind = "KeyA" }
    right = { bind = "KeyD" }
    [actions.look]
    situation = "deck"
    shape = "plane"
    bind = ["mouse:move", "pad:stick-right"]
    feel.gamepad = { curve = 2, sensitivity = 1.5, sensitivity-y = 2 }
    feel.mouse = { sensitivity-y = 0.25 }
    [actions.throttle]
    situation = "deck"
    shape = "pull"
    bind = ["KeyT", "pad:trigger-right"]
    [actions.winch]
    situation = "deck"
    shape = "line"
    right = { bind = "pad:trigger-left" }
    left = { bind = "KeyG" }
    [actions.horn]
    situation = "deck"
    bind = "KeyH"
    [actions.coil]
    situation = "deck"
    manner = "hold"
    bind = ["KeyE", "pad:west"]
    [actions.pan]
    situation = "chart"
    shape = "plane"
    bind = "pad:stick-right"
"#;

/// The same game in which much is bound otherwise: to halves, to two at once, to chords, as a rate,
/// with ramps, zones by axis, thresholds and toggles.
const OTHER: &str = r#"
    [situations.deck]
    [situations.chart]
    over = "deck"
    cover = "used"
    [actions.walk]
    situation = "deck"
    shape = "plane"
    bind = ["pad:stick-left", "pad:stick-right"]
    feel.gamepad = { dead-zone = { form = "axis", inner = 0.2 }, invert = ["y"], sensitivity-y = 0.6 }
    feel.keyboard = { ramp-up = 0.1, ramp-down = 0.05, sensitivity = 0.5 }
    up = { bind = "KeyW" }
    down = { bind = "KeyS" }
    left = { bind = "KeyA" }
    right = { bind = ["KeyD", "pad:stick-left.right"] }
    [actions.look]
    situation = "deck"
    shape = "plane"
    bind = ["mouse:move", "pad:shoulder-left+pad:stick-right"]
    [actions.throttle]
    situation = "deck"
    shape = "pull"
    toggle = true
    bind = ["KeyT", "pad:trigger-right", "pad:trigger-left"]
    [actions.winch]
    situation = "deck"
    shape = "line"
    right = { bind = "pad:stick-left.up" }
    left = { bind = ["KeyG", "pad:stick-left.down"] }
    [actions.horn]
    situation = "deck"
    toggle = true
    bind = ["KeyH", "pad:trigger-left"]
    feel.gamepad = { threshold = 0.8 }
    [actions.coil]
    situation = "deck"
    manner = "double-tap"
    bind = ["KeyE", "Ctrl+KeyH", "pad:stick-right.left", "pad:trigger-left"]
    feel.gamepad = { dead-zone = 0.45 }
    [actions.pan]
    situation = "chart"
    shape = "plane"
    bind = "pad:stick-right"
"#;

/// Both, and the first with a rate in it, for which each movement of a stick has its own time.
fn sheets() -> [Sheet; 3] {
    let rate = SHEET.replace("[actions.look]", "[actions.look]\n    rate = true");
    [small(SHEET), small(OTHER), small(&rate)]
}

#[derive(Clone, Debug)]
enum Does {
    Feed(u64, u16, EventKind),
    Overhear(u64, u16, EventKind),
    /// A stick moves on by a little.
    Tilt(u16, Stick, [f32; 2]),
    /// A trigger does.
    Pull(u16, PadButton, f32),
    Drive(usize, f32),
    Tick(u64),
    Advance(u64),
    Chart(bool),
    Spend(usize),
    Rig(usize),
    Restore,
}

fn does() -> impl Strategy<Value = Does> {
    use Place::{ArrowUp, ControlLeft, KeyA, KeyD, KeyE, KeyG, KeyH, KeyS, KeyT, KeyW};
    let all = vec![
        KeyW,
        ArrowUp,
        KeyS,
        KeyA,
        KeyD,
        KeyT,
        KeyG,
        KeyH,
        KeyE,
        ControlLeft,
    ];
    let key = (proptest::sample::select(all), any::<bool>());
    let key = key.prop_map(|(place, down)| what::key(place, down));
    let button = prop_oneof![Just(PadButton::West), Just(PadButton::ShoulderLeft)];
    let button = (button, any::<bool>());
    let button = button.prop_map(|(b, down)| what::pad(b, f32::from(u8::from(down))));
    let far = prop_oneof![-9.0..9.0_f32, Just(f32::NAN), Just(1e7)];
    let mouse = (far.clone(), far).prop_map(|(x, y)| EventKind::MouseMove { x, y });
    let other = prop_oneof![
        Just(EventKind::FocusLost),
        Just(EventKind::Unplugged),
        Just(EventKind::Wheel {
            direction: Direction::Up
        }),
    ];
    let event = prop_oneof![6 => key, 3 => button, 4 => mouse, 1 => other];
    let stick = prop_oneof![Just(Stick::LEFT), Just(Stick::RIGHT)];
    let trigger = prop_oneof![Just(PadButton::TriggerLeft), Just(PadButton::TriggerRight)];
    // Mostly a little, now and then all the way, or no number at all.
    let by = prop_oneof![
        8 => -0.08..0.08_f32,
        5 => -0.3..0.3_f32,
        2 => -2.0..2.0_f32,
        1 => Just(f32::NAN),
    ];
    // One pad has nearly everything; another stirs now and then.
    let pad = prop_oneof![9 => Just(1_u16), 1 => Just(2_u16)];
    prop_oneof![
        6 => (0..20_000_u64, 0..3_u16, event.clone()).prop_map(|(t, d, e)| Does::Feed(t, d, e)),
        1 => (0..20_000_u64, 0..3_u16, event).prop_map(|(t, d, e)| Does::Overhear(t, d, e)),
        12 => (pad.clone(), stick, by.clone(), by.clone())
            .prop_map(|(pad, stick, x, y)| Does::Tilt(pad, stick, [x, y])),
        8 => (pad, trigger, by).prop_map(|(pad, trigger, by)| Does::Pull(pad, trigger, by)),
        1 => (0..7_usize, -1.0..1.0_f32).prop_map(|(n, far)| Does::Drive(n, far)),
        6 => (0..300_000_u64).prop_map(Does::Tick),
        3 => (0..30_000_u64).prop_map(Does::Advance),
        1 => any::<bool>().prop_map(Does::Chart),
        1 => (0..7_usize).prop_map(Does::Spend),
        1 => (0..3_usize).prop_map(Does::Rig),
        1 => Just(Does::Restore),
    ]
}

/// What a game and its screens can see of a seat.
#[derive(Debug, PartialEq)]
struct Seen {
    fingerprint: u64,
    happened: Vec<Happened>,
    values: Vec<[f32; 3]>,
    arms: Vec<f32>,
    down: Vec<String>,
}

/// A seat, and where its sticks and triggers are.
struct Hand {
    seat: Seat,
    rigs: [Rig; 3],
    now: u64,
    /// When the last event was: some come late.
    at: u64,
    sticks: [[f32; 2]; 2],
    triggers: [f32; 2],
}

impl Hand {
    fn new(sheets: &[Sheet; 3], first: usize) -> Hand {
        let rig = |sheet| Rig::new(sheet, &Profile::default(), &Layout::us());
        let rigs = sheets.each_ref().map(rig);
        Hand {
            seat: Seat::new(rigs[first].clone()),
            rigs,
            now: 0,
            at: 0,
            sticks: [[0.0; 2]; 2],
            triggers: [0.0; 2],
        }
    }

    fn event(&mut self, later: u64, device: u16, what: EventKind) -> Event {
        self.at = self.at.max(self.now) + later;
        // A third of them come behind those of another device that are later.
        let late = if later.is_multiple_of(3) {
            later / 2
        } else {
            0
        };
        let (at, device) = (Time::from_micros(self.at - late), DeviceId(device));
        Event { at, device, what }
    }

    fn play(&mut self, does: &Does) {
        // Bad numbers are fed as they are, and rest.
        let on = |v: f32, by: f32, least: f32| {
            let v = if v.is_nan() { 0.0 } else { v } + by;
            v.clamp(least, 1.0)
        };
        match does {
            Does::Feed(later, device, what) => {
                let event = self.event(*later, *device, *what);
                self.seat.feed(&event);
            }
            Does::Overhear(later, device, what) => {
                let event = self.event(*later, *device, *what);
                self.seat.overhear(&event);
            }
            Does::Tilt(pad, stick, by) => {
                let at = &mut self.sticks[usize::from(*stick == Stick::RIGHT)];
                *at = [0, 1].map(|n| on(at[n], by[n], -1.0));
                let ([x, y], stick) = (*at, *stick);
                let event = self.event(1_000, *pad, EventKind::PadStick { stick, x, y });
                self.seat.feed(&event);
            }
            Does::Pull(pad, trigger, by) => {
                let at = &mut self.triggers[usize::from(*trigger == PadButton::TriggerRight)];
                *at = on(*at, *by, -0.2);
                let value = *at;
                let event = self.event(1_000, *pad, what::pad(*trigger, value));
                self.seat.feed(&event);
            }
            Does::Drive(n, far) => {
                let action = self.seat.rig().sheet().actions().nth(*n).unwrap().0;
                self.seat.drive(Time::from_micros(self.at), action, *far);
            }
            Does::Tick(later) => {
                self.now += later;
                self.seat.tick(Time::from_micros(self.now));
            }
            Does::Advance(later) => {
                self.now += later;
                self.seat.advance(Time::from_micros(self.now));
            }
            Does::Chart(open) => {
                let chart = self.seat.rig().sheet().find_situation("chart").unwrap();
                match open {
                    true => self.seat.enter(chart),
                    false => self.seat.leave(chart),
                }
            }
            Does::Spend(n) => {
                let action = self.seat.rig().sheet().actions().nth(*n).unwrap().0;
                self.seat.spend(action);
            }
            Does::Rig(n) => self.seat.set_rig(self.rigs[*n].clone()),
            Does::Restore => {
                let saved = SavedSeat::new(&self.seat);
                self.seat.restore(&saved).unwrap();
            }
        }
    }

    fn seen(&self) -> Seen {
        let seat = &self.seat;
        let units = TurnUnits {
            a_count: 0.1,
            a_second: 2.0,
        };
        let actions = || seat.rig().sheet().actions().map(|(id, _)| id);
        let of_each = |id| [seat.space(id), seat.motion(id), seat.turn(id, units)];
        let values = actions().flat_map(of_each).collect();
        let arms = actions().flat_map(|id| Arm::ALL.map(|arm| seat.arm(id, arm)));
        let down = seat.inputs_down().into_iter().map(|i| i.to_string());
        Seen {
            fingerprint: seat.fingerprint(),
            happened: seat.happened().to_vec(),
            values,
            arms: arms.collect(),
            down: down.collect(),
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: crate::common::worlds(3_000), ..ProptestConfig::default() })]

    #[test]
    fn a_short_way_comes_to_the_same_as_the_long_one(
        first in 0..3_usize,
        doing in prop::collection::vec(does(), 0..120),
    ) {
        let sheets = sheets();
        let (mut short, mut long) = (Hand::new(&sheets, first), Hand::new(&sheets, first));
        long.seat.keep_outcomes(4);
        for (n, does) in doing.iter().enumerate() {
            short.play(does);
            long.play(does);
            prop_assert_eq!(short.seen(), long.seen(), "after {} {:?}", n, does);
            // What another rig goes on with is the same as well; what waits may be no number.
            if matches!(does, Does::Tick(_)) {
                let saved = [&short, &long].map(|hand| SavedSeat::new(&hand.seat));
                prop_assert!(saved[0] == saved[1], "after {} {:?}", n, does);
            }
        }
    }

    /// What waits to be judged is judged in the order of its time, whatever comes in between and however
    /// it comes in.
    #[test]
    fn what_is_fed_in_any_order_is_judged_in_that_of_time(
        first in 0..3_usize,
        events in prop::collection::vec((0..50_000_u64, does()), 0..60),
        stops in prop::collection::vec(0..60_000_u64, 0..6),
    ) {
        let sheets = sheets();
        let mut hand = Hand::new(&sheets, first);
        let mut other = Hand::new(&sheets, first);
        // Those of one time stay in the order in which they came.
        let mut in_order: Vec<&(u64, Does)> = events.iter().collect();
        in_order.sort_by_key(|(at, _)| *at);
        let put = |hand: &mut Hand, at: u64, does: &Does| {
            let (at, device) = (Time::from_micros(at), DeviceId(0));
            match does {
                Does::Feed(_, _, what) => hand.seat.feed(&Event { at, device, what: *what }),
                Does::Overhear(_, _, what) => hand.seat.overhear(&Event { at, device, what: *what }),
                Does::Drive(n, far) => {
                    let action = hand.seat.rig().sheet().actions().nth(*n).unwrap().0;
                    hand.seat.drive(at, action, *far);
                }
                _ => {}
            }
        };
        for (at, does) in &events {
            put(&mut hand, *at, does);
        }
        let mut stops = stops;
        stops.sort_unstable();
        let mut waiting = in_order.into_iter().peekable();
        for stop in stops.into_iter().chain([60_000]) {
            while let Some((at, does)) = waiting.next_if(|(at, _)| *at <= stop) {
                put(&mut other, *at, does);
            }
            hand.seat.advance(Time::from_micros(stop));
            other.seat.advance(Time::from_micros(stop));
            prop_assert_eq!(hand.seen(), other.seen(), "at {}", stop);
        }
        hand.seat.tick(Time::from_micros(60_000));
        other.seat.tick(Time::from_micros(60_000));
        prop_assert_eq!(hand.seen(), other.seen());
    }
}

/// Everything is crossed where it lies, on the way in and on the way out: sticks and triggers go slowly
/// through all that they have.
#[test]
fn a_slow_sweep_comes_to_the_same_by_the_short_way() {
    let sheets = sheets();
    let way = |n: i32| (n as f32 / 60.0).clamp(-1.0, 1.0);
    let there_and_back: Vec<f32> = (-60..=60).chain((-60..60).rev()).map(way).collect();
    for first in 0..3 {
        for lean in [[1.0, 0.0], [0.0, 1.0], [1.0, 1.0], [0.3, -1.0]] {
            let (mut short, mut long) = (Hand::new(&sheets, first), Hand::new(&sheets, first));
            long.seat.keep_outcomes(4);
            for &far in &there_and_back {
                let [x, y] = lean.map(|part| part * far);
                let all = [
                    EventKind::PadStick {
                        stick: Stick::LEFT,
                        x,
                        y,
                    },
                    EventKind::PadStick {
                        stick: Stick::RIGHT,
                        x,
                        y,
                    },
                    what::pad(PadButton::TriggerLeft, far.abs()),
                    what::pad(PadButton::TriggerRight, far.abs()),
                ];
                for what in all {
                    short.play(&Does::Feed(1_000, 1, what));
                    long.play(&Does::Feed(1_000, 1, what));
                }
                short.play(&Does::Tick(4_000));
                long.play(&Does::Tick(4_000));
                assert_eq!(short.seen(), long.seen(), "{first}: {lean:?} at {far}");
                let saved = [&short, &long].map(|hand| SavedSeat::new(&hand.seat));
                assert!(saved[0] == saved[1], "{first}: {lean:?} at {far}");
            }
            assert!(short.seat.short_ways() > 300);
        }
    }
}

/// A mouse, a stick and a trigger that move on are not judged, as long as nobody asks what became of them:
/// what is compared above has really been tried.
#[test]
fn short_ways_are_taken_unless_outcomes_are_kept() {
    type Moved = fn(f32) -> EventKind;
    let far = |n: u16| 0.6 + f32::from(n) / 100.0;
    let moves: [(&str, Moved); 4] = [
        ("the mouse", |x| EventKind::MouseMove { x, y: 1.0 }),
        ("a stick", |x| EventKind::PadStick {
            stick: Stick::LEFT,
            x,
            y: 0.3,
        }),
        ("the left trigger", |x| what::pad(PadButton::TriggerLeft, x)),
        ("the right trigger", |x| {
            what::pad(PadButton::TriggerRight, x)
        }),
    ];
    for (name, what) in moves {
        for kept in [0, 4] {
            let mut hand = Hand::new(&sheets(), 0);
            hand.seat.keep_outcomes(kept);
            for n in 0..10 {
                hand.play(&Does::Feed(1_000, 1, what(far(n))));
            }
            hand.play(&Does::Tick(20_000));
            let taken = hand.seat.short_ways();
            match kept {
                // The first one says where it is.
                0 => assert!(taken >= 9, "{name}: {taken}"),
                _ => assert_eq!(taken, 0, "{name}"),
            }
        }
    }
}

/// What the game drives goes as far as it says, also where keys would go all the way, and beside them
/// whichever goes further counts.
#[test]
fn what_is_driven_goes_as_far_as_it_is_driven() {
    let sheet = small(SHEET);
    let mut hand = Hand::new(&[sheet.clone(), sheet.clone(), sheet.clone()], 0);
    let walk = sheet.find("walk").unwrap();
    hand.seat.drive(Time::from_micros(1), (walk, Arm::Up), 0.25);
    hand.play(&Does::Tick(1_000));
    assert_eq!(hand.seat.plane(walk), [0.0, 0.25]);
    hand.play(&Does::Feed(0, 0, what::key(Place::KeyW, true)));
    hand.play(&Does::Tick(1_000));
    assert_eq!(hand.seat.plane(walk), [0.0, 1.0]);
    hand.play(&Does::Feed(0, 0, what::key(Place::KeyW, false)));
    hand.play(&Does::Tick(1_000));
    assert_eq!(hand.seat.plane(walk), [0.0, 0.25]);
    // As little as a restored state knows of it.
    let mut bytes = Vec::new();
    SavedSeat::new(&hand.seat).write(&mut bytes);
    let saved = SavedSeat::read(&bytes, hand.seat.rig()).unwrap();
    let mut other = Seat::new(hand.seat.rig().clone());
    other.restore(&saved).unwrap();
    for down in [true, false] {
        other.feed(&hand.event(0, 0, what::key(Place::KeyS, down)));
        other.tick(Time::from_micros(hand.now + 1_000));
    }
    assert_eq!(other.plane(walk), [0.0, 0.25]);
}

/// A key that works one thing goes a short way; what the next rig has to know of its last press is kept.
#[test]
fn a_rig_that_comes_between_two_presses_knows_of_the_first() {
    let apart = small(
        "[actions.horn]\nbind = \"KeyH\"\n[actions.walk]\nshape = \"plane\"\nup = { bind = \"KeyW\" }\n[actions.both]",
    );
    let together = small(
        r#"
        [actions.horn]
        bind = "KeyH"
        [actions.walk]
        shape = "plane"
        up = { bind = "KeyW" }
        [actions.both]
        bind = [{ on = "KeyH+KeyB", together = true }, { on = "KeyW+KeyB", together = true }]
        "#,
    );
    let both = together.find("both").unwrap();
    for first in [Place::KeyH, Place::KeyW] {
        let mut hand = Hand::new(&[apart.clone(), together.clone(), together.clone()], 0);
        hand.play(&Does::Tick(1_000_000));
        hand.play(&Does::Feed(0, 0, what::key(first, true)));
        hand.play(&Does::Tick(1_000));
        hand.play(&Does::Rig(1));
        hand.play(&Does::Feed(1_000, 0, what::key(Place::KeyB, true)));
        hand.play(&Does::Tick(1_000));
        assert!(hand.seat.went_down(both), "{first}");
    }
}
