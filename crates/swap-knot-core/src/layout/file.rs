//! A layout of a game's own, from a small TOML file.

use std::fmt;

use toml::Spanned;
use toml::de::{DeTable, DeValue};

use super::{Board, Data, Layout, Level, PLACES, Table, Typed};
use crate::input::Place;
use crate::text::line_and_column;
use crate::text::nearest;

/// A layout file that cannot be used: what is wrong, and where.
#[derive(Clone, PartialEq, Eq)]
pub struct LayoutError {
    line: usize,
    column: usize,
    message: String,
}

impl LayoutError {
    /// The line, from 1.
    pub fn line(&self) -> usize {
        self.line
    }

    /// The column in characters, from 1.
    pub fn column(&self) -> usize {
        self.column
    }

    /// What is wrong, without the place.
    pub fn message(&self) -> &str {
        &self.message
    }
}

impl fmt::Display for LayoutError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "line {}:{}: {}", self.line, self.column, self.message)
    }
}

crate::text::debug_as_text!(LayoutError);

impl std::error::Error for LayoutError {}

/// What is wrong, and at which byte.
type Wrong = (usize, String);

impl Layout {
    /// The largest layout file that is read, in bytes (64 KiB).
    pub const MAX_BYTES: usize = 64 << 10;

    /// Reads a layout from a file: a name, optionally a title, a board and a shipped layout to
    /// start from, and for each place what it types plain, with Shift, with AltGr and with both.
    /// `dead:^` is a dead key, an empty text nothing. `beside` is the shipped layout whose Latin
    /// letters and digits are printed on the same keys where the layout types none: `us` unless it
    /// says otherwise, and an empty text for none.
    ///
    /// # Errors
    /// The first mistake, with its place and what to write instead.
    ///
    /// ```
    /// use swap_knot::{Layout, Place};
    ///
    /// let layout = Layout::from_toml(r#"
    ///     name = "harbour"
    ///     base = "us"
    ///     board = "ISO"
    ///     [keys]
    ///     KeyQ = ["ö", "Ö"]
    ///     Quote = ["dead:´"]
    /// "#)?;
    /// assert_eq!(layout.legend(Place::KeyQ).as_deref(), Some("Ö"));
    /// assert_eq!(layout.place_of('w'), Some(Place::KeyW));
    /// # Ok::<(), swap_knot::layout::LayoutError>(())
    /// ```
    pub fn from_toml(text: &str) -> Result<Layout, LayoutError> {
        let wrong = |(at, message): Wrong| {
            let (line, column) = line_and_column(text, at);
            LayoutError {
                line,
                column,
                message,
            }
        };
        if text.len() > Self::MAX_BYTES {
            let most = Self::MAX_BYTES;
            return Err(wrong((
                0,
                format!("a layout file has at most {most} bytes"),
            )));
        }
        let table = DeTable::parse(text).map_err(|e| {
            let at = e.span().map_or(0, |s| s.start);
            wrong((at, e.message().to_owned()))
        })?;
        read(table.get_ref(), text).map_err(wrong)
    }
}

impl Layout {
    /// The layout as the text of a file that [`Layout::from_toml`] reads.
    ///
    /// ```
    /// use swap_knot::Layout;
    ///
    /// let fr = Layout::shipped("fr").expect("fr is shipped");
    /// let text = fr.to_toml();
    /// assert!(text.contains("KeyQ = [\"a\", \"A\", "));
    /// assert_eq!(Layout::from_toml(&text)?, fr);
    /// # Ok::<(), swap_knot::layout::LayoutError>(())
    /// ```
    pub fn to_toml(&self) -> String {
        let quoted = |text: &str| toml::Value::String(text.to_owned()).to_string();
        let mut out = format!(
            "format = {FORMAT}\nname = {}\ntitle = {}\nboard = {}\nbeside = {}\n\n[keys]\n",
            quoted(self.name()),
            quoted(self.title()),
            quoted(self.board().word()),
            quoted(self.0.beside.as_deref().unwrap_or_default()),
        );
        for place in Place::WRITING {
            let word = |level| match self.typed(place, level) {
                None => String::new(),
                Some(Typed { character, dead }) => {
                    let dead = if dead { "dead:" } else { "" };
                    format!("{dead}{character}")
                }
            };
            let mut words = Level::ALL.map(word).to_vec();
            while words.last().is_some_and(String::is_empty) {
                words.pop();
            }
            if !words.is_empty() {
                let words: Vec<String> = words.iter().map(|w| quoted(w)).collect();
                out.push_str(&format!("{place} = [{}]\n", words.join(", ")));
            }
        }
        out
    }
}

/// The version of the file format that is read; a layout without one is of version 1.
const FORMAT: &str = "1";

