//! Reading `marks.toml`: every mistake at once, each with its place.

use std::collections::BTreeMap;
use std::fmt;

use toml::Spanned;
use toml::de::{DeTable, DeValue};

use super::{Family, Mark, Marks, Said, Spoken};
use crate::input::{Input, PadButton, UsbFilter};
use crate::text::{Fields, Mistake, Report, is_name, wrong_type};
use crate::words::Words;

/// The newest version of the file format that is read.
const FORMAT: u32 = 1;

/// A file of marks that cannot be used: every mistake in it, in the order of the file.
#[derive(Clone, PartialEq, Eq)]
pub struct MarksError {
    mistakes: Vec<Mistake>,
}

impl MarksError {
    /// Every mistake, in the order of the file.
    pub fn mistakes(&self) -> &[Mistake] {
        &self.mistakes
    }
}

impl fmt::Display for MarksError {
    /// One line a mistake: `file:line:column: message`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        crate::text::write_lines(f, &self.mistakes)
    }
}

crate::text::debug_as_text!(MarksError);

impl std::error::Error for MarksError {}

pub(super) fn read(text: &str, file: &str) -> Result<Vec<Family>, MarksError> {
    let mut report = Report::new();
    report.add_file(Some(file), text);
    let mut families = Vec::new();
    if text.len() > Marks::MAX_BYTES {
        let most = Marks::MAX_BYTES;
        report.add(0, format!("a file of marks has at most {most} bytes"));
    } else {
        match DeTable::parse(text) {
            Ok(table) => families = read_table(table.get_ref(), &mut report),
            Err(e) => report.add(e.span().map_or(0, |s| s.start), e.message()),
        }
    }
    let mistakes = report.finish();
    match mistakes.is_empty() {
        true => Ok(families),
        false => Err(MarksError { mistakes }),
    }
}

fn read_table(table: &DeTable<'_>, report: &mut Report<'_>) -> Vec<Family> {
    let mut top = Fields::new(table, 0);
    match top.integer("format", 1..=u32::MAX, report) {
        Some(newer) if newer > FORMAT => report.add(
            0,
            format!("written in format {newer}, and this version reads {FORMAT}; update it"),
        ),
        None if !top.has("format") => {
            report.add(0, format!("the line `format = {FORMAT}` is missing"));
        }
        _ => {}
    }
    let mut families = Vec::new();
    let all = top.value("families");
    if let Some(all) = all.and_then(|all| Fields::of(all, "`families`", report)) {
        for (name, span, value) in all.entries() {
            if families.len() == Marks::MAX_FAMILIES {
                let most = Marks::MAX_FAMILIES;
                report.add(span.start, format!("there can be at most {most} families"));
                break;
            }
            if !is_name(name) {
                let rule = "a lower-case letter, then lower-case letters, digits and hyphens";
                report.add(
                    span.start,
                    format!("`{name}` cannot name a family; write {rule}"),
                );
            }
            if let Some(fields) = Fields::of(value, "a family", report) {
                let at = report.line_and_column(span.start);
                families.push(read_family(name, at, fields, report));
            }
        }
    }
    top.finish("a file of marks", report);
    check_likes(table, &families, report);
    families
}

fn read_family(
    name: &str,
    at: (usize, usize),
    mut fields: Fields<'_, '_>,
    report: &mut Report<'_>,
) -> Family {
    let mut usb = Vec::new();
    for (text, at) in fields.texts("usb", report) {
        match text.parse::<UsbFilter>() {
            Ok(filter) => usb.push(filter),
            Err(e) => report.add(at, e),
        }
    }
    let title = fields.value("title");
    let title = title.map_or(Said::default(), |v| said("`title`", v, report));
    let confirms = [PadButton::South, PadButton::East];
    let word = |b: PadButton| match b {
        PadButton::East => "pad:east",
        _ => "pad:south",
    };
    let confirm = fields.word("confirm", &confirms, word, report);
    let like = fields.string("like", report).map(str::to_owned);
    let mut marks = BTreeMap::new();
    let all = fields.value("marks");
    if let Some(all) = all.and_then(|all| Fields::of(all, "`marks`", report)) {
        for (input, span, value) in all.entries() {
            let place = report.line_and_column(span.start);
            let mark = read_mark(place, value, report);
            match input.parse::<Input>() {
                Ok(input @ (Input::PadButton(_) | Input::PadStick(_))) => {
                    marks.insert(input, mark);
                }
                Ok(Input::PadStickHalf(stick, _)) => report.add(
                    span.start,
                    format!(
                        "`{input}` goes by the mark of its stick; write `pad:{}`",
                        stick.word()
                    ),
                ),
                Ok(_) => report.add(
                    span.start,
                    format!("`{input}` is not on a pad; marks are for inputs such as `pad:south`"),
                ),
                Err(e) => report.add(span.start + e.span().start, e),
            }
        }
    }
    fields.finish("a family", report);
    Family {
        name: name.to_owned(),
        at,
        title,
        usb,
        confirm,
        like,
        marks,
    }
}

