//! Layouts and boards: found, learned, read from files, and what breaks on them.

use crate::common::demo;
use proptest::prelude::*;
use swap_knot::check::{Finding, Reach, Survey, mirror, one_handed, same_places, self_check};
use swap_knot::input::Platform;
use swap_knot::layout::{Board, Hand, Keycap, LayoutLearner, LayoutSetting, Level};
use swap_knot::remap::conflicts;
use swap_knot::{DeviceId, Event, EventKind, Input, Layout, Place, Profile, Rig, Sheet, Time};

fn shipped(name: &str) -> Layout {
    Layout::shipped(name).unwrap_or_else(|| panic!("{name} is shipped"))
}

fn rig(sheet: &Sheet) -> Rig {
    Rig::new(sheet, &Profile::default(), &Layout::us())
}

#[test]
fn the_tables_hold_the_world_and_stay_small() {
    let names: Vec<&str> = Layout::shipped_names().collect();
    let wanted = "us us-intl us-dvorak us-colemak gb fr fr-bepo be ch-fr ch de at nl es latam pt br \
        it se no dk fi is pl cz sk hu ro si hr rs gr ru ua bg tr tr-f il ara ir in th jp kr vn ca";
    for name in wanted.split_whitespace() {
        assert!(names.contains(&name), "{name} is missing");
    }
    assert!(names.len() >= 100);
    let mut unique = names.clone();
    unique.sort_unstable();
    unique.dedup();
    assert_eq!(unique.len(), names.len());
    let tables = concat!(env!("CARGO_MANIFEST_DIR"), "/src/layout/tables.txt");
    assert!(std::fs::metadata(tables).unwrap().len() <= 150_000);
    // Whoever wants them all gets what each name stands for.
    for (layout, name) in Layout::all_shipped().zip(names) {
        assert_eq!((layout.name(), &layout), (name, &shipped(name)));
        for letter in 'a'..='z' {
            let found = layout.find_letter(letter);
            // Boards for two scripts have every Latin letter too.
            assert!(found.is_some() || Layout::us().second_legend(Place::KeyQ).is_none());
            if let Some((place, _)) = found {
                assert!(layout.board().has(place), "{letter} of {name} at {place}");
            }
        }
    }
}

#[test]
fn legends_are_those_printed_on_the_keys() {
    let caps = |layout: &str, place| {
        let layout = shipped(layout);
        (layout.legend(place).unwrap(), layout.second_legend(place))
    };
    let plain = |legend: &str| (legend.to_owned(), None);
    assert_eq!(caps("es", Place::Semicolon), plain("Ñ"));
    assert_eq!(caps("fr", Place::BracketLeft), plain("^"));
    assert_eq!(caps("fr", Place::Digit2), ("é".to_owned(), Some('2')));
    assert_eq!(caps("ru", Place::KeyF), ("А".to_owned(), Some('F')));
    assert_eq!(
        caps("rs", Place::KeyY),
        ("З".to_owned(), Some('Z')),
        "beside Serbian Latin"
    );
    assert_eq!(caps("il", Place::KeyA), ("ש".to_owned(), Some('A')));
    assert_eq!(caps("jp", Place::BracketLeft), plain("@"));
    assert_eq!(shipped("us").legend(Place::Space), None);
    assert_eq!(shipped("us").legend(Place::Enter), None);
    assert_eq!(shipped("gr").place_of('q'), Some(Place::KeyQ));
    assert_eq!(
        shipped("de").find_letter('@'),
        Some((Place::KeyQ, Level::AltGr))
    );
}

