//! Profiles on the command line: bind, unbind, reset, changes, why, and the folder of them.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

use std::fs;
use std::path::{Path, PathBuf};

use snapbox::cmd::{Command, cargo_bin};
use snapbox::str;

const SHEET: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/slack-water.toml");

/// A folder with the sheet in it, and the command run there.
struct Desk(tempfile::TempDir);

impl Desk {
    fn new() -> Desk {
        let folder = tempfile::tempdir().unwrap();
        fs::copy(SHEET, folder.path().join("sheet.toml")).unwrap();
        Desk(folder)
    }

    fn path(&self, name: &str) -> PathBuf {
        self.0.path().join(name)
    }

    fn run(&self, args: &str) -> Command {
        let args = args.split_whitespace();
        Command::new(cargo_bin!("swap-knot"))
            .args(args)
            .current_dir(self.0.path())
    }

    /// A command on the profile `ada.toml`.
    fn ada(&self, command: &str, more: &str) -> Command {
        self.run(&format!("{command} sheet.toml --profile ada.toml {more}"))
    }

    fn json(&self, command: Command) -> serde_json::Value {
        let out = command.output().unwrap();
        serde_json::from_slice(&out.stdout).unwrap()
    }
}

fn text(path: &Path) -> String {
    fs::read_to_string(path).unwrap()
}

