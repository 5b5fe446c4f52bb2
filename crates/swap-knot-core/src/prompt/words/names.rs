//! What inputs are called: long, short, after a verb, and spoken.

use std::collections::HashMap;

use super::Words;
use super::read::Message;
use crate::input::{
    Chord, Direction, HidAxis, HidInput, Input, InputShape, Modifier, MouseButton, PadButton,
    Place, Platform, Sign, Stick,
};
use crate::layout::{Layout, Level};

/// The names of one input.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Named {
    pub(super) long: String,
    pub(super) short: String,
    /// As it stands after a verb.
    pub(super) object: String,
    pub(super) spoken: String,
}

/// Which of the names of an input is wanted.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Form {
    Long,
    Short,
    Object,
    Spoken,
}

impl Form {
    /// The attribute of a message that holds it.
    const fn attribute(self) -> &'static str {
        match self {
            Form::Long => "",
            Form::Short => "short",
            Form::Object => "object",
            Form::Spoken => "spoken",
        }
    }
}

impl Named {
    fn get(&self, form: Form) -> &str {
        match form {
            Form::Long => &self.long,
            Form::Short => &self.short,
            Form::Object => &self.object,
            Form::Spoken => &self.spoken,
        }
    }

    fn each(make: impl Fn(Form) -> String) -> Named {
        Named {
            long: make(Form::Long),
            short: make(Form::Short),
            object: make(Form::Object),
            spoken: make(Form::Spoken),
        }
    }
}

impl Words {
    /// What an input is called: the legend on the player's keyboard, or its name.
    pub fn input_name(&self, input: Input, layout: &Layout) -> String {
        self.name(input, layout, Platform::current(), Form::Long)
    }

    /// What an input is called where there is little room: `LShift`.
    pub fn short_name(&self, input: Input, layout: &Layout) -> String {
        self.name(input, layout, Platform::current(), Form::Short)
    }

    /// What a screen reader says for an input: `comma` rather than `,`.
    pub fn spoken_name(&self, input: Input, layout: &Layout) -> String {
        self.name(input, layout, Platform::current(), Form::Spoken)
    }

    /// What a chord is called: its parts as the language joins them, as in "Ctrl+K".
    pub fn chord_name(&self, chord: &Chord, layout: &Layout) -> String {
        self.chord(chord, layout, Platform::current(), Form::Long)
    }

    pub(crate) fn chord(
        &self,
        chord: &Chord,
        layout: &Layout,
        platform: Platform,
        form: Form,
    ) -> String {
        let moves = matches!(chord.input().shape(), InputShape::Line | InputShape::Plane);
        if matches!(form, Form::Object | Form::Spoken) && moves && !chord.is_plain() {
            return self.held_and_moved(chord, layout, platform);
        }
        let parts = chord.inputs().map(|i| {
            // Articles are for inputs alone.
            let form = match form {
                Form::Object if !chord.is_plain() => Form::Long,
                form => form,
            };
            self.name(i, layout, platform, form)
        });
        let join = |held: String, input: String| {
            let values = [("held", held.as_str()), ("input", input.as_str())];
            match form {
                Form::Spoken => self.fill_as("chord", "spoken", &values),
                _ => self.0.chord.fill(&values),
            }
        };
        parts.reduce(join).unwrap_or_default()
    }

    /// A chord that a movement completes, behind a verb: "the right mouse button and move the mouse".
    fn held_and_moved(&self, chord: &Chord, layout: &Layout, platform: Platform) -> String {
        let form = match chord.held() {
            [_] => Form::Object,
            // Articles are for inputs alone.
            _ => Form::Long,
        };
        let held = chord
            .held()
            .iter()
            .map(|i| self.name(*i, layout, platform, form));
        let join = |held: String, input: String| {
            let values = [("held", held.as_str()), ("input", input.as_str())];
            self.0.chord.fill(&values)
        };
        let held = held.reduce(join).unwrap_or_default();
        let input = self.name(chord.input(), layout, platform, Form::Object);
        self.fill("chord-move", &[("held", &held), ("input", &input)])
    }

