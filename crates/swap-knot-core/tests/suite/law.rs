//! The law over every road into a rig, stated naively: whatever a profile says and wherever it came
//! from, what plays is lawful, what gave way is told, and nothing of the player's is lost.

use std::collections::BTreeSet;

use crate::common::{cell, chord};
use proptest::prelude::*;
use proptest::sample::select;
use swap_knot::input::{Modifier, Platform};
use swap_knot::keep::{Memory, Newer, Setting, SettingValue};
use swap_knot::layout::Resolver;
use swap_knot::play::Origin;
use swap_knot::remap::{CarriedOver, Merged, PlayersOwn, Reset};
use swap_knot::sheet::{ActsOn, Arm, ColumnKind, Parameter, Parameters, Scope};
use swap_knot::{
    Bind, Cell, Chord, DeviceKind, Draft, Input, Layout, Locker, Place, Profile, Rig, Row, Settle,
    Sheet, Stick,
};

const SHEET: &str = r#"
game = "law"
version = 3
reserved = ["Escape", "Meta", "pad:stick-right"]
renamed = { unmoor = "cast-off" }
[actions.cast-off]
essential = true
bind = ["Space", "pad:south"]
[actions.horn]
ease = false
bind = ["KeyH", "KeyJ"]
[actions.leave]
fixed = true
bind = ["Escape", "pad:center"]
[actions.crane]
off = true
bind = "KeyC"
[actions.map]
essential = true
bind = "letter:m"
[actions.walk]
essential = true
shape = "plane"
bind = "pad:stick-left"
up = { bind = ["KeyW", "ArrowUp"] }
down = { bind = "KeyS" }
left = { bind = "KeyA" }
right = { bind = "KeyD" }
[presets.left.bind]
cast-off = { keyboard-1 = "unbound", keyboard-2 = "KeyO" }
horn = { keyboard-1 = "KeyU" }
[presets.pad.bind]
map = { gamepad-1 = "pad:west" }
"#;

fn sheet() -> Sheet {
    Sheet::from_toml(SHEET).unwrap()
}

/// US, a layout without an `m`, and one on which letters lie elsewhere.
fn layouts() -> [Layout; 3] {
    let without = "name = \"none\"\nbase = \"us\"\n[keys]\nKeyM = [\"\", \"\"]\n";
    let without = Layout::from_toml(without).unwrap_or_else(|e| panic!("{e}"));
    assert_eq!(without.place_of('m'), None);
    [Layout::us(), without, Layout::shipped("fr").unwrap()]
}

/// A line of a profile's file, sensible or not.
fn line() -> impl Strategy<Value = (String, String)> {
    let row = select(vec![
        "cast-off",
        "horn",
        "leave",
        "crane",
        "map",
        "walk",
        "walk.up",
        "walk.left",
        "horn.up",
        "unmoor",
        "fly",
        "walk.forward",
    ]);
    let column = select(vec![
        "keyboard-1",
        "keyboard-2",
        "gamepad-1",
        "touch-1",
        "foot-1",
    ]);
    let value = select(vec![
        "\"unbound\"",
        "\"KeyG\"",
        "\"letter:ж\"",
        "\"letter:m\"",
        "\"Escape\"",
        "\"MetaLeft+KeyK\"",
        "\"pad:south\"",
        "\"pad:stick-left\"",
        "\"pad:stick-right.up\"",
        "\"mouse:move\"",
        "\"touch:deck\"",
        "\"KeyG+pad:south\"",
        "\"neural:blink\"",
        "5",
        "{ gave-way = \"Space\" }",
        "{ gave-way = \"KeyN\" }",
        "{ gave-way = 1, more = 2 }",
    ]);
    let action = select(vec![
        "cast-off", "horn", "leave", "crane", "walk", "hron", "unmoor",
    ]);
    let kind = select(vec!["keyboard", "gamepad", "mouse", "tail"]);
    let knob = select(vec![
        ("sensitivity", "1.5"),
        ("sensitivity", "nan"),
        ("sensitivity", "1e30"),
        ("curve", "0"),
        ("curve", "2"),
        ("ramp-up", "-1"),
        ("invert", "[\"x\"]"),
        ("invert", "[\"w\"]"),
        (
            "dead-zone",
            "{ inner = 0.2, outer = 0.9, form = \"round\" }",
        ),
        (
            "dead-zone",
            "{ inner = 0.9, outer = 0.2, form = \"round\" }",
        ),
        ("hats", "1"),
    ]);
    prop_oneof![
        8 => (row, column, value).prop_map(|(r, c, v)| (format!("bind.\"{r}\".{c}"), v.to_owned())),
        2 => (action.clone(), kind.clone(), knob.clone())
            .prop_map(|(a, k, (n, v))| (format!("action-feel.{a}.{k}.{n}"), v.to_owned())),
        1 => (kind, knob).prop_map(|(k, (n, v))| (format!("feel.{k}.{n}"), v.to_owned())),
        1 => (action, select(vec!["true", "false", "3"]))
            .prop_map(|(a, v)| (format!("toggle.{a}"), v.to_owned())),
        1 => (select(vec!["ease", "action-ease.horn", "action-ease.leave", "action-ease.map", "action-ease.fly"]),
              select(vec!["press", "latch", "hold-after", "shrug"]), select(vec!["true", "0.75", "99"]))
            .prop_map(|(a, e, v)| (format!("{a}.{e}"), v.to_owned())),
        1 => select(vec!["\"left\"", "\"pad\"", "\"gone\"", "7"])
            .prop_map(|v| ("preset".to_owned(), v.to_owned())),
        1 => select(vec!["2020-01-01", "[]", "{}"])
            .prop_map(|v| ("future.hats".to_owned(), v.to_owned())),
    ]
}

