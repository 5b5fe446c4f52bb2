//! The widgets without a window: egui's own events in, news and painted text out.

#![allow(clippy::unwrap_used, clippy::panic)]

use egui::{
    Event as Theirs, FullOutput, Modifiers, PointerButton, Pos2, RawInput, Rect, pos2, vec2,
};
use proptest::prelude::*;
use swap_knot::{
    DeviceId, DeviceKind, Direction, Draft, Event, Input, Layout, PadButton, Place, Profile,
    Prompt, Row, Sheet, Simulated, Time, Words,
};
use swap_knot_egui::{Fonts, GlyphTextures, MenuCommand, MenuNews, RemapMenu, prompt};

const SHEET: &str = include_str!("../../../demo/slack-water.toml");

struct Screen {
    ctx: egui::Context,
    menu: RemapMenu,
    draft: Draft,
    now: Time,
    painted: String,
    /// The names that a screen reader has, once it is switched on.
    heard: Vec<String>,
}

impl Screen {
    fn new() -> Screen {
        Screen::in_language("en")
    }

    fn in_language(language: &str) -> Screen {
        let sheet = Sheet::from_toml(SHEET).unwrap();
        let mut draft = Draft::new(&sheet, Profile::new("Ada"), &Layout::us());
        draft.set_words(&Words::shipped(language).unwrap());
        let mut screen = Screen {
            ctx: egui::Context::default(),
            menu: RemapMenu::new(&draft),
            draft,
            now: Time::ZERO,
            painted: String::new(),
            heard: Vec::new(),
        };
        screen.frame(Vec::new());
        screen
    }

    /// Draws a frame with these events of egui; what happened in it.
    fn frame(&mut self, events: Vec<Theirs>) -> Vec<MenuNews> {
        let input = RawInput {
            screen_rect: Some(Rect::from_min_size(Pos2::ZERO, vec2(1400.0, 1600.0))),
            events,
            ..RawInput::default()
        };
        let mut news = Vec::new();
        let (menu, draft, now) = (&mut self.menu, &mut self.draft, self.now);
        let mut out = self
            .ctx
            .run_ui(input, |ui| news.extend(menu.show(ui, draft, now)));
        self.painted = painted(&out);
        let told = out.platform_output.accesskit_update.as_ref();
        let nodes = told.map_or(&[][..], |update| &update.nodes);
        let labels = nodes.iter().filter_map(|(_, node)| node.label());
        self.heard = labels.map(str::to_owned).collect();
        // No screen wants the textures.
        out.textures_delta.clear();
        news
    }

    /// Clicks what stands under that name.
    fn click(&mut self, name: &str, button: PointerButton) -> Vec<MenuNews> {
        let at = self.menu.places().find(|(n, _)| *n == name);
        let at = at.unwrap_or_else(|| panic!("no {name}")).1.center();
        let modifiers = Modifiers::NONE;
        let press = |pressed| Theirs::PointerButton {
            pos: at,
            button,
            pressed,
            modifiers,
        };
        let mut news = self.frame(vec![Theirs::PointerMoved(at), press(true)]);
        news.extend(self.frame(vec![press(false)]));
        news.extend(self.frame(vec![Theirs::PointerMoved(pos2(1.0, 1590.0))]));
        news
    }

    fn event(&mut self, event: &Event) -> bool {
        self.menu.event(event, &mut self.draft)
    }

    fn key(&mut self, place: Place) -> Vec<MenuNews> {
        let keyboard = Simulated::new(DeviceId(0));
        self.event(&keyboard.key(place));
        self.event(&keyboard.key_up(place));
        self.frame(Vec::new())
    }

    fn name(&self, cell: &str) -> Option<String> {
        let rows = self.menu.visible(&self.draft);
        let (row, column) = cell.split_once(' ').unwrap();
        let row = rows
            .iter()
            .find(|r| self.draft.sheet().row_name(r.row) == row)?;
        let cell = row
            .cells
            .iter()
            .find(|c| c.cell.column.to_string() == column)?;
        cell.name.clone()
    }
}

