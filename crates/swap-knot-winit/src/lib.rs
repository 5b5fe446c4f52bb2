//! Events of [winit] windows, translated for Swap Knot: a translation and nothing more.
//!
//! Hand every `WindowEvent` to [`Adapter::window_event`] and, for raw mouse motion, every
//! `DeviceEvent` to [`Adapter::device_event`]; feed what comes back to a seat or a listener.
//!
//! ```
//! use swap_knot::{EventKind, Place, Time};
//! use swap_knot_winit::Adapter;
//! use winit::event::WindowEvent;
//!
//! let mut adapter = Adapter::new();
//! let mut events = Vec::new();
//! let left = WindowEvent::MouseInput {
//!     device_id: winit::event::DeviceId::dummy(),
//!     state: winit::event::ElementState::Pressed,
//!     button: winit::event::MouseButton::Left,
//! };
//! adapter.window_event(&left, Time::ZERO, |_| {});
//! adapter.window_event(&WindowEvent::Focused(false), Time::ZERO, |e| events.push(e));
//! assert_eq!(events[0].what, EventKind::FocusLost);
//! assert_eq!(swap_knot_winit::place(winit::keyboard::KeyCode::KeyW), Some(Place::KeyW));
//! ```

mod keys;
mod system;

pub use keys::place;
pub use system::system_layout;

use swap_knot::{DeviceId, Direction, Event, EventKind, MouseButton, Time, TouchZones};
use winit::event::{
    DeviceEvent, ElementState, KeyEvent, MouseScrollDelta, Touch, TouchPhase, WindowEvent,
};
use winit::keyboard::{Key, PhysicalKey};

/// How many pixels of smooth scrolling make one notch of the wheel.
const PIXELS_A_NOTCH: f64 = 40.0;

/// Translates winit's events; keeps which devices it has seen and what is left of a notch.
#[derive(Clone, Debug, Default)]
pub struct Adapter {
    /// The zones and on-screen sticks of the game, in physical pixels; none to begin with.
    pub zones: TouchZones,
    devices: Vec<winit::event::DeviceId>,
    /// Keys and buttons that are down, as they come up.
    down: Vec<(DeviceId, EventKind)>,
    /// What is left of a notch, to the right and up.
    wheel: [f64; 2],
}

impl Adapter {
    /// An adapter that has seen no device yet.
    pub fn new() -> Adapter {
        Adapter::default()
    }

    /// Translates a window's event and hands what it means to `feed`, in order.
    ///
    /// - Keys come with their place and, going down, with the character they typed.
    /// - Auto-repeat is left out.
    /// - A lost focus is told of every device that the window was heard from, and then that all of
    ///   its keys and buttons are up, since nobody tells of it later. A key that is still held when
    ///   the focus comes back is told as [`EventKind::KeyHeld`], where winit knows (X11, Windows).
    /// - Keys that winit cannot place are left out.
    pub fn window_event(&mut self, event: &WindowEvent, at: Time, mut feed: impl FnMut(Event)) {
        match event {
            WindowEvent::KeyboardInput {
                device_id,
                event,
                is_synthetic,
            } if !event.repeat => {
                let device = self.device(*device_id);
                match key(event) {
                    Some(what) if !is_synthetic => {
                        self.note(device, what);
                        feed(Event { at, device, what });
                    }
                    // Made up by winit when focus changes: on the way out it comes before the loss
                    // is told, which then tells of it; on the way in the key is held, not pressed.
                    Some(EventKind::Key { place, down, .. }) if down => {
                        let what = EventKind::KeyHeld { place };
                        feed(Event { at, device, what });
                        let (down, text) = (true, None);
                        self.note(device, EventKind::Key { place, down, text });
                    }
                    _ => {}
                }
            }
            WindowEvent::MouseInput {
                device_id,
                state,
                button,
            } => {
                let device = self.device(*device_id);
                if let Some(button) = mouse_button(*button) {
                    let down = *state == ElementState::Pressed;
                    let what = EventKind::MouseButton { button, down };
                    self.note(device, what);
                    feed(Event { at, device, what });
                }
            }
            WindowEvent::MouseWheel {
                device_id, delta, ..
            } => {
                let device = self.device(*device_id);
                self.turn(*delta, |direction| {
                    let what = EventKind::Wheel { direction };
                    feed(Event { at, device, what });
                });
            }
            WindowEvent::Touch(touch) => {
                let device = self.device(touch.device_id);
                self.touch(touch, |what| feed(Event { at, device, what }));
            }
            WindowEvent::Focused(false) => {
                for n in 0..self.devices.len() {
                    let (device, what) = (number(n), EventKind::FocusLost);
                    feed(Event { at, device, what });
                }
                for (device, what) in std::mem::take(&mut self.down) {
                    feed(Event { at, device, what });
                }
            }
            _ => {}
        }
    }

