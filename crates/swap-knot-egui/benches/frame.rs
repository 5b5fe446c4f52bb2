//! A frame of the controls screen beside a list of as many plain labels, as ratios and in milliseconds.
//!
//! `cargo bench -p swap-knot-egui --bench frame`.

#![allow(missing_docs, clippy::unwrap_used)]

use std::fmt::Write as _;
use std::time::{Duration, Instant};

use egui::{RawInput, Rect, pos2, vec2};
use swap_knot::input::Direction;
use swap_knot::screen::{ControlsScreen, ScreenCommand};
use swap_knot::{Draft, Layout, Profile, Seat, Sheet};
use swap_knot_egui::ScreenSkin;

const FRAMES: usize = 60;

fn main() {
    println!(
        "a frame at 1280x800, the median of {FRAMES}: at rest, and while the focus moves each frame\n"
    );
    for actions in [20, 100, 300] {
        let at_rest = screen_frames(actions, false);
        let moving = screen_frames(actions, true);
        let plain = label_frames(actions);
        let ratio = |a: Duration| a.as_secs_f64() / plain.as_secs_f64();
        let ms = |a: Duration| a.as_secs_f64() * 1000.0;
        println!(
            "{actions:4} actions: {:.2} ms and {:.2} ms; {:.1} and {:.1} times a list of {} labels ({:.2} ms)",
            ms(at_rest),
            ms(moving),
            ratio(at_rest),
            ratio(moving),
            actions * 4,
            ms(plain),
        );
    }
}

fn sheet(actions: usize) -> Sheet {
    let keys = [
        "KeyQ", "KeyW", "KeyE", "KeyR", "KeyT", "KeyY", "KeyU", "KeyI", "KeyO", "KeyP",
    ];
    let mut text = "game = \"large\"\n".to_owned();
    for n in 0..actions.div_ceil(10) {
        let _ = writeln!(text, "[situations.place-{n}]");
    }
    for n in 0..actions {
        let (key, place) = (keys[n % 10], n / 10);
        let _ = writeln!(
            text,
            "[actions.do-{n}]\ntitle = \"Do the thing {n}\"\nsituation = \"place-{place}\"\nbind = [\"{key}\"{}]",
            if n % 10 == 0 { ", \"pad:south\"" } else { "" }
        );
    }
    Sheet::from_toml(&text).unwrap()
}

fn screen_frames(actions: usize, moves: bool) -> Duration {
    let sheet = sheet(actions);
    let draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
    let seat = Seat::new(draft.rig());
    let mut screen = ControlsScreen::new(draft, &seat);
    let mut skin = ScreenSkin::new();
    let mut n = 0;
    frames(|ui| {
        n += 1;
        if moves {
            let way = if n % 60 < 30 {
                Direction::Down
            } else {
                Direction::Up
            };
            screen.command(ScreenCommand::Go(way));
        }
        skin.show(ui, &mut screen);
    })
}

/// What a list costs that draws as many texts and nothing else.
fn label_frames(actions: usize) -> Duration {
    let labels: Vec<String> = (0..actions * 4).map(|n| format!("label {n}")).collect();
    frames(|ui| {
        egui::ScrollArea::vertical().show(ui, |ui| {
            for four in labels.chunks(4) {
                ui.horizontal(|ui| {
                    for text in four {
                        ui.label(text);
                    }
                });
            }
        });
    })
}

fn frames(mut draw: impl FnMut(&mut egui::Ui)) -> Duration {
    let ctx = egui::Context::default();
    let screen_rect = Some(Rect::from_min_size(pos2(0.0, 0.0), vec2(1280.0, 800.0)));
    let mut times: Vec<Duration> = (0..FRAMES + 5)
        .map(|_| {
            let input = RawInput {
                screen_rect,
                ..RawInput::default()
            };
            let started = Instant::now();
            let out = ctx.run_ui(input, &mut draw);
            std::hint::black_box(&out.shapes);
            started.elapsed()
        })
        .skip(5)
        .collect();
    times.sort_unstable();
    times[times.len() / 2]
}
