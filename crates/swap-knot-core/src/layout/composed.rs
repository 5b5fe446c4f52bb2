//! What the dead keys of a layout make of a letter.

use unicode_normalization::char::decompose_canonical;

use super::{Layout, Level, Typed};
use crate::input::Place;

/// Whether a character at a place may come of a dead key of the layout and what the place types: it
/// says nothing of the layout then.
pub(super) fn may_be_composed(layout: &Layout, place: Place, character: char) -> bool {
    let own: Vec<Typed> = typed(layout, place).collect();
    let keys = Place::WRITING.into_iter().flat_map(|p| typed(layout, p));
    let dead: Vec<Typed> = keys.filter(|t| t.dead).collect();
    // A dead key twice, or before Space, writes its mark.
    let mark = |t: &Typed| t.dead && t.character == character;
    if own.iter().any(mark) || (place == Place::Space && !dead.is_empty()) {
        return true;
    }
    let mut parts = Vec::new();
    decompose_canonical(character, |part| parts.push(part));
    let base = parts[0];
    let types = |test: &dyn Fn(char) -> bool| own.iter().any(|t| !t.dead && test(t.character));
    let mut dead = dead.iter().map(|t| combining(t.character));
    match parts.get(1) {
        Some(mark) => {
            types(&|c| c == base)
                && dead.any(|made| made.is_none_or(|combining| combining == *mark))
        }
        // Strokes, currencies, Greek letters: what Unicode does not take apart.
        None => {
            let of_letter = is_latin_or_sign(character) && types(&|c| c.is_ascii_alphabetic());
            of_letter && dead.any(|made| made.is_none())
        }
    }
}

fn typed(layout: &Layout, place: Place) -> impl Iterator<Item = Typed> + '_ {
    Level::ALL
        .into_iter()
        .filter_map(move |level| layout.typed(place, level))
}

/// Latin and Greek letters beyond ASCII, and the signs of currencies (Unicode blocks).
const fn is_latin_or_sign(character: char) -> bool {
    matches!(character, '\u{A0}'..='\u{24F}' | '\u{370}'..='\u{3FF}' | '\u{1E00}'..='\u{1FFF}' | '\u{20A0}'..='\u{20CF}')
}

/// The combining mark (Unicode) of what a dead key has printed on it; none where it makes letters
/// that are not taken apart into a letter and a mark.
fn combining(mark: char) -> Option<char> {
    Some(match mark {
        '`' => '\u{0300}',
        '´' => '\u{0301}',
        '^' => '\u{0302}',
        '~' => '\u{0303}',
        '¯' => '\u{0304}',
        '˘' => '\u{0306}',
        '˙' => '\u{0307}',
        '¨' => '\u{0308}',
        '\u{02C0}' => '\u{0309}',
        '˚' => '\u{030A}',
        '˝' => '\u{030B}',
        'ˇ' => '\u{030C}',
        '\u{02F5}' => '\u{030F}',
        '᾿' => '\u{0313}',
        '῾' => '\u{0314}',
        '\u{02BC}' => '\u{031B}',
        '.' => '\u{0323}',
        ',' => '\u{0326}',
        '¸' => '\u{0327}',
        '˛' => '\u{0328}',
        'ͺ' => '\u{0345}',
        '゛' => '\u{3099}',
        '゜' => '\u{309A}',
        _ => return None,
    })
}
