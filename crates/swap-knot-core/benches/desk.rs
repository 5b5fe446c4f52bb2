//! A trace as it comes from a desk, played through a careful hand-written version and through Swap
//! Knot, as ratios: a 1 kHz mouse, two sticks, two triggers, keys with chords and a hold, several
//! bindings per action, key repeats, two devices, 144 ticks a second; at each tick every press, value,
//! movement, the hold's progress and the device kind are asked for.
//!
//! `cargo bench -p swap-knot-core --bench desk`. Rounds are interleaved and medians compared. Presses
//! and sums have to agree, or the bench stops. With the argument `count KIND WAY` it plays one way
//! once, for a tool that counts instructions; see `scripts/count`.

#![allow(missing_docs, clippy::unwrap_used, clippy::panic)]

use std::hint::black_box;
use std::time::{Duration, Instant};

use swap_knot::sheet::ActionId;
use swap_knot::{
    DeviceId, DeviceKind, Event, EventKind, Layout, PadButton, Place, Profile, Rig, Seat, Sheet,
    Stick, Time,
};

const SECONDS: u64 = 60;
const TICK: u64 = 1_000_000 / 144;
const ROUNDS: usize = 15;

const SHEET: &str = r#"
game = "desk"
[actions.walk]
shape = "plane"
bind = "pad:stick-left"
up = { bind = ["KeyW", "ArrowUp"] }
down = { bind = ["KeyS", "ArrowDown"] }
left = { bind = ["KeyA", "ArrowLeft"] }
right = { bind = ["KeyD", "ArrowRight"] }
[actions.look]
shape = "plane"
bind = ["mouse:move", "pad:stick-right"]
feel.gamepad = { curve = 2 }
[actions.throttle]
shape = "pull"
bind = ["KeyT", "pad:trigger-right"]
[actions.brake]
shape = "pull"
bind = ["KeyG", "pad:trigger-left"]
[actions.horn]
bind = ["KeyH", "pad:north"]
[actions.haul]
bind = ["Space", "pad:south"]
[actions.coil]
manner = "hold"
hold-after = 0.2
bind = ["KeyE", "pad:west"]
[actions.tool-1]
bind = "Digit1"
[actions.tool-2]
bind = "Digit2"
[actions.stow-1]
bind = "Ctrl+Digit1"
[actions.stow-2]
bind = "Ctrl+Digit2"
[actions.hurry]
bind = ["ShiftLeft", "pad:stick-left-click"]
[actions.lamp]
toggle = true
bind = "KeyL"
"#;
/// The presses of the sheet, in its order, after the first four actions.
const PRESSES: usize = 9;
const COIL: usize = 2;

fn main() {
    let sheet = Sheet::from_toml(SHEET).unwrap();
    let kinds: [(&str, [u64; 4]); 5] = [
        ("mixed", [1_000, 2_000, 4_000, 30_000]),
        ("mouse", [1_000, 0, 0, 0]),
        ("sticks", [0, 2_000, 0, 0]),
        ("triggers", [0, 0, 2_000, 0]),
        ("keys", [0, 0, 0, 2_000]),
    ];
    let args: Vec<String> = std::env::args().collect();
    if let [_, word, kind, way] = &args[..]
        && word == "count"
    {
        let (_, every) = kinds.iter().find(|(name, _)| name == kind).unwrap();
        let trace = trace(*every);
        let sum = match way.as_str() {
            // What it takes to begin with: the trace itself.
            "none" => Seen::default(),
            "hand" => hand_written(&trace),
            _ => swap_knot(&trace, &sheet),
        };
        println!("{} events, {sum:?}", trace.len());
        return;
    }
    println!("{SECONDS} s at 144 ticks a second, median of {ROUNDS} rounds (wanted: at most 2.0)");
    for (name, every) in kinds {
        let trace = trace(every);
        let (hand, knot) = (hand_written(&trace), swap_knot(&trace, &sheet));
        hand.compare(&knot, name);
        let mut times = [Vec::new(), Vec::new()];
        for _ in 0..ROUNDS {
            times[0].push(timed(|| hand_written(&trace)));
            times[1].push(timed(|| swap_knot(&trace, &sheet)));
        }
        let [hand, knot] = times.map(|mut t| {
            t.sort_unstable();
            t[t.len() / 2].as_secs_f64() * 1e9 / trace.len() as f64
        });
        println!(
            "  {name:<9} {:>7} events   by hand {hand:5.1} ns an event   Swap Knot {knot:5.1}   {:4.2} x",
            trace.len(),
            knot / hand
        );
    }
}

