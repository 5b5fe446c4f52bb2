//! Every event that gilrs can report, case by case. The events are made from their text form, since
//! gilrs lets nobody else make their codes.

#![allow(clippy::unwrap_used)]

use gilrs::{Axis, Button};
use serde_json::json;
use swap_knot::input::{HidAxis, HidButton};
use swap_knot::{DeviceId, EventKind, PadButton, Stick, Time};
use swap_knot_gilrs::{Adapter, pad_button};

/// What an event of a pad means.
fn means(
    adapter: &mut Adapter,
    pad: usize,
    event: serde_json::Value,
) -> Vec<(DeviceId, EventKind)> {
    let time = json!({ "secs_since_epoch": 0, "nanos_since_epoch": 0 });
    let event = json!({ "id": pad, "event": event, "time": time });
    let event: gilrs::Event = serde_json::from_value(event).unwrap();
    let mut out = Vec::new();
    let usb = "1209:5a01".parse().ok();
    adapter.event(&event, usb, Time::ZERO, |e| out.push((e.device, e.what)));
    out
}

/// The text form of a code, which differs from system to system.
fn code() -> serde_json::Value {
    json!({ "kind": 1, "code": 304 })
}

#[test]
fn every_button_has_a_place_but_three() {
    use Button as B;
    let all = [
        B::South,
        B::East,
        B::North,
        B::West,
        B::LeftTrigger,
        B::LeftTrigger2,
        B::RightTrigger,
        B::RightTrigger2,
        B::Select,
        B::Start,
        B::Mode,
        B::LeftThumb,
        B::RightThumb,
        B::DPadUp,
        B::DPadDown,
        B::DPadLeft,
        B::DPadRight,
    ];
    let mut places: Vec<PadButton> = all.into_iter().map(|b| pad_button(b).unwrap()).collect();
    places.sort_unstable();
    places.dedup();
    assert_eq!(places.len(), all.len());
    assert_eq!([B::C, B::Z, B::Unknown].map(pad_button), [None; 3]);
}

#[cfg(target_os = "linux")]
#[test]
fn buttons_triggers_sticks_and_plugs() {
    let mut adapter = Adapter::new();
    let pad = DeviceId(64);
    let button = |button, value| (pad, EventKind::PadButton { button, value });
    let mut does = |event| means(&mut adapter, 3, event);
    assert_eq!(
        does(json!({ "ButtonPressed": [Button::South, code()] })),
        [button(PadButton::South, 1.0)]
    );
    assert_eq!(
        does(json!({ "ButtonChanged": [Button::South, 1.0, code()] })),
        [],
        "told already"
    );
    assert_eq!(
        does(json!({ "ButtonRepeated": [Button::South, code()] })),
        []
    );
    assert_eq!(
        does(json!({ "ButtonReleased": [Button::South, code()] })),
        [button(PadButton::South, 0.0)]
    );
    let trigger = json!({ "ButtonChanged": [Button::LeftTrigger2, 0.25, code()] });
    assert_eq!(does(trigger), [button(PadButton::TriggerLeft, 0.25)]);
    assert_eq!(
        does(json!({ "ButtonPressed": [Button::LeftTrigger2, code()] })),
        []
    );
    // What has no place is an input by its number: the kernel's code 0x130 is the first.
    let hid = |number, down| {
        let button = HidButton::new(number).unwrap();
        [(pad, EventKind::HidButton { button, down })]
    };
    let unknown = |code: u32| json!({ "kind": 1, "code": code });
    assert_eq!(
        does(json!({ "ButtonPressed": [Button::C, unknown(0x132)] })),
        hid(3, true)
    );
    assert_eq!(
        does(json!({ "ButtonReleased": [Button::C, unknown(0x132)] })),
        hid(3, false)
    );
    assert_eq!(
        does(json!({ "ButtonPressed": [Button::Unknown, unknown(0x2c0)] })),
        hid(17, true)
    );
    assert_eq!(
        does(json!({ "ButtonPressed": [Button::Unknown, unknown(0x123)] })),
        hid(4, true)
    );
    assert_eq!(
        does(json!({ "ButtonChanged": [Button::C, 1.0, unknown(0x132)] })),
        []
    );
    let stick = |x, y| {
        (
            pad,
            EventKind::PadStick {
                stick: Stick::RIGHT,
                x,
                y,
            },
        )
    };
    let axis = |axis: Axis, value: f32| json!({ "AxisChanged": [axis, value, code()] });
    assert_eq!(does(axis(Axis::RightStickX, 0.5)), [stick(0.5, 0.0)]);
    assert_eq!(does(axis(Axis::RightStickY, -1.0)), [stick(0.5, -1.0)]);
    let other =
        |axis: Axis, code: u32| json!({ "AxisChanged": [axis, 0.5, { "kind": 3, "code": code }] });
    let hid = |axis| [(pad, EventKind::HidAxis { axis, value: 0.5 })];
    assert_eq!(does(other(Axis::LeftZ, 2)), hid(HidAxis::Z));
    assert_eq!(does(other(Axis::RightZ, 5)), hid(HidAxis::Rz));
    assert_eq!(does(other(Axis::Unknown, 6)), hid(HidAxis::Throttle));
    assert_eq!(
        does(other(Axis::Unknown, 0x28)),
        [],
        "no axis that the standard names"
    );
    for left_out in [Axis::DPadX, Axis::DPadY] {
        assert_eq!(does(axis(left_out, 1.0)), []);
    }
    assert_eq!(does(json!("Dropped")), [], "a filter took something out");
    let usb = "1209:5a01".parse().ok();
    assert_eq!(
        does(json!("Connected")),
        [(pad, EventKind::Plugged { usb })]
    );
    assert_eq!(does(json!("Disconnected")), [(pad, EventKind::Unplugged)]);
    // It comes back at rest, whatever its sticks did before.
    let usb = "1209:5a01".parse().ok();
    assert_eq!(
        does(json!("Connected")),
        [(pad, EventKind::Plugged { usb })]
    );
    assert_eq!(does(axis(Axis::RightStickX, 0.25)), [stick(0.25, 0.0)]);
    assert_eq!(does(json!("ForceFeedbackEffectCompleted")), []);
    // Another pad has another number, and the first keeps its own.
    let second = means(
        &mut adapter,
        7,
        json!({ "ButtonPressed": [Button::East, code()] }),
    );
    assert_eq!(second[0].0, DeviceId(65));
    let first = means(
        &mut adapter,
        3,
        json!({ "ButtonPressed": [Button::East, code()] }),
    );
    assert_eq!(first[0].0, DeviceId(64));
}
