//! A controller without a known mapping: offered, taught, tried, kept, and a pad after a restart.

use swap_knot_core::input::{HidAxis, HidButton, Mappings, Taught};
use swap_knot_core::keep::{LoadNote, LockerErrorKind, Memory, Store};
use swap_knot_core::play::Report;
use swap_knot_core::{
    Controls, DeviceId, DeviceKind, Event, EventKind, Layout, Locker, PadButton, Place, Slug,
};

use super::player::{Player, rows};
use crate::common::{answer, what};

const DEVICE: DeviceId = DeviceId(66);
const KIND: &str = "1209:5a03";
const NEWER: &str =
    "Your controller setups come from a newer version of the game. Update the game to use them.";

/// A player at a keyboard, with a controller that nobody knows and a locker.
struct Table {
    player: Player,
    locker: Locker,
}

fn taught(kind: &str, parts: &str) -> Mappings {
    let text = format!("format = 1\n[controllers.\"{kind}\"]\n{parts}");
    Mappings::from_toml(&text, "text").unwrap()
}

fn started(locker: &Locker) -> Player {
    let mut player = Player::new();
    let ada = Slug::from_title("Ada");
    player.controls = Controls::open_last(&player.sheet, locker.clone(), &ada, &Layout::us());
    let deck = player.sheet.find_situation("deck").unwrap();
    player.controls.seat_mut().enter(deck);
    player
}

impl Table {
    fn new() -> Table {
        let locker = Locker::in_store(Memory::new());
        let player = started(&locker);
        Table { player, locker }
    }

    fn send(&mut self, what: EventKind) {
        let player = &mut self.player;
        player.now = player.now.plus(std::time::Duration::from_millis(20));
        let at = player.now;
        player.controls.feed(&Event {
            at,
            device: DEVICE,
            what,
        });
        player.controls.tick(at);
    }

    fn plug(&mut self) {
        let usb = KIND.parse().ok();
        self.send(EventKind::Plugged { usb });
    }

    fn hold(&mut self, number: u8, down: bool) {
        let button = HidButton::new(number).unwrap();
        self.send(EventKind::HidButton { button, down });
    }

    fn press(&mut self, number: u8) {
        self.hold(number, true);
        self.hold(number, false);
    }

    fn answer(&mut self, label: &str) {
        answer(&mut self.player.controls, label);
        self.player.wait(10);
    }

    #[track_caller]
    fn says(&mut self, title: &str) {
        assert_eq!(self.player.dialog(), title);
    }

    #[track_caller]
    fn asks_for(&mut self, part: &str) {
        self.says(&format!("On the controller: {part}"));
    }

    /// The game ends, and starts again with what is kept.
    fn again(&mut self) -> Table {
        assert!(self.player.controls.save());
        let locker = self.locker.clone();
        let mut player = started(&locker);
        player.controls.take_reports();
        player.now = self.player.now;
        Table { player, locker }
    }

    fn message(&mut self) -> String {
        self.player.view().message.unwrap_or_default()
    }

    /// The rows of controllers, with what can be done with each.
    fn controllers(&mut self) -> Vec<(String, String, Vec<String>)> {
        self.player.click("page pad");
        let view = self.player.view();
        let section = view
            .sections
            .iter()
            .find(|s| s.title.starts_with("Controllers"));
        let all = section.map(|s| s.rows.clone()).unwrap_or_default();
        let row = |r: swap_knot_core::screen::RowView| {
            let items = r.items.into_iter().map(|i| i.label).collect();
            (r.title, r.text.unwrap_or_default(), items)
        };
        all.into_iter().map(row).collect()
    }

    fn down(&self) -> usize {
        self.player.controls.seat().held().inputs().len()
    }

