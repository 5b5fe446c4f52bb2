//! Rhythms at which a seat is read beside the picture's: a fixed step's, a network tick's.

use std::time::Duration;

use super::log::Log;
use super::query::Place;
use super::state::State;
use super::{Cause, Happened, Moved, Outcome, Seat};
use crate::input::Time;
use crate::rig::Wiring;
use crate::sheet::{ActionRef, Arm, RowRef, Stamp};

/// One rhythm at which a seat is read, such as a fixed step's. Each sees every edge exactly once,
/// however many there are and however long it stands still.
///
/// A pace belongs to one seat: a game that puts an older state of a seat back puts the older pace back
/// with it.
///
/// # Example: a fixed step and a picture
/// ```
/// use swap_knot::input::Simulated;
/// use swap_knot::play::Pace;
/// use swap_knot::{DeviceId, Layout, Place, Profile, Rig, Seat, Sheet, Time};
///
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"KeyH\"")?;
/// let horn = sheet.find("horn").expect("declared above");
/// let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
/// let mut steps = Pace::new();
/// let mut keyboard = Simulated::new(DeviceId(0));
///
/// // The events of a picture come in, with their own times; then as many steps as fit are played.
/// keyboard.wait(std::time::Duration::from_millis(20));
/// seat.feed(&keyboard.key(Place::KeyH));
/// let mut pressed = Vec::new();
/// for step in 1..=3 {
///     seat.advance(Time::from_millis(step * 10));
///     pressed.push(steps.read(&seat).went_down(horn));
/// }
/// assert_eq!(pressed, [false, true, false]);
///
/// // The picture is read after them, and sees the press as well.
/// seat.tick(Time::from_millis(33));
/// assert!(seat.went_down(horn));
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Debug, Default)]
pub struct Pace {
    /// Of which rows the numbers are.
    of: Option<(Stamp, u32)>,
    from: Count,
    to: Count,
    /// Which press of each action and port was taken by this pace.
    taken: Vec<u32>,
    missed: u64,
}

/// Everything that a seat counts, at one moment: actions first, then ports.
#[derive(Clone, Debug, Default)]
struct Count {
    at: Time,
    rows: Vec<RowCount>,
    moved: Vec<[f64; 3]>,
    turned: Vec<[f64; 3]>,
    told: u64,
    listed: u64,
}

/// What a seat counts of an action or port.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) struct RowCount {
    pub(super) begun: u32,
    pub(super) ended: u32,
    /// Of those, how many times the player let go.
    pub(super) let_go: u32,
    pub(super) gave_up: u32,
}

impl RowCount {
    #[inline]
    pub(super) fn end(&mut self, cause: Cause) {
        self.ended = self.ended.wrapping_add(1);
        self.let_go = self.let_go.wrapping_add(u32::from(cause == Cause::LetGo));
    }
}

impl Count {
    fn copy_from(&mut self, from: &Count) {
        let Count {
            at,
            rows,
            moved,
            turned,
            told,
            listed,
        } = from;
        self.at = *at;
        self.rows.clone_from(rows);
        self.moved.clone_from(moved);
        self.turned.clone_from(turned);
        self.told = *told;
        self.listed = *listed;
    }

    fn take(&mut self, state: &State, wiring: &Wiring) {
        self.at = state.now;
        self.rows.clear();
        self.rows.extend(state.actions.iter().map(|a| a.counted));
        self.rows.extend(state.ports.iter().map(|p| p.counted));
        self.moved.clear();
        self.moved.extend(state.actions.iter().map(|a| a.moved));
        self.turned.clear();
        let rates = wiring.rates.iter();
        (self.turned).extend(rates.map(|&action| state.turned_by(wiring, action, state.now)));
        self.told = state.log.end();
        self.listed = state.listed.as_ref().map_or(0, Log::end);
    }
}

impl Pace {
    /// How many beginnings and ends can be listed one by one ([`Reading::happened`]) between two
    /// readings. Edges, counts and motion are told without a limit.
    pub const LISTED: usize = super::log::LISTED;

    /// A pace that has read nothing yet: its first reading is of everything since the seat was made.
    pub fn new() -> Pace {
        Pace::default()
    }

    /// Becomes a copy of another one, in the room that is there.
    pub(super) fn copy_from(&mut self, from: &Pace) {
        let Pace {
            of,
            from: before,
            to,
            taken,
            missed,
        } = from;
        self.of = *of;
        self.from.copy_from(before);
        self.to.copy_from(to);
        self.taken.clone_from(taken);
        self.missed = *missed;
    }

