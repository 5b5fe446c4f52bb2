//! What is pointed at, however a skin's pictures come.

use std::time::Duration;

use swap_knot_core::input::TouchZones;
use swap_knot_core::screen::{Grip, Item, Page, PointerEvent, ScreenCommand, ScreenView, Target};
use swap_knot_core::{DeviceId, Event, EventKind, MouseButton, Time};

use super::model::{Dice, first_difference};
use super::player::Player;

const LINE: f32 = 10.0;
const WIDTH: f32 = 100.0;

/// A plain skin: everything in one column, what has to be answered over it.
fn draw(view: &ScreenView) -> Vec<Target> {
    let mut targets: Vec<Target> = Vec::new();
    let line = |n: usize| [0.0, n as f32 * LINE, WIDTH, LINE];
    let item = |n: usize, item: &Item| Target::item(item, line(n), [20.0, 80.0]);
    let page: Vec<&Item> = view.items().collect();
    targets.extend(page.iter().enumerate().map(|(n, i)| item(n, i)));
    let zones = view.touch.iter().flat_map(|touch| &touch.zones);
    for zone in zones {
        let [x, y, w, h] = zone.rect.map(|n| n / 4.0);
        let x = x + WIDTH;
        targets.push(Target::zone(zone.name, Grip::Middle, [x, y, w, h], 4.0));
        let corner = [x + w - 5.0, y + h - 5.0, 10.0, 10.0];
        targets.push(Target::zone(zone.name, Grip::Corner, corner, 4.0));
    }
    if let Some(dialog) = &view.dialog {
        targets.push(Target::cover([0.0, 0.0, 2.0 * WIDTH, 1000.0 * LINE]));
        let answers = dialog.lines.iter().flatten();
        targets.extend(answers.enumerate().map(|(n, i)| item(n, i)));
    }
    targets
}

fn open_on(page: usize) -> Player {
    let mut player = Player::new();
    let mut zones = TouchZones::new();
    zones.set_screen([800.0, 600.0]);
    for (n, name) in ["rope", "horn"].into_iter().enumerate() {
        zones.add_area(
            name.parse().unwrap(),
            [300.0 * n as f32, 300.0],
            [150.0, 100.0],
        );
    }
    player.controls.arrange(&mut zones);
    let screen = player.controls.screen_mut().unwrap();
    for _ in 0..page {
        screen.command(ScreenCommand::NextPage);
    }
    let targets = draw(screen.view());
    screen.set_targets(targets);
    player
}

/// A hand's way: clicks, drags and slips.
fn way(dice: &mut Dice) -> Vec<PointerEvent> {
    let mut way = Vec::new();
    for _ in 0..12 {
        // Tools and answers stand at the top, zones at the right.
        let (wide, high) = dice.pick(&[(100, 150), (100, 450), (260, 200)]);
        let mut at = [dice.roll(wide) as f32, dice.roll(high) as f32];
        let button = match dice.roll(12) {
            0 => MouseButton::Right,
            _ => MouseButton::Left,
        };
        way.extend([PointerEvent::Moved(at), PointerEvent::Down(button, at)]);
        for _ in 0..dice.pick(&[0, 0, 0, 1, 3]) {
            at = [
                at[0] + dice.roll(40) as f32 - 15.0,
                at[1] + dice.roll(9) as f32 - 4.0,
            ];
            way.push(PointerEvent::Moved(at));
        }
        match dice.roll(20) {
            0 => way.push(PointerEvent::Gone),
            1 => way.push(PointerEvent::Lost),
            _ => {}
        }
        way.push(PointerEvent::Up(button, at));
    }
    way
}

/// What a device tells besides.
fn raw(event: &PointerEvent) -> Option<EventKind> {
    match *event {
        PointerEvent::Down(button, _) => Some(EventKind::MouseButton { button, down: true }),
        PointerEvent::Up(button, _) => Some(EventKind::MouseButton {
            button,
            down: false,
        }),
        _ => None,
    }
}

