//! Layouts on the command line: what breaks where, boards, reach.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod common;

use common::swap_knot;
use snapbox::{file, str};

#[test]
fn a_sheet_made_to_be_bad_shows_each_finding_once() {
    let layouts = "us,fr,de,us-dvorak,es";
    swap_knot(&["check", "demo/checks/scattered.toml", "--layouts", layouts])
        .assert()
        .code(1)
        .stdout_eq(file!["scattered.txt"]);
    let out = swap_knot(&["check", "demo/checks/scattered.toml", "--json"])
        .output()
        .unwrap();
    let json: serde_json::Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(json["layouts"].as_array().unwrap().len(), 60);
    assert_eq!(json["on-some-layouts"][0]["kind"], "scattered");
}

#[test]
fn the_demo_sheet_is_clean_where_most_players_live() {
    swap_knot(&["check", "demo/slack-water.toml"])
        .assert()
        .code(0)
        .stdout_eq(str![[r#"
demo/slack-water.toml: no problem among 73 bindings of 20 actions in 6 situations
60 layouts: none brings a problem of its own

"#]]);
    swap_knot(&["check", "demo/slack-water.toml", "--layouts", "all"])
        .assert()
        .code(1)
        .stdout_eq(str![[r#"
demo/slack-water.toml: 1 problem among 73 bindings of 20 actions in 6 situations
228 layouts: 1 of them brings problems of its own

conflict: `map-table` is on letter:m and `horn` on KeyH, the same key, in `helm`
  on layout us-colemak-dh
  bind one of them to another place; the same on all these layouts and free are `F7`, `F6`, `F8`

good to know:
  `map-table` is on letter:m, which is typed only with AltGr (on layout ng-hausa)

"#]]);
}

#[test]
fn layouts_are_drawn_compared_and_searched() {
    swap_knot(&["layouts", "fr"])
        .assert()
        .code(0)
        .stdout_eq(file!["fr.txt"]);
    swap_knot(&["layouts", "ru", "us"])
        .assert()
        .code(0)
        .stdout_eq(file!["ru-us.txt"]);
    swap_knot(&["layouts", "--where", "letter:q"])
        .assert()
        .code(0)
        .stdout_eq(file!["where-q.txt"]);
    let all = swap_knot(&["layouts"]).output().unwrap();
    let text = String::from_utf8(all.stdout).unwrap();
    assert_eq!(text.lines().count(), 230);
    assert!(text.contains("us-colemak-dh"), "{text}");
    let json = swap_knot(&["layouts", "fr", "--json"]).output().unwrap();
    let json: serde_json::Value = serde_json::from_slice(&json.stdout).unwrap();
    assert_eq!(json["keys"]["KeyQ"][0], "a");
    assert_eq!(json["keys"]["BracketLeft"][0], "dead:^");
    let file = swap_knot(&["layouts", "fr", "--toml"]).output().unwrap();
    let file = String::from_utf8(file.stdout).unwrap();
    assert_eq!(swap_knot::Layout::from_toml(&file).unwrap().name(), "fr");
    swap_knot(&["layouts", "fr", "de", "--toml"])
        .assert()
        .code(2);
}

#[test]
fn a_layout_or_key_that_is_not_there_is_told() {
    swap_knot(&["layouts", "frr"])
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: invalid value 'frr' for '[NAME]...': there is no layout `frr`; there are `fr`, `fr-us`, `fr-oss`, `fr-mac`, `fr-bepo`; `swap-knot layouts` lists them

For more information, try '--help'.

"#]]);
    swap_knot(&["layouts", "--where", "Escape"])
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: `Escape` is the same on every layout; ask for a letter (`letter:m`) or a key that writes (`KeyQ`)

"#]]);
}

#[test]
fn one_hand_is_told_and_the_board_mirrored() {
    swap_knot(&["reach", "demo/slack-water.toml"])
        .assert()
        .code(0)
        .stdout_eq(file!["reach.txt"]);
    swap_knot(&["reach", "demo/slack-water.toml", "--mirror", "other-hand"])
        .assert()
        .code(0)
        .stdout_eq(file!["mirror.txt"]);
    swap_knot(&["reach", "demo/slack-water.toml", "--mirror", "Other Hand"])
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: `Other Hand` cannot name a preset; use a-z, 0-9 and `-`

"#]]);
    let out = swap_knot(&["reach", "demo/slack-water.toml", "--json"])
        .output()
        .unwrap();
    let json: serde_json::Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(json["one-hand"][0]["hand"], "left");
}
