//! A Bevy app without a window, played by Bevy's own messages.

#![allow(clippy::unwrap_used, clippy::panic)]

use bevy_app::{App, PreUpdate, Update};
use bevy_ecs::message::{Message, Messages};
use bevy_ecs::prelude::{
    Changed, Entity, IntoScheduleConfigs as _, Mut, Query, Res, ResMut, Resource,
};
use bevy_input::gamepad::{
    GamepadAxis, GamepadButton, GamepadConnection, GamepadConnectionEvent,
    RawGamepadAxisChangedEvent, RawGamepadButtonChangedEvent, RawGamepadEvent,
};
use bevy_input::keyboard::{Key, KeyCode, KeyboardFocusLost, KeyboardInput};
use bevy_input::mouse::{
    MouseButton as Theirs, MouseButtonInput, MouseMotion, MouseScrollUnit, MouseWheel,
};
use bevy_input::touch::{TouchInput, TouchPhase};
use bevy_input::{ButtonState, InputPlugin};
use bevy_window::{CursorMoved, WindowEvent, WindowResized};
use swap_knot::input::{HidAxis, HidButton, Simulated};
use swap_knot::play::Edge;
use swap_knot::{
    Actions, DeviceId, DeviceKind, EventKind, Layout, MouseButton, PadButton, Place, Profile, Rig,
    Seat, Sheet, Stick, Time,
};
use swap_knot_bevy::{
    ActionHappened, DeviceKindChanged, KEYBOARD, MOUSE, PlayerDevices, PlayerSeat, SwapKnotClock,
    SwapKnotDevices, SwapKnotEvent, SwapKnotPlugin, SwapKnotSystems, mouse_button, pad_button,
    place,
};

/// Legacy keys that the W3C's `code` values leave out, and what Bevy itself cannot name.
const LEFT_OUT: [&str; 4] = ["Meta", "Hyper", "Turbo", "Unidentified"];

#[derive(Clone, Copy, Debug, Actions)]
enum Do {
    Walk,
    Horn,
    Coil,
}

const SHEET: &str = r#"
    game = "slack-water"
    [situations.deck]
    [situations.helm]
    [actions.walk]
    shape = "plane"
    situation = "deck"
    bind = "pad:stick-left"
    up = { bind = "KeyW" }
    left = { bind = "KeyA" }
    down = { bind = "KeyS" }
    right = { bind = "KeyD" }
    [actions.horn]
    bind = ["KeyH", "mouse:right", "pad:north", "touch:horn", "wheel:up"]
    [actions.coil]
    situation = "deck"
    manner = "hold"
    bind = "KeyE"
"#;

fn rig() -> Rig {
    let sheet = Sheet::from_toml(SHEET).unwrap().typed::<Do>().unwrap();
    Rig::new(&sheet, &Profile::default(), &Layout::us())
}

fn app() -> App {
    let mut app = App::new();
    app.add_plugins((InputPlugin, SwapKnotPlugin));
    app.world_mut()
        .resource_mut::<SwapKnotClock>()
        .set(Some(Time::ZERO));
    app
}

fn player(app: &mut App) -> Entity {
    app.world_mut()
        .spawn(PlayerSeat::new(Seat::new(rig())))
        .id()
}

fn write(app: &mut App, message: impl Message) {
    app.world_mut().write_message(message);
}

fn key(key_code: KeyCode, state: ButtonState) -> KeyboardInput {
    KeyboardInput {
        key_code,
        logical_key: Key::Character("h".into()),
        state,
        text: None,
        repeat: false,
        window: Entity::PLACEHOLDER,
    }
}

fn seat_of(app: &App, player: Entity) -> &PlayerSeat {
    app.world().get::<PlayerSeat>(player).unwrap()
}

fn devices(app: &mut App) -> Mut<'_, SwapKnotDevices> {
    app.world_mut().resource_mut::<SwapKnotDevices>()
}

