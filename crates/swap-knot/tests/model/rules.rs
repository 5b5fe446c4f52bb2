//! The rules. An input in hand is a *leaf*; a whole stick or axis is one beside its halves.

use std::collections::{BTreeMap, BTreeSet};

use swap_knot::{
    Arm, Bound, Direction, HidInput, Input, Manner, Modifier, Place, Rig, Row, Shape, Sheet,
    SituationId,
};

pub type Leaf = Input;

/// The leaves of an input; a whole stick has its halves, by which it is related to them.
pub fn leaves(input: Input) -> Vec<Leaf> {
    let keys = |places: [Place; 2]| places.map(Input::Key).to_vec();
    match input {
        Input::Modifier(Modifier::Shift) => keys([Place::ShiftLeft, Place::ShiftRight]),
        Input::Modifier(Modifier::Ctrl) => keys([Place::ControlLeft, Place::ControlRight]),
        Input::PadStick(s) => Direction::ALL.map(|d| Input::PadStickHalf(s, d)).to_vec(),
        Input::Hid(HidInput::Axis(a)) => [swap_knot::Sign::Positive, swap_knot::Sign::Negative]
            .map(|s| Input::Hid(HidInput::Half(a, s)))
            .to_vec(),
        other => vec![other],
    }
}

/// What moves with a leaf: its halves, or its whole.
pub fn relatives(leaf: Leaf) -> Vec<Leaf> {
    match leaf {
        Input::PadStick(_) | Input::Hid(HidInput::Axis(_)) => leaves(leaf),
        Input::PadStickHalf(s, _) => vec![Input::PadStick(s)],
        Input::Hid(HidInput::Half(a, _)) => vec![Input::Hid(HidInput::Axis(a))],
        _ => Vec::new(),
    }
}

pub fn is_whole(leaf: Leaf) -> bool {
    matches!(leaf, Input::PadStick(_) | Input::Hid(HidInput::Axis(_)))
}

fn is_modifier(leaf: Leaf) -> bool {
    matches!(leaf, Input::Key(place) if Modifier::of_place(place).is_some())
}

/// One binding on one thing that completes it.
#[derive(Clone, Debug)]
pub struct Wire {
    pub row: Row,
    pub name: String,
    pub shape: Shape,
    pub toggle: bool,
    pub resumes: bool,
    pub manner: Manner,
    pub strict: bool,
    pub leaf: Leaf,
    pub held: Vec<Vec<Leaf>>,
    pub phase: Phase,
    pub since: u64,
    pub away: bool,
    pub live: bool,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Phase {
    Idle,
    Pending,
    On,
    Tapped,
}

impl Wire {
    /// Whether it follows how far its leaf is in.
    pub fn follows(&self) -> bool {
        let pull = matches!(
            self.leaf,
            Input::PadStickHalf(..) | Input::Hid(HidInput::Half(..))
        ) || matches!(self.leaf, Input::PadButton(b) if b.is_trigger());
        is_whole(self.leaf) || (pull && (self.row.arm.is_some() || self.shape == Shape::Pull))
    }

    /// Whether it is the same binding in another rig.
    fn is_same(&self, other: &Wire) -> bool {
        self.name == other.name
            && self.row.arm == other.row.arm
            && self.shape == other.shape
            && self.toggle == other.toggle
            && self.manner == other.manner
            && self.strict == other.strict
            && self.leaf == other.leaf
            && self.held == other.held
    }
}

pub fn wires(rig: &Rig) -> Vec<Wire> {
    let sheet = rig.sheet();
    let mut out = Vec::new();
    for bound in rig.bindings() {
        let action = sheet.action(bound.cell.row.action).unwrap();
        let input = bound.chord.input();
        let ends = if is_whole(input) {
            vec![input]
        } else {
            leaves(input)
        };
        for leaf in ends {
            out.push(Wire {
                row: bound.cell.row,
                name: action.name.clone(),
                shape: action.shape,
                toggle: action.toggle,
                resumes: action.resume.unwrap_or(action.shape != Shape::Press),
                manner: bound.manner,
                strict: bound.strict,
                leaf,
                held: bound.chord.held().iter().map(|h| leaves(*h)).collect(),
                phase: Phase::Idle,
                since: 0,
                away: false,
                live: false,
            });
        }
    }
    out
}

/// Which devices hold what.
#[derive(Clone, Debug, Default)]
pub struct Book {
    /// Device and leaf (wholes for sticks and axes) to where it is.
    pub levels: BTreeMap<(u16, Leaf), [f32; 2]>,
    pub down: BTreeSet<(u16, Leaf)>,
    pub spent: BTreeSet<(u16, Leaf)>,
}

impl Book {
    pub fn level(&self, device: u16, leaf: Leaf) -> [f32; 2] {
        let whole = |w: Leaf| self.levels.get(&(device, w)).copied().unwrap_or_default();
        match leaf {
            Input::PadStickHalf(s, d) => [d.part_of(whole(Input::PadStick(s))), 0.0],
            Input::Hid(HidInput::Half(a, sign)) => {
                let [v, _] = whole(Input::Hid(HidInput::Axis(a)));
                let towards = if sign == swap_knot::Sign::Positive {
                    v
                } else {
                    -v
                };
                [towards.max(0.0), 0.0]
            }
            leaf => whole(leaf),
        }
    }

