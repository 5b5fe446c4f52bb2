//! The shipped tables against the keyboard database of this machine.

#![allow(clippy::unwrap_used, clippy::panic)]

use std::process::Command;

use swap_knot::layout::Level;
use swap_knot::{Layout, Place};

#[test]
fn the_shipped_layouts_agree_with_the_database() {
    if !std::path::Path::new("/usr/share/X11/xkb/symbols").exists() {
        patience::skip("no XKB keyboard database on this machine");
        return;
    }
    let tool = env!("CARGO_BIN_EXE_layout-tables");
    let out = Command::new(tool).arg("--check").output().unwrap();
    let said = String::from_utf8(out.stdout).unwrap();
    // Another release of the database moves a few characters of a few layouts.
    let moved = |line: &&str| {
        let count = line.split(' ').nth(1).and_then(|n| n.parse::<u32>().ok());
        count.is_none_or(|n| n > 20)
    };
    assert!(
        said.lines().count() <= 30,
        "too many layouts differ:\n{said}"
    );
    assert_eq!(
        said.lines().find(moved),
        None,
        "a layout differs too much:\n{said}"
    );
    assert!(String::from_utf8(out.stderr).unwrap().is_empty());
}

/// What the system's own compiler of keyboards says to some arguments; nothing where it is missing.
fn xkbcli(args: &[&str]) -> Option<String> {
    let out = Command::new("xkbcli").args(args).output().ok()?;
    Some(String::from_utf8_lossy(&out.stdout).into_owned())
}

#[test]
fn legends_are_those_of_the_systems_own_compiler() {
    if xkbcli(&["--version"]).is_none() {
        patience::skip("no xkbcli on this machine (Debian: libxkbcommon-tools)");
        return;
    }
    let list = include_str!("../layouts.txt");
    let mut differ = Vec::new();
    let mut looked_at = 0;
    for line in list.lines().filter(|l| !l.starts_with('#')) {
        let words: Vec<&str> = line.split_whitespace().collect();
        let [name, layout, variant, ..] = words[..] else {
            panic!("{line}");
        };
        let variant = if variant == "-" { "" } else { variant };
        let ask = ["compile-keymap", "--layout", layout, "--variant", variant];
        let text = xkbcli(&ask).unwrap();
        let shipped = Layout::shipped(name).unwrap();
        let theirs = Layout::read_xkb_text(&text, name, 0)
            .unwrap()
            .on_board(shipped.board());
        for place in Place::WRITING {
            looked_at += 1;
            let ours = (shipped.legend(place), shipped.second_legend(place));
            if ours != (theirs.legend(place), theirs.second_legend(place)) {
                differ.push(format!("{name} {place}"));
            }
        }
        if !matches!(
            name,
            "si" | "si-us" | "gr-extended" | "gr-polytonic" | "th-tis" | "de" | "pl"
        ) {
            continue;
        }
        // How it says that what AltGr types is typed: with the third level's modifier, and Shift.
        for (level, modifiers) in [
            (Level::AltGr, "[ Mod5 ]"),
            (Level::ShiftAltGr, "[ Shift Mod5 ]"),
        ] {
            let typed = Place::WRITING
                .iter()
                .filter_map(|&p| shipped.typed(p, level));
            let mut found = 0;
            for typed in typed.filter(|t| !t.dead).take(9) {
                let code = u32::from(typed.character).to_string();
                let ask = [
                    "how-to-type",
                    "--layout",
                    layout,
                    "--variant",
                    variant,
                    &code,
                ];
                let how = xkbcli(&ask).unwrap();
                // Some characters go by two symbols, and it knows one of them.
                if how.lines().count() > 2 {
                    found += 1;
                    assert!(
                        how.contains(modifiers),
                        "{name}: {} with {level:?}: {how}",
                        typed.character
                    );
                }
            }
            assert!(found > 0, "{name} types nothing with {level:?}");
        }
    }
    assert!(looked_at > 10_000);
    // Another release of the database moves a few characters of a few layouts.
    assert!(differ.len() <= 60, "{} differ: {differ:?}", differ.len());
}
