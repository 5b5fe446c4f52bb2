//! Events of [SDL 3](sdl3), translated for Swap Knot: a translation and nothing more.
//!
//! Keyboard by scancode with what its keys type, mouse, smooth wheel, touch, gamepads with hot-plug,
//! sensors and rumble, and any other controller by its numbers. Pads keep their number when they are
//! plugged out and in again.
//!
//! With the feature `bundled` SDL is built from its sources (cmake and, on Linux, the headers of X11
//! are wanted); without it the SDL of the system is linked.
//!
//! ```no_run
//! use swap_knot::{Layout, Profile, Rig, Seat, Sheet};
//! use swap_knot_sdl3::{Adapter, now};
//!
//! # fn main() -> Result<(), Box<dyn std::error::Error>> {
//! # let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"pad:north\"")?;
//! # let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
//! let sdl = sdl3::init()?;
//! let mut pump = sdl.event_pump()?;
//! let mut adapter = Adapter::new(&sdl.gamepad()?, &sdl.joystick()?);
//! loop {
//!     adapter.events(pump.poll_iter(), |e| seat.feed(&e));
//!     seat.tick(now());
//!     # break;
//! }
//! # Ok(())
//! # }
//! ```
//!
//! Not told by the crate `sdl3`, and so not here: mouse buttons beyond the fifth.

mod keys;
mod pads;
mod raw;

use std::time::Duration;

use sdl3::event::{Event as Theirs, WindowEvent};
use sdl3::mouse::{MouseButton as TheirButton, MouseWheelDirection};
use sdl3::{GamepadSubsystem, JoystickSubsystem};
use swap_knot::input::{MouseFinger, StillDown, TouchZones};
use swap_knot::{DeviceId, Event, EventKind, MouseButton, Time};

pub use keys::place;
pub use pads::{CannotOpen, RumbleError, pad_button};
pub use raw::now;

use pads::Pads;

/// The keyboard; SDL's windows do not tell several apart.
pub const KEYBOARD: DeviceId = DeviceId(0);
/// The mouse; several are one.
pub const MOUSE: DeviceId = DeviceId(1);
/// The touch screen.
pub const TOUCH: DeviceId = DeviceId(2);

/// Which SDL gives to a mouse that is a finger in truth (`SDL_TOUCH_MOUSEID`), or a pen.
const NO_MOUSE: [u32; 2] = [u32::MAX, u32::MAX - 1];
/// Which it gives to a finger that is the mouse in truth (`SDL_MOUSE_TOUCHID`).
const NO_FINGER: u64 = u64::MAX;

/// So long after the focus came back, in nanoseconds, SDL tells of what is held already: as pressed.
const STILL_HELD: u64 = 2_000_000;

/// Translates SDL's events; opens the pads that come, and keeps what is down.
#[derive(Default)]
pub struct Adapter {
    /// The zones and on-screen sticks of the game; none to begin with. They are laid out in the units
    /// of [`Adapter::set_size`].
    pub zones: TouchZones,
    /// The mouse as a finger, for trying the zones at a desk: off to begin with. The zones are laid out in
    /// the window's points then.
    pub mouse_finger: MouseFinger,
    size: Size,
    down: StillDown,
    pads: Pads,
    /// When the focus came back, in SDL's nanoseconds.
    gained: Option<u64>,
}

/// How large the window is, in the units that zones are laid out in.
struct Size([f32; 2]);

impl Default for Size {
    fn default() -> Self {
        Size([1.0; 2])
    }
}

impl Adapter {
    /// An adapter that opens whatever pads and other controllers SDL tells of.
    pub fn new(gamepads: &GamepadSubsystem, joysticks: &JoystickSubsystem) -> Adapter {
        Adapter {
            pads: Pads::new(gamepads, joysticks),
            ..Adapter::default()
        }
    }

    /// An adapter that opens none: for a game that opens its pads itself.
    pub fn without_opening() -> Adapter {
        Adapter::default()
    }

    /// How large the window is, in the units that the zones are laid out in; 1 by 1 to begin with,
    /// which is SDL's own way. A window that is resized says so by itself, in its own points.
    pub fn set_size(&mut self, size: [f32; 2]) {
        let fits = |v: f32| v.is_finite() && v > 0.0;
        if size.into_iter().all(fits) {
            self.size = Size(size);
            self.zones.set_screen(size);
        }
    }

