//! Whatever a player is to be told, in their language.

use super::{Form, On, Saying, Words};
use crate::input::{Chord, Input};
use crate::layout::Resolver;
use crate::sheet::{Parameter, ParameterPart, Row, Sheet, SituationId, TitledRow};

/// Something that can be told to a player: a refusal, a conflict, a report of loading.
///
/// In code such a thing is data; its `Display` is English for logs, with names as they stand in
/// files. What the player reads has titles and legends, and one line for each thing that is told.
///
/// ```
/// use swap_knot::{Draft, Layout, Profile, Sheet, Words};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     reserved = "F12"
///     [actions.horn]
///     bind = "KeyH"
/// "#)?;
/// let mut draft = Draft::new(&sheet, Profile::new("Ada"), Layout::us());
/// draft.set_words(&Words::shipped("de").expect("German ships"));
/// let horn = sheet.defaults()[0].cell;
/// let refusal = draft.bind(horn, "F12".parse()?).unwrap_err();
/// assert_eq!(draft.tell(&refusal), "Das Spiel behält F12 für sich. Wähle etwas anderes.");
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub trait Tell {
    /// Puts it into words.
    fn tell(&self, to: &Telling<'_>) -> String;
}

/// What is needed to put something into words: the language, the game's titles, the keyboard.
#[derive(Clone, Copy, Debug)]
pub struct Telling<'a> {
    words: &'a Words,
    sheet: &'a Sheet,
    on: &'a Resolver,
}

impl<'a> Telling<'a> {
    /// Tells in these words, of this game, to somebody with this keyboard.
    pub const fn new(words: &'a Words, sheet: &'a Sheet, on: &'a Resolver) -> Telling<'a> {
        Telling { words, sheet, on }
    }

    /// Puts something into words.
    pub fn tell(&self, what: &(impl Tell + ?Sized)) -> String {
        what.tell(self)
    }

    /// Puts several things into words, a line each.
    pub fn lines<'t, T: Tell + 't>(&self, all: impl IntoIterator<Item = &'t T>) -> Vec<String> {
        let told = all.into_iter().map(|what| what.tell(self));
        told.flat_map(|told| told.lines().map(str::to_owned).collect::<Vec<_>>())
            .collect()
    }

    /// Lines with no more of them than so many: the last one says how many more there were.
    pub(crate) fn at_most(&self, most: usize, mut lines: Vec<String>) -> Vec<String> {
        if lines.len() > most {
            let more = (lines.len() - most + 1).to_string();
            lines.truncate(most - 1);
            lines.push(self.say("more-lines", &[("count", &more)]));
        }
        lines
    }

    /// The words.
    pub const fn words(&self) -> &'a Words {
        self.words
    }

    /// The game.
    pub const fn sheet(&self) -> &'a Sheet {
        self.sheet
    }

    /// The title of an action or arm.
    pub fn row(&self, row: Row) -> String {
        self.words.row_title(self.sheet, row)
    }

    /// Several texts as the language joins them; none where there is none.
    pub(crate) fn list(&self, all: impl IntoIterator<Item = String>) -> Option<String> {
        let join = |first: String, last: String| {
            let values = [("first", &*first), ("last", &*last)];
            self.say("list", &values)
        };
        all.into_iter().reduce(join)
    }

    /// The titles of several actions or arms, each once; none where there is none.
    pub(crate) fn rows(&self, all: impl IntoIterator<Item = Row>) -> Option<String> {
        let mut titles: Vec<String> = Vec::new();
        for title in all.into_iter().map(|row| self.row(row)) {
            if !titles.contains(&title) {
                titles.push(title);
            }
        }
        self.list(titles)
    }

    /// What a chord is called.
    pub fn chord(&self, chord: &Chord) -> String {
        self.words
            .chord(chord, On::from(self.on), Saying::written(Form::Name))
    }

    pub(crate) fn titled(&self, row: &TitledRow) -> String {
        self.words.retitled(self.sheet, row)
    }

    pub(crate) fn situation(&self, id: SituationId) -> String {
        self.words.situation_title(self.sheet, id)
    }

    /// A text without an input in it.
    pub(crate) fn say(&self, id: &str, values: &[(&str, &str)]) -> String {
        self.words.fill(id, values)
    }

    /// What a screen reader says for a chord: signs by their names.
    pub fn spoken(&self, chord: &Chord) -> String {
        self.words.spoken_chord(chord, On::from(self.on))
    }

    /// A text of [`Words::say`] about an input or chord, which stands in it in whatever form the
    /// language wants.
    pub fn about(&self, id: &str, values: &[(&str, &str)], chord: &Chord) -> String {
        self.words.fill_with(id, values, chord, On::from(self.on))
    }

    /// What a chord is called where there is little room, beside a picture of it.
    pub fn short(&self, chord: &Chord) -> String {
        let saying = Saying::written(Form::Short);
        self.words.chord(chord, On::from(self.on), saying)
    }

    pub(crate) fn about_input(&self, id: &str, values: &[(&str, &str)], input: Input) -> String {
        self.about(id, values, &Chord::from(input))
    }

    /// The title of a preset by its name.
    pub(crate) fn preset(&self, name: &str) -> String {
        match self.sheet.preset(name) {
            Some(preset) => self.words.preset_title(preset),
            None => self.words.title_of_name("preset", name),
        }
    }

    /// The title of a row by its name, also of one that the game does not have.
    pub(crate) fn row_named(&self, name: &str) -> String {
        match self.sheet.find_row(name) {
            Some(row) => self.row(row),
            None => self.words.title_of_name("action", name),
        }
    }

    /// What a part of a setting is called.
    pub(crate) fn parameter(&self, parameter: Parameter, part: ParameterPart) -> String {
        self.say(&parameter.message(part), &[])
    }

    /// A setting of one action or of all of them.
    pub(crate) fn setting_of(&self, action: Option<&str>, setting: &str) -> String {
        let title = match action {
            Some(name) => self.row_named(name),
            None => self.say("all-actions", &[]),
        };
        self.say("setting-of", &[("title", &title), ("setting", setting)])
    }
}