    pub fn devices(&self) -> BTreeSet<u16> {
        self.levels.keys().map(|(d, _)| *d).collect()
    }

    /// How far in a leaf is for the seat: the furthest of those that are not spent.
    pub fn worked(&self, leaf: Leaf) -> [f32; 2] {
        let mut best = [0.0, 0.0];
        for device in self.devices() {
            let level = self.level(device, leaf);
            let far = |[x, y]: [f32; 2]| x * x + y * y;
            if !self.spent.contains(&(device, leaf)) && far(level) > far(best) {
                best = level;
            }
        }
        best
    }

    pub fn is_down(&self, leaf: Leaf) -> bool {
        self.down
            .iter()
            .any(|(d, l)| *l == leaf && !self.spent.contains(&(*d, *l)))
    }
}

/// The state of a seat by the rules.
#[derive(Clone, Debug)]
pub struct Model {
    pub rig: Rig,
    pub book: Book,
    pub wires: Vec<Wire>,
    pub stack: Vec<SituationId>,
    pub now: u64,
    pub latched: BTreeSet<String>,
    /// Leaves that worked an action until a change took that away.
    pub taken: BTreeSet<(Leaf, String)>,
    /// Rows whose edges came since the last tick, as text.
    pub edges: Vec<String>,
    fresh: Vec<Leaf>,
}

fn cut(v: f32, inner: f32) -> f32 {
    ((v - inner) / (1.0 - inner)).clamp(0.0, 1.0)
}

impl Model {
    pub fn new(rig: &Rig) -> Model {
        let mut model = Model {
            rig: rig.clone(),
            book: Book::default(),
            wires: wires(rig),
            stack: rig.sheet().first_situation().into_iter().collect(),
            now: 0,
            latched: BTreeSet::new(),
            taken: BTreeSet::new(),
            edges: Vec::new(),
            fresh: Vec::new(),
        };
        for i in 0..model.wires.len() {
            model.wires[i].live = model.is_live(i);
        }
        model
    }

    fn sheet(&self) -> Sheet {
        self.rig.sheet().clone()
    }

    /// Rule: an analog input is at rest inside its dead zone; what works nothing, inside the usual.
    fn inner(&self, leaf: Leaf) -> f32 {
        let bound = self.wires.iter().any(|w| w.leaf == leaf);
        match leaf {
            Input::Hid(_) if bound => 0.0,
            _ => 0.15,
        }
    }

    fn rests(&self, leaf: Leaf, [x, y]: [f32; 2]) -> bool {
        x.hypot(y) <= self.inner(leaf)
    }

    /// How far in a wire's leaf is, after feel.
    pub fn after_feel(&self, wire: &Wire) -> [f32; 2] {
        let [x, y] = self.book.worked(wire.leaf);
        let inner = self.inner(wire.leaf);
        if !is_whole(wire.leaf) {
            return [cut(x, inner), 0.0];
        }
        let length = x.hypot(y);
        if length <= inner {
            return [0.0, 0.0];
        }
        [x, y].map(|c| c / length * cut(length, inner))
    }