#[test]
fn a_few_keys_name_the_layout_and_altgr_does_not_mislead() {
    let learn = |keys: &[(Place, char)], start: &str| {
        let mut learner = LayoutLearner::new(shipped(start));
        for &(place, text) in keys {
            learner.learn(place, text);
        }
        learner.layout().name().to_owned()
    };
    assert_eq!(
        learn(&[(Place::KeyY, 'z'), (Place::Semicolon, 'é')], "us"),
        "hu"
    );
    assert_eq!(learn(&[(Place::KeyW, 'ц')], "us"), "ru");
    assert_eq!(learn(&[(Place::KeyW, 'ц'), (Place::KeyS, 'і')], "us"), "ua");
    assert_eq!(
        learn(&[(Place::KeyQ, '@'), (Place::KeyE, '€')], "de"),
        "de",
        "with AltGr"
    );
    assert_eq!(
        learn(&[(Place::KeyQ, '☃')], "de"),
        "de",
        "no layout types that"
    );
    for layout in Layout::widely_used() {
        // Whatever the layout, typing its letters leads to one that types the same.
        let letters = Place::WRITING.into_iter().filter_map(|place| {
            let typed = layout.typed(place, Level::Plain)?;
            (!typed.dead && typed.character.is_alphabetic()).then_some((place, typed.character))
        });
        let taught: Vec<(Place, char)> = letters.take(12).collect();
        let found = shipped(&learn(&taught, "us"));
        for (place, character) in taught {
            let typed = Level::ALL.map(|l| found.typed(place, l).map(|t| t.character));
            assert!(
                typed.contains(&Some(character)),
                "{} for {}",
                found.name(),
                layout.name()
            );
        }
    }
}

/// What each writing key types by itself, dead keys left out.
fn typing(layout: &Layout) -> Vec<(Place, char)> {
    let plain = Place::WRITING.into_iter().filter_map(|place| {
        let typed = layout.typed(place, Level::Plain)?;
        (!typed.dead && place != Place::Space).then_some((place, typed.character))
    });
    plain.collect()
}

#[test]
fn every_layout_is_left_for_every_other_by_typing() {
    let all: Vec<Layout> = Layout::all_shipped().collect();
    let key = |place, down, text| Event {
        at: Time::ZERO,
        device: DeviceId(0),
        what: EventKind::Key { place, down, text },
    };
    // By events, and by who knows no more than the place and the text.
    type Teach<'t> = &'t dyn Fn(&mut LayoutLearner, Place, char);
    let ways: [Teach<'_>; 2] = [
        &|learner, place, character| {
            learner.hear(&key(place, true, Some(character)));
            learner.hear(&key(place, false, None));
        },
        &|learner, place, character| {
            learner.learn(place, character);
        },
    ];
    let mut stuck = Vec::new();
    // All of them with the worlds of a full run, some spread over them otherwise.
    let every = all
        .len()
        .div_ceil(crate::common::worlds(all.len() as u32) as usize);
    for (to, teach) in (all.iter().step_by(every)).flat_map(|to| ways.map(|teach| (to, teach))) {
        let keys = typing(to);
        for from in &all {
            let mut learner = LayoutLearner::new(from.clone());
            // Three times over: what was typed on the layout that is left does not count for ever.
            for &(place, character) in keys.iter().cycle().take(3 * keys.len()) {
                teach(&mut learner, place, character);
            }
            let found = learner.layout();
            // Each key has on it what it typed, not only with Shift.
            let has = |&&(place, c): &&(Place, char)| {
                let typed = found.typed(place, Level::Plain);
                typed.is_some_and(|t| t.character == c && !t.dead)
            };
            let wrong = keys.iter().rev().take(12).filter(|k| !has(k)).count();
            if wrong > 0 {
                stuck.push(format!(
                    "{} for {}: {}",
                    from.name(),
                    to.name(),
                    found.name()
                ));
            }
        }
    }
    assert!(
        stuck.is_empty(),
        "{} of {}: {:?}",
        stuck.len(),
        2 * all.len() * all.len().div_ceil(every),
        &stuck[..stuck.len().min(12)]
    );
}

