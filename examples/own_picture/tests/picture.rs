//! A game's own drawing under an X server of its own: another skin, the same keys and pointing.

#![allow(clippy::unwrap_used, clippy::panic, dead_code)]

#[path = "../../remap_window/tests/desktop/mod.rs"]
mod desktop;

use std::process::Command;
use std::time::Duration;

use desktop::{Desktop, skip_without_display};

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
    program.arg(profiles.path());
    let mut window = desktop.run(program);
    window.take_focus();
    std::thread::sleep(Duration::from_millis(500));
    // From the first row down to Hurry; then a click on the first button, which applies.
    window.press_all(&[DOWN; 5]);
    window.press_all(&[ENTER, KEY_H]);
    let file = profiles.path().join("skipper.toml");
    let kept = || std::fs::read_to_string(&file).unwrap_or_default();
    std::thread::sleep(Duration::from_millis(300));
    assert_eq!(kept(), "");
    for _ in 0..40 {
        window.click_at((30, 48));
        std::thread::sleep(Duration::from_millis(100));
        if kept().contains("keyboard-1 = \"KeyH\"") {
            return;
        }
    }
    panic!("nothing was kept: {}", kept());
}
