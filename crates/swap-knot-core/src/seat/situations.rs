//! Which actions are live: the stack of situations and what covers what.

use super::state::{Phase, State};
use super::{Cause, Seat};
use crate::input::Control;
use crate::rig::{Part, Rig, Wiring, blocked};
use crate::sheet::{ActionId, Sheet, SituationId, SituationRef};

impl Seat {
    /// The situations that are live, lowest first.
    pub fn situations(&self) -> &[SituationId] {
        &self.state.stack
    }

    /// Whether a situation is live, covered or not; never for one that the sheet does not have.
    pub fn is_in(&self, situation: impl Into<SituationRef>) -> bool {
        let situation = self.rig.sheet().situation_id_of(situation);
        situation.is_some_and(|situation| self.state.stack.contains(&situation))
    }

    /// Lays a situation on top; one that is live already moves there. One that the sheet does not
    /// have changes nothing.
    ///
    /// Costs by what the situation has a say in.
    pub fn enter(&mut self, situation: impl Into<SituationRef>) {
        if let Some(situation) = self.rig.sheet().situation_id_of(situation) {
            self.restack(|stack| {
                stack.retain(|s| *s != situation);
                stack.push(situation);
            });
        }
    }

    /// Takes a situation away.
    pub fn leave(&mut self, situation: impl Into<SituationRef>) {
        if let Some(situation) = self.rig.sheet().situation_id_of(situation) {
            self.restack(|stack| stack.retain(|s| *s != situation));
        }
    }

    /// Makes exactly these situations live, lowest first; the last place counts for one that stands
    /// there twice, and those that the sheet does not have are left out.
    pub fn set_situations<S: Into<SituationRef> + Copy>(&mut self, situations: &[S]) {
        let sheet = self.rig.sheet().clone();
        self.restack(|stack| {
            stack.clear();
            for &situation in situations {
                if let Some(situation) = sheet.situation_id_of(situation) {
                    stack.retain(|s| *s != situation);
                    stack.push(situation);
                }
            }
        });
    }

    fn restack(&mut self, change: impl FnOnce(&mut Vec<SituationId>)) {
        let before = self.state.stack.clone();
        change(&mut self.state.stack);
        self.state.changed_stack(&self.rig, &before);
        self.record_stack();
    }

    /// Two situations that were entered one over the other, the lower one first, though the sheet
    /// does not let them be live like this; told once. They are played all the same, but the
    /// conflict check knows nothing of what meets there.
    pub fn take_unforeseen(&mut self) -> Option<(SituationId, SituationId)> {
        self.state.stacks.open.take()
    }
}

/// Stacks that the sheet does not allow.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Unforeseen {
    pub(super) open: Option<(SituationId, SituationId)>,
    pub(super) seen: Vec<(SituationId, SituationId)>,
}

impl State {
    /// The game entered or left situations.
    fn changed_stack(&mut self, rig: &Rig, before: &[SituationId]) {
        if let Some(pair) = rig.sheet().unforeseen(&self.stack)
            && !self.stacks.seen.contains(&pair)
        {
            self.stacks.seen.push(pair);
            self.stacks.open = Some(pair);
        }
        let wiring = rig.wiring();
        self.add_up_rates(wiring);
        // Below what changed everything is as it was.
        let same = before.iter().zip(&self.stack);
        let same = same.take_while(|(a, b)| a == b).count();
        let changed = before[same..].iter().chain(&self.stack[same..]);
        let mut wires: Vec<u16> = changed
            .flat_map(|situation| wiring.concerned(*situation))
            .copied()
            .collect();
        wires.sort_unstable();
        wires.dedup();
        self.refresh_live(rig, &wires);
        let woken = std::mem::take(&mut self.woken);
        self.take_up(wiring, Some(&woken));
        self.woken = woken;
    }

    /// Works out which of some wires are live, notes those that became so, and ends what no longer is.
    pub(super) fn refresh_live(&mut self, rig: &Rig, wires: &[u16]) {
        let (sheet, wiring) = (rig.sheet(), rig.wiring());
        self.woken.clear();
        for &index in wires {
            let (at, wire) = (usize::from(index), &wiring.wires[usize::from(index)]);
            let action = ActionId::new(wire.action, self.stamp);
            let silenced = |s| wiring.silenced(index, s);
            let is_live = blocked(sheet, &self.stack, action, silenced).is_none();
            if is_live && !self.live[at] {
                self.woken.push(index);
            }
            self.live[at] = is_live;
        }
        self.note_quick_mouse(wiring);
        self.tell_live(rig);
        let outer = self.cause;
        if outer == Cause::LetGo {
            self.cause = Cause::Situation;
        }
        for &index in wires {
            if !self.live[usize::from(index)] {
                self.take_away(wiring, index, false);
            }
        }
        for &index in wires {
            self.unlatch_if_dead(sheet, wiring, wiring.wires[usize::from(index)].action);
        }
        self.cause = outer;
    }

    /// The same of all of them.
    pub(super) fn refresh_all(&mut self, rig: &Rig) {
        let all: Vec<u16> = (0..rig.wiring().wires.len() as u16).collect();
        self.refresh_live(rig, &all);
    }

    /// The game uses an action, or an arm of it, up: what works it ends, and its inputs are silent
    /// until they have been at rest.
    pub(super) fn spend(&mut self, wiring: &Wiring, action: usize, port: Option<u16>) {
        self.add_up_rates(wiring);
        let outer = std::mem::replace(&mut self.cause, Cause::Spent);
        for index in 0..wiring.wires.len() as u16 {
            let wire = &wiring.wires[usize::from(index)];
            let about = usize::from(wire.action) == action
                && port.is_none_or(|port| wire.part == Part::Port(port));
            if about {
                self.take_away(wiring, index, true);
            }
        }
        if port.is_none() {
            self.unlatch(wiring, action as u16);
        }
        if let Some(port) = port {
            self.unlatch_port(wiring, port);
        }
        self.drop_unheld(wiring);
        self.settle_values(wiring);
        self.cause = outer;
    }

    /// A change took a wire away: what it worked ends, and its input begins nothing until it has been at
    /// rest; `mute` takes its value as well.
    pub(super) fn take_away(&mut self, wiring: &Wiring, index: u16, mute: bool) {
        let wire = &wiring.wires[usize::from(index)];
        let phase = self.wires[usize::from(index)].phase;
        if matches!(phase, Phase::On | Phase::Pending) && wire.control != Control::NONE {
            self.held.spend_everywhere(wire.control, mute);
            let taken = (wire.control, wire.action);
            if !self.taken.contains(&taken) {
                self.taken.push(taken);
            }
        }
        if phase != Phase::Idle || !self.wires[usize::from(index)].ramp.is_at_rest() {
            self.break_off(wiring, index);
            self.mark_dirty(wire.action);
        }
    }

    /// Ends a toggled action none of whose situations is live any more.
    fn unlatch_if_dead(&mut self, sheet: &Sheet, wiring: &Wiring, action: u16) {
        let ports = &self.ports[wiring.actions[usize::from(action)].all_ports()];
        let is_latched =
            self.actions[usize::from(action)].latched || ports.iter().any(|port| port.latched);
        let declared = sheet.declared(ActionId::new(action, self.stamp));
        let in_stack = |s: &SituationId| self.stack.contains(s);
        if is_latched
            && !declared.situations.is_empty()
            && !declared.situations.iter().any(in_stack)
        {
            self.unlatch(wiring, action);
        }
    }
}
