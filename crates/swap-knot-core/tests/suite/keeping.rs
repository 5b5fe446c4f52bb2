//! Profiles and the locker: only differences, nothing lost, whatever happens to the files.

use std::fs;
use std::io::{BufRead as _, BufReader};
use std::process::{Command, Stdio};
use std::time::Duration;

use crate::common::{cell, chord, demo, small};
use proptest::prelude::*;
use swap_knot::keep::{LoadNote, LockerErrorKind};
use swap_knot::play::Origin;
use swap_knot::{Layout, Locker, Profile, Rig, Sheet, Slug};

fn slug(text: &str) -> Slug {
    text.parse().unwrap()
}

/// A profile with cast-off on the n-th of a few keys.
fn profile(n: usize) -> Profile {
    let sheet = demo();
    let keys = ["KeyE", "KeyG", "KeyV", "KeyB", "KeyN"];
    let mut profile = Profile::new("Ada");
    profile.set(
        &sheet,
        cell(&sheet, "cast-off keyboard-1"),
        Some(chord(keys[n % keys.len()])),
    );
    profile.set(&sheet, cell(&sheet, "horn keyboard-2"), None);
    profile
}

#[test]
fn a_profile_holds_only_differences() {
    insta::assert_snapshot!(profile(0).to_toml(), @r#"
    # What this player changed; everything else follows the game's defaults.
    format = 1
    title = "Ada"

    [bind.cast-off]
    keyboard-1 = "KeyE"

    [bind.horn]
    keyboard-2 = "unbound"
    "#);
}

#[test]
fn what_this_version_does_not_know_is_kept() {
    let text = "format = 1\ntitle = \"Ada\"\nhats = [1, 2]\n[bind]\nodd = 3\n[bind.fly]\nkeyboard-1 = \"KeyF\"\n[bind.horn]\nkeyboard-1 = \"neural:blink\"\nfoot-1 = \"pedal\"\n";
    let mut profile = Profile::from_toml(text).unwrap();
    let sheet = demo();
    assert!(
        profile.changes(&sheet).is_empty(),
        "none of it is for this sheet"
    );
    profile.set(
        &sheet,
        cell(&sheet, "lantern keyboard-1"),
        Some(chord("KeyL")),
    );
    let written = profile.to_toml();
    for kept in [
        "hats = [1, 2]",
        "odd = 3",
        "[bind.fly]",
        "neural:blink",
        "foot-1 = \"pedal\"",
        "KeyL",
    ] {
        assert!(written.contains(kept), "{kept} is lost:\n{written}");
    }
    assert_eq!(Profile::from_toml(&written).unwrap(), profile);
}

#[test]
fn a_better_default_reaches_who_did_not_change_it() {
    let old = small("[actions.horn]\nbind = \"KeyH\"\n[actions.lamp]\nbind = \"KeyL\"");
    let new = small("[actions.horn]\nbind = \"KeyN\"\n[actions.lamp]\nbind = \"KeyF\"");
    let mut profile = Profile::new("Ada");
    profile.set(&old, cell(&old, "horn keyboard-1"), Some(chord("KeyG")));
    let rig = Rig::new(&new, &profile, &Layout::us());
    let now: Vec<(String, Origin)> = rig
        .bindings()
        .iter()
        .map(|b| (b.chord.to_string(), b.origin))
        .collect();
    assert_eq!(
        now,
        [
            ("KeyG".to_owned(), Origin::Profile),
            ("KeyF".to_owned(), Origin::Default)
        ]
    );
}

#[test]
fn a_profile_cannot_put_in_what_does_not_fit() {
    let sheet = demo();
    let text =
        "format = 1\n[bind.cast-off]\nkeyboard-1 = \"pad:south\"\ngamepad-1 = \"pad:stick-left\"\n";
    let rig = Rig::new(&sheet, &Profile::from_toml(text).unwrap(), &Layout::us());
    assert_eq!(rig.not_in_force().len(), 2);
    assert_eq!(rig.bindings(), crate::common::us(&sheet).bindings());
}

#[test]
fn bad_profiles_are_told() {
    let said = |text: &str| Profile::from_toml(text).unwrap_err().to_string();
    let all = [
        said("title = \"Ada\""),
        said("format = 9"),
        said("format = 1\n[bind"),
        said(&"#".repeat(2 << 20)),
    ];
    insta::assert_snapshot!(all.join("\n"), @r"
    not a profile: it has no line `format = 1`
    written by a newer version of the game (format 9, this one reads 1); update the game to use it
    line 2, column 6: unclosed table, expected `]`
    a profile has at most 1048576 bytes, and this has 2097152
    ");
}

#[test]
fn names_have_no_path_in_them() {
    for bad in [
        "..",
        "a/b",
        "a\\b",
        "a\0b",
        "",
        "-a",
        "Ada",
        "con",
        "com1",
        &"a".repeat(300),
        "é",
    ] {
        assert!(bad.parse::<Slug>().is_err(), "{bad:?}");
    }
    let made = |title: &str| Slug::from_title(title).to_string();
    assert_eq!(made("Ada of the Barge 2"), "ada-of-the-barge-2");
    let long = "x".repeat(300);
    for odd in [
        "Ada & Björn",
        "../../etc",
        "",
        "NUL",
        "com1",
        &long,
        "灯台",
        "ada-b",
        " ada",
        "Ada  B",
    ] {
        let name = made(odd);
        assert!(
            name.parse::<Slug>().is_ok() && name.len() <= Slug::MAX,
            "{odd:?}: {name}"
        );
        assert_eq!(Slug::from_title(odd).title(), odd);
    }
    assert!(made("../../etc").starts_with("etc--"));
    // An accent is the same one, however it was typed.
    assert_eq!(made("Björn"), made("Bjo\u{308}rn"));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(4000)))]

    /// Files of two players never meet: not of titles that look alike to a file system, not of what an
    /// import numbers.
    #[test]
    fn two_titles_have_two_names(a in "[aA1 .-]{0,6}|\\PC{0,4}|[灯台霧笛]{1,3}", b in "[aA1 .-]{0,6}|\\PC{0,4}|[灯台霧笛]{1,3}") {
        use unicode_normalization::UnicodeNormalization as _;
        let folded = |t: &str| t.nfc().flat_map(char::to_lowercase).collect::<String>();
        let same = Slug::from_title(&a) == Slug::from_title(&b);
        prop_assert_eq!(same, folded(&a) == folded(&b), "{:?} and {:?}", a, b);
    }
}

