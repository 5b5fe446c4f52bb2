//! The nearest valid word to a misspelt one.

/// The longest word that is looked up, in bytes.
const LONGEST: usize = 100;

/// The candidate closest to `word`, if one is close enough to be worth suggesting.
///
/// Letters of the wrong case count as right; otherwise about one mistake in three letters is let
/// through. Ties go to the earlier candidate.
pub(crate) fn nearest<'a>(
    word: &str,
    candidates: impl IntoIterator<Item = &'a str>,
) -> Option<&'a str> {
    // Nobody misspells a page of text.
    if word.len() > LONGEST {
        return None;
    }
    let word = word.to_lowercase();
    let limit = word.chars().count().div_ceil(3).max(1);
    candidates
        .into_iter()
        .map(|c| (strsim::osa_distance(&word, &c.to_lowercase()), c))
        .filter(|&(distance, _)| distance <= limit)
        .min_by_key(|&(distance, _)| distance)
        .map(|(_, c)| c)
}
