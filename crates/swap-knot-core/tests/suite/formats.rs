//! Every file of every version that was ever written is read for ever, and written back without
//! loss. Files under `golden` are added to and never changed.

use std::fs;
use std::path::{Path, PathBuf};

use swap_knot::input::Mappings;
use swap_knot::keep::{LockerErrorKind, Setting, SettingValue};
use swap_knot::prompt::Marks;
use swap_knot::{Layout, Locker, PadButton, Place, Profile, Rig, Sheet, Slug, Trace, Words};

/// The folders of the versions there were.
fn versions() -> Vec<PathBuf> {
    let golden = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/golden");
    let mut all: Vec<PathBuf> = (fs::read_dir(golden).unwrap())
        .map(|e| e.unwrap().path())
        .collect();
    all.sort();
    assert!(!all.is_empty());
    all
}

#[test]
fn every_golden_file_is_read_and_written_back() {
    for folder in versions() {
        let text = |name: &str| fs::read_to_string(folder.join(name)).unwrap();
        let trace: Trace = text("session.trace").parse().unwrap();
        assert_eq!(trace.to_string(), text("session.trace"));
        // Only traces have further versions; marks and mappings came with the third.
        if folder.ends_with("2") {
            assert!(trace.is_exact());
            continue;
        }
        if folder.ends_with("4") {
            assert_eq!(trace.entries().len(), 3);
            continue;
        }
        if folder.ends_with("3") {
            let marks = Marks::from_toml(&text("marks.toml"), "marks.toml").unwrap();
            let german = Words::shipped("de").unwrap();
            let words = german.with_marks(&marks, Some("ropewalk"));
            let name = |input: PadButton| words.input_name(input.into(), &Layout::us());
            assert_eq!(name(PadButton::South), "T");
            assert_eq!(name(PadButton::CenterRight), "Mustertaste");
            assert_eq!(words.confirm(), PadButton::East);
            assert_eq!(words.family_title("ropewalk"), "Reeperbahn");
            assert_eq!(marks.pictures().count(), 1);
            let mappings = Mappings::from_toml(&text("mappings"), "mappings").unwrap();
            assert_eq!(mappings.to_toml(), text("mappings"));
            assert_eq!(mappings.kinds().count(), 3);
            continue;
        }
        let sheet = Sheet::from_toml(&text("sheet.toml")).unwrap_or_else(|e| panic!("{e}"));
        let profile = Profile::from_toml(&text("profile.toml")).unwrap();
        let layout = Layout::from_toml(&text("layout.toml")).unwrap();
        // The written text may differ in order; what it says may not.
        let written = profile.to_toml();
        let table = |text: &str| text.parse::<toml::Table>().unwrap();
        assert_eq!(
            table(&written),
            table(&text("profile.toml")),
            "{}",
            folder.display()
        );
        let rig = Rig::new(&sheet, &profile, &layout);
        assert!(!rig.bindings().is_empty());
    }
}

#[test]
fn the_first_version_means_what_it_meant() {
    let folder = &versions()[0];
    let text = |name: &str| fs::read_to_string(folder.join(name)).unwrap();
    let sheet = Sheet::from_toml(&text("sheet.toml")).unwrap();
    let profile = Profile::from_toml(&text("profile.toml")).unwrap();
    let layout = Layout::from_toml(&text("layout.toml")).unwrap();
    let rig = Rig::new(&sheet, &profile, &layout);
    let bound: Vec<String> = rig
        .bindings()
        .iter()
        .map(|b| {
            let row = sheet.row_name(b.cell.row);
            format!("{row} {} = {} ({:?})", b.cell.column, b.chord, b.origin)
        })
        .collect();
    insta::assert_snapshot!(bound.join("\n"));
    let told: Vec<String> = rig.not_in_force().iter().map(ToString::to_string).collect();
    insta::assert_snapshot!(told.join("\n"));
    let known = profile
        .settings()
        .filter(|(s, _)| !matches!(s, Setting::Unread { .. }));
    assert_eq!(known.count(), 15);
    let gave_way = Setting::Bind {
        row: "horn".to_owned(),
        column: "keyboard-3".parse().unwrap(),
    };
    assert!(matches!(
        profile.setting(&gave_way),
        Some(SettingValue::GaveWay(_))
    ));
    assert_eq!(layout.place_of('ö'), Some(Place::KeyQ));
    assert_eq!(layout.place_of('m'), None);
}

#[test]
fn a_locker_of_the_first_version_is_opened() {
    let from = versions()[0].join("locker");
    let folder = tempfile::tempdir().unwrap();
    for entry in fs::read_dir(from).unwrap() {
        let entry = entry.unwrap();
        fs::copy(entry.path(), folder.path().join(entry.file_name())).unwrap();
    }
    let locker = Locker::open(folder.path()).unwrap();
    let slug = |text: &str| text.parse::<Slug>().unwrap();
    assert_eq!(locker.names().unwrap(), [slug("ada"), slug("cem")]);
    assert_eq!(locker.active().unwrap(), Some(slug("ada")));
    assert_eq!(locker.load(&slug("ada")).profile.title(), "Ada");
    assert_eq!(locker.load(&slug("cem")).profile.title(), "Cem");
    locker.undelete(&slug("bo")).unwrap();
    assert_eq!(locker.load(&slug("bo")).profile.title(), "Bo");

    // One of a later version is read, and not written into.
    fs::write(folder.path().join("format"), "2\n").unwrap();
    let refused = locker.delete(&slug("ada")).unwrap_err();
    assert!(
        matches!(refused.kind(), LockerErrorKind::Newer),
        "{refused}"
    );
    assert_eq!(locker.load(&slug("ada")).profile.title(), "Ada");
}

#[test]
fn files_of_a_later_version_are_told_and_left_alone() {
    let newer = "written in format 2, and this version reads 1";
    let sheet = Sheet::from_toml("format = 2\ngame = \"x\"")
        .unwrap_err()
        .to_string();
    let of_sheet = "is written in format 2, and this Swap Knot reads format 1; update";
    assert!(sheet.contains(of_sheet), "{sheet}");
    let layout = Layout::from_toml("format = 2\nname = \"x\"")
        .unwrap_err()
        .to_string();
    assert!(layout.contains(newer), "{layout}");
    let trace = "format 5\n".parse::<Trace>().unwrap_err().to_string();
    assert_eq!(
        trace,
        "line 1: recorded in format 5, and this version reads 4; update it"
    );
    assert!(Profile::from_toml("format = 2").unwrap_err().is_newer());
}
