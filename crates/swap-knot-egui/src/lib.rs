//! Widgets of [egui] for Swap Knot: the whole controls screen, and prompts with glyphs.
//!
//! The screen is drawn from a [`ScreenView`](swap_knot::screen::ScreenView); no rule, text or state of
//! it lives here. It is worked with the mouse, with touch, with the keyboard, with a pad or through a
//! screen reader, each of them alone.
//!
//! [`PlayerUi`] is a player in a window, with all that a frame has to do for them. Its parts for a game that
//! has its own way: [`ScreenSkin`], [`prompt()`], [`wants`], [`fingers`], [`touch_controls`], [`Fonts`].
//!
//! ```no_run
//! use swap_knot::{Controls, Event, Time};
//! use swap_knot_egui::ScreenSkin;
//!
//! # fn frame(ui: &mut egui::Ui, controls: &mut Controls, skin: &mut ScreenSkin, events: &[Event], now: Time) {
//! for event in events {
//!     controls.feed(event); // the screen has it while it is open, otherwise the game
//! }
//! controls.tick(now);
//! if let Some(screen) = controls.screen_mut() {
//!     skin.show(ui, screen);
//! }
//! controls.save(); // or `saving`, on a thread of its own
//! # }
//! ```

mod board;
mod curve;
mod details;
mod dialog;
mod fonts;
mod glyphs;
mod look;
mod overlay;
mod pad;
mod pen;
mod player;
mod point;
mod prompt;
mod rows;
mod skin;
mod touch;
mod wants;
mod watch;

pub use fonts::{Fonts, NoSuchFont};
pub use glyphs::GlyphTextures;
pub use look::{Faint, Look};
pub use overlay::Overlay;
pub use player::PlayerUi;
pub use prompt::prompt;
pub use skin::ScreenSkin;
pub use swap_knot_draw::Pack;
pub use touch::{fingers, touch_controls};
pub use wants::wants;
pub use watch::Watch;
