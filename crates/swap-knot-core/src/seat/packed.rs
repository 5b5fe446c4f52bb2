//! A saved state as few bytes.

use super::driven::{Driven, How};
use super::judge::Owned;
use super::latch::Latch;
use super::queue::{Odd, Queue};
use super::saved::{RestoreError, SavedSeat};
use super::shaping::Ramp;
use super::state::{ActionState, GaveUp, Phase, PortState, State, WireState};
use super::turn::Turned;
use super::{Cause, Edge, Happened, Seat, Trace, TraceEntry};
use crate::book::{Garbled, Reader, Writer};
use crate::input::{Control, DeviceId, DeviceKind, Event, EventKind, MAX_HELD, Time};
use crate::rig::{Part, Rig, Wiring};
use crate::sheet::{ActionId, Arm, Begins, Gesture, SituationId};

const CAUSES: [Cause; 7] = [
    Cause::LetGo,
    Cause::ChordBroken,
    Cause::Focus,
    Cause::Unplugged,
    Cause::Rig,
    Cause::Situation,
    Cause::Spent,
];
/// From here on why something gave up is what broke it off.
const BROKEN: u64 = 4;
const PHASES: [Phase; 4] = [Phase::Idle, Phase::Pending, Phase::On, Phase::Tapped];

impl SavedSeat {
    /// The version of the bytes that are written, and the only one that is read: two machines that
    /// play together have the same.
    pub const VERSION: u64 = 5;

    /// Writes the state behind what is in a buffer, in few bytes: to send it, or to keep it with a
    /// saved game. What waits to be judged is in it.
    ///
    /// ```
    /// # use swap_knot::play::SavedSeat;
    /// # use swap_knot::{Layout, Profile, Rig, Seat, Sheet};
    /// # let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"KeyH\"")?;
    /// # let rig = Rig::new(&sheet, &Profile::default(), Layout::us());
    /// # let mut seat = Seat::new(rig.clone());
    /// let mut bytes = Vec::new();
    /// SavedSeat::new(&seat).write(&mut bytes);
    /// let saved = SavedSeat::read(&bytes, &rig)?;
    /// seat.restore(&saved)?;
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn write(&self, out: &mut Vec<u8>) {
        let now = self.state.now;
        let mut to = Writer { out, now };
        to.number(Self::VERSION);
        to.out.extend(self.rig.to_le_bytes());
        to.number(now.as_micros());
        self.state.write(&mut to);
        self.waiting.write(&mut to);
    }

    /// Reads what [`SavedSeat::write`] wrote, on the same rig.
    ///
    /// # Errors
    /// When it is of another rig or version, or damaged. Whatever the bytes are, nothing worse comes
    /// of them than a state that nobody played.
    pub fn read(bytes: &[u8], rig: &Rig) -> Result<SavedSeat, RestoreError> {
        let mut from = Reader {
            left: bytes,
            now: Time::ZERO,
        };
        let version = from.number()?;
        if version != Self::VERSION {
            return Err(RestoreError::Version(version));
        }
        let (of, left) = from.left.split_first_chunk().ok_or(Garbled)?;
        if u64::from_le_bytes(*of) != rig.fingerprint() {
            return Err(RestoreError::OtherRig);
        }
        from.left = left;
        from.now = Time::from_micros(from.number()?);
        let mut saved = SavedSeat::new(&Seat::new(rig.clone()));
        saved.state.now = from.now;
        saved.state.read(&mut from, rig)?;
        saved.waiting = Queue::read(&mut from, rig)?;
        // What is taken is what is written: nothing hides between the numbers.
        let mut again = Vec::with_capacity(bytes.len());
        saved.write(&mut again);
        match again == bytes {
            true => Ok(saved),
            false => Err(RestoreError::Damaged),
        }
    }
}

impl From<Garbled> for RestoreError {
    fn from(_: Garbled) -> Self {
        RestoreError::Damaged
    }
}

fn write_three(to: &mut Writer<'_>, v: &[f64; 3]) {
    v.iter().for_each(|v| to.double(*v));
}

