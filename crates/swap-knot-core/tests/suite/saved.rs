//! Actions that the game works itself, and the state of a seat put away and taken out again.

use crate::common::{small, what};
use proptest::prelude::*;
use swap_knot::input::TouchName;
use swap_knot::play::{Cause, Pace, RestoreError, SavedSeat};
use swap_knot::sheet::{ActionId, Arm, Parameter, Parameters};
use swap_knot::{
    DeviceId, Event, EventKind, Layout, PadButton, Place, Profile, Rig, Seat, Seats, Sheet, Stick,
    Time,
};

/// One action of every kind, on every kind of device.
const SHEET: &str = r#"
    [situations.deck]
    [situations.helm]
    with = "deck"
    [situations.menu]
    over = "deck"
    cover = "all"
    [actions.walk]
    situation = "deck"
    shape = "plane"
    bind = "pad:stick-left"
    up = { bind = "KeyW" }
    left = { bind = "KeyA" }
    feel.keyboard = { ramp-up = 0.2, ramp-down = 0.1 }
    [actions.look]
    situation = "deck"
    shape = "plane"
    rate = true
    bind = ["mouse:move", "pad:stick-left"]
    feel.mouse.curve = 1.5
    [actions.pull]
    shape = "pull"
    bind = "pad:trigger-left"
    [actions.coil]
    situation = "deck"
    manner = "hold"
    bind = ["KeyE", "touch:coil"]
    [actions.dive]
    manner = "double-tap"
    bind = "KeyA"
    [actions.lamp]
    toggle = true
    bind = "KeyL"
    [actions.knot]
    bind = ["Ctrl+KeyE", { on = "KeyA+KeyL", together = true }]
    [actions.confirm]
    situation = "menu"
    bind = "KeyE"
"#;

fn seat(sheet: &Sheet) -> Seat {
    Seat::new(Rig::new(sheet, &Profile::default(), &Layout::us()))
}

fn id(sheet: &Sheet, name: &str) -> ActionId {
    sheet.find(name).unwrap()
}