fn connect(gamepad: Entity, connection: GamepadConnection) -> RawGamepadEvent {
    RawGamepadEvent::Connection(GamepadConnectionEvent::new(gamepad, connection))
}

fn connected() -> GamepadConnection {
    GamepadConnection::Connected {
        name: "Quayside".to_owned(),
        vendor_id: Some(0x1209),
        product_id: Some(1),
    }
}

fn axis(gamepad: Entity, axis: GamepadAxis, value: f32) -> RawGamepadEvent {
    RawGamepadEvent::Axis(RawGamepadAxisChangedEvent::new(gamepad, axis, value))
}

fn button(gamepad: Entity, button: GamepadButton, value: f32) -> RawGamepadEvent {
    RawGamepadEvent::Button(RawGamepadButtonChangedEvent::new(gamepad, button, value))
}

fn click(button: Theirs, state: ButtonState) -> MouseButtonInput {
    let window = Entity::PLACEHOLDER;
    MouseButtonInput {
        button,
        state,
        window,
    }
}

/// Every event of the last update as Swap Knot saw it.
fn events(app: &mut App) -> Vec<EventKind> {
    let mut messages = app.world_mut().resource_mut::<Messages<SwapKnotEvent>>();
    messages.drain().map(|e| e.0.what).collect()
}

#[test]
fn every_key_is_translated_or_left_out_by_name() {
    let wrong = serde_json::from_value::<KeyCode>("?".into())
        .unwrap_err()
        .to_string();
    let names: Vec<&str> = wrong.split('`').skip(3).step_by(2).collect();
    assert!(names.len() > 180, "{wrong}");
    for name in names {
        let Ok(code) = serde_json::from_value::<KeyCode>(name.into()) else {
            assert_eq!(name, "Unidentified");
            continue;
        };
        let ours = match name {
            "SuperLeft" => "MetaLeft",
            "SuperRight" => "MetaRight",
            same => same,
        };
        match place(code) {
            Some(place) => assert_eq!(place.to_string(), ours),
            None => assert!(LEFT_OUT.contains(&name), "{name} is lost"),
        }
    }
}

#[test]
fn keys_and_mouse_come_in() {
    let mut app = app();
    let player = player(&mut app);
    write(&mut app, key(KeyCode::KeyH, ButtonState::Pressed));
    let repeat = KeyboardInput {
        repeat: true,
        ..key(KeyCode::KeyH, ButtonState::Pressed)
    };
    write(&mut app, repeat);
    app.update();
    let text = Some('h');
    assert_eq!(
        events(&mut app),
        [EventKind::Key {
            place: Place::KeyH,
            down: true,
            text
        }]
    );
    let seat = |app: &App| seat_of(app, player).clone();
    assert!(seat(&app).went_down(Do::Horn));
    app.update();
    assert!(!seat(&app).went_down(Do::Horn) && seat(&app).is_down(Do::Horn));
    // A lost focus ends it, once.
    write(&mut app, KeyboardFocusLost);
    app.update();
    assert!(seat(&app).went_up(Do::Horn));
    let up = EventKind::Key {
        place: Place::KeyH,
        down: false,
        text: None,
    };
    let lost = EventKind::FocusLost;
    assert_eq!(events(&mut app), [lost, lost, lost, up]);

    let window = Entity::PLACEHOLDER;
    write(&mut app, click(Theirs::Right, ButtonState::Pressed));
    write(
        &mut app,
        MouseMotion {
            delta: [3.0, 4.0].into(),
        },
    );
    let (unit, phase) = (MouseScrollUnit::Pixel, TouchPhase::Moved);
    write(
        &mut app,
        MouseWheel {
            unit,
            x: 0.0,
            y: 100.0,
            window,
            phase,
        },
    );
    app.update();
    let turned = EventKind::Scroll { x: 0.0, y: 2.5 };
    let expected = [
        EventKind::MouseButton {
            button: MouseButton::Right,
            down: true,
        },
        EventKind::MouseMove { x: 3.0, y: -4.0 },
        turned,
    ];
    assert_eq!(events(&mut app), expected);
    assert!(seat(&app).is_down(Do::Horn));
    for (theirs, ours) in [
        (Theirs::Left, Some(MouseButton::Left)),
        (Theirs::Middle, Some(MouseButton::Middle)),
        (Theirs::Back, Some(MouseButton::Back)),
        (Theirs::Forward, Some(MouseButton::Forward)),
        (Theirs::Other(900), None),
    ] {
        assert_eq!(mouse_button(theirs), ours);
    }
}

