//! Words and layout files of a game's own: read or refused, never a panic.

#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::{Input, Layout, Words};

fuzz_target!(|text: &str| {
    if let Ok(words) = Words::english().with_fluent(text, "fuzz.ftl") {
        for input in Input::all_named() {
            let _ = words.spoken_name(input, &Layout::us());
        }
    }
    if let Ok(layout) = Layout::from_toml(text) {
        for letter in 'a'..='z' {
            let _ = layout.place_of(letter);
        }
    }
});