/// Plays a way, with so many events in each picture, and says what came of it.
fn play(page: usize, way: &[PointerEvent], mut many: impl FnMut() -> usize) -> Option<Outcome> {
    let mut player = open_on(page);
    let mut rest = way;
    let mut at = 0;
    while !rest.is_empty() {
        let (now, later) = rest.split_at(many().min(rest.len()));
        rest = later;
        for event in now {
            at += 1;
            player.now = Time::from(Duration::from_millis(at));
            if let Some(what) = raw(event) {
                let (at, device) = (player.now, DeviceId(0));
                player.controls.feed(&Event { at, device, what });
            }
        }
        player.controls.tick(player.now);
        let screen = player.controls.screen_mut()?;
        now.iter().for_each(|event| screen.point(*event));
        let targets = draw(screen.view());
        screen.set_targets(targets);
    }
    // What waits for a picture gets one.
    for _ in 0..way.len() {
        player.controls.tick(player.now);
        let screen = player.controls.screen_mut()?;
        let targets = draw(screen.view());
        screen.set_targets(targets);
        if !screen.is_moving() {
            break;
        }
    }
    // What was wished at last is carried out.
    player.controls.tick(player.now);
    let (draft, profile) = (
        player.controls.screen()?.draft().profile(),
        player.controls.profile(),
    );
    let kept = [draft.to_toml(), profile.to_toml()];
    let mut view = player.view();
    if player.controls.screen()?.page() == Page::Try {
        // What is tried is told by the seat, to which it comes later.
        view.sections.clear();
    }
    Some((kept, view))
}

/// What was changed and what was applied, and what is shown; none where the screen was left.
type Outcome = ([String; 2], ScreenView);

fn assert_same(one: Option<&Outcome>, other: Option<&Outcome>, told: &str) {
    assert_eq!(one.map(|o| &o.0), other.map(|o| &o.0), "{told}");
    if let (Some(one), Some(other)) = (one, other) {
        assert_eq!(first_difference(&one.1, &other.1), None, "{told}");
    }
}

/// However the events of a pointer fall into pictures, the same comes of them.
#[test]
fn it_does_not_matter_how_events_fall_into_pictures() {
    let mut dice = Dice(7);
    for n in 0..crate::common::worlds(160) {
        let page = n as usize % 7;
        let way = way(&mut dice);
        let each_its_own = play(page, &way, || 1);
        let at_once = play(page, &way, || usize::MAX);
        let told = format!("all in one, {n}: {way:?}");
        assert_same(each_its_own.as_ref(), at_once.as_ref(), &told);
        let cut = play(page, &way, || 1 + dice.roll(9));
        assert_same(
            each_its_own.as_ref(),
            cut.as_ref(),
            &format!("cut anywhere, {n}: {way:?}"),
        );
    }
}

/// Where an item stands, and what is drawn last on it.
fn middle_of(player: &mut Player, id: &str) -> [f32; 2] {
    let view = player.view();
    let lines: Vec<Vec<&Item>> = match &view.dialog {
        Some(dialog) => vec![dialog.lines.iter().flatten().collect()],
        None => vec![view.items().collect()],
    };
    let found = lines[0].iter().position(|i| i.id == id);
    let n = found.unwrap_or_else(|| panic!("no {id}"));
    [50.0, (n as f32 + 0.5) * LINE]
}

fn point(player: &mut Player, events: &[PointerEvent]) {
    let screen = player.controls.screen_mut().unwrap();
    events.iter().for_each(|event| screen.point(*event));
}

fn show(player: &mut Player) {
    let screen = player.controls.screen_mut().unwrap();
    let targets = draw(screen.view());
    screen.set_targets(targets);
}

fn click(at: [f32; 2]) -> [PointerEvent; 2] {
    [
        PointerEvent::Down(MouseButton::Left, at),
        PointerEvent::Up(MouseButton::Left, at),
    ]
}

