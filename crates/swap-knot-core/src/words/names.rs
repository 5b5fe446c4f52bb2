//! What inputs and chords are called, in each of the forms that a phrase may want.

use super::keys::letter_legend;
use super::{Part, Pattern, Words, signs};
use crate::input::{
    Chord, DeviceKind, Direction, HidAxis, HidInput, Input, Modifier, MouseButton, PadButton,
    Platform, Sign, Stick,
};
use crate::layout::{Layout, Resolver};
use crate::sheet::Arm;

/// Which form of a name is wanted: what its place in a phrase makes of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Form {
    /// It stands alone: "left mouse button".
    Name,
    /// It stands where there is little room: "LMB".
    Short,
    /// It is a part of a chord of keys: "Left Shift".
    Part,
    /// A sentence is about it.
    Subject,
    /// A verb does something to it: "the left mouse button".
    Object,
    /// It stands behind what the language says for "on", or in a further case.
    At,
    /// It stands behind what the language says for "with", or in a further case.
    With,
    /// It is held down; where the language has "held" agree with it, that is part of it.
    Held,
    /// It is moved in the hands: the gamepad, rather than its motion.
    Moved,
    /// It is written on a key of a drawn board, whose place says the rest.
    Board,
}

impl Form {
    /// Every form.
    pub(super) const ALL: [Form; 10] = [
        Form::Name,
        Form::Short,
        Form::Part,
        Form::Subject,
        Form::Object,
        Form::At,
        Form::With,
        Form::Held,
        Form::Moved,
        Form::Board,
    ];

    /// Whether it stands alone, rather than in a phrase.
    pub(super) const fn is_alone(self) -> bool {
        matches!(self, Form::Name | Form::Short | Form::Part | Form::Board)
    }

    /// Whether there is little room for it.
    pub(super) const fn is_short(self) -> bool {
        matches!(self, Form::Short | Form::Board)
    }

    /// The attributes that hold it, the fitting one first; without any of them it is the name.
    pub(super) const fn attributes(self) -> &'static [&'static str] {
        match self {
            Form::Name => &[],
            Form::Short => &["short"],
            Form::Part => &["part"],
            Form::Subject => &["subject", "object"],
            Form::Object => &["object"],
            Form::At => &["at", "object"],
            Form::With => &["with", "object"],
            Form::Held => &["held", "object"],
            Form::Moved => &["moved", "object"],
            Form::Board => &["board", "short"],
        }
    }

    /// The form that a variable of a phrase asks for.
    pub(crate) fn of_variable(name: &str) -> Option<Form> {
        Some(match name {
            "input" => Form::Object,
            "name" => Form::Name,
            "subject" => Form::Subject,
            "at" => Form::At,
            "with" => Form::With,
            "held" => Form::Held,
            _ => return None,
        })
    }
}

/// How a name is wanted.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Saying {
    pub(crate) form: Form,
    /// Whether a voice says it: signs go by their names.
    pub(crate) aloud: bool,
}

impl Saying {
    pub(crate) const fn written(form: Form) -> Saying {
        Saying { form, aloud: false }
    }

    pub(crate) const fn of(self, form: Form) -> Saying {
        Saying { form, ..self }
    }
}

/// Whose keyboard the names are read off.
#[derive(Clone, Copy)]
pub(crate) struct On<'a> {
    pub(crate) layout: &'a Layout,
    pub(crate) platform: Platform,
}

impl<'a> On<'a> {
    pub(crate) fn here(layout: &'a Layout) -> On<'a> {
        let platform = Platform::current();
        On { layout, platform }
    }
}

impl<'a> From<&'a Resolver> for On<'a> {
    fn from(on: &'a Resolver) -> On<'a> {
        let (layout, platform) = (on.layout(), on.platform());
        On { layout, platform }
    }
}

impl Words {
    /// What an input is called: the legend on the player's keyboard, or its name.
    pub fn input_name(&self, input: Input, layout: &Layout) -> String {
        self.name(input, On::here(layout), Saying::written(Form::Name))
    }

    /// What an input is called where there is little room: `LShift`.
    pub fn short_name(&self, input: Input, layout: &Layout) -> String {
        self.name(input, On::here(layout), Saying::written(Form::Short))
    }

    /// What stands on a key of a drawn board, where its place says that it is on the number pad.
    pub fn board_name(&self, input: Input, layout: &Layout) -> String {
        self.name(input, On::here(layout), Saying::written(Form::Board))
    }

