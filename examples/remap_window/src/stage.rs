//! A small stage on which the actions visibly move something.

use eframe::egui::{Color32, Sense, Stroke, Ui, vec2};
use swap_knot::{Seat, input::TouchZones};

use crate::controls::Action;

const WATER: Color32 = Color32::from_rgb(24, 52, 66);
const DECK: Color32 = Color32::from_rgb(120, 92, 62);
const BRIGHT: Color32 = Color32::from_rgb(255, 226, 150);

/// The barge, the figure on it, and what they are doing.
#[derive(Default)]
pub(crate) struct Stage {
    figure: [f32; 2],
    heading: f32,
    way: f32,
    cast_off: bool,
    coils: u32,
}

impl Stage {
    /// Moves everything by one frame.
    pub(crate) fn play(&mut self, seat: &Seat, seconds: f32) {
        let [x, y] = seat.plane(Action::Walk);
        self.figure[0] = (self.figure[0] + x * 160.0 * seconds).clamp(-120.0, 120.0);
        self.figure[1] = (self.figure[1] - y * 160.0 * seconds).clamp(-22.0, 22.0);
        self.heading += seat.value(Action::Steer) * 0.9 * seconds;
        self.way = seat.value(Action::Throttle);
        self.cast_off ^= seat.went_down(Action::CastOff);
        self.coils += u32::from(seat.went_down(Action::CoilRope));
    }

    pub(crate) fn draw(&self, ui: &mut Ui, seat: &Seat) {
        let (response, painter) = ui.allocate_painter(ui.available_size(), Sense::hover());
        let (water, middle) = (response.rect, response.rect.center());
        painter.rect_filled(water, 6.0, WATER);
        let turn = self.heading.sin() * 0.1;
        let at = |x: f32, y: f32| middle + vec2(x + 60.0 * self.way, y + x * turn) * 2.0;
        let line = |from, to, color, wide| {
            painter.line_segment([from, to], Stroke::new(wide, color));
        };
        // The hull, ahead by its way; the quay, and the rope to it.
        line(at(-150.0, 0.0), at(150.0, 0.0), DECK, 136.0);
        if !self.cast_off {
            line(water.left_top(), water.right_top(), Color32::GRAY, 36.0);
            line(at(-110.0, -34.0), water.center_top(), BRIGHT, 4.0);
        }
        for coil in 0..self.coils.min(6) {
            let spot = at(-120.0 + coil as f32 * 14.0, 18.0);
            painter.circle_stroke(spot, 10.0, Stroke::new(3.0, BRIGHT));
        }
        let light = 8.0 + 22.0 * f32::from(u8::from(seat.is_down(Action::Lantern)));
        painter.circle_filled(at(110.0, -14.0), light, BRIGHT.gamma_multiply(0.6));
        painter.circle_filled(at(self.figure[0], self.figure[1]), 16.0, Color32::WHITE);
        if seat.is_down(Action::Horn) {
            painter.circle_stroke(at(140.0, 0.0), 60.0, Stroke::new(3.0, Color32::WHITE));
        }
    }
}

/// Where the thumbs are: a stick on the left, buttons on the right.
pub(crate) fn lay_out(zones: &mut TouchZones, [wide, high]: [f32; 2]) {
    let unit = (wide / 12.0).min(high / 7.0);
    let (right, bottom) = (wide - 2.0 * unit, high - 1.8 * unit);
    let mut area = |name: &str, at, [w, h]: [f32; 2]| {
        if let Ok(name) = name.parse() {
            zones.add_area(name, at, [w * unit, h * unit]);
        }
    };
    area("rope", [right, bottom], [1.6, 1.4]);
    area("coil", [right - 1.9 * unit, bottom], [1.6, 1.4]);
    area("horn", [right - 1.9 * unit, bottom], [1.6, 1.4]);
    area("throttle", [right, bottom - 2.4 * unit], [1.6, 2.0]);
    area("port", [0.4 * unit, bottom], [1.8, 1.4]);
    area("starboard", [2.4 * unit, bottom], [1.8, 1.4]);
    if let Ok(name) = "stick".parse() {
        zones.add_stick(name, [1.8 * unit, high - 1.8 * unit], 1.4 * unit);
    }
}
