//! `swap-knot check`: is the sheet sound, do its bindings keep out of each other's way, and what
//! breaks on which layout?

use std::io::Write;
use std::path::PathBuf;

use swap_knot::check::{
    Demand, Finding, FindingKind, PresetProblem, Survey, demands, preset_problems,
};
use swap_knot::input::Platform;
use swap_knot::remap::Conflict;
use swap_knot::{Layout, Profile, Rig, Sheet};

use crate::table::{BAD, GOOD, QUIET, count, styled};
use crate::{CLEAN, Done, FOUND, files};
use crate::{marks, texts};

/// The options of `check`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot check controls.toml\n  swap-knot check controls.toml --layouts us,fr,de\n  swap-knot check controls.toml --layouts all --json\n  swap-knot check controls.toml --texts texts --marks marks.toml\n  swap-knot check controls.toml --access\n  swap-knot check controls.toml --strict\n\nExit codes: 0 no problem, 1 conflicts or other problems, 2 the sheet cannot be read."
)]
pub(crate) struct Args {
    /// The sheet to check.
    sheet: PathBuf,
    /// Check these layouts, separated by commas: names, `widely-used` (without it) or `all`.
    #[arg(long, value_name = "NAMES", value_delimiter = ',', value_parser = choice)]
    layouts: Vec<Choice>,
    /// Check with what a player changed.
    #[arg(long, value_name = "FILE")]
    profile: Option<PathBuf>,
    /// Check the game's Fluent files below this folder, too: the prompts and titles in TAG.ftl, or in
    /// the .ftl files of a folder TAG, and what a language lacks.
    #[arg(long, value_name = "DIR")]
    texts: Option<PathBuf>,
    /// Check this file of marks, too: what families of pads print on their buttons, and their pictures.
    #[arg(long, value_name = "FILE")]
    marks: Option<PathBuf>,
    /// Tell as well what the bindings ask of hands, and what a player can have eased about it.
    #[arg(long)]
    access: bool,
    /// Fail as well on what is only good to know, unless the sheet says that it is known:
    /// `known = ["no-gamepad:talk"]`. For a build that is to notice whatever is new.
    #[arg(long)]
    strict: bool,
    /// Print JSON instead of text.
    #[arg(long)]
    json: bool,
}

/// What `--layouts` takes.
#[derive(Clone, Debug)]
enum Choice {
    WidelyUsed,
    All,
    One(Layout),
}

fn choice(word: &str) -> Result<Choice, String> {
    match word {
        "all" => Ok(Choice::All),
        "widely-used" => Ok(Choice::WidelyUsed),
        name => files::layout(name).map(Choice::One),
    }
}

/// What was found: on any layout, and on some only.
struct Checked {
    sheet: Sheet,
    bindings: usize,
    survey: Survey,
    /// What the presets bring that the defaults do not have.
    presets: Vec<PresetProblem>,
    /// The game's texts, where they were to be checked.
    texts: Option<texts::Checked>,
    /// The game's marks, where they were to be checked.
    marks: Option<marks::Checked>,
    /// What is asked of hands, where that was to be told.
    demands: Option<Vec<Demand>>,
    /// What is good to know and not known, and what is said to be known and is not so.
    notices: Vec<Notice>,
    known_in_vain: Vec<String>,
    /// Whether both are problems.
    is_strict: bool,
}

/// Something that is good to know.
struct Notice {
    /// What it is called in `known` of the sheet.
    ids: Vec<String>,
    text: String,
}

impl Checked {
    fn problems(&self) -> usize {
        let always = self
            .survey
            .conflicts()
            .iter()
            .filter(|c| c.class.is_conflict())
            .count();
        let some = self.survey.findings().iter().filter(|f| f.is_problem);
        let texts = self.texts.as_ref().map_or(0, texts::Checked::problems);
        let marks = self.marks.as_ref().map_or(0, |m| m.problems.len());
        let strict = match self.is_strict {
            true => self.notices.len() + self.known_in_vain.len(),
            false => 0,
        };
        always + some.count() + self.presets.len() + texts + marks + strict
    }
}

