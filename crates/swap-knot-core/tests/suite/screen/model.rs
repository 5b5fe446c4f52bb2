//! Anything that a player may do, in any order.

use crate::common::{BESIDE, THERE, drag, draw_alone, push, what};
use swap_knot_core::keep::Memory;
use swap_knot_core::play::Edge;
use swap_knot_core::screen::{Item, ScreenView, Spot, Tool};
use swap_knot_core::sheet::Column;
use swap_knot_core::{
    Controls, DeviceKind, Draft, EventKind, Layout, Locker, PadButton, Place, Sheet, Slug, Stick,
    Words,
};

use super::player::Player;

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
            .is_some_and(|d| d.title == "Apply your changes before you leave?");
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
                let outs = ["Cancel", "Use the old ones"];
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
pub(crate) fn first_difference(a: &ScreenView, b: &ScreenView) -> Option<[String; 2]> {
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
pub(crate) struct Dice(pub(crate) u64);

impl Dice {
    pub(crate) fn roll(&mut self, sides: usize) -> usize {
        self.0 = self
            .0
            .wrapping_mul(6_364_136_223_846_793_005)
            .wrapping_add(1_442_695_040_888_963_407);
        ((self.0 >> 33) % sides as u64) as usize
    }

    pub(crate) fn pick<T: Copy>(&mut self, of: &[T]) -> T {
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
            what::pad(dice.pick(PadButton::ALL), value)
        }
        7 => {
            let stick = dice.pick(&Stick::ALL);
            let far = [0.0, 0.2, -0.7, 1.0, f32::INFINITY];
            what::stick(stick, dice.pick(&far), dice.pick(&far))
        }
        8 => {
            let button = dice.pick(&swap_knot_core::MouseButton::NAMED);
            EventKind::MouseButton { button, down }
        }
        _ => dice.pick(&[
            EventKind::FocusLost,
            EventKind::Unplugged,
            EventKind::Wheel {
                direction: swap_knot_core::input::Direction::Up,
            },
            EventKind::Scroll {
                x: f32::NAN,
                y: 0.4,
            },
            EventKind::HidHat {
                direction: swap_knot_core::input::Direction::Down,
                down: true,
            },
            what::touch("horn".parse().unwrap(), true),
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
                        .map_or("not set".into(), |c| d.chord_name(c))
                };
                let (old, new) = (name(&before), name(after));
                if old != new {
                    told.push(format!("{}: {new} (was {old})", after.row_title(row)));
                }
            }
        }
    }
    // Numbers of feel have the name of the setting besides.
    let said = answer.text.iter().filter(|l| l.matches(": ").count() == 1);
    let said = said.filter(|l| l.contains(" (was "));
    let mut said: Vec<String> = said.filter(|l| !l.starts_with("Preset")).cloned().collect();
    told.sort();
    said.sort();
    assert_eq!(said, told, "{}", answer.label);
}

/// The demo's sheet with an action by another name, another key, and one action fewer.
fn another_version() -> Sheet {
    let text = include_str!("../../../../../demo/slack-water.toml");
    let (before, after) = text.split_once("[actions.photo]").unwrap();
    let (_, after) = after.split_once("# Sets of bindings").unwrap();
    let text = format!("{before}# Sets of bindings{after}");
    let text = text
        .replace(
            "bind = [\"KeyE\", \"mouse:left\"",
            "bind = [\"KeyO\", \"mouse:left\"",
        )
        .replace("[actions.lantern]", "[actions.lamp]")
        .replace("lantern = {", "lamp = {")
        .replace("whistle = \"horn\"", "lantern = \"lamp\"");
    Sheet::from_toml(&text).unwrap()
}

/// Whatever is pressed, pointed at and waited for: the screen is never stuck, shows what is, and
/// loses nothing.
#[test]
fn any_twenty_thousand_events_leave_a_screen_that_can_be_left() {
    play_anything(Dice(7));
}

#[test]
fn and_any_other_twenty_thousand() {
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
    let sheets = [player.sheet.clone(), another_version()];
    let mut swapped = false;
    let many = crate::common::worlds(20_000);
    for n in 0..many {
        match dice.roll(40) {
            0 => player.wait(30),
            1 => player.wait(450),
            2 if dice.roll(20) == 0 => player.wait(16_000),
            3 | 4 => {
                let view = player.view();
                let ids: Vec<Spot> = view.items().map(|i| i.spot).collect();
                let spot = dice.pick(&ids);
                let to = dice.pick(&[0.0, 0.4, 1.0, f32::NAN, 7.0]);
                match dice.roll(3) {
                    0 => drag(&mut player.controls, spot, to),
                    _ => {
                        let screen = player.controls.screen_mut().unwrap();
                        draw_alone(screen, Some(spot));
                        push(screen, THERE, dice.pick(&[THERE, THERE, THERE, BESIDE]));
                    }
                }
            }
            6 if dice.roll(4) == 0 => drop(player.controls.save()),
            7 if dice.roll(8) == 0 => {
                // The developer saves the sheet, also in the middle of a question.
                swapped = !swapped;
                player.controls.follow_sheet(&sheets[usize::from(swapped)]);
            }
            5 if player.view().dialog.is_some() => choose_what_is_told(&mut player, &mut dice),
            _ => player.send(anything(&mut dice)),
        }
        let played = player.controls.seat().happened();
        assert!(played.iter().all(|h| h.edge != Edge::Began), "{played:?}");
        if !player.is_open() {
            player.open();
        }
        // It is looked at after each event, as a skin does, and is what it would be if made anew.
        let screen = player.controls.screen_mut().unwrap();
        screen.view();
        if dice.roll(12) == 0 {
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
            player.controls.screen_mut().unwrap().set_targets([]);
            leave_with(&mut player, dice.pick(&kinds));
            // Whoever has left with the stick pushed walks, until the screen is open again.
            player.open();
            player.wait(10);
        }
        applied = player.controls.profile().clone();
    }
    assert_eq!(
        player.item(&format!("tool {}", Tool::Undo.word())).spot,
        Spot::Tool(Tool::Undo)
    );
}
