//! What the commands that work on a profile have in common.

use std::error::Error;
use std::path::{Path, PathBuf};

use swap_knot::{Cell, Chord, Draft, Layout, Profile, Sheet};

use crate::files;
use crate::words::WordsArgs;

/// A sheet, a profile and a layout.
#[derive(Debug, clap::Args)]
pub(crate) struct ProfileArgs {
    /// The sheet that declares the actions.
    pub(crate) sheet: PathBuf,
    /// The player's profile; a file that is not there yet is a profile without changes.
    #[arg(long, value_name = "FILE")]
    pub(crate) profile: PathBuf,
    /// The player's layout; without it, the one in the profile, or us.
    #[arg(long, value_name = "NAME", value_parser = files::layout)]
    pub(crate) layout: Option<Layout>,
    #[command(flatten)]
    pub(crate) words: WordsArgs,
    /// Print JSON instead of text.
    #[arg(long)]
    pub(crate) json: bool,
}

impl ProfileArgs {
    /// The draft of the profile, carried over to the sheet.
    pub(crate) fn draft(&self) -> Result<Draft, Box<dyn Error>> {
        let sheet = files::sheet(&self.sheet)?;
        // Only what is not there is none: what cannot be looked at may hold all that a player ever set.
        let is_there = self.profile.try_exists().map_err(|e| {
            let file = self.profile.display();
            format!("cannot look at {file}: {e}; nothing was changed")
        })?;
        let profile = match is_there {
            true => files::profile(Some(&self.profile))?,
            false => Profile::new(title_of(&self.profile)),
        };
        let layout = files::layout_of(self.layout.as_ref(), &profile);
        let profile = files::carry_over(&sheet, &profile, &layout);
        let words = self.words.words(&profile)?;
        let mut draft = Draft::new(&sheet, profile, &layout);
        draft.set_words(&words);
        Ok(draft)
    }

    /// Applies a draft and writes its profile, all or nothing.
    pub(crate) fn save(&self, draft: &mut Draft) -> Result<(), Box<dyn Error>> {
        draft.apply();
        let mut profile = draft.profile();
        profile.stamp(draft.sheet());
        let text = profile.to_toml();
        let file = self.profile.display();
        if text.len() > Profile::MAX_BYTES {
            let most = Profile::MAX_BYTES;
            return Err(format!(
                "cannot write {file}: it would have {} bytes, and a profile has at most {most}",
                text.len()
            )
            .into());
        }
        swap_knot_adopt::replace(&self.profile, &text)
            .map_err(|e| format!("cannot write {file}: {e}").into())
    }
}

fn title_of(path: &Path) -> String {
    path.file_stem()
        .map_or_else(String::new, |s| s.to_string_lossy().into_owned())
}

/// A row by its text, or an error that names the nearest one.
pub(crate) fn row(sheet: &Sheet, text: &str) -> Result<swap_knot::Row, Box<dyn Error>> {
    if let Some(row) = sheet.find_row(text) {
        return Ok(row);
    }
    // The prompt reader knows how to tell what was meant.
    let braces = format!("{{{text}}}");
    match swap_knot::Prompt::new(&braces, sheet) {
        Err(e) => Err(e.message().to_owned().into()),
        Ok(_) => Err(format!("`{text}` has no binding of its own; name one of its arms").into()),
    }
}

/// A change of a cell as JSON.
pub(crate) fn change_json(
    sheet: &Sheet,
    cell: Cell,
    before: Option<&Chord>,
    after: Option<&Chord>,
) -> serde_json::Value {
    serde_json::json!({
        "row": sheet.row_name(cell.row),
        "title": sheet.row_title(cell.row),
        "column": cell.column.to_string(),
        "before": before.map(Chord::to_string),
        "after": after.map(Chord::to_string),
    })
}
