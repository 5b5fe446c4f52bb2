//! The seat against a naive model written straight from the rules of the design: every input of
//! every device is followed, in every manner, while plugs are pulled, the focus goes, situations and
//! rigs change and sheets are swapped in play.
//!
//! 400,000 events are played (an eighth by default), the same in every run, so that nobody's change is held up by what
//! another one left behind. `SWAP_KNOT_MODEL_EVENTS` sets how many others are played instead, new
//! ones in every run.

use crate::model::{Move, Played, World};
use proptest::prelude::*;
use proptest::test_runner::{Config, TestError, TestRng, TestRunner};

/// How many moves one world is played for.
const MOVES: usize = 60;

/// How many events are asked for, if any are.
fn asked_for() -> Option<u32> {
    std::env::var("SWAP_KNOT_MODEL_EVENTS").ok()?.parse().ok()
}

#[test]
fn the_seat_does_what_the_rules_say() {
    play(0);
}

/// The other half, so that two processors share the work; there the judge is asked what becomes of inputs.
#[test]
fn the_seat_does_what_the_rules_say_in_other_worlds() {
    play(1);
}

/// Plays one half of the events; the halves are of different worlds.
fn play(half: u8) {
    let events = asked_for().unwrap_or_else(|| crate::common::worlds(400_000));
    let worlds = events / MOVES as u32 / 2;
    let config = Config {
        failure_persistence: None,
        max_shrink_iters: 20_000,
        max_global_rejects: u32::MAX,
        ..Config::with_cases(worlds.max(1))
    };
    let mut runner = match asked_for() {
        Some(_) => TestRunner::new(config),
        None => {
            let same = TestRng::from_seed(config.rng_algorithm, &[half; 32]);
            TestRunner::new_with_rng(config, same)
        }
    };
    let moves = proptest::collection::vec(Move::any(), MOVES / 2..MOVES * 3 / 2);
    let result = runner.run(&(World::any(), moves), |(world, moves)| {
        let Some(mut played) = Played::new(&world) else {
            return Err(TestCaseError::reject("no such sheet"));
        };
        if half == 1 {
            played.ask();
        }
        for (n, what) in moves.iter().enumerate() {
            played.play(what);
            if let Err(why) = played.agree() {
                let said: Vec<String> = moves[..=n].iter().map(|m| format!("{m:?}")).collect();
                return Err(TestCaseError::fail(format!(
                    "{why}\n{}\n{}",
                    world.text(),
                    said.join("\n")
                )));
            }
        }
        played.end();
        played.agree().map_err(|why| {
            TestCaseError::fail(format!("at the end: {why}\n{}\n{moves:?}", world.text()))
        })
    });
    match result {
        Ok(()) => {}
        Err(TestError::Fail(why, _)) => panic!("{why}"),
        Err(why) => panic!("{why}"),
    }
}
