//! The controls screen, drawn: no rule, text or state of it lives here.

use egui::{
    Align, Color32, Frame, Margin, Rect, RichText, ScrollArea, Stroke, StrokeKind, Ui, pos2, vec2,
};
use swap_knot::screen::{
    ControlsScreen, Item, Live, Role, RowView, ScreenCommand, ScreenView, Section, Spot,
};

use crate::look::{Look, size};
use crate::pen::{Act, LIVE, Pen};
use crate::{GlyphTextures, Pack};

/// How wide a binding is: as wide as it wants, but at least so, where there is little room.
const CELL: f32 = 88.0;
/// How wide it is at most, and a cell that is free.
const WIDEST: f32 = 240.0;
const FREE: f32 = 44.0;
/// How wide a title is at least and at most, where the row stands in one line.
const TITLE: [f32; 2] = [160.0, 230.0];
/// From this width on, what is not applied yet stands beside the page.
const WITH_SIDE: f32 = 1150.0;
const SIDE: f32 = 290.0;

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
            told: if self.focus == focus {
                self.told
            } else {
                focus
            },
            follows: self.focus != focus && !is_pointed_at,
        };
        Frame::new()
            .fill(look.ground)
            .inner_margin(Margin::same(10))
            .show(ui, |ui| {
                ui.set_min_size(ui.available_size());
                ui.visuals_mut().override_text_color = Some(look.text);
                ui.spacing_mut().item_spacing = vec2(size::GAP, size::GAP);
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
    line(pen, ui, &view.pages);
    // With little room, the buttons stand in one line that is scrolled.
    match all.height() > 460.0 {
        true => wrapped(pen, ui, &view.tools),
        false => {
            ScrollArea::horizontal()
                .id_salt("tools")
                .show(ui, |ui| line(pen, ui, &view.tools));
        }
    }
    let hints = hints_height(view);
    let body = Rect::from_min_max(
        pos2(all.left(), ui.cursor().top()),
        pos2(all.right(), all.bottom() - hints),
    );
    let is_wide = all.width() >= WITH_SIDE;
    let has_side = is_wide && !view.notes.is_empty() && view.dialog.is_none();
    // The pad stands beside its rows where there is room, so that it stays in view.
    let pad = view.pad.as_ref();
    let (beside, above) = if is_wide { (pad, None) } else { (None, pad) };
    let side = match (beside.is_some(), has_side) {
        (true, _) => SIDE.max(all.width() * 0.4),
        (false, true) => SIDE,
        (false, false) => 0.0,
    };
    let page = Rect::from_min_max(body.min, pos2(body.right() - side, body.bottom()));
    let mut inner = ui.new_child(egui::UiBuilder::new().max_rect(page));
    ScrollArea::vertical()
        .id_salt("page")
        .auto_shrink(false)
        .show(&mut inner, |ui| {
            // Room for the ring around the first item.
            ui.add_space(4.0);
            if let Some(pad) = above {
                crate::pad::draw(pen, ui, pad, page.height());
            }
            if let Some(touch) = &view.touch {
                crate::touch::picture(pen, ui, touch, page.height());
            }
            sections(pen, ui, view);
            if let Some(board) = &view.board {
                crate::board::draw(pen, ui, board);
            }
            if !has_side {
                notes(pen, ui, view);
            }
        });
    if has_side || beside.is_some() {
        let rect = Rect::from_min_max(pos2(page.right() + 12.0, body.top()), body.max);
        let mut aside = ui.new_child(egui::UiBuilder::new().max_rect(rect));
        ScrollArea::vertical()
            .id_salt("side")
            .auto_shrink(false)
            .show(&mut aside, |ui| {
                if let Some(pad) = beside {
                    crate::pad::draw(pen, ui, pad, page.height());
                }
                if has_side {
                    notes(pen, ui, view);
                }
            });
    }
    let foot = Rect::from_min_max(pos2(all.left(), body.bottom()), all.max);
    let mut below = ui.new_child(egui::UiBuilder::new().max_rect(foot));
    footer(pen, &mut below, view);
    if let Some(shown) = &view.dialog {
        let room = Rect::from_min_max(
            pos2(all.left(), all.top()),
            pos2(all.right(), all.bottom() - hints),
        );
        crate::dialog::draw(pen, ui, shown, view.message.as_deref(), room);
    }
    ui.advance_cursor_after_rect(all);
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

fn heading(pen: &Pen<'_>, ui: &mut Ui, text: &str) {
    if !text.is_empty() {
        ui.add_space(size::GAP);
        ui.label(
            RichText::new(text)
                .size(size::HEADING)
                .strong()
                .color(pen.look.text),
        );
    }
}

pub(crate) fn quiet(pen: &Pen<'_>, text: &str) -> egui::Label {
    let text = RichText::new(text).size(size::SMALL).color(pen.look.quiet);
    egui::Label::new(text).wrap()
}

/// How wide titles are with so much room.
fn title_width(room: f32) -> f32 {
    (room * 0.2).clamp(TITLE[0], TITLE[1])
}

/// How wide the cells in each place of a row are; none where they do not fit beside the title.
fn cell_widths(pen: &Pen<'_>, ui: &Ui, view: &ScreenView) -> Option<Vec<f32>> {
    let cells: u16 = view.columns.iter().map(|c| c.span).sum();
    let mut widths = vec![FREE; usize::from(cells)];
    let rows = view.sections.iter().flat_map(|s| &s.rows);
    for item in rows.flat_map(|r| &r.items) {
        if let Some(width) = widths.get_mut(usize::from(item.place)) {
            *width = width.max(wanted(pen, ui, item));
        }
    }
    let room = ui.available_width()
        - title_width(ui.available_width())
        - 16.0
        - f32::from(cells) * size::GAP;
    let least = |w: &f32| w.min(CELL);
    let (all, most): (f32, f32) = (widths.iter().sum(), widths.iter().map(least).sum());
    if most > room || widths.is_empty() {
        return None;
    }
    // What is too wide in all is taken from what is wider than it has to be.
    let share = ((room - most) / (all - most).max(1.0)).min(1.0);
    let width = |w: f32| least(&w) + (w - least(&w)) * share;
    Some(widths.into_iter().map(width).collect())
}

/// How wide a binding wants to be.
fn wanted(pen: &Pen<'_>, ui: &Ui, item: &Item) -> f32 {
    let Role::Binding { chord, .. } = &item.role else {
        return FREE;
    };
    let name = pen.measure(ui, &item.label, size::TEXT);
    match chord {
        None => name + 2.0 * size::PAD,
        Some(chord) if chord.device_kind() == swap_knot::DeviceKind::Touch => {
            (name + 2.0 * size::PAD + 8.0).min(WIDEST)
        }
        Some(chord) => {
            let glyphs = chord.inputs().count() as f32 * (size::GLYPH * 1.3 + 5.0);
            let on_keys = chord.device_kind() == swap_knot::DeviceKind::Keyboard;
            let name = if on_keys { 30.0 } else { name + 8.0 };
            (glyphs + name + 2.0 * size::PAD).min(WIDEST)
        }
    }
}

fn sections(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView) {
    let widths = cell_widths(pen, ui, view);
    if let Some(widths) = &widths {
        let mut widths = widths.iter();
        ui.horizontal(|ui| {
            ui.add_space(title_width(ui.available_width()) + size::GAP);
            for column in &view.columns {
                let own = widths.by_ref().take(usize::from(column.span));
                let room = vec2(own.map(|w| w + size::GAP).sum::<f32>() - size::GAP, 22.0);
                ui.allocate_ui_with_layout(
                    room,
                    egui::Layout::left_to_right(Align::Center),
                    |ui| {
                        ui.set_min_width(room.x);
                        ui.add(quiet(pen, &column.title).truncate());
                    },
                );
            }
        });
    }
    for section in &view.sections {
        draw_section(pen, ui, view, section, widths.as_deref());
    }
}

fn draw_section(
    pen: &mut Pen<'_>,
    ui: &mut Ui,
    view: &ScreenView,
    section: &Section,
    widths: Option<&[f32]>,
) {
    heading(pen, ui, &section.title);
    if let Some(text) = &section.text {
        ui.add(quiet(pen, text));
    }
    for row in &section.rows {
        match (widths, view.columns.is_empty()) {
            (Some(widths), false) => binding_row(pen, ui, row, widths),
            (None, false) => stacked_row(pen, ui, view, row),
            _ if row.items.is_empty() => told_row(pen, ui, row),
            _ => {
                let fill = match row.lit {
                    true => pen.look.lit,
                    false => Color32::TRANSPARENT,
                };
                let lit = Frame::new().fill(fill).corner_radius(5);
                lit.show(ui, |ui| setting_row(pen, ui, row));
            }
        }
    }
}

fn title(pen: &Pen<'_>, row: &RowView) -> egui::Label {
    let must = if row.essential { " *" } else { "" };
    let text = RichText::new(format!("{}{must}", row.title))
        .size(size::TEXT)
        .color(pen.look.text);
    egui::Label::new(text).wrap()
}

/// Title and cells in one line, each cell under its column.
fn binding_row(pen: &mut Pen<'_>, ui: &mut Ui, row: &RowView, widths: &[f32]) {
    ui.horizontal(|ui| {
        let width = title_width(ui.available_width());
        row_title(pen, ui, row, vec2(width, size::ITEM));
        let left = ui.cursor().left();
        let (_, room) = ui.allocate_space(vec2(ui.available_width(), size::ITEM));
        for item in &row.items {
            let at = usize::from(item.place);
            let before: f32 = widths[..at].iter().map(|w| w + size::GAP).sum();
            let from = pos2(left + before, room.top());
            let rect = Rect::from_min_size(from, vec2(widths[at], size::ITEM));
            pen.item_in(ui, item, rect);
        }
    });
}

fn row_title(pen: &Pen<'_>, ui: &mut Ui, row: &RowView, room: egui::Vec2) {
    let centred = egui::Layout::left_to_right(Align::Center);
    ui.allocate_ui_with_layout(room, centred, |ui| {
        ui.set_width(room.x);
        ui.add(title(pen, row));
    });
}

/// Title above, and below it the cells of each kind of device.
fn stacked_row(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView, row: &RowView) {
    ui.add_space(size::GAP);
    ui.add(title(pen, row));
    let mut from = 0;
    let room = ui.available_width();
    for column in &view.columns {
        let places = from..from + column.span;
        from = places.end;
        let items: Vec<&Item> = row
            .items
            .iter()
            .filter(|i| places.contains(&i.place))
            .collect();
        if items.is_empty() {
            continue;
        }
        ui.add(quiet(pen, &column.title));
        ui.horizontal_wrapped(|ui| {
            for item in items {
                let width = wanted(pen, ui, item).max(FREE).min(room);
                pen.item(ui, item, width);
            }
        });
    }
}

/// Title, what is set, and what the device says right now.
fn setting_row(pen: &mut Pen<'_>, ui: &mut Ui, row: &RowView) {
    /// Numbers beside each other are squeezed to so much of what they want, not further.
    const LEAST: f32 = 0.9;
    let title_room = if row.items.len() > 1 { TITLE[1] } else { 310.0 };
    let wish = |pen: &Pen<'_>, ui: &Ui, item: &Item| pen.width(ui, item).clamp(120.0, 420.0);
    let all: f32 = (row.items.iter())
        .map(|item| wish(pen, ui, item) + size::GAP)
        .sum();
    let is_number = |item: &Item| matches!(item.role, Role::Slider { .. });
    let are_numbers = row.items.len() > 1 && row.items.iter().all(is_number);
    let share = ((ui.available_width() - title_room - 12.0) / all).min(1.0);
    let narrow = ui.available_width() < 640.0 || (are_numbers && share < LEAST);
    let share = if are_numbers && !narrow { share } else { 1.0 };
    let draw = |pen: &mut Pen<'_>, ui: &mut Ui| {
        let live = row.live.map_or(0.0, |_| LIVE.x + 12.0);
        let room = ui.available_width() - live;
        for item in &row.items {
            let width = (wish(pen, ui, item) * share).min(room);
            let width = if row.items.len() == 1 {
                width.max(330.0_f32.min(room))
            } else {
                width
            };
            pen.item(ui, item, width);
        }
        if let Some(live) = row.live {
            draw_live(pen, ui, live);
        }
        if let Some(text) = &row.text {
            ui.add(quiet(pen, text));
        }
    };
    if narrow {
        ui.add(title(pen, row));
        ui.horizontal_wrapped(|ui| draw(pen, ui));
    } else {
        ui.horizontal(|ui| {
            row_title(pen, ui, row, vec2(title_room, size::ITEM));
            draw(pen, ui);
        });
    }
}

/// A row in which there is nothing to choose: lit while it is worked, and then in view.
fn told_row(pen: &Pen<'_>, ui: &mut Ui, row: &RowView) {
    let fill = if row.lit {
        pen.look.lit
    } else {
        Color32::TRANSPARENT
    };
    let shown = Frame::new()
        .fill(fill)
        .corner_radius(5)
        .inner_margin(Margin::symmetric(6, 1));
    let shown = shown.show(ui, |ui| {
        ui.horizontal(|ui| {
            let height = if row.live.is_some() { LIVE.y } else { 26.0 };
            // What is told alone has all the room.
            let is_alone = row.live.is_none() && row.text.is_none();
            let most = if is_alone { f32::INFINITY } else { TITLE[1] };
            let width = most.min(ui.available_width());
            row_title(pen, ui, row, vec2(width, height));
            if let Some(live) = row.live {
                draw_live(pen, ui, live);
            }
            if let Some(text) = &row.text {
                ui.add(quiet(pen, text));
            }
        });
    });
    if row.lit && !ui.clip_rect().contains_rect(shown.response.rect) {
        shown.response.scroll_to_me(None);
    }
}

/// A stick in its dead zone, or how far something is in.
fn draw_live(pen: &Pen<'_>, ui: &mut Ui, live: Live) {
    let look = pen.look;
    let (_, rect) = ui.allocate_space(LIVE);
    let edge = Stroke::new(look.line.max(1.5), look.edge);
    let painter = ui.painter();
    match live {
        Live::Stick { at, inner, outer } => {
            let (middle, radius) = (rect.center(), rect.height() / 2.0);
            painter.circle(middle, radius, look.raised, edge);
            painter.circle_stroke(middle, radius * outer, Stroke::new(1.0, look.edge));
            painter.circle(
                middle,
                radius * inner,
                look.item,
                Stroke::new(1.0, look.quiet),
            );
            let dot = middle + vec2(at[0], -at[1]) * radius;
            let beyond = at[0].hypot(at[1]) > inner;
            let color = if beyond { look.focus } else { look.quiet };
            painter.circle(dot, 4.5, color, Stroke::new(1.0, look.ground));
        }
        Live::Pull { at, mark } => {
            let bar = rect.shrink2(vec2(0.0, 11.0));
            painter.rect(bar, 3.0, look.raised, edge, StrokeKind::Inside);
            let color = if at >= mark { look.focus } else { look.quiet };
            let done = Rect::from_min_size(bar.min, vec2(bar.width() * at, bar.height()));
            painter.rect_filled(done, 3.0, color);
            let x = bar.left() + bar.width() * mark;
            painter.vline(x, rect.y_range().shrink(6.0), Stroke::new(2.0, look.text));
        }
        _ => {}
    }
}

fn notes(pen: &Pen<'_>, ui: &mut Ui, view: &ScreenView) {
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

fn hints_height(view: &ScreenView) -> f32 {
    let message = if view.message.is_some() && view.dialog.is_none() {
        28.0
    } else {
        0.0
    };
    message + 30.0
}

/// The last thing to be told, and what works the screen.
fn footer(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView) {
    if let Some(message) = view.message.as_deref().filter(|_| view.dialog.is_none()) {
        told(pen, ui, message);
    }
    ScrollArea::horizontal().id_salt("hints").show(ui, |ui| {
        ui.horizontal(|ui| {
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
pub(crate) fn told(pen: &Pen<'_>, ui: &mut Ui, message: &str) {
    let text = RichText::new(message)
        .size(size::TEXT)
        .color(pen.look.changed);
    let response = ui.add(egui::Label::new(text).wrap());
    ui.ctx().accesskit_node_builder(response.id, |node| {
        node.set_role(egui::Role::Alert);
        node.set_live(egui::accesskit::Live::Assertive);
    });
}
