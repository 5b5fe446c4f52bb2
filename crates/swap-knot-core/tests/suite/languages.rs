//! What players read in every language: the page `docs/languages.md`, refusals and reports, and
//! nothing that was never translated.

use std::fmt::Write as _;

use crate::common::{cell, chord, small};
use swap_knot::input::Platform;
use swap_knot::keep::{ImportError, Memory, Newer, Store as _};
use swap_knot::layout::Resolver;
use swap_knot::prompt::Telling;
use swap_knot::remap::{
    CannotBind, CarriedOver, Conflict, Merged, RefusedInput, conflicts, seat_conflicts,
};
use swap_knot::sheet::{ColumnKind, Parameter, Scope};
use swap_knot::{
    Chord, DeviceKind, Draft, Layout, Locker, Profile, Prompt, Rig, Settle, Sheet, Slug, Tell,
    Words,
};

/// The demo world, with something of every kind in it.
const SHEET: &str = include_str!("languages/controls.toml");

fn sheet() -> Sheet {
    crate::common::sheet(SHEET)
}

/// The words of a language, with the demo's own titles.
fn words(language: &str) -> Words {
    let file = format!(
        "{}/../../demo/texts/{language}.ftl",
        env!("CARGO_MANIFEST_DIR")
    );
    let words = Words::shipped(language).unwrap();
    match std::fs::read_to_string(file) {
        Ok(text) => words.with_texts(&text, language).unwrap(),
        Err(_) => words,
    }
}

/// Prompts, and what they show.
const PROMPTS: [(&str, &str, DeviceKind); 32] = [
    ("a key", "{do:cast-off}", DeviceKind::Keyboard),
    ("a letter", "{do:map-table}", DeviceKind::Keyboard),
    ("a modifier", "{do:hurry}", DeviceKind::Keyboard),
    ("an arrow", "{do:pan.up}", DeviceKind::Keyboard),
    ("a numpad key", "{do:ballast}", DeviceKind::Keyboard),
    ("held", "{do:coil-rope}", DeviceKind::Keyboard),
    (
        "held, a mouse button",
        "{do:coil-rope:mouse}",
        DeviceKind::Keyboard,
    ),
    ("clicked", "{do:horn:mouse}", DeviceKind::Keyboard),
    ("double-clicked", "{do:mark:mouse}", DeviceKind::Keyboard),
    ("tapped", "{do:knock}", DeviceKind::Keyboard),
    ("tapped twice", "{do:mark}", DeviceKind::Keyboard),
    ("let go", "{do:drop}", DeviceKind::Keyboard),
    ("the wheel", "{do:hoist.up:mouse}", DeviceKind::Keyboard),
    ("the mouse", "{do:pan:mouse}", DeviceKind::Keyboard),
    ("a chord of keys", "{do:stow-1}", DeviceKind::Keyboard),
    ("a chord with the mouse", "{do:orbit}", DeviceKind::Keyboard),
    ("pressed together", "{do:dodge}", DeviceKind::Keyboard),
    ("a row of keys", "{do:walk}", DeviceKind::Keyboard),
    ("two keys", "{do:lean}", DeviceKind::Keyboard),
    ("the arrow keys", "{do:pan}", DeviceKind::Touch),
    ("two to choose from", "{do:walk.up}", DeviceKind::Keyboard),
    ("a pad's button", "{do:cast-off}", DeviceKind::Gamepad),
    (
        "a pad's button, held",
        "{do:coil-rope}",
        DeviceKind::Gamepad,
    ),
    ("a trigger", "{do:throttle}", DeviceKind::Gamepad),
    ("the cross", "{do:lantern}", DeviceKind::Gamepad),
    ("a stick", "{do:walk}", DeviceKind::Gamepad),
    ("a stick, pressed", "{do:hurry}", DeviceKind::Gamepad),
    ("a stick, one way", "{do:steer.left}", DeviceKind::Gamepad),
    ("a chord on a pad", "{do:stow-1}", DeviceKind::Gamepad),
    ("a chord with a stick", "{do:orbit}", DeviceKind::Gamepad),
    ("another controller", "{do:throttle}", DeviceKind::Other),
    ("nothing bound", "{do:idle}", DeviceKind::Keyboard),
];

