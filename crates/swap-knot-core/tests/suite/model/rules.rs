//! The rules: events in, actions out, followed naively.

use std::collections::{BTreeMap, BTreeSet};

use swap_knot::sheet::{Manner, SituationId};
use swap_knot::{Input, Rig, Sheet};

use super::book::{Book, Leaf, Phase, Wire, is_modifier, is_whole, leaves, relatives, wires};
use super::devices::Elsewhere;

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
    /// Presses that belong to the chord that they worked, until they are up.
    pub owned: BTreeSet<(Leaf, Vec<Vec<Leaf>>)>,
    /// Rows whose edges came since the last tick, as text.
    pub edges: Vec<String>,
    /// What is held on devices that play for nobody.
    pub elsewhere: BTreeMap<u16, Elsewhere>,
    fresh: Vec<Leaf>,
    /// When each leaf last went down.
    pub pressed_at: BTreeMap<Leaf, u64>,
    /// By action: whether quick repeats are ignored, and held parts latched.
    eased: BTreeMap<String, (bool, bool)>,
    /// What is latched: whose, and until when.
    latches: Vec<(Leaf, u16, u64)>,
    /// Parts that are down: whose, since when, and whether anything else went down meanwhile.
    parts: Vec<(Leaf, u16, u64, bool)>,
    /// Whose event is judged.
    feeding: u16,
}

fn cut(v: f32, inner: f32) -> f32 {
    ((v - inner) / (1.0 - inner)).clamp(0.0, 1.0)
}

impl Model {
    pub fn new(rig: &Rig, eased: BTreeMap<String, (bool, bool)>) -> Model {
        let mut model = Model {
            rig: rig.clone(),
            book: Book::default(),
            wires: wires(rig),
            stack: rig.sheet().first_situation().into_iter().collect(),
            now: 0,
            latched: BTreeSet::new(),
            taken: BTreeSet::new(),
            owned: BTreeSet::new(),
            edges: Vec::new(),
            elsewhere: BTreeMap::new(),
            fresh: Vec::new(),
            pressed_at: BTreeMap::new(),
            eased,
            latches: Vec::new(),
            parts: Vec::new(),
            feeding: 0,
        };
        for i in 0..model.wires.len() {
            model.wires[i].live = model.is_live(i);
        }
        model
    }

    pub fn sheet(&self) -> Sheet {
        self.rig.sheet().clone()
    }

    /// Rule: an analog input is at rest inside its dead zone; what works nothing, inside the usual.
    pub fn inner(&self, leaf: Leaf) -> f32 {
        let bound = self.wires.iter().any(|w| w.leaf == leaf);
        match leaf {
            Input::Hid(_) if bound => 0.0,
            _ => 0.15,
        }
    }

