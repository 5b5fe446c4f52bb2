//! The cases that every adapter has to pass, for whoever writes one for an engine of their own.
//!
//! Write an [`Engine`] that says in your engine's own terms what a device did, and hands on what
//! your adapter made of it; [`check`] does the rest. It looks at what comes of it in play, not at
//! the events themselves, so that an adapter is free in how it tells things.
//!
//! ```
//! use swap_knot::kit::{self, Engine, Said};
//! use swap_knot::input::TouchZones;
//! use swap_knot::{DeviceId, Event, EventKind, Time};
//!
//! /// An engine that knows keys and nothing else.
//! #[derive(Default)]
//! struct Keys(TouchZones);
//!
//! impl Engine for Keys {
//!     fn say(&mut self, said: &Said, at: Time) -> Option<Vec<Event>> {
//!         let what = match *said {
//!             Said::Key { place, down } => EventKind::Key { place, down, text: None },
//!             _ => return None,
//!         };
//!         Some(vec![Event { at, device: DeviceId(0), what }])
//!     }
//!
//!     fn zones(&mut self) -> &mut TouchZones {
//!         &mut self.0
//!     }
//! }
//!
//! let report = kit::check(Keys::default);
//! assert!(report.failed.is_empty(), "{report}");
//! assert!(report.left_out.contains(&"a wheel that turns by fractions"));
//! ```

mod cases;

use std::fmt;

use crate::input::{Event, MouseButton, PadButton, Place, Stick, Time, TouchZones};

/// Something that a device did, to be said in an engine's own terms.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub enum Said {
    /// A key went down or up.
    Key {
        /// Where the key is.
        place: Place,
        /// Down or up.
        down: bool,
    },
    /// The system repeats a key that is held.
    Repeat {
        /// Where the key is.
        place: Place,
    },
    /// The windows lose the focus.
    FocusLost,
    /// The focus comes back; this key is held meanwhile.
    FocusBack {
        /// Where the key is.
        holding: Option<Place>,
    },
    /// Nobody listened for a while, and listens again.
    Gap,
    /// A mouse button went down or up.
    Mouse {
        /// Which.
        button: MouseButton,
        /// Down or up.
        down: bool,
    },
    /// The mouse moved; right and up are positive.
    Motion {
        /// To the right.
        x: f32,
        /// Up.
        y: f32,
    },
    /// The wheel turned upwards by so many notches, or parts of one.
    Wheel {
        /// How many.
        notches: f32,
    },
    /// A pad was plugged in.
    PadCame {
        /// Which, from 0.
        pad: usize,
    },
    /// A pad was pulled out.
    PadGone {
        /// Which, from 0.
        pad: usize,
    },
    /// A pad button or trigger changed.
    PadButton {
        /// Which pad, from 0.
        pad: usize,
        /// Which button.
        button: PadButton,
        /// How far it is in.
        value: f32,
    },
    /// One axis of a stick changed, the horizontal (0) or the vertical one (1); up is positive.
    PadAxis {
        /// Which pad, from 0.
        pad: usize,
        /// Which stick.
        stick: Stick,
        /// 0 or 1.
        axis: usize,
        /// Where it is.
        value: f32,
    },
    /// A finger touched the screen at a point, moved there, or left it (no point).
    Finger {
        /// Which finger.
        finger: u64,
        /// Where it is now.
        at: Option<[f32; 2]>,
        /// Whether it was on the screen before.
        was: bool,
    },
}

/// An engine with an adapter behind it.
pub trait Engine {
    /// Says something in the engine's terms, and answers what the adapter made of it. None where the
    /// engine or its adapter never tells of such a thing: the case is left out then.
    fn say(&mut self, said: &Said, at: Time) -> Option<Vec<Event>>;

    /// The same for several things within one frame, in that order. An engine that hands input over
    /// frame by frame says them all before it asks its adapter.
    fn say_all(&mut self, said: &[Said], at: Time) -> Option<Vec<Event>> {
        let mut out = Vec::new();
        for said in said {
            out.extend(self.say(said, at)?);
        }
        Some(out)
    }

    /// The adapter's touch zones.
    fn zones(&mut self) -> &mut TouchZones;
}

/// What came of [`check`].
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[non_exhaustive]
pub struct Report {
    /// The cases that hold.
    pub passed: Vec<&'static str>,
    /// The cases that the engine or its adapter has nothing to say of.
    pub left_out: Vec<&'static str>,
    /// The cases that do not hold, and what happened instead.
    pub failed: Vec<(&'static str, String)>,
}

impl fmt::Display for Report {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        for (case, why) in &self.failed {
            writeln!(f, "failed: {case}: {why}")?;
        }
        for case in &self.left_out {
            writeln!(f, "left out: {case}")?;
        }
        write!(f, "{} cases hold", self.passed.len())
    }
}

/// Tries every case on an engine made anew for each.
pub fn check<E: Engine>(mut make: impl FnMut() -> E) -> Report {
    let mut report = Report::default();
    for (name, case) in cases::all() {
        match cases::Bench::new(make()).and_then(|mut bench| case(&mut bench)) {
            Ok(()) => report.passed.push(name),
            Err(cases::Stopped::LeftOut) => report.left_out.push(name),
            Err(cases::Stopped::Wrong(why)) => report.failed.push((name, why)),
        }
    }
    report
}
