//! Names from habit: what people write before they know ours, and what they mean by it.
//!
//! One table behind every "did you mean": it answers with the right input or with several to choose
//! from, never with a guess. What a maker prints on a pad says nothing here; it is met with the pad's
//! inputs by place.

use super::{Input, Letter, MouseButton, PadButton, Place, Stick};

/// Whole words, and what they mean; written as [`plain`] writes them.
const WORDS: &[(&str, &[&str])] = &[
    ("altgr", &["AltRight"]),
    ("altgraph", &["AltRight"]),
    ("apps", &["ContextMenu"]),
    ("back", &["mouse:back", "pad:center-left", "Backspace"]),
    ("break", &["Pause"]),
    ("click", &["mouse:left"]),
    ("command", &["Meta", "Main"]),
    ("cmd", &["Meta", "Main"]),
    ("control", &["Ctrl"]),
    ("ctl", &["Ctrl"]),
    ("down", &["ArrowDown", "pad:down", "wheel:down"]),
    ("forward", &["mouse:forward"]),
    ("grave", &["Backquote"]),
    ("guide", &["pad:center"]),
    ("home", &["Home", "pad:center"]),
    ("hyphen", &["Minus"]),
    ("left", &["ArrowLeft", "pad:left", "mouse:left"]),
    ("lmb", &["mouse:left"]),
    ("menu", &["ContextMenu", "pad:center-right"]),
    ("middleclick", &["mouse:middle"]),
    ("mmb", &["mouse:middle"]),
    ("mouse", &["mouse:move"]),
    ("mousemotion", &["mouse:move"]),
    ("mouselook", &["mouse:move"]),
    ("next", &["PageDown"]),
    ("opt", &["Alt"]),
    ("option", &["Alt"]),
    ("options", &["pad:center-right"]),
    ("plus", &["NumpadAdd", "letter:+"]),
    ("prior", &["PageUp"]),
    ("right", &["ArrowRight", "pad:right", "mouse:right"]),
    ("rightclick", &["mouse:right"]),
    ("rmb", &["mouse:right"]),
    ("scroll", &["wheel:up", "wheel:down"]),
    ("select", &["pad:center-left"]),
    ("start", &["pad:center-right"]),
    ("super", &["Meta"]),
    ("sysrq", &["PrintScreen"]),
    ("tilde", &["Backquote"]),
    ("up", &["ArrowUp", "pad:up", "wheel:up"]),
    ("wheel", &["wheel:up", "wheel:down"]),
    ("win", &["Meta"]),
    ("windows", &["Meta"]),
];

/// Parts of words that are called otherwise here.
const PARTS: &[(&str, &str)] = &[
    ("esc", "escape"),
    ("return", "enter"),
    ("spacebar", "space"),
    ("del", "delete"),
    ("ins", "insert"),
    ("pgup", "pageup"),
    ("pgdown", "pagedown"),
    ("pgdn", "pagedown"),
    ("bksp", "backspace"),
    ("caps", "capslock"),
    ("prtscn", "printscreen"),
    ("prtscr", "printscreen"),
    ("prtsc", "printscreen"),
    ("printscrn", "printscreen"),
    ("ctrl", "control"),
    ("windows", "meta"),
    ("win", "meta"),
    ("super", "meta"),
    ("command", "meta"),
    ("cmd", "meta"),
    ("option", "alt"),
    ("keypad", "numpad"),
    ("num", "numpad"),
    ("kp", "numpad"),
    ("mwheel", "wheel"),
    ("mousewheel", "wheel"),
    ("scroll", "wheel"),
    ("bumper", "shoulder"),
    ("dpad", "pad"),
    ("gamepad", "pad"),
    ("thumbstick", "stick"),
    ("analog", "stick"),
    ("joystick", "stick"),
];

/// The signs on keys that are named by word, and the places of those keys on a US board.
const SIGNS: &[(char, Place)] = &[
    ('`', Place::Backquote),
    ('~', Place::Backquote),
    ('-', Place::Minus),
    ('=', Place::Equal),
    ('[', Place::BracketLeft),
    (']', Place::BracketRight),
    ('\\', Place::Backslash),
    (';', Place::Semicolon),
    ('\'', Place::Quote),
    (',', Place::Comma),
    ('.', Place::Period),
    ('/', Place::Slash),
];

