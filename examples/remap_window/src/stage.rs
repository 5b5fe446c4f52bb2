//! A harbour in flat shapes, all of it moved by what the actions say.

use eframe::egui::{Color32, Painter, Pos2, Rect, Sense, Shape, Stroke, Ui, vec2};
use swap_knot::play::TurnUnits;
use swap_knot::{Seat, input::TouchZones};

use crate::controls::Action;

/// The picture is drawn as if it were so wide and high.
const WIDE: f32 = 1280.0;
const HIGH: f32 = 800.0;

const SKY: [u32; 2] = [0xb9cbc4, 0xc9d4c6];
const SUN: u32 = 0xf0dfb4;
const HILLS: [u32; 2] = [0x8fa8a1, 0x76918b];
const QUAY: [u32; 2] = [0x5b5a52, 0x77756a];
const WATER: [u32; 4] = [0x5e8786, 0x47706f, 0x375c5e, 0x2a494c];
const HULL: [u32; 3] = [0x7a3b2e, 0xd8cdb4, 0x4c2620];
const HOUSE: u32 = 0xe4dac2;
const STEEL: u32 = 0x35525a;
const DARK: u32 = 0x2f3b40;
const LIGHT: u32 = 0xf4d98b;
const CRATES: [u32; 2] = [0xb98b4e, 0x8e6a3a];
const COAT: u32 = 0xc78a2d;
const PAPER: [u32; 2] = [0xede3c8, 0xb8cfc9];

/// The barge, the figure on it, and what they are doing.
#[derive(Default)]
pub(crate) struct Stage {
    figure: [f32; 2],
    heading: f32,
    way: f32,
    /// How far the barge has come, and how the water moves past it.
    gone: f32,
    cast_off: bool,
    coils: u32,
    /// Where the crane's jib stands, and how far its hook is down, each from -1 to 1.
    swing: f32,
    hoist: f32,
    chart: [f32; 2],
    zoom: f32,
}

impl Stage {
    /// Moves everything by one frame.
    pub(crate) fn play(&mut self, seat: &Seat, seconds: f32) {
        let [x, y] = seat.plane(Action::Walk);
        let pace = if seat.is_down(Action::Hurry) {
            300.0
        } else {
            160.0
        };
        self.figure[0] = (self.figure[0] + x * pace * seconds).clamp(-130.0, 320.0);
        self.figure[1] = (self.figure[1] - y * 60.0 * seconds).clamp(-14.0, 8.0);
        self.heading += seat.value(Action::Steer) * 0.9 * seconds;
        self.way = seat.value(Action::Throttle);
        self.gone += self.way * 120.0 * seconds * f32::from(u8::from(self.cast_off));
        self.cast_off ^= seat.went_down(Action::CastOff);
        self.coils += u32::from(seat.went_down(Action::CoilRope));
        let fine = if seat.is_down(Action::Fine) {
            0.25
        } else {
            1.0
        };
        let crane = |at: f32, by: f32| (at + by * fine * seconds).clamp(-1.0, 1.0);
        self.swing = crane(self.swing, seat.value(Action::Swing));
        self.hoist = crane(self.hoist, -seat.value(Action::Hoist));
        let units = TurnUnits {
            a_count: 0.4,
            a_second: 90.0,
        };
        let [x, y, _] = seat.turn(Action::Pan, units);
        self.chart = [self.chart[0] + x, self.chart[1] + y].map(|at| at.clamp(-60.0, 60.0));
        self.zoom = (self.zoom + seat.value(Action::Zoom) * seconds).clamp(-0.5, 1.0);
    }

