//! What happens on devices, in a word each.

use swap_knot::input::{HidAxis, HidButton, TouchName};
use swap_knot::{EventKind, MouseButton, PadButton, Place, Stick};

pub const fn key(place: Place, down: bool) -> EventKind {
    let text = None;
    EventKind::Key { place, down, text }
}

pub const fn click(button: MouseButton, down: bool) -> EventKind {
    EventKind::MouseButton { button, down }
}

pub const fn pad(button: PadButton, value: f32) -> EventKind {
    EventKind::PadButton { button, value }
}

pub const fn stick(stick: Stick, x: f32, y: f32) -> EventKind {
    EventKind::PadStick { stick, x, y }
}

pub const fn hid(button: HidButton, down: bool) -> EventKind {
    EventKind::HidButton { button, down }
}

pub const fn axis(axis: HidAxis, value: f32) -> EventKind {
    EventKind::HidAxis { axis, value }
}

pub const fn touch(name: TouchName, down: bool) -> EventKind {
    EventKind::Touch { name, down }
}

pub const fn touch_stick(name: TouchName, x: f32, y: f32) -> EventKind {
    EventKind::TouchStick { name, x, y }
}
