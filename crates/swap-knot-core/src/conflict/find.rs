//! Conflicts among all bindings, or of one candidate with all the others.

use std::collections::HashMap;
use std::ops::ControlFlow;

use super::compare::{Resolved, compare, has_letter};
use super::{Conflict, ConflictClass, Party};
use crate::input::{Chord, Crossing, InHand, Input, Letter, Modifier, Place, Platform};
use crate::law::Bound;
use crate::layout::{Layout, Resolver};
use crate::rig::{Placed, Together, Uses, neighbours, silenced, together};
use crate::sheet::{Action, Cover, Sheet, SituationId};

/// Every conflict and notice among bindings, on any of the layouts, in the order of the sheet.
///
/// Actions that say they share are content and left out. The first layout also judges what does
/// not depend on letters; without any layout, `us` does. After five thousand nothing more is looked
/// for: thousands of actions on one key are one mistake.
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
    let bindings: Vec<&Bound> = own(sheet, bindings).collect();
    let neighbours = neighbours(sheet);
    let mut found = Found::default();
    // What does not depend on the layout is judged once, on the first one.
    let (lettered, fixed): (Vec<&Bound>, Vec<&Bound>) =
        bindings.iter().partition(|b| has_letter(&b.chord));
    let on = |layout: &Layout| Resolver::new(layout, platform);
    let fixed = resolve(sheet, &fixed, &on(&layouts[0]));
    let index = Index::new(sheet, &fixed);
    // Unless a letter decides on some layout what a situation takes for itself.
    let by_letter = lettered.iter().any(|b| is_used(sheet, b));
    let mut doubtful: Vec<(usize, usize)> = Vec::new();
    let world = World::new(sheet, fixed.iter().collect());
    for (at, a) in fixed.iter().enumerate() {
        index.each_near(sheet, &neighbours, a, |other| {
            let b = &fixed[other];
            if other <= at || sheet.may_share(action(a), action(b)) {
                return ControlFlow::Continue(());
            }
            match by_letter {
                true if world.meet(a, b).is_some() => doubtful.push((at, other)),
                true => {}
                false => found.pair(&world, ordered(a, b), None),
            }
            found.go_on(doubtful.len())
        });
    }
    // Layouts that have all the letters at the same places are judged together.
    let groups = alike(&lettered, layouts);
    for (group, members) in groups.iter().enumerate() {
        let letters = resolve(sheet, &lettered, &on(&layouts[members[0]]));
        let own = Index::new(sheet, &letters);
        let world = World::new(sheet, letters.iter().chain(&fixed).collect());
        let mut pair = |a, b| {
            if !sheet.may_share(action(a), action(b)) {
                found.pair(&world, ordered(a, b), Some(group));
            }
            found.go_on(0)
        };
        for &(a, b) in &doubtful {
            if pair(&fixed[a], &fixed[b]).is_break() {
                break;
            }
        }
        for (at, a) in letters.iter().enumerate() {
            own.each_near(sheet, &neighbours, a, |other| match other > at {
                true => pair(a, &letters[other]),
                false => ControlFlow::Continue(()),
            });
            index.each_near(sheet, &neighbours, a, |other| pair(a, &fixed[other]));
        }
    }
    found.finish(&groups, layouts)
}

/// The bindings that are of this sheet.
fn own<'b>(sheet: &Sheet, bindings: &'b [Bound]) -> impl Iterator<Item = &'b Bound> {
    bindings.iter().filter(|b| sheet.has_row(b.cell.row))
}

/// Whether a binding is used by a situation that covers only what it uses.
fn is_used(sheet: &Sheet, bound: &Bound) -> bool {
    let mut situations = sheet.declared(bound.cell.row.action).situations.iter();
    situations.any(|s| sheet.declared_situation(*s).cover == Cover::Used)
}

fn ordered<'p, 'a>(
    a: &'p Resolved<'a>,
    b: &'p Resolved<'a>,
) -> (&'p Resolved<'a>, &'p Resolved<'a>) {
    if a.bound.cell < b.bound.cell {
        (a, b)
    } else {
        (b, a)
    }
}

fn resolve<'a>(sheet: &Sheet, bindings: &[&'a Bound], on: &Resolver) -> Vec<Resolved<'a>> {
    let all = bindings.iter();
    all.filter_map(|b| Resolved::new(sheet, b, on)).collect()
}

/// All bindings on one layout, for what depends on more than the two that meet.
struct World<'r, 'a> {
    sheet: &'r Sheet,
    all: Vec<&'r Resolved<'a>>,
    uses: Uses<'r>,
}

impl<'r, 'a> World<'r, 'a> {
    fn new(sheet: &'r Sheet, all: Vec<&'r Resolved<'a>>) -> World<'r, 'a> {
        let uses = Uses::new(sheet, all.iter().map(|r| r.placed()));
        World { sheet, all, uses }
    }

