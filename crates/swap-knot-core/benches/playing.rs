//! One recorded trace of a million events, played through four ways side by side, as ratios.
//!
//! `cargo bench -p swap-knot --bench playing`. Rounds are interleaved and medians compared, so that
//! a noisy machine disturbs all alike. Every way has to come to the same sum, or the bench stops.

#![allow(missing_docs, clippy::unwrap_used, clippy::panic)]

use std::collections::HashMap;
use std::fmt::Write as _;
use std::hint::black_box;
use std::time::{Duration, Instant};

use swap_knot::sheet::ActionId;
use swap_knot::{
    DeviceId, Event, EventKind, Layout, MouseButton, Place, Profile, Rig, Seat, Sheet, Time,
};

const EVENTS: usize = 1_000_000;
const EVENTS_A_TICK: usize = 8;
const ROUNDS: usize = 9;

/// What the trace presses: the key that works each of twelve actions.
const KEYS: [Place; 10] = [
    Place::KeyW,
    Place::KeyS,
    Place::KeyA,
    Place::KeyD,
    Place::Space,
    Place::KeyE,
    Place::KeyF,
    Place::KeyH,
    Place::KeyQ,
    Place::KeyR,
];
const BUTTONS: [MouseButton; 2] = [MouseButton::Left, MouseButton::Right];
const ACTIONS: usize = KEYS.len() + BUTTONS.len();

fn main() {
    let trace = trace();
    let sheet = sheet(0);
    let ways: [(&str, &dyn Fn() -> u64); 4] = [
        ("hard-wired match", &|| hard_wired(&trace)),
        ("HashMap of actions", &|| table(&trace)),
        ("HashMap of names", &|| names(&trace)),
        ("Swap Knot", &|| swap_knot(&trace, &sheet)),
    ];
    println!("{EVENTS} events, a tick every {EVENTS_A_TICK}, median of {ROUNDS} rounds");
    let medians = measure(&ways);
    let (knot, base) = (medians[3], medians[0]);
    for ((name, _), median) in ways.iter().zip(&medians) {
        let each = median.as_secs_f64() * 1e9 / EVENTS as f64;
        let ratio = median.as_secs_f64() / base.as_secs_f64();
        println!("  {name:<20} {each:6.1} ns an event   {ratio:5.2} x hard-wired");
    }
    let times = |other: Duration| knot.as_secs_f64() / other.as_secs_f64();
    println!(
        "Swap Knot takes {:.2} x the hard-wired match (wanted: at most 2.5)",
        times(base)
    );
    println!(
        "Swap Knot takes {:.2} x the HashMap of actions (wanted: at most 1)",
        times(medians[1])
    );
    println!(
        "dispatch by names takes {:.2} x Swap Knot (wanted: at least 2.5)",
        1.0 / times(medians[2])
    );

    let (small, large) = (self::sheet(50), self::sheet(5000));
    let sizes: [(&str, &dyn Fn() -> u64); 2] = [
        ("50 bindings", &|| swap_knot(&trace, &small)),
        ("5,000 bindings", &|| swap_knot(&trace, &large)),
    ];
    let medians = measure(&sizes);
    let ratio = medians[1].as_secs_f64() / medians[0].as_secs_f64();
    println!("5,000 bindings take {ratio:.2} x as long an event as 50 (wanted: at most 1.3)");
    rigs();
}

/// Making a rig from 1,000 actions against reading the same sheet as TOML.
fn rigs() {
    let text = sheet_text(3000);
    let sheet = Sheet::from_toml(&text).unwrap();
    let (profile, us) = (Profile::default(), Layout::us());
    let read = || text.parse::<toml::Table>().map_or(0, |t| t.len() as u64);
    let whole = || Sheet::from_toml(&text).map_or(0, |s| s.actions().len() as u64);
    let rig = || Rig::new(&sheet, &profile, &us).bindings().len() as u64;
    let ways: [(&str, &dyn Fn() -> u64); 3] = [("toml", &read), ("sheet", &whole), ("rig", &rig)];
    let medians = rounds(&ways);
    let ratio = |i: usize| medians[i].as_secs_f64() / medians[0].as_secs_f64();
    println!(
        "{} actions: reading and checking the sheet takes {:.2} x, making a rig {:.2} x, both {:.2} x the time toml takes to read it (wanted: at most 3)",
        sheet.actions().len(),
        ratio(1),
        ratio(2),
        ratio(1) + ratio(2),
    );
}