/// Who writes two languages on one keyboard, or a sign with AltGr, stays where they are.
#[test]
fn what_shift_and_altgr_type_now_and_then_moves_nobody() {
    for (layout, typed) in [
        ("ch", vec![(Place::Semicolon, 'é'); 9]),
        ("ch", vec![(Place::Semicolon, 'é'), (Place::Quote, 'à')]),
        ("de", vec![(Place::KeyQ, '@'), (Place::KeyE, '€')]),
        ("us-intl", vec![(Place::Quote, '\''), (Place::KeyE, 'é')]),
    ] {
        let mut learner = LayoutLearner::new(shipped(layout));
        for (place, character) in typed {
            assert_eq!(
                learner.learn(place, character),
                None,
                "{character} on {layout}"
            );
        }
    }
    // Shift that is seen explains all.
    let mut learner = LayoutLearner::new(shipped("ch"));
    let at = Time::ZERO;
    let key = |place, text| Event {
        at,
        device: DeviceId(0),
        what: EventKind::Key {
            place,
            down: true,
            text,
        },
    };
    learner.hear(&key(Place::ShiftLeft, None));
    for (place, c) in [
        (Place::Semicolon, 'é'),
        (Place::Quote, 'à'),
        (Place::BracketLeft, 'è'),
    ] {
        assert_eq!(learner.hear(&key(place, Some(c))), None);
    }
}

#[test]
fn what_a_dead_key_composes_teaches_nothing() {
    let learn = |layout: &str, place, character| {
        let mut learner = LayoutLearner::new(shipped(layout));
        learner.learn(place, character).map(|l| l.name().to_owned())
    };
    for (layout, place, character) in [
        ("fr", Place::KeyE, 'ê'),
        ("fr", Place::BracketLeft, '^'),
        ("de", Place::KeyE, 'é'),
        ("gr", Place::KeyA, 'ά'),
        ("us-intl", Place::KeyN, 'ñ'),
        ("es", Place::KeyU, 'ü'),
        ("no", Place::KeyO, 'ô'),
    ] {
        assert_eq!(
            learn(layout, place, character),
            None,
            "{character} on {layout}"
        );
    }
    assert!(
        learn("us", Place::Semicolon, 'ö').is_some(),
        "no dead key there makes it"
    );
    // AltGr is held for it: no other layout is meant, though some have it bare.
    let mut learner = LayoutLearner::new(shipped("pl"));
    let key = |place, down, text| Event {
        at: Time::ZERO,
        device: DeviceId(0),
        what: EventKind::Key { place, down, text },
    };
    learner.hear(&key(Place::AltRight, true, None));
    for (place, c) in [
        (Place::KeyO, 'ó'),
        (Place::KeyL, 'ł'),
        (Place::Semicolon, 'ö'),
    ] {
        assert_eq!(learner.hear(&key(place, true, Some(c))), None);
    }
    learner.hear(&key(Place::AltRight, false, None));
    let found = learner
        .hear(&key(Place::Semicolon, true, Some('ł')))
        .unwrap();
    assert!(found.name().starts_with("pl-"), "without AltGr it does");
}

