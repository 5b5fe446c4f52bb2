//! A Bevy game without a window: a barge steered by typed actions, messages and a simulated pad.
//! `cargo run -p swap-knot-bevy --example bevy_headless`.

use bevy_app::{App, Update};
use bevy_ecs::message::MessageReader;
use bevy_ecs::prelude::{Component, Query, With};
use bevy_input::InputPlugin;
use swap_knot::input::Simulated;
use swap_knot::play::Edge;
use swap_knot::{
    Actions, DeviceId, Event, Layout, PadButton, Profile, Rig, Seat, Sheet, Stick, Time,
};
use swap_knot_bevy::{ActionHappened, PlayerSeat, SwapKnotClock, SwapKnotEvent, SwapKnotPlugin};

const SHEET: &str = r#"
    game = "slack-water"
    [actions.steer]
    shape = "line"
    left = { bind = ["KeyA", "pad:stick-left.left"] }
    right = { bind = ["KeyD", "pad:stick-left.right"] }
    [actions.horn]
    bind = ["KeyH", "pad:north"]
"#;

#[derive(Clone, Copy, Actions)]
enum Do {
    Steer,
    Horn,
}

#[derive(Component, Default)]
struct Barge {
    heading: f32,
}

/// Values are asked for.
fn steer(mut barges: Query<'_, '_, (&PlayerSeat, &mut Barge)>) {
    for (seat, mut barge) in &mut barges {
        barge.heading += 10.0 * seat.value(Do::Steer);
    }
}

/// What happened comes as messages.
fn hoot(mut happened: MessageReader<'_, '_, ActionHappened>) {
    for message in happened.read() {
        if message.is(Do::Horn) && message.what.edge == Edge::Began {
            println!(
                "hoot at {:.2} s",
                message.what.at.since(Time::ZERO).as_secs_f32()
            );
        }
    }
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sheet = Sheet::from_toml(SHEET)?.typed::<Do>()?;
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
    let mut app = App::new();
    app.add_plugins((InputPlugin, SwapKnotPlugin))
        .add_systems(Update, (steer, hoot));
    app.world_mut()
        .spawn((PlayerSeat::new(Seat::new(rig)), Barge::default()));

    let pad = Simulated::new(DeviceId(9));
    for frame in 0..4_u64 {
        let now = Time::from_millis(frame * 16);
        app.world_mut()
            .resource_mut::<SwapKnotClock>()
            .set(Some(now));
        if frame == 1 {
            let events = [
                pad.press(PadButton::North),
                pad.tilt(Stick::LEFT, [1.0, 0.0]),
            ];
            for event in events {
                app.world_mut()
                    .write_message(SwapKnotEvent(Event { at: now, ..event }));
            }
        }
        app.update();
    }
    let mut barges = app.world_mut().query_filtered::<&Barge, With<PlayerSeat>>();
    for barge in barges.iter(app.world()) {
        println!("heading {:.0} degrees", barge.heading);
    }
    Ok(())
}
