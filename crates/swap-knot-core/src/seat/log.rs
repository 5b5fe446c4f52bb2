//! The newest beginnings and ends, for paces that list them.

use std::collections::VecDeque;

use super::Happened;

/// How many are kept.
pub(super) const LISTED: usize = 1024;

/// What happened, numbered from the first on; the oldest are dropped.
#[derive(Clone, Debug, Default)]
pub(super) struct Log {
    newest: VecDeque<Happened>,
    /// How many there were in all.
    end: u64,
}

impl Log {
    pub(super) fn new() -> Log {
        Log {
            newest: VecDeque::with_capacity(LISTED),
            end: 0,
        }
    }

    #[inline]
    pub(super) fn push(&mut self, what: Happened) {
        if self.newest.len() == LISTED {
            self.newest.pop_front();
        }
        self.newest.push_back(what);
        self.end += 1;
    }

    pub(super) fn end(&self) -> u64 {
        self.end
    }

    fn oldest(&self) -> u64 {
        self.end - self.newest.len() as u64
    }

    /// How many from a number on are not kept any more.
    pub(super) fn missed(&self, from: u64) -> u64 {
        self.oldest().saturating_sub(from)
    }

    /// Those from a number on, the oldest first.
    pub(super) fn since(&self, from: u64) -> impl Iterator<Item = &Happened> {
        let skip = from.saturating_sub(self.oldest());
        self.newest
            .iter()
            .skip(usize::try_from(skip).unwrap_or(usize::MAX))
    }

    /// Has everything told in the names of another sheet; what is gone there is dropped.
    pub(super) fn rename(&mut self, told: impl Fn(&Happened) -> Option<Happened>) {
        let renamed = self.newest.iter().filter_map(told).collect();
        self.newest = renamed;
    }
}
