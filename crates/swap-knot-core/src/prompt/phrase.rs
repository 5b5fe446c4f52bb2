//! How the bindings of a row are put into words.

use super::{InputPiece, Piece};
use crate::input::{
    Chord, DeviceKind, HidAxis, HidInput, Input, InputShape, PadButton, Place, Stick,
};
use crate::law::Bound;
use crate::rig::Rig;
use crate::sheet::{Arm, ColumnKind, Manner, Row};
use crate::words::{Form, On, Part, Pattern, Saying, Words, is_legend};

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
        let shown = self.shown(row, device, exact);
        if !verb {
            return self.say(out, row, &shown, false);
        }
        let mut phrase = Vec::new();
        self.say(&mut phrase, row, &shown, true);
        match (begins_sentence(out), phrase.first_mut()) {
            (true, _) => self.begin(&mut phrase),
            // Verbs begin with a capital in their messages; inside a sentence they do not.
            (false, Some(Piece::Text(text))) => *text = self.words.small(text),
            (false, _) => {}
        }
        phrase.into_iter().for_each(|piece| push(out, piece));
    }

    /// Puts the pieces of a prompt together as the language does: Chinese has a space between its own
    /// letters and others, and none elsewhere.
    pub(super) fn join(&self, pieces: &mut Vec<Piece>) {
        let said = |piece: &Piece| match piece {
            Piece::Text(text) | Piece::Unbound { text, .. } => text.clone(),
            Piece::Group { name, .. } => name.clone(),
            Piece::Input(input) => input.name.clone(),
        };
        let mut at = 1;
        while at < pieces.len() {
            let [before, after] = [said(&pieces[at - 1]), said(&pieces[at])];
            let wants = self
                .words
                .wants_space(before.trim_end(), after.trim_start());
            let has = before.ends_with(' ') || after.starts_with(' ');
            if let Some(wants) = wants.filter(|wants| *wants != has) {
                let [a, b] = [at - 1, at];
                match (wants, &mut pieces[a..=b]) {
                    (true, [Piece::Text(text), _]) => text.push(' '),
                    (true, [_, Piece::Text(text)]) => text.insert(0, ' '),
                    (true, _) => {
                        pieces.insert(at, Piece::Text(" ".to_owned()));
                        at += 1;
                    }
                    (false, both) => {
                        if let Piece::Text(text) = &mut both[0] {
                            text.truncate(text.trim_end().len());
                        }
                        if let Piece::Text(text) = &mut both[1] {
                            *text = text.trim_start().to_owned();
                        }
                    }
                }
            }
            at += 1;
        }
    }

    fn say(&self, out: &mut Vec<Piece>, row: Row, shown: &Shown<'_>, verb: bool) {
        match shown {
            Shown::Nothing => out.push(Piece::Unbound {
                row,
                text: self.words.fill("not-bound", &[]),
            }),
            Shown::Alternates(bound) => self.alternates(out, bound, verb),
            Shown::Arms(bound) => self.arms(out, row, bound, verb),
        }
    }

    /// A phrase begins with a capital, also where the language begins it with what is worked.
    fn begin(&self, phrase: &mut [Piece]) {
        match phrase.first_mut() {
            Some(Piece::Input(input)) => {
                let is_legend = is_legend(&input.chord);
                input.name = self.words.capital(&input.name, is_legend);
                input.spoken = self.words.capital(&input.spoken, is_legend);
            }
            Some(Piece::Group { name, .. }) => *name = self.words.capital(name, false),
            _ => {}
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
        if !verb {
            let shown = &bound[..bound.len().min(self.most())];
            return self.listed(out, "either", shown, Form::Name);
        }
        let id = verb_of(first);
        if is_split(first) {
            return self.split(out, first, id);
        }
        let shown: Vec<&Bound> = bound
            .iter()
            .copied()
            .filter(|b| verb_of(b) == id && !is_split(b))
            .take(self.most())
            .collect();
        self.phrase(out, id, &mut |out, form| {
            self.listed(out, "either", &shown, form);
        });
    }

    fn most(&self) -> usize {
        self.alternates.max(1)
    }

    /// "Hold the left shoulder and press the lower button".
    fn split(&self, out: &mut Vec<Piece>, bound: &Bound, id: &'static str) {
        let held = bound.chord.held();
        let of = |inputs: &[Input]| {
            let (last, held) = inputs.split_last()?;
            Chord::new(held.iter().copied(), *last).ok()
        };
        let (Some(held), last) = (of(held), Chord::from(bound.chord.input())) else {
            return;
        };
        let both = self.words.pattern("while-held", "");
        self.walk(out, both, &mut |out, name| match name {
            "do" => {
                let mut inner = Vec::new();
                self.phrase(&mut inner, id, &mut |out, form| {
                    out.push(self.input(bound, &last, form));
                });
                if let Some(Piece::Text(text)) = inner.first_mut() {
                    *text = self.words.small(text);
                }
                inner.into_iter().for_each(|piece| push(out, piece));
            }
            name => {
                if let Some(form) = Form::of_variable(name) {
                    out.push(self.input(bound, &held, form));
                }
            }
        });
    }

    /// "W A S D", "arrow keys", "left stick".
    fn arms(&self, out: &mut Vec<Piece>, row: Row, bound: &[&Bound], verb: bool) {
        let inputs: Vec<Input> = bound.iter().map(|b| b.chord.input()).collect();
        let plain = bound.iter().all(|b| b.chord.is_plain());
        let group = if plain { group_of(&inputs) } else { None };
        let add = &mut |out: &mut Vec<Piece>, form: Form| match group {
            Some(id) => out.push(Piece::Group {
                row,
                chords: bound.iter().map(|b| b.chord.clone()).collect(),
                name: self.words.in_form(id, Saying::written(form)),
            }),
            None if self.together(&inputs) => {
                // A row of keys is one thing in a phrase.
                let row = self.words.pattern_for("key-row", Saying::written(form));
                self.walk(out, row, &mut |out, _| {
                    for (i, bound) in bound.iter().enumerate() {
                        text(out, if i > 0 { " " } else { "" });
                        out.push(self.input(bound, &bound.chord, Form::Name));
                    }
                });
            }
            None => self.listed(out, "list", bound, form),
        };
        match verb {
            false => add(out, Form::Name),
            true => {
                let id = match group {
                    Some("pad-stick-left" | "pad-stick-right") => "do-move",
                    _ => verb_of(bound[0]),
                };
                self.phrase(out, id, add);
            }
        }
    }

    /// Inputs joined as the language does: "A, B or C" with `either`, "A, B, C" with `list`.
    fn listed(&self, out: &mut Vec<Piece>, last: &str, bound: &[&Bound], form: Form) {
        match bound {
            [] => {}
            [one] => out.push(self.input(one, &one.chord, form)),
            [all @ .., one] => {
                let in_row = |first, is_last| {
                    let saying = Saying::written(form);
                    self.words.in_row(last, saying, first, is_last).form
                };
                self.walk(
                    out,
                    self.words.pattern(last, ""),
                    &mut |out, name| match name {
                        "first" => self.listed(out, "list", all, in_row(true, false)),
                        _ => out.push(self.input(one, &one.chord, in_row(false, true))),
                    },
                )
            }
        }
    }

    /// A phrase about inputs, which are added in the form that its variable asks for.
    fn phrase(&self, out: &mut Vec<Piece>, id: &str, add: &mut dyn FnMut(&mut Vec<Piece>, Form)) {
        self.walk(out, self.words.pattern(id, ""), &mut |out, name| {
            if let Some(form) = Form::of_variable(name) {
                // What is moved in the hands is the pad, and not its motion.
                let moved = id == "do-move-pad" && form == Form::Object;
                add(out, if moved { Form::Moved } else { form });
            }
        });
    }

    /// A message with something added for each of its variables.
    fn walk(
        &self,
        out: &mut Vec<Piece>,
        pattern: Option<&Pattern>,
        add: &mut dyn FnMut(&mut Vec<Piece>, &str),
    ) {
        for part in pattern.map_or(&[][..], Pattern::parts) {
            match part {
                Part::Text(t) => text(out, t),
                Part::Variable(name) => add(out, name),
            }
        }
    }

    /// Whether keys lie side by side on the player's board.
    fn together(&self, inputs: &[Input]) -> bool {
        let places: Option<Vec<Place>> = inputs.iter().map(|i| self.rig.place_of(*i)).collect();
        let board = self.rig.layout().board();
        let near = |a: Place, b: Place| board.distance(a, b).is_some_and(|d| d <= TOGETHER);
        places.is_some_and(|p| p.iter().all(|a| p.iter().all(|b| near(*a, *b))))
    }

    /// A bound input, or a part of the chord that is bound.
    fn input(&self, bound: &Bound, chord: &Chord, form: Form) -> Piece {
        let on = On::from(self.rig.resolver());
        let [name, spoken] = self.words.written_and_spoken(chord, on, form);
        Piece::Input(InputPiece {
            row: bound.cell.row,
            name,
            spoken,
            device_kind: chord.device_kind(),
            chord: chord.clone(),
            manner: bound.manner,
        })
    }
}

