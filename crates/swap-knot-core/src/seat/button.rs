//! A button of a device goes down or up: by the book, then by the rules of chords, or the short way.

use super::Outcome;
use super::judge::follows;
use super::state::{Phase, State};
use crate::book::Change;
use crate::input::{Control, DeviceId, DeviceKind};
use crate::rig::Wiring;

impl State {
    /// A button went down or up on a device. Doubled and missing events are told by the book: a
    /// press counts only if it was up, and a release only if it was down.
    #[inline(never)]
    pub(super) fn button(
        &mut self,
        wiring: &Wiring,
        control: Control,
        down: bool,
        device: DeviceId,
        kind: DeviceKind,
    ) {
        self.button_of(wiring, control, down, (device, kind));
    }

    /// The same as a part of what calls it: of a key, which is most of them.
    #[inline(always)]
    pub(super) fn button_of(
        &mut self,
        wiring: &Wiring,
        control: Control,
        down: bool,
        (device, kind): (DeviceId, DeviceKind),
    ) {
        let slot = self.held.slot(device);
        let change = self.held.button(slot, control, down);
        self.meant(device, kind, matches!(change, Change::Down { .. }));
        let (Change::Down { first: true } | Change::Up { last: true }) = change else {
            if down && self.trail.is_kept() && self.held.is_spent_on(slot, control) {
                self.tell(wiring, control, None, Outcome::Spent);
            }
            return self.edge(wiring, control, change);
        };
        // Touch inputs that the rig does not know have no route.
        let Some(route) = wiring.routes.get(control.index()) else {
            if down && self.trail.is_kept() {
                self.tell_silent(wiring, control);
            }
            return;
        };
        match route.lone {
            // Where outcomes are told, each press is judged.
            Some(lone) if !self.trail.is_kept() => self.lone(wiring, control, lone, down),
            _ if down => self.press(wiring, control),
            _ => self.release(wiring, control),
        }
    }

    /// A control that works one thing, whatever else is held, has no chord to look for.
    #[inline(always)]
    fn lone(&mut self, wiring: &Wiring, control: Control, index: u16, down: bool) {
        let wire = &wiring.wires[usize::from(index)];
        if down {
            self.note_press(wiring, control);
            if self.live[usize::from(index)] && self.wires[usize::from(index)].phase != Phase::On {
                self.engage(wiring, index, wire);
            }
            return;
        }
        if !(self.held.is_followed(control) && follows(wiring, wire)) {
            self.let_go(wiring, index);
        }
        if !self.taken.is_empty() {
            self.forget_rested();
        }
    }
}
