//! What one hand can play.

use crate::input::{Chord, DeviceKind, Input, Place, Platform};
use crate::law::Bound;
use crate::layout::{Board, Hand, Layout, Resolver};
use crate::sheet::{ActionId, Cell, ColumnKind, Row, Shape, Sheet};

/// Two keys of one hand that are further apart than this take a stretch, in key widths.
const STRETCH: f32 = 5.0;

/// Which actions a hand that stays on its half of the keyboard can play, and what it has to stretch
/// for.
///
/// ```
/// use swap_knot::check::Reach;
/// use swap_knot::input::Platform;
/// use swap_knot::layout::Hand;
/// use swap_knot::{Layout, Profile, Rig, Sheet};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.horn]
///     bind = "KeyH"
///     [actions.lantern]
///     bind = ["KeyF", "mouse:right"]
/// "#)?;
/// let us = Layout::us();
/// let rig = Rig::new(&sheet, &Profile::default(), &us);
/// let reach = Reach::new(&sheet, rig.bindings(), &us, Platform::current());
/// assert_eq!(reach.out_of_reach(Hand::Left, true), [sheet.find("horn").unwrap()]);
/// assert!(reach.out_of_reach(Hand::Right, true).is_empty());
/// assert_eq!(reach.out_of_reach(Hand::Right, false), [sheet.find("lantern").unwrap()]);
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Clone, Debug)]
pub struct Reach {
    playable: Vec<Playable>,
    stretches: Vec<Stretch>,
}

/// How an action can be played on keyboard and mouse.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Playable {
    /// The action.
    pub action: ActionId,
    /// By one hand on the keyboard: left, right.
    pub keyboard: [bool; 2],
    /// By one hand on the keyboard with the other at the mouse: left, right.
    pub with_mouse: [bool; 2],
}

/// Two keys that one hand has to hold together, far apart.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Stretch {
    /// The hand.
    pub hand: Hand,
    /// The bindings; the same one twice for a chord.
    pub cells: [Cell; 2],
    /// The keys.
    pub places: [Place; 2],
    /// How far their middles are apart, in key widths.
    pub distance: f32,
}

impl Reach {
    /// Looks at the keyboard and mouse bindings of a game on a layout and its board.
    pub fn new(sheet: &Sheet, bindings: &[Bound], layout: &Layout, platform: Platform) -> Reach {
        let at_desk: Vec<&Bound> = bindings
            .iter()
            .filter(|b| b.cell.column.kind() == ColumnKind::Keyboard)
            .collect();
        let desk = Desk {
            sheet,
            bindings: &at_desk,
            on: Resolver::new(layout, platform),
        };
        let mut actions: Vec<ActionId> = at_desk.iter().map(|b| b.cell.row.action).collect();
        actions.dedup();
        let playable = actions.into_iter().map(|action| {
            let by = |mouse: bool| Hand::ALL.map(|hand| desk.plays(action, hand, mouse));
            Playable {
                action,
                keyboard: by(false),
                with_mouse: by(true),
            }
        });
        Reach {
            playable: playable.collect(),
            stretches: desk.stretches(),
        }
    }

    /// Every action with a keyboard or mouse binding.
    pub fn playable(&self) -> &[Playable] {
        &self.playable
    }

    /// The actions that a hand cannot play, with or without the mouse in the other.
    pub fn out_of_reach(&self, hand: Hand, with_mouse: bool) -> Vec<ActionId> {
        let out = self.playable.iter().filter(|p| {
            let can = if with_mouse { p.with_mouse } else { p.keyboard };
            !can[hand as usize]
        });
        out.map(|p| p.action).collect()
    }

    /// Keys that are held together by one hand and far apart, the widest first.
    pub fn stretches(&self) -> &[Stretch] {
        &self.stretches
    }
}

