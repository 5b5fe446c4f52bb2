//! Several players on one machine: which device plays for whom.

use super::Seat;
use super::owners::Owners;
use crate::input::{DeviceId, Event, Input, Time};
use crate::rig::Rig;

/// The players on one machine, each with their own rig and devices.
///
/// A device plays for the seats it was given to: one, or several for two halves of one keyboard.
/// It is remembered while it is unplugged, so that it comes back to its seat. Two characters can
/// read one seat; ask the same [`Seat`] for both.
///
/// ```
/// use swap_knot::play::Fed;
/// use swap_knot::{
///     DeviceId, Event, EventKind, Layout, PadButton, Profile, Rig, Seats, Sheet, Time,
/// };
///
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"pad:north\"")?;
/// let rig = Rig::new(&sheet, &Profile::default(), Layout::us());
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
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Clone, Debug, Default)]
pub struct Seats {
    seats: Vec<Seat>,
    owners: Owners,
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
    pub const MAX: usize = Owners::MAX;

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
        self.owners.give(&mut self.seats, device, seats);
    }

    /// Frees a device for others.
    pub fn release(&mut self, device: DeviceId) {
        self.give(device, &[]);
    }

    /// The seats that a device plays for.
    pub fn seats_of(&self, device: DeviceId) -> impl Iterator<Item = usize> + use<> {
        self.owners.of(device)
    }

    /// The devices that play for a seat, in the order in which they came, unplugged ones included:
    /// they come back to it.
    pub fn devices_of(&self, seat: usize) -> impl Iterator<Item = DeviceId> + '_ {
        self.owners.devices_of(seat)
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
            self.owners.wait_for(seat, inputs);
        }
    }

    /// Whether a seat waits for a device.
    pub fn is_waiting(&self, seat: usize) -> bool {
        self.owners.is_waiting(seat)
    }

    /// Has a seat wait for no device any more: a player backed out of joining.
    pub fn stop_waiting(&mut self, seat: usize) {
        self.owners.stop_waiting(seat);
    }

    /// A player leaves: their devices are free for others, as far as nobody shares them, and what
    /// they held ends ([`Cause::Unplugged`](super::Cause::Unplugged)). Answers the devices that are
    /// free now. The seat stays, with its rig and situations, for whoever joins it next.
    pub fn leave(&mut self, seat: usize) -> Vec<DeviceId> {
        self.owners.leave(&mut self.seats, seat)
    }

    /// Takes an event in, for whomever its device plays for; one of [`DeviceId::ALL`] is for
    /// everyone.
    pub fn feed(&mut self, event: &Event) -> Fed {
        if event.device == DeviceId::ALL {
            self.seats.iter_mut().for_each(|seat| seat.feed(event));
            self.owners.hear_all(event);
            return Fed::Played;
        }
        if self.owners.mask(event.device) != 0 {
            for seat in self.owners.of(event.device) {
                self.seats[seat].feed(event);
            }
            return Fed::Played;
        }
        let Some(seat) = self.owners.hear_free(event) else {
            return Fed::Free;
        };
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
}
