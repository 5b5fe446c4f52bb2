//! The pages of profiles, keyboard, pad and trying.

use crate::common::what;
use swap_knot_core::input::HidButton;
use swap_knot_core::keep::{Memory, Store as _};
use swap_knot_core::prompt::Marks;
use swap_knot_core::screen::{Item, ProfileCommand, Role, RowView, ScreenView, Spot};
use swap_knot_core::{
    Controls, DeviceId, Event, EventKind, Layout, Locker, PadButton, Place, Profile, Slug, Stick,
    Time,
};

use super::player::{CROSS, Player, rows};

/// A player whose profiles are kept, with the page of them shown.
fn kept() -> (Player, Locker) {
    let mut player = Player::new();
    let locker = Locker::in_store(Memory::new());
    let ada = Slug::from_title("Ada");
    player.controls = Controls::open_last(&player.sheet, locker.clone(), &ada, &Layout::us());
    player.open();
    player.click("page profiles");
    player.controls.save();
    (player, locker)
}

/// One that cannot be read is not told as one that changes nothing, and what is applied is told at once.
#[test]
fn a_profile_says_what_it_changes_now_or_that_it_cannot_be_read() {
    let mut player = Player::new();
    let store = Memory::new();
    store.replace("bo.toml", b"title = [").unwrap();
    let ada = Slug::from_title("Ada");
    let locker = Locker::in_store(store);
    player.controls = Controls::open_last(&player.sheet, locker, &ada, &Layout::us());
    player.open();
    player.click("page profiles");
    player.controls.save();
    let said = |player: &mut Player| {
        let rows = player.view().sections.swap_remove(0).rows;
        let said = rows.into_iter().map(|row| row.text.unwrap());
        said.collect::<Vec<String>>()
    };
    let unreadable = "This is not a profile the game can read.";
    assert_eq!(said(&mut player), ["Same as the default", unreadable]);
    player
        .controls
        .screen_mut()
        .unwrap()
        .focus(Spot::Profile(1, ProfileCommand::Switch));
    assert_eq!(player.view().details.text, [unreadable]);
    player.click("page bindings");
    player.click("cell horn keyboard-1");
    player.key(Place::KeyJ);
    player.click("tool apply");
    player.click("page profiles");
    assert_eq!(said(&mut player)[0], "Changes: Horn");
}

