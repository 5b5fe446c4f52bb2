//! One seat read by the picture and by a fixed step; causes, counts, presses in time, repeats.

use std::time::Duration;

use crate::common::{small, what};
use proptest::prelude::*;
use swap_knot::input::Simulated;
use swap_knot::play::{Cause, Edge, Pace, TurnUnits};
use swap_knot::sheet::{ActionId, Arm};
use swap_knot::{
    DeviceId, Event, EventKind, Layout, PadButton, Place, Profile, Rig, Row, Seat, Sheet, Stick,
    Time,
};

/// One action of every kind.
const SHEET: &str = r#"
    [situations.deck]
    [situations.menu]
    over = "deck"
    cover = "all"
    [actions.walk]
    situation = "deck"
    shape = "plane"
    bind = "pad:stick-left"
    up = { bind = "KeyW" }
    left = { bind = "KeyA" }
    right = { bind = "KeyD" }
    feel.keyboard = { ramp-up = 0.2, ramp-down = 0.1 }
    [actions.horn]
    situation = "deck"
    bind = ["KeyH", "pad:north"]
    [actions.coil]
    situation = "deck"
    manner = "hold"
    hold-after = 0.1
    bind = "KeyE"
    [actions.dive]
    situation = "deck"
    manner = "double-tap"
    bind = "Space"
    [actions.knot]
    situation = "deck"
    bind = "Ctrl+KeyK"
    [actions.throttle]
    situation = "deck"
    shape = "pull"
    bind = "pad:trigger-left"
    [actions.look]
    situation = "deck"
    shape = "plane"
    rate = true
    bind = ["mouse:move", "pad:stick-left"]
    right = { bind = "KeyD" }
    feel.keyboard = { ramp-up = 0.3, ramp-down = 0.2, sensitivity = 2 }
    feel.gamepad = { curve = 2, sensitivity = 3 }
    feel.mouse = { curve = 1.5 }
    [actions.lamp]
    toggle = true
    bind = "KeyL"
    [actions.confirm]
    situation = "menu"
    bind = "Enter"
"#;

fn sheet() -> Sheet {
    small(SHEET)
}

fn seat(sheet: &Sheet) -> Seat {
    Seat::new(Rig::new(sheet, &Profile::default(), &Layout::us()))
}

fn id(sheet: &Sheet, name: &str) -> ActionId {
    sheet.find(name).unwrap()
}

fn key(at: u64, place: Place, down: bool) -> Event {
    let (at, text) = (Time::from_micros(at), None);
    let what = EventKind::Key { place, down, text };
    Event {
        at,
        device: DeviceId(0),
        what,
    }
}

fn what() -> impl Strategy<Value = EventKind> {
    use Place::{ControlLeft, KeyA, KeyD, KeyE, KeyH, KeyK, KeyL, KeyW, Space};
    let places = vec![KeyW, KeyA, KeyD, KeyH, KeyE, Space, ControlLeft, KeyK, KeyL];
    let keys = (proptest::sample::select(places), any::<bool>());
    prop_oneof![
        8 => keys.prop_map(|(place, down)| EventKind::Key { place, down, text: None }),
        2 => (-1.0_f32..1.0, -1.0_f32..1.0)
            .prop_map(|(x, y)| EventKind::PadStick { stick: Stick::LEFT, x, y }),
        2 => (0.0_f32..1.0)
            .prop_map(|value| EventKind::PadButton { button: PadButton::TriggerLeft, value }),
        2 => (-9.0_f32..9.0, -9.0_f32..9.0).prop_map(|(x, y)| EventKind::MouseMove { x, y }),
        1 => Just(EventKind::FocusLost),
    ]
}

fn events() -> impl Strategy<Value = Vec<Event>> {
    prop::collection::vec((0_u64..2_000_000, what()), 0..120).prop_map(|mut all| {
        all.sort_by_key(|(at, _)| *at);
        let event = |(at, what): (u64, EventKind)| {
            let device = DeviceId(match what {
                EventKind::PadStick { .. } | EventKind::PadButton { .. } => 2,
                EventKind::MouseMove { .. } => 1,
                _ => 0,
            });
            Event {
                at: Time::from_micros(at),
                device,
                what,
            }
        };
        all.into_iter().map(event).collect()
    })
}

