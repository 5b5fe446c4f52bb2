//! Another rig in the middle of play: what is bound as before plays on without an edge.

use std::collections::HashMap;

use super::Cause;
use super::latch::Latch;
use super::state::{ActionState, Phase, PortState, State};
use super::work::toggles;
use crate::input::{Control, TouchName};
use crate::rig::{Part, Rig, Wire};
use crate::sheet::{ActionId, Arm, Manner, Shape, SituationId, Stamp};

/// What makes a wire the same one in another rig.
#[derive(PartialEq, Eq, Hash)]
struct Key<'a> {
    action: &'a str,
    shape: Shape,
    toggle: bool,
    whole: bool,
    analog: bool,
    arm: Option<Arm>,
    control: Named,
    held: Vec<[Named; 2]>,
    manner: Manner,
    strict: bool,
}

/// A control by what it is called in any rig.
#[derive(Clone, Copy, PartialEq, Eq, Hash)]
enum Named {
    Fixed(Control),
    Touch(TouchName),
}

/// Where everything of the old rig is in the new one.
struct Moves {
    wires: Vec<Option<u16>>,
    actions: Vec<Option<u16>>,
    ports: Vec<Option<u16>>,
}

impl State {
    /// Takes over another rig's tables.
    ///
    /// A wire that is the same in both goes on as it was; what another one worked ends once, and its
    /// input is spent. What is newly bound has the value of what is held, and begins by a fresh press.
    pub(super) fn rewire(&mut self, old: &Rig, new: &Rig) -> Option<Renumbered> {
        let moves = Moves::new(old, new);
        self.add_up_rates(old.wiring());
        self.settle_motion(old.wiring());
        self.cause = Cause::Rig;
        for (index, moved) in moves.wires.iter().enumerate() {
            if moved.is_none() {
                self.take_away(old.wiring(), index as u16, false);
            }
        }
        for (index, action) in old.wiring().actions.iter().enumerate() {
            let goes_on = moves.actions[index].is_some_and(|now| {
                let now = new.wiring().actions[usize::from(now)];
                now.easing.toggle && now.shape == action.shape
            });
            if !goes_on {
                self.unlatch(old.wiring(), index as u16);
            }
        }
        let wiring = new.wiring();
        let was = std::mem::replace(self, State::new(wiring, new.sheet().stamp()));
        let before = (was.stamp, was.rows);
        // Every field is named, so that none can be forgotten.
        let State {
            stamp: _,
            rows,
            frame,
            now,
            held,
            fresh: _,
            wires,
            live,
            ports,
            order,
            actions,
            turned,
            turned_in_frame,
            turned_then,
            // It was settled above.
            mouse: _,
            quick_mouse: _,
            short_ways: _,
            ticks,
            pressed_at,
            dirty: _,
            drives: _,
            ramping,
            timers,
            next_timer: _,
            taken,
            owned,
            stirred: _,
            latches,
            feeding,
            log,
            listed,
            cause: _,
            stack,
            stacks,
            kind,
            kind_changed,
            scratch,
            ending: _,
            woken: _,
            trail,
        } = was;
        let keeps_rows = moves.keeps_rows(new);
        self.rows = rows.wrapping_add(u32::from(!keeps_rows));
        self.frame = frame;
        self.now = now;
        self.order = order;
        self.ticks = ticks;
        let rates = moves.rates(old, new);
        for n in 0..self.turned.len() {
            // One that is a rate only now begins with this moment.
            self.turned[n].since = now;
        }
        for (from, to) in rates.iter().enumerate() {
            if let Some(to) = to.map(usize::from) {
                self.turned[to] = turned[from];
                self.turned_in_frame[to] = turned_in_frame[from];
                self.turned_then[to] = turned_then[from];
            }
        }
        self.feeding = feeding;
        self.trail = trail;
        self.trail.rewire(old, new);
        self.kind = kind;
        self.kind_changed = kind_changed;
        self.scratch = scratch;
        let situation = |s: &SituationId| {
            let name = &old.sheet().declared_situation(*s).name;
            new.sheet().find_situation(name)
        };
        self.stack.extend(stack.iter().filter_map(situation));
        if old.sheet().stamp() == new.sheet().stamp() {
            self.stacks = stacks;
        }
        let names = held.touch_names().to_vec();
        self.held = held;
        self.held.rewire(&wiring.touch_names, wiring.rest.clone());
        let control = |control: Control| match control.touch_position() {
            None => Some(control),
            Some(at) => self.held.find_touch(*names.get(at)?),
        };
        let latch = |latch: Latch| {
            let part = control(latch.part)?;
            Some(Latch { part, ..latch })
        };
        self.latches.on = latches.on.into_iter().filter_map(latch).collect();
        self.latches.down = latches.down.into_iter().filter_map(latch).collect();
        for (from, at) in pressed_at.iter().enumerate() {
            let to = control(Control(from as u16)).map(Control::index);
            if let Some(here) = to.and_then(|to| self.pressed_at.get_mut(to)) {
                *here = *at;
            }
        }
        // What an action worked that is gone is spent for all others.
        let action = |from: u16| moves.actions.get(usize::from(from)).copied().flatten();
        self.taken = (taken.iter())
            .filter_map(|&(taken, by)| Some((control(taken)?, action(by).unwrap_or(u16::MAX))))
            .collect();
        self.owned = (owned.iter())
            .filter_map(|owned| {
                let known = |c: Control| control(c).unwrap_or(Control::NONE);
                Some(super::judge::Owned {
                    control: control(owned.control)?,
                    parts: owned.parts.map(|part| part.map(known)),
                })
            })
            .collect();
        self.carry_states(&moves, new, &actions, &ports);
        for (from, to) in moves.wires.iter().enumerate() {
            if let Some(to) = to {
                self.wires[usize::from(*to)] = wires[from];
                self.live[usize::from(*to)] = live[from];
            }
        }
        let wire = |from: u16| moves.wires[usize::from(from)];
        self.timers
            .extend((timers.iter()).filter_map(|&(due, w)| Some((due, wire(w)?))));
        self.set_next_timer();
        self.ramping.extend(ramping.iter().filter_map(|&w| wire(w)));
        // What is gone is told under the name that it had: its id is that of the old sheet.
        let (stamp, old_stamp) = (self.stamp, old.sheet().stamp());
        let renamed = |id: ActionId| {
            let index = id.of(old_stamp).and_then(|index| action(index as u16));
            index.map_or(id, |index| ActionId::new(index, stamp))
        };
        (self.log, self.listed) = (log, listed);
        if old_stamp != stamp {
            self.log.rename(|h| h.action = renamed(h.action));
            if let Some(listed) = &mut self.listed {
                listed.rename(|m| m.action = renamed(m.action));
            }
        }
        self.cause = Cause::Rig;
        self.follow_on(new);
        self.cause = Cause::LetGo;
        let change = Renumbered {
            from: before,
            to: (self.stamp, self.rows),
            rows: moves.rows(new),
            actions: counted(&moves.actions, new.wiring().actions.len()),
            rates: counted(&rates, new.wiring().rates.len()),
        };
        (!keeps_rows || change.from.0 != change.to.0).then_some(change)
    }

