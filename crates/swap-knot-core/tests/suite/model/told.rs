//! What the judge tells of inputs, beside what began.

use swap_knot::input::Platform;
use swap_knot::play::{Bound, Edge, Outcome};
use swap_knot::sheet::ActionId;
use swap_knot::{Input, Row, Time};

use super::world::Played;

/// More than happens between two ticks.
const OUTCOMES: usize = 4_096;

impl Played {
    /// Asks the judge what becomes of inputs, from now on.
    pub fn ask(&mut self) {
        self.asked = true;
        self.seat_mut().keep_outcomes(OUTCOMES);
    }

    /// What was told of keys and buttons and sticks since the last tick, as row and time; then it is
    /// forgotten.
    fn told(&mut self) -> Vec<(Outcome, Option<Row>, Time)> {
        let told = self.seat().outcomes().map(|t| (t.outcome, t.row, t.at));
        let told = told.collect();
        self.seat_mut().keep_outcomes(0);
        self.seat_mut().keep_outcomes(OUTCOMES);
        told
    }

    /// It is told that something was worked exactly where an edge is.
    pub fn compare_outcomes(&mut self) {
        let told = self.told();
        if std::mem::take(&mut self.forgot) {
            return;
        }
        let worked: Vec<_> = told
            .iter()
            .filter(|(outcome, ..)| *outcome == Outcome::Worked)
            .filter_map(|(_, row, at)| Some((row.as_ref()?.action, *at)))
            .collect();
        let began: Vec<_> = self
            .seat()
            .happened()
            .iter()
            .filter(|h| h.edge == Edge::Began)
            .map(|h| (h.action, h.at))
            .collect();
        let lacks = |all: &[(ActionId, Time)], some: &[(ActionId, Time)]| {
            some.iter().find(|e| !all.contains(e)).copied()
        };
        if let Some((action, at)) = lacks(&worked, &began).or(lacks(&began, &worked)) {
            let name = self
                .seat()
                .rig()
                .sheet()
                .action(action)
                .map(|a| a.name.clone());
            self.wrong.get_or_insert(format!(
                "{name:?} at {at:?}: began {began:?}, told {told:?}"
            ));
        }
    }

    /// Whatever a key or button completes is told of when it is pressed.
    pub fn compare_press(&mut self, input: Input) {
        let now = Time::from_millis(self.now);
        let rig = self.seat().rig().clone();
        let told: Vec<_> = self
            .seat()
            .outcomes()
            .filter(|t| t.at == now)
            .map(|t| t.row)
            .collect();
        let completes = |b: &&Bound| {
            let own = b.chord.input();
            own == input
                || matches!((own, input), (Input::Modifier(m), Input::Key(place)) if m.places(Platform::Other).contains(&place))
        };
        for bound in rig.bindings().iter().filter(completes) {
            if !told.contains(&Some(bound.cell.row)) {
                let why = format!("nothing told of {} for {:?}", bound.chord, bound.cell);
                self.wrong.get_or_insert(why);
            }
        }
    }
}