/// Everything that can be asked of a row at one moment.
type Asked = (bool, bool, bool, u32, [u32; 3], [f32; 3], [f32; 3]);

const UNITS: TurnUnits = TurnUnits {
    a_count: 0.5,
    a_second: 90.0,
};

const STEP: u64 = 1_000_000 / 60;
const END: u64 = 2_200_000;

fn rows(sheet: &Sheet) -> Vec<Row> {
    (sheet.actions())
        .flat_map(|(id, _)| sheet.rows_of(id).collect::<Vec<_>>())
        .collect()
}

/// What each step reads at a picture rate, and how many presses the pictures saw of each row.
fn paced(sheet: &Sheet, events: &[Event], rate: u64) -> (Vec<Vec<Asked>>, Vec<u32>) {
    let (mut seat, mut pace, mut pictures) = (seat(sheet), Pace::new(), Pace::new());
    let rows = rows(sheet);
    let (mut steps, mut seen, mut next) = (Vec::new(), vec![0; rows.len()], 0);
    let (mut picture, mut step) = (0, 0);
    while picture < END {
        picture += 1_000_000 / rate;
        while next < events.len() && events[next].at <= Time::from_micros(picture) {
            seat.feed(&events[next]);
            next += 1;
        }
        while step + STEP <= picture {
            step += STEP;
            seat.advance(Time::from_micros(step));
            if step <= 2_000_000 {
                let reading = pace.read(&seat);
                let bits = |v: [f32; 3]| v.map(f32::to_bits);
                let asked = |row: &Row| {
                    let motion = reading.motion(row.action);
                    (
                        reading.is_down(*row),
                        reading.went_down(*row),
                        reading.went_up(*row),
                        reading.presses(*row),
                        bits(reading.space(row.action)),
                        motion,
                        reading.turn(row.action, UNITS),
                    )
                };
                steps.push(rows.iter().map(asked).collect());
            }
        }
        seat.tick(Time::from_micros(picture));
        let reading = pictures.read(&seat);
        for (seen, row) in seen.iter_mut().zip(&rows) {
            *seen += reading.presses(*row);
            assert_eq!(seat.went_down(*row), reading.went_down(*row));
            assert_eq!(seat.went_up(*row), reading.went_up(*row));
        }
    }
    (steps, seen)
}

/// The naive model of a step: a seat of its own, which is fed and ticked step by step.
fn stepped(sheet: &Sheet, events: &[Event]) -> Vec<Vec<Asked>> {
    let mut seat = seat(sheet);
    let rows = rows(sheet);
    let (mut steps, mut next, mut step) = (Vec::new(), 0, 0);
    let mut pace = Pace::new();
    while step + STEP <= 2_000_000 {
        step += STEP;
        while next < events.len() && events[next].at <= Time::from_micros(step) {
            seat.feed(&events[next]);
            next += 1;
        }
        seat.tick(Time::from_micros(step));
        let told: Vec<_> = seat.happened().to_vec();
        let reading = pace.read(&seat);
        let asked = |row: &Row| {
            let begun = told
                .iter()
                .filter(|h| h.edge == Edge::Began && h.action == row.action && h.arm == row.arm);
            // The seat adds up in less space than a pace does.
            let motion = reading.motion(row.action);
            let turn = reading.turn(row.action, UNITS);
            let close =
                |a: [f32; 3], b: [f32; 3]| a.iter().zip(b).all(|(a, b)| (a - b).abs() < 1e-2);
            assert!(close(motion, seat.motion(row.action)));
            assert!(close(turn, seat.turn(row.action, UNITS)));
            (
                seat.is_down(*row),
                seat.went_down(*row),
                seat.went_up(*row),
                begun.count() as u32,
                seat.space(row.action).map(f32::to_bits),
                motion,
                turn,
            )
        };
        steps.push(rows.iter().map(asked).collect());
    }
    steps
}