#[test]
fn legends_are_as_printed_whatever_types() {
    let words = swap_knot::Words::english();
    let name = |layout: &str, place: Place| {
        let layout = shipped(layout);
        let input = Input::Key(place);
        (
            words.input_name(input, &layout),
            words.spoken_name(input, &layout),
        )
    };
    let same = |text: &str| (text.to_owned(), text.to_owned());
    let two = |text: &str, spoken: &str| (text.to_owned(), spoken.to_owned());
    // AltGr where the board has it.
    assert_eq!(name("de", Place::AltRight), same("AltGr"));
    assert_eq!(name("us", Place::AltRight), same("Right Alt"));
    // JIS: ¥, the backslash, 半角/全角 and the conversion keys, in any language.
    assert_eq!(name("jp", Place::IntlYen).0, "¥");
    assert_eq!(name("jp", Place::IntlRo).0, "\\");
    assert_eq!(name("jp", Place::Backquote).0, "半角/全角");
    assert_eq!(name("jp", Place::NonConvert), two("無変換", "No convert"));
    assert_eq!(name("kr", Place::Lang1), two("한/영", "Hangul"));
    // Digits and Latin letters beside other scripts; punctuation is never said for such a key.
    assert_eq!(name("ara", Place::Digit1).1, "1");
    assert_eq!(name("ir", Place::Digit5), two("۵/5", "5"));
    assert_eq!(name("il", Place::KeyQ), same("Q"));
    assert_eq!(name("gr", Place::KeyQ), same("Q"));
    assert_eq!(name("bg", Place::KeyQ), same("Q"));
    assert_eq!(name("th", Place::KeyQ), two("ๆ/Q", "Q"));
    assert_eq!(name("kz", Place::Digit2).1, "2");
    assert_eq!(name("lt", Place::Digit1), two("Ą/1", "1"));
    // Marks stand on a dotted circle.
    assert_eq!(shipped("th").legend(Place::KeyY).as_deref(), Some("◌ั"));
    // Both forms are sold; which one a player has is theirs to say.
    assert_eq!(
        shipped("pl").boards().collect::<Vec<_>>(),
        [Board::Ansi, Board::Iso]
    );
    assert_eq!(shipped("kr-kr104").board(), Board::Ansi);
    assert_eq!(shipped("pl").on_board(Board::Iso).boards().count(), 1);
}

#[test]
fn every_layout_is_written_and_read_again() {
    for layout in Layout::all_shipped() {
        let text = layout.to_toml();
        let read = Layout::from_toml(&text).unwrap_or_else(|e| panic!("{}: {e}", layout.name()));
        assert_eq!(read, layout);
        for place in Place::WRITING {
            assert_eq!(read.second_legend(place), layout.second_legend(place));
        }
        assert_eq!(read.to_toml(), text);
    }
    let own = "name = \"x\"\nbase = \"ru\"\nbeside = \"\"";
    assert_eq!(
        Layout::from_toml(own).unwrap().second_legend(Place::KeyW),
        None
    );
    let wrong = Layout::from_toml("name = \"x\"\nbeside = \"fe\"").unwrap_err();
    assert_eq!(
        wrong.to_string(),
        "line 2:10: there is no layout `fe`; did you mean `de`?"
    );
}

#[test]
fn systems_say_their_layout_in_several_ways() {
    let file = |text: &str| {
        let setting = LayoutSetting::from_settings_file(text)?;
        setting.layout().map(|l| l.name().to_owned())
    };
    let name = |n: &str| Some(n.to_owned());
    assert_eq!(
        file("XKBLAYOUT=\"us,ru\"\nXKBVARIANT=\"dvorak,\""),
        name("us-dvorak")
    );
    assert_eq!(file("KEYMAP=de-latin1"), name("de"));
    assert_eq!(file("# KEYMAP=fr\nKEYMAP='ch-fr'\n"), name("ch-fr"));
    assert_eq!(
        file("XKBLAYOUT=xx,fr"),
        name("fr"),
        "the first that is known"
    );
    assert_eq!(file("FONT=ter-v16n"), None);
    assert_eq!(file("XKBLAYOUT=\"\""), None);
    let property = |bytes: &[u8]| LayoutSetting::from_x11_property(bytes);
    assert_eq!(property(b"evdev\0pc105\0\0\0\0"), None);
    assert_eq!(property(b"evdev"), None);
    assert_eq!(property(b"a\0b\0\xff\0"), None);
    let both = property(b"evdev\0pc105\0fr,us\0bepo,\0").unwrap();
    assert_eq!(
        both.names().collect::<Vec<_>>(),
        [("fr", "bepo"), ("us", "")]
    );
}

