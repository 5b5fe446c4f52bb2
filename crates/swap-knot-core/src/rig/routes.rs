//! Wires sorted: under what touches them, under what they work, and which of them go a short way.

use super::wiring::{ActionWiring, Alone, Moves, Part, Route, Wire, Wiring};
use crate::book::{Edges, GLIDES, gliding, let_go_at};
use crate::input::{Control, Direction, MODIFIER_PLACES};
use crate::sheet::{DeadZoneForm, Shape};

/// Lists what follows how far something is in.
pub(super) fn level(w: &mut Wiring) {
    let all = 0..w.wires.len() as u16;
    w.levels = all
        .filter(|&i| {
            let wire = &w.wires[usize::from(i)];
            wire.analog && wire.control != Control::NONE && !wire.control.is_motion()
        })
        .collect();
    w.levels.sort_by_key(|&i| {
        let wire = &w.wires[usize::from(i)];
        (wire.control.0, std::cmp::Reverse(wire.held_len))
    });
}

/// Sorts wires under the controls that touch them.
pub(super) fn route(w: &mut Wiring) {
    let controls = Control::FIXED + w.touch_names.len();
    let mut completes: Vec<Vec<u16>> = vec![Vec::new(); controls];
    let mut held_in: Vec<Vec<u16>> = vec![Vec::new(); controls];
    for (i, wire) in w.wires.iter().enumerate() {
        if wire.control == Control::NONE {
            continue;
        }
        completes[wire.control.index()].push(i as u16);
        for [a, b] in w.held_of(wire) {
            held_in[a.index()].push(i as u16);
            if a != b {
                held_in[b.index()].push(i as u16);
            }
        }
    }
    let chords: Vec<bool> = completes
        .iter()
        .map(|wires| wires.iter().any(|&i| w.wires[usize::from(i)].held_len > 0))
        .collect();
    // What says how far it is in moves with the halves of its stick, or its whole.
    let mut followed = vec![false; controls];
    for &i in &w.levels {
        let control = w.wires[usize::from(i)].control;
        let (first, count) = control.relatives();
        followed[control.index()] = true;
        followed[first.index()..first.index() + usize::from(count)].fill(true);
    }
    let mut wires = w.wires.iter();
    let strict = wires.any(|w| w.strict && followed.get(w.control.index()) == Some(&true));
    let all = completes.into_iter().zip(held_in).enumerate();
    for (at, (mut completes, held_in)) in all {
        let control = Control(at as u16);
        let is_modifier = MODIFIER_PLACES.map(Control::key).contains(&control);
        let stirs = strict && is_modifier
            || held_in
                .iter()
                .any(|&i| followed[w.wires[usize::from(i)].control.index()]);
        let (first, count) = control.relatives();
        let relatives = first.index()..first.index() + usize::from(count);
        let chorded = chords[at] || chords[relatives].contains(&true);
        let latches = |i: &u16| {
            w.actions[usize::from(w.wires[usize::from(*i)].action)]
                .easing
                .latch
        };
        let latched = held_in.iter().any(latches);
        w.latches |= latched;
        completes.sort_by_key(|&i| std::cmp::Reverse(w.wires[usize::from(i)].held_len));
        let lone = match (&completes[..], held_in.is_empty() && !stirs) {
            (&[one], true) => {
                let wire = &w.wires[usize::from(one)];
                (!wire.analog && wire.held_len == 0 && !wire.strict).then_some(one)
            }
            _ => None,
        };
        w.routes.push(Route {
            start: w.touched.len() as u32,
            completes: completes.len() as u16,
            held_in: held_in.len() as u16,
            lone,
            graded: false,
            latched,
            chorded,
            stirs,
        });
        w.touched.extend(completes);
        w.touched.extend(held_in);
    }
}

/// How an action is moved by the one wire that it follows, if nothing else has to be looked at then.
fn alone(w: &Wiring, action: &ActionWiring, index: u16, whole: Control) -> Option<Alone> {
    let wire = &w.wires[usize::from(index)];
    let port = match (wire.part, action.shape) {
        (Part::Whole, _) => None,
        (Part::Port(port), Shape::Pull) => Some(port),
        _ => return None,
    };
    // A rate goes beyond full, and a half of a stick is as far in as a part of it.
    let plain = action.rate.is_none() && wire.control == whole;
    plain.then_some(Alone {
        wire: index,
        feel: wire.feel,
        port,
    })
}

/// The wires that have a port follow how far something is in, but for those of the game itself.
fn following(w: &Wiring, port: usize) -> Vec<u16> {
    let (start, end) = w.port_range[port];
    let wires = w.port_wires[start as usize..end as usize].iter().copied();
    let follows = |wire: &Wire| wire.analog && wire.control != Control::NONE;
    wires
        .filter(|&i| follows(&w.wires[usize::from(i)]))
        .collect()
}

