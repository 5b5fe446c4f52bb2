//! Conflicts among all bindings, or of one candidate with all the others.

use std::collections::HashMap;

use super::compare::{Resolved, compare, has_letter, whole};
use super::{Conflict, Party};
use crate::input::{Chord, Input, Modifier, Place, Platform};
use crate::layout::Layout;
use crate::rig::Bound;
use crate::sheet::{Action, Sheet, SituationId};

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
    let neighbours = neighbours(sheet);
    let mut found = Found::default();
    let mut pair = |a: &Resolved<'_>, b: &Resolved<'_>, group: Option<usize>| {
        let (a, b) = if a.bound.cell < b.bound.cell {
            (a, b)
        } else {
            (b, a)
        };
        if !sheet.may_share(action(a), action(b)) {
            found.pair(sheet, a, b, group);
        }
    };
    // What does not depend on the layout is judged once, on the first one.
    let (lettered, fixed): (Vec<&Bound>, Vec<&Bound>) =
        bindings.iter().partition(|b| has_letter(&b.chord));
    let fixed = resolve(&fixed, &layouts[0], platform);
    let index = Index::new(sheet, &fixed);
    for (at, a) in fixed.iter().enumerate() {
        index.each_near(sheet, &neighbours, a, |other| {
            if other > at {
                pair(a, &fixed[other], None);
            }
        });
    }
    // Layouts that have all the letters at the same places are judged together.
    let groups = alike(&lettered, layouts);
    for (group, members) in groups.iter().enumerate() {
        let letters = resolve(&lettered, &layouts[members[0]], platform);
        let own = Index::new(sheet, &letters);
        for (at, a) in letters.iter().enumerate() {
            own.each_near(sheet, &neighbours, a, |other| {
                if other > at {
                    pair(a, &letters[other], Some(group));
                }
            });
            index.each_near(sheet, &neighbours, a, |other| {
                pair(a, &fixed[other], Some(group));
            });
        }
    }
    found.finish(&groups, layouts)
}

fn resolve<'a>(bindings: &[&'a Bound], layout: &Layout, platform: Platform) -> Vec<Resolved<'a>> {
    let all = bindings.iter();
    all.filter_map(|b| Resolved::new(b, layout, platform))
        .collect()
}

/// The layouts, by position, in groups that have every letter of the bindings at the same place.
fn alike(lettered: &[&Bound], layouts: &[Layout]) -> Vec<Vec<usize>> {
    let mut letters: Vec<char> = Vec::new();
    for input in lettered.iter().flat_map(|b| b.chord.inputs()) {
        match input {
            Input::Letter(letter) if !letters.contains(&letter) => letters.push(letter),
            _ => {}
        }
    }
    let mut groups: Vec<Vec<usize>> = Vec::new();
    let mut known: HashMap<Vec<Option<Place>>, usize> = HashMap::new();
    for (n, layout) in layouts.iter().enumerate() {
        let places = letters.iter().map(|&l| layout.place_of(l)).collect();
        let at = *known.entry(places).or_insert(groups.len());
        match groups.get_mut(at) {
            Some(group) => group.push(n),
            None => groups.push(vec![n]),
        }
    }
    groups
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
        let near = Near::new(&a, layout, platform);
        for other in bindings
            .iter()
            .filter(|b| near.touches(&b.chord) && b.cell != candidate.cell)
        {
            if let Some(b) = Resolved::new(other, layout, platform) {
                found.pair(sheet, &a, &b, None);
            }
        }
    }
    found.finish(&[], std::slice::from_ref(layout))
}

/// What a candidate touches, to pass over quickly what it has nothing to do with.
struct Near {
    inputs: Vec<Input>,
    letters: Vec<char>,
}

impl Near {
    fn new(of: &Resolved<'_>, layout: &Layout, platform: Platform) -> Near {
        let mut inputs: Vec<Input> = keys_of(of).collect();
        let mut letters = Vec::new();
        for key in inputs.clone() {
            if let Input::Key(place) = key {
                letters.extend(layout.letters_at(place));
                let side = |m: &Modifier| m.places(platform).contains(&place);
                inputs.extend(Modifier::ALL.into_iter().filter(side).map(Input::Modifier));
            }
        }
        Near { inputs, letters }
    }

