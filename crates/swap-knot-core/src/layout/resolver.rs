//! Layout and platform: what an input is in the hands of one player.

use super::Layout;
use crate::input::{Chord, ChordInHand, InHand, Input, Letter, Place, Platform, Relation};

/// Says which keys an input is on a layout and a platform, and what one input is of another there.
///
/// Whoever asks about letters or the main modifier asks here. A [`Layout`] stands for a resolver
/// on the platform that the program was built for.
///
/// # Example: a letter and a place
/// ```
/// use swap_knot::Layout;
/// use swap_knot::input::{Platform, Relation};
/// use swap_knot::layout::Resolver;
///
/// let fr = Resolver::new(&Layout::shipped("fr").expect("fr is shipped"), Platform::Other);
/// let (a, q) = ("letter:a".parse()?, "KeyQ".parse()?);
/// assert_eq!(fr.relation(a, q), Some(Relation::Same));
/// assert_eq!(fr.relation("Main".parse()?, "ControlLeft".parse()?), Some(Relation::Side));
///
/// let us = Resolver::from(&Layout::us());
/// assert_eq!(us.relation(a, q), None);
/// # Ok::<(), swap_knot::input::InputError>(())
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Resolver {
    layout: Layout,
    platform: Platform,
}

/// Why a chord cannot be worked on a layout.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum Unworkable {
    /// No key types the letter.
    #[error("no key types `{0}`")]
    NoSuchLetter(Letter),
    /// The input that completes it is one of those that it wants held.
    #[error("`{0}` and `{1}` are one key")]
    OneKey(Input, Input),
}

impl Resolver {
    /// What inputs are on that layout and platform.
    pub fn new(layout: &Layout, platform: Platform) -> Resolver {
        Resolver {
            layout: layout.clone(),
            platform,
        }
    }

    /// The layout.
    pub fn layout(&self) -> &Layout {
        &self.layout
    }

    /// The platform.
    pub fn platform(&self) -> Platform {
        self.platform
    }

    /// The same platform with another layout.
    #[must_use]
    pub fn on(&self, layout: &Layout) -> Resolver {
        Resolver::new(layout, self.platform)
    }

    /// Where the key of an input is: its place, or that of its letter. None for what is no single
    /// key, and for a letter that no key types.
    pub fn place_of(&self, input: Input) -> Option<Place> {
        match input {
            Input::Key(place) => Some(place),
            Input::Letter(letter) => self.layout.place_of(letter),
            _ => None,
        }
    }

    /// The places that an input may be worked at: that of a key, both of a modifier; none of what is
    /// not on a keyboard, and of a letter that no key types.
    pub fn places_of(&self, input: Input) -> Vec<Place> {
        match input {
            Input::Modifier(modifier) => modifier.places(self.platform).to_vec(),
            other => self.place_of(other).into_iter().collect(),
        }
    }

    /// What one input is of the other; none where they have nothing to do with each other, or one
    /// is a letter that no key types.
    pub fn relation(&self, a: Input, b: Input) -> Option<Relation> {
        self.in_hand(a).ok()?.relation(&self.in_hand(b).ok()?)
    }

    /// Which of some inputs has to do with a part of a chord: that part, and the one of them.
    pub(crate) fn find_related(&self, chord: &Chord, among: &[Input]) -> Option<(Input, Input)> {
        let of = |part| {
            Some((
                part,
                *among.iter().find(|o| self.relation(part, **o).is_some())?,
            ))
        };
        chord.inputs().find_map(of)
    }

    /// What an input is in hand.
    pub(crate) fn in_hand(&self, input: Input) -> Result<InHand, Unworkable> {
        Ok(match input {
            Input::Modifier(m) => InHand::keys(&m.places(self.platform).map(Input::Key)),
            Input::Letter(letter) => {
                let place = self.layout.place_of(letter);
                InHand::of_fixed(Input::Key(place.ok_or(Unworkable::NoSuchLetter(letter))?))
            }
            other => InHand::of_fixed(other),
        })
    }

    /// What a chord is in hand.
    pub(crate) fn chord(&self, chord: &Chord) -> Result<ChordInHand, Unworkable> {
        let input = self.in_hand(chord.input())?;
        let mut held: Vec<InHand> = Vec::with_capacity(chord.held().len());
        for &part in chord.held() {
            let hand = self.in_hand(part)?;
            if hand.relation(&input).is_some() {
                return Err(Unworkable::OneKey(part, chord.input()));
            }
            // On this layout two parts may be one key, which is then held once.
            if held.iter().all(|h| h.relation(&hand).is_none()) {
                held.push(hand);
            }
        }
        Ok(ChordInHand {
            held,
            input,
            any_order: false,
        })
    }
}

impl From<&Layout> for Resolver {
    /// For the platform that this program was built for.
    fn from(layout: &Layout) -> Resolver {
        Resolver::new(layout, Platform::current())
    }
}

impl From<Layout> for Resolver {
    fn from(layout: Layout) -> Resolver {
        Resolver::from(&layout)
    }
}

impl From<&Resolver> for Resolver {
    fn from(resolver: &Resolver) -> Resolver {
        resolver.clone()
    }
}
