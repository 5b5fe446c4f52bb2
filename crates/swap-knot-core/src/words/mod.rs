//! The words that players read, from Project Fluent files, in the languages that ship and in those
//! that a game adds.
//!
//! It answers what anything is called in the player's language, on their keyboard and on their pad, and
//! puts into words whatever can be told. It relies on `input`, `sheet` and `layout`; the sentence of a type
//! that stands higher lies beside that type, in a file `tell` of its room. A text that a language lacks is
//! taken from English, and every id that the code asks for is in `lang/en.ftl`.
//!
//! - `mod`: `Words`, a language with what a game lays over it
//! - `read`, `fill`: a file of texts, and a text filled with its values
//! - `names`, `keys`, `signs`, `table`: what inputs, chords and keys are called
//! - `titles`: the game's own titles
//! - `marks`, `marked`: what families of pads print, and words that carry it
//! - `tell`, `below`: what can be told, and how that is told which is declared below
//! - `shipped`: the languages that ship

mod below;
mod fill;
mod keys;
mod marked;
mod marks;
mod names;
mod read;
mod shipped;
mod signs;
mod table;
mod tell;
mod titles;

use std::collections::{BTreeSet, HashMap};
use std::sync::{Arc, OnceLock};

pub use marks::{Family, Marks, MarksError, MarksFinding, MarksFindingKind};
pub use read::{WordsError, WordsMistake};
pub use tell::{Tell, Telling};
pub use titles::GameTitle;

pub(crate) use self::fill::is_legend;
pub(crate) use self::names::{Form, On, Saying};
use self::read::Message;
pub(crate) use self::read::{Part, Pattern};
use crate::input::Platform;
use crate::text::{nearest, shown};

/// What every text stands between in [`Words::bracketed`].
const OPENS: &str = "⟦";
const CLOSES: &str = "⟧";

/// The words for inputs, verbs and menus, and the game's own titles, in one language.
///
/// Cheap to clone.
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
    /// What a game's own file says besides: its prompts.
    texts: HashMap<String, Pattern>,
    /// Whether every text stands between brackets.
    brackets: bool,
    /// Whose marks its names of pads are, and the words without them.
    marked: Option<marked::Marked>,
    /// Names by platform, worked out when the first one is asked for.
    names: [OnceLock<table::Table>; Platform::ALL.len()],
}

impl Words {
    /// The tag under which [`Words::shipped`] has English between brackets, see
    /// [`Words::bracketed`].
    pub const BRACKETS: &'static str = "x-brackets";

    /// The words of a language that ships, by its BCP 47 tag (`de`, `pt-BR`).
    pub fn shipped(language: &str) -> Option<Words> {
        if language == Self::BRACKETS {
            return Some(Words::english().named(Self::BRACKETS).bracketed());
        }
        let (tag, text) = shipped::all().find(|(tag, _)| *tag == language)?;
        if tag == "en" {
            return Some(Words::english());
        }
        let base = shipped::base(tag).map_or_else(|| Some(Words::english()), Words::shipped)?;
        base.named(tag).with_fluent(text, tag).ok()
    }

