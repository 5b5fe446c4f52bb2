//! What makes a game easier to play: in play, in the profile, by the law, through conflicts and in
//! prompts.

use crate::common::{Hand, cell, demo, small, us};
use swap_knot::check::{Wants, demands};
use swap_knot::play::Outcome;
use swap_knot::sheet::{Arm, Manner, Parameter, ParameterValue, Parameters, Scope};
use swap_knot::{
    Bind, DeviceId, DeviceKind, Draft, EventKind, Layout, Place, Profile, Prompt, Rig, Settle,
    Sheet,
};

const SHEET: &str = r#"
    [situations.deck]
    [situations.menu]
    over = "deck"
    cover = "all"
    [actions.walk]
    situation = "deck"
    shape = "plane"
    up = { bind = "KeyW" }
    down = { bind = "KeyS" }
    left = { bind = "KeyA" }
    feel.keyboard = { ramp-up = 0.2, sensitivity = 0.5 }
    [actions.coil]
    situation = "deck"
    manner = "hold"
    bind = "KeyE"
    [actions.use]
    situation = "deck"
    manner = "tap"
    bind = "KeyE"
    [actions.stow]
    bind = "Ctrl+KeyK"
    [actions.kite]
    bind = "KeyK"
    [actions.flag]
    bind = "KeyF"
    [actions.beat]
    manner = "hold"
    ease = false
    bind = "KeyB"
"#;

fn eased(scope: Scope, set: &[(Parameter, ParameterValue)]) -> Profile {
    let mut own = Parameters::new();
    for (parameter, value) in set {
        own.set(*parameter, Some(*value));
    }
    let mut profile = Profile::default();
    profile.set_parameters(scope, &own).unwrap();
    profile
}

fn hand(profile: &Profile) -> (Sheet, Hand) {
    let sheet = small(SHEET);
    let hand = Hand::on(Rig::new(&sheet, profile, &Layout::us()));
    (sheet, hand)
}

#[test]
fn arms_toggle_end_their_opposite_and_outlast_a_menu() {
    let (sheet, mut hand) = hand(&eased(
        Scope::ALL_ACTIONS,
        &[(Parameter::Toggle, true.into())],
    ));
    let walk = sheet.find("walk").unwrap();
    let tap = |hand: &mut Hand, place| {
        hand.key(place, true).key(place, false).wait(300);
        hand.seat.plane(walk)
    };
    // Feel stays as it is: the ramp and the sensitivity of the key.
    assert_eq!(tap(&mut hand, Place::KeyW), [0.0, 0.5]);
    assert_eq!(tap(&mut hand, Place::KeyA), [-0.5, 0.5]);
    assert_eq!(tap(&mut hand, Place::KeyS), [-0.5, -0.5]);
    assert!(!hand.seat.is_down((walk, Arm::Up)));
    // Nobody holds it: a menu and the focus do not end it, and under the menu it cannot be flipped.
    let menu = sheet.find_situation("menu").unwrap();
    hand.seat.enter(menu);
    assert!(hand.seat.is_in(menu));
    assert_eq!(tap(&mut hand, Place::KeyS), [-0.5, -0.5]);
    hand.feed(0, EventKind::FocusLost).tick();
    assert_eq!(hand.seat.plane(walk), [-0.5, -0.5]);
    hand.seat.leave(menu);
    assert!(!hand.seat.is_in(menu));
    assert_eq!(tap(&mut hand, Place::KeyS), [-0.5, 0.0]);
    hand.seat.spend((walk, Arm::Left));
    assert!(!hand.seat.is_down(walk));
    // Presses are not about it for all at once.
    let kite = sheet.find("kite").unwrap();
    tap(&mut hand, Place::KeyK);
    assert!(!hand.seat.is_down(kite));
}

