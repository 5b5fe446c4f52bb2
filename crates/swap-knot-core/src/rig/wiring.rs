//! The flat tables that a seat plays on.

use super::RigNote;
use super::cover::{Placed, Silenced, Uses, covers_all, silenced};
use super::routes::{edges, glide, group, level, route};
use super::silent::Silent;
use crate::book::{Edges, GLIDES, Rest, let_go_at};
use crate::input::{ChordInHand, Control, DeviceKind, InHand, Input, MAX_HELD, TouchName};
use crate::law::{Bound, force};
use crate::layout::Resolver;
use crate::profile::Profile;
use crate::sheet::{
    ActionId, ActsOn, Arm, DeadZoneForm, Easing, Feel, Manner, Parameter, Row, Shape, Sheet,
    SituationId, Works, works,
};

/// The most wires a rig has, so that small numbers do for all of them.
const MAX_WIRES: usize = u16::MAX as usize;

/// The most names of touch inputs that a rig tells apart, with room for those that it does not know.
const MAX_TOUCH: usize = (u16::MAX as usize - Control::FIXED) / 2;

/// The most wires of one binding.
const MOST_OF_ONE: usize = 2 * (MAX_HELD + 1);

/// What a wire works: a press, one port of an action (a pull or an arm), or the whole of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Part {
    /// A press.
    Switch,
    /// A port, counted over all actions.
    Port(u16),
    /// A whole line or plane.
    Whole,
}

/// One binding on one control.
#[derive(Clone, Debug)]
pub(crate) struct Wire {
    pub(crate) action: u16,
    pub(crate) control: Control,
    pub(crate) part: Part,
    pub(crate) manner: Manner,
    pub(crate) strict: bool,
    /// Whether it follows how far the control is in, rather than whether it is down.
    pub(crate) analog: bool,
    /// How many inputs have to be held; longer chords win.
    pub(crate) held_len: u8,
    pub(crate) held_start: u32,
    /// Whether what is held has to have been pressed just before.
    pub(crate) together: bool,
    /// How far in its control has to be to work it, where that is further than for others; 0 where
    /// it is enough that the control is down.
    pub(crate) grade: f32,
    /// Whether a press is all that it waits for: it is on while its control is down.
    pub(crate) plain: bool,
    /// Position of its feel in [`Wiring::feels`].
    pub(crate) feel: u16,
}

/// What a control touches, as positions in [`Wiring::touched`].
#[derive(Clone, Copy, Debug, Default)]
pub(crate) struct Route {
    pub(crate) start: u32,
    /// Wires that the control completes, longest chord first.
    pub(crate) completes: u16,
    /// Wires in which it is held; they follow those that it completes.
    pub(crate) held_in: u16,
    /// The one wire that it works, whatever else is held: the common case, in which there is no chord to
    /// look for.
    pub(crate) lone: Option<u16>,
    /// Whether some of what it completes wants it further in than the rest.
    pub(crate) graded: bool,
    /// Whether a tap latches it for a chord.
    pub(crate) latched: bool,
    /// Whether it, or what moves with it, completes a chord.
    pub(crate) chorded: bool,
    /// Whether what follows how far something is in goes by whether it is held.
    pub(crate) stirs: bool,
}

/// An action that a stick or trigger moves.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Moves {
    pub(crate) action: u16,
    /// How, if nothing but where it is has to be looked at then.
    pub(crate) alone: Option<Alone>,
}

/// A stick or trigger that is all that an action follows, beside keys and buttons.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Alone {
    pub(crate) wire: u16,
    pub(crate) feel: u16,
    /// The port that it pulls, unless it has the whole.
    pub(crate) port: Option<u16>,
}

/// What a seat has to know of an action, without names.
#[derive(Clone, Copy, Debug)]
pub(crate) struct ActionWiring {
    pub(crate) shape: Shape,
    /// Its first port, and how many it has: none for a press, or an action that is off.
    pub(crate) port: u16,
    pub(crate) ports: u8,
    /// The arm of its first port on the sheet's axes (a line may lie on any).
    pub(crate) first_arm: u8,
    pub(crate) opposite: crate::sheet::Opposite,
    pub(crate) easing: Easing,
    /// Its position in [`Wiring::rates`], if it is a rate.
    pub(crate) rate: Option<u16>,
    /// Whether it is taken up again by what is held already.
    pub(crate) resumes: bool,
    /// Wires that the whole action follows, as a range of [`Wiring::whole_wires`].
    pub(crate) whole: (u32, u32),
    /// The wire of a trigger that is the only one to pull it, beside keys.
    pub(crate) pulled_by: Option<u16>,
    /// The first of the wires by which the game works it itself: one for a press, else one a port.
    pub(crate) driven: u16,
}