    pub(crate) fn draw(&self, ui: &mut Ui, seat: &Seat) {
        let (response, painter) = ui.allocate_painter(ui.available_size(), Sense::hover());
        let pen = Pen {
            painter,
            all: response.rect,
        };
        self.land(&pen);
        self.crane(&pen);
        pen.wave(424.0, -10.0 - self.gone * 0.4, WATER[0]);
        self.barge(&pen, seat);
        for (n, (y, slow)) in [(488.0, 0.6), (548.0, 0.8), (620.0, 1.0)]
            .into_iter()
            .enumerate()
        {
            pen.wave(y, -20.0 - self.gone * slow, WATER[n + 1]);
        }
        self.map(&pen, seat);
    }

    fn land(&self, pen: &Pen) {
        pen.rect([0.0, 0.0, WIDE, HIGH], 0.0, SKY[0]);
        pen.rect([0.0, 250.0, WIDE, 200.0], 0.0, SKY[1]);
        pen.circle([985.0, 232.0], 58.0, SUN);
        let far = [
            330.0, 292.0, 312.0, 276.0, 318.0, 300.0, 326.0, 296.0, 322.0, 288.0,
        ];
        pen.hills(&far, HILLS[0]);
        pen.hills(
            &[
                360.0, 360.0, 352.0, 360.0, 366.0, 362.0, 356.0, 360.0, 366.0,
            ],
            HILLS[1],
        );
        pen.rect([1010.0, 366.0, 270.0, 160.0], 0.0, QUAY[0]);
        pen.rect([1010.0, 366.0, 270.0, 14.0], 0.0, QUAY[1]);
    }

    /// The crane on the quay, with what hangs on it.
    fn crane(&self, pen: &Pen) {
        for [top, foot] in [[1134.0, 1120.0], [1164.0, 1172.0]] {
            pen.shape(
                &[
                    [foot, 366.0],
                    [top, 210.0],
                    [top + 16.0, 210.0],
                    [foot + 20.0, 366.0],
                ],
                DARK,
            );
        }
        let tip = [870.0 + self.swing * 90.0, 96.0 + self.swing.abs() * 26.0];
        pen.shape(
            &[
                [1120.0, 176.0],
                tip,
                [tip[0], tip[1] + 14.0],
                [1120.0, 206.0],
            ],
            DARK,
        );
        pen.rect([1112.0, 160.0, 92.0, 60.0], 6.0, DARK);
        pen.rect([1124.0, 172.0, 30.0, 24.0], 3.0, LIGHT);
        let hook = 300.0 + self.hoist * 110.0;
        pen.line(tip, [tip[0], hook], 3.0, DARK);
        let [x, y] = [tip[0], hook];
        pen.shape(
            &[
                [x - 14.0, y + 16.0],
                [x - 10.0, y],
                [x + 10.0, y],
                [x + 14.0, y + 16.0],
            ],
            DARK,
        );
        let load = [
            [x - 20.0, y + 16.0],
            [x + 20.0, y + 16.0],
            [x + 32.0, y + 48.0],
            [x - 32.0, y + 48.0],
        ];
        pen.shape(&load, 0xa4553b);
    }

