//! The player's keyboard: what each key does, which are down, and which one is pointed at.

use egui::{Align2, FontId, Rect, Ui, pos2, vec2};
use swap_knot::screen::{BoardView, KeyView};

use crate::look::size;
use crate::pen::Pen;

/// How wide a key is at most, in points.
const WIDEST: f32 = 78.0;

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
    let lines = if key.does.is_empty() {
        nothing
    } else {
        &key.does
    };
    if !key.does.is_empty() {
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
        if key.down {
            blank.changed = true;
        }
        self.item_in(ui, &blank, rect);
        let legend = (unit * 0.26).clamp(9.0, 17.0);
        let at = rect.left_top() + vec2(unit * 0.1, unit * 0.06);
        let painter = ui.painter().with_clip_rect(rect.intersect(ui.clip_rect()));
        let color = if key.down { look.here } else { look.text };
        let font = FontId::proportional(legend);
        painter.text(at, Align2::LEFT_TOP, &key.item.label, font, color);
        // That it does something; what, is told below.
        if !key.does.is_empty() {
            let dot = pos2(rect.right() - unit * 0.18, rect.bottom() - unit * 0.18);
            painter.circle_filled(dot, unit * 0.08, look.here);
        }
    }
}
