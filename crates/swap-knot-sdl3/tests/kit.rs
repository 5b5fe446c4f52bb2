//! The cases that every adapter has to pass, and what SDL says in ways of its own.

#![allow(clippy::unwrap_used)]

use sdl3::event::{Event as Theirs, WindowEvent};
use sdl3::gamepad::{Axis, Button};
use sdl3::keyboard::{Mod, Scancode};
use sdl3::mouse::{MouseButton as TheirButton, MouseState, MouseWheelDirection};
use swap_knot::input::TouchZones;
use swap_knot::kit::{self, Engine, Said};
use swap_knot::{Event, EventKind, MouseButton, PadButton, Place, Stick, Time};
use swap_knot_sdl3::{Adapter, KEYBOARD, place};

#[derive(Default)]
struct Sdl(Adapter, u64);

fn key(scancode: Scancode, down: bool, repeat: bool, timestamp: u64) -> Theirs {
    let (window_id, which, raw) = (1, 0, 0);
    let (keycode, scancode, keymod) = (None, Some(scancode), Mod::NOMOD);
    match down {
        true => Theirs::KeyDown {
            timestamp,
            window_id,
            keycode,
            scancode,
            keymod,
            repeat,
            which,
            raw,
        },
        false => Theirs::KeyUp {
            timestamp,
            window_id,
            keycode,
            scancode,
            keymod,
            repeat,
            which,
            raw,
        },
    }
}

fn scancode(wanted: Place) -> Option<Scancode> {
    let all = (0..=0x200).filter_map(Scancode::from_i32);
    all.into_iter().find(|code| place(*code) == Some(wanted))
}

fn window(win_event: WindowEvent) -> Theirs {
    Theirs::Window {
        timestamp: 0,
        window_id: 1,
        win_event,
    }
}

fn motion(which: u32, x: f32, y: f32) -> Theirs {
    Theirs::MouseMotion {
        timestamp: 0,
        window_id: 1,
        which,
        mousestate: MouseState::from_sdl_state(0),
        x: 0.0,
        y: 0.0,
        xrel: x,
        yrel: y,
    }
}

fn wheel(y: f32, direction: MouseWheelDirection) -> Theirs {
    Theirs::MouseWheel {
        timestamp: 0,
        window_id: 1,
        which: 0,
        x: 0.0,
        y,
        direction,
        mouse_x: 0.0,
        mouse_y: 0.0,
        integer_x: 0,
        integer_y: 0,
    }
}

fn click(which: u32, mouse_btn: TheirButton, down: bool) -> Theirs {
    let (timestamp, window_id, clicks, x, y) = (0, 1, 1, 0.0, 0.0);
    match down {
        true => Theirs::MouseButtonDown {
            timestamp,
            window_id,
            which,
            mouse_btn,
            clicks,
            x,
            y,
        },
        false => Theirs::MouseButtonUp {
            timestamp,
            window_id,
            which,
            mouse_btn,
            clicks,
            x,
            y,
        },
    }
}

/// What a finger does: touches, moves, leaves.
fn finger(touch_id: u64, finger_id: u64, [x, y]: [f32; 2], was: bool, is: bool) -> Theirs {
    let (timestamp, dx, dy, pressure, window_id) = (0, 0.0, 0.0, 1.0, 1);
    match (was, is) {
        (false, _) => Theirs::FingerDown {
            timestamp,
            touch_id,
            finger_id,
            x,
            y,
            dx,
            dy,
            pressure,
            window_id,
        },
        (true, true) => Theirs::FingerMotion {
            timestamp,
            touch_id,
            finger_id,
            x,
            y,
            dx,
            dy,
            pressure,
            window_id,
        },
        (true, false) => Theirs::FingerUp {
            timestamp,
            touch_id,
            finger_id,
            x,
            y,
            dx,
            dy,
            pressure,
            window_id,
        },
    }
}

