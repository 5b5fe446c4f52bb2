//! The window under its own X server, with real key and mouse events.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod desktop;

use std::path::Path;
use std::process::Command;

use desktop::{Desktop, Window, skip_without_display};

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
        window
    }
}

/// A desktop and a folder for profiles, where there can be a display.
fn desk() -> Option<(Desktop, tempfile::TempDir)> {
    let there = !skip_without_display();
    there.then(|| (Desktop::start(), tempfile::tempdir().unwrap()))
}

const CAST_OFF: &str = "cell cast-off keyboard-1";

#[test]
fn a_taken_key_is_swapped_kept_and_follows_the_layout() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };

    let mut window = desktop.open(profiles.path());
    window.open_screen();
    window.click(CAST_OFF);
    window.wait_until(CAST_OFF, "press…");
    window.press(KEY_F);
    window.wait_until("dialog", "F is taken by “Lantern”");
    window.click("answer 1");
    window.wait_until(CAST_OFF, "F");
    window.wait_until("cell lantern keyboard-1", "Space");
    // What has to be pressed lost the key that it had: the new one has to show that it works.
    window.click("tool apply");
    window.wait_until("dialog", "Keep these controls?");
    assert!(!window.said("saved"));
    window.press(KEY_F);
    window.wait_for("saved");
    assert!(
        !window.said("began: cast-off"),
        "nothing is played meanwhile"
    );
    window.press(ESCAPE);
    window.wait_until("screen", "closed");

    window.press(KEY_F);
    window.wait_for("began: cast-off");
    window.press(SPACE);
    window.wait_for("began: lantern");
    window.close();

    let mut window = desktop.open(profiles.path());
    window.wait_for_prompt("Press F to leave");
    // Nothing was clicked yet: the server may give the window its keys a moment later.
    window.press_until(KEY_F, "began: cast-off");

    window.wait_for_prompt("W A S D to walk");
    desktop.set_layout("fr");
    window.press_until(KEY_Q, "layout: fr");
    window.wait_for_prompt("Z Q S D to walk");
    // `m` is right of `l` on French keyboards.
    window.press(SEMICOLON);
    window.wait_for("began: map-table");
}

#[test]
fn controls_that_nobody_confirms_are_not_kept() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    let mut window = desktop.open(profiles.path());
    window.open_screen();
    let ask = |window: &mut Window| {
        window.click("tool apply");
        window.wait_until("dialog", "Keep these controls?");
    };
    window.click(CAST_OFF);
    window.wait_until(CAST_OFF, "press…");
    window.press(KEY_G);
    window.wait_until(CAST_OFF, "G");
    ask(&mut window);
    // The old key does not confirm them, and the time runs out.
    window.press(SPACE);
    window.wait_until("dialog", "");
    window.wait_until(
        "message",
        "The old controls stay. Your changes are still here, not applied.",
    );
    ask(&mut window);
    // Killed while it counts.
    window.close();
    assert_eq!(std::fs::read_dir(profiles.path()).unwrap().count(), 0);
    let mut window = desktop.open(profiles.path());
    window.wait_for_prompt("Press Space to leave");
    window.press_until(SPACE, "began: cast-off");
}

#[test]
fn escape_leaves_a_cell_as_it_is_and_leaving_asks() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    const LANTERN: &str = "cell lantern keyboard-1";
    let mut window = desktop.open(profiles.path());
    window.open_screen();
    window.click(LANTERN);
    window.wait_until(LANTERN, "press…");
    window.press(ESCAPE);
    window.wait_until(LANTERN, "F");
    // With the mouse alone: out by pointing, and cleared.
    window.click(LANTERN);
    window.wait_until(LANTERN, "press…");
    window.click("answer 1");
    window.wait_until(LANTERN, "F");
    window.click(LANTERN);
    window.wait_until(LANTERN, "press…");
    window.click("answer 2");
    window.wait_until(LANTERN, "—");
    window.click("tool undo");
    window.wait_until(LANTERN, "F");

    window.click(LANTERN);
    window.wait_until(LANTERN, "press…");
    window.press(KEY_N);
    window.wait_until(LANTERN, "N");
    window.ask_to_close();
    window.wait_until("dialog", "Leave with these changes?");
    window.click("answer 3");
    window.wait_until("dialog", "");
    window.press(ESCAPE);
    window.wait_until("dialog", "Leave with these changes?");
    window.click("answer 2");
    window.wait_until("screen", "closed");
    assert_eq!(std::fs::read_dir(profiles.path()).unwrap().count(), 0);
    window.press(KEY_F);
    window.wait_for("began: lantern");
}

