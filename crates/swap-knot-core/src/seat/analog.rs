//! Sticks, triggers, axes and motion.

use super::shaping;
use super::state::{Phase, State};
use crate::input::Control;
use crate::rig::{Part, Wire, Wiring};

impl State {
    /// The wires that follow how far some controls are in, which one event moved together.
    ///
    /// A wire begins when its control leaves rest while its chord is satisfied and none longer is;
    /// it ends when the control is back at rest. What begins does so before anything ends, so that
    /// an action goes on while a stick swings from one of its arms to another.
    pub(super) fn follow(&mut self, wiring: &Wiring, controls: impl Iterator<Item = Control>) {
        let mut ending = std::mem::take(&mut self.ending);
        for control in controls {
            let wires = wiring.completed_by(control);
            if wires.is_empty() {
                continue;
            }
            let raw = self.held.level(control);
            let mut longest = None;
            for &index in wires {
                let wire = &wiring.wires[usize::from(index)];
                if !wire.analog {
                    continue;
                }
                let level = shaped(wiring, wire, raw);
                let away = level != [0.0; 2];
                let state = &mut self.wires[usize::from(index)];
                let leaving = away && !state.away;
                state.away = away;
                if state.phase == Phase::On {
                    state.level = level;
                    self.mark_dirty(wire.action);
                    if !away {
                        ending.push(index);
                    }
                } else if leaving {
                    let longest = *longest.get_or_insert_with(|| self.longest(wiring, control));
                    if wire.held_len >= longest && self.is_ready(wiring, index, wire) {
                        self.begin_to_follow(wiring, index, level);
                    }
                }
            }
        }
        for index in ending.drain(..) {
            self.wires[usize::from(index)].phase = Phase::Idle;
            self.turn_off(wiring, index);
        }
        self.ending = ending;
        if !self.taken.is_empty() {
            self.forget_taken();
        }
    }

    /// A wire follows its control from here on.
    pub(super) fn begin_to_follow(&mut self, wiring: &Wiring, index: u16, level: [f32; 2]) {
        let wire = &wiring.wires[usize::from(index)];
        if wire.held_len > 0 {
            self.use_up_held(wiring, wire);
        }
        let state = &mut self.wires[usize::from(index)];
        state.phase = Phase::On;
        state.since = self.now;
        state.level = level;
        self.turn_on(wiring, index);
        self.mark_dirty(wire.action);
    }

    /// How far in a wire's control is, after feel.
    pub(super) fn level_of(&self, wiring: &Wiring, wire: &Wire) -> [f32; 2] {
        shaped(wiring, wire, self.held.level(wire.control))
    }

    /// How many inputs the longest chord holds that a movement of a control could complete now.
    pub(super) fn longest(&self, wiring: &Wiring, control: Control) -> u8 {
        let own = self.longest_ready(wiring, control);
        own.max(self.longest_relative(wiring, control))
    }

    /// The same for what moves with it: the halves of a stick that it leans to, or the whole.
    pub(super) fn longest_relative(&self, wiring: &Wiring, control: Control) -> u8 {
        let (first, count) = control.relatives();
        let relatives = (first.0..first.0 + count).map(Control);
        relatives
            .filter(|&c| self.held.is_worked(c))
            .map(|c| self.longest_ready(wiring, c))
            .max()
            .unwrap_or(0)
    }

    fn longest_ready(&self, wiring: &Wiring, control: Control) -> u8 {
        let mut wires = wiring.completed_by(control).iter();
        let first = wires.find(|&&i| self.is_ready(wiring, i, &wiring.wires[usize::from(i)]));
        first.map_or(0, |&i| wiring.wires[usize::from(i)].held_len)
    }

    /// Works out anew which wires are away from rest, without beginning anything.
    pub(super) fn note_away(&mut self, wiring: &Wiring) {
        for (index, wire) in wiring.wires.iter().enumerate() {
            if wire.analog {
                self.wires[index].away = self.level_of(wiring, wire) != [0.0; 2];
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
                turned * feel.sensitivity
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
        for (sum, by) in state.moved.iter_mut().zip(by) {
            *sum += f64::from(by);
        }
        for (sum, by) in state.motion.iter_mut().zip(by) {
            // However much is fed between two ticks, it stays a number.
            *sum = (*sum + by).clamp(-f32::MAX, f32::MAX);
        }
    }
}

/// How far in a control is for a wire, after its feel.
fn shaped(wiring: &Wiring, wire: &Wire, raw: [f32; 2]) -> [f32; 2] {
    let feel = wiring.feel(wire);
    match wire.part {
        Part::Port(_) | Part::Switch => [shaping::amount(feel, raw[0]), 0.0],
        Part::Whole => shaping::plane(feel, raw),
    }
}
