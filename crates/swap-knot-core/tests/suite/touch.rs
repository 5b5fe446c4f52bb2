//! On-screen buttons and sticks: fingers on zones that the game lays out and the player moves.

use std::collections::BTreeMap;

use proptest::prelude::*;
use swap_knot::input::{Direction, MouseFinger, Placement, TouchName, TouchZone, TouchZones};
use swap_knot::keep::Setting;
use swap_knot::screen::{ControlsScreen, Grip, PointerEvent, ScreenCommand, Spot, Target};
use swap_knot::sheet::{ActsOn, Parameter, ParameterPart, Parameters};
use swap_knot::{Controls, DeviceId, Event, EventKind, Layout, MouseButton, Profile, Sheet, Time};

use crate::common::{answer, answers, press, screen, small, what};

const SHEET: &str = r#"
[situations.deck]
[situations.helm]
[actions.walk]
title = "Walk"
situation = "deck"
shape = "plane"
bind = "touch:stick"
[actions.steer]
title = "Steer"
situation = "helm"
shape = "plane"
bind = "touch:stick"
[actions.horn]
title = "Horn"
bind = ["touch:horn", "KeyH"]
[actions.coil]
title = "Coil"
situation = "deck"
bind = "KeyE"
"#;

fn name(text: &str) -> TouchName {
    text.parse().unwrap()
}

fn laid(zones: &mut TouchZones, screen: [f32; 2]) {
    let [w, h] = screen;
    zones.set_screen(screen);
    zones.add_stick(name("stick"), [w * 0.15, h * 0.75], h * 0.15);
    zones.add_area(name("horn"), [w * 0.8, h * 0.7], [w * 0.1, h * 0.2]);
    zones.add_area(name("spare"), [w * 0.45, h * 0.05], [w * 0.1, h * 0.1]);
}

fn find(zones: &TouchZones, of: &str) -> TouchZone {
    zones.zones().find(|z| z.name == name(of)).unwrap()
}

fn middle(zone: TouchZone) -> [f32; 2] {
    [0, 1].map(|n| zone.min[n] + zone.size[n] / 2.0)
}

/// What somebody does with a finger, a zone or the screen.
#[derive(Clone, Debug)]
enum ProfileCommand {
    Down(u64, [f32; 2]),
    Move(u64, [f32; 2]),
    Up(u64),
    Place(usize, [f32; 2], f32),
    Hide(usize, bool),
    Screen([f32; 2]),
    Lift,
    LayAgain,
}

