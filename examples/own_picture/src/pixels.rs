//! Rectangles and text in a plain buffer of pixels.

use ab_glyph::{Font as _, FontRef, PxScale, ScaleFont as _, point};

pub(crate) const GROUND: u32 = 0x13_18_1d;
pub(crate) const RAISED: u32 = 0x1d_24_2b;
pub(crate) const ITEM: u32 = 0x29_32_3b;
pub(crate) const FOCUS: u32 = 0xf2_b8_4b;
const TEXT: u32 = 0xf2_f4_f6;
/// How high a line is, in pixels.
pub(crate) const LINE: i32 = 30;
const POINTS: f32 = 19.0;

/// A place in the picture, in pixels.
#[derive(Clone, Copy)]
pub(crate) struct Rect {
    pub(crate) x: i32,
    pub(crate) y: i32,
    pub(crate) width: i32,
    pub(crate) height: i32,
}

impl Rect {
    /// Left, top, width and height, as the screen wants them.
    pub(crate) fn edges(&self) -> [f32; 4] {
        [self.x, self.y, self.width, self.height].map(|n| n as f32)
    }

    pub(crate) const fn inner(self, by: i32) -> Rect {
        Rect {
            x: self.x + by,
            y: self.y + by,
            width: self.width - 2 * by,
            height: self.height - 2 * by,
        }
    }
}

/// A buffer to draw into: a pixel is blue, green and red from the lowest byte up.
pub(crate) struct Pixels<'a> {
    all: &'a mut [u32],
    pub(crate) width: i32,
    pub(crate) height: i32,
    font: Option<FontRef<'static>>,
}

impl<'a> Pixels<'a> {
    pub(crate) fn new(all: &'a mut [u32], width: i32, height: i32) -> Pixels<'a> {
        let font = FontRef::try_from_slice(dejavu::sans::regular()).ok();
        Pixels {
            all,
            width,
            height,
            font,
        }
    }

    pub(crate) fn clear(&mut self) {
        self.all.fill(GROUND);
    }

    pub(crate) fn fill(&mut self, rect: Rect, color: u32) {
        for y in rect.y.max(0)..(rect.y + rect.height).min(self.height) {
            let (from, to) = (
                rect.x.clamp(0, self.width),
                (rect.x + rect.width).clamp(0, self.width),
            );
            let start = (y * self.width) as usize;
            self.all[start + from as usize..start + to as usize].fill(color);
        }
    }

    /// How wide a text is.
    pub(crate) fn measure(&self, text: &str) -> i32 {
        let font = self
            .font
            .as_ref()
            .map(|f| f.as_scaled(PxScale::from(POINTS)));
        let width = |c| font.as_ref().map_or(0.0, |f| f.h_advance(f.glyph_id(c)));
        text.chars().map(width).sum::<f32>().ceil() as i32
    }

    /// Draws a text, and answers where the next line begins.
    pub(crate) fn text(&mut self, x: i32, y: i32, text: &str, bright: bool) -> i32 {
        let Some(font) = self.font.clone().filter(|_| !text.is_empty()) else {
            return y;
        };
        let scaled = font.as_scaled(PxScale::from(POINTS));
        let mut at = point(x as f32, y as f32 + 21.0);
        let strength = if bright { 1.0 } else { 0.85 };
        for c in text.chars() {
            let mut glyph = scaled.scaled_glyph(c);
            glyph.position = at;
            at.x += scaled.h_advance(glyph.id);
            if let Some(outline) = font.outline_glyph(glyph) {
                let bounds = outline.px_bounds();
                outline.draw(|gx, gy, cover| {
                    let (px, py) = (
                        bounds.min.x as i32 + gx as i32,
                        bounds.min.y as i32 + gy as i32,
                    );
                    if (0..self.width).contains(&px) && (0..self.height).contains(&py) {
                        let pixel = &mut self.all[(py * self.width + px) as usize];
                        *pixel = mixed(*pixel, TEXT, cover.min(1.0) * strength);
                    }
                });
            }
        }
        y + LINE
    }
}

/// A color laid over another one.
fn mixed(under: u32, over: u32, share: f32) -> u32 {
    (0..3).fold(0, |all, n| {
        let part = |color: u32| (color >> (8 * n) & 0xff) as f32;
        let value = part(under) * (1.0 - share) + part(over) * share;
        all | (value as u32) << (8 * n)
    })
}