#[test]
fn layout_files_are_read_and_mistakes_are_told() {
    let text = "name = \"harbour\"\nbase = \"de\"\n[keys]\nKeyA = [\"я\", \"Я\"]\nKeyB = [\"\"]\n";
    let layout = Layout::from_toml(text).unwrap();
    assert_eq!(layout.legend(Place::KeyA).as_deref(), Some("Я"));
    assert_eq!(layout.typed(Place::KeyB, Level::Plain), None);
    assert_eq!(layout.legend(Place::KeyY).as_deref(), Some("Z"));
    let said = |text: &str| Layout::from_toml(text).unwrap_err().to_string();
    let all = [
        "base = \"us\"",
        "name = \"x\"\nbase = \"uss\"",
        "name = \"x\"\nboard = \"round\"",
        "name = \"x\"\nkey = 1",
        "name = \"x\"\n[keys]\nKeyÄ = [\"a\"]",
        "name = \"x\"\n[keys]\nKeyQQ = [\"a\"]",
        "name = \"x\"\n[keys]\nKeyQ = \"a\"",
        "name = \"x\"\n[keys]\nKeyQ = [\"ab\"]",
        "name = \"x\"\n[keys]\nKeyQ = [\"dead:\"]",
        "name = x",
    ]
    .map(said);
    insta::assert_snapshot!(all.join("\n"));
}

#[test]
fn boards_have_each_key_once_and_none_on_top_of_another() {
    for board in Board::ALL {
        let keys = board.keys();
        for (i, a) in keys.iter().enumerate() {
            for b in &keys[i + 1..] {
                let beside = |p: f32, size: f32, q: f32| p + size <= q + 0.001;
                let apart = |a: &Keycap, b: &Keycap| {
                    beside(a.x, a.width, b.x) || beside(a.y, a.height, b.y)
                };
                assert!(
                    apart(a, b) || apart(b, a),
                    "{board:?}: {} and {}",
                    a.place,
                    b.place
                );
                assert_ne!(a.place, b.place);
            }
        }
        for place in Place::WRITING {
            assert_eq!(
                board.has(place),
                board.key(place).is_some(),
                "{board:?} {place}"
            );
            let reached = Hand::ALL.iter().any(|&h| board.reaches(h, place));
            assert_eq!(board.has(place), reached, "{board:?} {place}");
        }
        assert_eq!(Board::named(&board.word().to_lowercase()), Some(board));
        assert_eq!(board.distance(Place::KeyA, Place::KeyS), Some(1.0));
    }
    assert_eq!(Board::Ansi.distance(Place::KeyA, Place::IntlRo), None);
}

#[test]
fn the_demo_is_right_everywhere_but_on_one_board() {
    let sheet = demo();
    let rig = rig(&sheet);
    let look = |layouts: Vec<Layout>| {
        Survey::new(&sheet, rig.bindings(), &layouts, Platform::Other)
            .findings()
            .to_vec()
    };
    assert_eq!(look(Layout::widely_used().collect()), []);
    let found = look(Layout::all_shipped().collect());
    let problems: Vec<&Finding> = found.iter().filter(|f| f.is_problem).collect();
    assert_eq!(problems.len(), 1);
    assert_eq!(problems[0].layouts, ["us-colemak-dh"]);
}

#[test]
fn what_is_suggested_is_free_and_the_same_on_all_layouts() {
    let text = "game = \"x\"\n[actions.horn]\nbind = \"letter:ñ\"\n[actions.bell]\nbind = \"F5\"";
    let sheet = Sheet::from_toml(text).unwrap();
    let layouts: Vec<Layout> = Layout::widely_used().collect();
    let survey = Survey::new(&sheet, rig(&sheet).bindings(), &layouts, Platform::Other);
    let same = same_places(&layouts);
    let [problem, ..] = survey.findings() else {
        panic!("ñ is rare")
    };
    let suggested: Vec<Place> = problem
        .remedy
        .split('`')
        .filter_map(|word| word.parse().ok())
        .collect();
    assert_eq!(suggested.len(), 3, "{}", problem.remedy);
    assert!(
        suggested
            .iter()
            .all(|p| same.contains(p) && *p != Place::F5)
    );
    for layout in &layouts {
        let legend = |p| {
            layout
                .second_legend(p)
                .map(String::from)
                .or(layout.legend(p))
        };
        for place in &same {
            let first = layouts[0].legend(*place);
            assert!(
                legend(*place) == first || layout.legend(*place) == first,
                "{place}"
            );
        }
    }
}

