//! Every text reads back as the same input, and bad text is told where and what.

use proptest::prelude::*;
use swap_knot::input::{HidButton, HidInput, TouchName};
use swap_knot::{Chord, Input, MouseButton, Place, Trace};

fn any_input() -> impl Strategy<Value = Input> {
    let named: Vec<Input> = Input::all_named().collect();
    prop_oneof![
        8 => proptest::sample::select(named),
        1 => any::<char>().prop_filter_map("types something", |c| format!("letter:{c}").parse().ok()),
        1 => (6..=MouseButton::LAST).prop_filter_map("a button", |n| Some(Input::MouseButton(MouseButton::from_number(n)?))),
        1 => (1..=HidButton::LAST).prop_filter_map("a button", |n| Some(Input::Hid(HidInput::Button(HidButton::new(n)?)))),
        1 => "[a-z0-9-]{1,22}".prop_map(|t| Input::Touch(t.parse::<TouchName>().unwrap())),
    ]
}

proptest! {
    #[test]
    fn every_input_reads_back(input in any_input()) {
        prop_assert_eq!(input.to_string().parse::<Input>(), Ok(input));
    }

    #[test]
    fn every_chord_reads_back(held in proptest::collection::vec(any_input(), 0..4), last in any_input()) {
        if let Ok(chord) = Chord::new(held, last) {
            prop_assert_eq!(chord.to_string().parse::<Chord>(), Ok(chord));
        }
    }

    #[test]
    fn no_text_panics_and_what_reads_reads_back(text in ".{0,60}") {
        if let Ok(chord) = text.parse::<Chord>() {
            prop_assert_eq!(chord.to_string().parse::<Chord>(), Ok(chord));
        }
    }

    #[test]
    fn near_misses_do_not_panic_and_point_into_the_text(text in "(Ctrl|pad:|hid:rz|letter:|Shift|\\+|KeyA|é| ){0,8}") {
        if let Err(e) = text.parse::<Chord>() {
            prop_assert!(text.get(e.span()).is_some(), "{:?} in {:?}", e.span(), text);
        }
    }
}

#[test]
fn every_named_input_has_a_text_of_its_own() {
    let mut texts: Vec<String> = Input::all_named().map(|i| i.to_string()).collect();
    let count = texts.len();
    texts.sort();
    texts.dedup();
    assert_eq!(texts.len(), count);
}

#[test]
fn bad_text_is_told_where_and_what() {
    let said = |text: &str| {
        let e = text.parse::<Chord>().unwrap_err();
        format!("{:?}: {e}", &text[e.span()])
    };
    let all = [
        "KeyQQ",
        "pad:sooth",
        "mose:left",
        "pad:x",
        "Ctrl+Shft+KeyK",
        "Ctrl+",
        "",
        "pad:stick-left+KeyA",
        "mouse:move+KeyA",
        "Shift+ShiftLeft",
        "Main+ControlLeft",
        "letter:ab",
        "mouse:5",
        "hid:button-0",
        "touch:Big Zone",
        "KeyA+KeyB+KeyC+KeyD+KeyE",
        "qwertyuiop",
    ]
    .map(said);
    insta::assert_snapshot!(all.join("\n"), @r#"
    "KeyQQ": `KeyQQ` is not an input; did you mean `KeyQ`?
    "pad:sooth": `pad:sooth` is not an input; did you mean `pad:south`?
    "mose:left": `mose:left` is not an input; did you mean `mouse:left`?
    "pad:x": `pad:x` is not an input; did you mean `pad:south`, `pad:east`, `pad:west` or `pad:north`?
    "Shft": `Shft` is not an input; did you mean `Shift`?
    "": an input is missing; write one such as `KeyW`, `mouse:left` or `pad:south`
    "": an input is missing; write one such as `KeyW`, `mouse:left` or `pad:south`
    "pad:stick-left": `pad:stick-left` cannot be held as part of a chord; hold a key, a button or one direction of it
    "mouse:move": `mouse:move` cannot be held as part of a chord; hold a key, a button or one direction of it
    "Shift": `Shift` is in the chord twice
    "Main": `Main` is in the chord twice
    "letter:ab": `letter:` wants exactly one character that a key types, as in `letter:i`
    "mouse:5": mouse buttons are left, right, middle, back, forward, or a number from 6 to 32
    "hid:button-0": buttons of other controllers are numbered from 1 to 128
    "touch:Big Zone": a touch name has 1 to 22 lower-case letters, digits or hyphens
    "KeyA+KeyB+KeyC+KeyD+KeyE": a chord has at most 3 inputs that are held and one that completes it; this one has more
    "qwertyuiop": `qwertyuiop` is not an input; write one such as `KeyW`, `letter:i` or `pad:stick-left.up`; `swap-knot inputs` lists them
    "#);
}

#[test]
fn traces_read_back_to_the_last_bit() {
    let text = include_str!("../../../../demo/traces/cast-off.trace");
    let trace: Trace = text.parse().unwrap();
    assert_eq!(trace.to_string().parse::<Trace>().unwrap(), trace);
    assert_eq!(trace.entries().len(), 34);
}

#[test]
fn bad_traces_are_told_by_line() {
    let said = |text: &str| text.parse::<Trace>().unwrap_err().to_string();
    let all = [
        "0.1 0 KeyW down\n0.05 0 KeyW up",
        "now 0 KeyW down",
        "0.1 KeyW down",
        "0.1 0 KeyW sideways",
        "0.1 0 pad:stick-left 0.5",
        "0.1 0 pad:stick-left 0.5 NaN",
        "0.1 0 pad:stick-left.up 1",
        "0.1 0 KeyW up x y",
    ]
    .map(said);
    insta::assert_snapshot!(all.join("\n"), @r"
    line 2: it lies before the line above it; times only go up where no ticks are told
    line 1: `now` is no time; write seconds with up to six decimals, as in `1.250000`
    line 1: `KeyW` is no device; write its number, `-` for all, or `situation`, `tick`, `advance`, `rig` or `overheard`
    line 1: `KeyW` goes `down` or `up`, not `sideways`
    line 1: a number is missing behind `pad:stick-left`
    line 1: `NaN` is no number
    line 1: `pad:stick-left.up` is no input of a device; write the key or the whole axis
    line 1: `y` is too much at the end of the line
    ");
}

#[test]
fn every_place_has_the_name_that_the_standard_gives_its_code() {
    // The crate's names are made from the text of W3C UI Events.
    for &place in Place::ALL {
        let code: keyboard_types::Code = place.name().parse().unwrap();
        assert_eq!(code.to_string(), place.name());
    }
}
