//! Lists of bindings, and the presets made of them.

use std::collections::HashMap;
use std::fmt;

use toml::Spanned;
use toml::de::DeValue;

use super::{check_name, settings, titled};
use crate::input::{Chord, Input, clash};
use crate::sheet::lacking;
use crate::sheet::works::{fits, fits_cell};
use crate::sheet::{Binding, Cell, Column, ColumnKind, How, Manner, Preset, Row, Shape, Sheet};
use crate::text::{Fields, Report, wrong_type};

/// The word for "nothing is bound here" in presets and profiles.
pub(crate) const UNBOUND: &str = "unbound";

/// The bindings of one row as they are collected.
pub(super) struct Cells<'r> {
    row: Row,
    /// None where it is misspelt: what would fit cannot be told before that is mended.
    shape: Option<Shape>,
    manner: Manner,
    /// What the row may not be bound to.
    reserved: &'r [Input],
    pub(super) bindings: Vec<Binding>,
}

impl<'r> Cells<'r> {
    pub(super) fn new(
        row: Row,
        shape: Option<Shape>,
        manner: Manner,
        reserved: &'r [Input],
    ) -> Self {
        Cells {
            row,
            shape,
            manner,
            reserved,
            bindings: Vec::new(),
        }
    }

    /// How a binding is worked that says nothing of it.
    fn how(&self) -> How {
        How {
            manner: self.manner,
            ..How::default()
        }
    }

    /// The first column of that kind that nothing stands in yet.
    fn next_column(&self, kind: ColumnKind) -> Option<Column> {
        (1..=Column::LAST)
            .map(|n| Column::new(kind, n))
            .find(|c| self.bindings.iter().all(|b| b.cell.column != *c))
    }
}

/// A `bind` value: one binding or a list of them.
pub(super) fn list(
    value: &Spanned<DeValue<'_>>,
    what: &str,
    cells: &mut Cells<'_>,
    report: &mut Report<'_>,
) {
    match value.get_ref().as_array() {
        Some(items) => {
            for item in items {
                one(item, what, cells, report);
            }
        }
        None => one(value, what, cells, report),
    }
}

fn one(value: &Spanned<DeValue<'_>>, what: &str, cells: &mut Cells<'_>, report: &mut Report<'_>) {
    if let Some(text) = value.get_ref().as_str() {
        let at = report.inside(value);
        add(text, at, (cells.how(), None), what, cells, report);
        return;
    }
    if value.get_ref().as_table().is_none() {
        wrong_type(
            "a binding",
            "an input in quotes, or a table with `on`",
            value,
            report,
        );
        return;
    }
    let Some(mut fields) = Fields::of(value, "a binding", report) else {
        return;
    };
    let on = fields.string("on", report);
    let at = fields.value("on").map_or(fields.at, |v| report.inside(v));
    let manner = fields.word("manner", &Manner::ALL, Manner::word, report);
    if let Some((shape, manner)) = (cells.shape.filter(|s| *s != Shape::Press)).zip(manner) {
        let message =
            format!("{what} is part of a {shape}; only a press has a manner such as {manner}");
        report.add(fields.at, message);
    }
    let how = How {
        manner: manner.unwrap_or(cells.manner),
        strict: fields.boolean("strict", report),
        together: fields.boolean("together", report),
    };
    let number = fields.integer("column", 1..=u32::from(Column::LAST), report);
    match on {
        Some(text) => {
            let number = number.map(|n| n as u8);
            add(text, at, (how, number), what, cells, report);
        }
        None => report.add(
            fields.at,
            "a binding needs its input, as in `on = \"KeyW\"`",
        ),
    }
    fields.finish("a binding", report);
}

fn add(
    text: &str,
    at: usize,
    (how, number): (How, Option<u8>),
    what: &str,
    cells: &mut Cells<'_>,
    report: &mut Report<'_>,
) {
    let chord = match text.parse::<Chord>() {
        Ok(chord) => chord,
        Err(e) => {
            report.add(at + e.span().start, e);
            return;
        }
    };
    let fits = cells
        .shape
        .map_or(Ok(()), |shape| fits(&chord, cells.row, shape));
    if let Err(why) =
        (fits.map_err(|why| why.to_string())).and_then(|()| check_reserved(&chord, cells.reserved))
    {
        report.add(at, why);
        return;
    }
    if how.together && !chord.can_be_together() {
        let why = "cannot be pressed together; that wants two or more keys, buttons or triggers";
        report.add(at, format!("`{chord}` {why}, as in `KeyJ+KeyK`"));
        return;
    }
    let kind = ColumnKind::of(chord.device_kind());
    let column = match number {
        Some(number) => Some(Column::new(kind, number)),
        None => cells.next_column(kind),
    };
    let Some(column) = column else {
        report.add(
            at,
            format!("{what} has more than {} {kind} bindings", Column::LAST),
        );
        return;
    };
    let cell = cells.row.cell(column);
    if let Some(taken) = cells.bindings.iter().find(|b| b.cell == cell) {
        let message = format!(
            "{what} has `{}` in column {column} already; give `{chord}` another column",
            taken.chord
        );
        report.add(at, message);
        return;
    }
    if cells
        .bindings
        .iter()
        .any(|b| b.chord == chord && b.manner == how.manner)
    {
        report.add(
            at,
            format!("{what} is bound to `{chord}` twice; take one out"),
        );
        return;
    }
    cells.bindings.push(Binding {
        cell,
        chord,
        manner: how.manner,
        strict: how.strict,
        together: how.together,
    });
}