    // ------------------------------------------------------------------ what is on

    /// Rows that are on: an action, and each of its arms.
    pub fn on(&self) -> BTreeSet<String> {
        let mut on = BTreeSet::new();
        for wire in self.wires.iter().filter(|w| w.phase == Phase::On) {
            if wire.toggle && wire.shape == Shape::Press {
                continue;
            }
            on.insert(wire.name.clone());
            if let Some(arm) = wire.row.arm {
                on.insert(format!("{}.{arm}", wire.name));
            }
        }
        on.extend(self.latched.iter().cloned());
        on
    }

    /// Does something and notes which rows began or ended by it.
    fn noting(&mut self, what: impl FnOnce(&mut Model)) {
        let before = self.on();
        what(self);
        let after = self.on();
        for gone in before.difference(&after) {
            self.edges.push(format!("ended {gone}"));
        }
        for new in after.difference(&before) {
            self.edges.push(format!("began {new}"));
        }
    }

    fn turn_on(&mut self, i: usize) {
        self.noting(|m| {
            m.wires[i].phase = Phase::On;
            if m.wires[i].toggle && m.wires[i].shape == Shape::Press {
                let name = m.wires[i].name.clone();
                if !m.latched.remove(&name) {
                    m.latched.insert(name);
                }
            }
        });
    }

    fn turn_off(&mut self, i: usize) {
        self.noting(|m| m.wires[i].phase = Phase::Idle);
    }

    fn pulse(&mut self, i: usize) {
        self.turn_on(i);
        self.turn_off(i);
    }

    // ------------------------------------------------------------------ chords

    /// Whether everything that a chord wants held is down, and was before this event.
    fn holds(&self, i: usize) -> bool {
        let down = |leaf: &Leaf| self.book.is_down(*leaf) && !self.fresh.contains(leaf);
        self.wires[i].held.iter().all(|part| part.iter().any(down))
    }

    fn is_ready(&self, i: usize) -> bool {
        let wire = &self.wires[i];
        let known = |leaf: Leaf| leaf == wire.leaf || wire.held.iter().any(|p| p.contains(&leaf));
        let strange = (self.book.down.iter())
            .any(|(_, l)| is_modifier(*l) && self.book.is_down(*l) && !known(*l));
        wire.live && self.holds(i) && !(wire.strict && strange)
    }

    /// Rule: the longest satisfied chord wins, also between a stick and its halves that move.
    fn is_longest(&self, i: usize) -> bool {
        let leaf = self.wires[i].leaf;
        let mut with = vec![leaf];
        with.extend(
            relatives(leaf)
                .into_iter()
                .filter(|r| self.book.is_down(*r) || !self.rests(*r, self.book.worked(*r))),
        );
        let longest = (0..self.wires.len())
            .filter(|&o| with.contains(&self.wires[o].leaf) && self.is_ready(o))
            .map(|o| self.wires[o].held.len())
            .max();
        longest.is_none_or(|l| self.wires[i].held.len() >= l)
    }

    /// Rule: a chord uses its parts up.
    fn use_up(&mut self, i: usize) {
        let parts: Vec<Leaf> = self.wires[i].held.concat();
        for wire in &mut self.wires {
            if parts.contains(&wire.leaf) && matches!(wire.phase, Phase::Pending | Phase::Tapped) {
                wire.phase = Phase::Idle;
            }
        }
    }

    fn press(&mut self, leaf: Leaf) {
        let all: Vec<usize> = (0..self.wires.len())
            .filter(|&i| self.wires[i].leaf == leaf && !self.wires[i].follows())
            .collect();
        let begin: Vec<usize> = all
            .iter()
            .copied()
            .filter(|&i| self.is_ready(i) && self.is_longest(i))
            .collect();
        for i in all {
            if !begin.contains(&i) && self.wires[i].phase == Phase::Tapped {
                self.wires[i].phase = Phase::Idle;
            }
        }
        for i in begin {
            self.engage(i);
        }
    }