    pub fn rests(&self, leaf: Leaf, [x, y]: [f32; 2]) -> bool {
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
            if wire.toggles() {
                continue;
            }
            on.insert(wire.name.clone());
            if let Some(arm) = wire.row.arm {
                on.insert(format!("{}.{arm}", wire.name));
            }
        }
        for row in &self.latched {
            on.insert(row.clone());
            // With an arm the whole action is on.
            on.extend(row.split('.').next().map(str::to_owned));
        }
        on
    }

    /// Does something and notes which rows began or ended by it.
    pub fn noting(&mut self, what: impl FnOnce(&mut Model)) {
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

    pub fn turn_on(&mut self, i: usize) {
        self.noting(|m| {
            m.wires[i].phase = Phase::On;
            if m.wires[i].toggles() {
                let row = m.wires[i].row_name();
                if !m.latched.remove(&row) {
                    m.latched.insert(row);
                    // Rule: an arm ends its opposite.
                    if let Some(arm) = m.wires[i].row.arm {
                        let other = format!("{}.{}", m.wires[i].name, arm.opposite());
                        m.latched.remove(&other);
                    }
                }
            }
        });
    }

    pub fn turn_off(&mut self, i: usize) {
        self.noting(|m| m.wires[i].phase = Phase::Idle);
    }

    pub fn pulse(&mut self, i: usize) {
        self.turn_on(i);
        self.turn_off(i);
    }

    // ------------------------------------------------------------------ chords

    /// Whether everything that a chord wants held is down, and was before this event.
    pub fn holds(&self, i: usize) -> bool {
        let latched = |leaf: &Leaf| self.is_latched(i, leaf);
        let down =
            |leaf: &Leaf| (self.book.is_held(*leaf) && !self.fresh.contains(leaf)) || latched(leaf);
        self.wires[i].held.iter().all(|part| part.iter().any(down))
    }

    /// Whether a part of a chord is latched.
    pub fn is_latched(&self, i: usize, leaf: &Leaf) -> bool {
        let mut on = self.latches.iter();
        self.eased[&self.wires[i].name].1 && on.any(|(l, _, until)| l == leaf && self.now <= *until)
    }

    /// Rule: what is pressed together comes within a given time.
    pub fn came_together(&self, i: usize) -> bool {
        let soon = |leaf: &Leaf| {
            let at = self.pressed_at.get(leaf);
            let held = self.book.is_down(*leaf) && !self.fresh.contains(leaf);
            held && at.is_some_and(|at| self.now <= at + 80)
        };
        self.wires[i].held.iter().all(|part| part.iter().any(soon))
    }

    /// Rule: a leaf is down from the lowest threshold on that anything on it has…
    pub fn lowest(&self, leaf: Leaf) -> f32 {
        let on = |w: &&Wire| w.leaf == leaf && !w.follows();
        let all = self.wires.iter().filter(on).map(|w| w.threshold);
        all.reduce(f32::min).unwrap_or(0.5)
    }

    /// …and what wants it further in begins there.
    pub fn is_graded(&self, i: usize) -> bool {
        let wire = &self.wires[i];
        let pulled = !is_whole(wire.leaf)
            && match wire.leaf {
                Input::PadButton(b) => b.is_trigger(),
                Input::PadStickHalf(..) | Input::Hid(_) => true,
                _ => false,
            };
        pulled && !wire.follows() && wire.threshold > self.lowest(wire.leaf)
    }

    pub fn is_in(&self, i: usize) -> bool {
        let (wire, far) = (&self.wires[i], self.book.fresh(self.wires[i].leaf)[0]);
        self.book.is_down(wire.leaf) && (!self.is_graded(i) || far >= wire.threshold)
    }

    /// Whether what a wire follows is away from its rest.
    pub fn is_away_for(&self, i: usize) -> bool {
        let wire = &self.wires[i];
        match wire.follows() {
            true => self.after_feel(wire) != [0.0, 0.0],
            false => {
                let far = self.book.worked(wire.leaf)[0];
                self.book.is_followed(wire.leaf) && (!self.is_graded(i) || far >= wire.threshold)
            }
        }
    }

    /// What wants its leaf further in than others.
    pub fn grade(&mut self, leaf: Leaf) {
        for i in 0..self.wires.len() {
            if self.wires[i].leaf != leaf || !self.is_graded(i) {
                continue;
            }
            let (far, edge) = (self.book.fresh(leaf)[0], self.wires[i].threshold);
            let was = self.wires[i].away;
            let enough = if was { far > edge * 0.8 } else { far >= edge };
            let is = self.book.is_down(leaf) && enough;
            self.wires[i].away = is;
            if was && !is {
                self.let_go(i);
            } else if is && !was && self.is_ready(i) && self.is_longest(i) {
                self.engage(i);
            }
        }
    }

    pub fn is_ready(&self, i: usize) -> bool {
        let wire = &self.wires[i];
        let known = |leaf: Leaf| leaf == wire.leaf || wire.held.iter().any(|p| p.contains(&leaf));
        let strange = (self.book.down.iter())
            .any(|(_, l)| is_modifier(*l) && self.book.is_held(*l) && !known(*l));
        wire.live
            && self.holds(i)
            && !(wire.strict && strange)
            && (!wire.together || self.came_together(i))
    }

    /// Rule: the longest satisfied chord wins, also between a stick and its halves that move.
    pub fn is_longest(&self, i: usize) -> bool {
        let leaf = self.wires[i].leaf;
        let mut with = vec![leaf];
        with.extend(relatives(leaf).into_iter().filter(|r| self.is_worked(*r)));
        let longest = (0..self.wires.len())
            .filter(|&o| with.contains(&self.wires[o].leaf) && self.is_ready(o))
            .map(|o| self.wires[o].held.len())
            .max();
        longest.is_none_or(|l| self.wires[i].held.len() >= l)
    }

    /// Whether a leaf is away from rest where it has a value.
    pub fn is_worked(&self, leaf: Leaf) -> bool {
        self.book.is_followed(leaf) || !self.rests(leaf, self.book.worked(leaf))
    }

    /// Rule: of what is held the longest chord has it; one that begins by pressing has it while it is on,
    /// and before that press.
    pub fn is_longest_held(&self, i: usize) -> bool {
        let leaf = self.wires[i].leaf;
        let with: Vec<Leaf> = relatives(leaf)
            .into_iter()
            .filter(|r| self.is_worked(*r))
            .chain([leaf])
            .collect();
        let has_it = |o: usize| {
            let wire = &self.wires[o];
            let may_begin = match self.is_graded(o) {
                true => !wire.away,
                false => !self.book.is_down_anywhere(wire.leaf),
            };
            let spent = self.book.spent.iter().any(|(_, l)| *l == wire.leaf);
            let may_begin = may_begin && !spent && !wire.together;
            with.contains(&wire.leaf)
                && self.is_ready(o)
                && (wire.follows() || matches!(wire.phase, Phase::On | Phase::Pending) || may_begin)
        };
        let all = (0..self.wires.len()).filter(|&o| has_it(o));
        let longest = all.map(|o| self.wires[o].held.len()).max();
        longest.is_none_or(|l| self.wires[i].held.len() >= l)
    }

    /// Rule: a press that worked a chord belongs to it until it is up.
    pub fn is_anothers(&self, i: usize) -> bool {
        let wire = &self.wires[i];
        let related = relatives(wire.leaf);
        let about = |(leaf, _): &&(Leaf, Vec<Vec<Leaf>>)| {
            (*leaf == wire.leaf || related.contains(leaf)) && self.book.is_down_anywhere(*leaf)
        };
        let owned: Vec<_> = self.owned.iter().filter(about).collect();
        !owned.is_empty() && owned.iter().all(|(_, held)| *held != wire.held)
    }

    /// Whether a chord is held for what follows, whoever had its parts.
    pub fn is_kept(&self, i: usize) -> bool {
        self.is_ready(i) && !self.is_anothers(i)
    }

    /// Rule: a chord uses its parts up.
    pub fn use_up(&mut self, i: usize) {
        let parts: Vec<Leaf> = self.wires[i].held.concat();
        // Rule: what is latched for a chord ends with it, however long that takes.
        if self.eased[&self.wires[i].name].1 {
            let now = self.now;
            let on = self.latches.iter_mut().filter(|l| now <= l.2);
            on.filter(|l| parts.contains(&l.0))
                .for_each(|l| l.2 = u64::MAX);
        }
        for wire in &mut self.wires {
            if parts.contains(&wire.leaf) && matches!(wire.phase, Phase::Pending | Phase::Tapped) {
                wire.phase = Phase::Idle;
            }
        }
    }

    pub fn press(&mut self, leaf: Leaf) {
        self.pressed_at.insert(leaf, self.now);
        // A press of another device is one of its own.
        self.owned.retain(|(l, _)| *l != leaf);
        for part in &mut self.parts {
            part.3 |= part.0 != leaf;
        }
        if self.may_latch(leaf) {
            self.parts.retain(|p| p.0 != leaf);
            self.parts.push((leaf, self.feeding, self.now, false));
        }
        let all: Vec<usize> = (0..self.wires.len())
            .filter(|&i| self.wires[i].leaf == leaf && !self.wires[i].follows())
            .filter(|&i| !self.is_graded(i))
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
        let last_tap = |i: &usize| {
            let wire = &self.wires[*i];
            wire.phase == Phase::Tapped
                && wire.taps == taps_before(wire.manner)
                && self.now <= wire.since + 350
        };
        let last_taps: Vec<usize> = begin.iter().copied().filter(last_tap).collect();
        for i in begin {
            // Rule: the last press of a double tap is nothing else besides, but that of another one
            // on the same input; values go on.
            let wire = &self.wires[i];
            let taps_on = wire.phase == Phase::Tapped && wire.taps < taps_before(wire.manner);
            let goes_on = last_taps.contains(&i) || wire.holds_a_value() || taps_on;
            let others = !last_taps.is_empty() && !goes_on;
            if self.wires[i].phase != Phase::On && !others {
                self.engage(i);
            }
        }
    }

    /// Rule: a tap latches the held part of a chord that is eased so.
    pub fn may_latch(&self, leaf: Leaf) -> bool {
        self.wires
            .iter()
            .any(|w| self.eased[&w.name].1 && w.held.iter().any(|part| part.contains(&leaf)))
    }

    /// Rule: a tap of a part alone latches it; another one lets it go.
    pub fn latch(&mut self, leaf: Leaf) {
        let Some(at) = self.parts.iter().position(|p| p.0 == leaf) else {
            return;
        };
        let (_, device, since, used) = self.parts.remove(at);
        if !self.may_latch(leaf) {
            return;
        }
        let was = self
            .latches
            .iter()
            .any(|(l, _, until)| *l == leaf && self.now <= *until);
        self.latches.retain(|(l, ..)| *l != leaf);
        if !was && !used && self.now <= since + 250 {
            self.latches.push((leaf, device, self.now + 5000));
        }
    }

    /// Rule: a latched part ends with its chord…
    pub fn end_latches(&mut self, i: usize) {
        let wire = &self.wires[i];
        if self.eased[&wire.name].1 {
            let parts = wire.held.concat();
            let goes_on = |leaf: &Leaf| {
                self.wires.iter().any(|w| {
                    matches!(w.phase, Phase::On | Phase::Pending)
                        && self.eased[&w.name].1
                        && w.held.iter().any(|part| part.contains(leaf))
                })
            };
            let ends: Vec<Leaf> = parts.into_iter().filter(|l| !goes_on(l)).collect();
            self.latches.retain(|(l, ..)| !ends.contains(l));
        }
    }

    /// …or with the focus or the plug.
    pub fn lose_latches(&mut self, device: Option<u16>) {
        self.latches.retain(|l| device.is_some_and(|d| d != l.1));
        self.parts.retain(|p| device.is_some_and(|d| d != p.1));
        self.break_chords(true);
    }

    pub fn engage(&mut self, i: usize) {
        // Rule: quick repeats of an unsteady hand are ignored.
        let ignores = self.eased[&self.wires[i].name].0;
        if ignores
            && self.wires[i]
                .let_go_at
                .is_some_and(|at| self.now < at + 100)
        {
            return;
        }
        self.use_up(i);
        if !self.wires[i].held.is_empty() {
            let wire = &self.wires[i];
            self.owned.insert((wire.leaf, wire.held.clone()));
        }
        let first = self.wires[i].since;
        // Rule: each tap comes soon after the one before, or it is the first again.
        let again = self.wires[i].phase == Phase::Tapped && self.now <= first + 350;
        if !again {
            self.wires[i].taps = 0;
        }
        match self.wires[i].manner {
            Manner::Press => {
                self.wires[i].since = self.now;
                self.turn_on(i);
            }
            Manner::DoubleTap | Manner::TripleTap
                if self.wires[i].taps == taps_before(self.wires[i].manner) =>
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
    pub fn let_go(&mut self, i: usize) {
        let (phase, since) = (self.wires[i].phase, self.wires[i].since);
        if matches!(phase, Phase::On | Phase::Pending) {
            self.wires[i].let_go_at = Some(self.now);
        }
        match phase {
            Phase::On => self.turn_off(i),
            Phase::Pending => {
                self.wires[i].phase = Phase::Idle;
                let soon = self.now <= since + 250;
                match self.wires[i].manner {
                    Manner::Release => self.pulse(i),
                    Manner::Tap if soon => self.pulse(i),
                    Manner::DoubleTap | Manner::TripleTap if soon => {
                        self.wires[i].phase = Phase::Tapped;
                        self.wires[i].taps += 1;
                    }
                    _ => {}
                }
            }
            Phase::Idle | Phase::Tapped => {}
        }
        self.end_latches(i);
    }

    pub fn break_off(&mut self, i: usize) {
        let idle = self.wires[i].phase == Phase::Idle;
        self.turn_off(i);
        if !idle {
            self.end_latches(i);
        }
    }

    /// Chords whose held parts are gone end.
    pub fn break_chords(&mut self, lost: bool) {
        for i in 0..self.wires.len() {
            let working = matches!(self.wires[i].phase, Phase::On | Phase::Pending);
            if working && !self.wires[i].held.is_empty() && !self.holds(i) {
                match self.wires[i].together && !lost {
                    // None of its parts is more the last one than another.
                    true => self.let_go(i),
                    false => self.break_off(i),
                }
            }
        }
    }

    // ------------------------------------------------------------------ events

    /// A device is heard of again, unless it says what was so already: answers whether anything of it
    /// has its value back.
    pub fn hear(&mut self, device: u16) -> bool {
        let before = self.book.unheard.len();
        self.book.unheard.retain(|(d, _)| *d != device);
        let heard = self.book.unheard.len() != before;
        if heard {
            self.note_waits(None);
        }
        heard
    }

    /// A button, or a leaf that counts as one, on a device: whether it went down or came up by it for
    /// what begins.
    pub fn set_down(&mut self, device: u16, leaf: Leaf, down: bool) -> Option<bool> {
        let before = self.book.is_down(leaf);
        if down {
            self.book.down.insert((device, leaf));
        } else if self.book.spent.contains(&(device, leaf)) {
            self.book.rest(device, leaf);
            // What went on by it alone is let go.
            return (!self.book.is_held(leaf)).then_some(false);
        } else {
            self.book.rest(device, leaf);
        }
        let after = self.book.is_down(leaf);
        (before != after).then_some(after)
    }

    pub fn button(&mut self, device: u16, leaf: Leaf, down: bool) {
        self.feeding = device;
        self.book.levels.entry((device, leaf)).or_insert([0.0, 0.0]);
        let was = self.book.down.contains(&(device, leaf));
        // Rule: neither auto-repeat nor the release of what was lost is hearing of a device again.
        let lost = self.book.unheard.contains(&(device, leaf));
        let repeats = matches!(leaf, Input::Key(_)) && was && (down || lost);
        let heard = !repeats && self.hear(device);
        let changed = match was == down {
            true => None,
            false => self.set_down(device, leaf, down),
        };
        match changed {
            Some(true) => self.press(leaf),
            Some(false) => self.release(leaf),
            None => {}
        }
        self.drop_unheld();
        self.follow();
        self.settle();
        if heard {
            self.take_up(None);
        }
    }

    pub fn release(&mut self, leaf: Leaf) {
        for i in 0..self.wires.len() {
            let goes_on = self.wires[i].holds_a_value() && self.book.is_followed(leaf);
            if self.wires[i].leaf == leaf && !self.wires[i].follows() && !goes_on {
                self.let_go(i);
            }
        }
        self.latch(leaf);
        self.break_chords(false);
    }

    /// A trigger, stick or axis is somewhere now.
    pub fn analog(&mut self, device: u16, whole: Leaf, at: [f32; 2]) {
        self.feeding = device;
        let heard = self.hear(device);
        let was_held: Vec<Leaf> = (self.book.down.iter())
            .map(|(_, leaf)| *leaf)
            .filter(|leaf| self.book.is_held(*leaf))
            .collect();
        let changed = self.set_level(device, whole, at);
        self.fresh = changed
            .iter()
            .filter(|(leaf, now)| *now && !was_held.contains(leaf))
            .map(|(l, _)| *l)
            .collect();
        if !is_whole(whole) {
            self.fresh.clear();
        }
        for (leaf, _) in changed.iter().filter(|(_, now)| !now) {
            self.release(*leaf);
        }
        for (leaf, _) in changed.iter().filter(|(_, now)| *now) {
            self.press(*leaf);
        }
        let moved = if is_whole(whole) {
            leaves(whole)
        } else {
            vec![whole]
        };
        moved.into_iter().for_each(|leaf| self.grade(leaf));
        self.fresh.clear();
        self.drop_unheld();
        self.follow();
        self.settle();
        if heard {
            self.take_up(None);
        }
    }

    /// Notes where it is; answers which leaves went down or came up by it.
    pub fn set_level(&mut self, device: u16, whole: Leaf, at: [f32; 2]) -> Vec<(Leaf, bool)> {
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
            let was = self.book.down.contains(&(device, leaf));
            let edge = self.lowest(leaf);
            let far = level[0].abs();
            let down = !rests && if was { far > edge * 0.8 } else { far >= edge };
            if self.book.spent.contains(&(device, leaf)) {
                if rests {
                    self.book.rest(device, leaf);
                    if !self.book.is_held(leaf) {
                        changed.push((leaf, false));
                    }
                } else if down {
                    self.book.down.insert((device, leaf));
                } else {
                    self.book.down.remove(&(device, leaf));
                }
            } else if was != down {
                changed.extend(self.set_down(device, leaf, down).map(|now| (leaf, now)));
            }
        }
        if is_whole(whole) && self.rests(whole, at) {
            self.book.rest(device, whole);
        }
        changed
    }

    /// Rule: what says how far it is in is followed by what is held now.
    pub fn follow(&mut self) {
        let (mut begin, mut end) = (Vec::new(), Vec::new());
        for i in 0..self.wires.len() {
            if !self.wires[i].follows() {
                continue;
            }
            let is_in = self.is_away_for(i);
            self.wires[i].waits &= is_in;
            self.wires[i].away = is_in;
            let works = is_in && !self.wires[i].waits && self.is_kept(i) && self.is_longest_held(i);
            match (self.wires[i].phase == Phase::On, works) {
                (true, false) => end.push(i),
                (false, true) => begin.push(i),
                _ => {}
            }
        }
        for i in begin {
            self.use_up(i);
            self.turn_on(i);
        }
        // An action goes on while a stick swings from one of its arms to another.
        for i in end {
            self.turn_off(i);
            self.end_latches(i);
        }
    }

    /// What was taken away from an action is forgotten at rest, and what belongs to a chord once it is
    /// up.
    pub fn settle(&mut self) {
        let spent: BTreeSet<Leaf> = self.book.spent.iter().map(|(_, l)| *l).collect();
        self.taken.retain(|(l, _)| spent.contains(l));
        let book = &self.book;
        self.owned.retain(|(leaf, _)| book.is_down_anywhere(*leaf));
    }

    pub fn is_away(&self, device: u16, leaf: Leaf) -> bool {
        self.book.down.contains(&(device, leaf)) || !self.rests(leaf, self.book.level(device, leaf))
    }

    /// Changes what is held without a press, release or tap.
    pub fn quietly(&mut self, change: impl FnOnce(&mut Model)) {
        let counts = |m: &Model| -> BTreeMap<Leaf, [bool; 3]> {
            let of = |l: Leaf| [m.book.is_down(l), m.book.is_held(l), m.book.is_followed(l)];
            m.heard_of().into_iter().map(|l| (l, of(l))).collect()
        };
        let before = counts(self);
        change(self);
        // Rule: what is broken off is no release and no tap; what others hold goes on.
        let after = counts(self);
        for (leaf, was) in before {
            let is = after.get(&leaf).copied().unwrap_or_default();
            for i in 0..self.wires.len() {
                let wire = &self.wires[i];
                let gone = match wire.holds_a_value() {
                    true => was[2] && !is[2],
                    false if was[0] => !is[0],
                    false => was[1] && !is[1],
                };
                if gone && wire.leaf == leaf && !wire.follows() && wire.phase != Phase::Tapped {
                    self.break_off(i);
                }
            }
        }
        self.break_chords(true);
        let all: BTreeSet<Leaf> = self.wires.iter().map(|w| w.leaf).collect();
        all.into_iter().for_each(|leaf| self.grade(leaf));
        self.settle();
        self.follow();
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
}

/// The taps before the press that counts.
fn taps_before(manner: Manner) -> u8 {
    match manner {
        Manner::TripleTap => 2,
        Manner::DoubleTap => 1,
        _ => 0,
    }
}
