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

/// Adds to the sheet and to nothing else; the typed action is there.
fn one_edit_adds_an_action(game: &Path) {
    let sheet = std::fs::read_to_string(game.join("controls.toml")).unwrap();
    let more = "\n[actions.sound-horn]\ntitle = \"Sound the horn\"\nbind = \"KeyH\"\n";
    std::fs::write(game.join("controls.toml"), sheet + more).unwrap();
    let said = run(game, "press KeyH\nquit\n");
    assert!(said.contains("Sound the horn!"), "{said}");
    let main = std::fs::read_to_string(game.join("src/main.rs")).unwrap();
    std::fs::write(
        game.join("src/main.rs"),
        main.replace("Action::Walk", "Action::SoundHorn"),
    )
    .unwrap();
    run(game, "quit\n");
    std::fs::write(game.join("src/main.rs"), main).unwrap();
}

/// What the compiler says of the starter, from where it points at the macro on.
fn refused(game: &Path) -> String {
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    let out = Command::new(cargo)
        .args(["build", "-q"])
        .current_dir(game)
        .env("CARGO_TARGET_DIR", format!("{ROOT}/target/starter"))
        .env("RUSTFLAGS", "-D warnings")
        .output()
        .unwrap();
    assert!(!out.status.success());
    String::from_utf8(out.stderr).unwrap()
}

fn mistakes_in_the_sheet_do_not_compile(game: &Path) {
    let file = game.join("controls.toml");
    let sheet = std::fs::read_to_string(&file).unwrap();
    let edit = |from: &str, to: &str| {
        assert!(sheet.contains(from));
        std::fs::write(&file, sheet.replace(from, to)).unwrap();
        refused(game)
    };
    // Every mistake at once, with its place; and nothing else is told of.
    let said = edit(r#""Space", "pad:south""#, r#""Spacebar", "pad:sout""#);
    let mistakes = "error: controls.toml:33:10: `Spacebar` is not an input; did you mean `Space`?\n       \
        controls.toml:33:22: `pad:sout` is not an input; did you mean `pad:south`?\n";
    assert!(said.starts_with(mistakes), "{said}");
    assert_eq!(said.matches("error:").count(), 2, "{said}");
    let said = edit(r#"game = "harbour""#, "game = ");
    let mistake = "error: controls.toml:3:8: string values must be quoted";
    assert!(said.starts_with(mistake), "{said}");
    // A misspelt action, seen from the sheet.
    let said = edit("[actions.walk]", "[actions.wlk]");
    assert!(
        said.contains("no variant or associated item named `Walk`"),
        "{said}"
    );
    assert!(said.contains("similar name"), "{said}");
    std::fs::remove_file(&file).unwrap();
    let said = refused(game);
    assert!(said.contains("controls.toml: No such file"), "{said}");
    std::fs::write(&file, sheet).unwrap();
}

#[test]
fn the_starter_builds_plays_remaps_and_keeps() {
    if std::env::var_os("SWAP_KNOT_STARTERS").is_none() {
        patience::skip("./scripts/test --starters builds what `swap-knot new` writes");
        return;
    }
    let folder = tempfile::tempdir().unwrap();
    let (code, said) = new(folder.path(), &["harbour", "--terminal", "--path", ROOT]);
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
        "Cast off: F (was Space)",
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
    one_edit_adds_an_action(&game);
    mistakes_in_the_sheet_do_not_compile(&game);

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

/// Makes a starter that builds with what this workspace has built already.
fn shared(folder: &Path, kind: &[&str]) -> std::path::PathBuf {
    let (code, said) = new(folder, &[&["harbour", "--path", ROOT], kind].concat());
    assert_eq!(code, Some(0), "{said}");
    let game = folder.join("harbour");
    std::fs::copy(format!("{ROOT}/Cargo.lock"), game.join("Cargo.lock")).unwrap();
    let file = game.join("Cargo.toml");
    let profile = "
[profile.dev]
debug = false
";
    let text = std::fs::read_to_string(&file).unwrap();
    std::fs::write(&file, text + profile).unwrap();
    game
}

fn build(game: &Path) {
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    let mut command = Command::new(cargo);
    command.args(["build", "-q"]).current_dir(game);
    let out = command
        .env("CARGO_TARGET_DIR", format!("{ROOT}/target"))
        .output()
        .unwrap();
    let said = String::from_utf8(out.stderr).unwrap();
    assert!(out.status.success() && !said.contains("warning"), "{said}");
}

#[test]
fn the_bevy_starter_builds_and_plays() {
    if std::env::var("SWAP_KNOT_STARTERS").as_deref() != Ok("1") {
        patience::skip("./scripts/test --starters builds what `swap-knot new` writes");
        return;
    }
    let folder = tempfile::tempdir().unwrap();
    let game = shared(folder.path(), &["--bevy"]);
    build(&game);
    let mut program = Command::new(format!("{ROOT}/target/debug/harbour"))
        .current_dir(&game)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let keys = b"Space\nKeyW\nnothing\n";
    program.stdin.take().unwrap().write_all(keys).unwrap();
    let said = program.wait_with_output().unwrap().stdout;
    let said = String::from_utf8(said).unwrap();
    for wanted in ["Cast off!", "at [0.0, 1.0]", "keys are called Space"] {
        assert!(said.contains(wanted), "no `{wanted}` in\n{said}");
    }
}
