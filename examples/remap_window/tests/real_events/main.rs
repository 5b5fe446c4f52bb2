//! The window under its own X server, with real key and mouse events.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod play;
mod screen;
mod starter;

use std::path::Path;
use std::process::Command;

use desktop::{Desktop, Window, skip_without_display};
use patience::wait_for_file;

/// X key codes, which are those of Linux plus 8.
const ESCAPE: u8 = 9;
const BACKSPACE: u8 = 22;
const TAB: u8 = 23;
const KEY_Q: u8 = 24;
const KEY_W: u8 = 25;
const ENTER: u8 = 36;
const KEY_F: u8 = 41;
const KEY_G: u8 = 42;
const KEY_H: u8 = 43;
const SEMICOLON: u8 = 47;
const KEY_N: u8 = 57;
const SPACE: u8 = 65;
const UP: u8 = 111;
const RIGHT: u8 = 114;
const DOWN: u8 = 116;
const DELETE: u8 = 119;

trait Opens {
    /// Opens the window example, with profiles in a folder.
    fn open(&self, profiles: &Path) -> Window;

    /// The same with options.
    fn open_with(&self, profiles: &Path, args: &[&str]) -> Window;
}

impl Opens for Desktop {
    fn open(&self, profiles: &Path) -> Window {
        self.open_with(profiles, &[])
    }

    fn open_with(&self, profiles: &Path, args: &[&str]) -> Window {
        let mut program = Command::new(env!("CARGO_BIN_EXE_remap_window"));
        program.args(["--report", "--simulate", "--profiles"]);
        program.arg(profiles).args(args);
        let mut window = self.run(program);
        window.wait_for_prompt("to leave");
        window.take_focus();
        window.wait_for_focus(true);
        window
    }
}

/// A desktop and a folder for profiles, where there can be a display.
fn desk() -> Option<(Desktop, tempfile::TempDir)> {
    let there = !skip_without_display();
    there.then(|| (Desktop::start(), tempfile::tempdir().unwrap()))
}

const CAST_OFF: &str = "cell cast-off keyboard-1";

fn push(window: &mut Window, button: &str) {
    let [down, up] = [1, 0].map(|value| format!("0 9 pad:{button} {value}"));
    window.simulate_all(&[&down, &up]);
}

/// Pushes a button until the focus is somewhere.
fn go(window: &mut Window, button: &str, to: &str) {
    step(window, to, |window| push(window, button));
}

/// Presses a key until the focus is somewhere.
fn go_by_key(window: &mut Window, key: u8, to: &str) {
    step(window, to, |window| {
        window.press(key);
        window.settle();
    });
}

fn step(window: &mut Window, to: &str, once: impl Fn(&mut Window)) {
    for _ in 0..60 {
        if window.last("focus: ") == to {
            return;
        }
        once(window);
    }
    panic!("{to} is not reached, {} is", window.last("focus: "));
}

fn with_control(window: &Window, key: u8) {
    const CONTROL: u8 = 37;
    window.hold(CONTROL);
    window.press(key);
    window.let_go(CONTROL);
}

const KEY_S: u8 = 39;
