//! The controls screen as a player works it: by raw events and pointing alone.

#![allow(clippy::unwrap_used, clippy::panic)]

use std::time::Duration;

use swap_knot_core::screen::{Item, Page, Role, ScreenView, Spot, Tool};
use swap_knot_core::{
    Column, Controls, DeviceId, DeviceKind, Draft, Event, EventKind, FeelPatch, Input, Layout,
    Locker, Memory, PadButton, Place, Profile, Sheet, Slug, Stick, Time, Words,
};

const SHEET: &str = include_str!("../../../demo/slack-water.toml");

/// A player before the screen, with a clock.
struct Player {
    sheet: Sheet,
    controls: Controls,
    now: Time,
}

impl Player {
    fn new() -> Player {
        let sheet = Sheet::from_toml(SHEET).unwrap();
        let mut controls = Controls::new(&sheet, Profile::new("Ada"), &Layout::us());
        controls
            .seat_mut()
            .enter(sheet.find_situation("deck").unwrap());
        let mut player = Player {
            sheet,
            controls,
            now: Time::ZERO,
        };
        player.open();
        player
    }

    fn open(&mut self) {
        self.controls.open_screen(self.now);
    }

    fn is_open(&self) -> bool {
        self.controls.screen().is_some()
    }

    fn send(&mut self, what: EventKind) {
        self.now = self.now.plus(Duration::from_millis(20));
        let device = DeviceId(u16::from(what_pad(&what)));
        self.controls.feed(&Event {
            at: self.now,
            device,
            what,
        });
        self.controls.tick(self.now);
    }

    fn wait(&mut self, ms: u64) {
        let until = self.now.plus(Duration::from_millis(ms));
        while self.now < until {
            self.now = self.now.plus(Duration::from_millis(10));
            self.controls.tick(self.now);
        }
    }

    fn hold(&mut self, place: Place, down: bool) {
        self.send(EventKind::Key {
            place,
            down,
            text: None,
        });
    }

    fn key(&mut self, place: Place) {
        self.hold(place, true);
        self.hold(place, false);
    }

    fn keys(&mut self, places: &[Place]) {
        places.iter().for_each(|p| self.key(*p));
    }

    fn pad(&mut self, button: PadButton) {
        self.send(EventKind::PadButton { button, value: 1.0 });
        self.send(EventKind::PadButton { button, value: 0.0 });
    }

    fn tilt(&mut self, stick: Stick, x: f32, y: f32) {
        self.send(EventKind::PadStick { stick, x, y });
    }

    fn view(&mut self) -> ScreenView {
        self.controls.screen_mut().unwrap().view().clone()
    }

    fn item(&mut self, id: &str) -> Item {
        let view = self.view();
        let item = view.items().find(|i| i.id == id);
        item.unwrap_or_else(|| panic!("no {id}")).clone()
    }

    /// Clicks something.
    fn click(&mut self, id: &str) {
        let spot = self.item(id).spot;
        let screen = self.controls.screen_mut().unwrap();
        screen.point_at(Some(spot));
        screen.press(spot);
        self.wait(10);
    }

    fn focus(&mut self) -> String {
        self.view().focused().unwrap().id.clone()
    }

    fn label(&mut self, id: &str) -> String {
        self.item(id).label
    }

    fn dialog(&mut self) -> String {
        self.view().dialog.map(|d| d.title).unwrap_or_default()
    }

    fn prompt(&mut self, text: &str) -> String {
        self.controls.prompt(text).unwrap().to_string()
    }

