//! Settling: the four ways out of a conflict, each with what it would change.

use super::{Change, Draft, Refusal, differences};
use crate::conflict::{Conflict, conflicts_of};
use crate::input::Chord;
use crate::law::{Bound, Origin, Unlawful, Upheld, force, uphold};
use crate::profile::Profile;
use crate::sheet::{Cell, Parameters, Scope, Sheet};
use crate::text::spelled;

spelled! {
    /// A way out of a conflict.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[non_exhaustive]
    pub enum Settle {
        /// The other action gets what this one had.
        Swap = "swap",
        /// The other action loses it.
        Take = "take",
        /// Both keep it.
        Share = "share",
        /// Nothing changes.
        BackOut = "back-out",
    }
}

/// What became of binding a chord.
#[derive(Clone, Debug)]
#[must_use = "a question wants an answer"]
pub enum Bind {
    /// It is bound (or, after backing out, nothing changed).
    Done,
    /// It is not bound yet: a conflict has to be settled first.
    Asks(Box<Question>),
}

/// A conflict that a candidate would make, and the ways out of it.
///
/// One question at a time: where a candidate meets several bindings, answering one brings up the
/// next. Nothing changes until the last one is answered.
#[derive(Clone, Debug)]
pub struct Question {
    cell: Cell,
    chord: Chord,
    /// The profile with what was settled so far.
    work: Profile,
    /// Bindings that keep their chord beside the candidate.
    shared: Vec<Cell>,
    /// Whether the candidate's old chord went to another action already.
    swapped: bool,
    /// Where it is about easing: for what, and the further bindings that are worked otherwise by it.
    easing: Option<Eases>,
    /// The draft that it was worked out for.
    revision: u64,
    conflict: Option<Conflict>,
    ways: Vec<Way>,
}

/// What a cell would have.
pub type Effect = Change;

/// A way out of a conflict, with its consequences worked out.
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct Way {
    /// Which.
    pub settle: Settle,
    /// Every cell that would change, the candidate's included.
    pub effects: Vec<Effect>,
    /// Conflicts that it would make besides.
    pub conflicts: Vec<Conflict>,
    /// Why it is not offered, if it is not.
    pub refused: Option<Refusal>,
}

/// Settings on their way through conflicts.
#[derive(Clone, Debug)]
struct Eases {
    scope: Scope,
    to: Parameters,
    then: Vec<(Cell, Chord)>,
    /// What met before: nobody asks about that again.
    known: Vec<(Cell, Cell)>,
}

impl Question {
    /// About settings by which some bindings are worked otherwise.
    pub(super) fn worked_otherwise(
        (scope, to): (&Scope, &Parameters),
        mut bindings: Vec<(Cell, Chord)>,
        known: Vec<(Cell, Cell)>,
        work: Profile,
        revision: u64,
    ) -> Option<Box<Question>> {
        let (cell, chord) = bindings.pop()?;
        let mut question = Question::start(cell, chord, work, revision);
        // There is nothing old that another action could get for it.
        question.swapped = true;
        question.easing = Some(Eases {
            scope: scope.clone(),
            to: to.clone(),
            then: bindings,
            known,
        });
        Some(question)
    }

    pub(super) fn start(cell: Cell, chord: Chord, work: Profile, revision: u64) -> Box<Question> {
        Box::new(Question {
            cell,
            chord,
            work,
            shared: Vec::new(),
            swapped: false,
            easing: None,
            revision,
            conflict: None,
            ways: Vec::new(),
        })
    }

    /// The cell that the candidate is for.
    pub fn cell(&self) -> Cell {
        self.cell
    }

    /// The candidate.
    pub fn chord(&self) -> &Chord {
        &self.chord
    }

    /// The conflict that is asked about: the candidate first, what it meets second.
    pub fn conflict(&self) -> Option<&Conflict> {
        self.conflict.as_ref()
    }

    /// Every way out, offered or not, in the order of [`Settle::ALL`].
    pub fn ways(&self) -> &[Way] {
        &self.ways
    }

    /// One way out.
    pub fn way(&self, settle: Settle) -> Option<&Way> {
        self.ways.iter().find(|w| w.settle == settle)
    }

    /// The conflict in words.
    pub fn describe(&self, sheet: &Sheet) -> String {
        let conflict = self.conflict.as_ref();
        conflict.map_or_else(String::new, |c| c.describe(sheet))
    }
}

impl Draft {
    /// Settles the conflict that a question asks about; brings up the next one if there is one.
    ///
    /// Where the draft was changed after the question was asked, the answer is not laid over that:
    /// the candidate is worked out anew, and asked about again if it still meets something.
    ///
    /// # Errors
    /// When that way is not offered; the draft is as before.
    pub fn answer(&mut self, question: Box<Question>, settle: Settle) -> Result<Bind, Refusal> {
        if settle == Settle::BackOut {
            return Ok(Bind::Done);
        }
        if question.revision != self.revision {
            return match question.easing {
                Some(Eases { scope, to, .. }) => self.set_parameters(&scope, &to),
                None => self.bind(question.cell, question.chord),
            };
        }
        let way = question.way(settle);
        if let Some(refusal) = way.and_then(|w| w.refused.clone()) {
            return Err(refusal);
        }
        match self.settled(&question, settle) {
            Ok(next) => self.ask_or_do(next),
            Err(refusal) => Err(refusal),
        }
    }

