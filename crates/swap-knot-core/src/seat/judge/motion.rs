//! Distances: a mouse that moves and a wheel that turns.

use super::ready::Longest;
use crate::book::notched;
use crate::input::{Control, DeviceId, DeviceKind, Direction};
use crate::rig::{Part, Wire, Wiring};
use crate::seat::shaping;
use crate::seat::state::{Phase, State};
use crate::seat::work::arm_of;
use crate::seat::{Moved, Outcome};
use crate::sheet::{ActionId, Shape};

/// So far a mouse may slip in counts before it breaks off what a held part of a chord could still
/// become by itself: nobody holds a mouse quite still while they click.
const SLIP: f32 = 6.0;

impl State {
    #[inline(always)]
    pub(in crate::seat) fn add_up_mouse(&mut self, by: [f32; 2]) {
        self.mouse[0] += f64::from(by[0]);
        self.mouse[1] += f64::from(by[1]);
    }

    /// The mouse moved: of the chords that are satisfied the longest have it.
    #[inline(never)]
    pub(in crate::seat) fn motion(&mut self, wiring: &Wiring, by: [f32; 2]) {
        // What one thing has alone is scaled when it is told of.
        let sums = wiring.lone_motion.is_some() && self.listed.is_none();
        self.each_longest(wiring, Control::MOUSE_MOVE, |state, index, wire| {
            let by = match wire.held_len {
                _ if sums => {
                    state.add_up_mouse(by);
                    return Outcome::Worked;
                }
                0 => Some(by),
                _ => state.slip(wiring, index, by),
            };
            match by {
                Some(by) => {
                    state.move_by(wiring, index, by);
                    Outcome::Worked
                }
                None => Outcome::Waiting { until: None },
            }
        });
    }

    /// What the mouse moved since it was last told of, for the one thing that it moves.
    pub(in crate::seat) fn settle_motion(&mut self, wiring: &Wiring) {
        let Some((wire, action)) = wiring.lone_motion else {
            return;
        };
        if self.mouse == [0.0; 2] {
            return;
        }
        let feel = wiring.feel(&wiring.wires[usize::from(wire)]);
        let along = |by: f64, axis: usize| {
            let by = if feel.invert[axis] { -by } else { by };
            by * f64::from(feel.along(axis))
        };
        let [x, y] = std::mem::take(&mut self.mouse);
        let by = [along(x, 0), along(y, 1)];
        let frame = self.frame.wrapping_add(1);
        self.actions[usize::from(action)].move_by(frame, by);
    }

    /// The chords that a movement completes: of those that are satisfied the longest. What became of each
    /// is told, but of a wheel, whose notches are pressed.
    fn each_longest(
        &mut self,
        wiring: &Wiring,
        control: Control,
        mut each: impl FnMut(&mut State, u16, &Wire) -> Outcome,
    ) {
        let wires = wiring.completed_by(control);
        let tells = self.trail.is_kept() && control.is_motion();
        if tells && wires.is_empty() {
            self.tell_silent(wiring, control);
        }
        let mut longest = Longest::NONE;
        for &index in wires {
            let wire = &wiring.wires[usize::from(index)];
            if longest.hides(wire) && !tells {
                break;
            }
            match self.lack_beside(wiring, index, wire, longest) {
                None => {
                    longest = longest.or(index, wire);
                    let outcome = each(self, index, wire);
                    if tells {
                        self.tell(wiring, control, Some(index), outcome);
                    }
                }
                Some(lack) if tells => self.tell_lack(wiring, index, wire, lack),
                Some(_) => {}
            }
        }
    }

    /// A movement for a chord: kept back while it is small and a held part could still become a tap
    /// or hold of its own.
    fn slip(&mut self, wiring: &Wiring, index: u16, by: [f32; 2]) -> Option<[f32; 2]> {
        let wire = &wiring.wires[usize::from(index)];
        let undecided = wiring.held_of(wire).iter().flatten().any(|&part| {
            let mut of_its_own = wiring.completed_by(part).iter();
            of_its_own.any(|&other| {
                matches!(
                    self.wires[usize::from(other)].phase,
                    Phase::Pending | Phase::Tapped
                )
            })
        });
        let since = self.wires[usize::from(index)].since;
        let mut parts = wiring.held_of(wire).iter().flatten();
        let anew = parts.any(|part| self.pressed_at[part.index()] > since);
        let state = &mut self.wires[usize::from(index)];
        let kept = std::mem::take(&mut state.kept_back);
        let by = match anew {
            true => by,
            false => [by[0] + kept[0], by[1] + kept[1]],
        };
        if undecided && by[0].hypot(by[1]) < SLIP {
            (state.kept_back, state.since) = (by, self.now);
            return None;
        }
        self.use_up_held(wiring, wire);
        Some(by)
    }

