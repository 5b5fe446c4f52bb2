//! The way of an event in: the short one for what most of them do, and the one that is judged.

use super::judge::follows;
use super::kind::DeviceUse;
use super::state::{Fresh, Phase, State};
use super::{Cause, Outcome};
use crate::book::{Change, Held, notched};
use crate::input::{
    Control, DeviceId, DeviceKind, Direction, Event, EventKind, HidAxis, Place, Sign, Stick, Time,
    amount, distance,
};
use crate::rig::Wiring;

/// For what a control that is down counts.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Counts {
    /// For what begins by it.
    down: bool,
    /// As a part of a chord.
    held: bool,
    /// For what follows it.
    followed: bool,
}

impl Counts {
    fn of(held: &Held, control: Control) -> Counts {
        Counts {
            down: held.is_down(control),
            held: held.is_held(control),
            followed: held.is_followed(control),
        }
    }
}

impl State {
    /// Events that are played, in the order of time.
    pub(super) fn feed_all(&mut self, wiring: &Wiring, events: &[Event]) {
        // A rate goes by every single movement of a stick.
        let no_rates = wiring.rates.is_empty();
        for event in events {
            if event.at < self.now {
                self.feed_late(wiring, event);
            } else if self.held.hear(event) {
                self.feed_again(wiring, event);
            } else if let EventKind::Key { place, down, .. } = event.what {
                self.key(wiring, event, place, down);
            } else if !(no_rates && self.feed_quick(event)) {
                self.feed(wiring, event);
            }
        }
        if let Some(last) = events.last() {
            self.advance(wiring, last.at);
        }
    }

    /// An event of a time that is over.
    #[cold]
    fn feed_late(&mut self, wiring: &Wiring, event: &Event) {
        self.at_its_time(wiring, event.at, |state| match state.held.hear(event) {
            true => state.feed_again(wiring, event),
            false => state.feed(wiring, event),
        });
    }

    /// An event of a device that is heard of again.
    #[cold]
    fn feed_again(&mut self, wiring: &Wiring, event: &Event) {
        self.note_waits(wiring, None);
        self.stirred = true;
        self.reach(wiring, event);
        self.judge(wiring, event);
        self.take_up(wiring, None);
    }

    /// Judges something with its own time, also when that is over already: it keeps its stamp, and what
    /// was told stays as it was.
    pub(super) fn at_its_time(
        &mut self,
        wiring: &Wiring,
        at: Time,
        judge: impl FnOnce(&mut State),
    ) {
        let reached = self.now;
        if at >= reached {
            return judge(self);
        }
        self.now = at;
        judge(self);
        self.now = at;
        self.advance(wiring, reached);
    }

    /// Time goes by up to an event, by which something is about to change.
    #[inline(always)]
    fn reach(&mut self, wiring: &Wiring, event: &Event) {
        self.advance(wiring, event.at);
        self.add_up_rates(wiring);
        self.feeding = event.device;
    }

    /// A key went down or up, or repeats. Apart from the loop, as all that is judged, so that the loop
    /// stays as small as what it mostly does.
    #[inline(never)]
    fn key(&mut self, wiring: &Wiring, event: &Event, place: Place, down: bool) {
        self.reach(wiring, event);
        let of = (event.device, DeviceKind::Keyboard);
        self.button_of(wiring, Control::key(place), down, of);
        if self.stirred {
            self.settle_values(wiring);
        }
    }

    /// Judges an event that is of no key.
    #[inline(never)]
    fn feed(&mut self, wiring: &Wiring, event: &Event) {
        self.reach(wiring, event);
        if !wiring.rates.is_empty() && self.feed_quick(event) {
            return;
        }
        self.judge(wiring, event);
    }

    #[inline(always)]
    fn judge(&mut self, wiring: &Wiring, event: &Event) {
        self.feed_slow(wiring, event);
        if self.stirred {
            self.settle_values(wiring);
        }
    }

