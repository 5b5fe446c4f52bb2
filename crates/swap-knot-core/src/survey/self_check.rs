//! One call for a game's own unit test.

use std::fmt;

use super::Survey;
use crate::conflict::conflicts;
use crate::input::Platform;
use crate::layout::{Layout, Resolver};
use crate::profile::Profile;
use crate::prompt::Prompt;
use crate::rig::{Rig, RigNote};
use crate::sheet::Sheet;

/// Everything that is wrong with a game's controls, a line each.
#[derive(Clone, PartialEq, Eq)]
pub struct SelfCheckError {
    problems: Vec<String>,
}

impl SelfCheckError {
    /// Every problem, with the name of the culprit.
    pub fn problems(&self) -> &[String] {
        &self.problems
    }
}

impl fmt::Display for SelfCheckError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.problems.join("\n"))
    }
}

crate::failure::debug_as_text!(SelfCheckError);

impl std::error::Error for SelfCheckError {}

/// For a game's unit test: whether its defaults and presets keep out of each other's way on the
/// widely used layouts, every key is there, and every prompt fits the sheet.
///
/// # Errors
/// Every problem at once.
///
/// # Example: the whole test
/// ```
/// use swap_knot::{Actions, Sheet, self_check};
///
/// #[derive(Clone, Copy, Actions)]
/// enum Do { Horn }
///
/// # fn the_controls_are_sound() -> Result<(), Box<dyn std::error::Error>> {
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"KeyH\"")?;
/// self_check(&sheet.typed::<Do>()?, ["{do:horn} to hoot"])?;
/// # Ok(())
/// # }
/// # the_controls_are_sound().unwrap();
/// ```
pub fn self_check<'t>(
    sheet: &Sheet,
    prompts: impl IntoIterator<Item = &'t str>,
) -> Result<(), SelfCheckError> {
    let mut problems = Vec::new();
    let layouts: Vec<Layout> = Layout::widely_used().collect();
    check_set(sheet, None, &layouts, &mut problems);
    for preset in sheet.presets() {
        check_set(sheet, Some(&preset.name), &layouts, &mut problems);
    }
    for text in prompts {
        if let Err(e) = Prompt::new(text, sheet) {
            problems.push(format!("prompt \"{text}\": {e}"));
        }
    }
    match problems.is_empty() {
        true => Ok(()),
        false => Err(SelfCheckError { problems }),
    }
}

/// Checks the defaults with a preset over them, or the defaults alone.
fn check_set(sheet: &Sheet, preset: Option<&str>, layouts: &[Layout], out: &mut Vec<String>) {
    let mut profile = Profile::default();
    profile.set_preset(preset);
    let platform = Platform::current();
    let rig = Rig::new(sheet, &profile, Resolver::new(&Layout::us(), platform));
    let set = preset.map_or_else(String::new, |name| format!("preset `{name}`: "));
    let mut add = |text: String| {
        // What the defaults have wrong is not told again for each preset.
        if !out.contains(&text) {
            out.push(format!("{set}{text}"));
        }
    };
    for conflict in conflicts(sheet, rig.bindings(), layouts, platform) {
        if conflict.class.is_conflict() {
            add(conflict.describe(sheet));
        }
    }
    let survey = Survey::new(sheet, rig.bindings(), layouts, platform);
    for finding in survey.findings().iter().filter(|f| f.is_problem) {
        let told = matches!(finding.kind, super::FindingKind::Conflict(_));
        if !told {
            let on = finding.layouts_in_words();
            add(format!("{} (on layouts {on})", finding.describe(sheet)));
        }
    }
    for note in rig.notes() {
        if let RigNote::TooMany { .. } = note {
            add(note.describe(sheet));
        }
    }
}
