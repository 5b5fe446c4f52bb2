//! `swap-knot new`: a starter that builds and runs as it is.

use std::fs;
use std::path::{Path, PathBuf};

use crate::table::{GOOD, styled};
use crate::{CLEAN, Done};

/// The files of the starter: name and text. `{name}` in them is the name of the game.
const FILES: [(&str, &str); 4] = [
    ("Cargo.toml", include_str!("../starter/Cargo.toml.in")),
    ("controls.toml", include_str!("../starter/controls.toml")),
    ("src/main.rs", include_str!("../starter/main.rs")),
    (".gitignore", include_str!("../starter/gitignore")),
];

/// The options of `new`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Example:\n  swap-knot new harbour && cd harbour && cargo run\n\nIt writes a commented sheet, and a main loop in the terminal that plays, remaps and keeps; swap the terminal for your engine's window and adapter."
)]
pub(crate) struct Args {
    /// The folder to make; its name becomes the game's.
    dir: PathBuf,
    /// Use Swap Knot from this folder of its sources instead of the published crate.
    #[arg(long, value_name = "DIR")]
    path: Option<PathBuf>,
}

pub(crate) fn run(args: &Args) -> Done {
    let name = args
        .dir
        .file_name()
        .and_then(|n| n.to_str())
        .unwrap_or_default();
    let fits = |b: u8| b.is_ascii_lowercase() || b.is_ascii_digit() || b == b'-';
    let starts = name.bytes().next().is_some_and(|b| b.is_ascii_lowercase());
    if !starts || !name.bytes().all(fits) {
        return Err(format!(
            "`{name}` cannot name a game; begin with a letter and use a-z, 0-9 and `-`, as in `harbour`"
        )
        .into());
    }
    if args.dir.exists() && fs::read_dir(&args.dir).is_ok_and(|mut d| d.next().is_some()) {
        let dir = args.dir.display();
        return Err(format!("{dir} is there already and not empty; nothing was written").into());
    }
    let source = match &args.path {
        None => format!("swap-knot = \"{}\"", env!("CARGO_PKG_VERSION")),
        Some(path) => {
            let core = path.join("crates/swap-knot");
            let core = fs::canonicalize(&core).map_err(|e| {
                format!(
                    "{}: {e}; --path wants the folder of Swap Knot's sources",
                    core.display()
                )
            })?;
            format!("swap-knot = {{ path = {:?} }}", core.display().to_string())
        }
    };
    for (file, text) in FILES {
        let text = text.replace("{name}", name).replace("{swap-knot}", &source);
        write(&args.dir.join(file), &text)?;
    }
    anstream::println!("{} {}", styled(GOOD, "made"), args.dir.display());
    anstream::println!(
        "  controls.toml     what the player can do; the only file to edit for an action"
    );
    anstream::println!("  src/main.rs       a loop that plays, remaps and keeps");
    anstream::println!("next: cd {} && cargo run", args.dir.display());
    Ok(CLEAN)
}

fn write(path: &Path, text: &str) -> Result<(), String> {
    let wrong = |e: std::io::Error| format!("cannot write {}: {e}", path.display());
    if let Some(folder) = path.parent() {
        fs::create_dir_all(folder).map_err(wrong)?;
    }
    fs::write(path, text).map_err(wrong)
}
