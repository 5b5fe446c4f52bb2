//! The window's state: the game's seat, the menu over its draft, and where the profile is kept.

use std::error::Error;
use std::path::Path;
use std::sync::mpsc::Receiver;
use std::time::Instant;

use eframe::egui;
use swap_knot::{
    CarriedOver, Draft, Edge, Event, Layout, LayoutLearner, Locker, Profile, Prompt, Resolver, Row,
    Seat, Sheet, Slug, Telling, Time,
};
use swap_knot_egui::{Fonts, GlyphTextures, MenuNews, RemapMenu};

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
    draft: Draft,
    seat: Seat,
    menu: RemapMenu,
    glyphs: GlyphTextures,
    report: Report,
    stage: Stage,
    learner: LayoutLearner,
    locker: Locker,
    name: Slug,
    prompts: Vec<(swap_knot::SituationId, Prompt)>,
    incoming: Incoming,
    /// Events of devices that are not there.
    simulated: Receiver<Event>,
    started: Instant,
    last_frame: Time,
    /// Whether fonts have to be looked for: another language or keyboard has other letters.
    wants_fonts: bool,
    /// What became of loading and saving.
    notes: String,
    /// The profile as it is in the locker.
    kept: Profile,
}

/// How the window is started.
pub(crate) struct Options<'a> {
    pub(crate) folder: &'a Path,
    pub(crate) report: bool,
    pub(crate) texts: Texts,
}

impl App {
    pub(crate) fn new(
        options: &Options<'_>,
        incoming: Incoming,
        simulated: Receiver<Event>,
        started: Instant,
    ) -> Result<App, Box<dyn Error>> {
        let sheet = Sheet::from_toml_named(SHEET, "demo/slack-water.toml")?;
        let words = &options.texts.words;
        let locker = Locker::open(options.folder)?;
        let name = Slug::from_title("skipper");
        let loaded = locker.load(&name);
        let chosen = loaded.profile.layout().and_then(Layout::shipped);
        // The player's choice, else what the system says, else what most games are made on.
        let layout = chosen.or_else(swap_knot_winit::system_layout);
        let layout = layout.unwrap_or_else(Layout::us);
        // A profile of an older version of the game is brought along, and what that did is told.
        let carried = CarriedOver::new(&sheet, &loaded.profile, &layout);
        let on = Resolver::from(&layout);
        let telling = Telling::new(words, &sheet, &on);
        let notes = [telling.tell(&loaded), telling.tell(&carried)];
        let mut draft = Draft::new(&sheet, carried.profile, &layout);
        draft.set_words(words);
        let mut prompts = Vec::new();
        for situation in PROMPTS {
            let id = sheet.find_situation(situation);
            let id = id.ok_or_else(|| format!("the sheet has no situation {situation}"))?;
            let text = options.texts.get(&format!("at-{situation}"))?;
            let prompt = Prompt::new(&text, &sheet)?.with_words(words);
            prompts.push((id, prompt));
        }
        Ok(App {
            seat: Seat::new(draft.rig()),
            menu: RemapMenu::new(&draft),
            glyphs: GlyphTextures::new(),
            stage: Stage::new(&sheet).ok_or("the sheet lacks an action of the stage")?,
            draft,
            report: Report::new(options.report),
            learner: LayoutLearner::new(layout),
            locker,
            name,
            prompts,
            incoming,
            simulated,
            started,
            last_frame: Time::ZERO,
            wants_fonts: true,
            notes: notes.join("\n").trim().to_owned(),
            kept: loaded.profile,
            sheet,
        })
    }

    fn now(&self) -> Time {
        Time::from(self.started.elapsed())
    }

    /// Takes in what came since the last frame: first the menu, and what it leaves the game.
    fn take_in(&mut self) {
        let mut events = std::mem::take(&mut *self.incoming.borrow_mut());
        let at = self.now();
        events.extend(self.simulated.try_iter().map(|event| Event { at, ..event }));
        for event in &events {
            self.learn(event);
            match self.menu.event(event, &mut self.draft) {
                true => self.seat.overhear(event),
                false => self.seat.feed(event),
            }
        }
    }

    /// Carries out what happened in the menu.
    fn hear(&mut self, ctx: &egui::Context, news: MenuNews) {
        match news {
            MenuNews::Listening(cell) => self.report.say(match cell {
                Some(_) => "listening",
                None => "finding",
            }),
            MenuNews::Heard(chord) => self.report.say(&format!("heard: {chord}")),
            MenuNews::Asks(conflict) => {
                let text = conflict.describe(&self.sheet);
                self.report.say(&format!("asks: {text}"));
            }
            MenuNews::Applied(rig) => {
                self.seat.set_rig(rig);
                self.save();
                self.report.say("applied");
            }
            MenuNews::Leave => ctx.send_viewport_cmd(egui::ViewportCommand::Close),
            MenuNews::Refused(why) => self.report.say(&format!("refused: {why}")),
            MenuNews::NotTaken(why) => self.report.say(&format!("refused: {why}")),
            _ => {}
        }
    }

    /// Keeps what was applied. What another copy of the game changed meanwhile comes in with it.
    fn save(&mut self) {
        let profile = self.draft.applied_profile();
        let saved = (self.locker).save_over(&self.name, &self.kept, &profile, &self.sheet);
        match saved {
            Ok(saved) => {
                self.notes = self.draft.tell(&saved);
                if saved.changed_elsewhere {
                    let layout = self.draft.layout().clone();
                    let words = self.draft.words().clone();
                    self.draft = Draft::new(&self.sheet, saved.profile.clone(), &layout);
                    self.draft.set_words(&words);
                    self.seat.set_rig(self.draft.rig());
                }
                self.kept = saved.profile;
            }
            Err(e) => self.notes = self.draft.tell(&e),
        }
    }