    fn engage(&mut self, i: usize) {
        self.use_up(i);
        let first = self.wires[i].since;
        match self.wires[i].manner {
            Manner::Press => {
                self.wires[i].since = self.now;
                self.turn_on(i);
            }
            Manner::DoubleTap
                if self.wires[i].phase == Phase::Tapped && self.now <= first + 350 =>
            {
                self.wires[i].since = self.now;
                self.turn_on(i);
            }
            _ => {
                self.wires[i].since = self.now;
                self.wires[i].phase = Phase::Pending;
            }
        }
    }

    /// The input that completed it came up.
    fn let_go(&mut self, i: usize) {
        let (phase, since) = (self.wires[i].phase, self.wires[i].since);
        match phase {
            Phase::On => self.turn_off(i),
            Phase::Pending => {
                self.wires[i].phase = Phase::Idle;
                let soon = self.now <= since + 250;
                match self.wires[i].manner {
                    Manner::Release => self.pulse(i),
                    Manner::Tap if soon => self.pulse(i),
                    Manner::DoubleTap if soon => self.wires[i].phase = Phase::Tapped,
                    _ => {}
                }
            }
            Phase::Idle | Phase::Tapped => {}
        }
    }

    fn break_off(&mut self, i: usize) {
        self.turn_off(i);
    }

    /// Chords whose held parts are gone end.
    fn break_chords(&mut self) {
        for i in 0..self.wires.len() {
            let working = matches!(self.wires[i].phase, Phase::On | Phase::Pending);
            if working && !self.wires[i].held.is_empty() && !self.holds(i) {
                self.break_off(i);
            }
        }
    }

    // ------------------------------------------------------------------ events

    /// A button, or a leaf that counts as one, on a device.
    fn set_down(&mut self, device: u16, leaf: Leaf, down: bool) -> Option<bool> {
        let before = self.book.is_down(leaf);
        if down {
            self.book.down.insert((device, leaf));
        } else {
            self.book.down.remove(&(device, leaf));
            self.book.spent.remove(&(device, leaf));
        }
        let after = self.book.is_down(leaf);
        (before != after).then_some(after)
    }

    pub fn button(&mut self, device: u16, leaf: Leaf, down: bool) {
        self.book.levels.entry((device, leaf)).or_insert([0.0, 0.0]);
        match self.set_down(device, leaf, down) {
            Some(true) => self.press(leaf),
            Some(false) => self.release(leaf),
            None => {}
        }
        self.settle();
    }

    fn release(&mut self, leaf: Leaf) {
        for i in 0..self.wires.len() {
            if self.wires[i].leaf == leaf && !self.wires[i].follows() {
                self.let_go(i);
            }
        }
        self.break_chords();
    }

    /// A trigger, stick or axis is somewhere now.
    pub fn analog(&mut self, device: u16, whole: Leaf, at: [f32; 2]) {
        let changed = self.set_level(device, whole, at);
        self.fresh = changed
            .iter()
            .filter(|(_, now)| *now)
            .map(|(l, _)| *l)
            .collect();
        if !is_whole(whole) {
            self.fresh.clear();
        }
        for (leaf, _) in changed.iter().filter(|(_, now)| !now) {
            self.release(*leaf);
        }
        self.follow();
        for (leaf, _) in changed.iter().filter(|(_, now)| *now) {
            self.press(*leaf);
        }
        self.fresh.clear();
        self.settle();
    }

    /// Notes where it is; answers which leaves went down or came up by it.
    fn set_level(&mut self, device: u16, whole: Leaf, at: [f32; 2]) -> Vec<(Leaf, bool)> {
        self.book.levels.insert((device, whole), at);
        let parts = if is_whole(whole) {
            leaves(whole)
        } else {
            vec![whole]
        };
        let mut changed = Vec::new();
        for &leaf in &parts {
            let level = self.book.level(device, leaf);
            let rests = self.rests(leaf, level);
            if self.book.spent.contains(&(device, leaf)) {
                if rests {
                    self.book.spent.remove(&(device, leaf));
                    self.book.down.remove(&(device, leaf));
                }
                continue;
            }
            let was = self.book.down.contains(&(device, leaf));
            let down = !rests && if was { level[0] > 0.4 } else { level[0] >= 0.5 };
            changed.extend(self.set_down(device, leaf, down).map(|now| (leaf, now)));
        }
        if is_whole(whole) && self.rests(whole, at) {
            self.book.spent.remove(&(device, whole));
        }
        changed
    }

