//! What the window holds: a draft, a seat, a locker; and what it does with events.

use std::error::Error;
use std::path::Path;
use std::time::Instant;

use eframe::egui;
use swap_knot::{
    Bind, Cell, Chord, Draft, Edge, Event, EventKind, Heard, Input, Layout, LayoutLearner,
    Listener, ListenerOptions, Locker, Menu, Profile, Prompt, Question, Seat, Settle, Shape, Sheet,
    Slug, Time,
};

use crate::Incoming;
use crate::report::Report;
use crate::stage::Stage;

const SHEET: &str = include_str!("../../../demo/slack-water.toml");
const PROMPTS: [(&str, &str); 2] = [
    (
        "deck",
        "{do:cast-off} to leave the quay.  {walk} to walk.  {do:coil-rope} to coil the rope.  {do:map-table} for the map table.",
    ),
    (
        "helm",
        "{steer} to steer.  {do:throttle} to go ahead.  {do:horn} for the horn.  {do:map-table} for the map table.",
    ),
];

/// What the menu is busy with.
pub(crate) enum Busy {
    /// Nothing: cells can be clicked.
    Nothing,
    /// Waiting for the input for a cell.
    Listening(Cell, Box<Listener>),
    /// Waiting for an input, to show what is on it.
    Finding(Box<Listener>),
    /// Waiting for the answer to a conflict.
    Asking(Box<Question>),
    /// Waiting for what to do with unsaved changes before the window closes.
    Leaving,
}

pub(crate) struct App {
    pub(crate) sheet: Sheet,
    pub(crate) draft: Draft,
    pub(crate) seat: Seat,
    pub(crate) busy: Busy,
    pub(crate) menu: Menu,
    /// What the player searches for.
    pub(crate) search: String,
    /// The input that the player wants to know about.
    pub(crate) on: Option<Chord>,
    /// Whether the player types into a text field, so that keys do not play.
    pub(crate) typing: bool,
    /// The last thing to tell the player.
    pub(crate) message: String,
    pub(crate) report: Report,
    pub(crate) stage: Stage,
    learner: LayoutLearner,
    locker: Locker,
    name: Slug,
    prompts: Vec<(swap_knot::SituationId, Prompt)>,
    incoming: Incoming,
    started: Instant,
    last_frame: Time,
}

impl App {
    pub(crate) fn new(
        folder: &Path,
        incoming: Incoming,
        started: Instant,
        report: bool,
    ) -> Result<App, Box<dyn Error>> {
        let sheet = Sheet::from_toml_named(SHEET, "demo/slack-water.toml")?;
        let locker = Locker::open(folder)?;
        let name = Slug::from_title("skipper");
        let loaded = locker.load(&name);
        let chosen = loaded.profile.layout().and_then(Layout::shipped);
        // The player's choice, else what the system says, else what most games are made on.
        let layout = chosen.or_else(swap_knot_winit::system_layout);
        let layout = layout.unwrap_or_else(Layout::us);
        let draft = Draft::new(&sheet, loaded.profile, &layout);
        let mut prompts = Vec::new();
        for (situation, text) in PROMPTS {
            let id = sheet.find_situation(situation);
            let id = id.ok_or_else(|| format!("the sheet has no situation {situation}"))?;
            prompts.push((id, Prompt::new(text, &sheet)?));
        }
        let notes: Vec<String> = loaded.notes.iter().map(ToString::to_string).collect();
        Ok(App {
            seat: Seat::new(draft.rig()),
            menu: Menu::new(&draft),
            search: String::new(),
            on: None,
            typing: false,
            stage: Stage::new(&sheet).ok_or("the sheet lacks an action of the stage")?,
            draft,
            busy: Busy::Nothing,
            message: notes.join(" "),
            report: Report::new(report),
            learner: LayoutLearner::new(layout),
            locker,
            name,
            prompts,
            incoming,
            started,
            last_frame: Time::ZERO,
            sheet,
        })
    }

    /// Starts to listen for a cell.
    pub(crate) fn listen(&mut self, cell: Cell) {
        let mut options = ListenerOptions::default()
            .for_columns(cell.column.kind)
            .with_reserved(self.sheet.reserved());
        let whole = cell.row.arm.is_none();
        options.planes = whole && self.sheet.action(cell.row.action).shape == Shape::Plane;
        self.busy = Busy::Listening(cell, self.listener(options));
    }

    /// Starts to listen for an input to search for.
    pub(crate) fn find(&mut self) {
        self.busy = Busy::Finding(self.listener(ListenerOptions::default()));
        self.report.say("finding");
    }

    fn listener(&mut self, options: ListenerOptions) -> Box<Listener> {
        let mut listener = Box::new(Listener::new(options, self.seat.inputs_down()));
        listener.tick(self.now());
        // Whatever is on while the menu listens ends once.
        self.feed_seat(EventKind::FocusLost);
        self.message.clear();
        listener
    }

    /// Answers the question that is open.
    pub(crate) fn answer(&mut self, settle: Settle) {
        if let Busy::Asking(question) = std::mem::replace(&mut self.busy, Busy::Nothing) {
            match self.draft.answer(question, settle) {
                Ok(next) => self.after_bind(next),
                Err(refusal) => self.message = refusal.to_string(),
            }
        }
    }

    fn after_bind(&mut self, bind: Bind) {
        self.busy = match bind {
            Bind::Done => Busy::Nothing,
            Bind::Asks(question) => {
                self.report
                    .say(&format!("asks: {}", question.describe(&self.sheet)));
                Busy::Asking(question)
            }
        };
    }

