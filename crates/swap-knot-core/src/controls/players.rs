//! Several players on one machine, each with all that is theirs.

use super::Controls;
use crate::input::{DeviceId, DeviceKind, Event, EventKind, Input, Time, UsbId};
use crate::mapping::{Mapper, Mappings};
use crate::screen::{SharedDevice, Sharing};
use crate::seat::{Fed, Owners, Seat, Sits};

/// The players on one machine, each with their [`Controls`] and devices.
///
/// A device plays for the players it was given to: one, or several for two halves of one keyboard. It is
/// remembered while it is unplugged, so that it comes back to its player. On each player's controls
/// screen it says who plays with what, and players hand devices to each other there. What one of them
/// teaches of a controller holds for all.
///
/// Where only seats are wanted, without profiles and screens, there is [`Seats`](crate::Seats), which goes
/// by the same rules.
///
/// ```
/// use swap_knot::play::Fed;
/// use swap_knot::{
///     Controls, DeviceId, Event, EventKind, Layout, PadButton, Players, Profile, Sheet, Time,
/// };
///
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"pad:north\"")?;
/// let player = |name: &str| Controls::new(&sheet, Profile::new(name), Layout::us());
/// let mut players = Players::new();
/// let ada = players.add(player("Ada")).expect("there is room");
/// let björn = players.add(player("Björn")).expect("there is room");
/// players.give(DeviceId(7), &[ada]);
/// players.wait_for_device(björn); // "press any button to join"
///
/// let (at, button) = (Time::ZERO, PadButton::South);
/// let what = EventKind::PadButton { button, value: 1.0 };
/// assert_eq!(players.feed(&Event { at, device: DeviceId(8), what }), Fed::Joined(björn));
/// players.tick(Time::from_millis(16));
/// assert!(players.devices_of(ada).eq([DeviceId(7)]));
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Debug, Default)]
pub struct Players {
    all: Vec<Controls>,
    owners: Owners,
    seen: Vec<Seen>,
    /// Makes pads of free controllers that were taught: what joins is what they are. It follows all others
    /// too, so that whoever gets one knows what is down on it; and it has the mappings that all go by.
    mapper: Mapper,
}

/// A device that was heard of.
#[derive(Clone, Copy, Debug)]
struct Seen {
    device: DeviceId,
    usb: Option<UsbId>,
    kind: Option<DeviceKind>,
    is_there: bool,
}

impl Sits for Controls {
    fn seat(&self) -> &Seat {
        &self.seat
    }

    fn seat_mut(&mut self) -> &mut Seat {
        &mut self.seat
    }

    fn lose(&mut self, device: DeviceId, now: Time) {
        let what = EventKind::Unplugged;
        let off = Event {
            at: now,
            device,
            what,
        };
        Sits::lose(&mut self.seat, device, now);
        // It was given away, not lost: nobody is told to plug it in again.
        self.forget_device(device);
        self.controllers.mapper.overhear(&off);
        if let Some(screen) = &mut self.screen {
            screen.overhear(&off);
        }
    }
}

impl Players {
    /// The most players.
    pub const MAX: usize = Owners::MAX;

    /// No player yet.
    pub fn new() -> Players {
        Players::default()
    }

    /// Adds a player; answers their number, or nothing when there are [`Players::MAX`] already.
    pub fn add(&mut self, mut controls: Controls) -> Option<usize> {
        if self.all.len() >= Self::MAX {
            return None;
        }
        match self.all.is_empty() {
            true => self.go_by(controls.mappings().clone()),
            false => controls.set_mappings(self.mapper.mappings()),
        }
        self.all.push(controls);
        Some(self.all.len() - 1)
    }

    /// How many players there are.
    pub fn len(&self) -> usize {
        self.all.len()
    }

    /// Whether there is no player.
    pub fn is_empty(&self) -> bool {
        self.all.is_empty()
    }

    /// What is a player's.
    pub fn get(&self, player: usize) -> Option<&Controls> {
        self.all.get(player)
    }

    /// The same to ask for prompts and reports, to open the screen, to save.
    pub fn get_mut(&mut self, player: usize) -> Option<&mut Controls> {
        self.all.get_mut(player)
    }

    /// Every player, by number.
    pub fn iter(&self) -> impl ExactSizeIterator<Item = &Controls> {
        self.all.iter()
    }

    /// The same to change something of each.
    pub fn iter_mut(&mut self) -> impl ExactSizeIterator<Item = &mut Controls> {
        self.all.iter_mut()
    }

    /// Has a device play for exactly these players. What it holds for those it leaves is let go, and what
    /// is held on it counts for the others once it has been at rest.
    pub fn give(&mut self, device: DeviceId, players: &[usize]) {
        let before: Vec<usize> = self.owners.of(device).collect();
        self.owners.give(&mut self.all, device, players);
        let usb = self.seen(device).filter(|s| s.is_there).map(|s| s.usb);
        let now: Vec<usize> = self.owners.of(device).collect();
        for player in now.into_iter().filter(|p| !before.contains(p)) {
            // It says what it is to whom it plays for now.
            if let Some(usb) = usb {
                self.all[player].meet_device(device, usb, &self.mapper);
            }
        }
        self.show();
    }

    /// Frees a device for others.
    pub fn release(&mut self, device: DeviceId) {
        self.give(device, &[]);
    }

    /// The players that a device plays for.
    pub fn players_of(&self, device: DeviceId) -> impl Iterator<Item = usize> + use<> {
        self.owners.of(device)
    }

