//! Players with all that is theirs, beside seats, and a user interface that has some of the input.

#![allow(clippy::unwrap_used)]

use bevy_app::{App, PreUpdate, Update};
use bevy_ecs::message::Messages;
use bevy_ecs::prelude::{Entity, IntoScheduleConfigs as _, ResMut, Resource};
use bevy_input::InputPlugin;
use swap_knot::input::Platform;
use swap_knot::layout::Resolver;
use swap_knot::play::Happened;
use swap_knot::{
    Actions, Controls, DeviceId, Event, EventKind, Layout, MouseButton, Place, Profile, Rig, Seat,
    Sheet, Time,
};
use swap_knot_bevy::{
    ActionHappened, KEYBOARD, MOUSE, Outcomes, PlayerControls, PlayerDevices, PlayerSeat,
    ScreenViews, SwapKnotClock, SwapKnotEvent, SwapKnotPlugin, SwapKnotSystems, UiTakes,
    action_went_down,
};

#[derive(Clone, Copy, Actions)]
enum Do {
    Horn,
    Coil,
}

const SHEET: &str = r#"
    game = "slack-water"
    [actions.horn]
    bind = ["KeyH", "mouse:right"]
    [actions.coil]
    manner = "hold"
    bind = ["KeyE", "Shift+KeyH"]
"#;

const PAD: DeviceId = DeviceId(7);

fn sheet() -> Sheet {
    Sheet::from_toml(SHEET).unwrap().typed::<Do>().unwrap()
}

fn app() -> App {
    let mut app = App::new();
    app.add_plugins((InputPlugin, SwapKnotPlugin));
    set_time(&mut app, 0);
    app
}

fn set_time(app: &mut App, ms: u64) {
    let mut clock = app.world_mut().resource_mut::<SwapKnotClock>();
    clock.set(Some(Time::from_millis(ms)));
}

fn controls(app: &mut App) -> Entity {
    let controls = Controls::new(&sheet(), Profile::new("Ada"), &Layout::us());
    app.world_mut().spawn(PlayerControls::new(controls)).id()
}

fn player(app: &App, of: Entity) -> &PlayerControls {
    app.world().get::<PlayerControls>(of).unwrap()
}

fn write(app: &mut App, ms: u64, device: DeviceId, what: EventKind) {
    let at = Time::from_millis(ms);
    let event = Event { at, device, what };
    app.world_mut().write_message(SwapKnotEvent(event));
}

fn key(app: &mut App, ms: u64, place: Place, down: bool) {
    let text = None;
    write(app, ms, KEYBOARD, EventKind::Key { place, down, text });
}

fn takes(app: &mut App, keyboard: bool, pointer: bool) {
    *app.world_mut().resource_mut::<UiTakes>() = UiTakes { keyboard, pointer };
}

/// What was told since it was last asked, without who.
fn told(app: &App, of: Entity) -> Vec<Happened> {
    let messages = app.world().resource::<Messages<ActionHappened>>();
    let mut cursor = messages.get_cursor();
    let of = cursor.read(messages).filter(|m| m.player == of);
    of.map(|m| m.what).collect()
}

/// A whole number below another, of a small generator that repeats.
fn below(state: &mut u64, end: u64) -> u64 {
    *state = state
        .wrapping_mul(6_364_136_223_846_793_005)
        .wrapping_add(1);
    (*state >> 33) % end
}

#[test]
fn a_player_with_all_that_is_theirs_plays_as_a_seat_does() {
    let mut state = 5;
    let mut played = 0;
    for _ in 0..90 {
        let mut app = app();
        let whole = controls(&mut app);
        let rig = Rig::new(&sheet(), &Profile::new("Ada"), &Layout::us());
        let alone = app.world_mut().spawn(PlayerSeat::new(Seat::new(rig))).id();
        for frame in 1..40 {
            let now = frame * 100;
            set_time(&mut app, now);
            let (keyboard, pointer) = (below(&mut state, 4) == 0, below(&mut state, 4) == 0);
            takes(&mut app, keyboard, pointer);
            for _ in 0..below(&mut state, 4) {
                let places = [Place::KeyH, Place::KeyE, Place::ShiftLeft];
                let down = below(&mut state, 2) == 0;
                match below(&mut state, 5) {
                    3 => {
                        let button = MouseButton::Right;
                        write(
                            &mut app,
                            now,
                            MOUSE,
                            EventKind::MouseButton { button, down },
                        );
                    }
                    4 => write(&mut app, now, KEYBOARD, EventKind::FocusLost),
                    n => key(&mut app, now, places[usize::try_from(n).unwrap()], down),
                }
            }
            app.update();
            let of_whole = told(&app, whole);
            assert_eq!(of_whole, told(&app, alone));
            played += of_whole.len();
            let alone = app.world().get::<PlayerSeat>(alone).unwrap().fingerprint();
            assert_eq!(player(&app, whole).seat().fingerprint(), alone);
            app.world_mut()
                .resource_mut::<Messages<ActionHappened>>()
                .clear();
        }
    }
    assert!(played > 500, "{played}");
}

