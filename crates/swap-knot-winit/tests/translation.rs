//! Every event that winit can report, case by case.

#![allow(clippy::unwrap_used, clippy::panic)]

use swap_knot::input::ButtonCounting;
use swap_knot::{DeviceId, Event, EventKind, MouseButton, Place, Time};
use swap_knot_winit::{Adapter, KEYBOARD, MOUSE, TOUCH, mouse_button, place};
use winit::dpi::PhysicalPosition;
use winit::event::{
    DeviceEvent, DeviceId as Theirs, ElementState, MouseScrollDelta, Touch, TouchPhase, WindowEvent,
};
use winit::keyboard::KeyCode;

/// Legacy keys that the W3C's `code` values leave out.
const LEFT_OUT: [&str; 3] = ["Meta", "Hyper", "Turbo"];

fn code(name: &str) -> KeyCode {
    serde_json::from_value(name.into()).unwrap()
}

#[test]
fn every_key_is_translated_or_left_out_by_name() {
    // What there is, out of winit's own mouth.
    let wrong = serde_json::from_value::<KeyCode>("?".into())
        .unwrap_err()
        .to_string();
    let names: Vec<&str> = wrong.split('`').skip(3).step_by(2).collect();
    assert!(names.len() > 180, "{wrong}");
    for name in names {
        let ours = match name {
            "SuperLeft" => "MetaLeft",
            "SuperRight" => "MetaRight",
            same => same,
        };
        match place(code(name)) {
            Some(place) => assert_eq!(place.to_string(), ours),
            None => assert!(LEFT_OUT.contains(&name), "{name} is lost"),
        }
    }
    assert!(Place::ALL.contains(&place(code("IntlRo")).unwrap()));
}

fn window(adapter: &mut Adapter, event: &WindowEvent) -> Vec<(DeviceId, EventKind)> {
    let mut out = Vec::new();
    adapter.window_event(event, Time::from_millis(5), |e: Event| {
        assert_eq!(e.at, Time::from_millis(5));
        out.push((e.device, e.what));
    });
    out
}

#[test]
fn mouse_wheel_and_focus() {
    use winit::event::MouseButton as Button;
    let mut adapter = Adapter::new();
    let click = |button, state| WindowEvent::MouseInput {
        device_id: Theirs::dummy(),
        state,
        button,
    };
    for (theirs, ours) in [
        (Button::Left, MouseButton::Left),
        (Button::Right, MouseButton::Right),
        (Button::Middle, MouseButton::Middle),
        (Button::Back, MouseButton::Back),
        (Button::Forward, MouseButton::Forward),
        (
            Button::Other(further()),
            MouseButton::from_number(8).unwrap(),
        ),
    ] {
        for (state, down) in [
            (ElementState::Pressed, true),
            (ElementState::Released, false),
        ] {
            let what = EventKind::MouseButton { button: ours, down };
            assert_eq!(window(&mut adapter, &click(theirs, state)), [(MOUSE, what)]);
        }
    }
    assert_eq!(mouse_button(Button::Other(999)), None);
    let turn = |delta| WindowEvent::MouseWheel {
        device_id: Theirs::dummy(),
        delta,
        phase: TouchPhase::Moved,
    };
    let turned = |x, y| [(MOUSE, EventKind::Scroll { x, y })];
    let lines = |x, y| turn(MouseScrollDelta::LineDelta(x, y));
    assert_eq!(window(&mut adapter, &lines(0.0, 2.0)), turned(0.0, 2.0));
    assert_eq!(window(&mut adapter, &lines(-1.0, 0.25)), turned(-1.0, 0.25));
    // Smooth scrolling comes in fractions, by the scale of the window.
    let pixels = turn(MouseScrollDelta::PixelDelta(PhysicalPosition::new(
        0.0, 25.0,
    )));
    assert_eq!(window(&mut adapter, &pixels), turned(0.0, 0.625));
    adapter.set_scale(2.0);
    adapter.set_scale(f64::NAN);
    assert_eq!(window(&mut adapter, &pixels), turned(0.0, 0.3125));
    assert_eq!(
        window(&mut adapter, &WindowEvent::Focused(false)),
        [KEYBOARD, MOUSE, TOUCH].map(|device| (device, EventKind::FocusLost))
    );
    assert_eq!(window(&mut adapter, &WindowEvent::Focused(true)), []);
    assert_eq!(window(&mut adapter, &WindowEvent::CloseRequested), []);
}