impl ActionWiring {
    /// The positions of its ports among those of all actions.
    #[inline]
    pub(crate) fn all_ports(&self) -> std::ops::Range<usize> {
        let first = usize::from(self.port);
        first..first + usize::from(self.ports)
    }
}

#[derive(Debug)]
pub(crate) struct Wiring {
    pub(crate) routes: Vec<Route>,
    pub(crate) touched: Vec<u16>,
    /// The actions that each stick and trigger moves, or that one of its halves does.
    pub(crate) moves: [Vec<Moves>; GLIDES],
    /// Where anything changes on the way of each.
    pub(crate) edges: [Edges; GLIDES],
    pub(crate) wires: Vec<Wire>,
    /// Those that follow how far something is in, one control after another.
    pub(crate) levels: Vec<u16>,
    /// The position of each wire's binding in those of the rig.
    pub(crate) of: Vec<usize>,
    /// For each held part the controls that satisfy it: one, or the two sides of a modifier.
    pub(crate) held: Vec<[Control; 2]>,
    pub(crate) actions: Vec<ActionWiring>,
    /// Wire and action of the mouse's motion, where it moves one thing and in one way: the common
    /// case, whose sum is all that counts.
    pub(crate) lone_motion: Option<(u16, u16)>,
    /// Whether a tap latches any input.
    pub(crate) latches: bool,
    /// The actions that are rates.
    pub(crate) rates: Vec<u16>,
    /// The action of each port.
    pub(crate) port_action: Vec<u16>,
    pub(crate) feels: Vec<Feel>,
    /// For each port, its wires, as a range of [`Wiring::port_wires`].
    pub(crate) port_range: Vec<(u32, u32)>,
    /// In the order in which they were added: those by which the game works it itself come last.
    pub(crate) port_wires: Vec<u16>,
    /// How far in each port is while a key or button holds it, where that is the same for all that do,
    /// at once and without anything else that it follows, but for [`ActionWiring::pulled_by`].
    pub(crate) port_keys: Vec<Option<f32>>,
    pub(crate) whole_wires: Vec<u16>,
    pub(crate) touch_names: Vec<TouchName>,
    /// The row of each wire's binding.
    pub(crate) rows: Vec<Row>,
    /// What is bound and does not count.
    pub(crate) silent: Vec<Silent>,
    /// For each control, what counts as its rest.
    pub(crate) rest: Vec<Rest>,
    silences: Silences,
    /// For each situation the wires that are live by it, or that it covers or silences.
    concerned: Vec<Vec<u16>>,
}

/// For each wire and situation, what the situation does to it, one bit each.
#[derive(Debug, Default)]
struct Silences {
    words: usize,
    covered: Vec<u64>,
    typed: Vec<u64>,
}

impl Silences {
    fn get(&self, wire: u16, situation: SituationId) -> Silenced {
        let (word, bit) = (situation.index() / 64, situation.index() % 64);
        let at = usize::from(wire) * self.words + word;
        let is =
            |bits: &[u64]| word < self.words && bits.get(at).is_some_and(|w| w >> bit & 1 != 0);
        Silenced {
            covered: is(&self.covered),
            typed: is(&self.typed),
        }
    }
}

impl Wiring {
    pub(crate) fn held_of(&self, wire: &Wire) -> &[[Control; 2]] {
        let start = wire.held_start as usize;
        &self.held[start..start + usize::from(wire.held_len)]
    }

    /// The wires that a control completes, longest chord first.
    #[inline]
    pub(crate) fn completed_by(&self, control: Control) -> &[u16] {
        let Some(route) = self.routes.get(control.index()) else {
            return &[];
        };
        let start = route.start as usize;
        &self.touched[start..start + usize::from(route.completes)]
    }

    /// The wires in which a control is held.
    #[inline]
    pub(crate) fn held_in(&self, control: Control) -> &[u16] {
        let Some(route) = self.routes.get(control.index()) else {
            return &[];
        };
        let start = route.start as usize + usize::from(route.completes);
        &self.touched[start..start + usize::from(route.held_in)]
    }

    /// The wires that are live by a situation, or that it covers or silences.
    pub(crate) fn concerned(&self, situation: SituationId) -> &[u16] {
        let found = self.concerned.get(situation.index());
        found.map_or(&[], Vec::as_slice)
    }

    /// What a situation does to a wire.
    pub(crate) fn silenced(&self, wire: u16, by: SituationId) -> Silenced {
        self.silences.get(wire, by)
    }