#[test]
fn pads_come_go_and_have_families() {
    let mut app = app();
    let player = player(&mut app);
    let gamepad = app.world_mut().spawn_empty().id();
    write(&mut app, connect(gamepad, connected()));
    write(&mut app, axis(gamepad, GamepadAxis::LeftStickX, 0.6));
    write(&mut app, axis(gamepad, GamepadAxis::LeftStickY, 0.8));
    write(&mut app, axis(gamepad, GamepadAxis::LeftZ, 0.5));
    write(&mut app, button(gamepad, GamepadButton::North, 1.0));
    app.update();
    let stick = Stick::LEFT;
    let expected = [
        EventKind::Plugged {
            usb: "1209:0001".parse().ok(),
        },
        EventKind::PadStick {
            stick,
            x: 0.6,
            y: 0.0,
        },
        EventKind::PadStick {
            stick,
            x: 0.6,
            y: 0.8,
        },
        EventKind::HidAxis {
            axis: HidAxis::Z,
            value: 0.5,
        },
        EventKind::PadButton {
            button: PadButton::North,
            value: 1.0,
        },
    ];
    assert_eq!(events(&mut app), expected);
    let seat = seat_of(&app, player);
    assert!(seat.is_down(Do::Horn) && seat.plane(Do::Walk)[1] > 0.7);
    assert_eq!(seat.device_kind(), DeviceKind::Gamepad);
    let kinds = app.world().resource::<Messages<DeviceKindChanged>>();
    assert_eq!(kinds.len(), 1, "told once");
    // By the kernel's code with its kind in front, as bevy_gilrs passes it on.
    for which in [GamepadButton::C, GamepadButton::Other(0x1_02c1)] {
        write(&mut app, button(gamepad, which, 1.0));
    }
    write(&mut app, axis(gamepad, GamepadAxis::Other(0x3_0006), 0.25));
    app.update();
    let expected = [
        EventKind::HidButton {
            button: HidButton::new(3).unwrap(),
            down: true,
        },
        EventKind::HidButton {
            button: HidButton::new(18).unwrap(),
            down: true,
        },
        EventKind::HidAxis {
            axis: HidAxis::Throttle,
            value: 0.25,
        },
    ];
    assert_eq!(events(&mut app), expected);
    assert_eq!(devices(&mut app).usb(gamepad), "1209:0001".parse().ok());
    let number = devices(&mut app).pad(gamepad);
    write(&mut app, connect(gamepad, GamepadConnection::Disconnected));
    app.update();
    assert!(!seat_of(&app, player).is_down(Do::Horn));
    assert_eq!(devices(&mut app).pad(gamepad), number);
}

#[test]
fn every_pad_button_has_a_place_but_three() {
    use GamepadButton as B;
    let all = [
        B::South,
        B::East,
        B::North,
        B::West,
        B::LeftTrigger,
        B::LeftTrigger2,
        B::RightTrigger,
        B::RightTrigger2,
        B::Select,
        B::Start,
        B::Mode,
        B::LeftThumb,
        B::RightThumb,
        B::DPadUp,
        B::DPadDown,
        B::DPadLeft,
        B::DPadRight,
    ];
    let mut places: Vec<PadButton> = all.into_iter().map(|b| pad_button(b).unwrap()).collect();
    places.sort_unstable();
    places.dedup();
    assert_eq!(places.len(), all.len());
    assert_eq!([B::C, B::Z, B::Other(3)].map(pad_button), [None; 3]);
}