fn timed(what: impl Fn() -> Seen) -> Duration {
    let start = Instant::now();
    black_box(what());
    start.elapsed()
}

/// What was to be seen over all ticks.
#[derive(Debug, Default, PartialEq, Eq)]
struct Seen {
    down: u64,
    began: u64,
    ended: u64,
    values: i64,
}

impl Seen {
    fn press(&mut self, n: usize, [down, began, ended]: [bool; 3]) {
        let weight = n as u64 + 1;
        self.down += weight * u64::from(down);
        self.began += weight * u64::from(began);
        self.ended += weight * u64::from(ended);
    }

    /// Presses are the same; values may be rounded otherwise now and then.
    fn compare(&self, other: &Seen, kind: &str) {
        let presses = |s: &Seen| (s.down, s.began, s.ended);
        let apart = (self.values - other.values).abs();
        assert!(
            presses(self) == presses(other) && apart < 100,
            "they do not agree on {kind}: {self:?}, {other:?}"
        );
    }

    fn value(&mut self, v: f32) {
        self.values += (v * 1024.0) as i64;
    }
}

/// Events of each kind, one every so many microseconds: mouse, sticks, triggers, keys and buttons.
fn trace(every: [u64; 4]) -> Vec<Event> {
    let mut state = 0x2545_F491_4F6C_DD1D_u64;
    let mut random = || {
        state ^= state << 13;
        state ^= state >> 7;
        state ^= state << 17;
        state
    };
    use Place::{
        ArrowUp, ControlLeft, Digit1, Digit2, KeyA, KeyD, KeyE, KeyG, KeyH, KeyL, KeyS, KeyT, KeyW,
        ShiftLeft, Space,
    };
    let keys = [
        KeyW,
        KeyA,
        KeyS,
        KeyD,
        ArrowUp,
        KeyT,
        KeyG,
        KeyH,
        Space,
        KeyE,
        Digit1,
        Digit2,
        ControlLeft,
        ShiftLeft,
        KeyL,
    ];
    let buttons = [PadButton::North, PadButton::South, PadButton::West];
    let mut down = [false; 18];
    let mut at = [[0.0_f32; 2]; 2];
    let mut pulled = [0.0_f32; 2];
    let mut out = Vec::new();
    for now in (0..SECONDS * 1_000_000).step_by(125) {
        let due = |n: usize| every[n] != 0 && now % every[n] == 0;
        let mut push = |device, what| {
            let (at, device) = (Time::from_micros(now), DeviceId(device));
            out.push(Event { at, device, what });
        };
        if due(0) {
            let [x, y] = [random() % 9, random() % 9].map(|v| v as f32 - 4.0);
            push(0, EventKind::MouseMove { x, y });
        }
        if due(1) {
            for (stick, at) in [Stick::LEFT, Stick::RIGHT].into_iter().zip(&mut at) {
                for v in at.iter_mut() {
                    *v = (*v + (random() % 61) as f32 / 1000.0 - 0.03).clamp(-1.0, 1.0);
                }
                let [x, y] = *at;
                push(1, EventKind::PadStick { stick, x, y });
            }
        }
        if due(2) {
            let both = [PadButton::TriggerLeft, PadButton::TriggerRight];
            for (button, value) in both.into_iter().zip(&mut pulled) {
                *value = (*value + (random() % 61) as f32 / 1000.0 - 0.03).clamp(0.0, 1.0);
                let value = *value;
                push(1, EventKind::PadButton { button, value });
            }
        }
        if due(3) {
            let which = random() as usize % down.len();
            down[which] = !down[which];
            let is = down[which];
            match keys.get(which) {
                Some(&place) => {
                    let what = EventKind::Key {
                        place,
                        down: is,
                        text: None,
                    };
                    // The system repeats what is held.
                    for _ in 0..=(random() % 3) {
                        push(0, what);
                    }
                }
                None => push(
                    1,
                    EventKind::PadButton {
                        button: buttons[which - keys.len()],
                        value: f32::from(u8::from(is)),
                    },
                ),
            }
        }
    }
    out
}

