//! A window for developers over any game.

use std::path::PathBuf;

use egui::{Context, Event, Frame, Key, Modifiers, RichText, Stroke, Ui, Window, vec2};
use swap_knot::{Controls, Time};

use crate::{Look, Watch};

/// A window for developers over any game: live actions and values, situations, devices, what became of the
/// last inputs and why nothing where nothing happened, edges on a line of time; and a recording or a report
/// for whoever has to find a bug. It is off until its key is pressed.
///
/// With Ctrl its key plays without the player's profile, and with it again: whether a default that was
/// edited shows is seen at once.
///
/// With Shift its key begins a recording and ends it, also without the window: then it is a file that
/// `swap-knot replay --why` tells of.
///
/// ```no_run
/// # fn frame(ctx: &egui::Context, overlay: &mut swap_knot_egui::Overlay, controls: &mut swap_knot::Controls, now: swap_knot::Time) {
/// // let mut overlay = Overlay::new(egui::Key::F8);
/// overlay.show(ctx, controls, now); // in every frame, after the tick
/// # }
/// ```
#[derive(Debug)]
pub struct Overlay {
    key: Key,
    /// Where recordings are written.
    folder: PathBuf,
    is_on: bool,
    watch: Watch,
    /// What was said last of a recording or report.
    said: String,
}

impl Overlay {
    /// An overlay that a key switches on and off; recordings are written into the folder in which the game
    /// was started.
    pub fn new(key: Key) -> Overlay {
        Overlay {
            key,
            folder: PathBuf::from("."),
            is_on: false,
            watch: Watch::default(),
            said: String::new(),
        }
    }

    /// Writes recordings into another folder.
    pub fn with_folder(mut self, folder: impl Into<PathBuf>) -> Overlay {
        self.folder = folder.into();
        self
    }

    /// Whether it is shown.
    pub const fn is_on(&self) -> bool {
        self.is_on
    }

    /// Shows it, or not.
    pub fn switch(&mut self, on: bool, controls: &mut Controls) {
        if self.is_on && !on {
            self.watch.stop(controls);
        }
        self.is_on = on;
    }

    /// What was said last of a recording: where it is, or why there is none.
    pub fn said(&self) -> &str {
        &self.said
    }

    /// Hears its key, and shows the window where it is on. In every frame, after the tick.
    pub fn show(&mut self, ctx: &Context, controls: &mut Controls, now: Time) {
        for with in self.presses(ctx) {
            match (with.shift, with.command) {
                (true, _) => self.record(controls),
                (false, true) => controls.play_by_defaults(!controls.plays_by_defaults()),
                (false, false) => self.switch(!self.is_on, controls),
            }
        }
        self.signs(ctx, controls);
        if !self.is_on {
            return;
        }
        self.watch.take_in(controls, now);
        // Values move on whether or not anything comes.
        ctx.request_repaint();
        let look = Look::DARK;
        let frame = Frame::window(&ctx.global_style())
            .fill(look.ground.gamma_multiply(0.94))
            .stroke(Stroke::new(1.0, look.edge));
        Window::new("Swap Knot")
            .id(egui::Id::unique("swap-knot overlay"))
            .frame(frame)
            .default_pos([ctx.content_rect().right() - 560.0, 10.0])
            .default_size(vec2(540.0, (ctx.content_rect().height() - 80.0).min(700.0)))
            .show(ctx, |ui| self.contents(ui, controls));
    }

    /// Each press of its key in this frame, with what was held then.
    fn presses(&self, ctx: &Context) -> Vec<Modifiers> {
        let held = |event: &Event| match event {
            Event::Key {
                key,
                pressed: true,
                repeat: false,
                modifiers,
                ..
            } if *key == self.key => Some(*modifiers),
            _ => None,
        };
        ctx.input(|i| i.events.iter().filter_map(held).collect())
    }