fn deeds() -> impl Strategy<Value = Vec<ProfileCommand>> {
    let at = || [-20.0..820.0_f32, -20.0..620.0_f32];
    let finger = || 0..4_u64;
    let deed = prop_oneof![
        6 => (finger(), at()).prop_map(|(f, at)| ProfileCommand::Down(f, at)),
        6 => (finger(), at()).prop_map(|(f, at)| ProfileCommand::Move(f, at)),
        6 => finger().prop_map(ProfileCommand::Up),
        2 => (0..3_usize, [-2.0..2.0_f32, -2.0..2.0_f32], 0.0..5.0_f32).prop_map(|(z, by, size)| ProfileCommand::Place(z, by, size)),
        2 => (0..3_usize, any::<bool>()).prop_map(|(z, hidden)| ProfileCommand::Hide(z, hidden)),
        1 => [200.0..1600.0_f32, 200.0..1200.0_f32].prop_map(ProfileCommand::Screen),
        1 => Just(ProfileCommand::Lift),
        1 => Just(ProfileCommand::LayAgain),
    ];
    prop::collection::vec(deed, 0..60)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(if cfg!(debug_assertions) { 300 } else { 2000 })))]

    /// A naive screen: each finger belongs to the zone that it came down on, the topmost that is
    /// not hidden; a button is
    /// down while it has a finger; a stick points at the finger that came to it last.
    #[test]
    fn fingers_zones_and_players_who_move_them(deeds in deeds()) {
        let mut zones = TouchZones::new();
        laid(&mut zones, [800.0, 600.0]);
        let mut fingers: Vec<(u64, TouchName, [f32; 2])> = Vec::new();
        let mut down: BTreeMap<TouchName, bool> = BTreeMap::new();
        let mut sticks: BTreeMap<TouchName, [f32; 2]> = BTreeMap::new();
        let names = ["stick", "horn", "spare"].map(name);
        let mut hidden: Vec<TouchName> = Vec::new();
        for deed in deeds {
            let mut about = None;
            let events: Vec<EventKind> = match deed {
                ProfileCommand::Down(finger, at) => {
                    fingers.retain(|(f, ..)| *f != finger);
                    let hit = |z: &TouchZone| match z.is_stick {
                        true => (0..2).map(|n| (at[n] - middle(*z)[n]).powi(2)).sum::<f32>().sqrt() <= z.size[0] / 2.0,
                        false => (0..2).all(|n| at[n] >= z.min[n] && at[n] < z.min[n] + z.size[n]),
                    };
                    let all: Vec<TouchZone> = zones.zones().collect();
                    if let Some(zone) = all.iter().rev().find(|z| hit(z) && !hidden.contains(&z.name)) {
                        fingers.push((finger, zone.name, at));
                        about = Some(zone.name);
                    }
                    zones.down(finger, at).collect()
                }
                ProfileCommand::Move(finger, at) => {
                    for known in fingers.iter_mut().filter(|(f, ..)| *f == finger) {
                        known.2 = at;
                    }
                    let of = fingers.iter().find(|(f, ..)| *f == finger).map(|f| f.1);
                    let last = fingers.iter().rev().find(|(_, n, _)| Some(*n) == of);
                    about = last.filter(|(f, ..)| *f == finger).and(of);
                    zones.moved(finger, at).into_iter().collect()
                }
                ProfileCommand::Up(finger) => {
                    let of = fingers.iter().find(|(f, ..)| *f == finger).map(|f| f.1);
                    let last = fingers.iter().rev().find(|(_, n, _)| Some(*n) == of);
                    about = last.filter(|(f, ..)| *f == finger).and(of);
                    fingers.retain(|(f, ..)| *f != finger);
                    zones.up(finger).into_iter().collect()
                }
                ProfileCommand::Place(n, by, size) => {
                    zones.place(names[n], Placement::new(by, size));
                    Vec::new()
                }
                ProfileCommand::Hide(n, hide) => {
                    hidden.retain(|h| *h != names[n]);
                    hidden.extend(hide.then_some(names[n]));
                    zones.hide(names[n], hide);
                    Vec::new()
                }
                ProfileCommand::Screen(size) => {
                    zones.set_screen(size);
                    Vec::new()
                }
                ProfileCommand::Lift => {
                    fingers.clear();
                    zones.lift()
                }
                ProfileCommand::LayAgain => {
                    fingers.clear();
                    let events = zones.clear();
                    prop_assert_eq!(zones.zones().len(), 0);
                    let screen = zones.screen().unwrap();
                    laid(&mut zones, screen);
                    events
                }
            };
            for event in events {
                match event {
                    EventKind::Touch { name, down: now } => {
                        prop_assert_ne!(down.insert(name, now).unwrap_or(false), now, "it is told once");
                    }
                    EventKind::TouchStick { name, x, y } => drop(sticks.insert(name, [x, y])),
                    other => prop_assert!(false, "{other:?}"),
                }
            }
            let screen = zones.screen().unwrap();
            for zone in zones.zones() {
                let own = fingers.iter().rev().find(|(_, n, _)| *n == zone.name);
                prop_assert_eq!((zone.touched, zone.hidden), (own.is_some(), hidden.contains(&zone.name)));
                if !zone.is_stick {
                    prop_assert_eq!(down.get(&zone.name).copied().unwrap_or(false), own.is_some());
                } else if own.is_none() || about == Some(zone.name) {
                    // It points there from its middle, at most as far as full.
                    let wanted = own.map_or([0.0; 2], |(_, _, at)| {
                        let by = [at[0] - middle(zone)[0], middle(zone)[1] - at[1]];
                        let far = by[0].hypot(by[1]).max(zone.size[0] / 2.0);
                        by.map(|v| v / far)
                    });
                    let told = sticks.get(&zone.name).copied().unwrap_or_default();
                    for n in 0..2 {
                        prop_assert!((told[n] - wanted[n]).abs() < 1e-3, "{told:?} for {wanted:?}");
                        prop_assert!((zone.at[n] - wanted[n]).abs() < 1e-3);
                    }
                }
                // What a player moved is on the screen, all of it, and no larger or smaller than they may.
                let placement = zones.placement(zone.name);
                if placement != Placement::default() {
                    for n in 0..2 {
                        prop_assert!(zone.min[n] >= -0.01 && zone.min[n] + zone.size[n] <= screen[n] + 0.01, "{zone:?} on {screen:?}");
                    }
                    prop_assert!((0.5..=3.0).contains(&placement.size()));
                }
            }
        }
    }
}

