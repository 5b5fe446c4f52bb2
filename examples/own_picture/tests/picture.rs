//! A game's own drawing under an X server of its own: another skin, the same keys and pointing.

#![allow(clippy::unwrap_used)]

use std::process::Command;

use desktop::{Desktop, skip_without_display};
use patience::wait_for_file;

#[test]
fn it_is_worked_with_keys_and_by_pointing() {
    if skip_without_display() {
        return;
    }
    const ENTER: u8 = 36;
    const DOWN: u8 = 116;
    const KEY_H: u8 = 43;
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();
    let mut program = Command::new(env!("CARGO_BIN_EXE_own_picture"));
    program.arg(profiles.path()).arg("--report");
    let mut window = desktop.run(program);
    window.take_focus();
    window.wait_for("has the focus: yes");
    window.wait_for("cell walk keyboard-1: works with W, S, A, D");
    // From the first row down to Hurry; then a click on the button that applies.
    for row in ["walk.up", "walk.down", "walk.left", "walk.right", "hurry"] {
        window.press(DOWN);
        window.wait_for_start(&format!("cell {row} keyboard-1: "));
    }
    window.press(ENTER);
    window.wait_for_start("answer ");
    window.press(KEY_H);
    window.wait_for("cell hurry keyboard-1: H");
    let file = profiles.path().join("skipper.toml");
    assert!(!file.exists(), "nothing is kept before it is applied");
    let there = window.last("place tool apply: ").to_owned();
    let (x, y) = there.split_once(' ').unwrap();
    window.click_at((x.parse().unwrap(), y.parse().unwrap()));
    wait_for_file(&file, "keyboard-1 = \"KeyH\"");
}
