//! The naive model of a seat: the rules of the design, one by one, in maps and lists.

mod book;
mod changes;
mod devices;
mod rules;
mod told;
mod world;

pub use world::{Move, Played, World};
