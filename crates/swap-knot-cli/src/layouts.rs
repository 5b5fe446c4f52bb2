//! `swap-knot layouts`: the shipped layouts, one of them drawn, two side by side.

use std::io::Write as _;

use anstyle::{AnsiColor, Style};
use swap_knot::layout::Level;
use swap_knot::{Input, Layout, Place};
use unicode_width::UnicodeWidthStr;

use crate::table::{HEAD, QUIET, columns, count, print_json, styled};
use crate::{CLEAN, Done, board, files};

/// A key that differs between two layouts.
const DIFFERS: Style = AnsiColor::Yellow.on_default().bold();
/// Columns between two boards side by side.
const GAP: usize = 3;

/// The options of `layouts`.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  swap-knot layouts                    all of them\n  swap-knot layouts fr                 one drawn as its board\n  swap-knot layouts fr de              two side by side, what differs marked\n  swap-knot layouts fr --toml          one as a layout file\n  swap-knot layouts --where letter:m   where a letter is on all of them"
)]
pub(crate) struct Args {
    /// One or two layouts to draw; none lists them all.
    #[arg(num_args = 0..=2, value_name = "NAME", value_parser = files::layout)]
    names: Vec<Layout>,
    /// Where a key is on all layouts: a letter (`letter:m`), or what a place (`KeyQ`) types.
    #[arg(long = "where", value_name = "INPUT", conflicts_with = "names")]
    input: Option<Input>,
    /// Print JSON instead of text.
    #[arg(long)]
    json: bool,
    /// Print the layout as a layout file, to be changed and read by a game.
    #[arg(long, requires = "names", conflicts_with = "json")]
    toml: bool,
}

pub(crate) fn run(args: &Args) -> Done {
    match (&args.names[..], args.input) {
        (_, Some(Input::Letter(letter))) => where_letter(letter.char(), args.json)?,
        (_, Some(Input::Key(place))) if Place::WRITING.contains(&place) => {
            where_place(place, args.json)?;
        }
        (_, Some(input)) => {
            let why = "is the same on every layout; ask for a letter (`letter:m`) or a key that writes (`KeyQ`)";
            return Err(format!("`{input}` {why}").into());
        }
        ([], None) => list(args.json)?,
        ([one], None) if args.toml => write!(anstream::stdout().lock(), "{}", one.to_toml())?,
        (_, None) if args.toml => return Err("--toml is of one layout".into()),
        ([one], None) => draw_one(one, args.json)?,
        ([one, other, ..], None) => draw_two(one, other, args.json)?,
    }
    Ok(CLEAN)
}

type Step = Result<(), Box<dyn std::error::Error>>;

fn list(json: bool) -> Step {
    let all: Vec<Layout> = Layout::all_shipped().collect();
    if json {
        let list: Vec<_> = all.iter().map(describe).collect();
        return print_json(&serde_json::json!(list));
    }
    let widely: Vec<Layout> = Layout::widely_used().collect();
    let mut rows = vec![["name", "", "board", "title"].map(str::to_owned).to_vec()];
    for layout in &all {
        let mark = if widely.contains(layout) { "*" } else { "" };
        rows.push(vec![
            layout.name().to_owned(),
            mark.to_owned(),
            boards(layout),
            layout.title().to_owned(),
        ]);
    }
    let mut out = anstream::stdout().lock();
    write!(out, "{}", columns(0, &rows))?;
    writeln!(
        out,
        "{}; * widely used, what `swap-knot check` looks at",
        count(all.len(), "layout")
    )?;
    Ok(())
}

fn describe(layout: &Layout) -> serde_json::Value {
    serde_json::json!({
        "name": layout.name(),
        "title": layout.title(),
        "board": layout.board().word(),
        "boards": layout.boards().map(swap_knot::layout::Board::word).collect::<Vec<_>>(),
    })
}

/// What each place types on each level.
fn keys_json(layout: &Layout) -> serde_json::Value {
    let keys = Place::WRITING.iter().map(|&place| {
        let typed = |level| {
            let typed = layout.typed(place, level)?;
            let dead = if typed.dead { "dead:" } else { "" };
            Some(format!("{dead}{}", typed.character))
        };
        (place.to_string(), serde_json::json!(Level::ALL.map(typed)))
    });
    let mut all = describe(layout);
    all["keys"] = keys.collect::<serde_json::Map<_, _>>().into();
    all
}

fn title(layout: &Layout) -> String {
    let (name, title, boards) = (layout.name(), layout.title(), boards(layout));
    format!("{name}: {title}, {boards} board")
}

/// The boards that a layout is sold on: `ISO or ANSI`.
fn boards(layout: &Layout) -> String {
    let words: Vec<&str> = layout
        .boards()
        .map(swap_knot::layout::Board::word)
        .collect();
    words.join(" or ")
}

