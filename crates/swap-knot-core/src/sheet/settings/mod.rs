//! The settings beside the bindings: every number, switch and time that a game gives and a player may
//! change.
//!
//! A sheet, a preset and a profile say them alike, and everything that reads, writes, judges, merges,
//! resets, tells or shows one goes over the table: a further one is an entry there, a field, and its
//! words. What is bound to what, and texts such as a title, are none of them.
//!
//! - `table.rs`: which there are, with the range and the slider of each, and what it acts on.
//! - `value.rs`: what one is set to, and how that is written.
//! - `set.rs`: several of them, and what they are for.
//! - `force.rs`: all of them as they are in force: [`Feel`], [`Easing`].
//! - `slider.rs`: how far one slides on the screen.
//! - `bears.rs`: on which bindings one has a bearing at all.

mod bears;
mod force;
mod set;
mod slider;
mod table;
mod value;

pub use force::{Easing, Feel};
pub use set::{ActsOn, BadSetting, Parameters, Scope, Settings};
pub(crate) use slider::Slider;
pub(crate) use table::{Form, LOOSE};
pub use table::{Parameter, ParameterPart};
pub(crate) use value::AXES;
pub use value::{DeadZone, DeadZoneForm, ParameterValue};
