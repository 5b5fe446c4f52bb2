//! The tests of the core, through what games see of it: one program, so that it is built and linked once
//! and the long ones run beside the others.
//!
//! `cargo test -p swap-knot-core --test suite screen::` runs those of one part.

#![allow(
    missing_docs,
    unreachable_pub,
    clippy::unwrap_used,
    clippy::expect_used,
    clippy::panic
)]

mod arrows;
mod carrying;
mod common;
mod conflict_model;
mod controls;
mod easing;
mod following;
mod formats;
mod gyro;
mod habit;
mod inputs;
mod keeping;
mod languages;
mod law;
mod layouts;
mod limits;
mod locker;
mod manners;
mod mapping;
mod marks;
mod meeting;
mod mistakes;
mod model;
mod mods;
mod new_defaults;
mod outcomes;
mod paces;
mod players;
mod profiles;
mod promises;
mod prompts;
mod quirks;
mod remapping;
mod rows;
mod said;
mod saved;
mod screen;
mod seams;
mod seat;
mod seat_model;
mod settings;
mod several;
mod sheets;
mod short_ways;
mod touch;
mod traces;
mod turning;
mod words;
mod worlds;
