//! What becomes of what a stick or trigger says, drawn: beside the number that bends it.

use egui::{Align2, FontId, Pos2, Rect, Shape, Stroke, StrokeKind, Ui, pos2, vec2};
use swap_knot::screen::Curve;

use crate::look::size;
use crate::pen::Pen;

/// How wide it is at most, how high, and how much is kept below it for the title of the way to the right.
const WIDEST: f32 = 280.0;
const HEIGHT: f32 = 190.0;
const BELOW: f32 = 22.0;
/// A dash and the gap after it.
const DASHES: [f32; 2] = [5.0, 4.0];
const DOTS: [f32; 2] = [1.5, 4.0];

pub(crate) fn draw(pen: &Pen<'_>, ui: &mut Ui, curve: &Curve) {
    let look = pen.look;
    ui.add_space(size::GAP);
    let width = (ui.available_width() - size::PAD).min(WIDEST);
    let (_, all) = ui.allocate_space(vec2(width, HEIGHT + BELOW));
    let plot = Rect::from_min_max(all.min, pos2(all.right(), all.bottom() - BELOW));
    let at = |[x, y]: [f32; 2]| -> Pos2 {
        let (x, y) = (x.clamp(0.0, 1.0), y.clamp(0.0, 1.0));
        plot.left_bottom() + vec2(plot.width() * x, -plot.height() * y)
    };
    let painter = ui
        .painter()
        .with_clip_rect(all.expand(2.0).intersect(ui.clip_rect()));
    painter.rect_filled(plot, 4.0, look.raised);
    // What is at rest and what is full says the same wherever it is.
    for [from, to] in [[0.0, curve.rest], [curve.full, 1.0]] {
        painter.rect_filled(
            Rect::from_two_pos(at([from, 0.0]), at([to, 1.0])),
            0.0,
            look.cell,
        );
    }
    painter.rect_stroke(
        plot,
        4.0,
        Stroke::new(look.line, look.edge),
        StrokeKind::Inside,
    );
    let dashed = |line: &[Pos2], stroke: Stroke, [dash, gap]: [f32; 2]| {
        painter.extend(Shape::dashed_line(line, stroke, dash, gap));
    };
    let small = FontId::proportional(size::SMALL);
    if let Some(press) = curve.press {
        let stroke = Stroke::new(2.0, look.edge);
        dashed(&[at([press, 0.0]), at([press, 1.0])], stroke, DOTS);
        // Beside the line, where there is room.
        let (side, way) = if press > 0.5 {
            (Align2::RIGHT_TOP, -1.0)
        } else {
            (Align2::LEFT_TOP, 1.0)
        };
        let spot = at([press, 1.0]) + vec2(6.0 * way, 26.0);
        painter.text(spot, side, &curve.titles[2], small.clone(), look.quiet);
    }
    let places = |points: &[[f32; 2]]| points.iter().map(|p| at(*p)).collect::<Vec<Pos2>>();
    dashed(&places(&curve.before), Stroke::new(2.0, look.quiet), DASHES);
    let color = if curve.before.is_empty() {
        look.text
    } else {
        look.changed
    };
    painter.add(Shape::line(places(&curve.points), Stroke::new(3.0, color)));
    if let Some(live) = curve.live {
        let stroke = Stroke::new(2.0, look.lit);
        painter.line_segment([at([live[0], 0.0]), at(live)], stroke);
        painter.line_segment([at([0.0, live[1]]), at(live)], stroke);
        painter.circle(at(live), 6.0, look.lit, Stroke::new(2.0, look.ground));
    }
    let below = all.bottom() - BELOW / 2.0;
    let hand = pos2(plot.right(), below);
    painter.text(
        hand,
        Align2::RIGHT_CENTER,
        &curve.titles[0],
        small.clone(),
        look.quiet,
    );
    let game = plot.left_top() + vec2(6.0, 4.0);
    painter.text(game, Align2::LEFT_TOP, &curve.titles[1], small, look.quiet);
}