    /// Goes to an item step by step, as a player would: up, down, left or right.
    fn go(&mut self, id: &str, [up, down, left, right]: &[EventKind; 4]) {
        for _ in 0..300 {
            let view = self.view();
            let lines = view.lines();
            let find = |is: &dyn Fn(&Item) -> bool| {
                let row = lines.iter().position(|l| l.iter().any(|i| is(i)));
                let row = row.unwrap_or_else(|| panic!("no {id}"));
                (row, lines[row].iter().position(|i| is(i)).unwrap())
            };
            let (here, there) = (find(&|i| i.focused), find(&|i| i.id == id));
            let what = match here.cmp(&there) {
                _ if here == there => return,
                _ if here.0 > there.0 => up,
                _ if here.0 < there.0 => down,
                std::cmp::Ordering::Greater => left,
                _ => right,
            };
            self.send(*what);
            self.send(released(*what));
        }
        panic!("{id} is not reached, {} is", self.focus());
    }
}

fn what_pad(what: &EventKind) -> bool {
    matches!(
        what,
        EventKind::PadButton { .. } | EventKind::PadStick { .. }
    )
}

fn released(what: EventKind) -> EventKind {
    match what {
        EventKind::Key { place, .. } => EventKind::Key {
            place,
            down: false,
            text: None,
        },
        EventKind::PadButton { button, .. } => EventKind::PadButton { button, value: 0.0 },
        other => other,
    }
}

const fn down(place: Place) -> EventKind {
    EventKind::Key {
        place,
        down: true,
        text: None,
    }
}

const fn pushed(button: PadButton) -> EventKind {
    EventKind::PadButton { button, value: 1.0 }
}

const ARROWS: [EventKind; 4] = [
    down(Place::ArrowUp),
    down(Place::ArrowDown),
    down(Place::ArrowLeft),
    down(Place::ArrowRight),
];
const CROSS: [EventKind; 4] = [
    pushed(PadButton::Up),
    pushed(PadButton::Down),
    pushed(PadButton::Left),
    pushed(PadButton::Right),
];
const CAST_OFF: &str = "cell cast-off keyboard-1";

#[test]
fn a_key_is_changed_with_the_keyboard_alone() {
    let mut player = Player::new();
    player.go(CAST_OFF, &ARROWS);
    player.key(Place::Enter);
    assert_eq!(player.dialog(), "Press the new input for “Cast off”");
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
    assert_eq!(player.dialog(), "Leave with these changes?");
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
        "The left face button is taken by “Coil the rope”"
    );
    player.pad(PadButton::South);
    assert_eq!(
        player.label("cell coil-rope gamepad-1"),
        "bottom face button"
    );
    // A chord: a shoulder held, and a button.
    player.pad(PadButton::South);
    player.send(EventKind::PadButton {
        button: PadButton::ShoulderLeft,
        value: 1.0,
    });
    player.send(EventKind::PadButton {
        button: PadButton::Up,
        value: 1.0,
    });
    assert_eq!(
        player.label("cell cast-off gamepad-1"),
        "left shoulder + cross up"
    );
    player.send(EventKind::PadButton {
        button: PadButton::Up,
        value: 0.0,
    });
    player.send(EventKind::PadButton {
        button: PadButton::ShoulderLeft,
        value: 0.0,
    });
    // Reset, undo, clear: all that a cell has.
    player.pad(PadButton::North);
    player.pad(PadButton::CenterLeft);
    player.pad(PadButton::West);
    let told = player.view().message.unwrap();
    assert!(
        told.starts_with("“Cast off” always needs a binding (Gamepad)"),
        "{told}"
    );
}