proptest! {
    #![proptest_config(ProptestConfig { cases: crate::common::worlds(96), ..ProptestConfig::default() })]

    /// At every rate of pictures the steps read the same, and as a seat that knows nothing but steps;
    /// and the pictures see as many presses as there were.
    #[test]
    fn steps_are_the_same_at_every_rate_of_pictures(events in events()) {
        let sheet = sheet();
        let (expected, seen) = paced(&sheet, &events, 144);
        prop_assert_eq!(&stepped(&sheet, &events), &expected);
        for rate in [60, 30, 7] {
            let (steps, other) = paced(&sheet, &events, rate);
            prop_assert_eq!(&steps, &expected);
            prop_assert_eq!(&other, &seen);
        }
    }

    /// Events that come out of order within what is not judged yet are judged by their stamps.
    #[test]
    fn what_is_not_judged_yet_is_judged_in_the_order_of_time(events in events(), turn in any::<u64>()) {
        let sheet = sheet();
        let (mut one, mut other) = (seat(&sheet), seat(&sheet));
        events.iter().for_each(|e| one.feed(e));
        // Another order, in which those of one time keep theirs.
        let mut mixed: Vec<&Event> = events.iter().collect();
        mixed.sort_by_key(|e| (e.at.as_micros().wrapping_mul(turn | 1) % 977, e.at));
        mixed.iter().for_each(|e| other.feed(e));
        for seat in [&mut one, &mut other] {
            seat.tick(Time::from_millis(2_100));
        }
        prop_assert_eq!(one.happened(), other.happened());
        prop_assert_eq!(one.fingerprint(), other.fingerprint());
    }
}

#[test]
fn a_pace_that_stands_still_loses_no_press_and_says_what_it_does_not_list() {
    let sheet = sheet();
    let (mut seat, mut slow) = (seat(&sheet), Pace::new());
    let horn = id(&sheet, "horn");
    assert_eq!(slow.read(&seat).presses(horn), 0);
    for n in 0..1500 {
        seat.feed(&key(n * 40_000, Place::KeyH, true));
        seat.feed(&key(n * 40_000 + 9_000, Place::KeyH, false));
        seat.tick(Time::from_micros(n * 40_000 + 16_000));
    }
    let reading = slow.read(&seat);
    assert_eq!(reading.presses(horn), 1500);
    assert!(reading.went_down(horn) && reading.went_up(horn) && !reading.is_down(horn));
    assert_eq!(reading.happened().count(), Pace::LISTED);
    assert_eq!(reading.missed(), 3000 - Pace::LISTED as u64);
    let again = slow.read(&seat);
    assert_eq!((again.presses(horn), again.missed()), (0, 0));
}

#[test]
fn a_game_that_never_ticks_remembers_no_more_than_it_says() {
    let sheet = sheet();
    let (mut seat, mut steps) = (seat(&sheet), Pace::new());
    let (horn, mut presses, mut listed) = (id(&sheet, "horn"), 0, 0);
    for n in 0..40_000 {
        seat.feed(&key(n * 2_000, Place::KeyH, n % 2 == 0));
        if n % 100 == 99 {
            seat.advance(Time::from_micros(n * 2_000));
            let step = steps.read(&seat);
            presses += step.presses(horn);
            listed += step.happened().count();
            assert_eq!(step.missed(), 0);
        }
    }
    assert_eq!((presses, listed), (20_000, 40_000));
    seat.tick(Time::from_millis(80_000));
    assert!(seat.happened().len() <= 33_000, "{}", seat.happened().len());
}

#[test]
fn a_situation_that_is_entered_after_a_step_governs_later_events_only() {
    let sheet = sheet();
    let (mut seat, mut steps) = (seat(&sheet), Pace::new());
    let (horn, confirm) = (id(&sheet, "horn"), id(&sheet, "confirm"));
    let [deck, menu] = ["deck", "menu"].map(|s| sheet.find_situation(s).unwrap());
    seat.set_situations(&[deck]);
    for (at, place) in [(5_000, Place::KeyH), (15_000, Place::Enter)] {
        seat.feed(&key(at, place, true));
    }
    seat.advance(Time::from_millis(10));
    assert!(steps.read(&seat).went_down(horn));
    seat.enter(menu);
    seat.advance(Time::from_millis(20));
    let step = steps.read(&seat);
    assert!(step.went_down(confirm) && step.went_up(horn));
    assert_eq!(seat.last_end(horn), Some(Cause::Situation));
}