#[test]
fn what_a_player_moved_keeps_its_place_on_another_screen() {
    let mut zones = TouchZones::new();
    laid(&mut zones, [800.0, 600.0]);
    let before = middle(find(&zones, "horn"));
    zones.place(name("horn"), Placement::new([-0.25, -0.5], 1.5));
    let horn = find(&zones, "horn");
    assert_eq!(middle(horn), [before[0] - 200.0, before[1] - 300.0]);
    assert_eq!(horn.size, [120.0, 180.0]);
    // The game lays out anew for a screen twice as wide: what the player did goes along.
    assert_eq!(zones.clear(), []);
    laid(&mut zones, [1600.0, 600.0]);
    let horn = find(&zones, "horn");
    assert_eq!(middle(horn)[0], 1600.0 * 0.85 - 400.0);
    // Nobody told how large the screen is: the game's own.
    let mut zones = TouchZones::new();
    zones.place(name("horn"), Placement::new([-0.25, -0.5], 1.5));
    zones.add_area(name("horn"), [10.0, 10.0], [50.0, 50.0]);
    assert_eq!(find(&zones, "horn").min, [10.0, 10.0]);
    for bad in [
        [0.0, 10.0],
        [f32::NAN, 10.0],
        [-1.0, 10.0],
        [f32::INFINITY, 1.0],
    ] {
        zones.set_screen(bad);
        assert_eq!(zones.screen(), None);
    }
}

#[test]
fn the_mouse_is_a_finger_only_where_the_game_says_so_and_never_both() {
    let mut zones = TouchZones::new();
    laid(&mut zones, [800.0, 600.0]);
    const LEFT: MouseButton = MouseButton::Left;
    let mut mouse = MouseFinger::default();
    let (horn, stick) = (middle(find(&zones, "horn")), middle(find(&zones, "stick")));
    assert_eq!(mouse.point(horn, &mut zones), None);
    assert!(
        mouse.press(LEFT, true, &mut zones).is_none(),
        "it is a mouse"
    );
    assert!(!find(&zones, "horn").touched);
    assert_eq!(mouse.switch(true, &mut zones), None);
    let pressed: Vec<EventKind> = mouse.press(LEFT, true, &mut zones).unwrap().collect();
    assert_eq!(pressed, [what::touch(name("horn"), true)]);
    let of = |what| Event {
        at: Time::ZERO,
        device: DeviceId(1),
        what,
    };
    let (button, down) = (swap_knot::MouseButton::Left, true);
    assert!(mouse.takes(&of(EventKind::MouseButton { button, down })));
    assert!(mouse.takes(&of(EventKind::MouseMove { x: 1.0, y: 0.0 })));
    let button = swap_knot::MouseButton::Right;
    assert!(!mouse.takes(&of(EventKind::MouseButton { button, down })));
    // A finger besides is another one.
    assert_eq!(zones.down(0, stick).count(), 1);
    assert_eq!(
        mouse.point(stick, &mut zones),
        None,
        "it slid off, and is on the horn still"
    );
    let let_go: Vec<EventKind> = mouse.press(LEFT, false, &mut zones).unwrap().collect();
    assert_eq!(let_go, [what::touch(name("horn"), false)]);
    assert_eq!(mouse.press(LEFT, true, &mut zones).unwrap().count(), 1);
    let moved = mouse.point([stick[0] + 1000.0, stick[1]], &mut zones);
    assert!(
        matches!(moved, Some(EventKind::TouchStick { x: 1.0, .. })),
        "it came last"
    );
    // Switched off, it lets go; the finger has the stick again.
    assert!(matches!(
        mouse.switch(false, &mut zones),
        Some(EventKind::TouchStick { x: 0.0, .. })
    ));
    assert!(mouse.press(LEFT, true, &mut zones).is_none());
    // Where there is no zone it is a finger all the same, and no mouse.
    assert_eq!(mouse.switch(true, &mut zones), None);
    mouse.point([5.0, 5.0], &mut zones);
    assert_eq!(mouse.press(LEFT, true, &mut zones).unwrap().count(), 0);
}

