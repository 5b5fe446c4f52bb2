//! The player's layout, learned from what they type.

use std::sync::OnceLock;

use super::composed::may_be_composed;
use super::{Layout, Level, Typed};
use crate::input::{Event, EventKind, Place};

/// How many taught legends are kept: enough to name a layout, small enough to follow a change.
const MEMORY: usize = 12;

/// So many keys that agree only by AltGr, where it is not known whether that is held, and with which
/// another layout agrees by themselves, speak for the other one.
const SUSPECT: usize = 3;

/// Names the player's layout from key presses that carry both place and text.
///
/// Feed it every such press. It keeps the last few and answers when they speak for a layout other
/// than the one in use; one press that contradicts the layout in use is enough, so a switch in the
/// middle of the game is followed at the first key that differs. What a key types by itself or with
/// Shift weighs more than what it would with AltGr, and a letter that a dead key of the layout in
/// use can compose teaches nothing.
///
/// ```
/// use swap_knot::layout::LayoutLearner;
/// use swap_knot::{Layout, Place};
///
/// let mut learner = LayoutLearner::new(Layout::us());
/// assert_eq!(learner.learn(Place::KeyE, 'e'), None);
/// let changed = learner.learn(Place::KeyQ, 'a').expect("`a` at KeyQ is not us");
/// assert_eq!(changed.name(), "fr");
/// ```
#[derive(Clone, Debug)]
pub struct LayoutLearner {
    current: Layout,
    /// Newest last.
    taught: Vec<(Place, char)>,
    /// Whether the system tells what keys type by themselves, which is worth more than what comes of
    /// them with modifiers and dead keys.
    hears_plain: bool,
    /// Whether a key that writes was pressed and wrote nothing, as dead keys do: what the next one
    /// types may be composed.
    may_compose: bool,
    /// Whether a key that can be AltGr is held, by events.
    alt_gr: bool,
}

/// What is known of the modifiers that a character was typed with.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum With {
    /// None.
    Nothing,
    /// Shift or nothing.
    NoAltGr,
    /// AltGr, or another modifier that may be it.
    AltGr,
    /// Any.
    Unknown,
}

impl LayoutLearner {
    /// A learner that starts from the layout in use.
    pub fn new(current: Layout) -> Self {
        LayoutLearner {
            current,
            taught: Vec::with_capacity(MEMORY),
            hears_plain: false,
            may_compose: false,
            alt_gr: false,
        }
    }

    /// The layout that the last presses speak for.
    pub fn layout(&self) -> &Layout {
        &self.current
    }

    /// Learns from an event, if it is a press that teaches something; of everything that a game gets
    /// this takes the right one. A letter that may be composed with a dead key teaches nothing.
    ///
    /// Answers the new layout when it is another one than before.
    pub fn hear(&mut self, event: &Event) -> Option<Layout> {
        match event.what {
            EventKind::KeyTypes { place, plain } => {
                self.hears_plain = true;
                self.teach(place, plain, With::Nothing)
            }
            EventKind::Key { place, down, .. } if is_alt(place) => {
                self.alt_gr = down;
                None
            }
            EventKind::Key {
                place,
                down: true,
                text,
            } if place.is_writing() && !self.hears_plain => {
                let composed = std::mem::replace(&mut self.may_compose, text.is_none());
                let text = text.filter(|_| !composed)?;
                let with = if self.alt_gr {
                    With::AltGr
                } else {
                    With::NoAltGr
                };
                self.teach(place, text, with)
            }
            EventKind::KeyHeld { place } => {
                // A dead key that was down when the focus came composes with its own press.
                self.may_compose = true;
                self.alt_gr |= is_alt(place);
                None
            }
            EventKind::FocusLost => {
                self.alt_gr = false;
                None
            }
            _ => None,
        }
    }

    /// Learns from one press: the place, and the character it typed, with whatever modifiers.
    /// [`LayoutLearner::hear`] knows them, and is the better teacher.
    ///
    /// Answers the new layout when it is another one than before.
    pub fn learn(&mut self, place: Place, character: char) -> Option<Layout> {
        self.teach(place, character, With::Unknown)
    }

    fn teach(&mut self, place: Place, character: char, with: With) -> Option<Layout> {
        if !place.is_writing() || character.is_control() {
            return None;
        }
        let bare = match with {
            With::Nothing => &[Level::Plain],
            _ => BARE,
        };
        let agrees = types(&self.current, place, character, bare);
        let by_alt_gr = || types(&self.current, place, character, ALT_GR);
        match with {
            // What AltGr types speaks for no other layout.
            With::AltGr if !agrees => return None,
            With::NoAltGr | With::Unknown
                if !agrees && may_be_composed(&self.current, place, character) =>
            {
                return None;
            }
            _ => {}
        }
        let suspect = !agrees && with == With::Unknown && by_alt_gr();
        self.taught.retain(|&(p, _)| p != place);
        if self.taught.len() == MEMORY {
            self.taught.remove(0);
        }
        self.taught.push((place, character));
        if agrees {
            return None;
        }
        let found = self.best(place, character, suspect)?;
        self.current = found.clone();
        Some(found)
    }

    /// The shipped layout that agrees with the newest press and with most of those before it. Where
    /// the layout in use agrees with it by AltGr, the other one has to agree with more of them.
    fn best(&self, place: Place, character: char, suspect: bool) -> Option<Layout> {
        static CANDIDATES: OnceLock<Vec<Layout>> = OnceLock::new();
        let candidates = CANDIDATES.get_or_init(|| Layout::all_shipped().collect());
        // How many presses agree, and how many of them without Shift, which is pressed less.
        let mut best: Option<((usize, usize), &Layout)> = None;
        for layout in candidates {
            if !types(layout, place, character, BARE) {
                continue;
            }
            let agrees = |&&(p, c): &&(Place, char)| types(layout, p, c, BARE);
            let plainly = |&&(p, c): &&(Place, char)| types(layout, p, c, &[Level::Plain]);
            let agreeing = self.taught.iter().rev().take_while(agrees);
            if suspect {
                let against = |&&(p, c): &&(Place, char)| !types(&self.current, p, c, BARE);
                if agreeing.clone().filter(against).count() < SUSPECT {
                    continue;
                }
            }
            let score = (agreeing.clone().count(), agreeing.filter(plainly).count());
            if best.is_none_or(|(s, _)| score > s) {
                best = Some((score, layout));
            }
        }
        best.map(|(_, layout)| layout.clone())
    }
}

/// Whether a key can be AltGr, or half of what stands for it on some systems.
const fn is_alt(place: Place) -> bool {
    matches!(place, Place::AltRight | Place::AltLeft)
}

/// The levels that need no AltGr.
const BARE: &[Level] = &[Level::Plain, Level::Shift];
/// Those that need it.
const ALT_GR: &[Level] = &[Level::AltGr, Level::ShiftAltGr];

/// Whether a layout types that character at that place on one of those levels.
fn types(layout: &Layout, place: Place, character: char, levels: &[Level]) -> bool {
    levels.iter().any(|&level| {
        let is = |t: Typed| !t.dead && t.character == character;
        layout.typed(place, level).is_some_and(is)
    })
}
