//! Any text is a trace or an error; a trace is written and read without loss, and plays.
#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::play::TraceEntry;
use swap_knot::{Layout, Profile, Rig, Seat, Sheet, Trace};

const SHEET: &str = include_str!("../../demo/slack-water.toml");

fuzz_target!(|text: &str| {
    if let Ok(trace) = text.parse::<Trace>() {
        let again: Trace = trace.to_string().parse().expect("what was written reads");
        assert_eq!(again, trace);
        let sheet = Sheet::from_toml(SHEET).expect("the demo sheet reads");
        let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), &Layout::us()));
        for entry in trace.entries() {
            if let TraceEntry::Event(event) = entry {
                seat.feed(event);
                seat.tick(event.at);
            }
        }
    }
});
