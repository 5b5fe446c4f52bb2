//! Any layout of the XKB keyboard database, or of a keymap in its text form (feature `xkb`).

use kbvm::xkb::diagnostic::WriteToLog;
use kbvm::xkb::keymap::Action;
use kbvm::xkb::rmlvo::Group;
use kbvm::xkb::{Context, Keymap};
use kbvm::{Keycode, ModifierMask};

use super::{Board, Data, Layout, Level, PLACES, Table, Typed};
use crate::input::Place;

/// A keymap that cannot be used, and why.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum XkbError {
    /// The text is no keymap.
    #[error("not an XKB keymap: {0}")]
    Unreadable(String),
    /// None of its keys writes anything: no such layout, group or database.
    #[error("`{0}` types nothing; is the XKB keyboard database installed and the name right?")]
    Empty(String),
}

impl Layout {
    /// Reads a layout by its XKB names from the keyboard database of this machine
    /// (`/usr/share/X11/xkb`). Feature `xkb`.
    ///
    /// Its name is `layout-variant`; the board is ISO, see [`Layout::on_board`].
    ///
    /// # Errors
    /// When the database has no such layout.
    pub fn read_xkb_names(layout: &str, variant: &str) -> Result<Layout, XkbError> {
        let groups: Vec<_> = Group::from_layouts_and_variants(layout, variant).collect();
        let context = Context::default();
        let map = context.keymap_from_names(WriteToLog, None, None, Some(&groups), None);
        let name = match variant {
            "" => layout.to_owned(),
            _ => format!("{layout}-{}", variant.replace('_', "-")),
        };
        layout_of(&map, &name, 0)
    }

    /// Reads a layout from the text of a keymap, such as a display server hands out; `group` counts
    /// from 0. Feature `xkb`.
    ///
    /// # Errors
    /// When the text is no keymap, or the group types nothing.
    pub fn read_xkb_text(text: &str, name: &str, group: usize) -> Result<Layout, XkbError> {
        let mut context = Context::builder();
        // A keymap in its text form is whole: it needs no file of this machine.
        context.enable_default_includes(false);
        let map = context.build().keymap_from_bytes(WriteToLog, None, text);
        let map = map.map_err(|e| XkbError::Unreadable(e.to_string()))?;
        layout_of(&map, name, group)
    }
}

fn layout_of(map: &Keymap, name: &str, group: usize) -> Result<Layout, XkbError> {
    let alt_gr = alt_gr(map, group);
    let mut typed: Table = [[None; PLACES]; 4];
    for (index, place) in Place::WRITING.into_iter().enumerate() {
        for level in Level::ALL {
            typed[level as usize][index] = typed_on(map, place, group, level, alt_gr);
        }
    }
    let writes = |t: &Option<Typed>| t.is_some_and(|t| t.character.is_alphabetic());
    if !typed.iter().flatten().any(writes) {
        return Err(XkbError::Empty(name.to_owned()));
    }
    let title = title_of(&map.format().to_string(), group);
    let title = title.unwrap_or_else(|| name.to_owned());
    Ok(Layout::of(Data::new(name, &title, Board::Iso, typed)))
}

/// The modifier that AltGr is: what the right Alt key sets where it is more than another Alt, else
/// the third level's.
fn alt_gr(map: &Keymap, group: usize) -> Option<ModifierMask> {
    const RIGHT_ALT: u32 = 100;
    let code = Keycode::from_evdev(RIGHT_ALT);
    let set = map.keys().find(|k| k.keycode() == code).and_then(|key| {
        let own = key.groups().nth(group).flatten();
        let levels = own.or_else(|| key.groups().next().flatten())?;
        let first = levels.levels().next()?;
        first.actions().iter().find_map(|action| match action {
            Action::ModsSet(set) => Some(set.mask()),
            _ => None,
        })
    });
    let mut all = map.virtual_modifiers();
    let third = || Some(all.find(|m| m.name() == "LevelThree")?.mask());
    let found = set.filter(|mask| *mask & ModifierMask::ALT == ModifierMask::NONE);
    found
        .or_else(third)
        .filter(|mask| *mask != ModifierMask::NONE)
}

/// The name that the database gives to a group of a keymap.
fn title_of(text: &str, group: usize) -> Option<String> {
    let (_, rest) = text.split_once(&format!("name[Group{}]", group + 1))?;
    let (_, rest) = rest.split_once('"')?;
    Some(rest.split_once('"')?.0.to_owned())
}

