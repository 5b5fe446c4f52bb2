//! Any text is a file of what was taught of controllers or an error with places; what is read is written
//! and read again as the same.
#![no_main]

use libfuzzer_sys::fuzz_target;
use swap_knot::input::Mappings;

fuzz_target!(|text: &str| {
    if let Ok(mappings) = Mappings::from_toml(text, "mappings") {
        let again = Mappings::from_toml(&mappings.to_toml(), "mappings");
        assert_eq!(again.expect("what is written is read"), mappings);
    }
});
