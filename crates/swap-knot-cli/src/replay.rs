//! `swap-knot replay`: what each action did while a trace was played.

use std::io::Write as _;
use std::path::{Path, PathBuf};

use serde_json::json;
use swap_knot::input::Mapper;
use swap_knot::{Layout, Rig, Seat, Trace};

use crate::table::{BAD, HEAD, QUIET, print_json, styled};
use crate::{CLEAN, Done, FOUND, files, timeline};

/// The options of `replay`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Example:\n  swap-knot replay demo/slack-water.toml demo/traces/cast-off.trace\n\nA trace has one event a line: seconds, device, input, what it did; `situation NAMES` where the\ndevice would stand says which situations are live from there on. `tick`\nand `advance` there say when the game let time go by, and `rig LAYOUT PLATFORM` with the profile\nbehind it, a line each after `|`, with what the player played. The same trace gives the same\ntimeline on every run.\n\nTo keep a timeline and have it checked by every build:\n  swap-knot replay SHEET TRACE > walk.expected\n  swap-knot replay SHEET TRACE --expect walk.expected\n\nTo see why nothing happened:\n  swap-knot replay SHEET TRACE --why"
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
    /// What was taught of controllers without a known mapping, as the game keeps it beside the profiles.
    #[arg(long, value_name = "FILE")]
    mappings: Option<PathBuf>,
    /// Compare with a timeline that was printed before, and exit with 1 at the first difference.
    #[arg(long, value_name = "FILE")]
    expect: Option<PathBuf>,
    /// Tell what became of each input for each binding, and why nothing where nothing happened.
    #[arg(long)]
    why: bool,
    /// Print JSON, for scripts.
    #[arg(long, conflicts_with = "expect")]
    json: bool,
}

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let layout = args.layout.as_ref();
    let (profile, layout) = files::played(&sheet, args.profile.as_deref(), layout)?;
    let text = files::read(&args.trace, Trace::MAX_BYTES)?;
    let trace: Trace = (text.parse()).map_err(|e| format!("{}: {e}", args.trace.display()))?;
    let lines_of_trace = trace.entries().len();
    let trace = match &args.mappings {
        Some(file) => trace.mapped(&mut Mapper::new(files::mappings(file)?)),
        None => trace,
    };
    let mut seat = Seat::new(Rig::new(&sheet, &profile, &layout));
    let (sheet, entries) = timeline::play(&mut seat, &trace, args.why)?;
    if args.json {
        let all: Vec<_> = entries.iter().map(|e| e.json(&sheet)).collect();
        let layout = layout.name();
        print_json(&json!({ "layout": layout, "timeline": all }))?;
        return Ok(CLEAN);
    }
    let lines: Vec<String> = entries.iter().map(|e| e.line(&sheet)).collect();
    if let Some(file) = &args.expect {
        return compare(file, &lines);
    }
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
    writeln!(
        out,
        "{}",
        styled(QUIET, &format!("{lines_of_trace} lines of trace played"))
    )?;
    Ok(CLEAN)
}

/// Compares a timeline with one that was printed before. What stands around it, such as the title,
/// is of no account.
fn compare(file: &Path, lines: &[String]) -> Done {
    let text = files::read(file, Trace::MAX_BYTES)?;
    let told = text.lines().enumerate();
    let mut told = told.filter_map(|(n, line)| Some((n + 1, line.strip_prefix("  ")?)));
    let mut played = lines.iter().map(String::as_str);
    let name = file.display();
    loop {
        let (wanted, got) = (told.next(), played.next());
        let (at, wanted) = match wanted {
            None if got.is_none() => break,
            None => (format!("{name}"), None),
            Some((line, wanted)) => (format!("{name}:{line}"), Some(wanted)),
        };
        if wanted == got {
            continue;
        }
        let none = "nothing more";
        anstream::eprintln!(
            "{} {at}: the trace plays otherwise from here on",
            styled(BAD, "different:")
        );
        anstream::eprintln!("  expected  {}", wanted.unwrap_or(none).trim_start());
        anstream::eprintln!("  played    {}", got.unwrap_or(none).trim_start());
        return Ok(FOUND);
    }
    anstream::println!("as expected: {} lines of {name}", lines.len());
    Ok(CLEAN)
}