    /// Wires that follow begin by leaving rest and end by coming back.
    fn follow(&mut self) {
        let leaving: Vec<(usize, bool)> = (0..self.wires.len())
            .filter(|&i| self.wires[i].follows())
            .map(|i| (i, self.after_feel(&self.wires[i]) != [0.0, 0.0]))
            .collect();
        let (mut begin, mut end) = (Vec::new(), Vec::new());
        for (i, away) in leaving {
            let was = std::mem::replace(&mut self.wires[i].away, away);
            if self.wires[i].phase == Phase::On && !away {
                end.push(i);
            } else if self.wires[i].phase != Phase::On && away && !was {
                begin.push(i);
            }
        }
        let begin: Vec<usize> = begin
            .into_iter()
            .filter(|&i| self.is_ready(i) && self.is_longest(i))
            .collect();
        for i in begin {
            self.use_up(i);
            self.turn_on(i);
        }
        // An action goes on while a stick swings from one of its arms to another.
        end.into_iter().for_each(|i| self.turn_off(i));
    }

    /// What was taken away from an action is forgotten at rest.
    fn settle(&mut self) {
        let worked =
            |leaf: Leaf| self.book.is_down(leaf) || !self.rests(leaf, self.book.worked(leaf));
        let taken = self
            .taken
            .iter()
            .filter(|(l, _)| worked(*l))
            .cloned()
            .collect();
        self.taken = taken;
    }

    fn is_away(&self, device: u16, leaf: Leaf) -> bool {
        self.book.down.contains(&(device, leaf)) || !self.rests(leaf, self.book.level(device, leaf))
    }

    /// Every leaf that any device has told of, and what moves with it.
    fn heard_of(&self) -> BTreeSet<Leaf> {
        let told = self.book.levels.keys();
        told.flat_map(|(_, l)| std::iter::once(*l).chain(relatives(*l)))
            .collect()
    }

    /// A device is lost, or does not count for a while; every device where it is `None`.
    pub fn lose(&mut self, device: Option<u16>, unplugged: bool) {
        self.quietly(|m| {
            let devices = m.book.devices().into_iter();
            for device in devices.filter(|d| device.is_none_or(|one| one == *d)) {
                for leaf in m.heard_of() {
                    if m.is_away(device, leaf) {
                        m.book.spent.insert((device, leaf));
                    }
                }
                if unplugged {
                    m.book.levels.retain(|(d, _), _| *d != device);
                    m.book.down.retain(|(d, _)| *d != device);
                    m.book.spent.retain(|(d, _)| *d != device);
                }
            }
        });
    }

    /// Rule: of an event that a menu has, what leaves its rest is spent; what was held goes on.
    pub fn overhear(&mut self, device: u16, whole: Leaf, at: [f32; 2], down: Option<bool>) {
        self.quietly(|m| {
            m.book.levels.entry((device, whole)).or_insert([0.0, 0.0]);
            let away = |m: &Model| -> BTreeSet<Leaf> {
                let all = m.heard_of().into_iter();
                all.filter(|l| m.is_away(device, *l)).collect()
            };
            let before = away(m);
            match down {
                Some(down) => drop(m.set_down(device, whole, down)),
                None => drop(m.set_level(device, whole, at)),
            }
            let new: Vec<Leaf> = away(m).difference(&before).copied().collect();
            m.book.spent.extend(new.into_iter().map(|l| (device, l)));
        });
    }

    /// Changes what is held without a press, release or tap.
    fn quietly(&mut self, change: impl FnOnce(&mut Model)) {
        let is_down = |m: &Model| -> Vec<Leaf> {
            let all = m.heard_of().into_iter();
            all.filter(|l| m.book.is_down(*l)).collect()
        };
        let before = is_down(self);
        change(self);
        // Rule: what is broken off is no release and no tap; what others hold goes on.
        for leaf in before {
            if self.book.is_down(leaf) {
                continue;
            }
            for i in 0..self.wires.len() {
                let wire = &self.wires[i];
                if wire.leaf == leaf && !wire.follows() && wire.phase != Phase::Tapped {
                    self.break_off(i);
                }
            }
        }
        self.break_chords();
        self.follow();
        self.settle();
    }

