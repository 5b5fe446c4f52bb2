//! What is known of fonts: how wide each letter is, and which letters have none.

use std::collections::BTreeSet;
use std::sync::OnceLock;

use unicode_normalization::char::is_combining_mark;

/// A face of DejaVu Sans, in which drawings are set.
struct Face {
    font: ttf_parser::Face<'static>,
    units: f32,
}

impl Face {
    fn of(data: &'static [u8]) -> Option<Face> {
        let font = ttf_parser::Face::parse(data, 0).ok()?;
        let units = f32::from(font.units_per_em());
        Some(Face { font, units })
    }

    /// How wide a letter is, in ems; none where the face has it not.
    fn advance(&self, character: char) -> Option<f32> {
        let glyph = self.font.glyph_index(character)?;
        Some(f32::from(self.font.glyph_hor_advance(glyph)?) / self.units)
    }
}

fn face(bold: bool) -> Option<&'static Face> {
    static FACES: [OnceLock<Option<Face>>; 2] = [const { OnceLock::new() }; 2];
    let face = FACES[usize::from(bold)].get_or_init(|| match bold {
        true => Face::of(dejavu::sans::bold()),
        false => Face::of(dejavu::sans::regular()),
    });
    face.as_ref()
}

/// How wide a letter is, in ems: as DejaVu Sans has it, else as wide as letters of its script are in
/// most fonts.
pub(crate) fn advance(character: char, bold: bool) -> f32 {
    if let Some(known) = face(bold).and_then(|f| f.advance(character)) {
        return known;
    }
    match character {
        c if is_combining_mark(c) => 0.0,
        c if is_wide(c) => 1.0,
        _ if bold => 0.72,
        _ => 0.66,
    }
}

/// Letters that are as wide as they are high (East Asian Width W and F, Unicode annex 11, in short).
const fn is_wide(c: char) -> bool {
    matches!(c,
        '\u{1100}'..='\u{115F}' | '\u{2E80}'..='\u{303E}' | '\u{3041}'..='\u{A4CF}'
        | '\u{AC00}'..='\u{D7A3}' | '\u{F900}'..='\u{FAFF}' | '\u{FE30}'..='\u{FE6F}'
        | '\u{FF00}'..='\u{FF60}' | '\u{FFE0}'..='\u{FFE6}' | '\u{20000}'..='\u{3FFFD}')
}

/// Letters of scripts that are written without spaces: Chinese and Japanese, but not Korean; Thai,
/// Lao, Khmer and Burmese, which break between words that only a dictionary knows.
pub(crate) const fn is_unspaced(c: char) -> bool {
    match c {
        '\u{1100}'..='\u{115F}' | '\u{AC00}'..='\u{D7A3}' => false,
        '\u{0E00}'..='\u{0EFF}' | '\u{1000}'..='\u{109F}' | '\u{1780}'..='\u{17FF}' => true,
        c => is_wide(c),
    }
}

/// The letters of a text that no font here has: what is shown of them are boxes. Without the feature
/// `png` only the font is known that drawings ask for first.
pub(crate) fn lacking(text: &str) -> BTreeSet<char> {
    let plain = |c: &char| !c.is_whitespace() && !c.is_control();
    let unknown = |c: &char| face(false).is_none_or(|f| f.advance(*c).is_none());
    let mut lacking: BTreeSet<char> = text.chars().filter(plain).filter(unknown).collect();
    #[cfg(feature = "png")]
    crate::raster::keep_lacking(&mut lacking);
    lacking.remove(&'\u{FE0F}');
    lacking
}

/// A line for whoever sees to the fonts: which letters have none, and what to install. Nothing where
/// there is nothing to say; see [`Drawing::lacking_letters`](crate::Drawing::lacking_letters).
pub fn font_warning(lacking: &BTreeSet<char>) -> Option<String> {
    const SHOWN: usize = 12;
    if lacking.is_empty() {
        return None;
    }
    let shown: Vec<String> = lacking.iter().take(SHOWN).map(char::to_string).collect();
    let more = match lacking.len().saturating_sub(SHOWN) {
        0 => String::new(),
        n => format!(" and {n} more"),
    };
    let east = |c: &char| is_wide(*c) || ('\u{1100}'..='\u{11FF}').contains(c);
    let mut fonts = Vec::new();
    if lacking.iter().any(east) {
        fonts.push("Noto Sans CJK (Debian: fonts-noto-cjk)");
    }
    if !lacking.iter().all(east) {
        fonts.push("Noto Sans for their script (Debian: fonts-noto-core)");
    }
    let (shown, fonts) = (shown.join(" "), fonts.join(" and "));
    Some(match cfg!(feature = "png") {
        true => format!(
            "no font of this machine has {shown}{more}; boxes are shown for them; install {fonts}"
        ),
        false => format!(
            "DejaVu Sans lacks {shown}{more}; whoever looks at it needs a font that has them, such as {fonts}"
        ),
    })
}

/// A font of the machine.
#[cfg(feature = "png")]
#[derive(Clone)]
#[non_exhaustive]
pub struct SystemFont {
    /// The name of its family.
    pub family: String,
    /// The bytes of its file (TrueType, OpenType or a collection).
    pub data: Vec<u8>,
    /// Which face of the file it is.
    pub index: u32,
}

#[cfg(feature = "png")]
impl SystemFont {
    /// A font by the name of its family, in any case, in its regular style.
    pub fn named(family: &str) -> Option<SystemFont> {
        crate::raster::font_named(family)
    }

    /// Fonts that have those letters between them, as few as it takes, and without the letters that
    /// none has.
    pub fn with_letters(letters: &BTreeSet<char>) -> Vec<SystemFont> {
        crate::raster::fonts_with(letters)
    }
}

#[cfg(feature = "png")]
impl std::fmt::Debug for SystemFont {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(f, "SystemFont({})", self.family)
    }
}
