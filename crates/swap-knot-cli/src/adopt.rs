//! `swap-knot adopt`: what a profile changes, as new defaults of the sheet.

use std::io::Write as _;
use std::path::PathBuf;

use swap_knot::remap::CarriedOver;
use swap_knot::{Layout, Sheet};

use crate::table::{BAD, HEAD, QUIET, styled};
use crate::{CLEAN, Done, files};

/// The options of `adopt`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Example:\n  swap-knot adopt demo/slack-water.toml --profile demo/profiles/ada.toml\n\nComments, order and blank lines of the sheet are kept. The lines that change are shown; with\n`--write` they are written. What comes out is read again first, and plays without the profile as\nthe sheet did with it."
)]
pub(crate) struct Args {
    /// The sheet that declares the actions.
    sheet: PathBuf,
    /// The profile with what was tuned in play.
    #[arg(long, value_name = "FILE")]
    profile: PathBuf,
    /// The layout it was tuned on; without it, the one in the profile, or us.
    #[arg(long, value_name = "NAME", value_parser = files::layout)]
    layout: Option<Layout>,
    /// Write the sheet, rather than only showing what would change.
    #[arg(long)]
    write: bool,
}

pub(crate) fn run(args: &Args) -> Done {
    // Mistakes in the sheet are told with its name.
    let sheet = files::sheet(&args.sheet)?;
    let text = files::read(&args.sheet, Sheet::MAX_BYTES)?;
    let profile = files::profile(Some(&args.profile))?;
    let layout = files::layout_of(args.layout.as_ref(), &profile);
    let mut carried = CarriedOver::new(&sheet, &profile, &layout);
    // What is not in force or not there is told as what is left.
    carried.not_in_force.clear();
    carried.set_aside.clear();
    files::tell(&carried, &sheet);
    let name = args.sheet.display().to_string();
    let adopted = swap_knot_adopt::adopt(&text, &carried.profile, &layout)
        .map_err(|e| format!("{name}: {e}"))?;
    let mut out = anstream::stdout().lock();
    for line in adopted.difference(&name).lines() {
        let style = match line.as_bytes().first() {
            Some(b'+') => HEAD,
            Some(b'-') => BAD,
            _ => QUIET,
        };
        writeln!(out, "{}", styled(style, line))?;
    }
    for left in adopted.left() {
        writeln!(out, "left to players: {left}")?;
    }
    let count = match adopted.taken().len() {
        1 => "1 setting".to_owned(),
        n => format!("{n} settings"),
    };
    let said = match (adopted.is_changed(), args.write) {
        (false, _) => "nothing to adopt: the sheet says all of it already".to_owned(),
        (true, false) => format!("{count} would be adopted; --write writes {name}"),
        (true, true) => {
            adopted.write(&args.sheet)?;
            format!("{count} adopted into {name}; the profile can let go of them")
        }
    };
    writeln!(out, "{said}")?;
    Ok(CLEAN)
}
