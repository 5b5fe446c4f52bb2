//! Two bindings compared, once letters are turned into places.

use super::ConflictClass;
use crate::input::{Chord, ChordInHand, Input, Meeting, Relation};
use crate::law::Bound;
use crate::layout::Resolver;
use crate::rig::Placed;
use crate::sheet::{Begins, Gesture, Sheet};

/// A binding as it is in hand on a layout.
#[derive(Clone, Debug)]
pub(super) struct Resolved<'a> {
    pub(super) bound: &'a Bound,
    pub(super) chord: ChordInHand,
}

impl<'a> Resolved<'a> {
    /// None where the layout cannot work it.
    pub(super) fn new(sheet: &Sheet, bound: &'a Bound, resolver: &Resolver) -> Option<Self> {
        sheet.action(bound.cell.row.action)?;
        Some(Resolved {
            bound,
            chord: bound.in_hand(resolver).ok()?,
        })
    }

    pub(super) fn placed(&self) -> Placed<'_> {
        Placed::new(self.bound, &self.chord)
    }
}

/// Whether a chord's keys depend on the layout.
pub(super) fn has_letter(chord: &Chord) -> bool {
    chord.inputs().any(|i| matches!(i, Input::Letter(_)))
}

/// How two chords meet, whatever their manners.
pub(super) fn meeting(a: &Resolved<'_>, b: &Resolved<'_>) -> Option<Meeting> {
    a.chord.meets(a.bound.strict, &b.chord, b.bound.strict)
}

/// How two bindings meet, if they do; whether both can be live is the caller's to know.
pub(super) fn compare(a: &Resolved<'_>, b: &Resolved<'_>) -> Option<ConflictClass> {
    let (x, y) = (a.bound, b.bound);
    let by_letter = || x.chord != y.chord && (has_letter(&x.chord) || has_letter(&y.chord));
    Some(match meeting(a, b)? {
        Meeting::LongerHidesShorter => ConflictClass::LongerHidesShorter,
        Meeting::Member if is_used_up_in(a, b) || is_used_up_in(b, a) => return None,
        Meeting::Member => ConflictClass::Member,
        Meeting::Together(_) | Meeting::Crossing if get_along(a, b) => return None,
        Meeting::Crossing => ConflictClass::Crossing,
        Meeting::Together(Relation::Same) if by_letter() => ConflictClass::ByLetter,
        Meeting::Together(Relation::Same) if x.manner != y.manner => ConflictClass::Manner,
        Meeting::Together(Relation::Same) => ConflictClass::Same,
        Meeting::Together(Relation::Side) => ConflictClass::Side,
        Meeting::Together(Relation::Part) => ConflictClass::PartOfWhole,
    })
}

/// Whether two bindings on one input never both come of one press.
fn get_along(a: &Resolved<'_>, b: &Resolved<'_>) -> bool {
    let of = |bound: &'_ Bound| (bound.manner.gesture(), bound.easing);
    let ((a, a_times), (b, b_times)) = (of(a.bound), of(b.bound));
    Gesture::gets_along((a, &a_times), (b, &b_times))
}

/// Whether a binding that is held for another one, in whichever order that is pressed, comes to nothing by
/// that: a chord uses up what would happen only when its part is let go; and where its parts come together,
/// none of them is held long before.
fn is_used_up_in(member: &Resolved<'_>, of: &Resolved<'_>) -> bool {
    let gesture = member.bound.manner.gesture();
    let takes_longer = || {
        let (after, within) = (
            &member.bound.easing.hold_after,
            &of.bound.easing.together_within,
        );
        gesture.begins == Begins::Held && of.chord.any_order && after > within
    };
    let is_held = |order: ChordInHand| member.chord.orders().any(|own| own.is_held_in(&order));
    (gesture.is_at_release() || takes_longer()) && of.chord.orders().any(is_held)
}