#[test]
fn what_cancels_is_told_and_the_mouse_gets_out_by_pointing() {
    let mut player = Player::new();
    player.click("cell walk.up keyboard-1");
    let text = player.view().dialog.unwrap().text;
    assert_eq!(text[0], "Escape cancels; 10 s left");
    // The game keeps Escape for itself, so nobody is told how to bind it.
    assert_eq!(text.len(), 1);
    let spot = player.item("answer 2").spot;
    let button = swap_knot_core::MouseButton::Left;
    let click = |player: &mut Player, at: Option<Spot>| {
        // What is pointed at is known only once the picture has been drawn.
        for down in [true, false] {
            player.now = player.now.plus(Duration::from_millis(3));
            let (at, device) = (player.now, DeviceId(0));
            let what = EventKind::MouseButton { button, down };
            player.controls.feed(&Event { at, device, what });
        }
        player.controls.tick(player.now);
        player.controls.screen_mut().unwrap().point_at(at);
    };
    click(&mut player, Some(spot));
    assert!(player.dialog().starts_with("Press the new input"));
    click(&mut player, None);
    let taken = "The left mouse button is taken by “Coil the rope”";
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
        text[0].starts_with("The right center button cancels"),
        "{text:?}"
    );
    assert_eq!(
        text[1],
        "To bind the right center button itself, hold it down."
    );
    player.pad(PadButton::CenterRight);
    assert_eq!(player.dialog(), "");
    assert_eq!(player.label("cell horn gamepad-1"), "top face button");
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
    assert!(player.dialog().starts_with("Press the new input"));
    player.tilt(Stick::LEFT, -0.9, 0.1);
    assert_eq!(
        player.dialog(),
        "The left stick left is taken by “Steer to port”"
    );
}

#[test]
fn feel_is_changed_shown_live_and_undone_in_one_step() {
    let mut player = Player::new();
    player.pad(PadButton::ShoulderRight);
    assert_eq!(player.controls.screen().unwrap().page(), Page::Feel);
    player.go("dial gamepad sensitivity", &CROSS);
    for _ in 0..3 {
        player.pad(PadButton::Right);
    }
    assert_eq!(player.label("dial gamepad sensitivity"), "1.33");
    // A held direction is one step for undo, single pushes in a row as well.
    player.pad(PadButton::CenterLeft);
    assert_eq!(player.label("dial gamepad sensitivity"), "1");
    // On a dead zone, a stick shows what it does and goes nowhere.
    player.go("dial gamepad dead-zone", &CROSS);
    player.tilt(Stick::LEFT, 0.0, -1.0);
    player.tilt(Stick::LEFT, 0.0, 0.0);
    assert_eq!(player.focus(), "dial gamepad dead-zone");
    // What led here by a held stick does not go on once it has been let go.
    player.go("dial gamepad sensitivity", &CROSS);
    player.tilt(Stick::LEFT, 0.0, -1.0);
    player.tilt(Stick::LEFT, 0.0, 0.0);
    assert_eq!(player.focus(), "dial gamepad dead-zone");
    player.wait(2000);
    assert_eq!(player.focus(), "dial gamepad dead-zone");
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
    player.click("dial gamepad invert-x");
    let feel = player.controls.screen().unwrap().draft().profile();
    let invert = Some([true, false, false]);
    assert_eq!(feel.feel(Some("steer"), DeviceKind::Gamepad), patch(invert));
    assert_eq!(feel.easing(None).press, Some(true));
    player.go("dial gamepad invert-x", &CROSS);
    player.pad(PadButton::North);
    let feel = player.controls.screen().unwrap().draft().profile();
    assert_eq!(feel.feel(Some("steer"), DeviceKind::Gamepad), patch(None));
}

