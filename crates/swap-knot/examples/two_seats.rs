//! Two players at one keyboard, and a third who joins with a pad:
//! `cargo run -p swap-knot --example two_seats`.

use std::time::Duration;

use swap_knot::input::Simulated;
use swap_knot::play::Fed;
use swap_knot::remap::seat_conflicts;
use swap_knot::{DeviceId, Layout, PadButton, Place, Profile, Rig, Seats, Sheet, Stick};

const SHEET: &str = include_str!("../../../demo/slack-water.toml");

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sheet = Sheet::from_toml(SHEET)?;
    let walk = sheet.find("walk").ok_or("the demo walks")?;
    let rig = |preset: Option<&str>| {
        let mut profile = Profile::default();
        profile.set_preset(preset);
        Rig::new(&sheet, &profile, &Layout::us())
    };
    let (skipper, deckhand) = (rig(Some("skipper")), rig(Some("deckhand")));
    // Each preset is for one half of the keyboard: is a key in both players' way?
    let walks = |party: &swap_knot::remap::Party| party.cell.row.action == walk;
    let both = seat_conflicts(&skipper, &deckhand);
    let both = both.iter().filter(|c| walks(&c.first) && walks(&c.second));
    println!("keys that both would walk with: {}", both.count());

    let mut seats = Seats::new();
    let mut add = |rig| seats.add(rig).ok_or("there is room for sixteen");
    let players = [add(skipper)?, add(deckhand)?, add(rig(None))?];
    let (mut keyboard, pad) = (Simulated::new(DeviceId(0)), Simulated::new(DeviceId(1)));
    seats.give(DeviceId(0), &players[..2]);
    seats.wait_for_device(players[2]); // "press any button to join"

    seats.feed(&keyboard.key(Place::KeyW));
    seats.feed(&keyboard.key(Place::ArrowRight));
    if let Fed::Joined(player) = seats.feed(&pad.press(PadButton::South)) {
        println!("player {} joins with a pad", player + 1);
    }
    seats.feed(&pad.tilt(Stick::LEFT, [-1.0, 0.0]));
    keyboard.wait(Duration::from_millis(16));
    seats.tick(keyboard.now());
    for player in players {
        if let Some(seat) = seats.get(player) {
            println!("player {} walks {:?}", player + 1, seat.plane(walk));
        }
    }
    Ok(())
}
