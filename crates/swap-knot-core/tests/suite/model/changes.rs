//! What is live, what a change takes away, and what actions are worth.

use swap_knot::play::Bound;
use swap_knot::sheet::{ActsOn, Arm, Manner, Parameter, Shape, SituationId};
use swap_knot::{Rig, Sheet};

use super::book::{Leaf, Phase, Wire, is_modifier, is_whole, leaves, relatives, wires};
use super::rules::Model;

impl Model {
    pub fn is_live(&self, i: usize) -> bool {
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
                            swap_knot::sheet::Cover::None => true,
                            swap_knot::sheet::Cover::All => while_paused,
                            swap_knot::sheet::Cover::Used => !self.uses(&sheet, *above, wire),
                        }
                })
        })
    }

    /// Whether a situation has something bound that working this wire would work too, at its end
    /// or on the way.
    pub fn uses(&self, sheet: &Sheet, situation: SituationId, wire: &Wire) -> bool {
        // Rule: what inputs are of one another decides, so a side takes the whole modifier.
        let mine = orders(&wire.held, &wire.input, wire.together);
        self.rig.bindings().iter().any(|b: &Bound| {
            let action = sheet.action(b.cell.row.action).unwrap();
            if !action.situations.contains(&situation) || b.cell.row.action == wire.row.action {
                return false;
            }
            let held: Vec<Vec<Leaf>> = b.chord.held().iter().map(|h| leaves(*h)).collect();
            let last = leaves(b.chord.input());
            let mut all = held.clone();
            all.push(last.clone());
            let theirs = orders(&held, &last, b.together);
            mine.iter().any(|(wants, end)| {
                let strange = wants.iter().any(|part| {
                    part.iter().all(|l| is_modifier(*l)) && !all.iter().any(|p| touch(p, part))
                });
                let ends = |(held, last): &Order| touch(last, end) && injects(held, wants);
                (theirs.iter().any(ends) || injects(&all, wants)) && !(b.strict && strange)
            })
        })
    }

    pub fn set_stack(&mut self, stack: Vec<SituationId>) {
        self.stack = stack;
        let before: Vec<bool> = self.wires.iter().map(|w| w.live).collect();
        self.refresh();
        self.take_up(Some(before));
    }

    /// Rule: values follow what is held; a press begins by pressing, or where it resumes by what is down
    /// and worked nothing else. `before` says what was live before; without it only devices changed.
    pub fn take_up(&mut self, before: Option<Vec<bool>>) {
        self.note_waits(before.as_deref());
        for i in 0..self.wires.len() {
            let was_live = before.as_ref().is_some_and(|b| b[i]);
            let wire = &self.wires[i];
            if !wire.live || was_live || wire.phase != Phase::Idle || !wire.resumes {
                continue;
            }
            if wire.follows() || wire.manner != Manner::Press {
                continue;
            }
            let goes_on = match wire.holds_a_value() {
                true => self.is_away_for(i),
                false => before.is_some() && self.may_resume(i),
            };
            if goes_on && self.came_in_order(i) && self.is_kept(i) && self.is_longest_held(i) {
                let wire = &self.wires[i];
                if !wire.held.is_empty() {
                    self.owned.insert((wire.leaf, wire.held.clone()));
                }
                self.use_up(i);
                self.wires[i].since = self.now;
                self.turn_on(i);
            }
        }
        self.drop_unheld();
        self.follow();
    }

    /// Rule: what does not resume waits until what works it has been at rest.
    pub fn note_waits(&mut self, before: Option<&[bool]>) {
        for i in 0..self.wires.len() {
            let was_live = before.is_some_and(|b| b[i]);
            let wire = &self.wires[i];
            if wire.live && !was_live && wire.phase == Phase::Idle && !wire.resumes {
                let news = before.is_some() || !wire.away || wire.waits;
                self.wires[i].waits = news && self.is_away_for(i);
            }
        }
    }

    fn may_resume(&mut self, i: usize) -> bool {
        let wire = self.wires[i].clone();
        let mut related = relatives(wire.leaf);
        related.push(wire.leaf);
        let taken = self.taken.iter().filter(|(l, _)| related.contains(l));
        let by: Vec<String> = taken.map(|(_, by)| by.clone()).collect();
        if by.iter().any(|by| *by != wire.name) {
            return false;
        }
        if !by.is_empty() {
            let silent =
                |at: &(u16, Leaf)| self.book.muted.contains(at) || self.book.unheard.contains(at);
            let spent = self.book.spent.iter();
            let still = spent.filter(|at| at.1 != wire.leaf || silent(at));
            self.book.spent = still.copied().collect();
            self.taken.retain(|(l, _)| *l != wire.leaf);
        }
        self.is_in(i)
    }

    /// Rule: what a chord holds is down before what completes it.
    fn came_in_order(&self, i: usize) -> bool {
        let wire = &self.wires[i];
        let when = |leaf: &Leaf| self.pressed_at.get(leaf).copied().unwrap_or_default();
        wire.held.iter().all(|part| {
            part.iter().any(|leaf| {
                let before = self.book.is_held(*leaf) && when(leaf) <= when(&wire.leaf);
                before || self.is_latched(i, leaf)
            })
        })
    }

    /// What has no value any more ends.
    pub fn drop_unheld(&mut self) {
        for i in 0..self.wires.len() {
            let wire = &self.wires[i];
            let on = wire.phase == Phase::On && wire.holds_a_value();
            if on && (!self.book.is_followed(wire.leaf) || self.is_anothers(i)) {
                self.break_off(i);
            }
        }
    }

    /// The game spends an action: its inputs are silent until they have been at rest.
    pub fn spend(&mut self, name: &str) {
        for i in 0..self.wires.len() {
            if self.wires[i].name == name {
                self.take_away(i, true);
            }
        }
        let own = |row: &String| row.split('.').next() == Some(name);
        self.noting(|m| m.latched.retain(|row| !own(row)));
        self.drop_unheld();
        self.follow();
        self.settle();
    }

    /// Ends what is live no more.
    pub fn refresh(&mut self) {
        for i in 0..self.wires.len() {
            self.wires[i].live = self.is_live(i);
        }
        for i in 0..self.wires.len() {
            if !self.wires[i].live {
                self.take_away(i, false);
            }
        }
        let (sheet, stack) = (self.sheet(), self.stack.clone());
        self.noting(|m| {
            m.latched.retain(|row| {
                let id = sheet.find(row.split('.').next().unwrap()).unwrap();
                let own = &sheet.action(id).unwrap().situations;
                own.is_empty() || own.iter().any(|s| stack.contains(s))
            });
        });
    }

    pub fn take_away(&mut self, i: usize, mute: bool) {
        let wire = self.wires[i].clone();
        if matches!(wire.phase, Phase::On | Phase::Pending) {
            self.taken.insert((wire.leaf, wire.name.clone()));
            for device in self.book.devices() {
                let at = (device, wire.leaf);
                if self.is_away(device, wire.leaf) {
                    self.book.spent.insert(at);
                }
                if mute && self.book.spent.contains(&at) {
                    self.book.muted.insert(at);
                }
            }
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
                None => self.take_away(i, false),
            }
        }
        let mut used = vec![false; next.len()];
        for i in 0..self.wires.len() {
            let old = self.wires[i].clone();
            if let Some(n) = (0..next.len()).find(|&n| !used[n] && next[n].is_same(&old)) {
                used[n] = true;
                next[n].phase = old.phase;
                next[n].taps = old.taps;
                next[n].since = old.since;
                next[n].let_go_at = old.let_go_at;
                next[n].live = old.live;
                next[n].waits = old.waits;
            }
        }
        let names: Vec<String> = (self.stack.iter())
            .map(|s| self.rig.sheet().situation(*s).unwrap().name.clone())
            .collect();
        let sheet = rig.sheet().clone();
        self.noting(|m| {
            m.latched.retain(|row| {
                let id = sheet.find(row.split('.').next().unwrap());
                let said = |id| sheet.action(id).unwrap().settings.of(ActsOn::Actions);
                id.is_some_and(|id| said(id).get(Parameter::Toggle) == Some(true.into()))
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
            if self.is_graded(i) {
                self.wires[i].away = self.is_in(i);
            }
        }
        let before: Vec<bool> = self.wires.iter().map(|w| w.live).collect();
        self.refresh();
        self.take_up(Some(before));
    }

    // ------------------------------------------------------------------ values

    pub fn value(&self, name: &str) -> [f32; 3] {
        let own: Vec<&Wire> = (self.wires.iter())
            .filter(|w| w.name == name && w.phase == Phase::On)
            .collect();
        let far = |arm: Option<Arm>| {
            let of = own.iter().filter(|w| w.row.arm == arm && !is_whole(w.leaf));
            let far = of.filter(|w| !w.toggles()).map(|w| {
                if w.follows() {
                    self.after_feel(w)[0]
                } else {
                    1.0
                }
            });
            let far = far.fold(0.0, f32::max);
            let row = arm.map_or(name.to_owned(), |arm| format!("{name}.{arm}"));
            if self.latched.contains(&row) {
                1.0
            } else {
                far
            }
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

/// What is held, and what completes it.
type Order = (Vec<Vec<Leaf>>, Vec<Leaf>);

/// The orders in which a chord may be pressed.
fn orders(held: &[Vec<Leaf>], last: &[Leaf], together: bool) -> Vec<Order> {
    let mut out = vec![(held.to_vec(), last.to_vec())];
    for n in (0..held.len()).filter(|_| together) {
        let mut rest = held.to_vec();
        let end = std::mem::replace(&mut rest[n], last.to_vec());
        out.push((rest, end));
    }
    out
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
