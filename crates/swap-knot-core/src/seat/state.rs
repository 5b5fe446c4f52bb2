//! What a seat remembers, in flat tables beside those of the wiring, and how time goes by.

use super::kind::KindInUse;
use super::latch::Latches;
use super::log::Log;
use super::pace::RowCount;
use super::shaping::Ramp;
use super::turn::Turned;
use super::{Cause, Edge, Happened, Moved};
use crate::book::Held;
use crate::input::{Control, DeviceId, Time};
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
    /// A tap was made; another press soon is the next one, or the one that counts.
    Tapped,
}

#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct WireState {
    pub(super) phase: Phase,
    /// The taps made so far, while it is not decided what comes of them.
    pub(super) taps: u8,
    /// Whether its control is away from rest, or reached its grade.
    pub(super) away: bool,
    /// Whether it has to be at rest first: it became live while that was held, and does not resume.
    pub(super) waits: bool,
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
    /// In which frame the player last let it go.
    pub(super) let_go: u32,
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

/// What the ports of an action make of it, and how long that is: what stays the same while nothing but
/// its stick or trigger moves.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct Base {
    pub(super) value: [f32; 3],
    pub(super) length: f32,
}

impl Base {
    /// Of keys and a stick that is so far in, whichever goes further has it, and of equals the keys;
    /// rounding does not count.
    #[inline]
    pub(super) fn or_further(self, ([x, y], reach): ([f32; 2], f32), beyond: bool) -> Base {
        let length = if beyond { reach } else { reach.min(1.0) };
        if length <= self.length + 1e-5 {
            return self;
        }
        let scale = length / reach;
        let value = [x * scale, y * scale, 0.0];
        Base { value, length }
    }

    /// The same of keys and a trigger.
    #[inline]
    pub(super) fn with_pull(self, far: f32, beyond: bool) -> f32 {
        let far = if beyond { far } else { far.min(1.0) };
        if far > self.length { far } else { self.length }
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
    /// In which frame an attempt at it last came to nothing, and why.
    pub(super) gave_up: u32,
    pub(super) why_gave_up: GaveUp,
    /// In which frame the player last let it go.
    pub(super) let_go: u32,
    pub(super) value: [f32; 3],
    pub(super) base: Base,
    pub(super) motion: [f32; 3],
    pub(super) motion_frame: u32,
    /// All motion there ever was.
    pub(super) moved: [f64; 3],
}

impl ActionState {
    /// It moves by a distance, along its first axes.
    #[inline(always)]
    pub(super) fn move_by<const N: usize>(&mut self, frame: u32, by: [f64; N]) {
        if self.motion_frame != frame {
            self.motion_frame = frame;
            self.motion = [0.0; 3];
        }
        for (axis, by) in by.into_iter().enumerate() {
            self.moved[axis] += by;
            // However much is fed between two ticks, it stays a number.
            self.motion[axis] = (self.motion[axis] + by as f32).clamp(-f32::MAX, f32::MAX);
        }
    }
}

/// Why an attempt came to nothing.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) enum GaveUp {
    /// None did.
    #[default]
    Never,
    TooShort,
    TooLong,
    TooLate,
    BrokenOff(Cause),
}

#[derive(Clone, Debug)]
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
    /// Whether adding that up is all that a movement does: nobody lists movements, or wants to know what
    /// came of them.
    pub(super) quick_mouse: bool,
    pub(super) short_ways: u64,
    /// The last two ticks.
    pub(super) ticks: [Time; 2],
    /// When each control last went down, for chords whose parts are pressed together.
    pub(super) pressed_at: Vec<Time>,
    /// Actions whose value has to be worked out at the next tick.
    pub(super) dirty: Vec<u16>,
    /// How many wires the game has in by itself.
    pub(super) drives: usize,
    /// Wires whose ramps are on their way.
    pub(super) ramping: Vec<u16>,
    /// Holds that are not decided yet, and when they are.
    pub(super) timers: Vec<(Time, u16)>,
    pub(super) next_timer: Time,
    /// Controls that worked an action until a change of situations or rig took that away, and have
    /// not been at rest since.
    pub(super) taken: Vec<(Control, u16)>,
    /// Presses that belong to the chord that they worked.
    pub(super) owned: Vec<super::judge::Owned>,
    /// Whether the event that is judged changed what chords hold that follow something.
    pub(super) stirred: bool,
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
    pub(super) scratch: Vec<super::feed::Counts>,
    /// Room for wires that end by the event that is judged, and why.
    pub(super) ending: Vec<(u16, Cause)>,
    /// Room for wires that became live by the change that is made.
    pub(super) woken: Vec<u16>,
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
            quick_mouse: false,
            short_ways: 0,
            ticks: [Time::ZERO; 2],
            pressed_at: vec![Time::ZERO; wiring.routes.len()],
            dirty: Vec::with_capacity(wiring.actions.len()),
            drives: 0,
            ramping: Vec::with_capacity(wiring.port_action.len()),
            timers: Vec::with_capacity(16),
            next_timer: Time::NEVER,
            taken: Vec::new(),
            owned: Vec::with_capacity(8),
            stirred: false,
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
            woken: Vec::new(),
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
    #[inline]
    pub(super) fn set_clock(&mut self, wiring: &Wiring, now: Time) {
        match now >= self.now {
            true => self.advance(wiring, now),
            false => self.turn_back(now),
        }
    }

    #[cold]
    fn turn_back(&mut self, now: Time) {
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

    /// Works out the values of what changed, as of now.
    pub(super) fn settle(&mut self, wiring: &Wiring) {
        self.settle_motion(wiring);
        if !self.ramping.is_empty() {
            self.advance_ramps(wiring);
        }
        self.settle_glides(wiring);
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
    /// A device came in: what is held on it begins nothing here, and is followed.
    pub(super) fn take_up_held(&mut self) {
        let wiring = self.rig.wiring();
        self.state.add_up_rates(wiring);
        self.state.note_grades(wiring);
        self.state.take_up(wiring, None);
    }
}