#[test]
fn fingers_work_zones() {
    let mut app = app();
    let player = player(&mut app);
    let name = "horn".parse().unwrap();
    devices(&mut app).zones.add_area(name, [0.0; 2], [90.0; 2]);
    let other = app.world_mut().spawn_empty().id();
    let touch = |phase| TouchInput {
        phase,
        position: [10.0, 10.0].into(),
        window: Entity::PLACEHOLDER,
        force: None,
        id: 4,
    };
    devices(&mut app).zones_on = Some(other);
    write(&mut app, touch(TouchPhase::Started));
    app.update();
    assert_eq!(events(&mut app), [], "the zones lie on another window");
    devices(&mut app).zones_on = Some(Entity::PLACEHOLDER);
    write(&mut app, touch(TouchPhase::Started));
    app.update();
    assert!(seat_of(&app, player).is_down(Do::Horn));
    write(&mut app, touch(TouchPhase::Canceled));
    app.update();
    assert!(!seat_of(&app, player).is_down(Do::Horn));
}

#[test]
fn the_left_mouse_button_is_a_finger_where_that_is_switched_on_and_no_mouse_then() {
    let mut app = app();
    let name = "horn".parse().unwrap();
    let window = Entity::PLACEHOLDER;
    let devices = &mut *devices(&mut app);
    devices.zones.add_area(name, [0.0; 2], [90.0; 2]);
    let _ = devices.mouse_finger.switch(true, &mut devices.zones);
    write(
        &mut app,
        WindowEvent::WindowResized(WindowResized {
            window,
            width: 800.0,
            height: 600.0,
        }),
    );
    let position = [10.0, 10.0].into();
    let moved = CursorMoved {
        window,
        position,
        delta: None,
    };
    write(&mut app, WindowEvent::CursorMoved(moved));
    for state in [ButtonState::Pressed, ButtonState::Released] {
        write(
            &mut app,
            WindowEvent::MouseButtonInput(click(Theirs::Left, state)),
        );
        app.update();
        let down = state == ButtonState::Pressed;
        assert_eq!(events(&mut app), [EventKind::Touch { name, down }]);
    }
    let zones = &app.world().resource::<SwapKnotDevices>().zones;
    assert_eq!(zones.screen(), Some([800.0, 600.0]));
}

#[test]
fn players_have_devices_situations_and_messages_of_their_own() {
    let mut app = app();
    let skipper = app
        .world_mut()
        .spawn(PlayerSeat::with_devices(Seat::new(rig()), [KEYBOARD]))
        .id();
    let pad = Simulated::new(swap_knot::DeviceId(9));
    let deckhand = PlayerSeat::with_devices(Seat::new(rig()), [swap_knot::DeviceId(9)]);
    let deckhand = app.world_mut().spawn(deckhand).id();
    write(&mut app, key(KeyCode::KeyE, ButtonState::Pressed));
    write(&mut app, SwapKnotEvent(pad.press(PadButton::North)));
    app.update();
    // A hold counts time, which the test sets.
    app.world_mut()
        .resource_mut::<SwapKnotClock>()
        .set(Some(Time::from_millis(600)));
    app.update();
    let mut messages = app.world_mut().resource_mut::<Messages<ActionHappened>>();
    let told: Vec<_> = messages
        .drain()
        .map(|m| (m.player, m.is(Do::Horn), m.is(Do::Coil), m.what.edge))
        .collect();
    assert_eq!(
        told,
        [
            (deckhand, true, false, Edge::Began),
            (skipper, false, true, Edge::Began)
        ]
    );
    // At the helm nobody coils a rope.
    let mut seat = app.world_mut().get_mut::<PlayerSeat>(skipper).unwrap();
    let helm = seat.rig().sheet().find_situation("helm").unwrap();
    seat.set_situations(&[helm]);
    app.update();
    assert!(!seat_of(&app, skipper).is_down(Do::Coil));
}

