//! A loop that plays, remaps and keeps, in the terminal. In your game, events come from an adapter
//! (`swap-knot-winit`, `swap-knot-bevy`, `swap-knot-gilrs`) and the menu is drawn on screen
//! (`swap-knot-egui`, or your own from `Draft::rows`); the calls stay the same.

/// What controls.toml declares: `Action`, `Situation` and `sheet()`. To add an action, add it there.
mod controls {
    swap_knot::controls!("controls.toml");
}

use std::error::Error;
use std::io::BufRead;
use std::process::ExitCode;

use controls::{Action, Situation};
use swap_knot::{
    Actions, Bind, CarriedOver, Chord, DeviceId, Draft, Layout, Locker, Prompt, Row, Seat, Settle,
    Simulated, Slug,
};

const HELP: &str = "\
press KEY           play a key, as in: press Space
bind ACTION KEY     remap, as in: bind cast-off KeyF
reset               back to the defaults
quit
Keys are called by where they are: Space, KeyW, Digit1, ArrowUp, ShiftLeft.";

fn main() -> ExitCode {
    match run() {
        Ok(()) => ExitCode::SUCCESS,
        Err(why) => {
            eprintln!("error: {why}");
            ExitCode::FAILURE
        }
    }
}

fn run() -> Result<(), Box<dyn Error>> {
    // Declare: the sheet was read when this was compiled.
    let sheet = controls::sheet();

    // Keep: what the player changed, from the last run.
    let (locker, name) = (Locker::open("profiles")?, Slug::from_title("player"));
    let loaded = locker.load(&name);
    for note in &loaded.notes {
        println!("note: {note}");
    }
    // A later version of the game brings an older profile along, and tells what that did.
    let carried = CarriedOver::new(&sheet, &loaded.profile, &Layout::us());
    for line in carried.describe(&sheet) {
        println!("note: {line}");
    }
    let mut draft = Draft::new(&sheet, carried.profile, &Layout::us());
    let mut seat = Seat::new(draft.rig());
    seat.set_situations(&[Situation::Deck]);
    let mut prompt = Prompt::new("{do:cast-off} to leave, {walk} to walk", &sheet)?;
    let mut keyboard = Simulated::new(DeviceId(0));

    println!("{HELP}");
    println!("> {}", prompt.render(seat.rig(), seat.device_kind()));
    let mut line = String::new();
    while std::io::stdin().lock().read_line(&mut line)? > 0 {
        match line.split_whitespace().collect::<Vec<_>>()[..] {
            ["press", key] => match key.parse() {
                Ok(place) => play(&mut seat, &mut keyboard, place),
                Err(_) => println!("`{key}` is no key; keys are called Space, KeyW, Digit1…"),
            },
            ["bind", action, key] => {
                match bind(&mut draft, action, key) {
                    Ok(()) => {
                        seat.set_rig(draft.apply());
                        locker.save(&name, &draft.profile(), &sheet)?;
                    }
                    Err(why) => println!("{why}"),
                }
            }
            ["reset"] => {
                draft.reset(swap_knot::Reset::All)?;
                seat.set_rig(draft.apply());
                locker.save(&name, &draft.profile(), &sheet)?;
            }
            ["quit"] => break,
            [] => {}
            _ => println!("{HELP}"),
        }
        line.clear();
        println!("> {}", prompt.render(seat.rig(), seat.device_kind()));
    }
    Ok(())
}

/// One frame with a key down, one with it up again.
fn play(seat: &mut Seat, keyboard: &mut Simulated, key: swap_knot::Place) {
    seat.feed(&keyboard.key(key));
    keyboard.wait(std::time::Duration::from_millis(600));
    seat.tick(keyboard.now());
    for &action in Action::ALL {
        if seat.went_down(action)
            && let Some(declared) = seat.rig().sheet().action(action)
        {
            println!("{}!", declared.title);
        }
    }
    let [x, y] = seat.plane(Action::Walk);
    if [x, y] != [0.0, 0.0] {
        println!("walking {x} to starboard, {y} to the bow");
    }
    seat.feed(&keyboard.key_up(key));
    seat.tick(keyboard.now());
}

/// Binds the first keyboard column of an action; a taken key is swapped.
fn bind(draft: &mut Draft, action: &str, key: &str) -> Result<(), Box<dyn Error>> {
    let chord: Chord = key.parse()?;
    let row: Row = draft.sheet().find_row(action).ok_or_else(|| format!("no action `{action}`"))?;
    let column = draft.columns()[0];
    let mut bound = draft.bind(row.cell(column), chord)?;
    while let Bind::Asks(question) = bound {
        println!("{}: swapped", question.describe(draft.sheet()));
        bound = draft.answer(question, Settle::Swap)?;
    }
    for line in draft.summary() {
        println!("{line}");
    }
    Ok(())
}
