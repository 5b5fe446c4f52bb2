//! What was fed and is not judged yet, in the order of time.

use super::driven::Driven;
use super::record::Fed;
use super::state::State;
use super::{Cause, Seat};
use crate::input::{DeviceId, Event, EventKind, Time};
use crate::rig::Wiring;

/// What waits to be judged.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Waiting {
    /// Of what the game itself does only the time counts.
    pub(super) event: Event,
    pub(super) how: Judged,
}

#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Judged {
    /// It is played.
    Played,
    /// Somebody else plays on it.
    Overheard,
    /// It is what the game itself does.
    Driven(Driven),
}

/// What was fed and is not judged yet, in the order of time.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Queue(pub(super) Vec<Waiting>);

impl Queue {
    pub(super) fn new() -> Queue {
        Queue(Vec::with_capacity(64))
    }

    /// Puts an event behind all that are not later.
    #[inline]
    fn put(&mut self, event: Event, how: Judged) {
        let waiting = Waiting { event, how };
        let last = self.0.last();
        if last.is_none_or(|last| last.event.at <= event.at) {
            self.0.push(waiting);
            return;
        }
        let at = self.0.partition_point(|w| w.event.at <= event.at);
        self.0.insert(at, waiting);
    }

    /// The same for what the game itself does.
    pub(super) fn drive(&mut self, at: Time, driven: Driven) {
        let event = Event {
            at,
            device: DeviceId::ALL,
            what: EventKind::FocusLost,
        };
        self.put(event, Judged::Driven(driven));
    }

    /// Has everything judged that is not later than a moment.
    #[inline]
    fn judge(&mut self, state: &mut State, wiring: &Wiring, to: Time) {
        let due = match self.0.last() {
            Some(last) if last.event.at > to => self.0.partition_point(|w| w.event.at <= to),
            _ => self.0.len(),
        };
        for Waiting { event, how } in &self.0[..due] {
            match how {
                Judged::Played => state.feed(wiring, event),
                Judged::Overheard => state.overhear(wiring, event),
                Judged::Driven(driven) => state.drive(wiring, event.at, driven),
            }
        }
        self.0.drain(..due);
    }
}

impl Seat {
    /// Takes an event in. It is judged when time is let go by up to it, at the next
    /// [`advance`](Seat::advance) or [`tick`](Seat::tick); events may come in any order, those of one
    /// time are judged in the order in which they came.
    #[inline]
    pub fn feed(&mut self, event: &Event) {
        if self.recorder.is_some() {
            self.record_event(event, self.fed_as());
        }
        self.queue.put(*event, Judged::Played);
    }

    /// Takes an event in that is not played, since a menu or a listener has it: the book is kept.
    ///
    /// What leaves its rest by it is spent, and what is let go ends without a release or a tap. What
    /// was held before goes on: a player who walks by stick walks on while the menu hears a button.
    pub fn overhear(&mut self, event: &Event) {
        if self.recorder.is_some() {
            self.record_event(event, Fed::Overheard);
        }
        self.queue.put(*event, Judged::Overheard);
    }

    /// Only these devices play for the seat from now on: what others hold is broken off, and what was
    /// fed of them and is not judged yet is dropped.
    pub fn keep_devices(&mut self, keeps: impl Fn(DeviceId) -> bool) {
        let kept = |device| device == DeviceId::ALL || keeps(device);
        let stays = |w: &Waiting| matches!(w.how, Judged::Driven(_)) || kept(w.event.device);
        self.queue.0.retain(stays);
        let devices = self.state.held.devices();
        let leaving: Vec<DeviceId> = devices.filter(|d| !keeps(*d)).collect();
        let wiring = self.rig.wiring();
        for device in leaving {
            let lost = |held: &mut crate::input::Held| held.unplug(device);
            self.state.lose(wiring, Cause::Unplugged, lost);
            self.state.kind.forget(device);
            self.state.lose_latches(wiring, device, Cause::Unplugged);
        }
        self.state.settle(wiring);
    }

    /// Has everything judged that was fed.
    pub(super) fn judge_fed(&mut self) {
        let wiring = self.rig.wiring();
        self.queue.judge(&mut self.state, wiring, Time::NEVER);
    }

    /// Lets time go by up to a moment: what was fed up to then is judged, holds begin, ramps go on,
    /// and values are those of that moment. What is fed later, or stamped later, waits.
    ///
    /// For a game with a fixed step, which advances to the end of each step, reads that step by a
    /// [`Pace`](super::Pace) of its own, and ticks at last for the picture. A situation that is
    /// entered in between governs what comes later only. Time does not go back by it.
    ///
    /// Costs by the bindings that the events can touch, and allocates nothing once warm.
    pub fn advance(&mut self, to: Time) {
        if let Some(recorder) = &mut self.recorder {
            recorder.advance(to);
        }
        let wiring = self.rig.wiring();
        self.queue.judge(&mut self.state, wiring, to);
        self.state.advance(wiring, to);
        self.state.settle(wiring);
        self.state.log.bound();
        if let Some(listed) = &mut self.state.listed {
            listed.bound();
        }
    }

    /// Closes the frame of the picture: everything that was fed is judged, also what is stamped later
    /// than now, and from here on the answers speak of what was judged since the last tick.
    pub fn tick(&mut self, now: Time) {
        if let Some(recorder) = &mut self.recorder {
            recorder.tick(now);
        }
        let wiring = self.rig.wiring();
        self.queue.judge(&mut self.state, wiring, Time::NEVER);
        self.state.tick(wiring, now);
    }
}
