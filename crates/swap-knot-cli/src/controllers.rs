//! `swap-knot controllers`: what was taught of controllers without a known mapping, as the game keeps it.

use std::io::Write as _;
use std::path::PathBuf;

use clap::Subcommand;
use serde_json::json;
use swap_knot::input::{KindNameError, Mappings, Taught, UsbId};

use crate::locker::{InLocker, tell};
use crate::table::{QUIET, columns, count, styled};
use crate::{CLEAN, Done, files};

/// The options of `controllers`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "A kind of controller is named by its USB numbers, such as `1209:5a03`; those that do not say\ntheirs are `unknown`. An example of such a file is demo/controllers.toml."
)]
pub(crate) struct Args {
    #[command(flatten)]
    locker: InLocker,
    #[command(subcommand)]
    what: What,
}

#[derive(Debug, Subcommand)]
enum What {
    /// List the kinds of controllers of which something was taught.
    List,
    /// Print what was taught, to give to a friend.
    Export {
        /// Only of this kind.
        #[arg(value_parser = kind)]
        kind: Option<Kind>,
    },
    /// Take in what was taught elsewhere; of kinds that are there as well it takes the place of that.
    Import {
        /// The file to take in.
        file: PathBuf,
    },
    /// Forget what was taught of a kind.
    Forget {
        /// Which.
        #[arg(value_parser = kind)]
        kind: Kind,
    },
}

/// A kind of controller: by its USB numbers, if it says them.
#[derive(Clone, Copy, Debug)]
struct Kind(Option<UsbId>);

fn kind(text: &str) -> Result<Kind, KindNameError> {
    Mappings::kind_named(text).map(Kind)
}

pub(crate) fn run(args: &Args) -> Done {
    let locker = args.locker.open()?;
    let all = || locker.mappings().map_err(|note| note.to_string());
    let no_such = |kind: Option<UsbId>, all: &Mappings| {
        let there: Vec<String> = all
            .kinds()
            .map(|(kind, _)| Mappings::kind_name(kind))
            .collect();
        let there = match there.is_empty() {
            true => "nothing was taught yet".to_owned(),
            false => format!("there is {}", there.join(", ")),
        };
        format!(
            "nothing was taught of {}; {there}",
            Mappings::kind_name(kind)
        )
    };
    let (notes, done) = match &args.what {
        What::List => return list(&all()?, args.locker.json),
        What::Export { kind } => {
            let mut wanted = all()?;
            if let Some(Kind(kind)) = *kind {
                let taught = wanted.of(kind).cloned();
                let taught = taught.ok_or_else(|| no_such(kind, &wanted))?;
                wanted = Mappings::new();
                wanted.set(kind, Some(taught));
            }
            let mut out = std::io::stdout().lock();
            out.write_all(wanted.to_toml().as_bytes())?;
            return Ok(CLEAN);
        }
        What::Import { file } => {
            let taught = files::mappings(file)?;
            let kinds = count(taught.kinds().count(), "kind");
            (
                locker.teach(&taught)?,
                format!("took in {kinds} of controllers"),
            )
        }
        What::Forget { kind: Kind(kind) } => {
            let there = all()?;
            if there.of(*kind).is_none() {
                return Err(no_such(*kind, &there).into());
            }
            let (notes, name) = (locker.forget(*kind)?, Mappings::kind_name(*kind));
            (
                notes,
                format!("forgot {name}; the game asks about it again"),
            )
        }
    };
    tell(&notes);
    args.locker.done(&done)
}

fn list(all: &Mappings, as_json: bool) -> Done {
    let mut out = anstream::stdout().lock();
    let mut rows = vec![["controller", "is"].map(str::to_owned).to_vec()];
    let mut kinds = Vec::new();
    for (kind, taught) in all.kinds() {
        let name = Mappings::kind_name(kind);
        let is = match taught {
            Taught::Pad(mapping) => {
                let parts = mapping.parts().count();
                kinds.push(json!({ "controller": name, "gamepad": true, "parts": parts }));
                format!("a gamepad, {} taught", count(parts, "part"))
            }
            _ => {
                kinds.push(json!({ "controller": name, "gamepad": false }));
                "no gamepad".to_owned()
            }
        };
        rows.push(vec![name, is]);
    }
    match (as_json, kinds.is_empty()) {
        (true, _) => writeln!(out, "{:#}", json!({ "controllers": kinds }))?,
        (_, true) => writeln!(out, "{}", styled(QUIET, "nothing was taught yet"))?,
        _ => write!(out, "{}", columns(0, &rows))?,
    }
    Ok(CLEAN)
}