#[test]
fn profiles_are_made_switched_copied_renamed_deleted_and_brought_back() {
    let (mut player, locker) = kept();
    let step = |player: &mut Player, id: &str| {
        player.click(id);
        player.wait(20);
        player.controls.save();
    };
    // A change of Ada's, then a profile without changes, both there afterwards.
    player.click("page bindings");
    player.click("cell horn keyboard-1");
    player.key(Place::KeyJ);
    player.click("page profiles");
    player.click("tool undo");
    step(&mut player, "tool redo");
    step(&mut player, "new-profile");
    let told = "Apply or undo your changes first.";
    assert_eq!(player.view().message.as_deref(), Some(told));
    step(&mut player, "tool apply");
    player.click("new-profile");
    let dialog = player.view().dialog.unwrap();
    assert_eq!(
        (dialog.title.as_str(), dialog.field.as_deref()),
        ("Profile name", Some("New profile"))
    );
    step(&mut player, "answer 1");
    assert_eq!(player.controls.profile().title(), "New profile");
    assert_eq!(rows(&mut player), ["Ada", "New profile"]);
    assert!(player.controls.profile().is_unchanged());
    // What each of them changes, and how the other one differs from the one in use.
    let view = player.view();
    let said = |row: &RowView| (row.text.clone().unwrap(), row.mark.is_some());
    let said: Vec<(String, bool)> = view.sections[0].rows.iter().map(said).collect();
    assert_eq!(said[0], ("Changes: Horn".to_owned(), false));
    assert_eq!(said[1], ("Same as the default".to_owned(), true));
    player
        .controls
        .screen_mut()
        .unwrap()
        .focus(Spot::Profile(0, ProfileCommand::Switch));
    let details = player.view().details;
    assert_eq!(
        (&*details.title, &*details.text.join("|")),
        ("Ada", "Horn: J (was H)")
    );
    assert!(
        !player.view().items().any(|i| i.id == "profile 2 delete"),
        "it is played"
    );
    // Copied and named with the keyboard, renamed letter by letter with a pad.
    player.click("profile 1 copy");
    let dialog = player.view().dialog.unwrap();
    // What is proposed is replaced by the first letter.
    assert_eq!(
        (dialog.field.as_deref(), dialog.is_selected),
        (Some("Ada 2"), true)
    );
    player.controls.screen_mut().unwrap().type_text("Ada ");
    assert!(!player.view().dialog.unwrap().is_selected);
    player.key(Place::Space);
    for c in "ß9".chars() {
        player.send(EventKind::Key {
            place: Place::KeyS,
            down: true,
            text: Some(c),
        });
        player.send(what::key(Place::KeyS, false));
    }
    player.key(Place::Enter);
    player.wait(20);
    player.controls.save();
    assert_eq!(rows(&mut player), ["Ada", "Ada  ß9", "New profile"]);
    player.go("profile 2 rename", &CROSS);
    player.pad(PadButton::South);
    player.pad(PadButton::West);
    let letter = player
        .view()
        .items()
        .find(|i| i.label == "B")
        .unwrap()
        .id
        .clone();
    player.go(&letter, &CROSS);
    player.pad(PadButton::South);
    player.go("answer 1", &CROSS);
    player.pad(PadButton::South);
    player.controls.save();
    assert_eq!(rows(&mut player), ["Ada", "Ada  ßB", "New profile"]);
    // The one that is played is renamed in hand, and kept.
    player.click("profile 3 rename");
    player
        .controls
        .screen_mut()
        .unwrap()
        .type_text(" of Björn\n");
    step(&mut player, "answer 1");
    assert_eq!(rows(&mut player)[2], "New profile of Björn");
    let again = Controls::open_last(
        &player.sheet,
        locker.clone(),
        &Slug::from_title("x"),
        &Layout::us(),
    );
    assert_eq!(again.profile().title(), "New profile of Björn");
    // Deleted, and back.
    player.click("profile 2 delete");
    assert_eq!(player.dialog(), "Delete “Ada  ßB”?");
    step(&mut player, "answer 1");
    assert_eq!(
        rows(&mut player),
        ["Ada", "New profile of Björn", "Ada  ßB"]
    );
    step(&mut player, "profile 3 undelete");
    step(&mut player, "profile 2 switch");
    assert_eq!(player.controls.profile().title(), "Ada  ßB");
    assert_eq!(player.prompt("{horn:keyboard}"), "J");
    // As text, and taken in again.
    step(&mut player, "profile 2 export");
    let shown = player.view().dialog.unwrap();
    assert_eq!(shown.title, "Copy this text to share the profile");
    player.click("answer 1");
    let text = player.controls.screen_mut().unwrap().take_copied().unwrap();
    assert_eq!(shown.field.as_deref(), Some(text.as_str()));
    player.click("import");
    player
        .controls
        .screen_mut()
        .unwrap()
        .type_text("this is none");
    step(&mut player, "answer 1");
    let told = "This is not a profile the game can read.";
    assert_eq!(player.view().message.as_deref(), Some(told));
    player.click("import");
    player.controls.screen_mut().unwrap().type_text(&text);
    step(&mut player, "answer 1");
    assert_eq!(
        rows(&mut player).iter().filter(|t| *t == "Ada  ßB").count(),
        2
    );
}

/// Another layout is rehearsed: its board with what a player there has, where its keys lie under one's own
/// hand, and nothing is changed by it.
#[test]
fn another_layout_is_rehearsed_and_nothing_is_changed() {
    let mut player = Player::new();
    player.click("page keyboard");
    player.click("rehearse");
    let view = player.view();
    let answers: Vec<Item> = view.dialog.unwrap().lines.into_iter().flatten().collect();
    let french = answers.iter().find(|i| i.label == "Français").unwrap();
    player.click(&french.id.clone());
    let view = player.view();
    assert_eq!(
        view.sections[0].title,
        "Trying: Français. Your own keys are not changed."
    );
    assert_eq!(player.label("layout"), "Automatic: English (US)");
    assert_eq!(player.label("key KeyW"), "Z");
    assert_eq!(player.item("key KeyW").text[0], "Z is W on your keyboard");
    // The map lies on the letter M, which is another key there.
    let key = |view: &ScreenView, id: &str| {
        let keys = view.board.clone().unwrap().keys;
        keys.into_iter().find(|k| k.item.id == id).unwrap().title
    };
    assert_eq!(key(&view, "key KeyM"), "");
    assert_eq!(key(&view, "key Semicolon"), "Map table");
    // What is pressed is seen where it lies.
    player.hold(Place::KeyA, true);
    let board = player.view().board.unwrap();
    assert!(board.keys.iter().any(|k| k.down && k.item.label == "Q"));
    player.hold(Place::KeyA, false);
    assert!(!player.controls.screen().unwrap().draft().is_changed());
    // Back ends that, and then the screen.
    player.key(Place::Escape);
    assert_eq!(player.label("key KeyW"), "W");
    player.click("rehearse");
    player.key(Place::Escape);
    assert_eq!(
        (player.label("key KeyW"), player.dialog()),
        ("W".to_owned(), String::new())
    );
    player.key(Place::Escape);
    assert!(!player.is_open());
}

