//! Glyphs, maps and cards: everything is drawn, fits, and can be told apart.

#![allow(clippy::unwrap_used, clippy::panic)]

use std::collections::HashMap;

use resvg::usvg;
use swap_knot::input::{HidButton, HidInput};
use swap_knot::{Draft, Input, Layout, MouseButton, Place, Profile, Sheet, Words};
use swap_knot_draw::{Card, Drawing, Glyphs, KeyboardMap, Theme, font_warning};

const DEMO: &str = include_str!("../../../demo/slack-water.toml");

fn inputs() -> impl Iterator<Item = Input> {
    let numbered = (6..=MouseButton::LAST).filter_map(MouseButton::from_number);
    let further = ["letter:m", "touch:horn", "touch:a-rather-long-zone"];
    Input::all_named()
        .chain(numbered.map(Input::MouseButton))
        .chain(HidButton::all().map(|b| Input::Hid(HidInput::Button(b))))
        .chain(further.map(|text| text.parse().unwrap()))
}

/// The boxes of all texts, as they are drawn with the fonts of this machine.
fn texts(drawing: &Drawing) -> (usvg::Size, Vec<usvg::Rect>) {
    fn collect(group: &usvg::Group, out: &mut Vec<usvg::Rect>) {
        for node in group.children() {
            match node {
                usvg::Node::Group(group) => collect(group, out),
                usvg::Node::Text(text) => out.push(text.abs_bounding_box()),
                _ => {}
            }
        }
    }
    let mut fonts = usvg::fontdb::Database::new();
    fonts.load_font_data(dejavu::sans::regular().to_vec());
    fonts.load_font_data(dejavu::sans::bold().to_vec());
    fonts.load_system_fonts();
    let options = usvg::Options {
        fontdb: std::sync::Arc::new(fonts),
        font_family: "DejaVu Sans".to_owned(),
        ..usvg::Options::default()
    };
    let tree = usvg::Tree::from_str(&drawing.to_svg(), &options).unwrap();
    let mut out = Vec::new();
    collect(tree.root(), &mut out);
    (tree.size(), out)
}

/// Every text is inside of the page and none is on another.
fn assert_fits(drawing: &Drawing, what: &str) {
    let (size, boxes) = texts(drawing);
    for (i, a) in boxes.iter().enumerate() {
        let inside = a.left() >= -0.5
            && a.top() >= -0.5
            && a.right() <= size.width() + 0.5
            && a.bottom() <= size.height() + 0.5;
        assert!(inside, "{what}: {a:?} leaves {size:?}");
        for b in &boxes[i + 1..] {
            let across = a.right().min(b.right()) - a.left().max(b.left());
            let down = a.bottom().min(b.bottom()) - a.top().max(b.top());
            // Boxes have room above capitals and below the line.
            assert!(across < 1.5 || down < 4.0, "{what}: {a:?} on {b:?}");
        }
    }
}

#[test]
fn every_input_has_a_drawing_of_its_own_in_both_themes() {
    let (us, words) = (Layout::us(), Words::english());
    for theme in [Theme::LIGHT, Theme::DARK] {
        let glyphs = Glyphs::new(&theme);
        let mut known: HashMap<String, Input> = HashMap::new();
        for input in inputs() {
            let drawing = glyphs.input(input, &us, &words);
            assert_eq!(drawing.height(), 48.0);
            assert!((48.0..=150.0).contains(&drawing.width()), "{input}");
            roxmltree::Document::parse(&drawing.to_svg()).unwrap();
            // A letter is on a key, the main modifier is another one, and one board has either.
            let shared = |i: Input| match i {
                Input::Letter(_) | Input::Modifier(_) => true,
                Input::Key(place) => us.board().key(place).is_none() || place == Place::Backspace,
                _ => false,
            };
            if let Some(other) = known.insert(drawing.to_svg(), input) {
                assert!(
                    shared(input) || shared(other),
                    "{input} and {other} look alike"
                );
            }
        }
    }
}

#[test]
fn glyphs_are_told_apart_at_24_pixels() {
    let glyphs = Glyphs::new(&Theme::DARK);
    let (us, words) = (Layout::us(), Words::english());
    let drawn: Vec<(Input, Vec<u8>)> = Input::all_named()
        .filter(|i| i.to_string().starts_with("pad:") || i.to_string().starts_with("mouse:"))
        .map(|i| {
            let picture = glyphs.input(i, &us, &words).to_pixels(24).unwrap();
            assert_eq!((picture.width(), picture.height()), (24, 24));
            (i, picture.pixels().to_vec())
        })
        .collect();
    assert!(drawn.len() > 30);
    for (i, (a, left)) in drawn.iter().enumerate() {
        for (b, right) in &drawn[i + 1..] {
            let differ = left
                .chunks(4)
                .zip(right.chunks(4))
                .filter(|(x, y)| x.iter().zip(*y).any(|(p, q)| p.abs_diff(*q) > 60));
            let count = differ.count();
            assert!(count >= 8, "{a} and {b} differ in {count} pixels only");
        }
    }
}

