//! Several players with all that is theirs: who plays with what, handed over on the screen, and devices
//! that come and go.

use std::collections::{BTreeMap, BTreeSet};

use proptest::prelude::*;
use swap_knot::input::{HidButton, Mapping, PadSource, Taught};
use swap_knot::keep::Memory;
use swap_knot::play::{Fed, Report};
use swap_knot::prompt::Marks;
use swap_knot::screen::ScreenView;
use swap_knot::{
    Controls, DeviceId, DeviceKind, Event, EventKind, Layout, Locker, PadButton, Place, Players,
    Profile, Sheet, Slug, Time,
};

use crate::common::{answer, answers, press, screen, small, what};

const SHEET: &str = r#"
[actions.horn]
title = "Horn"
bind = ["KeyH", "pad:south"]
[actions.rope]
title = "Rope"
bind = ["KeyR", "pad:east"]
"#;

struct Room {
    sheet: Sheet,
    players: Players,
    now: u64,
}

impl Room {
    fn new(names: &[&str]) -> Room {
        let sheet = small(SHEET);
        let mut players = Players::new();
        for name in names {
            let controls = Controls::new(&sheet, Profile::new(*name), &Layout::us());
            players.add(controls).unwrap();
        }
        Room {
            sheet,
            players,
            now: 0,
        }
    }

    fn feed(&mut self, device: u16, what: EventKind) -> Fed {
        self.now += 10;
        let (at, device) = (Time::from_millis(self.now), DeviceId(device));
        self.players.feed(&Event { at, device, what })
    }

    fn pad(&mut self, device: u16, down: bool) -> Fed {
        let (button, value) = (PadButton::South, f32::from(down));
        self.feed(device, EventKind::PadButton { button, value })
    }

    fn key(&mut self, place: Place) {
        for down in [true, false] {
            self.feed(0, what::key(place, down));
            self.tick();
        }
    }

    fn tick(&mut self) {
        self.now += 10;
        self.players.tick(Time::from_millis(self.now));
    }

    fn is_down(&self, player: usize) -> bool {
        let horn = self.sheet.find("horn").unwrap();
        self.players.get(player).unwrap().seat().is_down(horn)
    }

    fn open(&mut self, player: usize) {
        let now = Time::from_millis(self.now);
        self.players.get_mut(player).unwrap().open_screen(now);
        self.tick();
        self.press(player, "page pad");
    }

    fn view(&mut self, player: usize) -> ScreenView {
        screen(self.players.get_mut(player).unwrap()).view().clone()
    }

    fn press(&mut self, player: usize, id: &str) {
        press(self.players.get_mut(player).unwrap(), id);
        self.tick();
    }

    /// Every device of the page: what it is called, whose it is, and whether it is lit.
    fn rows(&mut self, player: usize) -> Vec<(String, String, bool)> {
        let view = self.view(player);
        let own = view
            .sections
            .iter()
            .find(|s| s.title == "Who uses which device");
        let rows = own.map(|s| s.rows.clone()).unwrap_or_default();
        rows.into_iter()
            .map(|r| (r.title, r.items[0].label.clone(), r.lit))
            .collect()
    }

    fn answer(&mut self, player: usize, label: &str) {
        answer(self.players.get_mut(player).unwrap(), label);
        self.tick();
    }
}

/// The device that is a pad only because it was taught to be one.
const TAUGHT: u16 = 8;

#[derive(Clone, Debug)]
enum ProfileCommand {
    Press(u16, bool),
    Give(u16, Vec<usize>),
    Wait(usize),
    Leave(usize),
    Plug(u16, bool),
    Open(usize),
    Close(usize),
    Tick,
}

