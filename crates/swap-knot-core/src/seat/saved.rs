//! The state of a seat put away and taken out again: for rollback, replays that begin in the middle,
//! and comparing two machines.

use super::queue::Queue;
use super::state::State;
use super::{Pace, Seat};

/// The state of a seat at one moment, to be put back later on the same rig.
///
/// Held inputs, holds on their way, edges and motion of the frame, situations and what waits to be
/// judged are in it. Profile, layout and plugged devices are not, nor what [`Seat::list_motion`] and
/// [`Seat::keep_outcomes`] keep. Save into the same one again and again: its room is used again, and
/// nothing is allocated once it has grown. A [`Pace`] that reads the seat is kept beside it, with
/// [`Clone::clone_from`].
///
/// # Example: rollback
/// ```
/// use swap_knot::input::Simulated;
/// use swap_knot::play::SavedSeat;
/// use swap_knot::{DeviceId, Layout, Place, Profile, Rig, Seat, Sheet, Time};
///
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"KeyH\"")?;
/// let horn = sheet.find("horn").expect("declared above");
/// let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
/// let mut saved = SavedSeat::new(&seat);
///
/// seat.feed(&Simulated::new(DeviceId(0)).key(Place::KeyH));
/// seat.tick(Time::from_millis(16));
/// assert!(seat.is_down(horn));
///
/// seat.restore(&saved)?;
/// assert!(!seat.is_down(horn));
/// saved.save(&seat);
/// assert_eq!(saved, SavedSeat::new(&seat));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, PartialEq)]
pub struct SavedSeat {
    pub(super) rig: u64,
    pub(super) state: State,
    pub(super) waiting: Queue,
}

impl std::fmt::Debug for SavedSeat {
    /// Thousands of numbers say nothing to anybody.
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        let at = self.state.now;
        f.debug_struct("SavedSeat")
            .field("at", &at)
            .finish_non_exhaustive()
    }
}

/// Why a saved state cannot be put back.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum RestoreError {
    /// It was saved on another rig: another sheet, profile, layout or platform.
    #[error("the state was saved on another rig; put that rig back first, or begin anew")]
    OtherRig,
    /// The bytes were written by a version that this one does not know.
    #[error("the state was written in version {0}, and this version reads {version}", version = SavedSeat::VERSION)]
    Version(u64),
    /// The bytes end too soon, or say what cannot be.
    #[error("the state is damaged")]
    Damaged,
}

impl SavedSeat {
    /// The state of a seat as it is now.
    pub fn new(seat: &Seat) -> SavedSeat {
        let state = State::new(seat.rig.wiring(), seat.rig.sheet().stamp());
        let mut saved = SavedSeat {
            rig: 0,
            state,
            waiting: Queue::default(),
        };
        saved.save(seat);
        saved
    }

    /// Takes the state of a seat, in the room that is there.
    pub fn save(&mut self, seat: &Seat) {
        self.rig = seat.rig.fingerprint();
        self.state.copy_from(&seat.state);
        self.waiting.clone_from(&seat.queue);
    }
}

impl Seat {
    /// Puts a saved state back, to the last bit.
    ///
    /// # Errors
    /// When it was saved on another rig; nothing has changed then.
    pub fn restore(&mut self, saved: &SavedSeat) -> Result<(), RestoreError> {
        if saved.rig != self.rig.fingerprint() {
            return Err(RestoreError::OtherRig);
        }
        self.state.copy_from(&saved.state);
        self.queue.clone_from(&saved.waiting);
        self.state.note_quick_mouse(self.rig.wiring());
        if let Some(listed) = &mut self.state.listed {
            *listed = super::log::Log::new();
        }
        Ok(())
    }
}

