//! One item: how it is drawn, what a screen reader hears of it, and what was done to it.

use egui::accesskit::Action;
use egui::{
    Color32, CornerRadius, EventFilter, FontId, Id, Rangef, Rect, Response, Role as Heard, Sense,
    Stroke, StrokeKind, Ui, Vec2, WidgetInfo, pos2, vec2,
};
use swap_knot::input::Direction;
use swap_knot::screen::{Item, Role, Spot, Target, Tool};
use swap_knot::{Layout, Words};

use crate::look::{Look, size};
use crate::rows::Measured;
use crate::{GlyphTextures, prompt};

/// What a screen reader asks for.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) enum Act {
    Press(Spot),
    Focus(Spot),
    Nudge(Spot, Direction),
}

/// Draws items, and notes where, and what a screen reader asks for.
pub(crate) struct Pen<'a> {
    pub(crate) look: Look,
    pub(crate) glyphs: &'a mut GlyphTextures,
    pub(crate) layout: &'a Layout,
    pub(crate) words: &'a Words,
    pub(crate) places: &'a mut Vec<(String, Rect)>,
    /// What can be pointed at.
    pub(crate) targets: Vec<Target>,
    pub(crate) acts: Vec<Act>,
    pub(crate) hover: Option<Spot>,
    /// What the ring goes around: it is drawn last.
    pub(crate) ring: Option<Rect>,
    /// What is told more of: what the player went to or pointed at last.
    pub(crate) told: Option<Spot>,
    /// Whether the player moved, so that the list has to follow.
    pub(crate) follows: bool,
    /// What was measured in the last frame, and what it was measured of.
    pub(crate) measured: &'a mut Measured,
    pub(crate) revision: u64,
    /// Whether a screen reader listens.
    pub(crate) is_read_aloud: bool,
}

/// How round items are.
pub(crate) const ROUND: f32 = 6.0;

