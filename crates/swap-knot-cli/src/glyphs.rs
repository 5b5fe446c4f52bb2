//! `swap-knot glyphs`: what a pack of pictures lacks for a game, and what it has too much of.

use std::error::Error;
use std::io::Write as _;
use std::path::{Path, PathBuf};

use serde_json::json;
use swap_knot::Layout;
use swap_knot_draw::{Pack, PackReport};

use crate::table::{BAD, GOOD, QUIET, count, print_json, styled};
use crate::{CLEAN, Done, FOUND, files};

/// The options of `glyphs`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot glyphs controls.toml art/glyphs\n  swap-knot glyphs controls.toml art/glyphs --marks art/marks.toml\n  swap-knot glyphs controls.toml art/glyphs --atlas glyphs.png --height 64\n\nExit codes: 0 all well, 1 pictures are missing, unused or cannot be used, 2 there is no pack."
)]
pub(crate) struct Args {
    /// The sheet whose inputs want pictures.
    sheet: PathBuf,
    /// The folder of the pack, with its `glyphs.toml`.
    pack: PathBuf,
    /// The pictures that this file of marks names as well, from its own folder.
    #[arg(long, value_name = "FILE")]
    marks: Option<PathBuf>,
    /// Write all pictures, and the built-in drawings of those that are missing, as one PNG, with a
    /// table of places beside it (.toml).
    #[arg(long, value_name = "FILE")]
    atlas: Option<PathBuf>,
    /// How high each picture is in the PNG, in pixels.
    #[arg(long, value_name = "PIXELS", default_value_t = 64, value_parser = clap::value_parser!(u32).range(8..=512))]
    height: u32,
    /// The layout for the legends of built-in keycaps.
    #[arg(long, value_name = "NAME", default_value = "us", value_parser = files::layout)]
    layout: Layout,
    /// Print JSON instead of text.
    #[arg(long)]
    json: bool,
}

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let mut pack = Pack::open(&args.pack)?;
    if let Some(path) = &args.marks {
        pack = pack.with_marks(&crate::words::marks(path)?, crate::words::folder_of(path));
    }
    let report = pack.check(&sheet);
    if args.json {
        print_json(&json!({
            "title": pack.title(),
            "families": pack.families().collect::<Vec<_>>(),
            "drawn": report.drawn,
            "missing": report.missing.iter().map(ToString::to_string).collect::<Vec<_>>(),
            "unused": report.unused,
            "unusable": report.notes.iter().map(|n| json!({ "file": n.file, "why": n.message })).collect::<Vec<_>>(),
        }))?;
    } else {
        print(&pack, &report)?;
    }
    if let Some(path) = &args.atlas {
        atlas(args, &pack, &report, path)?;
    }
    let clean = report.missing.is_empty() && report.unused.is_empty() && report.notes.is_empty();
    Ok(if clean { CLEAN } else { FOUND })
}

#[cfg(not(feature = "png"))]
fn atlas(_: &Args, _: &Pack, _: &PackReport, _: &Path) -> Result<(), Box<dyn Error>> {
    Err(crate::draw::NO_PNG.into())
}

#[cfg(feature = "png")]
fn atlas(args: &Args, pack: &Pack, report: &PackReport, path: &Path) -> Result<(), Box<dyn Error>> {
    use swap_knot::Words;
    use swap_knot_draw::{Glyphs, Theme};

    let glyphs = Glyphs::new(&Theme::DARK);
    let words = Words::english();
    let missing = report.missing.iter().copied();
    let atlas = pack.atlas(args.height, missing, &glyphs, &args.layout, &words)?;
    let table = path.with_extension("toml");
    let wrong = |p: &Path, e: std::io::Error| format!("cannot write {}: {e}", p.display());
    std::fs::write(path, atlas.picture.to_png()?).map_err(|e| wrong(path, e))?;
    std::fs::write(&table, atlas.to_toml()).map_err(|e| wrong(&table, e))?;
    if !args.json {
        anstream::println!("wrote {} and {}", path.display(), table.display());
    }
    Ok(())
}

fn print(pack: &Pack, report: &PackReport) -> std::io::Result<()> {
    let mut out = anstream::stdout().lock();
    for note in &report.notes {
        writeln!(out, "{} {note}", styled(BAD, "cannot use"))?;
    }
    for input in &report.missing {
        writeln!(
            out,
            "{} {input}: the built-in drawing does",
            styled(QUIET, "no picture")
        )?;
    }
    for file in &report.unused {
        writeln!(
            out,
            "{} {file}: name it in glyphs.toml or take it out",
            styled(QUIET, "unused")
        )?;
    }
    let families: Vec<&str> = pack.families().collect();
    let families = match families.is_empty() {
        true => String::new(),
        false => format!(", families {}", families.join(", ")),
    };
    let all = report.drawn + report.missing.len();
    let word = format!("{} of {} drawn", report.drawn, count(all, "input"));
    let style = if report.missing.is_empty() {
        GOOD
    } else {
        QUIET
    };
    writeln!(out, "{}: {}{families}", pack.title(), styled(style, &word))
}
