//! Inputs, bindings and what is held. An input in hand is a *leaf*; a whole stick or axis is one
//! beside its halves.

use std::collections::{BTreeMap, BTreeSet};

use swap_knot::input::{Direction, HidInput, Modifier};
use swap_knot::sheet::{ActsOn, Manner, Parameter, ParameterPart, Parameters, Shape};
use swap_knot::{Input, Place, Rig, Row};

pub type Leaf = Input;

/// The leaves of an input; a whole stick has its halves, by which it is related to them.
pub fn leaves(input: Input) -> Vec<Leaf> {
    let keys = |places: [Place; 2]| places.map(Input::Key).to_vec();
    match input {
        Input::Modifier(Modifier::Shift) => keys([Place::ShiftLeft, Place::ShiftRight]),
        Input::Modifier(Modifier::Ctrl) => keys([Place::ControlLeft, Place::ControlRight]),
        Input::PadStick(s) => Direction::ALL.map(|d| Input::PadStickHalf(s, d)).to_vec(),
        Input::Hid(HidInput::Axis(a)) => [
            swap_knot::input::Sign::Positive,
            swap_knot::input::Sign::Negative,
        ]
        .map(|s| Input::Hid(HidInput::Half(a, s)))
        .to_vec(),
        other => vec![other],
    }
}

/// What moves with a leaf: its halves, or its whole.
pub fn relatives(leaf: Leaf) -> Vec<Leaf> {
    match leaf {
        Input::PadStick(_) | Input::Hid(HidInput::Axis(_)) => leaves(leaf),
        Input::PadStickHalf(s, _) => vec![Input::PadStick(s)],
        Input::Hid(HidInput::Half(a, _)) => vec![Input::Hid(HidInput::Axis(a))],
        _ => Vec::new(),
    }
}

pub fn is_whole(leaf: Leaf) -> bool {
    matches!(leaf, Input::PadStick(_) | Input::Hid(HidInput::Axis(_)))
}

pub fn is_modifier(leaf: Leaf) -> bool {
    matches!(leaf, Input::Key(place) if Modifier::of_place(place).is_some())
}

/// One binding on one thing that completes it.
#[derive(Clone, Debug)]
pub struct Wire {
    pub row: Row,
    pub name: String,
    pub shape: Shape,
    pub toggle: bool,
    pub resumes: bool,
    pub manner: Manner,
    pub strict: bool,
    pub together: bool,
    /// How far in its leaf has to be to count as down for it.
    pub threshold: f32,
    pub leaf: Leaf,
    /// Everything that the binding's last input is, this leaf and its other side.
    pub input: Vec<Leaf>,
    pub held: Vec<Vec<Leaf>>,
    pub phase: Phase,
    /// The taps made so far.
    pub taps: u8,
    pub since: u64,
    pub away: bool,
    /// Whether it has to be at rest before it follows.
    pub waits: bool,
    pub let_go_at: Option<u64>,
    pub live: bool,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Phase {
    Idle,
    Pending,
    On,
    Tapped,
}

impl Wire {
    /// Whether it follows how far its leaf is in.
    pub fn follows(&self) -> bool {
        let pull = matches!(
            self.leaf,
            Input::PadStickHalf(..) | Input::Hid(HidInput::Half(..))
        ) || matches!(self.leaf, Input::PadButton(b) if b.is_trigger());
        !self.together && is_whole(self.leaf)
            || (pull && !self.together && (self.row.arm.is_some() || self.shape == Shape::Pull))
    }

    /// Whether it has the value of what is held without saying how far in that is: a key for an arm or
    /// pull.
    pub fn holds_a_value(&self) -> bool {
        let has_value = self.row.arm.is_some() || self.shape == Shape::Pull;
        has_value
            && !self.follows()
            && self.manner == Manner::Press
            && !self.together
            && !self.toggles()
    }

    /// Whether a press of it flips what it works: rule: what follows how far it is in does not.
    pub fn toggles(&self) -> bool {
        self.toggle && !self.follows()
    }

    /// The row that it works, as text.
    pub fn row_name(&self) -> String {
        let arm = self.row.arm.map(|arm| format!(".{arm}"));
        format!("{}{}", self.name, arm.unwrap_or_default())
    }