fn read_three(from: &mut Reader<'_>) -> Result<[f64; 3], Garbled> {
    Ok([from.double()?, from.double()?, from.double()?])
}

impl State {
    fn write(&self, to: &mut Writer<'_>) {
        to.number(u64::from(self.rows));
        to.number(u64::from(self.frame));
        to.number(u64::from(self.order));
        to.flag(self.kind_changed);
        self.ticks.iter().for_each(|t| to.time(*t));
        self.held.write(to);
        let frame = self.frame;
        to.sparse(&self.wires, |to, wire| wire.write(to));
        to.sparse(&self.ports, |to, port| port.write(to, frame));
        to.sparse(&self.actions, |to, action| action.write(to, frame));
        to.sparse(&self.turned, |to, turned| {
            write_three(to, &turned.sum);
            to.time(turned.since);
        });
        to.sparse(&self.turned_in_frame, write_three);
        to.sparse(&self.turned_then, write_three);
        to.sparse(&self.pressed_at, |to, at| to.time(*at));
        let list = |to: &mut Writer<'_>, all: &[u16]| {
            to.number(all.len() as u64);
            all.iter().for_each(|n| to.number(u64::from(*n)));
        };
        list(to, &self.ramping);
        to.number(self.timers.len() as u64);
        for (due, wire) in &self.timers {
            to.time(*due);
            to.number(u64::from(*wire));
        }
        to.number(self.taken.len() as u64);
        for (control, by) in &self.taken {
            to.number(u64::from(control.0));
            to.number(u64::from(*by));
        }
        to.number(self.owned.len() as u64);
        for owned in &self.owned {
            let parts = owned.parts.iter().flatten();
            let controls = parts.chain([&owned.control]);
            controls.for_each(|control| to.number(u64::from(control.0)));
        }
        for latches in [&self.latches.on, &self.latches.down] {
            to.number(latches.len() as u64);
            for latch in latches {
                to.number(u64::from(latch.part.0));
                to.number(u64::from(latch.device.0));
                to.time(latch.at);
                to.flag(latch.used);
            }
        }
        let pairs = |to: &mut Writer<'_>, all: &[(SituationId, SituationId)]| {
            to.number(all.len() as u64);
            for (a, b) in all {
                to.number(a.index() as u64);
                to.number(b.index() as u64);
            }
        };
        to.number(self.stack.len() as u64);
        self.stack.iter().for_each(|s| to.number(s.index() as u64));
        pairs(to, self.stacks.open.as_slice());
        pairs(to, &self.stacks.seen);
        let (happened, in_frame, before) = self.log.parts();
        to.number(before);
        to.number(in_frame as u64);
        to.number(happened.len() as u64);
        for what in happened {
            to.time(what.at);
            // 0 for one of a sheet that was played before.
            to.number(
                what.action
                    .of(self.stamp)
                    .map_or(0, |index| index as u64 + 1),
            );
            to.number(what.arm.map_or(0, |arm| arm as u64 + 1));
            to.flag(what.edge == Edge::Began);
            to.number(what.cause as u64);
        }
        let kind = &self.kind;
        to.number(kind.current as u64);
        to.number(kind.told as u64);
        to.number(kind.forced.map_or(0, |k| k as u64 + 1));
        to.time(kind.moving.0);
        to.float(kind.moving.1);
        for last in kind.lasts() {
            to.flag(last.is_some());
            if let Some((device, at)) = last {
                to.number(u64::from(device.0));
                to.time(*at);
            }
        }
    }

    fn read(&mut self, from: &mut Reader<'_>, rig: &Rig) -> Result<(), Garbled> {
        let (wiring, sheet) = (rig.wiring(), rig.sheet());
        self.rows = from.small()?;
        self.frame = from.small()?;
        self.order = from.small()?;
        self.kind_changed = from.flag()?;
        self.ticks = [from.time()?, from.time()?];
        self.held.read(from)?;
        let frame = self.frame;
        from.sparse(&mut self.wires, WireState::read)?;
        self.count_driven();
        from.sparse(&mut self.ports, |from| PortState::read(from, frame))?;
        from.sparse(&mut self.actions, |from| ActionState::read(from, frame))?;
        from.sparse(&mut self.turned, |from| {
            Ok(Turned {
                sum: read_three(from)?,
                since: from.time()?,
            })
        })?;
        from.sparse(&mut self.turned_in_frame, read_three)?;
        from.sparse(&mut self.turned_then, read_three)?;
        from.sparse(&mut self.pressed_at, Reader::time)?;
        let wires = self.wires.len();
        let last_wire = wires.checked_sub(1).ok_or(Garbled);
        self.ramping.clear();
        for _ in 0..from.up_to(wires)? {
            self.ramping.push(from.up_to(last_wire?)? as u16);
        }
        self.timers.clear();
        for _ in 0..from.up_to(wires)? {
            let due = from.time()?;
            self.timers.push((due, from.up_to(last_wire?)? as u16));
        }
        self.set_next_timer();
        self.taken.clear();
        let most = Control::FIXED + self.held.touch_names().len() - 1;
        for _ in 0..from.up_to(wires)? {
            let control = Control(from.up_to(most)? as u16);
            self.taken
                .push((control, from.up_to(usize::from(u16::MAX))? as u16));
        }
        self.owned.clear();
        for _ in 0..from.up_to(wires)? {
            let mut parts = [[Control::NONE; 2]; MAX_HELD];
            for part in parts.iter_mut().flatten() {
                // There may be fewer parts than there is room for.
                let control = Control(from.up_to(usize::from(u16::MAX))? as u16);
                if control != Control::NONE && control.index() > most {
                    return Err(Garbled);
                }
                *part = control;
            }
            let control = Control(from.up_to(most)? as u16);
            self.owned.push(Owned { control, parts });
        }
        self.latches.clear();
        for latches in [&mut self.latches.on, &mut self.latches.down] {
            for _ in 0..from.up_to(most)? {
                latches.push(Latch {
                    part: Control(from.up_to(most)? as u16),
                    device: DeviceId(from.up_to(usize::from(u16::MAX))? as u16),
                    at: from.time()?,
                    used: from.flag()?,
                });
            }
        }
        let situations = sheet.situations().len();
        self.stack.clear();
        for _ in 0..from.up_to(situations)? {
            let index = from.up_to(situations - 1)?;
            let situation = SituationId::new(index as u16, sheet.stamp());
            if self.stack.contains(&situation) {
                return Err(Garbled);
            }
            self.stack.push(situation);
        }
        self.stacks.open = pairs(from, rig)?.pop();
        self.stacks.seen = pairs(from, rig)?;
        self.read_log(from, rig)?;
        self.read_kind(from)?;
        self.be_consistent(wiring)?;
        self.refresh_all(rig);
        self.note_bases(wiring);
        Ok(())
    }

    fn read_log(&mut self, from: &mut Reader<'_>, rig: &Rig) -> Result<(), Garbled> {
        let sheet = rig.sheet();
        let before = from.number()?;
        let in_frame = from.small()? as usize;
        let actions = sheet.actions().len();
        // Each takes some bytes, so that there are no more than those that are left.
        let mut happened = Vec::new();
        for _ in 0..from.up_to(from.left.len())? {
            happened.push(Happened {
                at: from.time()?,
                action: match from.up_to(actions)? {
                    0 => ActionId::new(u16::MAX, sheet.stamp()),
                    n => sheet.action_id(n - 1),
                },
                arm: match from.up_to(Arm::ALL.len())? {
                    0 => None,
                    n => Some(Arm::ALL[n - 1]),
                },
                edge: match from.flag()? {
                    true => Edge::Began,
                    false => Edge::Ended,
                },
                cause: CAUSES[from.up_to(CAUSES.len() - 1)?],
            });
        }
        if before > u64::MAX / 2 {
            return Err(Garbled);
        }
        self.log.set(happened.into_iter(), in_frame, before);
        Ok(())
    }

    fn read_kind(&mut self, from: &mut Reader<'_>) -> Result<(), Garbled> {
        let kinds = DeviceKind::ALL;
        self.kind.current = kinds[from.up_to(kinds.len() - 1)?];
        self.kind.told = kinds[from.up_to(kinds.len() - 1)?];
        let forced = from.up_to(kinds.len())?;
        self.kind.forced = forced.checked_sub(1).map(|k| kinds[k]);
        self.kind.moving = (from.time()?, from.float()?);
        for last in &mut self.kind.last[..kinds.len()] {
            *last = match from.flag()? {
                true => Some((
                    DeviceId(from.up_to(usize::from(u16::MAX))? as u16),
                    from.time()?,
                )),
                false => None,
            };
        }
        Ok(())
    }

    /// What counts others agrees with them: no hostile number lets a count run out later.
    fn be_consistent(&self, wiring: &Wiring) -> Result<(), Garbled> {
        let mut ports = vec![0_u16; self.ports.len()];
        let mut actions = vec![0_u16; self.actions.len()];
        for (wire, state) in wiring.wires.iter().zip(&self.wires) {
            if state.phase != Phase::On {
                continue;
            }
            let action = usize::from(wire.action);
            match wire.part {
                Part::Port(_) if !wire.analog && wiring.actions[action].easing.toggle => {}
                Part::Port(port) => ports[usize::from(port)] += 1,
                Part::Switch if wiring.actions[action].easing.toggle => {}
                Part::Switch | Part::Whole => actions[action] += 1,
            }
        }
        for (count, state) in ports.iter_mut().zip(&self.ports) {
            *count += u16::from(state.latched);
        }
        for (port, count) in ports.iter().enumerate() {
            actions[usize::from(wiring.port_action[port])] += u16::from(*count > 0);
        }
        for (action, on) in self.actions.iter().zip(&mut actions) {
            *on += u16::from(action.latched);
        }
        // A hold waits exactly as long as its wire is undecided.
        let undecided = |w: &u16| {
            let (wire, state) = (&wiring.wires[usize::from(*w)], &self.wires[usize::from(*w)]);
            let gesture = wire.manner.gesture();
            let is_last = state.taps >= gesture.taps;
            state.phase == Phase::Pending && is_last && gesture.begins == Begins::Held
        };
        let mut timed: Vec<u16> = self.timers.iter().map(|(_, wire)| *wire).collect();
        timed.sort_unstable();
        let all = 0..self.wires.len() as u16;
        if !all.filter(|w| undecided(w)).eq(timed) {
            return Err(Garbled);
        }
        let same_ports = self.ports.iter().map(|p| p.count).eq(ports);
        let same_actions = self.actions.iter().map(|a| a.on).eq(actions);
        if same_ports && same_actions {
            Ok(())
        } else {
            Err(Garbled)
        }
    }
}

