//! Further edits of a draft: more bindings, columns, and the settings beside them.

use super::{Bind, Draft, Question, Refusal};
use crate::conflict::conflicts_of;
use crate::input::{Chord, DeviceKind, Placement, TouchName};
use crate::law::{Bound, force, uphold};
use crate::profile::{Profile, parameter_of};
use crate::sheet::{
    ActionId, ActsOn, Cell, Column, ColumnKind, Easing, Feel, Parameter, ParameterValue,
    Parameters, Row, Scope,
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

    /// How an action feels on a device kind as edited, or what works no action in particular.
    pub fn feel(&self, action: Option<ActionId>, kind: DeviceKind) -> Feel {
        let action = action.map(|id| self.sheet.declared(id));
        force::feel(&self.sheet, &self.upheld.lawful, action, kind)
    }

    /// The same as it was applied last.
    pub fn applied_feel(&self, action: Option<ActionId>, kind: DeviceKind) -> Feel {
        let action = action.map(|id| self.sheet.declared(id));
        force::feel(&self.sheet, &self.applied_upheld().lawful, action, kind)
    }

    /// How an action is worked as edited, or what is no action in particular.
    pub fn easing(&self, action: Option<ActionId>) -> Easing {
        let action = action.map(|id| self.sheet.declared(id));
        force::easing(&self.sheet, &self.upheld.lawful, action)
    }

    /// Where a touch zone lies as edited, beside where the game has it.
    pub fn placement(&self, name: TouchName) -> Placement {
        force::placement(&self.sheet, &self.upheld.lawful, name)
    }

    /// What a parameter is in that scope as edited, whoever has set it.
    pub fn parameter(&self, scope: impl Into<Scope>, parameter: Parameter) -> ParameterValue {
        force::value(&self.sheet, &self.upheld.lawful, &scope.into(), parameter)
    }

    /// The same as it was applied last.
    pub fn applied_parameter(
        &self,
        scope: impl Into<Scope>,
        parameter: Parameter,
    ) -> ParameterValue {
        let applied = &self.applied_upheld().lawful;
        force::value(&self.sheet, applied, &scope.into(), parameter)
    }

    /// Sets one parameter of a scope: as [`Draft::set_parameters`] with the others as they are.
    ///
    /// # Errors
    /// As [`Draft::set_parameters`].
    ///
    /// ```
    /// use swap_knot::sheet::Parameter;
    /// use swap_knot::{Bind, DeviceKind, Draft, Layout, Profile, Sheet};
    ///
    /// let sheet = Sheet::from_toml("game = \"harbour\"\n[actions.hurry]\nbind = \"ShiftLeft\"")?;
    /// let mut draft = Draft::new(&sheet, Profile::default(), Layout::us());
    /// let done = draft.set_parameter("hurry", Parameter::Toggle, true)?;
    /// assert!(matches!(done, Bind::Done));
    /// let done = draft.set_parameter(DeviceKind::Mouse, Parameter::Sensitivity, 1.5)?;
    /// assert!(matches!(done, Bind::Done));
    /// assert!(draft.profile().to_toml().contains("hurry = true"));
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn set_parameter(
        &mut self,
        scope: impl Into<Scope>,
        parameter: Parameter,
        value: impl Into<ParameterValue>,
    ) -> Result<Bind, Refusal> {
        let scope = scope.into();
        let to = self.profile.parameters(&scope).with(parameter, value);
        self.set_parameters(scope, &to)
    }

    /// Leaves one parameter of a scope to the game again.
    ///
    /// # Errors
    /// As [`Draft::set_parameters`].
    pub fn reset_parameter(
        &mut self,
        scope: impl Into<Scope>,
        parameter: Parameter,
    ) -> Result<Bind, Refusal> {
        let scope = scope.into();
        let mut to = self.profile.parameters(&scope);
        to.set(parameter, None);
        self.set_parameters(scope, &to)
    }

    /// Sets the player's parameters of a scope: feel, times, a hold to a press, toggling, latching, where
    /// a touch zone lies. What is not set goes back to the game's, and what is set to what it is anyway is
    /// no change and not kept.
    ///
    /// A binding that is worked otherwise by it may meet another one, as a hold that becomes a press
    /// meets a tap on the same key: that is asked about as for a binding.
    ///
    /// # Errors
    /// When the game has no such action, does not let it be changed or eased, or a value is none that
    /// its parameter takes.
    pub fn set_parameters(
        &mut self,
        scope: impl Into<Scope>,
        to: &Parameters,
    ) -> Result<Bind, Refusal> {
        let scope = &scope.into();
        let mut work = self.profile.clone();
        work.set_parameters(scope, to)?;
        // What is refused is told, also where it would change nothing.
        if let Some(why) = self.objection(&uphold(&self.sheet, &work, &self.on)) {
            return Err(why.into());
        }
        let all = |profile: &Profile| force::all(&self.sheet, profile, scope.on);
        for (parameter, _) in to.iter() {
            let mut without = work.clone();
            without.put(parameter_of(scope, parameter), None);
            if all(&without) == all(&work) {
                work = without;
            }
        }
        // Only what acts on actions works a binding otherwise.
        if scope.on != ActsOn::Actions {
            return self.commit(work).map(|()| Bind::Done);
        }
        let upheld = uphold(&self.sheet, &work, &self.on);
        let before = self.bindings();
        let was = |cell| before.iter().find(|b| b.cell == cell);
        let other = |b: &&Bound| {
            was(b.cell).is_none_or(|was| {
                let time = |p: &Parameter| p.is_time() && self.sheet.bears(*p, b.cell, &b.chord);
                let mut times = Parameter::of(ActsOn::Actions).filter(time);
                was.manner != b.manner || times.any(|p| was.easing.get(p) != b.easing.get(p))
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
        let revision = self.revision;
        match Question::worked_otherwise((scope, to), worked, known, work.clone(), revision) {
            Some(question) => self.ask_or_do(question),
            None => self.commit(work).map(|()| Bind::Done),
        }
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
