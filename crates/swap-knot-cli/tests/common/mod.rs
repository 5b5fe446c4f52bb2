//! The command, run at the top of the repository, where the demo data is.

#![allow(unreachable_pub, dead_code, clippy::unwrap_used)]

use snapbox::cmd::{Command, cargo_bin};

pub fn swap_knot(args: &[&str]) -> Command {
    let dir = concat!(env!("CARGO_MANIFEST_DIR"), "/../..");
    Command::new(cargo_bin!("swap-knot"))
        .args(args)
        .current_dir(dir)
}

pub fn says(args: &[&str]) -> String {
    let out = swap_knot(args).output().unwrap();
    assert!(
        out.status.success(),
        "{}",
        String::from_utf8_lossy(&out.stderr)
    );
    String::from_utf8(out.stdout).unwrap()
}