    /// Asks about the next conflict of a candidate, or binds it when there is none left.
    pub(super) fn ask_or_do(&mut self, mut question: Box<Question>) -> Result<Bind, Refusal> {
        match self.next_conflict(&question) {
            None => {
                let mut work = question.work;
                if let Some(easing) = &mut question.easing {
                    if let Some((cell, chord)) = easing.then.pop() {
                        (question.cell, question.chord, question.work) = (cell, chord, work);
                        return self.ask_or_do(question);
                    }
                } else {
                    work.set(&self.sheet, question.cell, Some(question.chord));
                }
                self.commit(work)?;
                Ok(Bind::Done)
            }
            Some(conflict) => {
                question.conflict = Some(conflict);
                question.ways = Settle::ALL
                    .map(|settle| self.way(&question, settle))
                    .to_vec();
                Ok(Bind::Asks(question))
            }
        }
    }

    /// The first conflict of the candidate that is not settled yet.
    fn next_conflict(&self, question: &Question) -> Option<Conflict> {
        let upheld = uphold(&self.sheet, &question.work, &self.on);
        self.meets(question, &upheld).into_iter().next()
    }

    fn meets(&self, question: &Question, upheld: &Upheld) -> Vec<Conflict> {
        let (cell, chord) = (question.cell, question.chord.clone());
        let action = Some(self.sheet.declared(cell.row.action));
        let easing = force::easing(&self.sheet, &upheld.lawful, action);
        let candidate = Bound::new(&self.sheet, &easing, cell, chord, Origin::Profile);
        let all = conflicts_of(&self.sheet, &candidate, &upheld.bindings, &self.on);
        let known = |c: &Conflict| {
            let easing = question.easing.as_ref();
            easing.is_some_and(|e| e.known.contains(&(cell, c.second.cell)))
        };
        all.into_iter()
            .filter(|c| c.class.is_conflict() && !known(c))
            .filter(|c| !question.shared.contains(&c.second.cell))
            .collect()
    }

    /// The question after this conflict is settled that way, or why it cannot be.
    fn settled(&self, question: &Question, settle: Settle) -> Result<Box<Question>, Refusal> {
        let mut next = Box::new(question.clone());
        let Some(conflict) = next.conflict.take() else {
            return Ok(next);
        };
        let other = conflict.second.cell;
        match settle {
            Settle::Take => {
                self.check(other, None)?;
                next.work.set(&self.sheet, other, None);
                // Where the law gives it back, nothing was taken.
                let upheld = uphold(&self.sheet, &next.work, &self.on);
                if upheld.bindings.iter().any(|b| b.cell == other) {
                    let (row, kind) = (self.sheet.titled(other.row), other.column.kind());
                    return Err(Unlawful::Essential { row, kind }.into());
                }
            }
            Settle::Swap => {
                let old = self.chord_in(question.cell).cloned();
                let Some(old) = old.filter(|_| !next.swapped) else {
                    let row = self.sheet.titled(question.cell.row);
                    return Err(Refusal::NothingToGive(row));
                };
                self.check(other, Some(&old))?;
                next.swapped = true;
                next.work.set(&self.sheet, other, Some(old));
            }
            Settle::Share => {
                if !self
                    .sheet
                    .may_share(question.cell.row.action, other.row.action)
                {
                    let titled = |row| self.sheet.titled(row);
                    return Err(Refusal::MayNotShare(
                        titled(question.cell.row),
                        titled(other.row),
                    ));
                }
                next.shared.push(other);
            }
            Settle::BackOut => {}
        }
        Ok(next)
    }

    /// Works a way out to its end.
    fn way(&self, question: &Question, settle: Settle) -> Way {
        let mut way = Way {
            settle,
            effects: Vec::new(),
            conflicts: Vec::new(),
            refused: None,
        };
        if settle == Settle::BackOut {
            return way;
        }
        let next = match self.settled(question, settle) {
            Ok(next) => next,
            Err(refusal) => {
                way.refused = Some(refusal);
                return way;
            }
        };
        let mut work = next.work.clone();
        if question.easing.is_none() {
            work.set(&self.sheet, question.cell, Some(question.chord.clone()));
        }
        let upheld = uphold(&self.sheet, &work, &self.on);
        way.refused = self.objection(&upheld).map(Refusal::from);
        let after = &upheld.bindings;
        way.effects = differences(self.bindings(), after);
        way.conflicts = self.meets(&next, &upheld);
        // What the other action got in exchange may meet something there.
        for effect in &way.effects {
            if let Some(moved) = after
                .iter()
                .find(|b| b.cell == effect.cell && b.cell != question.cell)
            {
                let met = conflicts_of(&self.sheet, moved, after, &self.on);
                let open = met.into_iter().filter(|c| {
                    let (a, b) = (c.first.cell.row.action, c.second.cell.row.action);
                    c.class.is_conflict() && !self.sheet.may_share(a, b)
                });
                way.conflicts.extend(open);
            }
        }
        way
    }
}
