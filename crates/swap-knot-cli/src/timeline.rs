//! What each action did while a trace was played, as lines of text.

use std::collections::HashMap;
use std::time::Duration;

use swap_knot::{ActionId, Arm, Edge, Happened, ReplayError, Seat, Sheet, Time, Trace, TraceEntry};

/// The pace at which traces are played: 60 ticks a second.
const TICK: Duration = Duration::from_micros(16_667);

/// Plays a trace and tells what happened, a line each.
pub(crate) fn play(seat: &mut Seat, trace: &Trace) -> Result<Vec<String>, ReplayError> {
    let sheet = seat.rig().sheet().clone();
    let mut lines = Lines {
        sheet: &sheet,
        began: HashMap::new(),
        out: Vec::new(),
    };
    let mut changes = trace.entries().iter().filter_map(|entry| match entry {
        TraceEntry::Situations { at, names } => {
            Some((*at, format!("situation: {}", names.join(", "))))
        }
        TraceEntry::Rig { at, layout, .. } => Some((
            *at,
            format!("another rig: layout {layout}, with the profile in the trace"),
        )),
        _ => None,
    });
    let mut next = changes.next();
    seat.replay(trace, TICK, |seat, now| {
        while let Some((at, text)) = next.take_if(|(at, _)| *at <= now) {
            lines.add(at, "     ", &text);
            next = changes.next();
        }
        for happened in seat.happened() {
            lines.happened(happened, seat);
        }
        if seat.device_kind_changed() {
            let kind = seat.device_kind();
            lines.add(now, "     ", &format!("the player is using: {kind}"));
        }
    })?;
    Ok(lines.out)
}

struct Lines<'a> {
    sheet: &'a Sheet,
    began: HashMap<(ActionId, Option<Arm>), Time>,
    out: Vec<String>,
}

impl Lines<'_> {
    fn add(&mut self, at: Time, edge: &str, text: &str) {
        self.out
            .push(format!("{:>8} s  {edge}  {text}", at.to_string()));
    }

    fn happened(&mut self, happened: &Happened, seat: &Seat) {
        let (action, arm) = (happened.action, happened.arm);
        let whole = self
            .sheet
            .action(action)
            .is_some_and(|a| !a.arms().is_empty())
            && arm.is_none();
        // Of an action with arms, the arms tell more; without any, it was a stick.
        if whole
            && self
                .began
                .keys()
                .any(|(a, arm)| *a == action && arm.is_some())
        {
            return;
        }
        let row = swap_knot::Row { action, arm };
        let title = self.sheet.row_title(row);
        match happened.edge {
            Edge::Began => {
                let [x, y] = seat.plane(action);
                let far = if whole {
                    format!("  ({x:.2}, {y:.2})")
                } else {
                    String::new()
                };
                self.began.insert((action, arm), happened.at);
                self.add(happened.at, "began", &format!("{title}{far}"));
            }
            Edge::Ended => {
                let Some(began) = self.began.remove(&(action, arm)) else {
                    return;
                };
                let long = happened.at.since(began).as_secs_f64();
                self.add(happened.at, "ended", &format!("{title}, after {long:.2} s"));
            }
        }
    }
}
