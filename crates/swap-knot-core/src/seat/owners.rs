//! Which device plays for whom: of seats, and of players with all that is theirs.

use super::Seat;
use crate::book::{Change, Held};
use crate::input::{Control, DeviceId, Event, EventKind, Input, PadButton, Time, clash};

/// How far in a trigger is meant.
const MEANT: f32 = 0.5;

/// Whoever devices can play for.
pub(crate) trait Sits {
    fn seat(&self) -> &Seat;
    fn seat_mut(&mut self) -> &mut Seat;
    /// A device plays for them no longer: what it holds is broken off.
    fn lose(&mut self, device: DeviceId, now: Time) {
        let what = EventKind::Unplugged;
        let seat = self.seat_mut();
        seat.feed(&Event {
            at: now,
            device,
            what,
        });
        seat.judge_fed();
    }
}

impl Sits for Seat {
    fn seat(&self) -> &Seat {
        self
    }

    fn seat_mut(&mut self) -> &mut Seat {
        self
    }
}

/// Which device plays for which of several, who waits for one, and what is held on those that are free.
#[derive(Clone, Debug, Default)]
pub(crate) struct Owners {
    /// Whom a device plays for, one bit each.
    masks: Vec<(DeviceId, u16)>,
    /// Who waits for a device to join, first come first served, and by what it joins.
    waiting: Vec<(usize, Vec<Input>)>,
    /// What is held on devices that play for nobody, so that whoever gets one does not play it.
    free: Held,
}

impl Owners {
    /// The most of them.
    pub(crate) const MAX: usize = 16;

    /// Has a device play for exactly these. What it holds for those it leaves is let go.
    pub(crate) fn give<S: Sits>(&mut self, all: &mut [S], device: DeviceId, to: &[usize]) {
        // What was fed before is played as it was then.
        all.iter_mut().for_each(|s| s.seat_mut().judge_fed());
        let known = to.iter().filter(|s| **s < all.len());
        let mask = known.fold(0_u16, |mask, s| mask | 1 << s);
        let before = self.mask(device);
        let now = all.iter().map(|s| s.seat().state.now).max();
        let now = now.unwrap_or(Time::ZERO);
        // The book that has followed the device so far.
        let book = bits(before).next();
        let book = book.map_or(&self.free, |s| all[s].seat().held());
        let held = book.device(device);
        for who in bits(before & !mask) {
            all[who].lose(device, now);
        }
        if let Some(held) = held {
            for who in bits(mask & !before) {
                let seat = all[who].seat_mut();
                seat.state.held.join(device, &held);
                seat.take_up_held();
            }
            match (before, mask) {
                (0, 0) => {}
                (_, 0) => self.free.join(device, &held),
                (0, _) => self.free.unplug(device),
                _ => {}
            }
        }
        self.masks.retain(|(d, _)| *d != device);
        if mask != 0 {
            self.masks.push((device, mask));
        }
    }

    /// One of them leaves: their devices are free, as far as nobody shares them. Answers those.
    pub(crate) fn leave<S: Sits>(&mut self, all: &mut [S], who: usize) -> Vec<DeviceId> {
        self.stop_waiting(who);
        let theirs: Vec<DeviceId> = self.devices_of(who).collect();
        for &device in &theirs {
            let others: Vec<usize> = self.of(device).filter(|s| *s != who).collect();
            self.give(all, device, &others);
        }
        let free = theirs.into_iter().filter(|d| self.mask(*d) == 0);
        free.collect()
    }

    /// Whom a device plays for.
    pub(crate) fn of(&self, device: DeviceId) -> impl Iterator<Item = usize> + use<> {
        bits(self.mask(device))
    }

    /// The devices that play for one, in the order in which they came.
    pub(crate) fn devices_of(&self, who: usize) -> impl Iterator<Item = DeviceId> + '_ {
        let plays = move |mask: u16| who < Self::MAX && mask & 1 << who != 0;
        let all = self.masks.iter();
        all.filter_map(move |(device, mask)| plays(*mask).then_some(*device))
    }

    /// Has one wait for a device on which one of these is pressed; of none given any will do.
    pub(crate) fn wait_for(&mut self, who: usize, inputs: &[Input]) {
        let waits = self.waiting.iter_mut().find(|(s, _)| *s == who);
        match waits {
            Some((_, by)) => *by = inputs.to_vec(),
            None => self.waiting.push((who, inputs.to_vec())),
        }
    }

    pub(crate) fn is_waiting(&self, who: usize) -> bool {
        self.waiting.iter().any(|(s, _)| *s == who)
    }

    pub(crate) fn stop_waiting(&mut self, who: usize) {
        self.waiting.retain(|(s, _)| *s != who);
    }

    /// What is held on devices that play for nobody.
    pub(crate) const fn free(&self) -> &Held {
        &self.free
    }

    /// An event of every device.
    pub(crate) fn hear_all(&mut self, event: &Event) {
        self.free.feed(event);
    }

    /// An event of a device that plays for nobody: who was waiting for it, if it is a press that was
    /// waited for.
    pub(crate) fn hear_free(&mut self, event: &Event) -> Option<usize> {
        let mut pressed = Vec::new();
        let trigger = trigger(&event.what);
        let was = trigger.map(|t| self.free.level_on(event.device, Control::pad(t))[0]);
        self.free.follow(event, |control, change| {
            if matches!(change, Change::Down { .. }) {
                pressed.extend(control.input());
            }
        });
        match (event.what, trigger, was) {
            (EventKind::Touch { name, down: true }, ..) => pressed.push(Input::Touch(name)),
            // It is down long before it is meant.
            (_, Some(trigger), Some(was)) => {
                pressed.clear();
                pressed.extend((was < MEANT).then_some(Input::PadButton(trigger)));
            }
            _ => {}
        }
        // What was down already is no press: a key repeats, and a device may say things twice.
        if self.waiting.is_empty() || pressed.is_empty() || !is_press(&event.what) {
            return None;
        }
        let joins = |by: &[Input]| {
            by.is_empty() || by.iter().any(|i| pressed.iter().any(|p| clash(*i, *p)))
        };
        let at = self.waiting.iter().position(|(_, by)| joins(by))?;
        Some(self.waiting.remove(at).0)
    }

    pub(crate) fn mask(&self, device: DeviceId) -> u16 {
        let found = self.masks.iter().find(|(d, _)| *d == device);
        found.map_or(0, |(_, mask)| *mask)
    }
}

fn bits(mask: u16) -> impl Iterator<Item = usize> {
    (0..Owners::MAX).filter(move |who| mask & 1 << who != 0)
}

/// Whether something was pressed on purpose; sticks and motion drift.
fn is_press(what: &EventKind) -> bool {
    match *what {
        EventKind::Key { down, .. }
        | EventKind::MouseButton { down, .. }
        | EventKind::HidButton { down, .. }
        | EventKind::HidHat { down, .. }
        | EventKind::Touch { down, .. } => down,
        EventKind::PadButton { value, .. } => value >= MEANT,
        _ => false,
    }
}

/// The trigger that an event is about.
fn trigger(what: &EventKind) -> Option<PadButton> {
    match *what {
        EventKind::PadButton { button, .. } => Some(button).filter(|b| b.is_trigger()),
        _ => None,
    }
}