fn deeds() -> impl Strategy<Value = Vec<ProfileCommand>> {
    let device = || 5..9_u16;
    let deed = prop_oneof![
        8 => (device(), any::<bool>()).prop_map(|(d, down)| ProfileCommand::Press(d, down)),
        3 => (device(), prop::collection::vec(0..4_usize, 0..3)).prop_map(|(d, to)| ProfileCommand::Give(d, to)),
        2 => (0..3_usize).prop_map(ProfileCommand::Wait),
        1 => (0..3_usize).prop_map(ProfileCommand::Leave),
        1 => (device(), any::<bool>()).prop_map(|(d, there)| ProfileCommand::Plug(d, there)),
        1 => (0..3_usize).prop_map(ProfileCommand::Open),
        1 => (0..3_usize).prop_map(ProfileCommand::Close),
        4 => Just(ProfileCommand::Tick),
    ];
    prop::collection::vec(deed, 0..60)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(if cfg!(debug_assertions) { 150 } else { 1000 })))]

    /// A naive room: a device plays for whom it was given to; what is held counts for those alone who had
    /// the device when it was pressed, and who are not at their controls screen. One of the devices is a
    /// controller that was taught, and a pad as long as it says what it is.
    #[test]
    fn devices_play_for_whom_they_were_given_to(deeds in deeds()) {
        let mut room = Room::new(&["Ada", "Björn", "Cem"]);
        let mut owners: BTreeMap<u16, BTreeSet<usize>> = BTreeMap::new();
        let mut held: BTreeSet<u16> = BTreeSet::new();
        // Which press counts for whom.
        let mut counts: BTreeSet<(u16, usize)> = BTreeSet::new();
        let mut waiting: Vec<usize> = Vec::new();
        let mut at_screen = [false; 3];
        let kind = "1209:5a03".parse().ok();
        let button = HidButton::new(2).unwrap();
        let mut mapping = Mapping::new();
        mapping.set(PadButton::South.into(), PadSource::Button(button)).unwrap();
        room.players.get_mut(0).unwrap().teach(kind, Some(Taught::Pad(mapping)));
        room.tick();
        room.feed(TAUGHT, EventKind::Plugged { usb: kind });
        let mut is_known = true;
        let give = |owners: &mut BTreeMap<u16, BTreeSet<usize>>, counts: &mut BTreeSet<(u16, usize)>, device, to: BTreeSet<usize>| {
            counts.retain(|(d, p)| *d != device || to.contains(p));
            owners.insert(device, to);
        };
        for deed in deeds {
            match deed {
                // What is not plugged in says nothing.
                ProfileCommand::Press(TAUGHT, _) if !is_known => {}
                ProfileCommand::Press(device, down) => {
                    let own = owners.get(&device).cloned().unwrap_or_default();
                    let fresh = down && !held.contains(&device);
                    // What is down already is no press.
                    let joins = (own.is_empty() && fresh).then(|| waiting.first().copied()).flatten();
                    let fed = match device {
                        TAUGHT => room.feed(device, EventKind::HidButton { button, down }),
                        _ => room.pad(device, down),
                    };
                    match (joins, own.is_empty()) {
                        (Some(player), _) => {
                            waiting.remove(0);
                            give(&mut owners, &mut counts, device, [player].into());
                            prop_assert_eq!(fed, Fed::Joined(player));
                        }
                        (None, true) => prop_assert_eq!(fed, Fed::Free),
                        (None, false) => prop_assert_eq!(fed, Fed::Played),
                    }
                    match down {
                        true => {
                            held.insert(device);
                            for player in own.into_iter().filter(|p| fresh && !at_screen[*p]) {
                                counts.insert((device, player));
                            }
                        }
                        false => {
                            held.remove(&device);
                            counts.retain(|(d, _)| *d != device);
                        }
                    }
                }
                ProfileCommand::Give(device, to) => {
                    room.players.give(DeviceId(device), &to);
                    let to: BTreeSet<usize> = to.into_iter().filter(|p| *p < 3).collect();
                    give(&mut owners, &mut counts, device, to);
                }
                ProfileCommand::Wait(player) => {
                    room.players.wait_for_device(player);
                    if !waiting.contains(&player) {
                        waiting.push(player);
                    }
                }
                ProfileCommand::Leave(player) => {
                    room.players.leave(player);
                    waiting.retain(|p| *p != player);
                    for own in owners.values_mut() {
                        own.remove(&player);
                    }
                    counts.retain(|(_, p)| *p != player);
                }
                ProfileCommand::Plug(device, there) => {
                    let usb = kind.filter(|_| device == TAUGHT);
                    let what = if there { EventKind::Plugged { usb } } else { EventKind::Unplugged };
                    if device == TAUGHT {
                        is_known = there;
                    }
                    room.feed(device, what);
                    if !there {
                        held.remove(&device);
                        counts.retain(|(d, _)| *d != device);
                    }
                }
                ProfileCommand::Open(player) => {
                    let now = Time::from_millis(room.now);
                    room.players.get_mut(player).unwrap().open_screen(now);
                    at_screen[player] = true;
                    counts.retain(|(_, p)| *p != player);
                }
                ProfileCommand::Close(player) => {
                    room.players.get_mut(player).unwrap().close_screen();
                    at_screen[player] = false;
                }
                ProfileCommand::Tick => {}
            }
            room.tick();
            // A screen may have been left by what was pressed.
            for (player, at) in at_screen.iter_mut().enumerate() {
                *at = room.players.get(player).unwrap().screen().is_some();
            }
            for player in 0..3 {
                let wanted = counts.iter().any(|(_, p)| *p == player);
                prop_assert_eq!(room.is_down(player), wanted, "player {}", player);
                let own: BTreeSet<DeviceId> = room.players.devices_of(player).collect();
                let wanted = owners.iter().filter(|(_, o)| o.contains(&player));
                let wanted: BTreeSet<DeviceId> = wanted.map(|(d, _)| DeviceId(*d)).collect();
                prop_assert_eq!(own, wanted);
            }
        }
    }
}

