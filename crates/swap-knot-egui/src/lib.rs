//! Widgets of [egui] for Swap Knot: the whole remap menu, and prompts with glyphs.
//!
//! The menu is drawn from a [`Draft`](swap_knot::Draft); no rule lives here. It is worked with the
//! mouse, with the keyboard alone, or with a pad alone.
//!
//! ```no_run
//! use swap_knot::{Draft, Event, Seat, Time};
//! use swap_knot_egui::{MenuNews, RemapMenu};
//!
//! # fn frame(ui: &mut egui::Ui, menu: &mut RemapMenu, draft: &mut Draft, seat: &mut Seat, events: &[Event], now: Time) {
//! for event in events {
//!     // What the menu does not take goes to the game.
//!     if !menu.event(event, draft) {
//!         seat.feed(event);
//!     }
//! }
//! for news in menu.show(ui, draft, now) {
//!     if let MenuNews::Applied(rig) = news {
//!         seat.set_rig(rig); // and save draft.profile() in a locker
//!     }
//! }
//! # }
//! ```

mod command;
mod draw;
mod focus;
mod fonts;
mod glyphs;
mod menu;
mod prompt;

pub use command::MenuCommand;
pub use fonts::{Fonts, NoSuchFont};
pub use glyphs::GlyphTextures;
pub use menu::{MenuNews, RemapMenu};
pub use prompt::prompt;
