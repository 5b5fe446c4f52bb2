//! The window's state: the game's seat, the menu over its draft, and where the profile is kept.

use std::error::Error;
use std::path::PathBuf;
use std::sync::mpsc::Receiver;
use std::time::Instant;

use eframe::egui;
use swap_knot::{
    Controls, Edge, Event, EventKind, Layout, Locker, PadButton, Place, Row, Sheet, SituationId,
    Slug, Time,
};
use swap_knot_egui::{Fonts, GlyphTextures, ScreenSkin};

use crate::Incoming;
use crate::report::Report;
use crate::stage::Stage;
use crate::texts::Texts;

const SHEET: &str = include_str!("../../../demo/slack-water.toml");
/// How high the glyphs in the prompts are, in points.
const PROMPT: f32 = 26.0;

/// What the player reads, by where they are.
const PROMPTS: [&str; 5] = ["deck", "helm", "crane", "chart", "pause"];

pub(crate) struct App {
    sheet: Sheet,
    controls: Controls,
    skin: ScreenSkin,
    glyphs: GlyphTextures,
    report: Report,
    stage: Stage,
    prompts: Vec<(SituationId, String)>,
    incoming: Incoming,
    /// Events of devices that are not there.
    simulated: Receiver<Event>,
    started: Instant,
    last_frame: Time,
    /// For which keyboard fonts were looked for: another one has other letters.
    fonts_for: Option<Layout>,
    /// What there was to tell last.
    notes: String,
}

/// How the window is started.
pub(crate) struct Options {
    /// Where profiles are kept, rather than where the platform keeps what a user sets.
    pub(crate) folder: Option<PathBuf>,
    pub(crate) report: bool,
    pub(crate) texts: Texts,
}

impl App {
    pub(crate) fn new(
        options: Options,
        incoming: Incoming,
        simulated: Receiver<Event>,
        started: Instant,
    ) -> Result<App, Box<dyn Error>> {
        let sheet = Sheet::from_toml_named(SHEET, "demo/slack-water.toml")?;
        let locker = match options.folder {
            Some(folder) => Locker::open(folder)?,
            None => Locker::of_user(&sheet)?,
        };
        let system = swap_knot_winit::system_layout().unwrap_or_else(Layout::us);
        let mut controls = Controls::open(&sheet, locker, &Slug::from_title("skipper"), &system);
        controls.set_words(&options.texts.words);
        let mut prompts = Vec::new();
        for situation in PROMPTS {
            let id = sheet.find_situation(situation);
            let id = id.ok_or_else(|| format!("the sheet has no situation {situation}"))?;
            let text = options.texts.get(&format!("at-{situation}"))?;
            // What is wrong with a text is told at the start.
            controls.prompt(&text)?;
            prompts.push((id, text));
        }
        Ok(App {
            skin: ScreenSkin::new(),
            glyphs: GlyphTextures::new(),
            stage: Stage::new(&sheet).ok_or("the sheet lacks an action of the stage")?,
            controls,
            report: Report::new(options.report),
            prompts,
            incoming,
            simulated,
            started,
            last_frame: Time::ZERO,
            fonts_for: None,
            notes: String::new(),
            sheet,
        })
    }

    fn now(&self) -> Time {
        Time::from(self.started.elapsed())
    }

    /// Takes in what came since the last frame. Escape, and the middle button of a pad, open the
    /// controls screen; while it is open,
    /// everything is the screen's.
    fn take_in(&mut self) {
        let mut events = std::mem::take(&mut *self.incoming.borrow_mut());
        let at = self.now();
        events.extend(self.simulated.try_iter().map(|event| Event { at, ..event }));
        for event in &events {
            let opens = match event.what {
                EventKind::Key { place, down, .. } => place == Place::Escape && down,
                EventKind::PadButton { button, value } => {
                    button == PadButton::Center && value > 0.5
                }
                _ => false,
            };
            let was_closed = self.controls.screen().is_none();
            self.controls.feed(event);
            if opens && was_closed {
                self.open(None);
            }
        }
    }

    /// Shows what there is to tell, of loading, saving or another keyboard, until something else is
    /// to be told or saved.
    fn tell(&mut self) {
        let reports = self.controls.take_reports();
        if !reports.is_empty() {
            self.notes = self.controls.telling().lines(&reports).join("\n");
        }
    }

    /// Looks for fonts that have the letters of the player's keyboard and language.
    fn find_fonts(&mut self, ctx: &egui::Context) {
        let layout = self.controls.resolver().layout().clone();
        if self.fonts_for.as_ref() == Some(&layout) {
            return;
        }
        let fonts = Fonts::new(egui::FontDefinitions::default());
        let fonts = fonts.for_player(self.controls.words(), &layout);
        if let Some(warning) = fonts.warning() {
            eprintln!("warning: {warning}");
        }
        fonts.install(ctx);
        self.fonts_for = Some(layout);
    }