    /// How two bindings meet and where, if both can be live and one gesture works both.
    fn meet(&self, a: &Resolved<'_>, b: &Resolved<'_>) -> Option<(ConflictClass, Together)> {
        let (row, other) = (a.bound.cell.row, b.bound.cell.row);
        // One action may be on one input twice; only its arms can be in each other's way.
        let both_arms = row.arm.is_some() && other.arm.is_some() && row != other;
        if row.action == other.action && !both_arms {
            return None;
        }
        let class = compare(a, b)?;
        let (a_at, b_at) = (a.placed(), b.placed());
        let place = together(self.sheet, &self.uses, &a_at, &b_at).next()?;
        let hidden = class == ConflictClass::Crossing && self.is_hidden(a, b);
        (!hidden).then_some((class, place))
    }

    /// Whether a crossing never comes about: in whichever orders the two are pressed, a longer chord
    /// that is live wherever they are has what completes them.
    fn is_hidden(&self, a: &Resolved<'_>, b: &Resolved<'_>) -> bool {
        let (a_at, b_at) = (a.placed(), b.placed());
        let ways: Vec<_> = a.chord.crossings(&b.chord).collect();
        let longer = |c: &&&Resolved<'_>| {
            let is_longer = c.chord.held.len() > a.chord.held.len() && !c.bound.strict;
            is_longer
                && ways.iter().any(|way| way.is_taken_by(&c.chord))
                && self.is_live_with(&c.placed(), &a_at, &b_at)
        };
        let longer: Vec<_> = self.all.iter().filter(longer).collect();
        let is_taken = |way: &Crossing| longer.iter().any(|c| way.is_taken_by(&c.chord));
        !longer.is_empty() && ways.iter().all(is_taken)
    }

    /// Whether a binding is live on every stack on which two others both are: wherever these meet,
    /// it is live by the same situation as one of them, and nothing silences it that does not
    /// silence that one.
    fn is_live_with(&self, c: &Placed<'_>, a: &Placed<'_>, b: &Placed<'_>) -> bool {
        let sheet = self.sheet;
        let situations = |of: &Placed<'_>| &sheet.declared(of.action).situations;
        // Whether a situation on the stack silences what is live by another one, or always.
        let silences = |s, of: &Placed<'_>, by: Option<SituationId>| {
            let on_it = silenced(sheet, &self.uses, s, of);
            match by {
                None => on_it.typed,
                Some(by) if sheet.is_over(s, by) => on_it.typed || on_it.covered,
                Some(by) => on_it.typed && sheet.are_beside(s, by),
            }
        };
        let both = |place| match place {
            Together::Always => (vec![], None, None),
            Together::While(s) if situations(a).is_empty() => (vec![s], None, Some(s)),
            Together::While(s) => (vec![s], Some(s), None),
            Together::In(x, y) => (vec![x, y], Some(x), Some(y)),
        };
        !sheet.declared(c.action).off
            && together(sheet, &self.uses, a, b).all(|place| {
                let (stack, by_a, by_b) = both(place);
                let may_stand = |s| stack.iter().all(|&o| sheet.may_stand_with(s, o));
                let goes_along = |by| {
                    let mut others = sheet.situations().map(|(s, _)| s).filter(|&s| may_stand(s));
                    others.all(|s| {
                        silences(s, a, by_a) || silences(s, b, by_b) || !silences(s, c, by)
                    })
                };
                let mut here = stack.iter().filter(|s| situations(c).contains(s));
                (situations(c).is_empty() && goes_along(None)) || here.any(|&s| goes_along(Some(s)))
            })
    }
}

