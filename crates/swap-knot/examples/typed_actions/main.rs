//! A game loop that reaches its actions by type: a misspelt action does not compile.
//!
//! `controls.rs` is what `swap-knot types demo/slack-water.toml` writes.

/// Written by `swap-knot types`.
pub mod controls;

use std::error::Error;
use std::time::Duration;

use controls::{Action, Situation};
use swap_knot::sheet::Arm;
use swap_knot::{Layout, Profile, Rig, Seat, Sheet, Trace};

const SHEET: &str = include_str!("../../../../demo/slack-water.toml");
const TRACE: &str = include_str!("../../../../demo/traces/cast-off.trace");

fn main() -> Result<(), Box<dyn Error>> {
    // Checked once: from here on every action of the type is in the sheet, and the other way round.
    let sheet = Sheet::from_toml(SHEET)?
        .typed::<Action>()?
        .typed_situations::<Situation>()?;
    let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), &Layout::us()));
    seat.set_situations(&[Situation::Deck]);

    let mut far = [0.0, 0.0];
    seat.replay(
        &TRACE.parse::<Trace>()?,
        Duration::from_millis(10),
        |seat, now| {
            let [x, y] = seat.plane(Action::Walk);
            far = [far[0] + x * 0.01, far[1] + y * 0.01];
            if seat.went_down(Action::CastOff) {
                println!(
                    "{now} s: cast off, {:.2} m to starboard, {:.2} m to the bow",
                    far[0], far[1]
                );
            }
            if seat.went_down((Action::Steer, Arm::Left)) {
                println!(
                    "{now} s: hard to port, throttle at {:.2}",
                    seat.value(Action::Throttle)
                );
            }
            if seat.went_up(Action::Throttle) {
                println!("{now} s: engine stopped");
            }
        },
    )?;
    Ok(())
}
