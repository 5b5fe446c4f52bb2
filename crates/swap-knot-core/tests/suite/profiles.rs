//! A player's profiles, as they come to be through errands: beside a naive model, on a disk that is
//! sometimes full.

use std::collections::BTreeMap;
use std::sync::atomic::Ordering;

use crate::common::disk::Watched;
use proptest::prelude::*;
use swap_knot::Profile;
use swap_knot::keep::{Errand, Store};
use swap_knot::{Cell, Controls, Layout, Locker, Place, Sheet, Slug};

/// What a player does.
#[derive(Clone, Debug)]
enum Does {
    Bind(usize),
    Make,
    Copy(usize),
    Rename(usize),
    Switch(usize),
    Delete(usize),
    Undelete(usize),
    /// Runs what is to be run, with the disk in order or not.
    Run(bool),
}

fn does() -> impl Strategy<Value = Does> {
    prop_oneof![
        3 => (0..4_usize).prop_map(Does::Bind),
        1 => Just(Does::Make),
        1 => (0..9_usize).prop_map(Does::Copy),
        1 => (0..9_usize).prop_map(Does::Rename),
        2 => (0..9_usize).prop_map(Does::Switch),
        2 => (0..9_usize).prop_map(Does::Delete),
        1 => (0..9_usize).prop_map(Does::Undelete),
        1 => any::<bool>().prop_map(Does::Run),
    ]
}

const KEYS: [Place; 4] = [Place::KeyH, Place::KeyJ, Place::KeyK, Place::KeyL];

/// A profile as anybody would keep it: what it is called, and the key of the horn.
#[derive(Clone, Debug, PartialEq)]
struct Plain {
    title: String,
    horn: Place,
}

struct World {
    disk: Watched,
    locker: Locker,
    controls: Controls,
    horn: Cell,
    /// By name.
    there: BTreeMap<String, Plain>,
    deleted: BTreeMap<String, Vec<Plain>>,
    playing: String,
    /// What is played is not kept by anybody before it is changed or left.
    is_kept: bool,
    count: usize,
}

impl World {
    fn new() -> World {
        let text = "game = \"x\"\n[actions.horn]\nbind = \"KeyH\"";
        let sheet = Sheet::from_toml(text).unwrap();
        let disk = Watched::default();
        let locker = Locker::in_store(disk.clone());
        let ada = Slug::from_title("ada");
        let plain = Plain {
            title: "ada".to_owned(),
            horn: Place::KeyH,
        };
        World {
            controls: Controls::open_last(&sheet, locker.clone(), &ada, &Layout::us()),
            disk,
            locker,
            horn: sheet.defaults()[0].cell,
            there: [("ada".to_owned(), plain)].into(),
            deleted: BTreeMap::new(),
            playing: "ada".to_owned(),
            is_kept: false,
            count: 0,
        }
    }

    fn horn_of(&self, controls: &Controls) -> Place {
        let bound = controls.seat().rig().binding_in(self.horn);
        let input = bound.unwrap().chord.to_string();
        input.parse().unwrap()
    }

    fn fresh(&mut self) -> String {
        self.count += 1;
        format!("sailor{}", self.count)
    }

    fn pick(&self, n: usize) -> String {
        self.there.keys().nth(n % self.there.len()).unwrap().clone()
    }

    /// Sends an errand and has it run, and what it comes to in the model where the disk is in order.
    fn send(&mut self, errand: Errand, works: impl FnOnce(&mut World)) {
        assert!(self.controls.send(errand));
        let up = !self.disk.is_down.load(Ordering::Relaxed);
        self.run();
        if up {
            works(self);
        }
    }

    fn run(&mut self) {
        let up = !self.disk.is_down.load(Ordering::Relaxed);
        let wants = self.controls.wants_saving();
        let kept = self.controls.save();
        assert_eq!(kept, up || !wants);
        self.is_kept |= up && wants;
    }

