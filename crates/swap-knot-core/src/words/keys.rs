//! What keys are called.

use super::names::{On, Saying};
use super::{Words, signs};
use crate::input::{Place, Platform};
use crate::layout::{Layout, Level};

impl Words {
    /// A key by its place: what is printed on it, or what it is called.
    pub(super) fn key(&self, place: Place, on: On<'_>, saying: Saying) -> String {
        let legend = on.layout.legend(place).filter(|_| place != Place::Space);
        if place.is_writing() && place != Place::Space {
            return match legend {
                Some(legend) => {
                    let second = on.layout.second_legend(place);
                    let is_sign = !legend.contains(char::is_alphanumeric);
                    match second {
                        // A sign on a key that has a letter as well says less than the letter.
                        Some(letter) if is_sign && !saying.form.is_short() => {
                            self.printed(letter.to_string(), None, saying)
                        }
                        second => self.printed(legend, second.map(String::from), saying),
                    }
                }
                None => self.by_place(place, saying),
            };
        }
        match legend {
            // What the board has printed on it is read in any language; a voice has a word for it.
            Some(legend) if !saying.aloud => return self.printed(legend, None, saying),
            _ => {}
        }
        if place == Place::AltRight && on.platform != Platform::Mac && on.layout.has_alt_gr() {
            return self.named_key("key-AltGr", saying);
        }
        let code = place.to_string();
        if let Some(key) = code.strip_prefix("Numpad") {
            return self.numpad(key, on, saying);
        }
        let id = self.on_platform(format!("key-{code}"), on.platform);
        if self.0.messages.contains_key(&id) {
            return self.named_key(&id, saying);
        }
        match code.strip_prefix('F').filter(|n| n.parse::<u8>().is_ok()) {
            Some(number) => {
                let name = self.fill("key-function", &[("number", number)]);
                self.printed(name, None, saying)
            }
            None => self.by_place(place, saying),
        }
    }

    /// A key of which no more is known than where it is.
    fn by_place(&self, place: Place, saying: Saying) -> String {
        let place = spaced(&place.to_string());
        let attribute = if saying.form.is_short() { "short" } else { "" };
        let name = self.fill_attribute("key-place", attribute, &[("place", &place)]);
        self.printed(name, None, saying)
    }

    fn numpad(&self, key: &str, on: On<'_>, saying: Saying) -> String {
        let printed = match key {
            "Add" => "+",
            "Backspace" => "⌫",
            "Clear" => "C",
            "ClearEntry" => "CE",
            "Comma" => ",",
            "Decimal" => ".",
            "Divide" => "/",
            "Equal" => "=",
            "Hash" => "#",
            "MemoryAdd" => "M+",
            "MemoryClear" => "MC",
            "MemoryRecall" => "MR",
            "MemoryStore" => "MS",
            "MemorySubtract" => "M−",
            "Multiply" => "*",
            "ParenLeft" => "(",
            "ParenRight" => ")",
            "Star" => "✱",
            "Subtract" => "-",
            other => other,
        };
        let own = match key {
            "Enter" | "Backspace" => {
                let id = self.on_platform(format!("key-{key}"), on.platform);
                self.fill(&id, &[])
            }
            _ => printed.to_owned(),
        };
        let mut chars = own.chars();
        let own = match (saying.aloud, chars.next().and_then(signs::id), chars.next()) {
            (true, Some(id), None) => self.fill(&format!("sign-{id}"), &[]),
            _ => own,
        };
        // In a form of its own, or in that of every key.
        let message = self.0.messages.get("key-numpad");
        let mut forms = saying.form.attributes().iter();
        match message.is_some_and(|m| forms.any(|form| m.attribute(form).is_some())) {
            true => self.attribute_for("key-numpad", saying, &[("key", &own)]),
            false => {
                let name = self.fill("key-numpad", &[("key", &own)]);
                self.printed(name, None, saying)
            }
        }
    }
}

/// The letter as it is printed: the legend of the key that types it on its own, else its capital.
pub(super) fn letter_legend(letter: char, layout: &Layout) -> String {
    let place = layout.place_of(letter);
    let typed = place.and_then(|p| layout.typed(p, Level::Plain));
    match place.and_then(|p| layout.legend(p)) {
        Some(legend) if typed.is_some_and(|t| t.character == letter) => legend,
        _ => letter.to_uppercase().to_string(),
    }
}

/// `IntlBackslash` becomes `Intl Backslash`.
fn spaced(code: &str) -> String {
    let mut out = String::with_capacity(code.len() + 4);
    for (i, c) in code.char_indices() {
        if i > 0 && (c.is_ascii_uppercase() || c.is_ascii_digit()) {
            out.push(' ');
        }
        out.push(c);
    }
    out
}