fn patch(invert: Option<[bool; 3]>) -> FeelPatch {
    let mut patch = FeelPatch::default();
    patch.invert = invert;
    patch
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
    player.go("dial gamepad dead-zone", &CROSS);
    let spot = player.item("dial gamepad dead-zone").spot;
    player.controls.screen_mut().unwrap().drag(spot, 1.0);
    assert_eq!(player.label("dial gamepad dead-zone"), "0.9");
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
    let told = "The old controls stay. Your changes are still here, not applied.";
    assert_eq!(player.view().message.as_deref(), Some(told));
    // With one that can be left, it is kept.
    player.controls.screen_mut().unwrap().drag(spot, 0.2);
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
    let click = |player: &mut Player, at: Option<Spot>| {
        let button = swap_knot_core::MouseButton::Left;
        for down in [true, false] {
            player.now = player.now.plus(Duration::from_millis(3));
            let (at, device) = (player.now, DeviceId(0));
            let what = EventKind::MouseButton { button, down };
            player.controls.feed(&Event { at, device, what });
        }
        player.controls.screen_mut().unwrap().point_at(at);
        player.wait(10);
    };
    let mut player = ask();
    let out = player.item("answer 1").spot;
    click(&mut player, Some(out));
    assert_eq!(player.dialog(), "Keep these controls?");
    player.click("answer 1");
    assert!(player.controls.profile().is_unchanged());
    let mut player = ask();
    click(&mut player, None);
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
        let button = swap_knot_core::HidButton::new(n).unwrap();
        player.send(EventKind::HidButton { button, down: true });
        player.send(EventKind::HidButton {
            button,
            down: false,
        });
    };
    button(&mut player, 1);
    assert!(player.dialog().starts_with("Press the new input"));
    assert!(player.view().dialog.unwrap().text[0].starts_with("Button 2 cancels"));
    button(&mut player, 2);
    assert_eq!(player.dialog(), "");
    player.click("page try");
    player.click("trying");
    button(&mut player, 1);
    assert_eq!(player.label("trying"), "Stop");
    button(&mut player, 2);
    assert_eq!(player.label("trying"), "Try");
    button(&mut player, 2);
    assert!(!player.is_open());
}

#[test]
fn presets_resets_and_searches_say_what_they_do() {
    let mut player = Player::new();
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
            "Everything of “Horn”",
            "Everything of “At the helm”",
            "Everything of “Keyboard and mouse”",
            "Everything of “Gamepad”",
            "Everything of “Touch”",
            "Everything",
            "Cancel",
        ]
    );
    let item = player.item("answer 1");
    assert_eq!(item.text, ["Horn: H instead of J"]);
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
        player.send(EventKind::Key {
            place,
            down: false,
            text: None,
        });
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
    player.click("tool find");
    player.key(Place::KeyF);
    assert_eq!(rows(&mut player), ["Lantern"]);
}

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
    let told = "Apply or discard your changes first.";
    assert_eq!(player.view().message.as_deref(), Some(told));
    step(&mut player, "tool apply");
    player.click("new-profile");
    let dialog = player.view().dialog.unwrap();
    assert_eq!(
        (dialog.title.as_str(), dialog.field.as_deref()),
        ("What is it called?", Some("New profile"))
    );
    step(&mut player, "answer 1");
    assert_eq!(player.controls.profile().title(), "New profile");
    assert_eq!(rows(&mut player), ["ada", "New profile"]);
    assert!(player.controls.profile().is_unchanged());
    assert!(
        !player.view().items().any(|i| i.id == "profile 2 delete"),
        "it is played"
    );
    // Copied and named with the keyboard, renamed letter by letter with a pad.
    player.click("profile 1 copy");
    player.key(Place::Backspace);
    player.key(Place::Space);
    for c in "ß9".chars() {
        player.send(EventKind::Key {
            place: Place::KeyS,
            down: true,
            text: Some(c),
        });
        player.send(EventKind::Key {
            place: Place::KeyS,
            down: false,
            text: None,
        });
    }
    player.key(Place::Enter);
    player.wait(20);
    player.controls.save();
    assert_eq!(rows(&mut player), ["ada", "ada  ß9", "New profile"]);
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
    assert_eq!(rows(&mut player), ["ada", "ada  ßB", "New profile"]);
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
    assert_eq!(player.dialog(), "Delete “ada  ßB”?");
    step(&mut player, "answer 1");
    assert_eq!(rows(&mut player), ["ada", "New profile of Björn", "ada-9"]);
    step(&mut player, "profile 3 undelete");
    step(&mut player, "profile 2 switch");
    assert_eq!(player.controls.profile().title(), "ada  ßB");
    assert_eq!(player.prompt("{horn}"), "J");
    // As text, and taken in again.
    step(&mut player, "profile 2 export");
    let shown = player.view().dialog.unwrap();
    assert_eq!(shown.title, "The profile as text");
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
    let told = "This is no profile that the game can read.";
    assert_eq!(player.view().message.as_deref(), Some(told));
    player.click("import");
    player.controls.screen_mut().unwrap().type_text(&text);
    step(&mut player, "answer 1");
    assert_eq!(
        rows(&mut player).iter().filter(|t| *t == "ada  ßB").count(),
        2
    );
}

