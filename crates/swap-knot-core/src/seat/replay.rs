//! A recorded trace played into a seat.

use std::time::Duration;

use super::Seat;
use super::trace::{Trace, TraceEntry};
use crate::input::Time;
use crate::layout::{Layout, Resolver};
use crate::profile::Profile;
use crate::rig::Rig;
use crate::sheet::SituationId;

/// Why a trace cannot be replayed on a sheet.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum ReplayError {
    /// It speaks of a situation that the sheet does not have.
    #[error("the trace enters the situation `{0}`, which the sheet does not have")]
    NoSuchSituation(String),
    /// It was played on a layout that is not shipped.
    #[error(
        "the trace was played on the layout `{0}`, which is not among those that are shipped; name another one behind `rig` in it"
    )]
    NoSuchLayout(String),
    /// The profile in it is none.
    #[error("the profile in the trace cannot be read: {0}")]
    NoProfile(String),
}

/// A line of a trace with what its names stand for.
enum Ready<'t> {
    Plain(&'t TraceEntry),
    Stack(Vec<SituationId>),
    Rig(Rig),
}

/// After this long without an event no hold, tap or ramp goes on: each takes 10 seconds at most.
const SETTLED: Duration = Duration::from_secs(30);

impl Seat {
    /// Plays a trace and hands the seat to `each` after every tick; the last tick comes after the
    /// last event.
    ///
    /// A trace that tells its ticks ([`Trace::is_exact`]) is played exactly as it was recorded;
    /// another one is ticked at a steady pace, at least every microsecond. The same trace, rig and
    /// pace give the same answers, to the last bit. Its clock is that of the trace, also in a seat
    /// that has played before. At a steady pace, where more than half a minute lies between two
    /// entries, so that everything has settled, the ticks up to the second one are left out.
    ///
    /// # Errors
    /// When the trace speaks of a situation that the sheet does not have, or of a layout or profile
    /// that cannot be had; nothing is played then.
    pub fn replay(
        &mut self,
        trace: &Trace,
        every: Duration,
        mut each: impl FnMut(&Seat, Time),
    ) -> Result<(), ReplayError> {
        let entries: Vec<Ready<'_>> = (trace.entries().iter())
            .map(|entry| self.ready(entry))
            .collect::<Result<_, _>>()?;
        let Some(first) = trace.entries().first() else {
            return Ok(());
        };
        let entries = trace.entries().iter().map(TraceEntry::at).zip(entries);
        // Whatever the seat played before, and was fed, the trace's own clock counts from here on.
        self.judge_fed();
        self.state.set_clock(self.rig.wiring(), first.at());
        if trace.is_exact() {
            for (at, entry) in entries {
                let ticks = matches!(entry, Ready::Plain(TraceEntry::Tick { .. }));
                self.play(entry);
                if ticks {
                    each(self, at);
                }
            }
            return Ok(());
        }
        let every = Time::from(every).as_micros().max(1);
        let mut next_tick = after(first.at(), every);
        let mut last = first.at();
        for (at, entry) in entries {
            while let Some(now) = next_tick.filter(|t| *t <= at) {
                self.tick(now);
                each(self, now);
                let idle = now.since(last) >= SETTLED;
                next_tick = match idle {
                    false => now.as_micros().checked_add(every).map(Time::from_micros),
                    // Nothing goes on any more: on to the next entry.
                    true => after(at, every),
                };
            }
            last = at;
            if !matches!(entry, Ready::Plain(_)) {
                self.advance(at);
            }
            self.play(entry);
        }
        // A tick that would lie beyond the end of time comes at its end.
        let now = next_tick.unwrap_or(Time::from_micros(u64::MAX));
        self.tick(now);
        each(self, now);
        Ok(())
    }

    /// What the names of a line stand for here.
    fn ready<'t>(&self, entry: &'t TraceEntry) -> Result<Ready<'t>, ReplayError> {
        let sheet = self.rig().sheet();
        match entry {
            TraceEntry::Situations { names, .. } => {
                let find = |name: &String| {
                    let id = sheet.find_situation(name);
                    id.ok_or_else(|| ReplayError::NoSuchSituation(name.clone()))
                };
                names
                    .iter()
                    .map(find)
                    .collect::<Result<_, _>>()
                    .map(Ready::Stack)
            }
            TraceEntry::Rig {
                layout,
                platform,
                profile,
                ..
            } => {
                let layout = Layout::shipped(layout)
                    .ok_or_else(|| ReplayError::NoSuchLayout(layout.clone()))?;
                let profile = Profile::from_toml(profile)
                    .map_err(|e| ReplayError::NoProfile(e.to_string()))?;
                let on = Resolver::new(&layout, *platform);
                Ok(Ready::Rig(Rig::new(sheet, &profile, on)))
            }
            plain => Ok(Ready::Plain(plain)),
        }
    }

    fn play(&mut self, entry: Ready<'_>) {
        match entry {
            Ready::Plain(TraceEntry::Event(event)) => self.feed(event),
            Ready::Plain(TraceEntry::Overheard(event)) => self.overhear(event),
            Ready::Plain(TraceEntry::Tick { at }) => self.tick(*at),
            Ready::Plain(TraceEntry::Advance { at }) => self.advance(*at),
            Ready::Plain(TraceEntry::Situations { .. } | TraceEntry::Rig { .. }) => {}
            Ready::Stack(stack) => self.set_situations(&stack),
            Ready::Rig(rig) => self.set_rig(rig),
        }
    }
}

/// The first tick after a moment; none beyond the end of time.
fn after(at: Time, every: u64) -> Option<Time> {
    let before = at.as_micros() / every * every;
    before.checked_add(every).map(Time::from_micros)
}
