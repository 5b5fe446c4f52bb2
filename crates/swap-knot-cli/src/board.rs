//! A layout drawn as its board, in characters.

use anstyle::Style;
use swap_knot::layout::{Board, Keycap, Level};
use swap_knot::{Layout, Place};
use unicode_width::UnicodeWidthChar;

use crate::table::styled;

/// Columns and lines that a key width takes, borders shared.
const ACROSS: f32 = 4.0;
const DOWN: f32 = 3.0;
/// The row of digits, above which the drawing leaves the function keys out.
const FIRST_ROW: f32 = 1.5;
/// The right end of the writing block, in key widths.
const RIGHT_END: f32 = 15.0;

/// How wide a drawing is, in columns.
pub(crate) const WIDTH: usize = (RIGHT_END * ACROSS) as usize + 1;

/// Borders that meet in one character.
const UP: u8 = 1;
const BELOW: u8 = 2;
const LEFT: u8 = 4;
const RIGHT: u8 = 8;

/// What stands in a column of the drawing.
#[derive(Clone, Default)]
struct Spot {
    borders: u8,
    text: Option<char>,
    /// Covered by a wide character to the left of it.
    covered: bool,
    style: Style,
}

/// The writing block of a layout's board, line by line. Keys that `mark` names are marked with a
/// star and drawn in its style.
pub(crate) fn draw(layout: &Layout, mark: impl Fn(Place) -> Option<Style>) -> Vec<String> {
    let lines = (5.0 * DOWN) as usize + 1;
    let mut grid = vec![vec![Spot::default(); WIDTH]; lines];
    let keys = layout.board().keys().iter();
    for key in keys.filter(|k| k.y >= FIRST_ROW && k.x < RIGHT_END) {
        frame(&mut grid, key);
        let marked = mark(key.place);
        let [upper, lower] = print_on(layout, key.place);
        let (x, y) = corner(key);
        let plain = match key.place.is_writing() {
            true => Style::new(),
            false => Style::new().dimmed(),
        };
        let style = marked.unwrap_or(plain);
        write(&mut grid[y + 1], x + 1, &upper, style);
        write(&mut grid[y + 2], x + 1, &lower, style);
        if marked.is_some() {
            let right = ((key.x + key.width) * ACROSS).round() as usize - 1;
            write(&mut grid[y + 1], right, "*", style);
        }
    }
    grid.iter().map(|line| finish(line)).collect()
}

fn corner(key: &Keycap) -> (usize, usize) {
    let x = (key.x * ACROSS).round() as usize;
    (x, ((key.y - FIRST_ROW) * DOWN).round() as usize)
}

fn frame(grid: &mut [Vec<Spot>], key: &Keycap) {
    let (x, y) = corner(key);
    let right = ((key.x + key.width) * ACROSS).round() as usize;
    let bottom = y + (key.height * DOWN).round() as usize;
    // The upper half of a high Enter is wider: it begins where the key before it ends.
    let high = key.place == Place::Enter && key.height > 1.0;
    for (line, from) in [(y, if high { x - 1 } else { x }), (bottom, x)] {
        for (column, spot) in grid[line].iter_mut().enumerate().take(right + 1).skip(from) {
            let (left, onward) = (column > from, column < right);
            spot.borders |= if left { LEFT } else { 0 } | if onward { RIGHT } else { 0 };
        }
    }
    let left_from = if high { y + DOWN as usize } else { y };
    for (line, row) in grid.iter_mut().enumerate().take(bottom + 1).skip(y) {
        for (column, y) in [(x, left_from), (right, y)] {
            if line < y {
                continue;
            }
            let spot = &mut row[column].borders;
            *spot |= if line > y { UP } else { 0 } | if line < bottom { BELOW } else { 0 };
        }
    }
}

/// The two lines printed on a key: Shift above; plain and AltGr below.
fn print_on(layout: &Layout, place: Place) -> [String; 2] {
    if !place.is_writing() {
        return [name_of(layout.board(), place).to_owned(), String::new()];
    }
    let typed = |level| layout.typed(place, level);
    let show = |level| typed(level).map_or(String::new(), |t| shown(t.character));
    let plain = typed(Level::Plain);
    let legend = layout.legend(place).unwrap_or_default();
    let capital = plain.is_some_and(|t| !legend.starts_with(t.character));
    let upper = if capital { legend } else { show(Level::Shift) };
    let beside = layout
        .second_legend(place)
        .filter(char::is_ascii_alphabetic);
    let lower = match (plain, beside) {
        (Some(t), _) if t.dead => format!("({})", shown(t.character)),
        // The Latin letter of a board for two scripts stands where AltGr would.
        (_, Some(latin)) if capital => format!("  {latin}"),
        (_, Some(latin)) => format!("{} {latin}", show(Level::Plain)),
        _ if capital => format!("  {}", show(Level::AltGr)),
        _ => format!("{} {}", show(Level::Plain), show(Level::AltGr)),
    };
    [upper, lower]
}

/// A character as it can be shown alone: marks that combine get a circle to sit on.
pub(crate) fn shown(character: char) -> String {
    match character.width() {
        Some(0) => format!("◌{character}"),
        _ if character.is_whitespace() => String::new(),
        _ => character.to_string(),
    }
}

/// What is printed on the keys that write nothing, short enough for their size.
fn name_of(board: Board, place: Place) -> &'static str {
    match place {
        Place::Backspace if board == Board::Jis => "⌫",
        Place::Backspace => "⌫ back",
        Place::Tab => "tab",
        Place::CapsLock => "caps",
        Place::Enter => "⏎",
        Place::ShiftLeft | Place::ShiftRight => "⇧",
        Place::ControlLeft | Place::ControlRight => "ctrl",
        Place::AltLeft => "alt",
        Place::AltRight => "altg",
        Place::MetaLeft | Place::MetaRight => "meta",
        Place::ContextMenu => "menu",
        Place::Lang1 => "한영",
        Place::Lang2 => "한자",
        Place::Convert => "変換",
        Place::NonConvert => "無変",
        Place::KanaMode => "かな",
        _ => "",
    }
}

fn write(line: &mut [Spot], mut column: usize, text: &str, style: Style) {
    for character in text.chars() {
        let width = character.width().unwrap_or(1);
        if width == 0 {
            // A mark sits on what was written before it: it is left to the circle alone.
            continue;
        }
        let free = line.get(column..column + width);
        if free.is_none_or(|spots| spots.iter().any(|s| s.borders != 0)) {
            return;
        }
        line[column].text = Some(character);
        line[column].style = style;
        if width == 2 {
            line[column + 1].covered = true;
        }
        column += width;
    }
}

fn finish(line: &[Spot]) -> String {
    let mut out = String::new();
    let mut run = String::new();
    let mut style = Style::new();
    let mut flush = |run: &mut String, style: Style| {
        if !run.is_empty() {
            out.push_str(&if style.is_plain() {
                std::mem::take(run)
            } else {
                styled(style, &std::mem::take(run))
            });
        }
    };
    for spot in line.iter().filter(|s| !s.covered) {
        let (character, own) = match spot.text {
            Some(text) => (text, spot.style),
            None => (border(spot.borders), Style::new()),
        };
        if own != style {
            flush(&mut run, style);
            style = own;
        }
        run.push(character);
    }
    flush(&mut run, style);
    out
}

fn border(borders: u8) -> char {
    const SIGNS: [char; 16] = [
        ' ', '│', '│', '│', '─', '┘', '┐', '┤', '─', '└', '┌', '├', '─', '┴', '┬', '┼',
    ];
    SIGNS[usize::from(borders)]
}
