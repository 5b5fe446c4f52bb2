//! Devices that are lost, pulled out, handed over, or heard by a menu.

use std::collections::{BTreeMap, BTreeSet};

use super::book::{Book, Leaf, is_whole, leaves, relatives};
use super::rules::Model;

/// Where the inputs of a device are that plays for nobody.
#[derive(Clone, Debug, Default)]
pub struct Elsewhere {
    levels: BTreeMap<Leaf, [f32; 2]>,
    down: BTreeSet<Leaf>,
}

impl Model {
    /// Every leaf that any device has told of, and what moves with it.
    pub fn heard_of(&self) -> BTreeSet<Leaf> {
        let told = self.book.levels.keys();
        told.flat_map(|(_, l)| std::iter::once(*l).chain(relatives(*l)))
            .collect()
    }

    /// A device is lost, or does not count for a while; every device where it is `None`.
    pub fn lose(&mut self, device: Option<u16>, unplugged: bool) {
        self.quietly(|m| {
            let devices = m.book.devices().into_iter();
            for device in devices.filter(|d| device.is_none_or(|one| one == *d)) {
                for leaf in m.heard_of() {
                    // Another rig may have another rest.
                    let somewhere = m.book.level(device, leaf) != [0.0, 0.0];
                    let away = m.is_away(device, leaf);
                    if away {
                        m.book.spent.insert((device, leaf));
                    }
                    if away || somewhere {
                        m.book.unheard.insert((device, leaf));
                    }
                }
                if unplugged {
                    m.book.forget(device);
                }
            }
        });
    }

    /// A device is gone, whomever it plays for.
    pub fn unplug(&mut self, device: u16) {
        match self.elsewhere.get_mut(&device) {
            Some(held) => *held = Elsewhere::default(),
            None => {
                self.lose(Some(device), true);
                self.lose_latches(Some(device));
            }
        }
    }

    pub fn is_button_down(&self, device: u16, leaf: Leaf) -> bool {
        let elsewhere = self.elsewhere.get(&device);
        elsewhere.map_or_else(
            || self.book.down.contains(&(device, leaf)),
            |held| held.down.contains(&leaf),
        )
    }

    pub fn follow_elsewhere(&mut self, device: u16, whole: Leaf, at: [f32; 2], down: Option<bool>) {
        let held = self.elsewhere.get_mut(&device).unwrap();
        match down {
            Some(true) => drop(held.down.insert(whole)),
            Some(false) => drop(held.down.remove(&whole)),
            None => {
                held.levels.insert(whole, at);
                let mut book = Book::default();
                book.levels.insert((device, whole), at);
                let parts = if is_whole(whole) {
                    leaves(whole)
                } else {
                    vec![whole]
                };
                for leaf in parts {
                    // Nobody's feel is asked: the usual one goes.
                    let far = book.level(device, leaf)[0].abs();
                    let edge = if held.down.contains(&leaf) {
                        far > 0.4
                    } else {
                        far >= 0.5
                    };
                    match edge {
                        true => drop(held.down.insert(leaf)),
                        false => drop(held.down.remove(&leaf)),
                    }
                }
            }
        }
    }

    /// Rule: what is down when a device joins is spent; a device that leaves holds nothing here.
    pub fn give(&mut self, device: u16, mine: bool) {
        match (mine, self.elsewhere.remove(&device)) {
            (false, None) => {
                let mut held = Elsewhere::default();
                let own = self.book.levels.iter().filter(|((d, _), _)| *d == device);
                held.levels
                    .extend(own.map(|(&(_, leaf), &level)| (leaf, level)));
                let down = self.book.down.iter().filter(|(d, _)| *d == device);
                held.down.extend(down.map(|(_, leaf)| *leaf));
                self.lose(Some(device), true);
                self.lose_latches(Some(device));
                self.elsewhere.insert(device, held);
            }
            (false, Some(held)) => drop(self.elsewhere.insert(device, held)),
            (true, None) => {}
            (true, Some(held)) => {
                self.quietly(|m| {
                    for (leaf, level) in held.levels {
                        m.book.levels.insert((device, leaf), level);
                    }
                    for leaf in held.down {
                        if relatives(leaf).is_empty() {
                            m.book.levels.entry((device, leaf)).or_insert([0.0, 0.0]);
                        }
                        m.book.down.insert((device, leaf));
                    }
                    for leaf in m.heard_of() {
                        if m.is_away(device, leaf) {
                            m.book.spent.insert((device, leaf));
                        }
                    }
                    m.note_waits(None);
                });
                self.take_up(None);
            }
        }
    }

    /// Rule: of an event that a menu has, what leaves its rest is spent; what was held goes on.
    pub fn overhear(&mut self, device: u16, whole: Leaf, at: [f32; 2], down: Option<bool>) {
        self.quietly(|m| {
            m.book.levels.entry((device, whole)).or_insert([0.0, 0.0]);
            let away = |m: &Model| -> BTreeSet<Leaf> {
                let all = m.heard_of().into_iter();
                all.filter(|l| m.is_away(device, *l)).collect()
            };
            let before = away(m);
            match down {
                Some(down) => drop(m.set_down(device, whole, down)),
                None => drop(m.set_level(device, whole, at)),
            }
            let new: Vec<Leaf> = away(m).difference(&before).copied().collect();
            let within = m
                .heard_of()
                .into_iter()
                .filter(|leaf| !before.contains(leaf) && m.book.level(device, *leaf) != [0.0, 0.0]);
            let within: Vec<Leaf> = within.collect();
            for leaf in new {
                m.book.spent.insert((device, leaf));
                m.book.unheard.insert((device, leaf));
            }
            for leaf in within {
                m.book.unheard.insert((device, leaf));
            }
        });
    }
}
