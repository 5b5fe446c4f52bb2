//! The cases that every adapter has to pass, all of them, by the messages of Bevy's own windows.

#![allow(clippy::unwrap_used)]

use bevy_app::{App, PreUpdate};
use bevy_ecs::message::Messages;
use bevy_ecs::prelude::{Entity, IntoScheduleConfigs as _, Res, Resource};
use bevy_input::gamepad::{
    GamepadAxis, GamepadButton, GamepadConnection, GamepadConnectionEvent,
    RawGamepadAxisChangedEvent, RawGamepadButtonChangedEvent, RawGamepadEvent,
};
use bevy_input::keyboard::{Key, KeyCode, KeyboardFocusLost, KeyboardInput};
use bevy_input::mouse::{MouseButtonInput, MouseMotion, MouseScrollUnit, MouseWheel};
use bevy_input::touch::{TouchInput, TouchPhase};
use bevy_input::{ButtonState, InputPlugin};
use bevy_window::WindowEvent;
use swap_knot::input::TouchZones;
use swap_knot::kit::{self, Engine, Said};
use swap_knot::{Event, MouseButton, PadButton, Place, Stick, Time};
use swap_knot_bevy::{
    SwapKnotClock, SwapKnotDevices, SwapKnotEvent, SwapKnotPlugin, SwapKnotSystems,
};

#[derive(Resource)]
struct Listens(bool);

struct Bevy {
    app: App,
    pads: [Entity; 2],
}

impl Bevy {
    fn new() -> Bevy {
        let mut app = App::new();
        app.add_plugins((InputPlugin, SwapKnotPlugin));
        app.insert_resource(Listens(true));
        let listens = |listens: Res<'_, Listens>| listens.0;
        let sets = (SwapKnotSystems::Hear, SwapKnotSystems::Play);
        app.configure_sets(PreUpdate, sets.run_if(listens));
        let pads = [(); 2].map(|()| app.world_mut().spawn_empty().id());
        app.update();
        Bevy { app, pads }
    }

    /// As a window tells it: in one list, and in that of its kind.
    fn write(&mut self, event: WindowEvent) {
        let world = self.app.world_mut();
        match &event {
            WindowEvent::KeyboardInput(e) => drop(world.write_message(e.clone())),
            WindowEvent::MouseButtonInput(e) => drop(world.write_message(*e)),
            WindowEvent::MouseMotion(e) => drop(world.write_message(*e)),
            WindowEvent::MouseWheel(e) => drop(world.write_message(*e)),
            WindowEvent::TouchInput(e) => drop(world.write_message(*e)),
            WindowEvent::KeyboardFocusLost(e) => drop(world.write_message(e.clone())),
            _ => {}
        }
        world.write_message(event);
    }

    fn pad(&mut self, event: RawGamepadEvent) {
        self.app.world_mut().write_message(event);
    }

    fn key(&mut self, place: Place, down: bool, repeat: bool) -> Option<()> {
        let key_code = match place {
            Place::KeyA => KeyCode::KeyA,
            Place::KeyB => KeyCode::KeyB,
            Place::ControlLeft => KeyCode::ControlLeft,
            _ => return None,
        };
        self.write(WindowEvent::KeyboardInput(KeyboardInput {
            key_code,
            logical_key: Key::Unidentified(bevy_input::keyboard::NativeKey::Unidentified),
            state: state(down),
            text: None,
            repeat,
            window: Entity::PLACEHOLDER,
        }));
        Some(())
    }

