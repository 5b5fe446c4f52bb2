//! Any text is a keymap or an error; a layout made of it names every key.
#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::{Input, Layout, Words};

fuzz_target!(|text: &str| {
    if let Ok(layout) = Layout::read_xkb_text(text, "fuzz", 0) {
        let words = Words::english();
        for input in Input::all_named() {
            assert!(!words.input_name(input, &layout).trim().is_empty());
        }
    }
});