#[test]
fn the_keyboard_is_chosen_shown_and_leads_to_what_is_on_a_key() {
    let mut player = Player::new();
    player.click("page keyboard");
    player.click("layout");
    let view = player.view();
    let answers: Vec<Item> = view.dialog.unwrap().lines.into_iter().flatten().collect();
    assert_eq!(answers[0].role, Role::Radio { selected: true });
    let french = answers.iter().find(|i| i.label == "French").unwrap();
    player.click(&french.id.clone());
    assert_eq!(player.label("layout"), "French");
    assert_eq!(player.label("key KeyW"), "Z");
    // What is typed meanwhile, on the layout that is played, does not change the choice.
    player.key(Place::KeyP);
    assert_eq!(player.label("key KeyW"), "Z");
    player.click("tool undo");
    assert_eq!(player.label("layout"), "English (US): as it is found");
    let key = player.item("key KeyW");
    assert_eq!(
        key.text,
        [
            "On deck: Walk to the bow",
            "At the helm: Throttle",
            "In the crane: Hoist"
        ]
    );
    assert_eq!(player.item("key KeyP").spoken, "P: nothing");
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
    assert!(player.controls.is_layout_chosen());
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
    assert_eq!(all[1].title, "The right face button does nothing here.");
    assert_eq!(all[2].title, "W: Walk to the bow");
    assert!(player.controls.seat().happened().is_empty());
    player.hold(Place::KeyW, false);
    player.pad(PadButton::CenterRight);
    assert_eq!(player.label("trying"), "Try");
    player.pad(PadButton::East);
    assert!(!player.is_open());
}

fn rows(player: &mut Player) -> Vec<String> {
    let view = player.view();
    let rows = view.sections.iter().flat_map(|s| &s.rows);
    rows.map(|r| r.title.clone()).collect()
}

/// With one device in hand and whatever was done before: a few presses, and the screen is left.
fn leave_with(player: &mut Player, kind: DeviceKind) {
    for _ in 0..12 {
        if !player.is_open() {
            return;
        }
        let view = player.view();
        let leaving = view
            .dialog
            .as_ref()
            .is_some_and(|d| d.title == "Leave with these changes?");
        match kind {
            DeviceKind::Keyboard if leaving => player.keys(&[Place::ArrowDown, Place::Enter]),
            DeviceKind::Keyboard => player.key(Place::Escape),
            DeviceKind::Gamepad if leaving => {
                player.pad(PadButton::Down);
                player.pad(PadButton::South);
            }
            DeviceKind::Gamepad if view.hints.iter().all(|h| h.does != "back") => {
                player.pad(PadButton::CenterRight)
            }
            DeviceKind::Gamepad => player.pad(PadButton::East),
            _ if leaving => player.click("answer 2"),
            _ => {
                let outs = ["Cancel", "Back out", "Back to the old ones"];
                let items = view.dialog.iter().flat_map(|d| d.lines.iter().flatten());
                let out = items.clone().find(|i| outs.contains(&i.label.as_str()));
                let out = out
                    .or(items.clone().find(|i| i.enabled))
                    .map(|i| i.id.as_str());
                player.click(out.unwrap_or("tool leave"));
            }
        }
    }
    let (dialog, focus) = (player.view().dialog, player.focus());
    panic!("{kind} cannot leave {dialog:?}, on {focus}");
}

/// Where two views differ, with what is around it.
fn first_difference(a: &ScreenView, b: &ScreenView) -> Option<[String; 2]> {
    if a == b {
        return None;
    }
    let (a, b) = (format!("{a:?}"), format!("{b:?}"));
    let at = a.chars().zip(b.chars()).position(|(a, b)| a != b);
    let from = at.unwrap_or(0).saturating_sub(300);
    let around = |t: &str| t.chars().skip(from).take(400).collect();
    Some([around(&a), around(&b)])
}

