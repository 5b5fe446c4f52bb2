//! What `check` says of what a sheet may have forgotten, and of presets that tie a knot.

#![allow(clippy::unwrap_used)]

mod common;

use common::swap_knot;
use snapbox::str;

const SHEET: &str = include_str!("../../../demo/checks/forgotten.toml");

/// What `check` says of a sheet, and its exit code.
fn check(sheet: &str, more: &[&str]) -> (Option<i32>, String) {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("sheet.toml");
    std::fs::write(&path, sheet).unwrap();
    let path = path.to_str().unwrap();
    let out = swap_knot(&[&["check", path], more].concat())
        .output()
        .unwrap();
    let said = String::from_utf8(out.stdout).unwrap();
    (out.status.code(), said.replace(path, "sheet.toml"))
}

#[test]
fn nothing_is_forgotten_in_silence_and_a_preset_that_ties_a_knot_fails() {
    let (code, said) = check(SHEET, &[]);
    assert_eq!(code, Some(1));
    snapbox::assert_data_eq!(
        said,
        str![[r#"
sheet.toml: 1 problem among 13 bindings of 7 actions in 4 situations
60 layouts: none brings a problem of its own

preset: `walk.left` and `cast-off` are both on KeyA, in `deck`
  with `left` chosen, and not without it

good to know:
  `anchor` has no binding; players find it empty until they bind it
  no keyboard binding: `browse`; most actions have one
  no keyboard binding: `walk.right`; the other arms have one
  no gamepad binding: `bell`; most actions have one
  `horn`, `bell` read "Hoot" under the same heading; give each a `title`
  no action is live in `hold` of its own; say `situation = "hold"` under those that are
  `dive` wants taps of Shift, and five in a row open a window on Windows (Sticky Keys)
  `dive` wants a double-tap of pad:trigger-left, which is harder than with a button
  `browse` stays silent after `walk` until pad:stick-left has been let go (`resume = false`)
  `horn` is on Alt+Tab, which switches windows on Windows and Linux
  `bell` is on Meta+KeyB, which is kept for the system on Windows and Linux

"#]]
    );
    // Without the preset, all of it is good to know and nothing fails.
    let (code, said) = check(SHEET.split("[presets").next().unwrap(), &[]);
    assert_eq!(code, Some(0));
    assert!(
        said.contains("no problem") && said.contains("`anchor` has no binding"),
        "{said}"
    );

    let (_, json) = check(SHEET, &["--json"]);
    let json: serde_json::Value = serde_json::from_str(&json).unwrap();
    assert_eq!(json["problems"], 1);
    assert_eq!(json["presets"][0]["preset"], "left");
    assert_eq!(json["forgotten"].as_array().unwrap().len(), 11);
}

#[test]
fn what_is_there_is_not_called_forgotten() {
    let (code, said) = check(
        "game = \"slack-water\"\n\
         [actions.walk]\nshape = \"plane\"\nbind = \"pad:stick-left\"\nup = { bind = \"KeyW\" }\n\
         left = { bind = \"KeyA\" }\ndown = { bind = \"KeyS\" }\nright = { bind = \"KeyD\" }\n\
         [actions.run]\nbind = [\"ShiftLeft\", \"pad:trigger-left\"]\n\
         [actions.secret]\noff = true\n",
        &[],
    );
    assert_eq!(code, Some(0));
    assert!(!said.contains("good to know"), "{said}");
}

/// What is good to know fails where that is wished for, until the sheet says by its name that it is known; and
/// what is known and not so is told.
#[test]
fn strictly_what_is_good_to_know_fails_unless_it_is_known() {
    let sheet = SHEET.split("[presets").next().unwrap();
    let (code, said) = check(sheet, &["--strict"]);
    assert_eq!(code, Some(1));
    assert!(said.starts_with("sheet.toml: 11 problems among"), "{said}");
    let names = said
        .lines()
        .filter_map(|l| l.trim().strip_prefix("known = ["));
    let names: Vec<&str> = names.map(|names| names.trim_end_matches(']')).collect();
    assert_eq!((names.len(), names[0]), (11, "\"no-binding:anchor\""));
    // Taken over as they are printed, all of it is known.
    let known = |names: &str| {
        let head = format!("game = \"slack-water\"\nknown = [{names}]");
        sheet.replacen("game = \"slack-water\"", &head, 1)
    };
    let (code, said) = check(&known(&names.join(", ")), &["--strict"]);
    assert_eq!(code, Some(0), "{said}");
    assert!(
        said.ends_with("\n12 more are known by the sheet\n"),
        "{said}"
    );
    // All but one, and one that is not so.
    let (code, said) = check(
        &known(&format!("{}, \"no-gamepad:nobody\"", names[1..].join(", "))),
        &["--strict"],
    );
    assert_eq!(code, Some(1));
    assert!(said.starts_with("sheet.toml: 2 problems among"), "{said}");
    let gone = "`no-gamepad:nobody` is said to be known, and is not so";
    assert!(
        said.contains("known = [\"no-binding:anchor\"]") && said.contains(gone),
        "{said}"
    );
    // Otherwise nothing fails by it.
    let (code, said) = check(&known("\"no-gamepad:nobody\""), &[]);
    assert_eq!(code, Some(0));
    assert!(
        said.contains(gone) && said.contains("good to know:"),
        "{said}"
    );
}
