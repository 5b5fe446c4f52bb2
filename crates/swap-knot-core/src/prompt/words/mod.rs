//! The words that players read, from Project Fluent files, in the languages that ship and in those
//! that a game adds.

mod names;
mod read;

use std::collections::HashMap;
use std::sync::{Arc, OnceLock};

pub use read::{WordsError, WordsMistake};

pub(crate) use self::names::Form;
use self::names::Named;
use self::read::{Message, Pattern};
use crate::input::{DeviceKind, Input};
use crate::nearest::nearest;
use crate::sheet::ColumnKind;

const ENGLISH: &str = include_str!("en.ftl");

/// The languages that ship: tag and words.
const SHIPPED: [(&str, &str); 8] = [
    ("en", ENGLISH),
    ("fr", include_str!("fr.ftl")),
    ("de", include_str!("de.ftl")),
    ("es", include_str!("es.ftl")),
    ("pt-BR", include_str!("pt-BR.ftl")),
    ("pl", include_str!("pl.ftl")),
    ("ja", include_str!("ja.ftl")),
    ("zh-Hans", include_str!("zh-Hans.ftl")),
];

/// The words for inputs, verbs and menus in one language.
///
/// Cheap to clone. Everything is worked out when it is made, so that showing a prompt only puts
/// words together.
///
/// ```
/// use swap_knot::{Input, Layout, Words};
///
/// let german = Words::shipped("de").expect("German ships");
/// let left: Input = "mouse:left".parse()?;
/// assert_eq!(german.input_name(left, &Layout::us()), "linke Maustaste");
///
/// // A game has words of its own, and languages of its own.
/// let ours = german.with_fluent("mouse-left = Feuerknopf", "ours.ftl")?;
/// assert_eq!(ours.input_name(left, &Layout::us()), "Feuerknopf");
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug)]
pub struct Words(Arc<Data>);

#[derive(Debug)]
struct Data {
    language: String,
    messages: HashMap<String, Message>,
    /// Every input whose name depends on nothing but the language.
    names: HashMap<Input, Named>,
    /// How the parts of a chord are joined, and how a list is.
    chord: Pattern,
}

impl Words {
    /// The words of a language that ships, by its BCP 47 tag (`de`, `pt-BR`).
    pub fn shipped(language: &str) -> Option<Words> {
        let (tag, text) = SHIPPED.into_iter().find(|(tag, _)| *tag == language)?;
        if tag == "en" {
            return Some(Words::english());
        }
        Words::english().named(tag).with_fluent(text, tag).ok()
    }

