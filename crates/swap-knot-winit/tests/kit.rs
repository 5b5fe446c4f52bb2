//! The cases that every adapter has to pass. What winit lets nobody else make, events of keys, is
//! tried with a real keyboard by the window example.

#![allow(clippy::unwrap_used)]

use swap_knot::input::TouchZones;
use swap_knot::kit::{self, Engine, Said};
use swap_knot::{Event, MouseButton, Time};
use swap_knot_winit::Adapter;
use winit::dpi::PhysicalPosition;
use winit::event::{
    DeviceEvent, DeviceId, ElementState, MouseScrollDelta, Touch, TouchPhase, WindowEvent,
};

struct Winit(Adapter);

impl Engine for Winit {
    fn say(&mut self, said: &Said, at: Time) -> Option<Vec<Event>> {
        let mut out = Vec::new();
        let device_id = DeviceId::dummy();
        let event = match *said {
            Said::Mouse { button, down } => WindowEvent::MouseInput {
                device_id,
                state: match down {
                    true => ElementState::Pressed,
                    false => ElementState::Released,
                },
                button: match button {
                    MouseButton::Left => winit::event::MouseButton::Left,
                    MouseButton::Back => winit::event::MouseButton::Back,
                    MouseButton::Forward => winit::event::MouseButton::Forward,
                    _ => return None,
                },
            },
            Said::Motion { x, y } => {
                let delta = (f64::from(x), f64::from(-y));
                let event = DeviceEvent::MouseMotion { delta };
                let feed = |e| out.push(e);
                self.0.device_event(device_id, &event, at, feed);
                return Some(out);
            }
            Said::Wheel { notches } => WindowEvent::MouseWheel {
                device_id,
                delta: MouseScrollDelta::LineDelta(0.0, notches),
                phase: TouchPhase::Moved,
            },
            Said::FocusLost => WindowEvent::Focused(false),
            Said::FocusBack { holding: None } => WindowEvent::Focused(true),
            Said::Gap => {
                self.0.gap(at, |e| out.push(e));
                return Some(out);
            }
            Said::Finger { finger, at, was } => {
                let [x, y] = at.unwrap_or_default();
                WindowEvent::Touch(Touch {
                    device_id,
                    phase: match (was, at) {
                        (false, _) => TouchPhase::Started,
                        (true, Some(_)) => TouchPhase::Moved,
                        (true, None) => TouchPhase::Ended,
                    },
                    location: PhysicalPosition::new(f64::from(x), f64::from(y)),
                    force: None,
                    id: finger,
                })
            }
            _ => return None,
        };
        self.0.window_event(&event, at, |e| out.push(e));
        Some(out)
    }

    fn zones(&mut self) -> &mut TouchZones {
        &mut self.0.zones
    }
}

#[test]
fn the_adapter_passes_the_kit() {
    let report = kit::check(|| Winit(Adapter::new()));
    assert!(report.failed.is_empty(), "{report}");
    let keys_and_pads = [
        "a key goes down and up",
        "a key that the system repeats",
        "several things within one frame",
        "a key held over a lost focus",
        "a lost focus is no release",
        "a key that comes up while nobody listens",
        "buttons and triggers of a pad",
        "one axis of a stick at a time",
        "a pad pulled out and plugged in again",
        "a lost focus leaves the pads alone",
        "two pads hold one button",
        "numbers that are none",
    ];
    assert_eq!(report.left_out, keys_and_pads);
}
