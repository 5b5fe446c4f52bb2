//! How wide text is, and making it fit.

/// The fonts that drawings ask for, the one that `png` brings along first.
pub(crate) const FAMILY: &str =
    "DejaVu Sans, Noto Sans CJK JP, Noto Sans CJK SC, Noto Sans, sans-serif";

/// The width of a character in ems, as wide as common sans-serif faces make it (DejaVu Sans).
fn em(character: char) -> f32 {
    match character {
        'i' | 'j' | 'l' | '\'' => 0.29,
        '|' | 'I' | '.' | ',' | ':' | ';' | ' ' | '!' => 0.36,
        'f' | 'r' | 't' | '(' | ')' | '[' | ']' | '-' | '/' => 0.41,
        'm' | '%' | '@' => 0.98,
        'w' | '+' | '=' | '<' | '>' | '~' | '^' | '#' | '_' => 0.84,
        'M' | 'W' => 0.99,
        'c' | 'k' | 's' | 'v' | 'x' | 'y' | 'z' | '?' => 0.56,
        '0'..='9' | 'a'..='z' => 0.64,
        'E' | 'F' | 'J' | 'L' | 'P' | 'S' | 'T' | 'Y' => 0.63,
        'A'..='Z' => 0.77,
        '\u{0300}'..='\u{036F}' => 0.0,
        '\u{1100}'..='\u{11FF}' | '\u{2E80}'..='\u{9FFF}' | '\u{AC00}'..='\u{D7AF}' => 1.0,
        '\u{F900}'..='\u{FAFF}' | '\u{FF00}'..='\u{FF60}' => 1.0,
        '\u{0400}'..='\u{052F}' => 0.7,
        _ => 0.68,
    }
}

/// The width of a text in pixels.
pub(crate) fn width(text: &str, size: f32, bold: bool) -> f32 {
    let ems: f32 = text.chars().map(em).sum();
    ems * size * if bold { 1.1 } else { 1.0 }
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
    let mut cut = String::new();
    let room = room - width("…", least, bold);
    for character in text.chars() {
        cut.push(character);
        if width(&cut, least, bold) > room {
            cut.pop();
            break;
        }
    }
    (format!("{}…", cut.trim_end()), least)
}

/// A text in lines that fit into a width; the last one is cut short if there are too many.
pub(crate) fn wrap(text: &str, size: f32, room: f32, most: usize) -> Vec<String> {
    let mut lines: Vec<String> = Vec::new();
    let mut words: Vec<String> = Vec::new();
    for word in text.split_whitespace() {
        // Japanese and Chinese break anywhere.
        if width(word, size, false) > room && !word.is_ascii() {
            words.extend(word.chars().map(String::from));
        } else {
            words.push(word.to_owned());
        }
    }
    let glue = |a: &str, b: &str| match (a.chars().last(), b.chars().next()) {
        (Some(x), Some(y)) if em(x) >= 1.0 && em(y) >= 1.0 => "",
        _ => " ",
    };
    for word in words {
        let longer = lines.last().map(|l| format!("{l}{}{word}", glue(l, &word)));
        match (longer, lines.last_mut()) {
            (Some(longer), Some(line)) if width(&longer, size, false) <= room => *line = longer,
            _ => lines.push(word),
        }
    }
    if lines.len() > most {
        let rest = lines.split_off(most - 1).join(" ");
        lines.push(fit(&rest, size, size, room, false).0);
    }
    for line in &mut lines {
        *line = fit(line, size, size, room, false).0;
    }
    lines
}
