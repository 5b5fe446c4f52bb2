//! Any text is a file of marks or an error with places; whatever is read names every part of a pad.
#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::prompt::Marks;
use swap_knot::{Layout, PadButton, Sheet, Words};

const SHEET: &str = include_str!("../../demo/slack-water.toml");

fuzz_target!(|text: &str| {
    let Ok(marks) = Marks::from_toml(text, "marks.toml") else {
        return;
    };
    let sheet = Sheet::from_toml(SHEET).expect("the demo sheet reads");
    let _ = marks.check(&sheet);
    for family in marks.families() {
        let words = Words::english().with_marks(&marks, Some(family.name()));
        for button in PadButton::ALL {
            let name = words.input_name((*button).into(), &Layout::us());
            assert!(!name.trim().is_empty());
        }
    }
});
