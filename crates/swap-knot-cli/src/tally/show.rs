//! What was counted, as text.

use std::error::Error;
use std::io::Write as _;

use swap_knot::layout::Resolver;
use swap_knot::prompt::Telling;
use swap_knot::{Layout, Sheet, Words};

use super::counts::{Counts, NONE, Tally};
use crate::table::{HEAD, QUIET, columns, count, styled};

/// How many of the inputs that something was bound to are told.
const INPUTS: usize = 4;

fn percent(n: u64, of: u64) -> String {
    format!("{:.1} %", 100.0 * n as f64 / of.max(1) as f64)
}

/// The most frequent ones with their shares, and that there are more.
fn shares(counts: &Counts, of: u64, name: impl Fn(&str) -> String) -> String {
    let all = counts.sorted();
    let shown = all.iter().take(INPUTS);
    let shown: Vec<String> = shown
        .map(|(text, n)| format!("{} {}", name(text), percent(*n, of)))
        .collect();
    let more = all.len() > INPUTS || counts.other() > 0;
    shown.join(", ") + if more { ", …" } else { "" }
}

/// Prints the most changed rows, and how many files were not read.
pub(super) fn print(
    tally: &Tally,
    sheet: &Sheet,
    top: usize,
    not_read: u64,
) -> Result<(), Box<dyn Error>> {
    let mut out = anstream::stdout().lock();
    let all = tally.profiles;
    let words = Words::english();
    let on = Resolver::from(&Layout::us());
    let telling = Telling::new(&words, sheet, &on);
    let of = |n: usize| count(n, "profile");
    writeln!(
        out,
        "{}",
        styled(
            HEAD,
            &format!(
                "{} of {}, {} of them without changes",
                of(all as usize),
                sheet.title(),
                tally.unchanged
            )
        )
    )?;
    let older = tally.older;
    writeln!(
        out,
        "{}",
        styled(
            QUIET,
            &format!("{older} of an older version of the game, {not_read} not read")
        )
    )?;
    let mut cells: Vec<_> = tally.cells.iter().collect();
    cells.sort_by_key(|(cell, c)| (std::cmp::Reverse(c.changed), **cell));
    let heading = [
        "action",
        "column",
        "changed by",
        "to",
        "more on layout",
        "more with preset",
    ];
    let mut rows = vec![heading.map(str::to_owned).to_vec()];
    for (cell, c) in cells.iter().take(top) {
        let name = |text: &str| {
            let chord = text.parse().ok();
            chord.map_or_else(|| words.say("nothing", &[]), |chord| telling.chord(&chord))
        };
        let everywhere = c.changed as f64 / all as f64;
        rows.push(vec![
            telling.row(cell.row),
            cell.column.to_string(),
            percent(c.changed, all),
            shares(&c.to, c.changed, name),
            most(&c.by_layout, &tally.layouts, everywhere),
            most(&c.by_preset, &tally.presets, everywhere),
        ]);
    }
    writeln!(out)?;
    match rows.len() {
        1 => writeln!(out, "no binding was changed")?,
        _ => write!(out, "{}", columns(0, &rows))?,
    }
    if cells.len() > top {
        let more = cells.len() - top;
        writeln!(
            out,
            "{}",
            styled(QUIET, &format!("and {more} more; --top shows them"))
        )?;
    }
    let mut unbound: Vec<_> = tally.unbound.iter().collect();
    unbound.sort_by_key(|(row, n)| (std::cmp::Reverse(**n), **row));
    if !unbound.is_empty() {
        let mut rows = vec![["left without a binding", "by"].map(str::to_owned).to_vec()];
        for (row, n) in unbound.iter().take(top) {
            rows.push(vec![telling.row(**row), percent(**n, all)]);
        }
        write!(out, "\n{}", columns(0, &rows))?;
    }
    let mut settings: Vec<_> = tally.settings.iter().collect();
    settings.sort_by_key(|(_, s)| std::cmp::Reverse(s.set));
    if !settings.is_empty() {
        let mut rows = vec![["setting", "set by", "to"].map(str::to_owned).to_vec()];
        for (setting, s) in settings.iter().take(top) {
            let to = match s.numbers {
                Some(n) => format!("{} to {}, {:.2} on average", n.least, n.most, n.average()),
                None => shares(&s.values, s.set, str::to_owned),
            };
            rows.push(vec![telling.tell(*setting), percent(s.set, all), to]);
        }
        write!(out, "\n{}", columns(0, &rows))?;
    }
    Ok(())
}

/// How much more often than elsewhere something has to be changed somewhere to be worth a word.
const MORE: f64 = 1.2;

/// Where something was changed markedly more often than by all: there by so many of those who are there.
fn most(changed: &Counts, all: &Counts, everywhere: f64) -> String {
    let shares = changed.sorted().into_iter().map(|(name, n)| {
        let share = n as f64 / all.get(name).max(n) as f64;
        (name, n, share)
    });
    let marked = shares.filter(|(name, _, share)| *name != NONE && *share > MORE * everywhere);
    let most = marked.max_by(|a, b| a.2.total_cmp(&b.2).then(a.1.cmp(&b.1)));
    most.map_or(String::new(), |(name, _, share)| {
        format!("{name}: {:.0} %", share * 100.0)
    })
}
