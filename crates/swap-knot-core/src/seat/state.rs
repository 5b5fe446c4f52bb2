//! What a seat remembers, in flat tables beside those of the wiring; and the way of an event in.

use super::kind::{DeviceUse, KindInUse};
use super::latch::Latches;
use super::log::Log;
use super::pace::RowCount;
use super::shaping::Ramp;
use super::turn::Turned;
use super::{Cause, Edge, Happened, Moved};
use crate::input::{
    Change, Control, DeviceId, DeviceKind, Direction, Event, EventKind, Held, HidAxis, Sign, Stick,
    Time, amount, distance, notched,
};
use crate::rig::Wiring;
use crate::sheet::{ActionId, Arm, SituationId, Stamp};

/// What a wire is doing.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) enum Phase {
    /// Nothing.
    #[default]
    Idle,
    /// Its input is down, and what comes of it is not decided yet.
    Pending,
    /// It works its action.
    On,
    /// A first tap was made; a second press soon makes a double tap.
    Tapped,
}

#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct WireState {
    pub(super) phase: Phase,
    /// Whether its control is away from rest, for wires that follow how far it is in: followed also
    /// while the wire is not live, so that it begins only by what leaves rest.
    pub(super) away: bool,
    /// When its input went down.
    pub(super) since: Time,
    /// How fast its mouse has been moving, in counts a second, where a curve asks for it.
    pub(super) speed: f32,
    /// A movement that may be no more than a slip while a part of its chord is held.
    pub(super) kept_back: [f32; 2],
    /// How far in the game itself has it.
    pub(super) driven: f32,
    /// When its input was last let go, after it had counted.
    pub(super) let_go_at: Option<Time>,
    /// How far a key has brought its port.
    pub(super) ramp: Ramp,
}

#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct PortState {
    /// How many wires hold it on.
    pub(super) count: u16,
    /// Which press of the seat it began with; a later one is a higher number.
    pub(super) order: u32,
    pub(super) since: Time,
    pub(super) began: u32,
    pub(super) ended: u32,
    /// When it last ended, and why.
    pub(super) until: Time,
    pub(super) cause: Cause,
    pub(super) counted: RowCount,
    /// As of the last advance.
    pub(super) value: f32,
    /// Whether an arm or pull that toggles is latched on, how far that has brought it, and what that
    /// is multiplied by.
    pub(super) latched: bool,
    pub(super) ramp: Ramp,
    pub(super) scale: f32,
}

impl PortState {
    pub(super) fn is_on(&self) -> bool {
        self.count > 0
    }
}

#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct ActionState {
    /// How many of its ports and whole inputs are on.
    pub(super) on: u16,
    pub(super) dirty: bool,
    /// Whether a press that toggles is latched on.
    pub(super) latched: bool,
    pub(super) since: Time,
    pub(super) began: u32,
    pub(super) ended: u32,
    /// When it last ended, and why.
    pub(super) until: Time,
    pub(super) cause: Cause,
    pub(super) counted: RowCount,
    /// In which frame an attempt at it last came to nothing.
    pub(super) gave_up: u32,
    pub(super) value: [f32; 3],
    pub(super) motion: [f32; 3],
    pub(super) motion_frame: u32,
    /// All motion there ever was.
    pub(super) moved: [f64; 3],
}

