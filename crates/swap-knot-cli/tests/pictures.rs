//! Prompts, tables and pictures on the command line.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod common;

use std::fs;

use common::{says, swap_knot};
use snapbox::{file, str};

#[test]
fn prompts_are_shown_in_languages_with_alternates_and_spoken() {
    let prompt = |text: &str, more: &[&str]| {
        let args = [&["prompt", "demo/slack-water.toml", text], more].concat();
        says(&args)
    };
    let german = ["--language", "de", "--alternates", "2"];
    assert_eq!(
        prompt("{do:coil-rope}", &german),
        "Halte E oder die linke Maustaste gedrückt\n"
    );
    let spoken = prompt("{stow-1}", &["--spoken", "--layout", "fr"]);
    assert_eq!(spoken, "Ctrl and 1\n");
    let json = prompt("Press {walk} or {fine:touch}", &["--json"]);
    let json: serde_json::Value = serde_json::from_str(&json).unwrap();
    assert_eq!(json["pieces"][1]["glyphs"][0], "KeyW");
    swap_knot(&["prompt", "demo/slack-water.toml", "x", "--language", "tlh"])
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: there are no words for `tlh`; there are en, fr, de, es, es-419, pt-BR, pt-PT, it, nl, cs, pl, ru, uk, tr, ja, ko, zh-Hans, zh-Hant, and those for which a game has texts

"#]]);
}

#[test]
fn tables_are_printed_for_the_manual() {
    let table = ["table", "demo/slack-water.toml"];
    swap_knot(&table)
        .assert()
        .code(0)
        .stdout_eq(file!["table.txt"]);
    let markdown = says(&[&table[..], &["--format", "markdown", "--layout", "fr"]].concat());
    assert!(
        markdown.contains("| Walk to the bow | Z, Up arrow |  |  |\n"),
        "{markdown}"
    );
    let json = says(
        &[
            &table[..],
            &["--format", "json", "--profile", "demo/profiles/ada.toml"],
        ]
        .concat(),
    );
    let json: serde_json::Value = serde_json::from_str(&json).unwrap();
    let cast_off = json
        .as_array()
        .unwrap()
        .iter()
        .find(|r| r["row"] == "cast-off")
        .unwrap();
    assert_eq!(cast_off["bindings"][0]["input"], "KeyF");
}