    /// Follows the player's layout: each press that says what its key types teaches one legend.
    fn learn(&mut self, event: &Event) {
        if let Some(layout) = self.learner.hear(event) {
            self.wants_fonts = true;
            self.draft.set_layout(&layout);
            let profile = self.draft.applied_profile();
            self.seat
                .set_rig(swap_knot::Rig::new(&self.sheet, &profile, &layout));
        }
    }

    fn play(&mut self) {
        let now = self.now();
        self.seat.tick(now);
        let seconds = now.since(self.last_frame).as_secs_f32().min(0.1);
        self.last_frame = now;
        self.stage.play(&self.seat, seconds);
        let began = self.seat.happened().iter();
        for happened in began.filter(|h| h.edge == Edge::Began) {
            let row = Row {
                action: happened.action,
                arm: happened.arm,
            };
            let name = self.sheet.row_name(row);
            self.report.say(&format!("began: {name}"));
        }
        self.report
            .state("doing", &self.stage.doing(&self.seat, self.draft.words()));
    }

    /// Where the player is, and with what they play.
    fn head(&mut self, ui: &mut egui::Ui) {
        ui.horizontal(|ui| {
            let words = self.draft.words().clone();
            ui.heading(words.game_title(&self.sheet));
            ui.separator();
            for (id, situation) in self.sheet.situations() {
                let here = self.seat.situations().contains(&id);
                let title = words.situation_title(&self.sheet, id);
                let response = ui.selectable_label(here, title);
                let name = format!("go {}", situation.name);
                self.report.place(&name, response.rect);
                if response.clicked() {
                    self.seat.set_situations(&[id]);
                }
            }
            ui.separator();
            let layout = self.seat.rig().layout().name().to_owned();
            let device = words.device_name(self.seat.device_kind());
            ui.weak(format!("{layout}, {device}"));
            self.report.state("layout", &layout);
        });
    }

    /// The prompts for where the player is, with glyphs, and the stage below.
    fn stage(&mut self, ui: &mut egui::Ui) {
        ui.add_space(6.0);
        let here = self.seat.situations().last().copied();
        let kind = self.seat.device_kind();
        let found = self.prompts.iter_mut().find(|(s, _)| Some(*s) == here);
        if let Some((_, prompt)) = found {
            let (layout, words) = (self.draft.layout(), self.draft.words());
            let shown = prompt.render(self.seat.rig(), kind);
            let asked = swap_knot_egui::prompt(ui, shown, &mut self.glyphs, layout, words, PROMPT);
            self.report.state("prompt", &shown.to_string());
            if let Some(row) = asked {
                self.menu.go_to(row);
            }
        }
        ui.add_space(4.0);
        self.stage.draw(ui, &self.seat, self.draft.words());
    }

    /// Says what the menu shows, for tests and for the curious.
    fn report(&mut self) {
        for (name, rect) in self.menu.places() {
            self.report.place(name, rect);
        }
        let leaving = self.menu.is_leaving();
        self.report.state("leaving", &leaving.to_string());
        let rows = self.menu.visible(&self.draft);
        self.report.state("rows", &rows.len().to_string());
        for cell in rows.iter().flat_map(|r| &r.cells) {
            let name = self.sheet.row_name(cell.cell.row);
            let listening = self.menu.listening() == Some(cell.cell);
            let text = match cell.name.as_deref() {
                _ if listening => "press…",
                name => name.unwrap_or("—"),
            };
            let what = format!("cell {name} {}", cell.cell.column);
            self.report.state(&what, text);
        }
    }
}

impl eframe::App for App {
    fn ui(&mut self, ui: &mut egui::Ui, _frame: &mut eframe::Frame) {
        let ctx = ui.ctx().clone();
        self.take_in();
        if std::mem::take(&mut self.wants_fonts) {
            let fonts = Fonts::new(egui::FontDefinitions::default());
            let fonts = fonts.for_player(self.draft.words(), self.draft.layout());
            if let Some(warning) = fonts.warning() {
                eprintln!("warning: {warning}");
            }
            fonts.install(&ctx);
        }
        self.play();
        if ctx.input(|i| i.viewport().close_requested()) && self.draft.is_changed() {
            // Leaving with unsaved changes asks, and says what has changed.
            ctx.send_viewport_cmd(egui::ViewportCommand::CancelClose);
            self.menu.ask_to_leave(&self.draft);
        }
        egui::Panel::top("head").show(ui, |ui| self.head(ui));
        egui::Panel::bottom("stage")
            .exact_size(218.0)
            .show(ui, |ui| self.stage(ui));
        let now = self.now();
        let central = egui::CentralPanel::default();
        let news = central.show(ui, |ui| {
            if !self.notes.is_empty() {
                ui.label(&self.notes);
            }
            self.menu.show(ui, &mut self.draft, now)
        });
        for news in news.inner {
            self.hear(&ctx, news);
        }
        self.report();
        let holds = !self.seat.inputs_down().is_empty();
        if holds || self.menu.is_listening() || self.stage.moves() {
            // Something moves or may time out: the next frame comes by itself.
            ctx.request_repaint();
        }
    }
}
