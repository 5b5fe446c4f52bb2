//! What became of the last inputs, as a list with filters.

use egui::{RichText, ScrollArea, TextEdit, Ui};
use swap_knot::Controls;
use swap_knot::play::Outcome;

use super::Watch;
use crate::Look;

impl Watch {
    /// What became of the last inputs, newest first.
    pub fn outcomes(&mut self, ui: &mut Ui, controls: &Controls) {
        let look = Look::DARK;
        ui.horizontal(|ui| {
            let search = TextEdit::singleline(&mut self.search);
            ui.add(search.hint_text("key or action").desired_width(140.0));
            ui.checkbox(&mut self.only_nothing, "only what worked nothing");
        });
        let (seat, telling) = (controls.seat(), controls.telling());
        let search = self.search.to_lowercase();
        ScrollArea::vertical()
            .id_salt("swap-knot outcomes")
            .auto_shrink([false, false])
            .show(ui, |ui| {
                for told in seat.outcomes().rev() {
                    let is_good = matches!(told.outcome, Outcome::Worked | Outcome::AlreadyOn);
                    let text = telling.tell(&told);
                    let is_found = text.to_lowercase().contains(&search);
                    if (is_good && self.only_nothing) || !is_found {
                        continue;
                    }
                    let times = match told.times {
                        1 => String::new(),
                        times => format!("  ×{times}"),
                    };
                    let color = match told.outcome {
                        Outcome::Worked | Outcome::AlreadyOn => look.text,
                        Outcome::Waiting { .. } | Outcome::ToggledOff => look.changed,
                        Outcome::NotLive(_) | Outcome::AtRest => look.quiet,
                        _ => look.conflict,
                    };
                    let line = format!("{} s  {text}{times}", told.at);
                    ui.label(RichText::new(line).color(color).size(12.5));
                }
            });
    }
}
