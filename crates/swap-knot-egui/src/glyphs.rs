//! Glyphs as textures.

use std::collections::HashMap;

use egui::{ColorImage, Context, TextureHandle, TextureOptions, Vec2, vec2};
use swap_knot::{Input, Layout, Words};
use swap_knot_draw::{Glyphs, Pack, Theme};

/// The most textures that are kept; a menu needs about a hundred.
const MOST: usize = 512;

/// A game's own pictures, and the built-in drawings where it has none, as textures that are made when
/// they are first shown.
///
/// Pictures and marks are those of the family whose marks the words have.
///
/// A texture is made anew when the layout, the language, the theme or the scale of the screen
/// changes, since any of them changes what is on it.
#[derive(Default)]
pub struct GlyphTextures {
    known: HashMap<(Input, u32), (TextureHandle, Vec2)>,
    pack: Option<Pack>,
    /// What the textures were made for.
    made_for: Option<(Layout, Words, bool)>,
}

impl GlyphTextures {
    /// No textures yet.
    pub fn new() -> GlyphTextures {
        GlyphTextures::default()
    }

    /// Shows the pictures of a pack where it has some.
    #[must_use]
    pub fn with_pack(mut self, pack: Pack) -> GlyphTextures {
        self.pack = Some(pack);
        self.known.clear();
        self
    }

    /// The texture of an input and its size in points, so many points high. Nothing when it cannot
    /// be drawn; its name does then.
    pub fn get(
        &mut self,
        ctx: &Context,
        input: Input,
        height: f32,
        layout: &Layout,
        words: &Words,
    ) -> Option<(egui::TextureId, Vec2)> {
        let dark = ctx.global_style().visuals.dark_mode;
        let same = |(l, w, d): &(Layout, Words, bool)| l == layout && w == words && *d == dark;
        if !self.made_for.as_ref().is_some_and(same) || self.known.len() > MOST {
            self.known.clear();
            self.made_for = Some((layout.clone(), words.clone(), dark));
        }
        let scale = ctx.pixels_per_point();
        let pixels = (height * scale).round().max(1.0) as u32;
        if let Some((texture, size)) = self.known.get(&(input, pixels)) {
            return Some((texture.id(), *size));
        }
        let theme = if dark { Theme::DARK } else { Theme::LIGHT };
        let own = self.pack.as_ref();
        let own = own.and_then(|pack| pack.pixels_for(input, words, pixels));
        let drawn = || {
            Glyphs::new(&theme)
                .input(input, layout, words)
                .to_pixels(pixels)
        };
        let picture = match own {
            Some(picture) => picture,
            None => drawn().ok()?,
        };
        let size = [picture.width() as usize, picture.height() as usize];
        let image = ColorImage::from_rgba_premultiplied(size, picture.pixels());
        let texture = ctx.load_texture(input.to_string(), image, TextureOptions::LINEAR);
        let points = vec2(size[0] as f32 / scale, size[1] as f32 / scale);
        let id = texture.id();
        self.known.insert((input, pixels), (texture, points));
        Some((id, points))
    }
}