#[test]
fn texts_are_checked_against_the_sheet() {
    let check = |folder: &str| {
        swap_knot(&[
            "check",
            "demo/slack-water.toml",
            "--layouts",
            "us",
            "--texts",
            folder,
        ])
    };
    check("demo/texts").assert().code(0).stdout_eq(str![[r#"
demo/slack-water.toml: no problem among 73 bindings of 20 actions in 6 situations
1 layout (us): none brings a problem of its own
216 prompts and 1026 titles in 18 languages: all fit the sheet

as in the sheet:
  de: action-horn ("Horn"), action-zoom ("Zoom")
  es: action-zoom ("Zoom")
  es-419: action-zoom ("Zoom")
  fr: action-zoom ("Zoom")
  it: action-zoom ("Zoom")
  pt-BR: action-zoom ("Zoom")
  pt-PT: action-zoom ("Zoom")

"#]]);
    let folder = tempfile::tempdir().unwrap();
    let text = "fine = ok\nleave = {\"{cast-of}\"} now\nmove =\n    { $way ->\n       *[up] {\"{walk.upp}\"}\n    }\nodd = {\n";
    fs::write(folder.path().join("x.ftl"), text).unwrap();
    let out = check(folder.path().to_str().unwrap()).output().unwrap();
    assert_eq!(out.status.code(), Some(1));
    let said = String::from_utf8(out.stdout).unwrap();
    for wanted in [
        "x.ftl:2: `leave`: there is no action `cast-of`; did you mean `cast-off`?",
        "x.ftl:3: `move`: `walk` has no arm `upp`; it has left, right, down, up",
        "not valid in a Fluent file",
    ] {
        assert!(said.contains(wanted), "{said}");
    }
    fs::remove_file(folder.path().join("x.ftl")).unwrap();
    check(folder.path().to_str().unwrap()).assert().code(2);
    // Titles that are lacking, that name nothing, and a language in a folder of its own.
    let english = says(&["table", "demo/slack-water.toml", "--format", "fluent"]);
    fs::write(
        folder.path().join("en.ftl"),
        format!("{english}leave = Leave\n"),
    )
    .unwrap();
    fs::create_dir(folder.path().join("tlh")).unwrap();
    let own = english.replace("action-horn = Horn", "action-hron = Hupe");
    fs::write(
        folder.path().join("tlh/titles.ftl"),
        format!("{own}mouse-left = {{ $x }}\n"),
    )
    .unwrap();
    let out = check(folder.path().to_str().unwrap()).output().unwrap();
    assert_eq!(out.status.code(), Some(1));
    let said = String::from_utf8(out.stdout).unwrap();
    for wanted in [
        "`action-hron` names nothing in the sheet; did you mean `action-horn`?",
        "`mouse-left` takes no `$x`; it takes none",
        "tlh lacks 1 title\n  players read the sheet's instead: action-horn (\"Horn\")",
        "tlh lacks 1 message that other languages have\n  leave",
    ] {
        assert!(said.contains(wanted), "{said}");
    }
    assert!(
        !said.contains("as in the sheet"),
        "the sheet's own language, and one without titles: {said}"
    );
    let texts = [
        "--texts",
        folder.path().to_str().unwrap(),
        "--language",
        "tlh",
    ];
    let table = [
        "why",
        "demo/slack-water.toml",
        "--profile",
        "demo/profiles/ada.toml",
        "horn",
    ];
    swap_knot(&[&table[..], &texts].concat()).assert().code(2);
    fs::write(folder.path().join("tlh/titles.ftl"), "action-horn = Hupe").unwrap();
    let said = says(&[&table[..], &texts].concat());
    assert!(said.contains("Hupe     keyboard-1"), "{said}");
    let brackets = ["table", "demo/slack-water.toml", "--language", "x-brackets"];
    assert!(
        says(&brackets).contains("⟦Cast off⟧"),
        "to find what was never translated"
    );
}

#[test]
fn pictures_are_written_in_the_format_of_their_ending() {
    let folder = tempfile::tempdir().unwrap();
    let path = |name: &str| folder.path().join(name).to_str().unwrap().to_owned();
    let draw = |what: &str, file: &str, more: &[&str]| {
        let file = path(file);
        let args = ["draw", what, "demo/slack-water.toml", "-o", &file];
        says(&[&args[..], more].concat());
        fs::read(file).unwrap()
    };
    let profile = ["--profile", "demo/profiles/ada.toml", "--layout", "fr"];
    if cfg!(feature = "png") {
        assert!(draw("map", "map.png", &profile).starts_with(b"\x89PNG"));
        assert!(draw("card", "card.png", &["--theme", "light"]).starts_with(b"\x89PNG"));
    }
    assert!(draw("map", "fr.svg", &profile).starts_with(b"<svg"));
    assert!(
        draw("map", "map.svg", &["--situation", "helm", "--board", "iso"]).starts_with(b"<svg")
    );
    assert!(draw("card", "card.html", &["--language", "ja"]).starts_with(b"<!DOCTYPE html>"));
    assert!(draw("glyphs", "glyphs.svg", &[]).starts_with(b"<svg"));
    assert!(says(&["draw", "map", "demo/slack-water.toml"]).starts_with("<svg"));
    let wrong = |args: &[&str]| {
        let all = [&["draw", "map", "demo/slack-water.toml"], args].concat();
        let out = swap_knot(&all).output().unwrap();
        assert_eq!(out.status.code(), Some(2));
        String::from_utf8(out.stderr).unwrap()
    };
    match cfg!(feature = "png") {
        true => assert_eq!(
            wrong(&["-o", "x.gif"]),
            "error: cannot write .gif; write .svg or .png\n"
        ),
        false => assert_eq!(
            [wrong(&["-o", "x.gif"]), wrong(&["-o", &path("no.png")])],
            [
                "error: cannot write .gif; write .svg\n",
                "error: this build of swap-knot draws no PNG; add `--features png` to the `cargo run` \
                 or `cargo install` that builds it, or write .svg\n"
            ]
        ),
    }
    let said = wrong(&["--situation", "attic"]);
    assert_eq!(
        said,
        "error: there is no situation `attic`; there are deck, helm, crane, chart, hail, pause\n"
    );
    assert_eq!(
        wrong(&["--scale", "99"]),
        "error: --scale is from 0.1 to 8\n"
    );
    assert!(wrong(&["-o", "/nowhere/x.svg"]).starts_with("error: cannot write /nowhere/x.svg: "));
}

#[test]
fn packs_are_checked_and_written_out() {
    let folder = tempfile::tempdir().unwrap();
    let atlas = folder.path().join("atlas.png");
    let atlas = atlas.to_str().unwrap();
    let glyphs = ["glyphs", "demo/slack-water.toml", "demo/glyphs"];
    let with_atlas = [&glyphs[..], &["--atlas", atlas]].concat();
    let plain = match cfg!(feature = "png") {
        true => &with_atlas[..],
        false => {
            let refused = swap_knot(&with_atlas).output().unwrap();
            assert_eq!(refused.status.code(), Some(2));
            let said = String::from_utf8(refused.stderr).unwrap();
            assert!(
                said.contains("draws no PNG; add `--features png`"),
                "{said}"
            );
            &glyphs
        }
    };
    let out = swap_knot(plain).output().unwrap();
    assert_eq!(
        out.status.code(),
        Some(1),
        "keys have no picture of their own"
    );
    let said = String::from_utf8(out.stdout).unwrap();
    assert!(
        said.contains("no picture KeyW: the built-in drawing does\n"),
        "{said}"
    );
    assert!(
        said.contains("Brass and rope: 7 of 59 inputs drawn, families quayside\n"),
        "{said}"
    );
    if cfg!(feature = "png") {
        assert!(fs::read(atlas).unwrap().starts_with(b"\x89PNG"));
        let table = fs::read_to_string(folder.path().join("atlas.toml")).unwrap();
        assert!(table.contains("\"KeyW\" = ["), "{table}");
    }
    let json = swap_knot(&[&glyphs[..], &["--json"]].concat())
        .output()
        .unwrap();
    let json: serde_json::Value = serde_json::from_slice(&json.stdout).unwrap();
    assert_eq!(json["families"][0], "quayside");
    swap_knot(&["glyphs", "demo/slack-water.toml", "demo"])
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: demo/glyphs.toml: No such file or directory (os error 2); a pack is a folder with a `glyphs.toml` in it

"#]]);
}
