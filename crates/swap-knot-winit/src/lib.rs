//! Events of [winit] windows, translated for Swap Knot: a translation and nothing more.
//!
//! Run by the tests: mouse, wheel, touch, focus and raw events made by hand, and real keys, dead keys,
//! buttons, wheel and focus under X11 through the window example. Only read in winit's source (0.30):
//! how Wayland, Windows, macOS and the web number further buttons, and which of them say what a key
//! types by itself.
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
mod window;

use std::collections::HashMap;

pub use keys::place;
pub use system::system_layout;
pub use window::{Ear, Heard, HeardWindow, ear};

use swap_knot::input::{ButtonCounting, MouseFinger, StillDown, TouchZones};
use swap_knot::{DeviceId, Event, EventKind, MouseButton, Time};
use winit::event::{
    DeviceEvent, ElementState, KeyEvent, MouseScrollDelta, Touch, TouchPhase, WindowEvent,
};
use winit::keyboard::{Key, PhysicalKey};

/// The keyboard; winit's windows do not tell several apart.
pub const KEYBOARD: DeviceId = DeviceId(0);
/// The mouse, its motion and its buttons, which come under two numbers on some systems; winit's
/// windows do not tell several apart.
pub const MOUSE: DeviceId = DeviceId(1);
/// The touch screen.
pub const TOUCH: DeviceId = DeviceId(2);
/// Everything that a window is heard from.
const ALL: [DeviceId; 3] = [KEYBOARD, MOUSE, TOUCH];

/// How far smooth scrolling goes for one notch of the wheel, in pixels of a screen that is not
/// scaled.
const PIXELS_A_NOTCH: f64 = 40.0;

/// Translates winit's events; keeps what is down and how the window is scaled.
#[derive(Clone, Debug)]
pub struct Adapter {
    /// The zones and on-screen sticks of the game, in physical pixels; none to begin with. They lie
    /// on the window whose events come in: a game with several keeps an adapter for each.
    pub zones: TouchZones,
    /// The mouse as a finger, for trying the zones at a desk: off to begin with.
    pub mouse_finger: MouseFinger,
    /// What raw devices turned out to be, so that it can be told when one is gone.
    raw: HashMap<winit::event::DeviceId, DeviceId>,
    down: StillDown,
    /// How many physical pixels make one of a screen that is not scaled.
    scale: f64,
}

impl Default for Adapter {
    fn default() -> Self {
        Adapter::new()
    }
}

impl Adapter {
    /// An adapter that has heard nothing yet.
    pub fn new() -> Adapter {
        Adapter {
            zones: TouchZones::new(),
            mouse_finger: MouseFinger::default(),
            raw: HashMap::new(),
            down: StillDown::new(),
            scale: 1.0,
        }
    }

    /// How the window is scaled (`Window::scale_factor`), for smooth scrolling. Changes come by
    /// themselves with the window's events.
    pub fn set_scale(&mut self, scale: f64) {
        if scale.is_finite() && scale > 0.0 {
            self.scale = scale;
        }
    }

    /// Nothing was heard for a while, since the game did not listen: whatever was down then may have
    /// come up since, and nobody tells of it later. Call it when events are fed again.
    pub fn gap(&mut self, at: Time, mut feed: impl FnMut(Event)) {
        for device in ALL {
            let what = EventKind::FocusLost;
            feed(Event { at, device, what });
        }
        for (device, what) in self.down.take() {
            feed(Event { at, device, what });
        }
        for what in self.zones.lift() {
            let device = TOUCH;
            feed(Event { at, device, what });
        }
    }

