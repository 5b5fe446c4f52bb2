//! For tests: what is shown as lines of text, and devices that are not there.

use std::collections::HashMap;
use std::io::BufRead as _;
use std::sync::mpsc::Sender;
use std::time::Instant;

use eframe::egui::{Context, Rect};
use swap_knot::{Controls, Edge, Event, Row, Time, Trace, TraceEntry};
use swap_knot_egui::ScreenSkin;

/// Prints a line for everything that happens; things that stay as they are only once.
#[derive(Default)]
pub(crate) struct Report(HashMap<String, String>);

/// Something happened.
pub(crate) fn say(report: &Option<Report>, line: &str) {
    if report.is_some() {
        println!("{line}");
    }
}

impl Report {
    /// Something is so; said when it was not so before.
    pub(crate) fn state(&mut self, what: &str, value: &str) {
        if self.0.get(what).is_none_or(|v| v != value) {
            println!("{what}: {value}");
            self.0.insert(what.to_owned(), value.to_owned());
        }
    }

    /// Something stands somewhere, said with the middle of it in pixels.
    pub(crate) fn place(&mut self, what: &str, rect: Rect) {
        let middle = rect.center();
        self.state(
            &format!("place {what}"),
            &format!("{:.0} {:.0}", middle.x, middle.y),
        );
    }

    /// What happened in a frame, and what is shown.
    pub(crate) fn frame(&mut self, controls: &mut Controls, skin: &ScreenSkin) {
        let seat = controls.seat();
        for happened in seat.happened().iter().filter(|h| h.edge == Edge::Began) {
            let (action, arm) = (happened.action, happened.arm);
            println!(
                "began: {}",
                seat.rig().sheet().row_name(Row { action, arm })
            );
        }
        self.state("doing", &crate::stage::doing(seat, controls.words()));
        self.state("layout", controls.resolver().layout().name());
        let is_open = controls.screen().is_some();
        self.state("screen", if is_open { "open" } else { "closed" });
        let Some(screen) = controls.screen_mut() else {
            return;
        };
        let view = screen.view();
        for item in view.items() {
            self.state(&item.id, &item.label);
        }
        let rows = view.sections.iter().flat_map(|s| &s.rows);
        self.state("rows", &rows.clone().count().to_string());
        let titles: Vec<&str> = rows.clone().map(|r| r.title.as_str()).collect();
        self.state("titles", &titles.join(", "));
        let lit: Vec<&str> = rows.filter(|r| r.lit).map(|r| r.title.as_str()).collect();
        self.state("lit", &lit.join(", "));
        self.state("section", view.sections.first().map_or("", |s| &s.title));
        self.state("dialog", view.dialog.as_ref().map_or("", |d| &d.title));
        self.state("message", view.message.as_deref().unwrap_or_default());
        self.state("focus", view.focused().map_or("", |i| &i.id));
        for (name, rect) in skin.places() {
            self.place(name, rect);
        }
    }
}

/// Plays the lines of a trace that come in on standard input, such as `0 9 pad:south 1`, in a thread
/// of its own. The times in them do not count: they are played when they come.
pub(crate) fn simulate(events: Sender<Event>, started: Instant, ctx: Context) {
    std::thread::spawn(move || {
        for line in std::io::stdin().lock().lines().map_while(Result::ok) {
            match line.parse::<Trace>() {
                Ok(trace) => {
                    for entry in trace.entries() {
                        if let TraceEntry::Event(event) = entry {
                            let at = Time::from(started.elapsed());
                            let _ = events.send(Event { at, ..*event });
                        }
                    }
                    ctx.request_repaint();
                }
                Err(e) => eprintln!("{e}"),
            }
        }
    });
}