    fn step(&mut self, does: &Does) {
        match *does {
            Does::Bind(n) => {
                let mut draft = self.controls.draft();
                let _ = draft.bind(self.horn, KEYS[n].into()).unwrap();
                self.controls.apply(&mut draft);
                self.there.get_mut(&self.playing).unwrap().horn = KEYS[n];
            }
            Does::Make => {
                let title = self.fresh();
                self.send(
                    Errand::Make {
                        title: title.clone(),
                    },
                    |w| {
                        let plain = Plain {
                            title: title.clone(),
                            horn: Place::KeyH,
                        };
                        w.there.insert(title.clone(), plain);
                        (w.playing, w.is_kept) = (title, true);
                    },
                );
            }
            Does::Copy(n) => {
                let (name, title) = (self.pick(n), self.fresh());
                // What was never kept is no file that could be copied.
                let is_file = name != self.playing || self.is_kept || self.controls.wants_saving();
                let from = name.parse().unwrap();
                self.send(
                    Errand::Copy {
                        from,
                        title: title.clone(),
                    },
                    |w| {
                        if is_file {
                            let horn = w.there[&name].horn;
                            w.there.insert(title.clone(), Plain { title, horn });
                        }
                    },
                );
            }
            Does::Rename(n) => {
                let (name, title) = (self.pick(n), self.fresh());
                let rename = Errand::Rename {
                    name: name.parse().unwrap(),
                    title: title.clone(),
                };
                let is_played = name == self.playing;
                if is_played {
                    // It is in hand, whatever the disk says.
                    self.there.get_mut(&name).unwrap().title.clone_from(&title);
                }
                self.send(rename, |w| w.there.get_mut(&name).unwrap().title = title);
            }
            Does::Switch(n) => {
                let name = self.pick(n);
                self.send(Errand::Switch(name.parse().unwrap()), |w| {
                    (w.playing, w.is_kept) = (name, true);
                });
            }
            Does::Delete(n) => {
                let name = self.pick(n);
                if name != self.playing {
                    self.send(Errand::Delete(name.parse().unwrap()), |w| {
                        let plain = w.there.remove(&name).unwrap();
                        w.deleted.entry(name).or_default().push(plain);
                    });
                }
            }
            Does::Undelete(n) => {
                let names: Vec<String> = self.deleted.keys().cloned().collect();
                if let Some(name) = names.get(n % names.len().max(1)).cloned() {
                    self.send(Errand::Undelete(name.parse().unwrap()), |w| {
                        let all = w.deleted.get_mut(&name).unwrap();
                        let plain = all.pop().unwrap();
                        if all.is_empty() {
                            w.deleted.remove(&name);
                        }
                        w.there.insert(name, plain);
                    });
                }
            }
            Does::Run(up) => {
                self.disk.is_down.store(!up, Ordering::Relaxed);
                self.run();
            }
        }
    }

    fn check(&self) {
        // The player's last word is played, whatever became of the files.
        let own = &self.there[&self.playing];
        assert_eq!(self.controls.profile().title(), own.title);
        assert_eq!(self.horn_of(&self.controls), own.horn);
        if self.disk.is_down.load(Ordering::Relaxed) || self.controls.wants_saving() {
            return;
        }
        let roster = self.locker.roster().unwrap();
        let found: BTreeMap<String, Plain> = roster
            .there
            .iter()
            .map(|(name, title)| {
                let sheet = self.controls.seat().rig().sheet();
                let other = Controls::open(sheet, self.locker.clone(), name, &Layout::us());
                let plain = Plain {
                    title: title.clone(),
                    horn: self.horn_of(&other),
                };
                (name.to_string(), plain)
            })
            .collect();
        let mut wanted = self.there.clone();
        if !self.is_kept {
            wanted.remove(&self.playing);
        }
        assert_eq!(found, wanted);
        let deleted: Vec<String> = roster
            .deleted
            .iter()
            .map(|(name, _)| name.to_string())
            .collect();
        assert_eq!(deleted, self.deleted.keys().cloned().collect::<Vec<_>>());
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(300)))]

    #[test]
    fn profiles_are_what_the_player_made_of_them(all in proptest::collection::vec(does(), 0..40)) {
        let mut world = World::new();
        for does in &all {
            world.step(does);
            world.check();
        }
    }
}