#[test]
fn rows_are_searched_by_title_and_by_key() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    let mut window = desktop.open(profiles.path());
    window.open_screen();
    window.wait_until("rows", "32");
    window.click("tool search");
    window.wait_until("dialog", "Search");
    const KEY_O: u8 = 32;
    const KEY_R: u8 = 27;
    window.press_all(&[KEY_H, KEY_O, KEY_R, KEY_N]);
    window.wait_until("rows", "1");
    window.press(ENTER);
    window.wait_until("focus", "cell horn keyboard-1");
    window.click("tool show-all");
    window.wait_until("rows", "32");
    // W walks to the bow, opens the throttle and hoists.
    window.click("tool find");
    window.wait_until("dialog", "Press an input to see what is on it");
    window.press(KEY_W);
    window.wait_until("rows", "3");
    window.click("tool show-all");
    // Every button of a mouse and its wheel.
    for (button, name) in [
        (8, "on the back mouse button"),
        (10, "on mouse button 6"),
        (4, "on the wheel up"),
    ] {
        window.click("tool find");
        window.wait_until("dialog", "Press an input to see what is on it");
        window.button(button);
        window.wait_until("section", name);
        window.click("tool show-all");
    }
}

#[test]
fn the_layout_is_found_at_the_start_and_followed_while_it_runs() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    const KEY_Y: u8 = 29;
    const KEY_M: u8 = 58;
    desktop.set_layout("fr");
    let mut window = desktop.open(profiles.path());
    // Nothing is pressed yet: the display says so.
    assert_eq!(window.last("layout: "), "fr");
    window.wait_for_prompt("Z Q S D to walk");

    desktop.set_layout("de");
    window.press_until(KEY_Y, "layout: de");
    window.wait_for_prompt("W A S D to walk");
    window.press(KEY_M);
    window.wait_for("began: map-table");

    desktop.set_layout("ru");
    window.press_until(KEY_Y, "layout: ru");
    // Both scripts are printed on the keys; the place stays where it was.
    window.wait_for_prompt("Ц/W Ф/A Ы/S В/D to walk");
    window.press(KEY_M);
    window.wait_for("began: map-table");
    window.press(KEY_W);
    window.wait_for("began: walk.up");
    window.open_screen();
    window.wait_until("cell walk.up keyboard-1", "Ц/W");
    window.wait_until("cell map-table keyboard-1", "M");
}

#[test]
fn what_dead_keys_compose_moves_no_layout() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    const BRACKET_LEFT: u8 = 34;
    const KEY_E: u8 = 26;
    for layout in ["be", "fr", "de"] {
        desktop.set_layout(layout);
        let mut window = desktop.open(profiles.path());
        window.press_until(KEY_Q, &format!("layout: {layout}"));
        let dead = if layout == "de" { 21 } else { BRACKET_LEFT };
        for key in [KEY_E, KEY_Q, KEY_E] {
            window.press_all(&[dead, key]);
        }
        std::thread::sleep(std::time::Duration::from_millis(300));
        assert_eq!(window.last("layout: "), layout);
        window.close();
    }
}