/// What a key types while the modifiers of a level are held.
fn typed_on(
    map: &Keymap,
    place: Place,
    group: usize,
    level: Level,
    alt_gr: Option<ModifierMask>,
) -> Option<Typed> {
    let code = Keycode::from_evdev(evdev(place));
    let key = map.keys().find(|k| k.keycode() == code)?;
    let levels = key.groups().nth(group).flatten()?;
    let held = match level {
        Level::Plain => ModifierMask::NONE,
        Level::Shift => ModifierMask::SHIFT,
        Level::AltGr => alt_gr?,
        Level::ShiftAltGr => alt_gr? | ModifierMask::SHIFT,
    };
    // Which level that is, the type of the key says; its number says nothing of modifiers.
    let mapping = (levels.ty().mappings()).find(|m| m.mask() == (held & levels.ty().mask()));
    let number = match (mapping, level) {
        // A modifier that the type does not know changes nothing.
        (_, Level::AltGr | Level::ShiftAltGr) if held & levels.ty().mask() != held => return None,
        (Some(mapping), _) => mapping.level(),
        (None, Level::AltGr | Level::ShiftAltGr) => return None,
        (None, _) => 0,
    };
    let symbols = levels.levels().nth(number)?;
    let &[symbol] = symbols.symbols() else {
        return None;
    };
    if let Some(character) = symbol.name().and_then(dead) {
        return Some(Typed {
            character,
            dead: true,
        });
    }
    let character = symbol.char().filter(|c| !c.is_control())?;
    Some(Typed {
        character,
        dead: false,
    })
}

/// The mark that is printed on a key for a dead key symbol, by its name in the X protocol
/// (`X11/keysymdef.h`).
fn dead(name: &str) -> Option<char> {
    Some(match name.strip_prefix("dead_")? {
        "grave" => '`',
        "acute" => '´',
        "circumflex" => '^',
        "tilde" | "perispomeni" => '~',
        "macron" => '¯',
        "breve" => '˘',
        "abovedot" => '˙',
        "diaeresis" => '¨',
        "abovering" => '˚',
        "doubleacute" => '˝',
        "caron" => 'ˇ',
        "cedilla" => '¸',
        "ogonek" => '˛',
        "iota" => 'ͺ',
        "voiced_sound" => '゛',
        "semivoiced_sound" => '゜',
        "belowdot" => '.',
        "hook" => '\u{02C0}',
        "horn" => '\u{02BC}',
        "stroke" => '/',
        "abovecomma" | "psili" => '᾿',
        "abovereversedcomma" | "dasia" => '῾',
        "doublegrave" => '\u{02F5}',
        "belowcomma" => ',',
        "currency" => '¤',
        "greek" => 'µ',
        _ => '◌',
    })
}

/// The Linux key code of a writing place (`linux/input-event-codes.h`).
fn evdev(place: Place) -> u32 {
    const ROWS: [(&[Place], u32); 5] = {
        use Place::*;
        [
            (
                &[
                    Digit1, Digit2, Digit3, Digit4, Digit5, Digit6, Digit7, Digit8, Digit9, Digit0,
                    Minus, Equal,
                ],
                2,
            ),
            (
                &[
                    KeyQ,
                    KeyW,
                    KeyE,
                    KeyR,
                    KeyT,
                    KeyY,
                    KeyU,
                    KeyI,
                    KeyO,
                    KeyP,
                    BracketLeft,
                    BracketRight,
                ],
                16,
            ),
            (
                &[
                    KeyA, KeyS, KeyD, KeyF, KeyG, KeyH, KeyJ, KeyK, KeyL, Semicolon, Quote,
                    Backquote,
                ],
                30,
            ),
            (&[Backslash], 43),
            (
                &[
                    KeyZ, KeyX, KeyC, KeyV, KeyB, KeyN, KeyM, Comma, Period, Slash,
                ],
                44,
            ),
        ]
    };
    for (row, first) in ROWS {
        if let Some(i) = row.iter().position(|&p| p == place) {
            return first + i as u32;
        }
    }
    match place {
        Place::IntlBackslash => 86,
        Place::IntlRo => 89,
        Place::IntlYen => 124,
        _ => 57, // Space, the only writing place left
    }
}
