//! Several players, touch and other controllers, feel, typed actions, joined sheets, and the
//! promise that playing allocates nothing.

use std::time::Duration;

use crate::common::{Hand, cell, chord, demo, small, us, what};
use proptest::prelude::*;
use swap_knot::input::{HidAxis, HidButton, Modifier, TouchName};
use swap_knot::play::{Cause, DeviceUse, Fed, Happened};
use swap_knot::sheet::{Arm, Parameter, Parameters};
use swap_knot::{
    Actions, DeviceId, DeviceKind, Event, EventKind, Input, Layout, PadButton, Place, Profile, Rig,
    Seat, Seats, Sheet, Stick, Time, Trace,
};

fn event(device: u16, at: u64, what: EventKind) -> Event {
    Event {
        at: Time::from_millis(at),
        device: DeviceId(device),
        what,
    }
}

fn key(at: u64, place: Place, down: bool) -> Event {
    event(0, at, what::key(place, down))
}

fn preset(sheet: &Sheet, name: Option<&str>) -> Rig {
    let mut profile = Profile::new("someone");
    profile.set_preset(name);
    Rig::new(sheet, &profile, &Layout::us())
}

#[test]
fn a_pad_that_only_comes_or_is_turned_joins_nobody() {
    let mut seats = Seats::new();
    let deckhand = seats.add(crate::common::us(&demo())).unwrap();
    seats.wait_for_device(deckhand);
    let turned = EventKind::PadGyro {
        yaw: 90.0,
        pitch: 0.0,
        roll: 0.0,
    };
    for (n, what) in [EventKind::Plugged { usb: None }, turned]
        .into_iter()
        .enumerate()
    {
        assert_eq!(seats.feed(&event(7, n as u64, what)), Fed::Free);
    }
    let button = PadButton::South;
    let press = EventKind::PadButton { button, value: 1.0 };
    assert_eq!(seats.feed(&event(7, 9, press)), Fed::Joined(deckhand));
}

#[test]
fn two_players_share_a_keyboard_and_a_pad_joins() {
    let sheet = demo();
    let mut seats = Seats::new();
    let skipper = seats.add(preset(&sheet, None)).unwrap();
    let deckhand = seats.add(preset(&sheet, Some("deckhand"))).unwrap();
    seats.give(DeviceId(0), &[skipper, deckhand]);
    let walk = sheet.find("walk").unwrap();
    seats.feed(&key(1, Place::KeyW, true));
    seats.feed(&key(2, Place::ArrowLeft, true));
    seats.tick(Time::from_millis(10));
    // The skipper's arrows are still theirs too, until their own profile says otherwise.
    assert!(seats.get(skipper).unwrap().is_down((walk, Arm::Up)));
    assert!(!seats.get(deckhand).unwrap().is_down((walk, Arm::Up)));
    assert!(seats.get(deckhand).unwrap().is_down((walk, Arm::Left)));

    let south = |at, value| event(7, at, what::pad(PadButton::South, value));
    let cast_off = sheet.find("cast-off").unwrap();
    assert_eq!(seats.feed(&south(20, 1.0)), Fed::Free);
    seats.wait_for_device(deckhand);
    let drift = what::stick(Stick::LEFT, 0.9, 0.0);
    assert_eq!(
        seats.feed(&event(7, 21, drift)),
        Fed::Free,
        "a stick drifts; only a press joins"
    );
    // What is held is no press, however often it is told.
    assert_eq!(seats.feed(&south(21, 1.0)), Fed::Free);
    assert_eq!(seats.feed(&south(21, 0.0)), Fed::Free);
    assert_eq!(seats.feed(&south(22, 1.0)), Fed::Joined(deckhand));
    seats.feed(&south(23, 0.0));
    seats.feed(&south(24, 1.0));
    seats.tick(Time::from_millis(30));
    assert!(seats.get(deckhand).unwrap().went_down(cast_off));
    assert!(!seats.get(skipper).unwrap().is_down(cast_off));

    // It comes back to its seat, and what it held is let go.
    seats.feed(&event(7, 40, EventKind::Unplugged));
    seats.tick(Time::from_millis(41));
    assert!(!seats.get(deckhand).unwrap().is_down(cast_off));
    assert_eq!(seats.feed(&south(50, 1.0)), Fed::Played);
    assert_eq!(seats.seats_of(DeviceId(7)).collect::<Vec<_>>(), [deckhand]);

    seats.give(DeviceId(0), &[skipper]);
    seats.tick(Time::from_millis(60));
    assert!(!seats.get(deckhand).unwrap().is_down((walk, Arm::Left)));
    seats.release(DeviceId(7));
    assert_eq!(seats.feed(&south(70, 1.0)), Fed::Free);
}

