//! The controls screen in a terminal: `cargo run -p remap_terminal -- [PROFILES [LANGUAGE]]`; without
//! a folder for profiles, they are where the platform keeps what a user sets.
//!
//! It is worked as everywhere: arrows, Enter, Escape, Delete, Backspace, Tab. No rule, text or state
//! of the screen lives here. What is confirmed by holding a key cannot be, since a terminal does not
//! tell when a key comes up.

mod keys;
mod view;

use std::error::Error;
use std::process::ExitCode;
use std::time::{Duration, Instant};

use ratatui::crossterm::event::{self, Event, KeyEventKind};
use swap_knot::{Controls, Layout, Locker, Sheet, Slug, Time, Words};

const SHEET: &str = include_str!("../../../demo/slack-water.toml");

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
    let mut controls = Controls::open_last(&sheet, locker, &skipper, &Layout::us());
    controls.set_words(&Words::nearest(&language));
    controls.open_screen(Time::ZERO);
    let mut terminal = ratatui::try_init()?;
    let done = run(&mut terminal, &mut controls);
    ratatui::restore();
    done
}

fn run(
    terminal: &mut ratatui::DefaultTerminal,
    controls: &mut Controls,
) -> Result<(), Box<dyn Error>> {
    let started = Instant::now();
    let mut skin = view::Skin::default();
    loop {
        controls.tick(Time::from(started.elapsed()));
        controls.save();
        let reports = controls.take_reports();
        if !reports.is_empty() {
            let told = controls.telling().lines(&reports).join(" ");
            controls
                .screen_mut()
                .into_iter()
                .for_each(|s| s.tell(told.clone()));
        }
        let Some(screen) = controls.screen_mut() else {
            return Ok(());
        };
        let view = screen.view();
        terminal.draw(|frame| skin.draw(view, frame))?;
        // Time goes on while nothing is pressed.
        if event::poll(Duration::from_millis(100))?
            && let Event::Key(key) = event::read()?
            && key.kind != KeyEventKind::Release
        {
            let layout = controls.resolver().layout().clone();
            let now = Time::from(started.elapsed());
            for event in keys::events(key, &layout, now) {
                controls.feed(&event);
            }
        }
    }
}
