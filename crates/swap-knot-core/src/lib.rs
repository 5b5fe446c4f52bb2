//! The core of Swap Knot: everything but the macros that read a sheet when a game is compiled.
//!
//! A game depends on the crate `swap-knot`, which is this one and those macros; tools and adapters
//! depend on this one. What everyday code names stands here, all of it again in its chapter.

mod book;
mod conflict;
mod controls;
mod draft;
mod law;
mod locker;
mod mapping;
mod profile;
mod rig;
mod seat;
mod survey;
mod text;
mod words;

pub mod input;
pub mod kit;
pub mod layout;
pub mod prompt;
pub mod screen;
pub mod sheet;

/// Events in, actions out: a rig that is ready to play, the seat that plays it, and all of it in one
/// piece for one player or several.
pub mod play {
    pub use crate::controls::{Controls, HiddenDefault, Players, Report};
    pub use crate::law::{Bound, NotInForce, Origin, Unlawful};
    pub use crate::rig::{NotLive, Rig, RigNote};
    pub use crate::seat::{
        Cause, DeviceUse, Edge, Fed, Happened, Moved, Outcome, Pace, Reading, ReplayError,
        RestoreError, SavedSeat, Seat, Seats, Told, Trace, TraceEntry, TraceError, TurnUnits,
    };
}

/// Changing what works what: a draft, the listener that hears a new input, conflicts and the ways to
/// settle them, and the rows of a menu.
pub mod remap {
    pub use crate::conflict::{
        Conflict, ConflictClass, Party, conflicts, conflicts_of, seat_conflicts,
    };
    pub use crate::draft::{
        Bind, CannotBind, CarriedOver, Change, Draft, Effect, GaveWay, Heard, Listener,
        ListenerOptions, MenuCell, MenuRow, Merged, PlayersOwn, Question, Refusal, RefusedInput,
        Reset, SetAside, SettingRow, Settle, Way,
    };
}

/// What a player changed, and the locker that keeps it: in a folder, or in a store of the game's own.
pub mod keep {
    pub use crate::controls::{Saving, SavingDone};
    pub use crate::locker::{
        Errand, ErrandDone, ErrandError, ErrandOutcome, Exported, Folder, ImportError, LoadNote,
        Loaded, Locker, LockerError, LockerErrorKind, Memory, Roster, Saved, Slug, SlugError,
        Store, StoreLock, Unreadable,
    };
    pub use crate::profile::{
        Newer, Overruled, Profile, ProfileError, Setting, SettingValue, Unread,
    };
}

/// Before shipping: what breaks on which layout, for which hands, and in which text.
pub mod check {
    pub use crate::survey::{
        Apart, Demand, Finding, FindingKind, Forgotten, Mirrored, OneHanded, Playable,
        PresetProblem, Reach, SelfCheckError, Stretch, Survey, Wants, demands, mirror, one_handed,
        preset_problems, same_places, self_check,
    };
}

// What comes in.
#[doc(no_inline)]
pub use input::{
    Chord, DeviceId, DeviceKind, Event, EventKind, Input, MouseButton, PadButton, Place, Stick,
    Time,
};
// Declare.
#[doc(no_inline)]
pub use sheet::{Actions, Cell, Row, Sheet, Situations};
#[cfg(feature = "derive")]
pub use swap_knot_derive::{Actions, Situations};
// Where the player lives.
#[doc(no_inline)]
pub use layout::Layout;
// Play.
#[doc(no_inline)]
pub use play::{Controls, Players, Rig, Seat, Seats, Trace};
// Remap.
#[doc(no_inline)]
pub use remap::{Bind, Draft, Settle};
// Keep.
#[doc(no_inline)]
pub use keep::{Locker, Profile, Slug};
// Prompt.
#[doc(no_inline)]
pub use prompt::{Prompt, Tell, Words};
