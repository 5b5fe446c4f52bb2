//! A small game loop with hard-wired keys, before and after:
//! `cargo run -p swap-knot --example from_hard_wired`.
//!
//! The same keys are played through both, and the barge ends up in the same place; only the second
//! can be remapped, works with a pad, and tells the player what to press.

mod after;
mod before;

use swap_knot::input::Simulated;
use swap_knot::{DeviceId, Event, Place};

/// What the loop moves.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
struct Barge {
    x: f32,
    way: f32,
    horns: u32,
}

/// A turn to starboard under way, with two hoots; frame by frame.
fn keys() -> Vec<Vec<Event>> {
    let keyboard = Simulated::new(DeviceId(0));
    let (down, up) = (|k| keyboard.key(k), |k| keyboard.key_up(k));
    let mut frames = vec![Vec::new(); 60];
    frames[2] = vec![down(Place::KeyW)];
    frames[5] = vec![down(Place::KeyD), down(Place::KeyH)];
    frames[6] = vec![down(Place::KeyH)]; // the system repeats a held key
    frames[9] = vec![up(Place::KeyH)];
    frames[30] = vec![up(Place::KeyD)];
    frames[40] = vec![down(Place::KeyH), up(Place::KeyH)]; // within one frame
    frames[50] = vec![up(Place::KeyW)];
    frames
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let before = before::play(&keys());
    let (after, prompt) = after::play(&keys())?;
    println!("before: {before:?}");
    println!("after:  {after:?}");
    println!("and it says: {prompt}");
    Ok(())
}
