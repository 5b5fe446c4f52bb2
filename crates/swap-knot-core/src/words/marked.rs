//! The same words with what the pads of a family print on their buttons.

use super::marks::Spoken;
use super::read::Message;
use super::{Family, Marks};
use super::{Pattern, Words};
use crate::input::{Input, PadButton};

/// Whose marks words have, if anybody's, and what they are without them.
#[derive(Clone, Debug)]
pub(super) struct Marked {
    marks: Marks,
    family: Option<String>,
    plain: Words,
}

impl Marked {
    /// Other words with the same marks.
    pub(super) fn on(&self, plain: &Words) -> Words {
        plain.with_marks(&self.marks, self.family.as_deref())
    }

    pub(super) const fn plain(&self) -> &Words {
        &self.plain
    }
}

impl Words {
    /// The forms of a name besides the one in which it stands alone, as Fluent files and marks call
    /// them: see [`Words::with_fluent`].
    pub const FORMS: [&str; 10] = [
        "short", "part", "subject", "object", "at", "with", "held", "moved", "board", "spoken",
    ];

    /// The same words, calling the inputs of a pad by what a family prints on them; by place where
    /// that is not known, or for no family.
    ///
    /// Everything that is told with these words follows: prompts, menus, cards, drawings. Asked for
    /// with the words that it answered before, it begins from those without marks.
    #[must_use]
    pub fn with_marks(&self, marks: &Marks, family: Option<&str>) -> Words {
        let plain = self.without_marks();
        let family = family.and_then(|name| marks.family(name)).map(Family::name);
        let mut messages = plain.0.messages.clone();
        let said = family.map(|family| marks.said(family, plain.language()));
        for (input, mark, name) in said.unwrap_or_default() {
            if let Some(message) = plain.marked(input, mark, name) {
                messages.insert(id_of(input), message);
            }
        }
        let texts = plain.0.texts.clone();
        let brackets = plain.0.brackets;
        let marked = Some(Marked {
            marks: marks.clone(),
            family: family.map(str::to_owned),
            plain: plain.clone(),
        });
        Words(std::sync::Arc::new(super::Data {
            language: plain.language().to_owned(),
            messages,
            texts,
            brackets,
            marked,
            names: Default::default(),
        }))
    }

    /// The same words, calling the inputs of a pad by place.
    pub fn without_marks(&self) -> &Words {
        match &self.0.marked {
            Some(marked) => &marked.plain,
            None => self,
        }
    }

    /// The family whose marks these words have, by name.
    pub fn family(&self) -> Option<&str> {
        self.0.marked.as_ref()?.family.as_deref()
    }

    /// The names of that family and of those that it is like, in order: whose pictures to look for.
    pub fn families(&self) -> impl Iterator<Item = &str> {
        let family = self.marks().zip(self.family());
        let line = family.map(|(marks, name)| marks.line(name).map(Family::name));
        line.into_iter().flatten()
    }

    /// What that family prints on an input of a pad, where it is known.
    pub fn mark(&self, input: Input) -> Option<&str> {
        self.marks()?.mark(self.family()?, input)
    }

    /// The marks of all families, where the game has some.
    pub fn marks(&self) -> Option<&Marks> {
        self.0.marked.as_ref().map(|m| &m.marks)
    }

    /// What the player reads for a family; its name where the marks have none of that name.
    pub fn family_title<'a>(&'a self, name: &'a str) -> &'a str {
        let family = self.marks().and_then(|m| m.family(name));
        family.map_or(name, |f| f.title(self.language()))
    }

    /// The button of a pad that confirms, by the marks: [`PadButton::South`] where nothing is known.
    pub fn confirm(&self) -> PadButton {
        let said = self.marks().zip(self.family());
        said.map_or(PadButton::South, |(marks, name)| marks.confirm(name))
    }

    /// The message of an input of a family, where there is something to be read.
    fn marked(&self, input: Input, mark: Option<&str>, name: Option<&Spoken>) -> Option<Message> {
        let called = name.map(|n| n.name.as_str()).or(mark)?;
        // What is pressed bends as the language says it of buttons, what is pushed does not.
        let all = match input {
            Input::PadButton(_) => self.0.messages.get("pad-mark"),
            _ => None,
        };
        let filled = |pattern: &Pattern| {
            let value = |variable: &str| (variable == "mark").then_some(called.into());
            Pattern::from(pattern.fill(&value))
        };
        let as_it_is = |text: &str| {
            let mut pattern = Pattern::from(text.to_owned());
            if self.0.brackets {
                pattern.bracket();
            }
            pattern
        };
        let own = |form: &str| {
            let mut forms = name.iter().flat_map(|n| &n.forms);
            forms
                .find(|(f, _)| f == form)
                .map(|(_, text)| as_it_is(text))
        };
        let short = || mark.map(as_it_is);
        let form = |form: &'static str| {
            let own = own(form).or_else(|| (form == "short").then(short).flatten());
            let of_all = || all.and_then(|all| all.attribute(form)).map(filled);
            Some((form.to_owned(), own.or_else(of_all)?))
        };
        let attributes = Words::FORMS.into_iter().filter_map(form).collect();
        Some(Message::new(as_it_is(called), attributes))
    }
}

/// The message that names an input of a pad.
fn id_of(input: Input) -> String {
    input.to_string().replace(':', "-")
}
