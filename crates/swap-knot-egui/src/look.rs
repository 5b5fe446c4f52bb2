//! What the controls screen looks like: colours and sizes.

use egui::{Color32, Ui};

/// The colours of the controls screen, each by what it stands for.
///
/// Every text stands out from whatever it may lie on by 4.5 to one at least, as level AA of WCAG 2.2 asks
/// (success criterion 1.4.3), in [`Look::STRONG`] by 7 (level AAA, 1.4.6); what is told by a shape by 3
/// (1.4.11). [`Look::faint`] says what of a look of one's own does not.
///
/// ```
/// use egui::Color32;
/// use swap_knot_egui::Look;
///
/// let mut look = Look::DARK;
/// look.here = Color32::from_rgb(120, 220, 255);
/// assert!(look.faint().is_empty());
/// look.quiet = Color32::from_rgb(60, 60, 60);
/// assert_eq!(look.faint()[0].text, "quiet");
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Look {
    /// Behind everything.
    pub ground: Color32,
    /// Behind the row that has the focus, and behind dialogs.
    pub raised: Color32,
    /// What can be chosen.
    pub cell: Color32,
    /// The same while it is pointed at.
    pub hover: Color32,
    /// Lines between rows, which say nothing by themselves.
    pub hair: Color32,
    /// Edges that say something: keycaps, tracks, fields.
    pub edge: Color32,
    /// Titles and bindings.
    pub text: Color32,
    /// Text of less weight: headings of columns, hints, how something is worked.
    pub quiet: Color32,
    /// Where the player is.
    pub here: Color32,
    /// Text on that.
    pub on_here: Color32,
    /// What applying would change.
    pub changed: Color32,
    /// What is in conflict, not in force or refused.
    pub conflict: Color32,
    /// What is being worked.
    pub lit: Color32,
    /// Text on that.
    pub on_lit: Color32,
    /// How wide edges are, in points.
    pub line: f32,
    /// What text has to stand out by, to one.
    pub least: f32,
}

/// Two colours of a [`Look`] that do not stand out from each other as far as they should.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Faint {
    /// The text or shape, by the name of its colour.
    pub text: &'static str,
    /// What it lies on.
    pub ground: &'static str,
    /// By how much it stands out, to one.
    pub contrast: f32,
    /// By how much it should.
    pub least: f32,
}

const fn rgb(hex: u32) -> Color32 {
    Color32::from_rgb((hex >> 16) as u8, (hex >> 8) as u8, hex as u8)
}

impl Look {
    /// Light on dark, for living rooms.
    pub const DARK: Look = Look {
        ground: rgb(0x0e_15_18),
        raised: rgb(0x16_20_24),
        cell: rgb(0x20_2c_31),
        hover: rgb(0x2b_3a_40),
        hair: rgb(0x2a_37_3c),
        edge: rgb(0x71_83_8b),
        text: rgb(0xf2_f0_e8),
        quiet: rgb(0xb4_c0_c2),
        here: rgb(0xff_cf_4a),
        on_here: rgb(0x14_11_0a),
        changed: rgb(0xcd_b8_ff),
        conflict: rgb(0xff_a4_93),
        lit: rgb(0x7f_dd_a0),
        on_lit: rgb(0x06_17_0d),
        line: 1.0,
        least: 4.5,
    };

    /// Dark on light.
    pub const LIGHT: Look = Look {
        ground: rgb(0xf6_f3_ea),
        raised: rgb(0xff_ff_ff),
        cell: rgb(0xe9_e4_d6),
        hover: rgb(0xdc_d5_c3),
        hair: rgb(0xd8_d2_c2),
        edge: rgb(0x7a_77_68),
        text: rgb(0x1a_22_25),
        quiet: rgb(0x4c_54_57),
        here: rgb(0x0f_47_b3),
        on_here: rgb(0xff_ff_ff),
        changed: rgb(0x65_27_9b),
        conflict: rgb(0xa0_10_2f),
        lit: rgb(0x1c_6a_38),
        on_lit: rgb(0xff_ff_ff),
        line: 1.0,
        least: 4.5,
    };

