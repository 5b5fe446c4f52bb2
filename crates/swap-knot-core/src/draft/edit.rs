//! Further edits of a draft: more bindings, columns, feel, toggles; and the draft in words.

use super::{Bind, Draft, Question, Refusal};
use crate::conflict::conflicts_of;
use crate::input::{Chord, DeviceKind};
use crate::law::{Bound, Eased, eased, feel_in_force, uphold};
use crate::profile::Profile;
use crate::sheet::{
    ActionId, Cell, Column, ColumnKind, Ease, Easing, Feel, FeelPatch, Knob, Manner, Row, Timing,
};

impl Draft {
    /// Adds a binding to a row beside those it has, in the first free column.
    ///
    /// # Errors
    /// As [`Draft::bind`]; besides, when every column is taken.
    pub fn bind_further(&mut self, row: Row, chord: Chord) -> Result<Bind, Refusal> {
        let kind = ColumnKind::of(chord.device_kind());
        let free = (1..=Column::LAST)
            .map(|n| row.cell(Column::new(kind, n)))
            .find(|cell| self.chord_in(*cell).is_none());
        match free {
            Some(cell) => self.bind(cell, chord),
            None => {
                let row = self.sheet.titled(row);
                Err(Refusal::Full { row, kind })
            }
        }
    }

    /// Exchanges what stands in two columns of a row.
    ///
    /// # Errors
    /// When the columns are for different devices, or the action cannot be changed.
    pub fn exchange(&mut self, row: Row, a: Column, b: Column) -> Result<(), Refusal> {
        self.check(row.cell(a), None)?;
        if a.kind() != b.kind() {
            return Err(Refusal::OtherDevices(a, b));
        }
        let (at_a, at_b) = (
            self.chord_in(row.cell(a)).cloned(),
            self.chord_in(row.cell(b)).cloned(),
        );
        let mut work = self.profile.clone();
        work.set(&self.sheet, row.cell(a), at_b);
        work.set(&self.sheet, row.cell(b), at_a);
        self.commit(work)
    }

    /// Changes the player's feel on a device kind, for one action or for all of them. What it is
    /// anyway is no change, and not kept.
    ///
    /// # Errors
    /// When the game has no such action, it cannot be changed, or a number is out of range.
    pub fn set_feel(
        &mut self,
        action: Option<&str>,
        kind: DeviceKind,
        feel: FeelPatch,
    ) -> Result<(), Refusal> {
        let mut work = self.profile.clone();
        work.set_feel(action, kind, feel)?;
        for knob in Knob::ALL {
            let mut left = work.feel(action, kind);
            if left.knob(knob).is_none() {
                continue;
            }
            let mut without = work.clone();
            left.turn(knob, None);
            without.set_feel(action, kind, left)?;
            if self.feels(&without, kind) == self.feels(&work, kind) {
                work = without;
            }
        }
        self.commit(work)
    }

    /// How an action feels on a device kind as edited, or what works no action in particular.
    pub fn feel(&self, action: Option<ActionId>, kind: DeviceKind) -> Feel {
        let action = action.map(|id| self.sheet.declared(id));
        feel_in_force(&self.sheet, &self.upheld.lawful, action, kind)
    }

    /// What the player eases for an action, or for all of them, as it is in force; of all that is
    /// not eased, it is what the game has.
    pub fn easing(&self, action: Option<ActionId>) -> Easing {
        let lawful = &self.upheld.lawful;
        match action {
            Some(id) => eased(lawful, self.sheet.declared(id)).into(),
            None => Easing::of(Timing::default()).with(&lawful.easing(None)),
        }
    }

    /// How everything feels on a device kind: each action, and what works none.
    fn feels(&self, profile: &Profile, kind: DeviceKind) -> Vec<Feel> {
        let actions = self.sheet.actions().map(|(_, a)| Some(a));
        let all = actions.chain([None]);
        all.map(|action| feel_in_force(&self.sheet, profile, action, kind))
            .collect()
    }

    /// Eases one action or all of them: times, a hold to a press, toggling, latching, quick repeats.
    /// What is not set goes back to the game's, and what it is anyway is no change.
    ///
    /// A binding that is worked otherwise by it may meet another one, as a hold that becomes a press
    /// meets a tap on the same key: that is asked about as for a binding.
    ///
    /// # Errors
    /// When the game has no such action, does not let it be changed or eased, or a time is out of
    /// range.
    pub fn ease(&mut self, action: Option<&str>, easing: Easing) -> Result<Bind, Refusal> {
        let mut work = self.profile.clone();
        work.set_easing(action, easing)?;
        // What is refused is told, also where it would change nothing.
        if let Some(why) = self.objection(&uphold(&self.sheet, &work, &self.on)) {
            return Err(why.into());
        }
        let all = |profile: &Profile| -> Vec<Eased> {
            self.sheet
                .actions()
                .map(|(_, a)| eased(profile, a))
                .collect()
        };
        for ease in Ease::ALL {
            let (mut left, mut without) = (work.easing(action), work.clone());
            if left.get(ease).is_none() {
                continue;
            }
            left.set(ease, None);
            without.set_easing(action, left)?;
            if all(&without) == all(&work) {
                work = without;
            }
        }
        let upheld = uphold(&self.sheet, &work, &self.on);
        let before = self.bindings();
        let was = |cell| before.iter().find(|b| b.cell == cell);
        // A press has no times.
        let other = |b: &&Bound| {
            was(b.cell).is_none_or(|was| {
                let timed = b.manner != Manner::Press;
                was.manner != b.manner || (timed && was.timing != b.timing)
            })
        };
        let worked: Vec<(Cell, Chord)> = (upheld.bindings.iter().filter(other))
            .map(|b| (b.cell, b.chord.clone()))
            .collect();
        let mut known = Vec::new();
        for was in worked.iter().filter_map(|(cell, _)| was(*cell)) {
            let met = conflicts_of(&self.sheet, was, before, &self.on).into_iter();
            let met = met.filter(|c| c.class.is_conflict());
            known.extend(met.map(|c| (was.cell, c.second.cell)));
        }
        match Question::ease((action, easing), worked, known, work.clone(), self.revision) {
            Some(question) => self.ask_or_do(question),
            None => self.commit(work).map(|()| Bind::Done),
        }
    }

    /// Says whether an action toggles, or leaves it to the game: of one with arms each of its keys
    /// does. What it does anyway is no change.
    ///
    /// # Errors
    /// When the game has no such action, or it cannot be changed or eased.
    pub fn set_toggle(&mut self, action: &str, toggle: Option<bool>) -> Result<(), Refusal> {
        let mut easing = self.profile.easing(Some(action));
        easing.toggle = toggle;
        // No binding is worked otherwise by it, so there is nothing to ask about.
        self.ease(Some(action), easing).map(drop)
    }

    /// The cells that an input or chord stands in, for "what is on this key?": a single input is
    /// found wherever it has to do with a part of a chord.
    pub fn cells_on(&self, chord: &Chord) -> Vec<Cell> {
        let Ok(wanted) = self.on.chord(chord) else {
            return Vec::new();
        };
        let on = |b: &&Bound| {
            let Ok(has) = self.on.chord(&b.chord) else {
                return false;
            };
            match chord.is_plain() {
                true => has.parts().any(|p| p.relation(&wanted.input).is_some()),
                false => has == wanted,
            }
        };
        self.bindings().iter().filter(on).map(|b| b.cell).collect()
    }
}