    pub(crate) fn name(
        &self,
        input: Input,
        layout: &Layout,
        platform: Platform,
        form: Form,
    ) -> String {
        if let Some(named) = self.0.names.get(&input) {
            return named.get(form).to_owned();
        }
        match input {
            Input::Key(place) => self.key(place, layout, form),
            Input::Letter(letter) => self.sign(letter_legend(letter.char(), layout), form),
            Input::Modifier(Modifier::Main) => {
                let main = match platform {
                    Platform::Mac => "modifier-Command",
                    Platform::Other => "modifier-Ctrl",
                };
                self.fill_as(main, form.attribute(), &[])
            }
            Input::MouseButton(button) => {
                let number = button.number().to_string();
                self.fill_as("mouse-button", form.attribute(), &[("number", &number)])
            }
            Input::Hid(HidInput::Button(button)) => {
                let number = button.number().to_string();
                self.fill_as("hid-button", form.attribute(), &[("number", &number)])
            }
            Input::Touch(name) => {
                let own = format!("touch-{name}");
                match self.0.messages.contains_key(&own) {
                    true => self.fill_as(&own, form.attribute(), &[]),
                    false => self.fill("touch", &[("name", &name.as_str().replace('-', " "))]),
                }
            }
            other => other.to_string(),
        }
    }

    /// A key that writes: what is printed on it.
    fn key(&self, place: Place, layout: &Layout, form: Form) -> String {
        let Some(legend) = layout.legend(place).filter(|_| place.is_writing()) else {
            let place = spaced(&place.to_string());
            return self.fill_as("key-place", form.attribute(), &[("place", &place)]);
        };
        match (layout.second_legend(place), form) {
            // Both are printed on the key, and players know it by either.
            (Some(second), Form::Long | Form::Object) => format!("{legend}/{second}"),
            // The one that a voice of any language knows.
            (Some(second), Form::Spoken) => second.to_string(),
            _ => self.sign(legend, form),
        }
    }

    /// A legend; spoken, signs have names.
    fn sign(&self, legend: String, form: Form) -> String {
        let mut chars = legend.chars();
        match (form, chars.next().and_then(sign_id), chars.next()) {
            (Form::Spoken, Some(id), None) => self.fill(&format!("sign-{id}"), &[]),
            _ => legend,
        }
    }
}

/// The letter as it is printed: the legend of the key that types it on its own, else its capital.
fn letter_legend(letter: char, layout: &Layout) -> String {
    let place = layout.place_of(letter);
    let typed = place.and_then(|p| layout.typed(p, Level::Plain));
    match place.and_then(|p| layout.legend(p)) {
        Some(legend) if typed.is_some_and(|t| t.character == letter) => legend,
        _ => letter.to_uppercase().to_string(),
    }
}

/// The names of every input that the layout and the game have no say in.
pub(super) fn all(messages: &HashMap<String, Message>) -> HashMap<Input, Named> {
    let from = From { messages };
    Input::all_named()
        .filter_map(|input| Some((input, from.named(input)?)))
        .collect()
}

/// Names made from messages.
struct From<'a> {
    messages: &'a HashMap<String, Message>,
}

