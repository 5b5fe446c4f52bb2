//! Keys that a system takes for itself, or may take, before a game hears them.
//!
//! From the systems' own published lists of keyboard shortcuts: those that a player comes upon in a
//! window or on a full screen.

use std::sync::LazyLock;

use super::{Chord, Input, Modifier, Place, Platform};

/// What some system does with a chord.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct SystemUse {
    /// What it does, as in "switches windows".
    pub does: &'static str,
    /// Where, as in "Windows and Linux".
    pub on: &'static str,
}

impl SystemUse {
    /// Whether a player on a platform comes upon it.
    pub fn is_on(&self, platform: Platform) -> bool {
        let name = match platform {
            Platform::Mac => "macOS",
            Platform::Windows => "Windows",
            Platform::Other => "Linux",
        };
        self.on.contains(name) || self.on == "most systems"
    }
}

/// Chords with either side of each modifier, and what becomes of them.
const CHORDS: &[(&str, &str, &str)] = &[
    ("Alt+Tab", "switches windows", "Windows and Linux"),
    ("Alt+F4", "closes the window", "Windows and Linux"),
    ("Alt+Escape", "switches windows", "Windows and Linux"),
    (
        "Alt+Space",
        "opens the menu of the window",
        "Windows and Linux",
    ),
    ("Ctrl+Escape", "opens the start menu", "Windows"),
    ("Ctrl+Shift+Escape", "opens the task manager", "Windows"),
    (
        "Ctrl+Alt+Delete",
        "asks whether to lock or log out",
        "Windows and Linux",
    ),
    ("Ctrl+Alt+Tab", "switches windows", "Windows and Linux"),
    ("Ctrl+ArrowUp", "shows all windows", "macOS"),
    ("Ctrl+ArrowDown", "shows the windows of the game", "macOS"),
    ("Ctrl+ArrowLeft", "goes to another desktop", "macOS"),
    ("Ctrl+ArrowRight", "goes to another desktop", "macOS"),
    ("Ctrl+KeyW", "closes the page", "the web"),
    ("Ctrl+KeyT", "opens another page", "the web"),
    ("Ctrl+KeyN", "opens another window", "the web"),
    ("F11", "shows the desktop", "macOS"),
    (
        "PrintScreen",
        "takes a picture of the screen",
        "Windows and Linux",
    ),
    (
        "Alt+PrintScreen",
        "takes a picture of the window",
        "Windows and Linux",
    ),
    ("Main+KeyQ", "quits the game", "macOS"),
    ("Main+KeyW", "closes the window", "macOS and the web"),
    ("Main+KeyH", "hides the game", "macOS"),
    ("Main+KeyM", "puts the window away", "macOS"),
    ("Main+Tab", "switches programs", "macOS"),
    ("Main+Space", "opens the search", "macOS"),
];

/// Keys that a machine or its system works by itself, with or without modifiers.
const KEYS: &[(&[Place], &str, &str)] = &[
    (
        &[Place::Power, Place::Sleep, Place::WakeUp, Place::Eject],
        "works the machine itself",
        "most systems",
    ),
    (
        &[Place::Fn, Place::FnLock],
        "stays inside most keyboards, so that no program hears it",
        "most systems",
    ),
    (
        &[
            Place::AudioVolumeDown,
            Place::AudioVolumeMute,
            Place::AudioVolumeUp,
            Place::BrightnessDown,
            Place::BrightnessUp,
            Place::KeyboardBacklightToggle,
            Place::MicrophoneMuteToggle,
        ],
        "works sound or light besides",
        "most systems",
    ),
];

/// What is held, in order, and what completes it.
type Parts = (Vec<Input>, Input);

/// The chords of the table, read once.
static READ: LazyLock<Vec<(Parts, SystemUse)>> = LazyLock::new(|| {
    let read = CHORDS.iter().filter_map(|&(text, does, on)| {
        let chord: Chord = text.parse().ok()?;
        Some((sides_aside(&chord), SystemUse { does, on }))
    });
    read.collect()
});

/// What systems do with a chord, where a player would come upon it.
pub(crate) fn system_use(chord: &Chord) -> Option<SystemUse> {
    let parts = sides_aside(chord);
    if let Some((_, known)) = READ.iter().find(|(theirs, _)| *theirs == parts) {
        return Some(*known);
    }
    let meta = Input::Modifier(Modifier::Meta);
    if parts == (Vec::new(), meta) {
        let (does, on) = ("opens the start menu or the overview", "Windows and Linux");
        return Some(SystemUse { does, on });
    }
    if parts.0.contains(&meta) {
        let (does, on) = ("is kept for the system", "Windows and Linux");
        return Some(SystemUse { does, on });
    }
    let Input::Key(place) = parts.1 else {
        return None;
    };
    let found = KEYS.iter().find(|(places, ..)| places.contains(&place));
    found.map(|&(_, does, on)| SystemUse { does, on })
}

/// The parts of a chord; a modifier of one side counts as either.
fn sides_aside(chord: &Chord) -> Parts {
    let either = |input: Input| match input {
        Input::Key(place) => Modifier::of_place(place).map_or(input, Input::Modifier),
        other => other,
    };
    let mut held: Vec<Input> = chord.held().iter().copied().map(either).collect();
    held.sort_unstable();
    (held, either(chord.input()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_systems_take_is_known_on_either_side_and_nothing_else_is() {
        let does = |text: &str| system_use(&text.parse().unwrap()).map(|u| u.does);
        assert_eq!(does("Alt+Tab"), Some("switches windows"));
        assert_eq!(does("AltLeft+Tab"), Some("switches windows"));
        assert_eq!(does("Shift+Ctrl+Escape"), Some("opens the task manager"));
        assert_eq!(
            does("MetaRight"),
            Some("opens the start menu or the overview")
        );
        assert_eq!(does("Meta+KeyG"), Some("is kept for the system"));
        assert_eq!(does("Main+KeyQ"), Some("quits the game"));
        assert_eq!(does("PrintScreen"), Some("takes a picture of the screen"));
        assert_eq!(does("Power"), Some("works the machine itself"));
        for free in [
            "Tab",
            "Escape",
            "F4",
            "KeyW",
            "Ctrl+KeyK",
            "Alt",
            "Shift",
            "pad:south",
        ] {
            assert_eq!(does(free), None, "{free}");
        }
        for (text, ..) in CHORDS {
            assert!(text.parse::<Chord>().is_ok(), "{text}");
        }
    }
}