#[test]
fn the_keyboard_is_chosen_shown_and_leads_to_what_is_on_a_key() {
    let mut player = Player::new();
    player.click("page keyboard");
    player.click("layout");
    let view = player.view();
    let answers: Vec<Item> = view.dialog.unwrap().lines.into_iter().flatten().collect();
    assert_eq!(answers[0].role, Role::Radio { selected: true });
    let french = answers.iter().find(|i| i.label == "Français").unwrap();
    player.click(&french.id.clone());
    assert_eq!(player.label("layout"), "Français");
    assert_eq!(player.label("key KeyW"), "Z");
    // What is typed meanwhile, on the layout that is played, does not change the choice.
    player.key(Place::KeyP);
    assert_eq!(player.label("key KeyW"), "Z");
    player.click("tool undo");
    assert_eq!(player.label("layout"), "Automatic: English (US)");
    let key = player.item("key KeyW");
    assert_eq!(
        key.text,
        [
            "On deck: Walk to the bow",
            "At the helm: Throttle",
            "In the crane: Hoist"
        ]
    );
    assert_eq!(player.item("key KeyP").spoken, "P: not used");
    player.hold(Place::KeyQ, true);
    let board = player.view().board.unwrap();
    let down: Vec<&str> = board
        .keys
        .iter()
        .filter(|k| k.down)
        .map(|k| k.item.label.as_str())
        .collect();
    assert_eq!(down, ["Q"]);
    player.hold(Place::KeyQ, false);
    player.click("key KeyW");
    assert_eq!(rows(&mut player), ["Walk to the bow", "Throttle", "Hoist"]);
    // Applied, typing another layout does not change it.
    player.click("page keyboard");
    player.click("layout");
    player.click(&french.id.clone());
    player.click("tool apply");
    let chosen = player.controls.profile().layout().map(str::to_owned);
    assert_eq!(chosen.as_deref(), Some("fr"));
    assert_eq!(player.prompt("{walk.up}"), "Z");
}

#[test]
fn what_is_tried_is_lit_and_not_played() {
    let mut player = Player::new();
    player.click("page try");
    player.go("where", &CROSS);
    player.pad(PadButton::Right);
    assert_eq!(player.label("where"), "At the helm");
    player.pad(PadButton::Left);
    player.go("trying", &CROSS);
    player.pad(PadButton::South);
    // Everything is tried, also what works the screen.
    player.hold(Place::KeyW, true);
    player.pad(PadButton::East);
    let view = player.view();
    let all: Vec<_> = view.sections.iter().flat_map(|s| &s.rows).collect();
    let lit: Vec<&str> = all
        .iter()
        .filter(|r| r.lit)
        .map(|r| r.title.as_str())
        .collect();
    assert_eq!(lit, ["Walk", "Walk to the bow"]);
    assert_eq!(
        all[1].title,
        "left bumper + right button of the four: Stow at the stern – works only here: In the crane"
    );
    assert_eq!(all[2].title, "W: Walk to the bow");
    assert!(player.controls.seat().happened().is_empty());
    player.hold(Place::KeyW, false);
    player.pad(PadButton::CenterRight);
    assert_eq!(player.label("trying"), "Start test");
    player.pad(PadButton::East);
    assert!(!player.is_open());
}

