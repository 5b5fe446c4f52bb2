//! Values follow what is held, presses begin by pressing, and what is spent begins nothing.

use crate::common::{Hand, small, what};
use swap_knot::play::Outcome;
use swap_knot::sheet::{Parameter, Parameters};
use swap_knot::{EventKind, Layout, PadButton, Place, Profile, Rig, Sheet};

const ABOARD: &str = "
    [situations.deck]
    [situations.helm]
    [situations.list]
    over = [\"deck\", \"helm\"]
    [actions.walk]
    situation = \"deck\"
    shape = \"plane\"
    bind = \"pad:stick-left\"
    up = { bind = \"KeyW\" }
    [actions.steer]
    situation = \"helm\"
    shape = \"line\"
    bind = \"hid:x\"
    left = { bind = \"pad:stick-left.left\" }
    right = { bind = \"pad:stick-left.right\" }
    [actions.throttle]
    situation = \"helm\"
    shape = \"pull\"
    bind = [\"KeyW\", \"pad:trigger-right\"]
    [actions.pick]
    situation = \"list\"
    shape = \"line\"
    resume = false
    left = { bind = \"pad:stick-left.left\" }
    right = { bind = \"pad:stick-left.right\" }
    [actions.hurry]
    situation = \"deck\"
    resume = true
    bind = \"ShiftLeft\"
    [actions.bell]
    situation = \"helm\"
    bind = [\"ShiftLeft\", \"pad:trigger-left\"]
    [actions.rope]
    situation = \"deck\"
    bind = \"pad:trigger-left\"
";

fn value(hand: &Hand, name: &str) -> f32 {
    hand.seat.value(hand.action(name))
}

#[test]
fn a_stick_and_a_key_go_on_as_what_they_work_now() {
    let mut hand = Hand::new(&small(ABOARD));
    hand.situation(&["deck"]);
    hand.stick(1.0, 0.0).down(Place::KeyW).tick();
    assert!(hand.is_down("walk"));
    hand.situation(&["helm"]).tick();
    assert_eq!(value(&hand, "steer"), 1.0, "without being let go");
    assert_eq!(value(&hand, "throttle"), 1.0);
    assert!(!hand.is_down("walk"));
    hand.up(Place::KeyW).tick();
    assert_eq!(value(&hand, "throttle"), 0.0);
    // Back on deck the stick walks, at once and before anything moves.
    hand.situation(&["deck"]).tick();
    assert_eq!(hand.seat.plane(hand.action("walk")), [1.0, 0.0]);
}

#[test]
fn what_does_not_resume_waits_for_rest_and_says_so() {
    let mut hand = Hand::new(&small(ABOARD));
    hand.seat.keep_outcomes(64);
    hand.situation(&["deck"]);
    hand.stick(1.0, 0.0).tick();
    hand.situation(&["deck", "list"]).tick();
    assert!(!hand.is_down("pick") && !hand.is_down("walk"));
    let pick = hand.action("pick");
    let spent = hand.seat.outcomes().any(|told| {
        told.outcome == Outcome::Spent && told.row.is_some_and(|row| row.action == pick)
    });
    assert!(spent, "it is told why nothing is picked");
    hand.stick(0.9, 0.0).tick();
    assert!(!hand.is_down("pick"), "not before it has been at rest");
    hand.stick(0.0, 0.0).stick(1.0, 0.0).tick();
    assert!(hand.is_down("pick"));
    // The list is closed with the stick pushed: the player walks.
    hand.situation(&["deck"]).tick();
    assert!(hand.is_down("walk"));
}

#[test]
fn a_press_begins_by_pressing_and_one_that_resumes_is_taken_up() {
    let mut hand = Hand::new(&small(ABOARD));
    hand.situation(&["deck"]);
    hand.down(Place::ShiftLeft).tick();
    assert!(hand.is_down("hurry"));
    hand.situation(&["helm"]).tick();
    assert!(!hand.is_down("bell"), "nobody pressed it for that");
    hand.situation(&["deck"]).tick();
    assert!(hand.is_down("hurry"), "it worked nothing else meanwhile");
    hand.up(Place::ShiftLeft).tick();
    assert!(!hand.is_down("hurry"));
}

#[test]
fn a_press_that_worked_a_chord_belongs_to_it_for_values_too() {
    let mut hand = Hand::new(&small(
        "[actions.walk]\nshape = \"plane\"\nup = { bind = \"KeyW\" }\n\
         [actions.close]\nbind = \"ControlLeft+KeyW\"",
    ));
    hand.down(Place::ControlLeft).down(Place::KeyW).tick();
    assert!(hand.is_down("close") && !hand.is_down("walk"));
    hand.up(Place::ControlLeft).tick();
    assert!(
        !hand.is_down("close") && !hand.is_down("walk"),
        "nobody walks"
    );
    // The other way round it walks on, whatever is held.
    hand.up(Place::KeyW)
        .down(Place::KeyW)
        .down(Place::ControlLeft);
    hand.tick();
    assert!(hand.is_down("walk") && !hand.is_down("close"));
}

/// Pulls a trigger, has it spent, lets it out but not to its rest, and pulls again.
fn pulls_again(text: &str, row: &str, spends: impl Fn(&mut Hand)) -> bool {
    let mut hand = Hand::new(&small(text));
    hand.situation(&["deck"]);
    hand.pad(PadButton::TriggerLeft, 1.0).tick();
    assert!(hand.is_down("rope"));
    spends(&mut hand);
    hand.tick();
    assert!(!hand.is_down("rope"));
    hand.seat.keep_outcomes(16);
    hand.pad(PadButton::TriggerLeft, 0.2)
        .pad(PadButton::TriggerLeft, 1.0);
    hand.tick();
    let again = hand.is_down(row);
    let told = hand.seat.outcomes().any(|t| t.outcome == Outcome::Spent);
    assert!(told, "the second pull is told of");
    hand.pad(PadButton::TriggerLeft, 0.0)
        .pad(PadButton::TriggerLeft, 1.0);
    hand.tick();
    assert!(hand.is_down(row), "once it has been at rest");
    again
}

#[test]
fn what_is_spent_has_to_rest_by_every_road() {
    let by_the_game = |hand: &mut Hand| hand.seat.spend(hand.action("rope"));
    assert!(!pulls_again(ABOARD, "rope", by_the_game));
    let by_a_situation = |hand: &mut Hand| {
        hand.situation(&["helm"]);
    };
    assert!(!pulls_again(ABOARD, "bell", by_a_situation));
    let by_a_rig = |hand: &mut Hand| {
        let sheet = hand.seat.rig().sheet().clone();
        let mut profile = Profile::new("Ada");
        let toggled = Parameters::new().with(Parameter::Toggle, true);
        profile.set_parameters("rope", &toggled).unwrap();
        hand.seat.set_rig(Rig::new(&sheet, &profile, &Layout::us()));
    };
    assert!(!pulls_again(ABOARD, "rope", by_a_rig));
}

#[test]
fn what_the_game_spends_has_no_value_until_it_has_rested() {
    let mut hand = Hand::new(&small(ABOARD));
    hand.situation(&["helm"]);
    hand.pad(PadButton::TriggerRight, 1.0)
        .down(Place::KeyW)
        .tick();
    let throttle = hand.action("throttle");
    hand.seat.spend(throttle);
    hand.pad(PadButton::TriggerRight, 0.8).tick();
    assert_eq!(value(&hand, "throttle"), 0.0);
    hand.pad(PadButton::TriggerRight, 0.0)
        .pad(PadButton::TriggerRight, 0.9);
    hand.tick();
    assert!(value(&hand, "throttle") > 0.8);
}

#[test]
fn after_a_lost_focus_values_follow_from_the_next_event_of_their_device() {
    let mut hand = Hand::new(&small(ABOARD));
    hand.situation(&["deck"]);
    hand.stick(1.0, 0.0).down(Place::KeyW).tick();
    hand.feed(u16::MAX, EventKind::FocusLost).tick();
    assert!(!hand.is_down("walk"));
    // The keyboard is let go as adapters do it, which is no news of it.
    hand.up(Place::KeyW).tick();
    assert!(!hand.is_down("walk"));
    hand.pad(PadButton::South, 1.0).tick();
    assert_eq!(hand.seat.plane(hand.action("walk")), [1.0, 0.0]);
}

#[test]
fn what_a_menu_overheard_is_played_from_the_next_event_on() {
    let mut hand = Hand::new(&small(ABOARD));
    hand.situation(&["deck"]);
    let overhear = |hand: &mut Hand, kind: EventKind| {
        let event = swap_knot::Event {
            at: swap_knot::Time::from_millis(hand.now),
            device: swap_knot::DeviceId(2),
            what: kind,
        };
        hand.seat.overhear(&event);
        hand.tick();
    };
    let stick = |x| EventKind::PadStick {
        stick: swap_knot::Stick::LEFT,
        x,
        y: 0.0,
    };
    overhear(&mut hand, stick(1.0));
    assert!(!hand.is_down("walk"), "the menu has it");
    hand.stick(0.99, 0.0).tick();
    assert!(hand.is_down("walk"), "and it is out when the game plays on");
}

#[test]
fn the_last_press_of_a_double_tap_is_nothing_else() {
    let text = "[actions.kick]\nbind = { on = \"KeyK\", manner = \"double-tap\" }\n\
                [actions.haul]\nbind = { on = \"KeyK\", manner = \"hold\" }\n\
                [actions.lean]\nshape = \"pull\"\nbind = \"KeyK\"";
    let sheet: Sheet = small(text);
    let mut hand = Hand::new(&sheet);
    hand.seat.keep_outcomes(64);
    hand.down(Place::KeyK).wait(50).up(Place::KeyK).wait(50);
    hand.down(Place::KeyK).wait(900);
    assert!(hand.is_down("kick"));
    assert!(
        !hand.is_down("haul"),
        "the second press is the double tap's"
    );
    assert_eq!(value(&hand, "lean"), 1.0, "a value has what is held");
    let kick = sheet.find_row("kick").unwrap();
    let mut told = hand.seat.outcomes();
    assert!(told.any(|told| told.outcome == Outcome::OtherManner(kick)));
    drop(told);
    // A hold of the first press begins as ever.
    hand.up(Place::KeyK).wait(900).down(Place::KeyK).wait(900);
    assert!(hand.is_down("haul") && !hand.is_down("kick"));
}

#[test]
fn a_number_that_reads_a_trigger_begins_no_press_by_what_a_second_hand_spent() {
    // Each device rests by itself: of two pads one is spent, and the other pulls.
    let mut hand = Hand::new(&small(ABOARD));
    hand.situation(&["deck"]);
    hand.pad(PadButton::TriggerLeft, 1.0).tick();
    hand.seat.spend(hand.action("rope"));
    hand.tick();
    hand.feed(5, what::pad(PadButton::TriggerLeft, 1.0)).tick();
    assert!(hand.is_down("rope"));
}