#[test]
fn who_plays_with_what_is_shown_lit_and_handed_over_on_the_screen() {
    let mut room = Room::new(&["Ada", ""]);
    room.players.give(DeviceId(0), &[0]);
    room.players.give(DeviceId(7), &[0]);
    room.players.give(DeviceId(8), &[1]);
    for (device, usb) in [(7, "1209:5a01"), (8, "1209:5a02")] {
        let usb = usb.parse().ok();
        room.feed(device, EventKind::Plugged { usb });
        room.pad(device, true);
        room.pad(device, false);
    }
    room.key(Place::KeyR);
    room.open(0);
    let rows = |all: &[(&str, &str, bool)]| {
        let all = all
            .iter()
            .map(|(t, w, l)| ((*t).to_owned(), (*w).to_owned(), *l));
        all.collect::<Vec<_>>()
    };
    assert_eq!(
        room.rows(0),
        rows(&[
            ("Gamepad 1", "Ada", false),
            ("Gamepad 2", "Player 2", false),
            ("Keyboard", "Ada", false)
        ])
    );
    // A press on the other player's pad shows which it is, and works nothing on this screen.
    let focus = room.view(0).focused().unwrap().id.clone();
    room.pad(8, true);
    room.tick();
    assert!(room.rows(0)[1].2);
    room.pad(8, false);
    room.tick();
    assert_eq!(room.view(0).focused().unwrap().id, focus);

    // Handed over while it is held: it counts for the other one once it has been let go.
    room.pad(7, true);
    room.press(0, "device 7");
    assert_eq!(room.view(0).dialog.unwrap().title, "Who uses this device?");
    room.answer(0, "Player 2");
    room.tick();
    assert_eq!(
        room.rows(0)[0],
        ("Gamepad 1".to_owned(), "Player 2".to_owned(), true)
    );
    assert!(!room.is_down(1));
    room.pad(7, false);
    room.pad(7, true);
    room.tick();
    assert!(room.is_down(1));
    // It was given away: nobody is told to plug it in.
    let reports = room.players.get_mut(0).unwrap().take_reports();
    assert!(reports.is_empty(), "{reports:?}");

    // The keyboard is all that Ada has left.
    room.press(0, "device 0");
    let answers = answers(room.players.get_mut(0).unwrap());
    let told: Vec<(&str, bool)> = answers.iter().map(|i| (&*i.label, i.enabled)).collect();
    assert_eq!(
        told,
        [
            ("Ada", true),
            ("Player 2", false),
            ("everyone", true),
            ("nobody", false)
        ]
    );
    room.answer(0, "nobody");
    assert_eq!(
        room.view(0).message.as_deref(),
        Some("This would leave you without a device.")
    );
    room.answer(0, "everyone");
    room.tick();
    assert!(room.players.players_of(DeviceId(0)).eq([0, 1]));
    assert_eq!(room.rows(0)[2].1, "Ada, Player 2");
}

#[test]
fn a_player_alone_is_asked_nothing_about_devices() {
    let mut room = Room::new(&["Ada"]);
    room.players.give(DeviceId(7), &[0]);
    room.pad(7, true);
    room.pad(7, false);
    room.open(0);
    assert_eq!(room.rows(0), []);
}

