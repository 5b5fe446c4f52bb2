//! The flat tables that a seat plays on.

use super::Control;
use super::effective::{Bound, RigNote};
use crate::input::{DeviceKind, Input, InputShape, Platform, TouchName};
use crate::layout::Layout;
use crate::profile::Profile;
use crate::sheet::{ActionId, Feel, Manner, Shape, Sheet, Timing};

/// The most wires a rig has, so that small numbers do for all of them.
const MAX_WIRES: usize = u16::MAX as usize;

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
    /// Wire and action, where all that it touches is one press that is on while it is down: the
    /// common case, which a seat takes a short way.
    pub(crate) lone_press: Option<(u16, u16)>,
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
    pub(crate) toggle: bool,
    pub(crate) timing: Timing,
    /// Wires that work the whole action, as a range of [`Wiring::whole_wires`].
    pub(crate) whole: (u32, u32),
}

#[derive(Debug)]
pub(crate) struct Wiring {
    pub(crate) routes: Vec<Route>,
    pub(crate) touched: Vec<u16>,
    pub(crate) wires: Vec<Wire>,
    /// For each held part the controls that satisfy it: one, or the two sides of a modifier.
    pub(crate) held: Vec<[Control; 2]>,
    pub(crate) actions: Vec<ActionWiring>,
    /// The action of each port.
    pub(crate) port_action: Vec<u16>,
    pub(crate) feels: Vec<Feel>,
    /// For each port, the wires on it that follow how far a control is in.
    pub(crate) port_analog: Vec<(u32, u32)>,
    pub(crate) analog_wires: Vec<u16>,
    pub(crate) whole_wires: Vec<u16>,
    pub(crate) touch_names: Vec<TouchName>,
    /// Which of the two sticks has halves that something is bound to.
    pub(crate) stick_halves: [bool; 2],
}

impl Wiring {
    pub(crate) fn held_of(&self, wire: &Wire) -> &[[Control; 2]] {
        let start = wire.held_start as usize;
        &self.held[start..start + usize::from(wire.held_len)]
    }

    /// The wires that a control completes, longest chord first.
    pub(crate) fn completed_by(&self, control: Control) -> &[u16] {
        let route = self.routes[control.index()];
        let start = route.start as usize;
        &self.touched[start..start + usize::from(route.completes)]
    }

    pub(crate) fn touch(&self, name: TouchName) -> Option<Control> {
        let at = self.touch_names.iter().position(|n| *n == name)?;
        Some(Control::touch(at))
    }
}

/// The controls that an input stands for on a layout and platform: none for a letter that is not
/// there, two for either side of a modifier.
fn controls(
    input: Input,
    layout: &Layout,
    platform: Platform,
    touch_names: &mut Vec<TouchName>,
) -> Vec<Control> {
    match input {
        Input::Modifier(m) => m.places(platform).map(Control::key).to_vec(),
        Input::Letter(letter) => layout
            .place_of(letter)
            .map(Control::key)
            .into_iter()
            .collect(),
        Input::Touch(name) => {
            let at = touch_names.iter().position(|n| *n == name);
            let at = at.unwrap_or_else(|| {
                touch_names.push(name);
                touch_names.len() - 1
            });
            vec![Control::touch(at)]
        }
        fixed => Control::of_fixed(fixed).into_iter().collect(),
    }
}

pub(super) fn wire(
    sheet: &Sheet,
    profile: &Profile,
    bindings: &[Bound],
    layout: &Layout,
    platform: Platform,
    notes: &mut Vec<RigNote>,
) -> Wiring {
    let mut w = Wiring {
        routes: Vec::new(),
        touched: Vec::new(),
        wires: Vec::with_capacity(bindings.len()),
        held: Vec::new(),
        actions: Vec::with_capacity(sheet.actions().len()),
        port_action: Vec::new(),
        feels: vec![Feel::default()],
        port_analog: Vec::new(),
        analog_wires: Vec::new(),
        whole_wires: Vec::new(),
        touch_names: Vec::new(),
        stick_halves: [false; 2],
    };
    for (id, action) in sheet.actions() {
        let port = w.port_action.len() as u16;
        let ports = match (action.off, action.shape) {
            (true, _) | (false, Shape::Press) => 0,
            (false, Shape::Pull) => 1,
            (false, _) => action.arms().len() as u8,
        };
        w.port_action.extend((0..ports).map(|_| id.index() as u16));
        w.actions.push(ActionWiring {
            shape: action.shape,
            port,
            ports,
            first_arm: action.arms().first().map_or(0, |a| *a as u8),
            opposite: action.opposite,
            toggle: action.shape == Shape::Press
                && profile.toggle(&action.name).unwrap_or(action.toggle),
            timing: action.timing,
            whole: (0, 0),
        });
    }
    for bound in bindings {
        add(&mut w, (sheet, profile), bound, layout, platform, notes);
    }
    route(&mut w);
    group_analog(&mut w);
    w
}