#[test]
fn a_pace_reads_on_over_a_remap_and_another_sheet() {
    let sheet = sheet();
    let (mut seat, mut steps) = (seat(&sheet), Pace::new());
    seat.feed(&key(1_000, Place::KeyH, true));
    seat.advance(Time::from_millis(2));
    seat.set_rig(Rig::new(
        &sheet,
        &Profile::default(),
        &Layout::shipped("fr").unwrap(),
    ));
    assert_eq!(steps.read(&seat).presses(id(&sheet, "horn")), 1);
    let other = small("[actions.horn]\nbind = \"KeyH\"\n[actions.bell]\nbind = \"KeyB\"");
    seat.set_rig(Rig::new(&other, &Profile::default(), &Layout::us()));
    seat.feed(&key(3_000, Place::KeyB, true));
    let _ = steps.read(&seat);
    seat.advance(Time::from_millis(4));
    assert_eq!(steps.read(&seat).presses(id(&other, "bell")), 1);
}

#[test]
fn a_sheet_with_the_same_names_and_other_shapes_mixes_no_counts_up() {
    let one = small(
        "[actions.a]\nbind = \"KeyA\"\n[actions.b]\nshape = \"line\"\nleft = { bind = \"KeyB\" }",
    );
    let other = small(
        "[actions.a]\nshape = \"line\"\nleft = { bind = \"KeyA\" }\n[actions.b]\nbind = \"KeyB\"",
    );
    let (mut seat, mut steps) = (seat(&one), Pace::new());
    for n in 0..5 {
        seat.feed(&key(n * 2_000, Place::KeyB, true));
        seat.feed(&key(n * 2_000 + 1_000, Place::KeyB, false));
    }
    seat.advance(Time::from_millis(20));
    let _ = steps.read(&seat);
    seat.set_rig(Rig::new(&other, &Profile::default(), &Layout::us()));
    seat.feed(&key(30_000, Place::KeyA, true));
    let read = steps.read(&seat);
    let presses = |read: &swap_knot::play::Reading<'_>| {
        let rows = [id(&other, "a").into(), Row::arm(id(&other, "a"), Arm::Left)];
        rows.map(|row: Row| read.presses(row))
    };
    assert_eq!(presses(&read), [0, 0]);
    // What was pressed before under that name counts once, as without another sheet.
    assert!(steps.take_press(&seat, id(&other, "b"), Duration::from_secs(9)));
    assert!(!steps.take_press(&seat, id(&other, "b"), Duration::from_secs(9)));
    seat.advance(Time::from_millis(40));
    assert_eq!(presses(&steps.read(&seat)), [1, 1]);
}

#[test]
fn a_device_that_leaves_takes_along_what_is_not_judged_yet() {
    let sheet = sheet();
    let mut seat = seat(&sheet);
    let [horn, walk] = ["horn", "walk"].map(|name| id(&sheet, name));
    seat.feed(&key(1_000, Place::KeyW, true));
    seat.advance(Time::from_millis(2));
    seat.feed(&key(9_000, Place::KeyH, true));
    seat.keep_devices(|device| device != DeviceId(0));
    assert_eq!(
        (seat.is_down(walk), seat.last_end(walk)),
        (false, Some(Cause::Unplugged))
    );
    seat.tick(Time::from_millis(20));
    assert!(
        !seat.is_down(horn) && !seat.went_down(horn),
        "nothing of it is played"
    );
    assert_eq!(seat.inputs_down(), []);
}

/// Presses a key for the horn and Ctrl+K, has something happen, and answers why each ended.
fn why(end: impl FnOnce(&mut Seat, &Sheet)) -> [Option<Cause>; 2] {
    let sheet = sheet();
    let mut seat = seat(&sheet);
    let rows = ["horn", "knot"].map(|name| id(&sheet, name));
    for place in [Place::ControlLeft, Place::KeyK, Place::KeyH] {
        seat.feed(&key(1_000, place, true));
    }
    seat.tick(Time::from_millis(2));
    assert!(rows.iter().all(|row| seat.is_down(*row)));
    end(&mut seat, &sheet);
    seat.tick(Time::from_millis(9));
    for row in rows {
        let ended = seat
            .happened()
            .iter()
            .find(|h| h.action == row && h.edge == Edge::Ended);
        assert_eq!(ended.map(|h| h.cause), seat.last_end(row));
        assert_eq!(
            seat.was_let_go(row),
            seat.last_end(row) == Some(Cause::LetGo)
        );
    }
    rows.map(|row| seat.last_end(row))
}