fn profile() -> impl Strategy<Value = Profile> {
    (proptest::collection::vec(line(), 0..9), 0..5_u32).prop_map(|(lines, version)| {
        let mut text = "format = 1\ntitle = \"Ada\"\n".to_owned();
        if version > 0 {
            text += &format!("sheet = {version}\n");
        }
        let mut known = BTreeSet::new();
        for (key, value) in lines {
            // One line a key; what lies inside another value is no TOML.
            let clashes = |k: &String| key.starts_with(k.as_str()) || k.starts_with(&key);
            if !known.iter().any(clashes) {
                text += &format!("{key} = {value}\n");
                known.insert(key);
            }
        }
        Profile::from_toml(&text).unwrap_or_else(|e| panic!("{e}\n{text}"))
    })
}

fn is_reserved(input: Input) -> bool {
    match input {
        Input::Key(place) => {
            matches!(place, Place::Escape | Place::MetaLeft | Place::MetaRight)
        }
        Input::Modifier(modifier) => modifier == Modifier::Meta,
        Input::PadStick(s) | Input::PadStickHalf(s, _) => s == Stick::RIGHT,
        _ => false,
    }
}

/// Whether some key of the layout works it.
fn can_be_worked(chord: &Chord, layout: &Layout) -> bool {
    chord.inputs().all(|i| match i {
        Input::Letter(letter) => layout.place_of(letter).is_some(),
        _ => true,
    })
}

/// What must hold of a rig, rule by rule.
fn is_lawful(sheet: &Sheet, preset: Option<&str>, rig: &Rig) -> Result<(), String> {
    let own = rig
        .bindings()
        .iter()
        .filter(|b| b.origin == Origin::Profile);
    for bound in own {
        let action = sheet.action(bound.cell.row.action).unwrap();
        let what = format!(
            "{} {} = {}",
            sheet.row_name(bound.cell.row),
            bound.cell.column,
            bound.chord
        );
        if action.fixed || action.off || bound.chord.inputs().any(is_reserved) {
            return Err(format!("{what} is in force"));
        }
        if ColumnKind::of(bound.chord.device_kind()) != bound.cell.column.kind() {
            return Err(format!("{what} stands in the wrong column"));
        }
        let kinds: BTreeSet<_> = (bound.chord.inputs())
            .map(|i| ColumnKind::of(i.device_kind()))
            .collect();
        let whole = matches!(bound.chord.input(), Input::PadStick(_) | Input::MouseMove);
        let plane = action.name == "walk" && bound.cell.row.arm.is_none();
        let touch = matches!(bound.chord.input(), Input::Touch(_));
        if kinds.len() != 1 || (whole != plane && !(touch && plane)) {
            return Err(format!("{what} cannot work it"));
        }
    }
    let must = [
        ("cast-off", vec![None], ColumnKind::Keyboard),
        ("cast-off", vec![None], ColumnKind::Gamepad),
        ("map", vec![None], ColumnKind::Keyboard),
        (
            "walk",
            Arm::ALL[..4].iter().map(|a| Some(*a)).collect(),
            ColumnKind::Keyboard,
        ),
        ("walk", vec![None], ColumnKind::Gamepad),
        ("map", vec![None], ColumnKind::Gamepad),
    ];
    let only_with_preset = 5;
    for (n, (name, arms, kind)) in must.iter().enumerate() {
        if n == only_with_preset && preset != Some("pad") {
            continue;
        }
        let id = sheet.find(name).unwrap();
        let has = |arm: Option<Arm>| {
            rig.bindings_of(Row { action: id, arm })
                .iter()
                .any(|b| b.cell.column.kind() == *kind && can_be_worked(&b.chord, rig.layout()))
        };
        let by_arms = || Arm::ALL[..4].iter().all(|a| has(Some(*a)));
        for arm in arms {
            if !(has(*arm) || has(None) || (*name == "walk" && by_arms())) {
                return Err(format!("{name} {arm:?} has no {kind} binding"));
            }
        }
    }
    Ok(())
}

