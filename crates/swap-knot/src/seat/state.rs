//! What a seat remembers, in flat tables beside those of the wiring.

use super::devices::Devices;
use super::kind::KindInUse;
use super::{Edge, Happened};
use crate::input::{Direction, Event, EventKind, HidAxis, Sign, Stick, Time};
use crate::rig::{Control, Wiring};
use crate::sheet::{ActionId, Arm, SituationId};

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

#[derive(Clone, Copy, Debug, Default)]
pub(super) struct WireState {
    pub(super) phase: Phase,
    /// Whether its control is away from rest, for wires that follow how far it is in. What was
    /// away from rest when the wire ended has to come back before it counts again.
    pub(super) moved: bool,
    /// When its input went down.
    pub(super) since: Time,
    /// How far it is in, after feel; the second number is for planes.
    pub(super) level: [f32; 2],
}

#[derive(Clone, Copy, Debug, Default)]
pub(super) struct PortState {
    /// How many wires that are on or off hold it on.
    pub(super) count: u16,
    pub(super) on: bool,
    pub(super) since: Time,
    pub(super) began: u32,
    pub(super) ended: u32,
    pub(super) ramp: super::shaping::Ramp,
}

#[derive(Clone, Copy, Debug, Default)]
pub(super) struct ActionState {
    /// How many of its ports and whole inputs are on.
    pub(super) on: u16,
    pub(super) dirty: bool,
    /// Whether a press that toggles is latched on.
    pub(super) latched: bool,
    pub(super) since: Time,
    pub(super) began: u32,
    pub(super) ended: u32,
    pub(super) value: [f32; 3],
    pub(super) motion: [f32; 3],
    pub(super) motion_frame: u32,
}

#[derive(Clone, Debug)]
pub(super) struct State {
    /// The frame that the answers speak of; what is fed belongs to the next.
    pub(super) frame: u32,
    pub(super) now: Time,
    pub(super) devices: Devices,
    /// For each control, which devices hold it down, one bit a slot.
    pub(super) down: Vec<u16>,
    pub(super) wires: Vec<WireState>,
    pub(super) live: Vec<bool>,
    pub(super) ports: Vec<PortState>,
    pub(super) actions: Vec<ActionState>,
    /// Actions whose value has to be worked out at the next tick.
    pub(super) dirty: Vec<u16>,
    /// Ports on their way to their target.
    pub(super) ramping: Vec<u16>,
    /// Holds that are not decided yet, and when they are.
    pub(super) timers: Vec<(Time, u16)>,
    pub(super) next_timer: Time,
    pub(super) incoming: Vec<Happened>,
    pub(super) happened: Vec<Happened>,
    /// Lowest first.
    pub(super) stack: Vec<SituationId>,
    pub(super) kind: KindInUse,
    pub(super) kind_changed: bool,
}

impl State {
    pub(super) fn new(wiring: &Wiring) -> State {
        State {
            frame: 1,
            now: Time::ZERO,
            devices: Devices::default(),
            down: vec![0; wiring.routes.len()],
            wires: vec![WireState::default(); wiring.wires.len()],
            live: vec![false; wiring.wires.len()],
            ports: vec![PortState::default(); wiring.port_action.len()],
            actions: vec![ActionState::default(); wiring.actions.len()],
            dirty: Vec::with_capacity(wiring.actions.len()),
            ramping: Vec::with_capacity(wiring.port_action.len()),
            timers: Vec::with_capacity(16),
            next_timer: Time::NEVER,
            incoming: Vec::with_capacity(64),
            happened: Vec::with_capacity(64),
            stack: Vec::with_capacity(8),
            kind: KindInUse::default(),
            kind_changed: false,
        }
    }

    /// Takes over another rig's tables. What is held stays held, but silent.
    pub(super) fn rewire(&mut self, wiring: &Wiring, stack: Vec<SituationId>) {
        let old = std::mem::replace(self, State::new(wiring));
        self.frame = old.frame;
        self.now = old.now;
        self.devices = old.devices;
        // Touch inputs are numbered by the rig, so only the others can stay held.
        let fixed = Control::FIXED;
        self.down[..fixed].copy_from_slice(&old.down[..fixed]);
        self.devices.resize(wiring.routes.len());
        self.incoming = old.incoming;
        self.happened = old.happened;
        self.kind = old.kind;
        self.kind_changed = old.kind_changed;
        self.stack = stack;
        if self.actions.len() == old.actions.len() {
            // The same sheet as far as the answers go: what ended in this frame did end.
            for (new, old) in self.actions.iter_mut().zip(old.actions) {
                (new.began, new.ended) = (old.began, old.ended);
            }
        }
        self.spend_all(wiring);
    }