fn english() -> Profile {
    Profile::new("Ada")
}

/// Everything that a player can be told, by what it is.
fn told(words: &Words) -> Vec<(&'static str, String)> {
    let sheet = sheet();
    let us = Layout::us();
    let mut out = Vec::new();
    let rig = Rig::new(&sheet, &Profile::default(), &us);
    for (what, text, device) in PROMPTS {
        let prompt = Prompt::new(text, &sheet).unwrap().with_words(words);
        let mut prompt = prompt.with_alternates(2);
        out.push((what, prompt.render(&rig, device).to_string()));
    }
    let mut prompt = Prompt::new("{do:stow-1} {trim}", &sheet)
        .unwrap()
        .with_words(words);
    let shown = prompt.render(&rig, DeviceKind::Keyboard);
    out.push(("a chord and a sign, spoken", shown.spoken()));
    let mut prompt = Prompt::new("{stow-1}", &sheet).unwrap().with_words(words);
    let shown = prompt.render(&rig, DeviceKind::Gamepad);
    out.push(("a chord as a name", shown.to_string()));

    let mut draft = Draft::new(&sheet, english(), &us);
    draft.set_words(words);
    let mut refuse = |what, text: &str, on: &str| {
        let refusal = draft.bind(cell(&sheet, text), chord(on)).unwrap_err();
        out.push((what, draft.tell(&refusal)));
    };
    refuse("reserved", "horn keyboard-1", "Escape");
    refuse("another column", "horn keyboard-1", "pad:south");
    refuse("mixed columns", "horn keyboard-1", "pad:shoulder-left+KeyH");
    refuse("two axes", "horn gamepad-1", "pad:stick-left");
    refuse("a whole axis", "horn other-1", "hid:x");
    refuse("notches", "throttle keyboard-1", "wheel:up");
    refuse("one direction only", "walk keyboard-1", "KeyT");
    refuse("fixed", "send keyboard-1", "KeyT");
    let refusal = draft.unbind(cell(&sheet, "resume gamepad-1")).unwrap_err();
    out.push(("essential", draft.tell(&refusal)));
    let refusal = draft
        .choose_preset(Some("fog-bound"), swap_knot::remap::PlayersOwn::Keep)
        .unwrap_err();
    out.push(("no such preset", draft.tell(&refusal)));
    let refusal = draft
        .set_parameter(("walk", DeviceKind::Gamepad), Parameter::Sensitivity, 1e9)
        .unwrap_err();
    out.push(("out of range", draft.tell(&refusal)));
    let refusal = draft
        .set_parameter(Scope::ALL_ACTIONS, Parameter::HoldAfter, 1e9)
        .unwrap_err();
    out.push(("a time out of range", draft.tell(&refusal)));
    let refusal = draft
        .set_parameter("dodge", Parameter::Toggle, true)
        .unwrap_err();
    out.push(("not to be eased", draft.tell(&refusal)));
    let other =
        RefusedInput::OtherColumn("pad:trigger-left".parse().unwrap(), ColumnKind::Keyboard);
    out.push(("heard for another column", draft.tell(&other)));
    out.push((
        "cannot be bound",
        draft.tell(&CannotBind::NoInput(ColumnKind::Touch)),
    ));

    let asked = draft
        .bind(cell(&sheet, "hurry keyboard-1"), chord("mouse:left"))
        .unwrap();
    let swap_knot::Bind::Asks(question) = asked else {
        panic!("it is taken")
    };
    out.push(("taken", draft.tell(&*question)));
    for (what, settle) in [
        ("swapped", Settle::Swap),
        ("not to be shared", Settle::Share),
        ("nothing to do", Settle::BackOut),
    ] {
        out.push((what, draft.tell(question.way(settle).unwrap())));
    }
    out.extend(conflicts_told(words));
    out.extend(reports(words));
    out
}