/// Whether a hand reaches a key, or either of two, on the layout's board.
pub(super) fn reaches_key(hand: Hand, input: Input, on: &Resolver) -> bool {
    let board = on.layout().board();
    let mut places = on.places_of(input).into_iter();
    places.any(|place| board.reaches(hand, place))
}

/// Keyboard and mouse, and what is bound on them.
struct Desk<'a> {
    sheet: &'a Sheet,
    bindings: &'a [&'a Bound],
    on: Resolver,
}

impl Desk<'_> {
    fn board(&self) -> Board {
        self.on.layout().board()
    }

    fn reaches(&self, hand: Hand, input: Input, mouse: bool) -> bool {
        if input.device_kind() == DeviceKind::Mouse {
            return mouse;
        }
        reaches_key(hand, input, &self.on)
    }

    /// Whether a hand plays an action: as a whole, or every one of its arms.
    fn plays(&self, action: ActionId, hand: Hand, mouse: bool) -> bool {
        let row = |row: Row| {
            let mut bound = self.bindings.iter().filter(|b| b.cell.row == row);
            bound.any(|b| b.chord.inputs().all(|i| self.reaches(hand, i, mouse)))
        };
        let arms = self.sheet.declared(action).arms();
        row(Row::of(action)) || (!arms.is_empty() && arms.iter().all(|&a| row(Row::arm(action, a))))
    }

    fn stretches(&self) -> Vec<Stretch> {
        let mut out = Vec::new();
        for (i, a) in self.bindings.iter().enumerate() {
            let parts: Vec<Input> = a.chord.inputs().collect();
            for (n, x) in parts.iter().enumerate() {
                for y in &parts[n + 1..] {
                    self.add(&mut out, [a, a], [*x, *y]);
                }
            }
            for b in &self.bindings[i + 1..] {
                if self.held_together(a, b) {
                    self.add(&mut out, [a, b], [a.chord.input(), b.chord.input()]);
                }
            }
        }
        out.sort_by(|a, b| b.distance.total_cmp(&a.distance));
        out
    }

    /// Whether two bindings are likely held at once: a direction, and something done on the way.
    fn held_together(&self, a: &Bound, b: &Bound) -> bool {
        let (one, other) = (a.cell.row, b.cell.row);
        let directs = |row: Row| row.arm.is_some();
        let done = |bound: &Bound| {
            let shape = self.sheet.declared(bound.cell.row.action).shape;
            shape == Shape::Press && bound.manner.gesture().is_one_that_lasts()
        };
        let kind = (directs(one) && done(b)) || (directs(other) && done(a));
        let first = a.cell.column.number() == 1 && b.cell.column.number() == 1;
        let plain = |c: &Chord| c.is_plain();
        kind && first
            && plain(&a.chord)
            && plain(&b.chord)
            && self.sheet.can_meet(one.action, other.action)
    }

    /// Adds a stretch if both keys are for one hand only and far apart, whichever side of a
    /// modifier is nearer.
    fn add(&self, out: &mut Vec<Stretch>, bound: [&Bound; 2], inputs: [Input; 2]) {
        let [xs, ys] = inputs.map(|i| self.on.places_of(i));
        let board = self.board();
        let only = |place: Place| {
            let by = Hand::ALL.map(|h| board.reaches(h, place));
            match by {
                [true, false] => Some(Hand::Left),
                [false, true] => Some(Hand::Right),
                _ => None,
            }
        };
        let mut nearest: Option<Stretch> = None;
        for &x in &xs {
            for &y in &ys {
                let (Some(hand), Some(distance)) = (only(x), board.distance(x, y)) else {
                    return;
                };
                if only(y) != Some(hand) {
                    // Two hands hold them at ease.
                    return;
                }
                if nearest.is_none_or(|n| distance < n.distance) {
                    nearest = Some(Stretch {
                        hand,
                        cells: bound.map(|b| b.cell),
                        places: [x, y],
                        distance,
                    });
                }
            }
        }
        out.extend(nearest.filter(|n| n.distance > STRETCH));
    }
}