fn press(key_code: KeyCode, state: ButtonState) -> WindowEvent {
    WindowEvent::KeyboardInput(key(key_code, state))
}

#[test]
fn one_frame_keeps_the_order_in_which_things_were_done() {
    use ButtonState::{Pressed, Released};
    let sheet = Sheet::from_toml(
        "game = \"x\"\n[actions.plain]\nbind = \"mouse:left\"\n[actions.chord]\nbind = \"Ctrl+mouse:left\"",
    )
    .unwrap();
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
    let mut app = app();
    let player = app.world_mut().spawn(PlayerSeat::new(Seat::new(rig))).id();
    // Ctrl down, click, Ctrl up within one frame, as a window tells it: in one list and once more
    // in a list for each kind.
    for event in [
        press(KeyCode::ControlLeft, Pressed),
        WindowEvent::MouseButtonInput(click(Theirs::Left, Pressed)),
        press(KeyCode::ControlLeft, Released),
        WindowEvent::MouseButtonInput(click(Theirs::Left, Released)),
    ] {
        match &event {
            WindowEvent::KeyboardInput(key) => write(&mut app, key.clone()),
            WindowEvent::MouseButtonInput(click) => write(&mut app, *click),
            _ => {}
        }
        write(&mut app, event);
    }
    // What a game writes itself is heard as well.
    write(&mut app, key(KeyCode::KeyJ, Pressed));
    app.update();
    let seat = seat_of(&app, player);
    let began: Vec<String> = seat
        .happened()
        .iter()
        .filter(|h| h.edge == Edge::Began)
        .map(|h| sheet.action(h.action).unwrap().name.clone())
        .collect();
    assert_eq!(began, ["chord"]);
    assert_eq!(events(&mut app).len(), 5, "nothing twice");
}

#[derive(Resource, Default)]
struct Listens(bool);

#[test]
fn what_came_up_while_nobody_listened_is_not_held_for_ever() {
    let mut app = app();
    app.insert_resource(Listens(true));
    let listens = |listens: Res<'_, Listens>| listens.0;
    let sets = (SwapKnotSystems::Hear, SwapKnotSystems::Play);
    app.configure_sets(PreUpdate, sets.run_if(listens));
    let player = player(&mut app);
    write(&mut app, key(KeyCode::KeyH, ButtonState::Pressed));
    app.update();
    let seat = |app: &App| seat_of(app, player).clone();
    assert!(seat(&app).is_down(Do::Horn));
    app.insert_resource(Listens(false));
    app.update();
    write(&mut app, key(KeyCode::KeyH, ButtonState::Released));
    (0..5).for_each(|_| app.update());
    app.insert_resource(Listens(true));
    app.update();
    assert!(!seat(&app).is_down(Do::Horn));
    write(&mut app, key(KeyCode::KeyH, ButtonState::Pressed));
    app.update();
    assert!(seat(&app).went_down(Do::Horn), "the next press counts");
}

#[test]
fn a_player_who_leaves_or_loses_a_device_ends_what_they_did() {
    let mut app = app();
    let player = player(&mut app);
    write(&mut app, key(KeyCode::KeyH, ButtonState::Pressed));
    app.update();
    let told = |app: &mut App| {
        let mut messages = app.world_mut().resource_mut::<Messages<ActionHappened>>();
        messages.drain().map(|m| m.what.edge).collect::<Vec<_>>()
    };
    assert_eq!(told(&mut app), [Edge::Began]);
    let mut seat = app.world_mut().get_mut::<PlayerSeat>(player).unwrap();
    seat.set_devices(PlayerDevices::Only(vec![MOUSE, DeviceId(9)]));
    assert_eq!(
        seat.devices(),
        &PlayerDevices::Only(vec![MOUSE, DeviceId(9)])
    );
    app.update();
    assert_eq!(told(&mut app), [Edge::Ended]);

    write(&mut app, click(Theirs::Right, ButtonState::Pressed));
    app.update();
    assert_eq!(told(&mut app), [Edge::Began]);
    app.world_mut().despawn(player);
    assert_eq!(told(&mut app), [Edge::Ended]);
}

