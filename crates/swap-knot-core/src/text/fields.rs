//! A TOML table read field by field, collecting mistakes instead of stopping at the first.

use std::ops::Range;

use toml::Spanned;
use toml::de::{DeTable, DeValue};

use super::{Mistake, nearest};

/// The mistakes found so far, and the texts to find their lines in.
///
/// Several files are read as if they lay one behind the other, so that a byte tells its file.
pub(crate) struct Report<'s> {
    files: Vec<File<'s>>,
    mistakes: Vec<Mistake>,
}

struct File<'s> {
    name: Option<String>,
    text: &'s str,
    /// Where it begins among all files.
    start: usize,
    line_starts: Vec<usize>,
}

/// After this many mistakes the rest is likely an echo of the first ones.
const MAX_MISTAKES: usize = 100;

impl<'s> Report<'s> {
    pub(crate) fn new() -> Self {
        Report {
            files: Vec::new(),
            mistakes: Vec::new(),
        }
    }

    /// Adds a file behind those before it; answers where it begins.
    pub(crate) fn add_file(&mut self, name: Option<&str>, text: &'s str) -> usize {
        let start = self.files.last().map_or(0, |f| f.start + f.text.len() + 1);
        let ends = text.match_indices('\n').map(|(i, _)| i + 1);
        self.files.push(File {
            name: name.map(str::to_owned),
            text,
            start,
            line_starts: std::iter::once(0).chain(ends).collect(),
        });
        start
    }

    /// The file that a byte is in, and where in it.
    fn find(&self, at: usize) -> Option<(&File<'s>, usize)> {
        let behind = self.files.partition_point(|f| f.start <= at);
        let file = self.files.get(behind.checked_sub(1)?)?;
        Some((file, at - file.start))
    }

    /// The file, line and column of a byte.
    fn place(&self, at: usize) -> (Option<String>, usize, usize) {
        let Some((file, at)) = self.find(at) else {
            return (None, 1, 1);
        };
        let line = file
            .line_starts
            .partition_point(|&start| start <= at)
            .max(1);
        let before = file
            .text
            .get(file.line_starts[line - 1]..at)
            .unwrap_or_default();
        (file.name.clone(), line, before.chars().count() + 1)
    }

    /// The line and the column of a byte.
    pub(crate) fn line_and_column(&self, at: usize) -> (usize, usize) {
        let (_, line, column) = self.place(at);
        (line, column)
    }

    /// The place of a byte in words: `base.toml:3:1`, or `line 3, column 1`.
    pub(crate) fn place_name(&self, at: usize) -> String {
        match self.place(at) {
            (Some(file), line, column) => format!("{file}:{line}:{column}"),
            (None, line, column) => format!("line {line}, column {column}"),
        }
    }

    /// Whether nothing was found.
    pub(crate) fn is_empty(&self) -> bool {
        self.mistakes.is_empty()
    }

    /// Whether no more mistakes are told, so that none needs to be put into words.
    pub(crate) fn is_full(&self) -> bool {
        self.mistakes.len() >= MAX_MISTAKES
    }

    /// Notes that nothing is called by a name, with the nearest one that something is called by.
    pub(crate) fn add_no_such<'a, K>(
        &mut self,
        at: usize,
        kind: &str,
        name: &str,
        known: impl FnOnce() -> K,
    ) where
        K: Iterator<Item = &'a str> + Clone,
    {
        if !self.is_full() {
            self.add(at, no_such(kind, name, known()));
        }
    }

    /// Notes a mistake at a byte; it is put into words only if it is told.
    pub(crate) fn add(&mut self, at: usize, message: impl ToString) {
        if self.is_full() {
            return;
        }
        let (file, line, column) = self.place(at);
        self.mistakes.push(Mistake {
            file,
            line,
            column,
            message: message.to_string(),
        });
    }

    /// Where the characters of a string value begin, behind its quotes.
    pub(crate) fn inside(&self, value: &Spanned<DeValue<'_>>) -> usize {
        let span = value.span();
        let len = value.get_ref().as_str().map_or(0, str::len);
        match span.len().checked_sub(len) {
            Some(2) => span.start + 1,
            _ => span.start,
        }
    }

    pub(crate) fn finish(mut self) -> Vec<Mistake> {
        self.mistakes.sort();
        self.mistakes.dedup();
        self.mistakes
    }
}

/// One table: what is asked for is known, the rest is reported as misspelt.
pub(crate) struct Fields<'t, 's> {
    table: &'t DeTable<'s>,
    asked: Vec<&'static str>,
    /// Where the table stands, for what is missing in it.
    pub(crate) at: usize,
}

impl<'t, 's> Fields<'t, 's> {
    pub(crate) fn new(table: &'t DeTable<'s>, at: usize) -> Self {
        Fields {
            table,
            asked: Vec::new(),
            at,
        }
    }

