//! Situations that follow states, and a clock that follows Bevy's.

#![allow(clippy::unwrap_used)]

use std::time::Duration;

use bevy_app::App;
use bevy_ecs::prelude::Entity;
use bevy_input::InputPlugin;
use bevy_state::app::{AppExtStates as _, StatesPlugin};
use bevy_state::prelude::{NextState, States};
use bevy_time::{Time, TimePlugin, TimeUpdateStrategy, Virtual};
use swap_knot::input::Simulated;
use swap_knot::{Actions, Controls, Layout, Place, Profile, Rig, Seat, Sheet, Situations};
use swap_knot_bevy::{
    FollowStates as _, FollowVirtualTime, KEYBOARD, PlayerControls, PlayerSeat, SwapKnotEvent,
    SwapKnotPlugin,
};

#[derive(Clone, Copy, Actions)]
enum Do {
    Coil,
}

#[derive(Clone, Copy, Situations)]
enum In {
    Deck,
    Pause,
}

#[derive(States, Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
enum Game {
    #[default]
    Playing,
    Paused,
}

const SHEET: &str = r#"
    game = "slack-water"
    [situations.deck]
    [situations.pause]
    over = "deck"
    [actions.coil]
    situation = "deck"
    manner = "hold"
    hold-after = 0.5
    bind = "KeyE"
"#;

fn seat() -> PlayerSeat {
    let sheet = Sheet::from_toml(SHEET).unwrap().typed::<Do>().unwrap();
    let sheet = sheet.typed_situations::<In>().unwrap();
    PlayerSeat::new(Seat::new(Rig::new(
        &sheet,
        &Profile::default(),
        &Layout::us(),
    )))
}

fn live(app: &App, player: Entity) -> usize {
    let seat = app.world().get::<PlayerSeat>(player).unwrap();
    seat.situations().len()
}

#[test]
fn situations_follow_the_state_of_the_game() {
    let mut app = App::new();
    app.add_plugins((InputPlugin, StatesPlugin, SwapKnotPlugin))
        .init_state::<Game>()
        .follow_states(|game: &Game| match game {
            Game::Playing => vec![In::Deck],
            Game::Paused => vec![In::Deck, In::Pause],
        });
    let ada = app.world_mut().spawn(seat()).id();
    app.update();
    assert_eq!(live(&app, ada), 1);
    let mut next = app.world_mut().resource_mut::<NextState<Game>>();
    next.set(Game::Paused);
    app.update();
    assert_eq!(live(&app, ada), 2);
    // Who comes in the middle of a pause is in it as well.
    let bo = app.world_mut().spawn(seat()).id();
    app.update();
    assert_eq!(live(&app, bo), 2);
    let controls = Controls::new(seat().rig().sheet(), Profile::default(), &Layout::us());
    let cy = app.world_mut().spawn(PlayerControls::new(controls)).id();
    app.update();
    let whole = app.world().get::<PlayerControls>(cy).unwrap();
    assert_eq!(whole.seat().situations().len(), 2);
    // A game that sets them by hand is not overruled until the state changes.
    let mut own = app.world_mut().get_mut::<PlayerSeat>(ada).unwrap();
    own.set_situations(&[In::Deck]);
    app.update();
    assert_eq!(live(&app, ada), 1);
}

#[test]
fn a_hold_stands_still_while_the_game_does() {
    let mut app = App::new();
    app.add_plugins((InputPlugin, TimePlugin, SwapKnotPlugin, FollowVirtualTime));
    let step = Duration::from_millis(100);
    app.insert_resource(TimeUpdateStrategy::ManualDuration(step));
    let player = app.world_mut().spawn(seat()).id();
    app.update();
    let keys = Simulated::new(KEYBOARD);
    app.world_mut()
        .write_message(SwapKnotEvent(keys.key(Place::KeyE)));
    (0..3).for_each(|_| app.update());
    app.world_mut().resource_mut::<Time<Virtual>>().pause();
    (0..20).for_each(|_| app.update());
    let coils = |app: &App| {
        app.world()
            .get::<PlayerSeat>(player)
            .unwrap()
            .is_down(Do::Coil)
    };
    assert!(!coils(&app));
    app.world_mut().resource_mut::<Time<Virtual>>().unpause();
    (0..6).for_each(|_| app.update());
    assert!(coils(&app));
}
