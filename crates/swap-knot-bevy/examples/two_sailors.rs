//! A small game in Bevy, without a window: two sailors walk the deck, coil a rope by holding a key,
//! open a menu over the game, and one of them moves a key in play and keeps it.
//! `cargo run -p swap-knot-bevy --example two_sailors`.

use bevy_app::{App, Update};
use bevy_ecs::prelude::{Component, Entity, IntoScheduleConfigs as _, Query};
use bevy_input::InputPlugin;
use swap_knot::{
    Actions, Bind, DeviceId, Draft, Event, Layout, Locker, Memory, PadButton, Place, Profile, Seat,
    Sheet, Simulated, Situations, Slug, Stick, Time,
};
use swap_knot_bevy::{
    KEYBOARD, PlayerSeat, SwapKnotClock, SwapKnotEvent, SwapKnotPlugin, action_went_down,
};

const SHEET: &str = r#"
    game = "slack-water"
    [situations.deck]
    [situations.menu]
    over = "deck"
    [actions.walk]
    situation = "deck"
    shape = "plane"
    bind = "pad:stick-left"
    up = { bind = "KeyW" }
    right = { bind = "KeyD" }
    [actions.coil]
    title = "Coil the rope"
    situation = "deck"
    manner = "hold"
    hold-after = 0.1
    bind = ["KeyE", "pad:west"]
    [actions.menu]
    bind = ["Tab", "pad:center-right"]
"#;

#[derive(Clone, Copy, Actions)]
enum Do {
    Walk,
    Coil,
    Menu,
}

#[derive(Clone, Copy, Situations)]
enum In {
    Deck,
    Menu,
}

#[derive(Component)]
struct Sailor(&'static str, [f32; 2]);

fn walk(mut sailors: Query<'_, '_, (&PlayerSeat, &mut Sailor)>) {
    for (seat, mut sailor) in &mut sailors {
        let [x, y] = seat.plane(Do::Walk);
        sailor.1 = [sailor.1[0] + x, sailor.1[1] + y];
    }
}

fn coil(sailors: Query<'_, '_, (&PlayerSeat, &Sailor)>) {
    for (_, sailor) in sailors.iter().filter(|(seat, _)| seat.went_down(Do::Coil)) {
        println!("{} coils the rope at {:?}", sailor.0, sailor.1);
    }
}

/// The menu lies over the deck of the player who opens it: what is below is silent meanwhile.
fn menu(mut seats: Query<'_, '_, (&mut PlayerSeat, &Sailor)>) {
    for (mut seat, sailor) in &mut seats {
        if seat.went_down(Do::Menu) {
            let is_open = seat.situations().len() > 1;
            println!(
                "{} {} the menu",
                sailor.0,
                if is_open { "closes" } else { "opens" }
            );
            match is_open {
                true => seat.set_situations(&[In::Deck]),
                false => seat.set_situations(&[In::Deck, In::Menu]),
            }
        }
    }
}

/// Lets so many frames go by, with what devices do in the first of them.
fn frames(app: &mut App, count: u64, events: &[Event]) {
    for n in 0..count {
        let mut clock = app.world_mut().resource_mut::<SwapKnotClock>();
        let at = clock.now().plus(std::time::Duration::from_millis(20));
        clock.set(Some(at));
        for event in events.iter().filter(|_| n == 0) {
            let event = SwapKnotEvent(Event { at, ..*event });
            app.world_mut().write_message(event);
        }
        app.update();
    }
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sheet = Sheet::from_toml(SHEET)?
        .typed::<Do>()?
        .typed_situations::<In>()?;
    let mut draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
    let mut app = App::new();
    app.add_plugins((InputPlugin, SwapKnotPlugin));
    app.add_systems(
        Update,
        (walk, coil, menu.run_if(action_went_down(Do::Menu))).chain(),
    );
    let mut clock = app.world_mut().resource_mut::<SwapKnotClock>();
    clock.set(Some(Time::ZERO));
    let pad = DeviceId(9);
    let [ada, _]: [Entity; 2] = [("Ada", KEYBOARD), ("Bo", pad)].map(|(name, device)| {
        let seat = PlayerSeat::with_devices(Seat::new(draft.rig()), [device]);
        app.world_mut().spawn((seat, Sailor(name, [0.0; 2]))).id()
    });

    let (keys, pad) = (Simulated::new(KEYBOARD), Simulated::new(pad));
    frames(
        &mut app,
        3,
        &[keys.key(Place::KeyW), pad.tilt(Stick::LEFT, [1.0, 0.0])],
    );
    frames(&mut app, 8, &[keys.key(Place::KeyE)]);
    // Bo walks on when the menu closes; nothing of it was played while it was open.
    frames(&mut app, 4, &[pad.press(PadButton::CenterRight)]);
    frames(&mut app, 1, &[pad.release(PadButton::CenterRight)]);
    frames(&mut app, 1, &[pad.press(PadButton::CenterRight)]);
    frames(&mut app, 8, &[pad.press(PadButton::West)]);

    // Ada moves a key in the middle of the game, and walks on.
    let cell = sheet.defaults_of(Do::Coil)[0].cell;
    if let Bind::Asks(question) = draft.bind(cell, Place::KeyG.into())? {
        println!("{}", question.describe(&sheet));
    }
    let rig = draft.apply();
    if let Some(mut seat) = app.world_mut().get_mut::<PlayerSeat>(ada) {
        seat.set_rig(rig);
    }
    frames(&mut app, 8, &[keys.key(Place::KeyG)]);
    let (locker, name) = (Locker::in_store(Memory::new()), Slug::from_title("Ada"));
    locker.save(&name, &draft.profile(), &sheet)?;
    for (cell, chord) in locker.load(&name).profile.changes(&sheet) {
        let title = sheet.row_title(cell.row);
        println!(
            "kept for Ada: {title} on {}",
            chord.map_or("nothing".to_owned(), |c| c.to_string())
        );
    }
    Ok(())
}