/// Adds the wires of one binding.
fn add(
    w: &mut Wiring,
    (sheet, profile): (&Sheet, &Profile),
    bound: &Bound,
    layout: &Layout,
    platform: Platform,
    notes: &mut Vec<RigNote>,
) {
    let row = bound.cell.row;
    if w.wires.len() + 2 > MAX_WIRES {
        notes.push(RigNote::TooMany { cell: bound.cell });
        return;
    }
    for input in bound.chord.inputs() {
        if let Input::Letter(letter) = input
            && layout.place_of(letter).is_none()
        {
            notes.push(RigNote::NoSuchLetter {
                cell: bound.cell,
                letter,
            });
            return;
        }
    }
    let held_start = w.held.len() as u32;
    for &part in bound.chord.held() {
        let found = controls(part, layout, platform, &mut w.touch_names);
        if let Some(&first) = found.first() {
            w.held.push([first, *found.last().unwrap_or(&first)]);
        }
    }
    let held_len = (w.held.len() as u32 - held_start) as u8;
    let input = bound.chord.input();
    let action = w.actions[row.action.index()];
    let feel = feel_of(w, sheet, profile, row.action, input.device_kind());
    let inverted = |axis: usize| w.feels[usize::from(feel)].invert[axis];
    let part = match row.arm {
        Some(arm) if inverted(arm.axis()) => {
            Part::Port(action.port + u16::from(arm.opposite() as u8 - action.first_arm))
        }
        Some(arm) => Part::Port(action.port + u16::from(arm as u8 - action.first_arm)),
        None if action.shape.has_arms() => Part::Whole,
        None if action.shape == Shape::Pull => Part::Port(action.port),
        None => Part::Switch,
    };
    let follows = row.arm.is_some() || action.shape == Shape::Pull;
    let analog = match input.shape() {
        InputShape::Pull => follows,
        InputShape::Line | InputShape::Plane => true,
        InputShape::Touch => part == Part::Whole,
        InputShape::Button | InputShape::Pulse => false,
    };
    for control in controls(input, layout, platform, &mut w.touch_names) {
        w.wires.push(Wire {
            action: row.action.index() as u16,
            control,
            part,
            manner: bound.manner,
            strict: bound.strict,
            analog,
            held_len,
            held_start,
            feel,
        });
    }
    if let Input::PadStickHalf(stick, _) = input {
        w.stick_halves[stick.0 as usize] = true;
    }
    for held in bound.chord.held() {
        if let Input::PadStickHalf(stick, _) = held {
            w.stick_halves[stick.0 as usize] = true;
        }
    }
}

/// The position of the feel of an action on a device kind, added if it is new: the player's over
/// the game's, an action's own over that of all.
fn feel_of(
    w: &mut Wiring,
    sheet: &Sheet,
    profile: &Profile,
    action: ActionId,
    kind: DeviceKind,
) -> u16 {
    let mut base = Feel::default();
    if kind == DeviceKind::Gamepad {
        // Sticks that rest exactly in the middle are rare; a sheet may say 0.
        base.dead_zone.inner = 0.15;
    }
    let action = sheet.action(action);
    let feel = base
        .with(&action.feel[kind as usize])
        .with(&profile.feel(None, kind))
        .with(&profile.feel(Some(&action.name), kind));
    let found = w.feels.iter().rposition(|f| *f == feel);
    found.unwrap_or_else(|| {
        w.feels.push(feel);
        w.feels.len() - 1
    }) as u16
}

/// Sorts wires under the controls that touch them.
fn route(w: &mut Wiring) {
    let controls = Control::FIXED + w.touch_names.len();
    let mut completes: Vec<Vec<u16>> = vec![Vec::new(); controls];
    let mut held_in: Vec<Vec<u16>> = vec![Vec::new(); controls];
    for (i, wire) in w.wires.iter().enumerate() {
        completes[wire.control.index()].push(i as u16);
        for [a, b] in w.held_of(wire) {
            held_in[a.index()].push(i as u16);
            if a != b {
                held_in[b.index()].push(i as u16);
            }
        }
    }
    for (mut completes, held_in) in completes.into_iter().zip(held_in) {
        completes.sort_by_key(|&i| std::cmp::Reverse(w.wires[usize::from(i)].held_len));
        let lone_press = match (&completes[..], held_in.is_empty()) {
            (&[one], true) => {
                let wire = &w.wires[usize::from(one)];
                is_plain_press(w, wire).then_some((one, wire.action))
            }
            _ => None,
        };
        w.routes.push(Route {
            start: w.touched.len() as u32,
            completes: completes.len() as u16,
            held_in: held_in.len() as u16,
            lone_press,
        });
        w.touched.extend(completes);
        w.touched.extend(held_in);
    }
}

/// Whether a wire begins and ends with its control and nothing else matters.
fn is_plain_press(w: &Wiring, wire: &Wire) -> bool {
    wire.part == Part::Switch
        && wire.manner == Manner::Press
        && wire.held_len == 0
        && !wire.strict
        && !w.actions[usize::from(wire.action)].toggle
}

/// Lists, for every port and every whole action, the wires that follow how far a control is in.
fn group_analog(w: &mut Wiring) {
    let mut by_port: Vec<Vec<u16>> = vec![Vec::new(); w.port_action.len()];
    let mut by_action: Vec<Vec<u16>> = vec![Vec::new(); w.actions.len()];
    for (i, wire) in w.wires.iter().enumerate() {
        match wire.part {
            Part::Port(port) if wire.analog => by_port[usize::from(port)].push(i as u16),
            Part::Port(_) | Part::Switch => {}
            Part::Whole => by_action[usize::from(wire.action)].push(i as u16),
        }
    }
    for wires in by_port {
        let start = w.analog_wires.len() as u32;
        w.analog_wires.extend(wires);
        w.port_analog.push((start, w.analog_wires.len() as u32));
    }
    for (action, wires) in w.actions.iter_mut().zip(by_action) {
        let start = w.whole_wires.len() as u32;
        w.whole_wires.extend(wires);
        action.whole = (start, w.whole_wires.len() as u32);
    }
}
