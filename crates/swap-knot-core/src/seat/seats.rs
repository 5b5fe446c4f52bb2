//! Several players on one machine: which device plays for whom.

use super::Seat;
use crate::input::{DeviceId, Event, EventKind, Held, Time};
use crate::rig::Rig;

/// The players on one machine, each with their own rig and devices.
///
/// A device plays for the seats it was given to: one, or several for two halves of one keyboard.
/// It is remembered while it is unplugged, so that it comes back to its seat. Two characters can
/// read one seat; ask the same [`Seat`] for both.
///
/// ```
/// use swap_knot::{DeviceId, Event, EventKind, Fed, Layout, PadButton, Profile, Rig, Seats, Sheet, Time};
///
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"pad:north\"")?;
/// let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
/// let mut seats = Seats::new();
/// let deckhand = seats.add(rig).expect("there is room");
/// seats.wait_for_device(deckhand); // "press any button to join"
///
/// let press = Event {
///     at: Time::ZERO,
///     device: DeviceId(7),
///     what: EventKind::PadButton { button: PadButton::South, value: 1.0 },
/// };
/// assert_eq!(seats.feed(&press), Fed::Joined(deckhand));
/// # Ok::<(), swap_knot::SheetError>(())
/// ```
#[derive(Clone, Debug, Default)]
pub struct Seats {
    seats: Vec<Seat>,
    /// Which seats a device plays for, one bit a seat.
    owners: Vec<(DeviceId, u16)>,
    /// Seats that wait for a device to join, first come first served.
    waiting: Vec<usize>,
    /// What is held on devices that play for nobody, so that whoever gets one does not play it.
    free: Held,
}

/// Where an event went.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Fed {
    /// To the seats that the device plays for.
    Played,
    /// The device is free, and nobody waits for one or the event was not meant.
    Free,
    /// The device was free and now plays for this seat; the press that did it is not played.
    Joined(usize),
}

impl Seats {
    /// The most players.
    pub const MAX: usize = 16;

    /// No player yet.
    pub fn new() -> Seats {
        Seats::default()
    }

    /// Adds a player; answers their number, or nothing when there are [`Seats::MAX`] already.
    pub fn add(&mut self, rig: Rig) -> Option<usize> {
        if self.seats.len() >= Self::MAX {
            return None;
        }
        self.seats.push(Seat::new(rig));
        Some(self.seats.len() - 1)
    }

    /// How many players there are.
    pub fn len(&self) -> usize {
        self.seats.len()
    }

    /// Whether there is no player.
    pub fn is_empty(&self) -> bool {
        self.seats.is_empty()
    }

    /// A player's seat.
    pub fn get(&self, seat: usize) -> Option<&Seat> {
        self.seats.get(seat)
    }

    /// A player's seat, to change its rig or situations.
    pub fn get_mut(&mut self, seat: usize) -> Option<&mut Seat> {
        self.seats.get_mut(seat)
    }

    /// Every seat, by number.
    pub fn iter(&self) -> impl ExactSizeIterator<Item = &Seat> {
        self.seats.iter()
    }

    /// Has a device play for exactly these seats. What it holds in seats it leaves is let go.
    pub fn give(&mut self, device: DeviceId, seats: &[usize]) {
        // What was fed before is played as it was then.
        self.seats.iter_mut().for_each(Seat::judge_fed);
        let known = seats.iter().filter(|s| **s < self.seats.len());
        let mask = known.fold(0_u16, |mask, s| mask | 1 << s);
        let before = self.mask(device);
        let now = self
            .seats
            .iter()
            .map(|s| s.state.now)
            .max()
            .unwrap_or(Time::ZERO);
        // The book that has followed the device so far.
        let book = bits(before)
            .next()
            .map_or(&self.free, |s| self.seats[s].held());
        let held = book.device(device);
        for seat in bits(before & !mask) {
            self.seats[seat].feed(&Event {
                at: now,
                device,
                what: EventKind::Unplugged,
            });
            self.seats[seat].judge_fed();
        }
        if let Some(held) = held {
            for seat in bits(mask & !before) {
                self.seats[seat].state.held.join(device, &held);
                self.seats[seat].note_away();
            }
            match (before, mask) {
                (0, 0) => {}
                (_, 0) => self.free.join(device, &held),
                (0, _) => self.free.unplug(device),
                _ => {}
            }
        }
        self.owners.retain(|(d, _)| *d != device);
        if mask != 0 {
            self.owners.push((device, mask));
        }
    }

    /// Frees a device for others.
    pub fn release(&mut self, device: DeviceId) {
        self.give(device, &[]);
    }

    /// The seats that a device plays for.
    pub fn seats_of(&self, device: DeviceId) -> impl Iterator<Item = usize> + use<> {
        bits(self.mask(device))
    }

    /// Has the next free device on which something is pressed join a seat.
    pub fn wait_for_device(&mut self, seat: usize) {
        if seat < self.seats.len() && !self.waiting.contains(&seat) {
            self.waiting.push(seat);
        }
    }

    /// Takes an event in, for whomever its device plays for; one of [`DeviceId::ALL`] is for
    /// everyone.
    pub fn feed(&mut self, event: &Event) -> Fed {
        if event.device == DeviceId::ALL {
            self.seats.iter_mut().for_each(|seat| seat.feed(event));
            self.free.feed(event);
            return Fed::Played;
        }
        let mask = self.mask(event.device);
        if mask != 0 {
            for seat in bits(mask) {
                self.seats[seat].feed(event);
            }
            return Fed::Played;
        }
        self.free.feed(event);
        if self.waiting.is_empty() || !is_press(&event.what) {
            return Fed::Free;
        }
        let seat = self.waiting.remove(0);
        self.give(event.device, &[seat]);
        Fed::Joined(seat)
    }

    /// Lets time go by for every seat, see [`Seat::advance`].
    pub fn advance(&mut self, to: Time) {
        self.seats.iter_mut().for_each(|seat| seat.advance(to));
    }

    /// Closes the frame of every seat.
    pub fn tick(&mut self, now: Time) {
        self.seats.iter_mut().for_each(|seat| seat.tick(now));
    }

    fn mask(&self, device: DeviceId) -> u16 {
        let found = self.owners.iter().find(|(d, _)| *d == device);
        found.map_or(0, |(_, mask)| *mask)
    }
}

fn bits(mask: u16) -> impl Iterator<Item = usize> {
    (0..Seats::MAX).filter(move |seat| mask & 1 << seat != 0)
}

/// Whether something was pressed on purpose; sticks and motion drift.
fn is_press(what: &EventKind) -> bool {
    match *what {
        EventKind::Key { down, .. }
        | EventKind::MouseButton { down, .. }
        | EventKind::HidButton { down, .. }
        | EventKind::HidHat { down, .. }
        | EventKind::Touch { down, .. } => down,
        EventKind::PadButton { value, .. } => value >= 0.5,
        _ => false,
    }
}