/// All that is good to know.
fn all_notices(sheet: &Sheet, survey: &Survey) -> Vec<Notice> {
    let conflicts = survey.conflicts().iter();
    let conflicts = conflicts.filter(|c| !c.class.is_conflict());
    let conflicts = conflicts.map(|c| Notice {
        ids: vec![c.id(sheet)],
        text: c.describe(sheet),
    });
    let findings = survey.findings().iter().filter(|f| !f.is_problem);
    let findings = findings.map(|f| Notice {
        ids: vec![f.id(sheet)],
        text: format!("{} ({})", f.describe(sheet), on(f)),
    });
    let forgotten = survey.forgotten().iter().map(|f| Notice {
        ids: f.ids(sheet),
        text: f.describe(sheet),
    });
    conflicts.chain(findings).chain(forgotten).collect()
}

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let us = Layout::us();
    let (profile, _) = files::played(&sheet, args.profile.as_deref(), Some(&us))?;
    let mut layouts: Vec<Layout> = Vec::new();
    let choices = match args.layouts.is_empty() {
        true => &[Choice::WidelyUsed][..],
        false => &args.layouts,
    };
    for choice in choices {
        match choice {
            Choice::WidelyUsed => layouts.extend(Layout::widely_used()),
            Choice::All => layouts.extend(Layout::all_shipped()),
            Choice::One(layout) => layouts.push(layout.clone()),
        }
    }
    let texts = args.texts.as_deref();
    let texts = texts.map(|t| texts::check(t, &sheet)).transpose()?;
    let mut checked = check(sheet, &profile, &layouts, texts);
    checked.is_strict = args.strict;
    let marks = args.marks.as_deref();
    checked.marks = marks.map(|m| marks::check(m, &checked.sheet)).transpose()?;
    if args.access {
        let rig = Rig::new(&checked.sheet, &profile, &Layout::us());
        checked.demands = Some(demands(&checked.sheet, rig.bindings(), rig.resolver()));
    }
    if args.json {
        print_json(&checked)?;
    } else {
        print_text(&checked, &args.sheet.display().to_string())?;
    }
    let found = checked.problems() > 0;
    Ok(if found { FOUND } else { CLEAN })
}

fn check(
    sheet: Sheet,
    profile: &Profile,
    layouts: &[Layout],
    texts: Option<texts::Checked>,
) -> Checked {
    let platform = Platform::current();
    let rig = Rig::new(&sheet, profile, &Layout::us());
    let survey = Survey::new(&sheet, rig.bindings(), layouts, platform);
    let (known, mut notices) = (sheet.known(), all_notices(&sheet, &survey));
    let is_so = |known: &&String| notices.iter().any(|notice| notice.ids.contains(known));
    let known_in_vain = known
        .iter()
        .filter(|known| !is_so(known))
        .cloned()
        .collect();
    notices.retain_mut(|notice| {
        notice.ids.retain(|id| !known.contains(id));
        !notice.ids.is_empty()
    });
    Checked {
        survey,
        notices,
        known_in_vain,
        presets: preset_problems(&sheet, layouts, platform),
        bindings: rig.bindings().len(),
        sheet,
        texts,
        marks: None,
        demands: None,
        is_strict: false,
    }
}

fn print_text(checked: &Checked, file: &str) -> std::io::Result<()> {
    let mut out = anstream::stdout().lock();
    let (sheet, survey) = (&checked.sheet, &checked.survey);
    let problems = checked.problems();
    let word = match problems {
        0 => styled(GOOD, "no problem"),
        n => styled(BAD, &count(n, "problem")),
    };
    writeln!(
        out,
        "{file}: {word} among {} of {} in {}",
        count(checked.bindings, "binding"),
        count(sheet.actions().len(), "action"),
        count(sheet.situations().len(), "situation"),
    )?;
    let troubled = survey.layouts_with_problems().len();
    let looked_at = survey.layouts().len();
    let names = match looked_at {
        0..=6 => format!(" ({})", survey.layouts().join(", ")),
        _ => String::new(),
    };
    let fine = match troubled {
        0 => "none brings a problem of its own".to_owned(),
        1 => "1 of them brings problems of its own".to_owned(),
        n => format!("{n} of them bring problems of their own"),
    };
    writeln!(out, "{}{names}: {fine}", count(looked_at, "layout"))?;
    if let Some(texts) = &checked.texts {
        print_texts(&mut out, texts)?;
    }
    if let Some(found) = &checked.marks {
        marks::print(&mut out, found)?;
    }

    let conflicts = survey.conflicts().iter();
    let open = conflicts.filter(|c| c.class.is_conflict());
    for conflict in open {
        let text = conflict.describe(sheet);
        writeln!(out, "\n{} {text}", styled(BAD, "conflict:"))?;
        writeln!(out, "  {}", remedy(conflict, sheet))?;
    }
    let problems = survey.findings().iter().filter(|f| f.is_problem);
    for finding in problems {
        print_finding(&mut out, finding, sheet, styled(BAD, &heading(finding)))?;
    }
    for problem in &checked.presets {
        let (preset, text) = (&problem.preset, &problem.text);
        writeln!(out, "\n{} {text}", styled(BAD, "preset:"))?;
        writeln!(out, "  with `{preset}` chosen, and not without it")?;
    }
    print_notices(&mut out, checked)?;
    if let Some(demands) = &checked.demands {
        let heading = styled(QUIET, "asked of hands:");
        if demands.is_empty() {
            writeln!(out, "\n{heading} nothing but single presses")?;
        }
        let mut remedies: Vec<&str> = demands.iter().map(Demand::remedy).collect();
        remedies.sort_unstable();
        remedies.dedup();
        for remedy in remedies {
            writeln!(out, "\n{heading} {remedy}")?;
            for demand in demands.iter().filter(|d| d.remedy() == remedy) {
                writeln!(out, "  {}", demand.describe(sheet))?;
            }
        }
    }
    Ok(())
}