/// A small random number generator, so that every run is the same.
struct Dice(u64);

impl Dice {
    fn roll(&mut self, sides: usize) -> usize {
        self.0 = self
            .0
            .wrapping_mul(6_364_136_223_846_793_005)
            .wrapping_add(1_442_695_040_888_963_407);
        ((self.0 >> 33) % sides as u64) as usize
    }

    fn pick<T: Copy>(&mut self, of: &[T]) -> T {
        of[self.roll(of.len())]
    }
}

fn anything(dice: &mut Dice) -> EventKind {
    let places = [
        Place::ArrowUp,
        Place::ArrowDown,
        Place::ArrowLeft,
        Place::ArrowRight,
        Place::Enter,
        Place::Escape,
        Place::Delete,
        Place::Backspace,
        Place::Tab,
        Place::Space,
        Place::KeyG,
        Place::KeyZ,
        Place::KeyF,
        Place::KeyS,
        Place::KeyW,
        Place::ControlLeft,
        Place::ShiftLeft,
        Place::PageDown,
        Place::Digit1,
        Place::AltRight,
    ];
    let down = dice.roll(2) == 0;
    match dice.roll(10) {
        0..=4 => {
            let text = [None, Some('a'), Some('\u{7f}'), Some('ß')];
            EventKind::Key {
                place: dice.pick(&places),
                down,
                text: dice.pick(&text),
            }
        }
        5 | 6 => {
            let value = dice.pick(&[0.0, 0.3, 1.0, f32::NAN, -4.0]);
            EventKind::PadButton {
                button: dice.pick(PadButton::ALL),
                value,
            }
        }
        7 => {
            let stick = dice.pick(&Stick::ALL);
            let far = [0.0, 0.2, -0.7, 1.0, f32::INFINITY];
            EventKind::PadStick {
                stick,
                x: dice.pick(&far),
                y: dice.pick(&far),
            }
        }
        8 => {
            let button = dice.pick(&swap_knot_core::MouseButton::NAMED);
            EventKind::MouseButton { button, down }
        }
        _ => dice.pick(&[
            EventKind::FocusLost,
            EventKind::Unplugged,
            EventKind::Wheel {
                direction: swap_knot_core::Direction::Up,
            },
            EventKind::Scroll {
                x: f32::NAN,
                y: 0.4,
            },
            EventKind::HidHat {
                direction: swap_knot_core::Direction::Down,
                down: true,
            },
            EventKind::Touch {
                name: "horn".parse().unwrap(),
                down: true,
            },
        ]),
    }
}

/// Chooses an answer: the bindings that it said it would change change, and no others.
fn choose_what_is_told(player: &mut Player, dice: &mut Dice) {
    let dialog = player.view().dialog.unwrap();
    let answers: Vec<&Item> = dialog.lines.iter().flatten().collect();
    let answer = answers[dice.roll(answers.len())];
    let before = player.controls.screen().unwrap().draft().clone();
    let is_whole = !answer.text.iter().any(|l| l.starts_with("and ")) && answer.enabled;
    player.controls.screen_mut().unwrap().press(answer.spot);
    if answer.text.is_empty() || !is_whole || !player.dialog().is_empty() {
        return;
    }
    let after = player.controls.screen().unwrap().draft();
    let rows = after
        .sheet()
        .actions()
        .flat_map(|(id, _)| after.sheet().rows_of(id));
    let mut told: Vec<String> = Vec::new();
    for row in rows {
        for column in ["keyboard", "gamepad", "touch", "other"] {
            for n in 1..=Column::LAST {
                let cell = row.cell(format!("{column}-{n}").parse().unwrap());
                let name = |d: &Draft| {
                    d.chord_in(cell)
                        .map_or("nothing".into(), |c| d.chord_name(c))
                };
                let (old, new) = (name(&before), name(after));
                if old != new {
                    told.push(format!("{}: {new} instead of {old}", after.row_title(row)));
                }
            }
        }
    }
    // Numbers of feel have the name of the setting besides.
    let said = answer.text.iter().filter(|l| l.matches(": ").count() == 1);
    let said = said.filter(|l| l.contains(" instead of "));
    let mut said: Vec<String> = said.filter(|l| !l.starts_with("Preset")).cloned().collect();
    told.sort();
    said.sort();
    assert_eq!(said, told, "{}", answer.label);
}

