//! What the game asks of a seat.

use std::hash::{DefaultHasher, Hash as _, Hasher as _};
use std::time::Duration;

use super::state::GaveUp;
use super::{Cause, Outcome, Seat};
use crate::book::Held;
use crate::input::{Control, DeviceKind, Input, Modifier, Time};
use crate::law::Bound;
use crate::sheet::{ActionRef, Arm, RowRef, Shape};

/// Which state answers for a row.
pub(super) enum Place {
    Action(usize),
    Port(usize),
    /// An arm that the action does not have, an action that is off, or one of another sheet.
    Nowhere,
}

impl Seat {
    /// Whether an action, or one arm of it, is on.
    #[inline]
    pub fn is_down(&self, row: impl Into<RowRef>) -> bool {
        match self.place(row.into()) {
            Place::Action(i) => self.state.actions[i].on > 0,
            Place::Port(i) => self.state.ports[i].is_on(),
            Place::Nowhere => false,
        }
    }

    /// Whether it went on between the last two ticks, once per press.
    #[inline]
    pub fn went_down(&self, row: impl Into<RowRef>) -> bool {
        match self.place(row.into()) {
            Place::Action(i) => self.state.actions[i].began == self.state.frame,
            Place::Port(i) => self.state.ports[i].began == self.state.frame,
            Place::Nowhere => false,
        }
    }

    /// Whether it went off between the last two ticks.
    #[inline]
    pub fn went_up(&self, row: impl Into<RowRef>) -> bool {
        match self.place(row.into()) {
            Place::Action(i) => self.state.actions[i].ended == self.state.frame,
            Place::Port(i) => self.state.ports[i].ended == self.state.frame,
            Place::Nowhere => false,
        }
    }

    /// Whether it went off between the last two ticks because the player let go, and not for another
    /// [`Cause`]: what a charged shot is fired by. Of several ends one is enough.
    pub fn was_let_go(&self, row: impl Into<RowRef>) -> bool {
        match self.place(row.into()) {
            Place::Action(i) => self.state.actions[i].let_go == self.state.frame,
            Place::Port(i) => self.state.ports[i].let_go == self.state.frame,
            Place::Nowhere => false,
        }
    }

    /// Why it last ended; none while it never did.
    pub fn last_end(&self, row: impl Into<RowRef>) -> Option<Cause> {
        let (counted, cause) = match self.place(row.into()) {
            Place::Action(i) => (self.state.actions[i].counted, self.state.actions[i].cause),
            Place::Port(i) => (self.state.ports[i].counted, self.state.ports[i].cause),
            Place::Nowhere => return None,
        };
        (counted.ended > 0).then_some(cause)
    }

    /// How long the last press of it was, or the one that it is on by has been until now.
    pub fn last_press(&self, row: impl Into<RowRef>) -> Duration {
        let row = row.into();
        match (self.last_begin(row), self.last_until(row)) {
            _ if self.is_down(row) => self.down_for(row),
            (Some(since), Some(until)) => until.since(since),
            _ => Duration::ZERO,
        }
    }

    /// Whether a hold, tap or double tap of an action was begun and came to nothing between the last
    /// two ticks: let go too soon or too late, or broken off. A first tap that no second one follows
    /// makes no double tap, and is told of when the next press shows it.
    pub fn gave_up(&self, action: impl Into<ActionRef>) -> bool {
        let index = self.index(action.into());
        index.is_some_and(|i| self.state.actions[i].gave_up == self.state.frame)
    }

    /// Why an attempt at an action last came to nothing: [`Outcome::TooShort`], [`Outcome::TooLong`],
    /// [`Outcome::SecondTooLate`], or [`Outcome::BrokenOff`] with what broke it off; none while none
    /// did. See [`Seat::gave_up`].
    pub fn why_gave_up(&self, action: impl Into<ActionRef>) -> Option<Outcome> {
        let index = self.index(action.into())?;
        match self.state.actions[index].why_gave_up {
            GaveUp::Never => None,
            GaveUp::TooShort => Some(Outcome::TooShort),
            GaveUp::TooLong => Some(Outcome::TooLong),
            GaveUp::TooLate => Some(Outcome::SecondTooLate),
            GaveUp::BrokenOff(cause) => Some(Outcome::BrokenOff(cause)),
        }
    }