/// Whether what comes next begins a sentence.
fn begins_sentence(before: &[Piece]) -> bool {
    let text = match before.last() {
        None => return true,
        Some(Piece::Text(text)) => text.trim_end_matches([' ', '"', '“', '«', '„', '(']),
        Some(_) => return false,
    };
    // Whoever leaves only brackets or a list's mark before it means a beginning too.
    let ends = [
        '.', '!', '?', ':', '。', '！', '？', '：', '\n', '•', '/', '|', '–', '—', '-',
    ];
    text.is_empty() || text.ends_with(ends)
}

fn push(out: &mut Vec<Piece>, piece: Piece) {
    match piece {
        Piece::Text(t) => text(out, &t),
        other => out.push(other),
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

/// Whether a binding takes two verbs: one for what is held, one for what completes it. Keys alone
/// are said as one ("Press Ctrl+K"), and so is what has one verb for all of its parts.
fn is_split(bound: &Bound) -> bool {
    let one_verb = bound.together || matches!(bound.manner, Manner::Hold | Manner::Release);
    let keys = |c: &Chord| c.inputs().all(|i| i.device_kind() == DeviceKind::Keyboard);
    !bound.chord.is_plain() && !one_verb && !keys(&bound.chord)
}

/// What a hand or foot does with an axis that has a name.
const HANDS: [(HidAxis, &str); 8] = [
    (HidAxis::Slider, "do-push"),
    (HidAxis::Dial, "do-turn"),
    (HidAxis::Rudder, "do-push"),
    (HidAxis::Throttle, "do-push"),
    (HidAxis::Accelerator, "do-press"),
    (HidAxis::Brake, "do-press"),
    (HidAxis::Clutch, "do-press"),
    (HidAxis::Steering, "do-turn"),
];

fn by_hand(axis: HidAxis) -> Option<&'static str> {
    let found = HANDS.iter().find(|(of, _)| *of == axis);
    found.map(|(_, verb)| *verb)
}

/// The message with the verb for how a binding is worked.
fn verb_of(bound: &Bound) -> &'static str {
    let input = bound.chord.input();
    let moves = matches!(
        input.shape(),
        InputShape::Plane | InputShape::Space | InputShape::Line
    );
    match (bound.manner, input) {
        (Manner::Press | Manner::Tap, _) if bound.together => "do-press-together",
        (Manner::Hold, _) => "do-hold",
        (Manner::Release, _) => "do-release",
        (Manner::DoubleTap, Input::MouseButton(_)) => "do-double-click",
        (Manner::DoubleTap, _) => "do-double-tap",
        (Manner::TripleTap, Input::MouseButton(_)) => "do-triple-click",
        (Manner::TripleTap, _) => "do-triple-tap",
        (Manner::Press | Manner::Tap, Input::MouseButton(_)) => "do-click",
        (Manner::Tap, _) => "do-tap",
        (Manner::Press, Input::Wheel(_)) => "do-turn",
        (Manner::Press, Input::PadButton(b)) if b.is_trigger() => "do-pull",
        (Manner::Press, Input::PadStickHalf(..)) => "do-push",
        (Manner::Press, Input::Hid(HidInput::Half(axis, _))) => by_hand(axis).unwrap_or("do-push"),
        (Manner::Press, Input::Hid(HidInput::Axis(axis))) => by_hand(axis).unwrap_or("do-move"),
        (Manner::Press, Input::Hid(HidInput::Hat(_))) => "do-push",
        (
            Manner::Press,
            Input::PadButton(PadButton::StickLeftClick | PadButton::StickRightClick),
        ) => "do-click",
        (Manner::Press, Input::PadGyro) => "do-move-pad",
        (Manner::Press, Input::Touch(_)) => "do-touch",
        (Manner::Press, _) if moves => "do-move",
        (Manner::Press, _) => "do-press",
    }
}
