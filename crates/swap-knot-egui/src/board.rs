//! The player's keyboard: what each key does, which are down, and which one is pointed at.

use egui::{Align2, Color32, FontId, Rect, Stroke, StrokeKind, Ui, pos2, vec2};
use swap_knot::screen::{BoardView, KeyView};

use crate::look::size;
use crate::pen::{Pen, fitting};

/// How wide a key is at most, in points, and from when on there is room for what it does.
const WIDEST: f32 = 78.0;
const TITLED: f32 = 42.0;

/// Draws the keyboard as wide as there is room for, and below it what the key does that the player is
/// on or points at.
pub(crate) fn draw(pen: &mut Pen<'_>, ui: &mut Ui, board: &BoardView) {
    let unit = (ui.available_width() / board.width.max(1.0)).min(WIDEST);
    let whole = vec2(board.width * unit, board.height * unit);
    ui.add_space(size::GAP);
    let (_, room) = ui.allocate_space(whole);
    for key in &board.keys {
        let [x, y, width, height] = key.rect;
        let from = room.min + vec2(x, y) * unit;
        let rect = Rect::from_min_size(from, vec2(width, height) * unit).shrink(2.0);
        pen.key(ui, key, rect, unit);
    }
    let Some(key) = board.keys.iter().find(|k| Some(k.item.spot) == pen.told) else {
        return;
    };
    ui.add_space(size::GAP);
    let text = |text: &str, points| egui::RichText::new(text).size(points).color(pen.look.text);
    let nothing = std::slice::from_ref(&key.item.spoken);
    let lines = match key.item.text.is_empty() {
        true => nothing,
        false => &key.item.text,
    };
    if !key.item.text.is_empty() {
        ui.label(text(&key.item.label, size::HEADING).strong());
    }
    for line in lines {
        ui.add(egui::Label::new(text(line, size::TEXT)).wrap());
    }
}

impl Pen<'_> {
    fn key(&mut self, ui: &mut Ui, key: &KeyView, rect: Rect, unit: f32) {
        let look = self.look;
        let mut blank = key.item.clone();
        blank.label.clear();
        self.item_in(ui, &blank, rect);
        let (fill, edge, text) = match (key.down, key.does.is_empty()) {
            (true, _) => (look.lit, look.lit, look.on_lit),
            (_, false) => (Color32::TRANSPARENT, look.edge, look.text),
            // What does nothing is there, and no more than that.
            (_, true) => (look.ground, look.hair, look.quiet),
        };
        let painter = ui.painter().with_clip_rect(rect.intersect(ui.clip_rect()));
        let edge = Stroke::new(look.line, edge);
        painter.rect(rect, 6.0, fill, edge, StrokeKind::Inside);
        let inside = rect.shrink2(vec2(unit * 0.09, unit * 0.05));
        let legend = FontId::proportional((unit * 0.26).clamp(9.0, 16.0));
        painter.text(
            inside.left_top(),
            Align2::LEFT_TOP,
            &key.item.label,
            legend,
            text,
        );
        let dot = inside.right_top() + vec2(-unit * 0.07, unit * 0.1);
        if key.title.is_empty() {
            // It works something elsewhere in the game; what, is told below.
            if !key.does.is_empty() {
                let ring = Stroke::new(1.5, if key.down { text } else { look.quiet });
                painter.circle_stroke(dot, unit * 0.06, ring);
            }
            return;
        }
        // The title, or what is short of it, as large as it goes.
        let most = (unit * 0.24).clamp(9.0, size::TINY);
        let sizes = [1.0, 0.92, 0.84, 0.76].map(|part| (most * part, 2));
        let titles = [&*key.title, &*key.short];
        let (galley, is_whole) = fitting(&painter, &titles, text, inside.width(), &sizes);
        if !is_whole || unit < TITLED {
            painter.circle_filled(dot, unit * 0.06, text);
            return;
        }
        let at = pos2(inside.left(), inside.bottom() - galley.size().y);
        painter.galley(at, galley, text);
    }
}
