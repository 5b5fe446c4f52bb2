//! The menu, drawn from the draft's rows; no rule lives here.

use eframe::egui::{self, Color32, RichText, Ui};
use swap_knot::{Chord, Column, ColumnKind, MenuCell, MenuRow, Reset, Settle};

use crate::app::{App, Busy};

const TEXT: Color32 = Color32::from_rgb(222, 226, 230);
const CHANGED: Color32 = Color32::from_rgb(255, 205, 110);
const CONFLICT: Color32 = Color32::from_rgb(255, 140, 120);
const CELL: egui::Vec2 = egui::vec2(170.0, 24.0);

/// What the player did in this frame, carried out once everything is drawn.
enum Did {
    Listen(swap_knot::Cell),
    Unbind(swap_knot::Cell),
    Reset(Reset),
    Answer(Settle),
    Apply,
    Discard,
    Undo,
    Redo,
    GoTo(swap_knot::SituationId),
    Find,
    ShowAll,
    /// Whether to apply before the window closes.
    Leave(bool),
    Stay,
}

pub(crate) fn draw(app: &mut App, ui: &mut Ui) {
    let mut did = None;
    ui.visuals_mut().override_text_color = Some(TEXT);
    egui::Panel::top("head").show(ui, |ui| head(app, ui, &mut did));
    egui::Panel::bottom("stage")
        .exact_size(230.0)
        .show(ui, |ui| {
            let prompt = app.prompt();
            app.report.state("prompt", &prompt);
            ui.add_space(6.0);
            ui.label(RichText::new(prompt).size(17.0).strong());
            ui.add_space(4.0);
            app.stage.draw(ui, &app.seat);
        });
    egui::Panel::right("side")
        .exact_size(400.0)
        .show(ui, |ui| side(app, ui, &mut did));
    egui::CentralPanel::default().show(ui, |ui| {
        egui::ScrollArea::vertical().show(ui, |ui| rows(app, ui, &mut did));
    });
    if let Some(did) = did {
        carry_out(app, ui.ctx(), did);
    }
}

fn carry_out(app: &mut App, ctx: &egui::Context, did: Did) {
    match did {
        Did::Listen(cell) => app.listen(cell),
        Did::Unbind(cell) => {
            if let Err(refusal) = app.draft.unbind(cell) {
                app.message = refusal.to_string();
            }
        }
        Did::Reset(what) => app.draft.reset(what),
        Did::Answer(settle) => app.answer(settle),
        Did::Apply => app.apply(),
        Did::Discard => app.draft.discard(),
        Did::Undo => {
            app.draft.undo();
        }
        Did::Redo => {
            app.draft.redo();
        }
        Did::GoTo(situation) => app.go_to(situation),
        Did::Find => app.find(),
        Did::ShowAll => {
            app.search.clear();
            app.on = None;
        }
        Did::Leave(apply) => {
            app.busy = Busy::Nothing;
            match apply {
                true => app.apply(),
                false => app.draft.discard(),
            }
            // What could not be applied is still there to be mended.
            if !app.draft.is_changed() {
                ctx.send_viewport_cmd(egui::ViewportCommand::Close);
            }
        }
        Did::Stay => app.busy = Busy::Nothing,
    }
}

/// A button that says where it stands.
fn button(app: &mut App, ui: &mut Ui, enabled: bool, text: &str, id: &str) -> bool {
    let response = ui.add_enabled(enabled, egui::Button::new(text));
    app.report.place(id, response.rect);
    response.clicked()
}

fn head(app: &mut App, ui: &mut Ui, did: &mut Option<Did>) {
    ui.add_space(6.0);
    ui.horizontal(|ui| {
        ui.heading(app.sheet.title());
        ui.separator();
        let free = matches!(app.busy, Busy::Nothing);
        let changed = app.draft.is_changed();
        if button(app, ui, free && changed, "Apply", "apply") {
            *did = Some(Did::Apply);
        }
        if button(app, ui, free && changed, "Discard", "discard") {
            *did = Some(Did::Discard);
        }
        let (undo, redo) = (app.draft.can_undo(), app.draft.can_redo());
        if button(app, ui, free && undo, "Undo", "undo") {
            *did = Some(Did::Undo);
        }
        if button(app, ui, free && redo, "Redo", "redo") {
            *did = Some(Did::Redo);
        }
        let resettable = free && !app.profile().is_unchanged();
        if button(app, ui, resettable, "Reset all", "reset-all") {
            *did = Some(Did::Reset(Reset::All));
        }
        ui.separator();
        let layout = app.seat.rig().layout().name().to_owned();
        app.report.state("layout", &layout);
        ui.label(format!(
            "layout {layout}, playing with the {}",
            app.seat.device_kind()
        ));
        ui.separator();
        let places: Vec<_> = (app.sheet.situations())
            .map(|(id, s)| (id, s.title.clone(), s.name.clone()))
            .collect();
        for (id, title, name) in places {
            let here = app.seat.situations().contains(&id);
            let response = ui.selectable_label(here, title);
            app.report.place(&format!("go {name}"), response.rect);
            if response.clicked() {
                *did = Some(Did::GoTo(id));
            }
        }
    });
    ui.add_space(4.0);
}

