//! A Bevy app without a window, played by Bevy's own messages.

#![allow(clippy::unwrap_used, clippy::panic)]

use bevy_app::App;
use bevy_ecs::message::{Message, Messages};
use bevy_ecs::prelude::Entity;
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
use swap_knot::{
    Actions, DeviceKind, Direction, Edge, EventKind, Layout, MouseButton, PadButton, Place,
    Profile, Rig, Seat, Sheet, Simulated, Stick, Time,
};
use swap_knot_bevy::{
    ActionHappened, DeviceKindChanged, InputEvent, KEYBOARD, PlayerSeat, SwapKnotClock,
    SwapKnotDevices, SwapKnotPlugin, mouse_button, pad_button, place,
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

/// Every event of the last update as Swap Knot saw it.
fn events(app: &mut App) -> Vec<EventKind> {
    let mut messages = app.world_mut().resource_mut::<Messages<InputEvent>>();
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
    let seat = |app: &App| app.world().get::<PlayerSeat>(player).unwrap().clone();
    assert!(seat(&app).went_down(Do::Horn));
    app.update();
    assert!(!seat(&app).went_down(Do::Horn) && seat(&app).is_down(Do::Horn));
    // A lost focus ends it, once.
    write(&mut app, KeyboardFocusLost);
    app.update();
    assert!(seat(&app).went_up(Do::Horn));
    assert_eq!(events(&mut app), [EventKind::FocusLost; 3]);

    let window = Entity::PLACEHOLDER;
    let (button, state) = (Theirs::Right, ButtonState::Pressed);
    write(
        &mut app,
        MouseButtonInput {
            button,
            state,
            window,
        },
    );
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
    let up = EventKind::Wheel {
        direction: Direction::Up,
    };
    let expected = [
        EventKind::MouseButton {
            button: MouseButton::Right,
            down: true,
        },
        EventKind::MouseMove { x: 3.0, y: -4.0 },
        up,
        up,
    ];
    assert_eq!(events(&mut app), expected);
    assert!(seat(&app).is_down(Do::Horn));
    for (theirs, ours) in [
        (Theirs::Left, Some(MouseButton::Left)),
        (Theirs::Middle, Some(MouseButton::Middle)),
        (Theirs::Back, Some(MouseButton::Back)),
        (Theirs::Forward, Some(MouseButton::Forward)),
        (Theirs::Other(7), Some(MouseButton::Further(7))),
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
    let connection = GamepadConnection::Connected {
        name: "Quayside".to_owned(),
        vendor_id: Some(0x1209),
        product_id: Some(1),
    };
    let connect = |connection| {
        RawGamepadEvent::Connection(GamepadConnectionEvent {
            gamepad,
            connection,
        })
    };
    write(&mut app, connect(connection));
    let axis = |axis, value| {
        RawGamepadEvent::Axis(RawGamepadAxisChangedEvent {
            gamepad,
            axis,
            value,
        })
    };
    write(&mut app, axis(GamepadAxis::LeftStickX, 0.6));
    write(&mut app, axis(GamepadAxis::LeftStickY, 0.8));
    write(&mut app, axis(GamepadAxis::LeftZ, 0.8));
    let button = GamepadButton::North;
    write(
        &mut app,
        RawGamepadEvent::Button(RawGamepadButtonChangedEvent {
            gamepad,
            button,
            value: 1.0,
        }),
    );
    app.update();
    let stick = Stick::LEFT;
    let expected = [
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
        EventKind::PadButton {
            button: PadButton::North,
            value: 1.0,
        },
    ];
    assert_eq!(events(&mut app), expected);
    let seat = app.world().get::<PlayerSeat>(player).unwrap();
    assert!(seat.is_down(Do::Horn) && seat.plane(Do::Walk)[1] > 0.7);
    assert_eq!(seat.device_kind(), DeviceKind::Gamepad);
    let kinds = app.world().resource::<Messages<DeviceKindChanged>>();
    assert_eq!(kinds.len(), 1, "told once");
    let mut devices = app.world_mut().resource_mut::<SwapKnotDevices>();
    assert_eq!(devices.usb(gamepad), Some((0x1209, 1)));
    let number = devices.pad(gamepad);
    write(&mut app, connect(GamepadConnection::Disconnected));
    app.update();
    assert!(
        !app.world()
            .get::<PlayerSeat>(player)
            .unwrap()
            .is_down(Do::Horn)
    );
    assert_eq!(
        app.world_mut()
            .resource_mut::<SwapKnotDevices>()
            .pad(gamepad),
        number
    );
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
    let mut devices = app.world_mut().resource_mut::<SwapKnotDevices>();
    devices
        .zones
        .add_area("horn".parse().unwrap(), [0.0; 2], [90.0; 2]);
    let touch = |phase| TouchInput {
        phase,
        position: [10.0, 10.0].into(),
        window: Entity::PLACEHOLDER,
        force: None,
        id: 4,
    };
    write(&mut app, touch(TouchPhase::Started));
    app.update();
    assert!(
        app.world()
            .get::<PlayerSeat>(player)
            .unwrap()
            .is_down(Do::Horn)
    );
    write(&mut app, touch(TouchPhase::Canceled));
    app.update();
    assert!(
        !app.world()
            .get::<PlayerSeat>(player)
            .unwrap()
            .is_down(Do::Horn)
    );
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
    write(&mut app, InputEvent(pad.press(PadButton::North)));
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
    assert!(
        !app.world()
            .get::<PlayerSeat>(skipper)
            .unwrap()
            .is_down(Do::Coil)
    );
}
