//! What is adopted plays as it did with the profile, and nothing else of the text changes.

#![allow(clippy::unwrap_used, clippy::panic)]

use proptest::prelude::*;
use swap_knot::keep::Setting;
use swap_knot::{Draft, Layout, Profile, Rig, Sheet};
use swap_knot_adopt::{AdoptError, Adopted, adopt};

const DEMO: &str = include_str!("../../../demo/slack-water.toml");

fn adopted(sheet: &str, profile: &str) -> Adopted {
    let profile = Profile::from_toml(&format!("format = 1\n{profile}")).unwrap();
    adopt(sheet, &profile, &Layout::us()).unwrap_or_else(|e| panic!("{e}"))
}

fn lines(text: &str, old: &str) -> Vec<String> {
    let new = text.lines().filter(|line| !old.lines().any(|l| l == *line));
    new.map(str::to_owned).collect()
}

#[test]
fn only_the_lines_that_mean_something_else_change() {
    let out = adopted(
        DEMO,
        "[bind.\"walk.up\"]\nkeyboard-1 = \"KeyI\"\n[bind.horn]\nkeyboard-2 = \"unbound\"\n\
         [bind.hurry]\nkeyboard-2 = \"ShiftRight\"\n[feel.gamepad]\nsensitivity = 1.2\n\
         [action-feel.swing.gamepad]\ncurve = 1.5\n[action-feel.hoist.gamepad]\ndead-zone = { inner = 0.3, outer = 0.9, form = \"round\" }\n\
         [toggle]\nlantern = false\n[action-ease.coil-rope]\nhold-after = 0.6\nlatch = true\n[touch.horn]\nsize = 1.5\n",
    );
    assert_eq!(
        lines(out.text(), DEMO),
        [
            "sensitivity = 1.2",
            "up = { title = \"Walk to the bow\", bind = [\"KeyI\", \"ArrowUp\"] }",
            "bind = [\"ShiftLeft\", \"pad:stick-left-click\", \"ShiftRight\"]",
            "hold-after = 0.6",
            "latch = true",
            "toggle = false",
            "bind = [\"KeyH\", \"pad:north\", \"touch:horn\"]",
            "feel.gamepad = { curve = 1.5 }",
            "feel.gamepad = { dead-zone = { inner = 0.3, outer = 0.9 } }",
        ]
    );
    let left: Vec<String> = out.left().iter().map(ToString::to_string).collect();
    assert_eq!(
        left,
        ["touch.horn.size: a sheet has no default for it; it is each player's own"]
    );
    let difference = out.difference("demo/slack-water.toml");
    assert!(
        difference.contains("-bind = [\"KeyH\", \"mouse:right\", \"pad:north\", \"touch:horn\"]")
    );
    assert!(difference.contains("+toggle = false"));
    // Once more there is nothing to do.
    let profile = Profile::from_toml("format = 1\n[toggle]\nlantern = false").unwrap();
    let again = adopt(out.text(), &profile, &Layout::us()).unwrap();
    assert!(!again.is_changed() && again.difference("x").is_empty());
}

#[test]
fn comments_and_ways_of_writing_stay() {
    let sheet = "game = \"x\" # it\n\n# Loud.\n[actions.horn] # at the bow\nbind = [ # two\n  \"KeyH\", # left\n  { on = \"Ctrl+KeyK\", manner = \"hold\" }, # right\n]\n\n[actions]\nsail.bind = \"KeyS\" # one\n";
    let out = adopted(
        sheet,
        "[bind.horn]\nkeyboard-1 = \"Ctrl+KeyK\"\nkeyboard-2 = \"KeyH\"\n[bind.sail]\nkeyboard-1 = \"KeyT\"\nkeyboard-2 = \"KeyU\"\n",
    );
    assert_eq!(
        out.text(),
        sheet
            .replace("\"KeyH\", # left", "\"Ctrl+KeyK\", # left")
            .replace("on = \"Ctrl+KeyK\"", "on = \"KeyH\"")
            .replace("\"KeyS\" # one", "[\"KeyT\", \"KeyU\"] # one")
    );
    let out = adopted(
        sheet,
        "[bind.sail]\nkeyboard-1 = \"unbound\"\n[bind.horn]\nkeyboard-1 = \"unbound\"\n",
    );
    assert!(
        !out.text().contains("KeyS") && !out.text().contains("KeyH"),
        "{}",
        out.text()
    );
    assert!(out.text().contains("# Loud.") && out.text().contains("# at the bow"));
}

/// Ends of lines, a mark at the start, quotes and comments are the developer's, in whatever line.
#[test]
fn what_does_not_change_stays_to_the_letter() {
    let sheet = "game = \"x\"\n\n[\"actions\".\"horn\"] # at the bow\n\"bind\" = [ 'KeyH', # left\n  'KeyJ', # right\n  'KeyK' ] # and more\n\n[actions.'sail']\nbind = ['KeyS', # up\n  'KeyT', # down\n]\n";
    let profile = "format = 1\n[bind.horn]\nkeyboard-2 = \"unbound\"\n[bind.sail]\nkeyboard-2 = \"unbound\"\n";
    let profile = Profile::from_toml(profile).unwrap();
    let wanted = sheet
        .replace("  'KeyJ', # right\n", "  # right\n")
        .replace("  'KeyT', # down\n", "  # down\n");
    let windows = |text: &str| text.replace('\n', "\r\n");
    let marked = |text: &str| format!("\u{feff}{text}");
    for way in [&str::to_owned as &dyn Fn(&str) -> String, &windows, &marked] {
        let out = adopt(&way(sheet), &profile, &Layout::us()).unwrap();
        assert_eq!(out.text(), way(&wanted));
    }
    // A last line without an end gets one where something comes after it, and only there.
    let open = "game = \"x\"\n[actions.horn]\nbind = \"KeyH\"";
    let of = |text: &str| Profile::from_toml(&format!("format = 1\n{text}")).unwrap();
    let longer = of("[toggle]\nhorn = true\n");
    for way in [&str::to_owned as &dyn Fn(&str) -> String, &windows, &marked] {
        let out = adopt(&way(open), &longer, &Layout::us()).unwrap();
        assert!(
            out.text().starts_with(&way(&format!("{open}\n"))),
            "{}",
            out.text()
        );
    }
    let horn = of("[bind.horn]\nkeyboard-1 = \"KeyG\"\n");
    let out = adopt(open, &horn, &Layout::us()).unwrap();
    assert_eq!(out.text().trim_end(), open.replace("KeyH", "KeyG"));
}

