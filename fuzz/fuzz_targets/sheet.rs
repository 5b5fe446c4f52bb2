//! Any text is a sheet or an error; a sheet makes a rig, a menu and a conflict check.
#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::{Draft, Layout, Profile, Seat, Sheet};

fuzz_target!(|text: &str| {
    if let Ok(sheet) = Sheet::from_toml(text) {
        let draft = Draft::new(&sheet, Profile::default(), Layout::us());
        let rows = draft.rows(&draft.columns());
        assert!(rows.len() <= sheet.actions().len() * 7);
        let _ = draft.conflicts();
        let _ = Seat::new(draft.rig());
    }
});
