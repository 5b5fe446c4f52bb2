//! Actions that the game works itself: for bots, tests, cutscenes and players elsewhere.

use super::Seat;
use super::queue::Odd;
use super::state::{Phase, State};
use crate::input::Time;
use crate::rig::{Rig, Wiring};
use crate::sheet::{ActionId, ActionRef, Arm, RowRef, Shape};

/// Something that the game does for the player.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Driven {
    pub(super) action: ActionId,
    pub(super) how: How,
}

#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum How {
    /// An arm, a pull or a press is so far in.
    Row(Option<Arm>, f32),
    /// The whole is at a value.
    To([f32; 3]),
    /// It moves by a distance.
    By([f32; 3]),
}

impl State {
    /// Counts anew what the game has in by itself.
    pub(super) fn count_driven(&mut self) {
        self.drives = self.wires.iter().filter(|wire| wire.driven > 0.0).count();
    }

    pub(super) fn drive(&mut self, wiring: &Wiring, at: Time, driven: &Driven) {
        self.advance(wiring, at);
        self.add_up_rates(wiring);
        let Some(index) = driven.action.of(self.stamp) else {
            return;
        };
        let action = &wiring.actions[index];
        if action.driven == u16::MAX {
            return;
        }
        match (driven.how, action.shape) {
            (How::By(by), _) => {
                if self.live[usize::from(action.driven)] {
                    self.add_motion(index as u16, by.map(f64::from));
                }
            }
            (How::Row(None, far) | How::To([far, ..]), Shape::Press) => {
                let far = if far >= 0.5 { 1.0 } else { 0.0 };
                self.drive_wire(wiring, action.driven, far);
            }
            (How::Row(None, far) | How::To([far, ..]), Shape::Pull) => {
                self.drive_wire(wiring, action.driven, far);
            }
            (How::Row(Some(arm), far), _) => {
                let offset = (arm as u8).checked_sub(action.first_arm);
                if let Some(offset) = offset.filter(|o| *o < action.ports) {
                    self.drive_wire(wiring, action.driven + u16::from(offset), far);
                }
            }
            (How::Row(None, far), _) => self.drive_axes(wiring, index, [far, 0.0, 0.0]),
            (How::To(value), _) => self.drive_axes(wiring, index, value),
        }
    }

    /// Each axis by its two arms: first all that goes in, so that the action goes on while it swings
    /// from one arm to another.
    fn drive_axes(&mut self, wiring: &Wiring, index: usize, value: [f32; 3]) {
        let action = wiring.actions[index];
        let arms = (0..u16::from(action.ports)).map(|n| {
            let along = value[usize::from(n / 2)];
            (action.driven + n, if n % 2 == 0 { -along } else { along })
        });
        let goes_in = |far: f32| far > 0.0;
        for (wire, far) in arms.clone().filter(|(_, far)| goes_in(*far)) {
            self.drive_wire(wiring, wire, far);
        }
        for (wire, _) in arms.filter(|(_, far)| !goes_in(*far)) {
            self.drive_wire(wiring, wire, 0.0);
        }
    }

    fn drive_wire(&mut self, wiring: &Wiring, index: u16, far: f32) {
        let at = usize::from(index);
        let state = &mut self.wires[at];
        // What is no number is at rest.
        let far = if far > 0.0 { far.min(1.0) } else { 0.0 };
        let was_in = state.driven > 0.0;
        let leaves_rest = !was_in && far > 0.0;
        state.driven = far;
        self.drives = self.drives + usize::from(far > 0.0) - usize::from(was_in);
        if state.phase == Phase::On {
            if far == 0.0 {
                state.phase = Phase::Idle;
                self.turn_off(wiring, index);
            }
            self.mark_dirty(wiring.wires[at].action);
        } else if leaves_rest && self.live[at] {
            let state = &mut self.wires[at];
            state.phase = Phase::On;
            state.since = self.now;
            self.turn_on(wiring, index);
        }
    }
}

impl State {
    /// What the game has in goes on where it becomes live, as what a hand holds does.
    pub(super) fn take_up_driven(&mut self, wiring: &Wiring, index: u16) {
        let state = &mut self.wires[usize::from(index)];
        if state.driven > 0.0 {
            (state.phase, state.since) = (Phase::On, self.now);
            self.turn_on(wiring, index);
            self.mark_dirty(wiring.wires[usize::from(index)].action);
        }
    }
}

impl super::queue::Queue {
    /// What waits for actions of one sheet waits for those of the same names in another.
    pub(super) fn rename(&mut self, old: &Rig, new: &Rig) {
        let driven = self.odd.iter_mut().filter_map(|(_, odd)| match odd {
            Odd::Driven(driven) => Some(driven),
            Odd::Overheard => None,
        });
        for driven in driven {
            let name = &old.sheet().declared(driven.action).name;
            // An id that the new sheet does not know means nothing to it.
            driven.action = new.sheet().find(name).unwrap_or(driven.action);
        }
    }
}

impl Seat {
    /// Works a row without an input, as if by a hand: a press from a half on, a pull or an arm from 0
    /// to 1, a line from −1 to 1. It stays so far in until it is driven otherwise; 0 lets it go.
    ///
    /// For bots, tests, cutscenes and players elsewhere. It takes the same way as an event: it is
    /// judged in its time, makes the same edges, and is silent where the action is not live or a
    /// situation covers everything below; a press that was silenced waits for its next rest, and a value
    /// is taken up again. The player's own inputs work on beside it.
    ///
    /// ```
    /// use swap_knot::sheet::Arm;
    /// use swap_knot::{Layout, Profile, Rig, Seat, Sheet, Time};
    ///
    /// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.walk]\nshape = \"plane\"")?;
    /// let walk = sheet.find("walk").expect("declared above");
    /// let mut bot = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
    /// bot.drive(Time::from_millis(5), (walk, Arm::Up), 1.0);
    /// bot.tick(Time::from_millis(16));
    /// assert!(bot.went_down((walk, Arm::Up)));
    /// assert_eq!(bot.plane(walk), [0.0, 1.0]);
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn drive(&mut self, at: Time, row: impl Into<RowRef>, how_far: f32) {
        let (action, arm) = row.into().parts();
        self.put_driven(at, action, How::Row(arm, how_far));
    }

    /// Works a whole line, plane or space to a value, arm by arm; see [`Seat::drive`].
    pub fn drive_to(&mut self, at: Time, action: impl Into<ActionRef>, value: [f32; 3]) {
        self.put_driven(at, action.into(), How::To(value));
    }

    /// Moves an action by a distance, as a mouse does; see [`Seat::drive`].
    pub fn drive_by(&mut self, at: Time, action: impl Into<ActionRef>, by: [f32; 3]) {
        let by = by.map(|v| if v.is_finite() { v } else { 0.0 });
        self.put_driven(at, action.into(), How::By(by));
    }

    fn put_driven(&mut self, at: Time, action: ActionRef, how: How) {
        if let Some(index) = self.rig.sheet().index_of(action) {
            let action = self.rig.sheet().action_id(index);
            self.queue.drive(at, Driven { action, how });
        }
    }
}
