//! How the bindings of a row are put into words.

use super::words::{Form, Words};
use super::{InputPiece, Piece};
use crate::input::{Chord, DeviceKind, HidInput, Input, InputShape, PadButton, Place, Stick};
use crate::law::Bound;
use crate::rig::Rig;
use crate::sheet::{Arm, ColumnKind, Manner, Row};

/// Keys at most this far apart read as one, in key widths.
const TOGETHER: f32 = 2.6;

/// In the order in which hands know them: "W A S D".
const READING_ORDER: [Arm; 6] = [
    Arm::Up,
    Arm::Left,
    Arm::Down,
    Arm::Right,
    Arm::Forward,
    Arm::Back,
];

/// What a prompt is put into words for.
pub(super) struct Phrases<'a> {
    pub(super) rig: &'a Rig,
    pub(super) words: &'a Words,
    /// How many bindings of one row are named at the most.
    pub(super) alternates: usize,
}

/// What is shown for a row.
enum Shown<'a> {
    /// Bindings of the row, each of which works it.
    Alternates(Vec<&'a Bound>),
    /// One binding an arm.
    Arms(Vec<&'a Bound>),
    Nothing,
}

impl<'a> Phrases<'a> {
    /// Adds the pieces for a row: its bindings, or one of each of its arms, with the verb if
    /// wanted.
    pub(super) fn add(
        &self,
        out: &mut Vec<Piece>,
        row: Row,
        device: DeviceKind,
        exact: bool,
        verb: bool,
    ) {
        match self.shown(row, device, exact) {
            Shown::Nothing => out.push(Piece::Unbound {
                row,
                text: self.words.fill("not-bound", &[]),
            }),
            Shown::Alternates(bound) => self.alternates(out, &bound, verb),
            Shown::Arms(bound) => self.arms(out, row, &bound, verb),
        }
    }

    fn shown(&self, row: Row, device: DeviceKind, exact: bool) -> Shown<'a> {
        let arms = self.rig.sheet().declared(row.action).arms();
        let whole = self.usable(row, device, exact);
        let kind = ColumnKind::of(device);
        let belongs = |b: &&&Bound| b.cell.column.kind() == kind;
        if row.arm.is_some() || arms.is_empty() || whole.first().as_ref().is_some_and(belongs) {
            return match whole.is_empty() {
                true => Shown::Nothing,
                false => Shown::Alternates(whole),
            };
        }
        let arms: Vec<&Bound> = READING_ORDER
            .into_iter()
            .filter(|arm| arms.contains(arm))
            .filter_map(|arm| {
                let own = self.usable(Row::arm(row.action, arm), device, exact);
                own.first().copied()
            })
            .collect();
        match (arms.is_empty(), whole.is_empty()) {
            (false, _) => Shown::Arms(arms),
            (true, false) => Shown::Alternates(whole),
            (true, true) => Shown::Nothing,
        }
    }

    /// The bindings of a row to show for a device: those of its columns, or else of any other.
    fn usable(&self, row: Row, device: DeviceKind, exact: bool) -> Vec<&'a Bound> {
        let layout = self.rig.layout();
        let missing = |i| matches!(i, Input::Letter(letter) if layout.place_of(letter).is_none());
        let usable = |b: &&Bound| !b.chord.inputs().any(missing);
        let all = self.rig.bindings_of(row).iter().filter(usable);
        let kind = ColumnKind::of(device);
        let mut own: Vec<&Bound> = all
            .clone()
            .filter(|b| b.cell.column.kind() == kind)
            .collect();
        // A mouse is asked for by name: what is on it, though the keyboard is at hand.
        let on_it = |b: &Bound| b.chord.device_kind() == device;
        if exact && own.iter().any(|b| on_it(b)) {
            own.retain(|b| on_it(b));
        }
        if own.is_empty() {
            own.extend(all.take(1));
        }
        own
    }

    /// "Space or Enter", all with one verb.
    fn alternates(&self, out: &mut Vec<Piece>, bound: &[&Bound], verb: bool) {
        let first = bound[0];
        let fits = |b: &&&Bound| !verb || verb_of(b) == verb_of(first);
        let shown: Vec<&Bound> = bound
            .iter()
            .filter(fits)
            .take(self.alternates.max(1))
            .copied()
            .collect();
        let (before, after) = match verb {
            true => self.words.around(verb_of(first), "input"),
            false => ("", ""),
        };
        text(out, before);
        for (i, bound) in shown.iter().enumerate() {
            if i > 0 {
                let last = i + 1 == shown.len();
                let joiner = if last { "either" } else { "list" };
                text(out, self.words.around(joiner, "first").1);
            }
            out.push(self.input(bound, verb));
        }
        text(out, after);
    }

    /// "W A S D", "arrow keys", "left stick".
    fn arms(&self, out: &mut Vec<Piece>, row: Row, bound: &[&Bound], verb: bool) {
        let inputs: Vec<Input> = bound.iter().map(|b| b.chord.input()).collect();
        let plain = bound.iter().all(|b| b.chord.is_plain());
        let group = if plain { group_of(&inputs) } else { None };
        let id = match group {
            Some("pad-stick-left" | "pad-stick-right") => "do-move",
            _ => verb_of(bound[0]),
        };
        let (before, after) = match verb {
            true => self.words.around(id, "input"),
            false => ("", ""),
        };
        text(out, before);
        match group {
            Some(id) => {
                let attribute = if verb { "object" } else { "" };
                out.push(Piece::Group {
                    row,
                    chords: bound.iter().map(|b| b.chord.clone()).collect(),
                    name: self.words.fill_as(id, attribute, &[]),
                });
            }
            None => {
                let joiner = match self.together(&inputs) {
                    true => " ",
                    false => self.words.around("list", "first").1,
                };
                for (i, bound) in bound.iter().enumerate() {
                    if i > 0 {
                        text(out, joiner);
                    }
                    out.push(self.input(bound, verb && i == 0));
                }
            }
        }
        text(out, after);
    }

    /// Whether keys lie side by side on the player's board.
    fn together(&self, inputs: &[Input]) -> bool {
        let places: Option<Vec<Place>> = inputs.iter().map(|i| self.rig.place_of(*i)).collect();
        let board = self.rig.layout().board();
        let near = |a: Place, b: Place| board.distance(a, b).is_some_and(|d| d <= TOGETHER);
        places.is_some_and(|p| p.iter().all(|a| p.iter().all(|b| near(*a, *b))))
    }

    fn input(&self, bound: &Bound, verb: bool) -> Piece {
        let form = if verb { Form::Object } else { Form::Long };
        let (rig, chord) = (self.rig, &bound.chord);
        Piece::Input(InputPiece {
            row: bound.cell.row,
            name: self.words.chord(chord, rig.layout(), rig.platform(), form),
            device_kind: chord.device_kind(),
            chord: chord.clone(),
            manner: bound.manner,
        })
    }
}