    /// White on black with strong edges, for those who see little.
    pub const STRONG: Look = Look {
        ground: rgb(0x00_00_00),
        raised: rgb(0x00_00_00),
        cell: rgb(0x00_00_00),
        hover: rgb(0x33_33_33),
        hair: rgb(0x8a_8a_8a),
        edge: rgb(0xff_ff_ff),
        text: rgb(0xff_ff_ff),
        quiet: rgb(0xff_ff_ff),
        here: rgb(0xff_e6_00),
        on_here: rgb(0x00_00_00),
        changed: rgb(0x8c_f0_ff),
        conflict: rgb(0xff_b0_a5),
        lit: rgb(0x7c_ff_a0),
        on_lit: rgb(0x00_00_00),
        line: 2.0,
        least: 7.0,
    };

    /// The look that goes with egui's own visuals.
    pub fn of(ui: &Ui) -> Look {
        match ui.visuals().dark_mode {
            true => Look::DARK,
            false => Look::LIGHT,
        }
    }

    /// Every pair of colours that lie on each other somewhere on the screen and do not stand out enough.
    pub fn faint(&self) -> Vec<Faint> {
        let grounds = [
            ("ground", self.ground),
            ("raised", self.raised),
            ("cell", self.cell),
            ("hover", self.hover),
        ];
        let texts = [
            ("text", self.text),
            ("quiet", self.quiet),
            ("here", self.here),
            ("changed", self.changed),
            ("conflict", self.conflict),
            ("lit", self.lit),
        ];
        const SHAPES: f32 = 3.0;
        let of_texts = texts.iter().flat_map(|text| {
            // What is lit is no text on what is pointed at.
            let grounds = grounds.iter().filter(|g| text.0 != "lit" || g.0 != "hover");
            grounds.map(|ground| (*text, *ground, self.least))
        });
        let of_shapes = grounds[..3]
            .iter()
            .map(|ground| (("edge", self.edge), *ground, SHAPES));
        let filled = [
            (("on_here", self.on_here), ("here", self.here), self.least),
            (("on_lit", self.on_lit), ("lit", self.lit), self.least),
        ];
        let all = of_texts.chain(of_shapes).chain(filled);
        let faint = all.map(|((text, over), (ground, under), least)| Faint {
            text,
            ground,
            contrast: contrast(over, under),
            least,
        });
        faint.filter(|f| f.contrast < f.least).collect()
    }
}

/// By how much two colours stand out from each other: the contrast ratio of WCAG 2.2.
fn contrast(a: Color32, b: Color32) -> f32 {
    let luminance = |color: Color32| {
        let [r, g, b, _] = egui::Rgba::from(color).to_array();
        0.2126 * r + 0.7152 * g + 0.0722 * b
    };
    let (a, b) = (luminance(a), luminance(b));
    (a.max(b) + 0.05) / (a.min(b) + 0.05)
}

/// Sizes in points: read from a sofa at the scale of a monitor.
pub(crate) mod size {
    /// Text of titles and in dialogs.
    pub(crate) const TEXT: f32 = 17.0;
    /// Text in cells.
    pub(crate) const CELL: f32 = 16.0;
    /// Headings of sections and dialogs.
    pub(crate) const HEADING: f32 = 21.0;
    /// Hints and headings of columns.
    pub(crate) const SMALL: f32 = 15.0;
    /// What does not fit otherwise.
    pub(crate) const TINY: f32 = 13.0;
    /// As small as it gets.
    pub(crate) const LEAST: f32 = 11.0;
    /// How high an item is.
    pub(crate) const ITEM: f32 = 34.0;
    /// How high a glyph in an item is.
    pub(crate) const GLYPH: f32 = 26.0;
    /// Between items beside each other.
    pub(crate) const GAP: f32 = 8.0;
    /// Between rows.
    pub(crate) const ROWS: f32 = 4.0;
    /// Inside an item, at its sides.
    pub(crate) const PAD: f32 = 8.0;
    /// At the sides of the screen, and where that is narrow.
    pub(crate) const MARGIN: f32 = 24.0;
    pub(crate) const NARROW_MARGIN: f32 = 12.0;
    /// How high the line of pages is, that of tools, and that of hints.
    pub(crate) const TITLES: f32 = 52.0;
    pub(crate) const HINTS: f32 = 40.0;
}
