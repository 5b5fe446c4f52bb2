//! Which letter each place types, where the player lives.

mod learner;
mod tables;

use std::fmt;
use std::sync::Arc;

use crate::input::{Place, WRITING_PLACES, writing_index};

pub use learner::LayoutLearner;

/// How many writing places a layout describes.
const PLACES: usize = WRITING_PLACES.len();

/// The physical form of a keyboard: which places have a key.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Board {
    /// ANSI, one wide left Shift.
    Ansi,
    /// ISO, with a key right of a short left Shift (`IntlBackslash`).
    Iso,
    /// JIS, the Japanese form.
    Jis,
    /// ABNT2, the Brazilian form.
    Abnt2,
    /// KS, the Korean form.
    Ks,
}

impl Board {
    /// Whether the board has a key at that place; places that do not write are on every board.
    pub const fn has(self, place: Place) -> bool {
        match place {
            Place::IntlBackslash => matches!(self, Board::Iso | Board::Abnt2),
            Place::IntlRo => matches!(self, Board::Jis | Board::Abnt2),
            Place::IntlYen => matches!(self, Board::Jis),
            _ => true,
        }
    }
}

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
/// Cheap to clone. Shipped layouts come from the XKB keyboard database and carry its names.
///
/// ```
/// use swap_knot::{Layout, Place};
///
/// let fr = Layout::shipped("fr").expect("fr is shipped");
/// assert_eq!(fr.legend(Place::KeyQ).as_deref(), Some("A"));
/// assert_eq!(fr.place_of('m'), Some(Place::Semicolon));
/// ```
#[derive(Clone)]
pub struct Layout(Arc<Data>);

struct Data {
    name: String,
    title: String,
    board: Board,
    typed: [[Option<Typed>; PLACES]; 4],
}

impl Layout {
    /// A shipped layout by its name in the XKB database.
    pub fn shipped(name: &str) -> Option<Layout> {
        tables::find(name)
    }

    /// The names of all shipped layouts.
    pub fn shipped_names() -> impl Iterator<Item = &'static str> {
        tables::names()
    }

    /// The layout of the United States, which every game can fall back on.
    pub fn us() -> Layout {
        tables::find("us").unwrap_or_else(|| {
            // Unreachable as long as the shipped table has `us`, which a test asserts.
            Layout(Arc::new(Data {
                name: "us".into(),
                title: "English (US)".into(),
                board: Board::Ansi,
                typed: [[None; PLACES]; 4],
            }))
        })
    }

    /// Its short name (`fr`).
    pub fn name(&self) -> &str {
        &self.0.name
    }

    /// What people call it (`French`).
    pub fn title(&self) -> &str {
        &self.0.title
    }

    /// The board it is usually printed on.
    pub fn board(&self) -> Board {
        self.0.board
    }

    /// What the key at a place types on a level; nothing for keys that write nothing.
    pub fn typed(&self, place: Place, level: Level) -> Option<Typed> {
        self.0.typed[level as usize][writing_index(place)?]
    }

    /// What is printed on the key at a place, if the layout decides that: a capital letter, or the
    /// character that the key types on its own.
    pub fn legend(&self, place: Place) -> Option<String> {
        let character = self.typed(place, Level::Plain)?.character;
        if character.is_whitespace() {
            return None;
        }
        let mut upper = character.to_uppercase();
        // `ß` would become two letters; what is printed is the one that is typed.
        let printed = match (upper.next(), upper.next()) {
            (Some(one), None) => one,
            _ => character,
        };
        Some(printed.to_string())
    }

    /// The place of the key that types a letter, on the lowest level that has it.
    ///
    /// A layout without any Latin letter is printed beside the Latin ones of `us`, so there Latin
    /// letters are found where `us` has them.
    pub fn place_of(&self, letter: char) -> Option<Place> {
        let own = self.0.typed.iter().find_map(|level| {
            let has = |t: &Option<Typed>| t.is_some_and(|t| !t.dead && t.character == letter);
            let mut keys = WRITING_PLACES.into_iter().zip(level);
            let on_board = |p: Place| self.board().has(p);
            keys.find(|(place, t)| on_board(*place) && has(t))
                .map(|(place, _)| place)
        });
        own.or_else(|| {
            (letter.is_ascii_alphabetic() && !self.has_latin() && self.name() != "us")
                .then(|| Layout::us().place_of(letter))
                .flatten()
        })
    }

    /// The letters that are found at a place, see [`Layout::place_of`].
    pub fn letters_at(&self, place: Place) -> Vec<char> {
        let levels = [Level::Plain, Level::Shift, Level::AltGr, Level::ShiftAltGr];
        let own = levels.map(|level| self.typed(place, level));
        let us = Layout::us().typed(place, Level::Plain);
        let all = own.into_iter().chain([us]).flatten().map(|t| t.character);
        let mut letters: Vec<char> = all.filter(|c| self.place_of(*c) == Some(place)).collect();
        letters.dedup();
        letters
    }

    /// Whether any key types a Latin letter on its own.
    fn has_latin(&self) -> bool {
        (self.0.typed[0].iter().flatten()).any(|t| t.character.is_ascii_alphabetic())
    }
}

impl PartialEq for Layout {
    fn eq(&self, other: &Self) -> bool {
        Arc::ptr_eq(&self.0, &other.0)
            || (self.0.name == other.0.name && self.0.typed == other.0.typed)
    }
}

impl fmt::Debug for Layout {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "Layout({})", self.name())
    }
}
