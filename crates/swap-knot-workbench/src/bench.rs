//! What lies on the workbench: a sheet that is read again whenever its file is saved, played by somebody
//! of whom nothing is kept, and what can be said of it. Without a picture.

use std::path::{Path, PathBuf};
use std::sync::mpsc::{Receiver, channel};

use notify::{RecursiveMode, Watcher as _};
use swap_knot::check::{Survey, preset_problems};
use swap_knot::input::Platform;
use swap_knot::layout::Resolver;
use swap_knot::remap::CarriedOver;
use swap_knot::{Controls, Layout, Profile, Sheet};
use swap_knot_adopt::{AdoptError, Adopted, adopt};

/// A sheet on the workbench.
pub struct Bench {
    file: PathBuf,
    /// The text that is played.
    text: String,
    /// What the file has that is no sheet: its mistakes, each with its line. What was there before plays
    /// on meanwhile.
    mistakes: Option<String>,
    /// How often another text was taken up.
    taken_up: u32,
    watching: Watching,
}

/// Hears that the file was saved.
struct Watching {
    events: Receiver<()>,
    /// Hears as long as it lives.
    watcher: notify::Result<notify::RecommendedWatcher>,
}

/// What is played until a sheet can be read.
const NOTHING: &str = "game = \"workbench\"\n[actions.nothing]\n";

/// Something that is worth a look, and whether it is a problem.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Finding {
    /// Whether the check of the command line would fail for it.
    pub is_problem: bool,
    /// In words.
    pub text: String,
}

impl Bench {
    /// Reads a sheet, and watches its file.
    ///
    /// # Errors
    /// When the file cannot be read; mistakes in it are shown, and mended while it is open.
    pub fn open(file: &Path, wake: impl Fn() + Send + 'static) -> Result<Bench, String> {
        let text = read(file)?;
        Ok(Bench {
            file: file.to_owned(),
            text,
            mistakes: None,
            taken_up: 0,
            watching: watch(file, wake),
        })
    }

    /// The sheet as it was read first; one of nothing where it has mistakes, which are shown.
    ///
    /// # Errors
    /// None that can be: the sheet of nothing is one.
    pub fn sheet(&mut self) -> Result<Sheet, String> {
        match self.read_sheet(&self.text) {
            Ok(sheet) => Ok(sheet),
            Err(mistakes) => {
                self.mistakes = Some(mistakes);
                Sheet::from_toml(NOTHING).map_err(|e| e.to_string())
            }
        }
    }

    fn read_sheet(&self, text: &str) -> Result<Sheet, String> {
        let name = self.file.display().to_string();
        Sheet::from_toml_named(text, &name).map_err(|e| e.to_string())
    }

    /// The file.
    pub fn file(&self) -> &Path {
        &self.file
    }

    /// What is wrong with the file as it is now, with the line of each mistake.
    pub fn mistakes(&self) -> Option<&str> {
        self.mistakes.as_deref()
    }

    /// Why nobody hears that the file is saved, if nobody does: then it is read once.
    pub fn why_not_watched(&self) -> Option<String> {
        self.watching
            .watcher
            .as_ref()
            .err()
            .map(ToString::to_string)
    }

    /// How often another text of the file was taken up.
    pub const fn taken_up(&self) -> u32 {
        self.taken_up
    }

    /// Takes up what was saved meanwhile: a sheet without mistakes is played from here on, and what was
    /// held, chosen and edited goes on by its names.
    pub fn follow(&mut self, controls: &mut Controls) {
        if self.watching.events.try_iter().count() == 0 {
            return;
        }
        match read(&self.file) {
            Ok(text) => self.take_up(text, controls),
            // It may be written just now, or moved away for a moment.
            Err(why) => self.mistakes = Some(why),
        }
    }

    fn take_up(&mut self, text: String, controls: &mut Controls) {
        if text == self.text && self.mistakes.is_none() {
            return;
        }
        match self.read_sheet(&text) {
            Ok(sheet) => {
                controls.follow_sheet(&sheet);
                self.text = text;
                self.mistakes = None;
                self.taken_up += 1;
            }
            Err(mistakes) => self.mistakes = Some(mistakes),
        }
    }

    /// What the sheet would have if what was tuned became its defaults.
    ///
    /// # Errors
    /// When that cannot be done.
    pub fn adopted(&self, controls: &Controls) -> Result<Adopted, AdoptError> {
        adopt(&self.text, controls.profile(), controls.resolver().clone())
    }

    /// Writes it into the file, and plays by it: the profile lets go of what is the sheet's own now.
    ///
    /// # Errors
    /// When it cannot be written, or the file says something else by now.
    pub fn write(&mut self, adopted: &Adopted, controls: &mut Controls) -> Result<(), String> {
        adopted.write(&self.file).map_err(|e| e.to_string())?;
        self.take_up(adopted.text().to_owned(), controls);
        let mut draft = controls.draft();
        draft.forget(adopted.taken()).map_err(|e| e.to_string())?;
        controls.apply(&mut draft);
        Ok(())
    }
}

/// What the check finds on some layouts, with what the player changed; problems come first.
pub fn findings(controls: &Controls, layouts: &[Layout]) -> Vec<Finding> {
    let rig = controls.seat().rig();
    let (sheet, platform) = (rig.sheet(), Platform::current());
    let survey = Survey::new(sheet, rig.bindings(), layouts, platform);
    let conflicts = survey.conflicts().iter().map(|c| Finding {
        is_problem: c.class.is_conflict(),
        text: c.describe(sheet),
    });
    let mut out: Vec<Finding> = conflicts.collect();
    out.extend(survey.findings().iter().map(|f| Finding {
        is_problem: f.is_problem,
        text: format!(
            "{} ({}): {}",
            f.describe(sheet),
            f.layouts_in_words(),
            f.remedy
        ),
    }));
    out.extend(
        preset_problems(sheet, layouts, platform)
            .into_iter()
            .map(|p| Finding {
                is_problem: true,
                text: format!("preset `{}`: {}", p.preset, p.text),
            }),
    );
    out.extend(survey.forgotten().iter().map(|f| Finding {
        is_problem: false,
        text: f.describe(sheet),
    }));
    out.sort_by_key(|f| !f.is_problem);
    out
}

/// A player for the workbench, with what a profile has.
pub fn player(sheet: &Sheet, profile: Option<Profile>, on: impl Into<Resolver>) -> Controls {
    let on = on.into();
    let profile = profile.unwrap_or_else(|| Profile::new("workbench"));
    let carried = CarriedOver::new(sheet, &profile, on.clone());
    Controls::new(sheet, carried.profile, on)
}

fn read(file: &Path) -> Result<String, String> {
    std::fs::read_to_string(file).map_err(|e| format!("{}: {e}", file.display()))
}

/// Watches the folder rather than the file: whoever saves may put another file in its place.
fn watch(file: &Path, wake: impl Fn() + Send + 'static) -> Watching {
    let (send, events) = channel();
    let name = file.file_name().map(std::ffi::OsStr::to_owned);
    let hear = move |event: notify::Result<notify::Event>| {
        let is_it = event.is_ok_and(|e| e.paths.iter().any(|p| p.file_name() == name.as_deref()));
        if is_it && send.send(()).is_ok() {
            wake();
        }
    };
    let folder = file.parent().filter(|p| !p.as_os_str().is_empty());
    let folder = folder.unwrap_or(Path::new("."));
    let watcher = notify::recommended_watcher(hear).and_then(|mut watcher| {
        watcher.watch(folder, RecursiveMode::NonRecursive)?;
        Ok(watcher)
    });
    Watching { events, watcher }
}
