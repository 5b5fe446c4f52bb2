//! Conflicts among all bindings, or of one candidate with all the others.

use std::collections::HashMap;

use super::compare::{Resolved, compare, has_letter, whole};
use super::{Conflict, Party};
use crate::input::{Input, Platform};
use crate::layout::Layout;
use crate::rig::Bound;
use crate::sheet::Sheet;

/// Every conflict and notice among bindings, on any of the layouts, in the order of the sheet.
///
/// Actions that say they share are content and left out. The first layout also judges what does
/// not depend on letters; without any layout, `us` does.
pub fn conflicts(
    sheet: &Sheet,
    bindings: &[Bound],
    layouts: &[Layout],
    platform: Platform,
) -> Vec<Conflict> {
    let fallback = [Layout::us()];
    let layouts = if layouts.is_empty() {
        &fallback
    } else {
        layouts
    };
    let mut found = Found::default();
    for (i, layout) in layouts.iter().enumerate() {
        let resolved: Vec<_> = bindings
            .iter()
            .filter_map(|b| Resolved::new(b, layout, platform))
            .collect();
        let by_key = by_key(&resolved);
        for (at, a) in resolved.iter().enumerate() {
            let letter = has_letter(&a.bound.chord);
            // What does not depend on the layout is judged once.
            for &other in keys_of(a).flat_map(|k| by_key.get(&k).into_iter().flatten()) {
                let b = &resolved[other];
                let on_layout = letter || has_letter(&b.bound.chord);
                if other > at && (i == 0 || on_layout) && !sheet.may_share(action(a), action(b)) {
                    found.pair(sheet, a, b, on_layout.then_some(layout));
                }
            }
        }
    }
    found.finish(layouts.len())
}

/// Every conflict and notice of one candidate with the bindings of other rows, on one layout.
///
/// Actions that say they share are included, so that the player can be asked.
pub fn conflicts_of(
    sheet: &Sheet,
    candidate: &Bound,
    bindings: &[Bound],
    layout: &Layout,
    platform: Platform,
) -> Vec<Conflict> {
    let mut found = Found::default();
    if let Some(a) = Resolved::new(candidate, layout, platform) {
        for other in bindings.iter().filter(|b| b.cell != candidate.cell) {
            if let Some(b) = Resolved::new(other, layout, platform) {
                found.pair(sheet, &a, &b, None);
            }
        }
    }
    found.finish(1)
}

fn action(of: &Resolved<'_>) -> crate::sheet::ActionId {
    of.bound.cell.row.action
}

/// Every key that a binding touches, parts under the name of their whole.
fn keys_of<'a>(of: &'a Resolved<'_>) -> impl Iterator<Item = Input> + 'a {
    let all = of.held.iter().chain([&of.input]);
    all.flat_map(|&[a, b]| {
        let second = (a != b).then_some(whole(b));
        std::iter::once(whole(a)).chain(second)
    })
}

fn by_key(resolved: &[Resolved<'_>]) -> HashMap<Input, Vec<usize>> {
    let mut map: HashMap<Input, Vec<usize>> = HashMap::new();
    for (i, of) in resolved.iter().enumerate() {
        for key in keys_of(of) {
            let list = map.entry(key).or_default();
            if list.last() != Some(&i) {
                list.push(i);
            }
        }
    }
    map
}

/// Conflicts as they are found, each pair of cells once.
#[derive(Default)]
struct Found {
    list: Vec<Conflict>,
    by_pair: HashMap<(crate::sheet::Cell, crate::sheet::Cell), usize>,
}

impl Found {
    fn pair(&mut self, sheet: &Sheet, a: &Resolved<'_>, b: &Resolved<'_>, layout: Option<&Layout>) {
        let (x, y) = (a.bound, b.bound);
        let (row, other) = (x.cell.row, y.cell.row);
        // One action may be on one input twice; only its arms can be in each other's way.
        let both_arms = row.arm.is_some() && other.arm.is_some() && row != other;
        if row.action == other.action && !both_arms {
            return;
        }
        let Some(class) = compare(a, b) else { return };
        if !sheet.can_meet(row.action, other.action) {
            return;
        }
        let key = (x.cell, y.cell);
        let at = *self.by_pair.entry(key).or_insert_with(|| {
            let (first, second) = (sheet.action(row.action), sheet.action(other.action));
            self.list.push(Conflict {
                class,
                first: party(x),
                second: party(y),
                situations: sheet.meeting(first, second),
                layouts: Vec::new(),
            });
            self.list.len() - 1
        });
        if let Some(layout) = layout {
            let names = &mut self.list[at].layouts;
            if !names.iter().any(|n| n == layout.name()) {
                names.push(layout.name().to_owned());
            }
        }
    }

    /// The conflicts in the order of their cells; what exists on all of several layouts names none.
    fn finish(mut self, layouts: usize) -> Vec<Conflict> {
        for conflict in &mut self.list {
            let same_text = conflict.first.chord == conflict.second.chord;
            if same_text || (layouts > 1 && conflict.layouts.len() == layouts) {
                conflict.layouts.clear();
            }
        }
        self.list
            .sort_by(|a, b| (&a.first, &a.second).cmp(&(&b.first, &b.second)));
        self.list
    }
}

fn party(bound: &Bound) -> Party {
    Party {
        cell: bound.cell,
        chord: bound.chord.clone(),
        manner: bound.manner,
    }
}