#[test]
fn what_the_user_interface_takes_is_not_played_and_what_is_held_still_comes_up() {
    let mut app = app();
    let of = controls(&mut app);
    takes(&mut app, true, false);
    key(&mut app, 0, Place::KeyH, true);
    app.update();
    assert!(!player(&app, of).seat().is_down(Do::Horn), "it is typed");
    key(&mut app, 0, Place::KeyH, false);
    let button = MouseButton::Right;
    let down = true;
    write(&mut app, 0, MOUSE, EventKind::MouseButton { button, down });
    app.update();
    assert!(
        player(&app, of).seat().is_down(Do::Horn),
        "the mouse is free"
    );
    // The pointer comes over a widget meanwhile.
    takes(&mut app, false, true);
    let down = false;
    write(&mut app, 0, MOUSE, EventKind::MouseButton { button, down });
    app.update();
    assert!(player(&app, of).seat().went_up(Do::Horn));
}

#[test]
fn an_open_screen_has_everything_until_it_is_left() {
    let mut app = app();
    let of = controls(&mut app);
    app.update();
    let mut whole = app.world_mut().get_mut::<PlayerControls>(of).unwrap();
    whole.open_screen(Time::ZERO);
    // Also where the game says that its own field has the keyboard.
    takes(&mut app, true, true);
    let shown = |app: &mut App| {
        let mut whole = app.world_mut().get_mut::<PlayerControls>(of).unwrap();
        format!("{:?}", whole.screen_mut().unwrap().view())
    };
    let before = shown(&mut app);
    for down in [true, false] {
        key(&mut app, 0, Place::ArrowDown, down);
    }
    key(&mut app, 0, Place::KeyH, true);
    app.update();
    assert_ne!(shown(&mut app), before, "the screen is worked");
    assert!(!player(&app, of).seat().is_down(Do::Horn));
    key(&mut app, 0, Place::KeyH, false);
    app.update();
    takes(&mut app, false, false);
    for down in [true, false] {
        key(&mut app, 0, Place::Escape, down);
        app.update();
    }
    assert!(player(&app, of).screen().is_none());
    key(&mut app, 0, Place::KeyH, true);
    app.update();
    assert!(player(&app, of).seat().went_down(Do::Horn));
}

#[derive(Default, Resource)]
struct Blown(u32);

#[test]
fn conditions_prompts_devices_and_parting_are_those_of_any_player() {
    let mut app = app();
    app.init_resource::<Blown>();
    let blow = |mut blown: ResMut<'_, Blown>| blown.0 += 1;
    app.add_systems(Update, blow.run_if(action_went_down(Do::Horn)));
    // The game says each frame, before play, what its interface has.
    let say = |mut takes: ResMut<'_, UiTakes>| takes.keyboard = false;
    app.add_systems(PreUpdate, say.before(SwapKnotSystems::Play));
    takes(&mut app, true, false);
    let of = controls(&mut app);
    key(&mut app, 0, Place::KeyH, true);
    app.update();
    app.update();
    assert_eq!(app.world().resource::<Blown>().0, 1);
    // The keyboard goes to somebody else: what is held on it ends.
    let mut whole = app.world_mut().get_mut::<PlayerControls>(of).unwrap();
    assert_eq!(whole.prompt("{do:horn}").unwrap().to_string(), "Press H");
    whole.set_devices(PlayerDevices::Only(vec![MOUSE, PAD]));
    app.update();
    assert!(!player(&app, of).seat().is_down(Do::Horn));
    key(&mut app, 0, Place::KeyH, false);
    key(&mut app, 0, Place::KeyH, true);
    app.update();
    assert_eq!(app.world().resource::<Blown>().0, 1);
    // Who leaves in the middle of something ends it, and that is told.
    let (button, down) = (MouseButton::Right, true);
    write(&mut app, 0, MOUSE, EventKind::MouseButton { button, down });
    app.update();
    app.world_mut()
        .resource_mut::<Messages<ActionHappened>>()
        .clear();
    app.world_mut().despawn(of);
    assert_eq!(told(&app, of).len(), 1);
}