    fn play(&mut self) {
        let now = self.now();
        self.controls.tick(now);
        let seconds = now.since(self.last_frame).as_secs_f32().min(0.1);
        self.last_frame = now;
        let seat = self.controls.seat();
        self.stage.play(seat, seconds);
        let began = seat.happened().iter();
        for happened in began.filter(|h| h.edge == Edge::Began) {
            let row = Row {
                action: happened.action,
                arm: happened.arm,
            };
            let name = self.sheet.row_name(row);
            self.report.say(&format!("began: {name}"));
        }
        self.report
            .state("doing", &self.stage.doing(seat, self.controls.words()));
    }

    /// Where the player is, and with what they play.
    fn head(&mut self, ui: &mut egui::Ui) {
        ui.horizontal(|ui| {
            let words = self.controls.words().clone();
            ui.heading(words.game_title(&self.sheet));
            ui.separator();
            for (id, situation) in self.sheet.situations() {
                let here = self.controls.seat().situations().contains(&id);
                let title = words.situation_title(&self.sheet, id);
                let response = ui.selectable_label(here, title);
                let name = format!("go {}", situation.name);
                self.report.place(&name, response.rect);
                if response.clicked() {
                    self.controls.seat_mut().set_situations(&[id]);
                }
            }
            ui.separator();
            let layout = self.controls.resolver().layout().name().to_owned();
            let device = words.device_name(self.controls.seat().device_kind());
            ui.weak(format!("{layout}, {device}"));
            self.report.state("layout", &layout);
        });
    }

    /// The prompts for where the player is, with glyphs, and the stage below.
    fn stage(&mut self, ui: &mut egui::Ui) {
        ui.add_space(6.0);
        let here = self.controls.seat().situations().last().copied();
        let found = self.prompts.iter().find(|(s, _)| Some(*s) == here);
        let (layout, words) = (
            self.controls.resolver().layout().clone(),
            self.controls.words().clone(),
        );
        // It was found good at the start.
        let shown = found.and_then(|(_, text)| self.controls.prompt(text).ok());
        let mut asked = None;
        if let Some(shown) = shown {
            asked = swap_knot_egui::prompt(ui, shown, &mut self.glyphs, &layout, &words, PROMPT);
            self.report.state("prompt", &shown.to_string());
        }
        if let Some(row) = asked {
            self.open(Some(row));
        }
        ui.add_space(4.0);
        self.stage.draw(ui, self.controls.seat(), &words);
    }

    /// Opens the controls screen, where a prompt showed an unbound action: on that.
    fn open(&mut self, row: Option<Row>) {
        self.controls.open_screen(self.now());
        if let (Some(screen), Some(row)) = (self.controls.screen_mut(), row) {
            screen.go_to(row);
        }
    }

    /// Keeps what was applied. What another copy of the game changed meanwhile comes in with it.
    fn save(&mut self) {
        if let Some(saving) = self.controls.saving() {
            let done = saving.run();
            self.controls.saved(done);
            self.report.say("saved");
        }
    }

    /// Says what the screen shows, for tests and for the curious.
    fn report(&mut self) {
        let is_open = self.controls.screen().is_some();
        self.report
            .state("screen", if is_open { "open" } else { "closed" });
        let Some(screen) = self.controls.screen_mut() else {
            return;
        };
        let view = screen.view();
        for item in view.items() {
            self.report.state(&item.id, &item.label);
        }
        let rows: usize = view.sections.iter().map(|s| s.rows.len()).sum();
        self.report.state("rows", &rows.to_string());
        let section = view.sections.first().map_or("", |s| &s.title);
        self.report.state("section", section);
        let dialog = view.dialog.as_ref().map_or("", |d| &d.title);
        self.report.state("dialog", dialog);
        self.report
            .state("message", view.message.as_deref().unwrap_or_default());
        let focused = view.focused().map_or("", |i| &i.id);
        self.report.state("focus", focused);
        for (name, rect) in self.skin.places() {
            self.report.place(name, rect);
        }
    }
}

impl eframe::App for App {
    fn ui(&mut self, ui: &mut egui::Ui, _frame: &mut eframe::Frame) {
        let ctx = ui.ctx().clone();
        self.take_in();
        self.tell();
        self.find_fonts(&ctx);
        self.play();
        self.save();
        let closes = ctx.input(|i| i.viewport().close_requested());
        if let Some(screen) = self.controls.screen_mut()
            && screen.draft().is_changed()
            && closes
        {
            // Leaving with unsaved changes asks, and says what has changed.
            ctx.send_viewport_cmd(egui::ViewportCommand::CancelClose);
            screen.ask_to_leave();
        }
        if let Some(screen) = self.controls.screen_mut() {
            self.skin.show(ui, screen);
        } else {
            egui::Panel::top("head").show(ui, |ui| self.head(ui));
            egui::CentralPanel::default().show(ui, |ui| {
                if !self.notes.is_empty() {
                    ui.label(&self.notes);
                }
                self.stage(ui);
            });
        }
        self.report();
        let holds = !self.controls.seat().inputs_down().is_empty();
        if holds || self.stage.moves() {
            // Something moves: the next frame comes by itself.
            ctx.request_repaint();
        }
    }
}
