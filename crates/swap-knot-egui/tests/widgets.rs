//! The widgets without a window: egui's own events in, painted text and a screen reader's tree out.

#![allow(clippy::unwrap_used, clippy::panic)]

use egui::accesskit::{Action, ActionRequest, Node, NodeId, Role, Toggled};
use egui::{
    Event as Theirs, FullOutput, Modifiers, PointerButton, Pos2, RawInput, Rect, Vec2, pos2, vec2,
};
use swap_knot::input::{Direction, Simulated};
use swap_knot::screen::{ControlsScreen, ScreenCommand, Spot};
use swap_knot::{
    DeviceId, DeviceKind, Draft, Input, Layout, PadButton, Place, Profile, Prompt, Row, Seat,
    Sheet, Stick, Time, Words,
};
use swap_knot_egui::{Fonts, GlyphTextures, Look, ScreenSkin, prompt};

const SHEET: &str = include_str!("../../../demo/slack-water.toml");

/// A controls screen before a player.
struct Player {
    ctx: egui::Context,
    screen: ControlsScreen,
    skin: ScreenSkin,
    size: Vec2,
    painted: String,
    /// The texts of which the end was left out.
    cut: Vec<String>,
    /// What a screen reader has been told of each node, once it is switched on.
    nodes: Vec<(NodeId, Node)>,
    focus: Option<NodeId>,
}

impl Player {
    fn new() -> Player {
        Player::in_language("en")
    }

    fn in_language(language: &str) -> Player {
        let sheet = Sheet::from_toml(SHEET).unwrap();
        let mut draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
        draft.set_words(&Words::shipped(language).unwrap());
        let seat = Seat::new(draft.rig());
        let mut player = Player {
            ctx: egui::Context::default(),
            screen: ControlsScreen::new(draft, &seat),
            skin: ScreenSkin::new(),
            size: vec2(1280.0, 800.0),
            painted: String::new(),
            cut: Vec::new(),
            nodes: Vec::new(),
            focus: None,
        };
        player.ctx.enable_accesskit();
        let at_once = egui::style::ScrollAnimation::none();
        player
            .ctx
            .all_styles_mut(|style| style.scroll_animation = at_once);
        player.frame(Vec::new());
        player
    }

    /// Draws a frame with these events of egui.
    fn frame(&mut self, events: Vec<Theirs>) {
        let input = RawInput {
            screen_rect: Some(Rect::from_min_size(Pos2::ZERO, self.size)),
            events,
            ..RawInput::default()
        };
        let (skin, screen) = (&mut self.skin, &mut self.screen);
        let mut out = self.ctx.run_ui(input, |ui| skin.show(ui, screen));
        self.painted = painted(&out);
        self.cut = texts(&out)
            .filter(|t| t.elided)
            .map(|t| t.text().to_owned())
            .collect();
        if let Some(update) = out.platform_output.accesskit_update.take() {
            self.nodes = update.nodes;
            self.focus = Some(update.focus);
        }
        // No screen wants the textures.
        out.textures_delta.clear();
    }

    /// Clicks what stands under that name.
    fn click(&mut self, id: &str) {
        let at = self.place(id).center();
        let modifiers = Modifiers::NONE;
        let button = PointerButton::Primary;
        let press = |pressed| Theirs::PointerButton {
            pos: at,
            button,
            pressed,
            modifiers,
        };
        self.frame(vec![Theirs::PointerMoved(at)]);
        self.frame(vec![press(true)]);
        self.frame(vec![press(false)]);
        self.frame(Vec::new());
    }

    /// Drags the number under that name, from the left end of its track by so much and more.
    fn drag(&mut self, id: &str, way: &[f32]) {
        let rect = self.place(id);
        let from = pos2(rect.left() + 30.0, rect.center().y);
        let (button, modifiers) = (PointerButton::Primary, Modifiers::NONE);
        let press = |pos, pressed| Theirs::PointerButton {
            pos,
            button,
            pressed,
            modifiers,
        };
        let at = |by: &f32| from + vec2(*by, 0.0);
        self.frame(vec![Theirs::PointerMoved(from)]);
        self.frame(vec![press(from, true)]);
        for by in way {
            self.frame(vec![Theirs::PointerMoved(at(by))]);
        }
        self.frame(vec![press(way.last().map_or(from, at), false)]);
    }

    fn place(&self, id: &str) -> Rect {
        let found = self.skin.places().find(|(name, _)| *name == id);
        found.unwrap_or_else(|| panic!("no {id}")).1
    }

