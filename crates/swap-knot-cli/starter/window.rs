//! A small game in a window: events in, actions and prompts out, and the controls screen on Escape.

/// What controls.toml declares: `Action`, `Situation` and `sheet()`. To add an action, add it there.
mod controls {
    swap_knot::controls!("controls.toml");
}

use controls::{Action, Situation};
use eframe::egui;
use swap_knot::{Controls, Layout, Locker, Slug};
use swap_knot_egui::PlayerUi;
use swap_knot_winit::{Heard, HeardWindow};

struct Game {
    player: PlayerUi,
    heard: Heard,
    at: egui::Vec2,
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sheet = controls::sheet();
    // Kept where this platform keeps what a user sets; the layout is the system's, or learned.
    let (locker, name) = (Locker::of_user(&sheet)?, Slug::from_title("player"));
    let layout = swap_knot_winit::system_layout().unwrap_or_else(Layout::us);
    let mut controls = Controls::open_last(&sheet, locker, &name, layout);
    controls.seat_mut().set_situations(&[Situation::Deck]);
    let (ear, heard) = swap_knot_winit::ear();
    let game = Game { player: PlayerUi::new(controls), heard, at: egui::Vec2::ZERO };
    let event_loop = winit::event_loop::EventLoop::with_user_event().build()?;
    let start: eframe::AppCreator<'_> = Box::new(|_| Ok(Box::new(game)));
    let window = eframe::create_native("{name}", Default::default(), start, &event_loop);
    event_loop.run_app(&mut HeardWindow::new(window, ear))?;
    Ok(())
}

impl eframe::App for Game {
    fn ui(&mut self, ui: &mut egui::Ui, _: &mut eframe::Frame) {
        let plays = self.player.frame(ui, self.heard.events(), self.heard.now());
        self.player.controls.save(); // `saving` gives a thread the work, so that no frame waits for it
        ui.ctx().request_repaint();
        if !plays {
            return; // the controls screen is open
        }
        self.player.notices(ui);
        let seat = self.player.controls.seat();
        let [x, y] = seat.plane(Action::Walk);
        self.at += egui::vec2(x, -y) * 300.0 * ui.input(|i| i.stable_dt.min(0.1));
        if seat.went_down(Action::CastOff) {
            println!("Cast off!");
        }
        let light = if seat.is_down(Action::Lantern) { 60.0 } else { 20.0 };
        let middle = ui.max_rect().center() + self.at;
        ui.painter().circle_filled(middle, light, egui::Color32::GOLD);
        let text = "{do:cast-off} to leave, {walk} to walk, {lantern} for light; Escape: controls";
        if let Err(mistake) = self.player.prompt(ui, text, 28.0) {
            ui.label(mistake.to_string());
        }
    }
}
