//! A small stage, and the whole controls screen over it: Escape opens it, F8 shows developers what goes
//! on, Ctrl+F8 plays without the profile. `--profiles DIR` keeps profiles there instead of in the user's
//! configuration folder, `--language TAG` tells everything in that language, `--touch` shows on-screen
//! controls also where no finger is, `--touch mouse` makes the mouse a finger, `--look light`, `strong` or
//! `harbour` shows the screen in other colours. `--report` and `--simulate` are for tests.

/// What the demo's sheet declares.
mod controls {
    swap_knot::controls!("../../demo/slack-water.toml");
}
mod stage;

use eframe::egui;
use swap_knot::{Controls, Layout, Locker, Slug, Words};
use swap_knot_egui::{Look, Overlay, Pack, PlayerUi};
use swap_knot_winit::{Heard, HeardWindow};
use window_report::Report;

const DEMO_FOLDER: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");

struct App {
    player: PlayerUi,
    stage: stage::Stage,
    heard: Heard,
    report: Report,
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let args: Vec<String> = std::env::args().skip(1).collect();
    let value = |name: &str| {
        let mut behind = args.iter().skip_while(|a| *a != name).skip(1);
        behind.next().map(String::as_str)
    };
    let has = |name: &str| args.iter().any(|a| a == name);
    let sheet = controls::sheet();
    let locker = match value("--profiles") {
        Some(folder) => Locker::open(folder)?,
        None => Locker::of_user(&sheet)?,
    };
    let layout = swap_knot_winit::system_layout().unwrap_or_else(Layout::us);
    let mut controls = Controls::open_last(&sheet, locker, &Slug::from_title("skipper"), &layout);
    let words = Words::nearest(value("--language").unwrap_or_default());
    let file = format!("{DEMO_FOLDER}/texts/{}.ftl", words.language());
    controls.set_words(&words.with_texts(&std::fs::read_to_string(&file)?, &file)?);
    let marks = include_str!("../../../demo/marks.toml");
    let marks = swap_knot::prompt::Marks::from_toml(marks, "demo/marks.toml")?;
    controls.set_marks(&marks);
    let pack = Pack::open(format!("{DEMO_FOLDER}/glyphs"))?.with_marks(&marks, DEMO_FOLDER);
    let player = PlayerUi::new(controls).with_pack(pack);
    let mut player = player.with_touch(stage::lay_out);
    let folder = value("--profiles").unwrap_or(".");
    player.overlay = Some(Overlay::new(egui::Key::F8).with_folder(folder));
    player.skin.set_look(match value("--look") {
        Some("light") => Some(Look::LIGHT),
        Some("strong") => Some(Look::STRONG),
        Some("harbour") => Some(harbour()),
        _ => None,
    });
    player.show_touch(has("--touch"), value("--touch") == Some("mouse"));
    let (ear, heard) = swap_knot_winit::ear();
    let (stage, report) = (stage::Stage::default(), Report::new(has("--report")));
    let simulated = has("--simulate").then(|| ear.clone());
    let app = App {
        player,
        stage,
        heard,
        report,
    };
    let start: eframe::AppCreator<'_> = Box::new(move |cc| {
        window_report::simulate(simulated, cc.egui_ctx.clone());
        Ok(Box::new(app))
    });
    let mut options = eframe::NativeOptions::default();
    let event_loop = winit::event_loop::EventLoop::with_user_event().build()?;
    let size = egui::ViewportBuilder::default().with_inner_size([1280.0, 800.0]);
    options.viewport = size.with_title("Slack Water").with_position([0.0, 0.0]);
    let window = eframe::create_native("slack-water", options, start, &event_loop);
    Ok(event_loop.run_app(&mut HeardWindow::new(window, ear))?)
}

/// A look of the game's own: what it changes of one that ships.
fn harbour() -> Look {
    let mut look = Look::DARK;
    look.ground = egui::Color32::from_rgb(9, 24, 38);
    look.cell = egui::Color32::from_rgb(22, 48, 66);
    look.here = egui::Color32::from_rgb(126, 226, 216);
    look
}

impl eframe::App for App {
    fn ui(&mut self, ui: &mut egui::Ui, _: &mut eframe::Frame) {
        let events = self.heard.events().inspect(|e| self.report.heard(e));
        let plays = self.player.frame(ui, events, self.heard.now());
        let controls = &mut self.player.controls;
        if let Some(saving) = controls.saving() {
            let done = saving.run();
            controls.saved(done);
            self.report.say("saved");
        }
        let seconds = ui.input(|i| i.stable_dt.min(0.1));
        self.stage.play(controls.seat(), seconds);
        if plays {
            let bare = egui::CentralPanel::default().frame(egui::Frame::NONE);
            bare.show(ui, |ui| self.show(ui));
        }
        self.report.frame(ui, &mut self.player);
    }
}

impl App {
    fn show(&mut self, ui: &mut egui::Ui) {
        let controls = &mut self.player.controls;
        let sheet = controls.seat().rig().sheet().clone();
        let here = controls.seat().situations().last().copied();
        let all = ui.max_rect();
        // The water, and over it a line at the top and a bar at the foot.
        let (mut water, top) = (
            ui.new_child(within(all)),
            all.shrink2(egui::vec2(20.0, 10.0)),
        );
        self.stage.draw(&mut water, controls.seat());
        let mut line = ui.new_child(within(top));
        line.visuals_mut().override_text_color = Some(Look::LIGHT.text);
        line.horizontal_wrapped(|ui| {
            ui.heading(controls.words().game_title(&sheet));
            for (id, situation) in sheet.situations() {
                let title = controls.words().situation_title(&sheet, id);
                let is_here = here == Some(id);
                let color = match is_here {
                    true => Look::LIGHT.on_here,
                    false => Look::LIGHT.text,
                };
                let text = egui::RichText::new(title).color(color);
                let choice = ui.selectable_label(is_here, text);
                self.report
                    .place(&format!("go {}", situation.name), choice.rect);
                if choice.clicked() {
                    controls.seat_mut().set_situations(&[id]);
                }
            }
            ui.label(controls.resolver().layout().own_name());
        });
        self.player.notices(&mut line);
        let foot = egui::Rect::from_min_max(egui::pos2(all.left(), all.bottom() - 76.0), all.max);
        ui.painter().rect_filled(foot, 0.0, Look::STRONG.ground);
        ui.painter().hline(
            foot.x_range(),
            foot.top(),
            egui::Stroke::new(3.0, Look::STRONG.text),
        );
        let mut bar = ui.new_child(within(foot.shrink2(egui::vec2(24.0, 20.0))));
        bar.visuals_mut().override_text_color = Some(Look::STRONG.text);
        if let Some(here) = here.and_then(|id| sheet.situation(id)) {
            let prompt = format!("at-{}", here.name);
            self.report.prompt(&mut self.player.controls, &prompt);
            // A situation without a prompt of its own shows none.
            let _ = self.player.prompt_of(&mut bar, &prompt, 34.0);
        }
    }
}

fn within(rect: egui::Rect) -> egui::UiBuilder {
    egui::UiBuilder::new().max_rect(rect)
}