#[test]
fn there_are_at_most_sixteen_players() {
    let rig = crate::common::us(&demo());
    let mut seats = Seats::new();
    for _ in 0..Seats::MAX {
        seats.add(rig.clone()).unwrap();
    }
    assert_eq!((seats.add(rig), seats.len()), (None, 16));
    seats.give(DeviceId(0), &(0..20).collect::<Vec<_>>());
    assert_eq!(seats.seats_of(DeviceId(0)).count(), 16);
}

#[test]
fn touch_zones_and_other_controllers_are_inputs_like_any_other() {
    let sheet = small(
        "[actions.horn]\nbind = \"touch:horn\"\n[actions.walk]\nshape = \"plane\"\nbind = \"touch:thumb\"\n[actions.rudder]\nshape = \"line\"\nbind = \"hid:rz\"\n[actions.brake]\nshape = \"pull\"\nbind = \"hid:brake+\"\n[actions.map]\nbind = [\"hid:button-7\", \"hid:hat-up\"]",
    );
    let mut hand = Hand::new(&sheet);
    let name = |n: &str| n.parse::<TouchName>().unwrap();
    hand.feed(3, what::touch(name("horn"), true));
    hand.feed(3, what::touch(name("unknown"), true));
    hand.feed(3, what::touch_stick(name("thumb"), 0.0, 0.5));
    hand.feed(4, what::axis(HidAxis::Rz, -0.25));
    hand.feed(4, what::axis(HidAxis::Brake, 0.75));
    hand.feed(4, what::hid(HidButton::new(7).unwrap(), true))
        .tick();
    assert!(hand.is_down("horn") && hand.is_down("map"));
    assert_eq!(hand.seat.plane(hand.action("walk")), [0.0, 0.5]);
    assert_eq!(hand.seat.value(hand.action("rudder")), -0.25);
    assert_eq!(hand.seat.value(hand.action("brake")), 0.75);
    assert_eq!(hand.seat.device_kind(), DeviceKind::Other);
    hand.feed(4, what::axis(HidAxis::Brake, f32::NAN)).tick();
    assert_eq!(
        hand.seat.value(hand.action("brake")),
        0.0,
        "what is no number is rest"
    );
}

#[test]
fn feel_is_the_games_and_over_it_the_players() {
    let sheet = small(
        "[actions.aim]\nshape = \"plane\"\nbind = \"pad:stick-left\"\nfeel.gamepad = { dead-zone = { inner = 0.2, outer = 0.8 }, curve = 2.0 }",
    );
    let with = |profile: &Profile, x: f32, y: f32| {
        let mut hand = Hand::on(Rig::new(&sheet, profile, &Layout::us()));
        hand.stick(x, y).tick();
        hand.seat.plane(hand.action("aim"))
    };
    let mut profile = Profile::new("Ada");
    assert_eq!(with(&profile, 0.2, 0.0), [0.0, 0.0]);
    assert_eq!(with(&profile, 0.8, 0.0), [1.0, 0.0]);
    let [x, _] = with(&profile, 0.5, 0.0);
    assert!((x - 0.25).abs() < 1e-6, "half the way, squared");
    let own = Parameters::new()
        .with(Parameter::Invert, [false, true, false])
        .with(Parameter::Sensitivity, 2.0);
    profile
        .set_parameters(("aim", DeviceKind::Gamepad), &own)
        .unwrap();
    let [x, y] = with(&profile, 0.0, 0.5);
    assert!(x.abs() < 1e-6 && (y + 0.5).abs() < 1e-6);
    // It is kept, and only it.
    let text = profile.to_toml();
    assert_eq!(Profile::from_toml(&text).unwrap(), profile);
    assert!(text.contains("[action-feel.aim.gamepad]"), "{text}");
    profile
        .set_parameters(("aim", DeviceKind::Gamepad), &Parameters::new())
        .unwrap();
    assert!(profile.is_unchanged());
}

