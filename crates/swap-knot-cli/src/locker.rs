//! The folder in which a game keeps things, for the commands that work in it.

use std::error::Error;
use std::io::Write as _;
use std::path::PathBuf;

use serde_json::json;
use swap_knot::Locker;
use swap_knot::keep::LoadNote;

use crate::table::{GOOD, styled};
use crate::{CLEAN, Done};

/// Where the game keeps things, and how to tell what was done there.
#[derive(Debug, clap::Args)]
pub(crate) struct InLocker {
    /// The folder in which the game keeps its profiles.
    #[arg(long, value_name = "DIR", global = true, default_value = ".")]
    folder: PathBuf,
    /// Print JSON instead of text.
    #[arg(long, global = true)]
    pub(crate) json: bool,
}

impl InLocker {
    pub(crate) fn open(&self) -> Result<Locker, Box<dyn Error>> {
        let folder = self.folder.display();
        match std::fs::metadata(&self.folder) {
            Ok(there) if there.is_dir() => {}
            Ok(_) => return Err(format!("{folder} is no folder").into()),
            Err(e) if e.kind() == std::io::ErrorKind::NotFound => {
                return Err(format!("there is no folder {folder}").into());
            }
            Err(e) => return Err(format!("cannot look at {folder}: {e}").into()),
        }
        Ok(Locker::open(&self.folder)?)
    }

    /// Tells what was done.
    pub(crate) fn done(&self, done: &str) -> Done {
        let mut out = anstream::stdout().lock();
        match self.json {
            true => writeln!(out, "{:#}", json!({ "done": done }))?,
            false => writeln!(out, "{}", styled(GOOD, done))?,
        }
        Ok(CLEAN)
    }
}

/// Tells what came up meanwhile.
pub(crate) fn tell(notes: &[LoadNote]) {
    for note in notes {
        anstream::eprintln!("note: {note}");
    }
}
