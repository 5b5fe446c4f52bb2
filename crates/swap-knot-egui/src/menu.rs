//! The state of the menu, and what becomes of events and commands.

use std::time::Duration;

use egui::{Rect, Ui};
use swap_knot::{
    Bind, Cell, Chord, Column, Conflict, Draft, Event, EventKind, Heard, Held, Listener,
    ListenerOptions, Menu, MenuRow, Place, Question, Refusal, RefusedInput, Reset, Rig, Row,
    Settle, Time,
};

use crate::focus::{Focus, Tool, first_cell};
use crate::{GlyphTextures, MenuCommand};

/// What the menu is doing.
pub(crate) enum Busy {
    Nothing,
    /// Waiting for the input for a cell.
    Listening(Cell, Box<Listener>),
    /// Waiting for an input, to show what is on it.
    Finding(Box<Listener>),
    /// Waiting for the answer to a conflict.
    Asking(Box<Question>),
    /// Waiting for what to do with unsaved changes.
    Leaving,
}

/// Something that happened in the menu.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum MenuNews {
    /// It waits for the new input of a cell, or to find what is on an input. What it takes goes to
    /// [`Seat::overhear`](swap_knot::Seat::overhear), so that nothing of it is played.
    Listening(Option<Cell>),
    /// An input or chord was heard.
    Heard(Chord),
    /// It asks how to settle this conflict.
    Asks(Box<Conflict>),
    /// An edit was refused, with the reason.
    Refused(Refusal),
    /// An input was worked that cannot be taken; it goes on listening.
    NotTaken(RefusedInput),
    /// The changes were applied: give the rig to the seat, and keep the draft's profile.
    Applied(Rig),
    /// The changes were dropped.
    Discarded,
    /// The player wants to leave the menu, and has settled what becomes of changes.
    Leave,
}

/// The whole remap menu as one widget: rows by group, columns, search, listening, conflicts, undo,
/// reset, apply and discard.
///
/// See the [front page](crate) for how it goes into a game.
pub struct RemapMenu {
    pub(crate) busy: Busy,
    pub(crate) menu: Menu,
    pub(crate) glyphs: GlyphTextures,
    /// What the player searches for by name.
    pub(crate) search: String,
    /// The input that the player wants to know about.
    pub(crate) on: Option<Chord>,
    /// Whether the player types into the search field.
    pub(crate) typing: bool,
    pub(crate) want_typing: Option<bool>,
    pub(crate) focus: Focus,
    /// Whether the focus is shown: once the menu is worked without a mouse.
    pub(crate) shows_focus: bool,
    /// Whether the focus moved, so that the list has to follow.
    pub(crate) follow: bool,
    /// The last thing to tell the player.
    pub(crate) message: String,
    pub(crate) news: Vec<MenuNews>,
    pub(crate) places: Vec<(String, Rect)>,
    pub(crate) now: Time,
    held: Held,
}

impl RemapMenu {
    /// The menu of a draft.
    pub fn new(draft: &Draft) -> RemapMenu {
        let menu = Menu::new(draft);
        let rows: Vec<&MenuRow> = menu.rows().iter().collect();
        RemapMenu {
            busy: Busy::Nothing,
            focus: first_cell(&rows).unwrap_or(Focus::Tool(Tool::Apply)),
            menu,
            glyphs: GlyphTextures::new(),
            search: String::new(),
            on: None,
            typing: false,
            want_typing: None,
            shows_focus: false,
            follow: false,
            message: String::new(),
            news: Vec::new(),
            places: Vec::new(),
            now: Time::ZERO,
            held: Held::new(),
        }
    }

    /// Hands an event in, before the game gets it; `true` when the menu takes it for itself.
    ///
    /// While it listens or asks it takes everything; otherwise the keys and buttons of
    /// [`MenuCommand::of`] work it, and what is typed into the search field stays there.
    pub fn event(&mut self, event: &Event, draft: &mut Draft) -> bool {
        self.now = self.now.max(event.at);
        self.held.feed(event);
        if let Busy::Listening(_, listener) | Busy::Finding(listener) = &mut self.busy {
            let heard = listener.hear(event);
            self.hear(heard, draft);
            return true;
        }
        let key = matches!(event.what, EventKind::Key { .. });
        if self.typing && key {
            let ends = |p| matches!(p, Place::Enter | Place::Escape);
            if matches!(event.what, EventKind::Key { place, down: true, .. } if ends(place)) {
                self.want_typing = Some(false);
            }
            return true;
        }
        match MenuCommand::of(event) {
            Some(command) => {
                self.command(command, draft);
                true
            }
            None => matches!(self.busy, Busy::Asking(_) | Busy::Leaving) && key,
        }
    }