/// The median time of each way, in interleaved rounds.
fn measure(ways: &[(&str, &dyn Fn() -> u64)]) -> Vec<Duration> {
    let sums: Vec<u64> = ways.iter().map(|(_, way)| black_box(way())).collect();
    assert!(
        sums.iter().all(|s| *s == sums[0]),
        "they do not agree: {sums:?}"
    );
    rounds(ways)
}

fn rounds(ways: &[(&str, &dyn Fn() -> u64)]) -> Vec<Duration> {
    let mut times = vec![Vec::new(); ways.len()];
    for _ in 0..ROUNDS {
        for ((_, way), times) in ways.iter().zip(&mut times) {
            let start = Instant::now();
            black_box(way());
            times.push(start.elapsed());
        }
    }
    times
        .into_iter()
        .map(|mut t| {
            t.sort_unstable();
            t[t.len() / 2]
        })
        .collect()
}

/// Keys and buttons going down and up in no order, each device event once, as from a player with
/// a hundred fingers; the same every time.
fn trace() -> Vec<Event> {
    let mut state = 0x2545_F491_4F6C_DD1D_u64;
    let mut down = [false; ACTIONS];
    let mut out = Vec::with_capacity(EVENTS);
    for i in 0..EVENTS {
        state ^= state << 13;
        state ^= state >> 7;
        state ^= state << 17;
        let which = (state >> 33) as usize % ACTIONS;
        down[which] = !down[which];
        let down = down[which];
        let (device, what) = match KEYS.get(which) {
            Some(&place) => (
                0,
                EventKind::Key {
                    place,
                    down,
                    text: None,
                },
            ),
            None => (
                1,
                EventKind::MouseButton {
                    button: BUTTONS[which - KEYS.len()],
                    down,
                },
            ),
        };
        out.push(Event {
            at: Time::from_micros(i as u64 * 2000),
            device: DeviceId(device),
            what,
        });
    }
    out
}

/// What the game gets to know each frame, whichever way it is done.
#[derive(Default)]
struct Live {
    down: [bool; ACTIONS],
    began: [bool; ACTIONS],
    ended: [bool; ACTIONS],
}

impl Live {
    #[inline]
    fn set(&mut self, action: usize, down: bool) {
        self.down[action] = down;
        if down {
            self.began[action] = true;
        } else {
            self.ended[action] = true;
        }
    }

    fn tick(&mut self) -> u64 {
        let mut sum = 0;
        for action in 0..ACTIONS {
            sum += seen(
                action,
                self.down[action],
                self.began[action],
                self.ended[action],
            );
        }
        self.began = [false; ACTIONS];
        self.ended = [false; ACTIONS];
        sum
    }
}

fn seen(action: usize, down: bool, began: bool, ended: bool) -> u64 {
    (action as u64 + 1) * (u64::from(down) + 2 * u64::from(began) + 4 * u64::from(ended))
}

fn hard_wired(trace: &[Event]) -> u64 {
    let mut live = Live::default();
    let mut sum = 0;
    for events in trace.chunks(EVENTS_A_TICK) {
        for event in events {
            match event.what {
                EventKind::Key { place, down, .. } => match place {
                    Place::KeyW | Place::ArrowUp => live.set(0, down),
                    Place::KeyS | Place::ArrowDown => live.set(1, down),
                    Place::KeyA | Place::ArrowLeft => live.set(2, down),
                    Place::KeyD | Place::ArrowRight => live.set(3, down),
                    Place::Space => live.set(4, down),
                    Place::KeyE => live.set(5, down),
                    Place::KeyF => live.set(6, down),
                    Place::KeyH => live.set(7, down),
                    Place::KeyQ => live.set(8, down),
                    Place::KeyR => live.set(9, down),
                    _ => {}
                },
                EventKind::MouseButton {
                    button: MouseButton::Left,
                    down,
                } => live.set(10, down),
                EventKind::MouseButton {
                    button: MouseButton::Right,
                    down,
                } => live.set(11, down),
                _ => {}
            }
        }
        sum += live.tick();
    }
    sum
}

#[derive(PartialEq, Eq, Hash)]
enum Physical {
    Key(Place),
    Button(MouseButton),
}

fn physical(event: &Event) -> Option<(Physical, bool)> {
    match event.what {
        EventKind::Key { place, down, .. } => Some((Physical::Key(place), down)),
        EventKind::MouseButton { button, down } => Some((Physical::Button(button), down)),
        _ => None,
    }
}