    pub(crate) fn feel(&self, wire: &Wire) -> &Feel {
        &self.feels[usize::from(wire.feel)]
    }
}

/// Everything that wires are made from.
struct Maker<'a> {
    sheet: &'a Sheet,
    profile: &'a Profile,
    out: Wiring,
}

pub(super) fn wire(
    sheet: &Sheet,
    profile: &Profile,
    bindings: &[Bound],
    resolver: &Resolver,
    notes: &mut Vec<RigNote>,
) -> Wiring {
    let mut maker = Maker {
        sheet,
        profile,
        out: empty(sheet, profile, bindings.len()),
    };
    let mut in_hand = Vec::with_capacity(bindings.len());
    let driven = maker
        .out
        .actions
        .iter()
        .map(|a| usize::from(a.ports.max(1)));
    let most = MAX_WIRES - driven.sum::<usize>();
    for (at, bound) in bindings.iter().enumerate() {
        match bound.in_hand(resolver) {
            // One wire for each side of a modifier, and one for each order of a chord.
            Ok(_)
                if maker.out.wires.len() + MOST_OF_ONE > most
                    || maker.out.touch_names.len() + MAX_HELD + 1 > MAX_TOUCH =>
            {
                notes.push(RigNote::TooMany { cell: bound.cell });
                in_hand.push(None);
            }
            Ok(chord) => {
                maker.add(at, bound, &chord);
                in_hand.push(Some(chord));
            }
            Err(why) => {
                notes.push(RigNote::CannotBeWorked {
                    cell: bound.cell,
                    why,
                });
                in_hand.push(None);
            }
        }
    }
    maker.drive();
    let mut out = maker.out;
    level(&mut out);
    route(&mut out);
    group(&mut out);
    glide(&mut out);
    out.rest = rests(&out, sheet, profile);
    grade(&mut out);
    edges(&mut out);
    for wire in &mut out.wires {
        let easing = &out.actions[usize::from(wire.action)].easing;
        wire.plain = wire.manner.gesture().is_press() && easing.ignore_within == 0.0;
    }
    out.lone_motion = match out.completed_by(Control::MOUSE_MOVE) {
        &[one] => {
            let wire = &out.wires[usize::from(one)];
            let plain = wire.held_len == 0 && !wire.strict && out.feel(wire).curve == 1.0;
            plain.then_some((one, wire.action))
        }
        _ => None,
    };
    out.silences = silences(sheet, bindings, &in_hand, &out);
    out.concerned = (sheet.situations())
        .map(|(id, _)| concerned(sheet, &out, id))
        .collect();
    out
}

/// The wires whose liveness a situation has a say in.
fn concerned(sheet: &Sheet, w: &Wiring, situation: SituationId) -> Vec<u16> {
    let has_a_say = |index: &u16| {
        let action = sheet.action_id(usize::from(w.wires[usize::from(*index)].action));
        let on_it = w.silenced(*index, situation);
        on_it.covered || on_it.typed || sheet.declared(action).situations.contains(&situation)
    };
    (0..w.wires.len() as u16).filter(has_a_say).collect()
}

fn empty(sheet: &Sheet, profile: &Profile, bindings: usize) -> Wiring {
    let mut w = Wiring {
        routes: Vec::new(),
        touched: Vec::new(),
        moves: Default::default(),
        edges: Default::default(),
        wires: Vec::with_capacity(bindings),
        levels: Vec::new(),
        of: Vec::with_capacity(bindings),
        held: Vec::new(),
        actions: Vec::with_capacity(sheet.actions().len()),
        lone_motion: None,
        latches: false,
        rates: Vec::new(),
        port_action: Vec::new(),
        feels: vec![Feel::default()],
        port_range: Vec::new(),
        port_wires: Vec::new(),
        port_keys: Vec::new(),
        whole_wires: Vec::new(),
        touch_names: Vec::new(),
        rows: Vec::with_capacity(bindings),
        silent: Vec::new(),
        rest: Vec::new(),
        silences: Silences::default(),
        concerned: Vec::new(),
    };
    for (id, action) in sheet.actions() {
        let port = w.port_action.len() as u16;
        let ports = match (action.off, action.shape) {
            (true, _) | (false, Shape::Press) => 0,
            (false, Shape::Pull) => 1,
            (false, _) => action.arms().len() as u8,
        };
        w.port_action.extend((0..ports).map(|_| id.index() as u16));
        let rate = (action.rate && ports > 0).then(|| {
            w.rates.push(id.index() as u16);
            (w.rates.len() - 1) as u16
        });
        let easing = force::easing(sheet, profile, Some(action));
        w.actions.push(ActionWiring {
            shape: action.shape,
            port,
            ports,
            first_arm: action.arms().first().map_or(0, |a| *a as u8),
            opposite: action.opposite,
            easing,
            rate,
            resumes: action.resumes(),
            whole: (0, 0),
            pulled_by: None,
            driven: u16::MAX,
        });
    }
    w
}