#[derive(Clone, Debug, PartialEq)]
pub(super) struct State {
    /// Tells ids of the sheet in play.
    pub(super) stamp: Stamp,
    /// Counts how often actions and ports were put in another order.
    pub(super) rows: u32,
    /// The frame that the answers speak of; what is fed belongs to the next.
    pub(super) frame: u32,
    pub(super) now: Time,
    pub(super) held: Held,
    /// Controls that went down by the event that is being judged: they are not held before it.
    pub(super) fresh: Fresh,
    pub(super) wires: Vec<WireState>,
    pub(super) live: Vec<bool>,
    pub(super) ports: Vec<PortState>,
    /// Counts the presses of ports.
    pub(super) order: u32,
    pub(super) actions: Vec<ActionState>,
    /// How far each rate has turned, and in the last frame.
    pub(super) turned: Vec<Turned>,
    pub(super) turned_in_frame: Vec<[f64; 3]>,
    /// What each had turned at the last tick.
    pub(super) turned_then: Vec<[f64; 3]>,
    /// What the mouse moved since that was last told of, for the one thing that it moves.
    pub(super) mouse: [f64; 2],
    /// The last two ticks.
    pub(super) ticks: [Time; 2],
    /// When each control last went down, for chords whose parts are pressed together.
    pub(super) pressed_at: Vec<Time>,
    /// Actions whose value has to be worked out at the next tick.
    pub(super) dirty: Vec<u16>,
    /// Wires whose ramps are on their way.
    pub(super) ramping: Vec<u16>,
    /// Holds that are not decided yet, and when they are.
    pub(super) timers: Vec<(Time, u16)>,
    pub(super) next_timer: Time,
    /// Controls that worked an action until a change of situations or rig took that away, and have
    /// not been at rest since.
    pub(super) taken: Vec<(Control, u16)>,
    pub(super) latches: Latches,
    /// Whose event is being judged.
    pub(super) feeding: DeviceId,
    pub(super) log: Log<Happened>,
    /// Every single movement, for games that want them.
    pub(super) listed: Option<Log<Moved>>,
    /// Why things end that end now.
    pub(super) cause: Cause,
    /// Lowest first.
    pub(super) stack: Vec<SituationId>,
    pub(super) stacks: super::situations::Unforeseen,
    pub(super) kind: KindInUse,
    pub(super) kind_changed: bool,
    /// Room to compare what is down before and after.
    pub(super) scratch: Vec<bool>,
    /// Room for wires whose controls came to rest by the event that is judged.
    pub(super) ending: Vec<u16>,
    pub(super) trail: super::trail::Trail,
}

/// Halves of one stick or axis, one bit each from the first on.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct Fresh {
    pub(super) first: u16,
    pub(super) bits: u8,
}

impl Fresh {
    pub(super) fn has(self, control: Control) -> bool {
        self.bits != 0
            && (self.first..self.first + 4).contains(&control.0)
            && self.bits >> (control.0 - self.first) & 1 != 0
    }
}

impl State {
    pub(super) fn new(wiring: &Wiring, stamp: Stamp) -> State {
        let mut held = Held::new();
        held.rewire(&wiring.touch_names, wiring.rest.clone());
        State {
            stamp,
            rows: 0,
            frame: 1,
            now: Time::ZERO,
            held,
            fresh: Fresh::default(),
            wires: vec![WireState::default(); wiring.wires.len()],
            live: vec![false; wiring.wires.len()],
            ports: vec![PortState::default(); wiring.port_action.len()],
            order: 0,
            actions: vec![ActionState::default(); wiring.actions.len()],
            turned: vec![Turned::default(); wiring.rates.len()],
            turned_in_frame: vec![[0.0; 3]; wiring.rates.len()],
            turned_then: vec![[0.0; 3]; wiring.rates.len()],
            mouse: [0.0; 2],
            ticks: [Time::ZERO; 2],
            pressed_at: vec![Time::ZERO; wiring.routes.len()],
            dirty: Vec::with_capacity(wiring.actions.len()),
            ramping: Vec::with_capacity(wiring.port_action.len()),
            timers: Vec::with_capacity(16),
            next_timer: Time::NEVER,
            taken: Vec::new(),
            latches: Latches::default(),
            feeding: DeviceId::ALL,
            log: Log::default(),
            listed: None,
            cause: Cause::LetGo,
            stack: Vec::with_capacity(8),
            stacks: Default::default(),
            kind: KindInUse::default(),
            kind_changed: false,
            scratch: Vec::new(),
            ending: Vec::with_capacity(16),
            trail: Default::default(),
        }
    }

