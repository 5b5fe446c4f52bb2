//! Looks for what breaks, layout by layout.

use std::collections::BTreeMap;

use super::{Apart, Finding, FindingKind, same_places};
use crate::conflict::{Conflict, conflicts};
use crate::input::{Input, Modifier, Place, Platform};
use crate::law::Bound;
use crate::layout::{Board, Layout, Level, Resolver};
use crate::sheet::{ActionId, Cell, ColumnKind, Sheet};

/// Keys whose middles are at most this far apart lie side by side.
const SIDE_BY_SIDE: f32 = 1.3;
/// A pair that is this much further apart than on `us` is torn apart.
const TORN: f32 = 1.5;
/// A group is scattered when a key is this far from where it is among the others on `us`.
const SCATTERED: f32 = 1.2;

/// What comes of the layouts, and the conflicts and notices that come of none.
pub(super) fn findings(
    sheet: &Sheet,
    bindings: &[Bound],
    layouts: &[Layout],
    platform: Platform,
) -> (Vec<Finding>, Vec<Conflict>) {
    let keyboard: Vec<&Bound> = bindings
        .iter()
        .filter(|b| b.cell.column.kind() == ColumnKind::Keyboard)
        .collect();
    let look = Look {
        sheet,
        bindings: &keyboard,
        platform,
        same: same_places(layouts),
        us: Layout::us(),
    };
    let mut found = Found::default();
    let groups = look.letter_groups();
    let pairs = look.neighbours();
    for layout in layouts {
        look.keys(layout, &mut found);
        look.scattered(layout, &groups, &mut found);
        look.torn_apart(layout, &pairs, &mut found);
    }
    let mut findings: Vec<Finding> = found.0.into_values().collect();
    // What is so on every layout does not come of the layout.
    let of_layout = |c: &Conflict| c.class.is_conflict() && !c.layouts.is_empty();
    let all = conflicts(sheet, bindings, layouts, platform).into_iter();
    let (of_layouts, always): (Vec<_>, Vec<_>) = all.partition(of_layout);
    findings.extend(of_layouts.into_iter().map(|conflict| Finding {
        cells: vec![conflict.first.cell, conflict.second.cell],
        layouts: conflict.layouts.clone(),
        is_problem: true,
        remedy: look.elsewhere(&[conflict.first.cell, conflict.second.cell]),
        kind: FindingKind::Conflict(Box::new(conflict)),
    }));
    findings.sort_by_key(|f| (!f.is_problem, f.cells.first().copied()));
    (findings, always)
}

/// Findings by what they are about, each with the layouts it was found on.
#[derive(Default)]
struct Found(BTreeMap<(u8, Vec<Cell>, u32), Finding>);

impl Found {
    fn add(&mut self, layout: &Layout, new: Finding) {
        let (number, what) = match &new.kind {
            FindingKind::LetterMissing(c) => (0, u32::from(c.char())),
            FindingKind::LetterBehind(_, level) => (1, *level as u32),
            FindingKind::PlaceMissing(p) => (2, *p as u32),
            FindingKind::DeadKey(p) => (3, *p as u32),
            FindingKind::Scattered { .. } => (4, 0),
            FindingKind::TornApart(_) => (5, 0),
            FindingKind::Conflict(_) => (6, 0),
        };
        // An action that cannot be worked at all on one layout is another finding.
        let key = (
            number * 2 + u8::from(new.is_problem),
            new.cells.clone(),
            what,
        );
        let finding = self.0.entry(key).or_insert_with(|| new.clone());
        finding.layouts.push(layout.name().to_owned());
        match (&mut finding.kind, new.kind) {
            (
                FindingKind::Scattered { off, worst },
                FindingKind::Scattered {
                    off: new_off,
                    worst: new_worst,
                },
            ) if new_off > *off => (*off, *worst) = (new_off, new_worst),
            (FindingKind::TornApart(old), FindingKind::TornApart(new)) if new.there > old.there => {
                *old = new;
            }
            _ => {}
        }
    }
}

/// What every search looks at.
struct Look<'a> {
    sheet: &'a Sheet,
    bindings: &'a [&'a Bound],
    platform: Platform,
    /// Places that are the same on all layouts.
    same: Vec<Place>,
    us: Layout,
}

