//! The example, run as a reader would.

#![allow(clippy::unwrap_used)]

use std::process::Command;

#[test]
fn bevy_headless_prints_what_it_says() {
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    let args = [
        "run",
        "-q",
        "-p",
        "swap-knot-bevy",
        "--example",
        "bevy_headless",
    ];
    let out = Command::new(cargo).args(args).output().unwrap();
    let said = String::from_utf8(out.stdout).unwrap();
    assert_eq!(
        said,
        "hoot at 0.02 s\nheading 30 degrees\n",
        "{}",
        String::from_utf8_lossy(&out.stderr)
    );
}