/// What is applied while another profile is on its way is kept before that one is played.
#[test]
fn the_last_word_is_kept_before_another_profile_is_played() {
    let mut world = World::new();
    world.step(&Does::Make);
    let bind = |world: &mut World, key: Place| {
        let mut draft = world.controls.draft();
        let _ = draft.bind(world.horn, key.into()).unwrap();
        world.controls.apply(&mut draft);
    };
    assert!(world.controls.send(Errand::Switch(Slug::from_title("ada"))));
    let saving = world.controls.saving().unwrap();
    let done = saving.run();
    bind(&mut world, Place::KeyK);
    world.controls.saved(done);
    assert_eq!(world.controls.profile().title(), "sailor1");
    world.controls.save();
    assert_eq!(world.controls.profile().title(), "ada");
    assert!(
        world
            .controls
            .send(Errand::Switch(Slug::from_title("sailor1")))
    );
    world.controls.save();
    assert_eq!(world.horn_of(&world.controls), Place::KeyK);

    // A save that failed a moment ago is tried again at once, and not left out.
    world.disk.is_down.store(true, Ordering::Relaxed);
    bind(&mut world, Place::KeyL);
    let done = world.controls.saving().unwrap().run();
    world.controls.saved(done);
    assert!(world.controls.saving().is_none(), "it waits");
    world.disk.is_down.store(false, Ordering::Relaxed);
    assert!(world.controls.send(Errand::Switch(Slug::from_title("ada"))));
    let done = world.controls.saving().unwrap().run();
    world.controls.saved(done);
    assert_eq!(world.controls.profile().title(), "ada");
    assert!(
        world
            .controls
            .send(Errand::Switch(Slug::from_title("sailor1")))
    );
    world.controls.save();
    assert_eq!(world.horn_of(&world.controls), Place::KeyL);
}

/// A profile that cannot be read is not played as one without changes.
#[test]
fn a_profile_that_cannot_be_read_is_not_switched_to() {
    let mut world = World::new();
    world.disk.inner.replace("ben.toml", b"title = [").unwrap();
    assert!(world.controls.send(Errand::Switch(Slug::from_title("ben"))));
    world.controls.open_screen(swap_knot::Time::ZERO);
    world.controls.save();
    assert_eq!(world.controls.profile().title(), "ada");
    let view = world.controls.screen_mut().unwrap().view();
    let told = "Your saved controls are damaged and cannot be used. The file is kept.";
    assert_eq!(view.message.as_deref(), Some(told));
    assert_eq!(world.disk.inner.read("ben.toml", 99).unwrap(), b"title = [");
    assert_eq!(world.locker.active().unwrap(), None);
}

/// What a friend wrote stands in a line of others without turning it round, breaking it or filling a screen.
#[test]
fn a_title_of_a_friend_does_nothing_to_what_it_stands_in() {
    let titles = [
        ("Ada", "Ada"),
        ("אדה של הדוברה", "אדה של הדוברה"),
        ("Ada\u{202e}evil\u{202c}", "Adaevil"),
        ("Ada\nBo\u{2028}Cem", "Ada Bo Cem"),
        ("\u{1b}[31mred", " [31mred"),
    ];
    for (title, wanted) in titles {
        assert_eq!(Profile::new(title).shown_title(), wanted);
        assert_eq!(
            Profile::new(title).title(),
            title,
            "it is kept as it was typed"
        );
    }
    let long = "x".repeat(1 << 18);
    assert_eq!(
        Profile::new(long.as_str()).shown_title().chars().count(),
        81
    );
    let text = format!("format = 1\npreset = \"{long}\"\n[bind.{long}]\nkeyboard-1 = \"KeyA\"\n");
    let sheet = Sheet::from_toml("game = \"x\"\n[actions.horn]\nbind = \"KeyH\"").unwrap();
    let profile = Profile::from_toml(&text).unwrap();
    let carried = swap_knot::remap::CarriedOver::new(&sheet, &profile, &Layout::us());
    let draft = swap_knot::Draft::new(&sheet, profile.clone(), &Layout::us());
    let lines = carried.describe(&sheet).into_iter();
    for line in lines.chain([draft.tell(&carried)]) {
        assert!(line.len() < 1000, "{} bytes", line.len());
    }
    assert_eq!(Profile::from_toml(&profile.to_toml()).unwrap(), profile);
}
