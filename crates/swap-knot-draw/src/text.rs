//! How wide text is, and making it fit: smaller, over more lines, with a hyphen, cut short at last.

use hypher::Lang;
use swap_knot::Words;
use unicode_segmentation::UnicodeSegmentation;

use crate::fonts;

/// The fonts that drawings ask for, the one whose widths are known first.
pub(crate) const FAMILY: &str =
    "DejaVu Sans, Noto Sans CJK JP, Noto Sans CJK SC, Noto Sans, sans-serif";

/// By how much the size goes down while a text is made to fit, in pixels.
const STEP: f32 = 0.5;
/// How much smaller whole words are made before one is broken.
const LITTLE: f32 = 0.88;
/// A word is not broken nearer to its ends than so many letters.
const LEAST_PART: usize = 3;

/// The width of a text in pixels, as its font makes it.
pub(crate) fn width(text: &str, size: f32, bold: bool) -> f32 {
    text.chars().map(|c| fonts::advance(c, bold)).sum::<f32>() * size
}

/// A text and a size at which it fits into a width: smaller down to `least`, then cut short.
pub(crate) fn fit(text: &str, size: f32, least: f32, room: f32, bold: bool) -> (String, f32) {
    let whole = width(text, size, bold);
    if whole <= room {
        return (text.to_owned(), size);
    }
    let smaller = (size * room / whole).max(least);
    if width(text, smaller, bold) <= room + 0.01 {
        return (text.to_owned(), smaller);
    }
    (cut(text, least, room, bold), least)
}

/// As much of a text as fits, with a sign that there is more of it.
fn cut(text: &str, size: f32, room: f32, bold: bool) -> String {
    let room = room - width("…", size, bold);
    let (mut kept, mut used) = (String::new(), 0.0);
    for cluster in text.graphemes(true) {
        used += width(cluster, size, bold);
        if used > room {
            break;
        }
        kept.push_str(cluster);
    }
    format!("{}…", kept.trim_end())
}

/// A text in lines, and the size of all of them.
pub(crate) struct Block {
    pub(crate) lines: Vec<String>,
    pub(crate) size: f32,
}

/// Room for a text: so wide, and so many lines.
#[derive(Clone, Copy)]
pub(crate) struct Room {
    pub(crate) width: f32,
    pub(crate) lines: usize,
    pub(crate) bold: bool,
    /// The language whose words are broken.
    pub(crate) language: Option<Lang>,
}

/// The language of some words, if its syllables are known.
pub(crate) fn language(words: &Words) -> Option<Lang> {
    let mut code = words.language().bytes();
    Lang::from_iso([code.next()?, code.next()?])
}

/// Sets a text in lines that fit into a room, as large as it can be between two sizes. Whole words
/// are made a little smaller before one is broken with a hyphen, and much smaller after; the text is
/// cut short only where nothing else helps.
pub(crate) fn block(text: &str, most: f32, least: f32, room: Room) -> Block {
    let little = (most * LITTLE).max(least);
    for (from, to) in [(most, little), (little, least)] {
        let sizes =
            || std::iter::successors(Some(from), |s| Some(s - STEP)).take_while(|s| *s >= to);
        for size in sizes() {
            if let Some(lines) = whole_words(text, size, room) {
                return Block { lines, size };
            }
        }
        for size in sizes() {
            let lines = broken(text, size, room);
            if lines.len() <= room.lines {
                return Block { lines, size };
            }
        }
    }
    let mut lines = broken(text, least, room);
    // Where a line was broken between two words there was a space.
    let rest = lines.split_off(room.lines.saturating_sub(1));
    let rest = rest.into_iter().reduce(|rest, line| {
        let is_broken_word = !text.contains(&format!("{rest} {line}"));
        let space = if is_broken_word { "" } else { " " };
        format!("{rest}{space}{line}")
    });
    let rest = rest.unwrap_or_default();
    lines.push(cut(&rest, least, room.width, room.bold));
    Block { lines, size: least }
}

/// The largest size at which whole words fit, for several texts that are to have one size.
pub(crate) fn common_size<'a>(
    texts: impl IntoIterator<Item = &'a str>,
    most: f32,
    least: f32,
    room: Room,
) -> f32 {
    let sizes = texts
        .into_iter()
        .map(|text| block(text, most, least, room).size);
    sizes.fold(most, f32::min)
}

/// A piece of a text that is not broken, unless it has to be.
struct Word<'a> {
    text: &'a str,
    /// Whether a space stands before it.
    spaced: bool,
}

