//! Full remapping of keys and buttons for games.
mod input;
mod layout;
mod nearest;
pub use input::*;
pub use layout::{Board, Layout, LayoutLearner, Level, Typed};
mod sheet;
pub use sheet::*;
