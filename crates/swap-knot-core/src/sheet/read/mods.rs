//! What a mod may say: it adds names of its own, and leaves the game's rules as they are.

use toml::Spanned;
use toml::de::{DeTable, DeValue};

use super::name_rule;
use crate::text::{Report, is_name};

/// The tables in which a mod declares something.
const DECLARES: [&str; 4] = ["situations", "groups", "actions", "presets"];

pub(super) fn check(table: &DeTable<'_>, name: &str, start: usize, report: &mut Report<'_>) {
    if !is_name(name) {
        report.add(
            start,
            format!("`{name}` cannot be the name of a mod; {}", name_rule(name)),
        );
        return;
    }
    for (key, value) in table {
        let kind: &str = key.get_ref();
        if !DECLARES.contains(&kind) {
            let message = format!(
                "a mod cannot say `{kind}`, which is the game's; take it out, and declare only {}",
                DECLARES.join(", ")
            );
            report.add(key.span().start, message);
            continue;
        }
        let DeValue::Table(entries) = value.get_ref() else {
            continue;
        };
        for (entry, value) in entries {
            let own = is_own(entry.get_ref(), name);
            if !own {
                let message = format!(
                    "the names of a mod begin with its own; call it `{name}-{}`",
                    entry.get_ref()
                );
                report.add(entry.span().start, message);
            }
            if kind == "actions" {
                action(value, name, report);
            }
        }
    }
}

fn action(value: &Spanned<DeValue<'_>>, name: &str, report: &mut Report<'_>) {
    let DeValue::Table(fields) = value.get_ref() else {
        return;
    };
    if let Some((key, _)) = fields.get_key_value("fixed") {
        report.add(
            key.span().start,
            "a mod has no fixed actions; take `fixed` out",
        );
    }
    let share = fields.get("share");
    let listed: Vec<&Spanned<DeValue<'_>>> = match share.map(Spanned::get_ref) {
        Some(DeValue::Array(items)) => items.iter().collect(),
        Some(_) => share.into_iter().collect(),
        None => Vec::new(),
    };
    for other in listed {
        let is_of_game = |other: &&str| !is_own(other, name);
        if let Some(other) = other.get_ref().as_str().filter(is_of_game) {
            let at = share.map_or(0, |s| s.span().start);
            report.add(
                at,
                format!(
                    "a mod's action shares its inputs with the mod's own, and `{other}` is not; \
                     take it out of `share`"
                ),
            );
        }
    }
}

fn is_own(entry: &str, name: &str) -> bool {
    let rest = entry.strip_prefix(name).and_then(|r| r.strip_prefix('-'));
    rest.is_some_and(|r| !r.is_empty())
}
