//! Reading sheets: what is declared, and every mistake at once with its place.

use crate::common::{demo, small};
use proptest::prelude::*;
use swap_knot::Sheet;
use swap_knot::sheet::{Arm, Manner, Shape};

#[test]
fn the_demo_sheet_says_what_it_declares() {
    let sheet = demo();
    assert_eq!(
        (sheet.game(), sheet.title(), sheet.version()),
        ("slack-water", "Slack Water", 3)
    );
    let walk = sheet.action(sheet.find("walk").unwrap()).unwrap();
    assert_eq!((walk.shape, walk.essential), (Shape::Plane, true));
    assert_eq!(walk.arms(), [Arm::Left, Arm::Right, Arm::Down, Arm::Up]);
    assert_eq!(walk.arm_title(Arm::Up), "Walk to the bow");
}

#[test]
fn titles_and_columns_follow_from_what_is_there() {
    let sheet = small("[actions.cast-off]\nbind = [\"Space\", \"pad:south\", \"mouse:left\"]");
    let (id, action) = sheet.actions().next().unwrap();
    assert_eq!(action.title, "Cast off");
    let columns: Vec<String> = sheet
        .defaults_of(id)
        .iter()
        .map(|b| b.cell.column.to_string())
        .collect();
    assert_eq!(columns, ["keyboard-1", "keyboard-2", "gamepad-1"]);
}

#[test]
fn manners_stand_beside_the_action_or_the_binding() {
    let sheet = small(
        "[actions.coil]\nmanner = \"hold\"\nbind = [\"KeyE\", { on = \"KeyR\", manner = \"tap\", strict = true }]",
    );
    let manners: Vec<_> = sheet
        .defaults()
        .iter()
        .map(|b| (b.manner, b.strict))
        .collect();
    assert_eq!(manners, [(Manner::Hold, false), (Manner::Tap, true)]);
}

/// Every mistake of a bad sheet, one a line.
fn mistakes(text: &str) -> String {
    Sheet::from_toml_named(text, "bad.toml")
        .unwrap_err()
        .to_string()
}

#[test]
fn every_mistake_is_told_at_once_with_its_place() {
    let text = r#"game = "Bad Game"
titel = "x"
reserved = ["Escpe"]
[situations.deck]
over = "helm"
[situations.helm]
over = ["deck"]
cover = "al"
[situations.chart]
cover = "all"
[groups]
moving = 3
[actions.walk]
situation = "dck"
shape = "plain"
bind = ["KeyQQ", "mouse:move+KeyA"]
[actions.horn]
essential = 3
share = ["hron"]
feel = { gamepad = { dead-zone = 2, curvature = 1 } }
bind = [{ on = "KeyW", column = 1 }, { on = "KeyE", column = 1 }, "pad:stick-left", "KeyW"]
up = { bind = "KeyW" }
[actions.steer]
shape = "line"
manner = "hold"
left = { bind = "KeyA" }
up = { bind = "KeyD", tilte = "x" }
[actions.throttle]
shape = "pull"
bind = "wheel:up"
[actions."Big Name"]
[renamed]
horn = "steer"
hop = "jump"
[presets.left]
bind = { "steer.left" = { keyboard-1 = "pad:south", pad-1 = "KeyA" }, "hron" = {} }
"#;
    insta::assert_snapshot!(mistakes(text), @r#"
    bad.toml:1:9: `Bad Game` cannot be the name of a game; names have 1 to 64 lower-case letters, digits and hyphens, and begin with a letter; `bad-game` would be one
    bad.toml:2:1: the sheet has no key `titel`; did you mean `title`?
    bad.toml:3:14: `Escpe` is not an input; did you mean `Escape`?
    bad.toml:4:13: situations are laid over each other in a circle: deck over helm over deck; take one `over` out
    bad.toml:8:10: `cover` cannot be `al`; did you mean `all`?
    bad.toml:9:13: situation `chart` covers nothing; say what it is laid over, as in `over = ["deck"]`
    bad.toml:12:10: a group wants its title in quotes, not this integer
    bad.toml:14:14: there is no situation `dck`; did you mean `deck`?
    bad.toml:15:10: `shape` cannot be `plain`; did you mean `plane`?
    bad.toml:16:10: `KeyQQ` is not an input; did you mean `KeyQ`?
    bad.toml:16:19: `mouse:move` cannot be held as part of a chord; hold a key, a button or one direction of it
    bad.toml:18:13: `essential` wants true or false, not this integer
    bad.toml:19:11: there is no action `hron`; did you mean `horn`?
    bad.toml:20:34: `dead-zone` wants a number from 0 to 0.95; 2 is not
    bad.toml:20:37: a feel has no key `curvature`; it can have `curve`, `dead-zone`, `gyro`, `invert`, `ramp-down`, `ramp-up`, `sensitivity`, `sensitivity-y`, `threshold`
    bad.toml:21:46: action `horn` has `KeyW` in column keyboard-1 already; give `KeyE` another column
    bad.toml:21:68: `pad:stick-left` moves on two axes and can only work a plane; use one direction of it, such as `pad:stick-left.up`
    bad.toml:21:86: action `horn` is bound to `KeyW` twice; take one out
    bad.toml:22:6: a press has no arm `up`; for directions say `shape = "line"` or `"plane"`
    bad.toml:23:10: action `steer` is a line; only a press has a manner such as hold
    bad.toml:27:6: a line has one pair of arms, and `left` has another already; for two axes say `shape = "plane"`
    bad.toml:27:23: arm `steer.up` has no key `tilte`; did you mean `title`?
    bad.toml:30:9: `wheel:up` comes in notches and cannot work a pull; use a key, a button or a trigger
    bad.toml:31:10: `Big Name` cannot be the name of an action; names have 1 to 64 lower-case letters, digits and hyphens, and begin with a letter; `big-name` would be one
    bad.toml:33:1: `horn` is still an action; only names that are gone are renamed; take it out
    bad.toml:34:8: there is no action `jump`; there are `walk`, `horn`, `steer`, `throttle`, `Big Name`
    bad.toml:36:41: `pad:south` is a gamepad input and cannot stand in column keyboard-1
    bad.toml:36:53: `pad-1` is no column; a column is keyboard, gamepad, touch or other, and a number from 1 to 9, as in `keyboard-1`
    bad.toml:36:71: there is no action or arm `hron`; did you mean `horn`?
    "#);
}

#[test]
fn an_error_prints_its_text_wherever_it_is_printed() {
    let wrong = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"Esc\"");
    let (debug, text) = wrong
        .map_err(|e| (format!("{e:?}"), e.to_string()))
        .unwrap_err();
    assert_eq!(debug, text);
    assert_eq!(
        text,
        "sheet:3:9: `Esc` is not an input; did you mean `Escape`?"
    );
}