/// Every class of conflict.
fn conflicts_told(words: &Words) -> Vec<(&'static str, String)> {
    let telling = |sheet: &Sheet, layout: &Layout, conflict: &Conflict| {
        let on = Resolver::new(layout, Platform::Other);
        Telling::new(words, sheet, &on).tell(conflict)
    };
    let mut out = Vec::new();
    for (what, horn, lamp) in [
        ("the same", "\"mouse:left\"", "\"mouse:left\""),
        ("one side", "\"Shift+KeyE\"", "\"ShiftLeft+KeyE\""),
        ("by letter", "\"letter:a\"", "\"KeyQ\""),
        ("manner", "\"KeyE\"", "{ on = \"KeyE\", manner = \"hold\" }"),
        ("the longer hides the shorter", "\"Ctrl+KeyK\"", "\"KeyK\""),
        ("both can happen", "\"Ctrl+KeyK\"", "\"ControlLeft\""),
    ] {
        let sheet = small(&format!(
            "[situations.helm]\n[actions.horn]\nsituation = \"helm\"\nbind = {horn}\n[actions.lantern]\nsituation = \"helm\"\nbind = {lamp}"
        ));
        let fr = Layout::shipped("fr").unwrap();
        let rig = Rig::new(&sheet, &Profile::default(), &fr);
        let all = conflicts(
            &sheet,
            rig.bindings(),
            std::slice::from_ref(&fr),
            Platform::Other,
        );
        out.push((what, telling(&sheet, &fr, &all[0])));
    }
    let sheet = small("[actions.horn]\nbind = \"KeyH\"");
    let rig = crate::common::us(&sheet);
    let all = seat_conflicts(&rig, &rig);
    out.push(("two players", telling(&sheet, &Layout::us(), &all[0])));
    out
}

/// Loading, carrying over, merging, keeping.
fn reports(words: &Words) -> Vec<(&'static str, String)> {
    let (sheet, us) = (sheet(), Layout::us());
    let on = Resolver::new(&us, Platform::Other);
    let telling = Telling::new(words, &sheet, &on);
    let mut out = Vec::new();
    let ru = Layout::shipped("ru").unwrap();
    let odd = small(
        "[actions.horn]\nbind = \"letter:ñ\"\n[actions.lantern]\nbind = \"Ctrl+letter:w\"\n[actions.hurry]\nessential = true\nbind = \"letter:[\"\n[actions.fine]\nbind = \"letter:w+KeyW\"",
    );
    let rig = Rig::new(&odd, &Profile::default(), &ru);
    let on_ru = Resolver::new(&ru, Platform::Other);
    let notes = Telling::new(words, &odd, &on_ru).lines(rig.notes());
    for (what, line) in ["no such letter", "another key stands in", "one key twice"]
        .into_iter()
        .zip(notes)
    {
        out.push((what, line));
    }
    let old = "format = 1\nsheet = 1\n[bind.bilge-pump]\nkeyboard-1 = \"KeyB\"\n[bind.fog-signal]\nkeyboard-1 = \"KeyJ\"\n[bind.lantern]\nkeyboard-1 = \"KeyH\"\n[bind.hurry]\nkeyboard-1 = \"Escape\"";
    let carried = CarriedOver::new(&sheet, &Profile::from_toml(old).unwrap(), &us);
    for (what, line) in ["removed", "unknown", "gave way", "not in force"]
        .into_iter()
        .zip(telling.tell(&carried).lines())
    {
        out.push((what, line.to_owned()));
    }
    let profile = |lines: &str| Profile::from_toml(&format!("format = 1\n{lines}")).unwrap();
    let (a, b) = (
        profile(
            "preset = \"left-handed\"\n[bind.horn]\nkeyboard-1 = \"KeyJ\"\n[feel.mouse]\nsensitivity = 2.0\n[ease]\nhold-after = 0.75",
        ),
        profile(
            "[bind.horn]\nkeyboard-1 = \"unbound\"\n[feel.mouse]\nsensitivity = 1.5\n[ease]\nhold-after = 1.5\n[toggle]\nhurry = true",
        ),
    );
    let merged = Merged::new(&sheet, &profile(""), (&a, &b), Newer::Ours, &us);
    let lines = telling.tell(&merged);
    for (what, line) in [
        "overruled, a sensitivity",
        "overruled, a time",
        "overruled, a binding",
    ]
    .into_iter()
    .zip(lines.lines())
    {
        out.push((what, line.to_owned()));
    }
    let store = Memory::new();
    let locker = Locker::in_store(store.clone());
    let name: Slug = "ada".parse().unwrap();
    let put = |text: &str| store.replace("ada.toml", text.as_bytes()).unwrap();
    put("no profile");
    out.push(("damaged", telling.tell(&locker.load(&name))));
    put("format = 99");
    out.push(("of a newer version", telling.tell(&locker.load(&name))));
    let refused = locker.save(&name, &english(), &sheet).unwrap_err();
    out.push(("not to be saved", telling.tell(&refused)));
    let refused = locker.delete(&"nobody".parse().unwrap()).unwrap_err();
    out.push(("no such profile", telling.tell(&refused)));
    let refused = Profile::from_toml("nothing")
        .map_err(ImportError::from)
        .unwrap_err();
    out.push(("no profile", telling.tell(&refused)));
    out
}