/// What a profile says and does not have in force is told of.
fn is_told(sheet: &Sheet, profile: &Profile, rig: &Rig) -> Result<(), String> {
    let told = |s: &Setting| rig.not_in_force().iter().any(|n| n.setting == *s);
    for (setting, value) in profile.settings() {
        let in_force = match (setting, value) {
            (Setting::Title | Setting::Layout | Setting::Family, _) => true,
            (Setting::Preset, SettingValue::Text(name)) => sheet.preset(name).is_some(),
            (Setting::Bind { row, column }, value) => {
                let Some(cell) = sheet.find_row(row).map(|r| r.cell(*column)) else {
                    if !told(setting) {
                        return Err(format!("{setting} is not told of"));
                    }
                    continue;
                };
                // Where no key types a letter, another key may stand in, and that is told as well.
                if rig.notes().iter().any(|n| n.cell() == cell) {
                    continue;
                }
                let now = rig.binding_in(cell).map(|b| b.chord.clone());
                match value {
                    SettingValue::Chord(wanted) => now == *wanted,
                    SettingValue::GaveWay(to) => now.as_ref() != Some(to) || told(setting),
                    _ => false,
                }
            }
            (
                Setting::Parameter {
                    scope:
                        Scope {
                            action: Some(a),
                            on,
                        },
                    ..
                },
                _,
            ) => {
                let found = sheet.find(a).and_then(|id| sheet.action(id));
                found.is_some_and(|a| {
                    let eases = *on != ActsOn::Actions || a.ease;
                    !a.fixed && !a.off && eases
                })
            }
            (Setting::Parameter { .. }, _) => true,
            _ => false,
        };
        // A cell that looks the same may be told of all the same: a fixed one set to what it is.
        if !in_force && !told(setting) {
            return Err(format!("{setting} = {value} gave way untold"));
        }
    }
    Ok(())
}

fn settings(profile: &Profile) -> Vec<(Setting, SettingValue)> {
    let all = profile.settings();
    all.map(|(s, v)| (s.clone(), v.clone())).collect()
}

/// What comes down a road and what plays of it.
fn check(sheet: &Sheet, profile: &Profile, on: &Resolver) -> Result<(), TestCaseError> {
    let rig = Rig::new(sheet, profile, on);
    let preset = profile.preset();
    let fail = |why: String| TestCaseError::fail(format!("{why}\n{}", profile.to_toml()));
    is_lawful(sheet, preset, &rig).map_err(fail)?;
    is_told(sheet, profile, &rig).map_err(fail)?;
    for kind in DeviceKind::ALL {
        let own = sheet.actions().map(|(_, a)| Some(a.name.as_str()));
        for action in own.chain([None]) {
            prop_assert!(
                profile
                    .parameters(Scope::inputs(kind, action))
                    .check()
                    .is_ok()
            );
        }
    }
    // Read, played and written, every setting is still there.
    let text = profile.to_toml();
    let read = Profile::from_toml(&text).unwrap();
    prop_assert_eq!(settings(&read), settings(profile), "{}", text);
    prop_assert_eq!(read.to_toml(), text);
    Ok(())
}