    /// Reads the seat as it is now: what was judged since this pace read it last.
    ///
    /// Over another rig, also of another sheet, it goes on: what is there by the same name has its edges
    /// told, and what is gone is told by [`Reading::happened`]. Only over more than a few such changes
    /// between two readings it begins anew.
    pub fn read<'a>(&'a mut self, seat: &'a Seat) -> Reading<'a> {
        std::mem::swap(&mut self.from, &mut self.to);
        self.to.take(&seat.state, seat.rig.wiring());
        let of = Some((seat.state.stamp, seat.state.rows));
        if self.of != of {
            let rows = self.to.rows.len();
            match self.of.is_none() {
                true => {
                    self.from = Count::default();
                    self.from.rows.resize(rows, RowCount::default());
                    self.from.moved.resize(self.to.moved.len(), [0.0; 3]);
                    self.from.turned.resize(self.to.turned.len(), [0.0; 3]);
                    self.taken = vec![0; rows];
                }
                false => self.go_on(seat),
            }
            self.of = of;
        }
        self.missed = seat.state.log.missed(self.from.told);
        Reading { seat, pace: self }
    }

    /// The seat has its rows in another order than when it was read last.
    fn go_on(&mut self, seat: &Seat) {
        let mut of = self.of;
        for change in &seat.renumbered {
            if of == Some(change.from) {
                change.carry(&mut self.from.rows, RowCount::default(), |c| &c.rows);
                change.carry(&mut self.taken, 0, |c| &c.rows);
                change.carry(&mut self.from.moved, [0.0; 3], |c| &c.actions);
                change.carry(&mut self.from.turned, [0.0; 3], |c| &c.rates);
                of = Some(change.to);
            }
        }
        if of != Some((seat.state.stamp, seat.state.rows)) {
            self.from.clone_from(&self.to);
            self.taken = self.to.rows.iter().map(|r| r.begun).collect();
        }
    }

    /// The last reading once more, for another part of the game; nothing that came since is in its
    /// edges.
    pub fn last<'a>(&'a self, seat: &'a Seat) -> Reading<'a> {
        Reading { seat, pace: self }
    }

    /// How far a rate has come since the reading before, in seconds at full tilt.
    pub(super) fn turned(&self, rate: usize) -> [f64; 3] {
        let at = |count: &Count| count.turned.get(rate).copied().unwrap_or_default();
        let (from, to) = (at(&self.from), at(&self.to));
        [0, 1, 2].map(|axis| to[axis] - from[axis])
    }

    /// How much time the last reading is about.
    pub(super) fn took(&self) -> Duration {
        self.to.at.since(self.from.at)
    }

    /// Whether a row went on within the last so long, as of the last reading, and was not taken by
    /// this pace yet; it is taken by asking. So a press that came just too early still counts, and
    /// counts once: a jump that was pressed a moment before the ground was reached.
    pub fn take_press(&mut self, seat: &Seat, row: impl Into<RowRef>, within: Duration) -> bool {
        let row = row.into();
        let Some(index) = seat.row_index(row) else {
            return false;
        };
        let begun = self.to.rows.get(index).map_or(0, |c| c.begun);
        let since = seat.last_begin(row);
        let in_time = since.is_some_and(|since| self.to.at.since(since) <= within);
        match self.taken.get_mut(index) {
            Some(taken) if *taken != begun && in_time => {
                *taken = begun;
                true
            }
            _ => false,
        }
    }
}

impl Seat {
    /// Where a row stands among actions and then ports.
    fn row_index(&self, row: RowRef) -> Option<usize> {
        match self.place(row) {
            Place::Action(i) => Some(i),
            Place::Port(i) => Some(self.state.actions.len() + i),
            Place::Nowhere => None,
        }
    }
}

/// A seat as one pace reads it; see [`Pace::read`].
#[derive(Clone, Copy, Debug)]
pub struct Reading<'a> {
    seat: &'a Seat,
    pace: &'a Pace,
}

