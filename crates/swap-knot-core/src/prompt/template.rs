//! The text of a prompt, read once.

use std::fmt;

use crate::input::DeviceKind;
use crate::sheet::{Row, Sheet};
use crate::text::nearest;

/// The longest prompt, in bytes.
const MAX_BYTES: usize = 16 << 10;

#[derive(Clone, Debug)]
pub(super) struct Template {
    pieces: Vec<TemplatePiece>,
}

#[derive(Clone, Debug)]
pub(super) enum TemplatePiece {
    Text(String),
    Row {
        row: Row,
        device: Option<DeviceKind>,
        /// Whether the whole phrase with its verb is wanted.
        verb: bool,
    },
}

/// A prompt that cannot be read: what is wrong, and where in its text.
#[derive(Clone, PartialEq, Eq)]
pub struct PromptError {
    at: usize,
    column: usize,
    message: String,
}

impl PromptError {
    /// The words of a language have no text of that id.
    pub(crate) fn no_text(id: &str, language: &str) -> PromptError {
        PromptError {
            at: 0,
            column: 1,
            message: format!(
                "there is no text `{id}` ({language}); one with selectors comes from a Fluent bundle of the game's own"
            ),
        }
    }

    /// The byte of the text at which it goes wrong.
    pub fn at(&self) -> usize {
        self.at
    }

    /// What is wrong, without the place.
    pub fn message(&self) -> &str {
        &self.message
    }
}

impl fmt::Display for PromptError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "character {}: {}", self.column, self.message)
    }
}

crate::text::debug_as_text!(PromptError);

impl std::error::Error for PromptError {}

impl Template {
    pub(super) fn read(text: &str, sheet: &Sheet) -> Result<Template, PromptError> {
        let wrong = |at: usize, message: String| PromptError {
            at,
            column: text.get(..at).map_or(0, |t| t.chars().count()) + 1,
            message,
        };
        if text.len() > MAX_BYTES {
            return Err(wrong(0, format!("a prompt has at most {MAX_BYTES} bytes")));
        }
        let mut pieces = Vec::new();
        let mut plain = String::new();
        let mut rest = text;
        while let Some(brace) = rest.find(['{', '}']) {
            plain.push_str(&rest[..brace]);
            let at = text.len() - rest.len() + brace;
            let behind = &rest[brace..];
            if behind.starts_with("{{") || behind.starts_with("}}") {
                plain.push_str(&behind[..1]);
                rest = &behind[2..];
                continue;
            }
            if behind.starts_with('}') {
                let message = "a `}` closes nothing; write `}}` for a plain brace";
                return Err(wrong(at, message.to_owned()));
            }
            let Some(end) = behind.find('}') else {
                let message = "this `{` is not closed; write `{{` for a plain brace";
                return Err(wrong(at, message.to_owned()));
            };
            if !plain.is_empty() {
                pieces.push(TemplatePiece::Text(std::mem::take(&mut plain)));
            }
            let piece = read_row(&behind[1..end], sheet);
            pieces.push(piece.map_err(|message| wrong(at + 1, message))?);
            rest = &behind[end + 1..];
        }
        plain.push_str(rest);
        if !plain.is_empty() {
            pieces.push(TemplatePiece::Text(plain));
        }
        Ok(Template { pieces })
    }

    pub(super) fn pieces(&self) -> &[TemplatePiece] {
        &self.pieces
    }
}

/// What stands between braces: `cast-off`, `walk.up`, `do:cast-off`, `cast-off:gamepad`.
fn read_row(text: &str, sheet: &Sheet) -> Result<TemplatePiece, String> {
    let (verb, text) = match text.strip_prefix("do:") {
        Some(rest) => (true, rest),
        None => (false, text),
    };
    let (name, device) = match text.split_once(':') {
        Some((name, word)) => (name, Some(device_kind(word)?)),
        None => (text, None),
    };
    let row = sheet
        .find_row(name)
        .ok_or_else(|| no_such_row(name, sheet))?;
    if sheet.declared(row.action).off {
        return Err(format!("the action `{name}` is switched off in the sheet"));
    }
    Ok(TemplatePiece::Row { row, device, verb })
}

/// The message for a row that is not there.
fn no_such_row(name: &str, sheet: &Sheet) -> String {
    if let Some((action, arm)) = name.split_once('.')
        && let Some(id) = sheet.find(action)
    {
        let arms: Vec<&str> = sheet.declared(id).arms().iter().map(|a| a.word()).collect();
        return match arms.is_empty() {
            true => format!(
                "`{action}` is a {} and has no arms",
                sheet.declared(id).shape
            ),
            false => format!("`{action}` has no arm `{arm}`; it has {}", arms.join(", ")),
        };
    }
    let known: Vec<String> = (sheet.actions())
        .flat_map(|(id, _)| std::iter::once(Row::of(id)).chain(sheet.rows_of(id)))
        .map(|row| sheet.row_name(row))
        .collect();
    match nearest(name, known.iter().map(String::as_str)) {
        Some(near) => format!("there is no action `{name}`; did you mean `{near}`?"),
        None => format!("there is no action `{name}`"),
    }
}

fn device_kind(word: &str) -> Result<DeviceKind, String> {
    DeviceKind::from_word(word).ok_or_else(|| {
        let words = DeviceKind::ALL.map(DeviceKind::word);
        match nearest(word, words) {
            Some(near) => format!("there is no device kind `{word}`; did you mean `{near}`?"),
            None => format!(
                "there is no device kind `{word}`; there are {}",
                words.join(", ")
            ),
        }
    })
}
