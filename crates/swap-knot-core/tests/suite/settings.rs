//! The settings beside the bindings: the table, the files that say them, and which of all that say one is
//! in force, beside a plain model of that.

use proptest::prelude::*;
use swap_knot::input::TouchName;
use swap_knot::keep::Setting;
use swap_knot::play::Origin;
use swap_knot::remap::{PlayersOwn, Reset};
use swap_knot::sheet::{
    ActsOn, BadSetting, DeadZone, DeadZoneForm, Parameter, ParameterValue, Parameters, Scope,
};
use swap_knot::{Bind, DeviceKind, Draft, Layout, Profile, Rig, Sheet};

use crate::common::small;

const PAD: ActsOn = ActsOn::Inputs(DeviceKind::Gamepad);

fn zone() -> TouchName {
    "horn".parse().unwrap()
}

/// One of each that a setting can act on.
fn everything() -> Vec<ActsOn> {
    let kinds = DeviceKind::ALL.map(ActsOn::Inputs).into_iter();
    kinds
        .chain([ActsOn::Actions, ActsOn::Zone(zone())])
        .collect()
}

/// Other values than the usual one, among them the bounds.
fn samples(parameter: Parameter) -> Vec<ParameterValue> {
    let Some(range) = parameter.range() else {
        return match parameter {
            Parameter::Invert => vec![[true, false, true].into(), [false, true, false].into()],
            _ => vec![true.into(), false.into()],
        };
    };
    let zones = |inner| {
        let (outer, form) = (1.0, DeadZoneForm::Axis);
        DeadZone { inner, outer, form }.into()
    };
    let numbers = [*range.start(), 0.6, *range.end()];
    match parameter {
        Parameter::DeadZone => numbers.map(zones).to_vec(),
        _ => numbers_of(parameter, &numbers),
    }
}

fn numbers_of(parameter: Parameter, numbers: &[f32]) -> Vec<ParameterValue> {
    let of = |n: &f32| {
        Parameters::new()
            .with(parameter, *n)
            .get(parameter)
            .unwrap()
    };
    numbers.iter().map(of).collect()
}

#[test]
fn every_setting_acts_on_one_thing_and_takes_what_it_usually_is() {
    for parameter in Parameter::ALL {
        let fits: Vec<ActsOn> = (everything().into_iter())
            .filter(|on| parameter.fits(*on))
            .collect();
        let kinds = fits.iter().filter(|on| matches!(on, ActsOn::Inputs(_)));
        assert!(
            fits.len() == 1 || kinds.count() == DeviceKind::ALL.len(),
            "{parameter}"
        );
        for on in fits {
            let usual = parameter.usual(on);
            assert_eq!(parameter.check(usual), Ok(()), "{parameter}");
            for part in parameter.parts() {
                assert_eq!(usual.with(*part, usual.number(*part)), usual, "{parameter}");
            }
        }
        for value in samples(parameter) {
            assert_eq!(parameter.check(value), Ok(()), "{parameter} {value}");
            // A part that is set to what it is leaves the others as they are.
            for part in parameter.parts() {
                assert_eq!(value.with(*part, value.number(*part)), value, "{parameter}");
            }
        }
        let Some(range) = parameter.range() else {
            continue;
        };
        for wild in [
            range.start() - 0.01,
            range.end() + 0.01,
            f32::NAN,
            f32::INFINITY,
        ] {
            let value = samples(parameter)[0].with(parameter.parts()[0], wild);
            let refused = parameter.check(value).unwrap_err();
            assert!(
                matches!(refused, BadSetting::OutOfRange { .. }),
                "{refused}"
            );
        }
    }
    let mut profile = Profile::default();
    let set = Parameters::new().with(Parameter::Size, 2.0);
    let why = profile.set_parameters("horn", &set).unwrap_err();
    assert_eq!(why.to_string(), "size is nothing that can be set there");
    let set = Parameters::new().with(Parameter::Latch, 2.0);
    let why = profile.set_parameters("horn", &set).unwrap_err();
    assert_eq!(
        why.to_string(),
        "latch cannot be 2; it wants another kind of value"
    );
    assert_eq!(profile, Profile::default());
}

