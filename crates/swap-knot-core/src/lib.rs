//! The core of Swap Knot: everything but the macros that read a sheet when a game is compiled.
//!
//! A game depends on the crate `swap-knot`, which is this one and those macros; tools and adapters
//! depend on this one.

mod bytes;
mod conflict;
mod controls;
mod draft;
mod failure;
mod input;
pub mod kit;
mod law;
mod layout;
mod locker;
mod mapping;
mod name;
mod nearest;
mod profile;
mod prompt;
mod rig;
pub mod screen;
mod seat;
mod sheet;
mod survey;
mod text_place;

// Inputs and their text.
pub use input::{
    ButtonCounting, Chord, ChordError, DeviceId, DeviceKind, Direction, Event, EventKind,
    FurtherButton, Held, HidAxis, HidButton, HidInput, Input, InputError, InputShape, KeyQuirks,
    Letter, MAX_HELD, Modifier, MouseButton, MouseFinger, PadButton, PadPart, Place, Placement,
    Platform, Relation, Side, Sign, Simulated, Stick, StillDown, SystemUse, Time, TouchName,
    TouchNameError, TouchZone, TouchZones, UsbFilter, UsbId, UsbIdError, ZoneKnob,
};

// Controllers without a known mapping.
pub use mapping::{
    Controller, KindNameError, Lesson, Mapper, Mapping, MappingError, MappingLearner, Mappings,
    MappingsError, PadSource, Taught,
};

// Declare.
pub use sheet::{
    Action, ActionId, ActionRef, Actions, Arm, Binding, Cell, Column, ColumnError, ColumnKind,
    Cover, DeadZone, DeadZoneForm, Ease, EaseOutOfRange, EaseValue, Easing, Feel, FeelPatch, Group,
    GroupId, How, Knob, KnobValue, Manner, Misfit, Mistake, Opposite, OutOfRange, Preset, Row,
    RowRef, Shape, Sheet, SheetError, Situation, SituationId, SituationRef, Situations, Timing,
    TitledRow, TypedError,
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
    Apart, Demand, Finding, FindingKind, Forgotten, Mirrored, OneHanded, Playable, PresetProblem,
    Reach, SelfCheckError, Stretch, Survey, Wants, demands, mirror, one_handed, preset_problems,
    same_places, self_check,
};

// Play.
pub use law::{Bound, NotInForce, Origin, Unlawful};
pub use rig::{NotLive, Rig, RigNote};
pub use seat::{
    Cause, DeviceUse, Edge, Fed, Happened, Moved, Outcome, Pace, Reading, ReplayError,
    RestoreError, SavedSeat, Seat, Seats, Told, Trace, TraceEntry, TraceError, TurnUnits,
};

// Remap.
pub use conflict::{Conflict, ConflictClass, Party, conflicts, conflicts_of, seat_conflicts};
pub use draft::{
    Bind, CannotBind, CarriedOver, Change, Draft, Effect, GaveWay, Heard, Listener,
    ListenerOptions, Menu, MenuCell, MenuChanges, MenuRow, Merged, Mine, Question, Refusal,
    RefusedInput, Reset, SetAside, SettingRow, Settle, Way,
};

// Keep.
pub use locker::{
    Errand, ErrandDone, ErrandError, ErrandOutcome, Exported, Folder, ImportError, LoadNote,
    Loaded, Locker, LockerError, LockerErrorKind, Memory, Roster, Saved, Slug, SlugError, Store,
    Unreadable,
};
pub use profile::{Newer, Overruled, Profile, ProfileError, Setting, SettingValue, Unread};

// All of it for one player.
pub use controls::{Controls, Players, Report, Saving, SavingDone};

// Prompt.
pub use prompt::{
    Family, GameTitle, InputPiece, Marks, MarksError, MarksFinding, MarksFindingKind, Piece,
    Prompt, PromptError, Rendered, Tell, Telling, Words, WordsError, WordsMistake,
};
