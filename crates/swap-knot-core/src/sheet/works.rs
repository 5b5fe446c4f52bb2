//! Which input can work which row, and how: the one place that knows.

use super::{Arm, Cell, Column, ColumnKind, Row, Shape};
use crate::input::{Chord, Input, InputShape};

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
        | (InputShape::Plane | InputShape::Touch, Shape::Plane, None)
        | (InputShape::Space, Shape::Plane | Shape::Space, None) => Some(Works::Whole),
        _ => None,
    }
}

/// Whether some input of a column's devices can work a row.
pub(crate) fn can_work(kind: ColumnKind, arm: Option<Arm>, shape: Shape) -> bool {
    let inputs: &[InputShape] = match kind {
        ColumnKind::Keyboard => &[InputShape::Button, InputShape::Pulse, InputShape::Plane],
        ColumnKind::Gamepad => &[
            InputShape::Button,
            InputShape::Pull,
            InputShape::Plane,
            InputShape::Space,
        ],
        ColumnKind::Touch => &[InputShape::Touch],
        ColumnKind::Other => &[InputShape::Button, InputShape::Pull, InputShape::Line],
    };
    inputs
        .iter()
        .any(|&input| works(input, arm, shape).is_some())
}

/// Why a chord cannot stand in a cell.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum Misfit {
    /// It is for the columns of other devices.
    #[error("`{chord}` is a {} input and cannot stand in column {column}", ColumnKind::of(chord.device_kind()))]
    OtherColumn {
        /// The chord.
        chord: Chord,
        /// The column.
        column: Column,
    },
    /// Its parts are for the columns of different devices.
    #[error(
        "`{chord}` holds a {} input for a {} one; take all of a chord from one kind of column",
        ColumnKind::of(part.device_kind()), ColumnKind::of(chord.input().device_kind())
    )]
    MixedColumns {
        /// The chord.
        chord: Chord,
        /// The part that is from elsewhere.
        part: Input,
    },
    /// It moves on two axes, and the row does not.
    #[error(
        "`{input}` moves on two axes and can only work a plane; use one direction of it, such as `{}`",
        one_way(*input)
    )]
    TwoAxes {
        /// The stick or the mouse.
        input: Input,
    },
    /// It is turned, and the row is not.
    #[error("`{input}` is turned on three axes and can only work a whole plane or space")]
    Turned {
        /// The pad's motion.
        input: Input,
    },
    /// It is a whole axis, and the row no line.
    #[error(
        "`{input}` is a whole axis and can only work a line; use one half of it, `{input}+` or `{input}-`"
    )]
    WholeAxis {
        /// The axis.
        input: Input,
    },
    /// It comes in notches, and the row is pulled.
    #[error("`{input}` comes in notches and cannot work a pull; use a key, a button or a trigger")]
    Notches {
        /// The direction of the wheel.
        input: Input,
    },
    /// It is one input, and the row wants all directions at once.
    #[error(
        "`{input}` is one input and cannot work a whole {shape}; bind it to an arm, such as `{}`",
        if *shape == Shape::Line { "left" } else { "up" }
    )]
    OneInput {
        /// The input.
        input: Input,
        /// The shape of the action.
        shape: Shape,
    },
}

/// Whether a chord can work a row of that shape; if not, why and what to do.
pub(crate) fn fits(chord: &Chord, row: Row, shape: Shape) -> Result<(), Misfit> {
    let input = chord.input();
    let kind = ColumnKind::of(input.device_kind());
    let mut held = chord.held().iter().copied();
    if let Some(part) = held.find(|i| ColumnKind::of(i.device_kind()) != kind) {
        let chord = chord.clone();
        return Err(Misfit::MixedColumns { chord, part });
    }
    if works(input.shape(), row.arm, shape).is_some() {
        return Ok(());
    }
    Err(match (input.shape(), row.arm) {
        (InputShape::Plane, _) => Misfit::TwoAxes { input },
        (InputShape::Space, _) => Misfit::Turned { input },
        (InputShape::Line, _) => Misfit::WholeAxis { input },
        (InputShape::Pulse, None) if shape == Shape::Pull => Misfit::Notches { input },
        _ => Misfit::OneInput { input, shape },
    })
}

/// Whether a chord can stand in a cell of an action of that shape; if not, why.
pub(crate) fn fits_cell(chord: &Chord, cell: Cell, shape: Shape) -> Result<(), Misfit> {
    if ColumnKind::of(chord.device_kind()) != cell.column.kind() {
        let (chord, column) = (chord.clone(), cell.column);
        return Err(Misfit::OtherColumn { chord, column });
    }
    fits(chord, cell.row, shape)
}

fn one_way(plane: Input) -> String {
    match plane {
        Input::MouseMove => "wheel:up".to_owned(),
        stick => format!("{stick}.up"),
    }
}