    /// Whether a chord has a key in common with the candidate.
    fn touches(&self, chord: &Chord) -> bool {
        chord.inputs().any(|input| match input {
            Input::Letter(letter) => self.letters.contains(&letter),
            other => self.inputs.contains(&whole(other)),
        })
    }
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

/// For each situation those in which an action can be live beside it, itself included.
fn neighbours(sheet: &Sheet) -> Vec<Vec<SituationId>> {
    let near = |a: SituationId| {
        let all = sheet.situations().map(|(b, _)| b);
        all.filter(|&b| sheet.situations_meet(a, b)).collect()
    };
    sheet.situations().map(|(a, _)| near(a)).collect()
}

/// Bindings by the keys that they touch and the situations that they are live in, so that the check
/// takes time by what is near each other, not by all pairs.
struct Index {
    narrow: HashMap<(Input, SituationId), Vec<usize>>,
    /// Bindings of actions that can be live beside any situation.
    wide: HashMap<Input, Vec<usize>>,
    all: HashMap<Input, Vec<usize>>,
}

/// Whether an action can be live beside situations other than its neighbours.
fn is_wide(action: &Action) -> bool {
    action.situations.is_empty() || action.while_paused
}

impl Index {
    fn new(sheet: &Sheet, resolved: &[Resolved<'_>]) -> Index {
        let mut index = Index {
            narrow: HashMap::new(),
            wide: HashMap::new(),
            all: HashMap::new(),
        };
        for (i, of) in resolved.iter().enumerate() {
            let action = sheet.action(action(of));
            for key in keys_of(of) {
                index.all.entry(key).or_default().push(i);
                if is_wide(action) {
                    index.wide.entry(key).or_default().push(i);
                    continue;
                }
                for &situation in &action.situations {
                    index.narrow.entry((key, situation)).or_default().push(i);
                }
            }
        }
        index
    }

    /// Hands every binding to `each` that shares a key with one and may be live beside it; some of
    /// them more than once.
    fn each_near(
        &self,
        sheet: &Sheet,
        neighbours: &[Vec<SituationId>],
        of: &Resolved<'_>,
        mut each: impl FnMut(usize),
    ) {
        let action = sheet.action(action(of));
        for key in keys_of(of) {
            if is_wide(action) {
                self.all
                    .get(&key)
                    .into_iter()
                    .flatten()
                    .for_each(|&i| each(i));
                continue;
            }
            self.wide
                .get(&key)
                .into_iter()
                .flatten()
                .for_each(|&i| each(i));
            let near = action
                .situations
                .iter()
                .flat_map(|s| &neighbours[s.index()]);
            for &situation in near {
                let list = self.narrow.get(&(key, situation));
                list.into_iter().flatten().for_each(|&i| each(i));
            }
        }
    }
}

/// Conflicts as they are found, each pair of cells once.
#[derive(Default)]
struct Found {
    list: Vec<Conflict>,
    /// For each conflict the groups of layouts that it exists on, if it depends on the layout.
    groups: Vec<Vec<usize>>,
    by_pair: HashMap<(crate::sheet::Cell, crate::sheet::Cell), usize>,
}

impl Found {
    fn pair(&mut self, sheet: &Sheet, a: &Resolved<'_>, b: &Resolved<'_>, group: Option<usize>) {
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
            self.groups.push(Vec::new());
            self.list.len() - 1
        });
        let known = &mut self.groups[at];
        // Groups come in order, so the same one again is the last one.
        if let Some(group) = group.filter(|g| known.last() != Some(g)) {
            known.push(group);
        }
    }

    /// The conflicts in the order of their cells; what exists on all layouts names none.
    fn finish(mut self, groups: &[Vec<usize>], layouts: &[Layout]) -> Vec<Conflict> {
        for (conflict, on) in self.list.iter_mut().zip(&self.groups) {
            let same_text = conflict.first.chord == conflict.second.chord;
            let mut on: Vec<usize> = on.iter().flat_map(|&g| &groups[g]).copied().collect();
            if !same_text && (layouts.len() == 1 || on.len() < layouts.len()) {
                on.sort_unstable();
                let names = on.iter().map(|&n| layouts[n].name().to_owned());
                conflict.layouts = names.collect();
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