/// Where a text may be broken: at spaces, behind hyphens and slashes, and around every letter of a
/// script that is written without spaces.
fn words(text: &str) -> Vec<Word<'_>> {
    let mut out = Vec::new();
    for part in text.split_whitespace() {
        let mut spaced = !out.is_empty();
        let mut start = 0;
        let clusters: Vec<(usize, &str)> = part.grapheme_indices(true).collect();
        for pair in clusters.windows(2) {
            let [(_, before), (at, after)] = [pair[0], pair[1]];
            if may_break(before, after) {
                let text = &part[start..at];
                out.push(Word { text, spaced });
                (start, spaced) = (at, false);
            }
        }
        out.push(Word {
            text: &part[start..],
            spaced,
        });
    }
    out
}

fn may_break(before: &str, after: &str) -> bool {
    let (Some(last), Some(first)) = (before.chars().next(), after.chars().next()) else {
        return false;
    };
    // No line begins with a closing sign or ends with an opening one (JIS X 4051, in short).
    let closes = "、。，．・：；？！）」』】〕ー…々っゃゅょッャュョ)]}.,:;!?";
    let opens = "（「『【〔([{";
    if closes.contains(first) || opens.contains(last) {
        return false;
    }
    matches!(last, '-' | '/' | '‐' | '–') || fonts::is_unspaced(last) || fonts::is_unspaced(first)
}

/// The lines of a text whose words are left whole; none where that does not fit.
fn whole_words(text: &str, size: f32, room: Room) -> Option<Vec<String>> {
    let mut lines: Vec<String> = Vec::new();
    for word in words(text) {
        if width(word.text, size, room.bold) > room.width {
            return None;
        }
        append(&mut lines, &word, size, room);
    }
    (lines.len() <= room.lines).then_some(lines)
}

/// Puts a word behind the last line, or onto one of its own.
fn append(lines: &mut Vec<String>, word: &Word<'_>, size: f32, room: Room) {
    if let Some(line) = lines.last_mut() {
        let space = if word.spaced { " " } else { "" };
        let longer = format!("{line}{space}{}", word.text);
        if width(&longer, size, room.bold) <= room.width {
            *line = longer;
            return;
        }
    }
    lines.push(word.text.to_owned());
}

/// The lines of a text whose words are broken with a hyphen where they are too long.
fn broken(text: &str, size: f32, room: Room) -> Vec<String> {
    let fits = |text: &str| width(text, size, room.bold) <= room.width;
    let mut lines: Vec<String> = Vec::new();
    for mut word in words(text) {
        while !fits(word.text) {
            let line = lines.last().map_or("", String::as_str);
            let space = if word.spaced && !line.is_empty() {
                " "
            } else {
                ""
            };
            // What goes behind the line there is, or else what fits onto an empty one.
            let behind = head(word.text, room, |head| {
                fits(&format!("{line}{space}{head}-"))
            });
            let (head, behind) = match behind {
                Some(head) if !line.is_empty() => (head, true),
                _ => match head_or_one(word.text, room, |head| fits(&format!("{head}-"))) {
                    head if head.len() == word.text.len() => break,
                    head => (head, false),
                },
            };
            let part = format!("{head}-");
            match lines.last_mut() {
                Some(line) if behind => {
                    line.push_str(space);
                    line.push_str(&part);
                }
                _ => lines.push(part),
            }
            word = Word {
                text: &word.text[head.len()..],
                spaced: false,
            };
            // The rest stands on a line of its own.
            lines.push(String::new());
        }
        append(&mut lines, &word, size, room);
    }
    lines.retain(|line| !line.is_empty());
    lines
}

/// The longest beginning of a word that fits and may stand apart from its rest: whole syllables where
/// they are known, else some letters.
fn head(word: &str, room: Room, fits: impl Fn(&str) -> bool) -> Option<&str> {
    let mut end = 0;
    let syllables = room
        .language
        .into_iter()
        .flat_map(|lang| hypher::hyphenate(word, lang));
    let ends = syllables.map(|syllable| {
        end += syllable.len();
        end
    });
    let ends: Vec<usize> = ends.filter(|end| *end < word.len()).collect();
    if let Some(end) = ends.into_iter().rev().find(|&end| fits(&word[..end])) {
        return Some(&word[..end]);
    }
    if room.language.is_some() {
        return None;
    }
    let clusters: Vec<(usize, &str)> = word.grapheme_indices(true).collect();
    let last = clusters.len().checked_sub(LEAST_PART)?;
    let mut ends = (LEAST_PART..=last).rev().map(|n| &word[..clusters[n].0]);
    ends.find(|head| fits(head))
}

/// The same, or as much as there is room for, a letter at the least.
fn head_or_one(word: &str, room: Room, fits: impl Fn(&str) -> bool) -> &str {
    if let Some(head) = head(word, room, &fits) {
        return head;
    }
    let ends = word
        .grapheme_indices(true)
        .skip(1)
        .map(|(at, _)| &word[..at]);
    let fitting = ends.clone().take_while(|head| fits(head)).last();
    fitting.or_else(|| ends.clone().next()).unwrap_or(word)
}

/// How many letters a reader sees.
pub(crate) fn letters(text: &str) -> usize {
    text.graphemes(true).count()
}