    /// Teaches the two buttons that choose and go back, and what is on them.
    fn teach_two(&mut self) {
        self.plug();
        self.player.open();
        self.press(9);
        self.says("New controller. Set it up as a gamepad?");
        self.player.key(Place::Enter);
        self.asks_for("bottom button of the four");
        self.press(2);
        self.asks_for("right button of the four");
        self.press(2);
        assert_eq!(
            self.message(),
            "Already used for: bottom button of the four"
        );
        self.press(3);
        self.answer("Finish");
        self.says("Keep this setup?");
    }
}

#[test]
fn a_controller_is_offered_taught_tried_kept_and_a_pad_after_a_restart() {
    let mut table = Table::new();
    table.teach_two();
    // The old controls do not answer for it: only the new pad does.
    table.press(3);
    table.says("Keep this setup?");
    table.press(2);
    table.says("");
    assert!(table.message().starts_with("Kept."), "{}", table.message());
    assert_eq!(table.down(), 0);

    // It works the screen as a pad at once: the rightmost of the four goes back.
    table.press(3);
    assert!(!table.player.is_open());

    let mut again = table.again();
    again.plug();
    again.hold(2, true);
    let cast_off = again.player.sheet.find("cast-off").unwrap();
    assert!(again.player.controls.seat().went_down(cast_off));
    assert_eq!(
        again.player.controls.seat().device_kind(),
        DeviceKind::Gamepad
    );
    assert_eq!(again.player.controls.take_reports().len(), 0);
    again.hold(2, false);
    // What was not taught comes by its number, as before.
    again.hold(11, true);
    assert_eq!(
        again.player.controls.seat().device_kind(),
        DeviceKind::Other
    );
}

#[test]
fn with_the_controller_alone_what_it_has_not_is_waited_for() {
    let mut table = Table::new();
    table.plug();
    table.player.open();
    table.press(5);
    // Its first button chooses, as on every controller.
    table.press(1);
    table.press(1);
    for _ in 0..40 {
        if table.player.dialog().starts_with("On the controller") {
            table.player.wait(20_100);
        }
    }
    table.says("Keep this setup?");
    table.press(1);
    assert!(table.message().starts_with("Kept."));
    let kind = KIND.parse().ok();
    let Some(Taught::Pad(mapping)) = table.player.controls.mappings().of(kind) else {
        panic!("nothing was taught");
    };
    assert_eq!(mapping.parts().count(), 1);
}

#[test]
fn the_keyboard_skips_goes_back_and_leaves() {
    let mut table = Table::new();
    table.plug();
    table.player.open();
    table.press(9);
    table.answer("Set up");
    table.press(2);
    table.asks_for("right button of the four");
    table.player.key(Place::Enter);
    table.asks_for("left button of the four");
    // Back over what was skipped, and over what was taught: that is free again.
    table.player.key(Place::Escape);
    table.player.key(Place::Escape);
    table.asks_for("bottom button of the four");
    table.press(4);
    table.press(2);
    table.asks_for("left button of the four");
    table.player.keys(&[Place::Escape; 2]);
    table.player.key(Place::Escape);
    table.says("");
    assert!(table.player.is_open());
    assert!(table.player.controls.mappings().is_empty());
}

/// What somebody does, and how that is called.
type Way<'a> = (&'a str, &'a dyn Fn(&mut Table));