fn swap_knot(trace: &[Event], sheet: &Sheet) -> Seen {
    let mut seat = Seat::new(Rig::new(sheet, &Profile::default(), &Layout::us()));
    let ids: Vec<ActionId> = sheet.actions().map(|(id, _)| id).collect();
    let [walk, look, throttle, brake] = [ids[0], ids[1], ids[2], ids[3]];
    let presses = &ids[4..];
    let mut seen = Seen::default();
    let mut next = 0;
    for tick in 1..=SECONDS * 1_000_000 / TICK {
        let now = Time::from_micros(tick * TICK);
        while next < trace.len() && trace[next].at <= now {
            seat.feed(&trace[next]);
            next += 1;
        }
        seat.tick(now);
        for (n, &id) in presses.iter().enumerate() {
            seen.press(n, [seat.is_down(id), seat.went_down(id), seat.went_up(id)]);
        }
        for v in seat.plane(walk).into_iter().chain(seat.plane(look)) {
            seen.value(v);
        }
        let [x, y, _] = seat.motion(look);
        seen.value(x);
        seen.value(y);
        seen.value(seat.value(throttle));
        seen.value(seat.value(brake));
        seen.value(seat.hold_progress(presses[COIL]));
        seen.down += seat.device_kind() as u64;
    }
    seen
}

/// What a good engineer writes for this one game: raw values at the event, shaped once a tick.
struct Hand {
    keys: [bool; 16],
    /// What is down, so that repeats are none: by place, and by button of the pad.
    places: Vec<bool>,
    buttons: [bool; 32],
    /// Which way each stick and trigger counts as pressed, for the device kind.
    tilted: [[bool; 4]; 2],
    pulled: [bool; 2],
    kind: DeviceKind,
    moving: (u64, f32),
    count: [u8; PRESSES],
    began: [bool; PRESSES],
    ended: [bool; PRESSES],
    sticks: [[f32; 2]; 2],
    triggers: [f32; 2],
    motion: [f32; 2],
    /// When each input of the hold went down.
    coil: [Option<u64>; 2],
    coil_on: [bool; 2],
    tools: [bool; 2],
    stows: [bool; 2],
    lamp: bool,
}

const UP: usize = 0;
const LEFT: usize = 1;
const BACK: usize = 2;
const RIGHT: usize = 3;
const ARROW: usize = 4;
const THROTTLE: usize = 5;
const BRAKE: usize = 6;
const CTRL: usize = 7;

impl Hand {
    /// Whether something went past the middle of its way now; it is back at 0.4.
    fn tilt(was: &mut bool, far: f32) -> bool {
        let is = if *was { far > 0.4 } else { far >= 0.5 };
        is && !std::mem::replace(was, is)
    }

    fn stick(&mut self, n: usize, [x, y]: [f32; 2]) {
        self.sticks[n] = [x, y];
        let mut meant = false;
        for (was, far) in self.tilted[n].iter_mut().zip([y, -y, -x, x]) {
            let is = if *was { far > 0.4 } else { far >= 0.5 };
            meant |= is && !*was;
            *was = is;
        }
        if meant {
            self.kind = DeviceKind::Gamepad;
        }
    }

