//! A hand on the controls screen, however its events fall into frames: egui's own events in.

#![allow(clippy::unwrap_used, clippy::panic)]

use std::time::Duration;

use egui::{Context, Event as Theirs, Modifiers, PointerButton, Pos2, RawInput, Rect, Vec2, vec2};
use swap_knot::input::TouchZones;
use swap_knot::screen::ScreenCommand;
use swap_knot::{Controls, DeviceId, Event, EventKind, Layout, MouseButton, Profile, Sheet, Time};
use swap_knot_egui::ScreenSkin;

const SHEET: &str = include_str!("../../../demo/slack-water.toml");
/// High enough that nothing has to be scrolled, which is a matter of its own.
const SIZE: Vec2 = vec2(1280.0, 2600.0);
const PAGES: usize = 7;

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
}

struct Desk {
    ctx: Context,
    skin: ScreenSkin,
    controls: Controls,
    now: Time,
}

impl Desk {
    fn open_on(page: usize) -> Desk {
        let sheet = Sheet::from_toml(SHEET).unwrap();
        let mut controls = Controls::new(&sheet, Profile::default(), &Layout::us());
        let mut zones = TouchZones::new();
        zones.set_screen(SIZE.into());
        for (n, name) in ["rope", "horn"].into_iter().enumerate() {
            let at = [300.0 + 300.0 * n as f32, 500.0];
            zones.add_area(name.parse().unwrap(), at, [150.0, 100.0]);
        }
        controls.open_screen(Time::ZERO);
        controls.arrange(&mut zones);
        let screen = controls.screen_mut().unwrap();
        for _ in 0..page {
            screen.command(ScreenCommand::NextPage);
        }
        let mut desk = Desk {
            ctx: Context::default(),
            skin: ScreenSkin::new(),
            controls,
            now: Time::ZERO,
        };
        let at_once = egui::style::ScrollAnimation::none();
        desk.ctx
            .all_styles_mut(|style| style.scroll_animation = at_once);
        for _ in 0..3 {
            desk.frame(&[]);
        }
        desk
    }

    /// A frame with these events in it; the adapter of the window tells of the buttons first.
    fn frame(&mut self, events: &[Theirs]) {
        for event in events {
            self.now = self.now.plus(Duration::from_millis(1));
            if let Theirs::PointerButton { pressed, .. } = event {
                let (button, down) = (MouseButton::Left, *pressed);
                self.controls.feed(&Event {
                    at: self.now,
                    device: DeviceId(0),
                    what: EventKind::MouseButton { button, down },
                });
            }
        }
        self.controls.tick(self.now);
        let (skin, controls) = (&mut self.skin, &mut self.controls);
        let input = RawInput {
            screen_rect: Some(Rect::from_min_size(Pos2::ZERO, SIZE)),
            events: events.to_vec(),
            ..RawInput::default()
        };
        let mut out = self.ctx.run_ui(input, |ui| {
            if let Some(screen) = controls.screen_mut() {
                skin.show(ui, screen);
            }
        });
        // No screen wants the textures.
        out.textures_delta.clear();
    }

    /// What was changed, and what is shown; nothing where the screen was left.
    fn outcome(mut self) -> Option<(String, String)> {
        for _ in 0..8 {
            self.frame(&[]);
        }
        let screen = self.controls.screen_mut()?;
        let draft = screen.draft().profile().to_toml();
        let view = screen.view();
        let shown = (
            view.focused().map(|i| &i.id),
            view.dialog.as_ref().map(|d| &d.title),
            &view.message,
        );
        Some((draft, format!("{shown:?}")))
    }
}

/// Clicks, drags and slips of a hand that is after what is drawn.
fn way(page: usize, dice: &mut Dice) -> Vec<Theirs> {
    let desk = Desk::open_on(page);
    let places: Vec<Rect> = desk.skin.places().map(|(_, rect)| rect).collect();
    let is_dragged = |id: &str| {
        ["zone ", "corner ", "feel "]
            .iter()
            .any(|s| id.starts_with(s))
    };
    let dragged = desk.skin.places().filter(|(id, _)| is_dragged(id));
    let dragged: Vec<Rect> = dragged.map(|(_, rect)| rect).collect();
    let button = |pos, pressed| Theirs::PointerButton {
        pos,
        button: PointerButton::Primary,
        pressed,
        modifiers: Modifiers::NONE,
    };
    let mut events = Vec::new();
    for _ in 0..6 {
        let among = if dice.roll(2) == 0 { &dragged } else { &places };
        let Some(rect) = among.get(dice.roll(among.len().max(1))) else {
            continue;
        };
        let inside = vec2(dice.roll(100) as f32, dice.roll(100) as f32) / 100.0;
        let from = rect.min + inside * rect.size();
        let mut at = from;
        events.extend([Theirs::PointerMoved(at), button(at, true)]);
        for _ in 0..dice.roll(6) {
            at += vec2(dice.roll(60) as f32 - 25.0, dice.roll(30) as f32 - 12.0);
            events.push(Theirs::PointerMoved(at));
        }
        if dice.roll(2) == 0 {
            at = from;
        }
        events.push(button(at, false));
    }
    events
}

fn play(page: usize, way: &[Theirs], mut many: impl FnMut() -> usize) -> Option<(String, String)> {
    let mut desk = Desk::open_on(page);
    let mut rest = way;
    while !rest.is_empty() {
        let (now, later) = rest.split_at(many().min(rest.len()));
        desk.frame(now);
        rest = later;
    }
    desk.outcome()
}

/// A press, a way and its end in one slow frame do what they do in as many quick ones.
#[test]
fn it_does_not_matter_how_events_fall_into_frames() {
    let mut dice = Dice(3);
    let mut changed = 0;
    let rounds = match std::env::var_os("SWAP_KNOT_FULL") {
        Some(_) => 8,
        None => 1,
    };
    for n in 0..rounds * PAGES {
        let page = n % PAGES;
        let way = way(page, &mut dice);
        let quick = play(page, &way, || 1);
        changed += usize::from(
            quick
                .as_ref()
                .is_some_and(|(draft, _)| draft.lines().count() > 3),
        );
        assert_eq!(
            quick,
            play(page, &way, || usize::MAX),
            "at once, {n}: {way:?}"
        );
        let cut = play(page, &way, || 1 + dice.roll(9));
        assert_eq!(quick, cut, "cut anywhere, {n}: {way:?}");
    }
    assert!(changed >= rounds, "{changed} ways changed something");
}