impl Pen<'_> {
    /// How wide an item wants to be.
    pub(crate) fn width(&self, ui: &Ui, item: &Item) -> f32 {
        let text = self.measure(ui, &item.label, size::TEXT);
        let more = match item.role {
            Role::Slider { .. } => 240.0,
            Role::Switch { .. } | Role::Choice => 56.0,
            Role::Radio { .. } => 34.0,
            Role::Field => 90.0,
            _ => 0.0,
        };
        text + more + 2.0 * size::PAD
    }

    pub(crate) fn measure(&self, ui: &Ui, text: &str, points: f32) -> f32 {
        let font = FontId::proportional(points);
        let galley = ui
            .painter()
            .layout_no_wrap(text.to_owned(), font, self.look.text);
        galley.size().x
    }

    /// How wide a text is at least, as small as it gets and in two lines.
    pub(crate) fn least(&self, ui: &Ui, text: &str) -> f32 {
        let width = |text: &str| self.measure(ui, text, size::LEAST);
        let words = text.split_whitespace().map(width).fold(0.0, f32::max);
        // Where the line breaks it is not full.
        words.max(width(text) * 0.7).ceil()
    }

    /// Draws an item of a width.
    pub(crate) fn item(&mut self, ui: &mut Ui, item: &Item, width: f32) -> Rect {
        let (_, rect) = ui.allocate_space(vec2(width, size::ITEM));
        self.item_in(ui, item, rect);
        rect
    }

    /// Draws an item into a place.
    pub(crate) fn item_in(&mut self, ui: &mut Ui, item: &Item, rect: Rect) {
        let id = Id::unique(("swap-knot", &item.id));
        let response = ui.interact(rect, id, Sense::click_and_drag());
        self.places.push((item.id.clone(), rect));
        self.tell(ui, item, &response);
        self.note(ui, item, &response);
        if self.follows && item.focused {
            ui.scroll_to_rect(rect.expand2(vec2(0.0, 2.0 * size::ITEM)), None);
        }
        if !ui.is_rect_visible(rect) {
            return;
        }
        self.paint(ui, item, rect, response.hovered());
        if !item.text.is_empty() && !matches!(item.spot, Spot::Answer(_)) {
            response.on_hover_text(item.text.join("\n"));
        }
    }

    /// What a screen reader hears, and where its focus is.
    fn tell(&self, ui: &Ui, item: &Item, response: &Response) {
        let (enabled, spoken) = (item.enabled, item.spoken.clone());
        let info = match item.role {
            Role::Tab { selected } => WidgetInfo::selected(Heard::Tab, enabled, selected, spoken),
            Role::Radio { selected } => {
                WidgetInfo::selected(Heard::RadioButton, enabled, selected, spoken)
            }
            Role::Switch { on } => WidgetInfo::selected(Heard::Switch, enabled, on, spoken),
            Role::Slider { at } => WidgetInfo::slider(enabled, f64::from(at), spoken),
            Role::Choice => WidgetInfo::labeled(Heard::ComboBox, enabled, spoken),
            Role::Field => WidgetInfo::labeled(Heard::SearchInput, enabled, spoken),
            _ => WidgetInfo::labeled(Heard::Button, enabled, spoken),
        };
        response.widget_info(|| info.clone());
        let described = item.text.join("\n");
        ui.ctx().accesskit_node_builder(response.id, |node| {
            if !described.is_empty() {
                node.set_description(described);
            }
            if matches!(item.role, Role::Slider { .. }) {
                node.add_action(Action::Increment);
                node.add_action(Action::Decrement);
                node.set_min_numeric_value(0.0);
                node.set_max_numeric_value(1.0);
            }
        });
        if item.focused {
            if !response.has_focus() {
                response.request_focus();
            }
            // The screen itself moves the focus; keys are not egui's here.
            let filter = EventFilter {
                tab: true,
                horizontal_arrows: true,
                vertical_arrows: true,
                escape: true,
            };
            ui.memory_mut(|m| m.set_focus_lock_filter(response.id, filter));
        }
    }

    /// Where it can be pointed at, and what a screen reader asks of it.
    fn note(&mut self, ui: &Ui, item: &Item, response: &Response) {
        let spot = item.spot;
        if response.contains_pointer() {
            self.hover = Some(spot);
        }
        let in_sight = in_sight(ui, response.rect);
        let track = match item.role {
            // Only a number has one, and finding it measures a text.
            Role::Slider { .. } => self.track(ui, item, response.rect).x_range(),
            _ => Rangef::NOTHING,
        };
        self.targets
            .push(Target::item(item, in_sight, [track.min, track.max]));
        let acts: &[(Action, Act)] = match item.role {
            Role::Slider { .. } => &[
                (Action::Increment, Act::Nudge(spot, Direction::Right)),
                (Action::Decrement, Act::Nudge(spot, Direction::Left)),
            ],
            _ => &[(Action::Click, Act::Press(spot))],
        };
        for (action, act) in acts.iter().chain([&(Action::Focus, Act::Focus(spot))]) {
            if ui.input(|i| i.has_accesskit_action_request(response.id, *action)) {
                self.acts.push(*act);
            }
        }
    }

    fn paint(&mut self, ui: &mut Ui, item: &Item, rect: Rect, hovered: bool) {
        let look = self.look;
        let is_tab = matches!(item.role, Role::Tab { .. });
        let selected = matches!(item.role, Role::Tab { selected: true });
        let listens = matches!(
            item.role,
            Role::Binding {
                listening: true,
                ..
            }
        );
        // What is free beyond what is bound, or worked by something else, is there, and no more than that.
        let is_beyond = matches!(item.spot, Spot::Cell(cell) if cell.column.number() > 1);
        let is_unbound = matches!(
            item.role,
            Role::Binding {
                chord: None,
                listening: false
            }
        );
        let is_quiet = item.by_whole || is_beyond && is_unbound && !item.conflict;
        let is_main = item.spot == Spot::Tool(Tool::Apply);
        let fill = match item.enabled {
            _ if listens => look.here,
            true if hovered => look.hover,
            true if is_main => look.text,
            true if !is_tab && !is_quiet => look.cell,
            _ => Color32::TRANSPARENT,
        };
        let edge = match item.conflict {
            true => Stroke::new(2.0, look.conflict),
            false if is_main => Stroke::new(look.line, look.edge),
            // Where cells are as dark as the ground, their edges tell them.
            false if look.line > 1.0 && fill == look.cell => Stroke::new(look.line, look.hair),
            false => Stroke::NONE,
        };
        ui.painter()
            .rect(rect, ROUND, fill, edge, StrokeKind::Inside);
        if item.changed && !item.conflict {
            let bar = Rect::from_min_size(rect.min, vec2(4.0, rect.height()));
            let round = ROUND as u8;
            let left = CornerRadius {
                nw: round,
                sw: round,
                ..CornerRadius::ZERO
            };
            ui.painter().rect_filled(bar, left, look.changed);
        }
        if item.focused {
            self.ring = Some(rect);
        }
        let color = match item.enabled {
            true if is_main && !hovered => look.ground,
            true if is_tab && !selected => look.quiet,
            true => look.text,
            false => look.quiet,
        };
        match &item.role {
            Role::Binding { chord, listening } => {
                let inside = rect.shrink2(vec2(size::PAD, 2.0));
                let color = match is_quiet {
                    _ if *listening => look.on_here,
                    true => look.quiet,
                    false => color,
                };
                self.binding(
                    ui,
                    item,
                    inside,
                    (chord.as_ref().filter(|_| !listening), color),
                );
            }
            Role::Slider { at } => self.slider(ui, item, rect, *at),
            Role::Switch { on } => {
                let (bed, knob) = (
                    Rect::from_min_size(
                        rect.left_center() + vec2(size::PAD, -9.0),
                        vec2(36.0, 18.0),
                    ),
                    if *on { 0.75 } else { 0.25 },
                );
                let fill = if *on { look.here } else { look.ground };
                let edge = Stroke::new(look.line.max(1.5), look.edge);
                ui.painter()
                    .rect(bed, CornerRadius::same(9), fill, edge, StrokeKind::Inside);
                let x = bed.left() + bed.width() * knob;
                ui.painter()
                    .circle(pos2(x, bed.center().y), 6.0, look.text, Stroke::NONE);
                self.text(ui, rect, 36.0 + 8.0, &item.label, color);
            }
            Role::Choice => {
                self.text(ui, rect, 20.0, &item.label, color);
                // Drawn, since not every font has them.
                for (x, way) in [(rect.left() + 14.0, -1.0), (rect.right() - 14.0, 1.0)] {
                    let at = pos2(x, rect.center().y);
                    let tip = at + vec2(5.0 * way, 0.0);
                    let base = [-6.0, 6.0].map(|y| at + vec2(-4.0 * way, y));
                    let points = vec![tip, base[0], base[1]];
                    let arrow = egui::Shape::convex_polygon(points, look.quiet, Stroke::NONE);
                    ui.painter().add(arrow);
                }
            }
            Role::Radio { selected } => {
                let at = rect.left_center() + vec2(18.0, 0.0);
                let edge = Stroke::new(look.line.max(1.5), look.edge);
                ui.painter().circle(at, 8.0, look.ground, edge);
                if *selected {
                    ui.painter().circle(at, 4.5, look.here, Stroke::NONE);
                }
                self.text(ui, rect, 26.0, &item.label, color);
            }
            Role::Field => self.text(ui, rect, 0.0, &item.label, color),
            Role::Button if !is_in_line(item.spot) => {
                self.fitted(ui, rect.shrink2(vec2(size::PAD, 1.0)), &item.label, color);
            }
            _ => {
                let font = FontId::proportional(size::TEXT);
                let label = item.label.clone();
                let mut job = egui::text::LayoutJob::simple_singleline(label, font, color);
                let room = (rect.width() - size::PAD).max(8.0);
                job.wrap = egui::text::TextWrapping::truncate_at_width(room);
                let galley = ui.painter().layout_job(job);
                let left = (rect.width() - galley.size().x).max(0.0) / 2.0;
                let at = pos2(rect.left() + left, rect.center().y - galley.size().y / 2.0);
                let clip = ui.painter().with_clip_rect(rect.intersect(ui.clip_rect()));
                clip.galley(at, galley, color);
            }
        }
        if selected {
            let bar = Rect::from_min_max(
                pos2(rect.left(), rect.bottom() + 4.0),
                pos2(rect.right(), rect.bottom() + 8.0),
            );
            ui.painter()
                .rect_filled(bar, CornerRadius::same(2), look.here);
        }
    }

    /// Text from the left, after so much room.
    fn text(&self, ui: &Ui, rect: Rect, after: f32, text: &str, color: Color32) {
        let font = FontId::proportional(size::TEXT);
        let room = rect.width() - after - 2.0 * size::PAD;
        let mut job = egui::text::LayoutJob::simple_singleline(text.to_owned(), font, color);
        job.wrap = egui::text::TextWrapping::truncate_at_width(room.max(8.0));
        let galley = ui.painter().layout_job(job);
        let x = rect.left() + size::PAD + after;
        let at = pos2(x, rect.center().y - galley.size().y / 2.0);
        ui.painter().galley(at, galley, color);
    }

    /// What works an action: its glyphs, and its name where they do not carry it.
    fn binding(
        &mut self,
        ui: &mut Ui,
        item: &Item,
        inside: Rect,
        (chord, color): (Option<&swap_knot::Chord>, Color32),
    ) {
        let look = self.look;
        let mut inner = ui.new_child(
            egui::UiBuilder::new()
                .max_rect(inside)
                .layout(egui::Layout::left_to_right(egui::Align::Center)),
        );
        inner.set_clip_rect(inside.intersect(ui.clip_rect()));
        inner.style_mut().interaction.selectable_labels = false;
        inner.spacing_mut().item_spacing.x = 5.0;
        let text = |text: &str| egui::RichText::new(text).size(size::CELL);
        if let Some(manner) = &item.manner {
            let font = FontId::proportional(size::SMALL);
            let galley = (inner.painter()).layout_no_wrap(manner.clone(), font, look.quiet);
            let at = pos2(
                inside.right() - galley.size().x,
                inside.center().y - galley.size().y / 2.0,
            );
            inner.painter().galley(at, galley.clone(), look.quiet);
            inner.set_max_width((inside.width() - galley.size().x - size::GAP).max(8.0));
        }
        // A sign besides the colour, for those who do not tell the colours apart.
        if item.conflict {
            inner.label(text("!").strong().color(look.conflict));
        } else if item.changed {
            inner.label(text("•").strong().color(look.changed));
        }
        // The drawing of a zone is its name in a frame, which is here already.
        let is_named = chord.is_none_or(|c| c.device_kind() == swap_knot::DeviceKind::Touch);
        let drawn = chord.filter(|_| !is_named).is_some_and(|chord| {
            let (glyphs, layout, words) = (&mut *self.glyphs, self.layout, self.words);
            prompt::chord(&mut inner, chord, glyphs, layout, words, size::GLYPH)
        });
        let on_keys = chord.is_some_and(|c| c.device_kind() == swap_knot::DeviceKind::Keyboard);
        if !(drawn && on_keys) {
            let label = if is_named { &item.label } else { &item.short };
            let room = Rect::from_min_max(
                pos2(inner.cursor().left(), inside.top()),
                pos2(inner.max_rect().right(), inside.bottom()),
            );
            self.fitted(&inner, room, label, color);
        }
    }

    /// Text in one line where it fits, otherwise smaller in two.
    pub(crate) fn fitted(&self, ui: &Ui, room: Rect, text: &str, color: Color32) {
        let sizes = [
            (size::CELL, 1),
            (size::TINY, 2),
            (12.0, 2),
            (size::LEAST, 2),
        ];
        let (galley, _) = fitting(ui.painter(), &[text], color, room.width(), &sizes);
        let top = room.center().y - galley.size().y / 2.0;
        ui.painter().galley(pos2(room.left(), top), galley, color);
    }

    /// Where the knob of a slider runs, beside what stands on it. A digit more does not move it under the
    /// pointer.
    fn track(&self, ui: &Ui, item: &Item, rect: Rect) -> Rect {
        const STEP: f32 = 60.0;
        let label = (self.measure(ui, &item.label, size::TEXT) / STEP).ceil() * STEP;
        let room = (label + 24.0).min(rect.width() * 0.6);
        let left = rect.left() + size::PAD + 8.0;
        let right = (rect.right() - room).max(left + 20.0);
        let y = rect.center().y;
        Rect::from_min_max(pos2(left, y - 3.0), pos2(right, y + 3.0))
    }

    fn slider(&self, ui: &Ui, item: &Item, rect: Rect, at: f32) {
        let (look, track) = (self.look, self.track(ui, item, rect));
        let edge = Stroke::new(look.line, look.edge);
        ui.painter().rect(
            track,
            CornerRadius::same(3),
            look.ground,
            edge,
            StrokeKind::Inside,
        );
        let x = track.left() + track.width() * at;
        let done = Rect::from_min_max(track.min, pos2(x, track.bottom()));
        ui.painter()
            .rect_filled(done, CornerRadius::same(3), look.edge);
        ui.painter().circle(
            pos2(x, rect.center().y),
            9.0,
            look.text,
            Stroke::new(2.0, look.ground),
        );
        let value = Rect::from_min_max(pos2(track.right() + 6.0, rect.top()), rect.max);
        self.text(ui, value, 0.0, &item.label, look.text);
    }
}

