//! The locker: whatever call fails, and whoever writes in between, nothing is lost and nothing is
//! called done that is not.

#![allow(missing_docs, clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod common;

use std::any::Any;
use std::collections::{BTreeMap, BTreeSet};
use std::fmt;
use std::io;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Mutex};

use common::{cell, chord, demo};
use proptest::prelude::*;
use proptest::sample::select;
use swap_knot::{
    LoadNote, Locker, LockerErrorKind, Memory, Profile, Sheet, Slug, Store, Unreadable,
};

fn slug(text: &str) -> Slug {
    text.parse().unwrap()
}

fn with(sheet: &Sheet, list: &[(&str, &str)]) -> Profile {
    let mut profile = Profile::new("Ada");
    for (at, input) in list {
        profile.set(sheet, cell(sheet, at), Some(chord(input)));
    }
    profile
}

#[test]
fn profiles_are_copied_renamed_deleted_and_shared() {
    let locker = Locker::in_store(Memory::new());
    let sheet = demo();
    locker
        .save(
            &slug("ada"),
            &with(&sheet, &[("horn keyboard-1", "KeyN")]),
            &sheet,
        )
        .unwrap();
    locker.set_active(&slug("ada")).unwrap();
    let _ = locker.copy(&slug("ada"), &slug("bo"), "Bo").unwrap();
    let names = |locker: &Locker| {
        locker
            .names()
            .unwrap()
            .iter()
            .map(Slug::to_string)
            .collect::<Vec<_>>()
    };
    assert_eq!(names(&locker), ["ada", "bo"]);
    let _ = locker.rename(&slug("ada"), &slug("zoe"), "Zoe").unwrap();
    assert_eq!(
        (names(&locker), locker.active().unwrap()),
        (vec!["bo".to_owned(), "zoe".to_owned()], Some(slug("zoe")))
    );
    assert_eq!(locker.load(&slug("zoe")).profile.title(), "Zoe");

    locker.delete(&slug("zoe")).unwrap();
    assert_eq!(
        (names(&locker), locker.active().unwrap()),
        (vec!["bo".to_owned()], None)
    );
    locker.undelete(&slug("zoe")).unwrap();
    assert_eq!(locker.load(&slug("zoe")).profile.changes(&sheet).len(), 1);
    locker.delete(&slug("zoe")).unwrap();
    locker.sweep().unwrap();
    assert!(locker.undelete(&slug("zoe")).is_err());

    let text = locker.export(&slug("bo")).unwrap().text;
    assert_eq!(locker.import(&text).unwrap(), slug("bo-2"));
    assert_eq!(locker.import(&text).unwrap(), slug("bo-3"));
    assert!(
        locker
            .import("<html>")
            .unwrap_err()
            .to_string()
            .starts_with("it is no profile")
    );
    assert!(locker.copy(&slug("bo"), &slug("bo-2"), "x").is_err());
    let missing = locker.export(&slug("nobody")).unwrap_err().to_string();
    assert_eq!(
        missing,
        "cannot export nobody.toml: there is no such profile; there are bo, bo-2, bo-3"
    );
}

#[test]
fn a_locker_holds_a_hundred_profiles_and_no_more() {
    let locker = Locker::in_store(Memory::new());
    let sheet = demo();
    for n in 0..Locker::MAX_PROFILES {
        locker
            .save(&slug(&format!("p{n}")), &Profile::new("x"), &sheet)
            .unwrap();
    }
    let full = locker
        .save(&slug("one-more"), &Profile::new("x"), &sheet)
        .unwrap_err();
    assert!(full.to_string().contains("delete one first"), "{full}");
    locker
        .save(&slug("p7"), &Profile::new("y"), &sheet)
        .unwrap();
}

