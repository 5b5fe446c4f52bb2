//! What mods add to a sheet, and what they cannot do to it.

use crate::common::demo;
use swap_knot::input::Simulated;
use swap_knot::sheet::SheetError;
use swap_knot::{Actions, Bind, Draft, Layout, Place, Profile, Rig, Seat, Sheet};

#[derive(Clone, Copy, Actions)]
enum Do {
    Horn,
    Menu,
}

const GAME: &str = r#"
    game = "slack-water"
    reserved = ["F12", "Meta"]
    [situations.deck]
    [actions.horn]
    situation = "deck"
    bind = "KeyH"
    [actions.menu]
    bind = "Escape"
    fixed = true
    essential = true
"#;

const FOG: &str = r#"
    [situations.fog-bank]
    over = "deck"
    [groups]
    fog-things = "In the fog"
    [actions.fog-whistle]
    group = "fog-things"
    situation = "deck"
    bind = ["KeyJ", "pad:north"]
    [actions.fog-lamp]
    situation = "fog-bank"
    bind = "KeyL"
    share = "fog-whistle"
    [presets.fog-lamps]
    bind = { fog-lamp = { keyboard-1 = "KeyO" } }
"#;

fn game() -> Sheet {
    Sheet::from_toml(GAME).unwrap().typed::<Do>().unwrap()
}

fn mistakes(with: Result<Sheet, SheetError>) -> Vec<String> {
    let error = with.unwrap_err();
    error.to_string().lines().map(str::to_owned).collect()
}

#[test]
fn a_mod_plays_beside_the_game_and_the_type_fits_as_before() {
    let sheet = game().with_mods(&[("fog", FOG)]).unwrap();
    let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), &Layout::us()));
    let mut keys = Simulated::new(swap_knot::DeviceId(0));
    for key in [Place::KeyH, Place::KeyJ, Place::Escape] {
        seat.feed(&keys.key(key));
    }
    keys.wait(std::time::Duration::from_millis(10));
    seat.tick(keys.now());
    assert!(seat.went_down(Do::Horn) && seat.went_down(Do::Menu));
    assert!(seat.went_down(sheet.find("fog-whistle").unwrap()));
    assert_eq!(sheet.presets().len(), 1);

    // Another mod comes on top; the first cannot be loaded twice.
    let more = "[actions.reef-bell]\nbind = \"KeyB\"";
    let both = sheet.with_mods(&[("reef", more)]).unwrap();
    assert_eq!(both.actions().len(), 5);
    assert!(both.action(Do::Menu).is_some_and(|a| a.name == "menu"));
    let twice = mistakes(sheet.with_mods(&[("fog", "[actions.fog-whistle]")]));
    assert_eq!(
        twice,
        [
            "fog:1:10: `actions.fog-whistle` is declared at fog:6:14 already; give one of them another name"
        ]
    );
}

#[test]
fn a_mod_cannot_loosen_the_rules_of_the_game() {
    let wrong = |text: &str| mistakes(game().with_mods(&[("fog", text)]));
    let only = |text: &str| wrong(text).swap_remove(0);
    let at_home =
        "which is the game's; take it out, and declare only situations, groups, actions, presets";
    for key in [
        "reserved = []",
        "removed = \"horn\"",
        "game = \"mine\"",
        "version = 9",
        "title = \"x\"",
    ] {
        let name = key.split(' ').next().unwrap();
        assert_eq!(
            only(key),
            format!("fog:1:1: a mod cannot say `{name}`, {at_home}")
        );
    }
    assert_eq!(
        only("[renamed]\nhorn = \"menu\""),
        format!("fog:1:2: a mod cannot say `renamed`, {at_home}")
    );
    assert_eq!(
        only("[actions.whistle]"),
        "fog:1:10: the names of a mod begin with its own; call it `fog-whistle`"
    );
    assert_eq!(
        only("[actions.fog-]"),
        "fog:1:10: the names of a mod begin with its own; call it `fog-fog-`"
    );
    // A name of the game's is told of as such, too.
    let both = wrong("[actions.horn]\nbind = \"KeyX\"");
    let own = "fog:1:10: the names of a mod begin with its own; call it `fog-horn`";
    assert!(both.iter().any(|m| m == own), "{both:?}");
    assert!(
        both.iter()
            .any(|m| m.contains("`actions.horn` is declared"))
    );
    assert_eq!(
        only("[actions.fog-horn]\nfixed = true\nbind = \"F12\""),
        "fog:2:1: a mod has no fixed actions; take `fixed` out"
    );
    let reserved = only("[actions.fog-horn]\nbind = \"MetaLeft\"");
    assert!(
        reserved.starts_with("fog:2:9: `MetaLeft` is reserved"),
        "{reserved}"
    );
    assert_eq!(
        only("[actions.fog-horn]\nbind = \"KeyH\"\nshare = [\"horn\"]"),
        "fog:3:9: a mod's action shares its inputs with the mod's own, and `horn` is not; take it out of `share`"
    );
    let unnamed = mistakes(game().with_mods(&[("Fog Bank", FOG)]));
    assert!(unnamed[0].starts_with("Fog Bank:1:1: `Fog Bank` cannot be the name of a mod"));
    // Everything that is wrong is told at once, also in the second of two.
    let two = [
        ("fog", "[actions.fog-a]\nbind = \"KeyX\""),
        ("reef", "reserved = []\n[actions.x]"),
    ];
    assert_eq!(mistakes(game().with_mods(&two)).len(), 2);
}