impl<'a> Reading<'a> {
    /// The seat, for what is the same at every pace: values, prompts, devices.
    pub fn seat(&self) -> &'a Seat {
        self.seat
    }

    pub(super) fn pace(&self) -> &'a Pace {
        self.pace
    }

    /// Every single movement of the mouse and the wheel since the last reading, with its own time, in
    /// order; the newest [`Pace::LISTED`] of them. Nothing unless the seat lists them, see
    /// [`Seat::list_motion`].
    pub fn moved(&self) -> impl Iterator<Item = &'a Moved> + use<'a> {
        let (from, to) = (self.pace.from.listed, self.pace.to.listed);
        let log = self.seat.state.listed.as_ref();
        let missed = log.map_or(0, |log| log.missed_of(from, to));
        let count = usize::try_from(to.saturating_sub(from).saturating_sub(missed));
        let listed = log.into_iter().flat_map(move |log| log.since(from));
        listed.take(count.unwrap_or(usize::MAX))
    }

    /// Counts of a row before and after what this reading is about.
    fn counts(&self, row: RowRef) -> [RowCount; 2] {
        let index = self.seat.row_index(row);
        let at = |count: &Count| index.and_then(|i| count.rows.get(i).copied());
        [&self.pace.from, &self.pace.to].map(|c| at(c).unwrap_or_default())
    }

    /// Whether an action, or an arm of it, is on.
    pub fn is_down(&self, row: impl Into<RowRef>) -> bool {
        self.seat.is_down(row)
    }

    /// Whether it went on since the last reading.
    pub fn went_down(&self, row: impl Into<RowRef>) -> bool {
        self.presses(row) > 0
    }

    /// Whether it went off since the last reading.
    pub fn went_up(&self, row: impl Into<RowRef>) -> bool {
        let [from, to] = self.counts(row.into());
        from.ended != to.ended
    }

    /// How many times it went on since the last reading.
    pub fn presses(&self, row: impl Into<RowRef>) -> u32 {
        let [from, to] = self.counts(row.into());
        let presses = to.begun.wrapping_sub(from.begun);
        // Fewer than before: an older state of the seat was put back, and not of the pace.
        if presses > u32::MAX / 2 { 0 } else { presses }
    }

    /// Whether it went off since the last reading because the player let go, and not for another
    /// [`Cause`]; of several ends one is enough.
    pub fn was_let_go(&self, row: impl Into<RowRef>) -> bool {
        let [from, to] = self.counts(row.into());
        from.let_go != to.let_go
    }

    /// Whether a hold, tap or double tap of it was begun and came to nothing since the last reading.
    pub fn gave_up(&self, row: impl Into<RowRef>) -> bool {
        let [from, to] = self.counts(row.into());
        from.gave_up != to.gave_up
    }

    /// Why an attempt at it came to nothing since the last reading, see [`Seat::why_gave_up`]; none
    /// where none did.
    pub fn why_gave_up(&self, action: impl Into<ActionRef>) -> Option<Outcome> {
        let action = action.into();
        let gave_up = self.gave_up(RowRef::new(action, None));
        gave_up.then(|| self.seat.why_gave_up(action)).flatten()
    }

    /// The value of a press, pull or line as of now; see [`Seat::value`].
    pub fn value(&self, action: impl Into<ActionRef>) -> f32 {
        self.seat.value(action)
    }

    /// The value of a plane as of now; see [`Seat::plane`].
    pub fn plane(&self, action: impl Into<ActionRef>) -> [f32; 2] {
        self.seat.plane(action)
    }

    /// The value of a space as of now; see [`Seat::space`].
    pub fn space(&self, action: impl Into<ActionRef>) -> [f32; 3] {
        self.seat.space(action)
    }

    /// The value of one arm as of now; see [`Seat::arm`].
    pub fn arm(&self, action: impl Into<ActionRef>, arm: Arm) -> f32 {
        self.seat.arm(action, arm)
    }

    /// How far the mouse or the wheel moved an action since the last reading; see [`Seat::motion`].
    pub fn motion(&self, action: impl Into<ActionRef>) -> [f32; 3] {
        let Some(index) = self.seat.row_index(RowRef::new(action.into(), None)) else {
            return [0.0; 3];
        };
        let at = |count: &Count| count.moved.get(index).copied().unwrap_or_default();
        let (from, to) = (at(&self.pace.from), at(&self.pace.to));
        [0, 1, 2].map(|axis| (to[axis] - from[axis]) as f32)
    }

    /// How many times it counts for a menu since the last reading: once when it goes on, and while it
    /// is down again after `first`, and then every so often. Arms and sticks repeat as keys do; the
    /// system's own repeat changes nothing.
    pub fn repeats(&self, row: impl Into<RowRef>, first: Duration, every: Duration) -> u32 {
        let row = row.into();
        let presses = self.presses(row);
        let Some(since) = self.seat.last_begin(row) else {
            return presses;
        };
        let until = match self.seat.is_down(row) {
            true => self.pace.to.at,
            false => self.seat.last_until(row).unwrap_or(since),
        };
        let micros = |d: Duration| u64::try_from(d.as_micros()).unwrap_or(u64::MAX).max(1);
        let (first, every) = (micros(first), micros(every));
        // The repeats of the last press that came up to a moment.
        let up_to = |to: Time| {
            let gone = u64::try_from(to.min(until).since(since).as_micros()).unwrap_or(u64::MAX);
            gone.checked_sub(first).map_or(0, |over| 1 + over / every)
        };
        let before = match presses {
            0 => up_to(self.pace.from.at),
            _ => 0,
        };
        let repeats = up_to(self.pace.to.at).saturating_sub(before);
        presses.saturating_add(u32::try_from(repeats).unwrap_or(u32::MAX))
    }

    /// What happened since the last reading, in order; the newest [`Pace::LISTED`] of it, if there is
    /// more ([`Reading::missed`]).
    pub fn happened(&self) -> impl Iterator<Item = &'a Happened> + use<'a> {
        let seat = self.seat;
        let count = self.pace.to.told - self.pace.from.told.min(self.pace.to.told);
        let listed = seat.state.log.since(self.pace.from.told);
        // What came after the reading is for the next one.
        let listed =
            listed.take(usize::try_from(count - self.pace.missed.min(count)).unwrap_or(usize::MAX));
        listed.inspect(|what| seat.asked.mark(what.action.index()))
    }

    /// How many beginnings and ends are too old to be listed by [`Reading::happened`].
    pub fn missed(&self) -> u64 {
        self.pace.missed
    }
}
