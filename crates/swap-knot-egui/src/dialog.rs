//! What has to be answered first, drawn over everything else.

use egui::{Color32, Frame, Rect, RichText, ScrollArea, Stroke, StrokeKind, Ui, pos2, vec2};
use swap_knot::screen::{Dialog, Item, Target};

use crate::look::size;
use crate::pen::{Pen, in_sight};
use crate::skin::{quiet, told, wrapped};

/// How many lines of a long text are shown.
const LINES: usize = 12;
/// Below this height, a dialog is drawn closer.
const SMALL_ROOM: f32 = 420.0;

/// What has to be answered first, over everything else.
pub(crate) fn draw(
    pen: &mut Pen<'_>,
    ui: &mut Ui,
    shown: &Dialog,
    message: Option<&str>,
    room: Rect,
) {
    let look = pen.look;
    // All but the hints, which say what works here.
    let mut beneath = room;
    let window = ui.ctx().content_rect();
    (beneath.min, beneath.max.x) = (window.min, window.max.x);
    ui.painter()
        .rect_filled(beneath, 0.0, Color32::from_black_alpha(150));
    // What lies beneath does not hear the pointer.
    pen.targets.push(Target::cover(in_sight(ui, beneath)));
    ui.interact(
        beneath,
        ui.scope_id().with("beneath"),
        egui::Sense::click_and_drag(),
    );
    let width = room.width().min(640.0);
    let left = room.center().x - width / 2.0;
    let top = room.top() + (room.height() * 0.08).min(60.0);
    let max = Rect::from_min_max(pos2(left, top), pos2(left + width, room.bottom()));
    let mut over = ui.new_child(egui::UiBuilder::new().max_rect(max).id_salt("dialog"));
    let edge = Stroke::new(look.line.max(2.0), look.here);
    let frame = Frame::new()
        .fill(look.raised)
        .stroke(edge)
        .corner_radius(8)
        .inner_margin(14);
    frame.show(&mut over, |ui| {
        ui.set_width(width - 32.0);
        ui.set_max_height(max.height() - 34.0);
        ScrollArea::vertical().id_salt("dialog").show(ui, |ui| {
            let told_title = RichText::new(&shown.title).size(size::HEADING).strong();
            let heard = ui.add(egui::Label::new(told_title.color(look.text)).wrap());
            ui.ctx().accesskit_node_builder(heard.id, |node| {
                node.set_role(egui::Role::Alert);
                node.set_live(egui::accesskit::Live::Assertive);
            });
            if let Some(message) = message {
                told(pen, ui, message, size::TEXT);
            }
            for text in &shown.text {
                let text = RichText::new(text).size(size::TEXT).color(look.text);
                ui.add(egui::Label::new(text).wrap());
            }
            if let Some(text) = &shown.field {
                field(pen, ui, text, shown.is_selected);
            }
            if let Some(pad) = &shown.pad {
                crate::pad::show(pen, ui, pad, room.height());
            }
            ui.add_space(size::GAP);
            let single = shown.lines.iter().all(|line| line.len() == 1);
            if single && room.height() < SMALL_ROOM {
                few_answers(pen, ui, shown);
            } else {
                for line in &shown.lines {
                    answers(pen, ui, line);
                }
            }
        });
    });
}

/// What is being typed, with a place for input methods to put their windows. A text of many lines is
/// shown from its end.
fn field(pen: &Pen<'_>, ui: &mut Ui, text: &str, is_selected: bool) {
    let font = egui::FontId::proportional(size::TEXT);
    let room = ui.available_width() - 2.0 * size::PAD;
    let shown = last_lines(text);
    let color = if is_selected {
        pen.look.on_here
    } else {
        pen.look.text
    };
    let galley = ui.painter().layout(shown.to_owned(), font, color, room);
    let height = (galley.size().y + 14.0).max(size::ITEM);
    let (_, rect) = ui.allocate_space(vec2(ui.available_width(), height));
    let edge = Stroke::new(2.0, pen.look.here);
    ui.painter()
        .rect(rect, 5.0, pen.look.ground, edge, StrokeKind::Inside);
    let at = rect.min + vec2(size::PAD, (height - galley.size().y) / 2.0);
    let end = galley.pos_from_cursor(galley.end());
    let caret = Rect::from_min_size(at + end.min.to_vec2(), vec2(2.0, end.height()));
    if is_selected {
        let all = Rect::from_min_size(at, galley.size()).expand(2.0);
        ui.painter().rect_filled(all, 2.0, pen.look.here);
    }
    ui.painter().galley(at, galley, color);
    ui.painter().rect_filled(caret, 0.0, pen.look.here);
    let id = ui.scope_id().with("field");
    ui.ctx().output_mut(|o| {
        o.ime = Some(egui::output::IMEOutput {
            purpose: egui::IMEPurpose::Normal,
            rect,
            cursor_rect: caret,
            should_interrupt_composition: false,
        });
    });
    let response = ui.interact(rect, id, egui::Sense::hover());
    response.widget_info(|| egui::WidgetInfo::text_edit(true, text, text, ""));
}

/// As much of the end of a text as there is room for.
fn last_lines(text: &str) -> &str {
    let ends = text.rmatch_indices('\n').map(|(at, _)| at + 1);
    let from = ends.filter(|at| *at < text.len()).nth(LINES - 1);
    from.and_then(|at| text.get(at..)).unwrap_or(text)
}

/// All answers close together, and what the one would do that the player is on: so that none of them
/// lies below the edge.
fn few_answers(pen: &mut Pen<'_>, ui: &mut Ui, shown: &Dialog) {
    let items: Vec<Item> = shown.lines.iter().flatten().cloned().collect();
    wrapped(pen, ui, &items);
    for text in items.iter().filter(|i| i.focused).flat_map(|i| &i.text) {
        ui.add(quiet(pen, text));
    }
}

/// Answers in one line; one that says what it does has that below it.
fn answers(pen: &mut Pen<'_>, ui: &mut Ui, line: &[Item]) {
    let room = ui.available_width();
    match line {
        [item] => {
            pen.item(ui, item, room);
            for text in &item.text {
                let color = if item.enabled {
                    pen.look.text
                } else {
                    pen.look.quiet
                };
                ui.horizontal_wrapped(|ui| {
                    ui.add_space(18.0);
                    ui.label(RichText::new(text).size(size::SMALL).color(color));
                });
            }
        }
        line => wrapped(pen, ui, line),
    }
}