#[test]
fn modifiers_are_asked_for_directly() {
    let mut hand = Hand::new(&demo());
    hand.down(Place::ControlRight).tick();
    assert!(hand.seat.is_held(Modifier::Ctrl) && hand.seat.is_held(Modifier::Main));
    assert!(!hand.seat.is_held(Modifier::Shift));
}

#[derive(Clone, Copy, Debug, PartialEq, Actions)]
enum Do {
    Horn,
    CastOff,
    #[knot("lamp-2")]
    SecondLamp,
}

#[test]
fn a_type_is_checked_against_the_sheet_in_both_directions() {
    let sheet = small(
        "[actions.cast-off]\nbind = \"Space\"\nshare = \"horn\"\n[actions.lamp-2]\nbind = \"KeyL\"\n[actions.horn]\nbind = \"KeyH\"",
    );
    let typed = sheet.typed::<Do>().unwrap();
    for one in Do::ALL {
        let name = Do::NAMES[*one as usize];
        assert_eq!(typed.find(name), typed.id_of(*one));
        assert_eq!(typed.action(*one).unwrap().name, name);
        // Also in a sheet that was never checked, whatever its order.
        assert_eq!(sheet.action(*one).unwrap().name, name);
    }
    assert!(typed.may_share(Do::Horn, Do::CastOff));
    let menu: Vec<&str> = typed.actions().map(|(_, a)| a.name.as_str()).collect();
    assert_eq!(
        menu,
        ["cast-off", "lamp-2", "horn"],
        "menus keep the order of the file"
    );
    let mut hand = Hand::new(&typed);
    hand.down(Place::KeyH).tick();
    assert!(hand.seat.went_down(Do::Horn) && !hand.seat.is_down(Do::CastOff));

    let wrong = small("[actions.horn]\n[actions.anchor]\n")
        .typed::<Do>()
        .unwrap_err();
    assert_eq!(
        wrong.to_string(),
        "the sheet declares no action `cast-off`, `lamp-2`; the type lists no action `anchor`; `swap-knot types` writes the type from the sheet"
    );
}

#[test]
fn sheets_join_and_a_clash_names_both_places() {
    let base = "reserved = \"Escape\"\n[situations.menu]\n[actions.confirm]\nsituation = \"menu\"\nbind = \"Enter\"\n";
    let own = "game = \"slack-water\"\nreserved = [\"F12\"]\n[situations.deck]\n[actions.horn]\nsituation = [\"deck\", \"menu\"]\nbind = \"KeyH\"\n";
    let sheet = Sheet::join(&[("base.toml", base), ("own.toml", own)]).unwrap();
    let names: Vec<&str> = sheet.actions().map(|(_, a)| a.name.as_str()).collect();
    assert_eq!(
        (names, sheet.reserved().len()),
        (vec!["confirm", "horn"], 2)
    );

    let clash =
        "game = \"x\"\n\n[actions.horn]\nbind = \"KeyQQ\"\n[actions.confirm]\nbind = \"Space\"\n";
    let wrong = Sheet::join(&[("base.toml", base), ("clash.toml", clash)]).unwrap_err();
    assert_eq!(
        wrong.to_string(),
        "clash.toml:4:9: `KeyQQ` is not an input; did you mean `KeyQ`?\nclash.toml:5:10: `actions.confirm` is declared at base.toml:3:10 already; give one of them another name"
    );
}