impl Look<'_> {
    /// Each binding's keys on one layout.
    fn keys(&self, layout: &Layout, found: &mut Found) {
        for bound in self.bindings {
            for input in bound.chord.inputs() {
                let Some((kind, unusable)) = judge(input, layout) else {
                    continue;
                };
                let alone = || !self.has_other(bound.cell, layout);
                let finding = Finding {
                    is_problem: unusable && alone(),
                    remedy: self.remedy_for_key(&kind, bound.cell),
                    kind,
                    cells: vec![bound.cell],
                    layouts: Vec::new(),
                };
                found.add(layout, finding);
            }
        }
    }

    /// Whether the row has another keyboard binding that can be worked on the layout.
    fn has_other(&self, cell: Cell, layout: &Layout) -> bool {
        let mut others = self.bindings.iter().filter(|b| b.cell.row == cell.row);
        others.any(|b| {
            let lost = |i| judge(i, layout).is_some_and(|(_, unusable)| unusable);
            b.cell != cell && !b.chord.inputs().any(lost)
        })
    }

    fn remedy_for_key(&self, kind: &FindingKind, cell: Cell) -> String {
        let others = self.instead_of(cell);
        match kind {
            FindingKind::LetterMissing(letter) | FindingKind::LetterBehind(letter, _) => {
                match self.us.place_of(*letter) {
                    Some(place) => format!("bind by place (`{place}`), or {others}"),
                    None => others,
                }
            }
            _ => others,
        }
    }

    /// Another binding for a cell that is of no use on some layout.
    fn instead_of(&self, cell: Cell) -> String {
        let second = if cell.column.number() == 1 {
            "second"
        } else {
            "further"
        };
        match self.free_places(&[cell]) {
            None => format!("add a {second} binding on another key"),
            Some(free) => format!(
                "add a {second} binding that is the same on all these layouts and free: {free}"
            ),
        }
    }

    /// Another place for one of two bindings in each other's way.
    fn elsewhere(&self, cells: &[Cell]) -> String {
        let places = self.free_places(cells);
        let places = places.map_or_else(String::new, |free| {
            format!("; the same on all these layouts and free are {free}")
        });
        format!("bind one of them to another place{places}")
    }

    /// The nearest places that are the same everywhere, and free where the actions are live.
    fn free_places(&self, cells: &[Cell]) -> Option<String> {
        let from = cells.iter().find_map(|c| {
            let bound = self.bindings.iter().find(|b| b.cell == *c)?;
            self.place(bound.chord.input(), &self.us)
        });
        let mut free: Vec<Place> = self
            .same
            .iter()
            .copied()
            .filter(|&place| is_handy(place) && cells.iter().all(|c| self.is_free(place, c)))
            .collect();
        let far = |p: &Place| {
            from.and_then(|f| Board::Ansi.distance(f, *p))
                .unwrap_or(f32::MAX)
        };
        free.sort_by(|a, b| far(a).total_cmp(&far(b)));
        let names: Vec<String> = free.iter().take(3).map(|p| format!("`{p}`")).collect();
        (!names.is_empty()).then(|| names.join(", "))
    }

    fn is_free(&self, place: Place, cell: &Cell) -> bool {
        self.bindings.iter().all(|b| {
            let (one, other) = (b.cell.row.action, cell.row.action);
            let meets = one == other || self.sheet.can_meet(one, other);
            !meets
                || b.chord
                    .inputs()
                    .all(|i| self.place(i, &self.us) != Some(place))
        })
    }

    fn place(&self, input: Input, layout: &Layout) -> Option<Place> {
        let on = Resolver::new(layout, self.platform);
        on.places_of(input).first().copied()
    }

    /// Arms of one action that are bound by three letters or more, in one column.
    fn letter_groups(&self) -> Vec<Vec<&Bound>> {
        let mut groups: BTreeMap<(ActionId, u8), Vec<&Bound>> = BTreeMap::new();
        for bound in self.bindings {
            let letter = matches!(bound.chord.input(), Input::Letter(_));
            if letter && bound.cell.row.arm.is_some() {
                let key = (bound.cell.row.action, bound.cell.column.number());
                groups.entry(key).or_default().push(bound);
            }
        }
        groups.into_values().filter(|g| g.len() >= 3).collect()
    }

    /// Where the keys of a group lie, from their middle.
    fn shape(&self, group: &[&Bound], layout: &Layout) -> Option<Vec<[f32; 2]>> {
        let board = layout.board();
        let centers = group.iter().map(|b| {
            let place = self.place(b.chord.input(), layout)?;
            Some(board.key(place)?.center())
        });
        let centers: Vec<[f32; 2]> = centers.collect::<Option<_>>()?;
        let count = centers.len() as f32;
        let middle = [0, 1].map(|i| centers.iter().map(|c| c[i]).sum::<f32>() / count);
        let from = |c: &[f32; 2]| [c[0] - middle[0], c[1] - middle[1]];
        Some(centers.iter().map(from).collect())
    }

    fn scattered(&self, layout: &Layout, groups: &[Vec<&Bound>], found: &mut Found) {
        for group in groups {
            let shapes = self.shape(group, &self.us).zip(self.shape(group, layout));
            let Some((usual, there)) = shapes else {
                continue;
            };
            let each = usual.iter().zip(&there);
            let off = each.map(|(a, b)| (a[0] - b[0]).hypot(a[1] - b[1]));
            let off = off.fold(0.0, f32::max);
            if off > SCATTERED {
                let worst = layout.name().to_owned();
                found.add(
                    layout,
                    self.by_place(FindingKind::Scattered { off, worst }, group),
                );
            }
        }
    }

    /// Pairs of letters that lie side by side on `us` and may be played together.
    fn neighbours(&self) -> Vec<([&Bound; 2], f32)> {
        let mut pairs = Vec::new();
        for (i, a) in self.bindings.iter().enumerate() {
            for b in &self.bindings[i + 1..] {
                let (x, y) = (a.chord.input(), b.chord.input());
                let letters = [x, y].map(|i| matches!(i, Input::Letter(_)));
                let (one, other) = (a.cell.row.action, b.cell.row.action);
                let meets = one == other || self.sheet.can_meet(one, other);
                if letters != [true, true] || !meets {
                    continue;
                }
                let at = [x, y].map(|i| self.place(i, &self.us));
                let [Some(p), Some(q)] = at else { continue };
                match Board::Ansi.distance(p, q) {
                    Some(d) if p != q && d <= SIDE_BY_SIDE => pairs.push(([*a, *b], d)),
                    _ => {}
                }
            }
        }
        pairs
    }

    fn torn_apart(&self, layout: &Layout, pairs: &[([&Bound; 2], f32)], found: &mut Found) {
        for (pair, usual) in pairs {
            let told = |f: &Finding| {
                matches!(f.kind, FindingKind::Scattered { .. })
                    && pair.iter().all(|b| f.cells.contains(&b.cell))
                    && f.layouts.last().is_some_and(|l| l == layout.name())
            };
            if found.0.values().any(told) {
                continue;
            }
            let [p, q] = pair.map(|b| self.place(b.chord.input(), layout));
            let there = p.zip(q).and_then(|(p, q)| layout.board().distance(p, q));
            let Some(there) = there.filter(|there| *there > usual + TORN) else {
                continue;
            };
            let apart = Apart {
                there,
                worst: layout.name().to_owned(),
                usual: *usual,
            };
            found.add(layout, self.by_place(FindingKind::TornApart(apart), pair));
        }
    }

    /// A finding that is mended by binding by place.
    fn by_place(&self, kind: FindingKind, bound: &[&Bound]) -> Finding {
        let lettered = bound
            .iter()
            .filter(|b| matches!(b.chord.input(), Input::Letter(_)));
        let places: Vec<String> = lettered
            .filter_map(|b| self.place(b.chord.input(), &self.us))
            .map(|p| format!("`{p}`"))
            .collect();
        Finding {
            kind,
            cells: bound.iter().map(|b| b.cell).collect(),
            layouts: Vec::new(),
            is_problem: true,
            remedy: format!(
                "bind by place, so that they stay together everywhere: {}",
                places.join(", ")
            ),
        }
    }
}