impl From<'_> {
    fn fill(&self, id: &str, form: Form, values: &[(&str, &str)]) -> String {
        let message = self.messages.get(id);
        message.map_or_else(|| id.to_owned(), |m| m.part(form.attribute()).fill(values))
    }

    fn simple(&self, id: &str) -> Named {
        Named::each(|form| self.fill(id, form, &[]))
    }

    /// Something pushed or turned in a direction.
    fn aimed(&self, what: &str, direction: Direction) -> Named {
        let direction = format!("direction-{}", direction.word());
        Named::each(|form| {
            let (what, direction) = (self.fill(what, form, &[]), self.fill(&direction, form, &[]));
            let values = [("what", what.as_str()), ("direction", direction.as_str())];
            self.fill("aimed", form, &values)
        })
    }

    fn named(&self, input: Input) -> Option<Named> {
        Some(match input {
            Input::Modifier(Modifier::Main) | Input::Letter(_) | Input::Touch(_) => return None,
            Input::Modifier(modifier) => self.simple(&format!("modifier-{}", modifier.word())),
            Input::Key(place) => self.key(place)?,
            Input::MouseButton(button) => self.simple(match button {
                MouseButton::Left => "mouse-left",
                MouseButton::Right => "mouse-right",
                MouseButton::Middle => "mouse-middle",
                MouseButton::Back => "mouse-back",
                MouseButton::Forward => "mouse-forward",
                MouseButton::Further(_) => return None,
            }),
            Input::MouseMove => self.simple("mouse-move"),
            Input::Wheel(direction) => self.aimed("wheel", direction),
            Input::PadButton(button) => self.pad(button),
            Input::PadStick(stick) => self.simple(stick_id(stick)),
            Input::PadStickHalf(stick, direction) => self.aimed(stick_id(stick), direction),
            Input::Hid(HidInput::Button(_)) => return None,
            Input::Hid(HidInput::Hat(direction)) => self.aimed("hid-hat", direction),
            Input::Hid(HidInput::Axis(axis)) => {
                let axis = self.axis(axis);
                Named::each(|form| self.fill("hid-axis", form, &[("axis", &axis)]))
            }
            Input::Hid(HidInput::Half(axis, sign)) => {
                let axis = self.axis(axis);
                let sign = match sign {
                    Sign::Positive => "+",
                    Sign::Negative => "−",
                };
                let values = [("axis", axis.as_str()), ("sign", sign)];
                Named::each(|form| self.fill("hid-half", form, &values))
            }
        })
    }

    fn pad(&self, button: PadButton) -> Named {
        match button.word().strip_prefix("paddle-") {
            Some(number) => {
                Named::each(|form| self.fill("pad-paddle", form, &[("number", number)]))
            }
            None => self.simple(&format!("pad-{}", button.word())),
        }
    }

    /// The name of an axis: a word where it has one, else its letters.
    fn axis(&self, axis: HidAxis) -> String {
        let id = format!("axis-{}", axis.word());
        let has_word = self.messages.contains_key(&id);
        match has_word {
            true => self.fill(&id, Form::Long, &[]),
            false => axis.word().to_uppercase(),
        }
    }

    /// A key that writes nothing, or Space, on which nothing is printed.
    fn key(&self, place: Place) -> Option<Named> {
        if Place::WRITING.contains(&place) && place != Place::Space {
            return None;
        }
        let code = place.to_string();
        let id = format!("key-{code}");
        if self.messages.contains_key(&id) {
            return Some(self.simple(&id));
        }
        if let Some(key) = code.strip_prefix("Numpad") {
            return Some(self.numpad(key));
        }
        let function = code.strip_prefix('F').filter(|n| n.parse::<u8>().is_ok());
        function.map(|number| {
            Named::each(|form| self.fill("key-function", form, &[("number", number)]))
        })
    }

    fn numpad(&self, key: &str) -> Named {
        let printed = match key {
            "Add" => "+",
            "Backspace" => "⌫",
            "Clear" => "C",
            "ClearEntry" => "CE",
            "Comma" => ",",
            "Decimal" => ".",
            "Divide" => "/",
            "Enter" => "",
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
            digit => digit,
        };
        Named::each(|form| {
            let own = match key {
                "Enter" | "Backspace" => self.fill(&format!("key-{key}"), form, &[]),
                _ => printed.to_owned(),
            };
            let sign = own.chars().next().and_then(sign_id);
            let own = match (form, sign) {
                (Form::Spoken, Some(id)) if own.chars().count() == 1 => {
                    self.fill(&format!("sign-{id}"), Form::Long, &[])
                }
                _ => own,
            };
            self.fill("key-numpad", form, &[("key", &own)])
        })
    }
}

const fn stick_id(stick: Stick) -> &'static str {
    match stick.0 {
        crate::input::Side::Left => "pad-stick-left",
        crate::input::Side::Right => "pad-stick-right",
    }
}

/// The message that names a sign, without the `sign-` in front.
fn sign_id(sign: char) -> Option<&'static str> {
    Some(match sign {
        '`' => "grave",
        '~' => "tilde",
        '!' => "exclamation",
        '@' => "at",
        '#' => "hash",
        '$' => "dollar",
        '%' => "percent",
        '^' => "circumflex",
        '&' => "ampersand",
        '*' | '✱' => "asterisk",
        '(' => "paren-left",
        ')' => "paren-right",
        '-' | '−' => "minus",
        '_' => "underscore",
        '=' => "equals",
        '+' => "plus",
        '[' => "bracket-left",
        ']' => "bracket-right",
        '{' => "brace-left",
        '}' => "brace-right",
        '\\' => "backslash",
        '|' => "bar",
        ';' => "semicolon",
        ':' => "colon",
        '\'' => "apostrophe",
        '"' => "quote",
        ',' => "comma",
        '.' => "period",
        '<' => "less",
        '>' => "greater",
        '/' => "slash",
        '?' => "question",
        '´' => "acute",
        '¨' => "diaeresis",
        '°' => "degree",
        '§' => "section",
        '²' => "squared",
        _ => return None,
    })
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
