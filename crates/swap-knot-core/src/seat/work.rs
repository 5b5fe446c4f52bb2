//! Wires engaged and let go, by the design's rules of chords and manners.

use super::follow::follows;
use super::shaping::Ramp;
use super::state::{GaveUp, Phase, State};
use super::{Cause, Edge, Outcome};
use crate::input::{Control, MODIFIER_PLACES, Time};
use crate::rig::{ActionWiring, Part, Wire, Wiring};
use crate::sheet::{Arm, Begins};

impl State {
    /// Chord rule: of the chords that are satisfied, only the longest are begun.
    #[inline(never)]
    pub(super) fn press(&mut self, wiring: &Wiring, control: Control) {
        self.note_press(wiring, control);
        self.note_stirred(wiring, control);
        if self.trail.is_kept() {
            self.tell_silent(wiring, control);
            self.tell_wrong_order(wiring, control);
        }
        // It is a press of its own, whatever another device's belongs to.
        self.owned.retain(|owned| owned.control != control);
        let mut longest = self.longest_relative(wiring, control);
        let last_tap = self.last_tap_of(wiring, control);
        for &index in wiring.completed_by(control) {
            let wire = &wiring.wires[usize::from(index)];
            if wire.grade > 0.0 {
                // It begins further in; a longer chord hides the shorter ones from the first.
                if self.is_ready(wiring, index, wire) {
                    longest = longest.max(wire.held_len);
                    self.tell(wiring, control, Some(index), Outcome::NotFarEnough);
                } else {
                    self.tell_why_not(wiring, index, wire);
                }
                continue;
            }
            let begins = wire.held_len >= longest && self.is_ready(wiring, index, wire);
            if begins {
                longest = wire.held_len;
                if !wire.analog {
                    self.press_wire(wiring, index, last_tap);
                }
                continue;
            }
            if !wire.analog {
                self.tell_why_not(wiring, index, wire);
            }
            if self.wires[usize::from(index)].phase == Phase::Tapped {
                // This press was not the second half of its double tap.
                self.wires[usize::from(index)].phase = Phase::Idle;
                self.give_up(wire.action, GaveUp::BrokenOff(Cause::ChordBroken));
            }
        }
        if !self.owned.is_empty() {
            for &index in wiring.completed_by(control) {
                self.drop_if_unheld(wiring, index);
            }
        }
    }

    /// A press works a wire, unless that is on already by what was down before, or a double tap has the
    /// press for itself.
    fn press_wire(&mut self, wiring: &Wiring, index: u16, last_tap: Option<u16>) {
        let wire = &wiring.wires[usize::from(index)];
        let others = |by: &u16| {
            let by_as_long = wiring.wires[usize::from(*by)].held_len == wire.held_len;
            *by != index && by_as_long && !self.goes_on_beside(wiring, index)
        };
        let by = last_tap.filter(others);
        if self.wires[usize::from(index)].phase == Phase::On {
            self.tell(wiring, wire.control, Some(index), Outcome::AlreadyOn);
        } else if let Some(by) = by {
            let row = wiring.rows[usize::from(by)];
            self.tell(wiring, wire.control, Some(index), Outcome::OtherManner(row));
        } else {
            self.engage(wiring, index, wire);
        }
    }

    /// Whether a wire takes part in a press that is the last tap of another one: as a value, or as one more
    /// tap of its own.
    fn goes_on_beside(&self, wiring: &Wiring, index: u16) -> bool {
        let (wire, state) = (
            &wiring.wires[usize::from(index)],
            &self.wires[usize::from(index)],
        );
        let taps_on = state.phase == Phase::Tapped && state.taps < wire.manner.gesture().taps;
        taps_on || follows(wiring, wire)
    }

