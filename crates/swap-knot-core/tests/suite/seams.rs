//! Where rules meet: analog inputs, several devices, foreign ids, clocks that jump.

use std::time::Duration;

use crate::common::{DEMO, Hand, chord, demo, small, us, what};
use swap_knot::check::Survey;
use swap_knot::input::{Direction, Held, HidButton, HidInput, Platform, Simulated};
use swap_knot::remap::{Heard, Listener, ListenerOptions, seat_conflicts};
use swap_knot::sheet::{Arm, ColumnKind};
use swap_knot::{
    DeviceId, DeviceKind, Event, EventKind, Input, Layout, MouseButton, PadButton, Place, Profile,
    Rig, Row, Seat, Seats, Sheet, Stick, Time, Trace,
};

fn at(millis: u64, device: u16, what: EventKind) -> Event {
    Event {
        at: Time::from_millis(millis),
        device: DeviceId(device),
        what,
    }
}

fn tilt(stick: Stick, x: f32, y: f32) -> EventKind {
    EventKind::PadStick { stick, x, y }
}

#[test]
fn the_chart_takes_the_stick_that_it_uses_from_the_crane_below() {
    let mut hand = Hand::new(&demo());
    hand.situation(&["crane", "chart"]);
    hand.feed(2, tilt(Stick::RIGHT, 0.0, 1.0)).tick();
    assert!(hand.is_down("pan"));
    assert!(!hand.is_down("hoist"), "{:?}", hand.happened());
}

#[test]
fn two_seats_meet_on_a_key_and_on_a_chord_of_it() {
    let sheet = small("[actions.open]\nbind = \"Ctrl+KeyE\"\n[actions.eat]\nbind = \"KeyE\"");
    let without = |n: usize| {
        let mut profile = Profile::default();
        profile.set(&sheet, sheet.defaults()[n].cell, None);
        Rig::new(&sheet, &profile, &Layout::us())
    };
    let told = seat_conflicts(&without(0), &without(1));
    assert_eq!(told.len(), 1, "{told:?}");
}

#[test]
fn what_is_reserved_is_refused_with_its_sides_and_halves() {
    let sheet = small(
        "reserved = [\"Meta\", \"pad:stick-right\"]\n[actions.a]\nbind = \"KeyA\"\n[actions.b]\nshape = \"pull\"\nbind = \"pad:trigger-left\"",
    );
    let mut draft = swap_knot::Draft::new(&sheet, Profile::default(), &Layout::us());
    let cell = |n: usize| sheet.defaults()[n].cell;
    for text in ["MetaLeft", "Meta+KeyK", "MetaRight+KeyK"] {
        assert!(draft.bind(cell(0), chord(text)).is_err(), "{text}");
    }
    for text in ["pad:stick-right.up", "pad:shoulder-left+pad:stick-right.up"] {
        assert!(draft.bind(cell(1), chord(text)).is_err(), "{text}");
    }
    let own = "game = \"x\"\nreserved = [\"Meta\"]\n[actions.a]\nbind = \"MetaLeft\"\n";
    assert!(Sheet::from_toml(own).is_err());
    assert!(Sheet::from_toml(&format!("{own}fixed = true")).is_ok());
}

#[test]
fn a_stick_that_is_stuck_does_not_make_the_prompts_flicker() {
    let mut hand = Hand::new(&demo());
    hand.stick(0.9, 0.0).tick();
    for step in 0..20_u8 {
        hand.down(Place::KeyW).up(Place::KeyW);
        // The stick trembles where it is stuck.
        hand.stick(0.9 - f32::from(step % 2) * 0.02, 0.0).tick();
        assert_eq!(hand.seat.device_kind(), DeviceKind::Keyboard);
    }
}

