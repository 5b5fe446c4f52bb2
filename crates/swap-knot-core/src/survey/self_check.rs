//! One call for a game's own unit test.

use std::fmt;

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

crate::text::debug_as_text!(SelfCheckError);

impl std::error::Error for SelfCheckError {}

/// For a game's unit test: whether its defaults and presets keep out of each other's way on the
/// widely used layouts, every key is there, and every prompt fits the sheet.
///
/// # Errors
/// Every problem at once.
///
/// # Example: the whole test
/// ```
/// use swap_knot::check::self_check;
/// use swap_knot::{Actions, Sheet};
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
    let platform = Platform::current();
    problems.extend(problems_with(sheet, None, &layouts, platform));
    let presets = preset_problems(sheet, &layouts, platform);
    problems.extend(presets.into_iter().map(|p| p.to_string()));
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

/// What a preset brings that the defaults do not have: bindings in each other's way, or a key that is
/// not there.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct PresetProblem {
    /// The preset's name.
    pub preset: String,
    /// What is wrong, in words.
    pub text: String,
}

impl fmt::Display for PresetProblem {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "preset `{}`: {}", self.preset, self.text)
    }
}

/// What is wrong with the presets of a sheet on some layouts; what is wrong without them is not told
/// again.
pub fn preset_problems(
    sheet: &Sheet,
    layouts: &[Layout],
    platform: Platform,
) -> Vec<PresetProblem> {
    if sheet.presets().is_empty() {
        return Vec::new();
    }
    let without = problems_with(sheet, None, layouts, platform);
    let mut out = Vec::new();
    for preset in sheet.presets() {
        let name = preset.name.as_str();
        let problems = problems_with(sheet, Some(name), layouts, platform);
        let own = problems.into_iter().filter(|text| !without.contains(text));
        out.extend(own.map(|text| PresetProblem {
            preset: name.to_owned(),
            text,
        }));
    }
    out
}

/// The problems of the defaults with a preset over them, or of the defaults alone.
fn problems_with(
    sheet: &Sheet,
    preset: Option<&str>,
    layouts: &[Layout],
    platform: Platform,
) -> Vec<String> {
    let mut profile = Profile::default();
    profile.set_preset(preset);
    let rig = Rig::new(sheet, &profile, Resolver::new(&Layout::us(), platform));
    let (findings, always) = super::find::findings(sheet, rig.bindings(), layouts, platform);
    let always = always.iter().filter(|c| c.class.is_conflict());
    let mut out: Vec<String> = always.map(|c| c.describe(sheet)).collect();
    for finding in findings.iter().filter(|f| f.is_problem) {
        out.push(match &finding.kind {
            super::FindingKind::Conflict(conflict) => conflict.describe(sheet),
            _ => {
                let on = finding.layouts_in_words();
                format!("{} (on layouts {on})", finding.describe(sheet))
            }
        });
    }
    let notes = rig.notes().iter();
    let too_many = notes.filter(|n| matches!(n, RigNote::TooMany { .. }));
    out.extend(too_many.map(|n| n.describe(sheet)));
    out
}
