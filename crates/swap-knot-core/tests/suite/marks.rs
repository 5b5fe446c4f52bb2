//! What pads print on their buttons: read, looked up, told in every language, and followed from pad to
//! pad.

use std::collections::BTreeMap;

use crate::common::{demo, small, what};
use proptest::prelude::*;
use swap_knot::input::UsbId;
use swap_knot::play::Report;
use swap_knot::prompt::{Marks, MarksFindingKind};
use swap_knot::{
    Controls, DeviceId, DeviceKind, Event, EventKind, Input, Layout, MouseButton, PadButton, Place,
    Profile, Stick, Time, Words,
};

const DEMO: &str = include_str!("../../../../demo/marks.toml");

fn demo_marks() -> Marks {
    Marks::from_toml(DEMO, "marks.toml").unwrap()
}

fn name(words: &Words, input: impl Into<Input>) -> String {
    words.input_name(input.into(), &Layout::us())
}

/// A player with two pads of different families and one that nobody knows.
struct Player {
    controls: Controls,
    millis: u64,
}

const ROPEWALK: u16 = 5;
const QUAYSIDE: u16 = 6;
const STRANGE: u16 = 7;

impl Player {
    fn new(profile: Profile) -> Player {
        let mut controls = Controls::new(&demo(), profile, &Layout::us());
        controls.set_marks(&demo_marks());
        let mut player = Player {
            controls,
            millis: 0,
        };
        for (device, usb) in [
            (ROPEWALK, "1209:5a02"),
            (QUAYSIDE, "1209:5a01"),
            (STRANGE, "0a0a:0001"),
        ] {
            let usb = usb.parse().ok();
            player.feed(device, EventKind::Plugged { usb });
        }
        player
    }

    fn feed(&mut self, device: u16, what: EventKind) -> &mut Self {
        self.millis += 5;
        self.controls.feed(&Event {
            at: Time::from_millis(self.millis),
            device: DeviceId(device),
            what,
        });
        self
    }

    fn press(&mut self, device: u16) -> &mut Self {
        let button = PadButton::North;
        self.feed(device, EventKind::PadButton { button, value: 1.0 });
        self.feed(device, EventKind::PadButton { button, value: 0.0 })
    }

    fn tick(&mut self) -> &mut Self {
        self.millis += 16;
        self.controls.tick(Time::from_millis(self.millis));
        self
    }

    fn prompt(&mut self) -> String {
        self.tick();
        self.controls
            .prompt("{do:cast-off:gamepad}")
            .unwrap()
            .to_string()
    }
}

#[test]
fn prompts_follow_the_pad_that_was_pressed_and_no_drift() {
    let mut player = Player::new(Profile::default());
    // Before any is pressed, the one that came last of those that are known.
    assert_eq!(player.prompt(), "Press T");
    for _ in 0..3 {
        for (pad, says) in [(ROPEWALK, "Press Anchor"), (QUAYSIDE, "Press T")] {
            // The third one drifts all the while.
            for x in [0.05, 0.09, 0.02] {
                let stick = Stick::LEFT;
                player.feed(STRANGE, EventKind::PadStick { stick, x, y: 0.0 });
            }
            player.press(pad);
            player.feed(STRANGE, what::stick(Stick::LEFT, 0.06, 0.01));
            assert_eq!(player.prompt(), says);
        }
    }
    player.press(STRANGE);
    assert_eq!(player.prompt(), "Press the bottom button of the four");
    // In another language, by the same marks.
    player.press(ROPEWALK).tick();
    player.controls.set_words(&Words::shipped("fr").unwrap());
    assert_eq!(player.prompt(), "Appuyez sur Ancre");
    assert_eq!(player.controls.family(), Some("ropewalk"));
}

#[test]
fn the_family_that_the_player_chose_goes_before_what_the_pad_says() {
    let mut profile = Profile::new("Ada");
    profile.set_family(Some("ropewalk"));
    let mut player = Player::new(profile);
    player.press(QUAYSIDE);
    assert_eq!(player.prompt(), "Press Anchor");
    // One that these marks do not have is kept, and not followed.
    let mut profile = Profile::from_toml("format = 1\nfamily = \"lost\"").unwrap();
    let mut player = Player::new(profile.clone());
    player.press(QUAYSIDE);
    assert_eq!(player.prompt(), "Press T");
    assert!(
        player
            .controls
            .profile()
            .to_toml()
            .contains("family = \"lost\"")
    );
    player
        .controls
        .open_screen(Time::from_millis(player.millis));
    let screen = player.controls.screen_mut().unwrap();
    let tab = screen.view().pages[4].spot;
    screen.press(tab);
    let row = &screen.view().sections[0].rows[0];
    assert_eq!(row.items[0].label, "Automatic: Quayside");
    let said = "This game has no button symbols named “lost”.";
    assert_eq!(row.text.as_deref(), Some(said));
    profile.set_family(None);
    assert!(!profile.to_toml().contains("family"));
}

