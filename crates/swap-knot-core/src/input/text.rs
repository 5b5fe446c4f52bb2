//! The text of inputs and chords: written, read, and mended with the nearest valid word.

use std::fmt;
use std::ops::Range;
use std::str::FromStr;

use super::habit;
use super::{
    Chord, ChordError, Direction, HidAxis, HidButton, HidInput, Input, Letter, MAX_HELD, Modifier,
    MouseButton, PadButton, Place, Sign, Stick, TouchNameError,
};
use crate::text::nearest;

/// The longest text that can be an input or chord, in bytes.
const MAX_TEXT: usize = 200;

/// A text that is no input or chord: what is wrong, where in the text, and the nearest valid word.
#[derive(Clone, PartialEq, Eq)]
pub struct InputError {
    span: Range<usize>,
    kind: Kind,
    /// What is wrong with the parts of the chord after it.
    others: Vec<InputError>,
}

#[derive(Clone, Debug, PartialEq, Eq)]
enum Kind {
    Empty,
    TooLong,
    Unknown(String),
    MouseNumber,
    ButtonNumber,
    Letter,
    Touch(TouchNameError),
    Chord(ChordError),
    NotPlain,
    NoPlace,
}

impl InputError {
    /// Which bytes of the text are wrong.
    pub fn span(&self) -> Range<usize> {
        self.span.clone()
    }

    /// What may have been meant: the input that is called so from habit (`Esc`, `LMB`), several to
    /// choose from where a word means several (`up`), or else the nearest valid word. Looked for when
    /// it is asked for: of a thousand wrong texts in a file most are never told.
    pub fn suggestions(&self) -> Vec<String> {
        let Kind::Unknown(word) = &self.kind else {
            return Vec::new();
        };
        let meant = habit::meant(word);
        if !meant.is_empty() {
            return meant.iter().map(Input::to_string).collect();
        }
        // Two letters are near to everything; and a device that is written right is not to be mended.
        let split = word.split_once(':');
        let of_ours = split.filter(|(device, _)| ["mouse", "wheel", "pad", "hid"].contains(device));
        let (device, rest) = of_ours.unwrap_or(("", word));
        let words = vocabulary().filter_map(|w| match device {
            "" => Some(w),
            _ => Some(w.strip_prefix(device)?.strip_prefix(':')?.to_owned()),
        });
        let words: Vec<String> = words.collect();
        let near = (rest.chars().count() > 2)
            .then(|| nearest(rest, words.iter().map(String::as_str)))
            .flatten();
        let by_place = || -> Vec<String> {
            let all = habit::by_place(word);
            all.iter().map(Input::to_string).collect()
        };
        match near {
            Some(near) if device.is_empty() => match by_place() {
                all if all.is_empty() => vec![near.to_owned()],
                all => all,
            },
            Some(near) => vec![format!("{device}:{near}")],
            None => by_place(),
        }
    }

    /// The same with the other parts of the chord that are no inputs either: they are told together.
    fn with_rest(mut self, text: &str, rest: &[Range<usize>]) -> InputError {
        // No chord has more parts than that.
        let rest = rest.iter().take(MAX_HELD);
        let errors = rest.map(|span| read_input(text, span.clone()));
        self.others = errors.filter_map(Result::err).collect();
        self
    }

    /// An input that stands where a key by its place is wanted.
    pub(super) fn no_place(text: &str) -> InputError {
        InputError::new(0..text.len(), Kind::NoPlace)
    }

    fn new(span: Range<usize>, kind: Kind) -> Self {
        InputError {
            span,
            kind,
            others: Vec::new(),
        }
    }
}

impl fmt::Display for InputError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let mut is_asked = self.tell(f)?;
        for other in &self.others {
            // After a question a new sentence begins.
            f.write_str(if is_asked {
                " Besides, "
            } else {
                "; besides, "
            })?;
            is_asked = other.tell(f)?;
        }
        Ok(())
    }
}

