//! A developer's window on any sheet: `swap-knot-workbench controls.toml`.
//!
//! The sheet is played while it is written: saved, it is read again, and a mistake is shown with its line
//! while what was there before plays on. What each press does is told, and why it does nothing; what the
//! check finds; the controls screen as players will see it; and what is tuned there is adopted into the
//! sheet as its new defaults, with comments and order kept.

mod bench;
mod pads;
mod window;

pub use bench::{Bench, Finding, findings, player};
pub use window::Workbench;