#[test]
fn a_tap_latches_a_held_part_and_there_are_ways_out() {
    let (sheet, mut hand) = hand(&eased("stow".into(), &[(Parameter::Latch, true.into())]));
    let (stow, kite) = (sheet.find("stow").unwrap(), sheet.find("kite").unwrap());
    let tap = |hand: &mut Hand, place| {
        hand.key(place, true).key(place, false).tick();
        (hand.seat.went_down(stow), hand.seat.went_down(kite))
    };
    assert_eq!(tap(&mut hand, Place::KeyK), (false, true));
    tap(&mut hand, Place::ControlLeft);
    assert_eq!(hand.seat.latched(), ["ControlLeft".parse().unwrap()]);
    assert_eq!(tap(&mut hand, Place::KeyK), (true, false));
    // It ends with its chord…
    assert!(hand.seat.latched().is_empty());
    assert_eq!(tap(&mut hand, Place::KeyK), (false, true));
    // …by another tap, after a while, and with the focus.
    tap(&mut hand, Place::ControlLeft);
    tap(&mut hand, Place::ControlLeft);
    assert!(hand.seat.latched().is_empty());
    tap(&mut hand, Place::ControlLeft);
    hand.wait(6_000);
    assert_eq!(tap(&mut hand, Place::KeyK), (false, true));
    tap(&mut hand, Place::ControlLeft);
    hand.feed(0, EventKind::FocusLost).tick();
    assert!(hand.seat.latched().is_empty());
    // What is held with something else, bound or not, or for long, is no tap.
    hand.key(Place::ControlLeft, true)
        .key(Place::KeyF, true)
        .key(Place::KeyF, false)
        .key(Place::ControlLeft, false)
        .tick();
    assert!(hand.seat.latched().is_empty());
    hand.key(Place::ControlLeft, true)
        .key(Place::KeyX, true)
        .key(Place::ControlLeft, false)
        .tick();
    assert!(hand.seat.latched().is_empty());
    hand.key(Place::ControlLeft, true)
        .wait(400)
        .key(Place::ControlLeft, false)
        .tick();
    assert!(hand.seat.latched().is_empty());
    // Nobody else's chords are latched.
    let (_, mut plain) = self::hand(&Profile::default());
    tap(&mut plain, Place::ControlLeft);
    assert_eq!(tap(&mut plain, Place::KeyK), (false, true));
}

#[test]
fn quick_repeats_are_ignored_and_times_are_the_players() {
    let (sheet, mut hand) = hand(&eased(
        Scope::ALL_ACTIONS,
        &[
            (Parameter::IgnoreWithin, 0.2.into()),
            (Parameter::HoldAfter, 1.5.into()),
        ],
    ));
    let (kite, coil) = (sheet.find("kite").unwrap(), sheet.find("coil").unwrap());
    hand.seat.keep_outcomes(8);
    let press = |hand: &mut Hand, wait| {
        hand.wait(wait)
            .key(Place::KeyK, true)
            .key(Place::KeyK, false)
            .tick();
        hand.seat.went_down(kite)
    };
    assert!(press(&mut hand, 0));
    assert!(!press(&mut hand, 100));
    assert_eq!(
        hand.seat.outcomes().last().unwrap().outcome,
        Outcome::TooSoon
    );
    assert!(press(&mut hand, 300));
    hand.key(Place::KeyE, true).wait(1_400);
    assert!(!hand.seat.is_down(coil));
    hand.wait(200);
    assert!(hand.seat.is_down(coil));
    // The sheet does not let this one be eased.
    let beat = sheet.find("beat").unwrap();
    hand.key(Place::KeyB, true).wait(600);
    assert!(hand.seat.is_down(beat));
}

#[test]
fn a_hold_that_becomes_a_press_is_told_and_settled() {
    let sheet = small(SHEET);
    let mut draft = Draft::new(&sheet, Profile::default(), &Layout::us());
    // A hold and a tap on one key get along; a press and a tap do not.
    let done = draft.set_parameter("coil", Parameter::Press, true);
    let Ok(Bind::Asks(question)) = done else {
        panic!("it meets the tap");
    };
    assert!(
        question.describe(&sheet).contains("use"),
        "{}",
        question.describe(&sheet)
    );
    let refused = |settle| question.way(settle).unwrap().refused.is_some();
    assert!(refused(Settle::Swap) && refused(Settle::Share) && !refused(Settle::Take));
    // Backing out changes nothing.
    assert!(matches!(
        draft.answer(question.clone(), Settle::BackOut),
        Ok(Bind::Done)
    ));
    assert!(draft.profile().is_unchanged());
    assert!(matches!(
        draft.answer(question, Settle::Take),
        Ok(Bind::Done)
    ));
    let own = draft.profile().parameters("coil");
    assert_eq!(own.get(Parameter::Press), Some(true.into()));
    assert_eq!(draft.chord_in(cell(&sheet, "use keyboard-1")), None);
    assert_eq!(draft.summary().len(), 2, "{:?}", draft.summary());
    let rig = Rig::new(&sheet, &draft.profile(), &Layout::us());
    let coil = rig.bindings_of_action(sheet.find("coil").unwrap());
    assert_eq!(coil[0].manner, Manner::Press);
    // The prompt says so, and undoing takes it all back.
    let text = |rig: &Rig| {
        let mut prompt = Prompt::new("{do:coil}", &sheet).unwrap();
        prompt.render(rig, DeviceKind::Keyboard).to_string()
    };
    assert_eq!(
        (text(&us(&sheet)), text(&rig)),
        ("Hold E".to_owned(), "Press E".to_owned())
    );
    assert!(draft.undo());
    assert!(draft.profile().is_unchanged());
}

