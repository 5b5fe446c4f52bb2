//! The commands that README and guide name exist and work on the demo data.

#![allow(clippy::unwrap_used, clippy::panic)]

use std::process::Command;

const README: &str = include_str!("../../../README.md");

#[test]
fn every_command_of_the_readme_works() {
    let folder = tempfile::tempdir().unwrap();
    let root = concat!(env!("CARGO_MANIFEST_DIR"), "/../..");
    let lines = README.lines().filter_map(|l| l.strip_prefix("swap-knot "));
    let mut run = 0;
    for line in lines {
        let (line, about) = line.split_once('#').unwrap_or((line, ""));
        let line = line.trim();
        // Where something is found that a script should know of, the README says so.
        let wanted = if about.contains("exits with 1") { 1 } else { 0 };
        // Words, with what stands in quotes as one.
        let parts = line.split('"').enumerate();
        let words: Vec<String> = parts
            .flat_map(|(n, part)| match n % 2 {
                1 => vec![part.to_owned()],
                _ => part.split_whitespace().map(str::to_owned).collect(),
            })
            // What is written goes to a folder of the test's own; a starter is tested elsewhere.
            .map(|word| match word.as_str() {
                "ada.toml" | "map.svg" | "card.html" | "harbour" => {
                    folder.path().join(word).display().to_string()
                }
                _ => word,
            })
            .collect();
        let out = Command::new(env!("CARGO_BIN_EXE_swap-knot"))
            .args(&words)
            .current_dir(root)
            .output()
            .unwrap();
        let said = String::from_utf8_lossy(&out.stderr);
        assert_eq!(out.status.code(), Some(wanted), "{line}: {said}");
        run += 1;
    }
    assert!(run >= 10, "{run}");
}

#[test]
fn every_picture_is_there_and_linked() {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/screenshots");
    let mut names: Vec<String> = std::fs::read_dir(folder)
        .unwrap()
        .map(|e| e.unwrap().file_name().into_string().unwrap())
        .collect();
    names.sort();
    assert!(names.len() < 20);
    for name in names {
        assert!(
            README.contains(&format!("docs/screenshots/{name}")),
            "{name}"
        );
    }
}