/// What may be done to a seat.
#[derive(Clone, Debug)]
enum Does {
    Feed(u64, u16, EventKind),
    Drive(u64, usize, Option<usize>, f32),
    Tick(u64),
    Advance(u64),
    Stack(Vec<&'static str>),
    Spend(usize),
}

fn does() -> impl Strategy<Value = Does> {
    use Place::{ControlLeft, KeyA, KeyE, KeyL, KeyW};
    let key = (
        proptest::sample::select(vec![KeyW, KeyA, KeyE, KeyL, ControlLeft]),
        any::<bool>(),
    );
    let coil: TouchName = "coil".parse().unwrap();
    let strange: TouchName = "strange".parse().unwrap();
    let what = prop_oneof![
        8 => key.prop_map(|(place, down)| EventKind::Key { place, down, text: None }),
        3 => (-1.0_f32..1.0, -1.0_f32..1.0)
            .prop_map(|(x, y)| EventKind::PadStick { stick: Stick::LEFT, x, y }),
        2 => (0.0_f32..1.0)
            .prop_map(|value| EventKind::PadButton { button: PadButton::TriggerLeft, value }),
        2 => (-9.0_f32..9.0, -9.0_f32..9.0).prop_map(|(x, y)| EventKind::MouseMove { x, y }),
        1 => (any::<bool>(), any::<bool>())
            .prop_map(move |(a, down)| EventKind::Touch { name: if a { coil } else { strange }, down }),
        1 => Just(EventKind::Scroll { x: 0.0, y: 0.3 }),
        1 => Just(EventKind::FocusLost),
        1 => Just(EventKind::Unplugged),
        1 => (-9.0_f32..9.0).prop_map(|yaw| EventKind::PadGyro { yaw, pitch: 1.0, roll: 0.0 }),
    ];
    prop_oneof![
        12 => (0_u64..30_000, 0..4_u16, what).prop_map(|(t, d, w)| Does::Feed(t, d, w)),
        3 => (0_u64..30_000, 0..8_usize, proptest::option::of(0..6_usize), -1.0_f32..1.0)
            .prop_map(|(t, a, arm, v)| Does::Drive(t, a, arm, v)),
        4 => (0_u64..200_000).prop_map(Does::Tick),
        2 => (0_u64..100_000).prop_map(Does::Advance),
        1 => proptest::sample::subsequence(vec!["deck", "helm", "menu"], 0..=3).prop_map(Does::Stack),
        1 => (0..8_usize).prop_map(Does::Spend),
    ]
}

/// Does it all from a moment on; answers what was to be seen after each, and the last moment.
fn play(seat: &mut Seat, all: &[Does], mut now: u64) -> (Vec<u64>, u64) {
    let sheet = seat.rig().sheet().clone();
    let nth = |n: usize| sheet.actions().nth(n).unwrap().0;
    let mut seen = Vec::new();
    for does in all {
        match does {
            Does::Feed(ahead, device, what) => {
                let (at, device) = (Time::from_micros(now + ahead), DeviceId(*device));
                seat.feed(&Event {
                    at,
                    device,
                    what: *what,
                });
            }
            Does::Drive(ahead, action, arm, far) => {
                let at = Time::from_micros(now + ahead);
                match arm {
                    Some(arm) => seat.drive(at, (nth(*action), Arm::ALL[*arm]), far.abs()),
                    None => seat.drive(at, nth(*action), *far),
                }
            }
            Does::Tick(later) => {
                now += later;
                seat.tick(Time::from_micros(now));
            }
            Does::Advance(later) => {
                now += later;
                seat.advance(Time::from_micros(now));
            }
            Does::Stack(names) => {
                let ids: Vec<_> = names
                    .iter()
                    .filter_map(|n| sheet.find_situation(n))
                    .collect();
                seat.set_situations(&ids);
            }
            Does::Spend(action) => seat.spend(nth(*action)),
        }
        seen.push(seat.fingerprint());
        seen.push(seat.happened().len() as u64);
    }
    (seen, now)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: crate::common::worlds(200), ..ProptestConfig::default() })]

    /// What is put back plays on as it did, and is equal to what was saved, in memory and as bytes;
    /// another seat takes it over as well.
    #[test]
    fn what_is_put_back_plays_on_as_it_did(
        before in prop::collection::vec(does(), 0..60),
        after in prop::collection::vec(does(), 0..60),
    ) {
        let sheet = small(SHEET);
        let mut live = seat(&sheet);
        let (_, now) = play(&mut live, &before, 0);
        let saved = SavedSeat::new(&live);
        let (seen, _) = play(&mut live, &after, now);
        let end = SavedSeat::new(&live);
        live.restore(&saved).unwrap();
        prop_assert_eq!(&SavedSeat::new(&live), &saved);
        prop_assert_eq!(&play(&mut live, &after, now).0, &seen);
        prop_assert_eq!(&SavedSeat::new(&live), &end);
        let mut other = seat(&sheet);
        other.restore(&saved).unwrap();
        prop_assert_eq!(&play(&mut other, &after, now).0, &seen);

        // As bytes, with nothing waiting.
        live.restore(&saved).unwrap();
        let tick = Time::from_micros(now + 30_000);
        live.tick(tick);
        let saved = SavedSeat::new(&live);
        let mut bytes = Vec::new();
        saved.write(&mut bytes);
        let read = SavedSeat::read(&bytes, live.rig()).unwrap();
        prop_assert_eq!(&read, &saved);
        let (seen, _) = play(&mut live, &after, now + 30_000);
        other.restore(&read).unwrap();
        prop_assert_eq!(&play(&mut other, &after, now + 30_000).0, &seen);
    }

    /// Bytes that were never written by a seat are refused, or play without a fall.
    #[test]
    fn damaged_bytes_do_no_harm(
        before in prop::collection::vec(does(), 0..40),
        after in prop::collection::vec(does(), 0..40),
        damage in prop::collection::vec((any::<prop::sample::Index>(), any::<u8>()), 1..4),
        cut in prop::option::weighted(0.2, any::<prop::sample::Index>()),
    ) {
        let sheet = small(SHEET);
        let mut live = seat(&sheet);
        let (_, now) = play(&mut live, &before, 0);
        live.tick(Time::from_micros(now + 30_000));
        let mut bytes = Vec::new();
        SavedSeat::new(&live).write(&mut bytes);
        for (at, byte) in damage {
            // Past the number of the rig, which would refuse it all.
            let at = 9 + at.index(bytes.len() - 9);
            bytes[at] ^= byte;
        }
        if let Some(cut) = cut {
            bytes.truncate(cut.index(bytes.len()));
        }
        if let Ok(saved) = SavedSeat::read(&bytes, live.rig()) {
            live.restore(&saved).unwrap();
            let now = now.saturating_add(60_000);
            let _ = play(&mut live, &after, now);
            for (id, _) in sheet.actions() {
                let _ = (live.space(id), live.down_for(id), live.hold_progress(id));
            }
            // Everything can still be let go.
            let (device, what) = (DeviceId::ALL, EventKind::Unplugged);
            live.feed(&Event { at: Time::from_micros(now), device, what });
            live.tick(Time::from_micros(now));
        }
    }

    /// A bot that does what a hand does makes the same of it: edges, causes, values, and silence under
    /// a menu.
    #[test]
    fn a_bot_plays_as_a_hand_does(
        moves in prop::collection::vec((0_u64..80, 0..5_usize, any::<bool>(), prop::bool::weighted(0.1)), 1..60),
    ) {
        let sheet = small(
            "[situations.deck]\n[situations.menu]\nover = \"deck\"\ncover = \"all\"\n\
             [actions.walk]\nsituation = \"deck\"\nshape = \"plane\"\nup.bind = \"KeyW\"\n\
             left.bind = \"KeyA\"\nright.bind = \"KeyD\"\n\
             [actions.horn]\nsituation = \"deck\"\nbind = \"KeyH\"\n\
             [actions.lamp]\ntoggle = true\nbind = \"KeyL\"",
        );
        let [walk, horn, lamp] = ["walk", "horn", "lamp"].map(|n| id(&sheet, n));
        let keys = [Place::KeyW, Place::KeyA, Place::KeyD, Place::KeyH, Place::KeyL];
        let (mut hand, mut bot) = (seat(&sheet), seat(&sheet));
        let mut now = 0;
        for (wait, which, down, menu) in moves {
            now += wait;
            let at = Time::from_millis(now);
            let what = EventKind::Key { place: keys[which], down, text: None };
            hand.feed(&Event { at, device: DeviceId(0), what });
            let far = if down { 1.0 } else { 0.0 };
            match which {
                0 => bot.drive(at, (walk, Arm::Up), far),
                1 => bot.drive(at, (walk, Arm::Left), far),
                2 => bot.drive(at, (walk, Arm::Right), far),
                3 => bot.drive(at, horn, far),
                _ => bot.drive(at, lamp, far),
            }
            for seat in [&mut hand, &mut bot] {
                seat.tick(at);
                if menu {
                    let menu = seat.rig().sheet().find_situation("menu").unwrap();
                    match seat.situations().contains(&menu) {
                        true => seat.leave(menu),
                        false => seat.enter(menu),
                    }
                }
            }
            prop_assert_eq!(hand.happened(), bot.happened());
            for (id, _) in sheet.actions() {
                prop_assert_eq!(hand.space(id), bot.space(id));
            }
        }
    }
}