    /// What a screen reader says for an input: `comma` rather than `,`.
    pub fn spoken_name(&self, input: Input, layout: &Layout) -> String {
        self.spoken_chord(&Chord::from(input), On::here(layout))
    }

    /// What a chord is called: its parts as the language joins them, as in "Ctrl+K".
    pub fn chord_name(&self, chord: &Chord, layout: &Layout) -> String {
        self.chord(chord, On::here(layout), Saying::written(Form::Name))
    }

    pub(crate) fn spoken_chord(&self, chord: &Chord, on: On<'_>) -> String {
        let aloud = Saying {
            form: Form::Name,
            aloud: true,
        };
        self.chord(chord, on, aloud)
    }

    /// A chord in the form that is wanted.
    ///
    /// Keys are joined as they are on a keyboard ("Ctrl+K"); where a button or a stick is among them,
    /// each part keeps its own form in a phrase ("the left shoulder and the left stick").
    pub(crate) fn chord(&self, chord: &Chord, on: On<'_>, saying: Saying) -> String {
        let tight = chord
            .inputs()
            .all(|i| i.device_kind() == DeviceKind::Keyboard);
        // A verb that is about two things would have to agree with them: they are one name then.
        let saying = match saying.form {
            Form::Subject if !tight && !chord.is_plain() => saying.of(Form::Name),
            _ => saying,
        };
        let in_phrase = !saying.form.is_alone();
        let last = chord.held().len();
        if last == 0 {
            return self.name(chord.input(), on, saying);
        }
        if tight {
            let part = saying.of(Form::Part);
            let keys: Vec<String> = chord.inputs().map(|i| self.name(i, on, part)).collect();
            // "Shift left + E", where the first plus would stand within a name.
            let id = match keys.iter().any(|key| key.contains([' ', '\u{a0}'])) {
                true => "chord-wide",
                false => "chord",
            };
            let keys = keys.into_iter();
            let keys = keys.reduce(|first, last| self.joined(id, part, &first, &last));
            let keys = keys.unwrap_or_default();
            // Several keys are one thing in a phrase.
            return match in_phrase {
                true => self.attribute_for("key-row", saying, &[("keys", &keys)]),
                false => keys,
            };
        }
        let id = if in_phrase { "chord-and" } else { "chord-wide" };
        let parts = chord.inputs().enumerate().map(|(n, input)| {
            let saying = self.in_row(id, saying, n == 0, n == last);
            self.name(input, on, saying)
        });
        let join = |first: String, last: String| self.joined(id, saying, &first, &last);
        parts.reduce(join).unwrap_or_default()
    }

    /// A chord in a form, written and spoken.
    pub(crate) fn written_and_spoken(&self, chord: &Chord, on: On<'_>, form: Form) -> [String; 2] {
        let written = self.chord(chord, on, Saying::written(form));
        // A plain letter is said as it is written, which spares most prompts the second half.
        let same = chord.is_plain()
            && match chord.input() {
                Input::Key(place) => on.layout.is_letter(place),
                _ => false,
            };
        let spoken = match same {
            true => written.clone(),
            false => self.chord(chord, on, Saying { form, aloud: true }),
        };
        [written, spoken]
    }

    fn joined(&self, id: &str, saying: Saying, first: &str, last: &str) -> String {
        self.attribute_for(id, saying, &[("first", first), ("last", last)])
    }

    /// How one of several inputs is said that a message joins: by its name alone before the last one
    /// where that message has the wanted form, since the form is of the whole then. Where it has not,
    /// what agrees with what is held stands with the first one alone.
    pub(crate) fn in_row(&self, joins: &str, saying: Saying, first: bool, last: bool) -> Saying {
        let message = self.0.messages.get(joins);
        let mut forms = saying.form.attributes().iter();
        let is_of_all = message.is_some_and(|m| forms.any(|a| m.attribute(a).is_some()));
        match (is_of_all, saying.form) {
            (true, _) if !last => saying.of(Form::Name),
            (false, Form::Held) if !first => saying.of(Form::Object),
            _ => saying,
        }
    }

    /// A name without variables, in a form.
    pub(crate) fn in_form(&self, id: &str, saying: Saying) -> String {
        self.attribute_for(id, saying, &[])
    }

    /// A message in a form, with its variables filled in.
    pub(super) fn attribute_for(
        &self,
        id: &str,
        saying: Saying,
        values: &[(&str, &str)],
    ) -> String {
        let Some(pattern) = self.pattern_for(id, saying) else {
            return id.to_owned();
        };
        self.joints(pattern.fill(&|name| {
            let mut all = values.iter();
            all.find(|(n, _)| *n == name).map(|(_, v)| (*v).into())
        }))
    }

