//! A small game in a window: events in, actions and prompts out, and the controls screen on Escape.

/// What controls.toml declares: `Action`, `Situation` and `sheet()`. To add an action, add it there.
mod controls {
    swap_knot::controls!("controls.toml");
}

use std::sync::mpsc::{Receiver, channel};
use std::time::Instant;

use controls::{Action, Situation};
use eframe::egui;
use swap_knot::{Controls, Event, EventKind, Layout, Locker, Place, Slug, Time};
use swap_knot_egui::{GlyphTextures, ScreenSkin};

struct Game {
    controls: Controls,
    skin: ScreenSkin,
    glyphs: GlyphTextures,
    events: Receiver<Event>,
    started: Instant,
    at: egui::Vec2,
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sheet = controls::sheet();
    // Kept where this platform keeps what a user sets; the layout is the system's, or learned.
    let (locker, name) = (Locker::of_user(&sheet)?, Slug::from_title("player"));
    let layout = swap_knot_winit::system_layout().unwrap_or_else(Layout::us);
    let mut controls = Controls::open_last(&sheet, locker, &name, &layout);
    controls.seat_mut().set_situations(&[Situation::Deck]);
    let (send, events) = channel();
    let (skin, glyphs, started) = (ScreenSkin::new(), GlyphTextures::new(), Instant::now());
    let game = Game { controls, skin, glyphs, events, started, at: egui::Vec2::ZERO };
    let event_loop = winit::event_loop::EventLoop::with_user_event().build()?;
    let start: eframe::AppCreator<'_> = Box::new(|_| Ok(Box::new(game)));
    let window = eframe::create_native("{name}", Default::default(), start, &event_loop);
    let feed = move |event| {
        let _ = send.send(event);
    };
    event_loop.run_app(&mut swap_knot_winit::HeardWindow::new(window, started, feed))?;
    Ok(())
}

impl eframe::App for Game {
    fn ui(&mut self, ui: &mut egui::Ui, _: &mut eframe::Frame) {
        let escape = |what| matches!(what, EventKind::Key { place: Place::Escape, down: true, .. });
        for event in self.events.try_iter() {
            let is_open = self.controls.screen().is_some();
            self.controls.feed(&event); // while the screen is open, it has them all
            if escape(event.what) && !is_open {
                self.controls.open_screen(event.at);
            }
        }
        self.controls.tick(Time::from(self.started.elapsed()));
        self.controls.save(); // `saving` gives a thread the work, so that no frame waits for it
        if let Some(screen) = self.controls.screen_mut() {
            return self.skin.show(ui, screen);
        }
        let seat = self.controls.seat();
        let [x, y] = seat.plane(Action::Walk);
        self.at += egui::vec2(x, -y) * 300.0 * ui.input(|i| i.stable_dt.min(0.1));
        if seat.went_down(Action::CastOff) {
            println!("Cast off!");
        }
        let light = if seat.is_down(Action::Lantern) { 60.0 } else { 20.0 };
        let middle = ui.max_rect().center() + self.at;
        ui.painter().circle_filled(middle, light, egui::Color32::GOLD);
        let on = self.controls.resolver().layout().clone();
        let words = self.controls.words().clone();
        let text = "{do:cast-off} to leave, {walk} to walk, {lantern} for light; Escape: controls";
        if let Ok(shown) = self.controls.prompt(text) {
            swap_knot_egui::prompt(ui, shown, &mut self.glyphs, &on, &words, 28.0);
        }
        ui.ctx().request_repaint();
    }
}