#[test]
fn the_screen_is_worked_with_the_keyboard_alone_and_all_is_kept() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    let mut window = desktop.open(profiles.path());
    window.open_screen();
    // From the first row down to Hurry; cleared, and back.
    window.press_all(&[DOWN; 5]);
    window.wait_until("focus", "cell hurry keyboard-1");
    window.press(DELETE);
    window.wait_until("cell hurry keyboard-1", "—");
    window.press(BACKSPACE);
    window.wait_until("cell hurry keyboard-1", "Left Shift");
    window.press(ENTER);
    window.wait_until("cell hurry keyboard-1", "press…");
    window.press(KEY_H);
    window.wait_until("cell hurry keyboard-1", "H");
    // What must keep a binding says so.
    window.press_all(&[UP, UP, UP, UP, UP, RIGHT, DELETE]);
    let told = "“Walk” always needs a binding (Gamepad). Bind it to something else first.";
    window.wait_until("message", told);
    // The page of feel: a number, and a preset on the page before it.
    window.press(TAB);
    window.wait_until("focus", "about");
    while window.last("focus: ") != "dial mouse sensitivity" {
        window.press(DOWN);
    }
    window.press_all(&[RIGHT; 2]);
    window.wait_until("dial mouse sensitivity", "1.21");
    window.press(ESCAPE);
    window.wait_until("dialog", "Leave with these changes?");
    window.press(ENTER);
    window.wait_until("screen", "closed");
    window.wait_for("saved");
    window.close();
    let mut window = desktop.open(profiles.path());
    window.open_screen();
    window.wait_until("cell hurry keyboard-1", "H");
    window.click("page feel");
    window.wait_until("dial mouse sensitivity", "1.21");
    window.close();
}

#[test]
fn the_screen_is_worked_with_a_pad_alone() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    let mut window = desktop.open(profiles.path());
    // The game's own button opens it, as Escape does.
    push(&mut window, "center");
    window.wait_until("screen", "open");
    for _ in 0..6 {
        push(&mut window, "down");
    }
    push(&mut window, "right");
    push(&mut window, "right");
    window.wait_until("focus", "cell cast-off gamepad-1");
    push(&mut window, "south");
    window.wait_until("cell cast-off gamepad-1", "press…");
    push(&mut window, "east");
    window.wait_until("cell cast-off gamepad-1", "rightmost of the four buttons");
    // A chord of the pad, held and completed; and a conflict, backed out of.
    push(&mut window, "down");
    window.wait_until("focus", "cell coil-rope gamepad-1");
    push(&mut window, "south");
    window.wait_until("cell coil-rope gamepad-1", "press…");
    window.simulate("0 9 pad:shoulder-right 1");
    push(&mut window, "south");
    window.simulate("0 9 pad:shoulder-right 0");
    window.wait_until(
        "cell coil-rope gamepad-1",
        "right shoulder + lowest of the four buttons",
    );
    push(&mut window, "south");
    window.wait_until("cell coil-rope gamepad-1", "press…");
    push(&mut window, "up");
    window.wait_until("dialog", "Up on the cross is taken by “Lantern”");
    push(&mut window, "east");
    window.wait_until("dialog", "");
    // To the other page and back by the shoulders.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "about");
    push(&mut window, "shoulder-left");
    // Out by the right button; the first answer applies, once the new button has been worked.
    push(&mut window, "east");
    window.wait_until("dialog", "Leave with these changes?");
    push(&mut window, "south");
    window.wait_until("dialog", "Keep these controls?");
    push(&mut window, "east");
    window.wait_until("screen", "closed");
    window.wait_for("saved");
    window.close();
    let mut window = desktop.open(profiles.path());
    window.open_screen();
    window.wait_until("cell cast-off gamepad-1", "rightmost of the four buttons");
    window.close();
}

fn push(window: &mut Window, button: &str) {
    window.simulate(&format!("0 9 pad:{button} 1"));
    window.simulate(&format!("0 9 pad:{button} 0"));
}