    /// A message in a form, as parts.
    pub(crate) fn pattern_for(&self, id: &str, saying: Saying) -> Option<&Pattern> {
        let message = self.0.messages.get(id)?;
        let spoken = (saying.aloud)
            .then(|| message.attribute("spoken"))
            .flatten();
        let mut own = saying.form.attributes().iter();
        let own = own.find_map(|a| message.attribute(a));
        let alone = saying.form.is_alone();
        let pattern = if alone {
            spoken.or(own)
        } else {
            own.or(spoken)
        };
        Some(pattern.unwrap_or(&message.value))
    }

    pub(crate) fn name(&self, input: Input, on: On<'_>, saying: Saying) -> String {
        let table = &self.0.names[on.platform as usize];
        let table = table.get_or_init(|| super::table::table(self, on.platform));
        match table.get(&input) {
            Some(named) => named.get(saying).to_owned(),
            None => self.made(input, on, saying),
        }
    }

    /// A name, put together.
    pub(super) fn made(&self, input: Input, on: On<'_>, saying: Saying) -> String {
        let simple = |id: &str| self.attribute_for(id, saying, &[]);
        let numbered = |id: &str, number: &dyn std::fmt::Display| {
            self.attribute_for(id, saying, &[("number", &number.to_string())])
        };
        match input {
            Input::Key(place) => self.key(place, on, saying),
            Input::Letter(letter) => {
                self.printed(letter_legend(letter.char(), on.layout), None, saying)
            }
            Input::Modifier(Modifier::Main) => {
                let id = match on.platform {
                    Platform::Mac => "modifier-Meta",
                    Platform::Windows | Platform::Other => "modifier-Ctrl",
                };
                self.named_key(&self.on_platform(id.to_owned(), on.platform), saying)
            }
            Input::Modifier(modifier) => {
                let id = format!("modifier-{}", modifier.word());
                self.named_key(&self.on_platform(id, on.platform), saying)
            }
            Input::MouseButton(button) => match button {
                MouseButton::Left => simple("mouse-left"),
                MouseButton::Right => simple("mouse-right"),
                MouseButton::Middle => simple("mouse-middle"),
                MouseButton::Back => simple("mouse-back"),
                MouseButton::Forward => simple("mouse-forward"),
                MouseButton::Further(_) => numbered("mouse-button", &button.number()),
            },
            Input::MouseMove => simple("mouse-move"),
            Input::Wheel(direction) => self.aimed("wheel", direction, saying),
            Input::PadButton(button) => self.pad(button, saying),
            Input::PadStick(stick) => simple(stick_id(stick)),
            Input::PadGyro => simple("pad-gyro"),
            Input::PadStickHalf(stick, direction) => self.aimed(stick_id(stick), direction, saying),
            Input::Hid(HidInput::Button(button)) => numbered("hid-button", &button.number()),
            Input::Hid(HidInput::Hat(direction)) => self.aimed("hid-hat", direction, saying),
            Input::Hid(HidInput::Axis(axis)) => self.axis(axis, None, saying),
            Input::Hid(HidInput::Half(axis, sign)) => self.axis(axis, Some(sign), saying),
            Input::Touch(name) => {
                let own = format!("touch-{name}");
                let Some(message) = self.0.messages.get(&own) else {
                    let name = name.as_str().replace('-', " ");
                    return self.attribute_for("touch", saying, &[("name", &name)]);
                };
                let mut forms = saying.form.attributes().iter();
                // What the game gives no form of its own has that of every touch input.
                match forms.any(|form| message.attribute(form).is_some()) {
                    true => simple(&own),
                    false => {
                        let name = self.attribute_for(&own, saying.of(Form::Name), &[]);
                        self.attribute_for("touch", saying, &[("name", &name)])
                    }
                }
            }
        }
    }

    /// A direction of an action for little room: a sign, where the language has one.
    pub(crate) fn arm_sign(&self, arm: Arm) -> String {
        let id = match arm {
            Arm::Forward | Arm::Back => format!("arm-{arm}"),
            _ => format!("direction-{arm}"),
        };
        self.in_form(&id, Saying::written(Form::Short))
    }

    /// Something pushed or turned in a direction.
    fn aimed(&self, what: &str, direction: Direction, saying: Saying) -> String {
        let way = format!("direction-{}", direction.word());
        let what = self.attribute_for(what, saying, &[]);
        let way = self.attribute_for(&way, saying, &[]);
        self.attribute_for("aimed", saying, &[("what", &what), ("direction", &way)])
    }

