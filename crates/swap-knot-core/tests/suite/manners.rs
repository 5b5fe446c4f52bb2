//! The manners that want more than one press: in play, at every point of a gesture, in bytes and back, with
//! what eases them and what they are called.

use crate::common::{Hand, small};
use swap_knot::check::{Wants, demands};
use swap_knot::play::{Outcome, SavedSeat};
use swap_knot::sheet::{ActsOn, Manner, Parameter, Parameters, Scope};
use swap_knot::{DeviceKind, Draft, Layout, Place, Profile, Prompt, Rig, Words};

const SHEET: &str = r#"
    [actions.dash]
    manner = "double-tap"
    bind = ["KeyC", "mouse:left"]
    [actions.spin]
    manner = "triple-tap"
    bind = ["KeyX", "mouse:right"]
"#;

/// Presses and lets go; whether `action` is on while it is down.
fn tap(hand: &mut Hand, place: Place, action: &str) -> bool {
    hand.down(place).tick();
    let is_down = hand.is_down(action);
    hand.up(place).tick();
    is_down
}

#[test]
fn the_last_of_so_many_presses_begins_it_and_holds_it() {
    for (place, action, before) in [(Place::KeyC, "dash", 1), (Place::KeyX, "spin", 2)] {
        let mut hand = Hand::new(&small(SHEET));
        for round in 0..2 {
            for _ in 0..before {
                assert!(!tap(&mut hand, place, action), "{action} {round}");
                // Later than a tap may last, and soon enough for the next.
                hand.wait(300);
            }
            hand.down(place).wait(3_000);
            assert!(hand.is_down(action), "it lasts while it is held");
            hand.up(place).tick();
            assert!(!hand.is_down(action));
            // That press was the last one of this, and no tap of the next.
            hand.wait(100);
        }
    }
}

#[test]
fn late_long_and_broken_presses_begin_it_anew() {
    let last = |hand: &Hand| hand.seat.outcomes().last().map(|t| t.outcome);
    for late in [0, 1] {
        let mut hand = Hand::new(&small(SHEET));
        hand.seat.keep_outcomes(64);
        for n in 0..2 {
            assert!(!tap(&mut hand, Place::KeyX, "spin"));
            hand.wait(if n == late { 900 } else { 100 });
        }
        // What came too late is a first one again.
        let wanted: &[bool] = match late {
            0 => &[false, true],
            _ => &[false, false, true],
        };
        for wanted in wanted {
            assert_eq!(tap(&mut hand, Place::KeyX, "spin"), *wanted, "{late}");
            hand.wait(100);
        }
        let told: Vec<Outcome> = hand.seat.outcomes().map(|t| t.outcome).collect();
        let late = told.iter().filter(|o| **o == Outcome::SecondTooLate);
        assert_eq!(late.count(), 1);
    }
    let mut hand = Hand::new(&small(SHEET));
    hand.seat.keep_outcomes(64);
    tap(&mut hand, Place::KeyX, "spin");
    hand.wait(100);
    hand.down(Place::KeyX).wait(600);
    hand.up(Place::KeyX).tick();
    assert_eq!(last(&hand), Some(Outcome::TooLong));
    // A press that was too long is no tap, and what went before it does not count.
    assert!(!tap(&mut hand, Place::KeyX, "spin"));
    hand.wait(100);
    assert!(!tap(&mut hand, Place::KeyX, "spin"));
    hand.wait(100);
    assert!(tap(&mut hand, Place::KeyX, "spin"));
    // Another input in between is nothing to it.
    assert!(!tap(&mut hand, Place::KeyX, "spin"));
    assert!(!tap(&mut hand, Place::KeyC, "dash"));
    assert!(!tap(&mut hand, Place::KeyX, "spin"));
    assert!(tap(&mut hand, Place::KeyX, "spin"));
}

#[test]
fn a_state_kept_at_any_point_of_a_gesture_goes_on_from_there() {
    let sheet = small(SHEET);
    let steps = 6;
    for at in 0..steps {
        let mut hand = Hand::new(&sheet);
        let mut kept = None;
        for step in 0..steps {
            if step == at {
                let mut bytes = Vec::new();
                SavedSeat::new(&hand.seat).write(&mut bytes);
                kept = Some(bytes);
            }
            hand.key(Place::KeyX, step % 2 == 0).wait(50);
        }
        let went = hand.happened();
        let mut other = Hand::new(&sheet);
        // The clock has to be where it was.
        for _ in 0..at {
            other.wait(50);
        }
        let saved = SavedSeat::read(&kept.unwrap(), other.seat.rig()).unwrap();
        other.seat.restore(&saved).unwrap();
        for step in at..steps {
            other.key(Place::KeyX, step % 2 == 0).wait(50);
        }
        assert_eq!(other.happened(), went, "kept at {at}");
        assert!(went.contains(&"ended spin".to_owned()), "{went:?}");
    }
}

#[test]
fn it_is_eased_told_of_and_called_by_its_name() {
    let sheet = small(SHEET);
    let eased = Parameters::new().with(Parameter::Press, true);
    let mut profile = Profile::default();
    profile.set_parameters(Scope::ALL_ACTIONS, &eased).unwrap();
    let rig = Rig::new(&sheet, &profile, Layout::us());
    let spin = sheet.find("spin").unwrap();
    assert!(
        rig.bindings_of_action(spin)
            .iter()
            .all(|b| b.manner == Manner::Press)
    );
    let rig = Rig::new(&sheet, &Profile::default(), Layout::us());
    let found = demands(&sheet, rig.bindings(), rig.resolver());
    let quick = |d: &&swap_knot::check::Demand| matches!(d.wants, Wants::QuickRepeat { .. });
    let mut rows: Vec<String> = found
        .iter()
        .filter(quick)
        .map(|d| sheet.row_name(d.row))
        .collect();
    rows.dedup();
    assert_eq!(rows, ["dash", "spin"]);
    let draft = Draft::new(&sheet, Profile::default(), Layout::us());
    for parameter in [
        Parameter::TapWithin,
        Parameter::DoubleTapWithin,
        Parameter::Press,
    ] {
        assert!(parameter.fits(ActsOn::Actions));
        let bound = &draft
            .bindings()
            .iter()
            .find(|b| b.cell.row.action == spin)
            .unwrap();
        assert!(
            sheet.bears(parameter, bound.cell, &bound.chord),
            "{parameter}"
        );
    }
    let mut told = Vec::new();
    for language in Words::languages() {
        let words = Words::shipped(language).unwrap();
        let say = |text: &str| {
            let mut prompt = Prompt::new(text, &sheet).unwrap();
            prompt.set_words(&words);
            prompt.render(&rig, DeviceKind::Keyboard).to_string()
        };
        let [twice, thrice] = ["{do:dash}", "{do:spin}"].map(say);
        let [click, clicks] = ["{do:dash:mouse}", "{do:spin:mouse}"].map(say);
        assert!(twice != thrice && click != clicks, "{language}");
        if language == "en" {
            told.extend([thrice, clicks]);
        }
    }
    assert_eq!(
        told,
        ["Triple-tap X", "Triple-click the right mouse button"]
    );
}
