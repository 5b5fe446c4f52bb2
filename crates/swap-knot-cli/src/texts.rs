//! A game's Fluent files, checked against its sheet: prompts, titles, and what a language lacks.

use std::collections::{BTreeMap, BTreeSet, HashMap};
use std::error::Error;
use std::path::Path;

use fluent_syntax::ast::{Entry, Expression, InlineExpression, Pattern, PatternElement};
use swap_knot::prompt::GameTitle;
use swap_knot::{Prompt, Sheet, Words};

use crate::words::{TextFile, files_in};

/// A text that does not fit the sheet, or a file that is no Fluent.
pub(crate) struct Mistake {
    /// `file:line`.
    pub(crate) place: String,
    pub(crate) message: String,
}

/// What was found in the Fluent files of a folder.
#[derive(Default)]
pub(crate) struct Checked {
    pub(crate) mistakes: Vec<Mistake>,
    pub(crate) prompts: usize,
    pub(crate) languages: Vec<Language>,
}

/// One language, compared with the others and with the sheet.
pub(crate) struct Language {
    pub(crate) tag: String,
    /// How many titles it has.
    pub(crate) titles: usize,
    /// Titles that the sheet has and it has not: the message, and what the player reads instead.
    pub(crate) lacks: Vec<(String, String)>,
    /// Other messages that some language has and it has not.
    pub(crate) lacks_prompts: Vec<String>,
    /// Titles that it leaves as they are in the sheet.
    pub(crate) same: Vec<(String, String)>,
}

/// What a file has under one id.
struct Entered {
    place: String,
    /// The text, where it is one without variables.
    text: Option<String>,
}

/// Checks the `.ftl` files below a folder.
pub(crate) fn check(folder: &Path, sheet: &Sheet) -> Result<Checked, Box<dyn Error>> {
    let mut found = Checked::default();
    let mut by_language: BTreeMap<String, BTreeMap<String, Entered>> = BTreeMap::new();
    for file in files_in(folder)? {
        let own = by_language.entry(file.language.clone()).or_default();
        found.file(&file, sheet, own);
    }
    let titles = GameTitle::all(sheet);
    let known: HashMap<&str, &GameTitle> = titles.iter().map(|t| (t.id.as_str(), t)).collect();
    let prompts: BTreeSet<&str> = (by_language.values())
        .flat_map(BTreeMap::keys)
        .map(String::as_str)
        .filter(|id| !Words::takes(id))
        .collect();
    for (tag, own) in &by_language {
        for (id, entered) in own.iter().filter(|(id, _)| GameTitle::is_id(id)) {
            if !known.contains_key(id.as_str()) && !was_there(sheet, id) {
                found.mistakes.push(Mistake {
                    place: entered.place.clone(),
                    message: nothing_of_that_name(id, &titles),
                });
            }
        }
        let has = own
            .keys()
            .filter(|id| known.contains_key(id.as_str()))
            .count();
        let missing = titles
            .iter()
            .filter(|t| !t.is_made && !own.contains_key(&t.id));
        let pair = |t: &GameTitle| (t.id.clone(), t.text.clone());
        let same = titles.iter().filter(|t| {
            let text = own.get(&t.id).and_then(|e| e.text.as_ref());
            text == Some(&t.text)
        });
        let mut same: Vec<_> = same.map(pair).collect();
        // Where all of them are the sheet's, that is the language of the sheet.
        if same.len() == has {
            same.clear();
        }
        let others = prompts.iter().filter(|id| !own.contains_key(**id));
        found.languages.push(Language {
            tag: tag.clone(),
            titles: has,
            lacks: if has == 0 {
                Vec::new()
            } else {
                missing.map(pair).collect()
            },
            lacks_prompts: others.map(|id| (*id).to_owned()).collect(),
            same,
        });
    }
    Ok(found)
}

/// Whether a title is of an action that the sheet had once: players are told of it by its name.
fn was_there(sheet: &Sheet, id: &str) -> bool {
    let name = id.strip_prefix("action-");
    name.is_some_and(|name| sheet.is_removed(name) || sheet.renamed(name).is_some())
}

