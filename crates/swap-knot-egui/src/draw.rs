//! The menu, drawn from the draft's rows; no rule lives here.

use egui::{Color32, Response, RichText, Sense, Stroke, StrokeKind, Ui, Vec2, vec2};
use swap_knot::{
    Cell, Chord, Column, Draft, Input, MenuCell, MenuRow, Origin, Place, Reset, Settle,
};

use crate::focus::{Focus, Tool};
use crate::menu::{Busy, RemapMenu};

const CELL: Vec2 = vec2(148.0, 28.0);
const TITLE: f32 = 190.0;
const GLYPH: f32 = 22.0;
const SIDE: f32 = 320.0;

/// The colours of the menu, in step with egui's own.
#[derive(Clone, Copy)]
struct Colors {
    changed: Color32,
    conflict: Color32,
    focus: Color32,
}

impl Colors {
    fn of(ui: &Ui) -> Colors {
        match ui.visuals().dark_mode {
            true => Colors {
                changed: Color32::from_rgb(255, 205, 110),
                conflict: Color32::from_rgb(255, 140, 120),
                focus: Color32::from_rgb(242, 184, 75),
            },
            false => Colors {
                changed: Color32::from_rgb(125, 80, 0),
                conflict: Color32::from_rgb(161, 26, 53),
                focus: Color32::from_rgb(28, 90, 150),
            },
        }
    }
}

/// What the player did with the mouse in this frame, carried out once everything is drawn.
enum Did {
    Listen(Cell),
    Unbind(Cell),
    Reset(Reset),
    Tool(Tool),
    Answer(Settle),
    Leave(bool),
    Stay,
}

pub(crate) fn draw(menu: &mut RemapMenu, ui: &mut Ui, draft: &mut Draft) {
    let mut did = None;
    tools(menu, ui, draft, &mut did);
    ui.add_space(4.0);
    let height = ui.available_height();
    let width = (ui.available_width() - SIDE - 16.0).max(200.0);
    ui.horizontal_top(|ui| {
        ui.allocate_ui(vec2(width, height), |ui| {
            ui.vertical(|ui| {
                egui::ScrollArea::both()
                    .id_salt("rows")
                    .auto_shrink(false)
                    .show(ui, |ui| rows(menu, ui, draft, &mut did));
            });
        });
        ui.separator();
        ui.vertical(|ui| {
            ui.set_width(SIDE);
            egui::ScrollArea::vertical()
                .id_salt("side")
                .show(ui, |ui| side(menu, ui, draft, &mut did));
        });
    });
    menu.follow = false;
    if let Some(did) = did {
        match did {
            Did::Listen(cell) => menu.listen(cell, draft),
            Did::Unbind(cell) => menu.unbind(cell, draft),
            Did::Reset(what) => menu.reset(what, draft),
            Did::Tool(tool) => menu.tool(tool, draft),
            Did::Answer(settle) => menu.answer(settle, draft),
            Did::Leave(apply) => menu.leave(apply, draft),
            Did::Stay => menu.stay(),
        }
        menu.shows_focus = false;
    }
}

/// A button that is worked with the mouse here and by the menu's own focus otherwise.
fn button(
    menu: &mut RemapMenu,
    ui: &mut Ui,
    enabled: bool,
    text: RichText,
    id: &str,
    focus: Focus,
) -> Response {
    let button = egui::Button::new(text).sense(Sense::CLICK);
    let response = ui.add_enabled(enabled, button);
    mark(menu, ui, &response, id, focus);
    response
}

/// Notes where something stands, and shows the focus on it.
fn mark(menu: &mut RemapMenu, ui: &Ui, response: &Response, id: &str, focus: Focus) {
    menu.places.push((id.to_owned(), response.rect));
    if menu.shows_focus && menu.focus == focus {
        let stroke = Stroke::new(2.0, Colors::of(ui).focus);
        ui.painter()
            .rect_stroke(response.rect.expand(1.5), 4.0, stroke, StrokeKind::Outside);
        if menu.follow {
            response.scroll_to_me(None);
        }
    }
}

