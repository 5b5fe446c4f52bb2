//! Conflict checks and letters beside reading the same sheet, as ratios.
//!
//! `cargo bench -p swap-knot --bench remapping`.

#![allow(missing_docs, clippy::unwrap_used, clippy::panic)]

use std::fmt::Write as _;
use std::hint::black_box;
use std::time::{Duration, Instant};

use swap_knot::input::Platform;
use swap_knot::layout::Resolver;
use swap_knot::play::Bound;
use swap_knot::remap::{conflicts, conflicts_of};
use swap_knot::{Layout, Place, Profile, Rig, Sheet};

const ROUNDS: usize = 7;

fn main() {
    let layouts: Vec<Layout> = Layout::shipped_names()
        .filter_map(Layout::shipped)
        .collect();
    let text = sheet_text(1000);
    let sheet = Sheet::from_toml(&text).unwrap();
    let large = Sheet::from_toml(&sheet_text(8000)).unwrap();
    let bound = |sheet: &Sheet| {
        Rig::new(sheet, &Profile::default(), &Layout::us())
            .bindings()
            .to_vec()
    };
    let (few, many) = (bound(&sheet), bound(&large));
    let check = |sheet: &Sheet, bindings: &[Bound]| {
        conflicts(sheet, bindings, &layouts, Platform::Other).len()
    };
    let one = || {
        conflicts_of(
            &sheet,
            &few[few.len() / 2],
            &few,
            &Resolver::new(&layouts[0], Platform::Other),
        )
        .len()
    };
    // Every action by a letter, on a layout that has them elsewhere.
    let lettered = lettered_text(1000);
    let french = Layout::shipped("fr").unwrap();
    let letters: Vec<char> = (0..1000).map(letter).collect();
    let times = measure(&[
        &|| Sheet::from_toml(&text).unwrap().actions().len(),
        &|| check(&sheet, &few),
        &|| check(&large, &many),
        &|| (0..100).map(|_| one()).sum(),
        &|| Sheet::from_toml(&lettered).unwrap().actions().len(),
        &|| letters.iter().filter_map(|&l| french.place_of(l)).count(),
    ]);
    let [read, whole, tenfold, hundred, read_lettered, places] = times[..] else {
        panic!("six ways are measured")
    };
    let ratio = |a: Duration, b: Duration| a.as_secs_f64() / b.as_secs_f64();
    println!(
        "{} actions, {} bindings, {} layouts, {} conflicts and notices",
        sheet.actions().len(),
        few.len(),
        layouts.len(),
        check(&sheet, &few)
    );
    println!(
        "checking takes {:.2} x the time to read the sheet (wanted: at most 10)",
        ratio(whole, read)
    );
    let grown = many.len() as f64 / few.len() as f64;
    println!(
        "{grown:.1} times the bindings take {:.2} x the time (wanted: at most {:.1})",
        ratio(tenfold, whole),
        grown * 1.3
    );
    println!(
        "the whole check takes {:.0} x one candidate (wanted: at least 200)",
        ratio(whole, hundred) * 100.0
    );
    println!(
        "1000 letters are turned into places in {:.3} x the time to read their sheet (wanted: at most 0.2)",
        ratio(places, read_lettered)
    );
}

/// Actions bound by letter alone.
fn lettered_text(actions: usize) -> String {
    let mut text = String::from("game = \"bench\"\n");
    for n in 0..actions {
        writeln!(text, "[actions.a-{n}]\nbind = \"letter:{}\"", letter(n)).unwrap();
    }
    text
}

fn letter(n: usize) -> char {
    char::from(b'a' + (n % 26) as u8)
}

/// The median time of each way, in interleaved rounds.
fn measure(ways: &[&dyn Fn() -> usize]) -> Vec<Duration> {
    let mut times = vec![Vec::new(); ways.len()];
    for _ in 0..ROUNDS {
        for (way, times) in ways.iter().zip(&mut times) {
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

/// Actions with three bindings each, forty to a situation, some of them by letter.
fn sheet_text(actions: usize) -> String {
    let mut text = String::from("game = \"bench\"\n");
    let situations = actions / 40;
    // A sheet has at most 256 situations; further actions share them.
    let situations = situations.clamp(1, 250);
    for s in 0..situations {
        writeln!(text, "[situations.s-{s}]").unwrap();
    }
    for n in 0..actions {
        let key = Place::WRITING[n % Place::WRITING.len()];
        let second = Place::WRITING[(n * 7 + 3) % Place::WRITING.len()];
        let letter = letter(n);
        let third = if n % 5 == 0 {
            format!("letter:{letter}")
        } else {
            format!("Alt+{second}")
        };
        let situation = n / 40 % situations;
        writeln!(
            text,
            "[actions.a-{n}]\nsituation = \"s-{situation}\"\nbind = [\"{key}\", \"Ctrl+{second}\", \"{third}\"]"
        )
        .unwrap();
    }
    text
}
