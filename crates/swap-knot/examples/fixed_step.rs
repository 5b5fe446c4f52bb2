//! A charged throw and a camera in a game with a fixed step, played by a hand at four rates of
//! pictures, then by a bot, then rolled back: `cargo run -p swap-knot --example fixed_step`.

use std::time::Duration;

use swap_knot::input::Simulated;
use swap_knot::play::{Pace, SavedSeat, TurnUnits};
use swap_knot::sheet::ActionId;
use swap_knot::{DeviceId, Event, Layout, Place, Profile, Rig, Seat, Sheet, Stick, Time};

const SHEET: &str = r#"
game = "slack-water"
# The heaving line flies the further, the longer the throw is held, and only when it is let go.
[actions.throw]
bind = ["Space", "pad:trigger-right"]
feel.gamepad.threshold = 0.3
[actions.look]
shape = "plane"
rate = true
bind = ["mouse:move", "pad:stick-right"]
feel.gamepad.sensitivity = 1.5
"#;

/// Sixty steps a second, whatever the screen does.
const STEP: Duration = Duration::from_micros(16_667);
const DEGREES: TurnUnits = TurnUnits {
    a_count: 0.1,
    a_second: 120.0,
};

/// What the game is about, moved on by its steps alone.
#[derive(Clone, Debug, Default, PartialEq)]
struct World {
    heading: f32,
    throws: Vec<Duration>,
}

impl World {
    fn step(&mut self, seat: &Seat, pace: &mut Pace, [throw, look]: [ActionId; 2]) {
        let reading = pace.read(seat);
        self.heading += reading.turn(look, DEGREES)[0];
        // A lost focus or a pulled plug ends the throw as well, but nobody let go.
        if reading.was_let_go(throw) {
            self.throws.push(seat.last_press(throw));
        }
    }
}

/// A hand at keyboard, mouse and pad for two seconds.
fn hand() -> Vec<Event> {
    let (mut keyboard, mut pad) = (Simulated::new(DeviceId(0)), Simulated::new(DeviceId(2)));
    let mut mouse = Simulated::new(DeviceId(1));
    let wait = |device: &mut Simulated, millis| device.wait(Duration::from_millis(millis));
    wait(&mut keyboard, 100);
    let mut events = vec![keyboard.key(Place::Space)];
    wait(&mut keyboard, 420);
    events.push(keyboard.key_up(Place::Space));
    wait(&mut keyboard, 700);
    events.push(keyboard.key(Place::Space));
    wait(&mut keyboard, 200);
    events.push(keyboard.lose_focus());
    wait(&mut pad, 300);
    events.push(pad.tilt(Stick::RIGHT, [1.0, 0.0]));
    wait(&mut pad, 250);
    events.push(pad.tilt(Stick::RIGHT, [0.0, 0.0]));
    for _ in 0..50 {
        wait(&mut mouse, 8);
        events.push(mouse.move_by(2.0, 0.0));
    }
    events.sort_by_key(|event| event.at);
    events
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sheet = Sheet::from_toml(SHEET)?;
    let find = |name: &str| sheet.find(name).ok_or(format!("the sheet has no {name}"));
    let actions = [find("throw")?, find("look")?];
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());

    for rate in [144, 60, 30, 7] {
        let world = play(&rig, actions, rate);
        println!("at {rate:>3} pictures a second: {}", told(&world));
    }

    // A bot takes the same way as a hand.
    let (mut bot, mut pace, mut world) = (Seat::new(rig.clone()), Pace::new(), World::default());
    bot.drive(Time::from_millis(10), actions[0], 1.0);
    bot.drive(Time::from_millis(260), actions[0], 0.0);
    bot.drive_by(Time::from_millis(50), actions[1], [40.0, 0.0, 0.0]);
    let mut now = Time::ZERO;
    for _ in 0..30 {
        now = now.plus(STEP);
        bot.advance(now);
        world.step(&bot, &mut pace, actions);
    }
    println!("the bot: {}", told(&world));

    // A late packet: back by eight steps, and forward again with what it says.
    let (mut seat, mut now) = (Seat::new(rig), Time::ZERO);
    let (mut saved, mut then) = (SavedSeat::new(&seat), (pace.clone(), world.clone()));
    (pace, world) = (Pace::new(), World::default());
    for step in 0..30 {
        if step == 20 {
            saved.save(&seat);
            then = (pace.clone(), world.clone());
        }
        now = now.plus(STEP);
        seat.advance(now);
        world.step(&seat, &mut pace, actions);
    }
    seat.restore(&saved)?;
    (pace, world) = then;
    let mut now = Time::ZERO.plus(STEP * 20);
    seat.drive(now, actions[0], 1.0);
    seat.drive(now.plus(STEP * 4), actions[0], 0.0);
    for _ in 20..30 {
        now = now.plus(STEP);
        seat.advance(now);
        world.step(&seat, &mut pace, actions);
    }
    println!("rolled back: {}", told(&world));
    Ok(())
}

/// Plays the hand at so many pictures a second.
fn play(rig: &Rig, actions: [ActionId; 2], rate: u32) -> World {
    let (mut seat, mut pace, mut world) = (Seat::new(rig.clone()), Pace::new(), World::default());
    let (events, mut next, mut step_end) = (hand(), 0, Time::ZERO);
    for picture in 1..=rate * 2 {
        let now = Time::from(Duration::from_secs(2) * picture / (rate * 2));
        while next < events.len() && events[next].at <= now {
            seat.feed(&events[next]);
            next += 1;
        }
        while step_end.plus(STEP) <= now {
            step_end = step_end.plus(STEP);
            seat.advance(step_end);
            world.step(&seat, &mut pace, actions);
        }
        seat.tick(now); // and whatever the picture asks
    }
    world
}

fn told(world: &World) -> String {
    let throws: Vec<String> = (world.throws.iter())
        .map(|t| format!("{:.2} s", t.as_secs_f32()))
        .collect();
    format!(
        "turned {:.1} degrees, thrown after {}",
        world.heading,
        throws.join(", ")
    )
}