    /// When a row last went on.
    pub(super) fn last_begin(&self, row: RowRef) -> Option<Time> {
        let (counted, since) = match self.place(row) {
            Place::Action(i) => (self.state.actions[i].counted, self.state.actions[i].since),
            Place::Port(i) => (self.state.ports[i].counted, self.state.ports[i].since),
            Place::Nowhere => return None,
        };
        (counted.begun > 0).then_some(since)
    }

    /// When a row last went off.
    pub(super) fn last_until(&self, row: RowRef) -> Option<Time> {
        let (counted, until) = match self.place(row) {
            Place::Action(i) => (self.state.actions[i].counted, self.state.actions[i].until),
            Place::Port(i) => (self.state.ports[i].counted, self.state.ports[i].until),
            Place::Nowhere => return None,
        };
        (counted.ended > 0).then_some(until)
    }

    /// How long it has been on; nothing while it is off.
    pub fn down_for(&self, row: impl Into<RowRef>) -> Duration {
        let since = match self.place(row.into()) {
            Place::Action(i) => {
                let action = &self.state.actions[i];
                (action.on > 0).then_some(action.since)
            }
            Place::Port(i) => {
                let port = &self.state.ports[i];
                port.is_on().then_some(port.since)
            }
            Place::Nowhere => None,
        };
        since.map_or(Duration::ZERO, |since| self.state.now.since(since))
    }

    /// The value of a press (0 or 1), a pull (0 to 1) or a line (−1 to 1), as of the last tick.
    pub fn value(&self, action: impl Into<ActionRef>) -> f32 {
        self.space(action)[0]
    }

    /// The value of a plane, right and up positive, at most 1 long, as of the last tick.
    pub fn plane(&self, action: impl Into<ActionRef>) -> [f32; 2] {
        let [x, y, _] = self.space(action);
        [x, y]
    }

    /// The value of a space, right, up and forward positive, at most 1 long, as of the last tick.
    pub fn space(&self, action: impl Into<ActionRef>) -> [f32; 3] {
        let Some(index) = self.index(action.into()) else {
            return [0.0; 3];
        };
        let state = &self.state.actions[index];
        // A press is as far in as it is on, and has nothing else to it.
        if state.on > 0 && state.value[0] == 0.0 && self.is_press(index) {
            return [1.0, 0.0, 0.0];
        }
        state.value
    }

    fn is_press(&self, index: usize) -> bool {
        self.rig.wiring().actions[index].shape == Shape::Press
    }

    /// How far the mouse or the wheel moved an action between the last two ticks.
    ///
    /// In the counts of the device times sensitivity, or 1 a notch; not limited to 1. Motion is a
    /// distance, where [`Seat::plane`] is a deflection: multiply that by time, but not this.
    pub fn motion(&self, action: impl Into<ActionRef>) -> [f32; 3] {
        let index = self.index(action.into());
        match index.map(|i| &self.state.actions[i]) {
            Some(a) if a.motion_frame == self.state.frame => a.motion,
            _ => [0.0; 3],
        }
    }

    /// How far a hold has got, from 0 to 1, for a ring on screen; 1 while the action is on.
    pub fn hold_progress(&self, action: impl Into<ActionRef>) -> f32 {
        self.index(action.into()).map_or(0.0, |i| self.progress(i))
    }

    #[inline]
    fn progress(&self, action: usize) -> f32 {
        if self.state.actions[action].on > 0 {
            return 1.0;
        }
        if self.state.timers.is_empty() {
            return 0.0;
        }
        self.progress_of_holds(action)
    }

