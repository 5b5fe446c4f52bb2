//! Rectangles and text in a plain buffer of pixels.

use ab_glyph::{Font as _, FontRef, PxScale, ScaleFont as _, point};

/// What the screen looks like: each colour by what it stands for, blue in the lowest byte.
pub(crate) struct Look {
    pub(crate) ground: u32,
    pub(crate) raised: u32,
    pub(crate) cell: u32,
    pub(crate) text: u32,
    pub(crate) quiet: u32,
    /// Where the player is.
    pub(crate) here: u32,
    pub(crate) changed: u32,
    pub(crate) conflict: u32,
    pub(crate) lit: u32,
}

/// This game's own.
pub(crate) const LOOK: Look = Look {
    ground: 0x13_18_1d,
    raised: 0x1d_24_2b,
    cell: 0x29_32_3b,
    text: 0xf2_f4_f6,
    quiet: 0xb4_c0_c2,
    here: 0xf2_b8_4b,
    changed: 0xcd_b8_ff,
    conflict: 0xff_a4_93,
    lit: 0x7f_dd_a0,
};

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
        self.all.fill(LOOK.ground);
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
        let font = self.font.as_ref();
        let font = font.map(|f| f.as_scaled(PxScale::from(POINTS)));
        let width = |c| font.as_ref().map_or(0.0, |f| f.h_advance(f.glyph_id(c)));
        text.chars().map(width).sum::<f32>().ceil() as i32
    }

    /// Draws a text, and answers where the next line begins.
    pub(crate) fn text(&mut self, x: i32, y: i32, text: &str, color: u32) -> i32 {
        self.text_of(POINTS, [x, y + 21], text, color);
        if text.is_empty() { y } else { y + LINE }
    }

    /// Draws a text as large as it fits into a place.
    pub(crate) fn text_within(&mut self, rect: Rect, text: &str, color: u32) {
        let wide = self.measure(text).max(1) as f32;
        let points = (POINTS * rect.width as f32 / wide).min(POINTS);
        self.text_of(points, [rect.x, rect.y + points as i32], text, color);
    }

    /// Draws a text of a size, from where its line stands.
    fn text_of(&mut self, points: f32, [x, y]: [i32; 2], text: &str, color: u32) {
        let Some(font) = self.font.clone() else {
            return;
        };
        let scaled = font.as_scaled(PxScale::from(points));
        let mut at = point(x as f32, y as f32);
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
                        *pixel = mixed(*pixel, color, cover.min(1.0));
                    }
                });
            }
        }
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
