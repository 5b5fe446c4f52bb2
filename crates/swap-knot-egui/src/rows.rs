//! The rows of a page: a title, and what is bound, set or told behind it.

use std::ops::Range;

use egui::{Align, Color32, Frame, Margin, Rect, RichText, Stroke, StrokeKind, Ui, pos2, vec2};
use swap_knot::screen::{Item, Live, Role, RowView, ScreenView, Section, Spot};
use swap_knot::sheet::Arm;

use crate::look::size;
use crate::pen::{Act, LIVE, Pen, ROUND};
use crate::skin::{hair, heading, quiet};

/// How wide what the whole of an action works is, where others in its place do not want more.
const CELL: f32 = 72.0;
/// How wide its name is at most, and a cell that is free.
const WIDEST: f32 = 200.0;
const FREE: f32 = 32.0;
/// How wide a title is at least and at most, where the row stands in one line.
const TITLE: [f32; 2] = [140.0, 250.0];
/// How far the directions of an action stand in below it, behind a bracket and an arrow.
const INDENT: f32 = 34.0;

/// How wide titles are with so much room: as wide as the longest, if that is not too much.
fn title_width(pen: &Pen<'_>, ui: &Ui, view: &ScreenView) -> f32 {
    let rows = view.sections.iter().flat_map(|s| &s.rows);
    let widths = rows.map(|row| pen.measure(ui, &title_of(row), size::TEXT) + indent(row));
    let most = (ui.available_width() * 0.3).clamp(TITLE[0], TITLE[1]);
    widths.fold(TITLE[0], f32::max).ceil().min(most)
}

/// What a row is called: below its action, a direction needs no more than what is its own.
fn title_of(row: &RowView) -> String {
    match (row.arm, row.essential) {
        (Some(_), _) => row.short.clone(),
        (None, true) => format!("{} *", row.title),
        (None, false) => row.title.clone(),
    }
}

/// How far the title of a row stands in.
fn indent(row: &RowView) -> f32 {
    row.arm.map_or(0.0, |_| INDENT)
}