#[test]
fn a_title_is_kept_as_it_was_typed_and_nobody_plays_anothers_profile() {
    let folder = tempfile::tempdir().unwrap();
    let locker = Locker::open(folder.path()).unwrap();
    let sheet = demo();
    let open = |title: &str| {
        let name = Slug::from_title(title);
        swap_knot::Controls::open(&sheet, locker.clone(), &name, &swap_knot::Layout::us())
    };
    for (title, key) in [
        ("灯台", "KeyG"),
        ("霧笛", "KeyU"),
        ("Łódź", "KeyN"),
        ("Ada of the Barge", "KeyB"),
    ] {
        let mut controls = open(title);
        assert_eq!(controls.profile().title(), title);
        assert!(controls.profile().is_unchanged(), "{title} is a new player");
        let mut draft = controls.draft();
        let cell = cell(&sheet, "horn keyboard-1");
        draft
            .rebind(&[(cell, Some(crate::common::chord(key)))])
            .unwrap();
        controls.apply(&mut draft);
        assert!(controls.save());
    }
    for (title, key) in [("灯台", "KeyG"), ("霧笛", "KeyU"), ("łódź", "KeyN")] {
        let again = open(title);
        assert!(again.profile().to_toml().contains(key), "{title}");
    }
    let roster = locker.roster().unwrap();
    let mut titles: Vec<&str> = roster
        .there
        .iter()
        .map(|(_, title)| title.as_str())
        .collect();
    titles.sort_unstable();
    assert_eq!(titles, ["Ada of the Barge", "Łódź", "灯台", "霧笛"]);
    // What a friend gives is another one beside it, and no title leads there.
    let ada = Slug::from_title("Ada of the Barge");
    let text = locker.export(&ada).unwrap().text;
    let second = locker.import(&text).unwrap();
    assert_ne!(second, ada);
    for title in ["Ada of the Barge 2", "ada-of-the-barge-2", second.as_str()] {
        assert_ne!(Slug::from_title(title), second, "{title}");
    }
}

