//! A recorded trace played into a seat.

use std::time::Duration;

use super::Seat;
use crate::input::{Time, Trace, TraceEntry};
use crate::sheet::SituationId;

/// A trace that speaks of a situation that the sheet does not have.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("the trace enters the situation `{0}`, which the sheet does not have")]
#[non_exhaustive]
pub struct NoSuchSituation(pub String);

impl Seat {
    /// Plays a trace, ticking at a steady pace (at least every microsecond) and handing the seat
    /// to `each` after every tick; the last tick comes after the last event.
    ///
    /// The same trace, rig and pace give the same answers, to the last bit.
    ///
    /// # Errors
    /// When the trace enters a situation that the sheet does not have; nothing is played then.
    pub fn replay(
        &mut self,
        trace: &Trace,
        every: Duration,
        mut each: impl FnMut(&Seat, Time),
    ) -> Result<(), NoSuchSituation> {
        let every = Time::from(every).as_micros().max(1);
        let mut stacks = Vec::new();
        for entry in trace.entries() {
            if let TraceEntry::Situations { names, .. } = entry {
                let find = |name: &String| {
                    let id = self.rig().sheet().find_situation(name);
                    id.ok_or_else(|| NoSuchSituation(name.clone()))
                };
                stacks.push(
                    names
                        .iter()
                        .map(find)
                        .collect::<Result<Vec<SituationId>, _>>()?,
                );
            }
        }
        let mut stacks = stacks.into_iter();
        let Some(first) = trace.entries().first() else {
            return Ok(());
        };
        let mut next_tick = first.at().as_micros() / every * every + every;
        for entry in trace.entries() {
            while entry.at().as_micros() >= next_tick {
                let now = Time::from_micros(next_tick);
                self.tick(now);
                each(self, now);
                next_tick = next_tick.saturating_add(every);
            }
            match entry {
                TraceEntry::Event(event) => self.feed(event),
                TraceEntry::Situations { at, .. } => {
                    self.state.advance(self.rig.wiring(), *at);
                    if let Some(stack) = stacks.next() {
                        self.set_situations(&stack);
                    }
                }
            }
        }
        let now = Time::from_micros(next_tick);
        self.tick(now);
        each(self, now);
        Ok(())
    }
}
