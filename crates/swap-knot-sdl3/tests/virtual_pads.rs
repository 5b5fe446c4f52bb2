//! Pads from SDL itself to the action: virtual ones, which are real to it.

#![allow(clippy::unwrap_used, clippy::panic)]

mod desk;

use std::sync::atomic::Ordering;
use std::time::Duration;

use desk::{Desk, EVENTS, MOTORS, Make, Virtual};
use sdl3::gamepad::{Axis, Button};
use sdl3::joystick::HatState;
use swap_knot::input::{Direction, HidAxis, HidButton};
use swap_knot::keep::Memory;
use swap_knot::play::{Cause, Edge, Report, TurnUnits};
use swap_knot::{DeviceKind, EventKind, Layout, Locker, PadButton, Place, Stick};
use swap_knot_sdl3::{RumbleError, pad_button};

const QUAYSIDE: Make = Make::pad("Quayside pad", (0x1209, 0x5a01));
const ROPEWALK: Make = Make::pad("Ropewalk pad", (0x1209, 0x5a02));
const SHEET: &str = r#"
game = "slack-water"
[actions.cast-off]
bind = ["Space", "pad:south"]
[actions.horn]
bind = "pad:north"
[actions.throttle]
shape = "pull"
bind = "pad:trigger-right"
[actions.walk]
shape = "plane"
bind = "pad:stick-left"
[actions.look]
shape = "plane"
rate = true
bind = ["pad:stick-right", "pad:trigger-left+pad:gyro"]
[actions.rudder]
shape = "line"
bind = "hid:x"
[actions.winch]
bind = ["hid:button-3", "hid:hat-up"]
"#;

/// Every button that SDL has a name for.
const BUTTONS: [Button; 26] = [
    Button::South,
    Button::East,
    Button::West,
    Button::North,
    Button::Back,
    Button::Guide,
    Button::Start,
    Button::LeftStick,
    Button::RightStick,
    Button::LeftShoulder,
    Button::RightShoulder,
    Button::DPadUp,
    Button::DPadDown,
    Button::DPadLeft,
    Button::DPadRight,
    Button::Misc1,
    Button::RightPaddle1,
    Button::LeftPaddle1,
    Button::RightPaddle2,
    Button::LeftPaddle2,
    Button::Touchpad,
    Button::Misc2,
    Button::Misc3,
    Button::Misc4,
    Button::Misc5,
    Button::Misc6,
];

