//! Newer sheets, other machines, other stores, other players: what the player chose goes along.

use crate::common::{cell, chord, demo, small, us};
use proptest::prelude::*;
use swap_knot::keep::Newer;
use swap_knot::remap::{CarriedOver, Merged, PlayersOwn, Reset, seat_conflicts};
use swap_knot::sheet::{Parameter, Parameters};
use swap_knot::{Bind, DeviceKind, Draft, Layout, Place, Profile, Rig, Settle, Sheet};

fn with(sheet: &Sheet, list: &[(&str, &str)]) -> Profile {
    let mut profile = Profile::new("Ada");
    for (at, input) in list {
        let input = (*input != "unbound").then(|| chord(input));
        profile.set(sheet, cell(sheet, at), input);
    }
    profile
}

#[test]
fn a_profile_follows_renamed_actions_and_new_defaults_give_way() {
    let old = small(
        "version = 1\n[actions.unmoor]\nbind = \"Space\"\n[actions.pump]\nbind = \"KeyP\"\n[actions.horn]\nbind = \"KeyH\"",
    );
    let new = small(
        "version = 2\nrenamed = { unmoor = \"cast-off\" }\nremoved = \"pump\"\n[actions.cast-off]\nbind = \"Space\"\n[actions.horn]\nbind = \"KeyH\"\n[actions.lamp]\nbind = \"KeyG\"\n[actions.map]\nessential = true\nbind = \"KeyN\"",
    );
    let mut profile = with(
        &old,
        &[
            ("unmoor keyboard-1", "KeyG"),
            ("pump keyboard-1", "KeyB"),
            ("horn keyboard-1", "KeyN"),
        ],
    );
    profile.stamp(&old);
    let report = CarriedOver::new(&new, &profile, &Layout::us());
    let carried = report.profile.clone();
    insta::assert_snapshot!(report.describe(&new).join("\n"), @r#"
    `unmoor` is called `cast-off` now
    `pump` is gone from the game; its bindings are kept aside
    "Lamp" gives up its default KeyG, which "Cast off" has
    conflict: `horn` and `map` are both on KeyN
    "#);
    let now = |at: &str| {
        let rig = Rig::new(&new, &carried, &Layout::us());
        rig.binding_in(cell(&new, at)).map(|b| b.chord.to_string())
    };
    assert_eq!(
        now("cast-off keyboard-1").as_deref(),
        Some("KeyG"),
        "the player's choice wins"
    );
    assert_eq!(now("lamp keyboard-1"), None);
    assert_eq!(
        now("map keyboard-1").as_deref(),
        Some("KeyN"),
        "essential: it keeps its binding"
    );
    // Nothing is lost: a version that knows the pump finds it.
    assert!(carried.to_toml().contains("[bind.pump]"));
    // Carried over once and saved, there is nothing more to tell but what is still open.
    let mut saved = carried.clone();
    saved.stamp(&new);
    let report = CarriedOver::new(&new, &saved, &Layout::us());
    assert_eq!(
        (report.profile, report.moved.len(), report.gave_way.len()),
        (saved, 0, 0)
    );
}

#[test]
fn the_demo_profiles_of_older_versions_are_carried_over() {
    let sheet = demo();
    let old = Profile::from_toml(include_str!("../../../../demo/profiles/old.toml")).unwrap();
    let report = CarriedOver::new(&sheet, &old, &Layout::us());
    let carried = report.profile.clone();
    assert_eq!((report.moved.len(), report.set_aside.len()), (1, 1));
    let rig = Rig::new(&sheet, &carried, &Layout::us());
    assert_eq!(
        rig.binding_in(cell(&sheet, "cast-off keyboard-1"))
            .unwrap()
            .chord,
        chord("KeyG")
    );
    let ada = Profile::from_toml(include_str!("../../../../demo/profiles/ada.toml")).unwrap();
    assert_eq!(CarriedOver::new(&sheet, &ada, &Layout::us()).profile, ada);
    assert!(Profile::from_toml(include_str!("../../../../demo/profiles/damaged.toml")).is_err());
}

#[test]
fn two_machines_merge_against_what_both_started_from() {
    let sheet = demo();
    let base = with(
        &sheet,
        &[("horn keyboard-1", "KeyN"), ("lantern keyboard-1", "KeyL")],
    );
    let ours = with(
        &sheet,
        &[("horn keyboard-1", "KeyB"), ("cast-off keyboard-1", "KeyG")],
    );
    let mut theirs = with(
        &sheet,
        &[
            ("horn keyboard-1", "unbound"),
            ("lantern keyboard-1", "KeyL"),
            ("photo keyboard-1", "F8"),
        ],
    );
    theirs
        .set_parameters("lantern", &Parameters::new().with(Parameter::Toggle, false))
        .unwrap();
    let (merged, overruled) = ours.merged(&base, &theirs, Newer::Theirs);
    let mut wanted = with(
        &sheet,
        &[
            ("horn keyboard-1", "unbound"),
            ("cast-off keyboard-1", "KeyG"),
            ("photo keyboard-1", "F8"),
        ],
    );
    wanted
        .set_parameters("lantern", &Parameters::new().with(Parameter::Toggle, false))
        .unwrap();
    assert_eq!(merged, wanted);
    let told: Vec<String> = overruled.iter().map(ToString::to_string).collect();
    assert_eq!(told, ["horn keyboard-1: unbound was kept and KeyB dropped"]);
}

#[test]
fn merging_tells_of_new_conflicts_and_locks_nobody_out() {
    let sheet = demo();
    let us = Layout::us();
    let base = Profile::new("Ada");
    // Each side is sound; together they meet on G.
    let ours = with(&sheet, &[("cast-off keyboard-1", "KeyG")]);
    let theirs = with(&sheet, &[("lantern keyboard-1", "KeyG")]);
    let merged = Merged::new(&sheet, &base, (&ours, &theirs), Newer::Ours, &us);
    let told: Vec<String> = merged
        .conflicts
        .iter()
        .map(|c| c.describe(&sheet))
        .collect();
    assert_eq!(
        told,
        ["`cast-off` and `lantern` are both on KeyG, in `deck`"]
    );
    assert!(merged.overruled.is_empty() && merged.not_in_force.is_empty());
    // One moved Cast off to the second column, the other had it there and took that away.
    let base = with(&sheet, &[("cast-off keyboard-2", "KeyG")]);
    let ours = with(
        &sheet,
        &[
            ("cast-off keyboard-1", "unbound"),
            ("cast-off keyboard-2", "KeyG"),
        ],
    );
    let theirs = with(&sheet, &[]);
    let merged = Merged::new(&sheet, &base, (&ours, &theirs), Newer::Theirs, &us);
    let told: Vec<String> = merged
        .not_in_force
        .iter()
        .map(ToString::to_string)
        .collect();
    assert_eq!(
        told,
        [
            "cast-off keyboard-1 = unbound is not in force: \"Cast off\" must keep a keyboard binding; bind it to something else first"
        ]
    );
    let rig = Rig::new(&sheet, &merged.profile, &us);
    let default = rig.binding_in(cell(&sheet, "cast-off keyboard-1"));
    assert_eq!(default.unwrap().chord, chord("Space"));
}

fn some_profile() -> impl Strategy<Value = Profile> {
    let at = [
        "horn keyboard-1",
        "lantern keyboard-1",
        "walk.up keyboard-1",
        "cast-off gamepad-2",
    ];
    let input = ["KeyN", "KeyB", "unbound"];
    let one = (
        proptest::sample::select(at.to_vec()),
        proptest::sample::select(input.to_vec()),
    );
    proptest::collection::vec(one, 0..5).prop_map(|list| {
        let sheet = demo();
        let fits: Vec<_> = list
            .into_iter()
            .filter(|(at, i)| !at.contains("gamepad") || *i == "unbound")
            .collect();
        with(&sheet, &fits)
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(256)))]

    #[test]
    fn merging_takes_changes_from_both_sides_and_tells_what_it_drops(
        base in some_profile(), ours in some_profile(), theirs in some_profile(),
    ) {
        let sheet = demo();
        prop_assert_eq!(&ours.merged(&base, &ours, Newer::Theirs).0, &ours);
        prop_assert_eq!(&ours.merged(&base, &base, Newer::Theirs).0, &ours);
        prop_assert_eq!(&base.merged(&base, &theirs, Newer::Ours).0, &theirs);
        let (one, told) = ours.merged(&base, &theirs, Newer::Ours);
        let (other, told_other) = theirs.merged(&base, &ours, Newer::Theirs);
        prop_assert_eq!(&one, &other, "it does not matter on which machine");
        prop_assert_eq!(told.len(), told_other.len());
        // For the sheet: whatever both did, every new conflict is told and nobody is locked out.
        let us = Layout::us();
        let merged = Merged::new(&sheet, &base, (&ours, &theirs), Newer::Ours, &us);
        let open = |profile: &Profile| {
            let all = Draft::new(&sheet, profile.clone(), &us).conflicts().to_vec();
            all.into_iter().filter(|c| c.class.is_conflict()).collect::<Vec<_>>()
        };
        let known = [open(&ours), open(&theirs), merged.conflicts.clone()].concat();
        for conflict in open(&merged.profile) {
            prop_assert!(known.contains(&conflict), "{}", conflict.describe(&sheet));
        }
        for b in sheet.defaults() {
            let get = |p: &Profile| p.get(&sheet, b.cell).map(|c| c.cloned());
            let (was, a, t, m) = (get(&base), get(&ours), get(&theirs), get(&one));
            let wanted = if a == was { t } else { a };
            prop_assert_eq!(m, wanted);
        }
    }
}