    /// Lets time go by; it never goes back.
    #[inline]
    pub(super) fn advance(&mut self, wiring: &Wiring, to: Time) {
        let to = to.max(self.now);
        if self.next_timer <= to {
            self.run_timers(wiring, to);
        }
        self.now = to;
    }

    #[inline]
    pub(super) fn feed(&mut self, wiring: &Wiring, event: &Event) {
        self.advance(wiring, event.at);
        let at = self.now;
        let device = event.device;
        match event.what {
            EventKind::Key { place, down, .. } => {
                self.kind.key(down);
                self.button(wiring, Control::key(place), down, device);
            }
            EventKind::MouseButton { button, down } => {
                self.kind.mouse_button(down);
                self.button(wiring, Control::mouse(button), down, device);
            }
            EventKind::MouseMove { x, y } => {
                self.kind.mouse_move(at, x, y);
                self.motion(wiring, Control::MOUSE_MOVE, [x, y]);
            }
            EventKind::Wheel { direction } => {
                self.kind.mouse_button(true);
                self.notch(wiring, Control::wheel(direction));
            }
            EventKind::PadButton { button, value } => {
                self.kind.pad(value);
                let control = Control::pad(button);
                if button.is_trigger() {
                    self.pull(wiring, control, value, device);
                } else {
                    self.button(wiring, control, value >= 0.5, device);
                }
            }
            EventKind::PadStick { stick, x, y } => {
                self.kind.pad(x.abs().max(y.abs()));
                self.stick(wiring, stick, [x, y], device);
            }
            EventKind::HidButton { number, down } => {
                self.kind.other(down, 1.0);
                let number = number.min(crate::input::HidInput::LAST_BUTTON);
                self.button(wiring, Control::hid_button(number), down, device);
            }
            EventKind::HidHat { direction, down } => {
                self.kind.other(down, 1.0);
                self.button(wiring, Control::hid_hat(direction), down, device);
            }
            EventKind::HidAxis { axis, value } => {
                self.kind.other(true, value);
                self.axis(wiring, axis, value, device);
            }
            EventKind::Touch { name, down } => {
                self.kind.touch();
                if let Some(control) = wiring.touch(name) {
                    self.button(wiring, control, down, device);
                }
            }
            EventKind::TouchStick { name, x, y } => {
                self.kind.touch();
                if let Some(control) = wiring.touch(name) {
                    self.plane(wiring, control, [x, y], device);
                }
            }
            EventKind::Unplugged => self.unplug(wiring, device),
            EventKind::FocusLost => self.let_go_of_all(wiring),
        }
    }

    #[inline(never)]
    fn stick(
        &mut self,
        wiring: &Wiring,
        stick: Stick,
        at: [f32; 2],
        device: crate::input::DeviceId,
    ) {
        let at = at.map(super::shaping::real);
        if wiring.stick_halves[stick.0 as usize] {
            for direction in Direction::ALL {
                let control = Control::stick_half(stick, direction);
                self.pull(wiring, control, direction.part_of(at), device);
            }
        }
        self.plane(wiring, Control::stick(stick), at, device);
    }

    #[inline(never)]
    fn axis(&mut self, wiring: &Wiring, axis: HidAxis, value: f32, device: crate::input::DeviceId) {
        let value = super::shaping::real(value);
        for (sign, part) in [(Sign::Positive, value), (Sign::Negative, -value)] {
            self.pull(wiring, Control::hid_half(axis, sign), part.max(0.0), device);
        }
        self.plane(wiring, Control::hid_axis(axis), [value, 0.0], device);
    }

    pub(super) fn tick(&mut self, wiring: &Wiring, now: Time) {
        self.advance(wiring, now);
        if !self.ramping.is_empty() {
            self.advance_ramps(wiring);
        }
        while let Some(action) = self.dirty.pop() {
            self.work_out(wiring, action);
        }
        self.frame = self.frame.wrapping_add(1);
        std::mem::swap(&mut self.happened, &mut self.incoming);
        self.incoming.clear();
        self.kind_changed = self.kind.take_changed();
    }

    /// Notes that an action, or an arm of it, began or ended.
    #[inline]
    pub(super) fn note(&mut self, action: u16, arm: Option<Arm>, edge: Edge) {
        self.incoming.push(Happened {
            at: self.now,
            action: ActionId::new(action),
            arm,
            edge,
        });
    }
}
