//! Events in, actions out.
//!
//! It answers what every action does now, and what it did since somebody last asked, for one player with
//! their devices. It relies on the rig for all that can be known beforehand, and on the book for what is
//! held; time is handed in.
//!
//! - `queue`, `feed`, `button`: events put in order, and what each of them is
//! - `judge/`: what begins and what ends, and why; `fast`: what need not be judged
//! - `work`, `values`, `shaping`, `turn`: a wire works its action, and what that comes to
//! - `situations`, `rewire`: what is live, and another rig; `driven`, `latch`: what the game works, and what
//!   a tap holds
//! - `query`, `asked`, `pace`, `log`: read by whoever asks, at their own rhythm
//! - `outcome`, `trail`, `tell`: what became of an input, kept and put in words
//! - `state`, `saved`, `packed`: what a seat remembers, put away and taken out again
//! - `trace`, `record`, `replay`: written down and played again
//! - `seats`, `owners`, `kind`: who plays with what

mod asked;
mod button;
mod driven;
mod fast;
mod feed;
mod judge;
mod kind;
mod latch;
mod log;
mod outcome;
mod owners;
mod pace;
mod packed;
mod query;
mod queue;
mod record;
mod replay;
mod rewire;
mod saved;
mod seats;
mod shaping;
mod situations;
mod state;
mod tell;
mod trace;
mod trail;
mod turn;
mod values;
mod work;

pub use kind::DeviceUse;
pub use outcome::{Outcome, Told};
pub(crate) use owners::{Owners, Sits};
pub use pace::{Pace, Reading};
pub use replay::ReplayError;
pub use saved::{RestoreError, SavedSeat};
pub use seats::{Fed, Seats};
pub(crate) use shaping::amount as shaped;
use state::State;
pub use trace::{Trace, TraceEntry, TraceError};
pub use turn::TurnUnits;

use crate::input::{DeviceKind, Time};
use crate::rig::Rig;
use crate::sheet::{ActionId, Arm};

/// One local player: their rig, their devices and the live values of their actions.
///
/// Feed it every event, tick it once a frame, then ask. A new seat is in the sheet's first
/// situation.
///
/// # Example: one frame
/// ```
/// use swap_knot::{DeviceId, Event, EventKind, Layout, Place, Profile, Rig, Seat, Sheet, Time};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.horn]
///     bind = "KeyH"
/// "#)?;
/// let horn = sheet.find("horn").expect("declared above");
/// let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
///
/// seat.feed(&Event {
///     at: Time::from_millis(3),
///     device: DeviceId(0),
///     what: EventKind::Key { place: Place::KeyH, down: true, text: None },
/// });
/// seat.tick(Time::from_millis(16));
/// assert!(seat.went_down(horn) && seat.is_down(horn));
///
/// seat.tick(Time::from_millis(33));
/// assert!(!seat.went_down(horn) && seat.is_down(horn));
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Clone, Debug)]
pub struct Seat {
    rig: Rig,
    state: State,
    queue: queue::Queue,
    asked: asked::Asked,
    recorder: Option<Box<record::Recorder>>,
    /// The last changes of the order of rows, for paces that read before them.
    renumbered: Vec<rewire::Renumbered>,
}

/// Whether an action began or ended.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Edge {
    /// It went on.
    Began,
    /// It went off, for whatever reason.
    Ended,
}

/// Why something ended.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Cause {
    /// The player let go, or flipped a toggle.
    #[default]
    LetGo,
    /// A held part of its chord was let go, or a longer chord used its input up.
    ChordBroken,
    /// The game does not hear the device any more, or a menu plays on what it tells.
    Focus,
    /// The device was unplugged, or plays for somebody else.
    Unplugged,
    /// It is bound otherwise, or worked otherwise, by another rig.
    Rig,
    /// Its situation is not live any more, or covered.
    Situation,
    /// The game spent it, see [`Seat::spend`].
    Spent,
}

/// Something that an action did, in the order in which it happened.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub struct Happened {
    /// When.
    pub at: Time,
    /// The action; of one that another sheet does not have any more the id that it had.
    pub action: ActionId,
    /// The arm, if it is an arm that began or ended rather than the whole action.
    pub arm: Option<Arm>,
    /// Began or ended; every beginning has exactly one end.
    pub edge: Edge,
    /// Why it ended; of a beginning [`Cause::LetGo`], which says nothing.
    pub cause: Cause,
}