    #[inline(always)]
    fn feed_slow(&mut self, wiring: &Wiring, event: &Event) {
        let device = event.device;
        match event.what {
            EventKind::MouseMove { x, y } => {
                let (by, far) = distance([x, y]);
                self.kind.mouse_move(device, self.now, far);
                self.motion(wiring, by);
            }
            EventKind::PadStick { stick, x, y } => {
                self.stick(wiring, stick, [x, y].map(amount), device);
            }
            EventKind::PadButton { button, value } => {
                let (control, value) = (Control::pad(button), amount(value).max(0.0));
                if button.is_trigger() {
                    self.trigger(wiring, control, value, device);
                    return;
                }
                let slot = self.held.slot(device);
                if let Some(down) = self.held.pressed(slot, control, value) {
                    self.button(wiring, control, down, device, DeviceKind::Gamepad);
                }
            }
            EventKind::PadGyro { yaw, pitch, roll } => {
                self.turned_in_hands(wiring, distance([yaw, pitch, roll]).0);
            }
            other => self.feed_other(wiring, device, other.in_range()),
        }
    }

    /// The less frequent kinds of events, with their numbers in range.
    fn feed_other(&mut self, wiring: &Wiring, device: DeviceId, what: EventKind) {
        match what {
            EventKind::Wheel { direction } => {
                self.meant(device, DeviceKind::Mouse, true);
                self.whole_notch(wiring, Control::wheel(direction));
            }
            EventKind::Scroll { x, y } => {
                let slot = self.held.slot(device);
                self.scroll(wiring, device, slot, [x, y]);
            }
            EventKind::HidAxis { axis, value } => self.axis(wiring, axis, value, device),
            EventKind::Touch { name, down } => {
                if let Some(control) = self.held.touch_control(name) {
                    self.button(wiring, control, down, device, DeviceKind::Touch);
                }
            }
            EventKind::TouchStick { name, x, y } => {
                if let Some(control) = self.held.touch_control(name) {
                    let slot = self.held.slot(device);
                    self.held.set_level(slot, control, [x, y]);
                    self.pulled(wiring, device, slot, control);
                }
            }
            EventKind::KeyHeld { place } => {
                self.held.hold_spent(device, Control::key(place));
                self.take_up(wiring, None);
            }
            EventKind::Unplugged => {
                self.lose(wiring, Cause::Unplugged, |held| held.unplug(device));
                self.kind.forget(device);
                self.lose_latches(wiring, device, Cause::Unplugged);
            }
            EventKind::FocusLost => {
                self.lose(wiring, Cause::Focus, |held| held.spend(device));
                self.lose_latches(wiring, device, Cause::Focus);
            }
            other => {
                if let Some((control, down)) = other.as_button() {
                    self.button(wiring, control, down, device, control.device_kind());
                }
            }
        }
    }

    /// A trigger or an on-screen stick moved: it may be followed, and it is down or up.
    #[inline(never)]
    fn pulled(&mut self, wiring: &Wiring, device: DeviceId, slot: usize, control: Control) {
        let change = self.held.pulled(slot, control);
        self.changed(device, control, change);
        self.edge(wiring, control, change);
        self.grade(wiring, control);
        self.follow(wiring, std::iter::once(control));
    }

    /// What changed on one device, where it changes anything for the seat.
    pub(super) fn edge(&mut self, wiring: &Wiring, control: Control, change: Change) {
        match change {
            Change::Down { first: true } => self.press(wiring, control),
            Change::Up { last: true } => self.release(wiring, control),
            Change::Rested if !self.held.is_held(control) => self.release(wiring, control),
            Change::Rested => self.drop_unheld(wiring),
            Change::Spent => self.tell(wiring, control, None, Outcome::Spent),
            _ => {}
        }
    }

    fn changed(&mut self, device: DeviceId, control: Control, change: Change) {
        let down = matches!(change, Change::Down { .. });
        self.meant(device, control.device_kind(), down);
    }

    /// A device was worked on purpose, if `really`.
    #[inline(always)]
    pub(super) fn meant(&mut self, device: DeviceId, kind: DeviceKind, really: bool) {
        let at = self.now;
        self.kind.meant(DeviceUse { device, kind, at }, really);
    }

    #[inline(never)]
    fn trigger(&mut self, wiring: &Wiring, control: Control, value: f32, device: DeviceId) {
        let slot = self.held.slot(device);
        self.held.set_level(slot, control, [value, 0.0]);
        self.pulled(wiring, device, slot, control);
        self.find_glide(wiring, slot, control);
    }

    #[inline(never)]
    fn stick(&mut self, wiring: &Wiring, stick: Stick, at: [f32; 2], device: DeviceId) {
        let slot = self.held.slot(device);
        let whole = Control::stick(stick);
        self.held.set_level(slot, whole, at);
        let halves = Direction::ALL.map(|d| Control::stick_half(stick, d));
        self.halves(wiring, (device, slot), whole, halves, true);
        self.find_glide(wiring, slot, whole);
    }

