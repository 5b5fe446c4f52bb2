//! One seat in `Update` and in `FixedUpdate`: each press once in each, at every rate of pictures.

#![allow(clippy::unwrap_used)]

use std::time::Duration;

use bevy_app::{App, FixedUpdate, Update};
use bevy_ecs::prelude::{Query, ResMut, Resource};
use bevy_input::InputPlugin;
use bevy_time::{Fixed, Time, TimePlugin, TimeUpdateStrategy};
use swap_knot::input::Simulated;
use swap_knot::{Actions, Controls, Layout, Place, Profile, Rig, Seat, Sheet};
use swap_knot_bevy::{
    ActionHappened, FixedSteps, KEYBOARD, PlayerControls, PlayerSeat, SwapKnotEvent, SwapKnotPlugin,
};

#[derive(Clone, Copy, Actions)]
enum Do {
    Jump,
}

#[derive(Debug, Default, PartialEq, Resource)]
struct Seen {
    steps: u32,
    in_steps: u32,
    let_go: u32,
    taken: u32,
    frames: u32,
    told: usize,
}

const WITHIN: Duration = Duration::from_millis(150);

fn in_step(
    mut seats: Query<'_, '_, &mut PlayerSeat>,
    mut players: Query<'_, '_, &mut PlayerControls>,
    mut seen: ResMut<'_, Seen>,
) {
    for mut seat in &mut seats {
        seen.steps += 1;
        seen.in_steps += seat.step().presses(Do::Jump);
        seen.let_go += u32::from(seat.step().was_let_go(Do::Jump));
        seen.taken += u32::from(seat.take_press_in_step(Do::Jump, WITHIN));
    }
    for mut player in &mut players {
        seen.steps += 1;
        seen.in_steps += player.step().presses(Do::Jump);
        seen.let_go += u32::from(player.step().was_let_go(Do::Jump));
        seen.taken += u32::from(player.take_press_in_step(Do::Jump, WITHIN));
    }
}

fn in_frame(
    seats: Query<'_, '_, &PlayerSeat>,
    players: Query<'_, '_, &PlayerControls>,
    mut told: bevy_ecs::message::MessageReader<'_, '_, ActionHappened>,
    mut seen: ResMut<'_, Seen>,
) {
    for seat in seats
        .iter()
        .map(|s| &**s)
        .chain(players.iter().map(|p| p.seat()))
    {
        seen.frames += u32::from(seat.went_down(Do::Jump));
    }
    seen.told += told.read().count();
}

/// Ten presses of 40 milliseconds, one every 200, at a rate of pictures and a step of 1/64 second.
fn play(picture: Duration, whole: bool) -> Seen {
    let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.jump]\nbind = \"Space\"")
        .unwrap()
        .typed::<Do>()
        .unwrap();
    let mut app = App::new();
    app.add_plugins((InputPlugin, TimePlugin, SwapKnotPlugin, FixedSteps))
        .insert_resource(TimeUpdateStrategy::ManualDuration(picture))
        .init_resource::<Seen>()
        .add_systems(FixedUpdate, in_step)
        .add_systems(Update, in_frame);
    let (profile, us) = (Profile::default(), Layout::us());
    match whole {
        true => app
            .world_mut()
            .spawn(PlayerControls::new(Controls::new(&sheet, profile, &us))),
        false => app
            .world_mut()
            .spawn(PlayerSeat::new(Seat::new(Rig::new(&sheet, &profile, &us)))),
    };
    let keys = Simulated::new(KEYBOARD);
    let mut all = Vec::new();
    for press in 0..10 {
        for (after, down) in [(0, true), (40, false)] {
            let at = Duration::from_millis(100 + press * 200 + after);
            let mut event = if down {
                keys.key(Place::Space)
            } else {
                keys.key_up(Place::Space)
            };
            event.at = at.into();
            all.push((at, event));
        }
    }
    // The first update starts Bevy's clock and lets no time go by.
    app.update();
    let (mut now, mut next) = (Duration::ZERO, 0);
    while now < Duration::from_millis(2_400) {
        now += picture;
        while next < all.len() && all[next].0 <= now {
            app.world_mut().write_message(SwapKnotEvent(all[next].1));
            next += 1;
        }
        app.update();
    }
    assert!(app.world().resource::<Time<Fixed>>().elapsed() > Duration::from_secs(2));
    app.world_mut().remove_resource::<Seen>().unwrap()
}

#[test]
fn every_press_is_in_one_step_and_in_one_frame() {
    let rates = [4, 16, 33, 140].map(|millis| [(millis, false), (millis, true)]);
    for (millis, whole) in rates.into_iter().flatten() {
        let seen = play(Duration::from_millis(millis), whole);
        assert!(seen.steps > 140, "{seen:?}");
        assert_eq!(
            (seen.in_steps, seen.let_go, seen.taken),
            (10, 10, 10),
            "{millis} ms: {seen:?}"
        );
        assert_eq!((seen.frames, seen.told), (10, 20), "{millis} ms: {seen:?}");
    }
}