#[test]
fn what_was_held_over_a_lost_focus_or_the_screen_fires_nothing() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    let mut window = desktop.open(profiles.path());
    // What is held ends when the screen opens.
    window.simulate("0 9 pad:stick-left 0 0.9");
    window.wait_until("doing", "Walk");
    window.open_screen();
    window.wait_until("doing", "…");
    window.simulate("0 9 pad:stick-left 0 0.8");
    // Bound by pulling it.
    window.click("cell hurry gamepad-1");
    window.wait_until("cell hurry gamepad-1", "press…");
    window.simulate("0 9 pad:stick-left 0 0");
    window.simulate("0 9 pad:trigger-left 0.9");
    window.simulate("0 9 pad:trigger-left 0");
    window.wait_until("cell hurry gamepad-1", "left trigger");
    // Held when the screen is left, it counts once it has been let go.
    window.simulate("0 9 pad:trigger-left 0.8");
    window.press(ESCAPE);
    window.wait_until("dialog", "Leave with these changes?");
    window.press(ENTER);
    window.wait_until("screen", "closed");
    window.simulate("0 9 pad:trigger-left 0.7");
    window.simulate("0 9 pad:trigger-left 1");
    assert_eq!(window.times_said("began: hurry"), 0);
    window.simulate("0 9 pad:trigger-left 0.1");
    window.simulate("0 9 pad:trigger-left 0.9");
    window.wait_for("began: hurry");
    // The same of a key and of the trigger when the focus goes and comes back.
    window.hold(KEY_W);
    window.wait_for("began: walk.up");
    window.lose_focus();
    window.simulate("0 9 focus-lost");
    window.wait_for("doing: …");
    window.simulate("0 9 pad:trigger-left 0.8");
    window.take_focus();
    window.simulate("0 9 pad:trigger-left 0.95");
    // Longer than it takes the system to repeat a key that is held.
    std::thread::sleep(std::time::Duration::from_secs(1));
    assert_eq!(window.times_said("began: hurry"), 1);
    assert_eq!(window.times_said("began: walk.up"), 1);
    window.let_go(KEY_W);
    window.simulate("0 9 pad:trigger-left 0");
    window.press(KEY_W);
    window.simulate("0 9 pad:trigger-left 1");
    window.wait_for("began: hurry");
    assert_eq!(window.times_said("began: walk.up"), 2);
}

#[test]
fn a_pause_covers_who_walks_and_gives_it_back() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    let mut window = desktop.open(profiles.path());
    window.simulate("0 9 pad:stick-left 0 0.9");
    window.wait_until("doing", "Walk");
    window.click("go pause");
    window.wait_until("doing", "…");
    window.simulate("0 9 pad:stick-left 0.1 0.9");
    window.click("go deck");
    window.wait_until("doing", "Walk");
    window.simulate("0 9 pad:stick-left 0 0");
    window.wait_until("doing", "…");
}

/// A bug report of a player's: recorded by a key, and played again with the reason of everything.
#[test]
fn what_is_recorded_by_a_key_is_played_again_from_its_file() {
    const F8: u8 = 74;
    const SHIFT: u8 = 50;
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    let mut window = desktop.open(profiles.path());
    let with_shift = |window: &Window| {
        window.hold(SHIFT);
        window.press(F8);
        window.let_go(SHIFT);
    };
    // Nothing was clicked yet: the server may give the window its keys a moment later.
    window.press_until(SPACE, "began: cast-off");
    with_shift(&window);
    window.press(SPACE);
    window.wait_for("began: cast-off");
    window.press(KEY_H);
    window.simulate("0 9 pad:stick-left 0 0.9");
    window.wait_for("began: walk");
    // The window for developers takes nothing away.
    window.press(F8);
    window.press(SPACE);
    window.wait_for("began: cast-off");
    with_shift(&window);
    let file = profiles.path().join("slack-water-1.trace");
    wait_for_file(&file, "pad:stick-left 0 0.9");
    let sheet = swap_knot::Sheet::from_toml(include_str!("../../../demo/slack-water.toml"));
    let sheet = sheet.unwrap();
    let on = swap_knot::Layout::us();
    let rig = swap_knot::Rig::new(&sheet, &swap_knot::Profile::default(), &on);
    let mut again = swap_knot::Seat::new(rig);
    again.keep_outcomes(4_096);
    let trace: swap_knot::Trace = std::fs::read_to_string(&file).unwrap().parse().unwrap();
    let tick = std::time::Duration::from_millis(16);
    again.replay(&trace, tick, |_, _| {}).unwrap();
    let words = swap_knot::Words::english();
    let telling = swap_knot::Telling::new(&words, &sheet, again.rig().resolver());
    let told: Vec<String> = again.outcomes().map(|t| telling.tell(&t)).collect();
    for wanted in ["Space: Cast off", "H: Horn – only here: At the helm"] {
        assert!(told.iter().any(|t| t == wanted), "{wanted}: {told:?}");
    }
    window.close();
}