#[test]
fn an_action_that_is_off_is_gone_everywhere() {
    let sheet = demo();
    let horn = sheet.find("horn").unwrap();
    let off = sheet.switched([horn], false);
    let rig = crate::common::us(&off);
    assert!(rig.bindings_of_action(horn).is_empty());
    let draft = swap_knot::Draft::new(&off, Profile::default(), &Layout::us());
    assert!(
        draft
            .rows(&draft.columns())
            .iter()
            .all(|r| r.row.action != horn)
    );
    assert!(swap_knot::Prompt::new("{horn}", &off).is_err());
    let mut hand = Hand::on(rig);
    hand.situation(&["helm"]).down(Place::KeyH).tick();
    assert_eq!(hand.happened(), [""; 0]);
    // What the player bound to it is kept for the day it comes back.
    let mut profile = Profile::new("Ada");
    profile.set(&off, cell(&sheet, "horn keyboard-1"), Some(chord("KeyN")));
    let on = Rig::new(&off.switched([horn], true), &profile, &Layout::us());
    assert_eq!(on.bindings_of_action(horn)[0].chord, chord("KeyN"));
}

#[test]
fn feeding_and_ticking_allocate_nothing_once_warm() {
    let sheet = demo();
    let trace: Trace = include_str!("../../../../demo/traces/cast-off.trace")
        .parse()
        .unwrap();
    let mut seat = Seat::new(crate::common::us(&sheet));
    let mut play = |from: u64| {
        for entry in trace.entries() {
            if let swap_knot::play::TraceEntry::Event(event) = entry {
                let at = Time::from_micros(from + event.at.as_micros());
                seat.feed(&Event { at, ..*event });
                seat.tick(at);
            }
        }
    };
    play(0);
    let counted =
        allocation_counter::measure(|| (1..50).for_each(|round| play(round * 10_000_000)));
    assert_eq!(counted.count_total, 0);
}

/// Random events on keys, pad and mouse, in order of time.
fn events() -> impl Strategy<Value = Vec<Event>> {
    let keys = [
        Place::KeyW,
        Place::KeyE,
        Place::ShiftLeft,
        Place::ControlLeft,
        Place::Digit1,
        Place::KeyF,
    ];
    let what = prop_oneof![
        5 => (proptest::sample::select(keys.to_vec()), any::<bool>())
            .prop_map(|(place, down)| EventKind::Key { place, down, text: None }),
        2 => (-1.5_f32..1.5, -1.5_f32..1.5).prop_map(|(x, y)| EventKind::PadStick { stick: Stick::LEFT, x, y }),
        2 => (0.0_f32..1.0).prop_map(|value| EventKind::PadButton { button: PadButton::TriggerRight, value }),
        1 => (-9.0_f32..9.0, -9.0_f32..9.0).prop_map(|(x, y)| EventKind::MouseMove { x, y }),
        1 => Just(EventKind::FocusLost),
        1 => Just(EventKind::Unplugged),
    ];
    proptest::collection::vec((0..400_u64, 0..3_u16, what), 0..80).prop_map(|list| {
        let mut at = 0;
        let step = |(wait, device, what)| {
            at += wait;
            event(device, at, what)
        };
        list.into_iter().map(step).collect()
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(256)))]

    #[test]
    fn a_trace_played_again_is_what_was_live(events in events(), helm in any::<bool>()) {
        let sheet = demo();
        let situation = if helm { "helm" } else { "deck" };
        let mut trace = Trace::new();
        trace.record_situations(Time::ZERO, [situation.to_owned()]);
        events.iter().for_each(|e| trace.record(e));
        let play = |trace: &Trace| {
            let mut seat = Seat::new(crate::common::us(&sheet));
            let mut seen: Vec<(Vec<Happened>, [u32; 4])> = Vec::new();
            let ids = ["walk", "steer", "throttle"].map(|n| sheet.find(n).unwrap());
            seat.replay(trace, Duration::from_millis(16), |seat, _| {
                let [x, y] = seat.plane(ids[0]);
                let values = [x, y, seat.value(ids[1]), seat.value(ids[2])].map(f32::to_bits);
                seen.push((seat.happened().to_vec(), values));
            }).unwrap();
            seen
        };
        let live = play(&trace);
        // Written, read and played again: the same to the last bit.
        let again = trace.to_string().parse::<Trace>().unwrap();
        prop_assert_eq!(play(&again), live);
        // Values stay within their shapes.
        let mut hand = Hand::new(&sheet);
        hand.situation(&[situation]);
        for e in &events {
            hand.seat.feed(e);
            hand.seat.tick(e.at);
            let [x, y] = hand.seat.plane(hand.action("walk"));
            prop_assert!(x.hypot(y) <= 1.0 + 1e-5);
            prop_assert!((-1.0..=1.0).contains(&hand.seat.value(hand.action("steer"))));
            prop_assert!((0.0..=1.0).contains(&hand.seat.value(hand.action("throttle"))));
        }
    }
}