    fn pad(&self, button: PadButton, saying: Saying) -> String {
        // A paddle has a name of its own where it has a mark.
        let own = format!("pad-{}", button.word());
        match button.word().strip_prefix("paddle-") {
            Some(number) if !self.0.messages.contains_key(&own) => {
                self.attribute_for("pad-paddle", saying, &[("number", number)])
            }
            _ => self.attribute_for(&own, saying, &[]),
        }
    }

    /// An axis, or one way of it: a thing of its own where it has a name (a pedal, a wheel), which goes
    /// ways that have words; else by its letters and a sign.
    fn axis(&self, axis: HidAxis, sign: Option<Sign>, saying: Saying) -> String {
        let own = format!("axis-{}", axis.word());
        if self.0.messages.contains_key(&own) {
            let what = self.attribute_for(&own, saying, &[]);
            let Some(sign) = sign else { return what };
            let way = self.fill(way(axis, sign), &[]);
            let values = [("what", &*what), ("direction", &way)];
            return self.attribute_for("hid-way", saying, &values);
        }
        let (id, sign) = match sign {
            None => ("hid-axis", ""),
            Some(Sign::Positive) => ("hid-half", "+"),
            Some(Sign::Negative) => ("hid-half", "−"),
        };
        let spoken = (sign.chars().next()).and_then(signs::id);
        let sign = match spoken.filter(|_| saying.aloud) {
            Some(id) => self.fill(&format!("sign-{id}"), &[]),
            None => sign.to_owned(),
        };
        let axis = axis.word().to_uppercase();
        self.attribute_for(id, saying, &[("axis", &axis), ("sign", &sign)])
    }

    /// The message of a key that is called otherwise on a platform, or the one of all of them.
    pub(super) fn on_platform(&self, id: String, platform: Platform) -> String {
        let own = format!("{}-{id}", platform.word());
        match self.0.messages.contains_key(&own) {
            true => own,
            false => id,
        }
    }

    /// A key or modifier by the message that names it, in a form of its own or of all keys.
    pub(super) fn named_key(&self, id: &str, saying: Saying) -> String {
        let Some(message) = self.0.messages.get(id) else {
            return id.to_owned();
        };
        if saying.form.is_short() {
            return self.attribute_for(id, saying, &[]);
        }
        let all = self.0.messages.get("key");
        for attribute in saying.form.attributes() {
            if let Some(own) = message.attribute(attribute) {
                return own.fill(&|_| None);
            }
            if all.is_some_and(|all| all.attribute(attribute).is_some()) {
                break;
            }
        }
        self.printed(self.fill(id, &[]), None, saying)
    }

    /// A key by what is printed on it: its legend, and the second one where it has two. Spoken,
    /// signs have names, and of two legends a voice of any language knows the second.
    pub(super) fn printed(&self, legend: String, second: Option<String>, saying: Saying) -> String {
        let key = match (second, saying.form, saying.aloud) {
            (Some(second), _, true) => second,
            (Some(second), form, false) if !form.is_short() => {
                self.fill("key-two", &[("first", &legend), ("second", &second)])
            }
            _ => legend,
        };
        let mut chars = key.chars();
        let sign = match (chars.next(), chars.next()) {
            (Some(sign), None) if saying.aloud => signs::id(sign),
            _ => None,
        };
        let key = match sign {
            Some(id) => self.fill(&format!("sign-{id}"), &[]),
            None => key,
        };
        // Most languages leave it as it is.
        match self.pattern_for("key", saying).map(Pattern::parts) {
            Some([Part::Variable(_)]) => key,
            _ => self.attribute_for("key", saying, &[("key", &key)]),
        }
    }
}

/// The word for where an axis goes that has a name: a wheel turns to a side, a lever is pushed forward.
const fn way(axis: HidAxis, sign: Sign) -> &'static str {
    let turns = matches!(axis, HidAxis::Dial | HidAxis::Rudder | HidAxis::Steering);
    match (turns, sign) {
        (true, Sign::Positive) => "arm-right",
        (true, Sign::Negative) => "arm-left",
        (false, Sign::Positive) => "arm-forward",
        (false, Sign::Negative) => "arm-back",
    }
}

const fn stick_id(stick: Stick) -> &'static str {
    match stick.0 {
        crate::input::Side::Left => "pad-stick-left",
        crate::input::Side::Right => "pad-stick-right",
    }
}
