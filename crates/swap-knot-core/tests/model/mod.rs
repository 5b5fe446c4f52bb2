//! The naive model of a seat: the rules of the design, one by one, in maps and lists.

#![allow(dead_code, unreachable_pub)]

mod book;
mod changes;
mod rules;
mod world;

pub use world::{Move, Played, World};
