//! The controls screen as a player works it: by raw events and pointing alone.

mod model;
mod pages;
mod player;
mod pointing;
mod teaching;

use crate::common::{BESIDE, THERE, drag, what};

use player::{ARROWS, CROSS, Player, rows};
use swap_knot_core::keep::Memory;
use swap_knot_core::screen::{Item, Page, Role, Section};
use swap_knot_core::sheet::{Arm, Parameter, Parameters, Scope};
use swap_knot_core::{
    Controls, DeviceKind, EventKind, Input, Layout, Locker, PadButton, Place, Profile, Slug, Stick,
};

const CAST_OFF: &str = "cell cast-off keyboard-1";

#[test]
fn a_key_is_changed_with_the_keyboard_alone() {
    let mut player = Player::new();
    player.go(CAST_OFF, &ARROWS);
    player.key(Place::Enter);
    assert_eq!(
        player.dialog(),
        "Press the new key or button for “Cast off”"
    );
    player.key(Place::KeyG);
    assert_eq!(
        (player.dialog().as_str(), player.focus().as_str()),
        ("", CAST_OFF)
    );
    assert_eq!(player.label(CAST_OFF), "G");
    assert_eq!(
        player.prompt("{do:cast-off}"),
        "Press Space",
        "it is not applied yet"
    );
    player.key(Place::Escape);
    assert_eq!(player.dialog(), "Apply your changes before you leave?");
    player.key(Place::Enter);
    // The essential action lost all it had on the keyboard: the new one has to show that it works.
    assert_eq!(player.dialog(), "Keep these controls?");
    player.key(Place::Space);
    assert!(player.is_open());
    player.key(Place::KeyG);
    assert!(!player.is_open());
    assert_eq!(player.prompt("{do:cast-off}"), "Press G");
    // What closed the screen works nothing in the game.
    assert!(player.controls.seat().happened().is_empty());
    player.hold(Place::KeyG, true);
    assert!(
        player
            .controls
            .seat()
            .is_down(player.sheet.find("cast-off").unwrap())
    );
}

#[test]
fn a_conflict_and_a_chord_are_settled_with_the_pad_alone() {
    let mut player = Player::new();
    player.tilt(Stick::LEFT, 0.0, -1.0);
    player.tilt(Stick::LEFT, 0.0, 0.0);
    player.go("cell cast-off gamepad-1", &CROSS);
    player.pad(PadButton::South);
    // What confirms is not what is heard, as long as it is down.
    assert_eq!(
        player.item("cell cast-off gamepad-1").role,
        Role::Binding {
            chord: Some(Input::PadButton(PadButton::South).into()),
            listening: true,
        }
    );
    player.pad(PadButton::West);
    assert_eq!(
        player.dialog(),
        "“Coil the rope” already uses the left button of the four."
    );
    player.pad(PadButton::South);
    assert_eq!(
        player.label("cell coil-rope gamepad-1"),
        "bottom button of the four"
    );
    // A chord: a shoulder held, and a button.
    player.pad(PadButton::South);
    player.send(what::pad(PadButton::ShoulderLeft, 1.0));
    player.send(what::pad(PadButton::Up, 1.0));
    assert_eq!(
        player.label("cell cast-off gamepad-1"),
        "left bumper + D-pad up"
    );
    player.send(what::pad(PadButton::Up, 0.0));
    player.send(what::pad(PadButton::ShoulderLeft, 0.0));
    // Reset, undo, clear: all that a cell has.
    player.pad(PadButton::North);
    player.pad(PadButton::CenterLeft);
    player.pad(PadButton::West);
    let told = player.view().message.unwrap();
    assert!(
        told.starts_with("“Cast off” cannot be left empty (Gamepad)"),
        "{told}"
    );
}

