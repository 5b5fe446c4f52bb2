//! Full remapping of keys and buttons for games: a game declares what its player can *do*, and
//! Swap Knot turns device events into those actions, lets the player move every action to another
//! key, button, stick or chord without tying themselves into a knot, keeps what they chose, and
//! tells the game what to print in every prompt, on the player's own layout and device.
//!
//! # Example: declare, play, remap, keep, prompt
//! ```
//! use swap_knot::{
//!     Bind, DeviceId, Draft, Event, EventKind, Layout, Locker, Place, Profile, Prompt, Rig, Seat,
//!     Settle, Sheet, Slug, Time,
//! };
//!
//! // Declare: a readable text file, usually beside the game's other data.
//! let sheet = Sheet::from_toml(r#"
//!     game = "slack-water"
//!     [actions.cast-off]
//!     bind = ["Space", "pad:south"]
//!     [actions.coil-rope]
//!     bind = ["KeyE", "pad:west"]
//! "#)?;
//! let cast_off = sheet.find("cast-off").expect("declared above");
//!
//! // Play: feed events, tick, ask.
//! let mut seat = Seat::new(Rig::new(&sheet, &Profile::new("Ada"), &Layout::us()));
//! let key = |place, down| Event {
//!     at: Time::from_millis(5),
//!     device: DeviceId(0),
//!     what: EventKind::Key { place, down, text: None },
//! };
//! seat.feed(&key(Place::Space, true));
//! seat.tick(Time::from_millis(16));
//! assert!(seat.went_down(cast_off));
//!
//! // Remap: a taken key is a question with worked-out ways to settle it.
//! let mut draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
//! let cell = sheet.defaults_of(cast_off)[0].cell;
//! if let Bind::Asks(question) = draft.bind(cell, Place::KeyE.into())? {
//!     draft.answer(question, Settle::Swap)?;
//! }
//! seat.set_rig(draft.apply());
//!
//! // Keep: only the differences, in a file that survives a power cut.
//! # let folder = tempfile::tempdir()?;
//! # let folder = folder.path();
//! let locker = Locker::open(folder)?;
//! locker.save(&Slug::from_title("Ada"), &draft.profile(), &sheet)?;
//!
//! // Prompt: what the player reads is what they can press.
//! let mut prompt = Prompt::new("Press {cast-off} to leave", &sheet)?;
//! let text = prompt.render(seat.rig(), seat.device_kind()).to_string();
//! assert_eq!(text, "Press E to leave");
//! # Ok::<(), Box<dyn std::error::Error>>(())
//! ```
//!
//! # What it does, and what it does not
//! - It reads no device and opens no window: an adapter hands [`Event`]s in. It has no clock: time
//!   comes with events and ticks, so a [`Trace`] replays exactly.
//! - It never panics on bad input. Errors are values that say what is wrong, where, and what to do.
//! - It touches no file but those of a [`Locker`].
//!
//! # Contents
//! - The [`guide`], chapter by chapter: [declaring](guide::declaring), [playing](guide::playing),
//!   [remapping](guide::remapping), [keeping](guide::keeping), [prompting](guide::prompting),
//!   [layouts](guide::layouts), [before shipping](guide::shipping),
//!   [moving from hard-wired keys](guide::moving)
//! - Inputs and their text: [`Input`], [`Chord`], [`Place`], [`Event`], [`Trace`], [`TouchZones`],
//!   [`Simulated`] devices for tests
//! - Declare: [`Sheet`], [`Action`], [`Situation`], [`Shape`], [`Manner`], [`Feel`]
//! - Where the player lives: [`Layout`], [`LayoutLearner`], [`LayoutSetting`], [`Board`]
//! - Before shipping: [`Survey`], [`Reach`], [`mirror`]
//! - Play: [`Rig`], [`Seat`], [`Seats`], [`Actions`]
//! - Remap: [`Draft`], [`Listener`], [`Question`], [`Conflict`]
//! - Keep: [`Profile`], [`Locker`]
//! - Prompt: [`Prompt`], [`Words`]

mod conflict;
mod draft;
pub mod guide;
mod input;
pub mod kit;
mod law;
mod layout;
mod locker;
mod name;
mod nearest;
mod profile;
mod prompt;
mod rig;
mod seat;
mod sheet;
mod survey;
mod text_place;

// Inputs and their text.
pub use input::{
    ButtonCounting, Chord, ChordError, DeviceId, DeviceKind, Direction, Event, EventKind,
    FurtherButton, Held, HidAxis, HidButton, HidInput, Input, InputError, InputShape, Letter,
    MAX_HELD, Modifier, MouseButton, PadButton, Place, Platform, Relation, Side, Sign, Simulated,
    Stick, StillDown, Time, TouchName, TouchNameError, TouchZones, Trace, TraceEntry, TraceError,
};

// Declare.
pub use sheet::{
    Action, ActionId, ActionRef, Actions, Arm, Binding, Cell, Column, ColumnError, ColumnKind,
    Cover, DeadZone, DeadZoneForm, Feel, FeelPatch, Group, GroupId, Knob, KnobValue, Manner,
    Misfit, Mistake, Opposite, OutOfRange, Preset, Row, RowRef, Shape, Sheet, SheetError,
    Situation, SituationId, SituationRef, Situations, Timing, TitledRow, TypedError,
};

#[cfg(feature = "derive")]
pub use swap_knot_derive::{Actions, Situations};

// Where the player lives.
#[cfg(feature = "xkb")]
pub use layout::XkbError;
pub use layout::{
    Board, Hand, Keycap, Layout, LayoutError, LayoutLearner, LayoutSetting, Level, Resolver, Typed,
    Unworkable,
};

// Before shipping: what breaks on which layout.
pub use survey::{
    Apart, Finding, FindingKind, Mirrored, Playable, Reach, SelfCheckError, Stretch, Survey,
    mirror, same_places, self_check,
};

// Play.
pub use law::{Bound, NotInForce, Origin, Unlawful};
pub use rig::{Rig, RigNote};
pub use seat::{Edge, Fed, Happened, NoSuchSituation, Seat, Seats};

// Remap.
pub use conflict::{Conflict, ConflictClass, Party, conflicts, conflicts_of, seat_conflicts};
pub use draft::{
    Bind, CannotBind, CarriedOver, Change, Draft, Effect, GaveWay, Heard, Listener,
    ListenerOptions, Menu, MenuCell, MenuChanges, MenuRow, Merged, Mine, Question, Refusal,
    RefusedInput, Reset, SetAside, Settle, Way,
};

// Keep.
pub use locker::{
    Exported, Folder, ImportError, LoadNote, Loaded, Locker, LockerError, LockerErrorKind, Memory,
    Saved, Slug, SlugError, Store, Unreadable,
};
pub use profile::{Newer, Overruled, Profile, ProfileError, Setting, SettingValue, Unread};

// Prompt.
pub use prompt::{
    InputPiece, Piece, Prompt, PromptError, Rendered, Words, WordsError, WordsMistake,
};

/// The code of the README, compiled and run with the tests.
#[cfg(doctest)]
#[doc = include_str!("../../../README.md")]
struct Readme;
