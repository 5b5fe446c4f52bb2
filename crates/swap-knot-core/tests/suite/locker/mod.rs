//! The locker: whatever call fails, and whoever writes in between, nothing is lost and nothing is
//! called done that is not.

mod files;
mod ops;

use std::collections::BTreeSet;
use std::fmt;
use std::io;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Mutex};

use crate::common::{cell, chord, demo};
use ops::{Files, Op, marks, show, treasures};
use proptest::prelude::*;
use proptest::sample::select;
use swap_knot::keep::{LoadNote, LockerErrorKind, Memory, Store, StoreLock, Unreadable};
use swap_knot::sheet::{Parameter, Parameters};
use swap_knot::{Locker, Profile, Sheet, Slug};

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
    assert_eq!(locker.import(&text).unwrap(), slug("bo--2"));
    assert_eq!(locker.import(&text).unwrap(), slug("bo--3"));
    assert!(
        locker
            .import("<html>")
            .unwrap_err()
            .to_string()
            .starts_with("it is no profile")
    );
    assert!(locker.copy(&slug("bo"), &slug("bo--2"), "x").is_err());
    let missing = locker.export(&slug("nobody")).unwrap_err().to_string();
    assert_eq!(
        missing,
        "cannot export nobody.toml: there is no such profile; there are bo, bo--2, bo--3"
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
    fn lock(&self) -> io::Result<StoreLock> {
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
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(crate::common::worlds(300)) })]

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
    fn lock(&self) -> io::Result<StoreLock> {
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
    let is_newer = |e: swap_knot::keep::LockerError| {
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
    let Err(swap_knot::keep::ImportError::Locker(e)) = locker.import(&text) else {
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
    theirs
        .set_parameters("lantern", &Parameters::new().with(Parameter::Toggle, false))
        .unwrap();
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

#[test]
fn a_file_damaged_underneath_is_set_aside_and_told() {
    let (store, sheet) = (Memory::new(), demo());
    let (locker, ada) = (Locker::in_store(store.clone()), slug("ada"));
    locker.save(&ada, &Profile::new("Ada"), &sheet).unwrap();
    let base = locker.load(&ada).profile;
    store.replace("ada.toml", b"[bind").unwrap();
    let ours = with(&sheet, &[("horn keyboard-1", "KeyB")]);
    let saved = locker.save_over(&ada, &base, &ours, &sheet).unwrap();
    let [LoadNote::CannotRead { path, why }] = &saved.notes[..] else {
        panic!("{:?}", saved.notes);
    };
    assert!(path.ends_with("ada.damaged-1") && why.is_damaged());
    assert_eq!(files(&store)["ada.damaged-1"], b"[bind");
    assert_eq!(locker.load(&ada).profile, saved.profile);
    let again = locker.save_over(&ada, &saved.profile, &ours, &sheet);
    assert!(again.unwrap().notes.is_empty());
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
    fn lock(&self) -> io::Result<StoreLock> {
        self.wait().lock()
    }
}

#[test]
fn no_tick_waits_for_a_slow_store() {
    let (go_on, wait) = std::sync::mpsc::channel();
    let store = Memory::new();
    let locker = Locker::in_store(Slow(store.clone(), Mutex::new(wait)));
    let sheet = demo();
    let mut hand = crate::common::Hand::new(&sheet);
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

/// Whoever puts the last of all numbers there keeps nobody from deleting.
#[test]
fn a_number_that_cannot_be_counted_beyond_is_no_end() {
    let folder = tempfile::tempdir().unwrap();
    let locker = Locker::open(folder.path()).unwrap();
    let sheet = demo();
    let bo = slug("bo");
    locker
        .save(&bo, &Profile::new("Bo of the Barge"), &sheet)
        .unwrap();
    let last = folder.path().join(format!("bo.deleted-{}", u32::MAX));
    std::fs::write(last, Profile::new("Old Bo").to_toml()).unwrap();
    locker.delete(&bo).unwrap();
    assert!(!folder.path().join("bo.toml").exists());
    assert_eq!(
        std::fs::read_dir(folder.path())
            .unwrap()
            .filter(|f| {
                let name = f.as_ref().unwrap().file_name();
                name.to_string_lossy().starts_with("bo.deleted-")
            })
            .count(),
        2
    );
    // What can be brought back is called by its title.
    let roster = locker.roster().unwrap();
    assert_eq!(roster.deleted, [(bo, "Old Bo".to_owned())]);
}
