//! The workbench as a window.

use eframe::egui::{
    self, CentralPanel, Color32, Frame, Label, Panel, RichText, ScrollArea, Ui, vec2,
};
use swap_knot::{Controls, Input, Layout, Time};
use swap_knot_adopt::Adopted;
use swap_knot_egui::{Look, PlayerUi, Watch};
use swap_knot_winit::Heard;

use crate::bench::{Bench, Finding, findings};
use crate::pads::Pads;

/// How soon there is another picture where nothing else asks for one.
const AGAIN: std::time::Duration = std::time::Duration::from_millis(16);

/// What the larger part of the window shows.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Page {
    /// What became of the last inputs, and what began and ended.
    Outcomes,
    /// What the check finds.
    Findings,
    /// What was tuned, and what of the sheet would change.
    Adopt,
}

/// The workbench, as a window of eframe's.
pub struct Workbench {
    bench: Bench,
    player: PlayerUi,
    heard: Heard,
    pads: Pads,
    watch: Watch,
    page: Page,
    checked: Vec<Layout>,
    /// Worked out again when what is played is another one.
    found: Option<(swap_knot::Rig, Vec<Finding>)>,
    /// The same of what would be adopted, or why nothing can be.
    adopted: Option<(swap_knot::Rig, Result<Adopted, String>)>,
    /// What was pressed last, as it is written in a sheet.
    pressed: Vec<Input>,
    /// Up to when outcomes were looked at for that.
    told_until: Option<Time>,
    said: String,
}

impl Workbench {
    /// A sheet and who plays it, with what is heard of the window; checked on some layouts.
    pub fn new(bench: Bench, controls: Controls, heard: Heard, checked: Vec<Layout>) -> Workbench {
        Workbench {
            bench,
            player: PlayerUi::new(controls),
            heard,
            pads: Pads::new(),
            watch: Watch::default(),
            page: Page::Outcomes,
            checked,
            found: None,
            adopted: None,
            pressed: Vec::new(),
            told_until: None,
            said: String::new(),
        }
    }
}

impl eframe::App for Workbench {
    fn ui(&mut self, ui: &mut Ui, _: &mut eframe::Frame) {
        let now = self.heard.now();
        self.bench.follow(&mut self.player.controls);
        let pads = self.pads.events(now);
        let events = self.heard.events().chain(pads);
        let plays = self.player.frame(ui, events, now);
        // Pads wake no window, and time goes by on its line.
        ui.ctx().request_repaint_after(AGAIN);
        if !plays {
            return;
        }
        self.watch.take_in(&mut self.player.controls, now);
        self.note_pressed();
        dark(ui);
        let ground = |margin: i8| Frame::new().fill(Look::DARK.ground).inner_margin(margin);
        Panel::top("top")
            .frame(ground(8))
            .show(ui, |ui| self.top(ui, now));
        Panel::left("actions")
            .frame(ground(8).fill(Look::DARK.raised))
            .default_size(470.0)
            .show(ui, |ui| self.watch.actions(ui, &self.player.controls));
        CentralPanel::default().frame(ground(8)).show(ui, |ui| {
            ui.horizontal(|ui| {
                let problems = self.problems();
                let check = match problems {
                    0 => "Check".to_owned(),
                    n => format!("Check ({n})"),
                };
                for (page, title) in [
                    (Page::Outcomes, "What happened"),
                    (Page::Findings, &check),
                    (Page::Adopt, "Adopt"),
                ] {
                    ui.selectable_value(&mut self.page, page, title);
                }
                if ui.button("Controls screen").clicked() {
                    self.player.controls.open_screen(now);
                }
            });
            ui.separator();
            match self.page {
                Page::Outcomes => self.outcomes(ui),
                Page::Findings => self.findings(ui),
                Page::Adopt => self.adopt(ui),
            }
        });
    }
}

impl Workbench {
    /// The file, what is wrong with it, where the player is, and what was pressed.
    fn top(&mut self, ui: &mut Ui, now: Time) {
        let look = Look::DARK;
        if let Some(mistakes) = self.bench.mistakes() {
            let title = "The file has mistakes; what was there before plays on:";
            ui.label(RichText::new(title).color(look.conflict).strong());
            ScrollArea::vertical()
                .id_salt("mistakes")
                .max_height(130.0)
                .show(ui, |ui| {
                    ui.label(RichText::new(mistakes).monospace().color(look.conflict));
                });
        }
        if let Some(why) = self.bench.why_not_watched() {
            let text = format!("The file is not watched, so that it is not read again: {why}");
            ui.label(RichText::new(text).color(look.conflict));
        }
        let controls = &mut self.player.controls;
        let sheet = controls.seat().rig().sheet().clone();
        ui.horizontal_wrapped(|ui| {
            ui.label(RichText::new(controls.words().game_title(&sheet)).heading());
            let read = match self.bench.taken_up() {
                0 => String::new(),
                1 => ", read again once".to_owned(),
                n => format!(", read again {n} times"),
            };
            let file = format!("{}{read}", self.bench.file().display());
            ui.label(RichText::new(file).color(look.quiet));
        });
        ui.horizontal_wrapped(|ui| {
            ui.label(RichText::new("situations").color(look.quiet));
            let mut stack = controls.seat().situations().to_vec();
            for (id, _) in sheet.situations() {
                let title = controls.words().situation_title(&sheet, id);
                let is_on = stack.contains(&id);
                if ui.selectable_label(is_on, title).clicked() {
                    match is_on {
                        true => stack.retain(|s| *s != id),
                        false => stack.push(id),
                    }
                    controls.seat_mut().set_situations(&stack);
                }
            }
        });
        if let Some((lower, upper)) = controls.seat_mut().take_unforeseen() {
            let [lower, upper] =
                [lower, upper].map(|s| controls.words().situation_title(&sheet, s));
            self.said = format!(
                "the sheet does not let “{upper}” lie over “{lower}”: what meets there is not checked"
            );
        }
        self.watch.devices(ui, controls);
        ui.horizontal_wrapped(|ui| {
            ui.label(RichText::new("pressed").color(look.quiet));
            if self.pressed.is_empty() {
                ui.label("press something: its name in a sheet stands here, to be copied");
            }
            for input in &self.pressed {
                let text = format!("\"{input}\"");
                let name = controls.telling().chord(&swap_knot::Chord::from(*input));
                let button = ui.button(RichText::new(&text).monospace());
                if button.on_hover_text("copy it").clicked() {
                    ui.ctx().copy_text(text);
                    self.said = format!("copied the name of {name}");
                }
                ui.label(name);
            }
            ui.label(RichText::new(&self.said).color(look.quiet));
        });
        self.player.notices(ui);
        if self.player.controls.seat().is_recording() {
            ui.label(format!("recording at {now} s"));
        }
    }

