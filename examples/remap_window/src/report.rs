//! What happens in the window as lines of text, for tests and for the curious.

use std::collections::HashMap;

use eframe::egui::Rect;

/// Prints a line for everything that happens; things that stay as they are only once.
pub(crate) struct Report {
    on: bool,
    known: HashMap<String, String>,
}

impl Report {
    pub(crate) fn new(on: bool) -> Report {
        Report {
            on,
            known: HashMap::new(),
        }
    }

    /// Something happened.
    pub(crate) fn say(&self, line: &str) {
        if self.on {
            println!("{line}");
        }
    }

    /// Something is so; said when it was not so before.
    pub(crate) fn state(&mut self, what: &str, value: &str) {
        if self.on && self.known.get(what).is_none_or(|v| v != value) {
            println!("{what}: {value}");
            self.known.insert(what.to_owned(), value.to_owned());
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
}