/// Rule: the game may use what it reserves, but only where no player can change it.
fn check_reserved(chord: &Chord, reserved: &[Input]) -> Result<(), String> {
    let found = chord.inputs().find_map(|part| {
        let of = reserved.iter().find(|r| clash(part, **r))?;
        Some((part, *of))
    });
    match found {
        None => Ok(()),
        Some((part, of)) => Err(format!(
            "`{part}` is reserved by the sheet{}; take another input, or say `fixed = true` for the action",
            if part == of {
                String::new()
            } else {
                format!(" with `{of}`")
            }
        )),
    }
}

/// The presets of a sheet.
pub(super) fn presets(
    value: &Spanned<DeValue<'_>>,
    sheet: &Sheet,
    report: &mut Report<'_>,
) -> Vec<Preset> {
    let mut out = Vec::new();
    let Some(table) = Fields::of(value, "`presets`", report) else {
        return out;
    };
    for (name, span, value) in table.entries() {
        check_name("a preset", name, span.start, report);
        if out.len() == Sheet::MAX_PRESETS {
            let message = format!("a sheet has at most {} presets", Sheet::MAX_PRESETS);
            report.add(span.start, message);
            return out;
        }
        let what = format!("preset `{name}`");
        let Some(mut fields) = Fields::of(value, &what, report) else {
            continue;
        };
        let title = fields.string("title", report);
        let bind = fields
            .value("bind")
            .and_then(|v| Fields::of(v, "`bind`", report));
        let cells = bind.map(|b| rows(&b, sheet, report)).unwrap_or_default();
        let preset = Preset {
            name: name.to_owned(),
            title: title.map_or_else(|| titled(name), str::to_owned),
            cells,
            settings: settings::of_preset(&mut fields, sheet, report),
        };
        check_essential(&preset, sheet, span.start, report);
        check_twice(&preset, sheet, span.start, report);
        out.push(preset);
        fields.finish(&what, report);
    }
    out
}

/// A preset, too, leaves every essential row a binding.
fn check_essential(preset: &Preset, sheet: &Sheet, at: usize, report: &mut Report<'_>) {
    let given: HashMap<Cell, bool> = preset
        .cells
        .iter()
        .map(|(c, b)| (*c, b.is_some()))
        .collect();
    let defaults = sheet.defaults().iter().map(|b| b.cell);
    let mut bound: Vec<Cell> = defaults.filter(|c| given.get(c) != Some(&false)).collect();
    bound.extend(
        given
            .iter()
            .filter(|(_, is_some)| **is_some)
            .map(|(c, _)| *c),
    );
    bound.sort_unstable();
    for (row, kind) in lacking(sheet, Some(preset), &bound) {
        let (preset, row) = (&preset.name, sheet.row_name(row));
        report.add(
            at,
            format!(
                "preset `{preset}` leaves `{row}` without a {kind} binding, and it is essential; give it one"
            ),
        );
    }
}

/// A preset, too, gives no row the same chord twice. What the sheet has elsewhere in the row gives way to it.
fn check_twice(preset: &Preset, sheet: &Sheet, at: usize, report: &mut Report<'_>) {
    for (n, (cell, chord)) in preset.cells.iter().enumerate() {
        let Some(chord) = chord else { continue };
        let mut before = preset.cells[..n].iter();
        let is_same = |(other, of): &(Cell, Option<Chord>)| {
            let of = of.as_ref();
            of.is_some_and(|of| sheet.holds_twice((*other, of), (*cell, chord)))
        };
        if before.any(is_same) {
            let (preset, row) = (&preset.name, sheet.row_name(cell.row));
            let message =
                format!("preset `{preset}` binds `{row}` to `{chord}` twice; take one out");
            report.add(at, message);
        }
    }
}

/// A table from rows to columns to chords.
fn rows(
    table: &Fields<'_, '_>,
    sheet: &Sheet,
    report: &mut Report<'_>,
) -> Vec<(Cell, Option<Chord>)> {
    let mut out = Vec::new();
    for (name, span, value) in table.entries() {
        let Some(row) = sheet.find_row(name) else {
            if !report.is_full() {
                let all: Vec<String> = (sheet.actions())
                    .flat_map(|(id, _)| sheet.rows_of(id))
                    .map(|row| sheet.row_name(row))
                    .collect();
                let known = || all.iter().map(String::as_str);
                report.add_no_such(span.start, "action or arm", name, known);
            }
            continue;
        };
        let Some(columns) = Fields::of(value, &format!("`{name}`"), report) else {
            continue;
        };
        for (column, span, value) in columns.entries() {
            let column: Column = match column.parse() {
                Ok(column) => column,
                Err(e) => {
                    report.add(span.start, format!("`{column}` is no column; {e}"));
                    continue;
                }
            };
            let Some(text) = value.get_ref().as_str() else {
                wrong_type("a binding of a preset", "an input in quotes", value, report);
                continue;
            };
            let at = report.inside(value);
            match cell_chord(text, row, column, sheet) {
                Ok(chord) => out.push((row.cell(column), chord)),
                Err((offset, why)) => report.add(at + offset, why),
            }
        }
    }
    out
}

/// What a preset or profile puts into a cell; `None` is unbound.
///
/// # Errors
/// Where in the text it goes wrong, and why.
fn cell_chord(
    text: &str,
    row: Row,
    column: Column,
    sheet: &Sheet,
) -> Result<Option<Chord>, (usize, Box<dyn fmt::Display>)> {
    if text == UNBOUND {
        return Ok(None);
    }
    let chord: Chord = text
        .parse()
        .map_err(|e: crate::input::InputError| (e.span().start, Box::new(e) as _))?;
    let action = sheet.declared(row.action);
    fits_cell(&chord, row.cell(column), action.shape).map_err(|why| (0, Box::new(why) as _))?;
    if !action.fixed {
        check_reserved(&chord, sheet.reserved()).map_err(|why| (0, Box::new(why) as _))?;
    }
    Ok(Some(chord))
}
