//! What a seat is fed, recorded so that it can be played again.

use super::Seat;
use super::trace::Trace;
use crate::input::{DeviceId, Event, EventKind, Place, Time, writes_text};
use crate::rig::Rig;
use crate::sheet::{Sheet, SituationId};

/// The most entries of a recording: about a quarter of an hour of a fast mouse.
const MOST: usize = 1 << 20;

/// A recording under way.
#[derive(Clone, Debug)]
pub(super) struct Recorder {
    trace: Trace,
    /// Presses of keys that are down and were left out: so are their repeats and releases. With whether a
    /// menu has it.
    private: Vec<(Event, Place, bool)>,
}

/// How an event is fed: what is typed is nobody's business.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(super) enum Fed {
    /// It is played.
    Played,
    /// It is played where text is typed.
    Typing,
    /// A menu or a text field of the game's own has it.
    Overheard,
}

impl Recorder {
    fn is_full(&self) -> bool {
        self.trace.entries().len() >= MOST
    }

    pub(super) fn event(&mut self, event: &Event, how: Fed) {
        let mut event = *event;
        if event.what == EventKind::Unplugged {
            // Nothing of it is down any more.
            let stays = |k: &(Event, Place, bool)| {
                event.device != DeviceId::ALL && k.0.device != event.device
            };
            self.private.retain(stays);
        }
        if let EventKind::Key { place, down, text } = &mut event.what {
            *text = None;
            let place = *place;
            let is_it = |k: &(Event, Place, bool)| (k.0.device, k.1) == (event.device, place);
            let was_private = self.private.iter().any(is_it);
            let is_typed = match how {
                Fed::Played => false,
                Fed::Typing => writes_text(place),
                Fed::Overheard => true,
            };
            let down = *down;
            if !down {
                self.private.retain(|k| !is_it(k));
            }
            if down && is_typed && !was_private {
                self.private.push((event, place, how == Fed::Overheard));
            }
            if was_private || (down && is_typed) {
                return;
            }
        }
        let is_typing = matches!(event.what, EventKind::KeyTypes { .. }) && how != Fed::Played;
        if is_typing || self.is_full() {
            return;
        }
        match how {
            Fed::Overheard => self.trace.record_overheard(&event),
            Fed::Played | Fed::Typing => self.trace.record(&event),
        }
    }

    pub(super) fn tick(&mut self, at: Time) {
        if !self.is_full() {
            self.trace.record_tick(at);
        }
    }

    pub(super) fn advance(&mut self, at: Time) {
        if !self.is_full() {
            self.trace.record_advance(at);
        }
    }

    pub(super) fn situations(&mut self, at: Time, sheet: &Sheet, stack: &[SituationId]) {
        if !stack.iter().any(|s| sheet.declared_situation(*s).typing) {
            // What is held still is played from here on, and was pressed before.
            let played = self.private.extract_if(.., |(_, _, overheard)| !*overheard);
            let played: Vec<Event> = played.map(|(event, ..)| event).collect();
            for event in &played {
                self.trace.record(event);
            }
            if !played.is_empty() {
                self.trace.record_advance(at);
            }
        }
        let name = |id: &SituationId| sheet.declared_situation(*id).name.clone();
        self.trace.record_situations(at, stack.iter().map(name));
    }

    pub(super) fn rig(&mut self, at: Time, rig: &Rig) {
        let mut profile = rig.profile().clone();
        // What the player calls it says who they are.
        profile.set_title("");
        self.trace.record_rig(at, &profile, rig.resolver());
    }
}

impl Seat {
    /// Records from now on whatever the seat is fed, with rig, situations, ticks and advances: a
    /// [`Trace`] that [`Seat::replay`] plays again as it was, for a bug report or a test.
    ///
    /// What a player types is left out: what keys type, keys that write where a situation is for typing,
    /// and keys that a menu has. So is what the game itself drives and spends; and what is held already
    /// counts from its next press. After about a million entries it is full, see
    /// [`Seat::is_recording_full`]. Nothing is paid while nothing is recorded.
    ///
    /// ```
    /// use swap_knot::input::Simulated;
    /// use swap_knot::{DeviceId, Layout, Place, Profile, Rig, Seat, Sheet, Time};
    /// use std::time::Duration;
    ///
    /// let sheet = Sheet::from_toml("game = \"x\"\n[actions.horn]\nbind = \"KeyH\"")?;
    /// let rig = Rig::new(&sheet, &Profile::default(), Layout::us());
    /// let mut seat = Seat::new(rig.clone());
    /// seat.start_recording();
    /// seat.feed(&Simulated::new(DeviceId(0)).key(Place::KeyH));
    /// seat.tick(Time::from_millis(16));
    /// let trace = seat.stop_recording().expect("it was recorded");
    ///
    /// let mut again = Seat::new(rig);
    /// again.replay(&trace, Duration::from_millis(16), |seat, _| {
    ///     assert_eq!(seat.happened().len(), 1);
    /// })?;
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn start_recording(&mut self) {
        let (at, trace) = (self.state.now, Trace::new());
        let private = Vec::new();
        let mut recorder = Recorder { trace, private };
        recorder.rig(at, &self.rig);
        recorder.situations(at, self.rig.sheet(), &self.state.stack);
        // With the pace at which it was played.
        recorder.advance(at);
        self.recorder = Some(Box::new(recorder));
    }

    /// Whether a recording was begun and not ended.
    pub fn is_recording(&self) -> bool {
        self.recorder.is_some()
    }

    /// Whether a recording has all that it can hold: what comes now is not in it.
    pub fn is_recording_full(&self) -> bool {
        self.recorder.as_ref().is_some_and(|r| r.is_full())
    }

    /// Ends a recording, and hands it out; none where none was begun.
    pub fn stop_recording(&mut self) -> Option<Trace> {
        self.recorder.take().map(|recorder| recorder.trace)
    }

    pub(super) fn record_stack(&mut self) {
        if let Some(recorder) = &mut self.recorder {
            recorder.situations(self.state.now, self.rig.sheet(), &self.state.stack);
        }
    }

    #[cold]
    pub(super) fn record_event(&mut self, event: &Event, how: Fed) {
        if let Some(recorder) = &mut self.recorder {
            recorder.event(event, how);
        }
    }

    /// What an event is fed as, for a recording.
    pub(super) fn fed_as(&self) -> Fed {
        let sheet = self.rig.sheet();
        let typing = |id: &SituationId| sheet.declared_situation(*id).typing;
        match self.state.stack.iter().any(typing) {
            true => Fed::Typing,
            false => Fed::Played,
        }
    }
}
