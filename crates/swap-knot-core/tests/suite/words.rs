//! Names, phrases and languages.

use std::collections::HashMap;

use crate::common::{demo, small, us};
use proptest::prelude::*;
use swap_knot::input::{HidButton, HidInput};
use swap_knot::prompt::Piece;
use swap_knot::sheet::ColumnKind;
use swap_knot::{DeviceKind, Draft, Input, Layout, MouseButton, Profile, Prompt, Rig, Words};

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

/// The messages of a shipped language: id, and the text with its attributes, line by line.
fn messages(language: &str) -> Vec<(String, Vec<String>)> {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/src/words/lang");
    let text = std::fs::read_to_string(format!("{folder}/{language}.ftl")).unwrap();
    let mut out: Vec<(String, Vec<String>)> = Vec::new();
    for line in text
        .lines()
        .filter(|l| !l.is_empty() && !l.starts_with('#'))
    {
        let (id, value) = line.split_once('=').unwrap();
        match line.starts_with(' ') {
            true => out.last_mut().unwrap().1.push(value.trim().to_owned()),
            false => out.push((id.trim().to_owned(), vec![value.trim().to_owned()])),
        }
    }
    out
}

/// The variables of a text; those that pick a form of an input are one.
fn variables(text: &str) -> std::collections::BTreeSet<&str> {
    const FORMS: [&str; 6] = ["input", "name", "subject", "at", "with", "held"];
    let all = text
        .split("{ $")
        .skip(1)
        .map(|t| t.split(' ').next().unwrap());
    all.map(|v| if FORMS.contains(&v) { "input" } else { v })
        .collect()
}

#[test]
fn every_language_says_all_that_english_says() {
    let english = messages("en");
    for language in Words::languages() {
        let own = messages(language);
        let ids =
            |of: &[(String, Vec<String>)]| of.iter().map(|(id, _)| id.clone()).collect::<Vec<_>>();
        // What lies over another language says only what differs.
        let differs = ["es-419", "pt-PT"].contains(&language);
        let known = |id: &String| !differs || own.iter().any(|(own, _)| own == id);
        let mut wanted = ids(&english);
        wanted.retain(known);
        let in_order = |mut ids: Vec<String>| {
            ids.sort();
            ids
        };
        assert_eq!(in_order(ids(&own)), in_order(wanted), "{language}");
        for (id, texts) in &own {
            let (_, known) = english.iter().find(|(known, _)| known == id).unwrap();
            let wanted = variables(&known[0]);
            for text in texts {
                assert_eq!(variables(text), wanted, "{id} in {language}: {text}");
            }
        }
    }
}

#[test]
fn no_english_is_left_in_another_language() {
    // What is printed on keys everywhere, and words that languages share.
    let printed = "Alt|AltGr|Back|Bksp|Eisu|Escape|Help|Numpad|POV|Backspace|Caps|Command|Ctrl|Del|Delete|End|Enter|Esc|Fn|Forward|Fwd|Home|Ins|Insert|Lock|Num|NumLk|Option|Page|Pause|PgDn|PgUp|Print|PrtSc|Return|Screen|ScrLk|Scroll|Shift|Space|Super|Tab|Up|Down|Win|Windows";
    let printed: Vec<&str> = printed.split('|').collect();
    let shared = [
        "Gamepad",
        "gamepad",
        "Touch",
        "touch",
        "mouse",
        "Tilde",
        "tilde",
        "Dollar",
        "dollar",
        "Apostroph",
        "dial",
        "Zoom",
        "Dial",
        "Assistant",
        "Menu",
        "Volume",
        "Pause",
        "Kana",
        "Hangul",
        "Hanja",
        "Hiragana",
        "Katakana",
        "conflict",
        "plus",
        "volant",
        "Browser",
        "Mail",
        "Test",
        "Controller",
        "Mouse",
        "Move",
        "paddle",
        "pad",
        "Conflict",
    ];
    let english: HashMap<String, Vec<String>> = messages("en").into_iter().collect();
    let mut all_left = Vec::new();
    for language in Words::languages().filter(|l| *l != "en") {
        let own_script = matches!(language, "ru" | "uk" | "ja" | "ko" | "zh-Hans" | "zh-Hant");
        for (id, texts) in messages(language) {
            for (n, text) in texts.iter().enumerate() {
                let plain: Vec<&str> = text.split(['{', '}']).step_by(2).collect();
                let plain = plain.join(" ");
                let words = plain.split(|c: char| !c.is_alphabetic());
                let words: Vec<&str> = words.filter(|w| w.is_ascii() && w.len() > 2).collect();
                let left: Vec<_> = words.iter().filter(|w| !printed.contains(w)).collect();
                if own_script && !left.is_empty() {
                    all_left.push(format!("{id} in {language}: {text}"));
                }
                let same = english[&id].get(n) == Some(text);
                // Signs have Latin names in most languages.
                let known = id.starts_with("sign-") || left.iter().all(|w| shared.contains(w));
                if same && !known {
                    all_left.push(format!("{id} in {language}: {text}"));
                }
            }
        }
    }
    assert!(all_left.is_empty(), "{}", all_left.join("\n"));
}

#[test]
fn players_find_the_language_that_is_nearest_to_theirs() {
    let near = |tag: &str| Words::nearest(tag).language().to_owned();
    for (tag, found) in [
        ("zh-TW", "zh-Hant"),
        ("zh-Hant", "zh-Hant"),
        ("zh_HK.UTF-8", "zh-Hant"),
        ("zh-Hans-HK", "zh-Hans"),
        ("zh-CN", "zh-Hans"),
        ("zh", "zh-Hans"),
        ("pt-PT", "pt-PT"),
        ("uk_UA.UTF-8@dict", "uk"),
        ("RU", "ru"),
        ("", "en"),
        ("x-klingon", "en"),
    ] {
        assert_eq!(near(tag), found, "{tag}");
    }
    assert!(Words::shipped("zh").is_none());
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
    assert_eq!(say("{a}", DeviceKind::Gamepad), "D-pad");
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
        "スペースキー"
    );

    let mut draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
    draft.set_words(&words("de"));
    let cell = crate::common::cell(&sheet, "cast-off keyboard-1");
    let _ = draft.bind(cell, crate::common::chord("KeyG")).unwrap();
    assert_eq!(draft.summary(), ["Cast off: G (bisher: Leertaste)"]);
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
    x.ftl:2:1: `do-hold` takes no `$inputt`; it takes $held
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
