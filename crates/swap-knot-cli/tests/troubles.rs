//! A developer's evening: why nothing happened, what a profile has of its own, what of it becomes the
//! sheet's, and what many players changed. What the page of troubles quotes is what comes back.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

use std::fs;
use std::path::PathBuf;

use snapbox::cmd::{Command, cargo_bin};
use snapbox::str;

const DEMO: &str = include_str!("../../../demo/slack-water.toml");
const GUIDE: &str = include_str!("../../swap-knot/docs/guide/troubles.md");

/// A folder with the sheet in it, and the command run there.
struct Desk(tempfile::TempDir);

impl Desk {
    fn new() -> Desk {
        let desk = Desk(tempfile::tempdir().unwrap());
        desk.write("sheet.toml", DEMO);
        desk
    }

    fn path(&self, name: &str) -> PathBuf {
        self.0.path().join(name)
    }

    fn write(&self, name: &str, text: &str) {
        fs::write(self.path(name), text).unwrap();
    }

    fn run(&self, args: &str) -> Command {
        let args = args.split_whitespace();
        Command::new(cargo_bin!("swap-knot"))
            .args(args)
            .current_dir(self.0.path())
    }

    fn says(&self, args: &str) -> String {
        let out = self.run(args).output().unwrap();
        let said = [out.stdout, out.stderr].concat();
        String::from_utf8(said).unwrap()
    }

    /// What a trace is told of, with some more options.
    fn why(&self, trace: &str, more: &str) -> String {
        self.write("it.trace", trace);
        self.says(&format!("replay sheet.toml it.trace --why {more}"))
    }
}

#[test]
fn ten_troubles_are_each_explained_by_one_command() {
    let desk = Desk::new();
    // Quoted on the page, and said.
    let quoted = |said: &str, wanted: &str| {
        assert!(GUIDE.contains(&format!("`{wanted}`")), "{wanted}");
        assert!(said.contains(wanted), "{wanted}: {said}");
    };
    let covered = "0 situation crane chart\n0.1 1 wheel:up\n";
    quoted(
        &desk.why(covered, ""),
        "Hoist – blocked by: At the map table",
    );
    let spent =
        "0 situation deck\n0.1 0 KeyF down\n0.2 - focus-lost\n0.3 0 KeyF held\n0.4 0 KeyF down\n";
    quoted(&desk.why(spent, ""), "let go first");
    let dead_zone = "0 situation deck\n0.1 2 pad:stick-left 0.1 0\n";
    quoted(&desk.why(dead_zone, ""), "Walk – inside the dead zone");
    let elsewhere = "0 situation deck\n0.5 0 KeyH down\n0.6 0 KeyH up\n";
    quoted(
        &desk.why(elsewhere, ""),
        "Horn – works only here: At the helm",
    );
    desk.write(
        "fine.toml",
        "format = 1\n[bind.fine]\nkeyboard-1 = \"Digit2\"\n",
    );
    let longer = "0 situation crane\n0.1 0 ControlLeft down\n0.2 0 Digit2 down\n";
    let longer = desk.why(longer, "--profile fine.toml");
    quoted(
        &longer,
        "Fine control – a longer combination used it: Stow amidships",
    );
    let toggle = "0 situation deck\n0.1 0 KeyF down\n0.2 0 KeyF up\n0.3 0 KeyF down\n";
    quoted(&desk.why(toggle, ""), "Lantern – switched off");
    let unplugged = "0 situation deck\n0.1 2 pad:west 1\n0.2 2 unplugged\n";
    quoted(
        &desk.why(unplugged, ""),
        "cut short: the device was disconnected",
    );
    desk.write(
        "sheet.toml",
        &DEMO.replace("[actions.horn]", "[actions.horn]\noff = true"),
    );
    let off = "0 situation helm\n0.5 0 KeyH down\n";
    quoted(&desk.why(off, ""), "Horn – switched off in this game");
    // A key that was given away, and a typo.
    let desk = Desk::new();
    desk.write("ada.toml", "format = 1\n[bind.cast-off]\nkeyboard-1 = \"KeyF\"\n[bind.lantern]\nkeyboard-1 = \"Space\"\n");
    let stolen = desk.says("why sheet.toml --profile ada.toml lantern");
    assert!(
        stolen.contains("profile") && stolen.contains("Space"),
        "{stolen}"
    );
    desk.write(
        "typo.toml",
        "game = \"x\"\n[actions.horn]\nbind = \"KeyHH\"\n",
    );
    let typo = desk.says("check typo.toml");
    assert!(
        typo.contains("typo.toml:3:9") && typo.contains("KeyH"),
        "{typo}"
    );
}