#[test]
fn raw_motion_counts_upwards() {
    let mut out = Vec::new();
    let motion = DeviceEvent::MouseMotion { delta: (3.0, 4.0) };
    let mut adapter = Adapter::new();
    adapter.device_event(Theirs::dummy(), &motion, Time::ZERO, |e| out.push(e.what));
    assert_eq!(out, [EventKind::MouseMove { x: 3.0, y: -4.0 }]);
}

/// What this system calls the eighth button.
fn further() -> u16 {
    match ButtonCounting::here(10) {
        ButtonCounting::X11 | ButtonCounting::Kernel => 12,
        ButtonCounting::Windows => 5,
        _ => 7,
    }
}

#[test]
fn further_buttons_are_counted_as_each_system_does() {
    let button = |counting, number| MouseButton::counted(counting, number).map(MouseButton::number);
    for (counting, first) in [
        (ButtonCounting::X11, 10),
        (ButtonCounting::Kernel, 0x115),
        (ButtonCounting::Windows, 3),
        (ButtonCounting::FromZero, 5),
    ] {
        assert_eq!(button(counting, first), Some(6), "{counting:?}");
        assert_eq!(button(counting, first + 2), Some(8), "{counting:?}");
        assert_eq!(button(counting, first - 1), None, "known by name");
        assert_eq!(button(counting, 0), None);
        assert_eq!(button(counting, u16::MAX), None);
    }
    if cfg!(target_os = "linux") {
        assert_eq!(ButtonCounting::here(0x117), ButtonCounting::Kernel);
        assert_eq!(ButtonCounting::here(10), ButtonCounting::X11);
    }
}

#[test]
fn a_device_that_is_gone_and_a_gap_are_told() {
    let mut adapter = Adapter::new();
    let click = WindowEvent::MouseInput {
        device_id: Theirs::dummy(),
        state: ElementState::Pressed,
        button: winit::event::MouseButton::Left,
    };
    window(&mut adapter, &click);
    let mut out = Vec::new();
    let gone = DeviceEvent::Removed;
    adapter.device_event(Theirs::dummy(), &gone, Time::ZERO, |e| out.push(e));
    assert_eq!(out, [], "nobody knows what it was");
    let motion = DeviceEvent::MouseMotion { delta: (1.0, 0.0) };
    adapter.device_event(Theirs::dummy(), &motion, Time::ZERO, |_| {});
    adapter.device_event(Theirs::dummy(), &gone, Time::ZERO, |e| out.push(e));
    assert_eq!((out[0].device, out[0].what), (MOUSE, EventKind::Unplugged));

    window(&mut adapter, &click);
    let mut out = Vec::new();
    adapter.gap(Time::from_millis(9), |e| out.push((e.device, e.what)));
    let (button, down) = (MouseButton::Left, false);
    let up = (MOUSE, EventKind::MouseButton { button, down });
    let lost = [KEYBOARD, MOUSE, TOUCH].map(|device| (device, EventKind::FocusLost));
    assert_eq!(out, [&lost[..], &[up]].concat());
}

