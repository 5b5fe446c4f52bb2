//! Several players on one machine: which device plays for whom.

use super::Seat;
use crate::input::{Change, DeviceId, Event, EventKind, Held, Input, Time, clash};
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
    /// Seats that wait for a device to join, first come first served, and by what it joins.
    waiting: Vec<(usize, Vec<Input>)>,
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

    /// The devices that play for a seat, in the order in which they came, unplugged ones included:
    /// they come back to it.
    pub fn devices_of(&self, seat: usize) -> impl Iterator<Item = DeviceId> + '_ {
        let plays = move |mask: u16| seat < Self::MAX && mask & 1 << seat != 0;
        let owners = self.owners.iter();
        owners.filter_map(move |(device, mask)| plays(*mask).then_some(*device))
    }

    /// Has the next free device on which something is pressed join a seat.
    pub fn wait_for_device(&mut self, seat: usize) {
        self.wait_for(seat, &[]);
    }

    /// Has the next free device on which one of these inputs is pressed join a seat ("press Enter or
    /// the lower button to join"); of none given any will do. Inputs are places here: a letter lies
    /// nowhere without a layout. A seat that waits already waits for these from now on.
    pub fn wait_for(&mut self, seat: usize, inputs: &[Input]) {
        if seat < self.seats.len() {
            let waits = self.waiting.iter_mut().find(|(s, _)| *s == seat);
            match waits {
                Some((_, by)) => *by = inputs.to_vec(),
                None => self.waiting.push((seat, inputs.to_vec())),
            }
        }
    }

    /// Whether a seat waits for a device.
    pub fn is_waiting(&self, seat: usize) -> bool {
        self.waiting.iter().any(|(s, _)| *s == seat)
    }

    /// Has a seat wait for no device any more: a player backed out of joining.
    pub fn stop_waiting(&mut self, seat: usize) {
        self.waiting.retain(|(s, _)| *s != seat);
    }

    /// A player leaves: their devices are free for others, as far as nobody shares them, and what
    /// they held ends ([`Cause::Unplugged`](super::Cause::Unplugged)). Answers the devices that are
    /// free now. The seat stays, with its rig and situations, for whoever joins it next.
    pub fn leave(&mut self, seat: usize) -> Vec<DeviceId> {
        self.stop_waiting(seat);
        let theirs: Vec<DeviceId> = self.devices_of(seat).collect();
        for &device in &theirs {
            let others: Vec<usize> = self.seats_of(device).filter(|s| *s != seat).collect();
            self.give(device, &others);
        }
        let free = theirs.into_iter().filter(|d| self.mask(*d) == 0);
        free.collect()
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
        let mut pressed = Vec::new();
        self.free.follow(event, |control, change| {
            if matches!(change, Change::Down { .. }) {
                pressed.extend(control.input());
            }
        });
        if let EventKind::Touch { name, down: true } = event.what {
            pressed.push(Input::Touch(name));
        }
        if self.waiting.is_empty() || !is_press(&event.what) {
            return Fed::Free;
        }
        let joins = |by: &[Input]| {
            by.is_empty() || by.iter().any(|i| pressed.iter().any(|p| clash(*i, *p)))
        };
        let Some(at) = self.waiting.iter().position(|(_, by)| joins(by)) else {
            return Fed::Free;
        };
        let (seat, _) = self.waiting.remove(at);
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
