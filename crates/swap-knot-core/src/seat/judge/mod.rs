//! What begins and what ends, and why.
//!
//! It answers, for whatever changed in the book, in the situations or in the rig, which wires work from now
//! on and which no longer do; and what becomes of an input for each binding, told while it is judged. It
//! relies on the book for what is held and on the rig's wiring for who is touched; what an action makes of
//! its wires is for `values`.
//!
//! Every question is put to [`Lack`](ready::Lack): what a wire lacks to work, or nothing. Keys, pulls and
//! motion ask the same, and so do outcomes.
//!
//! - `ready`: what a wire lacks, and the longest chord that has a control
//! - `owned`: presses that belong to the chord that they worked
//! - `press`: what begins by pressing
//! - `end`: what ends, comes to nothing or is decided in time
//! - `grade`: what begins further in than others do
//! - `follow`: what has its value by what is held
//! - `motion`: what moves by distances
//! - `told`: what became of an input, in words for whoever asked

mod end;
mod follow;
mod grade;
mod motion;
mod owned;
mod press;
mod ready;
mod told;

pub(super) use follow::follows;
pub(super) use owned::Owned;