#[test]
fn rows_tell_by_themselves_what_changed_and_inputs_are_found() {
    let sheet = demo();
    let mut draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
    let columns = draft.columns();
    let before = draft.rows(&columns);
    assert_eq!(draft.rows(&columns), before);
    let Ok(Bind::Asks(question)) = draft.bind(cell(&sheet, "cast-off keyboard-1"), chord("KeyF"))
    else {
        panic!("KeyF is taken");
    };
    let _ = draft.answer(question, Settle::Swap).unwrap();
    assert_eq!(draft.columns(), columns);
    let after = draft.rows(&columns);
    assert_eq!(after.len(), before.len());
    let changed = after.iter().zip(&before).filter(|(new, old)| new != old);
    let names: Vec<String> = changed.map(|(r, _)| sheet.row_name(r.row)).collect();
    assert_eq!(names, ["cast-off", "lantern"]);
    draft.reset(Reset::All).unwrap();
    assert_eq!(draft.rows(&columns), before);
    let on = |text: &str| {
        draft
            .cells_on(&chord(text))
            .iter()
            .map(|c| sheet.row_name(c.row))
            .collect::<Vec<_>>()
    };
    assert_eq!(
        on("KeyM"),
        ["map-table"],
        "a letter is found by the key that types it"
    );
    assert_eq!(on("Ctrl+Digit1"), ["stow-1"]);
    assert_eq!(on("Digit1"), ["stow-1"]);
}