/// Every page with the pad alone: a number, a preset, another profile, another keyboard and what is
/// tried; all of it is there after a restart.
#[test]
fn every_page_is_visited_with_a_pad_alone_and_all_is_kept() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    let mut window = desktop.open(profiles.path());
    push(&mut window, "center");
    window.wait_until("screen", "open");
    // A preset, from the buttons over the page.
    go(&mut window, "up", "page bindings");
    push(&mut window, "down");
    go(&mut window, "right", "tool presets");
    push(&mut window, "south");
    window.wait_until("dialog", "Which controls do you start from?");
    push(&mut window, "down");
    push(&mut window, "south");
    window.wait_until("cell walk.up keyboard-1", "I");
    // Feel: the game's essential keys were moved by the preset, but not on the pad.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "about");
    go(&mut window, "down", "dial gamepad sensitivity");
    push(&mut window, "right");
    window.wait_until("dial gamepad sensitivity", "1.1");
    push(&mut window, "center-right");
    window.wait_for("saved");
    // Another profile.
    push(&mut window, "shoulder-right");
    window.wait_until("page profiles", "Profiles");
    go(&mut window, "up", "page bindings");
    push(&mut window, "down");
    go(&mut window, "right", "new-profile");
    push(&mut window, "south");
    window.wait_until("dialog", "What is it called?");
    go(&mut window, "down", "answer 1");
    push(&mut window, "south");
    window.wait_until("titles", "New profile, skipper");
    // Another keyboard.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "layout");
    push(&mut window, "south");
    window.wait_until("dialog", "Which keyboard do you have?");
    push(&mut window, "trigger-right");
    push(&mut window, "south");
    window.wait_until("dialog", "");
    assert_ne!(window.last("layout: "), "English (US): as it is found");
    push(&mut window, "center-left");
    // Whose marks the pad has: nobody knows this one, and the player says.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "family");
    assert_eq!(
        window.last("family: "),
        "by place: as the gamepad says it is"
    );
    push(&mut window, "south");
    window.wait_until("dialog", "Marks on the gamepad");
    push(&mut window, "down");
    push(&mut window, "south");
    window.wait_until("family", "Quayside");
    window.simulate("0 9 pad:stick-right-click 1");
    window.wait_until("lit", "right stick click");
    window.simulate("0 9 pad:stick-right-click 0");
    push(&mut window, "center-left");
    window.wait_until("family", "by place: as the gamepad says it is");
    // A button of the screen is moved, and put back.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "where");
    push(&mut window, "down");
    push(&mut window, "right");
    window.wait_until("zone rope x", "To the right: 0.02");
    push(&mut window, "center-left");
    window.wait_until("zone rope x", "To the right: 0");
    // Trying: the button that goes back is tried like any other.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "where");
    push(&mut window, "down");
    push(&mut window, "south");
    window.wait_until("trying", "Stop");
    window.simulate("0 9 pad:stick-left 0 0.9");
    window.wait_until("lit", "Walk");
    window.simulate("0 9 pad:stick-left 0 0");
    window.wait_until("lit", "");
    push(&mut window, "center-right");
    window.wait_until("trying", "Try");
    assert_eq!(window.times_said("began: walk"), 0);
    push(&mut window, "east");
    window.wait_until("screen", "closed");
    window.close();
    // The last profile goes on; the other one has what was changed.
    let mut window = desktop.open(profiles.path());
    window.open_screen();
    window.click("page profiles");
    window.wait_until("titles", "New profile, skipper");
    window.click("profile 2 switch");
    window.click("page feel");
    window.wait_until("dial gamepad sensitivity", "1.1");
    window.click("page bindings");
    window.wait_until("cell walk.up keyboard-1", "I");
}