#[test]
fn colours_have_contrast() {
    fn light(hex: &str) -> f64 {
        let part = |at: usize| {
            let value = f64::from(u8::from_str_radix(&hex[at..at + 2], 16).unwrap()) / 255.0;
            match value <= 0.040_45 {
                true => value / 12.92,
                false => ((value + 0.055) / 1.055).powf(2.4),
            }
        };
        0.2126 * part(1) + 0.7152 * part(3) + 0.0722 * part(5)
    }
    // WCAG 2.2, contrast ratio.
    let contrast = |a: &str, b: &str| {
        let (a, b) = (light(a), light(b));
        (a.max(b) + 0.05) / (a.min(b) + 0.05)
    };
    for theme in [Theme::LIGHT, Theme::DARK] {
        let mut pairs = vec![
            (theme.ink, theme.paper),
            (theme.quiet, theme.paper),
            (theme.ink, theme.cap),
            (theme.on_accent, theme.accent),
            (theme.alarm, theme.cap),
            (theme.alarm, theme.paper),
        ];
        for group in theme.groups {
            pairs.extend([(theme.ink, group.fill), (theme.on_badge, group.edge)]);
        }
        for (text, ground) in pairs {
            let ratio = contrast(text, ground);
            assert!(ratio >= 4.5, "{text} on {ground}: {ratio:.2}");
        }
        assert!(contrast(theme.accent, theme.cap) >= 3.0);
        assert!(contrast(theme.edge, theme.paper) >= 3.0);
    }
}

#[test]
fn maps_and_cards_fit_in_every_language_and_on_every_board() {
    let sheet = Sheet::from_toml(DEMO).unwrap();
    for (layout, language) in [
        ("us", "en"),
        ("fr", "de"),
        ("jp", "ja"),
        ("br", "pt-BR"),
        ("kr", "pl"),
        ("ru", "zh-Hans"),
    ] {
        let layout = Layout::shipped(layout).unwrap();
        let mut draft = Draft::new(&sheet, Profile::default(), &layout);
        draft.set_words(&Words::shipped(language).unwrap());
        assert_fits(
            &KeyboardMap::new(&draft, &Theme::LIGHT).draw(),
            &format!("map {language}"),
        );
        assert_fits(
            &Card::new(&draft, &Theme::DARK).draw(),
            &format!("card {language}"),
        );
    }
}

#[test]
fn sixty_actions_with_long_titles_fit() {
    let places: Vec<&str> = "KeyQ KeyW KeyE KeyR KeyT KeyA KeyS KeyD KeyF KeyG KeyZ KeyX KeyC KeyV KeyB Space Tab F1 F2 Numpad4".split(' ').collect();
    let mut text = String::from(
        "game = \"long\"\ntitle = \"Ein Spiel mit einem ausgesprochen langen Namen für eine einzige Zeile\"\n[groups]\n",
    );
    for n in 0..10 {
        text += &format!("g-{n} = \"Gruppe {n}\"\n");
    }
    for n in 0..6 {
        text += &format!("[situations.s-{n}]\n");
    }
    for n in 0..60 {
        let title = [
            "Rettungsbootaussetzvorrichtung",
            "ドックのクレーンを左舷へゆっくり回す",
            "Swing",
        ][n % 3];
        let held = ["", "Ctrl+", "Ctrl+Alt+Shift+"][n % 3];
        text += &format!(
            "[actions.a-{n}]\ntitle = \"{title} {n}\"\ngroup = \"g-{}\"\nsituation = \"s-{}\"\nbind = [\"{held}{}\", \"F{}\", \"pad:shoulder-left+pad:shoulder-right+pad:south\"]\n",
            n / 6,
            n % 6,
            places[n % 20],
            n % 12 + 1
        );
    }
    let sheet = Sheet::from_toml(&text).unwrap();
    let draft = Draft::new(&sheet, Profile::default(), &Layout::shipped("de").unwrap());
    assert_fits(&KeyboardMap::new(&draft, &Theme::DARK).draw(), "map");
    let card = Card::new(&draft, &Theme::DARK);
    assert_fits(&card.draw(), "card");
    let html = card.to_html();
    assert_eq!(html.matches("<h2>").count(), 10);
    assert_eq!(html.matches("scope=\"row\"").count(), 60);
}

