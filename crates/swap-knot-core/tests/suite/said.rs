//! What comes out in every language, for every input on every platform, in every phrase: no id, no doubled
//! space, a capital where a sentence begins, and what agrees with "held" once.

use crate::common::small;
use swap_knot::input::Platform;
use swap_knot::layout::Resolver;
use swap_knot::prompt::Telling;
use swap_knot::remap::RefusedInput;
use swap_knot::sheet::ColumnKind;
use swap_knot::{
    Chord, DeviceKind, Input, Layout, Place, Profile, Prompt, Rig, Sheet, Tell as _, Words,
};

/// Inputs of every kind, and chords of keys and of others.
const SAID: [&str; 34] = [
    "KeyE",
    "Space",
    "ShiftLeft",
    "NumpadAdd",
    "NumpadEnter",
    "ArrowUp",
    "F5",
    "Semicolon",
    "letter:m",
    "Main+KeyS",
    "Meta+KeyS",
    "Ctrl+Digit1",
    "ShiftLeft+KeyE",
    "mouse:left",
    "mouse:6",
    "mouse:right",
    "wheel:up",
    "Alt+mouse:left",
    "pad:south",
    "pad:up",
    "pad:shoulder-left",
    "pad:trigger-left",
    "pad:stick-left-click",
    "pad:stick-left.left",
    "pad:center",
    "pad:shoulder-left+pad:south",
    "pad:trigger-left+pad:stick-right.up",
    "hid:button-3",
    "hid:hat-up",
    "hid:brake+",
    "hid:steering-",
    "hid:slider-",
    "touch:rope",
    "touch:sail",
];

/// What is wrong with a text, if anything.
fn wrong(text: &str, begins_sentence: bool) -> Option<&'static str> {
    let ids = [
        "key-",
        "modifier-",
        "pad-",
        "mouse-",
        "axis-",
        "arm-",
        "hid-",
        "touch-",
        "{",
        "$",
    ];
    // A sign that is printed on a key has no capital.
    let first = text.chars().next();
    match () {
        () if ids.iter().any(|id| text.contains(id)) => Some("an id"),
        () if text.contains("  ") => Some("a doubled space"),
        () if text.starts_with(' ') || text.ends_with(' ') => Some("a space at its edge"),
        () if begins_sentence && first.is_some_and(char::is_lowercase) => Some("no capital"),
        () => None,
    }
}

/// Every word of at least five letters that stands twice in a phrase about several inputs and is in none of
/// their names: what agrees with what is held.
fn repeated(text: &str, names: &[String]) -> Option<String> {
    let words: Vec<String> = text
        .split(|c: char| !c.is_alphanumeric())
        .filter(|w| w.chars().count() > 4)
        .map(str::to_lowercase)
        .collect();
    let in_name = |word: &str| names.iter().any(|name| name.to_lowercase().contains(word));
    let twice = |word: &&String| words.iter().filter(|w| w == word).count() > 1;
    words.iter().filter(twice).find(|w| !in_name(w)).cloned()
}

fn sheet(chord: &str, manner: &str) -> Sheet {
    small(&format!(
        "[actions.a]\nbind = {{ on = {chord:?}, manner = {manner:?} }}"
    ))
}

