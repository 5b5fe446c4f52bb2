//! What is to be seen and heard of a controls screen: one plain value for skins and screen readers.

use std::time::Duration;

use super::Spot;
use crate::input::{Chord, Input, TouchName};
use crate::sheet::Arm;

/// All that a skin draws and a screen reader reads, in the player's language.
///
/// A skin shows the [`pages`](ScreenView::pages) as tabs, the [`tools`](ScreenView::tools) below
/// them, then the sections with their rows of items, and a dialog over or beside all that when there
/// is one. It tells the screen what was pointed at by [`ControlsScreen::press`]; all other input goes
/// to the screen as events.
///
/// [`ControlsScreen::press`]: super::ControlsScreen::press
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct ScreenView {
    /// What the screen is called.
    pub title: String,
    /// The title of the profile that is changed.
    pub profile: String,
    /// The tabs.
    pub pages: Vec<Item>,
    /// The buttons of the page.
    pub tools: Vec<Item>,
    /// What stands over the items of a row; empty on pages without columns.
    pub columns: Vec<ColumnView>,
    /// What the page holds, or what became of a search.
    pub sections: Vec<Section>,
    /// The player's keyboard.
    pub board: Option<BoardView>,
    /// The player's pad, beside its rows.
    pub pad: Option<PadView>,
    /// The on-screen buttons and sticks, beside their rows.
    pub touch: Option<TouchView>,
    /// What has to be answered first.
    pub dialog: Option<Dialog>,
    /// The last thing that the player was told: why something was refused.
    pub message: Option<String>,
    /// What is to be known of the item that the player is on; a place that is always there.
    pub details: Details,
    /// Conflicts, and what is not applied yet.
    pub notes: Vec<Note>,
    /// What works the screen, with the device in hand.
    pub hints: Vec<Hint>,
}

/// What stands over some items of each row.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct ColumnView {
    /// The devices.
    pub title: String,
    /// How many items stand under it, at most: see [`Item::place`].
    pub span: u16,
}

/// Rows under a heading.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct Section {
    /// The heading; empty where there is none.
    pub title: String,
    /// A line below it.
    pub text: Option<String>,
    /// The rows.
    pub rows: Vec<RowView>,
}

/// One row of a page.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct RowView {
    /// What it is about.
    pub title: String,
    /// For a direction of the action in the row before: which. All rows of one action are to be seen as one
    /// block.
    pub arm: Option<Arm>,
    /// The title for where it is clear whose direction it is: "to the bow" below "Walk".
    pub short: String,
    /// Whether it always keeps a binding.
    pub essential: bool,
    /// What can be focused in it, from left to right.
    pub items: Vec<Item>,
    /// What the player's device says right now.
    pub live: Option<Live>,
    /// More about it.
    pub text: Option<String>,
    /// What it is besides, in a word that stands out beside its title: "in use".
    pub mark: Option<String>,
    /// Whether it is lit: an action that is being worked.
    pub lit: bool,
}

/// Something that can be focused and chosen.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Item {
    /// Which.
    pub spot: Spot,
    /// Its [`Spot::id`].
    pub id: String,
    /// What stands on it.
    pub label: String,
    /// The same for little room, beside a picture of it.
    pub short: String,
    /// How it is worked where that is more than a press: "hold". Nothing on what is no binding.
    pub manner: Option<String>,
    /// Whether it holds nothing because the whole of its action works it, or its directions, which its
    /// label says.
    pub by_whole: bool,
    /// What a screen reader says for it.
    pub spoken: String,
    /// What it is.
    pub role: Role,
    /// Where it stands in its row, from the left, in the order of the columns.
    pub place: u16,
    /// Whether choosing it does something. One that does nothing can be focused all the same, and
    /// says why.
    pub enabled: bool,
    /// Whether the player is on it.
    pub focused: bool,
    /// Whether applying would change it.
    pub changed: bool,
    /// Whether a conflict touches it, or it is not in force.
    pub conflict: bool,
    /// More about it: why it cannot be changed, what an answer would do. A line each.
    pub text: Vec<String>,
}