#[cfg(unix)]
#[test]
fn a_folder_that_cannot_be_written_is_told_and_still_read() {
    let sheet = demo();
    let folder = tempfile::tempdir().unwrap();
    let locker = Locker::open(folder.path()).unwrap();
    locker
        .save(&slug("ada"), &Profile::new("Ada"), &sheet)
        .unwrap();
    // A folder in the place of the new file: nobody can write there, root included.
    std::fs::create_dir(folder.path().join("ada.toml.new")).unwrap();
    let wrong = locker
        .save(
            &slug("ada"),
            &with(&sheet, &[("horn keyboard-1", "KeyN")]),
            &sheet,
        )
        .unwrap_err();
    assert!(wrong.to_string().starts_with("cannot write "), "{wrong}");
    assert_eq!(locker.load(&slug("ada")).notes, []);
    let in_file = Locker::open(folder.path().join("ada.toml"));
    assert!(
        in_file
            .unwrap_err()
            .to_string()
            .starts_with("cannot make the folder ")
    );
}

/// A store that does something before its n-th call: fails it, as a full disk does, or lets another
/// writer in.
struct Hooked {
    inner: Memory,
    calls: AtomicUsize,
    at: usize,
    hook: Mutex<Option<Hook>>,
}

enum Hook {
    Fail,
    Other(Op, Arc<Mutex<Option<Files>>>),
}

type Files = BTreeMap<String, Vec<u8>>;

impl fmt::Debug for Hooked {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("a store with a hook")
    }
}

impl Hooked {
    fn call(&self) -> io::Result<()> {
        if self.calls.fetch_add(1, Ordering::Relaxed) != self.at {
            return Ok(());
        }
        match self.hook.lock().unwrap().take() {
            Some(Hook::Fail) => Err(io::Error::new(
                io::ErrorKind::StorageFull,
                "no space left on device",
            )),
            Some(Hook::Other(op, seen)) => {
                let _ = op.carry_out(&Locker::in_store(self.inner.clone()));
                *seen.lock().unwrap() = Some(files(&self.inner));
                Ok(())
            }
            None => Ok(()),
        }
    }
}

impl Store for Hooked {
    fn list(&self) -> io::Result<Vec<String>> {
        self.call().and_then(|()| self.inner.list())
    }
    fn read(&self, file: &str, limit: usize) -> io::Result<Vec<u8>> {
        self.call().and_then(|()| self.inner.read(file, limit))
    }
    fn replace(&self, file: &str, bytes: &[u8]) -> io::Result<()> {
        self.call().and_then(|()| self.inner.replace(file, bytes))
    }
    fn rename(&self, from: &str, to: &str) -> io::Result<()> {
        self.call().and_then(|()| self.inner.rename(from, to))
    }
    fn remove(&self, file: &str) -> io::Result<()> {
        self.call().and_then(|()| self.inner.remove(file))
    }
    fn lock(&self) -> io::Result<Box<dyn Any>> {
        self.call().and_then(|()| self.inner.lock())
    }
}

fn files(store: &Memory) -> Files {
    let names = store.list().unwrap();
    let read = |name: String| {
        let bytes = store.read(&name, usize::MAX).unwrap();
        (name, bytes)
    };
    names.into_iter().map(read).collect()
}

