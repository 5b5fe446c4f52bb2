//! `swap-knot profiles`: the profiles of a game, as the game keeps them.

use std::error::Error;
use std::io::Write as _;
use std::path::PathBuf;

use clap::Subcommand;
use serde_json::json;
use swap_knot::{Locker, Profile, Slug};

use crate::locker::{InLocker, tell};
use crate::table::{QUIET, columns, print_json, styled};
use crate::{CLEAN, Done, files};

/// The options of `profiles`.
#[derive(Debug, clap::Args)]
pub(crate) struct Args {
    #[command(flatten)]
    locker: InLocker,
    #[command(subcommand)]
    what: What,
}

#[derive(Debug, Subcommand)]
enum What {
    /// List the profiles, the active one marked.
    List,
    /// Copy a profile under another name.
    Copy {
        /// The one to copy.
        from: Slug,
        /// The title of the copy; its name is made from it.
        title: String,
    },
    /// Give a profile another name.
    Rename {
        /// The one to rename.
        from: Slug,
        /// The new title; the name is made from it.
        title: String,
    },
    /// Delete a profile; it can be brought back until the game starts next.
    Delete {
        /// The one to delete.
        name: Slug,
    },
    /// Bring a deleted profile back.
    Undelete {
        /// The one to bring back.
        name: Slug,
    },
    /// Make a profile the one the game starts with.
    Activate {
        /// The one to start with.
        name: Slug,
    },
    /// Print a profile, to give to a friend.
    Export {
        /// The one to print.
        name: Slug,
    },
    /// Take in a profile from a friend.
    Import {
        /// The file to take in.
        file: PathBuf,
    },
}

pub(crate) fn run(args: &Args) -> Done {
    let locker = args.locker.open()?;
    let done = match &args.what {
        What::List => return list(&locker, args.locker.json),
        What::Copy { from, title } => {
            let to = Slug::from_title(title);
            tell(&locker.copy(from, &to, title)?);
            format!("copied {from} to {to}")
        }
        What::Rename { from, title } => {
            let to = Slug::from_title(title);
            tell(&locker.rename(from, &to, title)?);
            format!("renamed {from} to {to}")
        }
        What::Delete { name } => {
            locker.delete(name)?;
            format!("deleted {name}; `undelete {name}` brings it back")
        }
        What::Undelete { name } => {
            locker.undelete(name)?;
            format!("brought {name} back")
        }
        What::Activate { name } => {
            locker.set_active(name)?;
            format!("the game starts with {name}")
        }
        What::Export { name } => {
            let exported = locker.export(name)?;
            tell(&exported.notes);
            if args.locker.json {
                print_json(&json!({ "name": name.as_str(), "text": exported.text }))?;
            } else {
                let mut out = std::io::stdout().lock();
                out.write_all(exported.text.as_bytes())?;
            }
            return Ok(CLEAN);
        }
        What::Import { file } => {
            let text = files::read(file, Profile::MAX_BYTES)?;
            let name = locker
                .import(&text)
                .map_err(|e| format!("{}: {e}", file.display()))?;
            format!("imported as {name}")
        }
    };
    args.locker.done(&done)
}

fn list(locker: &Locker, as_json: bool) -> Result<u8, Box<dyn Error>> {
    let active = locker.active()?;
    let mut out = anstream::stdout().lock();
    let mut rows = vec![["", "name", "title", "changes"].map(str::to_owned).to_vec()];
    let mut all = Vec::new();
    for name in locker.names()? {
        let loaded = locker.load(&name);
        tell(&loaded.notes);
        let is_active = active.as_ref() == Some(&name);
        let mark = if is_active { "*" } else { "" };
        let (title, words);
        if loaded.is_missing() {
            all.push(json!({ "name": name.as_str(), "active": is_active, "unreadable": true }));
            (title, words) = (String::new(), "cannot be read".to_owned());
        } else {
            let profile = &loaded.profile;
            let changes = profile.row_names().count();
            all.push(json!({ "name": name.as_str(), "title": profile.title(), "changed-rows": changes, "active": is_active }));
            let s = if changes == 1 { "" } else { "s" };
            title = profile.shown_title().into_owned();
            words = format!("{changes} action{s} changed");
        }
        rows.push(vec![mark.to_owned(), name.to_string(), title, words]);
    }
    if as_json {
        writeln!(out, "{:#}", json!({ "profiles": all }))?;
    } else if all.is_empty() {
        writeln!(out, "{}", styled(QUIET, "no profile yet"))?;
    } else {
        write!(out, "{}", columns(0, &rows))?;
    }
    Ok(CLEAN)
}
