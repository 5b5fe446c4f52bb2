//! A small game in Bevy, without a window: two sailors walk the deck, coil a rope by holding a key,
//! open a menu over the game, and one of them moves a key in play and keeps it.
//! `cargo run -p swap-knot-bevy --example two_sailors`.

mod hands;

use bevy_app::{App, FixedUpdate, Update};
use bevy_ecs::prelude::{Component, Entity, IntoScheduleConfigs as _, Query};
use bevy_input::InputPlugin;
use bevy_time::{Fixed, Time, TimePlugin};
use swap_knot::keep::Memory;
use swap_knot::{
    Actions, Bind, Chord, Draft, Layout, Locker, Place, Rig, Seat, Sheet, Situations, Slug,
};
use swap_knot_bevy::{
    FixedSteps, KEYBOARD, Outcomes, PlayerSeat, SwapKnotPlugin, action_went_down,
};

type Done<T = ()> = Result<T, Box<dyn std::error::Error>>;

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
struct Sailor {
    name: &'static str,
    at: [f32; 2],
}

/// Steps of the deck's own rhythm, whatever that of the picture is.
fn walk(mut sailors: Query<'_, '_, (&PlayerSeat, &mut Sailor)>) {
    for (seat, mut sailor) in &mut sailors {
        let [x, y] = seat.step().plane(Do::Walk);
        sailor.at = [sailor.at[0] + x, sailor.at[1] + y];
    }
}

fn coil(sailors: Query<'_, '_, (&PlayerSeat, &Sailor)>) {
    for (_, sailor) in sailors.iter().filter(|(seat, _)| seat.went_down(Do::Coil)) {
        println!("{} coils the rope at {:?}", sailor.name, sailor.at);
    }
}

/// The menu lies over the deck of the player who opens it: what is below is silent meanwhile.
fn menu(mut seats: Query<'_, '_, (&mut PlayerSeat, &Sailor)>) {
    for (mut seat, sailor) in &mut seats {
        if seat.went_down(Do::Menu) {
            let is_open = seat.situations().len() > 1;
            let what = if is_open { "closes" } else { "opens" };
            println!("{} {what} the menu", sailor.name);
            match is_open {
                true => seat.set_situations(&[In::Deck]),
                false => seat.set_situations(&[In::Deck, In::Menu]),
            }
        }
    }
}

/// Moves coiling to another key in the middle of the game, and keeps that.
fn move_coil(app: &mut App, sailor: Entity, to: Chord, locker: &Locker, name: &Slug) -> Done {
    let Some(mut seat) = app.world_mut().get_mut::<PlayerSeat>(sailor) else {
        return Ok(());
    };
    let sheet = seat.rig().sheet().clone();
    let mut draft = Draft::new(&sheet, locker.load(name).profile, &Layout::us());
    if let Bind::Asks(question) = draft.bind(sheet.defaults_of(Do::Coil)[0].cell, to)? {
        println!("{}", question.describe(&sheet));
    }
    seat.set_rig(draft.apply());
    Ok(locker.save(name, &draft.profile(), &sheet)?)
}

fn main() -> Done {
    let sheet = Sheet::from_toml(include_str!("controls.toml"))?;
    let sheet = sheet.typed::<Do>()?.typed_situations::<In>()?;
    let (locker, ada) = (Locker::in_store(Memory::new()), Slug::from_title("Ada"));
    let mut app = App::new();
    app.add_plugins((InputPlugin, TimePlugin, SwapKnotPlugin, FixedSteps));
    app.insert_resource(Time::<Fixed>::from_hz(50.0));
    app.insert_resource(Outcomes::new(32));
    app.add_systems(FixedUpdate, walk);
    let systems = (coil, menu.run_if(action_went_down(Do::Menu)));
    app.add_systems(Update, systems.chain());
    let [first, second] = [("Ada", KEYBOARD), ("Bo", hands::PAD)].map(|(name, device)| {
        let profile = locker.load(&Slug::from_title(name)).profile;
        let seat = Seat::new(Rig::new(&sheet, &profile, &Layout::us()));
        let (seat, at) = (PlayerSeat::with_devices(seat, [device]), [0.0; 2]);
        app.world_mut().spawn((seat, Sailor { name, at })).id()
    });
    hands::play(&mut app);
    // Bo pressed something while the menu lay over the deck.
    for line in app.world().resource::<Outcomes>().of(second) {
        println!("Bo: {line}");
    }
    move_coil(&mut app, first, Place::KeyG.into(), &locker, &ada)?;
    hands::coil_with(&mut app, Place::KeyG);
    for (cell, chord) in locker.load(&ada).profile.changes(&sheet) {
        let (title, on) = (sheet.row_title(cell.row), chord.map(|c| c.to_string()));
        println!(
            "kept for Ada: {title} on {}",
            on.as_deref().unwrap_or("nothing")
        );
    }
    Ok(())
}