#[test]
fn a_profile_keeps_every_setting_of_every_scope() {
    for parameter in Parameter::ALL {
        for on in everything().into_iter().filter(|on| parameter.fits(*on)) {
            let of_one = (!matches!(on, ActsOn::Zone(_))).then_some("horn");
            for action in [None, of_one] {
                let scope = Scope::new(on, action);
                for value in samples(parameter) {
                    let mut profile = Profile::default();
                    let set = Parameters::new().with(parameter, value);
                    profile.set_parameters(&scope, &set).unwrap();
                    let text = profile.to_toml();
                    let read = Profile::from_toml(&text).unwrap();
                    assert_eq!(read.parameters(&scope), set, "{text}");
                    assert_eq!(read, profile, "{text}");
                    assert_eq!(profile.settings().count(), 1);
                }
            }
        }
    }
}

/// What is written for a setting, wherever it stands.
const SAID: [(&str, Option<DeadZone>); 5] = [
    (
        "dead-zone = 0.25",
        Some(DeadZone {
            inner: 0.25,
            outer: 1.0,
            form: DeadZoneForm::Round,
        }),
    ),
    (
        "dead-zone = { outer = 0.9 }",
        Some(DeadZone {
            inner: 0.0,
            outer: 0.9,
            form: DeadZoneForm::Round,
        }),
    ),
    ("dead-zone = { inner = 0.5, outer = 0.4 }", None),
    ("dead-zone = { inner = 0.5, outre = 0.9 }", None),
    ("dead-zone = \"wide\"", None),
];

#[test]
fn whatever_form_one_file_takes_the_others_take() {
    for (said, wanted) in SAID {
        let sheet =
            |head: &str| Sheet::from_toml(&format!("game = \"x\"\n[actions.horn]\n{head}\n{said}"));
        let text = format!("format = 1\n[feel.gamepad]\n{said}");
        let profile = Profile::from_toml(&text).unwrap();
        let of_profile = profile
            .parameters(DeviceKind::Gamepad)
            .get(Parameter::DeadZone);
        assert_eq!(of_profile, wanted.map(Into::into), "{text}");
        // What is not understood is kept.
        let written: toml::Table = profile.to_toml().parse().unwrap();
        let kept = &written["feel"]["gamepad"]["dead-zone"];
        assert_eq!(
            kept.is_table(),
            wanted.is_some() || said.contains('{'),
            "{text}"
        );
        let game = sheet("[feel.gamepad]");
        let preset = sheet("[presets.p.feel.gamepad]");
        let action = sheet("[actions.horn.feel.gamepad]");
        assert_eq!(game.is_ok(), wanted.is_some(), "{said}");
        assert_eq!(preset.is_ok(), wanted.is_some(), "{said}");
        assert_eq!(action.is_ok(), wanted.is_some(), "{said}");
        let (Ok(game), Ok(preset), Ok(action)) = (game, preset, action) else {
            continue;
        };
        let of = |set: &Parameters| set.get(Parameter::DeadZone);
        assert_eq!(of(game.settings().of(PAD)), of_profile);
        let horn = action.action(action.find("horn").unwrap()).unwrap();
        assert_eq!(of(horn.settings.of(PAD)), of_profile);
        assert_eq!(
            of(&preset.presets()[0].settings[&DeviceKind::Gamepad.into()]),
            of_profile
        );
    }
    // A setting has one place: elsewhere it is not understood, kept, and written back where it stood.
    let text = "format = 1\n[action-ease.horn]\ntoggle = true\n";
    let elsewhere = Profile::from_toml(text).unwrap();
    assert!(elsewhere.parameters("horn").is_empty());
    assert!(
        elsewhere
            .to_toml()
            .contains("[action-ease.horn]\ntoggle = true")
    );
    let axes = Profile::from_toml("format = 1\n[feel.mouse]\ninvert = true").unwrap();
    assert_eq!(
        axes.parameters(DeviceKind::Mouse).get(Parameter::Invert),
        Some([true; 3].into())
    );
}

