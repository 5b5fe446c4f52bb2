//! The controls screen over the game, with each device.

use crate::*;

#[test]
fn a_taken_key_is_swapped_kept_and_follows_the_layout() {
    let Some((desktop, profiles)) = desk() else {
        return;
    };

    let mut window = desktop.open(profiles.path());
    window.open_screen();
    window.click(CAST_OFF);
    window.wait_until(CAST_OFF, "Press…");
    window.press(KEY_F);
    window.wait_until("dialog", "“Lantern” already uses F.");
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
    window.wait_until(CAST_OFF, "Press…");
    window.press(KEY_G);
    window.wait_until(CAST_OFF, "G");
    ask(&mut window);
    // The old key does not confirm them, and the time runs out.
    window.press(SPACE);
    window.wait_until("dialog", "");
    window.wait_until(
        "message",
        "Your old controls are back. Your changes are still here, but not applied.",
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
    window.wait_until(LANTERN, "Press…");
    window.press(ESCAPE);
    window.wait_until(LANTERN, "F");
    // With the mouse alone: out by pointing, and cleared.
    window.click(LANTERN);
    window.wait_until(LANTERN, "Press…");
    window.click("answer 1");
    window.wait_until(LANTERN, "F");
    window.click(LANTERN);
    window.wait_until(LANTERN, "Press…");
    window.click("answer 2");
    window.wait_until(LANTERN, "—");
    window.click("tool undo");
    window.wait_until(LANTERN, "F");

    window.click(LANTERN);
    window.wait_until(LANTERN, "Press…");
    window.press(KEY_N);
    window.wait_until(LANTERN, "N");
    window.ask_to_close();
    window.wait_until("dialog", "Apply your changes before you leave?");
    window.click("answer 3");
    window.wait_until("dialog", "");
    window.press(ESCAPE);
    window.wait_until("dialog", "Apply your changes before you leave?");
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
    window.click("tool more");
    window.wait_until("dialog", "More…");
    window.click("tool find");
    window.wait_until("dialog", "Press a key or button to find what uses it");
    window.press(KEY_W);
    window.wait_until("rows", "3");
    window.click("tool show-all");
    // Every button of a mouse and its wheel.
    for (button, name) in [
        (8, "Everything that uses the back mouse button"),
        (10, "Everything that uses mouse button 6"),
        (4, "Everything that uses the mouse wheel (up)"),
    ] {
        window.click("tool more");
        window.wait_until("dialog", "More…");
        window.click("tool find");
        window.wait_until("dialog", "Press a key or button to find what uses it");
        window.button(button);
        window.wait_until("section", name);
        window.click("tool show-all");
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
    window.wait_until("cell hurry keyboard-1", "Press…");
    window.press(KEY_H);
    window.wait_until("cell hurry keyboard-1", "H");
    // What must keep a binding says so.
    window.press_all(&[UP, UP, UP, UP, UP, RIGHT, DELETE]);
    let told = "“Walk” cannot be left empty (Gamepad). Set something else for it first.";
    window.wait_until("message", told);
    // The page of feel: a number, and a preset on the page before it.
    window.press(TAB);
    window.wait_until("focus", "about");
    go_by_key(&mut window, DOWN, "feel mouse sensitivity");
    window.press_all(&[RIGHT; 2]);
    window.wait_until("feel mouse sensitivity", "1.21");
    window.press(ESCAPE);
    window.wait_until("dialog", "Apply your changes before you leave?");
    window.press(ENTER);
    window.wait_until("screen", "closed");
    window.wait_for("saved");
    window.close();
    let mut window = desktop.open(profiles.path());
    window.open_screen();
    window.wait_until("cell hurry keyboard-1", "H");
    window.click("page feel");
    window.wait_until("feel mouse sensitivity", "1.21");
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
    // What is in hand stands first.
    for _ in 0..6 {
        push(&mut window, "down");
    }
    window.wait_until("focus", "cell cast-off gamepad-1");
    push(&mut window, "south");
    window.wait_until("cell cast-off gamepad-1", "Press…");
    push(&mut window, "east");
    window.wait_until("cell cast-off gamepad-1", "right button of the four");
    // A chord of the pad, held and completed; and a conflict, backed out of.
    push(&mut window, "down");
    window.wait_until("focus", "cell coil-rope gamepad-1");
    push(&mut window, "south");
    window.wait_until("cell coil-rope gamepad-1", "Press…");
    window.simulate("0 9 pad:shoulder-right 1");
    push(&mut window, "south");
    window.simulate("0 9 pad:shoulder-right 0");
    window.wait_until(
        "cell coil-rope gamepad-1",
        "right bumper + bottom button of the four",
    );
    push(&mut window, "south");
    window.wait_until("cell coil-rope gamepad-1", "Press…");
    push(&mut window, "up");
    window.wait_until("dialog", "“Lantern” already uses the D-pad (up).");
    push(&mut window, "east");
    window.wait_until("dialog", "");
    // To the other page and back by the shoulders.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "about");
    push(&mut window, "shoulder-left");
    // Out by the right button; the first answer applies, once the new button has been worked.
    push(&mut window, "east");
    window.wait_until("dialog", "Apply your changes before you leave?");
    push(&mut window, "south");
    window.wait_until("dialog", "Keep these controls?");
    push(&mut window, "east");
    window.wait_until("screen", "closed");
    window.wait_for("saved");
    window.close();
    let mut window = desktop.open(profiles.path());
    window.open_screen();
    window.wait_until("cell cast-off gamepad-1", "right button of the four");
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
    go(&mut window, "right", "tool more");
    push(&mut window, "south");
    window.wait_until("dialog", "More…");
    go(&mut window, "down", "tool presets");
    push(&mut window, "south");
    window.wait_until("dialog", "Choose a preset");
    push(&mut window, "down");
    push(&mut window, "south");
    window.wait_until("cell walk.up keyboard-1", "I");
    // Feel: the game's essential keys were moved by the preset, but not on the pad.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "about");
    go(&mut window, "down", "feel gamepad sensitivity");
    push(&mut window, "right");
    window.wait_until("feel gamepad sensitivity", "1.1");
    push(&mut window, "center-right");
    window.wait_for("saved");
    // Another profile.
    push(&mut window, "shoulder-right");
    window.wait_until("page profiles", "Profiles");
    go(&mut window, "up", "page feel");
    push(&mut window, "down");
    go(&mut window, "left", "new-profile");
    push(&mut window, "south");
    window.wait_until("dialog", "Profile name");
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
    assert_ne!(window.last("layout: "), "Automatic: English (US)");
    push(&mut window, "center-left");
    // Whose marks the pad has: nobody knows this one, and the player says.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "family");
    assert_eq!(window.last("family: "), "Automatic: by position");
    push(&mut window, "south");
    window.wait_until("dialog", "Button symbols");
    push(&mut window, "down");
    push(&mut window, "south");
    window.wait_until("family", "Quayside");
    window.simulate("0 9 pad:stick-right-click 1");
    window.wait_until("lit", "right stick click");
    window.simulate("0 9 pad:stick-right-click 0");
    push(&mut window, "center-left");
    window.wait_until("family", "Automatic: by position");
    // A button of the screen is moved, and put back.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "where");
    push(&mut window, "down");
    push(&mut window, "right");
    window.wait_until("zone rope x", "Left/right: 0.02");
    push(&mut window, "center-left");
    window.wait_until("zone rope x", "Left/right: 0");
    // Trying: the button that goes back is tried like any other.
    push(&mut window, "shoulder-right");
    window.wait_until("focus", "where");
    push(&mut window, "down");
    push(&mut window, "south");
    window.wait_until("trying", "Stop test");
    window.simulate("0 9 pad:stick-left 0 0.9");
    window.wait_until("lit", "Walk");
    window.simulate("0 9 pad:stick-left 0 0");
    window.wait_until("lit", "");
    push(&mut window, "center-right");
    window.wait_until("trying", "Start test");
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
    window.wait_until("feel gamepad sensitivity", "1.1");
    window.click("page bindings");
    window.wait_until("cell walk.up keyboard-1", "I");
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
    window.wait_until("dialog", "New controller. Set it up as a gamepad?");
    window.press(ENTER);
    window.wait_until("dialog", "On the controller: bottom button of the four");
    press(&mut window, 2);
    window.wait_until("dialog", "On the controller: right button of the four");
    // There is none; that is all.
    window.press(ENTER);
    window.click("answer 3");
    window.wait_until("dialog", "Keep this setup?");
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
    window.wait_for_prompt("Press the bottom button of the four to leave");
}