/// The way of a drag counts to its end, also that which is moved with the press and with the release.
#[test]
fn a_number_is_where_the_pointer_was_let_go() {
    let number = "feel gamepad dead-zone";
    for way in [&[] as &[f32], &[35.0, 60.0], &[20.0, 80.0, 61.0]] {
        let mut player = open_on(1);
        let [_, y] = middle_of(&mut player, number);
        let left = MouseButton::Left;
        let mut events = vec![PointerEvent::Down(left, [25.0, y])];
        events.extend(way.iter().map(|x| PointerEvent::Moved([*x, y + 300.0])));
        events.push(PointerEvent::Up(left, [68.0, y + 300.0]));
        point(&mut player, &events);
        // The track is from 20 to 80, the number from 0 to 0.9.
        assert_eq!(player.label(number), "0.72", "{way:?}");
        let screen = player.controls.screen_mut().unwrap();
        assert!(screen.is_pointed_at());
        screen.command(ScreenCommand::Undo);
        assert!(!screen.draft().is_changed(), "one drag is one step");
    }
}

#[test]
fn a_click_is_one_where_it_is_let_go_over_what_it_was_pressed_on() {
    let mut player = open_on(0);
    let (search, more) = (
        middle_of(&mut player, "tool search"),
        middle_of(&mut player, "tool more"),
    );
    let left = MouseButton::Left;
    let slip = [
        PointerEvent::Down(left, more),
        PointerEvent::Up(left, search),
    ];
    point(&mut player, &slip);
    assert_eq!(player.dialog(), "");
    let given_up = [
        PointerEvent::Down(left, more),
        PointerEvent::Lost,
        PointerEvent::Up(left, more),
    ];
    point(&mut player, &given_up);
    point(
        &mut player,
        &click(search).map(|e| match e {
            PointerEvent::Down(_, at) => PointerEvent::Down(MouseButton::Right, at),
            PointerEvent::Up(_, at) => PointerEvent::Up(MouseButton::Right, at),
            other => other,
        }),
    );
    assert_eq!(player.dialog(), "");
    point(&mut player, &click(search));
    assert_eq!(player.dialog(), "Search");
}

/// What follows something that was worked waits for the picture that shows it, and a wish for one more.
#[test]
fn a_second_click_meets_what_the_first_one_opened() {
    let mut player = open_on(0);
    player.click("tool more");
    show(&mut player);
    let presets = middle_of(&mut player, "tool presets");
    point(&mut player, &click(presets));
    let answer = middle_of(&mut player, "answer 2");
    let mut player = open_on(0);
    player.click("tool more");
    show(&mut player);
    point(&mut player, &[click(presets), click(answer)].concat());
    assert!(player.controls.screen().unwrap().is_moving());
    assert_eq!(player.dialog(), "Choose a preset");
    show(&mut player);
    assert_eq!(player.dialog(), "");
    assert!(player.controls.screen().unwrap().draft().is_changed());
    // So does what follows a number that was dragged: a mark or a panel may have come.
    let mut player = open_on(1);
    let [_, y] = middle_of(&mut player, "feel gamepad curve");
    let undo = middle_of(&mut player, "tool undo");
    point(&mut player, &[click([70.0, y]), click(undo)].concat());
    let is_changed = |player: &Player| player.controls.screen().unwrap().draft().is_changed();
    assert!(is_changed(&player));
    show(&mut player);
    assert!(!is_changed(&player));
    // The picture after what was applied shows what there was before it.
    let mut player = open_on(1);
    let [_, y] = middle_of(&mut player, "feel gamepad curve");
    point(&mut player, &click([70.0, y]));
    show(&mut player);
    let (apply, undo) = (
        middle_of(&mut player, "tool apply"),
        middle_of(&mut player, "tool undo"),
    );
    point(&mut player, &[click(apply), click(undo)].concat());
    show(&mut player);
    assert!(player.controls.profile().is_unchanged());
    player.controls.tick(player.now);
    show(&mut player);
    assert!(!player.controls.profile().is_unchanged());
}