/// How something that waits is judged.
const PLAYED: usize = 0;
const OVERHEARD: usize = 1;
const DRIVEN: usize = 2;

impl Queue {
    /// An event as a line of a trace, and what the game itself works by its numbers.
    fn write(&self, to: &mut Writer<'_>) {
        to.number(self.waiting().len() as u64);
        for (event, odd) in self.waiting() {
            // As it is judged: what is no number is at rest.
            let line = |event: &Event| {
                let what = event.what.in_range();
                TraceEntry::Event(Event { what, ..*event }).to_string()
            };
            match odd {
                None => {
                    to.number(PLAYED as u64);
                    to.text(&line(event));
                }
                Some(Odd::Overheard) => {
                    to.number(OVERHEARD as u64);
                    to.text(&line(event));
                }
                Some(Odd::Driven(Driven { action, how })) => {
                    to.number(DRIVEN as u64);
                    to.time(event.at);
                    to.number(action.index() as u64);
                    let (which, far) = match *how {
                        How::Row(None, far) => (0, [far, 0.0, 0.0]),
                        How::To(to) => (1, to),
                        How::By(by) => (2, by),
                        How::Row(Some(arm), far) => (3 + arm as u64, [far, 0.0, 0.0]),
                    };
                    to.number(which);
                    far.iter().for_each(|v| to.float(*v));
                }
            }
        }
    }

