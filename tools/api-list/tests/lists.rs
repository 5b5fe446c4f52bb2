//! What each crate promises is written down in `docs/api`, so that a change of it is seen.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

use std::fs;
use std::path::Path;

/// Every crate that is published and that others build on.
const CRATES: [&str; 12] = [
    "swap-knot",
    "swap-knot-adopt",
    "swap-knot-bevy",
    "swap-knot-controls",
    "swap-knot-core",
    "swap-knot-derive",
    "swap-knot-draw",
    "swap-knot-egui",
    "swap-knot-gilrs",
    "swap-knot-sdl3",
    "swap-knot-winit",
    "swap-knot-workbench",
];

#[test]
fn the_public_api_is_what_is_written_down() {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    let mut changed = Vec::new();
    for name in CRATES {
        let krate = root.join("crates").join(name);
        if !krate.join("src/lib.rs").exists() {
            continue;
        }
        let mut now = api_list::list(&krate).unwrap().join("\n");
        now.push('\n');
        let file = root.join(format!("docs/api/{name}.txt"));
        let written = fs::read_to_string(&file).unwrap_or_default();
        if now == written {
            continue;
        }
        if std::env::var_os("SWAP_KNOT_WRITE").is_some() {
            fs::create_dir_all(file.parent().unwrap()).unwrap();
            fs::write(&file, now).unwrap();
            continue;
        }
        let gone = written.lines().filter(|l| !now.lines().any(|n| n == *l));
        let new = now.lines().filter(|n| !written.lines().any(|l| l == *n));
        changed.push(format!("in {name}:"));
        changed.extend(gone.map(|l| format!("- {l}")));
        changed.extend(new.map(|l| format!("+ {l}")));
    }
    assert!(
        changed.is_empty(),
        "the public API has changed; where that is meant, write it down with SWAP_KNOT_WRITE=1, and tell \
         of it in the CHANGELOG:\n{}",
        changed.join("\n")
    );
}