fn all_physical() -> impl Iterator<Item = Physical> {
    let keys = KEYS.into_iter().map(Physical::Key);
    keys.chain(BUTTONS.into_iter().map(Physical::Button))
}

fn table(trace: &[Event]) -> u64 {
    let map: HashMap<Physical, Vec<usize>> = all_physical()
        .enumerate()
        .map(|(i, p)| (p, vec![i]))
        .collect();
    let mut live = Live::default();
    let mut sum = 0;
    for events in trace.chunks(EVENTS_A_TICK) {
        for event in events {
            let Some((key, down)) = physical(event) else {
                continue;
            };
            for &action in map.get(&key).into_iter().flatten() {
                live.set(action, down);
            }
        }
        sum += live.tick();
    }
    sum
}

fn names(trace: &[Event]) -> u64 {
    let name = |i: usize| format!("action-{i}");
    let map: HashMap<Physical, Vec<String>> = all_physical()
        .enumerate()
        .map(|(i, p)| (p, vec![name(i)]))
        .collect();
    let asked: Vec<String> = (0..ACTIONS).map(name).collect();
    let mut live: HashMap<String, (bool, bool, bool)> = asked
        .iter()
        .map(|n| (n.clone(), (false, false, false)))
        .collect();
    let mut sum = 0;
    for events in trace.chunks(EVENTS_A_TICK) {
        for event in events {
            let Some((key, down)) = physical(event) else {
                continue;
            };
            for action in map.get(&key).into_iter().flatten() {
                if let Some((is, began, ended)) = live.get_mut(action) {
                    *is = down;
                    *(if down { began } else { ended }) = true;
                }
            }
        }
        for (i, name) in asked.iter().enumerate() {
            if let Some((down, began, ended)) = live.get_mut(name) {
                sum += seen(i, *down, *began, *ended);
                (*began, *ended) = (false, false);
            }
        }
    }
    sum
}

fn swap_knot(trace: &[Event], sheet: &Sheet) -> u64 {
    let mut seat = Seat::new(Rig::new(sheet, &Profile::default(), &Layout::us()));
    let ids: Vec<ActionId> = sheet.actions().map(|(id, _)| id).take(ACTIONS).collect();
    let ids: [ActionId; ACTIONS] = ids.try_into().unwrap();
    let mut sum = 0;
    for events in trace.chunks(EVENTS_A_TICK) {
        for event in events {
            seat.feed(event);
        }
        seat.tick(events[events.len() - 1].at);
        for (i, &id) in ids.iter().enumerate() {
            sum += seen(i, seat.is_down(id), seat.went_down(id), seat.went_up(id));
        }
    }
    sum
}

fn sheet(bindings: usize) -> Sheet {
    Sheet::from_toml(&sheet_text(bindings)).unwrap()
}

/// The twelve actions of the trace, and further ones in other situations up to so many bindings.
fn sheet_text(bindings: usize) -> String {
    let mut text = String::from("game = \"bench\"\n[situations.play]\n");
    let others = bindings / 90 + 1;
    for s in 0..others {
        writeln!(text, "[situations.other-{s}]").unwrap();
    }
    let mut made = 0;
    for (i, key) in KEYS.iter().enumerate() {
        let second = match i {
            0 => ", \"ArrowUp\"",
            1 => ", \"ArrowDown\"",
            2 => ", \"ArrowLeft\"",
            3 => ", \"ArrowRight\"",
            _ => "",
        };
        writeln!(
            text,
            "[actions.a-{i}]\nsituation = \"play\"\nbind = [\"{key}\"{second}]"
        )
        .unwrap();
        made += 1 + usize::from(!second.is_empty());
    }
    for (i, button) in ["left", "right"].iter().enumerate() {
        let n = KEYS.len() + i;
        writeln!(
            text,
            "[actions.a-{n}]\nsituation = \"play\"\nbind = \"mouse:{button}\""
        )
        .unwrap();
        made += 1;
    }
    let rest: Vec<Place> = Place::WRITING
        .into_iter()
        .filter(|p| !KEYS.contains(p))
        .collect();
    let mut n = 0;
    while made < bindings {
        let key = rest[n % rest.len()];
        let second = rest[(n * 7 + 3) % rest.len()];
        let situation = n % others;
        writeln!(
            text,
            "[actions.more-{n}]\ntitle = \"More {n}\"\nsituation = \"other-{situation}\"\nbind = [\"{key}\", \"Ctrl+{second}\", \"pad:north\"]"
        )
        .unwrap();
        made += 3;
        n += 1;
    }
    text
}
