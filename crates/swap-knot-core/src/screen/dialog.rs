//! What is shown while the screen listens or asks.

use super::{ControlsScreen, Dialog, Item, Role, Spot};
use crate::draft::{Listener, Question, cancels_by};
use crate::input::Chord;
use crate::sheet::{Cell, ColumnKind};

/// The answer that is the first of the zones.
pub(super) const FIRST_ZONE: usize = 3;

impl ControlsScreen {
    /// An answer of the dialog.
    pub(super) fn button(&self, at: usize, label: String) -> Item {
        self.item(Spot::Answer(at as u16), label, Role::Button)
    }

    pub(super) fn view_listening(&self, cell: Option<Cell>, listener: &Listener) -> Dialog {
        let (draft, words) = (&self.draft, self.draft.words());
        let title = match cell {
            Some(cell) => words.say("menu-listen", &[("title", &draft.row_title(cell.row))]),
            None => self.text("menu-find-hint"),
        };
        let left = Self::whole(listener.time_left(self.now).unwrap_or_default());
        let seconds = left.as_secs().to_string();
        let mut text: Vec<String> = Vec::new();
        let held: Vec<String> = listener
            .held()
            .map(|i| super::walk::short(draft, i))
            .collect();
        if !held.is_empty() {
            text.push(format!("{} + …", held.join(" + ")));
        }
        let input = cancels_by(self.hand());
        let chord = Chord::from(input);
        let values = [("seconds", &*seconds)];
        text.push(draft.telling().about("menu-cancel", &values, &chord));
        let kind = cell.map(|c| c.column.kind());
        let fits = kind.is_none_or(|k| k == ColumnKind::of(input.device_kind()));
        if fits
            && draft
                .resolver()
                .find_related(&chord, draft.sheet().reserved())
                .is_none()
        {
            text.push(draft.telling().about("listen-hold", &[], &chord));
        }
        let mut answers = vec![self.button(0, self.text("menu-cancel-button"))];
        if let Some(cell) = cell {
            let is_bound = draft.chord_in(cell).is_some();
            answers.push(self.button(1, self.text("menu-clear")).enabled(is_bound));
            let own = draft.has_own(cell);
            answers.push(self.button(2, self.text("menu-reset")).enabled(own));
        }
        let mut lines = vec![answers];
        let zones = cell.map(|c| self.zones_to_choose(c.column.kind()));
        let zones = zones.unwrap_or_default();
        let zone = |(n, name)| self.zone_answer(FIRST_ZONE + n, name);
        lines.extend(
            zones
                .into_iter()
                .enumerate()
                .map(zone)
                .map(|item| vec![item]),
        );
        Dialog {
            title,
            text,
            lines,
            time_left: Some(left),
            ..Dialog::default()
        }
    }

    pub(super) fn view_question(&self, question: &Question) -> Dialog {
        let draft = &self.draft;
        let answers = question.ways().iter().enumerate().map(|(n, way)| {
            let id = format!("menu-{}", way.settle.word());
            let told = draft.tell(way);
            let lines = told.lines().map(str::to_owned).collect();
            let item = self.button(n, self.text(&id)).text(lines);
            vec![item.enabled(way.refused.is_none())]
        });
        Dialog {
            title: draft.tell(question),
            lines: answers.collect(),
            ..Dialog::default()
        }
    }
}
