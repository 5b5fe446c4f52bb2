//! The shipped tables against the keyboard database of this machine.

#![allow(clippy::unwrap_used)]

use std::process::Command;

#[test]
fn the_shipped_layouts_agree_with_the_database() {
    if !std::path::Path::new("/usr/share/X11/xkb/symbols").exists() {
        eprintln!("skipped: no XKB keyboard database on this machine");
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
