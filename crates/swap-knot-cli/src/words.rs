//! The player's language, and the game's own titles in it.

use std::error::Error;
use std::fs;
use std::path::{Path, PathBuf};

use swap_knot::prompt::Marks;
use swap_knot::{Profile, Words};

use crate::files;

/// The largest file of texts that is read, in bytes.
const MAX_BYTES: usize = 4 << 20;

/// In which words names and titles are told.
#[derive(Debug, clap::Args)]
pub(crate) struct WordsArgs {
    /// The player's language; `x-brackets` puts every text between brackets, to find those that were
    /// never translated.
    #[arg(long, value_name = "TAG", default_value = "en")]
    language: String,
    /// The folder with the game's Fluent files, for its titles: TAG.ftl, or .ftl files in a folder TAG.
    #[arg(long = "texts", value_name = "DIR")]
    folder: Option<PathBuf>,
    /// What the pads of the game's players print on their buttons: a file of marks.
    #[arg(long, value_name = "FILE")]
    marks: Option<PathBuf>,
    /// The family of the pad in hand, by its name in the marks; without it, the one in the profile.
    #[arg(long, value_name = "NAME", requires = "marks")]
    family: Option<String>,
}

impl WordsArgs {
    /// The words of the language with the game's own laid over them, by the marks of the pad in hand.
    pub(crate) fn words(&self, profile: &Profile) -> Result<Words, Box<dyn Error>> {
        let words = self.by_place()?;
        let Some(path) = &self.marks else {
            return Ok(words);
        };
        let marks = marks(path)?;
        if let Some(name) = self.family.as_deref().filter(|n| marks.family(n).is_none()) {
            let all: Vec<&str> = marks.families().map(|f| f.name()).collect();
            let (path, all) = (path.display(), all.join(", "));
            return Err(format!("{path}: there is no family `{name}`; there are {all}").into());
        }
        Ok(words.with_marks(&marks, self.family.as_deref().or(profile.family())))
    }

    fn by_place(&self) -> Result<Words, Box<dyn Error>> {
        let tag = &self.language;
        let shipped = Words::shipped(tag);
        let Some(folder) = &self.folder else {
            return shipped.ok_or_else(|| no_words(tag).into());
        };
        let mut own = files_in(folder)?;
        own.retain(|file| file.language == *tag);
        let mut words = match (shipped, own.is_empty()) {
            (Some(words), _) => words,
            // A language of the game's own: what it has no words for is said in English.
            (None, false) => Words::english().named(tag),
            (None, true) => return Err(no_words(tag).into()),
        };
        for file in own {
            words = words.with_texts(&file.text, &file.name)?;
        }
        Ok(words)
    }
}

/// A file of marks.
pub(crate) fn marks(path: &Path) -> Result<Marks, Box<dyn Error>> {
    let text = files::read(path, Marks::MAX_BYTES)?;
    Ok(Marks::from_toml(&text, &path.display().to_string())?)
}

/// The folder that a file is in.
pub(crate) fn folder_of(path: &Path) -> &Path {
    let folder = path.parent().unwrap_or(Path::new(""));
    match folder.as_os_str().is_empty() {
        true => Path::new("."),
        false => folder,
    }
}

fn no_words(tag: &str) -> String {
    let all: Vec<&str> = Words::languages().collect();
    format!(
        "there are no words for `{tag}`; there are {}, and those for which a game has texts",
        all.join(", ")
    )
}

/// A Fluent file of a game's.
pub(crate) struct TextFile {
    /// Its path, as it is told.
    pub(crate) name: String,
    /// The tag that its name or that of its folder gives.
    pub(crate) language: String,
    pub(crate) text: String,
}

/// The Fluent files below a folder, in the order of their names.
pub(crate) fn files_in(folder: &Path) -> Result<Vec<TextFile>, Box<dyn Error>> {
    let mut paths = Vec::new();
    collect(folder, &mut paths)?;
    paths.sort();
    if paths.is_empty() {
        let folder = folder.display();
        return Err(format!("{folder}: there are no .ftl files in this folder").into());
    }
    let read = |path: PathBuf| {
        let below = path.strip_prefix(folder).unwrap_or(&path);
        let first = below.components().next().map(|c| c.as_os_str());
        let language = Path::new(first.unwrap_or_default()).with_extension("");
        Ok(TextFile {
            name: path.display().to_string(),
            language: language.display().to_string(),
            text: files::read(&path, MAX_BYTES)?,
        })
    };
    paths.into_iter().map(read).collect()
}

fn collect(folder: &Path, out: &mut Vec<PathBuf>) -> Result<(), Box<dyn Error>> {
    let wrong = |e: std::io::Error| format!("{}: {e}", folder.display());
    for entry in fs::read_dir(folder).map_err(wrong)? {
        let entry = entry.map_err(wrong)?;
        // Links are not followed: they could lead round in a circle.
        let kind = entry.file_type().map_err(wrong)?;
        let path = entry.path();
        if kind.is_dir() {
            collect(&path, out)?;
        } else if kind.is_file() && path.extension().is_some_and(|e| e == "ftl") {
            out.push(path);
        }
    }
    Ok(())
}
