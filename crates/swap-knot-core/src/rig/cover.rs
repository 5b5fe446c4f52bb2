//! Which bindings are live on a stack of situations, and which can be live together: the one place
//! that knows what covers what. Play asks about the stack there is, the check about every stack
//! that can be.

use std::collections::HashMap;

use crate::input::{ChordInHand, InHand, Input, writes_text};
use crate::law::Bound;
use crate::sheet::{ActionId, Cover, Sheet, SituationId};

/// A binding as the rules of covering see it.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Placed<'a> {
    pub(crate) action: ActionId,
    pub(crate) chord: &'a ChordInHand,
    pub(crate) strict: bool,
}

impl<'a> Placed<'a> {
    /// What the rules of covering see of a binding.
    pub(crate) fn new(bound: &Bound, chord: &'a ChordInHand) -> Placed<'a> {
        Placed {
            action: bound.cell.row.action,
            chord,
            strict: bound.strict,
        }
    }
}

/// What situations that cover only what they use have bound, by what is in hand.
#[derive(Debug, Default)]
pub(crate) struct Uses<'a> {
    by: HashMap<(SituationId, Input), Vec<Placed<'a>>>,
}

impl<'a> Uses<'a> {
    /// Of all bindings there are.
    pub(crate) fn new(sheet: &Sheet, all: impl IntoIterator<Item = Placed<'a>>) -> Uses<'a> {
        let mut uses = Uses::default();
        for placed in all {
            let action = sheet.declared(placed.action);
            let using = |s: &&SituationId| sheet.declared_situation(**s).cover == Cover::Used;
            for &situation in action.situations.iter().filter(using) {
                for &leaf in placed.chord.completing().flat_map(InHand::leaves) {
                    uses.by.entry((situation, leaf)).or_default().push(placed);
                }
            }
        }
        uses
    }

    /// Whether a situation uses what a binding wants for itself.
    fn takes(&self, situation: SituationId, from: &Placed<'_>) -> bool {
        let leaves = from.chord.parts().flat_map(|part| part.leaves());
        leaves.into_iter().any(|&leaf| {
            let own = self.by.get(&(situation, leaf)).into_iter().flatten();
            own.into_iter()
                .any(|p| p.action != from.action && p.chord.takes(p.strict, from.chord))
        })
    }
}

/// What one situation does to a binding that is not its own.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(crate) struct Silenced {
    /// It covers the binding where it is laid over it.
    pub(crate) covered: bool,
    /// The key writes, and the player types text there.
    pub(crate) typed: bool,
}

/// What a situation does to a binding, if it is not live in that situation itself.
pub(crate) fn silenced(
    sheet: &Sheet,
    uses: &Uses<'_>,
    by: SituationId,
    binding: &Placed<'_>,
) -> Silenced {
    let (action, upper) = (sheet.declared(binding.action), sheet.declared_situation(by));
    if action.situations.contains(&by) {
        return Silenced::default();
    }
    Silenced {
        // What is laid over nothing covers nothing, wherever it stands.
        covered: !upper.over.is_empty()
            && match upper.cover {
                Cover::None => false,
                Cover::All => covers_all(sheet, by, binding.action),
                Cover::Used => uses.takes(by, binding),
            },
        typed: upper.typing && !action.while_typing && writes(binding.chord),
    }
}

/// Whether a situation that is not an action's own covers it wholly, whatever it is worked by.
pub(crate) fn covers_all(sheet: &Sheet, by: SituationId, action: ActionId) -> bool {
    let (action, upper) = (sheet.declared(action), sheet.declared_situation(by));
    let own = action.situations.contains(&by);
    !own && !upper.over.is_empty() && upper.cover == Cover::All && !action.while_paused
}

/// Whether any part of a chord puts something into a text field.
fn writes(chord: &ChordInHand) -> bool {
    let writes = |leaf: &Input| matches!(leaf, Input::Key(place) if writes_text(*place));
    chord.parts().any(|part| part.leaves().iter().any(writes))
}

/// Why an action cannot be worked now, whatever is pressed.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum NotLive {
    /// None of the situations in which it is live is on, see
    /// [`Action::situations`](crate::sheet::Action::situations).
    Elsewhere,
    /// This situation lies over it, and covers what it is worked by.
    Covered(SituationId),
    /// The player types text in this situation, and what works it writes.
    Typing(SituationId),
    /// The game has switched it off.
    SwitchedOff,
    /// Nothing that can be pressed is bound to it.
    Unbound,
    /// The sheet has no such action or arm.
    NoSuchRow,
}

impl NotLive {
    /// The reason as a word, the same in every version.
    pub const fn id(self) -> &'static str {
        match self {
            NotLive::Elsewhere => "elsewhere",
            NotLive::Covered(_) => "covered",
            NotLive::Typing(_) => "typing",
            NotLive::SwitchedOff => "switched-off",
            NotLive::Unbound => "not-bound",
            NotLive::NoSuchRow => "no-such-row",
        }
    }
}

