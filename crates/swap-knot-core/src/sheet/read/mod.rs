//! Reading a sheet from TOML: every mistake at once, each with its place.

mod actions;
mod bindings;
pub(crate) mod join;
mod mods;
mod settings;
mod situations;

pub(crate) use self::bindings::UNBOUND;
pub(crate) use self::settings::value as setting;

use std::collections::HashMap;
use std::sync::Arc;

use toml::de::DeTable;

use super::{ActionId, Data, File, Group, Sheet, SheetError, Stamp};
use crate::input::Input;
use crate::text::{Fields, Report, is_name, wrong_type};

/// What names stand for while a sheet is being read.
#[derive(Default)]
struct Names {
    stamp: Stamp,
    /// What only actions that are fixed may be bound to.
    reserved: Vec<Input>,
    situations: HashMap<String, super::SituationId>,
    groups: Vec<Group>,
    actions: HashMap<String, ActionId>,
    /// In the order of the file, for messages.
    action_order: Vec<String>,
    situation_order: Vec<String>,
}

impl Names {
    fn action(&self, name: &str, at: usize, report: &mut Report<'_>) -> Option<ActionId> {
        let found = self.actions.get(name).copied();
        if found.is_none() {
            let known = || self.action_order.iter().map(String::as_str);
            report.add_no_such(at, "action", name, known);
        }
        found
    }

    fn situation(
        &self,
        name: &str,
        at: usize,
        report: &mut Report<'_>,
    ) -> Option<super::SituationId> {
        let found = self.situations.get(name).copied();
        if found.is_none() {
            let known = || self.situation_order.iter().map(String::as_str);
            report.add_no_such(at, "situation", name, known);
        }
        found
    }
}

/// The newest version of the file format that is read; a sheet without one is of version 1.
const FORMAT: u32 = 1;

/// Reads a sheet from one or several files; the later ones say more than the earlier ones.
pub(super) fn read(files: Vec<File>) -> Result<Sheet, SheetError> {
    let mut report = Report::new();
    let table = join::tables(&files, &mut report);
    let data = table.and_then(|table| read_data(&table, &mut report));
    let mistakes = report.finish();
    match data {
        Some(mut data) if mistakes.is_empty() => {
            data.files = files;
            Ok(Sheet(Arc::new(data)))
        }
        _ => Err(SheetError { mistakes }),
    }
}

/// The sheet as far as it can be made out; only whole if `report` stays empty.
fn read_data(table: &DeTable<'_>, report: &mut Report<'_>) -> Option<Data> {
    let mut top = Fields::new(table, 0);
    let game = top.string("game", report);
    if game.is_none() {
        report.add(
            0,
            "the sheet needs a name for its game, as in `game = \"slack-water\"`",
        );
    } else if let Some(game) = game.filter(|g| !is_name(g)) {
        let at = top.value("game").map_or(0, |v| report.inside(v));
        report.add(
            at,
            format!("`{game}` cannot be the name of a game; {}", name_rule(game)),
        );
    }
    let game = game.unwrap_or_default().to_owned();
    let title = top
        .string("title", report)
        .map_or_else(|| titled(&game), str::to_owned);
    if let Some(newer) = top
        .integer("format", 1..=u32::MAX, report)
        .filter(|f| *f > FORMAT)
    {
        let message = format!(
            "the sheet is written in format {newer}, and this Swap Knot reads format {FORMAT}; update Swap Knot"
        );
        report.add(0, message);
    }
    let version = top.integer("version", 1..=u32::MAX, report).unwrap_or(1);

    let mut reserved: Vec<Input> = Vec::new();
    for (text, at) in top.texts("reserved", report) {
        match text.parse::<Input>() {
            Ok(input) => reserved.push(input),
            Err(e) => report.add(at + e.span().start, e),
        }
    }
    let mut names = Names {
        stamp: stamp(table),
        reserved,
        ..Names::default()
    };
    let situations = situations::read(&mut top, &mut names, report);
    actions::declare(&mut top, &mut names, report);
    read_groups(&mut top, &mut names, report);
    let settings = settings::of_sheet(&mut top, report);
    let (actions, mut defaults) =
        actions::read(&mut top, &mut names, &situations, &settings, report);
    defaults.sort();
    let ranges = ranges(&defaults, actions.len());

    let renamed = read_renamed(&mut top, &names, report);
    let removed = top.texts("removed", report);
    let removed = removed.into_iter().map(|(t, _)| t.to_owned()).collect();
    let known = top.texts("known", report);
    let known = known.into_iter().map(|(t, _)| t.to_owned()).collect();
    let presets = top.value("presets");
    let mut data = Data {
        files: Vec::new(),
        stamp: names.stamp,
        typed: Vec::new(),
        game,
        title,
        version,
        groups: names.groups,
        situations,
        actions,
        by_name: names.actions,
        defaults,
        ranges,
        reserved: names.reserved,
        presets: Vec::new(),
        settings,
        renamed,
        removed,
        known,
    };
    let has_actions = top.has("actions");
    top.finish("the sheet", report);
    // Where something else is wrong, that may be why.
    if !has_actions && report.is_empty() {
        report.add(
            0,
            "the sheet declares no action; add one, as in `[actions.horn]`",
        );
    }
    if let Some(presets) = presets {
        // Presets name rows, so they are read against the sheet as it stands.
        let sheet = Sheet(Arc::new(data));
        let read = bindings::presets(presets, &sheet, report);
        data = Arc::into_inner(sheet.0)?;
        data.presets = read;
    }
    Some(data)
}

