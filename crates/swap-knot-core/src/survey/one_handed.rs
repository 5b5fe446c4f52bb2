//! Bindings for one hand, drafted by moving what it does not reach.

use crate::conflict::conflicts_of;
use crate::input::{Chord, DeviceKind, Input, Place, Platform};
use crate::law::Bound;
use crate::layout::{Board, Hand, Layout, Resolver};
use crate::sheet::{Cell, Column, ColumnKind, Row, Sheet};

use super::reach::{Reach, reaches_key};

/// Bindings with which one hand plays alone on the keyboard, to be looked through and edited.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct OneHanded {
    /// The cells that change.
    pub cells: Vec<(Cell, Option<Chord>)>,
    /// Cells that stay out of reach: the game keeps them, or no key is free for them.
    pub unmoved: Vec<Cell>,
}

/// Drafts bindings for one hand alone, without the mouse: what it plays already stays, and everything
/// else moves to the free key that lies nearest to where the hand rests; what is moved by the mouse alone
/// gets a key for each direction, or none. No conflict is made.
///
/// ```
/// use swap_knot::check::{one_handed, Reach};
/// use swap_knot::input::Platform;
/// use swap_knot::layout::Hand;
/// use swap_knot::{Layout, Profile, Rig, Sheet};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.lantern]
///     bind = "KeyD"
///     [actions.horn]
///     bind = "KeyH"
/// "#)?;
/// let us = Layout::us();
/// let rig = Rig::new(&sheet, &Profile::default(), &us);
/// let made = one_handed(&sheet, rig.bindings(), Hand::Left, &us, Platform::current());
/// assert_eq!(made.cells[0].1.as_ref().unwrap().to_string(), "KeyS"); // D is taken, S lies beside it
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
pub fn one_handed(
    sheet: &Sheet,
    bindings: &[Bound],
    hand: Hand,
    layout: &Layout,
    platform: Platform,
) -> OneHanded {
    let on = Resolver::new(layout, platform);
    let far = Reach::new(sheet, bindings, layout, platform).out_of_reach(hand, false);
    let near = |chord: &Chord| {
        let key = |i: Input| i.device_kind() == DeviceKind::Keyboard && reaches_key(hand, i, &on);
        chord.inputs().all(key)
    };
    let mut after = bindings.to_vec();
    let mut made = OneHanded {
        cells: Vec::new(),
        unmoved: Vec::new(),
    };
    let at_desk = |b: &&Bound| b.cell.column.kind() == ColumnKind::Keyboard;
    let mut rows: Vec<Row> = (bindings.iter().filter(at_desk))
        .map(|b| b.cell.row)
        .filter(|row| far.contains(&row.action))
        .collect();
    rows.dedup();
    // What is turned or moved by a mouse goes by keys, direction by direction, where it has none yet.
    let arms_of = |row: Row| {
        let has_arms = bindings
            .iter()
            .any(|b| b.cell.row.action == row.action && b.cell.row.arm.is_some());
        let arms = sheet.declared(row.action).arms();
        let arms = arms.iter().filter(move |_| row.arm.is_none() && !has_arms);
        arms.map(move |&arm| Row::arm(row.action, arm))
            .collect::<Vec<Row>>()
    };
    let rows: Vec<(Row, Vec<Row>)> = rows.into_iter().map(|row| (row, arms_of(row))).collect();
    for (row, arms) in rows {
        let own = |b: &&Bound| b.cell.row == row && at_desk(b);
        // What is worked whole is worked by its arms as well, where it has them.
        let by_arms = row.arm.is_none()
            && bindings
                .iter()
                .any(|b| b.cell.row.action == row.action && b.cell.row.arm.is_some());
        let Some(first) = bindings.iter().find(own) else {
            continue;
        };
        if by_arms || bindings.iter().filter(own).any(|b| near(&b.chord)) {
            continue;
        }
        let wanted: Vec<Cell> = match arms.is_empty() {
            true => vec![first.cell],
            false => (arms.iter())
                .map(|arm| arm.cell(Column::new(ColumnKind::Keyboard, 1)))
                .collect(),
        };
        let before = (made.cells.len(), after.clone());
        for cell in wanted {
            let free = find_free(
                sheet,
                &after,
                (first, cell),
                places(layout.board(), hand),
                &on,
            );
            let Some(bound) = free.filter(|_| !sheet.declared(row.action).fixed) else {
                // A direction alone is no way to look round.
                made.cells.truncate(before.0);
                after = before.1;
                made.unmoved.push(first.cell);
                break;
            };
            made.cells.push((bound.cell, Some(bound.chord.clone())));
            after.retain(|b| b.cell != bound.cell);
            let at = after.partition_point(|b| b.cell < bound.cell);
            after.insert(at, bound);
        }
    }
    made
}

/// A binding on the first of those keys that is free for a cell, worked as another one of its action.
fn find_free(
    sheet: &Sheet,
    after: &[Bound],
    (like, cell): (&Bound, Cell),
    places: Vec<Place>,
    on: &Resolver,
) -> Option<Bound> {
    places.into_iter().find_map(|place| {
        let candidate = Bound {
            chord: place.into(),
            cell,
            ..like.clone()
        };
        let is_kept = on
            .find_related(&candidate.chord, sheet.reserved())
            .is_some();
        let others: Vec<Bound> = after.iter().filter(|b| b.cell != cell).cloned().collect();
        let meets = conflicts_of(sheet, &candidate, &others, on);
        let is_free = !is_kept && !meets.iter().any(|c| c.class.is_conflict());
        // Two directions of one action are no conflict, and not what is meant either.
        let is_own = others
            .iter()
            .any(|b| b.cell.row.action == cell.row.action && b.chord == candidate.chord);
        (is_free && !is_own).then_some(candidate)
    })
}

/// The keys that write and that a hand reaches, from where it rests outwards.
fn places(board: Board, hand: Hand) -> Vec<Place> {
    let home = match hand {
        Hand::Left => Place::KeyD,
        Hand::Right => Place::KeyK,
    };
    let keys = board.keys().iter().map(|k| k.place);
    let mut places: Vec<Place> = keys
        .filter(|p| p.is_writing() && board.reaches(hand, *p))
        .collect();
    let away = |place: Place| board.distance(home, place).unwrap_or(f32::MAX);
    places.sort_by(|a, b| away(*a).total_cmp(&away(*b)));
    places
}