    /// Translates all that came since the last frame and hands what it means to `feed`, in order and
    /// with the time at which SDL saw it: tick with [`now`], which counts from the same moment.
    ///
    /// When a window loses the focus, SDL first says of every key that it came up, which the player
    /// did not do: the loss is told before these. When a pad is pulled out, SDL first says that it rests:
    /// that is left out, since what it held was not let go.
    pub fn events(
        &mut self,
        events: impl IntoIterator<Item = Theirs>,
        mut feed: impl FnMut(Event),
    ) {
        let mut events: Vec<Theirs> = events.into_iter().collect();
        pads::drop_recentring(&mut events);
        let is_up = |e: &Theirs| matches!(e, Theirs::KeyUp { .. });
        for at in 0..events.len() {
            if is_loss(&events[at]) {
                let before = events[..at].iter().rev().take_while(|e| is_up(e)).count();
                events[at - before..=at].rotate_right(1);
            }
        }
        for event in &events {
            let at = Time::from_micros(event.get_timestamp() / 1000);
            self.event(event, at, &mut feed);
        }
    }

    /// Translates one event, at a time of the game's own; see [`Adapter::events`].
    ///
    /// - Keys come with their place and, going down, with the character that they type; beside that
    ///   with what they type by themselves ([`EventKind::KeyTypes`]).
    /// - A key that SDL finds held when the focus comes back is told as [`EventKind::KeyHeld`].
    /// - The left mouse button is a finger where [`Adapter::mouse_finger`] is on, and no mouse button then,
    ///   and the mouse does not move.
    /// - Auto-repeat is left out, and so is a mouse that SDL makes of a finger, or a finger that it
    ///   makes of the mouse.
    /// - A lost focus is told of keyboard, mouse and touch, and then that all of it is up, since nobody
    ///   tells of it later. Pads are heard without the focus where SDL lets them.
    /// - The wheel comes in notches and fractions of them, as the player turns it.
    /// - Pads say by which USB numbers they are known; a gyroscope is switched on and tells by how many
    ///   degrees the pad was turned.
    /// - A controller that SDL has no mapping for comes by its numbers, as `hid:` inputs: axes in the
    ///   order in which SDL has them, buttons from 1.
    pub fn event(&mut self, event: &Theirs, at: Time, mut feed: impl FnMut(Event)) {
        let mut tell = |device, what| feed(Event { at, device, what });
        match event {
            Theirs::KeyDown {
                scancode: Some(scancode),
                keymod,
                repeat: false,
                ..
            } => {
                if let Some(place) = place(*scancode) {
                    let text = keys::typed(*scancode, *keymod);
                    let (down, device) = (true, KEYBOARD);
                    let what = EventKind::Key { place, down, text };
                    self.down.note(device, what);
                    let since = |then: u64| event.get_timestamp().saturating_sub(then);
                    if self.gained.is_some_and(|then| since(then) < STILL_HELD) {
                        tell(device, EventKind::KeyHeld { place });
                        return;
                    }
                    tell(device, what);
                    if let Some(plain) = raw::legend(*scancode) {
                        tell(device, EventKind::KeyTypes { place, plain });
                    }
                }
            }
            Theirs::KeyUp {
                scancode: Some(scancode),
                ..
            } => {
                if let Some(place) = place(*scancode) {
                    let (down, text) = (false, None);
                    let what = EventKind::Key { place, down, text };
                    self.down.note(KEYBOARD, what);
                    tell(KEYBOARD, what);
                }
            }
            Theirs::MouseMotion {
                which,
                x,
                y,
                xrel,
                yrel,
                ..
            } if is_mouse(*which) => {
                let moved = self.mouse_finger.point([*x, *y], &mut self.zones);
                moved.into_iter().for_each(|what| tell(TOUCH, what));
                if self.mouse_finger.is_on() {
                    return;
                }
                // Screens count downwards, Swap Knot upwards.
                let (x, y) = (*xrel, -*yrel);
                tell(MOUSE, EventKind::MouseMove { x, y });
            }
            Theirs::MouseButtonDown {
                which, mouse_btn, ..
            } if is_mouse(*which) => self.click(*mouse_btn, true, tell),
            Theirs::MouseButtonUp {
                which, mouse_btn, ..
            } if is_mouse(*which) => self.click(*mouse_btn, false, tell),
            Theirs::MouseWheel {
                which,
                x,
                y,
                direction,
                ..
            } if is_mouse(*which) => {
                let turned = match direction {
                    MouseWheelDirection::Flipped => -1.0,
                    _ => 1.0,
                };
                let (x, y) = (x * turned, y * turned);
                tell(MOUSE, EventKind::Scroll { x, y });
            }
            Theirs::FingerDown {
                touch_id,
                finger_id,
                x,
                y,
                ..
            } if *touch_id != NO_FINGER => {
                let (finger, at) = self.finger(*touch_id, *finger_id, [*x, *y]);
                self.zones
                    .down(finger, at)
                    .for_each(|what| tell(TOUCH, what));
            }
            Theirs::FingerMotion {
                touch_id,
                finger_id,
                x,
                y,
                ..
            } if *touch_id != NO_FINGER => {
                let (finger, at) = self.finger(*touch_id, *finger_id, [*x, *y]);
                let moved = self.zones.moved(finger, at);
                moved.into_iter().for_each(|what| tell(TOUCH, what));
            }
            Theirs::FingerUp {
                touch_id,
                finger_id,
                ..
            } if *touch_id != NO_FINGER => {
                let (finger, _) = self.finger(*touch_id, *finger_id, [0.0; 2]);
                let up = self.zones.up(finger);
                up.into_iter().for_each(|what| tell(TOUCH, what));
            }
            Theirs::Window { win_event, .. } => match win_event {
                WindowEvent::FocusLost => self.gap(at, feed),
                WindowEvent::FocusGained => self.gained = Some(event.get_timestamp()),
                WindowEvent::Resized(width, height) => {
                    self.set_size([*width as f32, *height as f32]);
                }
                _ => {}
            },
            other => self.pads.event(other, tell),
        }
    }