/// Whether it is one of several in a line, rather than what stands behind the title of a row.
fn is_in_line(spot: Spot) -> bool {
    matches!(
        spot,
        Spot::Tool(_) | Spot::Page(_) | Spot::Answer(_) | Spot::Letter(_) | Spot::Profile(..)
    )
}

/// How much room a drawing beside a row takes.
pub(crate) const LIVE: Vec2 = vec2(64.0, 36.0);

/// The first of some texts that fits into a width in one of some sizes, the first that any fits in, with so
/// many lines each and none of its words broken, and whether there is one; the end of the last is cut off
/// where there is none.
pub(crate) fn fitting(
    painter: &egui::Painter,
    texts: &[&str],
    color: Color32,
    width: f32,
    sizes: &[(f32, usize)],
) -> (std::sync::Arc<egui::Galley>, bool) {
    let lay_out = |text: &str, points: f32, rows: usize| {
        let font = FontId::proportional(points);
        let mut job = egui::text::LayoutJob::simple(text.to_owned(), font, color, width);
        job.wrap.max_rows = rows;
        painter.layout_job(job)
    };
    let mut last = None;
    for &(points, rows) in sizes {
        for text in texts {
            let galley = lay_out(text, points, rows);
            let breaks = |word: &str| lay_out(word, points, 2).rows.len() > 1;
            let is_whole = || rows == 1 || !text.split_whitespace().any(breaks);
            if !galley.elided && is_whole() {
                return (galley, true);
            }
            last = Some(galley);
        }
    }
    (last.unwrap_or_else(|| lay_out("", size::TINY, 1)), false)
}

/// As much of it as is not cut off, for pointing at it.
pub(crate) fn in_sight(ui: &Ui, rect: Rect) -> [f32; 4] {
    let rect = rect.intersect(ui.clip_rect());
    [rect.left(), rect.top(), rect.width(), rect.height()]
}
