//! The prompts in a folder of a game's Fluent files, checked against its sheet.

use std::error::Error;
use std::fs;
use std::path::Path;

use fluent_syntax::ast::{Entry, Expression, InlineExpression, Pattern, PatternElement};
use swap_knot::{Prompt, Sheet};

use crate::files;

/// The largest file of texts that is read, in bytes.
const MAX_BYTES: usize = 4 << 20;

/// A prompt that does not fit the sheet, or a file that is no Fluent.
pub(crate) struct Mistake {
    /// `file:line`.
    pub(crate) place: String,
    pub(crate) message: String,
}

/// Every mistake in the `.ftl` files below a folder, and how many prompts there are.
pub(crate) fn check(folder: &Path, sheet: &Sheet) -> Result<(Vec<Mistake>, usize), Box<dyn Error>> {
    let mut paths = Vec::new();
    collect(folder, &mut paths)?;
    paths.sort();
    if paths.is_empty() {
        return Err(format!(
            "{}: there are no .ftl files in this folder",
            folder.display()
        )
        .into());
    }
    let mut found = Found::default();
    for path in paths {
        let text = files::read(&path, MAX_BYTES)?;
        found.file(&path.display().to_string(), &text, sheet);
    }
    Ok((found.mistakes, found.prompts))
}

fn collect(folder: &Path, out: &mut Vec<std::path::PathBuf>) -> Result<(), Box<dyn Error>> {
    let wrong = |e: std::io::Error| format!("{}: {e}", folder.display());
    for entry in fs::read_dir(folder).map_err(wrong)? {
        let entry = entry.map_err(wrong)?;
        // Links are not followed: they could lead round in a circle.
        let kind = entry.file_type().map_err(wrong)?;
        let path = entry.path();
        if kind.is_dir() {
            collect(&path, out)?;
        } else if kind.is_file() && path.extension().is_some_and(|e| e == "ftl") {
            out.push(path);
        }
    }
    Ok(())
}

#[derive(Default)]
struct Found {
    mistakes: Vec<Mistake>,
    prompts: usize,
}

impl Found {
    fn file(&mut self, file: &str, text: &str, sheet: &Sheet) {
        let line_of = |at: usize| text[..at.min(text.len())].matches('\n').count() + 1;
        let resource = match fluent_syntax::parser::parse(text) {
            Ok(resource) => resource,
            Err((resource, errors)) => {
                for error in errors {
                    self.mistakes.push(Mistake {
                        place: format!("{file}:{}", line_of(error.pos.start)),
                        message: format!("not valid in a Fluent file: {}", error.kind),
                    });
                }
                resource
            }
        };
        for entry in &resource.body {
            let (id, value, attributes) = match entry {
                Entry::Message(m) => (m.id.name, m.value.as_ref(), &m.attributes),
                Entry::Term(t) => (t.id.name, Some(&t.value), &t.attributes),
                _ => continue,
            };
            // The parser keeps no places, but every name stands at the start of its line.
            let offset = id.as_ptr() as usize - text.as_ptr() as usize;
            let line = line_of(offset);
            let patterns = value.into_iter().chain(attributes.iter().map(|a| &a.value));
            for pattern in patterns {
                let mut texts = Vec::new();
                variants(pattern, &mut texts);
                for prompt in texts {
                    self.prompt(&prompt, id, &format!("{file}:{line}"), sheet);
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