#[test]
fn what_cancels_is_told_and_the_mouse_gets_out_by_pointing() {
    let mut player = Player::new();
    player.click("cell walk.up keyboard-1");
    let text = player.view().dialog.unwrap().text;
    assert_eq!(text[0], "Press Escape to cancel (10 s)");
    // The game keeps Escape for itself, so nobody is told how to bind it.
    assert_eq!(text.len(), 1);
    let spot = player.item("answer 2").spot;
    // Pressed on a way out and let go of beside it, it is neither a click nor an input.
    player.mouse(Some(spot), BESIDE);
    assert!(player.dialog().starts_with("Press the new key or button"));
    player.mouse(None, THERE);
    let taken = "“Coil the rope” already uses the left mouse button.";
    assert_eq!(player.dialog(), taken);
    player.click("answer 4");
    player.click("cell walk.up keyboard-1");
    player.click("answer 2");
    assert_eq!(player.label("cell walk.up keyboard-1"), "—");
    player.click("cell walk.up keyboard-1");
    player.click("answer 3");
    assert_eq!(player.label("cell walk.up keyboard-1"), "W");
    assert!(!player.controls.screen().unwrap().draft().is_changed());
    // With a pad in hand, its own way out is told; held, it is an input as any other.
    player.go("cell horn gamepad-1", &CROSS);
    player.pad(PadButton::South);
    let text = player.view().dialog.unwrap().text;
    assert!(
        text[0].starts_with("Press the right center button to cancel"),
        "{text:?}"
    );
    assert_eq!(
        text[1],
        "To use the right center button here, hold it down."
    );
    player.pad(PadButton::CenterRight);
    assert_eq!(player.dialog(), "");
    assert_eq!(
        player.label("cell horn gamepad-1"),
        "top button of the four"
    );
}

#[test]
fn held_arrows_repeat_and_a_stick_held_before_is_not_bound() {
    let mut player = Player::new();
    player.hold(Place::ArrowDown, true);
    player.wait(1500);
    player.hold(Place::ArrowDown, false);
    let after = player.focus();
    player.wait(1000);
    assert_eq!(player.focus(), after);
    let lines = player
        .view()
        .lines()
        .iter()
        .map(|l| l[0].id.clone())
        .collect::<Vec<_>>();
    let at = player
        .view()
        .lines()
        .iter()
        .position(|l| l.iter().any(|i| i.id == after))
        .unwrap();
    assert!(at > 12, "{after} in {lines:?}");

    let mut player = Player::new();
    player.controls.close_screen();
    player.tilt(Stick::LEFT, 0.0, 1.0);
    player.open();
    player.click("cell horn gamepad-1");
    player.tilt(Stick::LEFT, 0.05, 0.97);
    player.tilt(Stick::LEFT, 0.0, 0.0);
    assert!(player.dialog().starts_with("Press the new key or button"));
    player.tilt(Stick::LEFT, -0.9, 0.1);
    assert_eq!(
        player.dialog(),
        "“Steer to port” already uses the left stick (left)."
    );
}

#[test]
fn feel_is_changed_shown_live_and_undone_in_one_step() {
    let mut player = Player::new();
    player.pad(PadButton::ShoulderRight);
    assert_eq!(player.controls.screen().unwrap().page(), Page::Feel);
    player.go("feel gamepad sensitivity", &CROSS);
    for _ in 0..3 {
        player.pad(PadButton::Right);
    }
    assert_eq!(player.label("feel gamepad sensitivity"), "1.33");
    // A held direction is one step for undo, single pushes in a row as well.
    player.pad(PadButton::CenterLeft);
    assert_eq!(player.label("feel gamepad sensitivity"), "1");
    // Whoever tries how a stick feels changes no number by that, nor what the page is about.
    for spot in ["feel gamepad sensitivity", "about"] {
        player.go(spot, &CROSS);
        let before = player.label(spot);
        for x in [0.3, 1.0, 0.0, -1.0, 0.0] {
            player.tilt(Stick::LEFT, x, 0.1);
            player.wait(600);
        }
        assert_eq!(
            (player.focus(), player.label(spot)),
            (spot.to_owned(), before)
        );
    }
    // On a dead zone, a stick shows what it does and goes nowhere.
    player.go("feel gamepad dead-zone", &CROSS);
    player.tilt(Stick::LEFT, 0.0, -1.0);
    player.tilt(Stick::LEFT, 0.0, 0.0);
    assert_eq!(player.focus(), "feel gamepad dead-zone");
    // What led here by a held stick does not go on once it has been let go.
    player.go("feel gamepad sensitivity", &CROSS);
    player.tilt(Stick::LEFT, 0.0, -1.0);
    player.tilt(Stick::LEFT, 0.0, 0.0);
    assert_eq!(player.focus(), "feel gamepad sensitivity-y");
    player.go("feel gamepad dead-zone", &CROSS);
    player.wait(2000);
    assert_eq!(player.focus(), "feel gamepad dead-zone");
    player.tilt(Stick::RIGHT, 0.3, 0.4);
    let view = player.view();
    let rows = || view.sections.iter().flat_map(|s| &s.rows);
    let zone = rows().find(|r| r.title == "Dead zone").unwrap();
    let told = format!("{:?}", zone.live.unwrap());
    assert_eq!(told, "Stick { at: [0.3, 0.4], inner: 0.15, outer: 0.95 }");
    player.click("ease press");
    player.click("about");
    assert_eq!(player.dialog(), "Applies to");
    let view = player.view();
    let answers = view.dialog.unwrap().lines.into_iter().flatten();
    let steer = answers.into_iter().find(|i| i.label == "Steer").unwrap();
    player.click(&steer.id);
    assert_eq!(player.label("about"), "Steer");
    player.click("feel gamepad invert-x");
    let feel = player.controls.screen().unwrap().draft().profile();
    let invert = [true, false, false];
    let of_steer = |profile: &Profile| profile.parameters(("steer", DeviceKind::Gamepad));
    assert_eq!(
        of_steer(&feel),
        Parameters::new().with(Parameter::Invert, invert)
    );
    let eased = feel.parameters(Scope::ALL_ACTIONS);
    assert_eq!(eased.get(Parameter::Press), Some(true.into()));
    player.go("feel gamepad invert-x", &CROSS);
    player.pad(PadButton::North);
    let feel = player.controls.screen().unwrap().draft().profile();
    assert!(of_steer(&feel).is_empty());
}