/// Lists what each stick and trigger moves.
pub(super) fn glide(w: &mut Wiring) {
    for at in 0..GLIDES {
        let whole = gliding(at);
        let (first, count) = whole.relatives();
        let mut moved = Vec::new();
        for control in (first.0..first.0 + count).map(Control).chain([whole]) {
            let wires = w.completed_by(control).iter();
            let wires = wires.map(|&i| &w.wires[usize::from(i)]);
            moved.extend(wires.filter(|wire| wire.analog).map(|wire| wire.action));
        }
        moved.sort_unstable();
        moved.dedup();
        let moves = moved.into_iter().map(|action| {
            let wiring = &w.actions[usize::from(action)];
            let (start, end) = wiring.whole;
            let mut follow = w.whole_wires[start as usize..end as usize].to_vec();
            follow.extend(wiring.all_ports().flat_map(|port| following(w, port)));
            let alone = match follow[..] {
                [wire] => alone(w, wiring, wire, whole),
                _ => None,
            };
            Moves { action, alone }
        });
        w.moves[at] = moves.collect();
    }
}

/// Lists where anything changes on the way of each stick and trigger: whatever compares how far in it is
/// with a number has to be here.
pub(super) fn edges(w: &mut Wiring) {
    for at in 0..GLIDES {
        let whole = gliding(at);
        let mut edges = Edges::default();
        let ways = match whole.relatives() {
            (_, 0) => vec![(whole, Direction::Right)],
            (first, _) => (first.0..).map(Control).zip(Direction::ALL).collect(),
        };
        for (control, way) in ways {
            let rest = &w.rest[control.index()];
            // What rests is not down, wherever it would be.
            edges.add(
                way,
                (rest.down_at.max(rest.inner), rest.up_at.max(rest.inner)),
            );
            for &i in w.completed_by(control) {
                let wire = &w.wires[usize::from(i)];
                let inner = w.feel(wire).dead_zone.inner;
                match wire.analog {
                    true => edges.add(way, (inner, inner)),
                    false if wire.grade > 0.0 => {
                        edges.add(way, (wire.grade, let_go_at(wire.grade)))
                    }
                    false => {}
                }
            }
        }
        for &i in w.completed_by(whole) {
            let zone = &w.feel(&w.wires[usize::from(i)]).dead_zone;
            edges.add_round(zone.inner, zone.form == DeadZoneForm::Axis);
        }
        w.edges[at] = edges;
    }
}

/// Lists the wires of every port and of every whole action, and what is known of them beforehand.
pub(super) fn group(w: &mut Wiring) {
    let mut by_port: Vec<Vec<u16>> = vec![Vec::new(); w.port_action.len()];
    let mut by_action: Vec<Vec<u16>> = vec![Vec::new(); w.actions.len()];
    for (i, wire) in w.wires.iter().enumerate() {
        match wire.part {
            Part::Port(port) => by_port[usize::from(port)].push(i as u16),
            Part::Whole if wire.control.is_motion() => {}
            Part::Switch => {}
            Part::Whole => by_action[usize::from(wire.action)].push(i as u16),
        }
    }
    for wires in by_port {
        let start = w.port_wires.len() as u32;
        w.port_wires.extend(wires);
        w.port_range.push((start, w.port_wires.len() as u32));
    }
    for (action, wires) in w.actions.iter_mut().zip(by_action) {
        let start = w.whole_wires.len() as u32;
        w.whole_wires.extend(wires);
        action.whole = (start, w.whole_wires.len() as u32);
    }
    for port in 0..w.port_action.len() {
        let action = usize::from(w.port_action[port]);
        if w.actions[action].shape == Shape::Pull
            && let [one] = following(w, port)[..]
        {
            w.actions[action].pulled_by = Some(one);
        }
        w.port_keys.push(keys_alone(w, port));
    }
}

/// How far in a port is while any of its keys and buttons holds it, if that does not depend on anything
/// else.
fn keys_alone(w: &Wiring, port: usize) -> Option<f32> {
    let (start, end) = w.port_range[port];
    let pulled_by = w.actions[usize::from(w.port_action[port])].pulled_by;
    let wires = w.port_wires[start as usize..end as usize].iter();
    let keys = wires.filter(|i| Some(**i) != pulled_by);
    let mut levels = keys
        .map(|&i| &w.wires[usize::from(i)])
        .filter(|wire| wire.control != Control::NONE)
        .map(|wire| {
            let feel = w.feel(wire);
            let at_once = !wire.analog && feel.ramp_up <= 0.0 && feel.ramp_down <= 0.0;
            at_once.then_some(feel.sensitivity)
        });
    let first = levels.next()??;
    levels.all(|level| level == Some(first)).then_some(first)
}