impl InputError {
    /// What is wrong with its own part; whether that ends in a question.
    fn tell(&self, f: &mut fmt::Formatter<'_>) -> Result<bool, fmt::Error> {
        match &self.kind {
            Kind::Empty => f.write_str(
                "an input is missing; write one such as `KeyW`, `mouse:left` or `pad:south`",
            ),
            Kind::TooLong => write!(
                f,
                "longer than {MAX_TEXT} bytes, which no input or chord is"
            ),
            Kind::Unknown(word) => {
                write!(f, "`{word}` is not an input")?;
                let names = self.suggestions();
                let names: Vec<String> = names.iter().map(|n| format!("`{n}`")).collect();
                match &names[..] {
                    [] => f.write_str(
                        "; write one such as `KeyW`, `letter:i` or `pad:stick-left.up`; \
                         `swap-knot inputs` lists them",
                    ),
                    [only] => return write!(f, "; did you mean {only}?").map(|()| true),
                    [rest @ .., last] => {
                        let rest = rest.join(", ");
                        return write!(f, "; did you mean {rest} or {last}?").map(|()| true);
                    }
                }
            }
            Kind::MouseNumber => write!(
                f,
                "mouse buttons are left, right, middle, back, forward, or a number from 6 to {}",
                MouseButton::LAST
            ),
            Kind::ButtonNumber => write!(
                f,
                "buttons of other controllers are numbered from 1 to {}",
                HidButton::LAST
            ),
            Kind::Letter => f.write_str(
                "`letter:` wants exactly one character that a key types, as in `letter:i`",
            ),
            Kind::Touch(e) => write!(f, "{e}"),
            Kind::Chord(e) => write!(f, "{e}"),
            Kind::NoPlace => f.write_str("a key by its place is wanted here, as `KeyW` or `Space`"),
            Kind::NotPlain => f.write_str("a single input is wanted here, not a chord"),
        }
        .map(|()| false)
    }
}

crate::text::debug_as_text!(InputError);

impl std::error::Error for InputError {}

impl FromStr for Input {
    type Err = InputError;

    fn from_str(text: &str) -> Result<Self, Self::Err> {
        let parts = parts(text)?;
        match &parts[..] {
            [only] => read_input(text, only.clone()),
            _ => Err(InputError::new(0..text.len(), Kind::NotPlain)),
        }
    }
}

impl FromStr for Chord {
    type Err = InputError;

    fn from_str(text: &str) -> Result<Self, Self::Err> {
        let mut inputs = Vec::new();
        let mut places = Vec::new();
        let all = parts(text)?;
        for (n, span) in all.iter().enumerate() {
            let input = read_input(text, span.clone());
            inputs.push(input.map_err(|error| error.with_rest(text, &all[n + 1..]))?);
            places.push(span.clone());
        }
        let Some(last) = inputs.pop() else {
            return Err(InputError::new(0..text.len(), Kind::Empty));
        };
        let all = inputs.clone();
        Chord::new(inputs, last).map_err(|e| {
            let culprit = match e {
                ChordError::NotHoldable(i) | ChordError::Twice(i) => {
                    all.iter().position(|&o| o == i)
                }
                ChordError::TooLong => None,
            };
            let span = culprit.map_or(0..text.len(), |i| places[i].clone());
            InputError::new(span, Kind::Chord(e))
        })
    }
}

/// Where the parts between the `+` of a chord are.
///
/// A `+` directly behind an axis of `hid:` is its sign (`hid:rz+`), unless that axis is followed by
/// another part; so `hid:rz+` has one part and `hid:rz++KeyK` has two.
fn parts(text: &str) -> Result<Vec<Range<usize>>, InputError> {
    if text.trim().is_empty() {
        return Err(InputError::new(0..text.len(), Kind::Empty));
    }
    if text.len() > MAX_TEXT {
        return Err(InputError::new(0..text.len(), Kind::TooLong));
    }
    let mut out = Vec::new();
    let mut start = 0;
    let bytes = text.as_bytes();
    let mut i = 0;
    while i < bytes.len() {
        if bytes[i] == b'+' {
            let part = &text[start..i];
            let is_letter_plus = part.trim_start() == "letter:";
            let is_sign = part.trim_start().starts_with("hid:")
                && matches!(bytes.get(i + 1), None | Some(b'+'));
            if is_letter_plus || is_sign {
                i += 1;
                if i == bytes.len() {
                    break;
                }
            }
            if bytes[i] == b'+' {
                out.push(trimmed(text, start..i));
                start = i + 1;
            }
        }
        i += 1;
    }
    out.push(trimmed(text, start..bytes.len()));
    match out.iter().find(|s| s.is_empty()) {
        Some(empty) => Err(InputError::new(empty.clone(), Kind::Empty)),
        None => Ok(out),
    }
}

fn trimmed(text: &str, span: Range<usize>) -> Range<usize> {
    let part = &text[span.clone()];
    let start = span.start + (part.len() - part.trim_start().len());
    start..start + part.trim().len()
}

fn read_input(text: &str, span: Range<usize>) -> Result<Input, InputError> {
    let word = &text[span.clone()];
    let wrong = |kind| InputError::new(span.clone(), kind);
    if let Some(name) = word.strip_prefix("touch:") {
        return name
            .parse()
            .map(Input::Touch)
            .map_err(|e| wrong(Kind::Touch(e)));
    }
    if let Some(letter) = word.strip_prefix("letter:") {
        return read_letter(letter).ok_or_else(|| wrong(Kind::Letter));
    }
    if let Some(number) = word.strip_prefix("mouse:").and_then(number) {
        let button = u8::try_from(number).ok().filter(|&n| n >= 6);
        return button
            .and_then(MouseButton::from_number)
            .map(Input::MouseButton)
            .ok_or_else(|| wrong(Kind::MouseNumber));
    }
    if let Some(text) = word.strip_prefix("hid:button-") {
        let button = number(text).and_then(|n| HidButton::new(u8::try_from(n).ok()?));
        return match button {
            Some(button) => Ok(Input::Hid(HidInput::Button(button))),
            None => Err(wrong(Kind::ButtonNumber)),
        };
    }
    known(word).ok_or_else(|| wrong(Kind::Unknown(word.to_owned())))
}