#[test]
fn every_name_in_every_phrase_reads_as_a_sentence() {
    let mut all = Vec::new();
    for language in Words::languages() {
        let own = Words::shipped(language).unwrap();
        let words = own.with_texts("touch-sail = Foresail", "own.ftl").unwrap();
        for platform in Platform::ALL {
            let on = Resolver::new(&Layout::us(), platform);
            // Only keys are called otherwise elsewhere.
            let differs = ["Main", "Meta", "Shift", "Alt", "Space"];
            let is_said = |chord: &&str| {
                platform == Platform::Other || differs.iter().any(|key| chord.starts_with(key))
            };
            for chord in SAID.into_iter().filter(is_said) {
                let parsed: Chord = chord.parse().unwrap();
                for manner in [
                    "press",
                    "hold",
                    "tap",
                    "double-tap",
                    "triple-tap",
                    "release",
                ] {
                    let sheet = sheet(chord, manner);
                    let rig = Rig::new(&sheet, &Profile::default(), &on);
                    let prompt = Prompt::new("{do:a}", &sheet).unwrap();
                    let mut prompt = prompt.with_words(&words);
                    let shown = prompt.render(&rig, parsed.device_kind());
                    for text in [shown.to_string(), shown.spoken()] {
                        if let Some(what) = wrong(&text, true) {
                            all.push(format!(
                                "{language} {platform} {chord} {manner}: {what}: {text}"
                            ));
                        }
                    }
                }
                let sheet = sheet(chord, "press");
                let telling = Telling::new(&words, &sheet, &on);
                let name = telling.chord(&parsed);
                if let Some(what) = wrong(&name, false) {
                    all.push(format!("{language} {platform} {chord}: {what}: {name}"));
                }
                let column = match parsed.device_kind() {
                    DeviceKind::Gamepad => ColumnKind::Touch,
                    _ => ColumnKind::Gamepad,
                };
                let told = RefusedInput::OtherColumn(parsed.input(), column).tell(&telling);
                if let Some(what) = wrong(&told, true) {
                    all.push(format!(
                        "{language} {platform} {chord} refused: {what}: {told}"
                    ));
                }
            }
        }
    }
    assert!(all.is_empty(), "{} wrong:\n{}", all.len(), all.join("\n"));
}

#[test]
fn what_agrees_with_what_is_held_is_said_once() {
    let sheet = small(
        "[actions.a]\nmanner = \"hold\"\nbind = [\"KeyK\", \"KeyL\", \"mouse:right\"]\n\
         [actions.b]\nbind = \"pad:shoulder-left+pad:trigger-right+pad:south\"",
    );
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
    for language in Words::languages() {
        let words = Words::shipped(language).unwrap();
        let name = |text: &str| {
            let input: Input = text.parse().unwrap();
            words.input_name(input, &Layout::us())
        };
        let names = [
            "KeyK",
            "mouse:right",
            "pad:shoulder-left",
            "pad:trigger-right",
            "pad:south",
        ];
        let mut names = names.map(name).to_vec();
        // Whatever a language calls a key.
        let release = small("[actions.a]\nmanner = \"release\"\nbind = \"KeyK\"");
        let rig_of_one = Rig::new(&release, &Profile::default(), &Layout::us());
        let mut one = Prompt::new("{do:a}", &release).unwrap().with_words(&words);
        names.push(one.render(&rig_of_one, DeviceKind::Keyboard).to_string());
        for (text, device) in [
            ("{do:a}", DeviceKind::Keyboard),
            ("{do:b}", DeviceKind::Gamepad),
        ] {
            let prompt = Prompt::new(text, &sheet).unwrap().with_words(&words);
            let mut prompt = prompt.with_alternates(3);
            let shown = prompt.render(&rig, device).to_string();
            assert_eq!(repeated(&shown, &names), None, "{language}: {shown}");
        }
    }
}

/// Such a test is worth as much as it finds: one of each is planted.
#[test]
fn what_is_planted_is_found() {
    assert_eq!(wrong("modifier-Command+S", false), Some("an id"));
    assert_eq!(wrong("Press  E", true), Some("a doubled space"));
    assert_eq!(wrong("o botão de baixo não cabe", true), Some("no capital"));
    assert_eq!(wrong("Press E", true), None);
    let said = "Maintenez la touche K enfoncée ou la touche L enfoncée";
    let names = ["touche K".to_owned(), "touche L".to_owned()];
    assert_eq!(repeated(said, &names).as_deref(), Some("enfoncée"));
    let place = Input::from(Place::KeyE);
    assert!(!Words::english().input_name(place, &Layout::us()).is_empty());
}