#[test]
fn every_button_and_axis_arrives_from_the_library() {
    let mut desk = Desk::new(SHEET);
    let pad = Virtual::plug(&QUAYSIDE);
    desk.frame();
    let device = desk.heard[0].device;
    let usb = "1209:5a01".parse().ok();
    // It says who it is, and that it is a pad at rest.
    let (stick, x, y) = (Stick::LEFT, 0.0, 0.0);
    let rest = EventKind::PadStick { stick, x, y };
    assert_eq!(desk.heard_of(device), [EventKind::Plugged { usb }, rest]);
    // So a button that the standard mapping has no place for makes no unknown controller of it.
    pad.button(Button::Misc1 as i32, true);
    desk.frame();
    assert!(desk.controls.take_reports().is_empty());
    assert_eq!(desk.controls.controllers().count(), 0);
    pad.button(Button::Misc1 as i32, false);
    desk.frame();
    let mut places = Vec::new();
    for (n, button) in BUTTONS.into_iter().enumerate() {
        assert_eq!(button as usize, n, "they are in SDL's order");
        for down in [true, false] {
            pad.button(n as i32, down);
            desk.frame();
            // SDL holds this one a little longer, so that systems see it.
            while button == Button::Guide && !down && desk.heard_of(device).is_empty() {
                desk.frame();
            }
            let value = f32::from(down);
            let wanted = match pad_button(button) {
                Some(button) => EventKind::PadButton { button, value },
                None => EventKind::HidButton {
                    button: HidButton::new(n as u8 + 1).unwrap(),
                    down,
                },
            };
            assert_eq!(desk.heard_of(device), [wanted], "{button:?}");
        }
        places.extend(pad_button(button));
    }
    places.sort_unstable();
    // All that the standard mapping has; triggers are axes.
    let all = PadButton::ALL.iter().filter(|b| !b.is_trigger());
    assert!(places.iter().eq(all));
    for (axis, value, wanted) in [
        (Axis::LeftX, i16::MAX, (Stick::LEFT, [1.0, 0.0])),
        (Axis::LeftX, i16::MIN, (Stick::LEFT, [-1.0, 0.0])),
        (Axis::LeftY, i16::MIN, (Stick::LEFT, [-1.0, 1.0])),
        (Axis::RightY, i16::MAX, (Stick::RIGHT, [0.0, -1.0])),
        (Axis::RightX, i16::MAX, (Stick::RIGHT, [1.0, -1.0])),
    ] {
        pad.axis(axis as i32, value);
        desk.frame();
        let (stick, [x, y]) = wanted;
        // The first time SDL tells where all of them are.
        let heard = desk.heard_of(device);
        assert!(
            heard.contains(&EventKind::PadStick { stick, x, y }),
            "{heard:?}"
        );
    }
    let walk = desk.sheet.find("walk").unwrap();
    let [x, y] = desk.controls.seat().plane(walk);
    assert!(
        (x + 0.707).abs() < 0.001 && (y - 0.707).abs() < 0.001,
        "{x} {y}"
    );
    for (axis, button) in [
        (Axis::TriggerLeft, PadButton::TriggerLeft),
        (Axis::TriggerRight, PadButton::TriggerRight),
    ] {
        // A virtual trigger goes as a joystick's axis does: all the way from below.
        for (at, value) in [(i16::MIN, 0.0), (i16::MAX, 1.0)] {
            pad.axis(axis as i32, at);
            desk.frame();
            if let Some(what) = desk.heard_of(device).last() {
                assert_eq!(*what, EventKind::PadButton { button, value });
            }
        }
    }
    assert!(desk.is_down("throttle"));
}

#[test]
fn pulled_in_mid_press_it_lets_go_and_comes_back_to_its_number() {
    let mut desk = Desk::new(SHEET);
    let pad = Virtual::plug(&QUAYSIDE);
    desk.frame();
    pad.button(Button::South as i32, true);
    desk.frame();
    assert!(desk.is_down("cast-off"));
    let device = desk.controls.seat().device_in_use().unwrap().device;
    drop(pad);
    desk.frame().frame();
    assert!(!desk.is_down("cast-off"));
    let reports = desk.controls.take_reports();
    assert!(matches!(
        reports[..],
        [Report::Unplugged(DeviceKind::Gamepad)]
    ));
    // SDL calls it otherwise now; to the player it is the same.
    let pad = Virtual::plug(&QUAYSIDE);
    desk.frame().frame();
    let reports = desk.controls.take_reports();
    assert!(matches!(reports[..], [Report::PluggedAgain(_)]));
    pad.button(Button::South as i32, true);
    desk.frame();
    assert!(desk.is_down("cast-off"));
    assert_eq!(desk.controls.seat().device_in_use().unwrap().device, device);
    drop(pad);
    desk.frame();
    let ended: Vec<_> = desk.happened.iter().map(|h| (h.edge, h.cause)).collect();
    assert_eq!(ended, [(Edge::Ended, Cause::Unplugged)]);
}

#[test]
fn two_alike_are_two_and_marks_follow_the_one_that_is_pressed() {
    let mut desk = Desk::new(SHEET);
    let first = Virtual::plug(&QUAYSIDE);
    let second = Virtual::plug(&QUAYSIDE);
    let other = Virtual::plug(&ROPEWALK);
    desk.frame();
    let north = Button::North as i32;
    for pad in [&first, &second] {
        pad.button(north, true);
    }
    desk.frame();
    assert!(desk.is_down("horn"));
    first.button(north, false);
    desk.frame();
    assert!(desk.is_down("horn"), "the other one holds it");
    drop(first);
    desk.frame();
    assert!(desk.is_down("horn"));
    second.button(north, false);
    desk.frame();
    assert!(!desk.is_down("horn"));
    // Prompts follow presses while the third one drifts.
    let drifter = Virtual::plug(&Make::pad("Nobody's pad", (0x1209, 0x0bad)));
    for n in 0..4_i16 {
        for (pad, says) in [(&other, "Press Anchor"), (&second, "Press T")] {
            drifter.axis(Axis::LeftX as i32, 900 + 300 * n);
            desk.frame();
            pad.button(north, true);
            desk.frame();
            pad.button(north, false);
            drifter.axis(Axis::LeftY as i32, -700 - 200 * n);
            desk.frame();
            assert_eq!(desk.prompt("{do:cast-off}"), says);
        }
    }
}