    /// The wire whose last tap a press of a control is: it is nothing else besides.
    fn last_tap_of(&self, wiring: &Wiring, control: Control) -> Option<u16> {
        let is_last_tap = |index: &u16| {
            let (wire, state) = (
                &wiring.wires[usize::from(*index)],
                &self.wires[usize::from(*index)],
            );
            let within = wiring.actions[usize::from(wire.action)]
                .easing
                .double_tap_within;
            state.phase == Phase::Tapped
                && state.taps >= wire.manner.gesture().taps
                && self.now <= state.since.plus_secs(within)
                && self.is_ready(wiring, *index, wire)
        };
        let mut all = wiring.completed_by(control).iter().copied();
        all.find(|index| is_last_tap(index))
    }

    /// A control was pressed: for chords whose parts are pressed together or latched by a tap.
    #[inline]
    pub(super) fn note_press(&mut self, wiring: &Wiring, control: Control) {
        // Touch inputs that the rig does not know are in no chord.
        if let Some(at) = self.pressed_at.get_mut(control.index()) {
            *at = self.now;
        }
        if wiring.latches {
            self.note_part(wiring, control);
        }
    }

    /// Something went down or up that chords hold, or that a strict binding does not want held.
    #[inline]
    fn note_stirred(&mut self, wiring: &Wiring, control: Control) {
        self.stirred |= wiring.routes.get(control.index()).is_some_and(|r| r.stirs);
    }

    /// Whether a wire could begin if its control were pressed now.
    #[inline]
    pub(super) fn is_ready(&self, wiring: &Wiring, index: u16, wire: &Wire) -> bool {
        self.live[usize::from(index)]
            && (wire.held_len == 0 || self.holds(wiring, wire))
            && (!wire.strict || self.other_modifier(wiring, wire).is_none())
            && (!wire.together || self.came_together(wiring, wire))
    }

    /// Whether a part of a chord is held, whatever it worked before, and not by the very event that is
    /// judged.
    fn is_held(&self, control: Control) -> bool {
        self.held.is_held(control) && !self.fresh.has(control)
    }

    /// Whether everything that a chord wants held is down.
    pub(super) fn holds(&self, wiring: &Wiring, wire: &Wire) -> bool {
        self.not_held(wiring, wire).is_none()
    }

    /// The first part that a chord wants held and that is not: either side of it would do.
    #[inline]
    pub(super) fn not_held(&self, wiring: &Wiring, wire: &Wire) -> Option<[Control; 2]> {
        let there = |c| self.is_held(c) || self.is_latched(wiring, wire, c);
        let mut held = wiring.held_of(wire).iter();
        held.find(|&&[a, b]| !there(a) && !there(b)).copied()
    }

    /// Whether everything that a chord wants held was pressed just before.
    pub(super) fn came_together(&self, wiring: &Wiring, wire: &Wire) -> bool {
        let within = wiring.actions[usize::from(wire.action)]
            .easing
            .together_within;
        let soon = |control: Control| {
            let is_fresh = self.held.is_down(control) && !self.fresh.has(control);
            is_fresh && self.now <= self.pressed_at[control.index()].plus_secs(within)
        };
        let mut held = wiring.held_of(wire).iter();
        held.all(|&[a, b]| soon(a) || soon(b))
    }

    /// A modifier that is held and no part of a chord.
    pub(super) fn other_modifier(&self, wiring: &Wiring, wire: &Wire) -> Option<Control> {
        let own = |modifier| {
            let mut held = wiring.held_of(wire).iter();
            wire.control == modifier || held.any(|pair| pair.contains(&modifier))
        };
        let mut all = MODIFIER_PLACES.map(Control::key).into_iter();
        all.find(|&modifier| self.held.is_held(modifier) && !own(modifier))
    }

    /// A button came up: what it completed ends by itself, what it was held for is broken off.
    #[inline(never)]
    pub(super) fn release(&mut self, wiring: &Wiring, control: Control) {
        let is_followed = self.held.is_followed(control);
        for &index in wiring.completed_by(control) {
            let wire = &wiring.wires[usize::from(index)];
            if !(wire.analog || is_followed && follows(wiring, wire)) {
                self.let_go(wiring, index);
            }
        }
        if wiring.latches {
            self.latch_part(wiring, control);
        }
        self.break_chords(wiring, control);
        self.note_stirred(wiring, control);
        if !self.taken.is_empty() || !self.owned.is_empty() {
            self.forget_rested();
        }
    }