#[test]
fn a_bot_goes_any_way_at_once_and_beside_a_hand() {
    let sheet = small(SHEET);
    let [walk, look, pull] = ["walk", "look", "pull"].map(|n| id(&sheet, n));
    let mut bot = seat(&sheet);
    let at = Time::from_millis;
    bot.drive_to(at(1), walk, [0.5, -0.25, 0.0]);
    bot.drive(at(1), pull, 0.75);
    bot.drive_by(at(1), look, [3.0, 4.0, 0.0]);
    bot.drive(at(1), pull, f32::NAN);
    bot.drive(at(1), pull, 0.75);
    bot.tick(at(2));
    assert_eq!((bot.plane(walk), bot.value(pull)), ([0.5, -0.25], 0.75));
    assert_eq!(bot.motion(look), [3.0, 4.0, 0.0]);
    assert!(bot.is_down((walk, Arm::Down)) && bot.went_down((walk, Arm::Right)));
    // A hand on the same action goes as far as it goes; the bot keeps what it has.
    let key = |at, down| Event {
        at,
        device: DeviceId(0),
        what: what::key(Place::KeyW, down),
    };
    bot.feed(&key(at(3), true));
    bot.feed(&key(at(400), false));
    bot.drive_to(at(500), walk, [0.0; 3]);
    bot.tick(at(800));
    assert_eq!(bot.plane(walk), [0.0, 0.0]);
    assert_eq!(bot.last_end(walk), Some(Cause::LetGo));
}