/// Every text that was painted.
fn painted(out: &FullOutput) -> String {
    fn collect(shape: &egui::Shape, into: &mut String) {
        match shape {
            egui::Shape::Text(text) => {
                into.push_str(text.galley.text());
                into.push('\n');
            }
            egui::Shape::Vec(shapes) => shapes.iter().for_each(|s| collect(s, into)),
            _ => {}
        }
    }
    let mut text = String::new();
    out.shapes.iter().for_each(|s| collect(&s.shape, &mut text));
    text
}

#[test]
fn a_cell_is_clicked_asked_about_swapped_and_applied() {
    let mut screen = Screen::new();
    let news = screen.click("cell cast-off keyboard-1", PointerButton::Primary);
    assert!(
        matches!(news[..], [MenuNews::Listening(Some(_))]),
        "{news:?}"
    );
    assert!(
        screen
            .painted
            .contains("Press the new input for “Cast off”")
    );
    assert!(screen.painted.contains("Escape cancels; 10 s left"));
    let news = screen.key(Place::KeyF);
    assert!(
        matches!(news[..], [MenuNews::Heard(_), MenuNews::Asks(_)]),
        "{news:?}"
    );
    assert!(screen.painted.contains("F is taken by “Lantern”"));
    assert!(screen.painted.contains("Cast off: F instead of Space"));
    // A way that is not offered does nothing.
    assert!(screen.click("way share", PointerButton::Primary).is_empty());
    screen.click("way swap", PointerButton::Primary);
    assert_eq!(screen.name("cast-off keyboard-1").as_deref(), Some("F"));
    assert_eq!(screen.name("lantern keyboard-1").as_deref(), Some("Space"));
    screen.click("undo", PointerButton::Primary);
    assert_eq!(screen.name("cast-off keyboard-1").as_deref(), Some("Space"));
    screen.click("redo", PointerButton::Primary);
    let news = screen.click("apply", PointerButton::Primary);
    assert!(matches!(news[..], [MenuNews::Applied(_)]), "{news:?}");
    assert!(!screen.draft.is_changed());
    // The right button takes a binding away, the button behind the row brings the default back.
    screen.click("cell lantern keyboard-1", PointerButton::Secondary);
    assert_eq!(screen.name("lantern keyboard-1"), None);
    screen.click("reset lantern", PointerButton::Primary);
    assert_eq!(screen.name("lantern keyboard-1").as_deref(), Some("F"));
}

#[test]
fn listening_ends_by_itself_and_refuses_with_a_reason() {
    let mut screen = Screen::new();
    screen.click("cell cast-off keyboard-1", PointerButton::Primary);
    let mut pad = Simulated::new(DeviceId(3));
    assert!(
        screen.event(&pad.press(PadButton::South)),
        "it takes everything"
    );
    let news = screen.frame(Vec::new());
    assert!(
        matches!(&news[..], [MenuNews::NotTaken(why)] if why.to_string().contains("not for this column")),
        "{news:?}"
    );
    assert!(screen.menu.is_listening(), "and goes on");
    screen.event(&pad.release(PadButton::South));
    pad.wait(std::time::Duration::from_secs(11));
    screen.now = pad.now();
    screen.frame(Vec::new());
    assert!(!screen.menu.is_listening());
    assert_eq!(screen.name("cast-off keyboard-1").as_deref(), Some("Space"));
    // What is down when it starts has to come up first.
    let keyboard = Simulated::new(DeviceId(0));
    screen.event(&keyboard.key(Place::KeyG));
    screen.menu.command(MenuCommand::Choose, &mut screen.draft);
    let listening = screen.menu.is_listening();
    assert!(listening, "the focus is where the mouse was");
    screen.event(&keyboard.key(Place::KeyG));
    assert!(
        screen.menu.is_listening(),
        "a repeat of a held key is not meant"
    );
    screen.event(&keyboard.key_up(Place::KeyG));
    screen.event(&keyboard.key(Place::KeyG));
    assert_eq!(
        screen.name("cast-off keyboard-1"),
        Some("Space".to_owned()),
        "drawn later"
    );
    screen.frame(Vec::new());
    assert_eq!(screen.name("cast-off keyboard-1").as_deref(), Some("G"));
}

