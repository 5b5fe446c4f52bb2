//! Any manifest is one of a pack of glyphs or an error; whatever it names, nothing is read from outside of
//! its folder, and the check ends.
#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::Sheet;
use swap_knot_draw::Pack;

const SHEET: &str = include_str!("../../demo/slack-water.toml");

fuzz_target!(|text: &str| {
    let folder = tempfile::tempdir().expect("a folder for the pack");
    let write = std::fs::write(folder.path().join("glyphs.toml"), text);
    write.expect("the manifest is written");
    if let Ok(pack) = Pack::open(folder.path()) {
        let sheet = Sheet::from_toml(SHEET).expect("the demo sheet reads");
        let _ = pack.check(&sheet);
    }
});