    /// Nothing was heard for a while, or the focus is gone: whatever was down then may have come up
    /// since, and nobody tells of it later. Call it when events are fed again.
    pub fn gap(&mut self, at: Time, mut feed: impl FnMut(Event)) {
        for device in [KEYBOARD, MOUSE, TOUCH] {
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

    /// What every key of the player's keyboard types by itself, as SDL knows it: hand it to a learner
    /// before the first frame, and again when the layout is changed (`SDL_EVENT_KEYMAP_CHANGED`).
    /// Wants SDL's video to be there.
    pub fn legends(&self, at: Time, mut feed: impl FnMut(Event)) {
        for (place, plain) in keys::legends() {
            let (device, what) = (KEYBOARD, EventKind::KeyTypes { place, plain });
            feed(Event { at, device, what });
        }
    }

    /// The pads and other controllers that came since this was last asked and cannot be opened: nothing
    /// is heard of them, and a game tells the player so.
    pub fn refused(&mut self) -> Vec<CannotOpen> {
        std::mem::take(&mut self.pads.refused)
    }

    /// Has a pad rumble for a while: the heavy motor and the light one, 0 to 1 each. The device that is
    /// in use is told by [`Seat::last_used`](swap_knot::Seat::last_used).
    ///
    /// # Errors
    /// When there is no pad of that number, or it cannot rumble.
    pub fn rumble(
        &mut self,
        device: DeviceId,
        [heavy, light]: [f32; 2],
        time: Duration,
    ) -> Result<(), RumbleError> {
        self.pads.rumble(device, [heavy, light], time)
    }

    fn click(
        &mut self,
        button: TheirButton,
        down: bool,
        mut tell: impl FnMut(DeviceId, EventKind),
    ) {
        if let Some(button) = mouse_button(button) {
            let touched = self.mouse_finger.press(button, down, &mut self.zones);
            if let Some(touched) = touched {
                touched.for_each(|what| tell(TOUCH, what));
                return;
            }
            let what = EventKind::MouseButton { button, down };
            self.down.note(MOUSE, what);
            tell(MOUSE, what);
        }
    }

    /// A finger among those of several screens, and where it is.
    fn finger(&self, screen: u64, finger: u64, [x, y]: [f32; 2]) -> (u64, [f32; 2]) {
        let Size([width, height]) = self.size;
        (finger ^ screen.rotate_left(32), [x * width, y * height])
    }
}

fn is_mouse(which: u32) -> bool {
    !NO_MOUSE.contains(&which)
}

fn is_loss(event: &Theirs) -> bool {
    matches!(
        event,
        Theirs::Window {
            win_event: WindowEvent::FocusLost,
            ..
        }
    )
}

/// The button of a mouse, where the crate `sdl3` tells which it is.
pub fn mouse_button(button: TheirButton) -> Option<MouseButton> {
    Some(match button {
        TheirButton::Left => MouseButton::Left,
        TheirButton::Right => MouseButton::Right,
        TheirButton::Middle => MouseButton::Middle,
        TheirButton::X1 => MouseButton::Back,
        TheirButton::X2 => MouseButton::Forward,
        TheirButton::Unknown => return None,
    })
}