    fn trigger(&mut self, n: usize, value: f32) {
        self.triggers[n] = value;
        if Self::tilt(&mut self.pulled[n], value) {
            self.kind = DeviceKind::Gamepad;
        }
        self.pulled[n] &= value > 0.4;
    }

    fn mouse(&mut self, [x, y]: [f32; 2], at: u64) {
        self.motion[0] += x;
        self.motion[1] += y;
        if self.kind == DeviceKind::Mouse {
            return;
        }
        let (since, far) = self.moving;
        self.moving = match at > since + 400_000 {
            true => (at, 0.0),
            false => (since, far + x.abs() + y.abs()),
        };
        if self.moving.1 > 30.0 && self.kind != DeviceKind::Keyboard {
            self.kind = DeviceKind::Mouse;
        }
    }

    fn on(&mut self, n: usize) {
        self.count[n] += 1;
        self.began[n] |= self.count[n] == 1;
    }

    fn off(&mut self, n: usize) {
        self.count[n] -= 1;
        self.ended[n] |= self.count[n] == 0;
    }

    fn press(&mut self, n: usize, down: bool) {
        if down { self.on(n) } else { self.off(n) }
    }

    fn hold(&mut self, by: usize, down: bool, now: u64) {
        if down {
            self.coil[by] = Some(now);
        } else {
            self.coil[by] = None;
            if std::mem::take(&mut self.coil_on[by]) {
                self.off(COIL);
            }
        }
    }

    fn holds_due(&mut self, now: u64) {
        for by in 0..2 {
            if let Some(since) = self.coil[by]
                && now >= since + 200_000
            {
                self.coil[by] = None;
                self.coil_on[by] = true;
                self.on(COIL);
            }
        }
    }

    fn digit(&mut self, n: usize, down: bool) {
        if down {
            match self.keys[CTRL] {
                true => {
                    self.stows[n] = true;
                    self.on(5 + n);
                }
                false => {
                    self.tools[n] = true;
                    self.on(3 + n);
                }
            }
        } else {
            if std::mem::take(&mut self.stows[n]) {
                self.off(5 + n);
            }
            if std::mem::take(&mut self.tools[n]) {
                self.off(3 + n);
            }
        }
    }

    fn key(&mut self, place: Place, down: bool, now: u64) {
        match place {
            Place::KeyW => self.keys[UP] = down,
            Place::KeyA => self.keys[LEFT] = down,
            Place::KeyS => self.keys[BACK] = down,
            Place::KeyD => self.keys[RIGHT] = down,
            Place::ArrowUp => self.keys[ARROW] = down,
            Place::KeyT => self.keys[THROTTLE] = down,
            Place::KeyG => self.keys[BRAKE] = down,
            Place::KeyH => self.press(0, down),
            Place::Space => self.press(1, down),
            Place::KeyE => self.hold(0, down, now),
            Place::Digit1 => self.digit(0, down),
            Place::Digit2 => self.digit(1, down),
            Place::ControlLeft => {
                self.keys[CTRL] = down;
                for n in 0..2 {
                    if !down && std::mem::take(&mut self.stows[n]) {
                        self.off(5 + n);
                    }
                }
            }
            Place::ShiftLeft => self.press(7, down),
            Place::KeyL if down => {
                self.lamp = !self.lamp;
                self.press(8, self.lamp);
            }
            _ => {}
        }
    }
}

fn shaped([x, y]: [f32; 2], curve: bool) -> [f32; 2] {
    let length = x.hypot(y);
    if length <= 0.15 {
        return [0.0; 2];
    }
    let cut = ((length - 0.15) / 0.85).min(1.0);
    let wanted = if curve { cut * cut } else { cut };
    [x * (wanted / length), y * (wanted / length)]
}

