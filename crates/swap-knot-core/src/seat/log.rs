//! What happened one by one, in the order in which it came: that of the frame, and the newest for
//! paces that list it.

/// How many are kept for paces.
pub(super) const LISTED: usize = 1024;
/// How many are kept for a tick that does not come, in a game that only advances.
const UNTOLD: usize = 16 * LISTED;

/// What happened, numbered from the first on; the oldest are dropped, now and then.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Log<T> {
    entries: Vec<T>,
    /// How many were dropped before them.
    dropped: u64,
    /// Where in the entries the frame begins that the answers speak of, and where it ends.
    frame: (usize, usize),
}

impl<T> Default for Log<T> {
    /// Without any room yet.
    fn default() -> Self {
        Log {
            entries: Vec::new(),
            dropped: 0,
            frame: (0, 0),
        }
    }
}

impl<T: Clone> Log<T> {
    /// Becomes a copy of what another one tells of its frame and since, the newest of it, in the room
    /// that is there.
    pub(super) fn copy_frame(&mut self, from: &Log<T>) {
        let (entries, in_frame, before) = from.parts();
        self.entries.clear();
        self.entries.reserve(LISTED);
        self.entries.extend_from_slice(entries);
        self.dropped = before;
        self.frame = (0, in_frame);
    }
}

impl<T> Log<T> {
    pub(super) fn new() -> Log<T> {
        Log {
            entries: Vec::with_capacity(4 * LISTED),
            ..Log::default()
        }
    }

    #[inline]
    pub(super) fn push(&mut self, what: T) {
        self.entries.push(what);
    }

    /// Closes a frame: it is from here on what the answers speak of.
    #[inline]
    pub(super) fn close_frame(&mut self) {
        self.frame = (self.frame.1, self.entries.len());
        if self.frame.0 > 3 * LISTED {
            self.drop_oldest(self.frame.0 - LISTED);
        }
    }

    /// Keeps a game that never ticks from remembering everything.
    #[inline]
    pub(super) fn bound(&mut self) {
        if self.entries.len() > 2 * UNTOLD {
            self.drop_oldest(self.entries.len() - UNTOLD);
        }
    }

    fn drop_oldest(&mut self, count: usize) {
        self.entries.drain(..count);
        self.dropped += count as u64;
        let (from, to) = self.frame;
        self.frame = (from.saturating_sub(count), to.saturating_sub(count));
    }

    /// What happened in the frame.
    pub(super) fn frame(&self) -> &[T] {
        self.entries.get(self.frame.0..self.frame.1).unwrap_or(&[])
    }

    /// Everything from the frame on or the newest of it, how much of it the frame is, and how much came before.
    pub(super) fn parts(&self) -> (&[T], usize, u64) {
        let (begin, end) = self.frame;
        let begin = begin.max(self.entries.len().saturating_sub(LISTED));
        let entries = self.entries.get(begin..).unwrap_or(&[]);
        let in_frame = end.saturating_sub(begin);
        (entries, in_frame, self.dropped + begin as u64)
    }

    /// The opposite of [`Log::parts`].
    pub(super) fn set(&mut self, entries: impl Iterator<Item = T>, frame: usize, before: u64) {
        self.entries.clear();
        self.entries.extend(entries);
        self.frame = (0, frame.min(self.entries.len()));
        self.dropped = before;
    }

    /// How many there were in all.
    pub(super) fn end(&self) -> u64 {
        self.dropped + self.entries.len() as u64
    }

    /// How many from a number on are too old to be listed.
    pub(super) fn missed(&self, from: u64) -> u64 {
        let oldest = self.end().saturating_sub(LISTED as u64);
        oldest.max(self.dropped).saturating_sub(from)
    }

    /// How many of those between two numbers are too old to be listed.
    pub(super) fn missed_of(&self, from: u64, to: u64) -> u64 {
        self.missed(from).min(to.saturating_sub(from))
    }

    /// Those from a number on that can be listed, the oldest first.
    pub(super) fn since(&self, from: u64) -> impl Iterator<Item = &T> {
        let oldest = self.end().saturating_sub(LISTED as u64);
        let skip = from.max(oldest).saturating_sub(self.dropped);
        let skip = usize::try_from(skip).unwrap_or(usize::MAX);
        self.entries.iter().skip(skip)
    }

    /// Has everything told in the names of another sheet.
    pub(super) fn rename(&mut self, told: impl FnMut(&mut T)) {
        self.entries.iter_mut().for_each(told);
    }
}
