//! Drawings as pixels (feature `png`).

use std::collections::BTreeSet;
use std::sync::{Arc, OnceLock};

use resvg::{tiny_skia, usvg};
use usvg::fontdb::{Database, FaceInfo};

use crate::drawing::Drawing;
use crate::fonts::SystemFont;

/// The largest picture that is made, in pixels.
const MAX_PIXELS: u64 = 64 << 20;

/// A picture in pixels.
#[derive(Clone, Debug)]
pub struct Picture {
    map: tiny_skia::Pixmap,
}

/// Why a drawing cannot be turned into pixels.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum RasterError {
    /// It is no SVG that can be drawn.
    #[error("not an SVG that can be drawn: {0}")]
    Svg(String),
    /// It would be too large.
    #[error("{0} x {1} pixels are too many; at most {MAX_PIXELS} are drawn")]
    TooLarge(u64, u64),
    /// It cannot be written as PNG.
    #[error("cannot be written as PNG: {0}")]
    Png(String),
}

impl Picture {
    /// Its width in pixels.
    pub fn width(&self) -> u32 {
        self.map.width()
    }

    /// Its height in pixels.
    pub fn height(&self) -> u32 {
        self.map.height()
    }

    /// Its pixels row by row: red, green, blue, alpha, the colours multiplied by alpha.
    pub fn pixels(&self) -> &[u8] {
        self.map.data()
    }

    /// The picture as a PNG file.
    ///
    /// # Errors
    /// When it cannot be encoded.
    pub fn to_png(&self) -> Result<Vec<u8>, RasterError> {
        self.map
            .encode_png()
            .map_err(|e| RasterError::Png(e.to_string()))
    }

    pub(crate) fn blank(width: u32, height: u32) -> Option<Picture> {
        let map = tiny_skia::Pixmap::new(width, height)?;
        Some(Picture { map })
    }

    /// Draws another picture onto this one, as large as it is.
    pub(crate) fn put(&mut self, other: &Picture, x: u32, y: u32) {
        let paint = tiny_skia::PixmapPaint::default();
        let at = tiny_skia::Transform::identity();
        let (x, y) = (x as i32, y as i32);
        self.map
            .draw_pixmap(x, y, other.map.as_ref(), &paint, at, None);
    }
}

impl Drawing {
    /// The drawing as pixels, so high.
    ///
    /// Text is set in DejaVu Sans, which comes along; characters that it lacks come from the fonts
    /// of the machine.
    ///
    /// # Errors
    /// When it would be too large.
    pub fn to_pixels(&self, height: u32) -> Result<Picture, RasterError> {
        let background = None;
        pixels_of(&self.to_svg(), height, background)
    }
}

/// An SVG as pixels, so high.
///
/// Nothing outside of the text is read: pictures that it refers to are left out.
pub(crate) fn pixels_of(
    svg: &str,
    height: u32,
    background: Option<&str>,
) -> Result<Picture, RasterError> {
    let mut options = usvg::Options {
        fontdb: fonts(),
        font_family: "DejaVu Sans".to_owned(),
        ..usvg::Options::default()
    };
    options.image_href_resolver = usvg::ImageHrefResolver {
        resolve_data: Box::new(|_, _, _| None),
        resolve_string: Box::new(|_, _| None),
    };
    let tree = usvg::Tree::from_str(svg, &options).map_err(|e| RasterError::Svg(e.to_string()))?;
    let size = tree.size();
    let scale = height as f32 / size.height();
    let width = (size.width() * scale).round().max(1.0);
    if f64::from(width) * f64::from(height) > MAX_PIXELS as f64 {
        return Err(RasterError::TooLarge(width as u64, u64::from(height)));
    }
    let Some(mut map) = tiny_skia::Pixmap::new(width as u32, height.max(1)) else {
        return Err(RasterError::TooLarge(width as u64, u64::from(height)));
    };
    if let Some(color) = background.and_then(color_of) {
        map.fill(color);
    }
    let scale = tiny_skia::Transform::from_scale(scale, scale);
    resvg::render(&tree, scale, &mut map.as_mut());
    Ok(Picture { map })
}

fn color_of(hex: &str) -> Option<tiny_skia::Color> {
    let part = |at: usize| u8::from_str_radix(hex.get(at..at + 2)?, 16).ok();
    let (r, g, b) = (part(1)?, part(3)?, part(5)?);
    Some(tiny_skia::Color::from_rgba8(r, g, b, 255))
}

