//! `swap-knot replay`: what each action did while a trace was played.

use std::io::Write as _;
use std::path::PathBuf;

use swap_knot::{Layout, Rig, Seat, Trace};

use crate::table::{HEAD, QUIET, styled};
use crate::{CLEAN, Done, files, timeline};

/// The options of `replay`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Example:\n  swap-knot replay demo/slack-water.toml demo/traces/cast-off.trace\n\nA trace has one event a line: seconds, device, input, what it did; `situation NAMES` where the\ndevice would stand says which situations are live from there on. The same trace gives the same\ntimeline on every run."
)]
pub(crate) struct Args {
    /// The sheet that declares the actions.
    sheet: PathBuf,
    /// The trace to play.
    trace: PathBuf,
    /// What the player changed.
    #[arg(long, value_name = "FILE")]
    profile: Option<PathBuf>,
    /// The player's layout; without it, the one in the profile, or us.
    #[arg(long, value_name = "NAME", value_parser = files::layout)]
    layout: Option<Layout>,
}

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let profile = files::profile(args.profile.as_deref())?;
    let layout = files::layout_of(args.layout.as_ref(), &profile);
    let text = files::read(&args.trace, Trace::MAX_BYTES)?;
    let trace: Trace = (text.parse()).map_err(|e| format!("{}: {e}", args.trace.display()))?;
    let mut seat = Seat::new(Rig::new(&sheet, &profile, &layout));
    let lines = timeline::play(&mut seat, &trace)?;
    let mut out = anstream::stdout().lock();
    let title = format!(
        "{} on {}, layout {}",
        args.trace.display(),
        sheet.title(),
        layout.name()
    );
    writeln!(out, "{}", styled(HEAD, &title))?;
    for line in &lines {
        writeln!(out, "  {line}")?;
    }
    let events = trace.entries().len();
    writeln!(
        out,
        "{}",
        styled(QUIET, &format!("{events} lines of trace played"))
    )?;
    Ok(CLEAN)
}
