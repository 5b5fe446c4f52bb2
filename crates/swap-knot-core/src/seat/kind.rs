//! Which kind of device the player is using, and which one of that kind, judged by deliberate inputs
//! only.

use crate::input::{DeviceId, DeviceKind, Time};

/// How far the mouse has to move within [`MOVE_TIME`] seconds to count as meant, in counts.
const MOVE_FAR: f32 = 30.0;
const MOVE_TIME: f32 = 0.4;

/// A device that was worked on purpose, and when.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct DeviceUse {
    /// Which device.
    pub device: DeviceId,
    /// Its kind.
    pub kind: DeviceKind,
    /// When it was last worked.
    pub at: Time,
}

#[derive(Clone, Debug)]
pub(super) struct KindInUse {
    pub(super) current: DeviceKind,
    /// The last use of each kind; the last place is for what was not meant.
    pub(super) last: [Option<(DeviceId, Time)>; DeviceKind::ALL.len() + 1],
    pub(super) forced: Option<DeviceKind>,
    /// What the game was told last.
    pub(super) told: DeviceKind,
    /// Since when the mouse has been moving, and how far it got.
    pub(super) moving: (Time, f32),
}

impl PartialEq for KindInUse {
    /// All but what was not meant, which nobody asks for.
    fn eq(&self, other: &Self) -> bool {
        let all = |k: &Self| (k.current, k.forced, k.told, k.moving);
        all(self) == all(other) && self.lasts() == other.lasts()
    }
}

impl Default for KindInUse {
    fn default() -> Self {
        KindInUse {
            current: DeviceKind::Keyboard,
            last: [None; DeviceKind::ALL.len() + 1],
            forced: None,
            told: DeviceKind::Keyboard,
            moving: (Time::ZERO, 0.0),
        }
    }
}

impl KindInUse {
    pub(super) fn current(&self) -> DeviceKind {
        self.forced.unwrap_or(self.current)
    }

    pub(super) fn force(&mut self, kind: Option<DeviceKind>) {
        self.forced = kind;
    }

    /// Whether it is another one than at the last call; asked once a tick.
    pub(super) fn take_changed(&mut self) -> bool {
        let current = self.current();
        std::mem::replace(&mut self.told, current) != current
    }

    /// Something was worked on purpose, if `really`. Without a branch: this is on the path of every
    /// event.
    #[inline(always)]
    pub(super) fn meant(&mut self, by: DeviceUse, really: bool) {
        const ELSEWHERE: usize = DeviceKind::ALL.len();
        self.current = if really { by.kind } else { self.current };
        let place = if really { by.kind as usize } else { ELSEWHERE };
        self.last[place] = Some((by.device, by.at));
    }

    /// The last use of each kind.
    pub(super) fn lasts(&self) -> &[Option<(DeviceId, Time)>] {
        &self.last[..DeviceKind::ALL.len()]
    }

    /// The last use of a kind of device.
    pub(super) fn last(&self, kind: DeviceKind) -> Option<DeviceUse> {
        let (device, at) = self.last[kind as usize]?;
        Some(DeviceUse { device, kind, at })
    }

    /// Devices are gone, and so are they as those in use.
    pub(super) fn forget(&mut self, device: DeviceId) {
        for last in &mut self.last {
            *last = last.filter(|(d, _)| device != DeviceId::ALL && *d != device);
        }
    }

    /// The mouse moved so far, along both axes together.
    #[inline(always)]
    pub(super) fn mouse_move(&mut self, device: DeviceId, at: Time, by: f32) {
        if self.current == DeviceKind::Mouse {
            return;
        }
        let (since, far) = self.moving;
        self.moving = if at > since.plus_secs(MOVE_TIME) {
            (at, 0.0)
        } else {
            (since, far + by)
        };
        // Keyboard and mouse are used together, and prompts speak of both: only from another
        // device does moving the mouse lead back.
        if self.moving.1 > MOVE_FAR && self.current != DeviceKind::Keyboard {
            let kind = DeviceKind::Mouse;
            self.meant(DeviceUse { device, kind, at }, true);
        }
    }

    /// The clock went back by so many microseconds.
    pub(super) fn turn_back(&mut self, micros: u64) {
        self.moving.0 = self.moving.0.minus(micros);
        for (_, at) in self.last.iter_mut().flatten() {
            *at = at.minus(micros);
        }
    }
}
