//! A player as a component, and what is told of them.

use std::ops::{Deref, DerefMut};
use std::time::Duration;

use bevy_ecs::prelude::{Component, Entity, Message};
#[cfg(feature = "reflect")]
use bevy_ecs::prelude::{ReflectComponent, ReflectMessage};
use swap_knot::input::KeyQuirks;
use swap_knot::play::{Happened, Pace, Reading};
use swap_knot::sheet::RowRef;
use swap_knot::{DeviceId, DeviceKind, Event, Row, Seat, Sheet, Time};

use crate::controls::UiTakes;

/// A player: their rig, devices and live values. Ask it in any system; it answers for the last
/// update.
#[derive(Clone, Debug, Component)]
#[cfg_attr(
    feature = "reflect",
    derive(bevy_reflect::Reflect),
    reflect(opaque, Component, Clone, Debug)
)]
pub struct PlayerSeat {
    seat: Seat,
    devices: PlayerDevices,
    overhears: bool,
    quirks: KeyQuirks,
    /// How Bevy's fixed step reads the seat.
    pub(crate) steps: Pace,
    /// The answers as of the last update, to see whether one changed.
    pub(crate) before: u64,
}

/// Which devices play for a seat.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[non_exhaustive]
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
            before: seat.fingerprint(),
            seat,
            devices: PlayerDevices::All,
            overhears: false,
            quirks: KeyQuirks::default(),
            steps: Pace::new(),
        }
    }

    /// A player with devices of their own.
    pub fn with_devices(seat: Seat, devices: impl IntoIterator<Item = DeviceId>) -> PlayerSeat {
        PlayerSeat {
            devices: PlayerDevices::Only(devices.into_iter().collect()),
            ..PlayerSeat::new(seat)
        }
    }

    /// The seat as the fixed step reads it that is running or ran last: every press in exactly one
    /// step. Wants the plugin `FixedSteps` (feature `time`); without it nothing ever happened.
    pub fn step(&self) -> Reading<'_> {
        self.steps.last(&self.seat)
    }

    #[cfg(feature = "time")]
    pub(crate) fn read_step(&mut self) {
        let _ = self.steps.read(&self.seat);
    }

    /// Whether a press came within the last so long that no fixed step has taken yet, see
    /// [`Pace::take_press`].
    pub fn take_press_in_step(&mut self, row: impl Into<RowRef>, within: Duration) -> bool {
        self.steps.take_press(&self.seat, row, within)
    }

    /// Whether a menu has this player's events, so that nothing of them is played.
    pub fn is_overhearing(&self) -> bool {
        self.overhears
    }

    /// Gives this player's events to a menu, or back to the game: what a menu hears is not played as
    /// well, see [`Seat::overhear`].
    pub fn set_overhearing(&mut self, overhears: bool) {
        self.overhears = overhears;
    }

    /// Takes an event in that is this player's, a menu's or the game's own user interface's.
    pub(crate) fn hear(&mut self, event: &Event, ui: UiTakes) {
        let mut quirks = std::mem::take(&mut self.quirks);
        let rig = self.seat.rig().clone();
        let overhears = self.overhears;
        let takes = |event: &Event| overhears || ui.takes(event);
        quirks.offer(event, rig.resolver(), takes, |event, waited| {
            self.take_in(event, waited.unwrap_or_else(|| takes(event)));
        });
        self.quirks = quirks;
    }

    /// Closes the frame: a key that waited to be told from what a system does was meant.
    pub(crate) fn close(&mut self, now: Time) {
        let mut quirks = std::mem::take(&mut self.quirks);
        quirks.settle(|event, taken| self.take_in(event, taken));
        self.quirks = quirks;
        self.seat.tick(now);
    }

    fn take_in(&mut self, event: &Event, taken: bool) {
        match taken {
            true => self.seat.overhear(event),
            false => self.seat.feed(event),
        }
    }

    /// Which devices play for this seat.
    pub fn devices(&self) -> &PlayerDevices {
        &self.devices
    }

    /// Has other devices play for this seat. What is held on one that leaves ends with the next
    /// update.
    pub fn set_devices(&mut self, devices: PlayerDevices) {
        self.seat.keep_devices(|device| devices.has(device));
        self.devices = devices;
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
#[cfg_attr(
    feature = "reflect",
    derive(bevy_reflect::Reflect),
    reflect(opaque, Message, Clone, Debug)
)]
#[non_exhaustive]
pub struct ActionHappened {
    /// The entity of the [`PlayerSeat`] or [`PlayerControls`](crate::PlayerControls).
    pub player: Entity,
    /// What happened.
    pub what: Happened,
    pub(crate) sheet: Sheet,
}

impl ActionHappened {
    pub(crate) fn of(player: Entity, what: Happened, seat: &Seat) -> ActionHappened {
        let sheet = seat.rig().sheet().clone();
        ActionHappened {
            player,
            what,
            sheet,
        }
    }

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
#[cfg_attr(
    feature = "reflect",
    derive(bevy_reflect::Reflect),
    reflect(opaque, Message, Clone, Debug, PartialEq)
)]
#[non_exhaustive]
pub struct DeviceKindChanged {
    /// The entity of the [`PlayerSeat`] or [`PlayerControls`](crate::PlayerControls).
    pub player: Entity,
    /// What they use now.
    pub kind: DeviceKind,
}

/// Every event as Swap Knot sees it, for listeners of a remap menu, learners and recorders; and
/// written by a game, it is played, which is how simulated devices come in.
#[derive(Clone, Copy, Debug, PartialEq, Message)]
#[cfg_attr(
    feature = "reflect",
    derive(bevy_reflect::Reflect),
    reflect(opaque, Message, Clone, Debug, PartialEq)
)]
pub struct SwapKnotEvent(pub Event);
