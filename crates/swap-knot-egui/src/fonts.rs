//! Fonts that have the letters of the player's language and keyboard.

use std::collections::BTreeSet;
use std::sync::Arc;

use egui::{Context, FontData, FontDefinitions, FontFamily};
use skrifa::{FontRef, MetadataProvider as _};
use swap_knot::{Layout, Words};
use swap_knot_draw::{SystemFont, font_warning};

/// Fonts for a game's screens: the game's own, those of the machine by name, and whatever of the
/// machine's has the letters that are still lacking.
///
/// # Example: whatever the language and the keyboard
/// ```
/// use egui::FontDefinitions;
/// use swap_knot::{Layout, Words};
/// use swap_knot_egui::Fonts;
///
/// # let ctx = egui::Context::default();
/// let (words, layout) = (Words::nearest("ja"), Layout::us());
/// let fonts = Fonts::new(FontDefinitions::default()).for_player(&words, &layout);
/// if let Some(warning) = fonts.warning() {
///     eprintln!("warning: {warning}"); // which letters have no font, and what to install
/// }
/// fonts.install(&ctx);
/// ```
#[derive(Clone, Debug)]
pub struct Fonts {
    definitions: FontDefinitions,
    lacking: BTreeSet<char>,
}

/// There is no font of that name on this machine.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct NoSuchFont {
    /// The name.
    pub family: String,
}

impl std::fmt::Display for NoSuchFont {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        let family = &self.family;
        write!(
            f,
            "there is no font `{family}` on this machine; ship one with the game"
        )
    }
}

impl std::error::Error for NoSuchFont {}

impl Fonts {
    /// Begins with the fonts that the game has so far.
    pub fn new(definitions: FontDefinitions) -> Fonts {
        Fonts {
            definitions,
            lacking: BTreeSet::new(),
        }
    }

    /// Adds a font of the game's, by a name and the bytes of its file: used for the letters that
    /// those before it lack.
    #[must_use]
    pub fn with_font(mut self, name: &str, data: Vec<u8>) -> Fonts {
        self.add(name, FontData::from_owned(data));
        self
    }

    /// Adds a font of the machine by the name of its family.
    ///
    /// # Errors
    /// When the machine has none of that name.
    pub fn with_system_font(mut self, family: &str) -> Result<Fonts, NoSuchFont> {
        let font = SystemFont::named(family).ok_or_else(|| NoSuchFont {
            family: family.to_owned(),
        })?;
        self.add_system(font);
        Ok(self)
    }

    /// Adds what the machine has for the letters of a language, with the game's titles in it, and of
    /// a keyboard. Do this again when either changes.
    #[must_use]
    pub fn for_player(self, words: &Words, layout: &Layout) -> Fonts {
        self.with_letters(words.letters().into_iter().chain(layout.letters()))
    }

    /// Adds what the machine has for some letters.
    #[must_use]
    pub fn with_letters(mut self, letters: impl IntoIterator<Item = char>) -> Fonts {
        let wanted = letters
            .into_iter()
            .filter(|c| !c.is_whitespace() && !c.is_control());
        self.lacking.extend(wanted);
        self.take_known();
        for font in SystemFont::with_letters(&self.lacking) {
            self.add_system(font);
        }
        self.take_known();
        self
    }

    /// The letters that were wanted and that no font has.
    pub fn lacking(&self) -> &BTreeSet<char> {
        &self.lacking
    }

    /// Those letters in a line for logs, with what to install; nothing where all is well.
    pub fn warning(&self) -> Option<String> {
        font_warning(&self.lacking)
    }

    /// The fonts, to be changed further.
    pub fn into_definitions(self) -> FontDefinitions {
        self.definitions
    }

    /// Uses the fonts from the next frame on.
    pub fn install(self, ctx: &Context) {
        ctx.set_fonts(self.definitions);
    }

    fn add_system(&mut self, font: SystemFont) {
        let mut data = FontData::from_owned(font.data);
        data.index = font.index;
        self.add(&font.family, data);
    }

    /// Behind the fonts that there are, so that those keep their look.
    fn add(&mut self, name: &str, data: FontData) {
        let known = self
            .definitions
            .font_data
            .insert(name.to_owned(), Arc::new(data));
        if known.is_some() {
            return;
        }
        for family in [FontFamily::Proportional, FontFamily::Monospace] {
            let all = self.definitions.families.entry(family).or_default();
            all.push(name.to_owned());
        }
    }

    /// Forgets the letters that a font has by now.
    fn take_known(&mut self) {
        for data in self.definitions.font_data.values() {
            let Ok(font) = FontRef::from_index((*data.font).as_ref(), data.index) else {
                continue;
            };
            let known = font.charmap();
            self.lacking.retain(|c| known.map(*c).is_none());
        }
    }
}