#[test]
fn a_seat_says_that_it_changed_only_when_it_did() {
    #[derive(Resource, Default)]
    struct Seen(u32);
    let mut app = app();
    player(&mut app);
    app.init_resource::<Seen>().add_systems(
        Update,
        |changed: Query<'_, '_, (), Changed<PlayerSeat>>, mut seen: ResMut<'_, Seen>| {
            seen.0 += changed.iter().count() as u32;
        },
    );
    app.update();
    let seen = |app: &App| app.world().resource::<Seen>().0;
    let start = seen(&app);
    (0..5).for_each(|_| app.update());
    assert_eq!(seen(&app), start);
    write(&mut app, key(KeyCode::KeyH, ButtonState::Pressed));
    app.update();
    assert_eq!(seen(&app), start + 1);
    // The press is news for one update; that it is over is news as well.
    app.update();
    assert_eq!(seen(&app), start + 2);
    (0..5).for_each(|_| app.update());
    assert_eq!(seen(&app), start + 2);
}

#[test]
fn a_pad_that_was_there_before_has_its_numbers_and_one_that_comes_back_rests() {
    let mut app = app();
    let player = player(&mut app);
    let gamepad = app.world_mut().spawn_empty().id();
    // Bevy makes the component out of the event that only it has read.
    write(&mut app, GamepadConnectionEvent::new(gamepad, connected()));
    app.update();
    app.update();
    let devices = app.world().resource::<SwapKnotDevices>();
    assert_eq!(devices.usb(gamepad), "1209:0001".parse().ok());

    write(&mut app, axis(gamepad, GamepadAxis::LeftStickY, 1.0));
    write(&mut app, connect(gamepad, GamepadConnection::Disconnected));
    write(&mut app, connect(gamepad, connected()));
    write(&mut app, axis(gamepad, GamepadAxis::LeftStickX, 1.0));
    app.update();
    let seat = seat_of(&app, player);
    assert_eq!(seat.plane(Do::Walk), [1.0, 0.0]);
}

#[test]
fn systems_run_when_a_player_does_something_and_a_menu_keeps_it_to_itself() {
    #[derive(Resource, Default)]
    struct Sounded(u32);
    let mut app = app();
    let player = player(&mut app);
    app.init_resource::<Sounded>().add_systems(
        Update,
        (|mut sounded: ResMut<'_, Sounded>| sounded.0 += 1)
            .run_if(swap_knot_bevy::action_went_down(Do::Horn)),
    );
    let press = |app: &mut App, state| {
        write(app, key(KeyCode::KeyH, state));
        app.update();
        app.world().resource::<Sounded>().0
    };
    assert_eq!(press(&mut app, ButtonState::Pressed), 1);
    assert_eq!(press(&mut app, ButtonState::Released), 1);
    let overhear = |app: &mut App, on| {
        let mut seat = app.world_mut().get_mut::<PlayerSeat>(player).unwrap();
        seat.set_overhearing(on);
        assert_eq!(seat.is_overhearing(), on);
    };
    overhear(&mut app, true);
    assert_eq!(press(&mut app, ButtonState::Pressed), 1);
    // The press that closes the menu is not played either.
    overhear(&mut app, false);
    assert_eq!(press(&mut app, ButtonState::Released), 1);
    assert_eq!(press(&mut app, ButtonState::Pressed), 2);
}
