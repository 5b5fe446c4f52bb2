//! What is played, recorded and read in the window.

use crate::*;

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
        window.settle();
        assert_eq!(window.last("layout: "), layout);
        window.close();
    }
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
    window.wait_until("cell hurry gamepad-1", "Press…");
    window.simulate("0 9 pad:stick-left 0 0");
    window.simulate("0 9 pad:trigger-left 0.9");
    window.simulate("0 9 pad:trigger-left 0");
    window.wait_until("cell hurry gamepad-1", "left trigger");
    // Held when the screen is left, it counts once it has been let go.
    window.simulate("0 9 pad:trigger-left 0.8");
    window.press(ESCAPE);
    window.wait_until("dialog", "Apply your changes before you leave?");
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
    window.wait_for_focus(true);
    window.simulate("0 9 pad:trigger-left 0.95");
    // The system repeats a key that is held, as if it were pressed anew.
    window.wait_for_times("heard: KeyW", 2);
    assert_eq!(window.times_said("began: hurry"), 1);
    // A value has what is held: the key that still is when the focus comes back walks on.
    window.wait_for_times("began: walk.up", 2);
    window.let_go(KEY_W);
    window.simulate("0 9 pad:trigger-left 0");
    window.press(KEY_W);
    window.simulate("0 9 pad:trigger-left 1");
    window.wait_for("began: hurry");
    window.wait_for_times("began: walk.up", 3);
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
    window.wait_until("recording", "yes");
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
    let sheet = swap_knot::Sheet::from_toml(include_str!("../../../../demo/slack-water.toml"));
    let sheet = sheet.unwrap();
    let on = swap_knot::Layout::us();
    let rig = swap_knot::Rig::new(&sheet, &swap_knot::Profile::default(), &on);
    let mut again = swap_knot::Seat::new(rig);
    again.keep_outcomes(4_096);
    let trace: swap_knot::Trace = std::fs::read_to_string(&file).unwrap().parse().unwrap();
    let tick = std::time::Duration::from_millis(16);
    again.replay(&trace, tick, |_, _| {}).unwrap();
    let words = swap_knot::Words::english();
    let telling = swap_knot::prompt::Telling::new(&words, &sheet, again.rig().resolver());
    let told: Vec<String> = again.outcomes().map(|t| telling.tell(&t)).collect();
    for wanted in ["Space: Cast off", "H: Horn – works only here: At the helm"] {
        assert!(told.iter().any(|t| t == wanted), "{wanted}: {told:?}");
    }
    window.close();
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
    window.wait_for_prompt("Touch the rope to leave");
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
