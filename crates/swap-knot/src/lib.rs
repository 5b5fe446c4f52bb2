//! Full remapping of keys and buttons for games.
mod input;
mod layout;
mod nearest;
mod profile;
mod rig;
pub use input::*;
pub use layout::{Board, Layout, LayoutLearner, Level, Typed};
mod seat;
mod sheet;
pub use seat::{Edge, Happened, Seat};
pub use sheet::*;
pub use rig::{Bound, Origin, Rig, RigNote};
pub use profile::{Profile, ProfileError};