#[test]
fn hands_reach_their_half_and_stretch_is_told() {
    let text = r#"
        game = "x"
        [actions.walk]
        shape = "line"
        left = { bind = "KeyA" }
        right = { bind = "KeyD" }
        [actions.brace]
        bind = ["Digit5", "pad:south"]
        [actions.chord]
        bind = "ControlLeft+KeyT"
        [actions.far]
        bind = "mouse:right+Numpad4"
        [actions.pad-only]
        bind = "pad:north"
    "#;
    let sheet = Sheet::from_toml(text).unwrap();
    let us = Layout::us();
    let reach = Reach::new(&sheet, rig(&sheet).bindings(), &us, Platform::Other);
    let out = |hand, mouse| {
        let names = reach.out_of_reach(hand, mouse).into_iter();
        names.map(|a| sheet.row_name(a.into())).collect::<Vec<_>>()
    };
    assert_eq!(out(Hand::Left, true), ["far"]);
    assert_eq!(out(Hand::Left, false), ["far"]);
    assert_eq!(out(Hand::Right, true), ["walk", "brace", "chord"]);
    assert_eq!(out(Hand::Right, false), ["walk", "brace", "chord", "far"]);
    assert_eq!(
        reach.playable().len(),
        4,
        "what is on a pad only is not at the desk"
    );
    let stretched: Vec<[Place; 2]> = reach.stretches().iter().map(|s| s.places).collect();
    assert_eq!(stretched, [[Place::ControlLeft, Place::KeyT]]);
}

#[test]
fn a_mirrored_preset_reads_back_and_keeps_left_on_the_left() {
    let sheet = demo();
    let us = Layout::us();
    let mirrored = mirror(
        &sheet,
        rig(&sheet).bindings(),
        "other-hand",
        &us,
        Platform::Other,
    );
    assert_eq!(mirrored.conflicts, []);
    let text = format!("{}\n{}", crate::common::DEMO, mirrored.to_toml(&sheet));
    let with = Sheet::from_toml(&text).unwrap();
    let mut profile = Profile::new("Ada");
    profile.set_preset(Some("other-hand"));
    let rig = Rig::new(&with, &profile, &us);
    assert_eq!(rig.notes(), []);
    let open = conflicts(&with, rig.bindings(), &[us], Platform::Other);
    assert_eq!(open.iter().filter(|c| c.class.is_conflict()).count(), 0);
    let x = |row: &str| {
        let row = with.find_row(row).unwrap();
        let first = &rig.bindings_of(row)[0];
        let Input::Key(place) = first.chord.input() else {
            panic!("a key")
        };
        Board::Ansi.key(place).unwrap().x
    };
    assert!(x("walk.left") < x("walk.right"));
    assert!(x("steer.left") > 7.0, "on the other half");
}

