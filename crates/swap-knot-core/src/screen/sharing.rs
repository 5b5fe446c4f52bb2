//! Who plays with what, where several play on one machine.

use super::answer::Picking;
use super::{ControlsScreen, Dialog, Item, Role, RowView, ScreenWish, Section, Spot};
use crate::input::{DeviceId, DeviceKind, UsbId};

/// The players on one machine and their devices, for the screen of one of them.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[non_exhaustive]
pub struct Sharing {
    /// Whose screen it is, by number.
    pub me: usize,
    /// What each player is called; empty for one without a name.
    pub players: Vec<String>,
    /// The devices that were heard of, in the order in which they came.
    pub devices: Vec<SharedDevice>,
}

/// A device that plays for somebody, or for nobody yet.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct SharedDevice {
    /// Which.
    pub device: DeviceId,
    /// What kind of device it is.
    pub kind: DeviceKind,
    /// Who made it, where the system says so.
    pub usb: Option<UsbId>,
    /// Whether it is plugged in.
    pub is_there: bool,
    /// Whether something is down on it right now.
    pub is_worked: bool,
    /// The players that it plays for, by number.
    pub plays_for: Vec<usize>,
}

impl ControlsScreen {
    /// Who plays with what: shown where there are several players. [`Players`](crate::Players) tells it.
    pub fn set_sharing(&mut self, sharing: Sharing) {
        if self.sharing != sharing {
            self.sharing = sharing;
            self.stale = true;
        }
    }

    pub(super) fn view_sharing(&self) -> Option<Section> {
        let Sharing {
            players, devices, ..
        } = &self.sharing;
        if players.len() < 2 || devices.is_empty() {
            return None;
        }
        let rows = devices.iter().map(|device| {
            let title = self.device_title(device);
            let names = device.plays_for.iter().map(|p| self.player_name(*p));
            let names: Vec<String> = names.collect();
            let label = match names.is_empty() {
                true => self.text("device-nobody"),
                false => self.listed(names),
            };
            let mut item = self.item(Spot::Device(device.device), label, Role::Choice);
            let values = [("title", &*title), ("setting", &item.label)];
            item.spoken = self.draft.words().say("setting-of", &values);
            RowView {
                title,
                items: vec![item],
                lit: device.is_worked,
                text: (!device.is_there).then(|| self.text("controller-gone")),
                ..RowView::default()
            }
        });
        Some(Section {
            title: self.text("section-devices"),
            text: Some(self.text("devices-text")),
            rows: rows.collect(),
        })
    }

    /// What a device is called: its kind, with a number where there are several, and the family of a pad.
    fn device_title(&self, device: &SharedDevice) -> String {
        let words = self.draft.words();
        let kind = words.capital(&words.device_name(device.kind), false);
        let alike = self.sharing.devices.iter();
        let alike: Vec<&SharedDevice> = alike.filter(|d| d.kind == device.kind).collect();
        let mut title = kind;
        if alike.len() > 1 {
            let at = alike.iter().position(|d| d.device == device.device);
            let number = (at.unwrap_or_default() + 1).to_string();
            let values = [("device", &*title), ("number", &number)];
            title = words.say("device-numbered", &values);
        }
        let family = device.usb.and_then(|usb| words.marks()?.family_of(usb));
        match family {
            Some(family) => {
                let family = words.untranslated(words.family_title(family.name()));
                let values = [("title", &*title), ("setting", &family)];
                words.say("setting-of", &values)
            }
            None => title,
        }
    }

    fn player_name(&self, player: usize) -> String {
        let words = self.draft.words();
        match self.sharing.players.get(player) {
            Some(name) if !name.is_empty() => {
                let shown = words.typed(name);
                // Two of one name are told apart by who of them came first.
                let players = &self.sharing.players;
                let same = |until: usize| players[..until].iter().filter(|n| *n == name).count();
                if same(players.len()) == 1 {
                    return shown;
                }
                let number = (same(player) + 1).to_string();
                words.say(
                    "device-numbered",
                    &[("device", &shown), ("number", &number)],
                )
            }
            _ => {
                let number = (player + 1).to_string();
                words.say("player-numbered", &[("number", &number)])
            }
        }
    }

    pub(super) fn ask_whose(&mut self, device: DeviceId) {
        self.ask(Picking::Whose(device));
    }

    /// The players that a device can be given to: each, all of them where it is a keyboard, or nobody.
    fn takers(&self, device: DeviceId) -> Vec<Vec<usize>> {
        let all: Vec<usize> = (0..self.sharing.players.len()).collect();
        let found = self.sharing.devices.iter().find(|d| d.device == device);
        let mut takers: Vec<Vec<usize>> = all.iter().map(|p| vec![*p]).collect();
        if found.is_some_and(|d| d.kind == DeviceKind::Keyboard) {
            takers.push(all);
        }
        takers.push(Vec::new());
        takers
    }

    /// Whether this player has another device that is there.
    fn has_another(&self, device: DeviceId) -> bool {
        let me = self.sharing.me;
        let mut own = self.sharing.devices.iter();
        own.any(|d| d.device != device && d.is_there && d.plays_for.contains(&me))
    }

    pub(super) fn view_whose(&self, device: DeviceId, dialog: &mut Dialog) -> Vec<Item> {
        dialog.title = self.text("whose-title");
        let found = self.sharing.devices.iter().find(|d| d.device == device);
        let Some(found) = found else {
            return vec![self.button(0, self.text("menu-cancel-button"))];
        };
        dialog.text = vec![self.device_title(found)];
        let me = self.sharing.me;
        let is_mine = found.plays_for.contains(&me);
        let takers = self.takers(device).into_iter().enumerate();
        let answer = |(n, takers): (usize, Vec<usize>)| {
            let label = match takers[..] {
                [] => self.text("device-nobody"),
                [player] => self.player_name(player),
                _ => self.text("device-all"),
            };
            let selected = takers == found.plays_for;
            let item = self.item(Spot::Answer(n as u16), label, Role::Radio { selected });
            // Who gives their last device away could not go on here.
            match is_mine && !takers.contains(&me) && !self.has_another(device) {
                true => item.enabled(false).text(vec![self.text("device-last")]),
                false => item,
            }
        };
        takers.map(answer).collect()
    }

    pub(super) fn pick_whose(&mut self, device: DeviceId, n: usize) {
        if let Some(takers) = self.takers(device).get(n) {
            self.wishes.push(ScreenWish::Give(device, takers.clone()));
            self.stale = true;
        }
    }
}
