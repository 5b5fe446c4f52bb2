//! Any text is a profile or an error; a profile is written and read without loss, and plays.
#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::remap::CarriedOver;
use swap_knot::{Layout, Profile, Rig, Sheet};

const SHEET: &str = include_str!("../../demo/slack-water.toml");

fuzz_target!(|text: &str| {
    if let Ok(profile) = Profile::from_toml(text) {
        let written = profile.to_toml();
        let read = Profile::from_toml(&written).expect("what was written reads");
        assert_eq!(read.to_toml(), written);
        let sheet = Sheet::from_toml(SHEET).expect("the demo sheet reads");
        let carried = CarriedOver::new(&sheet, &profile, Layout::us()).profile;
        let _ = Rig::new(&sheet, &carried, Layout::us());
    }
});