/// Where something may be bound in a game that reserves one of them.
fn free_places() -> Vec<Place> {
    let all = Place::WRITING.iter().copied();
    all.filter(|place| *place != Place::KeyF).collect()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(256)))]

    #[test]
    fn mirrored_twice_is_as_before(places in proptest::sample::subsequence(Place::WRITING.to_vec(), 1..20)) {
        let mut text = String::from("game = \"x\"\n");
        for (n, place) in places.iter().enumerate() {
            text.push_str(&format!("[actions.a-{n}]\nbind = \"{place}\"\n"));
        }
        let sheet = Sheet::from_toml(&text).unwrap();
        let once = rig(&sheet);
        let over = |rig: &Rig| {
            let us = Layout::us();
            let preset = mirror(&sheet, rig.bindings(), "m", &us, Platform::Other).preset;
            let mut profile = Profile::new("x");
            for bound in rig.bindings() {
                profile.set(&sheet, bound.cell, Some(bound.chord.clone()));
            }
            for (cell, chord) in preset.cells {
                profile.set(&sheet, cell, chord);
            }
            Rig::new(&sheet, &profile, &us)
        };
        let chords = |rig: &Rig| rig.bindings().iter().map(|b| b.chord.clone()).collect::<Vec<_>>();
        prop_assert_eq!(chords(&over(&over(&once))), chords(&once));
    }

    /// Whatever the game binds: one hand plays all of it afterwards, but for what is told, and nothing
    /// that it played already has moved.
    #[test]
    fn one_hand_plays_what_was_made_for_it(
        places in proptest::sample::subsequence(free_places(), 1..30),
        right in any::<bool>(),
        layout in 0..60_usize,
    ) {
        let mut text = String::from("game = \"x\"\nreserved = \"KeyF\"\n");
        for (n, place) in places.iter().enumerate() {
            text.push_str(&format!("[actions.a-{n}]\nbind = \"{place}\"\n"));
        }
        let sheet = Sheet::from_toml(&text).unwrap();
        let layout = Layout::all_shipped().nth(layout).unwrap();
        let hand = if right { Hand::Right } else { Hand::Left };
        let before = Rig::new(&sheet, &Profile::new("x"), &layout);
        let made = one_handed(&sheet, before.bindings(), hand, &layout, Platform::Other);
        let mut profile = Profile::new("x");
        for (cell, chord) in &made.cells {
            profile.set(&sheet, *cell, chord.clone());
        }
        let after = Rig::new(&sheet, &profile, &layout);
        prop_assert_eq!(after.not_in_force(), []);
        let met = conflicts(&sheet, after.bindings(), std::slice::from_ref(&layout), Platform::Other);
        let known = conflicts(&sheet, before.bindings(), std::slice::from_ref(&layout), Platform::Other);
        prop_assert!(met.len() <= known.len());
        let far = |rig: &Rig| {
            let reach = Reach::new(&sheet, rig.bindings(), &layout, Platform::Other);
            reach.out_of_reach(hand, false)
        };
        let left: Vec<_> = made.unmoved.iter().map(|c| c.row.action).collect();
        prop_assert_eq!(far(&after), left);
        let was_far = far(&before);
        prop_assert!(made.cells.iter().all(|(c, _)| was_far.contains(&c.row.action)));
    }

    #[test]
    fn a_layout_file_is_read_or_refused(text in "(name = \"x\"\n)?(\\[keys\\]\n)?[a-zA-Z =\"\\[\\]:,\n\u{0}-\u{2fff}]{0,60}") {
        let _ = Layout::from_toml(&text);
    }
}

/// A game that is looked round in with the mouse is played with one hand as well: its directions go on keys of
/// their own. What finds none is named and stays, and all else is offered.
#[test]
fn one_hand_looks_round_without_the_mouse() {
    let look = "[actions.look]\nshape = \"plane\"\nbind = [\"mouse:move\", \"pad:stick-right\"]\n";
    let sheet = crate::common::small(&format!(
        "{look}[actions.jump]\nbind = \"KeyL\"\n[actions.walk]\nshape = \"plane\"\nup.bind = \"KeyW\"\ndown.bind = \"KeyS\"\nleft.bind = \"KeyA\"\nright.bind = \"KeyD\""
    ));
    let us = Layout::us();
    let rig = Rig::new(&sheet, &Profile::new("x"), &us);
    let made = one_handed(&sheet, rig.bindings(), Hand::Left, &us, Platform::Other);
    assert_eq!(made.unmoved, []);
    let mut draft = swap_knot::Draft::new(&sheet, Profile::new("x"), &us);
    draft.rebind(&made.cells).unwrap();
    let reach = Reach::new(&sheet, draft.bindings(), &us, Platform::Other);
    assert_eq!(reach.out_of_reach(Hand::Left, false), []);
    assert!(draft.conflicts().iter().all(|c| !c.class.is_conflict()));
    let looks = sheet.find("look").unwrap();
    let own = draft
        .bindings()
        .iter()
        .filter(|b| b.cell.row.action == looks);
    assert_eq!(own.count(), 6, "four keys beside mouse and stick");
    // Where the board is full it is named, and the rest is made all the same.
    let mut text = look.to_owned();
    for (n, place) in free_places().into_iter().enumerate() {
        text += &format!("[actions.a-{n}]\nfixed = true\nbind = \"{place}\"\n");
    }
    let full = crate::common::small(&text);
    let rig = Rig::new(&full, &Profile::new("x"), &us);
    let made = one_handed(&full, rig.bindings(), Hand::Left, &us, Platform::Other);
    let named: Vec<String> = made.unmoved.iter().map(|c| full.row_name(c.row)).collect();
    assert!(
        named.contains(&"look".to_owned()) && made.cells.is_empty(),
        "{named:?}"
    );
}

