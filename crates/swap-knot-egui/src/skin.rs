//! The controls screen, drawn: no rule, text or state of it lives here.

use egui::{Align, Frame, Margin, Rect, RichText, ScrollArea, Stroke, StrokeKind, Ui, pos2, vec2};
use swap_knot::screen::{ControlsScreen, Item, Role, ScreenCommand, ScreenView, Spot, Tool};

use crate::look::{Look, size};
use crate::pen::{Act, Pen, ROUND};
use crate::rows::Measured;
use crate::{GlyphTextures, Pack};

/// From this width on, what is to be known of an item stands beside the page: so wide, or so where there is
/// more room than that.
const WITH_DETAILS: f32 = 1000.0;
const WIDE: f32 = 1550.0;
/// Where there is less, so much is kept for it below the page, unless the whole is lower than that.
const DETAILS_BELOW: f32 = 86.0;
const WITH_FOOT: f32 = 440.0;
/// So much of the tabs beside the one that is shown is in sight.
const NEIGHBOUR: f32 = 60.0;
const DETAILS: [f32; 2] = [310.0, 400.0];

/// Draws a [`ControlsScreen`], and hands on what is pointed at and what a screen reader asks for.
///
/// ```no_run
/// # fn frame(ui: &mut egui::Ui, controls: &mut swap_knot::Controls, skin: &mut swap_knot_egui::ScreenSkin) {
/// if let Some(screen) = controls.screen_mut() {
///     skin.show(ui, screen);
/// }
/// # }
/// ```
#[derive(Default)]
pub struct ScreenSkin {
    glyphs: GlyphTextures,
    look: Option<Look>,
    places: Vec<(String, Rect)>,
    focus: Option<Spot>,
    /// What is told more of: what the player went to or pointed at last.
    told: Option<Spot>,
    measured: Measured,
}

impl ScreenSkin {
    /// A skin that looks as egui does: light or dark.
    pub fn new() -> ScreenSkin {
        ScreenSkin::default()
    }

    /// Shows the pictures of a pack where it has some.
    #[must_use]
    pub fn with_pack(mut self, pack: Pack) -> ScreenSkin {
        self.glyphs = self.glyphs.with_pack(pack);
        self
    }

    /// Draws it in these colours; none are those that go with egui's.
    pub const fn set_look(&mut self, look: Option<Look>) {
        self.look = look;
    }

    /// Where everything stood in the last frame, by its [`Spot::id`]. For tests, and for arrows that
    /// point something out.
    pub fn places(&self) -> impl Iterator<Item = (&str, Rect)> {
        self.places.iter().map(|(id, rect)| (id.as_str(), *rect))
    }

    /// Draws the screen into all the room there is, and asks for the next frame where time changes
    /// what is shown.
    pub fn show(&mut self, ui: &mut Ui, screen: &mut ControlsScreen) {
        take_text(ui, screen);
        crate::point::tell(ui, screen);
        let (layout, words) = (
            screen.draft().layout().clone(),
            screen.draft().words().clone(),
        );
        let is_pointed_at = screen.is_pointed_at();
        // What is drawn may be of now, and is measured for it.
        screen.view();
        let revision = screen.revision();
        let view = screen.view();
        let focus = view.focused().map(|i| i.spot);
        let look = self.look.unwrap_or_else(|| Look::of(ui));
        self.places.clear();
        let mut pen = Pen {
            look,
            glyphs: &mut self.glyphs,
            layout: &layout,
            words: &words,
            places: &mut self.places,
            targets: Vec::new(),
            acts: Vec::new(),
            hover: None,
            ring: None,
            told: if self.focus == focus {
                self.told
            } else {
                focus
            },
            follows: self.focus != focus && !is_pointed_at,
            measured: &mut self.measured,
            revision,
            is_read_aloud: is_read_aloud(ui),
        };
        let margin = match ui.available_width() >= WITH_DETAILS {
            true => size::MARGIN,
            false => size::NARROW_MARGIN,
        };
        Frame::new()
            .fill(look.ground)
            .inner_margin(Margin::symmetric(margin as i8, 0))
            .show(ui, |ui| {
                ui.set_min_size(ui.available_size());
                ui.visuals_mut().override_text_color = Some(look.text);
                ui.spacing_mut().item_spacing = vec2(size::GAP, size::ROWS);
                draw(&mut pen, ui, view);
            });
        let (acts, hover, targets) = (pen.acts, pen.hover, pen.targets);
        let is_settled = !pen.follows;
        self.told = match ui.input(|i| i.pointer.is_moving()) {
            true => hover.or(pen.told),
            false => pen.told,
        };
        self.focus = focus;
        if is_settled {
            screen.set_targets(targets);
        } else {
            // The list is about to move to what has the focus.
            ui.ctx().request_repaint();
        }
        for act in acts {
            match act {
                Act::Press(spot) => screen.press(spot),
                Act::Focus(spot) => screen.focus(spot),
                Act::Nudge(spot, way) => {
                    screen.focus(spot);
                    screen.command(ScreenCommand::Go(way));
                }
            }
            ui.ctx().request_repaint();
        }
        if let Some(text) = screen.take_copied() {
            ui.ctx().copy_text(text);
        }
        if screen.is_moving() {
            ui.ctx().request_repaint();
        }
    }
}