#[test]
fn fingers_work_zones_and_sticks() {
    let mut adapter = Adapter::new();
    let (horn, rudder) = ("horn".parse().unwrap(), "rudder".parse().unwrap());
    adapter.zones.add_area(horn, [0.0, 0.0], [50.0, 50.0]);
    adapter.zones.add_stick(rudder, [200.0, 200.0], 100.0);
    let touch = |id, phase, x, y| {
        WindowEvent::Touch(Touch {
            device_id: Theirs::dummy(),
            phase,
            location: PhysicalPosition::new(x, y),
            force: None,
            id,
        })
    };
    let mut does = |id, phase, x, y| {
        let all = window(&mut adapter, &touch(id, phase, x, y));
        assert!(all.iter().all(|(device, _)| *device == TOUCH));
        all.into_iter().map(|(_, what)| what).collect::<Vec<_>>()
    };
    let pressed = |down| EventKind::Touch { name: horn, down };
    assert_eq!(does(1, TouchPhase::Started, 10.0, 10.0), [pressed(true)]);
    assert_eq!(
        does(1, TouchPhase::Moved, 300.0, 10.0),
        [],
        "it slides off and holds on"
    );
    let stick = |x, y| EventKind::TouchStick { name: rudder, x, y };
    assert_eq!(
        does(2, TouchPhase::Started, 200.0, 150.0),
        [stick(0.0, 0.5)]
    );
    assert_eq!(
        does(2, TouchPhase::Moved, 500.0, 200.0),
        [stick(1.0, 0.0)],
        "no further than full"
    );
    assert_eq!(does(2, TouchPhase::Cancelled, 0.0, 0.0), [stick(0.0, 0.0)]);
    assert_eq!(
        does(3, TouchPhase::Started, 10.0, 10.0),
        [],
        "it is down already"
    );
    assert_eq!(
        does(1, TouchPhase::Ended, 0.0, 0.0),
        [],
        "the other finger is on it"
    );
    assert_eq!(does(3, TouchPhase::Ended, 0.0, 0.0), [pressed(false)]);
    assert_eq!(does(9, TouchPhase::Started, 900.0, 900.0), []);
    assert_eq!(does(9, TouchPhase::Ended, 900.0, 900.0), []);
}

#[test]
fn the_left_mouse_button_is_a_finger_where_that_is_switched_on_and_no_mouse_then() {
    use winit::event::MouseButton as Button;
    let mut adapter = Adapter::new();
    let horn = "horn".parse().unwrap();
    adapter.zones.add_area(horn, [0.0, 0.0], [50.0, 50.0]);
    window(&mut adapter, &WindowEvent::Resized((800, 600).into()));
    assert_eq!(adapter.zones.screen(), Some([800.0, 600.0]));
    let point = |x, y| WindowEvent::CursorMoved {
        device_id: Theirs::dummy(),
        position: PhysicalPosition::new(x, y),
    };
    let click = |button, state| WindowEvent::MouseInput {
        device_id: Theirs::dummy(),
        state,
        button,
    };
    let moved = |adapter: &mut Adapter| {
        let event = DeviceEvent::MouseMotion { delta: (3.0, 1.0) };
        let mut count = 0;
        adapter.device_event(Theirs::dummy(), &event, Time::ZERO, |_| count += 1);
        count
    };
    let (down, up) = (ElementState::Pressed, ElementState::Released);
    let _ = adapter.mouse_finger.switch(true, &mut adapter.zones);
    assert_eq!(window(&mut adapter, &point(20.0, 20.0)), []);
    let touched = |down| vec![(TOUCH, EventKind::Touch { name: horn, down })];
    assert_eq!(
        window(&mut adapter, &click(Button::Left, down)),
        touched(true)
    );
    assert_eq!(moved(&mut adapter), 0);
    // The other buttons stay a mouse's.
    let right = window(&mut adapter, &click(Button::Right, down));
    assert!(matches!(
        right[..],
        [(MOUSE, EventKind::MouseButton { .. })]
    ));
    assert_eq!(
        window(&mut adapter, &click(Button::Left, up)),
        touched(false)
    );
    assert_eq!(moved(&mut adapter), 0);
    // A lost focus takes the finger off, and no mouse button with it.
    window(&mut adapter, &click(Button::Left, down));
    let lost = window(&mut adapter, &WindowEvent::Focused(false));
    assert_eq!(lost.last(), touched(false).last());
    let left = |(_, what): &(DeviceId, EventKind)| {
        matches!(
            what,
            EventKind::MouseButton {
                button: MouseButton::Left,
                ..
            }
        )
    };
    assert!(!lost.iter().any(left));
}
