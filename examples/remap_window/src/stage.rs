//! A small stage on which the actions visibly move something.

use eframe::egui::{Align2, Color32, FontId, Pos2, Rect, Sense, Stroke, Ui, pos2, vec2};
use swap_knot::{ActionId, Seat, Sheet, Words};

/// How far the figure walks and the barge turns in a second.
const WALK: f32 = 160.0;
const TURN: f32 = 0.9;

const WATER: Color32 = Color32::from_rgb(24, 52, 66);
const DECK: Color32 = Color32::from_rgb(120, 92, 62);
const ROPE: Color32 = Color32::from_rgb(214, 190, 140);
const FIGURE: Color32 = Color32::from_rgb(236, 232, 220);
const LIGHT: Color32 = Color32::from_rgb(255, 214, 110);
const INK: Color32 = Color32::from_rgb(225, 235, 240);

/// The barge, the figure on it, and what they are doing.
pub(crate) struct Stage {
    walk: ActionId,
    cast_off: ActionId,
    coil_rope: ActionId,
    lantern: ActionId,
    steer: ActionId,
    throttle: ActionId,
    horn: ActionId,
    /// Where the figure stands, from the middle of the deck.
    figure: [f32; 2],
    heading: f32,
    way: f32,
    moored: bool,
    coils: u32,
    lit: bool,
}

impl Stage {
    /// The stage of a sheet that declares what Slack Water's does.
    pub(crate) fn new(sheet: &Sheet) -> Option<Stage> {
        Some(Stage {
            walk: sheet.find("walk")?,
            cast_off: sheet.find("cast-off")?,
            coil_rope: sheet.find("coil-rope")?,
            lantern: sheet.find("lantern")?,
            steer: sheet.find("steer")?,
            throttle: sheet.find("throttle")?,
            horn: sheet.find("horn")?,
            figure: [0.0; 2],
            heading: 0.0,
            way: 0.0,
            moored: true,
            coils: 0,
            lit: false,
        })
    }

    /// Moves everything by one frame.
    pub(crate) fn play(&mut self, seat: &Seat, seconds: f32) {
        let [x, y] = seat.plane(self.walk);
        self.figure[0] = (self.figure[0] + x * WALK * seconds).clamp(-120.0, 120.0);
        self.figure[1] = (self.figure[1] - y * WALK * seconds).clamp(-22.0, 22.0);
        self.heading += seat.value(self.steer) * TURN * seconds;
        self.way = seat.value(self.throttle).max(self.way * 0.97);
        self.moored ^= seat.went_down(self.cast_off);
        self.lit = seat.is_down(self.lantern);
        self.coils += u32::from(seat.went_down(self.coil_rope));
    }

    /// Whether the lantern's light or the water's way still has to be drawn anew.
    pub(crate) fn moves(&self) -> bool {
        self.way > 0.01
    }

    pub(crate) fn draw(&self, ui: &mut Ui, seat: &Seat, words: &Words) {
        let size = vec2(ui.available_width(), ui.available_height().max(120.0));
        let (response, painter) = ui.allocate_painter(size, Sense::hover());
        let area = response.rect;
        painter.rect_filled(area, 6.0, WATER);
        let middle = pos2(area.center().x, area.center().y + 4.0);
        let turn = self.heading.sin() * 0.25;
        let at = |x: f32, y: f32| Pos2::new(middle.x + x, middle.y + y + x * turn * 0.4);

        let hull = [
            (-150.0, -34.0),
            (130.0, -34.0),
            (165.0, 0.0),
            (130.0, 34.0),
            (-150.0, 34.0),
        ];
        let hull: Vec<Pos2> = hull.into_iter().map(|(x, y)| at(x, y)).collect();
        let edge = Stroke::new(2.0, Color32::from_rgb(70, 52, 34));
        painter.add(eframe::egui::Shape::convex_polygon(hull, DECK, edge));
        if self.moored {
            let quay = Rect::from_min_max(area.left_top(), pos2(area.right(), area.top() + 14.0));
            painter.rect_filled(quay, 0.0, Color32::from_rgb(88, 92, 96));
            painter.line_segment(
                [at(-110.0, -34.0), pos2(middle.x - 140.0, quay.bottom())],
                Stroke::new(3.0, ROPE),
            );
        }
        for wave in 0..4 {
            let behind = 160.0 + wave as f32 * 22.0;
            let stroke = Stroke::new(2.0 * self.way, INK.gamma_multiply(self.way));
            painter.line_segment([at(-behind, -18.0), at(-behind - 10.0, 18.0)], stroke);
        }
        for coil in 0..self.coils.min(6) {
            let spot = at(-120.0 + coil as f32 * 14.0, 18.0);
            painter.circle_stroke(spot, 6.0, Stroke::new(2.5, ROPE));
        }
        if self.lit {
            painter.circle_filled(at(110.0, -14.0), 26.0, LIGHT.gamma_multiply(0.25));
        }
        painter.circle_filled(
            at(110.0, -14.0),
            6.0,
            if self.lit { LIGHT } else { edge.color },
        );
        painter.circle_filled(at(self.figure[0], self.figure[1]), 9.0, FIGURE);
        if seat.is_down(self.horn) {
            for ring in 1..4 {
                painter.circle_stroke(at(140.0, 0.0), 14.0 * ring as f32, Stroke::new(2.0, INK));
            }
        }
        let doing = self.doing(seat, words);
        painter.text(
            area.left_bottom() + vec2(12.0, -10.0),
            Align2::LEFT_BOTTOM,
            doing,
            FontId::proportional(15.0),
            INK,
        );
    }

    /// What is on just now, in words.
    pub(crate) fn doing(&self, seat: &Seat, words: &Words) -> String {
        let sheet = seat.rig().sheet();
        let on: Vec<String> = (sheet.actions())
            .filter(|(id, _)| seat.is_down(*id))
            .map(|(id, _)| words.row_title(sheet, id.into()))
            .collect();
        if on.is_empty() {
            "…".to_owned()
        } else {
            on.join(", ")
        }
    }
}