#[test]
fn damaged_files_are_set_aside_and_the_last_good_one_used() {
    let sheet = demo();
    let damages: [(&str, Vec<u8>); 6] = [
        ("cut off", b"format = 1\n[bind.ca".to_vec()),
        ("empty", Vec::new()),
        ("not text", vec![0xFF, 0xFE, 0, 1]),
        ("huge", vec![b'#'; 50 << 20]),
        (
            "deep",
            format!("format = 1\na = {}", "[".repeat(200_000)).into_bytes(),
        ),
        ("another file", b"<html>".to_vec()),
    ];
    for (what, bytes) in damages {
        let folder = tempfile::tempdir().unwrap();
        let locker = Locker::open(folder.path()).unwrap();
        let name = slug("ada");
        locker.save(&name, &profile(0), &sheet).unwrap();
        locker.save(&name, &profile(1), &sheet).unwrap();
        fs::write(folder.path().join("ada.toml"), &bytes).unwrap();
        let loaded = locker.load(&name);
        assert_eq!(
            loaded.profile.changes(&sheet),
            profile(0).changes(&sheet),
            "{what}"
        );
        let [LoadNote::CannotRead { why, .. }, LoadNote::LastGood { .. }] = &loaded.notes[..]
        else {
            panic!("{what}: {:?}", loaded.notes);
        };
        assert!(why.is_damaged(), "{what}: {why}");
        assert_eq!(fs::read(folder.path().join("ada.toml")).unwrap(), bytes);
        // The next save works, sets it aside, and the copy is still the good one.
        locker.save(&name, &profile(2), &sheet).unwrap();
        let aside = fs::read(folder.path().join("ada.damaged-1")).unwrap();
        assert_eq!(aside, bytes, "nothing is overwritten");
        assert!(locker.load(&name).notes.is_empty());
    }
}

#[test]
fn a_newer_file_is_left_alone() {
    let folder = tempfile::tempdir().unwrap();
    let locker = Locker::open(folder.path()).unwrap();
    let path = folder.path().join("ada.toml");
    fs::write(&path, "format = 7\n").unwrap();
    let loaded = locker.load(&slug("ada"));
    assert!(matches!(&loaded.notes[..], [LoadNote::CannotRead { .. }]));
    assert_eq!(fs::read_to_string(path).unwrap(), "format = 7\n");
}

#[cfg(unix)]
#[test]
fn a_link_in_the_locker_is_not_written_through() {
    let (folder, other) = (tempfile::tempdir().unwrap(), tempfile::tempdir().unwrap());
    let target = other.path().join("precious");
    fs::write(&target, "precious").unwrap();
    for link in ["ada.toml", "ada.toml.new"] {
        std::os::unix::fs::symlink(&target, folder.path().join(link)).unwrap();
    }
    let locker = Locker::open(folder.path()).unwrap();
    locker.save(&slug("ada"), &profile(0), &demo()).unwrap();
    assert_eq!(fs::read_to_string(&target).unwrap(), "precious");
    assert!(locker.load(&slug("ada")).notes.is_empty());
}

const CHILD: &str = "SWAP_KNOT_SAVING_CHILD";
/// Whether it draws breath between two saves, so that others come in.
const PAUSES: &str = "SWAP_KNOT_SAVING_PAUSES";