impl Engine for Sdl {
    fn say(&mut self, said: &Said, at: Time) -> Option<Vec<Event>> {
        let mut out = Vec::new();
        let timestamp = 0;
        let event = match *said {
            Said::Key { place, down } => key(scancode(place)?, down, false, self.1),
            Said::Repeat { place } => key(scancode(place)?, true, true, self.1),
            Said::FocusLost => window(WindowEvent::FocusLost),
            Said::FocusBack { holding } => {
                // Two seconds later than whatever was before.
                self.1 += 2_000_000_000;
                let timestamp = self.1;
                let (window_id, win_event) = (1, WindowEvent::FocusGained);
                let gained = Theirs::Window {
                    timestamp,
                    window_id,
                    win_event,
                };
                self.0.event(&gained, at, |e| out.push(e));
                if let Some(place) = holding {
                    let held = key(scancode(place)?, true, false, timestamp + 9000);
                    self.0.event(&held, at, |e| out.push(e));
                }
                self.1 += 1_000_000_000;
                return Some(out);
            }
            Said::Gap => {
                self.0.gap(at, |e| out.push(e));
                return Some(out);
            }
            Said::Mouse { button, down } => {
                let button = match button {
                    MouseButton::Left => TheirButton::Left,
                    MouseButton::Back => TheirButton::X1,
                    MouseButton::Forward => TheirButton::X2,
                    _ => return None,
                };
                click(0, button, down)
            }
            Said::Motion { x, y } => motion(0, x, -y),
            Said::Wheel { notches } => wheel(notches, MouseWheelDirection::Normal),
            Said::PadCame { pad } => Theirs::ControllerDeviceAdded {
                timestamp,
                which: pad as u32,
            },
            Said::PadGone { pad } => Theirs::ControllerDeviceRemoved {
                timestamp,
                which: pad as u32,
            },
            Said::PadButton { pad, button, value } => {
                let which = pad as u32;
                let of = |button| match value > 0.5 {
                    true => Theirs::ControllerButtonDown {
                        timestamp,
                        which,
                        button,
                    },
                    false => Theirs::ControllerButtonUp {
                        timestamp,
                        which,
                        button,
                    },
                };
                match button {
                    PadButton::South => of(Button::South),
                    PadButton::East => of(Button::East),
                    // What is no number cannot be said in whole ones.
                    PadButton::TriggerLeft => Theirs::ControllerAxisMotion {
                        timestamp,
                        which,
                        axis: Axis::TriggerLeft,
                        value: (value * 32767.0) as i16,
                    },
                    _ => return None,
                }
            }
            Said::PadAxis {
                pad,
                stick: Stick::LEFT,
                axis,
                value,
            } => Theirs::ControllerAxisMotion {
                timestamp,
                which: pad as u32,
                axis: [Axis::LeftX, Axis::LeftY][axis],
                value: (if axis == 1 { -value } else { value } * 32767.0) as i16,
            },
            Said::Finger {
                finger: id,
                at,
                was,
            } => finger(1, id, at.unwrap_or_default(), was, at.is_some()),
            _ => return None,
        };
        self.0.event(&event, at, |e| out.push(e));
        Some(out)
    }

    fn zones(&mut self) -> &mut TouchZones {
        &mut self.0.zones
    }
}

#[test]
fn the_adapter_passes_the_kit() {
    let report = kit::check(Sdl::default);
    assert!(report.failed.is_empty(), "{report}");
    assert_eq!(report.left_out, Vec::<&str>::new(), "{report}");
}

fn means(adapter: &mut Adapter, events: Vec<Theirs>) -> Vec<EventKind> {
    let mut out = Vec::new();
    adapter.events(events, |e| out.push(e.what));
    out
}

#[test]
fn keys_that_sdl_lets_go_with_the_focus_are_no_releases() {
    let mut adapter = Adapter::without_opening();
    let is_up = |what: &EventKind| matches!(what, EventKind::Key { down: false, .. });
    means(
        &mut adapter,
        vec![
            key(Scancode::W, true, false, 0),
            key(Scancode::D, true, false, 0),
        ],
    );
    let events = vec![
        key(Scancode::W, false, false, 0),
        key(Scancode::D, false, false, 0),
        window(WindowEvent::FocusLost),
    ];
    let out = means(&mut adapter, events);
    let lost = out
        .iter()
        .position(|what| *what == EventKind::FocusLost)
        .unwrap();
    assert!(!out[..lost].iter().any(is_up), "{out:?}");
    assert_eq!(
        out.iter().filter(|w| is_up(w)).count(),
        4,
        "told twice does no harm: {out:?}"
    );
    // A release of the player's own in the same frame stays one.
    means(&mut adapter, vec![key(Scancode::W, true, false, 0)]);
    let events = vec![
        key(Scancode::W, false, false, 0),
        motion(0, 1.0, 0.0),
        window(WindowEvent::FocusLost),
    ];
    assert!(is_up(&means(&mut adapter, events)[0]));
}