/// The page in which a speaker of a language can read all of it.
fn page() -> String {
    let mut out = String::from(
        "# What players read\n\nMade by the test `languages` of `swap-knot-core`; with `SWAP_KNOT_WRITE=1` it is written anew.\nTitles are those of the demo game. Languages marked *not reviewed* were translated with care, and\nwait for somebody who grew up with them.\n",
    );
    let english = told(&words("en"));
    for language in Words::languages().filter(|l| *l != "en") {
        let file = concat!(env!("CARGO_MANIFEST_DIR"), "/src/words/lang");
        let text = std::fs::read_to_string(format!("{file}/{language}.ftl")).unwrap();
        let name = text
            .split("players: ")
            .nth(1)
            .unwrap()
            .split(['.', ';'])
            .next()
            .unwrap();
        let mark = if text.contains("# Not reviewed") {
            ", not reviewed"
        } else {
            ""
        };
        writeln!(
            out,
            "\n## {name} (`{language}`){mark}\n\n| | English | {name} |\n|---|---|---|"
        )
        .unwrap();
        for ((what, english), (_, own)) in english.iter().zip(told(&words(language))) {
            let line = |text: &str| text.replace('\n', "<br>").replace('|', "\\|");
            writeln!(out, "| {what} | {} | {} |", line(english), line(&own)).unwrap();
        }
    }
    out
}

#[test]
fn the_page_of_languages_is_current() {
    crate::common::is_current("languages.md", &page());
}

#[test]
fn players_are_told_nothing_of_files_and_code() {
    for language in Words::languages() {
        for (what, text) in told(&words(language)) {
            assert!(!text.is_empty(), "{what} in {language}");
            assert!(
                !text.contains(['`', '$', '{']),
                "{what} in {language}: {text}"
            );
            let names = [
                "keyboard-1",
                "gamepad-1",
                "pad:",
                "mouse:",
                ".toml",
                "KeyE",
                "cast-off",
            ];
            assert!(
                !names.iter().any(|n| text.contains(n)),
                "{what} in {language}: {text}"
            );
        }
    }
}

/// What stands outside of any brackets.
fn outside(text: &str) -> String {
    let mut depth = 0;
    let all = text.chars().filter(|c| match c {
        '⟦' => {
            depth += 1;
            false
        }
        '⟧' => {
            depth -= 1;
            false
        }
        c => depth == 0 && c.is_alphanumeric(),
    });
    all.collect()
}