    fn move_by(&mut self, wiring: &Wiring, index: u16, [x, y]: [f32; 2]) {
        let wire = &wiring.wires[usize::from(index)];
        let feel = wiring.feel(wire);
        let mut scale = 1.0;
        let state = &mut self.wires[usize::from(index)];
        let gone = self
            .now
            .since(std::mem::replace(&mut state.since, self.now));
        if feel.curve != 1.0 {
            state.speed = shaping::speed(state.speed, gone.as_secs_f32(), x.hypot(y));
            scale *= shaping::hurried(feel, state.speed);
        }
        let along = |by: f32, axis: usize| {
            let by = if feel.invert[axis] { -by } else { by };
            by * feel.along(axis) * scale
        };
        let by = [along(x, 0), along(y, 1), 0.0];
        self.add_motion(wire.action, by.map(f64::from));
    }

    /// A pad was turned in the hands, in degrees: of the chords that are satisfied the longest have it,
    /// as counts of a mouse.
    #[inline(never)]
    pub(in crate::seat) fn turned_in_hands(&mut self, wiring: &Wiring, by: [f32; 3]) {
        self.each_longest(wiring, Control::PAD_GYRO, |state, _, wire| {
            if wire.held_len > 0 {
                state.use_up_held(wiring, wire);
            }
            let feel = wiring.feel(wire);
            let along = |axis: usize| {
                let by = f64::from(by[axis]) * f64::from(feel.gyro);
                if feel.invert[axis] { -by } else { by }
            };
            let roll = match wiring.actions[usize::from(wire.action)].shape {
                Shape::Space => along(2),
                _ => 0.0,
            };
            state.add_motion(wire.action, [along(0), along(1), roll]);
            Outcome::Worked
        });
    }

    /// A wheel turned by some notches or parts of one: the distance goes to what a notch that way
    /// would work, and every whole notch works it.
    #[inline(never)]
    pub(in crate::seat) fn scroll(
        &mut self,
        wiring: &Wiring,
        device: DeviceId,
        slot: usize,
        by: [f32; 2],
    ) {
        for (by, ways) in by.into_iter().zip([
            [Direction::Right, Direction::Left],
            [Direction::Up, Direction::Down],
        ]) {
            if by != 0.0 {
                let way = ways[usize::from(by < 0.0)];
                self.turn_wheel(wiring, Control::wheel(way), by.abs());
            }
        }
        for direction in notched(self.held.turn(slot, by)) {
            self.meant(device, DeviceKind::Mouse, true);
            self.notch(wiring, Control::wheel(direction));
        }
    }

    /// The wheel turned by one notch, as wheels do that know nothing smaller.
    #[inline(never)]
    pub(in crate::seat) fn whole_notch(&mut self, wiring: &Wiring, control: Control) {
        self.turn_wheel(wiring, control, 1.0);
        self.notch(wiring, control);
    }

    /// A notch works whatever it is bound to: down and up at once.
    fn notch(&mut self, wiring: &Wiring, control: Control) {
        self.press(wiring, control);
        self.release(wiring, control);
    }

    /// The distance of a wheel, for arms that it is bound to.
    fn turn_wheel(&mut self, wiring: &Wiring, control: Control, far: f32) {
        self.each_longest(wiring, control, |state, _, wire| {
            if wire.held_len > 0 {
                state.use_up_held(wiring, wire);
            }
            let arm = match wire.part {
                Part::Port(port) => arm_of(wiring, wire.action, port),
                _ => None,
            };
            let Some(arm) = arm else {
                return Outcome::Worked;
            };
            let size = far * wiring.feel(wire).sensitivity;
            let axis = match wiring.actions[usize::from(wire.action)].shape {
                Shape::Line => 0,
                _ => arm.axis(),
            };
            let mut by = [0.0; 3];
            by[axis] = f64::from(if arm.is_positive() { size } else { -size });
            state.add_motion(wire.action, by);
            Outcome::Worked
        });
    }

    pub(in crate::seat) fn add_motion(&mut self, action: u16, by: [f64; 3]) {
        let frame = self.frame.wrapping_add(1);
        self.actions[usize::from(action)].move_by(frame, by);
        if let Some(listed) = &mut self.listed {
            listed.push(Moved {
                at: self.now,
                action: ActionId::new(action, self.stamp),
                by: by.map(|v| v as f32),
            });
        }
    }
}
