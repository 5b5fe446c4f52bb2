//! The controls screen, drawn: no rule, text or state of it lives here.

use egui::{
    Align, Color32, Frame, Margin, Rect, RichText, ScrollArea, Stroke, StrokeKind, Ui, pos2, vec2,
};
use swap_knot::screen::{
    ControlsScreen, Item, Live, Role, RowView, ScreenCommand, ScreenView, Section, Spot, Tool,
};

use crate::look::{Look, size};
use crate::pen::{Act, LIVE, Pen};
use crate::{GlyphTextures, Pack};

/// How wide what the whole of an action works is, where others in its place do not want more.
const CELL: f32 = 72.0;
/// How wide its name is at most, and a cell that is free.
const WIDEST: f32 = 200.0;
const FREE: f32 = 32.0;
/// How wide a title is at least and at most, where the row stands in one line.
const TITLE: [f32; 2] = [140.0, 250.0];
/// From this width on, what is to be known of an item stands beside the page: so wide, or so where there is
/// more room than that.
const WITH_DETAILS: f32 = 1000.0;
const WIDE: f32 = 1550.0;
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
            ring: None,
            told: if self.focus == focus {
                self.told
            } else {
                focus
            },
            follows: self.focus != focus && !is_pointed_at,
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
    let page = Rect::from_min_max(body.min, pos2(body.right() - side, body.bottom()));
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
            sections(pen, ui, view);
            if let Some(board) = &view.board {
                crate::board::draw(pen, ui, board);
            }
            if !has_details {
                notes(pen, ui, view);
            }
        });
    if has_details {
        let rect = Rect::from_min_max(pos2(page.right() + 2.0, body.top()), body.max);
        crate::details::draw(pen, ui, view, beside, rect);
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
    let Some((rect, round)) = pen.ring.take() else {
        return;
    };
    let look = pen.look;
    let (painter, stroke) = (ui.painter(), Stroke::new(3.0, look.here));
    let rect = rect.expand(2.0);
    painter.rect_stroke(rect, round + 3.0, stroke, StrokeKind::Outside);
    if is_tied && page.contains(rect.center()) {
        let from = pos2(rect.right() - round, rect.bottom() + 1.5);
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
                pen.item(ui, page, width);
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
fn hair(pen: &Pen<'_>, ui: &Ui) {
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

/// How wide titles are with so much room: as wide as the longest, if that is not too much.
fn title_width(pen: &Pen<'_>, ui: &Ui, view: &ScreenView) -> f32 {
    let rows = view.sections.iter().flat_map(|s| &s.rows);
    let widths = rows.map(|row| pen.measure(ui, &title_of(row), size::TEXT));
    let most = (ui.available_width() * 0.3).clamp(TITLE[0], TITLE[1]);
    widths.fold(TITLE[0], f32::max).ceil().min(most)
}

fn title_of(row: &RowView) -> String {
    let must = if row.essential { " *" } else { "" };
    format!("{}{must}", row.title)
}

/// How wide the cells in each place of a row are; none where they do not fit beside the title.
fn cell_widths(pen: &Pen<'_>, ui: &Ui, view: &ScreenView, title: f32) -> Option<Vec<f32>> {
    let cells: u16 = view.columns.iter().map(|c| c.span).sum();
    let mut widths = vec![[FREE; 2]; usize::from(cells)];
    let rows = view.sections.iter().flat_map(|s| &s.rows);
    for item in rows.flat_map(|r| &r.items) {
        if let Some(width) = widths.get_mut(usize::from(item.place)) {
            let own = wanted(pen, ui, item);
            *width = [0, 1].map(|n| width[n].max(own[n]));
        }
    }
    let room = ui.available_width() - title - 16.0 - f32::from(cells) * size::GAP;
    let sum = |n: usize| widths.iter().map(|w| w[n]).sum::<f32>();
    let (least, wish) = (sum(0), sum(1));
    if least > room || widths.is_empty() {
        return None;
    }
    // What is too wide in all is taken from what is wider than it has to be.
    let share = ((room - least) / (wish - least).max(1.0)).min(1.0);
    let width = |[least, wish]: [f32; 2]| least + (wish - least) * share;
    Some(widths.into_iter().map(width).collect())
}

/// How wide a binding has to be at least, with its text small and in two lines, and how wide it wants to be.
fn wanted(pen: &Pen<'_>, ui: &Ui, item: &Item) -> [f32; 2] {
    let Role::Binding { chord, .. } = &item.role else {
        return [FREE; 2];
    };
    let least = pen.least(ui, &item.short);
    let wish = pen.measure(ui, &item.short, size::CELL).max(least);
    let manner = item.manner.as_ref();
    let manner = manner.map_or(0.0, |m| pen.measure(ui, m, size::SMALL) + size::GAP);
    let around = manner + 2.0 * size::PAD + 2.0;
    match chord {
        // It lies over the free place behind it, too.
        None if item.by_whole => {
            let least = (least + around - FREE).max(FREE);
            [least, wish.min(CELL).max(least)]
        }
        None => [wish + around; 2],
        Some(chord) if chord.device_kind() == swap_knot::DeviceKind::Touch => {
            [least + around, wish + around]
        }
        Some(chord) => {
            let glyphs = chord.inputs().count() as f32 * (size::GLYPH * 1.3 + 5.0);
            match chord.device_kind() == swap_knot::DeviceKind::Keyboard {
                true => [glyphs + around; 2],
                false => [least, wish.min(WIDEST)].map(|name| glyphs + name + around),
            }
        }
    }
}

fn sections(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView) {
    let title = title_width(pen, ui, view);
    let widths = cell_widths(pen, ui, view, title);
    if let Some(widths) = &widths {
        let mut widths = widths.iter();
        ui.horizontal(|ui| {
            ui.add_space(title + size::GAP);
            for column in &view.columns {
                let own = widths.by_ref().take(usize::from(column.span));
                let room = vec2(own.map(|w| w + size::GAP).sum::<f32>() - size::GAP, 22.0);
                let (_, room) = ui.allocate_space(room);
                pen.fitted(ui, room, &column.title, pen.look.quiet);
            }
        });
    }
    for section in &view.sections {
        draw_section(
            pen,
            ui,
            view,
            section,
            widths.as_deref().map(|w| (title, w)),
        );
    }
}

fn draw_section(
    pen: &mut Pen<'_>,
    ui: &mut Ui,
    view: &ScreenView,
    section: &Section,
    widths: Option<(f32, &[f32])>,
) {
    heading(pen, ui, &section.title);
    if let Some(text) = &section.text {
        ui.add(quiet(pen, text));
    }
    for row in &section.rows {
        match (widths, view.columns.is_empty()) {
            (Some((title, widths)), false) => binding_row(pen, ui, row, title, widths),
            (None, false) => stacked_row(pen, ui, view, row),
            _ if row.items.is_empty() => told_row(pen, ui, row),
            _ => setting_row(pen, ui, row),
        }
    }
}

fn title(pen: &Pen<'_>, row: &RowView) -> egui::Label {
    let color = match row.lit && row.items.is_empty() {
        true => pen.look.on_lit,
        false => pen.look.text,
    };
    let text = RichText::new(title_of(row)).size(size::TEXT).color(color);
    egui::Label::new(text).wrap()
}

/// More about a row; filled where that says what is so now.
fn more(pen: &Pen<'_>, ui: &mut Ui, row: &RowView) {
    let Some(text) = &row.text else { return };
    if row.lit && !row.items.is_empty() {
        let text = RichText::new(text).size(size::SMALL).color(pen.look.on_lit);
        let filled = Frame::new().fill(pen.look.lit).corner_radius(6);
        let inside = Margin::symmetric(size::PAD as i8, 2);
        filled
            .inner_margin(inside)
            .show(ui, |ui| ui.add(egui::Label::new(text).wrap()));
    } else {
        ui.add(quiet(pen, text));
    }
}

/// Title and cells in one line, each cell under its column.
fn binding_row(pen: &mut Pen<'_>, ui: &mut Ui, row: &RowView, title: f32, widths: &[f32]) {
    let behind = ui.painter().add(egui::Shape::Noop);
    let drawn = ui.horizontal(|ui| {
        row_title(pen, ui, row, vec2(title, size::ITEM));
        let left = ui.cursor().left();
        let (_, room) = ui.allocate_space(vec2(ui.available_width(), size::ITEM));
        for item in &row.items {
            let at = usize::from(item.place);
            let before: f32 = widths[..at].iter().map(|w| w + size::GAP).sum();
            let from = pos2(left + before, room.top());
            // What the whole works is told over all places of its devices.
            let beyond = match item.by_whole {
                true => widths.get(at + 1..).map_or(0.0, |w| w.iter().take(1).sum()),
                false => 0.0,
            };
            let rect = Rect::from_min_size(from, vec2(widths[at] + beyond, size::ITEM));
            pen.item_in(ui, item, rect);
        }
    });
    if row.items.iter().any(|item| item.focused) {
        let row = drawn.response.rect.expand2(vec2(6.0, size::ROWS / 2.0));
        let raised = egui::Shape::rect_filled(row, 4.0, pen.look.raised);
        ui.painter().set(behind, raised);
    }
    hair(pen, ui);
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
                let width = match item.by_whole {
                    true => pen.measure(ui, &item.short, size::CELL) + 2.0 * size::PAD + 1.0,
                    false => wanted(pen, ui, item)[1].max(FREE),
                };
                let width = width.min(room);
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
        more(pen, ui, row);
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
                look.cell,
                Stroke::new(1.0, look.quiet),
            );
            let dot = middle + vec2(at[0], -at[1]) * radius;
            let beyond = at[0].hypot(at[1]) > inner;
            let color = if beyond { look.here } else { look.quiet };
            painter.circle(dot, 4.5, color, Stroke::new(1.0, look.ground));
        }
        Live::Pull { at, mark } => {
            let bar = rect.shrink2(vec2(0.0, 11.0));
            painter.rect(bar, 3.0, look.raised, edge, StrokeKind::Inside);
            let color = if at >= mark { look.here } else { look.quiet };
            let done = Rect::from_min_size(bar.min, vec2(bar.width() * at, bar.height()));
            painter.rect_filled(done, 3.0, color);
            let x = bar.left() + bar.width() * mark;
            painter.vline(x, rect.y_range().shrink(6.0), Stroke::new(2.0, look.text));
        }
        _ => {}
    }
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
        return told(pen, ui, message);
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
pub(crate) fn told(pen: &Pen<'_>, ui: &mut Ui, message: &str) {
    let text = RichText::new(message)
        .size(size::TEXT)
        .color(pen.look.conflict);
    let response = ui.add(egui::Label::new(text).wrap());
    ui.ctx().accesskit_node_builder(response.id, |node| {
        node.set_role(egui::Role::Alert);
        node.set_live(egui::accesskit::Live::Assertive);
    });
}