#[cfg(feature = "xkb")]
mod xkb {
    use super::*;

    #[test]
    fn any_layout_is_read_from_the_database_and_from_text() {
        if !std::path::Path::new("/usr/share/X11/xkb/symbols").exists() {
            patience::skip("no XKB keyboard database on this machine");
            return;
        }
        let read = Layout::read_xkb_names("fr", "").unwrap();
        assert_eq!((read.name(), read.title()), ("fr", "French"));
        assert_eq!(read.place_of('m'), Some(Place::Semicolon));
        let rare = Layout::read_xkb_names("fr", "oci").unwrap();
        assert_eq!(rare.name(), "fr-oci");
        let wrong = Layout::read_xkb_names("nowhere", "")
            .unwrap_err()
            .to_string();
        assert!(wrong.starts_with("`nowhere` types nothing"), "{wrong}");
    }

    #[test]
    fn a_keymap_as_text_is_read_without_the_database() {
        let text = r#"xkb_keymap {
            xkb_keycodes { <q> = 24; };
            xkb_types { type "TWO_LEVEL" { modifiers = Shift; map[Shift] = Level2; }; };
            xkb_compat {};
            xkb_symbols { key <q> { type = "TWO_LEVEL", [ odiaeresis, Odiaeresis ] }; };
        };"#;
        let layout = Layout::read_xkb_text(text, "mine", 0).unwrap();
        assert_eq!(layout.legend(Place::KeyQ).as_deref(), Some("Ö"));
        let wrong = Layout::read_xkb_text("xkb_keymap {", "mine", 0)
            .unwrap_err()
            .to_string();
        assert!(wrong.starts_with("not an XKB keymap: "), "{wrong}");
        assert!(Layout::read_xkb_text(text, "mine", 3).is_err());
    }
}

#[test]
fn a_self_check_names_every_culprit() {
    self_check(&demo(), ["{do:cast-off}", "{walk}"]).unwrap();
    let text = r#"
        game = "x"
        [actions.a]
        bind = "letter:z"
        [actions.b]
        bind = "KeyY"
        [actions.c]
        bind = "IntlBackslash"
        [presets.odd]
        bind = { b = { keyboard-1 = "IntlBackslash" } }
    "#;
    let sheet = Sheet::from_toml(text).unwrap();
    let wrong = self_check(&sheet, ["{d}", "fine"]).unwrap_err();
    insta::assert_snapshot!(wrong.to_string());
    assert_eq!(wrong.problems().len(), 5);
}

#[test]
fn a_dead_key_held_while_the_focus_comes_teaches_nothing_by_composing_with_itself() {
    let mut learner = LayoutLearner::new(shipped("fr"));
    let (at, device, place) = (Time::ZERO, DeviceId(0), Place::BracketLeft);
    let hear = |learner: &mut LayoutLearner, what| learner.hear(&Event { at, device, what });
    assert!(hear(&mut learner, EventKind::KeyHeld { place }).is_none());
    let (down, text) = (true, Some('^'));
    assert!(hear(&mut learner, EventKind::Key { place, down, text }).is_none());
    assert_eq!(learner.layout().name(), "fr");
}