/// The devices in hand stand first, and the player begins there; a row's directions say what works them
/// all; and what is to be known of a binding is told, also while something is asked about it.
#[test]
fn what_is_in_hand_comes_first_and_details_tell_of_it() {
    let mut player = Player::new();
    let titles = |player: &mut Player| {
        let columns = player.view().columns;
        columns.into_iter().map(|c| c.title).collect::<Vec<_>>()
    };
    let keys = ["Keyboard and mouse", "Gamepad", "Touch"];
    assert_eq!(titles(&mut player), keys);
    assert_eq!(player.focus(), "cell walk keyboard-1");
    player.pad(PadButton::East);
    assert!(!player.is_open());
    player.pad(PadButton::Down);
    player.open();
    assert_eq!(
        titles(&mut player),
        ["Gamepad", "Keyboard and mouse", "Touch"]
    );
    assert_eq!(player.focus(), "cell walk gamepad-1");
    let details = player.view().details;
    assert_eq!((&*details.device, &*details.title), ("Gamepad", "Walk"));
    assert_eq!(details.name, "left stick");
    let also =
        "Also used for: Steer to port, Steer to starboard, Swing to port, Swing to starboard";
    assert!(details.text.contains(&also.to_owned()));
    assert!(details.text.contains(&"The game’s default".to_owned()));
    assert!(details.text.contains(&"Cannot be left empty".to_owned()));

    let up = player.item("cell walk.up gamepad-1");
    assert_eq!(
        (&*up.label, up.by_whole, up.enabled),
        ("works with the left stick", true, true)
    );
    // On the keyboard nothing works it as a whole.
    let up = player.item("cell walk.up keyboard-1");
    assert_eq!((&*up.label, up.by_whole), ("W", false));

    let coil = player.item("cell coil-rope keyboard-2");
    assert_eq!(
        (&*coil.label, &*coil.short),
        ("left mouse button", "Mouse left")
    );
    assert_eq!(coil.manner.as_deref(), Some("hold"));
    assert_eq!(
        player.item("cell lantern gamepad-1").manner.as_deref(),
        Some("on/off")
    );
    assert_eq!(player.item("cell cast-off gamepad-1").manner, None);
    // A screen reader hears both; a stick follows, also where keys of its action toggle.
    assert_eq!(
        coil.spoken,
        "Coil the rope, Keyboard and mouse, 2: left mouse button (hold)"
    );
    let up = player.item("cell walk.up gamepad-1").spoken;
    assert_eq!(up, "Walk to the bow, Gamepad: works with the left stick");
    let sheet = "game = \"x\"\n[situations.deck]\n[actions.haul]\nshape = \"pull\"\ntoggle = true\nbind = [\"KeyH\", \"pad:trigger-left\"]";
    let mut own = Player::of(swap_knot::Sheet::from_toml(sheet).unwrap());
    let manner = |player: &mut Player, at: &str| player.item(&format!("cell haul {at}")).manner;
    assert_eq!(manner(&mut own, "keyboard-1").as_deref(), Some("on/off"));
    assert_eq!(manner(&mut own, "gamepad-1"), None);
    // What is live always stands on the board as well.
    own.pad(PadButton::ShoulderLeft);
    while own.view().board.is_none() {
        own.pad(PadButton::ShoulderRight);
    }
    let board = own.view().board.unwrap();
    let key = board.keys.iter().find(|k| k.item.id == "key KeyH").unwrap();
    assert_eq!(
        (&*key.title, &*key.short, &*key.does),
        ("Haul", "Haul", &["Haul".to_owned()][..])
    );
    player.click("cell coil-rope keyboard-1");
    player.key(Place::KeyF);
    assert_eq!(player.dialog(), "“Lantern” already uses F.");
    assert_eq!(player.view().details.title, "Coil the rope");
}

