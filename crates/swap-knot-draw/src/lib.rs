//! Pictures of a game's controls: glyphs of single inputs, keyboard maps, and control cards, as
//! SVG, PNG and HTML; and packs of a game's own art.
//!
//! The built-in drawings are made from simple shapes: a keycap with the player's legend, a mouse
//! with the part marked, a pad by place. They copy no maker's letters, shapes or colours.
//!
//! # Example: a glyph and a card
//! ```
//! use swap_knot::{Draft, Layout, Profile, Sheet};
//! use swap_knot_draw::{Card, Glyphs, Theme};
//!
//! let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = [\"KeyH\", \"pad:north\"]")?;
//! let draft = Draft::new(&sheet, Profile::default(), Layout::us());
//!
//! let glyphs = Glyphs::new(&Theme::DARK);
//! let svg = glyphs.input("pad:north".parse()?, draft.layout(), draft.words()).to_svg();
//! assert!(svg.starts_with("<svg"));
//!
//! let card = Card::new(&draft, &Theme::LIGHT);
//! assert!(card.to_svg().contains("Horn"));
//! # Ok::<(), Box<dyn std::error::Error>>(())
//! ```
//!
//! # Contents
//! - One input or chord: [`Glyphs`], [`Drawing`]
//! - A game's own art: [`Pack`], [`PackError`], [`Atlas`]
//! - Whole pictures: [`KeyboardMap`], [`Card`]
//! - Colours: [`Theme`]
//! - Letters without a font: [`font_warning`]

mod card;
mod drawing;
mod fonts;
mod glyph;
mod map;
mod pack;
mod pen;
#[cfg(feature = "png")]
mod raster;
mod text;
mod theme;

pub use card::Card;
pub use drawing::Drawing;
#[cfg(feature = "png")]
pub use fonts::SystemFont;
pub use fonts::font_warning;
pub use glyph::Glyphs;
pub use map::KeyboardMap;
#[cfg(feature = "png")]
pub use pack::{Atlas, AtlasPlace};
pub use pack::{Pack, PackError, PackNote, PackReport};
#[cfg(feature = "png")]
pub use raster::{Picture, RasterError};
pub use theme::{Theme, Tint};

/// What a layout is called before players: the database has English names only.
fn layout_title<'a>(layout: &'a swap_knot::Layout, words: &swap_knot::Words) -> &'a str {
    match words.language().starts_with("en") {
        true => layout.title(),
        false => layout.name(),
    }
}