#[test]
fn players_join_by_a_chosen_input_back_out_and_leave() {
    let sheet = small("[actions.horn]\nbind = [\"KeyH\", \"pad:north\"]");
    let mut seats = Seats::new();
    let [ada, bo] = [0, 1].map(|_| seats.add(us(&sheet)).unwrap());
    let inputs = |all: &[&str]| -> Vec<Input> { all.iter().map(|i| i.parse().unwrap()).collect() };
    let pad = |at, device, button| Event {
        at: Time::from_millis(at),
        device: DeviceId(device),
        what: EventKind::PadButton { button, value: 1.0 },
    };
    // Only what is asked for joins, and who waits longest has it.
    seats.wait_for(ada, &inputs(&["pad:south", "Enter"]));
    seats.wait_for(bo, &inputs(&["pad:south", "pad:east"]));
    assert_eq!(seats.feed(&pad(1, 7, PadButton::North)), Fed::Free);
    assert_eq!(seats.feed(&pad(2, 7, PadButton::East)), Fed::Joined(bo));
    assert_eq!(seats.feed(&pad(3, 8, PadButton::South)), Fed::Joined(ada));
    assert_eq!(seats.devices_of(ada).collect::<Vec<_>>(), [DeviceId(8)]);
    // A wait can be taken back.
    seats.wait_for_device(ada);
    assert!(seats.is_waiting(ada));
    seats.stop_waiting(ada);
    assert!(!seats.is_waiting(ada));
    assert_eq!(seats.feed(&pad(4, 9, PadButton::South)), Fed::Free);

    // Who leaves holds nothing any more; what nobody shares is free.
    seats.give(DeviceId(0), &[ada, bo]);
    seats.feed(&pad(5, 8, PadButton::North));
    seats.tick(Time::from_millis(6));
    let horn = sheet.find("horn").unwrap();
    assert!(seats.get(ada).unwrap().is_down(horn));
    assert_eq!(seats.leave(ada), [DeviceId(8)]);
    seats.tick(Time::from_millis(7));
    assert_eq!(
        seats.get(ada).unwrap().last_end(horn),
        Some(Cause::Unplugged)
    );
    assert_eq!(seats.devices_of(ada).count(), 0);
    assert_eq!(seats.seats_of(DeviceId(0)).collect::<Vec<_>>(), [bo]);
    seats.wait_for_device(bo);
    assert_eq!(seats.feed(&pad(8, 8, PadButton::West)), Fed::Joined(bo));
}