#[test]
fn a_listener_is_not_deafened_by_a_stick_that_lies_beside_its_middle() {
    let mut held = Held::new();
    held.feed(&at(0, 2, tilt(Stick::LEFT, 0.02, 0.0)));
    let mut listener = Listener::new(ListenerOptions::default(), &held);
    listener.hear(&at(1, 2, tilt(Stick::LEFT, 0.02, 0.01)));
    let key = |down| what::key(Place::KeyG, down);
    assert_eq!(
        listener.hear(&at(2, 0, key(true))),
        Heard::Chord(chord("KeyG"))
    );

    // A stick that comes back to its middle as a whole arms it.
    held.feed(&at(3, 2, tilt(Stick::LEFT, 0.8, 0.8)));
    let mut listener = Listener::new(ListenerOptions::default(), &held);
    assert!(!listener.is_armed());
    listener.hear(&at(4, 2, tilt(Stick::LEFT, 0.0, 0.0)));
    assert!(listener.is_armed());

    // After a lost focus a drifting stick is not taken, and another plug changes nothing.
    let mut listener = Listener::new(ListenerOptions::default(), &Held::new());
    let shift = what::key(Place::ShiftLeft, true);
    assert_eq!(listener.hear(&at(5, 0, shift)), Heard::Holding);
    assert_eq!(
        listener.hear(&at(6, 7, EventKind::Unplugged)),
        Heard::Nothing
    );
    assert_eq!(
        listener.held().collect::<Vec<_>>(),
        [Input::Key(Place::ShiftLeft)]
    );
    // Auto-repeat is no press.
    assert_eq!(listener.hear(&at(7, 0, shift)), Heard::Nothing);
    assert_eq!(
        listener.hear(&at(8, 0, key(true))),
        Heard::Chord(chord("Shift+KeyG"))
    );
}

#[test]
fn a_listener_for_the_keyboard_takes_no_chord_with_a_part_of_a_pad() {
    let options = ListenerOptions::default().for_columns(ColumnKind::Keyboard);
    let mut listener = Listener::new(options, &Held::new());
    let pull = what::pad(PadButton::TriggerLeft, 1.0);
    listener.hear(&at(0, 2, pull));
    let up = Direction::Up;
    let heard = listener.hear(&at(1, 1, EventKind::Wheel { direction: up }));
    assert!(matches!(heard, Heard::Refused(_)), "{heard:?}");
}

#[test]
fn ids_of_another_sheet_mean_nothing_in_any_call() {
    let (sheet, other) = (
        demo(),
        crate::common::sheet(&format!("{DEMO}\n[actions.anchor]\nbind = \"KeyX\"")),
    );
    let foreign = other.find("horn").unwrap();
    let situation = other.find_situation("helm").unwrap();
    let row = Row::arm(foreign, Arm::Up);
    let mut seat = Seat::new(us(&sheet));
    seat.set_situations(&[situation]);
    assert_eq!(seat.situations(), []);
    seat.feed(&Simulated::new(DeviceId(0)).key(Place::KeyH));
    seat.tick(Time::from_millis(1));
    assert!(!seat.is_down(foreign) && !seat.went_down(row) && !seat.went_up(row));
    assert_eq!(seat.value(foreign), 0.0);
    assert_eq!(seat.space(foreign), [0.0; 3]);
    assert_eq!(seat.motion(foreign), [0.0; 3]);
    assert_eq!(seat.hold_progress(foreign), 0.0);
    assert_eq!(seat.down_for(row), Duration::ZERO);
    assert!(sheet.action(foreign).is_none() && sheet.situation(situation).is_none());
    assert!(sheet.defaults_of(foreign).is_empty());
    assert_eq!(sheet.rows_of(foreign).count(), 0);
    assert!(!sheet.may_share(foreign, foreign));
    let _ = (sheet.row_name(row), sheet.row_title(row));
    let cell = other.defaults()[0].cell;
    assert!(sheet.default_of(cell).is_none());
    let mut profile = Profile::default();
    profile.set(&sheet, cell, Some(chord("KeyG")));
    assert!(profile.is_unchanged(), "{}", profile.to_toml());
    let mut draft = swap_knot::Draft::new(&sheet, profile, &Layout::us());
    assert!(draft.bind(cell, chord("KeyG")).is_err() && draft.unbind(cell).is_err());
    assert!(draft.bind_further(cell.row, chord("KeyG")).is_err());
    draft.reset(swap_knot::remap::Reset::Cell(cell)).unwrap();
    draft
        .reset(swap_knot::remap::Reset::Action(foreign))
        .unwrap();
    assert!(draft.chord_in(cell).is_none() && !draft.is_changed());
    assert!(us(&sheet).bindings_of(row).is_empty() && us(&sheet).binding_in(cell).is_none());
    let (layouts, foreign) = ([Layout::us(), Layout::shipped("fr").unwrap()], us(&other));
    let survey = Survey::new(&sheet, foreign.bindings(), &layouts, Platform::Other);
    assert!(survey.findings().is_empty() && survey.conflicts().is_empty());
}