    /// Keeps which keys and buttons are down.
    fn note(&mut self, device: DeviceId, what: EventKind) {
        let (up, down) = match what {
            EventKind::Key { place, down, .. } => {
                let (up, text) = (false, None);
                (
                    EventKind::Key {
                        place,
                        down: up,
                        text,
                    },
                    down,
                )
            }
            EventKind::MouseButton { button, down } => (
                EventKind::MouseButton {
                    button,
                    down: false,
                },
                down,
            ),
            _ => return,
        };
        self.down.retain(|known| *known != (device, up));
        if down {
            self.down.push((device, up));
        }
    }

    /// Translates raw mouse motion, which goes on when the pointer reaches the edge of the screen.
    pub fn device_event(
        &mut self,
        device: winit::event::DeviceId,
        event: &DeviceEvent,
        at: Time,
        mut feed: impl FnMut(Event),
    ) {
        if let DeviceEvent::MouseMotion { delta: (x, y) } = event {
            let device = self.device(device);
            // Screens count downwards, Swap Knot upwards.
            let (x, y) = (*x as f32, -*y as f32);
            let what = EventKind::MouseMove { x, y };
            feed(Event { at, device, what });
        }
    }

    /// What a finger means, by the game's zones.
    fn touch(&mut self, touch: &Touch, feed: impl FnMut(EventKind)) {
        let at = [touch.location.x as f32, touch.location.y as f32];
        match touch.phase {
            TouchPhase::Started => self.zones.down(touch.id, at).for_each(feed),
            TouchPhase::Moved => self.zones.moved(touch.id, at).into_iter().for_each(feed),
            TouchPhase::Ended | TouchPhase::Cancelled => {
                self.zones.up(touch.id).into_iter().for_each(feed);
            }
        }
    }

    /// A small number for a device, given out in the order in which devices are first heard of.
    fn device(&mut self, id: winit::event::DeviceId) -> DeviceId {
        let found = self.devices.iter().position(|d| *d == id);
        let at = found.unwrap_or_else(|| {
            self.devices.push(id);
            self.devices.len() - 1
        });
        number(at)
    }

    /// Whole notches out of what the wheel turned by.
    fn turn(&mut self, delta: MouseScrollDelta, mut notch: impl FnMut(Direction)) {
        let [x, y] = match delta {
            MouseScrollDelta::LineDelta(x, y) => [f64::from(x), f64::from(y)],
            MouseScrollDelta::PixelDelta(p) => [p.x / PIXELS_A_NOTCH, p.y / PIXELS_A_NOTCH],
        };
        let ways = [
            (Direction::Left, Direction::Right),
            (Direction::Down, Direction::Up),
        ];
        for ((left, by), (back, forth)) in self.wheel.iter_mut().zip([x, y]).zip(ways) {
            *left = (*left + by).clamp(-50.0, 50.0);
            while left.abs() >= 1.0 {
                notch(if *left > 0.0 { forth } else { back });
                *left -= left.signum();
            }
        }
    }
}

/// The number of the device that was heard of as that many others were known. The last ones share
/// one, which stands for no device in particular elsewhere.
fn number(at: usize) -> DeviceId {
    DeviceId(u16::try_from(at).unwrap_or(u16::MAX).min(u16::MAX - 1))
}

/// What happened on a key, if winit knows where it is.
fn key(event: &KeyEvent) -> Option<EventKind> {
    let PhysicalKey::Code(code) = event.physical_key else {
        return None;
    };
    let down = event.state == ElementState::Pressed;
    Some(EventKind::Key {
        place: place(code)?,
        down,
        text: if down {
            typed(&event.logical_key)
        } else {
            None
        },
    })
}

/// The one character that a key types.
fn typed(key: &Key) -> Option<char> {
    let Key::Character(text) = key else {
        return None;
    };
    let mut chars = text.chars();
    let first = chars.next().filter(|c| !c.is_control())?;
    chars.next().is_none().then_some(first)
}

/// The button of a mouse; numbers that winit passes on count from 6 on.
pub fn mouse_button(button: winit::event::MouseButton) -> Option<MouseButton> {
    use winit::event::MouseButton as Theirs;
    Some(match button {
        Theirs::Left => MouseButton::Left,
        Theirs::Right => MouseButton::Right,
        Theirs::Middle => MouseButton::Middle,
        Theirs::Back => MouseButton::Back,
        Theirs::Forward => MouseButton::Forward,
        Theirs::Other(number) => MouseButton::from_number(u8::try_from(number).ok()?)?,
    })
}