/// What is good to know; where that is to be nothing, by the names by which a sheet says that it is known.
fn print_notices(out: &mut impl Write, checked: &Checked) -> std::io::Result<()> {
    let heading = match checked.is_strict {
        true => styled(BAD, "not known:"),
        false => styled(QUIET, "good to know:"),
    };
    if !checked.notices.is_empty() {
        writeln!(out, "\n{heading}")?;
    }
    for notice in &checked.notices {
        writeln!(out, "  {}", notice.text)?;
        if checked.is_strict {
            let ids = notice.ids.iter().map(|id| format!("\"{id}\""));
            let ids = ids.collect::<Vec<_>>().join(", ");
            writeln!(out, "    known = [{ids}]")?;
        }
    }
    for known in &checked.known_in_vain {
        let text = format!("`{known}` is said to be known, and is not so; take it out of `known`");
        writeln!(out, "\n{} {text}", styled(QUIET, "no longer:"))?;
    }
    let told = match checked.sheet.known().len() - checked.known_in_vain.len() {
        0 => return Ok(()),
        1 => "1 more is known by the sheet".to_owned(),
        more => format!("{more} more are known by the sheet"),
    };
    writeln!(out, "\n{}", styled(QUIET, &told))?;
    Ok(())
}

/// What the game's texts lack or have too much of.
fn print_texts(out: &mut impl Write, texts: &texts::Checked) -> std::io::Result<()> {
    let fine = match texts.mistakes.len() {
        0 => "all fit the sheet".to_owned(),
        n => count(n, "mistake"),
    };
    let titles = texts.languages.iter().map(|l| l.titles).sum();
    writeln!(
        out,
        "{} and {} in {}: {fine}",
        count(texts.prompts, "prompt"),
        count(titles, "title"),
        count(texts.languages.len(), "language"),
    )?;
    for mistake in &texts.mistakes {
        let (place, message) = (&mistake.place, &mistake.message);
        writeln!(out, "\n{} {place}: {message}", styled(BAD, "text:"))?;
    }
    for language in &texts.languages {
        let tag = &language.tag;
        if !language.lacks.is_empty() {
            let what = count(language.lacks.len(), "title");
            writeln!(out, "\n{} {tag} lacks {what}", styled(BAD, "text:"))?;
            writeln!(
                out,
                "  players read the sheet's instead: {}",
                pairs(&language.lacks)
            )?;
        }
        if !language.lacks_prompts.is_empty() {
            let what = count(language.lacks_prompts.len(), "message");
            let ids = language.lacks_prompts.join(", ");
            writeln!(
                out,
                "\n{} {tag} lacks {what} that other languages have\n  {ids}",
                styled(BAD, "text:")
            )?;
        }
    }
    let same = texts.languages.iter().filter(|l| !l.same.is_empty());
    for (n, language) in same.enumerate() {
        if n == 0 {
            writeln!(out, "\n{}", styled(QUIET, "as in the sheet:"))?;
        }
        writeln!(out, "  {}: {}", language.tag, pairs(&language.same))?;
    }
    Ok(())
}

/// Messages with what the sheet has for them.
fn pairs(all: &[(String, String)]) -> String {
    let each = all.iter().map(|(id, text)| format!("{id} (\"{text}\")"));
    each.collect::<Vec<_>>().join(", ")
}

fn print_finding(
    out: &mut impl Write,
    finding: &Finding,
    sheet: &Sheet,
    heading: String,
) -> std::io::Result<()> {
    writeln!(out, "\n{heading} {}", finding.describe(sheet))?;
    writeln!(out, "  {}", on(finding))?;
    writeln!(out, "  {}", finding.remedy)
}

fn on(finding: &Finding) -> String {
    let word = if finding.layouts.len() == 1 {
        "layout"
    } else {
        "layouts"
    };
    format!("on {word} {}", finding.layouts_in_words())
}

