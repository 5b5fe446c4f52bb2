//! What a sheet may have forgotten: no problem, and good to know.

use crate::input::{DeviceKind, Input, InputShape, Modifier, SystemUse, system_use};
use crate::law::Bound;
use crate::sheet::{Action, ActionId, Cell, ColumnKind, Manner, Row, Sheet, SituationId};

/// Something in a sheet that may have been forgotten, or that not every player gets along with.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum Forgotten {
    /// An action without any binding.
    NoBinding(ActionId),
    /// Actions without a binding on devices on which most have one.
    NotOnDevices {
        /// The devices.
        kind: ColumnKind,
        /// The actions that lack one.
        actions: Vec<ActionId>,
    },
    /// Arms without a binding on devices on which another arm of the action has one.
    ArmMissing {
        /// The devices.
        kind: ColumnKind,
        /// The arms.
        rows: Vec<Row>,
    },
    /// Rows that a player cannot tell apart: the same title under the same heading.
    SameTitle(Vec<Row>),
    /// A situation in which no action is live of its own.
    EmptySituation(SituationId),
    /// A trigger or stick has to be worked twice, or only for a moment, which is harder than with a
    /// button.
    Unhandy {
        /// The binding.
        cell: Cell,
        /// What it is on.
        input: Input,
        /// What it wants.
        manner: Manner,
    },
    /// Shift has to be tapped again and again, and five taps in a row open a window on Windows.
    ShiftTaps(Cell),
    /// A system takes the keys for itself.
    TakenBySystem {
        /// The binding.
        cell: Cell,
        /// What it is on, as text.
        chord: String,
        /// By whom, and what for.
        by: SystemUse,
    },
}

/// Looks for everything of the kind, in the order of the sheet.
pub(super) fn forgotten(sheet: &Sheet, bindings: &[Bound]) -> Vec<Forgotten> {
    let on: Vec<(ActionId, &Action)> = sheet.actions().filter(|(_, a)| !a.off).collect();
    let mut found = Vec::new();
    let has = |id: ActionId| bindings.iter().any(|b| b.cell.row.action == id);
    let without = on.iter().filter(|(id, _)| !has(*id));
    found.extend(without.map(|(id, _)| Forgotten::NoBinding(*id)));
    for kind in ColumnKind::ALL {
        found.extend(not_on_devices(kind, &on, bindings));
        found.extend(arms_missing(kind, &on, bindings));
    }
    found.extend(same_titles(sheet, &on, bindings));
    let empty = |situation: &SituationId| on.iter().all(|(_, a)| !a.situations.contains(situation));
    let situations = sheet.situations().map(|(id, _)| id);
    found.extend(situations.filter(empty).map(Forgotten::EmptySituation));
    found.extend(bindings.iter().filter_map(unhandy));
    found.extend(bindings.iter().filter_map(|bound| {
        let by = system_use(&bound.chord)?;
        let (cell, chord) = (bound.cell, bound.chord.to_string());
        Some(Forgotten::TakenBySystem { cell, chord, by })
    }));
    found
}

fn is_on(bound: &Bound, action: ActionId, kind: ColumnKind) -> bool {
    bound.cell.row.action == action && bound.cell.column.kind() == kind
}

/// Those of the actions that lack the devices, where more than half have them.
fn not_on_devices(
    kind: ColumnKind,
    on: &[(ActionId, &Action)],
    bindings: &[Bound],
) -> Option<Forgotten> {
    let has = |id: ActionId| bindings.iter().any(|b| is_on(b, id, kind));
    let bound_at_all = |id: ActionId| bindings.iter().any(|b| b.cell.row.action == id);
    let ids = on.iter().map(|(id, _)| *id).filter(|id| bound_at_all(*id));
    let (with, actions): (Vec<ActionId>, Vec<ActionId>) = ids.partition(|id| has(*id));
    let most = with.len() > actions.len() && !actions.is_empty();
    most.then_some(Forgotten::NotOnDevices { kind, actions })
}

/// Arms that lack the devices, where another arm of the action has them and no whole stick does.
fn arms_missing(
    kind: ColumnKind,
    on: &[(ActionId, &Action)],
    bindings: &[Bound],
) -> Option<Forgotten> {
    let mut rows = Vec::new();
    for (id, action) in on.iter().filter(|(_, a)| !a.arms().is_empty()) {
        let own: Vec<Row> = (bindings.iter().filter(|b| is_on(b, *id, kind)))
            .map(|b| b.cell.row)
            .collect();
        let whole = own.iter().any(|row| row.arm.is_none());
        if !whole && !own.is_empty() {
            let arms = action.arms().iter().map(|arm| Row::arm(*id, *arm));
            rows.extend(arms.filter(|row| !own.contains(row)));
        }
    }
    (!rows.is_empty()).then_some(Forgotten::ArmMissing { kind, rows })
}

