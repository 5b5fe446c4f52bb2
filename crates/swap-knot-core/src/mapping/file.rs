//! The file of what was taught of controllers: every mistake at once, each with its place.

use std::fmt::{self, Write as _};

use toml::Spanned;
use toml::de::{DeTable, DeValue};

use super::{Mapping, Mappings, PadSource, Taught, UNKNOWN};
use crate::input::{HidInput, Input, Sign};
use crate::text::{Fields, Mistake, Report, integer, wrong_type};

/// The newest version of the file format that is read.
const FORMAT: u32 = 1;

/// A file of what was taught of controllers that cannot be used: every mistake in it, in the order of
/// the file.
#[derive(Clone, PartialEq, Eq)]
pub struct MappingsError {
    mistakes: Vec<Mistake>,
    newer: bool,
}

impl MappingsError {
    /// Every mistake, in the order of the file.
    pub fn mistakes(&self) -> &[Mistake] {
        &self.mistakes
    }

    /// Whether a newer version wrote it.
    pub const fn is_newer(&self) -> bool {
        self.newer
    }
}

impl fmt::Display for MappingsError {
    /// One line a mistake: `file:line:column: message`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        crate::text::write_lines(f, &self.mistakes)
    }
}

crate::text::debug_as_text!(MappingsError);

impl std::error::Error for MappingsError {}

impl Mappings {
    /// Reads the file. Its name is for mistakes.
    ///
    /// # Errors
    /// Every mistake at once, each with its place and what to write instead.
    pub fn from_toml(text: &str, file: &str) -> Result<Mappings, MappingsError> {
        let mut report = Report::new();
        report.add_file(Some(file), text);
        let mut newer = false;
        let mut mappings = Mappings::new();
        if text.len() > Mappings::MAX_BYTES {
            let most = Mappings::MAX_BYTES;
            report.add(0, format!("a file of mappings has at most {most} bytes"));
        } else {
            match DeTable::parse(text) {
                Ok(table) => mappings = read_table(table.get_ref(), &mut newer, &mut report),
                Err(e) => report.add(e.span().map_or(0, |s| s.start), e.message()),
            }
        }
        let mistakes = report.finish();
        match mistakes.is_empty() {
            true => Ok(mappings),
            false => Err(MappingsError { mistakes, newer }),
        }
    }

    /// The text of the file, which reads back as the same.
    pub fn to_toml(&self) -> String {
        let mut out = format!("format = {FORMAT}\n");
        for (kind, taught) in self.kinds() {
            let _ = writeln!(out, "\n[controllers.{}]", key(&Mappings::kind_name(kind)));
            match taught {
                Taught::NoPad => out.push_str("gamepad = false\n"),
                Taught::Pad(mapping) => write(mapping, &mut out),
            }
        }
        out
    }
}

/// A key of a table, in quotes where it has to be.
fn key(name: &str) -> String {
    match name == UNKNOWN {
        true => name.to_owned(),
        false => format!("\"{name}\""),
    }
}

fn write(mapping: &Mapping, out: &mut String) {
    for (part, source) in mapping.parts() {
        let input = Input::Hid(source.input());
        let _ = match source {
            PadSource::Whole(_, Sign::Negative) => {
                writeln!(out, "\"{part}\" = {{ input = \"{input}\", rests = 1 }}")
            }
            _ => writeln!(out, "\"{part}\" = \"{input}\""),
        };
    }
    let silent = mapping
        .silent()
        .map(|input| format!("\"{}\"", Input::Hid(input)));
    let silent: Vec<String> = silent.collect();
    if !silent.is_empty() {
        let _ = writeln!(out, "silent = [{}]", silent.join(", "));
    }
}

fn read_table(table: &DeTable<'_>, newer: &mut bool, report: &mut Report<'_>) -> Mappings {
    let mut mappings = Mappings::new();
    let mut top = Fields::new(table, 0);
    match top.integer("format", 1..=u32::MAX, report) {
        Some(found) if found > FORMAT => {
            *newer = true;
            let why =
                format!("written in format {found}, and this version reads {FORMAT}; update it");
            report.add(0, why);
            return mappings;
        }
        None if !top.has("format") => {
            report.add(0, format!("the line `format = {FORMAT}` is missing"));
        }
        _ => {}
    }
    let all = top.value("controllers");
    if let Some(all) = all.and_then(|all| Fields::of(all, "`controllers`", report)) {
        for (name, span, value) in all.entries() {
            let kind = Mappings::kind_named(name);
            let kind = kind.map_err(|e| report.add(span.start, e)).ok();
            let taught = Fields::of(value, "a controller", report);
            let taught = taught.map(|fields| read_taught(fields, report));
            if let (Some(kind), Some(taught)) = (kind, taught)
                && mappings.0.insert(kind, taught).is_some()
            {
                report.add(span.start, format!("`{name}` is there twice"));
            }
        }
    }
    top.finish("a file of mappings", report);
    mappings
}