    fn progress_of_holds(&self, action: usize) -> f32 {
        let wiring = self.rig.wiring();
        let timers = self.state.timers.iter();
        let progress = timers.filter_map(|&(due, index)| {
            let wire = &wiring.wires[usize::from(index)];
            if usize::from(wire.action) != action {
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
            .any(|&place| self.state.held.is_down(Control::key(place)))
    }

    /// The bindings that count in the situations of now, as the judge has it; whether what they are on
    /// is held or spent makes no difference.
    pub fn live_bindings(&self) -> impl Iterator<Item = &Bound> {
        let wires = self.rig.wiring().of.iter().zip(&self.state.live);
        let mut last = None;
        let live = wires.filter_map(move |(of, is_live)| {
            // Several wires of one binding lie beside each other.
            let is_new = *is_live && last != Some(*of);
            last = last.filter(|_| !is_new).or(is_new.then_some(*of));
            is_new.then_some(*of)
        });
        live.filter_map(|at| self.rig.bindings().get(at))
    }

    /// Every input that is down or away from rest, bound or not.
    pub fn inputs_down(&self) -> Vec<Input> {
        self.state.held.inputs()
    }

    /// What is held on the devices of this player, for a listener to start from.
    pub fn held(&self) -> &Held {
        &self.state.held
    }

    #[inline(always)]
    pub(super) fn place(&self, row: RowRef) -> Place {
        // What a game asks most goes no way round by the sheet.
        match row.as_id() {
            Some(id) => match id.of(self.state.stamp) {
                Some(index) => {
                    self.asked.mark(index);
                    Place::Action(index)
                }
                None => Place::Nowhere,
            },
            None => self.place_slow(row),
        }
    }

    /// Where an action stands in the tables.
    pub(super) fn action_index(&self, action: ActionRef) -> Option<usize> {
        self.index(action)
    }

    #[inline]
    fn index(&self, action: ActionRef) -> Option<usize> {
        // What a game asks most goes no way round by the sheet.
        if let Some(id) = action.as_id() {
            let index = id.of(self.state.stamp)?;
            self.asked.mark(index);
            return Some(index);
        }
        self.index_slow(action)
    }

    fn index_slow(&self, action: ActionRef) -> Option<usize> {
        let index = self.rig.sheet().index_of(action)?;
        self.asked.mark(index);
        Some(index)
    }

    fn place_slow(&self, row: RowRef) -> Place {
        let (action, arm) = row.parts();
        let Some(index) = self.index(action) else {
            return Place::Nowhere;
        };
        let Some(arm) = arm else {
            return Place::Action(index);
        };
        let action = &self.rig.wiring().actions[index];
        let offset = (arm as u8).checked_sub(action.first_arm);
        match offset.filter(|o| action.shape.has_arms() && *o < action.ports) {
            Some(offset) => Place::Port(usize::from(action.port) + usize::from(offset)),
            None => Place::Nowhere,
        }
    }

    /// The value of one arm, 0 to 1, as of the last tick.
    pub fn arm(&self, action: impl Into<ActionRef>, arm: Arm) -> f32 {
        match self.place(RowRef::new(action.into(), Some(arm))) {
            Place::Port(i) => self.state.ports[i].value,
            Place::Action(_) | Place::Nowhere => 0.0,
        }
    }
    /// A number that is another one when an answer of the seat is: for an engine that wants to know
    /// whether a player changed. It asks for nothing, see [`Seat::never_asked`].
    pub fn fingerprint(&self) -> u64 {
        let (mut hasher, state) = (DefaultHasher::new(), &self.state);
        self.device_kind().hash(&mut hasher);
        let frame = state.frame;
        for (index, action) in state.actions.iter().enumerate() {
            action.value.map(f32::to_bits).hash(&mut hasher);
            (action.on, action.began == frame, action.ended == frame).hash(&mut hasher);
            let moved = action.motion_frame == frame;
            moved
                .then_some(action.motion.map(f32::to_bits))
                .hash(&mut hasher);
            self.progress(index).to_bits().hash(&mut hasher);
            (action.gave_up == frame).hash(&mut hasher);
        }
        for turned in &state.turned_in_frame {
            turned.map(f64::to_bits).hash(&mut hasher);
        }
        for kind in DeviceKind::ALL {
            let used = state.kind.last(kind).map(|u| (u.device, u.at));
            used.hash(&mut hasher);
        }
        for latch in &state.latches.on {
            (latch.part, state.now <= latch.at).hash(&mut hasher);
        }
        for port in &state.ports {
            (port.is_on(), port.began == frame, port.ended == frame).hash(&mut hasher);
            port.value.to_bits().hash(&mut hasher);
        }
        hasher.finish()
    }

    /// Uses an action, or one arm of it, up: it ends once ([`Cause::Spent`]), and what works it is
    /// silent until it has been at rest. For a press that a game has answered and that shall go on to
    /// nothing else.
    pub fn spend(&mut self, row: impl Into<RowRef>) {
        let place = self.place(row.into());
        let wiring = self.rig.wiring();
        match place {
            Place::Action(i) => self.state.spend(wiring, i, None),
            Place::Port(i) => {
                let action = usize::from(wiring.port_action[i]);
                self.state.spend(wiring, action, Some(i as u16));
            }
            Place::Nowhere => {}
        }
        self.state.settle(self.rig.wiring());
    }
}