/// A plain decimal number without sign or leading zero, so that each button has one text only.
fn number(text: &str) -> Option<u32> {
    let plain = text.bytes().all(|b| b.is_ascii_digit()) && !text.starts_with('0');
    plain.then(|| text.parse().ok()).flatten()
}

fn read_letter(text: &str) -> Option<Input> {
    let mut chars = text.chars();
    let letter = Letter::new(chars.next()?)?;
    chars.next().is_none().then_some(Input::Letter(letter))
}

fn known(word: &str) -> Option<Input> {
    if let Some((device, rest)) = word.split_once(':') {
        return match device {
            "mouse" if rest == "move" => Some(Input::MouseMove),
            "mouse" => (MouseButton::NAMED.into_iter())
                .find(|b| b.word() == Some(rest))
                .map(Input::MouseButton),
            "wheel" => direction(rest).map(Input::Wheel),
            "pad" => known_pad(rest),
            "hid" => known_hid(rest),
            _ => None,
        };
    }
    if let Some(m) = Modifier::from_word(word) {
        return Some(Input::Modifier(m));
    }
    Place::named(word).map(Input::Key)
}

fn direction(word: &str) -> Option<Direction> {
    Direction::from_word(word)
}

fn known_pad(word: &str) -> Option<Input> {
    if word == "gyro" {
        return Some(Input::PadGyro);
    }
    if let Some(&button) = PadButton::ALL.iter().find(|b| b.word() == word) {
        return Some(Input::PadButton(button));
    }
    let (stick, half) = match word.split_once('.') {
        Some((stick, half)) => (stick, Some(direction(half)?)),
        None => (word, None),
    };
    let stick = Stick::ALL.into_iter().find(|s| s.word() == stick)?;
    Some(match half {
        Some(half) => Input::PadStickHalf(stick, half),
        None => Input::PadStick(stick),
    })
}

fn known_hid(word: &str) -> Option<Input> {
    if let Some(hat) = word.strip_prefix("hat-") {
        return direction(hat).map(|d| Input::Hid(HidInput::Hat(d)));
    }
    let axis = |w: &str| HidAxis::ALL.iter().copied().find(|a| a.word() == w);
    let half = |w: &str, sign| axis(w).map(|a| HidInput::Half(a, sign));
    let hid = match (word.strip_suffix('+'), word.strip_suffix('-')) {
        (Some(w), _) => half(w, Sign::Positive),
        (_, Some(w)) => half(w, Sign::Negative),
        _ => axis(word).map(HidInput::Axis),
    };
    hid.map(Input::Hid)
}

/// Every fixed word there is, to find the nearest one to a mistake.
fn vocabulary() -> impl Iterator<Item = String> {
    Input::all_named().map(|i| i.to_string())
}

impl fmt::Display for Input {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Input::Modifier(m) => f.write_str(m.word()),
            Input::Key(place) => place.fmt(f),
            Input::Letter(c) => write!(f, "letter:{c}"),
            Input::MouseButton(b) => match b.word() {
                Some(word) => write!(f, "mouse:{word}"),
                None => write!(f, "mouse:{}", b.number()),
            },
            Input::MouseMove => f.write_str("mouse:move"),
            Input::PadGyro => f.write_str("pad:gyro"),
            Input::Wheel(d) => write!(f, "wheel:{}", d.word()),
            Input::PadButton(b) => write!(f, "pad:{}", b.word()),
            Input::PadStick(s) => write!(f, "pad:{}", s.word()),
            Input::PadStickHalf(s, d) => write!(f, "pad:{}.{}", s.word(), d.word()),
            Input::Hid(h) => match h {
                HidInput::Button(n) => write!(f, "hid:button-{}", n.number()),
                HidInput::Hat(d) => write!(f, "hid:hat-{}", d.word()),
                HidInput::Axis(a) => write!(f, "hid:{}", a.word()),
                HidInput::Half(a, Sign::Positive) => write!(f, "hid:{}+", a.word()),
                HidInput::Half(a, Sign::Negative) => write!(f, "hid:{}-", a.word()),
            },
            Input::Touch(name) => write!(f, "touch:{name}"),
        }
    }
}

impl fmt::Display for Chord {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        for held in self.held() {
            write!(f, "{held}+")?;
        }
        self.input().fmt(f)
    }
}