fn hand_written(trace: &[Event]) -> Seen {
    let mut hand = Hand {
        keys: [false; 16],
        places: vec![false; 256],
        buttons: [false; 32],
        tilted: [[false; 4]; 2],
        pulled: [false; 2],
        kind: DeviceKind::Keyboard,
        moving: (0, 0.0),
        count: [0; PRESSES],
        began: [false; PRESSES],
        ended: [false; PRESSES],
        sticks: [[0.0; 2]; 2],
        triggers: [0.0; 2],
        motion: [0.0; 2],
        coil: [None; 2],
        coil_on: [false; 2],
        tools: [false; 2],
        stows: [false; 2],
        lamp: false,
    };
    let mut seen = Seen::default();
    let mut next = 0;
    for tick in 1..=SECONDS * 1_000_000 / TICK {
        let now = tick * TICK;
        while next < trace.len() && trace[next].at.as_micros() <= now {
            let event = &trace[next];
            next += 1;
            let at = event.at.as_micros();
            match event.what {
                EventKind::MouseMove { x, y } => hand.mouse([x, y], at),
                EventKind::PadStick { stick, x, y } => {
                    hand.stick(usize::from(stick == Stick::RIGHT), [x, y]);
                }
                EventKind::PadButton { button, value } => match button {
                    PadButton::TriggerLeft => hand.trigger(0, value),
                    PadButton::TriggerRight => hand.trigger(1, value),
                    _ => {
                        let down = value >= 0.5;
                        if std::mem::replace(&mut hand.buttons[button as usize], down) == down {
                            continue;
                        }
                        if down {
                            hand.kind = DeviceKind::Gamepad;
                        }
                        hand.holds_due(at);
                        match button {
                            PadButton::North => hand.press(0, value >= 0.5),
                            PadButton::South => hand.press(1, value >= 0.5),
                            PadButton::West => hand.hold(1, value >= 0.5, at),
                            _ => {}
                        }
                    }
                },
                EventKind::Key { place, down, .. } => {
                    if std::mem::replace(&mut hand.places[place as usize], down) == down {
                        continue;
                    }
                    if down {
                        hand.kind = DeviceKind::Keyboard;
                    }
                    hand.holds_due(at);
                    hand.key(place, down, at);
                }
                _ => {}
            }
        }
        hand.holds_due(now);
        for n in 0..PRESSES {
            seen.press(n, [hand.count[n] > 0, hand.began[n], hand.ended[n]]);
        }
        hand.began = [false; PRESSES];
        hand.ended = [false; PRESSES];
        let along =
            |plus: bool, minus: bool| f32::from(u8::from(plus)) - f32::from(u8::from(minus));
        let keys = &hand.keys;
        let mut walk = [
            along(keys[RIGHT], keys[LEFT]),
            along(keys[UP] || keys[ARROW], keys[BACK]),
        ];
        let mut length = (walk[0] * walk[0] + walk[1] * walk[1]).sqrt();
        if length > 1.0 {
            walk = walk.map(|v| v / length);
            length = 1.0;
        }
        let stick = shaped(hand.sticks[0], false);
        if stick[0].hypot(stick[1]) > length + 1e-5 {
            walk = stick;
        }
        for v in walk.into_iter().chain(shaped(hand.sticks[1], true)) {
            seen.value(v);
        }
        seen.value(hand.motion[0]);
        seen.value(hand.motion[1]);
        hand.motion = [0.0; 2];
        let pulled = |v: f32| ((v - 0.15) / 0.85).clamp(0.0, 1.0);
        let key = |n: usize| f32::from(u8::from(keys[n]));
        seen.value(pulled(hand.triggers[1]).max(key(THROTTLE)));
        seen.value(pulled(hand.triggers[0]).max(key(BRAKE)));
        let gone = |since: Option<u64>| since.map_or(0.0, |s| (now - s) as f32 / 200_000.0);
        let progress = match hand.count[COIL] > 0 {
            true => 1.0,
            false => gone(hand.coil[0]).max(gone(hand.coil[1])).min(1.0),
        };
        seen.value(progress);
        seen.down += hand.kind as u64;
    }
    seen
}
