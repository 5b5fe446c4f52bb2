//! The languages that ship.

pub(super) const ENGLISH: &str = include_str!("lang/en.ftl");

/// Tag and words.
const SHIPPED: [(&str, &str); 18] = [
    ("en", ENGLISH),
    ("fr", include_str!("lang/fr.ftl")),
    ("de", include_str!("lang/de.ftl")),
    ("es", include_str!("lang/es.ftl")),
    ("es-419", include_str!("lang/es-419.ftl")),
    ("pt-BR", include_str!("lang/pt-BR.ftl")),
    ("pt-PT", include_str!("lang/pt-PT.ftl")),
    ("it", include_str!("lang/it.ftl")),
    ("nl", include_str!("lang/nl.ftl")),
    ("cs", include_str!("lang/cs.ftl")),
    ("pl", include_str!("lang/pl.ftl")),
    ("ru", include_str!("lang/ru.ftl")),
    ("uk", include_str!("lang/uk.ftl")),
    ("tr", include_str!("lang/tr.ftl")),
    ("ja", include_str!("lang/ja.ftl")),
    ("ko", include_str!("lang/ko.ftl")),
    ("zh-Hans", include_str!("lang/zh-Hans.ftl")),
    ("zh-Hant", include_str!("lang/zh-Hant.ftl")),
];

/// The language that another one lies over, saying only what differs.
pub(super) fn base(tag: &str) -> Option<&'static str> {
    match tag {
        "es-419" => Some("es"),
        "pt-PT" => Some("pt-BR"),
        _ => None,
    }
}

pub(super) fn all() -> impl Iterator<Item = (&'static str, &'static str)> {
    SHIPPED.into_iter()
}

/// The language that ships whose first part is that of a tag (BCP 47, or a locale's name with its
/// underscores and its encoding behind a dot). Chinese goes by its script, or by the places that
/// write in the traditional one; Spanish and Portuguese by the side of the sea.
pub(super) fn nearest(tag: &str) -> Option<&'static str> {
    let tag = tag.split(['.', '@']).next().unwrap_or_default();
    let parts: Vec<String> = tag.split(['-', '_']).map(str::to_lowercase).collect();
    let first = parts.first()?;
    if first == "zh" || first == "yue" {
        let has = |word: &str| parts.iter().any(|p| p == word);
        let traditional = match (has("hant"), has("hans")) {
            (false, false) => first == "yue" || ["tw", "hk", "mo"].into_iter().any(has),
            (hant, _) => hant,
        };
        return Some(if traditional { "zh-Hant" } else { "zh-Hans" });
    }
    let place = parts.get(1..).into_iter().flatten().find(|p| {
        let is_number = p.bytes().all(|b| b.is_ascii_digit());
        p.len() == 2 || (p.len() == 3 && is_number)
    });
    match (first.as_str(), place.map(String::as_str)) {
        ("es", Some(place)) if !["es", "gq", "ph", "ea", "ic"].contains(&place) => {
            return Some("es-419");
        }
        ("pt", Some(place)) if place != "br" => return Some("pt-PT"),
        _ => {}
    }
    let of = |tag: &&str| tag.split('-').next() == Some(first);
    all().map(|(tag, _)| tag).find(of)
}
