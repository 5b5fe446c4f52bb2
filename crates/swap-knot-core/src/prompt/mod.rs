//! Names, phrases and lines of text with bound inputs in them.

mod phrase;
mod template;

use std::fmt;

pub use template::PromptError;

use self::phrase::Phrases;

use self::template::{Template, TemplatePiece};
use crate::input::{Chord, DeviceKind};
use crate::rig::Rig;
use crate::sheet::{Manner, Row, Sheet};

// Words lie lower than prompts; who reads this chapter looks for them here.
pub use crate::words::{
    Family, GameTitle, Marks, MarksError, MarksFinding, MarksFindingKind, Tell, Telling, Words,
    WordsError, WordsMistake,
};

/// A line of text for the player with bound inputs in it.
///
/// In the text, `{cast-off}` stands for what an action is bound to on the device in use, `{walk.up}`
/// for one arm, `{walk}` for all of them, `{cast-off:gamepad}` for one device kind whatever is in
/// use, and `{do:cast-off}` for the whole phrase with its verb ("Hold Space", or "hold Space" inside a
/// sentence). `{{` and `}}` are plain braces.
///
/// ```
/// use swap_knot::{DeviceKind, Layout, Profile, Prompt, Rig, Sheet};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.cast-off]
///     bind = ["Space", "pad:south"]
/// "#)?;
/// let rig = Rig::new(&sheet, &Profile::default(), Layout::us());
/// let mut prompt = Prompt::new("Press {cast-off} to leave", &sheet)?;
/// assert_eq!(prompt.render(&rig, DeviceKind::Keyboard).to_string(), "Press Space to leave");
/// assert_eq!(prompt.render(&rig, DeviceKind::Gamepad).to_string(), "Press bottom button of the four to leave");
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug)]
pub struct Prompt {
    template: Template,
    words: Words,
    alternates: usize,
    /// Which rig and device kind `rendered` is for: two numbers to compare a frame.
    current: (usize, DeviceKind),
    rendered: Rendered,
}

/// The number of no rig.
const NEVER: usize = 0;

/// A prompt as it is to be shown: pieces for a renderer, `Display` for plain text, and a spoken
/// form.
#[derive(Clone, Debug)]
pub struct Rendered {
    pieces: Vec<Piece>,
    /// Kept alive, so that its number stands for it alone; none before the first time.
    _rig: Option<Rig>,
    words: Words,
}

/// A piece of a prompt.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum Piece {
    /// Text between inputs, joiners and verbs included.
    Text(String),
    /// A bound input.
    Input(InputPiece),
    /// Inputs that are known by one name together: the arrow keys, the cross.
    Group {
        /// The row that they work.
        row: Row,
        /// What is bound, one an arm; each input is a glyph reference.
        chords: Vec<Chord>,
        /// Their name.
        name: String,
    },
    /// Nothing is bound; the menu can be opened at this row.
    Unbound {
        /// The row that has no binding.
        row: Row,
        /// What the player reads.
        text: String,
    },
}

/// A bound input within a prompt.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct InputPiece {
    /// The row it works.
    pub row: Row,
    /// What is bound: the held part and what completes it, each a glyph reference. A phrase with two
    /// verbs ("Hold … and press …") has a piece for each of them.
    pub chord: Chord,
    /// Its name on the player's layout and in their language, in the case that the phrase wants.
    pub name: String,
    /// The same as a screen reader says it: signs by their names.
    pub spoken: String,
    /// The device kind it is on.
    pub device_kind: DeviceKind,
    /// How it must be worked.
    pub manner: Manner,
}

impl Prompt {
    /// Reads a prompt and checks its actions against the sheet.
    ///
    /// # Errors
    /// When a brace is left open or an action, arm or device kind does not exist; with its place
    /// in the text.
    pub fn new(text: &str, sheet: &Sheet) -> Result<Prompt, PromptError> {
        let words = Words::english();
        Ok(Prompt {
            template: Template::read(text, sheet)?,
            words: words.clone(),
            alternates: 1,
            current: (NEVER, DeviceKind::Keyboard),
            rendered: Rendered {
                pieces: Vec::new(),
                _rig: None,
                words,
            },
        })
    }

