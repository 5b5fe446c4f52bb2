//! A small stage, and the whole controls screen over it: Escape opens it.
//!
//! `cargo run --release -p remap_window`; `--profiles DIR` keeps profiles there instead of in the
//! user's configuration folder, `--language TAG` tells everything in that language. `--touch` shows
//! on-screen buttons and sticks, as a finger on the screen does; `--touch mouse` makes the mouse a finger.
//! `--report` and `--simulate` are for tests: what is shown as lines of text, and devices that are not
//! there.

mod stage;
mod testing;
mod touch;

use std::error::Error;
use std::sync::mpsc::{Receiver, channel};
use std::time::Instant;

use eframe::egui;
use swap_knot::{
    Controls, Event, EventKind, Layout, Locker, Marks, PadButton, Place, Sheet, Slug, Time, Words,
};
use swap_knot_egui::{Fonts, GlyphTextures, Pack, ScreenSkin};

/// The folder of the demo game.
const DEMO: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");
const SHEET: &str = include_str!("../../../demo/slack-water.toml");

struct App {
    controls: Controls,
    skin: ScreenSkin,
    glyphs: GlyphTextures,
    stage: stage::Stage,
    touch: touch::Touch,
    events: Receiver<Event>,
    started: Instant,
    /// For which keyboard fonts were looked for: another one has other letters.
    fonts_for: Option<Layout>,
    report: Option<testing::Report>,
    notes: String,
}

fn main() -> Result<(), Box<dyn Error>> {
    let args: Vec<String> = std::env::args().skip(1).collect();
    let value = |name: &str| args.iter().skip_while(|a| *a != name).nth(1).cloned();
    let has = |name: &str| args.iter().any(|a| a == name);
    let sheet = Sheet::from_toml_named(SHEET, "demo/slack-water.toml")?;
    let locker = match value("--profiles") {
        Some(folder) => Locker::open(folder)?,
        None => Locker::of_user(&sheet)?,
    };
    let layout = swap_knot_winit::system_layout().unwrap_or_else(Layout::us);
    let mut controls = Controls::open_last(&sheet, locker, &Slug::from_title("skipper"), &layout);
    controls.set_words(&words(&value("--language").unwrap_or_default())?);
    let marks = Marks::from_toml(include_str!("../../../demo/marks.toml"), "demo/marks.toml")?;
    controls.set_marks(&marks);
    let pack = Pack::open(format!("{DEMO}/glyphs"))?.with_marks(&marks, DEMO);
    let (send, events) = channel();
    let started = Instant::now();
    let app = App {
        stage: stage::Stage::new(&sheet).ok_or("the sheet lacks an action of the stage")?,
        controls,
        touch: touch::Touch::new(value("--touch").as_deref(), has("--touch")),
        skin: ScreenSkin::new().with_pack(pack.clone()),
        glyphs: GlyphTextures::new().with_pack(pack),
        events,
        started,
        fonts_for: None,
        report: has("--report").then(testing::Report::default),
        notes: String::new(),
    };
    let size = egui::ViewportBuilder::default().with_inner_size([1280.0, 800.0]);
    let viewport = size.with_title("Slack Water").with_position([0.0, 0.0]);
    let options = eframe::NativeOptions {
        viewport,
        ..Default::default()
    };
    let event_loop = winit::event_loop::EventLoop::with_user_event().build()?;
    let (simulate, simulated) = (has("--simulate"), send.clone());
    let start: eframe::AppCreator<'_> = Box::new(move |cc| {
        if simulate {
            testing::simulate(simulated, started, cc.egui_ctx.clone());
        }
        Ok(Box::new(app))
    });
    let window = eframe::create_native("slack-water", options, start, &event_loop);
    let feed = move |event| {
        let _ = send.send(event);
    };
    event_loop.run_app(&mut swap_knot_winit::HeardWindow::new(
        window, started, feed,
    ))?;
    Ok(())
}

/// Escape and the pad's middle button open the controls.
fn opens_screen(event: &Event) -> bool {
    match event.what {
        EventKind::Key { place, down, .. } => place == Place::Escape && down,
        EventKind::PadButton { button, value } => button == PadButton::Center && value > 0.5,
        _ => false,
    }
}

/// The words of the nearest language, with the game's own titles and prompts in it.
fn words(language: &str) -> Result<Words, Box<dyn Error>> {
    let words = Words::nearest(language);
    let tag = words.language().to_owned();
    let file = format!("{DEMO}/texts/{tag}.ftl");
    Ok(words.with_texts(&std::fs::read_to_string(&file)?, &file)?)
}

impl App {
    /// The screen while it is open, otherwise a widget under the pointer, otherwise the game.
    fn take_in(&mut self, ctx: &egui::Context, now: Time) {
        for event in self.events.try_iter().collect::<Vec<_>>() {
            if self.touch.takes(&event) {
                continue;
            }
            let open = self.controls.screen().is_some();
            let mut opens = false;
            self.controls.offer(&event, |event, _| {
                opens |= opens_screen(event);
                !open && swap_knot_egui::wants(ctx, event)
            });
            if opens && !open {
                self.controls.open_screen(event.at);
            }
        }
        self.touch.take_in(ctx, &mut self.controls, now);
    }

    /// Keeps what was applied, and shows what there is to tell.
    fn keep(&mut self) {
        if let Some(saving) = self.controls.saving() {
            let done = saving.run();
            self.controls.saved(done);
            testing::say(&self.report, "saved");
        }
        let reports = self.controls.take_reports();
        if !reports.is_empty() {
            self.notes = self.controls.telling().lines(&reports).join("\n");
        }
    }

    fn find_fonts(&mut self, ctx: &egui::Context) {
        let layout = self.controls.resolver().layout().clone();
        if self.fonts_for.replace(layout.clone()) != Some(layout.clone()) {
            let fonts = Fonts::new(egui::FontDefinitions::default());
            let fonts = fonts.for_player(self.controls.words(), &layout);
            fonts
                .warning()
                .into_iter()
                .for_each(|warning| eprintln!("warning: {warning}"));
            fonts.install(ctx);
        }
    }
}

impl eframe::App for App {
    fn ui(&mut self, ui: &mut egui::Ui, _: &mut eframe::Frame) {
        let ctx = ui.ctx().clone();
        let now = Time::from(self.started.elapsed());
        self.take_in(&ctx, now);
        self.controls.tick(now);
        self.keep();
        self.find_fonts(&ctx);
        self.stage
            .play(self.controls.seat(), ctx.input(|i| i.stable_dt.min(0.1)));
        let closes = ctx.input(|i| i.viewport().close_requested());
        match self.controls.screen_mut() {
            Some(screen) => {
                if closes && screen.draft().is_changed() {
                    // Closing the window with unsaved changes asks.
                    ctx.send_viewport_cmd(egui::ViewportCommand::CancelClose);
                    screen.ask_to_leave();
                }
                self.skin.show(ui, screen);
            }
            None => {
                egui::CentralPanel::default().show(ui, |ui| stage::show(ui, self, now));
            }
        }
        self.touch.draw(&ctx, &self.controls);
        if let Some(report) = &mut self.report {
            for (name, rect) in self.touch.places() {
                report.place(&format!("on-screen {name}"), rect);
            }
            report.frame(&mut self.controls, &self.skin);
        }
        if !self.controls.seat().inputs_down().is_empty() || self.stage.moves() {
            ctx.request_repaint();
        }
    }
}
