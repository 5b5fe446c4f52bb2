//! What the controls screen looks like: colours and sizes.

use egui::{Color32, Ui};

/// The colours of the controls screen.
///
/// Text stands out from what is behind it by seven to one at least in each of them, as the strictest
/// level of WCAG 2.2 asks (success criterion 1.4.6).
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Look {
    /// Behind everything.
    pub ground: Color32,
    /// Behind dialogs, and every other row.
    pub raised: Color32,
    /// What can be chosen.
    pub item: Color32,
    /// The same while it is pointed at.
    pub item_pointed: Color32,
    /// The edge of what can be chosen.
    pub edge: Color32,
    /// Text.
    pub text: Color32,
    /// Text of less weight: headings of columns, hints.
    pub quiet: Color32,
    /// Where the player is, and what is selected.
    pub focus: Color32,
    /// What applying would change.
    pub changed: Color32,
    /// What is in conflict.
    pub conflict: Color32,
    /// What is being worked.
    pub lit: Color32,
    /// How wide edges are.
    pub line: f32,
}

impl Look {
    /// Light on dark, for living rooms.
    pub const DARK: Look = Look {
        ground: Color32::from_rgb(19, 24, 29),
        raised: Color32::from_rgb(29, 36, 43),
        item: Color32::from_rgb(41, 50, 59),
        item_pointed: Color32::from_rgb(57, 69, 81),
        edge: Color32::from_rgb(88, 103, 118),
        text: Color32::from_rgb(242, 244, 246),
        quiet: Color32::from_rgb(190, 200, 209),
        focus: Color32::from_rgb(242, 184, 75),
        changed: Color32::from_rgb(255, 213, 130),
        conflict: Color32::from_rgb(255, 178, 164),
        lit: Color32::from_rgb(58, 112, 92),
        line: 1.0,
    };

    /// Dark on light.
    pub const LIGHT: Look = Look {
        ground: Color32::from_rgb(247, 245, 240),
        raised: Color32::from_rgb(236, 233, 225),
        item: Color32::from_rgb(255, 255, 255),
        item_pointed: Color32::from_rgb(224, 234, 243),
        edge: Color32::from_rgb(150, 148, 140),
        text: Color32::from_rgb(24, 28, 32),
        quiet: Color32::from_rgb(66, 70, 74),
        focus: Color32::from_rgb(20, 84, 148),
        changed: Color32::from_rgb(102, 60, 0),
        conflict: Color32::from_rgb(150, 16, 44),
        lit: Color32::from_rgb(190, 226, 206),
        line: 1.0,
    };

    /// White on black with strong edges, for those who see little.
    pub const STRONG: Look = Look {
        ground: Color32::BLACK,
        raised: Color32::BLACK,
        item: Color32::BLACK,
        item_pointed: Color32::from_rgb(50, 50, 50),
        edge: Color32::WHITE,
        text: Color32::WHITE,
        quiet: Color32::WHITE,
        focus: Color32::from_rgb(255, 235, 0),
        changed: Color32::from_rgb(140, 240, 255),
        conflict: Color32::from_rgb(255, 170, 160),
        lit: Color32::from_rgb(0, 90, 60),
        line: 2.0,
    };

    /// The look that goes with egui's own visuals.
    pub fn of(ui: &Ui) -> Look {
        match ui.visuals().dark_mode {
            true => Look::DARK,
            false => Look::LIGHT,
        }
    }
}

/// Sizes in points: read from a sofa at the scale of a monitor.
pub(crate) mod size {
    /// Text of items and titles.
    pub(crate) const TEXT: f32 = 17.0;
    /// Headings of sections and dialogs.
    pub(crate) const HEADING: f32 = 20.0;
    /// Hints and headings of columns.
    pub(crate) const SMALL: f32 = 15.0;
    /// How high an item is.
    pub(crate) const ITEM: f32 = 36.0;
    /// How high a glyph in an item is.
    pub(crate) const GLYPH: f32 = 27.0;
    /// Between items.
    pub(crate) const GAP: f32 = 6.0;
    /// Inside an item, at its sides.
    pub(crate) const PAD: f32 = 10.0;
}