    /// The table in a value, or a mistake.
    pub(crate) fn of(
        value: &'t Spanned<DeValue<'s>>,
        what: &str,
        report: &mut Report<'_>,
    ) -> Option<Self> {
        match value.get_ref().as_table() {
            Some(table) => Some(Fields::new(table, value.span().start)),
            None => {
                wrong_type(what, &a_table(what), value, report);
                None
            }
        }
    }

    pub(crate) fn has(&self, key: &str) -> bool {
        self.table.contains_key(key)
    }

    pub(crate) fn value(&mut self, key: &'static str) -> Option<&'t Spanned<DeValue<'s>>> {
        self.asked.push(key);
        self.table.get(key)
    }

    /// Every entry, for tables whose keys are names.
    pub(crate) fn entries(
        &self,
    ) -> impl Iterator<Item = (&'t str, Range<usize>, &'t Spanned<DeValue<'s>>)> + use<'t, 's> {
        let table = self.table;
        table
            .iter()
            .map(|(k, v)| (k.get_ref().as_ref(), k.span(), v))
    }

    pub(crate) fn string(&mut self, key: &'static str, report: &mut Report<'_>) -> Option<&'t str> {
        let value = self.value(key)?;
        let found = value.get_ref().as_str();
        if found.is_none() {
            wrong_type(&format!("`{key}`"), "a text in quotes", value, report);
        }
        found
    }

    pub(crate) fn boolean(&mut self, key: &'static str, report: &mut Report<'_>) -> bool {
        self.optional_boolean(key, report).unwrap_or(false)
    }

    pub(crate) fn optional_boolean(
        &mut self,
        key: &'static str,
        report: &mut Report<'_>,
    ) -> Option<bool> {
        boolean(key, self.value(key)?, report)
    }

    pub(crate) fn integer(
        &mut self,
        key: &'static str,
        range: std::ops::RangeInclusive<u32>,
        report: &mut Report<'_>,
    ) -> Option<u32> {
        let value = self.value(key)?;
        let found = integer(value).filter(|n| range.contains(n));
        if found.is_none() {
            let wanted = format!("a whole number from {} to {}", range.start(), range.end());
            match value.get_ref().as_integer() {
                Some(n) => report.add(
                    value.span().start,
                    format!("`{key}` wants {wanted}; {} is not", n.as_str()),
                ),
                None => wrong_type(&format!("`{key}`"), &wanted, value, report),
            }
        }
        found
    }

    pub(crate) fn number(
        &mut self,
        key: &'static str,
        range: std::ops::RangeInclusive<f32>,
        report: &mut Report<'_>,
    ) -> Option<f32> {
        number_in(key, self.value(key)?, range, report)
    }

    /// One of a few words.
    pub(crate) fn word<T: Copy>(
        &mut self,
        key: &'static str,
        all: &[T],
        text: impl Fn(T) -> &'static str,
        report: &mut Report<'_>,
    ) -> Option<T> {
        let value = self.value(key)?;
        let word = self.string(key, report)?;
        let found = all.iter().copied().find(|&t| text(t) == word);
        if found.is_none() {
            let words: Vec<&str> = all.iter().map(|&t| text(t)).collect();
            let message = unknown(&format!("`{key}`"), word, &words);
            report.add(report.inside(value), message);
        }
        found
    }

    /// A text, or a list of texts, each with where it begins.
    pub(crate) fn texts(
        &mut self,
        key: &'static str,
        report: &mut Report<'_>,
    ) -> Vec<(&'t str, usize)> {
        let value = self.value(key);
        value.map_or_else(Vec::new, |value| texts(key, value, report))
    }

    /// Reports every key that was not asked for.
    pub(crate) fn finish(self, what: &str, report: &mut Report<'_>) {
        for (key, span, _) in self.entries() {
            if !self.asked.contains(&key) && !report.is_full() {
                report.add(span.start, unknown_key(what, key, &self.asked));
            }
        }
    }
}

pub(crate) fn integer(value: &Spanned<DeValue<'_>>) -> Option<u32> {
    let n = value.get_ref().as_integer()?;
    u32::from_str_radix(n.as_str(), n.radix()).ok()
}

/// What a switch is set to.
pub(crate) fn boolean(
    key: &str,
    value: &Spanned<DeValue<'_>>,
    report: &mut Report<'_>,
) -> Option<bool> {
    let found = value.get_ref().as_bool();
    if found.is_none() {
        wrong_type(&format!("`{key}`"), "true or false", value, report);
    }
    found
}

