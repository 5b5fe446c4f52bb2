//! Messages with their variables filled in.

use std::borrow::Cow;

use super::{Form, On, Part, Pattern, Saying, Words};
use crate::input::{Chord, DeviceKind};
use crate::sheet::{Column, ColumnKind};

impl Words {
    /// What a device kind is called.
    pub fn device_name(&self, kind: DeviceKind) -> String {
        self.fill(&format!("device-{kind}"), &[])
    }

    /// What a menu writes over its columns for a kind of device.
    pub fn column_name(&self, kind: ColumnKind) -> String {
        self.fill(&format!("column-{kind}"), &[])
    }

    /// What a menu writes over one column: those after the first of their devices have a number.
    pub fn column_title(&self, column: Column) -> String {
        let name = self.column_name(column.kind());
        match column.number() {
            1 => name,
            number => {
                let number = number.to_string();
                self.fill("column-further", &[("column", &name), ("number", &number)])
            }
        }
    }

    /// A number as the language writes it, with at most two places behind the decimal sign.
    pub fn number(&self, number: f32) -> String {
        let text = format!("{number:.2}");
        let text = match text.contains('.') {
            true => text.trim_end_matches('0').trim_end_matches('.'),
            false => &text,
        };
        text.replace('.', &self.fill("decimal-sign", &[]))
    }

    /// A text for a menu by its message, with its variables filled in: `menu-apply`, or
    /// `menu-listen` with `$title`. The ids are those of the Fluent files that ship; one that there
    /// is not comes back as it is.
    pub fn say(&self, id: &str, values: &[(&str, &str)]) -> String {
        self.fill(id, values)
    }

    /// A message with its variables filled in.
    pub(crate) fn fill(&self, id: &str, values: &[(&str, &str)]) -> String {
        self.fill_attribute(id, "", values)
    }

    /// An attribute of a message, or the message where it has none.
    pub(crate) fn fill_attribute(
        &self,
        id: &str,
        attribute: &str,
        values: &[(&str, &str)],
    ) -> String {
        let Some(pattern) = self.pattern(id, attribute) else {
            return id.to_owned();
        };
        self.joints(pattern.fill(&|name| {
            let mut all = values.iter();
            all.find(|(n, _)| *n == name)
                .map(|(_, v)| Cow::Borrowed(*v))
        }))
    }

    /// A message about an input or chord, which stands in it in the form that its variable asks for.
    pub(crate) fn fill_with(
        &self,
        id: &str,
        values: &[(&str, &str)],
        chord: &Chord,
        on: On<'_>,
    ) -> String {
        let Some(pattern) = self.pattern(id, "") else {
            return id.to_owned();
        };
        let filled = self.joints(pattern.fill(&|name| {
            let mut all = values.iter();
            let given = all
                .find(|(n, _)| *n == name)
                .map(|(_, v)| Cow::Borrowed(*v));
            given.or_else(|| {
                let saying = Saying::written(Form::of_variable(name)?);
                Some(Cow::Owned(self.chord(chord, on, saying)))
            })
        }));
        // A sentence begins with a capital, also where it begins with a name.
        match pattern
            .parts()
            .iter()
            .find(|p| **p != Part::Text(super::OPENS.to_owned()))
        {
            Some(Part::Variable(name)) => {
                let is_input = Form::of_variable(name).is_some();
                self.capital(&filled, is_input && is_legend(chord))
            }
            _ => filled,
        }
    }

    /// A message or its attribute, as parts.
    pub(crate) fn pattern(&self, id: &str, attribute: &str) -> Option<&Pattern> {
        let message = self.0.messages.get(id)?;
        Some(message.attribute(attribute).unwrap_or(&message.value))
    }

    /// A text with its first letter large, as a sentence begins. A legend stays as it is printed.
    pub(crate) fn capital(&self, text: &str, is_legend: bool) -> String {
        // An article of one letter is a word, too ("l’axe", "o botão").
        let is_word = |rest: &str| {
            rest.starts_with(|c: char| c.is_lowercase() || "'’ ".contains(c))
                && !rest.trim().is_empty()
        };
        first_letter(text, |first, rest| match (first, is_word(rest)) {
            (_, false) => first.to_string(),
            _ if is_legend && !rest.starts_with(char::is_lowercase) => first.to_string(),
            ('i', _) if self.language() == "tr" => "İ".to_owned(),
            _ => first.to_uppercase().collect(),
        })
    }

    /// A text with its first letter small, for the inside of a sentence.
    pub(crate) fn small(&self, text: &str) -> String {
        first_letter(text, |first, _| match first {
            'I' if self.language() == "tr" => "ı".to_owned(),
            'İ' => "i".to_owned(),
            _ => first.to_lowercase().collect(),
        })
    }
}

/// Whether a chord begins with what is printed on a key.
pub(crate) fn is_legend(chord: &Chord) -> bool {
    let first = chord.inputs().next();
    first.is_some_and(|input| input.device_kind() == DeviceKind::Keyboard)
}

impl Words {
    /// A text with its spaces as the language has them between its own letters and Latin ones:
    /// Chinese has one there, and none elsewhere.
    pub(crate) fn joints(&self, text: String) -> String {
        if !self.language().starts_with("zh") {
            return text;
        }
        let mut out = String::with_capacity(text.len());
        for next in text.chars() {
            let before = out.trim_end_matches(' ').chars().next_back();
            let had_space = out.ends_with(' ');
            match before.and_then(|before| joint(before, next)) {
                Some(wants) if next != ' ' => {
                    out.truncate(out.trim_end_matches(' ').len());
                    if wants {
                        out.push(' ');
                    }
                }
                _ if next == ' ' && had_space => continue,
                _ => {}
            }
            out.push(next);
        }
        out
    }

    /// Whether the language wants a space between two pieces of text, or none; no answer where it has
    /// no rule for that.
    pub(crate) fn wants_space(&self, before: &str, after: &str) -> Option<bool> {
        if !self.language().starts_with("zh") {
            return None;
        }
        joint(before.chars().next_back()?, after.chars().next()?)
    }
}

/// Whether a space belongs between two characters of Chinese text; no answer where either is fine.
fn joint(before: char, after: char) -> Option<bool> {
    let is_own = |c: char| matches!(c, '\u{2e80}'..='\u{2fdf}' | '\u{3007}' | '\u{3400}'..='\u{9fff}' | '\u{f900}'..='\u{faff}');
    // What is printed on a key is Latin here, whatever sign it is; Chinese has marks of its own.
    let is_latin = |c: char| c.is_ascii_graphic() || (c.is_alphanumeric() && !is_own(c));
    let is_mark =
        |c: char| matches!(c, '\u{3000}'..='\u{303f}' | '\u{ff00}'..='\u{ff60}' | '“' | '”');
    match (before, after) {
        (a, b) if is_own(a) && is_latin(b) || is_latin(a) && is_own(b) => Some(true),
        (a, b) if (is_own(a) || is_mark(a)) && (is_own(b) || is_mark(b)) => Some(false),
        (a, b) if is_mark(a) && is_latin(b) || is_latin(a) && is_mark(b) => Some(false),
        _ => None,
    }
}

/// Changes the first letter of a text, in brackets or not.
fn first_letter(text: &str, change: impl Fn(char, &str) -> String) -> String {
    let mut chars = text.char_indices();
    let Some((at, first)) = chars.find(|(_, c)| !super::OPENS.contains(*c)) else {
        return text.to_owned();
    };
    let (before, rest) = (&text[..at], &text[at + first.len_utf8()..]);
    format!("{before}{}{rest}", change(first, rest))
}