#[test]
fn every_end_says_why() {
    let feed = |seat: &mut Seat, what| {
        let (at, device) = (Time::from_millis(5), DeviceId(0));
        seat.feed(&Event { at, device, what });
    };
    assert_eq!(why(|_, _| {}), [None, None]);
    let both = |cause| [Some(cause), Some(cause)];
    let let_go = why(|seat, _| {
        seat.feed(&key(5_000, Place::KeyH, false));
        seat.feed(&key(5_000, Place::KeyK, false));
    });
    assert_eq!(let_go, both(Cause::LetGo));
    let chord = why(|seat, _| seat.feed(&key(5_000, Place::ControlLeft, false)));
    assert_eq!(chord, [None, Some(Cause::ChordBroken)]);
    assert_eq!(
        why(|seat, _| feed(seat, EventKind::FocusLost)),
        both(Cause::Focus)
    );
    assert_eq!(
        why(|seat, _| feed(seat, EventKind::Unplugged)),
        both(Cause::Unplugged)
    );
    let menu = why(|seat, sheet| seat.enter(sheet.find_situation("menu").unwrap()));
    assert_eq!(menu, both(Cause::Situation));
    let rig = why(|seat, sheet| {
        let mut profile = Profile::default();
        for name in ["horn", "knot"] {
            let cell = sheet.defaults_of(id(sheet, name))[0].cell;
            profile.set(sheet, cell, Some(Place::F9.into()));
        }
        seat.set_rig(Rig::new(sheet, &profile, &Layout::us()));
    });
    assert_eq!(rig, both(Cause::Rig));
    let spent = why(|seat, sheet| seat.spend(id(sheet, "horn")));
    assert_eq!(spent, [Some(Cause::Spent), None]);
}

#[test]
fn what_is_spent_stays_silent_until_it_has_been_at_rest() {
    let sheet = sheet();
    let mut seat = seat(&sheet);
    let (horn, walk) = (id(&sheet, "horn"), id(&sheet, "walk"));
    let tilt = |at, x| {
        let (at, device) = (Time::from_millis(at), DeviceId(2));
        let what = what::stick(Stick::LEFT, x, 0.0);
        Event { at, device, what }
    };
    seat.feed(&key(1_000, Place::KeyH, true));
    seat.feed(&tilt(1, 1.0));
    seat.tick(Time::from_millis(2));
    seat.spend(horn);
    seat.spend((walk, Arm::Up));
    assert!(
        !seat.is_down(horn) && seat.is_down(walk),
        "another arm is another matter"
    );
    seat.spend(walk);
    assert_eq!(seat.plane(walk), [0.0; 2]);
    seat.feed(&key(3_000, Place::KeyH, true));
    seat.feed(&tilt(3, 0.9));
    seat.tick(Time::from_millis(4));
    assert!(!seat.is_down(horn) && !seat.is_down(walk));
    seat.feed(&key(5_000, Place::KeyH, false));
    seat.feed(&tilt(5, 0.0));
    seat.feed(&key(6_000, Place::KeyH, true));
    seat.feed(&tilt(6, 0.9));
    seat.tick(Time::from_millis(7));
    assert!(seat.is_down(horn) && seat.is_down(walk));
}

#[test]
fn an_attempt_that_comes_to_nothing_is_told() {
    let sheet = sheet();
    let (mut seat, mut steps) = (seat(&sheet), Pace::new());
    let (coil, dive) = (id(&sheet, "coil"), id(&sheet, "dive"));
    let mut gave_up = |seat: &mut Seat, to: u64, events: &[(u64, Place, bool)]| {
        for &(at, place, down) in events {
            seat.feed(&key(at * 1_000, place, down));
        }
        seat.tick(Time::from_millis(to));
        let step = steps.read(seat);
        assert_eq!(step.gave_up(coil), seat.gave_up(coil));
        [coil, dive].map(|action| step.gave_up(action))
    };
    // A hold that was let go too soon; one that got there did not give up.
    let short = [(1, Place::KeyE, true), (50, Place::KeyE, false)];
    assert_eq!(gave_up(&mut seat, 60, &short), [true, false]);
    assert_eq!(gave_up(&mut seat, 70, &[]), [false, false]);
    let long = [(100, Place::KeyE, true), (300, Place::KeyE, false)];
    assert_eq!(gave_up(&mut seat, 310, &long), [false, false]);
    // A first tap whose second comes too late.
    let tap = [(400, Place::Space, true), (420, Place::Space, false)];
    assert_eq!(gave_up(&mut seat, 430, &tap), [false, false]);
    assert_eq!(
        gave_up(&mut seat, 2_010, &[(2_000, Place::Space, true)]),
        [false, true]
    );
    // A hold that is broken off.
    assert_eq!(
        gave_up(&mut seat, 3_010, &[(3_000, Place::KeyE, true)]),
        [false, false]
    );
    seat.enter(sheet.find_situation("menu").unwrap());
    assert!(gave_up(&mut seat, 3_020, &[])[0]);
}