    /// Chords that a control is held in end where nothing else holds them.
    pub(super) fn break_chords(&mut self, wiring: &Wiring, control: Control) {
        for &index in wiring.held_in(control) {
            let wire = &wiring.wires[usize::from(index)];
            let working = matches!(
                self.wires[usize::from(index)].phase,
                Phase::On | Phase::Pending
            );
            if !working || self.holds(wiring, wire) {
                continue;
            }
            if wire.together && self.cause == Cause::LetGo {
                // None of its parts is more the last one than another.
                self.let_go(wiring, index);
            } else {
                self.broken_by(wiring, index, Cause::ChordBroken);
            }
        }
    }

    #[inline]
    pub(super) fn engage(&mut self, wiring: &Wiring, index: u16, wire: &Wire) {
        let now = self.now;
        let ignore = wiring.actions[usize::from(wire.action)]
            .easing
            .ignore_within;
        let let_go_at = self.wires[usize::from(index)].let_go_at;
        if ignore > 0.0 && let_go_at.is_some_and(|at| now < at.plus_secs(ignore)) {
            self.tell(wiring, wire.control, Some(index), Outcome::TooSoon);
            return;
        }
        self.begin(wiring, index, wire);
    }

    /// A wire begins, whenever it ended last.
    pub(super) fn begin(&mut self, wiring: &Wiring, index: u16, wire: &Wire) {
        let now = self.now;
        if wire.held_len > 0 {
            self.use_up_held(wiring, wire);
            self.own(wiring, wire);
        }
        let easing = &wiring.actions[usize::from(wire.action)].easing;
        let gesture = wire.manner.gesture();
        let state = &mut self.wires[usize::from(index)];
        let was_tapped = state.phase == Phase::Tapped;
        let is_late = was_tapped && now > state.since.plus_secs(easing.double_tap_within);
        if !was_tapped || is_late {
            state.taps = 0;
        }
        state.since = now;
        let is_last = state.taps >= gesture.taps;
        if is_last && gesture.begins == Begins::Down {
            (state.phase, state.taps) = (Phase::On, 0);
            self.work(wiring, index);
        } else {
            state.phase = Phase::Pending;
            if is_last && gesture.begins == Begins::Held {
                let due = now.plus_secs(easing.hold_after);
                self.timers.push((due, index));
                self.next_timer = self.next_timer.min(due);
            }
        }
        if is_late {
            self.tell(wiring, wire.control, Some(index), Outcome::SecondTooLate);
            self.give_up(wire.action, GaveUp::TooLate);
        }
        if self.trail.is_kept() && self.wires[usize::from(index)].phase == Phase::Pending {
            self.tell_waiting(wiring, index);
        }
    }

    /// A chord uses its held parts up: a tap or hold that one of them might still have become is
    /// off.
    pub(super) fn use_up_held(&mut self, wiring: &Wiring, wire: &Wire) {
        self.pin_latches(wiring, wire);
        for pair in wiring.held_of(wire) {
            for &control in pair {
                for &other in wiring.completed_by(control) {
                    let phase = self.wires[usize::from(other)].phase;
                    if matches!(phase, Phase::Pending | Phase::Tapped) {
                        self.broken_by(wiring, other, Cause::ChordBroken);
                    }
                }
            }
        }
    }

