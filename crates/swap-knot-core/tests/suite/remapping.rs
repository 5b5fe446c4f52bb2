//! Conflicts, settling, drafts and listening.

use std::time::Duration;

use crate::common::{cell, chord, demo, small, us, what};
use proptest::prelude::*;
use swap_knot::input::{Held, Platform};
use swap_knot::play::Unlawful;
use swap_knot::remap::{Heard, Listener, ListenerOptions, Question, Refusal, Reset, conflicts};
use swap_knot::sheet::ColumnKind;
use swap_knot::{
    Bind, Cell, Chord, DeviceId, Draft, Event, EventKind, Input, Layout, MouseButton, PadButton,
    Place, Profile, Settle, Sheet, Stick, Time,
};

fn found(sheet: &Sheet, layouts: &[&str]) -> String {
    let layouts: Vec<Layout> = layouts.iter().filter_map(|n| Layout::shipped(n)).collect();
    let all = conflicts(sheet, us(sheet).bindings(), &layouts, Platform::Other);
    let line = |c: &swap_knot::remap::Conflict| format!("{:?}: {}", c.class, c.describe(sheet));
    all.iter().map(line).collect::<Vec<_>>().join("\n")
}

#[test]
fn each_class_of_conflict_is_found_and_told() {
    let sheet = small(
        r#"
[situations.deck]
[actions.same-a]
situation = "deck"
bind = "KeyE"
[actions.same-b]
situation = "deck"
bind = "KeyE"
[actions.side-a]
bind = "Shift+KeyR"
[actions.side-b]
bind = "ShiftLeft+KeyR"
[actions.whole]
shape = "plane"
bind = "pad:stick-left"
[actions.part]
bind = "pad:stick-left.up"
[actions.letter]
bind = "letter:a"
[actions.place]
bind = "KeyQ"
[actions.press]
bind = "KeyZ"
[actions.hold]
manner = "hold"
bind = "KeyZ"
[actions.tap]
manner = "tap"
bind = "KeyX"
[actions.hold-too]
manner = "hold"
bind = "KeyX"
[actions.short]
bind = "KeyK"
[actions.long]
bind = "Ctrl+KeyK"
[actions.sprint]
bind = "AltLeft"
[actions.open]
bind = "Alt+KeyO"
"#,
    );
    insta::assert_snapshot!(found(&sheet, &["us", "fr", "de"]), @"
    Same: `same-a` and `same-b` are both on KeyE, in `deck`
    Side: `side-a` is on Shift+KeyR and `side-b` on ShiftLeft+KeyR, a side of the other
    PartOfWhole: `whole` is on pad:stick-left and `part` on pad:stick-left.up, one a part of the other
    ByLetter: `letter` is on letter:a and `place` on KeyQ, the same key (on layout fr)
    Manner: `press` and `hold` are both on KeyZ, one as a press and one as a hold
    LongerHidesShorter: KeyK and Ctrl+KeyK: while the longer is held, `long` happens and not `short`
    Member: `sprint` is on AltLeft and `open` on Alt+KeyO, so both can happen
    ");
}

#[test]
fn what_cannot_meet_or_is_content_is_no_conflict() {
    let sheet = small(
        r#"
[situations.deck]
[situations.helm]
[situations.chart]
over = "deck"
cover = "used"
[actions.a]
situation = "deck"
bind = "KeyE"
[actions.b]
situation = "helm"
bind = "KeyE"
[actions.c]
situation = "chart"
bind = "KeyE"
[actions.d]
situation = "deck"
bind = "KeyE"
share = "a"
[actions.e]
situation = "deck"
bind = "KeyE"
off = true
"#,
    );
    assert_eq!(found(&sheet, &["us"]), "");
    assert_eq!(found(&demo(), &["us", "fr", "de"]), "");
}

fn draft(sheet: &Sheet) -> Draft {
    Draft::new(sheet, Profile::new("Ada"), &Layout::us())
}

fn asks(bind: Result<Bind, Refusal>) -> Box<Question> {
    match bind {
        Ok(Bind::Asks(question)) => question,
        other => panic!("no question: {other:?}"),
    }
}

fn has(draft: &Draft, text: &str) -> String {
    let chord = draft.chord_in(cell(draft.sheet(), text));
    chord.map_or_else(|| "nothing".to_owned(), Chord::to_string)
}

#[test]
fn a_taken_key_can_be_swapped_taken_or_left() {
    let sheet = demo();
    let on = cell(&sheet, "cast-off keyboard-1");
    for (settle, wanted) in [
        (Settle::Swap, ["KeyF", "Space"]),
        (Settle::Take, ["KeyF", "nothing"]),
        (Settle::BackOut, ["Space", "KeyF"]),
    ] {
        let mut draft = draft(&sheet);
        let question = asks(draft.bind(on, chord("KeyF")));
        assert!(!draft.is_changed(), "asking changes nothing");
        assert!(matches!(draft.answer(question, settle), Ok(Bind::Done)));
        let now = [
            has(&draft, "cast-off keyboard-1"),
            has(&draft, "lantern keyboard-1"),
        ];
        assert_eq!(now, wanted, "{settle:?}");
        assert!(draft.conflicts().is_empty());
    }
}

#[test]
fn swapping_twice_is_nothing() {
    let sheet = demo();
    let mut draft = draft(&sheet);
    for key in ["KeyF", "Space"] {
        let question = asks(draft.bind(cell(&sheet, "cast-off keyboard-1"), chord(key)));
        let _ = draft.answer(question, Settle::Swap).unwrap();
    }
    assert!(!draft.is_changed());
    assert!(draft.profile().is_unchanged(), "only differences are kept");
}

#[test]
fn sharing_is_offered_where_the_game_allows_it() {
    let sheet = small(
        "[actions.look]\nbind = \"KeyL\"\nshare = \"lamp\"\n[actions.lamp]\nbind = \"KeyF\"\n[actions.horn]\nbind = \"KeyH\"",
    );
    let mut draft = draft(&sheet);
    let question = asks(draft.bind(cell(&sheet, "lamp keyboard-1"), chord("KeyL")));
    let _ = draft.answer(question, Settle::Share).unwrap();
    assert_eq!(has(&draft, "lamp keyboard-1"), "KeyL");
    assert!(draft.conflicts().is_empty());
    let question = asks(
        draft
            .bind(cell(&sheet, "horn keyboard-1"), chord("KeyF"))
            .and_then(|_| draft.bind(cell(&sheet, "horn keyboard-1"), chord("KeyL"))),
    );
    let refused = draft.answer(question, Settle::Share).unwrap_err();
    assert_eq!(
        refused.to_string(),
        "the game does not let \"Horn\" and \"Look\" share an input"
    );
}

#[test]
fn several_conflicts_are_asked_about_one_by_one() {
    let sheet = small(
        "[actions.a]\nbind = \"KeyA\"\nshare = \"b\"\n[actions.b]\nbind = \"KeyA\"\n[actions.c]\nbind = \"KeyC\"",
    );
    let mut draft = draft(&sheet);
    let first = asks(draft.bind(cell(&sheet, "c keyboard-1"), chord("KeyA")));
    assert_eq!(first.describe(&sheet), "`c` and `a` are both on KeyA");
    let second = asks(draft.answer(first, Settle::Swap));
    assert_eq!(second.describe(&sheet), "`c` and `b` are both on KeyA");
    assert!(!draft.is_changed(), "nothing changes until the last answer");
    assert!(
        second.way(Settle::Swap).unwrap().refused.is_some(),
        "there is one chord to give"
    );
    let _ = draft.answer(second, Settle::Take).unwrap();
    let now = ["a", "b", "c"].map(|n| has(&draft, &format!("{n} keyboard-1")));
    assert_eq!(now, ["KeyC", "nothing", "KeyA"]);
    assert!(draft.undo() && !draft.is_changed(), "it is one edit");
}

#[test]
fn the_player_cannot_lock_themselves_out() {
    let sheet = demo();
    let mut draft = draft(&sheet);
    let cast_off = cell(&sheet, "cast-off keyboard-1");
    let refused = draft.unbind(cast_off).unwrap_err();
    assert_eq!(
        refused.to_string(),
        "\"Cast off\" must keep a keyboard binding; bind it to something else first"
    );
    let question = asks(draft.bind(cell(&sheet, "lantern keyboard-1"), chord("Space")));
    let take = question.way(Settle::Take).unwrap();
    assert!(matches!(
        take.refused,
        Some(Refusal::Unlawful(Unlawful::Essential { .. }))
    ));
    assert!(question.way(Settle::Swap).unwrap().refused.is_none());
    // An arm with a second binding can lose the first.
    draft.unbind(cell(&sheet, "walk.up keyboard-1")).unwrap();
    draft
        .unbind(cell(&sheet, "walk.up keyboard-2"))
        .unwrap_err();
}

#[test]
fn reserved_fixed_and_unfit_inputs_are_refused() {
    let sheet = sheet_with_fixed();
    let mut draft = draft(&sheet);
    let said = |r: Result<Bind, Refusal>| r.unwrap_err().to_string();
    let horn = cell(&sheet, "horn keyboard-1");
    let all = [
        said(draft.bind(horn, chord("Escape"))),
        said(draft.bind(horn, chord("Ctrl+Escape"))),
        said(draft.bind(horn, chord("pad:south"))),
        said(draft.bind(horn, chord("mouse:move"))),
        said(draft.bind(cell(&sheet, "menu keyboard-1"), chord("KeyG"))),
    ];
    insta::assert_snapshot!(all.join("\n"), @r#"
    `Escape` is reserved by the game and cannot be bound
    `Escape` is reserved by the game and cannot be bound
    `pad:south` is a gamepad input and cannot stand in column keyboard-1
    `mouse:move` moves on two axes and can only work a plane; use one direction of it, such as `wheel:up`
    "Menu" cannot be changed
    "#);
}

fn sheet_with_fixed() -> Sheet {
    sheet_text(
        "reserved = [\"Escape\"]\n[actions.horn]\nbind = \"KeyH\"\n[actions.menu]\nfixed = true\nbind = \"Tab\"",
    )
}

fn sheet_text(text: &str) -> Sheet {
    small(text)
}

#[test]
fn resetting_goes_back_at_every_level() {
    let sheet = demo();
    let change = |draft: &mut Draft| {
        for (at, key) in [
            ("cast-off keyboard-1", "KeyG"),
            ("cast-off gamepad-1", "pad:east"),
            ("horn keyboard-1", "KeyN"),
            ("map-table keyboard-2", "Tab"),
        ] {
            assert!(matches!(
                draft.bind(cell(&sheet, at), chord(key)),
                Ok(Bind::Done)
            ));
        }
    };
    let cast_off = sheet.find("cast-off").unwrap();
    let helm = sheet.action(sheet.find("horn").unwrap()).unwrap().group;
    for (what, left) in [
        (Reset::Cell(cell(&sheet, "cast-off keyboard-1")), 3),
        (Reset::Action(cast_off), 2),
        (Reset::Group(helm), 3),
        (Reset::Devices(ColumnKind::Gamepad), 3),
        (Reset::All, 0),
    ] {
        let mut draft = draft(&sheet);
        change(&mut draft);
        draft.reset(what).unwrap();
        assert_eq!(draft.changes().len(), left, "{what:?}");
        let rows = draft.rows(&draft.columns());
        let mut ids: Vec<_> = rows.iter().map(|r| r.row).collect();
        ids.sort_unstable();
        ids.dedup();
        assert_eq!(ids.len(), rows.len(), "no row twice");
    }
}

fn press(at: u64, place: Place, down: bool) -> Event {
    event(at, what::key(place, down))
}

fn event(at: u64, what: EventKind) -> Event {
    Event {
        at: Time::from_millis(at),
        device: DeviceId(0),
        what,
    }
}

fn pad(at: u64, button: PadButton, value: f32) -> Event {
    event(at, EventKind::PadButton { button, value })
}

/// What a listener says to some events, without the silence.
fn heard(options: ListenerOptions, down: &[EventKind], events: &[Event]) -> Vec<Heard> {
    let mut held = Held::new();
    down.iter().for_each(|&what| held.feed(&event(0, what)));
    let mut listener = Listener::new(options, &held);
    let all = events.iter().map(|e| listener.hear(e));
    all.filter(|h| *h != Heard::Nothing).collect()
}

#[test]
fn the_click_that_started_it_is_not_taken() {
    let click = |at, down| event(at, what::click(MouseButton::Left, down));
    let down = [click(0, true).what, press(0, Place::KeyW, true).what];
    let events = [
        press(5, Place::KeyG, true), // still deaf
        click(10, false),
        press(12, Place::KeyH, true), // W is still down
        press(15, Place::KeyW, false),
        click(20, true),
    ];
    assert_eq!(
        heard(ListenerOptions::default(), &down, &events),
        [Heard::Chord(chord("mouse:left"))]
    );
}

#[test]
fn modifiers_alone_decide_when_let_go_and_chords_at_once() {
    let options = ListenerOptions::default;
    let tap = [
        press(1, Place::ShiftLeft, true),
        press(2, Place::ShiftLeft, false),
    ];
    assert_eq!(
        heard(options(), &[], &tap),
        [Heard::Holding, Heard::Chord(chord("ShiftLeft"))]
    );
    let held = [
        press(1, Place::ShiftRight, true),
        press(2, Place::KeyK, true),
    ];
    assert_eq!(
        heard(options(), &[], &held),
        [Heard::Holding, Heard::Chord(chord("Shift+KeyK"))]
    );
    let pads = [
        pad(1, PadButton::ShoulderLeft, 1.0),
        pad(2, PadButton::South, 1.0),
    ];
    let wanted = chord("pad:shoulder-left+pad:south");
    assert_eq!(
        heard(options(), &[], &pads),
        [Heard::Holding, Heard::Chord(wanted)]
    );
}

#[test]
fn sticks_count_only_if_they_rested_first() {
    let stick = |at, x| event(at, what::stick(Stick::LEFT, x, 0.1));
    let right: Input = "pad:stick-left.right".parse().unwrap();
    let events = [stick(1, 0.9), stick(2, 0.1), stick(3, 0.5), stick(4, 0.8)];
    assert_eq!(
        heard(ListenerOptions::default(), &[stick(0, 0.9).what], &events),
        [Heard::Chord(right.into())]
    );
    let trigger = [
        pad(1, PadButton::TriggerLeft, 0.9),
        pad(2, PadButton::TriggerLeft, 0.0),
    ];
    let wanted = Heard::Chord(chord("pad:trigger-left"));
    assert_eq!(
        heard(ListenerOptions::default(), &[], &trigger),
        [Heard::Holding, wanted]
    );
}

#[test]
fn it_cancels_refuses_and_times_out() {
    let options = ListenerOptions::default()
        .with_reserved(&["F12".parse().unwrap()])
        .for_columns(ColumnKind::Keyboard)
        .with_timeout(Some(Duration::from_secs(5)));
    let events = [
        press(1, Place::F12, true),
        pad(2, PadButton::South, 1.0),
        press(3, Place::Escape, true),
        press(4, Place::Escape, false),
    ];
    let said: Vec<String> = heard(options.clone(), &[], &events)
        .into_iter()
        .map(|h| match h {
            Heard::Refused(why) => why.to_string(),
            other => format!("{other:?}"),
        })
        .collect();
    assert_eq!(
        said,
        [
            "`F12` is reserved by the game",
            "`pad:south` is not for this column, which takes keyboard inputs",
            "Cancelled"
        ]
    );
    let mut listener = Listener::new(options, &Held::new());
    assert_eq!(listener.tick(Time::from_millis(100)), Heard::Nothing);
    assert_eq!(
        listener.time_left(Time::from_millis(1100)),
        Some(Duration::from_secs(4))
    );
    assert_eq!(listener.tick(Time::from_millis(5100)), Heard::TimedOut);
}

/// What cancels is bound by holding it: told by the clock, or when it is let go.
#[test]
fn what_cancels_is_bound_by_holding_it() {
    let escape = |ms, down| press(ms, Place::Escape, down);
    let start = |ms| pad(ms, PadButton::CenterRight, 1.0);
    let start_up = |ms| pad(ms, PadButton::CenterRight, 0.0);
    let any = ListenerOptions::default;
    let is = |text| [Heard::Chord(chord(text))];
    let held = [escape(0, true), escape(1000, false)];
    assert_eq!(heard(any(), &[], &held), is("Escape"));
    let with = [
        press(0, Place::ControlLeft, true),
        escape(10, true),
        escape(1010, false),
    ];
    assert_eq!(heard(any(), &[], &with)[1..], is("Ctrl+Escape"));
    let tapped = [start(0), start_up(999)];
    assert_eq!(heard(any(), &[], &tapped), [Heard::Cancelled]);
    let mut listener = Listener::new(any(), &Held::new());
    assert_eq!(listener.hear(&start(0)), Heard::Nothing);
    assert_eq!(listener.tick(Time::from_millis(999)), Heard::Nothing);
    let wanted = Heard::Chord(chord("pad:center-right"));
    assert_eq!(listener.tick(Time::from_millis(1000)), wanted);
    // Lost in between, it is neither.
    let lost = [
        escape(0, true),
        Event {
            what: EventKind::FocusLost,
            ..escape(5, true)
        },
    ];
    assert_eq!(heard(any(), &[], &lost), []);
}

/// What is down when it starts, drifts, is refused, or comes too late, keeps nobody in.
#[test]
fn nothing_that_lies_about_keeps_a_player_in() {
    let escape = |ms, down| press(ms, Place::Escape, down);
    let any = ListenerOptions::default;
    // A stick that drifts within the dead zone that the player gave it is at rest here as it is in play.
    let sheet = crate::common::small(
        "[actions.walk]\nshape = \"plane\"\nbind = \"pad:stick-left\"\nfeel.gamepad.dead-zone = 0.35",
    );
    let rig = swap_knot::Rig::new(&sheet, &Profile::default(), &Layout::us());
    let mut seat = swap_knot::Seat::new(rig);
    let stick = |ms, x| Event {
        at: Time::from_millis(ms),
        device: DeviceId(0),
        what: EventKind::PadStick {
            stick: swap_knot::Stick::LEFT,
            x,
            y: 0.0,
        },
    };
    seat.feed(&stick(0, 0.3));
    seat.tick(Time::ZERO);
    let mut listener = Listener::new(any(), seat.held());
    assert!(listener.is_armed());
    assert_eq!(listener.hear(&stick(1, 0.32)), Heard::Nothing);
    let key = listener.hear(&press(2, Place::KeyK, true));
    assert_eq!(key, Heard::Chord(chord("KeyK")));
    // It is still heard itself, once it is meant.
    let mut listener = Listener::new(any(), seat.held());
    assert_eq!(listener.hear(&stick(1, 0.5)), Heard::Nothing);
    let pushed = Heard::Chord(chord("pad:stick-left.right"));
    assert_eq!(listener.hear(&stick(2, 0.95)), pushed);
    // What cancels is tapped, whatever is refused while it is down, and whatever is down beside it.
    let refuses = || any().with_reserved(&["F12".parse().unwrap()]);
    let between = [
        escape(0, true),
        press(10, Place::F12, true),
        escape(20, false),
        press(2_000, Place::F12, false),
    ];
    let said = heard(refuses(), &[], &between);
    assert_eq!(said.last(), Some(&Heard::Cancelled), "{said:?}");
    assert!(
        !said.iter().any(|h| matches!(h, Heard::Chord(_))),
        "{said:?}"
    );
    let beside = [
        press(0, Place::F12, true),
        escape(10, true),
        escape(20, false),
    ];
    let said = heard(refuses(), &[], &beside);
    assert_eq!(said.last(), Some(&Heard::Cancelled), "{said:?}");
    // Before it takes anything it takes no held Escape either; letting that go is the way out.
    let mut held = Held::new();
    held.feed(&press(0, Place::KeyX, true));
    let mut listener = Listener::new(any(), &held);
    assert_eq!(listener.hear(&escape(10, true)), Heard::Nothing);
    assert_eq!(listener.tick(Time::from_millis(1_500)), Heard::Nothing);
    assert_eq!(listener.hear(&escape(1_600, false)), Heard::Cancelled);
    // Of two ends between two pictures the earlier one is the end.
    for (down_at, wanted) in [
        (8_500, Heard::Chord(chord("Escape"))),
        (9_500, Heard::TimedOut),
    ] {
        let mut listener = Listener::new(any(), &Held::new());
        listener.tick(Time::ZERO);
        assert_eq!(listener.hear(&escape(down_at, true)), Heard::Nothing);
        assert_eq!(listener.tick(Time::from_millis(12_000)), wanted);
    }
}

/// One edit of a player who tries everything.
#[derive(Clone, Debug)]
enum Edit {
    Bind(usize, usize, Settle),
    Unbind(usize),
    Reset(usize),
    ResetAll,
}

fn edits() -> impl Strategy<Value = Vec<Edit>> {
    let settle = proptest::sample::select(Settle::ALL.to_vec());
    let one = prop_oneof![
        6 => (0..60_usize, 0..40_usize, settle).prop_map(|(c, k, s)| Edit::Bind(c, k, s)),
        2 => (0..60_usize).prop_map(Edit::Unbind),
        1 => (0..60_usize).prop_map(Edit::Reset),
        1 => Just(Edit::ResetAll),
    ];
    proptest::collection::vec(one, 0..25)
}

fn cells(sheet: &Sheet) -> Vec<Cell> {
    let draft = draft(sheet);
    let columns = draft.columns();
    draft
        .rows(&columns)
        .iter()
        .flat_map(|r| r.cells.iter().map(|c| c.cell))
        .collect()
}

/// Carries an edit out; checks that a settling makes no conflict that was not announced.
fn carry_out(draft: &mut Draft, edit: &Edit, cells: &[Cell], inputs: &[Chord]) {
    match *edit {
        Edit::Bind(c, k, settle) => {
            let before = draft.conflicts().to_vec();
            let mut announced = Vec::new();
            let mut next = draft.bind(cells[c % cells.len()], inputs[k % inputs.len()].clone());
            while let Ok(Bind::Asks(question)) = next {
                if let Some(way) = question.way(settle) {
                    announced.clone_from(&way.conflicts);
                }
                next = draft.answer(question, settle);
            }
            if next.is_ok() {
                let key = |c: &swap_knot::remap::Conflict| {
                    let mut pair = [c.first.cell, c.second.cell];
                    pair.sort_unstable();
                    pair
                };
                for conflict in draft.conflicts().iter().filter(|c| c.class.is_conflict()) {
                    let known = |all: &[swap_knot::remap::Conflict]| {
                        all.iter().any(|o| key(o) == key(conflict))
                    };
                    assert!(
                        known(&before) || known(&announced),
                        "not announced: {conflict:?}"
                    );
                }
            }
        }
        Edit::Unbind(c) => drop(draft.unbind(cells[c % cells.len()])),
        Edit::Reset(c) => drop(draft.reset(Reset::Cell(cells[c % cells.len()]))),
        Edit::ResetAll => draft.reset(Reset::All).unwrap(),
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(150)))]

    #[test]
    fn any_edits_undone_are_the_start_and_kept_are_the_same_rig(edits in edits()) {
        let sheet = demo();
        let cells = cells(&sheet);
        let inputs: Vec<Chord> = ["KeyE", "KeyG", "Space", "Ctrl+KeyK", "mouse:left", "letter:m", "KeyM", "Shift+KeyW", "ShiftLeft", "pad:south", "pad:stick-left.up", "pad:trigger-right", "pad:shoulder-left+pad:south", "Escape", "pad:stick-right"]
            .map(chord).to_vec();
        let mut draft = draft(&sheet);
        let start = draft.profile();
        for edit in &edits {
            carry_out(&mut draft, edit, &cells, &inputs);
        }
        // No sequence ends with an essential action unbound.
        let rig = draft.clone().apply();
        prop_assert_eq!(rig.not_in_force(), []);
        // Written and read, it makes the same bindings.
        let text = draft.profile().to_toml();
        let read = Profile::from_toml(&text).unwrap();
        let again = swap_knot::Rig::new(&sheet, &read, &Layout::us());
        prop_assert_eq!(again.bindings(), rig.bindings());
        // Undone and made again.
        let end = draft.profile();
        while draft.undo() {}
        prop_assert_eq!(draft.profile(), start);
        while draft.redo() {}
        prop_assert_eq!(draft.profile(), end);
        draft.reset(Reset::All).unwrap();
        prop_assert!(draft.profile().is_unchanged());
        let defaults = us(&sheet);
        prop_assert_eq!(draft.bindings(), defaults.bindings());
    }
}

#[test]
fn what_the_law_gives_back_cannot_be_taken_again_and_again() {
    let sheet = small(
        "[actions.leave]\nessential = true\nbind = \"KeyE\"\n[actions.horn]\nbind = \"KeyH\"",
    );
    // A file unbinds what is essential: it is played with its default all the same.
    let profile = Profile::from_toml("format = 1\nbind.leave.keyboard-1 = \"unbound\"").unwrap();
    let mut draft = Draft::new(&sheet, profile, &Layout::us());
    let horn = cell(&sheet, "horn keyboard-1");
    let Ok(Bind::Asks(question)) = draft.bind(horn, chord("KeyE")) else {
        panic!("two actions on one key are asked about");
    };
    assert!(question.way(Settle::Take).unwrap().refused.is_some());
    let refused = draft.answer(question, Settle::Take).unwrap_err();
    assert_eq!(
        refused.to_string(),
        "\"Leave\" must keep a keyboard binding; bind it to something else first"
    );
}