    fn barge(&self, pen: &Pen, seat: &Seat) {
        let nod = (self.gone / 40.0).sin() * 3.0 * self.way;
        let at = |x: f32, y: f32| [250.0 + x + self.way * 30.0, y + nod];
        let rect = |[x, y, w, h]: [f32; 4], round, color| {
            let [x, y] = at(x, y);
            pen.rect([x, y, w, h], round, color);
        };
        if !self.cast_off {
            let bollard = [1030.0, 372.0];
            pen.line(
                at(520.0, 416.0),
                [780.0 + self.way * 30.0, 470.0],
                4.0,
                HOUSE,
            );
            pen.line([780.0 + self.way * 30.0, 470.0], bollard, 4.0, HOUSE);
        }
        pen.shape(
            &[
                at(-70.0, 420.0),
                at(560.0, 420.0),
                at(530.0, 500.0),
                at(-40.0, 500.0),
            ],
            HULL[0],
        );
        pen.shape(
            &[
                at(-70.0, 420.0),
                at(560.0, 420.0),
                at(555.0, 434.0),
                at(-65.0, 434.0),
            ],
            HULL[1],
        );
        pen.shape(
            &[
                at(-52.0, 470.0),
                at(541.0, 470.0),
                at(530.0, 500.0),
                at(-40.0, 500.0),
            ],
            HULL[2],
        );
        let is_lit = seat.is_down(Action::Lantern);
        let lamp = if is_lit { LIGHT } else { STEEL };
        rect([-30.0, 330.0, 128.0, 90.0], 6.0, HOUSE);
        rect([-42.0, 318.0, 152.0, 16.0], 5.0, STEEL);
        rect([-14.0, 346.0, 40.0, 32.0], 4.0, STEEL);
        rect([42.0, 346.0, 40.0, 32.0], 4.0, lamp);
        rect([20.0, 262.0, 10.0, 58.0], 0.0, STEEL);
        if is_lit {
            pen.glow(at(25.0, 258.0), 70.0, LIGHT);
        }
        rect([12.0, 250.0, 26.0, 16.0], 4.0, lamp);
        // The derrick, and the cargo.
        rect([190.0, 340.0, 22.0, 80.0], 0.0, STEEL);
        rect([176.0, 404.0, 50.0, 16.0], 3.0, STEEL);
        pen.line(at(202.0, 356.0), at(422.0, 240.0), 13.0, STEEL);
        pen.line(at(420.0, 240.0), at(420.0, 352.0), 3.0, STEEL);
        rect([300.0, 384.0, 74.0, 36.0], 0.0, CRATES[0]);
        rect([380.0, 368.0, 52.0, 52.0], 0.0, CRATES[1]);
        for coil in 0..self.coils.min(6) {
            let [x, y] = at(450.0 + coil as f32 * 12.0, 412.0);
            pen.ring([x, y], 8.0, 3.0, HOUSE);
        }
        let [x, y] = [140.0 + self.figure[0], self.figure[1]];
        let feet = [
            [x - 17.0, y + 420.0],
            [x - 12.0, y + 376.0],
            [x + 12.0, y + 376.0],
            [x + 17.0, y + 420.0],
        ];
        pen.shape(&feet.map(|[x, y]| at(x, y)), COAT);
        pen.circle(at(x, y + 362.0), 10.0, 0x2b2320);
        if seat.is_down(Action::Horn) {
            for far in [40.0, 62.0, 84.0] {
                pen.ring(at(25.0, 258.0), far, 3.0, HOUSE);
            }
        }
    }

    /// The chart, with the barge's course on it.
    fn map(&self, pen: &Pen, seat: &Seat) {
        pen.rect([24.0, 84.0, 236.0, 168.0], 8.0, PAPER[0]);
        pen.frame([24.0, 84.0, 236.0, 168.0], 8.0, STEEL);
        let far = 1.0 + self.zoom * 0.5;
        let [dx, dy] = self.chart;
        let at = |x: f32, y: f32| {
            let [x, y] = [142.0 + x * far + dx, 178.0 + y * far - dy];
            [x.clamp(34.0, 250.0), y.clamp(94.0, 242.0)]
        };
        let shore =
            [[-90.0, 20.0], [-40.0, -6.0], [20.0, 2.0], [90.0, -30.0]].map(|[x, y]| at(x, y));
        pen.below(&shore, 242.0, PAPER[1]);
        let (sin, cos) = (self.heading.sin(), self.heading.cos());
        let turned = |x: f32, y: f32| [142.0 + x * cos - y * sin, 200.0 + x * sin + y * cos];
        let size = if seat.is_down(Action::MapTable) {
            2.0
        } else {
            1.0
        };
        let arrow =
            [[-8.0, -6.0], [10.0, 0.0], [-8.0, 6.0]].map(|[x, y]| turned(x * size, y * size));
        pen.shape(&arrow, HULL[0]);
        pen.ring([64.0, 124.0], 18.0, 2.0, STEEL);
        pen.shape(&[[64.0, 100.0], [69.0, 122.0], [59.0, 122.0]], HULL[0]);
    }
}

