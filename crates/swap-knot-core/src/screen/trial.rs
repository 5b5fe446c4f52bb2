//! The page for trying: a sandbox in which every action is lit as it is worked.

use super::answer::Picking;
use super::proof::WayOut;
use super::{
    Busy, ControlsScreen, Hint, Item, Live, Role, RowView, ScreenView, Section, Spot, Tool,
};
use crate::draft::cancels_by;
use crate::input::{DeviceId, Event, EventKind, Input};
use crate::seat::{Outcome, Told};
use crate::sheet::{Row, Shape, SituationId};

/// How many of the last outcomes are kept, and how many of them are shown.
const KEPT: usize = 32;
const SHOWN: usize = 6;

impl ControlsScreen {
    /// Where things are tried: where the player chose, where the game is, or where it begins.
    pub(super) fn tried_in(&self) -> Option<SituationId> {
        self.tries.or(self.draft.sheet().first_situation())
    }

    pub(super) fn view_trial(&self, view: &mut ScreenView) {
        let tries = matches!(self.busy, Busy::Trying(_));
        view.tools = self.common_tools(Vec::new());
        if tries {
            // Everything else is what is tried.
            view.tools.retain(|i| i.spot == Spot::Tool(Tool::Leave));
        }
        let id = if tries { "try-stop" } else { "try-begin" };
        let button = self.item(Spot::Trying, self.text(id), Role::Button);
        let mut rows = Vec::new();
        if let Some(place) = self.tried_in().filter(|_| !tries) {
            let label = self
                .draft
                .words()
                .situation_title(self.draft.sheet(), place);
            rows.push(self.choice(Spot::Where, "try-where", label));
        }
        rows.push(RowView {
            items: vec![button],
            ..RowView::default()
        });
        view.sections.push(Section {
            text: Some(self.text("try-what")),
            rows,
            ..Section::default()
        });
        if tries {
            let told = self.last_outcomes();
            let row = |title| RowView {
                title,
                ..RowView::default()
            };
            let rows = told.into_iter().map(row).collect();
            view.sections.push(Section {
                rows,
                ..Section::default()
            });
        }
        view.sections.push(Section {
            rows: self.tried_rows(),
            ..Section::default()
        });
    }

    /// The actions that are live there, with what works them, lit while they are worked.
    fn tried_rows(&self) -> Vec<RowView> {
        let (sheet, draft) = (self.draft.sheet(), &self.draft);
        let place = self.tried_in();
        let live = sheet.actions().filter(|(_, a)| {
            !a.off && (a.situations.is_empty() || a.situations.iter().any(|s| Some(*s) == place))
        });
        let mut rows = Vec::new();
        for (id, action) in live {
            for row in sheet.rows_of(id) {
                let own = draft.bindings().iter().filter(|b| b.cell.row == row);
                let names: Vec<String> = own.map(|b| draft.chord_name(&b.chord)).collect();
                if names.is_empty() && row.arm.is_none() && action.shape != Shape::Press {
                    continue;
                }
                let value = match (action.shape, row.arm) {
                    (Shape::Press, _) => None,
                    (_, Some(arm)) => Some(self.trial.arm(id, arm)),
                    (Shape::Plane | Shape::Space, None) => {
                        let [x, y, z] = self.trial.space(id);
                        Some((x * x + y * y + z * z).sqrt())
                    }
                    _ => Some(self.trial.value(id)),
                };
                rows.push(RowView {
                    title: draft.row_title(row),
                    lit: self.trial.is_down(row),
                    live: value.map(|v| Live::Pull {
                        at: v.abs().min(1.0),
                        mark: 1.0,
                    }),
                    text: Some(self.listed(names)),
                    ..RowView::default()
                });
            }
        }
        rows
    }

    /// What became of the last presses, newest first: what each worked, or why it worked nothing.
    fn last_outcomes(&self) -> Vec<String> {
        let telling = self.draft.telling();
        let all: Vec<Told<'_>> = self.trial.outcomes().collect();
        let presses = all.chunk_by(|a, b| (a.at, a.input) == (b.at, b.input));
        let mut lines: Vec<String> = Vec::new();
        // What was not decided yet is told no more where it was since.
        let mut decided: Vec<(Input, Option<Row>)> = Vec::new();
        for press in presses.rev() {
            let counts = |t: &&Told<'_>| {
                use Outcome::{AlreadyOn, ToggledOff, Waiting, Worked};
                matches!(t.outcome, Worked | AlreadyOn | ToggledOff | Waiting { .. })
            };
            let worked: Vec<&Told<'_>> = press.iter().filter(counts).collect();
            // Why other bindings of it did nothing is of no interest where one of them did.
            let told = match worked.is_empty() {
                true => press.iter().collect(),
                false => worked,
            };
            for told in told {
                let of = (told.input, told.row);
                let is_waiting = matches!(told.outcome, Outcome::Waiting { .. });
                let line = telling.tell(told);
                if !(lines.contains(&line) || is_waiting && decided.contains(&of)) {
                    lines.push(line);
                }
                decided.push(of);
            }
        }
        lines.truncate(SHOWN);
        lines
    }

    /// Begins to try, or ends it.
    pub(super) fn work_trial(&mut self) {
        if matches!(self.busy, Busy::Trying(_)) {
            self.stop_trying();
            return;
        }
        self.trial.set_rig(self.draft.rig());
        self.trial_of = self.draft.revision();
        self.trial.keep_outcomes(KEPT);
        match self.tried_in() {
            Some(place) => self.trial.set_situations(&[place]),
            None => self.trial.set_situations::<SituationId>(&[]),
        }
        self.busy = Busy::Trying(WayOut::default());
        self.stale = true;
    }

    pub(super) fn stop_trying(&mut self) {
        self.busy = Busy::Nothing;
        self.stale = true;
        // What is held there is over.
        let (at, device) = (self.now, DeviceId::ALL);
        let what = EventKind::FocusLost;
        self.trial.feed(&Event { at, device, what });
        self.trial.keep_outcomes(0);
        self.focus_on(Spot::Trying);
    }

    pub(super) fn trial_hints(&self) -> Vec<Hint> {
        let input = cancels_by(self.hand());
        vec![Hint {
            input,
            name: super::walk::short(&self.draft, input),
            does: self.text("try-stop"),
        }]
    }

    pub(super) fn ask_where(&mut self) {
        self.ask(Picking::Where);
    }

    pub(super) fn view_places(&self) -> Vec<Item> {
        let here = self.tried_in();
        let all = self.draft.sheet().situations().enumerate();
        let radio = |n: usize, id: SituationId| {
            let label = self.draft.words().situation_title(self.draft.sheet(), id);
            let selected = Some(id) == here;
            self.item(Spot::Answer(n as u16), label, Role::Radio { selected })
        };
        all.map(|(n, (id, _))| radio(n, id)).collect()
    }

    pub(super) fn pick_place(&mut self, n: usize) {
        if let Some((id, _)) = self.draft.sheet().situations().nth(n) {
            self.tries = Some(id);
            self.stale = true;
        }
    }

    /// The next place or the one before; whether there is one.
    pub(super) fn next_place(&mut self, up: bool) -> bool {
        let here = self.tried_in();
        let all: Vec<SituationId> = self.draft.sheet().situations().map(|(id, _)| id).collect();
        let at = all.iter().position(|id| Some(*id) == here).unwrap_or(0);
        let to = if up { at + 1 } else { at.wrapping_sub(1) };
        if let Some(id) = all.get(to) {
            self.tries = Some(*id);
        }
        self.stale = true;
        true
    }
}