#[test]
fn a_pad_that_wobbles_at_rest_does_nothing() {
    let mut desk = Desk::new(SHEET);
    let pad = Virtual::plug(&QUAYSIDE);
    desk.frame();
    for n in 0..200_i32 {
        let wobble = (n * 7919 % 2600 - 1300) as i16;
        for axis in [Axis::LeftX, Axis::LeftY, Axis::RightX, Axis::RightY] {
            pad.axis(
                axis as i32,
                wobble.wrapping_mul(if n % 2 == 0 { 1 } else { -1 }),
            );
        }
        pad.turn([0.01, -0.02, 0.005]);
        desk.frame();
        assert!(desk.happened.is_empty());
    }
    let walk = desk.sheet.find("walk").unwrap();
    assert_eq!(desk.controls.seat().plane(walk), [0.0; 2]);
    assert_eq!(desk.controls.seat().device_kind(), DeviceKind::Keyboard);
}

#[test]
fn a_view_is_turned_by_the_hands_while_the_trigger_says_so() {
    let mut desk = Desk::new(SHEET);
    let pad = Virtual::plug(&ROPEWALK);
    desk.frame();
    let look = desk.sheet.find("look").unwrap();
    let units = TurnUnits {
        a_count: 1.0 / 16.0,
        a_second: 180.0,
    };
    let turned = |desk: &mut Desk, pad: &Virtual| {
        pad.turn([0.0; 3]);
        desk.frame();
        let (mut sum, start) = ([0.0_f32; 3], desk::moment());
        for _ in 0..20 {
            // To the right and up, by a quarter and an eighth of a turn a second.
            pad.turn([
                std::f32::consts::FRAC_PI_4,
                -std::f32::consts::FRAC_PI_2,
                0.0,
            ]);
            desk.frame();
            let by = desk.controls.seat().turn(look, units);
            sum = [0, 1, 2].map(|axis| sum[axis] + by[axis]);
        }
        (sum, desk::moment().since(start).as_secs_f32())
    };
    assert_eq!(turned(&mut desk, &pad).0, [0.0; 3]);
    pad.axis(Axis::TriggerLeft as i32, i16::MAX);
    desk.frame();
    let ([yaw, pitch, roll], seconds) = turned(&mut desk, &pad);
    assert!(
        yaw > 0.5 * 90.0 * seconds && yaw < 1.5 * 90.0 * seconds,
        "{yaw} in {seconds} s"
    );
    assert!(
        (pitch - yaw / 2.0).abs() < 0.01 * yaw,
        "{pitch} beside {yaw}"
    );
    assert_eq!(roll, 0.0);
}

#[test]
fn a_controller_without_a_mapping_comes_by_its_numbers() {
    let mut desk = Desk::new(SHEET);
    let stick = Virtual::plug(&Make {
        name: "Harbour tiller",
        usb: (0x1209, 0x7111),
        is_pad: false,
        axes: 3,
        buttons: 5,
        hats: 1,
    });
    desk.frame();
    let device = desk.heard[0].device;
    let usb = "1209:7111".parse().ok();
    assert_eq!(desk.heard_of(device)[0], EventKind::Plugged { usb });
    for (n, down) in (0..5).flat_map(|n| [(n, true), (n, false)]) {
        stick.button(n, down);
        desk.frame();
        let button = HidButton::new(n as u8 + 1).unwrap();
        assert_eq!(
            desk.heard_of(device),
            [EventKind::HidButton { button, down }]
        );
        assert_eq!(desk.is_down("winch"), n == 2 && down);
    }
    stick.axis(0, i16::MAX);
    desk.frame();
    let (axis, value) = (HidAxis::X, 1.0);
    // The first time SDL tells where all of them are.
    let heard = desk.heard_of(device);
    assert!(
        heard.contains(&EventKind::HidAxis { axis, value }),
        "{heard:?}"
    );
    let rudder = desk.sheet.find("rudder").unwrap();
    stick.axis(0, -16384);
    desk.frame();
    assert!((desk.controls.seat().value(rudder) + 0.5).abs() < 0.01);
    stick.hat(HatState::RightUp as u8);
    desk.frame();
    let down = true;
    let ways = [Direction::Up, Direction::Right];
    let ways = ways.map(|direction| EventKind::HidHat { direction, down });
    assert_eq!(desk.heard_of(device), ways);
    assert!(desk.is_down("winch"));
    drop(stick);
    desk.frame();
    assert!(!desk.is_down("winch"));
}

