//! Names, phrases and lines of text with bound inputs in them.

mod names;
mod phrase;
mod template;

use std::fmt;

pub use names::{chord_name, input_name};
pub use template::PromptError;

use self::template::{Template, TemplatePiece};
use crate::input::{Chord, DeviceKind};
use crate::rig::{Bound, Rig};
use crate::sheet::{ColumnKind, Manner, Row, Sheet};

/// A line of text for the player with bound inputs in it.
///
/// In the text, `{cast-off}` stands for what an action is bound to on the device in use, `{walk.up}`
/// for one arm, `{walk}` for all of them, `{cast-off:gamepad}` for one device kind whatever is in
/// use, and `{do:cast-off}` for the whole phrase with its verb ("Hold Space"). `{{` and `}}` are
/// plain braces.
///
/// ```
/// use swap_knot::{DeviceKind, Layout, Profile, Prompt, Rig, Sheet};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.cast-off]
///     bind = ["Space", "pad:south"]
/// "#)?;
/// let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
/// let mut prompt = Prompt::new("Press {cast-off} to leave", &sheet)?;
/// assert_eq!(prompt.render(&rig, DeviceKind::Keyboard).to_string(), "Press Space to leave");
/// assert_eq!(prompt.render(&rig, DeviceKind::Gamepad).to_string(), "Press bottom button to leave");
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug)]
pub struct Prompt {
    template: Template,
    rendered: Option<(Rig, DeviceKind, Rendered)>,
}

/// A prompt as it is to be shown: pieces for a renderer, `Display` for plain text.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Rendered {
    pieces: Vec<Piece>,
}

/// A piece of a prompt.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum Piece {
    /// Text between inputs, joiners and verbs included.
    Text(String),
    /// A bound input.
    Input(InputPiece),
    /// Nothing is bound; the menu can be opened at this row.
    Unbound {
        /// The row that has no binding.
        row: Row,
        /// What the player reads.
        text: String,
    },
}

/// A bound input within a prompt.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct InputPiece {
    /// The row it works.
    pub row: Row,
    /// What is bound.
    pub chord: Chord,
    /// Its name on the player's layout.
    pub name: String,
    /// How it must be worked.
    pub manner: Manner,
}

impl Prompt {
    /// Reads a prompt and checks its actions against the sheet.
    ///
    /// # Errors
    /// When a brace is left open or an action, arm or device kind does not exist; with its place
    /// in the text.
    pub fn new(text: &str, sheet: &Sheet) -> Result<Prompt, PromptError> {
        Ok(Prompt {
            template: Template::read(text, sheet)?,
            rendered: None,
        })
    }

    /// Whether what was rendered last still holds for that rig and device kind.
    pub fn is_current(&self, rig: &Rig, device: DeviceKind) -> bool {
        matches!(&self.rendered, Some((r, d, _)) if *d == device && r == rig)
    }

    /// The prompt for a rig and device kind; worked out again only when one of them changed.
    pub fn render(&mut self, rig: &Rig, device: DeviceKind) -> &Rendered {
        if !self.is_current(rig, device) {
            self.rendered = None;
        }
        let template = &self.template;
        let (_, _, rendered) = self.rendered.get_or_insert_with(|| {
            let rendered = render(template, rig, device);
            (rig.clone(), device, rendered)
        });
        rendered
    }
}

impl Rendered {
    /// The pieces, in order.
    pub fn pieces(&self) -> &[Piece] {
        &self.pieces
    }
}

impl fmt::Display for Rendered {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        for piece in &self.pieces {
            f.write_str(match piece {
                Piece::Text(text) | Piece::Unbound { text, .. } => text,
                Piece::Input(input) => &input.name,
            })?;
        }
        Ok(())
    }
}

fn render(template: &Template, rig: &Rig, device: DeviceKind) -> Rendered {
    let mut out = Rendered::default();
    for piece in template.pieces() {
        match piece {
            TemplatePiece::Text(text) => out.pieces.push(Piece::Text(text.clone())),
            TemplatePiece::Row {
                row,
                device: only,
                verb,
            } => {
                let device = only.unwrap_or(device);
                phrase::add(&mut out.pieces, rig, *row, device, *verb);
            }
        }
    }
    out
}

/// The binding of a row to show for a device: of its own columns, or else of any other.
fn shown(rig: &Rig, row: Row, device: DeviceKind) -> Option<&Bound> {
    let kind = ColumnKind::of(device);
    let bound = rig.bindings_of(row);
    let usable = |b: &&Bound| {
        b.chord
            .inputs()
            .all(|i| !names::is_missing(i, rig.layout()))
    };
    let own = bound
        .iter()
        .filter(|b| b.cell.column.kind == kind)
        .find(usable);
    own.or_else(|| bound.iter().find(usable))
}
