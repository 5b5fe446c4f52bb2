//! Any text is a prompt or an error with its place; a prompt renders for every device.
#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::{DeviceKind, Layout, Profile, Prompt, Rig, Sheet};

const SHEET: &str = include_str!("../../demo/slack-water.toml");

fuzz_target!(|text: &str| {
    let sheet = Sheet::from_toml(SHEET).expect("the demo sheet reads");
    match Prompt::new(text, &sheet) {
        Ok(mut prompt) => {
            let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
            for device in DeviceKind::ALL {
                let _ = prompt.render(&rig, device).to_string();
            }
        }
        Err(e) => assert!(text.is_char_boundary(e.at())),
    }
});