/// Every way out of "Keep this setup?" but the right one leaves everything as it was.
#[test]
fn what_was_not_confirmed_is_not_kept() {
    let ways: [Way<'_>; 7] = [
        ("no answer", &|t| t.player.wait(15_100)),
        ("Escape", &|t| t.player.key(Place::Escape)),
        ("its answer", &|t| t.answer("Discard it")),
        ("closed by the game", &|t| t.player.controls.close_screen()),
        ("the window is closed", &|t| {
            t.player.controls.screen_mut().unwrap().ask_to_leave();
            t.player.wait(20);
        }),
        ("unplugged", &|t| t.send(EventKind::Unplugged)),
        ("all unplugged", &|t| {
            let (at, device, what) = (t.player.now, DeviceId::ALL, EventKind::Unplugged);
            t.player.controls.feed(&Event { at, device, what });
            t.player.wait(20);
        }),
    ];
    for (way, go) in ways {
        let mut table = Table::new();
        table.teach_two();
        assert!(!table.player.controls.mappings().is_empty());
        table.hold(3, true);
        go(&mut table);
        table.player.wait(20);
        assert!(table.player.controls.mappings().is_empty(), "{way}");
        assert!(table.player.controls.save());
        assert!(table.locker.mappings().unwrap().is_empty(), "{way}");
        // Nothing of the pad that it was for a moment is down.
        let seat = table.player.controls.seat();
        let inputs = seat.held().inputs();
        assert!(inputs.is_empty(), "{way}: {inputs:?}");
        if table.player.is_open() {
            assert_eq!(table.player.dialog(), "", "{way}");
            assert!(!table.player.focus().starts_with("answer"), "{way}");
        }
    }
}

#[test]
fn it_is_told_of_once_in_play_and_asked_about_once_on_the_screen() {
    let mut table = Table::new();
    table.player.controls.take_reports();
    // Who never said that it is there is not told of.
    table.press(1);
    assert_eq!(table.player.controls.take_reports().len(), 0);
    table.plug();
    let axis = HidAxis::X;
    table.send(EventKind::HidAxis { axis, value: 0.9 });
    assert_eq!(table.player.controls.take_reports().len(), 0);
    table.press(1);
    let reports = table.player.controls.take_reports();
    assert!(matches!(reports[..], [Report::Untaught(c)] if c.device == DEVICE));
    assert_eq!(
        table.player.controls.tell(&reports[0]),
        "New controller found. If it is a gamepad, set it up under “Gamepad” in the controls."
    );
    table.press(1);
    assert_eq!(table.player.controls.take_reports().len(), 0);

    table.player.open();
    let focus = table.player.focus();
    table.press(2);
    table.says("New controller. Set it up as a gamepad?");
    table.answer("Not now");
    assert_eq!(table.player.focus(), focus);
    table.send(what::hid(HidButton::new(9).unwrap(), true));
    table.says("");
    // It is among the controllers, to be taught later.
    let row = |state: &str, items: &[&str]| {
        let items = items.iter().map(|i| (*i).to_owned()).collect();
        vec![("Controller 1209:5a03".to_owned(), state.to_owned(), items)]
    };
    assert_eq!(table.controllers(), row("not set up", &["Set up"]));

    // One that is none is remembered as that.
    let mut table = Table::new();
    table.plug();
    table.player.open();
    table.press(2);
    table.answer("Not a gamepad");
    assert_eq!(
        table.controllers(),
        row("not a gamepad", &["Set up", "Remove setup"])
    );
    let mut again = table.again();
    again.plug();
    again.press(2);
    assert_eq!(again.player.controls.take_reports().len(), 0);
    again.player.open();
    again.press(9);
    again.says("");
    // Forgotten, it is taught like any other.
    again.player.click("page pad");
    again.player.click("controller 1209:5a03 forget");
    assert!(again.player.controls.save());
    assert!(again.locker.mappings().unwrap().is_empty());
    assert_eq!(again.controllers(), row("not set up", &["Set up"]));
    again.player.click("controller 1209:5a03 teach");
    assert!(again.player.dialog().starts_with("On the controller"));
}