/// The buttons above the rows, and the search field.
fn tools(menu: &mut RemapMenu, ui: &mut Ui, draft: &Draft, did: &mut Option<Did>) {
    let free = matches!(menu.busy, Busy::Nothing);
    let changed = draft.is_changed();
    let filtered = menu.on.is_some() || !menu.search.is_empty();
    ui.horizontal_wrapped(|ui| {
        for tool in Tool::ALL {
            let enabled = free
                && match tool {
                    Tool::Apply | Tool::Discard => changed,
                    Tool::Undo => draft.can_undo(),
                    Tool::Redo => draft.can_redo(),
                    Tool::ResetAll => draft.can_reset(),
                    Tool::ShowAll => filtered,
                    Tool::Search | Tool::Find => true,
                };
            if tool == Tool::Search {
                ui.separator();
                search(menu, ui, draft);
                continue;
            }
            let text = draft.words().say(&format!("menu-{}", tool.id()), &[]);
            let response = button(menu, ui, enabled, text.into(), tool.id(), Focus::Tool(tool));
            if response.clicked() {
                *did = Some(Did::Tool(tool));
            }
        }
        if let Some(on) = &menu.on {
            ui.label(draft.telling().about("menu-on", &[], on));
        }
    });
}

fn search(menu: &mut RemapMenu, ui: &mut Ui, draft: &Draft) {
    let hint = draft.words().say("menu-search", &[]);
    let field = egui::TextEdit::singleline(&mut menu.search).hint_text(hint);
    let response = ui.add(field.desired_width(170.0));
    match menu.want_typing.take() {
        Some(true) => response.request_focus(),
        Some(false) => response.surrender_focus(),
        None => {}
    }
    menu.typing = response.has_focus();
    mark(menu, ui, &response, "search", Focus::Tool(Tool::Search));
}

fn rows(menu: &mut RemapMenu, ui: &mut Ui, draft: &Draft, did: &mut Option<Did>) {
    let columns: Vec<Column> = menu.menu.columns().to_vec();
    let rows = menu.visible(draft);
    if rows.is_empty() {
        ui.label(draft.words().say("menu-nothing-here", &[]));
    }
    egui::Grid::new("rows")
        .striped(true)
        .spacing([8.0, 5.0])
        .show(ui, |ui| {
            ui.allocate_space(vec2(TITLE, 1.0));
            for column in &columns {
                ui.label(RichText::new(draft.words().column_title(*column)).weak());
            }
            ui.end_row();
            let mut group = None;
            for row in &rows {
                if group.replace(row.group) != Some(row.group) {
                    let title = draft.group_title(row.group);
                    ui.label(RichText::new(title).strong().size(16.0));
                    ui.end_row();
                }
                draw_row(menu, ui, draft, row, did);
                ui.end_row();
            }
        });
}

fn draw_row(
    menu: &mut RemapMenu,
    ui: &mut Ui,
    draft: &Draft,
    row: &MenuRow,
    did: &mut Option<Did>,
) {
    let must = if row.essential { " *" } else { "" };
    let strong = ui.visuals().strong_text_color();
    let title = format!("{}{must}", row.title);
    // A long title takes more lines, and the cells stay where they are.
    let centred = egui::Layout::left_to_right(egui::Align::Center);
    ui.allocate_ui_with_layout(vec2(TITLE, CELL.y), centred, |ui| {
        ui.set_width(TITLE);
        ui.add(egui::Label::new(RichText::new(title).color(strong)).wrap());
    });
    for cell in &row.cells {
        draw_cell(menu, ui, draft, cell, did);
    }
    let own = row.cells.iter().any(|c| c.origin == Origin::Profile);
    if own {
        let text = draft.words().say("menu-reset", &[]);
        let free = matches!(menu.busy, Busy::Nothing);
        let id = format!("reset {}", draft.sheet().row_name(row.row));
        let response = ui.add_enabled(free, egui::Button::new(text).sense(Sense::CLICK));
        menu.places.push((id, response.rect));
        if response.clicked() {
            *did = Some(Did::Reset(Reset::Action(row.row.action)));
        }
    }
}