    /// The completing input of a wire came up while the rest was held.
    #[inline]
    pub(super) fn let_go(&mut self, wiring: &Wiring, index: u16) {
        let now = self.now;
        let state = &mut self.wires[usize::from(index)];
        if matches!(state.phase, Phase::On | Phase::Pending) {
            state.let_go_at = Some(now);
        }
        match state.phase {
            Phase::Idle | Phase::Tapped => {}
            Phase::On => {
                state.phase = Phase::Idle;
                self.turn_off(wiring, index);
            }
            Phase::Pending => {
                let (since, taps) = (state.since, state.taps);
                (state.phase, state.taps) = (Phase::Idle, 0);
                let wire = &wiring.wires[usize::from(index)];
                let action = wire.action;
                let easing = &wiring.actions[usize::from(action)].easing;
                let gesture = wire.manner.gesture();
                let was_tap = || now <= since.plus_secs(easing.tap_within);
                let is_last = taps >= gesture.taps;
                match gesture.begins {
                    Begins::Up if is_last => self.pulse(wiring, index),
                    Begins::UpSoon if is_last && was_tap() => self.pulse(wiring, index),
                    _ if !is_last && was_tap() => {
                        let state = &mut self.wires[usize::from(index)];
                        (state.phase, state.taps) = (Phase::Tapped, taps + 1);
                        if self.trail.is_kept() {
                            self.tell_waiting(wiring, index);
                        }
                    }
                    begins => {
                        let is_short = is_last && begins == Begins::Held;
                        let (outcome, why) = match is_short {
                            true => (Outcome::TooShort, GaveUp::TooShort),
                            false => (Outcome::TooLong, GaveUp::TooLong),
                        };
                        if is_short {
                            self.forget_timer(index);
                        }
                        self.tell(wiring, wire.control, Some(index), outcome);
                        self.give_up(action, why);
                    }
                }
            }
        }
        self.end_latches(wiring, &wiring.wires[usize::from(index)]);
    }

    /// The same for a reason of its own, unless a greater one is behind it all.
    fn broken_by(&mut self, wiring: &Wiring, index: u16, cause: Cause) {
        let outer = self.cause;
        if outer == Cause::LetGo {
            self.cause = cause;
        }
        self.break_off(wiring, index);
        self.cause = outer;
    }

    /// An attempt that was not decided yet comes to nothing.
    fn give_up(&mut self, action: u16, why: GaveUp) {
        let frame = self.frame.wrapping_add(1);
        let state = &mut self.actions[usize::from(action)];
        state.gave_up = frame;
        state.why_gave_up = why;
        state.counted.gave_up = state.counted.gave_up.wrapping_add(1);
    }

    /// A wire ends before its time: a held part was let go, the focus went, the rig changed.
    pub(super) fn break_off(&mut self, wiring: &Wiring, index: u16) {
        let why = GaveUp::BrokenOff(self.cause);
        let state = &mut self.wires[usize::from(index)];
        let phase = std::mem::take(&mut state.phase);
        state.taps = 0;
        match phase {
            Phase::Idle => {}
            Phase::On => self.turn_off(wiring, index),
            Phase::Tapped => {
                self.tell_broken(wiring, index);
                self.give_up(wiring.wires[usize::from(index)].action, why);
            }
            Phase::Pending => {
                self.forget_timer(index);
                self.tell_broken(wiring, index);
                self.give_up(wiring.wires[usize::from(index)].action, why);
            }
        }
        if phase != Phase::Idle {
            self.end_latches(wiring, &wiring.wires[usize::from(index)]);
        }
        // What is broken off has no way down.
        self.wires[usize::from(index)].ramp = Ramp::default();
    }

    fn pulse(&mut self, wiring: &Wiring, index: u16) {
        self.work(wiring, index);
        self.turn_off(wiring, index);
    }

    fn forget_timer(&mut self, index: u16) {
        self.timers.retain(|&(_, wire)| wire != index);
        self.set_next_timer();
    }

    pub(super) fn set_next_timer(&mut self) {
        let due = self.timers.iter().map(|&(due, _)| due);
        self.next_timer = due.min().unwrap_or(Time::NEVER);
    }

