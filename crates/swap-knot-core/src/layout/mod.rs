//! Which letter each place types, where the player lives.

mod board;
mod composed;
mod file;
mod learner;
mod own_names;
pub(crate) mod quirks;
mod resolver;
mod setting;
mod tables;
#[cfg(feature = "xkb")]
mod xkb;

use std::collections::BTreeSet;
use std::fmt;
use std::sync::{Arc, OnceLock};

use unicode_normalization::char::is_combining_mark;

use crate::input::Place;

pub use board::{Board, Hand, Keycap};
pub use file::LayoutError;
pub use learner::LayoutLearner;
pub use resolver::{Resolver, Unworkable};
pub use setting::LayoutSetting;
#[cfg(feature = "xkb")]
pub use xkb::XkbError;

/// How many writing places a layout describes.
const PLACES: usize = Place::WRITING.len();

/// What every key types, by level and by the index of its place.
type Table = [[Option<Typed>; PLACES]; 4];

/// Which modifiers choose what a key types.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Level {
    /// No modifier.
    Plain,
    /// With Shift.
    Shift,
    /// With AltGr.
    AltGr,
    /// With Shift and AltGr.
    ShiftAltGr,
}

impl Level {
    /// Every level, the one that needs least first.
    pub const ALL: [Level; 4] = [Level::Plain, Level::Shift, Level::AltGr, Level::ShiftAltGr];
}

/// What a key types on one level.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct Typed {
    /// The character, or for a dead key the mark it adds to the next letter.
    pub character: char,
    /// Whether it waits for the next letter.
    pub dead: bool,
}

/// Which letter each place types, and the board it is printed on.
///
/// Cheap to clone. Shipped layouts come from the XKB keyboard database and carry its names: `fr`,
/// or `fr-bepo` for its variant `bepo`.
///
/// ```
/// use swap_knot::{Layout, Place};
///
/// let fr = Layout::shipped("fr").expect("fr is shipped");
/// assert_eq!(fr.legend(Place::KeyQ).as_deref(), Some("A"));
/// assert_eq!(fr.place_of('m'), Some(Place::Semicolon));
///
/// // Boards for other scripts carry the Latin letters too.
/// let ru = Layout::shipped("ru").expect("ru is shipped");
/// assert_eq!(ru.legend(Place::KeyW).as_deref(), Some("Ц"));
/// assert_eq!(ru.second_legend(Place::KeyW), Some('W'));
/// ```
#[derive(Clone)]
pub struct Layout(Arc<Data>);

struct Data {
    name: String,
    title: String,
    board: Board,
    /// Other boards that it is sold on.
    other_boards: Vec<Board>,
    /// The layout whose Latin letters are printed on the same keys, where this one has none.
    beside: Option<String>,
    widely_used: bool,
    typed: Table,
    /// The table of `beside`, once it was asked for.
    latin: OnceLock<Option<Layout>>,
}

impl Data {
    fn new(name: &str, title: &str, board: Board, typed: Table) -> Data {
        Data {
            name: name.to_owned(),
            title: title.to_owned(),
            board,
            other_boards: Vec::new(),
            beside: Some("us".to_owned()),
            widely_used: false,
            typed,
            latin: OnceLock::new(),
        }
    }
}

impl Layout {
    /// A shipped layout by its name.
    pub fn shipped(name: &str) -> Option<Layout> {
        tables::find(name)
    }

