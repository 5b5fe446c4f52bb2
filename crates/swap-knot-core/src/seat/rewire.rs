//! Another rig in the middle of play: what is bound as before plays on without an edge.

use std::collections::HashMap;

use super::latch::Latch;
use super::state::{ActionState, Phase, PortState, State};
use super::turn::Turned;
use super::work::toggles;
use super::{Cause, Happened, Moved};
use crate::input::{Control, TouchName};
use crate::rig::{Part, Rig, Wire};
use crate::sheet::{ActionId, Arm, Manner, Shape};

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
    pub(super) fn rewire(&mut self, old: &Rig, new: &Rig) {
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
        self.rows = was.rows.wrapping_add(u32::from(!moves.keeps_rows(new)));
        self.frame = was.frame;
        self.now = was.now;
        self.order = was.order;
        self.ticks = was.ticks;
        self.carry_rates(&moves, old, new, &was);
        self.latches = was.latches;
        let keeps = |latch: &Latch| latch.part.touch_position().is_none();
        self.latches.on.retain(keeps);
        self.latches.down.retain(keeps);
        self.listed = was.listed;
        self.trail = was.trail;
        self.trail.rewire(old, new);
        self.kind = was.kind;
        self.kind_changed = was.kind_changed;
        self.scratch = was.scratch;
        let situations = was.stack.iter().filter_map(|s| {
            let name = &old.sheet().declared_situation(*s).name;
            new.sheet().find_situation(name)
        });
        self.stack.extend(situations);
        let names = was.held.touch_names().to_vec();
        self.held = was.held;
        self.held.rewire(&wiring.touch_names, wiring.rest.clone());
        self.carry_states(&moves, new, &was.actions, &was.ports);
        for (control, at) in was.pressed_at.iter().enumerate().take(Control::FIXED) {
            self.pressed_at[control] = *at;
        }
        for (from, to) in moves.wires.iter().enumerate() {
            if let Some(to) = to {
                self.wires[usize::from(*to)] = was.wires[from];
                self.live[usize::from(*to)] = was.live[from];
            }
        }
        let wire = |from: u16| moves.wires[usize::from(from)];
        self.timers
            .extend((was.timers.iter()).filter_map(|&(due, w)| Some((due, wire(w)?))));
        self.set_next_timer();
        self.ramping
            .extend(was.ramping.iter().filter_map(|&w| wire(w)));
        let action = |from: u16| moves.actions[usize::from(from)];
        let control = |control: Control| match control.touch_position() {
            None => Some(control),
            Some(at) => self.held.find_touch(*names.get(at)?),
        };
        // What an action worked that is gone is spent for all others.
        let taken = was
            .taken
            .iter()
            .filter_map(|&(taken, by)| Some((control(taken)?, action(by).unwrap_or(u16::MAX))));
        let taken = taken.collect();
        let owned = was.owned.iter().filter_map(|owned| {
            let known = |c: Control| control(c).unwrap_or(Control::NONE);
            Some(super::follow::Owned {
                control: control(owned.control)?,
                parts: owned.parts.map(|part| part.map(known)),
            })
        });
        let owned = owned.collect();
        (self.taken, self.owned) = (taken, owned);
        let stamp = self.stamp;
        let told = |h: &Happened| {
            let id = ActionId::new(action(h.action.index() as u16)?, stamp);
            Some(Happened { action: id, ..*h })
        };
        self.log = was.log;
        if old.sheet().stamp() != new.sheet().stamp() {
            self.log.rename(told);
            if let Some(listed) = &mut self.listed {
                listed.rename(|m| {
                    let id = ActionId::new(action(m.action.index() as u16)?, stamp);
                    Some(Moved { action: id, ..*m })
                });
            }
        }
        self.cause = Cause::Rig;
        self.follow_on(new);
        self.cause = Cause::LetGo;
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

    /// What rates have turned; one that is a rate only now begins with this moment.
    fn carry_rates(&mut self, moves: &Moves, old: &Rig, new: &Rig, was: &State) {
        for turned in &mut self.turned {
            *turned = Turned {
                since: was.now,
                ..Turned::default()
            };
        }
        for (from, &action) in old.wiring().rates.iter().enumerate() {
            let to = moves.actions[usize::from(action)];
            let Some(to) = to.and_then(|a| new.wiring().actions[usize::from(a)].rate) else {
                continue;
            };
            let to = usize::from(to);
            self.turned[to] = was.turned[from];
            self.turned_in_frame[to] = was.turned_in_frame[from];
            self.turned_then[to] = was.turned_then[from];
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
        let before = self.live.clone();
        self.refresh_live(new);
        self.take_up(wiring, Some(&before));
    }
}

impl Moves {
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
