//! Every action with what it does now, or why it cannot be worked.

use egui::{Label, Rect, RichText, ScrollArea, Sense, Ui, pos2, vec2};
use swap_knot::prompt::Telling;
use swap_knot::sheet::{Action, ActionId, Shape, SituationId};
use swap_knot::{Controls, Row, Seat};

use super::Watch;
use crate::Look;

/// How wide the bar of a value is, and how high.
const BAR: egui::Vec2 = vec2(84.0, 10.0);

impl Watch {
    /// Every action with its live value, lit as it is worked, and why one cannot be worked now.
    pub fn actions(&mut self, ui: &mut Ui, controls: &Controls) {
        ui.checkbox(&mut self.hides_dead, "only those that can be worked now");
        let (seat, telling, look) = (controls.seat(), controls.telling(), Look::DARK);
        let sheet = seat.rig().sheet();
        ScrollArea::vertical()
            .id_salt("swap-knot actions")
            .auto_shrink([false, false])
            .show(ui, |ui| {
                for (title, is_on, actions) in by_situation(seat, &telling) {
                    let color = if is_on { look.here } else { look.quiet };
                    let is_live = |id: &ActionId| seat.why_not_live(*id).is_none();
                    if self.hides_dead && !actions.iter().any(is_live) {
                        continue;
                    }
                    ui.label(RichText::new(title).color(color).strong());
                    for id in actions {
                        let Some(action) = sheet.action(id) else {
                            continue;
                        };
                        let dead = seat.why_not_live(id);
                        if dead.is_some() && self.hides_dead {
                            continue;
                        }
                        let why = dead.map(|why| why.tell_of(Some(Row::of(id)), &telling));
                        show(ui, seat, &telling, id, action, why);
                    }
                }
            });
    }
}

/// The actions by the first of their situations, and those that have none; with whether that is on.
fn by_situation(seat: &Seat, telling: &Telling<'_>) -> Vec<(String, bool, Vec<ActionId>)> {
    let sheet = seat.rig().sheet();
    let of = |situation: Option<SituationId>| {
        let all = sheet.actions();
        let own = all.filter(|(_, a)| a.situations.first().copied() == situation);
        own.map(|(id, _)| id).collect::<Vec<_>>()
    };
    let situations = sheet.situations().map(|(id, _)| {
        let title = telling.words().situation_title(sheet, id);
        (title, seat.situations().contains(&id), of(Some(id)))
    });
    let always = ("always".to_owned(), true, of(None));
    let all = situations.chain([always]);
    all.filter(|(.., actions)| !actions.is_empty()).collect()
}

fn show(
    ui: &mut Ui,
    seat: &Seat,
    telling: &Telling<'_>,
    id: ActionId,
    action: &Action,
    why: Option<String>,
) {
    let look = Look::DARK;
    let is_on = seat.is_down(id);
    let title = RichText::new(telling.row(Row::of(id)));
    let title = match (is_on, &why) {
        (true, _) => title.color(look.on_lit).background_color(look.lit).strong(),
        (false, None) => title.color(look.text),
        (false, Some(_)) => title.color(look.quiet),
    };
    ui.horizontal(|ui| {
        value(ui, seat, id, action.shape);
        ui.label(title);
        let mut names: Vec<String> = Vec::new();
        for bound in seat.rig().bindings_of_action(id) {
            let name = telling.chord(&bound.chord);
            if !names.contains(&name) {
                names.push(name);
            }
        }
        let more = why.unwrap_or_else(|| names.join(", "));
        let more = RichText::new(more).color(look.quiet).size(11.5);
        ui.add(Label::new(more).truncate());
    });
}

/// A bar for the value of an action, from its middle where it goes both ways.
fn value(ui: &mut Ui, seat: &Seat, id: ActionId, shape: Shape) {
    let look = Look::DARK;
    let (response, painter) = ui.allocate_painter(BAR, Sense::hover());
    let all = response.rect;
    painter.rect_filled(all, 2.0, look.cell);
    let [x, y, z] = seat.space(id);
    let hover = match shape {
        Shape::Press => {
            if seat.is_down(id) {
                painter.rect_filled(all, 2.0, look.here);
            }
            let progress = seat.hold_progress(id);
            if progress > 0.0 && !seat.is_down(id) {
                painter.rect_filled(part(all, 0.0, progress), 2.0, look.edge);
            }
            return;
        }
        Shape::Pull => {
            let at = seat.value(id);
            painter.rect_filled(part(all, 0.0, at.min(1.0)), 2.0, look.here);
            format!("{at:.3}")
        }
        Shape::Line => {
            let at = seat.value(id);
            painter.rect_filled(both_ways(all, at), 2.0, look.here);
            format!("{at:.3}")
        }
        _ => {
            let half = vec2(0.0, all.height() / 2.0);
            let upper = Rect::from_min_max(all.min, all.max - half);
            let lower = Rect::from_min_max(all.min + half, all.max);
            painter.rect_filled(both_ways(upper, x), 1.0, look.here);
            painter.rect_filled(both_ways(lower, y), 1.0, look.changed);
            format!("{x:.3}, {y:.3}, {z:.3}")
        }
    };
    response.on_hover_text(hover);
}

/// A part of a bar, from a share of it to another.
fn part(all: Rect, from: f32, to: f32) -> Rect {
    let x = |share: f32| all.left() + share.clamp(0.0, 1.0) * all.width();
    Rect::from_min_max(pos2(x(from), all.top()), pos2(x(to), all.bottom()))
}

/// From the middle to one side.
fn both_ways(all: Rect, at: f32) -> Rect {
    let to = 0.5 + at.clamp(-1.0, 1.0) / 2.0;
    part(all, to.min(0.5), to.max(0.5))
}
