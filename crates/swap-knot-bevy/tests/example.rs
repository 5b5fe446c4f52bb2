//! The example, run as a reader would.

#![allow(clippy::unwrap_used)]

use std::process::Command;

/// What an example prints.
fn said(example: &str) -> String {
    let mut path = std::env::current_exe().unwrap();
    path.pop();
    path.pop();
    let program = path.join("examples").join(example);
    // Cargo builds the examples of a package before its tests, unless only one test is asked for.
    if !program.exists() {
        let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
        let args = ["build", "-q", "-p", "swap-knot-bevy", "--example", example];
        assert!(Command::new(cargo).args(args).status().unwrap().success());
    }
    let out = Command::new(program).output().unwrap();
    String::from_utf8(out.stdout).unwrap()
}

#[test]
fn the_examples_print_what_they_say() {
    assert_eq!(
        said("bevy_headless"),
        "hoot at 0.02 s\nheading 30 degrees\n"
    );
    // Bo walks on when the menu closes; Ada's new key works at once, and her walk goes on.
    let story = [
        "Ada coils the rope at [0.0, 8.0]",
        "Bo opens the menu",
        "Bo closes the menu",
        "Bo coils the rope at [17.0, 0.0]",
        "Bo: left stick: Walk",
        "Bo: right center button: Menu",
        "Bo: left button of the four: Coil the rope – blocked by: Menu",
        "Bo: right center button: Menu",
        "Bo: left stick: Walk",
        "Bo: left button of the four: Coil the rope – waiting for what comes next",
        "Bo: left button of the four: Coil the rope",
        "Ada coils the rope at [0.0, 31.0]",
        "kept for Ada: Coil the rope on KeyG",
    ];
    assert_eq!(said("two_sailors").lines().collect::<Vec<_>>(), story);
}
