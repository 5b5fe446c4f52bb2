//! Feel: dead zone, sensitivity, invert, curve, ramp.

/// How a dead zone is laid around the rest of a stick.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum DeadZoneForm {
    /// By distance from the middle, so that directions stay true.
    Round,
    /// Each axis by itself, so that straight lines are easy to keep.
    Axis,
}

/// The part of a stick's or trigger's way that counts as rest, and where full begins.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct DeadZone {
    /// Up to here it rests, 0 to 0.95 of the way.
    pub inner: f32,
    /// From here on it is full, above `inner` to 1.
    pub outer: f32,
    /// How it is laid.
    pub form: DeadZoneForm,
}

/// How an input is turned into an action's value.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Feel {
    /// What counts as rest and as full.
    pub dead_zone: DeadZone,
    /// The value is multiplied by this, 0.01 to 100.
    pub sensitivity: f32,
    /// Which axes are turned round: first, second, third.
    pub invert: [bool; 3],
    /// The power that the value is raised to, 0.1 to 10: 1 is a straight line, above 1 is finer
    /// around rest.
    pub curve: f32,
    /// Seconds that a key takes from rest to full, 0 to 10.
    pub ramp_up: f32,
    /// Seconds that a key takes from full to rest, 0 to 10.
    pub ramp_down: f32,
}

impl Default for Feel {
    /// A straight line without dead zone or ramp.
    fn default() -> Self {
        Feel {
            dead_zone: DeadZone {
                inner: 0.0,
                outer: 1.0,
                form: DeadZoneForm::Round,
            },
            sensitivity: 1.0,
            invert: [false; 3],
            curve: 1.0,
            ramp_up: 0.0,
            ramp_down: 0.0,
        }
    }
}

/// A change of feel: only what is set replaces what was there.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct FeelPatch {
    /// Replaces [`Feel::dead_zone`].
    pub dead_zone: Option<DeadZone>,
    /// Replaces [`Feel::sensitivity`].
    pub sensitivity: Option<f32>,
    /// Replaces [`Feel::invert`].
    pub invert: Option<[bool; 3]>,
    /// Replaces [`Feel::curve`].
    pub curve: Option<f32>,
    /// Replaces [`Feel::ramp_up`].
    pub ramp_up: Option<f32>,
    /// Replaces [`Feel::ramp_down`].
    pub ramp_down: Option<f32>,
}

impl FeelPatch {
    /// Whether it changes nothing.
    pub fn is_empty(&self) -> bool {
        *self == FeelPatch::default()
    }

    /// This change with another one laid over it.
    #[must_use]
    pub fn with(self, over: &FeelPatch) -> FeelPatch {
        FeelPatch {
            dead_zone: over.dead_zone.or(self.dead_zone),
            sensitivity: over.sensitivity.or(self.sensitivity),
            invert: over.invert.or(self.invert),
            curve: over.curve.or(self.curve),
            ramp_up: over.ramp_up.or(self.ramp_up),
            ramp_down: over.ramp_down.or(self.ramp_down),
        }
    }
}

impl Feel {
    /// This feel with a change laid over it.
    #[must_use]
    pub fn with(self, patch: &FeelPatch) -> Feel {
        Feel {
            dead_zone: patch.dead_zone.unwrap_or(self.dead_zone),
            sensitivity: patch.sensitivity.unwrap_or(self.sensitivity),
            invert: patch.invert.unwrap_or(self.invert),
            curve: patch.curve.unwrap_or(self.curve),
            ramp_up: patch.ramp_up.unwrap_or(self.ramp_up),
            ramp_down: patch.ramp_down.unwrap_or(self.ramp_down),
        }
    }
}