#[test]
fn nothing_is_left_outside_of_the_brackets() {
    let brackets = Words::shipped(Words::BRACKETS).unwrap();
    for (what, text) in told(&brackets) {
        assert_eq!(outside(&text), "", "{what}: {text}");
    }
    let sheet = sheet();
    let mut draft = Draft::new(&sheet, english(), &Layout::us());
    draft.set_words(&brackets);
    let _ = draft
        .bind(cell(&sheet, "horn keyboard-1"), chord("KeyO"))
        .unwrap();
    draft
        .set_parameter(Scope::ALL_ACTIONS, Parameter::Latch, true)
        .map(drop)
        .map(drop)
        .unwrap();
    draft
        .set_parameter("hurry", Parameter::Toggle, true)
        .map(drop)
        .unwrap();
    draft
        .choose_preset(Some("left-handed"), swap_knot::remap::PlayersOwn::Keep)
        .unwrap();
    let shown = draft.columns();
    let rows = draft.rows(&shown);
    let titles = rows.iter().map(|r| r.title.clone());
    let names = rows
        .iter()
        .flat_map(|r| r.cells.iter().filter_map(|c| c.name.clone()));
    let groups = rows.iter().map(|r| draft.group_title(r.group));
    let columns = shown.iter().map(|c| brackets.column_title(*c));
    let all = titles
        .chain(names)
        .chain(groups)
        .chain(columns)
        .chain(draft.summary());
    for text in all {
        assert_eq!(outside(&text), "", "{text}");
    }
    // A file of the game's is put between brackets as well, whenever it comes.
    let own = brackets
        .with_texts("action-horn = Tröte", "own.ftl")
        .unwrap();
    assert_eq!(
        own.row_title(&sheet, sheet.find("horn").unwrap().into()),
        "⟦Tröte⟧"
    );
    assert_eq!(
        own.bracketed().say("menu-apply", &[]),
        "⟦Apply⟧",
        "once is enough"
    );
}

#[test]
fn titles_of_the_game_follow_its_language() {
    let sheet = sheet();
    let titles = |words: &Words, row: &str| words.row_title(&sheet, sheet.find_row(row).unwrap());
    let german = Words::shipped("de").unwrap();
    assert_eq!(
        titles(&german, "walk.up"),
        "Walk to the bow",
        "only the sheet has it"
    );
    assert_eq!(
        titles(&german, "lean.left"),
        "Lean: links",
        "put together by the language"
    );
    let part = german
        .with_texts("action-walk = Gehen\naction-lean-left = Links lehnen", "x")
        .unwrap();
    assert_eq!(titles(&part, "walk.up"), "Gehen: hoch");
    assert_eq!(titles(&part, "lean.left"), "Links lehnen");
    let helm = sheet.find_situation("helm").unwrap();
    let group = sheet.action(sheet.find("horn").unwrap()).unwrap().group;
    let own = german.with_texts("situation-helm = Am Ruder\ngame = Stauwasser\npreset-left-handed = Links\nwelcome = { NUMBER(1) }", "x");
    let own = own.unwrap();
    assert_eq!(own.situation_title(&sheet, helm), "Am Ruder");
    assert_eq!(
        own.group_title(&sheet, group),
        "Am Ruder",
        "a heading that is a situation's"
    );
    assert_eq!(own.game_title(&sheet), "Stauwasser");
    assert_eq!(
        own.preset_title(sheet.preset("left-handed").unwrap()),
        "Links"
    );
    assert!(
        german
            .with_texts("action-walk = { $n } mal gehen", "x")
            .is_err()
    );
    // Every title has an id that is taken, and the sheet's own text is one.
    let all = swap_knot::prompt::GameTitle::all(&sheet);
    let text: Vec<String> = all
        .iter()
        .map(swap_knot::prompt::GameTitle::to_fluent)
        .collect();
    let same = german.with_fluent(&text.join("\n"), "x").unwrap();
    for row in sheet
        .actions()
        .flat_map(|(id, _)| sheet.rows_of(id).collect::<Vec<_>>())
    {
        assert_eq!(same.row_title(&sheet, row), sheet.row_title(row));
    }
}

#[test]
fn a_number_is_written_as_the_language_does() {
    let number = |language, n| Words::shipped(language).unwrap().number(n);
    assert_eq!(number("de", 0.5), "0,5");
    assert_eq!(number("en", 10.0), "10");
    assert_eq!(number("ja", 1.0 / 3.0), "0.33");
    let _ = (
        Parameter::Latch,
        Chord::from("KeyA".parse::<swap_knot::Input>().unwrap()),
    );
    fn told_by(_: &impl Tell) {}
    told_by(&ColumnKind::Touch);
}