/// The search: by name, or by pressing an input.
fn search(app: &mut App, ui: &mut Ui, did: &mut Option<Did>) {
    ui.horizontal(|ui| {
        let field = egui::TextEdit::singleline(&mut app.search).hint_text("Search by name");
        let response = ui.add(field.desired_width(220.0));
        app.report.place("search", response.rect);
        app.typing = response.has_focus();
        let free = matches!(app.busy, Busy::Nothing);
        if button(app, ui, free, "What is on this key?", "find") {
            *did = Some(Did::Find);
        }
        if let Some(on) = &app.on {
            let name = named(Some(on), app);
            ui.label(format!("on {name}"));
        }
        let filtered = app.on.is_some() || !app.search.is_empty();
        if filtered && button(app, ui, free, "Show all", "show-all") {
            *did = Some(Did::ShowAll);
        }
    });
}

fn rows(app: &mut App, ui: &mut Ui, did: &mut Option<Did>) {
    search(app, ui, did);
    ui.add_space(4.0);
    let columns: Vec<Column> = app.menu.columns().to_vec();
    let mut rows: Vec<MenuRow> = app.menu.search(&app.draft, &app.search).cloned().collect();
    if let Some(on) = &app.on {
        let cells = app.draft.cells_on(on);
        rows.retain(|r| cells.iter().any(|c| c.row == r.row));
    }
    app.report.state("rows", &rows.len().to_string());
    if rows.is_empty() {
        ui.label("Nothing here.");
    }
    egui::Grid::new("rows")
        .striped(true)
        .spacing([8.0, 5.0])
        .show(ui, |ui| {
            ui.label("");
            for column in &columns {
                ui.label(RichText::new(column_title(*column)).weak());
            }
            ui.end_row();
            let mut group = None;
            for row in &rows {
                if group.replace(row.group) != Some(row.group) {
                    ui.label(
                        RichText::new(&app.sheet.group(row.group).title)
                            .strong()
                            .size(16.0),
                    );
                    ui.end_row();
                }
                let must = if row.essential { " *" } else { "" };
                ui.label(format!("{}{must}", row.title));
                for cell in &row.cells {
                    draw_cell(app, ui, cell, did);
                }
                let changed = row
                    .cells
                    .iter()
                    .any(|c| c.origin == swap_knot::Origin::Profile);
                let id = format!("reset {}", app.sheet.row_name(row.row));
                if changed && button(app, ui, matches!(app.busy, Busy::Nothing), "Reset", &id) {
                    *did = Some(Did::Reset(Reset::Action(row.row.action)));
                }
                ui.end_row();
            }
        });
}

fn column_title(column: Column) -> String {
    let kind = match column.kind {
        ColumnKind::Keyboard => "Keyboard and mouse",
        ColumnKind::Gamepad => "Gamepad",
        ColumnKind::Touch => "Touch",
        ColumnKind::Other => "Other",
    };
    match column.number {
        1 => kind.to_owned(),
        n => format!("{kind}, {n}"),
    }
}

fn draw_cell(app: &mut App, ui: &mut Ui, cell: &MenuCell, did: &mut Option<Did>) {
    let listening = matches!(&app.busy, Busy::Listening(c, _) if *c == cell.cell);
    let text = match (&cell.chord, listening) {
        (_, true) => "press a key…".to_owned(),
        (Some(chord), _) => app.draft.chord_name(chord),
        (None, _) => "—".to_owned(),
    };
    let mut rich = RichText::new(text.clone());
    if cell.conflict {
        rich = rich.color(CONFLICT).strong();
    } else if cell.changed {
        rich = rich.color(CHANGED);
    }
    let free = matches!(app.busy, Busy::Nothing) && cell.can_bind;
    let button = egui::Button::new(rich).selected(listening).min_size(CELL);
    let response = ui.add_enabled(free || listening, button);
    let name = format!("{} {}", app.sheet.row_name(cell.cell.row), cell.cell.column);
    app.report.place(&format!("cell {name}"), response.rect);
    app.report.state(&format!("cell {name}"), &text);
    if free && response.clicked() {
        *did = Some(Did::Listen(cell.cell));
    }
    if free && response.secondary_clicked() && cell.chord.is_some() {
        *did = Some(Did::Unbind(cell.cell));
    }
}

