//! On-screen buttons and sticks: laid out for the window, shown once a finger has touched it.

use eframe::egui;
use swap_knot::{Controls, DeviceId, DeviceKind, Event, MouseFinger, Time, TouchName, TouchZones};
use swap_knot_egui::{Look, fingers, touch_controls};

/// The touch screen, beside the keyboards and mice of a window.
const TOUCH: DeviceId = DeviceId(2);

/// What of the screen is touched.
#[derive(Default)]
pub(crate) struct Touch {
    zones: TouchZones,
    mouse: MouseFinger,
    /// The size that the zones are laid out for.
    laid: Option<[f32; 2]>,
    /// Whether they are shown also where nobody has touched the screen.
    always: bool,
}

impl Touch {
    /// Shown always, or only to players with a finger on the screen; with the mouse as a finger, or not.
    pub(crate) fn new(with: Option<&str>, always: bool) -> Touch {
        let mut touch = Touch {
            always,
            ..Touch::default()
        };
        let _ = touch.mouse.switch(with == Some("mouse"), &mut touch.zones);
        touch
    }

    /// Whether an event of the mouse is one of a finger, and none of the mouse.
    pub(crate) fn takes(&self, event: &Event) -> bool {
        self.mouse.takes(event)
    }

    /// Feeds what the fingers do, where the on-screen buttons are there for them.
    pub(crate) fn take_in(&mut self, ctx: &egui::Context, controls: &mut Controls, now: Time) {
        let size = ctx.content_rect().size();
        let size = [size.x, size.y];
        let mut told = Vec::new();
        if self.laid.replace(size) != Some(size) {
            told.extend(self.zones.clear());
            lay_out(&mut self.zones, size);
        }
        if controls.screen().is_none_or(|screen| screen.is_hearing()) {
            fingers(ctx, &mut self.zones, &mut self.mouse, |what| {
                told.push(what)
            });
        } else {
            told.extend(self.zones.lift());
        }
        for what in told {
            let (at, device) = (now, TOUCH);
            controls.feed(&Event { at, device, what });
        }
        controls.arrange(&mut self.zones);
    }

    /// Where those are that are there for fingers.
    pub(crate) fn places(&self) -> impl Iterator<Item = (TouchName, egui::Rect)> {
        let there = self.zones.zones().filter(|zone| !zone.hidden);
        there.map(|zone| {
            let rect = egui::Rect::from_min_size(zone.min.into(), zone.size.into());
            (zone.name, rect)
        })
    }

    /// Draws them over everything, for who plays with fingers.
    pub(crate) fn draw(&self, ctx: &egui::Context, controls: &Controls) {
        let is_in_use = controls.seat().device_kind() == DeviceKind::Touch;
        let is_open = controls.screen().is_some_and(|screen| !screen.is_hearing());
        if (self.always || is_in_use) && !is_open {
            touch_controls(ctx, &controls.touch_view(&self.zones), &Look::DARK);
        }
    }
}

/// Where the thumbs are: a stick on the left, buttons on the right, the wheel at both sides.
fn lay_out(zones: &mut TouchZones, [wide, high]: [f32; 2]) {
    let unit = (wide / 12.0).min(high / 7.0);
    let mut area = |name: &str, [x, y]: [f32; 2], [w, h]: [f32; 2]| {
        if let Ok(name) = name.parse::<TouchName>() {
            zones.add_area(name, [x, y], [w * unit, h * unit]);
        }
    };
    let (right, bottom) = (wide - 2.0 * unit, high - 1.8 * unit);
    area("rope", [right, bottom], [1.6, 1.4]);
    area("coil", [right - 1.9 * unit, bottom], [1.6, 1.4]);
    area("port", [0.4 * unit, bottom], [1.8, 1.4]);
    area("starboard", [2.4 * unit, bottom], [1.8, 1.4]);
    area("throttle", [right, bottom - 2.4 * unit], [1.6, 2.0]);
    area("horn", [right - 1.9 * unit, bottom], [1.6, 1.4]);
    if let Ok(name) = "stick".parse() {
        zones.add_stick(name, [1.8 * unit, high - 1.8 * unit], 1.4 * unit);
    }
}