fn read_taught(mut fields: Fields<'_, '_>, report: &mut Report<'_>) -> Taught {
    let mut mapping = Mapping::new();
    let is_no_pad = fields.optional_boolean("gamepad", report) == Some(false);
    for (text, at) in fields.texts("silent", report) {
        if let Some(input) = hid(text, at, report) {
            mapping.silence(input);
        }
    }
    for (name, span, value) in fields.entries() {
        if matches!(name, "gamepad" | "silent") {
            continue;
        }
        let part = match name.parse::<Input>() {
            Ok(part) => part,
            Err(e) => {
                report.add(span.start, e);
                continue;
            }
        };
        if let Some((source, at)) = read_source(value, report)
            && let Err(e) = mapping.set(part, source)
        {
            let at = match e {
                super::MappingError::NoPart(_) => span.start,
                super::MappingError::Taken { .. } => at,
            };
            report.add(at, e);
        }
    }
    if is_no_pad && mapping != Mapping::new() {
        report.add(fields.at, "what is no gamepad has no parts of one");
    }
    match is_no_pad {
        true => Taught::NoPad,
        false => Taught::Pad(mapping),
    }
}

/// What works a part, and where it is written.
fn read_source(
    value: &Spanned<DeValue<'_>>,
    report: &mut Report<'_>,
) -> Option<(PadSource, usize)> {
    if let Some(text) = value.get_ref().as_str() {
        let at = report.inside(value);
        let source = match hid(text, at, report)? {
            HidInput::Button(button) => PadSource::Button(button),
            HidInput::Hat(direction) => PadSource::Hat(direction),
            HidInput::Half(axis, sign) => PadSource::Half(axis, sign),
            HidInput::Axis(axis) => PadSource::Whole(axis, Sign::Positive),
        };
        return Some((source, at));
    }
    if value.get_ref().as_table().is_none() {
        let wanted = "an input such as \"hid:button-2\" in quotes";
        wrong_type("a part of a pad", wanted, value, report);
        return None;
    }
    let mut fields = Fields::of(value, "a part of a pad", report)?;
    let at = fields.value("input").map(|v| report.inside(v));
    let at = at.unwrap_or(fields.at);
    let input = fields.string("input", report);
    if input.is_none() && !fields.has("input") {
        report.add(at, "it says which axis: `input = \"hid:rz\"`");
    }
    let rests = fields.value("rests").map(|v| (integer(v), v));
    // TOML has a sign before a number, which no other file here wants.
    let sign = match rests.map(|(n, v)| (n, v.get_ref().as_integer().map(|i| i.as_str()))) {
        Some((Some(1), _)) => Some(Sign::Negative),
        Some((_, Some("-1"))) | None => Some(Sign::Positive),
        Some(_) => None,
    };
    if let (None, Some((_, value))) = (sign, rests) {
        report.add(value.span().start, "an axis `rests` at -1 or at 1");
    }
    fields.finish("a part of a pad", report);
    let source = match hid(input?, at, report)? {
        HidInput::Axis(axis) => PadSource::Whole(axis, sign?),
        other => {
            let other = Input::Hid(other);
            report.add(
                at,
                format!("`{other}` is no whole axis; write it alone, without a table"),
            );
            return None;
        }
    };
    Some((source, at))
}

/// An input of a controller without a mapping.
fn hid(text: &str, at: usize, report: &mut Report<'_>) -> Option<HidInput> {
    match text.parse::<Input>() {
        Ok(Input::Hid(input)) => return Some(input),
        Ok(other) => report.add(
            at,
            format!(
                "`{other}` is no input of another controller; write one such as `hid:button-2`"
            ),
        ),
        Err(e) => report.add(at + e.span().start, e),
    }
    None
}
