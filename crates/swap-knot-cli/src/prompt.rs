//! `swap-knot prompt`: what a prompt says to a player.

use std::io::Write as _;
use std::path::PathBuf;

use serde_json::json;
use swap_knot::prompt::{Piece, Rendered};
use swap_knot::{Chord, DeviceKind, Layout, Prompt, Rig};

use crate::words::WordsArgs;
use crate::{CLEAN, Done, files};

/// The options of `prompt`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot prompt demo/slack-water.toml \"Press {cast-off} to leave\" --layout fr\n  swap-knot prompt demo/slack-water.toml \"{do:cast-off}\" --device gamepad --marks demo/marks.toml --family ropewalk\n  swap-knot prompt demo/slack-water.toml \"{do:walk} zum Laufen\" --language de --device gamepad\n\nIn the text, {walk.up} is one arm, {walk} all of them, {cast-off:gamepad} one device kind,\n{do:cast-off} the whole phrase with its verb, and {{ a plain brace."
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
    #[arg(long, value_name = "KIND", default_value = "keyboard", value_parser = files::device_kind)]
    device: DeviceKind,
    #[command(flatten)]
    words: WordsArgs,
    /// How many bindings of one action to name.
    #[arg(long, value_name = "N", default_value_t = 1)]
    alternates: usize,
    /// Print what a screen reader says.
    #[arg(long)]
    spoken: bool,
    /// Print the pieces as JSON, for a renderer.
    #[arg(long, conflicts_with = "spoken")]
    json: bool,
}

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let layout = args.layout.as_ref();
    let (profile, layout) = files::played(&sheet, args.profile.as_deref(), layout)?;
    let rig = Rig::new(&sheet, &profile, &layout);
    let prompt = Prompt::new(&args.text, &sheet).map_err(|e| {
        // The text again with the spot marked, as for a mistake in a file.
        let column = args.text.get(..e.at()).map_or(0, |t| t.chars().count());
        format!("{e}\n  {}\n  {}^", args.text, " ".repeat(column))
    })?;
    let mut prompt = prompt
        .with_words(&args.words.words(&profile)?)
        .with_alternates(args.alternates);
    let shown = prompt.render(&rig, args.device);
    let mut out = anstream::stdout().lock();
    match (args.json, args.spoken) {
        (true, _) => writeln!(out, "{:#}", pieces(shown, &rig))?,
        (_, true) => writeln!(out, "{}", shown.spoken())?,
        _ => writeln!(out, "{shown}")?,
    }
    Ok(CLEAN)
}

fn pieces(shown: &Rendered, rig: &Rig) -> serde_json::Value {
    let glyphs = |chord: &Chord| chord.inputs().map(|i| i.to_string()).collect::<Vec<_>>();
    let row = |row| rig.sheet().row_name(row);
    let pieces: Vec<_> = shown
        .pieces()
        .iter()
        .map(|piece| match piece {
            Piece::Input(input) => json!({
                "row": row(input.row),
                "name": input.name,
                "glyphs": glyphs(&input.chord),
                "manner": input.manner.word(),
                "device": input.device_kind.word(),
            }),
            Piece::Group {
                row: of,
                chords,
                name,
            } => json!({
                "row": row(*of),
                "name": name,
                "glyphs": chords.iter().flat_map(glyphs).collect::<Vec<_>>(),
            }),
            Piece::Unbound { row: of, text } => json!({ "row": row(*of), "unbound": text }),
            Piece::Text(text) => json!({ "text": text }),
            _ => json!(null),
        })
        .collect();
    json!({ "pieces": pieces, "spoken": shown.spoken() })
}