#[test]
fn the_game_gets_what_the_menu_does_not_take() {
    let mut screen = Screen::new();
    let keyboard = Simulated::new(DeviceId(0));
    assert!(!screen.event(&keyboard.key(Place::KeyW)));
    assert!(screen.event(&keyboard.key(Place::ArrowDown)));
    screen.click("search", PointerButton::Primary);
    screen.frame(vec![Theirs::Text("HORN".to_owned())]);
    assert!(screen.menu.is_typing());
    assert!(screen.event(&keyboard.key(Place::KeyW)), "it is typed");
    assert_eq!(screen.menu.visible(&screen.draft).len(), 1);
    assert!(screen.painted.contains("Horn") && !screen.painted.contains("Lantern"));
    screen.event(&keyboard.key(Place::Enter));
    screen.frame(Vec::new());
    screen.frame(Vec::new());
    assert!(!screen.menu.is_typing());
    screen.click("show-all", PointerButton::Primary);
    for place in [Place::KeyW, Place::ArrowDown, Place::Enter] {
        screen.event(&keyboard.key_up(place));
    }
    screen.click("find", PointerButton::Primary);
    screen.key(Place::KeyH);
    assert!(screen.painted.contains("on H"));
    assert_eq!(screen.menu.visible(&screen.draft).len(), 1);
    screen.click("show-all", PointerButton::Primary);
    assert!(screen.menu.visible(&screen.draft).len() > 20);
}

#[test]
fn leaving_asks_only_with_changes() {
    let mut screen = Screen::new();
    let back = |screen: &mut Screen| {
        screen.menu.command(MenuCommand::Back, &mut screen.draft);
        screen.frame(Vec::new())
    };
    assert_eq!(back(&mut screen), [MenuNews::Leave]);
    screen.click("cell horn keyboard-1", PointerButton::Primary);
    screen.key(Place::KeyJ);
    assert_eq!(back(&mut screen), []);
    assert!(screen.menu.is_leaving() && screen.painted.contains("Horn: J instead of H"));
    assert_eq!(back(&mut screen), [], "back out of the question");
    back(&mut screen);
    let news = screen.click("leave-discard", PointerButton::Primary);
    assert_eq!(news, [MenuNews::Discarded, MenuNews::Leave]);
    assert!(!screen.draft.is_changed());
}