#[test]
fn a_press_just_too_early_counts_once_at_each_pace() {
    let sheet = sheet();
    let (mut seat, mut steps, mut net) = (seat(&sheet), Pace::new(), Pace::new());
    let horn = id(&sheet, "horn");
    let within = Duration::from_millis(100);
    let _ = steps.read(&seat);
    assert!(!steps.take_press(&seat, horn, within));
    seat.feed(&key(50_000, Place::KeyH, true));
    seat.feed(&key(60_000, Place::KeyH, false));
    seat.advance(Time::from_millis(140));
    let _ = steps.read(&seat);
    assert!(steps.take_press(&seat, horn, within));
    assert!(!steps.take_press(&seat, horn, within), "it was taken");
    let _ = steps.read(&seat);
    assert!(
        !steps.take_press(&seat, horn, within),
        "also for the next step"
    );
    let _ = net.read(&seat);
    assert!(
        net.take_press(&seat, horn, within),
        "another pace takes its own"
    );
    seat.feed(&key(200_000, Place::KeyH, true));
    seat.advance(Time::from_millis(301));
    let _ = steps.read(&seat);
    assert!(!steps.take_press(&seat, horn, within), "too long ago");
    assert_eq!(seat.last_press(horn), Duration::from_millis(101));
    seat.feed(&key(350_000, Place::KeyH, false));
    seat.advance(Time::from_millis(500));
    assert_eq!(seat.last_press(horn), Duration::from_millis(150));
}

#[test]
fn a_press_held_in_a_menu_repeats_whatever_the_pictures_do() {
    let sheet = sheet();
    let (first, every) = (Duration::from_millis(400), Duration::from_millis(100));
    let up = (id(&sheet, "walk"), Arm::Up);
    for picture in [1, 7, 16, 33, 140, 900] {
        let (mut seat, mut pace) = (seat(&sheet), Pace::new());
        seat.feed(&key(50_000, Place::KeyW, true));
        seat.feed(&key(955_000, Place::KeyW, false));
        let (mut now, mut count) = (0, 0);
        while now < 2_000 {
            now += picture;
            seat.advance(Time::from_millis(now));
            count += pace.read(&seat).repeats(up, first, every);
        }
        // At 50, then at 450, 550, 650, 750, 850 and 950 milliseconds.
        assert_eq!(count, 7, "a picture every {picture} ms");
    }
}

#[test]
fn a_simulated_seat_reads_the_same_at_a_pace() {
    let sheet = sheet();
    let (mut seat, mut pace) = (seat(&sheet), Pace::new());
    let mut keys = Simulated::new(DeviceId(0));
    seat.feed(&keys.key(Place::KeyL));
    keys.wait(Duration::from_millis(5));
    seat.feed(&keys.key_up(Place::KeyL));
    seat.advance(keys.now());
    let reading = pace.read(&seat);
    let lamp = id(&sheet, "lamp");
    assert!(reading.went_down(lamp) && reading.is_down(lamp) && !reading.went_up(lamp));
}

