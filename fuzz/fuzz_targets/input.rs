//! Any text is a chord or an error that points into it; a chord reads back as itself.
#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::Chord;

fuzz_target!(|text: &str| {
    match text.parse::<Chord>() {
        Ok(chord) => assert_eq!(chord.to_string().parse::<Chord>(), Ok(chord)),
        Err(e) => assert!(text.get(e.span()).is_some()),
    }
});
