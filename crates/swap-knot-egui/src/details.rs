//! What is to be known of the item that the player is on, beside the page: a place that is always there.

use egui::{Frame, Margin, Rect, RichText, ScrollArea, Stroke, Ui, pos2};
use swap_knot::screen::{PadView, ScreenView};

use crate::look::size;
use crate::pen::Pen;
use crate::skin::{notes, quiet};

/// How high the picture of an input is.
const PICTURE: f32 = 40.0;
/// So much of the height is kept for what is not applied yet.
const FOOT: f32 = 0.3;

pub(crate) fn draw(
    pen: &mut Pen<'_>,
    ui: &mut Ui,
    view: &ScreenView,
    pad: Option<&PadView>,
    rect: Rect,
) {
    let look = pen.look;
    let edge = Stroke::new(look.line, look.hair);
    ui.painter().vline(rect.left(), rect.y_range(), edge);
    let foot = match pad {
        Some(_) => 0.15,
        None => FOOT,
    };
    let split = rect.bottom() - rect.height() * foot;
    let parts = [
        (
            "details",
            Rect::from_min_max(rect.min, pos2(rect.right(), split)),
        ),
        (
            "notes",
            Rect::from_min_max(pos2(rect.left(), split), rect.max),
        ),
    ];
    for (name, part) in parts {
        let mut inner = ui.new_child(egui::UiBuilder::new().max_rect(part).id_salt(name));
        ScrollArea::vertical()
            .id_salt(name)
            .auto_shrink(false)
            .show(&mut inner, |ui| {
                let inside = Frame::new().inner_margin(Margin {
                    left: size::MARGIN as i8,
                    ..Margin::ZERO
                });
                inside.show(ui, |ui| match name {
                    "details" => about(pen, ui, view, pad, part.height()),
                    _ => notes(pen, ui, view),
                });
            });
    }
}

fn about(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView, pad: Option<&PadView>, height: f32) {
    let details = &view.details;
    if let Some(pad) = pad {
        crate::pad::draw(pen, ui, pad, height);
    }
    ui.add_space(size::ROWS);
    if !details.device.is_empty() {
        ui.add(quiet(pen, &details.device));
    }
    let text = |text: &str, points: f32| RichText::new(text).size(points).color(pen.look.text);
    ui.add(egui::Label::new(text(&details.title, size::HEADING)).wrap());
    if !details.name.is_empty() {
        let name = egui::Label::new(text(&details.name, size::TEXT)).wrap();
        ui.horizontal(|ui| {
            ui.set_min_height(PICTURE + size::PAD);
            if let Some(chord) = &details.chord {
                let (glyphs, layout, words) = (&mut *pen.glyphs, pen.layout, pen.words);
                crate::prompt::chord(ui, chord, glyphs, layout, words, PICTURE);
            }
            ui.add(name);
        });
    }
    if let Some(curve) = &details.curve {
        crate::curve::draw(pen, ui, curve);
    }
    for line in &details.text {
        ui.add(quiet(pen, line));
    }
    ui.add_space(size::GAP);
}

/// What is most to be known, in the place below the page.
pub(crate) fn below(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView, rect: Rect) {
    let look = pen.look;
    let edge = Stroke::new(look.line, look.hair);
    ui.painter().hline(rect.x_range(), rect.top() + 2.0, edge);
    let details = &view.details;
    let title = [&*details.title, &*details.name];
    let title: Vec<&str> = title.into_iter().filter(|t| !t.is_empty()).collect();
    let inside = rect.shrink2(egui::vec2(0.0, size::ROWS));
    let mut inner = ui.new_child(egui::UiBuilder::new().max_rect(inside).id_salt("below"));
    ScrollArea::vertical()
        .id_salt("below")
        .auto_shrink(false)
        .show(&mut inner, |ui| {
            let text = RichText::new(title.join(": "))
                .size(size::CELL)
                .color(look.text);
            ui.spacing_mut().item_spacing.y = 1.0;
            ui.add(egui::Label::new(text).wrap());
            for line in &details.text {
                ui.add(quiet(pen, line));
            }
        });
}
