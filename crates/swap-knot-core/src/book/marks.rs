//! What something that is down or away from rest counts for: whether it begins anything, is a part of a
//! chord, or has a value.

use super::device::Device;
use super::{Change, Held};
use crate::input::{Control, DeviceId, Event, EventKind, HidAxis};

impl Held {
    /// Whether a control is down somewhere and not spent.
    #[inline]
    pub(crate) fn is_down(&self, control: Control) -> bool {
        self.count[control.index()] != 0
    }

    /// Whether a control is held for a chord: whatever it has worked meanwhile, as far as is known.
    #[inline]
    pub(crate) fn is_held(&self, control: Control) -> bool {
        self.is_down(control) || self.has_spent && self.is_on(control, |d| !d.is_unheard(control))
    }

    /// Whether a control is down for what follows it.
    #[inline]
    pub(crate) fn is_followed(&self, control: Control) -> bool {
        self.is_down(control) || self.has_spent && self.is_on(control, |d| !d.is_silent(control))
    }

    /// Whether a control is down anywhere, whatever that counts for.
    pub(crate) fn is_down_anywhere(&self, control: Control) -> bool {
        self.is_on(control, |_| true)
    }

    fn is_on(&self, control: Control, counts: impl Fn(&Device) -> bool) -> bool {
        let mut devices = self.devices.iter();
        devices.any(|device| device.is_down(control) && counts(device))
    }

    /// Whether a control is spent on some device.
    pub(crate) fn is_spent(&self, control: Control) -> bool {
        self.devices.iter().any(|device| device.is_spent(control))
    }

    /// Whether a control of a device is spent.
    pub(crate) fn is_spent_on(&self, slot: usize, control: Control) -> bool {
        self.devices[slot].is_spent(control)
    }

    /// Whether anything is spent that comes back to rest by itself when it is let go: all but the
    /// axes of other controllers, which may be parked anywhere.
    pub(crate) fn waits_for_rest(&self) -> bool {
        let parked = Control::hid_axis(HidAxis::X).index()..Control::FIXED;
        self.devices.iter().any(|device| {
            let spent = (0..self.count.len()).map(|n| Control(n as u16));
            spent
                .into_iter()
                .any(|c| device.is_spent(c) && !parked.contains(&c.index()))
        })
    }

    /// Whatever is away from rest on a device, or on all, begins nothing until it has rested, and has no
    /// value until the device is heard of again.
    pub(crate) fn spend(&mut self, device: DeviceId) {
        for slot in 0..self.devices.len() {
            if device == DeviceId::ALL || self.devices[slot].id == Some(device) {
                self.spend_slot(slot);
                for control in (0..self.count.len()).map(|n| Control(n as u16)) {
                    self.mark_unheard(slot, control);
                }
            }
        }
    }

    pub(super) fn spend_slot(&mut self, slot: usize) {
        self.devices[slot].wheel = [0.0; 2];
        for control in (0..self.count.len()).map(|n| Control(n as u16)) {
            self.spend_control(slot, control);
        }
    }

    fn spend_control(&mut self, slot: usize, control: Control) {
        let device = &self.devices[slot];
        if device.is_spent(control) || !self.is_away(device, control) {
            return;
        }
        if device.is_down(control) {
            self.count[control.index()] -= 1;
        }
        Device::set(&mut self.devices[slot].spent, control, true);
        self.has_spent = true;
        self.end_glides();
    }

    /// What is away from rest has no value until its device is heard of again, nor has what is somewhere
    /// within it: another rig may have another rest. That may begin things all the same: a stick that
    /// drifts costs the player no press.
    fn mark_unheard(&mut self, slot: usize, control: Control) {
        let device = &mut self.devices[slot];
        if device.is_spent(control) || device.level(control) != [0.0; 2] {
            Device::set(&mut device.unheard, control, true);
            self.has_unheard = true;
            self.end_glides();
        }
    }

    /// A control begins nothing until it has rested, wherever it is away from that; `mute` takes its
    /// value until then as well.
    pub(crate) fn spend_everywhere(&mut self, control: Control, mute: bool) {
        for slot in 0..self.devices.len() {
            self.spend_control(slot, control);
            let device = &mut self.devices[slot];
            if mute && device.is_spent(control) {
                Device::set(&mut device.muted, control, true);
            }
        }
    }

    /// A control that is down may begin things again: it is taken up by what it worked before.
    pub(crate) fn unspend(&mut self, control: Control) {
        for slot in 0..self.devices.len() {
            let device = &mut self.devices[slot];
            if device.is_spent(control) && !device.is_silent(control) {
                Device::set(&mut device.spent, control, false);
                if device.is_down(control) {
                    self.count[control.index()] += 1;
                }
            }
        }
        self.note_marks();
    }

    /// Takes an event in that is played on elsewhere: what leaves its rest by it is spent. Answers
    /// whether something went down.
    pub(crate) fn feed_spending(&mut self, event: &Event) -> bool {
        let find = |held: &Held| held.devices.iter().position(|d| d.id == Some(event.device));
        let away = find(self).map(|slot| {
            let device = &self.devices[slot];
            let all = (0..self.count.len()).map(|n| self.is_away(device, Control(n as u16)));
            all.collect::<Vec<bool>>()
        });
        let mut went_down = false;
        self.follow(event, |_, change| {
            went_down |= matches!(change, Change::Down { .. });
        });
        let Some(slot) = find(self) else {
            return went_down;
        };
        for n in 0..self.count.len() {
            let was_away = away.as_ref().and_then(|a| a.get(n)).copied();
            if !was_away.unwrap_or_default() {
                self.spend_control(slot, Control(n as u16));
                self.mark_unheard(slot, Control(n as u16));
            }
        }
        went_down
    }

    /// A control is down that nobody saw going down.
    pub(crate) fn hold_spent(&mut self, device: DeviceId, control: Control) {
        let slot = self.slot(device);
        let device = &mut self.devices[slot];
        if !device.is_down(control) {
            Device::set(&mut device.down, control, true);
            Device::set(&mut device.spent, control, true);
            self.has_spent = true;
        }
    }

    pub(super) fn rested(&mut self, slot: usize, control: Control) -> Change {
        self.devices[slot].rest(control);
        self.note_marks();
        Change::Rested
    }

    /// A device is heard of again: what it has held meanwhile has its value back. Answers whether there
    /// was anything.
    #[inline]
    pub(crate) fn hear(&mut self, event: &Event) -> bool {
        self.has_unheard && self.hears_again(event)
    }

    #[cold]
    fn hears_again(&mut self, event: &Event) -> bool {
        let id = event.device;
        let Some(device) = self.devices.iter_mut().find(|d| d.id == Some(id)) else {
            return false;
        };
        // Auto-repeat says nothing new, and adapters let go what the system tells nothing of any more.
        let repeats = match event.what.as_button() {
            Some((control, true)) => device.is_down(control),
            Some((control, false)) => device.is_unheard(control),
            None => false,
        };
        let lost = matches!(event.what, EventKind::FocusLost | EventKind::Unplugged);
        if repeats || lost || device.unheard.iter().all(|word| *word == 0) {
            return false;
        }
        device.unheard.fill(0);
        self.note_marks();
        true
    }

    /// Notes whether anything is spent or unheard anywhere.
    pub(super) fn note_marks(&mut self) {
        let any = |bits: &[u64]| bits.iter().any(|word| *word != 0);
        self.has_spent = self.devices.iter().any(|d| any(&d.spent));
        self.has_unheard = self.devices.iter().any(|d| any(&d.unheard));
    }
}
