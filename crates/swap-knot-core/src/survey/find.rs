//! Looks for what breaks, layout by layout.

use std::cell::RefCell;
use std::collections::{BTreeMap, HashMap};

use super::{Apart, Finding, FindingKind, same_places};
use crate::conflict::{Conflict, conflicts};
use crate::input::{Input, Modifier, Place, Platform};
use crate::law::Bound;
use crate::layout::{Board, Layout, Level, Resolver};
use crate::sheet::{ActionId, Cell, ColumnKind, Row, Sheet};

/// Keys whose middles are at most this far apart lie side by side.
const SIDE_BY_SIDE: f32 = 1.3;
/// A pair that is this much further apart than on `us` is torn apart.
const TORN: f32 = 1.5;
/// A group is scattered when a key is this far from where it is among the others on `us`.
const SCATTERED: f32 = 1.2;
/// After so many pairs side by side no more are looked for: nobody reads them.
const MOST_PAIRS: usize = 5000;

/// What comes of the layouts, and the conflicts and notices that come of none.
pub(super) fn findings(
    sheet: &Sheet,
    bindings: &[Bound],
    layouts: &[Layout],
    platform: Platform,
) -> (Vec<Finding>, Vec<Conflict>) {
    let keyboard: Vec<&Bound> = bindings
        .iter()
        .filter(|b| sheet.has_row(b.cell.row))
        .filter(|b| b.cell.column.kind() == ColumnKind::Keyboard)
        .collect();
    let look = Look::new(sheet, &keyboard, layouts, platform);
    let mut found = Found::default();
    let groups = look.letter_groups();
    let pairs = look.neighbours();
    for layout in layouts {
        look.keys(layout, &mut found);
        let scattered = look.scattered(layout, &groups, &mut found);
        look.torn_apart(layout, &pairs, &scattered, &mut found);
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
    /// What mends it is worked out only for what was not found before.
    fn add(
        &mut self,
        layout: &Layout,
        cells: Vec<Cell>,
        (kind, is_problem): (FindingKind, bool),
        remedy: impl FnOnce(&FindingKind) -> String,
    ) {
        let (number, what) = match &kind {
            FindingKind::LetterMissing(c) => (0, u32::from(c.char())),
            FindingKind::LetterBehind(_, level) => (1, *level as u32),
            FindingKind::PlaceMissing(p) => (2, *p as u32),
            FindingKind::DeadKey(p) => (3, *p as u32),
            FindingKind::Scattered { .. } => (4, 0),
            FindingKind::TornApart(_) => (5, 0),
            FindingKind::Conflict(_) => (6, 0),
        };
        // An action that cannot be worked at all on one layout is another finding.
        let key = (number * 2 + u8::from(is_problem), cells.clone(), what);
        let finding = self.0.entry(key).or_insert_with(|| Finding {
            remedy: remedy(&kind),
            kind: kind.clone(),
            cells,
            layouts: Vec::new(),
            is_problem,
        });
        finding.layouts.push(layout.name().to_owned());
        match (&mut finding.kind, kind) {
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

/// What every search looks at, and what it comes back to.
struct Look<'a> {
    sheet: &'a Sheet,
    bindings: &'a [&'a Bound],
    by_row: HashMap<Row, Vec<&'a Bound>>,
    platform: Platform,
    /// Places that are the same on all layouts, and may be suggested.
    same: Vec<Place>,
    us: Layout,
    /// The actions that have something on a place on `us`, one for all that are live alike.
    taken: HashMap<Place, Vec<ActionId>>,
    /// For each action the first one that is live just where it is.
    alike: HashMap<ActionId, ActionId>,
    /// Whether two of those first ones can meet, once it was asked.
    met: RefCell<HashMap<(ActionId, ActionId), bool>>,
}

impl<'a> Look<'a> {
    fn new(
        sheet: &'a Sheet,
        bindings: &'a [&'a Bound],
        layouts: &[Layout],
        platform: Platform,
    ) -> Look<'a> {
        let mut first = HashMap::new();
        let alike = sheet.actions().map(|(id, action)| {
            let live = (action.off, action.while_paused, &action.situations);
            (id, *first.entry(live).or_insert(id))
        });
        let mut look = Look {
            sheet,
            bindings,
            by_row: HashMap::new(),
            platform,
            same: same_places(layouts)
                .into_iter()
                .filter(|&p| is_handy(p))
                .collect(),
            us: Layout::us(),
            taken: HashMap::new(),
            alike: alike.collect(),
            met: RefCell::default(),
        };
        for &bound in bindings {
            look.by_row.entry(bound.cell.row).or_default().push(bound);
            let by = look.alike[&bound.cell.row.action];
            let places = bound.chord.inputs().filter_map(|i| look.place(i, &look.us));
            for place in places.collect::<Vec<_>>() {
                let taken = look.taken.entry(place).or_default();
                if !taken.contains(&by) {
                    taken.push(by);
                }
            }
        }
        look
    }

    /// Whether two actions are one, or can be live together.
    fn meets(&self, one: ActionId, other: ActionId) -> bool {
        let pair = (self.alike[&one], self.alike[&other]);
        let new = || self.sheet.can_meet(pair.0, pair.1);
        one == other || *self.met.borrow_mut().entry(pair).or_insert_with(new)
    }

    /// Each binding's keys on one layout.
    fn keys(&self, layout: &Layout, found: &mut Found) {
        let mut judged: HashMap<Input, Option<(FindingKind, bool)>> = HashMap::new();
        let mut judge = |input| {
            let known = judged.entry(input);
            known.or_insert_with(|| judge(input, layout)).clone()
        };
        for bound in self.bindings {
            for input in bound.chord.inputs() {
                let Some((kind, unusable)) = judge(input) else {
                    continue;
                };
                let mut lost = |i| judge(i).is_some_and(|(_, unusable)| unusable);
                // Whether the row has another keyboard binding that can be worked on the layout.
                let mut others = self.by_row[&bound.cell.row].iter();
                let has_other = unusable
                    && others.any(|b| b.cell != bound.cell && !b.chord.inputs().any(&mut lost));
                let remedy = |kind: &_| self.remedy_for_key(kind, bound.cell);
                let judged = (kind, unusable && !has_other);
                found.add(layout, vec![bound.cell], judged, remedy);
            }
        }
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
            let bound = self.by_row.get(&c.row)?.iter().find(|b| b.cell == *c)?;
            self.place(bound.chord.input(), &self.us)
        });
        let is_free = |place: &Place| {
            let mut by = self.taken.get(place).into_iter().flatten();
            !by.any(|by| cells.iter().any(|c| self.has_for(*by, c.row.action)))
        };
        let mut free: Vec<Place> = self.same.iter().copied().filter(is_free).collect();
        let far = |p: &Place| {
            from.and_then(|f| Board::Ansi.distance(f, *p))
                .unwrap_or(f32::MAX)
        };
        // Distances are a few key widths, which whole hundredths of are told apart well.
        free.sort_by_cached_key(|place| (far(place) * 100.0) as u32);
        let names: Vec<String> = free.iter().take(3).map(|p| format!("`{p}`")).collect();
        (!names.is_empty()).then(|| names.join(", "))
    }

    /// Whether what is taken by an action, or by others that are live alike, is so for another one.
    fn has_for(&self, by: ActionId, action: ActionId) -> bool {
        by == self.alike[&action] || self.meets(by, action)
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

    /// The groups that are scattered, each by where it stands.
    fn scattered(
        &self,
        layout: &Layout,
        groups: &[Vec<&Bound>],
        found: &mut Found,
    ) -> HashMap<Cell, usize> {
        let mut scattered = HashMap::new();
        for (n, group) in groups.iter().enumerate() {
            let shapes = self.shape(group, &self.us).zip(self.shape(group, layout));
            let Some((usual, there)) = shapes else {
                continue;
            };
            let each = usual.iter().zip(&there);
            let off = each.map(|(a, b)| (a[0] - b[0]).hypot(a[1] - b[1]));
            let off = off.fold(0.0, f32::max);
            if off > SCATTERED {
                let worst = layout.name().to_owned();
                self.by_place(layout, FindingKind::Scattered { off, worst }, group, found);
                scattered.extend(group.iter().map(|b| (b.cell, n)));
            }
        }
        scattered
    }

    /// Pairs of letters that lie side by side on `us` and may be played together.
    fn neighbours(&self) -> Vec<([&Bound; 2], f32)> {
        let lettered = self.bindings.iter().enumerate();
        let lettered = lettered.filter(|(_, b)| matches!(b.chord.input(), Input::Letter(_)));
        let mut at: BTreeMap<Place, Vec<(usize, &Bound)>> = BTreeMap::new();
        for (n, bound) in lettered {
            if let Some(place) = self.place(bound.chord.input(), &self.us) {
                at.entry(place).or_default().push((n, bound));
            }
        }
        let mut pairs = Vec::new();
        for (p, ones) in &at {
            for (q, others) in at.range(p..).skip(1) {
                let Some(d) = Board::Ansi.distance(*p, *q).filter(|d| *d <= SIDE_BY_SIDE) else {
                    continue;
                };
                let each = (ones.iter()).flat_map(|a| others.iter().map(move |b| (*a, *b)));
                let meet = each
                    .filter(|((_, a), (_, b))| self.meets(a.cell.row.action, b.cell.row.action));
                let in_order = meet.map(|(a, b)| match a.0 < b.0 {
                    true => ([a.1, b.1], d),
                    false => ([b.1, a.1], d),
                });
                pairs.extend(in_order.take(MOST_PAIRS - pairs.len()));
            }
        }
        pairs
    }

    fn torn_apart(
        &self,
        layout: &Layout,
        pairs: &[([&Bound; 2], f32)],
        scattered: &HashMap<Cell, usize>,
        found: &mut Found,
    ) {
        let mut far: HashMap<[Input; 2], Option<f32>> = HashMap::new();
        for (pair, usual) in pairs {
            let [one, other] = pair.map(|b| scattered.get(&b.cell));
            // It is told of the whole group.
            if one.is_some() && one == other {
                continue;
            }
            let inputs = pair.map(|b| b.chord.input());
            let there = *far.entry(inputs).or_insert_with(|| {
                let [p, q] = inputs.map(|i| self.place(i, layout));
                layout.board().distance(p?, q?)
            });
            let Some(there) = there.filter(|there| *there > usual + TORN) else {
                continue;
            };
            let apart = Apart {
                there,
                worst: layout.name().to_owned(),
                usual: *usual,
            };
            self.by_place(layout, FindingKind::TornApart(apart), pair, found);
        }
    }

    /// A finding that is mended by binding by place.
    fn by_place(&self, layout: &Layout, kind: FindingKind, bound: &[&Bound], found: &mut Found) {
        let cells = bound.iter().map(|b| b.cell).collect();
        found.add(layout, cells, (kind, true), |_| {
            let letters = bound.iter().map(|b| b.chord.input());
            let letters = letters.filter(|i| matches!(i, Input::Letter(_)));
            let places: Vec<String> = letters
                .filter_map(|i| self.place(i, &self.us))
                .map(|p| format!("`{p}`"))
                .collect();
            format!(
                "bind by place, so that they stay together everywhere: {}",
                places.join(", ")
            )
        });
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
