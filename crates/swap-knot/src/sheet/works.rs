//! Which input can work which row, and how: the one place that knows.

use super::{Arm, ColumnKind, Row, Shape};
use crate::input::{Chord, InputShape};

/// How an input works a row.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Works {
    /// It is on or off.
    Switch,
    /// The row follows how far it is in.
    Follow,
    /// It works a line or plane as a whole.
    Whole,
}

/// How an input of some shape works a row of an action of some shape; none where it cannot.
pub(crate) const fn works(input: InputShape, arm: Option<Arm>, shape: Shape) -> Option<Works> {
    match (input, shape, arm) {
        (InputShape::Button | InputShape::Touch, Shape::Press | Shape::Pull, None)
        | (InputShape::Button | InputShape::Pulse | InputShape::Touch, _, Some(_))
        | (InputShape::Pull | InputShape::Pulse, Shape::Press, None) => Some(Works::Switch),
        (InputShape::Pull, Shape::Pull, None) | (InputShape::Pull, _, Some(_)) => {
            Some(Works::Follow)
        }
        (InputShape::Line | InputShape::Touch, Shape::Line, None)
        | (InputShape::Plane | InputShape::Touch, Shape::Plane, None) => Some(Works::Whole),
        _ => None,
    }
}

/// Whether some input of a column's devices can work a row.
pub(crate) fn can_work(kind: ColumnKind, arm: Option<Arm>, shape: Shape) -> bool {
    let inputs: &[InputShape] = match kind {
        ColumnKind::Keyboard => &[InputShape::Button, InputShape::Pulse, InputShape::Plane],
        ColumnKind::Gamepad => &[InputShape::Button, InputShape::Pull, InputShape::Plane],
        ColumnKind::Touch => &[InputShape::Touch],
        ColumnKind::Other => &[InputShape::Button, InputShape::Pull, InputShape::Line],
    };
    inputs
        .iter()
        .any(|&input| works(input, arm, shape).is_some())
}

/// Whether a chord can work a row of that shape; if not, why and what to do.
pub(crate) fn fits(chord: &Chord, row: Row, shape: Shape) -> Result<(), String> {
    let input = chord.input();
    let kind = ColumnKind::of(input.device_kind());
    if let Some(part) = (chord.held().iter()).find(|i| ColumnKind::of(i.device_kind()) != kind) {
        let other = ColumnKind::of(part.device_kind());
        return Err(format!(
            "`{chord}` holds a {other} input for a {kind} one; take all of a chord from one kind of column"
        ));
    }
    if works(input.shape(), row.arm, shape).is_some() {
        return Ok(());
    }
    Err(match (input.shape(), row.arm) {
        (InputShape::Plane, _) => {
            format!(
                "`{input}` moves on two axes and can only work a plane; use one direction of it, such as `{}`",
                one_way(&chord.to_string())
            )
        }
        (InputShape::Line, _) => {
            format!(
                "`{input}` is a whole axis and can only work a line; use one half of it, `{input}+` or `{input}-`"
            )
        }
        (InputShape::Pulse, None) if shape == Shape::Pull => {
            format!(
                "`{input}` comes in notches and cannot work a pull; use a key, a button or a trigger"
            )
        }
        _ => format!(
            "`{input}` is one input and cannot work a whole {shape}; bind it to an arm, such as `up`"
        ),
    })
}

fn one_way(plane: &str) -> String {
    match plane {
        "mouse:move" => "wheel:up".to_owned(),
        stick => format!("{stick}.up"),
    }
}