/// Whether a screen reader listens, which is told of what is out of sight too.
fn is_read_aloud(ui: &Ui) -> bool {
    let node = ui.ctx().accesskit_node_builder(ui.unique_id(), |_| ());
    node.is_some()
}

/// Text of an input method or of the clipboard, for where the player types.
fn take_text(ui: &Ui, screen: &mut ControlsScreen) {
    if !screen.is_typing() {
        return;
    }
    let events = ui.input(|i| i.events.clone());
    for event in events {
        match event {
            egui::Event::Ime(egui::ImeEvent::Commit(text)) | egui::Event::Paste(text) => {
                screen.type_text(&text);
            }
            egui::Event::Ime(egui::ImeEvent::Preedit { text, .. }) => screen.compose(&text),
            _ => {}
        }
    }
}

fn draw(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView) {
    let all = ui.available_rect_before_wrap();
    let is_wide = all.width() >= WITH_DETAILS;
    titles(pen, ui, view, is_wide);
    tools(pen, ui, view, all.height());
    let body = Rect::from_min_max(
        pos2(all.left(), ui.cursor().top()),
        pos2(all.right(), all.bottom() - size::HINTS),
    );
    // A board has all the width, and the pad stands beside its rows where there is room.
    let has_details = is_wide && view.board.is_none();
    let pad = view.pad.as_ref();
    let (beside, above) = if is_wide { (pad, None) } else { (None, pad) };
    let side = match (has_details, beside.is_some()) {
        (true, true) => DETAILS[1].max(all.width() * 0.4),
        (true, false) if all.width() >= WIDE => DETAILS[1],
        (true, false) => DETAILS[0],
        (false, _) => 0.0,
    };
    // Where there is no room beside the page, what is most wanted of it stands below.
    let has_foot = !is_wide && view.board.is_none() && all.height() >= WITH_FOOT;
    let foot = if has_foot { DETAILS_BELOW } else { 0.0 };
    let mut page = Rect::from_min_max(body.min, pos2(body.right() - side, body.bottom() - foot));
    let is_part = pen.measured.is_part();
    if is_part && !view.columns.is_empty() {
        let line = Rect::from_min_size(page.min, vec2(page.width(), size::ITEM));
        let mut line = ui.new_child(egui::UiBuilder::new().max_rect(line));
        crate::rows::devices(pen, &mut line, view);
        page.min.y += size::ITEM + size::ROWS;
    }
    let mut inner = ui.new_child(egui::UiBuilder::new().max_rect(page));
    ScrollArea::vertical()
        .id_salt("page")
        .auto_shrink(false)
        .show(&mut inner, |ui| {
            // Room for the ring around the first item, and beside the bar.
            ui.add_space(4.0);
            ui.set_max_width(ui.available_width() - 12.0);
            if let Some(pad) = above {
                crate::pad::draw(pen, ui, pad, page.height());
            }
            if let Some(touch) = &view.touch {
                crate::touch::picture(pen, ui, touch, page.height());
            }
            crate::rows::sections(pen, ui, view);
            if let Some(board) = &view.board {
                crate::board::draw(pen, ui, board);
            }
            if !has_details {
                notes(pen, ui, view);
            }
        });
    if is_part != pen.measured.is_part() {
        // Its line has to come, or to go.
        ui.ctx().request_repaint();
    }
    if has_details {
        let rect = Rect::from_min_max(pos2(page.right() + 2.0, body.top()), body.max);
        crate::details::draw(pen, ui, view, beside, rect);
    }
    if has_foot {
        let rect = Rect::from_min_max(pos2(body.left(), page.bottom()), body.max);
        crate::details::below(pen, ui, view, rect);
    }
    ring(pen, ui, page, has_details);
    let foot = Rect::from_min_max(pos2(all.left(), body.bottom()), all.max);
    let mut below = ui.new_child(egui::UiBuilder::new().max_rect(foot));
    footer(pen, &mut below, view);
    if let Some(shown) = &view.dialog {
        let room = Rect::from_min_max(all.min, pos2(all.right(), body.bottom()));
        crate::dialog::draw(pen, ui, shown, view.message.as_deref(), room);
        ring(pen, ui, page, false);
    }
    ui.advance_cursor_after_rect(all);
}