#[test]
fn outcomes_come_as_data_for_scripts() {
    let desk = Desk::new();
    let out = desk.why("0 situation crane chart\n0.1 1 wheel:up\n", "--json");
    let all: serde_json::Value = serde_json::from_str(&out).unwrap();
    let all = all["timeline"].as_array().unwrap();
    let covered = all.iter().find(|e| e["outcome"] == "covered").unwrap();
    assert_eq!(covered["row"], "hoist.up");
    assert_eq!(covered["by"], "chart");
    assert_eq!(covered["chord"], "wheel:up");
    assert_eq!(covered["at"], 0.1);
    assert!(
        all.iter()
            .any(|e| e["outcome"] == "worked" && e["row"] == "zoom.up")
    );
    assert!(
        all.iter()
            .any(|e| e["what"] == "began" && e["row"] == "zoom.up")
    );
    desk.run("replay sheet.toml it.trace --json --expect it.trace")
        .assert()
        .code(2);
}

#[test]
fn what_was_tuned_is_shown_and_then_written_into_the_sheet() {
    let desk = Desk::new();
    desk.write(
        "ada.toml",
        "format = 1\nsheet = 3\n[bind.horn]\nkeyboard-1 = \"KeyG\"\n[feel.gamepad]\nsensitivity = 1.2\n[action-ease.horn]\nlatch = true\n[touch.horn]\nsize = 1.5\n",
    );
    desk.run("adopt sheet.toml --profile ada.toml")
        .assert()
        .code(0)
        .stdout_eq(str![[r#"
--- sheet.toml
+++ sheet.toml
@@ -14,4 +14,5 @@
 [feel.gamepad]
 dead-zone = { inner = 0.15, outer = 0.95 }
+sensitivity = 1.2
 
 # What is going on -----------------------------------------------------------------------------
@@ -124,5 +125,6 @@
 about = "Warns whoever is in the way."
 situation = "helm"
-bind = ["KeyH", "mouse:right", "pad:north", "touch:horn"]
+bind = ["KeyG", "mouse:right", "pad:north", "touch:horn"]
+latch = true
 
 # In the crane -----------------------------------------------------------------------------------
left to players: touch.horn.size: a sheet has no default for it; it is each player's own
3 settings would be adopted; --write writes sheet.toml

"#]]);
    assert_eq!(fs::read_to_string(desk.path("sheet.toml")).unwrap(), DEMO);
    desk.run("adopt sheet.toml --profile ada.toml --write")
        .assert()
        .code(0);
    let written = fs::read_to_string(desk.path("sheet.toml")).unwrap();
    assert_eq!(written.lines().count(), DEMO.lines().count() + 2);
    let again = desk.says("adopt sheet.toml --profile ada.toml");
    assert!(
        again.ends_with("nothing to adopt: the sheet says all of it already\n"),
        "{again}"
    );
    desk.run("adopt sheet.toml --profile sheet.toml")
        .assert()
        .code(2);
}

#[test]
fn many_players_are_counted_and_none_is_named() {
    let desk = Desk::new();
    fs::create_dir_all(desk.path("all/more")).unwrap();
    for (n, key) in ["KeyG", "KeyG", "KeyT", "unbound"].into_iter().enumerate() {
        let layout = ["", "layout = \"fr\"\n"][n % 2];
        let text = format!(
            "format = 1\nsheet = 3\ntitle = \"Ada {n}\"\n{layout}[bind.hurry]\nkeyboard-1 = \"{key}\"\n[feel.mouse]\nsensitivity = 1.{n}\n"
        );
        desk.write(&format!("all/more/{n}.toml"), &text);
    }
    desk.write(
        "all/old.toml",
        "format = 1\nsheet = 1\n[bind.unmoor]\nkeyboard-1 = \"KeyG\"\n",
    );
    desk.write("all/none.toml", "format = 1\nsheet = 3\n");
    desk.write("all/broken.toml", "format = [\n");
    desk.write("all/ada.last-good", "format = [\n");
    desk.run("tally sheet.toml all")
        .assert()
        .code(1)
        .stderr_eq(str![[r#"
not counted: all/broken.toml: line 1, column 11: unclosed array, expected `]`

"#]])
        .stdout_eq(str![[r#"
6 profiles of Slack Water, 1 of them without changes
1 of an older version of the game, 1 not read

action     column       changed by   to                                   more on layout   more with preset
Hurry      keyboard-1   66.7 %       G 50.0 %, T 25.0 %, not set 25.0 %   fr: 100 %
Cast off   keyboard-1   16.7 %       G 100.0 %

setting                           set by   to
Everything: Sensitivity (mouse)   66.7 %   1 to 1.3, 1.15 on average
Keyboard layout                   33.3 %   fr 100.0 %

"#]]);
    let out = desk.run("tally sheet.toml all --json").output().unwrap();
    let text = String::from_utf8(out.stdout).unwrap();
    assert!(!text.contains("Ada"));
    let all: serde_json::Value = serde_json::from_str(&text).unwrap();
    assert_eq!(all["profiles"], 6);
    assert_eq!(all["bindings"][0]["to"]["KeyG"], 2);
    assert_eq!(all["bindings"][0]["by-layout"]["fr"], 2);
    assert_eq!(all["settings"][0]["numbers"]["most"], 1.3);
    assert_eq!(all["settings"][0]["numbers"]["average"], 1.15);
    // Whoever takes every key away from an action.
    desk.write("all/bare.toml", "format = 1\nsheet = 3\n[bind.lantern]\nkeyboard-1 = \"unbound\"\ngamepad-1 = \"unbound\"\n");
    let said = desk.says("tally sheet.toml all");
    assert!(
        said.contains("left without a binding") && said.contains("Lantern"),
        "{said}"
    );
    desk.run("tally sheet.toml all/broken.toml")
        .assert()
        .code(2);
}

/// Any batch engine may spread the work: here it is `xargs`, as in the guide.
#[test]
fn tallies_of_parts_add_up_to_the_tally_of_all() {
    let desk = Desk::new();
    fs::create_dir_all(desk.path("all/more")).unwrap();
    for n in 0..40 {
        let key = ["KeyG", "KeyT", "unbound", "KeyX"][n % 4];
        let text = format!(
            "format = 1\nsheet = {}\nlayout = \"{}\"\n[bind.hurry]\nkeyboard-1 = \"{key}\"\n[feel.mouse]\nsensitivity = 1.{n}\n[bind.lantern]\nkeyboard-1 = \"unbound\"\ngamepad-1 = \"unbound\"\n",
            1 + n % 3,
            ["fr", "de", "us"][n % 3],
        );
        desk.write(&format!("all/{}{n}.toml", ["", "more/"][n % 2]), &text);
    }
    desk.write("all/broken.toml", "format = [\n");
    let json = |args: &str| {
        let out = desk.run(args).output().unwrap();
        String::from_utf8(out.stdout).unwrap()
    };
    let whole = json("tally sheet.toml all --json");
    let program = snapbox::cmd::cargo_bin!("swap-knot");
    let script = format!(
        "find all -name '*.toml' -print0 | xargs -0 -n 7 -P 2 sh -c '{} tally sheet.toml --json \"$@\" > part-$$.json' part; true",
        program.display()
    );
    let parts = Command::new("sh")
        .args(["-c", &script])
        .current_dir(desk.path(""))
        .output()
        .unwrap();
    assert!(parts.status.success(), "{parts:?}");
    let mut files: Vec<String> = fs::read_dir(desk.path(""))
        .unwrap()
        .filter_map(|e| e.unwrap().file_name().into_string().ok())
        .filter(|name| name.starts_with("part-"))
        .collect();
    assert_eq!(files.len(), 6);
    files.sort();
    let added = json(&format!(
        "tally sheet.toml --add {} --json",
        files.join(" ")
    ));
    assert_eq!(added, whole);
    // What was added up is a tally as well, and reads as that of all does.
    desk.write("whole.json", &whole);
    let text = |args: &str| String::from_utf8(desk.run(args).output().unwrap().stdout).unwrap();
    assert_eq!(
        text("tally sheet.toml --add whole.json"),
        text("tally sheet.toml all")
    );

    // A list of files on standard input is read as the files are.
    let list: String = (0..40)
        .map(|n| format!("all/{}{n}.toml\n", ["", "more/"][n % 2]))
        .collect();
    let out = desk
        .run("tally sheet.toml - --json")
        .stdin(list)
        .output()
        .unwrap();
    assert!(out.status.success());
    let listed = String::from_utf8(out.stdout).unwrap();
    assert_eq!(listed, whole.replace("\"not-read\": 1", "\"not-read\": 0"));

    desk.write("other.toml", &DEMO.replace("version = 3", "version = 4"));
    desk.run("tally other.toml --add whole.json").assert().code(2).stderr_eq(str![[r#"
error: whole.json: it was counted by the sheet of `slack-water`, version 3, and this one is of `slack-water`, version 4; nothing was added up

"#]]);
    desk.run("tally sheet.toml --add all/0.toml")
        .assert()
        .code(2);
}

/// Whatever a command shows of a player, it shows as the game would play it, and says what came of that.
#[test]
fn every_command_carries_a_profile_over_and_tells_what_came_of_it() {
    let desk = Desk::new();
    let old = "format = 1\ngame = \"dry-land\"\nsheet = 1\n[bind.unmoor]\nkeyboard-1 = \"KeyG\"\n[bind.horn]\nkeyboard-1 = \"KyE\"\n";
    desk.write("old.toml", old);
    let trace = concat!(
        env!("CARGO_MANIFEST_DIR"),
        "/../../demo/traces/cast-off.trace"
    );
    for (command, shows) in [
        ("table sheet.toml", "Cast off             G "),
        ("prompt sheet.toml {cast-off}", "G\n"),
        ("check sheet.toml", ""),
        ("reach sheet.toml", ""),
        ("draw map sheet.toml", "Cast off"),
        ("why sheet.toml cast-off", "G"),
        ("changes sheet.toml", "Cast off"),
        ("adopt sheet.toml", "KeyG"),
        (&format!("replay sheet.toml {trace}"), ""),
    ] {
        let out = desk
            .run(&format!("{command} --profile old.toml"))
            .output()
            .unwrap();
        let (said, told) = (
            String::from_utf8_lossy(&out.stdout),
            String::from_utf8_lossy(&out.stderr),
        );
        assert!(said.contains(shows), "{command}: {said}");
        for note in [
            "another game, `dry-land`",
            "`unmoor` is called `cast-off` now",
            "\"KyE\" is not in force",
        ] {
            // Adopting tells of what it leaves beside what it takes.
            let is_told = told.contains(note) || said.contains(note);
            assert!(is_told, "{command}: {told}");
        }
    }
}