/// What another sheet binds elsewhere ends with a cause, which each pace is told, and so is what is gone.
#[test]
fn ends_by_another_sheet_are_told_to_each_pace() {
    let one = small("[actions.horn]\nbind = \"KeyH\"\n[actions.bell]\nbind = \"KeyB\"");
    let other = small("[actions.lamp]\nbind = \"KeyL\"\n[actions.horn]\nbind = \"KeyG\"");
    let (mut seat, mut steps) = (seat(&one), Pace::new());
    seat.feed(&key(1_000, Place::KeyH, true));
    seat.feed(&key(2_000, Place::KeyB, true));
    seat.advance(Time::from_millis(5));
    assert!(steps.read(&seat).went_down(id(&one, "horn")));
    for sheet in [&other, &one, &other] {
        seat.set_rig(Rig::new(sheet, &Profile::default(), &Layout::us()));
    }
    seat.advance(Time::from_millis(10));
    let read = steps.read(&seat);
    let horn = id(&other, "horn");
    assert!(read.went_up(horn) && !read.was_let_go(horn) && !read.went_down(horn));
    let ended: Vec<_> = (read.happened())
        .map(|h| (h.action, h.edge, h.cause))
        .collect();
    // What is gone is told under the name that it had.
    let [horn, gone] = [horn, id(&one, "bell")].map(|id| (id, Edge::Ended, Cause::Rig));
    assert_eq!(ended, [horn, gone]);
    assert_eq!(steps.read(&seat).happened().count(), 0);
}

#[test]
fn an_attempt_says_why_it_came_to_nothing() {
    use swap_knot::play::Outcome;
    let sheet = sheet();
    let why = |ends: &dyn Fn(&mut Seat)| {
        let (mut seat, mut steps) = (seat(&sheet), Pace::new());
        seat.feed(&key(1_000, Place::KeyE, true));
        seat.advance(Time::from_millis(5));
        ends(&mut seat);
        seat.advance(Time::from_millis(60));
        let coil = id(&sheet, "coil");
        let read = steps.read(&seat);
        assert_eq!(read.why_gave_up(coil), seat.why_gave_up(coil));
        assert_eq!(read.gave_up(coil), seat.why_gave_up(coil).is_some());
        seat.why_gave_up(coil)
    };
    assert_eq!(why(&|_| {}), None);
    let let_go = |seat: &mut Seat| seat.feed(&key(6_000, Place::KeyE, false));
    assert_eq!(why(&let_go), Some(Outcome::TooShort));
    let lost = |seat: &mut Seat| {
        seat.feed(&Event {
            at: Time::from_millis(6),
            device: DeviceId(0),
            what: EventKind::FocusLost,
        });
    };
    assert_eq!(why(&lost), Some(Outcome::BrokenOff(Cause::Focus)));
    let covered = |seat: &mut Seat| seat.enter(sheet.find_situation("menu").unwrap());
    assert_eq!(why(&covered), Some(Outcome::BrokenOff(Cause::Situation)));
}

/// A throw is let go, and a second press is broken off within the same reading: the throw counts.
#[test]
fn what_was_let_go_is_not_lost_by_what_is_broken_off_after_it() {
    let sheet = sheet();
    let (mut seat, mut steps) = (seat(&sheet), Pace::new());
    for (at, down) in [(1_000, true), (2_000, false), (3_000, true)] {
        seat.feed(&key(at, Place::KeyH, down));
    }
    seat.advance(Time::from_millis(5));
    seat.enter(sheet.find_situation("menu").unwrap());
    let horn = id(&sheet, "horn");
    assert!(steps.read(&seat).was_let_go(horn));
    assert_eq!(seat.last_end(horn), Some(Cause::Situation));
    seat.tick(Time::from_millis(10));
    assert!(seat.was_let_go(horn), "at the picture's rhythm too");
}

#[test]
fn what_comes_late_keeps_its_stamp() {
    let sheet = sheet();
    let (mut seat, mut steps) = (seat(&sheet), Pace::new());
    seat.advance(Time::from_millis(100));
    let _ = steps.read(&seat);
    seat.feed(&key(50_000, Place::KeyH, true));
    seat.feed(&key(60_000, Place::KeyE, true));
    seat.advance(Time::from_millis(155));
    let told: Vec<_> = (steps.read(&seat).happened())
        .map(|h| (h.at.as_micros(), h.action))
        .collect();
    assert_eq!(told, [(50_000, id(&sheet, "horn"))]);
    let [horn, coil] = ["horn", "coil"].map(|name| id(&sheet, name));
    assert_eq!(seat.down_for(horn).as_millis(), 105);
    assert!(seat.hold_progress(coil) > 0.9, "it counts from its stamp");
    seat.advance(Time::from_millis(161));
    assert_eq!(seat.down_for(coil).as_millis(), 1);
}
