//! Virtual pads that are real ones to SDL, and a player who has them in hand.

#![allow(unsafe_code, clippy::unwrap_used)]

use std::ffi::CString;
use std::sync::atomic::{AtomicU32, AtomicUsize, Ordering};
use std::sync::{Mutex, MutexGuard};
use std::time::Duration;

use sdl3::sys::joystick as sys;
use sdl3::sys::sensor::{SDL_SENSOR_GYRO, SDL_SensorType};
use swap_knot::keep::Memory;
use swap_knot::play::Happened;
use swap_knot::prompt::Marks;
use swap_knot::{Controls, Event, EventKind, Layout, Locker, Place, Sheet, Slug, Time};
use swap_knot_sdl3::{Adapter, now};

/// SDL is one for the whole process.
static SDL: Mutex<()> = Mutex::new(());
/// How many events of SDL's came in all.
pub(crate) static EVENTS: AtomicUsize = AtomicUsize::new(0);
/// What the motors were told last: heavy and light.
pub(crate) static MOTORS: AtomicU32 = AtomicU32::new(0);

pub(crate) struct Desk {
    pub(crate) controls: Controls,
    pub(crate) sheet: Sheet,
    pub(crate) adapter: Adapter,
    /// What came of the last frame.
    pub(crate) heard: Vec<Event>,
    /// What the actions did in it.
    pub(crate) happened: Vec<Happened>,
    pump: sdl3::EventPump,
    _sdl: sdl3::Sdl,
    _one: MutexGuard<'static, ()>,
}

impl Desk {
    pub(crate) fn new(sheet: &str) -> Desk {
        Desk::of(sheet, Locker::in_store(Memory::new()))
    }

    /// A game that is started, with what is kept of its player.
    pub(crate) fn of(sheet: &str, locker: Locker) -> Desk {
        let one = SDL.lock().unwrap_or_else(|e| e.into_inner());
        sdl3::hint::set("SDL_VIDEO_DRIVER", "dummy");
        // Nobody has the focus here.
        sdl3::hint::set("SDL_JOYSTICK_ALLOW_BACKGROUND_EVENTS", "1");
        let sdl = sdl3::init().unwrap();
        let adapter = Adapter::new(&sdl.gamepad().unwrap(), &sdl.joystick().unwrap());
        let sheet = Sheet::from_toml(sheet).unwrap_or_else(|e| panic!("{e}"));
        let ada = Slug::from_title("Ada");
        let mut controls = Controls::open(&sheet, locker, &ada, Layout::us());
        let marks = include_str!("../../../../demo/marks.toml");
        controls.set_marks(&Marks::from_toml(marks, "marks.toml").unwrap());
        Desk {
            controls,
            sheet,
            adapter,
            heard: Vec::new(),
            happened: Vec::new(),
            pump: sdl.event_pump().unwrap(),
            _sdl: sdl,
            _one: one,
        }
    }

    /// One frame of a game.
    pub(crate) fn frame(&mut self) -> &mut Self {
        std::thread::sleep(Duration::from_millis(2));
        self.heard.clear();
        let events: Vec<_> = self.pump.poll_iter().collect();
        EVENTS.fetch_add(events.len(), Ordering::Relaxed);
        let (controls, heard) = (&mut self.controls, &mut self.heard);
        self.adapter.events(events, |event| {
            heard.push(event);
            controls.feed(&event);
        });
        self.controls.tick(now());
        self.happened = self.controls.seat().happened().to_vec();
        self
    }

    /// Somebody at the keyboard.
    pub(crate) fn key(&mut self, place: Place, down: bool) {
        let (text, device) = (None, swap_knot_sdl3::KEYBOARD);
        let what = EventKind::Key { place, down, text };
        let at = now();
        self.controls.feed(&Event { at, device, what });
        self.frame();
    }

    pub(crate) fn is_down(&self, action: &str) -> bool {
        let row = self.sheet.find_row(action);
        row.is_some_and(|row| self.controls.seat().is_down(row))
    }

    pub(crate) fn prompt(&mut self, text: &str) -> String {
        self.controls.prompt(text).unwrap().to_string()
    }

    /// What was heard of pads, without what says that they are there.
    pub(crate) fn heard_of(&self, pad: swap_knot::DeviceId) -> Vec<swap_knot::EventKind> {
        let own = self.heard.iter().filter(|e| e.device == pad);
        own.map(|e| e.what).collect()
    }
}