impl State {
    /// Becomes a copy of another state of the same rig, in the room that is there. What is kept for
    /// those who asked for it, and room for work, stay.
    fn copy_from(&mut self, from: &State) {
        // Every field is named, so that none can be forgotten.
        let State {
            stamp,
            rows,
            frame,
            now,
            held,
            fresh,
            wires,
            live,
            ports,
            order,
            actions,
            turned,
            turned_in_frame,
            turned_then,
            mouse,
            quick_mouse: _,
            short_ways: _,
            ticks,
            pressed_at,
            dirty,
            drives,
            ramping,
            timers,
            next_timer,
            taken,
            owned,
            stirred,
            latches,
            feeding: _,
            log,
            listed: _,
            cause,
            stack,
            stacks,
            kind,
            kind_changed,
            scratch: _,
            ending: _,
            woken: _,
            trail: _,
        } = from;
        self.stamp = *stamp;
        self.rows = *rows;
        self.frame = *frame;
        self.now = *now;
        self.held.copy_from(held);
        self.fresh = *fresh;
        self.wires.clone_from(wires);
        self.live.clone_from(live);
        self.ports.clone_from(ports);
        self.order = *order;
        self.actions.clone_from(actions);
        self.turned.clone_from(turned);
        self.turned_in_frame.clone_from(turned_in_frame);
        self.turned_then.clone_from(turned_then);
        self.mouse = *mouse;
        self.ticks = *ticks;
        self.pressed_at.clone_from(pressed_at);
        self.dirty.clone_from(dirty);
        self.drives = *drives;
        self.ramping.clone_from(ramping);
        self.timers.clone_from(timers);
        self.next_timer = *next_timer;
        self.taken.clone_from(taken);
        self.owned.clone_from(owned);
        self.stirred = *stirred;
        self.latches.on.clone_from(&latches.on);
        self.latches.down.clone_from(&latches.down);
        self.log.copy_frame(log);
        self.cause = *cause;
        self.stack.clone_from(stack);
        self.stacks.open = stacks.open;
        self.stacks.seen.clone_from(&stacks.seen);
        self.kind.clone_from(kind);
        self.kind_changed = *kind_changed;
    }
}

impl PartialEq for State {
    /// By what is answered and what comes of what is fed next; not by what is kept for those who asked for
    /// it, nor by room for work.
    fn eq(&self, other: &State) -> bool {
        let State {
            stamp,
            rows,
            frame,
            now,
            held,
            fresh,
            wires,
            live,
            ports,
            order,
            actions,
            turned,
            turned_in_frame,
            turned_then,
            mouse,
            quick_mouse: _,
            short_ways: _,
            ticks,
            pressed_at,
            dirty,
            drives,
            ramping,
            timers,
            next_timer,
            taken,
            owned,
            stirred,
            latches,
            feeding: _,
            log,
            listed: _,
            cause,
            stack,
            stacks,
            kind,
            kind_changed,
            scratch: _,
            ending: _,
            woken: _,
            trail: _,
        } = self;
        (stamp, rows, frame, now) == (&other.stamp, &other.rows, &other.frame, &other.now)
            && (held, fresh, wires, live) == (&other.held, &other.fresh, &other.wires, &other.live)
            && (ports, order, actions) == (&other.ports, &other.order, &other.actions)
            && (turned, turned_in_frame) == (&other.turned, &other.turned_in_frame)
            && (turned_then, mouse, ticks) == (&other.turned_then, &other.mouse, &other.ticks)
            && (pressed_at, dirty, drives) == (&other.pressed_at, &other.dirty, &other.drives)
            && (ramping, timers) == (&other.ramping, &other.timers)
            && (next_timer, taken, owned) == (&other.next_timer, &other.taken, &other.owned)
            && (stirred, latches, log) == (&other.stirred, &other.latches, &other.log)
            && (cause, stack, stacks) == (&other.cause, &other.stack, &other.stacks)
            && (kind, kind_changed) == (&other.kind, &other.kind_changed)
    }
}

impl Clone for Pace {
    fn clone(&self) -> Pace {
        let mut copy = Pace::new();
        copy.clone_from(self);
        copy
    }

    /// In the room that is there.
    fn clone_from(&mut self, from: &Pace) {
        self.copy_from(from);
    }
}