/// Draws in the picture's own measure, whatever the size of the window.
struct Pen {
    painter: Painter,
    all: Rect,
}

fn rgb(hex: u32) -> Color32 {
    let [_, r, g, b] = hex.to_be_bytes();
    Color32::from_rgb(r, g, b)
}

impl Pen {
    fn at(&self, [x, y]: [f32; 2]) -> Pos2 {
        let part = vec2(x / WIDE, y / HIGH);
        self.all.min + part * self.all.size()
    }

    fn scale(&self) -> f32 {
        (self.all.width() / WIDE).min(self.all.height() / HIGH)
    }

    fn area(&self, [x, y, w, h]: [f32; 4]) -> Rect {
        Rect::from_two_pos(self.at([x, y]), self.at([x + w, y + h]))
    }

    fn rect(&self, area: [f32; 4], round: f32, color: u32) {
        let (rect, round) = (self.area(area), round * self.scale());
        self.painter.rect_filled(rect, round, rgb(color));
    }

    fn frame(&self, area: [f32; 4], round: f32, color: u32) {
        let (rect, round) = (self.area(area), round * self.scale());
        let stroke = Stroke::new(3.0 * self.scale(), rgb(color));
        let kind = eframe::egui::StrokeKind::Inside;
        self.painter.rect_stroke(rect, round, stroke, kind);
    }

    fn circle(&self, at: [f32; 2], radius: f32, color: u32) {
        self.painter
            .circle_filled(self.at(at), radius * self.scale(), rgb(color));
    }

    fn glow(&self, at: [f32; 2], radius: f32, color: u32) {
        let faint = rgb(color).gamma_multiply(0.25);
        self.painter
            .circle_filled(self.at(at), radius * self.scale(), faint);
    }

    fn ring(&self, at: [f32; 2], radius: f32, wide: f32, color: u32) {
        let stroke = Stroke::new(wide * self.scale(), rgb(color));
        self.painter
            .circle_stroke(self.at(at), radius * self.scale(), stroke);
    }

    fn line(&self, from: [f32; 2], to: [f32; 2], wide: f32, color: u32) {
        let stroke = Stroke::new(wide * self.scale(), rgb(color));
        self.painter
            .line_segment([self.at(from), self.at(to)], stroke);
    }

    /// A shape without a corner that goes inwards.
    fn shape(&self, corners: &[[f32; 2]], color: u32) {
        let corners = corners.iter().map(|at| self.at(*at)).collect();
        let shape = Shape::convex_polygon(corners, rgb(color), Stroke::NONE);
        self.painter.add(shape);
    }

    /// All that lies below a line and above a height.
    fn below(&self, line: &[[f32; 2]], down_to: f32, color: u32) {
        for pair in line.windows(2) {
            // A little over each other, so that no seam shows.
            let [a, b] = [pair[0], [pair[1][0] + 0.7, pair[1][1]]];
            self.shape(&[a, b, [b[0], down_to], [a[0], down_to]], color);
        }
    }

    fn hills(&self, heights: &[f32], color: u32) {
        let step = WIDE / (heights.len() - 1) as f32;
        let line: Vec<[f32; 2]> = (heights.iter().enumerate())
            .map(|(n, y)| [n as f32 * step, *y])
            .collect();
        self.below(&line, 440.0, color);
    }

    fn wave(&self, y: f32, offset: f32, color: u32) {
        let at = |n: i32| {
            let x = n as f32 * 10.0;
            [
                x,
                y - 8.0 * ((x - offset) / 40.0 * std::f32::consts::PI).sin(),
            ]
        };
        let line: Vec<[f32; 2]> = (0..=128).map(at).collect();
        self.below(&line, HIGH, color);
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