    /// Begins every hold that is due, in the order in which they are.
    #[cold]
    pub(super) fn run_timers(&mut self, wiring: &Wiring, until: Time) {
        while self.next_timer <= until {
            let Some(at) = self
                .timers
                .iter()
                .position(|&(due, _)| due == self.next_timer)
            else {
                break;
            };
            let (due, index) = self.timers.remove(at);
            self.now = due;
            self.wires[usize::from(index)].phase = Phase::On;
            self.work(wiring, index);
            self.set_next_timer();
        }
        self.now = until;
    }

    /// A wire begins to work its action by its input, which is told.
    #[inline]
    pub(super) fn work(&mut self, wiring: &Wiring, index: u16) {
        if self.trail.is_kept() {
            self.work_told(wiring, index);
        } else {
            self.turn_on(wiring, index);
        }
    }

    /// A wire begins to work its action.
    #[inline]
    pub(super) fn turn_on(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        match wire.part {
            Part::Switch if wiring.actions[usize::from(wire.action)].easing.toggle => {
                let state = &mut self.actions[usize::from(wire.action)];
                state.latched = !state.latched;
                match state.latched {
                    true => self.action_on(wire.action),
                    false => self.action_off(wire.action),
                }
            }
            Part::Switch => self.action_on(wire.action),
            Part::Whole => {
                self.action_on(wire.action);
                self.mark_dirty(wire.action);
            }
            Part::Port(port) if toggles(wiring, wire) => self.flip(wiring, index, port),
            Part::Port(port) => {
                self.ramp_to(wiring, index, true);
                self.hold_port(wiring, wire.action, port);
            }
        }
    }

    /// A wire stops working its action.
    #[inline]
    pub(super) fn turn_off(&mut self, wiring: &Wiring, index: u16) {
        let wire = &wiring.wires[usize::from(index)];
        match wire.part {
            Part::Switch if wiring.actions[usize::from(wire.action)].easing.toggle => {}
            Part::Switch => self.action_off(wire.action),
            Part::Whole => {
                self.action_off(wire.action);
                self.mark_dirty(wire.action);
            }
            Part::Port(_) if toggles(wiring, wire) => {}
            Part::Port(port) => {
                self.ramp_to(wiring, index, false);
                self.free_port(wiring, wire.action, port);
            }
        }
    }

    /// One more holds a port on.
    #[inline]
    pub(super) fn hold_port(&mut self, wiring: &Wiring, action: u16, port: u16) {
        let state = &mut self.ports[usize::from(port)];
        state.count += 1;
        if state.count == 1 {
            self.port_on(wiring, action, port);
        }
        self.mark_dirty(action);
    }

    /// One less does.
    #[inline]
    pub(super) fn free_port(&mut self, wiring: &Wiring, action: u16, port: u16) {
        let state = &mut self.ports[usize::from(port)];
        state.count -= 1;
        if state.count == 0 {
            self.port_off(wiring, action, port);
        }
        self.mark_dirty(action);
    }

    /// A press of an arm or pull that toggles: on with it, and off with its opposite; or off.
    fn flip(&mut self, wiring: &Wiring, index: u16, port: u16) {
        let wire = &wiring.wires[usize::from(index)];
        if self.ports[usize::from(port)].latched {
            self.unlatch_port(wiring, port);
            return;
        }
        let (feel, now) = (wiring.feel(wire), self.now);
        let state = &mut self.ports[usize::from(port)];
        state.latched = true;
        state.scale = feel.sensitivity;
        state.ramp.head_for(1.0, feel.ramp_up, now);
        self.keep_ramping(index, feel.ramp_up);
        self.hold_port(wiring, wire.action, port);
        let action = &wiring.actions[usize::from(wire.action)];
        if action.shape.has_arms() {
            // Negative and positive arms lie in pairs.
            self.unlatch_port(wiring, action.port + ((port - action.port) ^ 1));
        }
    }