#[test]
fn what_a_preset_says_wrong_is_told_with_its_place() {
    let text = "game = \"x\"\n[actions.horn]\n[actions.drum]\nease = false\n\
        [presets.p]\nlatch = true\n\
        toggle = { horm = true }\n\
        ease = { latch = 1 }\n\
        action-ease.drum = { press = true }\n\
        action-ease.horn = { toggle = true }\n\
        action-feel.horn.mouse = { sensitivity = 0 }\n\
        touch.HORN = { x = 0 }\n\
        touch.horn = { x = 2 }";
    let told = Sheet::from_toml(text).unwrap_err().to_string();
    insta::assert_snapshot!(told, @r"
    sheet:6:1: preset `p` has no key `latch`; it can have `action-ease`, `action-feel`, `bind`, `ease`, `feel`, `title`, `toggle`, `touch`
    sheet:7:12: there is no action `horm`; did you mean `horn`?
    sheet:8:18: `latch` wants true or false, not this integer
    sheet:9:13: `drum` says `ease = false`, so that a player cannot choose this either
    sheet:10:20: whether one action toggles is said by `toggle.horn`
    sheet:11:42: `sensitivity` wants a number from 0.01 to 100; 0 is not
    sheet:12:7: a touch name has 1 to 22 lower-case letters, digits or hyphens
    sheet:13:20: `x` wants a number from -1 to 1; 2 is not
    ");
}

/// What has a say, from the first to the last: the game for all, the game for the action, the preset, the
/// player.
#[derive(Clone, Debug)]
struct World {
    is_press: bool,
    eases: bool,
    has_preset: bool,
    said: [[Option<ParameterValue>; 3]; 6],
}

/// The settings that the world is about, with what they act on.
const ABOUT: [(Parameter, ActsOn); 3] = [
    (Parameter::Sensitivity, PAD),
    (Parameter::Toggle, ActsOn::Actions),
    (Parameter::HoldAfter, ActsOn::Actions),
];

impl World {
    fn any() -> impl Strategy<Value = World> {
        let number = prop_oneof![
            Just(None),
            (1..40_u8).prop_map(|n| Some(f32::from(n) / 20.0))
        ];
        let flag = proptest::option::of(any::<bool>());
        let layer = (number.clone(), flag, number).prop_map(|(sensitivity, toggle, hold)| {
            [
                sensitivity.map(ParameterValue::Number),
                toggle.map(ParameterValue::Flag),
                hold.map(ParameterValue::Seconds),
            ]
        });
        let layers = [(); 6].map(|()| layer.clone());
        let flags = (any::<bool>(), any::<bool>(), any::<bool>());
        (flags, layers).prop_map(|((is_press, eases, has_preset), said)| World {
            is_press,
            eases,
            has_preset,
            said,
        })
    }

    /// The design, sentence by sentence: the last one that says something has its way. What is said of all
    /// actions does not toggle a press; a player, and the preset that they chose, ease nothing that the
    /// game says is not to be eased.
    fn in_force(&self, n: usize) -> ParameterValue {
        let (parameter, on) = ABOUT[n];
        let said = self.counts(n);
        said.last().map_or(parameter.usual(on), |(_, value)| *value)
    }

    fn last_word(&self, n: usize) -> Origin {
        match self.counts(n).last() {
            Some((4 | 5, _)) => Origin::Profile,
            Some((2 | 3, _)) => Origin::Preset,
            _ => Origin::Default,
        }
    }

    /// The layers that count and say something, with what they say.
    fn counts(&self, n: usize) -> Vec<(usize, ParameterValue)> {
        let (parameter, on) = ABOUT[n];
        let mut is = Vec::new();
        for (layer, said) in self.said.iter().enumerate() {
            let (is_games, is_presets) = (layer < 2, layer == 2 || layer == 3);
            let is_of_all = layer % 2 == 0;
            let counts = (is_games || self.eases || on != ActsOn::Actions)
                && (!is_presets || self.has_preset)
                && !(is_of_all && self.is_press && parameter == Parameter::Toggle);
            if let (true, Some(value)) = (counts, said[n]) {
                is.push((layer, value));
            }
        }
        is
    }

    fn line(value: Option<ParameterValue>, key: &str) -> String {
        let text = match value {
            Some(ParameterValue::Seconds(n) | ParameterValue::Number(n)) => n.to_string(),
            Some(value) => value.to_string(),
            None => return String::new(),
        };
        format!("{key} = {text}\n")
    }

    fn sheet(&self) -> Sheet {
        let [all, own, preset, preset_own, ..] = &self.said;
        let shape = if self.is_press { "press" } else { "pull" };
        let line = World::line;
        // Nothing eases by a preset what the game says is not to be eased: that is a mistake there.
        let eased_own = match self.eases {
            true => format!(
                "[presets.p.toggle]\n{}[presets.p.action-ease.haul]\n{}",
                line(preset_own[1], "haul"),
                line(preset_own[2], "hold-after"),
            ),
            false => String::new(),
        };
        small(&format!(
            "{}{}[feel.gamepad]\n{}[actions.haul]\nshape = \"{shape}\"\nease = {}\nbind = \"pad:trigger-right\"\n{}{}\
             [actions.haul.feel.gamepad]\n{}[presets.p]\n[presets.p.feel.gamepad]\n{}[presets.p.ease]\n{}{}\
             [presets.p.action-feel.haul.gamepad]\n{}{eased_own}",
            line(all[1], "toggle"),
            line(all[2], "hold-after"),
            line(all[0], "sensitivity"),
            self.eases,
            line(own[1], "toggle"),
            line(own[2], "hold-after"),
            line(own[0], "sensitivity"),
            line(preset[0], "sensitivity"),
            line(preset[1], "toggle"),
            line(preset[2], "hold-after"),
            line(preset_own[0], "sensitivity"),
        ))
    }

    fn profile(&self) -> Profile {
        let mut profile = Profile::default();
        profile.set_preset(self.has_preset.then_some("p"));
        for (layer, action) in [(4, None), (5, Some("haul"))] {
            for (n, (parameter, on)) in ABOUT.into_iter().enumerate() {
                let scope = Scope::new(on, action);
                let mut set = profile.parameters(&scope);
                set.set(parameter, self.said[layer][n]);
                profile.set_parameters(&scope, &set).unwrap();
            }
        }
        profile
    }
}

proptest! {
    #![proptest_config(ProptestConfig {
        failure_persistence: None,
        ..ProptestConfig::with_cases(crate::common::worlds(2000))
    })]

    #[test]
    fn the_last_one_who_says_something_has_their_way(world in World::any()) {
        let (sheet, profile) = (world.sheet(), world.profile());
        let draft = Draft::new(&sheet, profile.clone(), Layout::us());
        let haul = sheet.find("haul").unwrap();
        let feel = draft.feel(Some(haul), DeviceKind::Gamepad);
        let easing = draft.easing(Some(haul));
        for (n, (parameter, on)) in ABOUT.into_iter().enumerate() {
            let wanted = world.in_force(n);
            let is = draft.parameter(Scope::new(on, Some("haul")), parameter);
            prop_assert_eq!(is, wanted, "{}", parameter);
            let is = feel.get(parameter).or(easing.get(parameter));
            prop_assert_eq!(is, Some(wanted), "{}", parameter);
        }
        // What plays is what is told: the manner and the times of a binding come from there.
        let rig = Rig::new(&sheet, &profile, Layout::us());
        let bound = rig.bindings_of_action(haul)[0].clone();
        prop_assert_eq!(bound.easing, easing);
        // Who set it last is told, and resetting everything leaves the game's.
        for row in draft.settings_of(haul) {
            let Setting::Parameter { scope, parameter } = &row.setting else { continue };
            let n = ABOUT.iter().position(|(p, _)| p == parameter).unwrap();
            prop_assert_eq!(row.origin, world.last_word(n), "{}", scope.on == PAD);
        }
        let mut draft = draft;
        draft.reset(Reset::All).unwrap();
        let bare = Draft::new(&sheet, Profile::default(), Layout::us());
        prop_assert_eq!(draft.easing(Some(haul)), bare.easing(Some(haul)));
        prop_assert_eq!(draft.feel(Some(haul), DeviceKind::Gamepad), bare.feel(Some(haul), DeviceKind::Gamepad));
    }
}