    /// The tags of the languages that ship.
    pub fn languages() -> impl Iterator<Item = &'static str> {
        SHIPPED.into_iter().map(|(tag, _)| tag)
    }

    /// The words that fit a player's language best: those of the tag, of its language in another
    /// country, or else English.
    ///
    /// ```
    /// use swap_knot::Words;
    ///
    /// assert_eq!(Words::nearest("pt-PT").language(), "pt-BR");
    /// assert_eq!(Words::nearest("en-AU").language(), "en");
    /// assert_eq!(Words::nearest("xx").language(), "en");
    /// ```
    pub fn nearest(language: &str) -> Words {
        let first = |tag: &str| {
            tag.split(['-', '_'])
                .next()
                .unwrap_or_default()
                .to_lowercase()
        };
        let near = || Self::languages().find(|tag| first(tag) == first(language));
        let own = Words::shipped(language);
        own.or_else(|| near().and_then(Words::shipped))
            .unwrap_or_else(Words::english)
    }

    /// English, which everything falls back on.
    pub fn english() -> Words {
        static ENGLISH_WORDS: OnceLock<Words> = OnceLock::new();
        let words = ENGLISH_WORDS.get_or_init(|| {
            // A test asserts that the English file has no mistake.
            let messages = read::read(ENGLISH).unwrap_or_default();
            Words::of("en".to_owned(), messages.into_iter().collect())
        });
        words.clone()
    }

    /// The same words under another tag, for a language of the game's own.
    #[must_use]
    pub fn named(&self, language: &str) -> Words {
        Words::of(language.to_owned(), self.0.messages.clone())
    }

    /// These words with those of a Fluent file laid over them. The file's name is for mistakes.
    ///
    /// A message is a text with variables, its attributes are `.short` for little room, `.object`
    /// for what follows a verb, and `.spoken` for screen readers; `touch-NAME` names a touch input.
    /// Selectors, functions and references are not taken: nothing here is counted.
    ///
    /// # Errors
    /// Every mistake at once: what is no Fluent, a message or variable that there is none of.
    pub fn with_fluent(&self, text: &str, file: &str) -> Result<Words, WordsError> {
        let wrong = |mistakes: Vec<WordsMistake>| WordsError::new(file, mistakes);
        let own = read::read(text).map_err(wrong)?;
        let mut mistakes = Vec::new();
        for (id, message) in &own {
            self.check(id, message, text, &mut mistakes);
        }
        if !mistakes.is_empty() {
            return Err(wrong(mistakes));
        }
        let mut messages = self.0.messages.clone();
        messages.extend(own);
        Ok(Words::of(self.language().to_owned(), messages))
    }

    fn check(&self, id: &str, message: &Message, text: &str, out: &mut Vec<WordsMistake>) {
        let mistake = |what| WordsMistake::at_message(text, id, what);
        let english = Words::english();
        let Some(known) = english.0.messages.get(id) else {
            if !id.starts_with("touch-") {
                let ids = english.0.messages.keys().map(String::as_str);
                let near = nearest(id, ids).map(|n| format!("; did you mean `{n}`?"));
                let near = near.unwrap_or_default();
                out.push(mistake(format!("there is no message `{id}`{near}")));
            }
            return;
        };
        let takes = known.variables();
        for variable in message.variables() {
            if !takes.contains(&variable) {
                let takes: Vec<String> = takes.iter().map(|v| format!("${v}")).collect();
                let has = match takes.is_empty() {
                    true => "it takes none".to_owned(),
                    false => format!("it takes {}", takes.join(", ")),
                };
                out.push(mistake(format!("`{id}` takes no `${variable}`; {has}")));
            }
        }
    }

    fn of(language: String, messages: HashMap<String, Message>) -> Words {
        let names = names::all(&messages);
        let chord = messages.get("chord").map(|m| m.value.clone());
        Words(Arc::new(Data {
            language,
            names,
            chord: chord.unwrap_or_default(),
            messages,
        }))
    }

    /// The tag of the language.
    pub fn language(&self) -> &str {
        &self.0.language
    }

    /// What a device kind is called.
    pub fn device_name(&self, kind: DeviceKind) -> String {
        self.fill(&format!("device-{kind}"), &[])
    }

    /// What a menu writes over its columns for a kind of device.
    pub fn column_name(&self, kind: ColumnKind) -> String {
        self.fill(&format!("column-{kind}"), &[])
    }

    /// A text for a menu by its message, with its variables filled in: `menu-apply`, or
    /// `menu-listen` with `$title`. The ids are those of the Fluent files that ship; one that there
    /// is not comes back as it is.
    pub fn say(&self, id: &str, values: &[(&str, &str)]) -> String {
        self.fill(id, values)
    }

    /// A message with its variables filled in.
    pub(crate) fn fill(&self, id: &str, values: &[(&str, &str)]) -> String {
        let message = self.0.messages.get(id);
        message.map_or_else(|| id.to_owned(), |m| m.value.fill(values))
    }

    /// An attribute of a message, or the message where it has none.
    pub(crate) fn fill_as(&self, id: &str, attribute: &str, values: &[(&str, &str)]) -> String {
        let message = self.0.messages.get(id);
        message.map_or_else(|| id.to_owned(), |m| m.part(attribute).fill(values))
    }

    /// The text before and after the variable `$input` of a message.
    pub(crate) fn around(&self, id: &str, variable: &str) -> (&str, &str) {
        let message = self.0.messages.get(id);
        message.map_or(("", ""), |m| m.value.around(variable))
    }
}

impl PartialEq for Words {
    fn eq(&self, other: &Self) -> bool {
        Arc::ptr_eq(&self.0, &other.0)
    }
}

impl Default for Words {
    /// English.
    fn default() -> Self {
        Words::english()
    }
}
