//! Which actions are live: the stack of situations and what covers what.

use super::Seat;
use super::state::{Phase, State};
use crate::rig::{Control, Rig, Wire, Wiring};
use crate::sheet::{Action, ActionId, Cover, Sheet, SituationId};

impl Seat {
    /// The situations that are live, lowest first.
    pub fn situations(&self) -> &[SituationId] {
        &self.state.stack
    }

    /// Lays a situation on top; one that is live already moves there.
    pub fn enter(&mut self, situation: SituationId) {
        self.state.stack.retain(|s| *s != situation);
        self.state.stack.push(situation);
        self.state.refresh_live(&self.rig);
    }

    /// Takes a situation away.
    pub fn leave(&mut self, situation: SituationId) {
        self.state.stack.retain(|s| *s != situation);
        self.state.refresh_live(&self.rig);
    }

    /// Makes exactly these situations live, lowest first.
    pub fn set_situations(&mut self, situations: &[SituationId]) {
        self.state.stack.clear();
        self.state.stack.extend_from_slice(situations);
        self.state.refresh_live(&self.rig);
    }
}

impl State {
    /// Works out which wires are live, and ends what no longer is. Costs by the bindings of the
    /// sheet, once per change.
    pub(super) fn refresh_live(&mut self, rig: &Rig) {
        let (sheet, wiring) = (rig.sheet(), rig.wiring());
        for (index, wire) in wiring.wires.iter().enumerate() {
            let action = sheet.action(ActionId::new(wire.action));
            let mut live = self.is_live(sheet, wiring, action, wire);
            if live && !action.while_typing && wire.control.writes() {
                live = !self.is_typed(sheet, action);
            }
            self.live[index] = live;
        }
        for index in 0..wiring.wires.len() {
            if !self.live[index] && self.wires[index].phase != Phase::Idle {
                self.break_off(wiring, index as u16);
            }
        }
        self.unlatch_dead(sheet, wiring);
    }

    /// Whether some situation of an action is live and nothing above it covers this wire.
    fn is_live(&self, sheet: &Sheet, wiring: &Wiring, action: &Action, wire: &Wire) -> bool {
        if action.situations.is_empty() {
            return true;
        }
        action.situations.iter().any(|s| {
            let Some(at) = self.stack.iter().position(|o| o == s) else {
                return false;
            };
            self.stack[at + 1..]
                .iter()
                .all(|&above| match sheet.situation(above).cover {
                    _ if sheet.situation(above).over.is_empty() => true,
                    Cover::None => true,
                    Cover::All => action.while_paused || action.situations.contains(&above),
                    Cover::Used => !uses(sheet, wiring, above, wire),
                })
        })
    }

    /// Whether the player types text in a situation that the action is not part of.
    fn is_typed(&self, sheet: &Sheet, action: &Action) -> bool {
        let typing = |s: &&SituationId| sheet.situation(**s).typing;
        let mut typing = self.stack.iter().filter(typing);
        typing.any(|s| !action.situations.contains(s))
    }

    /// Ends toggled actions none of whose wires are live any more.
    fn unlatch_dead(&mut self, sheet: &Sheet, wiring: &Wiring) {
        for action in 0..wiring.actions.len() as u16 {
            let declared = sheet.action(ActionId::new(action));
            let in_stack = declared.situations.iter().any(|s| self.stack.contains(s));
            if !in_stack && !declared.situations.is_empty() {
                self.unlatch(action);
            }
        }
    }
}

/// Whether a situation uses the input of a wire: it has the same control, either on its own or
/// with the same parts held.
fn uses(sheet: &Sheet, wiring: &Wiring, situation: SituationId, wire: &Wire) -> bool {
    let control: Control = wire.control;
    wiring.completed_by(control).iter().any(|&other| {
        let other = &wiring.wires[usize::from(other)];
        let in_it = sheet
            .action(ActionId::new(other.action))
            .situations
            .contains(&situation);
        in_it
            && other.action != wire.action
            && (other.held_len == 0 || wiring.held_of(other) == wiring.held_of(wire))
    })
}
