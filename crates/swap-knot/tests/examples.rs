//! The examples, run as a reader would, with what they print.

#![allow(missing_docs, clippy::unwrap_used, clippy::panic)]

use std::path::PathBuf;
use std::process::Command;

/// What an example prints. Cargo builds the examples of a package before its tests, but not when
/// only one test is asked for.
fn prints(example: &str) -> String {
    let mut path: PathBuf = std::env::current_exe().unwrap();
    path.pop();
    path.pop();
    let program = path.join("examples").join(example);
    if !program.exists() {
        let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
        let args = ["build", "-q", "-p", "swap-knot", "--example", example];
        assert!(Command::new(cargo).args(args).status().unwrap().success());
    }
    let out = Command::new(&program).output();
    let out = out.unwrap_or_else(|e| panic!("{}: {e}", program.display()));
    assert!(
        out.status.success(),
        "{}",
        String::from_utf8_lossy(&out.stderr)
    );
    String::from_utf8(out.stdout).unwrap()
}

#[test]
fn first_steps() {
    insta::assert_snapshot!(prints("first_steps"), @"
    Press Space to leave
    cast off, lantern lit
    Press the bottom button of the four to leave
    ");
}

#[test]
fn two_seats() {
    insta::assert_snapshot!(prints("two_seats"));
}

#[test]
fn fixed_step() {
    insta::assert_snapshot!(prints("fixed_step"), @"
    at 144 pictures a second: turned 55.0 degrees, thrown after 0.42 s
    at  60 pictures a second: turned 55.0 degrees, thrown after 0.42 s
    at  30 pictures a second: turned 55.0 degrees, thrown after 0.42 s
    at   7 pictures a second: turned 55.0 degrees, thrown after 0.42 s
    the bot: turned 4.0 degrees, thrown after 0.25 s
    rolled back: turned 0.0 degrees, thrown after 0.07 s
    ");
}

#[test]
fn from_hard_wired() {
    let text = prints("from_hard_wired");
    let barge = |line: &str| line.split_once("Barge").unwrap().1.to_owned();
    let lines: Vec<&str> = text.lines().collect();
    assert_eq!(barge(lines[0]), barge(lines[1]), "both loops do the same");
    assert_eq!(lines[2], "and it says: Press H to hoot, A D to steer");
}

#[test]
fn typed_actions() {
    assert!(!prints("typed_actions").is_empty());
}