#[test]
fn the_device_used_last_on_purpose_is_known() {
    let sheet = small("[actions.horn]\nbind = [\"KeyH\", \"pad:north\"]");
    let mut seat = Seat::new(us(&sheet));
    let mut feed = |at, device, what| {
        let (at, device) = (Time::from_millis(at), DeviceId(device));
        seat.feed(&Event { at, device, what });
        seat.tick(at);
        let told = |u: Option<DeviceUse>| u.map(|u| (u.device.0, u.at.as_micros() / 1000));
        (
            told(seat.device_in_use()),
            told(seat.last_used(DeviceKind::Gamepad)),
        )
    };
    let press = |value| what::pad(PadButton::North, value);
    let drift = what::stick(Stick::LEFT, 0.12, 0.0);
    let key = what::key(Place::KeyH, true);
    assert_eq!(feed(1, 2, drift), (None, None));
    assert_eq!(feed(2, 3, press(1.0)), (Some((3, 2)), Some((3, 2))));
    // Neither a release nor a drifting stick is a purpose.
    assert_eq!(feed(3, 3, press(0.0)), (Some((3, 2)), Some((3, 2))));
    assert_eq!(feed(4, 2, drift), (Some((3, 2)), Some((3, 2))));
    assert_eq!(feed(5, 0, key), (Some((0, 5)), Some((3, 2))));
    assert_eq!(feed(6, 3, EventKind::Unplugged), (Some((0, 5)), None));
}

#[test]
fn what_became_of_an_input_is_told_by_the_judge() {
    let sheet = small(
        "[situations.deck]\n[situations.helm]\n\
         [actions.horn]\nsituation = \"helm\"\nbind = \"KeyH\"\n\
         [actions.jib]\nbind = { on = \"KeyJ\", strict = true }\n\
         [actions.knot]\nbind = [\"KeyK\", \"Ctrl+KeyK\"]\n\
         [actions.coil]\nmanner = \"hold\"\nbind = \"KeyE\"\n\
         [actions.tap]\nmanner = \"tap\"\nbind = \"KeyT\"\n\
         [actions.fire]\nbind = \"pad:trigger-left\"\nfeel.gamepad.threshold = 0.9\n\
         [actions.aim]\nbind = \"pad:trigger-left\"\nfeel.gamepad.threshold = 0.2",
    );
    let mut hand = crate::common::Hand::new(&sheet);
    hand.key(Place::KeyH, true).tick();
    assert_eq!(hand.seat.outcomes().count(), 0);
    hand.seat.keep_outcomes(32);
    let told = |hand: &mut crate::common::Hand| {
        hand.tick();
        let all = hand.seat.outcomes().map(|t| {
            let row = t
                .binding
                .map_or("-".to_owned(), |b| sheet.row_name(b.cell.row));
            format!("{} {row} {}", t.input, t.outcome.id())
        });
        let all = all.collect::<Vec<_>>().join(", ");
        hand.seat.keep_outcomes(0);
        hand.seat.keep_outcomes(32);
        all
    };
    hand.key(Place::KeyZ, true)
        .key(Place::KeyH, false)
        .key(Place::KeyH, true);
    assert_eq!(told(&mut hand), "KeyZ - not-bound, KeyH horn elsewhere");
    hand.key(Place::ControlLeft, true)
        .key(Place::KeyJ, true)
        .key(Place::KeyK, true);
    assert_eq!(
        told(&mut hand),
        "KeyJ jib strict, KeyK knot worked, KeyK knot longer-chord"
    );
    hand.key(Place::KeyE, true).key(Place::KeyE, false);
    assert_eq!(told(&mut hand), "KeyE coil waiting, KeyE coil too-short");
    hand.key(Place::KeyE, true)
        .wait(600)
        .key(Place::KeyT, true)
        .wait(300)
        .key(Place::KeyT, false);
    assert_eq!(
        told(&mut hand),
        "KeyE coil waiting, KeyE coil worked, KeyT tap waiting, KeyT tap too-long"
    );
    hand.feed(1, what::pad(PadButton::TriggerLeft, 0.5));
    assert_eq!(
        told(&mut hand),
        "pad:trigger-left fire not-far-enough, pad:trigger-left aim worked"
    );
    hand.feed(0, EventKind::FocusLost).key(Place::KeyJ, true);
    assert_eq!(told(&mut hand), "KeyJ - spent");
}
