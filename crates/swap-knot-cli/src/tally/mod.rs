//! `swap-knot tally`: what many players changed, counted.

mod counts;
mod file;
mod show;
mod walk;

use std::path::PathBuf;

use self::counts::Tally;
use self::file::TallyFile;
use crate::table::print_json;
use crate::{CLEAN, Done, FOUND, files};

/// The options of `tally`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot tally demo/slack-water.toml demo/profiles\n  find profiles -name '*.toml' | swap-knot tally demo/slack-water.toml - --json > part.json\n  swap-knot tally demo/slack-water.toml --add part.json other.json\n\nNothing of it says who a player is: titles of profiles are not read, and only files that cannot\nbe read are named. Players of an older version of the game are counted by what its actions are\ncalled now. Where a file could not be read, it exits with 1. Tallies of parts add up to the same\nnumbers, so that many machines may count."
)]
pub(crate) struct Args {
    /// The sheet that declares the actions.
    sheet: PathBuf,
    /// Profiles, and folders with profiles in them; `-` reads their paths from standard input, one a
    /// line.
    #[arg(required = true)]
    files: Vec<PathBuf>,
    /// The files are tallies, as `--json` prints them, to be added up.
    #[arg(long)]
    add: bool,
    /// How many rows to show, the most changed first.
    #[arg(long, default_value_t = 20)]
    top: usize,
    /// Print JSON with all of them, by layout and preset, for scripts and for `--add`.
    #[arg(long)]
    json: bool,
}

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let (tally, not_read) = match args.add {
        true => TallyFile::add_up(&args.files, &sheet)?,
        false => {
            let (tally, broken) = walk::count(&args.files, Tally::new(&sheet))?;
            broken.print();
            (tally, broken.count)
        }
    };
    if tally.profiles == 0 {
        return Err("there is no profile that can be read".into());
    }
    match args.json {
        true => {
            let file = TallyFile::new(&tally, &sheet, not_read);
            print_json(&serde_json::to_value(file)?)?;
        }
        false => show::print(&tally, &sheet, args.top, not_read)?,
    }
    // What could not be read is counted nowhere else.
    Ok(if not_read == 0 { CLEAN } else { FOUND })
}