fn text(out: &mut Vec<Piece>, text: &str) {
    match out.last_mut() {
        _ if text.is_empty() => {}
        Some(Piece::Text(before)) => before.push_str(text),
        _ => out.push(Piece::Text(text.to_owned())),
    }
}

/// The message that names inputs that are known by one name together.
fn group_of(inputs: &[Input]) -> Option<&'static str> {
    use PadButton::{Down, Left, Right, Up};
    let is = |four: [Input; 4]| inputs.len() == 4 && four.iter().all(|i| inputs.contains(i));
    let arrows = [
        Place::ArrowUp,
        Place::ArrowLeft,
        Place::ArrowDown,
        Place::ArrowRight,
    ];
    if is(arrows.map(Input::Key)) {
        return Some("key-arrows");
    }
    if is([Up, Left, Down, Right].map(Input::PadButton)) {
        return Some("pad-cross");
    }
    let halves = |stick| crate::input::Direction::ALL.map(|d| Input::PadStickHalf(stick, d));
    if is(halves(Stick::LEFT)) {
        return Some("pad-stick-left");
    }
    is(halves(Stick::RIGHT)).then_some("pad-stick-right")
}

/// The message with the verb for how a binding is worked.
fn verb_of(bound: &Bound) -> &'static str {
    let input = bound.chord.input();
    let moves = matches!(input.shape(), InputShape::Plane | InputShape::Line);
    match (bound.manner, input) {
        (Manner::Press, _) if moves && !bound.chord.is_plain() => "do-hold-and-move",
        (Manner::Press | Manner::Tap, _) if bound.together => "do-press-together",
        (Manner::Hold, _) => "do-hold",
        (Manner::Release, _) => "do-release",
        (Manner::DoubleTap, Input::MouseButton(_)) => "do-double-click",
        (Manner::DoubleTap, _) => "do-double-tap",
        (Manner::Press | Manner::Tap, Input::MouseButton(_)) => "do-click",
        (Manner::Tap, _) => "do-tap",
        (Manner::Press, Input::Wheel(_)) => "do-turn",
        (Manner::Press, Input::PadButton(b)) if b.is_trigger() => "do-pull",
        (Manner::Press, Input::PadStickHalf(..)) => "do-push",
        (Manner::Press, Input::Hid(HidInput::Hat(_) | HidInput::Half(..))) => "do-push",
        (Manner::Press, Input::Touch(_)) => "do-touch",
        (Manner::Press, _) if moves => "do-move",
        (Manner::Press, _) => "do-press",
    }
}

/// A chord as a screen reader says it.
pub(super) fn spoken(rig: &Rig, words: &Words, chord: &Chord) -> String {
    words.chord(chord, rig.layout(), rig.platform(), Form::Spoken)
}