/// Why a binding is not live on a stack, lowest first; none where it is.
///
/// It is live by any of its action's situations that nothing above covers and where no text is
/// typed above or beside; an action without situations is live always, unless text is typed.
pub(crate) fn blocked(
    sheet: &Sheet,
    stack: &[SituationId],
    action: ActionId,
    silenced: impl Fn(SituationId) -> Silenced,
) -> Option<NotLive> {
    let action = sheet.declared(action);
    if action.situations.is_empty() {
        let by = stack.iter().rev().find(|&&s| silenced(s).typed)?;
        return Some(NotLive::Typing(*by));
    }
    let mut why = NotLive::Elsewhere;
    let own = |lower: &&SituationId| action.situations.contains(lower);
    for lower in stack.iter().filter(own) {
        // The topmost is what the player sees.
        let mut all = stack.iter().rev();
        why = all.find_map(|&by| silences(sheet, stack, *lower, by, silenced(by)))?;
    }
    Some(why)
}

/// What a situation of a stack does to a binding that is live by another one of it.
fn silences(
    sheet: &Sheet,
    stack: &[SituationId],
    lower: SituationId,
    by: SituationId,
    on_it: Silenced,
) -> Option<NotLive> {
    let at = |s: SituationId| stack.iter().position(|other| *other == s);
    let beside = sheet.are_beside(by, lower);
    // Who stands beside it is not laid over it, wherever they stand on the stack.
    let (covers, writes) = match at(by).cmp(&at(lower)) {
        std::cmp::Ordering::Equal => (false, false),
        std::cmp::Ordering::Less => (false, beside),
        std::cmp::Ordering::Greater => (!beside || sheet.is_over(by, lower), true),
    };
    match on_it {
        Silenced { typed: true, .. } if writes => Some(NotLive::Typing(by)),
        Silenced { covered: true, .. } if covers => Some(NotLive::Covered(by)),
        _ => None,
    }
}

/// How two bindings can be live together.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Together {
    /// Both are live whatever the situation.
    Always,
    /// One is live whatever the situation, the other one in this.
    While(SituationId),
    /// Each in one of its situations, on a stack that the sheet allows.
    In(SituationId, SituationId),
}

/// Every way in which some stack that the sheet allows has two bindings live together.
///
/// Further situations on a stack only ever silence more, so it is enough to look at the smallest
/// stacks that have a situation of each: that one alone, the two beside each other, or the one over
/// the other with what leads from it down.
pub(crate) fn together<'a>(
    sheet: &'a Sheet,
    uses: &'a Uses<'_>,
    a: &'a Placed<'_>,
    b: &'a Placed<'_>,
) -> impl Iterator<Item = Together> + 'a {
    let (own, others) = (sheet.declared(a.action), sheet.declared(b.action));
    let on = move |of: &Placed<'_>, s| silenced(sheet, uses, s, of);
    let off = own.off || others.off;
    let always = match (&own.situations[..], &others.situations[..]) {
        ([], []) => Some(Together::Always),
        _ => None,
    };
    let alone = |some: &'a [SituationId], with: &'a Placed<'_>| {
        let typed = move |s: &&SituationId| !on(with, **s).typed;
        some.iter().filter(typed).map(|&s| Together::While(s))
    };
    let none = || -> &'a [SituationId] { &[] };
    let theirs = if own.situations.is_empty() {
        &others.situations[..]
    } else {
        none()
    };
    let mine = if others.situations.is_empty() {
        &own.situations[..]
    } else {
        none()
    };
    let pairs = own.situations.iter().flat_map(move |&x| {
        let meets = move |y: &&SituationId| meet_in(sheet, on, (a, x), (b, **y));
        others
            .situations
            .iter()
            .filter(meets)
            .map(move |&y| Together::In(x, y))
    });
    let all = always
        .into_iter()
        .chain(alone(theirs, a))
        .chain(alone(mine, b))
        .chain(pairs);
    all.take(if off { 0 } else { usize::MAX })
}

/// Whether two bindings can be live together, each by the one of its situations that stands beside.
fn meet_in(
    sheet: &Sheet,
    on: impl Fn(&Placed<'_>, SituationId) -> Silenced,
    (a, x): (&Placed<'_>, SituationId),
    (b, y): (&Placed<'_>, SituationId),
) -> bool {
    let beside = sheet.are_beside(x, y);
    // The upper one keeps its bindings unless text is typed beside it; the lower one keeps its own
    // where nothing on the way covers it.
    let stacked = |(over, upper): (&Placed<'_>, SituationId), (under, lower)| {
        let lets = |s| {
            let on_lower = on(under, s);
            let typed_beside = s != upper && sheet.are_beside(s, upper) && on(over, s).typed;
            !on_lower.covered && !on_lower.typed && !typed_beside
        };
        !(beside && on(over, lower).typed) && sheet.way_down(upper, lower, lets)
    };
    x == y
        || (beside && !on(a, y).typed && !on(b, x).typed)
        || stacked((a, x), (b, y))
        || stacked((b, y), (a, x))
}

/// For each situation those in which an action that stops under a cover can be live beside it,
/// itself included, as far as that does not depend on what is bound.
pub(crate) fn neighbours(sheet: &Sheet) -> Vec<Vec<SituationId>> {
    let open = |s: SituationId| sheet.declared_situation(s).cover != Cover::All;
    let near = |a, b| {
        a == b || sheet.are_beside(a, b) || sheet.way_down(a, b, open) || sheet.way_down(b, a, open)
    };
    let all = || sheet.situations().map(|(id, _)| id);
    all()
        .map(|a| all().filter(|&b| near(a, b)).collect())
        .collect()
}
