//! Packs of a game's own art, good ones and bad ones.

#![allow(clippy::unwrap_used, clippy::panic)]

use std::fs;
use std::path::Path;

use swap_knot::prompt::Marks;
use swap_knot::{Input, Layout, Sheet, Words};
use swap_knot_draw::{Glyphs, Pack, Theme};

const DEMO: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/glyphs");
const SHEET: &str = include_str!("../../../demo/slack-water.toml");
const DOT: &str =
    "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"8\" height=\"8\"><circle r=\"4\"/></svg>";

fn usb(text: &str) -> swap_knot::input::UsbId {
    text.parse().unwrap()
}

fn input(text: &str) -> Input {
    text.parse().unwrap()
}

/// Files under `golden` are added to and never changed: packs of every version are read for ever.
#[test]
fn packs_of_every_version_are_read() {
    let golden = concat!(env!("CARGO_MANIFEST_DIR"), "/tests/golden");
    for version in fs::read_dir(golden).unwrap() {
        let pack = Pack::open(version.unwrap().path()).unwrap();
        assert_eq!((pack.title(), pack.notes()), ("Golden", &[][..]));
        assert_eq!(pack.family_of(usb("1209:0007")), Some("quayside"));
        assert!(pack.picture(input("touch:horn"), None).is_some());
        assert!(pack.picture(input("pad:east"), Some("quayside")).is_some());
    }
    let folder = tempfile::tempdir().unwrap();
    fs::write(folder.path().join("glyphs.toml"), "format = 2").unwrap();
    let newer = Pack::open(folder.path()).unwrap_err().to_string();
    let wanted = "written in format 2, and this version reads 1";
    assert!(newer.contains(wanted), "{newer}");
}

#[test]
fn the_demo_pack_has_families_that_fall_back() {
    let pack = Pack::open(DEMO).unwrap();
    assert_eq!((pack.title(), pack.notes()), ("Brass and rope", &[][..]));
    assert_eq!(pack.family_of(usb("1209:0001")), Some("quayside"));
    assert_eq!(
        pack.family_of(usb("1209:beef")),
        Some("quayside"),
        "any product"
    );
    assert_eq!(pack.family_of(usb("0000:0001")), None);
    let south = input("pad:south");
    let quayside = pack.picture(south, Some("quayside")).unwrap();
    assert!(quayside.starts_with(b"\x89PNG"));
    assert!(pack.picture(south, None).unwrap().starts_with(b"<svg"));
    let east = pack.picture(input("pad:east"), Some("quayside"));
    assert!(east.unwrap().starts_with(b"<svg"), "the one for any family");
    assert_eq!(pack.picture(input("KeyQ"), Some("quayside")), None);
    let sheet = Sheet::from_toml(SHEET).unwrap();
    assert_eq!(pack.check(&sheet).unused.len(), 4, "what the marks name");
    let marks = include_str!("../../../demo/marks.toml");
    let marks = Marks::from_toml(marks, "marks.toml").unwrap();
    let pack = pack.with_marks(&marks, Path::new(DEMO).parent().unwrap());
    let report = pack.check(&sheet);
    assert!(report.missing.contains(&input("KeyW")) && report.unused.is_empty());
    assert_eq!((report.drawn, report.notes.len()), (7, 0));
    // By whose marks the words have: a family's own, and never one for any where it is known what is
    // printed there.
    let words = |family| Words::english().with_marks(&marks, family);
    let south_of = |family| pack.picture_for(south, &words(family)).map(<[u8]>::to_vec);
    assert!(south_of(Some("quayside")).unwrap().starts_with(b"\x89PNG"));
    let anchor = std::fs::read(Path::new(DEMO).join("ropewalk/anchor.svg")).unwrap();
    assert_eq!(south_of(Some("ropewalk")), Some(anchor));
    assert!(south_of(None).unwrap().starts_with(b"<svg"));
    let east = pack.picture_for(input("pad:east"), &words(Some("quayside")));
    assert_eq!(east, None, "the built-in drawing has its mark");
}

/// A pack with that manifest; answers what cannot be used.
fn notes(manifest: &str, make: impl Fn(&Path)) -> String {
    let folder = tempfile::tempdir().unwrap();
    let pack = folder.path().join("pack");
    fs::create_dir(&pack).unwrap();
    fs::write(pack.join("glyphs.toml"), manifest).unwrap();
    make(&pack);
    let pack = Pack::open(&pack).unwrap();
    let notes: Vec<String> = pack.notes().iter().map(ToString::to_string).collect();
    notes.join("\n")
}

