//! Several sheets read as one.

use toml::Spanned;
use toml::de::{DeArray, DeTable, DeValue};

use super::mods;
use crate::sheet::{File, Sheet};
use crate::text::Report;

/// The tables whose entries are names, each of which one file may declare.
const NAMED: [&str; 5] = ["situations", "groups", "actions", "presets", "renamed"];
/// The lists that add up.
const LISTS: [&str; 3] = ["reserved", "removed", "known"];

/// The files parsed and laid over each other; `None` when one of them cannot be.
pub(super) fn tables<'s>(files: &'s [File], report: &mut Report<'s>) -> Option<DeTable<'s>> {
    let size: usize = files.iter().map(|f| f.text.len()).sum();
    if size > Sheet::MAX_BYTES {
        let (have, most) = (size >> 20, Sheet::MAX_BYTES >> 20);
        report.add_file(files.first().and_then(|f| f.name.as_deref()), "");
        report.add(
            0,
            format!("a sheet has at most {most} MiB, and this has {have}; is it a sheet?"),
        );
        return None;
    }
    let (mut joined, mut sound) = (DeTable::new(), true);
    for file in files {
        let (name, text) = (file.name.as_deref(), file.text.as_str());
        // Spans count from the start of all files, so that a byte tells its file.
        let start = report.add_file(name, text);
        let (table, errors) = DeTable::parse_recoverable(text);
        for error in &errors {
            let at = error.span().map_or(0, |s| s.start);
            report.add(start + at, error.message());
        }
        sound &= errors.is_empty();
        let table = shifted(table.into_inner(), start);
        if file.is_mod {
            mods::check(&table, name.unwrap_or_default(), start, report);
        }
        lay_over(&mut joined, table, report);
    }
    // What was recovered from broken TOML would only echo the breakage.
    sound.then_some(joined)
}

/// The same table with every span further on.
fn shifted(table: DeTable<'_>, by: usize) -> DeTable<'_> {
    if by == 0 {
        return table;
    }
    let entries = table.into_iter().map(|(key, value)| {
        let span = key.span();
        let key = Spanned::new(span.start + by..span.end + by, key.into_inner());
        (key, shifted_value(value, by))
    });
    entries.collect()
}

fn shifted_value(value: Spanned<DeValue<'_>>, by: usize) -> Spanned<DeValue<'_>> {
    let span = value.span();
    let inner = match value.into_inner() {
        DeValue::Table(table) => DeValue::Table(shifted(table, by)),
        DeValue::Array(mut items) => {
            for item in items.iter_mut() {
                let taken = std::mem::replace(item, Spanned::new(0..0, DeValue::Boolean(false)));
                *item = shifted_value(taken, by);
            }
            DeValue::Array(items)
        }
        other => other,
    };
    Spanned::new(span.start + by..span.end + by, inner)
}

/// Lays one file over those before it.
fn lay_over<'s>(joined: &mut DeTable<'s>, table: DeTable<'s>, report: &mut Report<'s>) {
    for (key, value) in table {
        let name: &str = key.get_ref();
        let span = value.span();
        if LISTS.contains(&name)
            && let Some((first, there)) = joined.remove_entry(name)
        {
            let mut items = list(there);
            list(value).into_iter().for_each(|item| items.push(item));
            joined.insert(first, Spanned::new(span, DeValue::Array(items)));
            continue;
        }
        let named = NAMED.contains(&name);
        let there = joined.get_mut(name).map(Spanned::get_mut);
        match (there, value.into_inner()) {
            (Some(DeValue::Table(there)), DeValue::Table(more)) if named => {
                add_names(name, there, more, report);
            }
            (_, value) => {
                joined.insert(key, Spanned::new(span, value));
            }
        }
    }
}

/// The items of a list, or a single one that stands for a list.
fn list(value: Spanned<DeValue<'_>>) -> DeArray<'_> {
    let span = value.span();
    match value.into_inner() {
        DeValue::Array(items) => items,
        single => {
            let mut items = DeArray::new();
            items.push(Spanned::new(span, single));
            items
        }
    }
}

fn add_names<'s>(table: &str, there: &mut DeTable<'s>, more: DeTable<'s>, report: &mut Report<'s>) {
    for (key, value) in more {
        let name: &str = key.get_ref();
        match there.get_key_value(name).map(|(k, _)| k.span().start) {
            Some(first) => {
                let place = report.place_name(first);
                report.add(
                    key.span().start,
                    format!("`{table}.{name}` is declared at {place} already; give one of them another name"),
                );
            }
            None => {
                there.insert(key, value);
            }
        }
    }
}