fn nothing_of_that_name(id: &str, titles: &[GameTitle]) -> String {
    let near = GameTitle::nearest(titles, id);
    let near = near.map_or_else(String::new, |t| format!("; did you mean `{}`?", t.id));
    format!("`{id}` names nothing in the sheet{near}")
}

impl Checked {
    /// How many problems there are.
    pub(crate) fn problems(&self) -> usize {
        let lacking =
            |l: &Language| usize::from(!(l.lacks.is_empty() && l.lacks_prompts.is_empty()));
        self.mistakes.len() + self.languages.iter().map(lacking).sum::<usize>()
    }

    fn file(&mut self, file: &TextFile, sheet: &Sheet, own: &mut BTreeMap<String, Entered>) {
        let (name, text) = (&file.name, &file.text);
        let line_of = |at: usize| text[..at.min(text.len())].matches('\n').count() + 1;
        let resource = match fluent_syntax::parser::parse(text.as_str()) {
            Ok(resource) => resource,
            Err((resource, errors)) => {
                for error in errors {
                    self.mistakes.push(Mistake {
                        place: format!("{name}:{}", line_of(error.pos.start)),
                        message: format!("not valid in a Fluent file: {}", error.kind),
                    });
                }
                resource
            }
        };
        if let Err(error) = Words::english().with_texts(text, name) {
            let mistakes = error.mistakes().iter();
            // What is no Fluent was told above.
            let told = |m: &&swap_knot::prompt::WordsMistake| !m.message.starts_with("not valid");
            self.mistakes.extend(mistakes.filter(told).map(|m| Mistake {
                place: format!("{name}:{}", m.line),
                message: m.message.clone(),
            }));
        }
        for entry in &resource.body {
            let (id, value, attributes) = match entry {
                Entry::Message(m) => (m.id.name, m.value.as_ref(), &m.attributes),
                Entry::Term(t) => (t.id.name, Some(&t.value), &t.attributes),
                _ => continue,
            };
            // The parser keeps no places, but every name stands at the start of its line.
            let offset = id.as_ptr() as usize - text.as_ptr() as usize;
            let place = format!("{name}:{}", line_of(offset));
            let is_message = matches!(entry, Entry::Message(_));
            if is_message {
                let text = value.and_then(plain);
                let place = place.clone();
                own.insert(id.to_owned(), Entered { place, text });
            }
            if is_message && Words::takes(id) {
                continue;
            }
            let patterns = value.into_iter().chain(attributes.iter().map(|a| &a.value));
            for pattern in patterns {
                let mut texts = Vec::new();
                variants(pattern, &mut texts);
                for prompt in texts {
                    self.prompt(&prompt, id, &place, sheet);
                }
            }
        }
    }

    fn prompt(&mut self, prompt: &str, id: &str, place: &str, sheet: &Sheet) {
        if !prompt.contains(['{', '}']) {
            return;
        }
        self.prompts += 1;
        if let Err(e) = Prompt::new(prompt, sheet) {
            self.mistakes.push(Mistake {
                place: place.to_owned(),
                message: format!("`{id}`: {}", e.message()),
            });
        }
    }
}

/// A text without anything to fill in.
fn plain(pattern: &Pattern<&str>) -> Option<String> {
    let texts = pattern.elements.iter().map(|element| match element {
        PatternElement::TextElement { value } => Some(*value),
        PatternElement::Placeable { .. } => None,
    });
    texts.collect()
}

/// The texts that a pattern can come to, as far as prompts are concerned: braces are written as
/// `{"{cast-off}"}`, and what variables hold is not known here.
fn variants(pattern: &Pattern<&str>, out: &mut Vec<String>) {
    let mut text = String::new();
    for element in &pattern.elements {
        match element {
            PatternElement::TextElement { value } => text.push_str(value),
            PatternElement::Placeable { expression } => match expression {
                Expression::Inline(InlineExpression::StringLiteral { value }) => {
                    text.push_str(&fluent_syntax::unicode::unescape_unicode_to_string(value));
                }
                Expression::Inline(_) => text.push('…'),
                Expression::Select { variants: all, .. } => {
                    for variant in all {
                        variants(&variant.value, out);
                    }
                }
            },
        }
    }
    out.push(text);
}
