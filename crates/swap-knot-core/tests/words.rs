//! Names, phrases and languages.

#![allow(clippy::unwrap_used, clippy::panic)]

mod common;

use std::collections::HashMap;

use common::{demo, small, us};
use proptest::prelude::*;
use swap_knot::{
    ColumnKind, DeviceKind, Draft, HidButton, HidInput, Input, Layout, MouseButton, Piece, Profile,
    Prompt, Rig, Words,
};

fn words(language: &str) -> Words {
    Words::shipped(language).unwrap_or_else(|| panic!("{language} ships"))
}

/// Every input with a word of its own, some numbered ones, a letter and a touch input.
fn inputs() -> impl Iterator<Item = Input> {
    let numbered = (6..=MouseButton::LAST).filter_map(MouseButton::from_number);
    let further = [
        "letter:m",
        "letter:ñ",
        "touch:horn",
        "touch:stick-of-the-crane",
    ];
    Input::all_named()
        .chain(numbered.map(Input::MouseButton))
        .chain(HidButton::all().map(|b| Input::Hid(HidInput::Button(b))))
        .chain(further.map(|text| text.parse().unwrap()))
}

#[test]
fn every_input_has_a_name_of_its_own_in_every_language() {
    let us = Layout::us();
    for language in Words::languages() {
        let words = words(language);
        assert_eq!(words.language(), language);
        let mut known: HashMap<String, Input> = HashMap::new();
        for input in inputs() {
            let name = words.input_name(input, &us);
            assert!(
                !name.is_empty() && !name.contains(['{', '}', '$']) || name.len() == 1,
                "{name}"
            );
            for other in [words.short_name(input, &us), words.spoken_name(input, &us)] {
                assert!(!other.trim().is_empty(), "{input} in {language}");
                assert!(
                    other.len() == 1 || !other.contains(['{', '}', '$']),
                    "{other}"
                );
            }
            if matches!(input, Input::Letter(_) | Input::Modifier(_)) {
                continue; // A letter is on the key of its place; `Main` is another modifier.
            }
            if let Some(other) = known.insert(name.clone(), input) {
                // Two places that write the same are told apart only where the board has both.
                let both = [input, other]
                    .map(|i| matches!(i, Input::Key(p) if us.board().key(p).is_none()));
                assert!(
                    both[0] || both[1],
                    "{name} is {input} and {other} in {language}"
                );
            }
        }
    }
}

#[test]
fn every_language_says_all_that_english_says() {
    for language in Words::languages() {
        let file = format!(
            "{}/src/prompt/words/{language}.ftl",
            env!("CARGO_MANIFEST_DIR")
        );
        let text = std::fs::read_to_string(file).unwrap();
        Words::english().with_fluent(&text, language).unwrap();
        let ids = |text: &str| -> Vec<String> {
            let lines = text.lines().filter(|l| !l.starts_with([' ', '#']));
            lines
                .filter_map(|l| l.split_once(" ="))
                .map(|(id, _)| id.to_owned())
                .collect()
        };
        let english = include_str!("../src/prompt/words/en.ftl");
        assert_eq!(ids(&text), ids(english), "{language}");
    }
}

/// What a prompt says on the demo sheet, with the plain text and what is spoken.
fn says(text: &str, language: &str, layout: &str, device: DeviceKind) -> [String; 2] {
    let sheet = demo();
    let layout = Layout::shipped(layout).unwrap();
    let rig = Rig::new(&sheet, &Profile::default(), &layout);
    let prompt = Prompt::new(text, &sheet).unwrap();
    let mut prompt = prompt.with_words(&words(language)).with_alternates(3);
    let shown = prompt.render(&rig, device);
    [shown.to_string(), shown.spoken()]
}

#[test]
fn phrases_are_whole_in_every_language() {
    let mut all = String::new();
    for language in Words::languages() {
        let text =
            "{do:cast-off} / {do:coil-rope:mouse} / {do:walk} / {do:stow-1} / {do:hoist.up:mouse}";
        for device in [DeviceKind::Keyboard, DeviceKind::Gamepad] {
            let [plain, _] = says(text, language, "us", device);
            all.push_str(&format!("{language} {device}: {plain}\n"));
        }
    }
    insta::assert_snapshot!(all);
}

