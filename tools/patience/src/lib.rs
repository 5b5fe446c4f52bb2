//! How long tests wait for something that is shown or written: until it is so, up to one limit that a
//! busy machine does not reach. What was waited for and what there was instead is said at the limit; and
//! what cannot be waited for on this machine is said to be left out.

#![allow(clippy::panic)]

use std::fmt::Display;
use std::io::Write as _;
use std::path::Path;
use std::time::{Duration, Instant};

/// The one limit: generous, since a busy machine is a normal machine. Whoever mends a test sets
/// `SWAP_KNOT_PATIENCE` to fewer seconds.
pub fn limit() -> Duration {
    let said = std::env::var("SWAP_KNOT_PATIENCE").ok();
    let seconds = said.and_then(|text| text.parse().ok());
    Duration::from_secs(seconds.unwrap_or(180))
}

/// Between two looks.
const PAUSE: Duration = Duration::from_millis(5);

/// Looks until there is an answer; an error is what there is instead.
///
/// # Panics
/// At the [`limit`], with what was waited for and what there was last.
#[track_caller]
pub fn wait_for<T>(what: impl Display, mut look: impl FnMut() -> Result<T, String>) -> T {
    let since = Instant::now();
    loop {
        match look() {
            Ok(found) => return found,
            Err(instead) => assert!(
                since.elapsed() < limit(),
                "waited {} s for {what}; last there was:\n{instead}",
                limit().as_secs()
            ),
        }
        std::thread::sleep(PAUSE);
    }
}

/// Says that a test is left out, and why: to whoever runs it, although it has not failed.
pub fn skip(why: &str) {
    // What is printed is kept back by the test runner.
    let _ = writeln!(std::io::stderr(), "SKIPPED: {why}");
}

/// Waits until a file has a text in it.
///
/// # Panics
/// At the [`limit`], with what was in the file last.
#[track_caller]
pub fn wait_for_file(file: &Path, text: &str) {
    wait_for(
        format_args!("{text:?} in {}", file.display()),
        || match std::fs::read_to_string(file) {
            Ok(kept) if kept.contains(text) => Ok(()),
            Ok(kept) => Err(kept),
            Err(e) => Err(e.to_string()),
        },
    );
}