/// The stamp of the names that a sheet declares.
fn stamp(table: &DeTable<'_>) -> Stamp {
    let names = |key| {
        let table = table.get(key).and_then(|v| v.get_ref().as_table());
        table
            .into_iter()
            .flatten()
            .map(|(name, _)| &**name.get_ref())
    };
    Stamp::of(names("situations"), names("actions"))
}

fn read_groups(top: &mut Fields<'_, '_>, names: &mut Names, report: &mut Report<'_>) {
    let Some(groups) = top.value("groups") else {
        return;
    };
    let Some(groups) = Fields::of(groups, "`groups`", report) else {
        return;
    };
    for (name, span, value) in groups.entries() {
        check_name("a group", name, span.start, report);
        let title = value.get_ref().as_str();
        if title.is_none() {
            wrong_type("a group", "its title in quotes", value, report);
        }
        // It is declared all the same: whoever stands under it has made no mistake.
        names.groups.push(Group {
            name: name.to_owned(),
            title: title.unwrap_or(name).to_owned(),
        });
    }
}

fn read_renamed(
    top: &mut Fields<'_, '_>,
    names: &Names,
    report: &mut Report<'_>,
) -> Vec<(String, String)> {
    let mut out = Vec::new();
    let Some(table) = top.value("renamed") else {
        return out;
    };
    let Some(table) = Fields::of(table, "`renamed`", report) else {
        return out;
    };
    for (old, span, value) in table.entries() {
        if names.actions.contains_key(old) {
            let message = format!(
                "`{old}` is still an action; only names that are gone are renamed; take it out"
            );
            report.add(span.start, message);
        }
        match value.get_ref().as_str() {
            Some(new) => {
                if names.action(new, report.inside(value), report).is_some() {
                    out.push((old.to_owned(), new.to_owned()));
                }
            }
            None => wrong_type("a renamed action", "its new name in quotes", value, report),
        }
    }
    out
}

pub(super) fn ranges(defaults: &[super::Binding], actions: usize) -> Vec<std::ops::Range<usize>> {
    let mut start = 0;
    let mut out = Vec::with_capacity(actions);
    for action in 0..actions {
        let rest = &defaults[start..];
        let len = rest.partition_point(|b| b.cell.row.action.index() <= action);
        out.push(start..start + len);
        start += len;
    }
    out
}

const NAME_RULE: &str =
    "names have 1 to 64 lower-case letters, digits and hyphens, and begin with a letter";

/// What names are like, and one that is like this one.
fn name_rule(name: &str) -> String {
    let words = name.split(|c: char| !c.is_ascii_alphanumeric());
    let words: Vec<String> = words
        .filter(|w| !w.is_empty())
        .map(str::to_lowercase)
        .collect();
    match words.join("-") {
        lawful if is_name(&lawful) => format!("{NAME_RULE}; `{lawful}` would be one"),
        _ => NAME_RULE.to_owned(),
    }
}

fn check_name(kind: &str, name: &str, at: usize, report: &mut Report<'_>) {
    if !is_name(name) {
        report.add(
            at,
            format!("`{name}` cannot be the name of {kind}; {}", name_rule(name)),
        );
    }
}

/// `cast-off` becomes `Cast off`, for what is given no title.
pub(crate) fn titled(name: &str) -> String {
    let mut chars = name.chars();
    let first = chars.next().map(|c| c.to_ascii_uppercase());
    let rest = chars.as_str().replace('-', " ");
    first.into_iter().chain(rest.chars()).collect()
}
