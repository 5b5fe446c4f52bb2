//! Devices that are not there: lines of a trace from standard input, played as they come.

use std::io::BufRead as _;
use std::sync::mpsc::Sender;

use eframe::egui;
use swap_knot::{Event, Trace, TraceEntry};

/// Reads lines such as `0 9 pad:south 1` in a thread of its own and wakes the window for each.
/// The times in them do not count: they are played when they come.
pub(crate) fn start(events: Sender<Event>, ctx: egui::Context) {
    std::thread::spawn(move || {
        for line in std::io::stdin().lock().lines().map_while(Result::ok) {
            match line.parse::<Trace>() {
                Ok(trace) => {
                    for entry in trace.entries() {
                        if let TraceEntry::Event(event) = entry
                            && events.send(*event).is_err()
                        {
                            return;
                        }
                    }
                    ctx.request_repaint();
                }
                Err(e) => eprintln!("{e}"),
            }
        }
    });
}