/// Which number works which part of a controller that nobody knows.
const WIRED: [(&str, Wire); 20] = [
    ("pad:south", Wire::Button(1)),
    ("pad:east", Wire::Button(2)),
    ("pad:west", Wire::Button(0)),
    ("pad:north", Wire::Button(3)),
    ("pad:up", Wire::Hat(HatState::Up)),
    ("pad:down", Wire::Hat(HatState::Down)),
    ("pad:left", Wire::Hat(HatState::Left)),
    ("pad:right", Wire::Hat(HatState::Right)),
    ("pad:shoulder-left", Wire::Button(4)),
    ("pad:shoulder-right", Wire::Button(5)),
    // These rest at the lower end, and click on their way.
    ("pad:trigger-left", Wire::Trigger(2, 6)),
    ("pad:trigger-right", Wire::Trigger(5, 7)),
    ("pad:stick-left.up", Wire::Axis(1, i16::MIN)),
    ("pad:stick-left.left", Wire::Axis(0, i16::MIN)),
    ("pad:stick-left-click", Wire::Button(8)),
    ("pad:stick-right.up", Wire::Axis(4, i16::MIN)),
    ("pad:stick-right.left", Wire::Axis(3, i16::MIN)),
    ("pad:stick-right-click", Wire::Button(9)),
    ("pad:center-left", Wire::Button(10)),
    ("pad:center-right", Wire::Button(11)),
];

#[derive(Clone, Copy)]
enum Wire {
    Button(i32),
    Hat(HatState),
    Axis(i32, i16),
    Trigger(i32, i32),
}

/// Works a part: in, and out again.
fn work(desk: &mut Desk, pad: &Virtual, wire: Wire) {
    for down in [true, false] {
        match wire {
            Wire::Button(button) => pad.button(button, down),
            Wire::Hat(way) => pad.hat(if down { way as u8 } else { 0 }),
            Wire::Axis(axis, to) => pad.axis(axis, if down { to } else { 0 }),
            Wire::Trigger(axis, click) => {
                pad.axis(axis, 0);
                desk.frame();
                pad.button(click, down);
                pad.axis(axis, if down { i16::MAX } else { i16::MIN });
            }
        }
        desk.frame();
    }
}

