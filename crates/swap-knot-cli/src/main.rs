//! The command `swap-knot`: check a game's controls, try prompts, see the demo.

mod adopt;
mod bindings;
mod board;
mod check;
mod controllers;
mod demo;
mod draw;
mod ease;
mod edit;
mod explain;
mod failure;
mod files;
mod glyphs;
mod inputs;
mod layouts;
mod locker;
mod marks;
mod new;
mod profile_args;
mod profiles;
mod prompt;
mod reach;
mod replay;
mod shell;
mod table;
mod tally;
mod texts;
mod timeline;
mod types;
mod words;

use std::process::ExitCode;

use clap::{Parser, Subcommand};
/// All is well.
const CLEAN: u8 = 0;
/// The command did its work and found something wrong.
const FOUND: u8 = 1;
/// The command could not do its work.
const FAILED: u8 = 2;

/// Full remapping of keys and buttons for games: check a game's sheet, try its prompts.
///
/// Exit codes: 0 all is well, 1 something was found, 2 the command could not do its work.
#[derive(Debug, Parser)]
#[command(name = "swap-knot", version, max_term_width = 100)]
struct Args {
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    /// Tell the whole story on the demo game, Slack Water, stage by stage.
    Demo,
    /// Write a starter: a commented sheet, and a main loop that builds and runs.
    New(new::Args),
    /// Check a sheet: mistakes in it, conflicts, and what breaks on which layout.
    Check(check::Args),
    /// The keyboard layouts: list them, draw one, compare two, find a key on all of them.
    Layouts(layouts::Args),
    /// What one hand can play, and a preset for the other hand.
    Reach(reach::Args),
    /// Draw a keyboard map, a control card, or the glyphs, as SVG, PNG or HTML.
    Draw(Box<draw::Args>),
    /// What a pack of pictures lacks for a game, and what it has too much of.
    Glyphs(glyphs::Args),
    /// Every input with its name, searched by name, legend or habit.
    Inputs(inputs::Args),
    /// Print the bindings as text, Markdown or JSON, for the manual.
    Table(bindings::Args),
    /// Show what a prompt says to a player.
    Prompt(prompt::Args),
    /// Bind an action to an input in a player's profile.
    Bind(edit::BindArgs),
    /// Take an action's bindings away in a player's profile.
    Unbind(edit::UnbindArgs),
    /// Go back to the game's defaults in a player's profile.
    Reset(edit::ResetArgs),
    /// Ease what a game asks of hands in a player's profile: latches, holds as presses, times.
    Ease(ease::Args),
    /// What a profile changes.
    Changes(explain::ChangesArgs),
    /// Where the bindings, feel and times of an action come from: default, preset or profile.
    Why(explain::WhyArgs),
    /// Take what a profile changes into the sheet, as its new defaults.
    Adopt(adopt::Args),
    /// Count what many players changed: which bindings, to what, and what they set besides.
    Tally(tally::Args),
    /// The profiles of a game: list, copy, rename, delete, export, import.
    Profiles(profiles::Args),
    /// What players taught of controllers without a known mapping: list, export, import, forget.
    Controllers(controllers::Args),
    /// Play a recorded trace and tell what each action did, and why nothing happened.
    Replay(replay::Args),
    /// Print completions for a shell.
    Completions(shell::CompletionsArgs),
    /// Print a manual page.
    Man(shell::ManArgs),
    /// Write the typed actions and situations of a sheet as Rust source.
    Types(types::Args),
}

fn main() -> ExitCode {
    let args = match Args::try_parse() {
        Ok(args) => args,
        // Help and versions go to where output goes, and what cannot be written there has not been said.
        Err(e) => {
            let wants = ExitCode::from(e.exit_code() as u8);
            return match e.print() {
                Ok(()) => wants,
                Err(io) if io.kind() == std::io::ErrorKind::BrokenPipe => wants,
                Err(io) => {
                    failure::print(&io);
                    ExitCode::from(FAILED)
                }
            };
        }
    };
    let done = match args.command {
        Command::Demo => demo::run(),
        Command::New(args) => new::run(&args),
        Command::Check(args) => check::run(&args),
        Command::Layouts(args) => layouts::run(&args),
        Command::Reach(args) => reach::run(&args),
        Command::Draw(args) => draw::run(&args),
        Command::Glyphs(args) => glyphs::run(&args),
        Command::Inputs(args) => inputs::run(&args),
        Command::Table(args) => bindings::run(&args),
        Command::Prompt(args) => prompt::run(&args),
        Command::Bind(args) => edit::bind(&args),
        Command::Unbind(args) => edit::unbind(&args),
        Command::Reset(args) => edit::reset(&args),
        Command::Ease(args) => ease::run(&args),
        Command::Changes(args) => explain::changes(&args),
        Command::Why(args) => explain::why(&args),
        Command::Adopt(args) => adopt::run(&args),
        Command::Tally(args) => tally::run(&args),
        Command::Profiles(args) => profiles::run(&args),
        Command::Controllers(args) => controllers::run(&args),
        Command::Replay(args) => replay::run(&args),
        Command::Completions(args) => shell::completions(&args),
        Command::Man(args) => shell::man(&args),
        Command::Types(args) => types::run(&args),
    };
    match done {
        Ok(code) => ExitCode::from(code),
        // Whoever reads us has read enough; that is no failure of ours.
        Err(e) if is_closed_pipe(e.as_ref()) => ExitCode::from(CLEAN),
        Err(e) => {
            failure::print(e.as_ref());
            ExitCode::from(FAILED)
        }
    }
}

/// What a command answers: an exit code, or an error to print.
type Done = Result<u8, Box<dyn std::error::Error>>;

fn is_closed_pipe(error: &(dyn std::error::Error + 'static)) -> bool {
    let io = error.downcast_ref::<std::io::Error>();
    io.is_some_and(|e| e.kind() == std::io::ErrorKind::BrokenPipe)
}
