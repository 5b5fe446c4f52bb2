//! Listening for a binding, and what comes of an edit: it is done, it asks, or it was refused.

use super::{Busy, ControlsScreen, Spot};
use crate::draft::{Bind, Heard, Listener, ListenerOptions, Refusal, Reset, Settle};
use crate::sheet::Cell;

impl ControlsScreen {
    pub(super) fn listen(&mut self, cell: Cell) {
        let listener = self.listener(self.draft.listens_for(cell));
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
                    let kept = self.kept_by_system(Some(&chord));
                    let bound = self.draft.bind(cell, chord);
                    let is_done = matches!(bound, Ok(Bind::Done));
                    self.after(bound);
                    if is_done {
                        self.message = kept;
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
