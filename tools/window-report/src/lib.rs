//! For tests of windows: what is shown as lines of text, and devices that are not there.

use std::collections::HashMap;
use std::io::BufRead as _;
use std::sync::atomic::{AtomicUsize, Ordering};

use egui::{Context, Rect, Ui};
use swap_knot::play::{Edge, TraceEntry};
use swap_knot::{Controls, Event, EventKind, Row, Trace};
use swap_knot_egui::PlayerUi;
use swap_knot_winit::Ear;

/// How many simulated lines have been passed on.
static SIMULATED: AtomicUsize = AtomicUsize::new(0);

/// Prints a line for everything that happens; things that stay as they are only once.
#[derive(Debug)]
pub struct Report {
    is_on: bool,
    last: HashMap<String, String>,
    /// The simulated lines that had been passed on before this frame.
    simulated: usize,
}

impl Report {
    /// Prints, or says nothing at all.
    pub fn new(is_on: bool) -> Report {
        Report {
            is_on,
            last: HashMap::new(),
            simulated: 0,
        }
    }

    /// Something happened.
    pub fn say(&self, line: &str) {
        if self.is_on {
            println!("{line}");
        }
    }

    /// Something is so; said when it was not so before.
    pub fn state(&mut self, what: &str, value: &str) {
        if self.is_on && self.last.get(what).is_none_or(|v| v != value) {
            println!("{what}: {value}");
            self.last.insert(what.to_owned(), value.to_owned());
        }
    }

    /// Something came from a device.
    pub fn heard(&self, event: &Event) {
        if let EventKind::Key {
            place, down: true, ..
        } = event.what
        {
            self.say(&format!("heard: {place}"));
        }
    }

    /// A prompt of the game's own texts is shown.
    pub fn prompt(&mut self, controls: &mut Controls, id: &str) {
        if let Ok(shown) = controls.prompt_of(id) {
            self.state("prompt", &shown.to_string());
        }
    }

    /// Something stands somewhere, said with the middle of it in pixels.
    pub fn place(&mut self, what: &str, rect: Rect) {
        let middle = rect.center();
        self.state(
            &format!("place {what}"),
            &format!("{:.0} {:.0}", middle.x, middle.y),
        );
    }

    /// What happened in a frame, and what is shown; at last how many simulated lines it has in it.
    pub fn frame(&mut self, ui: &Ui, player: &mut PlayerUi) {
        if !self.is_on {
            return;
        }
        let has_focus = ui.input(|i| i.focused);
        self.state("has the focus", if has_focus { "yes" } else { "no" });
        self.tell(player);
        // What comes while a frame is made may be in it or in the next one.
        self.state("simulated", &self.simulated.to_string());
        let passed_on = SIMULATED.load(Ordering::SeqCst);
        if passed_on != self.simulated {
            self.simulated = passed_on;
            ui.ctx().request_repaint();
        }
    }

    fn tell(&mut self, player: &mut PlayerUi) {
        for (name, rect) in player.touch_places() {
            self.place(&format!("on-screen {name}"), rect);
        }
        let (controls, skin) = (&mut player.controls, &player.skin);
        let (seat, words) = (controls.seat(), controls.words());
        let sheet = seat.rig().sheet();
        for happened in seat.happened().iter().filter(|h| h.edge == Edge::Began) {
            let (action, arm) = (happened.action, happened.arm);
            self.say(&format!("began: {}", sheet.row_name(Row { action, arm })));
        }
        let on = sheet.actions().filter(|(id, _)| seat.is_down(*id));
        let on: Vec<String> = on
            .map(|(id, _)| words.row_title(sheet, id.into()))
            .collect();
        let doing = if on.is_empty() {
            "…".to_owned()
        } else {
            on.join(", ")
        };
        self.state("doing", &doing);
        self.state("layout", controls.resolver().layout().name());
        let is_recorded = controls.seat().is_recording();
        self.state("recording", if is_recorded { "yes" } else { "no" });
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
/// of its own, where somebody hears it. The times in them do not count: they are played when they come.
pub fn simulate(ear: Option<Ear>, ctx: Context) {
    let Some(ear) = ear else {
        return;
    };
    std::thread::spawn(move || {
        for line in std::io::stdin().lock().lines().map_while(Result::ok) {
            match line.parse::<Trace>() {
                Ok(trace) => {
                    for entry in trace.entries() {
                        if let TraceEntry::Event(event) = entry {
                            let at = ear.now();
                            ear.hear(Event { at, ..*event });
                        }
                    }
                    SIMULATED.fetch_add(1, Ordering::SeqCst);
                    ctx.request_repaint();
                }
                Err(e) => eprintln!("{e}"),
            }
        }
    });
}
