//! Fingers of egui's on zones, and the page on which these are dragged: egui's own events in.

#![allow(clippy::unwrap_used, clippy::panic)]

use egui::{
    Context, Event as Theirs, Modifiers, PointerButton, Pos2, RawInput, Rect, TouchDeviceId,
    TouchId, TouchPhase, Vec2, pos2, vec2,
};
use swap_knot::input::{MouseFinger, TouchName, TouchZones};
use swap_knot::screen::{ControlsScreen, ScreenCommand};
use swap_knot::{Controls, EventKind, Layout, Profile, Sheet, Time};
use swap_knot_egui::{Look, ScreenSkin, fingers, touch_controls};

const SHEET: &str = include_str!("../../../demo/slack-water.toml");
const SIZE: Vec2 = vec2(1280.0, 800.0);

fn name(text: &str) -> TouchName {
    text.parse().unwrap()
}

fn zones() -> TouchZones {
    let mut zones = TouchZones::new();
    zones.add_stick(name("stick"), [200.0, 600.0], 100.0);
    zones.add_area(name("rope"), [1000.0, 600.0], [150.0, 100.0]);
    zones
}

struct Desk {
    ctx: Context,
    zones: TouchZones,
    mouse: MouseFinger,
}

impl Desk {
    fn new() -> Desk {
        Desk {
            ctx: Context::default(),
            zones: zones(),
            mouse: MouseFinger::default(),
        }
    }

    fn frame(&mut self, events: Vec<Theirs>) -> Vec<EventKind> {
        let input = RawInput {
            screen_rect: Some(Rect::from_min_size(Pos2::ZERO, SIZE)),
            events,
            ..RawInput::default()
        };
        let mut told = Vec::new();
        let (zones, mouse) = (&mut self.zones, &mut self.mouse);
        let mut out = self.ctx.run_ui(input, |ui| {
            fingers(ui.ctx(), zones, mouse, |what| told.push(what))
        });
        out.textures_delta.clear();
        told
    }
}

fn touch(id: u64, phase: TouchPhase, pos: Pos2) -> Theirs {
    Theirs::Touch {
        device_id: TouchDeviceId(3),
        id: TouchId(id),
        phase,
        pos,
        force: None,
    }
}

/// What egui makes of a finger besides: a pointer.
fn pointer(pos: Pos2, pressed: Option<bool>) -> Theirs {
    match pressed {
        None => Theirs::PointerMoved(pos),
        Some(pressed) => Theirs::PointerButton {
            pos,
            button: PointerButton::Primary,
            pressed,
            modifiers: Modifiers::NONE,
        },
    }
}

#[test]
fn several_fingers_work_zones_and_none_of_them_is_a_mouse() {
    let mut desk = Desk::new();
    let _ = desk.mouse.switch(true, &mut desk.zones);
    let (rope, stick) = (pos2(1050.0, 650.0), pos2(250.0, 600.0));
    let told = desk.frame(vec![
        touch(1, TouchPhase::Start, rope),
        pointer(rope, None),
        pointer(rope, Some(true)),
    ]);
    assert_eq!(
        told,
        [EventKind::Touch {
            name: name("rope"),
            down: true
        }]
    );
    let told = desk.frame(vec![
        touch(2, TouchPhase::Start, stick),
        pointer(stick, None),
    ]);
    assert_eq!(
        told,
        [EventKind::TouchStick {
            name: name("stick"),
            x: 0.5,
            y: 0.0
        }]
    );
    // The finger slides off the button and goes on pressing it; the other one is lost.
    assert_eq!(
        desk.frame(vec![touch(1, TouchPhase::Move, pos2(20.0, 20.0))]),
        []
    );
    let told = desk.frame(vec![touch(2, TouchPhase::Cancel, stick)]);
    assert_eq!(
        told,
        [EventKind::TouchStick {
            name: name("stick"),
            x: 0.0,
            y: 0.0
        }]
    );
    let up = vec![touch(1, TouchPhase::End, rope), pointer(rope, Some(false))];
    assert_eq!(
        desk.frame(up),
        [EventKind::Touch {
            name: name("rope"),
            down: false
        }]
    );
    assert_eq!(desk.zones.screen(), Some([1280.0, 800.0]));
}

