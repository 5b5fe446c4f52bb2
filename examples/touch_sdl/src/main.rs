//! A small deck in a window of SDL's: worked with keys, a pad, or on-screen buttons and a stick.
//!
//! `cargo run --manifest-path apart/Cargo.toml -p touch_sdl --features bundled -- [--mouse-finger]
//! [--profiles DIR]`. The on-screen controls are there for who plays with fingers; with
//! `--mouse-finger` the mouse is one. Escape leaves.

mod deck;
mod draw;

use std::error::Error;

use sdl3::event::{Event as Theirs, WindowEvent};
use sdl3::keyboard::Scancode;
use swap_knot::input::{TouchName, TouchZones};
use swap_knot::prompt::Marks;
use swap_knot::{Controls, DeviceKind, Layout, Locker, Sheet, Slug, Words};
use swap_knot_sdl3::{Adapter, now};

const SHEET: &str = include_str!("../../../demo/slack-water.toml");
const TEXTS: &str = include_str!("../../../demo/texts/en.ftl");
const MARKS: &str = include_str!("../../../demo/marks.toml");
const SIZE: [f32; 2] = [1280.0, 800.0];

fn main() -> Result<(), Box<dyn Error>> {
    let args: Vec<String> = std::env::args().skip(1).collect();
    let sheet = Sheet::from_toml_named(SHEET, "demo/slack-water.toml")?;
    let folder = args.iter().skip_while(|a| *a != "--profiles").nth(1);
    let locker = match folder {
        Some(folder) => Locker::open(folder)?,
        None => Locker::of_user(&sheet)?,
    };
    let skipper = Slug::from_title("skipper");
    let mut controls = Controls::open_last(&sheet, locker, &skipper, Layout::us());
    controls.set_words(&Words::english().with_texts(TEXTS, "demo/texts/en.ftl")?);
    controls.set_marks(&Marks::from_toml(MARKS, "demo/marks.toml")?);
    let deck = sheet.find_situation("deck").ok_or("there is a deck")?;
    controls.seat_mut().set_situations(&[deck]);

    let sdl = sdl3::init()?;
    let video = sdl.video()?;
    let mut window = video.window("Slack Water", SIZE[0] as u32, SIZE[1] as u32);
    let window = window.position(0, 0).resizable().build()?;
    let mut canvas = window.into_canvas();
    let mut pump = sdl.event_pump()?;
    let mut adapter = Adapter::new(&sdl.gamepad()?, &sdl.joystick()?);
    let by_mouse = args.iter().any(|a| a == "--mouse-finger");
    let _ = adapter.mouse_finger.switch(by_mouse, &mut adapter.zones);
    adapter.set_size(SIZE);
    lay_out(&mut adapter.zones, SIZE);
    let horn = sheet.find("horn").ok_or("there is a horn")?;
    let mut stage = deck::Deck::new(&sheet).ok_or("the sheet lacks an action of the deck")?;

    loop {
        let events: Vec<Theirs> = pump.poll_iter().collect();
        if events.iter().any(leaves) {
            return Ok(());
        }
        for event in &events {
            if let Theirs::Window {
                win_event: WindowEvent::Resized(wide, high),
                ..
            } = event
            {
                // Laid out anew: what lay under a finger is let go.
                let size = [*wide as f32, *high as f32];
                for what in adapter.zones.clear() {
                    let (at, device) = (now(), swap_knot_sdl3::TOUCH);
                    controls.feed(&swap_knot::Event { at, device, what });
                }
                lay_out(&mut adapter.zones, size);
            }
        }
        adapter.events(events, |event| controls.feed(&event));
        controls.tick(now());
        controls.arrange(&mut adapter.zones);
        for report in controls.take_reports() {
            println!("{}", controls.tell(&report));
        }
        for refused in adapter.refused() {
            println!("{refused}");
        }
        let seat = controls.seat();
        if seat.went_down(horn)
            && let Some(used) = seat.last_used(DeviceKind::Gamepad)
        {
            // A pad that cannot rumble does not.
            let long = std::time::Duration::from_millis(200);
            let _ = adapter.rumble(used.device, [0.4, 0.8], long);
        }
        stage.play(seat);
        let with_fingers = by_mouse || seat.device_kind() == DeviceKind::Touch;
        let prompt = controls.prompt_of("at-deck")?.to_string();
        let touch = controls.touch_view(&adapter.zones);
        draw::frame(&mut canvas, &stage, &prompt, with_fingers.then_some(&touch))?;
    }
}

fn leaves(event: &Theirs) -> bool {
    matches!(
        event,
        Theirs::Quit { .. }
            | Theirs::KeyDown {
                scancode: Some(Scancode::Escape),
                ..
            }
    )
}

/// A stick under the left thumb, buttons under the right one.
fn lay_out(zones: &mut TouchZones, [wide, high]: [f32; 2]) {
    let unit = (wide / 12.0).min(high / 7.0);
    let mut area = |name: &str, from_right: f32| {
        if let Ok(name) = name.parse::<TouchName>() {
            let at = [wide - from_right * unit, high - 1.8 * unit];
            zones.add_area(name, at, [1.6 * unit, 1.4 * unit]);
        }
    };
    area("rope", 2.0);
    area("coil", 3.9);
    if let Ok(name) = "stick".parse() {
        zones.add_stick(name, [1.8 * unit, high - 1.8 * unit], 1.4 * unit);
    }
}