/// Pushes a button until the focus is somewhere.
fn go(window: &mut Window, button: &str, to: &str) {
    for _ in 0..60 {
        if window.last("focus: ") == to {
            return;
        }
        push(window, button);
        std::thread::sleep(std::time::Duration::from_millis(60));
    }
    panic!("{to} is not reached, {} is", window.last("focus: "));
}

#[test]
fn on_screen_buttons_are_worked_moved_kept_and_no_mouse() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    let by_mouse = ["--touch", "mouse"];
    let mut window = desktop.open_with(profiles.path(), &by_mouse);
    window.drag("on-screen stick", (60, -20), Some("began: walk"));
    window.drag("on-screen rope", (0, 0), Some("began: cast-off"));
    window.wait_for_prompt("Touch rope to leave");
    // The left mouse button coils the rope, and is a finger here.
    assert!(!window.said("began: coil-rope"));

    window.press(ESCAPE);
    window.wait_until("screen", "open");
    window.click("page touch");
    window.drag("zone rope", (-120, -60), None);
    window.drag("corner rope", (20, 15), None);
    with_control(&window, KEY_S);
    let file = profiles.path().join("skipper.toml");
    wait_for_file(&file, "[touch.rope]");
    let kept = std::fs::read_to_string(&file).unwrap();
    assert!(
        kept.contains("x = -0.") && kept.contains("size = 1."),
        "{kept}"
    );
    window.close();

    let mut window = desktop.open_with(profiles.path(), &by_mouse);
    window.wait_for_place("on-screen rope");
    let there = window.last("place on-screen rope: ").to_owned();
    let x: f32 = there.split_once(' ').unwrap().0.parse().unwrap();
    assert!(x < 1000.0, "it lies where the game has it: {there}");
    window.drag("on-screen rope", (0, 0), Some("began: cast-off"));
}

#[test]
fn a_controller_that_nobody_knows_is_taught_in_the_window_and_a_pad_after_a_restart() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };
    let press = |window: &mut Window, number: u8| {
        window.simulate(&format!("0 9 hid:button-{number} down"));
        window.simulate(&format!("0 9 hid:button-{number} up"));
    };
    let mut window = desktop.open(profiles.path());
    window.simulate("0 9 plugged 1209:5a03");
    window.open_screen();
    press(&mut window, 9);
    window.wait_until("dialog", "This controller is not known. Is it a gamepad?");
    window.press(ENTER);
    window.wait_until("dialog", "On the controller: lowest of the four buttons");
    press(&mut window, 2);
    window.wait_until("dialog", "On the controller: rightmost of the four buttons");
    // There is none; that is all.
    window.press(ENTER);
    window.click("answer 3");
    window.wait_until("dialog", "Is it right?");
    press(&mut window, 2);
    window.wait_until("dialog", "");
    wait_for_file(
        &profiles.path().join("mappings"),
        "\"pad:south\" = \"hid:button-2\"",
    );
    window.close();

    let mut window = desktop.open(profiles.path());
    window.simulate("0 9 plugged 1209:5a03");
    press(&mut window, 2);
    window.wait_for("began: cast-off");
    window.wait_for_prompt("Press the lowest of the four buttons to leave");
}