    /// Time goes by: holds begin when they are due.
    pub fn wait_until(&mut self, to: u64) {
        loop {
            let due = (self.wires.iter().enumerate())
                .filter(|(_, w)| w.phase == Phase::Pending && w.manner == Manner::Hold)
                .map(|(i, w)| (w.since + 500, i))
                .min();
            match due {
                Some((at, i)) if at <= to => {
                    self.now = at;
                    self.turn_on(i);
                }
                _ => break,
            }
        }
        self.now = to;
    }

    // ------------------------------------------------------------------ changes

    fn is_live(&self, i: usize) -> bool {
        let (sheet, wire) = (self.sheet(), &self.wires[i]);
        let own = &sheet.action(wire.row.action).unwrap().situations;
        if own.is_empty() {
            return true;
        }
        let while_paused = sheet.action(wire.row.action).unwrap().while_paused;
        self.stack.iter().enumerate().any(|(at, s)| {
            own.contains(s)
                && self.stack[at + 1..].iter().all(|above| {
                    let upper = sheet.situation(*above).unwrap();
                    let beside =
                        upper.with.contains(s) || sheet.situation(*s).unwrap().with.contains(above);
                    upper.over.is_empty()
                        || beside
                        || own.contains(above)
                        || match upper.cover {
                            swap_knot::Cover::None => true,
                            swap_knot::Cover::All => while_paused,
                            swap_knot::Cover::Used => !self.uses(&sheet, *above, wire),
                        }
                })
        })
    }

    /// Whether a situation has something bound that working this wire would work too, at its end
    /// or on the way.
    fn uses(&self, sheet: &Sheet, situation: SituationId, wire: &Wire) -> bool {
        let mine = bound_leaves(wire);
        self.rig.bindings().iter().any(|b: &Bound| {
            let action = sheet.action(b.cell.row.action).unwrap();
            if !action.situations.contains(&situation) || b.cell.row.action == wire.row.action {
                return false;
            }
            let held: Vec<Vec<Leaf>> = b.chord.held().iter().map(|h| leaves(*h)).collect();
            let last = leaves(b.chord.input());
            let mut all = held.clone();
            all.push(last.clone());
            let strange = wire.held.iter().any(|part| {
                part.iter().all(|l| is_modifier(*l)) && !all.iter().any(|p| touch(p, part))
            });
            let ends = touch(&last, &mine) && injects(&held, &wire.held);
            (ends || injects(&all, &wire.held)) && !(b.strict && strange)
        })
    }

    pub fn set_stack(&mut self, stack: Vec<SituationId>) {
        self.stack = stack;
        let before: Vec<bool> = self.wires.iter().map(|w| w.live).collect();
        self.refresh();
        // Rule: what has a value is taken up again, unless its input worked something else.
        for (i, was_live) in before.into_iter().enumerate() {
            let wire = &self.wires[i];
            let idle = wire.phase == Phase::Idle && wire.manner == Manner::Press;
            if !wire.live || was_live || !wire.resumes || !idle {
                continue;
            }
            let (leaf, name) = (wire.leaf, wire.name.clone());
            let mut related = relatives(leaf);
            related.push(leaf);
            if (self.taken.iter()).any(|(l, by)| related.contains(l) && *by != name) {
                continue;
            }
            let held = match wire.follows() {
                true => self.after_feel(wire) != [0.0, 0.0],
                false => self.book.is_down(leaf),
            };
            if held && self.is_ready(i) && self.is_longest(i) {
                self.use_up(i);
                self.turn_on(i);
            }
        }
    }

    /// Ends what is live no more.
    fn refresh(&mut self) {
        for i in 0..self.wires.len() {
            self.wires[i].live = self.is_live(i);
        }
        for i in 0..self.wires.len() {
            if !self.wires[i].live {
                self.take_away(i);
            }
        }
        let (sheet, stack) = (self.sheet(), self.stack.clone());
        self.noting(|m| {
            m.latched.retain(|name| {
                let id = sheet.find(name).unwrap();
                let own = &sheet.action(id).unwrap().situations;
                own.is_empty() || own.iter().any(|s| stack.contains(s))
            });
        });
    }

