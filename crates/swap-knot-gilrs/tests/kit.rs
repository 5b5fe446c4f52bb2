//! The cases that every adapter has to pass, as far as they are about pads.

#![allow(clippy::unwrap_used)]
#![cfg(target_os = "linux")]

use gilrs::{Axis, Button};
use serde_json::json;
use swap_knot::input::TouchZones;
use swap_knot::kit::{self, Engine, Said};
use swap_knot::{Event, PadButton, Stick, Time};
use swap_knot_gilrs::Adapter;

#[derive(Default)]
struct Pads(Adapter, TouchZones);

impl Engine for Pads {
    fn say(&mut self, said: &Said, at: Time) -> Option<Vec<Event>> {
        let code = json!({ "kind": 1, "code": 304 });
        let (pad, event) = match *said {
            Said::PadCame { pad } => (pad, json!("Connected")),
            Said::PadGone { pad } => (pad, json!("Disconnected")),
            Said::PadButton { pad, button, value } => {
                let (button, is_trigger) = match button {
                    PadButton::South => (Button::South, false),
                    PadButton::East => (Button::East, false),
                    PadButton::TriggerLeft => (Button::LeftTrigger2, true),
                    _ => return None,
                };
                let event = match (is_trigger, value > 0.5) {
                    // A text has no number for what is none; gilrs's own filters let none through.
                    (true, _) if !value.is_finite() => return Some(Vec::new()),
                    (true, _) => json!({ "ButtonChanged": [button, value, code] }),
                    (false, true) => json!({ "ButtonPressed": [button, code] }),
                    (false, false) => json!({ "ButtonReleased": [button, code] }),
                };
                (pad, event)
            }
            Said::PadAxis {
                pad,
                stick: Stick::LEFT,
                axis,
                value,
            } => {
                if !value.is_finite() {
                    return Some(Vec::new());
                }
                let axis = [Axis::LeftStickX, Axis::LeftStickY][axis];
                (pad, json!({ "AxisChanged": [axis, value, code] }))
            }
            // Pads are read whoever has the focus.
            Said::FocusLost => return Some(Vec::new()),
            _ => return None,
        };
        let time = json!({ "secs_since_epoch": 0, "nanos_since_epoch": 0 });
        let event = json!({ "id": pad, "event": event, "time": time });
        let event: gilrs::Event = serde_json::from_value(event).unwrap();
        let mut out = Vec::new();
        self.0.event(&event, None, at, |e| out.push(e));
        Some(out)
    }

    fn zones(&mut self) -> &mut TouchZones {
        &mut self.1
    }
}

#[test]
fn the_adapter_passes_the_kit() {
    let report = kit::check(Pads::default);
    assert!(report.failed.is_empty(), "{report}");
    let pads = [
        "buttons and triggers of a pad",
        "one axis of a stick at a time",
        "a pad pulled out and plugged in again",
        "a lost focus leaves the pads alone",
        "two pads hold one button",
        "numbers that are none",
    ];
    assert_eq!(report.passed, pads);
}