fn side(app: &mut App, ui: &mut Ui, did: &mut Option<Did>) {
    ui.add_space(8.0);
    match &app.busy {
        Busy::Nothing => {
            ui.label(
                RichText::new("Click a cell to change it, right-click it to unbind it.").weak(),
            );
            ui.label(RichText::new("* always keeps a binding.").weak());
        }
        Busy::Listening(cell, listener) => {
            let title = app.sheet.row_title(cell.row).to_owned();
            ui.heading(format!("Press the new input for {title}"));
            let held: Vec<String> = listener.held().iter().map(|i| app.name_of(*i)).collect();
            if !held.is_empty() {
                ui.label(format!("{} + …", held.join(" + ")));
            }
            ui.label(RichText::new("Escape leaves it as it is.").weak());
        }
        Busy::Finding(_) => {
            ui.heading("Press an input to see what is on it");
            ui.label(RichText::new("Escape shows everything again.").weak());
        }
        Busy::Asking(_) => question(app, ui, did),
        Busy::Leaving => leaving(app, ui, did),
    }
    if !app.message.is_empty() {
        ui.label(RichText::new(app.message.clone()).color(CHANGED));
    }
    ui.add_space(8.0);
    let conflicts = app.draft.conflicts();
    let open = conflicts.iter().filter(|c| c.class.is_conflict());
    for conflict in open {
        let text = conflict.describe(&app.sheet);
        ui.label(RichText::new(format!("Conflict: {text}")).color(CONFLICT));
    }
    let summary = app.draft.summary();
    if !summary.is_empty() && !matches!(app.busy, Busy::Leaving) {
        ui.label(RichText::new("Not applied yet").strong());
        for line in summary {
            ui.label(line);
        }
    }
}

fn named(chord: Option<&Chord>, app: &App) -> String {
    chord.map_or_else(|| "nothing".to_owned(), |c| app.draft.chord_name(c))
}

/// Unsaved changes, asked about before the window closes.
fn leaving(app: &mut App, ui: &mut Ui, did: &mut Option<Did>) {
    ui.heading("Leave with these changes?");
    for line in app.draft.summary() {
        ui.label(line);
    }
    ui.horizontal(|ui| {
        if button(app, ui, true, "Apply and leave", "leave-apply") {
            *did = Some(Did::Leave(true));
        }
        if button(app, ui, true, "Discard and leave", "leave-discard") {
            *did = Some(Did::Leave(false));
        }
        if button(app, ui, true, "Stay", "stay") {
            *did = Some(Did::Stay);
        }
    });
}

fn question(app: &mut App, ui: &mut Ui, did: &mut Option<Did>) {
    let Busy::Asking(question) = &app.busy else {
        return;
    };
    let question = question.clone();
    let Some(conflict) = question.conflict() else {
        return;
    };
    let title = |cell: swap_knot::Cell| app.sheet.row_title(cell.row).to_owned();
    let other = title(conflict.second.cell);
    let chord = named(Some(question.chord()), app);
    ui.heading(format!("{chord} is taken by {other}"));
    ui.add_space(4.0);
    for way in question.ways() {
        let label = match way.settle {
            Settle::Swap => "Swap",
            Settle::Take => "Take it",
            Settle::Share => "Share it",
            Settle::BackOut => "Back out",
        };
        let offered = way.refused.is_none();
        let id = format!("way {}", way.settle.word());
        let lines: Vec<String> = match &way.refused {
            Some(why) => vec![why.to_string()],
            None if way.effects.is_empty() => vec!["Nothing changes.".to_owned()],
            None => (way.effects.iter())
                .map(|e| app.draft.describe(e))
                .collect(),
        };
        if button(app, ui, offered, label, &id) {
            *did = Some(Did::Answer(way.settle));
        }
        for line in lines {
            ui.label(RichText::new(line).weak());
        }
        ui.add_space(4.0);
    }
}