#[test]
fn what_cannot_be_adopted_is_said() {
    let sheet = "game = \"x\"\nreserved = \"F1\"\n[actions.horn]\nbind = \"KeyH\"\n[actions.sail]\nfixed = true\nbind = \"KeyS\"\n[presets.left.bind]\nhorn = { keyboard-1 = \"KeyL\" }\n";
    let out = adopted(
        sheet,
        "preset = \"left\"\nlayout = \"de\"\ntitle = \"Ada\"\nlater = 1\n[bind.horn]\nkeyboard-1 = \"KeyJ\"\nkeyboard-2 = \"F1\"\n[bind.sail]\nkeyboard-1 = \"KeyT\"\n",
    );
    assert!(!out.is_changed(), "{}", out.text());
    let why: Vec<String> = out.left().iter().map(ToString::to_string).collect();
    let says = |setting: &str, part: &str| {
        assert!(
            why.iter()
                .any(|w| w.starts_with(setting) && w.contains(part)),
            "{why:?}"
        );
    };
    says("preset:", "each player's own");
    says("layout:", "each player's own");
    says("bind.horn.keyboard-1:", "the preset `left`");
    says("bind.horn.keyboard-2:", "reserved");
    says("bind.sail.keyboard-1:", "cannot be changed");
    says("later:", "does not understand");
    assert!(!why.iter().any(|w| w.starts_with("title")));
    let wrong = adopt("game = 3", &Profile::default(), &Layout::us());
    assert!(matches!(wrong, Err(AdoptError::Sheet(_))));
}

const KEYS: [&str; 10] = [
    "KeyG",
    "KeyW",
    "Ctrl+KeyG",
    "ArrowUp",
    "pad:south",
    "pad:north",
    "wheel:up",
    "letter:m",
    "Shift",
    "unbound",
];

proptest! {
    #![proptest_config(ProptestConfig {
        cases: 300,
        failure_persistence: None,
        ..ProptestConfig::default()
    })]

    /// Whatever a player binds and turns: the sheet without the profile plays as it did with it.
    #[test]
    fn a_sheet_plays_as_it_did_with_the_profile(
        binds in prop::collection::vec((0..60_usize, 0..KEYS.len(), 1..3_u8), 0..10),
        curve in prop::option::of(0.2_f32..4.0),
        inner in prop::option::of(0.0_f32..0.9),
        hold in prop::option::of(0.1_f32..2.0),
        toggle in prop::option::of(any::<bool>()),
    ) {
        let sheet = Sheet::from_toml(DEMO).unwrap();
        let mut profile = Profile::new("Ada");
        for (row, key, number) in binds {
            let at = sheet.defaults()[row % sheet.defaults().len()].cell.row;
            let kind = match KEYS[key] {
                key if key.starts_with("pad") => "gamepad",
                _ => "keyboard",
            };
            let cell = at.cell(format!("{kind}-{number}").parse().unwrap());
            profile.set(&sheet, cell, KEYS[key].parse().ok());
        }
        let mut text = profile.to_toml();
        if let Some(curve) = curve {
            text += &format!("\n[action-feel.walk.gamepad]\ncurve = {curve}\n");
        }
        if let Some(inner) = inner {
            text += &format!("\n[feel.gamepad]\ndead-zone = {inner}\n");
        }
        if let Some(hold) = hold {
            text += &format!("\n[ease]\nhold-after = {hold}\n");
        }
        if let Some(toggle) = toggle {
            text += &format!("\n[toggle]\nhurry = {toggle}\n");
        }
        let profile = Profile::from_toml(&text).unwrap();
        let before = Rig::new(&sheet, &profile, &Layout::us());
        let out = adopt(DEMO, &profile, &Layout::us());
        let out = out.map_err(|e| TestCaseError::fail(format!("{e}: {text}")))?;
        let after = Sheet::from_toml(out.text()).unwrap();
        let plain = Draft::new(&after, Profile::default(), &Layout::us());
        for (id, action) in sheet.actions() {
            let now = after.find(&action.name).unwrap();
            let chords = |bounds: &[swap_knot::play::Bound], id| {
                let own = bounds.iter().filter(|b| b.cell.row.action == id);
                let mut all: Vec<String> = own.map(|b| format!("{:?} {}", b.cell.row.arm, b.chord)).collect();
                all.sort();
                all.dedup();
                all
            };
            prop_assert_eq!(chords(before.bindings(), id), chords(plain.bindings(), now), "{}", text);
        }
        // What is around is as it was: every comment, in its order.
        let comments = |text: &str| -> Vec<String> {
            let lines = text.lines().filter(|l| l.trim_start().starts_with('#'));
            lines.map(str::to_owned).collect()
        };
        prop_assert_eq!(comments(out.text()), comments(DEMO));
        let own = profile.settings().filter(|(s, _)| **s != Setting::Title).count();
        prop_assert_eq!(out.taken().len() + out.left().len(), own);
    }
}