#[test]
fn a_state_of_another_rig_or_version_is_refused() {
    let sheet = small(SHEET);
    let first = seat(&sheet);
    let mut profile = Profile::new("Ada");
    profile
        .set_parameters("lamp", &Parameters::new().with(Parameter::Toggle, false))
        .unwrap();
    let other = Rig::new(&sheet, &profile, &Layout::us());
    let saved = SavedSeat::new(&first);
    assert_eq!(
        Seat::new(other.clone()).restore(&saved),
        Err(RestoreError::OtherRig)
    );
    let mut bytes = Vec::new();
    saved.write(&mut bytes);
    // A seat that rests is small.
    assert!(bytes.len() < 100, "{} bytes", bytes.len());
    assert_eq!(
        SavedSeat::read(&bytes, &other).unwrap_err(),
        RestoreError::OtherRig
    );
    assert_eq!(
        SavedSeat::read(&[], first.rig()).unwrap_err(),
        RestoreError::Damaged
    );
    bytes[0] = 7;
    let why = SavedSeat::read(&bytes, first.rig()).unwrap_err();
    assert_eq!(
        why.to_string(),
        "the state was written in version 7, and this version reads 5"
    );
}

/// A minute of play at 60 pictures a second, each of which goes eight steps back and plays them again.
#[test]
fn rolling_back_a_minute_allocates_nothing() {
    const BACK: usize = 8;
    let sheet = small(SHEET);
    let mut live = seat(&sheet);
    let mut pace = Pace::new();
    let mut states: Vec<(SavedSeat, Pace)> = (0..BACK)
        .map(|_| (SavedSeat::new(&live), Pace::new()))
        .collect();
    let events = |step: u64| {
        let at = Time::from_micros(step * 16_667 + 3_000);
        let key = |place, down| what::key(place, down);
        let tilt = (step % 40) as f32 / 40.0;
        let what = match step % 6 {
            0 => key(Place::KeyW, step.is_multiple_of(12)),
            1 => key(Place::KeyE, step % 12 == 1),
            2 => EventKind::MouseMove { x: 3.0, y: 1.0 },
            3 => key(Place::ControlLeft, step % 12 == 3),
            4 => what::stick(Stick::LEFT, tilt, -tilt),
            _ => key(Place::KeyL, step % 12 == 5),
        };
        Event {
            at,
            device: DeviceId((step % 3) as u16),
            what,
        }
    };
    let mut minute = |live: &mut Seat, pace: &mut Pace, from: u64, steps: u64| {
        let mut told = 0;
        for step in from..from + steps {
            if step - from >= BACK as u64 {
                let (state, then) = &states[(step % BACK as u64) as usize];
                live.restore(state).unwrap();
                pace.clone_from(then);
            }
            let first = if step - from >= BACK as u64 {
                step - BACK as u64
            } else {
                step
            };
            for step in first..=step {
                let (state, then) = &mut states[(step % BACK as u64) as usize];
                state.save(live);
                then.clone_from(pace);
                live.feed(&events(step));
                live.advance(Time::from_micros((step + 1) * 16_667));
                told += pace.read(live).happened().count();
            }
            live.tick(Time::from_micros((step + 1) * 16_667));
        }
        told
    };
    // Once to fill the room that is used.
    minute(&mut live, &mut pace, 0, 600);
    let mut told = 0;
    let info = allocation_counter::measure(|| {
        told = minute(&mut live, &mut pace, 600, 3_600);
    });
    assert!(told > 10_000, "{told}");
    assert_eq!(info.count_total, 0, "{info:?}");
}

/// A bot that always says what it does a step ahead, so that something always waits.
#[test]
fn a_bot_that_plans_ahead_takes_no_more_and_more_room() {
    let sheet = small(SHEET);
    let pull = id(&sheet, "pull");
    let mut bot = seat(&sheet);
    let mut play = |from: u64| {
        for step in from..from + 5_000 {
            let ahead = Time::from_millis((step + 1) * 10);
            bot.drive(ahead, pull, (step % 7) as f32 / 7.0);
            bot.advance(Time::from_millis(step * 10));
        }
    };
    play(0);
    let info = allocation_counter::measure(|| play(5_000));
    assert_eq!(info.count_total, 0, "{info:?}");
}

