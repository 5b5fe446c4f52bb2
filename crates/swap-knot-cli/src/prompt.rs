//! `swap-knot prompt`: what a prompt says to a player.

use std::io::Write as _;
use std::path::PathBuf;

use swap_knot::{DeviceKind, Layout, Prompt, Rig};

use crate::{CLEAN, Done, files};

/// The options of `prompt`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Example:\n  swap-knot prompt demo/slack-water.toml \"Press {cast-off} to leave\" --layout fr\n\nIn the text, {walk.up} is one arm, {walk} all of them, {cast-off:gamepad} one device kind,\n{do:cast-off} the whole phrase with its verb, and {{ a plain brace."
)]
pub(crate) struct Args {
    /// The sheet that declares the actions.
    sheet: PathBuf,
    /// The prompt, as in "Press {cast-off} to leave".
    text: String,
    /// What a player changed.
    #[arg(long, value_name = "FILE")]
    profile: Option<PathBuf>,
    /// The player's layout; without it, the one in the profile, or us.
    #[arg(long, value_name = "NAME", value_parser = files::layout)]
    layout: Option<Layout>,
    /// The device kind in use.
    #[arg(long, value_name = "KIND", default_value = "keyboard", value_parser = device_kind)]
    device: DeviceKind,
}

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let profile = files::profile(args.profile.as_deref())?;
    let layout = files::layout_of(args.layout.as_ref(), &profile);
    let rig = Rig::new(&sheet, &profile, &layout);
    let mut prompt = Prompt::new(&args.text, &sheet).map_err(|e| {
        // The text again with the spot marked, as for a mistake in a file.
        let column = args.text.get(..e.at()).map_or(0, |t| t.chars().count());
        format!("{e}\n  {}\n  {}^", args.text, " ".repeat(column))
    })?;
    let mut out = anstream::stdout().lock();
    writeln!(out, "{}", prompt.render(&rig, args.device))?;
    Ok(CLEAN)
}

fn device_kind(word: &str) -> Result<DeviceKind, String> {
    DeviceKind::from_word(word).ok_or_else(|| {
        let words = DeviceKind::ALL.map(DeviceKind::word);
        format!(
            "there is no device kind `{word}`; there are {}",
            words.join(", ")
        )
    })
}