    /// The states of actions and ports, each to where its name is now.
    fn carry_states(
        &mut self,
        moves: &Moves,
        new: &Rig,
        actions: &[ActionState],
        ports: &[PortState],
    ) {
        for (from, to) in moves.actions.iter().enumerate() {
            let Some(to) = *to else { continue };
            self.actions[usize::from(to)] = actions[from];
            self.actions[usize::from(to)].dirty = false;
        }
        for (from, to) in moves.ports.iter().enumerate() {
            if let Some(to) = *to {
                self.ports[usize::from(to)] = ports[from];
            }
        }
        for action in 0..new.wiring().actions.len() as u16 {
            self.mark_dirty(action);
        }
    }

    /// Levels by the new feel: what rests by it ends, and what is held is taken up.
    fn follow_on(&mut self, new: &Rig) {
        let wiring = new.wiring();
        let on = |s: &State, index: usize| s.wires[index].phase == Phase::On;
        for (index, wire) in wiring.wires.iter().enumerate() {
            let ramps =
                !wire.analog && !toggles(wiring, wire) && matches!(wire.part, Part::Port(_));
            if ramps && on(self, index) {
                self.ramp_to(wiring, index as u16, true);
            }
        }
        self.note_grades(wiring);
        self.count_driven();
        self.refresh_all(new);
        let woken = std::mem::take(&mut self.woken);
        self.take_up(wiring, Some(&woken));
        self.woken = woken;
    }
}

/// So many changes of the order of rows are remembered.
pub(super) const RENUMBERED: usize = 8;

/// Where actions and ports went with another rig.
#[derive(Clone, Debug)]
pub(super) struct Renumbered {
    pub(super) from: (Stamp, u32),
    pub(super) to: (Stamp, u32),
    /// For each new one where it was, if it was there: actions and then ports, as they are counted.
    pub(super) rows: Vec<Option<u16>>,
    pub(super) actions: Vec<Option<u16>>,
    pub(super) rates: Vec<Option<u16>>,
}