struct Game {
    sheet: Sheet,
    controls: Controls,
    zones: TouchZones,
    now: Time,
}

impl Game {
    fn new(profile: Profile) -> Game {
        let sheet = small(SHEET);
        let mut controls = Controls::new(&sheet, profile, &Layout::us());
        let mut zones = TouchZones::new();
        laid(&mut zones, [800.0, 600.0]);
        let deck = sheet.find_situation("deck").unwrap();
        controls.seat_mut().set_situations(&[deck]);
        controls.arrange(&mut zones);
        Game {
            sheet,
            controls,
            zones,
            now: Time::from_millis(100),
        }
    }

    fn frame(&mut self) {
        self.now = self.now.plus(std::time::Duration::from_millis(16));
        self.controls.tick(self.now);
        self.controls.arrange(&mut self.zones);
    }

    fn open(&mut self, page: &str) {
        self.controls.open_screen(self.now);
        self.frame();
        press(&mut self.controls, page);
        self.frame();
    }

    fn do_it(&mut self, edit: impl FnOnce(&mut ControlsScreen)) {
        edit(screen(&mut self.controls));
        self.frame();
    }

    /// Drags a zone by so much in all, by one step after the other, where a unit of the picture is two of
    /// the layout's.
    fn drag_zone(&mut self, name: TouchName, grip: Grip, steps: &[[f32; 2]]) {
        const FROM: [f32; 2] = [5.0, 5.0];
        let target = Target::zone(name, grip, [0.0, 0.0, 10.0, 10.0], 2.0);
        self.do_it(|s| s.set_targets([target]));
        self.do_it(|s| s.point(PointerEvent::Down(MouseButton::Left, FROM)));
        let at = |by: &[f32; 2]| [0, 1].map(|n| FROM[n] + by[n] / 2.0);
        for by in steps {
            self.do_it(|s| s.point(PointerEvent::Moved(at(by))));
        }
        let end = steps.last().map_or(FROM, at);
        self.do_it(|s| s.point(PointerEvent::Up(MouseButton::Left, end)));
    }

    fn titles(&self) -> Vec<(String, bool)> {
        let view = self.controls.touch_view(&self.zones);
        view.zones.into_iter().map(|z| (z.title, z.does)).collect()
    }
}

#[test]
fn what_is_drawn_says_what_it_does_right_now() {
    let mut game = Game::new(Profile::default());
    let said = |all: &[(&str, bool)]| {
        all.iter()
            .map(|(t, d)| ((*t).to_owned(), *d))
            .collect::<Vec<_>>()
    };
    assert_eq!(
        game.titles(),
        said(&[("Walk", true), ("Horn", true), ("spare", false)])
    );
    let helm = game.sheet.find_situation("helm").unwrap();
    game.controls.seat_mut().set_situations(&[helm]);
    assert_eq!(
        game.titles(),
        said(&[("Steer", true), ("Horn", true), ("spare", false)])
    );
    // What does nothing is not there, also for fingers.
    game.frame();
    assert!(find(&game.zones, "spare").hidden && !find(&game.zones, "horn").hidden);
    assert_eq!(
        game.zones
            .down(3, middle(find(&game.zones, "spare")))
            .count(),
        0
    );
    let finger = middle(find(&game.zones, "horn"));
    for what in game.zones.down(1, finger) {
        game.controls.feed(&Event {
            at: game.now,
            device: DeviceId(4),
            what,
        });
    }
    game.frame();
    let view = game.controls.touch_view(&game.zones);
    assert_eq!(view.size, Some([800.0, 600.0]));
    assert!(view.zones[1].touched && !view.zones[0].touched);
    assert!(
        game.controls
            .seat()
            .is_down(game.sheet.find("horn").unwrap())
    );
}