/// DejaVu Sans and the fonts of the machine, looked for once.
fn fonts() -> Arc<usvg::fontdb::Database> {
    static FONTS: OnceLock<Arc<usvg::fontdb::Database>> = OnceLock::new();
    let fonts = FONTS.get_or_init(|| {
        let mut fonts = usvg::fontdb::Database::new();
        for face in [dejavu::sans::regular(), dejavu::sans::bold()] {
            fonts.load_font_data(face.to_vec());
        }
        fonts.load_system_fonts();
        fonts.set_sans_serif_family("DejaVu Sans");
        Arc::new(fonts)
    });
    Arc::clone(fonts)
}

/// Leaves those letters that no font of the machine has.
pub(crate) fn keep_lacking(letters: &mut BTreeSet<char>) {
    let fonts = fonts();
    for face in fonts.faces() {
        if letters.is_empty() {
            return;
        }
        for letter in known(&fonts, face, letters) {
            letters.remove(&letter);
        }
    }
}

/// Which of some letters a face has.
fn known(fonts: &Database, face: &FaceInfo, letters: &BTreeSet<char>) -> Vec<char> {
    let known = fonts.with_face_data(face.id, |data, index| {
        let font = ttf_parser::Face::parse(data, index).ok()?;
        let has = |c: &char| font.glyph_index(*c).is_some();
        Some(letters.iter().copied().filter(has).collect())
    });
    known.flatten().unwrap_or_default()
}

/// Whether a face is upright and of usual weight, as text for reading is.
fn is_plain(face: &FaceInfo) -> bool {
    face.style == usvg::fontdb::Style::Normal && face.weight == usvg::fontdb::Weight::NORMAL
}

fn system_font(fonts: &Database, face: &FaceInfo) -> Option<SystemFont> {
    let family = face.families.first().map(|(name, _)| name.clone())?;
    let data = fonts.with_face_data(face.id, |data, index| (data.to_vec(), index));
    let (data, index) = data?;
    Some(SystemFont {
        family,
        data,
        index,
    })
}

pub(crate) fn font_named(family: &str) -> Option<SystemFont> {
    let fonts = fonts();
    let is = |face: &&FaceInfo| {
        face.families
            .iter()
            .any(|(n, _)| n.eq_ignore_ascii_case(family))
    };
    let of_family = || fonts.faces().filter(is);
    let face = of_family()
        .find(|f| is_plain(f))
        .or_else(|| of_family().next())?;
    system_font(&fonts, face)
}

pub(crate) fn fonts_with(letters: &BTreeSet<char>) -> Vec<SystemFont> {
    let fonts = fonts();
    let (mut left, mut found) = (letters.clone(), Vec::new());
    while !left.is_empty() {
        let plain = fonts.faces().filter(|f| is_plain(f));
        let counted = plain.map(|face| (known(&fonts, face, &left), face));
        let best = counted.max_by_key(|(known, face)| (known.len(), !face.monospaced));
        let Some((known, face)) = best.filter(|(known, _)| !known.is_empty()) else {
            break;
        };
        for letter in known {
            left.remove(&letter);
        }
        found.extend(system_font(&fonts, face));
    }
    found
}

/// A PNG file as pixels, so high.
pub(crate) fn scaled_png(bytes: &[u8], height: u32) -> Result<Picture, RasterError> {
    let wrong = |e: png::DecodingError| RasterError::Png(e.to_string());
    let map = tiny_skia::Pixmap::decode_png(bytes).map_err(wrong)?;
    let scale = height as f32 / map.height() as f32;
    let width = (map.width() as f32 * scale).round().max(1.0) as u32;
    let too_large = || RasterError::TooLarge(u64::from(width), u64::from(height));
    let mut out = tiny_skia::Pixmap::new(width, height.max(1)).ok_or_else(too_large)?;
    let paint = tiny_skia::PixmapPaint {
        quality: tiny_skia::FilterQuality::Bicubic,
        ..tiny_skia::PixmapPaint::default()
    };
    let at = tiny_skia::Transform::from_scale(scale, scale);
    out.draw_pixmap(0, 0, map.as_ref(), &paint, at, None);
    Ok(Picture { map: out })
}
