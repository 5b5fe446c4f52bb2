//! Prompts and names: what the player reads is what they can press.

use crate::common::{cell, chord, demo, small, us};
use swap_knot::layout::LayoutLearner;
use swap_knot::prompt::Piece;
use swap_knot::{DeviceKind, Layout, Place, Profile, Prompt, Rig};

fn says(text: &str, layout: &str, device: DeviceKind) -> String {
    let sheet = demo();
    let rig = Rig::new(
        &sheet,
        &Profile::default(),
        &Layout::shipped(layout).unwrap(),
    );
    Prompt::new(text, &sheet)
        .unwrap()
        .render(&rig, device)
        .to_string()
}

#[test]
fn prompts_follow_layout_and_device() {
    let text = "{do:cast-off}, {walk}, {walk.up}, {do:map-table}, {horn:gamepad}, {{}}";
    let all = [
        says(text, "us", DeviceKind::Keyboard),
        says(text, "fr", DeviceKind::Mouse),
        says(text, "de", DeviceKind::Gamepad),
    ];
    insta::assert_snapshot!(all.join("\n"), @"
    Press Space, W A S D, W, press M, top button of the four, {}
    Press Space, Z Q S D, Z, press M, top button of the four, {}
    Press the bottom button of the four, left stick, W, press the left center button, top button of the four, {}
    ");
}

#[test]
fn what_is_unbound_is_told_with_its_row() {
    let sheet = small("[actions.horn]\n[actions.steer]\nshape = \"line\"");
    let mut prompt = Prompt::new("{horn} {steer}", &sheet).unwrap();
    let rig = us(&sheet);
    let shown = prompt.render(&rig, DeviceKind::Keyboard);
    assert_eq!(shown.to_string(), "[not set] [not set]");
    let row = sheet.find_row("horn").unwrap();
    assert!(matches!(&shown.pieces()[0], Piece::Unbound { row: r, .. } if *r == row));
}

#[test]
fn a_prompt_knows_whether_it_is_current() {
    let sheet = demo();
    let mut prompt = Prompt::new("{cast-off}", &sheet).unwrap();
    let rig = us(&sheet);
    assert!(!prompt.is_current(&rig, DeviceKind::Keyboard));
    prompt.render(&rig, DeviceKind::Keyboard);
    assert!(prompt.is_current(&rig.clone(), DeviceKind::Keyboard));
    assert!(!prompt.is_current(&rig, DeviceKind::Gamepad));
    let mut profile = Profile::new("Ada");
    profile.set(
        &sheet,
        cell(&sheet, "cast-off keyboard-1"),
        Some(chord("Ctrl+KeyQ")),
    );
    let rig = Rig::new(&sheet, &profile, &Layout::shipped("fr").unwrap());
    assert!(!prompt.is_current(&rig, DeviceKind::Keyboard));
    assert_eq!(
        prompt.render(&rig, DeviceKind::Keyboard).to_string(),
        "Ctrl+A"
    );
}

#[test]
fn bad_prompts_are_told_where_and_what() {
    let sheet = demo();
    let said = |text: &str| Prompt::new(text, &sheet).unwrap_err().to_string();
    let all = [
        "Press {cast-of}",
        "é {walk.forward}",
        "{cast-off:gampad}",
        "open {cast-off",
        "shut }",
        "{}",
    ]
    .map(said);
    insta::assert_snapshot!(all.join("\n"), @"
    character 8: there is no action `cast-of`; did you mean `cast-off`?
    character 4: `walk` has no arm `forward`; it has left, right, down, up
    character 2: there is no device kind `gampad`; did you mean `gamepad`?
    character 6: this `{` is not closed; write `{{` for a plain brace
    character 6: a `}` closes nothing; write `}}` for a plain brace
    character 2: there is no action ``
    ");
}

#[test]
fn layouts_have_their_legends_and_letters() {
    let legend = |layout: &str, place| Layout::shipped(layout).unwrap().legend(place).unwrap();
    assert_eq!(legend("us", Place::KeyQ), "Q");
    assert_eq!(
        legend("fr", Place::Digit2),
        "é",
        "no capital is on that key"
    );
    assert_eq!(legend("latam", Place::Semicolon), "Ñ");
    assert_eq!(legend("ca", Place::Slash), "É");
    assert_eq!(legend("tr", Place::Quote), "İ");
    assert_eq!(legend("de", Place::Minus), "ß");
    assert_eq!(legend("de", Place::KeyY), "Z");
    let place = |layout: &str, letter| Layout::shipped(layout).unwrap().place_of(letter);
    assert_eq!(place("fr", 'm'), Some(Place::Semicolon));
    assert_eq!(place("fr", '1'), Some(Place::Digit1));
    assert_eq!(
        place("us", '<'),
        Some(Place::Comma),
        "an ANSI board has no key between Shift and Z"
    );
    assert_eq!(place("us", 'ж'), None);
    for name in Layout::shipped_names() {
        let layout = Layout::shipped(name).unwrap();
        for place in Place::WRITING {
            for letter in layout.letters_at(place) {
                assert_eq!(layout.place_of(letter), Some(place), "{letter} on {name}");
            }
        }
    }
    assert!(Layout::shipped("xx").is_none());
    assert_eq!(Layout::us().name(), "us");
}

#[test]
fn a_layout_is_learned_from_a_few_keys_and_followed() {
    let mut learner = LayoutLearner::new(Layout::us());
    let names: Vec<Option<String>> = [
        (Place::KeyE, 'e'),
        (Place::KeyY, 'z'),
        (Place::KeyQ, 'q'),
        (Place::KeyQ, 'A'),
        (Place::KeyQ, 'q'),
    ]
    .map(|(place, c)| learner.learn(place, c).map(|l| l.name().to_owned()))
    .to_vec();
    let name = |n: &str| Some(n.to_owned());
    assert_eq!(names[..4], [None, name("de"), None, name("fr")]);
    assert!(names[4].is_some(), "back at the first key that differs");
    assert_eq!(learner.learn(Place::Enter, 'x'), None);
    assert_eq!(learner.learn(Place::KeyW, '\u{1}'), None);
}