#[test]
fn a_stamp_from_the_future_does_not_stop_the_clock() {
    let mut hand = Hand::new(&demo());
    hand.seat.feed(&at(
        u64::MAX / 2000,
        1,
        EventKind::MouseMove { x: 1.0, y: 0.0 },
    ));
    hand.tick().down(Place::KeyE).wait(200);
    assert_eq!(hand.seat.hold_progress(hand.action("coil-rope")), 0.5);
    hand.wait(300);
    assert!(hand.went_down("coil-rope"));
}

#[test]
fn forty_devices_are_followed_each_by_itself() {
    let mut hand = Hand::new(&demo());
    let key = |down| what::key(Place::KeyW, down);
    for device in 0..40 {
        hand.feed(device, key(true));
    }
    for device in 0..40 {
        hand.tick();
        assert!(hand.is_down("walk.up"), "{device}");
        hand.feed(device, key(false));
    }
    hand.tick();
    assert!(!hand.is_down("walk.up"));
}

#[test]
fn every_number_that_there_can_be_is_an_input_and_no_other_is() {
    for number in 0..=u8::MAX {
        let hid = HidButton::new(number).map(|b| Input::Hid(HidInput::Button(b)));
        let mouse = MouseButton::from_number(number).map(Input::MouseButton);
        assert_eq!(hid.is_some(), (1..=128).contains(&number));
        assert_eq!(mouse.is_some(), (1..=32).contains(&number));
        for (input, word) in [
            (hid, "hid:button-"),
            (mouse.filter(|_| number > 5), "mouse:"),
        ] {
            assert_eq!(format!("{word}{number}").parse().ok(), input);
        }
    }
}

#[test]
fn a_used_seat_replays_and_a_simulated_clock_counts_exactly() {
    let mut keyboard = Simulated::new(DeviceId(0));
    (0..50).for_each(|_| keyboard.wait(Duration::from_millis(10)));
    assert_eq!(keyboard.now(), Time::from_millis(500));

    let trace: Trace = "0 0 KeyE down\n1 0 KeyE up\n".parse().unwrap();
    let play = |seat: &mut Seat| {
        let mut seen = Vec::new();
        let done = seat.replay(&trace, Duration::from_millis(100), |seat, now| {
            seen.extend(seat.happened().iter().map(|h| (now, h.at, h.edge)));
        });
        done.unwrap();
        seen
    };
    let mut used = Hand::new(&demo());
    used.down(Place::KeyF).up(Place::KeyF).wait(60_000);
    let fresh = play(&mut Seat::new(us(&demo())));
    assert_eq!(fresh.len(), 2);
    assert_eq!(play(&mut used.seat), fresh);
}

#[test]
fn of_two_opposites_at_one_stamp_the_later_event_wins() {
    for order in [[Place::KeyA, Place::KeyD], [Place::KeyD, Place::KeyA]] {
        let mut hand = Hand::new(&demo());
        hand.situation(&["helm"]);
        for place in order {
            hand.seat.feed(&at(5, 0, what::key(place, true)));
        }
        hand.wait(400);
        let right = hand.seat.value(hand.action("steer"));
        assert_eq!(right, if order[1] == Place::KeyD { 1.0 } else { -1.0 });
    }
}

