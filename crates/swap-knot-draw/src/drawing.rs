//! A finished drawing, to be written out or put into another one.

use std::collections::BTreeSet;
use std::fmt::Write as _;

/// A drawing: a piece of SVG and how large it is.
#[derive(Clone, Debug, PartialEq)]
pub struct Drawing {
    pub(crate) width: f32,
    pub(crate) height: f32,
    pub(crate) body: String,
}

impl Drawing {
    /// Its width in pixels.
    pub fn width(&self) -> f32 {
        self.width
    }

    /// Its height in pixels.
    pub fn height(&self) -> f32 {
        self.height
    }

    /// The drawing as an SVG document.
    pub fn to_svg(&self) -> String {
        self.to_svg_at(self.height)
    }

    /// The drawing as an SVG document of that height in pixels.
    pub fn to_svg_at(&self, height: f32) -> String {
        let (w, h) = (self.width, self.height);
        let width = w * height / h;
        format!(
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width:.2}\" height=\"{height:.2}\" viewBox=\"0 0 {w:.2} {h:.2}\">{}</svg>",
            self.body
        )
    }

    /// The letters in it that no font has that is known here, so that boxes are shown for them: none
    /// where all is well.
    ///
    /// With the feature `png` the fonts of this machine are known; without it only DejaVu Sans, and
    /// whoever looks at the SVG needs a font of their own for the others.
    pub fn lacking_letters(&self) -> BTreeSet<char> {
        let svg = self.to_svg();
        let texts = roxmltree::Document::parse(&svg).map(|document| {
            let all = document.descendants().filter_map(|node| node.text());
            all.collect::<String>()
        });
        crate::fonts::lacking(&texts.unwrap_or_default())
    }

    /// Puts another drawing into this one with its corner at a point, so high.
    pub(crate) fn put(&mut self, other: &Drawing, x: f32, y: f32, height: f32) {
        let scale = height / other.height;
        // Writing to a String cannot fail.
        let _ = write!(
            self.body,
            "<g transform=\"translate({x:.2} {y:.2}) scale({scale:.4})\">{}</g>",
            other.body
        );
    }
}
