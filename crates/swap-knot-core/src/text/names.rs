//! What can be the name of something in a sheet.

/// Whether a text can name an action, a situation, a group, a preset or a game.
pub(crate) fn is_name(text: &str) -> bool {
    let fits = |b: u8| b.is_ascii_lowercase() || b.is_ascii_digit() || b == b'-';
    text.len() <= 64 && text.starts_with(|c: char| c.is_ascii_lowercase()) && text.bytes().all(fits)
}
