//! Listening for a binding, and what comes of an edit: it is done, it asks, or it was refused.

use super::{Busy, ControlsScreen, Spot};
use crate::draft::{Bind, Heard, Listener, ListenerOptions, Refusal, RefusedInput, Reset, Settle};
use crate::input::{Chord, DeviceKind};
use crate::sheet::{Cell, Column, ColumnKind};

impl ControlsScreen {
    pub(super) fn listen(&mut self, cell: Cell) {
        // What is pressed on another device lands in the column of that one.
        let own = self.draft.listens_for(cell);
        let options = ColumnKind::ALL
            .into_iter()
            .fold(own, ListenerOptions::for_columns);
        let listener = self.listener(options);
        self.begin(Busy::Listening(cell, listener));
    }

    pub(super) fn listener(&self, options: ListenerOptions) -> Box<Listener> {
        let mut listener = Box::new(Listener::new(options, &self.book));
        listener.tick(self.now);
        listener
    }

    pub(super) fn hear(&mut self, heard: Heard) {
        match heard {
            Heard::Nothing | Heard::Holding => {}
            Heard::Chord(chord) => match std::mem::replace(&mut self.busy, Busy::Nothing) {
                Busy::Listening(cell, _) => {
                    self.focus_on(self.before);
                    let to = match self.landing(cell, &chord) {
                        Ok(to) => to,
                        Err(refused) => {
                            self.listen(cell);
                            return self.say(&refused);
                        }
                    };
                    let kept = self.kept_by_system(Some(&chord));
                    let landed = (to != cell).then(|| self.landed(to, &chord));
                    self.focus_on(Spot::Cell(to));
                    let bound = self.draft.bind(to, chord);
                    let is_done = matches!(bound, Ok(Bind::Done));
                    self.after(bound);
                    if is_done {
                        let told: Vec<String> = landed.into_iter().chain(kept).collect();
                        self.message = (!told.is_empty()).then(|| told.join("\n"));
                    }
                }
                _ => {
                    self.filter.on = Some(chord);
                    let first = self.first_spot();
                    self.focus_on(first);
                }
            },
            Heard::Refused(why) => self.say(&why),
            Heard::Cancelled | Heard::TimedOut => {
                self.message = None;
                self.calm();
            }
        }
    }

    /// Where a chord goes that was pressed for a cell: into the columns of the device it was pressed on, to the
    /// same place or the first free one. A pointer is at work on the screen besides, and means no other
    /// column by that.
    fn landing(&self, cell: Cell, chord: &Chord) -> Result<Cell, RefusedInput> {
        let (input, wanted) = (chord.input(), cell.column.kind());
        let kind = ColumnKind::of(input.device_kind());
        if kind == wanted {
            return Ok(cell);
        }
        if matches!(input.device_kind(), DeviceKind::Mouse | DeviceKind::Touch) {
            return Err(RefusedInput::OtherColumn(input, wanted));
        }
        let there = |n| cell.row.cell(Column::new(kind, n));
        let is_free = |n: &u8| self.draft.chord_in(there(*n)).is_none();
        let free = (1..=Column::LAST).find(is_free).unwrap_or(Column::LAST);
        Ok(there(cell.column.number().min(free)))
    }

    fn landed(&self, cell: Cell, chord: &Chord) -> String {
        let telling = self.draft.telling();
        let (column, title) = (telling.tell(&cell.column.kind()), telling.row(cell.row));
        let values = [("column", &*column), ("title", &*title)];
        telling.about("landed", &values, chord)
    }

    /// Goes on after an edit: it is done, it asks, or it was refused.
    pub(super) fn after(&mut self, bind: Result<Bind, Refusal>) {
        self.message = None;
        match bind {
            Ok(Bind::Done) => self.calm(),
            Ok(Bind::Asks(question)) => self.begin(Busy::Asking(question)),
            Err(refusal) => {
                self.say(&refusal);
                // A question that was open stays open for another answer.
                self.stale = true;
            }
        }
    }

    pub(super) fn settle(&mut self, settle: Settle) {
        if let Busy::Asking(question) = &self.busy {
            let answered = self.draft.answer(question.clone(), settle);
            self.after(answered);
        }
    }

    pub(super) fn clear(&mut self) {
        if let Spot::Cell(cell) = self.focus {
            self.unbind(cell);
        }
    }

    pub(super) fn unbind(&mut self, cell: Cell) {
        let done = self.draft.unbind(cell).map(|()| Bind::Done);
        self.after(done);
    }

    pub(super) fn reset(&mut self, what: Reset) {
        let done = self.draft.reset(what).map(|()| Bind::Done);
        self.after(done);
    }

    pub(super) fn reset_focused(&mut self) {
        match self.focus {
            Spot::Cell(cell) => self.reset(Reset::Cell(cell)),
            spot if spot.number_is_on().is_some() => self.reset_setting(spot),
            _ => {}
        }
    }
}