/// Whatever is pressed, pointed at and waited for: the screen is never stuck, shows what is, and
/// loses nothing.
#[test]
fn any_fifty_thousand_events_leave_a_screen_that_can_be_left() {
    play_anything(Dice(7));
}

#[test]
fn and_any_other_fifty_thousand() {
    play_anything(Dice(11));
}

fn play_anything(mut dice: Dice) {
    let mut player = Player::new();
    let locker = Locker::in_store(Memory::new());
    let ada = Slug::from_title("Ada");
    player.controls = Controls::open(&player.sheet, locker, &ada, &Layout::us());
    player.controls.set_words(&Words::english());
    player.open();
    let mut applied = player.controls.profile().clone();
    let many = 50_000;
    for n in 0..many {
        match dice.roll(40) {
            0 => player.wait(30),
            1 => player.wait(450),
            2 if dice.roll(20) == 0 => player.wait(16_000),
            3 | 4 => {
                let view = player.view();
                let ids: Vec<Spot> = view.items().map(|i| i.spot).collect();
                let spot = dice.pick(&ids);
                let screen = player.controls.screen_mut().unwrap();
                screen.point_at(Some(spot));
                match dice.roll(3) {
                    0 => screen.drag(spot, dice.pick(&[0.0, 0.4, 1.0, f32::NAN, 7.0])),
                    _ => screen.press(spot),
                }
            }
            6 if dice.roll(4) == 0 => drop(player.controls.save()),
            5 if player.view().dialog.is_some() => choose_what_is_told(&mut player, &mut dice),
            _ => player.send(anything(&mut dice)),
        }
        let played = player.controls.seat().happened();
        assert!(
            played.iter().all(|h| h.edge != swap_knot_core::Edge::Began),
            "{played:?}"
        );
        if !player.is_open() {
            player.open();
        }
        if dice.roll(50) == 0 {
            let shown = player.view();
            let all = shown
                .lines()
                .into_iter()
                .flatten()
                .filter(|i| i.focused)
                .count();
            assert_eq!(all, 1, "step {n}");
            player.controls.screen_mut().unwrap().draft_mut();
            assert_eq!(first_difference(&player.view(), &shown), None, "step {n}");
        }
        if dice.roll(400) == 0 {
            // Everything since the last apply can be taken back.
            let undo = Spot::Tool(Tool::Undo);
            let has_undo = player.view().items().any(|i| i.spot == undo);
            if *player.controls.profile() == applied && player.dialog().is_empty() && has_undo {
                while player.item("tool undo").enabled {
                    player.controls.screen_mut().unwrap().press(undo);
                }
                let draft = player.controls.screen().unwrap().draft();
                assert_eq!(draft.profile(), draft.applied_profile(), "step {n}");
            }
            let kinds = [DeviceKind::Keyboard, DeviceKind::Gamepad, DeviceKind::Mouse];
            // Hands off first: what is held down would go on.
            player.send(EventKind::FocusLost);
            player.controls.screen_mut().unwrap().point_at(None);
            leave_with(&mut player, dice.pick(&kinds));
            player.open();
        }
        applied = player.controls.profile().clone();
    }
    assert_eq!(
        player.item(&format!("tool {}", Tool::Undo.word())).spot,
        Spot::Tool(Tool::Undo)
    );
}