    #[inline(never)]
    fn axis(&mut self, wiring: &Wiring, axis: HidAxis, value: f32, device: DeviceId) {
        let slot = self.held.slot(device);
        let whole = Control::hid_axis(axis);
        // Where a throttle stands when it is first heard of says nothing about its player.
        let known = self.held.set_level(slot, whole, [value, 0.0]);
        let halves = [Sign::Positive, Sign::Negative].map(|s| Control::hid_half(axis, s));
        self.halves(wiring, (device, slot), whole, halves, known);
    }

    /// A whole stick or axis moved, and its halves with it: what ends does so first, and none of
    /// what goes down is held before the others.
    fn halves<const N: usize>(
        &mut self,
        wiring: &Wiring,
        (device, slot): (DeviceId, usize),
        whole: Control,
        halves: [Control; N],
        known: bool,
    ) {
        let was_held = halves.map(|half| self.held.is_held(half));
        let changes = halves.map(|half| self.held.pulled(slot, half));
        self.held.moved(slot, whole);
        self.fresh.first = halves[0].0;
        self.fresh.bits = 0;
        let goes_down = |change: Change| change == Change::Down { first: true };
        for (n, (&half, &change)) in halves.iter().zip(&changes).enumerate() {
            if known {
                self.changed(device, half, change);
            }
            match goes_down(change) {
                true => self.fresh.bits |= u8::from(!was_held[n]) << n,
                false => self.edge(wiring, half, change),
            }
        }
        for (&half, &change) in halves.iter().zip(&changes) {
            if goes_down(change) {
                self.press(wiring, half);
            }
        }
        for half in halves {
            self.grade(wiring, half);
        }
        self.fresh = Fresh::default();
        self.follow(wiring, halves.into_iter().chain([whole]));
    }

    /// Devices are lost, or do not count for a while: whatever they alone held is broken off, and
    /// what others hold goes on.
    #[inline(never)]
    pub(super) fn lose(&mut self, wiring: &Wiring, cause: Cause, how: impl FnOnce(&mut Held)) {
        let outer = std::mem::replace(&mut self.cause, cause);
        let all = || (0..wiring.routes.len()).map(|n| Control(n as u16));
        let mut before = std::mem::take(&mut self.scratch);
        before.clear();
        before.extend(all().map(|c| Counts::of(&self.held, c)));
        how(&mut self.held);
        for control in all() {
            let (was, is) = (before[control.index()], Counts::of(&self.held, control));
            if was == is {
                continue;
            }
            for &index in wiring.completed_by(control) {
                let wire = &wiring.wires[usize::from(index)];
                let gone = match follows(wiring, wire) {
                    true => was.followed && !is.followed,
                    false if was.down => !is.down,
                    false => was.held && !is.held,
                };
                let phase = self.wires[usize::from(index)].phase;
                if gone && !wire.analog && phase != Phase::Tapped {
                    self.break_off(wiring, index);
                }
            }
            self.break_chords(wiring, control);
        }
        self.scratch = before;
        all().for_each(|control| self.grade(wiring, control));
        self.forget_rested();
        self.settle_values(wiring);
        self.cause = outer;
    }

    /// An event that somebody else plays on. Which device the player uses is told by it all the same.
    pub(super) fn overhear(&mut self, wiring: &Wiring, event: &Event) {
        self.advance(wiring, event.at);
        self.add_up_rates(wiring);
        let (device, what) = (event.device, event.what.in_range());
        let meant = match what {
            EventKind::Unplugged | EventKind::FocusLost => {
                return self.feed_other(wiring, device, what);
            }
            EventKind::MouseMove { x, y } => {
                self.kind.mouse_move(device, self.now, x.abs() + y.abs());
                false
            }
            EventKind::Wheel { .. } => true,
            EventKind::Scroll { x, y } => {
                let slot = self.held.slot(device);
                notched(self.held.turn(slot, [x, y])).next().is_some()
            }
            _ => false,
        };
        let mut went_down = false;
        self.lose(wiring, Cause::Focus, |held| {
            went_down = held.feed_spending(event);
        });
        if let Some(kind) = what.device_kind() {
            self.meant(device, kind, meant || went_down);
        }
    }
}