    fn read(from: &mut Reader<'_>, rig: &Rig) -> Result<Queue, Garbled> {
        let mut queue = Queue::new();
        for _ in 0..from.up_to(from.left.len())? {
            let how = from.up_to(DRIVEN)?;
            if how != DRIVEN {
                let line: Trace = from.text()?.parse().map_err(|_| Garbled)?;
                let [TraceEntry::Event(event)] = line.entries() else {
                    return Err(Garbled);
                };
                queue.wait(event, (how == OVERHEARD).then_some(Odd::Overheard));
                continue;
            }
            let at = from.time()?;
            let last = rig.sheet().actions().len().checked_sub(1);
            let action = rig.sheet().action_id(from.up_to(last.ok_or(Garbled)?)?);
            let which = from.up_to(2 + Arm::ALL.len())?;
            let far = [from.float()?, from.float()?, from.float()?];
            let how = match which {
                0 => How::Row(None, far[0]),
                1 => How::To(far),
                2 => How::By(far),
                n => How::Row(Some(Arm::ALL[n - 3]), far[0]),
            };
            let (device, what) = (DeviceId::ALL, EventKind::FocusLost);
            let event = Event { at, device, what };
            queue.wait(&event, Some(Odd::Driven(Driven { action, how })));
        }
        Ok(queue)
    }
}