    fn key(&mut self, place: Place) {
        let keyboard = Simulated::new(DeviceId(0));
        self.screen.event(&keyboard.key(place));
        self.screen.event(&keyboard.key_up(place));
        self.screen.tick(Time::from_millis(1));
        self.frame(Vec::new());
        self.frame(Vec::new());
    }

    /// What a screen reader has under a name.
    fn node(&self, label: &str) -> &(NodeId, Node) {
        let mut all = self.nodes.iter();
        let found = all.find(|(_, n)| n.label() == Some(label));
        found.unwrap_or_else(|| panic!("nothing is called {label}: {:?}", self.labels()))
    }

    fn labels(&self) -> Vec<&str> {
        self.nodes.iter().filter_map(|(_, n)| n.label()).collect()
    }

    /// Does what a screen reader asks for.
    fn ask(&mut self, label: &str, action: Action) {
        let target_node = self.node(label).0;
        let request = ActionRequest {
            action,
            target_tree: egui::accesskit::TreeId::ROOT,
            target_node,
            data: None,
        };
        self.frame(vec![Theirs::AccessKitActionRequest(request)]);
        self.frame(Vec::new());
        self.frame(Vec::new());
    }
}

/// Every text that was painted.
fn painted(out: &FullOutput) -> String {
    texts(out)
        .map(|text| format!("{}\n", text.text()))
        .collect()
}

/// Every text that was painted, as it was laid out.
fn texts(out: &FullOutput) -> impl Iterator<Item = &egui::Galley> {
    fn collect<'a>(shape: &'a egui::Shape, into: &mut Vec<&'a egui::Galley>) {
        match shape {
            egui::Shape::Text(text) => into.push(&text.galley),
            egui::Shape::Vec(shapes) => shapes.iter().for_each(|s| collect(s, into)),
            _ => {}
        }
    }
    let mut all = Vec::new();
    out.shapes.iter().for_each(|s| collect(&s.shape, &mut all));
    all.into_iter()
}

#[test]
fn a_cell_is_clicked_asked_about_and_swapped_with_the_mouse() {
    let mut player = Player::new();
    player.click("cell cast-off keyboard-1");
    assert!(
        player
            .painted
            .contains("Press the new key or button for “Cast off”")
    );
    assert!(player.painted.contains("Press Escape to cancel (10 s)"));
    player.key(Place::KeyF);
    assert!(player.painted.contains("“Lantern” already uses F."));
    assert!(player.painted.contains("Cast off: F (was Space)"));
    // A way that is not offered says why; what lies beneath the question is not in reach.
    player.click("answer 3");
    let told = "In this game “Cast off” and “Lantern” cannot use the same key or button.";
    assert!(
        player.painted.matches(told).count() > 1,
        "{}",
        player.painted
    );
    player
        .screen
        .press(Spot::Tool(swap_knot::screen::Tool::Leave));
    player.click("answer 1");
    assert!(player.painted.contains("Lantern: Space (was F)"));
    player.click("tool undo");
    assert!(!player.screen.draft().is_changed());
}

#[test]
fn a_number_is_dragged_and_what_the_stick_does_is_drawn() {
    let mut player = Player::new();
    player.click("page feel");
    let way: Vec<f32> = (1..10).map(|n| n as f32 * 14.0).collect();
    player.drag("feel gamepad sensitivity", &way);
    player.frame(Vec::new());
    let feel = player.screen.draft().feel(None, DeviceKind::Gamepad);
    assert!(feel.sensitivity > 1.0, "{feel:?}");
    assert!(player.screen.draft().is_changed());
    // All of the dragging is one step.
    player.click("tool undo");
    assert!(!player.screen.draft().is_changed());
}