#[test]
fn the_screen_follows_the_pad_that_works_it_and_the_family_that_is_chosen_on_it() {
    let mut player = Player::new(Profile::default());
    player.press(QUAYSIDE).tick();
    player
        .controls
        .open_screen(Time::from_millis(player.millis));
    let hint = |player: &mut Player| {
        let view = player.tick().controls.screen_mut().unwrap().view();
        view.hints[0].name.clone()
    };
    player.press(QUAYSIDE);
    assert_eq!(hint(&mut player), "T");
    // The right one confirms here, and so it is told.
    player.press(ROPEWALK);
    assert_eq!(hint(&mut player), "≈");
    player.press(QUAYSIDE);
    assert_eq!(hint(&mut player), "T");
}

#[test]
fn a_pad_that_was_in_use_is_missed_and_comes_back() {
    let told = |player: &mut Player| -> Vec<String> {
        let reports = player.tick().controls.take_reports();
        let devices = reports.iter();
        let devices =
            devices.filter(|r| matches!(r, Report::Unplugged(_) | Report::PluggedAgain(_)));
        devices.map(|r| player.controls.tell(r)).collect()
    };
    let mut player = Player::new(Profile::default());
    player.press(QUAYSIDE).tick();
    player.feed(STRANGE, EventKind::Unplugged);
    assert!(told(&mut player).is_empty(), "nobody used that one");
    player.feed(QUAYSIDE, EventKind::Unplugged);
    assert_eq!(
        told(&mut player),
        ["Disconnected: gamepad. Reconnect it to go on."]
    );
    let usb = "1209:5a01".parse().ok();
    player.feed(QUAYSIDE, EventKind::Plugged { usb });
    assert_eq!(told(&mut player), ["Reconnected: gamepad."]);
    // Where nobody listened for a while, it was never gone.
    player.press(QUAYSIDE).tick();
    player.feed(QUAYSIDE, EventKind::Unplugged);
    player.feed(QUAYSIDE, EventKind::Plugged { usb });
    assert!(told(&mut player).is_empty());
}

#[test]
fn no_pad_is_called_what_a_mouse_or_a_key_is_in_any_language() {
    for tag in Words::languages() {
        let words = Words::shipped(tag).unwrap();
        let mut others: Vec<String> = MouseButton::NAMED
            .iter()
            .map(|b| name(&words, *b))
            .collect();
        others.extend(Place::ALL.iter().map(|p| name(&words, *p)));
        let others: Vec<String> = others.iter().map(|n| n.to_lowercase()).collect();
        let mut known = BTreeMap::new();
        for button in PadButton::ALL {
            let name = name(&words, *button).to_lowercase();
            assert!(!others.contains(&name), "{tag}: {name}");
            // Nor is it a part of what a mouse's button is called, or that of it.
            let mouse = others
                .iter()
                .take(5)
                .find(|o| o.contains(&name) || name.contains(*o));
            assert_eq!(mouse, None, "{tag}: {name}");
            assert_eq!(
                known.insert(name.clone(), *button),
                None,
                "{tag}: {name} twice"
            );
        }
    }
}

