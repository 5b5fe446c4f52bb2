//! Controllers without a known mapping: taught by the player, kept, and pads from then on.

use std::collections::BTreeSet;

use super::{Controls, Report};
use crate::input::{DeviceId, Event, EventKind, Time, UsbId};
use crate::locker::Errand;
use crate::mapping::{Controller, Mapper, MappingLearner, Mappings, Taught};
use crate::screen::ControlsScreen;

/// A player's controllers, and what was taught of them.
#[derive(Debug, Default)]
pub(super) struct Controllers {
    pub(super) mapper: Mapper,
    /// The kinds that the player was told of, in play and on the screen.
    told: BTreeSet<Option<UsbId>>,
    asked: BTreeSet<Option<UsbId>>,
    /// Which state of the mapper the screen shows.
    shown: u32,
    /// The time of the last event or tick.
    now: Time,
}

impl Controllers {
    pub(super) const fn now(&self) -> Time {
        self.now
    }

    pub(super) fn show_on(&self, screen: &mut ControlsScreen) {
        let all = self.mapper.controllers().collect();
        screen.set_controllers(all, self.mapper.mappings());
    }

    /// The controller that an event presses something on, where nothing was taught of its kind.
    fn untaught(&self, event: &Event) -> Option<Controller> {
        let is_press = matches!(
            event.what,
            EventKind::HidButton { down: true, .. } | EventKind::HidHat { down: true, .. }
        );
        let kind = self.mapper.kind_of(event.device).filter(|_| is_press)?;
        let device = event.device;
        let is_pad = self.mapper.is_pad(device);
        let is_new = !is_pad && self.mapper.mappings().of(kind).is_none();
        is_new.then_some(Controller { device, kind })
    }
}

impl Controls {
    /// What was taught of controllers, as it is played with.
    pub fn mappings(&self) -> &Mappings {
        self.controllers.mapper.mappings()
    }

    /// Goes by other mappings from here on, without keeping them: those of another player at the same
    /// machine, or of a kiosk.
    pub fn set_mappings(&mut self, mappings: &Mappings) {
        let changed = self.controllers.mapper.set_mappings(mappings.clone());
        for device in changed {
            let off = self.break_off(device);
            if let Some(screen) = &mut self.screen {
                screen.overhear(&off);
            }
        }
        self.show_controllers();
    }

    /// Goes by what was taught of a kind of controller from here on, and keeps it beside the profiles;
    /// none forgets it. The controls screen does that by itself.
    ///
    /// ```
    /// use swap_knot::input::{HidButton, Mapping, PadSource, Taught};
    /// use swap_knot::{
    ///     Controls, DeviceId, Event, EventKind, Layout, PadButton, Profile, Sheet, Time,
    /// };
    ///
    /// let sheet = Sheet::from_toml("game = \"x\"\n[actions.horn]\nbind = \"pad:south\"")?;
    /// let mut controls = Controls::new(&sheet, Profile::default(), Layout::us());
    /// let button = HidButton::new(2).expect("from 1 on");
    /// let mut mapping = Mapping::new();
    /// mapping.set(PadButton::South.into(), PadSource::Button(button))?;
    /// let kind = "1209:5a03".parse().ok();
    /// controls.teach(kind, Some(Taught::Pad(mapping)));
    ///
    /// let mut device = |what| controls.feed(&Event { at: Time::ZERO, device: DeviceId(3), what });
    /// device(EventKind::Plugged { usb: kind });
    /// device(EventKind::HidButton { button, down: true });
    /// controls.tick(Time::from_millis(16));
    /// assert!(controls.seat().went_down(sheet.find("horn").expect("it is declared")));
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn teach(&mut self, kind: Option<UsbId>, taught: Option<Taught>) {
        let mut mappings = self.mappings().clone();
        mappings.set(kind, taught.clone());
        self.set_mappings(&mappings);
        self.send(match taught {
            None => Errand::Forget(kind),
            Some(taught) => {
                let mut one = Mappings::new();
                one.set(kind, Some(taught));
                Errand::Teach(one)
            }
        });
    }

    /// The controllers that were worked and are no pads by themselves; those that were taught to be one
    /// among them.
    pub fn controllers(&self) -> impl Iterator<Item = Controller> {
        self.controllers.mapper.controllers()
    }

    /// Begins to learn the mapping of a controller: for a screen of the game's own. Have it hear that
    /// device's events before [`Controls::feed`] does, and hand what it learned to
    /// [`Controls::teach`].
    pub fn learner(&self, device: DeviceId) -> MappingLearner {
        MappingLearner::new(device, &self.controllers.mapper)
    }

    pub(super) fn show_controllers(&mut self) {
        if let Some(screen) = &mut self.screen {
            self.controllers.shown = self.controllers.mapper.changes();
            self.controllers.show_on(screen);
        }
    }

    /// Shows controllers that came, went, or were used for the first time.
    pub(super) fn follow_controllers(&mut self) {
        if self.controllers.shown != self.controllers.mapper.changes() {
            self.show_controllers();
        }
    }

    /// Goes by something else for one kind, without keeping it; answers what that breaks off.
    pub(super) fn map(&mut self, kind: Option<UsbId>, taught: Option<Taught>) -> Vec<Event> {
        let mut mappings = self.mappings().clone();
        mappings.set(kind, taught);
        let changed = self.controllers.mapper.set_mappings(mappings);
        changed.into_iter().map(|d| self.break_off(d)).collect()
    }

    /// What a device holds is broken off in the game: nobody tells of it any more. Answers the event
    /// that says so.
    pub(super) fn break_off(&mut self, device: DeviceId) -> Event {
        let (at, what) = (self.controllers.now, EventKind::Unplugged);
        let off = Event { at, device, what };
        self.seat.feed(&off);
        off
    }

    /// Notes the time.
    pub(super) fn set_now(&mut self, now: Time) {
        self.controllers.now = self.controllers.now.max(now);
    }

    /// Whether an event teaches a mapping on the screen: it is played by nobody then.
    pub(super) fn is_taught_by(&mut self, event: &Event) -> bool {
        self.set_now(event.at);
        let Some(screen) = &mut self.screen else {
            return false;
        };
        if screen.teaches() != Some(event.device) {
            return false;
        }
        self.controllers.mapper.overhear(event);
        screen.event(event);
        self.carry_out();
        true
    }

    /// Tells of a controller of which nothing was taught, when it is first used; whether the screen asks
    /// about it, so that the press works nothing there.
    pub(super) fn offers_teaching(&mut self, event: &Event) -> bool {
        let Some(controller) = self.controllers.untaught(event) else {
            return false;
        };
        let Some(screen) = &mut self.screen else {
            if self.controllers.told.insert(controller.kind) {
                self.reports.push(Report::Untaught(controller));
            }
            return false;
        };
        if self.controllers.asked.contains(&controller.kind) || !screen.offer_teaching(controller) {
            return false;
        }
        self.controllers.asked.insert(controller.kind);
        self.controllers.told.insert(controller.kind);
        self.controllers.mapper.overhear(event);
        self.controllers.show_on(screen);
        // It is held, and works nothing: neither here nor there.
        screen.overhear(event);
        self.seat.overhear(event);
        true
    }
}
