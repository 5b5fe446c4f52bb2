//! The player's pad: which parts do something, which are down, and where its sticks are.

use egui::{
    Align2, CornerRadius, FontId, Id, Rect, Response, Sense, Stroke, StrokeKind, Ui, pos2, vec2,
};
use swap_knot::Input;
use swap_knot::screen::{PadPartView, PadView, Spot, Target};

use crate::look::size;
use crate::pen::{Pen, in_sight};

/// How large a unit of the pad is at most, in points.
const LARGEST: f32 = 3.1;
/// How much of the height there is it takes at most: rows have to be seen below it.
const SHARE: f32 = 0.55;
/// How far a stick is moved in its place, in units of the pad.
const WAY: f32 = 3.0;

/// Draws the pad as large as there is room for. What its parts do is told by the rows below it, so that
/// a screen reader hears those and not the picture.
pub(crate) fn draw(pen: &mut Pen<'_>, ui: &mut Ui, pad: &PadView, height: f32) {
    draw_pad(pen, ui, pad, height, true);
}

/// The same where something of it is asked for and nothing of it can be chosen.
pub(crate) fn show(pen: &mut Pen<'_>, ui: &mut Ui, pad: &PadView, height: f32) {
    draw_pad(pen, ui, pad, height, false);
}

fn draw_pad(pen: &mut Pen<'_>, ui: &mut Ui, pad: &PadView, height: f32, is_chosen: bool) {
    let [wide, high] = pad.size;
    let room = (ui.available_width() / wide).min(height * SHARE / high);
    let unit = room.clamp(0.8, LARGEST);
    ui.add_space(size::GAP);
    let (_, all) = ui.allocate_space(vec2(ui.available_width(), high * unit));
    let corner = pos2(all.center().x - wide * unit / 2.0, all.top());
    let place =
        |[x, y, w, h]: [f32; 4]| Rect::from_min_size(corner + vec2(x, y) * unit, vec2(w, h) * unit);
    let look = pen.look;
    // The edge of the whole first, so that what lies over each other has one edge around it.
    for (grow, fill) in [(1.0, look.edge), (0.0, look.raised)] {
        for [x, y, w, h, round] in &pad.body {
            let rect = place([*x, *y, *w, *h]).expand(grow * look.line.max(1.5));
            ui.painter()
                .rect_filled(rect, rounded(round * unit + grow), fill);
        }
    }
    for part in &pad.parts {
        let rect = place(part.rect);
        let response = is_chosen.then(|| {
            let id = Id::unique(("swap-knot pad", part.spot));
            ui.interact(rect, id, Sense::click())
        });
        if response.as_ref().is_some_and(Response::contains_pointer) {
            pen.hover = Some(part.spot);
        }
        if is_chosen {
            let target = Target::spot(part.spot, in_sight(ui, rect));
            pen.targets.push(target);
        }
        let is_pointed = response.is_some_and(|r| r.hovered());
        pen.part(ui, part, rect, unit, is_pointed);
    }
}

fn rounded(by: f32) -> CornerRadius {
    CornerRadius::same(by.clamp(0.0, 255.0) as u8)
}

impl Pen<'_> {
    fn part(&self, ui: &Ui, part: &PadPartView, rect: Rect, unit: f32, is_pointed: bool) {
        let look = self.look;
        let [x, y] = part.at;
        let is_stick = matches!(part.spot, Spot::Part(Input::PadStick(_)));
        let moved = match is_stick {
            true => rect.translate(vec2(x, -y) * WAY * unit),
            false => rect,
        };
        let round = rounded(part.round * unit);
        if is_stick {
            // The hole that it moves in.
            let hole = Stroke::new(look.line, look.edge);
            let rim = rect.expand(WAY * unit * 0.6);
            let round = rounded(rim.height() / 2.0);
            ui.painter()
                .rect(rim, round, look.ground, hole, StrokeKind::Inside);
        }
        let is_lit = part.down || part.asked;
        let fill = match (is_lit, is_pointed) {
            (true, _) => look.here,
            (_, true) => look.hover,
            _ => look.cell,
        };
        let is_told = part.asked || self.told == Some(part.spot);
        let edge = match (is_told, part.does) {
            (true, _) => Stroke::new(3.0, look.here),
            (_, true) => Stroke::new(2.0, look.text),
            _ => Stroke::new(look.line, look.edge),
        };
        let painter = ui.painter();
        painter.rect(moved, round, fill, edge, StrokeKind::Inside);
        // How far a trigger is in.
        if !is_lit && !is_stick && x > 0.0 {
            let width = moved.width() * x.clamp(0.0, 1.0);
            let bar = Rect::from_min_size(moved.min, vec2(width, moved.height()));
            let inside = painter.with_clip_rect(bar.intersect(ui.clip_rect()));
            inside.rect_filled(moved.shrink(2.0), round, look.lit);
        }
        let Some(mark) = &part.mark else { return };
        let room = moved.width() - 2.0;
        let most = (moved.height() * 0.72).min(18.0);
        let letters = mark.chars().count().max(1) as f32;
        let points = most.min(room / (letters * 0.74));
        let color = match is_lit {
            true => look.ground,
            false => look.text,
        };
        let font = FontId::proportional(points.max(5.0));
        painter.text(moved.center(), Align2::CENTER_CENTER, mark, font, color);
    }
}