/// Where the player is: a ring, and the cord that ties it to what can be known of it.
fn ring(pen: &mut Pen<'_>, ui: &Ui, page: Rect, is_tied: bool) {
    let Some(rect) = pen.ring.take() else {
        return;
    };
    let look = pen.look;
    let (painter, stroke) = (ui.painter(), Stroke::new(3.0, look.here));
    let rect = rect.expand(2.0);
    painter.rect_stroke(rect, ROUND + 3.0, stroke, StrokeKind::Outside);
    if is_tied && page.contains(rect.center()) {
        let from = pos2(rect.right() - ROUND, rect.bottom() + 1.5);
        let to = pos2(page.right() + 2.0, from.y);
        painter.line_segment([from, to], stroke);
        painter.rect_filled(Rect::from_center_size(to, vec2(10.0, 10.0)), 3.0, look.here);
    }
}

/// What the screen is, its pages, and whose it is.
fn titles(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView, is_wide: bool) {
    let room = vec2(ui.available_width(), size::TITLES);
    let (_, rect) = ui.allocate_space(room);
    let profile = RichText::new(&view.profile)
        .size(size::SMALL)
        .color(pen.look.quiet);
    let profile = egui::Label::new(profile).truncate();
    let at_end = if is_wide { 180.0 } else { 0.0 };
    let mut line = ui.new_child(
        egui::UiBuilder::new()
            .max_rect(Rect::from_min_max(
                rect.min,
                pos2(rect.right() - at_end, rect.bottom()),
            ))
            .layout(egui::Layout::left_to_right(Align::Center)),
    );
    ScrollArea::horizontal()
        .id_salt("pages")
        .show(&mut line, |ui| {
            if is_wide {
                let title = RichText::new(&view.title)
                    .size(size::HEADING)
                    .color(pen.look.text);
                ui.add(egui::Label::new(title).extend());
                ui.add_space(size::MARGIN);
            }
            for page in &view.pages {
                let width = pen.width(ui, page);
                let rect = pen.item(ui, page, width);
                if pen.follows && matches!(page.role, Role::Tab { selected: true }) {
                    // With something of its neighbours, so that there is seen to be more.
                    ui.scroll_to_rect(rect.expand2(vec2(NEIGHBOUR, 0.0)), None);
                }
                ui.add_space(size::PAD);
            }
        });
    if is_wide {
        let end = Rect::from_min_max(pos2(rect.right() - at_end, rect.top()), rect.max);
        let mut end = ui.new_child(
            egui::UiBuilder::new()
                .max_rect(end)
                .layout(egui::Layout::right_to_left(Align::Center)),
        );
        end.add(profile);
    }
    let below = Stroke::new(pen.look.line, pen.look.hair);
    ui.painter().hline(
        ui.ctx().content_rect().x_range(),
        rect.bottom() + 1.0,
        below,
    );
    ui.add_space(size::ROWS);
}

/// What can be done with the page at the start, and what is done with all that was changed at the end.
fn tools(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView, height: f32) {
    let at_end = |item: &&Item| {
        let ends = [Tool::Undo, Tool::Redo, Tool::Apply, Tool::Leave];
        matches!(item.spot, Spot::Tool(tool) if ends.contains(&tool))
    };
    let (ends, starts): (Vec<&Item>, Vec<&Item>) = view.tools.iter().partition(at_end);
    let width = |pen: &Pen<'_>, ui: &Ui, items: &[&Item]| -> f32 {
        items
            .iter()
            .map(|item| pen.width(ui, item) + size::GAP)
            .sum()
    };
    let room = ui.available_width();
    let (start, end) = (width(pen, ui, &starts), width(pen, ui, &ends));
    if start + end <= room {
        ui.horizontal(|ui| {
            for item in starts {
                let width = pen.width(ui, item);
                pen.item(ui, item, width);
            }
            ui.add_space((room - start - end).max(0.0));
            for item in ends {
                let width = pen.width(ui, item);
                pen.item(ui, item, width);
            }
        });
    } else if height > 560.0 && end < room * 0.6 {
        // What is done with the changes stays where it is, whatever stands before it.
        let (left, top) = (ui.cursor().left(), ui.cursor().top());
        ui.allocate_ui(vec2(room - end - size::GAP, 0.0), |ui| {
            let starts: Vec<Item> = starts.into_iter().cloned().collect();
            wrapped(pen, ui, &starts);
        });
        let mut at = pos2(left + room - end, top);
        for item in ends {
            let rect = Rect::from_min_size(at, vec2(pen.width(ui, item), size::ITEM));
            pen.item_in(ui, item, rect);
            at.x += rect.width() + size::GAP;
        }
    } else if height > 560.0 {
        wrapped(pen, ui, &view.tools);
    } else {
        // With little room, the buttons stand in one line that is scrolled.
        ScrollArea::horizontal()
            .id_salt("tools")
            .show(ui, |ui| line(pen, ui, &view.tools));
    }
    ui.add_space(size::ROWS);
}