#[derive(Clone, Debug)]
enum Edit {
    Bind(usize, usize, Settle),
    Unbind(usize),
    Reset(usize, u8),
    Preset(Option<&'static str>, bool),
    Feel(Option<&'static str>, f32),
    Toggle(&'static str, Option<bool>),
    Ease(Option<&'static str>, Option<bool>, Option<f32>),
    Layout(usize),
    Undo,
    Redo,
    Discard,
}

fn edit() -> impl Strategy<Value = Edit> {
    let names = vec!["cast-off", "leave", "crane", "walk", "hron"];
    let name = select(names);
    prop_oneof![
        6 => (any::<usize>(), any::<usize>(), select(Settle::ALL.to_vec()))
            .prop_map(|(c, k, s)| Edit::Bind(c, k, s)),
        4 => any::<usize>().prop_map(Edit::Unbind),
        3 => (any::<usize>(), 0..5_u8).prop_map(|(c, how)| Edit::Reset(c, how)),
        2 => (proptest::option::of(select(vec!["left", "pad", "gone"])), any::<bool>())
            .prop_map(|(p, keep)| Edit::Preset(p, keep)),
        2 => (proptest::option::of(name.clone()), select(vec![1.0, 2.0, f32::NAN, 1e30, -1.0]))
            .prop_map(|(a, v)| Edit::Feel(a, v)),
        2 => (name.clone(), proptest::option::of(any::<bool>())).prop_map(|(a, t)| Edit::Toggle(a, t)),
        2 => (proptest::option::of(name), proptest::option::of(any::<bool>()), proptest::option::of(select(vec![0.5_f32, 0.75, 99.0])))
            .prop_map(|(a, p, t)| Edit::Ease(a, p, t)),
        1 => (0..3_usize).prop_map(Edit::Layout),
        1 => Just(Edit::Undo),
        1 => Just(Edit::Redo),
        1 => Just(Edit::Discard),
    ]
}

const CELLS: [&str; 12] = [
    "cast-off keyboard-1",
    "cast-off keyboard-2",
    "cast-off gamepad-1",
    "horn keyboard-1",
    "leave keyboard-1",
    "crane keyboard-1",
    "map keyboard-1",
    "map gamepad-1",
    "walk gamepad-1",
    "walk.up keyboard-1",
    "walk.up keyboard-2",
    "walk.left gamepad-1",
];
const CHORDS: [&str; 14] = [
    "KeyG",
    "Space",
    "KeyW",
    "Escape",
    "Meta+KeyG",
    "letter:m",
    "letter:ж",
    "pad:south",
    "pad:stick-left",
    "pad:stick-left.left",
    "pad:stick-right.up",
    "mouse:move",
    "KeyG+pad:south",
    "pad:west",
];

/// Carries an edit out; `false` where it was refused.
fn carry_out(draft: &mut Draft, edit: &Edit) -> bool {
    let sheet = draft.sheet().clone();
    let at = |n: usize| -> Cell { cell(&sheet, CELLS[n % CELLS.len()]) };
    match *edit {
        Edit::Bind(c, k, settle) => {
            let mut next = draft.bind(at(c), chord(CHORDS[k % CHORDS.len()]));
            while let Ok(Bind::Asks(question)) = next {
                next = draft.answer(question, settle);
            }
            next.is_ok()
        }
        Edit::Unbind(c) => draft.unbind(at(c)).is_ok(),
        Edit::Reset(c, how) => {
            let row = at(c).row;
            let group = sheet.action(row.action).unwrap().group;
            let what = [
                Reset::Cell(at(c)),
                Reset::Action(row.action),
                Reset::Group(group),
                Reset::Devices(at(c).column.kind()),
                Reset::All,
            ];
            draft.reset(what[usize::from(how)]).is_ok()
        }
        Edit::Preset(name, keep) => {
            let mine = if keep {
                PlayersOwn::Keep
            } else {
                PlayersOwn::Replace
            };
            draft.choose_preset(name, mine).is_ok()
        }
        Edit::Feel(action, value) => {
            let scope = Scope::inputs(DeviceKind::Gamepad, action);
            draft
                .set_parameter(scope, Parameter::Sensitivity, value)
                .is_ok()
        }
        Edit::Toggle(action, Some(toggle)) => draft
            .set_parameter(action, Parameter::Toggle, toggle)
            .is_ok(),
        Edit::Toggle(action, None) => draft.reset_parameter(action, Parameter::Toggle).is_ok(),
        Edit::Ease(action, press, hold_after) => {
            let scope = Scope::actions(action);
            let mut eased = draft.profile().parameters(&scope);
            eased.set(Parameter::Press, press.map(Into::into));
            eased.set(Parameter::HoldAfter, hold_after.map(Into::into));
            let mut next = draft.set_parameters(scope, &eased);
            while let Ok(Bind::Asks(question)) = next {
                next = draft.answer(question, Settle::Take);
            }
            next.is_ok()
        }
        Edit::Layout(n) => {
            draft.set_layout(&layouts()[n]);
            true
        }
        Edit::Undo => draft.undo(),
        Edit::Redo => draft.redo(),
        Edit::Discard => {
            draft.discard();
            true
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(crate::common::worlds(600)) })]

    #[test]
    fn whatever_its_road_a_profile_plays_by_the_law(
        profile in profile(), other in profile(), base in profile(), layout in 0..3_usize,
    ) {
        let sheet = sheet();
        let on = Resolver::new(&layouts()[layout], Platform::Other);
        // From a file.
        check(&sheet, &profile, &on)?;
        // From a friend, through the locker.
        let locker = Locker::in_store(Memory::new());
        let name = locker.import(&profile.to_toml()).unwrap();
        let loaded = locker.load(&name).profile;
        prop_assert_eq!(settings(&loaded), settings(&profile));
        check(&sheet, &loaded, &on)?;
        // From two machines.
        let merged = Merged::new(&sheet, &base, (&profile, &other), Newer::Theirs, &on).profile;
        check(&sheet, &merged, &on)?;
        for (setting, value) in profile.settings() {
            let [b, t, m] = [&base, &other, &merged].map(|p| p.setting(setting));
            // What only this side knows or changed is still there, unless what the other side has
            // stands in its place in the file.
            let in_the_way = || {
                let path = setting.path();
                other.settings().any(|(s, _)| {
                    let p = s.path();
                    s != setting && (p.starts_with(&path) || path.starts_with(&p))
                })
            };
            let overruled = t != b && t != Some(value);
            prop_assert!(m == Some(value) || b == Some(value) || overruled || in_the_way(), "{} lost", setting);
        }
        // From an older version, a newer one, or this one.
        let carried = CarriedOver::new(&sheet, &profile, &on);
        check(&sheet, &carried.profile, &on)?;
        if profile.sheet_version() > Some(sheet.version()) {
            prop_assert_eq!(settings(&carried.profile), settings(&profile), "an older game carries nothing over");
        }
        let mut stamped = profile.clone();
        stamped.stamp(&sheet);
        prop_assert!(stamped.sheet_version() >= profile.sheet_version());
        // And again: once carried over there is nothing left to move.
        let again = CarriedOver::new(&sheet, &carried.profile, &on);
        prop_assert!(again.moved.is_empty(), "{:?}", again.moved);
    }

    #[test]
    fn no_edit_leaves_the_law_or_touches_what_it_is_not_about(
        profile in profile(), edits in proptest::collection::vec(edit(), 1..14),
    ) {
        let sheet = sheet();
        let on = Resolver::new(&Layout::us(), Platform::Other);
        let mut draft = Draft::new(&sheet, profile.clone(), &on);
        prop_assert_eq!(settings(&draft.profile()), settings(&profile));
        for edit in &edits {
            let (before, told) = (draft.profile(), draft.not_in_force().cloned().collect::<Vec<_>>());
            let done = carry_out(&mut draft, edit);
            let after = draft.profile();
            if !done {
                prop_assert_eq!(&settings(&after), &settings(&before), "refused is not done: {:?}", edit);
            }
            let rig = draft.rig();
            is_lawful(&sheet, after.preset(), &rig).map_err(TestCaseError::fail)?;
            is_told(&sheet, &after, &rig).map_err(TestCaseError::fail)?;
            // An edit brings nothing in that does not stand; taking back and another layout may.
            if !matches!(edit, Edit::Layout(_) | Edit::Undo | Edit::Redo | Edit::Discard) {
                for new in draft.not_in_force().filter(|n| !told.contains(n)) {
                    prop_assert!(false, "{:?} brought in {}", edit, new);
                }
            }
            // What the sheet does not know is never touched.
            for (setting, value) in profile.settings() {
                let unknown = match setting {
                    Setting::Unread { .. } => true,
                    other => other.action().is_some_and(|a| sheet.find(a).is_none()),
                };
                let replaced = after.settings().any(|(s, _)| {
                    let (p, own) = (s.path(), setting.path());
                    s != setting && (own.starts_with(&p) || p.starts_with(&own))
                });
                prop_assert!(!unknown || replaced || after.setting(setting) == Some(value), "{} lost by {:?}", setting, edit);
            }
            check(&sheet, &after, draft.resolver())?;
        }
    }
}

fn us() -> Resolver {
    Resolver::new(&Layout::us(), Platform::Other)
}

#[test]
fn a_late_answer_is_worked_out_anew_and_reverts_nothing() {
    let sheet = sheet();
    let mut draft = Draft::new(&sheet, Profile::new("Ada"), us());
    let (horn, up) = (
        cell(&sheet, "horn keyboard-1"),
        cell(&sheet, "walk.up keyboard-2"),
    );
    let Ok(Bind::Asks(late)) = draft.bind(horn, chord("KeyW")) else {
        panic!("KeyW is taken");
    };
    let taken = draft.bind(up, chord("KeyG"));
    assert!(matches!(taken, Ok(Bind::Done)));
    // The same conflict is still there: it is asked about again, on the draft as it is now.
    let Ok(Bind::Asks(again)) = draft.answer(late, Settle::Swap) else {
        panic!("it asks again");
    };
    assert_eq!(draft.chord_in(up), Some(&chord("KeyG")));
    assert!(matches!(draft.answer(again, Settle::Swap), Ok(Bind::Done)));
    assert_eq!(
        draft.chord_in(up),
        Some(&chord("KeyG")),
        "the edit in between stands"
    );
    assert_eq!(draft.chord_in(horn), Some(&chord("KeyW")));
}

#[test]
fn what_is_set_to_what_it_is_anyway_is_no_change() {
    let sheet = sheet();
    let mut draft = Draft::new(&sheet, Profile::new("Ada"), us());
    let pad = DeviceKind::Gamepad;
    let plain = Parameters::new()
        .with(Parameter::Sensitivity, 1.0)
        .with(Parameter::Curve, 1.0);
    draft.set_parameters(pad, &plain).map(drop).unwrap();
    draft
        .set_parameters(("walk", pad), &plain)
        .map(drop)
        .unwrap();
    draft
        .set_parameter("cast-off", Parameter::Toggle, false)
        .map(drop)
        .unwrap();
    draft.choose_preset(None, PlayersOwn::Keep).unwrap();
    assert!(
        !draft.is_changed() && !draft.can_undo(),
        "{:?}",
        draft.summary()
    );
    draft
        .set_parameter(pad, Parameter::Sensitivity, 2.0)
        .map(drop)
        .unwrap();
    assert!(draft.is_changed());
    draft.reset(Reset::Devices(ColumnKind::Gamepad)).unwrap();
    assert!(!draft.is_changed());
}

#[test]
fn a_new_default_gives_way_only_for_as_long_as_it_is_that_one() {
    let version = |n: u32, lamp: &str| {
        let text = format!(
            "game = \"x\"\nversion = {n}\n[actions.horn]\nbind = \"KeyH\"\n[actions.lamp]\nbind = \"{lamp}\""
        );
        Sheet::from_toml(&text).unwrap()
    };
    let (one, two, three) = (version(1, "KeyL"), version(2, "KeyG"), version(3, "KeyN"));
    let mut profile = Profile::new("Ada");
    profile.set(&one, cell(&one, "horn keyboard-1"), Some(chord("KeyG")));
    profile.stamp(&one);
    let carried = CarriedOver::new(&two, &profile, us());
    assert_eq!(carried.gave_way.len(), 1);
    let mut saved = Profile::from_toml(&carried.profile.to_toml()).unwrap();
    saved.stamp(&two);
    let lamp = |sheet: &Sheet, profile: &Profile| {
        let rig = Rig::new(sheet, profile, us());
        let cell = cell(sheet, "lamp keyboard-1");
        rig.binding_in(cell).map(|b| b.chord.to_string())
    };
    assert_eq!(lamp(&two, &saved), None);
    // A better default reaches the player, who never touched that action.
    let later = CarriedOver::new(&three, &saved, us());
    assert_eq!(lamp(&three, &later.profile).as_deref(), Some("KeyN"));
    // An older game carries nothing over, and the newer one finds its own again.
    let older = CarriedOver::new(&one, &saved, us());
    assert_eq!(older.profile, saved);
    let mut back = older.profile;
    back.stamp(&one);
    assert_eq!(back.sheet_version(), Some(2));
}

#[test]
fn a_preset_that_breaks_the_law_is_a_mistake_in_the_sheet() {
    let wrong = SHEET.replace(", keyboard-2 = \"KeyO\"", "");
    let said = Sheet::from_toml(&wrong).unwrap_err().to_string();
    assert!(
        said.contains("preset `left` leaves `cast-off` without a keyboard binding"),
        "{said}"
    );
}
