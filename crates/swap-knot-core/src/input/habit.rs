//! Names from habit: what people write before they know ours, and what they mean by it.
//!
//! One table behind every "did you mean": it answers with the right input or with several to choose
//! from, never with a guess. A name is taken apart into words, in whatever order and spelling they come;
//! an input is meant whose own words are all of them, and of several those that have the fewest besides.
//! What a maker prints on the four buttons of a pad says nothing here; it is met with all of them, by
//! place.

use std::collections::{HashMap, HashSet};
use std::sync::LazyLock;

use super::{Input, Letter, MouseButton, PadButton, Place};

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
    ("forwardslash", &["Slash"]),
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
    ("dpad", &["pad:up", "pad:down", "pad:left", "pad:right"]),
    ("hat", &["pad:up", "pad:down", "pad:left", "pad:right"]),
    ("isoleft", &["IntlBackslash"]),
    ("joystick", &["pad:stick-left", "pad:stick-right"]),
    ("l1", &["pad:shoulder-left"]),
    ("l2", &["pad:trigger-left"]),
    ("l3", &["pad:stick-left-click"]),
    ("lb", &["pad:shoulder-left"]),
    ("ls", &["pad:stick-left", "pad:stick-left-click"]),
    ("lt", &["pad:trigger-left"]),
    ("mode", &["pad:center"]),
    ("oem102", &["IntlBackslash"]),
    ("pov", &["pad:up", "pad:down", "pad:left", "pad:right"]),
    ("r1", &["pad:shoulder-right"]),
    ("r2", &["pad:trigger-right"]),
    ("r3", &["pad:stick-right-click"]),
    ("rb", &["pad:shoulder-right"]),
    ("rs", &["pad:stick-right", "pad:stick-right-click"]),
    ("rt", &["pad:trigger-right"]),
    ("thumbl", &["pad:stick-left-click"]),
    ("thumbr", &["pad:stick-right-click"]),
    ("tl", &["pad:shoulder-left"]),
    ("tl2", &["pad:trigger-left"]),
    ("tr", &["pad:shoulder-right"]),
    ("tr2", &["pad:trigger-right"]),
    ("zl", &["pad:trigger-left"]),
    ("zr", &["pad:trigger-right"]),
];

/// What a word is called here; several where it may be several.
const SYNONYMS: &[(&str, &[&str])] = &[
    ("alpha", &["digit"]),
    ("analog", &["stick"]),
    ("analogue", &["stick"]),
    ("apostrophe", &["quote"]),
    ("asterisk", &["multiply"]),
    ("backtick", &["backquote"]),
    ("bksp", &["backspace"]),
    ("bottom", &["south", "down"]),
    ("btn", &["button"]),
    ("bumper", &["shoulder"]),
    ("caps", &["capslock"]),
    ("capital", &["capslock"]),
    ("cmd", &["meta"]),
    ("command", &["meta"]),
    ("controller", &["pad"]),
    ("ctrl", &["control"]),
    ("cursor", &["arrow"]),
    ("dash", &["minus"]),
    ("del", &["delete"]),
    ("dn", &["down"]),
    ("dot", &["period", "decimal"]),
    ("equals", &["equal"]),
    ("esc", &["escape"]),
    ("fullstop", &["period"]),
    ("gamepad", &["pad"]),
    ("grave", &["backquote"]),
    ("gui", &["meta"]),
    ("ins", &["insert"]),
    ("joypad", &["pad"]),
    ("keypad", &["numpad"]),
    ("kp", &["numpad"]),
    ("l", &["left", "l"]),
    ("lower", &["south", "down"]),
    ("lowest", &["south"]),
    ("lmenu", &["altleft"]),
    ("m", &["m", "mouse"]),
    ("mwheel", &["wheel"]),
    ("mousewheel", &["wheel"]),
    ("num", &["numpad", "num"]),
    ("number", &["digit", "numpad"]),
    ("option", &["alt"]),
    ("paren", &["paren"]),
    ("pg", &["page"]),
    ("pgdn", &["pagedown"]),
    ("pgdown", &["pagedown"]),
    ("pgup", &["pageup"]),
    ("plus", &["add"]),
    ("prtsc", &["printscreen"]),
    ("prtscn", &["printscreen"]),
    ("prtscr", &["printscreen"]),
    ("printscrn", &["printscreen"]),
    ("print", &["printscreen", "print"]),
    ("prior", &["pageup"]),
    ("r", &["right", "r"]),
    ("return", &["enter"]),
    ("rmenu", &["altright"]),
    ("scrl", &["scroll"]),
    ("scroll", &["wheel", "scroll"]),
    ("slash", &["slash", "divide"]),
    ("snapshot", &["printscreen"]),
    ("spacebar", &["space"]),
    ("star", &["multiply", "star"]),
    ("super", &["meta"]),
    ("thumbstick", &["stick"]),
    ("top", &["north", "up"]),
    ("topmost", &["north"]),
    ("upper", &["north", "up"]),
    ("win", &["meta"]),
    ("windows", &["meta"]),
];