/// What a layout does to one input, and whether it cannot be worked there.
fn judge(input: Input, layout: &Layout) -> Option<(FindingKind, bool)> {
    match input {
        Input::Letter(letter) => match layout.find_letter(letter) {
            None => Some((FindingKind::LetterMissing(letter), true)),
            Some((_, Level::Plain)) => None,
            Some((_, level)) => Some((FindingKind::LetterBehind(letter, level), false)),
        },
        Input::Key(place) if !layout.board().has(place) => {
            Some((FindingKind::PlaceMissing(place), true))
        }
        Input::Key(place) if !layout.boards().all(|board| board.has(place)) => {
            Some((FindingKind::PlaceMissing(place), false))
        }
        Input::Key(place) => {
            let typed = layout.typed(place, Level::Plain)?;
            typed.dead.then_some((FindingKind::DeadKey(place), false))
        }
        _ => None,
    }
}

/// Whether a key may be suggested: not one that the system or another binding wants for itself.
fn is_handy(place: Place) -> bool {
    use Place::*;
    place.is_writing()
        || matches!(
            place,
            F1 | F2 | F3 | F4 | F5 | F6 | F7 | F8 | F9 | F10 | Tab | Enter | Backspace
        )
        || matches!(place, ArrowUp | ArrowDown | ArrowLeft | ArrowRight)
        || Modifier::of_place(place).is_some_and(|m| m == Modifier::Shift)
}
