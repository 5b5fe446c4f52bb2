//! Bindings: each where it stands in the sheet.

use swap_knot::{Cell, Chord, Row, Sheet};
use toml_edit::{Array, DocumentMut, Item, RawString, TableLike, Value};

use crate::{numbers::of_action, set, table};

/// Writes what stands in some cells now, row by row.
pub(crate) fn adopt(document: &mut DocumentMut, sheet: &Sheet, cells: &[(Cell, Option<Chord>)]) {
    let mut rows: Vec<Row> = cells.iter().map(|(cell, _)| cell.row).collect();
    rows.dedup();
    for row in rows {
        let own = cells.iter().filter(|(cell, _)| cell.row == row);
        let own: Vec<Change> = own
            .map(|(cell, chord)| Change {
                before: sheet.default_of(*cell).map(|b| b.chord.clone()),
                after: chord.clone(),
            })
            .collect();
        let name = match sheet.action(row.action) {
            Some(action) => action.name.clone(),
            None => continue,
        };
        let Some(action) = of_action(document.as_table_mut(), &name) else {
            continue;
        };
        let of_row = match row.arm {
            Some(arm) => table(action, arm.word(), true),
            None => Some(action),
        };
        if let Some(of_row) = of_row {
            change_row(of_row, &own);
        }
    }
}

/// What a cell had in the sheet, and what it has in the profile.
struct Change {
    before: Option<Chord>,
    after: Option<Chord>,
}

fn change_row(of_row: &mut dyn TableLike, all: &[Change]) {
    let bind = of_row.get_mut("bind");
    let mut new: Vec<&Chord> = Vec::new();
    let mut list = match bind {
        None => {
            new.extend(all.iter().filter_map(|c| c.after.as_ref()));
            return add(of_row, &new);
        }
        Some(Item::Value(Value::Array(list))) => Bind::List(list),
        Some(Item::Value(one)) => Bind::One(one),
        Some(_) => return,
    };
    // First where each stands, then what it becomes: two of a row may have changed places.
    let standing = |change: &Change| {
        let before = change.before.as_ref()?;
        (0..list.len()).find(|&n| list.get(n).is_some_and(|v| is(v, before)))
    };
    let places: Vec<Option<usize>> = all.iter().map(standing).collect();
    let mut gone = Vec::new();
    for (change, place) in all.iter().zip(places) {
        match (place, &change.after) {
            (Some(n), Some(chord)) => list.put(n, chord),
            (Some(n), None) => gone.push(n),
            (None, Some(chord)) => new.push(chord),
            (None, None) => {}
        }
    }
    // A profile may have one chord in two cells of a row; a sheet says it once.
    for n in 0..list.len() {
        let twice = (0..n).any(|m| !gone.contains(&m) && list.are_same(m, n));
        if twice && !gone.contains(&n) {
            gone.push(n);
        }
    }
    let stays = |n: &usize| !gone.contains(n);
    let there = |chord: &Chord| {
        let mut kept = (0..list.len()).filter(stays);
        kept.any(|n| list.get(n).is_some_and(|v| is(v, chord)))
    };
    new.retain(|chord| !there(chord));
    new.dedup();
    gone.sort_unstable();
    for n in gone.into_iter().rev() {
        if !list.take_out(n) {
            // Written out, so that an action that says nothing else is still there.
            set(of_row, "bind", Value::Array(Array::new()));
            break;
        }
    }
    add(of_row, &new);
}

/// A `bind` value: one binding or a list of them.
enum Bind<'a> {
    One(&'a mut Value),
    List(&'a mut Array),
}

impl Bind<'_> {
    fn len(&self) -> usize {
        match self {
            Bind::One(_) => 1,
            Bind::List(list) => list.len(),
        }
    }

    fn get(&self, n: usize) -> Option<&Value> {
        match self {
            Bind::One(one) => Some(one),
            Bind::List(list) => list.get(n),
        }
    }

    /// Whether two bindings are the same chord, worked in the same manner.
    fn are_same(&self, a: usize, b: usize) -> bool {
        let of = |n: usize| self.get(n).map(|v| (chord_of(v), manner_of(v)));
        of(a) == of(b)
    }

    /// Another chord in the place of one, worked as that was.
    fn put(&mut self, n: usize, chord: &Chord) {
        let value = match self {
            Bind::One(one) => Some(&mut **one),
            Bind::List(list) => list.get_mut(n),
        };
        let Some(value) = value else { return };
        let text = chord.to_string();
        if let Value::InlineTable(table) = value {
            set(table, "on", text.into());
            return;
        }
        let mut new = Value::from(text);
        *new.decor_mut() = value.decor().clone();
        *value = new;
    }

    /// Takes a binding out of a list; false where it is the only one and no list.
    fn take_out(&mut self, n: usize) -> bool {
        match self {
            Bind::One(_) => return false,
            Bind::List(list) => {
                let first = (n == 0).then(|| list.get(0).map(before)).flatten();
                let gone = list.remove(n);
                let (own, after) = (before(&gone), text_of(gone.decor().suffix()));
                let next = list.get(n).map(before);
                let rest = next
                    .clone()
                    .unwrap_or_else(|| text_of(Some(list.trailing())));
                // Comments belong to whoever wrote them: none goes with a binding.
                let has = |text: &str| text.contains('#');
                let kept = match first {
                    _ if has(&own) || has(&after) => {
                        let own = own + &after;
                        let rest = match own.ends_with(char::is_whitespace) {
                            true => rest.trim_start_matches(' '),
                            false => &rest,
                        };
                        format!("{own}{rest}")
                    }
                    // What stands before the first one stands before the next.
                    Some(first) if !rest.contains('\n') && next.is_some() => first,
                    _ => rest,
                };
                match list.get_mut(n) {
                    Some(next) => next.decor_mut().set_prefix(kept),
                    None => list.set_trailing(kept),
                }
            }
        }
        true
    }
}

/// The spaces and comments before a value.
fn before(value: &Value) -> String {
    text_of(value.decor().prefix())
}

fn text_of(raw: Option<&RawString>) -> String {
    raw.and_then(RawString::as_str)
        .unwrap_or_default()
        .to_owned()
}

/// Whether a binding of the sheet is on a chord.
fn is(value: &Value, chord: &Chord) -> bool {
    chord_of(value).as_ref() == Some(chord)
}

fn chord_of(value: &Value) -> Option<Chord> {
    let text = match value {
        Value::String(text) => Some(text.value().as_str()),
        Value::InlineTable(table) => table.get("on").and_then(Value::as_str),
        _ => None,
    };
    text.and_then(|text| text.parse().ok())
}

fn manner_of(value: &Value) -> Option<&str> {
    value.as_inline_table()?.get("manner")?.as_str()
}

/// Adds bindings behind those that there are.
fn add(of_row: &mut dyn TableLike, new: &[&Chord]) {
    if new.is_empty() {
        return;
    }
    let text = |chord: &&Chord| chord.to_string();
    let more = new.iter().map(text);
    match of_row.get_mut("bind") {
        Some(Item::Value(Value::Array(list))) => more.for_each(|chord| list.push(chord)),
        Some(Item::Value(one)) => {
            let mut list = Array::new();
            let mut first = one.clone();
            first.decor_mut().clear();
            list.push_formatted(first);
            more.for_each(|chord| list.push(chord));
            set(of_row, "bind", Value::Array(list));
        }
        _ => {
            let value = match new {
                [one] => Value::from(one.to_string()),
                _ => Value::Array(more.collect()),
            };
            set(of_row, "bind", value);
        }
    }
}