/// Not a test of its own: the process that the next ones start, which saves for ever.
#[test]
fn saving_child() {
    let Ok(folder) = std::env::var(CHILD) else {
        return;
    };
    let locker = Locker::open(folder).unwrap();
    // Made beforehand, so that nearly all of its time goes into saving.
    let (sheet, profiles) = (small("[actions.horn]"), [0, 1, 2].map(profile));
    println!("saving");
    for n in 0.. {
        save_patiently(&locker, &profiles[n % 3], &sheet);
        if std::env::var_os(PAUSES).is_some() {
            std::thread::sleep(Duration::from_millis(2));
        }
    }
}

/// Saves once nobody else does. A locker itself waits for its turn no longer than a player would.
fn save_patiently(locker: &Locker, profile: &Profile, sheet: &Sheet) {
    patience::wait_for("its turn to save", || {
        match locker.save(&slug("ada"), profile, sheet) {
            Ok(_) => Ok(()),
            Err(e) if matches!(e.kind(), LockerErrorKind::InUse) => Err(e.to_string()),
            Err(e) => panic!("{e}"),
        }
    });
}

/// Starts a process that saves, and waits until it does.
fn start_saving(folder: &std::path::Path, pauses: bool) -> std::process::Child {
    let mut command = Command::new(std::env::current_exe().unwrap());
    if pauses {
        command.env(PAUSES, "1");
    }
    let mut child = command
        .args(["--exact", "keeping::saving_child", "--nocapture"])
        .env(CHILD, folder)
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .spawn()
        .unwrap();
    let mut out = BufReader::new(child.stdout.as_mut().unwrap());
    let mut line = String::new();
    while !line.contains("saving") || line.contains("saving_child") {
        line.clear();
        assert_ne!(out.read_line(&mut line).unwrap(), 0, "it never began");
    }
    child
}

#[test]
fn killing_the_process_while_it_saves_loses_nothing() {
    let folder = tempfile::tempdir().unwrap();
    let locker = Locker::open(folder.path()).unwrap();
    let sheet = demo();
    locker.save(&slug("ada"), &profile(0), &sheet).unwrap();
    for round in 0..u64::from(crate::common::worlds(1000).min(200)) {
        let mut child = start_saving(folder.path(), false);
        // Long enough to be in the middle of something, at a different point each time.
        std::thread::sleep(Duration::from_micros(round * 371 % 16_000));
        child.kill().unwrap();
        child.wait().unwrap();
        let loaded = locker.load(&slug("ada"));
        assert_eq!(loaded.notes, [], "round {round}");
        assert_eq!(loaded.profile.changes(&sheet).len(), 2, "round {round}");
    }
    let text = fs::read_to_string(folder.path().join("ada.toml")).unwrap();
    assert!(text.contains("game = \"test\""), "{text}");
}

#[test]
fn two_processes_saving_at_once_keep_out_of_each_others_way() {
    let folder = tempfile::tempdir().unwrap();
    let locker = Locker::open(folder.path()).unwrap();
    let mut children = [(); 2].map(|()| start_saving(folder.path(), true));
    let sheet = demo();
    for n in 0..50 {
        save_patiently(&locker, &profile(n), &sheet);
        assert_eq!(locker.load(&slug("ada")).notes, []);
    }
    for child in &mut children {
        assert!(child.try_wait().unwrap().is_none(), "it is still saving");
        child.kill().unwrap();
        child.wait().unwrap();
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(256)))]

    #[test]
    fn a_flipped_bit_never_panics_and_there_is_always_a_profile(at in 0..160_usize, bit in 0..8_u32) {
        let mut bytes = profile(0).to_toml().into_bytes();
        let at = at % bytes.len();
        bytes[at] ^= 1 << bit;
        let folder = tempfile::tempdir().unwrap();
        fs::write(folder.path().join("ada.toml"), &bytes).unwrap();
        let loaded = Locker::open(folder.path()).unwrap().load(&slug("ada"));
        let rig = Rig::new(&demo(), &loaded.profile, &Layout::us());
        prop_assert!(rig.bindings().len() >= demo().defaults().len() - 2);
    }
}
