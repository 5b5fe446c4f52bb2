//! The book put away and taken out again.

use super::device::{Device, TOUCHES};
use super::{Garbled, Held, MAX_STRANGE_TOUCH, Reader, Writer};
use crate::input::{Control, DeviceId};

/// The most devices of a book that comes from elsewhere.
const MOST_DEVICES: usize = 256;

impl Held {
    /// Becomes a copy of another book, in the room that is there.
    pub(crate) fn copy_from(&mut self, from: &Held) {
        let Held {
            devices,
            count,
            rest,
            touch,
            named_touch,
            // They are found anew.
            glides: _,
            guesses: _,
            has_unheard,
            has_spent,
        } = from;
        self.has_unheard = *has_unheard;
        self.has_spent = *has_spent;
        self.end_glides();
        self.devices.truncate(devices.len());
        for (to, from) in self.devices.iter_mut().zip(devices) {
            to.copy_from(from);
        }
        for from in &devices[self.devices.len()..] {
            self.devices.push(from.clone());
        }
        self.count.clone_from(count);
        self.rest.clone_from(rest);
        self.touch.clone_from(touch);
        self.named_touch = *named_touch;
    }

    pub(crate) fn write(&self, to: &mut Writer<'_>) {
        let strange = &self.touch[self.named_touch..];
        to.number(strange.len() as u64);
        for name in strange {
            to.text(name.as_str());
        }
        to.number(self.devices.len() as u64);
        for device in &self.devices {
            to.number(device.id.map_or(0, |id| u64::from(id.0) + 1));
            let bits = |to: &mut Writer<'_>, word: &u64| to.number(*word);
            for all in [&device.down, &device.spent, &device.muted, &device.unheard] {
                to.sparse(all, bits);
            }
            to.number(device.levels.len() as u64);
            to.sparse(&device.levels, |to, level| {
                level.iter().for_each(|v| to.float(*v));
            });
            device.wheel.iter().for_each(|v| to.float(*v));
        }
    }

    /// Reads a book of the same rig into this one.
    pub(crate) fn read(&mut self, from: &mut Reader<'_>) -> Result<(), Garbled> {
        self.end_glides();
        self.touch.truncate(self.named_touch);
        for _ in 0..from.up_to(MAX_STRANGE_TOUCH)? {
            self.touch.push(from.text()?.parse().map_err(|_| Garbled)?);
        }
        let controls = Control::FIXED + self.touch.len();
        self.rest.resize(controls, super::Rest::default());
        self.devices.clear();
        for _ in 0..from.up_to(MOST_DEVICES)? {
            let id = from.up_to(usize::from(u16::MAX) + 1)?;
            let mut device = Device::new(DeviceId(0), controls);
            device.id = id.checked_sub(1).map(|id| DeviceId(id as u16));
            for all in device.bits() {
                from.sparse(all, Reader::number)?;
            }
            // What the game spent begins nothing, nor does what is down unheard.
            for at in 0..device.spent.len() {
                device.spent[at] |= device.muted[at] | device.unheard[at] & device.down[at];
            }
            // Nothing is down of what there is not: a touch input that is heard of later would be.
            let beyond = controls % 64;
            if beyond != 0 {
                let known = (1_u64 << beyond) - 1;
                for words in device.bits() {
                    if let Some(last) = words.last_mut() {
                        *last &= known;
                    }
                }
            }
            let levels = from.up_to(TOUCHES + self.touch.len())?;
            device.levels.resize(levels, [0.0; 2]);
            from.sparse(&mut device.levels, |from| {
                Ok([from.float()?, from.float()?])
            })?;
            device.wheel = [from.float()?, from.float()?];
            self.devices.push(device);
        }
        self.count_anew();
        self.note_marks();
        Ok(())
    }
}

impl Device {
    fn copy_from(&mut self, from: &Device) {
        let Device {
            id,
            down,
            spent,
            muted,
            unheard,
            levels,
            wheel,
        } = from;
        self.id = *id;
        self.down.clone_from(down);
        self.spent.clone_from(spent);
        self.muted.clone_from(muted);
        self.unheard.clone_from(unheard);
        self.levels.clone_from(levels);
        self.wheel = *wheel;
    }
}
