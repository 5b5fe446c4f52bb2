//! What was fed and is not judged yet, in the order of time.

use super::driven::Driven;
use super::record::Fed;
use super::state::State;
use super::{Cause, Seat};
use crate::input::{DeviceId, Event, EventKind, Time};
use crate::rig::Wiring;

/// How an event is judged that is not simply played.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Odd {
    /// Somebody else plays on it.
    Overheard,
    /// It is what the game itself does, and of the event only its time counts.
    Driven(Driven),
}

/// What was fed and is not judged yet, in the order of time.
#[derive(Debug, Default)]
pub(super) struct Queue {
    events: Vec<Event>,
    /// When the last of them is; nothing that comes is earlier where there is none.
    latest: Time,
    /// The few that are not simply played, with their positions, in order: what every event takes
    /// is as little as can be.
    pub(super) odd: Vec<(usize, Odd)>,
}

impl PartialEq for Queue {
    /// By what is judged: a number that is none is at rest.
    fn eq(&self, other: &Queue) -> bool {
        let same = |(a, b): (&Event, &Event)| {
            (a.at, a.device) == (b.at, b.device) && a.what.in_range() == b.what.in_range()
        };
        self.odd == other.odd
            && self.events.len() == other.events.len()
            && self.events.iter().zip(&other.events).all(same)
    }
}

impl Clone for Queue {
    fn clone(&self) -> Queue {
        let mut copy = Queue::default();
        copy.clone_from(self);
        copy
    }

    /// In the room that is there.
    fn clone_from(&mut self, from: &Queue) {
        self.events.clone_from(&from.events);
        self.latest = from.latest;
        self.odd.clone_from(&from.odd);
    }
}

impl Queue {
    pub(super) fn new() -> Queue {
        Queue {
            events: Vec::with_capacity(64),
            latest: Time::ZERO,
            odd: Vec::new(),
        }
    }

    /// Everything that waits, in order, with what it is where it is not simply played.
    pub(super) fn waiting(&self) -> impl ExactSizeIterator<Item = (&Event, Option<&Odd>)> {
        let mut odd = self.odd.iter().peekable();
        self.events
            .iter()
            .enumerate()
            .map(move |(position, event)| {
                let how = odd.next_if(|(at, _)| *at == position);
                (event, how.map(|(_, how)| how))
            })
    }

    /// Has one more wait.
    pub(super) fn wait(&mut self, event: &Event, odd: Option<Odd>) {
        match odd {
            Some(odd) => self.put_odd(event, odd),
            None => self.put(event),
        }
    }

    /// Puts an event behind all that are not later.
    #[inline]
    fn put(&mut self, event: &Event) {
        if event.at < self.latest {
            self.put_between(event);
        } else {
            self.latest = event.at;
            self.events.push(*event);
        }
    }

    #[cold]
    fn put_between(&mut self, event: &Event) {
        let at = self.position(event.at);
        self.events.insert(at, *event);
        for (position, _) in &mut self.odd {
            *position += usize::from(*position >= at);
        }
    }

    /// The same for one that is not simply played.
    fn put_odd(&mut self, event: &Event, odd: Odd) {
        let at = self.position(event.at);
        self.put(event);
        let among = self.odd.partition_point(|(position, _)| *position < at);
        self.odd.insert(among, (at, odd));
    }

    /// How many are not later than a moment.
    fn position(&self, to: Time) -> usize {
        match self.latest > to {
            true => self.events.partition_point(|e| e.at <= to),
            false => self.events.len(),
        }
    }

    /// The same for what the game itself does.
    pub(super) fn drive(&mut self, at: Time, driven: Driven) {
        let event = Event {
            at,
            device: DeviceId::ALL,
            what: EventKind::FocusLost,
        };
        self.put_odd(&event, Odd::Driven(driven));
    }

    /// Keeps what the game itself does, and the events of some devices.
    fn keep(&mut self, keeps: impl Fn(DeviceId) -> bool) {
        let (events, odd) = (
            std::mem::take(&mut self.events),
            std::mem::take(&mut self.odd),
        );
        let mut odd = odd.into_iter().peekable();
        self.latest = Time::ZERO;
        for (position, event) in events.into_iter().enumerate() {
            let how = odd.next_if(|(at, _)| *at == position).map(|(_, how)| how);
            let driven = matches!(how, Some(Odd::Driven(_)));
            if driven || keeps(event.device) {
                self.odd.extend(how.map(|how| (self.events.len(), how)));
                self.latest = event.at;
                self.events.push(event);
            }
        }
    }

    /// Has everything judged that is not later than a moment.
    #[inline]
    fn judge(&mut self, state: &mut State, wiring: &Wiring, to: Time) {
        let due = self.position(to);
        if self.odd.is_empty() {
            state.feed_all(wiring, &self.events[..due]);
        } else {
            self.judge_odd(state, wiring, due);
        }
        if due == self.events.len() {
            self.events.clear();
            self.latest = Time::ZERO;
        } else {
            self.events.drain(..due);
        }
    }

    #[cold]
    fn judge_odd(&mut self, state: &mut State, wiring: &Wiring, due: usize) {
        let mut odd = self.odd.iter().peekable();
        for (position, event) in self.events[..due].iter().enumerate() {
            match odd.next_if(|(at, _)| *at == position) {
                None => state.feed_all(wiring, std::slice::from_ref(event)),
                Some((_, odd)) => state.at_its_time(wiring, event.at, |state| match odd {
                    Odd::Overheard => state.overhear(wiring, event),
                    Odd::Driven(driven) => state.drive(wiring, event.at, driven),
                }),
            }
        }
        self.odd.retain_mut(|(position, _)| {
            let waits = *position >= due;
            *position = position.saturating_sub(due);
            waits
        });
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
        self.queue.put(event);
    }

    /// Takes an event in that is not played, since a menu or a listener has it: the book is kept.
    ///
    /// What leaves its rest by it is spent, and what is let go ends without a release or a tap. What
    /// was held before goes on: a player who walks by stick walks on while the menu hears a button.
    pub fn overhear(&mut self, event: &Event) {
        if self.recorder.is_some() {
            self.record_event(event, Fed::Overheard);
        }
        self.queue.put_odd(event, Odd::Overheard);
    }

    /// Only these devices play for the seat from now on: what others hold is broken off, and what was
    /// fed of them and is not judged yet is dropped.
    pub fn keep_devices(&mut self, keeps: impl Fn(DeviceId) -> bool) {
        let kept = |device| device == DeviceId::ALL || keeps(device);
        self.queue.keep(kept);
        let devices = self.state.held.devices();
        let leaving: Vec<DeviceId> = devices.filter(|d| !keeps(*d)).collect();
        let wiring = self.rig.wiring();
        for device in leaving {
            let lost = |held: &mut crate::book::Held| held.unplug(device);
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
        self.state.settle(wiring);
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
