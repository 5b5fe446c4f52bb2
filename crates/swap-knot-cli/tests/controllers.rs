//! What was taught of controllers, on the command line.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

use snapbox::cmd::{Command, cargo_bin};
use snapbox::str;

const DEMO: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");

fn run(args: &[&str]) -> Command {
    Command::new(cargo_bin!("swap-knot"))
        .args(args)
        .current_dir(DEMO)
}

#[test]
fn what_was_taught_is_taken_in_listed_given_and_forgotten() {
    let folder = tempfile::tempdir().unwrap();
    let there = folder.path().to_str().unwrap();
    let run = |args: &[&str]| {
        let all: Vec<&str> = ["controllers", "--folder", there]
            .into_iter()
            .chain(args.iter().copied())
            .collect();
        run(&all)
    };
    run(&["list"])
        .assert()
        .success()
        .stdout_eq("nothing was taught yet\n");
    run(&["import", "controllers.toml"])
        .assert()
        .success()
        .stdout_eq("took in 2 kinds of controllers\n");
    run(&["list"]).assert().success().stdout_eq(str![[r#"
controller   is
1209:5a03    a gamepad, 14 parts taught
1209:5a04    no gamepad

"#]]);
    let json = run(&["list", "--json"]).output().unwrap().stdout;
    let json: serde_json::Value = serde_json::from_slice(&json).unwrap();
    assert_eq!(json["controllers"][0]["parts"], 14);
    let given = run(&["export", "1209:5a04"]).output().unwrap().stdout;
    assert_eq!(
        String::from_utf8(given).unwrap(),
        "format = 1\n\n[controllers.\"1209:5a04\"]\ngamepad = false\n"
    );
    run(&["forget", "1209:5a04"]).assert().success();
    run(&["forget", "1209:5a04"])
        .assert()
        .code(2)
        .stderr_eq("error: nothing was taught of 1209:5a04; there is 1209:5a03\n");
    run(&["forget", "flightstick"]).assert().code(2);
    // What is no such file is told with its place, and changes nothing.
    run(&["import", "marks.toml"]).assert().code(2);
    // Nor is a damaged file taken for an empty one.
    std::fs::write(folder.path().join("mappings"), "[controllers").unwrap();
    let told = run(&["list"]).output().unwrap();
    assert_eq!(told.status.code(), Some(2));
    assert!(String::from_utf8(told.stderr).unwrap().contains("damaged"));
    let told = run(&["import", "controllers.toml"]).output().unwrap();
    assert!(told.status.success());
    assert!(
        String::from_utf8(told.stderr)
            .unwrap()
            .contains("mappings.damaged-1")
    );
}

#[test]
fn a_trace_of_an_unknown_controller_is_played_as_the_pad_that_it_was_taught_to_be() {
    let trace = ["replay", "slack-water.toml", "traces/boatyard.trace"];
    run(&trace).assert().success().stdout_eq(str![[r#"
traces/boatyard.trace on Slack Water, layout us
     0.000 s         situation: deck
     1.300 s         the player is using: other
     1.500 s         situation: helm
13 lines of trace played

"#]]);
    let taught: Vec<&str> = trace
        .into_iter()
        .chain(["--mappings", "controllers.toml"])
        .collect();
    run(&taught).assert().success().stdout_eq(str![[r#"
traces/boatyard.trace on Slack Water, layout us
     0.000 s         situation: deck
     0.500 s  began  Walk  (0.00, 0.56)
     0.500 s         the player is using: gamepad
     1.100 s  ended  Walk, after 0.60 s
     1.300 s  began  Cast off
     1.400 s  ended  Cast off, after 0.10 s
     1.500 s         situation: helm
     1.700 s  began  Throttle
     2.510 s  ended  Throttle, after 0.81 s
13 lines of trace played

"#]]);
}