/// The layouts, by position, in groups that have every letter of the bindings at the same place.
fn alike(lettered: &[&Bound], layouts: &[Layout]) -> Vec<Vec<usize>> {
    let mut letters: Vec<Letter> = Vec::new();
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

/// What has to be settled among those bindings for one player, notices left out.
pub(crate) fn unsettled(sheet: &Sheet, bindings: &[Bound], on: &Resolver) -> Vec<Conflict> {
    let layouts = std::slice::from_ref(on.layout());
    let mut all = conflicts(sheet, bindings, layouts, on.platform());
    all.retain(|c| c.class.is_conflict());
    all
}

/// Whether two conflicts are between the same cells by the same chords.
pub(crate) fn is_same((of_a, a): (&Sheet, &Conflict), (of_b, b): (&Sheet, &Conflict)) -> bool {
    let same = |a: &Party, b: &Party| {
        let [row_a, row_b] = [of_a.row_name(a.cell.row), of_b.row_name(b.cell.row)];
        row_a == row_b && a.cell.column == b.cell.column && a.chord == b.chord
    };
    same(&a.first, &b.first) && same(&a.second, &b.second)
}

/// Every conflict and notice of one candidate with the bindings of other rows, on one layout.
///
/// Actions that say they share are included, so that the player can be asked.
pub fn conflicts_of(
    sheet: &Sheet,
    candidate: &Bound,
    bindings: &[Bound],
    on: &Resolver,
) -> Vec<Conflict> {
    let mut found = Found::default();
    if !sheet.has_row(candidate.cell.row) {
        return Vec::new();
    }
    if let Some(a) = Resolved::new(sheet, candidate, on) {
        let near = Near::new(&a, on);
        // What a situation takes for itself depends on bindings that touch either of the two.
        let used = |b: &&Bound| near.touches(&b.chord) || is_used(sheet, b);
        let others: Vec<&Bound> = own(sheet, bindings)
            .filter(|b| b.cell != candidate.cell)
            .filter(used)
            .collect();
        let others = resolve(sheet, &others, on);
        let world = World::new(sheet, others.iter().chain([&a]).collect());
        for b in others.iter().filter(|b| near.touches(&b.bound.chord)) {
            found.pair(&world, (&a, b), None);
        }
    }
    found.finish(&[], std::slice::from_ref(on.layout()))
}

/// What a candidate touches, to pass over quickly what it has nothing to do with.
struct Near {
    inputs: Vec<Input>,
    letters: Vec<char>,
}

impl Near {
    fn new(of: &Resolved<'_>, on: &Resolver) -> Near {
        let (layout, platform) = (on.layout(), on.platform());
        let mut inputs: Vec<Input> = keys_of(of).collect();
        // Wholes are found under the names of their parts.
        inputs.extend(of.bound.chord.inputs());
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
            Input::Letter(letter) => self.letters.contains(&letter.char()),
            other => {
                let parts = InHand::of_fixed(other);
                parts.leaves().iter().any(|leaf| self.inputs.contains(leaf))
            }
        })
    }
}

fn action(of: &Resolved<'_>) -> crate::sheet::ActionId {
    of.bound.cell.row.action
}

/// Everything in hand that a binding touches.
fn keys_of<'a>(of: &'a Resolved<'_>) -> impl Iterator<Item = Input> + 'a {
    of.chord
        .parts()
        .flat_map(|part| part.leaves().iter().copied())
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
            let action = sheet.declared(action(of));
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
    /// them more than once, as long as that says to go on.
    fn each_near(
        &self,
        sheet: &Sheet,
        neighbours: &[Vec<SituationId>],
        of: &Resolved<'_>,
        mut each: impl FnMut(usize) -> ControlFlow<()>,
    ) {
        let action = sheet.declared(action(of));
        let mut each_of =
            |list: Option<&Vec<usize>>| list.into_iter().flatten().try_for_each(|&i| each(i));
        for key in keys_of(of) {
            if is_wide(action) {
                if each_of(self.all.get(&key)).is_break() {
                    return;
                }
                continue;
            }
            let near = (action.situations.iter()).flat_map(|s| &neighbours[s.index()]);
            let mut narrow = near.map(|&s| self.narrow.get(&(key, s)));
            if each_of(self.wide.get(&key)).is_break()
                || narrow.try_for_each(&mut each_of).is_break()
            {
                return;
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
    /// Whether to look for more: nobody reads thousands of conflicts.
    fn go_on(&self, besides: usize) -> ControlFlow<()> {
        const MOST: usize = 5000;
        match self.list.len() + besides < MOST {
            true => ControlFlow::Continue(()),
            false => ControlFlow::Break(()),
        }
    }

    fn pair(
        &mut self,
        world: &World<'_, '_>,
        (a, b): (&Resolved<'_>, &Resolved<'_>),
        group: Option<usize>,
    ) {
        if self.go_on(0).is_break() {
            return;
        }
        let Some((class, place)) = world.meet(a, b) else {
            return;
        };
        let (x, y) = (a.bound, b.bound);
        let at = *self.by_pair.entry((x.cell, y.cell)).or_insert_with(|| {
            self.list.push(Conflict {
                class,
                first: party(x),
                second: party(y),
                situations: match place {
                    Together::Always | Together::While(_) => None,
                    Together::In(x, y) => Some((x, y)),
                },
                layouts: Vec::new(),
            });
            self.groups.push(Vec::new());
            self.list.len() - 1
        });
        // What is a notice on one layout may be a conflict on another.
        let told = &mut self.list[at];
        told.class = told.class.min(class);
        let known = &mut self.groups[at];
        // Groups come in order, so the same one again is the last one.
        if let Some(group) = group.filter(|g| known.last() != Some(g)) {
            known.push(group);
        }
    }

    /// The conflicts in the order of their cells; what exists on all layouts names none.
    fn finish(mut self, groups: &[Vec<usize>], layouts: &[Layout]) -> Vec<Conflict> {
        for (conflict, on) in self.list.iter_mut().zip(&self.groups) {
            let (x, y) = (&conflict.first.chord, &conflict.second.chord);
            let by_letter = x != y && (has_letter(x) || has_letter(y));
            let mut on: Vec<usize> = on.iter().flat_map(|&g| &groups[g]).copied().collect();
            let some = !on.is_empty() && on.len() < layouts.len();
            if (x != y && some) || (by_letter && layouts.len() == 1) {
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
