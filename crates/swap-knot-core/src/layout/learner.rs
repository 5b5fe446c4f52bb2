//! The player's layout, learned from what they type.

use std::sync::OnceLock;

use super::composed::may_be_composed;
use super::{Layout, Level, Typed};
use crate::input::{Event, EventKind, Place};

/// So much doubt moves the learner: so many keys that the layout in use explains only by something
/// that nobody is known to have pressed, and another one by themselves.
const ENOUGH: u32 = 3;
/// The doubt of a press that the layout in use does not explain.
const SURE: u32 = 1000;

/// Names the player's layout from key presses that carry both place and text.
///
/// Feed it every such press. It keeps the newest of each key and answers when they speak for a layout
/// other than the one in use; one press that contradicts the layout in use is enough, so a switch in
/// the middle of the game is followed at the first key that differs. A letter that comes of Shift,
/// AltGr or a dead key on the layout in use says little, since these may have been pressed: a few
/// of them are needed, on different keys, or of AltGr and dead keys the same one again.
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
    /// The newest press of each key, newest last.
    taught: Vec<Taught>,
    /// Whether the system tells what keys type by themselves, which is worth more than what comes of
    /// them with modifiers and dead keys.
    hears_plain: bool,
    /// Whether a key that writes was pressed and wrote nothing, as dead keys do: what the next one
    /// types may be composed.
    may_compose: bool,
    /// Whether a key that can be AltGr is held, by events.
    alt_gr: bool,
    /// Whether a Shift is held, by events.
    shift: bool,
}

/// A press that typed something.
#[derive(Clone, Copy, Debug)]
struct Taught {
    place: Place,
    character: char,
    with: With,
    /// How often in a row the key typed it.
    times: u32,
    /// Whether a dead key of the layout in use may have made it: others need not explain it.
    composed: bool,
}

/// How a layout comes to type a character on a key, the plainest way.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum By {
    Itself,
    Shift,
    AltGr,
    DeadKey,
}

/// What is known of the modifiers that a character was typed with.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum With {
    /// None.
    Nothing,
    /// Shift.
    Shift,
    /// None that is seen: Shift may lock, or wait for the next key.
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
            taught: Vec::new(),
            hears_plain: false,
            may_compose: false,
            alt_gr: false,
            shift: false,
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
            EventKind::Key { place, down, .. } if is_shift(place) => {
                self.shift = down;
                None
            }
            EventKind::Key {
                place,
                down: true,
                text,
            } if place.is_writing() && !self.hears_plain => {
                let composed = std::mem::replace(&mut self.may_compose, text.is_none());
                let text = text.filter(|_| !composed)?;
                let with = match (self.alt_gr, self.shift) {
                    (true, _) => With::AltGr,
                    (false, true) => With::Shift,
                    (false, false) => With::NoAltGr,
                };
                self.teach(place, text, with)
            }
            EventKind::KeyHeld { place } => {
                // A dead key that was down when the focus came composes with its own press.
                self.may_compose = true;
                self.alt_gr |= is_alt(place);
                self.shift |= is_shift(place);
                None
            }
            EventKind::FocusLost => {
                (self.alt_gr, self.shift) = (false, false);
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
        let by = explains(&self.current, place, character);
        // What AltGr types speaks for no other layout.
        if with == With::AltGr && !matches!(by, Some(By::Itself | By::Shift)) {
            return None;
        }
        let known = self.taught.iter().position(|t| t.place == place);
        let before = known.map(|at| self.taught.remove(at));
        let again = before.filter(|t| t.character == character);
        self.taught.push(Taught {
            place,
            character,
            with,
            times: again.map_or(1, |t| t.times.saturating_add(1)),
            composed: by == Some(By::DeadKey),
        });
        if by == Some(By::Itself) {
            return None;
        }
        let found = self.best()?;
        self.current = found.clone();
        Some(found)
    }

    /// The shipped layout that types the newest press and most of those before it without AltGr, if
    /// these speak enough against the layout in use.
    fn best(&self) -> Option<Layout> {
        static CANDIDATES: OnceLock<Vec<Layout>> = OnceLock::new();
        let candidates = CANDIDATES.get_or_init(|| Layout::all_shipped().collect());
        let own: Vec<u32> = (self.taught.iter())
            .map(|t| t.doubt(explains(&self.current, t.place, t.character)))
            .collect();
        // How many presses agree, and how many of them without Shift, which is pressed less.
        let mut best: Option<((usize, usize), &Layout)> = None;
        for layout in candidates {
            let (mut agreeing, mut plainly, mut against, mut doubt) = (0, 0, 0, 0);
            for (n, taught) in self.taught.iter().enumerate().rev() {
                match bare(layout, taught.place, taught.character) {
                    Some(by) if taught.with != With::Nothing || by == By::Itself => {
                        agreeing += 1;
                        plainly += usize::from(by == By::Itself);
                        against += own[n];
                        doubt += taught.doubt(Some(by));
                    }
                    _ if agreeing > 0 && taught.composed => {}
                    _ => break,
                }
            }
            let score = (agreeing, plainly);
            if against >= doubt + ENOUGH && best.is_none_or(|(s, _)| score > s) {
                best = Some((score, layout));
            }
        }
        best.map(|(_, layout)| layout.clone())
    }
}

impl Taught {
    /// How much it speaks against a layout that comes to type it so, or in no way.
    fn doubt(&self, by: Option<By>) -> u32 {
        match (by, self.with) {
            (Some(By::Itself), _) | (Some(By::Shift), With::Shift | With::AltGr) => 0,
            (_, With::Nothing) | (None, _) => SURE,
            // Whoever writes two languages writes one of them with Shift, often the same letter.
            (Some(By::Shift), _) => 1,
            (Some(By::AltGr), With::NoAltGr | With::Shift) => SURE,
            (Some(By::AltGr | By::DeadKey), _) => self.times.min(ENOUGH),
        }
    }
}

/// Whether a key is a Shift.
const fn is_shift(place: Place) -> bool {
    matches!(place, Place::ShiftLeft | Place::ShiftRight)
}

/// Whether a key can be AltGr, or half of what stands for it on some systems.
const fn is_alt(place: Place) -> bool {
    matches!(place, Place::AltRight | Place::AltLeft)
}

/// How a layout comes to type a character, if it can at all.
fn explains(layout: &Layout, place: Place, character: char) -> Option<By> {
    let at = |level| types(layout, place, character, level);
    bare(layout, place, character).or_else(|| {
        let by_alt_gr = at(Level::AltGr) || at(Level::ShiftAltGr);
        let composed = || may_be_composed(layout, place, character);
        match by_alt_gr {
            true => Some(By::AltGr),
            false => composed().then_some(By::DeadKey),
        }
    })
}

/// How it comes to type it without AltGr and dead keys.
fn bare(layout: &Layout, place: Place, character: char) -> Option<By> {
    match types(layout, place, character, Level::Plain) {
        true => Some(By::Itself),
        false => types(layout, place, character, Level::Shift).then_some(By::Shift),
    }
}

/// Whether a layout types that character at that place on that level.
fn types(layout: &Layout, place: Place, character: char, level: Level) -> bool {
    let typed = layout.typed(place, level);
    typed.is_some_and(|t: Typed| !t.dead && t.character == character)
}