#[test]
fn a_screen_reader_hears_and_works_everything() {
    let mut player = Player::new();
    let cell = "Cast off, Keyboard and mouse: Space";
    assert_eq!(player.node(cell).1.role(), Role::Button);
    assert_eq!(player.node("Keys & buttons").1.role(), Role::Tab);
    // Its focus is where the player is, and follows.
    player.key(Place::ArrowDown);
    let focused = player.focus.unwrap();
    assert_eq!(
        focused,
        player.node("Walk to the bow, Keyboard and mouse: W").0
    );
    player.ask(cell, Action::Focus);
    assert_eq!(player.screen.view().focused().unwrap().spoken, cell);
    player.ask(cell, Action::Click);
    let heard = player.labels();
    assert!(heard.contains(&"Cancel"), "{heard:?}");
    let title = player
        .nodes
        .iter()
        .find(|(_, n)| n.role() == Role::Alert)
        .unwrap();
    assert_eq!(
        title.1.value(),
        Some("Press the new key or button for “Cast off”")
    );
    player.ask("Clear", Action::Click);
    let refused = player.screen.view().message.clone().unwrap();
    assert!(
        refused.starts_with("“Cast off” cannot be left empty"),
        "{refused}"
    );

    player.ask("Fine-tuning", Action::Click);
    let slider = "Dead zone: 0.15";
    assert_eq!(player.node(slider).1.role(), Role::Slider);
    let far = player.node(slider).1.numeric_value().unwrap();
    assert!((0.1..0.2).contains(&far), "{far}");
    player.ask(slider, Action::Increment);
    assert!(player.labels().contains(&"Dead zone: 0.16, changed"));
    let off = "Press instead of hold: off";
    assert_eq!(player.node(off).1.toggled(), Some(Toggled::False));
    player.ask(off, Action::Click);
    let on = "Press instead of hold: on, changed";
    assert_eq!(player.node(on).1.toggled(), Some(Toggled::True));
    player.screen.command(ScreenCommand::Undo);
}

/// On a small window with text twice as large, whoever goes anywhere sees where they are, and every
/// answer of a question.
#[test]
fn where_the_player_is_is_in_view_on_a_small_screen_with_large_text() {
    for language in ["en", "de", "ru", "ja"] {
        let mut player = Player::in_language(language);
        player.size = vec2(400.0, 300.0);
        let all = Rect::from_min_size(Pos2::ZERO, player.size);
        for _ in 0..12 {
            player.key(Place::ArrowDown);
            player.frame(Vec::new());
            let id = player.screen.view().focused().unwrap().id.clone();
            let rect = player.place(&id);
            assert!(all.contains_rect(rect), "{language}: {id} at {rect}");
        }
        player.screen.press(Spot::Cell(cell(&player, "cast-off")));
        player.key(Place::KeyF);
        for n in 1..=4 {
            let rect = player.place(&format!("answer {n}"));
            assert!(all.contains_rect(rect), "{language}: answer {n} at {rect}");
        }
    }
}

fn cell(player: &Player, row: &str) -> swap_knot::Cell {
    let row = player.screen.draft().sheet().find_row(row).unwrap();
    row.cell("keyboard-1".parse().unwrap())
}

/// No text of any page is cut off, whatever the language, the size of the window and that of the text.
#[test]
fn nothing_is_cut_off() {
    const SIZES: [[f32; 2]; 9] = [
        [640.0, 480.0],
        [800.0, 600.0],
        [1024.0, 768.0],
        [1280.0, 720.0],
        [1280.0, 800.0],
        [1366.0, 768.0],
        [1600.0, 900.0],
        [1920.0, 1080.0],
        [2560.0, 1440.0],
    ];
    let mut cut = std::collections::BTreeMap::new();
    for language in ["en", "de", "fr", "pl", "ru", "ja"] {
        let mut player = Player::in_language(language);
        let words = player.screen.draft().words().clone();
        Fonts::new(egui::FontDefinitions::default())
            .for_player(&words, &Layout::us())
            .install(&player.ctx);
        let pages: Vec<Spot> = player.screen.view().pages.iter().map(|p| p.spot).collect();
        for page in pages {
            player.screen.press(page);
            for scale in [1.0, 1.5, 2.0] {
                for size in SIZES.map(|[x, y]| vec2(x, y) / scale) {
                    player.size = size;
                    player.frame(Vec::new());
                    for text in &player.cut {
                        let at = cut.entry(text.clone()).or_insert((0, size));
                        at.0 += 1;
                    }
                }
            }
        }
    }
    assert!(cut.is_empty(), "{cut:#?}");
}

#[test]
fn text_stands_out_from_what_is_behind_it() {
    for look in [Look::DARK, Look::LIGHT, Look::STRONG] {
        assert_eq!(look.faint(), []);
    }
    // The most there is, and the least.
    let mut look = Look::STRONG;
    look.least = 20.9;
    assert!(
        look.faint()
            .iter()
            .all(|f| f.text != "text" || f.ground == "hover")
    );
    look.text = look.ground;
    let faint = look.faint();
    let text = faint.iter().find(|f| f.text == "text").unwrap();
    assert_eq!(
        (text.ground, text.contrast, text.least),
        ("ground", 1.0, 20.9)
    );
    // Shapes need less, and what is filled is read as well.
    let mut look = Look::DARK;
    (look.edge, look.on_lit) = (look.cell, look.lit);
    let faint: Vec<_> = look.faint().iter().map(|f| (f.text, f.ground)).collect();
    assert_eq!(
        faint,
        [
            ("edge", "ground"),
            ("edge", "raised"),
            ("edge", "cell"),
            ("on_lit", "lit")
        ]
    );
}

