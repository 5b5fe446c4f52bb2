//! Sheets as assets, read again when their file is saved; and what Bevy's registry knows.

#![allow(clippy::unwrap_used)]

use std::path::Path;

use bevy_app::App;
use bevy_asset::{AssetLoadFailedEvent, AssetPlugin, AssetServer, Handle, UnapprovedPathMode};
use bevy_ecs::prelude::{AppTypeRegistry, Entity, Messages, ReflectComponent};
use bevy_input::InputPlugin;
use swap_knot::input::Simulated;
use swap_knot::{Actions, Controls, Event, Layout, Place, Profile, Rig, Seat, Sheet};
use swap_knot_bevy::{
    FollowSheet, KEYBOARD, PlayerControls, PlayerSeat, SheetAsset, SheetAssets, SwapKnotEvent,
    SwapKnotPlugin,
};

#[derive(Clone, Copy, Actions)]
enum Do {
    Walk,
    Horn,
}

fn text(walk: &str, horn: &str) -> String {
    format!(
        "game = \"slack-water\"\n[actions.walk]\nbind = \"{walk}\"\n[actions.horn]\nbind = \"{horn}\"\n"
    )
}

fn rig(text: &str) -> Rig {
    let sheet = Sheet::from_toml(text).unwrap().typed::<Do>().unwrap();
    Rig::new(&sheet, &Profile::default(), &Layout::us())
}

fn app(folder: &Path) -> (App, Handle<SheetAsset>) {
    let mut app = App::new();
    app.add_plugins((
        bevy_app::TaskPoolPlugin::default(),
        AssetPlugin {
            file_path: folder.to_str().unwrap().to_owned(),
            watch_for_changes_override: Some(true),
            unapproved_path_mode: UnapprovedPathMode::Allow,
            ..AssetPlugin::default()
        },
        InputPlugin,
        SwapKnotPlugin,
        SheetAssets::default().typed::<Do>(),
    ));
    let handle = app.world().resource::<AssetServer>().load("controls.toml");
    (app, handle)
}

/// Updates until it is so.
#[track_caller]
fn until(app: &mut App, mut is_so: impl FnMut(&mut App) -> bool) {
    patience::wait_for("the sheet that was saved", || {
        app.update();
        match is_so(app) {
            true => Ok(()),
            false => Err("another one".to_owned()),
        }
    });
}

fn seat(app: &App, player: Entity) -> Option<&PlayerSeat> {
    app.world().get::<PlayerSeat>(player)
}

/// What the horn is on.
fn horn(app: &App, player: Entity) -> String {
    let rig = seat(app, player).unwrap().rig();
    let row = rig.sheet().row_of(Do::Horn).unwrap();
    let bound = rig.bindings_of(row).iter();
    bound.map(|b| b.chord.to_string()).collect()
}

fn feed(app: &mut App, event: Event) {
    app.world_mut().write_message(SwapKnotEvent(event));
    app.update();
}

#[test]
fn a_saved_sheet_is_played_at_once_and_a_mistake_leaves_the_old_one() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("controls.toml");
    let first = text("KeyW", "KeyH");
    std::fs::write(&file, &first).unwrap();
    let (mut app, sheet) = app(folder.path());
    let follow = FollowSheet {
        sheet,
        profile: Profile::default(),
        layout: Layout::us(),
    };
    // Ada plays from the first frame by what was compiled in; Bo as soon as the sheet is there.
    let compiled_in = PlayerSeat::new(Seat::new(rig(&first)));
    let ada = app.world_mut().spawn((compiled_in, follow.clone())).id();
    let bo = app.world_mut().spawn(follow.clone()).id();
    // Cy has a profile and a layout as well, and follows the sheet with them.
    let sheet = rig(&first).sheet().clone();
    let whole = Controls::new(&sheet, Profile::new("Cy"), &Layout::us());
    let cy = app
        .world_mut()
        .spawn((PlayerControls::new(whole), follow))
        .id();
    let cys = |app: &mut App| {
        let mut cy = app.world_mut().get_mut::<PlayerControls>(cy).unwrap();
        cy.prompt("{horn}").unwrap().to_string()
    };
    until(&mut app, |app| seat(app, bo).is_some());

    let keys = Simulated::new(KEYBOARD);
    feed(&mut app, keys.key(Place::KeyW));
    assert!(seat(&app, ada).unwrap().went_down(Do::Walk));

    std::fs::write(&file, text("KeyW", "KeyJ")).unwrap();
    let plays = |app: &App, player| horn(app, player) == "KeyJ";
    // What is bound as before goes on without an edge.
    let mut ended = false;
    until(&mut app, |app| {
        ended |= !seat(app, ada).unwrap().is_down(Do::Walk);
        plays(app, ada) && plays(app, bo)
    });
    assert!(!ended);
    assert_eq!(cys(&mut app), "J");
    feed(&mut app, keys.key(Place::KeyJ));
    assert!(seat(&app, ada).unwrap().went_down(Do::Horn));

    // A name that no input has, and an action that the game's type lacks: neither is played.
    for wrong in [
        text("KeyWW", "KeyJ"),
        text("KeyW", "KeyJ") + "[actions.anchor]\n",
    ] {
        std::fs::write(&file, wrong).unwrap();
        // Bevy says that it could not be loaded; a frame later, that has been heard of.
        until(&mut app, |app| {
            let mut failed =
                (app.world_mut()).resource_mut::<Messages<AssetLoadFailedEvent<SheetAsset>>>();
            failed.drain().count() > 0
        });
        app.update();
        assert!(plays(&app, ada) && plays(&app, bo));
    }
    std::fs::write(&file, &first).unwrap();
    until(&mut app, |app| horn(app, ada) == "KeyH");
}

#[test]
fn a_profile_that_is_set_is_played_at_once() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("controls.toml");
    std::fs::write(&file, text("KeyW", "KeyH")).unwrap();
    let (mut app, sheet) = app(folder.path());
    let (profile, layout) = (Profile::default(), Layout::us());
    let follow = FollowSheet {
        sheet,
        profile,
        layout,
    };
    let ada = app.world_mut().spawn(follow).id();
    until(&mut app, |app| seat(app, ada).is_some());
    let sheet = seat(&app, ada).unwrap().rig().sheet().clone();
    let mut profile = Profile::default();
    let cell = sheet.defaults_of(Do::Horn)[0].cell;
    profile.set(&sheet, cell, Some(Place::KeyG.into()));
    app.world_mut().get_mut::<FollowSheet>(ada).unwrap().profile = profile;
    feed(&mut app, Simulated::new(KEYBOARD).key(Place::KeyG));
    assert!(seat(&app, ada).unwrap().went_down(Do::Horn));
}

#[test]
fn the_registry_knows_what_the_plugin_brings() {
    let mut app = App::new();
    app.add_plugins((InputPlugin, SwapKnotPlugin));
    let ada = PlayerSeat::new(Seat::new(rig(&text("KeyW", "KeyH"))));
    let ada = app.world_mut().spawn(ada).id();
    let registry = app.world().resource::<AppTypeRegistry>().read();
    let paths = [
        "PlayerSeat",
        "SwapKnotClock",
        "SwapKnotEvent",
        "ActionHappened",
        "DeviceKindChanged",
    ];
    assert_eq!(
        paths.map(|name| registry.get_with_short_type_path(name).is_some()),
        [true; 5]
    );
    let player = registry.get_with_short_type_path("PlayerSeat").unwrap();
    let component = player.data::<ReflectComponent>().unwrap();
    let reflected = component.reflect(app.world().entity(ada)).unwrap();
    assert!(format!("{reflected:?}").contains("slack-water"));
}
