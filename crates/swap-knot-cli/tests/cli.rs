//! The command as a developer meets it: what it prints and how it exits.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod common;

use std::path::PathBuf;

use common::swap_knot;
use snapbox::str;

const SHEET: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/slack-water.toml");

/// A file with that text in a folder of the test's own.
fn file(folder: &tempfile::TempDir, text: &str) -> PathBuf {
    let path = folder.path().join("sheet.toml");
    std::fs::write(&path, text).unwrap();
    path
}

#[test]
fn check_is_clean_on_the_demo_sheet() {
    swap_knot(&["check", "demo/slack-water.toml", "--layouts", "us,fr,de"])
        .assert()
        .code(0)
        .stdout_eq(str![[r#"
demo/slack-water.toml: no problem among 73 bindings of 20 actions in 6 situations
3 layouts (us, fr, de): none brings a problem of its own

"#]]);
}

#[test]
fn check_names_actions_key_and_situation_of_a_conflict() {
    let folder = tempfile::tempdir().unwrap();
    let text = std::fs::read_to_string(SHEET)
        .unwrap()
        .replace("\"KeyF\"", "\"KeyE\"");
    let path = file(&folder, &text);
    let path = path.file_name().unwrap().to_str().unwrap();
    swap_knot(&["check", path, "--layouts", "us"])
        .current_dir(folder.path())
        .assert()
        .code(1)
        .stdout_eq(str![[r#"
sheet.toml: 1 problem among 73 bindings of 20 actions in 6 situations
1 layout (us): none brings a problem of its own

conflict: `coil-rope` and `lantern` are both on KeyE, one as a hold and one as a press, in `deck`
  bind one of them to something else, or write `share = ["lantern"]` under `coil-rope` if both may happen

"#]]);
}

#[test]
fn check_tells_line_and_column_of_broken_toml() {
    let folder = tempfile::tempdir().unwrap();
    file(&folder, "game = \"x\"\n[actions.horn\n");
    swap_knot(&["check", "sheet.toml"])
        .current_dir(folder.path())
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: sheet.toml:2:14: unclosed table, expected `]`
2 | [actions.horn
  |              ^

"#]]);
    swap_knot(&["check", "missing.toml"])
        .current_dir(folder.path())
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: missing.toml: No such file or directory (os error 2)

"#]]);
    std::fs::write(folder.path().join("sheet.toml"), b"game = \"x\"\n\xFF").unwrap();
    swap_knot(&["check", "sheet.toml"])
        .current_dir(folder.path())
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: sheet.toml: line 2 is not UTF-8 text

"#]]);
}

#[test]
fn prompt_speaks_for_layout_device_and_profile() {
    let folder = tempfile::tempdir().unwrap();
    let profile = folder.path().join("ada.toml");
    std::fs::write(
        &profile,
        "format = 1\nlayout = \"fr\"\n[bind.cast-off]\nkeyboard-1 = \"KeyQ\"\n",
    )
    .unwrap();
    let profile = profile.to_str().unwrap();
    let sheet = "demo/slack-water.toml";
    let text = "{do:cast-off} to leave";
    swap_knot(&["prompt", sheet, text])
        .assert()
        .code(0)
        .stdout_eq("Press Space to leave\n");
    swap_knot(&["prompt", sheet, text, "--device", "gamepad"])
        .assert()
        .stdout_eq("Press the bottom button of the four to leave\n");
    swap_knot(&["prompt", sheet, text, "--profile", profile])
        .assert()
        .stdout_eq("Press A to leave\n");
    swap_knot(&[
        "prompt",
        sheet,
        text,
        "--profile",
        profile,
        "--layout",
        "us",
    ])
    .assert()
    .stdout_eq("Press Q to leave\n");
}

#[test]
fn wrong_words_are_mended() {
    swap_knot(&[
        "prompt",
        "demo/slack-water.toml",
        "Press {cast-of} to leave",
    ])
    .assert()
    .code(2)
    .stderr_eq(str![[r#"
error: character 8: there is no action `cast-of`; did you mean `cast-off`?
  Press {cast-of} to leave
         ^

"#]]);
    swap_knot(&["prompt", "demo/slack-water.toml", "x", "--layout", "xx"])
        .assert()
        .code(2);
}

#[test]
fn demo_tells_the_whole_story() {
    swap_knot(&["demo"])
        .assert()
        .code(0)
        .stdout_eq(snapbox::file!["demo.txt"]);
}

#[test]
fn types_are_those_of_the_example() {
    let example = concat!(
        env!("CARGO_MANIFEST_DIR"),
        "/../swap-knot/examples/typed_actions/controls.rs"
    );
    swap_knot(&["types", "demo/slack-water.toml"])
        .assert()
        .code(0)
        .stdout_eq(snapbox::Data::read_from(example.as_ref(), None).raw());
}

#[test]
fn replay_tells_what_each_action_did() {
    let trace = "demo/traces/cast-off.trace";
    let first = swap_knot(&["replay", "demo/slack-water.toml", trace])
        .output()
        .unwrap();
    let again = swap_knot(&["replay", "demo/slack-water.toml", trace])
        .output()
        .unwrap();
    assert_eq!(first.stdout, again.stdout);
    let text = String::from_utf8(first.stdout).unwrap();
    assert!(text.contains("2.300 s  began  Cast off\n"), "{text}");

    // A timeline that was kept is compared, and the first difference told.
    let folder = tempfile::tempdir().unwrap();
    let kept = folder.path().join("kept.txt");
    let compare = |text: &str| {
        std::fs::write(&kept, text).unwrap();
        let file = kept.to_str().unwrap();
        swap_knot(&["replay", "demo/slack-water.toml", trace, "--expect", file]).assert()
    };
    compare(&text)
        .code(0)
        .stdout_eq("as expected: [..] lines of [..]kept.txt\n");
    let other = text.replacen("began  Cast off", "began  Horn", 1);
    compare(&other).code(1).stderr_eq(
        "different: [..]kept.txt:[..]: the trace plays otherwise from here on\n  expected  2.300 s  began  Horn\n  played    2.300 s  began  Cast off\n",
    );
    compare("").code(1).stderr_eq(
        "different: [..]kept.txt: the trace plays otherwise from here on\n  expected  nothing more\n  played    [..]\n",
    );

    let bad = folder.path().join("bad.trace");
    std::fs::write(&bad, "0.1 0 KeyW down\n0.2 0 KeyWW up\n").unwrap();
    swap_knot(&["replay", "demo/slack-water.toml", bad.to_str().unwrap()])
        .assert()
        .code(2)
        .stderr_eq("error: [..]bad.trace: line 2: `KeyWW` is not an input; did you mean `KeyW`?\n");
}

#[test]
fn shells_and_packagers_get_completions_and_pages() {
    for shell in ["bash", "zsh", "fish", "powershell", "elvish"] {
        let out = swap_knot(&["completions", shell]).output().unwrap();
        assert!(
            String::from_utf8(out.stdout).unwrap().contains("layouts"),
            "{shell}"
        );
    }
    let page = |args: &[&str]| {
        let out = swap_knot(&[&["man"], args].concat()).output().unwrap();
        String::from_utf8(out.stdout).unwrap()
    };
    assert!(page(&[]).contains(".TH swap-knot 1"));
    assert!(page(&["check"]).contains("\\-\\-layouts"));
    swap_knot(&["man", "fly"]).assert().code(2);
}

#[test]
fn a_mistake_is_shown_in_its_line() {
    let folder = tempfile::tempdir().unwrap();
    file(
        &folder,
        "game = \"é\"\n[actions.horn]\nbind = [\"KeyH\", \"pad:nort\"]\n",
    );
    swap_knot(&["check", "sheet.toml"])
        .current_dir(folder.path())
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: sheet.toml:1:9: `é` cannot be the name of a game; names have 1 to 64 lower-case letters, digits and hyphens, and begin with a letter
1 | game = "é"
  |         ^
error: sheet.toml:3:18: `pad:nort` is not an input; did you mean `pad:north`?
3 | bind = ["KeyH", "pad:nort"]
  |                  ^

"#]]);
}

#[test]
fn check_tells_what_is_asked_of_hands() {
    let check = |args: &[&str]| swap_knot(&[&["check", "demo/slack-water.toml"], args].concat());
    let text = String::from_utf8(check(&["--access"]).output().unwrap().stdout).unwrap();
    for told in [
        "asked of hands: a player can have it worked by a press (`press`)\n  \"Coil the rope\" on keyboard wants a hold of 0.4 s",
        "\"Stow at the bow\" on gamepad wants both hands at once (`pad:shoulder-left+pad:west`)\n",
    ] {
        assert!(text.contains(told), "{text}");
    }
    let plain = String::from_utf8(check(&[]).output().unwrap().stdout).unwrap();
    assert!(!plain.contains("hands"));
    let json = check(&["--access", "--json"]).output().unwrap().stdout;
    let json: serde_json::Value = serde_json::from_slice(&json).unwrap();
    assert_eq!(json["access"][0]["eased-by"], "press");
}

#[test]
fn ease_sets_lists_and_settles() {
    let folder = tempfile::tempdir().unwrap();
    let profile = folder.path().join("ada.toml");
    let ease = |args: &[&str]| {
        let file = [
            "ease",
            "demo/slack-water.toml",
            "--profile",
            profile.to_str().unwrap(),
        ];
        swap_knot(&[&file, args].concat()).assert()
    };
    ease(&[])
        .code(0)
        .stdout_eq("nothing is eased; say what, as in `latch=on` or `hold-after=1.2`\n");
    let args = ["latch=on", "hold-after=1.2"];
    ease(&args).code(0).stdout_eq(
        "Everything: Tap instead of hold in combinations: on (was off)\n\
             Everything: Hold time: 1.2 s (was 0.5 s)\nsaved [..]ada.toml\n",
    );
    ease(&["--action", "coil-rope", "press=on"]).code(0);
    ease(&[])
        .code(0)
        .stdout_eq("all actions  latch=on hold-after=1.2\ncoil-rope  press=on\n");
    ease(&["latch=game", "hold-after=game"]).code(0);
    ease(&[]).code(0).stdout_eq("coil-rope  press=on\n");
    let wrong = [
        (
            "shrug=on",
            "[..]`shrug` cannot be eased; there are toggle, latch, press, [..]\n...",
        ),
        (
            "latch=maybe",
            "[..]say `latch=on`, `latch=off` or `latch=game`\n...",
        ),
        (
            "hold-after=99",
            "[..]say `hold-after=` and 0.02 to 10 seconds, or `hold-after=game`\n...",
        ),
    ];
    for (setting, told) in wrong {
        ease(&[setting]).code(2).stderr_eq(told);
    }
    let told = "error: there is no action `coilrope`; did you mean `coil-rope`?\n";
    ease(&["--action", "coilrope", "press=on"])
        .code(2)
        .stderr_eq(told);
}

/// What cannot be written has not been said, help as any other answer.
#[cfg(target_os = "linux")]
#[test]
fn help_that_cannot_be_written_is_no_success() {
    for args in [
        &["--help"][..],
        &["--version"],
        &["bind", "--help"],
        &["layouts"],
    ] {
        let full = std::fs::OpenOptions::new()
            .write(true)
            .open("/dev/full")
            .unwrap();
        let status = std::process::Command::new(env!("CARGO_BIN_EXE_swap-knot"))
            .args(args)
            .stdout(full)
            .stderr(std::process::Stdio::null())
            .status()
            .unwrap();
        assert_eq!(status.code(), Some(2), "{args:?}");
    }
}
