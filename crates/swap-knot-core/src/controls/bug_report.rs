//! What a player pastes when something does not work.

use std::fmt::Write as _;

use super::Controls;
use crate::input::{DeviceKind, Input, writes_text};
use crate::rig::NotLive;
use crate::seat::{Outcome, Told};
use crate::words::{Telling, Words};

impl Controls {
    /// All that helps to find out why something does not work, as a text to be pasted into a report: the
    /// game's sheet and its version, what the player changed and what of it is not in force, layout,
    /// devices, situations, and what became of the last inputs where that is kept, see
    /// [`Seat::keep_outcomes`](crate::Seat::keep_outcomes). It is in English, for the game's developers.
    ///
    /// Nothing in it says who the player is: no name of a profile, no folder, nothing that was typed.
    pub fn bug_report(&self) -> String {
        let mut out = String::new();
        // Writing to a string does not fail.
        let _ = self.write_report(&mut out);
        out
    }

    fn write_report(&self, out: &mut String) -> std::fmt::Result {
        let (seat, sheet, on) = (self.seat(), &self.sheet, self.resolver());
        let words = Words::english();
        let telling = Telling::new(&words, sheet, on);
        writeln!(
            out,
            "game: {}, version {} of its controls",
            sheet.game(),
            sheet.version()
        )?;
        writeln!(out, "swap-knot: {}", env!("CARGO_PKG_VERSION"))?;
        let how = match self.is_chosen {
            true => "chosen",
            false => "found",
        };
        let (layout, platform) = (on.layout().name(), on.platform().word());
        writeln!(out, "layout: {layout} ({how}), platform: {platform}")?;
        writeln!(out, "language: {}", self.words.language())?;
        let stack = seat.situations().iter();
        let stack: Vec<&str> = stack.map(|s| &*sheet.declared_situation(*s).name).collect();
        writeln!(out, "situations, lowest first: {}", listed(&stack))?;
        writeln!(out, "in use: {}", seat.device_kind())?;
        for (device, usb) in self.devices() {
            let usb = usb.map_or("unknown".to_owned(), |usb| usb.to_string());
            writeln!(out, "device {}: plugged in, USB {usb}", device.0)?;
        }
        for kind in DeviceKind::ALL {
            if let Some(used) = seat.last_used(kind) {
                writeln!(
                    out,
                    "device {}: {kind}, last used at {} s",
                    used.device.0, used.at
                )?;
            }
        }
        let types = seat
            .situations()
            .iter()
            .any(|s| sheet.declared_situation(*s).typing);
        let is_private = |i: &Input| matches!(i, Input::Key(p) if types && writes_text(*p));
        let down = seat.inputs_down().into_iter().filter(|i| !is_private(i));
        let down: Vec<String> = down.map(|i| i.to_string()).collect();
        writeln!(out, "down now: {}", listed(&down))?;
        let mut profile = self.profile.clone();
        profile.set_title("");
        writeln!(
            out,
            "\nwhat the player changed:\n{}",
            profile.to_toml().trim_end()
        )?;
        section(
            out,
            "not in force:",
            seat.rig().not_in_force().iter().map(|n| n.to_string()),
        )?;
        let notes = seat.rig().notes().iter().map(|note| telling.tell(note));
        section(out, "notes:", notes)?;
        let lately = seat.outcomes().filter(|told| !is_typed(told));
        let lately = lately.map(|told| {
            let times = match told.times {
                1 => String::new(),
                times => format!(" ({times} movements)"),
            };
            format!(
                "{} s, device {}  {}{times}",
                told.at,
                told.device.0,
                telling.tell(&told)
            )
        });
        section(out, "what became of the last inputs:", lately)
    }
}

/// What a player typed, or may have.
fn is_typed(told: &Told<'_>) -> bool {
    matches!(told.outcome, Outcome::NotLive(NotLive::Typing(_)))
}

fn listed(all: &[impl AsRef<str>]) -> String {
    match all.is_empty() {
        true => "nothing".to_owned(),
        false => all
            .iter()
            .map(AsRef::as_ref)
            .collect::<Vec<&str>>()
            .join(", "),
    }
}

fn section(out: &mut String, title: &str, lines: impl Iterator<Item = String>) -> std::fmt::Result {
    let mut lines = lines.peekable();
    if lines.peek().is_some() {
        writeln!(out, "\n{title}")?;
    }
    lines.try_for_each(|line| writeln!(out, "  {line}"))
}