#[test]
fn what_windows_does_with_alt_gr_is_put_right_for_a_seat_alone_too() {
    let mut app = app();
    let sheet = Sheet::from_toml(
        "game = \"slack-water\"\n[actions.horn]\nbind = \"ControlLeft\"\n[actions.coil]\nbind = \"AltRight\"",
    );
    let sheet = sheet.unwrap().typed::<Do>().unwrap();
    let on = Resolver::new(&Layout::shipped("de").unwrap(), Platform::Windows);
    let rig = Rig::new(&sheet, &Profile::default(), on.clone());
    let seat = app.world_mut().spawn(PlayerSeat::new(Seat::new(rig))).id();
    let all = Controls::new(&sheet, Profile::new("Ada"), on);
    let all = app.world_mut().spawn(PlayerControls::new(all)).id();
    let both = [seat, all];
    let [horn, coil] = ["horn", "coil"].map(|name| sheet.find(name).unwrap());
    let frame = |app: &mut App, ms: u64| {
        set_time(app, ms);
        app.update();
        let since = Time::from_millis(ms.saturating_sub(16));
        let new = both.map(|of| {
            let told = told(app, of).into_iter().filter(|h| h.at > since);
            told.map(|h| h.action).collect::<Vec<_>>()
        });
        assert_eq!(new[0], new[1]);
        new[0].clone()
    };
    // AltGr: its Control is nobody's.
    key(&mut app, 10, Place::ControlLeft, true);
    key(&mut app, 10, Place::AltRight, true);
    assert_eq!(frame(&mut app, 16), [coil]);
    key(&mut app, 20, Place::ControlLeft, false);
    key(&mut app, 20, Place::AltRight, false);
    assert_eq!(frame(&mut app, 32), [coil]);
    // A Control alone is not late by a frame.
    key(&mut app, 40, Place::ControlLeft, true);
    assert_eq!(frame(&mut app, 48), [horn]);
    key(&mut app, 50, Place::ControlLeft, false);
    assert_eq!(frame(&mut app, 64), [horn]);
    // One that a text field took when it came is the field's.
    takes(&mut app, true, false);
    key(&mut app, 70, Place::ControlLeft, true);
    assert_eq!(frame(&mut app, 80), []);
}

#[test]
fn outcomes_and_what_a_screen_shows_are_there_for_a_picture() {
    let mut app = app();
    let rig = Rig::new(&sheet(), &Profile::default(), &Layout::us());
    let (ada, seat) = (controls(&mut app), Seat::new(rig));
    let bo = app.world_mut().spawn(PlayerSeat::new(seat)).id();
    key(&mut app, 10, Place::KeyP, true);
    app.update();
    assert!(app.world().get_resource::<Outcomes>().is_none());
    assert!(!player(&app, ada).seat().keeps_outcomes(), "nobody asked");
    app.insert_resource(Outcomes::new(8));
    app.update();
    for (n, place) in [Place::KeyH, Place::KeyP].into_iter().enumerate() {
        key(&mut app, 30 + n as u64, place, true);
        set_time(&mut app, 40 + n as u64);
        app.update();
    }
    let lines = |app: &App, of| app.world().resource::<Outcomes>().of(of).to_vec();
    for who in [ada, bo] {
        let lines = lines(&app, who);
        assert!(lines.contains(&"H: Horn".to_owned()), "{lines:?}");
        assert_eq!(lines.len(), 2, "P was down before: {lines:?}");
    }
    let views = |app: &App| app.world().resource::<ScreenViews>().iter().count();
    assert_eq!(views(&app), 0);
    let mut entity = app.world_mut().get_mut::<PlayerControls>(ada).unwrap();
    entity.open_screen(Time::from_millis(60));
    set_time(&mut app, 60);
    app.update();
    let view = app.world().resource::<ScreenViews>().of(ada).unwrap();
    assert!(view.items().any(|item| item.label == "H"));
    let mut entity = app.world_mut().get_mut::<PlayerControls>(ada).unwrap();
    entity.close_screen();
    set_time(&mut app, 80);
    app.update();
    assert_eq!(views(&app), 0);
    app.insert_resource(Outcomes::new(0));
    app.update();
    assert!(!player(&app, ada).seat().keeps_outcomes());
}