#[test]
fn what_met_before_is_not_asked_about_again() {
    let demo = demo();
    let mut draft = Draft::new(&demo, Profile::default(), &Layout::us());
    let own = Parameters::new()
        .with(Parameter::Latch, true)
        .with(Parameter::HoldAfter, 1.2);
    let done = draft.set_parameters(Scope::ALL_ACTIONS, &own);
    assert!(matches!(done, Ok(Bind::Done)));
    // A longer tap than the hold takes is new.
    let sheet = small(SHEET);
    let mut draft = Draft::new(&sheet, Profile::default(), &Layout::us());
    let own = own.with(Parameter::TapWithin, 2.0);
    let done = draft.set_parameters(Scope::ALL_ACTIONS, &own);
    assert!(matches!(done, Ok(Bind::Asks(_))));
}

#[test]
fn an_easing_passes_the_law_on_every_road() {
    let sheet = small(SHEET);
    let mut draft = Draft::new(&sheet, Profile::default(), &Layout::us());
    let refused = draft.set_parameter("beat", Parameter::Press, true);
    let refused = refused.unwrap_err();
    assert_eq!(
        refused.to_string(),
        "the game does not let \"Beat\" be eased"
    );
    let refused = draft.set_parameter(Scope::ALL_ACTIONS, Parameter::HoldAfter, 60.0);
    let refused = refused.unwrap_err();
    assert_eq!(
        refused.to_string(),
        "hold-after goes from 0.02 to 10 seconds, and 60 is not in there"
    );
    // From a file: what does not stand is kept, and not in force.
    let text = "format = 1\n[action-ease.beat]\npress = true\n[ease]\nhold-after = 1.25\nlatch = true\nshrug = 3\n";
    let profile = Profile::from_toml(text).unwrap();
    let rig = Rig::new(&sheet, &profile, &Layout::us());
    let told: Vec<String> = rig.not_in_force().iter().map(ToString::to_string).collect();
    assert_eq!(
        told,
        [
            "press of beat = true is not in force: the game does not let \"Beat\" be eased",
            "ease.shrug = 3 is not in force: this version does not understand it",
        ]
    );
    let of = |name: &str| rig.bindings_of_action(sheet.find(name).unwrap())[0].clone();
    assert_eq!(
        (of("beat").manner, of("beat").easing.hold_after),
        (Manner::Hold, 0.5)
    );
    assert_eq!(of("coil").easing.hold_after, 1.25);
    let back = Profile::from_toml(&profile.to_toml()).unwrap();
    assert_eq!(back, profile);
    // What it is anyway is no change, and resetting everything resets it.
    let mut draft = Draft::new(&sheet, Profile::default(), &Layout::us());
    let done = draft
        .set_parameter("coil", Parameter::HoldAfter, 0.5)
        .unwrap();
    assert!(matches!(done, Bind::Done) && draft.profile().is_unchanged());
    let mut draft = Draft::new(&sheet, profile, &Layout::us());
    draft.reset(swap_knot::remap::Reset::All).unwrap();
    assert!(draft.profile().parameters(Scope::ALL_ACTIONS).is_empty());
}

#[test]
fn what_is_asked_of_hands_is_told_with_what_eases_it() {
    let sheet = small(SHEET);
    let rig = us(&sheet);
    let found = demands(&sheet, rig.bindings(), rig.resolver());
    let told: Vec<String> = (found.iter())
        .map(|d| format!("{}: {}", d.describe(&sheet), d.remedy()))
        .collect();
    insta::assert_snapshot!(told.join("\n"), @r#"
    "Coil" on keyboard wants a hold of 0.5 s (`KeyE`): a player can have it worked by a press (`press`)
    "Stow" on keyboard wants two inputs held at once (`Ctrl+KeyK`): a player can have what is held latched by a tap (`latch`)
    "Beat" on keyboard wants a hold of 0.5 s (`KeyB`): nothing eases it, since the sheet says `ease = false`
    "#);
    assert!(
        found
            .iter()
            .all(|d| !matches!(d.wants, Wants::QuickRepeat { .. }))
    );
    // With another way to do it nothing is asked.
    let demo = demo();
    let rig = us(&demo);
    for demand in demands(&demo, rig.bindings(), rig.resolver()) {
        let row = demand.row;
        let in_kind = rig
            .bindings_of(row)
            .iter()
            .filter(|b| b.cell.column.kind() == demand.kind);
        assert_eq!(in_kind.count(), demand.chords.len());
    }
    let _ = (DeviceId(0), Parameter::ALL);
}
