//! Reading Fluent files.

use std::borrow::Cow;
use std::fmt;

use fluent_syntax::ast::{Entry, Expression, InlineExpression, PatternElement};
use fluent_syntax::{ast, parser};

use crate::text::line_and_column;

/// A text with variables in it.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct Pattern(Vec<Part>);

/// A part of a text.
#[derive(Clone, Debug, PartialEq)]
pub(crate) enum Part {
    Text(String),
    Variable(String),
}

/// A message with its attributes.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Message {
    pub(super) value: Pattern,
    attributes: Vec<(String, Pattern)>,
}

impl Message {
    pub(super) fn new(value: Pattern, attributes: Vec<(String, Pattern)>) -> Message {
        Message { value, attributes }
    }

    /// An attribute.
    pub(super) fn attribute(&self, name: &str) -> Option<&Pattern> {
        let mut all = self.attributes.iter();
        all.find(|(n, _)| n == name).map(|(_, pattern)| pattern)
    }

    /// The variables of value and attributes.
    pub(super) fn variables(&self) -> Vec<&str> {
        let attributes = self.attributes.iter().map(|(_, pattern)| pattern);
        let all = std::iter::once(&self.value).chain(attributes);
        let mut names: Vec<&str> = all.flat_map(Pattern::variables).collect();
        names.sort_unstable();
        names.dedup();
        names
    }

    /// The texts of value and attributes, without what is filled in.
    pub(super) fn texts(&self) -> impl Iterator<Item = &str> {
        let attributes = self.attributes.iter().map(|(_, pattern)| pattern);
        let parts = std::iter::once(&self.value)
            .chain(attributes)
            .flat_map(|p| &p.0);
        parts.filter_map(|part| match part {
            Part::Text(text) => Some(text.as_str()),
            Part::Variable(_) => None,
        })
    }

    /// Puts brackets around every text.
    pub(super) fn bracket(&mut self) {
        self.value.bracket();
        for (_, pattern) in &mut self.attributes {
            pattern.bracket();
        }
    }
}

impl From<String> for Pattern {
    fn from(text: String) -> Pattern {
        Pattern(vec![Part::Text(text)])
    }
}

impl Pattern {
    pub(crate) fn parts(&self) -> &[Part] {
        &self.0
    }

    fn variables(&self) -> impl Iterator<Item = &str> {
        self.0.iter().filter_map(|part| match part {
            Part::Variable(name) => Some(name.as_str()),
            Part::Text(_) => None,
        })
    }

    /// The text with its variables filled in.
    pub(super) fn fill<'v>(&self, value: &dyn Fn(&str) -> Option<Cow<'v, str>>) -> String {
        let mut out = String::new();
        for part in &self.0 {
            match part {
                Part::Text(text) => out.push_str(text),
                Part::Variable(name) => out.push_str(&value(name).unwrap_or_default()),
            }
        }
        out
    }

    pub(super) fn bracket(&mut self) {
        self.0.insert(0, Part::Text(super::OPENS.to_owned()));
        self.0.push(Part::Text(super::CLOSES.to_owned()));
    }
}

/// A mistake in a Fluent file.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct WordsMistake {
    /// The line, from 1.
    pub line: usize,
    /// The column in characters, from 1.
    pub column: usize,
    /// What is wrong and what to write instead.
    pub message: String,
}

impl WordsMistake {
    fn at(text: &str, byte: usize, message: String) -> WordsMistake {
        let (line, column) = line_and_column(text, byte);
        WordsMistake {
            line,
            column,
            message,
        }
    }

    /// A mistake in a message, at the line on which it begins.
    pub(super) fn at_message(text: &str, id: &str, message: String) -> WordsMistake {
        let mut at = 0;
        for line in text.split_inclusive('\n') {
            let rest = line.strip_prefix(id).map(str::trim_start);
            if rest.is_some_and(|r| r.starts_with('=')) {
                break;
            }
            at += line.len();
        }
        WordsMistake::at(text, at.min(text.len()), message)
    }
}

