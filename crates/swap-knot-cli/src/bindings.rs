//! `swap-knot table`: the bindings as a table for the manual.

use std::io::Write as _;
use std::path::PathBuf;

use swap_knot::prompt::GameTitle;
use swap_knot::remap::MenuRow;
use swap_knot::sheet::ColumnKind;
use swap_knot::{Draft, Layout, Sheet, Words};

use crate::table::{columns, print_json};
use crate::words::WordsArgs;
use crate::{CLEAN, Done, files};

/// The options of `table`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot table controls.toml\n  swap-knot table controls.toml --format markdown --language de --texts texts --layout de > CONTROLS.md\n  swap-knot table controls.toml --format fluent > texts/en.ftl"
)]
pub(crate) struct Args {
    /// The sheet that declares the actions.
    sheet: PathBuf,
    /// With what a player changed.
    #[arg(long, value_name = "FILE")]
    profile: Option<PathBuf>,
    /// The layout; without it, the one in the profile, or us.
    #[arg(long, value_name = "NAME", value_parser = files::layout)]
    layout: Option<Layout>,
    #[command(flatten)]
    words: WordsArgs,
    /// How to print it.
    #[arg(long, value_enum, default_value_t = Format::Text)]
    format: Format,
}

#[derive(Clone, Copy, Debug, clap::ValueEnum)]
enum Format {
    Text,
    Markdown,
    Json,
    /// The game's titles as a Fluent file, to be translated.
    Fluent,
}

/// The devices that have a column, and the rows that have a binding.
struct Table {
    kinds: Vec<ColumnKind>,
    draft: Draft,
    rows: Vec<MenuRow>,
}

impl Table {
    /// What is bound on the devices of one kind, the first binding first.
    fn names(&self, row: &MenuRow, kind: ColumnKind) -> Vec<String> {
        let cells = row.cells.iter().filter(|c| c.cell.column.kind() == kind);
        let named = cells.filter_map(|c| Some((c.name.clone()?, c.how.as_ref())));
        let words = self.draft.words();
        let with_how = |(name, how): (String, Option<&String>)| match how {
            Some(how) => words.say("manner-of", &[("name", &name), ("manner", how)]),
            None => name,
        };
        named.map(with_how).collect()
    }

    fn group(&self, row: &MenuRow) -> String {
        self.draft.group_title(row.group)
    }
}

pub(crate) fn run(args: &Args) -> Done {
    let sheet = files::sheet(&args.sheet)?;
    let layout = args.layout.as_ref();
    let (profile, layout) = files::played(&sheet, args.profile.as_deref(), layout)?;
    let words = &args.words.words(&profile)?;
    let mut draft = Draft::new(&sheet, profile, &layout);
    draft.set_words(words);
    let shown = draft.columns();
    let mut rows = draft.rows(&shown);
    rows.retain(|r| r.cells.iter().any(|c| c.chord.is_some()));
    let mut kinds: Vec<ColumnKind> = shown.iter().map(|c| c.kind()).collect();
    kinds.dedup();
    let table = Table { kinds, draft, rows };
    match args.format {
        Format::Text => as_text(&table, words)?,
        Format::Markdown => as_markdown(&table, words)?,
        Format::Json => as_json(&table)?,
        Format::Fluent => as_fluent(table.draft.sheet())?,
    }
    Ok(CLEAN)
}

fn as_text(table: &Table, words: &Words) -> std::io::Result<()> {
    let mut heading = vec![String::new()];
    heading.extend(table.kinds.iter().map(|k| words.column_name(*k)));
    let mut lines = vec![heading];
    let mut group = None;
    for row in &table.rows {
        if group.replace(row.group) != Some(row.group) {
            lines.push(vec![table.group(row)]);
        }
        let mut line = vec![format!("  {}", row.title)];
        let names = |k: &ColumnKind| table.names(row, *k).join(", ");
        line.extend(table.kinds.iter().map(names));
        lines.push(line);
    }
    write!(anstream::stdout().lock(), "{}", columns(0, &lines))
}

fn as_markdown(table: &Table, words: &Words) -> std::io::Result<()> {
    let mut out = anstream::stdout().lock();
    // What is printed on a key may mean something in Markdown.
    let plain = |text: &str| {
        let escaped = text.chars().flat_map(|c| {
            let special = "\\|`*_<>[]#~".contains(c);
            special.then_some('\\').into_iter().chain([c])
        });
        escaped.collect::<String>()
    };
    let mut group = None;
    for row in &table.rows {
        if group.replace(row.group) != Some(row.group) {
            let kinds: Vec<String> = table.kinds.iter().map(|k| words.column_name(*k)).collect();
            let space = if row == &table.rows[0] { "" } else { "\n" };
            writeln!(out, "{space}## {}\n", plain(&table.group(row)))?;
            writeln!(out, "| | {} |", kinds.join(" | "))?;
            writeln!(out, "|---|{}", "---|".repeat(kinds.len()))?;
        }
        let names = |k: &ColumnKind| plain(&table.names(row, *k).join(", "));
        let cells: Vec<String> = table.kinds.iter().map(names).collect();
        // What an action is for is told once, with its whole.
        let about = row.about.iter().filter(|_| row.row.arm.is_none());
        let about: String = about.map(|about| format!("<br>{}", plain(about))).collect();
        let title = plain(&row.title);
        writeln!(out, "| {title}{about} | {} |", cells.join(" | "))?;
    }
    Ok(())
}

/// Every title that a language has to have, as it stands in the sheet.
fn as_fluent(sheet: &Sheet) -> std::io::Result<()> {
    let mut out = anstream::stdout().lock();
    for title in GameTitle::all(sheet).iter().filter(|t| !t.is_made) {
        writeln!(out, "{}", title.to_fluent())?;
    }
    Ok(())
}

fn as_json(table: &Table) -> Result<(), Box<dyn std::error::Error>> {
    let rows = table.rows.iter().map(|row| {
        let cells = row.cells.iter().filter_map(|cell| {
            Some(serde_json::json!({
                "column": cell.cell.column.to_string(),
                "input": cell.chord.as_ref()?.to_string(),
                "name": cell.name,
                "how": cell.how,
            }))
        });
        serde_json::json!({
            "group": table.group(row),
            "row": table.draft.sheet().row_name(row.row),
            "title": row.title,
            "about": row.about,
            "bindings": cells.collect::<Vec<_>>(),
        })
    });
    print_json(&serde_json::json!(rows.collect::<Vec<_>>()))
}