/// A number within a range.
pub(crate) fn number_in(
    key: &str,
    value: &Spanned<DeValue<'_>>,
    range: std::ops::RangeInclusive<f32>,
    report: &mut Report<'_>,
) -> Option<f32> {
    let wanted = || format!("a number from {} to {}", range.start(), range.end());
    match number(value) {
        Some(found) if range.contains(&found) => return Some(found),
        Some(found) => report.add(
            value.span().start,
            format!("`{key}` wants {}; {found} is not", wanted()),
        ),
        None => wrong_type(&format!("`{key}`"), &wanted(), value, report),
    }
    None
}

/// A text, or a list of texts, each with where it begins.
pub(crate) fn texts<'t>(
    key: &str,
    value: &'t Spanned<DeValue<'_>>,
    report: &mut Report<'_>,
) -> Vec<(&'t str, usize)> {
    let mut out = Vec::new();
    let items = match value.get_ref().as_array() {
        Some(items) => items.iter().collect(),
        None => vec![value],
    };
    for item in items {
        match item.get_ref().as_str() {
            Some(text) => out.push((text, report.inside(item))),
            None => wrong_type(&format!("`{key}`"), "texts in quotes", item, report),
        }
    }
    out
}

pub(crate) fn number(value: &Spanned<DeValue<'_>>) -> Option<f32> {
    let float = value
        .get_ref()
        .as_float()
        .and_then(|f| f.as_str().parse().ok());
    let whole = || {
        value
            .get_ref()
            .as_integer()
            .and_then(|n| n.as_str().parse().ok())
    };
    float.or_else(whole).filter(|n: &f32| n.is_finite())
}

/// A table as it is written for something, so that whoever has another thing there sees one.
fn a_table(what: &str) -> String {
    const WRITTEN: &[(&str, &str)] = &[
        ("`actions`", "horn = { bind = \"KeyH\" }"),
        ("`bind`", "horn = { keyboard-1 = \"KeyG\" }"),
        ("`dead-zone`", "inner = 0.15, outer = 0.95"),
        ("`groups`", "deck = \"On deck\""),
        (
            "`presets`",
            "left-handed = { bind = { horn = { keyboard-1 = \"KeyG\" } } }",
        ),
        ("`renamed`", "old-name = \"new-name\""),
        ("`situations`", "deck = { title = \"On deck\" }"),
        ("a binding", "on = \"KeyH\", manner = \"hold\""),
        ("a feel", "sensitivity = 1.5"),
        ("a touch zone", "opacity = 0.5"),
        ("action", "bind = \"KeyH\""),
        ("arm", "bind = \"KeyW\""),
        ("preset", "bind = { horn = { keyboard-1 = \"KeyG\" } }"),
        ("situation", "title = \"On deck\""),
    ];
    match WRITTEN.iter().find(|(begins, _)| what.starts_with(begins)) {
        Some((_, inside)) => format!("a table such as `{{ {inside} }}`"),
        None => "a table in braces, `{ … }`".to_owned(),
    }
}

pub(crate) fn wrong_type(
    what: &str,
    wanted: &str,
    value: &Spanned<DeValue<'_>>,
    report: &mut Report<'_>,
) {
    let found = value.get_ref().type_str();
    report.add(
        value.span().start,
        format!("{what} wants {wanted}, not this {found}"),
    );
}

fn unknown_key(what: &str, key: &str, known: &[&str]) -> String {
    match nearest(key, known.iter().copied()) {
        Some(near) => format!("{what} has no key `{key}`; did you mean `{near}`?"),
        None => {
            let mut known = known.to_vec();
            known.sort_unstable();
            known.dedup();
            format!("{what} has no key `{key}`; it can have {}", list(&known))
        }
    }
}

/// The text for a word that is none of a few known ones.
pub(crate) fn unknown(what: &str, word: &str, known: &[&str]) -> String {
    match nearest(word, known.iter().copied()) {
        Some(near) => format!("{what} cannot be `{word}`; did you mean `{near}`?"),
        None => format!("{what} cannot be `{word}`; it is one of {}", list(known)),
    }
}

/// The text for a name that nothing is called.
fn no_such<'a>(kind: &str, name: &str, known: impl Iterator<Item = &'a str> + Clone) -> String {
    match nearest(name, known.clone()) {
        Some(near) => format!("there is no {kind} `{name}`; did you mean `{near}`?"),
        None => {
            let known: Vec<&str> = known.take(12).collect();
            match &known[..] {
                [] => format!("there is no {kind} `{name}`, and none is declared"),
                [only] => format!("there is no {kind} `{name}`; the only one is `{only}`"),
                known => format!("there is no {kind} `{name}`; there are {}", list(known)),
            }
        }
    }
}

fn list(words: &[&str]) -> String {
    let quoted: Vec<String> = words.iter().map(|w| format!("`{w}`")).collect();
    quoted.join(", ")
}