impl Maker<'_> {
    /// Adds the wires of one binding: of a chord whose parts come in any order those of each order.
    fn add(&mut self, at: usize, bound: &Bound, chord: &ChordInHand) {
        let row = bound.cell.row;
        let action = self.out.actions[row.action.index()];
        let works = works(bound.chord.input().shape(), row.arm, action.shape);
        for order in chord.orders() {
            match works {
                // It is on or off with all of its parts, however far in they are.
                Some(_) if chord.any_order => self.add_order(at, bound, &order, Works::Switch),
                Some(works) => self.add_order(at, bound, &order, works),
                None => {}
            }
        }
    }

    fn add_order(&mut self, at: usize, bound: &Bound, chord: &ChordInHand, works: Works) {
        let row = bound.cell.row;
        let input = bound.chord.input();
        let action = self.out.actions[row.action.index()];
        let held_start = self.out.held.len() as u32;
        for part in &chord.held {
            let controls = self.controls(part);
            if let (Some(&first), Some(&last)) = (controls.first(), controls.last()) {
                self.out.held.push([first, last]);
            }
        }
        let held_len = (self.out.held.len() as u32 - held_start) as u8;
        let feel = self.feel_of(row.action, input.device_kind(), row.arm);
        let inverted = |axis: usize| self.out.feels[usize::from(feel)].invert[axis];
        let part = match (works, row.arm) {
            (Works::Whole, _) => Part::Whole,
            (_, Some(arm)) if inverted(arm.axis()) => {
                Part::Port(action.port + u16::from(arm.opposite() as u8 - action.first_arm))
            }
            (_, Some(arm)) => Part::Port(action.port + u16::from(arm as u8 - action.first_arm)),
            (_, None) if action.shape == Shape::Pull => Part::Port(action.port),
            (_, None) => Part::Switch,
        };
        let controls = match works {
            // A whole has a control of its own beside those of its parts.
            Works::Whole => self.controls(&InHand::keys(&[input])),
            Works::Switch | Works::Follow => self.controls(&chord.input),
        };
        for control in controls {
            self.out.of.push(at);
            self.out.rows.push(row);
            self.out.wires.push(Wire {
                action: row.action.index() as u16,
                control,
                part,
                manner: bound.manner,
                strict: bound.strict,
                analog: works != Works::Switch,
                held_len,
                held_start,
                together: bound.together,
                grade: 0.0,
                plain: false,
                feel,
            });
        }
    }

    /// Adds the wires by which the game works its actions itself.
    fn drive(&mut self) {
        for index in 0..self.out.actions.len() {
            let action = &mut self.out.actions[index];
            let parts: Vec<Part> = match action.shape {
                Shape::Press => vec![Part::Switch],
                _ => (0..action.ports)
                    .map(|n| Part::Port(action.port + u16::from(n)))
                    .collect(),
            };
            if self.sheet.declared(self.sheet.action_id(index)).off {
                continue;
            }
            action.driven = self.out.wires.len() as u16;
            for part in parts {
                self.out.of.push(usize::MAX);
                self.out.rows.push(Row::of(self.sheet.action_id(index)));
                self.out.wires.push(Wire {
                    action: index as u16,
                    control: Control::NONE,
                    part,
                    manner: Manner::Press,
                    strict: false,
                    analog: part != Part::Switch,
                    held_len: 0,
                    held_start: 0,
                    together: false,
                    grade: 0.0,
                    plain: false,
                    feel: 0,
                });
            }
        }
    }

    fn controls(&mut self, hand: &InHand) -> Vec<Control> {
        let control = |&leaf: &Input| match leaf {
            Input::Touch(name) => {
                let names = &mut self.out.touch_names;
                let at = names.iter().position(|n| *n == name);
                Some(Control::touch(at.unwrap_or_else(|| {
                    names.push(name);
                    names.len() - 1
                })))
            }
            fixed => Control::of_fixed(fixed),
        };
        hand.leaves().iter().filter_map(control).collect()
    }

    /// The position of the feel of an action on a device kind, added if it is new.
    /// What works one arm alone has the sensitivity of its axis.
    fn feel_of(&mut self, action: ActionId, kind: DeviceKind, arm: Option<Arm>) -> u16 {
        let action = self.sheet.declared(action);
        let mut feel = force::feel(self.sheet, self.profile, Some(action), kind);
        let axis = arm.filter(|_| action.shape != Shape::Line).map(Arm::axis);
        if let Some(axis) = axis {
            (feel.sensitivity, feel.sensitivity_y) = (feel.along(axis), 1.0);
        }
        let feels = &mut self.out.feels;
        let found = feels.iter().rposition(|f| *f == feel);
        found.unwrap_or_else(|| {
            feels.push(feel);
            feels.len() - 1
        }) as u16
    }
}