fn draw_cell(
    menu: &mut RemapMenu,
    ui: &mut Ui,
    draft: &Draft,
    cell: &MenuCell,
    did: &mut Option<Did>,
) {
    let colors = Colors::of(ui);
    let listening = matches!(&menu.busy, Busy::Listening(c, _) if *c == cell.cell);
    let free = matches!(menu.busy, Busy::Nothing) && cell.can_bind;
    let (rect, response) = ui.allocate_exact_size(CELL, Sense::CLICK);
    let visuals = ui.visuals();
    let look = match (listening, free) {
        (true, _) => visuals.widgets.active,
        (_, true) if response.hovered() => visuals.widgets.hovered,
        (_, true) => visuals.widgets.inactive,
        (_, false) => visuals.widgets.noninteractive,
    };
    let edge = match (cell.conflict, cell.changed) {
        (true, _) => Stroke::new(2.0, colors.conflict),
        (_, true) => Stroke::new(1.5, colors.changed),
        _ => look.bg_stroke,
    };
    ui.painter()
        .rect(rect, 4.0, look.weak_bg_fill, edge, StrokeKind::Inside);
    let inside = rect.shrink2(vec2(6.0, 3.0));
    let mut inner = ui.new_child(
        egui::UiBuilder::new()
            .max_rect(inside)
            .layout(egui::Layout::left_to_right(egui::Align::Center)),
    );
    inner.set_clip_rect(rect.intersect(ui.clip_rect()));
    // Text that can be selected would take the click that is meant for the cell.
    inner.style_mut().interaction.selectable_labels = false;
    inner.spacing_mut().item_spacing.x = 4.0;
    // A sign besides the colour, for those who do not tell the colours apart.
    if cell.conflict || cell.not_in_force.is_some() {
        inner.label(RichText::new("!").strong().color(colors.conflict));
    } else if cell.changed {
        inner.label(RichText::new("•").strong().color(colors.changed));
    }
    match (&cell.chord, listening) {
        (_, true) => {
            inner.label(draft.words().say("menu-press", &[]));
        }
        (Some(chord), _) => draw_chord(menu, &mut inner, draft, chord, cell),
        (None, _) => {
            inner.label(RichText::new("—").weak());
        }
    }
    let name = draft.sheet().row_name(cell.cell.row);
    let id = format!("cell {name} {}", cell.cell.column);
    mark(menu, ui, &response, &id, Focus::Cell(cell.cell));
    let told = spoken(draft, cell, listening);
    response.widget_info(|| egui::WidgetInfo::labeled(egui::Role::Button, free, told.clone()));
    if let Some(why) = &cell.why_not {
        response.clone().on_hover_text(draft.tell(why));
    }
    if let Some(not) = &cell.not_in_force {
        response.clone().on_hover_text(draft.tell(not));
    }
    if free && response.clicked() {
        *did = Some(Did::Listen(cell.cell));
    }
    if free && response.secondary_clicked() && cell.chord.is_some() {
        *did = Some(Did::Unbind(cell.cell));
    }
}

/// What a screen reader says for a cell: title, column and what it holds, with what is to be known
/// of it besides.
fn spoken(draft: &Draft, cell: &MenuCell, listening: bool) -> String {
    let words = draft.words();
    let title = draft.row_title(cell.cell.row);
    let column = words.column_title(cell.cell.column);
    let name = match &cell.chord {
        Some(chord) => draft.telling().spoken(chord),
        None => words.say("nothing", &[]),
    };
    let values = [("title", &*title), ("column", &column), ("name", &name)];
    let mut parts = vec![words.say("menu-cell", &values)];
    let states = [
        (listening, "cell-listening"),
        (cell.changed, "cell-changed"),
        (cell.conflict, "cell-conflict"),
        (cell.not_in_force.is_some(), "cell-not-in-force"),
        (!cell.can_bind, "cell-fixed"),
    ];
    let states = states.iter().filter(|(is_so, _)| *is_so);
    parts.extend(states.map(|(_, id)| words.say(id, &[])));
    parts
        .into_iter()
        .reduce(|first, last| {
            let (first, last) = (first.as_str(), last.as_str());
            words.say("list", &[("first", first), ("last", last)])
        })
        .unwrap_or_default()
}

/// A picture of the chord; its name besides where the picture does not carry it.
fn draw_chord(menu: &mut RemapMenu, ui: &mut Ui, draft: &Draft, chord: &Chord, cell: &MenuCell) {
    let (layout, words) = (draft.layout(), draft.words());
    let drawn = crate::prompt::chord(ui, chord, &mut menu.glyphs, layout, words, GLYPH);
    let on_keys = chord.device_kind() == swap_knot::DeviceKind::Keyboard;
    if !(drawn && on_keys) {
        let name = cell.name.clone().unwrap_or_default();
        ui.add(egui::Label::new(RichText::new(name).small()).truncate());
    }
}