#[test]
fn a_taken_key_is_refused_with_the_ways_and_then_settled() {
    let desk = Desk::new();
    desk.ada("bind", "cast-off KeyF")
        .assert()
        .code(1)
        .stdout_eq(str![[r#"
conflict: `cast-off` and `lantern` are both on KeyF, in `deck`
  --settle swap   Cast off: F (was Space); Lantern: Space (was F)
  --settle take   Cast off: F (was Space); Lantern: not set (was F)
  --settle share  not offered: the game does not let "Cast off" and "Lantern" share an input
nothing changed; say how with --settle

"#]]);
    assert!(!desk.path("ada.toml").exists());
    let json = desk.json(desk.ada("bind", "cast-off KeyF --json"));
    assert_eq!(json["ways"][0]["settle"], "swap");
    desk.ada("bind", "cast-off KeyF --settle share")
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: the game does not let "Cast off" and "Lantern" share an input

"#]]);
    desk.ada("bind", "cast-off KeyF --settle swap")
        .assert()
        .code(0)
        .stdout_eq(str![[r#"
Cast off: F (was Space)
Lantern: Space (was F)
saved ada.toml

"#]]);
    assert!(text(&desk.path("ada.toml")).contains("[bind.cast-off]\nkeyboard-1 = \"KeyF\""));
    desk.run("check sheet.toml --profile ada.toml")
        .assert()
        .code(0);
}

#[test]
fn what_a_profile_changes_and_why_is_told() {
    let desk = Desk::new();
    desk.ada("changes", "").assert().code(0).stdout_eq(str![[r#"
0 bindings and 0 other settings changed

"#]]);
    desk.ada("bind", "horn KeyJ").assert().code(0);
    desk.ada("unbind", "horn --column keyboard-2")
        .assert()
        .code(0);
    desk.ada("changes", "").assert().code(0).stdout_eq(str![[r#"
action   column       now       instead of
Horn     keyboard-1   J         H
Horn     keyboard-2   nothing   right mouse button
2 bindings and 0 other settings changed

"#]]);
    desk.ada("why", "horn").assert().code(0).stdout_eq(str![[r#"
action   column       now                      comes from   the game's default
Horn     keyboard-1   J                        profile      H
Horn     keyboard-2   nothing                  profile      right mouse button
Horn     gamepad-1    top button of the four   default      top button of the four
Horn     touch-1      horn                     default      horn

"#]]);
    let json = desk.json(desk.ada("why", "horn --json"));
    assert_eq!(json["bindings"][0]["from"], "profile");
    let json = desk.json(desk.ada("changes", "--json"));
    assert_eq!(json["changes"].as_array().unwrap().len(), 2);
    desk.ada("reset", "horn").assert().code(0);
    desk.ada("changes", "").assert().code(0).stdout_eq(str![[r#"
0 bindings and 0 other settings changed

"#]]);
}

#[test]
fn what_must_stay_stays_and_wrong_words_are_told() {
    let desk = Desk::new();
    desk.ada("unbind", "cast-off")
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: "Cast off" must keep a keyboard binding; bind it to something else first

"#]]);
    desk.ada("bind", "cast-off Escape")
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: `Escape` is reserved by the game and cannot be bound

"#]]);
    desk.ada("bind", "walk.upp KeyG")
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: `walk` has no arm `upp`; it has left, right, down, up

"#]]);
    desk.ada("bind", "throttle wheel:up")
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: `wheel:up` comes in notches and cannot work a pull; use a key, a button or a trigger

"#]]);
    fs::write(desk.path("ada.toml"), "format = 1\n[bind\n").unwrap();
    let before = text(&desk.path("ada.toml"));
    desk.ada("bind", "horn KeyJ")
        .assert()
        .code(2)
        .stderr_eq(str![[r#"
error: ada.toml: line 2, column 6: unclosed table, expected `]`

"#]]);
    assert_eq!(
        text(&desk.path("ada.toml")),
        before,
        "what cannot be read is not written over"
    );
    fs::write(desk.path("ada.toml"), "format = 99\n").unwrap();
    desk.ada("changes", "").assert().code(2);
}

#[test]
fn a_folder_of_profiles_is_kept_in_order() {
    let desk = Desk::new();
    fs::create_dir(desk.path("kept")).unwrap();
    desk.ada("bind", "horn KeyJ").assert().code(0);
    fs::copy(desk.path("ada.toml"), desk.path("kept/ada.toml")).unwrap();
    let profiles = |args: &str| desk.run(&format!("profiles --folder kept {args}"));
    for (args, code) in [
        ("list", 0),
        ("copy ada bea", 0),
        ("rename bea cleo", 0),
        ("rename bea dora", 2),
        ("activate cleo", 0),
        ("delete cleo", 0),
        ("undelete cleo", 0),
        ("delete nobody", 2),
        ("copy ada cleo", 2),
    ] {
        profiles(args).assert().code(code);
    }
    let listed = desk.json(desk.run("profiles --folder kept --json list"));
    let names: Vec<&str> = listed["profiles"]
        .as_array()
        .unwrap_or_else(|| panic!("{listed}"))
        .iter()
        .map(|p| p["name"].as_str().unwrap())
        .collect();
    assert_eq!(names, ["ada", "cleo"]);
    // Out to a friend, and in again beside the first.
    let out = profiles("export ada").output().unwrap();
    fs::write(desk.path("gift.toml"), &out.stdout).unwrap();
    let json = profiles("export ada --json").output().unwrap();
    let json: serde_json::Value = serde_json::from_slice(&json.stdout).unwrap();
    assert_eq!(json["text"].as_str().unwrap().as_bytes(), out.stdout);
    profiles("import gift.toml").assert().code(0);
    assert_eq!(
        text(&desk.path("kept/ada--2.toml")),
        text(&desk.path("kept/ada.toml"))
    );
    fs::write(desk.path("gift.toml"), "format = 1\ngame = \"other\"\n").unwrap();
    fs::write(desk.path("bad.toml"), [0xFF, 0xFE]).unwrap();
    profiles("import bad.toml").assert().code(2);
    profiles("import nowhere.toml").assert().code(2);
}

/// Only what is not there is none: a file that cannot be looked at is left as it is, and said so.
#[test]
fn a_profile_that_cannot_be_looked_at_is_not_taken_for_none() {
    let works = std::process::Command::new("strace")
        .args(["-o", "/dev/null", "true"])
        .status();
    if !works.is_ok_and(|s| s.success()) {
        patience::skip("calls are made to fail with strace; ./scripts/test installs it");
        return;
    }
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("ada.toml");
    let text = "format = 1\nsheet = 3\n[bind.horn]\nkeyboard-1 = \"KeyG\"\n";
    let sheet = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/slack-water.toml");
    for edit in [
        vec!["bind", sheet, "lantern", "KeyU"],
        vec!["reset", sheet, "lantern"],
        vec!["ease", sheet, "latch=on"],
    ] {
        for call in ["statx", "openat", "read"] {
            std::fs::write(&file, text).unwrap();
            let mut strace = std::process::Command::new("strace");
            strace.args(["-f", "-o", "/dev/null", "-P"]).arg(&file);
            strace.args(["-e", &format!("inject={call}:error=EIO:when=1")]);
            strace
                .arg(env!("CARGO_BIN_EXE_swap-knot"))
                .arg(edit[0])
                .arg(edit[1]);
            strace.arg("--profile").arg(&file).args(&edit[2..]);
            let out = strace.output().unwrap();
            let said = String::from_utf8_lossy(&out.stderr).into_owned();
            assert_eq!(out.status.code(), Some(2), "{edit:?}, {call}: {said}");
            assert!(said.contains("ada.toml"), "{edit:?}, {call}: {said}");
            assert_eq!(
                std::fs::read_to_string(&file).unwrap(),
                text,
                "{edit:?}, {call}"
            );
        }
    }
}
