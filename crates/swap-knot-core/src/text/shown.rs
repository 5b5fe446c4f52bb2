//! Texts of strangers, as they may stand among others.

use std::borrow::Cow;

/// The most characters that are shown of one.
const MOST: usize = 80;

/// A text that came from a friend, a file or a mod, fit to stand in a line of others: on one line, without
/// what would turn the rest of the line round (the embeddings, overrides and isolates of UAX #9) or work a
/// terminal, and no longer than anybody reads. What is fine already is lent.
pub(crate) fn shown(text: &str) -> Cow<'_, str> {
    let turns = |c: char| matches!(c, '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}');
    let breaks = |c: char| c.is_control() || matches!(c, '\u{2028}' | '\u{2029}');
    let is_fine = !text.chars().any(|c| turns(c) || breaks(c));
    if is_fine && text.chars().nth(MOST).is_none() {
        return Cow::Borrowed(text);
    }
    let plain = text.chars().filter(|c| !turns(*c));
    let mut plain = plain.map(|c| if breaks(c) { ' ' } else { c });
    let mut out: String = plain.by_ref().take(MOST).collect();
    if plain.next().is_some() {
        out.push('…');
    }
    Cow::Owned(out)
}