#[test]
fn motion_is_always_a_number_and_outlasts_a_new_rig() {
    let sheet = small("[actions.look]\nshape = \"plane\"\nbind = \"mouse:move\"");
    let look = sheet.find("look").unwrap();
    let mut hand = Hand::new(&sheet);
    for (x, y) in [
        (f32::MAX, f32::MAX),
        (f32::NAN, 1.0),
        (f32::INFINITY, f32::NEG_INFINITY),
        (-f32::MAX, 0.0),
    ] {
        for _ in 0..50 {
            hand.feed(1, EventKind::MouseMove { x, y });
        }
    }
    hand.tick();
    assert!(hand.seat.motion(look).iter().all(|v| v.is_finite()));

    hand.feed(1, EventKind::MouseMove { x: 5.0, y: 2.0 });
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
    hand.seat.set_rig(rig);
    hand.tick();
    assert_eq!(hand.seat.motion(look), [5.0, 2.0, 0.0]);
}

#[test]
fn a_rig_with_another_binding_keeps_the_edges_of_the_frame() {
    let sheet = demo();
    let mut hand = Hand::new(&sheet);
    hand.down(Place::KeyW);
    let mut profile = Profile::default();
    let horn = crate::common::cell(&sheet, "horn keyboard-1");
    profile.set(&sheet, horn, Some(chord("KeyG")));
    hand.seat.set_rig(Rig::new(&sheet, &profile, &Layout::us()));
    hand.tick();
    assert_eq!(hand.happened(), ["began walk.up", "began walk"]);
    assert!(hand.went_down("walk.up") && hand.is_down("walk.up"));
}

#[test]
fn the_pull_that_joins_a_seat_is_not_played() {
    let sheet = small("[actions.fire]\nbind = [\"KeyF\", \"pad:trigger-right\"]");
    let mut seats = Seats::new();
    let seat = seats.add(us(&sheet)).unwrap();
    seats.wait_for_device(seat);
    let pull = |millis, value| {
        let button = PadButton::TriggerRight;
        at(millis, 5, EventKind::PadButton { button, value })
    };
    let _ = seats.feed(&pull(1, 0.4));
    let _ = seats.feed(&pull(2, 0.9));
    let _ = seats.feed(&pull(3, 1.0));
    seats.tick(Time::from_millis(4));
    let fire = sheet.find("fire").unwrap();
    assert_eq!(seats.seats_of(DeviceId(5)).collect::<Vec<_>>(), [seat]);
    assert!(!seats.get(seat).unwrap().is_down(fire));
    let _ = seats.feed(&pull(5, 0.0));
    let _ = seats.feed(&pull(6, 1.0));
    seats.tick(Time::from_millis(7));
    assert!(seats.get(seat).unwrap().went_down(fire));
}

#[test]
fn a_stick_direction_is_an_input_of_its_own_name() {
    let half: Input = "pad:stick-left.up".parse().unwrap();
    let mut hand = Hand::new(&demo());
    hand.stick(0.0, 0.9).tick();
    let down = hand.seat.inputs_down();
    assert!(down.contains(&half) && down.contains(&Input::PadStick(Stick::LEFT)));
    hand.feed(2, EventKind::FocusLost).tick();
    assert!(
        hand.seat.inputs_down().contains(&half),
        "spent, and still away"
    );
    hand.stick(0.0, 0.05).tick();
    assert_eq!(hand.seat.inputs_down(), []);
}

