//! The same rows as in the window, in a terminal:
//! `cargo run -p remap_terminal -- [PROFILES [LANGUAGE]]`; without a folder for profiles, they are
//! where the platform keeps what a user sets.
//!
//! Arrows move, Enter changes, Delete clears, `r` resets the row, `u` takes back, `a` applies,
//! `q` leaves. No rule lives here: it is all asked of the draft.

mod keys;
mod view;

use std::error::Error;
use std::process::ExitCode;

use ratatui::crossterm::event::{self, Event, KeyCode, KeyEvent, KeyEventKind};
use swap_knot::{
    Bind, Cell, Controls, Draft, Layout, Locker, Menu, Question, Refusal, Reset, Settle, Sheet,
    Slug, Words,
};

const SHEET: &str = include_str!("../../../demo/slack-water.toml");

/// What the menu waits for.
pub(crate) enum Busy {
    Nothing,
    Listening,
    Asking(Box<Question>),
    Leaving,
}

pub(crate) struct App {
    pub(crate) draft: Draft,
    pub(crate) menu: Menu,
    pub(crate) busy: Busy,
    pub(crate) message: String,
    /// Row and column.
    pub(crate) at: (usize, usize),
    controls: Controls,
    done: bool,
}

fn main() -> ExitCode {
    match start() {
        Ok(()) => ExitCode::SUCCESS,
        Err(why) => {
            eprintln!("error: {why}");
            ExitCode::FAILURE
        }
    }
}

fn start() -> Result<(), Box<dyn Error>> {
    let mut args = std::env::args().skip(1);
    let folder = args.next();
    let language = args.next().unwrap_or_else(|| "en".to_owned());
    let sheet = Sheet::from_toml(SHEET)?;
    let locker = match folder {
        Some(folder) => Locker::open(folder)?,
        None => Locker::of_user(&sheet)?,
    };
    let skipper = Slug::from_title("skipper");
    let mut controls = Controls::open(&sheet, locker, &skipper, &Layout::us());
    controls.set_words(&Words::nearest(&language));
    let draft = controls.draft();
    let mut app = App {
        menu: Menu::new(&draft),
        draft,
        busy: Busy::Nothing,
        message: reports(&mut controls),
        at: (0, 0),
        controls,
        done: false,
    };
    let mut terminal = ratatui::try_init()?;
    let done = run(&mut terminal, &mut app);
    ratatui::restore();
    done
}

fn run(terminal: &mut ratatui::DefaultTerminal, app: &mut App) -> Result<(), Box<dyn Error>> {
    while !app.done {
        app.menu.refresh(&app.draft);
        terminal.draw(|frame| view::draw(app, frame))?;
        if let Event::Key(key) = event::read()?
            && key.kind != KeyEventKind::Release
        {
            app.key(key);
        }
    }
    Ok(())
}

impl App {
    /// The cell that the player is on.
    pub(crate) fn cell(&self) -> Cell {
        self.menu.rows()[self.at.0].cells[self.at.1].cell
    }

    fn key(&mut self, key: KeyEvent) {
        match &self.busy {
            Busy::Nothing => self.command(key.code),
            Busy::Listening => self.hear(key),
            Busy::Asking(_) => self.answer(key.code),
            Busy::Leaving => match key.code {
                KeyCode::Char('a') => self.done = self.apply(),
                KeyCode::Char('d') => self.done = true,
                _ => self.busy = Busy::Nothing,
            },
        }
    }

    fn command(&mut self, key: KeyCode) {
        let (rows, columns) = (self.menu.rows().len(), self.menu.columns().len());
        let (row, column) = self.at;
        self.message.clear();
        match key {
            KeyCode::Up => self.at.0 = row.saturating_sub(1),
            KeyCode::Down => self.at.0 = (row + 1).min(rows - 1),
            KeyCode::Left => self.at.1 = column.saturating_sub(1),
            KeyCode::Right => self.at.1 = (column + 1).min(columns - 1),
            KeyCode::Enter => {
                let cell = &self.menu.rows()[row].cells[column];
                match &cell.why_not {
                    Some(why) => self.message = self.draft.tell(why),
                    None => self.busy = Busy::Listening,
                }
            }
            KeyCode::Delete => {
                let unbound = self.draft.unbind(self.cell());
                self.tell(unbound);
            }
            KeyCode::Char('r') => {
                let reset = self.draft.reset(Reset::Action(self.cell().row.action));
                self.tell(reset);
            }
            KeyCode::Char('u') => {
                self.draft.undo();
            }
            KeyCode::Char('a') => {
                self.apply();
            }
            KeyCode::Char('q') | KeyCode::Esc => match self.draft.is_changed() {
                true => self.busy = Busy::Leaving,
                false => self.done = true,
            },
            _ => {}
        }
    }

    /// Takes the key that the player pressed for a cell.
    fn hear(&mut self, key: KeyEvent) {
        self.busy = Busy::Nothing;
        if key.code == KeyCode::Esc {
            return;
        }
        match keys::chord(key, self.draft.layout()) {
            Some(chord) => {
                let bound = self.draft.bind(self.cell(), chord);
                self.after(bound);
            }
            None => self.message = self.draft.words().say("menu-unheard", &[]),
        }
    }

    fn answer(&mut self, key: KeyCode) {
        let number = match key {
            KeyCode::Char(digit) => digit.to_digit(10),
            KeyCode::Esc => Some(Settle::ALL.len() as u32),
            _ => None,
        };
        let index = number.and_then(|n| usize::try_from(n).ok()?.checked_sub(1));
        let Some(settle) = index.and_then(|i| Settle::ALL.get(i)) else {
            return;
        };
        if let Busy::Asking(question) = std::mem::replace(&mut self.busy, Busy::Nothing) {
            let answered = self.draft.answer(question, *settle);
            self.after(answered);
        }
    }

    fn after(&mut self, bound: Result<Bind, Refusal>) {
        match bound {
            Ok(Bind::Done) => {}
            Ok(Bind::Asks(question)) => self.busy = Busy::Asking(question),
            Err(refusal) => self.message = self.draft.tell(&refusal),
        }
    }

    fn tell(&mut self, done: Result<(), Refusal>) {
        if let Err(refusal) = done {
            self.message = self.draft.tell(&refusal);
        }
    }

    /// Applies and saves; `false` when it could not be saved.
    fn apply(&mut self) -> bool {
        self.busy = Busy::Nothing;
        self.controls.apply(&mut self.draft);
        let is_kept = self.controls.save();
        // With what another program had changed underneath.
        self.draft = self.controls.draft();
        self.message = reports(&mut self.controls);
        if self.message.is_empty() {
            self.message = self.draft.words().say("menu-saved", &[]);
        }
        is_kept
    }
}

/// What there is to tell, in one line.
fn reports(controls: &mut Controls) -> String {
    let reports = controls.take_reports();
    controls.telling().lines(&reports).join(" ")
}
