//! `swap-knot check`: is the sheet sound, and do its defaults keep out of each other's way?

use std::io::Write as _;
use std::path::PathBuf;

use swap_knot::{Conflict, Layout, Platform, Rig, Sheet, conflicts};

use crate::table::{BAD, GOOD, QUIET, styled};
use crate::{CLEAN, Done, FOUND, files};

/// The options of `check`.
#[derive(Debug, clap::Args)]
pub(crate) struct Args {
    /// The sheet to check.
    sheet: PathBuf,
    /// Check these layouts instead of all that ship, separated by commas.
    #[arg(long, value_name = "NAMES", value_delimiter = ',', value_parser = files::layout)]
    layouts: Vec<Layout>,
    /// Check with what a player changed.
    #[arg(long, value_name = "FILE")]
    profile: Option<PathBuf>,
}

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let profile = files::profile(args.profile.as_deref())?;
    let layouts = match args.layouts.is_empty() {
        true => Layout::shipped_names()
            .filter_map(Layout::shipped)
            .collect(),
        false => args.layouts.clone(),
    };
    let rig = Rig::new(&sheet, &profile, &Layout::us());
    let found = conflicts(&sheet, rig.bindings(), &layouts, Platform::current());
    let (open, notices): (Vec<&Conflict>, Vec<&Conflict>) =
        found.iter().partition(|c| c.class.is_conflict());

    let mut out = anstream::stdout().lock();
    for conflict in &open {
        writeln!(
            out,
            "{} {}",
            styled(BAD, "conflict:"),
            conflict.describe(&sheet)
        )?;
        writeln!(out, "          {}", remedy(conflict, &sheet))?;
    }
    for notice in &notices {
        writeln!(
            out,
            "{} {}",
            styled(QUIET, "notice:"),
            notice.describe(&sheet)
        )?;
    }
    let names: Vec<&str> = layouts.iter().map(Layout::name).collect();
    let names = match names.len() {
        0..=6 => names.join(", "),
        n => format!("{n} of them"),
    };
    let word = match open.is_empty() {
        true => styled(GOOD, "no conflict"),
        false => styled(BAD, &count(open.len(), "conflict")),
    };
    writeln!(
        out,
        "{}: {word} among {} of {} in {}, on layouts {names}",
        args.sheet.display(),
        count(rig.bindings().len(), "binding"),
        count(sheet.actions().len(), "action"),
        count(sheet.situations().len(), "situation"),
    )?;
    Ok(if open.is_empty() { CLEAN } else { FOUND })
}

/// What the developer can do about a conflict.
fn remedy(conflict: &Conflict, sheet: &Sheet) -> String {
    let name = |party: &swap_knot::Party| &sheet.action(party.cell.row.action).name;
    let (a, b) = (name(&conflict.first), name(&conflict.second));
    if a == b {
        return format!("bind one arm of `{a}` to something else");
    }
    format!(
        "bind one of them to something else, or write `share = [\"{b}\"]` under `{a}` if both may happen"
    )
}

fn count(n: usize, what: &str) -> String {
    let end = if n == 1 { "" } else { "s" };
    format!("{n} {what}{end}")
}
