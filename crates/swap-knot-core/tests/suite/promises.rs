//! What every public type promises beside what it does: it can go to another thread, and an error tells
//! what is behind it once.

use std::error::Error;
use std::io::ErrorKind;
use std::sync::atomic::Ordering;

use swap_knot::keep::{ImportError, LockerErrorKind};
use swap_knot::{
    Cell, Chord, Draft, Layout, Locker, Place, Profile, Prompt, Sheet, Slug, Trace, Words,
};

use crate::common::disk::Watched;

const fn to_any_thread<T: Send + Sync>() {}

macro_rules! go_to_any_thread {
    ($($chapter:ident: $($of_it:ty),+;)+) => {$(
        const _: () = {
            #[allow(unused_imports)]
            use swap_knot::$chapter::*;
            $(to_any_thread::<$of_it>();)+
        };
    )+};
}

go_to_any_thread! {
    input: ButtonCounting, Chord, ChordError, Controller, DeviceId, DeviceKind, Direction, Event,
        EventKind, FurtherButton, Held, HidAxis, HidButton, HidInput, Input, InputError, InputShape,
        KeyQuirks, KindNameError, Lesson, Letter, Mapper, Mapping, MappingError, MappingLearner,
        Mappings, MappingsError, Modifier, MouseButton, MouseFinger, PadButton, PadPart, PadSource,
        Place, Placement, Platform, Relation, Side, Sign, Simulated, Stick, StillDown, SystemUse,
        Taught, Time, TouchName, TouchNameError, TouchZone, TouchZones, UsbFilter, UsbId,
        UsbIdError;
    kit: Report, Said;
    layout: Board, Hand, Keycap, Layout, LayoutError, LayoutLearner, LayoutSetting, Level, Resolver,
        Typed, Unworkable, XkbError;
    prompt: Family, GameTitle, InputPiece, Marks, MarksError, MarksFinding, MarksFindingKind, Piece,
        Prompt, PromptError, Rendered, Telling<'static>, Words, WordsError, WordsMistake;
    screen: BoardView, ColumnView, Curve, ControllerCommand, ControlsScreen, ProfileCommand, Details, Dialog, Grip, Hint,
        Item, KeyView, Live, Note, PadPartView, PadView, Page, PointerEvent, Role, RowView,
        ScreenCommand, ScreenView, ScreenWish, Section, SharedDevice, Sharing, Spot, Target, Tool,
        TouchView, ZoneView;
    sheet: Action, ActionId, ActionRef, ActsOn, Arm, BadSetting, Binding, Cell, Column, ColumnError, ColumnKind, Cover,
        DeadZone, DeadZoneForm, Easing, Feel, Group,
        GroupId, How, Manner, Misfit, Mistake, Opposite, Parameter, ParameterPart, ParameterValue, Parameters, Preset, Row,
        RowRef, Scope, Settings, Shape, Sheet, SheetError, Situation, SituationId, SituationRef, TitledRow,
        TypedError;
    play: Bound, Cause, Controls, DeviceUse, Edge, Fed, Happened, HiddenDefault, Moved, NotInForce, NotLive,
        Origin, Outcome, Pace, Players, Reading<'static>, ReplayError, Report, RestoreError, Rig,
        RigNote, SavedSeat, Seat, Seats, Told<'static>, Trace, TraceEntry, TraceError, TurnUnits,
        Unlawful;
    remap: Bind, CannotBind, CarriedOver, Change, Conflict, ConflictClass, Draft, GaveWay, Heard,
        Listener, ListenerOptions, MenuCell, MenuRow, Merged, PlayersOwn, Party,
        Question, Refusal, RefusedInput, Reset, SetAside, SettingRow, Settle, Way;
    keep: Errand, ErrandDone, ErrandError, ErrandOutcome, Exported, Folder, ImportError, LoadNote,
        Loaded, Locker, LockerError, LockerErrorKind, Memory, Newer, Overruled, Profile,
        ProfileError, Roster, Saved, Saving, SavingDone, Setting, SettingValue, Slug, SlugError,
        StoreLock, Unread, Unreadable;
    check: Apart, Demand, Finding, FindingKind, Forgotten, Mirrored, OneHanded, Playable,
        PresetProblem, Reach, SelfCheckError, Stretch, Survey, Wants;
}

#[test]
fn every_public_type_is_among_them() {
    let here = include_str!("promises.rs");
    let list = include_str!("../../../../docs/api/swap-knot-core.txt");
    let named = |line: &str| -> Option<String> {
        let (kind, rest) = line.split_once(' ')?;
        let path = ["struct", "enum"].contains(&kind).then_some(rest)?;
        let path = path.split([' ', '<']).next()?;
        Some(path.rsplit("::").next()?.to_owned())
    };
    let types: Vec<String> = list.lines().filter_map(named).collect();
    assert!(types.len() > 200, "{types:?}");
    let words: Vec<&str> = here.split(|c: char| !c.is_alphanumeric()).collect();
    let lacking = types.iter().filter(|t| !words.contains(&t.as_str()));
    assert_eq!(lacking.collect::<Vec<_>>(), Vec::<&String>::new());
}

/// No text of what is behind an error is in its own text already, or a report would tell it twice.
fn told_once(error: &dyn Error) {
    let mut of = Some(error);
    while let Some(error) = of {
        of = error.source();
        if let Some(source) = of {
            let (text, behind) = (error.to_string(), source.to_string());
            assert!(!text.contains(&behind), "`{text}` has `{behind}` in it");
        }
    }
}

#[test]
fn an_error_tells_what_is_behind_it_once() {
    let disk = Watched::default();
    let locker = Locker::in_store(disk.clone());
    let name = Slug::from_title("Ada");
    let sheet =
        Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = [\"KeyH\"]").unwrap();
    let profile = Profile::new("Ada").to_toml();
    let no_profile = locker.import("bindings = 3").unwrap_err();
    assert!(matches!(no_profile, ImportError::Profile(_)));
    told_once(&no_profile);
    disk.is_down.store(true, Ordering::Relaxed);
    let no_disk = locker.import(&profile).unwrap_err();
    assert!(
        no_disk.to_string().contains("the disk is full"),
        "{no_disk}"
    );
    told_once(&no_disk);
    let e = locker
        .save(&name, &Profile::new("Ada"), &sheet)
        .unwrap_err();
    assert!(matches!(e.kind(), LockerErrorKind::Disk(e) if e.kind() == ErrorKind::Other));
    told_once(&e);
    told_once(e.kind());
    // A refusal that says the same as what is behind it is that itself, and has no text of its own.
    let mut draft = Draft::new(&sheet, Profile::default(), &Layout::us());
    let row = sheet.find("horn").unwrap();
    let column = "gamepad-1".parse().unwrap();
    let cell = Cell {
        row: row.into(),
        column,
    };
    let refused = draft.bind(cell, Place::KeyA.into()).unwrap_err();
    told_once(&refused);
    told_once(&Sheet::from_toml("nothing").unwrap_err());
    told_once(&Profile::from_toml("bindings = 3").unwrap_err());
    told_once(&"0 0 KeyA".parse::<Trace>().unwrap_err());
    told_once(&Words::english().with_fluent("= 3", "a.ftl").unwrap_err());
    told_once(&"NoKey".parse::<Chord>().unwrap_err());
    told_once(&Prompt::new("{nothing}", &sheet).unwrap_err());
}
