//! `swap-knot draw`: a keyboard map, a control card, or the glyphs, as a picture.

use std::error::Error;
use std::fs;
use std::io::Write as _;
use std::path::{Path, PathBuf};

use swap_knot::layout::Board;
use swap_knot::{Draft, Input, Layout};
use swap_knot_draw::{Card, Drawing, Glyphs, KeyboardMap, Theme};

use crate::words::WordsArgs;
use crate::{CLEAN, Done, files};

/// The options of `draw`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot draw map controls.toml -o map.svg\n  swap-knot draw map controls.toml --layout fr --situation helm --profile ada.toml -o helm.svg\n  swap-knot draw card controls.toml --theme light --language de --layout de -o card.html\n  swap-knot draw card controls.toml --marks marks.toml --family quayside -o card.svg\n  swap-knot draw glyphs controls.toml -o glyphs.svg"
)]
pub(crate) struct Args {
    /// What to draw.
    #[arg(value_enum)]
    what: What,
    /// The sheet that declares the actions.
    sheet: PathBuf,
    /// Where to write it: .svg, for a card .html, .png where built with the feature `png`; without
    /// it, SVG is printed.
    #[arg(short, long, value_name = "FILE")]
    output: Option<PathBuf>,
    /// With what a player changed.
    #[arg(long, value_name = "FILE")]
    profile: Option<PathBuf>,
    /// The layout; without it, the one in the profile, or us.
    #[arg(long, value_name = "NAME", value_parser = files::layout)]
    layout: Option<Layout>,
    /// The board, if it is not the usual one of the layout.
    #[arg(long, value_name = "STANDARD", value_parser = board)]
    board: Option<Board>,
    #[command(flatten)]
    words: WordsArgs,
    /// The colours.
    #[arg(long, value_name = "light|dark", default_value = "dark", value_parser = theme)]
    theme: Theme,
    /// Show only what is live in this situation (of a map).
    #[arg(long, value_name = "NAME")]
    situation: Option<String>,
    /// How many pixels a PNG has for one of the drawing.
    #[arg(long, value_name = "N", default_value_t = 1.0)]
    scale: f32,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq, clap::ValueEnum)]
enum What {
    /// The keyboard with what each key does; mouse and pad below.
    Map,
    /// One page with all actions by group.
    Card,
    /// The built-in drawings of the inputs that the sheet uses.
    Glyphs,
}

pub(crate) fn run(args: &Args) -> Done {
    if !(0.1..=8.0).contains(&args.scale) {
        return Err("--scale is from 0.1 to 8".into());
    }
    let sheet = files::sheet(&args.sheet)?;
    let layout = args.layout.as_ref();
    let (profile, layout) = files::played(&sheet, args.profile.as_deref(), layout)?;
    let layout = args.board.map_or(layout.clone(), |b| layout.on_board(b));
    let situation = match &args.situation {
        Some(name) => Some(sheet.find_situation(name).ok_or_else(|| {
            let all: Vec<&str> = sheet.situations().map(|(_, s)| s.name.as_str()).collect();
            format!(
                "there is no situation `{name}`; there are {}",
                all.join(", ")
            )
        })?),
        None => None,
    };
    let words = args.words.words(&profile)?;
    let mut draft = Draft::new(&sheet, profile, &layout);
    draft.set_words(&words);
    let ending = args.output.as_deref().and_then(Path::extension);
    if args.what == What::Card && ending.is_some_and(|e| e == "html") {
        let card = Card::new(&draft, &args.theme);
        warn(&card.draw());
        return write(args, card.to_html().as_bytes());
    }
    let drawing = match args.what {
        What::Card => Card::new(&draft, &args.theme).draw(),
        What::Map => {
            let map = KeyboardMap::new(&draft, &args.theme);
            situation
                .map_or(map.clone(), |s| map.in_situation(s))
                .draw()
        }
        What::Glyphs => {
            let mut inputs: Vec<Input> = (draft.bindings().iter())
                .flat_map(|b| b.chord.inputs())
                .collect();
            inputs.sort_unstable();
            inputs.dedup();
            Glyphs::new(&args.theme).sheet(inputs, &layout, draft.words())
        }
    };
    warn(&drawing);
    let bytes = match ending.and_then(|e| e.to_str()) {
        None | Some("svg") => drawing.to_svg().into_bytes(),
        Some("png") => png(&drawing, args.scale)?,
        Some(other) => {
            let mut endings = vec![".svg"];
            endings.extend(cfg!(feature = "png").then_some(".png"));
            endings.extend((args.what == What::Card).then_some(".html"));
            let endings = endings.join(" or ");
            return Err(format!("cannot write .{other}; write {endings}").into());
        }
    };
    write(args, &bytes)
}

/// Tells of letters that would be boxes.
fn warn(drawing: &Drawing) {
    if let Some(warning) = swap_knot_draw::font_warning(&drawing.lacking_letters()) {
        anstream::eprintln!("warning: {warning}");
    }
}

/// How to get what this build leaves out.
#[cfg(not(feature = "png"))]
pub(crate) const NO_PNG: &str = "this build of swap-knot draws no PNG; add `--features png` to the `cargo run` or `cargo install` that builds it";

#[cfg(not(feature = "png"))]
fn png(_: &Drawing, _: f32) -> Result<Vec<u8>, Box<dyn Error>> {
    Err(format!("{NO_PNG}, or write .svg").into())
}

#[cfg(feature = "png")]
fn png(drawing: &Drawing, scale: f32) -> Result<Vec<u8>, Box<dyn Error>> {
    let height = (drawing.height() * scale).round().max(1.0) as u32;
    Ok(drawing.to_pixels(height)?.to_png()?)
}

fn write(args: &Args, bytes: &[u8]) -> Done {
    match &args.output {
        Some(path) => {
            fs::write(path, bytes).map_err(|e| format!("cannot write {}: {e}", path.display()))?;
            anstream::println!("wrote {}", path.display());
        }
        None => std::io::stdout().lock().write_all(bytes)?,
    }
    Ok(CLEAN)
}

fn board(word: &str) -> Result<Board, String> {
    Board::named(word).ok_or_else(|| {
        let all = Board::ALL.map(Board::word).join(", ");
        format!("there is no board `{word}`; there are {all}")
    })
}

fn theme(word: &str) -> Result<Theme, String> {
    Theme::from_word(word).ok_or_else(|| "a theme is light or dark".to_owned())
}