#[test]
fn numbers_and_shapes_out_of_range_get_one_error_that_says_the_range() {
    insta::assert_snapshot!(
        mistakes("game = \"slack-water\"\n[actions.a]\nshape = \"plan\"\nhold-after = 99\ntoggle = true\nmanner = \"hold\"\nbind = \"KeyW\"\nforward = { bind = \"KeyX\" }\n[actions.b]\nbind = { on = \"KeyQ\", column = 12 }"),
        @"
    bad.toml:3:10: `shape` cannot be `plan`; did you mean `plane`?
    bad.toml:4:14: `hold-after` wants a number from 0.02 to 10; 99 is not
    bad.toml:10:32: `column` wants a whole number from 1 to 9; 12 is not
    "
    );
}

#[test]
fn broken_toml_is_told_with_line_and_column() {
    insta::assert_snapshot!(mistakes("game = \"x\"\n[actions.horn\nbind = \"KeyH\"\n"), @"bad.toml:2:14: unclosed table, expected `]`");
    insta::assert_snapshot!(mistakes("game = \"x\"\n[actions.horn]\n[actions.horn]\n"), @"bad.toml:3:10: duplicate key");
    insta::assert_snapshot!(mistakes(""), @r#"
    bad.toml:1:1: the sheet needs a name for its game, as in `game = "slack-water"`
    "#);
}

#[test]
fn nonsense_is_refused_without_panic_or_delay() {
    let long = "x".repeat(5 << 20);
    assert!(mistakes(&long).contains("at most 4 MiB"));
    let deep = format!("game = \"x\"\na = {}", "[".repeat(100_000));
    assert!(!mistakes(&deep).is_empty());
    let wide = format!("game = \"x\"\n{}", "[actions.a]\n".repeat(50_000));
    assert!(Sheet::from_toml(&wide).unwrap_err().mistakes().len() <= 100);
    // Words that look like many written as one.
    for word in [
        "qwzrtplkjhgfdsazxcvbnmqwertzuiop".to_owned(),
        "left".repeat(40),
        "lr".repeat(60),
    ] {
        let said = mistakes(&format!("game = \"x\"\n[actions.a]\nbind = \"{word}\""));
        assert!(said.contains("is not an input"), "{said}");
    }
    let parts = mistakes(&format!(
        "game = \"x\"\n[actions.a]\nbind = \"{}\"",
        ["anchor"; 25].join("+")
    ));
    assert_eq!(parts.matches("is not an input").count(), 4, "{parts}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(256)))]

    #[test]
    fn no_text_panics(text in "(game|actions|situations|bind|shape|\\[|\\]|=|\"|\\.|\n|a|\\{|\\}|1|KeyA|,| ){0,40}") {
        let _ = Sheet::from_toml(&text);
    }

    #[test]
    fn a_cut_or_changed_sheet_is_read_or_refused(at in 0..crate::common::DEMO.len(), with in any::<u8>()) {
        let mut bytes = crate::common::DEMO.as_bytes().to_vec();
        bytes[at] = with;
        if let Ok(text) = String::from_utf8(bytes) {
            let _ = Sheet::from_toml(&text);
        }
        if crate::common::DEMO.is_char_boundary(at) {
            let _ = Sheet::from_toml(&crate::common::DEMO[..at]);
        }
    }
}