/// A dead zone that nobody can leave is not kept: nothing moves in time, so the old one comes back.
#[test]
fn controls_that_do_not_work_are_not_kept() {
    let mut player = Player::new();
    let store = Memory::new();
    let locker = Locker::in_store(store);
    let ada = Slug::from_title("Ada");
    player.controls = Controls::open(&player.sheet, locker.clone(), &ada, &Layout::us());
    player.open();
    player.pad(PadButton::ShoulderRight);
    player.go("feel gamepad dead-zone", &CROSS);
    let spot = player.item("feel gamepad dead-zone").spot;
    drag(&mut player.controls, spot, 1.0);
    assert_eq!(player.label("feel gamepad dead-zone"), "0.9");
    player.pad(PadButton::CenterRight);
    assert_eq!(player.dialog(), "Keep these controls?");
    // The stick does not come out of the new dead zone.
    player.tilt(Stick::LEFT, 0.8, 0.0);
    player.tilt(Stick::LEFT, 0.0, 0.0);
    assert_eq!(player.dialog(), "Keep these controls?");
    // Killed now, the old ones are there.
    assert!(player.controls.saving().is_none());
    let kept = Controls::open(&player.sheet, locker, &ada, &Layout::us());
    assert!(kept.profile().is_unchanged());
    player.wait(15_000);
    assert_eq!(player.dialog(), "");
    assert!(player.controls.profile().is_unchanged());
    let told = "Your old controls are back. Your changes are still here, but not applied.";
    assert_eq!(player.view().message.as_deref(), Some(told));
    // With one that can be left, it is kept.
    drag(&mut player.controls, spot, 0.2);
    player.pad(PadButton::CenterRight);
    player.tilt(Stick::LEFT, 0.8, 0.0);
    assert_eq!(player.dialog(), "");
    assert!(player.controls.saving().is_some());
}

/// Who points at the way out has not worked the new control with that same button.
#[test]
fn a_button_that_points_at_the_way_out_proves_nothing() {
    let ask = || {
        let mut player = Player::new();
        let left = "mouse:left".parse().unwrap();
        let cells: Vec<_> = ["keyboard-1", "keyboard-2"]
            .map(|c| cell(&player, c))
            .into();
        let screen = player.controls.screen_mut().unwrap();
        let change = [(cells[0], Some(left)), (cells[1], None)];
        screen.draft_mut().rebind(&change).unwrap();
        player.click("tool apply");
        assert_eq!(player.dialog(), "Keep these controls?");
        player
    };
    let mut player = ask();
    let out = player.item("answer 1").spot;
    player.mouse(Some(out), BESIDE);
    assert_eq!(player.dialog(), "Keep these controls?");
    player.click("answer 1");
    assert!(player.controls.profile().is_unchanged());
    let mut player = ask();
    player.mouse(None, THERE);
    assert_eq!(player.dialog(), "");
    assert!(!player.controls.profile().is_unchanged());
}

fn cell(player: &Player, column: &str) -> swap_knot_core::Cell {
    let row = player.sheet.find_row("cast-off").unwrap();
    row.cell(column.parse().unwrap())
}

/// A controller that is no pad gets out of everything as well.
#[test]
fn another_controller_gets_out_of_listening_and_trying() {
    let mut player = Player::new();
    let button = |player: &mut Player, n: u8| {
        let button = swap_knot_core::input::HidButton::new(n).unwrap();
        player.send(EventKind::HidButton { button, down: true });
        player.send(what::hid(button, false));
    };
    button(&mut player, 1);
    assert!(player.dialog().starts_with("Press the new key or button"));
    assert!(player.view().dialog.unwrap().text[0].starts_with("Press button 2 to cancel"));
    button(&mut player, 2);
    assert_eq!(player.dialog(), "");
    player.click("page try");
    player.click("trying");
    button(&mut player, 1);
    assert_eq!(player.label("trying"), "Stop test");
    button(&mut player, 2);
    assert_eq!(player.label("trying"), "Start test");
    button(&mut player, 2);
    assert!(!player.is_open());
}