    /// The names of all shipped layouts, those that more people use first.
    pub fn shipped_names() -> impl Iterator<Item = &'static str> {
        tables::names()
    }

    /// Every shipped layout, decoded one by one as the iterator is asked for it.
    pub fn all_shipped() -> impl Iterator<Item = Layout> {
        tables::all()
    }

    /// The shipped layouts that are widely used, on which a game should be checked.
    pub fn widely_used() -> impl Iterator<Item = Layout> {
        tables::all().filter(|l| l.0.widely_used)
    }

    /// The shipped layout that the XKB names of a layout and a variant stand for; where the variant
    /// is not shipped, the layout without it.
    ///
    /// ```
    /// use swap_knot::Layout;
    ///
    /// assert_eq!(Layout::from_xkb_names("fr", "bepo").unwrap().name(), "fr-bepo");
    /// assert_eq!(Layout::from_xkb_names("fr", "geo").unwrap().name(), "fr");
    /// assert_eq!(Layout::from_xkb_names("xx", ""), None);
    /// ```
    pub fn from_xkb_names(layout: &str, variant: &str) -> Option<Layout> {
        let with_variant = format!("{layout}-{}", variant.replace('_', "-"));
        let own = (!variant.is_empty()).then(|| tables::find(&with_variant));
        own.flatten().or_else(|| tables::find(layout))
    }

    /// The layout of the United States, which every game can fall back on.
    pub fn us() -> Layout {
        static US: OnceLock<Layout> = OnceLock::new();
        let us = US.get_or_init(|| {
            tables::find("us").unwrap_or_else(|| {
                // Unreachable as long as the shipped table has `us`, which a test asserts.
                let nothing = [[None; PLACES]; 4];
                Layout::of(Data::new("us", "English (US)", Board::Ansi, nothing))
            })
        });
        us.clone()
    }

    fn of(data: Data) -> Layout {
        Layout(Arc::new(data))
    }

    /// Its short name (`fr`).
    pub fn name(&self) -> &str {
        &self.0.name
    }

    /// What people call it (`French`), in English.
    pub fn title(&self) -> &str {
        &self.0.title
    }

    /// What those call it who write with it (`Français`), as systems list it; its English title where
    /// that is not known.
    pub fn own_name(&self) -> &str {
        own_names::of(self.name()).unwrap_or_else(|| self.title())
    }

    /// The board it is usually printed on, or the one that was chosen with [`Layout::on_board`].
    pub fn board(&self) -> Board {
        self.0.board
    }

    /// The boards that it is sold on, the usual one first: where there are several, which one a
    /// player has is theirs to say.
    pub fn boards(&self) -> impl Iterator<Item = Board> + '_ {
        std::iter::once(self.0.board).chain(self.0.other_boards.iter().copied())
    }

    /// The same layout printed on another board, for players who have that one.
    #[must_use]
    pub fn on_board(&self, board: Board) -> Layout {
        Layout::of(Data {
            beside: self.0.beside.clone(),
            widely_used: self.0.widely_used,
            ..Data::new(self.name(), self.title(), board, self.0.typed)
        })
    }

    /// What the key at a place types on a level; nothing for keys that write nothing.
    pub fn typed(&self, place: Place, level: Level) -> Option<Typed> {
        self.0.typed[level as usize][place.writing_index()?]
    }

    /// What is printed on the key at a place, if the layout or the board decides that: a capital
    /// letter where Shift types one, else the character that the key types on its own. A mark that
    /// is written on another letter stands on a dotted circle.
    pub fn legend(&self, place: Place) -> Option<String> {
        if let Some(printed) = self.board().printed(place) {
            return Some(printed.to_owned());
        }
        let plain = self.typed(place, Level::Plain)?.character;
        if plain.is_whitespace() {
            return None;
        }
        if is_combining_mark(plain) {
            return Some(format!("◌{plain}"));
        }
        let shift = self.typed(place, Level::Shift).map(|t| t.character);
        // Shift decides, so that a Turkish `i` is printed as `İ`; `ß` has no capital to print.
        let capital = shift.filter(|s| plain.is_lowercase() && s.is_uppercase());
        Some(capital.unwrap_or(plain).to_string())
    }

    /// What else is printed on the key that players know it by: on a board for another script the
    /// Latin letter or the digit, and on any the digit that takes Shift or AltGr to type.
    pub fn second_legend(&self, place: Place) -> Option<char> {
        let plain = self.typed(place, Level::Plain).map(|t| t.character);
        let typed = |layout: &Layout, level| {
            let typed = layout.typed(place, level).filter(|t| !t.dead)?;
            Some(typed.character)
        };
        let second = match self.latin() {
            Some(latin) => {
                let own = typed(latin, Level::Plain).filter(char::is_ascii_alphanumeric);
                own.or_else(|| typed(latin, Level::Shift).filter(char::is_ascii_digit))?
            }
            None => {
                let levels = [Level::Shift, Level::AltGr].into_iter();
                let mut digits = levels.filter_map(|level| typed(self, level));
                plain?;
                digits.find(char::is_ascii_digit)?
            }
        };
        let is_first = |first: char| first.eq_ignore_ascii_case(&second) || first.is_ascii_digit();
        (!plain.is_some_and(is_first)).then(|| second.to_ascii_uppercase())
    }

    /// Every letter that is printed on its keys: what a font has to have for this layout.
    pub fn letters(&self) -> BTreeSet<char> {
        let legends = Place::ALL.iter().filter_map(|&place| self.legend(place));
        let mut letters: BTreeSet<char> = legends
            .flat_map(|l| l.chars().collect::<Vec<_>>())
            .collect();
        letters.extend(
            Place::WRITING
                .iter()
                .filter_map(|&place| self.second_legend(place)),
        );
        letters
    }

    /// Whether the right Alt key is AltGr: whether it types more than a stray sign.
    pub fn has_alt_gr(&self) -> bool {
        const STRAY: usize = 5;
        let typed = self.0.typed[Level::AltGr as usize].iter();
        typed.flatten().count() > STRAY
    }

    /// Whether a letter is all that is printed on the key at a place.
    pub(crate) fn is_letter(&self, place: Place) -> bool {
        let plain = self.typed(place, Level::Plain);
        plain.is_some_and(|t| t.character.is_alphabetic()) && self.second_legend(place).is_none()
    }

    /// The place of the key that types a letter, on the lowest level that has it.
    ///
    /// A layout without any Latin letter is printed beside the Latin ones of another, so there
    /// Latin letters are found where those stand.
    pub fn place_of(&self, letter: impl Into<char>) -> Option<Place> {
        self.find_letter(letter).map(|(place, _)| place)
    }

    /// The place of the key that types a letter, and the level on which it does.
    pub fn find_letter(&self, letter: impl Into<char>) -> Option<(Place, Level)> {
        let letter = letter.into();
        let types = |t: &Option<Typed>| t.is_some_and(|t| !t.dead && t.character == letter);
        let beside = letter.is_ascii_alphabetic().then(|| self.latin());
        if let Some(latin) = beside.flatten() {
            return latin.find_letter(letter);
        }
        Level::ALL.into_iter().find_map(|level| {
            let row = &self.0.typed[level as usize];
            let mut keys = Place::WRITING.into_iter().zip(row);
            let found = keys.find(|(place, t)| types(t) && self.board().has(*place));
            found.map(|(place, _)| (place, level))
        })
    }

    /// The letters that are found at a place, see [`Layout::place_of`].
    pub fn letters_at(&self, place: Place) -> Vec<char> {
        let own = Level::ALL.map(|level| self.typed(place, level));
        let latin = self.latin().and_then(|l| l.typed(place, Level::Plain));
        let all = own.into_iter().chain([latin]).flatten();
        let all = all.filter(|t| !t.dead).map(|t| t.character);
        let mut letters: Vec<char> = all.filter(|c| self.place_of(*c) == Some(place)).collect();
        letters.dedup();
        letters
    }

    /// The layout whose Latin letters are printed on the same keys; none where this one types Latin
    /// letters itself.
    fn latin(&self) -> Option<&Layout> {
        let find = || {
            let plain = self.0.typed[0].iter().flatten();
            let letters = plain.filter(|t| t.character.is_ascii_alphabetic());
            // A stray `x` among other letters does not make a Latin board.
            let has_latin = letters.count() > 12;
            match self.0.beside.as_deref() {
                Some(name) if !has_latin && name != self.name() => tables::find(name),
                _ => None,
            }
        };
        self.0.latin.get_or_init(find).as_ref()
    }
}

impl PartialEq for Layout {
    fn eq(&self, other: &Self) -> bool {
        let (a, b) = (&self.0, &other.0);
        Arc::ptr_eq(a, b) || (a.name == b.name && a.board == b.board && a.typed == b.typed)
    }
}

impl fmt::Debug for Layout {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "Layout({})", self.name())
    }
}