    /// The tags of the languages that ship.
    pub fn languages() -> impl Iterator<Item = &'static str> {
        shipped::all().map(|(tag, _)| tag)
    }

    /// The words that fit a player's language best: those of the tag, of its language in another
    /// country or script, or else English. What stands behind a dot, as in a locale's name, is
    /// left out of it.
    ///
    /// ```
    /// use swap_knot::Words;
    ///
    /// assert_eq!(Words::nearest("es-MX").language(), "es-419");
    /// assert_eq!(Words::nearest("en_AU.UTF-8").language(), "en");
    /// assert_eq!(Words::nearest("zh-TW").language(), "zh-Hant");
    /// assert_eq!(Words::nearest("xx").language(), "en");
    /// ```
    pub fn nearest(language: &str) -> Words {
        let own = Words::shipped(language);
        own.or_else(|| shipped::nearest(language).and_then(Words::shipped))
            .unwrap_or_else(Words::english)
    }

    /// English, which everything falls back on.
    pub fn english() -> Words {
        static ENGLISH_WORDS: OnceLock<Words> = OnceLock::new();
        let words = ENGLISH_WORDS.get_or_init(|| {
            // A test asserts that the English file has no mistake.
            let own = read::read(shipped::ENGLISH, |_| true).unwrap_or_default();
            Words(Arc::new(Data {
                language: "en".to_owned(),
                messages: own.messages.into_iter().collect(),
                texts: HashMap::new(),
                brackets: false,
                marked: None,
                names: Default::default(),
            }))
        });
        words.clone()
    }

    /// The same words under another tag, for a language of the game's own.
    #[must_use]
    pub fn named(&self, language: &str) -> Words {
        if let Some(marked) = &self.0.marked {
            return marked.on(&marked.plain().named(language));
        }
        let (messages, texts) = (self.0.messages.clone(), self.0.texts.clone());
        self.with(language.to_owned(), messages, texts, false)
    }

    /// These words with those of a Fluent file laid over them. The file's name is for mistakes.
    ///
    /// A message is a text with variables. Its attributes are the forms that a name has besides the
    /// one in which it stands alone: `.short` for little room, `.part` in a chord of keys, `.subject`
    /// and `.object` with their article, `.at` and `.with` for what a language says behind its prepositions
    /// or in further cases, `.held` for what is held down, `.moved` for what is moved in the hands (the
    /// pad, rather than its motion), `.board` for a key of a drawn board, `.spoken` for screen readers. A
    /// phrase picks the form by its variable: `{ $input }` is the object, `{ $name }` the name alone, and
    /// `{ $subject }`, `{ $at }`, `{ $with }`, `{ $held }` and `{ $moved }` the others; a form that a name
    /// has not is its object.
    /// Selectors, functions and references are not taken: nothing here is counted.
    ///
    /// `touch-NAME` names a touch input, and the titles of the game's own go by `game`,
    /// `action-NAME`, `action-NAME-up`, `group-NAME`, `situation-NAME` and `preset-NAME`.
    ///
    /// # Errors
    /// Every mistake at once: what is no Fluent, a message or variable that there is none of.
    pub fn with_fluent(&self, text: &str, file: &str) -> Result<Words, WordsError> {
        self.laid_over(text, file, |_| true)
    }

    /// These words with what a game's own Fluent file has for them: its titles, and whatever it
    /// says in words of its own instead of those that ship. Its other messages, the game's prompts
    /// for instance, are kept as [`Words::text`], as far as they are text and variables.
    ///
    /// A misspelt title is one of the other messages here: `swap-knot check --texts` finds it.
    ///
    /// ```
    /// use swap_knot::{Sheet, Words};
    ///
    /// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"KeyH\"")?;
    /// let german = Words::shipped("de").expect("German ships");
    /// let ours = german.with_texts("action-horn = Horn blasen\nwelcome = Ahoi!", "de.ftl")?;
    /// let horn = sheet.find("horn").expect("declared above");
    /// assert_eq!(ours.row_title(&sheet, horn.into()), "Horn blasen");
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    ///
    /// # Errors
    /// As [`Words::with_fluent`], of the messages that are taken.
    pub fn with_texts(&self, text: &str, file: &str) -> Result<Words, WordsError> {
        self.laid_over(text, file, Words::takes)
    }

    /// A text of the game's own, by the id that it has in the game's Fluent file, with its variables
    /// filled in: see [`Words::with_texts`]. Nothing where there is none, or one with selectors,
    /// functions or references, for which a game has a Fluent bundle of its own.
    ///
    /// ```
    /// use swap_knot::Words;
    ///
    /// let ours = Words::english().with_texts("welcome = Ahoy, { $who }!", "en.ftl")?;
    /// assert_eq!(ours.text("welcome", &[("who", "Ada")]).as_deref(), Some("Ahoy, Ada!"));
    /// assert_eq!(ours.text("farewell", &[]), None);
    /// # Ok::<(), swap_knot::prompt::WordsError>(())
    /// ```
    pub fn text(&self, id: &str, values: &[(&str, &str)]) -> Option<String> {
        let pattern = self.0.texts.get(id)?;
        Some(pattern.fill(&|name| {
            let value = values.iter().find(|(n, _)| *n == name);
            value.map(|(_, v)| std::borrow::Cow::Borrowed(*v))
        }))
    }

    /// The same with every text between `⟦` and `⟧`: what stands outside of them on a screen was
    /// never translated. A file laid over it is put between brackets as well.
    ///
    /// ```
    /// use swap_knot::Words;
    ///
    /// let words = Words::english().bracketed();
    /// assert_eq!(words.say("menu-apply", &[]), "⟦Apply⟧");
    /// ```
    #[must_use]
    pub fn bracketed(&self) -> Words {
        if let Some(marked) = &self.0.marked {
            return marked.on(&marked.plain().bracketed());
        }
        let mut messages = self.0.messages.clone();
        if !self.0.brackets {
            messages.values_mut().for_each(Message::bracket);
        }
        let mut texts = self.0.texts.clone();
        if !self.0.brackets {
            texts.values_mut().for_each(Pattern::bracket);
        }
        self.with(self.language().to_owned(), messages, texts, true)
    }

    fn with(
        &self,
        language: String,
        messages: HashMap<String, Message>,
        texts: HashMap<String, Pattern>,
        brackets: bool,
    ) -> Words {
        Words(Arc::new(Data {
            language,
            messages,
            texts,
            brackets: brackets || self.0.brackets,
            marked: None,
            names: Default::default(),
        }))
    }

    fn laid_over(
        &self,
        text: &str,
        file: &str,
        wanted: impl Fn(&str) -> bool,
    ) -> Result<Words, WordsError> {
        // What a game says of pads in general does not lie over what is printed on them.
        if let Some(marked) = &self.0.marked {
            return Ok(marked.on(&marked.plain().laid_over(text, file, wanted)?));
        }
        let wrong = |mistakes: Vec<WordsMistake>| WordsError::new(file, mistakes);
        let mut own = read::read(text, wanted).map_err(wrong)?;
        let mut mistakes = Vec::new();
        for (id, message) in &own.messages {
            check(id, message, text, &mut mistakes);
        }
        if !mistakes.is_empty() {
            return Err(wrong(mistakes));
        }
        if self.0.brackets {
            let messages = own.messages.iter_mut();
            messages.for_each(|(_, message)| message.bracket());
            own.texts.iter_mut().for_each(|(_, text)| text.bracket());
        }
        let mut messages = self.0.messages.clone();
        messages.extend(own.messages);
        let mut texts = self.0.texts.clone();
        texts.extend(own.texts);
        Ok(self.with(self.language().to_owned(), messages, texts, false))
    }

    /// Every letter that its texts are written with, those of a game's own included: what a font has
    /// to have for this language.
    pub fn letters(&self) -> BTreeSet<char> {
        let texts = self.0.messages.values().flat_map(Message::texts);
        texts.flat_map(str::chars).collect()
    }

    /// The tag of the language.
    pub fn language(&self) -> &str {
        &self.0.language
    }

    /// A title that is in no file of this language, as it stands in the sheet.
    pub(crate) fn untranslated(&self, title: &str) -> String {
        match self.0.brackets {
            true => format!("{OPENS}{title}{CLOSES}"),
            false => title.to_owned(),
        }
    }

    /// What a player, their friend or their file wrote, fit to stand among other texts.
    pub(crate) fn typed(&self, text: &str) -> String {
        self.untranslated(&shown(text))
    }
}

/// Whether a message is one that there is, with variables that it has.
fn check(id: &str, message: &Message, text: &str, out: &mut Vec<WordsMistake>) {
    let mistake = |what| WordsMistake::at_message(text, id, what);
    let english = Words::english();
    let known = english.0.messages.get(id);
    let takes = match known {
        Some(known) => known.variables(),
        None if titles::is_title(id) => Vec::new(),
        None => {
            let ids = english.0.messages.keys().map(String::as_str);
            let near = nearest(id, ids).map(|n| format!("; did you mean `{n}`?"));
            let near = near.unwrap_or_default();
            out.push(mistake(format!("there is no message `{id}`{near}")));
            return;
        }
    };
    // Where one form of an input stands, another one can.
    let has_form = takes.iter().any(|v| Form::of_variable(v).is_some());
    for variable in message.variables() {
        if takes.contains(&variable) || (has_form && Form::of_variable(variable).is_some()) {
            continue;
        }
        let takes: Vec<String> = takes.iter().map(|v| format!("${v}")).collect();
        let has = match takes.is_empty() {
            true => "it takes none".to_owned(),
            false => format!("it takes {}", takes.join(", ")),
        };
        out.push(mistake(format!("`{id}` takes no `${variable}`; {has}")));
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