#[test]
fn bad_files_are_told_one_by_one_and_nothing_is_read_outside() {
    let manifest = r#"
        [files]
        KeyA = "missing.svg"
        KeyB = "../secret.svg"
        KeyC = "/etc/passwd"
        KeyD = "link.svg"
        KeyE = "outside.svg"
        KeyF = "style.svg"
        KeyG = "script.svg"
        KeyH = "bomb.svg"
        KeyI = "cut.svg"
        KeyJ = "huge.png"
        KeyK = "cut.png"
        KeyL = "fat.svg"
        KeyM = "art.gif"
        KeyN = "folder.svg"
        KeyO = "fine.svg"
    "#;
    let told = notes(manifest, |pack| {
        let write = |name: &str, text: &str| fs::write(pack.join(name), text).unwrap();
        fs::write(pack.join("../secret.svg"), DOT).unwrap();
        std::os::unix::fs::symlink("../secret.svg", pack.join("link.svg")).unwrap();
        let svg = |body: &str| {
            format!(
                "<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:x=\"http://www.w3.org/1999/xlink\">{body}</svg>"
            )
        };
        write("outside.svg", &svg("<use x:href=\"other.svg#a\"/>"));
        write(
            "style.svg",
            &svg("<rect fill=\"url(http://example.com/a)\"/>"),
        );
        write("script.svg", &svg("<script>1</script>"));
        write(
            "bomb.svg",
            "<!DOCTYPE svg [<!ENTITY a \"aa\">]><svg xmlns=\"http://www.w3.org/2000/svg\">&a;</svg>",
        );
        write("cut.svg", &DOT[..40]);
        write("art.gif", "GIF89a");
        write("fine.svg", DOT);
        fs::create_dir(pack.join("folder.svg")).unwrap();
        let png = fs::read(format!("{DEMO}/quayside/south.png")).unwrap();
        fs::write(pack.join("cut.png"), &png[..png.len() / 2]).unwrap();
        // A header that promises 10,000 x 10,000 pixels.
        let mut huge = png.clone();
        huge[16..24].copy_from_slice(&[0, 0, 0x27, 0x10, 0, 0, 0x27, 0x10]);
        let sum = crc(&huge[12..29]);
        huge[29..33].copy_from_slice(&sum.to_be_bytes());
        fs::write(pack.join("huge.png"), huge).unwrap();
        fs::write(pack.join("fat.svg"), " ".repeat(2 << 20)).unwrap();
    });
    insta::assert_snapshot!(told);
}

/// The checksum of a PNG chunk (ISO/IEC 15948, annex D).
fn crc(bytes: &[u8]) -> u32 {
    !bytes.iter().fold(!0_u32, |sum, byte| {
        (0..8).fold(sum ^ u32::from(*byte), |s, _| {
            if s & 1 == 1 {
                0xEDB8_8320 ^ (s >> 1)
            } else {
                s >> 1
            }
        })
    })
}

#[test]
fn broken_manifests_are_told_with_their_place() {
    let open = |manifest: &str| {
        let folder = tempfile::tempdir().unwrap();
        fs::write(folder.path().join("glyphs.toml"), manifest).unwrap();
        let error = Pack::open(folder.path()).unwrap_err().to_string();
        error.replace(&folder.path().display().to_string(), "pack")
    };
    let all = [
        "[files",
        "[file]",
        "[files]\n\"pad:sout\" = \"a.svg\"",
        "[files]\nKeyA = 1",
        "[families.x]\nusb = [\"12:34\"]",
        "[families.x]\nusb = \"1209:0001\"",
        "title = 3",
    ]
    .map(open);
    insta::assert_snapshot!(all.join("\n"));
    let nowhere = Pack::open("/nowhere").unwrap_err().to_string();
    assert!(nowhere.starts_with("/nowhere/glyphs.toml: "), "{nowhere}");
}

#[test]
fn a_pack_is_written_out_as_one_picture_with_places() {
    let pack = Pack::open(DEMO).unwrap();
    let further = ["KeyW", "Space", "pad:south"].map(input);
    let glyphs = Glyphs::new(&Theme::DARK);
    let atlas = pack
        .atlas(64, further, &glyphs, &Layout::us(), &Words::english())
        .unwrap();
    let (w, h) = (atlas.picture.width(), atlas.picture.height());
    assert_eq!(
        atlas.places.len(),
        7 + 2 + 1,
        "one that the pack has is not drawn twice"
    );
    for (i, a) in atlas.places.iter().enumerate() {
        assert!(a.x + a.width <= w && a.y + a.height <= h);
        let pixels = atlas.picture.pixels();
        let at = |x: u32, y: u32| pixels[((y * w + x) * 4 + 3) as usize];
        let inked = (a.x..a.x + a.width).any(|x| (a.y..a.y + a.height).any(|y| at(x, y) > 200));
        assert!(inked, "{} is there", a.input);
        for b in &atlas.places[i + 1..] {
            let apart = a.x + a.width <= b.x
                || b.x + b.width <= a.x
                || a.y + a.height <= b.y
                || b.y + b.height <= a.y;
            assert!(apart, "{} and {}", a.input, b.input);
        }
    }
    let table: toml::Table = atlas.to_toml().parse().unwrap();
    assert_eq!(table["size"][0].as_integer(), Some(i64::from(w)));
    assert!(table["families"]["quayside"]["pad:south"].is_array());
    assert!(atlas.picture.to_png().unwrap().starts_with(b"\x89PNG"));
}
