//! `swap-knot completions` and `swap-knot man`: for shells and packagers.

use std::io::Write as _;

use clap::CommandFactory as _;
use clap_complete::Shell;

use crate::{CLEAN, Done};

/// The options of `completions`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Example:\n  swap-knot completions bash > ~/.local/share/bash-completion/completions/swap-knot"
)]
pub(crate) struct CompletionsArgs {
    /// The shell to complete for.
    shell: Shell,
}

/// The options of `man`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot man > swap-knot.1\n  swap-knot man check > swap-knot-check.1"
)]
pub(crate) struct ManArgs {
    /// A command; without it, the page of `swap-knot` itself.
    command: Option<String>,
}

pub(crate) fn completions(args: &CompletionsArgs) -> Done {
    // Made first and printed after, so that a closed pipe is no panic.
    let mut out = Vec::new();
    clap_complete::generate(
        args.shell,
        &mut crate::Args::command(),
        "swap-knot",
        &mut out,
    );
    std::io::stdout().lock().write_all(&out)?;
    Ok(CLEAN)
}

pub(crate) fn man(args: &ManArgs) -> Done {
    let mut all = crate::Args::command();
    all.build();
    let command = match &args.command {
        None => all,
        Some(name) => {
            let known: Vec<String> = all
                .get_subcommands()
                .map(|c| c.get_name().to_owned())
                .collect();
            let found = all.find_subcommand(name).cloned();
            found.ok_or_else(|| {
                format!(
                    "there is no command `{name}`; there are {}",
                    known.join(", ")
                )
            })?
        }
    };
    let mut out = Vec::new();
    clap_mangen::Man::new(command).render(&mut out)?;
    std::io::stdout().lock().write_all(&out)?;
    Ok(CLEAN)
}
