//! Held parts of chords latched by a tap, for players to whom holding is hard.

use super::state::{Phase, State};
use super::{Cause, Seat};
use crate::input::{Control, DeviceId, Input, Time};
use crate::rig::{Wire, Wiring};

/// So long a latched part waits for its chord, in seconds.
const LATCHED_FOR: f32 = 5.0;

/// What is latched, and what may become so.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Latches {
    /// Until when each is.
    pub(super) on: Vec<Latch>,
    /// Parts that are down, since when.
    pub(super) down: Vec<Latch>,
}

#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Latch {
    pub(super) part: Control,
    /// Whose it is.
    pub(super) device: DeviceId,
    pub(super) at: Time,
    /// Whether something else happened while it was down, so that it is no tap.
    pub(super) used: bool,
}

impl Latches {
    pub(super) fn clear(&mut self) {
        self.on.clear();
        self.down.clear();
    }

    pub(super) fn turn_back(&mut self, micros: u64) {
        for latch in self.on.iter_mut().chain(&mut self.down) {
            if latch.at != Time::NEVER {
                latch.at = latch.at.minus(micros);
            }
        }
    }

    fn has(&self, part: Control, now: Time) -> bool {
        self.on.iter().any(|l| l.part == part && now <= l.at)
    }
}

impl State {
    /// Whether a part of a chord of that wire is latched.
    #[inline]
    pub(super) fn is_latched(&self, wiring: &Wiring, wire: &Wire, part: Control) -> bool {
        !self.latches.on.is_empty()
            && wiring.actions[usize::from(wire.action)].easing.latch
            && self.latches.has(part, self.now)
    }

    /// A device lost the focus or its plug, and with it what was latched there.
    pub(super) fn lose_latches(&mut self, wiring: &Wiring, device: DeviceId, cause: Cause) {
        let lost = |latch: &Latch| device == DeviceId::ALL || latch.device == device;
        self.latches.down.retain(|l| !lost(l));
        let outer = std::mem::replace(&mut self.cause, cause);
        while let Some(at) = self.latches.on.iter().position(lost) {
            let part = self.latches.on.remove(at).part;
            self.break_chords(wiring, part);
        }
        self.cause = outer;
    }

    /// Something went down: it may be the tap of a part, and is something else to all others.
    pub(super) fn note_part(&mut self, wiring: &Wiring, part: Control) {
        for latch in &mut self.latches.down {
            latch.used |= latch.part != part;
        }
        if wiring.routes.get(part.index()).is_some_and(|r| r.latched) {
            self.latches.down.retain(|l| l.part != part);
            self.latches.down.push(Latch {
                part,
                device: self.feeding,
                at: self.now,
                used: false,
            });
        }
    }

    /// A part came up: after a tap of it alone it is latched, or if it was so, no more.
    pub(super) fn latch_part(&mut self, wiring: &Wiring, part: Control) {
        let Some(at) = self.latches.down.iter().position(|l| l.part == part) else {
            return;
        };
        let down = self.latches.down.remove(at);
        let mut held_in = wiring.held_in(part).iter();
        let action = held_in.find_map(|&i| {
            let wire = &wiring.wires[usize::from(i)];
            let action = &wiring.actions[usize::from(wire.action)];
            action.easing.latch.then_some(action)
        });
        let Some(action) = action else { return };
        let tapped = !down.used && self.now <= down.at.plus_secs(action.easing.tap_within);
        let was_on = self.latches.has(part, self.now);
        self.latches.on.retain(|l| l.part != part);
        if tapped && !was_on {
            let at = self.now.plus_secs(LATCHED_FOR);
            self.latches.on.push(Latch { at, ..down });
        }
    }

    /// A chord begins: what is latched for it stays so until it is over.
    pub(super) fn pin_latches(&mut self, wiring: &Wiring, wire: &Wire) {
        if !self.latches.on.is_empty() && wiring.actions[usize::from(wire.action)].easing.latch {
            let (parts, now) = (wiring.held_of(wire), self.now);
            let of_it = |l: &&mut Latch| parts.iter().flatten().any(|p| *p == l.part);
            let on = self.latches.on.iter_mut().filter(|l| now <= l.at);
            on.filter(of_it).for_each(|l| l.at = Time::NEVER);
        }
    }

    /// A chord is over, and what was latched for it, unless another chord goes on with it.
    #[inline]
    pub(super) fn end_latches(&mut self, wiring: &Wiring, wire: &Wire) {
        if !self.latches.on.is_empty() {
            self.end_latches_of(wiring, wire);
        }
    }

    #[cold]
    fn end_latches_of(&mut self, wiring: &Wiring, wire: &Wire) {
        if !wiring.actions[usize::from(wire.action)].easing.latch {
            return;
        }
        let parts = wiring.held_of(wire);
        let wires = &self.wires;
        let goes_on = |part: Control| {
            wiring.held_in(part).iter().any(|&i| {
                let other = &wiring.wires[usize::from(i)];
                let phase = wires[usize::from(i)].phase;
                wiring.actions[usize::from(other.action)].easing.latch
                    && matches!(phase, Phase::On | Phase::Pending)
            })
        };
        let of_it = |l: &Latch| parts.iter().flatten().any(|p| *p == l.part);
        self.latches.on.retain(|l| !of_it(l) || goes_on(l.part));
    }
}

impl Seat {
    /// The inputs that are latched for a chord, to be shown: a tap of one again lets it go, and so do
    /// its chord, a few seconds and a lost focus. See [`Easing::latch`](crate::sheet::Easing::latch).
    pub fn latched(&self) -> Vec<Input> {
        let now = self.state.now;
        let on = self.state.latches.on.iter().filter(|l| now <= l.at);
        on.filter_map(|latch| match latch.part.touch_position() {
            Some(at) => self
                .state
                .held
                .touch_names()
                .get(at)
                .map(|name| Input::Touch(*name)),
            None => latch.part.input(),
        })
        .collect()
    }
}