    /// Applies the draft: the new rig goes into the seat, the profile into the locker.
    pub(crate) fn apply(&mut self) {
        match self.draft.apply() {
            Ok(rig) => {
                self.seat.set_rig(rig);
                let saved = self
                    .locker
                    .save(&self.name, self.draft.profile(), &self.sheet);
                self.message = match saved {
                    Ok(()) => "Applied and saved.".to_owned(),
                    Err(e) => format!("Applied, but not saved: {e}"),
                };
                self.report.say("applied");
            }
            Err(refusal) => self.message = refusal.to_string(),
        }
    }

    /// Goes to the deck or to the helm.
    pub(crate) fn go_to(&mut self, situation: swap_knot::SituationId) {
        self.seat.set_situations(&[situation]);
    }

    fn now(&self) -> Time {
        Time::from(self.started.elapsed())
    }

    fn feed_seat(&mut self, what: EventKind) {
        let at = self.now();
        self.seat.feed(&Event {
            at,
            device: swap_knot::DeviceId(0),
            what,
        });
    }

    /// Takes in what came since the last frame.
    fn take_in(&mut self) {
        let events = std::mem::take(&mut *self.incoming.borrow_mut());
        for event in &events {
            self.learn(event);
            match &mut self.busy {
                Busy::Listening(_, listener) | Busy::Finding(listener) => {
                    let heard = listener.hear(event);
                    self.hear(heard);
                }
                Busy::Nothing if !(self.typing && is_key(event)) => self.seat.feed(event),
                Busy::Nothing | Busy::Asking(_) | Busy::Leaving => {}
            }
        }
        let now = self.now();
        if let Busy::Listening(_, listener) | Busy::Finding(listener) = &mut self.busy {
            let heard = listener.tick(now);
            self.hear(heard);
        }
    }

    fn hear(&mut self, heard: Heard) {
        match heard {
            Heard::Nothing | Heard::Holding => {}
            Heard::Chord(chord) => {
                self.report.say(&format!("heard: {chord}"));
                match std::mem::replace(&mut self.busy, Busy::Nothing) {
                    Busy::Finding(_) => self.on = Some(chord),
                    Busy::Listening(cell, _) => match self.draft.bind(cell, chord) {
                        Ok(bind) => self.after_bind(bind),
                        Err(refusal) => self.message = refusal.to_string(),
                    },
                    _ => {}
                }
            }
            Heard::Refused(why) => self.message = why.to_string(),
            Heard::Cancelled => self.stop_listening("Nothing changed."),
            Heard::TimedOut => self.stop_listening("No key came; nothing changed."),
        }
    }

    fn stop_listening(&mut self, message: &str) {
        self.busy = Busy::Nothing;
        self.message = message.to_owned();
    }

    /// Follows the player's layout: each press that carries place and text teaches one legend.
    fn learn(&mut self, event: &Event) {
        let EventKind::Key {
            place,
            down: true,
            text: Some(text),
        } = event.what
        else {
            return;
        };
        if let Some(layout) = self.learner.learn(place, text) {
            self.draft.set_layout(&layout);
            let profile = self.draft.applied_profile();
            self.seat
                .set_rig(swap_knot::Rig::new(&self.sheet, profile, &layout));
        }
    }

    fn play(&mut self) {
        let now = self.now();
        self.seat.tick(now);
        let seconds = now.since(self.last_frame).as_secs_f32().min(0.1);
        self.last_frame = now;
        self.stage.play(&self.seat, seconds);
        for happened in self
            .seat
            .happened()
            .iter()
            .filter(|h| h.edge == Edge::Began)
        {
            let row = swap_knot::Row {
                action: happened.action,
                arm: happened.arm,
            };
            self.report
                .say(&format!("began: {}", self.sheet.row_name(row)));
        }
    }

    /// The line of prompts for where the player is.
    pub(crate) fn prompt(&mut self) -> String {
        let here = self.seat.situations().last().copied();
        let kind = self.seat.device_kind();
        let found = self.prompts.iter_mut().find(|(s, _)| Some(*s) == here);
        let text = found.map(|(_, p)| p.render(self.seat.rig(), kind).to_string());
        text.unwrap_or_default()
    }

    /// The profile as it was applied last, for a window title or a report.
    pub(crate) fn profile(&self) -> &Profile {
        self.draft.profile()
    }

    pub(crate) fn name_of(&self, input: Input) -> String {
        self.draft.words().input_name(input, self.draft.layout())
    }
}

fn is_key(event: &Event) -> bool {
    matches!(event.what, EventKind::Key { down: true, .. })
}

impl eframe::App for App {
    fn ui(&mut self, ui: &mut egui::Ui, _frame: &mut eframe::Frame) {
        self.take_in();
        self.play();
        if ui.ctx().input(|i| i.viewport().close_requested()) && self.draft.is_changed() {
            // Leaving with unsaved changes asks, and says what has changed.
            ui.ctx()
                .send_viewport_cmd(egui::ViewportCommand::CancelClose);
            self.busy = Busy::Leaving;
        }
        self.menu.refresh(&self.draft);
        crate::menu::draw(self, ui);
        let busy = !matches!(self.busy, Busy::Nothing);
        let holds = !self.seat.inputs_down().is_empty();
        if holds || self.stage.moves() {
            ui.ctx().request_repaint();
        } else if busy {
            ui.ctx()
                .request_repaint_after(std::time::Duration::from_millis(100));
        }
    }
}
