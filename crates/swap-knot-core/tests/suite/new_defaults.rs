//! A game that changes its defaults, and what becomes of what players set: nothing is written over, whatever
//! the number of the sheet, and what gives way is told once.

use crate::common::{chord, small, us};
use proptest::prelude::*;
use swap_knot::keep::{Setting, SettingValue};
use swap_knot::remap::CarriedOver;
use swap_knot::{Layout, Profile, Rig, Sheet};

fn of(profile: &str, sheet: &Sheet) -> CarriedOver {
    CarriedOver::new(sheet, &Profile::from_toml(profile).unwrap(), Layout::us())
}

#[test]
fn what_is_set_and_not_in_force_is_not_written_over() {
    let version = |head: &str, jump: &str| {
        small(&format!(
            "version = 2\n{head}[actions.jump]\n{jump}bind = \"KeyH\"\n[actions.duck]\nbind = \"KeyC\"\n"
        ))
    };
    // The player's jump is on a key that the new sheet reserves, and on jump's default lies something else
    // of the player's.
    for (head, jump, set) in [
        ("reserved = \"Escape\"\n", "", "Escape"),
        ("", "essential = true\n", "unbound"),
        ("", "fixed = true\n", "KeyK"),
    ] {
        let sheet = version(head, jump);
        let profile = format!(
            "format = 1\nsheet = 1\n[bind.jump]\nkeyboard-1 = \"{set}\"\n[bind.duck]\nkeyboard-1 = \"KeyH\""
        );
        let carried = of(&profile, &sheet);
        let text = carried.profile.to_toml();
        assert!(text.contains(&format!("keyboard-1 = \"{set}\"")), "{text}");
        assert!(!text.contains("gave-way"), "{text}");
        assert_eq!(carried.gave_way, []);
        // Both lie on one key, and that is told; what is not in force is told as well, once each.
        assert_eq!(
            (carried.open.len(), carried.not_in_force.len()),
            (1, 1),
            "{set}"
        );
        let again = CarriedOver::new(&sheet, &carried.profile, Layout::us());
        assert_eq!(again, carried, "{set}");
    }
}

#[test]
fn a_new_default_gives_way_whether_or_not_the_number_was_raised() {
    let sheet = |default: &str, version: u32| {
        small(&format!(
            "version = {version}\n[actions.map]\nbind = \"{default}\"\n[actions.horn]\nbind = \"KeyH\""
        ))
    };
    let mut profile = Profile::new("Ada");
    let old = sheet("KeyM", 3);
    profile.set(&old, old.defaults()[1].cell, Some(chord("KeyT")));
    profile.stamp(&old);
    // From a file, as it comes back.
    let profile = Profile::from_toml(&profile.to_toml()).unwrap();
    assert!(CarriedOver::new(&old, &profile, us_layout()).is_empty());
    for version in [3, 4] {
        let new = sheet("KeyT", version);
        let carried = CarriedOver::new(&new, &profile, us_layout());
        let told: Vec<String> = carried.gave_way.iter().map(ToString::to_string).collect();
        assert_eq!(
            told,
            ["\"Map\" gives up its default KeyT, which \"Horn\" has"]
        );
        let rig = Rig::new(&new, &carried.profile, us_layout());
        assert_eq!(rig.bindings_of_action(new.find("map").unwrap()), []);
        // Saved under it, there is nothing more to tell.
        let mut kept = carried.profile.clone();
        kept.stamp(&new);
        assert!(CarriedOver::new(&new, &kept, us_layout()).is_empty());
        // A better default still reaches the player.
        let better = sheet("KeyN", version);
        let carried = CarriedOver::new(&better, &kept, us_layout());
        assert!(carried.gave_way.is_empty());
        let rig = Rig::new(&better, &carried.profile, us_layout());
        let map = rig.bindings_of_action(better.find("map").unwrap());
        assert_eq!(map[0].chord, chord("KeyN"));
    }
    // A newer game's profile is the newer game's to look at.
    let carried = CarriedOver::new(&sheet("KeyT", 2), &profile, us_layout());
    assert!(carried.gave_way.is_empty() && carried.profile == profile);
    let _ = us(&old);
}

fn us_layout() -> Layout {
    Layout::us()
}

const KEYS: [&str; 6] = ["KeyA", "KeyB", "KeyC", "KeyD", "Escape", "unbound"];

/// Four actions with a default each, some of them essential or fixed, one key reserved or none; and what a
/// player set.
type World = ([usize; 4], [u8; 4], bool, [Option<usize>; 4]);

fn world() -> impl Strategy<Value = World> {
    (
        [0..4_usize, 0..4, 0..4, 0..4].prop_map(|a| a),
        [0..4_u8, 0..4, 0..4, 0..4].prop_map(|a| a),
        any::<bool>(),
        [(); 4].map(|()| proptest::option::of(0..KEYS.len())),
    )
}

proptest! {
    #![proptest_config(ProptestConfig {
        failure_persistence: None,
        ..ProptestConfig::with_cases(crate::common::worlds(4000))
    })]

    #[test]
    fn nothing_writes_over_what_a_player_set_and_a_second_time_changes_nothing(
        (defaults, kinds, reserves, set) in world()
    ) {
        let mut text = String::from("version = 2\n");
        if reserves {
            text += "reserved = \"Escape\"\n";
        }
        for n in 0..4 {
            let kind = match kinds[n] {
                1 => "essential = true\n",
                2 => "fixed = true\n",
                _ => "",
            };
            text += &format!("[actions.a{n}]\n{kind}bind = \"{}\"\n", KEYS[defaults[n]]);
        }
        let sheet = small(&text);
        let mut file = String::from("format = 1\nsheet = 1\n");
        for (n, key) in set.iter().enumerate() {
            if let Some(key) = key {
                file += &format!("[bind.a{n}]\nkeyboard-1 = \"{}\"\n", KEYS[*key]);
            }
        }
        let profile = Profile::from_toml(&file).unwrap();
        let carried = CarriedOver::new(&sheet, &profile, Layout::us());
        for (setting, value) in profile.settings() {
            prop_assert_eq!(carried.profile.setting(setting), Some(value), "{}", text);
        }
        // What is new there is told, one for one.
        let new = carried.profile.settings().filter(|(s, _)| profile.setting(s).is_none());
        let new: Vec<(Setting, SettingValue)> = new.map(|(s, v)| (s.clone(), v.clone())).collect();
        prop_assert!(new.iter().all(|(_, v)| matches!(v, SettingValue::GaveWay(_))));
        prop_assert_eq!(new.len(), carried.gave_way.len());
        // Every conflict between a choice of the player's and what is none is told.
        let rig = Rig::new(&sheet, &carried.profile, Layout::us());
        let own = |n: usize| {
            let id = sheet.find(&format!("a{n}")).unwrap();
            let bound = rig.bindings_of_action(id).first()?;
            Some((bound.chord.clone(), bound.origin == swap_knot::play::Origin::Profile))
        };
        let mut met = 0;
        for a in 0..4 {
            for b in 0..a {
                if let (Some((x, of_a)), Some((y, of_b))) = (own(a), own(b)) {
                    met += usize::from(x == y && of_a != of_b);
                }
            }
        }
        prop_assert_eq!(carried.open.len(), met, "{}\n{}\n{:?}", text, file, carried);
        let again = CarriedOver::new(&sheet, &carried.profile, Layout::us());
        prop_assert_eq!(&again.profile, &carried.profile, "{}\n{}", text, file);
        prop_assert!(again.gave_way.is_empty());
        prop_assert_eq!(again.open, carried.open);
    }
}
