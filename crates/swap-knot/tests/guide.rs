//! The blocks of the guide that are not Rust: sheets, read as a game would.

#![allow(missing_docs, clippy::unwrap_used, clippy::panic)]

use swap_knot::Sheet;

#[test]
fn every_sheet_in_the_guide_is_sound() {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/docs/guide");
    let mut read = 0;
    for entry in std::fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        let text = std::fs::read_to_string(&path).unwrap();
        for block in text.split("```toml\n").skip(1) {
            let sheet = block.split("```").next().unwrap();
            Sheet::from_toml(sheet).unwrap_or_else(|e| panic!("{}: {e}", path.display()));
            read += 1;
        }
    }
    assert!(read > 0);
}
