//! Undo and redo, step by step: a step holds what it changed and nothing else.

use std::collections::{BTreeSet, VecDeque};

use super::Draft;
use crate::profile::{Profile, Setting, SettingValue};

/// The most steps that can be taken back.
const MOST: usize = 1000;

/// What one edit changed: each setting before and after.
#[derive(Clone, Debug)]
struct Step(Vec<(Setting, Option<SettingValue>, Option<SettingValue>)>);

/// The steps that can be taken back, and those that were.
#[derive(Clone, Debug, Default)]
pub(super) struct History {
    done: VecDeque<Step>,
    undone: Vec<Step>,
}

impl History {
    /// Notes an edit.
    pub(super) fn note(&mut self, before: &Profile, after: &Profile) {
        let all = before.settings().chain(after.settings()).map(|(s, _)| s);
        let all: BTreeSet<&Setting> = all.collect();
        let changed = all.into_iter().filter_map(|setting| {
            let (old, new) = (before.setting(setting), after.setting(setting));
            (old != new).then(|| (setting.clone(), old.cloned(), new.cloned()))
        });
        self.done.push_back(Step(changed.collect()));
        self.undone.clear();
        if self.done.len() > MOST {
            self.done.pop_front();
        }
    }
}

impl Draft {
    /// Takes the last edit back; `false` when there is none. The last thousand are remembered.
    pub fn undo(&mut self) -> bool {
        let Some(step) = self.history.done.pop_back() else {
            return false;
        };
        for (setting, before, _) in &step.0 {
            self.profile.put(setting.clone(), before.clone());
        }
        self.history.undone.push(step);
        self.judge();
        true
    }

    /// Makes the edit again that was taken back last; `false` when there is none.
    pub fn redo(&mut self) -> bool {
        let Some(step) = self.history.undone.pop() else {
            return false;
        };
        for (setting, _, after) in &step.0 {
            self.profile.put(setting.clone(), after.clone());
        }
        self.history.done.push_back(step);
        self.judge();
        true
    }

    /// Whether there is an edit to take back.
    pub fn can_undo(&self) -> bool {
        !self.history.done.is_empty()
    }

    /// Whether there is an edit to make again.
    pub fn can_redo(&self) -> bool {
        !self.history.undone.is_empty()
    }
}