    /// Writes what Bevy would tell; none for what it never does.
    fn tell(&mut self, said: &Said) -> Option<()> {
        let window = Entity::PLACEHOLDER;
        match *said {
            Said::Key { place, down } => self.key(place, down, false)?,
            Said::Repeat { place } => self.key(place, true, true)?,
            Said::FocusLost => self.write(WindowEvent::KeyboardFocusLost(KeyboardFocusLost)),
            // Bevy leaves out what winit makes up for keys that are held as the focus comes back.
            Said::FocusBack { .. } => {}
            Said::Gap => {
                self.app.insert_resource(Listens(false));
                (0..3).for_each(|_| self.app.update());
                self.app.insert_resource(Listens(true));
            }
            Said::Mouse { button, down } => {
                let button = match button {
                    MouseButton::Left => bevy_input::mouse::MouseButton::Left,
                    MouseButton::Back => bevy_input::mouse::MouseButton::Back,
                    MouseButton::Forward => bevy_input::mouse::MouseButton::Forward,
                    _ => return None,
                };
                let state = state(down);
                self.write(WindowEvent::MouseButtonInput(MouseButtonInput {
                    button,
                    state,
                    window,
                }));
            }
            Said::Motion { x, y } => {
                let delta = [x, -y].into();
                self.write(WindowEvent::MouseMotion(MouseMotion { delta }));
            }
            Said::Wheel { notches } => self.write(WindowEvent::MouseWheel(MouseWheel {
                unit: MouseScrollUnit::Line,
                x: 0.0,
                y: notches,
                window,
                phase: TouchPhase::Moved,
            })),
            Said::PadCame { pad } => self.plug(
                pad,
                GamepadConnection::Connected {
                    name: "Quayside".to_owned(),
                    vendor_id: None,
                    product_id: None,
                },
            ),
            Said::PadGone { pad } => self.plug(pad, GamepadConnection::Disconnected),
            Said::PadButton { pad, button, value } => {
                let button = match button {
                    PadButton::South => GamepadButton::South,
                    PadButton::East => GamepadButton::East,
                    PadButton::TriggerLeft => GamepadButton::LeftTrigger2,
                    _ => return None,
                };
                let gamepad = self.pads[pad];
                self.pad(RawGamepadEvent::Button(RawGamepadButtonChangedEvent {
                    gamepad,
                    button,
                    value,
                }));
            }
            Said::PadAxis {
                pad,
                stick: Stick::LEFT,
                axis,
                value,
            } => {
                let axis = [GamepadAxis::LeftStickX, GamepadAxis::LeftStickY][axis];
                let gamepad = self.pads[pad];
                self.pad(RawGamepadEvent::Axis(RawGamepadAxisChangedEvent {
                    gamepad,
                    axis,
                    value,
                }));
            }
            Said::Finger { finger, at, was } => self.write(WindowEvent::TouchInput(TouchInput {
                phase: match (was, at) {
                    (false, _) => TouchPhase::Started,
                    (true, Some(_)) => TouchPhase::Moved,
                    (true, None) => TouchPhase::Ended,
                },
                position: at.unwrap_or_default().into(),
                window,
                force: None,
                id: finger,
            })),
            _ => return None,
        }
        Some(())
    }

    fn plug(&mut self, pad: usize, connection: GamepadConnection) {
        let gamepad = self.pads[pad];
        self.pad(RawGamepadEvent::Connection(GamepadConnectionEvent {
            gamepad,
            connection,
        }));
    }
}

fn state(down: bool) -> ButtonState {
    match down {
        true => ButtonState::Pressed,
        false => ButtonState::Released,
    }
}

impl Engine for Bevy {
    fn say(&mut self, said: &Said, at: Time) -> Option<Vec<Event>> {
        self.say_all(&[*said], at)
    }

    fn say_all(&mut self, said: &[Said], at: Time) -> Option<Vec<Event>> {
        let mut clock = self.app.world_mut().resource_mut::<SwapKnotClock>();
        clock.set(Some(at));
        for said in said {
            self.tell(said)?;
        }
        self.app.update();
        let mut heard = self
            .app
            .world_mut()
            .resource_mut::<Messages<SwapKnotEvent>>();
        Some(heard.drain().map(|e| e.0).collect())
    }

    fn zones(&mut self) -> &mut TouchZones {
        let devices = self.app.world_mut().resource_mut::<SwapKnotDevices>();
        &mut devices.into_inner().zones
    }
}

#[test]
fn the_adapter_passes_the_kit() {
    let report = kit::check(Bevy::new);
    assert!(report.failed.is_empty(), "{report}");
    assert_eq!(report.left_out, [""; 0]);
}
