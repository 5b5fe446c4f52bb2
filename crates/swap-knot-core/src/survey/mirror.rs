//! A left-handed preset, drafted by mirroring the board.

use std::collections::BTreeMap;
use std::fmt::Write as _;

use crate::conflict::{Conflict, unsettled};
use crate::input::{Chord, Input, Place, Platform};
use crate::law::Bound;
use crate::layout::{Board, Layout, Resolver};
use crate::sheet::{Arm, Cell, ColumnKind, Preset, Row, Sheet};

/// A preset drafted by mirroring the keyboard, to be looked through and edited.
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct Mirrored {
    /// The preset: only cells that change.
    pub preset: Preset,
    /// Conflicts that the defaults do not have, to be settled by hand.
    pub conflicts: Vec<Conflict>,
    /// Cells that stay where they are though a hand would like them moved: they are on a key of the
    /// writing block that has no counterpart on the board, or one that is reserved.
    pub unmoved: Vec<Cell>,
}

/// Drafts a preset for the other hand: every key on the writing block moves to the one that the
/// same finger of the other hand presses. Left and right stay left and right: `KeyA` and `KeyD`
/// become `KeyK` and `Semicolon`.
///
/// Letters, the mouse, arrows and function keys stay. What would land on a reserved input stays as
/// well, and so do keys without a counterpart: `Equal` and `BracketRight` lie further out than
/// anything on the left, and `IntlBackslash` and `Backslash` make a pair on boards that have both.
/// Those are told.
///
/// ```
/// use swap_knot::check::mirror;
/// use swap_knot::input::Platform;
/// use swap_knot::{Layout, Profile, Rig, Sheet};
///
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.lantern]\nbind = \"KeyF\"")?;
/// let rig = Rig::new(&sheet, &Profile::default(), Layout::us());
/// let mirrored = mirror(&sheet, rig.bindings(), "left-handed", &Layout::us(), Platform::current());
/// assert!(mirrored.to_toml(&sheet).contains("lantern = { keyboard-1 = \"KeyJ\" }"));
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
pub fn mirror(
    sheet: &Sheet,
    bindings: &[Bound],
    name: &str,
    layout: &Layout,
    platform: Platform,
) -> Mirrored {
    let mut after: Vec<Bound> = bindings.to_vec();
    let (mut cells, mut unmoved) = (Vec::new(), Vec::new());
    let over = |input| other_side(sheet, layout.board(), input);
    for bound in &mut after {
        let mirrored = mirrored(bindings, bound.cell, &over);
        let Some(chord) = mirrored.filter(|c| *c != bound.chord) else {
            let stays = |i: Input| match i {
                Input::Key(place) => place.is_writing() && place != Place::Space,
                _ => false,
            };
            let on_keys = bound.cell.column.kind() == ColumnKind::Keyboard;
            if on_keys && bound.chord.inputs().any(stays) {
                unmoved.push(bound.cell);
            }
            continue;
        };
        cells.push((bound.cell, Some(chord.clone())));
        bound.chord = chord;
    }
    let on = Resolver::new(layout, platform);
    let found = |bound: &[Bound]| unsettled(sheet, bound, &on);
    let before = found(bindings);
    let known = |c: &Conflict| {
        let mut same = before.iter();
        same.any(|b| b.first.cell == c.first.cell && b.second.cell == c.second.cell)
    };
    let mut new = found(&after);
    new.retain(|c| !known(c));
    let mut title = name.replace('-', " ");
    if let Some(first) = title.get_mut(..1) {
        first.make_ascii_uppercase();
    }
    Mirrored {
        preset: Preset {
            name: name.to_owned(),
            title,
            cells,
            settings: BTreeMap::new(),
        },
        conflicts: new,
        unmoved,
    }
}

