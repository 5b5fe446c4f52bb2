//! What breaks on which layout, found before shipping.

mod access;
mod find;
mod forgotten;
mod known;
mod mirror;
mod one_handed;
mod reach;
mod same;
mod self_check;

use std::fmt::Write as _;

pub use access::{Demand, Wants, demands};
pub use forgotten::Forgotten;
pub use mirror::{Mirrored, mirror};
pub use one_handed::{OneHanded, one_handed};
pub use reach::{Playable, Reach, Stretch};
pub use same::same_places;
pub use self_check::{PresetProblem, SelfCheckError, preset_problems, self_check};

use crate::conflict::Conflict;
use crate::input::{Letter, Place, Platform};
use crate::law::Bound;
use crate::layout::{Layout, Level};
use crate::sheet::{Cell, Row, Sheet};

/// What the bindings of a game come to on a set of layouts.
///
/// # Example: a letter that French keyboards have elsewhere
/// ```
/// use swap_knot::check::Survey;
/// use swap_knot::input::Platform;
/// use swap_knot::{Layout, Profile, Rig, Sheet};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.walk]
///     shape = "plane"
///     up = { bind = "letter:w" }
///     left = { bind = "letter:a" }
///     down = { bind = "letter:s" }
///     right = { bind = "letter:d" }
/// "#)?;
/// let rig = Rig::new(&sheet, &Profile::default(), Layout::us());
/// let layouts = ["us", "fr"].map(|name| Layout::shipped(name).expect("shipped"));
/// let survey = Survey::new(&sheet, rig.bindings(), &layouts, Platform::current());
/// let finding = &survey.findings()[0];
/// assert_eq!(finding.layouts, ["fr"]);
/// assert!(finding.describe(&sheet).contains("key widths off (on fr)"));
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Clone, Debug)]
pub struct Survey {
    findings: Vec<Finding>,
    conflicts: Vec<Conflict>,
    forgotten: Vec<Forgotten>,
    layouts: Vec<String>,
}

/// Something that a layout does to a binding.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Finding {
    /// What.
    pub kind: FindingKind,
    /// The bindings that it is about.
    pub cells: Vec<Cell>,
    /// The layouts on which it is so, by name.
    pub layouts: Vec<String>,
    /// Whether the game cannot be played well there; otherwise it is good to know.
    pub is_problem: bool,
    /// What the developer can do about it.
    pub remedy: String,
}

/// What a layout does to a binding. Distances are in key widths, from middle to middle.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum FindingKind {
    /// No key types the letter.
    LetterMissing(Letter),
    /// The letter is typed only with Shift or AltGr, so it is not what players see first.
    LetterBehind(Letter, Level),
    /// The usual board has no key at the place.
    PlaceMissing(Place),
    /// The key at the place waits for a letter, and what is printed on it is only a mark.
    DeadKey(Place),
    /// Letters that make up one action do not lie to each other as on `us`.
    Scattered {
        /// How far a key lies from where it is among the others on `us`, on the worst layout.
        off: f32,
        /// Which layout that is.
        worst: String,
    },
    /// Keys that are side by side on `us` lie far apart.
    TornApart(Apart),
    /// Two bindings are on one key, on some layouts only.
    Conflict(Box<Conflict>),
}

/// How far keys are apart on the worst of some layouts, and on `us`.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Apart {
    /// On the worst layout.
    pub there: f32,
    /// Which that is.
    pub worst: String,
    /// On `us`.
    pub usual: f32,
}

impl Survey {
    /// Looks at bindings on every one of the layouts.
    pub fn new(
        sheet: &Sheet,
        bindings: &[Bound],
        layouts: &[Layout],
        platform: Platform,
    ) -> Survey {
        let (findings, conflicts) = find::findings(sheet, bindings, layouts, platform);
        Survey {
            findings,
            conflicts,
            forgotten: forgotten::forgotten(sheet, bindings),
            layouts: layouts.iter().map(|l| l.name().to_owned()).collect(),
        }
    }

    /// What was found: problems first, then by binding.
    pub fn findings(&self) -> &[Finding] {
        &self.findings
    }

    /// The conflicts and notices that do not come of a layout; those that do are among the findings.
    pub fn conflicts(&self) -> &[Conflict] {
        &self.conflicts
    }

    /// What may have been forgotten, whatever the layout.
    pub fn forgotten(&self) -> &[Forgotten] {
        &self.forgotten
    }

    /// The layouts that were looked at, by name.
    pub fn layouts(&self) -> &[String] {
        &self.layouts
    }

    /// The layouts on which there is a problem, by name.
    pub fn layouts_with_problems(&self) -> Vec<&str> {
        let names = self.layouts.iter().map(String::as_str);
        let has = |name: &&str| {
            let mut problems = self.findings.iter().filter(|f| f.is_problem);
            problems.any(|f| f.layouts.iter().any(|l| l == name))
        };
        names.filter(has).collect()
    }
}

impl Finding {
    /// What is found, in words, without the layouts and the remedy.
    pub fn describe(&self, sheet: &Sheet) -> String {
        let names = |cells: &[Cell]| {
            let mut rows: Vec<Row> = cells.iter().map(|c| c.row).collect();
            rows.dedup();
            let names: Vec<String> = rows
                .iter()
                .map(|r| format!("`{}`", sheet.row_name(*r)))
                .collect();
            names.join(" and ")
        };
        let who = names(&self.cells);
        match &self.kind {
            FindingKind::LetterMissing(letter) => {
                format!("{who} is on letter:{letter}, which no key types")
            }
            FindingKind::LetterBehind(letter, level) => {
                let with = match level {
                    Level::Plain => "no modifier",
                    Level::Shift => "Shift",
                    Level::AltGr => "AltGr",
                    Level::ShiftAltGr => "Shift and AltGr",
                };
                format!("{who} is on letter:{letter}, which is typed only with {with}")
            }
            FindingKind::PlaceMissing(place) => {
                let which = match self.is_problem {
                    true => "the usual board has",
                    false => "some of the boards that are sold have",
                };
                format!("{who} is on {place}, where {which} no key")
            }
            FindingKind::DeadKey(place) => {
                format!("{who} is on {place}, a dead key with only a mark printed on it")
            }
            FindingKind::Scattered { off, worst } => {
                let action = self.cells.first().map(|c| Row::of(c.row.action));
                let action = action.map_or_else(String::new, |r| sheet.row_name(r));
                format!(
                    "the letters of `{action}` do not lie together as on us: one is {off:.1} key widths off (on {worst})"
                )
            }
            FindingKind::TornApart(Apart {
                there,
                worst,
                usual,
            }) => format!(
                "{who}, side by side on us, are {there:.1} key widths apart (on {worst}; {usual:.1} on us)"
            ),
            FindingKind::Conflict(conflict) => conflict.describe_pair(sheet),
        }
    }

    /// The layouts in words, cut short where there are many.
    pub fn layouts_in_words(&self) -> String {
        const MOST: usize = 6;
        let mut text = self
            .layouts
            .iter()
            .take(MOST)
            .fold(String::new(), |mut text, name| {
                let joint = if text.is_empty() { "" } else { ", " };
                // Writing to a String cannot fail.
                let _ = write!(text, "{joint}{name}");
                text
            });
        if let Some(more) = self.layouts.len().checked_sub(MOST).filter(|m| *m > 0) {
            let _ = write!(text, " and {more} more");
        }
        text
    }
}