#[test]
fn the_menu_speaks_the_players_language() {
    for language in Words::languages() {
        let screen = Screen::in_language(language);
        let words = Words::shipped(language).unwrap();
        for id in [
            "menu-apply",
            "menu-find",
            "menu-essential",
            "column-gamepad",
        ] {
            let text = words.say(id, &[]);
            assert!(screen.painted.contains(&text), "{language}: {text}");
        }
    }
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
fn all_that_is_read_or_heard_goes_through_the_words() {
    let mut screen = Screen::in_language(Words::BRACKETS);
    screen.ctx.enable_accesskit();
    let mut seen = Vec::new();
    let mut look = |screen: &mut Screen| {
        screen.frame(Vec::new());
        assert_eq!(outside(&screen.painted), "", "{}", screen.painted);
        let heard = screen.heard.join("\n");
        assert_eq!(outside(&heard), "", "{heard}");
        seen.push(heard);
    };
    look(&mut screen);
    // Listening, refused, asking, changed, leaving.
    screen.click("cell cast-off keyboard-1", PointerButton::Primary);
    look(&mut screen);
    screen.key(Place::F12);
    look(&mut screen);
    screen.click("cell hurry keyboard-1", PointerButton::Primary);
    screen.key(Place::KeyE);
    look(&mut screen);
    screen.click("way share", PointerButton::Primary);
    screen.click("way take", PointerButton::Primary);
    look(&mut screen);
    screen.click("find", PointerButton::Primary);
    screen.key(Place::KeyE);
    look(&mut screen);
    screen.menu.ask_to_leave(&screen.draft);
    look(&mut screen);
    let all = seen.join("\n");
    for told in [
        "⟦Hurry⟧, ⟦Keyboard and mouse⟧: ",
        "⟦waiting for the new input⟧",
        "⟦changed⟧",
    ] {
        assert!(all.contains(told), "{told} in {all}");
    }
    // Signs go by their names.
    let mut screen = Screen::new();
    screen.ctx.enable_accesskit();
    let cell = screen
        .draft
        .sheet()
        .find_row("horn")
        .unwrap()
        .cell("keyboard-1".parse().unwrap());
    let _ = screen.draft.bind(cell, Place::Comma.into()).unwrap();
    screen.frame(Vec::new());
    let heard = screen.heard.join("\n");
    assert!(
        heard.contains("Horn, Keyboard and mouse: comma, changed"),
        "{heard}"
    );
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

/// Anything that a player without a mouse may do.
#[derive(Clone, Debug)]
enum Does {
    Command(MenuCommand),
    Key(Place),
    Pad(PadButton),
    Wait(u64),
}

fn does() -> impl Strategy<Value = Does> {
    let commands = Direction::ALL.map(MenuCommand::Go).into_iter().chain([
        MenuCommand::Choose,
        MenuCommand::Choose,
        MenuCommand::Back,
        MenuCommand::Unbind,
        MenuCommand::Reset,
    ]);
    let keys = [
        Place::KeyF,
        Place::KeyW,
        Place::Space,
        Place::Escape,
        Place::ShiftLeft,
        Place::Enter,
    ];
    let pads = [
        PadButton::South,
        PadButton::North,
        PadButton::ShoulderLeft,
        PadButton::Down,
    ];
    prop_oneof![
        6 => proptest::sample::select(commands.collect::<Vec<_>>()).prop_map(Does::Command),
        3 => proptest::sample::select(keys.to_vec()).prop_map(Does::Key),
        2 => proptest::sample::select(pads.to_vec()).prop_map(Does::Pad),
        1 => (0..4000_u64).prop_map(Does::Wait),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    #[test]
    fn whatever_is_pressed_the_menu_stays_sound(all in proptest::collection::vec(does(), 0..40)) {
        let mut screen = Screen::new();
        let mut device = Simulated::new(DeviceId(5));
        for one in all {
            match one {
                Does::Command(command) => screen.menu.command(command, &mut screen.draft),
                Does::Key(place) => {
                    screen.event(&device.key(place));
                    screen.event(&device.key_up(place));
                }
                Does::Pad(button) => {
                    screen.event(&device.press(button));
                    screen.event(&device.release(button));
                }
                Does::Wait(ms) => device.wait(std::time::Duration::from_millis(ms)),
            }
            screen.now = device.now();
            for news in screen.frame(Vec::new()) {
                if let MenuNews::Applied(rig) = news {
                    prop_assert_eq!(rig.bindings(), screen.draft.bindings());
                }
            }
            // Nobody locks themselves out, and no row is there twice.
            let rig = screen.draft.clone().apply();
            prop_assert_eq!(rig.not_in_force(), []);
            let mut rows: Vec<Row> = screen.menu.visible(&screen.draft).iter().map(|r| r.row).collect();
            let count = rows.len();
            rows.sort_unstable();
            rows.dedup();
            prop_assert_eq!(rows.len(), count);
        }
    }
}