    /// Ends an arm or pull that toggles, if it is latched on.
    pub(super) fn unlatch_port(&mut self, wiring: &Wiring, port: u16) {
        if !std::mem::take(&mut self.ports[usize::from(port)].latched) {
            return;
        }
        let (start, end) = wiring.port_range[usize::from(port)];
        let all = &wiring.port_wires[start as usize..end as usize];
        let (mut down, now) = (0.0, self.now);
        if let Some(&index) = all
            .iter()
            .find(|&&i| toggles(wiring, &wiring.wires[usize::from(i)]))
        {
            down = wiring.feel(&wiring.wires[usize::from(index)]).ramp_down;
            self.keep_ramping(index, down);
        }
        self.ports[usize::from(port)].ramp.head_for(0.0, down, now);
        self.free_port(wiring, wiring.port_action[usize::from(port)], port);
    }

    #[inline]
    fn port_on(&mut self, wiring: &Wiring, action: u16, port: u16) {
        let frame = self.frame.wrapping_add(1);
        self.order = self.order.wrapping_add(1);
        let state = &mut self.ports[usize::from(port)];
        state.order = self.order;
        state.since = self.now;
        state.began = frame;
        state.counted.begun = state.counted.begun.wrapping_add(1);
        if let Some(arm) = arm_of(wiring, action, port) {
            self.note(action, Some(arm), Edge::Began);
        }
        self.action_on(action);
    }

    #[inline]
    pub(super) fn port_off(&mut self, wiring: &Wiring, action: u16, port: u16) {
        let frame = self.frame.wrapping_add(1);
        let state = &mut self.ports[usize::from(port)];
        state.ended = frame;
        state.until = self.now;
        state.cause = self.cause;
        state.counted.end(self.cause);
        if self.cause == Cause::LetGo {
            state.let_go = frame;
        }
        if let Some(arm) = arm_of(wiring, action, port) {
            self.note(action, Some(arm), Edge::Ended);
        }
        self.action_off(action);
    }

    #[inline]
    pub(super) fn action_on(&mut self, action: u16) {
        let frame = self.frame.wrapping_add(1);
        let now = self.now;
        let state = &mut self.actions[usize::from(action)];
        state.on += 1;
        if state.on == 1 {
            state.since = now;
            state.began = frame;
            state.counted.begun = state.counted.begun.wrapping_add(1);
            self.note(action, None, Edge::Began);
        }
    }

    #[inline]
    pub(super) fn action_off(&mut self, action: u16) {
        let frame = self.frame.wrapping_add(1);
        let (now, cause) = (self.now, self.cause);
        let state = &mut self.actions[usize::from(action)];
        state.on -= 1;
        if state.on == 0 {
            state.ended = frame;
            state.until = now;
            state.cause = cause;
            state.counted.end(cause);
            if cause == Cause::LetGo {
                state.let_go = frame;
            }
            self.note(action, None, Edge::Ended);
        }
    }

    #[inline]
    pub(super) fn mark_dirty(&mut self, action: u16) {
        let state = &mut self.actions[usize::from(action)];
        if !state.dirty {
            state.dirty = true;
            self.dirty.push(action);
        }
    }

    /// Ends what toggles of an action, if it is latched on.
    pub(super) fn unlatch(&mut self, wiring: &Wiring, action: u16) {
        if std::mem::take(&mut self.actions[usize::from(action)].latched) {
            self.action_off(action);
        }
        let ActionWiring { port, ports, .. } = wiring.actions[usize::from(action)];
        for port in port..port + u16::from(ports) {
            self.unlatch_port(wiring, port);
        }
    }
}

/// Whether a wire flips its arm or pull rather than holding it: keys and buttons do where the action
/// toggles, and what follows how far it is in does not.
pub(super) fn toggles(wiring: &Wiring, wire: &Wire) -> bool {
    !wire.analog && wiring.actions[usize::from(wire.action)].easing.toggle
}

/// The arm that a port is, for actions that have arms.
#[inline]
pub(super) fn arm_of(wiring: &Wiring, action: u16, port: u16) -> Option<Arm> {
    let action = &wiring.actions[usize::from(action)];
    if !action.shape.has_arms() {
        return None;
    }
    Some(Arm::ALL[usize::from(port - action.port) + usize::from(action.first_arm)])
}
