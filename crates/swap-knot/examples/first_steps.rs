//! Declare, play and prompt in forty lines: `cargo run -p swap-knot --example first_steps`.

use std::time::Duration;

use swap_knot::input::Simulated;
use swap_knot::{Actions, DeviceId, Layout, PadButton, Place, Profile, Prompt, Rig, Seat, Sheet};

/// Usually a file of its own beside the game's other data.
const SHEET: &str = r#"
    game = "slack-water"
    [actions.cast-off]
    title = "Cast off"
    bind = ["Space", "pad:south"]
    [actions.lantern]
    toggle = true
    bind = ["KeyF", "pad:up"]
"#;

#[derive(Clone, Copy, Actions)]
enum Do {
    CastOff,
    Lantern,
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sheet = Sheet::from_toml(SHEET)?.typed::<Do>()?;
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
    let mut seat = Seat::new(rig);
    let mut prompt = Prompt::new("{do:cast-off} to leave", &sheet)?;
    println!("{}", prompt.render(seat.rig(), seat.device_kind()));

    // Real events come from an adapter; here a player who is not there presses them.
    let (keyboard, mut pad) = (Simulated::new(DeviceId(0)), Simulated::new(DeviceId(1)));
    seat.feed(&keyboard.key(Place::KeyF));
    seat.feed(&pad.press(PadButton::South));
    pad.wait(Duration::from_millis(16));
    seat.tick(pad.now()); // once a frame

    if seat.went_down(Do::CastOff) {
        println!(
            "cast off, lantern {}",
            if seat.is_down(Do::Lantern) {
                "lit"
            } else {
                "out"
            }
        );
    }
    println!("{}", prompt.render(seat.rig(), seat.device_kind()));
    Ok(())
}