#[test]
fn presets_resets_and_searches_say_what_they_do() {
    let mut player = Player::new();
    player.click("tool more");
    player.click("tool presets");
    let view = player.view();
    let presets: Vec<Item> = view.dialog.unwrap().lines.into_iter().flatten().collect();
    assert_eq!(presets[0].role, Role::Radio { selected: true });
    let left = presets.iter().find(|i| i.label == "Left-handed").unwrap();
    assert!(!left.text.is_empty());
    player.click(&left.id);
    assert_eq!(
        player.controls.screen().unwrap().draft().profile().preset(),
        Some("left-handed")
    );
    player.click("tool undo");

    player.click("cell horn keyboard-1");
    player.key(Place::KeyJ);
    player.click("tool more");
    player.click("tool reset");
    let view = player.view();
    let labels: Vec<String> = view
        .dialog
        .unwrap()
        .lines
        .into_iter()
        .flatten()
        .map(|i| i.label)
        .collect();
    assert_eq!(
        labels,
        [
            "Only “Horn (Keyboard and mouse)”",
            "All of “Horn”",
            "All of “At the helm”",
            "All of “Keyboard and mouse”",
            "All of “Gamepad”",
            "All of “Touch”",
            "Everything",
            "Cancel",
        ]
    );
    let item = player.item("answer 1");
    assert_eq!(item.text, ["Horn: H (was J)"]);
    let item = player.item("answer 5");
    assert_eq!(
        (item.text.as_slice(), item.enabled),
        (&["Nothing changes.".to_owned()][..], false)
    );
    player.click("answer 1");
    assert!(!player.controls.screen().unwrap().draft().is_changed());

    // By title, by the name of an input, and by the input itself.
    player.key(Place::Tab);
    player.hold(Place::ControlLeft, true);
    player.key(Place::KeyF);
    player.hold(Place::ControlLeft, false);
    for c in "horN".chars() {
        let text = Some(c);
        let place = Place::KeyO;
        player.send(EventKind::Key {
            place,
            down: true,
            text,
        });
        player.send(what::key(place, false));
    }
    assert_eq!(rows(&mut player), ["Horn"]);
    // A key that is a command with Ctrl types nothing: the clipboard comes by itself.
    player.hold(Place::ControlLeft, true);
    let (place, text) = (Place::KeyV, Some('v'));
    player.send(EventKind::Key {
        place,
        down: true,
        text,
    });
    player.hold(Place::KeyV, false);
    player.hold(Place::ControlLeft, false);
    assert_eq!(rows(&mut player), ["Horn"]);
    player.key(Place::Enter);
    assert_eq!(player.focus(), "cell horn keyboard-1");
    player.click("tool show-all");
    assert_eq!(player.focus(), "cell walk keyboard-1");
    player.click("tool more");
    player.click("tool find");
    player.key(Place::KeyF);
    assert_eq!(rows(&mut player), ["Lantern"]);
}

/// What has to be worked before changes are kept is what one would be lost without, and nothing else.
#[test]
fn an_essential_action_that_keeps_one_of_its_keys_has_nothing_to_prove() {
    use swap_knot_core::screen::{ControlsScreen, ScreenCommand};
    let sheet = swap_knot_core::Sheet::from_toml(
        "game = \"x\"\n[actions.leave]\nessential = true\nbind = [\"Escape\", \"KeyL\"]",
    )
    .unwrap();
    let [first, second] = [0, 1].map(|n| sheet.defaults()[n].cell);
    let asked = |cells: &[(swap_knot_core::Cell, Place)]| {
        let draft = swap_knot_core::Draft::new(&sheet, Profile::new("Ada"), Layout::us());
        let seat = swap_knot_core::Seat::new(draft.rig());
        let mut screen = ControlsScreen::new(draft, &seat);
        for (cell, place) in cells {
            let _ = screen
                .draft_mut()
                .bind(*cell, Input::Key(*place).into())
                .unwrap();
        }
        screen.command(ScreenCommand::Apply);
        screen.view().dialog.clone().map(|d| d.title)
    };
    assert_eq!(asked(&[(first, Place::KeyP)]), None);
    assert_eq!(asked(&[(second, Place::KeyP)]), None);
    let both = [(first, Place::KeyP), (second, Place::KeyQ)];
    assert_eq!(asked(&both).as_deref(), Some("Keep these controls?"));
}