/// What somebody who writes `word` may mean: none, one, or a few to choose from.
pub(super) fn meant(word: &str) -> Vec<Input> {
    let mut chars = word.chars();
    if let (Some(only), None) = (chars.next(), chars.next()) {
        return sign(only);
    }
    let word = plain(word);
    if let Some((_, names)) = WORDS.iter().find(|(habit, _)| *habit == word) {
        return names.iter().filter_map(|n| n.parse().ok()).collect();
    }
    named(&word)
        .or_else(|| mouse_number(&word))
        .unwrap_or_default()
}

/// What stands on a pad where a word is that only some maker's pads bear: the inputs by place.
pub(super) fn by_place(word: &str) -> Vec<Input> {
    pad(&plain(word)).unwrap_or_default()
}

/// Without case, spaces and marks, so that `Page Up`, `page_up` and `PageUp` are one.
fn plain(word: &str) -> String {
    let kept = word.chars().filter(|c| c.is_alphanumeric());
    kept.flat_map(char::to_lowercase).collect()
}

/// A single character: the key at its place, and the key that types it.
fn sign(sign: char) -> Vec<Input> {
    let upper = sign.to_ascii_uppercase();
    let names = [
        format!("Key{upper}"),
        format!("Digit{sign}"),
        format!("Numpad{sign}"),
    ];
    let keys = names.iter().filter_map(|n| Place::named(n));
    let others = SIGNS.iter().filter(|(s, _)| *s == sign).map(|(_, p)| *p);
    let letter = Letter::new(sign).filter(|_| !sign.is_ascii_digit());
    (keys.chain(others).map(Input::Key))
        .chain(letter.map(Input::Letter))
        .collect()
}

/// An input that is called so, with the parts of its name in another order or by another word.
fn named(word: &str) -> Option<Vec<Input>> {
    let mut ways = vec![word.to_owned()];
    for (habit, ours) in PARTS {
        for way in ways.clone() {
            for (rest, before) in [
                (way.strip_prefix(habit), false),
                (way.strip_suffix(habit), true),
            ] {
                match (rest, before) {
                    (Some(rest), true) => ways.push(format!("{rest}{ours}")),
                    (Some(rest), false) => ways.push(format!("{ours}{rest}")),
                    (None, _) => {}
                }
            }
        }
    }
    // The side and the direction stand behind: `LeftShift`, `lshift`, `left trigger`.
    for (side, ours) in [
        ("left", "left"),
        ("right", "right"),
        ("l", "left"),
        ("r", "right"),
        ("up", "up"),
        ("down", "down"),
    ] {
        for way in ways.clone() {
            if let Some(rest) = way.strip_prefix(side).filter(|r| r.len() > 1) {
                ways.push(format!("{rest}{ours}"));
            }
        }
    }
    for way in ways.clone() {
        if let Some(rest) = way.strip_suffix("key") {
            ways.extend([rest.to_owned(), format!("key{rest}")]);
        }
        ways.extend(way.strip_suffix("arrow").map(|rest| format!("arrow{rest}")));
        ways.push(format!("pad{way}"));
        ways.push(format!("mouse{way}"));
    }
    let mut found: Vec<Input> = Vec::new();
    for input in Input::all_named() {
        if ways.contains(&plain(&input.to_string())) && !matches!(input, Input::Hid(_)) {
            found.push(input);
        }
    }
    (!found.is_empty()).then_some(found)
}

/// Mouse buttons by number: programs count from nought or from one, and not all in the same order.
fn mouse_number(word: &str) -> Option<Vec<Input>> {
    let prefixes = [
        "mousebutton",
        "mouse",
        "button",
        "mb",
        "xbutton",
        "x",
        "thumb",
    ];
    let (prefix, number) = prefixes
        .iter()
        .find_map(|p| Some((*p, word.strip_prefix(p)?)))?;
    let number: u8 = number.parse().ok()?;
    let side = matches!(prefix, "xbutton" | "x" | "thumb");
    let buttons: &[MouseButton] = match (side, number) {
        (true, 1) | (false, 4) => &[MouseButton::Back],
        (true, 2) | (false, 5) => &[MouseButton::Forward],
        (false, 0..=3) => &MouseButton::NAMED[..3],
        _ => return None,
    };
    Some(buttons.iter().copied().map(Input::MouseButton).collect())
}