    /// The devices that play for a player, in the order in which they came, unplugged ones included: they
    /// come back to them.
    pub fn devices_of(&self, player: usize) -> impl Iterator<Item = DeviceId> + '_ {
        self.owners.devices_of(player)
    }

    /// Has the next free device on which something is pressed join a player.
    pub fn wait_for_device(&mut self, player: usize) {
        self.wait_for(player, &[]);
    }

    /// Has the next free device on which one of these inputs is pressed join a player; of none given any
    /// will do. One who waits already waits for these from now on.
    pub fn wait_for(&mut self, player: usize, inputs: &[Input]) {
        if player < self.all.len() {
            self.owners.wait_for(player, inputs);
        }
    }

    /// Whether a player waits for a device.
    pub fn is_waiting(&self, player: usize) -> bool {
        self.owners.is_waiting(player)
    }

    /// Has a player wait for no device any more: they backed out of joining.
    pub fn stop_waiting(&mut self, player: usize) {
        self.owners.stop_waiting(player);
    }

    /// A player leaves: their devices are free for others, as far as nobody shares them. Answers those.
    /// What is theirs stays, for when they join again.
    pub fn leave(&mut self, player: usize) -> Vec<DeviceId> {
        let free = self.owners.leave(&mut self.all, player);
        self.show();
        free
    }

    /// Takes an event in, for whomever its device plays for; one of [`DeviceId::ALL`] is for everyone.
    /// Other than [`Controls::feed`] it may hand devices over, as players have chosen.
    pub fn feed(&mut self, event: &Event) -> Fed {
        self.hand_over();
        self.note(event);
        let fed = self.distribute(event);
        self.hand_over();
        fed
    }

    fn distribute(&mut self, event: &Event) -> Fed {
        if event.device == DeviceId::ALL {
            self.all.iter_mut().for_each(|player| player.feed(event));
            self.owners.hear_all(event);
            return Fed::Played;
        }
        if self.owners.mask(event.device) != 0 {
            for player in self.owners.of(event.device) {
                self.all[player].feed(event);
            }
            return Fed::Played;
        }
        let mut joins = None;
        let owners = &mut self.owners;
        self.mapper.event(event, |event| {
            joins = joins.or_else(|| owners.hear_free(event));
        });
        let Some(player) = joins else {
            return Fed::Free;
        };
        self.give(event.device, &[player]);
        Fed::Joined(player)
    }

    /// Closes a frame of the picture for everyone.
    pub fn tick(&mut self, now: Time) {
        self.all.iter_mut().for_each(|player| player.tick(now));
        self.hand_over();
        self.share_mappings();
        self.show();
    }

    /// Lets time go by for everyone, see [`Controls::advance`].
    pub fn advance(&mut self, to: Time) {
        self.all.iter_mut().for_each(|player| player.advance(to));
    }

    /// What players chose on their screens.
    fn hand_over(&mut self) {
        for player in 0..self.all.len() {
            for (device, to) in self.all[player].take_handovers() {
                self.give(device, &to);
            }
        }
    }

    fn share_mappings(&mut self) {
        let news = self.all.iter().map(Controls::mappings);
        let Some(news) = news
            .into_iter()
            .find(|m| *m != self.mapper.mappings())
            .cloned()
        else {
            return;
        };
        for player in self.all.iter_mut().filter(|p| *p.mappings() != news) {
            player.set_mappings(&news);
        }
        self.go_by(news);
    }

    fn go_by(&mut self, mappings: Mappings) {
        // What free controllers hold was never played.
        let _ = self.mapper.set_mappings(mappings);
    }

    fn seen(&self, device: DeviceId) -> Option<Seen> {
        self.seen.iter().find(|s| s.device == device).copied()
    }

    /// Notes what devices there are.
    fn note(&mut self, event: &Event) {
        let device = event.device;
        if device == DeviceId::ALL {
            if event.what == EventKind::Unplugged {
                self.seen.iter_mut().for_each(|s| s.is_there = false);
            }
            return;
        }
        if self.owners.mask(device) != 0 {
            self.mapper.event(event, |_| {});
        }
        let at = self.seen.iter().position(|s| s.device == device);
        let at = at.unwrap_or_else(|| {
            let (usb, kind, is_there) = (None, None, true);
            self.seen.push(Seen {
                device,
                usb,
                kind,
                is_there,
            });
            self.seen.len() - 1
        });
        let seen = &mut self.seen[at];
        match event.what {
            EventKind::Plugged { usb } => (seen.usb, seen.is_there) = (usb, true),
            EventKind::Unplugged => seen.is_there = false,
            what => {
                seen.is_there = true;
                seen.kind = seen.kind.or(what.device_kind());
            }
        }
    }

    /// Tells the screens that are open who plays with what.
    fn show(&mut self) {
        if self.all.iter().all(|p| p.screen().is_none()) {
            return;
        }
        let titles = self.all.iter().map(|p| p.profile().title().to_owned());
        let players: Vec<String> = titles.collect();
        let device = |seen: &Seen| {
            let plays_for: Vec<usize> = self.owners.of(seen.device).collect();
            let book = plays_for.first().map(|p| self.all[*p].seat().held());
            let book = book.unwrap_or(self.owners.free());
            Some(SharedDevice {
                device: seen.device,
                kind: seen.kind?,
                usb: seen.usb,
                is_there: seen.is_there,
                is_worked: book.is_device_worked(seen.device),
                plays_for,
            })
        };
        let devices: Vec<SharedDevice> = self.seen.iter().filter_map(device).collect();
        for (me, player) in self.all.iter_mut().enumerate() {
            if let Some(screen) = player.screen_mut() {
                screen.set_sharing(Sharing {
                    me,
                    players: players.clone(),
                    devices: devices.clone(),
                });
            }
        }
    }
}
