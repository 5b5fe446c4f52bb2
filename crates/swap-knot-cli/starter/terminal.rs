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
use std::time::Duration;

use controls::{Action, Situation};
use swap_knot::input::Simulated;
use swap_knot::prompt::PromptError;
use swap_knot::remap::Reset;
use swap_knot::{
    Actions, Bind, Chord, Controls, DeviceId, Draft, Layout, Locker, Place, Row, Settle, Slug,
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

    // One player: what they changed is kept in a folder and read again, the layout is learned from
    // what they type. `Locker::of_user` has the platform's own place (feature `user-folder`).
    let (locker, name) = (Locker::open("profiles")?, Slug::from_title("player"));
    let mut controls = Controls::open(&sheet, locker, &name, Layout::us());
    controls.seat_mut().set_situations(&[Situation::Deck]);
    let mut keyboard = Simulated::new(DeviceId(0));

    println!("{HELP}");
    say(&mut controls)?;
    let mut line = String::new();
    while std::io::stdin().lock().read_line(&mut line)? > 0 {
        match line.split_whitespace().collect::<Vec<_>>()[..] {
            ["press", key] => match key.parse() {
                Ok(place) => play(&mut controls, &mut keyboard, place),
                Err(_) => println!("`{key}` is no key; keys are called Space, KeyW, Digit1…"),
            },
            ["bind", action, key] => {
                let mut draft = controls.draft();
                match bind(&mut draft, action, key) {
                    Ok(()) => controls.apply(&mut draft),
                    Err(why) => println!("{why}"),
                }
            }
            ["reset"] => {
                let mut draft = controls.draft();
                draft.reset(Reset::All)?;
                controls.apply(&mut draft);
            }
            ["quit"] => break,
            [] => {}
            _ => println!("{HELP}"),
        }
        line.clear();
        // Here and now; `saving` gives a thread of your own the work, so that no frame waits for it.
        controls.save();
        say(&mut controls)?;
    }
    Ok(())
}

/// What there is to tell, and the prompt as it is now.
fn say(controls: &mut Controls) -> Result<(), PromptError> {
    for report in controls.take_reports() {
        println!("note: {}", controls.tell(&report));
    }
    println!("> {}", controls.prompt("{do:cast-off} to leave, {walk} to walk")?);
    Ok(())
}

/// One frame with a key down, one with it up again.
fn play(controls: &mut Controls, keyboard: &mut Simulated, key: Place) {
    controls.feed(&keyboard.key(key));
    keyboard.wait(Duration::from_millis(600));
    controls.tick(keyboard.now());
    let seat = controls.seat();
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
    controls.feed(&keyboard.key_up(key));
    controls.tick(keyboard.now());
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
