//! One device in the book: which of its inputs are down or spent, and where its analog ones are.

use crate::input::{Control, DeviceId, Direction, HidAxis, PadButton, Sign, Stick, TouchName};

/// One device, as far as it is held.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Device {
    /// None once it was unplugged.
    pub(super) id: Option<DeviceId>,
    /// One bit a control.
    pub(super) down: Vec<u64>,
    /// What begins nothing until it has been at rest.
    pub(super) spent: Vec<u64>,
    /// Of that, what has no value either: the game spent it.
    pub(super) muted: Vec<u64>,
    /// What has no value until the device is heard of again: it lost the focus, or what it told was
    /// played on elsewhere. Away from rest it is spent as well.
    pub(super) unheard: Vec<u64>,
    /// Where its triggers, sticks, axes and touch sticks are; empty until one moves.
    pub(super) levels: Vec<[f32; 2]>,
    /// What its wheel has turned of the next notch, to the right and up.
    pub(super) wheel: [f32; 2],
}

const STICKS: usize = 2;
const AXES: usize = 4;
pub(super) const TOUCHES: usize = AXES + HidAxis::ALL.len();

/// Where an analog control has its level: its position, and for a half which part of it.
#[inline]
pub(super) fn level_of(control: Control) -> Option<(usize, Part)> {
    const TRIGGERS: [u16; 2] = [
        Control::pad(PadButton::TriggerLeft).0,
        Control::pad(PadButton::TriggerRight).0,
    ];
    const STICK: u16 = Control::stick(Stick::LEFT).0;
    const STICK_HALF: u16 = Control::stick_half(Stick::LEFT, Direction::Up).0;
    const LAST_HALF: u16 = Control::stick_half(Stick::RIGHT, Direction::Right).0;
    const AXIS: u16 = Control::hid_axis(HidAxis::X).0;
    const HID_HALF: u16 = Control::hid_half(HidAxis::X, Sign::Positive).0;
    const TOUCH: u16 = Control::touch(0).0;
    let half_axis = [Direction::Right, Direction::Left];
    Some(match control.0 {
        n if n == TRIGGERS[0] => (0, Part::Whole),
        n if n == TRIGGERS[1] => (1, Part::Whole),
        n @ STICK_HALF..=LAST_HALF => {
            let half = usize::from(n - STICK_HALF);
            (STICKS + half / 4, Part::Towards(Direction::ALL[half % 4]))
        }
        n @ STICK..STICK_HALF => (STICKS + usize::from(n - STICK), Part::Whole),
        n @ AXIS..HID_HALF => (AXES + usize::from(n - AXIS), Part::Whole),
        n @ HID_HALF..TOUCH => {
            let half = usize::from(n - HID_HALF);
            (AXES + half / 2, Part::Towards(half_axis[half % 2]))
        }
        n @ TOUCH.. => (TOUCHES + usize::from(n - TOUCH), Part::Whole),
        _ => return None,
    })
}

#[derive(Clone, Copy)]
pub(super) enum Part {
    Whole,
    Towards(Direction),
}

impl Part {
    #[inline]
    pub(super) fn of(self, level: [f32; 2]) -> [f32; 2] {
        match self {
            Part::Whole => level,
            Part::Towards(direction) => [direction.part_of(level), 0.0],
        }
    }
}

#[inline]
pub(super) fn bit(control: Control) -> (usize, u64) {
    (control.index() / 64, 1 << (control.index() % 64))
}

#[inline]
fn has(bits: &[u64], control: Control) -> bool {
    let (word, bit) = bit(control);
    bits[word] & bit != 0
}

impl Device {
    pub(super) fn new(id: DeviceId, controls: usize) -> Device {
        let words = controls.div_ceil(64);
        Device {
            id: Some(id),
            down: vec![0; words],
            spent: vec![0; words],
            muted: vec![0; words],
            unheard: vec![0; words],
            levels: Vec::new(),
            wheel: [0.0; 2],
        }
    }

    #[inline]
    pub(super) fn is_down(&self, control: Control) -> bool {
        has(&self.down, control)
    }

    #[inline]
    pub(super) fn is_spent(&self, control: Control) -> bool {
        has(&self.spent, control)
    }

    #[inline]
    pub(super) fn is_unheard(&self, control: Control) -> bool {
        has(&self.unheard, control)
    }

    /// Whether a control has no value, wherever it is.
    #[inline]
    pub(super) fn is_silent(&self, control: Control) -> bool {
        has(&self.muted, control) || has(&self.unheard, control)
    }

    /// Whether nothing of it is down, spent, or away from the middle.
    pub(super) fn is_at_rest(&self) -> bool {
        let none = |bits: &[u64]| bits.iter().all(|word| *word == 0);
        none(&self.down) && none(&self.spent) && self.levels.iter().all(|l| *l == [0.0; 2])
    }

    /// Every set of bits, one bit a control each.
    pub(super) fn bits(&mut self) -> [&mut Vec<u64>; 4] {
        [
            &mut self.down,
            &mut self.spent,
            &mut self.muted,
            &mut self.unheard,
        ]
    }

    /// A control is at rest: nothing that was said of it holds any more.
    pub(super) fn rest(&mut self, control: Control) {
        let (word, bit) = bit(control);
        for bits in self.bits() {
            bits[word] &= !bit;
        }
    }

    #[inline]
    pub(super) fn set(bits: &mut [u64], control: Control, on: bool) {
        let (word, bit) = bit(control);
        bits[word] = if on {
            bits[word] | bit
        } else {
            bits[word] & !bit
        };
    }

    pub(super) fn level(&self, control: Control) -> [f32; 2] {
        let found = level_of(control);
        found.map_or([0.0; 2], |(at, part)| {
            part.of(self.levels.get(at).copied().unwrap_or_default())
        })
    }
}

/// A device with its touch inputs in another order.
pub(super) fn moved_over(mut device: Device, old: &[TouchName], new: &[TouchName]) -> Device {
    let mut out = Device::new(DeviceId(0), Control::FIXED + new.len());
    out.id = device.id;
    out.wheel = device.wheel;
    out.levels.clone_from(&device.levels);
    out.levels.truncate(TOUCHES);
    let carry = |out: &mut Device, from: &mut Device, was, now| {
        for (to, from) in out.bits().into_iter().zip(from.bits()) {
            Device::set(to, now, has(from, was));
        }
    };
    for control in (0..Control::FIXED).map(|n| Control(n as u16)) {
        carry(&mut out, &mut device, control, control);
    }
    for (at, name) in new.iter().enumerate() {
        let Some(was) = old.iter().position(|n| n == name) else {
            continue;
        };
        let (now, was) = (Control::touch(at), Control::touch(was));
        carry(&mut out, &mut device, was, now);
        let level = device.level(was);
        if level != [0.0; 2] {
            out.levels
                .resize(out.levels.len().max(TOUCHES + at + 1), [0.0; 2]);
            out.levels[TOUCHES + at] = level;
        }
    }
    out
}