fn draw_one(layout: &Layout, json: bool) -> Step {
    if json {
        return print_json(&keys_json(layout));
    }
    let mut out = anstream::stdout().lock();
    writeln!(out, "{}", styled(HEAD, &title(layout)))?;
    for line in board::draw(layout, |_| None) {
        writeln!(out, "{line}")?;
    }
    writeln!(
        out,
        "{}",
        styled(
            QUIET,
            "above: with Shift; below: plain, with AltGr; (^): a dead key"
        )
    )?;
    Ok(())
}

fn draw_two(one: &Layout, other: &Layout, json: bool) -> Step {
    let differs = |place: Place| {
        let levels = [Level::Plain, Level::Shift];
        let typed = |l: &Layout| levels.map(|level| l.typed(place, level));
        let has = |l: &Layout| l.board().has(place);
        typed(one) != typed(other) || has(one) != has(other)
    };
    let different: Vec<Place> = Place::WRITING.into_iter().filter(|p| differs(*p)).collect();
    if json {
        return print_json(&serde_json::json!({
            "layouts": [keys_json(one), keys_json(other)],
            "different": different.iter().map(Place::to_string).collect::<Vec<_>>(),
        }));
    }
    let mark = |place: Place| different.contains(&place).then_some(DIFFERS);
    let boards = [one, other].map(|l| board::draw(l, mark));
    let mut out = anstream::stdout().lock();
    let wide = terminal_size::terminal_size()
        .is_none_or(|(w, _)| usize::from(w.0) > 2 * board::WIDTH + GAP);
    if wide {
        let room = board::WIDTH + GAP;
        let (a, b) = (title(one), title(other));
        let pad = " ".repeat(room.saturating_sub(a.width()));
        writeln!(out, "{}{pad}{}", styled(HEAD, &a), styled(HEAD, &b))?;
        for (left, right) in boards[0].iter().zip(&boards[1]) {
            writeln!(out, "{left}{}{right}", " ".repeat(GAP))?;
        }
    } else {
        for (layout, lines) in [one, other].into_iter().zip(&boards) {
            writeln!(out, "{}", styled(HEAD, &title(layout)))?;
            for line in lines {
                writeln!(out, "{line}")?;
            }
        }
    }
    let places: Vec<String> = different.iter().map(Place::to_string).collect();
    writeln!(
        out,
        "{} marked * that type something else, plain or with Shift: {}",
        count(places.len(), "key"),
        places.join(" ")
    )?;
    Ok(())
}

/// Layouts grouped by what they have in common, the largest group first.
fn grouped(answer: impl Fn(&Layout) -> String) -> Vec<(String, Vec<String>)> {
    let mut groups: Vec<(String, Vec<String>)> = Vec::new();
    for layout in Layout::all_shipped() {
        let key = answer(&layout);
        let name = layout.name().to_owned();
        match groups.iter_mut().find(|(k, _)| *k == key) {
            Some((_, names)) => names.push(name),
            None => groups.push((key, vec![name])),
        }
    }
    groups.sort_by_key(|(_, names)| std::cmp::Reverse(names.len()));
    groups
}

fn print_groups(what: &str, groups: &[(String, Vec<String>)], json: bool) -> Step {
    if json {
        let groups: Vec<_> = groups
            .iter()
            .map(|(key, names)| serde_json::json!({ what: key, "layouts": names }))
            .collect();
        return print_json(&serde_json::json!(groups));
    }
    const MOST: usize = 8;
    let mut rows = vec![[what, "", "layouts"].map(str::to_owned).to_vec()];
    for (key, names) in groups {
        let more = match names.len().checked_sub(MOST).filter(|n| *n > 0) {
            Some(more) => format!(" and {more} more"),
            None => String::new(),
        };
        let some: Vec<&str> = names.iter().take(MOST).map(String::as_str).collect();
        let some = format!("{}{more}", some.join(", "));
        rows.push(vec![key.clone(), names.len().to_string(), some]);
    }
    write!(anstream::stdout().lock(), "{}", columns(0, &rows))?;
    Ok(())
}

fn where_letter(letter: char, json: bool) -> Step {
    let groups = grouped(|layout| match layout.find_letter(letter) {
        None => "on no key".to_owned(),
        Some((place, Level::Plain)) => place.to_string(),
        Some((place, Level::Shift)) => format!("Shift+{place}"),
        Some((place, Level::AltGr)) => format!("AltGr+{place}"),
        Some((place, Level::ShiftAltGr)) => format!("Shift+AltGr+{place}"),
    });
    print_groups("place", &groups, json)
}

fn where_place(place: Place, json: bool) -> Step {
    let groups = grouped(|layout| {
        if !layout.board().has(place) {
            return format!("no key on {}", layout.board().word());
        }
        let dead = layout.typed(place, Level::Plain).is_some_and(|t| t.dead);
        let legend = layout.legend(place);
        let legend = match legend.as_deref().and_then(|l| l.chars().next()) {
            Some(character) => board::shown(character),
            None => "nothing".to_owned(),
        };
        match (layout.second_legend(place), dead) {
            (Some(second), _) => format!("{legend} {second}"),
            (None, true) => format!("({legend})"),
            (None, false) => legend,
        }
    });
    print_groups("legend", &groups, json)
}
