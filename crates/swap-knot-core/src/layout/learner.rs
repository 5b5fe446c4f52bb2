//! The player's layout, learned from what they type.

use super::{Layout, Level, Typed};
use crate::input::{Event, EventKind, Place};

/// How many taught legends are kept: enough to name a layout, small enough to follow a change.
const MEMORY: usize = 12;

/// Names the player's layout from key presses that carry both place and text.
///
/// Feed it every such press. It keeps the last few and answers when they speak for a layout other
/// than the one in use; one press that contradicts the layout in use is enough, so a switch in the
/// middle of the game is followed at the first key that differs.
///
/// ```
/// use swap_knot::{Layout, LayoutLearner, Place};
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
    candidates: Vec<Layout>,
    /// Whether the system tells what keys type by themselves, which is worth more than what comes of
    /// them with modifiers and dead keys.
    hears_plain: bool,
    /// Whether a key that writes was pressed and wrote nothing, as dead keys do: what the next one
    /// types may be composed.
    may_compose: bool,
}

impl LayoutLearner {
    /// A learner that starts from the layout in use.
    pub fn new(current: Layout) -> Self {
        LayoutLearner {
            current,
            taught: Vec::with_capacity(MEMORY),
            candidates: Vec::new(),
            hears_plain: false,
            may_compose: false,
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
                self.teach(place, plain, &[Level::Plain])
            }
            EventKind::Key {
                place,
                down: true,
                text,
            } if place.is_writing() && !self.hears_plain => {
                let composed = std::mem::replace(&mut self.may_compose, text.is_none());
                let text = text.filter(|_| !composed)?;
                self.learn(place, text)
            }
            EventKind::KeyHeld { .. } => {
                // A dead key that was down when the focus came composes with its own press.
                self.may_compose = true;
                None
            }
            _ => None,
        }
    }

    /// Learns from one press: the place, and the character it typed (with or without Shift).
    ///
    /// Answers the new layout when it is another one than before.
    pub fn learn(&mut self, place: Place, character: char) -> Option<Layout> {
        // AltGr is held for some characters, which speak for no other layout.
        self.teach(place, character, &Level::ALL)
    }

    /// Learns what a key types on one of some levels.
    fn teach(&mut self, place: Place, character: char, levels: &[Level]) -> Option<Layout> {
        if !place.is_writing() || character.is_control() {
            return None;
        }
        self.taught.retain(|&(p, _)| p != place);
        if self.taught.len() == MEMORY {
            self.taught.remove(0);
        }
        self.taught.push((place, character));
        if types(&self.current, place, character, levels) {
            return None;
        }
        let found = self.best(place, character)?;
        self.current = found.clone();
        Some(found)
    }

    /// The shipped layout that agrees with the newest press and with most of those before it.
    fn best(&mut self, place: Place, character: char) -> Option<Layout> {
        if self.candidates.is_empty() {
            self.candidates = Layout::all_shipped().collect();
        }
        // How many presses agree, and how many of them without Shift, which is pressed less.
        let mut best: Option<((usize, usize), &Layout)> = None;
        for layout in &self.candidates {
            if !types(layout, place, character, BARE) {
                continue;
            }
            let agrees = |&&(p, c): &&(Place, char)| types(layout, p, c, BARE);
            let plainly = |&&(p, c): &&(Place, char)| types(layout, p, c, &[Level::Plain]);
            let agreeing = self.taught.iter().rev().take_while(agrees);
            let score = (agreeing.clone().count(), agreeing.filter(plainly).count());
            if best.is_none_or(|(s, _)| score > s) {
                best = Some((score, layout));
            }
        }
        best.map(|(_, layout)| layout.clone())
    }
}

/// The levels that need no AltGr.
const BARE: &[Level] = &[Level::Plain, Level::Shift];

/// Whether a layout types that character at that place on one of those levels.
fn types(layout: &Layout, place: Place, character: char, levels: &[Level]) -> bool {
    levels.iter().any(|&level| {
        let is = |t: Typed| !t.dead && t.character == character;
        layout.typed(place, level).is_some_and(is)
    })
}
