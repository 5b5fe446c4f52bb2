//! By what a rig is known again.

use super::{Part, Rig};
use crate::sheet::{ActsOn, DeadZoneForm, Parameter, ParameterValue};
use crate::text::Fnv;

impl Rig {
    /// A number that is the same for rigs that play alike, on every machine.
    pub(crate) fn fingerprint(&self) -> u64 {
        *self.0.fingerprint.get_or_init(|| {
            // Over everything that play goes by.
            let mut hash = Fnv::new();
            let mut add = |n: u64| hash.add(n.to_le_bytes());
            let (sheet, wiring) = (self.sheet(), self.wiring());
            for (id, action) in sheet.actions() {
                action.name.bytes().for_each(|b| add(u64::from(b)));
                action.situations.iter().for_each(|s| add(s.index() as u64));
                let wired = &wiring.actions[id.index()];
                let arm = u64::from(wired.first_arm);
                add(wired.shape as u64 | (wired.opposite as u64) << 8 | arm << 16);
                let flags = [
                    wired.resumes,
                    wired.rate.is_some(),
                    action.while_paused,
                    action.while_typing,
                ];
                flags.map(u64::from).into_iter().for_each(&mut add);
                numbers(ActsOn::Actions, |p| wired.easing.get(p)).for_each(&mut add);
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
                let inputs = ActsOn::Inputs(wire.control.device_kind());
                numbers(inputs, |p| feel.get(p)).for_each(&mut add);
                add(u64::from(feel.dead_zone.form == DeadZoneForm::Axis));
                add(match wire.part {
                    Part::Switch => 0,
                    Part::Whole => 1,
                    Part::Port(port) => 2 + u64::from(port),
                });
            }
            hash.number()
        })
    }
}

/// Every number of the settings of such a reach, as bits.
fn numbers(
    reach: ActsOn,
    get: impl Fn(Parameter) -> Option<ParameterValue>,
) -> impl Iterator<Item = u64> {
    Parameter::of(reach).flat_map(move |parameter| {
        let value = get(parameter);
        let parts = parameter.parts().iter();
        parts.filter_map(move |part| value.map(|v| u64::from(v.number(*part).to_bits())))
    })
}