/// Something that a game does with its profiles.
#[derive(Clone, Copy, Debug)]
enum Op {
    Save(&'static str, u8),
    SaveOver(&'static str, u8),
    Copy(&'static str, &'static str),
    Rename(&'static str, &'static str),
    Delete(&'static str),
    Undelete(&'static str),
    Sweep,
    Import(u8),
    Export(&'static str),
    Activate(&'static str),
}

const NAMES: [&str; 3] = ["ada", "bo", "cem"];

/// A profile that no other number makes; its title is a name.
fn numbered(n: u8) -> Profile {
    let mut profile = Profile::new(NAMES[usize::from(n) % 3]);
    profile.set_layout(Some(&format!("layout-{n}")));
    profile
}

impl Op {
    fn any() -> impl Strategy<Value = Op> {
        let name = || select(NAMES.to_vec());
        prop_oneof![
            4 => (name(), any::<u8>()).prop_map(|(name, n)| Op::Save(name, n)),
            1 => (name(), any::<u8>()).prop_map(|(name, n)| Op::SaveOver(name, n)),
            2 => (name(), name()).prop_map(|(a, b)| Op::Copy(a, b)),
            2 => (name(), name()).prop_map(|(a, b)| Op::Rename(a, b)),
            3 => name().prop_map(Op::Delete),
            2 => name().prop_map(Op::Undelete),
            1 => Just(Op::Sweep),
            1 => any::<u8>().prop_map(Op::Import),
            1 => name().prop_map(Op::Export),
            1 => name().prop_map(Op::Activate),
        ]
    }

    /// Carries it out; what it answered, in words, where that can be checked.
    fn carry_out(self, locker: &Locker) -> Result<String, String> {
        let sheet = demo();
        let said = |e: swap_knot::LockerError| e.to_string();
        let nothing = String::new();
        match self {
            Op::Save(name, n) => locker
                .save(&slug(name), &numbered(n), &sheet)
                .map(|()| nothing),
            Op::SaveOver(name, n) => {
                let base = locker.load(&slug(name)).profile;
                let saved = locker.save_over(&slug(name), &base, &numbered(n), &sheet);
                saved.map(|s| s.profile.to_toml())
            }
            Op::Copy(a, b) => locker.copy(&slug(a), &slug(b), b).map(|_| nothing),
            Op::Rename(a, b) => locker.rename(&slug(a), &slug(b), b).map(|_| nothing),
            Op::Delete(name) => locker.delete(&slug(name)).map(|()| nothing),
            Op::Undelete(name) => locker.undelete(&slug(name)).map(|()| nothing),
            Op::Sweep => locker.sweep().map(|()| nothing),
            Op::Import(n) => {
                let done = locker.import(&numbered(n).to_toml());
                return done.map(|s| s.to_string()).map_err(|e| e.to_string());
            }
            Op::Export(name) => locker.export(&slug(name)).map(|e| e.text),
            Op::Activate(name) => locker.set_active(&slug(name)).map(|()| nothing),
        }
        .map_err(said)
    }

    /// What must be so when it said that it is done.
    fn is_done(self, answer: &str, before: &Files, locker: &Locker) -> Result<(), String> {
        let names = locker.names().unwrap();
        let layout = |name: &str| locker.load(&slug(name)).profile.layout().map(str::to_owned);
        let was = |name: &str| best(before, name).and_then(|p| p.layout().map(str::to_owned));
        let need = |ok: bool, what: &str| ok.then_some(()).ok_or_else(|| what.to_owned());
        let has = |name: &str| names.contains(&slug(name));
        match self {
            Op::Save(name, n) => need(
                layout(name) == numbered(n).layout().map(str::to_owned),
                "saved",
            ),
            Op::SaveOver(name, _) => need(
                locker.load(&slug(name)).profile.to_toml() == answer,
                "saved over",
            ),
            Op::Copy(a, b) => {
                need(layout(b) == was(a) && has(a), "copied")?;
                need(locker.load(&slug(b)).profile.title() == b, "with its title")
            }
            Op::Rename(a, b) => {
                need(layout(b) == was(a), "renamed")?;
                need(a == b || !has(a), "gone under the old name")
            }
            Op::Delete(name) => {
                let deleted = locker.deleted().unwrap();
                need(!has(name) && deleted.contains(&slug(name)), "deleted")
            }
            Op::Undelete(name) => need(has(name), "brought back"),
            Op::Sweep => need(locker.deleted().unwrap().is_empty(), "swept"),
            Op::Import(n) => need(
                layout(answer) == numbered(n).layout().map(str::to_owned),
                "imported",
            ),
            Op::Export(name) => {
                let text = Profile::from_toml(answer).unwrap();
                let here = best(before, name).unwrap();
                need(text.layout() == here.layout(), "exported")
            }
            Op::Activate(name) => {
                let active = locker.active().unwrap();
                need(active == Some(slug(name)), "made active")
            }
        }
    }
}

/// The best there is of a profile in some files.
fn best(files: &Files, name: &str) -> Option<Profile> {
    let read = |ending: &str| {
        let bytes = files.get(&format!("{name}.{ending}"))?;
        Profile::from_toml(std::str::from_utf8(bytes).ok()?).ok()
    };
    read("toml").or_else(|| read("last-good"))
}

/// What a player would miss: every profile's own mark, and every file that is none.
fn treasures(files: &Files, sweeping: bool) -> BTreeSet<String> {
    let kept = files.iter().filter(|(name, _)| {
        let is_copy = name.ends_with(".last-good");
        let has_file = || files.contains_key(&name.replace("last-good", "toml"));
        let unreadable = || best_is_copy(files, name);
        let is_gone = sweeping && name.contains(".deleted-");
        // A good copy is worth something where the file is not there or cannot be read.
        !is_gone && *name != "active" && !(is_copy && has_file() && !unreadable())
    });
    kept.map(|(_, bytes)| mark(bytes)).collect()
}

/// Everything that some file still has.
fn marks(files: &Files) -> BTreeSet<String> {
    files.values().map(|bytes| mark(bytes)).collect()
}

/// What tells a profile from every other one; of a file that is none, its text.
fn mark(bytes: &[u8]) -> String {
    let text = String::from_utf8_lossy(bytes).into_owned();
    let profile = Profile::from_toml(&text).ok();
    profile.map_or(text, |p| format!("{:?}", p.layout()))
}

/// Files in a failed test.
fn show(files: &Files) -> String {
    let line = |(name, bytes): (&String, &Vec<u8>)| format!("  {name}: {:?}\n", mark(bytes));
    files.iter().map(line).collect()
}

fn best_is_copy(files: &Files, copy: &str) -> bool {
    let file = &files[&copy.replace("last-good", "toml")];
    let text = String::from_utf8_lossy(file);
    Profile::from_toml(&text).is_err()
}

/// Damage of all kinds.
fn damage() -> impl Strategy<Value = Option<(usize, &'static str)>> {
    let texts = vec![
        "[bind.cast-o",
        "format = 9\ntitle = \"new\"",
        "\u{1}\u{2}",
        "",
    ];
    proptest::option::of((0..4_usize, select(texts)))
}

fn world(ops: &[Op], damage: Option<(usize, &'static str)>) -> Memory {
    let store = Memory::new();
    let locker = Locker::in_store(store.clone());
    ops.iter().for_each(|op| drop(op.carry_out(&locker)));
    if let Some((at, text)) = damage {
        let file = ["ada.toml", "bo.toml", "ada.last-good", "active"][at];
        store.replace(file, text.as_bytes()).unwrap();
    }
    store
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(300) })]

    #[test]
    fn whatever_call_fails_nothing_is_lost_and_nothing_is_called_done_that_is_not(
        past in proptest::collection::vec(Op::any(), 0..10), op in Op::any(), damage in damage(),
    ) {
        for at in 0..30 {
            let store = world(&past, damage);
            let before = files(&store);
            let hooked = Hooked {
                inner: store.clone(),
                calls: AtomicUsize::new(0),
                at,
                hook: Mutex::new(Some(Hook::Fail)),
            };
            let hooked = Arc::new(hooked);
            let answer = op.carry_out(&Locker::in_store(Shared(hooked.clone())));
            let after = files(&store);
            let sound = Locker::in_store(store);
            let all = || format!("{op:?} failing at {at}: {answer:?}\n{}\n{}", show(&before), show(&after));
            let sweeping = matches!(op, Op::Sweep);
            let lost: Vec<_> = (treasures(&before, sweeping).difference(&marks(&after)).cloned()).collect();
            prop_assert!(lost.is_empty(), "lost {lost:?} by {}", all());
            match &answer {
                Ok(answer) => op.is_done(answer, &before, &sound)
                    .map_err(|why| TestCaseError::fail(format!("not {why}: {}", all())))?,
                Err(_) => {
                    // What was there is there still, under one of its names.
                    let was = sound_names(&before);
                    let is = sound_names(&after);
                    let moved = matches!(op, Op::Rename(..) | Op::Undelete(_) | Op::Copy(..) | Op::Save(..) | Op::SaveOver(..));
                    prop_assert!(moved || is == was, "{was:?} is {is:?}: {}", all());
                }
            }
            if hooked.hook.lock().unwrap().is_some() {
                break; // It makes no more calls than that.
            }
        }
    }

    #[test]
    fn whoever_writes_in_between_nothing_is_lost(
        past in proptest::collection::vec(Op::any(), 0..8), op in Op::any(), other in Op::any(),
        damage in damage(),
    ) {
        for at in 0..30 {
            let store = world(&past, damage);
            let before = files(&store);
            let seen = Arc::new(Mutex::new(None));
            let hooked = Arc::new(Hooked {
                inner: store.clone(),
                calls: AtomicUsize::new(0),
                at,
                hook: Mutex::new(Some(Hook::Other(other, seen.clone()))),
            });
            let answer = op.carry_out(&Locker::in_store(Shared(hooked.clone())));
            let after = files(&store);
            let Some(between) = seen.lock().unwrap().clone() else { break };
            let all = || format!("{op:?} with {other:?} before call {at}: {answer:?}\n{}\n{}\n{}", show(&before), show(&between), show(&after));
            let sweeping = [op, other].iter().any(|o| matches!(o, Op::Sweep));
            let now = marks(&after);
            // What the first one had when the other came, and what the other left.
            let lost: Vec<_> = (treasures(&between, sweeping).difference(&now).cloned()).collect();
            prop_assert!(lost.is_empty(), "lost {lost:?} by {}", all());
            let overwritten = sweeping || matches!(other, Op::Save(..) | Op::SaveOver(..));
            let lost: Vec<_> = (treasures(&before, sweeping).difference(&now).cloned()).collect();
            // Two saves in a row leave the one before as the good copy, and the one before that is
            // gone, as after any two saves.
            prop_assert!(overwritten || lost.is_empty(), "lost {lost:?} by {}", all());
        }
    }
}

fn sound_names(files: &Files) -> BTreeSet<String> {
    let name = |f: &String| {
        let name = f
            .strip_suffix(".toml")
            .or_else(|| f.strip_suffix(".last-good"));
        name.map(str::to_owned)
    };
    files.keys().filter_map(name).collect()
}

#[derive(Debug)]
struct Shared(Arc<Hooked>);

impl Store for Shared {
    fn list(&self) -> io::Result<Vec<String>> {
        self.0.list()
    }
    fn read(&self, file: &str, limit: usize) -> io::Result<Vec<u8>> {
        self.0.read(file, limit)
    }
    fn replace(&self, file: &str, bytes: &[u8]) -> io::Result<()> {
        self.0.replace(file, bytes)
    }
    fn rename(&self, from: &str, to: &str) -> io::Result<()> {
        self.0.rename(from, to)
    }
    fn remove(&self, file: &str) -> io::Result<()> {
        self.0.remove(file)
    }
    fn lock(&self) -> io::Result<Box<dyn Any>> {
        self.0.lock()
    }
}

#[test]
fn what_cannot_be_read_is_never_taken_for_empty() {
    let (store, sheet) = (Memory::new(), demo());
    let locker = Locker::in_store(store.clone());
    let newer = "format = 9\ntitle = \"Ada\"";
    store.replace("ada.toml", newer.as_bytes()).unwrap();
    let before = files(&store);
    let ada = slug("ada");
    let is_newer = |e: swap_knot::LockerError| {
        assert!(e.is_newer(), "{e}");
        assert!(e.to_string().contains("update the game"), "{e}");
    };
    is_newer(locker.rename(&ada, &slug("bo"), "Bo").unwrap_err());
    is_newer(locker.copy(&ada, &slug("bo"), "Bo").unwrap_err());
    is_newer(locker.export(&ada).unwrap_err());
    is_newer(locker.save(&ada, &Profile::new("Ada"), &sheet).unwrap_err());
    assert_eq!(locker.names().unwrap(), std::slice::from_ref(&ada));
    let loaded = locker.load(&ada);
    assert!(loaded.is_missing());
    assert!(matches!(
        &loaded.notes[..],
        [LoadNote::CannotRead {
            why: Unreadable::Newer(_),
            ..
        }]
    ));
    assert_eq!(files(&store), before, "nothing was touched");

    // A damaged one with a good copy stays in the list, however often it is looked at.
    store.replace("bo.toml", b"[bind.cast-o").unwrap();
    let good = Profile::new("Bo").to_toml();
    store.replace("bo.last-good", good.as_bytes()).unwrap();
    let before = files(&store);
    for _ in 0..3 {
        assert_eq!(locker.load(&slug("bo")).profile.title(), "Bo");
        assert!(!locker.load(&slug("bo")).is_missing());
        assert_eq!(locker.names().unwrap().len(), 2);
    }
    assert_eq!(files(&store), before);
    // Only saving over it sets it aside.
    locker
        .save(&slug("bo"), &Profile::new("Bo"), &sheet)
        .unwrap();
    assert_eq!(files(&store)["bo.damaged-1"], b"[bind.cast-o");
}

#[test]
fn what_could_not_be_read_again_is_not_written() {
    let locker = Locker::in_store(Memory::new());
    // Just under the limit as it comes in, above it as it would be written.
    let mut text = "format=1\n[bind.x]\n".to_owned();
    let mut n = 0;
    while text.len() < Profile::MAX_BYTES - 64 {
        text += &format!("a{n}=\"x\"\n");
        n += 1;
    }
    assert!(Profile::from_toml(&text).is_ok());
    let Err(swap_knot::ImportError::Locker(e)) = locker.import(&text) else {
        panic!("it could not be read again");
    };
    assert!(matches!(e.kind(), LockerErrorKind::TooLarge { .. }), "{e}");
    assert!(locker.names().unwrap().is_empty());
}

#[test]
fn deleting_a_name_twice_keeps_both() {
    let (locker, sheet) = (Locker::in_store(Memory::new()), demo());
    let ada = slug("ada");
    for title in ["first", "second"] {
        locker.save(&ada, &Profile::new(title), &sheet).unwrap();
        locker.delete(&ada).unwrap();
    }
    locker.undelete(&ada).unwrap();
    assert_eq!(locker.load(&ada).profile.title(), "second");
    let _ = locker.rename(&ada, &slug("bo"), "Bo").unwrap();
    locker.undelete(&ada).unwrap();
    assert_eq!(locker.load(&ada).profile.title(), "first");
}

#[test]
fn a_file_that_changed_underneath_is_merged_and_told() {
    let (store, sheet) = (Memory::new(), demo());
    let (here, there) = (Locker::in_store(store.clone()), Locker::in_store(store));
    let ada = slug("ada");
    here.save(&ada, &Profile::new("Ada"), &sheet).unwrap();
    let base = here.load(&ada).profile;
    let mut theirs = with(
        &sheet,
        &[("horn keyboard-1", "KeyN"), ("lantern keyboard-1", "KeyL")],
    );
    theirs.set_toggle("lantern", Some(false));
    there.save(&ada, &theirs, &sheet).unwrap();
    let ours = with(
        &sheet,
        &[("horn keyboard-1", "KeyB"), ("cast-off keyboard-1", "KeyG")],
    );
    let saved = here.save_over(&ada, &base, &ours, &sheet).unwrap();
    assert!(saved.changed_elsewhere);
    let told: Vec<String> = saved.overruled.iter().map(ToString::to_string).collect();
    assert_eq!(told, ["horn keyboard-1: KeyB was kept and KeyN dropped"]);
    assert_eq!(saved.profile.changes(&sheet).len(), 3);
    assert_eq!(here.load(&ada).profile, saved.profile);
    // Nothing changed since: nothing to tell.
    let again = here.save_over(&ada, &saved.profile, &ours, &sheet).unwrap();
    assert!(!again.changed_elsewhere);
    assert_eq!(here.load(&ada).profile.changes(&sheet).len(), 2);
}

/// A store whose every call waits until the test lets it go on.
#[derive(Debug)]
struct Slow(Memory, Mutex<std::sync::mpsc::Receiver<()>>);

impl Slow {
    fn wait(&self) -> &Memory {
        let _ = self.1.lock().unwrap().recv();
        &self.0
    }
}

impl Store for Slow {
    fn list(&self) -> io::Result<Vec<String>> {
        self.wait().list()
    }
    fn read(&self, file: &str, limit: usize) -> io::Result<Vec<u8>> {
        self.wait().read(file, limit)
    }
    fn replace(&self, file: &str, bytes: &[u8]) -> io::Result<()> {
        self.wait().replace(file, bytes)
    }
    fn rename(&self, from: &str, to: &str) -> io::Result<()> {
        self.wait().rename(from, to)
    }
    fn remove(&self, file: &str) -> io::Result<()> {
        self.wait().remove(file)
    }
    fn lock(&self) -> io::Result<Box<dyn Any>> {
        self.wait().lock()
    }
}

#[test]
fn no_tick_waits_for_a_slow_store() {
    let (go_on, wait) = std::sync::mpsc::channel();
    let store = Memory::new();
    let locker = Locker::in_store(Slow(store.clone(), Mutex::new(wait)));
    let sheet = demo();
    let mut hand = common::Hand::new(&sheet);
    let mut draft = swap_knot::Draft::new(&sheet, Profile::new("Ada"), &swap_knot::Layout::us());
    let _ = draft
        .bind(cell(&sheet, "horn keyboard-1"), chord("KeyN"))
        .unwrap();
    hand.seat.set_rig(draft.apply());
    let profile = draft.profile();
    let saving = std::thread::spawn(move || locker.save(&slug("ada"), &profile, &demo()));
    // Not one call of the store has come back yet, and a hundred frames are played.
    for _ in 0..100 {
        hand.down(swap_knot::Place::KeyW).tick();
        assert!(hand.is_down("walk.up"));
        hand.up(swap_knot::Place::KeyW).tick();
    }
    assert!(files(&store).is_empty() && !saving.is_finished());
    for _ in 0..20 {
        let _ = go_on.send(());
    }
    saving.join().unwrap().unwrap();
    assert!(files(&store).contains_key("ada.toml"));
}

#[cfg(unix)]
#[test]
fn a_pipe_called_lock_does_not_hang_and_a_held_lock_is_told() {
    let folder = tempfile::tempdir().unwrap();
    let locker = Locker::open(folder.path()).unwrap();
    let made = std::process::Command::new("mkfifo")
        .arg(folder.path().join("lock"))
        .status();
    assert!(made.unwrap().success());
    let wrong = locker.save(&slug("ada"), &Profile::new("Ada"), &demo());
    assert!(wrong.unwrap_err().to_string().contains("remove it"));
    std::fs::remove_file(folder.path().join("lock")).unwrap();

    let held = std::fs::File::create(folder.path().join("lock")).unwrap();
    held.lock().unwrap();
    let wrong = locker.save(&slug("ada"), &Profile::new("Ada"), &demo());
    let wrong = wrong.unwrap_err();
    assert!(matches!(wrong.kind(), LockerErrorKind::InUse), "{wrong}");
    drop(held);
    locker
        .save(&slug("ada"), &Profile::new("Ada"), &demo())
        .unwrap();
}

/// What is done to real files while a call of the system fails.
const ON_FILES: [Op; 7] = [
    Op::Save("ada", 7),
    Op::SaveOver("ada", 7),
    Op::Copy("ada", "cem"),
    Op::Rename("ada", "cem"),
    Op::Delete("ada"),
    Op::Undelete("bo"),
    Op::Import(8),
];
const FAULTY: &str = "SWAP_KNOT_FAULTY_DISK";

/// Not a test of its own: the process whose calls are made to fail.
#[test]
fn faulty_disk_child() {
    let Ok(told) = std::env::var(FAULTY) else {
        return;
    };
    let (op, folder) = told.split_once(' ').unwrap();
    let op = ON_FILES[op.parse::<usize>().unwrap()];
    let done = Locker::open(folder).map_err(|e| e.to_string());
    match done.and_then(|locker| op.carry_out(&locker)) {
        Ok(answer) => println!("done: {}", answer.replace('\n', "\u{1}")),
        Err(why) => println!("refused: {why}"),
    }
}

/// The files of a locker's folder, what is only there while something is written left out.
fn in_folder(folder: &std::path::Path) -> Files {
    let entries = std::fs::read_dir(folder).unwrap().map(Result::unwrap);
    let read = |e: std::fs::DirEntry| {
        let name = e.file_name().into_string().unwrap();
        let kept = name != "lock" && !name.ends_with(".new");
        kept.then(|| (name, std::fs::read(e.path()).unwrap()))
    };
    entries.filter_map(read).collect()
}

#[test]
fn whatever_call_of_the_system_fails_nothing_is_lost() {
    use std::process::Command;
    let works = Command::new("strace")
        .args(["-o", "/dev/null", "true"])
        .status();
    if !works.is_ok_and(|s| s.success()) {
        eprintln!(
            "SKIPPED: calls of the system are made to fail with strace; ./scripts/test installs it"
        );
        return;
    }
    let mut failed = 0;
    for (n, op) in ON_FILES.into_iter().enumerate() {
        for call in [
            "openat",
            "write",
            "fsync",
            "rename",
            "flock",
            "unlink",
            "read",
            "getdents64",
        ] {
            for when in 1..20 {
                let temporary = tempfile::tempdir().unwrap();
                let folder = temporary.path();
                let locker = Locker::open(folder).unwrap();
                for past in [
                    Op::Save("ada", 0),
                    Op::Save("ada", 1),
                    Op::Save("bo", 2),
                    Op::Delete("bo"),
                ] {
                    past.carry_out(&locker).unwrap();
                }
                let before = in_folder(folder);
                let log = folder.join("../").join(format!("{n}-{call}.log"));
                let log = tempfile::NamedTempFile::new_in(log.parent().unwrap()).unwrap();
                let mut strace = Command::new("strace");
                strace.args(["-f", "-o"]).arg(log.path());
                // Only calls on these files are counted.
                for file in [
                    "",
                    "lock",
                    "active",
                    "ada.toml",
                    "ada.toml.new",
                    "ada.last-good",
                    "ada.last-good.new",
                    "cem.toml",
                    "cem.toml.new",
                    "cem.last-good",
                    "bo.toml",
                    "bo.deleted-1",
                ] {
                    strace.arg("-P").arg(folder.join(file));
                }
                let fault = format!("inject={call}:error=EIO:when={when}");
                strace
                    .args(["-e", &fault])
                    .arg(std::env::current_exe().unwrap());
                strace.args([
                    "--exact",
                    "faulty_disk_child",
                    "--nocapture",
                    "--test-threads",
                    "1",
                ]);
                strace.env(FAULTY, format!("{n} {}", folder.display()));
                let out = strace.output().unwrap();
                let said = String::from_utf8_lossy(&out.stdout).into_owned();
                let after = in_folder(folder);
                let all = format!(
                    "{op:?} with {call} failing at {when}: {said}\n{}\n{}",
                    show(&before),
                    show(&after)
                );
                let lost: Vec<_> = treasures(&before, false)
                    .difference(&marks(&after))
                    .cloned()
                    .collect();
                assert!(lost.is_empty(), "lost {lost:?} by {all}");
                if let Some(answer) = said.lines().find_map(|l| Some(l.split_once("done: ")?.1)) {
                    let answer = answer.replace('\u{1}', "\n");
                    if let Err(why) = op.is_done(&answer, &before, &locker) {
                        panic!("not {why}: {all}");
                    }
                } else {
                    assert!(said.contains("refused: "), "{all}");
                }
                let injected = std::fs::read_to_string(log.path())
                    .unwrap()
                    .contains("(INJECTED)");
                failed += usize::from(injected);
                if !injected {
                    break; // It makes no more calls of that kind.
                }
            }
        }
    }
    assert!(failed > 50, "only {failed} calls were made to fail");
}