    /// Names inputs with these words rather than in English.
    ///
    /// ```
    /// use swap_knot::{DeviceKind, Layout, Profile, Prompt, Rig, Sheet, Words};
    ///
    /// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.cast-off]\nbind = \"Space\"")?;
    /// let rig = Rig::new(&sheet, &Profile::default(), Layout::us());
    /// let german = Words::shipped("de").expect("German ships");
    /// let mut prompt = Prompt::new("{do:cast-off}, um abzulegen", &sheet)?.with_words(&german);
    /// let shown = prompt.render(&rig, DeviceKind::Keyboard);
    /// assert_eq!(shown.to_string(), "Drücke die Leertaste, um abzulegen");
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    #[must_use]
    pub fn with_words(mut self, words: &Words) -> Prompt {
        self.set_words(words);
        self
    }

    /// Changes the language of the names; what was rendered last is no longer current.
    pub fn set_words(&mut self, words: &Words) {
        if self.words != *words {
            self.words = words.clone();
            self.current.0 = NEVER;
        }
    }

    /// Names up to so many bindings of an action: "Space or Enter" with 2. Without it, 1.
    #[must_use]
    pub fn with_alternates(mut self, most: usize) -> Prompt {
        self.alternates = most;
        self.current.0 = NEVER;
        self
    }

    /// Whether what was rendered last still holds for that rig and device kind. Costs the
    /// comparison of two numbers.
    #[inline]
    pub fn is_current(&self, rig: &Rig, device: DeviceKind) -> bool {
        self.current == (rig.number(), device)
    }

    /// The prompt for a rig and device kind; worked out again only when one of them changed.
    #[inline]
    pub fn render(&mut self, rig: &Rig, device: DeviceKind) -> &Rendered {
        if !self.is_current(rig, device) {
            self.refresh(rig, device);
        }
        &self.rendered
    }

    #[cold]
    fn refresh(&mut self, rig: &Rig, device: DeviceKind) {
        let pieces = render(&self.template, rig, device, &self.words, self.alternates);
        self.rendered = Rendered {
            pieces,
            _rig: Some(rig.clone()),
            words: self.words.clone(),
        };
        self.current = (rig.number(), device);
    }
}

impl Rendered {
    /// The pieces, in order.
    pub fn pieces(&self) -> &[Piece] {
        &self.pieces
    }

    /// What a screen reader says: signs by their names, chords in words.
    pub fn spoken(&self) -> String {
        let mut out = String::new();
        for piece in &self.pieces {
            match piece {
                Piece::Text(text) => out.push_str(text),
                Piece::Input(input) => out.push_str(&input.spoken),
                Piece::Group { name, .. } => out.push_str(name),
                Piece::Unbound { .. } => {
                    out.push_str(&self.words.fill_attribute("not-bound", "spoken", &[]));
                }
            }
        }
        out
    }
}

impl fmt::Display for Rendered {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        for piece in &self.pieces {
            f.write_str(match piece {
                Piece::Text(text) | Piece::Unbound { text, .. } => text,
                Piece::Group { name, .. } => name,
                Piece::Input(input) => &input.name,
            })?;
        }
        Ok(())
    }
}

fn render(
    template: &Template,
    rig: &Rig,
    device: DeviceKind,
    words: &Words,
    alternates: usize,
) -> Vec<Piece> {
    let phrases = Phrases {
        rig,
        words,
        alternates,
    };
    let mut pieces = Vec::new();
    for piece in template.pieces() {
        match piece {
            TemplatePiece::Text(text) => pieces.push(Piece::Text(text.clone())),
            TemplatePiece::Row {
                row,
                device: only,
                verb,
            } => {
                let exact = only.is_some();
                phrases.add(&mut pieces, *row, only.unwrap_or(device), exact, *verb);
            }
        }
    }
    phrases.join(&mut pieces);
    pieces
}
