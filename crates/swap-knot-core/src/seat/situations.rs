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
    pub fn enter(&mut self, situation: impl Into<SituationRef>) {
        if let Some(situation) = self.rig.sheet().situation_id_of(situation) {
            self.state.stack.retain(|s| *s != situation);
            self.state.stack.push(situation);
            self.state.changed_stack(&self.rig);
            self.record_stack();
        }
    }

    /// Takes a situation away.
    pub fn leave(&mut self, situation: impl Into<SituationRef>) {
        if let Some(situation) = self.rig.sheet().situation_id_of(situation) {
            self.state.stack.retain(|s| *s != situation);
            self.state.changed_stack(&self.rig);
            self.record_stack();
        }
    }

    /// Makes exactly these situations live, lowest first; the last place counts for one that stands
    /// there twice, and those that the sheet does not have are left out.
    pub fn set_situations<S: Into<SituationRef> + Copy>(&mut self, situations: &[S]) {
        let stack = &mut self.state.stack;
        stack.clear();
        for &situation in situations {
            if let Some(situation) = self.rig.sheet().situation_id_of(situation) {
                stack.retain(|s| *s != situation);
                stack.push(situation);
            }
        }
        self.state.changed_stack(&self.rig);
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
    fn changed_stack(&mut self, rig: &Rig) {
        if let Some(pair) = rig.sheet().unforeseen(&self.stack)
            && !self.stacks.seen.contains(&pair)
        {
            self.stacks.seen.push(pair);
            self.stacks.open = Some(pair);
        }
        self.add_up_rates(rig.wiring());
        let before = self.live.clone();
        self.refresh_live(rig);
        self.take_up(rig.wiring(), Some(&before));
    }

    /// Works out which wires are live, and ends what no longer is. Costs by the bindings of the
    /// sheet, once per change.
    pub(super) fn refresh_live(&mut self, rig: &Rig) {
        let (sheet, wiring) = (rig.sheet(), rig.wiring());
        for (index, wire) in wiring.wires.iter().enumerate() {
            let action = ActionId::new(wire.action, self.stamp);
            let silenced = |s| wiring.silenced(index as u16, s);
            self.live[index] = blocked(sheet, &self.stack, action, silenced).is_none();
        }
        self.note_quick_mouse(wiring);
        self.tell_live(rig);
        let outer = self.cause;
        if outer == Cause::LetGo {
            self.cause = Cause::Situation;
        }
        for index in 0..wiring.wires.len() as u16 {
            if !self.live[usize::from(index)] {
                self.take_away(wiring, index, false);
            }
        }
        self.unlatch_dead(sheet, wiring);
        self.cause = outer;
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

    /// Ends toggled actions none of whose situations are live any more.
    fn unlatch_dead(&mut self, sheet: &Sheet, wiring: &Wiring) {
        for action in 0..wiring.actions.len() as u16 {
            let declared = sheet.declared(ActionId::new(action, self.stamp));
            let in_stack = declared.situations.iter().any(|s| self.stack.contains(s));
            if !in_stack && !declared.situations.is_empty() {
                self.unlatch(wiring, action);
            }
        }
    }
}
