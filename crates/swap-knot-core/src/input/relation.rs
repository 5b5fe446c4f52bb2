//! What one input is of another, and what one chord is of another: the one place that knows.
//!
//! Every input stands for a few *leaves*: single things in hand, such as one key or one half of a
//! stick. Two inputs have to do with each other exactly when they have a leaf in common. On which
//! key a letter lies and which key is the main modifier is for a [`Resolver`] to say.
//!
//! [`Resolver`]: crate::layout::Resolver

use super::{Direction, HidInput, Input, Modifier, Sign};

/// What one input is of another, where they have anything to do with each other.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Relation {
    /// They are the same thing in hand.
    Same,
    /// One is a modifier on either side, the other one side of it.
    Side,
    /// One is a stick or axis, the other a direction of it.
    Part,
}

/// The most leaves of one input: the four directions of a stick.
const MOST: usize = 4;

/// An input as what it is in hand.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct InHand {
    leaves: [Input; MOST],
    len: u8,
}

impl InHand {
    /// The leaves given, which are none of a whole.
    pub(crate) fn keys(leaves: &[Input]) -> InHand {
        let mut out = InHand {
            leaves: [Input::MouseMove; MOST],
            len: 0,
        };
        for &leaf in leaves.iter().take(MOST) {
            out.leaves[usize::from(out.len)] = leaf;
            out.len += 1;
        }
        out
    }

    /// What an input is in hand that depends neither on the layout nor on the platform.
    pub(crate) fn of_fixed(input: Input) -> InHand {
        match input {
            Input::PadStick(stick) => {
                Self::keys(&Direction::ALL.map(|d| Input::PadStickHalf(stick, d)))
            }
            Input::Hid(HidInput::Axis(axis)) => Self::keys(
                &[Sign::Positive, Sign::Negative].map(|s| Input::Hid(HidInput::Half(axis, s))),
            ),
            other => Self::keys(&[other]),
        }
    }

    pub(crate) fn leaves(&self) -> &[Input] {
        &self.leaves[..usize::from(self.len)]
    }

    /// Whether whatever is held of it holds another one as well.
    fn is_in(&self, other: &InHand) -> bool {
        self.leaves()
            .iter()
            .all(|leaf| other.leaves().contains(leaf))
    }

    /// What one is of the other.
    pub(crate) fn relation(&self, other: &InHand) -> Option<Relation> {
        let (a, b) = (self.leaves(), other.leaves());
        if !a.iter().any(|leaf| b.contains(leaf)) {
            return None;
        }
        if a.len() == b.len() && a.iter().all(|leaf| b.contains(leaf)) {
            return Some(Relation::Same);
        }
        let is_key = |leaf: &Input| matches!(leaf, Input::Key(_));
        Some(match a.iter().any(is_key) {
            true => Relation::Side,
            false => Relation::Part,
        })
    }

    /// Whether it is a modifier key, or either of two.
    fn is_modifier(&self) -> bool {
        self.leaves().iter().all(|leaf| leaf.is_modifier())
    }
}

/// A chord as what it is in hand. Held inputs that are one key on the layout are one.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) struct ChordInHand {
    pub(crate) held: Vec<InHand>,
    pub(crate) input: InHand,
    /// Whether its parts are pressed together, so that any of them may complete it.
    pub(crate) any_order: bool,
}

impl ChordInHand {
    /// What it has to do with another one, whichever of the two comes first.
    ///
    /// `strict` says of each whether it wants no other modifier held. Of chords whose parts may come
    /// in any order it is the closest that some order makes.
    pub(crate) fn meets(
        &self,
        strict: bool,
        other: &ChordInHand,
        other_strict: bool,
    ) -> Option<Meeting> {
        if !(self.any_order || other.any_order) {
            return self.meets_as_it_is(strict, other, other_strict);
        }
        let pairs = self.orders().flat_map(|a| {
            let meets = move |b: ChordInHand| a.meets_as_it_is(strict, &b, other_strict);
            other.orders().filter_map(meets)
        });
        pairs.min_by_key(|meeting| meeting.rank())
    }