#[test]
fn a_pad_that_goes_away_is_reported_to_its_player_and_comes_back_to_them() {
    let mut room = Room::new(&["Ada", "Björn"]);
    let usb = "1209:5a01".parse().ok();
    room.players.give(DeviceId(7), &[1]);
    room.feed(7, EventKind::Plugged { usb });
    room.pad(7, true);
    room.tick();
    assert!(room.is_down(1));
    room.feed(7, EventKind::Unplugged);
    room.tick();
    room.tick();
    assert!(!room.is_down(1));
    let mut reports = |player: usize| room.players.get_mut(player).unwrap().take_reports();
    assert!(matches!(
        reports(1)[..],
        [Report::Unplugged(DeviceKind::Gamepad)]
    ));
    assert!(reports(0).is_empty());
    room.open(0);
    assert_eq!(room.rows(0)[0].1, "Björn");
    let view = room.view(0);
    let section = view
        .sections
        .iter()
        .find(|s| s.title == "Who uses which device")
        .unwrap();
    assert_eq!(section.rows[0].text.as_deref(), Some("not connected"));
    room.feed(7, EventKind::Plugged { usb });
    assert_eq!(room.pad(7, true), Fed::Played);
    room.tick();
    assert!(room.is_down(1));
    let reports = room.players.get_mut(1).unwrap().take_reports();
    assert!(matches!(reports[..], [Report::PluggedAgain(_)]));
}

#[test]
fn who_joins_with_a_pad_reads_its_marks_at_once() {
    let mut room = Room::new(&["Ada", "Björn"]);
    let text =
        "format = 1\n[families.quayside]\nusb = [\"1209:5a01\"]\nmarks = { \"pad:south\" = \"K\" }";
    let marks = Marks::from_toml(text, "marks.toml").unwrap();
    room.players.iter_mut().for_each(|p| p.set_marks(&marks));
    // It says what it is while it plays for nobody.
    let usb = "1209:5a01".parse().ok();
    room.feed(7, EventKind::Plugged { usb });
    room.players.wait_for_device(1);
    assert_eq!(room.pad(7, true), Fed::Joined(1));
    room.pad(7, false);
    room.pad(7, true);
    room.tick();
    let björn = room.players.get_mut(1).unwrap();
    assert_eq!(björn.family(), Some("quayside"));
    assert_eq!(björn.prompt("{do:horn}").unwrap().to_string(), "Press K");
    room.players.release(DeviceId(7));
    room.tick();
    assert_eq!(room.players.get(1).unwrap().devices().count(), 0);
}

#[test]
fn what_one_player_teaches_holds_for_all_and_for_who_joins_by_it() {
    let locker = Locker::in_store(Memory::new());
    let sheet = small(SHEET);
    let mut players = Players::new();
    for name in ["ada", "bjorn"] {
        let controls = Controls::open(
            &sheet,
            locker.clone(),
            &Slug::from_title(name),
            &Layout::us(),
        );
        players.add(controls).unwrap();
    }
    let mut room = Room {
        sheet,
        players,
        now: 0,
    };
    let kind = "1209:5a03".parse().ok();
    let button = HidButton::new(2).unwrap();
    let mut mapping = Mapping::new();
    mapping
        .set(PadButton::South.into(), PadSource::Button(button))
        .unwrap();
    room.feed(9, EventKind::Plugged { usb: kind });
    room.players
        .get_mut(0)
        .unwrap()
        .teach(kind, Some(Taught::Pad(mapping)));
    room.tick();
    assert_eq!(room.players.get(1).unwrap().mappings().kinds().count(), 1);
    // "Press the lower button to join": on a controller that was taught, that is this one.
    room.players.wait_for(1, &[PadButton::South.into()]);
    let hid = |down| EventKind::HidButton { button, down };
    assert_eq!(room.feed(9, hid(true)), Fed::Joined(1));
    room.tick();
    assert!(!room.is_down(1), "the press that joins is not played");
    room.feed(9, hid(false));
    room.feed(9, hid(true));
    room.tick();
    assert!(room.is_down(1));
    assert_eq!(
        room.players.get(1).unwrap().seat().device_kind(),
        DeviceKind::Gamepad
    );
    // One who comes later goes by it as well.
    let late = Controls::new(&room.sheet, Profile::new("Cem"), &Layout::us());
    let late = room.players.add(late).unwrap();
    assert_eq!(
        room.players.get(late).unwrap().mappings().kinds().count(),
        1
    );
}

#[test]
fn there_are_at_most_sixteen_of_them() {
    let sheet = small(SHEET);
    let mut players = Players::new();
    let one = || Controls::new(&sheet, Profile::default(), &Layout::us());
    for n in 0..Players::MAX {
        assert_eq!(players.add(one()), Some(n));
    }
    assert_eq!((players.add(one()), players.len()), (None, 16));
    players.give(DeviceId(3), &(0..40).collect::<Vec<_>>());
    assert_eq!(players.players_of(DeviceId(3)).count(), 16);
    assert!(players.get(99).is_none() && players.devices_of(99).next().is_none());
}
