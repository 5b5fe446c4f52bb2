//! Which devices a player has, and whose marks the pad in hand bears.

use super::{Controls, Report};
use crate::input::{DeviceId, DeviceKind, Event, EventKind, UsbId};
use crate::mapping::Mapper;
use crate::words::{Marks, Words};

/// What is known of a player's devices.
#[derive(Debug, Default)]
pub(super) struct Devices {
    marks: Option<Marks>,
    /// What is plugged in and said so, the last one last.
    plugged: Vec<(DeviceId, Option<UsbId>)>,
    /// What was in use and is unplugged, and whether that was told: not where it comes back at once,
    /// as when nobody listened for a while.
    lost: Vec<(DeviceId, DeviceKind, bool)>,
    /// The words with the marks of each family that was in hand.
    made: Vec<(Option<String>, Words)>,
}

impl Devices {
    pub(super) const fn has_marks(&self) -> bool {
        self.marks.is_some()
    }

    fn usb_of(&self, device: DeviceId) -> Option<UsbId> {
        let mut all = self.plugged.iter();
        all.find(|(d, _)| *d == device).and_then(|(_, usb)| *usb)
    }
}

impl Controls {
    /// What the families of pads print on their buttons. From here on every prompt, the screen and
    /// whatever else is told calls a pad's inputs by the marks of the pad that was last pressed on
    /// purpose, or of the family that the player chose.
    ///
    /// A pad says what it is by [`EventKind::Plugged`], which the adapters send.
    ///
    /// ```
    /// use swap_knot::prompt::Marks;
    /// use swap_knot::{
    ///     Controls, DeviceId, Event, EventKind, Layout, PadButton, Profile, Sheet, Time,
    /// };
    ///
    /// let sheet = Sheet::from_toml("game = \"x\"\n[actions.horn]\nbind = \"pad:south\"")?;
    /// let marks = Marks::from_toml("format = 1\n[families.quayside]\nusb = [\"1209:*\"]\n\
    ///     marks = { \"pad:south\" = \"K\" }", "marks.toml")?;
    /// let mut controls = Controls::new(&sheet, Profile::default(), Layout::us());
    /// controls.set_marks(&marks);
    /// let mut pad = |what| controls.feed(&Event { at: Time::ZERO, device: DeviceId(3), what });
    /// pad(EventKind::Plugged { usb: "1209:5a01".parse().ok() });
    /// pad(EventKind::PadButton { button: PadButton::South, value: 1.0 });
    /// controls.tick(Time::from_millis(16));
    /// assert_eq!(controls.prompt("{do:horn}")?.to_string(), "Press K");
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn set_marks(&mut self, marks: &Marks) {
        self.devices.marks = Some(marks.clone());
        self.devices.made.clear();
        self.wear(self.words.without_marks().clone());
    }

    /// The family whose marks are told, by name: the one that the player chose, or that of the pad
    /// last pressed on purpose. None where nothing is known of it.
    pub fn family(&self) -> Option<&str> {
        self.words.family()
    }

    /// The devices that said that they are plugged in, and by which numbers; the last one last.
    pub fn devices(&self) -> impl Iterator<Item = (DeviceId, Option<UsbId>)> {
        self.devices.plugged.iter().copied()
    }

    /// What was chosen on the controls screen since this was asked last: which device is to play for which
    /// players, by number. [`Players`](crate::Players) does it by itself; it is for games that say who
    /// plays with what by [`ControlsScreen::set_sharing`](crate::screen::ControlsScreen::set_sharing).
    pub fn take_handovers(&mut self) -> Vec<(DeviceId, Vec<usize>)> {
        std::mem::take(&mut self.handovers)
    }

    /// A device plays for this player from here on, and was plugged in before.
    pub(super) fn meet_device(
        &mut self,
        device: DeviceId,
        usb: Option<UsbId>,
        followed_by: &Mapper,
    ) {
        let (at, what) = (self.controllers.now(), EventKind::Plugged { usb });
        let event = Event { at, device, what };
        self.hear_of_device(&event);
        self.controllers.mapper.take_over(followed_by, device);
        self.follow_marks();
    }

    /// A device plays for this player no longer, wherever it is.
    pub(super) fn forget_device(&mut self, device: DeviceId) {
        self.devices.plugged.retain(|(d, _)| *d != device);
        self.devices.lost.retain(|(d, ..)| *d != device);
        self.follow_marks();
    }

    /// Whether a device says what it is, comes or goes: that is noted, and told where it matters.
    pub(super) fn hear_of_device(&mut self, event: &Event) {
        let device = event.device;
        match event.what {
            EventKind::Plugged { usb } => {
                self.devices.plugged.retain(|(d, _)| *d != device);
                self.devices.plugged.push((device, usb));
                let lost = self.devices.lost.iter().position(|(d, ..)| *d == device);
                let lost = lost.map(|at| self.devices.lost.remove(at));
                if let Some((_, kind, true)) = lost {
                    self.reports.push(Report::PluggedAgain(kind));
                }
            }
            EventKind::Unplugged => {
                let gone = |d: DeviceId| device == DeviceId::ALL || d == device;
                self.devices.plugged.retain(|(d, _)| !gone(*d));
                for kind in DeviceKind::ALL {
                    let used = self.seat.last_used(kind);
                    if let Some(used) = used.filter(|u| gone(u.device)) {
                        self.devices.lost.retain(|(d, ..)| *d != used.device);
                        self.devices.lost.push((used.device, kind, false));
                    }
                }
            }
            _ => {}
        }
    }

    /// Tells of devices that did not come back at once.
    pub(super) fn report_lost(&mut self) {
        for (_, kind, told) in &mut self.devices.lost {
            if !std::mem::replace(told, true) {
                self.reports.push(Report::Unplugged(*kind));
            }
        }
    }

    /// Tells everything by the marks of the pad in hand.
    pub(super) fn follow_marks(&mut self) {
        let Some(marks) = &self.devices.marks else {
            return;
        };
        let found = family_found(marks, &self.devices, &self.seat);
        if let Some(screen) = &mut self.screen {
            screen.find_family(found);
        }
        if marks.in_force(self.profile.family(), found) != self.words.family() {
            self.wear(self.words.without_marks().clone());
        }
    }

    /// Tells everything with these words and the marks of the pad in hand.
    pub(super) fn wear(&mut self, plain: Words) {
        let Some(marks) = self.devices.marks.clone() else {
            self.change_words(plain);
            return;
        };
        let found = family_found(&marks, &self.devices, &self.seat);
        let family = marks.in_force(self.profile.family(), found);
        let family = family.map(str::to_owned);
        // What was made for another language is not asked for again soon.
        let made = &mut self.devices.made;
        made.retain(|(_, words)| *words.without_marks() == plain);
        let words = match made.iter().find(|(f, _)| *f == family) {
            Some((_, words)) => words.clone(),
            None => {
                let words = plain.with_marks(&marks, family.as_deref());
                made.push((family, words.clone()));
                words
            }
        };
        self.change_words(words);
    }
}

/// The family of the pad that was last pressed on purpose; before any was, of the one that was
/// plugged in last.
fn family_found<'m>(
    marks: &'m Marks,
    devices: &Devices,
    seat: &crate::seat::Seat,
) -> Option<&'m str> {
    let family = |usb: Option<UsbId>| marks.family_of(usb?).map(crate::words::Family::name);
    match seat.last_used(DeviceKind::Gamepad) {
        Some(used) => family(devices.usb_of(used.device)),
        None => devices
            .plugged
            .iter()
            .rev()
            .find_map(|(_, usb)| family(*usb)),
    }
}
