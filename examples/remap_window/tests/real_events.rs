//! The window under its own X server, with real key and mouse events.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod desktop;

use desktop::{Desktop, skip_without_display};

/// X key codes, which are those of Linux plus 8.
const KEY_Q: u8 = 24;
const KEY_F: u8 = 41;
const SEMICOLON: u8 = 47;
const SPACE: u8 = 65;
const KEY_W: u8 = 25;

#[test]
fn a_taken_key_is_swapped_applied_kept_and_follows_the_layout() {
    if skip_without_display() {
        return;
    }
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();

    let mut window = desktop.open(profiles.path());
    window.click("cell cast-off keyboard-1");
    window.wait_for("cell cast-off keyboard-1: press…");
    window.press(KEY_F);
    window.wait_for("asks: `cast-off` and `lantern` are both on KeyF, in `deck`");
    window.click("way swap");
    window.wait_for("cell cast-off keyboard-1: F");
    window.wait_for("cell lantern keyboard-1: Space");
    window.click("apply");
    window.wait_for("applied");

    window.press(KEY_F);
    window.wait_for("began: cast-off");
    window.press(SPACE);
    window.wait_for("began: lantern");
    window.close();

    let mut window = desktop.open(profiles.path());
    window.wait_for("cell cast-off keyboard-1: F");
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
fn escape_leaves_a_cell_as_it_is_and_discard_takes_edits_back() {
    if skip_without_display() {
        return;
    }
    const ESCAPE: u8 = 9;
    const KEY_G: u8 = 42;
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();
    let mut window = desktop.open(profiles.path());
    window.click("cell lantern keyboard-1");
    window.wait_for("cell lantern keyboard-1: press…");
    window.press(ESCAPE);
    window.wait_for("cell lantern keyboard-1: F");

    window.click("cell lantern keyboard-1");
    window.wait_for("cell lantern keyboard-1: press…");
    window.press(KEY_G);
    window.wait_for("cell lantern keyboard-1: G");
    // Not applied: the game still goes by the old key, and the new one does nothing.
    window.press(KEY_G);
    window.click("discard");
    window.wait_for("cell lantern keyboard-1: F");
    assert!(!window.said("began: lantern"));
    window.close();
    assert_eq!(std::fs::read_dir(profiles.path()).unwrap().count(), 0);
}

#[test]
fn rows_are_searched_by_name_and_by_key_and_leaving_asks() {
    if skip_without_display() {
        return;
    }
    const KEY_H: u8 = 43;
    const KEY_O: u8 = 32;
    const KEY_R: u8 = 27;
    const KEY_N: u8 = 57;
    const ESCAPE: u8 = 9;
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();
    let mut window = desktop.open(profiles.path());
    window.wait_for("rows: 32");
    window.click("search");
    for key in [KEY_H, KEY_O, KEY_R, KEY_N] {
        window.press(key);
    }
    window.wait_for("rows: 1");
    assert!(!window.said("began: horn"), "typing does not play");
    window.click("show-all");
    window.wait_for("rows: 32");
    // W walks to the bow, opens the throttle and hoists.
    window.click("find");
    window.wait_for("finding");
    window.press(KEY_W);
    window.wait_for("heard: KeyW");
    window.wait_for("rows: 3");
    window.click("show-all");
    window.wait_for("rows: 32");
    window.click("find");
    window.wait_for("finding");
    window.press(ESCAPE);

    window.click("cell lantern keyboard-1");
    window.wait_for("cell lantern keyboard-1: press…");
    window.press(KEY_N);
    window.wait_for("cell lantern keyboard-1: N");
    window.ask_to_close();
    window.wait_for("leaving: true");
    window.click("stay");
    window.wait_for("leaving: false");
    window.ask_to_close();
    window.wait_for("leaving: true");
    window.click("leave-apply");
    window.wait_for("applied");
    window.wait_for_end();

    let mut window = desktop.open(profiles.path());
    window.wait_for("cell lantern keyboard-1: N");
    window.click("reset-all");
    window.wait_for("cell lantern keyboard-1: F");
    assert_eq!(window.last("rows: "), "32", "no row twice after a reset");
    window.click("undo");
    window.wait_for("cell lantern keyboard-1: N");
}

#[test]
fn the_layout_is_found_at_the_start_and_followed_while_it_runs() {
    if skip_without_display() {
        return;
    }
    const KEY_Y: u8 = 29;
    const KEY_M: u8 = 58;
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();
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
    window.wait_for("cell walk.up keyboard-1: Ц/W");
    assert_eq!(window.last("cell map-table keyboard-1: "), "M");
    window.press(KEY_M);
    window.wait_for("began: map-table");
    window.press(KEY_W);
    window.wait_for("began: walk.up");
}

#[test]
fn what_dead_keys_compose_moves_no_layout() {
    if skip_without_display() {
        return;
    }
    const BRACKET_LEFT: u8 = 34;
    const KEY_E: u8 = 26;
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();
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
fn the_menu_is_worked_with_the_keyboard_alone() {
    if skip_without_display() {
        return;
    }
    const UP: u8 = 111;
    const DOWN: u8 = 116;
    const RIGHT: u8 = 114;
    const ENTER: u8 = 36;
    const ESCAPE: u8 = 9;
    const DELETE: u8 = 119;
    const BACKSPACE: u8 = 22;
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();
    let mut window = desktop.open(profiles.path());
    window.wait_for("cell hurry keyboard-1: Left Shift");
    // From the first row down to Cast off; F is taken, and swapped.
    window.press_all(&[DOWN; 6]);
    window.press(ENTER);
    window.wait_for("cell cast-off keyboard-1: press…");
    window.press(KEY_F);
    window.wait_for("asks: `cast-off` and `lantern` are both on KeyF, in `deck`");
    window.press(ENTER);
    window.wait_for("cell cast-off keyboard-1: F");
    // Unbind the mouse of Coil the rope, then reset the row again.
    window.press_all(&[DOWN, RIGHT, DELETE]);
    window.wait_for("cell coil-rope keyboard-2: —");
    window.press(BACKSPACE);
    window.wait_for("cell coil-rope keyboard-2: left mouse button");
    // What must keep a binding says so.
    window.press_all(&[UP; 7]);
    window.press_all(&[RIGHT, DELETE]);
    window
        .wait_for("refused: \"Walk\" must keep a gamepad binding; bind it to something else first");
    // Leave, apply, and find it kept.
    window.press(ESCAPE);
    window.wait_for("leaving: true");
    window.press(ENTER);
    window.wait_for("applied");
    window.wait_for_end();
    let mut window = desktop.open(profiles.path());
    window.wait_for("cell cast-off keyboard-1: F");
    window.close();
}

#[test]
fn the_menu_is_worked_with_a_pad_alone() {
    if skip_without_display() {
        return;
    }
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();
    let mut window = desktop.open(profiles.path());
    window.wait_for("cell horn gamepad-1: top face button");
    let push = |window: &mut desktop::Window, button: &str| {
        window.simulate(&format!("0 9 pad:{button} 1"));
        window.simulate(&format!("0 9 pad:{button} 0"));
    };
    for _ in 0..6 {
        push(&mut window, "down");
    }
    push(&mut window, "right");
    push(&mut window, "right");
    push(&mut window, "south");
    window.wait_for("cell cast-off gamepad-1: press…");
    push(&mut window, "east");
    window.wait_for("heard: pad:east");
    window.wait_for("cell cast-off gamepad-1: right face button");
    // A chord of the pad, held and completed.
    push(&mut window, "down");
    push(&mut window, "south");
    window.wait_for("cell coil-rope gamepad-1: press…");
    window.simulate("0 9 pad:shoulder-right 1");
    push(&mut window, "south");
    window.simulate("0 9 pad:shoulder-right 0");
    window.wait_for("heard: pad:shoulder-right+pad:south");
    window.wait_for("cell coil-rope gamepad-1: right shoulder + bottom face button");
    // Out of the menu by the right button; the first answer applies.
    push(&mut window, "east");
    window.wait_for("leaving: true");
    push(&mut window, "south");
    window.wait_for("applied");
    window.wait_for_end();
    let mut window = desktop.open(profiles.path());
    window.wait_for("cell cast-off gamepad-1: right face button");
    window.close();
}

#[test]
fn what_was_held_over_a_lost_focus_or_an_edit_fires_nothing() {
    if skip_without_display() {
        return;
    }
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();
    let mut window = desktop.open(profiles.path());
    // Bound by pulling it.
    window.click("cell hurry gamepad-1");
    window.wait_for("cell hurry gamepad-1: press…");
    window.simulate("0 9 pad:trigger-left 0.9");
    window.simulate("0 9 pad:trigger-left 0");
    window.wait_for("heard: pad:trigger-left");
    window.wait_for("cell hurry gamepad-1: left trigger");
    // Held when the change is applied, it counts once it has been let go.
    window.simulate("0 9 pad:trigger-left 0.8");
    window.click("apply");
    window.wait_for("applied");
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
fn who_walks_by_stick_walks_on_when_a_menu_closes() {
    if skip_without_display() {
        return;
    }
    const ESCAPE: u8 = 9;
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();
    let mut window = desktop.open(profiles.path());
    window.simulate("0 9 pad:stick-left 0 0.9");
    window.wait_for("doing: Walk");
    // The listener takes what comes meanwhile; the stick was walking before.
    window.click("cell lantern keyboard-1");
    window.wait_for("cell lantern keyboard-1: press…");
    window.simulate("0 9 pad:stick-left 0 0.8");
    window.press(ESCAPE);
    window.wait_for("cell lantern keyboard-1: F");
    assert_eq!(window.last("doing: "), "Walk");
    // A pause covers it, and gives it back.
    window.click("go pause");
    window.wait_for("doing: …");
    window.simulate("0 9 pad:stick-left 0.1 0.9");
    window.click("go deck");
    window.wait_for("doing: Walk");
    window.simulate("0 9 pad:stick-left 0 0");
    window.wait_for("doing: …");
}

#[test]
fn every_button_of_a_mouse_and_its_wheel_are_heard_by_name() {
    if skip_without_display() {
        return;
    }
    const BACK: u8 = 8;
    const SIXTH: u8 = 10;
    const WHEEL_UP: u8 = 4;
    let desktop = Desktop::start();
    let profiles = tempfile::tempdir().unwrap();
    let mut window = desktop.open(profiles.path());
    for (button, heard) in [
        (BACK, "mouse:back"),
        (SIXTH, "mouse:6"),
        (WHEEL_UP, "wheel:up"),
    ] {
        window.click("find");
        window.wait_for("finding");
        window.button(button);
        window.wait_for(&format!("heard: {heard}"));
        window.click("show-all");
    }
}