fn read_mark(at: (usize, usize), value: &Spanned<DeValue<'_>>, report: &mut Report<'_>) -> Mark {
    let mut mark = Mark {
        at,
        mark: None,
        name: Said::default(),
        picture: None,
    };
    if let Some(text) = value.get_ref().as_str() {
        mark.mark = printed(text, report.inside(value), report);
        return mark;
    }
    if value.get_ref().as_table().is_none() {
        wrong_type("a mark", "a text in quotes or a table", value, report);
        return mark;
    }
    let Some(mut fields) = Fields::of(value, "a mark", report) else {
        return mark;
    };
    let place = fields.value("mark").map(|v| report.inside(v));
    if let Some(text) = fields.string("mark", report) {
        mark.mark = printed(text, place.unwrap_or(fields.at), report);
    }
    let name = fields.value("name");
    mark.name = name.map_or(Said::default(), |v| said("`name`", v, report));
    mark.picture = fields.string("picture", report).map(str::to_owned);
    if mark.mark.is_none() && name.is_none() && mark.picture.is_none() && !fields.has("mark") {
        report.add(
            fields.at,
            "a mark says at least one of `mark`, `name` and `picture`",
        );
    }
    fields.finish("a mark", report);
    mark
}

/// What is printed, if it can be shown.
fn printed(text: &str, at: usize, report: &mut Report<'_>) -> Option<String> {
    let most = Marks::MAX_MARK;
    let wrong = match text {
        text if text.trim().is_empty() => "a mark has something to be seen",
        text if text.chars().any(char::is_control) => "a mark has no control characters",
        text if text.chars().count() > most => {
            report.add(
                at,
                format!("`{text}` does not fit on a button; at most {most} characters do"),
            );
            return None;
        }
        text => return Some(text.to_owned()),
    };
    report.add(at, wrong);
    None
}

/// A text in one or several languages.
fn said(what: &str, value: &Spanned<DeValue<'_>>, report: &mut Report<'_>) -> Said {
    if let Some(text) = value.get_ref().as_str() {
        return Said {
            everywhere: plain(text, report.inside(value), report),
            by_language: BTreeMap::new(),
        };
    }
    let wanted = "a text in quotes, or one for each language";
    let Some(table) = value.get_ref().as_table() else {
        wrong_type(what, wanted, value, report);
        return Said::default();
    };
    let mut by_language = BTreeMap::new();
    for (language, value) in table {
        let text = match (value.get_ref().as_str(), value.get_ref().as_table()) {
            (Some(text), _) => plain(text, report.inside(value), report),
            (None, Some(_)) => spoken(value, report),
            (None, None) => {
                let what = format!("`{}`", language.get_ref());
                wrong_type(
                    &what,
                    "a text in quotes, or a table of its forms",
                    value,
                    report,
                );
                None
            }
        };
        if let Some(text) = text {
            by_language.insert(language.get_ref().to_string(), text);
        }
    }
    Said {
        everywhere: None,
        by_language,
    }
}

/// A text without forms, if there is something to be read.
fn plain(text: &str, at: usize, report: &mut Report<'_>) -> Option<Spoken> {
    if text.trim().is_empty() {
        report.add(at, "a name has something to be read");
        return None;
    }
    Some(Spoken {
        name: text.to_owned(),
        forms: Vec::new(),
    })
}

/// A text with its forms.
fn spoken(value: &Spanned<DeValue<'_>>, report: &mut Report<'_>) -> Option<Spoken> {
    let mut fields = Fields::of(value, "a name", report)?;
    let name = fields.string("name", report).map(str::to_owned);
    if name.is_none() && !fields.has("name") {
        report.add(
            fields.at,
            "a name with forms has the one in which it stands alone: `name = \"…\"`",
        );
    }
    let mut forms = Vec::new();
    for form in Words::FORMS {
        if let Some(text) = fields.string(form, report) {
            forms.push((form.to_owned(), text.to_owned()));
        }
    }
    let at = fields.at;
    fields.finish("a name with forms", report);
    let name = plain(&name?, at, report)?.name;
    Some(Spoken { name, forms })
}

/// Whether what a family is like is there, and leads to an end.
fn check_likes(table: &DeTable<'_>, families: &[Family], report: &mut Report<'_>) {
    let find = |name: &str| families.iter().find(|f| f.name == name);
    for family in families {
        let Some(like) = &family.like else { continue };
        let at = like_at(table, &family.name).map_or(0, |value| report.inside(value));
        if find(like).is_none() {
            let known = families.iter().map(|f| f.name.as_str());
            report.add_no_such(at, "family", like, || known.clone());
            continue;
        }
        let mut next = family;
        for _ in 0..=families.len() {
            match next.like.as_deref().and_then(find) {
                Some(further) if further.name == family.name => {
                    let name = &family.name;
                    report.add(at, format!("`{name}` would be like itself; families are like others in one direction"));
                    break;
                }
                Some(further) => next = further,
                None => break,
            }
        }
    }
}

fn like_at<'t, 'i>(table: &'t DeTable<'i>, family: &str) -> Option<&'t Spanned<DeValue<'i>>> {
    let families = table.get("families")?.get_ref().as_table()?;
    families.get(family)?.get_ref().as_table()?.get("like")
}