#[test]
fn what_a_player_changed_of_a_mod_outlasts_its_absence() {
    let with = game().with_mods(&[("fog", FOG)]).unwrap();
    let mut draft = Draft::new(&with, Profile::new("Ada"), &Layout::us());
    let cell = with.defaults_of(with.find("fog-lamp").unwrap())[0].cell;
    assert!(matches!(
        draft.bind(cell, Place::KeyP.into()),
        Ok(Bind::Done)
    ));
    let reserved = draft.bind(cell, "Meta".parse().unwrap());
    assert!(
        matches!(&reserved, Err(e) if e.to_string().contains("reserved")),
        "{reserved:?}"
    );
    draft
        .choose_preset(Some("fog-lamps"), swap_knot::remap::PlayersOwn::Keep)
        .unwrap();
    draft.apply();

    let text = draft.profile().to_toml();
    let without = Profile::from_toml(&text).unwrap();
    let mut away = Draft::new(&game(), without, &Layout::us());
    let horn = game().defaults_of(Do::Horn)[0].cell;
    assert!(matches!(
        away.bind(horn, Place::KeyQ.into()),
        Ok(Bind::Done)
    ));
    away.apply();
    let back = Profile::from_toml(&away.profile().to_toml()).unwrap();
    let rig = Rig::new(&with, &back, &Layout::us());
    assert_eq!(rig.binding_in(cell).unwrap().chord.to_string(), "KeyP");
    assert_eq!(rig.not_in_force(), []);
}

#[test]
fn what_the_game_switched_stays_so_when_a_mod_is_laid_over_it() {
    let off = game().switched([Do::Horn], false);
    let modded = off.with_mods(&[("fog", FOG)]).unwrap();
    assert!(modded.action(Do::Horn).unwrap().off);
    let on = modded.switched([Do::Horn], true);
    let again = on.with_mods(&[("reef", "[actions.reef-bell]")]).unwrap();
    assert!(!again.action(Do::Horn).unwrap().off);
    assert!(again.find("fog-lamp").is_some());
}

#[test]
fn a_mod_over_the_whole_demo_leaves_its_actions_as_they_are() {
    let (plain, modded) = (
        demo(),
        demo()
            .with_mods(&[("fog", "[actions.fog-lamp]\nbind = \"KeyO\"")])
            .unwrap(),
    );
    for (id, action) in plain.actions() {
        let same = modded.action(modded.find(&action.name).unwrap()).unwrap();
        let said = |a: &swap_knot::sheet::Action| {
            (
                a.title.clone(),
                a.shape,
                a.essential,
                a.manner,
                a.settings.clone(),
            )
        };
        assert_eq!(said(same), said(action));
        assert_eq!(
            modded
                .find(&action.name)
                .map(|i| modded.defaults_of(i).len()),
            Some(plain.defaults_of(id).len())
        );
    }
}
