//! Sticks, triggers, axes and motion.

use super::devices::ANALOG_BIT;
use super::shaping;
use super::state::{Phase, State};
use crate::input::DeviceId;
use crate::rig::{Control, Part, Wiring};

/// A trigger or half axis counts as down from here on…
const DOWN_AT: f32 = 0.5;
/// …and as up again from here on, so that it does not flutter at the edge.
const UP_AT: f32 = 0.4;

impl State {
    /// A trigger or one half of an axis moved to 0 to 1.
    #[inline(never)]
    pub(super) fn pull(&mut self, wiring: &Wiring, control: Control, value: f32, device: DeviceId) {
        let route = wiring.routes[control.index()];
        if route.completes == 0 && route.held_in == 0 {
            return;
        }
        let slot = self.devices.slot(device);
        let value = shaping::real(value).max(0.0);
        let [value, _] = self.devices.set(slot, control.index(), [value, 0.0]);
        self.follow(wiring, control, [value, 0.0]);
        // As a button it is held by the seat as a whole: what counts is the furthest device.
        let held = self.down[control.index()] != 0;
        if !held && value >= DOWN_AT {
            self.down[control.index()] = ANALOG_BIT;
            self.press(wiring, control);
        } else if held && value <= UP_AT {
            self.down[control.index()] = 0;
            self.release(wiring, control);
        }
    }

    /// A whole stick or axis moved.
    #[inline(never)]
    pub(super) fn plane(
        &mut self,
        wiring: &Wiring,
        control: Control,
        at: [f32; 2],
        device: DeviceId,
    ) {
        if wiring.routes[control.index()].completes == 0 {
            return;
        }
        let slot = self.devices.slot(device);
        let at = self
            .devices
            .set(slot, control.index(), at.map(shaping::real));
        self.follow(wiring, control, at);
    }

    /// The wires that follow how far a control is in.
    ///
    /// A wire begins when its control leaves rest while its chord is satisfied and none longer is;
    /// it ends when the control is back at rest.
    fn follow(&mut self, wiring: &Wiring, control: Control, raw: [f32; 2]) {
        let mut longest = None;
        for &index in wiring.completed_by(control) {
            let wire = &wiring.wires[usize::from(index)];
            if !wire.analog {
                continue;
            }
            let feel = &wiring.feels[usize::from(wire.feel)];
            let level = match wire.part {
                Part::Port(_) | Part::Switch => [shaping::amount(feel, raw[0]), 0.0],
                Part::Whole => shaping::plane(feel, raw),
            };
            let moved = level != [0.0; 2];
            let leaving = moved && !self.wires[usize::from(index)].moved;
            self.wires[usize::from(index)].moved = moved;
            if self.wires[usize::from(index)].phase == Phase::On {
                self.wires[usize::from(index)].level = level;
                if !moved {
                    self.wires[usize::from(index)].phase = Phase::Idle;
                    self.turn_off(wiring, index);
                }
                self.changed(wiring, index);
            } else if leaving {
                let longest = *longest.get_or_insert_with(|| self.longest(wiring, control));
                if wire.held_len >= longest && self.is_ready(wiring, index, wire) {
                    let state = &mut self.wires[usize::from(index)];
                    state.phase = Phase::On;
                    state.since = self.now;
                    state.level = level;
                    self.turn_on(wiring, index);
                    self.changed(wiring, index);
                }
            }
        }
    }

    /// How many inputs the longest chord holds that a control could complete now.
    fn longest(&self, wiring: &Wiring, control: Control) -> u8 {
        let mut wires = wiring.completed_by(control).iter();
        let first = wires.find(|&&i| self.is_ready(wiring, i, &wiring.wires[usize::from(i)]));
        first.map_or(0, |&i| wiring.wires[usize::from(i)].held_len)
    }

    /// The level of a wire changed, so what it works has to be worked out again.
    fn changed(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        if let Part::Port(port) = wire.part {
            self.set_ramp(wiring, wire.action, port, wire.feel);
        }
        self.mark_dirty(wire.action);
    }

    /// An analog control came to rest because its device is gone.
    pub(super) fn rested(&mut self, wiring: &Wiring, control: Control) {
        let level = self.devices.level(control.index());
        self.follow(wiring, control, level);
        if self.down[control.index()] != 0 && level[0] <= UP_AT {
            self.down[control.index()] = 0;
            self.release(wiring, control);
        }
    }

    /// What is away from rest has to come back before it counts again.
    pub(super) fn spend_all(&mut self, wiring: &Wiring) {
        for (index, wire) in wiring.wires.iter().enumerate() {
            if wire.analog {
                let level = self.devices.level(wire.control.index());
                let feel = &wiring.feels[usize::from(wire.feel)];
                self.wires[index].moved = match wire.part {
                    Part::Port(_) | Part::Switch => shaping::amount(feel, level[0]) > 0.0,
                    Part::Whole => shaping::plane(feel, level) != [0.0; 2],
                };
            }
        }
    }

    /// The mouse moved: added up until the next tick.
    #[inline(never)]
    pub(super) fn motion(&mut self, wiring: &Wiring, control: Control, by: [f32; 2]) {
        for &index in wiring.completed_by(control) {
            if !self.live[usize::from(index)] {
                continue;
            }
            let wire = &wiring.wires[usize::from(index)];
            let feel = &wiring.feels[usize::from(wire.feel)];
            let scaled = |axis: usize| {
                let turned = if feel.invert[axis] {
                    -by[axis]
                } else {
                    by[axis]
                };
                let real = if turned.is_finite() { turned } else { 0.0 };
                real * feel.sensitivity
            };
            let (x, y) = (scaled(0), scaled(1));
            self.add_motion(wire.action, [x, y, 0.0]);
        }
    }

    /// A notch of the wheel on an arm: one step of motion that way.
    pub(super) fn step(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        let Part::Port(port) = wire.part else { return };
        let Some(arm) = super::work::arm_of(wiring, wire.action, port) else {
            return;
        };
        let size = wiring.feels[usize::from(wire.feel)].sensitivity;
        let step = if arm.is_positive() { size } else { -size };
        let axis = match wiring.actions[usize::from(wire.action)].shape {
            crate::sheet::Shape::Line => 0,
            _ => arm.axis(),
        };
        let mut by = [0.0; 3];
        by[axis] = step;
        self.add_motion(wire.action, by);
    }

    fn add_motion(&mut self, action: u16, by: [f32; 3]) {
        let frame = self.frame.wrapping_add(1);
        let state = &mut self.actions[usize::from(action)];
        if state.motion_frame != frame {
            state.motion_frame = frame;
            state.motion = [0.0; 3];
        }
        for (sum, by) in state.motion.iter_mut().zip(by) {
            *sum += by;
        }
    }
}