    /// Works the menu without a mouse, for games that have commands of their own.
    pub fn command(&mut self, command: MenuCommand, draft: &mut Draft) {
        self.shows_focus = true;
        self.follow = true;
        match (&self.busy, command) {
            (Busy::Listening(..) | Busy::Finding(_), _) => {}
            (_, MenuCommand::Go(way)) => {
                let columns = self.menu.columns().to_vec();
                let rows = self.visible(draft);
                let rows: Vec<&MenuRow> = rows.iter().collect();
                let mut focus = self.focus.go(way, &rows, &columns);
                if let Focus::Answer(n) = focus {
                    focus = Focus::Answer(n.min(self.answers() - 1));
                }
                self.focus = focus;
            }
            (Busy::Asking(_), MenuCommand::Back) => self.answer(Settle::BackOut, draft),
            (Busy::Leaving, MenuCommand::Back) => self.stay(),
            (Busy::Asking(_), MenuCommand::Choose) => {
                if let Focus::Answer(n) = self.focus {
                    self.answer(Settle::ALL[n.min(3)], draft);
                }
            }
            (Busy::Leaving, MenuCommand::Choose) => match self.focus {
                Focus::Answer(0) => self.leave(true, draft),
                Focus::Answer(1) => self.leave(false, draft),
                _ => self.stay(),
            },
            (Busy::Asking(_) | Busy::Leaving, _) => {}
            (Busy::Nothing, MenuCommand::Back) => self.ask_to_leave(draft),
            (Busy::Nothing, command) => match (self.focus, command) {
                (Focus::Cell(cell), MenuCommand::Choose) => self.listen(cell, draft),
                (Focus::Cell(cell), MenuCommand::Unbind) => self.unbind(cell, draft),
                (Focus::Cell(cell), MenuCommand::Reset) => {
                    self.reset(Reset::Action(cell.row.action), draft);
                }
                (Focus::Tool(tool), MenuCommand::Choose) => self.tool(tool, draft),
                _ => {}
            },
        }
    }

    /// Draws the menu and answers what happened since the last time.
    pub fn show(&mut self, ui: &mut Ui, draft: &mut Draft, now: Time) -> Vec<MenuNews> {
        self.now = self.now.max(now);
        if let Busy::Listening(_, listener) | Busy::Finding(listener) = &mut self.busy {
            let heard = listener.tick(now);
            self.hear(heard, draft);
        }
        self.menu.refresh(draft);
        self.places.clear();
        crate::draw::draw(self, ui, draft);
        std::mem::take(&mut self.news)
    }

    /// Wants to leave the menu: at once without changes, otherwise it asks.
    pub fn ask_to_leave(&mut self, draft: &Draft) {
        if draft.is_changed() {
            self.busy = Busy::Leaving;
            self.focus = Focus::Answer(0);
        } else {
            self.news.push(MenuNews::Leave);
        }
    }

    /// Goes to a row, for instance to one that a prompt showed as unbound.
    pub fn go_to(&mut self, row: Row) {
        self.search.clear();
        self.on = None;
        if let Some(column) = self.menu.columns().first() {
            self.focus = Focus::Cell(row.cell(*column));
            (self.shows_focus, self.follow) = (true, true);
        }
    }

    /// Whether it waits for an input: draw again soon, time runs.
    pub fn is_listening(&self) -> bool {
        matches!(self.busy, Busy::Listening(..) | Busy::Finding(_))
    }

    /// Whether it asks what to do with unsaved changes.
    pub fn is_leaving(&self) -> bool {
        matches!(self.busy, Busy::Leaving)
    }

    /// The cell that it waits for the new input of.
    pub fn listening(&self) -> Option<Cell> {
        match &self.busy {
            Busy::Listening(cell, _) => Some(*cell),
            _ => None,
        }
    }

    /// Whether the player types into the search field.
    pub fn is_typing(&self) -> bool {
        self.typing
    }

    /// Where everything stood in the last frame, by name: `apply`, `cell walk.up keyboard-1`,
    /// `way swap`. For tests, and for arrows that point something out.
    pub fn places(&self) -> impl Iterator<Item = (&str, Rect)> {
        self.places
            .iter()
            .map(|(name, rect)| (name.as_str(), *rect))
    }

    /// The rows that the search leaves.
    pub fn visible(&self, draft: &Draft) -> Vec<MenuRow> {
        let mut rows: Vec<MenuRow> = self.menu.search(draft, &self.search).cloned().collect();
        if let Some(on) = &self.on {
            let cells = draft.cells_on(on);
            rows.retain(|r| cells.iter().any(|c| c.row == r.row));
        }
        rows
    }

    /// The columns, in order.
    pub fn columns(&self) -> &[Column] {
        self.menu.columns()
    }

    /// How many answers the question that is open has.
    fn answers(&self) -> usize {
        match &self.busy {
            Busy::Asking(_) => Settle::ALL.len(),
            _ => 3,
        }
    }