impl Mirrored {
    /// The preset as it stands in a sheet.
    pub fn to_toml(&self, sheet: &Sheet) -> String {
        // A mirror turns round what is bound; what is set stays as it is.
        let Preset {
            name, title, cells, ..
        } = &self.preset;
        let mut out = format!("[presets.{name}]\ntitle = \"{title}\"\n[presets.{name}.bind]\n");
        let mut rows: Vec<Row> = cells.iter().map(|(c, _)| c.row).collect();
        rows.dedup();
        for row in rows {
            let columns: Vec<String> = cells
                .iter()
                .filter(|(c, _)| c.row == row)
                .map(|(cell, chord)| {
                    let chord = chord
                        .as_ref()
                        .map_or("unbound".to_owned(), Chord::to_string);
                    format!("{} = \"{chord}\"", cell.column)
                })
                .collect();
            let name = sheet.row_name(row);
            // A dot would make a table of a bare key.
            let quote = if row.arm.is_some() { "\"" } else { "" };
            // Writing to a String cannot fail.
            let _ = writeln!(out, "{quote}{name}{quote} = {{ {} }}", columns.join(", "));
        }
        out
    }
}

/// What a cell holds once the board is mirrored.
fn mirrored(
    bindings: &[Bound],
    cell: Cell,
    other_side: &dyn Fn(Input) -> Option<Input>,
) -> Option<Chord> {
    let own = chord_in(bindings, cell)?;
    if cell.column.kind() != ColumnKind::Keyboard {
        return None;
    }
    let over = |chord: &Chord| {
        let held: Option<Vec<Input>> = chord.held().iter().map(|&i| other_side(i)).collect();
        Chord::new(held?, other_side(chord.input())?).ok()
    };
    // Left stays left: what the opposite arm has, mirrored, is on the right side again.
    let sideways = matches!(cell.row.arm, Some(Arm::Left | Arm::Right));
    let opposite = cell.row.arm.filter(|_| sideways).map(Arm::opposite);
    if let Some(arm) = opposite {
        let twin = Row::arm(cell.row.action, arm).cell(cell.column);
        let twin = chord_in(bindings, twin)?;
        let (mine, theirs) = (over(own)?, over(twin)?);
        return Some(if mine == *own { mine } else { theirs });
    }
    over(own)
}

fn chord_in(bindings: &[Bound], cell: Cell) -> Option<&Chord> {
    let at = bindings.binary_search_by_key(&cell, |b| b.cell).ok()?;
    Some(&bindings[at].chord)
}

/// The same finger's key on the other side; nothing where that one is reserved.
fn other_side(sheet: &Sheet, board: Board, input: Input) -> Option<Input> {
    let Input::Key(place) = input else {
        return Some(input);
    };
    let other = other_place(place);
    // A pair is one only on a board that has both.
    if !(board.has(place) && board.has(other)) {
        return Some(input);
    }
    let input = Input::Key(other);
    (!sheet.reserved().contains(&input)).then_some(input)
}

fn other_place(place: Place) -> Place {
    use Place::*;
    const PAIRS: [(Place, Place); 22] = [
        (Backquote, Minus),
        (Digit1, Digit0),
        (Digit2, Digit9),
        (Digit3, Digit8),
        (Digit4, Digit7),
        (Digit5, Digit6),
        (Tab, BracketLeft),
        (KeyQ, KeyP),
        (KeyW, KeyO),
        (KeyE, KeyI),
        (KeyR, KeyU),
        (KeyT, KeyY),
        (CapsLock, Quote),
        (KeyA, Semicolon),
        (KeyS, KeyL),
        (KeyD, KeyK),
        (KeyF, KeyJ),
        (KeyG, KeyH),
        (KeyZ, Slash),
        (KeyX, Period),
        (KeyC, Comma),
        (KeyV, KeyM),
    ];
    const SIDES: [(Place, Place); 6] = [
        (KeyB, KeyN),
        (IntlBackslash, Backslash),
        (ShiftLeft, ShiftRight),
        (ControlLeft, ControlRight),
        (AltLeft, AltRight),
        (MetaLeft, MetaRight),
    ];
    for (left, right) in PAIRS.into_iter().chain(SIDES) {
        if place == left {
            return right;
        }
        if place == right {
            return left;
        }
    }
    place
}