fn same_titles(sheet: &Sheet, on: &[(ActionId, &Action)], bindings: &[Bound]) -> Vec<Forgotten> {
    // A plane that is bound by its arms only has no row of its own to be read.
    let read = |row: &Row, action: &Action| {
        row.arm.is_some() || action.arms().is_empty() || bindings.iter().any(|b| b.cell.row == *row)
    };
    let rows: Vec<(Row, _, &str)> = on
        .iter()
        .flat_map(|(id, action)| {
            let rows = sheet.rows_of(*id).filter(|row| read(row, action));
            rows.map(|row| (row, action.group))
        })
        .map(|(row, group)| (row, group, sheet.row_title(row)))
        .collect();
    let mut found = Vec::new();
    for (n, (row, group, title)) in rows.iter().enumerate() {
        let same = |(_, g, t): &&(Row, _, &str)| g == group && t == title;
        let first = !rows[..n].iter().any(|r| same(&r));
        let others = rows[n + 1..].iter().filter(same).map(|(row, ..)| *row);
        let all: Vec<Row> = [*row].into_iter().chain(others).collect();
        if first && all.len() > 1 {
            found.push(Forgotten::SameTitle(all));
        }
    }
    found
}

fn unhandy(bound: &Bound) -> Option<Forgotten> {
    let (cell, input, manner) = (bound.cell, bound.chord.input(), bound.manner);
    let taps = matches!(manner, Manner::Tap | Manner::DoubleTap);
    let is_shift = match input {
        Input::Modifier(modifier) => modifier == Modifier::Shift,
        Input::Key(place) => Modifier::of_place(place) == Some(Modifier::Shift),
        _ => false,
    };
    if taps && is_shift {
        return Some(Forgotten::ShiftTaps(cell));
    }
    let analog = input.shape() == InputShape::Pull && input.device_kind() != DeviceKind::Touch;
    (taps && analog).then_some(Forgotten::Unhandy {
        cell,
        input,
        manner,
    })
}

impl Forgotten {
    /// What it is and what to do, in words.
    pub fn describe(&self, sheet: &Sheet) -> String {
        let name = |row: Row| format!("`{}`", sheet.row_name(row));
        let actions = |ids: &[ActionId]| list(ids.iter().map(|id| name(Row::of(*id))));
        match self {
            Forgotten::NoBinding(id) => format!(
                "{} has no binding; players find it empty until they bind it",
                name(Row::of(*id))
            ),
            Forgotten::NotOnDevices { kind, actions: ids } => {
                format!("no {kind} binding: {}; most actions have one", actions(ids))
            }
            Forgotten::ArmMissing { kind, rows } => format!(
                "no {kind} binding: {}; the other arms have one",
                list(rows.iter().copied().map(name))
            ),
            Forgotten::SameTitle(rows) => {
                let title = rows.first().map_or("", |row| sheet.row_title(*row));
                let rows = list(rows.iter().copied().map(name));
                format!("{rows} read \"{title}\" under the same heading; give each a `title`")
            }
            Forgotten::EmptySituation(id) => {
                let situation = sheet.situation(*id).map_or("", |s| s.name.as_str());
                format!(
                    "no action is live in `{situation}` of its own; say `situation = \"{situation}\"` under those that are"
                )
            }
            Forgotten::Unhandy {
                cell,
                input,
                manner,
            } => format!(
                "{} wants a {manner} of {input}, which is harder than with a button",
                name(cell.row)
            ),
            Forgotten::ShiftTaps(cell) => format!(
                "{} wants taps of Shift, and five in a row open a window on Windows (Sticky Keys)",
                name(cell.row)
            ),
            Forgotten::TakenBySystem { cell, chord, by } => format!(
                "{} is on {chord}, which {} on {}",
                name(cell.row),
                by.does,
                by.on
            ),
        }
    }
}

/// Names in a sentence, cut short where there are many.
fn list(names: impl Iterator<Item = String>) -> String {
    const MOST: usize = 8;
    let names: Vec<String> = names.collect();
    let shown = names[..names.len().min(MOST)].join(", ");
    match names.len().checked_sub(MOST).filter(|more| *more > 0) {
        Some(more) => format!("{shown} and {more} more"),
        None => shown,
    }
}
