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
        pattern.fill(&|name| {
            let mut all = values.iter();
            all.find(|(n, _)| *n == name)
                .map(|(_, v)| Cow::Borrowed(*v))
        })
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
        let filled = pattern.fill(&|name| {
            let mut all = values.iter();
            let given = all
                .find(|(n, _)| *n == name)
                .map(|(_, v)| Cow::Borrowed(*v));
            given.or_else(|| {
                let saying = Saying::written(Form::of_variable(name)?);
                Some(Cow::Owned(self.chord(chord, on, saying)))
            })
        });
        // A sentence begins with a capital, also where it begins with a name.
        match pattern
            .parts()
            .iter()
            .find(|p| **p != Part::Text(super::OPENS.to_owned()))
        {
            Some(Part::Variable(_)) => self.capital(&filled),
            _ => filled,
        }
    }

    /// A message or its attribute, as parts.
    pub(crate) fn pattern(&self, id: &str, attribute: &str) -> Option<&Pattern> {
        let message = self.0.messages.get(id)?;
        Some(message.attribute(attribute).unwrap_or(&message.value))
    }

    /// A text with its first letter large, as a sentence begins. A legend of one letter stays as it
    /// is printed.
    pub(crate) fn capital(&self, text: &str) -> String {
        let is_word = |rest: &str| rest.starts_with(|c: char| c.is_lowercase() || c == '\'');
        first_letter(text, |first, rest| match (first, is_word(rest)) {
            (_, false) => first.to_string(),
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

/// Changes the first letter of a text, in brackets or not.
fn first_letter(text: &str, change: impl Fn(char, &str) -> String) -> String {
    let mut chars = text.char_indices();
    let Some((at, first)) = chars.find(|(_, c)| !super::OPENS.contains(*c)) else {
        return text.to_owned();
    };
    let (before, rest) = (&text[..at], &text[at + first.len_utf8()..]);
    format!("{before}{}{rest}", change(first, rest))
}
