//! What a developer wants to see of a player while the game runs: for the overlay and the workbench.

mod actions;
mod edges;
mod outcomes;

use egui::{RichText, Ui};
use swap_knot::{Controls, DeviceKind, Time};

use crate::Look;

/// How many outcomes are kept.
const KEPT: usize = 400;

/// A view of a player for developers: what works now and what does not, what became of the last inputs,
/// what began and ended. Its parts are drawn wherever there is room; [`Overlay`](crate::Overlay) is a window
/// with all of them.
///
/// Its own words are English; titles and reasons are those of the player's language.
///
/// ```no_run
/// # fn frame(ui: &mut egui::Ui, watch: &mut swap_knot_egui::Watch, controls: &mut swap_knot::Controls, now: swap_knot::Time) {
/// watch.take_in(controls, now); // in every frame, after the tick
/// watch.actions(ui, controls);
/// watch.outcomes(ui, controls);
/// # }
/// ```
#[derive(Debug, Default)]
pub struct Watch {
    now: Time,
    edges: edges::Edges,
    /// What outcomes have to have in them to be shown.
    search: String,
    /// Whether only those are shown that worked nothing.
    only_nothing: bool,
    /// Whether actions that cannot be worked now are shown.
    hides_dead: bool,
}

impl Watch {
    /// Takes in what happened in a frame, after the tick; and has the seat keep outcomes.
    pub fn take_in(&mut self, controls: &mut Controls, now: Time) {
        self.now = now;
        self.edges.take_in(controls.seat(), now);
        if !controls.seat().keeps_outcomes() {
            controls.seat_mut().keep_outcomes(KEPT);
        }
    }

    /// Ends it: the seat keeps no outcomes any more.
    pub fn stop(&mut self, controls: &mut Controls) {
        controls.seat_mut().keep_outcomes(0);
        self.edges = edges::Edges::default();
    }

    /// Which situations are on, the lowest first.
    pub fn situations(&self, ui: &mut Ui, controls: &Controls) {
        let (seat, words) = (controls.seat(), controls.words());
        let sheet = seat.rig().sheet();
        let stack = seat.situations().iter();
        let stack: Vec<String> = stack.map(|s| words.situation_title(sheet, *s)).collect();
        let stack = match stack.is_empty() {
            true => "nothing".to_owned(),
            false => stack.join(" < "),
        };
        ui.horizontal_wrapped(|ui| named(ui, "situations", &stack));
    }

    /// On which layout the player is, with which devices.
    pub fn devices(&self, ui: &mut Ui, controls: &Controls) {
        let (seat, words) = (controls.seat(), controls.words());
        let layout = controls.resolver().layout().title();
        ui.horizontal_wrapped(|ui| {
            named(ui, "layout", layout);
            named(ui, "in use", &words.device_name(seat.device_kind()));
            for kind in DeviceKind::ALL {
                if let Some(used) = seat.last_used(kind) {
                    let ago = self.now.since(used.at).as_secs_f32();
                    let text = format!("{} {}", words.device_name(kind), used.device.0);
                    named(ui, &text, &format!("{ago:.0} s ago"));
                }
            }
            let gone = |(_, usb): &(_, Option<swap_knot::input::UsbId>)| usb.is_some();
            for (device, usb) in controls.devices().filter(gone) {
                let usb = usb.map(|usb| usb.to_string()).unwrap_or_default();
                named(ui, &format!("plugged {}", device.0), &usb);
            }
        });
    }

    /// What began and ended in the last seconds, on a line of time.
    pub fn edges(&self, ui: &mut Ui, controls: &Controls) {
        self.edges.show(ui, controls, self.now);
    }
}

/// A name and what there is to say of it.
fn named(ui: &mut Ui, name: &str, value: &str) {
    ui.label(RichText::new(name).color(Look::DARK.quiet));
    ui.label(RichText::new(value).color(Look::DARK.text).strong());
    ui.add_space(8.0);
}