#[test]
fn a_zone_is_moved_and_sized_on_the_screen_and_kept() {
    let mut game = Game::new(Profile::default());
    game.open("page touch");
    let horn = name("horn");
    let before = find(&game.zones, "horn");
    // Dragged step by step, and one step for undo.
    let steps: Vec<[f32; 2]> = (1..=10)
        .map(|n| [-44.0 * n as f32, -3.0 * n as f32])
        .collect();
    game.drag_zone(horn, Grip::Middle, &steps);
    let moved = find(&game.zones, "horn");
    assert!(
        (middle(moved)[0] - (middle(before)[0] - 440.0)).abs() < 1.0,
        "{moved:?}"
    );
    let corner = [0.25 * moved.size[0], 0.25 * moved.size[1]];
    game.drag_zone(horn, Grip::Corner, &[corner]);
    let sized = find(&game.zones, "horn");
    assert!(
        (sized.size[0] - before.size[0] * 1.5).abs() < 1.0,
        "{sized:?}"
    );
    game.do_it(|s| s.command(ScreenCommand::Undo));
    assert_eq!(find(&game.zones, "horn"), moved);
    game.do_it(|s| s.command(ScreenCommand::Undo));
    assert_eq!(find(&game.zones, "horn"), before);
    game.do_it(|s| {
        s.command(ScreenCommand::Redo);
        s.command(ScreenCommand::Redo);
    });
    // Beyond the edge it stops there, and follows the pointer again when that comes back.
    let from = find(&game.zones, "horn");
    game.drag_zone(horn, Grip::Middle, &[[-5000.0, 5000.0]]);
    let edge = find(&game.zones, "horn");
    assert!(edge.min[0].abs() < 1.0 && (edge.min[1] + edge.size[1] - 600.0).abs() < 1.0);
    game.do_it(|s| s.command(ScreenCommand::Undo));
    game.drag_zone(horn, Grip::Middle, &[[-5000.0, 5000.0], [20.0, 0.0]]);
    assert!((find(&game.zones, "horn").min[0] - from.min[0] - 20.0).abs() < 1.5);
    // Back where it was is no change; what is no number moves nothing.
    let at_rest = find(&game.zones, "horn");
    let before = game.controls.screen().unwrap().draft().profile().clone();
    game.drag_zone(horn, Grip::Middle, &[[30.0, 3.0], [0.0, 0.0]]);
    game.drag_zone(horn, Grip::Corner, &[[f32::NAN, 3.0], [3.0, f32::INFINITY]]);
    assert_eq!(game.controls.screen().unwrap().draft().profile(), before);
    let summary = game.controls.screen().unwrap().draft().summary();
    assert!(
        summary.iter().any(|l| l.starts_with("horn: Left/right")),
        "{summary:?}"
    );
    game.do_it(|s| s.command(ScreenCommand::Apply));
    game.controls.close_screen();
    let text = game.controls.profile().to_toml();
    let again = Profile::from_toml(&text).unwrap();
    assert_eq!(
        again.parameters(horn).placement(),
        game.controls.profile().parameters(horn).placement()
    );
    assert!(!again.is_unchanged());
    let second = Game::new(again);
    assert_eq!(find(&second.zones, "horn"), at_rest);
    // Another zone lies where the game has it.
    assert_eq!(
        find(&second.zones, "stick"),
        find(&Game::new(Profile::default()).zones, "stick")
    );
}

