//! What a sheet may have forgotten: no problem, and good to know.

use std::collections::HashMap;

use crate::input::{DeviceKind, InHand, Input, InputShape, Modifier, SystemUse, system_use};
use crate::law::Bound;
use crate::sheet::{
    Action, ActionId, Cell, ColumnKind, GroupId, Manner, Row, Shape, Sheet, SituationId,
};

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
    /// A situation in which no action is live of its own, unless it is one to type in: that has the keys.
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
    /// An action that says `resume = false` stays silent over a change of situations, while what others
    /// followed before is not at rest.
    Waits {
        /// The binding that waits.
        cell: Cell,
        /// What it waits for.
        input: Input,
        /// Those that follow the input where this one is not live.
        others: Vec<ActionId>,
    },
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
    let mut cells: HashMap<ActionId, Vec<Cell>> = HashMap::new();
    for bound in bindings {
        cells
            .entry(bound.cell.row.action)
            .or_default()
            .push(bound.cell);
    }
    let on = sheet.actions().filter(|(_, action)| !action.off);
    let on: Vec<Looked<'_>> = on
        .map(|(id, action)| Looked {
            id,
            action,
            cells: cells.remove(&id).unwrap_or_default(),
        })
        .collect();
    let mut found = Vec::new();
    let without = on.iter().filter(|a| a.cells.is_empty());
    found.extend(without.map(|a| Forgotten::NoBinding(a.id)));
    for kind in ColumnKind::ALL {
        found.extend(not_on_devices(kind, &on));
        found.extend(arms_missing(kind, &on));
    }
    found.extend(same_titles(sheet, &on));
    let empty =
        |situation: &SituationId| on.iter().all(|a| !a.action.situations.contains(situation));
    let situations = sheet.situations().filter(|(_, s)| !s.typing);
    let situations = situations.map(|(id, _)| id);
    found.extend(situations.filter(empty).map(Forgotten::EmptySituation));
    found.extend(bindings.iter().filter_map(unhandy));
    found.extend(waits(sheet, bindings));
    found.extend(bindings.iter().filter_map(|bound| {
        let by = system_use(&bound.chord)?;
        let (cell, chord) = (bound.cell, bound.chord.to_string());
        Some(Forgotten::TakenBySystem { cell, chord, by })
    }));
    found
}

/// An action that is on, with its bindings.
struct Looked<'a> {
    id: ActionId,
    action: &'a Action,
    cells: Vec<Cell>,
}

impl Looked<'_> {
    /// The rows that are bound on some devices.
    fn rows_on(&self, kind: ColumnKind) -> impl Iterator<Item = Row> {
        let cells = self.cells.iter().filter(move |c| c.column.kind() == kind);
        cells.map(|cell| cell.row)
    }
}

/// Those of the actions that lack the devices, where more than half have them.
fn not_on_devices(kind: ColumnKind, on: &[Looked<'_>]) -> Option<Forgotten> {
    let bound = on.iter().filter(|a| !a.cells.is_empty());
    let (with, without): (Vec<&Looked<'_>>, Vec<&Looked<'_>>) =
        bound.partition(|a| a.rows_on(kind).next().is_some());
    let actions: Vec<ActionId> = without.iter().map(|a| a.id).collect();
    let most = with.len() > actions.len() && !actions.is_empty();
    most.then_some(Forgotten::NotOnDevices { kind, actions })
}

/// Arms that lack the devices, where another arm of the action has them and no whole stick does.
fn arms_missing(kind: ColumnKind, on: &[Looked<'_>]) -> Option<Forgotten> {
    let mut rows = Vec::new();
    for looked in on {
        let own: Vec<Row> = looked.rows_on(kind).collect();
        let whole = own.iter().any(|row| row.arm.is_none());
        if !whole && !own.is_empty() {
            let arms = looked.action.arms().iter();
            let arms = arms.map(|arm| Row::arm(looked.id, *arm));
            rows.extend(arms.filter(|row| !own.contains(row)));
        }
    }
    (!rows.is_empty()).then_some(Forgotten::ArmMissing { kind, rows })
}

/// Rows of the same title under the same heading, in the order of the sheet.
fn same_titles(sheet: &Sheet, on: &[Looked<'_>]) -> Vec<Forgotten> {
    let mut at: HashMap<(GroupId, &str), usize> = HashMap::new();
    let mut rows: Vec<Vec<Row>> = Vec::new();
    for looked in on {
        for row in sheet.rows_of(looked.id) {
            // A plane that is bound by its arms only has no row of its own to be read.
            let read = row.arm.is_some()
                || looked.action.arms().is_empty()
                || looked.cells.iter().any(|c| c.row == row);
            if read {
                let title = (looked.action.group, sheet.row_title(row));
                let at = *at.entry(title).or_insert(rows.len());
                match rows.get_mut(at) {
                    Some(same) => same.push(row),
                    None => rows.push(vec![row]),
                }
            }
        }
    }
    let doubled = rows.into_iter().filter(|rows| rows.len() > 1);
    doubled.map(Forgotten::SameTitle).collect()
}

/// Values that are not taken up, of what others followed in a situation that goes before.
fn waits(sheet: &Sheet, bindings: &[Bound]) -> Vec<Forgotten> {
    let action = |bound: &Bound| sheet.declared(bound.cell.row.action);
    let is_level = |bound: &&Bound| {
        let input = bound.chord.input();
        let goes_far = matches!(
            input.shape(),
            InputShape::Pull | InputShape::Line | InputShape::Plane
        );
        goes_far && input != Input::MouseMove
    };
    let levels: Vec<&Bound> = bindings.iter().filter(is_level).collect();
    let waiting = levels.iter().filter(|bound| {
        let action = action(bound);
        !action.resumes() && action.shape != Shape::Press
    });
    let found = waiting.filter_map(|bound| {
        let own = &action(bound).situations;
        let in_hand = |bound: &Bound| InHand::of_fixed(bound.chord.input());
        let elsewhere = |other: &&&Bound| {
            let comes_before = action(other).situations.iter().any(|s| !own.contains(s));
            !own.is_empty()
                && comes_before
                && other.cell.row.action != bound.cell.row.action
                && in_hand(bound).relation(&in_hand(other)).is_some()
        };
        let others = levels.iter().filter(elsewhere);
        let mut others: Vec<ActionId> = others.map(|other| other.cell.row.action).collect();
        others.dedup();
        let (cell, input) = (bound.cell, bound.chord.input());
        (!others.is_empty()).then_some(Forgotten::Waits {
            cell,
            input,
            others,
        })
    });
    found.collect()
}

fn unhandy(bound: &Bound) -> Option<Forgotten> {
    let (cell, input, manner) = (bound.cell, bound.chord.input(), bound.manner);
    let taps = manner.gesture().taps();
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
            Forgotten::Waits {
                cell,
                input,
                others,
            } => format!(
                "{} stays silent after {} until {input} has been let go (`resume = false`)",
                name(cell.row),
                actions(others)
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