    pub(crate) fn tool(&mut self, tool: Tool, draft: &mut Draft) {
        match tool {
            Tool::Apply => self.apply(draft),
            Tool::Discard => self.discard(draft),
            Tool::Undo => {
                draft.undo();
            }
            Tool::Redo => {
                draft.redo();
            }
            Tool::ResetAll => self.reset(Reset::All, draft),
            Tool::Search => self.want_typing = Some(true),
            Tool::Find => {
                let options = ListenerOptions::default();
                self.busy = Busy::Finding(self.listener(options));
                self.news.push(MenuNews::Listening(None));
            }
            Tool::ShowAll => {
                self.search.clear();
                self.on = None;
            }
        }
    }

    pub(crate) fn listen(&mut self, cell: Cell, draft: &Draft) {
        let can_bind = |c: &swap_knot::MenuCell| c.cell == cell && c.can_bind;
        let mut cells = self.menu.rows().iter().flat_map(|r| &r.cells);
        if !cells.any(can_bind) {
            return;
        }
        let options = draft.listens_for(cell);
        self.busy = Busy::Listening(cell, self.listener(options));
        self.focus = Focus::Cell(cell);
        self.news.push(MenuNews::Listening(Some(cell)));
    }

    fn listener(&mut self, options: ListenerOptions) -> Box<Listener> {
        let mut listener = Box::new(Listener::new(options, &self.held));
        listener.tick(self.now);
        self.message.clear();
        listener
    }

    fn hear(&mut self, heard: Heard, draft: &mut Draft) {
        match heard {
            Heard::Nothing | Heard::Holding => {}
            Heard::Chord(chord) => {
                self.news.push(MenuNews::Heard(chord.clone()));
                match std::mem::replace(&mut self.busy, Busy::Nothing) {
                    Busy::Finding(_) => self.on = Some(chord),
                    Busy::Listening(cell, _) => match draft.bind(cell, chord) {
                        Ok(bind) => self.after_bind(bind),
                        Err(refusal) => self.refuse(refusal, draft),
                    },
                    _ => {}
                }
            }
            Heard::Refused(why) => {
                self.message = draft.tell(&why);
                self.news.push(MenuNews::NotTaken(why));
            }
            Heard::Cancelled | Heard::TimedOut => self.busy = Busy::Nothing,
        }
    }

    fn after_bind(&mut self, bind: Bind) {
        self.message.clear();
        self.busy = match bind {
            Bind::Done => {
                if let Focus::Answer(_) = self.focus {
                    self.focus = Focus::Tool(Tool::Apply);
                }
                Busy::Nothing
            }
            Bind::Asks(question) => {
                if let Some(conflict) = question.conflict() {
                    self.news.push(MenuNews::Asks(Box::new(conflict.clone())));
                }
                let offered = |w: &swap_knot::Way| w.refused.is_none();
                let first = question.ways().iter().position(offered);
                self.focus = Focus::Answer(first.unwrap_or(3));
                Busy::Asking(question)
            }
        };
    }

    pub(crate) fn answer(&mut self, settle: Settle, draft: &mut Draft) {
        let Busy::Asking(question) = std::mem::replace(&mut self.busy, Busy::Nothing) else {
            return;
        };
        let cell = question.cell();
        match draft.answer(question.clone(), settle) {
            Ok(bind) => {
                self.after_bind(bind);
                if matches!(self.busy, Busy::Nothing) {
                    self.focus = Focus::Cell(cell);
                }
            }
            Err(refusal) => {
                // The question stays open for another answer.
                self.busy = Busy::Asking(question);
                self.refuse(refusal, draft);
            }
        }
    }

    pub(crate) fn unbind(&mut self, cell: Cell, draft: &mut Draft) {
        if let Err(refusal) = draft.unbind(cell) {
            self.refuse(refusal, draft);
        }
    }

    pub(crate) fn reset(&mut self, what: Reset, draft: &mut Draft) {
        if let Err(refusal) = draft.reset(what) {
            self.refuse(refusal, draft);
        }
    }

    fn apply(&mut self, draft: &mut Draft) {
        self.message.clear();
        self.news.push(MenuNews::Applied(draft.apply()));
    }

    fn discard(&mut self, draft: &mut Draft) {
        draft.discard();
        self.message.clear();
        self.news.push(MenuNews::Discarded);
    }

    pub(crate) fn leave(&mut self, apply: bool, draft: &mut Draft) {
        self.stay();
        match apply {
            true => self.apply(draft),
            false => self.discard(draft),
        }
        self.news.push(MenuNews::Leave);
    }

    pub(crate) fn stay(&mut self) {
        self.busy = Busy::Nothing;
        self.focus = Focus::Tool(Tool::Apply);
    }

    fn refuse(&mut self, why: Refusal, draft: &Draft) {
        self.message = draft.tell(&why);
        self.news.push(MenuNews::Refused(why));
    }

    /// The seconds until listening ends by itself.
    pub(crate) fn seconds_left(&self, listener: &Listener) -> u64 {
        let left = listener.time_left(self.now).unwrap_or(Duration::ZERO);
        left.as_secs_f32().ceil() as u64
    }
}