#[test]
fn marks_are_said_as_each_language_says_buttons() {
    let said = |tag: &str, family: &str, text: &str| {
        let words = Words::shipped(tag)
            .unwrap()
            .with_marks(&demo_marks(), Some(family));
        let mut controls = Controls::new(&demo(), Profile::default(), &Layout::us());
        controls.set_words(&words);
        let shown = controls.prompt(text).unwrap();
        (shown.to_string(), shown.spoken())
    };
    let (text, spoken) = said("en", "ropewalk", "{do:cast-off:gamepad}");
    assert_eq!((&*text, &*spoken), ("Press Anchor", "Press Anchor"));
    let chord = "{do:stow-1:gamepad}";
    let all = ["en", "de", "fr", "es", "pt-BR", "tr", "ko", "ja"]
        .map(|tag| said(tag, "quayside", chord).0);
    insta::assert_snapshot!(all.join("\n"), @"
    Hold PORT and press D
    Halte PORT gedrückt und drücke D
    Maintenez PORT et appuyez sur D
    Mantén pulsado PORT y pulsa D
    Segure PORT e pressione D
    PORT düğmesini basılı tutarken D düğmesine bas
    PORT 버튼을 누른 채 D 버튼을 누르세요
    PORTを押しながらDを押す
    ");
    // Where something was never translated, brackets show it.
    let words = Words::english()
        .bracketed()
        .with_marks(&demo_marks(), Some("ropewalk"));
    assert_eq!(name(&words, PadButton::South), "⟦Anchor⟧");
    // A game's own words for pads in general do not lie over what is printed.
    let words = words
        .without_marks()
        .with_marks(&demo_marks(), Some("quayside"));
    let words = words
        .with_texts("pad-south = fire button\npad-up = hat up", "en.ftl")
        .unwrap();
    assert_eq!(name(&words, PadButton::South), "⟦T⟧");
    assert_eq!(name(&words, PadButton::Up), "⟦hat up⟧");
    assert_eq!(
        name(words.without_marks(), PadButton::South),
        "⟦fire button⟧"
    );
}

#[test]
fn every_mistake_is_told_with_its_place() {
    let text = include_str!("../../../../demo/checks/marks.toml");
    let error = Marks::from_toml(text, "marks.toml").unwrap_err();
    insta::assert_snapshot!(error.to_string(), @"
    marks.toml:5:22: `1209:xyz` is no USB number; write four hexadecimal digits, `:`, and four more or `*`
    marks.toml:9:1: `pad:sout` is not an input; did you mean `pad:south`?
    marks.toml:10:1: `KeyK` is not on a pad; marks are for inputs such as `pad:south`
    marks.toml:13:9: there is no family `quaysid`; did you mean `quayside`?
    marks.toml:14:1: a family has no key `colour`; it can have `confirm`, `like`, `marks`, `title`, `usb`
    ");
    for (text, what) in [
        ("", "the line `format = 1` is missing"),
        (
            "format = 9",
            "written in format 9, and this version reads 1; update it",
        ),
        (
            "format = 1\n[families.a]\nlike = \"b\"\n[families.b]\nlike = \"a\"",
            "would be like itself",
        ),
        (
            "format = 1\n[families.a]\nlike = \"a\"",
            "would be like itself",
        ),
        ("format = 1\n[families.\"A b\"]", "cannot name a family"),
        (
            "format = 1\n[families.a.marks]\n\"pad:south\" = \"\"",
            "has something to be seen",
        ),
        (
            "format = 1\n[families.a.marks]\n\"pad:south\" = \"thirteen long\"",
            "does not fit",
        ),
        (
            "format = 1\n[families.a.marks]\n\"pad:south\" = 7",
            "wants a text in quotes or a table",
        ),
        (
            "format = 1\n[families.a.marks]\n\"pad:south\" = {}",
            "says at least one of",
        ),
        (
            "format = 1\n[families.a.marks]\n\"pad:stick-left.up\" = \"U\"",
            "write `pad:stick-left`",
        ),
        (
            "format = 1\n[families.a.marks.\"pad:south\"]\nname = { de = { object = \"x\" } }",
            "the one in which it stands alone",
        ),
        (
            "format = 1\n[families.a.marks]\n\"pad:south\" = { name = \" \" }",
            "has something to be read",
        ),
        ("families = [", ""),
    ] {
        let error = Marks::from_toml(text, "marks.toml")
            .unwrap_err()
            .to_string();
        assert!(error.contains(what), "{text}: {error}");
    }
}

#[test]
fn a_check_finds_what_players_would_stumble_over() {
    let sheet = small(
        "[actions.a]\nbind = [\"pad:south\", \"pad:up\", \"pad:center-left\"]\n[actions.b]\noff = true\nbind = \"pad:paddle-1\"",
    );
    let marks = Marks::from_toml(
        "format = 1\n[families.a]\nusb = [\"1209:0001\"]\n[families.a.marks]\n\"pad:south\" = \"T\"\n\
         \"pad:east\" = \"T\"\n\"pad:west\" = \"★\"\n[families.b]\nusb = [\"1209:0001\"]\nlike = \"a\"\n\
         [families.c]\nlike = \"a\"\nmarks = { \"pad:north\" = \"T\" }",
        "marks.toml",
    );
    let found = marks.unwrap().check(&sheet);
    let told: Vec<String> = found
        .iter()
        .map(|f| format!("{}:{} {f}", f.at.0, f.at.1))
        .collect();
    insta::assert_snapshot!(told.join("\n"), @"
    2:11 a: no mark for pad:center-left, which the game binds; they are told by place
    6:1 a: `T` is on pad:south and on pad:east; a prompt could mean either
    7:1 a: `★` on pad:west is a sign without a name; give it one, as a voice cannot say it
    8:11 b: 1209:0001 belongs to a already, which has these pads
    11:11 c: no USB numbers; its pads are not known unless the player chooses the family
    13:11 c: `T` is on pad:east and on pad:north; a prompt could mean either
    ");
    let lacking = found
        .iter()
        .filter(|f| matches!(f.kind, MarksFindingKind::Lacking(_)));
    assert_eq!(lacking.count(), 1);
    assert!(demo_marks().check(&demo()).iter().all(|f| !f.is_problem()));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(256)))]

    /// Whatever the text is, it is read or refused, and what is read can be asked and checked.
    #[test]
    fn no_text_panics(
        cut in 0_usize..DEMO.len(),
        with in "[\\[\\]{}=\",.a-z0-9:#\n]{0,8}",
        length in 0_usize..40,
    ) {
        let start = (0..=cut).rev().find(|n| DEMO.is_char_boundary(*n)).unwrap();
        let end = (start + length).min(DEMO.len());
        let end = (end..=DEMO.len()).find(|n| DEMO.is_char_boundary(*n)).unwrap();
        let text = format!("{}{with}{}", &DEMO[..start], &DEMO[end..]);
        match Marks::from_toml(&text, "marks.toml") {
            Ok(marks) => {
                marks.check(&small("[actions.a]\nbind = \"pad:south\""));
                for family in marks.families() {
                    let words = Words::english().with_marks(&marks, Some(family.name()));
                    for button in PadButton::ALL {
                        prop_assert!(!name(&words, *button).trim().is_empty());
                    }
                }
            }
            Err(error) => prop_assert!(error.to_string().starts_with("marks.toml:")),
        }
    }
}