    /// The orders in which it can be pressed, by what comes last.
    pub(crate) fn orders(&self) -> impl Iterator<Item = ChordInHand> + '_ {
        let further = match self.any_order {
            true => self.held.len(),
            false => 0,
        };
        (0..=further).map(|n| {
            let mut order = self.clone();
            order.any_order = false;
            if let Some(first) = n.checked_sub(1) {
                std::mem::swap(&mut order.held[first], &mut order.input);
            }
            order
        })
    }

    /// Every way in which one input works both, with all held that either wants.
    pub(crate) fn crossings<'c>(
        &'c self,
        other: &'c ChordInHand,
    ) -> impl Iterator<Item = Crossing> + 'c {
        let fresh = |chord: &ChordInHand, order: &ChordInHand| match chord.any_order {
            true => order.held.clone(),
            false => Vec::new(),
        };
        self.orders().flat_map(move |a| {
            other.orders().filter_map(move |b| {
                a.input.relation(&b.input)?;
                Some(Crossing {
                    fresh: [fresh(self, &a), fresh(other, &b)].concat(),
                    inputs: [a.input, b.input],
                    held: [&a.held[..], &b.held].concat(),
                })
            })
        })
    }

    fn meets_as_it_is(
        &self,
        strict: bool,
        other: &ChordInHand,
        other_strict: bool,
    ) -> Option<Meeting> {
        let Some(relation) = self.input.relation(&other.input) else {
            let member = self.is_held_in(other) || other.is_held_in(self);
            return member.then_some(Meeting::Member);
        };
        let shut_out =
            (strict && self.shut_out_by(other)) || (other_strict && other.shut_out_by(self));
        match self.held.len().cmp(&other.held.len()) {
            std::cmp::Ordering::Equal => match within(&self.held, &other.held) {
                Some(held) => Some(Meeting::Together(relation.max(held))),
                None => (!shut_out).then_some(Meeting::Crossing),
            },
            order => {
                let (short, long) = match order.is_lt() {
                    true => (self, other),
                    false => (other, self),
                };
                within(&short.held, &long.held)
                    .filter(|_| !shut_out)
                    .map(|_| Meeting::LongerHidesShorter)
            }
        }
    }

    /// Whether working `other` works this one as well, at its end or on the way, so that who takes
    /// this chord for themselves takes the other with it.
    pub(crate) fn takes(&self, strict: bool, other: &ChordInHand) -> bool {
        if self.any_order || other.any_order {
            return (self.orders()).any(|a| other.orders().any(|b| a.takes(strict, &b)));
        }
        let at_the_end = self.input.relation(&other.input).is_some()
            && within(&self.held, &other.held).is_some();
        (at_the_end || self.is_held_in(other)) && !(strict && self.shut_out_by(other))
    }

    /// Whether all of it is held for `other`, so that it is worked on the way.
    pub(crate) fn is_held_in(&self, other: &ChordInHand) -> bool {
        let mut all = self.held.clone();
        all.push(self.input);
        within(&all, &other.held).is_some()
    }

    /// Whether `other` holds a modifier that this chord knows nothing of.
    fn shut_out_by(&self, other: &ChordInHand) -> bool {
        let own = |part: &InHand| {
            let mut all = self.held.iter().chain([&self.input]);
            all.any(|mine| mine.relation(part).is_some())
        };
        other
            .held
            .iter()
            .any(|part| part.is_modifier() && !own(part))
    }

    /// Whatever may complete it.
    pub(crate) fn completing(&self) -> impl Iterator<Item = &InHand> {
        let held = if self.any_order { &self.held[..] } else { &[] };
        held.iter().chain([&self.input])
    }

    /// The same chord, pressed in any order or as it is.
    #[must_use]
    pub(crate) fn in_any_order(mut self, any_order: bool) -> ChordInHand {
        self.any_order = any_order && !self.held.is_empty();
        self
    }

    /// Everything that it is made of, what is held first.
    pub(crate) fn parts(&self) -> impl Iterator<Item = &InHand> {
        self.held.iter().chain([&self.input])
    }
}

/// A way in which one input works two chords at once.
#[derive(Clone, Debug)]
pub(crate) struct Crossing {
    /// What it is of each of them.
    inputs: [InHand; 2],
    /// All that they want held.
    held: Vec<InHand>,
    /// Of that what has to be pressed just before.
    fresh: Vec<InHand>,
}

impl Crossing {
    /// Whether a chord is always completed with it, and so has the input where it is the longer one.
    pub(crate) fn is_taken_by(&self, longer: &ChordInHand) -> bool {
        // What has to come together is there only if the two wanted it so as well.
        let held = match longer.any_order {
            true => &self.fresh,
            false => &self.held,
        };
        longer.orders().any(|order| {
            self.inputs.iter().any(|input| input.is_in(&order.input))
                && (order.held.iter()).all(|part| held.iter().any(|held| held.is_in(part)))
        })
    }
}

/// How two chords get in each other's way.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Meeting {
    /// One gesture that holds no more than either wants works both.
    Together(Relation),
    /// What the longer holds satisfies the shorter as well, which then gives way.
    LongerHidesShorter,
    /// With what both want held, one input works both.
    Crossing,
    /// One is worked while the other is being held together.
    Member,
}

impl Meeting {
    /// The lower the closer.
    fn rank(self) -> (u8, Option<Relation>) {
        match self {
            Meeting::Together(relation) => (0, Some(relation)),
            Meeting::Crossing => (1, None),
            Meeting::LongerHidesShorter => (2, None),
            Meeting::Member => (3, None),
        }
    }
}

/// Whether each of these parts is one of those, no two of them the same one; and how closely.
fn within(parts: &[InHand], of: &[InHand]) -> Option<Relation> {
    fn place(parts: &[InHand], of: &[InHand], used: u32) -> Option<Relation> {
        let Some((first, rest)) = parts.split_first() else {
            return Some(Relation::Same);
        };
        let free = (0..of.len()).filter(|i| used & 1 << i == 0);
        free.filter_map(|i| {
            let here = first.relation(&of[i])?;
            Some(here.max(place(rest, of, used | 1 << i)?))
        })
        .min()
    }
    place(parts, of, 0)
}

/// Whether two inputs have to do with each other whatever the layout, on any platform.
pub(crate) fn clash(a: Input, b: Input) -> bool {
    let fixed = |input| match input {
        // The main modifier is one or the other.
        Input::Modifier(Modifier::Main) => [Modifier::Ctrl, Modifier::Meta].map(places).to_vec(),
        Input::Modifier(m) => vec![places(m)],
        other => vec![InHand::of_fixed(other)],
    };
    let (a, b) = (fixed(a), fixed(b));
    a.iter().any(|x| b.iter().any(|y| x.relation(y).is_some()))
}

fn places(modifier: Modifier) -> InHand {
    // Only the main modifier depends on the platform, and that is none here.
    InHand::keys(&modifier.places(super::Platform::Other).map(Input::Key))
}
