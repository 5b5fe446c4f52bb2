//! The menu in a real terminal: tmux types and reads the screen.

#![allow(clippy::unwrap_used, clippy::panic)]

use std::process::Command;

use patience::wait_for;

/// A terminal of the test's own.
struct Terminal {
    socket: String,
}

impl Terminal {
    fn start(name: &str, program: &[&str]) -> Terminal {
        let socket = format!("swap-knot-{name}-{}", std::process::id());
        let terminal = Terminal { socket };
        let mut args = vec![
            "-f",
            "/dev/null",
            "new-session",
            "-d",
            "-x",
            "110",
            "-y",
            "44",
        ];
        args.extend(program);
        terminal.tmux(&args);
        terminal
    }

    fn tmux(&self, args: &[&str]) -> String {
        let out = Command::new("tmux")
            .args(["-L", &self.socket])
            .args(args)
            .output()
            .unwrap();
        String::from_utf8_lossy(&out.stdout).into_owned()
    }

    fn keys(&self, keys: &[&str]) {
        for key in keys {
            self.tmux(&["send-keys", key]);
        }
    }

    /// Waits until the screen shows a text.
    #[track_caller]
    fn shows(&self, text: &str) {
        wait_for(text, || {
            let screen = self.tmux(&["capture-pane", "-p"]);
            match screen.contains(text) {
                true => Ok(()),
                false => Err(screen),
            }
        });
    }

    #[track_caller]
    fn ends(&self) {
        wait_for("the program to end", || {
            let sessions = self.tmux(&["list-sessions"]);
            match sessions.is_empty() {
                true => Ok(()),
                false => Err(self.tmux(&["capture-pane", "-p"])),
            }
        });
    }
}

impl Drop for Terminal {
    fn drop(&mut self) {
        self.tmux(&["kill-server"]);
    }
}

#[test]
fn a_key_is_swapped_applied_and_kept() {
    if Command::new("tmux").arg("-V").output().is_err() {
        patience::skip("there is no tmux; ./scripts/test installs it");
        return;
    }
    let folder = tempfile::tempdir().unwrap();
    let profiles = folder.path().to_str().unwrap();
    let program = [env!("CARGO_BIN_EXE_remap_terminal"), profiles];
    let terminal = Terminal::start("swap", &program);
    terminal.shows("▲ to the bow");
    terminal.keys(&["Down"; 6]);
    terminal.keys(&["Enter"]);
    terminal.shows("Press the new key or button for “Cast off”");
    terminal.keys(&["f"]);
    terminal.shows("“Lantern” already uses F.");
    terminal.shows("Cast off: F (was Space)");
    terminal.keys(&["Enter"]);
    terminal.shows("• F");
    // Escape leaves a cell as it is; undo takes back; what must stay says so.
    terminal.keys(&["Enter"]);
    terminal.shows("Press Escape to cancel");
    terminal.keys(&["Escape"]);
    terminal.shows("Esc: back");
    terminal.keys(&["C-z"]);
    terminal.shows("Space ");
    terminal.keys(&["Enter"]);
    terminal.shows("Press Escape to cancel");
    terminal.keys(&["C-k"]);
    terminal.shows("• Ctrl+K");
    // Leaving asks; what has to be pressed has to show that it works.
    terminal.keys(&["Escape"]);
    terminal.shows("Apply your changes before you leave?");
    terminal.keys(&["Enter"]);
    terminal.shows("Keep these controls?");
    terminal.keys(&["C-k"]);
    terminal.ends();
    let again = Terminal::start("again", &program);
    again.shows("Ctrl+K");
    // Every page is there, and another number of feel.
    again.keys(&["Tab"]);
    again.shows("Build-up time");
    again.keys(&["Down", "Right"]);
    again.shows("0.05\u{a0}s");
    again.keys(&["Tab"]);
    again.shows("Import from text");
    again.keys(&["Tab"]);
    again.shows("Automatic: English (US)");
    again.keys(&["Tab"]);
    again.shows("bottom button of the four");
    again.keys(&["Tab", "Down", "Enter"]);
    again.shows("Stop test");
    again.keys(&["w"]);
    again.shows("W: Walk to the bow");
    again.keys(&["Escape"]);
    again.shows("Tab: next page");
    again.keys(&["Escape"]);
    again.shows("Apply your changes before you leave?");
    again.keys(&["Down", "Enter"]);
    again.ends();
    // Another copy of the game saves while this one is open, and this one over it: both stay.
    let (one, other) = (
        Terminal::start("one", &program),
        Terminal::start("other", &program),
    );
    one.shows("▲ to the bow");
    other.shows("▲ to the bow");
    for (terminal, downs, told) in [
        (&one, 7, "Applied and saved."),
        (&other, 8, "also changed somewhere else"),
    ] {
        terminal.keys(&["Down"; 8][..downs]);
        terminal.keys(&["Delete", "C-s"]);
        terminal.shows(told);
    }
    let kept = std::fs::read_to_string(folder.path().join("skipper.toml")).unwrap();
    assert_eq!(kept.matches("\"unbound\"").count(), 2, "{kept}");
    drop((one, other));
    // In another language nothing is left of this one: all of it stands between brackets.
    let brackets = [program[0], program[1], "x-brackets"];
    let told = Terminal::start("told", &brackets);
    told.shows("⟦⟦⟦Ctrl⟧⟧+⟦K⟧⟧");
    let screen = told.tmux(&["capture-pane", "-p"]);
    let (table, below) = screen.split_once("└").unwrap();
    let (_, table) = table.split_once("┌").unwrap();
    // Cells may be cut off on the right, and begin with a bracket all the same.
    for cell in table.split(['│', '\n']).flat_map(|line| line.split("  ")) {
        let letter = cell.find(char::is_alphabetic).unwrap_or(cell.len());
        let bracket = cell.find('⟦').unwrap_or(cell.len());
        assert!(bracket <= letter, "{cell:?} in\n{screen}");
    }
    let mut depth = 0;
    let outside = below.chars().filter(|c| {
        depth += i32::from(*c == '⟦') - i32::from(*c == '⟧');
        depth == 0 && c.is_alphabetic()
    });
    assert_eq!(outside.collect::<String>(), "", "{screen}");
    told.keys(&["Escape"]);
    told.ends();
}

#[cfg(target_os = "linux")]
#[test]
fn without_a_folder_it_is_kept_where_the_platform_keeps_settings() {
    if Command::new("tmux").arg("-V").output().is_err() {
        patience::skip("there is no tmux; ./scripts/test installs it");
        return;
    }
    let home = tempfile::tempdir().unwrap();
    let settings = format!("XDG_CONFIG_HOME={}", home.path().display());
    let program = ["env", &settings, env!("CARGO_BIN_EXE_remap_terminal")];
    let terminal = Terminal::start("home", &program);
    terminal.shows("▲ to the bow");
    terminal.keys(&["Down"; 7]);
    terminal.keys(&["Delete", "C-s"]);
    terminal.shows("Applied and saved.");
    let kept = home.path().join("slack-water/profiles/skipper.toml");
    assert!(kept.is_file(), "no {}", kept.display());
}
