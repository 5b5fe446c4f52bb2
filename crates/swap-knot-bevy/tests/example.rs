//! The example, run as a reader would.

#![allow(clippy::unwrap_used)]

use std::process::Command;

#[test]
fn bevy_headless_prints_what_it_says() {
    let mut path = std::env::current_exe().unwrap();
    path.pop();
    path.pop();
    let program = path.join("examples/bevy_headless");
    // Cargo builds the examples of a package before its tests, unless only one test is asked for.
    if !program.exists() {
        let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
        let args = [
            "build",
            "-q",
            "-p",
            "swap-knot-bevy",
            "--example",
            "bevy_headless",
        ];
        assert!(Command::new(cargo).args(args).status().unwrap().success());
    }
    let out = Command::new(program).output().unwrap();
    let said = String::from_utf8(out.stdout).unwrap();
    assert_eq!(said, "hoot at 0.02 s\nheading 30 degrees\n");
}
