//! `swap-knot tally`: what many players changed, counted.

mod counts;

use std::fs;
use std::io::Write as _;
use std::path::{Path, PathBuf};

use serde_json::{Value, json};
use swap_knot::layout::Resolver;
use swap_knot::prompt::Telling;
use swap_knot::{Layout, Sheet, Words};

use self::counts::{Counts, NONE, SettingCount, Tally};
use crate::table::{HEAD, QUIET, columns, count, print_json, styled};
use crate::{CLEAN, Done, FOUND, files};

/// How many of the files that cannot be read are named.
const NAMED: usize = 20;
/// How many of the inputs that something was bound to are told.
const INPUTS: usize = 4;

/// The options of `tally`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Example:\n  swap-knot tally demo/slack-water.toml demo/profiles\n\nNothing of it says who a player is: titles of profiles are not read, and only files that cannot\nbe read are named. Players of an older version of the game are counted by what its actions are\ncalled now. Where a file could not be read, it exits with 1."
)]
pub(crate) struct Args {
    /// The sheet that declares the actions.
    sheet: PathBuf,
    /// Profiles, and folders with profiles in them.
    #[arg(required = true)]
    files: Vec<PathBuf>,
    /// How many rows to show, the most changed first.
    #[arg(long, default_value_t = 20)]
    top: usize,
    /// Print JSON with all of them, by layout and preset, for scripts.
    #[arg(long)]
    json: bool,
}

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let mut tally = Tally::new(&sheet);
    let mut broken = Broken::default();
    for path in &args.files {
        visit(path, &mut tally, &mut broken);
    }
    broken.print();
    if tally.profiles == 0 {
        return Err("there is no profile that can be read".into());
    }
    match args.json {
        true => print_json(&as_json(&tally, &sheet, &broken))?,
        false => print(&tally, &sheet, args.top, &broken)?,
    }
    // What could not be read is counted nowhere else.
    Ok(if broken.count == 0 { CLEAN } else { FOUND })
}

/// What could not be read.
#[derive(Default)]
struct Broken {
    count: u64,
    named: Vec<String>,
}

impl Broken {
    fn add(&mut self, why: String) {
        self.count += 1;
        if self.named.len() < NAMED {
            self.named.push(why);
        }
    }

    fn print(&self) {
        for why in &self.named {
            anstream::eprintln!("not counted: {why}");
        }
        let more = self.count - self.named.len() as u64;
        if more > 0 {
            anstream::eprintln!("not counted: {more} more");
        }
    }
}

/// Counts a file, or all that is in a folder, one file at a time.
fn visit(path: &Path, tally: &mut Tally, broken: &mut Broken) {
    if !path.is_dir() {
        match files::profile(Some(path)) {
            Ok(profile) => tally.add(profile),
            Err(why) => broken.add(why.to_string()),
        }
        return;
    }
    let all = match fs::read_dir(path) {
        Ok(all) => all,
        Err(e) => return broken.add(format!("{}: {e}", path.display())),
    };
    for entry in all {
        match entry.map(|e| e.path()) {
            Ok(inner) if inner.is_dir() || inner.extension().is_some_and(|e| e == "toml") => {
                visit(&inner, tally, broken);
            }
            // What else lies in a locker is no profile.
            Ok(_) => {}
            Err(e) => broken.add(format!("{}: {e}", path.display())),
        }
    }
}

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
    let more = all.len() > INPUTS || counts.other > 0;
    shown.join(", ") + if more { ", …" } else { "" }
}

fn print(
    tally: &Tally,
    sheet: &Sheet,
    top: usize,
    broken: &Broken,
) -> Result<(), Box<dyn std::error::Error>> {
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
    let not_read = broken.count;
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
                Some((least, most, sum)) => {
                    let numbers = s.set as f64;
                    format!("{least} to {most}, {:.2} on average", sum / numbers)
                }
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

fn as_json(tally: &Tally, sheet: &Sheet, broken: &Broken) -> Value {
    let counts = |c: &Counts| {
        let all = c
            .sorted()
            .into_iter()
            .map(|(t, n)| (t.to_owned(), n.into()));
        let mut all: serde_json::Map<String, Value> = all.collect();
        if c.other > 0 {
            all.insert("(other)".to_owned(), c.other.into());
        }
        Value::Object(all)
    };
    let mut cells: Vec<_> = tally.cells.iter().collect();
    cells.sort_by_key(|(cell, c)| (std::cmp::Reverse(c.changed), **cell));
    let cells = cells.into_iter().map(|(cell, c)| {
        json!({
            "row": sheet.row_name(cell.row), "column": cell.column.to_string(),
            "changed": c.changed, "to": counts(&c.to),
            "by-layout": counts(&c.by_layout), "by-preset": counts(&c.by_preset),
        })
    });
    let mut unbound: Vec<_> = tally.unbound.iter().collect();
    unbound.sort_by_key(|(row, n)| (std::cmp::Reverse(**n), **row));
    let unbound = unbound.into_iter();
    let unbound = unbound.map(|(row, n)| json!({ "row": sheet.row_name(*row), "profiles": n }));
    let mut settings: Vec<_> = tally.settings.iter().collect();
    settings.sort_by_key(|(_, s)| std::cmp::Reverse(s.set));
    let settings = settings.into_iter().map(|(setting, s)| {
        let mut all = json!({ "setting": setting.path().join("."), "set": s.set });
        match numbers(s) {
            Some(numbers) => all["numbers"] = numbers,
            None => all["values"] = counts(&s.values),
        }
        all
    });
    json!({
        "game": sheet.game(), "version": sheet.version(),
        "profiles": tally.profiles, "unchanged": tally.unchanged, "older": tally.older,
        "not-read": broken.count,
        "bindings": cells.collect::<Vec<_>>(), "left-unbound": unbound.collect::<Vec<_>>(),
        "settings": settings.collect::<Vec<_>>(),
        "layouts": counts(&tally.layouts), "presets": counts(&tally.presets),
    })
}

fn numbers(s: &SettingCount) -> Option<Value> {
    let (least, most, sum) = s.numbers?;
    Some(json!({ "least": least, "most": most, "average": sum / s.set as f64 }))
}
