//! What a row of bindings holds by the law: an essential one a key that types, and none one chord twice.

use crate::common::{cell, chord, small};
use swap_knot::{Draft, Layout, Profile, Rig, Sheet};

fn us() -> Layout {
    Layout::us()
}

#[test]
fn what_gives_way_for_an_essential_action_is_what_gives_it_a_key_that_types() {
    let sheet = small(
        "[actions.leave]\nessential = true\nbind = [\"letter:ж\", \"KeyH\"]\n[actions.horn]\nbind = \"KeyJ\"",
    );
    let profile = Profile::from_toml(
        "format = 1\n[bind.leave]\nkeyboard-1 = \"unbound\"\nkeyboard-2 = \"unbound\"",
    )
    .unwrap();
    let rig = Rig::new(&sheet, &profile, us());
    let told: Vec<String> = rig.not_in_force().iter().map(ToString::to_string).collect();
    assert_eq!(told.len(), 1, "{told:?}");
    assert!(
        told[0].starts_with("leave keyboard-2 = unbound"),
        "{told:?}"
    );
    let leave = rig.bindings_of_action(sheet.find("leave").unwrap());
    assert_eq!(leave.len(), 1);
    assert_eq!(leave[0].chord, chord("KeyH"));
}

/// One input twice in a row of bindings: no road lets it stand.
#[test]
fn nothing_is_bound_to_one_input_twice() {
    let said = |more: &str| {
        Sheet::from_toml(&format!(
            "game = \"x\"\n[actions.jump]\nbind = [\"Space\", \"KeyJ\"]\n{more}"
        ))
    };
    let twice = Sheet::from_toml("game = \"x\"\n[actions.jump]\nbind = [\"Space\", \"Space\"]");
    let told = twice.unwrap_err().to_string();
    assert!(told.contains("is bound to `Space` twice"), "{told}");
    let bind = "jump = { keyboard-3 = \"KeyX\", keyboard-4 = \"KeyX\" }";
    let told = said(&format!("[presets.p.bind]\n{bind}")).unwrap_err();
    let told = told.to_string();
    assert!(
        told.contains("preset `p` binds `jump` to `KeyX` twice"),
        "{told}"
    );
    // What a preset has goes before what the sheet has of the same elsewhere in the row.
    let sheet = said("[presets.p.bind]\njump = { keyboard-3 = \"Space\" }").unwrap();
    let mut profile = Profile::default();
    profile.set_preset(Some("p"));
    let rig = Rig::new(&sheet, &profile, us());
    let jump = rig.bindings_of_action(sheet.find("jump").unwrap());
    let on: Vec<String> = jump
        .iter()
        .map(|b| format!("{} {}", b.cell.column, b.chord))
        .collect();
    assert_eq!(on, ["keyboard-2 KeyJ", "keyboard-3 Space"]);
    said("[presets.p.bind]\njump = { keyboard-1 = \"KeyJ\", keyboard-2 = \"Space\" }").unwrap();
    // The draft and the screen refuse it, with the reason.
    let sheet = said("").unwrap();
    let mut draft = Draft::new(&sheet, Profile::new("Ada"), us());
    let second = cell(&sheet, "jump keyboard-2");
    let refused = draft.bind(second, chord("Space")).unwrap_err();
    assert_eq!(refused.to_string(), "\"Jump\" has `Space` already");
    assert_eq!(draft.tell(&refused), "“Jump” already uses Space.");
    assert!(draft.bind_further(second.row, chord("KeyJ")).is_err());
    assert!(!draft.is_changed());
    // Swapped in one step, it is no such thing.
    let swap = [
        (second, Some(chord("Space"))),
        (cell(&sheet, "jump keyboard-1"), Some(chord("KeyJ"))),
    ];
    draft.rebind(&swap).unwrap();
    assert!(draft.is_changed());
    // From a file it is kept, and of two the first one stands.
    let profile = Profile::from_toml(
        "format = 1\n[bind.jump]\nkeyboard-2 = \"KeyX\"\nkeyboard-3 = \"KeyX\"\nkeyboard-4 = \"Space\"",
    )
    .unwrap();
    let rig = Rig::new(&sheet, &profile, us());
    let told: Vec<String> = rig.not_in_force().iter().map(ToString::to_string).collect();
    assert_eq!(
        told,
        [
            "jump keyboard-3 = KeyX is not in force: \"Jump\" has `KeyX` already",
            "jump keyboard-4 = Space is not in force: \"Jump\" has `Space` already",
        ]
    );
    let jump = rig.bindings_of_action(sheet.find("jump").unwrap());
    let on: Vec<String> = jump.iter().map(|b| b.chord.to_string()).collect();
    assert_eq!(on, ["Space", "KeyX"]);
    assert_eq!(Profile::from_toml(&profile.to_toml()).unwrap(), profile);
}