#[test]
fn long_german_titles_are_broken_at_syllables_and_none_is_cut() {
    let titles = [
        "Rettungsbootaussetzvorrichtung",
        "Überprüfung der Rudermaschine",
        "Schlepptrossenhaken entriegeln",
        "Backbordscheinwerfer einschalten",
        "überprüfen",
    ];
    let mut text = String::from("game = \"long\"\n");
    for (n, place) in Place::WRITING[..45].iter().enumerate() {
        let title = titles[n % titles.len()];
        text += &format!("[actions.a-{n}]\ntitle = \"{title}\"\nbind = \"{place}\"\n");
    }
    let sheet = Sheet::from_toml(&text).unwrap();
    let mut draft = Draft::new(&sheet, Profile::default(), &Layout::shipped("de").unwrap());
    draft.set_words(&Words::shipped("de").unwrap());
    let map = KeyboardMap::new(&draft, &Theme::DARK).to_svg();
    assert!(!map.contains('…'), "nothing is cut short");
    for line in [
        ">Rettungs-<",
        ">bootaussetz-<",
        ">vorrichtung<",
        ">überprüfen<",
    ] {
        assert!(map.contains(line), "{line}");
    }
    // All rows of a card are set in one size.
    let card = Card::new(&draft, &Theme::LIGHT).to_svg();
    assert!(!card.contains('…'));
    let document = roxmltree::Document::parse(&card).unwrap();
    let rows = document
        .descendants()
        .filter(|n| n.text().is_some_and(|t| titles.contains(&t)));
    let sizes: std::collections::BTreeSet<_> = rows
        .filter_map(|n| {
            n.parent()?
                .attribute("font-size")
                .or(n.attribute("font-size"))
        })
        .collect();
    assert_eq!(sizes.len(), 1, "{sizes:?}");
}

#[test]
fn letters_without_a_font_are_told_with_what_to_install() {
    // A private letter, which no font of a machine has.
    let text = "game = \"x\"\n[actions.a]\ntitle = \"Klar \u{F8F0}\"\nbind = \"KeyA\"";
    let sheet = Sheet::from_toml(text).unwrap();
    let draft = Draft::new(&sheet, Profile::default(), &Layout::us());
    let lacking = Card::new(&draft, &Theme::LIGHT).draw().lacking_letters();
    assert_eq!(lacking.into_iter().collect::<String>(), "\u{F8F0}");
    assert_eq!(font_warning(&std::collections::BTreeSet::new()), None);
    let warning = font_warning(&['あ', 'ก'].into()).unwrap();
    for wanted in ["あ", "fonts-noto-cjk", "fonts-noto-core"] {
        assert!(warning.contains(wanted), "{warning}");
    }
}

#[test]
fn maps_mark_changes_conflicts_and_chords_and_can_be_narrowed() {
    let sheet = Sheet::from_toml(DEMO).unwrap();
    let us = Layout::us();
    let mut profile = Profile::new("Ada");
    let cell = sheet.defaults_of(sheet.find("cast-off").unwrap())[0].cell;
    profile.set(&sheet, cell, Some(Place::KeyF.into()));
    let draft = Draft::new(&sheet, profile, &us);
    let svg = KeyboardMap::new(&draft, &Theme::DARK).to_svg();
    for wanted in [
        "● Cast off",
        "! conflict",
        "● changed",
        "Ctrl+ Stow",
        "Horn",
    ] {
        assert!(svg.contains(wanted), "{wanted}");
    }
    let chart = sheet.find_situation("chart").unwrap();
    let svg = KeyboardMap::new(&draft, &Theme::DARK)
        .in_situation(chart)
        .to_svg();
    assert!(svg.contains("Zoom in") && !svg.contains("Horn"));
    let html = Card::new(&draft, &Theme::LIGHT).to_html();
    assert!(html.contains("class=\"changed\">● Cast off") && html.contains("aria-label=\"F\""));
    // Without a profile nothing is marked.
    let plain = Draft::new(&sheet, Profile::default(), &us);
    assert!(!Card::new(&plain, &Theme::LIGHT).to_svg().contains('●'));
}

#[test]
fn titles_cannot_break_out_of_the_picture() {
    let text = "game = \"x\"\ntitle = \"<script>&\\u0007\"\n[actions.a]\ntitle = \"\\\"<b>\"\nbind = \"Comma\"";
    let sheet = Sheet::from_toml(text).unwrap();
    let draft = Draft::new(&sheet, Profile::default(), &Layout::us());
    let card = Card::new(&draft, &Theme::LIGHT);
    for svg in [
        card.to_svg(),
        KeyboardMap::new(&draft, &Theme::LIGHT).to_svg(),
    ] {
        roxmltree::Document::parse(&svg).unwrap();
    }
    assert!(!card.to_html().contains("<script") && !card.to_html().contains("<b>"));
}