#[test]
fn fractions_of_a_notch_add_up_by_device_and_are_lost_with_the_focus() {
    let sheet = small("[actions.zoom]\nbind = \"wheel:up\"\n[actions.back]\nbind = \"wheel:down\"");
    let mut hand = Hand::new(&sheet);
    let scroll = |y| EventKind::Scroll { x: 0.0, y };
    hand.feed(1, scroll(0.6)).feed(7, scroll(0.6)).tick();
    assert_eq!(hand.happened(), [""; 0], "two wheels are two");
    hand.feed(1, scroll(0.6)).tick();
    assert_eq!(hand.happened(), ["began zoom", "ended zoom"]);
    hand.feed(1, scroll(f32::NAN))
        .feed(1, scroll(0.5))
        .feed(1, EventKind::FocusLost);
    hand.feed(1, scroll(0.6)).tick();
    assert_eq!(hand.happened(), [""; 0]);
    // Turned back, it begins anew; a lot at once is as many notches.
    hand.feed(1, scroll(-1.0)).tick();
    assert_eq!(hand.happened(), ["began back", "ended back"]);
    hand.feed(1, scroll(3.2)).tick();
    assert_eq!(hand.happened().len(), 6);
    let mut listener = Listener::new(ListenerOptions::default(), &Held::new());
    assert_eq!(listener.hear(&at(1, 1, scroll(0.5))), Heard::Nothing);
    let notch = Heard::Chord(chord("wheel:up"));
    assert_eq!(listener.hear(&at(2, 1, scroll(0.5))), notch);
}

#[test]
fn zones_taken_away_under_a_finger_are_let_go() {
    let mut zones = swap_knot::input::TouchZones::new();
    let name = "horn".parse().unwrap();
    zones.add_area(name, [0.0, 0.0], [9.0, 9.0]);
    assert_eq!(zones.down(1, [5.0, 5.0]).count(), 1);
    assert_eq!(zones.clear(), [EventKind::Touch { name, down: false }]);
    assert_eq!(zones.clear(), []);
}

#[test]
fn what_a_dead_key_composes_teaches_no_layout() {
    let be = Layout::shipped("be").unwrap();
    let key = |place, text| EventKind::Key {
        place,
        down: true,
        text,
    };
    let mut learner = swap_knot::layout::LayoutLearner::new(be.clone());
    for (place, text) in [(Place::BracketLeft, None), (Place::KeyQ, Some('ä'))] {
        assert_eq!(learner.hear(&at(1, 0, key(place, text))), None);
    }
    assert_eq!(learner.hear(&at(2, 0, key(Place::KeyQ, Some('a')))), None);
    assert_eq!(learner.layout().name(), "be");
    // What the system says of the key itself counts, and nothing else does from there on.
    let (place, plain) = (Place::KeyQ, 'q');
    let changed = learner.hear(&at(3, 0, EventKind::KeyTypes { place, plain }));
    assert_ne!(changed.unwrap().name(), "be");
    assert_eq!(learner.hear(&at(4, 0, key(Place::KeyQ, Some('ä')))), None);
}

#[test]
fn a_zone_that_is_a_stick_too_stays_spent_until_both_rest() {
    let sheet = small("[actions.grab]\nbind = \"touch:reel\"");
    let name = "reel".parse().unwrap();
    let zone = |down| EventKind::Touch { name, down };
    let stick = |x| EventKind::TouchStick { name, x, y: 0.0 };
    let mut hand = Hand::new(&sheet);
    // Away from rest without being down, and spent so; then touched, and unplugged.
    hand.feed(3, stick(0.3)).feed(3, EventKind::FocusLost);
    hand.feed(3, zone(true)).tick();
    assert!(!hand.is_down("grab"));
    hand.feed(3, zone(false)).feed(3, zone(true)).tick();
    assert!(!hand.is_down("grab"), "the stick was never at rest");
    hand.feed(3, EventKind::Unplugged).tick();
    hand.feed(3, zone(true)).tick();
    assert!(hand.is_down("grab"));
    // Both at rest: the next touch counts.
    hand.feed(3, EventKind::FocusLost)
        .feed(3, zone(false))
        .feed(3, stick(0.0))
        .tick();
    hand.feed(3, zone(true)).tick();
    assert!(hand.is_down("grab"));
}
