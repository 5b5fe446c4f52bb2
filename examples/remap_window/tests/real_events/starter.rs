//! What `swap-knot new` writes.

use crate::*;

const ROOT: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../..");

fn cargo(args: &[&str], folder: &Path) {
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    let mut command = Command::new(cargo);
    command.args(args).current_dir(folder);
    // Built with what this workspace has built already.
    let done = command
        .env("CARGO_TARGET_DIR", format!("{ROOT}/target"))
        .output()
        .unwrap();
    let said = String::from_utf8(done.stderr).unwrap();
    assert!(done.status.success() && !said.contains("warning"), "{said}");
}

/// Presses a key until the rope is off: the window does not say when it has the focus.
fn press_until(window: &mut Window, key: u8) {
    patience::wait_for("Cast off!", || {
        window.press(key);
        std::thread::sleep(std::time::Duration::from_millis(100));
        let is_off = window.count("Cast off!") > 0;
        is_off.then_some(()).ok_or_else(String::new)
    });
}

/// What a newcomer has after `swap-knot new`: a window that plays, with the controls screen on Escape.
#[test]
fn the_starter_plays_and_its_controls_are_changed_and_kept() {
    if std::env::var("SWAP_KNOT_STARTERS").as_deref() != Ok("1") {
        patience::skip("./scripts/test --starters builds what `swap-knot new` writes");
        return;
    }
    if skip_without_display() {
        return;
    }
    let folder = tempfile::tempdir().unwrap();
    let game = folder.path().join("harbour");
    let path = game.to_str().unwrap();
    // With the features of the other tests: they use the same binary.
    let new = [
        "run",
        "-q",
        "-p",
        "swap-knot-cli",
        "--features",
        "png",
        "--",
        "new",
        path,
        "--path",
        ROOT,
    ];
    cargo(&new, Path::new(ROOT));
    std::fs::copy(format!("{ROOT}/Cargo.lock"), game.join("Cargo.lock")).unwrap();
    let profile = "
[profile.dev]
debug = false
";
    let manifest = std::fs::read_to_string(game.join("Cargo.toml")).unwrap();
    std::fs::write(game.join("Cargo.toml"), manifest + profile).unwrap();
    cargo(&["build", "-q"], &game);
    // No other test may make another one of that name.
    let program = folder.path().join("play");
    std::fs::copy(format!("{ROOT}/target/debug/harbour"), &program).unwrap();
    let settings = folder.path().join("settings");
    let run = || {
        let mut command = Command::new(&program);
        command.env("XDG_CONFIG_HOME", &settings);
        command
    };

    let desktop = Desktop::start();
    let mut window = desktop.run(run());
    window.take_focus();
    press_until(&mut window, SPACE);
    // Search for it, change it, apply it.
    window.press(ESCAPE);
    with_control(&window, KEY_F);
    const CAST: [u8; 4] = [54, 38, 39, 28];
    window.press_all(&CAST);
    window.press_all(&[ENTER, ENTER, KEY_G]);
    with_control(&window, KEY_S);
    wait_for_file(&settings.join("harbour/profiles/player.toml"), "\"KeyG\"");
    window.press(ESCAPE);
    // Neither does what is told come out of order: whatever Space had done would be told before the
    // second G.
    let before = window.count("Cast off!");
    window.press_all(&[SPACE, KEY_G]);
    window.wait_for_times("Cast off!", before + 1);
    window.press(KEY_G);
    window.wait_for_times("Cast off!", before + 2);
    assert_eq!(window.count("Cast off!"), before + 2);
    window.close();
    let mut window = desktop.run(run());
    window.take_focus();
    press_until(&mut window, KEY_G);
}