/// A device that is made up for SDL and real to it; pulled out when it is dropped.
pub(crate) struct Virtual {
    id: sys::SDL_JoystickID,
    joystick: *mut sys::SDL_Joystick,
}

/// What kind of device is plugged in.
pub(crate) struct Make {
    pub(crate) name: &'static str,
    pub(crate) usb: (u16, u16),
    pub(crate) is_pad: bool,
    pub(crate) axes: u16,
    pub(crate) buttons: u16,
    pub(crate) hats: u16,
}

impl Make {
    /// A pad with all that SDL knows, a gyroscope and motors.
    pub(crate) const fn pad(name: &'static str, usb: (u16, u16)) -> Make {
        Make {
            name,
            usb,
            is_pad: true,
            axes: 6,
            buttons: 26,
            hats: 0,
        }
    }
}

unsafe extern "C" fn rumble(_: *mut std::ffi::c_void, heavy: u16, light: u16) -> bool {
    MOTORS.store(u32::from(heavy) << 16 | u32::from(light), Ordering::Relaxed);
    true
}

impl Virtual {
    pub(crate) fn plug(make: &Make) -> Virtual {
        let name = CString::new(make.name).unwrap();
        let sensor = sys::SDL_VirtualJoystickSensorDesc {
            r#type: SDL_SENSOR_GYRO,
            rate: 250.0,
        };
        let mut desc = sys::SDL_VirtualJoystickDesc::new();
        desc.r#type = match make.is_pad {
            true => sys::SDL_JOYSTICK_TYPE_GAMEPAD.0 as u16,
            false => sys::SDL_JOYSTICK_TYPE_UNKNOWN.0 as u16,
        };
        (desc.vendor_id, desc.product_id) = make.usb;
        (desc.naxes, desc.nbuttons, desc.nhats) = (make.axes, make.buttons, make.hats);
        desc.name = name.as_ptr();
        if make.is_pad {
            (desc.axis_mask, desc.button_mask) = (u32::MAX >> 26, u32::MAX >> 6);
            desc.nsensors = 1;
            desc.sensors = &raw const sensor;
            desc.Rumble = Some(rumble);
        }
        // SAFETY: the description and what it points at live until the call returns, and SDL copies
        // all of it; the joystick is closed before it is detached, both once, in `drop`.
        unsafe {
            let id = sys::SDL_AttachVirtualJoystick(&raw const desc);
            assert_ne!(id.0, 0, "{}", sdl3::get_error());
            let joystick = sys::SDL_OpenJoystick(id);
            assert!(!joystick.is_null(), "{}", sdl3::get_error());
            Virtual { id, joystick }
        }
    }

    pub(crate) fn button(&self, button: i32, down: bool) {
        // SAFETY: the joystick is open as long as `self` lives.
        unsafe { sys::SDL_SetJoystickVirtualButton(self.joystick, button, down) };
    }

    pub(crate) fn axis(&self, axis: i32, value: i16) {
        // SAFETY: as above.
        unsafe { sys::SDL_SetJoystickVirtualAxis(self.joystick, axis, value) };
    }

    pub(crate) fn hat(&self, value: u8) {
        // SAFETY: as above.
        unsafe { sys::SDL_SetJoystickVirtualHat(self.joystick, 0, value) };
    }

    /// Turns with these rates, in radians a second around the axes to the right, up and backwards.
    pub(crate) fn turn(&self, rates: [f32; 3]) {
        let kind: SDL_SensorType = SDL_SENSOR_GYRO;
        let nanos = now().as_micros() * 1000;
        // SAFETY: as above; the three numbers are read before the call returns.
        unsafe {
            sys::SDL_SendJoystickVirtualSensorData(self.joystick, kind, nanos, rates.as_ptr(), 3)
        };
    }
}

impl Drop for Virtual {
    fn drop(&mut self) {
        // SAFETY: opened and attached in `plug`, and nobody uses either after this.
        unsafe {
            sys::SDL_CloseJoystick(self.joystick);
            sys::SDL_DetachVirtualJoystick(self.id);
        }
    }
}

/// The time of now, for what is asked outside of a frame.
pub(crate) fn moment() -> Time {
    now()
}