#[test]
fn drafts_add_move_and_tell_in_words() {
    let sheet = demo();
    let mut draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::shipped("fr").unwrap());
    let horn = sheet.find_row("horn").unwrap();
    assert!(matches!(
        draft.bind_further(horn, Place::KeyQ.into()),
        Ok(Bind::Done)
    ));
    draft
        .choose_preset(Some("left-handed"), PlayersOwn::Keep)
        .unwrap();
    draft
        .set_parameter("lantern", Parameter::Toggle, false)
        .map(drop)
        .unwrap();
    draft
        .set_parameter(DeviceKind::Gamepad, Parameter::Sensitivity, 1.5)
        .map(drop)
        .unwrap();
    insta::assert_snapshot!(draft.summary().join("\n"), @"
    Walk to port: J (was Q)
    Walk to starboard: L (was D)
    Walk to the stern: K (was S)
    Walk to the bow: I (was Z)
    Hurry: Right Shift (was Left Shift)
    Coil the rope: U (was E)
    Map table: Tab (was M)
    Horn: A (was not set)
    Preset: Left-handed (was none)
    Everything: Sensitivity (gamepad): 1.5 (was 1)
    Lantern: Press once for on, again for off: off (was on)
    ");
    while draft.undo() {}
    assert_eq!(draft.summary(), [""; 0]);
}

#[test]
fn two_players_at_one_keyboard_are_told_where_they_meet() {
    let sheet = demo();
    let mut deckhand = Profile::new("deckhand");
    deckhand.set_preset(Some("deckhand"));
    let other = Rig::new(&sheet, &deckhand, &Layout::us());
    let all = seat_conflicts(&us(&sheet), &other);
    let text: Vec<String> = all.iter().map(|c| c.describe(&sheet)).collect();
    assert!(text.contains(&"`walk.up` of one player is on ArrowUp and `walk.up` of the other on ArrowUp, on one keyboard".to_owned()));
    assert!(all.iter().all(|c| c.class.is_conflict()));
    // The mouse belongs to one of them, and pads are each their own.
    assert!(
        text.iter()
            .all(|t| !t.contains("mouse:") && !t.contains("pad:"))
    );
}