/// What counts as the rest of each control: the smallest dead zone of all that it works, or what
/// game and player say of its device kind where it works nothing.
fn rests(w: &Wiring, sheet: &Sheet, profile: &Profile) -> Vec<Rest> {
    let of = |feel: &Feel| Rest {
        inner: feel.dead_zone.inner,
        by_axis: feel.dead_zone.form == DeadZoneForm::Axis,
        down_at: feel.threshold,
        up_at: let_go_at(feel.threshold),
    };
    let unbound = DeviceKind::ALL.map(|kind| {
        let said = force::said(sheet, profile, ActsOn::Inputs(kind), None);
        let rest = of(&Feel::usual(kind).with(&said));
        match said.get(Parameter::DeadZone) {
            Some(_) => rest,
            None => Rest {
                inner: Rest::default().inner,
                by_axis: false,
                ..rest
            },
        }
    });
    let all = (0..w.routes.len()).map(|n| Control(n as u16));
    all.map(|control| {
        let wires = || {
            w.completed_by(control)
                .iter()
                .map(|&i| &w.wires[usize::from(i)])
        };
        let of_all = (wires().map(|wire| of(w.feel(wire)))).reduce(|a, b| Rest {
            inner: a.inner.min(b.inner),
            by_axis: a.by_axis && b.by_axis,
            ..a
        });
        let unbound = unbound[control.device_kind() as usize];
        // How far in a control is for what follows it says nothing of when it is down.
        let switches = wires().filter(|wire| !wire.analog);
        let down_at = switches.map(|wire| w.feel(wire).threshold).reduce(f32::min);
        let down_at = match control.is_pull() {
            true => down_at.unwrap_or(unbound.down_at),
            // A button that delivers a number says by itself where it is down.
            false => Rest::default().down_at,
        };
        Rest {
            down_at,
            up_at: let_go_at(down_at),
            ..of_all.unwrap_or(unbound)
        }
    })
    .collect()
}

/// Notes which wires want their trigger or half axis further in than others on it do.
fn grade(w: &mut Wiring) {
    for index in 0..w.wires.len() {
        let wire = &w.wires[index];
        let threshold = w.feel(wire).threshold;
        let pulled = wire.control.is_pull();
        if pulled && !wire.analog && threshold > w.rest[wire.control.index()].down_at {
            let control = wire.control;
            w.wires[index].grade = threshold;
            w.routes[control.index()].graded = true;
        }
    }
}

/// What each situation does to each wire.
fn silences(
    sheet: &Sheet,
    bindings: &[Bound],
    in_hand: &[Option<ChordInHand>],
    wiring: &Wiring,
) -> Silences {
    let silencing: Vec<SituationId> = (sheet.situations())
        .filter(|(_, s)| s.typing || !s.over.is_empty())
        .map(|(id, _)| id)
        .collect();
    if silencing.is_empty() {
        return Silences::default();
    }
    let placed: Vec<Option<Placed<'_>>> = (bindings.iter().zip(in_hand))
        .map(|(bound, chord)| Some(Placed::new(bound, chord.as_ref()?)))
        .collect();
    let uses = Uses::new(sheet, placed.iter().flatten().copied());
    let words = sheet.situations().len().div_ceil(64);
    let mut out = Silences {
        words,
        covered: vec![0; wiring.wires.len() * words],
        typed: vec![0; wiring.wires.len() * words],
    };
    for (wire, &binding) in wiring.of.iter().enumerate() {
        for &situation in &silencing {
            let on_it = match placed.get(binding) {
                Some(Some(placed)) => silenced(sheet, &uses, situation, placed),
                Some(None) => continue,
                // What the game works itself has no input that could be used or typed.
                None => {
                    let action = sheet.action_id(usize::from(wiring.wires[wire].action));
                    Silenced {
                        covered: covers_all(sheet, situation, action),
                        typed: false,
                    }
                }
            };
            let (at, bit) = (
                wire * words + situation.index() / 64,
                situation.index() % 64,
            );
            out.covered[at] |= u64::from(on_it.covered) << bit;
            out.typed[at] |= u64::from(on_it.typed) << bit;
        }
    }
    out
}
