//! By what a rig is known again.

use super::{Part, Rig};
use crate::sheet::DeadZoneForm;

impl Rig {
    /// A number that is the same for rigs that play alike, on every machine.
    pub(crate) fn fingerprint(&self) -> u64 {
        *self.0.fingerprint.get_or_init(|| {
            // FNV-1a, over everything that play goes by.
            let mut hash = 0xcbf2_9ce4_8422_2325_u64;
            let mut add = |n: u64| {
                for byte in n.to_le_bytes() {
                    hash = (hash ^ u64::from(byte)).wrapping_mul(0x0100_0000_01b3);
                }
            };
            let (sheet, wiring) = (self.sheet(), self.wiring());
            for (id, action) in sheet.actions() {
                action.name.bytes().for_each(|b| add(u64::from(b)));
                action.situations.iter().for_each(|s| add(s.index() as u64));
                let wired = &wiring.actions[id.index()];
                add(wired.shape as u64 | (wired.opposite as u64) << 8);
                let flags = [
                    wired.toggle,
                    wired.resumes,
                    wired.latch,
                    wired.rate.is_some(),
                    action.while_paused,
                    action.while_typing,
                ];
                flags.map(u64::from).into_iter().for_each(&mut add);
                let timing = wired.timing;
                let times = [
                    timing.hold_after,
                    timing.tap_within,
                    timing.double_tap_within,
                    timing.together_within,
                    wired.ignore_within,
                ];
                times.iter().for_each(|t| add(u64::from(t.to_bits())));
            }
            for (_, situation) in sheet.situations() {
                situation.name.bytes().for_each(|b| add(u64::from(b)));
                for beside in situation.with.iter().chain(&situation.over) {
                    add(beside.index() as u64);
                }
                add(situation.with.len() as u64);
                add(situation.cover as u64 | u64::from(situation.typing) << 8);
            }
            for name in &wiring.touch_names {
                name.as_str().bytes().for_each(|b| add(u64::from(b)));
            }
            for wire in &wiring.wires {
                add(u64::from(wire.action) << 32 | u64::from(wire.control.0));
                add(wire.manner as u64
                    | u64::from(wire.strict) << 8
                    | u64::from(wire.together) << 9);
                for pair in wiring.held_of(wire) {
                    pair.iter().for_each(|control| add(u64::from(control.0)));
                }
                let feel = wiring.feel(wire);
                let zone = feel.dead_zone;
                let numbers = [
                    zone.inner,
                    zone.outer,
                    feel.sensitivity,
                    feel.curve,
                    feel.threshold,
                    feel.gyro,
                    feel.ramp_up,
                    feel.ramp_down,
                ];
                numbers.iter().for_each(|v| add(u64::from(v.to_bits())));
                feel.invert.iter().for_each(|i| add(u64::from(*i)));
                add(u64::from(zone.form == DeadZoneForm::Axis));
                add(match wire.part {
                    Part::Switch => 0,
                    Part::Whole => 1,
                    Part::Port(port) => 2 + u64::from(port),
                });
            }
            hash
        })
    }
}
