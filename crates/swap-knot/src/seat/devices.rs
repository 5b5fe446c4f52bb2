//! The devices of a seat and how far their analog controls are in.

use crate::input::DeviceId;

/// The most devices that one seat tells apart; further ones share the last slot.
const SLOTS: usize = 15;
/// The bit beside those of the slots: an analog control that is far enough in to count as down.
pub(super) const ANALOG_BIT: u16 = 1 << SLOTS;

#[derive(Clone, Debug, Default)]
pub(super) struct Devices {
    slots: Vec<Device>,
    controls: usize,
}

#[derive(Clone, Debug)]
struct Device {
    /// None once it was unplugged.
    id: Option<DeviceId>,
    /// For each control, where the device has it; empty until an analog event comes.
    levels: Vec<[f32; 2]>,
}

impl Devices {
    /// The slot of a device, made if it is new.
    #[inline]
    pub(super) fn slot(&mut self, id: DeviceId) -> usize {
        // Adapters give small numbers out in order, so the number is mostly the slot.
        let guess = usize::from(id.0);
        match self.slots.get(guess) {
            Some(device) if device.id == Some(id) => guess,
            _ => self.slot_slow(id),
        }
    }

    fn slot_slow(&mut self, id: DeviceId) -> usize {
        if let Some(at) = self.slots.iter().position(|d| d.id == Some(id)) {
            return at;
        }
        if let Some(at) = self.slots.iter().position(|d| d.id.is_none()) {
            self.slots[at].id = Some(id);
            return at;
        }
        if self.slots.len() < SLOTS {
            self.slots.push(Device {
                id: Some(id),
                levels: Vec::new(),
            });
        }
        self.slots.len() - 1
    }

    /// Makes room for the controls of a rig.
    pub(super) fn resize(&mut self, controls: usize) {
        self.controls = controls;
        for device in &mut self.slots {
            if !device.levels.is_empty() {
                device.levels.resize(controls, [0.0; 2]);
            }
        }
    }

    /// Puts an analog control of a device somewhere and answers where it is over all devices: the
    /// one that is furthest from rest.
    pub(super) fn set(&mut self, slot: usize, control: usize, at: [f32; 2]) -> [f32; 2] {
        let levels = &mut self.slots[slot].levels;
        if levels.len() <= control {
            levels.resize(self.controls.max(control + 1), [0.0; 2]);
        }
        levels[control] = at;
        if self.slots.len() == 1 {
            return at;
        }
        self.level(control)
    }

    /// Where an analog control is over all devices.
    pub(super) fn level(&self, control: usize) -> [f32; 2] {
        let square = |[x, y]: [f32; 2]| x * x + y * y;
        let all = self.slots.iter().filter_map(|d| d.levels.get(control));
        all.fold(
            [0.0; 2],
            |best, &l| if square(l) > square(best) { l } else { best },
        )
    }

    /// Forgets where the analog controls of a device are; answers which were away from rest.
    pub(super) fn rest(&mut self, slot: usize) -> Vec<usize> {
        let levels = std::mem::take(&mut self.slots[slot].levels);
        let moved = levels.iter().enumerate().filter(|(_, l)| **l != [0.0; 2]);
        moved.map(|(control, _)| control).collect()
    }

    /// Forgets where the analog controls of every device are, without giving memory back.
    pub(super) fn rest_all(&mut self) {
        for device in &mut self.slots {
            device.levels.fill([0.0; 2]);
        }
    }

    /// Frees the slot of a device that is gone.
    pub(super) fn free(&mut self, slot: usize) {
        self.slots[slot].id = None;
    }
}
