//! What the game asks of a seat.

use std::time::Duration;

use super::Seat;
use super::state::PortState;
use crate::input::{HidInput, Input, Modifier, MouseButton};
use crate::rig::Control;
use crate::sheet::{ActionId, Arm, Row, Shape};

/// Which state answers for a row.
enum Place {
    Action(usize),
    Port(usize),
    /// An arm that the action does not have, an action that is off, or one of another sheet.
    Nowhere,
}

impl Seat {
    /// Whether an action, or one arm of it, is on.
    #[inline]
    pub fn is_down(&self, row: impl Into<Row>) -> bool {
        match self.place(row.into()) {
            Place::Action(i) => self.state.actions[i].on > 0,
            Place::Port(i) => self.state.ports[i].on,
            Place::Nowhere => false,
        }
    }

    /// Whether it went on between the last two ticks, once per press.
    #[inline]
    pub fn went_down(&self, row: impl Into<Row>) -> bool {
        match self.place(row.into()) {
            Place::Action(i) => self.state.actions[i].began == self.state.frame,
            Place::Port(i) => self.state.ports[i].began == self.state.frame,
            Place::Nowhere => false,
        }
    }

    /// Whether it went off between the last two ticks.
    #[inline]
    pub fn went_up(&self, row: impl Into<Row>) -> bool {
        match self.place(row.into()) {
            Place::Action(i) => self.state.actions[i].ended == self.state.frame,
            Place::Port(i) => self.state.ports[i].ended == self.state.frame,
            Place::Nowhere => false,
        }
    }

    /// How long it has been on; nothing while it is off.
    pub fn down_for(&self, row: impl Into<Row>) -> Duration {
        let since = match self.place(row.into()) {
            Place::Action(i) => {
                let action = &self.state.actions[i];
                (action.on > 0).then_some(action.since)
            }
            Place::Port(i) => {
                let PortState { on, since, .. } = self.state.ports[i];
                on.then_some(since)
            }
            Place::Nowhere => None,
        };
        since.map_or(Duration::ZERO, |since| self.state.now.since(since))
    }

    /// The value of a press (0 or 1), a pull (0 to 1) or a line (−1 to 1), as of the last tick.
    pub fn value(&self, action: impl Into<ActionId>) -> f32 {
        self.space(action)[0]
    }

    /// The value of a plane, right and up positive, at most 1 long, as of the last tick.
    pub fn plane(&self, action: impl Into<ActionId>) -> [f32; 2] {
        let [x, y, _] = self.space(action);
        [x, y]
    }

    /// The value of a space, right, up and forward positive, at most 1 long, as of the last tick.
    pub fn space(&self, action: impl Into<ActionId>) -> [f32; 3] {
        let index = action.into().index();
        match (
            self.state.actions.get(index),
            self.rig.wiring().actions.get(index),
        ) {
            (Some(a), Some(w)) if w.shape == Shape::Press => {
                [f32::from(u8::from(a.on > 0)), 0.0, 0.0]
            }
            (Some(a), _) => a.value,
            (None, _) => [0.0; 3],
        }
    }

    /// How far the mouse or the wheel moved an action between the last two ticks.
    ///
    /// In the counts of the device times sensitivity, or 1 a notch; not limited to 1. Motion is a
    /// distance, where [`Seat::plane`] is a deflection: multiply that by time, but not this.
    pub fn motion(&self, action: impl Into<ActionId>) -> [f32; 3] {
        match self.state.actions.get(action.into().index()) {
            Some(a) if a.motion_frame == self.state.frame => a.motion,
            _ => [0.0; 3],
        }
    }

    /// How far a hold has got, from 0 to 1, for a ring on screen; 1 while the action is on.
    pub fn hold_progress(&self, action: impl Into<ActionId>) -> f32 {
        let action = action.into();
        if self.is_down(action) {
            return 1.0;
        }
        let wiring = self.rig.wiring();
        let timers = self.state.timers.iter();
        let progress = timers.filter_map(|&(due, index)| {
            let wire = &wiring.wires[usize::from(index)];
            if usize::from(wire.action) != action.index() {
                return None;
            }
            let since = self.state.wires[usize::from(index)].since;
            let whole = due.since(since).as_secs_f32();
            let gone = self.state.now.since(since).as_secs_f32();
            Some((gone / whole).min(1.0))
        });
        progress.fold(0.0, f32::max)
    }

    /// Whether a modifier is held, on either side.
    pub fn is_held(&self, modifier: Modifier) -> bool {
        let places = modifier.places(self.rig.platform());
        places
            .iter()
            .any(|&place| self.state.down[Control::key(place).index()] != 0)
    }

    /// Every input that is down or away from rest, for a listener to wait for.
    pub fn inputs_down(&self) -> Vec<Input> {
        let numbered = (6..=MouseButton::LAST)
            .filter_map(MouseButton::from_number)
            .map(Input::MouseButton)
            .chain((1..=HidInput::LAST_BUTTON).map(|n| Input::Hid(HidInput::Button(n))));
        let touch = self
            .rig
            .wiring()
            .touch_names
            .iter()
            .copied()
            .map(Input::Touch);
        (Input::all_named().chain(numbered).chain(touch))
            .filter(|&input| {
                let control = match input {
                    Input::Touch(name) => self.rig.wiring().touch(name),
                    fixed => Control::of_fixed(fixed),
                };
                control.is_some_and(|c| {
                    let held = self.state.down.get(c.index()).is_some_and(|d| *d != 0);
                    held || self.state.devices.level(c.index()) != [0.0; 2]
                })
            })
            .collect()
    }

    #[inline]
    fn place(&self, row: Row) -> Place {
        let index = row.action.index();
        let Some(arm) = row.arm else {
            return match index < self.state.actions.len() {
                true => Place::Action(index),
                false => Place::Nowhere,
            };
        };
        let Some(action) = self.rig.wiring().actions.get(index) else {
            return Place::Nowhere;
        };
        let offset = (arm as u8).checked_sub(action.first_arm);
        match offset.filter(|o| action.shape.has_arms() && *o < action.ports) {
            Some(offset) => Place::Port(usize::from(action.port) + usize::from(offset)),
            None => Place::Nowhere,
        }
    }

    /// The value of one arm, 0 to 1, as of the last tick.
    pub fn arm(&self, action: impl Into<ActionId>, arm: Arm) -> f32 {
        match self.place(Row::arm(action.into(), arm)) {
            Place::Port(i) => self.state.ports[i].ramp.at(self.state.now),
            Place::Action(_) | Place::Nowhere => 0.0,
        }
    }
}