/// A Fluent file that cannot be used: every mistake in it.
#[derive(Clone, PartialEq, Eq)]
pub struct WordsError {
    file: String,
    mistakes: Vec<WordsMistake>,
}

impl WordsError {
    pub(super) fn new(file: &str, mut mistakes: Vec<WordsMistake>) -> WordsError {
        mistakes.sort_by_key(|m| (m.line, m.column));
        WordsError {
            file: file.to_owned(),
            mistakes,
        }
    }

    /// Every mistake, in the order of the file.
    pub fn mistakes(&self) -> &[WordsMistake] {
        &self.mistakes
    }
}

impl fmt::Display for WordsError {
    /// One line a mistake: `file:line:column: message`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let file = &self.file;
        let line = |m: &WordsMistake| format!("{file}:{}:{}: {}", m.line, m.column, m.message);
        crate::text::write_lines(f, self.mistakes.iter().map(line))
    }
}

crate::text::debug_as_text!(WordsError);

impl std::error::Error for WordsError {}

/// What a file has.
#[derive(Default)]
pub(super) struct Read {
    /// The messages that are wanted.
    pub(super) messages: Vec<(String, Message)>,
    /// The other ones, as far as they are text and variables.
    pub(super) texts: Vec<(String, Pattern)>,
}

/// The messages of a file, or every mistake in those that are wanted.
pub(super) fn read(text: &str, wanted: impl Fn(&str) -> bool) -> Result<Read, Vec<WordsMistake>> {
    let resource = parser::parse(text).map_err(|(_, errors)| {
        let each = errors.iter();
        each.map(|e| {
            let what = format!("not valid in a Fluent file: {}", e.kind);
            WordsMistake::at(text, e.pos.start, what)
        })
        .collect::<Vec<_>>()
    })?;
    let (mut read, mut mistakes) = (Read::default(), Vec::new());
    for entry in &resource.body {
        let Entry::Message(message) = entry else {
            continue;
        };
        let id = message.id.name;
        if !wanted(id) {
            let pattern = message.value.as_ref().map(pattern_of);
            if let Some(Ok(pattern)) = pattern {
                read.texts.push((id.to_owned(), pattern));
            }
            continue;
        }
        let mut take = |pattern: &ast::Pattern<&str>| {
            pattern_of(pattern).unwrap_or_else(|what| {
                let what = format!("`{id}` has {what}; write text and `{{ $variables }}` only");
                mistakes.push(WordsMistake::at_message(text, id, what));
                Pattern::default()
            })
        };
        let value = message.value.as_ref().map(&mut take).unwrap_or_default();
        let attributes = message.attributes.iter();
        let attributes = attributes.map(|a| (a.id.name.to_owned(), take(&a.value)));
        let message = Message {
            value,
            attributes: attributes.collect(),
        };
        read.messages.push((id.to_owned(), message));
    }
    if mistakes.is_empty() {
        Ok(read)
    } else {
        Err(mistakes)
    }
}

/// # Errors
/// What stands in the pattern that is not taken.
fn pattern_of(pattern: &ast::Pattern<&str>) -> Result<Pattern, &'static str> {
    let parts = pattern.elements.iter().map(|element| match element {
        PatternElement::TextElement { value } => Ok(Part::Text((*value).to_owned())),
        PatternElement::Placeable { expression } => match expression {
            Expression::Inline(InlineExpression::StringLiteral { value }) => Ok(Part::Text(
                fluent_syntax::unicode::unescape_unicode_to_string(value).into(),
            )),
            Expression::Inline(InlineExpression::NumberLiteral { value }) => {
                Ok(Part::Text((*value).to_owned()))
            }
            Expression::Inline(InlineExpression::VariableReference { id }) => {
                Ok(Part::Variable(id.name.to_owned()))
            }
            Expression::Inline(InlineExpression::FunctionReference { .. }) => Err("a function"),
            Expression::Inline(_) => Err("a reference"),
            Expression::Select { .. } => Err("a selector"),
        },
    });
    Ok(Pattern(parts.collect::<Result<_, _>>()?))
}
