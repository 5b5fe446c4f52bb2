//! What each action did while a trace was played, and what became of each input.

use std::collections::HashMap;
use std::time::Duration;

use serde_json::{Value, json};
use swap_knot::play::{Edge, Happened, NotLive, Outcome, ReplayError, Told, TraceEntry};
use swap_knot::prompt::Telling;
use swap_knot::sheet::{ActionId, Arm};
use swap_knot::{DeviceKind, Row, Seat, Sheet, Time, Trace, Words};

/// The pace at which traces are played: 60 ticks a second.
const TICK: Duration = Duration::from_micros(16_667);
/// How many outcomes of inputs are told; of a longer trace the last ones.
const OUTCOMES: usize = 65_536;

/// Something that happened while a trace was played.
pub(crate) struct Entry {
    at: Time,
    what: What,
}

enum What {
    /// With where a stick stood that began it.
    Began(Row, Option<[f32; 2]>),
    Ended(Row, Duration),
    Situations(String),
    Rig(String),
    Using(DeviceKind),
    /// What became of an input, in words and as data.
    Told(String, Value),
}

/// Plays a trace and tells what happened; with `why`, also what became of each input.
pub(crate) fn play(
    seat: &mut Seat,
    trace: &Trace,
    why: bool,
) -> Result<(Sheet, Vec<Entry>), ReplayError> {
    let sheet = seat.rig().sheet().clone();
    if why {
        seat.keep_outcomes(OUTCOMES);
    }
    let mut lines = Lines {
        sheet: &sheet,
        began: HashMap::new(),
        out: Vec::new(),
    };
    let mut changes = trace.entries().iter().filter_map(|entry| match entry {
        TraceEntry::Situations { at, names } => Some((*at, What::Situations(names.join(", ")))),
        TraceEntry::Rig { at, layout, .. } => Some((*at, What::Rig(layout.clone()))),
        _ => None,
    });
    let mut next = changes.next();
    seat.replay(trace, TICK, |seat, now| {
        while let Some((at, what)) = next.take_if(|(at, _)| *at <= now) {
            lines.out.push(Entry { at, what });
            next = changes.next();
        }
        for happened in seat.happened() {
            lines.happened(happened, seat);
        }
        if seat.device_kind_changed() {
            let what = What::Using(seat.device_kind());
            lines.out.push(Entry { at: now, what });
        }
    })?;
    let mut out = lines.out;
    let (words, rig) = (Words::english(), seat.rig());
    let telling = Telling::new(&words, &sheet, rig.resolver());
    out.extend(seat.outcomes().map(|told| Entry {
        at: told.at,
        what: What::Told(text_of(&telling, &told), json_of(&sheet, &told)),
    }));
    // What an input did, and then what became of it.
    out.sort_by_key(|entry| entry.at);
    Ok((sheet, out))
}

impl Entry {
    /// The entry as a line of the timeline.
    pub(crate) fn line(&self, sheet: &Sheet) -> String {
        let (edge, text) = match &self.what {
            What::Began(row, from) => {
                let far = from.map_or(String::new(), |[x, y]| format!("  ({x:.2}, {y:.2})"));
                ("began", format!("{}{far}", sheet.row_title(*row)))
            }
            What::Ended(row, long) => {
                let (title, long) = (sheet.row_title(*row), long.as_secs_f64());
                ("ended", format!("{title}, after {long:.2} s"))
            }
            What::Situations(names) => ("", format!("situation: {names}")),
            What::Rig(layout) => {
                let rig = format!("another rig: layout {layout}, with the profile in the trace");
                ("", rig)
            }
            What::Using(kind) => ("", format!("the player is using: {kind}")),
            What::Told(text, _) => ("  why", text.clone()),
        };
        format!("{:>8} s  {edge:<5}  {text}", self.at.to_string())
    }

    /// The same as data.
    pub(crate) fn json(&self, sheet: &Sheet) -> Value {
        let mut all = match &self.what {
            What::Began(row, from) => {
                json!({ "what": "began", "row": sheet.row_name(*row), "from": from })
            }
            What::Ended(row, long) => {
                json!({ "what": "ended", "row": sheet.row_name(*row), "after": long.as_secs_f64() })
            }
            What::Situations(names) => json!({ "what": "situations", "names": names }),
            What::Rig(layout) => json!({ "what": "rig", "layout": layout }),
            What::Using(kind) => json!({ "what": "device", "kind": kind.to_string() }),
            What::Told(text, data) => {
                let mut all = data.clone();
                all["what"] = "outcome".into();
                all["text"] = text.clone().into();
                all
            }
        };
        all["at"] = seconds(self.at).into();
        all
    }
}

fn seconds(at: Time) -> f64 {
    at.as_micros() as f64 / 1e6
}

/// In words, with how often and how long where that is more than once.
fn text_of(telling: &Telling<'_>, told: &Told<'_>) -> String {
    let text = telling.tell(told);
    match told.times {
        1 => text,
        times => format!("{text} ({times} movements until {} s)", told.last),
    }
}

fn json_of(sheet: &Sheet, told: &Told<'_>) -> Value {
    let place = |id| sheet.situation(id).map(|s| s.name.clone());
    let part = match told.outcome {
        Outcome::NotHeld(input)
        | Outcome::PartSpent(input)
        | Outcome::WrongOrder(input)
        | Outcome::Strict(input) => Some(input.to_string()),
        _ => None,
    };
    let by = match told.outcome {
        Outcome::LongerChord(row) | Outcome::OtherManner(row) => Some(sheet.row_name(row)),
        Outcome::NotLive(NotLive::Covered(by) | NotLive::Typing(by)) => place(by),
        _ => None,
    };
    let mut all = json!({
        "device": told.device.0, "input": told.input.to_string(), "outcome": told.outcome.id(),
        "row": told.row.map(|row| sheet.row_name(row)),
        "chord": told.binding.map(|b| b.chord.to_string()),
    });
    for (key, value) in [("part", part), ("by", by)] {
        if let Some(value) = value {
            all[key] = value.into();
        }
    }
    if told.times > 1 {
        all["times"] = told.times.into();
        all["until"] = seconds(told.last).into();
    }
    all
}

struct Lines<'a> {
    sheet: &'a Sheet,
    began: HashMap<(ActionId, Option<Arm>), Time>,
    out: Vec<Entry>,
}

impl Lines<'_> {
    fn happened(&mut self, happened: &Happened, seat: &Seat) {
        let (action, arm) = (happened.action, happened.arm);
        let declared = self.sheet.action(action);
        let whole = declared.is_some_and(|a| !a.arms().is_empty()) && arm.is_none();
        // Of an action with arms, the arms tell more; without any, it was a stick.
        let mut on = self.began.keys();
        if whole && on.any(|(a, arm)| *a == action && arm.is_some()) {
            return;
        }
        let row = Row { action, arm };
        let what = match happened.edge {
            Edge::Began => {
                self.began.insert((action, arm), happened.at);
                What::Began(row, whole.then(|| seat.plane(action)))
            }
            Edge::Ended => {
                let Some(began) = self.began.remove(&(action, arm)) else {
                    return;
                };
                What::Ended(row, happened.at.since(began))
            }
        };
        let at = happened.at;
        self.out.push(Entry { at, what });
    }
}