/// What stands before the names that programs give to their constants, and says nothing.
const FILLERS: &[&str] = &[
    "code", "dik", "kb", "kc", "keycode", "scancode", "sdl", "sdlk", "the", "vk", "xk",
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

/// The signs behind the name of a number pad.
const ON_NUMPAD: &[(char, &str)] = &[
    ('+', "NumpadAdd"),
    ('-', "NumpadSubtract"),
    ('*', "NumpadMultiply"),
    ('/', "NumpadDivide"),
    ('.', "NumpadDecimal"),
    (',', "NumpadComma"),
    ('=', "NumpadEqual"),
];

/// What somebody who writes `word` may mean: none, one, or a few to choose from.
pub(super) fn meant(word: &str) -> Vec<Input> {
    let mut chars = word.chars();
    if let (Some(only), None) = (chars.next(), chars.next()) {
        return sign(only);
    }
    let parsed = |names: &[&str]| names.iter().filter_map(|n| n.parse().ok()).collect();
    if let Some(last) = word.chars().next_back()
        && let Some((_, name)) = ON_NUMPAD.iter().find(|(sign, _)| *sign == last)
        && is_numpad(word.trim_end_matches(last))
    {
        return parsed(&[name]);
    }
    let words = words_of(word);
    let whole = |words: &[String]| {
        let word = words.concat();
        WORDS.iter().find(|(habit, _)| *habit == word).map(|w| w.1)
    };
    if let Some(names) = whole(&words) {
        return parsed(names);
    }
    // The device that is named before it says which of several is meant.
    let device = words.first().filter(|w| words.len() > 1 && is_device(w));
    if let Some(names) = device.and_then(|_| whole(&words[1..])) {
        let all: Vec<Input> = parsed(names);
        let is_of = |i: &&Input| device.is_some_and(|d| has_word(**i, d));
        let own: Vec<Input> = all.iter().filter(is_of).copied().collect();
        return if own.is_empty() { all } else { own };
    }
    // Written together or apart, by our own name or another one.
    let together = synonyms(&words.concat());
    let own = together.iter().filter_map(|w| VOCABULARY.named.get(w));
    let own: Vec<Input> = own.flatten().copied().collect();
    if !own.is_empty() {
        return own;
    }
    if let Some(buttons) = numbered(&words) {
        return buttons;
    }
    best(&words)
}

/// What stands on a pad where a word is that only some maker's pads bear: the inputs by place.
pub(super) fn by_place(word: &str) -> Vec<Input> {
    let words = words_of(word);
    let is_pad =
        |w: &String| ["button", "btn", "gamepad", "pad", "controller", "joypad"].contains(&&**w);
    let is_marked = words.len() > 1 && words.iter().any(is_pad);
    let is_number = |w: &String| w.starts_with(|c: char| c.is_ascii_digit());
    if !is_marked || words.iter().any(is_number) {
        return Vec::new();
    }
    let faces = [
        PadButton::South,
        PadButton::East,
        PadButton::West,
        PadButton::North,
    ];
    faces.map(Input::PadButton).to_vec()
}

/// Without case, spaces and marks, so that `Page Up`, `page_up` and `PageUp` are one: the words of it.
fn words_of(name: &str) -> Vec<String> {
    let mut words: Vec<String> = Vec::new();
    let mut before: Option<char> = None;
    let mut chars = name.chars().peekable();
    while let Some(c) = chars.next() {
        if !c.is_alphanumeric() {
            before = None;
            continue;
        }
        let is_break = match before {
            None => true,
            Some(b) if b.is_numeric() != c.is_numeric() => true,
            // `PageUp`, and `LShift` after its first letter.
            Some(b) if c.is_uppercase() => {
                b.is_lowercase() || chars.peek().is_some_and(|next| next.is_lowercase())
            }
            Some(_) => false,
        };
        if is_break {
            words.push(String::new());
        }
        if let Some(word) = words.last_mut() {
            word.extend(c.to_lowercase());
        }
        before = Some(c);
    }
    // A letter and a number that are one name: `F5`, `L2`.
    let mut joined: Vec<String> = Vec::new();
    for word in words {
        let is_number = word.starts_with(|c: char| c.is_numeric());
        match joined.last_mut() {
            Some(last) if is_number && ["f", "l", "r", "tl", "tr"].contains(&&**last) => {
                last.push_str(&word)
            }
            _ if FILLERS.contains(&&*word) => {}
            _ => joined.push(word),
        }
    }
    joined
}

fn is_device(word: &str) -> bool {
    let known = ["pad", "mouse", "key", "button", "keyboard"];
    known.contains(&word) || synonyms(word).iter().any(|w| known.contains(&&**w))
}

fn is_numpad(word: &str) -> bool {
    let words = words_of(word);
    words.len() == 1 && synonyms(&words[0]).iter().any(|w| w == "numpad")
}

fn synonyms(word: &str) -> Vec<String> {
    let found = SYNONYMS.iter().find(|(habit, _)| *habit == word);
    let others = found.map_or(&[][..], |(_, ours)| ours);
    let mut all: Vec<String> = others.iter().map(|w| (*w).to_owned()).collect();
    if all.is_empty() {
        all.push(word.to_owned());
    }
    all
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

/// The words of an input, and others that may stand beside them.
struct Called {
    input: Input,
    own: Vec<String>,
    besides: &'static [&'static str],
}

fn called(input: Input) -> Called {
    let besides: &[&str] = match input {
        Input::Key(place) if place.to_string().starts_with("Arrow") => &["key", "keyboard"],
        Input::Key(_) => &["key", "keyboard", "row"],
        Input::Modifier(_) => &["key", "keyboard"],
        Input::MouseButton(MouseButton::Left) => &["button", "click", "primary"],
        Input::MouseButton(MouseButton::Right) => &["button", "click", "secondary"],
        Input::MouseButton(MouseButton::Middle) => &["button", "click", "center", "wheel"],
        Input::MouseButton(_) => &["button", "click", "side"],
        Input::MouseMove => &["motion", "look", "delta", "axis", "x", "y"],
        Input::Wheel(_) => &["mouse"],
        Input::PadButton(button) => match button {
            PadButton::Up | PadButton::Down | PadButton::Left | PadButton::Right => {
                &["dpad", "button", "hat", "pov", "d", "directional"]
            }
            PadButton::CenterRight => &["button", "start", "menu", "options", "plus"],
            PadButton::CenterLeft => &["button", "select", "back", "minus"],
            PadButton::Center => &["button", "guide", "home", "mode"],
            PadButton::StickLeftClick | PadButton::StickRightClick => {
                &["button", "press", "thumb", "in"]
            }
            _ => &["button", "face", "axis"],
        },
        Input::PadStick(_) | Input::PadStickHalf(..) => &["axis", "thumb"],
        _ => &[],
    };
    let own = words_of(&input.to_string());
    // Our own names are looked for by the words that others have for them, where that is one word.
    let own = own.into_iter().map(|word| match &synonyms(&word)[..] {
        [only] => only.clone(),
        _ => word,
    });
    Called {
        own: own.collect(),
        besides,
        input,
    }
}

fn has_word(input: Input, word: &str) -> bool {
    let called = called(input);
    let all = synonyms(word);
    all.iter()
        .any(|w| called.own.contains(w) || called.besides.contains(&&**w))
}

/// The inputs that have all of some words, of those the ones with the fewest others.
fn best(words: &[String]) -> Vec<Input> {
    // An axis of a stick is no input of ours: the stick is.
    let is_stick = words
        .iter()
        .any(|w| synonyms(w).iter().any(|w| w == "stick"));
    let is_axis = |w: &&String| is_stick && ["x", "y"].contains(&&***w);
    let words: Vec<&String> = words.iter().filter(|w| !is_axis(w)).collect();
    let words = words.into_iter().map(|word| split(word));
    let words: Vec<String> = match words.collect::<Option<Vec<_>>>() {
        Some(words) => words.concat(),
        None => return Vec::new(),
    };
    if words.is_empty() {
        return Vec::new();
    }
    let others = |called: &Called| -> Option<usize> {
        let mut left = called.own.clone();
        for word in &words {
            let ours = synonyms(word);
            // Several words of ours may be one of theirs: `pageup`.
            let whole = ours.iter().any(|w| *w == left.concat() && !left.is_empty());
            if whole {
                left.clear();
                continue;
            }
            match left.iter().position(|own| ours.contains(own)) {
                Some(at) => drop(left.remove(at)),
                None if ours.iter().any(|w| called.besides.contains(&&**w)) => {}
                None => return None,
            }
        }
        // The device goes without saying.
        let goes_without = |w: &String| ["key", "pad", "mouse", "arrow", "digit"].contains(&&**w);
        Some(
            2 * left.iter().filter(|w| !goes_without(w)).count()
                + left.iter().filter(|w| goes_without(w)).count(),
        )
    };
    let found: Vec<(usize, Input)> = (VOCABULARY.inputs.iter())
        .filter_map(|c| Some((others(c)?, c.input)))
        .collect();
    let least = found.iter().map(|(others, _)| *others).min();
    let best = found.iter().filter(|(others, _)| Some(*others) == least);
    let best: Vec<Input> = best.map(|(_, input)| *input).collect();
    // What fits everything says nothing.
    if best.len() > 4 { Vec::new() } else { best }
}

/// What inputs are called, and every word in that; none of numbered inputs, of which there is no end.
struct Vocabulary {
    inputs: Vec<Called>,
    words: HashSet<String>,
    /// Every input by its name with all its words together.
    named: HashMap<String, Vec<Input>>,
}

static VOCABULARY: LazyLock<Vocabulary> = LazyLock::new(|| {
    let named = Input::all_named().filter(|i| !matches!(i, Input::Hid(_)));
    let inputs: Vec<Called> = named.map(called).collect();
    let of = |c: &Called| {
        let besides = c.besides.iter().map(|w| (*w).to_owned());
        let whole = c.own.concat();
        c.own
            .iter()
            .cloned()
            .chain(besides)
            .chain([whole])
            .collect::<Vec<_>>()
    };
    let words = inputs.iter().flat_map(of).collect();
    let mut named: HashMap<String, Vec<Input>> = HashMap::new();
    for input in Input::all_named() {
        let name = words_of(&input.to_string()).concat();
        named.entry(name).or_default().push(input);
    }
    Vocabulary {
        inputs,
        words,
        named,
    }
});

/// A word that is several written as one, taken apart: `lshift`, `mwheeldown`; none where it is not.
fn split(word: &str) -> Option<Vec<String>> {
    /// No name from habit is longer.
    const LONGEST: usize = 32;
    let is_known = |w: &str| synonyms(w).iter().any(|w| VOCABULARY.words.contains(w));
    if is_known(word) {
        return Some(vec![word.to_owned()]);
    }
    if word.len() > LONGEST {
        return None;
    }
    // What stands before each cut, taken apart: with the longest word last. A side may be a single letter,
    // nothing else may.
    let is_word = |w: &str| (w.chars().count() > 1 || ["l", "r"].contains(&w)) && is_known(w);
    let cuts = word.char_indices().map(|(at, _)| at).skip(1);
    let mut before: Vec<(usize, Vec<String>)> = vec![(0, Vec::new())];
    for to in cuts.chain([word.len()]) {
        let found = before.iter().find_map(|(from, words)| {
            let last = word.get(*from..to)?;
            let is_last = to == word.len();
            let is_it = is_word(last) && (!is_last || last.chars().count() > 1);
            is_it.then(|| [&words[..], &[last.to_owned()]].concat())
        });
        before.extend(found.map(|words| (to, words)));
    }
    let (to, words) = before.pop()?;
    (to == word.len()).then_some(words)
}

/// Buttons by number: programs count from nought or from one, and those of a mouse not all in the same
/// order.
fn numbered(words: &[String]) -> Option<Vec<Input>> {
    let (number, names) = words.split_last()?;
    let number: u8 = number.parse().ok()?;
    let name = names.concat();
    if ["joystickbutton", "joybutton", "joystick", "joy"].contains(&&*name) {
        let buttons = [number, number.checked_add(1)?];
        let buttons = buttons.into_iter().filter_map(super::HidButton::new);
        return Some(
            buttons
                .map(|b| Input::Hid(super::HidInput::Button(b)))
                .collect(),
        );
    }
    let is_mouse = [
        "mousebutton",
        "mouse",
        "button",
        "mb",
        "m",
        "xbutton",
        "x",
        "thumb",
    ]
    .contains(&&*name);
    let is_side = ["xbutton", "x", "thumb"].contains(&&*name);
    let buttons: &[MouseButton] = match (is_side, number) {
        _ if !is_mouse => return None,
        (true, 1) | (false, 4) => &[MouseButton::Back],
        (true, 2) | (false, 5) => &[MouseButton::Forward],
        (false, 0..=3) => &MouseButton::NAMED[..3],
        _ => return None,
    };
    Some(buttons.iter().copied().map(Input::MouseButton).collect())
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
    }

    #[test]
    fn every_name_of_ours_means_itself_and_nonsense_means_nothing() {
        for input in Input::all_named().filter(|i| !matches!(i, Input::Hid(_))) {
            let name = input.to_string();
            let habit = WORDS
                .iter()
                .any(|(word, _)| *word == words_of(&name).concat());
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
            assert_eq!(words_of(word).concat(), *word);
            assert!(names.iter().all(|n| n.parse::<Input>().is_ok()), "{word}");
        }
    }
}
