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

/// After this long without an event no hold, tap or ramp goes on: each takes 10 seconds at most.
const SETTLED: Duration = Duration::from_secs(30);

impl Seat {
    /// Plays a trace, ticking at a steady pace (at least every microsecond) and handing the seat
    /// to `each` after every tick; the last tick comes after the last event.
    ///
    /// The same trace, rig and pace give the same answers, to the last bit. Its clock is that of the
    /// trace, also in a seat that has played before. Where more than half a minute lies between two
    /// entries, so that everything has settled, the ticks up to the second one are left out.
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
        // Whatever the seat played before, and was fed, the trace's own clock counts from here on.
        self.judge_fed();
        self.state.set_clock(self.rig.wiring(), first.at());
        let mut next_tick = after(first.at(), every);
        let mut last = first.at();
        for entry in trace.entries() {
            while let Some(now) = next_tick.filter(|t| *t <= entry.at()) {
                self.tick(now);
                each(self, now);
                let idle = now.since(last) >= SETTLED;
                next_tick = match idle {
                    false => now.as_micros().checked_add(every).map(Time::from_micros),
                    // Nothing goes on any more: on to the next entry.
                    true => after(entry.at(), every),
                };
            }
            last = entry.at();
            match entry {
                TraceEntry::Event(event) => self.feed(event),
                TraceEntry::Situations { at, .. } => {
                    self.advance(*at);
                    if let Some(stack) = stacks.next() {
                        self.set_situations(&stack);
                    }
                }
            }
        }
        // A tick that would lie beyond the end of time comes at its end.
        let now = next_tick.unwrap_or(Time::from_micros(u64::MAX));
        self.tick(now);
        each(self, now);
        Ok(())
    }
}

/// The first tick after a moment; none beyond the end of time.
fn after(at: Time, every: u64) -> Option<Time> {
    let before = at.as_micros() / every * every;
    before.checked_add(every).map(Time::from_micros)
}
