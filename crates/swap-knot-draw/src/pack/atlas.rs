//! All pictures in one PNG with a table of places, for engines that want that (feature `png`).

use std::collections::BTreeSet;

use swap_knot::{Input, Layout, Words};

use super::picture::Kind;
use super::{Pack, Picture as PackPicture};
use crate::glyph::Glyphs;
use crate::raster::{self, Picture, RasterError};

/// How wide the sheet is at most, in pixels.
const MAX_WIDTH: u32 = 2048;
/// Empty pixels around each picture, so that none bleeds into the next when it is scaled.
const PADDING: u32 = 2;

/// All pictures of a pack in one, with a table of places.
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct Atlas {
    /// The picture.
    pub picture: Picture,
    /// Where each input is on it.
    pub places: Vec<AtlasPlace>,
}

/// Where an input is on an [`Atlas`], in pixels from the top left.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct AtlasPlace {
    /// The input.
    pub input: Input,
    /// The family of pads; none for pictures that are for any.
    pub family: Option<String>,
    /// Its left edge.
    pub x: u32,
    /// Its upper edge.
    pub y: u32,
    /// How wide it is.
    pub width: u32,
    /// How high it is.
    pub height: u32,
}

impl Atlas {
    /// The table of places as TOML.
    pub fn to_toml(&self) -> String {
        let mut out = format!(
            "# Where each glyph is, in pixels from the top left: x, y, width, height.\nsize = [{}, {}]\n",
            self.picture.width(),
            self.picture.height()
        );
        let mut family: Option<&Option<String>> = None;
        for place in &self.places {
            if family.replace(&place.family) != Some(&place.family) {
                let name = place.family.as_ref();
                let head = name.map_or("any".to_owned(), |n| format!("families.{n}"));
                out.push_str(&format!("\n[{head}]\n"));
            }
            let AtlasPlace {
                input,
                x,
                y,
                width,
                height,
                ..
            } = place;
            out.push_str(&format!("\"{input}\" = [{x}, {y}, {width}, {height}]\n"));
        }
        out
    }
}

impl Pack {
    /// The picture of an input as pixels, so high, by the family whose marks the words have: see
    /// [`Pack::picture_for`]. Nothing where there is none, or it cannot be drawn.
    pub fn pixels_for(&self, input: Input, words: &Words, height: u32) -> Option<Picture> {
        pixels(self.found_for(input, words)?, height).ok()
    }

    /// Puts every picture of the pack, and the built-in drawings of further inputs, on one sheet,
    /// each so high.
    ///
    /// # Errors
    /// When the sheet would be too large.
    pub fn atlas(
        &self,
        height: u32,
        further: impl IntoIterator<Item = Input>,
        glyphs: &Glyphs,
        layout: &Layout,
        words: &Words,
    ) -> Result<Atlas, RasterError> {
        let mut drawn: Vec<(Input, Option<String>, Picture)> = Vec::new();
        for (input, picture) in &self.files {
            drawn.push((*input, None, pixels(picture, height)?));
        }
        let further: BTreeSet<Input> = further.into_iter().collect();
        for input in further.iter().filter(|i| !self.files.contains_key(i)) {
            let drawing = glyphs.input(*input, layout, words);
            drawn.push((*input, None, drawing.to_pixels(height)?));
        }
        for family in &self.families {
            for (input, picture) in &family.files {
                let name = Some(family.name.clone());
                drawn.push((*input, name, pixels(picture, height)?));
            }
        }
        lay_out(drawn, height)
    }
}

/// Rows from left to right, as many as it takes.
fn lay_out(
    drawn: Vec<(Input, Option<String>, Picture)>,
    height: u32,
) -> Result<Atlas, RasterError> {
    let mut places = Vec::new();
    let (mut x, mut y, mut widest) = (PADDING, PADDING, 0);
    for (input, family, picture) in &drawn {
        if x > PADDING && x + picture.width() + PADDING > MAX_WIDTH {
            (x, y) = (PADDING, y + height + PADDING);
        }
        places.push(AtlasPlace {
            input: *input,
            family: family.clone(),
            x,
            y,
            width: picture.width(),
            height: picture.height(),
        });
        x += picture.width() + PADDING;
        widest = widest.max(x);
    }
    let whole = (widest.max(1), y + height + PADDING);
    let too_large = || RasterError::TooLarge(u64::from(whole.0), u64::from(whole.1));
    let mut picture = Picture::blank(whole.0, whole.1).ok_or_else(too_large)?;
    for (place, (_, _, own)) in places.iter().zip(&drawn) {
        picture.put(own, place.x, place.y);
    }
    Ok(Atlas { picture, places })
}

fn pixels(picture: &PackPicture, height: u32) -> Result<Picture, RasterError> {
    if Kind::of(&picture.path) == Some(Kind::Png) {
        return raster::scaled_png(&picture.bytes, height);
    }
    let text = String::from_utf8_lossy(&picture.bytes);
    raster::pixels_of(&text, height, None)
}