/// What is judged since another device changed hands has its value at once, so that what is saved then
/// as bytes goes on with it.
#[test]
fn what_is_judged_between_two_ticks_is_saved_with_its_value() {
    let sheet = small(SHEET);
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
    let pull = id(&sheet, "pull");
    let mut seats = Seats::new();
    for device in 0..2 {
        let seat = seats.add(rig.clone()).unwrap();
        seats.give(DeviceId(device), &[seat]);
    }
    seats.feed(&Event {
        at: Time::from_millis(1),
        device: DeviceId(1),
        what: what::pad(PadButton::TriggerLeft, 1.0),
    });
    seats.give(DeviceId(0), &[]);
    let mut bytes = Vec::new();
    SavedSeat::new(seats.get(1).unwrap()).write(&mut bytes);
    let mut other = Seat::new(rig.clone());
    other
        .restore(&SavedSeat::read(&bytes, &rig).unwrap())
        .unwrap();
    other.tick(Time::from_millis(16));
    assert_eq!(other.value(pull), 1.0);
}

/// What is read is what was written, also of motion, of what waits and of what is no number.
#[test]
fn a_state_read_from_its_bytes_is_the_one_that_was_saved() {
    let sheet = small(
        "[actions.look]\nshape = \"plane\"\nbind = \"mouse:move\"\n[actions.horn]\nbind = \"KeyH\"",
    );
    let mut first = seat(&sheet);
    let feed = |seat: &mut Seat, at: u64, what: EventKind| {
        let (at, device) = (Time::from_millis(at), DeviceId(0));
        seat.feed(&Event { at, device, what });
    };
    feed(&mut first, 1, EventKind::MouseMove { x: 3.0, y: 4.0 });
    first.tick(Time::from_millis(5));
    let (x, y) = (f32::NAN, 0.5);
    feed(&mut first, 9, EventKind::MouseMove { x, y });
    feed(&mut first, 10, what::key(Place::KeyH, true));
    first.overhear(&Event {
        at: Time::from_millis(11),
        device: DeviceId(1),
        what: what::pad(PadButton::South, 1.0),
    });
    first.drive(Time::from_millis(12), id(&sheet, "horn"), 1.0);
    let saved = SavedSeat::new(&first);
    assert_eq!(saved, saved.clone(), "what is no number is equal to itself");
    let mut bytes = Vec::new();
    saved.write(&mut bytes);
    let read = SavedSeat::read(&bytes, first.rig()).unwrap();
    assert_eq!(read, saved);
    let mut other = seat(&sheet);
    other.restore(&read).unwrap();
    for seat in [&mut first, &mut other] {
        seat.tick(Time::from_millis(20));
    }
    assert!(other.went_down(id(&sheet, "horn")), "what waited is judged");
    assert_eq!(SavedSeat::new(&other), SavedSeat::new(&first));
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(crate::common::worlds(20_000)) })]

    /// Whatever is taken from strange bytes can be written and read again.
    #[test]
    fn a_hostile_state_that_is_taken_is_written_as_one_that_is_read(
        changes in proptest::collection::vec((any::<proptest::sample::Index>(), any::<u8>()), 1..4),
    ) {
        let sheet = small(SHEET);
        let mut seat = seat(&sheet);
        for (n, place) in [Place::KeyE, Place::KeyA, Place::KeyL].into_iter().enumerate() {
            let at = Time::from_millis(n as u64);
            seat.feed(&Event { at, device: DeviceId(0), what: what::key(place, true) });
        }
        seat.tick(Time::from_millis(9));
        seat.feed(&Event {
            at: Time::from_millis(12),
            device: DeviceId(3),
            what: what::pad(PadButton::TriggerLeft, 0.7),
        });
        let mut bytes = Vec::new();
        SavedSeat::new(&seat).write(&mut bytes);
        for (at, to) in changes {
            *at.get_mut(&mut bytes) = to;
        }
        if let Ok(taken) = SavedSeat::read(&bytes, seat.rig()) {
            let mut again = Vec::new();
            taken.write(&mut again);
            let read = SavedSeat::read(&again, seat.rig());
            prop_assert!(read.is_ok(), "{:?}", read.err());
            prop_assert_eq!(read.unwrap(), taken);
        }
    }
}
