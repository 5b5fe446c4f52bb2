//! A newcomer's first minutes: a fresh folder, `new`, `cargo run`, a remap that outlasts a restart.

#![allow(clippy::unwrap_used, clippy::panic)]

use std::io::Write as _;
use std::path::Path;
use std::process::{Command, Stdio};

const ROOT: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../..");

fn new(folder: &Path, args: &[&str]) -> (Option<i32>, String) {
    let out = Command::new(env!("CARGO_BIN_EXE_swap-knot"))
        .arg("new")
        .args(args)
        .current_dir(folder)
        .output()
        .unwrap();
    let said = [out.stdout, out.stderr].concat();
    (out.status.code(), String::from_utf8(said).unwrap())
}

/// What the starter says to these lines.
fn run(folder: &Path, lines: &str) -> String {
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    let mut program = Command::new(cargo)
        .args(["run", "-q"])
        .current_dir(folder)
        // Built once for all runs of this test.
        .env("CARGO_TARGET_DIR", format!("{ROOT}/target/starter"))
        .env("RUSTFLAGS", "-D warnings")
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    program
        .stdin
        .take()
        .unwrap()
        .write_all(lines.as_bytes())
        .unwrap();
    let out = program.wait_with_output().unwrap();
    assert!(
        out.status.success(),
        "{}",
        String::from_utf8_lossy(&out.stderr)
    );
    String::from_utf8(out.stdout).unwrap()
}

#[test]
fn the_starter_builds_plays_remaps_and_keeps() {
    let folder = tempfile::tempdir().unwrap();
    let (code, said) = new(folder.path(), &["harbour", "--path", ROOT]);
    assert_eq!(code, Some(0), "{said}");
    assert!(said.contains("next: cd harbour && cargo run"), "{said}");
    let game = folder.path().join("harbour");
    // The newest versions of all crates may not be at hand: the ones of this workspace are.
    std::fs::copy(format!("{ROOT}/Cargo.lock"), game.join("Cargo.lock")).unwrap();
    let said = run(
        &game,
        "press Space\nbind cast-off KeyF\npress KeyF\nbind x KeyF\npress Kex\nquit\n",
    );
    for wanted in [
        "> Press Space to leave, W A S D to walk",
        "Cast off!",
        "`cast-off` and `lantern` are both on KeyF: swapped",
        "Cast off: F instead of Space",
        "> Press F to leave, W A S D to walk",
        "no action `x`",
        "`Kex` is no key",
    ] {
        assert!(said.contains(wanted), "no `{wanted}` in\n{said}");
    }
    let said = run(&game, "press KeyF\npress KeyE\npress KeyW\nreset\nquit\n");
    for wanted in [
        "> Press F to leave",
        "Cast off!",
        "Coil the rope!",
        "walking 0 to starboard, 1",
        "> Press Space",
    ] {
        assert!(said.contains(wanted), "no `{wanted}` in\n{said}");
    }
    // A second time nothing is overwritten.
    let (code, said) = new(folder.path(), &["harbour"]);
    assert_eq!(code, Some(2));
    assert!(
        said.contains("harbour is there already and not empty; nothing was written"),
        "{said}"
    );
    let (code, said) = new(folder.path(), &["Harbour Two"]);
    assert_eq!(code, Some(2));
    assert!(said.contains("`Harbour Two` cannot name a game"), "{said}");
}