    /// Lets time go by, as far as an event says; only a tick turns it back.
    #[inline]
    pub(super) fn advance(&mut self, wiring: &Wiring, to: Time) {
        let to = to.max(self.now);
        if self.next_timer <= to {
            self.run_timers(wiring, to);
        }
        self.now = to;
    }

    /// Sets the clock, which may go back: an event that was stamped in the future does not stop it.
    /// How long things have been going on stays as it was.
    pub(super) fn set_clock(&mut self, wiring: &Wiring, now: Time) {
        if now >= self.now {
            self.advance(wiring, now);
            return;
        }
        let back = self.now.as_micros() - now.as_micros();
        for wire in &mut self.wires {
            wire.since = wire.since.minus(back);
            wire.let_go_at = wire.let_go_at.map(|at| at.minus(back));
            wire.ramp.turn_back(back);
        }
        for port in &mut self.ports {
            port.since = port.since.minus(back);
            port.until = port.until.minus(back);
            port.ramp.turn_back(back);
        }
        for action in &mut self.actions {
            action.since = action.since.minus(back);
            action.until = action.until.minus(back);
        }
        for (due, _) in &mut self.timers {
            *due = due.minus(back);
        }
        for turned in &mut self.turned {
            turned.since = turned.since.minus(back);
        }
        for tick in &mut self.ticks {
            *tick = tick.minus(back);
        }
        for at in &mut self.pressed_at {
            *at = at.minus(back);
        }
        self.kind.turn_back(back);
        self.latches.turn_back(back);
        self.set_next_timer();
        self.now = now;
    }