#[test]
fn an_unmapped_controller_is_taught_kept_and_a_pad_after_a_restart() {
    let locker = Locker::in_store(Memory::new());
    let make = Make {
        name: "Boatyard pad",
        usb: (0x1209, 0x5a03),
        is_pad: false,
        axes: 6,
        buttons: 12,
        hats: 1,
    };
    let plug = |desk: &mut Desk| {
        let pad = Virtual::plug(&make);
        for trigger in [2, 5] {
            pad.axis(trigger, i16::MIN);
        }
        desk.frame();
        pad
    };
    let mut desk = Desk::of(SHEET, locker.clone());
    let pad = plug(&mut desk);
    desk.controls.open_screen(desk::moment());
    let dialog = |desk: &mut Desk| {
        let screen = desk.controls.screen_mut().unwrap();
        let dialog = screen.view().dialog.clone();
        dialog.map(|d| d.title).unwrap_or_default()
    };
    pad.button(4, true);
    desk.frame();
    pad.button(4, false);
    desk.frame();
    assert_eq!(dialog(&mut desk), "New controller. Set it up as a gamepad?");
    // Its first button chooses.
    work(&mut desk, &pad, Wire::Button(0));
    for turn in 0.. {
        assert!(turn < 40, "it asks on and on");
        let title = dialog(&mut desk);
        let Some(asked) = title.strip_prefix("On the controller: ") else {
            break;
        };
        let named = |part: &str| {
            let input: swap_knot::Input = part.parse().unwrap();
            desk.controls.words().input_name(input, &Layout::us())
        };
        let wire = WIRED.iter().find(|(part, _)| named(part) == asked);
        match wire {
            Some((_, wire)) => work(&mut desk, &pad, *wire),
            // Somebody at the keyboard says that there is none.
            None => {
                desk.key(Place::Enter, true);
                desk.key(Place::Enter, false);
            }
        }
        for _ in 0..600 {
            if dialog(&mut desk) != title {
                break;
            }
            desk.frame();
        }
        assert_ne!(dialog(&mut desk), title);
    }
    assert_eq!(dialog(&mut desk), "Keep this setup?");
    work(&mut desk, &pad, Wire::Button(1));
    assert_eq!(dialog(&mut desk), "");
    assert!(desk.controls.save());
    drop(pad);
    drop(desk);

    let mut desk = Desk::of(SHEET, locker);
    let pad = plug(&mut desk);
    desk.controls.take_reports();
    pad.button(1, true);
    desk.frame();
    assert!(desk.is_down("cast-off"));
    assert_eq!(desk.controls.seat().device_kind(), DeviceKind::Gamepad);
    assert_eq!(
        desk.prompt("{do:cast-off}"),
        "Press the bottom button of the four"
    );
    assert_eq!(desk.controls.take_reports().len(), 0);
    let throttle = desk.sheet.find("throttle").unwrap();
    // Half way in, and somewhat less beyond its dead zone.
    for (at, level) in [(i16::MIN, 0.0), (0, 0.41), (i16::MAX, 1.0)] {
        pad.axis(5, at);
        desk.frame();
        let value = desk.controls.seat().value(throttle);
        assert!((value - level).abs() < 0.01, "{value} at {at}");
    }
    // What clicks on the way says nothing by itself.
    pad.button(7, true);
    desk.frame();
    assert_eq!(desk.controls.seat().device_kind(), DeviceKind::Gamepad);
    let walk = desk.sheet.find("walk").unwrap();
    pad.axis(1, i16::MIN);
    desk.frame();
    assert_eq!(desk.controls.seat().plane(walk), [0.0, 1.0]);
    drop(pad);
    desk.frame().frame();
    assert_eq!(desk.controls.seat().plane(walk), [0.0; 2]);
}

#[test]
fn what_cannot_be_opened_is_refused_once_and_not_said_to_be_there() {
    let mut desk = Desk::new(SHEET);
    let added = sdl3::event::Event::ControllerDeviceAdded {
        timestamp: 0,
        which: 987_654,
    };
    let mut told = Vec::new();
    desk.adapter.events([added], |e| told.push(e));
    assert_eq!(told, []);
    let refused = desk.adapter.refused();
    assert!(refused[0].to_string().contains("cannot be opened"));
    assert_eq!((refused.len(), desk.adapter.refused().len()), (1, 0));
}

#[test]
fn the_pad_in_use_rumbles_and_no_other() {
    let mut desk = Desk::new(SHEET);
    let pad = Virtual::plug(&QUAYSIDE);
    desk.frame();
    pad.button(Button::South as i32, true);
    desk.frame();
    let used = desk.controls.seat().last_used(DeviceKind::Gamepad).unwrap();
    let time = Duration::from_millis(100);
    desk.adapter.rumble(used.device, [1.0, 0.5], time).unwrap();
    assert_eq!(MOTORS.load(Ordering::Relaxed), 0xffff_7fff);
    desk.adapter.rumble(used.device, [0.0, 0.0], time).unwrap();
    assert_eq!(MOTORS.load(Ordering::Relaxed), 0);
    drop(pad);
    desk.frame();
    let refused = desk.adapter.rumble(used.device, [1.0, 1.0], time);
    assert_eq!(refused, Err(RumbleError::NoPad(used.device.0)));
    let all = EVENTS.load(Ordering::Relaxed);
    println!("{all} events came through SDL so far");
    assert!(all > 0);
}