#[test]
fn what_was_taught_goes_to_a_friend_as_text() {
    let mut table = Table::new();
    table.teach_two();
    table.press(2);
    table.player.click("page pad");
    table.player.click("controller 1209:5a03 export");
    let text = table.player.view().dialog.unwrap().field.unwrap();
    let expected = "format = 1\n\n[controllers.\"1209:5a03\"]\n\"pad:south\" = \"hid:button-2\"\n\"pad:east\" = \"hid:button-3\"\n";
    assert_eq!(text, expected);
    table.says("Copy this text to share the controller");
    table.answer("Copy");
    let copied = table.player.controls.screen_mut().unwrap().take_copied();
    assert_eq!(copied.as_deref(), Some(expected));

    let mut friend = Table::new();
    friend.player.open();
    friend.player.click("page pad");
    let tools = friend.player.view().tools;
    assert!(
        tools.iter().all(|t| t.id != "controllers"),
        "nobody wants that here"
    );
    friend.plug();
    friend.press(9);
    friend.answer("Not now");
    friend.player.click("page pad");
    for (text, told) in [
        ("nonsense", "There is no controller in this text."),
        ("format = 1", "There is no controller in this text."),
        ("format = 2\nnew = true\n", NEWER),
        (expected, "Imported."),
    ] {
        friend.player.click("controllers");
        friend.player.controls.screen_mut().unwrap().type_text(text);
        friend.answer("Done");
        assert_eq!(friend.message(), told);
    }
    assert!(friend.player.controls.save());
    assert_eq!(friend.locker.mappings().unwrap().to_toml(), expected);
    // It is a pad from then on, also here.
    friend.press(3);
    assert!(!friend.player.is_open());
}

#[test]
fn a_file_that_cannot_be_read_is_told_kept_and_never_taken_for_empty() {
    let south = taught(KIND, "\"pad:south\" = \"hid:button-2\"");
    let newer = "format = 2\nnew = true\n";
    for (text, told, is_newer) in [
        (
            "nonsense",
            "Your controller setups are damaged and cannot be used. The file is kept.",
            false,
        ),
        (newer, NEWER, true),
    ] {
        let store = Memory::new();
        let locker = Locker::in_store(store.clone());
        store.replace("mappings", text.as_bytes()).unwrap();
        let mut player = started(&locker);
        let reports = player.controls.take_reports();
        assert!(
            matches!(reports[..], [Report::Load(LoadNote::Mappings { .. })]),
            "{reports:?}"
        );
        assert_eq!(player.controls.tell(&reports[0]), told);
        match (locker.teach(&south), is_newer) {
            (Ok(notes), false) => {
                // The damaged one is kept beside.
                assert_eq!(notes.len(), 1);
                assert_eq!(
                    store.read("mappings.damaged-1", 100).unwrap(),
                    text.as_bytes()
                );
                assert_eq!(locker.mappings().unwrap(), south);
            }
            (Err(why), true) => {
                assert!(why.is_newer(), "{why}");
                assert_eq!(player.controls.tell(&why), told);
                assert!(matches!(why.kind(), LockerErrorKind::CannotReadMappings(_)));
                assert_eq!(store.read("mappings", 100).unwrap(), text.as_bytes());
            }
            other => panic!("{other:?}"),
        }
        // It is no profile.
        assert_eq!(locker.names().unwrap(), []);
        player.open();
        assert!(!rows(&mut player).is_empty());
    }
}

#[test]
fn kinds_are_kept_one_by_one() {
    let locker = Locker::in_store(Memory::new());
    let teach = |kind, parts| locker.teach(&taught(kind, parts)).unwrap();
    teach("1209:0001", "\"pad:south\" = \"hid:button-1\"");
    // Another program teaches another kind; both are there.
    teach("unknown", "gamepad = false");
    teach("1209:0001", "\"pad:south\" = \"hid:button-5\"");
    let all = locker.mappings().unwrap();
    assert_eq!(all.kinds().count(), 2);
    assert_eq!(all.of(None), Some(&Taught::NoPad));
    let Some(Taught::Pad(mapping)) = all.of("1209:0001".parse().ok()) else {
        panic!("it is a pad");
    };
    assert_eq!(
        mapping.source(PadButton::South.into()).map(|s| s.input()),
        HidButton::new(5).map(swap_knot_core::input::HidInput::Button)
    );
    locker.forget(None).unwrap();
    assert_eq!(locker.mappings().unwrap().kinds().count(), 1);
}