fn side(menu: &mut RemapMenu, ui: &mut Ui, draft: &Draft, did: &mut Option<Did>) {
    let words = draft.words();
    let name = |place| words.short_name(Input::Key(place), draft.layout());
    match &menu.busy {
        Busy::Nothing => {
            let [choose, unbind, reset] = [Place::Enter, Place::Delete, Place::Backspace].map(name);
            let keys = words.say(
                "menu-keys",
                &[("choose", &choose), ("unbind", &unbind), ("reset", &reset)],
            );
            ui.label(RichText::new(keys).weak());
            ui.label(RichText::new(words.say("menu-essential", &[])).weak());
        }
        Busy::Listening(cell, listener) => {
            let title = draft.row_title(cell.row);
            ui.heading(words.say("menu-listen", &[("title", &title)]));
            let held: Vec<String> = listener
                .held()
                .map(|i| words.input_name(i, draft.layout()))
                .collect();
            if !held.is_empty() {
                ui.label(format!("{} + …", held.join(" + ")));
            }
            cancel_hint(ui, draft, menu.seconds_left(listener));
        }
        Busy::Finding(listener) => {
            ui.heading(words.say("menu-find-hint", &[]));
            cancel_hint(ui, draft, menu.seconds_left(listener));
        }
        Busy::Asking(_) => question(menu, ui, draft, did),
        Busy::Leaving => leaving(menu, ui, draft, did),
    }
    if !menu.message.is_empty() {
        ui.label(RichText::new(&menu.message).color(Colors::of(ui).changed));
    }
    ui.add_space(8.0);
    for conflict in draft.conflicts().iter().filter(|c| c.class.is_conflict()) {
        let text = words.say("menu-conflict", &[("text", &draft.tell(conflict))]);
        ui.label(RichText::new(text).color(Colors::of(ui).conflict));
    }
    let summary = draft.summary();
    if !summary.is_empty() && !matches!(menu.busy, Busy::Leaving) {
        ui.label(RichText::new(words.say("menu-not-applied", &[])).strong());
        for line in summary {
            ui.label(line);
        }
    }
}

fn cancel_hint(ui: &mut Ui, draft: &Draft, seconds: u64) {
    let (seconds, escape) = (seconds.to_string(), Chord::from(Input::Key(Place::Escape)));
    let hint = draft
        .telling()
        .about("menu-cancel", &[("seconds", &seconds)], &escape);
    ui.label(RichText::new(hint).weak());
}

/// Unsaved changes, asked about before the menu is left.
fn leaving(menu: &mut RemapMenu, ui: &mut Ui, draft: &Draft, did: &mut Option<Did>) {
    let words = draft.words();
    ui.heading(words.say("menu-leave", &[]));
    for line in draft.summary() {
        ui.label(line);
    }
    let answers = [
        ("leave-apply", "menu-leave-apply", Did::Leave(true)),
        ("leave-discard", "menu-leave-discard", Did::Leave(false)),
        ("stay", "menu-stay", Did::Stay),
    ];
    for (n, (id, text, answer)) in answers.into_iter().enumerate() {
        let text = words.say(text, &[]);
        if button(menu, ui, true, text.into(), id, Focus::Answer(n)).clicked() {
            *did = Some(answer);
        }
    }
}

/// A conflict and the ways out of it, each with what it would change.
fn question(menu: &mut RemapMenu, ui: &mut Ui, draft: &Draft, did: &mut Option<Did>) {
    let Busy::Asking(question) = &menu.busy else {
        return;
    };
    let question = question.clone();
    let words = draft.words();
    ui.heading(draft.tell(&*question));
    ui.add_space(4.0);
    for (n, way) in question.ways().iter().enumerate() {
        let word = way.settle.word();
        let text = words.say(&format!("menu-{word}"), &[]);
        let offered = way.refused.is_none();
        let id = format!("way {word}");
        let response = button(menu, ui, offered, text.into(), &id, Focus::Answer(n));
        if response.clicked() {
            *did = Some(Did::Answer(way.settle));
        }
        for line in draft.tell(way).lines() {
            ui.label(line);
        }
        ui.add_space(4.0);
    }
}