/// A part of a pad by what some maker prints on it: by place, since makers disagree.
fn pad(word: &str) -> Option<Vec<Input>> {
    let buttons = |all: &[PadButton]| {
        all.iter()
            .copied()
            .map(Input::PadButton)
            .collect::<Vec<_>>()
    };
    let mut chars = word.chars();
    let (first, second) = (chars.next()?, chars.next());
    let marks = chars.next().is_none()
        && (second.is_some_and(|c| "123bts".contains(c)) && "lr".contains(first));
    if marks || matches!(word, "zl" | "zr") {
        let left = word.contains('l');
        let (shoulder, trigger, click, stick) = match left {
            true => (
                PadButton::ShoulderLeft,
                PadButton::TriggerLeft,
                PadButton::StickLeftClick,
                Stick::LEFT,
            ),
            false => (
                PadButton::ShoulderRight,
                PadButton::TriggerRight,
                PadButton::StickRightClick,
                Stick::RIGHT,
            ),
        };
        let mut inputs = buttons(&[shoulder, trigger, click]);
        inputs.push(Input::PadStick(stick));
        return Some(inputs);
    }
    let face = ["button", "gamepad", "pad"]
        .iter()
        .find_map(|p| word.strip_prefix(p).or_else(|| word.strip_suffix(p)))?;
    (!face.is_empty() && !face.starts_with(|c: char| c.is_ascii_digit())).then(|| {
        buttons(&[
            PadButton::South,
            PadButton::East,
            PadButton::West,
            PadButton::North,
        ])
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn said(word: &str) -> String {
        let names: Vec<String> = meant(word).iter().map(Input::to_string).collect();
        names.join(" ")
    }

    #[test]
    fn names_from_habit_are_met_with_the_right_input() {
        for (word, names) in [
            ("Esc", "Escape"),
            ("Return", "Enter"),
            ("LMB", "mouse:left"),
            ("right click", "mouse:right"),
            ("x", "KeyX letter:x"),
            ("1", "Digit1 Numpad1"),
            (";", "Semicolon letter:;"),
            ("up", "ArrowUp pad:up wheel:up"),
            ("Left Arrow", "ArrowLeft"),
            ("up arrow", "ArrowUp"),
            ("LeftShift", "ShiftLeft"),
            ("lshift", "ShiftLeft"),
            ("LCtrl", "ControlLeft"),
            ("right_alt", "AltRight"),
            ("LWin", "MetaLeft"),
            ("Control", "Ctrl"),
            ("Num 4", "Numpad4"),
            ("kp4", "Numpad4"),
            ("Numpad Enter", "NumpadEnter"),
            ("PgDn", "PageDown"),
            ("Page Up", "PageUp"),
            ("Del", "Delete"),
            ("Spacebar", "Space"),
            ("f 5", "F5"),
            ("w key", "KeyW"),
            ("mouse1", "mouse:left mouse:right mouse:middle"),
            ("Mouse 4", "mouse:back"),
            ("XButton2", "mouse:forward"),
            ("scroll up", "wheel:up"),
            ("MWheelDown", "wheel:down"),
            ("left trigger", "pad:trigger-left"),
            ("Right Bumper", "pad:shoulder-right"),
            ("dpad_up", "pad:up"),
            ("left stick", "pad:stick-left"),
            ("Start", "pad:center-right"),
        ] {
            assert_eq!(said(word), names, "{word}");
        }
    }

    fn place(word: &str) -> String {
        let names: Vec<String> = by_place(word).iter().map(Input::to_string).collect();
        names.join(" ")
    }

    #[test]
    fn marks_of_some_maker_are_met_by_place() {
        let faces = "pad:south pad:east pad:west pad:north";
        for word in [
            "A button",
            "pad:a",
            "pad:x",
            "gamepad y",
            "pad:round",
            "button b",
        ] {
            assert_eq!(
                (said(word), place(word)),
                (String::new(), faces.to_owned()),
                "{word}"
            );
        }
        assert_eq!(
            place("RT"),
            "pad:shoulder-right pad:trigger-right pad:stick-right-click pad:stick-right"
        );
        assert_eq!(
            place("l1"),
            "pad:shoulder-left pad:trigger-left pad:stick-left-click pad:stick-left"
        );
    }

    #[test]
    fn every_name_of_ours_means_itself_and_nonsense_means_nothing() {
        for input in Input::all_named().filter(|i| !matches!(i, Input::Hid(_))) {
            let name = input.to_string();
            let habit = WORDS.iter().any(|(word, _)| *word == plain(&name));
            assert!(
                habit || meant(&name).contains(&input),
                "{name}: {}",
                said(&name)
            );
        }
        for word in ["", "qwerty", "anchor", "x9", "mouse77", "lx"] {
            assert_eq!(
                (said(word), place(word)),
                (String::new(), String::new()),
                "{word}"
            );
        }
        for (word, names) in WORDS {
            assert_eq!(plain(word), *word);
            assert!(names.iter().all(|n| n.parse::<Input>().is_ok()), "{word}");
        }
    }
}