/// A family as a test makes it: its USB numbers, what it is like, and its marks.
type Made = (Vec<(u16, Option<u16>)>, Option<usize>, BTreeMap<u8, String>);

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(256)))]

    /// What a family prints, beside a model that looks it up as one would by hand.
    #[test]
    fn families_are_found_and_fall_back_as_they_say(
        made in prop::collection::vec(
            (
                prop::collection::vec((0_u16..4, prop::option::of(0_u16..4)), 0..3),
                prop::option::of(0_usize..6),
                prop::collection::btree_map(0_u8..6, "[A-Z]{1,3}", 0..5),
            ),
            1..6,
        ),
        asked in prop::collection::vec((0_u16..5, 0_u16..5), 1..12),
    ) {
        // Families are like earlier ones only, so that there is no circle.
        let made: Vec<Made> = made.into_iter().enumerate()
            .map(|(n, (usb, like, marks))| (usb, like.filter(|l| *l < n), marks))
            .collect();
        let mut text = "format = 1\n".to_owned();
        for (n, (usb, like, marks)) in made.iter().enumerate() {
            let usb: Vec<String> = usb.iter().map(|(v, p)| match p {
                Some(p) => format!("\"{v:04x}:{p:04x}\""),
                None => format!("\"{v:04x}:*\""),
            }).collect();
            text += &format!("[families.f{n}]\nusb = [{}]\n", usb.join(", "));
            if let Some(like) = like {
                text += &format!("like = \"f{like}\"\n");
            }
            text += &format!("[families.f{n}.marks]\n");
            for (button, mark) in marks {
                let button = Input::from(PadButton::ALL[usize::from(*button)]);
                text += &format!("\"{button}\" = \"{mark}\"\n");
            }
        }
        let marks = Marks::from_toml(&text, "marks.toml").unwrap();
        for (vendor, product) in asked {
            let found = marks.family_of(UsbId { vendor, product }).map(|f| f.name().to_owned());
            let has = |want: (u16, Option<u16>)| made.iter().position(|(usb, ..)| usb.contains(&want));
            let wanted = has((vendor, Some(product))).or_else(|| has((vendor, None)));
            prop_assert_eq!(&found, &wanted.map(|n| format!("f{n}")));
            let Some(n) = wanted else { continue };
            let words = Words::english().with_marks(&marks, found.as_deref());
            for button in 0..6_u8 {
                let input = PadButton::ALL[usize::from(button)];
                let mut at = Some(n);
                let mut printed = None;
                while let Some(n) = at {
                    printed = made[n].2.get(&button);
                    at = made[n].1.filter(|_| printed.is_none());
                }
                let plain = name(&Words::english(), input);
                prop_assert_eq!(&name(&words, input), printed.unwrap_or(&plain));
                prop_assert_eq!(words.mark(input.into()), printed.map(String::as_str));
            }
        }
    }
}

#[test]
fn kinds_are_followed_while_a_menu_has_the_events() {
    let mut player = Player::new(Profile::default());
    let key = |down| what::key(Place::KeyF, down);
    player.feed(0, key(true)).feed(0, key(false)).tick();
    assert_eq!(player.controls.seat().device_kind(), DeviceKind::Keyboard);
    player
        .controls
        .open_screen(Time::from_millis(player.millis));
    player.press(ROPEWALK).tick();
    assert_eq!(player.controls.seat().device_kind(), DeviceKind::Gamepad);
    assert_eq!(player.controls.family(), Some("ropewalk"));
}
