//! `swap-knot new`: a starter that builds and runs as it is.

use std::fs;
use std::path::{Path, PathBuf};

use crate::table::{GOOD, styled};
use crate::{CLEAN, Done};

/// The files that every starter has: name and text. `{name}` in them is the name of the game.
const FILES: [(&str, &str); 3] = [
    ("Cargo.toml", include_str!("../starter/Cargo.toml.in")),
    ("controls.toml", include_str!("../starter/controls.toml")),
    (".gitignore", include_str!("../starter/gitignore")),
];

/// A kind of starter: its main.rs, what that does, the crates of ours with their features, and those of
/// others.
struct Kind {
    main: &'static str,
    does: &'static str,
    ours: &'static [(&'static str, &'static str)],
    others: &'static [&'static str],
}

const WINDOW: Kind = Kind {
    main: include_str!("../starter/window.rs"),
    does: "a game in a window, with the controls screen on Escape",
    ours: &[
        ("swap-knot", "\"user-folder\""),
        ("swap-knot-egui", ""),
        ("swap-knot-winit", "\"x11\""),
    ],
    others: &[
        "eframe = { version = \"0.37\", default-features = false, features = [\"default_fonts\", \"glow\", \"wayland\", \"x11\"] }",
        "winit = { version = \"0.30\", default-features = false, features = [\"rwh_06\"] }",
    ],
};

const TERMINAL: Kind = Kind {
    main: include_str!("../starter/terminal.rs"),
    does: "a loop in the terminal that plays, remaps and keeps",
    ours: &[("swap-knot", "")],
    others: &[],
};

const BEVY: Kind = Kind {
    main: include_str!("../starter/bevy.rs"),
    does: "a Bevy app without a picture, whose systems ask for actions",
    ours: &[("swap-knot", ""), ("swap-knot-bevy", "")],
    others: &[
        "bevy_app = { version = \"0.20\", default-features = false, features = [\"std\"] }",
        "bevy_ecs = { version = \"0.20\", default-features = false, features = [\"std\"] }",
        "bevy_input = { version = \"0.20\", default-features = false, features = [\"gamepad\", \"keyboard\", \"mouse\", \"std\", \"touch\"] }",
    ],
};

/// The options of `new`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Example:\n  swap-knot new harbour && cd harbour && cargo run\n\nIt writes a commented sheet, and a small game in a window that plays, shows prompts, and has the whole controls screen on Escape."
)]
pub(crate) struct Args {
    /// The folder to make; its name becomes the game's.
    dir: PathBuf,
    /// A loop in the terminal rather than a window: the fewest crates.
    #[arg(long, conflicts_with = "bevy")]
    terminal: bool,
    /// A Bevy app.
    #[arg(long)]
    bevy: bool,
    /// Use Swap Knot from this folder of its sources instead of the published crates.
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
    let dir = args.dir.display();
    match fs::read_dir(&args.dir).map(|mut d| d.next().is_some()) {
        Ok(false) => {}
        Ok(true) => {
            let why = format!("{dir} is there already and not empty; nothing was written");
            return Err(why.into());
        }
        Err(e) if e.kind() == std::io::ErrorKind::NotFound => {}
        Err(e) => {
            return Err(format!("cannot look into {dir}: {e}; nothing was written").into());
        }
    }
    let kind = match (args.terminal, args.bevy) {
        (true, _) => &TERMINAL,
        (_, true) => &BEVY,
        _ => &WINDOW,
    };
    let ours = kind.ours.iter().map(|(krate, features)| {
        let from = source(krate, args.path.as_deref())?;
        let features = match *features {
            "" => String::new(),
            features => format!(", features = [{features}]"),
        };
        Ok(format!("{krate} = {{ {from}{features} }}"))
    });
    let mut dependencies = ours.collect::<Result<Vec<_>, String>>()?;
    dependencies.extend(kind.others.iter().map(|d| (*d).to_owned()));
    let dependencies = dependencies.join("\n");
    for (file, text) in FILES.into_iter().chain([("src/main.rs", kind.main)]) {
        let text = text.replace("{dependencies}", &dependencies);
        write(&args.dir.join(file), &text.replace("{name}", name))?;
    }
    anstream::println!("{} {}", styled(GOOD, "made"), args.dir.display());
    anstream::println!(
        "  controls.toml     what the player can do; the only file to edit for an action"
    );
    anstream::println!("  src/main.rs       {}", kind.does);
    anstream::println!("next: cd {} && cargo run", args.dir.display());
    Ok(CLEAN)
}

/// Where a crate of ours comes from: its version, or the sources.
fn source(krate: &str, path: Option<&Path>) -> Result<String, String> {
    let Some(path) = path else {
        return Ok(format!("version = \"{}\"", env!("CARGO_PKG_VERSION")));
    };
    let folder = path.join("crates").join(krate);
    let folder = fs::canonicalize(&folder).map_err(|e| {
        let folder = folder.display();
        format!("{folder}: {e}; --path wants the folder of Swap Knot's sources")
    })?;
    Ok(format!("path = {:?}", folder.display().to_string()))
}

fn write(path: &Path, text: &str) -> Result<(), String> {
    let wrong = |e: std::io::Error| format!("cannot write {}: {e}", path.display());
    if let Some(folder) = path.parent() {
        fs::create_dir_all(folder).map_err(wrong)?;
    }
    fs::write(path, text).map_err(wrong)
}
