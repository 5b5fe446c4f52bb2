//! What a wire lacks to work, asked by whatever begins, follows, moves or tells.

use crate::input::{Control, MODIFIER_PLACES};
use crate::rig::{Wire, Wiring};
use crate::seat::state::State;

/// What a wire lacks to work.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Lack {
    /// Its action is not live.
    Live,
    /// A part of its chord is not held: either side would do.
    Part([Control; 2]),
    /// It is strict, and this modifier is held.
    Strict(Control),
    /// The parts of its chord came one after another.
    Together,
    /// A longer chord, that of this wire, has its control.
    Longer(u16),
    /// Its control has worked something else, and has to be at rest first.
    Rest,
}

/// The longest chord that has a control.
#[derive(Clone, Copy, Debug)]
pub(super) struct Longest {
    held: u8,
    by: u16,
}

impl Longest {
    pub(super) const NONE: Longest = Longest { held: 0, by: 0 };

    pub(in crate::seat) fn or(self, index: u16, wire: &Wire) -> Longest {
        let longer = Longest {
            held: wire.held_len,
            by: index,
        };
        if self.hides(wire) { self } else { longer }
    }

    pub(super) fn or_longer(self, other: Longest) -> Longest {
        if other.held > self.held { other } else { self }
    }

    /// Whether a wire is of a shorter chord.
    pub(super) fn hides(self, wire: &Wire) -> bool {
        wire.held_len < self.held
    }

    pub(super) fn lack(self, wire: &Wire) -> Option<Lack> {
        self.hides(wire).then_some(Lack::Longer(self.by))
    }
}

impl State {
    /// What a wire lacks to begin by a press of its control, or by a movement of it.
    #[inline]
    pub(super) fn lack(&self, wiring: &Wiring, index: u16, wire: &Wire) -> Option<Lack> {
        let together = || wire.together && !self.came_together(wiring, wire);
        let lack = self.lack_of_held(wiring, index, wire);
        lack.or_else(|| together().then_some(Lack::Together))
    }

    /// What a wire lacks to follow its control.
    pub(super) fn lack_to_follow(
        &self,
        wiring: &Wiring,
        index: u16,
        wire: &Wire,
        longest: impl FnOnce() -> Longest,
    ) -> Option<Lack> {
        let is_anothers = || !self.owned.is_empty() && self.is_anothers(wiring, wire);
        let lack = self.lack_of_held(wiring, index, wire);
        lack.or_else(|| longest().lack(wire))
            .or_else(|| is_anothers().then_some(Lack::Rest))
    }

    /// What a wire lacks however it is worked: its situation, or what is held beside its control.
    #[inline]
    fn lack_of_held(&self, wiring: &Wiring, index: u16, wire: &Wire) -> Option<Lack> {
        if !self.live[usize::from(index)] {
            return Some(Lack::Live);
        }
        if wire.held_len > 0
            && let Some(part) = self.not_held(wiring, wire)
        {
            return Some(Lack::Part(part));
        }
        if wire.strict
            && let Some(modifier) = self.other_modifier(wiring, wire)
        {
            return Some(Lack::Strict(modifier));
        }
        None
    }

    /// What a wire lacks to begin beside the longest chord that does.
    #[inline]
    pub(super) fn lack_beside(
        &self,
        wiring: &Wiring,
        index: u16,
        wire: &Wire,
        longest: Longest,
    ) -> Option<Lack> {
        let lack = self.lack(wiring, index, wire);
        lack.or_else(|| longest.lack(wire))
    }

    #[inline]
    pub(super) fn is_ready(&self, wiring: &Wiring, index: u16, wire: &Wire) -> bool {
        self.lack(wiring, index, wire).is_none()
    }

    /// Whether a part of a chord is held, whatever it worked before, and not by the very event that is
    /// judged.
    fn is_held(&self, control: Control) -> bool {
        self.held.is_held(control) && !self.fresh.has(control)
    }

    /// Whether everything that a chord wants held is down.
    pub(super) fn holds(&self, wiring: &Wiring, wire: &Wire) -> bool {
        self.not_held(wiring, wire).is_none()
    }

    /// The first part that a chord wants held and that is not: either side of it would do.
    #[inline]
    pub(super) fn not_held(&self, wiring: &Wiring, wire: &Wire) -> Option<[Control; 2]> {
        let there = |c| self.is_held(c) || self.is_latched(wiring, wire, c);
        let mut held = wiring.held_of(wire).iter();
        held.find(|&&[a, b]| !there(a) && !there(b)).copied()
    }

    /// Whether everything that a chord wants held was pressed just before.
    pub(super) fn came_together(&self, wiring: &Wiring, wire: &Wire) -> bool {
        let within = wiring.actions[usize::from(wire.action)]
            .easing
            .together_within;
        let soon = |control: Control| {
            let is_fresh = self.held.is_down(control) && !self.fresh.has(control);
            is_fresh && self.now <= self.pressed_at[control.index()].plus_secs(within)
        };
        let mut held = wiring.held_of(wire).iter();
        held.all(|&[a, b]| soon(a) || soon(b))
    }

    /// A modifier that is held and no part of a chord.
    pub(super) fn other_modifier(&self, wiring: &Wiring, wire: &Wire) -> Option<Control> {
        let own = |modifier| {
            let mut held = wiring.held_of(wire).iter();
            wire.control == modifier || held.any(|pair| pair.contains(&modifier))
        };
        let mut all = MODIFIER_PLACES.map(Control::key).into_iter();
        all.find(|&modifier| self.held.is_held(modifier) && !own(modifier))
    }

    /// The longest chord that a movement of a control could complete now.
    pub(super) fn longest(&self, wiring: &Wiring, control: Control) -> Longest {
        self.longest_of(wiring, control, |index| self.is_ready_at(wiring, index))
    }

    /// The same for what moves with it: the halves of a stick that it leans to, or the whole.
    #[inline]
    pub(super) fn longest_relative(&self, wiring: &Wiring, control: Control) -> Longest {
        self.longest_beside(wiring, control, &|index| self.is_ready_at(wiring, index))
    }

    fn is_ready_at(&self, wiring: &Wiring, index: u16) -> bool {
        self.is_ready(wiring, index, &wiring.wires[usize::from(index)])
    }

    /// The longest chord that a control, or what moves with it, completes and that counts.
    pub(super) fn longest_of(
        &self,
        wiring: &Wiring,
        control: Control,
        counts: impl Fn(u16) -> bool,
    ) -> Longest {
        let own = longest_in(wiring, control, &counts);
        own.or_longer(self.longest_beside(wiring, control, &counts))
    }

    #[inline]
    fn longest_beside(
        &self,
        wiring: &Wiring,
        control: Control,
        counts: &impl Fn(u16) -> bool,
    ) -> Longest {
        let (first, count) = control.relatives();
        let relatives = (first.0..first.0 + count).map(Control);
        let moved = relatives.filter(|&c| self.held.is_worked(c));
        moved
            .map(|c| longest_in(wiring, c, counts))
            .fold(Longest::NONE, Longest::or_longer)
    }
}

/// The chords that a control completes are in the order of their length.
fn longest_in(wiring: &Wiring, control: Control, counts: impl Fn(u16) -> bool) -> Longest {
    let mut wires = wiring.completed_by(control).iter().copied();
    let first = wires.find(|index| counts(*index));
    first.map_or(Longest::NONE, |index| {
        Longest::NONE.or(index, &wiring.wires[usize::from(index)])
    })
}