impl Renumbered {
    /// Puts what was known of each where it is now.
    pub(super) fn carry<T: Copy>(
        &self,
        all: &mut Vec<T>,
        none: T,
        of: impl Fn(&Renumbered) -> &Vec<Option<u16>>,
    ) {
        let was = |from: &Option<u16>| from.and_then(|from| all.get(usize::from(from)).copied());
        *all = of(self)
            .iter()
            .map(|from| was(from).unwrap_or(none))
            .collect();
    }
}

/// For each new one where it was.
fn counted(moves: &[Option<u16>], count: usize) -> Vec<Option<u16>> {
    let mut out = vec![None; count];
    for (from, to) in moves.iter().enumerate() {
        if let Some(to) = to {
            out[usize::from(*to)] = Some(from as u16);
        }
    }
    out
}

impl Moves {
    /// Where each rate is, if it still is one.
    fn rates(&self, old: &Rig, new: &Rig) -> Vec<Option<u16>> {
        let rates = old.wiring().rates.iter();
        let now = |action: u16| new.wiring().actions[usize::from(action)].rate;
        rates
            .map(|&action| self.actions[usize::from(action)].and_then(now))
            .collect()
    }

    /// For each new action and then port where it was among those.
    fn rows(&self, new: &Rig) -> Vec<Option<u16>> {
        let wiring = new.wiring();
        let mut rows = counted(&self.actions, wiring.actions.len());
        let ports = counted(&self.ports, wiring.port_action.len());
        let before = self.actions.len() as u16;
        rows.extend(ports.into_iter().map(|from| from.map(|from| before + from)));
        rows
    }

    /// Whether every action and port is where it was.
    fn keeps_rows(&self, new: &Rig) -> bool {
        let same = |moves: &[Option<u16>], count: usize| {
            let mut all = moves.iter().enumerate();
            moves.len() == count && all.all(|(from, to)| *to == Some(from as u16))
        };
        let wiring = new.wiring();
        same(&self.actions, wiring.actions.len()) && same(&self.ports, wiring.port_action.len())
    }

    fn new(old: &Rig, new: &Rig) -> Moves {
        let mut by_key: HashMap<Key<'_>, Vec<u16>> = HashMap::new();
        for (index, wire) in new.wiring().wires.iter().enumerate().rev() {
            by_key.entry(key(new, wire)).or_default().push(index as u16);
        }
        let wires = old.wiring().wires.iter();
        let wires = wires.map(|wire| by_key.get_mut(&key(old, wire))?.pop());
        let actions: Vec<Option<u16>> = (old.sheet().actions())
            .map(|(_, action)| Some(new.sheet().find(&action.name)?.index() as u16))
            .collect();
        let mut ports = vec![None; old.wiring().port_action.len()];
        for (from, to) in actions.iter().enumerate() {
            let Some(to) = *to else { continue };
            let (was, now) = (
                &old.wiring().actions[from],
                &new.wiring().actions[usize::from(to)],
            );
            for offset in 0..was.ports.min(now.ports) {
                let same = was.shape == now.shape && was.first_arm == now.first_arm;
                if same {
                    ports[usize::from(was.port + u16::from(offset))] =
                        Some(now.port + u16::from(offset));
                }
            }
        }
        Moves {
            wires: wires.collect(),
            actions,
            ports,
        }
    }
}

fn key<'a>(rig: &'a Rig, wire: &Wire) -> Key<'a> {
    let wiring = rig.wiring();
    let action = &wiring.actions[usize::from(wire.action)];
    let id = rig.sheet().action_id(usize::from(wire.action));
    let named = |control: Control| match control.touch_position() {
        Some(at) => Named::Touch(wiring.touch_names[at]),
        None => Named::Fixed(control),
    };
    let arm = match wire.part {
        Part::Port(port) => super::work::arm_of(wiring, wire.action, port),
        Part::Switch | Part::Whole => None,
    };
    Key {
        action: &rig.sheet().declared(id).name,
        shape: action.shape,
        toggle: action.easing.toggle,
        whole: wire.part == Part::Whole,
        analog: wire.analog,
        arm,
        control: named(wire.control),
        held: wiring
            .held_of(wire)
            .iter()
            .map(|pair| pair.map(named))
            .collect(),
        manner: wire.manner,
        strict: wire.strict,
    }
}
