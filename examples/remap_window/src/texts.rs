//! The game's texts in the player's language: its titles go over those of the sheet, its prompts are
//! read out of the same file.

use std::error::Error;

use fluent_bundle::{FluentBundle, FluentResource};
use swap_knot::Words;

macro_rules! texts {
    ($($tag:literal),*) => {
        &[$(($tag, include_str!(concat!("../../../demo/texts/", $tag, ".ftl")))),*]
    };
}

/// One Fluent file a language.
const TEXTS: &[(&str, &str)] = texts![
    "en", "fr", "de", "es", "pt-BR", "it", "pl", "ru", "uk", "tr", "ja", "ko", "zh-Hans", "zh-Hant"
];

/// The texts of one language.
pub(crate) struct Texts {
    bundle: FluentBundle<FluentResource>,
    /// The words for inputs and menus, with the game's own titles.
    pub(crate) words: Words,
}

impl Texts {
    /// The texts in the language that is nearest to a player's.
    pub(crate) fn nearest(tag: &str) -> Result<Texts, Box<dyn Error>> {
        let words = Words::nearest(tag);
        let (tag, text) =
            (TEXTS.iter().find(|(tag, _)| *tag == words.language())).unwrap_or(&TEXTS[0]);
        let resource = FluentResource::try_new((*text).to_owned());
        let resource = resource.map_err(|(_, wrong)| format!("{tag}.ftl: {wrong:?}"))?;
        let mut bundle = FluentBundle::new(vec![tag.parse()?]);
        // Prompts are put together by Swap Knot: no marks around what is filled in.
        bundle.set_use_isolating(false);
        let added = bundle.add_resource(resource);
        added.map_err(|wrong| format!("{tag}.ftl: {wrong:?}"))?;
        let words = words.with_texts(text, tag)?;
        Ok(Texts { bundle, words })
    }

    /// The text of a message.
    pub(crate) fn get(&self, id: &str) -> Result<String, Box<dyn Error>> {
        let message = self.bundle.get_message(id).and_then(|m| m.value());
        let pattern = message.ok_or_else(|| format!("there is no text `{id}`"))?;
        let text = self.bundle.format_pattern(pattern, None, &mut Vec::new());
        Ok(text.into_owned())
    }
}