/// How wide the cells in some places of a row are; none where they do not fit beside the title.
fn cell_widths(
    pen: &Pen<'_>,
    ui: &Ui,
    view: &ScreenView,
    title: f32,
    places: &Range<u16>,
) -> Option<Vec<f32>> {
    let cells = places.len() as u16;
    let mut widths = vec![[FREE; 2]; usize::from(cells)];
    let rows = view.sections.iter().flat_map(|s| &s.rows);
    for item in rows.flat_map(|r| &r.items) {
        let at = item.place.checked_sub(places.start);
        if let Some(width) = at.and_then(|at| widths.get_mut(usize::from(at))) {
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
        None if item.by_whole => {
            let least = least + around;
            [least, least.max(CELL)]
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

/// What was measured of a page: for as long as nothing but the focus changes, nothing else is there to be
/// measured, and what is out of sight is not laid out.
#[derive(Default)]
pub(crate) struct Measured {
    /// Which page, how wide, and at how many pixels a point.
    of: Option<(u64, [u32; 2])>,
    /// The devices that the player was on last, by their place among the columns.
    device: usize,
    title: f32,
    cells: Cells,
    /// How high each row is with all that is around it.
    heights: Vec<f32>,
}

/// The cells of a row that are shown: those of all devices, or of as many kinds as there is room for.
#[derive(Clone, Default)]
pub(crate) struct Cells {
    /// The devices, by their place among the columns.
    devices: Range<usize>,
    places: Range<u16>,
    /// How wide each of them is; none where not even those of one kind fit beside the title.
    widths: Option<Vec<f32>>,
    /// Whether there are others besides.
    is_part: bool,
}

impl Measured {
    /// Whether not all devices are shown at a time on a page.
    pub(crate) const fn is_part(&self) -> bool {
        self.cells.is_part
    }
}

impl Cells {
    /// As many as fit beside the title, from one kind of device on.
    fn of(pen: &Pen<'_>, ui: &Ui, view: &ScreenView, title: f32, first: usize) -> Cells {
        let count = view.columns.len();
        let widths = |devices: &Range<usize>| {
            let places = places_of(view, devices);
            cell_widths(pen, ui, view, title, &places)
        };
        let mut devices = 0..count;
        let mut found = widths(&devices);
        if found.is_none() && count > 1 {
            devices = first..first + 1;
            found = widths(&devices);
            while found.is_some() {
                let wider = [
                    devices.start..devices.end + 1,
                    devices.start.saturating_sub(1)..devices.end,
                ];
                let fits = wider.into_iter().find_map(|wider| {
                    let is_wider = wider != devices && wider.end <= count;
                    let widths = is_wider.then(|| widths(&wider)).flatten()?;
                    Some((wider, widths))
                });
                let Some((wider, widths)) = fits else { break };
                (devices, found) = (wider, Some(widths));
            }
        }
        Cells {
            places: places_of(view, &devices),
            widths: found,
            is_part: devices.len() < count,
            devices,
        }
    }

    fn items<'a>(&self, row: &'a RowView) -> impl Iterator<Item = &'a Item> + use<'a> {
        let places = self.places.clone();
        row.items.iter().filter(move |i| places.contains(&i.place))
    }
}

/// Where the cells of some devices stand in a row.
fn places_of(view: &ScreenView, devices: &Range<usize>) -> Range<u16> {
    let until = |n: usize| view.columns.iter().take(n).map(|c| c.span).sum();
    until(devices.start)..until(devices.end)
}

/// The devices that the player is on, by their place among the columns.
fn device_of(view: &ScreenView) -> Option<usize> {
    let rows = view.sections.iter().flat_map(|s| &s.rows);
    let on = rows.flat_map(|r| &r.items).find(|i| i.focused)?;
    let mut all = 0..view.columns.len();
    all.find(|n| places_of(view, &(*n..n + 1)).contains(&on.place))
}

pub(crate) fn sections(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView) {
    // Another game, or another language, may have fewer.
    let last = view.columns.len().saturating_sub(1);
    let device = device_of(view).unwrap_or(pen.measured.device).min(last);
    let room = [ui.available_width(), ui.ctx().pixels_per_point()];
    let of = (pen.revision, room.map(f32::to_bits));
    let shown = &pen.measured.cells.devices;
    let is_gone = !view.columns.is_empty() && !shown.contains(&device);
    if pen.measured.of != Some(of) || is_gone {
        // Those that are shown stay where they are for as long as the player is among them.
        let first = if shown.contains(&device) {
            shown.start
        } else {
            device
        };
        let title = title_width(pen, ui, view);
        let mut cells = Cells::of(pen, ui, view, title, first.min(last));
        if !cells.devices.contains(&device) {
            cells = Cells::of(pen, ui, view, title, device);
        }
        *pen.measured = Measured {
            of: Some(of),
            device,
            title,
            cells,
            heights: Vec::new(),
        };
    }
    pen.measured.device = device;
    let (title, cells) = (pen.measured.title, pen.measured.cells.clone());
    if let Some(widths) = &cells.widths
        && (!cells.is_part || cells.devices.len() > 1)
    {
        heads(pen, ui, view, title, (&cells, widths));
    }
    let mut rows_before = 0;
    for section in &view.sections {
        draw_section(pen, ui, view, (section, rows_before), (title, &cells));
        rows_before += section.rows.len();
    }
}

/// What stands over the cells of each kind of device.
fn heads(
    pen: &Pen<'_>,
    ui: &mut Ui,
    view: &ScreenView,
    title: f32,
    (cells, widths): (&Cells, &[f32]),
) {
    let mut widths = widths.iter();
    ui.horizontal(|ui| {
        ui.add_space(title + size::GAP);
        for column in view.columns.get(cells.devices.clone()).unwrap_or_default() {
            let own = widths.by_ref().take(usize::from(column.span));
            let room = vec2(own.map(|w| w + size::GAP).sum::<f32>() - size::GAP, 22.0);
            let (_, room) = ui.allocate_space(room);
            pen.fitted(ui, room, &column.title, pen.look.quiet);
        }
    });
}

/// Which devices are shown, where not all are, with a way to the next ones for whoever points;
/// who walks on to the left or right comes to them as well.
pub(crate) fn devices(pen: &mut Pen<'_>, ui: &mut Ui, view: &ScreenView) {
    let shown = pen.measured.cells.devices.clone();
    let rows = view.sections.iter().flat_map(|s| &s.rows);
    let on = rows.clone().find(|r| r.items.iter().any(|i| i.focused));
    let row = on.or(rows.clone().find(|r| !r.items.is_empty()));
    let count = view.columns.len();
    // Of several, each has its head.
    let only = view.columns.get(shown.start).filter(|_| shown.len() == 1);
    ui.horizontal(|ui| {
        for (to, way) in [(shown.start + count - 1, -1.0), (shown.end, 1.0)] {
            let to = to % count;
            let next = places_of(view, &(to..to + 1));
            let to = row.and_then(|r| r.items.iter().find(|i| next.contains(&i.place)));
            let (_, rect) = ui.allocate_space(vec2(size::ITEM, size::ITEM));
            let id = egui::Id::unique(("swap-knot devices", way > 0.0));
            let response = ui.interact(rect, id, egui::Sense::click());
            let told = if way < 0.0 {
                "devices back"
            } else {
                "devices next"
            };
            pen.places.push((told.to_owned(), rect));
            let fill = if response.hovered() {
                pen.look.hover
            } else {
                pen.look.cell
            };
            ui.painter().rect_filled(rect, ROUND, fill);
            let at = rect.center();
            let points = [
                vec2(5.0 * way, 0.0),
                vec2(-4.0 * way, -6.0),
                vec2(-4.0 * way, 6.0),
            ];
            let points = points.map(|by| at + by).to_vec();
            let arrow = egui::Shape::convex_polygon(points, pen.look.text, Stroke::NONE);
            ui.painter().add(arrow);
            if let (true, Some(item)) = (response.clicked(), to) {
                pen.acts.push(Act::Focus(item.spot));
            }
            if way < 0.0 {
                if let Some(only) = only {
                    let text = RichText::new(&only.title).size(size::TEXT);
                    ui.add(egui::Label::new(text.color(pen.look.text)));
                }
                for n in 0..count {
                    let (_, dot) = ui.allocate_space(vec2(8.0, size::ITEM));
                    let color = if shown.contains(&n) {
                        pen.look.here
                    } else {
                        pen.look.edge
                    };
                    let radius = if shown.contains(&n) { 4.0 } else { 2.5 };
                    ui.painter().circle_filled(dot.center(), radius, color);
                }
            }
        }
    });
}

/// Whether a row need not be laid out: it is as high as it was, far out of sight, and nothing of it is wanted.
fn is_skipped(pen: &Pen<'_>, ui: &mut Ui, row: &RowView, n: usize) -> bool {
    /// So much around what is in sight is laid out all the same.
    const AROUND: f32 = 200.0;
    let Some(height) = pen.measured.heights.get(n) else {
        return false;
    };
    let top = ui.cursor().top();
    let shown = ui.clip_rect().expand(AROUND);
    let is_far = top + height < shown.top() || top > shown.bottom();
    let is_wanted = pen.is_read_aloud || row.lit || row.items.iter().any(|item| item.focused);
    if is_far && !is_wanted {
        ui.add_space(*height);
    }
    is_far && !is_wanted
}

fn draw_section(
    pen: &mut Pen<'_>,
    ui: &mut Ui,
    view: &ScreenView,
    (section, rows_before): (&Section, usize),
    (title, cells): (f32, &Cells),
) {
    heading(pen, ui, &section.title);
    if let Some(text) = &section.text {
        ui.add(quiet(pen, text));
    }
    for (n, row) in section.rows.iter().enumerate() {
        let at = rows_before + n;
        if is_skipped(pen, ui, row, at) {
            continue;
        }
        let top = ui.cursor().top();
        let next = section.rows.get(n + 1);
        let goes_on = next.is_some_and(|r| r.arm.is_some());
        match (&cells.widths, view.columns.is_empty()) {
            (Some(widths), false) => {
                binding_row(pen, ui, (row, goes_on), title, (cells, widths));
            }
            (None, false) => stacked_row(pen, ui, row, cells),
            _ if row.items.is_empty() => told_row(pen, ui, row),
            _ if row
                .items
                .iter()
                .any(|i| matches!(i.spot, Spot::Profile(..))) =>
            {
                profile_row(pen, ui, row)
            }
            _ => setting_row(pen, ui, row),
        }
        if pen.measured.heights.len() == at {
            pen.measured.heights.push(ui.cursor().top() - top);
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

/// More about a row. Where the row is lit it is filled: the whole of it where there is nothing to choose, else
/// what says what is so now.
fn more(pen: &Pen<'_>, ui: &mut Ui, row: &RowView) {
    let Some(text) = &row.text else { return };
    if !row.lit {
        ui.add(quiet(pen, text));
        return;
    }
    let text = RichText::new(text).size(size::SMALL).color(pen.look.on_lit);
    // Nothing moves by being lit.
    let inside = match row.items.is_empty() {
        true => Margin::ZERO,
        false => Margin::symmetric(size::PAD as i8, 2),
    };
    let filled = Frame::new().fill(pen.look.lit).corner_radius(ROUND);
    filled
        .inner_margin(inside)
        .show(ui, |ui| ui.add(egui::Label::new(text).wrap()));
}

/// Title and cells in one line, each cell under its column.
fn binding_row(
    pen: &mut Pen<'_>,
    ui: &mut Ui,
    (row, goes_on): (&RowView, bool),
    title: f32,
    (cells, widths): (&Cells, &[f32]),
) {
    let items: Vec<&Item> = cells.items(row).collect();
    let place = |item: &Item| usize::from(item.place - cells.places.start);
    let behind = ui.painter().add(egui::Shape::Noop);
    if let Some(arm) = row.arm {
        bracket(pen, ui, arm, goes_on);
    }
    let drawn = ui.horizontal(|ui| {
        row_title(pen, ui, row, vec2(title, size::ITEM));
        let left = ui.cursor().left();
        let (_, room) = ui.allocate_space(vec2(ui.available_width(), size::ITEM));
        for (n, item) in items.iter().enumerate() {
            let at = place(item);
            let before: f32 = widths[..at].iter().map(|w| w + size::GAP).sum();
            let from = pos2(left + before, room.top());
            // What the whole works is told over all places of its devices: up to those of the next ones.
            let next = items.get(n + 1).map_or(widths.len(), |i| place(i));
            let beyond = match item.by_whole {
                true => widths[at + 1..next.max(at + 1)]
                    .iter()
                    .map(|w| w + size::GAP)
                    .sum(),
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
        ui.add_space(indent(row));
        ui.add(title(pen, row));
    });
}

/// What ties a direction to the action above it, and an arrow for the direction.
fn bracket(pen: &Pen<'_>, ui: &Ui, arm: Arm, goes_on: bool) {
    let height = size::ITEM + ui.spacing().item_spacing.y;
    let top = ui.cursor().min - vec2(0.0, ui.spacing().item_spacing.y / 2.0);
    let (x, middle) = (top.x + 5.0, top.y + height / 2.0);
    let line = Stroke::new(pen.look.line, pen.look.edge);
    let to = if goes_on { top.y + height } else { middle };
    ui.painter().vline(x, top.y..=to, line);
    ui.painter().hline(x..=x + 5.0, middle, line);
    let way = match arm {
        Arm::Left => vec2(-1.0, 0.0),
        Arm::Right => vec2(1.0, 0.0),
        Arm::Down => vec2(0.0, 1.0),
        Arm::Up => vec2(0.0, -1.0),
        // Its title says it: a picture has no third axis.
        Arm::Back | Arm::Forward => return,
    };
    let at = pos2(x + 17.0, middle);
    let points = vec![
        at + way * 5.0,
        at + way.rot90() * 5.0 - way * 4.0,
        at - way.rot90() * 5.0 - way * 4.0,
    ];
    let arrow = egui::Shape::convex_polygon(points, pen.look.quiet, Stroke::NONE);
    ui.painter().add(arrow);
}

/// Title above, and below it the cells.
fn stacked_row(pen: &mut Pen<'_>, ui: &mut Ui, row: &RowView, cells: &Cells) {
    ui.add_space(size::GAP);
    if let Some(arm) = row.arm {
        bracket(pen, ui, arm, false);
    }
    ui.horizontal(|ui| {
        ui.add_space(indent(row));
        ui.add(title(pen, row));
    });
    let room = ui.available_width();
    ui.horizontal_wrapped(|ui| {
        for item in cells.items(row) {
            let width = match item.by_whole {
                true => pen.measure(ui, &item.short, size::CELL) + 2.0 * size::PAD + 1.0,
                false => wanted(pen, ui, item)[1].max(FREE),
            };
            pen.item(ui, item, width.min(room));
        }
    });
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

/// A profile: its title, whether it is in use and what it changes, and beside that, or below it where there is
/// little room, what can be done with it.
fn profile_row(pen: &mut Pen<'_>, ui: &mut Ui, row: &RowView) {
    const LEAST: f32 = 300.0;
    let verbs: f32 = (row.items.iter())
        .map(|item| pen.width(ui, item) + size::GAP)
        .sum();
    let room = ui.available_width();
    let told = |pen: &Pen<'_>, ui: &mut Ui| {
        ui.horizontal_wrapped(|ui| {
            let title = RichText::new(&row.title).size(size::HEADING);
            ui.add(egui::Label::new(title.color(pen.look.text)));
            if let Some(mark) = &row.mark {
                let text = RichText::new(mark).size(size::SMALL).color(pen.look.ground);
                Frame::new()
                    .fill(pen.look.text)
                    .corner_radius(ROUND)
                    .inner_margin(Margin::symmetric(size::PAD as i8, 1))
                    .show(ui, |ui| ui.add(egui::Label::new(text)));
            }
        });
        ui.add(quiet(pen, row.text.as_deref().unwrap_or_default()));
    };
    ui.add_space(size::ROWS);
    if room - verbs >= LEAST {
        ui.horizontal(|ui| {
            ui.allocate_ui(vec2(room - verbs, 0.0), |ui| {
                ui.vertical(|ui| {
                    ui.set_width(room - verbs - size::GAP);
                    told(pen, ui);
                });
            });
            for item in &row.items {
                let width = pen.width(ui, item);
                pen.item(ui, item, width);
            }
        });
    } else {
        told(pen, ui);
        crate::skin::wrapped(pen, ui, &row.items);
    }
    ui.add_space(size::ROWS);
    hair(pen, ui);
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
            more(pen, ui, row);
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