/// Fingers, the pointer that egui makes of the first of them, and a mouse that is a finger, one after the
/// other: however they fall into frames, the same is told.
#[test]
fn it_does_not_matter_how_fingers_fall_into_frames() {
    let places = [
        pos2(1050.0, 650.0),
        pos2(250.0, 600.0),
        pos2(160.0, 570.0),
        pos2(20.0, 20.0),
    ];
    let mut number = 5_u64;
    let mut roll = |sides: u64| {
        number = number
            .wrapping_mul(6_364_136_223_846_793_005)
            .wrapping_add(1_442_695_040_888_963_407);
        (number >> 33) % sides
    };
    for _ in 0..200 {
        let (mut way, mut alone) = (Vec::new(), Vec::new());
        for id in 0..4 {
            let mut at = places[roll(4) as usize];
            let is_finger = roll(2) == 0;
            let mut tell = |phase, at, pressed| {
                alone.push(pointer(at, pressed));
                if is_finger {
                    way.push(touch(id, phase, at));
                    alone.pop();
                    alone.extend(way.last().cloned());
                }
                way.push(pointer(at, pressed));
            };
            tell(TouchPhase::Start, at, None);
            tell(TouchPhase::Move, at, Some(true));
            for _ in 0..roll(3) {
                at = places[roll(4) as usize];
                tell(TouchPhase::Move, at, None);
            }
            tell(TouchPhase::End, at, Some(false));
            if is_finger {
                way.push(Theirs::PointerGone);
            }
        }
        let mut play = |way: &[Theirs], at_once: bool| {
            let mut desk = Desk::new();
            let _ = desk.mouse.switch(true, &mut desk.zones);
            let mut told = Vec::new();
            let mut rest = way;
            while !rest.is_empty() {
                let many = if at_once {
                    rest.len()
                } else {
                    1 + roll(4) as usize
                };
                let (now, later) = rest.split_at(many.min(rest.len()));
                told.extend(desk.frame(now.to_vec()));
                rest = later;
            }
            told
        };
        let told = play(&way, true);
        assert_eq!(told, play(&way, false), "{way:?}");
        assert_eq!(
            told,
            play(&alone, false),
            "without a pointer for fingers: {way:?}"
        );
    }
}

#[test]
fn the_mouse_is_a_finger_where_that_is_switched_on_and_a_lost_window_lifts_all() {
    let mut desk = Desk::new();
    let rope = pos2(1050.0, 650.0);
    assert_eq!(
        desk.frame(vec![pointer(rope, None), pointer(rope, Some(true))]),
        []
    );
    assert_eq!(desk.frame(vec![pointer(rope, Some(false))]), []);
    let _ = desk.mouse.switch(true, &mut desk.zones);
    let told = desk.frame(vec![pointer(rope, None), pointer(rope, Some(true))]);
    assert_eq!(
        told,
        [EventKind::Touch {
            name: name("rope"),
            down: true
        }]
    );
    let told = desk.frame(vec![Theirs::WindowFocused(false)]);
    assert_eq!(
        told,
        [EventKind::Touch {
            name: name("rope"),
            down: false
        }]
    );
}

#[test]
fn what_does_something_is_drawn_with_what_it_does() {
    let sheet = Sheet::from_toml(SHEET).unwrap();
    let mut controls = Controls::new(&sheet, Profile::default(), &Layout::us());
    let deck = sheet.find_situation("deck").unwrap();
    controls.seat_mut().set_situations(&[deck]);
    let mut zones = zones();
    zones.set_screen([1280.0, 800.0]);
    zones.add_area(name("horn"), [600.0, 600.0], [100.0, 100.0]);
    controls.arrange(&mut zones);
    let ctx = Context::default();
    let input = RawInput {
        screen_rect: Some(Rect::from_min_size(Pos2::ZERO, SIZE)),
        ..RawInput::default()
    };
    let view = controls.touch_view(&zones);
    let mut out = ctx.run_ui(input, |ui| touch_controls(ui.ctx(), &view, &Look::DARK));
    out.textures_delta.clear();
    let mut painted = String::new();
    for shape in &out.shapes {
        if let egui::Shape::Text(text) = &shape.shape {
            painted += text.galley.text();
            painted.push('\n');
        }
    }
    assert_eq!(painted, "Walk\nCast off\n", "the horn is for the helm");
}