/// One movement of a mouse or wheel that an action took.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Moved {
    /// When.
    pub at: Time,
    /// The action.
    pub action: ActionId,
    /// How far, in counts times sensitivity, or 1 a notch.
    pub by: [f32; 3],
}

impl Seat {
    /// A player who plays with that rig.
    pub fn new(rig: Rig) -> Seat {
        let mut state = State::new(rig.wiring(), rig.sheet().stamp());
        let first = rig.sheet().first_situation();
        state.stack.extend(first);
        state.log = log::Log::new();
        state.refresh_all(&rig);
        let asked = asked::Asked::new(rig.sheet().actions().len());
        let queue = queue::Queue::new();
        Seat {
            rig,
            state,
            queue,
            asked,
            recorder: None,
            renumbered: Vec::new(),
        }
    }

    /// The rig in use.
    pub fn rig(&self) -> &Rig {
        &self.rig
    }

    /// Changes the rig in the middle of play.
    ///
    /// What is bound as before plays on, without an edge; actions, arms and situations are the same
    /// by name where the sheet is another one. What is bound otherwise ends once, and what is held
    /// for it stays silent until it has been at rest. Edges and motion of this frame are still told.
    pub fn set_rig(&mut self, rig: Rig) {
        if rig != self.rig {
            if let Some(change) = self.state.rewire(&self.rig, &rig) {
                let too_many = (self.renumbered.len() + 1).saturating_sub(rewire::RENUMBERED);
                self.renumbered.drain(..too_many);
                self.renumbered.push(change);
            }
            self.queue.rename(&self.rig, &rig);
            let same = self.rig.sheet().stamp() == rig.sheet().stamp();
            if !same {
                self.asked = asked::Asked::new(rig.sheet().actions().len());
            }
            self.rig = rig;
            if let Some(recorder) = &mut self.recorder {
                recorder.rig(self.state.now, &self.rig);
            }
        }
    }

    /// What happened between the last two ticks, in order.
    pub fn happened(&self) -> &[Happened] {
        let happened = self.state.log.frame();
        #[cfg(debug_assertions)]
        for what in happened {
            self.asked.mark(what.action.index());
        }
        happened
    }

    /// Keeps every single movement of the mouse and the wheel with its own time from now on, or none
    /// any more: for games that read a mouse finer than by frames, such as drawing or recording.
    pub fn list_motion(&mut self, list: bool) {
        self.state.settle_motion(self.rig.wiring());
        match list {
            true => {
                self.state.listed.get_or_insert_with(log::Log::new);
            }
            false => self.state.listed = None,
        }
        self.state.note_quick_mouse(self.rig.wiring());
    }

    /// The movements between the last two ticks, in order; see [`Seat::list_motion`].
    pub fn moved(&self) -> &[Moved] {
        self.state.listed.as_ref().map_or(&[], log::Log::frame)
    }

    /// The device kind that the player is using, for prompts.
    pub fn device_kind(&self) -> DeviceKind {
        self.state.kind.current()
    }

    /// The device that the player last worked on purpose, and when: for rumble, and for whose marks
    /// to show. A drifting stick and a bumped mouse are nobody's purpose; none while nothing was
    /// worked, or when it was unplugged since.
    pub fn device_in_use(&self) -> Option<DeviceUse> {
        let kinds = DeviceKind::ALL.into_iter();
        kinds
            .filter_map(|kind| self.last_used(kind))
            .max_by_key(|u| u.at)
    }

    /// The same among devices of one kind: of two pads that which was pressed last, whatever else is
    /// in use.
    pub fn last_used(&self, kind: DeviceKind) -> Option<DeviceUse> {
        self.state.kind.last(kind)
    }

    /// Whether the device kind changed between the last two ticks.
    pub fn device_kind_changed(&self) -> bool {
        self.state.kind_changed
    }

    /// Holds the device kind fast, for testing; `None` follows the player again.
    pub fn force_device_kind(&mut self, kind: Option<DeviceKind>) {
        self.state.kind.force(kind);
    }
}