/// What an [`Item`] is: what it looks like, and what a screen reader calls it.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum Role {
    /// A button.
    Button,
    /// A tab.
    Tab {
        /// Whether its page is shown.
        selected: bool,
    },
    /// A binding.
    Binding {
        /// What is bound; nothing when unbound.
        chord: Option<Chord>,
        /// Whether it waits for its new input.
        listening: bool,
    },
    /// A number.
    Slider {
        /// Where it stands, 0 to 1.
        at: f32,
    },
    /// On or off.
    Switch {
        /// Which.
        on: bool,
    },
    /// One of several, of which a dialog shows the others.
    Choice,
    /// One of several that are all to be seen.
    Radio {
        /// Whether it is the one.
        selected: bool,
    },
    /// Text that is being typed.
    Field,
}

/// What a device says right now, beside the number that it is about.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub enum Live {
    /// A stick.
    Stick {
        /// Where it is, −1 to 1, right and up positive.
        at: [f32; 2],
        /// Where the dead zone ends.
        inner: f32,
        /// Where full begins.
        outer: f32,
    },
    /// A trigger, or whatever has one way to go.
    Pull {
        /// Where it is, 0 to 1.
        at: f32,
        /// What is marked on the way: where a press begins.
        mark: f32,
    },
}

/// Something that has to be answered before anything else.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct Dialog {
    /// What it is about.
    pub title: String,
    /// More about it, a line each.
    pub text: Vec<String>,
    /// The answers, line by line.
    pub lines: Vec<Vec<Item>>,
    /// The time until it answers itself.
    pub time_left: Option<Duration>,
    /// What is being typed.
    pub field: Option<String>,
    /// Whether all of that is selected, so that the next letter replaces it.
    pub is_selected: bool,
    /// The player's pad, with what is asked for.
    pub pad: Option<PadView>,
}

/// What is to be known of one item.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct Details {
    /// The devices, where it is about some.
    pub device: String,
    /// What it is about.
    pub title: String,
    /// What works it, by its whole name; nothing for what is no binding.
    pub name: String,
    /// The same, for pictures.
    pub chord: Option<Chord>,
    /// More, a line each.
    pub text: Vec<String>,
    /// What becomes of what a stick or trigger says, to be drawn: for the numbers that bend it.
    pub curve: Option<Curve>,
}

/// What becomes of what a stick or trigger says: from left to right what it says, upwards what the game
/// gets, both from 0 to 1.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct Curve {
    /// As it is now, from left to right.
    pub points: Vec<[f32; 2]>,
    /// As it was applied last; empty where that is the same.
    pub before: Vec<[f32; 2]>,
    /// Up to here it is at rest.
    pub rest: f32,
    /// From here on it is full.
    pub full: f32,
    /// From here on it is a press, where anything is worked by one.
    pub press: Option<f32>,
    /// Where it is right now.
    pub live: Option<[f32; 2]>,
    /// What the way from left to right is called, what the way up is called, and the press.
    pub titles: [String; 3],
}

/// A line beside the page.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Note {
    /// What it says.
    pub text: String,
    /// Whether it is a heading for the lines after it.
    pub heading: bool,
    /// Whether it is about a conflict.
    pub conflict: bool,
}

/// An input of the device in hand, and what it does on the screen.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Hint {
    /// The input, for a glyph.
    pub input: Input,
    /// What it is called.
    pub name: String,
    /// What it does.
    pub does: String,
}

/// The player's keyboard.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct BoardView {
    /// How wide it is, in keys.
    pub width: f32,
    /// How high it is, in keys.
    pub height: f32,
    /// Its keys, row by row.
    pub keys: Vec<KeyView>,
}

/// A key of the player's keyboard.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct KeyView {
    /// What can be chosen; its label is the key's legend.
    pub item: Item,
    /// The left edge, the upper edge, the width and the height, in keys.
    pub rect: [f32; 4],
    /// What it works by itself where the player is in the game, to be written on it.
    pub title: String,
    /// The same for little room: an arrow and the action for a direction of it.
    pub short: String,
    /// What it has a part in, a line for each situation.
    pub does: Vec<String>,
    /// Whether it is down.
    pub down: bool,
}

/// The player's pad, as a picture beside the rows that tell what its parts do.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct PadView {
    /// How wide and how high it is.
    pub size: [f32; 2],
    /// Its body: the left edge, the upper edge, the width, the height and the rounding of what lies
    /// over each other and is one.
    pub body: Vec<[f32; 5]>,
    /// Its parts; a stick's click comes after the stick, and lies in its middle.
    pub parts: Vec<PadPartView>,
}

