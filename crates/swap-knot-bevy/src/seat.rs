//! A player as a component, and what is told of them.

use std::ops::{Deref, DerefMut};

use bevy_ecs::prelude::{Component, Entity, Message};
use swap_knot::{DeviceId, DeviceKind, Event, Happened, Row, RowRef, Seat, Sheet};

/// A player: their rig, devices and live values. Ask it in any system; it answers for the last
/// update.
#[derive(Clone, Debug, Component)]
pub struct PlayerSeat {
    seat: Seat,
    /// Which devices play for this seat.
    pub devices: PlayerDevices,
}

/// Which devices play for a seat.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub enum PlayerDevices {
    /// All of them: one player.
    #[default]
    All,
    /// Only these.
    Only(Vec<DeviceId>),
}

impl PlayerDevices {
    pub(crate) fn has(&self, device: DeviceId) -> bool {
        match self {
            PlayerDevices::All => true,
            PlayerDevices::Only(list) => list.contains(&device),
        }
    }
}

impl PlayerSeat {
    /// A player whom every device plays for.
    pub fn new(seat: Seat) -> PlayerSeat {
        PlayerSeat {
            seat,
            devices: PlayerDevices::All,
        }
    }

    /// A player with devices of their own.
    pub fn with_devices(seat: Seat, devices: impl IntoIterator<Item = DeviceId>) -> PlayerSeat {
        PlayerSeat {
            seat,
            devices: PlayerDevices::Only(devices.into_iter().collect()),
        }
    }
}

impl Deref for PlayerSeat {
    type Target = Seat;

    fn deref(&self) -> &Seat {
        &self.seat
    }
}

impl DerefMut for PlayerSeat {
    fn deref_mut(&mut self) -> &mut Seat {
        &mut self.seat
    }
}

/// An action of a player began or ended.
#[derive(Clone, Debug, Message)]
pub struct ActionHappened {
    /// The entity of the [`PlayerSeat`].
    pub player: Entity,
    /// What happened.
    pub what: Happened,
    pub(crate) sheet: Sheet,
}

impl ActionHappened {
    /// Whether it is about that action, or that arm of it.
    pub fn is(&self, row: impl Into<RowRef>) -> bool {
        let about = Row {
            action: self.what.action,
            arm: self.what.arm,
        };
        self.sheet.row_of(row) == Some(about)
    }
}

/// A player went over to another kind of device: show other prompts.
#[derive(Clone, Copy, Debug, PartialEq, Message)]
pub struct DeviceKindChanged {
    /// The entity of the [`PlayerSeat`].
    pub player: Entity,
    /// What they use now.
    pub kind: DeviceKind,
}

/// Every event as Swap Knot sees it, for listeners of a remap menu, learners and recorders; and
/// written by a game, it is played, which is how simulated devices come in.
#[derive(Clone, Copy, Debug, PartialEq, Message)]
pub struct InputEvent(pub Event);