#[test]
fn a_preset_is_chosen_over_what_the_player_set() {
    let sheet = small(
        "[actions.walk]\nshape = \"plane\"\nup.bind = \"KeyW\"\nbind = \"pad:stick-left\"\n\
         [presets.easy.ease]\ntoggle = true\n[presets.easy.feel.gamepad]\ndead-zone = 0.4",
    );
    let set = |mine: PlayersOwn| {
        let mut draft = Draft::new(&sheet, Profile::default(), Layout::us());
        let done = draft
            .set_parameter("walk", Parameter::Toggle, true)
            .unwrap();
        assert!(matches!(done, Bind::Done));
        // That the player has it anyway is no reason to forget it: another preset may say otherwise.
        let done = draft
            .set_parameter(DeviceKind::Gamepad, Parameter::Curve, 2.0)
            .unwrap();
        assert!(matches!(done, Bind::Done));
        assert!(draft.has_own_over_preset(Some("easy")));
        assert!(!draft.has_own_over_preset(None));
        draft.choose_preset(Some("easy"), mine).unwrap();
        draft
    };
    let (keep, replace) = (set(PlayersOwn::Keep), set(PlayersOwn::Replace));
    let own = |draft: &Draft| draft.profile().parameters("walk").get(Parameter::Toggle);
    assert_eq!((own(&keep), own(&replace)), (Some(true.into()), None));
    for draft in [keep, replace] {
        let walk = sheet.find("walk");
        assert!(draft.easing(walk).toggle);
        let feel = draft.feel(walk, DeviceKind::Gamepad);
        assert_eq!((feel.dead_zone.inner, feel.curve), (0.4, 2.0));
    }
}

/// What makes no difference to an action is not told as one of its settings.
#[test]
fn what_bears_on_nothing_is_not_listed() {
    let sheet = small(
        "hold-after = 1\n[feel.keyboard]\ndead-zone = 0.3\nramp-up = 0.2\n[feel.gamepad]\ncurve = 2\nthreshold = 0.7\n\
         [actions.walk]\nshape = \"plane\"\nup.bind = \"KeyW\"\nbind = \"pad:stick-left\"\n[actions.horn]\nbind = [\"KeyH\", \"pad:south\"]",
    );
    let draft = Draft::new(&sheet, Profile::default(), Layout::us());
    let told = |name: &str| {
        let rows = draft.settings_of(sheet.find(name).unwrap());
        let rows = rows.into_iter().map(|row| row.setting.to_string());
        rows.collect::<Vec<String>>()
    };
    assert_eq!(
        told("walk"),
        [
            "ramp-up of walk on keyboard",
            "curve of walk on gamepad",
            "threshold of walk on gamepad",
        ]
    );
    assert_eq!(told("horn"), ["threshold of horn on gamepad"]);
}