    fn take_away(&mut self, i: usize) {
        let wire = &self.wires[i];
        if matches!(wire.phase, Phase::On | Phase::Pending) {
            self.taken.insert((wire.leaf, wire.name.clone()));
        }
        self.break_off(i);
    }

    pub fn set_rig(&mut self, rig: &Rig) {
        let mut next = wires(rig);
        let mut used = vec![false; next.len()];
        for i in 0..self.wires.len() {
            let old = self.wires[i].clone();
            let same = (0..next.len()).find(|&n| !used[n] && next[n].is_same(&old));
            match same {
                Some(n) => used[n] = true,
                None => self.take_away(i),
            }
        }
        let mut used = vec![false; next.len()];
        for i in 0..self.wires.len() {
            let old = self.wires[i].clone();
            if let Some(n) = (0..next.len()).find(|&n| !used[n] && next[n].is_same(&old)) {
                used[n] = true;
                next[n].phase = old.phase;
                next[n].since = old.since;
                next[n].live = old.live;
            }
        }
        let names: Vec<String> = (self.stack.iter())
            .map(|s| self.rig.sheet().situation(*s).unwrap().name.clone())
            .collect();
        let sheet = rig.sheet().clone();
        self.noting(|m| {
            m.latched.retain(|name| {
                let id = sheet.find(name);
                id.is_some_and(|id| sheet.action(id).unwrap().toggle)
            });
        });
        self.stack = names
            .iter()
            .filter_map(|n| rig.sheet().find_situation(n))
            .collect();
        self.rig = rig.clone();
        // What does not change makes no edge.
        self.wires = next;
        for i in 0..self.wires.len() {
            if self.wires[i].follows() {
                self.wires[i].away = self.after_feel(&self.wires[i]) != [0.0, 0.0];
                if self.wires[i].phase == Phase::On && !self.wires[i].away {
                    self.turn_off(i);
                }
            }
        }
        self.refresh();
    }

    // ------------------------------------------------------------------ values

    pub fn value(&self, name: &str) -> [f32; 3] {
        let own: Vec<&Wire> = (self.wires.iter())
            .filter(|w| w.name == name && w.phase == Phase::On)
            .collect();
        let far = |arm: Option<Arm>| {
            let of = own.iter().filter(|w| w.row.arm == arm && !is_whole(w.leaf));
            of.map(|w| {
                if w.follows() {
                    self.after_feel(w)[0]
                } else {
                    1.0
                }
            })
            .fold(0.0, f32::max)
        };
        let id = self.rig.sheet().find(name).unwrap();
        let action = self.rig.sheet().action(id).unwrap();
        let mut value = [0.0; 3];
        match action.shape {
            Shape::Press => {
                let on = self.on().contains(name);
                return [f32::from(u8::from(on)), 0.0, 0.0];
            }
            Shape::Pull => return [far(None), 0.0, 0.0],
            _ => {
                for (axis, pair) in action.arms().chunks(2).enumerate() {
                    value[axis] = far(Some(pair[1])) - far(Some(pair[0]));
                }
            }
        }
        let mut length = value.iter().map(|v| v * v).sum::<f32>().sqrt();
        if length > 1.0 {
            value = value.map(|v| v / length);
            length = 1.0;
        }
        for wire in own.iter().filter(|w| is_whole(w.leaf)) {
            let [x, y] = self.after_feel(wire);
            if x.hypot(y) > length + 1e-5 {
                (value, length) = ([x, y, 0.0], x.hypot(y));
            }
        }
        value
    }
}

/// The leaves by which a wire's last input is related to others.
fn bound_leaves(wire: &Wire) -> Vec<Leaf> {
    match is_whole(wire.leaf) {
        true => leaves(wire.leaf),
        false => vec![wire.leaf],
    }
}

fn touch(a: &[Leaf], b: &[Leaf]) -> bool {
    a.iter().any(|l| b.contains(l))
}

/// Whether each of some parts is another one of those.
fn injects(parts: &[Vec<Leaf>], of: &[Vec<Leaf>]) -> bool {
    let Some((first, rest)) = parts.split_first() else {
        return true;
    };
    (0..of.len()).any(|i| {
        let mut left = of.to_vec();
        let here = left.remove(i);
        touch(first, &here) && injects(rest, &left)
    })
}