/// Draws the page with these events.
fn page(ctx: &Context, skin: &mut ScreenSkin, screen: &mut ControlsScreen, events: Vec<Theirs>) {
    let input = RawInput {
        screen_rect: Some(Rect::from_min_size(Pos2::ZERO, SIZE)),
        events,
        ..RawInput::default()
    };
    let mut out = ctx.run_ui(input, |ui| skin.show(ui, screen));
    out.textures_delta.clear();
}

#[test]
fn a_zone_is_dragged_in_the_picture_of_the_screen_and_sized_by_its_corner() {
    let sheet = Sheet::from_toml(SHEET).unwrap();
    let mut controls = Controls::new(&sheet, Profile::default(), &Layout::us());
    let mut zones = zones();
    zones.set_screen([1280.0, 800.0]);
    controls.open_screen(Time::ZERO);
    controls.arrange(&mut zones);
    let (ctx, mut skin) = (Context::default(), ScreenSkin::new());
    let screen = controls.screen_mut().unwrap();
    while screen.page().word() != "touch" {
        screen.command(ScreenCommand::NextPage);
    }
    page(&ctx, &mut skin, screen, Vec::new());
    let place = |skin: &ScreenSkin, id: &str| {
        let found = skin
            .places()
            .find(|(i, _)| *i == id)
            .map(|(_, r)| r.center());
        found.unwrap_or_else(|| panic!("no {id}"))
    };
    let rope = name("rope");
    let drag = |screen: &mut ControlsScreen, skin: &mut ScreenSkin, id: &str, by: Vec2| {
        let from = place(skin, id);
        page(&ctx, skin, screen, vec![pointer(from, None)]);
        page(&ctx, skin, screen, vec![pointer(from, Some(true))]);
        for n in 1..=10 {
            page(
                &ctx,
                skin,
                screen,
                vec![pointer(from + by * (n as f32 / 10.0), None)],
            );
        }
        page(&ctx, skin, screen, vec![pointer(from + by, Some(false))]);
    };
    drag(screen, &mut skin, "zone rope", vec2(-100.0, -80.0));
    let moved = screen.draft().placement(rope);
    assert!(
        moved.shift()[0] < -0.1 && moved.shift()[1] < -0.1,
        "{moved:?}"
    );
    assert_eq!(moved.size(), 1.0);
    drag(screen, &mut skin, "corner rope", vec2(30.0, 20.0));
    let sized = screen.draft().placement(rope);
    assert!(
        sized.size() > 1.3 && (sized.shift()[0] - moved.shift()[0]).abs() < 0.01,
        "{sized:?}"
    );
    screen.command(ScreenCommand::Undo);
    assert_eq!(
        screen.draft().placement(rope),
        moved,
        "one drag is one step"
    );
    // A slow frame has all of it in it: the way there, the press, the way and its end.
    page(
        &ctx,
        &mut skin,
        screen,
        vec![pointer(pos2(20.0, 20.0), None)],
    );
    page(&ctx, &mut skin, screen, Vec::new());
    let from = place(&skin, "corner rope");
    let to = from + vec2(30.0, 20.0);
    let at_once = vec![
        pointer(from, None),
        pointer(from, Some(true)),
        pointer(from + vec2(6.0, 4.0), None),
        pointer(to, Some(false)),
    ];
    page(&ctx, &mut skin, screen, at_once);
    let again = screen.draft().placement(rope);
    assert!((again.size() - sized.size()).abs() < 0.001, "{again:?}");
}