const ROOT: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../..");

fn cargo(args: &[&str], folder: &Path) {
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    let mut command = Command::new(cargo);
    command.args(args).current_dir(folder);
    // Built with what this workspace has built already.
    let done = command
        .env("CARGO_TARGET_DIR", format!("{ROOT}/target"))
        .output()
        .unwrap();
    let said = String::from_utf8(done.stderr).unwrap();
    assert!(done.status.success() && !said.contains("warning"), "{said}");
}

/// Waits until a profile on the disk has a text in it.
fn wait_for_file(file: &Path, text: &str) {
    for _ in 0..200 {
        if std::fs::read_to_string(file).is_ok_and(|kept| kept.contains(text)) {
            return;
        }
        std::thread::sleep(std::time::Duration::from_millis(50));
    }
    panic!(
        "{} never had {text}: {:?}",
        file.display(),
        std::fs::read_to_string(file)
    );
}

fn with_control(window: &Window, key: u8) {
    const CONTROL: u8 = 37;
    window.hold(CONTROL);
    window.press(key);
    window.let_go(CONTROL);
}

const KEY_S: u8 = 39;

/// What a newcomer has after `swap-knot new`: a window that plays, with the controls screen on Escape.
#[test]
fn the_starter_plays_and_its_controls_are_changed_and_kept() {
    if std::env::var("SWAP_KNOT_STARTERS").as_deref() != Ok("1") {
        eprintln!("SKIPPED: ./scripts/test --starters builds what `swap-knot new` writes");
        return;
    }
    if skip_without_display() {
        return;
    }
    let folder = tempfile::tempdir().unwrap();
    let game = folder.path().join("harbour");
    let path = game.to_str().unwrap();
    // With the features of the other tests: they use the same binary.
    let new = [
        "run",
        "-q",
        "-p",
        "swap-knot-cli",
        "--features",
        "png",
        "--",
        "new",
        path,
        "--path",
        ROOT,
    ];
    cargo(&new, Path::new(ROOT));
    std::fs::copy(format!("{ROOT}/Cargo.lock"), game.join("Cargo.lock")).unwrap();
    let profile = "\n[profile.dev]\ndebug = \"line-tables-only\"\n\
        [profile.dev.package.\"*\"]\ndebug = false\n\
        [profile.dev.package.swap-knot-core]\nopt-level = 1\n";
    let manifest = std::fs::read_to_string(game.join("Cargo.toml")).unwrap();
    std::fs::write(game.join("Cargo.toml"), manifest + profile).unwrap();
    cargo(&["build", "-q"], &game);
    // No other test may make another one of that name.
    let program = folder.path().join("play");
    std::fs::copy(format!("{ROOT}/target/debug/harbour"), &program).unwrap();
    let settings = folder.path().join("settings");
    let run = || {
        let mut command = Command::new(&program);
        command.env("XDG_CONFIG_HOME", &settings);
        command
    };

    let desktop = Desktop::start();
    let mut window = desktop.run(run());
    window.take_focus();
    window.press_until(SPACE, "Cast off!");
    // Search for it, change it, apply it.
    window.press(ESCAPE);
    std::thread::sleep(std::time::Duration::from_millis(500));
    with_control(&window, KEY_F);
    const CAST: [u8; 4] = [54, 38, 39, 28];
    window.press_all(&CAST);
    window.press_all(&[ENTER, ENTER, KEY_G]);
    with_control(&window, KEY_S);
    wait_for_file(&settings.join("harbour/profiles/player.toml"), "\"KeyG\"");
    window.press(ESCAPE);
    let before = window.times_said("Cast off!");
    window.press_all(&[SPACE, KEY_G]);
    assert_eq!(window.times_said("Cast off!"), before + 1);
    window.close();
    let mut window = desktop.run(run());
    window.take_focus();
    window.press_until(KEY_G, "Cast off!");
}