    #[inline]
    pub(super) fn feed(&mut self, wiring: &Wiring, event: &Event) {
        self.advance(wiring, event.at);
        self.add_up_rates(wiring);
        let device = event.device;
        self.feeding = device;
        if let EventKind::Key { place, down, .. } = event.what {
            // The most frequent ones need no looking into.
            self.button(
                wiring,
                Control::key(place),
                down,
                device,
                DeviceKind::Keyboard,
            );
            return;
        }
        match event.what {
            EventKind::MouseMove { x, y } => {
                let by = [x, y].map(distance);
                self.kind.mouse_move(device, self.now, by[0], by[1]);
                self.motion(wiring, by);
            }
            EventKind::PadStick { stick, x, y } => {
                self.stick(wiring, stick, [x, y].map(amount), device);
            }
            EventKind::PadGyro { yaw, pitch, roll } => {
                self.turned_in_hands(wiring, [yaw, pitch, roll].map(distance));
            }
            EventKind::PadButton { button, value } if button.is_trigger() => {
                let value = amount(value).max(0.0);
                self.trigger(wiring, Control::pad(button), value, device);
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
            EventKind::PadButton { button, value } => {
                let control = Control::pad(button);
                let slot = self.held.slot(device);
                if let Some(down) = self.held.pressed(slot, control, value) {
                    self.button(wiring, control, down, device, DeviceKind::Gamepad);
                }
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
            EventKind::KeyHeld { place } => self.held.hold_spent(device, Control::key(place)),
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
        self.follow(wiring, std::iter::once(control));
        self.edge(wiring, control, change);
        self.grade(wiring, control);
    }

    /// What changed on one device, where it changes anything for the seat.
    fn edge(&mut self, wiring: &Wiring, control: Control, change: Change) {
        match change {
            Change::Down { first: true } => self.press(wiring, control),
            Change::Up { last: true } => self.release(wiring, control),
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
        if self.held.glide(slot, control, [value, 0.0]) {
            self.glided(wiring, control);
            return;
        }
        self.held.set_level(slot, control, [value, 0.0]);
        self.pulled(wiring, device, slot, control);
        self.find_glide(wiring, slot, control, &[]);
    }

    #[inline(never)]
    fn stick(&mut self, wiring: &Wiring, stick: Stick, at: [f32; 2], device: DeviceId) {
        let slot = self.held.slot(device);
        let whole = Control::stick(stick);
        if self.held.glide(slot, whole, at) {
            self.glided(wiring, whole);
            return;
        }
        self.held.set_level(slot, whole, at);
        let halves = Direction::ALL.map(|d| Control::stick_half(stick, d));
        self.halves(wiring, (device, slot), whole, halves, true);
        self.find_glide(wiring, slot, whole, &halves);
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
        let changes = halves.map(|half| self.held.pulled(slot, half));
        self.held.moved(slot, whole);
        self.fresh.first = halves[0].0;
        self.fresh.bits = 0;
        for (n, (&half, &change)) in halves.iter().zip(&changes).enumerate() {
            if known {
                self.changed(device, half, change);
            }
            match change {
                Change::Down { first: true } => self.fresh.bits |= 1 << n,
                Change::Up { last: true } => self.release(wiring, half),
                _ => {}
            }
        }
        self.follow(wiring, halves.into_iter().chain([whole]));
        for (&half, &change) in halves.iter().zip(&changes) {
            if change == (Change::Down { first: true }) {
                self.press(wiring, half);
            }
        }
        for half in halves {
            self.grade(wiring, half);
        }
        self.fresh = Fresh::default();
    }

    /// Devices are lost, or do not count for a while: whatever they alone held is broken off, and
    /// what others hold goes on.
    #[inline(never)]
    pub(super) fn lose(&mut self, wiring: &Wiring, cause: Cause, how: impl FnOnce(&mut Held)) {
        let outer = std::mem::replace(&mut self.cause, cause);
        let all = || (0..wiring.routes.len()).map(|n| Control(n as u16));
        let mut before = std::mem::take(&mut self.scratch);
        before.clear();
        before.extend(all().map(|c| self.held.is_down(c)));
        how(&mut self.held);
        for control in all() {
            if before[control.index()] && !self.held.is_down(control) {
                self.broken(wiring, control);
            }
        }
        self.scratch = before;
        self.held.end_glides();
        all().for_each(|control| self.grade(wiring, control));
        self.follow(wiring, all());
        self.cause = outer;
        self.forget_taken();
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
                self.kind.mouse_move(device, self.now, x, y);
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

    /// Works out the values of what changed, as of now.
    pub(super) fn settle(&mut self, wiring: &Wiring) {
        self.settle_motion(wiring);
        if !self.ramping.is_empty() {
            self.advance_ramps(wiring);
        }
        while let Some(action) = self.dirty.pop() {
            self.work_out(wiring, action);
        }
    }

    pub(super) fn tick(&mut self, wiring: &Wiring, now: Time) {
        self.set_clock(wiring, now);
        self.settle(wiring);
        self.frame = self.frame.wrapping_add(1);
        self.log.close_frame();
        if let Some(listed) = &mut self.listed {
            listed.close_frame();
        }
        self.ticks = [self.ticks[1], self.now];
        for (n, &action) in wiring.rates.iter().enumerate() {
            let turned = self.turned_by(wiring, action, self.now);
            self.turned_in_frame[n] =
                [0, 1, 2].map(|axis| turned[axis] - self.turned_then[n][axis]);
            self.turned_then[n] = turned;
        }
        self.kind_changed = self.kind.take_changed();
    }

    /// Notes that an action, or an arm of it, began or ended.
    #[inline]
    pub(super) fn note(&mut self, action: u16, arm: Option<Arm>, edge: Edge) {
        let cause = match edge {
            Edge::Began => Cause::LetGo,
            Edge::Ended => self.cause,
        };
        self.log.push(Happened {
            at: self.now,
            action: ActionId::new(action, self.stamp),
            arm,
            edge,
            cause,
        });
    }
}

impl super::Seat {
    /// A device came in: what is held on it is spent, and begins nothing here.
    pub(super) fn note_away(&mut self) {
        self.state.note_away(self.rig.wiring());
    }
}
