//! Any bytes are a saved state or an error; what is read is restored, and written and read again as the
//! same.
#![no_main]

use std::sync::LazyLock;

use libfuzzer_sys::fuzz_target;
use swap_knot::play::SavedSeat;
use swap_knot::{Layout, Profile, Rig, Seat, Sheet, Time};

const SHEET: &str = include_str!("../../demo/slack-water.toml");

static RIG: LazyLock<Rig> = LazyLock::new(|| {
    let sheet = Sheet::from_toml(SHEET).expect("the demo sheet reads");
    Rig::new(&sheet, &Profile::default(), &Layout::us())
});

fuzz_target!(|bytes: &[u8]| {
    let Ok(saved) = SavedSeat::read(bytes, &RIG) else {
        return;
    };
    let mut written = Vec::new();
    saved.write(&mut written);
    let again = SavedSeat::read(&written, &RIG).expect("what is written is read");
    let mut rewritten = Vec::new();
    again.write(&mut rewritten);
    assert_eq!(rewritten, written);
    let mut seat = Seat::new(RIG.clone());
    seat.restore(&saved).expect("it is of this rig");
    for ms in [1, 500, 20_000] {
        seat.tick(Time::from_millis(ms));
    }
});