#[test]
fn a_finger_is_no_mouse_and_a_mouse_no_finger() {
    let mut adapter = Adapter::without_opening();
    adapter
        .zones
        .add_area("horn".parse().unwrap(), [0.0, 0.0], [1.0, 1.0]);
    let made_up = vec![
        click(u32::MAX, TheirButton::Left, true),
        motion(u32::MAX, 3.0, 0.0),
        click(u32::MAX, TheirButton::Left, false),
        finger(u64::MAX, 0, [0.5, 0.5], false, true),
        finger(u64::MAX, 0, [0.5, 0.5], true, false),
    ];
    assert_eq!(means(&mut adapter, made_up), []);
    let real = vec![finger(1, 0, [0.5, 0.5], false, true)];
    assert!(matches!(
        means(&mut adapter, real)[..],
        [EventKind::Touch { down: true, .. }]
    ));
    // Two screens with a finger of the same number each.
    let both = vec![
        finger(1, 0, [0.5, 0.5], true, false),
        finger(2, 0, [0.5, 0.5], true, false),
    ];
    assert!(matches!(
        means(&mut adapter, both)[..],
        [EventKind::Touch { down: false, .. }]
    ));
}

#[test]
fn zones_lie_on_a_window_that_is_resized() {
    let mut adapter = Adapter::without_opening();
    adapter
        .zones
        .add_area("horn".parse().unwrap(), [600.0, 400.0], [100.0, 100.0]);
    let resized = window(WindowEvent::Resized(1280, 800));
    let touch = |x, y| finger(1, 0, [x, y], false, true);
    assert_eq!(means(&mut adapter, vec![touch(0.5, 0.5)]), []);
    let out = means(&mut adapter, vec![resized, touch(0.5, 0.52)]);
    assert!(matches!(out[..], [EventKind::Touch { down: true, .. }]));
}

#[test]
fn every_key_has_a_place_of_its_own_and_the_wheel_turns_as_the_player_does() {
    let mut places: Vec<Place> = (0..=0x200)
        .filter_map(Scancode::from_i32)
        .filter_map(place)
        .collect();
    let count = places.len();
    places.sort_unstable();
    places.dedup();
    // Two usages are one place: the key left of Enter.
    assert_eq!(places.len() + 1, count);
    let writing = Place::WRITING.iter().filter(|p| !places.contains(p));
    assert_eq!(writing.collect::<Vec<_>>(), Vec::<&Place>::new());
    let mut adapter = Adapter::without_opening();
    let turned = means(
        &mut adapter,
        vec![wheel(-0.5, MouseWheelDirection::Flipped)],
    );
    assert_eq!(turned, [EventKind::Scroll { x: 0.0, y: 0.5 }]);
    let mut out = Vec::new();
    adapter.event(&key(Scancode::W, true, false, 0), Time::ZERO, |e| {
        out.push(e)
    });
    let w = EventKind::Key {
        place: Place::KeyW,
        down: true,
        text: Some('w'),
    };
    assert_eq!((out[0].device, out[0].what), (KEYBOARD, w));
    let plain = EventKind::KeyTypes {
        place: Place::KeyW,
        plain: 'w',
    };
    assert_eq!(out[1].what, plain);
}

#[test]
fn the_left_mouse_button_is_a_finger_where_that_is_switched_on_and_no_mouse_then() {
    let mut adapter = Adapter::without_opening();
    adapter.set_size([800.0, 600.0]);
    let name = "horn".parse().unwrap();
    adapter.zones.add_area(name, [0.0, 0.0], [50.0, 50.0]);
    let _ = adapter.mouse_finger.switch(true, &mut adapter.zones);
    let touched = |down| EventKind::Touch { name, down };
    let told = means(
        &mut adapter,
        vec![click(1, TheirButton::Left, true), motion(1, 3.0, 0.0)],
    );
    assert_eq!(told, [touched(true)]);
    let told = means(&mut adapter, vec![window(WindowEvent::FocusLost)]);
    assert_eq!(told.last(), Some(&touched(false)));
    let told = means(
        &mut adapter,
        vec![click(1, TheirButton::Left, false), motion(1, 3.0, 0.0)],
    );
    assert_eq!(told, []);
    let _ = adapter.mouse_finger.switch(false, &mut adapter.zones);
    let told = means(&mut adapter, vec![motion(1, 3.0, 0.0)]);
    assert!(
        matches!(told[..], [EventKind::MouseMove { .. }]),
        "{told:?}"
    );
}
