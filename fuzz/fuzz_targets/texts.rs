//! Any text is a game's own texts or an error with places; each of them is a prompt or an error.
#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::{Controls, Layout, Profile, Sheet, Words};

const SHEET: &str = include_str!("../../demo/slack-water.toml");

fuzz_target!(|text: &str| {
    let Ok(words) = Words::english().with_texts(text, "fuzz.ftl") else {
        return;
    };
    let sheet = Sheet::from_toml(SHEET).expect("the demo sheet reads");
    let mut controls = Controls::new(&sheet, Profile::default(), &Layout::us());
    controls.set_words(&words);
    for id in text.lines().filter_map(|line| line.split_once('=')) {
        let _ = controls.prompt_of(id.0.trim());
    }
    for (id, _) in sheet.actions() {
        let _ = words.row_title(&sheet, id.into());
    }
});