    /// Whether it is the same binding in another rig.
    pub fn is_same(&self, other: &Wire) -> bool {
        self.name == other.name
            && self.row.arm == other.row.arm
            && self.shape == other.shape
            && self.toggle == other.toggle
            && self.manner == other.manner
            && self.strict == other.strict
            && self.together == other.together
            && self.leaf == other.leaf
            && self.held == other.held
    }
}

pub fn wires(rig: &Rig) -> Vec<Wire> {
    let sheet = rig.sheet();
    let mut out = Vec::new();
    for bound in rig.bindings() {
        let action = sheet.action(bound.cell.row.action).unwrap();
        let input = bound.chord.input();
        // Rule: the parts of a chord that is pressed together may come in any order.
        let last: Vec<Input> = match bound.together {
            true => bound.chord.inputs().collect(),
            false => vec![input],
        };
        for input in last {
            let rest = bound.chord.inputs().filter(|i| *i != input);
            let held: Vec<Vec<Leaf>> = rest.map(leaves).collect();
            let ends = match is_whole(input) {
                true => vec![input],
                false => leaves(input),
            };
            let feel = action.settings.of(ActsOn::Inputs(input.device_kind()));
            let said =
                |of: &Parameters, which| of.get(which).map(|v| v.number(ParameterPart::Whole));
            for leaf in ends {
                out.push(Wire {
                    row: bound.cell.row,
                    name: action.name.clone(),
                    shape: action.shape,
                    toggle: said(action.settings.of(ActsOn::Actions), Parameter::Toggle)
                        == Some(1.0),
                    resumes: action.resume.unwrap_or(action.shape != Shape::Press),
                    manner: bound.manner,
                    strict: bound.strict,
                    together: bound.together,
                    threshold: said(feel, Parameter::Threshold).unwrap_or(0.5),
                    leaf,
                    input: leaves(input),
                    held: held.clone(),
                    phase: Phase::Idle,
                    taps: 0,
                    since: 0,
                    away: false,
                    waits: false,
                    let_go_at: None,
                    live: false,
                });
            }
        }
    }
    out
}

/// Which devices hold what.
#[derive(Clone, Debug, Default)]
pub struct Book {
    /// Device and leaf (wholes for sticks and axes) to where it is.
    pub levels: BTreeMap<(u16, Leaf), [f32; 2]>,
    pub down: BTreeSet<(u16, Leaf)>,
    /// What begins nothing until it has been at rest.
    pub spent: BTreeSet<(u16, Leaf)>,
    /// What has no value until then either: the game spent it.
    pub muted: BTreeSet<(u16, Leaf)>,
    /// What has none until its device is heard of again.
    pub unheard: BTreeSet<(u16, Leaf)>,
}

impl Book {
    pub fn level(&self, device: u16, leaf: Leaf) -> [f32; 2] {
        let whole = |w: Leaf| self.levels.get(&(device, w)).copied().unwrap_or_default();
        match leaf {
            Input::PadStickHalf(s, d) => [d.part_of(whole(Input::PadStick(s))), 0.0],
            Input::Hid(HidInput::Half(a, sign)) => {
                let [v, _] = whole(Input::Hid(HidInput::Axis(a)));
                let towards = if sign == swap_knot::input::Sign::Positive {
                    v
                } else {
                    -v
                };
                [towards.max(0.0), 0.0]
            }
            leaf => whole(leaf),
        }
    }

    pub fn devices(&self) -> BTreeSet<u16> {
        self.levels.keys().map(|(d, _)| *d).collect()
    }

    /// How far in a leaf is for what follows it: the furthest of those that have a value.
    pub fn worked(&self, leaf: Leaf) -> [f32; 2] {
        self.furthest(leaf, |d| !self.is_silent(d, leaf))
    }

    /// How far in a leaf is for what begins by it.
    pub fn fresh(&self, leaf: Leaf) -> [f32; 2] {
        self.furthest(leaf, |d| {
            !self.spent.contains(&(d, leaf)) && !self.is_silent(d, leaf)
        })
    }

    fn furthest(&self, leaf: Leaf, counts: impl Fn(u16) -> bool) -> [f32; 2] {
        let mut best = [0.0, 0.0];
        for device in self.devices() {
            let level = self.level(device, leaf);
            let far = |[x, y]: [f32; 2]| x * x + y * y;
            if counts(device) && far(level) > far(best) {
                best = level;
            }
        }
        best
    }

    fn is_silent(&self, device: u16, leaf: Leaf) -> bool {
        self.muted.contains(&(device, leaf)) || self.unheard.contains(&(device, leaf))
    }

    /// Whether a leaf is down on any device that counts.
    fn is_on(&self, leaf: Leaf, counts: impl Fn(u16) -> bool) -> bool {
        self.down.iter().any(|(d, l)| *l == leaf && counts(*d))
    }

    /// Down for what begins by it.
    pub fn is_down(&self, leaf: Leaf) -> bool {
        self.is_on(leaf, |d| !self.spent.contains(&(d, leaf)))
    }

    /// Down as a part of a chord, whatever it has worked.
    pub fn is_held(&self, leaf: Leaf) -> bool {
        self.is_on(leaf, |d| !self.unheard.contains(&(d, leaf)))
    }

    /// Down for what follows it.
    pub fn is_followed(&self, leaf: Leaf) -> bool {
        self.is_on(leaf, |d| !self.is_silent(d, leaf))
    }

    pub fn is_down_anywhere(&self, leaf: Leaf) -> bool {
        self.is_on(leaf, |_| true)
    }

    /// A leaf of a device is at rest: nothing that was said of it holds.
    pub fn rest(&mut self, device: u16, leaf: Leaf) {
        for set in [
            &mut self.down,
            &mut self.spent,
            &mut self.muted,
            &mut self.unheard,
        ] {
            set.remove(&(device, leaf));
        }
    }

    pub fn forget(&mut self, device: u16) {
        self.levels.retain(|(d, _), _| *d != device);
        for set in [
            &mut self.down,
            &mut self.spent,
            &mut self.muted,
            &mut self.unheard,
        ] {
            set.retain(|(d, _)| *d != device);
        }
    }
}
