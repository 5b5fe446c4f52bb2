//! Prompts beside `format!` of the same text, as ratios.
//!
//! `cargo bench -p swap-knot --bench prompting`.

#![allow(missing_docs, clippy::unwrap_used, clippy::panic)]

use std::hint::black_box;
use std::time::{Duration, Instant};

use swap_knot::{DeviceKind, Layout, Profile, Prompt, Rig, Sheet};

const SHEET: &str = include_str!("../../../demo/slack-water.toml");
const TEXT: &str = "Press {cast-off} to leave, {coil-rope} for the rope, {lantern} for light";
const ROUNDS: usize = 15;
const TIMES: u32 = 20_000;

fn main() {
    let sheet = Sheet::from_toml(SHEET).unwrap();
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
    let mut changing = Prompt::new(TEXT, &sheet).unwrap();
    let mut same = Prompt::new(TEXT, &sheet).unwrap();
    let kinds = [DeviceKind::Keyboard, DeviceKind::Gamepad];
    let names = ["Space", "E", "F"].map(str::to_owned);
    // Two numbers beside a text, as a game would keep it by hand.
    let kept = (7_usize, 3_usize, "Press Space to leave".to_owned());
    let [mut by_format, mut rendered, mut unchanged, mut compared] =
        [const { Vec::<Duration>::new() }; 4];
    for _ in 0..ROUNDS {
        by_format.push(time(|_| {
            let [a, b, c] = black_box(&names);
            black_box(format!(
                "Press {a} to leave, {b} for the rope, {c} for light"
            ));
        }));
        rendered.push(time(|n| {
            // Another device kind each time, so that it is put together anew.
            black_box(changing.render(&rig, kinds[n as usize % 2]));
        }));
        unchanged.push(time(|_| {
            black_box(same.render(black_box(&rig), black_box(DeviceKind::Keyboard)));
        }));
        compared.push(time(|_| {
            let (a, b, text) = black_box(&kept);
            black_box((*a == black_box(7) && *b == black_box(3)).then_some(text));
        }));
    }
    let nanos = |mut all: Vec<Duration>| {
        all.sort_unstable();
        all[all.len() / 2].as_secs_f64() * 1e9 / f64::from(TIMES)
    };
    let (format, rendered) = (nanos(by_format), nanos(rendered));
    let (unchanged, compared) = (nanos(unchanged), nanos(compared));
    println!(
        "a changed prompt with three inputs takes {rendered:.0} ns, {:.2} x `format!` (wanted: at most 10)",
        rendered / format
    );
    println!(
        "an unchanged one takes {unchanged:.2} ns, comparing two integers {compared:.2} ns: {:.2} x",
        unchanged / compared
    );
}

fn time(mut work: impl FnMut(u32)) -> Duration {
    let start = Instant::now();
    for n in 0..TIMES {
        work(n);
    }
    start.elapsed()
}
