//! How the bindings of a row are put into words.

use super::{InputPiece, Piece, names, shown};
use crate::input::{DeviceKind, Input, InputShape};
use crate::rig::{Bound, Rig};
use crate::sheet::{Arm, Manner, Row};

/// What the player reads where nothing is bound.
const NOT_BOUND: &str = "[not bound]";

/// Adds the pieces for a row: its binding, or those of all its arms, with the verb if wanted.
pub(super) fn add(out: &mut Vec<Piece>, rig: &Rig, row: Row, device: DeviceKind, verb: bool) {
    let arms = rig.sheet().action(row.action).arms();
    let by_arms = row.arm.is_none() && !arms.is_empty();
    match shown(rig, row, device) {
        Some(bound) if !by_arms || belongs(bound, device) => {
            if verb {
                out.push(Piece::Text(verb_for(bound).to_owned()));
            }
            out.push(input(rig, bound));
        }
        _ if by_arms => add_arms(out, rig, row, device, verb),
        _ => unbound(out, row),
    }
}

/// Whether a binding is for the device in use, not only a stand-in for it.
fn belongs(bound: &Bound, device: DeviceKind) -> bool {
    bound.cell.column.kind == crate::sheet::ColumnKind::of(device)
}

/// All arms of an action: "W A S D", in the order in which hands know them.
fn add_arms(out: &mut Vec<Piece>, rig: &Rig, row: Row, device: DeviceKind, verb: bool) {
    const ORDER: [Arm; 6] = [
        Arm::Up,
        Arm::Left,
        Arm::Down,
        Arm::Right,
        Arm::Forward,
        Arm::Back,
    ];
    let declared = rig.sheet().action(row.action).arms();
    let arms = ORDER.into_iter().filter(|arm| declared.contains(arm));
    let bound: Vec<&Bound> = arms
        .filter_map(|arm| shown(rig, Row::arm(row.action, arm), device))
        .collect();
    let Some(first) = bound.first() else {
        return match shown(rig, row, device) {
            Some(whole) => {
                if verb {
                    out.push(Piece::Text(verb_for(whole).to_owned()));
                }
                out.push(input(rig, whole));
            }
            None => unbound(out, row),
        };
    };
    if verb {
        out.push(Piece::Text(verb_for(first).to_owned()));
    }
    for (i, bound) in bound.iter().enumerate() {
        if i > 0 {
            out.push(Piece::Text(" ".to_owned()));
        }
        out.push(input(rig, bound));
    }
}

fn input(rig: &Rig, bound: &Bound) -> Piece {
    Piece::Input(InputPiece {
        row: bound.cell.row,
        chord: bound.chord.clone(),
        name: names::chord_name(&bound.chord, rig.layout()),
        manner: bound.manner,
    })
}

fn unbound(out: &mut Vec<Piece>, row: Row) {
    out.push(Piece::Unbound {
        row,
        text: NOT_BOUND.to_owned(),
    });
}

/// The verb of an instruction, with a space behind it.
fn verb_for(bound: &Bound) -> &'static str {
    let input = bound.chord.input();
    match (bound.manner, input) {
        (Manner::Hold, _) => "Hold ",
        (Manner::Tap, _) => "Tap ",
        (Manner::DoubleTap, _) => "Double-tap ",
        (Manner::Release, _) => "Release ",
        (Manner::Press, Input::MouseButton(_)) => "Click the ",
        (Manner::Press, Input::Wheel(_)) => "Turn the ",
        (Manner::Press, Input::PadButton(b)) if b.is_trigger() => "Pull the ",
        (Manner::Press, Input::PadButton(_)) => "Press the ",
        (Manner::Press, Input::PadStickHalf(..)) => "Push the ",
        (Manner::Press, _) => match input.shape() {
            InputShape::Plane | InputShape::Line => "Move the ",
            _ => "Press ",
        },
    }
}