fn pairs(from: &mut Reader<'_>, rig: &Rig) -> Result<Vec<(SituationId, SituationId)>, Garbled> {
    let sheet = rig.sheet();
    let last = sheet.situations().len().checked_sub(1);
    let mut out = Vec::new();
    for _ in 0..from.up_to(from.left.len())? {
        let mut one = || {
            let index = from.up_to(last.ok_or(Garbled)?)?;
            Ok(SituationId::new(index as u16, sheet.stamp()))
        };
        out.push((one()?, one()?));
    }
    Ok(out)
}

impl WireState {
    fn write(&self, to: &mut Writer<'_>) {
        let moves = self.speed != 0.0 || self.kept_back != [0.0; 2];
        let ramps = self.ramp != Ramp::default();
        let driven = self.driven != 0.0;
        let flags = [
            self.away,
            moves,
            ramps,
            driven,
            self.let_go_at.is_some(),
            self.waits,
        ];
        let flags = flags.iter().enumerate().map(|(n, on)| u64::from(*on) << n);
        to.number(self.phase as u64 | flags.sum::<u64>() << 2);
        to.time(self.since);
        if matches!(self.phase, Phase::Pending | Phase::Tapped) {
            to.number(u64::from(self.taps));
        }
        if moves {
            let [x, y] = self.kept_back;
            [self.speed, x, y].iter().for_each(|v| to.float(*v));
        }
        if ramps {
            self.ramp.write(to);
        }
        if driven {
            to.float(self.driven);
        }
        if let Some(at) = self.let_go_at {
            to.time(at);
        }
    }

    fn read(from: &mut Reader<'_>) -> Result<WireState, Garbled> {
        let flags = from.up_to(255)?;
        let mut state = WireState {
            phase: PHASES[flags & 3],
            away: flags & 4 != 0,
            waits: flags & 128 != 0,
            since: from.time()?,
            ..WireState::default()
        };
        if matches!(state.phase, Phase::Pending | Phase::Tapped) {
            state.taps = from.up_to(usize::from(Gesture::MOST_TAPS))? as u8;
        }
        if flags & 8 != 0 {
            state.speed = from.float()?;
            state.kept_back = [from.float()?, from.float()?];
        }
        if flags & 16 != 0 {
            state.ramp = Ramp::read(from)?;
        }
        if flags & 32 != 0 {
            state.driven = from.float()?;
        }
        if flags & 64 != 0 {
            state.let_go_at = Some(from.time()?);
        }
        Ok(state)
    }
}

impl Ramp {
    fn write(&self, to: &mut Writer<'_>) {
        [self.from, self.target, self.pace]
            .iter()
            .for_each(|v| to.float(*v));
        to.time(self.started);
    }

    fn read(from: &mut Reader<'_>) -> Result<Ramp, Garbled> {
        Ok(Ramp {
            from: from.float()?,
            target: from.float()?,
            pace: from.float()?,
            started: from.time()?,
        })
    }
}