#[test]
fn directions_that_belong_together_are_said_as_one() {
    let keys = |text: &str, device| says(text, "en", "us", device)[0].clone();
    assert_eq!(keys("{walk}", DeviceKind::Keyboard), "W A S D");
    assert_eq!(keys("{pan}", DeviceKind::Keyboard), "mouse");
    let sheet = small(
        "[actions.a]\nshape = \"plane\"\nup = { bind = [\"ArrowUp\", \"pad:up\"] }\ndown = { bind = [\"ArrowDown\", \"pad:down\"] }\nleft = { bind = [\"ArrowLeft\", \"pad:left\"] }\nright = { bind = [\"ArrowRight\", \"pad:right\"] }\n\
         [actions.b]\nshape = \"plane\"\nup = { bind = [\"KeyT\", \"pad:stick-left.up\"] }\ndown = { bind = [\"KeyB\", \"pad:stick-left.down\"] }\nleft = { bind = [\"Numpad4\", \"pad:stick-left.left\"] }\nright = { bind = [\"KeyM\", \"pad:stick-left.right\"] }",
    );
    let say = |text: &str, device| {
        let mut prompt = Prompt::new(text, &sheet).unwrap();
        prompt.render(&us(&sheet), device).to_string()
    };
    assert_eq!(say("{do:a}", DeviceKind::Keyboard), "Press the arrow keys");
    assert_eq!(say("{a}", DeviceKind::Gamepad), "cross");
    assert_eq!(say("{do:b}", DeviceKind::Gamepad), "Move the left stick");
    assert_eq!(
        say("{b}", DeviceKind::Keyboard),
        "T, Numpad 4, B, M",
        "they do not sit together"
    );
    let mut prompt = Prompt::new("{a}", &sheet).unwrap();
    let rig = us(&sheet);
    let [Piece::Group { chords, .. }] = prompt.render(&rig, DeviceKind::Gamepad).pieces() else {
        panic!("one piece")
    };
    assert_eq!(chords.len(), 4);
}

#[test]
fn alternates_are_joined_and_limited_and_signs_are_spoken() {
    let say = |text: &str| says(text, "en", "us", DeviceKind::Keyboard);
    assert_eq!(say("{coil-rope}")[0], "E or left mouse button");
    assert_eq!(say("{do:coil-rope}")[0], "Hold E or the left mouse button");
    assert_eq!(say("{do:horn}")[0], "Press H", "the other one is clicked");
    assert_eq!(say("{coil-rope:mouse}")[0], "left mouse button");
    assert_eq!(say("{stow-1}")[1], "Ctrl and 1");
    let sheet = small("[actions.a]\nbind = [\"Comma\", \"Slash\", \"Semicolon\"]");
    let mut prompt = Prompt::new("{a}", &sheet).unwrap().with_alternates(9);
    let rig = us(&sheet);
    let shown = prompt.render(&rig, DeviceKind::Keyboard);
    assert_eq!(shown.to_string(), ",, / or ;");
    assert_eq!(shown.spoken(), "comma, slash or semicolon");
    let [_, spoken] = says("{map-table}; {walk}", "fr", "ru", DeviceKind::Keyboard);
    assert_eq!(spoken, "M; W A S D", "a voice knows the Latin letters");
}

#[test]
fn a_change_of_language_is_told_and_menus_follow() {
    let sheet = demo();
    let rig = us(&sheet);
    let mut prompt = Prompt::new("{cast-off}", &sheet).unwrap();
    prompt.render(&rig, DeviceKind::Keyboard);
    assert!(prompt.is_current(&rig, DeviceKind::Keyboard));
    prompt.set_words(&Words::english());
    assert!(
        prompt.is_current(&rig, DeviceKind::Keyboard),
        "the same words"
    );
    prompt.set_words(&words("ja"));
    assert!(!prompt.is_current(&rig, DeviceKind::Keyboard));
    assert_eq!(
        prompt.render(&rig, DeviceKind::Keyboard).to_string(),
        "スペース"
    );

    let mut draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
    draft.set_words(&words("de"));
    let cell = common::cell(&sheet, "cast-off keyboard-1");
    let _ = draft.bind(cell, common::chord("KeyG")).unwrap();
    assert_eq!(draft.summary(), ["Cast off: G statt Leertaste"]);
    assert_eq!(
        words("de").column_name(ColumnKind::Keyboard),
        "Tastatur und Maus"
    );
    assert_eq!(words("pl").device_name(DeviceKind::Mouse), "mysz");
}

#[test]
fn a_game_adds_words_and_mistakes_are_told() {
    let own = words("fr").with_fluent("touch-horn = zone de la corne\n    .short = corne", "x.ftl");
    let horn: Input = "touch:horn".parse().unwrap();
    let own = own.unwrap();
    assert_eq!(own.input_name(horn, &Layout::us()), "zone de la corne");
    assert_eq!(own.short_name(horn, &Layout::us()), "corne");
    assert_eq!(own.named("fr-CA").language(), "fr-CA");
    let text = "key-Spaec = Space\ndo-hold = Keep { $inputt }\nkey-Tab = { NUMBER(1) }\n";
    let broken = "key-Tab = { \nok = fine\n";
    let said = |text: &str| {
        Words::english()
            .with_fluent(text, "x.ftl")
            .unwrap_err()
            .to_string()
    };
    insta::assert_snapshot!(said(&text.replace("key-Tab = { NUMBER(1) }\n", "")), @"
    x.ftl:1:1: there is no message `key-Spaec`; did you mean `key-Space`?
    x.ftl:2:1: `do-hold` takes no `$inputt`; it takes $input
    ");
    insta::assert_snapshot!(said(text), @"x.ftl:3:1: `key-Tab` has a function; write text and `{ $variables }` only");
    insta::assert_snapshot!(said(broken), @r#"x.ftl:2:4: not valid in a Fluent file: Expected a token starting with "}""#);
}

proptest! {
    #[test]
    fn any_file_of_words_is_read_or_refused(text in "((key-Tab|do-hold|a) = )?[a-z{}$\" .=\n*\\[\\]-]{0,40}") {
        let _ = Words::english().with_fluent(&text, "any.ftl");
    }
}
