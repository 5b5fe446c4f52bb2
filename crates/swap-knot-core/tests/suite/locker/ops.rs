//! What a game does with its profiles, what must be so afterwards, and what must not be lost.

use std::collections::{BTreeMap, BTreeSet};

use proptest::prelude::*;
use proptest::sample::select;
use swap_knot::{Locker, Profile};

use super::slug;
use crate::common::demo;

/// The files of a locker, by name.
pub type Files = BTreeMap<String, Vec<u8>>;

/// Something that a game does with its profiles.
#[derive(Clone, Copy, Debug)]
pub enum Op {
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

pub const NAMES: [&str; 3] = ["ada", "bo", "cem"];

/// A profile that no other number makes; its title is a name.
pub fn numbered(n: u8) -> Profile {
    let mut profile = Profile::new(NAMES[usize::from(n) % 3]);
    profile.set_layout(Some(&format!("layout-{n}")));
    profile
}

impl Op {
    pub fn any() -> impl Strategy<Value = Op> {
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
    pub fn carry_out(self, locker: &Locker) -> Result<String, String> {
        let sheet = demo();
        let said = |e: swap_knot::keep::LockerError| e.to_string();
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
    pub fn is_done(self, answer: &str, before: &Files, locker: &Locker) -> Result<(), String> {
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
pub fn best(files: &Files, name: &str) -> Option<Profile> {
    let read = |ending: &str| {
        let bytes = files.get(&format!("{name}.{ending}"))?;
        Profile::from_toml(std::str::from_utf8(bytes).ok()?).ok()
    };
    read("toml").or_else(|| read("last-good"))
}

/// What a player would miss: every profile's own mark, and every file that is none.
pub fn treasures(files: &Files, sweeping: bool) -> BTreeSet<String> {
    let kept = files.iter().filter(|(name, _)| {
        let of = copied(name);
        let is_copy = of != **name;
        let has_file = || files.contains_key(&of);
        let unreadable = || best_is_copy(files, name);
        let is_gone = sweeping && name.contains(".deleted-");
        // A good copy is worth something where the file is not there or cannot be read.
        !is_gone && *name != "active" && !(is_copy && has_file() && !unreadable())
    });
    kept.map(|(_, bytes)| mark(bytes)).collect()
}

/// Everything that some file still has.
pub fn marks(files: &Files) -> BTreeSet<String> {
    files.values().map(|bytes| mark(bytes)).collect()
}

/// What tells a profile from every other one; of a file that is none, its text.
pub fn mark(bytes: &[u8]) -> String {
    let text = String::from_utf8_lossy(bytes).into_owned();
    let profile = Profile::from_toml(&text).ok();
    profile.map_or(text, |p| format!("{:?}", p.layout()))
}

/// Files in a failed test.
pub fn show(files: &Files) -> String {
    let line = |(name, bytes): (&String, &Vec<u8>)| format!("  {name}: {:?}\n", mark(bytes));
    files.iter().map(line).collect()
}

/// What a good copy is a copy of, deleted or not; any other file itself.
fn copied(name: &str) -> String {
    let of = name.replace(".last-good", ".toml");
    of.replace(".deleted-good-", ".deleted-")
}

pub fn best_is_copy(files: &Files, copy: &str) -> bool {
    let file = &files[&copied(copy)];
    let text = String::from_utf8_lossy(file);
    Profile::from_toml(&text).is_err()
}