#[test]
fn the_pad_is_told_by_its_marks_lit_and_leads_to_what_is_on_a_part() {
    let mut player = Player::new();
    let marks = include_str!("../../../../../demo/marks.toml");
    player
        .controls
        .set_marks(&Marks::from_toml(marks, "marks.toml").unwrap());
    let device = DeviceId(1);
    let usb = "1209:5a01".parse().ok();
    let what = EventKind::Plugged { usb };
    let at = player.now;
    player.controls.feed(&Event { at, device, what });
    // With the pad alone, shoulder by shoulder.
    for _ in 0..4 {
        player.pad(PadButton::ShoulderRight);
    }
    assert_eq!(player.label("page pad"), "Gamepad");
    assert_eq!(player.label("family"), "Automatic: Quayside");
    let south = player.item("part pad:south");
    assert_eq!(
        south.text,
        [
            "On deck: Cast off",
            "Hailing the harbour: Send",
            "Paused: Resume"
        ]
    );
    assert_eq!(rows(&mut player)[1..5], ["T", "I", "D", "E"]);
    let stick = player.item("part pad:stick-left");
    assert!(
        stick.label.contains("Walk") && stick.label.contains("Steer to port"),
        "{}",
        stick.label
    );
    // Pressed parts are lit in the picture and in the rows, and sticks move.
    player.send(what::pad(PadButton::StickRightClick, 1.0));
    player.tilt(Stick::RIGHT, 0.5, -0.25);
    let view = player.view();
    let pad = view.pad.clone().unwrap();
    let down: Vec<String> = (pad.parts.iter())
        .filter(|p| p.down)
        .map(|p| p.spot.id(&player.sheet))
        .collect();
    assert_eq!(down, ["part pad:stick-right-click"]);
    let stick = pad.parts.iter().find(|p| p.at == [0.5, -0.25]).unwrap();
    assert_eq!(stick.spot.id(&player.sheet), "part pad:stick-right");
    let marked: Vec<&str> = pad.parts.iter().filter_map(|p| p.mark.as_deref()).collect();
    assert_eq!(marked[..5], ["T", "I", "D", "E", "PORT"]);
    let lit: Vec<&RowView> = view
        .sections
        .iter()
        .flat_map(|s| &s.rows)
        .filter(|r| r.lit)
        .collect();
    assert_eq!(lit.len(), 1);
    // Every part of the picture that does something has a row of its own.
    for part in pad.parts.iter().filter(|p| p.does) {
        player.item(&part.spot.id(&player.sheet));
    }
    player.tilt(Stick::RIGHT, 0.0, 0.0);
    // Another family is chosen, told at once, undone, and chosen again.
    player.go("family", &CROSS);
    player.pad(PadButton::South);
    player.pad(PadButton::Down);
    player.pad(PadButton::Down);
    player.pad(PadButton::South);
    assert_eq!(player.label("family"), "Ropewalk");
    assert_eq!(rows(&mut player)[1..5], ["Anchor", "Wave", "Star", "Flag"]);
    // The right one confirms now.
    player.click("tool undo");
    assert_eq!(player.label("family"), "Automatic: Quayside");
    player.click("tool redo");
    assert!(
        player
            .view()
            .notes
            .iter()
            .any(|n| n.text.contains("Ropewalk"))
    );
    player.go("tool apply", &CROSS);
    player.pad(PadButton::East);
    assert_eq!(player.controls.profile().family(), Some("ropewalk"));
    assert_eq!(player.prompt("{cast-off:gamepad}"), "Anchor");
    player.click("part pad:trigger-left");
    assert_eq!(player.view().pages[0].role, Role::Tab { selected: true });
    assert_eq!(rows(&mut player), ["Fine control"]);
    // Another controller is listed by its numbers, lit while it is worked.
    player.click("page pad");
    let button = HidButton::new(3).unwrap();
    let at = player.now;
    let what = EventKind::HidButton { button, down: true };
    let device = DeviceId(9);
    player.controls.feed(&Event { at, device, what });
    player.wait(10);
    let view = player.view();
    let other = view.sections.last().unwrap();
    let lit: Vec<&str> = other
        .rows
        .iter()
        .filter(|r| r.lit)
        .map(|r| r.title.as_str())
        .collect();
    assert_eq!(lit, ["button 3"]);
}

#[test]
fn how_turning_a_pad_feels_is_set_beside_the_rest() {
    let sheet = crate::common::small(
        "[actions.tilt]\nshape = \"space\"\nbind = \"pad:gyro\"\n[actions.horn]\nbind = \"KeyH\"",
    );
    let mut player = Player {
        controls: Controls::new(&sheet, Profile::new("Ada"), &Layout::us()),
        now: Time::ZERO,
        sheet,
    };
    player.open();
    player.click("page feel");
    player.go("feel gamepad gyro", &CROSS);
    assert_eq!(player.label("feel gamepad gyro"), "16");
    player.pad(PadButton::Right);
    player.click("feel gamepad invert-z");
    player.click("tool apply");
    player.click("tool leave");
    assert!(!player.is_open(), "{}", player.dialog());
    player.send(EventKind::PadGyro {
        yaw: 1.0,
        pitch: 0.0,
        roll: 2.0,
    });
    let tilt = player.sheet.find("tilt").unwrap();
    assert_eq!(player.controls.seat().motion(tilt), [17.0, 0.0, -34.0]);
}