impl PortState {
    fn write(&self, to: &mut Writer<'_>, frame: u32) {
        to.number(u64::from(self.count));
        to.number(u64::from(self.order));
        to.time(self.since);
        to.time(self.until);
        to.before(self.began, frame);
        to.before(self.ended, frame);
        to.before(self.let_go, frame);
        to.number(self.cause as u64);
        self.counted.write(to);
        to.float(self.value);
        to.flag(self.latched);
        let toggles = self.scale != 0.0;
        to.flag(toggles);
        if toggles {
            to.float(self.scale);
            self.ramp.write(to);
        }
    }

    fn read(from: &mut Reader<'_>, frame: u32) -> Result<PortState, Garbled> {
        let mut state = PortState {
            count: from.up_to(usize::from(u16::MAX))? as u16,
            order: from.small()?,
            since: from.time()?,
            until: from.time()?,
            began: from.before(frame)?,
            ended: from.before(frame)?,
            let_go: from.before(frame)?,
            cause: CAUSES[from.up_to(CAUSES.len() - 1)?],
            counted: super::pace::RowCount::read(from)?,
            value: from.float()?,
            latched: from.flag()?,
            ..PortState::default()
        };
        if from.flag()? {
            state.scale = from.float()?;
            state.ramp = Ramp::read(from)?;
        }
        Ok(state)
    }
}

impl ActionState {
    fn write(&self, to: &mut Writer<'_>, frame: u32) {
        to.number(u64::from(self.on));
        to.flag(self.latched);
        to.time(self.since);
        to.time(self.until);
        to.before(self.began, frame);
        to.before(self.ended, frame);
        to.before(self.gave_up, frame);
        to.number(match self.why_gave_up {
            GaveUp::Never => 0,
            GaveUp::TooShort => 1,
            GaveUp::TooLong => 2,
            GaveUp::TooLate => 3,
            GaveUp::BrokenOff(cause) => BROKEN + cause as u64,
        });
        to.before(self.let_go, frame);
        to.number(self.cause as u64);
        self.counted.write(to);
        self.value.iter().for_each(|v| to.float(*v));
        let moves = self.moved != [0.0; 3];
        to.flag(moves);
        if moves {
            to.before(self.motion_frame, frame);
            self.motion.iter().for_each(|v| to.float(*v));
            write_three(to, &self.moved);
        }
    }

    fn read(from: &mut Reader<'_>, frame: u32) -> Result<ActionState, Garbled> {
        let mut state = ActionState {
            on: from.up_to(usize::from(u16::MAX))? as u16,
            latched: from.flag()?,
            since: from.time()?,
            until: from.time()?,
            began: from.before(frame)?,
            ended: from.before(frame)?,
            gave_up: from.before(frame)?,
            why_gave_up: match from.up_to(BROKEN as usize + CAUSES.len() - 1)? {
                0 => GaveUp::Never,
                1 => GaveUp::TooShort,
                2 => GaveUp::TooLong,
                3 => GaveUp::TooLate,
                n => GaveUp::BrokenOff(CAUSES[n - BROKEN as usize]),
            },
            let_go: from.before(frame)?,
            cause: CAUSES[from.up_to(CAUSES.len() - 1)?],
            counted: super::pace::RowCount::read(from)?,
            value: [from.float()?, from.float()?, from.float()?],
            ..ActionState::default()
        };
        if from.flag()? {
            state.motion_frame = from.before(frame)?;
            state.motion = [from.float()?, from.float()?, from.float()?];
            state.moved = read_three(from)?;
        }
        Ok(state)
    }
}

impl super::pace::RowCount {
    fn write(self, to: &mut Writer<'_>) {
        for n in [self.begun, self.ended, self.let_go, self.gave_up] {
            to.number(u64::from(n));
        }
    }

    fn read(from: &mut Reader<'_>) -> Result<Self, Garbled> {
        Ok(super::pace::RowCount {
            begun: from.small()?,
            ended: from.small()?,
            let_go: from.small()?,
            gave_up: from.small()?,
        })
    }
}