#[test]
fn all_that_is_read_or_heard_goes_through_the_words() {
    let mut player = Player::in_language(Words::BRACKETS);
    let look = |player: &mut Player| {
        player.frame(Vec::new());
        // Whose profile it is is the player's own word.
        let painted = player.painted.replace("Ada", "");
        assert_eq!(outside(&painted), "", "{painted}");
        let heard = player.labels().join("\n");
        assert_eq!(outside(&heard), "", "{heard}");
    };
    look(&mut player);
    // Texts in brackets are long: what is worked may lie further down.
    player.screen.press(Spot::Cell(cell(&player, "cast-off")));
    look(&mut player);
    player.key(Place::F12);
    look(&mut player);
    player.key(Place::Escape);
    player.screen.press(Spot::Cell(cell(&player, "hurry")));
    player.key(Place::KeyE);
    look(&mut player);
    player.click("answer 2");
    look(&mut player);
    for tool in ["reset", "presets", "search"] {
        if tool != "search" {
            player.click("tool more");
            look(&mut player);
        }
        player.click(&format!("tool {tool}"));
        look(&mut player);
        player.key(Place::Escape);
    }
    player.click("tool more");
    player.click("tool find");
    player.key(Place::KeyE);
    look(&mut player);
    player.click("page feel");
    look(&mut player);
    player.click("about");
    look(&mut player);
    player.key(Place::Escape);
    player.key(Place::Escape);
    look(&mut player);
    // A pad in hand: other hints, and "Keep these controls?".
    player.key(Place::Escape);
    let pad = Simulated::new(DeviceId(1));
    player.screen.event(&pad.press(PadButton::ShoulderLeft));
    player.screen.event(&pad.release(PadButton::ShoulderLeft));
    look(&mut player);
    player.screen.command(ScreenCommand::NextPage);
    player.frame(Vec::new());
    player.drag("feel gamepad dead-zone", &[60.0]);
    assert!(player.screen.draft().is_changed());
    player.screen.event(&pad.tilt(Stick::LEFT, [0.0, 0.0]));
    player.screen.command(ScreenCommand::Apply);
    look(&mut player);
}

/// The letters that stand outside of any brackets.
fn outside(text: &str) -> String {
    let mut depth = 0;
    let mut out = String::new();
    for c in text.chars() {
        match c {
            '⟦' => depth += 1,
            '⟧' => depth -= 1,
            c if depth == 0 && c.is_alphanumeric() => out.push(c),
            _ => {}
        }
    }
    out
}

#[test]
fn fonts_are_found_for_the_players_letters_and_lacking_ones_are_told() {
    let fonts = Fonts::new(egui::FontDefinitions::default());
    let fonts = fonts.with_letters("aЖ\u{F8F0} ".chars());
    assert_eq!(
        fonts.lacking().iter().collect::<String>(),
        "\u{F8F0}",
        "a private letter"
    );
    assert!(fonts.warning().unwrap().contains("install"));
    let names = fonts.into_definitions().font_data.len();
    assert_eq!(
        names,
        egui::FontDefinitions::default().font_data.len(),
        "egui has the others"
    );
    let none = Fonts::new(egui::FontDefinitions::empty()).with_system_font("No Such Font");
    assert_eq!(
        none.unwrap_err().to_string(),
        "there is no font `No Such Font` on this machine; ship one with the game"
    );
    // Whatever a machine has, what it lacks is told, and nothing else.
    let words = Words::shipped("ja").unwrap();
    let fonts = Fonts::new(egui::FontDefinitions::default()).for_player(&words, &Layout::us());
    let wanted = words.letters();
    assert!(wanted.contains(&'割') && fonts.lacking().is_subset(&wanted));
    fonts.install(&egui::Context::default());
}