    /// Translates a window's event and hands what it means to `feed`, in order.
    ///
    /// - Keys come with their place and, going down, with the character they typed; beside that
    ///   with what they type by themselves ([`EventKind::KeyTypes`]), where the system says so.
    /// - Auto-repeat is left out.
    /// - A lost focus is told of keyboard, mouse and touch, and then that all keys and buttons of the
    ///   window are up, since nobody tells of it later. A key that is still held when the focus comes
    ///   back is told as [`EventKind::KeyHeld`], where winit knows (X11, Windows).
    /// - The wheel comes in notches and fractions of them.
    /// - Fingers work the zones, and so does the left mouse button where [`Adapter::mouse_finger`] is on;
    ///   it is no mouse button then, and the mouse does not move. A lost focus takes every
    ///   finger off.
    /// - Keys that winit cannot place are left out.
    pub fn window_event(&mut self, event: &WindowEvent, at: Time, mut feed: impl FnMut(Event)) {
        match event {
            WindowEvent::KeyboardInput {
                event,
                is_synthetic,
                ..
            } if !event.repeat => {
                let device = KEYBOARD;
                match key(event) {
                    Some(what) if !is_synthetic => {
                        self.down.note(device, what);
                        feed(Event { at, device, what });
                        if let Some(what) = types(what, event) {
                            feed(Event { at, device, what });
                        }
                    }
                    // Made up by winit when focus changes: on the way out it comes before the loss
                    // is told, which then tells of it; on the way in the key is held, not pressed.
                    Some(EventKind::Key { place, down, .. }) if down => {
                        let what = EventKind::KeyHeld { place };
                        feed(Event { at, device, what });
                        let (down, text) = (true, None);
                        self.down.note(device, EventKind::Key { place, down, text });
                    }
                    _ => {}
                }
            }
            WindowEvent::CursorMoved { position, .. } => {
                let point = [position.x as f32, position.y as f32];
                let moved = self.mouse_finger.point(point, &mut self.zones);
                let device = TOUCH;
                moved
                    .into_iter()
                    .for_each(|what| feed(Event { at, device, what }));
            }
            WindowEvent::MouseInput { state, button, .. } => {
                if let Some(button) = mouse_button(*button) {
                    let (device, down) = (MOUSE, *state == ElementState::Pressed);
                    let touched = self.mouse_finger.press(button, down, &mut self.zones);
                    if let Some(touched) = touched {
                        let device = TOUCH;
                        touched.for_each(|what| feed(Event { at, device, what }));
                        return;
                    }
                    let what = EventKind::MouseButton { button, down };
                    self.down.note(device, what);
                    feed(Event { at, device, what });
                }
            }
            WindowEvent::MouseWheel { delta, .. } => {
                let [x, y] = match *delta {
                    MouseScrollDelta::LineDelta(x, y) => [x, y],
                    MouseScrollDelta::PixelDelta(p) => {
                        [p.x, p.y].map(|v| (v / self.scale / PIXELS_A_NOTCH) as f32)
                    }
                };
                let (device, what) = (MOUSE, EventKind::Scroll { x, y });
                feed(Event { at, device, what });
            }
            WindowEvent::Touch(touch) => {
                let device = TOUCH;
                self.touch(touch, |what| feed(Event { at, device, what }));
            }
            WindowEvent::Resized(size) => {
                self.zones
                    .set_screen([size.width as f32, size.height as f32]);
            }
            WindowEvent::ScaleFactorChanged { scale_factor, .. } => self.set_scale(*scale_factor),
            WindowEvent::Focused(false) => self.gap(at, feed),
            _ => {}
        }
    }

    /// Translates raw mouse motion, which goes on when the pointer reaches the edge of the screen,
    /// and tells when a device is gone that was heard of here.
    pub fn device_event(
        &mut self,
        device: winit::event::DeviceId,
        event: &DeviceEvent,
        at: Time,
        mut feed: impl FnMut(Event),
    ) {
        match event {
            DeviceEvent::MouseMotion { delta: (x, y) } => {
                self.raw.insert(device, MOUSE);
                if self.mouse_finger.is_on() {
                    return;
                }
                // Screens count downwards, Swap Knot upwards.
                let (x, y) = (*x as f32, -*y as f32);
                let (device, what) = (MOUSE, EventKind::MouseMove { x, y });
                feed(Event { at, device, what });
            }
            DeviceEvent::Button { .. } | DeviceEvent::MouseWheel { .. } => {
                self.raw.insert(device, MOUSE);
            }
            DeviceEvent::Key(_) => {
                self.raw.insert(device, KEYBOARD);
            }
            DeviceEvent::Removed => {
                if let Some(device) = self.raw.remove(&device) {
                    self.down.unplug(device);
                    let what = EventKind::Unplugged;
                    feed(Event { at, device, what });
                }
            }
            _ => {}
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

/// What a key that went down types by itself, without modifiers and without composing.
#[cfg(any(
    windows,
    target_os = "macos",
    target_os = "linux",
    target_os = "freebsd"
))]
fn types(what: EventKind, event: &KeyEvent) -> Option<EventKind> {
    use winit::platform::modifier_supplement::KeyEventExtModifierSupplement as _;
    let EventKind::Key {
        place, down: true, ..
    } = what
    else {
        return None;
    };
    let plain = typed(&event.key_without_modifiers())?;
    Some(EventKind::KeyTypes { place, plain })
}

#[cfg(not(any(
    windows,
    target_os = "macos",
    target_os = "linux",
    target_os = "freebsd"
)))]
fn types(_: EventKind, _: &KeyEvent) -> Option<EventKind> {
    None
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

/// The button of a mouse. What winit passes on by number is counted in another way on every system,
/// see [`ButtonCounting`].
pub fn mouse_button(button: winit::event::MouseButton) -> Option<MouseButton> {
    use winit::event::MouseButton as Theirs;
    Some(match button {
        Theirs::Left => MouseButton::Left,
        Theirs::Right => MouseButton::Right,
        Theirs::Middle => MouseButton::Middle,
        Theirs::Back => MouseButton::Back,
        Theirs::Forward => MouseButton::Forward,
        Theirs::Other(number) => MouseButton::counted(ButtonCounting::here(number), number)?,
    })
}