/// A part of the player's pad.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct PadPartView {
    /// What is pointed at with it; the row that is focused by it tells what it does.
    pub spot: Spot,
    /// The left edge, the upper edge, the width and the height.
    pub rect: [f32; 4],
    /// The rounding of its corners.
    pub round: f32,
    /// What is printed on it, where that is known.
    pub mark: Option<String>,
    /// Whether anything is bound to it.
    pub does: bool,
    /// Whether it is down.
    pub down: bool,
    /// Whether the player is asked to work it.
    pub asked: bool,
    /// Where it is: a stick from −1 to 1, right and up positive; a trigger from 0 to 1 in the first.
    pub at: [f32; 2],
}

/// The on-screen buttons and sticks of a game, to be drawn: over the game, or as a picture of its screen.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct TouchView {
    /// How large the game's screen is, in the units of its layout; none where nobody told.
    pub size: Option<[f32; 2]>,
    /// Its zones; those that lie over others come after them.
    pub zones: Vec<ZoneView>,
}

/// An on-screen button or stick.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct ZoneView {
    /// Its name in files.
    pub name: TouchName,
    /// The left edge, the upper edge, the width and the height.
    pub rect: [f32; 4],
    /// Whether it is a stick: round, with a knob at [`ZoneView::at`].
    pub is_stick: bool,
    /// What it does, in the player's language; its name where that is nothing.
    pub title: String,
    /// Whether it does anything.
    pub does: bool,
    /// Whether a finger is on it.
    pub touched: bool,
    /// How far a stick is pushed: right and up positive, −1 to 1.
    pub at: [f32; 2],
}

impl Item {
    pub(super) fn new(spot: Spot, id: String, label: String, role: Role) -> Item {
        Item {
            spot,
            id,
            spoken: label.clone(),
            short: label.clone(),
            manner: None,
            by_whole: false,
            label,
            role,
            place: 0,
            enabled: true,
            focused: false,
            changed: false,
            conflict: false,
            text: Vec::new(),
        }
    }

    pub(super) fn enabled(mut self, enabled: bool) -> Item {
        self.enabled = enabled;
        self
    }

    pub(super) fn text(mut self, text: Vec<String>) -> Item {
        self.text = text;
        self
    }
}

impl ScreenView {
    /// What can be focused, line by line as it is walked: that of the dialog while there is one.
    pub fn lines(&self) -> Vec<Vec<&Item>> {
        if let Some(dialog) = &self.dialog {
            return dialog.lines.iter().map(|l| l.iter().collect()).collect();
        }
        let rows = self.sections.iter().flat_map(|s| &s.rows);
        let mut lines: Vec<Vec<&Item>> = [&self.pages, &self.tools]
            .into_iter()
            .chain(rows.map(|r| &r.items))
            .map(|items| items.iter().collect())
            .collect();
        if let Some(board) = &self.board {
            let mut row = None;
            for key in &board.keys {
                if row.replace(key.rect[1]) != Some(key.rect[1]) {
                    lines.push(Vec::new());
                }
                if let Some(line) = lines.last_mut() {
                    line.push(&key.item);
                }
            }
        }
        lines.retain(|line| !line.is_empty());
        lines
    }

    pub(super) fn items_mut(&mut self) -> impl Iterator<Item = &mut Item> {
        let rows = self.sections.iter_mut().flat_map(|s| &mut s.rows);
        let keys = self.board.iter_mut().flat_map(|b| &mut b.keys);
        let dialog = self.dialog.iter_mut();
        (self.pages.iter_mut())
            .chain(&mut self.tools)
            .chain(rows.flat_map(|r| &mut r.items))
            .chain(keys.map(|k| &mut k.item))
            .chain(dialog.flat_map(|d| d.lines.iter_mut().flatten()))
    }

    /// Everything that can be focused or pointed at, also what waits behind a dialog.
    pub fn items(&self) -> impl Iterator<Item = &Item> {
        let rows = self.sections.iter().flat_map(|s| &s.rows);
        let keys = self.board.iter().flat_map(|b| &b.keys).map(|k| &k.item);
        let dialog = self.dialog.iter().flat_map(|d| d.lines.iter().flatten());
        self.pages
            .iter()
            .chain(&self.tools)
            .chain(rows.flat_map(|r| &r.items))
            .chain(keys)
            .chain(dialog)
    }

    /// The item that the player is on.
    pub fn focused(&self) -> Option<&Item> {
        self.items().find(|i| i.focused)
    }
}