#[test]
fn prompts_show_glyphs_and_an_unbound_one_leads_to_its_row() {
    let ctx = egui::Context::default();
    let mut glyphs = GlyphTextures::new();
    let (us, words) = (Layout::us(), Words::english());
    let space: Input = "Space".parse().unwrap();
    let first = glyphs.get(&ctx, space, 24.0, &us, &words).unwrap();
    assert_eq!(
        glyphs.get(&ctx, space, 24.0, &us, &words),
        Some(first),
        "made once"
    );
    assert_eq!(first.1.y, 24.0);
    let fr = Layout::shipped("fr").unwrap();
    let again = glyphs.get(&ctx, space, 24.0, &fr, &words).unwrap();
    assert_ne!(again.0, first.0, "another layout, other legends");

    let sheet =
        Sheet::from_toml("game = \"x\"\n[actions.horn]\n[actions.bell]\nbind = \"KeyB\"").unwrap();
    let draft = Draft::new(&sheet, Profile::default(), &us);
    let mut line = Prompt::new("{do:bell} or {horn}", &sheet).unwrap();
    let rig = draft.rig();
    let horn = Row::of(sheet.find("horn").unwrap());
    let mut asked = None;
    // Click along the line until the link is hit.
    for x in 0..60 {
        let at = pos2(8.0 * x as f32, 14.0);
        for pressed in [true, false] {
            let button = Theirs::PointerButton {
                pos: at,
                button: PointerButton::Primary,
                pressed,
                modifiers: Modifiers::NONE,
            };
            let input = RawInput {
                events: vec![Theirs::PointerMoved(at), button],
                ..RawInput::default()
            };
            let shown = line.render(&rig, DeviceKind::Keyboard).clone();
            let mut out = ctx.run_ui(input, |ui| {
                let row = prompt(ui, &shown, &mut glyphs, &us, &words, 26.0);
                asked = asked.or(row);
            });
            out.textures_delta.clear();
        }
    }
    assert_eq!(asked, Some(horn));
}

/// What is out of sight is left out where no screen reader listens, and nothing that is in sight changes by
/// that, wherever the player goes.
#[test]
fn what_is_out_of_sight_is_left_out_and_nothing_else() {
    let (mut read, mut silent) = (Player::new(), Player::new());
    silent.ctx.disable_accesskit();
    let mut fewer = 0;
    for way in [Direction::Down, Direction::Up] {
        for step in 0..40 {
            for player in [&mut read, &mut silent] {
                player.screen.command(ScreenCommand::Go(way));
                // The list follows one picture later.
                player.frame(Vec::new());
                player.frame(Vec::new());
            }
            assert_eq!(read.painted, silent.painted, "step {step}");
            fewer += usize::from(silent.skin.places().count() < read.skin.places().count());
        }
    }
    assert!(fewer > 60, "{fewer}");
    // The ring is drawn around the last row too.
    let focus = silent.screen.view().focused().unwrap().id.clone();
    assert!(silent.skin.places().any(|(id, _)| id == focus));
}

/// With little room as many kinds of devices are shown as fit, that of the player among them, who comes to the
/// others by walking on and by pointing; and the tab of the page is in sight.
#[test]
fn with_little_room_not_all_devices_are_shown() {
    let mut player = Player::new();
    player.size = vec2(640.0, 480.0);
    player.screen.focus(Spot::Cell(cell(&player, "lantern")));
    player.frame(Vec::new());
    player.frame(Vec::new());
    let kinds = |player: &Player| {
        let shown = |kind: &&str| player.skin.places().any(|(id, _)| id.contains(*kind));
        let all = [" keyboard-", " gamepad-", " touch-"];
        all.iter()
            .filter(|kind| shown(kind))
            .copied()
            .collect::<Vec<_>>()
    };
    assert_eq!(kinds(&player), [" keyboard-"]);
    for _ in 0..2 {
        player.screen.command(ScreenCommand::Go(Direction::Right));
        player.frame(Vec::new());
    }
    assert_eq!(kinds(&player), [" gamepad-", " touch-"]);
    for expected in [&[" keyboard-"][..], &[" gamepad-", " touch-"]] {
        let next = player.skin.places().find(|(id, _)| *id == "devices next");
        let at = next.unwrap().1.center();
        for pressed in [true, false] {
            player.frame(vec![
                Theirs::PointerMoved(at),
                Theirs::PointerButton {
                    pos: at,
                    button: PointerButton::Primary,
                    pressed,
                    modifiers: Modifiers::NONE,
                },
            ]);
        }
        player.frame(Vec::new());
        player.frame(Vec::new());
        assert_eq!(kinds(&player), expected);
        let focus = player.screen.view().focused().unwrap().id.clone();
        assert!(focus.starts_with("cell lantern"), "{focus}");
    }
    for _ in 0..5 {
        player.screen.command(ScreenCommand::NextPage);
        player.frame(Vec::new());
        player.frame(Vec::new());
        let page = player.screen.page().word();
        let tab = format!("page {page}");
        let there = player.skin.places().find(|(id, _)| *id == tab).unwrap().1;
        assert!(
            there.left() >= 0.0 && there.right() <= 640.0,
            "{tab}: {there:?}"
        );
    }
}