fn line(pen: &mut Pen<'_>, ui: &mut Ui, items: &[Item]) {
    ui.horizontal(|ui| {
        for item in items {
            let width = pen.width(ui, item);
            pen.item(ui, item, width);
        }
    });
}

pub(crate) fn wrapped(pen: &mut Pen<'_>, ui: &mut Ui, items: &[Item]) {
    let room = ui.available_width();
    ui.horizontal_wrapped(|ui| {
        for item in items {
            let width = pen.width(ui, item).min(room);
            pen.item(ui, item, width);
        }
    });
}

/// A line below what was drawn last.
pub(crate) fn hair(pen: &Pen<'_>, ui: &Ui) {
    let (x, y) = (
        ui.max_rect().x_range(),
        ui.cursor().top() - size::ROWS / 2.0,
    );
    let line = Stroke::new(pen.look.line, pen.look.hair);
    ui.painter().hline(x, y, line);
}

pub(crate) fn heading(pen: &Pen<'_>, ui: &mut Ui, text: &str) {
    if !text.is_empty() {
        ui.add_space(size::GAP);
        ui.label(RichText::new(text).size(size::HEADING).color(pen.look.text));
        hair(pen, ui);
    }
}

pub(crate) fn quiet(pen: &Pen<'_>, text: &str) -> egui::Label {
    let text = RichText::new(text).size(size::SMALL).color(pen.look.quiet);
    egui::Label::new(text).wrap()
}

pub(crate) fn notes(pen: &Pen<'_>, ui: &mut Ui, view: &ScreenView) {
    for note in &view.notes {
        if note.heading {
            heading(pen, ui, &note.text);
            continue;
        }
        let color = if note.conflict {
            pen.look.conflict
        } else {
            pen.look.text
        };
        let text = RichText::new(&note.text).size(size::SMALL).color(color);
        ui.add(egui::Label::new(text).wrap());
    }
}

/// What works the screen; the last thing to be told has its place for a while.
fn footer(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView) {
    let line = Stroke::new(pen.look.line, pen.look.hair);
    let rect = ui.max_rect();
    ui.painter()
        .hline(ui.ctx().content_rect().x_range(), rect.top() + 2.0, line);
    ui.add_space(size::ROWS);
    let message = view.message.as_deref().filter(|_| view.dialog.is_none());
    if let Some(message) = message {
        // In one line, or small in two: it has no more room than the hints.
        let fits = pen.measure(ui, message, size::TEXT) <= ui.available_width();
        let points = if fits { size::TEXT } else { size::TINY };
        return told(pen, ui, message, points);
    }
    ScrollArea::horizontal().id_salt("hints").show(ui, |ui| {
        ui.horizontal_centered(|ui| {
            for hint in &view.hints {
                let chord = hint.input.into();
                let (glyphs, layout, words) = (&mut *pen.glyphs, pen.layout, pen.words);
                if !crate::prompt::chord(ui, &chord, glyphs, layout, words, 22.0) {
                    ui.label(RichText::new(&hint.name).size(size::SMALL).strong());
                }
                ui.add(quiet(pen, &hint.does).extend());
                ui.add_space(10.0);
            }
        });
    });
}

/// What was refused, and why: heard by a screen reader as it appears.
pub(crate) fn told(pen: &Pen<'_>, ui: &mut Ui, message: &str, points: f32) {
    let text = RichText::new(message).size(points).color(pen.look.conflict);
    let response = ui.add(egui::Label::new(text).wrap());
    ui.ctx().accesskit_node_builder(response.id, |node| {
        node.set_role(egui::Role::Alert);
        node.set_live(egui::accesskit::Live::Assertive);
    });
}