fn read(table: &DeTable<'_>, text: &str) -> Result<Layout, Wrong> {
    const KEYS: [&str; 7] = ["format", "name", "title", "base", "board", "beside", "keys"];
    for key in table.keys() {
        let name: &str = key.get_ref();
        if !KEYS.contains(&name) {
            let near = nearest(name, KEYS).unwrap_or("keys");
            let message = format!("a layout has no `{name}`; did you mean `{near}`?");
            return Err((key.span().start, message));
        }
    }
    if let Some(format) = table.get("format") {
        let number = format.get_ref().as_integer().map(|n| n.as_str());
        if number != Some(FORMAT) {
            let written = text.get(format.span()).unwrap_or_default();
            let message = format!("written in format {written}, and this version reads {FORMAT}");
            return Err((format.span().start, message));
        }
    }
    let string = |key: &str| -> Result<Option<(&str, usize)>, Wrong> {
        let Some(value) = table.get(key) else {
            return Ok(None);
        };
        let at = value.span().start;
        let message = || (at, format!("`{key}` is a text in quotes"));
        Ok(Some((value.get_ref().as_str().ok_or_else(message)?, at)))
    };
    let Some((name, _)) = string("name")?.filter(|(n, _)| !n.is_empty()) else {
        let message = "a layout needs a name, as in `name = \"harbour\"`";
        return Err((0, message.to_owned()));
    };
    let base = match string("base")? {
        Some((base, at)) => Some(Layout::shipped(base).ok_or_else(|| {
            let near = nearest(base, Layout::shipped_names()).unwrap_or("us");
            (
                at,
                format!("there is no layout `{base}`; did you mean `{near}`?"),
            )
        })?),
        None => None,
    };
    let board = match string("board")? {
        Some((word, at)) => Board::named(word).ok_or_else(|| {
            let all = Board::ALL.map(Board::word).join(", ");
            (at, format!("there is no board `{word}`; there are {all}"))
        })?,
        None => base.as_ref().map_or(Board::Iso, Layout::board),
    };
    let beside = match string("beside")? {
        Some(("", _)) => None,
        Some((name, at)) => match Layout::shipped(name) {
            Some(_) => Some(name.to_owned()),
            None => {
                let near = nearest(name, Layout::shipped_names()).unwrap_or("us");
                let message = format!("there is no layout `{name}`; did you mean `{near}`?");
                return Err((at, message));
            }
        },
        None => match &base {
            Some(base) => base.0.beside.clone(),
            None => Some("us".to_owned()),
        },
    };
    let mut typed: Table = base.map_or([[None; PLACES]; 4], |b| b.0.typed);
    if let Some(keys) = table.get("keys") {
        let message = "`keys` is a table, as in `KeyQ = [\"q\", \"Q\"]`";
        let keys = keys.get_ref().as_table();
        let keys = keys.ok_or_else(|| (table["keys"].span().start, message.to_owned()))?;
        for (place, levels) in keys {
            read_key(place, levels, text, &mut typed)?;
        }
    }
    let title = string("title")?.map_or(name, |(t, _)| t);
    Ok(Layout::of(Data {
        beside,
        ..Data::new(name, title, board, typed)
    }))
}

/// What one key types.
fn read_key(
    place: &Spanned<std::borrow::Cow<'_, str>>,
    levels: &Spanned<DeValue<'_>>,
    text: &str,
    typed: &mut Table,
) -> Result<(), Wrong> {
    let name: &str = place.get_ref();
    let known = Place::WRITING.map(|p| p.to_string());
    let found = name.parse::<Place>().ok().and_then(Place::writing_index);
    let Some(index) = found else {
        let near = nearest(name, known.iter().map(String::as_str));
        let hint = near.map_or_else(String::new, |n| format!("; did you mean `{n}`?"));
        let message = format!("`{name}` is no place of a key that writes{hint}");
        return Err((place.span().start, message));
    };
    let list = levels.get_ref().as_array().filter(|l| l.len() <= 4);
    let Some(list) = list else {
        let message = "a key has one to four texts: plain, Shift, AltGr, both";
        return Err((levels.span().start, message.to_owned()));
    };
    for (level, value) in typed.iter_mut().zip(list) {
        let at = value.span().start;
        let word = value.get_ref().as_str().and_then(typed_of);
        level[index] = word.ok_or_else(|| {
            let written = text.get(value.span()).unwrap_or_default();
            let message = "is not one character, `dead:` and one, or empty";
            (at, format!("{written} {message}"))
        })?;
    }
    Ok(())
}

/// What a text of the file stands for; the outer `None` is a mistake.
#[expect(
    clippy::option_option,
    reason = "nothing typed and nothing meant differ"
)]
fn typed_of(word: &str) -> Option<Option<Typed>> {
    let (dead, mark) = match word.strip_prefix("dead:") {
        Some(mark) => (true, mark),
        None => (false, word),
    };
    let mut chars = mark.chars();
    match (chars.next(), chars.next()) {
        (None, _) if !dead => Some(None),
        (Some(character), None) if !character.is_control() => Some(Some(Typed { character, dead })),
        _ => None,
    }
}
