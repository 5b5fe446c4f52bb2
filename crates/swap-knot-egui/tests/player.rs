//! One call a frame for a player: what opens the controls screen, and what is the game's.

#![allow(missing_docs, clippy::unwrap_used)]

use egui::{Context, Pos2, RawInput, Rect, vec2};
use swap_knot::input::Simulated;
use swap_knot::{Controls, DeviceId, Event, Layout, PadButton, Place, Profile, Sheet};
use swap_knot_egui::PlayerUi;

const SHEET: &str = r#"
    game = "harbour"
    [actions.menu]
    bind = ["Escape", "pad:center"]
"#;

/// Draws a frame with these events; answers whether the game is played.
fn frame(ctx: &Context, player: &mut PlayerUi, events: &[Event]) -> bool {
    frame_with(ctx, player, events, Vec::new())
}

fn frame_with(
    ctx: &Context,
    player: &mut PlayerUi,
    events: &[Event],
    keys: Vec<egui::Event>,
) -> bool {
    let input = RawInput {
        events: keys,
        screen_rect: Some(Rect::from_min_size(Pos2::ZERO, vec2(1280.0, 800.0))),
        ..RawInput::default()
    };
    let now = events
        .last()
        .map_or_else(Default::default, |event| event.at);
    let mut plays = false;
    let mut out = ctx.run_ui(input, |ui| {
        plays = player.frame(ui, events.iter().copied(), now);
    });
    out.textures_delta.clear();
    plays
}

#[test]
fn escape_opens_the_controls_screen_unless_the_game_has_a_menu_of_its_own() {
    let sheet = Sheet::from_toml(SHEET).unwrap();
    let menu = sheet.find("menu").unwrap();
    let (keys, pad) = (Simulated::new(DeviceId(0)), Simulated::new(DeviceId(64)));
    for press in [keys.key(Place::Escape), pad.press(PadButton::Center)] {
        for own in [false, true] {
            let player = PlayerUi::new(Controls::new(&sheet, Profile::default(), Layout::us()));
            let mut player = if own { player.with_own_menu() } else { player };
            let ctx = Context::default();
            assert!(frame(&ctx, &mut player, &[]));
            assert_eq!(frame(&ctx, &mut player, &[press]), own, "{press:?} {own}");
            assert_eq!(player.controls.screen().is_some(), !own);
            assert_eq!(player.controls.seat().went_down(menu), own);
        }
    }
}

/// A developer sees what of it comes of their own profile.
#[test]
fn with_ctrl_the_overlays_key_plays_without_the_profile() {
    let sheet = Sheet::from_toml(SHEET).unwrap();
    let profile = "format = 1\n[bind.menu]\nkeyboard-1 = \"KeyM\"\n";
    let profile = Profile::from_toml(profile).unwrap();
    let controls = Controls::new(&sheet, profile, Layout::us());
    let mut player = PlayerUi::new(controls).with_overlay(egui::Key::F8);
    let ctx = Context::default();
    for named in ["Escape", "M"] {
        let keys = [true, false].map(|pressed| egui::Event::Key {
            key: egui::Key::F8,
            physical_key: None,
            pressed,
            repeat: false,
            modifiers: egui::Modifiers::CTRL | egui::Modifiers::COMMAND,
        });
        frame_with(&ctx, &mut player, &[], keys.to_vec());
        let menu = player.controls.prompt("{menu}").unwrap().to_string();
        assert!(menu.starts_with(named), "{menu}");
        assert!(!player.overlay.as_ref().unwrap().is_on());
    }
}