    fn outcomes(&mut self, ui: &mut Ui) {
        let height = (ui.available_height() - 170.0).max(120.0);
        ui.allocate_ui(vec2(ui.available_width(), height), |ui| {
            self.watch.outcomes(ui, &self.player.controls);
        });
        ui.separator();
        self.watch.edges(ui, &self.player.controls);
    }

    /// What is down now; of what went down and up between two pictures, the outcomes tell.
    fn note_pressed(&mut self) {
        let seat = self.player.controls.seat();
        let down = seat.inputs_down();
        let last = seat
            .outcomes()
            .next_back()
            .map(|told| (told.at, told.input));
        let is_new = last.is_some_and(|(at, _)| self.told_until.is_none_or(|until| at > until));
        match last {
            _ if !down.is_empty() => self.pressed = down,
            Some((_, input)) if is_new => self.pressed = vec![input],
            _ => {}
        }
        self.told_until = last.map(|(at, _)| at).or(self.told_until);
    }

    /// How many problems the check has, worked out when what is played changed.
    fn problems(&mut self) -> usize {
        let rig = self.player.controls.seat().rig();
        if self.found.as_ref().is_none_or(|(of, _)| of != rig) {
            let found = findings(&self.player.controls, &self.checked);
            self.found = Some((rig.clone(), found));
        }
        let found = self.found.iter().flat_map(|(_, found)| found);
        found.filter(|f| f.is_problem).count()
    }

    fn findings(&mut self, ui: &mut Ui) {
        let look = Look::DARK;
        let names: Vec<&str> = self.checked.iter().map(Layout::name).collect();
        let title = format!("checked on {}", names.join(", "));
        ui.add(Label::new(RichText::new(title).color(look.quiet)).wrap());
        ScrollArea::vertical()
            .id_salt("findings")
            .auto_shrink([false, false])
            .show(ui, |ui| {
                let found = self.found.iter().flat_map(|(_, found)| found);
                if found.clone().next().is_none() {
                    ui.label("no problem, and nothing else worth a word");
                }
                for finding in found {
                    let color = match finding.is_problem {
                        true => look.conflict,
                        false => look.text,
                    };
                    ui.add(Label::new(RichText::new(&finding.text).color(color)).wrap());
                    ui.add_space(4.0);
                }
            });
    }

    /// What was tuned, as lines of the sheet.
    fn adopt(&mut self, ui: &mut Ui) {
        let rig = self.player.controls.seat().rig().clone();
        if self.adopted.as_ref().is_none_or(|(of, _)| *of != rig) {
            let adopted = self.bench.adopted(&self.player.controls);
            self.adopted = Some((rig, adopted.map_err(|e| e.to_string())));
        }
        let Some((_, adopted)) = &self.adopted else {
            return;
        };
        let look = Look::DARK;
        let adopted = match adopted {
            Ok(adopted) => adopted.clone(),
            Err(why) => {
                ui.label(RichText::new(why).color(look.conflict));
                return;
            }
        };
        let intro = match adopted.is_changed() {
            true => "What you changed on the controls screen would become the sheet's own:",
            false => {
                "Change bindings, feel or times on the controls screen and apply them: here stands what of the sheet would change."
            }
        };
        ui.add(Label::new(intro).wrap());
        if adopted.is_changed() && ui.button("Write it into the sheet").clicked() {
            self.said = match self.bench.write(&adopted, &mut self.player.controls) {
                Ok(()) => "written; the sheet has it now".to_owned(),
                Err(why) => why,
            };
            self.adopted = None;
            return;
        }
        ScrollArea::both()
            .id_salt("difference")
            .auto_shrink([false, false])
            .show(ui, |ui| {
                let name = self.bench.file().display().to_string();
                for line in adopted.difference(&name).lines() {
                    let color = match line.as_bytes().first() {
                        Some(b'+') => Color32::from_rgb(150, 214, 170),
                        Some(b'-') => look.conflict,
                        _ => look.quiet,
                    };
                    let line = RichText::new(line).monospace().color(color);
                    ui.add(Label::new(line).extend());
                }
                for left in adopted.left() {
                    let text = format!("left to players: {left}");
                    ui.label(RichText::new(text).color(look.quiet));
                }
            });
    }
}

/// The colours of the project for what egui draws by itself.
fn dark(ui: &mut Ui) {
    let look = Look::DARK;
    let visuals = ui.visuals_mut();
    *visuals = egui::Visuals::dark();
    visuals.override_text_color = Some(look.text);
    visuals.panel_fill = look.ground;
    visuals.selection.bg_fill = look.hover;
}
