//! What a developer is told for a mistake in a sheet, one after another on a page that is read.

use std::fmt::Write as _;

use swap_knot_core::Sheet;

/// A name for each mistake, and the sheet that makes it; `##` stands for the end of a line.
const MADE: &str = include_str!("mistakes.txt");

fn page() -> String {
    let mut out = "# Mistakes in a sheet, and what is said of them\n\nMade by the test `mistakes` of `swap-knot-core`; with `SWAP_KNOT_WRITE=1` it is written anew.\n".to_owned();
    for line in MADE.lines() {
        let (name, sheet) = line.split_once(" | ").unwrap();
        let sheet = sheet.replace(" ## ", "\n");
        let said = match Sheet::from_toml(&sheet) {
            Ok(_) => panic!("{name} is no mistake"),
            Err(error) => error.to_string(),
        };
        let _ = write!(
            out,
            "\n## {name}\n\n```toml\n{sheet}\n```\n\n```text\n{said}\n```\n"
        );
    }
    out
}

#[test]
fn the_page_of_mistakes_is_current() {
    crate::common::is_current("mistakes.md", &page());
}

/// Each says where it is, what is wrong, and nothing that reads as written by a machine.
#[test]
fn every_mistake_is_told_as_one_would_tell_it() {
    let page = page();
    for said in page.split("```text\n").skip(1) {
        let said = said.split("\n```").next().unwrap();
        for odd in [
            "a action", "a arm ", "an group", "Some(", "None", "  ", "?;", "??",
        ] {
            let told = said
                .lines()
                .filter(|l| !l.contains(" | ") && !l.trim_start().starts_with('^'));
            assert!(told.into_iter().all(|l| !l.contains(odd)), "{odd}: {said}");
        }
    }
}