/// A block, what its whole and its directions say of each other, and the line about an action.
#[test]
fn an_action_and_its_directions_are_one_block_and_it_says_what_it_is_for() {
    let mut player = Player::new();
    let view = player.view();
    let rows = &view.sections[0].rows;
    assert_eq!((rows[0].arm, &*rows[0].short), (None, "Walk"));
    assert_eq!(
        (rows[1].arm, &*rows[1].short),
        (Some(Arm::Up), "to the bow")
    );
    let whole = &rows[0].items[0];
    assert!(whole.by_whole && whole.enabled);
    assert_eq!(whole.label, "works with W, S, A, D");
    assert_eq!(view.details.text[0], "Around the deck, from bow to stern.");
    // What is no direction of a row that is shown stands for itself.
    let steer = view.sections.iter().flat_map(|s| &s.rows);
    let steer = steer.into_iter().find(|r| r.title == "Steer to port");
    assert_eq!(steer.unwrap().arm, None);
    // Nor is what a search found without its whole.
    player.click("tool search");
    player
        .controls
        .screen_mut()
        .unwrap()
        .type_text("to the bow");
    player.key(Place::Enter);
    let found = player.view().sections[0].rows[0].clone();
    assert_eq!((found.arm, &*found.short), (None, "Walk to the bow"));
}

/// What the device in hand does not work comes first, a direction that its stick works does not.
#[test]
fn problems_are_what_the_device_in_hand_does_not_work() {
    let mut player = Player::new();
    for n in [2, 1] {
        player.click(&format!("cell horn keyboard-{n}"));
        player.click("answer 2");
    }
    player.click("tool more");
    player.click("tool open-first");
    let titles = |player: &mut Player| {
        let sections = player.view().sections;
        let titles = |s: &Section| s.rows.iter().map(|r| r.title.clone()).collect();
        let all = sections.iter().map(|s| (s.title.clone(), titles(s)));
        all.collect::<Vec<(String, Vec<String>)>>()
    };
    let first = &titles(&mut player)[0];
    assert_eq!(first.0, "Not set for “Keyboard and mouse”");
    assert_eq!(first.1, ["Horn"]);
    // Nothing is missing on the pad: what its stick works whole is no problem.
    player.pad(PadButton::South);
    player.key(Place::Escape);
    player.pad(PadButton::Down);
    assert_eq!(titles(&mut player)[0].0, "Everything else");
}

/// A press of another device lands in its column, and the player is told and taken there.
#[test]
fn what_is_pressed_on_another_device_lands_in_its_column() {
    let mut player = Player::new();
    player.click("cell lantern keyboard-1");
    player.pad(PadButton::East);
    assert_eq!(player.focus(), "cell lantern gamepad-1");
    assert_eq!(player.label("cell lantern keyboard-1"), "F");
    let told = player.view().message.unwrap();
    assert!(
        told.starts_with("Gamepad: “Lantern” now uses the right"),
        "{told}"
    );
    // From the free cell it is one more, and a conflict asks as everywhere.
    player.click("cell lantern keyboard-2");
    player.pad(PadButton::Up);
    assert_eq!(player.focus(), "cell lantern gamepad-2");
    player.click("cell lantern keyboard-1");
    player.pad(PadButton::South);
    assert!(player.dialog().contains("Cast off"), "{}", player.dialog());
    player.key(Place::Escape);
    assert_eq!(player.focus(), "cell lantern gamepad-1");
    // A key lands from the gamepad's column too; a mouse that clicks beside everything does not.
    player.click("cell lantern gamepad-1");
    player.mouse(None, BESIDE);
    assert_eq!(player.dialog(), "Press the new key or button for “Lantern”");
    assert!(player.view().message.unwrap().contains("Gamepad"));
    player.key(Place::KeyL);
    assert_eq!(player.label("cell lantern keyboard-1"), "L");
}

/// A refusal names what was pressed.
#[test]
fn a_refusal_names_what_was_pressed() {
    let mut player = Player::new();
    for (button, name) in [
        (PadButton::StickRightClick, "right stick click"),
        (PadButton::South, "bottom button"),
    ] {
        player.click("cell walk gamepad-1");
        player.pad(button);
        let told = player.view().message.unwrap().to_lowercase();
        assert!(told.contains(name), "{told}");
    }
}
