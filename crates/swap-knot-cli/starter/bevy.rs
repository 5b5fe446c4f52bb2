//! A small game with Bevy: a seat as a component, actions asked for in systems. It has no picture
//! yet: keys come as lines such as `KeyW`. With Bevy's `DefaultPlugins` they come from its window.

/// What controls.toml declares: `Action`, `Situation` and `sheet()`. To add an action, add it there.
mod controls {
    swap_knot::controls!("controls.toml");
}

use std::io::BufRead as _;
use std::time::Duration;

use bevy_app::{App, Update};
use bevy_ecs::prelude::{Component, Query};
use bevy_input::InputPlugin;
use controls::{Action, Situation};
use swap_knot::input::Simulated;
use swap_knot::{DeviceId, Layout, Locker, Place, Rig, Seat, Slug};
use swap_knot_bevy::{PlayerSeat, SwapKnotClock, SwapKnotEvent, SwapKnotPlugin};

#[derive(Component, Default)]
struct Sailor {
    at: [f32; 2],
}

fn walk(mut sailors: Query<'_, '_, (&PlayerSeat, &mut Sailor)>) {
    for (seat, mut sailor) in &mut sailors {
        let [x, y] = seat.plane(Action::Walk);
        if [x, y] != [0.0, 0.0] {
            sailor.at = [sailor.at[0] + x, sailor.at[1] + y];
            println!("at {:?}", sailor.at);
        }
    }
}

fn cast_off(seats: Query<'_, '_, &PlayerSeat>) {
    if seats.iter().any(|seat| seat.went_down(Action::CastOff)) {
        println!("Cast off!");
    }
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sheet = controls::sheet();
    // What the player changed, as `swap_knot::Controls` or a screen of yours keeps it.
    let loaded = Locker::open("profiles")?.load(&Slug::from_title("player"));
    let mut seat = Seat::new(Rig::new(&sheet, &loaded.profile, Layout::us()));
    seat.set_situations(&[Situation::Deck]);
    let mut app = App::new();
    app.add_plugins((InputPlugin, SwapKnotPlugin)).add_systems(Update, (walk, cast_off));
    app.world_mut().spawn((PlayerSeat::new(seat), Sailor::default()));
    let mut keyboard = Simulated::new(DeviceId(0));
    println!("keys by where they are, as in: Space");
    for line in std::io::stdin().lock().lines() {
        let Ok(place) = line?.trim().parse::<Place>() else {
            println!("keys are called Space, KeyW, Digit1…");
            continue;
        };
        for event in [keyboard.key(place), keyboard.key_up(place)] {
            keyboard.wait(Duration::from_millis(16));
            app.world_mut().resource_mut::<SwapKnotClock>().set(Some(keyboard.now()));
            app.world_mut().write_message(SwapKnotEvent(event));
            app.update();
        }
    }
    Ok(())
}