/// What kind of problem it is, in one word.
fn heading(finding: &Finding) -> String {
    format!("{}:", kind_word(&finding.kind))
}

fn kind_word(kind: &FindingKind) -> &'static str {
    match kind {
        FindingKind::LetterMissing(_) => "missing letter",
        FindingKind::LetterBehind(..) => "letter behind a modifier",
        FindingKind::PlaceMissing(_) => "missing key",
        FindingKind::DeadKey(_) => "dead key",
        FindingKind::Scattered { .. } => "scattered",
        FindingKind::TornApart(_) => "torn apart",
        FindingKind::Conflict(_) => "conflict",
        _ => "finding",
    }
}

fn print_json(checked: &Checked) -> Result<(), Box<dyn std::error::Error>> {
    let sheet = &checked.sheet;
    let conflict = |c: &Conflict| {
        serde_json::json!({
            "problem": c.class.is_conflict(),
            "rows": [sheet.row_name(c.first.cell.row), sheet.row_name(c.second.cell.row)],
            "text": c.describe(sheet),
            "remedy": remedy(c, sheet),
        })
    };
    let finding = |f: &Finding| {
        let rows: Vec<String> = f.cells.iter().map(|c| sheet.row_name(c.row)).collect();
        serde_json::json!({
            "problem": f.is_problem,
            "kind": kind_word(&f.kind),
            "rows": rows,
            "text": f.describe(sheet),
            "layouts": f.layouts,
            "remedy": f.remedy,
        })
    };
    let preset = |p: &PresetProblem| serde_json::json!({ "preset": p.preset, "text": p.text });
    let presets: Vec<_> = checked.presets.iter().map(preset).collect();
    let forgotten = checked.survey.forgotten().iter();
    let forgotten: Vec<_> = forgotten.map(|f| f.describe(sheet)).collect();
    let notices = checked.notices.iter();
    let notices: Vec<_> = notices
        .map(|n| serde_json::json!({ "known-as": n.ids, "text": n.text }))
        .collect();
    let demands = checked.demands.as_ref().map(|all| {
        let told = all.iter().map(|d| {
            serde_json::json!({
                "row": sheet.row_name(d.row),
                "devices": d.kind.word(),
                "eased-by": d.eased_by.map(swap_knot::sheet::Parameter::word),
                "text": d.describe(sheet),
                "remedy": d.remedy(),
            })
        });
        told.collect::<Vec<_>>()
    });
    let texts: Vec<_> = (checked.texts.iter())
        .flat_map(|texts| &texts.mistakes)
        .map(|m| serde_json::json!({ "place": m.place, "text": m.message }))
        .collect();
    let ids = |all: &[(String, String)]| all.iter().map(|(id, _)| id.clone()).collect::<Vec<_>>();
    let marks: Vec<_> = (checked.marks.iter())
        .flat_map(|marks| marks.problems.iter().chain(&marks.notices))
        .map(|(place, text)| serde_json::json!({ "place": place, "text": text }))
        .collect();
    let languages: Vec<_> = (checked.texts.iter())
        .flat_map(|texts| &texts.languages)
        .map(|l| {
            serde_json::json!({
                "language": l.tag,
                "titles": l.titles,
                "lacks": ([ids(&l.lacks), l.lacks_prompts.clone()].concat()),
                "as-in-the-sheet": ids(&l.same),
            })
        })
        .collect();
    let conflicts: Vec<_> = checked.survey.conflicts().iter().map(conflict).collect();
    let findings: Vec<_> = checked.survey.findings().iter().map(finding).collect();
    crate::table::print_json(&serde_json::json!({
        "problems": checked.problems(),
        "bindings": checked.bindings,
        "layouts": checked.survey.layouts(),
        "texts": texts,
        "marks": marks,
        "languages": languages,
        "presets": presets,
        "forgotten": forgotten,
        "not-known": notices,
        "known-in-vain": checked.known_in_vain,
        "access": demands,
        "on-all-layouts": conflicts,
        "on-some-layouts": findings,
    }))
}

/// What the developer can do about a conflict.
fn remedy(conflict: &Conflict, sheet: &Sheet) -> String {
    let name = |party: &swap_knot::remap::Party| sheet.row_name(party.cell.row.action.into());
    let (a, b) = (name(&conflict.first), name(&conflict.second));
    if a == b {
        return format!("bind one arm of `{a}` to something else");
    }
    format!(
        "bind one of them to something else, or write `share = [\"{b}\"]` under `{a}` if both may happen"
    )
}
