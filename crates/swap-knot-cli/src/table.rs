//! Text laid out for a terminal.

use std::io::Write as _;

use anstyle::{AnsiColor, Style};
use unicode_width::UnicodeWidthStr;

/// Headings.
pub(crate) const HEAD: Style = Style::new().bold();
/// What went wrong.
pub(crate) const BAD: Style = AnsiColor::Red.on_default().bold();
/// What went right.
pub(crate) const GOOD: Style = AnsiColor::Green.on_default().bold();
/// What matters less.
pub(crate) const QUIET: Style = Style::new().dimmed();

/// A text in a style.
pub(crate) fn styled(style: Style, text: &str) -> String {
    format!("{}{text}{}", style.render(), style.render_reset())
}

/// A number with what it counts.
pub(crate) fn count(n: usize, what: &str) -> String {
    let end = if n == 1 { "" } else { "s" };
    format!("{n} {what}{end}")
}

/// JSON for scripts, indented.
pub(crate) fn print_json(value: &serde_json::Value) -> Result<(), Box<dyn std::error::Error>> {
    writeln!(anstream::stdout().lock(), "{value:#}")?;
    Ok(())
}

/// Rows whose columns line up, indented; the first row is the heading.
pub(crate) fn columns(indent: usize, rows: &[Vec<String>]) -> String {
    let count = rows.iter().map(Vec::len).max().unwrap_or(0);
    let width = |c: usize| {
        rows.iter()
            .filter_map(|r| r.get(c))
            .map(|t| t.width())
            .max()
    };
    let widths: Vec<usize> = (0..count).map(|c| width(c).unwrap_or(0)).collect();
    let mut out = String::new();
    for (i, row) in rows.iter().enumerate() {
        let mut line = " ".repeat(indent);
        for (text, width) in row.iter().zip(&widths) {
            line.push_str(text);
            line.push_str(&" ".repeat(width - text.width() + 3));
        }
        let line = line.trim_end();
        out.push_str(&if i == 0 {
            styled(QUIET, line)
        } else {
            line.to_owned()
        });
        out.push('\n');
    }
    out
}