    fn contents(&mut self, ui: &mut Ui, controls: &mut Controls) {
        let look = Look::DARK;
        let visuals = ui.visuals_mut();
        visuals.override_text_color = Some(look.text);
        self.watch.situations(ui, controls);
        self.watch.devices(ui, controls);
        ui.horizontal_wrapped(|ui| {
            let is_recording = controls.seat().is_recording();
            let record = if is_recording {
                "Stop recording"
            } else {
                "Record"
            };
            if ui.button(record).clicked() {
                self.record(controls);
            }
            if ui.button("Copy a report").clicked() {
                ui.ctx().copy_text(controls.bug_report());
                self.said = "the report is in the clipboard".to_owned();
            }
            let mut without = controls.plays_by_defaults();
            if ui.checkbox(&mut without, "Without the profile").changed() {
                controls.play_by_defaults(without);
            }
            ui.label(RichText::new(&self.said).color(look.quiet));
        });
        for hidden in controls.hidden_defaults() {
            ui.label(RichText::new(format!("▲ {hidden}")).color(look.changed));
        }
        ui.separator();
        let height = (ui.available_height() - 200.0).max(160.0);
        ui.allocate_ui(vec2(ui.available_width(), height * 0.55), |ui| {
            self.watch.actions(ui, controls);
        });
        ui.separator();
        ui.allocate_ui(vec2(ui.available_width(), height * 0.45), |ui| {
            self.watch.outcomes(ui, controls);
        });
        ui.separator();
        self.watch.edges(ui, controls);
    }

    /// Begins a recording, or ends it and writes it.
    fn record(&mut self, controls: &mut Controls) {
        let Some(trace) = controls.seat_mut().stop_recording() else {
            controls.seat_mut().start_recording();
            self.said = "recording".to_owned();
            return;
        };
        let game = controls.seat().rig().sheet().game().to_owned();
        self.said = match self.write(&game, &trace.to_string()) {
            Ok(file) => format!("recorded in {}", file.display()),
            Err(why) => format!("cannot write the recording: {why}"),
        };
    }

    /// Writes a recording under a name that is free.
    fn write(&self, game: &str, text: &str) -> std::io::Result<PathBuf> {
        std::fs::create_dir_all(&self.folder)?;
        for number in 1..=u32::MAX {
            let file = self.folder.join(format!("{game}-{number}.trace"));
            match std::fs::File::create_new(&file) {
                Ok(mut new) => {
                    std::io::Write::write_all(&mut new, text.as_bytes())?;
                    return Ok(file);
                }
                Err(e) if e.kind() == std::io::ErrorKind::AlreadyExists => {}
                Err(e) => return Err(e),
            }
        }
        Err(std::io::ErrorKind::AlreadyExists.into())
    }

    /// What goes on also where the window is not shown.
    fn signs(&self, ctx: &Context, controls: &Controls) {
        let key = self.key.name();
        let recording = controls.seat().is_recording().then(|| {
            let what = match controls.seat().is_recording_full() {
                true => "the recording is full",
                false => "recording",
            };
            format!("● {what} (Shift+{key} ends it)")
        });
        let without = controls
            .plays_by_defaults()
            .then(|| format!("without the profile (Ctrl+{key} plays with it again)"));
        let signs: Vec<String> = recording.into_iter().chain(without).collect();
        if !signs.is_empty() {
            self.sign(ctx, signs.join("   "));
        }
    }

    fn sign(&self, ctx: &Context, text: String) {
        let layer = egui::LayerId::new(egui::Order::Foreground, egui::Id::unique("swap-knot rec"));
        let at = ctx.content_rect().left_bottom() + vec2(12.0, -12.0);
        let painter = ctx.layer_painter(layer);
        let font = egui::FontId::proportional(14.0);
        let galley = painter.layout_no_wrap(text, font, Look::DARK.conflict);
        let place = egui::Align2::LEFT_BOTTOM.anchor_size(at, galley.size());
        painter.rect_filled(place.expand(4.0), 3.0, Look::DARK.ground);
        painter.galley(place.min, galley, Look::DARK.conflict);
    }
}