#[test]
fn with_keys_alone_it_is_moved_by_its_numbers_and_reset_at_every_level() {
    let mut game = Game::new(Profile::default());
    let start = find(&game.zones, "horn");
    game.open("page touch");
    let spot = |knob| {
        let zone = ActsOn::Zone(name("horn"));
        Spot::Setting(zone, knob, ParameterPart::Whole)
    };
    let push = |game: &mut Game, knob, way, times: u32| {
        game.do_it(|s| s.focus(spot(knob)));
        for _ in 0..times {
            game.do_it(|s| s.command(ScreenCommand::Go(way)));
        }
    };
    push(&mut game, Parameter::ShiftX, Direction::Left, 5);
    push(&mut game, Parameter::Size, Direction::Right, 4);
    let moved = find(&game.zones, "horn");
    assert!(
        (middle(moved)[0] - (middle(start)[0] - 80.0)).abs() < 1.0,
        "{moved:?}"
    );
    assert!(moved.size[0] > start.size[0] * 1.05);
    let focused = screen(&mut game.controls).view().focused().unwrap().clone();
    assert!(focused.changed && focused.label.starts_with("Size: "));
    assert!(focused.spoken.starts_with("horn: Size"), "{focused:?}");
    game.do_it(|s| s.command(ScreenCommand::Reset));
    assert_eq!(find(&game.zones, "horn").size, start.size);
    push(&mut game, Parameter::Size, Direction::Right, 2);
    // Everything on touch, only that number, and everything.
    for last in [2, usize::MAX, 1] {
        assert_ne!(find(&game.zones, "horn"), start);
        press(&mut game.controls, "tool reset");
        let all = answers(&mut game.controls);
        let meant = &all[(all.len() - 1).saturating_sub(last)];
        let is_only = meant.label.starts_with("Only “horn: ");
        assert_eq!(is_only, last == usize::MAX, "{meant:?}");
        let meant = meant.spot;
        game.do_it(|s| s.press(meant));
        assert_eq!(find(&game.zones, "horn"), start);
        push(&mut game, Parameter::ShiftX, Direction::Left, 2);
    }
}

#[test]
fn there_is_a_page_only_where_the_game_has_zones() {
    let sheet = small(SHEET);
    let mut controls = Controls::new(&sheet, Profile::default(), &Layout::us());
    controls.open_screen(Time::ZERO);
    let screen = controls.screen_mut().unwrap();
    assert!(screen.view().pages.iter().all(|p| p.id != "page touch"));
    for _ in 0..20 {
        screen.command(ScreenCommand::NextPage);
        assert_ne!(screen.page().word(), "touch");
    }
}

#[test]
fn who_has_no_finger_on_the_screen_binds_a_zone_by_its_name() {
    let mut game = Game::new(Profile::default());
    game.open("page bindings");
    press(&mut game.controls, "cell coil touch-1");
    answer(&mut game.controls, "spare");
    game.do_it(|s| s.command(ScreenCommand::Apply));
    game.controls.close_screen();
    assert_eq!(game.titles()[2], ("Coil".to_owned(), true));
    // A zone that is taken asks, like any other input.
    game.open("page bindings");
    press(&mut game.controls, "cell coil touch-1");
    answer(&mut game.controls, "horn");
    let dialog = screen(&mut game.controls).view().dialog.clone().unwrap();
    assert!(dialog.title.contains("Horn"), "{}", dialog.title);
}

#[test]
fn what_a_file_says_of_zones_is_read_within_its_ranges_and_kept_otherwise() {
    let text = "format = 1\n[touch.horn]\nx = 0.25\ny = 7\nsize = \"large\"\n[touch.\"No Name\"]\nx = 0.1\n";
    let profile = Profile::from_toml(text).unwrap();
    assert_eq!(
        profile.parameters(name("horn")).placement(),
        Placement::new([0.25, 0.0], 1.0)
    );
    let written: toml::Table = profile.to_toml().parse().unwrap();
    assert_eq!(written, text.parse::<toml::Table>().unwrap());
    // What the player sets takes the place of what was not understood.
    let mut profile = profile;
    let to = Placement::new([0.0, 0.5], 2.0);
    let mut to = Parameters::of_placement(to);
    to.set(Parameter::ShiftX, None);
    profile.set_parameters(name("horn"), &to).unwrap();
    let setting = |knob| {
        profile.setting(&Setting::Parameter {
            scope: name("horn").into(),
            parameter: knob,
        })
    };
    assert!(setting(Parameter::ShiftX).is_none() && setting(Parameter::Size).is_some());
    let again = Profile::from_toml(&profile.to_toml()).unwrap();
    assert_eq!(
        again.parameters(name("horn")).placement(),
        Placement::new([0.0, 0.5], 2.0)
    );
}
